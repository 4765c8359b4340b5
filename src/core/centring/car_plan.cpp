#include "centring/car_plan.hpp"

#include "centring/piles.hpp"
#include "task/cancel.hpp"

#include <array>
#include <limits>
#include <numeric>
#include <optional>

namespace deepstop::centring {
namespace {

/// What is minimised, as one number: a step missed weighs more than all shims there can be.
using Cost = std::int64_t;
constexpr Cost aStep = 4096;

Cost costOf(const Score& s) { return s.beyond * aStep + s.shims; }

/// One bolt and the piles that come into question for it, best first.
struct Bolt {
    Steps target = 0;
    std::vector<Pile> piles;
    std::vector<Score> scores;
    Cost leftOut = std::numeric_limits<Cost>::max(); ///< what every pile that is not in the list costs at least
};

struct Problem {
    std::vector<Kind> kinds;
    Steps tolerance = 0;
    std::vector<Bolt> bolts;
};

Bolt boltFor(Steps target, const Piles& piles, Steps tolerance)
{
    constexpr std::size_t most = 2500;
    constexpr std::size_t looked = 2 * most;
    Bolt bolt { target, {}, {}, std::numeric_limits<Cost>::max() };
    const auto& all = piles.all;
    // From where the target lies outward to both sides: all within tolerance, and the nearest outside it.
    auto low = std::ranges::lower_bound(all, target, {}, &Pile::total);
    auto high = low;
    std::vector<const Pile*> near;
    const auto offLow = [&] { return low == all.begin() ? std::numeric_limits<Steps>::max() : target - std::prev(low)->total; };
    const auto offHigh = [&] { return high == all.end() ? std::numeric_limits<Steps>::max() : high->total - target; };
    while (low != all.begin() || high != all.end()) {
        const Steps next = std::min(offLow(), offHigh());
        if (near.size() >= looked && next > tolerance) {
            bolt.leftOut = (next - tolerance) * aStep;
            break;
        }
        near.push_back(offLow() <= offHigh() ? &*--low : &*high++);
    }
    std::ranges::stable_sort(near, {}, [&](const Pile* p) { return score(*p, target, tolerance); });
    if (near.size() > most) {
        bolt.leftOut = std::min(bolt.leftOut, costOf(score(*near[most], target, tolerance)));
        near.resize(most);
    }
    if (!piles.complete)
        bolt.leftOut = 0;
    // With nothing on it every bolt can always be done.
    if (std::ranges::none_of(near, [](const Pile* p) { return p->size == 0; }))
        near.push_back(&*std::ranges::find(all, 0, &Pile::size));
    for (const Pile* p : near) {
        bolt.piles.push_back(*p);
        bolt.scores.push_back(score(*p, target, tolerance));
    }
    return bolt;
}

Problem problemOf(std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt)
{
    Problem p { sortedKinds(drawer), std::max<Steps>(0, steps(tolerance)), {} };
    const auto piles = everyPile(p.kinds, mostPerBolt);
    for (const double target : targets) {
        // Bolts of one target, as on both sides of a car, have one list.
        const auto same = std::ranges::find(p.bolts, steps(target), &Bolt::target);
        p.bolts.push_back(same != p.bolts.end() ? Bolt(*same) : boltFor(steps(target), piles, p.tolerance));
    }
    return p;
}

/// What of the drawer is used.
class Used {
public:
    explicit Used(const std::vector<Kind>& kinds) : kinds_(&kinds), used_(kinds.size(), 0) { }
    bool fits(const Pile& pile) const
    {
        int run = 0;
        for (std::size_t i = 0; i < pile.size; ++i) {
            run = i > 0 && pile.kinds[i] == pile.kinds[i - 1] ? run + 1 : 1;
            if (used_[pile.kinds[i]] + run > (*kinds_)[pile.kinds[i]].count)
                return false;
        }
        return true;
    }
    void take(const Pile& pile)
    {
        for (const auto k : pile.shims())
            ++used_[k];
    }
    void giveBack(const Pile& pile)
    {
        for (const auto k : pile.shims())
            --used_[k];
    }

private:
    const std::vector<Kind>* kinds_;
    std::vector<int> used_;
};

/// Which pile of its list every bolt has.
using Picks = std::vector<std::size_t>;

Score scoreOf(const Problem& p, const Picks& picks)
{
    Score sum;
    for (std::size_t b = 0; b < picks.size(); ++b)
        sum = sum + p.bolts[b].scores[picks[b]];
    return sum;
}

/// Exchanges what lies on two bolts at a time, each pair as well as the rest of the drawer allows, until nothing gets better.
void exchange(const Problem& p, Picks& picks)
{
    constexpr long mostTries = 20'000; // a pair
    Used used(p.kinds);
    for (std::size_t b = 0; b < picks.size(); ++b)
        used.take(p.bolts[b].piles[picks[b]]);
    constexpr int mostRounds = 6;
    bool better = true;
    for (int round = 0; better && round < mostRounds; ++round) {
        better = false;
        for (std::size_t a = 0; a < picks.size(); ++a)
            for (std::size_t b = a; b < picks.size(); ++b) {
                const Bolt& one = p.bolts[a];
                const Bolt& other = p.bolts[b];
                const bool alone = a == b;
                used.giveBack(one.piles[picks[a]]);
                if (!alone)
                    used.giveBack(other.piles[picks[b]]);
                Score best = alone ? one.scores[picks[a]] : one.scores[picks[a]] + other.scores[picks[b]];
                long tries = 0;
                for (std::size_t i = 0; i < one.piles.size() && tries < mostTries; ++i, ++tries) {
                    if (!((alone ? one.scores[i] : one.scores[i] + other.scores.front()) < best))
                        break;
                    if (!used.fits(one.piles[i]))
                        continue;
                    if (alone) {
                        best = one.scores[i];
                        picks[a] = i;
                        better = true;
                        break;
                    }
                    used.take(one.piles[i]);
                    for (std::size_t k = 0; k < other.piles.size() && one.scores[i] + other.scores[k] < best; ++k, ++tries)
                        if (used.fits(other.piles[k])) {
                            best = one.scores[i] + other.scores[k];
                            picks[a] = i;
                            picks[b] = k;
                            better = true;
                        }
                    used.giveBack(one.piles[i]);
                }
                used.take(one.piles[picks[a]]);
                if (!alone)
                    used.take(other.piles[picks[b]]);
            }
    }
}

/// Prices of the shims and what they prove: no plan costs less than `bound`.
struct Dual {
    std::vector<double> prices; ///< of each kind, not below 0
    double bound = -std::numeric_limits<double>::infinity();
};

double priced(const Bolt& bolt, std::size_t i, std::span<const double> prices)
{
    double cost = static_cast<double>(costOf(bolt.scores[i]));
    for (const auto k : bolt.piles[i].shims())
        cost += prices[k];
    return cost;
}

double least(const Bolt& bolt, std::span<const double> prices, std::size_t& which)
{
    double best = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < bolt.piles.size(); ++i) {
        // In their order the scores only grow, and prices only add.
        if (static_cast<double>(costOf(bolt.scores[i])) >= best)
            break;
        if (const double cost = priced(bolt, i, prices); cost < best) {
            best = cost;
            which = i;
        }
    }
    return std::min(best, static_cast<double>(bolt.leftOut));
}

/// At these prices every bolt takes what is left of the drawer best, the ones with most to lose first.
Picks greedy(const Problem& p, std::span<const double> prices)
{
    std::vector<std::size_t> order(p.bolts.size());
    std::iota(order.begin(), order.end(), 0u);
    std::ranges::stable_sort(order, std::greater {}, [&](std::size_t b) { return p.bolts[b].target; });
    Used used(p.kinds);
    Picks picks(p.bolts.size());
    for (const std::size_t b : order) {
        const Bolt& bolt = p.bolts[b];
        double best = std::numeric_limits<double>::infinity();
        for (std::size_t i = 0; i < bolt.piles.size() && static_cast<double>(costOf(bolt.scores[i])) < best; ++i)
            if (const double cost = priced(bolt, i, prices); cost < best && used.fits(bolt.piles[i])) {
                best = cost;
                picks[b] = i;
            }
        used.take(bolt.piles[picks[b]]);
    }
    return picks;
}

class Solver {
public:
    Solver(const Problem& p, long effort) : p_(p), left_(effort) { }

    /// Leaves out what stacks up to these heights on every bolt.
    void forbid(std::vector<Steps> heights)
    {
        forbids_ = true;
        forbidden_ = std::move(heights);
    }

    void solve()
    {
        Dual now { std::vector<double>(p_.kinds.size(), 0.0) };
        if (!forbids_)
            offer(greedy(p_, now.prices));
        climb(now);
        if (!settled())
            branch();
        if (best_ && !forbids_) {
            exchange(p_, *best_);
            cost_ = costOf(scoreOf(p_, *best_));
        }
    }
    [[nodiscard]] const std::optional<Picks>& best() const { return best_; }
    [[nodiscard]] bool proven() const { return settled() || exhausted_; }
    /// What no plan goes below.
    [[nodiscard]] Cost bound() const { return proven() ? cost_ : std::max<Cost>(0, static_cast<Cost>(std::ceil(dual_.bound - 1e-6))); }

private:
    [[nodiscard]] bool settled() const { return best_ && dual_.bound > static_cast<double>(cost_) - 1 + 1e-6; }

    void offer(Picks picks)
    {
        exchange(p_, picks);
        if (const Cost cost = costOf(scoreOf(p_, picks)); !best_ || cost < cost_) {
            cost_ = cost;
            best_ = std::move(picks);
        }
    }

    /// Subgradient steps up the dual (Polyak's step length).
    void climb(Dual now)
    {
        constexpr int mostSteps = 100;
        constexpr int patience = 12; // steps without gain until they are halved
        double length = 1;
        int stale = 0;
        std::vector<int> over(p_.kinds.size());
        for (int i = 0; i < mostSteps && !settled(); ++i) {
            endIfCancelled();
            std::ranges::fill(over, 0);
            double bound = 0;
            for (const Bolt& bolt : p_.bolts) {
                std::size_t which = 0;
                bound += least(bolt, now.prices, which);
                for (const auto k : bolt.piles[which].shims())
                    ++over[k];
            }
            double norm = 0;
            for (std::size_t k = 0; k < over.size(); ++k) {
                bound -= now.prices[k] * p_.kinds[k].count;
                over[k] -= p_.kinds[k].count;
                // A price that is 0 and would fall stays where it is.
                if (now.prices[k] > 0 || over[k] > 0)
                    norm += static_cast<double>(over[k]) * over[k];
            }
            stale = bound > dual_.bound + 1e-9 ? 0 : stale + 1;
            if (bound > dual_.bound) {
                dual_ = now;
                dual_.bound = bound;
            }
            if (norm == 0)
                break;
            if (stale == patience) {
                length /= 2;
                stale = 0;
                now.prices = dual_.prices;
            }
            const double aim = best_ ? static_cast<double>(cost_) : dual_.bound + static_cast<double>(aStep);
            const double stride = length * std::max(aim - bound, 1e-3) / norm;
            for (std::size_t k = 0; k < over.size(); ++k)
                now.prices[k] = std::max(0.0, now.prices[k] + stride * over[k]);
            if (!forbids_ && i % 15 == 14)
                offer(greedy(p_, now.prices));
        }
    }

    /// Every plan whose priced excess over the bound could still beat the best, bolt after bolt.
    void branch()
    {
        const std::size_t bolts = p_.bolts.size();
        excess_.resize(bolts);
        sorted_.resize(bolts);
        order_.resize(bolts);
        std::iota(order_.begin(), order_.end(), 0u);
        for (std::size_t b = 0; b < bolts; ++b) {
            const Bolt& bolt = p_.bolts[b];
            std::size_t which = 0;
            const double lowest = least(bolt, dual_.prices, which);
            complete_ = complete_ && static_cast<double>(bolt.leftOut) - lowest > room();
            sorted_[b].resize(bolt.piles.size());
            std::iota(sorted_[b].begin(), sorted_[b].end(), 0u);
            excess_[b].resize(bolt.piles.size());
            for (std::size_t i = 0; i < bolt.piles.size(); ++i)
                excess_[b][i] = priced(bolt, i, dual_.prices) - lowest;
            std::ranges::stable_sort(sorted_[b], {}, [&](std::size_t i) { return excess_[b][i]; });
        }
        // Bolts of one target side by side, those with few ways first.
        const auto ways = [&](std::size_t b) { return std::ranges::count_if(excess_[b], [&](double e) { return e <= room(); }); };
        std::ranges::stable_sort(order_, {}, [&](std::size_t b) { return std::pair(ways(b), p_.bolts[b].target); });
        picks_.resize(bolts);
        Used used(p_.kinds);
        descend(0, 0, used, {});
        exhausted_ = complete_ && left_ > 0;
    }

    /// How much priced excess a plan may have that is to beat the best.
    [[nodiscard]] double room() const
    {
        return best_ ? static_cast<double>(cost_) - 1 + 1e-6 - dual_.bound : std::numeric_limits<double>::infinity();
    }

    void descend(std::size_t depth, double excess, Used& used, Score soFar)
    {
        if (depth == order_.size()) {
            if (const Cost cost = costOf(soFar); (!best_ || cost < cost_) && !isForbidden()) {
                best_ = picks_;
                cost_ = cost;
            }
            return;
        }
        const std::size_t b = order_[depth];
        const auto& sorted = sorted_[b];
        // Of bolts alike, the later has no earlier pile of their list: the same plan would come again with the two exchanged.
        const bool twin = depth > 0 && p_.bolts[order_[depth - 1]].target == p_.bolts[b].target && !forbids_;
        for (std::size_t at = twin ? place_[depth - 1] : 0; at < sorted.size(); ++at) {
            const std::size_t i = sorted[at];
            if (excess + excess_[b][i] > room() || --left_ <= 0)
                return;
            const Pile& pile = p_.bolts[b].piles[i];
            if (!used.fits(pile))
                continue;
            picks_[b] = i;
            place_[depth] = at;
            used.take(pile);
            descend(depth + 1, excess + excess_[b][i], used, soFar + p_.bolts[b].scores[i]);
            used.giveBack(pile);
        }
    }

    [[nodiscard]] bool isForbidden() const
    {
        if (!forbids_)
            return false;
        for (std::size_t b = 0; b < picks_.size(); ++b)
            if (p_.bolts[b].piles[picks_[b]].total != forbidden_[b])
                return false;
        return true;
    }

    const Problem& p_;
    long left_;
    bool forbids_ = false;
    std::vector<Steps> forbidden_;
    std::optional<Picks> best_;
    Cost cost_ = 0;
    Dual dual_;
    bool complete_ = true; ///< no pile left out of a list could belong to a better plan
    bool exhausted_ = false;
    std::vector<std::vector<double>> excess_;
    std::vector<std::vector<std::size_t>> sorted_;
    std::vector<std::size_t> order_;
    Picks picks_;
    std::array<std::size_t, 64> place_ {};
};

CarPlan planFrom(const Problem& p, const Solver& solver)
{
    CarPlan plan;
    if (!solver.best())
        return plan;
    const auto& picks = *solver.best();
    for (std::size_t b = 0; b < picks.size(); ++b)
        plan.stacks.push_back(stackOf(p.kinds, p.bolts[b].piles[picks[b]], p.bolts[b].target));
    const Score sum = scoreOf(p, picks);
    plan.beyond = length(sum.beyond);
    plan.error = length(sum.error);
    plan.shims = sum.shims;
    plan.proven = solver.proven();
    if (!plan.proven) {
        const Cost bound = solver.bound();
        const Steps gain = sum.beyond - bound / aStep;
        plan.couldGain = length(std::max<Steps>(0, gain));
        plan.couldSave = gain > 0 ? sum.shims : sum.shims - static_cast<int>(bound % aStep);
    }
    return plan;
}

bool sensible(std::span<const double> targets)
{
    constexpr std::size_t most = 64; // bolts; a car has sixteen
    return targets.size() <= most && std::ranges::all_of(targets, [](double t) { return std::isfinite(t) && std::abs(t) <= thickest; });
}

} // namespace

CarPlan carPlan(std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt, long effort)
{
    if (!sensible(targets))
        return {};
    const auto problem = problemOf(targets, drawer, tolerance, mostPerBolt);
    Solver solver(problem, effort);
    solver.solve();
    return planFrom(problem, solver);
}

CarPlan otherStacks(const CarPlan& plan, std::size_t first, std::size_t count, std::span<const double> targets,
    std::span<const ShimKind> drawer, double tolerance, int mostPerBolt)
{
    if (!sensible(targets) || plan.stacks.size() != targets.size() || first + count > targets.size())
        return {};
    std::map<Steps, int> left;
    for (const ShimKind& kind : drawer)
        left[steps(kind.thickness)] += kind.count;
    for (std::size_t b = 0; b < plan.stacks.size(); ++b)
        if (b < first || b >= first + count)
            for (const double shim : plan.stacks[b].shims)
                --left[steps(shim)];
    std::vector<ShimKind> rest;
    for (const auto& [thickness, number] : left)
        rest.push_back({ length(thickness), number });
    const auto problem = problemOf(targets.subspan(first, count), rest, tolerance, mostPerBolt);
    std::vector<Steps> heights;
    for (std::size_t b = 0; b < count; ++b)
        heights.push_back(steps(plan.stacks[first + b].total));
    constexpr long effort = 30'000;
    Solver solver(problem, effort);
    solver.forbid(std::move(heights));
    solver.solve();
    return planFrom(problem, solver);
}

std::vector<ShimKind> toBuy(std::span<const double> targets, std::span<const ShimKind> drawer, double tolerance, int mostPerBolt)
{
    if (!sensible(targets))
        return {};
    // As many of every size as could be needed: the bolts no longer compete, and each is met by itself.
    std::vector<ShimKind> shop;
    for (const double size : soldSizes())
        shop.push_back({ size, tallest });
    for (const ShimKind& kind : drawer)
        shop.push_back({ kind.thickness, tallest });
    const auto problem = problemOf(targets, shop, tolerance, mostPerBolt);
    std::map<Steps, int> needed;
    for (const Bolt& bolt : problem.bolts) {
        if (bolt.scores.front().beyond > 0)
            return {};
        for (const auto k : bolt.piles.front().shims())
            ++needed[problem.kinds[k].thickness];
    }
    for (const ShimKind& kind : drawer)
        if (const auto found = needed.find(steps(kind.thickness)); found != needed.end())
            found->second -= kind.count;
    std::vector<ShimKind> list;
    for (const auto& [size, count] : needed)
        if (count > 0)
            list.push_back({ length(size), count });
    return list;
}

} // namespace deepstop::centring
