#pragma once
/// Puts the typed members of a part behind the faces of `visitor.hpp`. Included only where rows of the table of fields are written.

#include "build/choices.hpp"
#include "build/fields.hpp"

#include <concepts>
#include <optional>

namespace deepstop {

/// `T` is that part, const or not.
template <class T, class Of>
concept Is = std::same_as<std::remove_const_t<T>, Of>;

/// What a person calls one element of a list.
template <class T>
[[nodiscard]] std::string titleOf(const T& part)
{
    if constexpr (std::same_as<T, MockUp>)
        return std::string(wordFor(part.axle, choices::axle)).append(" ").append(wordFor(part.side, choices::side));
    else if constexpr (std::same_as<T, TestSession>)
        return part.date;
    else if constexpr (requires {
                           part.id;
                           part.name;
                       })
        return part.name;
    else
        return {};
}

/// Elements that are referred to by an id of their own, which they have from the beginning.
template <class T>
constexpr bool isNamed = requires(T t)
{
    {
        t.id
        } -> std::same_as<std::string&>;
};

template <class T>
class ConstPartOf final : public ConstPart {
public:
    explicit ConstPartOf(const T& part) : part_(part) { }
    void describe(ConstVisitor& v) const override { deepstop::describe(v, part_); }

private:
    const T& part_;
};

template <class T>
class PartOf final : public MutablePart {
public:
    explicit PartOf(T& part) : part_(part) { }
    void describe(Visitor& v) override { deepstop::describe(v, part_); }

private:
    T& part_;
};

template <class T>
class MaybeOf final : public Visitor::Maybe {
public:
    explicit MaybeOf(std::optional<T>& part) : part_(part) { }
    [[nodiscard]] bool exists() const override { return part_.has_value(); }
    void make() override { part_.emplace(); }
    void describe(Visitor& v) override { deepstop::describe(v, *part_); }

private:
    std::optional<T>& part_;
};

template <class T>
class ConstListOf final : public ConstList {
public:
    explicit ConstListOf(const std::vector<T>& parts) : parts_(parts) { }
    [[nodiscard]] std::size_t size() const override { return parts_.size(); }
    void describe(ConstVisitor& v, std::size_t i) const override { deepstop::describe(v, parts_[i]); }
    void describeBlank(ConstVisitor& v) const override
    {
        const T blank {};
        deepstop::describe(v, blank);
    }
    [[nodiscard]] std::string title(std::size_t i) const override { return titleOf(parts_[i]); }
    [[nodiscard]] bool hasIds() const override { return isNamed<T>; }

private:
    const std::vector<T>& parts_;
};

template <class T>
class ListOf final : public List {
public:
    explicit ListOf(std::vector<T>& parts) : parts_(parts) { }
    [[nodiscard]] std::size_t size() const override { return parts_.size(); }
    void describe(Visitor& v, std::size_t i) override { deepstop::describe(v, parts_[i]); }
    void append() override { parts_.emplace_back(); }
    void erase(std::size_t i) override { parts_.erase(parts_.begin() + static_cast<std::ptrdiff_t>(i)); }
    void clear() override { parts_.clear(); }
    [[nodiscard]] bool hasIds() const override { return isNamed<T>; }

private:
    std::vector<T>& parts_;
};

/// One pass of a visitor over the rows of a part.
template <class V>
class Table {
public:
    explicit Table(V& visitor) : visitor_(visitor) { }

    void reading(std::string_view key, std::string_view label, const Style& style, const Range& range, auto& r)
    {
        visitor_.reading({ { key, label }, style, range }, r);
    }
    /// A limit or default that the builder may change.
    void setting(std::string_view key, std::string_view label, const Style& style, const Range& range, auto& wants, Reading Wants::*which)
    {
        visitor_.reading({ { key, label }, style, range, &(usualWants().*which) }, wants.*which);
    }
    void readings(std::string_view key, std::string_view label, const Style& style, const Range& range, std::size_t most, auto& list)
    {
        visitor_.readings({ { key, label }, style, range }, list, most);
    }
    void element(auto& id) { visitor_.element(id); }
    void text(std::string_view key, std::string_view label, auto& value)
    {
        const Name name { key, label };
        said(name, value, [&](auto& text) { visitor_.text(name, text); });
    }
    void count(std::string_view key, std::string_view label, int most, auto& value)
    {
        const CountField field { { key, label }, most };
        said(field, value, [&](auto& count) { visitor_.count(field, count); });
    }
    void number(std::string_view key, std::string_view label, const Range& range, auto& value)
    {
        const NumberField field { { key, label }, range };
        said(field, value, [&](auto& number) { visitor_.number(field, number); });
    }
    void pairs(std::string_view key, std::string_view label, std::size_t most, const Range& first, const Range& second, auto& values)
    {
        visitor_.pairs({ { key, label }, most, first, second }, values);
    }

    template <class E, std::size_t N>
    void choice(std::string_view key, std::string_view label, const E& value, const ChoiceTable<E, N>& table)
    {
        visitor_.choice({ key, label }, chosen(value, table));
    }
    template <class E, std::size_t N>
    void choice(std::string_view key, std::string_view label, const Fact<E>& value, const ChoiceTable<E, N>& table)
    {
        visitor_.fact({ key, label }, value);
        choice(key, label, *value, table);
    }
    template <class E, std::size_t N>
    void choice(std::string_view key, std::string_view label, E& value, const ChoiceTable<E, N>& table)
    {
        choose(key, label, value, table);
    }
    template <class E, std::size_t N>
    void choice(std::string_view key, std::string_view label, Fact<E>& value, const ChoiceTable<E, N>& table)
    {
        visitor_.fact({ key, label }, value);
        choose(key, label, value, table);
    }
    template <class E, std::size_t N>
    void ticks(std::string_view key, std::string_view label, const std::vector<E>& values, const ChoiceTable<E, N>& table)
    {
        visitor_.ticks({ key, label }, ticked(values, table));
    }
    template <class E, std::size_t N>
    void ticks(std::string_view key, std::string_view label, std::vector<E>& values, const ChoiceTable<E, N>& table)
    {
        Ticks ticks(ticked(values, table), &values, &table, [](void* v, const void* t, const std::vector<std::size_t>& indices) {
            auto& chosen = *static_cast<std::vector<E>*>(v);
            chosen.clear();
            for (const std::size_t i : indices)
                chosen.push_back((*static_cast<const ChoiceTable<E, N>*>(t))[i].value);
        });
        visitor_.ticks({ key, label }, ticks);
    }

    template <class T>
    void object(std::string_view key, std::string_view label, const T& part)
    {
        visitor_.object({ key, label }, ConstPartOf<T>(part));
    }
    template <class T>
    void object(std::string_view key, std::string_view label, T& part)
    {
        PartOf<T> face(part);
        visitor_.object({ key, label }, face);
    }
    template <class T>
    void optional(std::string_view key, std::string_view label, const std::optional<T>& part)
    {
        const T blank {};
        const ConstPartOf<T> there(part ? *part : blank);
        visitor_.optional({ key, label }, part ? &there : nullptr, there);
    }
    template <class T>
    void optional(std::string_view key, std::string_view label, std::optional<T>& part)
    {
        MaybeOf<T> face(part);
        visitor_.optional({ key, label }, face);
    }
    template <class T>
    void list(std::string_view key, std::string_view label, std::size_t most, const std::vector<T>& parts)
    {
        visitor_.list({ { key, label }, most }, ConstListOf<T>(parts));
    }
    template <class T>
    void list(std::string_view key, std::string_view label, std::size_t most, std::vector<T>& parts)
    {
        ListOf<T> face(parts);
        visitor_.list({ { key, label }, most }, face);
    }

private:
    /// Shows what a fact says, with its number; a plain value as it is.
    template <class T>
    void said(const Name& name, const Fact<T>& fact, auto show)
    {
        visitor_.fact(name, fact);
        show(*fact);
    }
    template <class T>
    void said(const Name& name, Fact<T>& fact, auto show)
    {
        visitor_.fact(name, fact);
        T anew = fact;
        show(anew);
        if (!(fact == anew))
            fact = std::move(anew);
    }
    void said(const Name&, auto& value, auto show) { show(value); }

    template <class E, std::size_t N, class Value>
    void choose(std::string_view key, std::string_view label, Value& value, const ChoiceTable<E, N>& table)
    {
        if constexpr (std::same_as<V, Visitor>) {
            Choice choice(chosen<E>(value, table), &value, &table, [](void* v, const void* t, std::size_t i) {
                *static_cast<Value*>(v) = (*static_cast<const ChoiceTable<E, N>*>(t))[i].value;
            });
            visitor_.choice({ key, label }, choice);
        } else {
            visitor_.choice({ key, label }, chosen<E>(value, table));
        }
    }
    template <class E, std::size_t N>
    static Chosen chosen(const E& value, const ChoiceTable<E, N>& table)
    {
        std::size_t i = 0;
        while (i + 1 < N && table[i].value != value)
            ++i;
        return { Words(table), i };
    }
    template <class E, std::size_t N>
    static Ticked ticked(const std::vector<E>& values, const ChoiceTable<E, N>& table)
    {
        Ticked all { Words(table), {} };
        for (const E& value : values)
            all.indices.push_back(chosen(value, table).index);
        return all;
    }

    V& visitor_;
};

template <class T>
void describe(Visitor& v, T& part)
{
    Table<Visitor> table(v);
    fields(table, part);
}
template <class T>
void describe(ConstVisitor& v, const T& part)
{
    Table<ConstVisitor> table(v);
    fields(table, part);
}

/// Makes the table's rows of one part for everybody who shows it to a visitor; stands at the end of the file that has them.
#define DESCRIBED(Part)                                                                                                                    \
    template void describe(Visitor&, Part&);                                                                                               \
    template void describe(ConstVisitor&, const Part&);

} // namespace deepstop
