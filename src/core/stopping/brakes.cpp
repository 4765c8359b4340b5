#include "language/language.hpp"
#include "stopping/stopping.hpp"

#include "quantity/unit.hpp"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::stopping {
namespace {

constexpr double impossible = std::numeric_limits<double>::quiet_NaN();

/// The root of a rising or falling function between `low` and `high` (Alefeld, Potra and Shi, TOMS 748); `impossible` where they do not
/// bracket it.
template <class F>
double root(F f, double low, double high)
{
    if (!(f(low) * f(high) <= 0))
        return impossible;
    std::uintmax_t rounds = 100;
    const auto [a, b] = boost::math::tools::toms748_solve(f, low, high, boost::math::tools::eps_tolerance<double>(48), rounds);
    return (a + b) / 2;
}

/// Each axle gives what its brakes press or its load holds, whichever is less.
AxleForces gripped(const Car& car, AxleForces grip, AxleForces pressed, double z)
{
    const AxleForces load = axleLoads(car, z);
    return { std::min(pressed.front, grip.front * load.front), std::min(pressed.rear, grip.rear * load.rear) };
}

/// Rises through zero at the pressure at which an axle just locks: its force less the grip its load then has.
double excess(const Car& car, const Brakes& brakes, double pressure, bool front)
{
    const AxleForces pressed = brakeForces(brakes, pressure);
    const AxleForces load = axleLoads(car, pressed.sum() / (car.mass * standardGravity));
    return front ? pressed.front - brakes.front.grip * load.front : pressed.rear - brakes.rear.grip * load.rear;
}

/// Where the excess, going on as straight as it begins at `low`, is nothing; or the root where it does not: a lifted rear bends it.
double crossing(const Car& car, const Brakes& brakes, double low, double high, bool front)
{
    constexpr double step = 1e5;
    const double before = excess(car, brakes, low, front);
    const double grows = excess(car, brakes, low + step, front) - before;
    const double straight = low - before * step / grows;
    if (straight >= low && straight <= high && std::abs(excess(car, brakes, straight, front)) <= 1e-12 * (std::abs(before) + car.mass))
        return straight;
    return root([&](double p) { return excess(car, brakes, p, front); }, low, high);
}

/// Where it does, up to `most`; infinite where it does not.
double locksAt(const Car& car, const Brakes& brakes, double most, bool front)
{
    if (excess(car, brakes, most, front) <= 0)
        return std::numeric_limits<double>::infinity();
    // On either side of the valve's knee the forces are straight lines.
    const double knee = std::min(brakes.kneeAtFront(), most);
    const bool below = excess(car, brakes, knee, front) > 0;
    return below ? crossing(car, brakes, 0, knee, front) : crossing(car, brakes, knee, most, front);
}

bool makesSense(const Car& car, const Brakes& brakes, const AxleForces& full)
{
    return full.front > 0 && full.rear >= 0 && car.mass > 0 && brakes.front.grip > 0 && brakes.rear.grip > 0 && car.wheelbase > 0
        && std::isfinite(car.centreOfMassHeight) && std::isfinite(car.frontLoadShare);
}

} // namespace

EffectiveRadius effectiveRadius(double rotorDiameter, double padHeight, double inset)
{
    const double outer = rotorDiameter / 2 - inset;
    const double inner = outer - padHeight;
    if (!(inner > 0 && padHeight > 0))
        return { impossible, impossible };
    return { (outer + inner) / 2, 2.0 / 3 * (std::pow(outer, 3) - std::pow(inner, 3)) / (outer * outer - inner * inner) };
}

double pistonAreaOneSide(std::span<const double> bores)
{
    double area = 0;
    for (const double bore : bores)
        area += std::numbers::pi / 4 * bore * bore;
    return area;
}

double linePressure(double pedalForce, double pedalRatio, double boosterGain, double masterBore)
{
    return pedalForce * pedalRatio * boosterGain / (std::numbers::pi / 4 * masterBore * masterBore);
}

double brakeTorque(const AxleBrakes& axle, double pressure) { return axle.brakeFactor * pressure * axle.pistonArea * axle.effectiveRadius; }

double Brakes::rearPressure(double pressure) const
{
    const double comes = rearOverFront * pressure;
    return comes <= kneePressure ? comes : kneePressure + slope * (comes - kneePressure);
}

AxleForces brakeForces(const Brakes& brakes, double pressure)
{
    return { 2 * brakeTorque(brakes.front, pressure) / brakes.front.tyreRadius,
        2 * brakeTorque(brakes.rear, brakes.rearPressure(pressure)) / brakes.rear.tyreRadius };
}

AxleForces axleLoads(const Car& car, double z)
{
    const double weight = car.mass * standardGravity;
    const double front = std::clamp(car.frontLoadShare + z * car.centreOfMassHeight / car.wheelbase, 0.0, 1.0) * weight;
    return { front, weight - front };
}

std::string_view nameOf(Limit limit)
{
    switch (limit) {
    case Limit::Pedal:
        return marked("pedal force");
    case Limit::Tyres:
        return marked("tyres");
    case Limit::FrontLocks:
        return marked("front tyres");
    case Limit::RearLocks:
        return marked("rear tyres");
    }
    return "";
}

LockPressures lockPressures(const Car& car, const Brakes& brakes, double fullPressure)
{
    if (!makesSense(car, brakes, brakeForces(brakes, fullPressure)))
        return { impossible, impossible };
    return { locksAt(car, brakes, 10 * fullPressure, true), locksAt(car, brakes, 10 * fullPressure, false) };
}

Braking hardestBraking(const Car& car, const Brakes& brakes, double fullPressure, bool antilock, double antilockQuality)
{
    const AxleForces full = brakeForces(brakes, fullPressure);
    const double weight = car.mass * standardGravity;
    if (!makesSense(car, brakes, full) || !(antilockQuality > 0 && antilockQuality <= 1))
        return { impossible, impossible, impossible, impossible, impossible, Limit::Pedal };
    const AxleForces most { brakes.front.grip, brakes.rear.grip };

    Braking result {};
    AxleForces forces {};
    double z = 0;
    const AxleForces held { antilockQuality * most.front, antilockQuality * most.rear };
    const bool releases = antilock && [&] {
        const AxleForces load = axleLoads(car, full.sum() / weight);
        return full.front > held.front * load.front || full.rear > held.rear * load.rear;
    }();
    if (releases) {
        // The forces at the deceleration they cause; they fall short of it at the largest z and exceed it at none.
        z = root([&](double trial) { return gripped(car, held, full, trial).sum() / weight - trial; }, 0.0, full.sum() / weight + 1e-9);
        forces = gripped(car, held, full, z);
        const AxleForces load = axleLoads(car, z);
        const bool both = full.front >= held.front * load.front && full.rear >= held.rear * load.rear;
        result.limit = both ? Limit::Tyres : full.front >= held.front * load.front ? Limit::FrontLocks : Limit::RearLocks;
        result.pressure = fullPressure;
    } else {
        const double frontLocks = locksAt(car, brakes, fullPressure, true);
        const double rearLocks = locksAt(car, brakes, fullPressure, false);
        result.pressure = std::min({ fullPressure, frontLocks, rearLocks });
        forces = brakeForces(brakes, result.pressure);
        z = forces.sum() / weight;
        // Both axles at their limit within a hundredth: nothing is left to gain by balance.
        const AxleForces load = axleLoads(car, z);
        const bool frontFull = forces.front >= 0.99 * most.front * load.front;
        const bool rearFull = forces.rear >= 0.99 * most.rear * load.rear;
        result.limit = std::min(frontLocks, rearLocks) >= fullPressure ? Limit::Pedal
            : frontFull && rearFull                                    ? Limit::Tyres
            : frontLocks < rearLocks                                   ? Limit::FrontLocks
                                                                       : Limit::RearLocks;
    }
    const AxleForces load = axleLoads(car, z);
    result.deceleration = z;
    result.frontShare = forces.front / forces.sum();
    result.frontUse = load.front > 0 ? forces.front / (most.front * load.front) : 0;
    result.rearUse = load.rear > 0 ? forces.rear / (most.rear * load.rear) : 0;
    return result;
}

} // namespace deepstop::stopping
