#pragma once
/// A duty run through with one setup or two: what gave up and when as a page of text, the course as a table.

#include "chapters/heat/duty_heat.hpp"

namespace deepstop::report {

/// One setup's run.
struct DutyRun {
    const Setup* setup;
    DutyHeat heat;
};

/// What gives up first with each, the peaks, and how hard the foot has to press.
[[nodiscard]] std::string heatSheet(const Study& study, const heat::Duty& duty, const std::vector<DutyRun>& runs);

/// Time, distance, speed, then for every setup and axle the heat made in one wheel's brake and its temperatures: SI, °C, a point as decimal
/// sign; names as `varnik-330.front.ring_degC`. At the moments of the first run; others between theirs.
[[nodiscard]] std::string heatCsv(const std::vector<DutyRun>& runs);

} // namespace deepstop::report
