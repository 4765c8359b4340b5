#include "search/why.hpp"

#include "language/language.hpp"
#include "library/kit.hpp"
#include "quantity/text.hpp"
#include "search/trial.hpp"

#include <algorithm>
#include <set>

namespace deepstop::search {
namespace {

/// What the search asks and no chapter says: whether a bracket can be made.
void addBracket(const Query& query, const Choice& choice, Why& why)
{
    Trial trial(query);
    trial.put(choice);
    for (const auto& [limit, gap, level] : trial.bracket()) {
        if (isFine(level))
            continue;
        const auto say = [&](double length) { return print(length, style::fine, query.study->system); };
        Reason reason { limit.id, limit.title,
            gap.value ? tr("{} at worst, {} wanted", say(gap.lowest()), say(limit.wanted)) : lacking(*query.study, gap), level, {} };
        (isBad(level) ? why.fails : why.doubts).push_back(std::move(reason));
    }
}

bool counts(const Verdict& v, const Check* check, Axle axle)
{
    return v.check == check && !v.found && (check->of == CheckOf::Car || v.axle == axle);
}

bool anyFails(const Study& study, Axle axle)
{
    for (const Check* check : orderOfChecks())
        for (const Verdict& v : study.verdicts)
            if (counts(v, check, axle) && isBad(v.level))
                return true;
    return false;
}

} // namespace

Why whyNot(const Query& query, const Choice& choice)
{
    std::string setup;
    const auto build = std::make_shared<const Build>(triedBuild(query, choice, &setup));
    const SetupPair pair { query.study->before.setup->id, setup };
    const Study s = study(build, pair, query.study->system);
    Why why;
    addBracket(query, choice, why);
    const bool bracket = !why.fails.empty();
    std::vector<const Remedy*> remedies;
    for (const Check* check : orderOfChecks())
        for (const Verdict& v : s.verdicts) {
            if (!counts(v, check, query.axle) || isFine(v.level))
                continue;
            Reason reason { v.id, v.title, v.reason, v.level, {} };
            for (const Remedy& remedy : v.remedies) {
                reason.remedies.push_back(remedy.title);
                if (isBad(v.level))
                    remedies.push_back(&remedy);
            }
            (isBad(v.level) ? why.fails : why.doubts).push_back(std::move(reason));
        }
    // A plate that cannot be made is not mended by another spacer.
    constexpr std::size_t most = 12;
    for (std::size_t i = 0; !bracket && i < std::min(most, remedies.size()) && why.mended.empty(); ++i)
        if (const auto mended = remedies[i]->in(*build))
            if (!anyFails(study(mended, pair, query.study->system, Remedies::LeftOut), query.axle))
                why.mended = remedies[i]->title;
    return why;
}

std::string nameOf(const Query& query, const Choice& choice)
{
    std::string name;
    for (const Kind kind : { Kind::Rotor, Kind::Caliper, Kind::Pad })
        name += (name.empty() ? "" : ", ") + query.parts.name(kind, at(choice, kind)).name;
    return name;
}

Edit putIn(const Query& query, const Choice& choice, const std::string& name)
{
    Trial trial(query);
    trial.put(choice);
    const auto& wheel = query.parts.wheels[at(choice, Kind::Wheel)];
    const auto& master = query.parts.masters[at(choice, Kind::Master)];
    std::optional<Hydraulics> hydraulics;
    if (!master.id.empty())
        hydraulics = trial.hydraulics();
    return [corner = trial.kitToOrder(), axle = query.axle, from = query.study->after.setup->id, name, wheel, hydraulics](
               const Build& now) -> std::optional<Build> {
        const Setup* base = findSetup(now, from);
        if (!base)
            return {};
        Build build = now;
        Corner own = corner;
        own.wheel = wheel.id;
        if (!findWheel(build, wheel.id))
            build.wheels.push_back(wheel.part);
        Setup setup = library::besides(now, *base, name, "kit");
        setup.note = tr("Put together from the parts library; nothing of it is here or read yet.");
        (axle == Axle::Front ? setup.front : setup.rear) = std::move(own);
        if (hydraulics)
            setup.hydraulics = hydraulics;
        build.setups.push_back(std::move(setup));
        giveIds(build);
        return build;
    };
}

} // namespace deepstop::search
