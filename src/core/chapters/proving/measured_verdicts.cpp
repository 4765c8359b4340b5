#include "chapters/proving/measured.hpp"

#include "chapters/proving/checks.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace deepstop {
namespace {

constexpr double notMeasured = std::numeric_limits<double>::quiet_NaN();

/// "0.4 to 2.1 m"
std::string between(const Study& study, double low, double high)
{
    return tr("{} to {}", figure(low, style::road, study.system), print(high, style::road, study.system));
}

} // namespace

void addMeasuredVerdicts(Study& study)
{
    const Build& build = *study.build;
    int number = 0;
    for (const TestSession& session : build.tests)
        for (const MeasuredStop& measured : session.stops) {
            Verdict v = verdictOf(checks::measuredStop, { .number = ++number });
            v.title += fmt::format(" {}", number);
            v.style = style::deceleration;
            v.figure = decelerationOf(measured);
            v.method =
                tr("Mean deceleration v²/(2·d), against the grip of the tyres that were on, the air's drag at that speed and the slope; "
                   "called a mistake where it is beyond them with both at their worst.");
            v.source = tr("Kinematics.");
            // The better axle's tyres and the mean drag, the square of the speed falling to nothing.
            const Figure most = mostDeceleration(build, session, measured, partsThatRan(build, session));
            v.figure.lacks.insert(v.figure.lacks.end(), most.lacks.begin(), most.lacks.end());
            if (!v.figure.value) {
                // What a logger could not tell of a stop that does not count, nobody will measure any more: nothing is said of it.
                if (!measured.leftOut.empty())
                    continue;
                v.reason = lacking(study, v.figure);
                study.verdicts.push_back(std::move(v));
                continue;
            }
            const auto g = print(*v.figure.value, style::deceleration, study.system);
            const auto what = tr("{} in {}", print(*measured.speed.value, style::speed, study.system),
                print(*measured.distance.value, style::road, study.system));
            if (!most.value) {
                v.reason = tr("{} is {}; {} to judge it", what, g, lacking(study, most));
            } else if (impossible(v.figure, most)) {
                v.level = Level::Caution;
                v.reason = tr("{} is {}, beyond tyres and air of {}: a mistake of speed, brake point or tape", what, g,
                    print(most.highest(), style::deceleration, study.system));
            } else if (v.figure.highest() <= most.lowest()) {
                v.level = Level::Good;
                v.reason = tr("{} is {}: within these tyres", what, g);
            } else {
                v.reason = tr("{} is {} ±{}: too near what the tyres can do to tell", what, g,
                    print(v.figure.worstCase, style::deceleration, study.system));
            }
            study.verdicts.push_back(std::move(v));
        }
}

namespace {

/// Distance from which on the stops of a setup were measured, over that from the pedal, as its prediction is; NaN where that is not said of
/// all of them, or the road was not dry.
double measuredLaterBy(const Build& build, const RunsOf& measured)
{
    // Also of sessions whose stops do not count: leaving one out must not make the others tell more.
    double later = notMeasured;
    for (const MeasuredRun& run : measured.runs) {
        const TestSession& session = build.tests[run.session];
        if (session.surface != Surface::Dry)
            return notMeasured;
        const Hydraulics& h = hydraulicsOf(build, *measured.setup);
        const double own = session.from == MeasuredFrom::Pedal ? 0
            : session.from == MeasuredFrom::Hold
            ? h.buildUpTime.value.value_or(notMeasured) / 2 * build.car.testSpeed.value.value_or(notMeasured)
            : notMeasured;
        if (!std::isnan(later) && own != later)
            return notMeasured;
        later = own;
    }
    return later;
}

constexpr int fewestStops = 3;

} // namespace

AgainstModel againstModel(const Build& build, const RunsOf& measured, const Predicted& predicted)
{
    const double later = measuredLaterBy(build, measured);
    if (measured.sample.count < fewestStops || std::isnan(later) || !predicted.coldRange || !std::isfinite(predicted.coldRange->high))
        return AgainstModel::NotKnown;
    return measured.sample.low > predicted.coldRange->high - later ? AgainstModel::Longer
        : measured.sample.high < predicted.coldRange->low - later  ? AgainstModel::Shorter
                                                                   : AgainstModel::Agrees;
}

namespace {

void addColdModelOf(Study& study, const RunsOf& measured, const Predicted& predicted, int number)
{
    if (measured.runs.empty())
        return;
    const Build& build = *study.build;
    Verdict v = verdictOf(checks::coldModel, { .number = number });
    v.title += ": " + measured.setup->name;
    v.style = style::road;
    v.method =
        tr("Mean of the measured stops with its interval (95 of 100) beside the predicted cold stop (90 of 100 draws of grip, mass, foot, "
           "build-up and friction), both from where the brakes are pressed, on a dry road. Where the two lie apart, one of the numbers "
           "that the prediction rests on is wrong.");
    v.source = tr("Student's interval; widths of the draws: common practice.");
    v.caution = tr("Old brakes that stop longer than they should have a fault: find it before the car is driven hard.");
    v.figure = predicted.cold;
    restOn(v.figure, build, measured.runs);
    const auto agrees = againstModel(build, measured, predicted);
    v.figure.value.reset();
    if (agrees == AgainstModel::NotKnown) {
        v.reason = !v.figure.lacks.empty() ? lacking(study, v.figure)
            : measured.sample.count < fewestStops
            ? tr("Stops that count: {}; {} are wanted", measured.sample.count, fewestStops)
            : tr("Say of each session that the road was dry, and that it was measured from the pedal or from a logger");
        // What is not said is no reading: nothing of the prediction is asked for because of it.
        if (v.figure.lacks.empty())
            v.figure = {};
        study.verdicts.push_back(std::move(v));
        return;
    }
    const double later = measuredLaterBy(build, measured);
    v.figure.value = measured.sample.mean;
    v.figure.worstCase = v.figure.rootSumSquare = (measured.sample.high - measured.sample.low) / 2;
    const auto lengths = tr("{} ±{} measured, {} predicted", print(measured.sample.mean, style::road, study.system),
        print(v.figure.worstCase, style::road, study.system),
        between(study, predicted.coldRange->low - later, predicted.coldRange->high - later));
    v.level = agrees == AgainstModel::Agrees ? Level::Good : Level::Caution;
    v.reason = agrees == AgainstModel::Agrees ? lengths
        : agrees == AgainstModel::Longer
        ? tr("{}: longer than these brakes and tyres should need. A driver who held back, a circuit that does not work, air, "
             "or friction or grip lower than given",
            lengths)
        : tr("{}: shorter than these tyres should allow. Their grip, the speed or the tape is not as given", lengths);
    if (v.figure.provisional() && isFine(v.level)) {
        v.level = Level::Unproven;
        v.reason += "; " + judge::estimatedIn(study, v.figure);
    }
    doubtWhatLacks(study, v);
    study.verdicts.push_back(std::move(v));
}

} // namespace

void addColdModel(Study& study, const ProvingStudy& p)
{
    addColdModelOf(study, p.measuredBefore, p.before, 1);
    if (study.before.setup != study.after.setup)
        addColdModelOf(study, p.measuredAfter, p.after, 2);
}

void addDifference(Study& study, const ProvingStudy& p)
{
    const RunsOf& a = p.measuredBefore;
    const RunsOf& b = p.measuredAfter;
    if (study.before.setup == study.after.setup || (a.runs.empty() && b.runs.empty()))
        return;
    Verdict v = verdictOf(checks::proven);
    v.style = style::road;
    v.method =
        tr("Each distance brought to the speed to stop from by (v₀/v)²; stops that were left out or no tyre can do do not count. Means "
           "compared by Welch's test, 95 % interval; of different days the grip may differ by 5 % either way (a setting), which goes into "
           "it; a trend over the runs by least squares is named before a difference is.");
    v.source = tr("Welch 1947 with Satterthwaite's freedom; power by the noncentral t.");
    v.caution = tr("Try brakes only on a closed place with no one behind and run-out of twice the distance.");
    const auto count = [&](const RunsOf& r) { return fmt::format("{}: {}", r.setup->name, r.sample.count); };
    const auto left = [](const RunsOf& r) {
        return std::ranges::count_if(r.runs, [](const MeasuredRun& run) { return !run.leftOut.empty(); });
    };
    if (a.sample.count < fewestStops || b.sample.count < fewestStops || !p.difference) {
        v.reason = tr("Three stops a side at least are wanted to tell anything; there are {}, {}", count(a), count(b));
        if (const auto out = left(a) + left(b); out > 0)
            v.reason += tr(" ({} left out)", out);
        study.verdicts.push_back(std::move(v));
        return;
    }
    restOn(v.figure, *study.build, a.runs);
    restOn(v.figure, *study.build, b.runs);
    const auto& d = *p.difference;
    v.figure.value = d.difference;
    v.figure.worstCase = v.figure.rootSumSquare = (d.high - d.low) / 2;
    const auto way = [&](double by) { return by > 0 ? tr("shorter") : tr("longer"); };
    const auto size = print(std::abs(d.difference), style::road, study.system);
    const auto interval = between(study, d.low, d.high);
    const RunsOf* drifting = nullptr;
    for (const RunsOf* each : { &a, &b })
        if (each->trend && each->trend->real())
            drifting = each;
    const auto unlike = unlikeOf(*study.build, a, b);
    if (drifting) {
        v.level = d.high < 0 ? Level::Caution : Level::Unproven;
        v.reason = tr("{}: the distances {} by {} a stop over the runs: warming tyres, fading pads or a changing road. Settle that "
                      "before believing a difference ({} {})",
            drifting->setup->name, drifting->trend->slope > 0 ? tr("grow") : tr("shrink"),
            print(std::abs(drifting->trend->slope), style::road, study.system), size, way(d.difference));
    } else if (!d.real()) {
        v.level = Level::Unproven;
        v.reason = tr("The scatter overlaps: {} {}, but anything from {} would fit", size, way(d.difference), interval);
        const int more = d.wanted - std::min(a.sample.count, b.sample.count);
        const bool days = !onOneDay(*study.build, a, b);
        v.reason += days ? tr(". They are of different days, each with its own grip: drive both on one day, old, new and old again")
            : d.wanted == 0 || more > 500 ? tr(". No sensible number of stops would settle it")
            : more > 0                    ? tr(". {} more each side would settle one this large", more)
                                          : "";
    } else if (d.difference < 0) {
        v.level = Level::Caution;
        v.reason = tr("{} longer than before, surely ({} in 95 of 100)", size, between(study, -d.high, -d.low));
    } else {
        v.level = Level::Good;
        v.reason = tr("{} shorter than before, surely ({} in 95 of 100)", size, interval);
    }
    if (!unlike.empty() && isFine(v.level)) {
        v.level = Level::Unproven;
        v.reason += tr("; but {}", judge::joined(unlike));
    }
    // Old brakes that did not do what they could give no gain to compare with.
    if (isFine(v.level) && againstModel(*study.build, a, p.before) == AgainstModel::Longer) {
        v.level = Level::Unproven;
        v.reason += tr("; but {} stops longer than its own brakes should need: that has to be explained before the new ones get the "
                       "credit",
            a.setup->name);
    }
    doubtWhatLacks(study, v);
    study.verdicts.push_back(std::move(v));
}

} // namespace deepstop
