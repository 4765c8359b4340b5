#pragma once
/// An adapter plate that carries a caliper on a knuckle made for another: two pairs of holes, where they have to be, and what is left
/// round them. It is geometry and the strength of its bolts; bending of the plate is not proven here.
///
/// The plate's own frame: x across, along the line of the knuckle's holes, 0 in the middle between them; y outward along the radius, 0 on
/// the wheel's axis. Metres. NaN in, nothing out.

#include "joints/bolts.hpp"
#include "paper/paper.hpp"

#include <optional>
#include <string>
#include <vector>

namespace deepstop::bracket {

struct Knuckle {
    double holeSpacing;
    double holeRadius; ///< of the middle between the holes, from the axis
    double faceDepth; ///< of the lugs' face inboard of the hub's flange face
    double lugEdge; ///< hole to the edge of its lug
};

/// The caliper's mount, taken from the rotor it is meant for.
struct CaliperMount {
    double holeSpacing;
    double drop; ///< line of its holes inward of the rotor's edge
    double faceDepth; ///< its mounting face inboard of the slot's middle; of a radial mount the line of its studs
    bool radial = false; ///< it stands on the plate's edge, its studs along the radius; `drop` is then that of its mounting face
};

struct Wanted {
    double rotorRadius; ///< of the rotor that will run
    double padInset; ///< pad's outer edge inward of the rotor's edge is as the caliper is made for, plus this
    double rotorMiddle; ///< z of the rotor's middle from the hub's flange face, outboard positive
    double knuckleHole; ///< diameter
    double caliperHole;
    double edge; ///< metal wanted round every hole, from the hole's edge
    double thickness; ///< of the plate in hand; NaN: as thick as it has to be
};

struct Hole {
    double x;
    double y;
    double diameter;
    bool toKnuckle;
};

/// A hole for a stud, drilled and tapped from the plate's edge inward along the radius, in the middle of its thickness.
struct EdgeBore {
    double x;
    double mouth; ///< height of the edge it is drilled from
    double depth;
    double diameter;
};

struct Adapter {
    std::vector<Hole> holes; ///< knuckle pair, then, of a caliper on lugs, its pair, each from left to right
    std::vector<EdgeBore> bores; ///< of a radial mount its pair, from left to right
    double caliperHeight; ///< of the caliper's holes, or of the edge it stands on, from the axis
    double thickness; ///< from the lugs' face to the caliper's mounting face; with a plate of given thickness: that
    double offset; ///< what is left beside such a plate, for shims (positive) or to be machined off (negative), m
    std::vector<paper::Point> outline; ///< of the plate, convex, corners of its fillets as many chords within 5 µm
    double wall; ///< least metal between two holes
    double edge; ///< least metal between a hole and the outline, or between a bore and the plate's faces
    bool seats; ///< nothing of the plate stands in the way of the caliper's mounting face
    bool symmetric; ///< serves left and right by being turned over
    double area; ///< of the plate, holes taken out, m²
    double volume; ///< m³
};

/// Where the holes have to be so that the pad sits at the rotor's edge and the slot over its middle. The caliper's plate lies on the side
/// of the lugs that faces the rotor.
/// A stud gets two diameters of thread: enough in aluminium (common practice).
/// @return nothing where a length is NaN or not positive where it must be
[[nodiscard]] std::optional<Adapter> adapter(const Knuckle& knuckle, const CaliperMount& caliper, const Wanted& wanted);
/// The same without outline, area and volume: for a search, which asks for holes, walls and thickness alone.
[[nodiscard]] std::optional<Adapter> holesOf(const Knuckle& knuckle, const CaliperMount& caliper, const Wanted& wanted);

/// Least metal between holes, and at an edge, that is wanted round a hole of `diameter`: half of it. Common practice, no source.
[[nodiscard]] double wallWanted(double diameter);
/// A plate thinner than this bends, m: common practice, no source.
inline constexpr double thinnestPlate = 8e-3;

/// A washer for a bolt, or a ring behind a rotor, as a plate with holes.
struct Plate {
    std::string title;
    std::string material;
    double thickness;
    std::vector<paper::Point> outline; ///< counter-clockwise
    std::vector<Hole> holes;
    std::vector<EdgeBore> bores {};
    /// A round plate keeps its diameter, so that exact kernels need no chords; nothing for others.
    std::optional<double> diameter;
};
[[nodiscard]] Plate plateOf(const Adapter& adapter, std::string material);
/// @param bore centre hole; @param boltCircle, bolts, boltHole the studs' holes
[[nodiscard]] Plate ringPlate(
    double thickness, double diameter, double bore, double boltCircle, int bolts, double boltHole, std::string material);
[[nodiscard]] Plate shimPlate(double thickness, double diameter, double hole, std::string material);

/// Volume of a plate, m³; exact for a round one.
[[nodiscard]] double volumeOf(const Plate& plate);

/// The plate as a drawing with dimensions, material, and the sentence that it is to be judged by a qualified engineer.
/// @param say writes a length as the reader wants it
[[nodiscard]] paper::Drawing drawingOf(const Plate& plate, const std::vector<std::string>& notes, std::string (*say)(double));

} // namespace deepstop::bracket
