#include "language/language.hpp"
#include "sums/entry.hpp"

#include "fit/fit.hpp"
#include "fit/stance.hpp"
#include "joints/studs.hpp"
#include "joints/thread.hpp"

#include <cmath>

namespace deepstop::sums {
namespace {

void rim(const Inputs& in, Answer& out)
{
    const double size = in["size"];
    const auto seat = size == std::floor(size) && size < 100 ? fit::beadSeatDiameter(static_cast<int>(size)) : std::nullopt;
    if (!seat)
        throw BadRequest(tr("size: the printed size of a car wheel from 14 to 20 is wanted, a whole number."));
    out.results = { { "bead_seat_diameter_m", *seat },
        { "overall_width_m", in.has("width") ? Value(fit::overallWidth(positive(in, "width"))) : Value() } };
    out.notes.emplace_back(tr("The bead seat is not the printed size in inches. The inside of the barrel is smaller by the metal, and the "
                              "drop centre by far more: measure it."));
}

void spacer(const Inputs& in, Answer& out)
{
    const std::string& gave = in.texts.contains("gave") ? in.text("gave") : std::string("turns");
    if (gave != "turns" && gave != "gap")
        throw BadRequest(tr("gave: turns (it just turns free) or gap (it turns with the wanted gap) is wanted."));
    const double needed = notNegative(in, "washers") + notNegative(in, "plus-minus") + (gave == "turns" ? notNegative(in, "gap") : 0);
    if (needed > 1)
        throw BadRequest(tr("washers: no spacer is a metre thick."));
    const auto bought = fit::boughtSpacer(needed);
    out.results = { { "needed_m", needed }, { "buy_m", bought ? Value(*bought) : Value() },
        { "turned_m", fit::turnedSpacer(needed, positive(in, "step")) } };
    out.notes.emplace_back(tr("Rounded up, never down. Then check studs, pilot and fender with it, and turn the wheel by hand. Washers are "
                              "for turning by hand only."));
    if (!bought)
        out.notes.emplace_back(tr("Thicker than spacers are sold: have one turned, or look at another wheel."));
}

void stud(const Inputs& in, Answer& out)
{
    const auto thread = joints::parseThread(in.text("thread"));
    if (!thread)
        throw BadRequest(tr("thread: “{}” is no thread; write M12x1.5 or 1/2-20.", in.text("thread")));
    const joints::StudStack stack { positive(in, "length"), notNegative(in, "hat"), notNegative(in, "ring"), notNegative(in, "spacer"),
        notNegative(in, "pad"), positive(in, "nut"), thread->diameter, thread->pitch };
    const auto held = joints::engagement(stack);
    const double wanted = positive(in, "wanted") * thread->diameter;
    const bool enough = held.inNut >= wanted - 1e-9;
    out.results = { { "in_nut_m", held.inNut }, { "turns", held.turns }, { "wanted_m", wanted }, { "enough", enough },
        { "order_m", enough ? Value() : Value(joints::studToOrder(stack, wanted, 0)) } };
    out.notes.emplace_back(tr("One pitch of lead at the stud's tip does not count. A wheel held by too little thread comes off."));
    if (!enough && stack.nutThread < wanted)
        out.notes.emplace_back(tr("The nut itself is shorter than what is wanted: longer nuts are needed too."));
}

void backspacing(const Inputs& in, Answer& out)
{
    if (in.has("width") == in.has("overall"))
        throw BadRequest(tr("width: give the printed width in inches, or overall= as measured over the flanges; one of the two."));
    const double overall = in.has("overall") ? positive(in, "overall") : fit::overallWidth(positive(in, "width"));
    out.results = { { "overall_width_m", overall }, { "backspacing_m", fit::backspacing(overall, in["et"]) },
        { "front_space_m", overall - fit::backspacing(overall, in["et"]) } };
    if (in.has("width"))
        out.notes.emplace_back(
            tr("Overall width taken as the printed width and 25 mm for the flanges (common practice); measure it where a "
               "few millimetres matter."));
}

} // namespace

std::vector<Entry> wheelSums()
{
    using enum Dimension;
    return {
        { { "rim", tr("Bead seat of a printed wheel size"),
              { { "size", Number, "", "size", "", true, tr("printed diameter, 14 to 20") },
                  { "width", Number, "", "width", "", false, tr("printed width in inches") } },
              { { "bead_seat_diameter_m", plainLength, tr("specified rim diameter") },
                  { "overall_width_m", style::size, tr("printed width and 25 mm") } },
              tr("ETRTO Standards Manual / ISO 4000-1, from memory; flanges: common practice.") },
            rim },
        { { "spacer", tr("From a stack of washers to a spacer"),
              { { "washers", Length, "mm", "washers_m", "", true, tr("stack behind the wheel that just frees it") },
                  { "plus-minus", Length, "mm", "plus_minus_m", "0.1", false, tr("how sure the stack is") },
                  { "gap", Length, "mm", "gap_m", "3", false, tr("gap wanted on top of that") },
                  { "gave", {}, "", "gave", "turns", false, tr("turns: it just turned; gap: it turned with the wanted gap") },
                  { "step", Length, "mm", "step_m", "0.5", false, tr("a turned spacer is made to") } },
              { { "needed_m", style::gap, tr("washers, their uncertainty and the gap") },
                  { "buy_m", style::gap, tr("next of 3, 5, 8, 10, 12, 15, 20, 25 mm") },
                  { "turned_m", style::gap, tr("rounded up to the step") } },
              tr("Common practice.") },
            spacer },
        { { "stud", tr("Thread of a wheel stud left in its nut"),
              { { "length", Length, "mm", "length_m", "", true, tr("stud outboard of the flange") },
                  { "hat", Length, "mm", "hat_m", "", true, tr("rotor's hat thickness") },
                  { "pad", Length, "mm", "pad_m", "", true, tr("mounting-pad thickness of the wheel") },
                  { "nut", Length, "mm", "nut_m", "", true, tr("thread length in the nut") },
                  { "thread", {}, "", "thread", "", true, tr("as M12x1.5") },
                  { "ring", Length, "mm", "ring_m", "0", false, tr("hub-face ring") },
                  { "spacer", Length, "mm", "spacer_m", "0", false, tr("spacer behind the wheel") },
                  { "wanted", Number, "", "wanted_diameters", "1", false, tr("thread wanted, in stud diameters") } },
              { { "in_nut_m", style::gap, tr("full thread engaged") }, { "turns", { Number, "", 1, "", 1 }, tr("of the nut") },
                  { "wanted_m", style::gap, "wanted" }, { "enough", style::number, tr("whether it is") },
                  { "order_m", style::size, tr("stud length to order where it is not") } },
              tr("At least one diameter of full thread: common practice.") },
            stud },
        { { "backspacing", tr("From width and offset to backspacing"),
              { { "width", Number, "", "width", "", false, tr("printed width in inches") },
                  { "overall", Length, "mm", "overall_m", "", false, tr("or width over the flanges") },
                  { "et", Length, "mm", "et_m", "", true, "offset" } },
              { { "overall_width_m", style::size, tr("over the flanges") },
                  { "backspacing_m", style::size, tr("overall/2 + et: mounting face to the inboard edge") },
                  { "front_space_m", style::size, tr("mounting face to the outboard edge") } },
              tr("Plane geometry.") },
            backspacing },
    };
}

} // namespace deepstop::sums
