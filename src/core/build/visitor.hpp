#pragma once
/// The faces the table of fields shows to whoever goes through a document: names, words, lists and parts without their types.

#include "build/range.hpp"
#include "quantity/format.hpp"
#include "language/language.hpp"
#include "quantity/reading.hpp"

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop {

class Visitor;
class ConstVisitor;

/// What a field is called: its key in the file (which carries the unit) and its name in the trade.
struct Name {
    std::string_view key;
    std::string_view label;
};
struct ReadingField : Name {
    const Style& style;
    Range range;
    const Reading* usual = nullptr; ///< default value; null: none
};
struct CountField : Name {
    int most; ///< from 0; `notCounted` where the count is not given
};
struct NumberField : Name {
    Range range;
};
/// A course that an instrument wrote: so many pairs of plain numbers.
struct PairsField : Name {
    std::size_t most;
    Range first;
    Range second;
};
using Pairs = std::vector<std::pair<double, double>>;
/// A list and how many elements it may have.
struct ListField : Name {
    std::size_t most;
};

/// No text in a document is longer, bytes.
inline constexpr std::size_t longestText = 4000;
/// No thing is read more often than this.
inline constexpr std::size_t mostRepeats = 100;

/// The token of a choice that is not made, or made with a word this program does not know.
inline constexpr std::string_view unknownToken = "unknown";

/// The words a choice is made from, in the reader's language, and their tokens in files.
class Words {
public:
    template <class Table>
    explicit constexpr Words(const Table& table)
        : table_(&table), size_(table.size()),
          at_([](const void* t, std::size_t i) { return tr((*static_cast<const Table*>(t))[i].word); }),
          token_([](const void* t, std::size_t i) { return (*static_cast<const Table*>(t))[i].token; })
    {
    }
    [[nodiscard]] std::size_t size() const { return size_; }
    [[nodiscard]] std::string_view operator[](std::size_t i) const { return at_(table_, i); }
    [[nodiscard]] std::string_view token(std::size_t i) const { return token_(table_, i); }
    /// Whether newer programs may write tokens that this one does not know.
    [[nodiscard]] bool grow() const { return findToken(unknownToken) < size_; }
    /// Index of a word of the screen; `size()` where there is no such word.
    [[nodiscard]] std::size_t find(std::string_view word) const
    {
        std::size_t i = 0;
        while (i < size_ && (*this)[i] != word)
            ++i;
        return i;
    }
    /// Index of a token; `size()` where there is no such token.
    [[nodiscard]] std::size_t findToken(std::string_view token) const
    {
        std::size_t i = 0;
        while (i < size_ && token_(table_, i) != token)
            ++i;
        return i;
    }
    /// All of them, parted by commas.
    [[nodiscard]] std::string all() const
    {
        std::string text;
        for (std::size_t i = 0; i < size_; ++i)
            text.append(i ? ", " : "").append((*this)[i]);
        return text;
    }

private:
    const void* table_;
    std::size_t size_;
    std::string_view (*at_)(const void*, std::size_t);
    std::string_view (*token_)(const void*, std::size_t);
};

/// A choice made: which of the words.
struct Chosen {
    Words words;
    std::size_t index;
    [[nodiscard]] std::string_view word() const { return words[index]; }
    [[nodiscard]] std::string_view token() const { return words.token(index); }
    [[nodiscard]] bool isUnknown() const { return token() == unknownToken; }
};
/// A choice to be made.
class Choice : public Chosen {
public:
    using Put = void (*)(void* value, const void* table, std::size_t index);
    Choice(Chosen now, void* value, const void* table, Put put) : Chosen(now), value_(value), table_(table), put_(put) { }
    /// Takes one of the words; false for another.
    bool choose(std::string_view word) { return take(words.find(word)); }
    /// Takes one of the tokens; false for another.
    bool chooseToken(std::string_view token) { return take(words.findToken(token)); }

private:
    bool take(std::size_t found)
    {
        if (found == words.size())
            return false;
        put_(value_, table_, index = found);
        return true;
    }
    void* value_;
    const void* table_;
    Put put_;
};

/// Words ticked, any number of them.
struct Ticked {
    Words words;
    std::vector<std::size_t> indices;
};
class Ticks : public Ticked {
public:
    using Put = void (*)(void* values, const void* table, const std::vector<std::size_t>& indices);
    Ticks(Ticked now, void* values, const void* table, Put put) : Ticked(std::move(now)), values_(values), table_(table), put_(put) { }
    void tick(std::vector<std::size_t> chosen) { put_(values_, table_, indices = std::move(chosen)); }

private:
    void* values_;
    const void* table_;
    Put put_;
};

/// A part of the document, to be gone through.
class ConstPart {
public:
    virtual void describe(ConstVisitor& v) const = 0;

protected:
    ~ConstPart() = default;
};
class MutablePart {
public:
    virtual void describe(Visitor& v) = 0;

protected:
    ~MutablePart() = default;
};

/// A list of parts.
class ConstList {
public:
    [[nodiscard]] virtual std::size_t size() const = 0;
    virtual void describe(ConstVisitor& v, std::size_t i) const = 0;
    /// What a new element begins as.
    virtual void describeBlank(ConstVisitor& v) const = 0;
    /// What a person calls it: a wheel's name, "front left"; may be empty.
    [[nodiscard]] virtual std::string title(std::size_t i) const = 0;
    /// Elements that are referred to: they begin with an id, and are none without.
    [[nodiscard]] virtual bool hasIds() const = 0;

protected:
    ~ConstList() = default;
};
class List {
public:
    [[nodiscard]] virtual std::size_t size() const = 0;
    virtual void describe(Visitor& v, std::size_t i) = 0;
    virtual void append() = 0;
    virtual void erase(std::size_t i) = 0;
    virtual void clear() = 0;
    [[nodiscard]] virtual bool hasIds() const = 0;

protected:
    ~List() = default;
};

/// Goes through a document without changing it. What it does not care for is passed over; parts and lists are walked into.
class ConstVisitor {
public:
    virtual ~ConstVisitor() = default;
    virtual void reading(const ReadingField&, const Reading&) { }
    virtual void readings(const ReadingField& field, const std::vector<Reading>& list, std::size_t /*most*/)
    {
        for (const Reading& each : list)
            reading(field, each);
    }
    virtual void element(const ElementId&) { }
    /// Comes before text, count, number or choice where that is a fact with a number.
    virtual void fact(const Name&, const FactNumber&) { }
    virtual void text(const Name&, const std::string&) { }
    virtual void count(const CountField&, int) { }
    virtual void number(const NumberField&, double) { }
    virtual void pairs(const PairsField&, const Pairs&) { }
    virtual void choice(const Name&, const Chosen&) { }
    virtual void ticks(const Name&, const Ticked&) { }
    virtual void object(const Name&, const ConstPart& part) { part.describe(*this); }
    /// @param part null where there is none; @param blank what it would begin as
    virtual void optional(const Name&, const ConstPart* part, const ConstPart& /*blank*/)
    {
        if (part)
            part->describe(*this);
    }
    virtual void list(const ListField&, const ConstList& list)
    {
        for (std::size_t i = 0; i < list.size(); ++i)
            list.describe(*this, i);
    }
};

/// Goes through a document and may change it.
class Visitor {
public:
    virtual ~Visitor() = default;
    virtual void reading(const ReadingField&, Reading&) { }
    virtual void readings(const ReadingField&, std::vector<Reading>&, std::size_t /*most*/) { }
    virtual void element(ElementId&) { }
    /// Comes before text, count, number or choice where that is a fact with a number.
    virtual void fact(const Name&, FactNumber&) { }
    virtual void text(const Name&, std::string&) { }
    virtual void count(const CountField&, int&) { }
    virtual void number(const NumberField&, double&) { }
    virtual void pairs(const PairsField&, Pairs&) { }
    virtual void choice(const Name&, Choice&) { }
    virtual void ticks(const Name&, Ticks&) { }
    virtual void object(const Name&, MutablePart& part) { part.describe(*this); }
    /// What an optional part is: there or not, and made where it is wanted.
    class Maybe {
    public:
        [[nodiscard]] virtual bool exists() const = 0;
        virtual void make() = 0;
        virtual void describe(Visitor& v) = 0;

    protected:
        ~Maybe() = default;
    };
    virtual void optional(const Name&, Maybe& part)
    {
        if (part.exists())
            part.describe(*this);
    }
    virtual void list(const ListField&, List&) { }
};

} // namespace deepstop
