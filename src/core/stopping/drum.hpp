#pragma once
/// Drum brakes: how much friction a pair of shoes makes of the force that presses them.

namespace deepstop::stopping {

enum class DrumKind { LeadingTrailing, TwoLeading, SelfEnergising };

/// Shoes with pivots, the lining symmetric about the line square to the pivot's. Lengths in metres, the arc in radians.
struct Shoes {
    double radius; ///< of the drum, inside
    double anchorRadius; ///< from the axis to a shoe's pivot
    double arc; ///< of the lining on one shoe
    double friction; ///< of the lining
};

/// The usual shoe where not measured: a lining over 100°, its pivot at 0.83 of the drum's radius. Common practice, no source.
[[nodiscard]] Shoes usualShoes(double radius, double friction);

/// Friction force at the drum over the force that presses one shoe, both shoes together: what 2·μ is to a disc.
///
/// Moment balance of each shoe about its pivot with a pressure that follows the sine of the angle from it (Shigley's internal expanding
/// shoe, from memory); the wheel cylinder presses at 0.72 of the drum's radius on the other side of the axis (common practice). In a
/// self-energising pair the second shoe is pressed by the first's reaction.
/// @return NaN for numbers out of range (friction outside 0 to 1, a pivot outside the drum, an arc over 160°), and where a shoe would
///         hold itself and grab
[[nodiscard]] double brakeFactor(DrumKind kind, const Shoes& shoes);

/// Lining friction at which a leading shoe holds itself without being pressed, by the same moment balance: over it the brake grabs and
/// stays on. Of every kind of drum the leading shoe is the first. @return NaN for shoes out of range as above
[[nodiscard]] double selfLockingFriction(const Shoes& shoes);

} // namespace deepstop::stopping
