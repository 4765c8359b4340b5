#include "design/map.hpp"

#include "design/lines.hpp"
#include "fit/fit.hpp"
#include "language/language.hpp"
#include "task/parallel.hpp"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <iterator>
#include <limits>

namespace deepstop::design {
namespace {

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

Place placeOf(const Maker& maker, const Map& map, const Proposal& proposal)
{
    const Corner made = maker.corner(proposal, Known::Vendor);
    Place place { map.everywhere, nullptr, {} };
    // What is not known has less left than anything that is.
    constexpr double unknown = -1e6;
    double left = std::numeric_limits<double>::infinity();
    for (const Limit& limit : map.limits) {
        Figure gap = limit.gap(proposal, made);
        const Level level = gapLevel(gap, limit.wanted);
        const double over = gap.value ? gap.lowest() - limit.wanted : unknown;
        if (level > place.level || (level == place.level && over < left)) {
            place = { level, &limit, std::move(gap) };
            left = over;
        }
    }
    return place;
}

namespace {

/// The worst level of all limits but one, in a column.
Level worstOfOthers(const Map& map, std::size_t limit, std::size_t column, double rotor)
{
    Level worst = map.everywhere;
    for (std::size_t i = 0; i < map.limits.size(); ++i)
        if (i != limit)
            worst = std::max(worst, map.changes[i][column].level(rotor));
    return worst;
}

bool goesOnOneSide(const Border& border) { return border.below == Level::Clear || border.above == Level::Clear; }

/// Along the diameter: one change after another, from column to column.
void addFlatBorders(const Map& map, std::size_t l, std::vector<Border>& all)
{
    const auto& own = map.changes[l];
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
                all.push_back({ l, below, above, {}, false, false });
            }
            Border& border = all[*open[k]];
            border.points.push_back({ map.columns[i], rotor });
            if (goesOnOneSide(border) && worstOfOthers(map, l, i, rotor) <= Level::Good)
                border.decides = true;
            below = above;
        }
    }
}

/// Between two columns of which one clears over a stretch of diameters: where the level changes along the slot, at a few diameters of it.
void addUprightBorders(const Map& map, std::size_t l, Line& along, std::vector<Border>& all)
{
    const auto& own = map.changes[l];
    for (std::size_t i = 0; i + 1 < own.size(); ++i) {
        if (sameShape(own[i], own[i + 1]))
            continue;
        std::vector<double> edges { map.least, map.most };
        for (const auto* column : { &own[i], &own[i + 1] })
            for (const auto& change : column->at)
                edges.push_back(change.first);
        std::ranges::sort(edges);
        for (std::size_t k = 0; k + 1 < edges.size(); ++k) {
            const double middle = (edges[k] + edges[k + 1]) / 2;
            const Level inboardOf = own[i].level(middle);
            const Level outboardOf = own[i + 1].level(middle);
            if (edges[k + 1] - edges[k] < 1e-3 || (inboardOf == Level::Clear) == (outboardOf == Level::Clear))
                continue;
            constexpr int parts = 4;
            std::vector<Border> across;
            std::optional<Changes> before;
            for (int part = 0; part <= parts; ++part) {
                // The ends themselves lie on changes along the diameter.
                const double inside = 2 * alike;
                const double rotor = std::lerp(edges[k] + inside, edges[k + 1] - inside, static_cast<double>(part) / parts);
                const Changes here = along.changes(map.limits[l], rotor, map.columns[i], map.columns[i + 1]);
                const bool goesOn = before && sameShape(*before, here);
                if (!goesOn) {
                    std::ranges::move(across, std::back_inserter(all));
                    across.clear();
                    Level inboard = here.first;
                    for (const auto& [slot, outboard] : here.at) {
                        across.push_back({ l, inboard, outboard, {}, true, false });
                        inboard = outboard;
                    }
                }
                for (std::size_t c = 0; c < here.at.size(); ++c) {
                    Border& border = across[c];
                    border.points.push_back({ here.at[c].first, rotor });
                    const auto column = border.below == Level::Clear ? i : i + 1;
                    if (goesOnOneSide(border) && worstOfOthers(map, l, column, rotor) <= Level::Good)
                        border.decides = true;
                }
                before = here;
            }
            std::ranges::move(across, std::back_inserter(all));
        }
    }
}

} // namespace

std::vector<Border> bordersOf(const Maker& maker, const Map& map)
{
    if (map.columns.empty())
        return {};
    const Corner made = maker.corner(map.at, Known::Vendor);
    std::vector<std::vector<Border>> own(map.limits.size());
    parallelFor(map.limits.size(), 0, [&](std::size_t l) {
        addFlatBorders(map, l, own[l]);
        if (!map.limits[l].moves)
            return;
        Line along(maker, map.at, made, Line::Moves::Slot);
        addUprightBorders(map, l, along, own[l]);
    });
    std::vector<Border> all;
    for (auto& each : own)
        std::ranges::move(each, std::back_inserter(all));
    return all;
}

} // namespace deepstop::design
