#pragma once
/// The document: one car, its wheels, its brake setups, the drawer, what was read at the mock-up and what was proven.
/// Plain values, all SI. `fields.hpp` names every one of them once, for files, editing and questions.

#include "quantity/reading.hpp"

#include <optional>
#include <string>
#include <vector>

namespace deepstop {

enum class Axle { Front, Rear };
enum class Side { Left, Right };
enum class YesNo { Unknown, Yes, No };

/// The car as it stands: what decides how hard it can stop, whatever brakes it has.
struct Car {
    std::string name;
    std::string note;
    Reading mass; ///< ready to drive, with driver
    Reading wheelbase;
    Reading centreOfMassHeight;
    Reading frontLoadShare; ///< part of the weight on the front axle at rest
    Reading dragArea; ///< drag coefficient times frontal area
    Reading frontTrack; ///< between the tyres' middles, as found
    Reading rearTrack;
    YesNo antilock = YesNo::Unknown;
    Reading testSpeed; ///< the speed the comparison stops from
    std::string duty; ///< id of the duty its brakes are judged by; empty: the first of the build's
    bool operator==(const Car&) const = default;
};

enum class Booster { Unknown, None, Vacuum, Electric };
/// One cylinder with two chambers in a row, or two side by side under a balance bar.
enum class MasterKind { Unknown, Tandem, Twin };
enum class Circuits { Unknown, FrontAndRear, Diagonal };
/// Classes of brake fluid by FMVSS 116.
enum class FluidClass { Unknown, Dot3, Dot4, Dot51 };
/// What holds the rear pressure back.
enum class ValveKind { Unknown, None, Fixed, Adjustable, LoadDependent };

/// From the foot to the line pressure. Belongs to a setup; one that brings none of its own runs the car's as found.
struct Hydraulics {
    Reading pedalForce; ///< as hard as this driver brakes on purpose
    Reading pedalRatio;
    Reading freePlay; ///< at the pedal, before the push rod moves
    Booster booster = Booster::Unknown;
    Reading boosterGain;
    Reading boosterKnee; ///< its output force where it runs out and only follows the foot; absent: common practice stands in
    MasterKind master = MasterKind::Unknown;
    Reading masterBore; ///< of twins the front one
    Reading rearMasterBore; ///< of twins
    Reading barPosition; ///< part of the push rod's force that the balance bar gives to the front cylinder
    Reading masterStroke; ///< of the push rod, both chambers of a tandem used up
    Reading frontStroke; ///< part of that stroke which a tandem's front (or first) circuit has
    Circuits circuits = Circuits::Unknown;
    Reading linePressure; ///< front, measured at that pedal force; outranks what foot, pedal, booster and bore would make
    ValveKind valve = ValveKind::Unknown;
    Reading rearKneePressure; ///< of the proportioning valve
    Reading rearSlope; ///< rear pressure gained per front pressure above the knee
    Reading kneePerLoad; ///< of a load-dependent valve: knee gained per force on the rear axle beyond that with the driver alone, 1/m²
    Reading buildUpTime; ///< from touching the pedal to full deceleration
    Reading reservoir; ///< fluid between its two marks
    FluidClass fluid = FluidClass::Unknown;
    Reading fluidAge; ///< since it was filled in, s
    Reading dryBoiling; ///< of fresh fluid as its maker gives it; absent: the least its class allows
    Reading wetBoiling; ///< of fluid that has taken up water
    bool operator==(const Hydraulics&) const = default;
};

/// Something carried, or a passenger; less than nothing for fuel that is used up.
struct Carried {
    std::string what;
    Reading mass;
    Reading behindFrontAxle; ///< negative ahead of it
    Reading height; ///< over the road
    bool operator==(const Carried&) const = default;
};

/// One stretch of a duty: from one speed to another at a steady rate.
struct Leg {
    Reading from; ///< absent = where the one before it ended
    Reading to;
    Reading time;
    Reading slope; ///< of the road, falling positive; absent = level
    YesNo braking = YesNo::Unknown; ///< not said: where it slows
    bool operator==(const Leg&) const = default;
};

/// What the brakes are asked to do: legs, all of them so often over.
struct DutyPlan {
    std::string id;
    std::string name;
    int repeats = 0; ///< 0: once
    Reading engineBraking; ///< deceleration by engine and gears while coasting and braking; absent = none
    std::vector<Leg> legs;
    bool operator==(const DutyPlan&) const = default;
};

/// The car otherwise laden than with its driver alone.
struct LoadCase {
    std::string name; ///< "full"
    std::vector<Carried> carried;
    bool operator==(const LoadCase&) const = default;
};

enum class ParkingBrake { Unknown, None, DrumInHat, InCaliper, InDrum };

/// How a wheel nut or bolt bears on the wheel; both must be alike.
enum class NutSeat { Unknown, Cone, Ball, Flat };
/// What holds the wheel on the hub.
enum class WheelHeldBy { Unknown, Studs, Bolts };
/// Whether a nut is closed at its end, so that a long stud bottoms in it.
enum class NutEnd { Unknown, Open, Closed };

enum class KeepOutKind { Knuckle, BallJoint, Hose, Other };

/// A place beside the rotor and inside the wheel that what turns must not reach: it stands still with the hub.
struct KeepOut {
    KeepOutKind kind = KeepOutKind::Knuckle;
    std::string name; ///< "hose at droop, full left lock"
    Reading depth; ///< inboard of the hub's flange face
    Reading radius; ///< from the axis
    bool operator==(const KeepOut&) const = default;
};

/// The hub the rotor and the wheel sit on, and the knuckle that carries the caliper.
struct Hub {
    Reading flangeDiameter;
    Reading pilotDiameter;
    Reading pilotHeight; ///< from the flange face outboard
    Reading boltCircle;
    int studCount = 0;
    Reading studLength; ///< outboard of the flange face
    Reading studDiameter;
    WheelHeldBy heldBy = WheelHeldBy::Unknown;
    std::string studThread; ///< "M12x1.5"; of the studs, or of the wheel bolts
    Reading nutThread; ///< length of full thread in a wheel nut
    NutEnd nutEnd = NutEnd::Unknown;
    Reading nutDepth; ///< of a closed nut: from its seat's near end to the bottom, where the stud would strike
    NutSeat nutSeat = NutSeat::Unknown; ///< of the nuts, or of the wheel bolts
    Reading seatAngle; ///< of a cone, whole angle, rad
    Reading seatRadius; ///< of a ball
    Reading wheelBoltLength; ///< under its seat, to its end
    Reading hubThread; ///< thread in the hub's flange that a wheel bolt can use, from its face
    Reading behindFlange; ///< beyond that thread until a wheel bolt's end strikes something
    Reading pilotChamfer; ///< at the pilot's end, where it carries nothing
    Reading lugSpacing; ///< of the knuckle's two lugs, hole to hole
    Reading lugRadius; ///< from the axis to the middle between the two holes
    Reading lugDepth; ///< of the lugs' mounting face inboard of the hub's flange face
    Reading lugThickness;
    Reading lugEdge; ///< from a hole's middle to the nearest edge of its lug
    std::string lugThread; ///< "M12x1.5"; as cut in the lugs, or of the bolts that go through them
    std::string lineThread; ///< where the hose meets the hard line
    Reading hoseReach; ///< hose length that reaches at droop and full lock
    ParkingBrake parkingBrake = ParkingBrake::Unknown;
    Reading shoeDiameter; ///< drum the parking brake's shoes are made for
    Reading scrubRadius; ///< as found; the tyre's middle outboard of where the steering axis meets the road
    Reading fenderRoom; ///< tyre to fender where they come nearest, as found
    Reading innerRoom; ///< tyre or rim to strut or arm where they come nearest, as found
    Reading shieldDiameter; ///< of the dust shield, over its rim
    Reading shieldDepth; ///< its plate inboard of the hub's flange face
    Reading shieldRim; ///< how far its rim stands outboard of its plate
    std::vector<KeepOut> keepOuts;
    bool operator==(const Hub&) const = default;
};

/// One station of a wheel's barrel: how deep inboard of the mounting face, and the inside radius there.
struct BarrelStation {
    Reading depth;
    Reading insideRadius;
    YesNo bend = YesNo::Unknown; ///< a bend begins or ends here: from one such to the next the barrel runs straight
    bool operator==(const BarrelStation&) const = default;
};

/// One station of the spokes' back: at which radius, and how far it stands outboard of the mounting face.
struct SpokeStation {
    Reading radius;
    Reading distance;
    YesNo bend = YesNo::Unknown; ///< as of the barrel
    std::string along; ///< which line down the spokes: "middle", "edge"; stations of one line make one profile
    bool operator==(const SpokeStation&) const = default;
};

enum class InsetKind { Weights, Valve, Sensor };

/// What stands into the barrel and turns with it.
struct Inset {
    InsetKind kind = InsetKind::Weights;
    Reading from; ///< depth of its outboard end, inboard of the mounting face
    Reading to; ///< depth of its inboard end
    Reading height; ///< how far it stands inward of the barrel
    bool operator==(const Inset&) const = default;
};

struct Wheel {
    std::string id;
    std::string name;
    std::string from; ///< id in the parts library
    int nominalDiameter = 0; ///< the printed size, "17"
    double nominalWidth = 0; ///< the printed width, "8"
    Reading offset; ///< ET
    Reading mass; ///< with tyre
    Reading bore;
    Reading overallWidth; ///< over the flanges; absent = printed width and 25 mm
    Reading padThickness; ///< mounting face to where the nut's thread begins, nut tight; for wheel bolts: to their seat
    NutSeat nutSeat = NutSeat::Unknown;
    Reading seatAngle; ///< of its cones, whole angle, rad
    Reading seatRadius; ///< of its ball seats
    Reading boreChamfer; ///< where its bore begins to carry, from the mounting face
    Reading rollingRadius; ///< with the tyre that is on it
    Reading grip; ///< of that tyre: peak deceleration over g
    YesNo balanceWeights = YesNo::Unknown; ///< inside the barrel; where they are stands in `insets`
    YesNo spokesAlike = YesNo::Unknown; ///< one line down them stands for all
    Reading give; ///< how much its rim gives way in a hard corner
    std::vector<BarrelStation> barrel;
    std::vector<SpokeStation> spokes;
    std::vector<Inset> insets;
    bool operator==(const Wheel&) const = default;
};

enum class HatMaterial { Unknown, Iron, Aluminium };
enum class RotorFace { Plain, Dimpled, Slotted, Drilled };
enum class RingMaterial { Unknown, Iron, Steel, CarbonCeramic };
enum class RotorBuild { Unknown, OnePiece, TwoPiece };
enum class VaneShape { Straight, Curved, Pillars };
/// Whether a part fits one side only.
enum class Handed { Unknown, Either, Sided };

struct Rotor {
    std::string name;
    std::string from; ///< id in the parts library this was copied from; empty: made here
    RotorBuild construction = RotorBuild::Unknown;
    RotorFace face = RotorFace::Plain;
    int slotCount = 0; ///< 0: not counted
    RingMaterial ringMaterial = RingMaterial::Unknown;
    HatMaterial hatMaterial = HatMaterial::Unknown;
    Handed handed = Handed::Unknown;
    Reading outerDiameter;
    Reading thickness;
    Reading minimumThickness; ///< as cast or stamped on the part
    Reading ringInnerDiameter;
    Reading overallHeight; ///< from the hat's wheel face to the inboard friction face
    Reading hatThickness; ///< what lies between hub flange and wheel
    Reading hatOuterDiameter;
    Reading hatWall;
    Reading bore;
    Reading pocketDiameter; ///< inside the hat, what the hub flange has to enter
    Reading boltCircle;
    int boltHoles = 0; ///< 0: not counted
    Reading boltHoleDiameter;
    Reading drumDiameter; ///< of the parking brake's drum inside the hat; absent = none
    int hatBolts = 0; ///< of a two-piece rotor
    std::string hatBoltThread;
    Reading ventGap; ///< air between the two plates; 0 for a solid rotor
    Reading vaneShare; ///< part of that air filled by vanes; outranks counting them
    VaneShape vaneShape = VaneShape::Straight;
    int vanes = 0;
    Reading vaneThickness; ///< for pillars: their diameter
    Reading vaneLean; ///< of curved vanes: angle between vane and radius, rad
    Reading ringPlay; ///< how far a floating ring moves on its hat along the axle
    bool operator==(const Rotor&) const = default;
};

enum class CaliperKind { Unknown, Fixed, Floating };
enum class Bleeders { Unknown, OneEnd, BothEnds };
/// End of a mounted caliper where the turning rotor enters it or leaves it, the car going forward.
enum class End { Unknown, Entry, Exit };

enum class BumpKind { Bleeder, BoltHead, Pipe };

/// What stands proud of the caliper's body: a bleeder, a bolt's head, a crossover pipe. A box, read with a vernier.
struct Bump {
    BumpKind kind = BumpKind::Bleeder;
    Reading overEdge; ///< its farthest point over the rotor's edge; negative below
    Reading height; ///< of the box, inward from there
    Reading atDepth; ///< its middle from the slot's middle, outboard positive
    Reading width; ///< across, along the axle
    Reading fromMiddle; ///< its far side along the back from the caliper's middle
    bool operator==(const Bump&) const = default;
};

/// Heights are taken from the rotor's edge and depths from the middle of the slot, as a vernier takes them on a mounted caliper.
struct Caliper {
    std::string name;
    std::string from; ///< id in the parts library
    CaliperKind kind = CaliperKind::Unknown;
    std::string material;
    std::string pistonMaterial;
    Bleeders bleeders = Bleeders::Unknown;
    End bleederEnd = End::Unknown; ///< where the one bleeder sits
    std::string hoseThread; ///< where the hose meets the caliper
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
    YesNo split = YesNo::Unknown; ///< two halves bolted together
    int bridgeBolts = 0;
    std::string bridgeBoltThread;
    Reading bridgeBoltLength; ///< under the head
    Reading bridgeBoltGrip; ///< under the head, in the half it goes through
    Reading pinLength; ///< of the pad pins
    YesNo crossover = YesNo::Unknown; ///< fluid crosses inside, through the faces of the halves
    Reading widened; ///< spacers between the halves; absent = none
    std::vector<Reading> pistons; ///< bores on one side, from the rotor's entry to its exit
    std::vector<Bump> bumps;
    bool operator==(const Caliper&) const = default;
};

/// Friction of a compound at one temperature, from a bench or a vendor's curve.
struct FrictionPoint {
    Reading temperature;
    Reading friction;
    bool operator==(const FrictionPoint&) const = default;
};

struct Pad {
    std::string name;
    std::string from; ///< id in the parts library
    std::string compound;
    Reading height; ///< radial
    Reading length;
    Reading thickness; ///< friction material
    Reading backing;
    Reading minimumThickness; ///< of the lining
    Reading area; ///< of one lining as measured; absent = height times length
    Reading friction; ///< coefficient against iron, warm
    Reading squeeze; ///< by how much one pad gives at 70 bar; absent: common practice stands in
    std::vector<FrictionPoint> frictionOverTemperature;
    YesNo wearSensor = YesNo::Unknown;
    bool operator==(const Pad&) const = default;
};

enum class MountKind { Lug, Radial };
enum class Direction { Unknown, Inboard, Outboard };

/// How the caliper hangs on the knuckle.
struct Mount {
    MountKind kind = MountKind::Lug;
    Reading boltSpacing;
    Reading radialRead; ///< mean stack under the studs of a radial mount when the caliper's heights over the rotor's edge were read
    Reading clock; ///< where the caliper sits round the axle: from straight up towards the car's rear, rad
    Direction shimMoves = Direction::Unknown; ///< where a thicker stack moves the caliper
    bool operator==(const Mount&) const = default;
};

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
    std::string rotorMark; ///< which of the pair it is: "tagged L"
    std::string caliperMark;
    bool operator==(const Fitted&) const = default;
};

/// A place on a bracket's edge, seen along the axle.
struct BracketPoint {
    Reading across; ///< from the line through the axis and the middle between the lugs, towards the car's rear
    Reading radius; ///< along that line from the axis
    bool operator==(const BracketPoint&) const = default;
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
    std::string material;
    std::string boltThread; ///< of the bolts into the knuckle
    std::vector<BracketPoint> outline; ///< where it reaches past its plate; the caliper-side face of it
    bool operator==(const Bracket&) const = default;
};

enum class DrumKind { Unknown, LeadingTrailing, TwoLeading, SelfEnergising };

/// A drum with its shoes, one side.
struct Drum {
    std::string name;
    DrumKind kind = DrumKind::Unknown;
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
    bool operator==(const Drum&) const = default;
};

enum class HoseKind { Unknown, Rubber, Braided };

struct Hose {
    Reading length;
    HoseKind kind = HoseKind::Unknown;
    Reading bore;
    Reading give; ///< fluid it takes at 70 bar for swelling; absent: common practice for its kind, length and bore stands in
    std::string caliperEnd; ///< thread
    std::string lineEnd; ///< thread
    bool operator==(const Hose&) const = default;
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
enum class Part { Rotor, Caliper, Pads, Bracket, Hose, Hardware, Ring, Hat, Drum, Shoes, WheelCylinder };

struct Weighing {
    Reading mass;
    std::vector<Part> contains;
    bool operator==(const Weighing&) const = default;
};

/// Steel by its class, stainless by ISO 3506-1, inch bolts by SAE J429.
enum class BoltClass { Unknown, C8_8, C10_9, C12_9, A2_70, A4_80, Grade5, Grade8 };
enum class Condition { Unknown, Dry, Oiled, Threadlocker, AntiSeize };
enum class ThreadIn { Unknown, Steel, Iron, Aluminium };
/// Which of the corner's stacks of shims lies in a joint's grip.
enum class ShimsIn { Unknown, None, Axial, Radial };
/// Faces that are clamped together: what friction between them can be had of.
enum class Faces { Unknown, Clean, Coated };

/// Bolts that do one thing, all alike.
struct Joint {
    std::string name; ///< "bracket to knuckle"
    std::string thread;
    int bolts = 0; ///< 0: not counted
    BoltClass boltClass = BoltClass::Unknown;
    Condition condition = Condition::Unknown; ///< of the threads as they are done up
    Condition torqueFor = Condition::Unknown; ///< what the maker's torque is meant for
    ThreadIn threadIn = ThreadIn::Unknown;
    ShimsIn shims = ShimsIn::Unknown;
    Faces faces = Faces::Unknown;
    ThreadIn underHead = ThreadIn::Unknown; ///< the metal the heads bear on
    YesNo hardWashers = YesNo::Unknown; ///< under the heads
    int timesUsed = 0; ///< threads done up so often already
    Reading length; ///< under the head
    Reading shank; ///< of it without thread; 0: threaded to the head
    Reading headDiameter; ///< that bears, of the head or its flange
    Reading grip; ///< ear, bracket and washers under the head, without the shims
    Reading threadDepth; ///< of the tapped hole, or height of the nut
    Reading roomBehind; ///< beyond the thread until the bolt strikes something that turns; absent = a blind hole
    Reading makerTorque; ///< as the maker gives it; outranks the computed one
    Reading mountRadius; ///< from the axis to the bolts, absent = nobody has said, and what they carry is not proven
    bool operator==(const Joint&) const = default;
};

/// When to stop stacking washers behind the wheel.
enum class Freed { JustTurns, WantedGap };

enum class BrakeKind { Discs, Drums };

/// One axle's brakes: the design both sides share, and what is fitted on either.
struct Corner {
    std::string wheel; ///< id of the wheel
    BrakeKind brakes = BrakeKind::Discs;
    Drum drum;
    Rotor rotor;
    Caliper caliper;
    Pad pad;
    Mount mount;
    Bracket bracket;
    Hose hose;
    Costs costs;
    Reading duct; ///< what a cooling duct makes of the air's cooling, as a factor; absent = none
    Reading cooling; ///< over the model's, as a thermometer has set it; absent = nobody has measured
    Reading ring; ///< between hub flange and rotor; absent = none
    Reading spacer; ///< between rotor and wheel; absent = none
    Reading washers; ///< stacked behind the wheel in a trial; absent = not tried
    Freed freed = Freed::JustTurns; ///< what that stack gave
    YesNo spacerInTrial = YesNo::Unknown; ///< whether the spacer was behind the wheel as well
    Fitted left;
    Fitted right;
    std::vector<Weighing> weighings;
    std::vector<Joint> joints;

    [[nodiscard]] const Fitted& at(Side side) const { return side == Side::Left ? left : right; }
    [[nodiscard]] Fitted& at(Side side) { return side == Side::Left ? left : right; }
    bool operator==(const Corner&) const = default;
};

enum class Checked { Open, Fine, Fault };
enum class WhichHand { Unknown, Left, Right };

/// One line of the check list at unpacking, as far as somebody has looked.
struct Receipt {
    std::string item; ///< "front/left/rotor-hand"
    Checked state = Checked::Open;
    WhichHand hand = WhichHand::Unknown; ///< of a sided part, whichever box it came out of
    std::string note;
    bool operator==(const Receipt&) const = default;
};

/// One way to equip the car. An axle left out is as in the first setup, the car as found.
struct Setup {
    std::string id;
    std::string name;
    std::string note;
    std::optional<Corner> front;
    std::optional<Corner> rear;
    std::optional<Hydraulics> hydraulics {}; ///< left out: as in the first setup
    YesNo parkingBrakeReplaced = YesNo::Unknown; ///< where this setup takes it away: whether something else holds the car
    std::string vendor {}; ///< whom to ask
    std::vector<Receipt> received {};
    bool operator==(const Setup&) const = default;
};

struct ShimStock {
    Reading thickness;
    int count = 0; ///< for the whole car
    bool operator==(const ShimStock&) const = default;
};

/// Four gaps as they were read once, with the shims that were in then.
struct Pass {
    std::string date;
    Reading innerTop;
    Reading outerTop;
    Reading innerBottom;
    Reading outerBottom;
    Reading padEdgeTop;
    Reading padEdgeBottom;
    Reading shimTop;
    Reading shimBottom;
    Reading radialTop;
    Reading radialBottom;
    bool operator==(const Pass&) const = default;
};

/// Four gaps between rotor face and caliper, read with everything loose.
struct MockUp {
    std::string setup; ///< id
    Axle axle = Axle::Front;
    Side side = Side::Left;
    Reading innerTop;
    Reading outerTop;
    Reading innerBottom;
    Reading outerBottom;
    Reading gapSpacing; ///< between the upper and the lower place of reading
    Reading padEdgeTop; ///< pad's outer edge inward of the rotor's edge, at its upper end
    Reading padEdgeBottom;
    Reading play; ///< how far the caliper can be moved on its loose bolts
    int nuts = 0; ///< that held the rotor flat; 0: nobody has said
    YesNo seated = YesNo::Unknown; ///< rotor flat on a clean hub
    YesNo settled = YesNo::Unknown; ///< play taken up the same way for every reading
    YesNo shaftIn = YesNo::Unknown; ///< drive shaft in place where the bearing needs it
    std::vector<Pass> passes; ///< earlier readings of this corner, oldest first
    bool operator==(const MockUp&) const = default;
};

struct MeasuredStop {
    Reading speed;
    Reading distance;
    std::string note;
    bool operator==(const MeasuredStop&) const = default;
};

enum class MeasuredAt { Ring, Pad, Caliper, Hat, Drum };

/// A temperature taken on the car during or after a duty.
struct MeasuredTemperature {
    std::string duty; ///< id
    int stop = 0; ///< after that stop of it
    Reading after; ///< time since the end of that stop
    Axle axle = Axle::Front;
    MeasuredAt at = MeasuredAt::Ring;
    Reading temperature;
    bool operator==(const MeasuredTemperature&) const = default;
};

struct TestSession {
    std::string setup; ///< id
    std::string date;
    std::string place;
    std::vector<MeasuredStop> stops;
    std::vector<MeasuredTemperature> temperatures {};
    std::optional<Setup> ran {}; ///< the setup as it was that day, both axles and the hydraulics in it
    bool operator==(const TestSession&) const = default;
};

/// What this builder wants of a gap; the defaults are common practice, no source.
struct Wants {
    Reading barrelGap { 3e-3, 0.0, Known::Measured, {}, {} };
    Reading spokeGap { 3e-3, 0.0, Known::Measured, {}, {} };
    Reading bridgeGap { 2e-3, 0.0, Known::Measured, {}, {} };
    Reading faceGap { 1.5e-3, 0.0, Known::Measured, {}, {} };
    Reading centred { 0.25e-3, 0.0, Known::Measured, {}, {} };
    Reading usable { 0.5e-3, 0.0, Known::Measured, {}, {} };
    Reading hatGap { 2e-3, 0.0, Known::Measured, {}, {} };
    Reading keepOutGap { 5e-3, 0.0, Known::Measured, {}, {} };
    Reading hoseGap { 10e-3, 0.0, Known::Measured, {}, {} };
    Reading shieldGap { 4e-3, 0.0, Known::Measured, {}, {} };
    Reading hotRise { 500, 0.0, Known::Measured, {}, {} }; ///< of the friction ring above the garage
    Reading coning { 0.3e-3, 0.0, Known::Measured, {}, {} }; ///< of a hot rotor, at its edge
    Reading stationSpacing { 12e-3, 0.0, Known::Measured, {}, {} }; ///< farthest two stations of a wheel may lie apart
    Reading studEngagement { 1.0, 0.0, Known::Measured, {}, {} }; ///< full thread in the nut over the stud's diameter
    Reading pilotLeft { 4e-3, 0.0, Known::Measured, {}, {} };
    Reading spacerStep { 0.5e-3, 0.0, Known::Measured, {}, {} }; ///< a turned spacer is made to
    Reading padEdge { 0.5e-3, 0.0, Known::Measured, {}, {} }; ///< pad's edge inward of the rotor's, aimed at
    Reading shimsPerBolt { 5, 0.0, Known::Measured, {}, {} }; ///< at most
    Reading weightHeight { 5e-3, 0.0, Known::Measured, {}, {} }; ///< of balance weights nobody has placed
    Reading antilockQuality { 0.95, 0.0, Known::Measured, {}, {} }; ///< of the tyres' grip, that antilock brakes use
    Reading slipMargin { 1.5, 0.0, Known::Measured, {}, {} }; ///< of bolts that carry the brake's torque by friction
    Reading strokeShare { 0.65, 0.0, Known::Measured, {}, {} }; ///< of the master cylinder's stroke, for the hardest stop
    Reading lightEffort { 150, 0.0, Known::Measured, {}, {} }; ///< on the pedal for 1 g, where a pedal begins to be comfortable
    Reading firmEffort { 300, 0.0, Known::Measured, {}, {} }; ///< and where it ends
    Reading greatestEffort { 500, 0.0, Known::Measured, {}, {} }; ///< of a strong foot
    Reading boosterRunOut { 60e5, 20e5, Known::Measured, {}, {} }; ///< front pressure at which an unmeasured booster runs out
    Reading rollBack { 0.12e-3, 0.06e-3, Known::Measured, {}, {} }; ///< of a caliper's piston when the pedal is let go
    Reading padSqueeze { 0.1e-3, 0.05e-3, Known::Measured, {}, {} }; ///< of one pad nobody has pressed, at 70 bar
    Reading caliperGive { 1e-6, 0.5e-6, Known::Measured, {}, {} }; ///< of one unmeasured caliper or drum, at 70 bar
    Reading rubberGive { 1.2e-6, 0.6e-6, Known::Measured, {}, {} }; ///< of a metre of rubber hose of 3.2 mm bore, at 70 bar
    Reading braidedGive { 0.3e-6, 0.15e-6, Known::Measured, {}, {} }; ///< of a metre of braided hose
    Reading ambient { 293.15, 0.0, Known::Measured, {}, {} }; ///< air round the brakes
    Reading fadeAt { 0.75, 0.0, Known::Measured, {}, {} }; ///< of the quoted friction, where a pad is called faded
    Reading shoePlay { 0.3e-3, 0.15e-3, Known::Measured, {}, {} }; ///< of a wheel cylinder's piston nobody has measured
    bool operator==(const Wants&) const = default;
};

struct Build {
    std::string currency; ///< prices are in it, "EUR"
    Car car;
    Hub frontHub;
    Hub rearHub;
    Wants wants;
    std::vector<Wheel> wheels;
    std::vector<Setup> setups; ///< the first is the car as found
    std::vector<DutyPlan> duties;
    std::vector<LoadCase> loads; ///< beside the car with its driver alone
    std::vector<ShimStock> drawer;
    std::vector<MockUp> mockUps;
    std::vector<TestSession> tests;
    bool operator==(const Build&) const = default;
};

[[nodiscard]] const Setup* findSetup(const Build& build, const std::string& id);
[[nodiscard]] const Wheel* findWheel(const Build& build, const std::string& id);
/// The setup's own corner, or that of the car as found where the setup leaves the axle alone; null in a build without setups.
[[nodiscard]] const Corner* cornerOf(const Build& build, const Setup& setup, Axle axle);
/// The same to be changed: a setup that left the axle alone begins to differ here, from the corner it leaned on, or an empty one.
/// @pre the build has a setup with that id
[[nodiscard]] Corner& ownCorner(Build& build, const std::string& setupId, Axle axle);
/// The setup's own hydraulics, or those of the car as found where it leaves them alone.
[[nodiscard]] const Hydraulics& hydraulicsOf(const Build& build, const Setup& setup);
[[nodiscard]] inline const Hub& hubOf(const Build& build, Axle axle) { return axle == Axle::Front ? build.frontHub : build.rearHub; }

/// Whose parts are on one axle of a setup.
struct AxleParts {
    const Corner* corner = nullptr; ///< into the build; null where it has none
    const Wheel* wheel = nullptr;
};

/// What a setup puts on the car, its own or as found.
struct SetupParts {
    const Setup* setup = nullptr;
    const Hydraulics* hydraulics = nullptr;
    AxleParts front;
    AxleParts rear;
    [[nodiscard]] const AxleParts& at(Axle axle) const { return axle == Axle::Front ? front : rear; }
    [[nodiscard]] bool complete() const { return front.corner && rear.corner; }
};

/// All pointers lead into `build`. @pre `setup` is one of its setups
[[nodiscard]] SetupParts partsOf(const Build& build, const Setup& setup);

} // namespace deepstop
