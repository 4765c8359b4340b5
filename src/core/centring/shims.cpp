#include "centring/centring.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <map>
#include <numeric>

namespace deepstop::centring {
namespace {

/// Whole steps of 10 nm: 0.0001 in is 254 of them, 0.01 mm is 1000, so no pile is ever off by a rounding.
using Steps = std::int64_t;
constexpr double step = 1e-8;
/// No pile of shims is a metre thick; beyond that the steps are not counted.
constexpr double thickest = 1;
Steps steps(double length) { return std::llround(std::clamp(length, -thickest, thickest) / step); }
double length(Steps s) { return static_cast<double>(s) * step; }

struct Kind {
    Steps thickness;
    int count;
};

/// Usable kinds, thick before thin, equal thicknesses joined.
std::vector<Kind> sorted(std::span<const ShimKind> drawer)
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

Stack stackOf(std::span<const Kind> kinds, std::span<const int> used, Steps target)
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

/// One reachable total, and the step that led to it with the fewest shims.
struct Reached {
    int shims;
    int ofThisKind;
};

struct Pile {
    std::vector<int> used;
    Steps total = 0;
    int shims = 0;
};

void everyPile(std::span<const Kind> kinds, std::size_t k, int left, Pile& pile, std::vector<Pile>& out)
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
    Steps beyond;
    int shims;
    Steps error;
    auto operator<=>(const Score&) const = default;
    Score operator+(const Score& o) const { return { beyond + o.beyond, shims + o.shims, error + o.error }; }
};

Score score(const Pile& pile, Steps target, Steps tolerance)
{
    const Steps error = std::abs(pile.total - target);
    return { std::max<Steps>(0, error - tolerance), pile.shims, error };
}

} // namespace

Stack bestStack(double target, std::span<const ShimKind> drawer, double tolerance)
{
    const auto kinds = sorted(drawer);
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
    const auto kinds = sorted(drawer);
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
