#include "language/language.hpp"
#include "sums/entry.hpp"

#include "centring/centring.hpp"
#include "joints/bolts.hpp"

#include <cmath>

namespace deepstop::sums {
namespace {

joints::Thread threadOf(const Inputs& in)
{
    const auto thread = joints::parseThread(in.text("thread"));
    if (!thread)
        throw BadRequest(tr("thread: “{}” is no thread; write M12x1.5, M12 or 1/2-20.", in.text("thread")));
    return *thread;
}

joints::Grade gradeOf(const Inputs& in)
{
    for (const joints::Grade grade : { joints::Grade::G8_8, joints::Grade::G10_9, joints::Grade::G12_9 })
        if (in.text("class") == joints::nameOf(grade))
            return grade;
    throw BadRequest(tr("class: one of 8.8, 10.9, 12.9 is wanted."));
}

joints::Lubrication lubricationOf(const Inputs& in)
{
    using enum joints::Lubrication;
    for (const joints::Lubrication l : { Dry, Oiled, Threadlocker, AntiSeize })
        if (in.text("condition") == joints::nameOf(l))
            return l;
    throw BadRequest(tr("condition: one of dry, oiled, threadlocker, anti-seize is wanted."));
}

void bolt(const Inputs& in, Answer& out)
{
    const auto thread = threadOf(in);
    const auto lubrication = lubricationOf(in);
    const double proof = joints::proofLoad(thread, gradeOf(in));
    if (in.has("torque") && in.has("preload"))
        throw BadRequest(tr("torque: give torque= or preload=, not both."));
    const double preload = in.has("preload") ? positive(in, "preload")
        : in.has("torque")                   ? joints::preloadFrom(positive(in, "torque"), thread.diameter, lubrication)
                                             : joints::preloadAim * proof;
    const double torque = joints::torqueFor(preload, thread.diameter, lubrication);
    out.results = { { "preload_N", preload }, { "torque_Nm", torque }, { "percent_proof", 100 * preload / proof },
        { "proof_load_N", proof }, { "stress_area_m2", joints::stressArea(thread) } };
    if (!in.has("torque") && !in.has("preload"))
        out.notes.emplace_back(
            tr("Neither torque nor preload given: 75 % of the proof load, for bolts that come apart again (common practice)."));
    if (preload > joints::preloadMost * proof)
        out.notes.push_back(preload > proof ? tr("OVER THE PROOF LOAD: the bolt stretches for good.")
                                            : tr("Over 90 % of the proof load: too tight for a bolt that comes apart again."));
    const double dry = joints::preloadFrom(torque, thread.diameter, joints::Lubrication::Dry);
    if (lubrication != joints::Lubrication::Dry)
        out.notes.push_back(tr("A torque given for dry threads pulls {:.0f} % more on {} ones: {:.1f} kN instead of {:.1f} kN.",
            100 * (preload / dry - 1), tr(joints::nameOf(lubrication)), preload / 1000, dry / 1000));
    out.notes.emplace_back(
        tr("K 0.20 dry, 0.15 oiled, 0.16 threadlocker, 0.125 anti-seize; a given bolt may be off by a quarter. The maker's "
           "torque outranks this one."));
}

void engagement(const Inputs& in, Answer& out)
{
    const auto thread = threadOf(in);
    const std::string& metal = in.text("in");
    const auto of = metal == "steel" ? joints::Metal::Steel : metal == "iron" ? joints::Metal::Iron : joints::Metal::Aluminium;
    if (metal != "steel" && metal != "iron" && metal != "aluminium")
        throw BadRequest(tr("in: steel, iron or aluminium is wanted."));
    const joints::BoltStack stack { positive(in, "length"), notNegative(in, "grip"), notNegative(in, "shims"), positive(in, "depth"),
        notNegative(in, "behind"), thread.pitch };
    const auto fit = joints::fitOf(stack);
    const double wanted = joints::engagementWanted(of) * thread.diameter;
    const auto lengths = joints::lengthsThatDo(stack, wanted);
    out.results = { { "engaged_m", fit.engaged }, { "turns", fit.turns }, { "wanted_m", wanted },
        { "enough", fit.engaged >= wanted - 1e-9 }, { "room_left_m", fit.roomLeft },
        { "least_length_m", lengths ? Value(lengths->least) : Value() }, { "most_length_m", lengths ? Value(lengths->most) : Value() } };
    if (fit.roomLeft < 0)
        out.notes.push_back(in["behind"] > 0 ? tr("The bolt strikes what is behind.") : tr("The bolt bottoms before it is tight."));
    if (!lengths)
        out.notes.emplace_back(tr("The thread itself is too short: no length of bolt holds as wanted."));
}

void jointSlip(const Inputs& in, Answer& out)
{
    const auto thread = threadOf(in);
    const auto grade = gradeOf(in);
    const double bolts = in["bolts"];
    if (bolts != std::floor(bolts) || bolts < 1 || bolts > 100)
        throw BadRequest(tr("bolts: a whole number from 1 to 100 is wanted."));
    const double preload = in.has("torque") ? joints::preloadFrom(positive(in, "torque"), thread.diameter, lubricationOf(in))
                                            : joints::preloadAim * joints::proofLoad(thread, grade);
    const double brake = positive(in, "brake");
    const double radius = positive(in, "radius");
    out.results = { { "slip_margin", joints::slipMargin(static_cast<int>(bolts), preload, brake, radius, positive(in, "friction")) },
        { "shear_margin", joints::shearMargin(static_cast<int>(bolts), thread, grade, brake, radius) }, { "preload_N", preload },
        { "force_N", brake / radius } };
    out.notes.emplace_back(
        tr("Under 1 the joint slips and the bolts shear; 1.5 is common practice. Bending of a bracket is not proven by this."));
}

void tilt(const Inputs& in, Answer& out)
{
    const centring::Gaps gaps { notNegative(in, "inner-top"), notNegative(in, "outer-top"), notNegative(in, "inner-bottom"),
        notNegative(in, "outer-bottom") };
    const auto p = centring::position(gaps, positive(in, "apart"), positive(in, "bolts"));
    out.results = { { "axial_m", p.axial }, { "tilt_m", p.tilt * in["apart"] }, { "tilt_rad", std::atan(p.tilt) },
        { "at_top_bolt_m", p.atTopBolt }, { "at_bottom_bolt_m", p.atBottomBolt } };
    out.notes.emplace_back(
        tr("Positive: the caliper is too far outboard there. Within 0.25 mm is aimed at, 0.5 mm is usable (common practice)."));
}

} // namespace

std::vector<Entry> jointSums()
{
    using enum Dimension;
    static constexpr Style newtons { Force, "N", 0, "lbf", 0 };
    static constexpr Style torque { Torque, "N·m", 1, "lb ft", 1 };
    return {
        { { "bolt", tr("Torque, preload and share of proof load"),
              { { "thread", {}, "", "thread", "", true, tr("as M12x1.5") }, { "class", {}, "", "class", "", true, "8.8, 10.9 or 12.9" },
                  { "torque", Torque, "N·m", "torque_Nm", "", false, tr("what it is tightened to") },
                  { "preload", Force, "N", "preload_N", "", false, tr("or what it is to pull") },
                  { "condition", {}, "", "condition", "dry", false, tr("of the threads: dry, oiled, threadlocker, anti-seize") } },
              { { "preload_N", newtons, "T / (K·d)" }, { "torque_Nm", torque, "K·F·d" },
                  { "percent_proof", { Number, "", 1, "", 1 }, tr("of the proof load") },
                  { "proof_load_N", newtons, tr("proof stress × stress area") },
                  { "stress_area_m2", { Area, "mm²", 1, "in²", 4 }, "π/4·(d − 0.9382·P)²" } },
              tr("ISO 898-1 for areas and stresses, from memory; K as in Shigley's and Bickford's tables, common practice.") },
            bolt },
        { { "engagement", tr("Thread that holds a bolt"),
              { { "thread", {}, "", "thread", "", true, tr("as M12x1.5") },
                  { "length", Length, "mm", "length_m", "", true, tr("of the bolt under its head") },
                  { "grip", Length, "mm", "grip_m", "", true, tr("ear, bracket, washers") },
                  { "depth", Length, "mm", "depth_m", "", true, tr("of the thread, or height of the nut") },
                  { "in", {}, "", "in", "steel", false, tr("steel, iron or aluminium") },
                  { "shims", Length, "mm", "shims_m", "0", false, tr("in the grip") },
                  { "behind", Length, "mm", "behind_m", "0", false, tr("clearance behind the thread; 0 for a blind hole") } },
              { { "engaged_m", style::gap, tr("thread engagement") }, { "turns", { Number, "", 1, "", 1 }, tr("in turns") },
                  { "wanted_m", style::gap, "1.0, 1.5 or 2.0 diameters" }, { "enough", style::number, tr("whether it is") },
                  { "room_left_m", style::gap, tr("to what is behind; negative: strikes or bottoms") },
                  { "least_length_m", style::gap, tr("shortest bolt that does") }, { "most_length_m", style::gap, "longest" } },
              tr("Common practice.") },
            engagement },
        { { "joint-slip", tr("Do the caliper's bolts hold the brake by friction"),
              { { "thread", {}, "", "thread", "", true, tr("as M12x1.5") }, { "class", {}, "", "class", "", true, "8.8, 10.9 or 12.9" },
                  { "bolts", Number, "", "bolts", "2", false, tr("how many") },
                  { "brake", Torque, "N·m", "brake_Nm", "", true, tr("brake torque at one wheel") },
                  { "radius", Length, "mm", "radius_m", "", true, tr("bolts from the axis") },
                  { "torque", Torque, "N·m", "torque_Nm", "", false, tr("tightened to (default: 75 % of proof)") },
                  { "condition", {}, "", "condition", "dry", false, tr("of the threads") },
                  { "friction", Number, "", "friction", "0.15", false, tr("of the clamped faces") } },
              { { "slip_margin", style::number, tr("bolts × preload × friction over the force") },
                  { "shear_margin", style::number, tr("bolts × 0.6 × proof load over the force") },
                  { "preload_N", newtons, tr("of one bolt") }, { "force_N", newtons, tr("brake torque over radius") } },
              tr("Common practice; ISO 898-1 from memory.") },
            jointSlip },
        { { "tilt", tr("Where four gaps put the caliper"),
              { { "inner-top", Length, "mm", "inner_top_m", "", true, tr("rotor to the inboard half, top") },
                  { "outer-top", Length, "mm", "outer_top_m", "", true, tr("rotor to the outboard half, top") },
                  { "inner-bottom", Length, "mm", "inner_bottom_m", "", true, tr("inboard, bottom") },
                  { "outer-bottom", Length, "mm", "outer_bottom_m", "", true, tr("outboard, bottom") },
                  { "apart", Length, "mm", "apart_m", "100", false, tr("upper to lower place of reading") },
                  { "bolts", Length, "mm", "bolts_m", "140", false, tr("mounting bolts apart") } },
              { { "axial_m", style::fine, tr("half of outer less inner, mean") }, { "tilt_m", style::fine, tr("top less bottom") },
                  { "tilt_rad", { Angle, "°", 2, "°", 2 }, tr("the same as an angle") },
                  { "at_top_bolt_m", style::fine, tr("error at the top bolt") },
                  { "at_bottom_bolt_m", style::fine, tr("at the bottom bolt") } },
              tr("Plane geometry.") },
            tilt },
    };
}

} // namespace deepstop::sums
