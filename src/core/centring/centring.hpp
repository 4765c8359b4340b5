#pragma once
/// Is it centred: from four gaps to the shims that go on each bolt. Metres; positive = outboard. Nothing throws.

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace deepstop::centring {

/// Gaps between the rotor's faces and the caliper's halves, at the top and at the bottom of the caliper.
struct Gaps {
    double innerTop;
    double outerTop;
    double innerBottom;
    double outerBottom;
};

/// Where the caliper's slot stands against the rotor.
struct Position {
    double axial; ///< slot's middle minus rotor's middle, m: half the difference of outer and inner gap
    double tilt; ///< slope of that error from bottom to top, m/m
    double atTopBolt; ///< the error at the top mounting bolt
    double atBottomBolt;
};

/// @param gapSpacing  distance between upper and lower place of reading, m, > 0
/// @param boltSpacing distance between the mounting bolts, m, > 0; both symmetric about the same middle
[[nodiscard]] Position position(const Gaps& gaps, double gapSpacing, double boltSpacing);

struct ShimKind {
    double thickness; ///< m, > 0
    int count; ///< how many there are
};

/// A pile of shims from the drawer, thick before thin.
struct Stack {
    std::vector<double> shims;
    double total = 0;
    double residual = 0; ///< total minus target
};

/// The best pile for one target: fewest shims among the piles within `tolerance`, nearest of these; where none is within tolerance, the
/// nearest pile, fewest shims of these. Exact: thicknesses are compared in whole steps of 10 nm. A negative target gets no shims; valid to
/// 1 m.
/// @param tolerance m, ≥ 0; 0 asks for the nearest pile at all
[[nodiscard]] Stack bestStack(double target, std::span<const ShimKind> drawer, double tolerance = 0);

/// What to put under the caliper.
struct Plan {
    bool possible = false;
    std::string why; ///< in words, when it cannot be shimmed or the drawer falls short
    Stack top; ///< the whole stack for that bolt, what is in now replaced
    Stack bottom;
    Position remaining; ///< afterwards
    std::optional<Stack> radialTop {}; ///< on the studs of a radial mount
    std::optional<Stack> radialBottom {};
};

struct Mounting {
    double stackTop; ///< in now, m
    double stackBottom;
    double gapSpacing;
    double boltSpacing;
    int direction; ///< +1: a thicker stack moves the caliper outboard, −1: inboard
};

/// The two stacks that bring the slot to the rotor, from one drawer that serves both bolts. The drawer counts every shim there is, those
/// now under the caliper included. Exact over all piles of at most `mostPerBolt` shims: least sum of errors beyond `tolerance`, then
/// fewest shims, then least sum of errors.
[[nodiscard]] Plan plan(
    const Position& now, const Mounting& mounting, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt = 5);

} // namespace deepstop::centring
