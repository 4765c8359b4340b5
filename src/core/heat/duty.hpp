#pragma once
/// What the brakes are asked to do: speeds over time, slopes, and where the pedal is pressed. SI; nothing throws.

#include <string>
#include <vector>

namespace deepstop::heat {

/// From one speed to another at a steady rate.
struct Phase {
    double from; ///< m/s
    double to;
    double duration; ///< s
    bool braking = false; ///< the brakes make up what air, rolling, slope and engine do not
    double slope = 0; ///< of the road, falling positive, sine
    int stop = 0; ///< number of the braking this belongs to, counted from 1; between two brakings that of the last one
};

/// The phases of a duty, without a gap in speed.
struct Duty {
    std::string id;
    std::string name;
    std::vector<Phase> phases;
    double engineBraking = 0; ///< deceleration by engine and gears while the car coasts or brakes, m/s²
    double added = 0; ///< mass over the car's with its driver: load, and a trailer without brakes, kg
};

[[nodiscard]] double durationOf(const Duty& duty);
[[nodiscard]] double distanceOf(const Duty& duty);
[[nodiscard]] int stopsIn(const Duty& duty);

/// One stop at `deceleration` (m/s²), and `rest` s of standing after it.
[[nodiscard]] Duty oneStop(double speed, double deceleration, double rest = 0);
/// `count` snubs from `from` to `to` at `deceleration`, one beginning every `interval` s: back to speed and held there in between. Nothing
/// in `phases` where they do not fit into the interval or the speeds are the wrong way round.
[[nodiscard]] Duty snubs(int count, double from, double to, double deceleration, double interval);
/// Heating procedure of UN R13-H (type I) and FMVSS 135, from memory: 15 snubs from `top` to half of it at 3 m/s², 45 s apart.
[[nodiscard]] Duty heatingProcedure(double top);
/// Down a slope at one speed, the brakes dragging all the way.
[[nodiscard]] Duty descent(double length, double slope, double speed, double engineBraking);

/// Speed over distance, phase by phase.
struct RoadLine {
    struct Place {
        double distance; ///< m from the duty's beginning
        double speed; ///< m/s
    };
    std::vector<Place> places; ///< at a steady rate speed goes with the root of the distance: close enough that no corner shows
    bool braking;
};
[[nodiscard]] std::vector<RoadLine> speedOverRoad(const Duty& duty);

/// A speed at a time, for `drivenDuty`.
struct Driven {
    double time; ///< s
    double speed; ///< m/s
    double height; ///< m; NaN where it is not known
};
/// A duty out of a drive: turning points of the speed parted by at least `least` (m/s), straight between them; a stretch that slows by more
/// than `gentle` (m/s²) is a braking, coasting is not. Slopes from the heights, where they are there. Empty for fewer than two turning
/// points.
[[nodiscard]] Duty drivenDuty(const std::vector<Driven>& drive, double least = 1.5, double gentle = 0.8);

/// What a car resists with, apart from its brakes.
struct Road {
    double mass; ///< kg
    double dragArea; ///< m²
    double rolling = 0.012; ///< coefficient of rolling resistance; common practice
    double spinning = 1.03; ///< inertia of what turns, over the car's own; 1.02 to 1.05 common practice
};
/// Power of all brakes together at one moment of a phase, W; 0 where it is not braking or others hold the car.
[[nodiscard]] double brakePower(const Road& road, const Duty& duty, const Phase& phase, double speed);

} // namespace deepstop::heat
