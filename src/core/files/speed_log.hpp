#pragma once
/// Speeds over time from a logger: CSV with named columns, or the track points of a GPX file.

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

/// Reads a log. CSV: a header line with one column for the time (time, time_s, t, seconds) and one for the speed (speed in km/h, or
/// speed_kmh, speed_mph, speed_mps with their units), any separator. GPX 1.1: track points with times; the speed from `speed` where it
/// stands there, else from the places. Throws Refusal, with the line, for what is neither, times that run backwards, numbers that cannot be
/// read, fewer than three points, speeds over 720 km/h.
[[nodiscard]] std::vector<SpeedAt> readSpeedLog(std::string_view text);

} // namespace deepstop::files
