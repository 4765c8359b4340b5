#include "symptoms/symptoms.hpp"

#include "build/address.hpp"
#include "chapters/balance/checks.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/heat/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "chapters/proving/checks.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

namespace deepstop::symptoms {
namespace {

/// Where a test's reading goes.
enum class In { Nowhere, Hydraulics, Axle, Side };

/// On which axles a cause is looked for, and with what brakes.
enum class On { Car, EachAxle, Rear, Discs, Drums };

struct Suspect {
    std::string_view symptom;
    std::string_view cause;
    std::string_view test;
    std::string_view gives; ///< reading in words
    In in = In::Nowhere;
    std::string_view key {}; ///< of the field, below setup, axle or side
    On on = On::Car;
    const Check* check = nullptr;
};

constexpr std::string_view hard = "hard-pedal";
constexpr std::string_view longPedal = "long-pedal";
constexpr std::string_view rear = "rear-locks-first";
constexpr std::string_view judder = "judder";
constexpr std::string_view pulls = "pulls";
constexpr std::string_view drags = "drags";
constexpr std::string_view squeals = "squeals";
constexpr std::string_view fades = "fades";

/// Common practice, no source.
const std::vector<Suspect>& suspects()
{
    static const std::vector<Suspect> list {
        { hard, tr("the booster gives too little, or nothing"),
            tr("Engine off: pump five times, hold the pedal down, start the engine. The pedal must sink under the foot"),
            tr("booster gain"), In::Hydraulics, "booster_gain", On::Car, &checks::booster },
        { hard, tr("master cylinder too large for these pistons, or friction too low"),
            tr("Pedal force of a steady stop of 0.5 g, with a force gauge or a flat bathroom scale on the pedal"), tr("pedal force"),
            In::Hydraulics, "pedal_force_n", On::Car, &checks::effort },
        { hard, tr("linings glazed, oiled or not bedded in"),
            tr("Linings out and looked at: dull and grey is good, glassy, wet or blue is not"), tr("friction of the pads"), In::Axle,
            "pad/friction", On::Discs },
        { hard, tr("drum linings glazed or oiled"), tr("Drums off: linings dry and dull, no fluid behind the boots"),
            tr("friction of the linings"), In::Axle, "drum/friction", On::Drums },
        { hard, tr("a piston or a slide that does not move"), tr("A helper presses while each pad is watched: both move and go back"),
            tr("which of them stays") },

        { longPedal, tr("air in a line or caliper"),
            tr("Pump twice, quickly. A pedal that rises by more than a quarter and feels springy has air under it: bleed"),
            tr("pedal travel at the foot") },
        { longPedal, tr("pistons take more fluid than the master cylinder gives"),
            tr("Stroke used by a hard foot, car standing, engine on"), tr("master cylinder's whole stroke"), In::Hydraulics,
            "master_stroke_mm", On::Car, &checks::travel },
        { longPedal, tr("a bleeder below the top of its caliper"), tr("Bleeder looked at with the wheel off: it is the highest point"),
            tr("place of the bleeder"), In::Axle, "caliper/bleeder_end", On::Discs, &checks::bleeder },
        { longPedal, tr("pads knocked back by runout or bearing play"),
            tr("Dial gauge on the knuckle, bearing play first: a pedal that is long only after a bend is this"), tr("runout on the car"),
            In::Side, "runout_mm", On::Discs, &checks::runout },
        { longPedal, tr("drum shoes too far from their drum"), tr("Handbrake two clicks on: if the pedal comes up, adjust the shoes"),
            tr("play of the shoes"), In::Axle, "drum/shoe_play_mm", On::Drums },
        { longPedal, tr("hoses that swell"), tr("A helper presses hard while a hand lies round each hose: it must not grow"),
            tr("kind of hose"), In::Axle, "hose/kind", On::EachAxle },
        { longPedal, tr("linings worn to a wedge, or shims that tilt the caliper"), tr("Thickness of each lining at both ends"),
            tr("lining left"), In::Side, "lining_thickness_mm", On::Discs, &checks::tilt },
        { longPedal, tr("fluid that boils, or is old"), tr("Long only when hot, good again when cold: change the fluid"),
            tr("age of the fluid"), In::Hydraulics, "fluid_age_months" },
        { longPedal, tr("worn linings draw the reservoir down"), tr("Fluid between min and max, linings measured"),
            tr("reservoir's volume"), In::Hydraulics, "reservoir_cm3", On::Car, &checks::fluid },

        { rear, tr("too much rear brake for this car on these tyres"),
            tr("A gentle stop on gravel or a wet closed place, somebody outside watches: which "
               "wheels stop turning first"),
            tr("split pressure of the rear valve"), In::Hydraulics, "rear_knee_bar", On::Car, &checks::lockOrder },
        { rear, tr("the front does too little: a circuit, air, glazed pads"),
            tr("Brake tester, or ring temperatures after ten stops: front and rear"), tr("friction of the front pads") },
        { rear, tr("drum linings that grab, damp or oiled"),
            tr("Only on the first stops of a morning: damp. Always: drums off, look for fluid"), tr("friction of the linings"), In::Axle,
            "drum/friction", On::Drums, &checks::selfLocking },
        { rear, tr("a load-dependent valve that is stuck or set for a load"),
            tr("Its lever moves freely; pressure at the rear with and without load"), tr("split pressure gained per rear load"),
            In::Hydraulics, "knee_per_load_bar_per_kn", On::Car },
        { rear, tr("handbrake that does not let go"), tr("Rear wheels turned by hand, lever down"), tr("drag at the rear wheels") },

        { judder, tr("a rotor thicker here than there"), tr("Micrometer at eight places of the face"), tr("thickness variation"), In::Side,
            "thickness_variation_mm", On::Discs, &checks::thicknessVariation },
        { judder, tr("runout: dirt between hub and hat, or a bent hub"),
            tr("Dial gauge at the edge; turn the rotor on its studs: does the high spot go "
               "with the rotor or stay with the hub"),
            tr("runout on the car"), In::Side, "runout_mm", On::Discs, &checks::runout },
        { judder, tr("pad material printed onto the rotor"),
            tr("Dark patches on the face. Bed in again; if it stays, the rotor is machined"), tr("what the face looks like") },
        { judder, tr("a rotor held off its hub"), tr("Rotor bare on the hub, a feeler all round"), tr("rotor bore"), In::Axle,
            "rotor/bore_mm", On::Discs, &checks::bore },
        { judder, tr("a drum out of round"), tr("Inside diameter at four places"), tr("inside diameter of the drum"), In::Axle,
            "drum/inside_diameter_mm", On::Drums },

        { pulls, tr("a piston or slide that sticks on one side"),
            tr("Ring temperatures left and right after five stops: more than 40 K apart tells which"),
            tr("ring temperature left and right") },
        { pulls, tr("linings oiled, or of two kinds"), tr("Linings of both sides out and compared"), tr("lining left"), In::Side,
            "lining_thickness_mm", On::EachAxle },
        { pulls, tr("the two sides are centred differently"), tr("Gaps read on both sides"), tr("gaps at the mock-up"), In::Nowhere, {},
            On::Discs, &checks::axial },
        { pulls, tr("a hose closed inside on one side"), tr("Open each bleeder: both must run alike"), tr("flow at the bleeders") },
        { pulls, tr("tyres, wheels' place or geometry"), tr("Pressures, then a run without braking: does it pull as well"),
            tr("place of the wheel"), In::Axle, "spacer_mm", On::EachAxle, &checks::wheelPlace },

        { drags, tr("push rod without play, or a prop left in"), tr("Foot off: the pedal has its free play"), tr("free play at the pedal"),
            In::Hydraulics, "free_play_mm" },
        { drags, tr("a caliper off its middle"), tr("Gaps read with the pads out"), tr("gaps at the mock-up"), In::Nowhere, {}, On::Discs,
            &checks::axial },
        { drags, tr("pads too tight in their opening"), tr("Pads slide by hand in the caliper, ends filed free of rust"),
            tr("length of the pad's opening"), In::Axle, "caliper/pad_window_mm", On::Discs, &checks::padWindow },
        { drags, tr("a piston or slide that does not go back"),
            tr("Press, let go, turn the wheel; open the bleeder: if it frees, the line holds pressure"), tr("which of them stays") },
        { drags, tr("handbrake set too tight"), tr("Lever down, cable slack; shoes in the hat just free"), tr("parking brake"), In::Nowhere,
            {}, On::Rear, &checks::parkingBrake },

        { squeals, tr("pads loose or dry on their backs"), tr("Backs and pins cleaned and greased thinly; clips there and tight"),
            tr("what was found") },
        { squeals, tr("pad beyond the rotor's edge, or a lip that grew"), tr("Edge of pad and rotor looked at, felt with a nail"),
            tr("pad's edge under the "
               "rotor's"),
            In::Side, "pad_inset_mm", On::Discs, &checks::padEdge },
        { squeals, tr("linings down to their wear indicator"), tr("Thickness of the thinner lining"), tr("lining left"), In::Side,
            "lining_thickness_mm", On::EachAxle, &checks::wornPad },
        { squeals, tr("not bedded in, or a hard lining on a cold road"),
            tr("Bed in once more; the same pads warm and silent are only hard"), tr("what was found") },
        { squeals, tr("something touches: shield, weight, wheel"), tr("Wheel turned by hand with the ear near it"), tr("gaps in the wheel"),
            In::Nowhere, {}, On::Discs, &checks::shield },

        { fades, tr("linings past their temperature"), tr("Stop after stop until it fades; then thermometer on the rings"),
            tr("ring temperature"), In::Nowhere, {}, On::Car, &checks::firstLimit },
        { fades, tr("fluid that boils"), tr("The pedal gets long with it, and comes back when cold"), tr("age of the fluid"),
            In::Hydraulics, "fluid_age_months" },
        { fades, tr("as measured, stop after stop"), tr("Distances of the series, one by one"), tr("stops of the series"), In::Nowhere, {},
            On::Car, &checks::fades },
        { fades, tr("a brake that drags and arrives hot"), tr("Ring temperatures after a drive without braking: all alike and under 60 °C"),
            tr("ring temperature") },
        { fades, tr("new linings not bedded in"), tr("Only in the first drives: bed in, then again"), tr("what was found") },
        { fades, tr("no air to the ring"), tr("Duct, shield and wheel looked at; a thermometer with and without"),
            tr("cooling duct factor"), In::Axle, "duct", On::EachAxle },
    };
    return list;
}

/// How suspect: less is more.
int rank(const Cause& c)
{
    if (!c.judged)
        return 3;
    if (isBad(c.level))
        return 0;
    if (c.level == Level::Caution || c.level == Level::Tight)
        return 1;
    return isFine(c.level) ? 4 : 2;
}

class Finder {
public:
    explicit Finder(const Study& study) : study_(study), build_(*study.build) { }

    void add(const Suspect& s)
    {
        if (s.on == On::Car) {
            put(s, {}, {});
            return;
        }
        for (const Axle axle : { Axle::Front, Axle::Rear }) {
            const Corner* corner = study_.after.at(axle).corner;
            const bool drums = corner && corner->brakes == BrakeKind::Drums;
            if (!corner || (s.on == On::Rear && axle == Axle::Front) || (s.on == On::Discs && drums) || (s.on == On::Drums && !drums))
                continue;
            // What is read on either side is the worse side's.
            if (s.in == In::Side || (s.check && s.check->of == CheckOf::Corner))
                put(s, axle, worseSide(s, axle));
            else
                put(s, axle, {});
        }
    }
    std::vector<Cause> found;

private:
    const Verdict* verdictOf(const Suspect& s, std::optional<Axle> axle, std::optional<Side> side) const
    {
        if (!s.check)
            return nullptr;
        if (s.check->name.find('#') == std::string_view::npos)
            return study_.verdict(*s.check, { axle.value_or(Axle::Front), side.value_or(Side::Left) });
        // Of several the worst.
        const Verdict* worst = nullptr;
        for (const Verdict& v : study_.verdicts)
            if (v.check == s.check && (!worst || v.level > worst->level))
                worst = &v;
        return worst;
    }
    Side worseSide(const Suspect& s, Axle axle) const
    {
        const Verdict* left = verdictOf(s, axle, Side::Left);
        const Verdict* right = verdictOf(s, axle, Side::Right);
        return right && (!left || right->level > left->level) ? Side::Right : right && right->side ? *right->side : Side::Left;
    }
    std::string pointerOf(const Suspect& s, std::optional<Axle> axle, std::optional<Side> side) const
    {
        const Setup& setup = *study_.after.setup;
        const auto own = [&](bool has) { return has ? &setup - build_.setups.data() : 0; };
        std::string at;
        switch (s.in) {
        case In::Nowhere:
            return {};
        case In::Hydraulics:
            at = fmt::format("/setups/{}/hydraulics/{}", own(setup.hydraulics.has_value()), s.key);
            break;
        case In::Axle:
        case In::Side: {
            const bool front = axle.value_or(Axle::Front) == Axle::Front;
            at = fmt::format("/setups/{}/{}/", own(front ? setup.front.has_value() : setup.rear.has_value()), front ? "front" : "rear");
            if (s.in == In::Side)
                at += side.value_or(Side::Left) == Side::Left ? "left/" : "right/";
            at += s.key;
            break;
        }
        }
        return study_.directory->at(at) || factAt(build_, at) ? at : std::string();
    }
    void put(const Suspect& s, std::optional<Axle> axle, std::optional<Side> side)
    {
        Cause c;
        const auto where = axle ? judge::wordFor(*axle) + ": " : std::string();
        c.cause = where + std::string(s.cause);
        c.cause[0] = toUpper(c.cause[0]);
        c.test = s.test;
        c.reading = pointerOf(s, axle, side);
        c.gives = s.gives;
        if (const Verdict* v = verdictOf(s, axle, side)) {
            c.judged = true;
            c.level = v->level;
            c.verdict = v->id;
            c.figures = fmt::format("{}: {}. {}", v->title, tr(nameOf(v->level)), v->reason);
        }
        found.push_back(std::move(c));
    }

    const Study& study_;
    const Build& build_;
};

} // namespace

const std::vector<Symptom>& all()
{
    static const std::vector<Symptom> list {
        { hard, tr("Hard pedal"), tr("Do not drive on a brake that hardly works: tow it.") },
        { longPedal, tr("Long or soft pedal"),
            tr("A pedal that sinks or goes to the floor is not driven: look for a leak at every wheel first.") },
        { rear, tr("Rear locks first"), tr("A car whose rear locks first turns round: no hard stops on the road until it is mended.") },
        { judder, tr("Judder"), tr("Judder that comes with a burnt smell or a long pedal is a fault: stop.") },
        { pulls, tr("Pulls to one side"), tr("Look for fluid at every wheel before the next drive.") },
        { drags, tr("Drags"), tr("A brake that drags boils its fluid and burns its pads: do not drive it hot. Rings burn skin.") },
        { squeals, tr("Squeals"), tr("A grinding noise is no squeal: steel on iron, stop driving.") },
        { fades, tr("Fades"), tr("Let it cool by driving, never standing on the pedal; first stops afterwards slow ones.") },
    };
    return list;
}

const Symptom* find(std::string_view id)
{
    const auto found = std::ranges::find(all(), id, &Symptom::id);
    return found == all().end() ? nullptr : &*found;
}

std::vector<Cause> causesOf(const Study& study, const Symptom& symptom)
{
    if (!study.after.setup)
        return {};
    Finder finder(study);
    for (const Suspect& s : suspects())
        if (s.symptom == symptom.id)
            finder.add(s);
    std::ranges::stable_sort(finder.found, {}, rank);
    return std::move(finder.found);
}

} // namespace deepstop::symptoms
