#include "report/log_session.hpp"

#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop::report {

LoggedStops stopsInLog(
    const std::string& path, const std::function<bool(double)>& progress, const std::optional<files::LogColumns>& columns)
{
    LoggedStops log;
    proving::StopFinder finder([&](const proving::FoundStop& stop) { log.stops.push_back(stop); });
    files::TrackReader reader(
        [&](const files::Fix& fix) {
            finder.take({ fix.time, fix.speed });
        },
        files::TrackReader::Kind::Guessed, columns);
    log.whole = files::readTrack(path, reader, progress);
    finder.finish();
    log.count = reader.count();
    return log;
}

std::string qualityOf(const proving::FoundStop& stop)
{
    std::string all;
    for (const auto& fault : stop.faults)
        all += (all.empty() ? "" : ", ") + fault;
    return all.empty() ? std::string(tr("good")) : all;
}

MeasuredStop measuredOf(const proving::FoundStop& stop)
{
    constexpr double speedWidth = 0.1;
    constexpr double distanceWidth = 0.01;
    MeasuredStop m;
    m.speed = { stop.speed, speedWidth, Known::Measured, "logger", {} };
    if (std::isfinite(stop.distance))
        m.distance = { stop.distance, distanceWidth * stop.distance, Known::Measured, "logger", {} };
    if (!stop.good())
        m.leftOut = qualityOf(stop);
    // To a thousandth, which no receiver reaches: what is kept is the log and no more.
    const auto rounded = [](double v) { return std::round(v * 1000) / 1000; };
    for (const proving::Speed& each : stop.course)
        m.course.push_back({ rounded(each.time - stop.begin), rounded(std::max(0.0, each.speed)) });
    return m;
}

std::vector<proving::Speed> courseOf(const MeasuredStop& stop)
{
    std::vector<proving::Speed> course;
    for (const auto& [time, speed] : stop.course)
        course.push_back({ time, speed });
    return course;
}

Setup frozen(const Build& build, const Setup& setup)
{
    Setup ran = setup;
    for (const Axle axle : { Axle::Front, Axle::Rear })
        if (const Corner* corner = cornerOf(build, setup, axle))
            (axle == Axle::Front ? ran.front : ran.rear) = *corner;
    ran.hydraulics = hydraulicsOf(build, setup);
    return ran;
}

std::string lostIn(const files::LogCount& count)
{
    std::vector<std::string> parts;
    const auto add = [&](std::uint64_t n, const char* what) {
        if (n > 0)
            parts.push_back(fmt::format("{} {}", n, what));
    };
    add(count.badChecksums, tr("with a wrong checksum"));
    add(count.unread, tr("unreadable"));
    add(count.withoutFix, tr("without a fix"));
    add(count.outOfTime, tr("whose time does not follow the one before"));
    std::string all;
    if (!parts.empty())
        all = tr("Moments left out: {}; {} were used. A stop among those left out is not found.", fmt::join(parts, ", "), count.fixes);
    if (count.clockJumps > 0)
        all += (all.empty() ? "" : " ")
            + (count.clockJumps == 1 ? std::string(tr("The clock was set back once: no stop is told over that moment."))
                                     : tr("The clock was set back {} times: no stop is told over those moments.", count.clockJumps));
    return all;
}

TestSession sessionOf(
    const Build& build, const std::string& setup, const LoggedStops& log, const std::string& name, const std::string& today)
{
    TestSession session;
    session.setup = setup;
    session.date = log.count.day.empty() ? today : log.count.day;
    session.place = name;
    session.log = name;
    session.from = MeasuredFrom::Hold;
    if (const Setup* ran = findSetup(build, setup))
        session.ran = frozen(build, *ran);
    for (const auto& stop : log.stops)
        session.stops.push_back(measuredOf(stop));
    return session;
}

} // namespace deepstop::report
