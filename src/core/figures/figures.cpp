#include "figures/figures.hpp"

#include "build/choices.hpp"
#include "geometry/lining.hpp"
#include "heat/heat.hpp"
#include "joints/thread.hpp"
#include "language/language.hpp"
#include "materials/materials.hpp"
#include "weights/weights.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::figures {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();
constexpr bool notLength = false;

weights::Vanes::Shape shapeOf(VaneShape shape)
{
    using enum weights::Vanes::Shape;
    return shape == VaneShape::Curved ? Curved : shape == VaneShape::Pillars ? Pillars : Straight;
}

/// As somebody has said it, else from the vanes counted and measured; asking for the share where neither is there.
double vaneShare(Evaluator& s, const Rotor& r)
{
    const bool curved = r.vaneShape == VaneShape::Curved;
    if (r.vaneShare.value || r.vanes <= 0 || !r.vaneThickness.value)
        return s(r.vaneShare, notLength);
    if (r.vaneShape == VaneShape::Unknown)
        s.assume(tr("straight vanes"));
    const weights::Vanes vanes { shapeOf(r.vaneShape), r.vanes, s(r.vaneThickness), curved ? s(r.vaneLean, notLength) : 0 };
    return weights::vaneShare(vanes, s(r.outerDiameter), s(r.ringInnerDiameter));
}

weights::Ring ringOf(Evaluator& s, const Rotor& r)
{
    const double gap = ventGap(s, r);
    // Vanes matter only where there is air between the plates.
    const double vanes = gap == 0 ? 0 : vaneShare(s, r);
    return { s(r.outerDiameter), s(r.ringInnerDiameter), s(r.thickness), gap, vanes };
}

} // namespace

double ventGap(Evaluator& s, const Rotor& r)
{
    if (r.ventGap.value == 0.0)
        return s.certain(r.ventGap);
    const double gap = s(r.ventGap);
    return gap < 0 ? 0 : gap;
}

double behindRotor(Evaluator& s, const Corner& c)
{
    const double ring = s.orElse(c.ring, 0);
    if (c.shield.state == ShieldState::Removed || !c.shield.plate.value)
        return ring;
    if (c.shield.lies == PlateLies::Unknown)
        s.assume(tr("a shield's plate that lies not between flange and rotor"));
    return c.shield.lies == PlateLies::FlangeAndRotor ? ring + s(c.shield.plate) : ring;
}

double spacerOf(Evaluator& s, const Corner& c) { return c.spacerPart.kind == SpacerKind::Unknown ? s.orElse(c.spacer, 0) : s(c.spacer); }

double hubMoved(Evaluator& s, const Corner& c)
{
    if (c.shield.readWith == YesNo::Yes)
        return 0;
    if (c.shield.lies == PlateLies::Unknown && c.shield.state == ShieldState::Removed)
        s.assume(tr("a shield whose plate was not clamped between knuckle and hub"));
    if (c.shield.lies != PlateLies::KnuckleAndHub)
        return 0;
    if (c.shield.state == ShieldState::Replaced || c.shield.state == ShieldState::Unknown)
        s.assume(tr("a shield's plate as thick as the one that was there when hub and slot were read"));
    if (c.shield.state != ShieldState::Removed)
        return 0;
    if (c.shield.readWith == YesNo::Unknown)
        s.assume(tr("readings of hub and slot taken before the shield's plate came out"));
    return -s(c.shield.plate);
}

double lugDepth(Evaluator& s, const Corner& c, const Hub& hub) { return s(hub.lugDepth) + hubMoved(s, c); }

ShieldReadings shieldOf(const Corner& c, const Hub& hub)
{
    if (c.shield.state == ShieldState::Trimmed || c.shield.state == ShieldState::Replaced)
        return { &c.shield.diameter, &c.shield.depth, &c.shield.rim };
    return { &hub.shieldDiameter, &hub.shieldDepth, &hub.shieldRim };
}

double wheelFace(Evaluator& s, const Corner& c)
{
    return behindRotor(s, c) + s(c.brakes == BrakeKind::Drums ? c.drum.faceThickness : c.rotor.hatThickness) + spacerOf(s, c);
}

double setting(const Reading& reading, Reading Wants::*which) { return reading.value.value_or(*(usualWants().*which).value); }

double inboardFace(Evaluator& s, const Corner& c) { return behindRotor(s, c) + s(c.rotor.hatThickness) - s(c.rotor.overallHeight); }

joints::StudStack studStack(Evaluator& s, const Corner& c, const Wheel& wheel, const Hub& hub)
{
    const bool bolted = c.spacerPart.kind == SpacerKind::Bolted;
    const auto thread = joints::parseThread(bolted ? *c.spacerPart.studThread : *hub.studThread);
    // On a bolted spacer the wheel hangs on the spacer's own studs.
    if (bolted)
        return { s(c.spacerPart.studLength), 0, 0, 0, s(wheel.padThickness), s(hub.nutThread), thread ? thread->diameter : unknown,
            thread ? thread->pitch : unknown };
    return { s(hub.studLength), s(c.brakes == BrakeKind::Drums ? c.drum.faceThickness : c.rotor.hatThickness), behindRotor(s, c),
        spacerOf(s, c), s(wheel.padThickness), s(hub.nutThread), thread ? thread->diameter : unknown, thread ? thread->pitch : unknown };
}

double axialOffset(Evaluator& s, const Corner& corner, Side side)
{
    fit::CornerShape shape {};
    shape.ring = behindRotor(s, corner);
    shape.rotor.hatThickness = s(corner.rotor.hatThickness);
    shape.rotor.overallHeight = s(corner.rotor.overallHeight);
    shape.rotor.thickness = s(corner.rotor.thickness);
    shape.slotCentre = s(corner.at(side).slotCentre) - hubMoved(s, corner);
    return fit::axialOffset(shape);
}

Sided lesserOf(Figure left, Figure right)
{
    const auto certain = [](const Figure& f) { return f.value && f.highest() < 0; };
    const bool rightSpeaks = certain(left) != certain(right) ? certain(right)
        : !left.value || !right.value                        ? left.value.has_value()
                                                             : right.lowest() < left.lowest();
    const bool differ = left.value != right.value || left.worstCase != right.worstCase;
    Figure& worse = rightSpeaks ? right : left;
    const Figure& other = rightSpeaks ? left : right;
    // Which side speaks hangs on both.
    mergeDependencies(worse, other);
    worse.effects.resize(worse.value ? worse.restsOn.size() : 0);
    return { std::move(worse), differ ? std::optional(rightSpeaks ? Side::Right : Side::Left) : std::nullopt };
}

Sided lesserSide(const std::function<double(Evaluator&, Side)>& sum)
{
    return lesserOf(
        evaluate([&](Evaluator& s) { return sum(s, Side::Left); }), evaluate([&](Evaluator& s) { return sum(s, Side::Right); }));
}

double ringMass(Evaluator& s, const Rotor& rotor)
{
    if (rotor.ringMaterial == RingMaterial::Unknown)
        s.assume(tr("a friction ring of iron"));
    return weights::ringMass(ringOf(s, rotor), ringSolid(rotor).density);
}

double heatStore(Evaluator& s, const Rotor& rotor) { return ringMass(s, rotor) * ringSolid(rotor).specificHeat; }

double ringExpansion(Evaluator& s, const Rotor& rotor, double rise)
{
    if (rotor.ringMaterial == RingMaterial::Unknown)
        s.assume(tr("a friction ring of iron"));
    return ringSolid(rotor).expansionOver(rise);
}

double drumMass(Evaluator& s, const Drum& drum)
{
    const double inside = s(drum.insideDiameter) / 2;
    const double outside = inside + s(drum.wall);
    const double face = s(drum.faceThickness);
    return materials::greyIron.density * std::numbers::pi
        * ((outside * outside - inside * inside) * s(drum.depth) + inside * inside * face);
}

double heatStore(Evaluator& s, const Corner& corner)
{
    if (corner.brakes == BrakeKind::Discs)
        return heatStore(s, corner.rotor);
    double weighed = 0;
    for (const Weighing& weighing : corner.weighings)
        if (weighing.contains == std::vector { Part::Drum })
            weighed = s(weighing.mass, notLength);
    return (weighed > 0 ? weighed : drumMass(s, corner.drum)) * materials::greyIron.specificHeat;
}

const materials::Solid& ringSolid(const Rotor& rotor)
{
    switch (rotor.ringMaterial) {
    case RingMaterial::Steel:
        return materials::steel;
    case RingMaterial::CarbonCeramic:
        return materials::carbonCeramic;
    case RingMaterial::Iron:
    case RingMaterial::Unknown: // who judges by it says that it is assumed
        break;
    }
    return materials::greyIron;
}

double hatMass(Evaluator& s, const Rotor& r)
{
    const double height = s(r.overallHeight);
    const double disc = s(r.hatThickness);
    const double ring = s(r.thickness);
    const double wall = s(r.hatWall);
    const double holes = r.boltHoles > 0 ? s.orElse(r.boltHoleDiameter, 0) : 0;
    const weights::Hat hat { s(r.hatOuterDiameter), s(r.bore), disc, wall, height - disc - ring, s(r.ringInnerDiameter),
        std::max(0, *r.boltHoles), holes };
    if (r.hatMaterial == HatMaterial::Unknown)
        s.assume(tr("a hat of iron"));
    const double density = r.hatMaterial == HatMaterial::Aluminium ? materials::aluminium6061.density : materials::greyIron.density;
    const auto thread = joints::parseThread(*r.hatBoltThread);
    const double bolts = r.construction == RotorBuild::TwoPiece && thread
        ? weights::hatBoltsMass(std::max(0, *r.hatBolts), thread->diameter, wall, density)
        : 0;
    return weights::hatVolume(hat) * density + bolts;
}

double rotorMass(Evaluator& s, const Rotor& rotor) { return ringMass(s, rotor) + hatMass(s, rotor); }

double rotatingInertia(Evaluator& s, const Corner& c)
{
    if (c.brakes == BrakeKind::Drums) {
        const double inside = s(c.drum.insideDiameter);
        return weights::inertia(drumMass(s, c.drum), inside + 2 * s(c.drum.wall), inside);
    }
    const Rotor& r = c.rotor;
    return weights::inertia(ringMass(s, r), s(r.outerDiameter), s(r.ringInnerDiameter))
        + weights::inertia(hatMass(s, r), s(r.hatOuterDiameter), s(r.bore));
}

int timesWeighed(const Corner& corner, Part part)
{
    return static_cast<int>(std::ranges::count_if(
        corner.weighings, [part](const Weighing& w) { return std::ranges::find(w.contains, part) != w.contains.end(); }));
}

double rotorMassWeighed(Evaluator& s, const Corner& corner)
{
    if (corner.brakes == BrakeKind::Drums) {
        for (const Weighing& weighing : corner.weighings)
            if (weighing.contains == std::vector { Part::Drum })
                return s(weighing.mass, notLength);
        return drumMass(s, corner.drum);
    }
    double mass = 0;
    // In whatever order somebody named what lay on the scale.
    for (const Weighing& weighing : corner.weighings)
        if (const auto& on = weighing.contains;
            !on.empty() && std::ranges::all_of(on, [](Part p) { return p == Part::Rotor || p == Part::Ring || p == Part::Hat; }))
            mass += s(weighing.mass, notLength);
    const bool ring = timesWeighed(corner, Part::Ring) > 0;
    const bool hat = timesWeighed(corner, Part::Hat) > 0;
    if (mass == 0)
        return rotorMass(s, corner.rotor);
    return mass + (ring && !hat ? hatMass(s, corner.rotor) : 0) + (hat && !ring ? ringMass(s, corner.rotor) : 0);
}

bool belongsTo(const Corner& corner, Part part)
{
    if (part == Part::Unknown)
        return false;
    const bool ofDrums = part == Part::Drum || part == Part::Shoes || part == Part::WheelCylinder;
    const bool either = part == Part::Hose || part == Part::Hardware;
    return either || ofDrums == (corner.brakes == BrakeKind::Drums);
}

double cornerMass(Evaluator& s, const Corner& corner, std::vector<std::string>& lacks)
{
    double mass = 0;
    for (const Weighing& weighing : corner.weighings)
        if (!weighing.contains.empty())
            mass += s(weighing.mass, notLength);
    const bool rotor = timesWeighed(corner, Part::Rotor) > 0;
    for (const auto& [token, word, part] : choices::part) {
        const int times = timesWeighed(corner, part);
        if (part == Part::Unknown) {
            if (times > 0)
                lacks.push_back(tr("a weighing of known parts: one contains {}", std::string(word)));
            continue;
        }
        if (!belongsTo(corner, part))
            continue;
        const bool ofRotor = part == Part::Ring || part == Part::Hat;
        if (times > 1 || (ofRotor && rotor && times > 0))
            lacks.push_back(tr("one weighing of the {}, not two", std::string(word)));
        if (times > 0 || (ofRotor && rotor))
            continue;
        if (part == Part::Drum) {
            mass += drumMass(s, corner.drum);
            continue;
        }
        // What nobody has weighed of a rotor is worked out from its dimensions; nothing else can be.
        if (part == Part::Ring)
            mass += ringMass(s, corner.rotor);
        else if (part == Part::Hat)
            mass += hatMass(s, corner.rotor);
        else if (part != Part::Rotor)
            lacks.push_back(tr("weight of the {}", std::string(word)));
    }
    return lacks.empty() ? mass : unknown;
}

double padLining(Evaluator& s, const Pad& pad)
{
    if (pad.thickness.value || !pad.overall.value)
        return s(pad.thickness);
    if (!pad.backing.value)
        s.assume(tr("pad backings of 5 mm"));
    return s(pad.overall) - s.orElse(pad.backing, usualBacking);
}

double padArea(Evaluator& s, const Corner& c)
{
    const Pad& pad = c.pad;
    if (pad.area.value)
        return s(pad.area, notLength);
    const double outer = s(c.rotor.outerDiameter) / 2 - s.orElse(c.left.padInset, 0);
    const double height = s(pad.height);
    const double length = s(pad.length);
    if (pad.ends == PadEnds::Straight)
        return geometry::liningBetweenParallels(outer, height, length);
    if (pad.ends == PadEnds::Unknown)
        s.assume(tr("a lining with ends along radii, the smaller of both shapes"));
    return geometry::liningBetweenRadii(outer, height, length);
}

std::vector<const Reading*> liningsRead(const Fitted& f)
{
    std::vector<const Reading*> read;
    for (const Reading* each : { &f.liningThickness, &f.innerLining, &f.outerLining, &f.entryLining, &f.exitLining })
        if (each->value)
            read.push_back(each);
    return read;
}

} // namespace deepstop::figures
