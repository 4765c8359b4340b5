#pragma once
/// Stops out of a logger's file, as a session of a build.

#include "build/build.hpp"
#include "files/track_log.hpp"
#include "proving/stops.hpp"

#include <functional>

namespace deepstop::report {

struct LoggedStops {
    std::vector<proving::FoundStop> stops;
    files::LogCount count;
    bool whole = true; ///< not when it was given up
};
/// Every hard stop of a log, in its order. @param progress as `files::readTrack`; @param columns as TrackReader. Throws files::Refusal.
[[nodiscard]] LoggedStops stopsInLog(const std::string& path, const std::function<bool(double)>& progress = {},
    const std::optional<files::LogColumns>& columns = {});
/// "good", or what is wrong with it.
[[nodiscard]] std::string qualityOf(const proving::FoundStop& stop);
/// As read by a logger: the speed to 0.1 m/s, the distance to one in a hundred; with its course.
[[nodiscard]] MeasuredStop measuredOf(const proving::FoundStop& stop);
/// Its course as the finder has it, seconds from where the braking takes hold; empty of a stop by tape.
[[nodiscard]] std::vector<proving::Speed> courseOf(const MeasuredStop& stop);
/// A session of a log called `name`, of the day the log says, else of `today`, with what is on the car now, frozen; stops that cannot be
/// trusted are in it, left out with their reason. The log must have a stop.
[[nodiscard]] TestSession sessionOf(
    const Build& build, const std::string& setup, const LoggedStops& log, const std::string& name, const std::string& today);
/// What a log lost on the way in, as a sentence; empty where all of it came through.
[[nodiscard]] std::string lostIn(const files::LogCount& count);
/// The setup as it is now, both axles and the hydraulics in it.
[[nodiscard]] Setup frozen(const Build& build, const Setup& setup);

} // namespace deepstop::report
