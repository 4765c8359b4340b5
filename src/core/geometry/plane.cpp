#include "geometry/plane.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

namespace deepstop::geometry {
namespace {

double dot(Point a, Point b) { return a.z * b.z + a.r * b.r; }
double cross(Point a, Point b) { return a.z * b.r - a.r * b.z; }

Nearest toSegment(Point p, Point b0, Point b1)
{
    const Point along = b1 - b0;
    const double length2 = dot(along, along);
    const double t = length2 > 0 ? std::clamp(dot(p - b0, along) / length2, 0.0, 1.0) : 0.0;
    const Point foot = b0 + along * t;
    return { std::hypot(p.z - foot.z, p.r - foot.r), p, foot };
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
    return std::min({ toSegment(a0, b0, b1), toSegment(a1, b0, b1), swapped(toSegment(b0, a0, a1)), swapped(toSegment(b1, a0, a1)) },
        [](const Nearest& x, const Nearest& y) { return x.distance < y.distance; });
}

std::optional<Nearest> distance(std::span<const Point> a, std::span<const Point> b)
{
    const auto finite = [](Point p) { return std::isfinite(p.z) && std::isfinite(p.r); };
    if (a.size() < 2 || b.size() < 2 || !std::ranges::all_of(a, finite) || !std::ranges::all_of(b, finite))
        return {};
    std::optional<Nearest> best;
    for (std::size_t i = 0; i + 1 < a.size(); ++i)
        for (std::size_t j = 0; j + 1 < b.size(); ++j) {
            const Nearest found = distance(a[i], a[i + 1], b[j], b[j + 1]);
            if (!best || found.distance < best->distance)
                best = found;
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
