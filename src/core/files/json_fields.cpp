#include "files/json_fields.hpp"

#include "build/choices.hpp"
#include "quantity/number.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>

namespace deepstop::files {
namespace {

std::string keyOf(const Name& name) { return std::string(name.key); }

/// Twelve significant digits: 28 mm is written 28, neither 28.000000000000004 nor 28.0.
OrderedJson inUnit(double si, const Unit& unit)
{
    const double value = rounded(fromSi(si, unit), 12);
    constexpr double wholeTo = 1e15;
    if (value == std::trunc(value) && std::abs(value) < wholeTo)
        return static_cast<std::int64_t>(value);
    return value;
}

OrderedJson readingJson(const Reading& r, const Unit& unit)
{
    auto json = OrderedJson::object();
    if (r.value)
        json["value"] = inUnit(*r.value, unit);
    if (r.plusMinus)
        json["plus_minus"] = inUnit(*r.plusMinus + unit.offset, unit);
    // How it is known says nothing where it is only estimated: that is what a bare number is.
    if (r.known != Known::Estimated)
        json["known"] = tokenFor(r.known, choices::known);
    if (!r.instrument.empty())
        json["with"] = r.instrument;
    if (!r.date.empty())
        json["on"] = r.date;
    for (const double value : r.repeats)
        json["repeats"].push_back(inUnit(value, unit));
    return json;
}

Reading readingFrom(Json json, const Unit& unit, Json& rest)
{
    Reading r;
    if (json.is_number()) {
        // A bare number says nothing about how it is known, so the worst is taken.
        r.value = toSi(json.get<double>(), unit);
        return r;
    }
    const auto pull = [&json](const char* name) {
        Json value = json.contains(name) ? json[name] : Json();
        json.erase(name);
        return value;
    };
    if (const auto value = pull("value"); value.is_number())
        r.value = toSi(value.get<double>(), unit);
    if (const auto width = pull("plus_minus"); width.is_number())
        r.plusMinus = width.get<double>() * unit.factor;
    if (const auto known = pull("known"); known.is_string()) {
        const auto& said = known.get_ref<const std::string&>();
        const auto found = std::ranges::find(choices::known, said, &Worded<Known>::token);
        if (found != choices::known.end())
            r.known = found->value;
        else
            json["known"] = said; // of a newer program: the worst is taken, and what it says is kept
    }
    if (const auto with = pull("with"); with.is_string())
        r.instrument = with.get<std::string>();
    if (const auto on = pull("on"); on.is_string())
        r.date = on.get<std::string>();
    std::vector<double> repeats;
    for (const auto& one : pull("repeats"))
        repeats.push_back(toSi(one.get<double>(), unit));
    // Their mean is the value, whatever stands there.
    if (r.value && repeats.size() > 1)
        r = repeated(std::move(r), std::move(repeats));
    rest = std::move(json);
    return r;
}

OrderedJson writtenBy(auto describing)
{
    Writer inner;
    describing(inner);
    return std::move(inner.out);
}

} // namespace

const Unit& unitOfKey(std::string_view key, const Style& style)
{
    auto suffix = key.substr(key.rfind('_') + 1);
    if (suffix == "kmh")
        suffix = "km/h";
    else if (suffix == "percent")
        suffix = "%";
    return *(style.dimension == Dimension::Number ? findUnit("", Dimension::Number) : findUnit(suffix, style.dimension));
}

void Writer::reading(const ReadingField& field, const Reading& r)
{
    if (r != (field.usual ? *field.usual : Reading {}))
        out[keyOf(field)] = readingJson(r, unitOfKey(field.key, field.style));
}

void Writer::readings(const ReadingField& field, const std::vector<Reading>& list, std::size_t)
{
    for (const Reading& r : list)
        out[keyOf(field)].push_back(readingJson(r, unitOfKey(field.key, field.style)));
}

void Writer::element(const ElementId& id)
{
    if (!id.text.empty())
        out["id"] = id.text;
}

void Writer::text(const Name& name, const std::string& value)
{
    if (!value.empty())
        out[keyOf(name)] = value;
}

void Writer::count(const CountField& field, int value)
{
    if (value != notCounted)
        out[keyOf(field)] = value;
}

void Writer::number(const NumberField& field, double value)
{
    if (value != 0)
        out[keyOf(field)] = value;
}

void Writer::pairs(const PairsField& field, const Pairs& values)
{
    if (values.empty())
        return;
    auto& array = out[keyOf(field)] = OrderedJson::array();
    for (const auto& [first, second] : values)
        array.push_back({ first, second });
}

void Writer::choice(const Name& name, const Chosen& chosen)
{
    if (!chosen.isUnknown())
        out[keyOf(name)] = chosen.token();
}

void Writer::ticks(const Name& name, const Ticked& ticked)
{
    for (const std::size_t i : ticked.indices)
        out[keyOf(name)].push_back(ticked.words.token(i));
}

void Writer::object(const Name& name, const ConstPart& part)
{
    auto inner = writtenBy([&](Writer& w) { part.describe(w); });
    if (!inner.empty())
        out[keyOf(name)] = std::move(inner);
}

void Writer::optional(const Name& name, const ConstPart* part, const ConstPart&)
{
    if (part)
        out[keyOf(name)] = writtenBy([&](Writer& w) { part->describe(w); });
}

void Writer::list(const ListField& field, const ConstList& list)
{
    for (std::size_t i = 0; i < list.size(); ++i)
        out[keyOf(field)].push_back(writtenBy([&](Writer& w) { list.describe(w, i); }));
}

Json Reader::take(std::string_view key)
{
    const auto found = left.find(std::string(key));
    if (found == left.end())
        return {};
    Json value = std::move(*found);
    left.erase(found);
    return value;
}

void Reader::keep(std::string_view key, Json rest)
{
    if (!rest.empty())
        left[std::string(key)] = std::move(rest);
}

void Reader::reading(const ReadingField& field, Reading& r)
{
    if (auto json = take(field.key); !json.is_null()) {
        Json rest;
        r = readingFrom(std::move(json), unitOfKey(field.key, field.style), rest);
        keep(field.key, std::move(rest));
    }
}

void Reader::readings(const ReadingField& field, std::vector<Reading>& list, std::size_t)
{
    list.clear();
    auto leftovers = Json::array();
    bool any = false;
    for (auto& element : take(field.key)) {
        auto& rest = leftovers.emplace_back();
        list.push_back(readingFrom(element, unitOfKey(field.key, field.style), rest));
        any = any || !rest.empty();
    }
    if (any)
        left[std::string(field.key)] = std::move(leftovers);
}

void Reader::element(ElementId& id)
{
    if (const auto json = take("id"); !json.is_null())
        id.text = json.get<std::string>();
}

void Reader::text(const Name& name, std::string& value)
{
    if (const auto json = take(name.key); !json.is_null())
        value = json.get<std::string>();
}

void Reader::count(const CountField& field, int& value)
{
    if (const auto json = take(field.key); !json.is_null())
        value = json.get<int>();
}

void Reader::number(const NumberField& field, double& value)
{
    if (const auto json = take(field.key); !json.is_null())
        value = json.get<double>();
}

void Reader::pairs(const PairsField& field, Pairs& values)
{
    if (const auto json = take(field.key); !json.is_null())
        values = json.get<Pairs>();
}

void Reader::choice(const Name& name, Choice& choice)
{
    const auto json = take(name.key);
    if (json.is_null() || choice.chooseToken(json.get_ref<const std::string&>()))
        return;
    choice.chooseToken(unknownToken);
    keep(name.key, json);
}

void Reader::ticks(const Name& name, Ticks& ticks)
{
    std::vector<std::size_t> chosen;
    auto newer = Json::array();
    for (const auto& token : take(name.key)) {
        auto found = ticks.words.findToken(token.get_ref<const std::string&>());
        if (found == ticks.words.size()) {
            newer.push_back(token);
            found = ticks.words.findToken(unknownToken);
        }
        if (std::ranges::find(chosen, found) == chosen.end())
            chosen.push_back(found);
    }
    ticks.tick(std::move(chosen));
    keep(name.key, std::move(newer));
}

void Reader::object(const Name& name, MutablePart& part)
{
    if (auto json = take(name.key); !json.is_null()) {
        Reader inner(std::move(json));
        part.describe(inner);
        keep(name.key, std::move(inner.left));
    }
}

void Reader::optional(const Name& name, Maybe& part)
{
    if (auto json = take(name.key); !json.is_null()) {
        part.make();
        Reader inner(std::move(json));
        part.describe(inner);
        keep(name.key, std::move(inner.left));
    }
}

void Reader::list(const ListField& field, List& list)
{
    list.clear();
    auto leftovers = Json::array();
    bool any = false;
    for (auto& element : take(field.key)) {
        Reader inner(std::move(element));
        list.append();
        list.describe(inner, list.size() - 1);
        any = any || !inner.left.empty();
        leftovers.push_back(std::move(inner.left));
    }
    if (any)
        left[std::string(field.key)] = std::move(leftovers);
}

namespace {

OrderedJson textSchema(const std::string& description)
{
    return { { "type", "string" }, { "maxLength", longestText }, { "description", description } };
}

OrderedJson readingSchema(const ReadingField& field)
{
    const Unit& unit = unitOfKey(field.key, field.style);
    const double least = rounded(fromSi(field.range.least, unit), 9);
    const double most = rounded(fromSi(field.range.most, unit), 9);
    auto schema = OrderedJson::object();
    schema["description"] = fmt::format("{}: {}{}, from {:.9g} to {:.9g}", field.label, nameOf(field.style.dimension),
        unit.symbol.empty() ? "" : fmt::format(" in {}", unit.symbol), least, most);
    // The bounds bind numbers only, the properties objects only: a reading is either.
    schema["type"] = { "number", "object" };
    OrderedJson value = { { "type", { "number", "null" } }, { "description", schema["description"] } };
    OrderedJson repeat = { { "type", "number" },
        { "description", fmt::format("one of several readings, same unit: a number from {:.9g} to {:.9g}", least, most) } };
    for (OrderedJson* bounded : { &schema, &value, &repeat }) {
        (*bounded)["minimum"] = least;
        (*bounded)["maximum"] = most;
    }
    const double widest = rounded(field.range.width() / unit.factor, 9);
    schema["properties"] = {
        { "value", std::move(value) },
        { "plus_minus",
            { { "type", "number" }, { "minimum", 0 }, { "maximum", widest },
                { "description", fmt::format("half-width of the interval, same unit, from 0 to {:.9g}", widest) } } },
        { "known",
            { { "type", "string" }, { "maxLength", longestText }, { "examples", { "measured", "vendor", "estimated", "design" } },
                { "description",
                    "how it is known: text, one of measured, vendor, estimated, design (as drawn, not read on the part); nothing or "
                    "another counts as estimated" } } },
        { "with", textSchema("instrument: text") },
        { "repeats",
            { { "type", "array" }, { "maxItems", mostRepeats }, { "items", std::move(repeat) },
                { "description", fmt::format("at most {} readings of this thing; the value is their mean", mostRepeats) } } },
        { "on", textSchema("date: text") },
    };
    return schema;
}

OrderedJson wordSchema(std::string_view label, const Words& words)
{
    auto all = OrderedJson::array();
    std::string list;
    for (std::size_t i = 0; i < words.size(); ++i) {
        all.push_back(words.token(i));
        list.append(i ? ", " : "").append(words.token(i));
    }
    // What may grow is not bound: what a newer program writes there is kept, and counts as unknown.
    if (words.grow())
        return { { "type", "string" }, { "maxLength", longestText }, { "examples", std::move(all) },
            { "description", fmt::format("{}: text, one of {}; others may come, and count as unknown", label, list) } };
    return { { "type", "string" }, { "enum", std::move(all) }, { "description", fmt::format("{}: one of {}", label, list) } };
}

OrderedJson listSchema(OrderedJson items, std::size_t most)
{
    return { { "type", "array" }, { "maxItems", most }, { "description", fmt::format("a list of at most {}", most) },
        { "items", std::move(items) } };
}

} // namespace

void SchemaWriter::reading(const ReadingField& field, const Reading&) { properties[keyOf(field)] = readingSchema(field); }

void SchemaWriter::readings(const ReadingField& field, const std::vector<Reading>&, std::size_t most)
{
    properties[keyOf(field)] = listSchema(readingSchema(field), most);
}

void SchemaWriter::element(const ElementId&)
{
    properties["id"] = textSchema("which element of its list it is: given when the build is next saved, where it is left out");
}

void SchemaWriter::text(const Name& name, const std::string&)
{
    properties[keyOf(name)] = textSchema(fmt::format("{}: text of at most {} bytes", name.label, longestText));
}

void SchemaWriter::count(const CountField& field, int)
{
    properties[keyOf(field)] = { { "type", "integer" }, { "minimum", 0 }, { "maximum", field.most },
        { "description", fmt::format("{}: a whole number from 0 to {}", field.label, field.most) } };
}

void SchemaWriter::number(const NumberField& field, double)
{
    properties[keyOf(field)] = { { "type", "number" }, { "minimum", field.range.least }, { "maximum", field.range.most },
        { "description", fmt::format("{}: a number from {:g} to {:g}", field.label, field.range.least, field.range.most) } };
}

void SchemaWriter::pairs(const PairsField& field, const Pairs&)
{
    const auto number = [](const Range& range) {
        return OrderedJson { { "type", "number" }, { "minimum", range.least }, { "maximum", range.most } };
    };
    properties[keyOf(field)] =
        listSchema({ { "type", "array" }, { "items", OrderedJson::array({ number(field.first), number(field.second) }) }, { "minItems", 2 },
                       { "maxItems", 2 }, { "description", field.label } },
            field.most);
}

void SchemaWriter::choice(const Name& name, const Chosen& chosen) { properties[keyOf(name)] = wordSchema(name.label, chosen.words); }

void SchemaWriter::ticks(const Name& name, const Ticked& ticked)
{
    properties[keyOf(name)] = listSchema(wordSchema(name.label, ticked.words), 4 * ticked.words.size());
}

void SchemaWriter::object(const Name& name, const ConstPart& part)
{
    SchemaWriter inner;
    part.describe(inner);
    properties[keyOf(name)] = std::move(inner).schema();
}

void SchemaWriter::optional(const Name& name, const ConstPart*, const ConstPart& blank) { object(name, blank); }

void SchemaWriter::list(const ListField& field, const ConstList& list)
{
    SchemaWriter inner;
    list.describeBlank(inner);
    properties[keyOf(field)] = listSchema(std::move(inner).schema(list.hasIds()), field.most);
}

OrderedJson SchemaWriter::schema(bool withId) &&
{
    OrderedJson schema = { { "type", "object" }, { "properties", std::move(properties) } };
    if (withId)
        schema["required"] = { "id" };
    return schema;
}

} // namespace deepstop::files
