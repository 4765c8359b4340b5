#pragma once
/// Inside files/: the kinds of logs behind one face, and what their readers share.

#include "files/refusal.hpp"
#include "files/track_log.hpp"

#include <fmt/format.h>

#include <charconv>
#include <chrono>
#include <cmath>
#include <limits>
#include <optional>

namespace deepstop::files {

namespace track {

inline constexpr double unlogged = std::numeric_limits<double>::quiet_NaN();
inline constexpr double fastest = 200; ///< m/s
inline constexpr std::size_t longestRow = 64 * 1024;
inline constexpr double day = 86'400; ///< s

[[nodiscard]] inline std::string_view trimmed(std::string_view text)
{
    while (!text.empty() && (text.front() == ' ' || text.front() == '"' || text.front() == '\t'))
        text.remove_prefix(1);
    while (!text.empty() && (text.back() == ' ' || text.back() == '\r' || text.back() == '"' || text.back() == '\t'))
        text.remove_suffix(1);
    return text;
}

[[nodiscard]] inline std::optional<double> numberOf(std::string_view text)
{
    text = trimmed(text);
    double value = 0;
    const auto read = std::from_chars(text.data(), text.data() + text.size(), value);
    if (read.ec != std::errc {} || read.ptr != text.data() + text.size() || !std::isfinite(value))
        return {};
    return value;
}

/// Digits of a fixed place, "0932" of "093245.25".
[[nodiscard]] inline std::optional<int> digits(std::string_view text, std::size_t at, std::size_t size)
{
    int value = 0;
    if (at + size > text.size())
        return {};
    const auto read = std::from_chars(text.data() + at, text.data() + at + size, value);
    return read.ec == std::errc {} && read.ptr == text.data() + at + size && value >= 0 ? std::optional(value) : std::nullopt;
}

/// Days since 1970; nothing for no day of the calendar.
[[nodiscard]] inline std::optional<double> dayNumber(int year, int month, int date)
{
    const std::chrono::year_month_day ymd { std::chrono::year { year }, std::chrono::month { static_cast<unsigned>(month) },
        std::chrono::day { static_cast<unsigned>(date) } };
    return ymd.ok() ? std::optional(static_cast<double>(std::chrono::sys_days { ymd }.time_since_epoch().count())) : std::nullopt;
}

} // namespace track

/// One kind of log.
class TrackWay {
public:
    TrackWay(const std::function<void(const Fix&)>& sink, LogCount& count) : sink_(sink), count_(count) { }
    virtual ~TrackWay() = default;
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
        if (half_.size() > track::longestRow)
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

[[nodiscard]] std::unique_ptr<TrackWay> nmeaWay(const std::function<void(const Fix&)>& sink, LogCount& count);
[[nodiscard]] std::unique_ptr<TrackWay> gpxWay(const std::function<void(const Fix&)>& sink, LogCount& count);
[[nodiscard]] std::unique_ptr<TrackWay> csvWay(
    const std::function<void(const Fix&)>& sink, LogCount& count, std::optional<LogColumns> columns);

} // namespace deepstop::files
