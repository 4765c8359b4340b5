#include "scan/axis.hpp"

#include "quantity/quantile.hpp"
#include "scan/vectors.hpp"
#include "task/cancel.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::scan {
namespace {

using Eigen::Matrix3d;
using Eigen::Vector3d;

} // namespace

std::vector<Patch> patchesOf(const Mesh& mesh, double unit, double width)
{
    // A grid over where all but outliers lie; opposite faces of one wall fall into one cell, but look six ways.
    constexpr double beside = 0.1;
    constexpr std::size_t mostCells = 8'000'000;
    const Extent extent = extentOf(mesh);
    const double margin = beside * extent.largest();
    std::array<std::size_t, 3> cells {};
    double cell = width / unit;
    while (true) {
        std::size_t all = 6;
        for (std::size_t i = 0; i < 3; ++i) {
            cells[i] = static_cast<std::size_t>((extent.to[i] - extent.from[i] + 2 * margin) / cell) + 1;
            all *= cells[i];
        }
        if (all <= mostCells || !(cell > 0))
            break;
        cell *= 1.5;
    }
    struct Cell {
        std::array<float, 3> at;
        std::array<float, 3> area;
        float weight;
        std::uint32_t count;
    };
    std::vector<Cell> grid(cells[0] * cells[1] * cells[2] * 6);
    for (std::size_t t = 0; t < mesh.triangles(); ++t) {
        if (t % 65536 == 0)
            endIfCancelled();
        const Eigen::Vector3f a(mesh.corners[3 * t].data());
        const Eigen::Vector3f b(mesh.corners[3 * t + 1].data());
        const Eigen::Vector3f c(mesh.corners[3 * t + 2].data());
        const Eigen::Vector3f area = (b - a).cross(c - a) / 2;
        const float size = area.norm();
        // One larger than the part is none of its surface.
        if (!(size > 0) || size > extent.largest() * extent.largest())
            continue;
        // Large triangles stand for many patches.
        const int across = std::clamp(static_cast<int>(std::sqrt(2 * size) / cell) + 1, 1, 64);
        for (int i = 0; i < across; ++i)
            for (int k = 0; k < 2 * (across - i) - 1; ++k) {
                const float row = (static_cast<float>(i) + (k % 2 ? 2.0f : 1.0f) / 3) / static_cast<float>(across);
                const float column = (static_cast<float>(k / 2) + (k % 2 ? 2.0f : 1.0f) / 3) / static_cast<float>(across);
                const Eigen::Vector3f at = a + (b - a) * row + (c - a) * column;
                std::size_t index = 0;
                bool inside = true;
                for (int axis = 0; axis < 3; ++axis) {
                    const double place = (at[axis] - extent.from[static_cast<std::size_t>(axis)] + margin) / cell;
                    inside = inside && place >= 0 && place < static_cast<double>(cells[static_cast<std::size_t>(axis)]);
                    if (inside)
                        index = index * cells[static_cast<std::size_t>(axis)] + static_cast<std::size_t>(place);
                }
                if (!inside)
                    continue;
                Eigen::Index way = 0;
                area.cwiseAbs().maxCoeff(&way);
                Cell& into = grid[index * 6 + static_cast<std::size_t>(way) * 2 + (area[way] < 0 ? 1 : 0)];
                const float share = size / static_cast<float>(across * across);
                for (int axis = 0; axis < 3; ++axis) {
                    into.at[static_cast<std::size_t>(axis)] += at[axis] * share;
                    into.area[static_cast<std::size_t>(axis)] += area[axis] * share / size;
                }
                into.weight += share;
                ++into.count;
            }
    }
    std::vector<Patch> patches;
    // Less than a quarter of a cell's floor tells no direction.
    const auto least = static_cast<float>(cell * cell / 4);
    for (const Cell& each : grid) {
        if (each.count == 0 || !(each.weight > least))
            continue;
        const Vector3d area(each.area[0], each.area[1], each.area[2]);
        const double norm = area.norm();
        // What faces every way at once is no surface.
        if (!(norm > 0.3 * each.weight))
            continue;
        const Vector3d at = Vector3d(each.at[0], each.at[1], each.at[2]) / each.weight * unit;
        patches.push_back({ point(at), point(area / norm), norm * unit * unit });
    }
    return patches;
}

std::optional<Axis> axisOf(const std::vector<Patch>& patches)
{
    constexpr std::size_t fewest = 50;
    if (patches.size() < fewest)
        return {};
    Vector3d middle = Vector3d::Zero();
    double all = 0;
    for (const Patch& p : patches) {
        middle += p.area * vec(p.at);
        all += p.area;
    }
    middle /= all;
    double spread = 0;
    for (const Patch& p : patches)
        spread += p.area * (vec(p.at) - middle).squaredNorm();
    spread = std::sqrt(spread / all);
    // A normal through p along n meets the axis (a, m): n·m + (p × n)·a = 0. Lengths are over the spread, so that both parts weigh alike.
    std::vector<double> weights(patches.size(), 1);
    Vector3d a = Vector3d::UnitZ();
    Vector3d m = Vector3d::Zero();
    const auto miss = [&](const Patch& p) {
        const Vector3d n = vec(p.normal);
        const Vector3d arm = (vec(p.at) - middle) / spread;
        // How far the normal passes the axis, unless it runs along it; then it misses nothing.
        const double across = std::max(n.cross(a).norm(), 0.2);
        return std::abs(n.dot(m) + arm.cross(n).dot(a)) / across;
    };
    constexpr int rounds = 40;
    for (int round = 0; round < rounds; ++round) {
        endIfCancelled();
        Matrix3d normals = Matrix3d::Zero();
        Matrix3d mixed = Matrix3d::Zero();
        Matrix3d moments = Matrix3d::Zero();
        for (std::size_t i = 0; i < patches.size(); ++i) {
            const Vector3d n = vec(patches[i].normal);
            const Vector3d k = ((vec(patches[i].at) - middle) / spread).cross(n);
            const double w = weights[i] * patches[i].area;
            normals += w * n * n.transpose();
            mixed += w * n * k.transpose();
            moments += w * k * k.transpose();
        }
        normals += 1e-9 * normals.trace() * Matrix3d::Identity();
        const Matrix3d solved = normals.ldlt().solve(mixed);
        const Eigen::SelfAdjointEigenSolver<Matrix3d> eigen(moments - mixed.transpose() * solved);
        a = eigen.eigenvectors().col(0).normalized();
        m = -solved * a;
        m -= a * a.dot(m); // a line has no pitch
        // From lenient to strict: what misses by more than most of the surface has little to say.
        std::vector<double> misses(patches.size());
        std::ranges::transform(patches, misses.begin(), miss);
        const double lenient = std::max({ 0.3 * std::pow(0.8, round), 2 * quantile(misses, 1.0 / 3), 0.003 });
        for (std::size_t i = 0; i < patches.size(); ++i)
            weights[i] = 1 / std::pow(1 + std::pow(misses[i] / lenient, 2), 2);
    }
    double turned = 0;
    constexpr double near = 0.1;
    for (const Patch& p : patches)
        if (miss(p) < near)
            turned += p.area;
    Axis axis;
    axis.direction = point(a);
    axis.through = point(middle + a.cross(m) * spread);
    axis.share = turned / all;
    constexpr double leastShare = 0.25;
    if (!(axis.share > leastShare))
        return {};
    return axis;
}

Frame::Frame(const Axis& axis) : axis_(axis)
{
    const Vector3d a = vec(axis.direction);
    const Vector3d x = a.unitOrthogonal();
    x_ = point(x);
    y_ = point(a.cross(x));
}

Frame::Place Frame::of(const Point& p) const
{
    const Vector3d from = vec(p) - vec(axis_.through);
    const double x = from.dot(vec(x_));
    const double y = from.dot(vec(y_));
    return { from.dot(vec(axis_.direction)), std::hypot(x, y), std::atan2(y, x) };
}

Point Frame::turned(const Point& direction, double angle) const
{
    const double x = vec(direction).dot(vec(x_));
    const double y = vec(direction).dot(vec(y_));
    const double c = std::cos(angle);
    const double s = std::sin(angle);
    return { vec(direction).dot(vec(axis_.direction)), x * c + y * s, y * c - x * s };
}

Point Frame::back(double along, double radius, double angle) const
{
    return point(vec(axis_.through) + along * vec(axis_.direction) + radius * (std::cos(angle) * vec(x_) + std::sin(angle) * vec(y_)));
}

} // namespace deepstop::scan
