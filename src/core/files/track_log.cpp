#include "files/track_log.hpp"

#include "files/csv.hpp"
#include "files/refusal.hpp"
#include "quantity/text.hpp"

#include <expat.h>
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <limits>
#include <numbers>
#include <optional>
#include <utility>
#include <vector>

namespace deepstop::files {
namespace {

constexpr double unlogged = std::numeric_limits<double>::quiet_NaN();
constexpr double fastest = 200; // m/s
constexpr std::size_t longestRow = 64 * 1024;
constexpr double day = 86'400;

std::string_view trimmed(std::string_view text)
{
    while (!text.empty() && (text.front() == ' ' || text.front() == '"' || text.front() == '\t'))
        text.remove_prefix(1);
    while (!text.empty() && (text.back() == ' ' || text.back() == '\r' || text.back() == '"' || text.back() == '\t'))
        text.remove_suffix(1);
    return text;
}

std::optional<double> numberOf(std::string_view text)
{
    text = trimmed(text);
    double value = 0;
    const auto read = std::from_chars(text.data(), text.data() + text.size(), value);
    if (read.ec != std::errc {} || read.ptr != text.data() + text.size() || !std::isfinite(value))
        return {};
    return value;
}

/// Digits of a fixed place, "0932" of "093245.25".
std::optional<int> digits(std::string_view text, std::size_t at, std::size_t size)
{
    int value = 0;
    if (at + size > text.size())
        return {};
    const auto read = std::from_chars(text.data() + at, text.data() + at + size, value);
    return read.ec == std::errc {} && read.ptr == text.data() + at + size && value >= 0 ? std::optional(value) : std::nullopt;
}

std::optional<double> dayNumber(int year, int month, int date)
{
    const std::chrono::year_month_day ymd { std::chrono::year { year }, std::chrono::month { static_cast<unsigned>(month) },
        std::chrono::day { static_cast<unsigned>(date) } };
    return ymd.ok() ? std::optional(static_cast<double>(std::chrono::sys_days { ymd }.time_since_epoch().count())) : std::nullopt;
}

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

} // namespace

std::uint8_t nmeaChecksum(std::string_view text)
{
    std::uint8_t sum = 0;
    for (const char c : text)
        sum = static_cast<std::uint8_t>(sum ^ static_cast<std::uint8_t>(c));
    return sum;
}

/// One kind of log.
class TrackReader::Way {
public:
    Way(const std::function<void(const Fix&)>& sink, LogCount& count) : sink_(sink), count_(count) { }
    virtual ~Way() = default;
    virtual void take(std::string_view bytes) = 0;
    virtual void finish() = 0;

protected:
    void give(const Fix& fix)
    {
        ++count_.fixes;
        sink_(fix);
    }
    LogCount& count() { return count_; }
    /// Whole lines out of pieces; `line` sees each without its end.
    template <class Line>
    void lines(std::string_view bytes, Line line)
    {
        for (;;) {
            const auto end = bytes.find('\n');
            if (end == std::string_view::npos) {
                half_ += bytes;
                break;
            }
            if (half_.empty()) {
                line(bytes.substr(0, end));
            } else {
                half_ += bytes.substr(0, end);
                line(std::string_view(half_));
                half_.clear();
            }
            bytes.remove_prefix(end + 1);
        }
        if (half_.size() > longestRow)
            throw Refusal(fmt::format("line {}: has no end. This is no log.", count_.lines + 1));
    }
    template <class Line>
    void lastLine(Line line)
    {
        if (!half_.empty())
            line(std::string_view(half_));
        half_.clear();
    }

private:
    const std::function<void(const Fix&)>& sink_;
    LogCount& count_;
    std::string half_;
};

class TrackReader::Nmea final : public Way {
public:
    using Way::Way;
    void take(std::string_view bytes) override
    {
        lines(bytes, [this](std::string_view line) { sentence(line); });
    }
    void finish() override
    {
        lastLine([this](std::string_view line) { sentence(line); });
        if (count().fixes > 0)
            return;
        if (count().badChecksums > 0 && count().badChecksums + count().unread >= count().lines)
            throw Refusal(fmt::format("of {} sentences none has a right checksum: the log is damaged.", count().lines));
        throw Refusal(
            fmt::format("of {} sentences none tells a speed at a known place: had the receiver no sight of the sky?", count().lines));
    }

private:
    void sentence(std::string_view line)
    {
        line = trimmed(line);
        if (line.empty())
            return;
        ++count().lines;
        const auto star = line.rfind('*');
        if (line.size() < 7 || line.front() != '$' || star == std::string_view::npos || star + 3 > line.size()) {
            ++count().unread;
            return;
        }
        unsigned told = 256;
        const auto read = std::from_chars(line.data() + star + 1, line.data() + star + 3, told, 16);
        const auto body = line.substr(1, star - 1);
        if (read.ec != std::errc {} || read.ptr != line.data() + star + 3 || told != nmeaChecksum(body)) {
            ++count().badChecksums;
            return;
        }
        fields_.clear();
        for (std::size_t at = 0; at <= body.size();) {
            const auto comma = std::min(body.find(',', at), body.size());
            fields_.push_back(body.substr(at, comma - at));
            at = comma + 1;
        }
        const auto kind = fields_.front().size() >= 5 ? fields_.front().substr(2) : std::string_view();
        if (kind == "RMC")
            rmc();
        else if (kind == "GGA")
            gga();
        else if (kind == "VTG")
            vtg();
    }
    [[nodiscard]] std::string_view field(std::size_t i) const { return i < fields_.size() ? fields_[i] : std::string_view(); }
    [[nodiscard]] std::optional<double> clockOf(std::string_view text) const
    {
        const auto hour = digits(text, 0, 2);
        const auto minute = digits(text, 2, 2);
        const double second = text.size() >= 6 ? numberOf(text.substr(4)).value_or(-1) : -1;
        if (!hour || !minute || *hour > 23 || *minute > 59 || second < 0 || second >= 61)
            return {};
        return *hour * 3600 + *minute * 60 + second;
    }
    void rmc()
    {
        constexpr double knot = 1852.0 / 3600;
        const auto clock = clockOf(field(1));
        const auto knots = numberOf(field(7));
        withRmc_ = true;
        if (field(2) == "V") {
            ++count().withoutFix;
            return;
        }
        if (field(2) != "A" || !clock || !knots) {
            ++count().unread;
            return;
        }
        const auto date = digits(field(9), 0, 2);
        const auto month = digits(field(9), 2, 2);
        const auto year = digits(field(9), 4, 2);
        const auto days = date && month && year ? dayNumber(2000 + *year, *month, *date) : std::nullopt;
        moment(*clock, days, *knots * knot);
    }
    void gga()
    {
        const auto clock = clockOf(field(1));
        if (!clock) {
            ++count().unread;
            return;
        }
        fixed_ = field(6) != "0" && !field(6).empty();
        if (!fixed_ && !withRmc_)
            ++count().withoutFix;
        clock_ = *clock;
        height_ = fixed_ ? numberOf(field(9)).value_or(unlogged) : unlogged;
    }
    void vtg()
    {
        const auto kmh = numberOf(field(7));
        // RMC tells all that is wanted in one sentence: where it comes, this one would only tell it twice.
        if (withRmc_ || !clock_ || !fixed_ || !kmh)
            return;
        moment(*clock_, {}, *kmh / 3.6);
        clock_.reset();
    }
    void moment(double clock, std::optional<double> days, double speed)
    {
        if (speed < 0 || speed > fastest) {
            ++count().unread;
            return;
        }
        if (!days && last_ && clock < lastClock_ - day / 2)
            midnights_ += day;
        const double time = days ? *days * day + clock : midnights_ + clock;
        lastClock_ = clock;
        if (!first_)
            first_ = time;
        if (last_ && time <= *last_) {
            ++count().unread;
            return;
        }
        last_ = time;
        give({ time - *first_, speed, height_, unlogged, unlogged, unlogged });
    }

    std::vector<std::string_view> fields_;
    std::optional<double> first_;
    std::optional<double> last_;
    std::optional<double> clock_;
    double lastClock_ = 0;
    double midnights_ = 0;
    double height_ = unlogged;
    bool fixed_ = false;
    bool withRmc_ = false;
};

class TrackReader::Gpx final : public Way {
public:
    Gpx(const std::function<void(const Fix&)>& sink, LogCount& count) : Way(sink, count), parser_(XML_ParserCreate(nullptr))
    {
        XML_SetUserData(parser_, this);
        XML_SetElementHandler(
            parser_, [](void* self, const XML_Char* name, const XML_Char** with) { static_cast<Gpx*>(self)->opened(name, with); },
            [](void* self, const XML_Char* name) { static_cast<Gpx*>(self)->closed(name); });
        XML_SetCharacterDataHandler(parser_, [](void* self, const XML_Char* text, int size) {
            auto* me = static_cast<Gpx*>(self);
            // No number or time is longer.
            constexpr std::size_t most = 64;
            if (me->letters_.size() < most)
                me->letters_.append(text, static_cast<std::size_t>(size));
        });
        // A log declares no entities: whoever does wants something else.
        XML_SetEntityDeclHandler(parser_,
            [](void* self, const XML_Char*, int, const XML_Char*, int, const XML_Char*, const XML_Char*, const XML_Char*, const XML_Char*) {
                auto* me = static_cast<Gpx*>(self);
                me->wrong_ = "it declares entities, which no log does.";
                XML_StopParser(me->parser_, XML_FALSE);
            });
    }
    ~Gpx() override { XML_ParserFree(parser_); }
    Gpx(const Gpx&) = delete;
    Gpx& operator=(const Gpx&) = delete;
    void take(std::string_view bytes) override { parse(bytes, false); }
    void finish() override
    {
        parse({}, true);
        if (!seenGpx_)
            throw Refusal("this is no GPX file: it has no gpx element.");
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
        const auto status = XML_Parse(parser_, bytes.data(), static_cast<int>(bytes.size()), last ? XML_TRUE : XML_FALSE);
        if (!wrong_.empty())
            throw Refusal(wrong_);
        if (status == XML_STATUS_ERROR)
            throw Refusal(fmt::format("line {}: {}.", XML_GetCurrentLineNumber(parser_), XML_ErrorString(XML_GetErrorCode(parser_))));
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
            return stop(fmt::format("track point {}: lacks its time or its place.", count().lines));
        if (now_ && point_.time <= now_->time)
            return stop(fmt::format("track point {}: the time runs backwards or stands.", count().lines));
        if (now_)
            settle(point_);
        if (!first_)
            first_ = point_.time;
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
            return stop(fmt::format("track point {}: a speed of {:.0f} km/h cannot be.", count().lines - (next ? 1 : 0), speed * 3.6));
        give({ now_->time - *first_, speed, now_->height, unlogged, unlogged, unlogged });
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
    std::string letters_;
    std::string wrong_;
    Point point_ {};
    std::optional<Point> was_;
    std::optional<Point> now_;
    std::optional<double> first_;
    bool in_ = false;
    bool seenGpx_ = false;
};

class TrackReader::Csv final : public Way {
public:
    using Way::Way;
    void take(std::string_view bytes) override
    {
        lines(bytes, [this](std::string_view line) { row(line); });
    }
    void finish() override
    {
        lastLine([this](std::string_view line) { row(line); });
    }

private:
    enum What { Time, Speed, Height, Acceleration, Pressure, Temperature, Whats };
    struct Column {
        std::size_t at = 0;
        double scale = 1;
        double shift = 0;
        bool there = false;
    };
    void header(std::string_view line)
    {
        separator_ = guessSeparator(line);
        split(line);
        for (std::size_t i = 0; i < cells_.size(); ++i) {
            std::string name;
            for (const char c : trimmed(cells_[i]))
                if (c != ' ')
                    name += toLower(c);
            const auto has = [&](std::string_view part) { return name.find(part) != std::string::npos; };
            const auto is = [&](What what, double scale = 1, double shift = 0) {
                if (!columns_[what].there)
                    columns_[what] = { i, scale, shift, true };
            };
            if (name == "time" || name == "time_s" || name == "t" || name == "seconds" || name == "time(s)")
                is(Time);
            else if (name == "time_ms")
                is(Time, 1e-3);
            else if (name.starts_with("speed") || name == "v")
                is(Speed, has("mph") ? 0.44704 : has("mps") || has("m/s") ? 1 : has("kn") && !has("km") ? 1852.0 / 3600 : 1 / 3.6);
            else if (name.starts_with("height") || name.starts_with("altitude") || name == "ele")
                is(Height, has("_ft") ? 0.3048 : 1);
            else if (name.starts_with("accel") || name.starts_with("deceleration"))
                is(Acceleration, (has("mps2") || has("m/s") ? 1 : 9.80665) * (name.starts_with("decel") ? -1 : 1));
            else if (name.starts_with("pressure"))
                is(Pressure, has("psi") ? 6894.757293168 : has("kpa") ? 1e3 : has("mpa") ? 1e6 : 1e5);
            else if (name.starts_with("temp"))
                is(Temperature, has("degf") ? 5.0 / 9 : 1, has("degf") ? 273.15 - 32 * 5.0 / 9 : 273.15);
        }
        if (!columns_[Time].there || !columns_[Speed].there)
            throw Refusal("line 1: name a column for the time (time_s) and one for the speed (speed_kmh, speed_mph or speed_mps).");
    }
    void split(std::string_view line)
    {
        cells_.clear();
        for (std::size_t at = 0; at <= line.size();) {
            const auto end = std::min(line.find(separator_, at), line.size());
            cells_.push_back(line.substr(at, end - at));
            at = end + 1;
        }
    }
    /// A cell in SI; nothing where it is no number.
    [[nodiscard]] std::optional<double> cell(What what)
    {
        const Column& column = columns_[what];
        if (!column.there || column.at >= cells_.size())
            return {};
        auto text = cells_[column.at];
        if (separator_ != ',' && text.find(',') != std::string_view::npos) {
            dotted_.assign(text);
            std::ranges::replace(dotted_, ',', '.');
            text = dotted_;
        }
        const auto value = numberOf(text);
        return value ? std::optional(*value * column.scale + column.shift) : std::nullopt;
    }
    void row(std::string_view line)
    {
        ++count().lines;
        if (trimmed(line).empty())
            return;
        if (separator_ == 0)
            return header(line);
        split(line);
        const auto where = [this] { return fmt::format("line {}: ", count().lines); };
        if (cells_.size() <= std::max(columns_[Time].at, columns_[Speed].at))
            throw Refusal(where() + "too few columns.");
        const auto time = cell(Time);
        const auto speed = cell(Speed);
        if (!time || !speed)
            throw Refusal(where() + fmt::format("“{}” is no number.", trimmed(cells_[columns_[time ? Speed : Time].at])));
        if (*speed < 0 || *speed > fastest)
            throw Refusal(where() + fmt::format("a speed of {} cannot be.", trimmed(cells_[columns_[Speed].at])));
        if (!first_)
            first_ = *time;
        else if (*time <= last_)
            throw Refusal(where() + "the time runs backwards or stands.");
        last_ = *time;
        give({ *time - *first_, *speed, cell(Height).value_or(unlogged), cell(Acceleration).value_or(unlogged),
            cell(Pressure).value_or(unlogged), cell(Temperature).value_or(unlogged) });
    }

    char separator_ = 0;
    std::vector<std::string_view> cells_;
    std::array<Column, Whats> columns_ {};
    std::string dotted_;
    std::optional<double> first_;
    double last_ = 0;
};

TrackReader::TrackReader(std::function<void(const Fix&)> sink, Kind kind) : sink_(std::move(sink))
{
    if (kind == Kind::Nmea)
        way_ = std::make_unique<Nmea>(sink_, count_);
}

TrackReader::~TrackReader() = default;

const LogCount& TrackReader::count() const { return count_; }

void TrackReader::take(std::string_view bytes)
{
    if (!way_) {
        begin_ += bytes;
        const auto start = begin_.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
        if (start == std::string::npos)
            return;
        const char first = begin_[start];
        if (first == '<')
            way_ = std::make_unique<Gpx>(sink_, count_);
        else if (first == '$')
            way_ = std::make_unique<Nmea>(sink_, count_);
        else
            way_ = std::make_unique<Csv>(sink_, count_);
        const auto kept = std::exchange(begin_, {});
        way_->take(std::string_view(kept).substr(start));
        return;
    }
    way_->take(bytes);
}

void TrackReader::finish()
{
    if (!way_)
        throw Refusal("the log is empty.");
    way_->finish();
    if (count_.fixes == 0)
        throw Refusal("the log has no line with a speed.");
}

bool readTrack(const std::string& path, TrackReader& reader, const std::function<bool(double)>& progress)
{
    std::error_code none;
    if (!std::filesystem::is_regular_file(path, none))
        throw Refusal(path + (std::filesystem::exists(path, none) ? ": is not a file." : ": there is no such file."));
    std::ifstream in(path, std::ios::binary);
    if (!in)
        throw Refusal(path + ": cannot be read. Look at its permissions.");
    const auto size = static_cast<double>(std::max<std::uintmax_t>(1, std::filesystem::file_size(path, none)));
    std::vector<char> piece(1 << 20);
    double read = 0;
    try {
        while (in) {
            in.read(piece.data(), static_cast<std::streamsize>(piece.size()));
            const auto got = in.gcount();
            reader.take({ piece.data(), static_cast<std::size_t>(got) });
            read += static_cast<double>(got);
            if (progress && !progress(std::min(1.0, read / size)))
                return false;
        }
        if (in.bad())
            throw Refusal("reading it broke off.");
        reader.finish();
    } catch (const Refusal& refusal) {
        throw Refusal(path + ": " + refusal.what());
    }
    return true;
}

} // namespace deepstop::files
