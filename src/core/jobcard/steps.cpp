#include "jobcard/jobcard.hpp"

#include "build/choices.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/joints/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "chapters/stopping/checks.hpp"
#include "joints/bolts.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>

namespace deepstop::jobcard {
namespace {

constexpr const char* practice = "common practice";

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

std::string threadWords(Condition condition)
{
    switch (condition) {
    case Condition::Threadlocker:
        return "threadlocker";
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

struct More {
    std::string caution {};
    std::string tools {};
    std::vector<std::string> readings {};
    double minutes = 2;
};

/// Puts the steps together, phase by phase.
class Writer {
public:
    explicit Writer(const Study& study)
        : study_(study), build_(*study.build), record_(choicesOf(build_, study.after.setup->id)), axles_(judge::axlesOf(study))
    {
    }

    std::vector<Step> write()
    {
        prepare();
        tag();
        recordOld();
        strip();
        mockUp();
        irreversible();
        assemble();
        hoses();
        hydraulics();
        bleed();
        wheels();
        beforeMoving();
        bedIn();
        reCheck();
        return std::move(steps_);
    }

private:
    Step& add(Phase phase, const std::string& id, const std::string& corner, std::string text, std::string because, More more = {})
    {
        Step s;
        s.id = id;
        s.phase = phase;
        s.corner = corner;
        s.text = std::move(text);
        // A check that nobody makes of these parts causes nothing: it is then the trade's habit.
        const bool stands = because.starts_with("/") || study_.verdict(because);
        s.because = stands ? std::move(because) : std::string(practice);
        s.caution = std::move(more.caution);
        s.tools = std::move(more.tools);
        s.readings = std::move(more.readings);
        s.minutes = more.minutes;
        return steps_.emplace_back(std::move(s));
    }

    /// What is done on both sides of each axle that changes.
    template <class F>
    void eachCorner(F f)
    {
        for (const Axle axle : axles_)
            for (const Side side : { Side::Left, Side::Right })
                f(axle, side, judge::wordFor(axle) + "/" + nameOf(side), judge::wordFor(axle) + " " + nameOf(side));
    }
    static std::string nameOf(Side side) { return side == Side::Left ? "left" : "right"; }
    [[nodiscard]] const Corner& now(Axle axle) const { return *study_.after.at(axle).corner; }
    [[nodiscard]] const Corner* was(Axle axle) const { return study_.before.at(axle).corner; }
    [[nodiscard]] const Hub& hub(Axle axle) const { return hubOf(build_, axle); }
    [[nodiscard]] std::string pointerOf(const SetupParts& setup, Axle axle) const
    {
        const bool own = (axle == Axle::Front ? setup.setup->front : setup.setup->rear).has_value();
        const auto index = own ? setup.setup - build_.setups.data() : 0;
        return fmt::format("/setups/{}/{}", index, judge::wordFor(axle));
    }
    [[nodiscard]] std::string field(const SetupParts& setup, Axle axle, Side side, const char* key) const
    {
        return fmt::format("{}/{}/{}", pointerOf(setup, axle), nameOf(side), key);
    }
    [[nodiscard]] std::string hubPointer(Axle axle, const char* key) const { return fmt::format("/{}_hub/{}", judge::wordFor(axle), key); }
    [[nodiscard]] std::string length(const Reading& reading, const Style& style) const
    {
        return reading.value ? print(*reading.value, style, study_.system) : std::string("not read");
    }
    /// Where one of the card's own choices stands; nobody has chosen while there is no card.
    [[nodiscard]] std::string choice(const char* key) const
    {
        const auto card = std::ranges::find(build_.cards, study_.after.setup->id, &JobCard::setup);
        return card == build_.cards.end() ? std::string(practice) : fmt::format("/cards/{}/{}", card - build_.cards.begin(), key);
    }
    /// A check's sentence, where it is anything but fine.
    [[nodiscard]] std::string says(const Check& check, const Where& where) const
    {
        const Verdict* v = study_.verdict(check, where);
        return v && !isFine(v->level) ? ". " + v->reason : std::string();
    }

    void prepare()
    {
        const std::string setup = study_.after.setup->name;
        add(Phase::Prepare, "car/data", "car", "Have the maker's data at hand: torques, hose routing, order of bleeding", practice,
            { "Brakes are life-critical: maker's data and local law come before this card; have adapters, machined and welded parts judged "
              "by a "
              "qualified engineer or licensed mechanic.",
                {}, {}, 10 });
        for (const Axle axle : axles_)
            add(Phase::Prepare, judge::wordFor(axle) + "/unpacked", judge::wordFor(axle),
                fmt::format("Everything of {} for both sides on the bench, looked at and measured{}", setup,
                    says(checks::received, { axle })),
                idOf(checks::received, { axle }), { {}, "vernier, scale", {}, 20 });
        const bool drums = std::ranges::any_of(std::array { Axle::Front, Axle::Rear },
            [&](Axle a) { return study_.before.at(a).corner && study_.before.at(a).corner->brakes == BrakeKind::Drums; });
        add(Phase::Prepare, "car/leaks", "car",
            drums ? "Look at every wheel for fluid: calipers, hose ends, and the wheel cylinders inside the drums, behind their boots"
                  : "Look at every wheel for fluid: calipers, bleeders, hose ends, hard lines",
            practice,
            { drums ? "A drum cylinder that leaks soaks its linings: replace both sides before anything else."
                    : "A leak anywhere is mended before anything else.",
                "lamp", {}, 10 });
        add(Phase::Prepare, "car/eyes", "car", "Glasses and gloves on; brake dust is washed or drawn off, never blown", practice,
            { "No compressed air on brake dust. Fluid harms eyes and eats paint.", "brake cleaner, tray, rags", {}, 3 });
        const Lift lift = liftOf(study_);
        std::string stands =
            "Wheels chocked, nuts loosened on the ground; car up on stands or a lift and shaken before anybody goes under it";
        if (!lift.moments.empty()) {
            const auto worst = std::ranges::min_element(lift.moments, {}, &OnLift::toArm);
            stands += fmt::format(". On a lift: {} left with {}, {} from the nearer arms{}",
                print(worst->mass, style::carMass, study_.system), worst->what, print(worst->toArm, style::frame, study_.system),
                lift.strap() ? ": STRAP IT DOWN before the parts come off" : "; strap it all the same");
        } else if (!lift.lacks.empty()) {
            stands += ". Where the weight hangs on a lift is not known (" + lift.lacks + "): strap it";
        }
        add(Phase::Prepare, "car/stands", "car", stands, "/car/mass_kg",
            { "Stands, not the jack alone. Strap the car on a lift.", "jack, stands, chocks", {}, 10 });
        if (axleIn(Axle::Rear)) {
            if (hub(Axle::Rear).electricParking == YesNo::Yes)
                add(Phase::Prepare, "car/parking-service", "car", "Put the electric parking brake into its service mode",
                    hubPointer(Axle::Rear, "electric_parking"),
                    { "Its motor crushes fingers and breaks when it is driven without the rotor.", "diagnostic tool", {}, 5 });
            else if (hub(Axle::Rear).electricParking == YesNo::Unknown)
                add(Phase::Prepare, "car/parking-kind", "car",
                    "Find out whether a motor works the parking brake: it then needs its service mode first",
                    hubPointer(Axle::Rear, "electric_parking"), { "Its motor crushes fingers.", {}, {}, 3 });
        }
        add(Phase::Prepare, "car/pedal-down", "car",
            "Prop the pedal slightly down while lines are open, so that the reservoir does not run dry", practice,
            { {}, "pedal prop, caps for open ends", {}, 3 });
    }

    [[nodiscard]] bool axleIn(Axle axle) const { return std::ranges::find(axles_, axle) != axles_.end(); }

    void tag()
    {
        eachCorner([&](Axle axle, Side side, const std::string& id, const std::string& corner) {
            const Corner& c = now(axle);
            const bool sided = c.brakes == BrakeKind::Discs && c.rotor.handed == Handed::Sided;
            const std::string which = side == Side::Left ? "LEFT" : "RIGHT";
            add(Phase::Tag, id + "/tag", corner,
                fmt::format("Tag caliper, rotor, pads, hose and bolts {}{}", which,
                    sided ? "; this rotor fits this side only: its vanes lean back from the way it turns" : ""),
                sided ? pointerOf(study_.after, axle) + "/rotor/handed" : practice,
                { "Left and right swapped: bleeders end up at the bottom and vanes pump backwards.", "tags, felt pen",
                    { field(study_.after, axle, side, "rotor_mark"), field(study_.after, axle, side, "caliper_mark") }, 3 });
        });
    }

    void recordOld()
    {
        eachCorner([&](Axle axle, Side side, const std::string& id, const std::string& corner) {
            if (!was(axle))
                return;
            const bool drum = was(axle)->brakes == BrakeKind::Drums;
            add(Phase::Record, id + "/old", corner,
                fmt::format("Write down the old: lining and {} thickness; photograph hose routing and {}", drum ? "drum" : "rotor",
                    drum ? "springs" : "clips"),
                idOf(checks::wornPad, { .axle = axle, .found = true }),
                { {}, "vernier, micrometer, camera",
                    drum ? std::vector<std::string> { field(study_.before, axle, side, "lining_thickness_mm") }
                         : std::vector<std::string> { field(study_.before, axle, side, "lining_thickness_mm"),
                             field(study_.before, axle, side, "ring_thickness_mm") },
                    5 });
        });
    }

    void strip()
    {
        eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
            if (!was(axle))
                return;
            const bool bolts = hub(axle).heldBy == WheelHeldBy::Bolts;
            add(Phase::Strip, id + "/wheel-off", corner,
                bolts ? "Wheel off; a guide pin in one hole takes its weight from the last bolt" : "Wheel off",
                hubPointer(axle, "wheel_held_by"), { {}, bolts ? "guide pin, socket" : "socket", {}, 3 });
            if (hub(axle).speedSensor != YesNo::No)
                add(Phase::Strip, id + "/sensor-wire", corner,
                    hub(axle).speedSensor == YesNo::Yes ? "Unclip the wheel-speed sensor's wire and keep it clear"
                                                        : "Look for a wheel-speed sensor's wire: unclip it and keep it clear",
                    hubPointer(axle, "speed_sensor"));
            if (was(axle)->brakes == BrakeKind::Drums) {
                add(Phase::Strip, id + "/drum-off", corner, "Adjuster back, drum off; look at cylinder, springs and linings",
                    pointerOf(study_.before, axle) + "/drum/kind",
                    { "Springs fly: glasses. A leaking cylinder is replaced on both sides.", "spring tool", {}, 15 });
            } else {
                if (was(axle)->pad.wearSensor == YesNo::Yes)
                    add(Phase::Strip, id + "/wear-sensor", corner, "Unplug the wear sensor before the caliper moves",
                        pointerOf(study_.before, axle) + "/pad/wear_sensor");
                add(Phase::Strip, id + "/caliper-off", corner, "Caliper off and hung up by wire, never by its hose", practice,
                    { "Fluid eats paint and skin; cap the open ends at once and wipe them.", "line spanner, caps, wire", {}, 15 });
                if (hub(axle).parkingBrake == ParkingBrake::DrumInHat)
                    add(Phase::Strip, id + "/shoes-back", corner,
                        "Parking brake off, its shoes turned back, so that the hat comes over them", hubPointer(axle, "parking_brake"),
                        { {}, "screwdriver through the hat's hole", {}, 5 });
                add(Phase::Strip, id + "/rotor-off", corner, "Rotor off; no hammer on what goes back on", practice, { {}, {}, {}, 5 });
            }
            add(Phase::Strip, id + "/bag", corner, "Bag and label every bolt, clip and shim, so that the car can go back", practice,
                { {}, "bags, felt pen", {}, 3 });
        });
    }

    void mockUp()
    {
        eachCorner([&](Axle axle, Side side, const std::string& id, const std::string& corner) {
            const Corner& c = now(axle);
            add(Phase::MockUp, id + "/hub-clean", corner, "Hub face and pilot bare and clean, a straight-edge lies on it", practice,
                { {}, "wire wheel, straight-edge", {}, 8 });
            if (c.ring.value && *c.ring.value > 0)
                add(Phase::MockUp, id + "/hub-ring", corner,
                    fmt::format("Ring of {} between hub and rotor, flat and clean", length(c.ring, style::fine)),
                    pointerOf(study_.after, axle) + "/ring_mm");
            if (c.brakes == BrakeKind::Drums) {
                add(Phase::MockUp, id + "/drum-on", corner, "Drum on over the shoes and turned by hand: nothing drags but the linings",
                    pointerOf(study_.after, axle) + "/drum/kind", { {}, {}, {}, 8 });
            } else {
                add(Phase::MockUp, id + "/rotor-on", corner, "Rotor on, held flat by three wheel nuts; it touches the hub all round",
                    idOf(checks::bore, { axle }), { {}, "nuts, washers", {}, 5 });
                add(Phase::MockUp, id + "/caliper-loose", corner,
                    "Bracket and caliper on, bolts by hand; the bleeder is at the highest point", idOf(checks::bleeder, { axle }),
                    { "A bleeder that is not on top keeps its air: the pedal goes to the floor.", {}, {}, 10 });
                std::vector<std::string> gaps;
                for (std::size_t i = 0; i < build_.mockUps.size(); ++i) {
                    const MockUp& m = build_.mockUps[i];
                    if (m.setup == study_.after.setup->id && m.axle == axle && m.side == side)
                        for (const char* key : { "inner_top_mm", "outer_top_mm", "inner_bottom_mm", "outer_bottom_mm" })
                            gaps.push_back(fmt::format("/mock_ups/{}/{}", i, key));
                }
                add(Phase::MockUp, id + "/gaps", corner,
                    "Read the four gaps between rotor and caliper, the play taken up the same way each time"
                        + says(checks::axial, { axle, side }),
                    idOf(checks::axial, { axle, side }), { {}, "vernier or gauges", std::move(gaps), 10 });
                add(Phase::MockUp, id + "/pad-edge", corner,
                    "Pads in: their edge lies on the rotor's face, not over it" + says(checks::padEdge, { axle }),
                    idOf(checks::padEdge, { axle }), { {}, "vernier", { field(study_.after, axle, side, "pad_inset_mm") }, 5 });
            }
            add(Phase::MockUp, id + "/wheel-on", corner,
                "Wheel on with its spacer, turned a whole turn by hand: nothing touches" + says(checks::barrelGap, { axle }),
                idOf(checks::barrelGap, { axle }),
                { {}, "clay or tape on the caliper", { pointerOf(study_.after, axle) + "/washers_mm" }, 10 });
            add(Phase::MockUp, id + "/hose-moves", corner,
                axle == Axle::Front ? "Hose at full droop and both full locks: never taut, never near wheel or rotor"
                                    : "Hose at full droop and full bump: never taut, never near wheel or rotor",
                idOf(checks::hoseLength, { axle }), { "A hose that rubs or pulls bursts when it is needed most.", {}, {}, 5 });
        });
    }

    void irreversible()
    {
        eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
            for (const Cut cut : now(axle).cuts) {
                const auto words = std::string(wordFor(cut, choices::cut));
                Step& s = add(Phase::Irreversible, id + "/cut-" + slug(tokenFor(cut, choices::cut)), corner,
                    fmt::format("{}{}", static_cast<char>(words[0] - 'a' + 'A'), words.substr(1)), pointerOf(study_.after, axle) + "/cuts",
                    { "This cannot be undone. Have machined, drilled and ground parts judged by a qualified engineer or licensed mechanic.",
                        {}, {}, 30 });
                s.irreversible = true;
                s.waits = shutBy(study_, axle, cut);
                s.open = s.waits.empty();
            }
        });
    }

    /// Why these bolts are not to be done up at all, however hard: empty where nothing says so.
    [[nodiscard]] std::string doubtOf(Axle axle, std::size_t index) const
    {
        for (const Check* check : { &checks::jointThread, &checks::jointEnd, &checks::jointShank, &checks::jointSlip }) {
            const Verdict* v = study_.verdict(*check, { .axle = axle, .number = static_cast<int>(index) + 1 });
            if (v && isBad(v->level))
                return fmt::format("{}: {}", v->title, v->reason);
        }
        return {};
    }

    void joint(Axle axle, std::size_t index, const std::string& id, const std::string& corner)
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
            text += fmt::format(": {}{}", print(*v->figure.value, style::torque, study_.system),
                isFine(v->level) ? std::string() : ". " + v->reason);
        else if (!doubt.empty())
            text += ": TORQUE IN DOUBT. " + doubt;
        else
            text += v && v->level != Level::Unproven ? ": TORQUE IN DOUBT, ask its maker. " + v->reason
                                                     : std::string(": torque not known, ask its maker");
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
        else if (j.condition == Condition::Unknown)
            more.caution = "Nobody has said whether threadlocker or anti-seize goes on these: the same torque is not right for both.";
        Step& s = add(Phase::Assemble, fmt::format("{}/joint-{}", id, index + 1), corner, text, verdict, std::move(more));
        s.threads = threadWords(j.condition);
        if (known)
            s.torque = *v->figure.value;
    }

    void assemble()
    {
        eachCorner([&](Axle axle, Side side, const std::string& id, const std::string& corner) {
            const Corner& c = now(axle);
            // What nobody has said what it holds is done up with the others.
            const auto joints = [&](bool hat) {
                for (std::size_t i = 0; i < c.joints.size(); ++i)
                    if ((c.joints[i].joins == Joins::RingToHat) == hat)
                        joint(axle, i, id, corner);
            };
            if (c.brakes == BrakeKind::Drums) {
                add(Phase::Assemble, id + "/shoes-adjusted", corner, "Shoes adjusted until they just drag, then back; both sides alike",
                    pointerOf(study_.after, axle) + "/drum/kind", { {}, {}, {}, 15 });
                joints(false);
                return;
            }
            joints(true);
            // A rotor nobody has described may be of two pieces.
            if (c.rotor.construction != RotorBuild::OnePiece
                && std::ranges::none_of(c.joints, [](const Joint& j) { return j.joins == Joins::RingToHat; }))
                add(Phase::Assemble, id + "/hat-bolts", corner,
                    c.rotor.construction == RotorBuild::TwoPiece
                        ? "Ring on hat: bolts as the rotor's maker says, crosswise in rounds"
                        : "If the rotor is of two pieces, ring on hat: bolts as its maker says, crosswise in rounds",
                    pointerOf(study_.after, axle) + "/rotor/construction", { {}, "torque wrench", {}, 20 });
            add(Phase::Assemble, id + "/faces-clean", corner,
                "Both faces of the rotor washed with brake cleaner, also new ones; no finger on them after", practice,
                { "Oil left on a new rotor goes into the pads.", "brake cleaner", {}, 4 });
            if (c.rotor.handed == Handed::Sided)
                add(Phase::Assemble, id + "/vanes", corner, "Look once more: vanes lean back from the way this wheel turns going forward",
                    pointerOf(study_.after, axle) + "/rotor/handed");
            if (c.rotor.ringPlay.value && *c.rotor.ringPlay.value > 0)
                add(Phase::Assemble, id + "/floats", corner,
                    fmt::format("The ring floats freely on its hat, {} along the axle", length(c.rotor.ringPlay, style::fine)),
                    pointerOf(study_.after, axle) + "/rotor/ring_play_mm");
            const Fitted& f = c.at(side);
            if (f.shimTop.value || f.shimBottom.value)
                add(Phase::Assemble, id + "/shims", corner,
                    fmt::format("Shims: {} at the top bolt, {} at the bottom bolt, none crushed or overlapping",
                        length(f.shimTop, style::fine), length(f.shimBottom, style::fine)),
                    idOf(checks::axial, { axle, side }), { {}, "micrometer", {}, 4 });
            joints(false);
            if (hub(axle).speedSensor != YesNo::No)
                add(Phase::Assemble, id + "/sensor-wire-back", corner,
                    hub(axle).speedSensor == YesNo::Yes
                        ? "Wheel-speed sensor's wire back in its clips, clear of rotor and wheel"
                        : "If a wheel-speed sensor's wire was unclipped: back in its clips, clear of rotor and wheel",
                    hubPointer(axle, "speed_sensor"));
            add(Phase::Assemble, id + "/bleeder-up", corner, "Bleeder at the highest point; this is the caliper tagged for this side",
                idOf(checks::bleeder, { axle }),
                { "Bleeders down means calipers swapped left and right: the air never comes out.", {}, {}, 2 });
            add(Phase::Assemble, id + "/pads-in", corner,
                "Pads in, lining to the rotor; backs and pins greased thinly, nothing on the faces", practice,
                { "A pad put in backwards grinds steel on iron.", "high-temperature grease", {}, 6 });
            if (c.pad.wearSensor == YesNo::Yes)
                add(Phase::Assemble, id + "/sensor-in", corner, "Wear sensor plugged in and its wire clear of the wheel",
                    pointerOf(study_.after, axle) + "/pad/wear_sensor");
            add(Phase::Assemble, id + "/runout", corner,
                "Runout at the rotor's edge, nuts on: read over one turn" + says(checks::runout, { axle }),
                idOf(checks::runout, { axle }), { {}, "dial gauge", { field(study_.after, axle, side, "runout_mm") }, 6 });
            if (hub(axle).parkingBrake == ParkingBrake::DrumInHat)
                add(Phase::Assemble, id + "/shoes-set", corner,
                    "Parking brake's shoes adjusted inside the hat until they just drag, then back", hubPointer(axle, "parking_brake"),
                    { {}, {}, {}, 8 });
        });
    }

    void hoses()
    {
        eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
            if (now(axle).brakes == BrakeKind::Drums && was(axle) && was(axle)->brakes == BrakeKind::Drums)
                return;
            add(Phase::Hoses, id + "/washers", corner, "New crush washers at the banjo, both sides of it", practice,
                { "A crush washer is used once: an old one weeps.", "new washers, torque wrench", {}, 5 });
            add(Phase::Hoses, id + "/hose", corner,
                "Hose on without a twist (its line runs straight), turned by hand at droop and full lock: clear"
                    + says(checks::hoseThread, { axle }),
                idOf(checks::hoseThread, { axle }), { "A twisted hose loosens itself and chafes.", "line spanner", {}, 10 });
        });
    }

    /// Another master, valve or booster is work of its own, and before the lines are bled.
    void hydraulics()
    {
        if (study_.before.setup == study_.after.setup || !study_.after.hydraulics || !study_.before.hydraulics)
            return;
        const Hydraulics& was = *study_.before.hydraulics;
        const Hydraulics& is = *study_.after.hydraulics;
        const auto said = fmt::format("/setups/{}/hydraulics/", study_.after.setup->hydraulics ? study_.after.setup - build_.setups.data() : 0);
        const auto differs = [](const Reading& a, const Reading& b) { return a.value.value_or(-1) != b.value.value_or(-1); };
        if (*is.master != *was.master || differs(is.masterBore, was.masterBore) || differs(is.rearMasterBore, was.rearMasterBore))
            add(Phase::Hoses, "car/master", "car",
                "The other master cylinder: bled on the bench, on its studs, push rod with play, lines on by hand first", said + "master_bore_mm",
                { "A push rod without play holds the brakes on. Have the master judged by a licensed mechanic.", "line spanner, bench bleeding kit", {}, 60 });
        if (*is.booster != *was.booster || differs(is.boosterGain, was.boosterGain))
            add(Phase::Hoses, "car/booster", "car", "The other booster: push rod's length set to it, vacuum hose with its valve, no leak with the engine on",
                said + "booster", { "A push rod too long holds the brakes on, too short a one loses the first of the pedal.", {}, {}, 60 });
        if (*is.valve != *was.valve || differs(is.rearKneePressure, was.rearKneePressure) || differs(is.rearSlope, was.rearSlope))
            add(Phase::Hoses, "car/valve", "car",
                is.valve == ValveKind::Adjustable ? "Proportioning valve in and set as this setup has it, its setting written down"
                                                  : "Proportioning valve of this setup in, or its setting changed",
                said + "valve", { "Too little proportioning turns the car round: tried first at low speed on a closed place.", "line spanner", {}, 30 });
    }

    void bleed()
    {
        const School s = bleedingOf(study_, record_);
        const Hydraulics& h = *study_.after.hydraulics;
        add(Phase::Bleed, "car/fluid", "car",
            h.fluid == FluidClass::Unknown
                ? "Fresh fluid of the class the car's maker asks for: nobody has said which"
                : fmt::format("Fresh, unopened {}; old and new are not mixed by halves", wordFor(h.fluid, choices::fluid)),
            fmt::format("/setups/{}/hydraulics/fluid", study_.after.setup->hydraulics ? study_.after.setup - build_.setups.data() : 0),
            { "Fluid eats paint and harms eyes; water thins what it stands.", "fluid, hose, bottle", {}, 3 });
        for (std::size_t i = 0; i < s.steps.size(); ++i)
            add(Phase::Bleed, fmt::format("car/bleed-{}", i + 1), "car",
                fmt::format("Bleed {}: until no bubble comes; reservoir kept full. {}", s.steps[i],
                    i == 0 ? s.title + ". " + s.why : std::string()),
                choice("bleed_order"),
                { i == 0 ? "The reservoir must not run dry: air in an antilock unit wants a tool." : "", {}, {}, 12 });
        add(Phase::Bleed, "car/pressed", "car",
            "A hard foot for a minute, engine on: the pedal does not sink; every joint that was open is dry", practice,
            { "A pedal that sinks leaks somewhere: the car does not move.", "lamp", {}, 5 });
    }

    void wheels()
    {
        eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
            const Corner& c = now(axle);
            const bool bolts = hub(axle).heldBy == WheelHeldBy::Bolts;
            if (c.spacer.value && *c.spacer.value > 0)
                add(Phase::Wheels, id + "/spacer", corner,
                    fmt::format("Spacer of {} on a clean face, sitting on the pilot", length(c.spacer, style::size)),
                    pointerOf(study_.after, axle) + "/spacer_mm");
            add(Phase::Wheels, id + "/nuts", corner,
                fmt::format(
                    "Wheel on; {} by hand as far as they go, counted turns{}; then crosswise in two rounds to the car maker's torque",
                    bolts ? "wheel bolts" : "nuts", says(checks::studs, { axle })),
                idOf(checks::studs, { axle }),
                { bolts ? "Too short a bolt strips, too long a one jams the brake or drum behind it."
                        : "Fewer turns than the stud's diameter needs is not held.",
                    "torque wrench", {}, 6 });
        });
    }

    void beforeMoving()
    {
        add(Phase::BeforeMoving, "car/pedal-free", "car", "The prop is out from under the pedal, and nothing lies round the pedals", practice,
            { "A prop left in takes the brakes away.", {}, {}, 1 });
        add(Phase::BeforeMoving, "car/pump", "car", "Pump the pedal until it is high and hard, BEFORE the car moves", practice,
            { "The first push finds nothing: the pistons are still back.", {}, {}, 2 });
        add(Phase::BeforeMoving, "car/turns", "car", "Each wheel turns free with the pedal up, and holds with it down", practice,
            { {}, {}, {}, 4 });
        for (const Axle axle : axles_) {
            const ParkingBrake kind = hub(axle).parkingBrake;
            if (kind == ParkingBrake::None)
                continue;
            if (axle == Axle::Rear || kind != ParkingBrake::Unknown)
                add(Phase::BeforeMoving, judge::wordFor(axle) + "/parking", judge::wordFor(axle),
                    hub(axle).electricParking == YesNo::Yes
                        ? "Electric parking brake out of its service mode, cycled, and it holds on a slope"
                        : "Parking brake adjusted: it holds on a slope and lets go",
                    hubPointer(axle, "parking_brake"), { {}, {}, {}, 6 });
        }
        add(Phase::BeforeMoving, "car/level", "car", "Fluid between the marks, cap on, no warning light", practice);
        add(Phase::BeforeMoving, "car/walking", "car", "From walking pace, a closed place: it stops, straight, without noise", idOf(checks::stopLimit),
            { "The first stops are slow ones; stop at the first pull or soft pedal.", {}, {}, 5 });
    }

    void bedIn()
    {
        const School s = beddingOf(study_, record_);
        for (std::size_t i = 0; i < s.steps.size(); ++i)
            add(Phase::BedIn, fmt::format("car/bed-{}", i + 1), "car",
                fmt::format("{}{}", i == 0 ? s.title + ". " + s.why + " " : std::string(), s.steps[i]), choice("bedding"),
                { i == 0 ? "Only where it is legal and nobody is behind. New pads bite late until they are bedded." : "", {}, {}, 15 });
    }

    void reCheck()
    {
        eachCorner([&](Axle axle, Side, const std::string& id, const std::string& corner) {
            add(Phase::ReCheck, id + "/first-drive", corner,
                "After the first drive: no leak, bolts at their marks, nuts at torque, nothing has touched",
                idOf(checks::barrelGap, { axle }), { {}, "torque wrench, lamp", {}, 6 });
        });
        add(Phase::ReCheck, "car/later", "car",
            fmt::format("After {} to {}: bolts and nuts once more, linings, hoses", print(80e3, style::odometer, study_.system),
                print(160e3, style::odometer, study_.system)),
            practice, { {}, "torque wrench", {}, 20 });
    }

    const Study& study_;
    const Build& build_;
    const JobCard& record_;
    std::vector<Axle> axles_;
    std::vector<Step> steps_;
};

/// What steps of a name took before, on any card, s.
std::map<std::string, double> timesOf(const Build& build)
{
    std::map<std::string, std::pair<double, int>> sums;
    for (const JobCard& card : build.cards)
        for (const Tick& tick : card.ticks)
            if (tick.took.value) {
                auto& [sum, count] = sums[tick.step.substr(tick.step.rfind('/') + 1)];
                sum += *tick.took.value;
                ++count;
            }
    std::map<std::string, double> means;
    for (const auto& [name, sum] : sums)
        means[name] = sum.first / sum.second;
    return means;
}

} // namespace

std::string_view nameOf(Phase phase)
{
    switch (phase) {
    case Phase::Prepare:
        return "Prepare and inspect";
    case Phase::Tag:
        return "Tag left and right";
    case Phase::Record:
        return "Record the old";
    case Phase::Strip:
        return "Strip";
    case Phase::MockUp:
        return "Loose mock-up and checks";
    case Phase::Irreversible:
        return "Work that cannot be undone";
    case Phase::Assemble:
        return "Final assembly";
    case Phase::Hoses:
        return "Hoses";
    case Phase::Bleed:
        return "Bleed";
    case Phase::Wheels:
        return "Wheels";
    case Phase::BeforeMoving:
        return "Before the car moves";
    case Phase::BedIn:
        return "Bed in";
    case Phase::ReCheck:
        return "Check again";
    }
    return "";
}

Card cardOf(const Study& study)
{
    Card card;
    card.setup = study.after.setup;
    if (!study.after.setup || study.after.setup == study.before.setup)
        return card;
    for (const Axle axle : judge::axlesOf(study))
        if (!study.after.at(axle).corner)
            return card;
    card.steps = Writer(study).write();
    const JobCard& record = choicesOf(*study.build, study.after.setup->id);
    const auto times = timesOf(*study.build);
    for (Step& s : card.steps) {
        if (const auto took = times.find(s.id.substr(s.id.rfind('/') + 1)); took != times.end())
            s.minutes = took->second / 60;
        for (const Opening& o : record.openings)
            if (o.step == s.id && s.irreversible) {
                s.open = true;
                s.opened = o.reason;
            }
        for (const Tick& t : record.ticks)
            if (t.step == s.id) {
                s.state = t.state;
                s.who = t.who;
                s.when = t.when;
                s.note = t.note;
            }
        card.minutes += s.minutes;
        if (s.phase == Phase::Bleed && record.bleedMethod == BleedMethod::TwoPeople)
            card.people = 2;
    }
    return card;
}

} // namespace deepstop::jobcard
