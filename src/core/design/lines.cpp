#include "design/lines.hpp"

#include "task/cancel.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::design {

Changes Line::changes(const Limit& limit, double held, double least, double most, const Changes* hint)
{
    hold(held);
    Changes found;
    if (hint && fromHint(limit, least, most, *hint, found))
        return found;
    const Place low = at(limit, least);
    const Place high = at(limit, most);
    found = { low.level, {} };
    search(limit, low, high, found);
    return found;
}

bool Line::changesAt(const Limit& limit, double held, double place, Level below, Level above)
{
    hold(held);
    if (const auto aim = aimOf(limit, below, above)) {
        const Place here = at(limit, place);
        return std::isfinite(here.lowest) && (here.level == below || here.level == above) && std::abs(here.lowest - *aim) <= alike / 2;
    }
    return at(limit, place - alike).level == below && at(limit, place + alike).level == above;
}

Figure Line::figure(const Limit& limit, double slot, double rotor)
{
    hold(moves_ == Moves::Rotor ? slot : rotor);
    return figureAt(limit, moves_ == Moves::Rotor ? rotor : slot);
}

Figure Line::figureAt(const Limit& limit, double where)
{
    endIfCancelled();
    (moves_ == Moves::Rotor ? proposal_.rotor : proposal_.slot) = where;
    maker_.move(corner_, proposal_, Known::Vendor);
    return limit.gap(proposal_, corner_);
}

Line::Place Line::at(const Limit& limit, double where)
{
    const Figure gap = figureAt(limit, where);
    return { where, gapLevel(gap, limit.wanted), gap.lowest() };
}

/// What the gap at worst is where one level goes over into the other; nothing where it is no size that tells them apart.
std::optional<double> Line::aimOf(const Limit& limit, Level one, Level other)
{
    const auto [low, high] = std::minmax(one, other);
    if (low == Level::Clear && (high == Level::Tight || high == Level::Hits))
        return limit.wanted;
    return low == Level::Tight && high == Level::Hits ? std::optional(0.0) : std::nullopt;
}

/// No level lies between two alike ones: the gap goes one way, or cannot come that near in between.
bool Line::nothingBetween(const Limit& limit, const Place& low, const Place& high) const
{
    if (wayOf(limit) != Along::Either)
        return true;
    const double far = high.where - low.where;
    if (far < 1e-3)
        return true;
    const auto margin = [&](const Place& p) {
        return p.level == Level::Clear ? p.lowest - limit.wanted
            : p.level == Level::Hits   ? -p.lowest
            : p.level == Level::Tight  ? std::min(limit.wanted - p.lowest, p.lowest)
                                       : std::numeric_limits<double>::quiet_NaN();
    };
    const double both = margin(low) + margin(high);
    return !(both < (moves_ == Moves::Rotor ? steepest : 2 * steepest) * far);
}

void Line::search(const Limit& limit, const Place& low, const Place& high, Changes& found)
{
    if (high.where - low.where <= exactly) {
        if (low.level != high.level)
            found.at.emplace_back((low.where + high.where) / 2, high.level);
        return;
    }
    if (low.level == high.level && nothingBetween(limit, low, high))
        return;
    const Place middle = at(limit, guess(limit, low, high));
    search(limit, low, middle, found);
    search(limit, middle, high, found);
}

/// Where to look next: where a straight line between both would change its level, but well inside.
double Line::guess(const Limit& limit, const Place& low, const Place& high)
{
    const double halfway = (low.where + high.where) / 2;
    if (low.level == high.level || !std::isfinite(low.lowest + high.lowest))
        return halfway;
    const double aim = low.level == Level::Clear || high.level == Level::Clear ? limit.wanted : 0;
    const double share = (aim - low.lowest) / (high.lowest - low.lowest);
    if (!(share > 0) || !(share < 1))
        return halfway;
    const double far = high.where - low.where;
    // A hair to the side that is farther off, so that the next one encloses it.
    const double there = low.where + share * far + (share < 0.5 ? 0.4 : -0.4) * exactly;
    // From the ends of the map a line tells little.
    return far > 60e-3 ? std::clamp(there, low.where + 0.1 * far, high.where - 0.1 * far)
                       : std::clamp(there, low.where + 0.3 * exactly, high.where - 0.3 * exactly);
}

/// Where the gap at worst comes to `aim` between two levels, found from a place near by by following the gap's own slope; nothing where it
/// is not found soon, or other levels lie there.
std::optional<double> Line::enclosed(
    const Limit& limit, double aim, std::pair<Level, Level> levels, Place a, std::pair<double, double> ends)
{
    const auto [below, above] = levels;
    const auto within = [&](double where) { return std::clamp(where, ends.first, ends.second); };
    // Half a diameter's growth goes into a gap, and all of a slot's way.
    const double slope = (wayOf(limit) == Along::Falls ? -1 : 1) * (moves_ == Moves::Rotor ? 0.5 : 1.0);
    constexpr double farthest = 4e-3;
    const auto ofThese = [&](const Place& p) { return p.level == below || p.level == above; };
    const auto there = [&](const Place& p) { return std::abs(p.lowest - aim) <= exactly / 5 && ofThese(p); };
    if (!std::isfinite(a.lowest))
        return {};
    if (there(a))
        return a.where;
    Place b = at(limit, within(a.where + std::clamp((aim - a.lowest) / slope, -farthest, farthest)));
    for (int i = 0; i < 6 && a.where != b.where; ++i) {
        if (a.where > b.where)
            std::swap(a, b);
        for (const Place& p : { a, b })
            if (there(p))
                return p.where;
        if (a.level == below && b.level == above) {
            if (b.where - a.where <= exactly)
                return (a.where + b.where) / 2;
            const Place middle = at(limit, guess(limit, a, b));
            (middle.level == below ? a : b) = middle;
            continue;
        }
        // Both on one side: over to the other by the line through them.
        const double steep = (b.lowest - a.lowest) / (b.where - a.where);
        if (!std::isfinite(steep) || steep * slope <= 0)
            return {};
        Place& farther = std::abs(a.lowest - aim) < std::abs(b.lowest - aim) ? b : a;
        const Place& nearer = &farther == &a ? b : a;
        farther = at(limit, within(nearer.where + std::clamp((aim - nearer.lowest) / steep, -farthest, farthest)));
        if (!ofThese(farther))
            return {};
    }
    return {};
}

/// Of a gap that goes one way, from the changes of a line near by: each enclosed anew, and the levels in between the same. False where
/// they are not.
bool Line::fromHint(const Limit& limit, double least, double most, const Changes& hint, Changes& found)
{
    if (wayOf(limit) == Along::Either || hint.at.empty())
        return false;
    found = { hint.first, {} };
    Level below = hint.first;
    double moved = 0; // of the change before
    for (const auto& [was, above] : hint.at) {
        const auto aim = aimOf(limit, below, above);
        const auto change =
            aim ? enclosed(limit, *aim, { below, above }, at(limit, std::clamp(was + moved, least, most)), { least, most }) : std::nullopt;
        if (!change)
            return false;
        found.at.emplace_back(*change, above);
        moved = *change - was;
        below = above;
    }
    // Before the first and after the last of them nothing else begins: nothing comes before clear, or after a hit, in a gap that goes
    // one way; elsewhere the ends say.
    const auto outermost = [](Level level) { return level == Level::Clear || level == Level::Hits; };
    return (outermost(hint.first) || at(limit, least).level == hint.first) && (outermost(below) || at(limit, most).level == below);
}

bool sameShape(const Changes& a, const Changes& b)
{
    return a.first == b.first && std::ranges::equal(a.at, b.at, {}, &std::pair<double, Level>::second, &std::pair<double, Level>::second);
}

Changes between(const Changes& a, const Changes& b, double share)
{
    Changes c = a;
    for (std::size_t i = 0; i < c.at.size(); ++i)
        c.at[i].first += share * (b.at[i].first - a.at[i].first);
    return c;
}

std::vector<Changes> lines(Line& along, const Limit& limit, const std::vector<double>& places, double least, double most)
{
    constexpr std::size_t step = 8;
    std::vector<Changes> own(places.size());
    const std::function<void(std::size_t, std::size_t)> fill = [&](std::size_t from, std::size_t to) {
        if (to - from < 2)
            return;
        const std::size_t middle = (from + to) / 2;
        const auto share = [&](std::size_t i) { return static_cast<double>(i - from) / static_cast<double>(to - from); };
        std::optional<Changes> hint;
        if (sameShape(own[from], own[to])) {
            hint = between(own[from], own[to], share(middle));
            Level below = hint->first;
            const bool straight = std::ranges::all_of(hint->at, [&](const auto& change) {
                const bool there = along.changesAt(limit, places[middle], change.first, below, change.second);
                below = change.second;
                return there;
            });
            if (straight && !hint->at.empty()) {
                for (std::size_t i = from + 1; i < to; ++i)
                    own[i] = between(own[from], own[to], share(i));
                return;
            }
        }
        own[middle] = along.changes(limit, places[middle], least, most, hint ? &*hint : nullptr);
        // The same all along three lines: those between are so, too.
        if (own[from].at.empty() && sameShape(own[from], own[middle]) && sameShape(own[middle], own[to])
            && (limit.along != Along::Either || to - from <= step / 2)) {
            for (std::size_t i = from + 1; i < to; ++i)
                own[i] = own[from];
            return;
        }
        fill(from, middle);
        fill(middle, to);
    };
    std::size_t before = 0;
    for (std::size_t i = 0;; i = std::min(i + step, places.size() - 1)) {
        // The line before, and the one before that, say about where this one changes.
        std::optional<Changes> hint;
        if (i > 0)
            hint = i >= 2 * step && sameShape(own[before - step], own[before]) ? between(own[before - step], own[before], 2) : own[before];
        own[i] = along.changes(limit, places[i], least, most, hint ? &*hint : nullptr);
        if (i > 0)
            fill(before, i);
        if (i + 1 == places.size())
            return own;
        before = i;
    }
}

std::vector<Changes> inColumns(const std::vector<double>& rotors, const std::vector<Changes>& rows, const std::vector<double>& columns,
    const std::function<Changes(double slot, double least, double most)>& between)
{
    std::vector<Changes> out;
    for (const double slot : columns) {
        Changes column { rows.front().level(slot), {} };
        for (std::size_t j = 0; j + 1 < rows.size(); ++j) {
            const Level below = rows[j].level(slot);
            const Level above = rows[j + 1].level(slot);
            if (below == above)
                continue;
            // Straight between two rows that are alike.
            std::vector<std::pair<double, Level>> crossed;
            if (sameShape(rows[j], rows[j + 1]))
                for (std::size_t k = 0; k < rows[j].at.size(); ++k) {
                    const double a = rows[j].at[k].first - slot;
                    const double b = rows[j + 1].at[k].first - slot;
                    if ((a > 0) == (b > 0))
                        continue;
                    const Level before = k == 0 ? rows[j].first : rows[j].at[k - 1].second;
                    // The border going to higher slots leaves what lies below it in slot.
                    crossed.emplace_back(rotors[j] + a / (a - b) * (rotors[j + 1] - rotors[j]), b > a ? before : rows[j].at[k].second);
                }
            if (crossed.empty())
                crossed = between(slot, rotors[j], rotors[j + 1]).at;
            std::ranges::sort(crossed);
            column.at.insert(column.at.end(), crossed.begin(), crossed.end());
        }
        out.push_back(std::move(column));
    }
    return out;
}

} // namespace deepstop::design
