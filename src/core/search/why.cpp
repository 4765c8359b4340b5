#include "search/why.hpp"

#include "language/language.hpp"
#include "library/kit.hpp"
#include "quantity/text.hpp"
#include "search/funnel.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace deepstop::search {
namespace {

std::string titled(std::string title, const Query& query, Axle axle)
{
    return query.wholeCar ? fmt::format("{} ({})", title, judge::wordFor(axle)) : title;
}

/// What the search asks and no chapter says: whether a bracket can be made.
void addBracket(const Query& query, Trial& trial, Why& why)
{
    for (const auto& [limit, gap, level] : trial.bracket()) {
        if (isFine(level))
            continue;
        const auto say = [&](double length) { return print(length, style::fine, query.study->system); };
        Reason reason { limit.id, titled(limit.title, query, trial.axle()),
            gap.value ? tr("{} at worst, {} wanted", say(gap.lowest()), say(limit.wanted)) : lacking(*query.study, gap), level, {}, false };
        (isBad(level) ? why.fails : why.doubts).push_back(std::move(reason));
    }
}

/// Of a kit what it is compared by.
Gains gainsOf(Trial& trial, Trial* rear)
{
    Gains gains = allUnknown;
    trial.addWeight(gains);
    trial.addPrice(gains);
    const auto at = [&](Gain gain) -> double& { return gains[static_cast<std::size_t>(gain)]; };
    at(Gain::Clearance) = trial.wheel().clearance;
    if (rear) {
        Gains behind = allUnknown;
        rear->addWeight(behind);
        at(Gain::Weight) += of(behind, Gain::Weight);
        at(Gain::Price) += rear->priceOf(Kind::Rotor) + rear->priceOf(Kind::Caliper) + rear->priceOf(Kind::Pad);
        const double gap = rear->wheel().clearance;
        at(Gain::Clearance) =
            std::isnan(gap) || std::isnan(at(Gain::Clearance)) ? gap + at(Gain::Clearance) : std::min(gap, at(Gain::Clearance));
        trial.putOther(*rear);
    }
    at(Gain::Locks) = trial.locksApart();
    (void)trial.pedal();
    (void)trial.heat();
    trial.addDriven(gains);
    return gains;
}

/// Limits that are broken, each by itself.
void addLimits(const Query& query, const Gains& gains, Why& why)
{
    for (const Limit& limit : query.limits) {
        Query alone;
        alone.limits = { limit };
        const Outcome outcome = withinLimits(alone, gains, { limit.gain });
        if (outcome)
            continue;
        const auto say = [&](double value) {
            return std::isnan(value) ? std::string(tr("not known")) : print(value, about(limit.gain).style, query.study->system);
        };
        const auto words = about(limit.gain).lessIsBetter ? tr("{}, at most {} wanted", say(of(gains, limit.gain)), say(limit.value))
                                                          : tr("{}, at least {} wanted", say(of(gains, limit.gain)), say(limit.value));
        why.fails.push_back({ outcome.failed, tr("Limit: {}", titleFor(limit.gain, query.wholeCar)), words, Level::Stop, {}, true });
    }
}

/// Axles that are asked about.
using Axles = std::vector<Axle>;

bool counts(const Verdict& v, const Check* check, const Axles& axles)
{
    return v.check == check && !v.found && (check->of == CheckOf::Car || std::ranges::count(axles, v.axle) > 0);
}

bool anyFails(const Study& study, const Axles& axles)
{
    for (const Check* check : orderOfChecks())
        for (const Verdict& v : study.verdicts)
            if (counts(v, check, axles) && isBad(v.level))
                return true;
    return false;
}

/// A corner to order in that wheel, which comes into the build with it.
void putOn(Build& build, std::optional<Corner>& place, Corner corner, const library::Shelved<Wheel>& wheel)
{
    corner.wheel = wheel.id;
    if (!findWheel(build, wheel.id))
        build.wheels.push_back(wheel.part);
    place = std::move(corner);
}

} // namespace

Why whyNot(const Query& query, const Choice& choice, const std::optional<Choice>& rear)
{
    std::string setup;
    const auto build = std::make_shared<const Build>(triedBuild(query, choice, rear, &setup));
    Axles axles { query.axle };
    const SetupPair pair { query.study->before.setup->id, setup };
    const Study s = study(build, pair, query.study->system);
    Why why;
    Trial trial(query, query.axle);
    trial.put(choice);
    addBracket(query, trial, why);
    std::optional<Trial> behind;
    if (rear) {
        axles.push_back(Axle::Rear);
        behind.emplace(query, Axle::Rear);
        behind->put(*rear);
        addBracket(query, *behind, why);
    }
    const bool bracket = !why.fails.empty();
    std::vector<const Remedy*> remedies;
    for (const Check* check : orderOfChecks())
        for (const Verdict& v : s.verdicts) {
            if (!counts(v, check, axles) || isFine(v.level))
                continue;
            Reason reason { v.id, check->of == CheckOf::Car ? v.title : titled(v.title, query, v.axle), v.reason, v.level, {}, false };
            for (const Remedy& remedy : v.remedies) {
                reason.remedies.push_back(remedy.title);
                if (isBad(v.level))
                    remedies.push_back(&remedy);
            }
            (isBad(v.level) ? why.fails : why.doubts).push_back(std::move(reason));
        }
    if (!query.limits.empty())
        addLimits(query, gainsOf(trial, behind ? &*behind : nullptr), why);
    const bool limits = std::ranges::any_of(why.fails, &Reason::isLimit);
    // A spacer does not mend a plate that cannot be made. A remedy changes weight and price, so limits would have to be checked again.
    constexpr std::size_t most = 12;
    for (std::size_t i = 0; !bracket && !limits && i < std::min(most, remedies.size()) && why.mended.empty(); ++i)
        if (const auto mended = remedies[i]->in(*build))
            if (!anyFails(study(mended, pair, query.study->system, Remedies::LeftOut), axles))
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

std::string nameOf(const Query& query, const Kit& kit)
{
    const std::string front = nameOf(query, kit.choice);
    return kit.rear ? tr("front {}; rear {}", front, nameOf(query, *kit.rear)) : front;
}

Edit putIn(const Query& query, const Choice& choice, const std::string& name, const std::optional<Choice>& rear)
{
    Trial trial(query, query.axle);
    trial.put(choice);
    struct Order {
        Corner corner;
        library::Shelved<Wheel> wheel;
    };
    const auto& wheels = query.parts.wheels;
    const Order order { trial.kitToOrder(), wheels[at(choice, Kind::Wheel)] };
    std::optional<Order> behind;
    if (rear) {
        Trial other(query, Axle::Rear);
        other.put(*rear);
        behind = { other.kitToOrder(), wheels[at(*rear, Kind::Wheel)] };
    }
    std::optional<Hydraulics> hydraulics;
    if (!query.parts.masters[at(choice, Kind::Master)].id.empty())
        hydraulics = trial.hydraulics();
    return [order, behind, hydraulics, name, axle = query.axle, from = query.study->after.setup->id](
               const Build& now) -> std::optional<Build> {
        const Setup* base = findSetup(now, from);
        if (!base)
            return {};
        Build build = now;
        Setup setup = library::besides(now, *base, name, "kit");
        setup.note = tr("Put together from the parts library; nothing of it is here or read yet.");
        putOn(build, axle == Axle::Front ? setup.front : setup.rear, order.corner, order.wheel);
        if (behind)
            putOn(build, setup.rear, behind->corner, behind->wheel);
        if (hydraulics)
            setup.hydraulics = hydraulics;
        build.setups.push_back(std::move(setup));
        giveIds(build);
        return build;
    };
}

} // namespace deepstop::search
