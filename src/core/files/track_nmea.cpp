#include "files/track_ways.hpp"
#include "language/language.hpp"

#include <algorithm>
#include <vector>

namespace deepstop::files {

std::uint8_t nmeaChecksum(std::string_view text)
{
    std::uint8_t sum = 0;
    for (const char c : text)
        sum = static_cast<std::uint8_t>(sum ^ static_cast<std::uint8_t>(c));
    return sum;
}

namespace {

using namespace track;

class NmeaWay final : public LogParser {
public:
    using LogParser::LogParser;
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
            throw Refusal(tr("of {} sentences none has a right checksum: the log is damaged.", count().lines));
        throw Refusal(tr("of {} sentences none tells a speed at a known place: had the receiver no sight of the sky?", count().lines));
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
        if (days && count().day.empty())
            count().day = dateOf(static_cast<int>(*days));
        last_ = time;
        if (const auto placed = placing_.place(time))
            give({ *placed, speed, height_, unlogged, unlogged, unlogged });
    }

    std::vector<std::string_view> fields_;
    Clock placing_ { count() };
    std::optional<double> last_;
    std::optional<double> clock_;
    double lastClock_ = 0;
    double midnights_ = 0;
    double height_ = unlogged;
    bool fixed_ = false;
    bool withRmc_ = false;
};

} // namespace

std::unique_ptr<LogParser> nmeaWay(const std::function<void(const Fix&)>& sink, LogCount& count)
{
    return std::make_unique<NmeaWay>(sink, count);
}

} // namespace deepstop::files
