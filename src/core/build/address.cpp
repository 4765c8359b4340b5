#include "build/address.hpp"

#include <fmt/format.h>

#include "quantity/parse.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <utility>

namespace deepstop {
namespace {

/// Walks the document and calls the finder's `reading(pointer, label, place, style, range, Reading&)` and `fact(…)` for everything in it.
/// A finder that seeks one pointer says so by `seeks(path)`, and what does not lie on the way is passed over.
template <class Finder>
class Walk {
public:
    explicit Walk(Finder& finder) : finder_(finder) { }

    void reading(std::string_view key, std::string_view label, const Style& style, Range range, Reading& reading)
    {
        if constexpr (Finder::wantsAddresses)
            finder_.reading(addressOf(key, label, style, range), reading);
        else
            finder_.reading(reading);
    }
    void readings(std::string_view key, std::string_view label, const Style& style, Range range, std::vector<Reading>& list)
    {
        if constexpr (!Finder::wantsAddresses) {
            for (Reading& each : list)
                finder_.reading(each);
            return;
        }
        const auto address = [&](const std::string& index, std::size_t number) {
            return Address { pointer_ + "/" + std::string(key) + "/" + index, fmt::format("{} {}", label, number), place_, style, range };
        };
        for (std::size_t i = 0; i < list.size(); ++i)
            finder_.reading(address(std::to_string(i), i + 1), list[i]);
        finder_.list(pointer_ + "/" + std::string(key), list);
        if (Reading free; finder_.free(address("-", list.size() + 1), free))
            list.push_back(free);
    }
    void text(std::string_view key, std::string_view label, std::string& value) { fact(key, label, Fact::Kind::Text, value); }
    void count(std::string_view key, std::string_view label, int& value) { fact(key, label, Fact::Kind::Count, value); }
    void plain(std::string_view key, std::string_view label, double& value) { fact(key, label, Fact::Kind::Plain, value); }
    template <class E, class T>
    void choice(std::string_view key, std::string_view label, E& value, const T& table)
    {
        fact(key, label, Fact::Kind::Word, value, &table);
    }
    template <class E, class T>
    void choices(std::string_view key, std::string_view label, std::vector<E>& values, const T& table)
    {
        fact(key, label, Fact::Kind::Ticks, values, &table);
    }
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
        if constexpr (!Finder::wantsAddresses) {
            for (T& value : values)
                describe(*this, value);
            return;
        }
        const auto suffix = [&](std::size_t number) { return label.empty() ? std::string() : fmt::format(", {} {}", label, number); };
        for (std::size_t i = 0; i < values.size(); ++i)
            inside(fmt::format("{}/{}", key, i), placeOf(values[i]), suffix(i + 1), values[i]);
        finder_.list(pointer_ + "/" + std::string(key), values);
        // A wheel or a setup needs more than one reading to be one; stations, weighings and their like begin with any of theirs.
        if constexpr (!requires(T t) { t.id; }) {
            T fresh {};
            finder_.beginFree();
            inside(std::string(key) + "/-", {}, suffix(values.size() + 1), fresh);
            if (finder_.endFree())
                values.push_back(std::move(fresh));
        }
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

    template <class V, class T = int>
    void fact(std::string_view key, std::string_view label, Fact::Kind kind, V& value, const T* table = nullptr)
    {
        if constexpr (!Finder::wantsFacts)
            return;
        else if (const auto pointer = pointer_ + "/" + std::string(key); finder_.seeks(pointer))
            finder_.fact(Fact { pointer, std::string(label) + suffix_, place_, kind, {}, {} }, value, table);
    }

    template <class T>
    void inside(const std::string& key, const std::string& place, const std::string& suffix, T& value)
    {
        if constexpr (!Finder::wantsAddresses) {
            describe(*this, value);
            return;
        }
        const auto [pointer, outer, outerSuffix] = std::tuple { pointer_.size(), place_.size(), suffix_.size() };
        pointer_.append("/").append(key);
        if (finder_.seeks(pointer_)) {
            if (!place.empty())
                place_.append(outer > 0 ? ", " : "").append(place);
            suffix_ += suffix;
            describe(*this, value);
        }
        // Back to where it stood: the names grow and shrink at their end.
        pointer_.resize(pointer);
        place_.resize(outer);
        suffix_.resize(outerSuffix);
    }
    Address addressOf(std::string_view key, std::string_view label, const Style& style, Range range) const
    {
        Address address { pointer_, {}, place_, style, range };
        address.pointer.append("/").append(key);
        address.label.reserve(label.size() + suffix_.size());
        address.label.append(label).append(suffix_);
        return address;
    }

    Finder& finder_;
    std::string pointer_; ///< of what is being walked through
    std::string place_;
    std::string suffix_;
};

/// What a finder does with what it does not care for: nothing.
struct Finder {
    static constexpr bool wantsFacts = false;
    static constexpr bool wantsAddresses = true;
    bool seeks(const std::string&) { return false; }
    void reading(const Address&, Reading&) { }
    template <class T>
    void list(const std::string&, std::vector<T>&) { }
    bool free(const Address&, Reading&) { return false; } ///< true: keep the new element
    void beginFree() { }
    bool endFree() { return false; } ///< true: keep the new element
};

/// A finder of one place: goes only where the pointer leads.
struct Seeker : Finder {
    explicit Seeker(const std::string& wanted) : pointer(wanted) { }
    bool seeks(const std::string& path) const { return pointer.starts_with(path) && (pointer.size() == path.size() || pointer[path.size()] == '/'); }
    const std::string& pointer;
};

void walk(Build& build, auto&& finder)
{
    Walk<std::remove_cvref_t<decltype(finder)>> visitor(finder);
    describe(visitor, build);
}

const Reading noReading;

struct Collect : Finder {
    bool seeks(const std::string&) const { return true; }
    void reading(Address&& address, Reading& place)
    {
        (inFree ? freePlaces : addresses).push_back(std::move(address));
        if (!inFree)
            readings.push_back(&place);
    }
    bool free(Address&& address, Reading&)
    {
        if (!inFree)
            freePlaces.push_back(std::move(address));
        return false;
    }
    void beginFree() { ++inFree; }
    bool endFree()
    {
        --inFree;
        return false;
    }
    std::vector<Address> addresses;
    std::vector<Address> freePlaces;
    std::vector<const Reading*> readings;
    int inFree = 0;
};

/// The readings alone, in the order of `Collect`.
struct CollectReadings : Finder {
    static constexpr bool wantsAddresses = false;
    using Finder::reading;
    void reading(Reading& place) { readings.push_back(&place); }
    std::vector<const Reading*> readings;
};

struct PutReading : Seeker {
    PutReading(const std::string& where, const Reading& what) : Seeker(where), fresh(what) { }
    void reading(const Address& address, Reading& place)
    {
        if (address.pointer == pointer) {
            place = fresh;
            found = true;
        }
    }
    bool free(const Address& address, Reading& place)
    {
        if (address.pointer != pointer)
            return false;
        place = fresh;
        return true;
    }
    void beginFree() { found = false; }
    bool endFree() { return std::exchange(found, false); }
    const Reading& fresh;
    bool found = false;
};

struct RemoveElement : Seeker {
    using Seeker::Seeker;
    template <class T>
    void list(const std::string& path, std::vector<T>& values)
    {
        if (!seeks(path) || pointer.size() <= path.size() + 1)
            return;
        std::size_t index = 0;
        const char* end = pointer.data() + pointer.size();
        const auto read = std::from_chars(pointer.data() + path.size() + 1, end, index);
        if (read.ec == std::errc {} && read.ptr == end && index < values.size())
            values.erase(values.begin() + static_cast<std::ptrdiff_t>(index));
    }
};

/// Reads and says facts: as text out, from text in.
struct FactFinder : Seeker {
    static constexpr bool wantsFacts = true;
    FactFinder(const std::string& where, const std::string* text) : Seeker(where), fresh(text) { }

    void beginFree() { changed = false; }
    bool endFree() { return std::exchange(changed, false); }
    void fact(Fact fact, std::string& value, const int*)
    {
        fact.value = value;
        if (fresh)
            value = *fresh;
        keep(std::move(fact));
    }
    void fact(Fact fact, int& value, const int*)
    {
        fact.value = value ? std::to_string(value) : std::string();
        int number = 0;
        const char* end = fresh ? fresh->data() + fresh->size() : nullptr;
        if (fresh && !fresh->empty()) {
            const auto read = std::from_chars(fresh->data(), end, number);
            if (read.ec != std::errc {} || read.ptr != end || number < 0 || number > 10000)
                refusal = fact.label + ": a whole number from 0 is wanted.";
        }
        if (fresh && refusal.empty())
            value = number;
        keep(std::move(fact));
    }
    void fact(Fact fact, double& value, const int*)
    {
        fact.value = value != 0 ? editable(value, *findUnit("", Dimension::Number)) : std::string();
        if (fresh && !fresh->empty()) {
            const auto parsed = parseQuantity(*fresh, Dimension::Number, "");
            if (!parsed || *parsed.value < 0)
                refusal = fact.label + ": a number from 0 is wanted.";
            else
                value = *parsed.value;
        } else if (fresh) {
            value = 0;
        }
        keep(std::move(fact));
    }
    template <class E, class T>
    void fact(Fact fact, E& value, const T* table)
    {
        fact.value = wordFor(value, *table);
        if (fresh) {
            const auto named = std::ranges::find(*table, *fresh, [](const auto& pair) { return pair.first; });
            if (named == table->end())
                refusal = fact.label + ": “" + *fresh + "” is none of its words.";
            else
                value = named->second;
        }
        for (const auto& [word, one] : *table)
            fact.words.emplace_back(word);
        keep(std::move(fact));
    }
    template <class E, class T>
    void fact(Fact fact, std::vector<E>& values, const T* table)
    {
        for (const E value : values)
            fact.value += (fact.value.empty() ? "" : ",") + std::string(wordFor(value, *table));
        if (fresh) {
            values.clear();
            const auto all = "," + *fresh + ",";
            for (const auto& [word, one] : *table)
                if (all.find("," + std::string(word) + ",") != std::string::npos)
                    values.push_back(one);
        }
        for (const auto& [word, one] : *table)
            fact.words.emplace_back(word);
        keep(std::move(fact));
    }
    void keep(Fact fact)
    {
        found = std::move(fact);
        changed = fresh != nullptr && refusal.empty();
    }

    const std::string* fresh;
    std::optional<Fact> found;
    std::string refusal;
    bool changed = false;
};

} // namespace

Directory::Directory(const Build& build)
{
    // As many as builds usually have.
    constexpr std::size_t usual = 1024;
    Collect found;
    for (auto* list : { &found.addresses, &found.freePlaces })
        list->reserve(usual);
    // The walk hands out mutable references; nothing here writes through them.
    walk(const_cast<Build&>(build), found);
    auto addresses = std::make_shared<Addresses>();
    addresses->all = std::move(found.addresses);
    addresses->free = std::move(found.freePlaces);
    addresses->byPointer.reserve(addresses->all.size());
    for (std::size_t i = 0; i < addresses->all.size(); ++i)
        addresses->byPointer.emplace(addresses->all[i].pointer, i);
    addresses_ = std::move(addresses);
    put(found.readings);
}

Directory::Directory(const Build& build, const Directory& alike) : addresses_(alike.addresses_)
{
    CollectReadings found;
    found.readings.reserve(addresses_->all.size());
    walk(const_cast<Build&>(build), found);
    put(found.readings);
}

void Directory::put(const std::vector<const Reading*>& readings)
{
    entries_.reserve(readings.size());
    byReading_.reserve(readings.size());
    for (std::size_t i = 0; i < readings.size(); ++i) {
        entries_.push_back({ addresses_->all[i], readings[i] });
        byReading_.emplace(readings[i], i);
    }
    free_.reserve(addresses_->free.size());
    for (const Address& address : addresses_->free)
        free_.push_back({ address, &noReading });
}

const Address* Directory::of(const Reading& reading) const
{
    const auto found = byReading_.find(&reading);
    return found == byReading_.end() ? nullptr : &addresses_->all[found->second];
}

const Directory::Entry* Directory::at(const std::string& pointer) const
{
    if (const auto found = addresses_->byPointer.find(pointer); found != addresses_->byPointer.end())
        return &entries_[found->second];
    const auto free = std::ranges::find(free_, pointer, [](const Entry& e) -> const std::string& { return e.address.pointer; });
    return free == free_.end() ? nullptr : &*free;
}

Build withReading(Build build, const std::string& pointer, const Reading& reading)
{
    walk(build, PutReading(pointer, reading));
    return build;
}

Build withoutElement(Build build, const std::string& pointer)
{
    walk(build, RemoveElement(pointer));
    return build;
}

std::optional<Fact> factAt(const Build& build, const std::string& pointer)
{
    FactFinder finder(pointer, nullptr);
    // Nothing is written where there is nothing fresh.
    walk(const_cast<Build&>(build), finder);
    return finder.found;
}

FactEntry withFact(Build build, const std::string& pointer, const std::string& text)
{
    FactFinder finder(pointer, &text);
    walk(build, finder);
    if (!finder.found)
        return { {}, pointer + ": there is no such place in the build." };
    if (!finder.refusal.empty())
        return { {}, finder.refusal };
    return { std::move(build), {} };
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
