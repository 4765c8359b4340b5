#include "files/track_ways.hpp"

#include "files/csv.hpp"
#include "quantity/text.hpp"
#include "quantity/unit.hpp"

#include <algorithm>
#include <array>
#include <vector>

namespace deepstop::files {
namespace {

using namespace track;

class CsvWay final : public TrackWay {
public:
    using TrackWay::TrackWay;
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
        const Unit* unit = nullptr;
        double sign = 1;
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
            // A name begins with what it is; the unit stands behind its last underline, or in brackets.
            const auto is = [&](What what, Dimension dimension, std::string_view usual) {
                const auto from = name.find_last_of("_(");
                const auto until = name.find(')');
                const auto word = from == std::string::npos ? std::string()
                                                            : name.substr(from + 1, until == std::string::npos ? until : until - from - 1);
                const Unit* unit = findUnit(word.empty() ? usual : std::string_view(word), dimension);
                // Taken for the usual one it would be a wrong log that looks right.
                if (!unit)
                    throw Refusal(fmt::format("line 1: “{}”: {} is no unit of {}; name the column with one, as in speed_kmh or time_s.",
                        trimmed(cells_[i]), word, nameOf(dimension)));
                if (!columns_[what].there)
                    columns_[what] = { i, unit, name.starts_with("decel") ? -1.0 : 1.0, true };
            };
            if (name == "t" || name == "seconds" || name == "time" || name.starts_with("time_") || name.starts_with("time("))
                is(Time, Dimension::Time, "s");
            else if (name.starts_with("speed") || name == "v")
                is(Speed, Dimension::Speed, "km/h");
            else if (name.starts_with("height") || name.starts_with("altitude") || name == "ele")
                is(Height, Dimension::Length, "m");
            else if (name.starts_with("accel") || name.starts_with("deceleration"))
                is(Acceleration, Dimension::Acceleration, "g");
            else if (name.starts_with("pressure"))
                is(Pressure, Dimension::Pressure, "bar");
            else if (name.starts_with("temp"))
                is(Temperature, Dimension::Temperature, "°C");
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
        return value ? std::optional(column.sign * toSi(*value, *column.unit)) : std::nullopt;
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

} // namespace

std::unique_ptr<TrackWay> csvWay(const std::function<void(const Fix&)>& sink, LogCount& count)
{
    return std::make_unique<CsvWay>(sink, count);
}

} // namespace deepstop::files
