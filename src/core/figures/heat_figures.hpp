#pragma once
/// Readings in, thermal models out: one wheel's brake as the network of heat has it, the car's duties, the fluid.

#include "build/build.hpp"
#include "heat/network.hpp"
#include "quantity/figure.hpp"
#include "stopping/balance.hpp"

namespace deepstop::figures {

/// One wheel's brake of an axle. What nobody measures of a brake (contacts, backings, caliper's surface) is common practice; what could
/// have been read and was not is said as assumed.
[[nodiscard]] heat::Brake thermalBrake(Evaluator& s, const SetupParts& setup, Axle axle);

/// Friction over the quoted one, by the surface's temperature in K: straight lines between points, level beyond their ends.
struct FrictionCurve {
    std::vector<std::pair<double, double>> points;
    [[nodiscard]] double at(double temperature) const;
    bool operator==(const FrictionCurve&) const = default;
};
/// Of an axle's pads or linings. Without a measured curve the friction is constant to 350 °C, then falls by a tenth in 50 K (common
/// practice, noted as an assumption); a measured curve falls at that rate after its last point.
[[nodiscard]] FrictionCurve frictionCurve(Evaluator& s, const Corner& corner);
/// Surface temperature at which friction is under a part of the quoted one: that of the first point where it never was over it.
[[nodiscard]] double fadesAt(const FrictionCurve& curve, double part);
/// To which temperature somebody has measured it, no two points more than 200 K apart (common practice), K; infinite for a curve that is
/// common practice alone.
[[nodiscard]] double measuredTo(Evaluator& s, const Corner& corner);

/// All that a run of a duty hangs on, in plain numbers: equal ones run alike.
struct ThermalCar {
    heat::Road road;
    heat::Brake front;
    heat::Brake rear;
    FrictionCurve frontFriction;
    FrictionCurve rearFriction;
    double ambient = 0;
    stopping::Car balance;
    stopping::Brakes brakes;
    double mostPressure = 0; ///< front, at the greatest effort of the foot, Pa; infinite where the foot is not known
    double grip = 0; ///< deceleration over g that its tyres make; infinite where not read
    bool operator==(const ThermalCar&) const;
};
[[nodiscard]] ThermalCar thermalCar(Evaluator& s, const Build& build, const SetupParts& setup);
/// The same as the network runs it: the front's share from the balance, at the pressure that makes the force.
[[nodiscard]] heat::Car runnable(const ThermalCar& car);
/// Front pressure that makes a force on the road with friction as it then is; infinite where none does.
[[nodiscard]] double pressureFor(const ThermalCar& car, double force, double frontFriction, double rearFriction);

/// Of all linings of one wheel: both pads, or both shoes.
[[nodiscard]] double liningArea(Evaluator& s, const Corner& corner);

/// With the load and the trailer it is driven with. NaN for a load case that the build has not.
[[nodiscard]] heat::Duty dutyOf(Evaluator& s, const Build& build, const DutyPlan& plan);
/// Part by which the heat of a duty may be off for the widths of its own readings: speeds and times of its legs, what it carries.
[[nodiscard]] double unsureShareOf(const Build& build, const DutyPlan& plan);
/// The duty a build's brakes are judged by: the one it names, or the first. Null where there is no duty, or not the one that is named.
[[nodiscard]] const DutyPlan* judgedDuty(const Build& build);

/// Age of the fluid on the last day that log and tests tell of, s: what was read, and the time since; or since the last change in the log,
/// where that is later. NaN where neither is known.
[[nodiscard]] double fluidAge(Evaluator& s, const Build& build, const Hydraulics& hydraulics);
/// Boiling point of the fluid as old as that, K: from dry to wet in two years, then a tenth of that fall more a year, at most half of it
/// (common practice; water comes in through the hoses). FMVSS 116 has at least 205/140, 230/155 and 260/180 °C for DOT 3, 4 and 5.1. NaN
/// where class or age was not said.
[[nodiscard]] double fluidBoils(Evaluator& s, const Build& build, const Hydraulics& hydraulics);

} // namespace deepstop::figures
