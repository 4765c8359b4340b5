#include "files/track_ways.hpp"
#include "language/language.hpp"

#include <expat.h>

#include <algorithm>
#include <numbers>

namespace deepstop::files {
namespace {

using namespace track;

/// Seconds of an ISO 8601 time in UTC, "2026-03-14T09:26:53.5Z".
std::optional<double> isoSeconds(std::string_view text)
{
    const auto year = digits(text, 0, 4);
    const auto month = digits(text, 5, 2);
    const auto date = digits(text, 8, 2);
    const auto hour = digits(text, 11, 2);
    const auto minute = digits(text, 14, 2);
    if (!year || !month || !date || !hour || !minute || text.size() <= 17)
        return {};
    const auto end = text.find_first_not_of("0123456789.", 17);
    const auto second = numberOf(text.substr(17, end == std::string_view::npos ? end : end - 17));
    const auto days = dayNumber(*year, *month, *date);
    if (!second || !days)
        return {};
    return *days * day + *hour * 3600 + *minute * 60 + *second;
}

/// Between two places on the globe, m (haversine, mean radius of the Earth).
double between(double lat0, double lon0, double lat1, double lon1)
{
    constexpr double radian = std::numbers::pi / 180;
    const double a = std::pow(std::sin((lat1 - lat0) * radian / 2), 2)
        + std::cos(lat0 * radian) * std::cos(lat1 * radian) * std::pow(std::sin((lon1 - lon0) * radian / 2), 2);
    return 2 * 6'371'008.8 * std::asin(std::min(1.0, std::sqrt(a)));
}

class GpxWay final : public LogParser {
public:
    GpxWay(const std::function<void(const Fix&)>& sink, LogCount& count) : LogParser(sink, count), parser_(XML_ParserCreate(nullptr))
    {
        XML_SetUserData(parser_, this);
        XML_SetElementHandler(
            parser_, [](void* self, const XML_Char* name, const XML_Char** with) { static_cast<GpxWay*>(self)->opened(name, with); },
            [](void* self, const XML_Char* name) { static_cast<GpxWay*>(self)->closed(name); });
        XML_SetCharacterDataHandler(parser_, [](void* self, const XML_Char* text, int size) {
            auto* me = static_cast<GpxWay*>(self);
            // No number or time is longer.
            constexpr std::size_t most = 64;
            if (me->letters_.size() < most)
                me->letters_.append(text, static_cast<std::size_t>(size));
        });
        // A log declares no entities: whoever does wants something else.
        XML_SetEntityDeclHandler(parser_,
            [](void* self, const XML_Char*, int, const XML_Char*, int, const XML_Char*, const XML_Char*, const XML_Char*, const XML_Char*) {
                auto* me = static_cast<GpxWay*>(self);
                me->wrong_ = tr("it declares entities, which no log does.");
                XML_StopParser(me->parser_, XML_FALSE);
            });
    }
    ~GpxWay() override { XML_ParserFree(parser_); }
    GpxWay(const GpxWay&) = delete;
    GpxWay& operator=(const GpxWay&) = delete;
    void take(std::string_view bytes) override { parse(bytes, false); }
    void finish() override
    {
        parse({}, true);
        if (!seenGpx_)
            throw Refusal(tr("this is no GPX file: it has no gpx element."));
        if (now_)
            settle({});
    }

private:
    struct Point {
        double time;
        double lat;
        double lon;
        double height;
        std::optional<double> speed;
    };
    void parse(std::string_view bytes, bool last)
    {
        // The parser keeps a comment or a name until it ends, and begins it anew with every piece: neither goes on without end.
        constexpr std::size_t piece = 64 * 1024;
        constexpr std::uint64_t longest = 256 * 1024;
        do {
            const auto part = bytes.substr(0, piece);
            bytes.remove_prefix(part.size());
            const auto status =
                XML_Parse(parser_, part.data(), static_cast<int>(part.size()), last && bytes.empty() ? XML_TRUE : XML_FALSE);
            if (!wrong_.empty())
                throw Refusal(wrong_);
            if (status == XML_STATUS_ERROR)
                throw Refusal(tr("line {}: {}.", XML_GetCurrentLineNumber(parser_), XML_ErrorString(XML_GetErrorCode(parser_))));
            fed_ += part.size();
            if (const auto read = XML_GetCurrentByteIndex(parser_); read >= 0 && fed_ > static_cast<std::uint64_t>(read) + longest)
                throw Refusal(tr("line {}: what begins there has no end. This is no log.", XML_GetCurrentLineNumber(parser_)));
        } while (!bytes.empty());
    }
    void opened(std::string_view name, const XML_Char** with)
    {
        letters_.clear();
        name = local(name);
        seenGpx_ = seenGpx_ || name == "gpx";
        if (name != "trkpt")
            return;
        ++count().lines;
        in_ = true;
        point_ = { unlogged, unlogged, unlogged, unlogged, {} };
        for (; *with; with += 2) {
            if (std::string_view(with[0]) == "lat")
                point_.lat = numberOf(with[1]).value_or(unlogged);
            if (std::string_view(with[0]) == "lon")
                point_.lon = numberOf(with[1]).value_or(unlogged);
        }
    }
    void closed(std::string_view name)
    {
        name = local(name);
        if (in_ && name == "time")
            point_.time = isoSeconds(trimmed(letters_)).value_or(unlogged);
        else if (in_ && name == "ele")
            point_.height = numberOf(letters_).value_or(unlogged);
        else if (in_ && name == "speed")
            point_.speed = numberOf(letters_);
        else if (name == "trkpt")
            ended();
        letters_.clear();
    }
    void ended()
    {
        in_ = false;
        // Expat is C: a Refusal goes out through it as words.
        if (!wrong_.empty())
            return;
        if (!std::isfinite(point_.time + point_.lat + point_.lon))
            return stop(tr("track point {}: lacks its time or its place.", count().lines));
        if (count().day.empty())
            count().day = dateOf(static_cast<int>(std::floor(point_.time / day)));
        const auto placed = placing_.place(point_.time);
        if (!placed)
            return;
        point_.time = *placed;
        if (now_)
            settle(point_);
        if (now_)
            was_ = now_;
        now_ = point_;
    }
    /// The point before this one, now that both its neighbours are known.
    void settle(const std::optional<Point>& next)
    {
        const Point& a = was_ ? *was_ : *now_;
        const Point& b = next ? *next : *now_;
        const double speed = now_->speed ? *now_->speed : b.time > a.time ? between(a.lat, a.lon, b.lat, b.lon) / (b.time - a.time) : 0;
        if (!(speed >= 0 && speed <= fastest))
            return stop(tr("track point {}: a speed of {:.0f} km/h cannot be.", count().lines - (next ? 1 : 0), speed * 3.6));
        give({ now_->time, speed, now_->height, unlogged, unlogged, unlogged });
    }
    void stop(std::string why)
    {
        wrong_ = std::move(why);
        XML_StopParser(parser_, XML_FALSE);
    }
    static std::string_view local(std::string_view name)
    {
        const auto colon = name.find(':');
        return colon == std::string_view::npos ? name : name.substr(colon + 1);
    }

    XML_Parser parser_;
    std::uint64_t fed_ = 0;
    std::string letters_;
    std::string wrong_;
    Point point_ {};
    std::optional<Point> was_;
    std::optional<Point> now_;
    Clock placing_ { count() };
    bool in_ = false;
    bool seenGpx_ = false;
};

} // namespace

std::unique_ptr<LogParser> gpxWay(const std::function<void(const Fix&)>& sink, LogCount& count)
{
    return std::make_unique<GpxWay>(sink, count);
}

} // namespace deepstop::files
