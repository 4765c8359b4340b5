#include "chapters/proving/proving_chapter.hpp"

#include "chapters/heat/duty_heat.hpp"
#include "chapters/proving/checks.hpp"
#include "chapters/proving/fading.hpp"
#include "chapters/proving/measured.hpp"
#include "chapters/proving/observed.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "quantity/quantile.hpp"
#include "stopping/spread.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop {

namespace {

constexpr double notGiven = std::numeric_limits<double>::quiet_NaN();

/// How hot it is after the duty, and whether anything has given up by then.
void addHeatTo(Predicted& p, const Build& build, const SetupParts& setup, const heat::Duty& duty, Figure& known)
{
    const DutyHeat d = dutyHeatOf(build, setup, duty);
    known = d.known;
    if (!d.run || !d.run->complete) {
        p.frontFriction = p.rearFriction = notGiven;
        return;
    }
    for (const heat::Moment& m : d.run->course)
        if (m.power > 0) {
            p.frontFriction = m.frontFriction;
            p.rearFriction = m.rearFriction;
        }
    // Pads that fade stop the car still, only later; boiled fluid does not.
    for (const HeatLimit& limit : d.limits)
        if (limit.node == heat::Node::Fluid && limit.stop && !limit.standing) {
            p.lost = tr("{} at braking {}", limit.what, *limit.stop);
            break;
        }
}

/// At nominal readings with what it rests on; how far off it may be, the draws say.
Figure distanceOf(const Build& build, const SetupParts& setup, const figures::StopOf& of)
{
    Figure f = asRead([&](Evaluator& s) { return figures::drive(s, build, setup, of, false).distance; });
    if (f.value && !std::isfinite(*f.value))
        f.value.reset();
    return f;
}

stopping::Case caseOf(const Build& build, const SetupParts& setup, const figures::StopOf& of, int parts)
{
    Evaluator s;
    return { figures::carOf(s, build.car, of.load), figures::brakesOf(s, build, setup, of.load),
        figures::circumstances(s, build, setup, of), build.car.testSpeed.value.value_or(notGiven), parts };
}

Predicted predict(const Study& study, const SetupParts& setup, const std::optional<heat::Duty>& duty)
{
    const Build& build = *study.build;
    Predicted p;
    if (!setup.complete())
        return p;
    p.cold = distanceOf(build, setup, {});
    Evaluator s;
    if (p.cold.value)
        p.coldRun = figures::drive(s, build, setup, {}, true);
    if (!duty)
        return p;
    Figure known;
    addHeatTo(p, build, setup, *duty, known);
    figures::StopOf of;
    of.frontFriction = p.frontFriction;
    of.rearFriction = p.rearFriction;
    p.hot = distanceOf(build, setup, of);
    judge::restAlsoOn(p.hot, known);
    if (!p.lost.empty())
        p.hot.value.reset();
    if (p.hot.value)
        p.hotRun = figures::drive(s, build, setup, of, true);
    return p;
}

/// The stop of each setup, before and after, as remembered.
Predicted predicted(const Study& study, bool after)
{
    if (after && study.after.setup == study.before.setup)
        return predicted(study, false);
    return study.recall(after ? "predicted after" : "predicted before", [&] {
        std::optional<heat::Duty> duty;
        Evaluator s;
        if (const DutyPlan* plan = figures::judgedDuty(*study.build))
            duty = figures::dutyOf(s, *study.build, *plan);
        return predict(study, after ? study.after : study.before, duty);
    });
}

/// Which predictions are drawn: those that have a value, before and after, cold and hot.
struct Drawn {
    bool after;
    bool hot;
};
std::vector<Drawn> drawnOf(const Predicted& before, const Predicted& after)
{
    std::vector<Drawn> all;
    for (const auto& [of, isAfter] : { std::pair { &before, false }, std::pair { &after, true } })
        for (const auto& [figure, hot] : { std::pair { &of->cold, false }, std::pair { &of->hot, true } })
            if (figure->value)
                all.push_back({ isAfter, hot });
    return all;
}

std::vector<std::vector<double>> drawsOf(const Study& study)
{
    const Predicted before = predicted(study, false);
    const Predicted after = predicted(study, true);
    std::vector<stopping::Case> cases;
    for (const auto& [isAfter, hot] : drawnOf(before, after)) {
        figures::StopOf of;
        if (hot) {
            of.frontFriction = (isAfter ? after : before).frontFriction;
            of.rearFriction = (isAfter ? after : before).rearFriction;
        }
        cases.push_back(caseOf(*study.build, isAfter ? study.after : study.before, of, isAfter));
    }
    constexpr int draws = 120;
    return stopping::spread(cases, draws, {}, 1);
}

void addDraws(const Study& study, ProvingStudy& p)
{
    auto all = study.recall("draws of stops", [&] { return drawsOf(study); });
    const auto drawn = drawnOf(p.before, p.after);
    for (std::size_t i = 0; i < all.size(); ++i) {
        Predicted& of = drawn[i].after ? p.after : p.before;
        (drawn[i].hot ? of.hotDraws : of.coldDraws) = std::move(all[i]);
    }
    for (Predicted* each : { &p.before, &p.after })
        for (const auto& [figure, draws] : { std::pair { &each->cold, &each->coldDraws }, std::pair { &each->hot, &each->hotDraws } })
            if (figure->value && !draws->empty()) {
                auto& range = draws == &each->coldDraws ? each->coldRange : each->hotRange;
                range = { quantile(*draws, 0.05), quantile(*draws, 0.95) };
                figure->worstCase = figure->rootSumSquare = (range->high - range->low) / 2;
            }
}

std::vector<OtherStop> othersOf(const Study& study)
{
    std::vector<OtherStop> others;
    const Build& build = *study.build;
    const std::optional<double> own = build.car.testSpeed.value;
    if (!own || !study.before.complete() || !study.after.complete())
        return others;
    Evaluator s;
    const auto of = [&](const LoadCase* load, double speed, bool wet) {
        figures::StopOf stop;
        stop.load = load;
        stop.speed = speed;
        if (wet)
            stop.grip = figures::setting(build.wants.wetGrip, &Wants::wetGrip);
        others.push_back({ load ? load->name : std::string(), speed, wet, figures::drive(s, build, study.before, stop, false).distance,
            figures::drive(s, build, study.after, stop, false).distance });
    };
    for (const double part : { 0.5, 0.75, 1.25 })
        of(nullptr, part * *own, false);
    of(nullptr, *own, true);
    for (const LoadCase& load : build.loads)
        of(&load, *own, false);
    return others;
}

double savesOf(const std::vector<double>& before, const std::vector<double>& after, double part)
{
    std::vector<double> saved;
    for (std::size_t i = 0; i < std::min(before.size(), after.size()); ++i)
        saved.push_back(before[i] - after[i]);
    if (saved.empty())
        return notGiven;
    // Two that never stop differ by nothing known.
    std::erase_if(saved, [](double v) { return std::isnan(v); });
    return quantile(std::move(saved), part);
}

/// What one setup's whole brakes weigh more than the other's; NaN where not all was weighed.
double heavierBy(const Study& study)
{
    double sum = 0;
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        std::vector<std::string> lacks;
        Evaluator s;
        sum += 2
            * (figures::cornerMass(s, *study.after.at(axle).corner, lacks) - figures::cornerMass(s, *study.before.at(axle).corner, lacks));
        if (!lacks.empty())
            return notGiven;
    }
    return sum;
}

constexpr double told = 0.5; // m, which nobody sees

std::string metresOf(const Study& study, double d) { return print(std::abs(d), style::road, study.system); }
std::string rangeOf(const Study& study, double low, double high)
{
    return tr("{} to {}", figure(low, style::road, study.system), metresOf(study, high));
}

/// What a change does to the stop.
struct Saving {
    std::string says;
    bool gains = false;
    bool loses = false;
    bool unknownHot = false;
};

/// @pre both setups have draws of the cold stop
void addCold(Saving& found, const Study& study, const ProvingStudy& p)
{
    const double low = p.coldSaves(0.05);
    const double high = p.coldSaves(0.95);
    const double middle = p.coldSaves(0.5);
    if (low > 0 && middle > told) {
        found.gains = true;
        found.says = tr("Cold it saves {} ({})", metresOf(study, middle), rangeOf(study, low, high));
    } else if (high < 0 && middle < -told) {
        found.loses = true;
        found.says = tr("Cold it is {} longer ({})", metresOf(study, middle), rangeOf(study, -high, -low));
    } else {
        using enum stopping::Hold;
        const auto byTyres = [](const Predicted& of) {
            const auto hold = of.coldRun->longest;
            return hold == Tyres || hold == FrontTyres || hold == RearTyres;
        };
        found.says = byTyres(p.before) && byTyres(p.after)
            ? tr("Cold, {} set the distance: this kit will not shorten it", tr(nameOf(p.after.coldRun->longest)))
            : tr("Cold, no difference can be told ({} shorter)", rangeOf(study, low, high));
    }
}

void addHot(Saving& found, const Study& study, const ProvingStudy& p)
{
    const auto after = tr("After {} brakings of {}", p.brakings, p.duty);
    if (p.duty.empty()) {
        found.unknownHot = true;
        found.says += tr(". What it does hot is not known: the build has no duty");
    } else if (!p.after.lost.empty()) {
        found.loses = true;
        found.says += tr(". {}: {}, and it stops no more", p.duty, p.after.lost);
    } else if (p.after.hotDraws.empty()) {
        found.unknownHot = true;
        found.says += tr(". {} it is not known", after);
    } else if (!p.before.lost.empty()) {
        found.gains = true;
        found.says += tr(". {} it stops in {}; before, {}", after, metresOf(study, p.after.hot.value.value_or(notGiven)), p.before.lost);
    } else if (p.before.hotDraws.empty()) {
        found.unknownHot = true;
        found.says += tr(". {} nothing is known of the car as found", after);
    } else {
        const double hotLow = p.hotSaves(0.05);
        const double hotHigh = p.hotSaves(0.95);
        const double hot = p.hotSaves(0.5);
        if (hotLow > 0 && hot > told) {
            found.gains = true;
            found.says += tr(". {} it saves {} ({})", after, metresOf(study, hot), rangeOf(study, hotLow, hotHigh));
        } else if (hotHigh < 0 && hot < -told) {
            found.loses = true;
            found.says += tr(". {} it is {} longer ({})", after, metresOf(study, hot), rangeOf(study, -hotHigh, -hotLow));
        } else {
            found.says += tr(". {} it saves nothing that can be told either", after);
        }
    }
}

void addSaves(Study& study, const ProvingStudy& p)
{
    if (study.before.setup == study.after.setup)
        return;
    Verdict v = verdictOf(checks::saves);
    v.style = style::road;
    v.method =
        tr("The stop in steps, cold and with the pads as hot as after the duty; 120 draws of grip, mass, foot, build-up and friction, "
           "the same for both setups, say how sure a difference is (90 of 100). Heat of this very stop does not act on it.");
    v.source = tr("Newton; widths of the draws: common practice.");
    v.caution = tr("Try brakes only on a closed place with no one behind and run-out of twice the distance.");
    v.figure = p.after.cold;
    for (const Figure* each : { &p.before.cold, &p.before.hot, &p.after.hot })
        judge::restAlsoOn(v.figure, *each);
    if (study.after.complete())
        v.lacksInWords = figures::unsaidOf(study.after);
    if (p.before.coldDraws.empty() || p.after.coldDraws.empty()) {
        v.figure.value.reset();
        v.reason = v.figure.lacks.empty() && v.lacksInWords.empty() ? tr("One of the two does not stop by these numbers")
                                                                    : lacking(study, v.figure, v.lacksInWords);
        study.verdicts.push_back(std::move(v));
        return;
    }
    Saving found;
    addCold(found, study, p);
    addHot(found, study, p);
    v.figure.value = p.coldSaves(0.5);
    v.figure.worstCase = v.figure.rootSumSquare = (p.coldSaves(0.95) - p.coldSaves(0.05)) / 2;
    if (!found.gains)
        if (const double heavier = heavierBy(study); heavier > 0.05)
            found.says += tr(", and the car is {} heavier", print(heavier, style::partMass, study.system)), found.loses = true;
    v.level = !p.after.lost.empty() ? Level::Stop : found.loses ? Level::Caution : Level::Good;
    if (!v.figure.lacks.empty()) {
        v.figure.value.reset();
        found.says += "; " + lacking(study, v.figure);
    }
    v.reason = found.says;
    if ((found.unknownHot && v.level == Level::Good) || (!v.figure.lacks.empty() && !isBad(v.level)))
        v.level = Level::Unproven;
    if (v.figure.provisional() && isFine(v.level)) {
        v.level = Level::Unproven;
        v.reason += "; " + judge::estimatedIn(study, v.figure);
    }
    study.verdicts.push_back(std::move(v));
}

/// Setups and measured stops, in this study's build.
void pointInto(ProvingStudy& p, const Study& study)
{
    p.measuredBefore.setup = study.before.setup;
    p.measuredAfter.setup = study.after.setup;
    const auto point = [&](std::vector<MeasuredRun>& runs) {
        for (MeasuredRun& run : runs)
            run.measured = &study.build->tests[run.session].stops[run.stop];
    };
    point(p.measuredBefore.runs);
    point(p.measuredAfter.runs);
    for (FadeRuns& fade : p.fades)
        point(fade.runs);
}

ProvingStudy measuredOf(const Study& study, bool withModel)
{
    ProvingStudy p;
    if (!study.before.setup)
        return p;
    p.measuredBefore = runsOf(*study.build, *study.before.setup);
    p.measuredAfter = runsOf(*study.build, *study.after.setup);
    if (study.before.setup != study.after.setup)
        p.difference =
            acrossDays(*study.build, p.measuredBefore, p.measuredAfter, proving::welch(p.measuredBefore.counted, p.measuredAfter.counted));
    p.fades = study.recall(withModel ? "fades" : "fades as driven", [&] {
        return fadesOf(
            *study.build, { study.before.setup, study.before.setup == study.after.setup ? nullptr : study.after.setup }, withModel);
    });
    pointInto(p, study);
    return p;
}

} // namespace

void settleProving(Study& study)
{
    ProvingStudy p = study.of<ProvingStudy>();
    pointInto(p, study);
    study.keep(std::move(p));
}

double ProvingStudy::coldSaves(double part) const { return savesOf(before.coldDraws, after.coldDraws, part); }
double ProvingStudy::hotSaves(double part) const { return savesOf(before.hotDraws, after.hotDraws, part); }

void drawProving(Study& study) { study.keep(measuredOf(study, false)); }

void addProving(Study& study)
{
    ProvingStudy p = measuredOf(study, true);
    if (const DutyPlan* plan = figures::judgedDuty(*study.build)) {
        Evaluator s;
        const auto duty = figures::dutyOf(s, *study.build, *plan);
        p.duty = duty.name.empty() ? duty.id : duty.name;
        p.brakings = heat::stopsIn(duty);
    }
    p.before = predicted(study, false);
    p.after = predicted(study, true);
    addDraws(study, p);
    p.others = study.recall("other stops", [&] { return othersOf(study); });
    addMeasuredVerdicts(study);
    addSaves(study, p);
    addColdModel(study, p);
    addDifference(study, p);
    addFades(study, p);
    addObserved(study);
    study.keep(std::move(p));
}

} // namespace deepstop
