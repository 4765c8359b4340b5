#pragma once
/// Inside the chapter: one corner in one wheel, tried.

#include "chapters/clearance/wheel_figures.hpp"
#include "verdict/judge.hpp"

#include <algorithm>
#include <array>
#include <limits>
#include <utility>

namespace deepstop {

/// Whether a wheel has anything of that kind to strike.
[[nodiscard]] inline bool strikes(WheelGap which, const Wheel& wheel) { return which != WheelGap::Insets || !wheel.insets.empty(); }

/// Room of one corner in one wheel.
class Tried {
public:
    Tried(const Build& build, const Corner& corner, const Wheel& wheel) : build_(build), corner_(corner), wheel_(wheel) { }

    double nominally(WheelGap which) const
    {
        return nominal([&](Sample& s) { return figures::wheelGap(s, which, corner_, wheel_, build_.wants); });
    }
    Figure fully(WheelGap which) const
    {
        return evaluate([&](Sample& s) { return figures::wheelGap(s, which, corner_, wheel_, build_.wants); });
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
    bool mayHelp(const std::array<double, wheelGaps.size()>& allowance, const CornerClearance& was) const
    {
        bool helps = false;
        for (const WheelGap which : wheelGaps) {
            if (!strikes(which, wheel_))
                continue;
            const auto before = was.room(which).gap.value;
            const bool failed = before && gapLevel(was.room(which).gap, was.room(which).wanted) != Level::Clear;
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
    std::pair<std::array<Figure, wheelGaps.size()>, Level> judged(const CornerClearance* was = nullptr) const
    {
        std::array<Figure, wheelGaps.size()> gaps;
        Level worst = Level::Clear;
        for (const WheelGap which : wheelGaps)
            if (strikes(which, wheel_)) {
                Figure& gap = gaps[static_cast<std::size_t>(which)];
                const Figure* now = was && was->wheel == &wheel_ ? &was->room(which).gap : nullptr;
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
[[nodiscard]] inline double allowanceOf(const CornerClearance& result, WheelGap which)
{
    const Figure& gap = result.room(which).gap;
    return gap.value && which != WheelGap::Insets ? gap.worstCase : 0;
}

} // namespace deepstop
