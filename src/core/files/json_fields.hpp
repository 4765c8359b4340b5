#pragma once
/// The three ways a file uses the table of fields: writing JSON, reading JSON, and describing it as a schema.

#include "build/fields.hpp"

#include <nlohmann/json.hpp>

namespace deepstop::files {

using Json = nlohmann::json;
using OrderedJson = nlohmann::ordered_json;

/// The unit a key ends in: "thickness_mm" is in mm. Keys of plain numbers have none.
[[nodiscard]] const Unit& unitOfKey(std::string_view key, const Style& style);

/// A part as JSON, its keys in the order of the table.
class Writer : public ConstVisitor {
public:
    OrderedJson out = OrderedJson::object();

    void reading(const ReadingField& field, const Reading& r) override;
    void readings(const ReadingField& field, const std::vector<Reading>& list, std::size_t most) override;
    void element(const ElementId& id) override;
    void text(const Name& name, const std::string& value) override;
    void count(const CountField& field, int value) override;
    void number(const NumberField& field, double value) override;
    void pairs(const PairsField& field, const Pairs& values) override;
    void choice(const Name& name, const Chosen& chosen) override;
    void ticks(const Name& name, const Ticked& ticked) override;
    void object(const Name& name, const ConstPart& part) override;
    void optional(const Name& name, const ConstPart* part, const ConstPart& blank) override;
    void list(const ListField& field, const ConstList& list) override;
};

/// Reads what the schema has already approved, and takes every key it understands out of `left`.
class Reader : public Visitor {
public:
    explicit Reader(Json json) : left(std::move(json)) { }
    Json left;

    void reading(const ReadingField& field, Reading& r) override;
    void readings(const ReadingField& field, std::vector<Reading>& list, std::size_t most) override;
    void element(ElementId& id) override;
    void text(const Name& name, std::string& value) override;
    void count(const CountField& field, int& value) override;
    void number(const NumberField& field, double& value) override;
    void pairs(const PairsField& field, Pairs& values) override;
    void choice(const Name& name, Choice& choice) override;
    void ticks(const Name& name, Ticks& ticks) override;
    void object(const Name& name, MutablePart& part) override;
    void optional(const Name& name, Maybe& part) override;
    void list(const ListField& field, List& list) override;

private:
    Json take(std::string_view key);
    void keep(std::string_view key, Json rest);
};

/// JSON Schema, draft 7. Keys it does not name are allowed: they are kept.
class SchemaWriter : public ConstVisitor {
public:
    OrderedJson properties = OrderedJson::object();

    void reading(const ReadingField& field, const Reading& r) override;
    void readings(const ReadingField& field, const std::vector<Reading>& list, std::size_t most) override;
    void element(const ElementId& id) override;
    void text(const Name& name, const std::string& value) override;
    void count(const CountField& field, int value) override;
    void number(const NumberField& field, double value) override;
    void pairs(const PairsField& field, const Pairs& values) override;
    void choice(const Name& name, const Chosen& chosen) override;
    void ticks(const Name& name, const Ticked& ticked) override;
    void object(const Name& name, const ConstPart& part) override;
    void optional(const Name& name, const ConstPart* part, const ConstPart& blank) override;
    void list(const ListField& field, const ConstList& list) override;

    /// Schema of an object with the properties gathered; its elements have ids where a list says so.
    [[nodiscard]] OrderedJson schema(bool withId = false) &&;
};

} // namespace deepstop::files
