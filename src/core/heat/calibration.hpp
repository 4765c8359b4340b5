#pragma once
/// Setting the model right with a thermometer: the cooling and the split that fit what was measured. SI; nothing throws.

#include "heat/network.hpp"

#include <optional>
#include <vector>

namespace deepstop::heat {

/// One temperature taken on the car.
struct Taken {
    double time; ///< s from the duty's beginning
    bool front = true; ///< which axle
    Node node = Node::Surface;
    double temperature; ///< K
    double width; ///< K, within which it is thought to be right
};

struct Calibration {
    double cooling; ///< over the model's
    double coolingWidth; ///< within which it lies in 95 of 100 cases
    double split; ///< of the front's part of the heat over the balance's; 1 where it was not fitted
    double splitWidth; ///< 0 where it was not fitted
    double misfit; ///< root of the mean square of what is left, over the widths; about 1 where both are right
    std::vector<double> left; ///< measured less predicted, K
    std::vector<double> predicted; ///< K
    bool contradicts; ///< no cooling fits: a wrong thermometer, a wrong place, or another duty
};

/// Least squares over the cooling of both axles, and over the split as well where both axles were measured at least twice each. Gauss and
/// Newton's, on logarithms, with numerical slopes. Called a contradiction where what is left is more than twice what the widths allow, or
/// the cooling comes out beyond a quarter to four times the model's.
/// @return nothing for fewer than two temperatures, or a car or duty that cannot be run
[[nodiscard]] std::optional<Calibration> calibrate(
    const Car& car, const Duty& duty, const std::vector<Taken>& taken, const Accuracy& accuracy = {});

} // namespace deepstop::heat
