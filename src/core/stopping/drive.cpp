#include "stopping/drive.hpp"

#include "materials/materials.hpp"
#include "quantity/unit.hpp"

#include <boost/numeric/odeint.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>

namespace deepstop::stopping {
namespace {

constexpr double unstopped = std::numeric_limits<double>::quiet_NaN();
constexpr double atOnce = 0.005; // s of pitch time
/// Distance, time or speed, and the deceleration the loads have come to.
using DriveState = std::array<double, 3>;

/// Of an axle's tyres under a load, by the load they have at rest.
double gripUnder(double grip, double load, double atRest, double fall)
{
    if (!(load > 0) || !(atRest > 0))
        return 0;
    return grip * std::max(0.1, 1 - fall * std::log2(load / atRest));
}

/// Front pressure at which the rear brakes make a force.
double pressureForRear(const Brakes& b, double force, double perRearPressure)
{
    const double rear = force / perRearPressure;
    if (rear <= b.kneePressure)
        return rear / b.rearOverFront;
    return b.slope > 0 ? (b.kneePressure + (rear - b.kneePressure) / b.slope) / b.rearOverFront : std::numeric_limits<double>::infinity();
}

struct Model {
    const Car& car;
    Brakes brakes; ///< with friction as hot as it is
    const Circumstances& how;

    [[nodiscard]] double others(double speed) const
    {
        const double air = speed + how.headwind;
        return materials::airDensity * car.dragArea / 2 * air * std::abs(air) / car.mass
            + standardGravity * (how.rolling * std::sqrt(std::max(0.0, 1 - how.slope * how.slope)) - how.slope);
    }
    [[nodiscard]] Held held(double pressure, double shift) const { return heldAt(car, brakes, how, pressure, shift); }
    /// Deceleration by the brakes, m/s².
    [[nodiscard]] double braking(double pressure, double shift) const { return held(pressure, shift).force.sum() / car.mass; }
    /// Where loads follow at once, the deceleration they come to is that which they allow: it falls against itself, and is bracketed.
    [[nodiscard]] double shiftOf(double pressure) const
    {
        double low = 0;
        double high = 8;
        constexpr int halvings = 60;
        for (int i = 0; i < halvings; ++i) {
            const double middle = (low + high) / 2;
            (braking(pressure, middle) / standardGravity > middle ? low : high) = middle;
        }
        return (low + high) / 2;
    }
};

} // namespace

std::string_view nameOf(Hold hold)
{
    switch (hold) {
    case Hold::Foot:
        return "the foot, still pressing";
    case Hold::Effort:
        return "the foot's force";
    case Hold::Fade:
        return "faded pads";
    case Hold::Tyres:
        return "the tyres";
    case Hold::FrontTyres:
        return "the front tyres";
    case Hold::RearTyres:
        return "the rear tyres";
    }
    return "";
}

Held heldAt(const Car& car, const Brakes& brakes, const Circumstances& how, double pressure, double shift)
{
    const AxleForces rest = axleLoads(car, 0);
    const AxleForces load = axleLoads(car, shift);
    const double quality = how.grip * (how.antilock ? how.antilockQuality : 1);
    const double front = gripUnder(brakes.front.grip, load.front, rest.front, how.gripFall) * quality * load.front;
    const double rear = gripUnder(brakes.rear.grip, load.rear, rest.rear, how.gripFall) * quality * load.rear;
    const AxleForces pressed = brakeForces(brakes, pressure);
    const bool frontSlips = pressed.front > front;
    const bool rearSlips = pressed.rear > rear;
    const bool all = pressure >= how.fullPressure;
    const bool faded = std::min(how.frontFriction, how.rearFriction) < 0.9;
    const Hold foot = !all ? Hold::Foot : faded ? Hold::Fade : Hold::Effort;
    if (!frontSlips && !rearSlips)
        return { pressed, foot };
    if (how.antilock) {
        const AxleForces kept { std::min(pressed.front, front), std::min(pressed.rear, rear) };
        return { kept, frontSlips && rearSlips ? Hold::Tyres : frontSlips ? Hold::FrontTyres : Hold::RearTyres };
    }
    // The driver eases off to where the first axle just holds.
    const double atFront = frontSlips ? pressure * front / pressed.front : std::numeric_limits<double>::infinity();
    const AxleForces one = brakeForces(brakes, 1e5);
    const double perRear = one.rear / brakes.rearPressure(1e5);
    const double atRear = rearSlips ? pressureForRear(brakes, rear, perRear) : std::numeric_limits<double>::infinity();
    const AxleForces kept = brakeForces(brakes, std::min(atFront, atRear));
    constexpr double alike = 0.995;
    const bool both = std::min(kept.front / front, kept.rear / std::max(rear, 1e-9)) > alike;
    return { kept, both ? Hold::Tyres : atFront <= atRear ? Hold::FrontTyres : Hold::RearTyres };
}

Drive drive(const Car& car, const Brakes& given, const Circumstances& how, double speed, bool withCourse, double tolerance)
{
    Drive result;
    result.distance = result.duration = result.meanDeceleration = unstopped;
    const double numbers = car.mass + car.wheelbase + car.centreOfMassHeight + car.frontLoadShare + car.dragArea + how.fullPressure
        + how.buildUp + how.pitchTime + how.gripFall + how.grip + how.rolling + how.slope + how.headwind + how.frontFriction
        + how.rearFriction + given.front.grip + given.rear.grip + given.front.brakeFactor + given.rear.brakeFactor + speed;
    if (!std::isfinite(numbers) || !(car.mass > 0) || !(car.wheelbase > 0) || !(speed >= 0.1 && speed <= 150) || how.buildUp < 0
        || how.buildUp > 10 || how.pitchTime < 0 || how.pitchTime > 5 || !(how.fullPressure > 0) || std::abs(how.slope) >= 1)
        return result;
    Model model { car, given, how };
    model.brakes.front.brakeFactor *= how.frontFriction;
    model.brakes.rear.brakeFactor *= how.rearFriction;
    const bool lag = how.pitchTime > atOnce;
    const auto pressureAt = [&](double time) {
        return how.buildUp > 0 ? how.fullPressure * std::clamp(time / how.buildUp, 0.0, 1.0) : how.fullPressure;
    };
    std::map<Hold, double> shed; // speed, by what held it
    const auto note = [&](double v, double x, double t, double pressure, double shift) {
        if (withCourse) {
            const Held held = model.held(pressure, shift);
            result.course.push_back({ v, x, t, held.force.sum() / car.mass + model.others(v), held.hold });
        }
    };
    namespace odeint = boost::numeric::odeint;
    const auto stepper = [tolerance] { return odeint::make_controlled(tolerance, tolerance, odeint::runge_kutta_dopri5<DriveState>()); };

    // While the foot presses harder: speed, distance and shift over time, in pieces short enough that none runs past standstill unseen.
    DriveState x { speed, 0, 0 };
    double clock = 0;
    note(speed, 0, 0, pressureAt(0), 0);
    if (how.buildUp > 0) {
        constexpr int pieces = 5;
        const double piece = how.buildUp / pieces;
        const auto system = [&](const DriveState& s, DriveState& rate, double time) {
            const double shift = lag ? s[2] : model.shiftOf(pressureAt(time));
            const double braking = model.braking(pressureAt(time), shift);
            rate = { -(braking + model.others(s[0])), s[0], lag ? (braking / standardGravity - s[2]) / how.pitchTime : 0 };
        };
        for (int i = 0; i < pieces; ++i) {
            const DriveState before = x;
            odeint::integrate_adaptive(stepper(), system, x, clock, clock + piece, piece / 2);
            if (x[0] <= 0) {
                // Standstill within the piece: its rate is nearly steady there.
                const double part = before[0] / (before[0] - x[0]);
                result.duration = clock + part * piece;
                result.distance = before[1] + before[0] * part * piece / 2;
                result.meanDeceleration = speed * speed / (2 * result.distance);
                note(0, result.distance, result.duration, pressureAt(result.duration), x[2]);
                return result;
            }
            clock += piece;
            if (!lag)
                x[2] = model.shiftOf(pressureAt(clock));
            note(x[0], x[1], clock, pressureAt(clock), x[2]);
        }
    }
    // Then speed is the clock: distance, time and shift over the speed shed.
    const double from = x[0];
    DriveState y { x[1], clock, lag ? x[2] : model.shiftOf(how.fullPressure) };
    const double least = 0.05; // m/s², under which no driver would call it a stop
    bool stops = true;
    const auto system = [&](const DriveState& s, DriveState& rate, double lost) {
        const double v = from - lost;
        const double braking = model.braking(how.fullPressure, s[2]);
        // A step that is tried and taken back may look far off: only where it arrives counts, below.
        const double slow = std::max(braking + model.others(v), least);
        rate = { v / slow, 1 / slow, lag ? (braking / standardGravity - s[2]) / how.pitchTime / slow : 0 };
    };
    const auto arrived = [&](const DriveState& s, double lost) {
        stops = stops && model.braking(how.fullPressure, s[2]) + model.others(from - lost) > least;
    };
    constexpr int pieces = 24;
    const double piece = from / pieces;
    for (int i = 0; i < pieces && stops; ++i) {
        if (withCourse || i + 1 == pieces || i == 0) {
            const Hold hold = model.held(how.fullPressure, y[2]).hold;
            shed[hold] += piece;
        }
        if (withCourse) {
            odeint::integrate_adaptive(stepper(), system, y, i * piece, (i + 1) * piece, piece / 2, arrived);
            note(from - (i + 1) * piece, y[0], y[1], how.fullPressure, y[2]);
        }
    }
    if (!withCourse)
        odeint::integrate_adaptive(stepper(), system, y, 0.0, from, from / 20, arrived);
    if (!stops || !std::isfinite(y[0]))
        return result;
    result.distance = y[0];
    result.duration = y[1];
    result.meanDeceleration = speed * speed / (2 * result.distance);
    for (const auto& [hold, lost] : shed)
        if (!shed.contains(result.longest) || lost > shed[result.longest])
            result.longest = hold;
    if (!withCourse)
        result.longest = model.held(how.fullPressure, y[2]).hold;
    return result;
}

} // namespace deepstop::stopping
