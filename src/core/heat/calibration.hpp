#pragma once
/// Setting the model right with a thermometer: the cooling and the split that fit what was measured. SI; nothing throws.

#include "heat/network.hpp"

#include <functional>
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
    bool highest = false; ///< the highest it has been up to then, as a label keeps it
};

/// Stop after stop until it fades: how hot pads and linings were, told by how much longer the later ones are than the first.
struct FadeSeries {
    struct Stop {
        int stop; ///< of the duty, from 1
        double foot; ///< N
        double lengthening; ///< its distance over the mean of the first ones'
        double width; ///< within which that is thought to be right, in 95 of 100 cases
    };
    std::vector<Stop> stops; ///< after the first ones
    double firstFoot; ///< of the first ones, N
    /// Of one stop with either axle's friction over the quoted one, m.
    std::function<double(double frontFriction, double rearFriction, double foot)> distance;
};
/// Stops of a duty whose mean the later ones are held against.
inline constexpr int firstOnes = 3;

struct Calibration {
    double cooling; ///< over the model's
    double coolingWidth; ///< within which it lies in 95 of 100 cases
    double split; ///< of the front's part of the heat over the balance's; 1 where it was not fitted
    double splitWidth; ///< 0 where it was not fitted
    double misfit; ///< root of the mean square of what is left, over the widths; about 1 where both are right
    std::vector<double> left; ///< measured less predicted, K; of each temperature
    std::vector<double> predicted; ///< K
    std::vector<double> lengthening; ///< predicted, of each stop of each series
    bool contradicts; ///< no cooling fits: a wrong thermometer, a wrong place, or another duty
};

/// The highest that the part of a reading has been in a run up to the reading's moment, K.
[[nodiscard]] double highestUpTo(const Run& run, const Taken& taken);

/// Least squares over the cooling of both axles, and over the split as well where both axles were measured at least twice each. Gauss and
/// Newton's, on logarithms, with numerical slopes. Called a contradiction where what is left is more than twice what the widths allow, or
/// the cooling comes out beyond a quarter to four times the model's.
/// @param faded stops of one series share its road and its pads, so that all of them together weigh as one
/// @return nothing for fewer than two temperatures or stops, a car or duty that cannot be run, or stops that tell nothing of the cooling
///         because none faded and none should have
[[nodiscard]] std::optional<Calibration> calibrate(const Car& car, const Duty& duty, const std::vector<Taken>& taken,
    const std::vector<FadeSeries>& faded = {}, const Accuracy& accuracy = {});
/// How much longer each stop of the series is than the first ones, as a run of its duty has it; NaN where that has no such stop.
[[nodiscard]] std::vector<double> lengtheningBy(const Run& run, const FadeSeries& series);

} // namespace deepstop::heat
