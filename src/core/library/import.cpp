#include "library/import.hpp"

#include "files/csv.hpp"
#include "files/json_fields.hpp"
#include "files/json_text.hpp"
#include "files/refusal.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "quantity/parse.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <unordered_map>

namespace deepstop::library {
namespace {

/// Collects the names of the fields a cell can fill.
class Names : public ConstVisitor {
public:
    std::vector<FieldName> names;

    void reading(const ReadingField& field, const Reading&) override
    {
        names.push_back(
            { std::string(field.key), std::string(field.label), &files::unitOfKey(field.key, field.style), field.style.dimension });
    }
    void readings(const ReadingField& field, const std::vector<Reading>&, std::size_t) override { reading(field, {}); }
    void text(const Name& name, const std::string&) override { other(name); }
    void count(const CountField& field, int) override { other(field); }
    void number(const NumberField& field, double) override { other(field); }
    void choice(const Name& name, const Chosen&) override { other(name); }
    void list(const ListField&, const ConstList&) override { }

private:
    void other(const Name& name)
    {
        // The part lies in its shelf's record; in a list both are one line. Its own id and origin are the shelf's business.
        const bool shelfs = name.key == "from" || (name.key == "id" && !names.empty());
        names.push_back({ shelfs ? std::string() : std::string(name.key), std::string(name.label), nullptr, Dimension::Number });
    }
};

/// Puts the cells of one line into a part, field by field in the same order.
class Filler : public Visitor {
public:
    Filler(const std::vector<int>& columns, const std::vector<Column>& plan, const std::vector<std::string>& cells, Known known)
        : columns_(columns), plan_(plan), cells_(cells), known_(known)
    {
    }
    std::string why; ///< the first thing that cannot be taken

    void reading(const ReadingField& field, Reading& r) override
    {
        if (const auto* cell = next())
            take(*cell, field, r);
    }
    void readings(const ReadingField& field, std::vector<Reading>& list, std::size_t most) override
    {
        const auto* cell = next();
        if (!cell)
            return;
        for (std::size_t at = 0; at <= cell->size() && why.empty();) {
            const auto end = std::min(cell->find_first_of("+;", at), cell->size());
            list.emplace_back();
            take(cell->substr(at, end - at), field, list.back());
            at = end + 1;
            if (list.size() == most && at <= cell->size())
                refuse(field, *cell, tr("at most {} can be taken", most));
        }
    }
    void text(const Name& name, std::string& value) override
    {
        if (const auto* cell = next()) {
            // An apostrophe that set off what looks like a formula is not part of it.
            value = cell->substr(
                cell->size() > 1 && cell->front() == '\'' && std::string_view("=+@").find((*cell)[1]) != std::string_view::npos);
            if (value.size() > longestText || controlCharacter(value))
                refuse(name, *cell, value.size() > longestText ? tr("is too long") : tr("holds a control character"));
        }
    }
    void count(const CountField& field, int& value) override
    {
        if (const auto* cell = next()) {
            const auto read = std::from_chars(cell->data(), cell->data() + cell->size(), value);
            if (read.ec != std::errc {} || read.ptr != cell->data() + cell->size() || value < 0 || value > field.most)
                refuse(field, *cell, tr("a whole number from 0 to {} is wanted", field.most));
        }
    }
    void number(const NumberField& field, double& value) override
    {
        if (const auto* cell = next()) {
            const auto parsed = parseQuantity(*cell, Dimension::Number, "");
            if (!parsed || !field.range.holds(*parsed.value))
                refuse(field, *cell, tr("a number from {:g} to {:g} is wanted", field.range.least, field.range.most));
            else
                value = *parsed.value;
        }
    }
    void choice(const Name& name, Choice& choice) override
    {
        if (const auto* cell = next(); cell && !choice.choose(*cell))
            refuse(name, *cell, tr("one of {} is wanted", choice.words.all()));
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
    void take(const std::string& cell, const ReadingField& field, Reading& r)
    {
        const Unit& unit = *plan_[static_cast<std::size_t>(column_)].unit;
        double value = 0;
        // Nearly every cell is a plain number; whatever is not goes the careful way.
        const auto read = std::from_chars(cell.data(), cell.data() + cell.size(), value, std::chars_format::fixed);
        if (read.ec == std::errc {} && read.ptr == cell.data() + cell.size()) {
            value = toSi(value, unit);
        } else {
            const auto parsed = parseQuantity(cell, field.style.dimension, unit);
            if (!parsed) {
                refuse(field, cell, parsed.refusal);
                return;
            }
            value = *parsed.value;
        }
        if (!field.range.holds(value)) {
            refuse(field, cell,
                tr("must be from {} to {}", bound(field.range.least, field.style, UnitSystem::Metric),
                    bound(field.range.most, field.style, UnitSystem::Metric)));
            return;
        }
        r.value = value;
        r.known = known_;
    }
    void refuse(const Name& name, const std::string& cell, const std::string& reason)
    {
        if (why.empty())
            why = fmt::format("{} “{}”: {}", tr(name.label), shortened(cell), reason);
    }

    const std::vector<int>& columns_;
    const std::vector<Column>& plan_;
    const std::vector<std::string>& cells_;
    Known known_;
    std::size_t field_ = 0;
    int column_ = -1;
};

/// Writes the cells of one part in the order of the fields.
class Cells : public ConstVisitor {
public:
    std::vector<std::string> cells;
    void reading(const ReadingField& field, const Reading& r) override { cells.push_back(r.value ? figures(field, r) : std::string()); }
    void readings(const ReadingField& field, const std::vector<Reading>& list, std::size_t) override
    {
        std::string all;
        for (const Reading& r : list)
            if (r.value)
                all += (all.empty() ? "" : "+") + figures(field, r);
        cells.push_back(all);
    }
    void text(const Name&, const std::string& value) override { cells.push_back(value); }
    void count(const CountField&, int value) override { cells.push_back(value != notCounted ? fmt::format("{}", value) : std::string()); }
    void number(const NumberField&, double value) override { cells.push_back(value != 0 ? fmt::format("{:g}", value) : std::string()); }
    void choice(const Name&, const Chosen& chosen) override { cells.emplace_back(chosen.word()); }
    void list(const ListField&, const ConstList&) override { }

private:
    static std::string figures(const ReadingField& field, const Reading& r)
    {
        return fmt::format("{:.10g}", fromSi(*r.value, files::unitOfKey(field.key, field.style)));
    }
};

/// Small letters and figures, words parted by single spaces.
std::string plainWords(std::string_view text)
{
    std::string out;
    for (const char c : text) {
        if (isDigit(c) || isLetter(c) || static_cast<unsigned char>(c) >= 128)
            out += toLower(c);
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
    { marked("bolt circle"), "bolt_circle_mm" },
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

/// The unit a header names; people set a full stop behind what they shorten. Null where it is none of that dimension.
const Unit* unitIn(std::string spelling, Dimension dimension)
{
    while (spelling.ends_with(' ') || spelling.ends_with('.'))
        spelling.pop_back();
    spelling.erase(0, spelling.find_first_not_of(' '));
    return spelling.empty() ? nullptr : findUnit(spelling, dimension);
}

Column columnFor(const std::string& header, Kind kind)
{
    const auto [words, unit] = splitHeader(header);
    const auto& names = fieldsOf(kind);
    const auto put = [&](const FieldName& field, const std::string& spelling) {
        Column column { header, field.key, field.unit, {} };
        if (!field.unit || spelling.empty())
            return column;
        // Plain numbers under a unit nobody knows could be anything.
        if (const Unit* named = unitIn(spelling, field.dimension)) {
            column.unit = named;
        } else {
            column.key.clear();
            column.why = tr("“{}” is no unit for {}: write {} there, or another the program knows", shortened(spelling),
                tr(field.label.c_str()), field.unit->symbol);
        }
        return column;
    };
    for (const FieldName& field : names) {
        if (field.key.empty())
            continue;
        // The key itself, with its own or another unit at its end, or without.
        const auto key = plainWords(field.key);
        const auto stem = field.unit && key.find(' ') != std::string::npos ? key.substr(0, key.rfind(' ')) : key;
        if (words == key || words == plainWords(field.label) || words == plainWords(tr(field.label.c_str())))
            return put(field, unit);
        if (field.unit && words == stem)
            return put(field, unit);
        if (field.unit && words.starts_with(stem + " ") && unitIn(words.substr(stem.size() + 1), field.dimension))
            return put(field, words.substr(stem.size() + 1));
    }
    for (const auto& [word, key] : otherWords)
        if (words == word)
            for (const FieldName& field : names)
                if (field.key == key)
                    return put(field, unit);
    return { header, {}, nullptr, {} };
}

void refuseNoText(std::string_view text)
{
    if (const auto zero = text.find('\0'); zero != std::string_view::npos)
        throw files::Refusal(tr("byte {} is zero: this is not text. A parts list is CSV in UTF-8.", zero + 1));
    if (const auto bad = notUtf8(text))
        throw files::Refusal(tr("line {}: this is not UTF-8 text. Save the list as CSV in UTF-8.",
            std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(*bad), '\n') + 1));
}

constexpr std::array allKinds { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Wheel, Kind::Bracket, Kind::Hose };

std::vector<std::string> headersOf(std::string_view text, char separator)
{
    files::CsvReader reader(text, separator);
    std::vector<std::string> headers;
    if (!reader.next(headers))
        throw files::Refusal(tr("the list is empty: its first line names the columns."));
    return headers;
}

} // namespace

const std::vector<FieldName>& fieldsOf(Kind kind)
{
    static const std::vector<FieldName> none;
    if (kind == Kind::Kit)
        return none;
    static const auto all = [] {
        std::array<std::vector<FieldName>, allKinds.size()> made;
        Library library;
        for (const Kind each : allKinds)
            onShelf(library, each, [&]<class T>(std::vector<Shelved<T>>&) {
                Names names;
                describe(names, Shelved<T> {});
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
        throw files::Refusal(tr("no column holds the name: say which one does."));
    Import import;
    for (const Column& column : plan.columns)
        if (column.key.empty() && !column.why.empty())
            import.refused.push_back(
                { 1, shortened(column.header), tr("column “{}” is passed over: {}", shortened(column.header), column.why) });
    files::CsvReader reader(text, plan.separator);
    std::vector<std::string> cells;
    if (!reader.next(cells))
        throw files::Refusal(tr("the list is empty: its first line names the columns."));
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
                    why = marked("the name is missing");
            }
            if (why.empty() && cells.size() > plan.columns.size())
                why = tr("has {} columns, the first line names {}", cells.size(), plan.columns.size());
            if (part.id.empty())
                part.id = idFrom(name).empty() ? "part" : idFrom(name);
            if (why.empty()) {
                const auto [place, fresh] = ids.emplace(part.id, reader.line());
                if (!fresh && columns.front() >= 0)
                    why = tr("the id “{}” stands in line {} already", shortened(part.id), place->second);
                // Lines without ids of their own may share a name.
                for (int& number = numbers.emplace(part.id, 1).first->second; !fresh && why.empty();)
                    if (auto other = fmt::format("{}-{}", part.id, ++number); ids.emplace(other, reader.line()).second) {
                        part.id = std::move(other);
                        break;
                    }
            }
            if (!why.empty()) {
                import.refused.push_back({ reader.line(), shortened(reader.raw(), 120), std::move(why) });
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
            describe(cells, one);
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
