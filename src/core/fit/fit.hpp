#pragma once
/// Does it fit: the corner in the (z, r) half-plane, and the exact room between its parts.
///
/// Frame: z along the axle, outboard positive, 0 at the hub's flange face; r from the axis. Metres throughout. A length that was not read
/// is NaN, and every function here answers NaN or nothing to it. Nothing throws.

#include "geometry/plane.hpp"

#include <limits>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::fit {

struct RotorShape {
    double outerRadius;
    double thickness;
    double ringInnerRadius;
    double overallHeight; ///< hat's wheel face to the inboard friction face
    double hatThickness;
    double hatOuterRadius;
    double hatWall;
    double boreRadius;
    double ventGap;
};

/// A box proud of the caliper's body.
struct BumpShape {
    std::string name;
    double overEdge; ///< its top
    double height;
    double atDepth; ///< from the slot's middle
    double width;
    double fromMiddle; ///< its far side along the back
};

/// Heights from the rotor's edge, depths from the slot's middle.
struct CaliperShape {
    double backOverEdge;
    double backHalfLength;
    double bridgeGap;
    double reach;
    double outboardDepth;
    double inboardDepth;
    double shoulder;
    double slotWidth;
    double cornerRadius = 0; ///< of the back's two ends
    std::vector<BumpShape> bumps {};
};

struct PadShape {
    double height;
    double thickness;
    double backing;
    double inset; ///< pad's edge inward of the rotor's edge
};

struct HubShape {
    double flangeRadius;
    double pilotRadius;
    double pilotHeight;
};

struct CornerShape {
    RotorShape rotor;
    CaliperShape caliper;
    PadShape pad;
    HubShape hub;
    double ring; ///< behind the rotor
    double spacer; ///< between rotor and wheel
    double slotCentre; ///< z of the slot's middle
};

/// A named line of a part.
struct Outline {
    std::string name;
    geometry::Chain chain;
};

/// A wheel in its own frame: z = 0 at its mounting face, outboard positive.
struct WheelShape {
    geometry::Chain barrel; ///< inside of the barrel, by rising z
    std::vector<Outline> spokes; ///< back of the spokes, by rising r; one a line they were measured along
    std::vector<Outline> insets; ///< what stands into the barrel
    std::vector<geometry::Point> bends {}; ///< of these chains, where a bend begins or ends: from one to the next they run straight
    bool alike = false; ///< one line down the spokes stands for all
};

/// The wheel as narrow as its readings allow: between two of its points a barrel is the smaller, a spoke the nearer of the two, unless both
/// are ends of one bend. Common practice: a drop centre can begin right behind a station.
[[nodiscard]] WheelShape cautious(WheelShape wheel);

/// z of the inboard and outboard friction faces.
struct Faces {
    double inboard;
    double outboard;
    [[nodiscard]] double middle() const { return (inboard + outboard) / 2; }
};

[[nodiscard]] Faces frictionFaces(const CornerShape& corner);
/// z of the wheel's mounting face: flange + ring + hat + spacer.
[[nodiscard]] double wheelFace(const CornerShape& corner);
/// Slot's middle minus rotor's middle; positive = the caliper sits outboard of its rotor.
[[nodiscard]] double axialOffset(const CornerShape& corner);

/// Farthest distance from the axis of a straight edge of half-length `halfLength`, its middle at `height` and its ends rounded by
/// `rounding` (at most the half-length): sqrt((h − ρ)² + (w − ρ)²) + ρ.
[[nodiscard]] double sweptRadius(double height, double halfLength, double rounding = 0);

/// The outline the caliper sweeps, as a wheel sees it: at each z the largest distance from the axis over the whole body, the ends of
/// the straight back included. Chords replace the swept curve of the shoulders, on the safe side by at most 0.01 mm. Closed; empty when a
/// reading lacks.
[[nodiscard]] geometry::Chain caliperEnvelope(const CornerShape& corner);
/// The body's envelope, unnamed, and one for each bump, named after it. Empty when a reading of the body lacks; a bump that lacks one is
/// left out.
[[nodiscard]] std::vector<Outline> caliperOutlines(const CornerShape& corner);
/// The caliper cut at the middle of its back, with its slot. Closed; empty when a reading lacks.
[[nodiscard]] geometry::Chain caliperSection(const CornerShape& corner);

/// Room between the caliper and one surface of the wheel.
struct Room {
    double gap; ///< m; negative: by how much they overlap (radially at the barrel, axially at the spokes)
    geometry::Point onCaliper;
    geometry::Point onWheel;
    /// Where along the caliper no station of the wheel is near, so that a nearer place might hide: from, to, along z (barrel) or r
    /// (spokes).
    std::vector<std::pair<double, double>> bare {};
    std::string caliperPart {}; ///< bump nearest to the wheel; empty: the body
    std::string wheelPart {}; ///< spoke line or inset nearest to the caliper

    [[nodiscard]] bool covered() const { return bare.empty(); }
};

/// Stretches of low … high that no two neighbouring places of `places` (rising) closer than `spacing` enclose.
[[nodiscard]] std::vector<std::pair<double, double>> bareStretches(
    const std::vector<double>& places, double low, double high, double spacing);

/// Barrel over caliper. `barrel` in the hub's frame. Exact for straight lines between the stations.
/// Nothing for an empty outline, fewer than two stations, or surfaces that do not share any z.
/// @param spacing farthest that two neighbouring stations may lie apart with nothing hidden between them, m
[[nodiscard]] std::optional<Room> barrelRoom(std::span<const geometry::Point> envelope, std::span<const geometry::Point> barrel,
    double spacing = std::numeric_limits<double>::infinity());
/// Caliper to spokes, likewise along r.
[[nodiscard]] std::optional<Room> spokeRoom(std::span<const geometry::Point> envelope, std::span<const geometry::Point> spokeBack,
    double spacing = std::numeric_limits<double>::infinity());

/// The same over all of a caliper's outlines and all of the wheel: the least room, and which parts face each other there.
[[nodiscard]] std::optional<Room> barrelRoom(const std::vector<Outline>& caliper, const WheelShape& wheel, double spacing);
[[nodiscard]] std::optional<Room> spokeRoom(const std::vector<Outline>& caliper, const WheelShape& wheel, double spacing);
/// Lines down the spokes as `spokeRoom` works with them: turned, z and r exchanged, and gone on with into the barrel where its outboard end
/// is near, no farther than `spacing` from the line's last station.
struct SpokeLine {
    geometry::Chain alongR;
    bool intoBarrel;
};
[[nodiscard]] std::vector<SpokeLine> spokeLines(const WheelShape& wheel, double spacing);
/// Room to what stands into the barrel; nothing where nothing does.
[[nodiscard]] std::optional<Room> insetRoom(const std::vector<Outline>& caliper, const WheelShape& wheel);

/// An inset as the barrel carries it round: the barrel between two depths, `height` nearer the axis, with straight ends.
/// Empty where the barrel was not measured within 5 mm of both ends.
[[nodiscard]] geometry::Chain insetOnBarrel(std::span<const geometry::Point> barrel, double zFrom, double zTo, double height);

/// Rotor with its hat in section, closed; the ring grown by `growth` at its edge. Empty when a reading lacks.
[[nodiscard]] geometry::Chain rotorSection(const CornerShape& corner, double growth = 0);

/// Room from a place that stands still to a wheel and a rotor that turn; negative where the place lies within them.
/// `onCaliper` is the place. Nothing where neither is known.
[[nodiscard]] std::optional<Room> keepOutRoom(geometry::Point place, const WheelShape& wheel, std::span<const geometry::Point> rotor);

/// Room between the caliper's outboard half and the hat it reaches down beside; negative: they overlap by that much at least.
[[nodiscard]] double hatRoom(const CornerShape& corner);

/// In words, where on the caliper a point lies: "outboard end of the back", "inboard shoulder", "outboard face" …
[[nodiscard]] std::string_view placeOnCaliper(const CornerShape& corner, geometry::Point onEnvelope);

/// Diameter of the bead seat for a printed rim diameter of 12 to 22, m (ETRTO Standards Manual / ISO 4000-1, "specified rim diameter";
/// from memory). Not inches × 25.4. Nothing for other sizes.
[[nodiscard]] std::optional<double> beadSeatDiameter(int nominalDiameter);

/// A barrel drawn from the printed size alone: bead seat less 8 mm of metal and hump, and a drop centre 18 mm deeper over the middle half.
/// Common practice, no source; good for a picture and an estimate, never for a proof.
/// @param nominalWidth in inches, as printed; @param offset ET, m
[[nodiscard]] std::optional<geometry::Chain> estimatedBarrel(int nominalDiameter, double nominalWidth, double offset);

/// Inside radius that no barrel of a printed size exceeds: bead seat less 3 mm of metal (common practice), m. Nothing for other sizes.
[[nodiscard]] std::optional<double> widestBarrel(int nominalDiameter);
/// Smallest radius of the barrel that `estimatedBarrel` draws, m.
[[nodiscard]] std::optional<double> narrowestEstimate(int nominalDiameter);

/// Change of diameter of a rotor `rise` kelvin hotter, m.
/// @param expansion linear, 1/K, of what it is made of
[[nodiscard]] double growth(double diameter, double rise, double expansion);

/// What a thicker hat, a ring and a spacer do to the wheel's place.
struct OffsetChange {
    double effectiveOffset; ///< m, the ET that would put the wheel there without them
    double outboardShift; ///< m, positive = the wheel stands further out
};
[[nodiscard]] OffsetChange offsetChange(double offset, double hatBefore, double hatAfter, double spacer, double ring);

} // namespace deepstop::fit
