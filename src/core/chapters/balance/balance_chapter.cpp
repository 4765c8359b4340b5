#include "chapters/balance/balance_chapter.hpp"

#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <string>

namespace deepstop {
namespace {

constexpr double notKnown = std::numeric_limits<double>::quiet_NaN();
/// On better tyres the load goes further forward, and the rear locks the sooner; common practice, no source.
/// From ice to 20 % more than was read, as parts of their grip.
constexpr std::array grips { 0.15, 0.4, 0.7, 1.0, 1.2 };

/// How far apart the axles lock with a part of the tyres' grip.
double apartOn(double grip, const stopping::Car& car, stopping::Brakes brakes)
{
    brakes.front.grip *= grip;
    brakes.rear.grip *= grip;
    return stopping::locksApart(car, brakes);
}

/// Every load of the build, the driver alone first.
std::vector<const LoadCase*> loadsOf(const Build& build)
{
    std::vector<const LoadCase*> loads { nullptr };
    for (const LoadCase& each : build.loads)
        loads.push_back(&each);
    return loads;
}

/// The value of a sum whose readings are all there.
template <class Sum>
auto ifKnown(Sum sum) -> std::optional<decltype(sum(std::declval<Evaluator&>()))>
{
    Evaluator s;
    auto result = sum(s);
    if (!s.atNominal())
        return std::nullopt;
    return result;
}

BalancePoint pointOf(const SetupBalance& setup, const LoadBalance& of, double frontPressure)
{
    const auto forces = stopping::brakeForces(*of.brakes, frontPressure);
    const double weight = of.car->mass * standardGravity;
    const auto use = stopping::adhesion(*of.car, forces);
    const double rearPressure = of.brakes->rearPressure(frontPressure);
    BalancePoint p { forces.sum() / weight, frontPressure, rearPressure, forces.front / weight, forces.rear / weight, use.front, use.rear,
        notKnown, notKnown, notKnown };
    if (setup.foot) {
        p.pedalForce = hydraulics::pedalForceFor(*setup.foot, frontPressure);
        if (setup.frontTakeUp && setup.rearTakeUp) {
            const auto travel = hydraulics::travel(*setup.foot, *setup.frontTakeUp, *setup.rearTakeUp, frontPressure, rearPressure);
            p.pedalTravel = travel.pedal;
            p.strokeShare = travel.strokeShare;
        }
    }
    return p;
}

LoadBalance loadBalanceOf(const Build& build, const SetupParts& setup, const SetupBalance& found, const LoadCase* load)
{
    LoadBalance r;
    r.load = load;
    r.name = load ? (load->name.empty() ? tr("another load") : load->name) : tr("driver only");
    r.car = ifKnown([&](Evaluator& s) { return figures::carOf(s, build.car, load); });
    r.brakes = ifKnown([&](Evaluator& s) { return figures::brakesOf(s, build, setup, load); });
    if (!r.car || !r.brakes || !(r.car->mass > 0) || !figures::unsaidOf(setup).empty())
        return r;
    constexpr double ample = 1e9;
    r.locks = stopping::lockPressures(*r.car, *r.brakes, ample);
    const double first = std::min(r.locks.front, r.locks.rear);
    if (!std::isfinite(first))
        return r;
    r.rearUse = ifKnown([&](Evaluator& s) { return rearUse(s, build, setup, load); }).value_or(0);
    const double grip = std::max(r.brakes->front.grip, r.brakes->rear.grip);
    constexpr int steps = 60;
    const double most = stopping::pressureFor(*r.car, *r.brakes, 1.25 * grip);
    const double knee = r.brakes->kneeAtFront();
    for (int i = 0; i <= steps; ++i) {
        const double pressure = most * i / steps;
        if (i > 0 && knee > most * (i - 1) / steps && knee < pressure)
            r.curve.push_back(pointOf(found, r, knee));
        r.curve.push_back(pointOf(found, r, pressure));
    }
    if (r.locks.front <= most)
        r.frontLocks = pointOf(found, r, r.locks.front);
    if (r.locks.rear <= most)
        r.rearLocks = pointOf(found, r, r.locks.rear);
    return r;
}

/// Deceleration that one circuit makes alone at the greatest effort, the other gone, as far as its chamber's stroke goes.
double leftOf(Evaluator& s, const Build& build, const SetupParts& setup, bool firstGone, const LoadCase* load, double* pedal = nullptr)
{
    const auto foot = figures::footOf(s, build, *setup.hydraulics, true);
    const auto car = figures::carOf(s, build.car, load);
    const auto brakes = figures::brakesOf(s, build, setup, load);
    const auto front = figures::takeUp(s, build, setup, Axle::Front);
    const auto rear = figures::takeUp(s, build, setup, Axle::Rear);
    const bool diagonal = setup.hydraulics->circuits == Circuits::Diagonal;
    const stopping::Circuit part = diagonal ? stopping::Circuit { 0.5, 0.5 }
        : firstGone                         ? stopping::Circuit { 0, 1 }
                                            : stopping::Circuit { 1, 0 };
    const auto goneAt = [&](double pressure) {
        const double volume = part.front * front.at(pressure) + part.rear * rear.at(brakes.rearPressure(pressure));
        return hydraulics::oneGone(foot, firstGone, volume);
    };
    double pressure = hydraulics::frontPressure(foot, s(build.wants.greatestEffort, false));
    const double share = goneAt(pressure).strokeShare;
    if (std::isnan(share))
        return notKnown;
    if (share > 1) {
        // As much pressure as the stroke that is left makes; the volume rises with it.
        double low = 0;
        for (int i = 0; i < 48; ++i) {
            const double middle = (low + pressure) / 2;
            (goneAt(middle).strokeShare > 1 ? pressure : low) = middle;
        }
        pressure = low;
    }
    if (pedal)
        *pedal = goneAt(pressure).pedal;
    return stopping::decelerationOf(car, brakes, part, pressure);
}

SetupBalance balanceOf(const Build& build, const SetupParts& setup)
{
    SetupBalance r;
    if (!setup.complete())
        return r;
    r.foot = ifKnown([&](Evaluator& s) { return figures::footOf(s, build, *setup.hydraulics, true); });
    if (!r.foot)
        r.foot = ifKnown([&](Evaluator& s) { return figures::footOf(s, build, *setup.hydraulics); });
    else
        for (const Axle axle : { Axle::Front, Axle::Rear })
            (axle == Axle::Front ? r.frontTakeUp : r.rearTakeUp) =
                ifKnown([&](Evaluator& s) { return figures::takeUp(s, build, setup, axle); });
    for (const LoadCase* load : loadsOf(build))
        r.loads.push_back(loadBalanceOf(build, setup, r, load));
    return r;
}

/// What only the setup that is judged needs: figures with their intervals.
void addFigures(const Study& study, SetupBalance& r)
{
    const Build& build = *study.build;
    const SetupParts& setup = study.after;
    if (!setup.complete())
        return;
    r.effort = study.recall("pedal effort", [&] { return evaluate([&](Evaluator& s) { return effortOf(s, build, setup); }); });
    r.strokeShare =
        study.recall("stroke used", [&] { return evaluate([&](Evaluator& s) { return travelOf(s, build, setup).strokeShare; }); });
    r.travel = asRead([&](Evaluator& s) { return travelOf(s, build, setup).pedal; });
    r.fluid = evaluate(
        [&](Evaluator& s) { return figures::fluidForWear(s, *setup.front.corner) + figures::fluidForWear(s, *setup.rear.corner); });
    const Circuits circuits = setup.hydraulics->circuits;
    if (circuits == Circuits::Unknown)
        return;
    for (const bool first : { true, false }) {
        CircuitGone gone;
        gone.name = circuits == Circuits::Diagonal ? first ? tr("one diagonal gone") : tr("the other diagonal gone")
            : first ? tr("front circuit gone")
                                                   : tr("rear circuit gone");
        gone.left = study.recall(fmt::format("left with the {}", gone.name), [&] {
            return evaluate([&](Evaluator& s) {
                double least = std::numeric_limits<double>::infinity();
                for (const LoadCase* load : loadsOf(build)) {
                    const double left = s.part(figures::partKey(first ? "first circuit gone" : "second circuit gone", build, setup, load),
                        [&] { return leftOf(s, build, setup, first, load); });
                    least = std::isnan(left) || std::isnan(least) ? notKnown : std::min(least, left);
                }
                return least;
            });
        });
        Evaluator s;
        if (gone.left.value)
            leftOf(s, build, setup, first, nullptr, &gone.pedal);
        r.gone.push_back(std::move(gone));
    }
}

/// Each load, in this build.
void pointInto(Balance& found, const Build& build)
{
    for (SetupBalance* each : { &found.before, &found.after })
        for (std::size_t i = 0; i < each->loads.size(); ++i)
            each->loads[i].load = i == 0 ? nullptr : &build.loads[i - 1];
}

} // namespace

double usefulPressure(Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load)
{
    return s.part(figures::partKey("useful pressure", build, setup, load), [&] {
        const auto car = figures::carOf(s, build.car, load);
        return stopping::usefulPressure(car, figures::brakesOf(s, build, setup, load));
    });
}

double locksApart(Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load, Tyres tyres)
{
    const auto car = figures::carOf(s, build.car, load);
    const auto brakes = figures::brakesOf(s, build, setup, load);
    if (tyres == Tyres::AsRead)
        return apartOn(1, car, brakes);
    double least = std::numeric_limits<double>::infinity();
    for (const double factor : grips) {
        const double apart = apartOn(factor, car, brakes);
        least = std::isnan(apart) || std::isnan(least) ? notKnown : std::min(least, apart);
    }
    return least;
}

double gripThatDecides(const Build& build, const SetupParts& setup, const LoadCase* load)
{
    const auto at = [&](double factor) {
        return nominal(
            [&](Evaluator& s) { return apartOn(factor, figures::carOf(s, build.car, load), figures::brakesOf(s, build, setup, load)); });
    };
    // Of equals the tyres as they are.
    double worst = 1;
    double least = at(1);
    for (const double factor : grips)
        if (const double apart = at(factor); apart < least - 1e-9) {
            least = apart;
            worst = factor;
        }
    return worst;
}

double rearUse(Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load)
{
    const auto car = figures::carOf(s, build.car, load);
    const auto brakes = figures::brakesOf(s, build, setup, load);
    const double first = stopping::usefulPressure(car, brakes);
    const double use = stopping::adhesion(car, stopping::brakeForces(brakes, first)).rear / brakes.rear.grip;
    // std::min would make all of it of none.
    return use > 1 ? 1 : use;
}

double effortOf(Evaluator& s, const Build& build, const SetupParts& setup)
{
    const auto foot = figures::footOf(s, build, *setup.hydraulics);
    double most = 0;
    for (const LoadCase* load : loadsOf(build)) {
        const double force = hydraulics::pedalForceFor(foot, usefulPressure(s, build, setup, load));
        most = std::isnan(force) || std::isnan(most) ? notKnown : std::max(most, force);
    }
    return most;
}

hydraulics::Travel travelOf(Evaluator& s, const Build& build, const SetupParts& setup)
{
    const auto foot = figures::footOf(s, build, *setup.hydraulics, true);
    const auto front = figures::takeUp(s, build, setup, Axle::Front);
    const auto rear = figures::takeUp(s, build, setup, Axle::Rear);
    hydraulics::Travel most { 0, 0, 0 };
    for (const LoadCase* load : loadsOf(build)) {
        const double pressure = usefulPressure(s, build, setup, load);
        const auto brakes = figures::brakesOf(s, build, setup, load);
        const auto travel = hydraulics::travel(foot, front, rear, pressure, brakes.rearPressure(pressure));
        if (std::isnan(travel.pedal) || std::isnan(travel.strokeShare) || travel.pedal > most.pedal)
            most = travel;
        if (std::isnan(most.pedal) || std::isnan(most.strokeShare))
            return most;
    }
    return most;
}

double limitOf(const SetupBalance& balance)
{
    const LoadBalance* alone = balance.find(nullptr);
    if (!alone)
        return notKnown;
    const auto& first = alone->locks.front <= alone->locks.rear ? alone->frontLocks : alone->rearLocks;
    return first ? first->deceleration : notKnown;
}

namespace {

BalancePoint pointWhere(const LoadBalance& balance, double BalancePoint::*rises, double value)
{
    const auto& curve = balance.curve;
    const auto after = std::ranges::lower_bound(curve, value, {}, rises);
    if (after == curve.begin())
        return curve.front();
    if (after == curve.end())
        return curve.back();
    const BalancePoint& a = *std::prev(after);
    const BalancePoint& b = *after;
    const double t = (value - a.*rises) / (b.*rises - a.*rises);
    const auto between = [&](double BalancePoint::*which) { return std::lerp(a.*which, b.*which, t); };
    using P = BalancePoint;
    return { between(&P::deceleration), between(&P::frontPressure), between(&P::rearPressure), between(&P::front), between(&P::rear),
        between(&P::frontAdhesion), between(&P::rearAdhesion), between(&P::pedalForce), between(&P::pedalTravel),
        between(&P::strokeShare) };
}

} // namespace

BalancePoint pointAt(const LoadBalance& balance, double deceleration)
{
    return pointWhere(balance, &BalancePoint::deceleration, deceleration);
}

BalancePoint pointAtPressure(const LoadBalance& balance, double frontPressure)
{
    return pointWhere(balance, &BalancePoint::frontPressure, frontPressure);
}

void drawBalance(Study& study)
{
    Balance found;
    found.before = study.recall("curves before", [&] { return balanceOf(*study.build, study.before); });
    found.after = study.after.setup == study.before.setup
        ? found.before
        : study.recall("curves after", [&] { return balanceOf(*study.build, study.after); });
    pointInto(found, *study.build);
    study.keep(std::move(found));
}

void addPedal(Study& study)
{
    Balance found = study.of<Balance>();
    addFigures(study, found.after);
    study.keep(std::move(found));
    addPedalVerdicts(study);
}

void addBalance(Study& study)
{
    drawBalance(study);
    addBalanceVerdicts(study);
    addPedal(study);
    addValveVerdicts(study);
    if (study.remedies == Remedies::Sought)
        addBalanceAdvice(study);
}

void settleBalance(Study& study)
{
    Balance found = study.of<Balance>();
    pointInto(found, *study.build);
    study.keep(std::move(found));
}

Figure locksApartOf(const Study& study, const LoadCase* load)
{
    return study.recall(fmt::format("locks apart, {}", (load ? std::to_string(load - study.build->loads.data()) : std::string("alone"))),
        [&] { return evaluate([&](Evaluator& s) { return locksApart(s, *study.build, study.after, load); }); });
}

} // namespace deepstop
