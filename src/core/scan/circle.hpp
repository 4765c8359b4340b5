#pragma once
/// Circles through points that are not all on them.

#include <array>
#include <cstddef>
#include <optional>
#include <span>

namespace deepstop::scan {

struct Circle {
    double x = 0;
    double y = 0;
    double radius = 0;
    double plusMinus = 0; ///< of centre and radius, three standard errors
    double rough = 0; ///< scatter of the points about it, one standard deviation
    double seen = 0; ///< part of the turn with points
};

/// The circle most of the points lie on: Kåsa's linear fit, then Gauss and Newton with Tukey's weights. Nothing of fewer than 8 points.
[[nodiscard]] std::optional<Circle> circleThrough(std::span<const std::array<double, 2>> points);

} // namespace deepstop::scan
