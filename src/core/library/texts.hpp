#pragma once
/// A part as a list of labelled texts, for showing, searching and telling two of them apart.

#include "build/fields.hpp"

#include <fmt/format.h>

#include <string>
#include <utility>
#include <vector>

namespace deepstop::library {

class Texts : public PartVisitor<Texts> {
public:
    explicit Texts(UnitSystem system = UnitSystem::Metric) : system_(system) { }
    std::vector<std::pair<std::string, std::string>> lines; ///< label, text; in the order of the fields, empty where nothing is said

    void reading(std::string_view, std::string_view label, const Style& style, Range, Reading& r) { add(label, r.value ? print(*r.value, style, system_) : ""); }
    void readings(std::string_view, std::string_view label, const Style& style, Range, std::vector<Reading>& list)
    {
        std::string all;
        for (const Reading& r : list)
            all += (all.empty() ? "" : " + ") + (r.value ? print(*r.value, style, system_) : std::string("?"));
        add(label, all);
    }
    void text(std::string_view key, std::string_view label, std::string& value)
    {
        if (key != "from" && key != "id")
            add(label, value);
    }
    void count(std::string_view, std::string_view label, int& value) { add(label, value ? std::to_string(value) : ""); }
    void plain(std::string_view, std::string_view label, double& value) { add(label, value != 0 ? fmt::format("{:g}", value) : ""); }
    template <class E, class T>
    void choice(std::string_view, std::string_view label, E& value, const T& table)
    {
        add(label, std::string(wordFor(value, table)));
    }
    template <class T>
    void list(std::string_view, std::string_view label, std::vector<T>& values)
    {
        const auto outer = std::exchange(suffix_, {});
        for (std::size_t i = 0; i < values.size(); ++i) {
            suffix_ = fmt::format(", {} {}", label, i + 1);
            describe(*this, values[i]);
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
    T copy = part;
    describe(texts, copy);
    return texts;
}

} // namespace deepstop::library
