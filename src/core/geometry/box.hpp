#pragma once
/// Boxes around things, for ruling out cheaply what lies too far away.

#include "geometry/plane.hpp"

#include <algorithm>

namespace deepstop::geometry {

/// All that lies between two corners.
struct Box {
    Point low;
    Point high;

    /// The same, larger by `dz` and `dr` on every side.
    [[nodiscard]] Box grown(double dz, double dr) const { return { low - Point { dz, dr }, high + Point { dz, dr } }; }
};

[[nodiscard]] inline Box boxAround(Point a, Point b)
{
    return { { std::min(a.z, b.z), std::min(a.r, b.r) }, { std::max(a.z, b.z), std::max(a.r, b.r) } };
}

/// Round at least one point.
[[nodiscard]] inline Box boxAround(std::span<const Point> points)
{
    Box box { points.front(), points.front() };
    for (const Point p : points) {
        box.low = { std::min(box.low.z, p.z), std::min(box.low.r, p.r) };
        box.high = { std::max(box.high.z, p.z), std::max(box.high.r, p.r) };
    }
    return box;
}

/// How far apart two boxes lie along z, and along r; 0 or less where they share a stretch of it.
[[nodiscard]] inline Point apart(const Box& a, const Box& b)
{
    return { std::max(b.low.z - a.high.z, a.low.z - b.high.z), std::max(b.low.r - a.high.r, a.low.r - b.high.r) };
}

} // namespace deepstop::geometry
