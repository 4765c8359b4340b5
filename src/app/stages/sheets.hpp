#pragma once
/// A study as drawings: one function a stage. No engineering is worked out here; what is drawn comes from the study.

#include "drawing/sheet.hpp"
#include "study/study.hpp"

namespace deepstop::app {

[[nodiscard]] Sheet carSheet(const Study& study);
[[nodiscard]] Sheet wheelRoomSheet(const Study& study, Axle axle, Side side);
/// @param mockUp which of the study's mock-ups; out of range: from dimensions alone
/// @param trueProportion errors as large as they are, instead of exaggerated
[[nodiscard]] Sheet centringSheet(const Study& study, std::size_t mockUp, bool trueProportion = false);
[[nodiscard]] Sheet heatSheet(const Study& study, Axle axle);
[[nodiscard]] Sheet roadSheet(const Study& study);

/// JSON pointer of the corner that setup `result` uses on `axle`; its own, or the car as found's where it has none.
[[nodiscard]] std::string cornerPointer(const Study& study, const SetupParts& result, Axle axle);
/// JSON pointer of the hydraulics that setup `result` runs: its own, or the car as found's.
[[nodiscard]] std::string hydraulicsPointer(const Study& study, const SetupParts& result);
/// JSON pointer of a wheel of the build.
[[nodiscard]] std::string wheelPointer(const Study& study, const Wheel& wheel);
/// "dimensions in mm" or in inches, for a subtitle.
[[nodiscard]] QString unitNote(const Study& study);

} // namespace deepstop::app
