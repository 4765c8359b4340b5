#pragma once
/// A stop as it runs: foot, load going forward, grip that falls with load, wet roads, slopes and wind, and what holds it at each speed.
/// SI; nothing throws.

#include "stopping/stopping.hpp"

namespace deepstop::stopping {

/// What keeps the stop from being harder at one moment.
enum class Hold {
    Foot, ///< it is still pressing harder
    Effort, ///< all of it, and the tyres would hold more
    Fade, ///< the same, and hot pads are why
    Tyres, ///< both axles use all their grip
    FrontTyres, ///< the front axle is at its limit
    RearTyres, ///< the rear axle is
};
[[nodiscard]] std::string_view nameOf(Hold hold);

/// Coefficient of rolling resistance of road tyres; common practice.
inline constexpr double usualRolling = 0.012;

/// How the driver brakes, and on what road.
struct Circumstances {
    double fullPressure; ///< front, of all of the foot, Pa
    double buildUp = 0; ///< s from first touch to all of the foot, the pressure growing straight
    bool antilock = false;
    double antilockQuality = 1; ///< part of the grip that antilock brakes use
    double pitchTime = 0; ///< s in which the load goes forward to 63 %, first order; under 5 ms it is there at once
    double gripFall = 0; ///< part of its grip an axle's tyres lose where its load is twice that at rest: μ₀·(1 − fall·log₂(N/N₀))
    double grip = 1; ///< on this road over the dry grip
    double rolling = 0; ///< coefficient of rolling resistance
    double slope = 0; ///< falling positive, sine
    double headwind = 0; ///< m/s
    double frontFriction = 1; ///< over the quoted one, as hot as the pads are
    double rearFriction = 1;
    bool operator==(const Circumstances&) const = default;
};

struct DriveMoment {
    double speed;
    double distance;
    double time;
    double deceleration; ///< m/s²
    Hold hold;
};
struct StopSimulation {
    double distance = 0; ///< m from first touch to standstill; NaN where it never stops or the numbers make no sense
    double duration = 0;
    double meanDeceleration = 0; ///< v²/(2 d)
    std::vector<DriveMoment> course; ///< from first touch to standstill, where it is wanted
    Hold longest = Hold::Foot; ///< what held most of the braking after the foot was all there
};

/// Speed over distance between the moments of a course, so close that no corner shows: at a steady rate speed goes with the root of the
/// distance.
struct SpeedAt {
    double distance;
    double speed;
};
[[nodiscard]] std::vector<SpeedAt> speedOverDistance(const std::vector<DriveMoment>& course);

/// One stop from `speed`. Without antilock the driver holds the pressure at which the first axle locks, as that moment's loads have it;
/// with it each axle takes what its load allows. Time is the clock while the foot presses harder, then speed is, so that no end has to be
/// searched; adaptive Dormand–Prince 5 (Boost.Odeint).
/// @param tolerance of one step, m, s and g: 1e-6 is good to less than 0.1 mm, 1e-4 to a millimetre
/// Speed 0.1 to 150 m/s, build-up to 10 s, pitch time to 5 s. Heat made in this very stop does not act on its friction.
[[nodiscard]] StopSimulation drive(
    const Car& car, const Brakes& brakes, const Circumstances& how, double speed, bool withCourse = false, double tolerance = 1e-6);

/// The same for one moment: forces of both axles, and what holds them.
struct Held {
    AxleForces force;
    Hold hold;
};
/// @param pressure the foot's by now; @param shift deceleration over g that the loads have come to
[[nodiscard]] Held heldAt(const Car& car, const Brakes& brakes, const Circumstances& how, double pressure, double shift);

} // namespace deepstop::stopping
