#pragma once
/// The balance of a study as a page of text, and its curves as a table.

#include "study/study.hpp"

namespace deepstop::report {

/// What the chapter says, and for each load which axle locks where and what the foot does for 0.3, 0.6 and 0.9 g, before and after.
/// @param load only that one, by name; empty: all. One that the build has not is not printed
[[nodiscard]] std::string balanceSheet(const Study& study, const std::string& load = {});

/// Curves over deceleration of both setups and each load: CSV, a header line with units in the names, SI, a point as decimal sign. What is
/// not known is left empty.
[[nodiscard]] std::string balanceCsv(const Study& study, const std::string& load = {});

/// Names of the loads, the driver alone first.
[[nodiscard]] std::vector<std::string> loadNames(const Study& study);

} // namespace deepstop::report
