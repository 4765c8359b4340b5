#include "geometry/plane.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <limits>

namespace deepstop::geometry {
namespace {

double dot(Point a, Point b) { return a.z * b.z + a.r * b.r; }
double cross(Point a, Point b) { return a.z * b.r - a.r * b.z; }

/// Foot of `p` on the segment; `distance` is still squared, for comparing.
Nearest squaredToSegment(Point p, Point b0, Point b1)
{
    const Point along = b1 - b0;
    const double length2 = dot(along, along);
    const double t = length2 > 0 ? std::clamp(dot(p - b0, along) / length2, 0.0, 1.0) : 0.0;
    const Point foot = b0 + along * t;
    return { dot(p - foot, p - foot), p, foot };
}

Nearest swapped(Nearest n) { return { n.distance, n.to, n.from }; }

template <class Better>
std::optional<double> extremeAt(std::span<const Point> chain, double z, Better better)
{
    std::optional<double> found;
    const auto offer = [&](double r) {
        if (!found || better(r, *found))
            found = r;
    };
    for (std::size_t i = 0; i + 1 < chain.size(); ++i) {
        const Point a = chain[i];
        const Point b = chain[i + 1];
        if (z < std::min(a.z, b.z) || z > std::max(a.z, b.z))
            continue;
        if (a.z == b.z) {
            offer(a.r);
            offer(b.r);
        } else {
            offer(a.r + (b.r - a.r) * (z - a.z) / (b.z - a.z));
        }
    }
    return found;
}

} // namespace

Nearest distance(Point a0, Point a1, Point b0, Point b1)
{
    const Point u = a1 - a0;
    const Point v = b1 - b0;
    const double parallel = cross(u, v);
    if (parallel != 0) {
        const double s = cross(b0 - a0, v) / parallel;
        const double t = cross(b0 - a0, u) / parallel;
        if (s >= 0 && s <= 1 && t >= 0 && t <= 1)
            return { 0, a0 + u * s, a0 + u * s };
    }
    // Segments that do not cross are nearest at an end of one of them.
    Nearest nearest = squaredToSegment(a0, b0, b1);
    for (const Nearest& other : { squaredToSegment(a1, b0, b1), swapped(squaredToSegment(b0, a0, a1)), swapped(squaredToSegment(b1, a0, a1)) })
        if (other.distance < nearest.distance)
            nearest = other;
    nearest.distance = std::sqrt(nearest.distance);
    return nearest;
}

std::optional<Nearest> distance(std::span<const Point> a, std::span<const Point> b)
{
    const auto finite = [](Point p) { return std::isfinite(p.z) && std::isfinite(p.r); };
    if (a.size() < 2 || b.size() < 2 || !std::ranges::all_of(a, finite) || !std::ranges::all_of(b, finite))
        return {};
    std::optional<Nearest> best;
    // No two segments are nearer than the boxes around them: most pairs need no more than that.
    const auto boxesApart = [](Point a0, Point a1, Point b0, Point b1) {
        const double z = std::max({ 0.0, std::min(b0.z, b1.z) - std::max(a0.z, a1.z), std::min(a0.z, a1.z) - std::max(b0.z, b1.z) });
        const double r = std::max({ 0.0, std::min(b0.r, b1.r) - std::max(a0.r, a1.r), std::min(a0.r, a1.r) - std::max(b0.r, b1.r) });
        return z * z + r * r;
    };
    // The pair whose boxes are nearest goes first, so that its distance rules out nearly all the others.
    constexpr std::size_t most = 1024;
    std::array<double, most> kept;
    const std::size_t columns = b.size() - 1;
    const std::size_t pairs = (a.size() - 1) * columns;
    std::size_t first = 0;
    double leastApart = std::numeric_limits<double>::infinity();
    for (std::size_t k = 0; k < std::min(pairs, most); ++k) {
        kept[k] = boxesApart(a[k / columns], a[k / columns + 1], b[k % columns], b[k % columns + 1]);
        if (kept[k] < leastApart) {
            leastApart = kept[k];
            first = k;
        }
    }
    best = distance(a[first / columns], a[first / columns + 1], b[first % columns], b[first % columns + 1]);
    double least = best->distance * best->distance;
    for (std::size_t k = 0; k < pairs; ++k) {
        const Point a0 = a[k / columns];
        const Point a1 = a[k / columns + 1];
        const Point b0 = b[k % columns];
        const Point b1 = b[k % columns + 1];
        if ((k < most ? kept[k] : boxesApart(a0, a1, b0, b1)) >= least)
            continue;
        const Nearest found = distance(a0, a1, b0, b1);
        if (found.distance < best->distance) {
            best = found;
            least = found.distance * found.distance;
        }
    }
    return best;
}

Chain closed(Chain chain)
{
    if (!chain.empty())
        chain.push_back(chain.front());
    return chain;
}

std::optional<double> lowestAt(std::span<const Point> chain, double z) { return extremeAt(chain, z, std::less<> {}); }
std::optional<double> highestAt(std::span<const Point> chain, double z) { return extremeAt(chain, z, std::greater<> {}); }

Chain transposed(std::span<const Point> chain)
{
    Chain out(chain.begin(), chain.end());
    for (Point& p : out)
        std::swap(p.z, p.r);
    return out;
}

Chain moved(Chain chain, double dz, double dr)
{
    for (Point& p : chain)
        p = p + Point { dz, dr };
    return chain;
}

} // namespace deepstop::geometry
