#pragma once
/// The car without its brakes: what decides how hard it can stop, from the foot to the lines, what it carries and is asked to do, and its
/// hubs. Plain values, all SI.

#include "build/compiled_once.hpp"
#include "build/element_id.hpp"
#include "quantity/reading.hpp"

#include <string>
#include <vector>

namespace deepstop {

/// A count that is not given. A count of 0 means there are none.
inline constexpr int notCounted = -1;

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
    Fact<YesNo> antilock = YesNo::Unknown;
    Reading testSpeed; ///< the speed the comparison stops from
    std::string duty; ///< id of the duty its brakes are judged by; empty: the first of the build's
    DEEPSTOP_COMPILED_ONCE(Car)
};

enum class Booster { Unknown, None, Vacuum, Electric };
/// One cylinder with two chambers in a row, or two side by side under a balance bar.
enum class MasterKind { Unknown, Tandem, Twin };
enum class Circuits { Unknown, FrontAndRear, Diagonal };
/// Classes of brake fluid by FMVSS 116.
enum class FluidClass { Unknown, Dot3, Dot4, Dot51 };
/// What holds the rear pressure back.
enum class ValveKind { Unknown, None, Fixed, Adjustable, LoadDependent };

/// Pump with the engine off, hold, start it: a booster with vacuum lets the pedal sink.
enum class BoosterTest { Unknown, Sinks, Stays };

/// From the foot to the line pressure. Belongs to a setup; one that brings none of its own runs the car's as found.
struct Hydraulics {
    Reading pedalForce; ///< as hard as this driver brakes on purpose
    Reading pedalRatio;
    Reading freePlay; ///< at the pedal, before the push rod moves
    Fact<Booster> booster = Booster::Unknown;
    Reading boosterGain;
    Fact<BoosterTest> boosterTest = BoosterTest::Unknown;
    Reading boosterKnee; ///< its output force where it runs out and only follows the foot; absent: common practice stands in
    Fact<MasterKind> master = MasterKind::Unknown;
    Reading masterBore; ///< of twins the front one
    Reading rearMasterBore; ///< of twins
    Reading barPosition; ///< part of the push rod's force that the balance bar gives to the front cylinder
    Reading masterStroke; ///< of the push rod, both chambers of a tandem used up
    Reading frontStroke; ///< part of that stroke which a tandem's front (or first) circuit has
    Fact<Circuits> circuits = Circuits::Unknown;
    Reading linePressure; ///< front, measured at that pedal force; outranks what foot, pedal, booster and bore would make
    Fact<ValveKind> valve = ValveKind::Unknown;
    Reading rearKneePressure; ///< of the proportioning valve
    Reading rearSlope; ///< rear pressure gained per front pressure above the knee
    Reading kneePerLoad; ///< of a load-dependent valve: knee gained per force on the rear axle beyond that with the driver alone, 1/m²
    Reading meteringPressure; ///< below which a metering valve keeps pressure from the front brakes; absent = none
    Reading residualFront; ///< that a residual-pressure valve keeps in the front line; absent = none
    Reading residualRear;
    Reading buildUpTime; ///< from touching the pedal to full deceleration
    Reading reservoir; ///< fluid between its two marks
    Fact<FluidClass> fluid = FluidClass::Unknown;
    Reading fluidAge; ///< since it was filled in, s
    Reading dryBoiling; ///< of fresh fluid as its maker gives it; absent: the least its class allows
    Reading wetBoiling; ///< of fluid that has taken up water
    DEEPSTOP_COMPILED_ONCE(Hydraulics)
};

/// Something carried, or a passenger; less than nothing for fuel that is used up.
struct Carried {
    std::string what;
    Reading mass;
    Reading behindFrontAxle; ///< negative ahead of it
    Reading height; ///< over the road
    ElementId id {};
    bool operator==(const Carried&) const = default;
};

/// One stretch of a duty: from one speed to another at a steady rate.
struct Leg {
    Reading from; ///< absent = where the one before it ended
    Reading to;
    Reading time;
    Reading slope; ///< of the road, falling positive; absent = level
    Fact<YesNo> braking = YesNo::Unknown; ///< not said: where it slows
    ElementId id {};
    bool operator==(const Leg&) const = default;
};

/// What the brakes are asked to do: legs, all of them so often over.
struct DutyPlan {
    std::string id;
    std::string name;
    Fact<int> repeats = notCounted; ///< then once
    std::string load; ///< id of the load case it is driven with; empty: the driver alone
    Reading towed; ///< mass of a trailer without brakes of its own; absent = none
    Reading engineBraking; ///< deceleration by engine and gears while coasting and braking; absent = none
    std::vector<Leg> legs;
    bool operator==(const DutyPlan&) const = default;
};

/// The car otherwise laden than with its driver alone.
struct LoadCase {
    std::string name; ///< "full"
    std::vector<Carried> carried;
    ElementId id {};
    bool operator==(const LoadCase&) const = default;
};

enum class ParkingBrake { Unknown, None, DrumInHat, InCaliper, InDrum };

/// How a wheel nut or bolt bears on the wheel; both must be alike.
enum class NutSeat { Unknown, Cone, Ball, Flat };
/// What holds the wheel on the hub. With one nut on the hub: `studLength` and `studThread` are of its threaded snout.
enum class WheelHeldBy { Unknown, Studs, Bolts, CentreLock, KnockOff };
/// Whether a nut is closed at its end, so that a long stud bottoms in it.
enum class NutEnd { Unknown, Open, Closed };

enum class KeepOutKind { Unknown, Knuckle, BallJoint, Hose, HubCorner, HoseBoss, Other };

/// A place beside the rotor and inside the wheel that what turns must not reach: it stands still with the hub.
struct KeepOut {
    Fact<KeepOutKind> kind = KeepOutKind::Unknown;
    std::string name; ///< "hose at droop, full left lock"
    Reading depth; ///< inboard of the hub's flange face
    Reading radius; ///< from the axis
    Reading clock; ///< where it stands round the axle, as a caliper's mount; absent: it may stand anywhere
    ElementId id {};
    bool operator==(const KeepOut&) const = default;
};

/// The hub the rotor and the wheel sit on, and the knuckle that carries the caliper.
struct Hub {
    Reading flangeDiameter;
    Reading pilotDiameter;
    Reading pilotHeight; ///< from the flange face outboard
    Reading boltCircle;
    Fact<int> studCount = notCounted;
    Reading studLength; ///< outboard of the flange face
    Reading studDiameter;
    Fact<WheelHeldBy> heldBy = WheelHeldBy::Unknown;
    Fact<std::string> studThread; ///< "M12x1.5"; of the studs, or of the wheel bolts
    Reading nutThread; ///< length of full thread in a wheel nut
    Fact<NutEnd> nutEnd = NutEnd::Unknown;
    Reading nutDepth; ///< of a closed nut: from its seat's near end to the bottom, where the stud would strike
    Fact<NutSeat> nutSeat = NutSeat::Unknown; ///< of the nuts, or of the wheel bolts
    Reading seatAngle; ///< of a cone, whole angle, rad
    Reading seatRadius; ///< of a ball
    Reading wheelBoltLength; ///< under its seat, to its end
    Reading hubThread; ///< thread in the hub's flange that a wheel bolt can use, from its face
    Reading behindFlange; ///< beyond that thread until a wheel bolt's end strikes something
    Reading pinLength; ///< of a centre-lock hub's drive pins, outboard of the flange face
    Fact<YesNo> nutLocked = YesNo::Unknown; ///< a pin, clip or wire keeps the centre nut from turning
    Reading pilotChamfer; ///< at the pilot's end, where it carries nothing
    Reading lugSpacing; ///< of the knuckle's two lugs, hole to hole
    Reading lugRadius; ///< from the axis to the middle between the two holes
    Reading lugDepth; ///< of the lugs' mounting face inboard of the hub's flange face
    Reading lugThickness;
    Reading lugEdge; ///< from a hole's middle to the nearest edge of its lug
    Fact<std::string> lugThread; ///< "M12x1.5"; as cut in the lugs, or of the bolts that go through them
    Fact<std::string> lineThread; ///< where the hose meets the hard line
    Reading hoseReach; ///< hose length that reaches at droop and full lock
    Fact<ParkingBrake> parkingBrake = ParkingBrake::Unknown;
    Reading shoeDiameter; ///< drum the parking brake's shoes are made for
    Reading scrubRadius; ///< as found; the tyre's middle outboard of where the steering axis meets the road
    Reading fenderRoom; ///< tyre to fender where they come nearest, as found
    Reading innerRoom; ///< tyre or rim to strut or arm where they come nearest, as found
    Reading shieldDiameter; ///< of the dust shield, over its rim
    Reading shieldDepth; ///< its plate inboard of the hub's flange face
    Reading shieldRim; ///< how far its rim stands outboard of its plate
    Reading shieldRib; ///< how far a rib or bead inside the rim stands outboard of the plate
    Reading cableEnd; ///< width of the fitting at the parking cable's end
    Reading cableFree; ///< of the cable out of its sleeve, parking brake off
    Reading cableTravel; ///< that the hand lever or motor gives it
    Fact<std::string> parkingConnector; ///< of the car's loom, for a motor on the caliper
    Fact<YesNo> electricParking = YesNo::Unknown; ///< a motor works the parking brake
    Fact<YesNo> speedSensor = YesNo::Unknown; ///< a wheel-speed sensor's wire runs to the knuckle
    Fact<YesNo> shieldInTheWay = YesNo::Unknown; ///< with the shield as it is, rotor or bracket do not go on at all
    std::vector<KeepOut> keepOuts;
    std::string scan; ///< file its lugs were read from, beside the build
    std::string scanHash; ///< SHA-256 of that file, in hexadecimal
    DEEPSTOP_COMPILED_ONCE(Hub)
};

} // namespace deepstop
