/// Pedal feel: effort, travel, booster, circuits, fluid.

#include "chapters/balance/balance_chapter.hpp"

#include "chapters/balance/checks.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

constexpr std::string_view feelFirst =
    marked("Pump the pedal before the car moves; it has to stand firm and high. A long, soft or sinking pedal is "
           "not driven.");
constexpr std::string_view notInIt = marked(" Residual pressure, pump-up, air, knock-back and speed of the foot are not modelled.");

/// One verdict of the pedal, told apart from its neighbours by what it adds.
class PedalVerdict {
public:
    PedalVerdict(Study& study, const Check& check, const Style& style) : v(verdictOf(check)), study_(study)
    {
        v.style = style;
        v.caution = tr(feelFirst);
        v.lacksInWords = figures::unsaidOf(study.after);
        for (const AxleParts* axle : { &study.after.front, &study.after.rear })
            kindUnsaid_ = kindUnsaid_ || (axle->corner->brakes == BrakeKind::Discs && axle->corner->caliper.kind == CaliperKind::Unknown);
    }
    /// The fluid of a caliper hangs on its kind.
    void needsKinds()
    {
        if (kindUnsaid_)
            v.lacksInWords.emplace_back(tr("whether a caliper is fixed or floating"));
    }
    /// Judges what has a value, and takes what only rests on estimates for unproven.
    template <class Judge>
    void judged(Judge judge)
    {
        if (!v.figure.value || !v.lacksInWords.empty()) {
            v.figure.value.reset();
            v.reason = v.figure.lacks.empty() && v.lacksInWords.empty()
                ? tr("No such pressure: no wheel ever locks, or ratio, gain, bores and shares do not go together")
                : lacking(study_, v.figure, v.lacksInWords);
        } else {
            judge(*v.figure.value);
            if (v.figure.provisional() && !isBad(v.level)) {
                v.level = Level::Unproven;
                v.reason += "; " + deepstop::judge::estimatedIn(study_, v.figure);
            }
        }
        study_.verdicts.push_back(std::move(v));
    }
    [[nodiscard]] std::string say(double si, const Style& style) const { return print(si, style, study_.system); }
    /// ", 210 N before"
    [[nodiscard]] std::string before(const std::function<double(Evaluator&)>& sum, const Style& style) const
    {
        if (study_.before.setup == study_.after.setup || !study_.before.complete())
            return {};
        const Figure was = asRead(sum);
        return was.value ? tr(", {} before", say(*was.value, style)) : std::string();
    }

    Verdict v;

private:
    Study& study_;
    bool kindUnsaid_ = false;
};

void addEffort(Study& study)
{
    const Build& build = *study.build;
    PedalVerdict p(study, checks::effort, style::force);
    p.v.figure = study.of<Balance>().after.effort;
    p.v.wanted = figures::setting(build.wants.greatestEffort, &Wants::greatestEffort);
    p.v.method = tr("Pedal force that brings the first axle to its grip most over all loads: pressure × area of the "
                    "master cylinder ÷ booster ÷ pedal ratio; above the booster's run-out force only the pedal force adds.");
    p.v.source =
        tr("Statics; comfortable 15 to 30 N for each 0.1 g, 500 N a strong driver: common practice. UN R13-H asks 6.43 m/s² of 500 N, from "
           "memory: a yardstick, no approval.");
    p.judged([&](double force) {
        const double z = limitOf(study.of<Balance>().after);
        const double greatest = *p.v.wanted;
        const double light = figures::setting(build.wants.lightEffort, &Wants::lightEffort) * z;
        const double firm = figures::setting(build.wants.firmEffort, &Wants::firmEffort) * z;
        const auto before = p.before([&](Evaluator& s) { return effortOf(s, build, study.before); }, style::force);
        // What the brakes could do at that effort, whatever the tyres hold, laden as heavily as it ever is.
        const double made = asRead([&](Evaluator& s) {
            const double pressure = hydraulics::frontPressure(figures::footOf(s, build, *study.after.hydraulics), greatest);
            double least = std::numeric_limits<double>::infinity();
            for (const LoadBalance& each : study.of<Balance>().after.loads) {
                const double mass = figures::carOf(s, build.car, each.load).mass;
                least = std::min(least, stopping::brakeForces(figures::brakesOf(s, build, study.after, each.load), pressure).sum() / mass);
            }
            return least;
        }).value.value_or(0);
        if (made < stopping::yardstick::service) {
            p.v.level = Level::Stop;
            p.v.reason = tr("{} make only {}: too weak a brake for any driver{}", p.say(greatest, style::force),
                p.say(made, style::deceleration), before);
        } else if (p.v.figure.worstCase >= force) {
            // So wide an interval is no figure.
            p.v.level = Level::Unproven;
            p.v.reason = tr("Not known: {} ±{} to use the tyres up. Friction, booster and pedal ratio would tell{}",
                p.say(force, style::force), p.say(p.v.figure.worstCase, style::force), before);
        } else if (p.v.figure.highest() > greatest) {
            p.v.level = Level::Caution;
            p.v.reason = tr("{} ±{} to use the tyres up: {}{}", p.say(force, style::force), p.say(p.v.figure.worstCase, style::force),
                force > greatest ? tr("more than a strong driver presses") : tr("at worst more than a strong driver presses"), before);
        } else if (force > firm || force < light) {
            p.v.level = Level::Caution;
            p.v.reason = tr("{} to use the tyres up: {}, comfortable is {} to {}{}", p.say(force, style::force),
                force > firm ? tr("a hard pedal") : tr("a light pedal that grabs"), p.say(light, style::force), p.say(firm, style::force),
                before);
        } else if (const double unsure = p.v.figure.rootSumSquare; force + unsure > firm || force - unsure < light) {
            p.v.level = Level::Unproven;
            p.v.reason = tr("{} ±{} to use the tyres up: {}, comfortable is {} to {}{}", p.say(force, style::force),
                p.say(unsure, style::force), force + unsure > firm ? tr("perhaps a hard pedal") : tr("perhaps a light pedal that grabs"),
                p.say(light, style::force), p.say(firm, style::force), before);
        } else {
            p.v.level = Level::Good;
            p.v.reason = tr("{} to use the tyres up{}", p.say(force, style::force), before);
        }
    });
}

void addTravel(Study& study)
{
    const Build& build = *study.build;
    const SetupBalance& now = study.of<Balance>().after;
    PedalVerdict p(study, checks::travel, style::share);
    p.needsKinds();
    p.v.figure = now.strokeShare;
    p.v.wanted = figures::setting(build.wants.strokeShare, &Wants::strokeShare);
    p.v.method = tr("Fluid for that stop: roll-back of every piston, give of pads, calipers and hoses, play of shoes; over the master "
                    "cylinder's area. The share of its stroke that the fuller chamber uses, most over all loads.{}",
        std::string(tr(notInIt)));
    p.v.source = tr("Volumes; 60 to 65 % of the stroke for a full stop, roll-back and give where they are not measured: common practice.");
    p.judged([&](double share) {
        const auto before = p.before([&](Evaluator& s) { return travelOf(s, build, study.before).strokeShare; }, style::share);
        const auto pedal = now.travel.value ? tr(", {} at the foot", p.say(*now.travel.value, style::frame)) : std::string();
        const auto used =
            tr("{} ±{} of the stroke{}{}", p.say(share, style::share), p.say(p.v.figure.worstCase, style::share), pedal, before);
        if (share >= 1) {
            p.v.level = Level::Stop;
            p.v.reason = tr("{}: the cylinder ends before the tyres do", used);
        } else if (p.v.figure.highest() > *p.v.wanted) {
            p.v.level = Level::Caution;
            p.v.reason = fmt::format("{}: {}", used,
                p.v.figure.highest() >= 1 ? tr("at worst it ends before the tyres do")
                    : share > *p.v.wanted ? tr("long, little is left for heat and wear")
                                          : tr("at worst more than is wanted"));
        } else {
            p.v.level = Level::Good;
            p.v.reason = used;
        }
    });
}

void addBooster(Study& study)
{
    const Build& build = *study.build;
    const Hydraulics& h = *study.after.hydraulics;
    if (h.booster == Booster::None || (h.booster == Booster::Unknown && h.boosterGain.value == 1.0))
        return;
    PedalVerdict p(study, checks::booster, style::pressure);
    p.v.wanted = 0.0;
    p.v.figure = evaluate([&](Evaluator& s) {
        const auto foot = figures::footOf(s, build, h);
        const double knee = foot.measuredOverReckoned * foot.booster.knee / hydraulics::rodArea(foot.master);
        double least = std::numeric_limits<double>::infinity();
        for (const LoadBalance& each : study.of<Balance>().after.loads) {
            const double wanted = usefulPressure(s, build, study.after, each.load);
            least = std::isnan(wanted) || std::isnan(least) ? NAN : std::min(least, knee - wanted);
        }
        return least;
    });
    p.v.method =
        tr("Front pressure at which the booster runs out less that at which the tyres are used up, the least over all loads. Beyond it "
           "only the foot adds pressure.");
    p.v.source = tr("Statics; running out at 40 to 80 bar where it is not measured: common practice.");
    p.v.caution =
        tr("With the engine stopped or the vacuum gone the foot is alone: keep the engine running, and know how hard that pedal is.");
    p.judged([&](double left) {
        const double knee = asRead([&](Evaluator& s) {
            const auto foot = figures::footOf(s, build, h);
            return foot.measuredOverReckoned * foot.booster.knee / hydraulics::rodArea(foot.master);
        }).value.value_or(NAN);
        const auto at = p.say(knee, style::pressure);
        if (p.v.figure.lowest() >= 0) {
            p.v.level = Level::Good;
            p.v.reason = (knee - left) < 0.4 * knee
                ? tr("Runs out at {}, hardly needed: the tyres are used up at {}", at, p.say(knee - left, style::pressure))
                : tr("Runs out at {}, after the tyres at {}", at, p.say(knee - left, style::pressure));
        } else {
            p.v.level = Level::Caution;
            p.v.reason = tr("Runs out at {}, {} the tyres are used up at {}: the last part is the foot's alone", at,
                left < 0 ? tr("before") : tr("at worst before"), p.say(knee - left, style::pressure));
        }
    });
}

void addCircuits(Study& study)
{
    const SetupBalance& now = study.of<Balance>().after;
    PedalVerdict p(study, checks::circuits, style::deceleration);
    p.needsKinds();
    constexpr double wanted = stopping::yardstick::secondary;
    p.v.wanted = wanted;
    p.v.method = tr("What the remaining circuit makes at the greatest effort within its own part of the stroke, least of both circuits and "
                    "all loads; a wheel past its grip gives what its load holds. A rear valve is taken to work as it stands; that a car on "
                    "one diagonal pulls aside is not in it.{}",
        std::string(tr(notInIt)));
    p.v.source = tr("Statics; 2.44 m/s² with part of the brakes gone: UN R13-H, from memory, a yardstick and no approval.");
    p.v.caution = tr("With one circuit gone the pedal falls first and the stop is two to three times as long: it is for coming to a stand, "
                     "not for driving home.");
    if (study.after.hydraulics->circuits == Circuits::Unknown)
        p.v.lacksInWords.emplace_back(tr("whether the circuits are front and rear or diagonal"));
    const CircuitGone* worst = nullptr;
    for (const CircuitGone& each : now.gone) {
        const bool lacks = !each.left.value;
        if (!worst || (worst->left.value && (lacks || each.left.lowest() < worst->left.lowest())))
            worst = &each;
    }
    if (worst)
        p.v.figure = worst->left;
    for (double* one : { &p.v.figure.worstCase, &p.v.figure.rootSumSquare })
        *one *= standardGravity;
    for (double& effect : p.v.figure.effects)
        effect *= standardGravity;
    if (p.v.figure.value)
        *p.v.figure.value *= standardGravity;
    p.judged([&](double left) {
        std::string each;
        for (const CircuitGone& one : now.gone)
            each += fmt::format(
                "{}{}: {}", each.empty() ? "" : ", ", one.name, p.say(one.left.value.value_or(NAN) * standardGravity, style::deceleration));
        each[0] = toUpper(each[0]);
        if (left < 0.1 * standardGravity) {
            p.v.level = Level::Stop;
            p.v.reason = tr("{}: next to nothing", each);
        } else if (p.v.figure.lowest() < wanted) {
            p.v.level = Level::Caution;
            p.v.reason = tr("{}: {} than {}", each, left < wanted ? tr("less") : tr("at worst less"), p.say(wanted, style::deceleration));
        } else {
            p.v.level = Level::Good;
            p.v.reason = each;
        }
    });
}

void addFluid(Study& study)
{
    const Hydraulics& h = *study.after.hydraulics;
    PedalVerdict p(study, checks::fluid, style::volume);
    p.v.figure = study.of<Balance>().after.fluid;
    const bool discs = study.after.front.corner->brakes == BrakeKind::Discs || study.after.rear.corner->brakes == BrakeKind::Discs;
    if (!discs)
        return;
    p.v.figure = evaluate([&](Evaluator& s) {
        return s(h.reservoir, false) - figures::fluidForWear(s, *study.after.front.corner)
            - figures::fluidForWear(s, *study.after.rear.corner);
    });
    p.v.wanted = 0.0;
    p.v.method =
        tr("Pistons follow pads and rotors from new to their minimum: area of one side × (both linings' wear + the rotor's), two wheels an "
           "axle; what is then left of the reservoir volume, min to max. Drums whose adjusters work take none.");
    p.v.source = tr("Volumes.");
    p.v.caution = tr("Fluid that is topped up over worn pads runs over when new ones go in. Fluid eats paint.");
    p.judged([&](double left) {
        const double marks = h.reservoir.value.value_or(0);
        const auto all = tr("{} of {} left between min and max", p.say(marks - left, style::volume), p.say(marks, style::volume));
        p.v.level = p.v.figure.lowest() >= 0 ? Level::Good : Level::Caution;
        p.v.reason = p.v.level == Level::Good ? all
            : left < 0                        ? tr("{}: it runs out of marks before the pads are worn; top up, look often", all)
                                              : tr("{}: at worst not enough", all);
    });
}

} // namespace

void addPedalVerdicts(Study& study)
{
    if (!study.after.complete())
        return;
    addEffort(study);
    addTravel(study);
    addBooster(study);
    addCircuits(study);
    addFluid(study);
}

} // namespace deepstop
