#pragma once
/// Setting the heat model right with what was measured on the car: temperatures, and how a series of stops faded.

#include "figures/heat_figures.hpp"
#include "heat/calibration.hpp"

#include <optional>
#include <string>
#include <vector>

namespace deepstop {

/// What was measured with a setup on a duty, as the model can be held against it: that of all sessions that ran it.
struct Thermometer {
    std::vector<heat::Taken> taken;
    std::vector<heat::FadeSeries> faded; ///< hold on to the build they are of
    std::vector<std::string> lacks; ///< what a temperature that was left out lacks, in words
    std::vector<std::string> fadeLacks; ///< why a series tells nothing, in words
};
[[nodiscard]] Thermometer temperaturesOf(const Build& build, const SetupParts& setup, const DutyPlan& plan, const heat::Duty& duty);
/// One temperature and what the run says at its moment.
struct TakenAgainstModel {
    heat::Taken taken;
    double model; ///< K
    bool far; ///< further off than twice the reading's width
};
/// @pre the run has a course
[[nodiscard]] std::vector<TakenAgainstModel> heldAgainst(const heat::Run& run, const std::vector<heat::Taken>& taken);
/// Sets cooling from them, where there are two or more.
[[nodiscard]] std::optional<heat::Calibration> calibrationOf(const Build& build, const SetupParts& setup, const DutyPlan& plan);
/// The build with that cooling put in and said to be measured, on the axles that were read; pads that faded tell of both. Parts a setup
/// left as found are changed where they stand.
[[nodiscard]] Build withCooling(Build build, const std::string& setup, const heat::Calibration& calibration, const Thermometer& measured);

} // namespace deepstop
