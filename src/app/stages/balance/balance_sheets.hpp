#pragma once
/// The balance as drawings: from the foot to the wheels, rear over front, adhesion, the pedal, what the car carries, what is wanted.

#include "drawing/sheet.hpp"

namespace deepstop::app {

[[nodiscard]] Sheet footSheet(const Study& study);
/// @param load which of the loads, the driver alone first
[[nodiscard]] Sheet splitSheet(const Study& study, std::size_t load);
[[nodiscard]] Sheet adhesionSheet(const Study& study, std::size_t load);
[[nodiscard]] Sheet pedalSheet(const Study& study, std::size_t load);
[[nodiscard]] Sheet loadsSheet(const Study& study);
[[nodiscard]] Sheet practiceSheet(const Study& study);

/// In the place of a plot that cannot be drawn: why not, and the readings it waits for as fields.
void drawWhatLacks(Sheet& sheet, const Study& study, const Verdict* verdict);

/// The verdict on which axle locks first with that load; null: none.
[[nodiscard]] const Verdict* lockOrderOf(const Study& study, std::size_t load);

} // namespace deepstop::app
