#include "language/language.hpp"
#include "search/search.hpp"
#include "task/cancel.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::search {

const GainOf& about(Gain gain)
{
    // Finer than a share: which side of nothing it lies on is asked.
    static constexpr Style locks { Dimension::Share, "%", 1, "%", 1 };
    static const std::array all {
        GainOf { "weight_kg", marked("Corner weight"), style::partMass, 1, true },
        GainOf { "heat_margin_K", marked("Heat margin"), style::rise, 1, false },
        GainOf { "hot_stop_m", marked("Stop after the duty"), style::road, 1, true },
        GainOf { "clearance_mm", marked("Smallest wheel gap"), style::gap, 1e-3, false },
        GainOf { "effort_N", marked("Pedal force"), style::force, 1, true },
        GainOf { "price", marked("Price"), style::money, 1, true },
        // Far apart is no better than apart: the rear then does too little.
        GainOf { "rear_locks_later_percent", marked("Rear locks later by"), locks, 0.01, false, false },
    };
    return all[static_cast<std::size_t>(gain)];
}

std::string titleFor(Gain gain, bool wholeCar)
{
    return std::string(wholeCar && gain == Gain::Weight ? tr("Corner weights added") : tr(about(gain).title));
}

Level Kit::level() const
{
    Level worst = Level::Good;
    for (const Doubt& doubt : doubts) {
        // What is not known may be worse than any caution.
        if (doubt.level == Level::Unproven)
            return Level::Unproven;
        worst = std::max(worst, doubt.level);
    }
    return worst;
}

bool beats(const Gains& a, const Gains& b)
{
    bool better = false;
    for (const Gain gain : allGains) {
        if (!about(gain).isCompared)
            continue;
        const double mine = of(a, gain);
        const double other = of(b, gain);
        if (std::isnan(mine) && std::isnan(other))
            continue;
        if (std::isnan(mine))
            return false;
        if (std::isnan(other) || (about(gain).lessIsBetter ? mine < other : mine > other))
            better = true;
        else if (mine != other)
            return false;
    }
    return better;
}

std::vector<std::size_t> frontOf(std::span<const Kit> kits)
{
    // One that is beaten comes after what beats it once they are sorted by the first gain, then the second, and so on.
    std::vector<std::size_t> order(kits.size());
    for (std::size_t i = 0; i < order.size(); ++i)
        order[i] = i;
    const auto rank = [&](std::size_t i) {
        std::array<double, allGains.size()> key {};
        for (const Gain gain : allGains) {
            const double value = of(kits[i].gains, gain);
            if (about(gain).isCompared)
                key[static_cast<std::size_t>(gain)] = std::isnan(value) ? std::numeric_limits<double>::infinity()
                    : about(gain).lessIsBetter                          ? value
                                                                        : -value;
        }
        return key;
    };
    std::ranges::stable_sort(order, {}, rank);
    std::vector<std::size_t> front;
    for (const std::size_t i : order) {
        endIfCancelled();
        if (std::ranges::none_of(front, [&](std::size_t other) { return beats(kits[other].gains, kits[i].gains); }))
            front.push_back(i);
    }
    std::ranges::sort(front);
    return front;
}

} // namespace deepstop::search
