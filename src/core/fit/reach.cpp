#include "fit/reach.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::fit {

using geometry::Point;

Box boxAround(std::span<const Point> points)
{
    Box box { points.front(), points.front() };
    for (const Point p : points) {
        box.low = { std::min(box.low.z, p.z), std::min(box.low.r, p.r) };
        box.high = { std::max(box.high.z, p.z), std::max(box.high.r, p.r) };
    }
    return box;
}

double leastRoom(const Box& below, const Box& above)
{
    const double along = std::max(above.low.z - below.high.z, below.low.z - above.high.z);
    const double across = above.low.r - below.high.r;
    return along > 0 ? std::hypot(along, std::max(across, 0.0)) : across;
}

namespace {

/// The least of `room` over the boxes of a chain's straights.
template <class Room>
double leastOver(std::span<const Point> chain, Room room)
{
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i + 1 < chain.size(); ++i)
        least = std::min(least, room(boxAround(chain.subspan(i, 2))));
    return least;
}

} // namespace

double leastRoom(std::span<const Point> below, const Box& above)
{
    return leastOver(below, [&](const Box& straight) { return leastRoom(straight, above); });
}

double leastRoom(const Box& below, std::span<const Point> above)
{
    return leastOver(above, [&](const Box& straight) { return leastRoom(below, straight); });
}

double sharedStretch(std::span<const Point> a, std::span<const Point> b)
{
    const Box first = boxAround(a);
    const Box second = boxAround(b);
    return std::min(first.high.z, second.high.z) - std::max(first.low.z, second.low.z);
}

} // namespace deepstop::fit
