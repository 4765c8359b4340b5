#include "build/difference.hpp"

#include "build/address.hpp"
#include "build/naming.hpp"
#include "language/language.hpp"
#include "quantity/instrument_names.hpp"
#include "quantity/text.hpp"

#include <map>

namespace deepstop {
namespace {

/// All that a build says, by pointer.
class Said : public Naming {
public:
    explicit Said(UnitSystem system) : system_(system) { }

    struct Line {
        std::string pointer;
        std::string what;
        std::string text;
    };
    std::vector<Line> lines;

    void reading(const ReadingField& field, const Reading& r) override { put(pointerTo(field), labelOf(field), inWords(field, r)); }
    void text(const Name& name, const std::string& value) override { put(pointerTo(name), labelOf(name), value); }
    void count(const CountField& field, int value) override
    {
        put(pointerTo(field), labelOf(field), value != notCounted ? fmt::format("{}", value) : std::string());
    }
    void number(const NumberField& field, double value) override
    {
        put(pointerTo(field), labelOf(field), value != 0 ? fmt::format("{:g}", value) : std::string());
    }
    void pairs(const PairsField& field, const Pairs& values) override
    {
        if (!values.empty())
            put(pointerTo(field), labelOf(field), tr("{} moments to {:g}, {:g}", values.size(), values.back().first, values.back().second));
    }
    void choice(const Name& name, const Chosen& chosen) override { put(pointerTo(name), labelOf(name), std::string(chosen.word())); }
    void ticks(const Name& name, const Ticked& ticked) override
    {
        std::string all;
        for (const std::size_t i : ticked.indices)
            all.append(all.empty() ? "" : ", ").append(ticked.words[i]);
        put(pointerTo(name), labelOf(name), std::move(all));
    }

protected:
    void element(const ReadingField& field, std::size_t number, const Reading* r) override
    {
        if (r)
            put(pointer(), fmt::format("{} {}", tr(field.label), number), inWords(field, *r));
    }

private:
    std::string inWords(const ReadingField& field, const Reading& r) const
    {
        if (!r.value)
            return {};
        const Unit& unit = field.style.unit(system_);
        auto text = editable(*r.value, unit);
        for (const double one : r.repeats)
            text += "; " + editable(one, unit);
        if (r.plusMinus)
            text += " ±" + editable(*r.plusMinus + unit.offset, unit);
        if (!unit.symbol.empty())
            text.append(" ").append(unit.symbol);
        return text + ", " + std::string(tr(nameOf(r.known)))
            + (r.instrument.empty() ? "" : tr(" with {}", instrumentInWords(r.instrument)));
    }
    void put(std::string pointer, std::string what, std::string text)
    {
        if (!inFreePlace() && !text.empty())
            lines.push_back(
                { std::move(pointer), place().empty() ? std::move(what) : fmt::format("{} ({})", what, place()), std::move(text) });
    }
    UnitSystem system_;
};

/// The first thing that is not sound.
class Faults : public Naming {
public:
    std::string fault;

    void reading(const ReadingField& field, const Reading& r) override
    {
        if (!fault.empty() || inFreePlace())
            return;
        fault = refusal(Address { {}, labelOf(field), place(), field.style, field.range, field.label }, r);
        checkText(field, r.instrument);
        checkText(field, r.date);
    }
    void text(const Name& name, const std::string& value) override { checkText(name, value); }
    void count(const CountField& field, int value) override
    {
        if (value != notCounted && (value < 0 || value > field.most))
            say(field, tr("must be from 0 to {}", field.most));
    }
    void number(const NumberField& field, double value) override
    {
        if (!field.range.holds(value))
            say(field, tr("must be from {:g} to {:g}", field.range.least, field.range.most));
    }
    void list(const ListField& field, const ConstList& list) override
    {
        if (list.size() > field.most)
            say(field, tr("there may be {} at most", field.most));
        Naming::list(field, list);
    }

protected:
    void element(const ReadingField& field, std::size_t number, const Reading* r) override
    {
        if (r && fault.empty())
            fault =
                refusal(Address { {}, fmt::format("{} {}", tr(field.label), number), place(), field.style, field.range, field.label }, *r);
    }

private:
    void checkText(const Name& name, const std::string& text)
    {
        if (text.size() > longestText)
            say(name, tr("is longer than {} letters", longestText));
        else if (notUtf8(text) || controlCharacter(text))
            say(name, tr("“{}” holds a character that cannot be kept", shortened(text)));
    }
    void say(const Name& name, const std::string& what)
    {
        if (fault.empty())
            fault = fmt::format("{}: {}.", name.label.empty() ? std::string(name.key) : labelOf(name), what);
    }
};

/// How a reading is known is said only where that differs, too.
Difference apart(Difference d)
{
    const auto known = [](const std::string& text) { return std::min(text.rfind(", "), text.size()); };
    const auto before = known(d.before);
    const auto after = known(d.after);
    if (before > 0 && after > 0 && before < d.before.size() && d.before.substr(before) == d.after.substr(after)
        && d.before.substr(0, before) != d.after.substr(0, after)) {
        d.before.resize(before);
        d.after.resize(after);
    }
    return d;
}

} // namespace

std::vector<Difference> differences(const Build& before, const Build& after, UnitSystem system)
{
    Said then(system);
    Said now(system);
    describe(then, before);
    describe(now, after);
    std::map<std::string_view, const Said::Line*> left;
    for (const auto& line : then.lines)
        left.emplace(line.pointer, &line);
    std::vector<Difference> found;
    for (const auto& line : now.lines) {
        const auto was = left.find(line.pointer);
        if (was == left.end())
            found.push_back({ line.what, {}, line.text });
        else if (was->second->text != line.text)
            found.push_back(apart({ line.what, was->second->text, line.text }));
        if (was != left.end())
            left.erase(was);
    }
    for (const auto& line : then.lines)
        if (left.contains(line.pointer))
            found.push_back({ line.what, line.text, {} });
    return found;
}

std::string faultIn(const Build& build)
{
    Faults faults;
    describe(faults, build);
    return faults.fault;
}

} // namespace deepstop
