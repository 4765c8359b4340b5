#pragma once
/// A reading as it is typed into a dimension: a quantity, and if the person says so its plus-or-minus and that it is a guess.

#include "quantity/format.hpp"
#include "quantity/parse.hpp"
#include "quantity/reading.hpp"

namespace deepstop {

struct Entry {
    std::optional<Reading> reading; ///< nothing when refused
    std::string refusal;
};

/// Reads "330", "12.99 in ±0.02", "28 ±0.05 mm", "33?" (estimated), "28.01; 27.99; 28.02" (one thing read several times: mean and
/// spread are kept) or the empty text (the reading is taken away).
///
/// What is typed without saying so stays as it was known before; a new reading counts as measured, and its old plus-or-minus is kept
/// only while the value is. An estimate that names its instrument was foretold and becomes measured by what is typed. A width without unit
/// is in the unit of the value.
/// @param before the reading that stands there now
/// @param today ISO date that a changed reading is given
[[nodiscard]] Entry readEntry(
    std::string_view text, const Style& style, UnitSystem system, const Reading& before, std::string_view today = {});

/// The text to begin editing with: reads back as the same reading.
[[nodiscard]] std::string entryText(const Reading& reading, const Style& style, UnitSystem system);

} // namespace deepstop
