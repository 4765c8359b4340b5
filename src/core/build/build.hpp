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
    Reading grip; ///< tyre grip, peak deceleration over g
    Reading dragArea; ///< drag coefficient times frontal area
    Reading frontTyreRadius; ///< rolling radius
    Reading rearTyreRadius;
    YesNo antilock = YesNo::Unknown;
    Reading testSpeed; ///< the speed the comparison stops from
    bool operator==(const Car&) const = default;
};

/// From the foot to the line pressure.
struct Hydraulics {
    Reading pedalForce; ///< as hard as this driver brakes on purpose
    Reading pedalRatio;
    Reading boosterGain; ///< 1 without a booster
    Reading masterBore;
    Reading linePressure; ///< measured at that pedal force; outranks the four above
    Reading rearKneePressure; ///< of the proportioning valve; absent = none
    Reading rearSlope; ///< rear pressure gained per front pressure above the knee
    Reading buildUpTime; ///< from touching the pedal to full deceleration
    bool operator==(const Hydraulics&) const = default;
};

enum class ParkingBrake { Unknown, None, DrumInHat, InCaliper };

/// The hub the rotor and the wheel sit on, and the knuckle that carries the caliper.
struct Hub {
    Reading flangeDiameter;
    Reading pilotDiameter;
    Reading pilotHeight; ///< from the flange face outboard
    Reading boltCircle;
    int studCount = 0;
    Reading studLength; ///< outboard of the flange face
    Reading studDiameter;
    Reading lugSpacing; ///< of the knuckle's two lugs, hole to hole
    std::string lugThread; ///< "M12x1.5"; as cut in the lugs, or of the bolts that go through them
    std::string lineThread; ///< where the hose meets the hard line
    Reading hoseReach; ///< hose length that reaches at droop and full lock
    ParkingBrake parkingBrake = ParkingBrake::Unknown;
    Reading shoeDiameter; ///< drum the parking brake's shoes are made for
    bool operator==(const Hub&) const = default;
};

/// One station of a wheel's barrel: how deep inboard of the mounting face, and the inside radius there.
struct BarrelStation {
    Reading depth;
    Reading insideRadius;
    bool operator==(const BarrelStation&) const = default;
};

/// One station of the spokes' back: at which radius, and how far it stands outboard of the mounting face.
struct SpokeStation {
    Reading radius;
    Reading distance;
    bool operator==(const SpokeStation&) const = default;
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
    std::vector<BarrelStation> barrel;
    std::vector<SpokeStation> spokes;
    bool operator==(const Wheel&) const = default;
};

enum class HatMaterial { Iron, Aluminium };
enum class RotorFace { Plain, Dimpled, Slotted, Drilled };
enum class RingMaterial { Iron, Steel, CarbonCeramic };
enum class RotorBuild { OnePiece, TwoPiece };
enum class VaneShape { Straight, Curved, Pillars };
/// Whether a part fits one side only.
enum class Handed { Unknown, Either, Sided };

struct Rotor {
    std::string name;
    std::string from; ///< id in the parts library this was copied from; empty: made here
    RotorBuild construction = RotorBuild::OnePiece;
    RotorFace face = RotorFace::Plain;
    RingMaterial ringMaterial = RingMaterial::Iron;
    HatMaterial hatMaterial = HatMaterial::Iron;
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
    Reading runout; ///< total, at the edge, on the car
    Reading thicknessVariation; ///< DTV over one turn
    bool operator==(const Rotor&) const = default;
};

enum class CaliperKind { Fixed, Floating };
enum class Bleeders { Unknown, OneEnd, BothEnds };

/// Heights are taken from the rotor's edge and depths from the middle of the slot, as a vernier takes them on a mounted caliper.
struct Caliper {
    std::string name;
    std::string from; ///< id in the parts library
    CaliperKind kind = CaliperKind::Fixed;
    std::string material;
    std::string pistonMaterial;
    Bleeders bleeders = Bleeders::Unknown;
    std::string hoseThread; ///< where the hose meets the caliper
    Reading backOverEdge; ///< flat back of the bridge above the rotor's edge, at its middle
    Reading backLength; ///< of the straight back, end to end
    Reading bridgeGap; ///< underside of the bridge above the rotor's edge
    Reading reach; ///< how far the body reaches inward of the rotor's edge
    Reading outboardDepth; ///< slot's middle to the outboard face
    Reading inboardDepth; ///< slot's middle to the inboard face
    Reading shoulder; ///< chamfer between back and faces, same both ways
    Reading slotWidth; ///< between the halves, pads out
    Reading padRoom; ///< between pistons pushed home, or piston and fingers, pads out
    Reading padWindow; ///< length of the opening the pads go into
    Reading mountSpacing; ///< of its own two mounting holes
    std::vector<Reading> pistons; ///< bores on one side
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
    std::vector<FrictionPoint> frictionOverTemperature;
    YesNo wearSensor = YesNo::Unknown;
    bool operator==(const Pad&) const = default;
};

enum class MountKind { Lug, Radial };
enum class Direction { Inboard, Outboard };

/// How the caliper hangs on the knuckle.
struct Mount {
    MountKind kind = MountKind::Lug;
    Reading slotCentre; ///< slot's middle from the hub's flange face, outboard positive, with the shims that are in now
    Reading padInset; ///< pad's outer edge inward of the rotor's edge
    Reading boltSpacing;
    Reading shimTop; ///< stack on the top bolt now
    Reading shimBottom;
    Direction shimMoves = Direction::Inboard; ///< where a thicker stack moves the caliper
    bool operator==(const Mount&) const = default;
};

/// What hangs the caliper on the knuckle, with the bolts that came with it.
struct Bracket {
    std::string name;
    Reading knuckleSpacing; ///< of the holes towards the knuckle
    Reading caliperSpacing; ///< of the holes towards the caliper
    std::string boltThread; ///< of the bolts into the knuckle
    bool operator==(const Bracket&) const = default;
};

struct Hose {
    Reading length;
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
enum class Part { Rotor, Caliper, Pads, Bracket, Hose, Hardware, Ring, Hat };

struct Weighing {
    Reading mass;
    std::vector<Part> contains;
    bool operator==(const Weighing&) const = default;
};

/// One axle's brakes, both sides alike.
struct Corner {
    std::string wheel; ///< id of the wheel
    Rotor rotor;
    Caliper caliper;
    Pad pad;
    Mount mount;
    Bracket bracket;
    Hose hose;
    Costs costs;
    Reading ring; ///< between hub flange and rotor; absent = none
    Reading spacer; ///< between rotor and wheel; absent = none
    std::vector<Weighing> weighings;
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
    std::string vendor {}; ///< whom to ask
    std::vector<Receipt> received {};
    bool operator==(const Setup&) const = default;
};

struct ShimStock {
    Reading thickness;
    int count = 0; ///< for the whole car
    bool operator==(const ShimStock&) const = default;
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
    bool operator==(const MockUp&) const = default;
};

struct MeasuredStop {
    Reading speed;
    Reading distance;
    std::string note;
    bool operator==(const MeasuredStop&) const = default;
};

struct TestSession {
    std::string setup; ///< id
    std::string date;
    std::string place;
    std::vector<MeasuredStop> stops;
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
    bool operator==(const Wants&) const = default;
};

struct Build {
    std::string currency; ///< prices are in it, "EUR"
    Car car;
    Hydraulics hydraulics;
    Hub frontHub;
    Hub rearHub;
    Wants wants;
    std::vector<Wheel> wheels;
    std::vector<Setup> setups; ///< the first is the car as found
    std::vector<ShimStock> drawer;
    std::vector<MockUp> mockUps;
    std::vector<TestSession> tests;
    bool operator==(const Build&) const = default;
};

[[nodiscard]] const Setup* findSetup(const Build& build, const std::string& id);
[[nodiscard]] const Wheel* findWheel(const Build& build, const std::string& id);
/// The setup's own corner, or that of the car as found where the setup leaves the axle alone; null in a build without setups.
[[nodiscard]] const Corner* cornerOf(const Build& build, const Setup& setup, Axle axle);
[[nodiscard]] inline const Hub& hubOf(const Build& build, Axle axle) { return axle == Axle::Front ? build.frontHub : build.rearHub; }

} // namespace deepstop
