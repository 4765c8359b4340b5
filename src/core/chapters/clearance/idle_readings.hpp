#pragma once
/// Inside the chapter: which readings of a gap are too far from where it is smallest to change it anywhere within their limits.

#include "fit/fit.hpp"
#include "chapters/clearance/clearance.hpp"

namespace deepstop::figures {

/// A wheel where a gap to it was worked out, at the readings' own values, none of them missing.
struct WheelAsRead {
    const Wheel& wheel;
    const fit::WheelShape& shape; ///< in the hub's frame; what the gap does not face may be left out
    double face; ///< z of the wheel's mounting face
    double gap;
};

/// Calls idle, by bounds from boxes, every reading of a station, an inset or a bump that certainly cannot change the gap.
/// @param caliper its outlines, the body first, then each bump
/// @param spacing farthest that two neighbouring stations may lie apart
void sayIdle(
    Evaluator& s, WheelGap which, const WheelAsRead& wheel, const Corner& corner, const std::vector<fit::Outline>& caliper, double spacing);

/// The same for the room to a place that stands still.
void sayIdle(Evaluator& s, const WheelAsRead& wheel, geometry::Point place);

} // namespace deepstop::figures
