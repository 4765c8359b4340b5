#include "design/kit.hpp"

#include "figures/figures.hpp"
#include "joints/thread.hpp"
#include "language/language.hpp"
#include "materials/materials.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::design {
namespace {

constexpr double notGiven = std::numeric_limits<double>::quiet_NaN();
double valueOf(const Reading& reading) { return reading.value.value_or(notGiven); }

void put(Reading& reading, double value, double width, Known known)
{
    if (std::isfinite(value))
        reading = { value, width, known, {}, {} };
    else
        reading = {};
}

/// The reading as it is, wider by what the bracket's holes may be off; designed, for it has not been read on these parts.
void widen(Reading& reading, double by, Known known)
{
    if (reading.value)
        reading = { *reading.value, uncertainty(reading, true) + by, known, {}, {} };
}

/// A hole a bolt goes through: its diameter and half a millimetre or a millimetre (ISO 273, fine to medium, from memory). Where no
/// thread is given, the hole that was read on the bracket there is.
double holeFor(const Fact<std::string>& thread, const Reading& given)
{
    const auto parsed = joints::parseThread(*thread);
    return parsed ? parsed->diameter + (parsed->diameter > 10.5e-3 ? 1e-3 : 0.5e-3) : valueOf(given);
}

/// A plate and the shims beside it.
struct Pack {
    double plate;
    double shims;
};

/// From the lugs' face to the caliper's: a plate that is sold where few shims make up the rest, else one machined to measure. On a radial
/// mount the studs stand in the middle of the plate, and the shims lie under them.
Pack packOf(double reach, bool radial)
{
    Pack pack { radial ? 2 * reach : reach - rules::shimsEachWay, rules::shimsEachWay };
    if (!radial)
        for (const double sold : soldPlates())
            if (sold <= reach - rules::shimsEachWay + 1e-9 && reach - sold <= rules::most)
                pack = { sold, reach - sold };
    return pack;
}

} // namespace

RingBolts ringBoltsFor(double d)
{
    const int count = d <= 280e-3 ? 8 : d <= 340e-3 ? 10 : 12;
    // Socket head screws by ISO 4762: heads 10 and 13 mm wide, 6 and 8 mm high; low nuts by ISO 4035: 3.2 and 4 mm.
    return d <= 300e-3 ? RingBolts { count, 6e-3, "M6", 10e-3, 6e-3, 3.2e-3 } : RingBolts { count, 8e-3, "M8", 13e-3, 8e-3, 4e-3 };
}

std::span<const double> soldPlates()
{
    static constexpr std::array plates { 8e-3, 10e-3, 12e-3, 15e-3, 20e-3, 25e-3, 30e-3, 35e-3, 40e-3 };
    return plates;
}

Study trialOf(const Basis& basis, Corner corner)
{
    const Study& of = *basis.study;
    auto build = std::make_shared<Build>(basis.build());
    ownCorner(*build, of.after.setup->id, basis.axle) = std::move(corner);
    Study trial;
    trial.build = std::move(build);
    trial.system = of.system;
    trial.before = partsOf(*trial.build, *findSetup(*trial.build, of.before.setup->id));
    trial.after = partsOf(*trial.build, *findSetup(*trial.build, of.after.setup->id));
    return trial;
}

std::string plateMaterial() { return tr("aluminium 7075-T6"); }

Maker::Maker(const Basis& basis)
    : basis_(basis), behind_(nominal([&](Evaluator& s) { return figures::behindRotor(s, basis.corner); })),
      lugDepth_(nominal([&](Evaluator& s) { return figures::lugDepth(s, basis.corner, basis.hub()); }))
{
}

Proposal Maker::start() const
{
    const Corner& c = basis_.corner;
    Proposal proposal;
    proposal.rotor = valueOf(c.rotor.outerDiameter);
    proposal.spacer = c.spacer.value.value_or(0);
    proposal.hatThickness = valueOf(c.rotor.hatThickness);
    const Corner* found = basis_.study->before.at(basis_.axle).corner;
    if (!std::isfinite(proposal.hatThickness) && found)
        proposal.hatThickness = valueOf(found->rotor.hatThickness);
    proposal.thickness = valueOf(c.rotor.thickness);
    if (!std::isfinite(proposal.thickness)) {
        // As thick as pistons and slot leave room for, whole millimetres as rotors are made.
        const double lining = nominal([&](Evaluator& s) { return figures::padLining(s, c.pad); });
        const double between = valueOf(c.caliper.padRoom) - 2 * (lining + c.pad.backing.value.value_or(figures::usualBacking)) - 0.6e-3;
        const double slot = valueOf(c.caliper.slotWidth) - 2 * figures::setting(basis_.build().wants.faceGap, &Wants::faceGap) - 2e-3;
        proposal.thickness = std::floor(std::min(between, slot) * 1e3 + 1e-9) / 1e3 + 0 * (between + slot);
    }
    proposal.slot = valueOf(c.left.slotCentre);
    const double own = behind_ + valueOf(c.rotor.hatThickness) - valueOf(c.rotor.overallHeight) + valueOf(c.rotor.thickness) / 2;
    if (std::isfinite(own))
        proposal.slot = own;
    return proposal;
}

namespace {

/// The hat as its section: disc, cylinder, and a neck that lies on the ring's rim.
Turned hatOf(const Kit& k, double behind)
{
    const bool iron = k.drum > 0;
    const double neckInboard = k.rimOutboard;
    Turned hat;
    hat.title = tr("Hat");
    hat.material = iron ? tr("grey iron EN-GJL-250 or steel S355, as the parking brake's drum asks") : tr("aluminium 6061-T6");
    hat.density = iron ? materials::greyIron.density : materials::aluminium6061.density;
    const double face = behind + k.proposal.hatThickness;
    const double outer = k.hatOuter / 2;
    const double inner = outer - k.hatWall;
    const double neck = k.ringInner / 2 - 0.5e-3;
    const double neckOut = neckInboard + k.hatWall;
    // Counter-clockwise from the bore on the hub's face. A hat whose neck reaches past its disc's inner face has no cylinder of its own.
    if (neckInboard < behind)
        hat.sections.push_back({ { behind, k.bore / 2 }, { behind, inner }, { neckInboard, inner }, { neckInboard, neck },
            { neckOut, neck }, { neckOut, outer }, { face, outer }, { face, k.bore / 2 } });
    else
        hat.sections.push_back({ { behind, k.bore / 2 }, { behind, outer }, { neckInboard, outer }, { neckInboard, neck },
            { neckOut, neck }, { neckOut, outer }, { face, outer }, { face, k.bore / 2 } });
    hat.holes = { { k.holes, k.hole, k.boltCircle, behind, face, tr("for the wheel studs") },
        { k.bolts.count, k.bolts.diameter + 0.2e-3, k.ringCircle, neckInboard, neckOut, tr("for the ring's bolts {}", k.bolts.thread) } };
    hat.asked = { tr("Bore Ø {} +0.05/0 mm; its axis is the datum.", print(k.bore, style::fine, UnitSystem::Metric)),
        tr("Wheel face and hub face flat and parallel within 0.02 mm; neck square to the axis within 0.03 mm over its diameter."),
        tr("Diameters ±0.1 mm, lengths ±0.05 mm, holes within Ø 0.1 mm of their places; edges broken 0.5 mm, inside corners R 2 mm.") };
    if (k.drum > 0)
        hat.asked.push_back(tr("Inside Ø {} +0.1/0 mm is the parking brake's drum: iron or steel, Ra 3.2 µm, runout 0.05 mm.",
            print(k.drum, style::size, UnitSystem::Metric)));
    return hat;
}

/// The friction ring with the rim that the hat is bolted to.
Turned ringOf(const Kit& k, const Rotor& rotor)
{
    Turned ring;
    ring.title = tr("Friction ring");
    ring.material = tr("grey iron EN-GJL-250");
    ring.density = materials::greyIron.density;
    const double outer = k.proposal.rotor / 2;
    const double inner = k.ringInner / 2;
    const double rim = k.ringBore / 2;
    const double z0 = k.proposal.slot - k.proposal.thickness / 2;
    const double z1 = k.proposal.slot + k.proposal.thickness / 2;
    const double plate = (k.proposal.thickness - k.ventGap) / 2;
    if (k.ventGap > 0) {
        ring.sections.push_back({ { z0, inner }, { z0, outer }, { z0 + plate, outer }, { z0 + plate, inner } });
        ring.sections.push_back({ { z1 - plate, inner }, { z1 - plate, outer }, { z1, outer }, { z1, inner } });
    } else {
        ring.sections.push_back({ { z0, inner }, { z0, outer }, { z1, outer }, { z1, inner } });
    }
    ring.sections.push_back({ { k.rimInboard, rim }, { k.rimInboard, inner }, { k.rimOutboard, inner }, { k.rimOutboard, rim } });
    ring.holes = { { k.bolts.count, k.bolts.diameter + 0.2e-3, k.ringCircle, k.rimInboard, k.rimOutboard, tr("for the hat's bolts") } };
    if (k.ventGap > 0) {
        const double lean = rotor.vaneLean.value.value_or(35 * std::numbers::pi / 180);
        const double length = (outer - inner) / std::cos(lean);
        const int count = rotor.vanes > 0 ? *rotor.vanes : 48;
        const double share = rotor.vaneShare.value.value_or(rules::airShare);
        const double thickness = share * std::numbers::pi * (outer * outer - inner * inner) / (count * length);
        ring.vanes = VaneSet { count, thickness, lean, inner, outer, z0 + plate, z1 - plate };
    }
    ring.asked = { tr("Friction faces flat within 0.02 mm and parallel within 0.01 mm (thickness variation), Ra 1.6 µm."),
        tr("Runout of the friction faces 0.03 mm to the rim's face and bolt circle; balance G 16 at 20 revolutions a second."),
        tr("Diameters ±0.1 mm, thickness ±0.05 mm, holes within Ø 0.1 mm of their places.") };
    if (ring.vanes)
        ring.asked.push_back(tr("Vanes lean back from the way it turns: order one left and one right ring."));
    return ring;
}

} // namespace

double Maker::ringInner(const Proposal& proposal) const
{
    const double inset = figures::setting(basis_.build().wants.padEdge, &Wants::padEdge);
    return proposal.rotor - 2 * (inset + valueOf(basis_.corner.pad.height) + rules::insideTheRing);
}

double Maker::overallHeight(const Proposal& proposal) const
{
    return behind_ + proposal.hatThickness + proposal.thickness / 2 - proposal.slot;
}

double Maker::reach(const Proposal& proposal) const { return proposal.slot - valueOf(basis_.corner.caliper.mountDepth) + lugDepth_; }

Kit Maker::sizes(const Proposal& proposal) const
{
    const Corner& c = basis_.corner;
    const Hub& hub = basis_.hub();
    const Wants& wants = basis_.build().wants;
    Kit k;
    k.proposal = proposal;
    k.ringInner = ringInner(proposal);
    k.ventGap = proposal.thickness < rules::solidTo ? 0 : std::max(rules::vent, proposal.thickness - 2 * rules::plate);
    k.bolts = ringBoltsFor(proposal.rotor);
    k.overallHeight = overallHeight(proposal);
    const bool drum = hub.parkingBrake == ParkingBrake::DrumInHat;
    k.hatWall = rules::hatWall;
    k.drum = drum ? valueOf(hub.shoeDiameter) + 0.5e-3 : 0;
    k.pocket =
        std::max(valueOf(hub.flangeDiameter) + 2 * rules::roundTheFlange, drum ? k.drum : 0) + 0 * (valueOf(hub.flangeDiameter) + k.drum);
    k.hatOuter = k.pocket + 2 * k.hatWall;
    k.bore = valueOf(hub.pilotDiameter) + rules::overThePilot;
    k.boltCircle = valueOf(hub.boltCircle);
    k.holes = std::max(0, *hub.studCount);
    k.hole = valueOf(hub.studDiameter) + rules::roundTheStuds;
    // The circle as far out as a neck with 1.2 diameters round its bolts goes inside the friction ring.
    const double circle = k.ringInner / 2 - 0.5e-3 - 1.2 * k.bolts.diameter;
    k.ringCircle = 2 * circle;
    k.ringBore = 2 * (circle - 1.2 * k.bolts.diameter);
    k.neckRoom = circle - k.bolts.headDiameter / 2 - rules::besideHeads - k.hatOuter / 2;
    // The rim lies as far inboard as its nuts stay out of the caliper's inboard half, and no farther than the inboard friction face.
    const double z0 = proposal.slot - proposal.thickness / 2;
    const double plate = k.ventGap > 0 ? (proposal.thickness - k.ventGap) / 2 : std::min(rules::plate, proposal.thickness / 2);
    const double halfSlot = valueOf(c.caliper.slotWidth) / 2 - figures::setting(wants.faceGap, &Wants::faceGap);
    k.rimInboard = std::max(z0, proposal.slot - halfSlot + k.bolts.nutHeight) + 0 * halfSlot;
    k.rimOutboard = k.rimInboard + plate;
    k.neckDepth = behind_ + proposal.hatThickness - (k.rimOutboard + k.hatWall);
    k.adapter = plateFor(proposal, k, bracket::holesOf);
    return k;
}

bracket::Adapter Maker::plate(const Proposal& proposal) const
{
    Kit k;
    return plateFor(proposal, k, bracket::adapter);
}

Kit Maker::kit(const Proposal& proposal) const
{
    Kit k = sizes(proposal);
    k.adapter = plateFor(proposal, k, bracket::adapter);
    k.hat = hatOf(k, behind_);
    k.ring = ringOf(k, basis_.corner.rotor);
    return k;
}

/// Shims lie beside its plate so that the caliper can be moved either way.
bracket::Adapter Maker::plateFor(const Proposal& proposal, Kit& k, const AdapterOf& adapterOf) const
{
    const Corner& c = basis_.corner;
    const Hub& hub = basis_.hub();
    k.radial = c.mount.kind == MountKind::Radial;
    const bracket::Knuckle knuckle { valueOf(hub.lugSpacing), valueOf(hub.lugRadius), lugDepth_, hub.lugEdge.value.value_or(0) };
    const bracket::CaliperMount mount { valueOf(c.caliper.mountSpacing), valueOf(c.caliper.mountDrop), valueOf(c.caliper.mountDepth),
        k.radial };
    const double knuckleHole = holeFor(hub.lugThread, c.bracket.knuckleHole);
    const double caliperHole = holeFor(c.bracket.boltThread->empty() ? hub.lugThread : c.bracket.boltThread, c.bracket.caliperHole);
    k.needed = k.radial ? 2 * reach(proposal) : reach(proposal);
    const Pack pack = packOf(reach(proposal), k.radial);
    k.shims = pack.shims;
    const auto made = adapterOf(knuckle, mount,
        { proposal.rotor / 2, k.radial ? k.shims : 0, proposal.slot, knuckleHole, caliperHole,
            bracket::wallWanted(std::max(knuckleHole, caliperHole)), pack.plate });
    if (made)
        return *made;
    bracket::Adapter none {};
    none.thickness = none.wall = none.edge = none.caliperHeight = none.area = none.volume = notGiven;
    return none;
}

void Maker::move(Corner& c, const Proposal& proposal, Known known) const
{
    put(c.rotor.outerDiameter, proposal.rotor, tolerance::diameter, known);
    if (proposal.heads)
        put(c.bracket.proudKnuckle, *proposal.heads, 0.2e-3, known);
    if (proposal.clock)
        put(c.mount.clock, *proposal.clock, 2 * std::numbers::pi / 180, known);
    put(c.rotor.thickness, proposal.thickness, tolerance::height, known);
    put(c.rotor.ringInnerDiameter, ringInner(proposal), tolerance::diameter, known);
    put(c.rotor.overallHeight, overallHeight(proposal), tolerance::height, known);
    put(c.rotor.hatThickness, proposal.hatThickness, tolerance::height, known);
    if (proposal.spacer > 0 || c.spacer.value)
        put(c.spacer, proposal.spacer, tolerance::height, known);
    place(c, proposal, known);
}

void Maker::place(Corner& c, const Proposal& proposal, Known known) const
{
    // Where shims leave the caliper, centred as well as is wanted.
    for (Fitted* in : { &c.left, &c.right })
        put(in->slotCentre, proposal.slot, figures::setting(basis_.build().wants.centred, &Wants::centred), known);
    const bool radial = basis_.corner.mount.kind == MountKind::Radial;
    const Pack pack = packOf(reach(proposal), radial);
    put(c.bracket.thickness, pack.plate, tolerance::height, known);
    // Under a radial mount's studs the heights over the rotor's edge are those with the stack it is made for.
    if (radial)
        put(c.mount.radialRead, pack.shims, 0.02e-3, known);
    for (Fitted* in : { &c.left, &c.right })
        for (Reading* stack : { radial ? &in->radialTop : &in->shimTop, radial ? &in->radialBottom : &in->shimBottom })
            put(*stack, pack.shims + (radial ? proposal.lift : 0), 0.02e-3, known);
}

void Maker::renew(Corner& c, Known known) const
{
    const Corner& base = basis_.corner;
    const Hub& hub = basis_.hub();
    // The bracket's holes set how the caliper stands over the rotor.
    for (Reading* height : { &c.caliper.backOverEdge, &c.caliper.bridgeGap, &c.caliper.reach })
        widen(*height, 2 * tolerance::holes, known);
    Bracket& b = c.bracket;
    const Bracket was = b;
    b = {};
    b.name = tr("Designed bracket");
    b.material = was.material->empty() ? plateMaterial() : *was.material;
    b.boltThread = was.boltThread->empty() ? *hub.lugThread : *was.boltThread;
    put(b.knuckleSpacing, valueOf(hub.lugSpacing), tolerance::holes, known);
    put(b.caliperSpacing, valueOf(base.caliper.mountSpacing), tolerance::holes, known);
    put(b.knuckleHole, holeFor(hub.lugThread, was.knuckleHole), tolerance::holes, known);
    put(b.caliperHole, holeFor(b.boltThread, was.caliperHole), tolerance::holes, known);
    b.proudKnuckle = was.proudKnuckle;
    b.proudCaliper = was.proudCaliper;
    if (c.mount.kind != MountKind::Radial)
        c.mount.shimMoves = Direction::Outboard;
    for (Fitted* in : { &c.left, &c.right }) {
        *in = {};
        put(in->padInset, figures::setting(basis_.build().wants.padEdge, &Wants::padEdge), 0.25e-3, known);
    }
    c.washers = {};
    c.cooling = {};
    c.cuts.clear();
    // What was weighed together with the parts that are new has to be weighed again.
    std::erase_if(c.weighings, [](const Weighing& w) {
        return std::ranges::any_of(
            w.contains, [](Part p) { return p == Part::Rotor || p == Part::Ring || p == Part::Hat || p == Part::Bracket; });
    });
}

Corner Maker::corner(const Proposal& proposal, Known known) const
{
    const Corner& base = basis_.corner;
    const Kit k = kit(proposal);
    Corner c = base;
    Rotor& r = c.rotor;
    r = {};
    r.name = tr("Designed Ø {}", print(proposal.rotor, style::size, UnitSystem::Metric));
    r.construction = RotorBuild::TwoPiece;
    r.face = base.rotor.face;
    r.ringMaterial = RingMaterial::Iron;
    r.hatMaterial = k.drum > 0 ? HatMaterial::Iron : HatMaterial::Aluminium;
    r.handed = k.ventGap > 0 ? Handed::Sided : Handed::Either;
    put(r.ventGap, k.ventGap, tolerance::height, known);
    if (k.ring.vanes) {
        r.vaneShape = VaneShape::Curved;
        r.vanes = k.ring.vanes->count;
        put(r.vaneThickness, k.ring.vanes->thickness, 0.2e-3, known);
        put(r.vaneLean, k.ring.vanes->lean, 0.02, known);
    }
    put(r.hatOuterDiameter, k.hatOuter, tolerance::diameter, known);
    put(r.hatWall, k.hatWall, tolerance::diameter, known);
    put(r.pocketDiameter, k.pocket, tolerance::diameter, known);
    if (k.drum > 0)
        put(r.drumDiameter, k.drum, tolerance::diameter, known);
    put(r.bore, k.bore, tolerance::bore, known);
    r.capped = YesNo::No;
    put(r.boltCircle, k.boltCircle, tolerance::holes, known);
    r.boltHoles = k.holes > 0 ? k.holes : notCounted;
    put(r.boltHoleDiameter, k.hole, tolerance::holes, known);
    r.hatBolts = k.bolts.count;
    r.hatBoltThread = std::string(k.bolts.thread);
    put(r.ringPlay, 0.1e-3, 0.1e-3, known);
    // How far its faces may be worn is for the ring's maker to say: it stays without a minimum thickness.
    renew(c, known);
    move(c, proposal, known);
    return c;
}

Proposal Maker::proposalFor(const Rotor& rotor) const
{
    Proposal proposal;
    proposal.rotor = valueOf(rotor.outerDiameter);
    proposal.thickness = valueOf(rotor.thickness);
    proposal.hatThickness = valueOf(rotor.hatThickness);
    proposal.slot = behind_ + proposal.hatThickness - valueOf(rotor.overallHeight) + proposal.thickness / 2;
    proposal.spacer = basis_.corner.spacer.value.value_or(0);
    return proposal;
}

Corner Maker::with(const Rotor& rotor, Known known) const
{
    Corner c = basis_.corner;
    c.rotor = rotor;
    renew(c, known);
    place(c, proposalFor(rotor), known);
    return c;
}

} // namespace deepstop::design
