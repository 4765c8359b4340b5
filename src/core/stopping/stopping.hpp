#pragma once
/// How it stops: brake torque, load transfer, what limits the stop. SI; nothing throws.

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace deepstop::stopping {

/// effective radius of a pad on the ring, by two theories.
struct EffectiveRadius {
    double mean; ///< uniform wear: mean of the pad's outer and inner radius
    double uniformPressure; ///< 2/3 (ro³ − ri³)/(ro² − ri²)
};
/// @param inset pad's outer edge inward of the rotor's edge, m. NaN where the pad would reach the axis.
[[nodiscard]] EffectiveRadius effectiveRadius(double rotorDiameter, double padHeight, double inset);

/// Area of the pistons on one side, m²; a floating caliper's pistons count once, never double.
[[nodiscard]] double pistonAreaOneSide(std::span<const double> bores);

/// Line pressure from the foot, Pa: F · ratio · gain / (π/4 bore²).
[[nodiscard]] double linePressure(double pedalForce, double pedalRatio, double boosterGain, double masterBore);

/// One axle's two brakes and tyres.
struct AxleBrakes {
    double pistonArea; ///< one side of one caliper, or one wheel cylinder, m²
    double effectiveRadius; ///< of the pads, or the drum's radius, m
    double brakeFactor; ///< friction force over the pressing force: 2·μ of a disc, that of its shoes for a drum
    double tyreRadius; ///< m
    double grip; ///< peak deceleration of its tyres over g
    bool operator==(const AxleBrakes&) const = default;
};
/// Torque at one wheel, N·m: factor · p · A · r.
[[nodiscard]] double brakeTorque(const AxleBrakes& axle, double pressure);

struct Brakes {
    AxleBrakes front;
    AxleBrakes rear;
    double kneePressure = 1e12; ///< of the rear proportioning valve; above it the rear gains `slope` of what comes to the valve
    double slope = 1;
    double rearOverFront = 1; ///< pressure that comes to the valve over the front's: not 1 under a balance bar
    [[nodiscard]] double rearPressure(double pressure) const; ///< from the front's
    /// Front pressure at which the valve begins to hold back.
    [[nodiscard]] double kneeAtFront() const { return kneePressure / rearOverFront; }
    bool operator==(const Brakes&) const = default;
};

/// Of both wheels of each axle, N.
struct AxleForces {
    double front;
    double rear;
    [[nodiscard]] double sum() const { return front + rear; }
};
/// Braking forces at the road while no wheel locks, at a front pressure: the one place that makes them.
[[nodiscard]] AxleForces brakeForces(const Brakes& brakes, double pressure);

struct Car {
    double mass;
    double wheelbase;
    double centreOfMassHeight;
    double frontLoadShare; ///< at rest
    double dragArea; ///< m²
    bool operator==(const Car&) const = default;
};

/// Loads on the axles at deceleration `z` over g, N; neither falls below nothing.
[[nodiscard]] AxleForces axleLoads(const Car& car, double z);

/// What keeps the stop from being shorter.
enum class Limit {
    Pedal, ///< the brakes do not reach the tyres' limit at this pedal force
    Tyres, ///< both axles use all their grip
    FrontLocks, ///< the front axle locks first and holds the driver there
    RearLocks, ///< the rear axle does: the car turns round
};
[[nodiscard]] std::string_view nameOf(Limit limit);

/// The hardest steady braking the driver can hold.
struct Braking {
    double deceleration; ///< of the brakes alone, over g
    double frontShare; ///< of the braking force
    double frontUse; ///< grip used by the front axle, as a part of what its load allows
    double rearUse;
    double pressure; ///< front line pressure, Pa
    Limit limit;
};

/// Without antilock the driver holds the pressure at which the first axle locks, or the full pressure where none does. With antilock
/// each axle takes what its load allows.
/// Loads: front W (share + z h/L), rear the rest, lifting included. Bad numbers give NaN.
/// @param antilockQuality share of the tyres' grip that antilock brakes use, 0 to 1
[[nodiscard]] Braking hardestBraking(const Car& car, const Brakes& brakes, double fullPressure, bool antilock, double antilockQuality = 1);

/// Pressures at the front at which either axle's wheels would lock, were there no antilock and no end to the foot.
struct LockPressures {
    double front; ///< Pa; infinite where it never locks below ten times `fullPressure`
    double rear;
};
[[nodiscard]] LockPressures lockPressures(const Car& car, const Brakes& brakes, double fullPressure);

/// What a measured stop says: v²/(2 d), and whether tyres of `grip` can do it.
struct MeasuredStop {
    double meanDeceleration; ///< m/s²
    double duration; ///< s, 2 d/v
    std::optional<bool> plausible;
    std::optional<double> shortest; ///< m, that such tyres need from this speed, v²/(2 µ g)
    std::optional<double> speedThatFits; ///< m/s, from which such tyres stop in this distance, √(2 µ g d)
};
[[nodiscard]] MeasuredStop judge(double speed, double distance, std::optional<double> grip);

} // namespace deepstop::stopping
