#include "jobcard/jobcard.hpp"

#include "build/choices.hpp"
#include "build/words.hpp"
#include "language/language.hpp"
#include "study/chapters.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace deepstop::jobcard {
namespace {

/// A gap that is wanted larger and does not touch at worst is proven not to.
bool proven(const Verdict& v) { return isFine(v.level) || v.level == Level::Tight; }

bool waitsFor(Cut cut, Holds holds)
{
    return holds == Holds::AllCuts || (holds == Holds::TrimmingTheShield && cut == Cut::TrimShield)
        || (holds == Holds::DrillingAndGrinding && (cut == Cut::DrillLugs || cut == Cut::Grind));
}

} // namespace

namespace {

/// Whether somebody has ticked a step of both sides.
bool bothTicked(const Study& study, const std::string& word, const char* step)
{
    const auto& ticks = choicesOf(*study.build, study.after.setup->id).ticks;
    return std::ranges::all_of(std::array { "left", "right" }, [&](const char* side) {
        const auto tick = std::ranges::find(ticks, fmt::format("{}/{}/{}", word, side, step), &Tick::step);
        return tick != ticks.end() && tick->state == Checked::Fine;
    });
}

} // namespace

std::vector<std::string> blockersOfFirstCut(const Study& study, Axle axle)
{
    std::vector<std::string> why;
    const std::string word = judge::wordFor(axle);
    for (const Chapter& chapter : chapters())
        for (const Check* check : chapter.checks) {
            if (!check->byDimensions)
                continue;
            const Verdict* v = study.verdict(*check, { axle });
            if (!v)
                why.push_back(tr("{} ({}): not checked", tr(check->title), word));
            else if (!proven(*v))
                why.push_back(fmt::format("{}: {}", v->title, judge::wordFor(v->level)));
        }
    if (!bothTicked(study, std::string(wordOf(axle)), "bracket-offered"))
        why.push_back(tr("the {} bracket was not offered up on both sides", word));
    return why;
}

std::vector<std::string> blockersOf(const Study& study, Axle axle, Cut cut)
{
    std::vector<std::string> why;
    const std::string word = judge::wordFor(axle);
    const Corner* corner = study.after.at(axle).corner;
    const bool discs = corner && corner->brakes == BrakeKind::Discs;
    const auto need = [&](const Check& check, const Where& where, const std::string& otherwise) {
        const Verdict* v = study.verdict(check, where);
        if (v && !proven(*v))
            why.push_back(fmt::format("{}: {}", v->title, judge::wordFor(v->level)));
        else if (!v && (check.awaited == Awaited::Everywhere || (check.awaited == Awaited::OnDiscs && discs)))
            why.push_back(otherwise);
    };
    // Of a drum nothing is read at the mock-up: somebody has to have turned it.
    for (const char* side : { "left", "right" }) {
        const auto& ticks = choicesOf(*study.build, study.after.setup->id).ticks;
        const auto turned = std::ranges::find(ticks, fmt::format("{}/{}/drum-on", wordOf(axle), side), &Tick::step);
        if (!discs && (turned == ticks.end() || turned->state != Checked::Fine))
            why.push_back(tr("the {} {} drum was not turned and called free", word, tr(side)));
    }
    for (const Chapter& chapter : chapters())
        for (const Check* check : chapter.checks) {
            if (!waitsFor(cut, check->holds) || check->curedBy == cut)
                continue;
            if (check->of == CheckOf::Corner)
                for (const Side side : { Side::Left, Side::Right })
                    need(*check, { axle, side }, tr("the {} {} was not tried and read", word, wordFor(side, choices::side)));
            else if (check->name.find('#') == std::string_view::npos)
                need(*check, { axle }, tr("{} ({}): not checked", tr(check->title), word));
            else {
                bool speaks = false;
                for (const Verdict& v : study.verdicts)
                    if (v.check == check && v.axle == axle) {
                        need(*check, { .axle = axle, .number = v.number }, {});
                        speaks = true;
                    }
                if (!speaks)
                    need(*check, { .axle = axle, .number = 1 }, tr("{} ({}): no joint is described", tr(check->title), word));
            }
        }
    if (cut == Cut::Unknown)
        why.emplace_back(tr("this program does not know that work, nor what it rests on: see a newer one"));
    // Both sides lack the same in the same words.
    std::vector<std::string> once;
    for (auto& each : why)
        if (std::ranges::find(once, each) == once.end())
            once.push_back(std::move(each));
    return once;
}

const JobCard& choicesOf(const Build& build, const std::string& setup)
{
    static const JobCard none;
    const auto found = std::ranges::find(build.cards, setup, &JobCard::setup);
    return found == build.cards.end() ? none : *found;
}

JobCard& recordOf(Build& build, const std::string& setup)
{
    auto found = std::ranges::find(build.cards, setup, &JobCard::setup);
    if (found == build.cards.end()) {
        build.cards.push_back({});
        found = std::prev(build.cards.end());
        found->setup = setup;
    }
    return *found;
}

std::optional<Edit> ticked(
    const Study& study, const std::string& id, Checked state, const Author& hand, const std::string& note, double took)
{
    const Card card = cardOf(study);
    const Step* step = card.step(id);
    if (!step || (state == Checked::Fine && !step->open))
        return {};
    return [setup = card.setup->id, id, state, hand, note, took](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, setup))
            return {};
        Build build = now;
        tickIn(recordOf(build, setup), id, state, hand, note, took);
        return build;
    };
}

void tickIn(JobCard& record, const std::string& id, Checked state, const Author& hand, const std::string& note, double took)
{
    auto tick = std::ranges::find(record.ticks, id, &Tick::step);
    if (tick == record.ticks.end()) {
        record.ticks.push_back({});
        tick = std::prev(record.ticks.end());
        tick->step = id;
    }
    tick->state = state;
    tick->who = hand.who;
    tick->when = hand.when;
    if (!note.empty())
        tick->note = note;
    if (took > 0)
        tick->took = { took, {}, Known::Measured, {}, {} };
}

std::optional<Edit> opened(const Study& study, const std::string& id, const std::string& reason, const Author& hand)
{
    const Card card = cardOf(study);
    const Step* step = card.step(id);
    if (!step || step->open || reason.find_first_not_of(" \t\n") == std::string::npos)
        return {};
    return [setup = card.setup->id, opening = Opening { id, reason, hand.who, hand.when }](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, setup))
            return {};
        Build build = now;
        recordOf(build, setup).openings.push_back(opening);
        return build;
    };
}

const Step* Card::step(const std::string& id) const
{
    const auto found = std::ranges::find(steps, id, &Step::id);
    return found == steps.end() ? nullptr : &*found;
}

double Card::minutesLeft() const
{
    double left = 0;
    for (const Step& s : steps)
        left += shows(s) && s.state == Checked::Open ? s.minutes : 0;
    return left;
}

int Card::open() const
{
    return static_cast<int>(std::ranges::count_if(steps, [&](const Step& s) { return shows(s) && s.state == Checked::Open; }));
}

int Card::shown() const
{
    return static_cast<int>(std::ranges::count_if(steps, [&](const Step& s) { return shows(s); }));
}

Card::Times Card::times() const
{
    Times times;
    for (const Step& s : steps) {
        if (!shows(s))
            continue;
        const bool drives = s.phase == Phase::BedIn || s.id == "car/walking";
        const bool measures = s.phase == Phase::Record || !s.readings.empty();
        (drives ? times.driving : measures ? times.measuring : times.fitting) += s.minutes;
    }
    return times;
}

int Card::folded() const { return static_cast<int>(steps.size()) - shown(); }

Edit inspectionTakenIn(const std::string& setup, bool in)
{
    return [=](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, setup))
            return {};
        Build build = now;
        recordOf(build, setup).inspection = in ? YesNo::Yes : YesNo::Unknown;
        return build;
    };
}

std::optional<Edit> ownStep(const Study& study, const std::string& after, const std::string& text)
{
    if (!study.after.setup || text.find_first_not_of(" \t\n") == std::string::npos)
        return {};
    return [setup = study.after.setup->id, after, text](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, setup))
            return {};
        Build build = now;
        recordOf(build, setup).ownSteps.push_back({ after, text, {} });
        return build;
    };
}

} // namespace deepstop::jobcard
