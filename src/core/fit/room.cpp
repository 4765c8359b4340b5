#include "fit/fit.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::fit {

using geometry::Chain;
using geometry::Point;

namespace {

struct Extent {
    double low = std::numeric_limits<double>::infinity();
    double high = -std::numeric_limits<double>::infinity();
};

Extent extentAlongZ(std::span<const Point> chain)
{
    Extent e;
    for (const Point p : chain) {
        e.low = std::min(e.low, p.z);
        e.high = std::max(e.high, p.z);
    }
    return e;
}

/// Room of `body` below `surface`, both drawn with the common direction along z.
std::optional<Room> roomBelow(std::span<const Point> body, std::span<const Point> surface)
{
    const auto nearest = geometry::distance(body, surface);
    if (!nearest)
        return {};
    const Extent b = extentAlongZ(body);
    const Extent s = extentAlongZ(surface);
    if (b.low > s.high || b.high < s.low)
        return {};
    Room room { nearest->distance, nearest->from, nearest->to, s.low <= b.low && b.high <= s.high };
    // Outlines that do not cross lie clear of each other or one wholly beyond the other; one place tells which.
    const double common = (std::max(b.low, s.low) + std::min(b.high, s.high)) / 2;
    const auto bodyThere = geometry::highestAt(body, common);
    const auto surfaceThere = geometry::lowestAt(surface, common);
    if (nearest->distance > 0 && bodyThere && surfaceThere && *bodyThere <= *surfaceThere)
        return room;
    // Both heights are straight between breakpoints, so the deepest overlap stands at one of them.
    double deepest = 0;
    const auto probe = [&](double z) {
        const auto top = geometry::highestAt(body, z);
        const auto under = geometry::lowestAt(surface, z);
        if (top && under && *top - *under > deepest) {
            deepest = *top - *under;
            room = { -deepest, { z, *top }, { z, *under }, room.covered };
        }
    };
    for (const Point p : body)
        probe(p.z);
    for (const Point p : surface)
        probe(p.z);
    return room;
}

} // namespace

std::optional<Room> barrelRoom(std::span<const Point> envelope, std::span<const Point> barrel) { return roomBelow(envelope, barrel); }

std::optional<Room> spokeRoom(std::span<const Point> envelope, std::span<const Point> spokeBack)
{
    auto room = roomBelow(geometry::transposed(envelope), geometry::transposed(spokeBack));
    if (room) {
        std::swap(room->onCaliper.z, room->onCaliper.r);
        std::swap(room->onWheel.z, room->onWheel.r);
    }
    return room;
}

} // namespace deepstop::fit
