#include "build/address.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop {
namespace {

/// Walks the document and calls `found(pointer, label, place, style, range, reading)` for every reading.
template <class Found>
class Walk {
public:
    explicit Walk(Found& found) : found_(found) { }

    void reading(std::string_view key, std::string_view label, const Style& style, Range range, Reading& reading)
    {
        found_(Address { pointer_ + "/" + std::string(key), std::string(label) + suffix_, place_, style, range }, reading);
    }
    void readings(std::string_view key, std::string_view label, const Style& style, Range range, std::vector<Reading>& list)
    {
        for (std::size_t i = 0; i < list.size(); ++i)
            found_(Address { fmt::format("{}/{}/{}", pointer_, key, i), fmt::format("{} {}", label, i + 1), place_, style, range }, list[i]);
    }
    void text(std::string_view, std::string_view, std::string&) { }
    void count(std::string_view, std::string_view, int&) { }
    void plain(std::string_view, std::string_view, double&) { }
    template <class E, class T>
    void choice(std::string_view, std::string_view, E&, const T&) { }
    template <class E, class T>
    void choices(std::string_view, std::string_view, std::vector<E>&, const T&) { }
    template <class T>
    void object(std::string_view key, std::string_view label, T& value)
    {
        inside(std::string(key), std::string(label), {}, value);
    }
    template <class T>
    void optional(std::string_view key, std::string_view label, std::optional<T>& value)
    {
        if (value)
            inside(std::string(key), std::string(label), {}, *value);
    }
    template <class T>
    void list(std::string_view key, std::string_view label, std::vector<T>& values)
    {
        for (std::size_t i = 0; i < values.size(); ++i)
            inside(fmt::format("{}/{}", key, i), placeOf(values[i]), label.empty() ? std::string() : fmt::format(", {} {}", label, i + 1),
                values[i]);
    }

private:
    static std::string placeOf(const Wheel& w) { return w.name; }
    static std::string placeOf(const Setup& s) { return s.name; }
    static std::string placeOf(const MockUp& m)
    {
        return fmt::format("{} {}", wordFor(m.axle, choices::axle), wordFor(m.side, choices::side));
    }
    static std::string placeOf(const TestSession& t) { return t.date; }
    template <class T>
    static std::string placeOf(const T&) { return {}; }

    template <class T>
    void inside(const std::string& key, const std::string& place, const std::string& suffix, T& value)
    {
        const auto pointer = pointer_;
        const auto outer = place_;
        const auto suffixBefore = suffix_;
        pointer_ += "/" + key;
        if (!place.empty())
            place_ = outer.empty() ? place : outer + ", " + place;
        suffix_ += suffix;
        describe(*this, value);
        pointer_ = pointer;
        place_ = outer;
        suffix_ = suffixBefore;
    }

    Found& found_;
    std::string pointer_;
    std::string place_;
    std::string suffix_;
};

template <class Found>
void walk(Build& build, Found found)
{
    Walk<Found> visitor(found);
    describe(visitor, build);
}

} // namespace

Directory::Directory(const Build& build)
{
    // The walk hands out mutable references; nothing here writes through them.
    walk(const_cast<Build&>(build), [this](Address address, Reading& reading) {
        byReading_.emplace(&reading, entries_.size());
        byPointer_.emplace(address.pointer, entries_.size());
        entries_.push_back({ std::move(address), &reading });
    });
}

const Address* Directory::of(const Reading& reading) const
{
    const auto found = byReading_.find(&reading);
    return found == byReading_.end() ? nullptr : &entries_[found->second].address;
}

const Directory::Entry* Directory::at(const std::string& pointer) const
{
    const auto found = byPointer_.find(pointer);
    return found == byPointer_.end() ? nullptr : &entries_[found->second];
}

Build withReading(Build build, const std::string& pointer, const Reading& reading)
{
    walk(build, [&](const Address& address, Reading& place) {
        if (address.pointer == pointer)
            place = reading;
    });
    return build;
}

std::string refusal(const Address& address, double si)
{
    if (!std::isfinite(si))
        return fmt::format("{} must be a number.", address.label);
    if (address.range == Range::Positive && si <= 0)
        return fmt::format("{} must be more than 0.", address.label);
    if (address.range == Range::NotNegative && si < 0)
        return fmt::format("{} cannot be less than 0.", address.label);
    return {};
}

} // namespace deepstop
