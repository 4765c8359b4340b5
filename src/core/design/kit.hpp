#pragma once
/// A kit to be made: rotor, hat and bracket that put a caliper at a chosen place on a hub. What is chosen stands in `Proposal`; what
/// follows from it, dimension by dimension, in `Kit`. Whether it goes is judged elsewhere, by the checks of the chapters.

#include "bracket/bracket.hpp"
#include "design/turned.hpp"
#include "study/study.hpp"

namespace deepstop::design {

/// From what a kit is designed.
struct Basis {
    std::shared_ptr<const Study> study; ///< of the build; its hubs, limits and the car as found count
    Axle axle = Axle::Front;
    Corner corner; ///< with the caliper, pads and mount that are to be used
    std::vector<const Wheel*> wheels; ///< all of them must clear; into the build of `study`

    [[nodiscard]] const Build& build() const { return *study->build; }
    [[nodiscard]] const Hub& hub() const { return hubOf(build(), axle); }
};

/// What is free. NaN where nothing is known to begin with.
struct Proposal {
    double rotor = 0; ///< outer diameter
    double slot = 0; ///< slot's middle from the hub's flange face, outboard positive
    double spacer = 0; ///< between rotor and wheel
    double lift = 0; ///< caliper farther out than its heights over the rotor's edge say, by shims under a radial mount's studs
    double thickness = 0; ///< of the rotor
    double hatThickness = 0;
    double offset = 0; ///< added to the wheels' own: what another wheel of the same shape would do
    std::optional<double> heads {}; ///< how far the bolts' heads at the knuckle stand out of the bracket; nothing: as the bracket there is
    std::optional<double> clock {}; ///< where the caliper sits round the axle, rad; nothing: as its mount says
    bool operator==(const Proposal&) const = default;
};

/// What the rules take where no part is there to be read: common practice, no source.
namespace rules {
inline constexpr double insideTheRing = 1e-3; ///< friction ring inside the pad's inner edge
inline constexpr double roundTheFlange = 1e-3; ///< hat's pocket round the hub's flange, or round the parking brake's shoes
inline constexpr double hatWall = 7e-3;
inline constexpr double overThePilot = 0.1e-3; ///< bore less pilot
inline constexpr double roundTheStuds = 1e-3; ///< stud's hole less stud
inline constexpr double plate = 9e-3; ///< of a vented ring, one side, where the vent is wide enough
inline constexpr double solidTo = 18e-3; ///< rings thinner than this are solid
inline constexpr double vent = 6e-3; ///< the least that is cast; thin rings have thinner plates instead
inline constexpr double airShare = 0.32; ///< of the gap between plates filled by vanes
inline constexpr double besideHeads = 1e-3; ///< bolt head to the hat's wall, and to the pad
inline constexpr double shimsEachWay = 1e-3; ///< that can be put in or taken out at the bracket
inline constexpr double most = 3e-3; ///< shims beside a plate that was bought, before another is machined
} // namespace rules

/// Tolerances the shop is asked for, half-widths. Common practice for turned and milled brake parts.
namespace tolerance {
inline constexpr double diameter = 0.1e-3;
inline constexpr double height = 0.05e-3;
inline constexpr double bore = 0.025e-3;
inline constexpr double holes = 0.1e-3; ///< place of a hole in the bracket
} // namespace tolerance

/// Bolts between ring and hat.
struct RingBolts {
    int count = 0;
    double diameter = 0;
    const char* thread = ""; ///< "M8"
    double headDiameter = 0; ///< ISO 4762, from memory
    double headHeight = 0;
    double nutHeight = 0; ///< low nut
};
/// M6 to 300 mm, M8 over it; eight to 280 mm, ten to 340, twelve over it. Common practice.
[[nodiscard]] RingBolts ringBoltsFor(double rotorDiameter);

struct Kit {
    Proposal proposal;
    double ringInner = 0; ///< diameter inside the friction faces
    double ringBore = 0; ///< inside the ring's rim that the hat is bolted to
    double ventGap = 0;
    RingBolts bolts;
    double ringCircle = 0; ///< diameter of their circle
    double overallHeight = 0; ///< hat's wheel face to the inboard friction face
    double hatOuter = 0; ///< diameter of its cylinder
    double hatWall = 0;
    double pocket = 0; ///< diameter inside
    double drum = 0; ///< of the parking brake inside; 0: none
    double bore = 0;
    double boltCircle = 0;
    int holes = 0;
    double hole = 0;
    double rimInboard = 0; ///< z of the ring's rim, and its outboard face, where the hat's neck lies on it
    double rimOutboard = 0;
    double neckRoom = 0; ///< between the bolts' heads and the hat's wall beyond what is wanted; negative: hat and pads want the same room
    double neckDepth = 0; ///< the hat's wheel face over its neck's outboard face; negative: the ring stands too far outboard
    bracket::Adapter adapter {}; ///< thickness is the plate's own, without shims
    double needed = 0; ///< lugs' face to the caliper's mounting face: plate and shims
    double shims = 0; ///< beside the plate; of a radial mount under its studs
    bool radial = false;
    Turned hat;
    Turned ring;
};

/// Of a bracket without a given material.
[[nodiscard]] std::string plateMaterial();

/// Plates that are sold, m: 8, 10, 12, 15, 20, 25, 30, 35, 40. Common practice.
[[nodiscard]] std::span<const double> soldPlates();

/// The basis's build with another corner on that axle: a study nothing is judged in yet, and without a directory.
[[nodiscard]] Study trialOf(const Basis& basis, Corner corner);

/// Makes the corners and kits of one basis. What follows from readings that lack is NaN, and the readings stay without a value.
class Maker {
public:
    explicit Maker(const Basis& basis);

    /// A proposal to begin with: the corner's own rotor, hat and spacer as far as they are given, else what the caliper has room for.
    [[nodiscard]] Proposal start() const;
    [[nodiscard]] Kit kit(const Proposal& proposal) const;
    /// The same without hat and ring as parts to draw.
    [[nodiscard]] Kit sizes(const Proposal& proposal) const;
    /// The bracket alone, as it is drawn.
    [[nodiscard]] bracket::Adapter plate(const Proposal& proposal) const;
    /// The corner with that kit on.
    /// @param known how its dimensions are known: *design* until the parts are read; `Vendor`: judged as if made as drawn
    [[nodiscard]] Corner corner(const Proposal& proposal, Known known) const;
    /// The same in place, without a copy, where `corner` came out of this maker.
    void move(Corner& corner, const Proposal& proposal, Known known) const;

    [[nodiscard]] const Basis& basis() const { return basis_; }
    /// The corner with a rotor as it is sold, the caliper central over it, and a bracket made for that.
    [[nodiscard]] Corner with(const Rotor& rotor, Known known) const;
    /// Where that puts it, and the sizes that it has.
    [[nodiscard]] Proposal proposalFor(const Rotor& rotor) const;
    /// From hub flange face to the rotor's own face: a ring and a plate that lie between.
    [[nodiscard]] double behind() const { return behind_; }

private:
    using AdapterOf = std::optional<bracket::Adapter> (*)(const bracket::Knuckle&, const bracket::CaliperMount&, const bracket::Wanted&);
    /// Bracket, sides and what belongs to them as new.
    void renew(Corner& corner, Known known) const;
    /// Slot, bracket's thickness and shims.
    void place(Corner& corner, const Proposal& proposal, Known known) const;
    /// Friction ring's inner diameter, and the hat's wheel face to the inboard friction face.
    [[nodiscard]] double ringInner(const Proposal& proposal) const;
    [[nodiscard]] double overallHeight(const Proposal& proposal) const;
    /// From the lugs' face to the caliper's, with its slot over the rotor's middle.
    [[nodiscard]] double reach(const Proposal& proposal) const;
    [[nodiscard]] bracket::Adapter plateFor(const Proposal& proposal, Kit& kit, const AdapterOf& adapterOf) const;

    const Basis& basis_;
    double behind_;
    double lugDepth_;
};

} // namespace deepstop::design
