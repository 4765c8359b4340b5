#include "stopping/balance.hpp"

#include "language/language.hpp"
#include "quantity/unit.hpp"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace deepstop::stopping {
namespace {

constexpr double notANumber = std::numeric_limits<double>::quiet_NaN();
constexpr double never = std::numeric_limits<double>::infinity();

double weightOf(const Car& car) { return car.mass * standardGravity; }

double useOf(double force, double load) { return load > 0 ? force / load : force > 0 ? never : 0; }

} // namespace

double idealFrontShare(const Car& car, double z)
{
    if (!(z >= 0 && car.wheelbase > 0 && car.centreOfMassHeight > 0 && car.frontLoadShare > 0 && car.frontLoadShare < 1))
        return notANumber;
    const double share = car.frontLoadShare + z * car.centreOfMassHeight / car.wheelbase;
    return share <= 1 ? share : notANumber;
}

std::vector<Split> idealLine(const Car& car, double most)
{
    constexpr int steps = 48;
    std::vector<Split> line;
    const double end = std::min(most, liftsAt(car));
    for (int i = 0; i <= steps; ++i) {
        const double z = end * i / steps;
        const double front = std::min(1.0, car.frontLoadShare + z * car.centreOfMassHeight / car.wheelbase);
        line.push_back({ z * front, z * (1 - front) });
    }
    return line;
}

std::vector<Split> frontLimit(const Car& car, double grip)
{
    const double lever = car.centreOfMassHeight / car.wheelbase;
    const auto at = [&](double rear) { return grip * (car.frontLoadShare + rear * lever) / (1 - grip * lever); };
    if (!(grip * lever < 1))
        return {};
    const double most = at(0);
    return { { at(0), 0 }, { at(most), most } };
}

std::vector<Split> rearLimit(const Car& car, double grip)
{
    const double lever = car.centreOfMassHeight / car.wheelbase;
    const double alone = grip * (1 - car.frontLoadShare) / (1 + grip * lever);
    return { { 0, alone }, { (1 - car.frontLoadShare) / lever, 0 } };
}

LockLimits lockLimits(const Car& car, double frontGrip, double rearGrip)
{
    constexpr double past = 1.02;
    const double meet = (frontGrip + rearGrip) / 2 * past;
    const double frontShare = idealFrontShare(car, std::min(meet, liftsAt(car) * 0.99));
    const auto cut = [](std::vector<Split> line, double span, double end) {
        if (line.size() == 2) {
            const double part = std::clamp(end / span, 0.0, 1.0);
            line[1] = { std::lerp(line[0].front, line[1].front, part), std::lerp(line[0].rear, line[1].rear, part) };
        }
        return line;
    };
    const auto front = frontLimit(car, frontGrip);
    const auto rear = rearLimit(car, rearGrip);
    return { cut(front, front.empty() ? 1 : front[1].rear - front[0].rear, meet * (1 - frontShare)),
        cut(rear, rear.empty() ? 1 : rear[1].front - rear[0].front, meet * frontShare) };
}

double liftsAt(const Car& car) { return (1 - car.frontLoadShare) * car.wheelbase / car.centreOfMassHeight; }

double pressureFor(const Car& car, const Brakes& brakes, double z)
{
    const double wanted = z * weightOf(car);
    const double knee = brakes.kneeAtFront();
    const double perPressure = brakeForces(brakes, std::min(1e5, knee)).sum() / std::min(1e5, knee);
    if (knee <= 0 || wanted > perPressure * knee) {
        const double atKnee = knee > 0 ? perPressure * knee : 0;
        const double beyond = brakeForces(brakes, std::max(knee, 0.0) + 1e5).sum() - atKnee;
        return std::max(knee, 0.0) + (wanted - atKnee) / beyond * 1e5;
    }
    return wanted / perPressure;
}

double usefulPressure(const Car& car, const Brakes& brakes)
{
    // Far beyond what any line holds, so that what is found is where it locks and not what the foot can do.
    constexpr double ample = 1e9;
    const LockPressures locks = lockPressures(car, brakes, ample);
    if (std::isnan(locks.front) || std::isnan(locks.rear))
        return notANumber;
    return std::min(locks.front, locks.rear);
}

double locksApart(const Car& car, const Brakes& brakes)
{
    // What is pressed does not matter, only in which order they lock.
    constexpr double ample = 1e9;
    const auto locks = lockPressures(car, brakes, ample);
    return std::isinf(locks.rear) ? 1 : std::isinf(locks.front) ? -1 : std::min(locks.rear / locks.front - 1, 1.0); // NaN stays NaN
}

Adhesion adhesion(const Car& car, const AxleForces& forces)
{
    const AxleForces load = axleLoads(car, forces.sum() / weightOf(car));
    return { useOf(forces.front, load.front), useOf(forces.rear, load.rear) };
}

std::string_view nameOf(First first)
{
    switch (first) {
    case First::Front:
        return marked("front");
    case First::Rear:
        return marked("rear");
    case First::Both:
        return marked("both");
    }
    return "";
}

LockOrder lockOrder(double b, double lever, double phi, double grip)
{
    if (!(b > 0 && b < 1 && lever > 0 && phi >= 0 && phi <= 1 && grip > 0))
        return { First::Both, notANumber, notANumber, notANumber };
    const double lift = (1 - b) / lever;
    // Past the lift the front carries all there is, and the rear, if it brakes at all, has locked long before.
    double front = phi > grip * lever ? grip * b / (phi - grip * lever) : never;
    if (phi > 0 && !(front <= lift))
        front = grip / phi;
    const double rear = phi < 1 ? grip * (1 - b) / (1 - phi + grip * lever) : never;
    const double z = std::min(front, rear);
    const First first = std::abs(front - rear) <= 1e-9 * z ? First::Both : front < rear ? First::Front : First::Rear;
    const double loadFront = std::min(1.0, b + z * lever);
    return { first, z, useOf(phi * z, loadFront) / grip, useOf((1 - phi) * z, 1 - loadFront) / grip };
}

Car laden(const Car& car, std::span<const PointLoad> carried)
{
    double mass = car.mass;
    double moment = car.mass * (1 - car.frontLoadShare) * car.wheelbase;
    double high = car.mass * car.centreOfMassHeight;
    for (const PointLoad& load : carried) {
        mass += load.mass;
        moment += load.mass * load.behindFrontAxle;
        high += load.mass * load.height;
    }
    const double share = 1 - moment / mass / car.wheelbase;
    if (!(mass > 0 && high > 0 && share > 0 && share < 1))
        return { notANumber, notANumber, notANumber, notANumber, notANumber };
    return { mass, car.wheelbase, high / mass, share, car.dragArea };
}

double decelerationOf(const Car& car, const Brakes& brakes, Circuit circuit, double pressure)
{
    const AxleForces all = brakeForces(brakes, pressure);
    const AxleForces pressed { circuit.front * all.front, circuit.rear * all.rear };
    const auto held = [&](double z) {
        const AxleForces load = axleLoads(car, z);
        return (std::min(pressed.front, circuit.front * brakes.front.grip * load.front)
                   + std::min(pressed.rear, circuit.rear * brakes.rear.grip * load.rear))
            / weightOf(car);
    };
    const double most = pressed.sum() / weightOf(car);
    if (!(most >= 0 && std::isfinite(most)))
        return notANumber;
    const double there = held(most);
    // Grip under nothing, or not said: it holds nothing that can be named.
    if (!std::isfinite(there) || !(held(0) >= 0))
        return notANumber;
    if (there >= most * (1 - 1e-12))
        return most;
    std::uintmax_t rounds = 100;
    const auto [low, high] = boost::math::tools::toms748_solve(
        [&](double z) { return held(z) - z; }, 0.0, most, boost::math::tools::eps_tolerance<double>(48), rounds);
    return (low + high) / 2;
}

RegulationLimits keptTo(const Car& car, const Brakes& brakes)
{
    // Between knee and ends adhesions bend so little that a dozen places hold every extreme within a thousandth.
    constexpr int steps = 12;
    const double atKnee = brakeForces(brakes, brakes.kneeAtFront()).sum() / weightOf(car);
    const auto useAt = [&](double z) { return adhesion(car, brakeForces(brakes, pressureFor(car, brakes, z))); };
    RegulationLimits kept { never, never };
    for (int i = 0; i <= steps + 1; ++i) {
        const double z = i > steps ? std::clamp(atKnee, yardstick::from, yardstick::to)
                                   : yardstick::from + (yardstick::to - yardstick::from) * i / steps;
        const Adhesion use = useAt(z);
        kept.frontOverRear = std::min(kept.frontOverRear, use.front - use.rear);
        if (std::isnan(use.front) || std::isnan(use.rear))
            return { notANumber, notANumber };
    }
    for (int i = 0; i <= steps + 1; ++i) {
        const double z = i > steps ? std::clamp(atKnee, 0.05, yardstick::to) : 0.05 + (yardstick::to - 0.05) * i / steps;
        const Adhesion use = useAt(z);
        const double k = std::max(use.front, use.rear);
        if (k >= 0.2 && k <= 0.8)
            kept.efficiency = std::min(kept.efficiency, z - yardstick::least(k));
    }
    return kept;
}

} // namespace deepstop::stopping
