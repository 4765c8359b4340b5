#pragma once
/// What is too far away to decide a gap. Bounds from boxes, so that what cannot matter need not be tried.

#include "geometry/plane.hpp"

namespace deepstop::fit {

/// All that lies between two corners.
struct Box {
    geometry::Point low;
    geometry::Point high;

    /// The same, larger by `dz` and `dr` on every side.
    [[nodiscard]] Box grown(double dz, double dr) const { return { low - geometry::Point { dz, dr }, high + geometry::Point { dz, dr } }; }
};

/// Round at least one point.
[[nodiscard]] Box boxAround(std::span<const geometry::Point> points);

/// The least room, as `Room::gap` counts it, that anything inside `below` can have to anything inside `above`: over the stretch of z they
/// share, along r and perhaps negative; elsewhere the distance.
[[nodiscard]] double leastRoom(const Box& below, const Box& above);
/// The least over every straight of a chain of at least two points.
[[nodiscard]] double leastRoom(std::span<const geometry::Point> below, const Box& above);
[[nodiscard]] double leastRoom(const Box& below, std::span<const geometry::Point> above);

/// How much of z two chains share; negative: how far they lie apart along it.
[[nodiscard]] double sharedStretch(std::span<const geometry::Point> a, std::span<const geometry::Point> b);

} // namespace deepstop::fit
