#pragma once
/// Speeds over time from a logger, all of them at once.

#include "files/log_columns.hpp"

#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::files {

struct SpeedAt {
    double time; ///< s, from the first of them
    double speed; ///< m/s
    double height; ///< m over the sea; NaN where it was not logged
};

/// No logger writes more in a day.
inline constexpr std::size_t mostLogLines = 5'000'000;

/// Reads a whole log as `TrackReader` takes it: CSV, GPX or NMEA. Throws Refusal for what that refuses, and for fewer than three points.
[[nodiscard]] std::vector<SpeedAt> readSpeedLog(std::string_view text, const std::optional<LogColumns>& columns = {});

/// The same of a file, without keeping its text. @param progress as `readTrack`; throws Refusal once it says false.
[[nodiscard]] std::vector<SpeedAt> speedLogIn(const std::string& path, const std::optional<LogColumns>& columns = {},
    const std::function<bool(double)>& progress = {});

} // namespace deepstop::files
