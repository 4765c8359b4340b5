#include "files/speed_log.hpp"

#include "files/refusal.hpp"
#include "files/track_log.hpp"

namespace deepstop::files {

std::vector<SpeedAt> readSpeedLog(std::string_view text, const std::optional<LogColumns>& columns)
{
    std::vector<SpeedAt> log;
    const auto keep = [&](const Fix& fix) {
        if (log.size() >= mostLogLines)
            throw Refusal("more lines than any day's log has.");
        log.push_back({ fix.time, fix.speed, fix.height });
    };
    TrackReader reader(keep, TrackReader::Kind::Guessed, columns);
    reader.take(text);
    reader.finish();
    if (log.size() < 3)
        throw Refusal("the log has fewer than three points: nothing can be told from it.");
    return log;
}

} // namespace deepstop::files
