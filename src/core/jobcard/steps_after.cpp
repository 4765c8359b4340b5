#include "jobcard/steps.hpp"

#include "build/choices.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/stopping/checks.hpp"
#include "language/language.hpp"

namespace deepstop::jobcard {

void Writer::bleed()
{
    propOut();
    const Procedure s = bleedingOf(study_, record_);
    const Hydraulics& h = *study_.after.hydraulics;
    const bool opened = opensLine();
    const bool byTwo = record_.bleedMethod == BleedMethod::TwoPeople || record_.bleedMethod == BleedMethod::Unknown;
    if (smallJob() && opened) {
        std::string wheels;
        for (const Axle axle : axles_)
            if (work(axle).opensLine())
                wheels = wheels.empty() ? judge::wordFor(axle) : tr("{} and {}", wheels, judge::wordFor(axle));
        add(Phase::Bleed, "car/bleed-opened", "car",
            tr("Bleed both {} wheels until no bubble comes, the far one first, with fresh, unopened fluid of the same class; the "
               "reservoir never runs dry. If it did, bleed all four",
                wheels),
            choice("bleed_order"),
            { tr("A reservoir that ran dry puts air into the antilock unit, and that wants a tool. Fluid eats paint."),
                tr("fluid, hose, bottle, a helper"), {}, 25 });
        add(Phase::Bleed, "car/pressed", "car",
            tr("A hard foot for a minute, engine on: the pedal does not sink; every joint that was open is dry"), practice,
            { tr("A pedal that sinks leaks somewhere: the car does not move."), tr("lamp"), {}, 5 });
        return;
    }
    add(Phase::Bleed, "car/fluid", "car",
        h.fluid == FluidClass::Unknown ? tr("Fresh fluid of the class the car's maker asks for; which class is not said")
                                       : tr("Fresh, unopened {}; old and new are not mixed by halves", wordFor(h.fluid, choices::fluid)),
        fmt::format("/setups/{}/hydraulics/fluid", study_.after.setup->hydraulics ? study_.after.setup - build_.setups.data() : 0),
        { tr("Fluid eats paint and harms eyes; water thins what it stands."), tr("fluid, hose, bottle"), {}, 3, !opened });
    // What was not opened wants no bleeding as long as the reservoir never ran dry; nobody having said so, it may have.
    const bool onlyOpened = record_.reservoirRanDry == YesNo::No && !otherHydraulics();
    for (std::size_t i = 0; i < s.steps.size(); ++i) {
        const bool front = s.steps[i].starts_with("front");
        const bool rear = s.steps[i].starts_with("rear");
        const Axle axle = front ? Axle::Front : Axle::Rear;
        const bool shut = onlyOpened && (front || rear) && !(axleIn(axle) && work(axle).opensLine());
        add(Phase::Bleed, fmt::format("car/bleed-{}", i + 1), "car",
            tr("Bleed {}: until no bubble comes; reservoir kept full. {}{}", s.steps[i], i == 0 ? s.title + ". " + s.why : std::string(),
                i == 0 && record_.reservoirRanDry == YesNo::Yes
                    ? tr(" The reservoir ran dry: bleed all four, and the antilock unit as the car's maker says")
                    : ""),
            choice("bleed_order"),
            { i == 0 ? tr("The reservoir must not run dry: air in an antilock unit wants a tool.") : "",
                byTwo ? tr("a helper at the pedal") : "", {}, 12, !opened || shut });
    }
    if (opened)
        add(Phase::Bleed, "car/bleed-again", "car",
            tr("Bleed the wheels that were opened once more, a short round: the first one shakes air loose that comes only now"), practice,
            { {}, byTwo ? tr("a helper at the pedal") : "", {}, 10, false, record_.bleedMethod == BleedMethod::Pressure });
    add(Phase::Bleed, "car/pressed", "car",
        tr("A hard foot for a minute, engine on: the pedal does not sink; every joint that was open is dry"), practice,
        { tr("A pedal that sinks leaks somewhere: the car does not move."), tr("lamp"), {}, 5, !opened });
}

void Writer::wheels()
{
    eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
        const bool bolts = hub(axle).heldBy == WheelHeldBy::Bolts;
        spacer(axle, id, corner);
        const bool centre = hub(axle).heldBy == WheelHeldBy::CentreLock || hub(axle).heldBy == WheelHeldBy::KnockOff;
        if (centre) {
            add(Phase::Wheels, id + "/nuts", corner,
                hub(axle).heldBy == WheelHeldBy::KnockOff
                    ? tr("Wheel on its splines, knock-off on by hand: it tightens against the way the wheel turns going forward, else the "
                         "hubs are on the wrong sides. Driven home, its pin or wire in{}",
                        says(checks::studs, { axle }))
                    : tr("Wheel on its drive pins, all of them in; centre nut by hand, greased as its maker says, to his torque, its pin "
                         "or clip in{}",
                        says(checks::studs, { axle })),
                idOf(checks::studs, { axle }),
                { tr("One nut holds this wheel: a second person looks at the pin."), tr("torque wrench"), {}, 6 });
            return;
        }
        add(Phase::Wheels, id + "/nuts", corner,
            tr("Wheel on; {} by hand as far as they go, counted turns{}; then crosswise in two rounds to the car maker's torque",
                bolts ? tr("wheel bolts") : tr("nuts"), says(checks::studs, { axle })),
            idOf(checks::studs, { axle }),
            { bolts ? tr("Too short a bolt strips, too long a one jams the brake or drum behind it.")
                    : tr("Fewer turns than the stud's diameter needs is not held."),
                tr("torque wrench"), {}, 6 });
    });
}

void Writer::beforeMoving()
{
    if (!smallJob())
        add(Phase::BeforeMoving, "car/pedal-free", "car", tr("The prop is out from under the pedal, and nothing lies round the pedals"),
            practice, { tr("A prop left in takes the brakes away."), {}, {}, 1 });
    if (smallJob()) {
        add(Phase::BeforeMoving, "car/walking", "car",
            tr("Pump the pedal until it is high and hard BEFORE the car moves; each wheel turns free with the pedal up. Then from walking "
               "pace, "
               "on a closed place: it stops, straight, without noise"),
            idOf(checks::stopLimit),
            { tr("The first push finds nothing: the pistons are still back. The first stops are slow ones; stop at the first pull or soft "
                 "pedal."),
                {}, {}, 8 });
        return;
    }
    add(Phase::BeforeMoving, "car/pump", "car", tr("Pump the pedal until it is high and hard, BEFORE the car moves"), practice,
        { tr("The first push finds nothing: the pistons are still back."), {}, {}, 2 });
    add(Phase::BeforeMoving, "car/turns", "car", tr("Each wheel turns free with the pedal up, and holds with it down"), practice,
        { {}, {}, {}, 4 });
    for (const Axle axle : axles_) {
        parkingAdjusted(axle);
        const ParkingBrake kind = hub(axle).parkingBrake;
        if (kind == ParkingBrake::None)
            continue;
        if (axle == Axle::Rear || kind != ParkingBrake::Unknown)
            add(Phase::BeforeMoving, tokenOf(axle) + "/parking", judge::wordFor(axle),
                hub(axle).electricParking == YesNo::Yes
                    ? tr("Electric parking brake out of its service mode, cycled, and it holds on a slope")
                    : tr("Parking brake adjusted: it holds on a slope and lets go"),
                hubPointer(axle, "parking_brake"), { {}, {}, {}, 6 });
    }
    add(Phase::BeforeMoving, "car/level", "car", tr("Fluid between min and max, cap on, no warning light"), practice);
    add(Phase::BeforeMoving, "car/cabin", "car", tr("Nothing loose in cabin and boot, tools counted and out of the engine bay, belts on"),
        practice, { tr("What lies loose flies forward in a full stop, or under the pedals."), {}, {}, 2 });
    add(Phase::BeforeMoving, "car/walking", "car", tr("From walking pace, a closed place: it stops, straight, without noise"),
        idOf(checks::stopLimit), { tr("The first stops are slow ones; stop at the first pull or soft pedal."), {}, {}, 5 });
}

void Writer::bedIn()
{
    const Procedure s = beddingOf(study_, record_);
    for (const Axle axle : axles_)
        if (now(axle).brakes == BrakeKind::Discs && now(axle).rotor.ringMaterial == RingMaterial::CarbonCeramic)
            add(Phase::BedIn, tokenOf(axle) + "/ceramic", judge::wordFor(axle),
                tr("Carbon-ceramic rotors: bedded only as their maker says, with his pads; nothing of what follows holds for them. Weighed "
                   "clean "
                   "and dry first, and the weight written down"),
                pointerOf(study_.after, axle) + "/rotor/ring_material",
                { tr("Wheels go on with a guide pin: a rim that knocks the edge of such a rotor chips it."), tr("scale, guide pin"),
                    { field(study_.after, axle, Side::Left, "rotor_mass_kg"), field(study_.after, axle, Side::Right, "rotor_mass_kg") }, 15,
                    !work(axle).rotor });
    const bool needed = std::ranges::any_of(axles_, [&](Axle axle) { return work(axle).pads || work(axle).rotor; });
    if (smallJob()) {
        std::string all;
        for (const auto& step : s.steps)
            all += (all.empty() ? "" : "; ") + step;
        add(Phase::BedIn, "car/bed-1", "car", fmt::format("{}. {} {}", s.title, s.why, all), choice("bedding"),
            { tr("Only where it is legal and nobody is behind. New pads bite late until they are bedded."), {}, {}, 30, !needed });
        return;
    }
    for (std::size_t i = 0; i < s.steps.size(); ++i)
        add(Phase::BedIn, fmt::format("car/bed-{}", i + 1), "car",
            fmt::format("{}{}", i == 0 ? s.title + ". " + s.why + " " : std::string(), s.steps[i]), choice("bedding"),
            { i == 0 ? tr("Only where it is legal and nobody is behind. New pads bite late until they are bedded.") : "", {}, {}, 15,
                !needed });
}

void Writer::reCheck()
{
    eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
        add(Phase::ReCheck, id + "/first-drive", corner,
            tr("After the first drive{}: no leak, bolts at their marks, nuts at torque, nothing has touched",
                work(axle).small() ? tr(", and again after {}", print(100e3, style::odometer, study_.system)) : std::string()),
            idOf(checks::barrelGap, { axle }), { {}, tr("torque wrench, lamp"), {}, 6 });
    });
    if (smallJob())
        return;
    add(Phase::ReCheck, "car/later", "car",
        tr("After {} to {}: bolts and nuts once more, linings, hoses", print(80e3, style::odometer, study_.system),
            print(160e3, style::odometer, study_.system)),
        practice, { {}, tr("torque wrench"), {}, 20 });
}

} // namespace deepstop::jobcard
