#pragma once
/// Wheel studs: what is left of them for the nut after hat, ring, spacer and wheel.

namespace deepstop::joints {

/// Lengths in metres, along the stud, from the hub's flange face outward.
struct StudStack {
    double length; ///< of the stud outboard of the flange
    double hat;
    double ring;
    double spacer;
    double pad; ///< wheel's mounting face to where the nut's thread begins
    double nutThread; ///< full thread in the nut
    double diameter;
    double pitch;
};

struct Engagement {
    double inNut; ///< full thread engaged in the nut, m; 0 at least
    double turns; ///< the same in turns of the nut
    double past; ///< how far the stud stands out of the nut's thread, m; negative: it ends within
};

/// Full thread in the nut: what stands past the wheel's pad less one pitch of lead at the tip (common practice), at most the nut's own
/// thread. NaN where a length is NaN.
[[nodiscard]] Engagement engagement(const StudStack& stack);

/// Stud length outboard of the flange that fills the nut's thread, or `wanted` where that is more, with its lead and `reserve`,
/// rounded up to whole 5 mm, as studs are sold (common practice).
[[nodiscard]] double studToOrder(const StudStack& stack, double wanted, double reserve);

} // namespace deepstop::joints
