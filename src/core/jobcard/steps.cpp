#include "jobcard/steps.hpp"

#include "language/language.hpp"

#include <map>

namespace deepstop::jobcard {
namespace {

/// What steps of a name took before, on any card, s.
std::map<std::string, double> timesOf(const Build& build)
{
    std::map<std::string, std::pair<double, int>> sums;
    for (const JobCard& card : build.cards)
        for (const Tick& tick : card.ticks)
            if (tick.took.value) {
                auto& [sum, count] = sums[tick.step.substr(tick.step.rfind('/') + 1)];
                sum += *tick.took.value;
                ++count;
            }
    std::map<std::string, double> means;
    for (const auto& [name, sum] : sums)
        means[name] = sum.first / sum.second;
    return means;
}

/// The ticks of a step; of one that is both sides at once also those of either side, done where both are.
Tick tickOf(const JobCard& record, const std::string& id)
{
    const auto own = std::ranges::find(record.ticks, id, &Tick::step);
    if (own != record.ticks.end())
        return *own;
    const auto slash = id.find('/');
    const auto sideOf = [&](const char* side) {
        return slash == std::string::npos ? record.ticks.end()
                                          : std::ranges::find(record.ticks, id.substr(0, slash) + side + id.substr(slash), &Tick::step);
    };
    const auto left = sideOf("/left");
    const auto right = sideOf("/right");
    if (left == record.ticks.end() || right == record.ticks.end())
        return {};
    return left->state == Checked::Fine ? *right : *left;
}

/// One whole corner before the other: what is done at a wheel, from taking off to putting on, side by side. Everything else stays in its
/// place.
void orderByCorner(std::vector<Step>& steps)
{
    const auto atWheel = [](const Step& s) { return s.phase >= Phase::Strip && s.phase <= Phase::Assemble; };
    const auto first = std::ranges::find_if(steps, atWheel);
    const auto last = std::find_if_not(first, steps.end(), atWheel);
    const auto cornerOf = [](const Step& s) { return s.id.substr(0, s.id.rfind('/')); };
    std::vector<std::string> corners;
    for (auto it = first; it != last; ++it)
        if (std::ranges::find(corners, cornerOf(*it)) == corners.end())
            corners.push_back(cornerOf(*it));
    std::stable_sort(first, last,
        [&](const Step& a, const Step& b) { return std::ranges::find(corners, cornerOf(a)) < std::ranges::find(corners, cornerOf(b)); });
}

/// Own steps stand behind the step they were written behind.
void addOwn(std::vector<Step>& steps, const JobCard& record)
{
    for (const OwnStep& own : record.ownSteps) {
        const auto behind = std::ranges::find(steps, own.after, &Step::id);
        Step s;
        s.id = "own/" + own.id.text;
        s.phase = behind != steps.end() ? behind->phase : steps.empty() ? Phase::Prepare : steps.back().phase;
        s.corner = behind != steps.end() ? behind->corner : "car";
        s.text = own.text;
        s.because = practice;
        s.own = true;
        s.minutes = 5;
        steps.insert(behind != steps.end() ? std::next(behind) : steps.end(), std::move(s));
    }
}

} // namespace

bool Writer::otherHydraulics() const
{
    return study_.before.hydraulics && study_.after.hydraulics && !(*study_.before.hydraulics == *study_.after.hydraulics);
}

std::string_view nameOf(Phase phase)
{
    switch (phase) {
    case Phase::Prepare:
        return marked("Prepare and inspect");
    case Phase::Tag:
        return marked("Tag left and right");
    case Phase::Record:
        return marked("Record the old");
    case Phase::Strip:
        return marked("Strip");
    case Phase::MockUp:
        return marked("Loose mock-up and checks");
    case Phase::Irreversible:
        return marked("Work that cannot be undone");
    case Phase::Assemble:
        return marked("Final assembly");
    case Phase::Hoses:
        return marked("Hoses");
    case Phase::Bleed:
        return marked("Bleed");
    case Phase::Wheels:
        return marked("Wheels");
    case Phase::BeforeMoving:
        return marked("Before the car moves");
    case Phase::BedIn:
        return marked("Bed in");
    case Phase::ReCheck:
        return marked("Check again");
    }
    return "";
}

Card cardOf(const Study& study)
{
    Card card;
    card.setup = study.after.setup;
    if (!study.after.setup || study.after.setup == study.before.setup)
        return card;
    for (const Axle axle : judge::axlesOf(study))
        if (!study.after.at(axle).corner)
            return card;
    card.steps = Writer(study).write();
    const JobCard& record = choicesOf(*study.build, study.after.setup->id);
    if (record.order == WorkOrder::CornerByCorner)
        orderByCorner(card.steps);
    addOwn(card.steps, record);
    card.inspection = record.inspection == YesNo::Yes;
    const auto times = timesOf(*study.build);
    for (Step& s : card.steps) {
        if (const auto took = times.find(s.id.substr(s.id.rfind('/') + 1)); took != times.end())
            s.minutes = took->second / 60;
        for (const Opening& o : record.openings)
            if (o.step == s.id && s.gated) {
                s.open = true;
                s.opened = o.reason;
            }
        const Tick tick = tickOf(record, s.id);
        s.state = tick.state;
        s.who = tick.who;
        s.when = tick.when;
        s.note = tick.note;
        if (card.shows(s))
            card.minutes += s.minutes;
        if (s.phase == Phase::Bleed && record.bleedMethod == BleedMethod::TwoPeople)
            card.people = 2;
    }
    return card;
}

} // namespace deepstop::jobcard
