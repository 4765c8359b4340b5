#include "centring/piles.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

namespace deepstop::centring {
namespace {

/// One reachable total, and the step that led to it with the fewest shims.
struct Reached {
    int shims;
    int ofThisKind;
};

} // namespace

Stack bestStack(double target, std::span<const ShimKind> drawer, double tolerance)
{
    const auto kinds = sortedKinds(drawer);
    const Steps wanted = steps(target);
    const Steps allowed = std::max<Steps>(0, steps(tolerance));
    std::vector<int> used(kinds.size(), 0);
    if (wanted <= 0)
        return stackOf(kinds, used, wanted);
    // The pile a hand would stack, thick before thin and never too high, is off by so much; nothing higher than that above the target is nearer.
    Steps stacked = 0;
    for (const Kind& kind : kinds)
        stacked += std::min<Steps>(kind.count, (wanted - stacked) / kind.thickness) * kind.thickness;
    const Steps ceiling = wanted + std::max(allowed, wanted - stacked);
    std::vector<std::map<Steps, Reached>> layers { { { 0, { 0, 0 } } } };
    for (const Kind& kind : kinds) {
        std::map<Steps, Reached> next;
        for (const auto& [total, reached] : layers.back())
            for (int n = 0; n <= kind.count && total + n * kind.thickness <= ceiling; ++n) {
                const auto [at, fresh] = next.try_emplace(total + n * kind.thickness, Reached { reached.shims + n, n });
                if (!fresh && reached.shims + n < at->second.shims)
                    at->second = { reached.shims + n, n };
            }
        layers.push_back(std::move(next));
    }
    const auto rank = [&](const std::pair<const Steps, Reached>& r) {
        const Steps error = std::abs(r.first - wanted);
        // Within tolerance the count decides; outside, the error does.
        return error <= allowed ? std::tuple { Steps { 0 }, static_cast<Steps>(r.second.shims), error }
                                : std::tuple { Steps { 1 }, error, static_cast<Steps>(r.second.shims) };
    };
    auto best = *std::ranges::min_element(layers.back(), {}, rank);
    Steps total = best.first;
    for (std::size_t k = kinds.size(); k > 0; --k) {
        used[k - 1] = layers[k].at(total).ofThisKind;
        total -= used[k - 1] * kinds[k - 1].thickness;
    }
    return stackOf(kinds, used, wanted);
}

Plan plan(const Position& now, const Mounting& mounting, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt)
{
    Plan result;
    // Thicker by t moves the bolt by direction · t; the error there is to vanish.
    const double wantedTop = mounting.stackTop - mounting.direction * now.atTopBolt;
    const double wantedBottom = mounting.stackBottom - mounting.direction * now.atBottomBolt;
    if (!std::isfinite(wantedTop) || !std::isfinite(wantedBottom)) {
        result.why = "A reading is missing.";
        return result;
    }
    if (std::abs(wantedTop) > thickest || std::abs(wantedBottom) > thickest) {
        result.why = "The gaps cannot be right: no caliper is that far off.";
        return result;
    }
    const auto kinds = sortedKinds(drawer);
    std::vector<Pile> piles;
    Pile empty { std::vector<int>(kinds.size(), 0), 0, 0 };
    everyPile(kinds, 0, std::max(0, mostPerBolt), empty, piles);

    const Steps top = steps(wantedTop);
    const Steps bottom = steps(wantedBottom);
    const Steps allowed = std::max<Steps>(0, steps(tolerance));
    struct Ranked {
        Score score;
        const Pile* pile;
    };
    const auto ranked = [&](Steps target) {
        std::vector<Ranked> list;
        for (const Pile& pile : piles)
            list.push_back({ score(pile, target, allowed), &pile });
        std::ranges::stable_sort(list, {}, &Ranked::score);
        return list;
    };
    const auto forTop = ranked(top);
    const auto forBottom = ranked(bottom);
    const auto together = [&](const Pile& a, const Pile& b) {
        for (std::size_t k = 0; k < kinds.size(); ++k)
            if (a.used[k] + b.used[k] > kinds[k].count)
                return false;
        return true;
    };
    const Pile* bestTop = nullptr;
    const Pile* bestBottom = nullptr;
    Score best {};
    for (const Ranked& a : forTop) {
        if (bestTop && !(a.score + forBottom.front().score < best))
            break;
        for (const Ranked& b : forBottom) {
            if (bestTop && !(a.score + b.score < best))
                break;
            if (!together(*a.pile, *b.pile))
                continue;
            best = a.score + b.score;
            bestTop = a.pile;
            bestBottom = b.pile;
            break;
        }
    }
    result.top = stackOf(kinds, bestTop->used, top);
    result.bottom = stackOf(kinds, bestBottom->used, bottom);
    const double leftTop = mounting.direction * result.top.residual;
    const double leftBottom = mounting.direction * result.bottom.residual;
    result.remaining = { (leftTop + leftBottom) / 2, (leftTop - leftBottom) / mounting.boltSpacing, leftTop, leftBottom };
    result.possible = best.beyond == 0;
    if (!result.possible) {
        const double least = std::min(wantedTop, wantedBottom);
        if (steps(least) < -allowed)
            result.why = "Cannot be shimmed: more would have to come out than is in. Machine the ear, or set the rotor out with a ring.";
        else if (kinds.empty())
            result.why = "The drawer is empty.";
        else
            result.why = "The drawer does not hold the right sizes: this is the nearest it can do.";
    }
    return result;
}

} // namespace deepstop::centring
