#include "files/track_ways.hpp"

#include "files/log_columns.hpp"
#include "language/language.hpp"
#include "quantity/unit.hpp"

#include <algorithm>
#include <array>

namespace deepstop::files {
namespace {

using namespace track;

class CsvWay final : public LogParser {
public:
    CsvWay(const std::function<void(const Fix&)>& sink, LogCount& count, std::optional<LogColumns> said)
        : LogParser(sink, count), said_(std::move(said))
    {
    }
    void take(std::string_view bytes) override
    {
        lines(bytes, [this](std::string_view line) { row(line); });
    }
    void finish() override
    {
        lastLine([this](std::string_view line) { row(line); });
    }

private:
    struct Column {
        std::size_t at = 0;
        const Unit* unit = nullptr;
        double sign = 1;
    };
    void header(std::string_view line)
    {
        if (!said_)
            said_ = columnsNamed(line, count().lines);
        separator_ = said_->separator;
        for (std::size_t i = 0; i < said_->columns.size(); ++i) {
            const LogColumn& column = said_->columns[i];
            const bool slows = column.logged == Logged::Deceleration;
            const auto what = static_cast<std::size_t>(slows ? Logged::Acceleration : column.logged);
            if (column.logged != Logged::Nothing && !columns_[what].unit)
                columns_[what] = { i, column.unit, slows ? -1.0 : 1.0 };
        }
    }
    [[nodiscard]] const Column& columnOf(Logged what) const { return columns_[static_cast<std::size_t>(what)]; }
    /// Seconds of a clock's h:m:s.
    [[nodiscard]] std::optional<double> clock(std::string_view text) const
    {
        text = trimmed(text);
        double seconds = 0;
        for (int parts = 0; parts < 3; ++parts) {
            const auto end = std::min(text.find(':'), text.size());
            const auto part = numberOfCell(text.substr(0, end), separator_);
            if (!part || *part < 0)
                return {};
            seconds = 60 * seconds + *part;
            if (end == text.size())
                return seconds;
            text.remove_prefix(end + 1);
        }
        return {};
    }
    /// A cell in SI; nothing where it is no number.
    [[nodiscard]] std::optional<double> cell(Logged what)
    {
        const Column& column = columns_[static_cast<std::size_t>(what)];
        if (!column.unit || column.at >= cells_.size())
            return {};
        const auto text = cells_[column.at];
        const auto value = what == Logged::Time && text.find(':') != std::string_view::npos ? clock(text) : numberOfCell(text, separator_);
        return value ? std::optional(column.sign * toSi(*value, *column.unit)) : std::nullopt;
    }
    void row(std::string_view line)
    {
        ++count().lines;
        if (trimmed(line).empty() || (said_ && count().lines < said_->header))
            return;
        if (separator_ == 0)
            return header(line);
        splitRow(line, separator_, cells_);
        const auto at = count().lines;
        if (cells_.size() <= std::max(columnOf(Logged::Time).at, columnOf(Logged::Speed).at))
            throw Refusal(tr("line {}: too few columns.", at));
        const auto time = cell(Logged::Time);
        const auto speed = cell(Logged::Speed);
        if (!time || !speed)
            throw Refusal(tr("line {}: “{}” is no number.", at, trimmed(cells_[columnOf(time ? Logged::Speed : Logged::Time).at])));
        if (*speed < 0 || *speed > fastest)
            throw Refusal(tr("line {}: a speed of {} cannot be.", at, trimmed(cells_[columnOf(Logged::Speed).at])));
        if (!first_)
            first_ = *time;
        else if (*time <= last_)
            throw Refusal(tr("line {}: the time runs backwards or stands.", at));
        last_ = *time;
        give({ *time - *first_, *speed, cell(Logged::Height).value_or(unlogged), cell(Logged::Acceleration).value_or(unlogged),
            cell(Logged::Pressure).value_or(unlogged), cell(Logged::Temperature).value_or(unlogged) });
    }

    char separator_ = 0;
    std::vector<std::string_view> cells_;
    std::optional<LogColumns> said_;
    std::array<Column, loggedKinds> columns_ {};
    std::optional<double> first_;
    double last_ = 0;
};

} // namespace

std::unique_ptr<LogParser> csvWay(const std::function<void(const Fix&)>& sink, LogCount& count, std::optional<LogColumns> columns)
{
    return std::make_unique<CsvWay>(sink, count, std::move(columns));
}

} // namespace deepstop::files
