#pragma once
/// What is too far away to decide a gap. Bounds from boxes, so that what cannot matter need not be tried.

#include "geometry/box.hpp"

namespace deepstop::fit {

using geometry::Box;
using geometry::boxAround;

/// The least room, as `Room::gap` counts it, that anything inside `below` can have to anything inside `above`: over the stretch of z they
/// share, along r and perhaps negative; elsewhere the distance.
[[nodiscard]] double leastRoom(const Box& below, const Box& above);
/// The least over every straight of a chain of at least two points.
[[nodiscard]] double leastRoom(std::span<const geometry::Point> below, const Box& above);
[[nodiscard]] double leastRoom(const Box& below, std::span<const geometry::Point> above);

/// How far along z two chains must move before they share none of it any more; negative: before they begin to.
[[nodiscard]] double sharedStretch(std::span<const geometry::Point> a, std::span<const geometry::Point> b);

} // namespace deepstop::fit
