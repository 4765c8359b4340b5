#pragma once
/// Inside centring/: piles of shims in whole steps, and how good one is.

#include "centring/centring.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <map>

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

[[nodiscard]] inline Stack stackOf(std::span<const Kind> kinds, std::span<const int> used, Steps target)
{
    Stack stack;
    Steps total = 0;
    for (std::size_t k = 0; k < kinds.size(); ++k)
        for (int i = 0; i < used[k]; ++i) {
            stack.shims.push_back(length(kinds[k].thickness));
            total += kinds[k].thickness;
        }
    stack.total = length(total);
    stack.residual = length(total - target);
    return stack;
}

struct Pile {
    std::vector<int> used;
    Steps total = 0;
    int shims = 0;
};

/// Appends every pile of at most `left` shims of the kinds from `k` on.
inline void everyPile(std::span<const Kind> kinds, std::size_t k, int left, Pile& pile, std::vector<Pile>& out)
{
    if (k == kinds.size()) {
        out.push_back(pile);
        return;
    }
    for (int n = 0; n <= std::min(left, kinds[k].count); ++n) {
        pile.used[k] = n;
        pile.total += n * kinds[k].thickness;
        pile.shims += n;
        everyPile(kinds, k + 1, left - n, pile, out);
        pile.total -= n * kinds[k].thickness;
        pile.shims -= n;
    }
    pile.used[k] = 0;
}

/// How good a pile is; sums of scores order as their parts do.
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
    return { std::max<Steps>(0, error - tolerance), pile.shims, error };
}

} // namespace deepstop::centring
