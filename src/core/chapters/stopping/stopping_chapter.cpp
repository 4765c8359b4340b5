#include "chapters/stopping/stopping_chapter.hpp"

#include "chapters/stopping/checks.hpp"
#include "figures/brake_figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <cmath>
#include <limits>

namespace deepstop {
namespace {

constexpr std::string_view closedRoad =
    marked("Try brakes only on a closed place with no one behind and run-out of twice the distance; stop at "
           "the first leak, soft pedal or pull.");

Evaluation frontShareOf(const Study& study, const SetupParts& setup)
{
    return study.recall(fmt::format("front share, {}", setup.setup->id),
        [&] { return evaluateAtLimits([&](Evaluator& s) { return figures::braking(s, *study.build, setup).frontShare; }); });
}

Evaluation distanceOf(const Study& study, const SetupParts& setup)
{
    return study.recall(fmt::format("stopping distance, {}", setup.setup->id),
        [&] { return evaluateAtLimits([&](Evaluator& s) { return figures::stop(s, *study.build, setup, false).distance; }); });
}

SetupStopping stoppingOf(const Study& study, const SetupParts& setup)
{
    using namespace figures;
    const Build& build = *study.build;
    SetupStopping r;
    for (const Axle axle : { Axle::Front, Axle::Rear })
        if (const Corner* corner = setup.at(axle).corner) {
            CornerBrake& brake = r.brakes.at(axle);
            brake.effectiveRadius = evaluate([&](Evaluator& s) { return effectiveRadius(s, *corner); });
            brake.pistonArea = evaluate([&](Evaluator& s) { return pistonArea(s, *corner); });
            brake.torque = evaluate([&](Evaluator& s) { return wheelTorque(s, build, *corner, *setup.hydraulics); });
        }
    if (!setup.complete())
        return r;
    r.deceleration = evaluate([&](Evaluator& s) { return braking(s, build, setup).deceleration; });
    r.frontShare = frontShareOf(study, setup).figure;
    r.distance = distanceOf(study, setup).figure;
    Evaluator s;
    if (r.deceleration.value)
        r.braking = braking(s, build, setup);
    if (r.distance.value)
        r.stop = stop(s, build, setup, true);
    return r;
}

/// Share of its grip that the rear uses in that stop; over it little is left to gain by balance. Common practice, no source.
constexpr double rearUseEnough = 0.8;

/// The middle alone says nothing where the interval crosses: what the limit may be at worst, in words; empty where it is the same.
/// @return and the level it then has
std::pair<Level, std::string> limitAtWorst(const Study& study, stopping::Limit limit)
{
    const Build& build = *study.build;
    const SetupParts& after = study.after;
    const auto remembered = [&](const char* name, const std::function<double(Evaluator&)>& sum) {
        return study.recall(name, [&] { return evaluate(sum); });
    };
    const Figure apart = remembered("locks apart on the tyres as read",
        [&](Evaluator& s) { return stopping::locksApart(figures::carOf(s, build.car), figures::brakesOf(s, build, after)); });
    if (build.car.antilock != YesNo::Yes && !(apart.lowest() >= 0))
        return { Level::Caution, tr("; at worst the rear locks first") };
    const Figure spare = remembered("spare pressure of the driver", [&](Evaluator& s) {
        const auto car = figures::carOf(s, build.car);
        const double wanted = stopping::usefulPressure(car, figures::brakesOf(s, build, after));
        return figures::pressure(s, build, *after.hydraulics) / wanted - 1;
    });
    if (!(spare.lowest() >= 0))
        return { Level::Caution, tr("; at worst the pedal force does not reach it") };
    if (limit == stopping::Limit::FrontLocks) {
        const Figure rear =
            remembered("rear's grip used in the stop", [&](Evaluator& s) { return figures::braking(s, build, after).rearUse; });
        if (!(rear.lowest() >= rearUseEnough))
            return { Level::Unproven,
                tr("; how much is not known well enough: the rear uses {} ±{} of its grip, {} is enough",
                    print(rear.value.value_or(NAN), style::share, study.system), print(rear.worstCase, style::share, study.system),
                    print(rearUseEnough, style::share, study.system)) };
    }
    return { Level::Good, {} };
}

/// Which limit holds the stop, and whether it is the one that should.
Verdict limitOfStop(const Study& study)
{
    const SetupParts& after = study.after;
    const SetupStopping& now = study.of<Stopping>().after;
    const Build& build = *study.build;
    Verdict limit = verdictOf(checks::stopLimit);
    limit.style = style::deceleration;
    limit.figure = now.deceleration;
    if (after.complete())
        limit.lacksInWords = figures::unsaidOf(after);
    if (limit.figure.value)
        *limit.figure.value *= standardGravity, limit.figure.worstCase *= standardGravity, limit.figure.rootSumSquare *= standardGravity;
    limit.method = tr(
        "Torque at a wheel 2·μ·p·A·r, A the pistons of one side, r the middle of the pad. Front load W·(share + z·h/L). Without antilock "
        "the "
        "driver holds the pressure at which the first axle locks; with it each axle takes what its load allows; never more than the "
        "pedal force presses.");
    limit.source = tr("Rigid-body load transfer and Coulomb friction, as in any vehicle-dynamics text.");
    limit.caution = tr(closedRoad);
    if (!limit.figure.value) {
        limit.reason = lacking(study, limit.figure, limit.lacksInWords);
    } else if (now.braking) {
        const auto& b = *now.braking;
        const auto z = print(b.deceleration * standardGravity, style::deceleration, study.system);
        switch (b.limit) {
        case stopping::Limit::Tyres:
            limit.level = Level::Good;
            limit.reason = tr("The tyres, at {}: no brake stops this car shorter", z);
            break;
        case stopping::Limit::FrontLocks:
            limit.level = b.rearUse < rearUseEnough ? Level::Caution : Level::Good;
            limit.reason =
                tr("The front tyres, at {}; the rear could give {} more of its own", z, print(1 - b.rearUse, style::share, study.system));
            break;
        case stopping::Limit::RearLocks:
            limit.level = build.car.antilock == YesNo::Yes ? Level::Caution : Level::Stop;
            limit.reason = build.car.antilock == YesNo::Yes
                ? tr("The rear tyres, at {}: antilock holds the rear back, the front could give {} more of its own", z,
                    print(1 - b.frontUse, style::share, study.system))
                : tr("The rear locks first, at {}: the car turns round. Less rear brake, or a valve", z);
            break;
        case stopping::Limit::Pedal:
            limit.level = Level::Caution;
            limit.reason = tr("The pedal: {} at full force, the tyres would hold more", z);
            break;
        }
        if (build.car.antilock == YesNo::Unknown)
            limit.reason += tr(" (worked out without antilock)");
        if (isFine(limit.level)) {
            const auto [level, why] = limitAtWorst(study, b.limit);
            limit.level = level;
            limit.reason += why;
        }
        if (limit.figure.provisional() && !isBad(limit.level)) {
            limit.level = Level::Unproven;
            limit.reason += "; " + judge::estimatedIn(study, limit.figure);
        }
    }
    return limit;
}

/// One cold stop, after against before.
Verdict distanceAfterBefore(const Study& study)
{
    const SetupParts& after = study.after;
    const SetupParts& before = study.before;
    const SetupStopping& was = study.of<Stopping>().before;
    const SetupStopping& now = study.of<Stopping>().after;
    Verdict distance = verdictOf(checks::stopDistance);
    distance.style = style::road;
    if (after.complete())
        distance.lacksInWords = figures::unsaidOf(after);
    if (before.complete() && after.complete())
        distance.figure = difference(distanceOf(study, after), distanceOf(study, before));
    distance.method = tr("Each stop integrated in steps: the foot builds up, the load goes forward with a lag, tyres lose some grip where "
                         "their load grows, air and rolling drag. Without antilock the driver holds the first axle at its limit. The "
                         "difference is worked out as one sum, so that what both setups share cancels in its uncertainty.");
    distance.source = tr("Newton; integrator Dormand–Prince 5.");
    distance.caution = tr(closedRoad);
    if (!distance.figure.value) {
        distance.reason = lacking(study, distance.figure, distance.lacksInWords);
    } else {
        const double change = *distance.figure.value;
        const double unsure = distance.figure.rootSumSquare;
        const auto by = print(std::abs(change), style::road, study.system);
        const auto width = print(unsure, style::road, study.system);
        constexpr double seen = 0.5; // m
        if (std::abs(change) < seen && unsure > 2 * seen) {
            distance.level = Level::Unproven;
            distance.reason = tr("No difference is known: ±{}", width);
        } else if (std::abs(change) < seen) {
            distance.level = Level::Good;
            distance.reason = tr("One cold stop is as long as before: gains show hot, in pedal force and in control");
        } else if (change > 0) {
            distance.level = Level::Caution;
            distance.reason = tr("{} longer than before (±{}{}): {} hold it now", by, width, change < unsure ? tr(", so not certain") : "",
                tr(nameOf(now.braking ? now.braking->limit : stopping::Limit::Pedal)));
        } else if (-change <= unsure) {
            distance.level = Level::Unproven;
            distance.reason = tr("{} shorter than before, ±{}: no gain is known", by, width);
        } else {
            distance.level = Level::Good;
            distance.reason = tr("{} shorter than before (±{})", by, width);
        }
        // It has no better stop to lose: what it could do beyond that is a car that turns round.
        if (was.braking && was.braking->limit == stopping::Limit::RearLocks && study.build->car.antilock != YesNo::Yes)
            distance.reason += tr("; before, the rear locks first: that distance is what a driver can hold without the car turning round");
        if (distance.figure.provisional() && distance.level != Level::Caution) {
            distance.level = Level::Unproven;
            distance.reason += "; " + judge::estimatedIn(study, distance.figure);
        }
    }
    return distance;
}

void addStopVerdicts(Study& study)
{
    study.verdicts.push_back(limitOfStop(study));
    if (study.after.setup != study.before.setup)
        study.verdicts.push_back(distanceAfterBefore(study));
}

void addStopLedger(Study& study)
{
    const SetupParts& a = study.before;
    const SetupParts& b = study.after;
    if (!a.complete() || !b.complete())
        return;
    const Build& build = *study.build;
    const SetupStopping& was = study.of<Stopping>().before;
    const SetupStopping& now = study.of<Stopping>().after;
    const Verdict* limit = study.verdict(checks::stopLimit);
    auto share = judge::ledgerLine("front-share", tr("Front share"), style::share, was.frontShare, now.frontShare,
        difference(frontShareOf(study, b), frontShareOf(study, a)));
    share.word = share.change.value ? std::string(tr(nameOf(now.braking->limit))) : judge::wordFor(Level::Unproven);
    if (limit)
        share.level = limit->level;
    study.ledger.push_back(std::move(share));

    LedgerLine distance;
    distance.id = "stop-distance";
    distance.title = tr("Stop from {}", print(build.car.testSpeed.value.value_or(NAN), style::speed, study.system));
    distance.style = style::road;
    distance.before = was.distance;
    distance.after = now.distance;
    if (const Verdict* v = study.verdict(checks::stopDistance)) {
        distance.change = v->figure;
        distance.level = v->level;
    } else {
        distance.change = distance.before.value && distance.after.value ? evaluate([](Evaluator&) { return 0.0; }) : Figure {};
        distance.level = limit ? limit->level : Level::Unproven;
    }
    distance.word =
        distance.change.value && *distance.change.value != 0 && std::abs(*distance.change.value) <= distance.change.rootSumSquare
        ? tr("no sure difference")
        : judge::changeWord(study, distance);
    study.ledger.push_back(std::move(distance));
}

} // namespace

void drawStopping(Study& study)
{
    const auto drawn = [&](const SetupParts& setup) {
        SetupStopping r;
        if (!setup.complete())
            return r;
        Evaluator s;
        auto braking = figures::braking(s, *study.build, setup);
        auto stop = figures::stop(s, *study.build, setup, true);
        if (s.atNominal()) {
            r.braking = braking;
            r.stop = std::move(stop);
        }
        return r;
    };
    Stopping found;
    found.before = drawn(study.before);
    found.after = study.after.setup == study.before.setup ? found.before : drawn(study.after);
    study.keep(std::move(found));
}

void addStopping(Study& study)
{
    Stopping found;
    found.before = stoppingOf(study, study.before);
    found.after = study.after.setup == study.before.setup ? found.before : stoppingOf(study, study.after);
    study.keep(std::move(found));
    addStopVerdicts(study);
    addStopLedger(study);
}

} // namespace deepstop
