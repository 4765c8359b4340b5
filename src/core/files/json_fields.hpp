#pragma once
/// The three ways a file uses the table of fields: writing JSON, reading JSON, and describing it as a schema.

#include "build/fields.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <cmath>

namespace deepstop::files {

using Json = nlohmann::json;
using OrderedJson = nlohmann::ordered_json;

/// The unit a key ends in: "thickness_mm" is in mm. Keys of plain numbers have none.
inline const Unit& unitOfKey(std::string_view key, const Style& style)
{
    auto suffix = key.substr(key.rfind('_') + 1);
    if (suffix == "kmh")
        suffix = "km/h";
    else if (suffix == "percent")
        suffix = "%";
    const Unit* unit = style.dimension == Dimension::Number ? findUnit("", Dimension::Number) : findUnit(suffix, style.dimension);
    return *unit;
}

/// Twelve significant digits: 28 mm is written 28, not 28.000000000000004.
inline double inUnit(double si, const Unit& unit) { return std::stod(fmt::format("{:.12g}", fromSi(si, unit))); }

class Writer {
public:
    OrderedJson out = OrderedJson::object();

    void reading(std::string_view key, std::string_view, const Style& style, Range, Reading& r)
    {
        if (r != Reading {})
            out[std::string(key)] = one(r, unitOfKey(key, style));
    }
    void readings(std::string_view key, std::string_view, const Style& style, Range, std::vector<Reading>& list)
    {
        auto array = OrderedJson::array();
        for (const Reading& r : list)
            array.push_back(one(r, unitOfKey(key, style)));
        if (!list.empty())
            out[std::string(key)] = std::move(array);
    }
    void text(std::string_view key, std::string_view, std::string& value)
    {
        if (!value.empty())
            out[std::string(key)] = value;
    }
    void count(std::string_view key, std::string_view, int& value)
    {
        if (value)
            out[std::string(key)] = value;
    }
    void plain(std::string_view key, std::string_view, double& value)
    {
        if (value != 0)
            out[std::string(key)] = value;
    }
    template <class E, class T>
    void choice(std::string_view key, std::string_view, E& value, const T& table)
    {
        out[std::string(key)] = wordFor(value, table);
    }
    template <class E, class T>
    void choices(std::string_view key, std::string_view, std::vector<E>& values, const T& table)
    {
        auto array = OrderedJson::array();
        for (const E value : values)
            array.push_back(wordFor(value, table));
        out[std::string(key)] = std::move(array);
    }
    template <class T>
    void object(std::string_view key, std::string_view, T& value)
    {
        auto inner = nested(value);
        if (!inner.empty())
            out[std::string(key)] = std::move(inner);
    }
    template <class T>
    void optional(std::string_view key, std::string_view, std::optional<T>& value)
    {
        if (value)
            out[std::string(key)] = nested(*value);
    }
    template <class T>
    void list(std::string_view key, std::string_view, std::vector<T>& values)
    {
        auto array = OrderedJson::array();
        for (T& value : values)
            array.push_back(nested(value));
        if (!values.empty())
            out[std::string(key)] = std::move(array);
    }

private:
    static OrderedJson one(const Reading& r, const Unit& unit)
    {
        auto json = OrderedJson::object();
        if (r.value)
            json["value"] = inUnit(*r.value, unit);
        if (r.plusMinus)
            json["plus_minus"] = inUnit(*r.plusMinus + unit.offset, unit);
        json["known"] = wordFor(r.known, choices::known);
        if (!r.instrument.empty())
            json["with"] = r.instrument;
        if (!r.date.empty())
            json["on"] = r.date;
        for (const double value : r.repeats)
            json["repeats"].push_back(inUnit(value, unit));
        return json;
    }
    template <class T>
    static OrderedJson nested(T& value)
    {
        Writer inner;
        describe(inner, value);
        return std::move(inner.out);
    }
};

/// Reads what the schema has already approved, and takes every key it understands out of `left`.
class Reader {
public:
    explicit Reader(Json json) : left(std::move(json)) { }
    Json left;

    void reading(std::string_view key, std::string_view, const Style& style, Range, Reading& r)
    {
        if (auto json = take(key); !json.is_null()) {
            Json rest;
            r = one(std::move(json), unitOfKey(key, style), rest);
            keep(key, std::move(rest));
        }
    }
    void readings(std::string_view key, std::string_view, const Style& style, Range, std::vector<Reading>& list)
    {
        list.clear();
        auto leftovers = Json::array();
        bool any = false;
        for (auto& element : take(key)) {
            auto& rest = leftovers.emplace_back();
            list.push_back(one(element, unitOfKey(key, style), rest));
            any = any || !rest.empty();
        }
        if (any)
            left[std::string(key)] = std::move(leftovers);
    }
    void text(std::string_view key, std::string_view, std::string& value)
    {
        if (const auto json = take(key); !json.is_null())
            value = json.get<std::string>();
    }
    void count(std::string_view key, std::string_view, int& value)
    {
        if (const auto json = take(key); !json.is_null())
            value = json.get<int>();
    }
    void plain(std::string_view key, std::string_view, double& value)
    {
        if (const auto json = take(key); !json.is_null())
            value = json.get<double>();
    }
    template <class E, class T>
    void choice(std::string_view key, std::string_view, E& value, const T& table)
    {
        if (const auto json = take(key); !json.is_null())
            value = valueFor<E>(json.get<std::string>(), table);
    }
    template <class E, class T>
    void choices(std::string_view key, std::string_view, std::vector<E>& values, const T& table)
    {
        const auto json = take(key);
        values.clear();
        for (const auto& word : json)
            values.push_back(valueFor<E>(word.get<std::string>(), table));
    }
    template <class T>
    void object(std::string_view key, std::string_view, T& value)
    {
        if (auto json = take(key); !json.is_null())
            keep(key, nested(std::move(json), value));
    }
    template <class T>
    void optional(std::string_view key, std::string_view, std::optional<T>& value)
    {
        if (auto json = take(key); !json.is_null())
            keep(key, nested(std::move(json), value.emplace()));
    }
    template <class T>
    void list(std::string_view key, std::string_view, std::vector<T>& values)
    {
        values.clear();
        auto leftovers = Json::array();
        bool any = false;
        for (auto& element : take(key)) {
            auto rest = nested(element, values.emplace_back());
            any = any || !rest.empty();
            // Told apart by id where there is one, so that leftovers follow their owner through reordering.
            if (element.contains("id"))
                rest["id"] = element["id"];
            leftovers.push_back(std::move(rest));
        }
        if (any)
            left[std::string(key)] = std::move(leftovers);
    }

private:
    Json take(std::string_view key)
    {
        const auto found = left.find(std::string(key));
        if (found == left.end())
            return {};
        Json value = std::move(*found);
        left.erase(found);
        return value;
    }
    void keep(std::string_view key, Json rest)
    {
        if (!rest.empty())
            left[std::string(key)] = std::move(rest);
    }
    static Reading one(Json json, const Unit& unit, Json& rest)
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
        if (const auto known = pull("known"); known.is_string())
            r.known = valueFor<Known>(known.get<std::string>(), choices::known);
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
    template <class E, class T>
    static E valueFor(const std::string& word, const T& table)
    {
        for (const auto& [candidate, value] : table)
            if (candidate == word)
                return value;
        return table.front().second;
    }
    template <class T>
    static Json nested(Json json, T& value)
    {
        Reader inner(std::move(json));
        describe(inner, value);
        return std::move(inner.left);
    }
};

/// JSON Schema, draft 7. Keys it does not name are allowed: they are kept.
class SchemaWriter {
public:
    OrderedJson properties = OrderedJson::object();

    void reading(std::string_view key, std::string_view label, const Style& style, Range range, Reading&)
    {
        properties[std::string(key)] = readingSchema(key, label, style, range);
    }
    void readings(std::string_view key, std::string_view label, const Style& style, Range range, std::vector<Reading>&)
    {
        properties[std::string(key)] = { { "type", "array" }, { "items", readingSchema(key, label, style, range) } };
    }
    void text(std::string_view key, std::string_view label, std::string&)
    {
        properties[std::string(key)] = { { "type", "string" }, { "description", fmt::format("{}: text", label) } };
    }
    void count(std::string_view key, std::string_view label, int&)
    {
        properties[std::string(key)] = { { "type", "integer" }, { "minimum", 0 }, { "maximum", 10000 },
            { "description", fmt::format("{}: a whole number from 0", label) } };
    }
    void plain(std::string_view key, std::string_view label, double&)
    {
        properties[std::string(key)] = { { "type", "number" }, { "minimum", 0 },
            { "description", fmt::format("{}: a number from 0", label) } };
    }
    template <class E, class T>
    void choice(std::string_view key, std::string_view label, E&, const T& table)
    {
        properties[std::string(key)] = wordSchema(label, table);
    }
    template <class E, class T>
    void choices(std::string_view key, std::string_view label, std::vector<E>&, const T& table)
    {
        properties[std::string(key)] = { { "type", "array" }, { "items", wordSchema(label, table) } };
    }
    template <class T>
    void object(std::string_view key, std::string_view, T& value)
    {
        properties[std::string(key)] = of(value);
    }
    template <class T>
    void optional(std::string_view key, std::string_view, std::optional<T>&)
    {
        T value {};
        properties[std::string(key)] = of(value);
    }
    template <class T>
    void list(std::string_view key, std::string_view, std::vector<T>&)
    {
        T value {};
        properties[std::string(key)] = { { "type", "array" }, { "items", of(value) } };
    }

    template <class T>
    static OrderedJson of(T& value)
    {
        SchemaWriter inner;
        describe(inner, value);
        OrderedJson schema = { { "type", "object" }, { "properties", std::move(inner.properties) } };
        if constexpr (requires { value.id; })
            schema["required"] = { "id" };
        return schema;
    }

private:
    static OrderedJson readingSchema(std::string_view key, std::string_view label, const Style& style, Range range)
    {
        const auto unit = unitOfKey(key, style).symbol;
        const auto bound = range == Range::Positive ? ", more than 0" : range == Range::NotNegative ? ", not less than 0" : "";
        auto schema = OrderedJson::object();
        schema["description"] = fmt::format("{}: {}{}{}", label, nameOf(style.dimension), unit.empty() ? "" : fmt::format(" in {}", unit), bound);
        // The bounds bind numbers only, the properties objects only: a reading is either.
        schema["type"] = { "number", "object" };
        OrderedJson value = { { "type", { "number", "null" } }, { "description", schema["description"] } };
        for (OrderedJson* bounded : { &schema, &value }) {
            if (range == Range::Positive)
                (*bounded)["exclusiveMinimum"] = 0;
            if (range == Range::NotNegative)
                (*bounded)["minimum"] = 0;
        }
        schema["properties"] = {
            { "value", std::move(value) },
            { "plus_minus", { { "type", "number" }, { "minimum", 0 }, { "description", "half-width of the interval, same unit, not less than 0" } } },
            { "known", { { "type", "string" }, { "enum", { "measured", "vendor", "estimated" } }, { "description", "how it is known: measured, vendor or estimated" } } },
            { "with", { { "type", "string" }, { "description", "instrument: text" } } },
            { "repeats", { { "type", "array" }, { "items", { { "type", "number" }, { "description", "one of several readings of this thing, same unit: a number" } } }, { "description", "several readings of this thing; the value is their mean" } } },
            { "on", { { "type", "string" }, { "description", "date: text" } } },
        };
        return schema;
    }
    template <class T>
    static OrderedJson wordSchema(std::string_view label, const T& table)
    {
        auto words = OrderedJson::array();
        std::string said;
        for (const auto& [word, value] : table) {
            words.push_back(word);
            said += (said.empty() ? "" : ", ") + std::string(word);
        }
        return { { "type", "string" }, { "enum", std::move(words) }, { "description", fmt::format("{}: one of {}", label, said) } };
    }
};

} // namespace deepstop::files
