#include "chapters/parts/bench.hpp"
#include "figures/figures.hpp"
#include "chapters/parts/parts.hpp"
#include "chapters/parts/receiving.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

// Common practice, no source, unless said otherwise.
constexpr double boreLoosest = 0.5e-3; ///< above it the pilot no longer centres the rotor
constexpr double sleevePressed = 0.1e-3; ///< most that a sleeve is larger than the hat's bore it is pressed into
constexpr double pocketRoom = 0.5e-3;
constexpr double circleApart = 0.5e-3; ///< bolt circles further apart than this do not go together
constexpr double holeRoom = 0.2e-3; ///< of a stud in its hole
constexpr double drumLoosest = 1e-3; ///< what the shoes' adjuster takes up
constexpr double drumHopeless = 2e-3;
constexpr double hoseLongest = 80e-3; ///< more than this beyond what is needed finds something to rub on
constexpr double spacingApart = 0.5e-3;
constexpr double padWindowPlay = 2e-3;
constexpr double thinShoe = 1.5e-3; ///< the same of a shoe
constexpr double pistonSlack = 2e-3; ///< new parts that leave more a side were not what the caliper was made for
constexpr double padGrowth = 0.1e-3; ///< of a hot pad
constexpr double hotPadRoom = 0.5e-3; ///< to be left between hot pads and pistons

constexpr std::string_view doNotForce =
    marked("Do not force, drill or file brake parts to fit. Follow the maker's data; let a qualified engineer or licensed mechanic judge.");

void addHubVerdicts(const Bench& bench, const Corner& c, const Hub& hub)
{
    auto bore = bench.begin(checks::bore, tr("Rotor bore over the hub pilot"), style::fine,
        tr("Bore less pilot, or less the outside of the adapter ring on it. A bore that is closed or too small holds the rotor off the "
           "flange: it "
           "must sit flat."));
    // A sleeve pressed into the hat has no play there.
    const bool sleeve = c.adapter.sits == RingSits::InHat;
    const Reading& into = figures::hasAdapterRing(c) ? c.adapter.outside : hub.pilotDiameter;
    bore.figure = evaluate([&](Evaluator& s) { return s(c.rotor.bore) - s(into); });
    bore.caution = tr(doNotForce);
    bench.rate(bore,
        { sleeve ? -sleevePressed : 0, sleeve ? 0 : boreLoosest, INFINITY,
            figures::hasAdapterRing(c) ? tr("The adapter ring does not go into the bore")
                                       : tr("The bore does not pass the pilot, the rotor cannot sit flat"),
            sleeve ? tr("the sleeve falls out of the hat") : tr("only the studs centre the rotor") });
    bench.add(std::move(bore));

    auto pocket = bench.begin(checks::hubPocket, tr("Hub flange in the hat's pocket"), style::size,
        tr("Pocket, or the hat's outside less twice its wall, less the flange. Cars of one model come with small and large hubs."));
    pocket.figure = evaluate([&](Evaluator& s) {
        if (c.rotor.pocketDiameter.value)
            return s(c.rotor.pocketDiameter) - s(hub.flangeDiameter);
        return s(c.rotor.hatOuterDiameter) - 2 * s(c.rotor.hatWall) - s(hub.flangeDiameter);
    });
    // Where the hat's own dimensions are lacking, the pocket itself would do as well.
    if (!c.rotor.pocketDiameter.value && !(c.rotor.hatOuterDiameter.value && c.rotor.hatWall.value))
        pocket.figure.lacks.emplace_back(c.rotor.pocketDiameter);
    pocket.caution = tr(doNotForce);
    bench.rate(pocket, { 0, INFINITY, INFINITY, tr("The hub flange does not go into the hat"), "" });
    if (pocket.level == Level::Good && pocket.figure.lowest() < pocketRoom) {
        pocket.level = Level::Caution;
        pocket.reason += tr(": rust or paint takes that up");
    }
    bench.add(std::move(pocket));

    auto circle = bench.begin(checks::boltCircle, tr("Bolt circle and studs"), style::fine,
        tr("Bolt circle of the rotor less that of the hub; number of holes against studs; hole less stud."));
    circle.figure = evaluate([&](Evaluator& s) { return s(c.rotor.boltCircle) - s(hub.boltCircle); });
    const Figure hole = evaluate([&](Evaluator& s) { return s(c.rotor.boltHoleDiameter) - s(hub.studDiameter); });
    mergeDependencies(circle.figure, hole);
    for (const auto& [count, what] :
        { std::pair { c.rotor.boltHoles, tr("bolt holes of the rotor") }, std::pair { hub.studCount, tr("studs of the hub") } })
        if (count <= 0)
            circle.lacksInWords.push_back(tr("number of {} ({})", what, judge::wordFor(bench.axle())));
    const bool counted = c.rotor.boltHoles > 0 && hub.studCount > 0;
    if (counted && c.rotor.boltHoles != hub.studCount) {
        circle.level = Level::Stop;
        circle.reason = tr("{} holes for {} studs", c.rotor.boltHoles, hub.studCount);
    } else if (circle.figure.value && std::abs(*circle.figure.value) - circle.figure.worstCase > circleApart) {
        circle.level = Level::Stop;
        circle.reason = tr("The bolt circles are {} apart", print(std::abs(*circle.figure.value), style::size, bench.study().system));
    } else if (hole.value && hole.highest() < 0) {
        circle.level = Level::Stop;
        circle.reason = tr("The holes are {} smaller than the studs", print(-*hole.value, style::size, bench.study().system));
    } else if (!circle.figure.value || !hole.value || !counted) {
        circle.figure.value.reset();
        circle.reason = lacking(bench.study(), circle.figure, circle.lacksInWords);
    } else if (!judge::unproven(bench.study(), circle)) {
        const bool tight = hole.lowest() < holeRoom || std::abs(*circle.figure.value) + circle.figure.worstCase > 2 * circleApart;
        circle.level = tight ? Level::Caution : Level::Good;
        circle.reason = tr("{} × {}, {} round each stud", c.rotor.boltHoles,
            print(c.rotor.boltCircle.value.value_or(0), style::size, bench.study().system),
            print(*hole.value / 2, style::fine, bench.study().system));
        if (tight)
            circle.reason += tr(": not certain, try it on by hand");
    }
    circle.caution = tr(doNotForce);
    bench.add(std::move(circle));

    if (hub.parkingBrake == ParkingBrake::DrumInHat) {
        auto drum = bench.begin(checks::drumInHat, tr("Drum in the hat over the parking shoes"), style::size,
            tr("Drum less the diameter the shoes are made for."));
        drum.figure = evaluate([&](Evaluator& s) { return s(c.rotor.drumDiameter) - s(hub.shoeDiameter); });
        drum.caution = tr("Without a parking brake that holds, the car rolls. Chock the wheels.");
        bench.rate(drum,
            { 0, drumLoosest, drumHopeless, tr("The drum does not go over the shoes"), tr("the parking shoes cannot reach the drum") });
        if (drum.level == Level::Stop && drum.reason.starts_with("the"))
            drum.reason[0] = 'T';
        bench.add(std::move(drum));
    } else if (hub.parkingBrake == ParkingBrake::Unknown && c.rotor.drumDiameter.value) {
        auto drum = bench.begin(checks::drumInHat, tr("Drum in the hat over the parking shoes"), style::size,
            tr("Drum less the diameter the shoes are made for."));
        drum.lacksInWords.push_back(tr("kind of parking brake ({})", judge::wordFor(bench.axle())));
        drum.reason = lacking(bench.study(), drum.figure, drum.lacksInWords);
        bench.add(std::move(drum));
    }
}

void addMountVerdicts(const Bench& bench, const Corner& c, const Hub& hub)
{
    const bool bracket = !c.bracket.name.empty() || c.bracket.knuckleSpacing.value || c.bracket.caliperSpacing.value;
    auto spacing = bench.begin(checks::mountSpacing, tr("Mounting holes against the lugs"), style::fine,
        tr("Hole spacings that have to be equal, the worse of both: knuckle to bracket, bracket to caliper."));
    spacing.figure = evaluate([&](Evaluator& s) {
        if (!bracket)
            return s(c.caliper.mountSpacing) - s(hub.lugSpacing);
        const double knuckle = s(c.bracket.knuckleSpacing) - s(hub.lugSpacing);
        const double caliper = s(c.caliper.mountSpacing) - s(c.bracket.caliperSpacing);
        return std::abs(caliper) > std::abs(knuckle) ? caliper : knuckle + 0 * caliper;
    });
    if (!spacing.figure.value) {
        spacing.reason = lacking(bench.study(), spacing.figure);
    } else if (std::abs(*spacing.figure.value) - spacing.figure.worstCase > spacingApart) {
        spacing.level = Level::Stop;
        spacing.reason = tr(
            "The holes are {} apart from where they should be", print(std::abs(*spacing.figure.value), style::size, bench.study().system));
    } else if (!judge::unproven(bench.study(), spacing)) {
        const bool sure = std::abs(*spacing.figure.value) + spacing.figure.worstCase <= 2 * spacingApart;
        spacing.level = sure ? Level::Good : Level::Caution;
        spacing.reason = sure ? tr("The holes meet") : tr("Not certain at this uncertainty: start every bolt by hand");
    }
    spacing.caution = tr(doNotForce);
    bench.add(std::move(spacing));

    auto bolts = bench.begin(checks::boltThread, tr("Bolts in the knuckle's lugs"), style::number,
        tr("Thread of the bolts in the bag against that of the lugs: diameter and pitch."));
    const std::array<std::string, 4> pair { tr("thread of the bracket's bolts"), c.bracket.boltThread, tr("thread of the knuckle's lugs"),
        hub.lugThread };
    bench.judgeThreads(bolts, std::span(&pair, 1));
    bolts.caution = tr("A bolt of the wrong thread can go in a few turns and hold nothing. Start every bolt by hand.");
    bench.add(std::move(bolts));
}

void addHoseLength(const Bench& bench, const AxleParts& after, const AxleParts& before)
{
    const Build& build = *bench.study().build;
    const Corner& c = *after.corner;
    const Hub& hub = hubOf(build, bench.axle());
    auto v = bench.begin(checks::hoseLength, tr("Hose length"), style::frame,
        tr("Hose less the length that reaches at droop and full lock; where that was not read, less the hose the car came with."));
    const Reading& need =
        hub.hoseReach.value || !before.corner || before.corner == after.corner ? hub.hoseReach : before.corner->hose.length;
    v.figure = evaluate([&](Evaluator& s) { return s(c.hose.length) - s(need); });
    if (!v.figure.value && !need.value && &need != &hub.hoseReach)
        v.figure.lacks.emplace_back(hub.hoseReach);
    bench.rate(v, { 0, hoseLongest, INFINITY, tr("The hose does not reach"), tr("look for what it rubs on") });
    // Front and rear of one kit usually differ; a pair of the wrong axle does not.
    const AxleParts& other = bench.study().after.at(bench.axle() == Axle::Front ? Axle::Rear : Axle::Front);
    if (v.level == Level::Stop && other.corner && other.corner != after.corner && other.corner->hose.length.value && c.hose.length.value
        && std::abs(*other.corner->hose.length.value - *c.hose.length.value) < 5e-3) {
        v.figure.restsOn.emplace_back(other.corner->hose.length);
        v.reason += tr("; it is as long as the {} one: two {} hoses in the box",
            judge::wordFor(bench.axle() == Axle::Front ? Axle::Rear : Axle::Front),
            judge::wordFor(bench.axle() == Axle::Front ? Axle::Rear : Axle::Front));
    }
    v.caution = tr("Look at the hose at full lock and full droop, both sides, before the car moves.");
    bench.add(std::move(v));
}

/// A caliper made for a thicker rotor lets its pistons out of their bores once rotor and pads are worn.
void addPistonsOut(const Bench& bench, const Corner& c)
{
    auto v = bench.begin(checks::pistonStroke, tr("Pistons in their bores, all worn"), style::size,
        tr("Stroke of a piston less how far it comes out at the rotor's minimum and bare pad backs: half of what the opening then leaves, "
           "all "
           "of "
           "it in a floating caliper."));
    v.caution = tr("A piston that leaves its bore lets the fluid out at once: no brake on that circuit.");
    const bool floating = c.caliper.kind == CaliperKind::Floating;
    const auto room = [&](Evaluator& s, double rotor, double pads) { return (s(c.caliper.padRoom) - rotor - pads) / (floating ? 1 : 2); };
    v.figure =
        evaluate([&](Evaluator& s) { return s(c.caliper.pistonStroke) - room(s, s(c.rotor.minimumThickness), 2 * s(c.pad.backing)); });
    if (c.caliper.kind == CaliperKind::Unknown) {
        v.lacksInWords.push_back(tr("whether the caliper is fixed or floating ({})", judge::wordFor(bench.axle())));
        v.figure.value.reset();
    }
    // Without the stroke, a caliper that new parts nearly fill is one made for about these parts.
    const Figure slack =
        evaluate([&](Evaluator& s) { return room(s, s(c.rotor.thickness), 2 * (figures::padLining(s, c.pad) + s(c.pad.backing))); });
    const bool filled = !c.caliper.pistonStroke.value && c.caliper.kind != CaliperKind::Unknown && slack.value && !slack.provisional()
        && slack.highest() < pistonSlack;
    if (filled) {
        v.figure = slack;
        v.level = Level::Good;
        v.reason = tr("New parts leave {} a side: made for about these", print(*slack.value, v.style, bench.study().system));
    } else if (!judge::unproven(bench.study(), v)) {
        v.level = v.figure.lowest() >= 0 ? Level::Good : Level::Stop;
        v.reason = v.figure.lowest() >= 0
            ? tr("{} of stroke left when all is worn", print(v.figure.lowest(), v.style, bench.study().system))
            : tr("A piston would come {} out of its bore at worst: this caliper is made for a thicker rotor, or change pads early",
                print(-v.figure.lowest(), v.style, bench.study().system));
    }
    bench.add(std::move(v));
}

/// A floating caliper has to slide as far as pads and rotor wear.
void addSlides(const Bench& bench, const Corner& c)
{
    if (c.caliper.kind != CaliperKind::Floating)
        return;
    auto v = bench.begin(checks::slides, tr("Slides of the floating caliper"), style::size,
        tr("Travel of the slides less what the body moves inboard while the outboard lining wears to its minimum and the rotor by half of "
           "its "
           "wear."));
    v.caution = tr("A caliper at the end of its slides brakes with one pad.");
    v.figure = evaluate([&](Evaluator& s) {
        return s(c.caliper.slideTravel) - (figures::padLining(s, c.pad) - s.orElse(c.pad.minimumThickness, thinPad))
            - (s(c.rotor.thickness) - s(c.rotor.minimumThickness)) / 2;
    });
    if (!judge::unproven(bench.study(), v)) {
        v.level = v.figure.lowest() >= 0 ? Level::Good : Level::Stop;
        v.reason = v.figure.lowest() >= 0
            ? tr("{} of travel left when all is worn", print(v.figure.lowest(), v.style, bench.study().system))
            : tr("They end {} too early at worst", print(-v.figure.lowest(), v.style, bench.study().system));
    }
    bench.add(std::move(v));
}

void addPadVerdicts(const Bench& bench, const Corner& c)
{
    auto slot = bench.begin(checks::padSlot, tr("Rotor and new pads between the pistons"), style::size,
        tr("Opening between pistons pushed home, less rotor, less twice lining and back."));
    const double rise = figures::setting(bench.study().build->wants.hotRise, &Wants::hotRise);
    const auto grown = [&](Evaluator& s) {
        return fit::growth(s(c.rotor.thickness), rise, figures::ringExpansion(s, c.rotor, rise)) + 2 * padGrowth;
    };
    slot.figure = evaluate([&](Evaluator& s) {
        return s(c.caliper.padRoom) - s(c.rotor.thickness) - 2 * (figures::padLining(s, c.pad) + s(c.pad.backing)) - grown(s);
    });
    slot.method += tr(" Less what the hot ring grows in thickness and each pad by 0.1 mm; 0.5 mm has to be left.");
    if (c.caliper.kind == CaliperKind::Floating)
        slot.method += tr(" In a floating caliper from the piston to the fingers.");
    bench.rate(slot, { 0, INFINITY, INFINITY, tr("New pads and the hot rotor do not go between the pistons"), "" });
    if (slot.level == Level::Good && slot.figure.lowest() < hotPadRoom) {
        slot.level = Level::Caution;
        slot.reason += tr(": hot pads may drag");
    }
    bench.add(std::move(slot));

    addPistonsOut(bench, c);
    addSlides(bench, c);

    auto window = bench.begin(checks::padWindow, tr("Pads in their opening"), style::size, tr("Opening less pad length."));
    window.figure = evaluate([&](Evaluator& s) { return s(c.caliper.padWindow) - s(c.pad.length); });
    bench.rate(window, { 0, padWindowPlay, INFINITY, tr("The pads do not go into the caliper"), tr("the pads knock in their opening") });
    bench.add(std::move(window));
}

/// A drum, and what wears in it.
void addDrumVerdicts(const Bench& bench, const Corner& c)
{
    const Drum& d = c.drum;
    auto wear = bench.begin(
        checks::wornDrum, tr("Drum left to wear"), style::fine, tr("Largest diameter cast on the drum less its inside diameter."));
    wear.source = tr("The maker's largest diameter.");
    wear.figure = evaluate([&](Evaluator& s) { return s(d.largestDiameter) - s(d.insideDiameter); });
    wear.caution = tr("A drum past its largest diameter is scrap, however good it looks.");
    auto lining = bench.begin(
        checks::wornShoe, tr("Lining left on the shoes"), style::size, tr("Lining less its minimum; 1.5 mm where the maker names none."));
    lining.figure = evaluate([&](Evaluator& s) { return s(d.liningThickness) - s.orElse(d.minimumLining, thinShoe); });
    for (Verdict* v : { &wear, &lining }) {
        const Figure& f = v->figure;
        if (f.value && f.highest() <= 0) {
            v->level = Level::Stop;
            v->reason = tr("Past its limit by {}: scrap", print(-*f.value, v->style, bench.study().system));
        } else if (!judge::unproven(bench.study(), *v)) {
            v->level = f.lowest() >= wearReserve ? Level::Good : Level::Caution;
            v->reason = tr(
                "{} left, {} at worst", print(*f.value, v->style, bench.study().system), print(f.lowest(), v->style, bench.study().system));
        }
        bench.add(std::move(*v));
    }
}

/// A ring and a hat of different metals are two pieces, whatever was said.
void addConstruction(const Bench& bench, const Corner& c)
{
    const Rotor& r = c.rotor;
    if (r.construction != RotorBuild::OnePiece || r.hatMaterial != HatMaterial::Aluminium)
        return;
    auto v =
        bench.begin(checks::construction, std::string(tr(checks::construction.title)), style::number, tr("A casting is of one metal."));
    v.level = Level::Caution;
    v.reason =
        tr("Said to be one piece, with a hat of aluminium: a ring bolted to its hat is two, and is weighed, cooled and done up as two");
    bench.add(std::move(v));
}

/// Wear, runout and what unpacking found.
void addUse(Study& study, Axle axle)
{
    const AxleParts& after = study.after.at(axle);
    const AxleParts& before = study.before.at(axle);
    const Bench bench(study, axle);
    if (after.corner->brakes == BrakeKind::Discs) {
        addWear(bench, study.after, false);
        addRunout(bench, *after.corner);
    }
    if (study.before.setup != study.after.setup && before.corner && before.corner != after.corner
        && before.corner->brakes == BrakeKind::Discs)
        addWear(bench, study.before, true);

    auto received = bench.begin(checks::received, tr("Unpacking the {} kit", judge::wordFor(axle)), style::count,
        tr("The check list at unpacking: every line looked at, both sides."));
    const auto items = receivingOf(study, axle);
    const auto count = [&](Checked state) {
        return std::ranges::count_if(items, [state](const ReceivingItem& i) { return i.state == state && i.verdict.empty(); });
    };
    const auto begun =
        std::ranges::any_of(items, [](const ReceivingItem& i) { return i.overruled || (i.verdict.empty() && i.state != Checked::Open); });
    if (!begun)
        return;
    std::vector<std::string> faults;
    for (const ReceivingItem& item : items)
        if (item.state == Checked::Fault && (item.verdict.empty() || item.overruled))
            faults.push_back(item.title + ": " + item.said);
    const auto open = std::ranges::count_if(items, [](const ReceivingItem& i) { return i.verdict.empty() && i.state == Checked::Open; });
    received.figure.value = static_cast<double>(count(Checked::Fine));
    if (!faults.empty()) {
        received.level = Level::Stop;
        received.reason = judge::joined(faults, 2);
    } else if (open > 0) {
        received.figure.value.reset();
        received.lacksInWords.push_back(tr("{} lines of the check list at unpacking ({})", open, judge::wordFor(axle)));
        received.reason = tr("{} lines still to look at", open);
    } else {
        received.level = Level::Good;
        received.reason = tr("All {} lines looked at", count(Checked::Fine));
    }
    bench.add(std::move(received));
}

} // namespace

void addBenchVerdicts(Study& study, Axle axle)
{
    const AxleParts& after = study.after.at(axle);
    const AxleParts& before = study.before.at(axle);
    if (!after.corner)
        return;
    const Bench bench(study, axle);
    const Hub& hub = hubOf(*study.build, axle);
    addParkingBrake(bench, study.after, study.before);
    const bool sameLine = before.corner && before.corner->hose == after.corner->hose && before.corner->caliper == after.corner->caliper;
    if (after.corner->brakes == BrakeKind::Drums) {
        addDrumVerdicts(bench, *after.corner);
        addHoseLength(bench, after, before);
    } else {
        addConstruction(bench, *after.corner);
        addHubVerdicts(bench, *after.corner, hub);
        addMountVerdicts(bench, *after.corner, hub);
        addHoseThreads(bench, *after.corner, hub, sameLine);
        addHoseHeld(bench, *after.corner, sameLine);
        addHoseLength(bench, after, before);
        addPadVerdicts(bench, *after.corner);
    }
}

void addParts(Study& study)
{
    for (const Axle axle : judge::axlesOf(study))
        if (study.after.at(axle).corner) {
            addBenchVerdicts(study, axle);
            addUse(study, axle);
        }
}

} // namespace deepstop
