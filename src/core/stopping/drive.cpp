#include "stopping/drive.hpp"

#include "language/language.hpp"
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
        return marked("the foot, still pressing");
    case Hold::Effort:
        return marked("the foot's force");
    case Hold::Fade:
        return marked("faded pads");
    case Hold::Tyres:
        return marked("the tyres");
    case Hold::FrontTyres:
        return marked("the front tyres");
    case Hold::RearTyres:
        return marked("the rear tyres");
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

namespace {

/// Whether a stop of these numbers can be worked out.
bool makesSense(const Car& car, const Brakes& brakes, const Circumstances& how, double speed)
{
    const double numbers = car.mass + car.wheelbase + car.centreOfMassHeight + car.frontLoadShare + car.dragArea + how.fullPressure
        + how.buildUp + how.pitchTime + how.gripFall + how.grip + how.rolling + how.slope + how.headwind + how.frontFriction
        + how.rearFriction + brakes.front.grip + brakes.rear.grip + brakes.front.brakeFactor + brakes.rear.brakeFactor + speed;
    return std::isfinite(numbers) && car.mass > 0 && car.wheelbase > 0 && speed >= 0.1 && speed <= 150 && how.buildUp >= 0
        && how.buildUp <= 10 && how.pitchTime >= 0 && how.pitchTime <= 5 && how.fullPressure > 0 && std::abs(how.slope) < 1;
}

/// One stop on its way.
class Stopping {
public:
    Stopping(const Car& car, const Brakes& brakes, const Circumstances& how, double speed, bool withCourse, double tolerance)
        : model_ { car, brakes, how }, how_(how), speed_(speed), withCourse_(withCourse), tolerance_(tolerance), x_ { speed, 0, 0 }
    {
        model_.brakes.front.brakeFactor *= how.frontFriction;
        model_.brakes.rear.brakeFactor *= how.rearFriction;
        result_.distance = result_.duration = result_.meanDeceleration = unstopped;
    }

    StopSimulation driven()
    {
        note(speed_, 0, 0, pressureAt(0), 0);
        if (!pressesHarder())
            pressesAll();
        return std::move(result_);
    }

private:
    [[nodiscard]] double pressureAt(double time) const
    {
        return how_.buildUp > 0 ? how_.fullPressure * std::clamp(time / how_.buildUp, 0.0, 1.0) : how_.fullPressure;
    }
    void note(double v, double x, double t, double pressure, double shift)
    {
        if (!withCourse_)
            return;
        const Held held = model_.held(pressure, shift);
        result_.course.push_back({ v, x, t, held.force.sum() / model_.car.mass + model_.others(v), held.hold });
    }
    void stopped(double distance, double duration)
    {
        result_.distance = distance;
        result_.duration = duration;
        result_.meanDeceleration = speed_ * speed_ / (2 * distance);
    }
    void integrate(auto system, DriveState& state, double from, double to, double step, auto arrived) const
    {
        namespace odeint = boost::numeric::odeint;
        odeint::integrate_adaptive(odeint::make_controlled(tolerance_, tolerance_, odeint::runge_kutta_dopri5<DriveState>()), system, state,
            from, to, step, arrived);
    }
    /// No brake and no slope takes more speed than this while the foot presses harder.
    [[nodiscard]] double mostShed() const
    {
        const double most = brakeForces(model_.brakes, how_.fullPressure).sum() / model_.car.mass
            + model_.others(speed_ + std::abs(how_.headwind)) + standardGravity * std::abs(how_.slope);
        return most * how_.buildUp;
    }

    /// While the foot presses harder: speed, distance and shift over time, in pieces short enough that none runs past standstill unseen.
    /// True where it stops within that time.
    bool pressesHarder()
    {
        if (!(how_.buildUp > 0))
            return false;
        const int pieces = withCourse_ || !(mostShed() < speed_ / 2) ? 5 : 1;
        const double piece = how_.buildUp / pieces;
        const auto system = [&](const DriveState& s, DriveState& rate, double time) {
            const double shift = lag_ ? s[2] : model_.shiftOf(pressureAt(time));
            const double braking = model_.braking(pressureAt(time), shift);
            rate = { -(braking + model_.others(s[0])), s[0], lag_ ? (braking / standardGravity - s[2]) / how_.pitchTime : 0 };
        };
        for (int i = 0; i < pieces; ++i) {
            const DriveState before = x_;
            integrate(system, x_, clock_, clock_ + piece, how_.buildUp / 10, [](const DriveState&, double) {});
            if (x_[0] <= 0) {
                // Standstill within the piece: its rate is nearly steady there.
                const double part = before[0] / (before[0] - x_[0]);
                stopped(before[1] + before[0] * part * piece / 2, clock_ + part * piece);
                note(0, result_.distance, result_.duration, pressureAt(result_.duration), x_[2]);
                return true;
            }
            clock_ += piece;
            if (!lag_)
                x_[2] = model_.shiftOf(pressureAt(clock_));
            note(x_[0], x_[1], clock_, pressureAt(clock_), x_[2]);
        }
        return false;
    }

    /// Then speed is the clock: distance, time and shift over the speed shed.
    void pressesAll()
    {
        const double from = x_[0];
        DriveState y { x_[1], clock_, lag_ ? x_[2] : model_.shiftOf(how_.fullPressure) };
        const double least = 0.05; // m/s², under which no driver would call it a stop
        bool stops = true;
        const auto system = [&](const DriveState& s, DriveState& rate, double lost) {
            const double v = from - lost;
            const double braking = model_.braking(how_.fullPressure, s[2]);
            // A step that is tried and taken back may look far off: only where it arrives counts, below.
            const double slow = std::max(braking + model_.others(v), least);
            rate = { v / slow, 1 / slow, lag_ ? (braking / standardGravity - s[2]) / how_.pitchTime / slow : 0 };
        };
        const auto arrived = [&](const DriveState& s, double lost) {
            stops = stops && model_.braking(how_.fullPressure, s[2]) + model_.others(from - lost) > least;
        };
        std::map<Hold, double> shed; // speed, by what held it
        constexpr int pieces = 24;
        const double piece = from / pieces;
        for (int i = 0; i < pieces && stops && withCourse_; ++i) {
            shed[model_.held(how_.fullPressure, y[2]).hold] += piece;
            integrate(system, y, i * piece, (i + 1) * piece, piece / 2, arrived);
            note(from - (i + 1) * piece, y[0], y[1], how_.fullPressure, y[2]);
        }
        if (!withCourse_)
            integrate(system, y, 0.0, from, from / 20, arrived);
        if (!stops || !std::isfinite(y[0]))
            return;
        stopped(y[0], y[1]);
        for (const auto& [hold, lost] : shed)
            if (!shed.contains(result_.longest) || lost > shed[result_.longest])
                result_.longest = hold;
        if (!withCourse_)
            result_.longest = model_.held(how_.fullPressure, y[2]).hold;
    }

    Model model_;
    const Circumstances& how_;
    double speed_;
    bool withCourse_;
    double tolerance_;
    bool lag_ = how_.pitchTime > atOnce;
    DriveState x_; ///< speed, distance and shift while the foot presses harder
    double clock_ = 0;
    StopSimulation result_;
};

} // namespace

std::vector<SpeedAt> speedOverDistance(const std::vector<DriveMoment>& course)
{
    constexpr int between = 8;
    std::vector<SpeedAt> line;
    for (std::size_t i = 0; i < course.size(); ++i) {
        const DriveMoment& m = course[i];
        if (i > 0)
            for (int k = 1; k < between; ++k) {
                const DriveMoment& was = course[i - 1];
                const double part = static_cast<double>(k) / between;
                const double squared = std::lerp(was.speed * was.speed, m.speed * m.speed, part);
                line.push_back({ std::lerp(was.distance, m.distance, part), std::sqrt(std::max(0.0, squared)) });
            }
        line.push_back({ m.distance, m.speed });
    }
    return line;
}

StopSimulation drive(const Car& car, const Brakes& brakes, const Circumstances& how, double speed, bool withCourse, double tolerance)
{
    if (!makesSense(car, brakes, how, speed)) {
        StopSimulation none;
        none.distance = none.duration = none.meanDeceleration = unstopped;
        return none;
    }
    return Stopping(car, brakes, how, speed, withCourse, tolerance).driven();
}

} // namespace deepstop::stopping
