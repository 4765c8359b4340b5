#pragma once
/// What fastens and connects: brackets, the brake line's parts, bolted joints, rings and plates that go between. Plain values, all SI.

#include "build/car.hpp"

#include <vector>

namespace deepstop {

enum class Direction { Unknown, Inboard, Outboard };

/// A place on a bracket's edge, seen along the axle.
struct BracketPoint {
    Reading across; ///< from the line through the axis and the middle between the lugs, towards the car's rear
    Reading radius; ///< along that line from the axis
    ElementId id {};
    bool operator==(const BracketPoint&) const = default;
};

/// Metal taken out of a bracket's back, where it lies on the knuckle: a step over a lug's boss, a groove for a weld.
struct Relief {
    Reading across; ///< of its middle, as a bracket's point
    Reading radius;
    Reading width; ///< across its middle, either way
    Reading depth; ///< from the face that lies on the lugs
    ElementId id {};
    bool operator==(const Relief&) const = default;
};

/// What hangs the caliper on the knuckle, with the bolts that came with it.
struct Bracket {
    std::string name;
    Reading knuckleSpacing; ///< of the holes towards the knuckle
    Reading caliperSpacing; ///< of the holes towards the caliper
    Reading thickness;
    Reading knuckleHole; ///< diameter
    Reading caliperHole;
    Reading proudKnuckle; ///< how far heads, nuts or bolt ends at the knuckle's holes stand out of it towards the rotor; 0: none does
    Reading proudCaliper; ///< the same at the caliper's holes
    Fact<std::string> material;
    Fact<std::string> boltThread; ///< of the bolts into the knuckle
    std::vector<Relief> reliefs;
    std::vector<BracketPoint> outline; ///< where it reaches past its plate; the caliper-side face of it
    DEEPSTOP_COMPILED_ONCE(Bracket)
};

enum class HoseKind { Unknown, Rubber, Braided };

/// How two ends of a brake line seal on each other.
enum class Seat { Unknown, CrushWasher, Cone37, InvertedFlare, BubbleFlare, TaperThread };
enum class Gender { Unknown, Male, Female };
enum class LinePartKind { Unknown, CaliperPort, BanjoBolt, Adapter, Hose, HardLine };

/// One end of a part of the brake line.
struct LineEnd {
    Fact<std::string> thread;
    Fact<Seat> seat = Seat::Unknown;
    Fact<Gender> gender = Gender::Unknown;
    bool operator==(const LineEnd&) const = default;
};

/// One part of the line between caliper and body. A caliper's port has no end towards the caliper, a hard line none towards the body.
struct LinePart {
    Fact<LinePartKind> kind = LinePartKind::Unknown;
    std::string name;
    LineEnd inner; ///< towards the caliper
    LineEnd outer; ///< towards the body
    Fact<int> crushWashers = notCounted; ///< in the joint towards the caliper
    Fact<YesNo> newWashers = YesNo::Unknown;
    ElementId id {};
    bool operator==(const LinePart&) const = default;
};

struct Hose {
    Reading length;
    Fact<HoseKind> kind = HoseKind::Unknown;
    Reading bore;
    Reading give; ///< fluid it takes at 70 bar for swelling; absent: common practice for its kind, length and bore stands in
    Fact<std::string> caliperEnd; ///< thread
    Fact<std::string> lineEnd; ///< thread
    std::vector<LinePart> chain; ///< from the caliper's port to the hard line
    Fact<YesNo> heldAtStrut = YesNo::Unknown; ///< by a clip or bracket
    Fact<YesNo> grommet = YesNo::Unknown; ///< wherever it passes through a panel or bracket
    DEEPSTOP_COMPILED_ONCE(Hose)
};

/// Steel by its class, stainless by ISO 3506-1, inch bolts by SAE J429.
/// `Other`: whatever its maker's proof stress says.
enum class BoltClass { Unknown, C8_8, C10_9, C12_9, A2_70, A4_80, Grade5, Grade8, Other };
/// Of threads as they are tightened. Wicking threadlocker is applied afterwards: tightened dry.
enum class Condition { Unknown, Dry, Oiled, Threadlocker, AntiSeize, WickingThreadlocker };
enum class ThreadIn { Unknown, Steel, Iron, Aluminium };
/// Which of the corner's stacks of shims lies in a joint's grip.
enum class ShimsIn { Unknown, None, Axial, Radial };
/// Faces that are clamped together: what friction between them can be had of.
enum class Faces { Unknown, Clean, Coated };

/// What a joint holds together.
enum class Joins { Unknown, BracketToKnuckle, CaliperToBracket, RingToHat, Other };

enum class Fastener { Unknown, Bolts, Studs };
/// `None`: the thread is tapped in a part. Prevailing torque: a nylon insert, or a deformed all-metal thread.
enum class NutKind { Unknown, None, Plain, NylonInsert, AllMetal };
/// Property classes of nuts by ISO 898-2.
enum class NutClass { Unknown, C5, C6, C8, C10, C12, Other };
enum class WashersUnder { Unknown, None, Head, Nut, Both };

/// Bolts that do one thing, all alike.
struct Joint {
    std::string name; ///< "bracket to knuckle"
    Fact<Joins> joins = Joins::Unknown;
    Fact<std::string> thread;
    Fact<int> bolts = notCounted;
    Fact<BoltClass> boltClass = BoltClass::Unknown;
    Fact<Condition> condition = Condition::Unknown; ///< of the threads as they are done up
    Fact<Condition> torqueFor = Condition::Unknown; ///< what the maker's torque is meant for
    Fact<ThreadIn> threadIn = ThreadIn::Unknown;
    Fact<ShimsIn> shims = ShimsIn::Unknown;
    Fact<Faces> faces = Faces::Unknown;
    Fact<ThreadIn> underHead = ThreadIn::Unknown; ///< the metal the heads bear on
    Fact<YesNo> hardWashers = YesNo::Unknown; ///< under the heads
    Fact<int> timesUsed = notCounted; ///< threads done up so often already
    Fact<Fastener> fastener = Fastener::Unknown; ///< of studs, `length` is what stands out of the part they are in
    Fact<NutKind> nut = NutKind::Unknown;
    Fact<NutClass> nutClass = NutClass::Unknown;
    Fact<YesNo> nutSingleUse = YesNo::Unknown;
    Fact<ThreadIn> underNut = ThreadIn::Unknown; ///< the metal the nuts bear on
    Fact<WashersUnder> washers = WashersUnder::Unknown;
    Fact<YesNo> carMakers = YesNo::Unknown; ///< bolts, torque and pattern are the car maker's own, with the brakes they were made for
    Reading proofStress; ///< by the bolts' maker, where their class is none of the usual ones
    Reading length; ///< under the head
    Reading shank; ///< of it without thread; 0: threaded to the head
    Reading headDiameter; ///< that bears, of the head or its flange
    Reading grip; ///< ear, bracket and washers under the head, without the shims
    Reading threadDepth; ///< of the tapped hole, or height of the nut
    Reading nutHeight; ///< overall, with an insert; absent: that of its thread
    Reading runningTorque; ///< that a prevailing-torque nut takes before it bears
    Reading roomBehind; ///< beyond the thread until the bolt strikes something that turns; absent = a blind hole
    Reading makerTorque; ///< as the maker gives it; outranks the computed one
    Reading mountRadius; ///< from the axis to the bolts, absent = not said, and what they carry is not proven
    ElementId id {};
    DEEPSTOP_COMPILED_ONCE(Joint)
};

enum class RingSits { Unknown, OnPilot, InHat };

/// A ring between the hub's pilot and a rotor's larger bore.
struct AdapterRing {
    Fact<RingSits> sits = RingSits::Unknown;
    Reading inside; ///< diameter
    Reading outside;
    Reading step; ///< thickness of its collar; 0: a plain ring
    Fact<Direction> stepSide = Direction::Unknown; ///< which side of the rotor's hat the collar lies on
    bool operator==(const AdapterRing&) const = default;
};

/// What was done to the dust shield.
enum class ShieldState { Unknown, AsFound, Trimmed, Removed, Replaced };
/// What a shield's plate is clamped between.
enum class PlateLies { Unknown, Free, KnuckleAndHub, FlangeAndRotor };

/// The dust shield of a setup; dimensions that are not given are the car's own.
struct ShieldPart {
    Fact<ShieldState> state = ShieldState::Unknown;
    Reading diameter; ///< over its rim, trimmed or new
    Reading depth; ///< its plate inboard of the hub's flange face
    Reading rim;
    Reading plate; ///< thickness of a plate that is clamped
    Fact<PlateLies> lies = PlateLies::Unknown;
    Fact<YesNo> readWith = YesNo::Unknown; ///< slot's middle, lugs and gaps were read with the plate as it is here
    Fact<YesNo> spotWeldsDrilled = YesNo::Unknown; ///< it was welded on and is drilled off
    bool operator==(const ShieldPart&) const = default;
};

/// How a spacer is held.
enum class SpacerKind { Unknown, SlipOn, Bolted };

/// A wheel spacer beside its thickness.
struct SpacerPart {
    Fact<SpacerKind> kind = SpacerKind::Unknown;
    Reading seat; ///< of a bolted one: its thickness under the nuts that hold it
    Reading nutThread; ///< full thread in these nuts
    Reading studLength; ///< of its own studs, outboard of its face
    Fact<std::string> studThread;
    Reading torque; ///< of the nuts that hold it, as its maker gives it
    bool operator==(const SpacerPart&) const = default;
};

} // namespace deepstop
