#include "files/log_columns.hpp"

#include "files/csv.hpp"
#include "files/refusal.hpp"
#include "files/track_ways.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <filesystem>
#include <fstream>

namespace deepstop::files {
namespace {

struct Kind {
    Logged logged;
    std::string_view name;
    Dimension dimension;
    std::string_view usual;
};
constexpr std::array<Kind, loggedKinds> kinds { {
    { Logged::Nothing, marked("passed over"), Dimension::Number, "" },
    { Logged::Time, marked("time"), Dimension::Time, "s" },
    { Logged::Speed, marked("speed"), Dimension::Speed, "km/h" },
    { Logged::Height, marked("height"), Dimension::Length, "m" },
    { Logged::Acceleration, marked("acceleration"), Dimension::Acceleration, "g" },
    { Logged::Deceleration, marked("deceleration"), Dimension::Acceleration, "g" },
    { Logged::Pressure, marked("pressure"), Dimension::Pressure, "bar" },
    { Logged::Temperature, marked("temperature"), Dimension::Temperature, "°C" },
} };
const Kind& kindOf(Logged logged) { return kinds[static_cast<std::size_t>(logged)]; }

std::string lowered(std::string_view text)
{
    std::string name;
    for (const char c : track::trimmed(text))
        if (c != ' ')
            name += toLower(c);
    return name;
}

Logged loggedIn(std::string_view name)
{
    if (name == "t" || name == "seconds" || name == "time" || name.starts_with("time_") || name.starts_with("time("))
        return Logged::Time;
    if (name.starts_with("speed") || name == "v")
        return Logged::Speed;
    if (name.starts_with("height") || name.starts_with("altitude") || name == "ele")
        return Logged::Height;
    if (name.starts_with("decel"))
        return Logged::Deceleration;
    if (name.starts_with("accel"))
        return Logged::Acceleration;
    if (name.starts_with("pressure"))
        return Logged::Pressure;
    return name.starts_with("temp") ? Logged::Temperature : Logged::Nothing;
}

/// The unit a name ends in, behind the last underline or in brackets; empty where it ends in none.
std::string_view unitIn(std::string_view name)
{
    const auto from = name.find_last_of("_([");
    if (from == std::string_view::npos)
        return {};
    const auto until = name.find_first_of(")]", from);
    return name.substr(from + 1, until == std::string_view::npos ? until : until - from - 1);
}

std::vector<std::string_view> cellsOf(std::string_view line, char separator)
{
    std::vector<std::string_view> cells;
    track::splitRow(line, separator, cells);
    for (auto& cell : cells)
        cell = track::trimmed(cell);
    return cells;
}

/// A cell that holds a number, or nothing: a logger leaves out what it has not read.
bool isNumber(std::string_view cell, char separator) { return track::numberOfCell(cell, separator).has_value(); }

LogColumn columnNamed(std::string_view header)
{
    LogColumn column { std::string(track::trimmed(header)), Logged::Nothing, nullptr, true };
    const auto name = lowered(header);
    column.logged = loggedIn(name);
    if (column.logged == Logged::Nothing)
        return column;
    const auto word = unitIn(name);
    column.unitSaid = !word.empty();
    column.unit = findUnit(word.empty() ? kindOf(column.logged).usual : word, dimensionOf(column.logged));
    return column;
}

LogColumns columnsGuessed(std::string_view header, std::size_t line)
{
    LogColumns all;
    all.header = line;
    all.separator = guessSeparator(header);
    for (const auto cell : cellsOf(header, all.separator)) {
        LogColumn column = columnNamed(cell);
        // The first of two alike is taken.
        if (std::ranges::find(all.columns, column.logged, &LogColumn::logged) != all.columns.end())
            column = { column.name, Logged::Nothing, nullptr, true };
        all.columns.push_back(std::move(column));
    }
    return all;
}

} // namespace

std::string_view nameOf(Logged logged) { return kindOf(logged).name; }
Dimension dimensionOf(Logged logged) { return kindOf(logged).dimension; }

std::string LogColumns::lacks() const
{
    for (const Logged wanted : { Logged::Time, Logged::Speed })
        if (const auto count = std::ranges::count(columns, wanted, &LogColumn::logged); count != 1)
            return count == 0 ? tr("no column is the {}", tr(nameOf(wanted))) : tr("two columns are the {}", tr(nameOf(wanted)));
    for (const LogColumn& each : columns)
        if (each.logged != Logged::Nothing && !each.unit)
            return tr("“{}” has no unit yet", each.name);
    return {};
}

bool LogColumns::sure() const
{
    return lacks().empty() && std::ranges::all_of(columns, [](const LogColumn& c) { return c.logged == Logged::Nothing || c.unitSaid; });
}

LogColumns columnsNamed(std::string_view header, std::size_t line)
{
    LogColumns all = columnsGuessed(header, line);
    for (const LogColumn& each : all.columns)
        // Taken for the usual one it would be a wrong log that looks right.
        if (each.logged != Logged::Nothing && !each.unit)
            throw Refusal(tr("line {}: “{}”: {} is no unit of {}; name the column with one, as in speed_kmh or time_s.", line, each.name,
                unitIn(lowered(each.name)), tr(deepstop::nameOf(dimensionOf(each.logged)))));
    if (!all.lacks().empty())
        throw Refusal(tr("line {}: {}: name a column for the time (time_s) and one for the speed (speed_kmh, speed_mph or speed_mps).",
            line, all.lacks()));
    return all;
}

std::optional<LogHead> headOfLog(const std::string& path)
{
    // What is no file may never come to an end.
    std::error_code none;
    std::ifstream in;
    if (std::filesystem::is_regular_file(path, none))
        in.open(path, std::ios::binary);
    if (!in.is_open())
        return {};
    std::string text(track::longestRow, '\0');
    in.read(text.data(), static_cast<std::streamsize>(text.size()));
    text.resize(static_cast<std::size_t>(in.gcount()));
    if (text.starts_with("\xEF\xBB\xBF"))
        text.erase(0, 3);
    const auto start = text.find_first_not_of(" \t\r\n");
    if (start == std::string::npos || text[start] == '<' || text[start] == '$')
        return {};
    std::vector<std::string_view> lines;
    for (std::string_view rest = text; !rest.empty();) {
        const auto end = rest.find('\n');
        auto line = rest.substr(0, end);
        if (line.ends_with('\r'))
            line.remove_suffix(1);
        lines.push_back(line);
        rest.remove_prefix(end == std::string_view::npos ? rest.size() : end + 1);
    }
    constexpr std::size_t furthest = 60;
    for (std::size_t i = 1; i < std::min(lines.size(), furthest); ++i) {
        const char separator = guessSeparator(lines[i - 1]);
        const auto names = cellsOf(lines[i - 1], separator);
        const auto cells = cellsOf(lines[i], separator);
        const auto numbers = std::ranges::count_if(cells, [&](auto cell) { return isNumber(cell, separator); });
        if (names.size() < 2 || cells.size() != names.size() || numbers < 2 || isNumber(names.front(), separator))
            continue;
        LogHead head { columnsGuessed(lines[i - 1], i), {} };
        constexpr std::size_t shown = 3;
        for (std::size_t k = i; k < std::min(lines.size(), i + shown); ++k) {
            const auto row = cellsOf(lines[k], separator);
            head.rows.emplace_back(row.begin(), row.end());
            head.rows.back().resize(names.size());
        }
        return head;
    }
    return {};
}

LogColumns columnsSaid(LogColumns guessed, std::string_view words)
{
    for (const auto each : cellsOf(words, ',')) {
        const auto is = each.find('=');
        const auto colon = each.rfind(':');
        const auto wrong = [&](std::string_view what) {
            throw Refusal(tr("“{}”: {}. Say it as in time=Clock:s or speed=4:mph.", each, what));
        };
        if (is == std::string_view::npos || colon == std::string_view::npos || colon < is)
            wrong(tr("no column and unit"));
        const auto what = track::trimmed(each.substr(0, is));
        const auto name = track::trimmed(each.substr(is + 1, colon - is - 1));
        const auto unit = track::trimmed(each.substr(colon + 1));
        const auto kind = std::ranges::find(kinds, what, &Kind::name);
        if (kind == kinds.end() || kind->logged == Logged::Nothing)
            wrong(tr("this is none of time, speed, height, acceleration, deceleration, pressure, temperature"));
        auto column = std::ranges::find(guessed.columns, name, &LogColumn::name);
        if (const auto number = track::numberOf(name); column == guessed.columns.end() && number && *number >= 1
            && *number <= static_cast<double>(guessed.columns.size()) && *number == std::floor(*number))
            column = guessed.columns.begin() + static_cast<std::ptrdiff_t>(*number) - 1;
        if (column == guessed.columns.end())
            wrong(tr("there is no such column"));
        const Unit* found = findUnit(unit, kind->dimension);
        if (!found)
            wrong(tr("{} is no unit of {}", unit, tr(deepstop::nameOf(kind->dimension))));
        for (LogColumn& other : guessed.columns)
            if (other.logged == kind->logged)
                other = { other.name, Logged::Nothing, nullptr, true };
        *column = { column->name, kind->logged, found, true };
    }
    return guessed;
}

} // namespace deepstop::files
