#include "jobcard/steps.hpp"

#include "build/choices.hpp"
#include "centring/drawer.hpp"
#include "chapters/centring/centring_chapter.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/joints/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "joints/bolts.hpp"
#include "language/language.hpp"

namespace deepstop::jobcard {
namespace {

std::string threadWords(Condition condition)
{
    switch (condition) {
    case Condition::Threadlocker:
        return "threadlocker";
    case Condition::WickingThreadlocker:
        return tr("dry, wicking threadlocker afterwards");
    case Condition::AntiSeize:
        return "anti-seize";
    case Condition::Oiled:
        return "oiled";
    case Condition::Dry:
        return "dry";
    case Condition::Unknown:
        break;
    }
    return tr("threads not said");
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
    std::string text = tr("{} × {}, {}, each begun by hand", j.bolts > 0 ? std::to_string(j.bolts) : "?",
        j.thread->empty() ? tr("thread not said") : *j.thread, j.name);
    // A torque that its check doubts (another condition of the threads, a wrong unit), or for bolts that do not do, is not one to pull.
    const auto doubt = doubtOf(axle, index);
    const bool known = v && v->figure.value && (isFine(v->level) || v->level == Level::Caution) && doubt.empty();
    if (known)
        text += fmt::format(
            ": {}{}", print(*v->figure.value, style::torque, study_.system), isFine(v->level) ? std::string() : ". " + v->reason);
    else if (!doubt.empty())
        text += tr(": TORQUE IN DOUBT. {}", doubt);
    else
        text += v && v->level != Level::Unproven ? tr(": TORQUE IN DOUBT, ask its maker. {}", v->reason)
                                                 : std::string(tr(": torque not known, ask its maker"));
    text += nutWords(j);
    if (j.bolts > 2) {
        text += tr(", in the order");
        for (const int bolt : joints::tighteningOrder(j.bolts))
            text += fmt::format(" {}", bolt + 1);
        text += tr(", in {} rounds", joints::tighteningRounds(j.bolts).size());
    }
    More more { {}, tr("torque wrench"), {}, 6 };
    if (j.condition == Condition::AntiSeize)
        more.caution = tr("Anti-seize: the torque is the one for greased threads; a dry one would overstretch them.");
    else if (j.condition == Condition::Threadlocker)
        more.caution = tr("Threads degreased, fresh threadlocker on each; marked when it is done.");
    else if (j.condition == Condition::WickingThreadlocker)
        more.caution =
            tr("Tightened dry to this torque; then one drop of wicking threadlocker at each, once the rotor is cold. None before.");
    else if (j.condition == Condition::Unknown)
        more.caution = tr("Not said: whether threadlocker or anti-seize goes on these: the same torque is not right for both.");
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
            add(Phase::Assemble, id + "/shoes-adjusted", corner, tr("Shoes adjusted until they just drag, then back; both sides alike"),
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
                    ? tr("Wheel-speed sensor's wire back in its clips, clear of rotor and wheel")
                    : tr("If a wheel-speed sensor's wire was unclipped: back in its clips, clear of rotor and wheel"),
                hubPointer(axle, "speed_sensor"), { {}, {}, {}, 2, !w.mockedUp() });
        add(Phase::Assemble, id + "/bleeder-up", corner, tr("Bleeder at the highest point; this is the caliper tagged for this side"),
            idOf(checks::bleeder, { axle }),
            { tr("Bleeders down means calipers swapped left and right: the air never comes out."), {}, {}, 2, !w.caliper });
        // Bolts that nobody described are done up all the same.
        const bool described = std::ranges::any_of(
            c.joints, [](const Joint& j) { return j.joins == Joins::BracketToKnuckle || j.joins == Joins::CaliperToBracket; });
        if (!described && !w.small())
            add(Phase::Assemble, id + "/caliper-bolts", corner,
                tr("Caliper and bracket on their bolts, each begun by hand, tightened as their maker says; the bolts are not described "
                   "yet"),
                practice, { tr("Bolts that hold a caliper carry the brake: no guessed torque."), tr("torque wrench"), {}, 6, !w.any() });
        add(Phase::Assemble, id + "/pads-in", corner,
            tr("Pads in, lining to the rotor; backs and pins greased thinly, nothing on the faces{}",
                described || !w.small() ? "" : tr("; the caliper back on its bolts, begun by hand, tightened as the car's maker says")),
            practice,
            { tr("A pad put in backwards grinds steel on iron."), tr("high-temperature grease"), {}, 6, !w.pads && !w.mockedUp() });
        wearSensor(axle, side, id, corner);
        parkingOn(axle, id, corner);
        add(Phase::Assemble, id + "/runout", corner,
            tr("Wheel bearing rocked by hand first, its play read: it moves the gauge as well. Then runout at the rotor's edge, nuts on, "
               "over one turn{}",
                says(checks::runout, { axle })),
            idOf(checks::runout, { axle }),
            { tr("The gauge's foot stands on the knuckle, never on strut or body."), tr("dial gauge"),
                { field(study_.after, axle, side, "runout_mm") }, 6, !rotorOff(axle) });
        if (hub(axle).parkingBrake == ParkingBrake::DrumInHat)
            add(Phase::Assemble, id + "/shoes-set", corner,
                tr("Parking brake's shoes adjusted inside the hat until they just drag, then back"), hubPointer(axle, "parking_brake"),
                { {}, {}, {}, 8, !rotorOff(axle) });
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
                ? tr("Ring on hat: bolts as the rotor's maker says, crosswise in rounds")
                : tr("If the rotor is of two pieces, ring on hat: bolts as its maker says, crosswise in rounds"),
            pointerOf(study_.after, axle) + "/rotor/construction", { {}, tr("torque wrench"), {}, 20, !w.rotor });
    add(Phase::Assemble, id + "/faces-clean", corner,
        tr("Both faces of the rotor washed with brake cleaner, also new ones; no finger on them after"), practice,
        { tr("Oil left on a new rotor goes into the pads."), tr("brake cleaner"), {}, 4, false, w.small() });
    if (c.rotor.handed == Handed::Sided)
        add(Phase::Assemble, id + "/vanes", corner, tr("Look once more: vanes lean back from the way this wheel turns going forward"),
            pointerOf(study_.after, axle) + "/rotor/handed", { {}, {}, {}, 2, !rotorOff(axle) });
    if (c.rotor.ringPlay.value && *c.rotor.ringPlay.value > 0)
        add(Phase::Assemble, id + "/floats", corner,
            tr("The ring floats freely on its hat, {} along the axle", length(c.rotor.ringPlay, style::fine)),
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
            ? tr(". They do not centre it: by the plan {} at the top bolt, {} at the bottom bolt, then the gaps read again",
                centring::pileText(own->plan->top.shims, study_.system), centring::pileText(own->plan->bottom.shims, study_.system))
            : std::string();
        Step& s = add(Phase::Assemble, id + "/shims", corner,
            tr("Shims: {} at the top bolt, {} at the bottom bolt{}{}", stack(f.shimTop), stack(f.shimBottom),
                f.shimTop.value.value_or(0) > 0 || f.shimBottom.value.value_or(0) > 0 ? tr(", each flat, clean and whole") : "", plan),
            idOf(checks::axial, { axle, side }), { {}, tr("micrometer"), {}, 4, !w.mockedUp() });
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
                tr("Pedal propped slightly down; line opened at its hard end and capped; hose on with new crush washers, its line running "
                   "straight, turned by hand at droop and full lock: clear{}",
                    says(checks::hoseThread, { axle })),
                idOf(checks::hoseThread, { axle }),
                { tr("A crush washer is used once. A twisted hose loosens itself and chafes. Fluid eats paint and skin."),
                    tr("line spanner, pedal prop, caps, new washers"), {}, 25 });
            hoseLed(axle, id, corner);
            return;
        }
        // Of a caliper that was parted the line is open already.
        if (!work(axle).widened)
            openLine(axle, id, corner);
        add(Phase::Hoses, id + "/washers", corner, tr("New crush washers at the banjo, both sides of it"), practice,
            { tr("A crush washer is used once: an old one weeps."), tr("new washers, torque wrench"), {}, 5 });
        add(Phase::Hoses, id + "/hose", corner,
            tr("Hose on without a twist (its line runs straight), turned by hand at droop and full lock: clear{}{}", lineWords(axle),
                says(checks::hoseThread, { axle })),
            idOf(checks::hoseThread, { axle }), { tr("A twisted hose loosens itself and chafes."), tr("line spanner"), {}, 10 });
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
        tr("Open the line at its hard end, cap it at once and wipe it. Up to here the car drives again in {:.0f} minutes without "
           "bleeding: the old caliper still hangs on its closed hose",
            back),
        practice,
        { tr("Once it is open, brakes are only back when everything is on and bled. Fluid eats paint and skin."), tr("line spanner, caps"),
            {}, 5 });
    s.gated = true;
    for (const char* side : { "left", "right" })
        for (const auto& [step, what] : { std::pair { discs ? "caliper-loose" : "drum-on", discs ? tr("the caliper") : tr("the drum") },
                 std::pair { "wheel-on", tr("the wheel") } }) {
            const auto tick = std::ranges::find(record_.ticks, fmt::format("{}/{}/{}", wordOf(axle), side, step), &Tick::step);
            if (tick == record_.ticks.end() || tick->state != Checked::Fine)
                s.waits.push_back(tr("{} {}: {} was not tried on and called fine", judge::wordFor(axle), side, what));
        }
    s.open = s.waits.empty();
}

void Writer::propOut()
{
    if (opensLine())
        add(Phase::Bleed, "car/prop-out", "car", tr("The prop comes out from under the pedal, and the pedal comes back by itself"),
            practice, { tr("With the prop in, nothing can be bled, and the brakes hold."), {}, {}, 1 });
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
            tr("The other master cylinder: bled on the bench, on its studs, push rod with play, lines on by hand first"),
            said + "master_bore_mm",
            { tr("A push rod without play holds the brakes on. Have the master judged by a licensed mechanic."),
                tr("line spanner, bench bleeding kit"), {}, 60 });
    if (*is.booster != *was.booster || differs(is.boosterGain, was.boosterGain))
        add(Phase::Hoses, "car/booster", "car",
            tr("The other booster: push rod's length set to it, vacuum hose with its valve, no leak with the engine on"), said + "booster",
            { tr("A push rod too long holds the brakes on, too short a one loses the first of the pedal."), {}, {}, 60 });
    if (*is.valve != *was.valve || differs(is.rearKneePressure, was.rearKneePressure) || differs(is.rearSlope, was.rearSlope))
        add(Phase::Hoses, "car/valve", "car",
            is.valve == ValveKind::Adjustable ? tr("Proportioning valve in and set as this setup has it, its setting written down")
                                              : tr("Proportioning valve of this setup in, or its setting changed"),
            said + "valve",
            { tr("Too little proportioning turns the car round: tried first at low speed on a closed place."), tr("line spanner"), {},
                30 });
}

} // namespace deepstop::jobcard
