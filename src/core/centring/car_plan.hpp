#pragma once
/// Every bolt of the car from one drawer: both bolts of both sides, radial studs beside them where there are any.

#include "centring/centring.hpp"

namespace deepstop::centring {

/// What lies on each bolt, in the order of their targets.
struct CarPlan {
    std::vector<Stack> stacks; ///< empty where there is no plan
    double beyond = 0; ///< sum of what the stacks miss their targets by, beyond the tolerance, m
    double error = 0; ///< sum of what they miss them by, m
    int shims = 0;
    bool proven = true; ///< nothing misses less, nor as little with fewer shims
    double couldGain = 0; ///< where it is not proven: no plan's `beyond` is less than this one's by more, m
    int couldSave = 0; ///< where it is not proven: no plan that misses as little needs fewer shims by more than this
    [[nodiscard]] bool within() const { return beyond <= 0; }
};

/// How long to look for a proof, in branches tried; the plan is at once near the best. The default takes some hundredths of a second.
inline constexpr long usualEffort = 200'000;

/// The best way to share `drawer` out: least sum of errors beyond `tolerance`, then fewest shims, then - as far as exchanging shims
/// between two bolts at a time finds it - least sum of errors. At most `mostPerBolt` shims on a bolt, never more than 8.
///
/// Bounds come from the Lagrangian dual of the shims' counts (Fisher 1981, from memory), sharpened by subgradient steps; the branches that
/// they leave open are tried up to `effort`. Deterministic. No plan where a target is not finite or over 1 m; a negative target is met as
/// nearly as an empty stack can.
/// @param drawer every shim there is for the whole car, those now under its calipers included
[[nodiscard]] CarPlan carPlan(
    std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt = 5, long effort = usualEffort);

/// The next best stacks for the bolts from `first` on, `count` of them, of another height on one of them at least, all others staying as
/// `plan` has them; nothing where the drawer gives no other.
[[nodiscard]] CarPlan otherStacks(const CarPlan& plan, std::size_t first, std::size_t count, std::span<const double> targets,
    std::span<const ShimKind> drawer, double tolerance, int mostPerBolt = 5);

/// Sizes that shims are sold in, m: 0.25, 0.5, 0.75, 0.9, 1, 2, 3 mm and 0.015, 0.030, 0.032, 0.035, 0.063 in. Common practice, no source.
[[nodiscard]] std::span<const double> soldSizes();

/// The fewest shims to buy so that every target is met within `tolerance`: what the best plan from sizes on sale needs over what the drawer
/// has. Empty where even sizes on sale do not do.
[[nodiscard]] std::vector<ShimKind> toBuy(
    std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt = 5);

/// What changes on one bolt: shims to take out of the stack that is in, and to put in.
struct Swap {
    std::vector<double> out;
    std::vector<double> in;
};
/// @param now shims that are in, m; sizes within 1 µm count as the same
[[nodiscard]] Swap swapFor(std::span<const double> now, std::span<const double> then);

} // namespace deepstop::centring
