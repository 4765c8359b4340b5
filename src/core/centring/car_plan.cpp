#include "centring/car_plan.hpp"

#include "centring/piles.hpp"

#include <array>
#include <limits>

namespace deepstop::centring {
namespace {

struct Ranked {
    Score score;
    const Pile* pile;
};

/// Depth-first over the bolts, each bolt's piles best first. What is still to come costs at least the best piles that the drawer can still
/// give, each bolt by itself; where that is no better than what has been found, the branch ends.
class Share {
public:
    Share(std::span<const Kind> kinds, std::vector<std::vector<Ranked>> lists, std::size_t most) : kinds_(kinds), lists_(std::move(lists)), most_(most), used_(kinds.size(), 0), picked_(lists_.size(), nullptr) { }

    std::vector<std::vector<const Pile*>> best()
    {
        descend(0, {});
        std::vector<std::vector<const Pile*>> plans;
        for (auto& found : found_)
            plans.push_back(std::move(found.piles));
        return plans;
    }

private:
    struct Found {
        Score score;
        std::vector<const Pile*> piles;
    };

    bool fits(const Pile& pile) const
    {
        for (std::size_t k = 0; k < kinds_.size(); ++k)
            if (used_[k] + pile.used[k] > kinds_[k].count)
                return false;
        return true;
    }

    /// Best that bolts from `bolt` on can still have, each by itself.
    Score atLeast(std::size_t bolt) const
    {
        Score sum;
        for (std::size_t b = bolt; b < lists_.size(); ++b)
            sum = sum + std::ranges::find_if(lists_[b], [this](const Ranked& r) { return fits(*r.pile); })->score;
        return sum;
    }

    bool worthwhile(const Score& s) const { return found_.size() < most_ || s < found_.back().score; }

    void descend(std::size_t bolt, Score soFar)
    {
        if (bolt == lists_.size()) {
            const auto place = std::ranges::upper_bound(found_, soFar, {}, &Found::score);
            found_.insert(place, { soFar, picked_ });
            if (found_.size() > most_)
                found_.pop_back();
            return;
        }
        const Score rest = bolt + 1 < lists_.size() ? atLeast(bolt + 1) : Score {};
        for (const Ranked& r : lists_[bolt]) {
            if (!worthwhile(soFar + r.score + rest))
                return;
            if (!fits(*r.pile))
                continue;
            picked_[bolt] = r.pile;
            for (std::size_t k = 0; k < kinds_.size(); ++k)
                used_[k] += r.pile->used[k];
            if (bolt + 1 == lists_.size() || worthwhile(soFar + r.score + atLeast(bolt + 1)))
                descend(bolt + 1, soFar + r.score);
            for (std::size_t k = 0; k < kinds_.size(); ++k)
                used_[k] -= r.pile->used[k];
        }
    }

    std::span<const Kind> kinds_;
    std::vector<std::vector<Ranked>> lists_;
    std::size_t most_;
    std::vector<int> used_;
    std::vector<const Pile*> picked_;
    std::vector<Found> found_; ///< best first
};

} // namespace

std::vector<CarPlan> carPlans(std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt, std::size_t most)
{
    for (const double target : targets)
        if (!std::isfinite(target) || std::abs(target) > thickest)
            return {};
    const auto kinds = sortedKinds(drawer);
    std::vector<Pile> piles;
    Pile empty { std::vector<int>(kinds.size(), 0), 0, 0 };
    everyPile(kinds, 0, std::max(0, mostPerBolt), empty, piles);
    const Steps allowed = std::max<Steps>(0, steps(tolerance));
    std::vector<std::vector<Ranked>> lists;
    for (const double target : targets) {
        auto& list = lists.emplace_back();
        list.reserve(piles.size());
        for (const Pile& pile : piles)
            list.push_back({ score(pile, steps(target), allowed), &pile });
        std::ranges::stable_sort(list, {}, &Ranked::score);
    }
    std::vector<CarPlan> plans;
    for (const auto& picked : Share(kinds, std::move(lists), most).best()) {
        CarPlan plan;
        Score sum;
        for (std::size_t b = 0; b < picked.size(); ++b) {
            plan.stacks.push_back(stackOf(kinds, picked[b]->used, steps(targets[b])));
            sum = sum + score(*picked[b], steps(targets[b]), allowed);
        }
        plan.beyond = length(sum.beyond);
        plan.error = length(sum.error);
        plan.shims = sum.shims;
        plans.push_back(std::move(plan));
    }
    return plans;
}

std::span<const double> soldSizes()
{
    static constexpr std::array sizes { 0.25e-3, 0.5e-3, 0.75e-3, 0.9e-3, 1e-3, 2e-3, 3e-3, 0.015 * 25.4e-3, 0.030 * 25.4e-3, 0.032 * 25.4e-3, 0.035 * 25.4e-3, 0.063 * 25.4e-3 };
    return sizes;
}

std::vector<ShimKind> toBuy(std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt)
{
    const auto own = carPlans(targets, drawer, tolerance, mostPerBolt, 1);
    if (own.empty() || own.front().within())
        return {};
    // As many of every size as could be needed: the bolts no longer compete, and each is met by itself.
    std::vector<ShimKind> shop;
    for (const double size : soldSizes())
        shop.push_back({ size, mostPerBolt * static_cast<int>(targets.size()) });
    for (const ShimKind& kind : drawer)
        shop.push_back(kind);
    const auto best = carPlans(targets, shop, tolerance, mostPerBolt, 1);
    if (best.empty() || !best.front().within())
        return {};
    std::map<Steps, int> needed;
    for (const Stack& stack : best.front().stacks)
        for (const double shim : stack.shims)
            ++needed[steps(shim)];
    for (const ShimKind& kind : drawer)
        if (const auto found = needed.find(steps(kind.thickness)); found != needed.end())
            found->second -= kind.count;
    std::vector<ShimKind> list;
    for (const auto& [size, count] : needed)
        if (count > 0)
            list.push_back({ length(size), count });
    return list;
}

Swap swapFor(std::span<const double> now, std::span<const double> then)
{
    Swap swap;
    std::vector<double> left(now.begin(), now.end());
    for (const double shim : then) {
        const auto kept = std::ranges::find_if(left, [shim](double s) { return std::abs(s - shim) < 1e-6; });
        if (kept != left.end())
            left.erase(kept);
        else
            swap.in.push_back(shim);
    }
    swap.out = std::move(left);
    return swap;
}

} // namespace deepstop::centring
