#include "build/address.hpp"

#include "build/naming.hpp"
#include "language/language.hpp"
#include "quantity/parse.hpp"
#include "quantity/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <utility>

namespace deepstop {
namespace {

/// What a pointer leads to below `key`: nothing where it leads elsewhere, empty where it ends there.
std::optional<std::string_view> below(std::string_view pointer, std::string_view key)
{
    if (!pointer.starts_with('/') || pointer.substr(1, key.size()) != key)
        return {};
    pointer.remove_prefix(1 + key.size());
    return pointer.empty() || pointer.front() == '/' ? std::optional(pointer) : std::nullopt;
}

/// The index a pointer begins with, "-" being the free place after the last; nothing where it is none.
std::optional<std::size_t> indexIn(std::string_view& pointer, std::size_t size)
{
    if (!pointer.starts_with('/'))
        return {};
    const auto end = std::min(pointer.find('/', 1), pointer.size());
    const auto word = pointer.substr(1, end - 1);
    std::size_t index = size;
    if (word != "-") {
        const auto read = std::from_chars(word.data(), word.data() + word.size(), index);
        if (read.ec != std::errc {} || read.ptr != word.data() + word.size() || index >= size)
            return {};
    }
    pointer.remove_prefix(end);
    return index;
}

/// Goes where a pointer leads and nowhere else. A list is given a new element where it leads to the free place, which stays if something
/// was put there.
class Follow : public Visitor {
public:
    explicit Follow(std::string_view pointer) : rest_(pointer) { }
    [[nodiscard]] bool done() const { return done_; }

    void object(const Name& name, MutablePart& part) override
    {
        descend(name, [&] { part.describe(*this); });
    }
    void optional(const Name& name, Maybe& part) override
    {
        if (part.exists())
            descend(name, [&] { part.describe(*this); });
    }
    void list(const ListField& field, List& list) override
    {
        descend(field, [&] {
            if (const auto index = indexIn(rest_, list.size()); index && onElement(list, *index)) {
                const bool fresh = *index == list.size();
                if (fresh && (list.hasIds() || list.size() >= field.most))
                    return;
                if (fresh)
                    list.append();
                list.describe(*this, *index);
                if (fresh && !done_)
                    list.erase(*index);
            }
        });
    }

protected:
    /// True where an element is to be walked into.
    virtual bool onElement(List&, std::size_t) { return true; }
    [[nodiscard]] bool isHere(const Name& name) const
    {
        const auto rest = below(rest_, name.key);
        return rest && rest->empty() && !done_;
    }
    void descend(const Name& name, auto go)
    {
        const auto inner = below(rest_, name.key);
        if (!inner || done_)
            return;
        const auto outer = std::exchange(rest_, *inner);
        go();
        rest_ = outer;
    }
    [[nodiscard]] std::string_view rest() const { return rest_; }

    std::string_view rest_;
    bool done_ = false;
};

class PutReading : public Follow {
public:
    PutReading(std::string_view pointer, const Reading& fresh) : Follow(pointer), fresh_(fresh) { }
    void reading(const ReadingField& field, Reading& r) override
    {
        if (isHere(field))
            put(field, r);
    }
    void readings(const ReadingField& field, std::vector<Reading>& list, std::size_t most) override
    {
        descend(field, [&] {
            const auto index = indexIn(rest_, list.size());
            if (!index || !rest_.empty() || (*index == list.size() && list.size() >= most))
                return;
            Reading r = *index < list.size() ? list[*index] : Reading {};
            put(field, r);
            if (!done_)
                return;
            if (*index == list.size())
                list.push_back(std::move(r));
            else
                list[*index] = std::move(r);
        });
    }

private:
    /// Nothing that a field's range forbids gets into a build.
    void put(const ReadingField& field, Reading& r)
    {
        if (!isWithin(field.range, fresh_))
            return;
        r = fresh_;
        done_ = true;
    }
    const Reading& fresh_;
};

class RemoveElement : public Follow {
public:
    using Follow::Follow;
    void readings(const ReadingField& field, std::vector<Reading>& list, std::size_t) override
    {
        descend(field, [&] {
            if (const auto index = indexIn(rest_, list.size()); index && rest_.empty() && *index < list.size()) {
                list.erase(list.begin() + static_cast<std::ptrdiff_t>(*index));
                done_ = true;
            }
        });
    }

protected:
    bool onElement(List& list, std::size_t index) override
    {
        if (!rest().empty())
            return index < list.size();
        if (index < list.size()) {
            list.erase(index);
            done_ = true;
        }
        return false;
    }
};

/// What a fact says now.
class FindFact : public Naming {
public:
    explicit FindFact(std::string_view wanted) : wanted_(wanted) { }
    std::optional<StatedFact> found;

    void text(const Name& name, const std::string& value) override { take(name, StatedFact::Kind::Text, value); }
    void count(const CountField& field, int value) override
    {
        take(field, StatedFact::Kind::Count, value != notCounted ? fmt::format("{}", value) : std::string());
    }
    void number(const NumberField& field, double value) override
    {
        take(field, StatedFact::Kind::Plain, value != 0 ? editable(value, *findUnit("", Dimension::Number)) : std::string());
    }
    void choice(const Name& name, const Chosen& chosen) override
    {
        take(name, StatedFact::Kind::Word, std::string(chosen.word()), &chosen.words);
    }
    void ticks(const Name& name, const Ticked& ticked) override
    {
        std::string value;
        for (const std::size_t i : ticked.indices)
            value.append(value.empty() ? "" : ",").append(ticked.words[i]);
        take(name, StatedFact::Kind::Ticks, std::move(value), &ticked.words);
    }

protected:
    [[nodiscard]] bool seeks(std::string_view pointer) const override { return below(wanted_, pointer.substr(1)).has_value(); }

private:
    void take(const Name& name, StatedFact::Kind kind, std::string value, const Words* words = nullptr)
    {
        if (pointerTo(name) != wanted_)
            return;
        found = StatedFact { std::string(wanted_), labelOf(name), place(), kind, {}, std::move(value) };
        for (std::size_t i = 0; words && i < words->size(); ++i)
            // The unknown part or cut cannot be ticked, only removed.
            if (kind != StatedFact::Kind::Ticks || words->token(i) != unknownToken || found->value.find((*words)[i]) != std::string::npos)
                found->words.emplace_back((*words)[i]);
    }
    std::string_view wanted_;
};

/// Says a fact anew, from text.
class PutFact : public Follow {
public:
    PutFact(std::string_view pointer, const std::string& fresh) : Follow(pointer), fresh_(fresh) { }
    std::string refusal; ///< what is wanted

    void text(const Name& name, std::string& value) override
    {
        if (!isHere(name))
            return;
        if (fresh_.size() > longestText)
            refusal = tr("this is longer than {} letters: shorten it.", longestText);
        else if (notUtf8(fresh_) || controlCharacter(fresh_))
            refusal = tr("“{}” holds a character that cannot be kept: take it out.", shortened(fresh_));
        else
            accept(value, fresh_);
    }
    void count(const CountField& field, int& value) override
    {
        if (!isHere(field))
            return;
        int number = notCounted;
        const char* end = fresh_.data() + fresh_.size();
        const auto read = std::from_chars(fresh_.data(), end, number);
        if (fresh_.empty() || (read.ec == std::errc {} && read.ptr == end && number >= 0 && number <= field.most))
            accept(value, number);
        else
            refusal = tr("a whole number from 0 to {} is wanted.", field.most);
    }
    void number(const NumberField& field, double& value) override
    {
        if (!isHere(field))
            return;
        const auto parsed = fresh_.empty() ? Parsed { 0.0, nullptr, {} } : parseQuantity(fresh_, Dimension::Number, "");
        if (parsed && field.range.holds(*parsed.value))
            accept(value, *parsed.value);
        else
            refusal = tr("a number from {:g} to {:g} is wanted.", field.range.least, field.range.most);
    }
    void choice(const Name& name, Choice& choice) override
    {
        if (!isHere(name))
            return;
        done_ = choice.choose(fresh_);
        if (!done_)
            refusal = tr("“{}” is not one of its choices.", shortened(fresh_));
    }
    void ticks(const Name& name, Ticks& ticks) override
    {
        if (!isHere(name))
            return;
        std::vector<std::size_t> chosen;
        const auto all = "," + fresh_ + ",";
        for (std::size_t i = 0; i < ticks.words.size(); ++i)
            if (all.find("," + std::string(ticks.words[i]) + ",") != std::string::npos)
                chosen.push_back(i);
        ticks.tick(std::move(chosen));
        done_ = true;
    }

private:
    void accept(auto& value, auto fresh)
    {
        value = fresh;
        done_ = true;
    }
    const std::string& fresh_;
};

} // namespace

Build withReading(Build build, const std::string& pointer, const Reading& reading)
{
    PutReading put(pointer, reading);
    describe(put, build);
    return build;
}

Build withoutElement(Build build, const std::string& pointer)
{
    RemoveElement remove(pointer);
    describe(remove, build);
    return build;
}

namespace {

/// What a text may refer to: known by its id to the file and by its name to people.
struct References {
    std::string nobody; ///< the word for none
    std::vector<std::pair<std::string, std::string>> all; ///< id, name
};

std::optional<References> referencesAt(const Build& build, std::string_view pointer)
{
    References r;
    const auto add = [&r](const std::string& id, const std::string& name) { r.all.emplace_back(id, name.empty() ? id : name); };
    if (pointer.ends_with("/duty")) {
        r.nobody = tr("unknown");
        for (const DutyPlan& each : build.duties)
            add(each.id, each.name);
        return r;
    }
    if (pointer.starts_with("/duties/") && pointer.ends_with("/load")) {
        r.nobody = tr("driver alone");
        for (const LoadCase& each : build.loads)
            add(each.id.text, each.name);
        return r;
    }
    return {};
}

void offer(StatedFact& fact, const References& references)
{
    fact.kind = StatedFact::Kind::Word;
    fact.words = { references.nobody };
    auto chosen = fact.value.empty() ? references.nobody : fact.value;
    for (const auto& [id, name] : references.all) {
        fact.words.push_back(name);
        if (id == fact.value)
            chosen = name;
    }
    // One that is gone stands there as it was written.
    if (std::ranges::find(fact.words, chosen) == fact.words.end())
        fact.words.push_back(chosen);
    fact.value = chosen;
}

std::string idOf(const References& references, const std::string& word)
{
    if (word == references.nobody)
        return {};
    const auto found = std::ranges::find(references.all, word, &std::pair<std::string, std::string>::second);
    return found == references.all.end() ? word : found->first;
}

} // namespace

std::optional<StatedFact> factAt(const Build& build, const std::string& pointer)
{
    FindFact finder(pointer);
    describe(finder, build);
    if (finder.found && finder.found->kind == StatedFact::Kind::Text)
        if (const auto references = referencesAt(build, pointer))
            offer(*finder.found, *references);
    return finder.found;
}

FactEntry withFact(Build build, const std::string& pointer, const std::string& text)
{
    const auto fact = factAt(build, pointer);
    if (!fact)
        return { {}, tr("{}: there is no such place in the build.", pointer) };
    const auto references = fact->kind == StatedFact::Kind::Word ? referencesAt(build, pointer) : std::nullopt;
    const std::string said = references ? idOf(*references, text) : text;
    PutFact put(pointer, said);
    describe(put, build);
    if (!put.done())
        return { {}, fact->label + ": " + put.refusal };
    return { std::move(build), {} };
}

bool isWithin(const Range& range, const Reading& reading)
{
    return (!reading.value || range.holds(*reading.value)) && reading.repeats.size() <= mostRepeats
        && std::ranges::all_of(reading.repeats, [&](double v) { return range.holds(v); })
        && (!reading.plusMinus || (*reading.plusMinus >= 0 && *reading.plusMinus <= range.width() * (1 + 1e-12)));
}

std::string refusal(const Address& address, double si, UnitSystem system)
{
    if (address.range.holds(si))
        return {};
    return tr("{} must be from {} to {}.", address.label, bound(address.range.least, address.style, system),
        bound(address.range.most, address.style, system));
}

std::string refusal(const Address& address, const Reading& reading, UnitSystem system)
{
    if (reading.repeats.size() > mostRepeats)
        return tr("{}: at most {} readings of one thing are kept.", address.label, mostRepeats);
    if (reading.value)
        if (auto why = refusal(address, *reading.value, system); !why.empty())
            return why;
    for (const double one : reading.repeats)
        if (auto why = refusal(address, one, system); !why.empty())
            return why;
    if (!isWithin(address.range, reading))
        return tr("{}: this uncertainty is wider than the field's range.", address.label);
    return {};
}

} // namespace deepstop
