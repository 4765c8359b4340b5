#include "stopping/stopping.hpp"

#include "materials/materials.hpp"
#include "quantity/unit.hpp"

#include <boost/numeric/odeint.hpp>

#include <array>
#include <cmath>
#include <limits>

namespace deepstop::stopping {
namespace {

using Travelled = std::array<double, 2>; // distance, time

/// Beyond the speed of any car on wheels, m/s: there the numbers are a slip of the pen, and the integrator would grind on them.
constexpr double fastest = 400;
/// Slower than this is standing still; the integrator could not step through it either.
constexpr double slowest = 1e-3;

} // namespace

Stop stop(const Car& car, double z, double speed, double buildUp, bool withCourse)
{
    constexpr double nan = std::numeric_limits<double>::quiet_NaN();
    const double brakes = z * standardGravity;
    const double drag = materials::airDensity * car.dragArea / (2 * car.mass);
    const bool sensible = z > 1e-3 && z < 100 && speed >= slowest && speed <= fastest && buildUp >= 0 && buildUp < 60 && drag >= 0
        && drag * speed * speed < 100 * standardGravity;
    if (!sensible)
        return { nan, nan, nan, {} };
    // Speed falls steadily, so it is the clock: ds/du = v/a and dt/du = 1/a over the speed shed, u = v0 − v. No end has to be searched.
    const auto system = [&](const Travelled&, Travelled& rate, double shed) {
        const double v = speed - shed;
        const double a = brakes + drag * v * v;
        rate = { v / a, 1 / a };
    };
    const double waited = buildUp / 2;
    Travelled travelled { speed * waited, waited };
    Stop result {};
    if (withCourse && waited > 0)
        result.course.push_back({ speed, 0, 0 });
    namespace odeint = boost::numeric::odeint;
    const auto stepper = odeint::make_dense_output(1e-10, 1e-10, odeint::runge_kutta_dopri5<Travelled>());
    if (withCourse)
        odeint::integrate_n_steps(stepper, system, travelled, 0.0, speed / 60, 60, [&](const Travelled& t, double shed) {
            result.course.push_back({ speed - shed, t[0], t[1] });
        });
    else
        odeint::integrate_adaptive(
            odeint::make_controlled(1e-10, 1e-10, odeint::runge_kutta_dopri5<Travelled>()), system, travelled, 0.0, speed, speed / 10);
    // A dense stepper leaves the state where its last step began; what it observed last is the standstill.
    if (withCourse)
        travelled = { result.course.back().distance, result.course.back().time };
    result.distance = travelled[0];
    result.duration = travelled[1];
    result.meanDeceleration = speed * speed / (2 * result.distance);
    return result;
}

MeasuredStop judge(double speed, double distance, std::optional<double> grip)
{
    MeasuredStop result { speed * speed / (2 * distance), 2 * distance / speed, {} };
    if (grip)
        result.plausible = result.meanDeceleration <= *grip * standardGravity;
    return result;
}

} // namespace deepstop::stopping
