#include "study/study.hpp"

#include "study/figures.hpp"
#include "study/parts.hpp"
#include "weights/weights.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
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
    fill(
        [](auto& c) -> auto& { return c.rotor.outerDiameter; }, 0.3);
    fill(
        [](auto& c) -> auto& { return c.rotor.thickness; }, 0.08 * diameter);
    fill(
        [](auto& c) -> auto& { return c.rotor.ringInnerDiameter; }, 0.62 * diameter);
    fill(
        [](auto& c) -> auto& { return c.rotor.overallHeight; }, 0.16 * diameter);
    fill(
        [](auto& c) -> auto& { return c.rotor.hatThickness; }, 7e-3);
    fill(
        [](auto& c) -> auto& { return c.rotor.hatOuterDiameter; }, 0.5 * diameter);
    fill(
        [](auto& c) -> auto& { return c.rotor.hatWall; }, 7e-3);
    fill(
        [](auto& c) -> auto& { return c.rotor.bore; }, 0.068);
    fill(
        [](auto& c) -> auto& { return c.rotor.ventGap; }, 0.0);
    fill(
        [](auto& c) -> auto& { return c.caliper.backOverEdge; }, 0.022);
    fill(
        [](auto& c) -> auto& { return c.caliper.backLength; }, 0.1);
    fill(
        [](auto& c) -> auto& { return c.caliper.bridgeGap; }, 4e-3);
    fill(
        [](auto& c) -> auto& { return c.caliper.reach; }, 0.055);
    fill(
        [](auto& c) -> auto& { return c.caliper.outboardDepth; }, 0.055);
    fill(
        [](auto& c) -> auto& { return c.caliper.inboardDepth; }, 0.06);
    fill(
        [](auto& c) -> auto& { return c.caliper.shoulder; }, 0.012);
    fill(
        [](auto& c) -> auto& { return c.caliper.slotWidth; }, filled.rotor.thickness.value.value_or(0.025) + 0.016);
    fill(
        [](auto& c) -> auto& { return c.pad.height; }, 0.15 * diameter);
    fill(
        [](auto& c) -> auto& { return c.pad.thickness; }, 0.010);
    fill(
        [](auto& c) -> auto& { return c.pad.backing; }, 0.005);
    fill(
        [](auto& c) -> auto& { return c.mount.padInset; }, 0.5e-3);
    fill(
        [](auto& c) -> auto& { return c.mount.slotCentre; },
        filled.ring.value.value_or(0) + *filled.rotor.hatThickness.value - *filled.rotor.overallHeight.value
            + *filled.rotor.thickness.value / 2);
    return filled;
}

fit::WheelShape drawable(fit::WheelShape shape)
{
    const auto unknown = [](geometry::Point p) { return !std::isfinite(p.z) || !std::isfinite(p.r); };
    std::erase_if(shape.barrel, unknown);
    for (fit::Outline& line : shape.spokes)
        std::erase_if(line.chain, unknown);
    std::erase_if(shape.insets, [](const fit::Outline& inset) { return inset.chain.empty(); });
    return shape;
}

/// The smallest of the gaps to the wheel; one that is not known at all does not hide another's being small, but the smallest is then not
/// proven.
Figure smallestOf(const CornerResult& r, bool insets)
{
    Figure smallest;
    bool known = true;
    for (const WheelGap which : wheelGaps) {
        const Figure& gap = r.room(which).gap;
        if (which == WheelGap::Insets && !insets)
            continue;
        known = known && gap.value;
        auto lacks = smallest.lacks;
        for (const Reading* reading : gap.lacks)
            if (std::ranges::find(lacks, reading) == lacks.end())
                lacks.push_back(reading);
        if (which == WheelGap::Barrel || (gap.value && (!smallest.value || *gap.value < *smallest.value)))
            smallest = gap;
        smallest.lacks = std::move(lacks);
    }
    if (!known)
        smallest.value.reset();
    return smallest;
}

/// Where the wheel has to be measured for this caliper. What is bare is told by the stations taken, one alone included, though no gap can
/// be had from one.
std::vector<fit::PlannedStation> stationsFor(const CornerResult& r, const Wants& wants)
{
    const double spacing = figures::setting(wants.stationSpacing, &Wants::stationSpacing);
    const double face = fit::wheelFace(r.shape);
    constexpr double beyond = 1; // m; farther than any wheel reaches
    std::vector<double> along;
    for (const BarrelStation& station : r.wheel->barrel)
        if (station.depth.value && station.insideRadius.value)
            along.push_back(face - *station.depth.value);
    std::ranges::sort(along);
    const auto barrel = fit::bareStretches(along, -beyond, beyond, spacing);
    std::vector<std::pair<double, double>> spokes;
    if (const auto& room = r.room(WheelGap::Spokes).drawn) {
        spokes = room->bare;
    } else {
        std::vector<double> up;
        for (const SpokeStation& station : r.wheel->spokes)
            if (station.radius.value && station.distance.value)
                up.push_back(*station.radius.value);
        std::ranges::sort(up);
        spokes = fit::bareStretches(up, -beyond, beyond, spacing);
    }
    auto plan = fit::measuringPlan(fit::caliperOutlines(r.shape), face, barrel, spokes, spacing);
    // A station at its place is taken, though its neighbours are still to come.
    constexpr double there = 1e-3;
    for (fit::PlannedStation& station : plan)
        if (station.on == fit::PlannedStation::On::Barrel)
            station.taken =
                station.taken || std::ranges::any_of(along, [&](double z) { return std::abs(face - z - station.place) < there; });
        else
            station.taken = station.taken || std::ranges::any_of(r.wheel->spokes, [&](const SpokeStation& s) {
                return s.radius.value && s.distance.value && std::abs(*s.radius.value - station.place) < there;
            });
    return plan;
}

std::optional<fit::ShieldCut> shieldCutOf(const CornerResult& r, const Hub& hub, const Wants& wants)
{
    using figures::setting;
    const auto value = [](const Reading& reading) { return reading.value.value_or(NAN); };
    const fit::CornerShape& s = r.shape;
    const auto cut = fit::shieldCut({ value(hub.shieldDiameter) / 2, value(hub.shieldDepth), value(hub.shieldRim) },
        s.rotor.outerRadius
            + fit::growth(s.rotor.outerRadius, setting(wants.hotRise, &Wants::hotRise), figures::ringSolid(r.corner->rotor).expansion),
        -fit::frictionFaces(s).inboard, s.rotor.ringInnerRadius, s.rotor.outerRadius - s.caliper.reach,
        s.caliper.inboardDepth - s.slotCentre, s.caliper.backHalfLength, setting(wants.shieldGap, &Wants::shieldGap));
    return cut;
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
        for (const WheelGap which : wheelGaps) {
            if (which == WheelGap::Insets && wheel.insets.empty())
                continue;
            WheelRoom& room = r.rooms[static_cast<std::size_t>(which)];
            room.drawn = roomOf(which, r.drawn, r.wheelShape, build.wants);
            room.gap = evaluate([&](Sample& s) { return wheelGap(s, which, corner, wheel, build.wants); });
            room.wanted = wantedOf(which, wheel, build.wants);
        }
        r.smallestGap = smallestOf(r, !wheel.insets.empty());
        r.stations = stationsFor(r, build.wants);
        r.studs = studStack(once, corner, wheel, hub);
        r.stance = stanceOf(once, corner, wheel);
    }
    r.hotGrowth = fit::growth(r.drawn.rotor.outerRadius, setting(build.wants.hotRise, &Wants::hotRise), ringSolid(corner.rotor).expansion);
    const auto rotor = fit::rotorSection(r.drawn, r.hotGrowth);
    for (const KeepOut& place : hub.keepOuts)
        r.keepOuts.push_back(fit::keepOutRoom({ -place.depth.value.value_or(NAN), place.radius.value.value_or(NAN) }, r.wheelShape, rotor));
    r.shieldCut = shieldCutOf(r, hub, build.wants);
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

/// @param other a setup of the same build studied already; an axle the two share is not worked out again
SetupResult studySetup(const Build& build, const Setup& setup, const SetupResult* other = nullptr)
{
    SetupResult r;
    r.setup = &setup;
    const Setup& asFound = build.setups.front();
    const Corner* front = cornerOf(build, setup, Axle::Front);
    const Corner* rear = cornerOf(build, setup, Axle::Rear);
    for (const auto& [corner, axle, result] : { std::tuple { front, Axle::Front, &r.front }, std::tuple { rear, Axle::Rear, &r.rear } })
        if (corner)
            *result = other && other->at(axle).corner == corner
                ? other->at(axle)
                : studyCorner(build, *corner, cornerOf(build, asFound, axle), hubOf(build, axle));
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
        for (CornerResult* corner : { &r.front, &r.rear }) {
            corner->riseOverSpeed.clear();
            for (int i = 0; corner->stopRise.value && i <= 30; ++i)
                corner->riseOverSpeed.emplace_back(test * i / 20, *corner->stopRise.value * std::pow(i / 20.0, 2));
        }
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

Study study(std::shared_ptr<const Build> build, const SetupPair& pair, UnitSystem system, Remedies remedies, const Directory* alike)
{
    Study s;
    s.build = std::move(build);
    s.system = system;
    s.remedies = remedies;
    s.directory = alike ? std::make_shared<Directory>(*s.build, *alike) : std::make_shared<Directory>(*s.build);
    if (s.build->setups.empty())
        return s;
    s.before = studySetup(*s.build, chosen(*s.build, pair.before, 0));
    const Setup& after = chosen(*s.build, pair.after, 1);
    s.after = &after == s.before.setup ? s.before : studySetup(*s.build, after, &s.before);
    parts::addCentring(s);
    parts::addVerdicts(s);
    s.ledger = parts::ledgerOf(s);
    s.questions = questionsOf(s);
    s.openFacts = openFactsOf(s);
    s.summary = parts::summaryOf(s);
    return s;
}

Study study(const Build& build, const SetupPair& pair, UnitSystem system)
{
    return study(std::make_shared<const Build>(build), pair, system);
}

} // namespace deepstop
