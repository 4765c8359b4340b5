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

/// The hub the rotor and the wheel sit on.
struct Hub {
    Reading flangeDiameter;
    Reading pilotDiameter;
    Reading pilotHeight; ///< from the flange face outboard
    Reading boltCircle;
    int studCount = 0;
    Reading studLength; ///< outboard of the flange face
    Reading studDiameter;
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

struct Rotor {
    std::string name;
    RotorFace face = RotorFace::Plain;
    HatMaterial hatMaterial = HatMaterial::Iron;
    Reading outerDiameter;
    Reading thickness;
    Reading ringInnerDiameter;
    Reading overallHeight; ///< from the hat's wheel face to the inboard friction face
    Reading hatThickness; ///< what lies between hub flange and wheel
    Reading hatOuterDiameter;
    Reading hatWall;
    Reading bore;
    Reading ventGap; ///< air between the two plates; 0 for a solid rotor
    Reading vaneShare; ///< part of that air filled by vanes
    bool operator==(const Rotor&) const = default;
};

enum class CaliperKind { Fixed, Floating };

/// Heights are taken from the rotor's edge and depths from the middle of the slot, as a vernier takes them on a mounted caliper.
struct Caliper {
    std::string name;
    CaliperKind kind = CaliperKind::Fixed;
    Reading backOverEdge; ///< flat back of the bridge above the rotor's edge, at its middle
    Reading backLength; ///< of the straight back, end to end
    Reading bridgeGap; ///< underside of the bridge above the rotor's edge
    Reading reach; ///< how far the body reaches inward of the rotor's edge
    Reading outboardDepth; ///< slot's middle to the outboard face
    Reading inboardDepth; ///< slot's middle to the inboard face
    Reading shoulder; ///< chamfer between back and faces, same both ways
    Reading slotWidth; ///< between the halves, pads out
    std::vector<Reading> pistons; ///< bores on one side
    bool operator==(const Caliper&) const = default;
};

struct Pad {
    std::string name;
    Reading height; ///< radial
    Reading length;
    Reading thickness; ///< friction material
    Reading backing;
    Reading friction; ///< coefficient against iron, warm
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

/// What belongs to a complete corner, so that like is compared with like.
enum class Part { Rotor, Caliper, Pads, Bracket, Hose };

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
    Reading ring; ///< between hub flange and rotor; absent = none
    Reading spacer; ///< between rotor and wheel; absent = none
    std::vector<Weighing> weighings;
    bool operator==(const Corner&) const = default;
};

/// One way to equip the car. An axle left out is as in the first setup, the car as found.
struct Setup {
    std::string id;
    std::string name;
    std::string note;
    std::optional<Corner> front;
    std::optional<Corner> rear;
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
