#pragma once
/// Inside centring/: shims in whole steps, and piles of few of them.

#include "centring/centring.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <map>
#include <span>
#include <vector>

namespace deepstop::centring {

/// Whole steps of 10 nm: 0.0001 in is 254 of them, 0.01 mm is 1000, so no pile is ever off by a rounding.
using Steps = std::int64_t;
inline constexpr double step = 1e-8;
/// No pile of shims is a metre thick; beyond that the steps are not counted.
inline constexpr double thickest = 1;
[[nodiscard]] inline Steps steps(double length) { return std::llround(std::clamp(length, -thickest, thickest) / step); }
[[nodiscard]] inline double length(Steps s) { return static_cast<double>(s) * step; }

struct Kind {
    Steps thickness;
    int count;
};

/// Usable kinds, thick before thin, equal thicknesses joined.
[[nodiscard]] inline std::vector<Kind> sortedKinds(std::span<const ShimKind> drawer)
{
    std::map<Steps, int, std::greater<>> joined;
    for (const ShimKind& kind : drawer)
        if (std::isfinite(kind.thickness) && kind.thickness < thickest && steps(kind.thickness) > 0 && kind.count > 0)
            joined[steps(kind.thickness)] += kind.count;
    std::vector<Kind> kinds;
    for (const auto& [thickness, count] : joined)
        kinds.push_back({ thickness, count });
    return kinds;
}

/// No bolt carries more shims than this, whatever is asked for.
inline constexpr int tallest = 8;

/// Up to `tallest` shims on one bolt, as indices of their kinds, thick before thin.
struct Pile {
    Steps total = 0;
    std::uint8_t size = 0;
    std::array<std::uint8_t, tallest> kinds {};
    [[nodiscard]] std::span<const std::uint8_t> shims() const { return { kinds.data(), size }; }
    bool operator==(const Pile&) const = default;
};

/// What a set of bolts leaves undone; sums order as their parts do. First what they miss their targets by beyond the tolerance, then how
/// many shims it takes, then what they miss them by at all.
struct Score {
    Steps beyond = 0;
    int shims = 0;
    Steps error = 0;
    auto operator<=>(const Score&) const = default;
    Score operator+(const Score& o) const { return { beyond + o.beyond, shims + o.shims, error + o.error }; }
};

[[nodiscard]] inline Score score(const Pile& pile, Steps target, Steps tolerance)
{
    const Steps error = std::abs(pile.total - target);
    return { std::max<Steps>(0, error - tolerance), pile.size, error };
}

[[nodiscard]] inline Stack stackOf(std::span<const Kind> kinds, const Pile& pile, Steps target)
{
    Stack stack;
    for (const std::uint8_t k : pile.shims())
        stack.shims.push_back(length(kinds[k].thickness));
    stack.total = length(pile.total);
    stack.residual = length(pile.total - target);
    return stack;
}

/// Piles of a drawer, by their height.
struct Piles {
    std::vector<Pile> all; ///< from low to high
    bool complete = true; ///< every pile there is; else only those of fewer shims than were asked for
};

/// Every pile of at most `most` shims. A drawer of very many sizes gets lower piles, so that there are never more than some hundred
/// thousand.
[[nodiscard]] Piles everyPile(std::span<const Kind> kinds, int most);

} // namespace deepstop::centring
