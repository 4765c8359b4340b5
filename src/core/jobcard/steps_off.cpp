#include "jobcard/steps.hpp"

#include "build/choices.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "language/language.hpp"

namespace deepstop::jobcard {
namespace {

std::string slug(std::string_view words)
{
    std::string id;
    for (const char c : words)
        if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9'))
            id += c;
        else if (!id.empty() && id.back() != '-')
            id += '-';
    while (!id.empty() && id.back() == '-')
        id.pop_back();
    return id;
}

} // namespace

void Writer::prepare()
{
    const std::string setup = study_.after.setup->name;
    add(Phase::Prepare, "car/data", "car", tr("Have the maker's data at hand: torques, hose routing, order of bleeding"), practice,
        { tr("Brakes are life-critical: maker's data and local law come before this card; have adapters, machined and welded parts judged "
             "by a "
             "qualified engineer or licensed mechanic."),
            {}, {}, 10, false, smallJob() });
    for (const Axle axle : axles_)
        add(Phase::Prepare, tokenOf(axle) + "/unpacked", judge::wordFor(axle),
            tr("Everything of {} for both sides on the bench, looked at and measured{}", setup, says(checks::received, { axle })),
            idOf(checks::received, { axle }), { {}, tr("vernier, scale"), {}, work(axle).small() ? 8.0 : 20.0, !work(axle).any() });
    const bool drums = std::ranges::any_of(std::array { Axle::Front, Axle::Rear },
        [&](Axle a) { return study_.before.at(a).corner && study_.before.at(a).corner->brakes == BrakeKind::Drums; });
    add(Phase::Prepare, "car/leaks", "car",
        drums ? tr("Look at every wheel for fluid: calipers, hose ends, and the wheel cylinders inside the drums, behind their boots")
              : tr("Look at every wheel for fluid: calipers, bleeders, hose ends, hard lines"),
        practice,
        { drums ? tr("A drum cylinder that leaks soaks its linings: replace both sides before anything else.")
                : tr("A leak anywhere is mended before anything else."),
            tr("lamp"), {}, 10, false, smallJob() });
    add(Phase::Prepare, "car/eyes", "car", tr("Glasses and gloves on; brake dust is washed or drawn off, never blown"), practice,
        { tr("No compressed air on brake dust. Fluid harms eyes and eats paint."), tr("brake cleaner, tray, rags"), {}, 3, false,
            smallJob() });
    const Lift lift = liftOf(study_);
    std::string stands =
        tr("Wheels chocked, nuts loosened on the ground; car up on stands or a lift and shaken before anybody goes under it");
    if (!lift.moments.empty()) {
        const auto worst = std::ranges::min_element(lift.moments, {}, &OnLift::toArm);
        stands += tr(". On a lift: {} left with {}, {} from the nearer arms{}", print(worst->mass, style::carMass, study_.system),
            worst->what, print(worst->toArm, style::frame, study_.system),
            lift.strap() ? tr(": STRAP IT DOWN before the parts come off") : tr("; strap it all the same"));
    } else if (!lift.lacks.empty()) {
        stands += tr(". Where the weight hangs on a lift is not known ({}): strap it", lift.lacks);
    }
    add(Phase::Prepare, "car/stands", "car", stands, "/car/mass_kg",
        { smallJob() ? tr("Stands, not the jack alone. Strap the car on a lift. Glasses and gloves on; no compressed air on brake dust.")
                     : tr("Stands, not the jack alone. Strap the car on a lift."),
            tr("jack, stands, chocks"), {}, 10 });
    if (axleIn(Axle::Rear) && work(Axle::Rear).any()) {
        if (hub(Axle::Rear).electricParking == YesNo::Yes)
            add(Phase::Prepare, "car/parking-service", "car", tr("Put the electric parking brake into its service mode"),
                hubPointer(Axle::Rear, "electric_parking"),
                { tr("Its motor crushes fingers and breaks when it is driven without the rotor."), tr("diagnostic tool"), {}, 5 });
        else if (hub(Axle::Rear).electricParking == YesNo::Unknown)
            add(Phase::Prepare, "car/parking-kind", "car",
                tr("Find out whether a motor works the parking brake: it then needs its service mode first"),
                hubPointer(Axle::Rear, "electric_parking"), { tr("Its motor crushes fingers."), {}, {}, 3 });
    }
    if (opensLine() && !smallJob())
        add(Phase::Prepare, "car/pedal-down", "car",
            tr("Prop the pedal slightly down while lines are open, so that the reservoir does not run dry"), practice,
            { {}, tr("pedal prop, caps for open ends"), {}, 3 });
}

void Writer::tag()
{
    eachCorner([&](Axle axle, Side side, const std::string& id, const std::string& corner) {
        const Corner& c = now(axle);
        const bool sided = c.brakes == BrakeKind::Discs && c.rotor.handed == Handed::Sided;
        const std::string which = side == Side::Left ? "LEFT" : "RIGHT";
        add(Phase::Tag, id + "/tag", corner,
            tr("Tag caliper, rotor, pads, hose and bolts {}{}", which,
                sided ? tr("; this rotor fits this side only: its vanes lean back from the way it turns") : ""),
            sided ? pointerOf(study_.after, axle) + "/rotor/handed" : practice,
            { tr("Left and right swapped: bleeders end up at the bottom and vanes pump backwards."), tr("tags, felt pen"),
                { field(study_.after, axle, side, "rotor_mark"), field(study_.after, axle, side, "caliper_mark") }, 3, false,
                work(axle).small() });
    });
}

void Writer::recordOld()
{
    eachCorner([&](Axle axle, Side side, const std::string& id, const std::string& corner) {
        if (!was(axle))
            return;
        const bool drum = was(axle)->brakes == BrakeKind::Drums;
        add(Phase::Record, id + "/old", corner,
            tr("Write down the old: lining and {} thickness; photograph hose routing and {}{}", drum ? tr("drum") : tr("rotor"),
                drum ? tr("springs") : tr("clips"),
                !drum && !work(axle).rotor ? tr(". The rotor stays: look for cracks, blue spots and a lip of rust at its edge") : ""),
            idOf(checks::wornPad, { .axle = axle, .found = true }),
            { {}, tr("vernier, micrometer, camera"),
                drum ? std::vector<std::string> { field(study_.before, axle, side, "lining_thickness_mm") }
                     : std::vector<std::string> { field(study_.before, axle, side, "lining_thickness_mm"),
                         field(study_.before, axle, side, "ring_thickness_mm") },
                5, !work(axle).any() });
    });
}

void Writer::strip()
{
    eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
        if (!was(axle))
            return;
        const bool bolts = hub(axle).heldBy == WheelHeldBy::Bolts;
        add(Phase::Strip, id + "/wheel-off", corner,
            bolts ? tr("Wheel off; a guide pin in one hole takes its weight from the last bolt") : tr("Wheel off"),
            hubPointer(axle, "wheel_held_by"), { {}, bolts ? tr("guide pin, socket") : tr("socket"), {}, 3, !work(axle).any() });
        if (hub(axle).speedSensor != YesNo::No)
            add(Phase::Strip, id + "/sensor-wire", corner,
                hub(axle).speedSensor == YesNo::Yes ? tr("Unclip the wheel-speed sensor's wire and keep it clear")
                                                    : tr("Look for a wheel-speed sensor's wire: unclip it and keep it clear"),
                hubPointer(axle, "speed_sensor"), { {}, {}, {}, 2, !work(axle).mockedUp() });
        if (was(axle)->brakes == BrakeKind::Drums) {
            add(Phase::Strip, id + "/drum-off", corner, tr("Adjuster back, drum off; look at cylinder, springs and linings"),
                pointerOf(study_.before, axle) + "/drum/kind",
                { tr("Springs fly: glasses. A leaking cylinder is replaced on both sides."), tr("spring tool"), {}, 15,
                    !work(axle).rotor && !work(axle).pads });
        } else {
            if (was(axle)->pad.wearSensor == YesNo::Yes)
                add(Phase::Strip, id + "/wear-sensor", corner, tr("Unplug the wear sensor before the caliper moves"),
                    pointerOf(study_.before, axle) + "/pad/wear_sensor");
            const bool comesOff = work(axle).pads || work(axle).mockedUp();
            // A lip of rust holds old pads back, and would tear the piston's boot.
            add(Phase::Strip, id + "/caliper-off", corner,
                work(axle).rotor || !work(axle).pads ? tr("Caliper off and hung up by wire, never by its hose; its hose stays closed")
                                                     : tr("Old pads pushed back from the rotor's lip first. Caliper off and hung up by "
                                                          "wire, never by its hose; its hose stays "
                                                          "closed"),
                practice,
                { tr("A caliper that hangs on its hose breaks it inside. Fluid eats paint and skin."), tr("sockets, wire"), {}, 15,
                    !comesOff });
            if (work(axle).pads && !work(axle).caliper)
                add(Phase::Strip, id + "/pistons-back", corner,
                    tr("Pistons pushed back for the thicker new linings, slowly, one after the other; the reservoir is watched and fluid "
                       "taken off"),
                    practice,
                    { tr("A reservoir that runs over ruins paint. A piston that turns back on a parking brake's thread is screwed, not "
                         "pressed."),
                        tr("piston tool, syringe"), {}, 6 });
            if (work(axle).widened) {
                add(Phase::Strip, id + "/halves-parted", corner,
                    tr("Line opened at its hard end, capped and wiped; caliper drained, washed outside, halves parted on a clean bench, "
                       "seals "
                       "of the "
                       "fluid passage and pistons out and thrown away"),
                    pointerOf(study_.after, axle) + "/caliper/split",
                    { tr("From here on the car does not drive until it is whole and bled. Fluid eats paint and skin; no mineral oil on "
                         "seals."),
                        tr("line spanner, caps, tray, brake cleaner"), {}, 40 });
                add(Phase::Strip, id + "/halves-joined", corner,
                    tr("Spacers in, the fluid passage's side the right way round; new seals of the right section; longer bridge bolts of "
                       "the "
                       "spacer "
                       "maker's class, in three rounds from the middle outward to the spacer maker's torque; inner and outer bolts may "
                       "differ"),
                    pointerOf(study_.after, axle) + "/caliper/slot_width_mm",
                    { tr("A pressure-bearing part that was altered: a qualified engineer has to judge it."), tr("torque wrench, seals"), {},
                        40 });
                add(Phase::Strip, id + "/leak-tested", corner,
                    tr("Leak test on the bench: pistons held by a block as thick as the rotor, pressed hard with clean fluid for five "
                       "minutes, dry paper "
                       "at every joint"),
                    practice,
                    { tr("Pistons shoot out of a caliper without a block: never compressed air."), tr("block, master cylinder, paper"), {},
                        20 });
            }
            if (hub(axle).parkingBrake == ParkingBrake::DrumInHat)
                add(Phase::Strip, id + "/shoes-back", corner,
                    tr("Parking brake off, its shoes turned back, so that the hat comes over them"), hubPointer(axle, "parking_brake"),
                    { {}, tr("screwdriver through the hat's hole"), {}, 5, !rotorOff(axle) });
            parkingOff(axle, id, corner);
            add(Phase::Strip, id + "/rotor-off", corner, tr("Rotor off; no hammer on what goes back on"), practice,
                { {}, {}, {}, 5, !rotorOff(axle) });
        }
        shield(axle, id, corner);
        add(Phase::Strip, id + "/bag", corner, tr("Bag and label every bolt, clip and shim, so that the car can go back"), practice,
            { {}, tr("bags, felt pen"), {}, 3, false, work(axle).small() });
    });
}

void Writer::mockUp()
{
    eachCorner([&](Axle axle, Side side, const std::string& id, const std::string& corner) {
        const Corner& c = now(axle);
        const AxleWork& w = work(axle);
        if (hub(axle).shieldInTheWay == YesNo::Yes && std::ranges::find(c.cuts, Cut::TrimShield) != c.cuts.end())
            firstCut(axle, id, corner);
        add(Phase::MockUp, id + "/hub-clean", corner, tr("Hub face and pilot bare and clean, a straight-edge lies on it"), practice,
            { {}, tr("wire wheel, straight-edge"), {}, 8, !rotorOff(axle) });
        if (c.ring.value && *c.ring.value > 0)
            add(Phase::MockUp, id + "/hub-ring", corner,
                tr("Ring of {} between hub and rotor, flat and clean", length(c.ring, style::fine)),
                pointerOf(study_.after, axle) + "/ring_mm", { {}, {}, {}, 2, !rotorOff(axle) });
        adapterRing(axle, id, corner);
        if (c.brakes == BrakeKind::Drums) {
            add(Phase::MockUp, id + "/drum-on", corner, tr("Drum on over the shoes and turned by hand: nothing drags but the linings"),
                pointerOf(study_.after, axle) + "/drum/kind", { {}, {}, {}, 8, !w.rotor && !w.pads });
        } else {
            add(Phase::MockUp, id + "/rotor-on", corner, tr("Rotor on, held flat by three wheel nuts; it touches the hub all round"),
                idOf(checks::bore, { axle }), { {}, tr("nuts, washers"), {}, 5, !rotorOff(axle) });
            add(Phase::MockUp, id + "/caliper-loose", corner,
                tr("Bracket and caliper on, bolts by hand; the bleeder is at the highest point"), idOf(checks::bleeder, { axle }),
                { tr("A bleeder that is not on top keeps its air: the pedal goes to the floor."), {}, {}, 10, !w.mockedUp() });
            std::vector<std::string> gaps;
            for (std::size_t i = 0; i < build_.mockUps.size(); ++i) {
                const MockUp& m = build_.mockUps[i];
                if (m.setup == study_.after.setup->id && m.axle == axle && m.side == side)
                    for (const char* key : { "inner_top_mm", "outer_top_mm", "inner_bottom_mm", "outer_bottom_mm" })
                        gaps.push_back(fmt::format("/mock_ups/{}/{}", i, key));
            }
            add(Phase::MockUp, id + "/gaps", corner,
                tr("Read the four gaps between rotor and caliper, the play taken up the same way each time{}",
                    says(checks::axial, { axle, side })),
                idOf(checks::axial, { axle, side }), { {}, tr("vernier or gauges"), std::move(gaps), 10, !w.mockedUp() });
            add(Phase::MockUp, id + "/pad-edge", corner,
                tr("Pads in: their edge lies on the rotor's face, not over it{}", says(checks::padEdge, { axle })),
                idOf(checks::padEdge, { axle }),
                { {}, tr("vernier"), { field(study_.after, axle, side, "pad_inset_mm") }, 5, !w.mockedUp() });
        }
        add(Phase::MockUp, id + "/wheel-on", corner,
            tr("Wheel on with its spacer, turned a whole turn by hand: nothing touches{}", says(checks::barrelGap, { axle })),
            idOf(checks::barrelGap, { axle }),
            { {}, tr("clay or tape on the caliper"), { pointerOf(study_.after, axle) + "/washers_mm" }, 10, !w.mockedUp() });
        add(Phase::MockUp, id + "/hose-moves", corner,
            axle == Axle::Front ? tr("Hose at full droop and both full locks: never taut, never near wheel or rotor")
                                : tr("Hose at full droop and full bump: never taut, never near wheel or rotor"),
            idOf(checks::hoseLength, { axle }),
            { tr("A hose that rubs or pulls bursts when it is needed most."), {}, {}, 5, !w.hose || w.small() });
    });
}

void Writer::firstCut(Axle axle, const std::string& id, const std::string& corner)
{
    add(Phase::MockUp, id + "/bracket-offered", corner,
        tr("Bracket, or caliper, offered up to the lugs with the shield as it is: its holes meet the lugs, and the shield is marked where "
           "it "
           "strikes"),
        hubPointer(axle, "shield_in_the_way"), { {}, tr("felt pen, template"), {}, 8 });
    Step& s = add(Phase::MockUp, id + "/first-cut", corner,
        tr("First, rough cut of the dust shield, well outside the template's line, only so far that rotor and bracket go on; or the "
           "shield, "
           "or the "
           "whole hub unit, comes off for the mock-up and nothing is cut yet"),
        hubPointer(axle, "shield_in_the_way"),
        { tr("This cannot be undone. Keep what covers the parking brake's shoes and the sensor."), tr("shears, file, template"), {}, 20 });
    s.irreversible = s.gated = true;
    s.waits = blockersOfFirstCut(study_, axle);
    s.open = s.waits.empty();
}

void Writer::irreversible()
{
    eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
        weldsDrilled(axle, id, corner);
        for (const Cut cut : now(axle).cuts) {
            const auto words = std::string(wordFor(cut, choices::cut));
            Step& s = add(Phase::Irreversible, id + "/cut-" + slug(tokenFor(cut, choices::cut)), corner,
                fmt::format("{}{}", static_cast<char>(words[0] - 'a' + 'A'), words.substr(1)), pointerOf(study_.after, axle) + "/cuts",
                { tr("This cannot be undone. Have machined, drilled and ground parts judged by a qualified engineer or licensed mechanic."),
                    {}, {}, 30 });
            s.irreversible = s.gated = true;
            s.waits = blockersOf(study_, axle, cut);
            s.open = s.waits.empty();
        }
    });
}

} // namespace deepstop::jobcard
