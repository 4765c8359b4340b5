#include "design/order.hpp"

#include "build/fields.hpp"
#include "build/words.hpp"
#include "figures/figures.hpp"
#include "fit/fit.hpp"
#include "joints/bolts.hpp"
#include "joints/split_caliper.hpp"
#include "joints/studs.hpp"
#include "language/language.hpp"
#include "library/kit.hpp"
#include "library/library.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace deepstop::design {
namespace {

std::string metric(double length) { return print(length, style::fine, UnitSystem::Metric); }
std::string us(double length) { return print(length, style::fine, UnitSystem::Us); }
auto writer(UnitSystem system) { return system == UnitSystem::Us ? us : metric; }
/// As on a drawing: its note says which unit.
std::string metricFigure(double length) { return figure(length, style::fine, UnitSystem::Metric); }
std::string usFigure(double length) { return figure(length, style::fine, UnitSystem::Us); }

void put(Reading& reading, double value, double width)
{
    reading = std::isfinite(value) ? Reading { value, width, Known::Design, {}, {} } : Reading {};
}

/// Long enough with a millimetre more of shims, short enough with one less; the shortest that is sold. As it was where nothing does.
void lengthen(Joint& joint, double shims)
{
    const auto thread = joints::parseThread(*joint.thread);
    if (!thread || !joint.grip.value || !joint.threadDepth.value)
        return;
    const joints::Metal metal = joint.threadIn == ThreadIn::Aluminium ? joints::Metal::Aluminium
        : joint.threadIn == ThreadIn::Iron                            ? joints::Metal::Iron
                                                                      : joints::Metal::Steel;
    const double wanted = joints::engagementWanted(metal) * thread->diameter;
    const double depth = *joint.threadDepth.value;
    const double behind = joint.roomBehind.value.value_or(0);
    const auto lengths = [&](double more) {
        return joints::lengthsThatDo({ 0, *joint.grip.value, shims + more, depth, behind, thread->pitch }, std::min(wanted, depth));
    };
    const auto thick = lengths(rules::shimsEachWay);
    const auto thin = lengths(-rules::shimsEachWay);
    if (!thick || !thin)
        return;
    if (const double sold = joints::soldBoltLength(thick->least); sold <= thin->most + 1e-9)
        put(joint.length, sold, 0.5e-3);
}

/// Bolts through the plate have another grip; those of ring and hat are new.
void fitJoints(Corner& c, const Corner& was, const Kit& kit)
{
    for (Joint& joint : c.joints)
        if (joint.joins == Joins::BracketToKnuckle) {
            const auto before = was.bracket.thickness.value;
            if (joint.grip.value && before)
                put(joint.grip, *joint.grip.value - *before + kit.adapter.thickness, tolerance::height);
            else
                joint.grip = {};
            lengthen(joint, joint.shims == ShimsIn::Axial ? kit.shims : 0);
            joint.timesUsed = notCounted;
        }
    std::erase_if(c.joints, [](const Joint& joint) { return joint.joins == Joins::RingToHat; });
    Joint ring;
    ring.name = tr("ring to hat");
    ring.joins = Joins::RingToHat;
    ring.thread = std::string(kit.bolts.thread);
    ring.bolts = kit.bolts.count;
    ring.boltClass = BoltClass::C10_9;
    ring.condition = Condition::Oiled;
    ring.threadIn = ThreadIn::Steel;
    ring.shims = ShimsIn::None;
    ring.fastener = Fastener::Bolts;
    ring.underHead = ThreadIn::Aluminium;
    ring.hardWashers = YesNo::Yes;
    ring.washers = WashersUnder::Both;
    ring.nut = NutKind::AllMetal;
    ring.nutClass = NutClass::C10;
    ring.underNut = ThreadIn::Iron;
    put(ring.shank, 0, 0);
    put(ring.headDiameter, kit.bolts.headDiameter, 0.2e-3);
    put(ring.nutHeight, kit.bolts.nutHeight, 0.1e-3);
    put(ring.grip, kit.hatWall + kit.rimOutboard - kit.rimInboard, 2 * tolerance::height);
    put(ring.threadDepth, kit.bolts.nutHeight, 0.1e-3);
    put(ring.mountRadius, kit.ringCircle / 2, tolerance::holes);
    if (ring.grip.value)
        put(ring.length, joints::soldBoltLength(*ring.grip.value + kit.bolts.nutHeight), 0.5e-3);
    c.joints.push_back(std::move(ring));
}

/// What is drawn as a drawing says it: lengths to a micrometre, other things to four figures behind their unit's point.
class AsDrawn final : public Visitor {
public:
    void reading(const ReadingField& field, Reading& r) override
    {
        if (!r.value || r.known != Known::Design)
            return;
        const double factor = field.style.unit(UnitSystem::Metric).factor;
        const double parts = field.style.dimension == Dimension::Length ? 1e6 * factor : 1e4; // of the unit
        const auto rounded = [&](double value) { return std::round(value / factor * parts) / parts * factor; };
        r.value = rounded(*r.value);
        if (r.plusMinus)
            r.plusMinus = rounded(*r.plusMinus);
    }
    void list(const ListField&, List& list) override
    {
        for (std::size_t i = 0; i < list.size(); ++i)
            list.describe(*this, i);
    }
};

/// What a bracket's material weighs by its name, in English or the reader's language; NaN where it names neither metal, or both.
double densityOf(const std::string& material)
{
    const std::string plain = library::idFrom(material);
    const auto names = [&](std::string_view word) { return plain.find(word) != std::string::npos; };
    const bool aluminium = names("alumin");
    if (aluminium == (names("steel") || names("stahl")))
        return NAN;
    return (aluminium ? materials::aluminium6061 : materials::steel).density;
}

Corner proposed(const Maker& maker, const Proposal& proposal)
{
    const Kit kit = maker.kit(proposal);
    Corner c = maker.corner(proposal, Known::Design);
    if (!maker.basis().wheels.empty())
        c.wheel = maker.basis().wheels.front()->id;
    fitJoints(c, maker.basis().corner, kit);
    const auto weigh = [&](double mass, Part part) {
        if (!std::isfinite(mass))
            return;
        Weighing w;
        put(w.mass, mass, 0.03 * mass);
        w.contains = { part };
        c.weighings.push_back(std::move(w));
    };
    weigh(massOf(kit.ring), Part::Ring);
    weigh(massOf(kit.hat), Part::Hat);
    weigh(bracketMass(maker, proposal), Part::Bracket);
    AsDrawn drawn;
    describe(drawn, c);
    return c;
}

} // namespace

double bracketMass(const Maker& maker, const Proposal& proposal)
{
    const std::string& material = *maker.basis().corner.bracket.material;
    return maker.plate(proposal).volume * densityOf(material.empty() ? plateMaterial() : material);
}

Edit putIn(const Maker& maker, const Proposal& proposal, const std::string& name)
{
    return [corner = proposed(maker, proposal), axle = maker.basis().axle, from = maker.basis().study->after.setup->id, name](
               const Build& now) -> std::optional<Build> {
        const Setup* base = findSetup(now, from);
        if (!base || (!corner.wheel.empty() && !findWheel(now, corner.wheel)))
            return {};
        Build build = now;
        Setup setup = library::besides(now, *base, name, "design");
        setup.note = tr("Designed here; nothing of it is made or read yet.");
        (axle == Axle::Front ? setup.front : setup.rear) = corner;
        build.setups.push_back(std::move(setup));
        giveIds(build);
        return build;
    };
}

std::optional<double> studLength(const Maker& maker, const Proposal& proposal)
{
    const Basis& basis = maker.basis();
    const Corner c = maker.corner(proposal, Known::Vendor);
    std::optional<double> longest;
    for (const Wheel* wheel : basis.wheels) {
        const Figure out = evaluate([&](Evaluator& s) {
            const auto thread = joints::parseThread(*basis.hub().studThread);
            if (!thread)
                return std::nan("");
            const double factor = figures::setting(basis.build().wants.studEngagement, &Wants::studEngagement);
            return joints::studToOrder(figures::studStack(s, c, *wheel, basis.hub()), factor * thread->diameter, 0);
        });
        if (!out.value)
            return {};
        longest = std::max(longest.value_or(0), *out.value);
    }
    return longest;
}

std::vector<ShopPart> partsToMake(const Maker& maker, const Proposal& proposal, const std::string& date)
{
    const Basis& basis = maker.basis();
    const Kit kit = maker.kit(proposal);
    const bool inches = basis.study->system == UnitSystem::Us;
    const auto say = inches ? usFigure : metricFigure;
    const std::string car = basis.build().car.name.empty() ? tr("New build") : basis.build().car.name;
    const std::vector<std::string> block { fmt::format("{} · {}{} · {}", car, tr(wordOf(basis.axle)), date.empty() ? "" : " · " + date,
        inches ? tr("dimensions in inches") : tr("dimensions in mm")) };
    std::vector<ShopPart> parts;
    parts.push_back({ "hat", tr("hat"), kit.hat, {}, drawingOf(kit.hat, block, say) });
    parts.push_back({ "ring", tr("friction ring"), kit.ring, {}, drawingOf(kit.ring, block, say) });
    if (std::isfinite(kit.adapter.thickness) && kit.adapter.thickness > 0) {
        const Corner c = maker.corner(proposal, Known::Design);
        auto plate = bracket::plateOf(kit.adapter, *c.bracket.material);
        auto notes = block;
        notes.push_back(
            tr("Holes within Ø 0.2 mm of their places, faces flat and parallel within 0.05 mm, thickness ±0.05 mm, edges broken."));
        notes.push_back(tr("Shims of {} lie beside it, so that the caliper can be moved either way by {}.", say(kit.shims),
            say(std::min(kit.shims, rules::shimsEachWay))));
        auto drawing = bracket::drawingOf(plate, notes, say);
        parts.push_back({ "bracket", tr("bracket"), {}, std::move(plate), std::move(drawing) });
    }
    if (proposal.spacer > 0) {
        const Hub& hub = basis.hub();
        const auto given = [](const Reading& r) { return r.value.value_or(NAN); };
        auto plate = bracket::ringPlate(proposal.spacer, given(hub.flangeDiameter), given(hub.pilotDiameter) + 0.1e-3,
            given(hub.boltCircle), std::max(0, *hub.studCount), given(hub.studDiameter) + 1e-3, tr("aluminium 6061-T6"));
        plate.title = tr("Wheel spacer");
        auto drawing = bracket::drawingOf(plate, block, say);
        parts.push_back({ "spacer", tr("wheel spacer"), {}, std::move(plate), std::move(drawing) });
    }
    return parts;
}

std::vector<std::string> stillEstimated(const Maker& maker, const Map& map, const Proposal& proposal)
{
    const Corner made = maker.corner(proposal, Known::Vendor);
    std::vector<std::string> names;
    const auto& directory = *maker.basis().study->directory;
    for (const Limit& limit : map.limits) {
        const Figure gap = limit.gap(proposal, made);
        for (const std::string& assumed : gap.assumed)
            if (std::ranges::find(names, assumed) == names.end())
                names.push_back(assumed);
        for (const auto* readings : { &gap.lacks, &gap.estimated })
            for (const ReadingId reading : *readings)
                if (const Address* address = directory.of(reading))
                    if (auto name = address->full(); std::ranges::find(names, name) == names.end())
                        names.push_back(std::move(name));
    }
    return names;
}

report::Leaf orderSheet(
    const Maker& maker, const Map& map, const Proposal& proposal, const std::vector<std::string>& binds, const std::string& date)
{
    const Basis& basis = maker.basis();
    const Kit kit = maker.kit(proposal);
    const auto say = writer(basis.study->system);
    const Hub& hub = basis.hub();
    report::Leaf leaf;
    leaf.title = tr("Order: rotor Ø {}", say(proposal.rotor));
    const std::string car = basis.build().car.name.empty() ? tr("New build") : basis.build().car.name;
    leaf.subtitle = fmt::format("{} · {}{}", car, tr(wordOf(basis.axle)), date.empty() ? "" : " · " + date);
    leaf.caution(
        tr("A qualified engineer has to judge these parts before they are made, and local law whether they may be driven. Bending of "
           "the bracket, strength and heat cracks of hat and ring are not proven here."));
    const std::vector<double> widths { 0.2, 0.12, 0.68 };
    leaf.heading(tr("To be made"));
    leaf.row({ tr("part"), tr("pieces"), tr("what") }, widths, true);
    const std::string sizes = tr("Ø {} × {}, {} inside the faces", say(proposal.rotor), say(proposal.thickness), say(kit.ringInner));
    const double weight = massOf(kit.ring);
    leaf.row({ tr("friction ring"), "2",
                 kit.ring.vanes ? tr("{}, vented, {} vanes: one left, one right; {:.2f} kg each", sizes, kit.ring.vanes->count, weight)
                                : tr("{}, solid; {:.2f} kg each", sizes, weight) },
        widths);
    leaf.row({ tr("hat"), "2",
                 tr("{} high over all, {} between hub and wheel, pocket Ø {}, bore Ø {} +0.05/0 mm, {} holes Ø {} on Ø {}; {:.2f} kg each",
                     say(kit.overallHeight), say(proposal.hatThickness), say(kit.pocket), say(kit.bore), kit.holes, say(kit.hole),
                     say(kit.boltCircle), massOf(kit.hat)) },
        widths);
    if (kit.drum > 0)
        leaf.row({ tr("drum in the hat"), "", tr("Ø {} +0.1/0 mm for the parking brake's shoes", say(kit.drum)) }, widths);
    if (std::isfinite(kit.adapter.thickness))
        leaf.row({ tr("bracket"), "2",
                     tr("{} thick, holes {} and {} apart; one drawing serves both sides, turned over", say(kit.adapter.thickness),
                         hub.lugSpacing.value ? say(*hub.lugSpacing.value) : std::string(tr("not said")),
                         basis.corner.caliper.mountSpacing.value ? say(*basis.corner.caliper.mountSpacing.value)
                                                                 : std::string(tr("not said"))) },
            widths);
    else
        leaf.row({ tr("bracket"), "2", tr("cannot be drawn: readings of knuckle or caliper lack") }, widths);
    if (proposal.spacer > 0)
        leaf.row({ tr("wheel spacer"), "2", tr("{} thick, on the hub's pilot", say(proposal.spacer)) }, widths);
    leaf.heading(tr("To be bought"));
    leaf.row({ tr("part"), tr("pieces"), tr("what") }, widths, true);
    leaf.row({ tr("ring bolts"), std::to_string(2 * kit.bolts.count),
                 tr("{} × {} socket head, 10.9, oiled, with low all-metal lock nuts and hardened washers", kit.bolts.thread,
                     print(joints::soldBoltLength(kit.hatWall + kit.rimOutboard - kit.rimInboard + kit.bolts.nutHeight), style::frame,
                         UnitSystem::Metric)) },
        widths);
    leaf.row({ tr("shims"), "4", tr("stacks of {}, and 1 mm more and less of each to centre with", say(kit.shims)) }, widths);
    const Corner made = maker.corner(proposal, Known::Vendor);
    if (const auto out = studLength(maker, proposal)) {
        const bool enough = hub.studLength.value && *hub.studLength.value + 1e-9 >= *out;
        leaf.row({ tr("wheel studs"), hub.studCount > 0 ? std::to_string(2 * *hub.studCount) : std::string("?"),
                     enough ? tr("those on the hub stand {} out: enough", say(*hub.studLength.value))
                            : tr("{}, standing {} out of the flange", *hub.studThread, say(*out)) },
            widths);
    }
    for (const Joint& joint : proposed(maker, proposal).joints)
        if (joint.joins == Joins::BracketToKnuckle)
            leaf.row({ joint.name.empty() ? std::string(tr("bolts to the knuckle")) : joint.name,
                         joint.bolts > 0 ? std::to_string(2 * *joint.bolts) : std::string("?"),
                         joint.length.value ? tr("{}, {} under the head", *joint.thread, say(*joint.length.value))
                                            : tr("{}, length not known: grip or thread lacks", *joint.thread) },
                widths);
    leaf.heading(tr("To ask before ordering"));
    leaf.text(
        tr("Of whoever makes the ring: which iron, how far the face may be worn (minimum thickness), balance, and how vanes are told left "
           "from right."));
    leaf.text(tr("Of whoever turns the hat: material certificate, and whether the bore and neck are finished in one setting."));
    leaf.text(
        tr("Of whoever sells the caliper: its mounting face from the slot's middle and its holes from the rotor's edge, as drawn, and the "
           "torque of its bolts."));
    leaf.heading(tr("What this rests on"));
    for (const std::string& id : binds)
        for (const Limit& limit : map.limits)
            if (limit.id == id) {
                const Figure gap = limit.gap(proposal, made);
                leaf.text(gap.value ? tr("Decides: {}. {} left at worst, {} wanted.", limit.title, say(gap.lowest()), say(limit.wanted))
                                    : tr("Decides: {}. Not known.", limit.title));
                break;
            }
    const auto estimated = stillEstimated(maker, map, proposal);
    for (std::size_t i = 0; i < estimated.size(); ++i)
        leaf.text(tr("Still an estimate, measure it before ordering: {}.", estimated[i]));
    if (estimated.empty())
        leaf.text(
            tr("Every reading it rests on was taken or came from a maker. Read the parts when they arrive: until then nothing is proven."));
    // Plates go on paper as large as they are; what is larger than a sheet is drawn smaller, on one.
    constexpr double sheetWidth = 170e-3;
    for (ShopPart& part : partsToMake(maker, proposal, date)) {
        if (part.plate) {
            leaf.fullSize.push_back(std::move(part.drawing));
            continue;
        }
        leaf.heading(part.drawing.title);
        for (const std::string& note : part.drawing.notes)
            leaf.text(note);
        report::Block picture { report::Block::Kind::Picture };
        picture.scale = std::max(1.0, std::ceil(2 * paper::extentOf(part.drawing).width() / sheetWidth) / 2);
        picture.drawing = std::move(part.drawing);
        picture.drawing.notes.clear();
        leaf.blocks.push_back(std::move(picture));
    }
    return leaf;
}

} // namespace deepstop::design
