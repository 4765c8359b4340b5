#include "scan/circle.hpp"

#include "quantity/quantile.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace deepstop::scan {

std::optional<Circle> circleThrough(std::span<const std::array<double, 2>> points)
{
    constexpr std::size_t fewest = 8;
    if (points.size() < fewest)
        return {};
    Circle c;
    std::vector<double> weights(points.size(), 1);
    std::vector<double> misses(points.size());
    // x² + y² = 2·a·x + 2·b·y + d
    Eigen::Matrix3d normal = Eigen::Matrix3d::Zero();
    Eigen::Vector3d right = Eigen::Vector3d::Zero();
    double x0 = 0;
    double y0 = 0;
    for (const auto& [x, y] : points) {
        x0 += x / static_cast<double>(points.size());
        y0 += y / static_cast<double>(points.size());
    }
    for (const auto& [px, py] : points) {
        const Eigen::Vector3d row(2 * (px - x0), 2 * (py - y0), 1);
        normal += row * row.transpose();
        right += row * ((px - x0) * (px - x0) + (py - y0) * (py - y0));
    }
    const Eigen::Vector3d first = normal.ldlt().solve(right);
    c = { first[0] + x0, first[1] + y0, std::sqrt(std::max(0.0, first[2] + first[0] * first[0] + first[1] * first[1])), 0, 0, 0 };
    Eigen::Matrix3d information = Eigen::Matrix3d::Identity();
    constexpr int rounds = 25;
    for (int round = 0; round < rounds; ++round) {
        for (std::size_t i = 0; i < points.size(); ++i)
            misses[i] = std::hypot(points[i][0] - c.x, points[i][1] - c.y) - c.radius;
        std::vector<double> sizes(misses.size());
        std::ranges::transform(misses, sizes.begin(), [](double m) { return std::abs(m); });
        // The median of what misses, as a standard deviation.
        c.rough = std::max(1.4826 * quantile(std::move(sizes), 0.5), 1e-9);
        Eigen::Vector3d step = Eigen::Vector3d::Zero();
        information.setZero();
        for (std::size_t i = 0; i < points.size(); ++i) {
            const double far = misses[i] / (4.685 * c.rough);
            const double w = std::abs(far) < 1 ? std::pow(1 - far * far, 2) : 0;
            const double angle = std::atan2(points[i][1] - c.y, points[i][0] - c.x);
            const Eigen::Vector3d row(std::cos(angle), std::sin(angle), 1);
            information += w * row * row.transpose();
            step += w * row * misses[i];
        }
        const Eigen::Vector3d moved = information.ldlt().solve(step);
        if (!moved.allFinite())
            return {};
        c.x += moved[0];
        c.y += moved[1];
        c.radius += moved[2];
        if (moved.norm() < 1e-9)
            break;
    }
    constexpr std::size_t sectors = 36;
    std::array<bool, sectors> there {};
    for (std::size_t i = 0; i < points.size(); ++i)
        if (std::abs(misses[i]) < 4 * c.rough) {
            const double angle = std::atan2(points[i][1] - c.y, points[i][0] - c.x) / (2 * std::numbers::pi) + 0.5;
            there[std::min(sectors - 1, static_cast<std::size_t>(angle * sectors))] = true;
        }
    c.seen = static_cast<double>(std::ranges::count(there, true)) / sectors;
    const Eigen::Matrix3d covariance = information.inverse();
    c.plusMinus = 3 * c.rough * std::sqrt(std::max({ covariance(0, 0), covariance(1, 1), covariance(2, 2) }));
    if (!std::isfinite(c.plusMinus) || !(c.radius > 0))
        return {};
    return c;
}

} // namespace deepstop::scan
