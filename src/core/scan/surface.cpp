#include "scan/surface.hpp"

#include "quantity/quantile.hpp"
#include "task/cancel.hpp"
#include "task/parallel.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::scan {

std::vector<Sample> Surface::inFrame(const Frame& frame, std::size_t most) const
{
    double spacing = 2.5e-3;
    const std::size_t stride = most ? std::max<std::size_t>(1, mesh_.triangles() / most) : 1;
    const std::size_t count = mesh_.triangles() / stride;
    const auto acrossOf = [&](double area) { return std::clamp(static_cast<int>(std::sqrt(2 * area) / spacing), 1, 64); };
    // A triangle larger than the part is none of its surface; and however large they are, so many samples are enough.
    const double largest = std::pow(extentOf(mesh_).largest() * unit_, 2);
    constexpr double enough = 40e6;
    const auto areaOf = [&](std::size_t i) {
        const float* corners = mesh_.corners[3 * i * stride].data();
        const Eigen::Vector3f a(corners);
        const double area = (Eigen::Vector3f(corners + 3) - a).cross(Eigen::Vector3f(corners + 6) - a).norm() / 2 * unit_ * unit_;
        return area <= largest ? area : 0;
    };
    while (true) {
        double all = 0;
        for (std::size_t i = 0; i < count; ++i)
            all += std::pow(acrossOf(areaOf(i)), 2);
        if (all <= enough || all <= static_cast<double>(count))
            break;
        spacing *= 1.5;
        endIfCancelled();
    }
    // Blocks by threads, put together in order: the same samples whatever the machine.
    constexpr std::size_t block = 100'000;
    std::vector<std::vector<Sample>> blocks((count + block - 1) / block);
    parallelFor(blocks.size(), 0, [&](std::size_t b) {
        auto& into = blocks[b];
        into.reserve(block);
        for (std::size_t i = b * block; i < std::min(count, (b + 1) * block); ++i) {
            const float* corners = mesh_.corners[3 * i * stride].data();
            const Eigen::Vector3d a = Eigen::Vector3f(corners).cast<double>() * unit_;
            const Eigen::Vector3d ab = Eigen::Vector3f(corners + 3).cast<double>() * unit_ - a;
            const Eigen::Vector3d ac = Eigen::Vector3f(corners + 6).cast<double>() * unit_ - a;
            const Eigen::Vector3d cross = ab.cross(ac) * (insideOut_ ? -0.5 : 0.5);
            const double area = cross.norm();
            if (!(area > 0) || area > largest)
                continue;
            const Point normal { cross.x() / area, cross.y() / area, cross.z() / area };
            const int across = acrossOf(area);
            for (int row = 0; row < across; ++row)
                for (int k = 0; k < 2 * (across - row) - 1; ++k) {
                    const double u = (row + (k % 2 ? 2.0 : 1.0) / 3) / across;
                    const double v = (static_cast<double>(k / 2) + (k % 2 ? 2.0 : 1.0) / 3) / across;
                    const Eigen::Vector3d p = a + ab * u + ac * v;
                    const auto place = frame.of({ p.x(), p.y(), p.z() });
                    const Point n = frame.turned(normal, place.angle);
                    into.push_back({ static_cast<float>(place.along), static_cast<float>(place.radius), static_cast<float>(place.angle),
                        static_cast<float>(n[0]), static_cast<float>(n[1]), static_cast<float>(n[2]),
                        static_cast<float>(area / (across * across)) });
                }
        }
    });
    std::vector<Sample> samples;
    std::size_t all = 0;
    for (const auto& each : blocks)
        all += each.size();
    samples.reserve(all);
    for (auto& each : blocks) {
        samples.insert(samples.end(), each.begin(), each.end());
        std::vector<Sample>().swap(each);
    }
    return samples;
}

namespace {

constexpr std::size_t fewestInRing = 20;

} // namespace

Rings::Rings(const std::vector<Sample>& samples, double width) : width_(width)
{
    if (samples.empty())
        return;
    const auto [least, most] = std::ranges::minmax(samples, {}, &Sample::along);
    first_ = least.along;
    std::vector<std::vector<double>> radii(static_cast<std::size_t>((most.along - first_) / width_) + 1);
    for (const Sample& s : samples)
        radii[static_cast<std::size_t>((s.along - first_) / width_)].push_back(s.radius);
    for (auto& ring : radii)
        middles_.push_back(ring.size() >= fewestInRing ? quantile(std::move(ring), 0.5) : std::numeric_limits<double>::quiet_NaN());
    std::vector<double> misses;
    for (const Sample& s : samples)
        if (const auto ring = at(s.along))
            misses.push_back(std::abs(s.radius - ring->radius));
    rough_ = misses.empty() ? 0 : 1.4826 * quantile(std::move(misses), 0.5);
}

std::optional<Rings::Ring> Rings::at(double along) const
{
    const double place = (along - first_) / width_ - 0.5;
    const auto left = static_cast<std::ptrdiff_t>(std::floor(place));
    if (left < 0 || left + 1 >= static_cast<std::ptrdiff_t>(middles_.size()))
        return {};
    const double a = middles_[static_cast<std::size_t>(left)];
    const double b = middles_[static_cast<std::size_t>(left) + 1];
    if (std::isnan(a) || std::isnan(b))
        return {};
    return Ring { std::lerp(a, b, place - static_cast<double>(left)), (b - a) / width_ };
}

} // namespace deepstop::scan
