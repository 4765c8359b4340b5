#pragma once
/// Inside files/: the kinds of logs behind one face, and what their readers share.

#include "files/refusal.hpp"
#include "files/track_log.hpp"
#include "language/language.hpp"
#include "quantity/date.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>
#include <limits>
#include <optional>
#include <string>
#include <vector>

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

/// Splits a row at its separators; what stands in quotes is one cell, its quotes with it.
inline void splitRow(std::string_view row, char separator, std::vector<std::string_view>& cells)
{
    cells.clear();
    bool quoted = false;
    std::size_t from = 0;
    for (std::size_t at = 0; at < row.size(); ++at) {
        quoted = quoted != (row[at] == '"');
        if (row[at] == separator && !quoted) {
            cells.push_back(row.substr(from, at - from));
            from = at + 1;
        }
    }
    cells.push_back(row.substr(from));
}

/// A cell's number. A comma in it is its decimal sign; in a log whose cells are parted by commas it can stand there in quotes alone, and
/// with just three digits behind it nobody knows whether it is one or parts thousands: no number.
[[nodiscard]] inline std::optional<double> numberOfCell(std::string_view cell, char separator)
{
    const auto text = trimmed(cell);
    const auto comma = text.find(',');
    if (comma == std::string_view::npos)
        return numberOf(text);
    if (separator == ',' && text.size() - comma - 1 == 3)
        return {};
    std::string dotted(text);
    dotted[comma] = '.';
    return numberOf(dotted);
}

/// Puts moments in the order of their times. One that does not follow the one before is left out; where the next follows it in turn, the
/// clock was set, and it goes on from there after a gap.
class Clock {
public:
    explicit Clock(LogCount& count) : count_(count) { }
    /// Seconds from the first moment; nothing for one that is left out.
    [[nodiscard]] std::optional<double> place(double time)
    {
        constexpr double longGap = 3600; // s; a logger that was off so long
        constexpr double near = 10; // s, between two moments of one run
        constexpr double setGap = 60; // s, put where a clock was set: no stop goes over it
        if (!last_) {
            last_ = time;
            shift_ = -time;
            return 0.0;
        }
        if (time > *last_ && time - *last_ < longGap) {
            astray_.reset();
            last_ = time;
            return time + shift_;
        }
        ++count_.outOfTime;
        const bool follows = astray_ && time > *astray_ && time - *astray_ < near;
        if (!follows) {
            astray_ = time;
            return {};
        }
        // Two in a row agree: a logger that was off for long, or a clock that was set back.
        --count_.outOfTime;
        if (time < *last_) {
            ++count_.clockJumps;
            shift_ = *last_ + shift_ + setGap - time;
        }
        last_ = time;
        astray_.reset();
        return time + shift_;
    }

private:
    LogCount& count_;
    std::optional<double> last_;
    std::optional<double> astray_; ///< time of the moment that was left out last, where none has followed since
    double shift_ = 0;
};

} // namespace track

/// One kind of log.
class LogParser {
public:
    LogParser(const std::function<void(const Fix&)>& sink, LogCount& count) : sink_(sink), count_(count) { }
    virtual ~LogParser() = default;
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
            throw Refusal(tr("line {}: has no end. This is no log.", count_.lines + 1));
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

[[nodiscard]] std::unique_ptr<LogParser> nmeaWay(const std::function<void(const Fix&)>& sink, LogCount& count);
[[nodiscard]] std::unique_ptr<LogParser> gpxWay(const std::function<void(const Fix&)>& sink, LogCount& count);
[[nodiscard]] std::unique_ptr<LogParser> csvWay(
    const std::function<void(const Fix&)>& sink, LogCount& count, std::optional<LogColumns> columns);

} // namespace deepstop::files
