#pragma once
/// A part as a list of labelled texts, for showing, searching and telling two of them apart.

#include "build/fields.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <string>
#include <utility>
#include <vector>

namespace deepstop::library {

class Texts : public ConstVisitor {
public:
    explicit Texts(UnitSystem system = UnitSystem::Metric) : system_(system) { }
    std::vector<std::pair<std::string, std::string>> lines; ///< label, text; in the order of the fields, empty where nothing is said

    void reading(const ReadingField& field, const Reading& r) override
    {
        add(tr(field.label), r.value ? print(*r.value, field.style, system_) : "");
    }
    void readings(const ReadingField& field, const std::vector<Reading>& list, std::size_t) override
    {
        std::string all;
        for (const Reading& r : list)
            all += (all.empty() ? "" : " + ") + (r.value ? print(*r.value, field.style, system_) : std::string("?"));
        add(tr(field.label), all);
    }
    void text(const Name& name, const std::string& value) override
    {
        if (name.key != "from" && name.key != "id")
            add(tr(name.label), value);
    }
    void count(const CountField& field, int value) override { add(tr(field.label), value != notCounted ? fmt::format("{}", value) : ""); }
    void number(const NumberField& field, double value) override { add(tr(field.label), value != 0 ? fmt::format("{:g}", value) : ""); }
    void choice(const Name& name, const Chosen& chosen) override { add(tr(name.label), std::string(chosen.word())); }
    void list(const ListField& field, const ConstList& list) override
    {
        const auto outer = std::exchange(suffix_, {});
        for (std::size_t i = 0; i < list.size(); ++i) {
            suffix_ = fmt::format(", {} {}", tr(field.label), i + 1);
            list.describe(*this, i);
        }
        suffix_ = outer;
    }

private:
    void add(std::string_view label, std::string text) { lines.emplace_back(std::string(label) + suffix_, std::move(text)); }
    UnitSystem system_;
    std::string suffix_;
};

template <class T>
[[nodiscard]] Texts textsOf(const T& part, UnitSystem system = UnitSystem::Metric)
{
    Texts texts(system);
    describe(texts, part);
    return texts;
}

} // namespace deepstop::library
