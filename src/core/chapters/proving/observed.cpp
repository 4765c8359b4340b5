#include "chapters/proving/observed.hpp"

#include "build/choices.hpp"
#include "chapters/proving/checks.hpp"
#include "chapters/proving/measured.hpp"
#include "figures/brake_figures.hpp"
#include "figures/heat_figures.hpp"
#include "language/language.hpp"
#include "stopping/balance.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace deepstop {
namespace {

/// Of the better wheel's force, missing on the other one of the axle. Above the second it is a fault by Directive 2014/45/EU, annex I, from
/// memory; above the first it is worth looking at, common practice.
constexpr double unequalSeen = 0.20;
constexpr double unequalFault = 0.30;
/// How far a tester's front share may lie from the figures' before one of them is doubted; common practice.
constexpr double shareApart = 0.08;

std::string dayOfSession(const TestSession& session) { return session.date.empty() ? tr("that day") : tr("on {}", session.date); }

/// Sessions of the setups a study compares, with their numbers.
template <class F>
void eachSession(const Study& study, F f)
{
    const auto& tests = study.build->tests;
    for (std::size_t i = 0; i < tests.size(); ++i)
        for (const SetupParts* parts : { &study.before, &study.after })
            if (parts->setup && parts->setup->id == tests[i].setup) {
                f(tests[i], static_cast<int>(i) + 1);
                break;
            }
}

/// What was seen with other parts than the setup has now says nothing of it.
bool withOtherParts(const Study& study, const TestSession& session, Verdict& v)
{
    if (asNow(*study.build, session))
        return false;
    if (!isBad(v.level))
        v.level = Level::Unproven;
    v.reason += tr("; the parts have changed since");
    return true;
}

double predictedApart(const Study& study, const TestSession& session)
{
    const SetupParts ran = partsThatRan(*study.build, session);
    if (!ran.complete() || !figures::unsaidOf(ran).empty())
        return NAN;
    return nominal([&](Evaluator& s) {
        return stopping::locksApart(figures::carOf(s, study.build->car, nullptr), figures::brakesOf(s, *study.build, ran, nullptr));
    });
}

void addLockOrder(Study& study, const TestSession& session, int number)
{
    if (session.lockedFirst == LockedFirst::Unknown || session.lockedFirst == LockedFirst::None)
        return;
    Verdict v = verdictOf(checks::lockObserved, { .number = number });
    v.title += " " + dayOfSession(session);
    v.method = tr("What was seen or read from the marks, beside the lock order worked out for tyres as read, the driver alone.");
    v.source = tr("Common practice.");
    v.caution = tr("Look for it on loose or wet ground, from low speed, on a closed place with nobody near; never on a public road.");
    const double apart = predictedApart(study, session);
    const auto road = session.surface == Surface::Unknown ? std::string(tr("the road was not said"))
                                                          : tr("{} road", wordFor(session.surface, choices::surface));
    switch (session.lockedFirst) {
    case LockedFirst::Rear:
        v.level = Level::Stop;
        v.reason = tr("The rear wheels locked first ({}): the car can spin. Less rear braking before it is driven hard", road);
        if (apart > 0)
            v.reason += tr("; by the figures the front should: check pad friction, tyre grip, valve and the front circuit for air");
        break;
    case LockedFirst::Both:
        v.level = Level::Caution;
        v.reason = tr("Both axles locked together ({}): nothing is left between front and rear", road);
        break;
    default:
        v.level = session.surface == Surface::Unknown || std::isnan(apart) ? Level::Unproven : Level::Good;
        v.reason = tr("The front wheels locked first ({}); seen at that grip and load only", road);
        if (std::isnan(apart))
            v.reason += tr("; which should by the figures is not known");
        if (apart < 0) {
            v.level = Level::Caution;
            v.reason += tr("; by the figures the rear should: a figure is wrong, or the road was loose under the front");
        }
        break;
    }
    withOtherParts(study, session, v);
    study.verdicts.push_back(std::move(v));
}

/// The wheels of one axle against each other.
void addTesterOf(Study& study, const TestSession& session, int number, Axle axle)
{
    const Reading& left = axle == Axle::Front ? session.testerFrontLeft : session.testerRearLeft;
    const Reading& right = axle == Axle::Front ? session.testerFrontRight : session.testerRearRight;
    if (!left.value || !right.value)
        return;
    Verdict v = verdictOf(axle == Axle::Front ? checks::testerFront : checks::testerRear, { .number = number });
    v.title += " " + dayOfSession(session);
    v.style = style::share;
    v.method = tr("The weaker wheel's force under the better one's, as part of it, at one pedal force on a brake tester.");
    v.source = tr("30 %: Directive 2014/45/EU, annex I, from memory; 20 %: common practice.");
    v.figure = evaluate([&](Evaluator& s) {
        const double a = s(left, false);
        const double b = s(right, false);
        return std::max(a, b) > 0 ? 1 - std::min(a, b) / std::max(a, b) : NAN;
    });
    if (!v.figure.value) {
        v.reason = tr("Neither wheel brakes");
        v.level = Level::Stop;
    } else if (*v.figure.value > unequalFault) {
        v.level = Level::Stop;
        v.reason = tr("The {} wheel brakes {} less: find out why before the car is driven",
            *left.value < *right.value ? tr("left") : tr("right"), print(*v.figure.value, style::share, study.system));
    } else if (v.figure.highest() > unequalSeen) {
        v.level = Level::Caution;
        v.reason = tr("The {} wheel brakes {} less, {} at worst: a slide, a piston, a hose or a lining",
            *left.value < *right.value ? tr("left") : tr("right"), print(*v.figure.value, style::share, study.system),
            print(v.figure.highest(), style::share, study.system));
    } else if (!judge::unproven(study, v)) {
        v.level = Level::Good;
        v.reason = tr("Within {}", print(std::max(0.0, v.figure.highest()), style::share, study.system));
    }
    withOtherParts(study, session, v);
    study.verdicts.push_back(std::move(v));
}

/// Front share on the tester against that of the figures at the same front force.
void addTesterShare(Study& study, const TestSession& session, int number)
{
    const std::array wheels { &session.testerFrontLeft, &session.testerFrontRight, &session.testerRearLeft, &session.testerRearRight };
    if (!std::ranges::all_of(wheels, [](const Reading* r) { return r->value.has_value(); }))
        return;
    const SetupParts ran = partsThatRan(*study.build, session);
    Verdict v = verdictOf(checks::testerShare, { .number = number });
    v.title += " " + dayOfSession(session);
    v.style = style::share;
    v.method = tr("Front wheels' force over all four, as read on the tester, less that of the figures at the same front force.");
    v.source = tr("Common practice.");
    if (!ran.complete() || !figures::unsaidOf(ran).empty()) {
        v.reason = tr("What the figures say is not known: brakes or hydraulics are not described");
        study.verdicts.push_back(std::move(v));
        return;
    }
    v.figure = evaluate([&](Evaluator& s) {
        const double front = s(session.testerFrontLeft, false) + s(session.testerFrontRight, false);
        const double rear = s(session.testerRearLeft, false) + s(session.testerRearRight, false);
        const auto brakes = figures::brakesOf(s, *study.build, ran, nullptr);
        constexpr double one = 1e5;
        const double pressure = front / stopping::brakeForces(brakes, one).front * one;
        const auto predicted = stopping::brakeForces(brakes, pressure);
        return front / (front + rear) - predicted.front / predicted.sum();
    });
    if (!judge::unproven(study, v)) {
        const double far = std::max(std::abs(v.figure.lowest()), std::abs(v.figure.highest()));
        v.level = far <= shareApart ? Level::Good : Level::Caution;
        const double front = *session.testerFrontLeft.value + *session.testerFrontRight.value;
        const double share = front / (front + *session.testerRearLeft.value + *session.testerRearRight.value);
        v.reason = tr("{} of the force in front, {} by the figures{}", print(share, style::share, study.system),
            print(share - *v.figure.value, style::share, study.system),
            far <= shareApart ? "" : tr(": friction, valve or a circuit is not what the figures say, or the rollers slipped"));
    }
    withOtherParts(study, session, v);
    study.verdicts.push_back(std::move(v));
}

/// How many a duty has; 0 where that cannot be told.
int brakingsOf(const Study& study, const DutyPlan& plan)
{
    const double count = nominal([&](Evaluator& s) { return heat::stopsIn(figures::dutyOf(s, *study.build, plan)); });
    return std::isfinite(count) ? static_cast<int>(count) : 0;
}

void addFadeFelt(Study& study, const TestSession& session, int number)
{
    if (session.fadeFelt == FadeFelt::Unknown)
        return;
    Verdict v = verdictOf(checks::fadeFelt, { .number = number });
    v.title += " " + dayOfSession(session);
    v.method = tr("What the driver felt, beside the temperatures and limits worked out under Heat.");
    v.source = tr("Common practice.");
    v.caution = tr("Stop at the first long or soft pedal, roll on to cool, and do not hold the pedal down on hot rotors.");
    const auto at = session.fadedAt > 0 ? tr(" at braking {}", session.fadedAt) : std::string();
    switch (session.fadeFelt) {
    case FadeFelt::Pedal:
        v.level = Level::Stop;
        v.reason = tr("The pedal went long or hard{}: fluid near its boiling point if long, pads past their limit if hard", at);
        break;
    case FadeFelt::Smell:
        v.level = Level::Caution;
        v.reason = tr("Smell or smoke{}: the pads are near their limit", at);
        break;
    default: {
        const int driven = session.brakings > 0 ? session.brakings : static_cast<int>(session.stops.size());
        const auto duty = std::ranges::find(study.build->duties, session.duty, &DutyPlan::id);
        const int all = duty == study.build->duties.end() ? 0 : brakingsOf(study, *duty);
        v.level = all > 0 && driven >= all ? Level::Good : Level::Unproven;
        v.reason = driven > 0 ? tr("None felt in {} brakings", driven) : std::string(tr("None felt, in how many brakings was not said"));
        if (duty == study.build->duties.end())
            v.reason += tr("; which duty was driven was not said");
        else
            v.reason += driven < all ? tr(" of {}, which has {}: the others are not proven", duty->name, all)
                                     : tr(" of {}; more of them are not proven", duty->name);
        break;
    }
    }
    withOtherParts(study, session, v);
    study.verdicts.push_back(std::move(v));
}

void addBoosterTest(Study& study)
{
    const Hydraulics* h = study.after.hydraulics;
    if (!h || h->boosterTest == BoosterTest::Unknown || h->booster == Booster::None)
        return;
    Verdict v = verdictOf(checks::boosterTest);
    v.method = tr("Engine off, the pedal pumped until it is hard and held, then the engine started: vacuum lets it sink a little.");
    v.source = tr("Common practice.");
    v.level = h->boosterTest == BoosterTest::Sinks ? Level::Good : Level::Stop;
    v.reason = h->boosterTest == BoosterTest::Sinks
        ? tr("The pedal sinks when the engine starts: the booster has its vacuum")
        : tr("The pedal does not sink when the engine starts: no vacuum, a split hose, a check valve or the booster itself");
    study.verdicts.push_back(std::move(v));
}

} // namespace

void addObserved(Study& study)
{
    addBoosterTest(study);
    eachSession(study, [&](const TestSession& session, int number) {
        addLockOrder(study, session, number);
        addTesterOf(study, session, number, Axle::Front);
        addTesterOf(study, session, number, Axle::Rear);
        addTesterShare(study, session, number);
        addFadeFelt(study, session, number);
    });
}

} // namespace deepstop
