#pragma once
/// Values that say when somebody looks at them, so that what was worked out is known to hold as long as what it looked at says the same.

#include <cstdint>
#include <optional>
#include <vector>

namespace deepstop {

/// A set of the readings of one build, by their numbers.
class ReadingSet {
public:
    ReadingSet() = default;
    /// Of a build with so many readings.
    explicit ReadingSet(std::size_t readings) : words_(readings / 64 + 1) { }

    void add(std::uint32_t number)
    {
        const std::size_t word = number / 64;
        if (word >= words_.size())
            words_.resize(word + 1);
        words_[word] |= 1UL << (number % 64);
    }
    void add(const ReadingSet& other)
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
    [[nodiscard]] bool meets(const ReadingSet& other) const
    {
        for (std::size_t i = 0; i < words_.size() && i < other.words_.size(); ++i)
            if (words_[i] & other.words_[i])
                return true;
        return false;
    }

private:
    std::vector<std::uint64_t> words_;
};

/// While it lives, readings looked at on this thread are noted in a set of its own; and then in that of the scope around it.
class NotingScope {
public:
    explicit NotingScope(std::size_t readings) : looked(readings), around_(current()) { current() = this; }
    ~NotingScope()
    {
        current() = around_;
        if (around_)
            around_->looked.add(looked);
    }
    NotingScope(const NotingScope&) = delete;
    NotingScope& operator=(const NotingScope&) = delete;

    ReadingSet looked;

    static void note(std::uint32_t number)
    {
        if (NotingScope* scope = current(); scope && number)
            scope->looked.add(number);
    }
    /// What was looked at when something was worked out that is now used again.
    static void note(const ReadingSet& set)
    {
        if (NotingScope* scope = current())
            scope->looked.add(set);
    }

    /// What has been looked at in the innermost scope up to now.
    static ReadingSet lookedSoFar()
    {
        const NotingScope* scope = current();
        return scope ? scope->looked : ReadingSet {};
    }

private:
    static NotingScope*& current()
    {
        static thread_local constinit NotingScope* innermost = nullptr;
        return innermost;
    }
    NotingScope* around_;
};

/// The value of a reading, or none, with the number of the reading in its build. A copy keeps the number, and so does a reading that is given
/// another value.
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
        NotingScope::note(number_);
        return value_;
    }
    [[nodiscard]] std::optional<double>& changing()
    {
        NotingScope::note(number_);
        return value_;
    }

    std::optional<double> value_;
    std::uint32_t number_ = 0;
};

} // namespace deepstop
