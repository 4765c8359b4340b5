#include "chapters/heat/duty_words.hpp"

#include "chapters/heat/checks.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "verdict/judge.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

/// What the verdict on a duty says, from what gave up and what did not.
class DutyVerdict {
public:
    DutyVerdict(Study& study, const DutyStudy& d) : v(verdictOf(checks::firstLimit)), study_(study), d_(d), now_(d.after) { describe(); }

    Verdict judged() &&
    {
        lookWhatIsUnsaid();
        const bool runs = now_.run && now_.run->complete && !now_.limits.empty();
        const HeatLimit* sure = runs ? surelyGivesUp() : nullptr;
        // A critical limit that is passed at every value within the uncertainty is reported even if other readings are missing.
        if (!runs || ((!v.lacksInWords.empty() || !v.figure.lacks.empty()) && !sure)) {
            v.figure.value.reset();
            v.reason = v.figure.lacks.empty() && v.lacksInWords.empty()
                ? tr("This duty cannot be run: look at its speeds and times, masses and sizes")
                : lacking(study_, v.figure, v.lacksInWords);
            return std::move(v);
        }
        const HeatLimit& worst = whatSpeaks();
        v.figure.value = worst.margin();
        v.figure.worstCase = worst.unsure;
        v.figure.rootSumSquare = worst.unsure / 2;
        v.figure.effects.clear();
        judgeBy(worst);
        if (!v.figure.lacks.empty())
            v.figure.value.reset();
        if (const auto red = glow(now_.hottestRing); !red.empty())
            v.reason += tr(". The ring glows {}", red);
        if (v.figure.provisional() && !isBad(v.level)) {
            v.level = Level::Unproven;
            v.reason += "; " + judge::estimatedIn(study_, v.figure);
        }
        return std::move(v);
    }

private:
    void describe()
    {
        v.title += ": " + d_.duty.name;
        v.style = style::rise;
        v.wanted = 0.0;
        v.figure = now_.known;
        v.method = tr(
            "Ring in layers, hat, hub, linings, backings, caliper and fluid as a network of heat, cooled by air at the car's speed and by "
            "radiation; both axles run through the duty together, the share from the balance with each axle's friction as hot as it is. "
            "Then the car stands for 25 minutes without wind: hub, caliper and fluid are hottest there. Where the brakes no longer make "
            "what the duty asks, it goes on with what they do. A margin is what a part bears less its peak. A ring's rise may be off by "
            "30 % until a thermometer has set the cooling, then by 10 %, a hat's by half, that of caliper, fluid and hub by as much again; "
            "what readings, curves and the fluid's age may be off is added as the root of the squares. Glaze, green fade, hot spots and "
            "water are not modelled.");
        v.source = tr("Limpert's correlations of disc and vanes, from memory; FMVSS 116 for the fluid; what pads, seals, grease, hats and "
                      "faces bear, "
                      "and how far a model is off: common practice.");
        v.caution =
            tr("Hot brakes burn skin, boil fluid and lose their bite without a word. Try such a duty only on a closed place, stop at the "
               "first soft or long pedal, smell or smoke, and let them cool by driving.");
    }

    void lookWhatIsUnsaid()
    {
        v.lacksInWords = figures::unsaidOf(study_.after);
        if (d_.plan && !d_.plan->load.empty()
            && std::ranges::find(study_.build->loads, ElementId { d_.plan->load }, &LoadCase::id) == study_.build->loads.end())
            v.lacksInWords.push_back(tr("the load “{}” of this duty", d_.plan->load));
        const Hydraulics& h = *study_.after.hydraulics;
        // Whether fluid or foot hold is said of no car whose fluid or pedal nobody knows.
        constexpr double some = 10e5;
        judge::restAlsoOn(v.figure, asRead([&](Evaluator& s) { return figures::fluidBoils(s, *study_.build, h); }));
        judge::restAlsoOn(
            v.figure, asRead([&](Evaluator& s) { return hydraulics::pedalForceFor(figures::footOf(s, *study_.build, h), some); }));
        if (h.fluid == FluidClass::Unknown && !(h.dryBoiling.value && h.wetBoiling.value))
            v.lacksInWords.emplace_back(tr("class of the brake fluid"));
    }

    /// One that the car needs and that is passed however far the model is off.
    [[nodiscard]] const HeatLimit* surelyGivesUp() const
    {
        const auto found =
            std::ranges::find_if(now_.limits, [](const HeatLimit& l) { return l.critical && l.stop && l.margin() + l.unsure < 0; });
        return found == now_.limits.end() ? nullptr : &*found;
    }
    /// The one that is passed first; of those that hold, the one with the least certain margin.
    [[nodiscard]] const HeatLimit& whatSpeaks() const
    {
        if (now_.limits.front().stop)
            return now_.limits.front();
        return *std::ranges::min_element(now_.limits, {}, [](const HeatLimit& l) {
            return std::pair { !(l.critical || l.least() < 0), l.least() };
        });
    }

    [[nodiscard]] std::string at(int stop) const { return whenIn(stop, heat::stopsIn(d_.duty)); }
    [[nodiscard]] std::string at(const HeatLimit& limit) const
    {
        return limit.standing ? std::string(tr(standingAfterwards)) : at(*limit.stop);
    }
    [[nodiscard]] std::string numbers(const HeatLimit& limit) const
    {
        return tr("{} of {}", celsius(study_, limit.peak), celsius(study_, limit.limit));
    }
    /// What gave up first of the setup before, beside that.
    [[nodiscard]] std::string compared() const
    {
        const DutyHeat& was = d_.before;
        if (study_.before.setup == study_.after.setup || !was.run || was.limits.empty())
            return {};
        const auto first = firstFailure(was, heat::stopsIn(d_.duty));
        return tr("; before: {}", (first ? first->words() : std::string(tr("no limit reached"))));
    }

    void judgeBy(const HeatLimit& first)
    {
        const HeatLimit* worst = &first;
        std::string what = worst->what;
        what[0] = toUpper(what[0]);
        const bool gaveUpBefore = worst->stop && !worst->standing;
        if (now_.footFails && (!gaveUpBefore || *now_.footFails <= *worst->stop)) {
            v.level = Level::Stop;
            v.reason =
                tr("The foot {}: more than its greatest effort; {} {}{}", at(*now_.footFails), worst->what, numbers(*worst), compared());
        } else if (now_.tyresFail && (!gaveUpBefore || *now_.tyresFail <= *worst->stop)
            && std::ranges::none_of(now_.limits, [](const HeatLimit& l) { return l.critical && l.stop; })) {
            v.level = Level::Unproven;
            v.reason = tr("More than the tyres hold {}: this duty cannot be driven so; look at its speeds and times{}", at(*now_.tyresFail),
                compared());
        } else if (worst->stop) {
            v.level = worst->critical ? Level::Stop : Level::Caution;
            // A limit that is not critical does not hide a critical one that is passed later.
            for (const HeatLimit& each : now_.limits)
                if (each.critical && each.stop) {
                    v.level = Level::Stop;
                    if (&each != worst)
                        what += tr(" {}, then {}", at(*worst), each.what);
                    worst = &each;
                    break;
                }
            v.reason = fmt::format("{} {}, {}{}{}", what, at(*worst), numbers(*worst),
                now_.tyresFail ? tr("; {} the duty asks for more than the tyres hold", at(*now_.tyresFail)) : std::string(), compared());
        } else if (const auto unmeasured = beyondTheCurve(); !unmeasured.empty()) {
            v.level = Level::Unproven;
            v.reason = tr("{}; nearest {}, {}{}", unmeasured, worst->what, numbers(*worst), compared());
        } else if (v.figure.lowest() < 0) {
            v.level = Level::Caution;
            v.reason = tr("No limit reached, but not surely: {} at worst, {} ±{}{}", worst->what, numbers(*worst),
                print(v.figure.worstCase, style::rise, study_.system), compared());
        } else if (const double foot = now_.hardestFoot + now_.footUnsure;
                   foot > nearGreatest * figures::setting(study_.build->wants.greatestEffort, &Wants::greatestEffort)) {
            v.level = Level::Caution;
            v.reason = tr("No limit reached, but the foot presses {} ±{}, near its greatest effort; nearest {}, {}{}",
                print(now_.hardestFoot, style::force, study_.system), print(now_.footUnsure, style::force, study_.system), worst->what,
                numbers(*worst), compared());
        } else {
            v.level = Level::Good;
            v.reason = tr("No limit reached; nearest {}, {}{}", worst->what, numbers(*worst), compared());
        }
    }

    /// Where the faces may be hotter than anybody has measured the friction, in words.
    [[nodiscard]] std::string beyondTheCurve() const
    {
        for (const Axle axle : { Axle::Front, Axle::Rear }) {
            const double peak =
                (axle == Axle::Front ? now_.run->frontPeak : now_.run->rearPeak)[static_cast<std::size_t>(heat::Node::Surface)];
            if (peak > now_.measuredTo.at(axle))
                return tr("The {} faces reach {}, their friction is known to {}", judge::wordFor(axle), celsius(study_, peak),
                    celsius(study_, now_.measuredTo.at(axle)));
        }
        return {};
    }

    Verdict v;
    Study& study_;
    const DutyStudy& d_;
    const DutyHeat& now_;
};

} // namespace

void addDutyVerdict(Study& study, const DutyStudy& d) { study.verdicts.push_back(DutyVerdict(study, d).judged()); }

} // namespace deepstop
