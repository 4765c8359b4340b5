#include "jobcard/steps.hpp"

#include "build/choices.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"

namespace deepstop::jobcard {

std::string Writer::nutWords(const Joint& j)
{
    std::string text;
    if (j.nut != NutKind::Unknown && j.nut != NutKind::None)
        text += tr("; nuts: {}{}{}", wordFor(j.nut, choices::nut),
            j.nutClass == NutClass::Unknown ? std::string() : tr(", class {}", wordFor(j.nutClass, choices::nutClass)),
            j.nutSingleUse == YesNo::Yes ? tr(", new ones") : "");
    if (j.washers != WashersUnder::Unknown)
        text += j.washers == WashersUnder::None ? tr("; no washers") : tr("; washers {}", wordFor(j.washers, choices::washersUnder));
    return text;
}

std::string Writer::lineWords(Axle axle) const
{
    std::vector<std::string> parts;
    for (const LinePart& part : now(axle).hose.chain)
        parts.push_back(part.name.empty() ? std::string(wordFor(part.kind, choices::linePart)) : part.name);
    return parts.empty() ? std::string() : tr(". From the caliper: {}", listed(parts, ", "));
}

void Writer::parkingOff(Axle axle, const std::string& id, const std::string& corner)
{
    if (axle != Axle::Rear || hub(axle).parkingBrake != ParkingBrake::InCaliper)
        return;
    const bool motor = hub(axle).electricParking == YesNo::Yes;
    add(Phase::Strip, id + "/parking-off", corner,
        motor ? tr("In service mode: the motor's connector unplugged and tied out of the way")
              : tr("Parking brake off, its cable slackened at the adjuster, then unhooked from the caliper's lever"),
        hubPointer(axle, "parking_brake"),
        { tr("Chocks stay in: nothing holds the car now."), motor ? tr("diagnostic tool") : "pliers", {}, 5, !work(axle).caliper });
}

void Writer::parkingOn(Axle axle, const std::string& id, const std::string& corner)
{
    const CaliperParking kind = now(axle).caliper.parking;
    if (kind != CaliperParking::Lever && kind != CaliperParking::Electric)
        return;
    add(Phase::Assemble, id + "/parking-on", corner,
        kind == CaliperParking::Lever
            ? tr("Cable hooked into the caliper's lever, its sleeve home in its stop, the lever on its rest{}",
                says(checks::parkingBrake, { axle }))
            : tr("The motor's connector plugged in, its wire clear of the wheel{}", says(checks::parkingBrake, { axle })),
        pointerOf(study_.after, axle) + "/caliper/parking",
        { kind == CaliperParking::Lever ? tr("A lever that is held off its rest keeps the adjuster from working, and the pads drag.")
                                        : tr("The motor stays in its service mode until the rotor is on."),
            {}, { pointerOf(study_.after, axle) + "/lever_returns" }, 5, !work(axle).caliper });
}

void Writer::parkingAdjusted(Axle axle)
{
    if (now(axle).brakes != BrakeKind::Discs || now(axle).caliper.parking != CaliperParking::Lever || !work(axle).caliper)
        return;
    add(Phase::BeforeMoving, tokenOf(axle) + "/parking-set", judge::wordFor(axle),
        tr("Pedal hard first; then the cable set so that both levers lie on their rests without play. Pulled ten times and let go: both "
           "levers go "
           "back, both wheels turn free"),
        idOf(checks::parkingBrake, { axle }), { tr("Set before the pedal is hard, it is set wrong."), tr("spanner"), {}, 10 });
}

void Writer::adapterRing(Axle axle, const std::string& id, const std::string& corner)
{
    const AdapterRing& ring = now(axle).adapter;
    if (!ring.inside.value && !ring.outside.value && ring.sits == RingSits::Unknown)
        return;
    const bool collar = ring.step.value && *ring.step.value > 0;
    add(Phase::MockUp, id + "/adapter-ring", corner,
        tr("Adapter ring {}{}: it turns without play and the rotor lies flat over it{}",
            ring.sits == RingSits::Unknown ? std::string(tr("on pilot or in hat")) : std::string(wordFor(ring.sits, choices::ringSits)),
            collar && ring.stepSide != Direction::Unknown ? tr(", its collar {}", wordFor(ring.stepSide, choices::direction))
                                                          : std::string(),
            says(checks::adapterRing, { axle })),
        idOf(checks::adapterRing, { axle }), { {}, tr("vernier"), {}, 3, !rotorOff(axle) });
}

void Writer::shield(Axle axle, const std::string& id, const std::string& corner)
{
    const ShieldPart& part = now(axle).shield;
    const bool off = part.state == ShieldState::Removed || part.state == ShieldState::Replaced;
    if (!off || part.spotWeldsDrilled == YesNo::Yes)
        return;
    add(Phase::Strip, id + "/shield-off", corner,
        tr("Dust shield off{}{}", part.state == ShieldState::Replaced ? tr(", the new one on") : "",
            part.lies == PlateLies::KnuckleAndHub
                ? tr(". Its plate lies between knuckle and hub: the hub unit comes off, and its bolts are new")
                : part.lies == PlateLies::FlangeAndRotor ? tr(". Its plate lies between flange and rotor")
                                                         : ""),
        pointerOf(study_.after, axle) + "/dust_shield/state",
        { tr("Keep it: without it the car may not pass inspection, and it cannot go back to what it was."), tr("sockets"), {},
            part.lies == PlateLies::KnuckleAndHub ? 60.0 : 10.0 });
}

void Writer::weldsDrilled(Axle axle, const std::string& id, const std::string& corner)
{
    const ShieldPart& part = now(axle).shield;
    if (part.spotWeldsDrilled != YesNo::Yes)
        return;
    Step& s = add(Phase::Irreversible, id + "/shield-welds", corner,
        tr("Spot welds of the dust shield drilled out, only through the shield's sheet; edges painted"),
        pointerOf(study_.after, axle) + "/dust_shield/spot_welds_drilled",
        { tr("This cannot be undone. A hole in the knuckle is the end of the knuckle."), tr("spot-weld drill, paint"), {}, 30 });
    s.irreversible = s.gated = true;
    s.waits = blockersOf(study_, axle, Cut::TrimShield);
    s.open = s.waits.empty();
}

void Writer::spacer(Axle axle, const std::string& id, const std::string& corner)
{
    const Corner& c = now(axle);
    if (!c.spacer.value || !(*c.spacer.value > 0))
        return;
    const bool bolted = c.spacerPart.kind == SpacerKind::Bolted;
    Step& s = add(Phase::Wheels, id + "/spacer", corner,
        bolted ? tr("Spacer of {} on a clean face, sitting on the pilot; its own nuts crosswise{}; the hub's studs end inside it{}",
            length(c.spacer, style::size),
            c.spacerPart.torque.value ? tr(" to {}", print(*c.spacerPart.torque.value, style::torque, study_.system))
                                      : std::string(tr(": torque not known, ask its maker")),
            says(checks::proudStuds, { axle }) + says(checks::spacerNuts, { axle }))
               : tr("Spacer of {} on a clean face, sitting on the pilot", length(c.spacer, style::size)),
        pointerOf(study_.after, axle) + "/spacer_mm",
        { bolted ? tr("Its nuts cannot be seen with the wheel on: torque them now, and again after 50 miles.") : "",
            bolted ? tr("torque wrench") : "", {}, bolted ? 8.0 : 2.0 });
    const Verdict* nuts = study_.verdict(checks::spacerNuts, { axle });
    if (bolted && c.spacerPart.torque.value && nuts && isFine(nuts->level))
        s.torque = *c.spacerPart.torque.value;
}

void Writer::wearSensor(Axle axle, Side side, const std::string& id, const std::string& corner)
{
    const Corner& c = now(axle);
    if (c.pad.wearSensor != YesNo::Yes && *c.at(side).wearSensor == SensorUse::Unknown)
        return;
    std::string text = tr("Wear sensor plugged in and its wire clear of the wheel");
    switch (*c.at(side).wearSensor) {
    case SensorUse::New:
        text = tr("New wear sensor plugged in, its wire clear of the wheel");
        break;
    case SensorUse::Reused:
        text = tr("The old wear sensor looked at, its tip not worn through; plugged in, its wire clear of the wheel");
        break;
    case SensorUse::None:
        text = tr("No wear sensor on this side: its plug closed or bridged as the car's maker says, its wire tied up");
        break;
    case SensorUse::Unknown:
        break;
    }
    add(Phase::Assemble, id + "/sensor-in", corner, text, pointerOf(study_.after, axle) + "/pad/wear_sensor",
        { {}, {}, { field(study_.after, axle, side, "wear_sensor") } });
}

void Writer::hoseLed(Axle axle, const std::string& id, const std::string& corner)
{
    if (!work(axle).hose)
        return;
    add(Phase::Hoses, id + "/hose-held", corner,
        tr("Hose in its clip or bracket at the strut, a grommet wherever it passes through{}", says(checks::hoseHeld, { axle })),
        idOf(checks::hoseHeld, { axle }), { tr("A hose that nothing holds finds the wheel."), {}, {}, 3 });
}

} // namespace deepstop::jobcard
