#pragma once
/// Faces and round edges of a scan, found where somebody picked three places of each.

#include "scan/mesh.hpp"

#include <array>
#include <optional>
#include <string>

namespace deepstop::scan {

/// Places of a mesh, in m, in the mesh's own frame.
using Picks = std::array<Point, 3>;

/// How far off a place is that somebody clicked on, m; common practice, no source.
inline constexpr double clicked = 1 * millimetre;

struct PickedFace {
    Point at {}; ///< its middle
    Point normal {}; ///< unit length; which of both ways is open
    double rough = 0; ///< scatter of the surface about it, one standard deviation
    double seen = 0; ///< m², area that lies in it
};

/// The plane most of the surface about the picks lies in: the plane through them first, then the surface in a narrowing band about it.
/// Nothing where the picks lie in a line, or where there is no flat surface about them.
/// @param unit metres of one in the mesh
[[nodiscard]] std::optional<PickedFace> faceThrough(const Mesh& mesh, double unit, const Picks& picks);

/// Within 3°, whichever way they look.
[[nodiscard]] bool areParallel(const PickedFace& one, const PickedFace& other);

struct PickedRound {
    Point centre {}; ///< at the height of the picks
    double radius = 0;
    double plusMinus = 0; ///< of the centre and the radius
};

/// The round wall about an axis of that direction that passes through the picks, fitted to the surface; where too little of it is seen, the
/// circle through the picks, two millimetres wide. Nothing where the picks make no circle, or do not stand all round it.
[[nodiscard]] std::optional<PickedRound> roundThrough(const Mesh& mesh, double unit, const Point& direction, const Picks& picks);

/// A bolt's hole in a flat face, at most 30 mm wide, by three places of its rim.
struct PickedHole {
    PickedFace face; ///< about the hole
    PickedRound round;
};
[[nodiscard]] std::optional<PickedHole> holeThrough(const Mesh& mesh, double unit, const Picks& picks);

} // namespace deepstop::scan
