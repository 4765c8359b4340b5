#pragma once
/// Days of the calendar, counted since 1970-01-01, and their ISO text.

#include <optional>
#include <string>
#include <string_view>

namespace deepstop {

/// Nothing for no day of the Gregorian calendar.
[[nodiscard]] std::optional<int> dayNumber(int year, int month, int day);
/// Of an ISO date, "2026-05-31" with or without more behind it; nothing for what is none.
[[nodiscard]] std::optional<int> dayOf(std::string_view date);
[[nodiscard]] std::string dateOf(int day);

} // namespace deepstop
