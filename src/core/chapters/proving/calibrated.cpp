#include "chapters/proving/calibrated.hpp"

#include "chapters/proving/fading.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {

Thermometer temperaturesOf(const Build& build, const SetupParts& setup, const DutyPlan& plan, const heat::Duty& duty)
{
    Thermometer t;
    for (const TestSession& session : build.tests) {
        if (session.setup != setup.setup->id)
            continue;
        for (const MeasuredTemperature& m : session.temperatures) {
            if (!m.duty.empty() && m.duty != plan.id)
                continue;
            if (!m.temperature.value) {
                t.lacks.emplace_back(tr("a temperature"));
                continue;
            }
            // The end of that braking, and as long after it as was said.
            double clock = 0;
            std::optional<double> ended;
            for (const heat::Phase& p : duty.phases) {
                clock += p.duration;
                if (p.braking && p.stop == m.stop)
                    ended = clock;
            }
            if (!ended || !m.after.value) {
                t.lacks.push_back(!ended ? tr("which braking of {} it was after ({} has {})", heat::stopsIn(duty), m.stop, tr("no such"))
                                         : std::string(tr("how long after the braking it was read")));
                continue;
            }
            if (m.at == MeasuredAt::Unknown) {
                t.lacks.emplace_back(tr("what the thermometer was held against"));
                continue;
            }
            const heat::Node node = m.at == MeasuredAt::Pad ? heat::Node::Lining
                : m.at == MeasuredAt::Caliper               ? heat::Node::Caliper
                : m.at == MeasuredAt::Hat                   ? heat::Node::Hat
                                                            : heat::Node::Surface;
            // A gun or a probe is good to five kelvin at best; common practice.
            constexpr double least = 5;
            t.taken.push_back({ std::min(*ended + *m.after.value, clock + heat::Accuracy {}.standing), m.axle == Axle::Front, node,
                *m.temperature.value, std::max(least, m.temperature.plusMinus.value_or(0)), m.highestOnly == YesNo::Yes });
        }
    }
    for (const FadeRuns& fade : fadesOf(build, { setup.setup }, false)) {
        if (build.tests[fade.session].duty != plan.id)
            continue;
        FadeEvidence evidence = fadeEvidence(build, fade, duty);
        if (evidence.series)
            t.faded.push_back(std::move(*evidence.series));
        t.fadeLacks.insert(t.fadeLacks.end(), evidence.lacks.begin(), evidence.lacks.end());
    }
    return t;
}

std::optional<heat::Calibration> calibrationOf(const Build& build, const SetupParts& setup, const DutyPlan& plan)
{
    if (!setup.complete())
        return {};
    Evaluator s;
    const heat::Duty duty = figures::dutyOf(s, build, plan);
    figures::ThermalCar car = figures::thermalCar(s, build, setup);
    // What was set before is found anew, over the model's own.
    car.front.cooling = car.rear.cooling = 1;
    if (!s.atNominal())
        return {};
    const Thermometer measured = temperaturesOf(build, setup, plan, duty);
    return heat::calibrate(figures::runnable(car), duty, measured.taken, measured.faded);
}

std::vector<TakenAgainstModel> heldAgainst(const heat::Run& run, const std::vector<heat::Taken>& taken)
{
    std::vector<TakenAgainstModel> all;
    for (const heat::Taken& each : taken) {
        const heat::Moment m = heat::momentAt(run, each.time);
        const double then = (each.front ? m.front : m.rear)[static_cast<std::size_t>(each.node)];
        const double model = each.highest ? std::max(then, heat::highestUpTo(run, each)) : then;
        all.push_back({ each, model, std::abs(model - each.temperature) > 2 * each.width });
    }
    return all;
}

Build withCooling(Build build, const std::string& setup, const heat::Calibration& calibration, const Thermometer& measured)
{
    const Reading cooling { calibration.cooling, calibration.coolingWidth, Known::Measured,
        measured.faded.empty()       ? tr("thermometer")
            : measured.taken.empty() ? tr("fade over the stops")
                                     : tr("thermometer and fade"),
        {} };
    const Setup& judged = *findSetup(build, setup);
    for (const Axle axle : { Axle::Front, Axle::Rear })
        if (!measured.faded.empty()
            || std::ranges::any_of(measured.taken, [&](const heat::Taken& t) { return t.front == (axle == Axle::Front); })) {
            const bool own = (axle == Axle::Front ? judged.front : judged.rear).has_value();
            ownCorner(build, own ? setup : build.setups.front().id, axle).cooling = cooling;
        }
    return build;
}

} // namespace deepstop
