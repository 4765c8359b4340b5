#pragma once
/// The job card's drawings: a step with what is read at it, the procedures chosen, the car on a lift.

#include "drawing/sheet.hpp"
#include "jobcard/jobcard.hpp"

namespace deepstop::app {

/// @param large for arm's length, with its caution; else only what is read
[[nodiscard]] Sheet stepSheet(const Study& study, const jobcard::Card& card, const jobcard::Step* step, bool large);
[[nodiscard]] Sheet choicesSheet(const Study& study);
[[nodiscard]] Sheet liftSheet(const Study& study);

} // namespace deepstop::app
