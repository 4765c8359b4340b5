#include "chapters/proving/fading.hpp"

#include "chapters/heat/duty_heat.hpp"
#include "chapters/proving/checks.hpp"
#include "chapters/proving/measured.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

/// A stop repeats to so much of its distance, and the friction of a pad over its temperature is known to so much; common practice.
constexpr double repeatsTo = 0.03;
constexpr double curveKnownTo = 0.06;
/// Measured over predicted, past which the model is called wrong; common practice.
constexpr double modelHolds = 1.1;

const DutyPlan* dutyDriven(const Build& build, const TestSession& session)
{
    const auto plan = std::ranges::find(build.duties, session.duty, &DutyPlan::id);
    return session.duty.empty() || plan == build.duties.end() ? nullptr : &*plan;
}

/// The parts as the model has them now, its cooling too; those of that day where they have changed.
SetupParts partsFor(const Build& build, const TestSession& session)
{
    const Setup* now = findSetup(build, session.setup);
    return now && asNow(build, session) ? partsOf(build, *now) : partsThatRan(build, session);
}

double footOr(const MeasuredStop& stop, double usual) { return stop.pedal.value.value_or(usual); }

/// The stops that count after the first ones.
/// @param parts and build outlive what is returned
heat::FadeSeries seriesOf(const Build& build, const FadeRuns& fade, const SetupParts& parts)
{
    heat::FadeSeries series;
    Evaluator s;
    const double usual = s(parts.hydraulics->pedalForce, false);
    const auto first = static_cast<std::size_t>(heat::firstOnes);
    std::vector<const MeasuredRun*> counted;
    for (const MeasuredRun& run : fade.runs)
        if (run.leftOut.empty())
            counted.push_back(&run);
    series.firstFoot = 0;
    double mean = 0;
    for (std::size_t i = 0; i < std::min(first, counted.size()); ++i) {
        series.firstFoot += footOr(*counted[i]->measured, usual) / heat::firstOnes;
        mean += counted[i]->distance / heat::firstOnes;
    }
    for (std::size_t i = first; i < counted.size(); ++i) {
        const MeasuredStop& stop = *counted[i]->measured;
        const double longer = counted[i]->distance / mean;
        const double read = uncertainty(stop.distance, false) / *stop.distance.value;
        series.stops.push_back(
            { static_cast<int>(counted[i]->stop) + 1, footOr(stop, usual), longer, longer * std::hypot(repeatsTo, curveKnownTo, read) });
    }
    series.distance = [&build, parts](double front, double rear, double foot) {
        figures::StopOf of;
        of.frontFriction = front;
        of.rearFriction = rear;
        of.pedal = foot;
        Evaluator plain;
        return figures::drive(plain, build, parts, of, false).distance;
    };
    return series;
}

void addModel(FadeRuns& fade, const Build& build)
{
    const TestSession& session = build.tests[fade.session];
    const DutyPlan* plan = dutyDriven(build, session);
    const SetupParts parts = partsFor(build, session);
    if (!plan || !parts.complete() || fade.counted.size() <= static_cast<std::size_t>(heat::firstOnes))
        return;
    heat::Duty duty;
    const Figure driven = asRead([&](Evaluator& all) {
        duty = figures::dutyOf(all, build, *plan);
        return heat::durationOf(duty);
    });
    const DutyHeat heat = dutyHeatOf(build, parts, duty);
    fade.known = heat.known;
    judge::restAlsoOn(fade.known, driven);
    judge::restAlsoOn(fade.known, asRead([&](Evaluator& all) { return figures::drive(all, build, parts, {}, false).distance; }));
    if (!heat.run || !heat.run->complete)
        return;
    const auto longer = heat::lengtheningBy(*heat.run, seriesOf(build, fade, parts));
    if (!std::ranges::all_of(longer, [](double l) { return std::isfinite(l); }))
        return;
    fade.lengthening.assign(heat::firstOnes, 1.0);
    fade.lengthening.insert(fade.lengthening.end(), longer.begin(), longer.end());
}

/// Whether the model had it so.
void addModelVerdict(Study& study, const FadeRuns& fade)
{
    const Build& build = *study.build;
    const TestSession& session = build.tests[fade.session];
    constexpr std::size_t least = 5;
    if (session.stops.size() < least)
        return;
    Verdict v = verdictOf(checks::fadeModel, { .number = static_cast<int>(fade.session) + 1 });
    const Setup* setup = findSetup(build, session.setup);
    v.title += ": " + (setup ? setup->name : session.setup);
    v.style = style::number;
    v.method = tr("How much longer the worst stop is than the mean of the first {}, over the same as the heat model has it on that "
                  "duty with the foot that was read; past {:.1f} the model is called too cool.",
        heat::firstOnes, modelHolds);
    v.source = tr("Common practice.");
    const DutyPlan* plan = dutyDriven(build, session);
    if (!plan) {
        v.reason = tr("Say which duty the stops drove, and the heat model can be held against them");
        study.verdicts.push_back(std::move(v));
        return;
    }
    restOn(v.figure, build, fade.runs);
    for (const MeasuredRun& run : fade.runs)
        v.figure.restsOn.emplace_back(run.measured->pedal);
    judge::restAlsoOn(v.figure, fade.known);
    // A foot that presses harder hides what pads lose: unread, it may have.
    if (std::ranges::any_of(fade.runs, [](const MeasuredRun& run) { return run.leftOut.empty() && !run.measured->pedal.value; }))
        v.figure.assumed.emplace_back(tr("that the foot pressed as hard at each stop"));
    // Stops nobody read may have been the long ones.
    if (std::ranges::any_of(
            fade.runs, [](const MeasuredRun& run) { return !std::isfinite(run.distance) && run.measured->leftOut.empty(); }))
        v.figure.assumed.emplace_back(tr("that the stops that were not read were like the others"));
    if (fade.lengthening.empty() || !v.figure.lacks.empty() || fade.counted.size() < least) {
        v.reason = !v.figure.lacks.empty() ? lacking(study, v.figure)
            : fade.counted.size() < least  ? tr("Five stops in a row at least are wanted; {} count", fade.counted.size())
                                           : tr("The model cannot run that duty, or stops no more on it");
        study.verdicts.push_back(std::move(v));
        return;
    }
    const double first = proving::sampleOf(std::span(fade.counted).first(static_cast<std::size_t>(heat::firstOnes))).mean;
    const auto worst = static_cast<std::size_t>(
        std::ranges::max_element(fade.counted.begin() + heat::firstOnes, fade.counted.end()) - fade.counted.begin());
    const double measured = fade.counted[worst] / first;
    const double predicted = fade.lengthening[worst];
    v.figure.value = measured / predicted;
    v.figure.worstCase = *v.figure.value * std::hypot(repeatsTo, curveKnownTo);
    v.figure.rootSumSquare = v.figure.worstCase / 2;
    v.reason = tr("Stop {} is {:.2f} times as long as the first ones, the model has it {:.2f}", fade.numbers[worst], measured, predicted);
    Evaluator s;
    const auto evidence = fadeEvidence(build, fade, figures::dutyOf(s, build, *plan));
    const auto then = evidence.lacks.empty() ? std::string(tr("set its cooling from this (Heat, Thermometer)"))
                                             : tr("it cannot set the cooling: {}", judge::joined(evidence.lacks));
    if (*v.figure.value > modelHolds) {
        v.level = Level::Caution;
        v.reason += tr(": they run hotter than it says; {}", then);
    } else if (*v.figure.value < 1 / modelHolds) {
        v.level = Level::Good;
        v.reason += tr(": it errs on the safe side; {}", then);
    } else if (const double unsure = v.figure.rootSumSquare; *v.figure.value + unsure > modelHolds) {
        v.level = Level::Unproven;
        v.reason += tr(": {:.2f} ±{:.2f} of it, perhaps hotter than it says", *v.figure.value, unsure);
    } else {
        v.level = Level::Good;
    }
    if (v.figure.provisional() && isFine(v.level)) {
        v.level = Level::Unproven;
        v.reason += "; " + judge::estimatedIn(study, v.figure);
    }
    study.verdicts.push_back(std::move(v));
}

} // namespace

std::vector<FadeRuns> fadesOf(const Build& build, const std::vector<const Setup*>& setups, bool withModel)
{
    std::vector<FadeRuns> all;
    for (std::size_t i = 0; i < build.tests.size(); ++i) {
        const TestSession& session = build.tests[i];
        if (session.series != Series::Fade || session.stops.empty()
            || std::ranges::none_of(setups, [&](const Setup* s) { return s && s->id == session.setup; }))
            continue;
        FadeRuns fade { i, runsIn(build, i), {}, {}, {}, {} };
        for (const MeasuredRun& run : fade.runs)
            if (run.leftOut.empty()) {
                fade.counted.push_back(run.distance);
                fade.numbers.push_back(run.stop + 1);
            }
        const double past = figures::setting(build.wants.fadePast, &Wants::fadePast);
        fade.fades = proving::fadeIn(fade.counted, past);
        fade.bound = proving::fadeBound(fade.counted, past);
        if (withModel)
            addModel(fade, build);
        all.push_back(std::move(fade));
    }
    return all;
}

void addFades(Study& study, const ProvingStudy& p)
{
    for (const FadeRuns& fade : p.fades) {
        const TestSession& session = study.build->tests[fade.session];
        Verdict v = verdictOf(checks::fades, { .number = static_cast<int>(fade.session) + 1 });
        const Setup* setup = findSetup(*study.build, session.setup);
        v.title += ": " + (setup ? setup->name : session.setup);
        v.style = style::road;
        const double past = figures::setting(study.build->wants.fadePast, &Wants::fadePast);
        v.method = tr("Faded where two stops or more in a row are past {:.2f} of the mean of the first three, whatever the last ones do; "
                      "the level is the largest mean of two in a row, its scatter what neighbours differ by. Each distance is brought to "
                      "the speed to stop from.",
            past);
        v.source = tr("Common practice.");
        v.caution = tr("Stop at the first soft or long pedal, smell or smoke, and let them cool by driving.");
        if (fade.counted.size() < 5) {
            v.reason = tr("Five stops in a row at least are wanted; {} count", fade.counted.size());
        } else {
            restOn(v.figure, *study.build, fade.runs);
            const double first = proving::sampleOf(std::span(fade.counted).first(3)).mean;
            const auto level = proving::fadeLevel(fade.counted, past);
            v.figure.value = level.level;
            v.figure.worstCase = v.figure.rootSumSquare = level.scatter;
            v.style = style::number;
            if (fade.fades) {
                const auto [from, to] = *fade.fades;
                const auto recovered = to + 1 < fade.counted.size() ? tr(", recovered at {}", fade.numbers[to + 1]) : std::string();
                // Of the parts that are replaced it is why they are.
                v.level = session.setup == study.after.setup->id ? Level::Stop : Level::Caution;
                v.reason = tr("Faded from stop {} to {} of {}{}: {} against {} at first", fade.numbers[from], fade.numbers[to],
                    fade.runs.size(), recovered,
                    print(*std::max_element(fade.counted.begin() + static_cast<std::ptrdiff_t>(from),
                              fade.counted.begin() + static_cast<std::ptrdiff_t>(to) + 1),
                        style::road, study.system),
                    print(first, style::road, study.system));
            } else if (fade.counted.back() > past * first) {
                v.level = Level::Caution;
                v.reason = tr("The last stop was long: one more would tell whether it fades");
            } else if (level.single > 0 || level.level + level.scatter > past) {
                v.level = Level::Unproven;
                v.reason =
                    tr("The stops scatter: {:.2f} ±{:.2f} of the first ones, {:.2f} is faded. More stops, at the same speed and foot, "
                       "would tell",
                        level.level, level.scatter, past);
            } else {
                v.level = Level::Good;
                v.reason = tr("No fade in {} stops: {:.2f} ±{:.2f} of the first ones", fade.counted.size(), level.level, level.scatter);
            }
            doubtWhatLacks(study, v);
        }
        study.verdicts.push_back(std::move(v));
        addModelVerdict(study, fade);
    }
}

FadeEvidence fadeEvidence(const Build& build, const FadeRuns& fade, const heat::Duty& duty)
{
    FadeEvidence evidence;
    const TestSession& session = build.tests[fade.session];
    const SetupParts parts = partsFor(build, session);
    if (!parts.complete()) {
        evidence.lacks.emplace_back(tr("both axles are needed"));
        return evidence;
    }
    if (fade.counted.size() < 5)
        evidence.lacks.emplace_back(tr("five stops in a row at least are wanted"));
    if (!asNow(build, session))
        evidence.lacks.emplace_back(tr("the parts have changed since"));
    int footless = 0;
    int other = 0;
    for (const MeasuredRun& run : fade.runs) {
        if (!run.leftOut.empty())
            continue;
        footless += !run.measured->pedal.value;
        const auto phase =
            std::ranges::find_if(duty.phases, [&](const heat::Phase& p) { return p.braking && p.stop == static_cast<int>(run.stop) + 1; });
        constexpr double alike = 0.1;
        other += phase == duty.phases.end() || phase->to > 0.5 || std::abs(phase->from / *run.measured->speed.value - 1) > alike;
    }
    if (footless > 0)
        evidence.lacks.push_back(
            tr("the foot was not read at {} of the stops, and one that presses harder hides what pads lose", footless));
    if (other > 0)
        evidence.lacks.push_back(tr("{} of the stops are not those of {}", other, duty.name));
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        const Corner& c = *parts.at(axle).corner;
        const bool drum = c.brakes == BrakeKind::Drums;
        constexpr std::size_t least = 2;
        if ((drum ? c.drum.frictionOverTemperature : c.pad.frictionOverTemperature).size() < least)
            evidence.lacks.push_back(
                tr("friction of the {} {} over temperature is not known", judge::wordFor(axle), drum ? tr("linings") : tr("pads")));
    }
    if (evidence.lacks.empty())
        evidence.series = seriesOf(build, fade, parts);
    return evidence;
}

} // namespace deepstop
