#pragma once
/// Inside the chapter: the wheel's and the caliper's readings as shapes, and the gaps between them.

#include "chapters/clearance/clearance.hpp"
#include "figures/figures.hpp"

namespace deepstop::figures {

/// Whether a figure says what each of its readings does to it: dear to find out, and of no use to a search.
enum class Effects { Named, LeftOut };

/// The build's numbers as the fit discipline wants them; NaN where not read.
[[nodiscard]] fit::CornerShape shapeOf(Evaluator& s, const Corner& corner, Side side, const Hub& hub);
/// The wheel in the hub's frame. Without barrel stations the barrel is estimated from the printed size and says so.
[[nodiscard]] fit::WheelShape wheelOf(Evaluator& s, const Wheel& wheel, double face);

/// Room between the caliper (or the drum) of one side and one surface of the wheel; rests on the readings of its outline and that surface,
/// no others. Balance weights whose place is not known take their height off the barrel's gap, and are said to be assumed.
[[nodiscard]] double wheelGap(Evaluator& s, WheelGap which, const Corner& corner, Side side, const Wheel& wheel, const Wants& wants);
/// The same evaluated. A barrel known by its printed size alone may be as wide as its rim allows.
/// @param effects what each reading does to it is asked for too; left out, the interval is the same
[[nodiscard]] Figure wheelGapOf(
    WheelGap which, const Corner& corner, Side side, const Wheel& wheel, const Wants& wants, Effects effects = Effects::Named);
/// How far shims under the studs of a radial mount hold the caliper further out than when its heights were read, m; 0 on lugs.
[[nodiscard]] double lift(Evaluator& s, const Corner& corner, Side side);
/// All three rooms at nominal readings, on a corner and a wheel in the hub's frame.
[[nodiscard]] std::optional<fit::Room> roomOf(
    WheelGap which, const Corner& corner, const fit::CornerShape& shape, const fit::WheelShape& wheel, const Wants& wants);
/// What is wanted of a gap to this wheel: the setting, and the rim's give in a hard corner. A setting nobody has made counts by its
/// default.
[[nodiscard]] double wantedOf(WheelGap which, const Wheel& wheel, const Wants& wants);
/// Middle of the wheel from the hub's flange face: where the tyre stands.
[[nodiscard]] double wheelMiddle(Evaluator& s, const Corner& corner, const Wheel& wheel);
/// Flange edges of the wheel. The width as measured, else by the printed one.
[[nodiscard]] fit::Stance stanceOf(Evaluator& s, const Corner& corner, const Wheel& wheel);
/// Caliper's outboard half over the hat.
[[nodiscard]] double hatGap(Evaluator& s, const Corner& corner, Side side);
/// From a place that stands still to the wheel and the hot rotor.
/// @param at z from the hub's flange face, outboard positive, and distance from the axis
[[nodiscard]] double placeGap(
    Evaluator& s, geometry::Point at, const Corner& corner, const Wheel* wheel, const Hub& hub, const Wants& wants);
/// From a keep-out.
[[nodiscard]] double keepOutGap(
    Evaluator& s, const KeepOut& place, const Corner& corner, const Wheel* wheel, const Hub& hub, const Wants& wants);

} // namespace deepstop::figures
