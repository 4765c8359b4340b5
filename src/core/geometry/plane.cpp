#include "geometry/box.hpp"

#include <algorithm>
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
    for (const Nearest& other :
        { squaredToSegment(a1, b0, b1), swapped(squaredToSegment(b0, a0, a1)), swapped(squaredToSegment(b1, a0, a1)) })
        if (other.distance < nearest.distance)
            nearest = other;
    nearest.distance = std::sqrt(nearest.distance);
    return nearest;
}

namespace {

/// No two things are nearer than the boxes around them. Squared.
double atLeastApart(const Box& a, const Box& b)
{
    const Point away = apart(a, b);
    const double z = std::max(0.0, away.z);
    const double r = std::max(0.0, away.r);
    return z * z + r * r;
}

/// The straight of `chain` whose box is nearest to `box`.
std::size_t nearestStraight(std::span<const Point> chain, const Box& box)
{
    std::size_t nearest = 0;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i + 1 < chain.size(); ++i)
        if (const double there = atLeastApart(boxAround(chain[i], chain[i + 1]), box); there < least) {
            least = there;
            nearest = i;
        }
    return nearest;
}

} // namespace

std::optional<Nearest> distance(std::span<const Point> a, std::span<const Point> b)
{
    const auto finite = [](Point p) { return std::isfinite(p.z) && std::isfinite(p.r); };
    if (a.size() < 2 || b.size() < 2 || !std::ranges::all_of(a, finite) || !std::ranges::all_of(b, finite))
        return {};
    // A pair that is probably near goes first; its distance rules out nearly all the others, first by whole chains, then by straights.
    const Box aroundA = boxAround(a);
    const Box aroundB = boxAround(b);
    const std::size_t j = nearestStraight(b, aroundA);
    const std::size_t i = nearestStraight(a, boxAround(b[j], b[j + 1]));
    Nearest best = distance(a[i], a[i + 1], b[j], b[j + 1]);
    double least = best.distance * best.distance;
    struct Straight {
        std::size_t index;
        Box box;
    };
    std::vector<Straight> near;
    near.reserve(b.size());
    for (std::size_t k = 0; k + 1 < b.size(); ++k)
        if (const Box box = boxAround(b[k], b[k + 1]); atLeastApart(box, aroundA) < least)
            near.push_back({ k, box });
    for (std::size_t h = 0; h + 1 < a.size(); ++h) {
        const Box box = boxAround(a[h], a[h + 1]);
        if (atLeastApart(box, aroundB) >= least)
            continue;
        for (const Straight& straight : near) {
            if (atLeastApart(box, straight.box) >= least)
                continue;
            const Nearest found = distance(a[h], a[h + 1], b[straight.index], b[straight.index + 1]);
            if (found.distance < best.distance) {
                best = found;
                least = found.distance * found.distance;
            }
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
