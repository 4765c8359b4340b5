#include "chapters/balance/balance_chapter.hpp"
#include "chapters/balance/checks.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "stopping/balance.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop {
namespace {

// Common practice, no source.
constexpr double iceGrip = 0.15; ///< of the tyres' grip
constexpr double discResidual = 0.2e5; ///< about 3 psi: more holds pads against their rotor
constexpr double drumResidual = 1.2e5; ///< about 17 psi: more holds shoes against their drum

constexpr bool plain = false;

/// Below its pressure a metering valve leaves all braking to the rear.
void addMetering(Study& study)
{
    const Hydraulics& h = *study.after.hydraulics;
    if (!h.meteringPressure.value || *h.meteringPressure.value <= 0)
        return;
    Verdict v = verdictOf(checks::metering);
    v.style = style::share;
    v.lacksInWords = figures::unsaidOf(study.after);
    v.figure = evaluate([&](Evaluator& s) {
        const auto brakes = figures::brakesOf(s, *study.build, study.after);
        const auto car = figures::carOf(s, study.build->car);
        const double z = stopping::decelerationOf(car, brakes, { 0, 1 }, s(h.meteringPressure, plain));
        const double rearLoad = 1 - car.frontLoadShare - z * car.centreOfMassHeight / car.wheelbase;
        return z / rearLoad / (iceGrip * brakes.rear.grip);
    });
    v.method =
        tr("Deceleration of the rear brakes alone at the pressure where the valve lets the front ones in, over the rear axle's load then: "
           "what the rear tyres need of their grip on ice (0.15 of it as read). Over all of it the rear locks first there.");
    v.source = tr("Rigid-body load transfer; 0.15: common practice.");
    v.caution =
        tr("A metering valve is made for front discs with rear drums, whose shoes have to travel first. With discs behind it lets the rear "
           "brake alone.");
    const Corner* rear = study.after.rear.corner;
    if (!v.lacksInWords.empty())
        v.figure.value.reset();
    if (!judge::unproven(study, v)) {
        const bool antilock = study.build->car.antilock == YesNo::Yes;
        const bool locks = v.figure.highest() > 1;
        v.level = locks                                ? (antilock ? Level::Caution : Level::Stop)
            : rear && rear->brakes == BrakeKind::Discs ? Level::Caution
                                                       : Level::Good;
        v.reason = tr("The rear alone brakes up to {}, which takes {} of the rear's grip on ice",
            print(*h.meteringPressure.value, style::pressure, study.system), judge::percentOf(*v.figure.value));
        if (locks)
            v.reason += tr(": it may lock first there. Take the valve out, or a lower one");
        else if (v.level == Level::Caution)
            v.reason += tr("; with discs behind it is of no use: take it out");
    }
    study.verdicts.push_back(std::move(v));
}

/// A residual-pressure valve holds shoes near their drum; it holds pads against their rotor.
void addResidual(Study& study, Axle axle)
{
    const Reading& kept = axle == Axle::Front ? study.after.hydraulics->residualFront : study.after.hydraulics->residualRear;
    const Corner* corner = study.after.at(axle).corner;
    if (!kept.value || *kept.value <= 0 || !corner)
        return;
    const bool discs = corner->brakes == BrakeKind::Discs;
    Verdict v = verdictOf(checks::residual, { axle });
    v.title = tr("Residual pressure, {}", judge::wordFor(axle));
    v.style = style::pressure;
    v.figure = evaluate([&](Evaluator& s) { return s(kept, plain); });
    v.wanted = discs ? discResidual : drumResidual;
    v.method =
        tr("Pressure that stays in the line. Discs take none, or about 0.14 bar (2 psi) where the master cylinder lies below them; drums "
           "about 0.7 bar (10 psi).");
    v.source = tr("Common practice.");
    v.caution =
        tr("Pads held against their rotor drag, boil the fluid and wear out. A master cylinder made for drums may have such a valve in its "
           "outlet.");
    if (!judge::unproven(study, v)) {
        v.level = v.figure.highest() <= v.wanted ? Level::Good : discs && v.figure.lowest() > v.wanted ? Level::Stop : Level::Caution;
        v.reason = tr("{} stay in the line to the {}", print(*v.figure.value, v.style, study.system), discs ? tr("pads") : tr("shoes"));
        if (v.level != Level::Good)
            v.reason += discs ? tr(": the pads drag. Take the valve out, or one of 2 psi") : tr(": the shoes may drag");
    }
    study.verdicts.push_back(std::move(v));
}

} // namespace

void addValveVerdicts(Study& study)
{
    if (!study.after.complete())
        return;
    addMetering(study);
    addResidual(study, Axle::Front);
    addResidual(study, Axle::Rear);
}

} // namespace deepstop
