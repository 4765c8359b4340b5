#include "jobcard/steps.hpp"

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

} // namespace

std::string_view nameOf(Phase phase)
{
    switch (phase) {
    case Phase::Prepare:
        return "Prepare and inspect";
    case Phase::Tag:
        return "Tag left and right";
    case Phase::Record:
        return "Record the old";
    case Phase::Strip:
        return "Strip";
    case Phase::MockUp:
        return "Loose mock-up and checks";
    case Phase::Irreversible:
        return "Work that cannot be undone";
    case Phase::Assemble:
        return "Final assembly";
    case Phase::Hoses:
        return "Hoses";
    case Phase::Bleed:
        return "Bleed";
    case Phase::Wheels:
        return "Wheels";
    case Phase::BeforeMoving:
        return "Before the car moves";
    case Phase::BedIn:
        return "Bed in";
    case Phase::ReCheck:
        return "Check again";
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
    const auto times = timesOf(*study.build);
    for (Step& s : card.steps) {
        if (const auto took = times.find(s.id.substr(s.id.rfind('/') + 1)); took != times.end())
            s.minutes = took->second / 60;
        for (const Opening& o : record.openings)
            if (o.step == s.id && s.irreversible) {
                s.open = true;
                s.opened = o.reason;
            }
        for (const Tick& t : record.ticks)
            if (t.step == s.id) {
                s.state = t.state;
                s.who = t.who;
                s.when = t.when;
                s.note = t.note;
            }
        card.minutes += s.minutes;
        if (s.phase == Phase::Bleed && record.bleedMethod == BleedMethod::TwoPeople)
            card.people = 2;
    }
    return card;
}

} // namespace deepstop::jobcard
