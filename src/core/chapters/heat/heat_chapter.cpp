#include "chapters/heat/heat_chapter.hpp"

#include "chapters/heat/checks.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "materials/materials.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop {
namespace {

/// A ring that warms by more than this in one stop has no reserve for a second; common practice, no source.
constexpr double largeRise = 300;

/// @param setup whose parts; the rise needs both axles, for each takes its share of the braking
CornerHeat heatOf(const Build& build, const SetupParts& setup, Axle axle)
{
    CornerHeat r;
    r.heatStore = evaluate([&](Evaluator& s) { return figures::heatStore(s, *setup.at(axle).corner); });
    if (!setup.complete())
        return r;
    r.stopRise = evaluate([&](Evaluator& s) { return figures::stopRise(s, build, setup, axle); });
    if (!r.stopRise.value)
        return r;
    // One stop's rise goes with the square of the speed; drawn to half as fast again as the test.
    const double test = build.car.testSpeed.value.value_or(NAN);
    for (int i = 0; i <= 30; ++i)
        r.riseOverSpeed.emplace_back(test * i / 20, *r.stopRise.value * std::pow(i / 20.0, 2));
    return r;
}

void addHeatVerdicts(Study& study, Axle axle)
{
    const AxleParts& after = study.after.at(axle);
    if (!after.corner)
        return;
    const CornerHeat& now = study.of<Heat>().after.at(axle);
    const CornerHeat& was = study.of<Heat>().before.at(axle);
    Verdict v = verdictOf(checks::stopRise, { axle });
    v.title = tr("One stop into the {} {}", judge::wordFor(axle), after.corner->brakes == BrakeKind::Drums ? tr("drums") : tr("rings"));
    v.style = style::rise;
    v.figure = now.stopRise;
    if (after.corner->brakes == BrakeKind::Discs && after.corner->caliper.pistons.empty())
        v.lacksInWords.push_back(tr("piston bores"));
    v.method = tr("Energy ½·m·v² × the axle's share of the braking ÷ 2 rings ÷ (ring mass × {:g} J/kgK). Only the friction ring "
                  "takes heat within one stop. "
                  "Air and rolling drag are left out, so the true rise is a little smaller.",
        after.corner->brakes == BrakeKind::Drums ? materials::greyIron.specificHeat : figures::ringSolid(after.corner->rotor).specificHeat);
    v.source = tr("Conservation of energy; specific heat of the ring's material from memory; 300 K taken as large: common practice.");
    v.caution = tr("Hot rotors burn skin and crack in water. Let them cool by driving, not by standing on the pedal.");
    if (!after.wheel)
        v.lacksInWords.push_back(tr("a wheel with its tyre ({})", judge::wordFor(axle)));
    if (!v.figure.value) {
        v.reason = lacking(study, v.figure, v.lacksInWords);
    } else {
        const bool large = *v.figure.value > largeRise;
        v.level = large ? Level::Caution : v.figure.provisional() ? Level::Unproven : Level::Good;
        v.reason = tr("{} from {}", printChange(*v.figure.value, style::rise, study.system),
            print(study.build->car.testSpeed.value.value_or(0), style::speed, study.system));
        if (was.stopRise.value && study.before.setup != study.after.setup)
            v.reason += tr(", {} before", printChange(*was.stopRise.value, style::rise, study.system));
        if (large)
            v.reason += tr(": no reserve for a second stop");
        if (v.figure.provisional())
            v.reason += "; " + judge::estimatedIn(study, v.figure);
    }
    study.verdicts.push_back(v);

    const RotorFace face = after.corner->rotor.face;
    if (after.corner->brakes == BrakeKind::Discs && (face == RotorFace::Drilled || face == RotorFace::Unknown)) {
        Verdict drilled = verdictOf(checks::drilled, { axle });
        if (face == RotorFace::Unknown) {
            drilled.lacksInWords.push_back(tr("face of the {} rotors: plain, slotted, dimpled or drilled", judge::wordFor(axle)));
            drilled.reason = lacking(study, drilled.figure, drilled.lacksInWords);
        } else {
            drilled.level = Level::Caution;
            drilled.reason = tr("Cracks start at the holes when run red hot: plain or slotted faces for track and mountain");
        }
        drilled.source = tr("Common practice.");
        study.verdicts.push_back(std::move(drilled));
    }
}

void addHeatLedger(Study& study, Axle axle)
{
    const Corner* before = study.before.at(axle).corner;
    const Corner* after = study.after.at(axle).corner;
    if (!before || !after)
        return;
    const CornerHeat& was = study.of<Heat>().before.at(axle);
    const CornerHeat& now = study.of<Heat>().after.at(axle);
    auto store = judge::ledgerLine(std::string(lines::heatStore), tr("Heat store"), style::heatStore, was.heatStore, now.heatStore,
        evaluate([&](Evaluator& s) { return figures::heatStore(s, *after) - figures::heatStore(s, *before); }));
    store.word = tr(nameOf(Level::Unproven));
    if (store.before.value && store.after.value) {
        const double ratio = *store.after.value / *store.before.value;
        store.word = judge::percentChange(*store.after.value, *store.before.value);
        // What rests on an estimate proves nothing.
        store.level = store.before.provisional() || store.after.provisional() ? Level::Unproven
            : ratio >= 0.98                                                   ? Level::Good
                                                                              : Level::Caution;
    }
    study.ledger.push_back(std::move(store));
    // A duty of the build's own says more than one stop does.
    if (!study.before.complete() || !study.after.complete() || figures::judgedDuty(*study.build))
        return;
    const Build& build = *study.build;
    auto rise = judge::ledgerLine("stop-rise", axle == Axle::Front ? tr("Front ring, one stop") : tr("Rear ring, one stop"), style::rise,
        was.stopRise, now.stopRise, evaluate([&](Evaluator& s) {
            return figures::stopRise(s, build, study.after, axle) - figures::stopRise(s, build, study.before, axle);
        }));
    rise.word = judge::changeWord(study, rise);
    if (const Verdict* v = study.verdict(checks::stopRise, { axle }))
        rise.level = v->level;
    study.ledger.push_back(std::move(rise));
}

} // namespace

void drawHeat(Study& study)
{
    Heat found;
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        if (study.before.at(axle).corner)
            found.before.at(axle) = heatOf(*study.build, study.before, axle);
        if (study.after.at(axle).corner)
            found.after.at(axle) =
                study.after.setup == study.before.setup ? found.before.at(axle) : heatOf(*study.build, study.after, axle);
    }
    study.keep(std::move(found));
}

void addHeat(Study& study)
{
    drawHeat(study);
    for (const Axle axle : judge::axlesOf(study))
        addHeatVerdicts(study, axle);
    addHeatLedger(study, judge::axlesOf(study).front());
    addDuty(study);
}

} // namespace deepstop
