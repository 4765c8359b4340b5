#include "centring/car_plan.hpp"
#include "centring/piles.hpp"
#include "language/language.hpp"

#include <algorithm>
#include <cmath>
#include <array>
#include <numeric>
#include <tuple>

namespace deepstop::centring {
namespace {

/// Fewest shims of the kinds so far for every height in whole grid steps; what cannot be stacked is `never`.
using Fewest = std::vector<std::uint16_t>;
constexpr std::uint16_t never = 65535;

/// One kind more: for heights that leave the same remainder the best of up to `count` shims, kept in a window that slides along them.
Fewest withKind(const Fewest& before, std::size_t thickness, std::size_t count)
{
    Fewest after(before.size(), never);
    std::vector<std::pair<std::size_t, int>> window; // place in its row, shims less those its height would take
    for (std::size_t remainder = 0; remainder < std::min(thickness, before.size()); ++remainder) {
        window.clear();
        std::size_t head = 0;
        for (std::size_t height = remainder, place = 0; height < before.size(); height += thickness, ++place) {
            if (before[height] != never) {
                const int fewer = before[height] - static_cast<int>(place);
                while (window.size() > head && window.back().second >= fewer)
                    window.pop_back();
                window.emplace_back(place, fewer);
            }
            while (head < window.size() && window[head].first + count < place)
                ++head;
            if (head < window.size())
                after[height] = static_cast<std::uint16_t>(window[head].second + static_cast<int>(place));
        }
    }
    return after;
}

} // namespace

Stack bestStack(double target, std::span<const ShimKind> drawer, double tolerance)
{
    const auto kinds = sortedKinds(drawer);
    const Steps wanted = steps(target);
    const Steps allowed = std::max<Steps>(0, steps(tolerance));
    std::vector<int> used(kinds.size(), 0);
    const auto stacked = [&] {
        Stack stack;
        Steps total = 0;
        for (std::size_t k = 0; k < kinds.size(); ++k)
            for (int i = 0; i < used[k]; ++i, total += kinds[k].thickness)
                stack.shims.push_back(length(kinds[k].thickness));
        stack.total = length(total);
        stack.residual = length(total - wanted);
        return stack;
    };
    if (wanted <= 0 || kinds.empty())
        return stacked();
    Steps everything = 0;
    for (const Kind& kind : kinds)
        everything += kind.count * kind.thickness;
    if (everything <= wanted) {
        // All there is does not reach beyond it: within tolerance some may be spared, else all are needed.
        if (everything + allowed < wanted) {
            for (std::size_t k = 0; k < kinds.size(); ++k)
                used[k] = kinds[k].count;
            return stacked();
        }
    }
    // The pile a hand would stack, thick before thin and never too high, is off by so much; nothing higher than that above the target is
    // nearer.
    Steps byHand = 0;
    for (const Kind& kind : kinds)
        byHand += std::min<Steps>(kind.count, (wanted - byHand) / kind.thickness) * kind.thickness;
    const Steps ceiling = std::min(everything, wanted + std::max(allowed, wanted - byHand));
    // Heights are counted in what all thicknesses have in common; sizes that have next to nothing in common, in micrometres.
    Steps grid = 0;
    for (const Kind& kind : kinds)
        grid = std::gcd(grid, kind.thickness);
    constexpr Steps micrometre = 100;
    constexpr Steps mostHeights = 1'500'000;
    if (ceiling / grid > mostHeights)
        grid = std::max(micrometre, ceiling / mostHeights + 1);
    const auto heights = static_cast<std::size_t>(ceiling / grid) + 1;
    std::vector<Fewest> layers { Fewest(heights, never) };
    layers.front()[0] = 0;
    const auto thicknessOf = [&](const Kind& kind) {
        return std::max<std::size_t>(1, static_cast<std::size_t>((kind.thickness + grid / 2) / grid));
    };
    for (const Kind& kind : kinds)
        layers.push_back(withKind(layers.back(), thicknessOf(kind), static_cast<std::size_t>(kind.count)));
    const auto rank = [&](std::size_t height) {
        const Steps error = std::abs(static_cast<Steps>(height) * grid - wanted);
        const Steps shims = layers.back()[height];
        // Within tolerance the count decides; outside, the error does.
        return error <= allowed ? std::tuple { Steps { 0 }, shims, error } : std::tuple { Steps { 1 }, error, shims };
    };
    std::size_t best = 0;
    for (std::size_t height = 1; height < heights; ++height)
        if (layers.back()[height] != never && rank(height) < rank(best))
            best = height;
    for (std::size_t k = kinds.size(); k > 0; --k) {
        const auto thickness = thicknessOf(kinds[k - 1]);
        int n = 0;
        while (layers[k - 1][best] == never || layers[k - 1][best] + n != layers[k][best + static_cast<std::size_t>(n) * thickness]) {
            ++n;
            best -= thickness;
        }
        used[k - 1] = n;
    }
    return stacked();
}

Plan plan(const Position& now, const Mounting& mounting, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt)
{
    Plan result;
    // Thicker by t moves the bolt by direction · t; the error there is to vanish.
    const double wantedTop = mounting.stackTop - mounting.direction * now.atTopBolt;
    const double wantedBottom = mounting.stackBottom - mounting.direction * now.atBottomBolt;
    if (!std::isfinite(wantedTop) || !std::isfinite(wantedBottom)) {
        result.why = tr("A reading is missing.");
        return result;
    }
    if (std::abs(wantedTop) > thickest || std::abs(wantedBottom) > thickest) {
        result.why = tr("The gaps cannot be right: no caliper is that far off.");
        return result;
    }
    const auto best = carPlan(std::array { wantedTop, wantedBottom }, drawer, tolerance, mostPerBolt);
    result.top = best.stacks[0];
    result.bottom = best.stacks[1];
    const double leftTop = mounting.direction * result.top.residual;
    const double leftBottom = mounting.direction * result.bottom.residual;
    result.remaining = { (leftTop + leftBottom) / 2, (leftTop - leftBottom) / mounting.boltSpacing, leftTop, leftBottom };
    result.possible = best.within();
    if (!result.possible) {
        const double least = std::min(wantedTop, wantedBottom);
        if (steps(least) < -std::max<Steps>(0, steps(tolerance)))
            result.why =
                tr("Cannot be shimmed: more would have to come out than is in. Machine the ear, or set the rotor out with a ring.");
        else if (sortedKinds(drawer).empty())
            result.why = tr("The drawer is empty.");
        else
            result.why = tr("The drawer does not hold the right sizes: this is the nearest it can do.");
    }
    return result;
}

} // namespace deepstop::centring
