#pragma once
/// Inside the chapter: one corner in one wheel, tried.

#include "chapters/clearance/wheel_figures.hpp"
#include "verdict/judge.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <utility>

namespace deepstop {

/// Whether a wheel has anything of that kind to strike.
[[nodiscard]] inline bool strikes(WheelGap which, const Wheel& wheel) { return which != WheelGap::Insets || !wheel.insets.empty(); }

/// The gaps of an axle as they are, the worse side of each.
using Gaps = std::array<Figure, wheelGaps.size()>;
[[nodiscard]] inline Gaps gapsOf(const AxleClearance& axle)
{
    Gaps gaps;
    for (const WheelGap which : wheelGaps)
        gaps[static_cast<std::size_t>(which)] = figures::lesserOf(axle.left.room(which).gap, axle.right.room(which).gap).figure;
    return gaps;
}

/// Room of an axle's corners in one wheel, the worse side speaking.
class Tried {
public:
    Tried(const Build& build, const Corner& corner, const Wheel& wheel) : build_(build), corner_(corner), wheel_(wheel) { }

    double nominally(WheelGap which) const
    {
        const auto of = [&](Side side) {
            return nominal([&](Evaluator& s) { return figures::wheelGap(s, which, corner_, side, wheel_, build_.wants); });
        };
        const double left = of(Side::Left);
        // std::min would swallow a NaN.
        const double right = corner_.left == corner_.right ? left : of(Side::Right);
        return std::isnan(right) ? right : std::isnan(left) ? left : std::min(left, right);
    }
    Figure fully(WheelGap which) const
    {
        auto left = figures::wheelGapOf(which, corner_, Side::Left, wheel_, build_.wants, figures::Effects::LeftOut);
        if (corner_.left == corner_.right)
            return left;
        return figures::lesserOf(
            std::move(left), figures::wheelGapOf(which, corner_, Side::Right, wheel_, build_.wants, figures::Effects::LeftOut))
            .figure;
    }
    double wanted(WheelGap which) const { return figures::wantedOf(which, wheel_, build_.wants); }

    /// Every gap wide enough at nominal readings, allowing as much uncertainty as `allowance` has; a cheap sieve before `fully`.
    bool mayClear(const std::array<double, wheelGaps.size()>& allowance) const
    {
        return std::ranges::all_of(wheelGaps, [&](WheelGap which) { return mayClear(which, allowance); });
    }
    bool mayClear(WheelGap which, const std::array<double, wheelGaps.size()>& allowance) const
    {
        // A gap that is not known is for the full evaluation to judge.
        return !strikes(which, wheel_) || !(nominally(which) < wanted(which) + allowance[static_cast<std::size_t>(which)] - 1e-12);
    }
    /// The same sieve for what helps one gap and worsens none that was not wide enough.
    bool mayHelp(const std::array<double, wheelGaps.size()>& allowance, const Gaps& was) const
    {
        bool helps = false;
        for (const WheelGap which : wheelGaps) {
            if (!strikes(which, wheel_))
                continue;
            const Figure& gap = was[static_cast<std::size_t>(which)];
            const auto before = gap.value;
            const bool failed = before && gapLevel(gap, wanted(which)) != Level::Clear;
            if (mayClear(which, allowance))
                helps = helps || failed;
            else if (!failed || !(nominally(which) >= *before - 1e-9) || !(nominally(which) > 0))
                return false;
        }
        return helps;
    }

    /// @param was what the gaps are now: one that is wide enough by far, now and then, is taken at its nominal size with today's
    /// uncertainty;
    ///            null: every gap in full
    std::pair<Gaps, Level> judged(const Gaps* was = nullptr) const
    {
        Gaps gaps;
        Level worst = Level::Clear;
        for (const WheelGap which : wheelGaps)
            if (strikes(which, wheel_)) {
                Figure& gap = gaps[static_cast<std::size_t>(which)];
                const Figure* now = was ? &(*was)[static_cast<std::size_t>(which)] : nullptr;
                const double size =
                    now && gapLevel(*now, wanted(which)) == Level::Clear ? nominally(which) : std::numeric_limits<double>::quiet_NaN();
                if (now && size >= wanted(which) + 2 * now->worstCase) {
                    gap = *now;
                    gap.value = size;
                } else {
                    gap = fully(which);
                }
                worst = std::max(worst, gapLevel(gap, wanted(which)));
            }
        return { std::move(gaps), worst };
    }

private:
    const Build& build_;
    const Corner& corner_;
    const Wheel& wheel_;
};

/// What a gap's uncertainty will be about, elsewhere. Beside weights and valve it jumps where they come over the caliper, so nothing is
/// taken.
[[nodiscard]] inline double allowanceOf(const Gaps& gaps, WheelGap which)
{
    const Figure& gap = gaps[static_cast<std::size_t>(which)];
    return gap.value && which != WheelGap::Insets ? gap.worstCase : 0;
}

} // namespace deepstop
