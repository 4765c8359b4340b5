#include "language/language.hpp"
#include "sums/entry.hpp"

#include "hydraulics/hydraulics.hpp"
#include "stopping/balance.hpp"
#include "stopping/drum.hpp"

#include <cmath>
#include <numbers>

namespace deepstop::sums {
namespace {

double share(const Inputs& in, std::string_view key, bool endsToo)
{
    const double value = in[key];
    if (endsToo ? !(value >= 0 && value <= 1) : !(value > 0 && value < 1))
        throw BadRequest(tr("{}: must lie between 0 and 1 (or 0 % and 100 %).", key));
    return value;
}

double frictionOf(const Inputs& in)
{
    const double friction = positive(in, "friction");
    if (friction > 2)
        throw BadRequest(tr("friction: no lining has more than 2; pads have 0.3 to 0.6."));
    return friction;
}

void pressure(const Inputs& in, Answer& out)
{
    hydraulics::PedalTrain foot;
    foot.pedalRatio = positive(in, "pedal-ratio");
    foot.master.bore = positive(in, "master-bore");
    foot.booster.gain = positive(in, "booster-gain");
    if (foot.booster.gain < 1)
        throw BadRequest(tr("booster-gain: must be 1 or more; 1 is no booster."));
    if (in.has("booster-knee")) {
        foot.booster.knee = positive(in, "booster-knee");
        if (foot.booster.gain == 1)
            out.notes.emplace_back(tr("A booster of gain 1 has no knee."));
    }
    const double force = notNegative(in, "pedal-force");
    const double made = hydraulics::frontPressure(foot, force);
    out.results = { { "pressure_Pa", made }, { "pushrod_N", hydraulics::boosted(foot.booster, force * foot.pedalRatio) } };
    if (foot.booster.gain > 1 && force > hydraulics::forceAtKnee(foot))
        out.notes.push_back(
            tr("The booster runs out at {:.0f} N on the pedal; beyond it only the foot adds.", hydraulics::forceAtKnee(foot)));
    if (foot.booster.gain > 1 && !in.has("booster-knee"))
        out.notes.emplace_back(tr("Without booster-knee it never runs out; real ones do at 40 to 80 bar (common practice)."));
}

void brakeTorque(const Inputs& in, Answer& out)
{
    const double torque = stopping::brakeTorque(
        { positive(in, "piston-area"), positive(in, "radius"), 2 * frictionOf(in), 1, 1 }, notNegative(in, "pressure"));
    out.results = { { "torque_Nm", torque } };
    out.notes.emplace_back(
        tr("Of one wheel, both pads: 2·μ·p·A·r. A is the pistons of one side, of a fixed and of a floating caliper alike."));
}

void drumTorque(const Inputs& in, Answer& out)
{
    using enum stopping::DrumKind;
    const std::string& text = in.text("kind");
    if (text != "leading-trailing" && text != "two-leading" && text != "duo-servo")
        throw BadRequest(tr("kind: one of leading-trailing, two-leading, duo-servo is wanted."));
    const auto kind = text == "leading-trailing" ? LeadingTrailing : text == "two-leading" ? TwoLeading : SelfEnergising;
    const double radius = positive(in, "drum") / 2;
    auto shoes = stopping::usualShoes(radius, frictionOf(in));
    if (in.has("anchor"))
        shoes.anchorRadius = positive(in, "anchor");
    if (shoes.anchorRadius > radius)
        throw BadRequest(tr("anchor: the shoe's pivot is measured from the axis and lies inside the drum."));
    if (shoes.anchorRadius <= 0.2 * radius)
        throw BadRequest(tr("anchor: the shoe's pivot lies too near the axis to hold a shoe."));
    const double factor = stopping::brakeFactor(kind, shoes);
    if (!std::isfinite(factor))
        throw BadRequest(tr("friction: with so much of it such a shoe holds itself and grabs."));
    const double area = hydraulics::areaOf(positive(in, "cylinder-bore"));
    const double p = notNegative(in, "pressure");
    out.results = { { "torque_Nm", factor * p * area * radius }, { "brake_factor", factor } };
    auto grippier = shoes;
    grippier.friction *= 1.1;
    const double more = stopping::brakeFactor(kind, grippier);
    out.notes.push_back(std::isfinite(more)
            ? tr("A tenth more friction gives {:.0f} % more: damp and hot linings change it as much.", 100 * (more / factor - 1))
            : std::string(tr("A tenth more friction and it would grab.")));
    if (!in.has("anchor"))
        out.notes.emplace_back(
            tr("Usual shoes: the pivot at 0.83 of the drum's radius, 100° of lining, the cylinder pressing at 0.72 of the "
               "radius (common practice)."));
    if (in.has("shoe-width")) {
        const double lining = positive(in, "shoe-width") * shoes.arc * radius;
        out.notes.push_back(tr("The width changes the lining's pressure, not the torque: {:.1f} bar on the mean of both linings.",
            factor * p * area / shoes.friction / (2 * lining) / 1e5));
    }
}

void pedalTravel(const Inputs& in, Answer& out)
{
    const auto travel = hydraulics::travelOf(notNegative(in, "volume"), positive(in, "master-bore"), positive(in, "pedal-ratio"),
        notNegative(in, "free-play"), in.has("stroke") ? positive(in, "stroke") : NAN);
    out.results = { { "pushrod_travel_m", travel.pushrod }, { "pedal_travel_m", travel.pedal },
        { "stroke_share", in.has("stroke") ? Value(travel.strokeShare) : Value() } };
    if (travel.strokeShare > 1)
        out.notes.emplace_back(tr("More than the whole stroke: the cylinder ends before the fluid is pushed."));
    else if (travel.strokeShare > 0.65)
        out.notes.emplace_back(tr("More than 60 to 65 % of the stroke for one stop is long (common practice)."));
    if (!in.has("stroke"))
        out.notes.emplace_back(tr("Give stroke= to learn what share of it that is."));
}

void idealSplit(const Inputs& in, Answer& out)
{
    const stopping::Car car { 1, positive(in, "wheelbase"), positive(in, "height"), share(in, "front-load", false), 0 };
    const double z = notNegative(in, "deceleration");
    const double front = stopping::idealFrontShare(car, z);
    if (!std::isfinite(front))
        throw BadRequest(tr("deceleration: the rear wheels leave the road at {:.2f} g.", stopping::liftsAt(car)));
    out.results = { { "front_share", front }, { "rear_share", 1 - front } };
    out.notes.emplace_back(tr("The front must do its load share and z·h/L more for both axles to use the same adhesion."));
}

void lockOrder(const Inputs& in, Answer& out)
{
    const auto order = stopping::lockOrder(share(in, "front-load", false), positive(in, "height") / positive(in, "wheelbase"),
        share(in, "front-share", true), positive(in, "grip"));
    out.results = { { "first", std::string(stopping::nameOf(order.first)) }, { "deceleration_g", order.deceleration },
        { "front_use", order.frontUse }, { "rear_use", order.rearUse } };
    if (order.first == stopping::First::Rear)
        out.notes.emplace_back(tr("DANGER: a car whose rear wheels lock first turns round."));
    out.notes.emplace_back(tr("Tyres of one grip on both axles, the same share at every pressure, no valve, no antilock."));
}

} // namespace

std::vector<Entry> hydraulicSums()
{
    using enum Dimension;
    constexpr Style ratio { Number, "", 3, "", 3 };
    constexpr std::string_view transfer = marked("Rigid-body load transfer, as in any vehicle-dynamics text.");
    const Key frontLoad { "front-load", Share, "", "front_load", "", true,
        tr("part of the weight on the front axle at rest, 0.53 or 53 %") };
    const Key height { "height", Length, "mm", "height_m", "", true, tr("centre of mass over the road") };
    const Key base { "wheelbase", Length, "mm", "wheelbase_m", "", true, tr("front axle to rear axle") };
    const Key pressed { "pressure", Pressure, "bar", "pressure_Pa", "", true, tr("in the line") };
    return {
        { { "pressure", tr("What the foot makes of pressure in the line"),
              { { "pedal-force", Force, "N", "pedal_force_N", "", true, tr("on the pedal") },
                  { "pedal-ratio", Number, "", "pedal_ratio", "", true, tr("pedal's lever") },
                  { "booster-gain", Number, "", "booster_gain", "1", false, tr("1: none") },
                  { "booster-knee", Force, "N", "booster_knee_N", "", false, tr("its output force where it runs out") },
                  { "master-bore", Length, "mm", "master_bore_m", "", true, tr("of the master cylinder") } },
              { { "pressure_Pa", style::pressure, tr("push over the bore's area") },
                  { "pushrod_N", style::force, tr("push on the master cylinder; above the knee: knee + (input − knee/gain)") } },
              tr("Statics.") },
            pressure },
        { { "brake-torque", tr("What a disc brake makes of it"),
              { { "friction", Number, "", "friction", "", true, tr("of the pads") }, pressed,
                  { "piston-area", Area, "cm²", "piston_area_m2", "", true, tr("pistons of one side") },
                  { "radius", Length, "mm", "radius_m", "", true, tr("effective radius of the pads") } },
              { { "torque_Nm", style::torque, tr("2·μ·p·A·r, one wheel, both pads") } }, tr("Coulomb friction.") },
            brakeTorque },
        { { "drum-torque", tr("What a drum brake makes of it"),
              { { "kind", {}, "", "kind", "", true, tr("leading-trailing, two-leading or duo-servo") }, pressed,
                  { "cylinder-bore", Length, "mm", "cylinder_bore_m", "", true, tr("of a wheel cylinder's piston") },
                  { "drum", Length, "mm", "drum_m", "", true, tr("inside diameter") },
                  { "friction", Number, "", "friction", "", true, tr("of the linings") },
                  { "shoe-width", Length, "mm", "shoe_width_m", "", false, tr("of the lining") },
                  { "anchor", Length, "mm", "anchor_m", "", false, tr("shoe's pivot from the axis") } },
              { { "torque_Nm", style::torque, tr("factor · p · A · drum/2, one wheel") },
                  { "brake_factor", ratio, tr("friction force at the drum's surface over the push of one piston") } },
              tr("Shigley's internal expanding shoe, from memory.") },
            drumTorque },
        { { "pedal-travel", tr("How far the pedal goes for a volume of fluid"),
              { { "volume", Volume, "cm³", "volume_m3", "", true, tr("of the fluid pushed") },
                  { "master-bore", Length, "mm", "master_bore_m", "", true, tr("of the master cylinder") },
                  { "pedal-ratio", Number, "", "pedal_ratio", "", true, tr("pedal's lever") },
                  { "free-play", Length, "mm", "free_play_m", "0", false, tr("at the pedal") },
                  { "stroke", Length, "mm", "stroke_m", "", false, tr("of the master cylinder") } },
              { { "pushrod_travel_m", style::size, tr("volume over the bore's area") },
                  { "pedal_travel_m", style::size, tr("the same times the ratio, and the free play") },
                  { "stroke_share", style::share, tr("of the stroke; null without it") } },
              tr("Volumes; 60 to 65 %: common practice.") },
            pedalTravel },
        { { "ideal-split", tr("How much the front must brake for both axles to use alike"),
              { frontLoad, height, base, { "deceleration", Acceleration, "g", "deceleration_g", "", true, "0.8 or 0.8 g" } },
              { { "front_share", style::share, tr("front load share + z·h/L") }, { "rear_share", style::share, tr("the rest") } },
              tr(transfer) },
            idealSplit },
        { { "lock-order", tr("Which axle locks first"),
              { frontLoad, height, base,
                  { "front-share", Share, "", "front_share", "", true, tr("part of the braking that the front does") },
                  { "grip", Acceleration, "g", "grip_g", "", true, tr("peak grip of the tyres, 1.1 or 1.1 g") } },
              { { "first", style::number, tr("front, rear or both") }, { "deceleration_g", style::number, tr("at which it does, over g") },
                  { "front_use", style::share, tr("of its grip, used by the front there") },
                  { "rear_use", style::share, tr("by the rear") } },
              tr(transfer) },
            lockOrder },
    };
}

} // namespace deepstop::sums
