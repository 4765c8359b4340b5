#pragma once
/// From the foot to the lines, and how much fluid it takes: booster, master cylinder or twins, valve, and all that gives. SI; nothing
/// throws.
///
/// What is not modelled: residual pressure valves, a pedal that pumps up, air and vapour in the fluid, knock-back in corners, and how fast
/// any of it happens.

#include <limits>

namespace deepstop::hydraulics {

/// A booster that multiplies until it runs out and then only follows the foot. Gain 1 is none, or one whose vacuum is gone.
struct Booster {
    double gain = 1;
    double knee = std::numeric_limits<double>::infinity(); ///< its output force where it runs out, N
    bool operator==(const Booster&) const = default;
};
/// Output force for an input force, both at the push rod, N: gain·F up to the knee, knee + (F − knee/gain) over it.
[[nodiscard]] double boosted(const Booster& booster, double input);
/// The input that makes an output: the inverse of `boosted`.
[[nodiscard]] double inputFor(const Booster& booster, double output);

/// Tandem: both circuits at one pressure. Twins: a balance bar gives `barToFront` of the force to the front cylinder.
struct Master {
    bool twins = false;
    double bore = 0; ///< of the tandem, or of the front twin, m
    double rearBore = 0; ///< of the rear twin, m
    double barToFront = 0.5; ///< 0 to 1, both excluded
    double stroke = std::numeric_limits<double>::quiet_NaN(); ///< of the push rod; of either twin, m
    double firstShare = 0.5; ///< of a tandem's stroke: what the front, or first, circuit has
    bool diagonal = false; ///< either of a tandem's circuits serves one front and one rear wheel
    bool operator==(const Master&) const = default;
};
/// Area of a bore, m².
[[nodiscard]] double areaOf(double bore);

/// Force on the push rod over the front pressure that it makes, m².
[[nodiscard]] double rodArea(const Master& master);
/// Rear pressure over front pressure, before any valve; 1 for a tandem.
[[nodiscard]] double rearOverFront(const Master& master);

struct PedalTrain {
    double pedalRatio = 1;
    double freePlay = 0; ///< at the pedal, m
    Booster booster;
    Master master;
    double measuredOverReckoned = 1; ///< of the pressure, where a gauge has been on the line
    bool operator==(const PedalTrain&) const = default;
};
/// Front pressure that a force on the pedal makes, Pa. NaN for bad numbers.
[[nodiscard]] double frontPressure(const PedalTrain& foot, double pedalForce);
/// The pedal force for a front pressure, N: the inverse.
[[nodiscard]] double pedalForceFor(const PedalTrain& foot, double frontPressure);
/// Pedal force at which the booster runs out; infinite where it never does.
[[nodiscard]] double forceAtKnee(const PedalTrain& foot);

/// Fluid that one axle takes: what closes the gaps, then what bends, squeezes and swells, straight with the pressure (common practice).
struct FluidDemand {
    double atOnce = 0; ///< m³
    double perPressure = 0; ///< m³/Pa
    /// m³; nothing without pressure.
    [[nodiscard]] double at(double pressure) const { return pressure > 0 ? atOnce + perPressure * pressure : 0; }
    bool operator==(const FluidDemand&) const = default;
};

/// What the give of parts is quoted at, Pa.
inline constexpr double givePressure = 70e5;

/// Both wheels of an axle with discs.
struct DiscTakeUp {
    double areaOneSide; ///< pistons of one side of one caliper, m²
    double areaAll; ///< all its pistons
    double rollBack; ///< of each piston, m
    double padSqueeze; ///< of one pad at 70 bar, m
    double caliperGive; ///< at 70 bar, m³, one caliper
    double hoseGive; ///< at 70 bar, m³, one hose
};
/// Roll-back belongs to a seal and so to every piston; a pad's squeeze is followed by the pistons of one side at either pad, however they
/// are arranged: 2·squeeze·A of one side for a fixed and for a floating caliper.
[[nodiscard]] FluidDemand takeUpOf(const DiscTakeUp& disc);

/// Both wheels of an axle with drums: two pistons in one cylinder, or one in each of two.
struct DrumTakeUp {
    double cylinderArea; ///< of one piston, m²
    double play; ///< each piston moves until its shoe touches, as the adjuster leaves it, m
    double give; ///< of drum, shoes and cylinder at 70 bar, m³, one wheel
    double hoseGive;
};
[[nodiscard]] FluidDemand takeUpOf(const DrumTakeUp& drum);

/// Where the pedal goes.
struct Travel {
    double pushrod; ///< m
    double pedal; ///< at the foot, free play in it, m
    double strokeShare; ///< used of its stroke by the fuller chamber or cylinder
};
/// @param rearPressure behind the valve
[[nodiscard]] Travel travel(
    const PedalTrain& foot, const FluidDemand& front, const FluidDemand& rear, double frontPressure, double rearPressure);
/// From a volume of fluid alone: V/A, times the pedal ratio, plus free play.
[[nodiscard]] Travel travelOf(double volume, double masterBore, double pedalRatio, double freePlay, double stroke);

/// One circuit gone: its chamber bottoms, or the bar leans on its bottomed twin.
struct OneGone {
    double strokeShare; ///< of what the remaining chamber has for itself; over 1 it cannot make that pressure
    double pedal; ///< where the pedal then is, m
};
/// @param first whether it is the front (or first) circuit that is gone
/// @param volume that the brakes on the other circuit take, m³
[[nodiscard]] OneGone oneGone(const PedalTrain& foot, bool first, double volume);

} // namespace deepstop::hydraulics
