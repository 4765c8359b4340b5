#include "files/speed_log.hpp"

#include "files/refusal.hpp"
#include "files/track_log.hpp"
#include "language/language.hpp"

namespace deepstop::files {

namespace {

template <class Read>
std::vector<SpeedAt> speedsBy(const std::optional<LogColumns>& columns, Read read)
{
    std::vector<SpeedAt> log;
    TrackReader reader(
        [&](const Fix& fix) {
            if (log.size() >= mostLogLines)
                throw Refusal(tr("more lines than any day's log has."));
            log.push_back({ fix.time, fix.speed, fix.height });
        },
        TrackReader::Kind::Guessed, columns);
    read(reader);
    if (log.size() < 3)
        throw Refusal(tr("the log has fewer than three points: nothing can be told from it."));
    return log;
}

} // namespace

std::vector<SpeedAt> readSpeedLog(std::string_view text, const std::optional<LogColumns>& columns)
{
    return speedsBy(columns, [&](TrackReader& reader) {
        reader.take(text);
        reader.finish();
    });
}

std::vector<SpeedAt> speedLogIn(
    const std::string& path, const std::optional<LogColumns>& columns, const std::function<bool(double)>& progress)
{
    return speedsBy(columns, [&](TrackReader& reader) {
        if (!readTrack(path, reader, progress))
            throw Refusal(tr("{}: reading it was cancelled.", path));
    });
}

} // namespace deepstop::files
