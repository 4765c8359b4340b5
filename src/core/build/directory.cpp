/// The directory of a build: its readings and facts in order, their addresses, and what two builds say differently.

#include "build/address.hpp"

#include "build/naming.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <bit>
#include <cstring>
#include <utility>

namespace deepstop {
namespace {

/// All readings with their addresses.
class Collect : public Naming {
public:
    void reading(const ReadingField& field, const Reading& r) override
    {
        put({ pointerTo(field), labelOf(field), place(), field.style, field.range, field.label }, inFreePlace() ? nullptr : &r);
    }
    void fact(const Name& name, const FactNumber&) override
    {
        if (!inFreePlace())
            facts.push_back({ pointerTo(name), labelOf(name), place(), style::number, { 0, 0 }, name.label });
    }
    std::vector<Address> addresses;
    std::vector<Address> freePlaces;
    std::vector<Address> facts;

protected:
    void element(const ReadingField& field, std::size_t number, const Reading* r) override
    {
        if (r || !inFreePlace())
            put({ pointer(), fmt::format("{} {}", tr(field.label), number), place(), field.style, field.range, field.label },
                inFreePlace() ? nullptr : r);
    }

private:
    void put(Address address, const Reading* r) { (r ? addresses : freePlaces).push_back(std::move(address)); }
};

/// What a session ran with is a record of its own: nothing in it has a number.
constexpr std::string_view record = "ran";

class Number : public Visitor {
public:
    void reading(const ReadingField&, Reading& r) override { r.value.number(inRecord_ ? 0 : ++last_); }
    void readings(const ReadingField& field, std::vector<Reading>& list, std::size_t) override
    {
        for (Reading& each : list)
            reading(field, each);
    }
    void fact(const Name&, FactNumber& fact) override { fact.number(inRecord_ ? 0 : ++lastFact_); }
    void optional(const Name& name, Maybe& part) override
    {
        const bool around = std::exchange(inRecord_, inRecord_ || name.key == record);
        Visitor::optional(name, part);
        inRecord_ = around;
    }
    void list(const ListField&, List& list) override
    {
        for (std::size_t i = 0; i < list.size(); ++i)
            list.describe(*this, i);
    }

private:
    std::uint32_t last_ = 0;
    std::uint32_t lastFact_ = 0;
    bool inRecord_ = false;
};

class CheckNumbers : public ConstVisitor {
public:
    void reading(const ReadingField&, const Reading& r) override { right = right && r.value.number() == (inRecord_ ? 0 : ++last_); }
    void fact(const Name&, const FactNumber& fact) override { right = right && fact.number() == (inRecord_ ? 0 : ++lastFact_); }
    void optional(const Name& name, const ConstPart* part, const ConstPart& blank) override
    {
        const bool around = std::exchange(inRecord_, inRecord_ || name.key == record);
        ConstVisitor::optional(name, part, blank);
        inRecord_ = around;
    }
    bool right = true;

private:
    std::uint32_t last_ = 0;
    std::uint32_t lastFact_ = 0;
    bool inRecord_ = false;
};

const Reading noReading;

} // namespace

/// The readings and what the facts say, in the order of `Collect`, and one number of everything else: what is there and what it says.
class Directory::CollectReadings : public ConstVisitor {
public:
    void reading(const ReadingField&, const Reading& r) override
    {
        if (inRecord_)
            mixIn(r);
        else
            all.push_back(&r);
    }
    void readings(const ReadingField& field, const std::vector<Reading>& list, std::size_t most) override
    {
        mix(list.size());
        ConstVisitor::readings(field, list, most);
    }
    void fact(const Name&, const FactNumber&) override { isFact_ = !inRecord_; }
    void text(const Name&, const std::string& value) override { say(numberOf(value)); }
    void count(const CountField&, int value) override { say(static_cast<std::uint64_t>(value)); }
    void number(const NumberField&, double value) override { say(std::bit_cast<std::uint64_t>(value)); }
    void pairs(const PairsField&, const Pairs& values) override
    {
        mix(values.size());
        for (const auto& [first, second] : values) {
            mix(std::bit_cast<std::uint64_t>(first));
            mix(std::bit_cast<std::uint64_t>(second));
        }
    }
    void choice(const Name&, const Chosen& chosen) override { say(chosen.index); }
    void ticks(const Name&, const Ticked& ticked) override
    {
        mix(ticked.indices.size());
        for (const std::size_t i : ticked.indices)
            mix(i);
    }
    void optional(const Name& name, const ConstPart* part, const ConstPart& blank) override
    {
        mix(part != nullptr);
        const bool around = std::exchange(inRecord_, inRecord_ || name.key == record);
        ConstVisitor::optional(name, part, blank);
        inRecord_ = around;
    }
    void list(const ListField& field, const ConstList& list) override
    {
        // The records stand at the document's end.
        if (!afterStudied_ && (field.key == "cards" || field.key == "log")) {
            studied = all.size();
            afterStudied_ = true;
        }
        mix(list.size());
        ConstVisitor::list(field, list);
    }
    std::vector<const Reading*> all;
    std::vector<std::uint64_t> facts;
    std::uint64_t shape = 0;
    std::uint64_t records = 0;
    std::size_t studied = 0;

private:
    static std::uint64_t numberOf(const std::string& text)
    {
        std::uint64_t number = text.size();
        std::size_t i = 0;
        for (std::uint64_t eight = 0; i + sizeof eight <= text.size(); i += sizeof eight) {
            std::memcpy(&eight, text.data() + i, sizeof eight);
            mix(number, eight);
        }
        for (; i < text.size(); ++i)
            mix(number, static_cast<unsigned char>(text[i]));
        return number;
    }
    void mixIn(const Reading& r)
    {
        mix(r.value ? std::bit_cast<std::uint64_t>(*r.value) : 0);
        mix(r.plusMinus ? std::bit_cast<std::uint64_t>(*r.plusMinus) : 1);
        mix((r.value ? 8 : 0) + static_cast<std::uint64_t>(r.known));
        mix(numberOf(r.instrument));
        for (const double each : r.repeats)
            mix(std::bit_cast<std::uint64_t>(each));
    }
    void say(std::uint64_t value)
    {
        if (isFact_)
            facts.push_back(value);
        else
            mix(value);
        isFact_ = false;
    }
    void mix(std::uint64_t value) { mix(afterStudied_ ? records : shape, value); }
    /// Two steps of splitmix64 (public domain): one number of many, in order.
    static void mix(std::uint64_t& into, std::uint64_t value)
    {
        into = (into ^ value) + 0x9e3779b97f4a7c15UL;
        into = (into ^ (into >> 30)) * 0xbf58476d1ce4e5b9UL;
        into ^= into >> 27;
    }
    bool afterStudied_ = false;
    bool inRecord_ = false;
    bool isFact_ = false; ///< what comes next
};

std::shared_ptr<const Build> numbered(std::shared_ptr<const Build> build)
{
    CheckNumbers check;
    describe(check, *build);
    if (check.right)
        return build;
    auto copy = std::make_shared<Build>(*build);
    Number number;
    describe(number, *copy);
    return copy;
}

Directory::Directory(const Build& build)
{
    CollectReadings found;
    describe(found, build);
    makeAddresses(build);
    put(found);
}

void Directory::makeAddresses(const Build& build)
{
    // As many as builds usually have.
    constexpr std::size_t usual = 1024;
    Collect found;
    for (auto* list : { &found.addresses, &found.freePlaces })
        list->reserve(usual);
    describe(found, build);
    auto addresses = std::make_shared<Addresses>();
    addresses->all = std::move(found.addresses);
    addresses->free = std::move(found.freePlaces);
    addresses->facts = std::move(found.facts);
    addresses->byPointer.reserve(addresses->all.size());
    for (std::size_t i = 0; i < addresses->all.size(); ++i)
        addresses->byPointer.emplace(addresses->all[i].pointer, i);
    addresses_ = std::move(addresses);
}

Directory::Directory(const Build& build, const Directory& last) : addresses_(last.addresses_)
{
    CollectReadings found;
    found.all.reserve(addresses_->all.size());
    describe(found, build);
    if (found.shape != last.shape_ || found.records != last.records_ || found.all.size() != last.entries_.size())
        makeAddresses(build);
    put(found);
}

void Directory::put(const CollectReadings& found)
{
    facts_ = found.facts;
    shape_ = found.shape;
    records_ = found.records;
    studied_ = found.studied;
    entries_.reserve(found.all.size());
    for (std::size_t i = 0; i < found.all.size(); ++i) {
        entries_.push_back({ addresses_->all[i], found.all[i] });
        numbered_ = numbered_ && found.all[i]->value.number() == i + 1;
    }
    free_.reserve(addresses_->free.size());
    for (const Address& address : addresses_->free)
        free_.push_back({ address, &noReading });
}

const Directory::Entry* Directory::find(ReadingId reading) const
{
    if (numbered_)
        return reading.number() > 0 && reading.number() <= entries_.size() ? &entries_[reading.number() - 1] : nullptr;
    const auto found = std::ranges::find(entries_, reading, [](const Entry& e) { return ReadingId(*e.reading); });
    return found == entries_.end() ? nullptr : &*found;
}

Looked Directory::changedSince(const Directory& last) const
{
    Looked changed { NumberSet(studied_), NumberSet(facts_.size()) };
    for (std::size_t i = 0; i < studied_; ++i)
        if (!(*entries_[i].reading == *last.entries_[i].reading))
            changed.readings.add(static_cast<std::uint32_t>(i + 1));
    for (std::size_t i = 0; i < facts_.size() && i < last.facts_.size(); ++i)
        if (facts_[i] != last.facts_[i])
            changed.facts.add(static_cast<std::uint32_t>(i + 1));
    return changed;
}

const Directory::Entry* Directory::at(const std::string& pointer) const
{
    if (const auto found = addresses_->byPointer.find(pointer); found != addresses_->byPointer.end())
        return &entries_[found->second];
    const auto free = std::ranges::find(free_, pointer, [](const Entry& e) -> const std::string& { return e.address.pointer; });
    return free == free_.end() ? nullptr : &*free;
}

} // namespace deepstop
