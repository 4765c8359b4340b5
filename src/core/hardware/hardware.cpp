#include "hardware/hardware.hpp"

#include "build/words.hpp"
#include "chapters/clearance/clearance.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

std::vector<std::string> noteOf(const Study& study, Axle axle, const std::string& date)
{
    const std::string car = study.build->car.name.empty() ? tr("New build") : study.build->car.name;
    return { fmt::format("{} · {} · {}{}", car, study.after.setup->name, tr(wordOf(axle)), date.empty() ? "" : " · " + date) };
}

std::string metric(double length) { return print(length, style::fine, UnitSystem::Metric); }
std::string us(double length) { return print(length, style::fine, UnitSystem::Us); }

} // namespace

namespace {

/// What of the plate, and of the bolts that stand proud of it, comes too near the rotor under whose edge it lies.
void addStrikes(const Study& study, Axle axle, BracketStudy& result)
{
    const Corner& c = *study.after.at(axle).corner;
    const Hub& hub = hubOf(*study.build, axle);
    const bracket::Adapter& a = *result.adapter;
    const Wants& wants = study.build->wants;
    const auto say = [&](double length) { return print(length, style::gap, study.system); };
    const double wanted = figures::setting(wants.faceGap, &Wants::faceGap) + figures::setting(wants.coning, &Wants::coning);
    const double face = nominal([&](Evaluator& s) { return figures::inboardFace(s, c); });
    const double edge = *c.rotor.outerDiameter.value / 2;
    const double plateFace = a.thickness - *hub.lugDepth.value;
    const auto judge = [&](const std::string& what, double lowest, const Reading* proud) {
        // Beyond the rotor's edge nothing is in the way.
        if (lowest > edge)
            return;
        if (proud && !proud->value) {
            result.faults.push_back(tr("how far {} stand proud of the plate towards the rotor is not said", what));
            return;
        }
        const double gap = face - plateFace - (proud ? *proud->value : 0);
        if (gap < 0)
            result.strikes.push_back(tr("{} would cut {} into the rotor", what, say(-gap)));
        else if (gap < wanted)
            result.strikes.push_back(tr("{} would come within {} of the rotor, {} wanted with its coning", what, say(gap), say(wanted)));
    };
    double lowest = edge + 1;
    for (const paper::Point p : a.outline)
        lowest = std::min(lowest, std::hypot(p.x, p.y));
    judge(tr("the plate"), lowest, nullptr);
    // A head is about 1.6 bolt diameters across; common practice.
    const auto under = [](const bracket::Hole& hole) { return std::hypot(hole.x, hole.y) - 0.8 * hole.diameter; };
    judge(tr("the bolts to the knuckle"), under(a.holes[0]), &c.bracket.proudKnuckle);
    if (a.bores.empty())
        judge(tr("the bolts to the caliper"), under(a.holes[2]), &c.bracket.proudCaliper);
    result.faults.insert(result.faults.end(), result.strikes.begin(), result.strikes.end());
}

void addLoadCase(const Study& study, Axle axle, BracketStudy& result)
{
    const Corner& c = *study.after.at(axle).corner;
    const Hub& hub = hubOf(*study.build, axle);
    const auto thread = joints::parseThread(*c.bracket.boltThread);
    const joints::Thread bolt = thread.value_or(joints::Thread { 12e-3, 1.5e-3 });
    const double torque = nominal([&](Evaluator& s) { return figures::largestBrakeTorque(s, *study.build, study.after, axle); });
    const double radius = nominal([&](Evaluator& s) { return figures::effectiveRadius(s, c); });
    const double lugs = *hub.lugRadius.value;
    const double preload = joints::preloadAim * joints::proofLoad(bolt, joints::Grade::G10_9);
    const double each = joints::forceOnPairBolt(torque, radius, lugs, *hub.lugSpacing.value);
    result.slipMargin = joints::coatedFriction * preload / each;
    result.bearingMargin = joints::bearingMargin(bolt, joints::Grade::G10_9, preload, torque / radius);
    result.bolts = tr("2 × {}, taken as 10.9 at 75 % of proof{}", joints::nameOf(bolt), thread ? "" : tr(": the class is not said"));
    if (!std::isfinite(each)) {
        result.loadCase.emplace_back(tr("Load case not known: the brake's largest torque lacks readings."));
        return;
    }
    if (result.slipMargin * (1 - joints::preloadScatter) < 1)
        result.faults.push_back(tr("friction of painted or oily faces holds {:.2f} times what a knuckle bolt has to carry, {:.2f} at worst",
            result.slipMargin, result.slipMargin * (1 - joints::preloadScatter)));
    const double force = torque / radius;
    const double middle = fit::frictionFaces(study.of<Clearance>().after.at(axle).left.shape).middle();
    const double offset = middle + *hub.lugDepth.value;
    result.loadCase = {
        tr("Load case, one wheel at its largest brake torque of {:.0f} N·m:", torque),
        tr("force {:.1f} kN along the rotor at {} from the axis;", force / 1e3, print(radius, style::size, study.system)),
        tr("couple in the plate's plane {:.0f} N·m about the knuckle's bolts, each of which carries {:.1f} kN;",
            force * std::abs(radius - lugs), each / 1e3),
        tr("moment out of that plane {:.0f} N·m, for the rotor's middle lies {} outboard of the lugs' face: it pries on the bolts.",
            force * std::abs(offset), print(std::abs(offset), style::size, study.system)),
    };
}

} // namespace

BracketStudy bracketOf(const Study& study, Axle axle)
{
    BracketStudy result;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    if (!r.corner) {
        result.lacks = tr("This setup has no brakes on that axle.");
        return result;
    }
    const Corner& c = *r.corner;
    if (c.mount.kind == MountKind::Unknown) {
        result.lacks = tr("Say first how the caliper is bolted on: through lugs, or on studs (radial).");
        return result;
    }
    const Hub& hub = hubOf(*study.build, axle);
    std::optional<bracket::Adapter> made;
    const Figure needed = evaluate([&](Evaluator& s) {
        const bracket::Knuckle knuckle { s(hub.lugSpacing), s(hub.lugRadius), s(hub.lugDepth), hub.lugEdge.value.value_or(0) };
        const bracket::CaliperMount mount { s(c.caliper.mountSpacing), s(c.caliper.mountDrop), s(c.caliper.mountDepth),
            c.mount.kind == MountKind::Radial };
        const double middle = figures::behindRotor(s, c) + s(c.rotor.hatThickness) - s(c.rotor.overallHeight) + s(c.rotor.thickness) / 2;
        const double knuckleHole = s(c.bracket.knuckleHole);
        const double caliperHole = s(c.bracket.caliperHole);
        made = bracket::adapter(knuckle, mount,
            { s(c.rotor.outerDiameter) / 2, 0, middle, knuckleHole, caliperHole, bracket::wallWanted(std::max(knuckleHole, caliperHole)),
                c.bracket.thickness.value.value_or(NAN) });
        return made ? made->thickness : NAN;
    });
    if (!needed.lacks.empty()) {
        result.lacks = lacking(study, needed);
        return result;
    }
    // The evaluation ran with readings at their limits; the bracket itself is made to the readings.
    result.adapter = [&] {
        const bracket::Knuckle knuckle { *hub.lugSpacing.value, *hub.lugRadius.value, *hub.lugDepth.value, hub.lugEdge.value.value_or(0) };
        const bracket::CaliperMount mount { *c.caliper.mountSpacing.value, *c.caliper.mountDrop.value, *c.caliper.mountDepth.value,
            c.mount.kind == MountKind::Radial };
        const double middle = fit::frictionFaces(r.shape).middle();
        const double hole = std::max(*c.bracket.knuckleHole.value, *c.bracket.caliperHole.value);
        return bracket::adapter(knuckle, mount,
            { *c.rotor.outerDiameter.value / 2, 0, middle, *c.bracket.knuckleHole.value, *c.bracket.caliperHole.value,
                bracket::wallWanted(hole), c.bracket.thickness.value.value_or(NAN) });
    }();
    if (!result.adapter) {
        result.lacks = tr("No bracket has such dimensions: spacings, holes and diameters must be more than 0.");
        return result;
    }
    const bracket::Adapter& a = *result.adapter;
    const auto say = [&](double length) { return print(length, style::gap, study.system); };
    if (a.wall < bracket::wallWanted(*c.bracket.knuckleHole.value) - 1e-9)
        result.faults.push_back(a.wall < 0
                ? tr("the holes to the knuckle and to the caliper cut into each other by {}: another "
                     "caliper spacing, another rotor, or a bracket in two planes",
                    say(-a.wall))
                : tr("only {} of metal between two holes, {} wanted", say(a.wall), say(bracket::wallWanted(*c.bracket.knuckleHole.value))));
    if (!(a.thickness >= bracket::thinnestPlate))
        result.faults.push_back(a.thickness <= 0
                ? tr("the caliper would have to stand {} behind the lugs' face: machine the lugs, or a hub-face ring", say(-a.thickness))
                : tr("a plate of {} is thin, {} at least wanted", say(a.thickness), say(bracket::thinnestPlate)));
    if (a.offset < -0.5e-3)
        result.faults.push_back(tr("this plate is {} too thick: machine it, or a hub-face ring", say(-a.offset)));
    else if (a.offset > 0.5e-3)
        result.faults.push_back(tr("this plate leaves {} for shims between it and the caliper", say(a.offset)));
    if (a.edge < bracket::wallWanted(*c.bracket.knuckleHole.value) - 1e-9)
        result.faults.push_back(tr("only {} of metal between a hole and the edge, {} wanted", say(a.edge),
            say(bracket::wallWanted(*c.bracket.knuckleHole.value))));
    if (!a.seats)
        result.faults.emplace_back(
            tr("the plate's holes to the knuckle stand farther out than the caliper's mounting face: a radial mount cannot "
               "sit on such a plate; another caliper, another rotor, or a bracket in two planes"));
    addStrikes(study, axle, result);
    addLoadCase(study, axle, result);
    return result;
}

PlateDrawing drawingOfBracket(const Study& study, Axle axle, const bracket::Adapter& adapter, const std::string& date)
{
    const Corner& c = *study.after.at(axle).corner;
    auto plate = bracket::plateOf(adapter, c.bracket.material->empty() ? tr("material not chosen") : *c.bracket.material);
    auto notes = noteOf(study, axle, date);
    BracketStudy judged;
    judged.adapter = adapter;
    addStrikes(study, axle, judged);
    addLoadCase(study, axle, judged);
    for (const std::string& strike : judged.strikes)
        notes.push_back(tr("DO NOT MAKE: {}.", strike));
    notes.insert(notes.end(), judged.loadCase.begin(), judged.loadCase.end());
    auto drawing = bracket::drawingOf(plate, notes, study.system == UnitSystem::Us ? us : metric);
    return { std::move(plate), std::move(drawing) };
}

std::optional<PlateDrawing> drawingOfRing(const Study& study, Axle axle, const std::string& date, std::string& lacks)
{
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    if (!r.corner || !r.corner->ring.value) {
        lacks = tr("This setup has no hub-face ring.");
        return {};
    }
    const Hub& hub = hubOf(*study.build, axle);
    const Figure needed = evaluate([&](Evaluator& s) {
        return s(hub.flangeDiameter) + s(hub.pilotDiameter) + s(hub.boltCircle) + s(hub.studDiameter) + s(r.corner->ring);
    });
    if (!needed.value || hub.studCount <= 0) {
        lacks = lacking(study, needed,
            hub.studCount <= 0 ? std::vector<std::string> { tr("number of studs, {}", tr(wordOf(axle))) } : std::vector<std::string> {});
        return {};
    }
    // A sliding fit on the pilot, room round the studs; common practice.
    constexpr double onPilot = 0.1e-3;
    constexpr double roundStud = 1e-3;
    auto plate = bracket::ringPlate(*r.corner->ring.value, *hub.flangeDiameter.value, *hub.pilotDiameter.value + onPilot,
        *hub.boltCircle.value, hub.studCount, *hub.studDiameter.value + roundStud, "steel");
    auto drawing = bracket::drawingOf(plate, noteOf(study, axle, date), study.system == UnitSystem::Us ? us : metric);
    return PlateDrawing { std::move(plate), std::move(drawing) };
}

std::optional<PlateDrawing> drawingOfShim(const Study& study, Axle axle, double thickness, const std::string& date, std::string& lacks)
{
    const auto thread = joints::parseThread(*hubOf(*study.build, axle).lugThread);
    if (!thread || !(thickness > 0)) {
        lacks = thread ? tr("A shim has to be thicker than nothing.") : tr("Lacks thread of the knuckle's lugs, {}.", tr(wordOf(axle)));
        return {};
    }
    // Common practice, no source.
    constexpr double roundBolt = 0.5e-3;
    auto plate = bracket::shimPlate(thickness, 2 * thread->diameter, thread->diameter + roundBolt, "steel");
    auto drawing = bracket::drawingOf(plate, noteOf(study, axle, date), study.system == UnitSystem::Us ? us : metric);
    return PlateDrawing { std::move(plate), std::move(drawing) };
}

namespace {

/// What a widening lacks, or why there can be none; empty where it can be worked out.
std::string lackingForWidening(const Study& study, const CornerClearance& r, double growth)
{
    if (!r.corner)
        return tr("This setup has no brakes on that axle.");
    const Caliper& caliper = r.corner->caliper;
    if (caliper.split != YesNo::Yes)
        return caliper.split == YesNo::No ? tr("This caliper is of one piece: it cannot be widened.")
                                          : tr("Not said: whether this caliper is two halves bolted together or one piece.");
    if (r.corner->mount.shimMoves == Direction::Unknown)
        return tr("Say first which way a thicker shim moves this caliper: the slot has to be brought back over the rotor.");
    if (!(growth > 0) || growth > 0.05)
        return tr("The new rotor has to be thicker than the old one, by up to 50 mm.");
    const Figure needed = evaluate([&](Evaluator& s) { return s(caliper.slotWidth) + s(caliper.bridgeBoltLength) + s(caliper.pinLength); });
    if (!needed.value)
        return lacking(study, needed);
    return {};
}

/// What is to be bought or made.
std::vector<std::string> partsOfWidening(const Corner& corner, const joints::Widening& w, UnitSystem system)
{
    std::vector<std::string> lines;
    const Caliper& caliper = corner.caliper;
    const auto say = [&](double length) { return print(length, style::gap, system); };
    const int bolts = caliper.bridgeBolts;
    const auto thread = joints::parseThread(*caliper.bridgeBoltThread);
    const auto count = [&](int n) { return n > 0 ? fmt::format("{} × ", n) : std::string(); };
    lines.push_back(tr("{}spacers of {} between the halves, faces flat and parallel", count(bolts), say(w.spacer)));
    lines.push_back(tr("{}bolts for the halves{}, {} under the head at least; sold: {}", count(bolts),
        thread ? ", " + joints::nameOf(*thread) : std::string(), say(w.bridgeBoltLength),
        print(joints::soldBoltLength(w.bridgeBoltLength), style::frame, system)));
    lines.push_back(tr("pad pins of {}", say(w.pinLength)));
    lines.push_back(caliper.crossover == YesNo::Yes
            ? tr("a seal at the fluid crossover on each face of the spacer, of the section the maker of the spacers gives")
            : caliper.crossover == YesNo::No
            ? tr("a longer pipe between the halves")
            : tr("look whether the fluid crosses inside or through a pipe: a seal or a longer pipe goes with it"));
    const auto stackOf = [](const Fitted& in) { return std::min(in.shimTop.value.value_or(0), in.shimBottom.value.value_or(0)); };
    if (corner.mount.shimMoves == Direction::Inboard)
        lines.push_back(tr("washers of {} under each mounting bolt, to bring the slot over the rotor again", say(w.mountWasher)));
    else
        lines.push_back(std::min(stackOf(corner.left), stackOf(corner.right)) >= w.mountWasher
                ? tr("{} out of the shims under each mounting bolt, to bring the slot over the rotor again", say(w.mountWasher))
                : tr("the slot then stands {} too far outboard and there are no shims to take out: machine the ears, or a hub-face "
                     "ring of that thickness",
                    say(w.mountWasher)));
    return lines;
}

/// Thread of the mounting bolts that the washers take out of the knuckle.
std::vector<std::string> threadsOfWidening(const Corner& corner, const joints::Widening& w, UnitSystem system)
{
    std::vector<std::string> lines;
    const auto say = [&](double length) { return print(length, style::gap, system); };
    for (const Joint& joint : corner.joints)
        if (joint.shims == ShimsIn::Axial) {
            const auto itsThread = joints::parseThread(*joint.thread);
            const auto engaged = [&](double more) {
                return nominal([&](Evaluator& s) {
                    return joints::fitOf({ s(joint.length), s(joint.grip),
                                             std::max({ s.orElse(corner.left.shimTop, 0), s.orElse(corner.left.shimBottom, 0),
                                                 s.orElse(corner.right.shimTop, 0), s.orElse(corner.right.shimBottom, 0) })
                                                 + more,
                                             s(joint.threadDepth), s.orElse(joint.roomBehind, 0), itsThread ? itsThread->pitch : NAN })
                        .engaged;
                });
            };
            if (std::isfinite(engaged(0)))
                lines.push_back(tr("{}: {} of thread left of {}", joint.name.empty() ? tr("mounting bolts") : joint.name,
                    say(engaged(w.mountEngagementLost)), say(engaged(0))));
        }
    return lines;
}

std::shared_ptr<const Build> widened(const Study& study, Axle axle, const joints::Widening& w, double growth)
{
    auto build = std::make_shared<Build>(*study.build);
    Corner& corner = ownCorner(*build, study.after.setup->id, axle);
    const auto put = [](Reading& reading, double value) { reading = { value, {}, Known::Estimated, {}, {} }; };
    put(corner.caliper.slotWidth, w.slotWidth);
    put(corner.caliper.bridgeBoltLength, joints::soldBoltLength(w.bridgeBoltLength));
    put(corner.caliper.pinLength, w.pinLength);
    put(corner.caliper.widened, w.spacer);
    // The outboard half moves out by the spacer, the middle by half of it; the washers bring it back.
    for (Reading* depth : { &corner.caliper.outboardDepth, &corner.caliper.inboardDepth })
        if (depth->value)
            put(*depth, *depth->value + growth / 2);
    if (corner.caliper.padRoom.value)
        put(corner.caliper.padRoom, *corner.caliper.padRoom.value + growth);
    // The outboard half went outboard and the slot's middle with it; where a thicker stack moves the caliper inboard, washers bring it
    // back.
    const double more = corner.mount.shimMoves == Direction::Inboard ? w.mountWasher : -w.mountWasher;
    for (Fitted* in : { &corner.left, &corner.right })
        for (Reading* shim : { &in->shimTop, &in->shimBottom })
            put(*shim, std::max(0.0, shim->value.value_or(0) + more));
    return build;
}

} // namespace

WideningStudy wideningOf(const Study& study, Axle axle, double growth)
{
    WideningStudy result;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    result.lacks = lackingForWidening(study, r, growth);
    if (!result.lacks.empty())
        return result;
    const Caliper& caliper = r.corner->caliper;
    const auto w = joints::widen(
        { *caliper.slotWidth.value, *caliper.bridgeBoltLength.value, *caliper.pinLength.value, caliper.widened.value.value_or(0) }, growth);
    result.widening = w;
    result.lines = partsOfWidening(*r.corner, w, study.system);
    for (std::string& line : threadsOfWidening(*r.corner, w, study.system))
        result.lines.push_back(std::move(line));
    result.cautions = { tr("This alters a part that holds pressure. Class and torque of the bolts come from the maker of the spacers."),
        tr("Leak test at full pedal force for minutes, before the wheel goes on; again after the first drive."),
        tr("Have it judged by a qualified engineer or licensed mechanic. The program advises and never approves.") };
    result.applied = widened(study, axle, w, growth);
    return result;
}

} // namespace deepstop
