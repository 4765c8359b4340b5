#pragma once
/// How far stops may turn out otherwise: the same random numbers for all of them, so that what differs between them is what differs.

#include "stopping/drive.hpp"

#include <cstdint>

namespace deepstop::stopping {

/// One stop as reckoned.
struct Case {
    Car car;
    Brakes brakes;
    Circumstances how;
    double speed;
    int parts = 0; ///< of stops with the same brakes alike: what is uncertain of these parts is the same in all of them
    bool operator==(const Case&) const = default;
};

/// Standard deviations over the value, where no unit stands; common practice, no source.
struct StopWidths {
    double grip = 0.05; ///< of road and tyres on the day
    double mass = 0.015;
    double height = 0.04;
    double foot = 0.08;
    double buildUp = 0.04; ///< s
    double frictionAlike = 0.04; ///< of all pads: weather, dust
    double frictionOwn = 0.06; ///< of either axle of one set of parts
    double loss = 0.25; ///< of what hot pads have lost
};

/// Distances drawn, one list a case; a draw that never stops is infinite. The first draw of one case belongs to the first of the others.
[[nodiscard]] std::vector<std::vector<double>> spread(std::span<const Case> cases, int draws, const StopWidths& widths, std::uint32_t seed);

} // namespace deepstop::stopping
