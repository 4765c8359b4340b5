#pragma once
/// The stop as drawings: along the road, over its distance, and as it was measured.

#include "chapters/proving/proving_chapter.hpp"
#include "drawing/sheet.hpp"

namespace deepstop::app {

/// Speed over distance, cold and after the duty, before and after, with what holds each stop under it.
[[nodiscard]] Sheet predictionSheet(const Study& study);
/// All runs as dots on one line a setup, their means, and the rows they are typed into.
/// @param session index in the build whose rows are shown; the sheet of a build without one says how to begin
[[nodiscard]] Sheet runsSheet(const Study& study, std::optional<std::size_t> session);
/// Distance over the number of the stop, of the series until it fades.
[[nodiscard]] Sheet fadeSheet(const Study& study, std::optional<std::size_t> session);
/// What was seen, felt or read on a brake tester in a session, and the booster's test.
[[nodiscard]] Sheet observedSheet(const Study& study, std::optional<std::size_t> session);
/// Each stop of the last logged session, speed over time, among its neighbours and beside the prediction.
[[nodiscard]] Sheet tracesSheet(const Study& study);
/// The last session of that kind with the setup judged, or of the one before where there is none.
[[nodiscard]] std::optional<std::size_t> lastSession(const Study& study, Series series);

} // namespace deepstop::app
