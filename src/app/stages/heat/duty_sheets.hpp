#pragma once
/// A duty as drawings: temperatures over its time with a moment in hand, and all setups beside each other.

#include "chapters/heat/duty_heat.hpp"
#include "drawing/sheet.hpp"

#include <vector>

namespace deepstop::app {

/// @param part of the duty's time at which the moment in hand lies, 0 to 1
[[nodiscard]] Sheet dutySheet(const Study& study, Axle axle, double part);

/// One setup's run of the duty, for comparing.
struct RunOf {
    const Setup* setup;
    const DutyHeat* heat;
    std::vector<LimitSpread> spread {}; ///< of its limits, where it has been drawn many times; empty: the model's own width stands
    double fails = 0; ///< part of those draws in which something critical gave up
};
/// One round of the duty as speed over distance, whose corners can be dragged, and its legs as fields.
[[nodiscard]] Sheet legsSheet(const Study& study);
/// What was read by thermometer with the setup judged, row by row, beside what the model says.
[[nodiscard]] Sheet thermometerSheet(const Study& study);
[[nodiscard]] Sheet setupsSheet(const Study& study, const std::vector<RunOf>& runs);

} // namespace deepstop::app
