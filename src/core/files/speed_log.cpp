#include "files/speed_log.hpp"

#include "files/csv.hpp"
#include "files/refusal.hpp"
#include "quantity/number.hpp"
#include "quantity/text.hpp"

#include <boost/iostreams/device/array.hpp>
#include <boost/iostreams/stream.hpp>
#include <boost/property_tree/ptree.hpp>
#include <boost/property_tree/xml_parser.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <limits>
#include <numbers>
#include <optional>

namespace deepstop::files {
namespace {

constexpr double fastest = 200; // m/s

std::string lowered(std::string_view text)
{
    std::string word;
    for (const char c : text)
        if (c != ' ' && c != '"')
            word += toLower(c);
    return word;
}

std::optional<double> numberIn(std::string_view text)
{
    double value = 0;
    while (!text.empty() && text.front() == ' ')
        text.remove_prefix(1);
    while (!text.empty() && (text.back() == ' ' || text.back() == '\r'))
        text.remove_suffix(1);
    const auto read = std::from_chars(text.data(), text.data() + text.size(), value);
    if (read.ec != std::errc {} || read.ptr != text.data() + text.size() || !std::isfinite(value))
        return {};
    return value;
}

void check(const std::vector<SpeedAt>& log)
{
    if (log.size() < 3)
        throw Refusal("the log has fewer than three points: nothing can be told from it.");
}

std::vector<SpeedAt> fromCsv(std::string_view text)
{
    CsvReader reader(text, guessSeparator(text.substr(0, text.find('\n'))));
    std::vector<std::string> fields;
    if (!reader.next(fields))
        throw Refusal("the log is empty.");
    std::optional<std::size_t> timeAt;
    std::optional<std::size_t> speedAt;
    std::optional<std::size_t> heightAt;
    double unit = 1 / 3.6;
    for (std::size_t i = 0; i < fields.size(); ++i) {
        const auto name = lowered(fields[i]);
        if (name == "time" || name == "time_s" || name == "t" || name == "seconds" || name == "time(s)")
            timeAt = i;
        else if (name.starts_with("speed") || name == "v") {
            speedAt = i;
            unit = name.find("mph") != std::string::npos                                         ? 0.44704
                : name.find("mps") != std::string::npos || name.find("m/s") != std::string::npos ? 1
                                                                                                 : 1 / 3.6;
        } else if (name.starts_with("height") || name.starts_with("altitude") || name == "ele") {
            heightAt = i;
        }
    }
    if (!timeAt || !speedAt)
        throw Refusal("line 1: name a column for the time (time_s) and one for the speed (speed_kmh, speed_mph or speed_mps).");
    std::vector<SpeedAt> log;
    double first = 0;
    while (reader.next(fields)) {
        const auto where = fmt::format("line {}: ", reader.line());
        if (log.size() >= mostLogLines)
            throw Refusal(where + "more lines than any day's log has.");
        if (fields.size() <= std::max(*timeAt, *speedAt))
            throw Refusal(where + "too few columns.");
        const auto time = numberIn(fields[*timeAt]);
        const auto speed = numberIn(fields[*speedAt]);
        if (!time || !speed)
            throw Refusal(where + fmt::format("“{}” is no number.", !time ? fields[*timeAt] : fields[*speedAt]));
        if (*speed < 0 || *speed * unit > fastest)
            throw Refusal(where + fmt::format("a speed of {} cannot be.", fields[*speedAt]));
        if (log.empty())
            first = *time;
        else if (*time - first <= log.back().time)
            throw Refusal(where + "the time runs backwards or stands.");
        const auto height = heightAt && *heightAt < fields.size() ? numberIn(fields[*heightAt]) : std::nullopt;
        log.push_back({ *time - first, *speed * unit, height.value_or(std::numeric_limits<double>::quiet_NaN()) });
    }
    check(log);
    return log;
}

/// Seconds of an ISO 8601 time in UTC, "2026-03-14T09:26:53.5Z".
std::optional<double> secondsOf(std::string_view text)
{
    const auto part = [&](std::size_t at, std::size_t size) -> std::optional<int> {
        int value = 0;
        if (at + size > text.size())
            return {};
        const auto read = std::from_chars(text.data() + at, text.data() + at + size, value);
        return read.ec == std::errc {} && read.ptr == text.data() + at + size ? std::optional(value) : std::nullopt;
    };
    const auto year = part(0, 4);
    const auto month = part(5, 2);
    const auto day = part(8, 2);
    const auto hour = part(11, 2);
    const auto minute = part(14, 2);
    auto end = text.find_first_not_of("0123456789.", 17);
    const auto second = text.size() > 17 ? numberIn(text.substr(17, end == std::string_view::npos ? end : end - 17)) : std::nullopt;
    if (!year || !month || !day || !hour || !minute || !second)
        return {};
    const std::chrono::year_month_day date { std::chrono::year { *year }, std::chrono::month { static_cast<unsigned>(*month) },
        std::chrono::day { static_cast<unsigned>(*day) } };
    if (!date.ok())
        return {};
    const auto days = std::chrono::sys_days { date }.time_since_epoch().count();
    return static_cast<double>(days) * 86400 + *hour * 3600 + *minute * 60 + *second;
}

/// Between two places on the globe, m (haversine, mean radius of the Earth).
double apart(double lat0, double lon0, double lat1, double lon1)
{
    constexpr double radian = std::numbers::pi / 180;
    const double a = std::pow(std::sin((lat1 - lat0) * radian / 2), 2)
        + std::cos(lat0 * radian) * std::cos(lat1 * radian) * std::pow(std::sin((lon1 - lon0) * radian / 2), 2);
    return 2 * 6'371'008.8 * std::asin(std::min(1.0, std::sqrt(a)));
}

std::vector<SpeedAt> fromGpx(std::string_view text)
{
    namespace pt = boost::property_tree;
    pt::ptree tree;
    try {
        // Only letters go through it: numbers are read from them afterwards.
        boost::iostreams::stream<boost::iostreams::array_source> in(text.data(), text.size());
        pt::read_xml(in, tree);
    } catch (const pt::xml_parser_error& e) {
        throw Refusal(fmt::format("line {}: {}.", e.line(), e.message()));
    }
    const auto gpx = tree.get_child_optional("gpx");
    if (!gpx)
        throw Refusal("this is no GPX file: it has no gpx element.");
    struct Point {
        double time;
        double lat;
        double lon;
        double height;
        std::optional<double> speed;
    };
    std::vector<Point> points;
    for (const auto& [track, trk] : *gpx) {
        if (track != "trk")
            continue;
        for (const auto& [segment, seg] : trk) {
            if (segment != "trkseg")
                continue;
            for (const auto& [name, p] : seg) {
                if (name != "trkpt")
                    continue;
                const auto number = points.size() + 1;
                const auto time = secondsOf(p.get<std::string>("time", ""));
                const auto lat = numberIn(p.get<std::string>("<xmlattr>.lat", ""));
                const auto lon = numberIn(p.get<std::string>("<xmlattr>.lon", ""));
                if (!time || !lat || !lon)
                    throw Refusal(fmt::format("track point {}: lacks its time or its place.", number));
                points.push_back(
                    { *time, *lat, *lon, numberIn(p.get<std::string>("ele", "")).value_or(std::numeric_limits<double>::quiet_NaN()),
                        numberIn(p.get<std::string>("speed", "")) });
                if (points.size() > mostLogLines)
                    throw Refusal("more track points than any day has.");
            }
        }
    }
    std::vector<SpeedAt> log;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const Point& p = points[i];
        if (i > 0 && p.time <= points[i - 1].time)
            throw Refusal(fmt::format("track point {}: the time runs backwards or stands.", i + 1));
        const Point& a = points[i > 0 ? i - 1 : 0];
        const Point& b = points[std::min(i + 1, points.size() - 1)];
        const double speed = p.speed ? *p.speed : b.time > a.time ? apart(a.lat, a.lon, b.lat, b.lon) / (b.time - a.time) : 0;
        if (speed < 0 || speed > fastest)
            throw Refusal(fmt::format("track point {}: a speed of {:.0f} km/h cannot be.", i + 1, speed * 3.6));
        log.push_back({ p.time - points.front().time, speed, p.height });
    }
    check(log);
    return log;
}

} // namespace

std::vector<SpeedAt> readSpeedLog(std::string_view text)
{
    const auto start = text.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
    if (start == std::string_view::npos)
        throw Refusal("the log is empty.");
    return text[start] == '<' ? fromGpx(text) : fromCsv(text);
}

} // namespace deepstop::files
