#pragma once
/// Every bolt of the car from one drawer: both bolts of both sides, radial studs beside them where there are any.

#include "centring/centring.hpp"

namespace deepstop::centring {

/// What lies on each bolt, in the order of their targets.
struct CarPlan {
    std::vector<Stack> stacks;
    double beyond = 0; ///< sum of what the stacks miss their targets by, beyond the tolerance, m
    double error = 0; ///< sum of what they miss them by, m
    int shims = 0;
    [[nodiscard]] bool within() const { return beyond <= 0; }
};

/// The best ways to share `drawer` out, best first, at most `most`, no two with the same shims on every bolt. Best is: least sum of errors
/// beyond `tolerance`, then fewest shims, then least sum of errors. Exact over all piles of at most `mostPerBolt` shims. Empty where a
/// target is not finite or over 1 m; a negative target is met as nearly as an empty stack can.
/// @param drawer every shim there is for the whole car, those now under its calipers included
[[nodiscard]] std::vector<CarPlan> carPlans(std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt = 5, std::size_t most = 2);

/// Sizes that shims are sold in, m: 0.25, 0.5, 0.75, 0.9, 1, 2, 3 mm and 0.015, 0.030, 0.032, 0.035, 0.063 in. Common practice, no source.
[[nodiscard]] std::span<const double> soldSizes();

/// The fewest shims to buy so that every target is met within `tolerance`: what the best plan from sizes on sale needs over what the drawer
/// has. Empty where the drawer does, or where even sizes on sale do not.
[[nodiscard]] std::vector<ShimKind> toBuy(std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt = 5);

/// What changes on one bolt: shims to take out of the stack that is in, and to put in.
struct Swap {
    std::vector<double> out;
    std::vector<double> in;
};
/// @param now shims that are in, m; sizes within 1 µm count as the same
[[nodiscard]] Swap swapFor(std::span<const double> now, std::span<const double> then);

} // namespace deepstop::centring
