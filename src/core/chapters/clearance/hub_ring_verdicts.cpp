#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance_parts.hpp"

#include "build/choices.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop::clearance {
namespace {

// Common practice, no source.
constexpr double ringLoosest = 0.2e-3; ///< of a ring on the pilot: both its fits add up
constexpr double capLeast = 1e-3; ///< between the pilot's end and the inside of a cap

void addHubRing(Study& study, Axle axle, const Corner& c, const Hub& hub)
{
    if (!figures::hasAdapterRing(c))
        return;
    const AdapterRing& ring = c.adapter;
    Verdict v = judge::gapVerdict(checks::adapterRing, { axle }, tr("Adapter ring on the hub pilot"), Figure {});
    v.style = style::fine;
    v.source = tr("Common practice.");
    v.method = tr(
        "Inside of the ring less the pilot. A collar inboard of the hat holds the rotor off the flange; one outboard of it holds the wheel "
        "off the hat, unless the wheel's bore chamfer takes it.");
    v.caution = tr("A rotor or a wheel that does not sit flat runs out, shakes and works its nuts loose.");
    v.figure = evaluate([&](Evaluator& s) { return s(ring.inside) - s(hub.pilotDiameter); });
    const Figure collar = evaluate([&](Evaluator& s) { return s(ring.step); });
    // What an outboard collar is thicker than the chamfer in the wheel's bore.
    const AxleParts& parts = study.after.at(axle);
    const Figure proud = evaluate([&](Evaluator& s) { return s(ring.step) - (parts.wheel ? s(parts.wheel->boreChamfer) : 0); });
    judge::rate(study, v, { 0, ringLoosest, INFINITY, tr("The ring does not go over the pilot"), tr("it centres nothing") });
    const bool hasCollar = collar.value && collar.highest() > 0;
    if (!collar.value)
        mergeDependencies(v.figure, collar);
    std::string fault;
    if (hasCollar && ring.stepSide == Direction::Inboard)
        fault =
            tr("Its collar of {} lies between flange and rotor: the rotor does not sit flat. Turn the ring round, or turn the collar off",
                print(*collar.value, style::size, study.system));
    else if (hasCollar && ring.stepSide == Direction::Outboard && proud.value && proud.lowest() > 0)
        fault = tr("Its collar stands {} out of what the wheel's bore takes: the wheel does not sit flat",
            print(*proud.value, style::size, study.system));
    if (!fault.empty()) {
        v.level = Level::Stop;
        v.reason = fault;
    } else if (v.level != Level::Stop) {
        if (hasCollar && ring.stepSide == Direction::Unknown)
            v.lacksInWords.push_back(tr("which side of the hat the adapter ring's collar lies on ({})", judge::wordFor(axle)));
        if (ring.sits == RingSits::Unknown)
            v.lacksInWords.push_back(tr("whether the adapter ring sits on the pilot or in the hat ({})", judge::wordFor(axle)));
        if (hasCollar && ring.stepSide == Direction::Outboard)
            mergeDependencies(v.figure, proud);
        if (!collar.value || !v.lacksInWords.empty() || (hasCollar && ring.stepSide == Direction::Outboard && !proud.value)) {
            v.level = Level::Unproven;
            v.figure.value.reset();
            v.reason = lacking(study, v.figure, v.lacksInWords);
        } else if (hasCollar && proud.highest() > 0) {
            if (isFine(v.level))
                v.level = Level::Caution;
            v.reason += tr("; the wheel's bore may not take its collar: try the wheel on by hand");
        }
    }
    study.verdicts.push_back(std::move(v));
}

void addCap(Study& study, Axle axle, const Corner& c, const Hub& hub)
{
    const Rotor& r = c.rotor;
    if (r.capped != YesNo::Yes && !r.capDepth.value)
        return;
    Verdict v = judge::gapVerdict(checks::cap, { axle }, tr("Hub pilot under the rotor's cap"), Figure {});
    v.style = style::size;
    v.source = tr("Common practice.");
    v.method = tr(
        "Depth inside the cap, from the hat's face on the hub, and a ring behind the rotor, less the pilot's height. A cap that stands on "
        "the pilot holds the rotor off the flange.");
    v.caution = tr("A rotor that hangs on its cap does not sit flat: it looks fitted and is not.");
    v.figure = evaluate([&](Evaluator& s) { return s(r.capDepth) + figures::behindRotor(s, c) - s(hub.pilotHeight); });
    judge::rate(study, v, { 0, INFINITY, INFINITY, tr("The cap stands on the pilot: the rotor cannot sit flat"), "" });
    if (v.level == Level::Good && v.figure.lowest() < capLeast) {
        v.level = Level::Caution;
        v.reason += tr(": rust takes that up");
    }
    study.verdicts.push_back(std::move(v));
}

} // namespace

void addHubRingVerdicts(Study& study, Axle axle)
{
    const Corner* corner = study.after.at(axle).corner;
    if (!corner || corner->brakes != BrakeKind::Discs)
        return;
    addHubRing(study, axle, *corner, hubOf(*study.build, axle));
    addCap(study, axle, *corner, hubOf(*study.build, axle));
}

} // namespace deepstop::clearance
