#pragma once
/// Wheels, and one axle's brakes with all that hangs on them; a setup is such brakes for both. Plain values, all SI.

#include "build/fittings.hpp"

#include <optional>

namespace deepstop {

/// One station of a wheel's barrel: how deep inboard of the mounting face, and the inside radius there.
struct BarrelStation {
    Reading depth;
    Reading insideRadius;
    Fact<YesNo> bend = YesNo::Unknown; ///< a bend begins or ends here: from one such to the next the barrel runs straight
    ElementId id {};
    bool operator==(const BarrelStation&) const = default;
};

/// One station of the spokes' back: at which radius, and how far it stands outboard of the mounting face.
struct SpokeStation {
    Reading radius;
    Reading distance;
    Fact<YesNo> bend = YesNo::Unknown; ///< as of the barrel
    std::string along; ///< which line down the spokes: "middle", "edge"; stations of one line make one profile
    ElementId id {};
    bool operator==(const SpokeStation&) const = default;
};

enum class InsetKind { Unknown, Weights, Valve, Sensor };

/// What stands into the barrel and turns with it.
struct Inset {
    Fact<InsetKind> kind = InsetKind::Unknown;
    Reading from; ///< depth of its outboard end, inboard of the mounting face
    Reading to; ///< depth of its inboard end
    Reading height; ///< how far it stands inward of the barrel
    ElementId id {};
    bool operator==(const Inset&) const = default;
};

struct Wheel {
    std::string id;
    std::string name;
    std::string from; ///< id in the parts library
    Fact<int> nominalDiameter = notCounted; ///< the printed size, "17"
    Fact<double> nominalWidth = 0; ///< the printed width, "8"
    Reading offset; ///< ET
    Reading mass; ///< with tyre
    Reading bore;
    Reading overallWidth; ///< over the flanges; absent = printed width and 25 mm
    Reading padThickness; ///< mounting face to where the nut's thread begins, nut tight; for wheel bolts: to their seat
    Fact<NutSeat> nutSeat = NutSeat::Unknown;
    Reading seatAngle; ///< of its cones, whole angle, rad
    Reading seatRadius; ///< of its ball seats
    Reading backPocket; ///< depth of the recesses in its mounting face, for studs that stand proud of a spacer
    Reading boreChamfer; ///< where its bore begins to carry, from the mounting face
    Reading rollingRadius; ///< with the tyre that is on it
    Reading grip; ///< of that tyre: peak deceleration over g
    Fact<YesNo> balanceWeights = YesNo::Unknown; ///< inside the barrel; where they are stands in `insets`
    Fact<YesNo> spokesAlike = YesNo::Unknown; ///< one line down them stands for all
    Reading give; ///< how much its rim gives way in a hard corner
    std::vector<BarrelStation> barrel;
    std::vector<SpokeStation> spokes;
    std::vector<Inset> insets;
    std::string scan; ///< file its inside was read from, beside the build
    std::string scanHash; ///< SHA-256 of that file, in hexadecimal
    DEEPSTOP_COMPILED_ONCE(Wheel)
};

enum class HatMaterial { Unknown, Iron, Aluminium };
enum class RotorFace { Unknown, Plain, Dimpled, Slotted, Drilled };
enum class RingMaterial { Unknown, Iron, Steel, CarbonCeramic };
enum class RotorBuild { Unknown, OnePiece, TwoPiece };
enum class VaneShape { Unknown, Straight, Curved, Pillars };
/// Whether a part fits one side only.
enum class Handed { Unknown, Either, Sided };

struct Rotor {
    std::string name;
    std::string from; ///< id in the parts library this was copied from; empty: made here
    Fact<RotorBuild> construction = RotorBuild::Unknown;
    Fact<RotorFace> face = RotorFace::Unknown;
    Fact<int> slotCount = notCounted;
    Fact<RingMaterial> ringMaterial = RingMaterial::Unknown;
    Fact<HatMaterial> hatMaterial = HatMaterial::Unknown;
    Fact<Handed> handed = Handed::Unknown;
    Reading outerDiameter;
    Reading thickness;
    Reading minimumThickness; ///< as cast or stamped on the part
    Reading ringInnerDiameter;
    Reading overallHeight; ///< from the hat's wheel face to the inboard friction face
    Reading hatThickness; ///< what lies between hub flange and wheel
    Reading hatOuterDiameter;
    Reading hatWall;
    Reading bore;
    Fact<YesNo> capped = YesNo::Unknown; ///< the bore is closed by a cap over the pilot
    Reading capDepth; ///< inside the cap, from the hat's face on the hub
    Reading capDiameter; ///< outside, where the wheel centres on it
    Reading capHeight; ///< outboard of the hat's wheel face
    Reading pocketDiameter; ///< inside the hat, what the hub flange has to enter
    Reading boltCircle;
    Fact<int> boltHoles = notCounted;
    Reading boltHoleDiameter;
    Reading drumDiameter; ///< of the parking brake's drum inside the hat; absent = none
    Fact<int> hatBolts = notCounted; ///< of a two-piece rotor
    Fact<std::string> hatBoltThread;
    Reading ventGap; ///< air between the two plates; 0 for a solid rotor
    Reading vaneShare; ///< part of that air filled by vanes; outranks counting them
    Fact<VaneShape> vaneShape = VaneShape::Unknown;
    Fact<int> vanes = notCounted;
    Reading vaneThickness; ///< for pillars: their diameter
    Reading vaneLean; ///< of curved vanes: angle between vane and radius, rad
    Reading inboardLip; ///< how far the ring's inner edge stands inboard of its inboard friction face
    Reading minimumMass; ///< of a carbon-ceramic rotor, as marked on it
    Reading ringPlay; ///< how far a floating ring moves on its hat along the axle
    std::string scan; ///< file its readings came from, beside the build
    std::string scanHash; ///< SHA-256 of that file, in hexadecimal
    DEEPSTOP_COMPILED_ONCE(Rotor)
};

enum class CaliperKind { Unknown, Fixed, Floating };
enum class Bleeders { Unknown, OneEnd, BothEnds };
/// End of a mounted caliper where the turning rotor enters it or leaves it, the car going forward.
enum class End { Unknown, Entry, Exit };

/// A parking brake built into a caliper.
enum class CaliperParking { Unknown, None, Lever, Electric };

enum class BumpKind { Unknown, Bleeder, BoltHead, Pipe };

/// What stands proud of the caliper's body: a bleeder, a bolt's head, a crossover pipe. A box, read with a vernier.
struct Bump {
    Fact<BumpKind> kind = BumpKind::Unknown;
    Reading overEdge; ///< its farthest point over the rotor's edge; negative below
    Reading height; ///< of the box, inward from there
    Reading atDepth; ///< its middle from the slot's middle, outboard positive
    Reading width; ///< across, along the axle
    Reading fromMiddle; ///< its far side along the back from the caliper's middle
    ElementId id {};
    bool operator==(const Bump&) const = default;
};

/// Heights are taken from the rotor's edge and depths from the middle of the slot, as a vernier takes them on a mounted caliper.
struct Caliper {
    std::string name;
    std::string from; ///< id in the parts library
    Fact<CaliperKind> kind = CaliperKind::Unknown;
    Fact<std::string> material;
    Fact<std::string> pistonMaterial;
    Fact<Bleeders> bleeders = Bleeders::Unknown;
    Fact<End> bleederEnd = End::Unknown; ///< where the one bleeder sits
    Fact<std::string> hoseThread; ///< where the hose meets the caliper
    Reading backOverEdge; ///< flat back of the bridge above the rotor's edge, at its middle
    Reading backLength; ///< of the straight back, end to end
    Reading bridgeGap; ///< underside of the bridge above the rotor's edge
    Reading reach; ///< how far the body reaches inward of the rotor's edge
    Reading outboardDepth; ///< slot's middle to the outboard face
    Reading inboardDepth; ///< slot's middle to the inboard face
    Reading shoulder; ///< chamfer between back and faces, same both ways
    Reading cornerRadius; ///< of the back's two ends; absent = sharp
    Reading slotWidth; ///< between the halves, pads out
    Reading padRoom; ///< between pistons pushed home, or piston and fingers, pads out
    Reading pistonStroke; ///< farthest one piston may come out of its bore
    Reading give; ///< fluid it takes at 70 bar for bending open, one caliper; absent: common practice stands in
    Reading slideTravel; ///< of a floating caliper's body on its carrier, end to end
    Reading padWindow; ///< length of the opening the pads go into
    Reading mountSpacing; ///< of its own two mounting holes
    Reading mountDrop; ///< line of these holes inward of the edge of the rotor it is meant for
    Reading mountDepth; ///< its mounting face inboard of the slot's middle
    Fact<YesNo> split = YesNo::Unknown; ///< two halves bolted together
    Fact<int> bridgeBolts = notCounted;
    Fact<std::string> bridgeBoltThread;
    Reading bridgeBoltLength; ///< under the head
    Reading bridgeBoltGrip; ///< under the head, in the half it goes through
    Reading pinLength; ///< of the pad pins
    Fact<YesNo> crossover = YesNo::Unknown; ///< fluid crosses inside, through the faces of the halves
    Reading widened; ///< spacers between the halves; absent = none
    Fact<CaliperParking> parking = CaliperParking::Unknown;
    Reading leverEye; ///< of a lever: width of the fork or hole that takes the cable's end
    Reading leverFree; ///< from the stop of the cable's sleeve to that eye, lever at rest
    Reading leverTravel; ///< of the eye, from rest until the pads hold
    Fact<std::string> parkingConnector; ///< of a motor
    std::vector<Reading> pistons; ///< bores on one side, from the rotor's entry to its exit
    std::vector<Bump> bumps;
    std::string scan; ///< file its readings came from, beside the build
    std::string scanHash; ///< SHA-256 of that file, in hexadecimal
    DEEPSTOP_COMPILED_ONCE(Caliper)
};

/// Friction of a compound at one temperature, from a bench or a vendor's curve.
struct FrictionPoint {
    Reading temperature;
    Reading friction;
    ElementId id {};
    bool operator==(const FrictionPoint&) const = default;
};

/// Outline of a lining at its two ends: parallel to each other, or along radii of the rotor.
enum class PadEnds { Unknown, Straight, Radial };

struct Pad {
    std::string name;
    std::string from; ///< id in the parts library
    std::string compound;
    Reading height; ///< radial
    Reading length;
    Reading thickness; ///< friction material
    Reading backing;
    Reading overall; ///< lining and backing together, where the lining was not read alone
    Reading minimumThickness; ///< of the lining
    Fact<PadEnds> ends = PadEnds::Unknown;
    Reading area; ///< of one lining as measured; absent = worked out from height, length and its ends
    Reading friction; ///< coefficient against iron, warm
    Reading squeeze; ///< by how much one pad gives at 70 bar; absent: common practice stands in
    std::vector<FrictionPoint> frictionOverTemperature;
    Fact<YesNo> wearSensor = YesNo::Unknown;
    DEEPSTOP_COMPILED_ONCE(Pad)
};

enum class MountKind { Unknown, Lug, Radial };

/// How the caliper hangs on the knuckle.
struct Mount {
    Fact<MountKind> kind = MountKind::Unknown;
    Reading boltSpacing;
    Reading radialRead; ///< mean stack under the studs of a radial mount when the caliper's heights over the rotor's edge were read
    Reading clock; ///< where the caliper sits round the axle: from straight up towards the car's rear, rad
    Fact<Direction> shimMoves = Direction::Unknown; ///< where a thicker stack moves the caliper
    DEEPSTOP_COMPILED_ONCE(Mount)
};

/// The wheel put on over the caliper and spun: gaps as read directly with clay or a feeler, negative where it touches. "Cleared by a feeler
/// of n" is n. They tell of that wheel, and of the parts that were on.
struct Spun {
    std::string wheel; ///< id of it; empty: not tried
    std::string changed; ///< what has changed since, in words; empty: nothing
    Reading barrel;
    Reading spokes;
    Reading insets; ///< balance weights, valve, sensor
    Fact<YesNo> wholeTurn = YesNo::Unknown; ///< turned all the way round
    Fact<YesNo> atLocks = YesNo::Unknown; ///< at droop and at both full locks
    DEEPSTOP_COMPILED_ONCE(Spun)
};

enum class SensorUse { Unknown, None, New, Reused };

/// What was read of, or put in on, one side of the car. A kit's design serves both; the two sides of a car are never quite alike.
struct Fitted {
    Reading slotCentre; ///< slot's middle from the hub's flange face, outboard positive, with the shims that are in now
    Reading padInset; ///< pad's outer edge inward of the rotor's edge
    Reading shimTop; ///< stack on the top bolt now
    Reading shimBottom;
    Reading radialTop; ///< stack on the top stud of a radial mount now: thicker moves the caliper outward along the radius
    Reading radialBottom;
    Reading runout; ///< total, at the edge, on the car
    Reading thicknessVariation; ///< DTV over one turn
    Reading ringThickness; ///< of the rotor as worn; absent: as new
    Reading liningThickness; ///< of the thinner pad as worn; absent: as new
    Reading innerLining; ///< of the inboard pad, at its middle
    Reading outerLining;
    Reading entryLining; ///< of the more worn pad, at the rotor's entry
    Reading exitLining;
    Fact<SensorUse> wearSensor = SensorUse::Unknown;
    Reading rotorMass; ///< of a carbon-ceramic rotor as worn
    std::string rotorMark; ///< which of the pair it is: "tagged L"
    std::string caliperMark;
    Spun spun {};
    bool operator==(const Fitted&) const = default;
};

enum class DrumKind { Unknown, LeadingTrailing, TwoLeading, SelfEnergising };

/// A drum with its shoes, one side.
struct Drum {
    std::string name;
    Fact<DrumKind> kind = DrumKind::Unknown;
    Reading insideDiameter;
    Reading largestDiameter; ///< as cast on the part
    Reading shoeWidth;
    Reading shoeArc; ///< of the lining on one shoe, rad
    Reading anchorRadius; ///< from the axis to a shoe's pivot
    Reading friction; ///< of the lining
    std::vector<FrictionPoint> frictionOverTemperature; ///< of the drum's surface
    Reading cylinderBore; ///< of the wheel cylinder
    Reading shoePlay; ///< how far each of its pistons moves before the shoe touches; absent: common practice stands in
    Reading liningThickness;
    Reading minimumLining;
    Reading depth; ///< from its wheel face to its open edge
    Reading faceThickness; ///< what lies between hub flange and wheel
    Reading wall; ///< of the cylindrical part
    DEEPSTOP_COMPILED_ONCE(Drum)
};

/// In the build's own currency, for one axle.
struct Costs {
    Reading kit; ///< all that has to be bought to fit it
    Reading rotors; ///< a pair, later on
    Reading pads; ///< a set, later on
    std::string availability;
    bool operator==(const Costs&) const = default;
};

/// What belongs to a complete corner, so that like is compared with like. Ring and hat together are a rotor.
enum class Part { Rotor, Caliper, Pads, Bracket, Hose, Hardware, Ring, Hat, Drum, Shoes, WheelCylinder, Unknown };

struct Weighing {
    Reading mass;
    std::vector<Part> contains;
    ElementId id {};
    bool operator==(const Weighing&) const = default;
};

/// When to stop stacking washers behind the wheel.
enum class Freed { JustTurns, WantedGap };

/// Work that cannot be undone.
enum class Cut { TrimShield, DrillLugs, CableHole, PressStuds, MachineHub, Grind, Unknown };

enum class BrakeKind { Discs, Drums };

/// One axle's brakes: the design both sides share, and what is fitted on either.
struct Corner {
    std::string wheel; ///< id of the wheel
    Fact<BrakeKind> brakes = BrakeKind::Discs;
    Drum drum;
    Rotor rotor;
    Caliper caliper;
    Pad pad;
    Mount mount;
    Bracket bracket;
    Hose hose;
    Costs costs;
    Reading duct; ///< what a cooling duct makes of the air's cooling, as a factor; absent = none
    Reading cooling; ///< over the model's, as a thermometer has set it; absent = not measured
    Reading ring; ///< between hub flange and rotor; absent = none
    Reading spacer; ///< between rotor and wheel; absent = none
    SpacerPart spacerPart;
    AdapterRing adapter;
    ShieldPart shield;
    Fact<YesNo> leverReturns = YesNo::Unknown; ///< the caliper's parking lever goes back to its stop when the cable is let go
    Reading washers; ///< stacked behind the wheel in a trial; absent = not tried
    Fact<Freed> freed = Freed::JustTurns; ///< what that stack gave
    Fact<YesNo> spacerInTrial = YesNo::Unknown; ///< whether the spacer was behind the wheel as well
    Fitted left;
    Fitted right;
    std::vector<Cut> cuts; ///< that this axle's parts want
    std::vector<Weighing> weighings;
    std::vector<Joint> joints;

    [[nodiscard]] const Fitted& at(Side side) const { return side == Side::Left ? left : right; }
    [[nodiscard]] Fitted& at(Side side) { return side == Side::Left ? left : right; }
    DEEPSTOP_COMPILED_ONCE(Corner)
};

enum class Checked { Open, Fine, Fault };
enum class WhichHand { Unknown, Left, Right };

/// One line of the check list at unpacking, as far as somebody has looked.
struct Receipt {
    std::string item; ///< "front/left/rotor-hand"
    Checked state = Checked::Open;
    WhichHand hand = WhichHand::Unknown; ///< of a sided part, whichever box it came out of
    std::string note;
    std::string photo {}; ///< where the picture lies
    bool operator==(const Receipt&) const = default;
};

/// One line of what has to be bought, in the build's currency.
struct Purchase {
    std::string what;
    std::string number; ///< as the seller has it
    std::string source; ///< where it is bought
    Fact<int> pieces = notCounted;
    Reading price; ///< of one piece
    ElementId id {};
    bool operator==(const Purchase&) const = default;
};

/// A question to the vendor, and what came of it.
struct VendorQuestion {
    std::string about; ///< "rotor thickness, front"
    std::string asked; ///< ISO date; empty: not yet
    std::string answered;
    std::string answer;
    ElementId id {};
    bool operator==(const VendorQuestion&) const = default;
};

/// One way to equip the car. An axle left out is as in the first setup, the car as found.
struct Setup {
    std::string id;
    std::string name;
    std::string note;
    std::optional<Corner> front;
    std::optional<Corner> rear;
    std::optional<Hydraulics> hydraulics {}; ///< left out: as in the first setup
    Fact<YesNo> parkingBrakeReplaced = YesNo::Unknown; ///< where this setup takes it away: whether something else holds the car
    std::string vendor {}; ///< whom to ask
    Fact<YesNo> instructions = YesNo::Unknown; ///< the kit came with fitting instructions
    std::string papers {}; ///< certificates and approvals that come with it
    std::vector<Receipt> received {};
    std::vector<Purchase> purchases {};
    std::vector<VendorQuestion> questions {};
    DEEPSTOP_COMPILED_ONCE(Setup)
};

} // namespace deepstop
