#pragma once
/// Parts made on a lathe: a hat, a ring. Their volume, mass and inertia, and their drawing for the shop.
///
/// Section in the (z, r) half-plane, z along the axis, outboard positive. Metres, kilograms. NaN in, NaN out; nothing throws.

#include "geometry/plane.hpp"
#include "paper/paper.hpp"

#include <optional>
#include <string>
#include <vector>

namespace deepstop::design {

/// Holes along the axis, evenly round it, the first straight up.
struct HoleCircle {
    int count = 0;
    double diameter = 0;
    double circle = 0; ///< diameter their middles stand on
    double from = 0; ///< z they go through, from the inboard end
    double to = 0;
    std::string what; ///< "for the wheel studs"
    bool operator==(const HoleCircle&) const = default;
};

/// Vanes between two plates of a ring, leaning by one angle all along (a logarithmic spiral).
struct VaneSet {
    int count = 0;
    double thickness = 0;
    double lean = 0; ///< between vane and radius, rad
    double inner = 0; ///< radii they reach between
    double outer = 0;
    double from = 0; ///< z they stand between
    double to = 0;
    bool operator==(const VaneSet&) const = default;
};

struct Turned {
    std::string title; ///< "Hat"
    std::string material;
    double density = 0; ///< kg/m³
    std::vector<geometry::Chain> sections; ///< closed outlines, their last point not repeated; they do not overlap
    std::vector<HoleCircle> holes; ///< each through a section wholly
    std::optional<VaneSet> vanes;
    std::vector<std::string> asked; ///< tolerances, runout, flatness, surface: a line each
    bool operator==(const Turned&) const = default;
};

/// Pappus–Guldin: each section's area times the way of its centroid; less the holes; and the vanes as thickness × length × height.
[[nodiscard]] double volumeOf(const Turned& part);
[[nodiscard]] double massOf(const Turned& part);
/// About the axis, kg m².
[[nodiscard]] double inertiaOf(const Turned& part);

/// Outline of one vane seen along the axis, closed; the first of them, rooted straight up. Its two long sides as `steps` chords.
[[nodiscard]] std::vector<paper::Point> vaneOutline(const VaneSet& vanes, int steps = 8);

/// The part cut through its axis on the left, seen from outboard on the right, with its diameters and lengths.
/// @param say writes a length as the reader wants it
[[nodiscard]] paper::Drawing drawingOf(const Turned& part, const std::vector<std::string>& notes, std::string (*say)(double));

} // namespace deepstop::design
