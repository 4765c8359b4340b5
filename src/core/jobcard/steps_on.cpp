#include "jobcard/steps.hpp"

#include "build/choices.hpp"
#include "centring/drawer.hpp"
#include "chapters/centring/centring_chapter.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/joints/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "joints/bolts.hpp"

namespace deepstop::jobcard {
namespace {

std::string threadWords(Condition condition)
{
    switch (condition) {
    case Condition::Threadlocker:
        return "threadlocker";
    case Condition::WickingThreadlocker:
        return "dry, wicking threadlocker afterwards";
    case Condition::AntiSeize:
        return "anti-seize";
    case Condition::Oiled:
        return "oiled";
    case Condition::Dry:
        return "dry";
    case Condition::Unknown:
        break;
    }
    return "threads not said";
}

} // namespace

std::string Writer::doubtOf(Axle axle, std::size_t index) const
{
    for (const Check* check : { &checks::jointThread, &checks::jointEnd, &checks::jointShank, &checks::jointSlip }) {
        const Verdict* v = study_.verdict(*check, { .axle = axle, .number = static_cast<int>(index) + 1 });
        if (v && isBad(v->level))
            return fmt::format("{}: {}", v->title, v->reason);
    }
    return {};
}

void Writer::joint(Axle axle, std::size_t index, const std::string& id, const std::string& corner)
{
    const Joint& j = now(axle).joints[index];
    const std::string verdict = idOf(checks::jointTorque, { .axle = axle, .number = static_cast<int>(index) + 1 });
    const Verdict* v = study_.verdict(verdict);
    std::string text = fmt::format("{} × {}, {}, each begun by hand", j.bolts > 0 ? std::to_string(j.bolts) : "?",
        j.thread->empty() ? "thread not said" : *j.thread, j.name);
    // A torque that its check doubts (another condition of the threads, a wrong unit), or for bolts that do not do, is not one to pull.
    const auto doubt = doubtOf(axle, index);
    const bool known = v && v->figure.value && (isFine(v->level) || v->level == Level::Caution) && doubt.empty();
    if (known)
        text += fmt::format(
            ": {}{}", print(*v->figure.value, style::torque, study_.system), isFine(v->level) ? std::string() : ". " + v->reason);
    else if (!doubt.empty())
        text += ": TORQUE IN DOUBT. " + doubt;
    else
        text += v && v->level != Level::Unproven ? ": TORQUE IN DOUBT, ask its maker. " + v->reason
                                                 : std::string(": torque not known, ask its maker");
    text += nutWords(j);
    if (j.bolts > 2) {
        text += ", in the order";
        for (const int bolt : joints::tighteningOrder(j.bolts))
            text += fmt::format(" {}", bolt + 1);
        text += fmt::format(", in {} rounds", joints::tighteningRounds(j.bolts).size());
    }
    More more { {}, "torque wrench", {}, 6 };
    if (j.condition == Condition::AntiSeize)
        more.caution = "Anti-seize: the torque is the one for greased threads; a dry one would overstretch them.";
    else if (j.condition == Condition::Threadlocker)
        more.caution = "Threads degreased, fresh threadlocker on each; marked when it is done.";
    else if (j.condition == Condition::WickingThreadlocker)
        more.caution = "Tightened dry to this torque; then one drop of wicking threadlocker at each, once the rotor is cold. None before.";
    else if (j.condition == Condition::Unknown)
        more.caution = "Not said: whether threadlocker or anti-seize goes on these: the same torque is not right for both.";
    Step& s = add(Phase::Assemble, fmt::format("{}/joint-{}", id, index + 1), corner, text, verdict, std::move(more));
    s.threads = threadWords(j.condition);
    if (known)
        s.torque = *v->figure.value;
}

void Writer::assemble()
{
    eachCorner([&](Axle axle, Side side, const std::string& id, const std::string& corner) {
        const Corner& c = now(axle);
        // Bolts whose purpose is not said are tightened with the others.
        const auto joints = [&](bool hat) {
            for (std::size_t i = 0; i < c.joints.size(); ++i)
                if ((c.joints[i].joins == Joins::RingToHat) == hat)
                    joint(axle, i, id, corner);
        };
        if (c.brakes == BrakeKind::Drums) {
            add(Phase::Assemble, id + "/shoes-adjusted", corner, "Shoes adjusted until they just drag, then back; both sides alike",
                pointerOf(study_.after, axle) + "/drum/kind", { {}, {}, {}, 15, !work(axle).rotor && !work(axle).pads });
            joints(false);
            return;
        }
        const AxleWork& w = work(axle);
        if (w.rotor)
            joints(true);
        rotorOn(axle, id, corner);
        shims(axle, side, id, corner);
        if (w.any())
            joints(false);
        if (hub(axle).speedSensor != YesNo::No)
            add(Phase::Assemble, id + "/sensor-wire-back", corner,
                hub(axle).speedSensor == YesNo::Yes
                    ? "Wheel-speed sensor's wire back in its clips, clear of rotor and wheel"
                    : "If a wheel-speed sensor's wire was unclipped: back in its clips, clear of rotor and wheel",
                hubPointer(axle, "speed_sensor"), { {}, {}, {}, 2, !w.mockedUp() });
        add(Phase::Assemble, id + "/bleeder-up", corner, "Bleeder at the highest point; this is the caliper tagged for this side",
            idOf(checks::bleeder, { axle }),
            { "Bleeders down means calipers swapped left and right: the air never comes out.", {}, {}, 2, !w.caliper });
        // Bolts that nobody described are done up all the same.
        const bool described = std::ranges::any_of(
            c.joints, [](const Joint& j) { return j.joins == Joins::BracketToKnuckle || j.joins == Joins::CaliperToBracket; });
        if (!described && !w.small())
            add(Phase::Assemble, id + "/caliper-bolts", corner,
                "Caliper and bracket on their bolts, each begun by hand, tightened as their maker says; the bolts are not described yet",
                practice, { "Bolts that hold a caliper carry the brake: no guessed torque.", "torque wrench", {}, 6, !w.any() });
        add(Phase::Assemble, id + "/pads-in", corner,
            fmt::format("Pads in, lining to the rotor; backs and pins greased thinly, nothing on the faces{}",
                described || !w.small() ? "" : "; the caliper back on its bolts, begun by hand, tightened as the car's maker says"),
            practice, { "A pad put in backwards grinds steel on iron.", "high-temperature grease", {}, 6, !w.pads && !w.mockedUp() });
        wearSensor(axle, side, id, corner);
        parkingOn(axle, id, corner);
        add(Phase::Assemble, id + "/runout", corner,
            "Wheel bearing rocked by hand first, its play read: it moves the gauge as well. Then runout at the rotor's edge, nuts on, over "
            "one turn"
                + says(checks::runout, { axle }),
            idOf(checks::runout, { axle }),
            { "The gauge's foot stands on the knuckle, never on strut or body.", "dial gauge",
                { field(study_.after, axle, side, "runout_mm") }, 6, !rotorOff(axle) });
        if (hub(axle).parkingBrake == ParkingBrake::DrumInHat)
            add(Phase::Assemble, id + "/shoes-set", corner, "Parking brake's shoes adjusted inside the hat until they just drag, then back",
                hubPointer(axle, "parking_brake"), { {}, {}, {}, 8, !rotorOff(axle) });
    });
}

void Writer::rotorOn(Axle axle, const std::string& id, const std::string& corner)
{
    const Corner& c = now(axle);
    const AxleWork& w = work(axle);
    // A rotor that is not described may be of two pieces.
    if (c.rotor.construction != RotorBuild::OnePiece
        && std::ranges::none_of(c.joints, [](const Joint& j) { return j.joins == Joins::RingToHat; }))
        add(Phase::Assemble, id + "/hat-bolts", corner,
            c.rotor.construction == RotorBuild::TwoPiece
                ? "Ring on hat: bolts as the rotor's maker says, crosswise in rounds"
                : "If the rotor is of two pieces, ring on hat: bolts as its maker says, crosswise in rounds",
            pointerOf(study_.after, axle) + "/rotor/construction", { {}, "torque wrench", {}, 20, !w.rotor });
    add(Phase::Assemble, id + "/faces-clean", corner,
        "Both faces of the rotor washed with brake cleaner, also new ones; no finger on them after", practice,
        { "Oil left on a new rotor goes into the pads.", "brake cleaner", {}, 4, false, w.small() });
    if (c.rotor.handed == Handed::Sided)
        add(Phase::Assemble, id + "/vanes", corner, "Look once more: vanes lean back from the way this wheel turns going forward",
            pointerOf(study_.after, axle) + "/rotor/handed", { {}, {}, {}, 2, !rotorOff(axle) });
    if (c.rotor.ringPlay.value && *c.rotor.ringPlay.value > 0)
        add(Phase::Assemble, id + "/floats", corner,
            fmt::format("The ring floats freely on its hat, {} along the axle", length(c.rotor.ringPlay, style::fine)),
            pointerOf(study_.after, axle) + "/rotor/ring_play_mm", { {}, {}, {}, 2, !w.rotor });
}

void Writer::shims(Axle axle, Side side, const std::string& id, const std::string& corner)
{
    const AxleWork& w = work(axle);
    const Fitted& f = now(axle).at(side);
    if (f.shimTop.value || f.shimBottom.value) {
        const Verdict* centred = study_.verdict(checks::axial, { axle, side });
        const auto& all = study_.of<Centring>().corners;
        const auto own = std::ranges::find_if(all, [&](const CentringResult& r) { return r.axle == axle && r.side == side; });
        const bool good = centred && isFine(centred->level);
        // Those that are in, while they centre it; else those of the plan, to be read again.
        const std::string plan = !good && own != all.end() && own->plan
            ? fmt::format(". They do not centre it: by the plan {} at the top bolt, {} at the bottom bolt, then the gaps read again",
                centring::pileText(own->plan->top.shims, study_.system), centring::pileText(own->plan->bottom.shims, study_.system))
            : std::string();
        Step& s = add(Phase::Assemble, id + "/shims", corner,
            fmt::format("Shims: {} at the top bolt, {} at the bottom bolt{}{}", stack(f.shimTop), stack(f.shimBottom),
                f.shimTop.value.value_or(0) > 0 || f.shimBottom.value.value_or(0) > 0 ? ", each flat, clean and whole" : "", plan),
            idOf(checks::axial, { axle, side }), { {}, "micrometer", {}, 4, !w.mockedUp() });
        if (centred && !good) {
            s.gated = true;
            s.waits.push_back(fmt::format("{}: {}", centred->title, deepstop::nameOf(centred->level)));
            s.open = false;
        }
    }
}

void Writer::hoses()
{
    eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
        if (now(axle).brakes == BrakeKind::Drums && was(axle) && was(axle)->brakes == BrakeKind::Drums)
            return;
        if (!work(axle).opensLine())
            return;
        if (work(axle).small()) {
            add(Phase::Hoses, id + "/hose", corner,
                "Pedal propped slightly down; line opened at its hard end and capped; hose on with new crush washers, its line running "
                "straight, turned by hand at droop and full lock: clear"
                    + says(checks::hoseThread, { axle }),
                idOf(checks::hoseThread, { axle }),
                { "A crush washer is used once. A twisted hose loosens itself and chafes. Fluid eats paint and skin.",
                    "line spanner, pedal prop, caps, new washers", {}, 25 });
            hoseLed(axle, id, corner);
            return;
        }
        // Of a caliper that was parted the line is open already.
        if (!work(axle).widened)
            openLine(axle, id, corner);
        add(Phase::Hoses, id + "/washers", corner, "New crush washers at the banjo, both sides of it", practice,
            { "A crush washer is used once: an old one weeps.", "new washers, torque wrench", {}, 5 });
        add(Phase::Hoses, id + "/hose", corner,
            "Hose on without a twist (its line runs straight), turned by hand at droop and full lock: clear" + lineWords(axle)
                + says(checks::hoseThread, { axle }),
            idOf(checks::hoseThread, { axle }), { "A twisted hose loosens itself and chafes.", "line spanner", {}, 10 });
        hoseLed(axle, id, corner);
    });
}

void Writer::openLine(Axle axle, const std::string& id, const std::string& corner)
{
    // Up to here only what hangs on the wheels came off: it goes back on, and nothing needs bleeding.
    double back = 0;
    for (const Step& s : steps_)
        if (s.phase == Phase::Strip && !s.optional)
            back += s.minutes;
    const bool discs = now(axle).brakes == BrakeKind::Discs;
    Step& s = add(Phase::Hoses, id + "/line-open", corner,
        fmt::format("Open the line at its hard end, cap it at once and wipe it. Up to here the car drives again in {:.0f} minutes without "
                    "bleeding: the old caliper still hangs on its closed hose",
            back),
        practice,
        { "Once it is open, brakes are only back when everything is on and bled. Fluid eats paint and skin.", "line spanner, caps", {},
            5 });
    s.gated = true;
    for (const char* side : { "left", "right" })
        for (const auto& [step, what] : { std::pair { discs ? "caliper-loose" : "drum-on", discs ? "the caliper" : "the drum" },
                 std::pair { "wheel-on", "the wheel" } }) {
            const auto tick = std::ranges::find(record_.ticks, fmt::format("{}/{}/{}", judge::wordFor(axle), side, step), &Tick::step);
            if (tick == record_.ticks.end() || tick->state != Checked::Fine)
                s.waits.push_back(fmt::format("{} {}: {} was not tried on and called fine", judge::wordFor(axle), side, what));
        }
    s.open = s.waits.empty();
}

void Writer::propOut()
{
    if (opensLine())
        add(Phase::Bleed, "car/prop-out", "car", "The prop comes out from under the pedal, and the pedal comes back by itself", practice,
            { "With the prop in, nothing can be bled, and the brakes hold.", {}, {}, 1 });
}

void Writer::hydraulics()
{
    if (study_.before.setup == study_.after.setup || !study_.after.hydraulics || !study_.before.hydraulics)
        return;
    const Hydraulics& was = *study_.before.hydraulics;
    const Hydraulics& is = *study_.after.hydraulics;
    const auto said = fmt::format("/setups/{}/hydraulics/", study_.after.setup->hydraulics ? study_.after.setup - build_.setups.data() : 0);
    const auto differs = [](const Reading& a, const Reading& b) { return a.value.value_or(-1) != b.value.value_or(-1); };
    if (*is.master != *was.master || differs(is.masterBore, was.masterBore) || differs(is.rearMasterBore, was.rearMasterBore))
        add(Phase::Hoses, "car/master", "car",
            "The other master cylinder: bled on the bench, on its studs, push rod with play, lines on by hand first",
            said + "master_bore_mm",
            { "A push rod without play holds the brakes on. Have the master judged by a licensed mechanic.",
                "line spanner, bench bleeding kit", {}, 60 });
    if (*is.booster != *was.booster || differs(is.boosterGain, was.boosterGain))
        add(Phase::Hoses, "car/booster", "car",
            "The other booster: push rod's length set to it, vacuum hose with its valve, no leak with the engine on", said + "booster",
            { "A push rod too long holds the brakes on, too short a one loses the first of the pedal.", {}, {}, 60 });
    if (*is.valve != *was.valve || differs(is.rearKneePressure, was.rearKneePressure) || differs(is.rearSlope, was.rearSlope))
        add(Phase::Hoses, "car/valve", "car",
            is.valve == ValveKind::Adjustable ? "Proportioning valve in and set as this setup has it, its setting written down"
                                              : "Proportioning valve of this setup in, or its setting changed",
            said + "valve",
            { "Too little proportioning turns the car round: tried first at low speed on a closed place.", "line spanner", {}, 30 });
}

} // namespace deepstop::jobcard
