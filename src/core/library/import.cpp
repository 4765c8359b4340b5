#include "library/import.hpp"

#include "files/csv.hpp"
#include "files/json_fields.hpp"
#include "files/json_text.hpp"
#include "files/refusal.hpp"
#include "quantity/parse.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cctype>
#include <unordered_map>

namespace deepstop::library {
namespace {

/// Collects the names of the fields a cell can fill.
class Names : public PartVisitor<Names> {
public:
    std::vector<FieldName> names;

    void reading(std::string_view key, std::string_view label, const Style& style, Range, Reading&)
    {
        names.push_back({ std::string(key), std::string(label), &files::unitOfKey(key, style), style.dimension });
    }
    void readings(std::string_view key, std::string_view label, const Style& style, Range range, std::vector<Reading>&)
    {
        Reading none;
        reading(key, label, style, range, none);
    }
    void text(std::string_view key, std::string_view label, std::string&) { other(key, label); }
    void count(std::string_view key, std::string_view label, int&) { other(key, label); }
    void plain(std::string_view key, std::string_view label, double&) { other(key, label); }
    template <class E, class T>
    void choice(std::string_view key, std::string_view label, E&, const T&)
    {
        other(key, label);
    }

private:
    void other(std::string_view key, std::string_view label)
    {
        // The part lies in its shelf's record; in a list both are one line. Its own id and origin are the shelf's business.
        const bool shelfs = key == "from" || (key == "id" && !names.empty());
        names.push_back({ shelfs ? std::string() : std::string(key), std::string(label), nullptr, Dimension::Number });
    }
};

/// Puts the cells of one line into a part, field by field in the same order.
class Filler : public PartVisitor<Filler> {
public:
    Filler(const std::vector<int>& columns, const std::vector<Column>& plan, const std::vector<std::string>& cells, Known known)
        : columns_(columns), plan_(plan), cells_(cells), known_(known)
    {
    }
    std::string why; ///< the first thing that cannot be taken

    void reading(std::string_view, std::string_view label, const Style& style, Range range, Reading& r)
    {
        if (const auto* cell = next())
            take(*cell, label, style, range, r);
    }
    void readings(std::string_view, std::string_view label, const Style& style, Range range, std::vector<Reading>& list)
    {
        const auto* cell = next();
        if (!cell)
            return;
        for (std::size_t at = 0; at <= cell->size() && why.empty();) {
            const auto end = std::min(cell->find_first_of("+;", at), cell->size());
            list.emplace_back();
            take(cell->substr(at, end - at), label, style, range, list.back());
            at = end + 1;
        }
    }
    void text(std::string_view, std::string_view, std::string& value)
    {
        if (const auto* cell = next())
            // An apostrophe that set off what looks like a formula is not part of it.
            value = cell->substr(cell->size() > 1 && cell->front() == '\'' && std::string_view("=+@").find((*cell)[1]) != std::string_view::npos, 400);
    }
    void count(std::string_view, std::string_view label, int& value)
    {
        if (const auto* cell = next()) {
            const auto read = std::from_chars(cell->data(), cell->data() + cell->size(), value);
            if (read.ec != std::errc {} || read.ptr != cell->data() + cell->size() || value < 0 || value > 10000)
                refuse(label, *cell, "a whole number from 0 is wanted");
        }
    }
    void plain(std::string_view, std::string_view label, double& value)
    {
        if (const auto* cell = next()) {
            const auto parsed = parseQuantity(*cell, Dimension::Number, "");
            if (!parsed || *parsed.value < 0)
                refuse(label, *cell, "a number from 0 is wanted");
            else
                value = *parsed.value;
        }
    }
    template <class E, class T>
    void choice(std::string_view, std::string_view label, E& value, const T& table)
    {
        const auto* cell = next();
        if (!cell)
            return;
        std::string words;
        for (const auto& [word, candidate] : table) {
            if (word == *cell) {
                value = candidate;
                return;
            }
            words += (words.empty() ? "" : ", ") + std::string(word);
        }
        refuse(label, *cell, "one of " + words + " is wanted");
    }

private:
    /// The cell of the next field; null where no column has it, or it is empty.
    const std::string* next()
    {
        column_ = columns_[field_++];
        if (column_ < 0 || static_cast<std::size_t>(column_) >= cells_.size() || !why.empty())
            return nullptr;
        const auto& cell = cells_[static_cast<std::size_t>(column_)];
        return cell.find_first_not_of(" \t") == std::string::npos ? nullptr : &cell;
    }
    void take(const std::string& cell, std::string_view label, const Style& style, Range range, Reading& r)
    {
        const Unit& unit = *plan_[static_cast<std::size_t>(column_)].unit;
        double value = 0;
        // Nearly every cell is a plain number; whatever is not goes the careful way.
        const auto read = std::from_chars(cell.data(), cell.data() + cell.size(), value, std::chars_format::fixed);
        if (read.ec == std::errc {} && read.ptr == cell.data() + cell.size()) {
            value = toSi(value, unit);
        } else {
            const auto parsed = parseQuantity(cell, style.dimension, unit);
            if (!parsed) {
                refuse(label, cell, parsed.refusal);
                return;
            }
            value = *parsed.value;
        }
        if (!std::isfinite(value) || (range == Range::Positive && value <= 0) || (range == Range::NotNegative && value < 0)) {
            refuse(label, cell, range == Range::Positive ? "must be more than 0" : "cannot be less than 0");
            return;
        }
        r.value = value;
        r.known = known_;
    }
    void refuse(std::string_view label, const std::string& cell, const std::string& reason)
    {
        if (why.empty())
            why = fmt::format("{} “{}”: {}", label, cell.substr(0, 40), reason);
    }

    const std::vector<int>& columns_;
    const std::vector<Column>& plan_;
    const std::vector<std::string>& cells_;
    Known known_;
    std::size_t field_ = 0;
    int column_ = -1;
};

/// Writes the cells of one part in the order of the fields.
class Cells : public PartVisitor<Cells> {
public:
    std::vector<std::string> cells;
    void reading(std::string_view key, std::string_view, const Style& style, Range, Reading& r)
    {
        cells.push_back(r.value ? fmt::format("{:.10g}", fromSi(*r.value, files::unitOfKey(key, style))) : std::string());
    }
    void readings(std::string_view key, std::string_view, const Style& style, Range, std::vector<Reading>& list)
    {
        std::string all;
        for (const Reading& r : list)
            if (r.value)
                all += (all.empty() ? "" : "+") + fmt::format("{:.10g}", fromSi(*r.value, files::unitOfKey(key, style)));
        cells.push_back(all);
    }
    void text(std::string_view, std::string_view, std::string& value) { cells.push_back(value); }
    void count(std::string_view, std::string_view, int& value) { cells.push_back(value ? std::to_string(value) : std::string()); }
    void plain(std::string_view, std::string_view, double& value) { cells.push_back(value != 0 ? fmt::format("{:g}", value) : std::string()); }
    template <class E, class T>
    void choice(std::string_view, std::string_view, E& value, const T& table)
    {
        cells.emplace_back(wordFor(value, table));
    }
};

/// Small letters and figures, words parted by single spaces.
std::string plainWords(std::string_view text)
{
    std::string out;
    for (const char c : text) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalnum(u) || u >= 128)
            out += static_cast<char>(std::tolower(u));
        else if (!out.empty() && out.back() != ' ' && c != '\'')
            out += ' ';
    }
    while (out.ends_with(' '))
        out.pop_back();
    return out;
}

/// What else people write over a column.
constexpr std::array<std::pair<std::string_view, std::string_view>, 18> otherWords { {
    { "od", "outer_diameter_mm" },
    { "diameter", "outer_diameter_mm" },
    { "rotor od", "outer_diameter_mm" },
    { "outer diameter", "outer_diameter_mm" },
    { "width", "thickness_mm" },
    { "thickness", "thickness_mm" },
    { "min thickness", "minimum_thickness_mm" },
    { "height", "overall_height_mm" },
    { "overall height", "overall_height_mm" },
    { "hat", "hat_thickness_mm" },
    { "centre bore", "bore_mm" },
    { "center bore", "bore_mm" },
    { "pcd", "bolt_circle_mm" },
    { "bolt circle", "bolt_circle_mm" },
    { "vane count", "vanes" },
    { "pistons", "pistons_mm" },
    { "part", "name" },
    { "mu", "friction" },
} };

/// A header cut into its words and the unit it names, if any.
std::pair<std::string, std::string> splitHeader(const std::string& header)
{
    for (const auto& [open, close] : { std::pair { '[', ']' }, std::pair { '(', ')' } }) {
        const auto from = header.find(open);
        const auto to = header.find(close, from == std::string::npos ? 0 : from);
        if (from != std::string::npos && to != std::string::npos)
            return { plainWords(header.substr(0, from)), header.substr(from + 1, to - from - 1) };
    }
    return { plainWords(header), {} };
}

Column columnFor(const std::string& header, Kind kind)
{
    const auto [words, unit] = splitHeader(header);
    const auto& names = fieldsOf(kind);
    const auto put = [&](const FieldName& field, const std::string& spelling) {
        Column column { header, field.key, field.unit };
        if (field.unit && !spelling.empty())
            if (const Unit* named = findUnit(spelling, field.dimension); named && named->dimension == field.dimension)
                column.unit = named;
        return column;
    };
    for (const FieldName& field : names) {
        if (field.key.empty())
            continue;
        // The key itself, with its own or another unit at its end, or without.
        const auto key = plainWords(field.key);
        const auto stem = field.unit && key.find(' ') != std::string::npos ? key.substr(0, key.rfind(' ')) : key;
        if (words == key || words == plainWords(field.label))
            return put(field, unit);
        if (field.unit && words == stem)
            return put(field, unit);
        if (field.unit && words.starts_with(stem + " ") && findUnit(words.substr(stem.size() + 1), field.dimension) && findUnit(words.substr(stem.size() + 1), field.dimension)->dimension == field.dimension)
            return put(field, words.substr(stem.size() + 1));
    }
    for (const auto& [word, key] : otherWords)
        if (words == word)
            for (const FieldName& field : names)
                if (field.key == key)
                    return put(field, unit);
    return { header, {}, nullptr };
}

void refuseNoText(std::string_view text)
{
    if (const auto zero = text.find('\0'); zero != std::string_view::npos)
        throw files::Refusal(fmt::format("byte {} is zero: this is not text. A parts list is CSV in UTF-8.", zero + 1));
    if (const auto bad = files::notUtf8(text))
        throw files::Refusal(fmt::format("line {}: this is not UTF-8 text. Save the list as CSV in UTF-8.", std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(*bad), '\n') + 1));
}

constexpr std::array allKinds { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Wheel, Kind::Bracket, Kind::Hose };

std::vector<std::string> headersOf(std::string_view text, char separator)
{
    files::CsvReader reader(text, separator);
    std::vector<std::string> headers;
    if (!reader.next(headers))
        throw files::Refusal("the list is empty: its first line names the columns.");
    return headers;
}

} // namespace

const std::vector<FieldName>& fieldsOf(Kind kind)
{
    static const auto all = [] {
        std::array<std::vector<FieldName>, allKinds.size()> made;
        Library library;
        for (const Kind each : allKinds)
            onShelf(library, each, [&]<class T>(std::vector<Shelved<T>>&) {
                Names names;
                Shelved<T> blank;
                describe(names, blank);
                made[static_cast<std::size_t>(each)] = std::move(names.names);
            });
        return made;
    }();
    return all[static_cast<std::size_t>(kind)];
}

namespace {

Plan planFor(const std::vector<std::string>& headers, char separator, Kind kind)
{
    Plan plan { kind, separator, Known::Vendor, {} };
    for (const auto& header : headers)
        plan.columns.push_back(columnFor(header, kind));
    // A field is filled by one column, the first that names it.
    for (std::size_t i = 0; i < plan.columns.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            if (!plan.columns[i].key.empty() && plan.columns[i].key == plan.columns[k].key)
                plan.columns[i].key.clear();
    return plan;
}

} // namespace

Plan guessPlan(std::string_view text, Kind kind)
{
    refuseNoText(text);
    const char separator = files::guessSeparator(text);
    return planFor(headersOf(text, separator), separator, kind);
}

Plan guessPlan(std::string_view text)
{
    refuseNoText(text);
    const char separator = files::guessSeparator(text);
    const auto headers = headersOf(text, separator);
    Plan best;
    std::ptrdiff_t most = -1;
    for (const Kind kind : allKinds) {
        Plan plan = planFor(headers, separator, kind);
        const auto fitting = std::ranges::count_if(plan.columns, [](const Column& c) { return !c.key.empty(); });
        if (fitting > most) {
            most = fitting;
            best = std::move(plan);
        }
    }
    return best;
}

Import importParts(std::string_view text, const Plan& plan, const std::function<bool(double)>& goOn)
{
    refuseNoText(text);
    const auto& names = fieldsOf(plan.kind);
    std::vector<int> columns(names.size(), -1);
    for (std::size_t f = 0; f < names.size(); ++f)
        for (std::size_t c = 0; c < plan.columns.size(); ++c)
            if (!names[f].key.empty() && plan.columns[c].key == names[f].key && columns[f] < 0)
                columns[f] = static_cast<int>(c);
    const auto nameField = std::ranges::find(names, "name", &FieldName::key);
    const bool named = nameField == names.end() || columns[static_cast<std::size_t>(nameField - names.begin())] >= 0;
    if (!named)
        throw files::Refusal("no column holds the name: say which one does.");
    Import import;
    files::CsvReader reader(text, plan.separator);
    std::vector<std::string> cells;
    if (!reader.next(cells))
        throw files::Refusal("the list is empty: its first line names the columns.");
    onShelf(import.parts, plan.kind, [&]<class T>(std::vector<Shelved<T>>& shelf) {
        std::unordered_map<std::string, std::size_t> ids;
        std::unordered_map<std::string, int> numbers;
        for (std::size_t count = 1; reader.next(cells); ++count) {
            if (goOn && count % 500 == 0 && !goOn(reader.progress())) {
                import.cancelled = true;
                return;
            }
            Shelved<T> part;
            Filler filler(columns, plan.columns, cells, plan.known);
            describe(filler, part);
            auto why = filler.why;
            std::string name = part.id;
            if constexpr (requires { part.part.name; }) {
                name = part.part.name;
                if (why.empty() && name.empty())
                    why = "the name is missing";
            }
            if (why.empty() && cells.size() > plan.columns.size())
                why = fmt::format("has {} columns, the first line names {}", cells.size(), plan.columns.size());
            if (part.id.empty())
                part.id = idFrom(name).empty() ? "part" : idFrom(name);
            if (why.empty()) {
                const auto [place, fresh] = ids.emplace(part.id, reader.line());
                if (!fresh && columns.front() >= 0)
                    why = fmt::format("the id “{}” stands in line {} already", part.id, place->second);
                // Lines without ids of their own may share a name.
                for (int& number = numbers.emplace(part.id, 1).first->second; !fresh && why.empty();)
                    if (auto other = fmt::format("{}-{}", part.id, ++number); ids.emplace(other, reader.line()).second) {
                        part.id = std::move(other);
                        break;
                    }
            }
            if (!why.empty()) {
                import.refused.push_back({ reader.line(), std::string(reader.raw().substr(0, 120)), std::move(why) });
                continue;
            }
            if constexpr (std::is_same_v<T, Wheel>)
                part.part.id = part.id;
            shelf.push_back(std::move(part));
            ++import.taken;
        }
    });
    return import;
}

std::string exportParts(const Library& library, Kind kind)
{
    const auto& names = fieldsOf(kind);
    std::string out;
    for (const FieldName& field : names)
        if (!field.key.empty())
            out += (out.empty() ? "" : ",") + field.key;
    out += "\r\n";
    onShelf(library, kind, [&]<class T>(const std::vector<Shelved<T>>& shelf) {
        for (const Shelved<T>& one : shelf) {
            Cells cells;
            Shelved<T> copy = one;
            describe(cells, copy);
            std::string line;
            bool first = true;
            for (std::size_t i = 0; i < names.size(); ++i)
                if (!names[i].key.empty()) {
                    line += (first ? "" : ",") + files::csvField(cells.cells[i]);
                    first = false;
                }
            out += line + "\r\n";
        }
    });
    return out;
}

} // namespace deepstop::library
