#include "search/funnel.hpp"

#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>

namespace deepstop::search {
namespace {

/// The one that fails by less comes first; what has no figure last.
bool nearer(const Loser& a, const Loser& b)
{
    const auto rank = [](const Loser& one) {
        const bool unknown = std::isnan(one.shortBy);
        return std::tuple { unknown, unknown ? 0 : one.shortBy, one.choice, one.rear };
    };
    return rank(a) < rank(b);
}

std::string titleOf(const std::string& id, const Check* check, bool wholeCar)
{
    if (check) {
        std::string title(tr(check->title));
        if (wholeCar && check->of != CheckOf::Car)
            title = fmt::format("{} ({})", title, judge::wordFor(isOf(id, *check, Axle::Rear) ? Axle::Rear : Axle::Front));
        return title;
    }
    for (const Gain gain : allGains)
        if (id == fmt::format("limit/{}", about(gain).key))
            return tr("Limit: {}", titleFor(gain, wholeCar));
    return id;
}

} // namespace

void Funnel::lose(const Outcome& outcome, Loser loser)
{
    if (loser.kits == 0)
        return;
    loser.shortBy = outcome.shortBy;
    Tally& tally = tallies_.try_emplace(outcome.failed, Tally { 0, {}, outcome.style }).first->second;
    tally.lost += loser.kits;
    lost_ += loser.kits;
    tally.nearest.push_back(std::move(loser));
    std::ranges::push_heap(tally.nearest, nearer);
    if (tally.nearest.size() > mostLosers) {
        std::ranges::pop_heap(tally.nearest, nearer);
        tally.nearest.pop_back();
    }
}

std::vector<Lost> Funnel::told(const Query& query, std::uint64_t combinations)
{
    const auto checks = orderOfChecks();
    // Of a whole car all that is asked of the front comes before all that is asked of the rear, and both before what is asked of the car.
    const auto placeOf = [&](const std::string& id) {
        std::size_t place = 0;
        for (; place < checks.size(); ++place) {
            const bool driving = isOfDriving(*checks[place]);
            if (isOf(id, *checks[place], query.wholeCar ? Axle::Front : query.axle))
                return std::tuple { driving, false, place };
            if (query.wholeCar && isOf(id, *checks[place], Axle::Rear))
                return std::tuple { driving, !driving, place };
        }
        return std::tuple { true, true, place };
    };
    std::vector<std::pair<std::tuple<bool, bool, std::size_t>, std::string>> sorted;
    for (const auto& [id, tally] : tallies_)
        sorted.emplace_back(placeOf(id), id);
    std::ranges::sort(sorted);
    std::vector<Lost> funnel;
    std::uint64_t left = combinations;
    for (const auto& [order, id] : sorted) {
        Tally& tally = tallies_[id];
        left -= tally.lost;
        std::ranges::sort(tally.nearest, nearer);
        const auto place = std::get<std::size_t>(order);
        funnel.push_back({ id, titleOf(id, place < checks.size() ? checks[place] : nullptr, query.wholeCar), tally.style, tally.lost, left,
            std::move(tally.nearest) });
    }
    return funnel;
}

Outcome withinLimits(const Query& query, const Gains& gains, std::initializer_list<Gain> which)
{
    Outcome outcome;
    for (const Limit& limit : query.limits) {
        if (std::ranges::count(which, limit.gain) == 0)
            continue;
        const double value = search::of(gains, limit.gain);
        const double over = about(limit.gain).lessIsBetter ? value - limit.value : limit.value - value;
        if (!(over <= 0)) {
            outcome.failed = fmt::format("limit/{}", about(limit.gain).key);
            outcome.shortBy = over;
            outcome.gain = limit.gain;
            outcome.style = about(limit.gain).style;
            return outcome;
        }
    }
    return outcome;
}

} // namespace deepstop::search
