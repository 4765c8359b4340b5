#include "study/study.hpp"

#include "study/figures.hpp"
#include "study/parts.hpp"
#include "weights/weights.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace deepstop {
namespace {

/// A copy of `corner` with a plausible length wherever nobody has read one, for drawing only; says which were filled.
Corner filledForDrawing(const Corner& corner, const Corner* reference, std::vector<const Reading*>& standIns)
{
    Corner filled = corner;
    const auto fill = [&](auto select, double proportion) {
        const Reading& own = select(corner);
        if (own.value)
            return;
        standIns.push_back(&own);
        const Reading* known = reference ? &select(*reference) : nullptr;
        select(filled).value = known && known->value ? *known->value : proportion;
    };
    const double diameter = corner.rotor.outerDiameter.value.value_or(
        reference && reference->rotor.outerDiameter.value ? *reference->rotor.outerDiameter.value : 0.3);
    // Proportions of a usual corner; a picture has to be drawn even of what nobody has read yet.
    fill([](auto& c) -> auto& { return c.rotor.outerDiameter; }, 0.3);
    fill([](auto& c) -> auto& { return c.rotor.thickness; }, 0.08 * diameter);
    fill([](auto& c) -> auto& { return c.rotor.ringInnerDiameter; }, 0.62 * diameter);
    fill([](auto& c) -> auto& { return c.rotor.overallHeight; }, 0.16 * diameter);
    fill([](auto& c) -> auto& { return c.rotor.hatThickness; }, 7e-3);
    fill([](auto& c) -> auto& { return c.rotor.hatOuterDiameter; }, 0.5 * diameter);
    fill([](auto& c) -> auto& { return c.rotor.hatWall; }, 7e-3);
    fill([](auto& c) -> auto& { return c.rotor.bore; }, 0.068);
    fill([](auto& c) -> auto& { return c.rotor.ventGap; }, 0.0);
    fill([](auto& c) -> auto& { return c.caliper.backOverEdge; }, 0.022);
    fill([](auto& c) -> auto& { return c.caliper.backLength; }, 0.1);
    fill([](auto& c) -> auto& { return c.caliper.bridgeGap; }, 4e-3);
    fill([](auto& c) -> auto& { return c.caliper.reach; }, 0.055);
    fill([](auto& c) -> auto& { return c.caliper.outboardDepth; }, 0.055);
    fill([](auto& c) -> auto& { return c.caliper.inboardDepth; }, 0.06);
    fill([](auto& c) -> auto& { return c.caliper.shoulder; }, 0.012);
    fill([](auto& c) -> auto& { return c.caliper.slotWidth; }, filled.rotor.thickness.value.value_or(0.025) + 0.016);
    fill([](auto& c) -> auto& { return c.pad.height; }, 0.15 * diameter);
    fill([](auto& c) -> auto& { return c.pad.thickness; }, 0.010);
    fill([](auto& c) -> auto& { return c.pad.backing; }, 0.005);
    fill([](auto& c) -> auto& { return c.mount.padInset; }, 0.5e-3);
    fill([](auto& c) -> auto& { return c.mount.slotCentre; }, filled.ring.value.value_or(0) + *filled.rotor.hatThickness.value
            - *filled.rotor.overallHeight.value + *filled.rotor.thickness.value / 2);
    return filled;
}

fit::WheelShape drawable(fit::WheelShape shape)
{
    for (geometry::Chain* chain : { &shape.barrel, &shape.spokeBack })
        std::erase_if(*chain, [](geometry::Point p) { return !std::isfinite(p.z) || !std::isfinite(p.r); });
    return shape;
}

CornerResult studyCorner(const Build& build, const Corner& corner, const Corner* reference, const Hub& hub)
{
    using namespace figures;
    CornerResult r;
    r.corner = &corner;
    r.wheel = findWheel(build, corner.wheel);
    Sample once;
    r.shape = shapeOf(once, corner, hub);
    Sample drawing;
    r.drawn = shapeOf(drawing, filledForDrawing(corner, reference, r.standIns), hub);
    if (!std::isfinite(r.drawn.hub.flangeRadius))
        r.drawn.hub.flangeRadius = 0.07;
    if (!std::isfinite(r.drawn.hub.pilotRadius))
        r.drawn.hub.pilotRadius = 0.033;
    if (!std::isfinite(r.drawn.hub.pilotHeight))
        r.drawn.hub.pilotHeight = 0.012;
    if (r.wheel) {
        const Wheel& wheel = *r.wheel;
        r.barrelEstimated = wheel.barrel.size() < 2;
        r.wheelShape = drawable(wheelOf(drawing, wheel, fit::wheelFace(r.drawn)));
        const auto envelope = fit::caliperEnvelope(r.drawn);
        r.barrel = fit::barrelRoom(envelope, r.wheelShape.barrel);
        r.spokes = fit::spokeRoom(envelope, r.wheelShape.spokeBack);
        r.barrelGap = evaluate([&](Sample& s) { return barrelGap(s, corner, wheel); });
        r.spokeGap = evaluate([&](Sample& s) { return spokeGap(s, corner, wheel); });
        // Whichever is smaller; one that is not known at all does not hide the other's being small, but the smallest is then not proven.
        r.smallestGap = !r.spokeGap.value || (r.barrelGap.value && *r.barrelGap.value <= *r.spokeGap.value) ? r.barrelGap : r.spokeGap;
        if (!r.barrelGap.value || !r.spokeGap.value) {
            for (const Figure* gap : { &r.barrelGap, &r.spokeGap })
                for (const Reading* reading : gap->lacks)
                    if (std::ranges::find(r.smallestGap.lacks, reading) == r.smallestGap.lacks.end())
                        r.smallestGap.lacks.push_back(reading);
            r.smallestGap.value.reset();
        }
    }
    r.ringMass = evaluate([&](Sample& s) { return ringMass(s, corner.rotor); });
    r.rotorMass = evaluate([&](Sample& s) { return rotorMass(s, corner.rotor); });
    r.cornerMass = evaluate([&](Sample& s) {
        r.massLacks.clear();
        return cornerMass(s, corner, r.massLacks);
    });
    r.rotatingInertia = evaluate([&](Sample& s) { return rotatingInertia(s, corner.rotor); });
    r.heatStore = evaluate([&](Sample& s) { return heatStore(s, corner.rotor); });
    r.effectiveRadius = evaluate([&](Sample& s) { return effectiveRadius(s, corner); });
    r.pistonArea = evaluate([&](Sample& s) { return pistonArea(s, corner); });
    r.torque = evaluate([&](Sample& s) { return wheelTorque(s, corner, build.hydraulics); });
    return r;
}

SetupResult studySetup(const Build& build, const Setup& setup)
{
    SetupResult r;
    r.setup = &setup;
    const Setup& asFound = build.setups.front();
    const Corner* front = cornerOf(build, setup, Axle::Front);
    const Corner* rear = cornerOf(build, setup, Axle::Rear);
    if (front)
        r.front = studyCorner(build, *front, cornerOf(build, asFound, Axle::Front), build.frontHub);
    if (rear)
        r.rear = studyCorner(build, *rear, cornerOf(build, asFound, Axle::Rear), build.rearHub);
    if (!front || !rear)
        return r;
    using namespace figures;
    r.deceleration = evaluate([&](Sample& s) { return braking(s, build, *front, *rear).deceleration; });
    r.frontShare = evaluate([&](Sample& s) { return braking(s, build, *front, *rear).frontShare; });
    r.distance = evaluate([&](Sample& s) { return stop(s, build, *front, *rear, false).distance; });
    for (const auto& [corner, axle] : { std::pair { &r.front, Axle::Front }, std::pair { &r.rear, Axle::Rear } })
        corner->stopRise = evaluate([&](Sample& s) { return stopRise(s, build, *front, *rear, axle); });
    if (r.deceleration.value) {
        Sample s;
        r.braking = braking(s, build, *front, *rear);
    }
    if (r.distance.value) {
        Sample s;
        r.stop = stop(s, build, *front, *rear, true);
        // One stop's rise goes with the square of the speed; drawn to half as fast again as the test.
        const double test = s(build.car.testSpeed, false);
        for (CornerResult* corner : { &r.front, &r.rear })
            for (int i = 0; corner->stopRise.value && i <= 30; ++i)
                corner->riseOverSpeed.emplace_back(test * i / 20, *corner->stopRise.value * std::pow(i / 20.0, 2));
    }
    return r;
}

const Setup& chosen(const Build& build, const std::string& id, std::size_t otherwise)
{
    if (const Setup* setup = findSetup(build, id))
        return *setup;
    return build.setups[std::min(otherwise, build.setups.size() - 1)];
}

std::vector<Question> questionsOf(const Study& study)
{
    std::map<const Reading*, std::vector<std::string>> hanging;
    for (const Verdict& v : study.verdicts)
        for (const auto* readings : { &v.figure.lacks, &v.figure.estimated })
            for (const Reading* reading : *readings)
                hanging[reading].push_back(v.id);
    std::vector<Question> questions;
    for (const auto& [reading, verdicts] : hanging)
        if (const Address* address = study.directory->of(*reading))
            questions.push_back({ *address, !reading->value, verdicts });
    std::ranges::sort(questions, [](const Question& a, const Question& b) {
        return std::tuple { -static_cast<int>(a.verdicts.size()), !a.missing, a.address.pointer }
        < std::tuple { -static_cast<int>(b.verdicts.size()), !b.missing, b.address.pointer };
    });
    return questions;
}

std::vector<OpenFact> openFactsOf(const Study& study)
{
    std::map<std::string, std::vector<std::string>> hanging;
    for (const Verdict& v : study.verdicts)
        for (const std::string& what : v.lacksInWords)
            hanging[what].push_back(v.id);
    std::vector<OpenFact> facts;
    for (auto& [what, verdicts] : hanging)
        facts.push_back({ what, std::move(verdicts) });
    std::ranges::stable_sort(facts, std::greater<> {}, [](const OpenFact& f) { return f.verdicts.size(); });
    return facts;
}

} // namespace

Study study(std::shared_ptr<const Build> build, const SetupPair& pair, UnitSystem system)
{
    Study s;
    s.build = std::move(build);
    s.system = system;
    s.directory = std::make_shared<Directory>(*s.build);
    if (s.build->setups.empty())
        return s;
    s.before = studySetup(*s.build, chosen(*s.build, pair.before, 0));
    const Setup& after = chosen(*s.build, pair.after, 1);
    s.after = &after == s.before.setup ? s.before : studySetup(*s.build, after);
    s.centring = parts::centringOf(*s.build, after);
    parts::addVerdicts(s);
    s.ledger = parts::ledgerOf(s);
    s.questions = questionsOf(s);
    s.openFacts = openFactsOf(s);
    s.summary = parts::summaryOf(s);
    return s;
}

Study study(const Build& build, const SetupPair& pair, UnitSystem system) { return study(std::make_shared<const Build>(build), pair, system); }

} // namespace deepstop
