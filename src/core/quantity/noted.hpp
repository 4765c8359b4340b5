#pragma once
/// Values that say when somebody looks at them, so that what was worked out is known to hold as long as what it looked at says the same.

#include <bit>
#include <concepts>
#include <cstdint>
#include <optional>
#include <type_traits>
#include <utility>
#include <vector>

namespace deepstop {

/// A set of numbers.
class NumberSet {
public:
    NumberSet() = default;
    /// Of numbers up to this.
    explicit NumberSet(std::size_t most) : words_(most / 64 + 1) { }

    void add(std::uint32_t number)
    {
        const std::size_t word = number / 64;
        if (word >= words_.size())
            words_.resize(word + 1);
        words_[word] |= 1UL << (number % 64);
    }
    void add(const NumberSet& other)
    {
        if (other.words_.size() > words_.size())
            words_.resize(other.words_.size());
        for (std::size_t i = 0; i < other.words_.size(); ++i)
            words_[i] |= other.words_[i];
    }
    [[nodiscard]] bool holds(std::uint32_t number) const
    {
        return number / 64 < words_.size() && (words_[number / 64] >> (number % 64) & 1) != 0;
    }
    [[nodiscard]] bool meets(const NumberSet& other) const
    {
        for (std::size_t i = 0; i < words_.size() && i < other.words_.size(); ++i)
            if (words_[i] & other.words_[i])
                return true;
        return false;
    }
    /// All of them, from the least.
    [[nodiscard]] std::vector<std::uint32_t> all() const
    {
        std::vector<std::uint32_t> numbers;
        for (std::size_t i = 0; i < words_.size(); ++i)
            for (std::uint64_t left = words_[i]; left; left &= left - 1)
                numbers.push_back(static_cast<std::uint32_t>(i * 64) + static_cast<std::uint32_t>(std::countr_zero(left)));
        return numbers;
    }

private:
    std::vector<std::uint64_t> words_;
};

/// Readings and facts of one build, by the numbers they have there.
struct Looked {
    NumberSet readings;
    NumberSet facts;

    void add(const Looked& other)
    {
        readings.add(other.readings);
        facts.add(other.facts);
    }
    [[nodiscard]] bool meets(const Looked& other) const { return readings.meets(other.readings) || facts.meets(other.facts); }
};

/// While it lives, what is looked at on this thread is noted in a set of its own; and then in that of the scope around it.
class NotingScope {
public:
    explicit NotingScope(std::size_t readings = 0) : around_(current())
    {
        if (readings)
            looked.readings = NumberSet(readings);
        current() = this;
    }
    ~NotingScope()
    {
        current() = around_;
        if (around_) {
            around_->looked.add(looked);
            around_->captured.add(captured);
        }
    }
    NotingScope(const NotingScope&) = delete;
    NotingScope& operator=(const NotingScope&) = delete;

    Looked looked;
    NumberSet captured; ///< facts that something kept may have been made with, though it did not look at them itself

    static void noteReading(std::uint32_t number)
    {
        if (NotingScope* scope = current(); scope && number)
            scope->looked.readings.add(number);
    }
    static void noteFact(std::uint32_t number)
    {
        if (NotingScope* scope = current(); scope && number)
            scope->looked.facts.add(number);
    }
    /// What was looked at when something was worked out that is now used again, and what it may have been made with.
    static void note(const Looked& looked, const NumberSet& captured = {})
    {
        if (NotingScope* scope = current()) {
            scope->looked.add(looked);
            scope->captured.add(captured);
        }
    }

    /// What has been looked at in the innermost scope up to now.
    static Looked lookedSoFar()
    {
        const NotingScope* scope = current();
        return scope ? scope->looked : Looked {};
    }
    /// And what things kept and used in it may have been made with.
    static NumberSet capturedSoFar()
    {
        const NotingScope* scope = current();
        return scope ? scope->captured : NumberSet {};
    }
    /// Facts looked at, or captured, in all scopes there are up to now.
    static NumberSet factsSoFar()
    {
        NumberSet facts;
        for (const NotingScope* scope = current(); scope; scope = scope->around_)
            facts.add(scope->looked.facts), facts.add(scope->captured);
        return facts;
    }

private:
    static NotingScope*& current()
    {
        static thread_local constinit NotingScope* innermost = nullptr;
        return innermost;
    }
    NotingScope* around_;
};

/// The value of a reading, or none, with the number of the reading in its build. A copy keeps the number, and so does a reading that is
/// given another value.
class NotedValue {
public:
    constexpr NotedValue() = default;
    constexpr NotedValue(std::nullopt_t) { } // NOLINT: stands for an optional
    constexpr NotedValue(double value) : value_(value) { } // NOLINT
    constexpr NotedValue(const std::optional<double>& value) : value_(value) { } // NOLINT
    constexpr NotedValue(const NotedValue&) = default;
    ~NotedValue() = default;
    NotedValue& operator=(const NotedValue& other)
    {
        value_ = other.value_;
        if (other.number_)
            number_ = other.number_;
        return *this;
    }

    [[nodiscard]] bool has_value() const { return looked().has_value(); }
    explicit operator bool() const { return has_value(); }
    operator const std::optional<double>&() const { return looked(); } // NOLINT
    double operator*() const { return *looked(); }
    double& operator*() { return *changing(); }
    [[nodiscard]] double value() const { return looked().value(); }
    [[nodiscard]] double value_or(double otherwise) const { return looked().value_or(otherwise); }
    void reset() { value_.reset(); }

    friend bool operator==(const NotedValue& a, const NotedValue& b) { return a.looked() == b.looked(); }
    friend bool operator==(const NotedValue& a, const std::optional<double>& b) { return a.looked() == b; }
    friend bool operator==(const NotedValue& a, double b) { return a.looked() == b; }
    friend bool operator==(const NotedValue& a, std::nullopt_t) { return !a.has_value(); }

    /// From 1 in a build whose readings are numbered; 0: of none.
    [[nodiscard]] std::uint32_t number() const { return number_; }
    void number(std::uint32_t number) { number_ = number; }

private:
    [[nodiscard]] const std::optional<double>& looked() const
    {
        NotingScope::noteReading(number_);
        return value_;
    }
    [[nodiscard]] std::optional<double>& changing()
    {
        NotingScope::noteReading(number_);
        return value_;
    }

    std::optional<double> value_;
    std::uint32_t number_ = 0;
};

/// The number of a fact in its build, from 1; 0: of none.
class FactNumber {
public:
    [[nodiscard]] std::uint32_t number() const { return number_; }
    void number(std::uint32_t number) { number_ = number; }

protected:
    FactNumber() = default;
    FactNumber(const FactNumber&) = default;
    ~FactNumber() = default;
    FactNumber& operator=(const FactNumber& other)
    {
        if (other.number_)
            number_ = other.number_;
        return *this;
    }
    void note() const { NotingScope::noteFact(number_); }

private:
    std::uint32_t number_ = 0;
};

/// Something chosen, counted or named, with its number. Like the value of a reading: a copy keeps the number, and so does a fact that is
/// said anew.
template <class T>
class Fact : public FactNumber {
public:
    Fact() = default;
    template <std::convertible_to<T> Said>
        requires(!std::derived_from<std::remove_cvref_t<Said>, FactNumber>)
    Fact(Said said) : value_(std::move(said)) // NOLINT: stands for what it says
    {
    }

    operator const T&() const { return looked(); } // NOLINT
    const T* operator->() const { return &looked(); }
    const T& operator*() const { return looked(); }
    friend bool operator==(const Fact& a, const Fact& b) { return a.looked() == b.looked(); }
    friend bool operator==(const Fact& a, const T& b) { return a.looked() == b; }

private:
    [[nodiscard]] const T& looked() const
    {
        note();
        return value_;
    }
    T value_ {};
};

} // namespace deepstop
