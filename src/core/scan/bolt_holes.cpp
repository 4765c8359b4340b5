#include "scan/bolt_holes.hpp"

#include "scan/sectors.hpp"
#include "task/cancel.hpp"

#include <cmath>
#include <cstdint>
#include <set>

namespace deepstop::scan {

BoltHoles::BoltHoles(const std::vector<std::array<double, 2>>& walls, double faceRadius)
{
    if (walls.size() < 30)
        return;
    // Every place of a grid as a hole's middle: how much of a circle about it has a wall, and nothing inside.
    constexpr double grid = 1 * millimetre;
    constexpr double widest = 12 * millimetre;
    constexpr double narrowest = 5 * millimetre;
    constexpr double reach = 0.1;
    constexpr int across = static_cast<int>(2 * reach / grid);
    std::vector<std::vector<std::uint32_t>> cells(static_cast<std::size_t>(across * across));
    const auto cellOf = [&](double v) { return std::clamp(static_cast<int>((v + reach) / grid), 0, across - 1); };
    // Some thousands tell where to look; where it is they all tell.
    constexpr std::size_t enough = 6000;
    for (std::size_t i = 0; i < walls.size(); i += std::max<std::size_t>(1, walls.size() / enough))
        cells[static_cast<std::size_t>(cellOf(walls[i][1]) * across + cellOf(walls[i][0]))].push_back(static_cast<std::uint32_t>(i));
    struct Candidate {
        double score;
        double x, y, radius;
    };
    std::vector<Candidate> candidates;
    constexpr std::size_t sectors = 16;
    constexpr std::size_t sizes = 15; // half millimetres from the narrowest
    for (double y = -reach; y < reach; y += grid) {
        endIfCancelled();
        for (double x = -reach; x < reach; x += grid) {
            const double r = std::hypot(x, y);
            if (r < 35 * millimetre || r > faceRadius - narrowest)
                continue;
            std::array<std::array<bool, sectors>, sizes> there {};
            double inside = 0;
            double near = 0;
            const int reachCells = static_cast<int>(widest / grid) + 1;
            for (int j = cellOf(y) - reachCells; j <= cellOf(y) + reachCells; ++j)
                for (int i = cellOf(x) - reachCells; i <= cellOf(x) + reachCells; ++i) {
                    if (i < 0 || j < 0 || i >= across || j >= across)
                        continue;
                    for (const std::uint32_t w : cells[static_cast<std::size_t>(j * across + i)]) {
                        const double dx = walls[w][0] - x;
                        const double dy = walls[w][1] - y;
                        const double far = std::hypot(dx, dy);
                        if (far < narrowest - 1.5 * millimetre)
                            ++inside;
                        else if (far < widest)
                            ++near;
                        const double size = (far - narrowest) / (0.5 * millimetre);
                        for (int s = static_cast<int>(size) - 1; s <= static_cast<int>(size) + 1; ++s)
                            if (s >= 0 && s < static_cast<int>(sizes))
                                there[static_cast<std::size_t>(s)][sectorOf(std::atan2(dy, dx), sectors)] = true;
                    }
                }
            if (inside > 0.03 * near + 1)
                continue;
            for (std::size_t s = 0; s < sizes; ++s) {
                const auto full = static_cast<double>(std::ranges::count(there[s], true));
                if (full >= 11)
                    candidates.push_back({ full, x, y, narrowest + static_cast<double>(s) * 0.5 * millimetre });
            }
        }
    }
    std::ranges::stable_sort(candidates, std::greater<> {}, &Candidate::score);
    std::vector<Circle> found;
    for (const Candidate& c : candidates) {
        if (std::ranges::any_of(found, [&](const Circle& f) { return std::hypot(f.x - c.x, f.y - c.y) < f.radius + 4 * millimetre; }))
            continue;
        std::vector<std::array<double, 2>> points;
        for (const auto& w : walls)
            if (std::abs(std::hypot(w[0] - c.x, w[1] - c.y) - c.radius) < 2 * millimetre)
                points.push_back(w);
        const auto circle = circleThrough(points);
        if (circle && circle->seen > 0.5 && std::hypot(circle->x, circle->y) + circle->radius < faceRadius + 1 * millimetre
            && std::hypot(circle->x - c.x, circle->y - c.y) < 3 * millimetre && std::abs(circle->radius - c.radius) < 2.5 * millimetre)
            found.push_back(*circle);
    }
    // The pattern that most of them fit: n evenly about the axis, at one radius, of one size.
    int bestSeen = 0;
    for (const Circle& first : found) {
        const double radius = std::hypot(first.x, first.y);
        const double angle = std::atan2(first.y, first.x);
        for (int n = 3; n <= 10; ++n) {
            std::vector<Circle> fits;
            std::set<long> places;
            for (const Circle& each : found) {
                const double place = (std::atan2(each.y, each.x) - angle) / turn * n;
                const double off = std::abs(place - std::round(place)) * turn / n * radius;
                if (off < 1.5 * millimetre && std::abs(std::hypot(each.x, each.y) - radius) < 1.5 * millimetre
                    && std::abs(each.radius - first.radius) < 1 * millimetre && places.insert((std::lround(place) + n) % n).second)
                    fits.push_back(each);
            }
            // More than half of the places are seen to have a hole; of patterns that fit as many the coarsest.
            if (static_cast<int>(fits.size()) > bestSeen && static_cast<double>(fits.size()) > 0.5 * n && fits.size() >= 3) {
                bestSeen = static_cast<int>(fits.size());
                count_ = n;
                seen_ = std::move(fits);
            }
        }
    }
    if (count_ == 0)
        return;
    double sum = 0;
    double error = 0;
    double x = 0;
    double y = 0;
    for (const Circle& each : seen_) {
        sum += std::hypot(each.x, each.y);
        error += each.plusMinus * each.plusMinus;
        x += each.x;
        y += each.y;
    }
    const auto n = static_cast<double>(seen_.size());
    circle_ = { x / n, y / n, sum / n, std::sqrt(error) / n, 0, n / count_ };
    double squares = 0;
    for (const Circle& each : seen_)
        squares += std::pow(std::hypot(each.x, each.y) - circle_.radius, 2);
    circle_.rough = std::sqrt(squares / n);
    circle_.plusMinus = std::max(circle_.plusMinus, 3 * circle_.rough / std::sqrt(n));
}

} // namespace deepstop::scan
