#include "fit/reach.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::fit {

using geometry::Point;

double leastRoom(const Box& below, const Box& above)
{
    const double along = geometry::apart(below, above).z;
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
        least = std::min(least, room(boxAround(chain[i], chain[i + 1])));
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

double sharedStretch(std::span<const Point> a, std::span<const Point> b) { return -geometry::apart(boxAround(a), boxAround(b)).z; }

} // namespace deepstop::fit
