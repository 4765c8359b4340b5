#include "jobcard/jobcard.hpp"

#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace deepstop::jobcard {
namespace {

/// A gap that is wanted larger and does not touch at worst is proven not to.
bool proven(const Verdict& v) { return isFine(v.level) || v.level == Level::Tight; }

/// Checks of an axle that every cut rests on, by the names of their ids.
constexpr const char* always[] { "bore", "hub-pocket", "bolt-circle", "mount-spacing", "barrel-gap", "inset-gap", "spoke-gap", "bridge-gap",
    "face-gap", "hat-gap", "bracket-gap", "pad-edge", "studs", "nut-seat", "bolt-end", "wheel-place" };

/// Those without which nothing can be said to be proven; the others only where somebody asks them.
bool mustBeSaid(std::string_view name)
{
    static const std::set<std::string_view> must { "bore", "barrel-gap", "spoke-gap", "studs" };
    return must.contains(name);
}

} // namespace

std::vector<std::string> shutBy(const Study& study, Axle axle, Cut cut)
{
    std::vector<std::string> why;
    const std::string word = judge::wordFor(axle);
    const auto need = [&](const std::string& id, const std::string& otherwise, bool must) {
        const Verdict* v = study.verdict(id);
        if (!v) {
            if (must)
                why.push_back(otherwise);
        } else if (!proven(*v)) {
            why.push_back(fmt::format("{}: {}", v->title, nameOf(v->level)));
        }
    };
    const Corner* corner = study.after.at(axle).corner;
    const bool discs = corner && corner->brakes == BrakeKind::Discs;
    if (discs)
        for (const char* side : { "left", "right" })
            for (const char* name : { "axial", "tilt", "conditions" })
                need(fmt::format("{}-{}/{}", word, side, name), fmt::format("the {} {} was not tried and read", word, side), true);
    else
        // Of a drum nothing is read at the mock-up: somebody has to have turned it.
        for (const char* side : { "left", "right" }) {
            const auto& ticks = choicesOf(*study.build, study.after.setup->id).ticks;
            const auto turned = std::ranges::find(ticks, fmt::format("{}/{}/drum-on", word, side), &Tick::step);
            if (turned == ticks.end() || turned->state != Checked::Fine)
                why.push_back(fmt::format("the {} {} drum was not turned and called free", word, side));
        }
    for (const char* name : always)
        need(word + "/" + name, fmt::format("{}: nobody has looked ({})", name, word),
            discs ? mustBeSaid(name) : std::string_view(name) == "studs");
    if (cut == Cut::Unknown)
        why.emplace_back("this program does not know that work, nor what it rests on: see a newer one");
    if (cut == Cut::TrimShield)
        for (int i = 1; study.verdict(fmt::format("{}/keep-out-{}", word, i)); ++i)
            need(fmt::format("{}/keep-out-{}", word, i), {}, false);
    if (cut == Cut::DrillLugs || cut == Cut::Grind)
        for (int i = 1; study.verdict(fmt::format("{}/joint-{}-thread", word, i)); ++i)
            for (const char* name : { "thread", "end" })
                need(fmt::format("{}/joint-{}-{}", word, i, name), {}, false);
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
    const Study& study, const std::string& id, Checked state, const Hand& hand, const std::string& note, double took)
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

void tickIn(JobCard& record, const std::string& id, Checked state, const Hand& hand, const std::string& note, double took)
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

std::optional<Edit> opened(const Study& study, const std::string& id, const std::string& reason, const Hand& hand)
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
        left += s.state == Checked::Open ? s.minutes : 0;
    return left;
}

int Card::open() const
{
    return static_cast<int>(std::ranges::count_if(steps, [](const Step& s) { return s.state == Checked::Open; }));
}

} // namespace deepstop::jobcard
