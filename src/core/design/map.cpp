#include "design/map.hpp"

#include "fit/fit.hpp"
#include "language/language.hpp"
#include "materials/materials.hpp"
#include "task/parallel.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <mutex>

namespace deepstop::design {
namespace {

/// A change of level is found to this; what a level says holds to either side of it.
constexpr double exactly = 10e-6;
/// A point half as far between two that were worked out may be off by so much, else it is worked out too.
constexpr double alike = 40e-6;
/// A body moved by half a diameter's growth nears nothing by more; a little more for the swept ends of a straight back.
constexpr double steepest = 0.55;

/// Limits along a line over the map: at one slot along the diameter, or at one diameter along the slot.
class Line {
public:
    enum class Moves { Rotor, Slot };
    Line(const Maker& maker, const Proposal& at, const Corner& made, Moves moves = Moves::Rotor)
        : maker_(maker), proposal_(at), corner_(made), moves_(moves)
    {
    }

    /// @param held the slot, or the diameter, of the line
    /// @param hint what a line near by has; where it still holds about, its changes are found from there
    Changes changes(const Limit& limit, double held, double least, double most, const Changes* hint = nullptr)
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

    /// Whether the level goes from one to the other within `alike` of `place`.
    bool changesAt(const Limit& limit, double held, double place, Level below, Level above)
    {
        hold(held);
        if (const auto aim = aimOf(limit, below, above)) {
            const Place here = at(limit, place);
            return std::isfinite(here.lowest) && (here.level == below || here.level == above) && std::abs(here.lowest - *aim) <= alike / 2;
        }
        return at(limit, place - alike).level == below && at(limit, place + alike).level == above;
    }

    Figure figure(const Limit& limit, double slot, double rotor)
    {
        hold(moves_ == Moves::Rotor ? slot : rotor);
        return figureAt(limit, moves_ == Moves::Rotor ? rotor : slot);
    }

private:
    struct Place {
        double where;
        Level level;
        double lowest; ///< of the gap at worst; NaN where it has no value
    };

    void hold(double held) { (moves_ == Moves::Rotor ? proposal_.slot : proposal_.rotor) = held; }
    [[nodiscard]] Along wayOf(const Limit& limit) const { return moves_ == Moves::Rotor ? limit.along : limit.across; }

    Figure figureAt(const Limit& limit, double where)
    {
        endIfCancelled();
        (moves_ == Moves::Rotor ? proposal_.rotor : proposal_.slot) = where;
        maker_.move(corner_, proposal_, Known::Vendor);
        return limit.gap(proposal_, corner_);
    }
    Place at(const Limit& limit, double where)
    {
        const Figure gap = figureAt(limit, where);
        return { where, gapLevel(gap, limit.wanted), gap.lowest() };
    }

    /// What the gap at worst is where one level goes over into the other; nothing where it is no size that tells them apart.
    static std::optional<double> aimOf(const Limit& limit, Level one, Level other)
    {
        const auto [low, high] = std::minmax(one, other);
        if (low == Level::Clear && (high == Level::Tight || high == Level::Hits))
            return limit.wanted;
        return low == Level::Tight && high == Level::Hits ? std::optional(0.0) : std::nullopt;
    }

    /// No level lies between two alike ones: the gap goes one way, or cannot come that near in between.
    [[nodiscard]] bool nothingBetween(const Limit& limit, const Place& low, const Place& high) const
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

    void search(const Limit& limit, const Place& low, const Place& high, Changes& found)
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
    static double guess(const Limit& limit, const Place& low, const Place& high)
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

    /// Of a gap that goes one way, from the changes of a line near by: each enclosed anew, and the levels in between the same. False where
    /// they are not.
    bool fromHint(const Limit& limit, double least, double most, const Changes& hint, Changes& found)
    {
        if (wayOf(limit) == Along::Either || hint.at.empty())
            return false;
        found = { hint.first, {} };
        Level below = hint.first;
        double moved = 0; // of the change before
        for (const auto& [was, above] : hint.at) {
            const auto aim = aimOf(limit, below, above);
            if (!aim)
                return false;
            const double slope = (wayOf(limit) == Along::Falls ? -1 : 1) * (moves_ == Moves::Rotor ? 0.5 : 1.0);
            Place a = at(limit, std::clamp(was + moved, least, most));
            const auto across = [&](double by) { return std::clamp(by, -4e-3, 4e-3); };
            if (!std::isfinite(a.lowest))
                return false;
            Place b = std::abs(a.lowest - *aim) <= exactly / 5
                ? a
                : at(limit, std::clamp(a.where + across((*aim - a.lowest) / slope), least, most));
            const auto there = [&](const Place& p) {
                return std::abs(p.lowest - *aim) <= exactly / 5 && (p.level == below || p.level == above);
            };
            std::optional<double> change;
            if (there(a))
                change = a.where;
            for (int i = 0; i < 6 && !change && a.where != b.where; ++i) {
                if (a.where > b.where)
                    std::swap(a, b);
                if (there(b) || there(a)) {
                    change = there(b) ? b.where : a.where;
                } else if (a.level == below && b.level == above && b.where - a.where <= exactly) {
                    change = (a.where + b.where) / 2;
                } else if (a.level == below && b.level == above) {
                    const Place middle = at(limit, guess(limit, a, b));
                    (middle.level == below ? a : b) = middle;
                    if (there(middle))
                        change = middle.where;
                } else {
                    // Both on one side: over to the other by the line through them.
                    const double steep = (b.lowest - a.lowest) / (b.where - a.where);
                    if (!std::isfinite(steep) || steep * slope <= 0)
                        return false;
                    const Place& nearer = std::abs(a.lowest - *aim) < std::abs(b.lowest - *aim) ? a : b;
                    const double way = (*aim - nearer.lowest) / steep;
                    const Place over = at(limit, std::clamp(nearer.where + across(way), least, most));
                    if (over.level != below && over.level != above)
                        return false;
                    (&nearer == &a ? b : a) = over;
                }
            }
            if (!change)
                return false;
            found.at.emplace_back(*change, above);
            moved = found.at.back().first - was;
            below = above;
        }
        // Before the first and after the last of them nothing else begins: nothing comes before clear, or after a hit, in a gap that goes
        // one way; elsewhere the ends say.
        const auto outermost = [](Level level) { return level == Level::Clear || level == Level::Hits; };
        return (outermost(hint.first) || at(limit, least).level == hint.first) && (outermost(below) || at(limit, most).level == below);
    }

    const Maker& maker_;
    Proposal proposal_;
    Corner corner_;
    Moves moves_;
};

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

/// A limit along parallel lines at `places`: every eighth is worked out, and those between wherever a straight line would be off.
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

/// Lines along the slots, one a diameter, as lines along the diameter, one a slot.
/// @param between what changes at a slot from one of the diameters to the next, where the lines do not tell
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

/// Slots and diameters worth showing: from no bracket at all to a hat without depth, and from no room for a hat to past the barrel.
void spread(const Maker& maker, Map& map, int columns)
{
    const Basis& basis = maker.basis();
    const auto given = [](const Reading& r) { return r.value.value_or(std::numeric_limits<double>::quiet_NaN()); };
    Proposal at = map.at;
    const Kit kit = maker.sizes(at);
    double low = at.slot - kit.needed / (kit.radial ? 2 : 1) + 2e-3;
    double high = at.slot + kit.neckDepth + 3e-3;
    const double middle = std::isfinite(at.slot) ? at.slot : -25e-3;
    if (!std::isfinite(low))
        low = middle - 25e-3;
    if (!std::isfinite(high) || high < low + 5e-3)
        high = std::max(middle, low) + 25e-3;
    for (int i = 0; i < columns; ++i)
        map.columns.push_back(low + (high - low) * i / (columns - 1));
    double widest = 0;
    for (const Wheel* wheel : basis.wheels) {
        for (const BarrelStation& station : wheel->barrel)
            widest = std::max(widest, station.insideRadius.value.value_or(0));
        if (wheel->barrel.size() < 2)
            widest = std::max(widest, fit::widestBarrel(wheel->nominalDiameter).value_or(0));
    }
    const double back = given(basis.corner.caliper.backOverEdge);
    map.most = widest > 0 ? 2 * (widest - (std::isfinite(back) ? back : 10e-3)) + 6e-3 : 420e-3;
    // Half a millimetre of room a millimetre of diameter; bolts are thinner on a smaller rotor.
    at.rotor = 250e-3;
    const double room = maker.sizes(at).neckRoom;
    map.least = std::isfinite(room) ? at.rotor - 2 * room - 10e-3 : 200e-3;
    map.least = std::clamp(map.least, 120e-3, map.most - 40e-3);
}

} // namespace

Level Changes::level(double rotor) const
{
    Level level = first;
    for (const auto& [from, then] : at)
        if (rotor >= from)
            level = then;
    return level;
}

Map::Judged Map::judged(std::size_t slot, double rotor) const
{
    Judged worst { everywhere, {} };
    for (std::size_t i = 0; i < limits.size(); ++i)
        if (const Level level = changes[i][slot].level(rotor); level > worst.level)
            worst = { level, i };
    return worst;
}

Map::Column Map::column(double index) const
{
    const auto low = std::min(static_cast<std::size_t>(std::max(0.0, index)), columns.size() - 2);
    const double share = index - static_cast<double>(low);
    std::vector<Changes> all;
    std::vector<double> edges { least };
    for (const auto& own : changes) {
        all.push_back(sameShape(own[low], own[low + 1]) ? between(own[low], own[low + 1], share) : own[share < 0.5 ? low : low + 1]);
        for (const auto& change : all.back().at)
            edges.push_back(change.first);
    }
    std::ranges::sort(edges);
    edges.push_back(most);
    Column column;
    for (std::size_t i = 0; i + 1 < edges.size(); ++i) {
        Level worst = everywhere;
        for (const Changes& each : all)
            worst = std::max(worst, each.level((edges[i] + edges[i + 1]) / 2));
        if (i == 0)
            column.first = worst;
        else if (edges[i + 1] > edges[i])
            column.at.emplace_back(edges[i], worst);
    }
    return column;
}

Map mapOf(const Maker& maker, const Proposal& at, int columns, const Progress& progress)
{
    Map map;
    map.at = at;
    if (maker.basis().wheels.empty()) {
        map.lacks = tr("Choose a wheel first: a kit is designed into a wheel.");
        return map;
    }
    for (const auto& [value, what] :
        { std::pair { at.thickness, marked("thickness of the rotor, or the room between the caliper's pistons") },
            std::pair { at.hatThickness, marked("thickness of the hat between hub and wheel") } })
        if (!(value > 0)) {
            map.lacks = tr("Lacks {}.", tr(what));
            return map;
        }
    spread(maker, map, columns);
    if (!std::isfinite(map.at.slot))
        map.at.slot = map.columns[map.columns.size() / 2];
    if (!std::isfinite(map.at.rotor))
        map.at.rotor = (map.least + map.most) / 2;
    map.limits = limitsOf(maker);
    map.fixed = fixedVerdicts(maker, map.at);
    for (const Verdict& v : map.fixed)
        if (v.level == Level::Unproven || isBad(v.level))
            map.everywhere = std::max(map.everywhere, v.level);
    const Corner made = maker.corner(map.at, Known::Vendor);
    map.changes.assign(map.limits.size(), std::vector<Changes>(map.columns.size()));
    std::vector<std::size_t> moving;
    for (std::size_t l = 0; l < map.limits.size(); ++l)
        if (map.limits[l].moves)
            moving.push_back(l);
        else
            map.changes[l].assign(map.columns.size(), { map.limits[l].level(map.at, made), {} });
    std::atomic<std::size_t> done = 0;
    parallelFor(moving.size(), 0, [&](std::size_t task) {
        const std::size_t l = moving[task];
        const Limit& limit = map.limits[l];
        // Where a gap goes one way with the slot but either way with the diameter, it is followed along the slots.
        if (limit.along == Along::Either && limit.across != Along::Either) {
            constexpr int rows = 97;
            std::vector<double> rotors;
            for (int i = 0; i < rows; ++i)
                rotors.push_back(map.least + (map.most - map.least) * i / (rows - 1));
            Line along(maker, map.at, made, Line::Moves::Slot);
            Line byRotor(maker, map.at, made);
            map.changes[l] = inColumns(rotors, lines(along, limit, rotors, map.columns.front(), map.columns.back()), map.columns,
                [&](double slot, double least, double most) { return byRotor.changes(limit, slot, least, most); });
        } else {
            Line along(maker, map.at, made);
            map.changes[l] = lines(along, limit, map.columns, map.least, map.most);
        }
        if (progress)
            progress(static_cast<double>(++done) / static_cast<double>(moving.size()));
    });
    return map;
}

std::vector<Border> Map::borders() const
{
    std::vector<Border> all;
    const auto others = [&](std::size_t limit, std::size_t slot, double rotor) {
        Level worst = everywhere;
        for (std::size_t i = 0; i < limits.size(); ++i)
            if (i != limit)
                worst = std::max(worst, changes[i][slot].level(rotor));
        return worst;
    };
    for (std::size_t l = 0; l < limits.size(); ++l) {
        const auto& own = changes[l];
        // Along the diameter: one change after another, from slot to slot.
        std::vector<std::optional<std::size_t>> open;
        for (std::size_t i = 0; i < own.size(); ++i) {
            const bool goesOn = i > 0 && sameShape(own[i - 1], own[i]);
            if (!goesOn)
                open.assign(own[i].at.size(), {});
            Level below = own[i].first;
            for (std::size_t k = 0; k < own[i].at.size(); ++k) {
                const auto [rotor, above] = own[i].at[k];
                if (!open[k]) {
                    open[k] = all.size();
                    all.push_back({ l, below, above, {}, false });
                }
                Border& border = all[*open[k]];
                border.points.push_back({ columns[i], rotor });
                if ((below == Level::Clear || above == Level::Clear) && others(l, i, rotor) <= Level::Good)
                    border.decides = true;
                below = above;
            }
        }
        // Across the slots: where two neighbours differ over a stretch of diameters, halfway between them, which is within half a column.
        for (std::size_t i = 0; i + 1 < own.size(); ++i) {
            if (sameShape(own[i], own[i + 1]))
                continue;
            std::vector<double> edges { least, most };
            for (const auto* column : { &own[i], &own[i + 1] })
                for (const auto& change : column->at)
                    edges.push_back(change.first);
            std::ranges::sort(edges);
            for (std::size_t k = 0; k + 1 < edges.size(); ++k) {
                const double middle = (edges[k] + edges[k + 1]) / 2;
                const Level here = own[i].level(middle);
                const Level there = own[i + 1].level(middle);
                if (here == there || edges[k + 1] - edges[k] < 1e-3)
                    continue;
                const double x = (columns[i] + columns[i + 1]) / 2;
                Border border { l, here, there, { { x, edges[k] }, { x, edges[k + 1] } }, false };
                border.decides = (here == Level::Clear || there == Level::Clear) && others(l, i, middle) <= Level::Good;
                all.push_back(std::move(border));
            }
        }
    }
    return all;
}

namespace {

/// All limits of a map about one place, worked out anew.
class About {
public:
    About(const Maker& maker, const Map& map, const Proposal& at)
        : map_(map), at_(at), made_(maker.corner(at, Known::Vendor)), maker_(maker)
    {
    }

    /// Stretches of diameters between `least` and `most` that clear at a slot, those shorter than a hundredth of a millimetre left out.
    std::vector<std::pair<double, double>> clear(double slot, double least, double most) const
    {
        std::vector<std::pair<double, double>> stretches { { least, most } };
        Line along(maker_, at_, made_);
        for (const Limit& limit : map_.limits) {
            if (stretches.empty())
                break;
            const double from = stretches.front().first;
            const double to = stretches.back().second;
            const Changes changes = limit.moves ? along.changes(limit, slot, from, to) : Changes { limit.level(at_, made_), {} };
            std::vector<std::pair<double, double>> rest;
            for (const auto& [a, b] : stretches) {
                double begin = a;
                Level level = changes.level(a);
                const auto end = [&](double at) {
                    if (level == Level::Clear && at - begin > 1e-5)
                        rest.emplace_back(begin, at);
                };
                for (const auto& [at, then] : changes.at)
                    if (at > a && at < b) {
                        end(at - exactly);
                        begin = at + exactly;
                        level = then;
                    }
                end(b);
            }
            stretches = std::move(rest);
        }
        return stretches;
    }

    /// Ids of what is not clear at a place, the one that fails by most of what it has failed by last.
    std::vector<std::string> failing(double slot, double rotor) const
    {
        std::vector<std::pair<double, std::string>> found;
        Line along(maker_, at_, made_);
        for (const Limit& limit : map_.limits)
            if (const Figure gap = along.figure(limit, slot, rotor); gapLevel(gap, limit.wanted) != Level::Clear)
                found.emplace_back(gap.value ? gap.lowest() - limit.wanted : 0, limit.id);
        std::ranges::sort(found);
        std::vector<std::string> ids;
        for (auto& [by, id] : found)
            if (std::ranges::find(ids, id) == ids.end())
                ids.push_back(std::move(id));
        return ids;
    }

    Figure figure(const Limit& limit, double slot, double rotor) const { return Line(maker_, at_, made_).figure(limit, slot, rotor); }

private:
    const Map& map_;
    Proposal at_;
    Corner made_;
    const Maker& maker_;
};

constexpr double tenth = 0.1e-3;
constexpr double twentieth = 0.05e-3;
double down(double value, double step) { return std::floor(value / step + 1e-6) * step; }
double up(double value, double step) { return std::ceil(value / step - 1e-6) * step; }

/// The best place at one slot.
struct AtSlot {
    double slot;
    double rotor;
    double worth; ///< the more the better
};

class Seeking {
public:
    Seeking(const Maker& maker, const Map& map, Aim aim, const Fixed& fixed) : maker_(maker), map_(map), aim_(aim), fixed_(fixed) { }

    Best best()
    {
        Best best;
        if (!map_.lacks.empty() || map_.everywhere > Level::Good) {
            nothing(best);
            return best;
        }
        std::optional<AtSlot> found;
        if (const auto slot = heldSlot()) {
            found = at(*slot, map_.least, map_.most);
        } else if (const auto column = bestColumn()) {
            const std::size_t i = *column;
            const double from = up(map_.columns[i > 0 ? i - 1 : i], twentieth);
            const double to = map_.columns[std::min(i + 1, map_.columns.size() - 1)];
            const auto count = static_cast<std::size_t>(std::max(0.0, (to - from) / twentieth) + 1);
            std::vector<std::optional<AtSlot>> tried(count);
            const double around = atColumn(i)->rotor;
            parallelFor(count, 0, [&](std::size_t k) {
                tried[k] =
                    at(from + static_cast<double>(k) * twentieth, std::max(map_.least, around - 6e-3), std::min(map_.most, around + 6e-3));
            });
            for (const auto& each : tried)
                if (each
                    && (!found || each->worth > found->worth + 1e-12
                        || (each->worth > found->worth - 1e-12
                            && std::abs(each->slot - map_.columns[i]) < std::abs(found->slot - map_.columns[i]))))
                    found = each;
        }
        if (!found) {
            nothing(best);
            return best;
        }
        Proposal choice = map_.at;
        choice.slot = found->slot;
        choice.rotor = found->rotor;
        best.choice = choice;
        bind(best);
        return best;
    }

private:
    [[nodiscard]] std::optional<double> heldSlot() const
    {
        if (fixed_.slot)
            return *fixed_.slot;
        if (fixed_.plate) {
            // Shims as many as are wanted beside it.
            const Kit kit = maker_.sizes(map_.at);
            const double needed = kit.radial ? *fixed_.plate / 2 : *fixed_.plate + rules::shimsEachWay;
            return map_.at.slot + needed - kit.needed / (kit.radial ? 2 : 1);
        }
        return {};
    }

    [[nodiscard]] double worth(double slot, double rotor) const
    {
        Proposal choice = map_.at;
        choice.slot = slot;
        choice.rotor = rotor;
        switch (aim_) {
        case Aim::Rotor:
            return rotor;
        case Aim::Weight: {
            const Kit kit = maker_.kit(choice);
            return -(massOf(kit.hat) + massOf(kit.ring) + kit.adapter.volume * materials::aluminium6061.density);
        }
        case Aim::Bracket:
            return -slot + 1e-6 * rotor;
        }
        return 0;
    }

    /// Of stretches that clear at a slot the best diameter.
    [[nodiscard]] std::optional<AtSlot> of(double slot, const std::vector<std::pair<double, double>>& stretches) const
    {
        std::optional<AtSlot> best;
        for (const auto& [a, b] : stretches) {
            if (fixed_.rotor) {
                if (a <= *fixed_.rotor && *fixed_.rotor <= b)
                    return AtSlot { slot, *fixed_.rotor, aim_ == Aim::Rotor ? 0 : worth(slot, *fixed_.rotor) };
                continue;
            }
            const double rotor = aim_ == Aim::Weight ? up(a, tenth) : down(b, tenth);
            if (rotor < a || rotor > b)
                continue;
            if (const AtSlot here { slot, rotor, worth(slot, rotor) }; !best || here.worth > best->worth)
                best = here;
        }
        return best;
    }

    [[nodiscard]] std::optional<AtSlot> at(double slot, double least, double most) const
    {
        return of(slot, About(maker_, map_, map_.at).clear(slot, least, most));
    }

    [[nodiscard]] std::optional<AtSlot> atColumn(std::size_t i) const
    {
        std::vector<double> edges { map_.least, map_.most };
        for (const auto& limit : map_.changes)
            for (const auto& change : limit[i].at)
                edges.push_back(change.first);
        std::ranges::sort(edges);
        std::vector<std::pair<double, double>> stretches;
        for (std::size_t k = 0; k + 1 < edges.size(); ++k)
            if (map_.judged(i, (edges[k] + edges[k + 1]) / 2).level <= Level::Good) {
                if (!stretches.empty() && stretches.back().second == edges[k])
                    stretches.back().second = edges[k + 1];
                else
                    stretches.emplace_back(edges[k], edges[k + 1]);
            }
        return of(map_.columns[i], stretches);
    }

    /// Of slots next to each other that are as good as the best, the middle one. With a rotor that is given and nothing to be best at, that
    /// of the longest run.
    [[nodiscard]] std::optional<std::size_t> bestColumn() const
    {
        std::optional<std::size_t> best;
        double most = -1e9;
        std::size_t run = 0;
        std::size_t longest = 0;
        for (std::size_t i = 0; i < map_.columns.size(); ++i) {
            const auto here = atColumn(i);
            run = here ? run + 1 : 0;
            if (!here)
                continue;
            if (fixed_.rotor && aim_ == Aim::Rotor) {
                if (run > longest) {
                    longest = run;
                    best = i - run / 2;
                }
            } else if (here->worth > most) {
                most = here->worth;
                best = i;
            }
        }
        if (best && !(fixed_.rotor && aim_ == Aim::Rotor)) {
            const auto asGood = [&](std::size_t i) {
                const auto here = atColumn(i);
                return here && here->worth >= most - 1e-9;
            };
            std::size_t last = *best;
            while (last + 1 < map_.columns.size() && asGood(last + 1))
                ++last;
            best = (*best + last) / 2;
        }
        return best;
    }

    void bind(Best& best) const
    {
        const About about(maker_, map_, map_.at);
        const Proposal& c = *best.choice;
        const double rotor = c.rotor + (aim_ == Aim::Weight ? -2 * tenth : 2 * tenth);
        const auto gather = [&](double slot, double diameter) {
            for (std::string& id : about.failing(slot, diameter))
                if (std::ranges::find(best.binds, id) == best.binds.end())
                    best.binds.push_back(std::move(id));
        };
        if (aim_ == Aim::Bracket)
            gather(c.slot - 2 * tenth, c.rotor);
        gather(c.slot, rotor);
        // What keeps the slot from going where the first of them would let it be better.
        const auto first = best.binds;
        for (const double aside : { -0.4e-3, 0.4e-3 }) {
            const auto there = about.failing(c.slot + aside, rotor);
            if (std::ranges::none_of(there, [&](const std::string& id) { return std::ranges::find(first, id) != first.end(); }))
                gather(c.slot + aside, rotor);
        }
    }

    /// The limit that is nearest to clearing where all others do, or the fewest fail.
    void nothing(Best& best) const
    {
        if (!map_.lacks.empty())
            return;
        for (const Verdict& v : map_.fixed)
            if (v.level == map_.everywhere && map_.everywhere > Level::Good) {
                best.nearest = v.id;
                best.short_ = v.figure.value && v.wanted ? *v.wanted - v.figure.lowest() : 0;
                return;
            }
        const About about(maker_, map_, map_.at);
        std::size_t fewest = map_.limits.size() + 1;
        best.short_ = 1e9;
        for (std::size_t i = 0; i < map_.columns.size(); i += 4)
            for (int k = 0; k <= 40; ++k) {
                const double rotor = fixed_.rotor.value_or(map_.least + (map_.most - map_.least) * k / 40);
                std::size_t failing = 0;
                std::size_t which = 0;
                for (std::size_t l = 0; l < map_.limits.size(); ++l)
                    if (map_.changes[l][i].level(rotor) != Level::Clear) {
                        ++failing;
                        which = l;
                    }
                if (failing == 0 || failing > fewest)
                    continue;
                const Figure gap = about.figure(map_.limits[which], map_.columns[i], rotor);
                const double by = gap.value ? map_.limits[which].wanted - gap.lowest() : 1e8;
                if (failing < fewest || by < best.short_) {
                    fewest = failing;
                    best.short_ = by;
                    best.nearest = map_.limits[which].id;
                }
                if (fixed_.rotor)
                    break;
            }
        if (best.short_ > 1e7)
            best.short_ = 0;
    }

    const Maker& maker_;
    const Map& map_;
    Aim aim_;
    Fixed fixed_;
};

} // namespace

Best bestOf(const Maker& maker, const Map& map, Aim aim, const Fixed& fixed) { return Seeking(maker, map, aim, fixed).best(); }

std::vector<Rate> ratesOf(const Maker& maker, const Map& map, const Best& best)
{
    std::vector<Rate> rates;
    if (!best.choice)
        return rates;
    constexpr double by = 1e-3;
    // The largest rotor near the best place, over slots close by.
    const auto largest = [&](const Proposal& changed) {
        constexpr int steps = 8;
        constexpr double apart = 0.4e-3;
        std::vector<double> tops(2 * steps + 1, 0);
        parallelFor(tops.size(), 0, [&](std::size_t k) {
            const double slot = best.choice->slot + (static_cast<int>(k) - steps) * apart;
            const auto stretches =
                About(maker, map, changed).clear(slot, std::max(map.least, best.choice->rotor - 12e-3), best.choice->rotor + 14e-3);
            if (!stretches.empty())
                tops[k] = stretches.back().second;
        });
        return std::ranges::max(tops);
    };
    const double now = largest(*best.choice);
    const auto add = [&](std::string id, std::string title, Proposal changed, std::initializer_list<std::string_view> stoppedBy) {
        const double then = largest(changed);
        if (!(then > 0) || !(now > 0))
            return;
        Rate rate { std::move(id), std::move(title), (then - now) / by, {}, {} };
        for (const Verdict& v : map.fixed)
            for (const std::string_view check : stoppedBy)
                if (v.check && v.check->name == check && v.figure.value && v.wanted) {
                    const double left = v.figure.lowest() - *v.wanted;
                    if (left >= 0 && (!rate.within || left < *rate.within)) {
                        rate.within = left;
                        rate.until = v.id;
                    }
                }
        rates.push_back(std::move(rate));
    };
    const auto with = [&](double Proposal::*which, double change) {
        Proposal changed = *best.choice;
        changed.*which += change;
        return changed;
    };
    add("spacer", tr("a spacer thicker behind the wheel"), with(&Proposal::spacer, by), { "fender-room", "studs", "pilot" });
    add("offset", tr("less offset of the wheels"), with(&Proposal::offset, -by), { "fender-room" });
    add("hat_thickness", tr("a thicker hat between hub and wheel"), with(&Proposal::hatThickness, by), { "fender-room", "studs", "pilot" });
    add("rotor_thickness", tr("a thinner rotor"), with(&Proposal::thickness, -by), {});
    if (maker.basis().corner.mount.kind == MountKind::Radial)
        add("radial_shims", tr("fewer shims under the radial mount's studs"), with(&Proposal::lift, -by), {});
    return rates;
}

} // namespace deepstop::design
