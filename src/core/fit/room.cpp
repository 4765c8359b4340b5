#include "fit/fit.hpp"
#include "fit/reach.hpp"
#include "language/language.hpp"
#include "quantity/order.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::fit {

using geometry::Chain;
using geometry::Point;

namespace {

/// Room of `body` below `surface`, both drawn with the common direction along z.
/// @param whole the surface goes on beyond its ends, so nothing is known where the two share no z; otherwise it ends there
std::optional<Room> roomBelow(std::span<const Point> body, std::span<const Point> surface, bool whole)
{
    const auto nearest = geometry::distance(body, surface);
    if (!nearest)
        return {};
    const Box b = boxAround(body);
    const Box s = boxAround(surface);
    Room room { nearest->distance, nearest->from, nearest->to };
    if (b.low.z > s.high.z || b.high.z < s.low.z)
        return whole ? std::nullopt : std::optional(room);
    // Outlines that do not cross lie clear of each other or one wholly beyond the other; one place tells which.
    const double common = (std::max(b.low.z, s.low.z) + std::min(b.high.z, s.high.z)) / 2;
    const auto bodyThere = geometry::highestAt(body, common);
    const auto surfaceThere = geometry::lowestAt(surface, common);
    if (nearest->distance > 0 && bodyThere && surfaceThere && *bodyThere <= *surfaceThere)
        return room;
    // Both heights are straight between breakpoints, so the deepest overlap stands at one of them.
    double deepest = 0;
    const auto probe = [&](double z) {
        const auto top = geometry::highestAt(body, z);
        const auto under = geometry::lowestAt(surface, z);
        if (top && under && *top - *under > deepest) {
            deepest = *top - *under;
            room = { -deepest, { z, *top }, { z, *under } };
        }
    };
    for (const Point p : body)
        probe(p.z);
    for (const Point p : surface)
        probe(p.z);
    return room;
}

std::vector<double> placesAlongZ(std::span<const Point> chain)
{
    std::vector<double> places;
    places.reserve(chain.size());
    for (const Point p : chain)
        places.push_back(p.z);
    if (!std::ranges::is_sorted(places, ascending))
        std::ranges::sort(places, ascending);
    return places;
}

bool known(std::span<const Point> chain)
{
    return chain.size() >= 2 && std::ranges::all_of(chain, [](Point p) { return std::isfinite(p.z) && std::isfinite(p.r); });
}

/// @param least room found already; where there is certainly more, how much more is not looked for
std::optional<Room> roomAlong(
    std::span<const Point> body, std::span<const Point> surface, double spacing, double least = std::numeric_limits<double>::infinity())
{
    if (!known(body) || !known(surface))
        return {};
    const Box b = boxAround(body);
    const Box s = boxAround(surface);
    std::optional<Room> room;
    if (leastRoom(b, s) <= least)
        room = roomBelow(body, surface, true);
    else if (b.low.z <= s.high.z && b.high.z >= s.low.z)
        room = Room { std::numeric_limits<double>::infinity(), {}, {} };
    if (room) {
        room->bare = bareStretches(placesAlongZ(surface), b.low.z, b.high.z, spacing);
    }
    return room;
}

double gapOf(const std::optional<Room>& room) { return room ? room->gap : std::numeric_limits<double>::infinity(); }

/// Keeps the smaller room; stretches nobody measured are kept from both.
void keepLess(std::optional<Room>& least, std::optional<Room> other)
{
    if (!other)
        return;
    if (!least) {
        least = std::move(other);
        return;
    }
    auto bare = least->bare;
    bare.insert(bare.end(), other->bare.begin(), other->bare.end());
    if (other->gap < least->gap)
        least = std::move(other);
    least->bare = std::move(bare);
}

} // namespace

std::vector<std::pair<double, double>> bareStretches(const std::vector<double>& places, double low, double high, double spacing)
{
    std::vector<std::pair<double, double>> bare;
    const auto add = [&](double from, double to) {
        from = std::max(from, low);
        to = std::min(to, high);
        if (to - from > 1e-9)
            bare.emplace_back(from, to);
    };
    constexpr double endless = std::numeric_limits<double>::infinity();
    if (places.empty()) {
        add(-endless, endless);
        return bare;
    }
    add(-endless, places.front());
    for (std::size_t i = 0; i + 1 < places.size(); ++i)
        if (places[i + 1] - places[i] > spacing + 1e-9)
            add(places[i], places[i + 1]);
    add(places.back(), endless);
    return bare;
}

std::optional<Room> barrelRoom(std::span<const Point> envelope, std::span<const Point> barrel, double spacing)
{
    return roomAlong(envelope, barrel, spacing);
}

std::optional<Room> spokeRoom(std::span<const Point> envelope, std::span<const Point> spokeBack, double spacing)
{
    auto room = roomAlong(geometry::transposed(envelope), geometry::transposed(spokeBack), spacing);
    if (room) {
        std::swap(room->onCaliper.z, room->onCaliper.r);
        std::swap(room->onWheel.z, room->onWheel.r);
    }
    return room;
}

std::optional<Room> barrelRoom(const std::vector<Outline>& caliper, const WheelShape& wheel, double spacing)
{
    std::optional<Room> least;
    for (const Outline& part : caliper) {
        auto room = roomAlong(part.chain, wheel.barrel, spacing, gapOf(least));
        if (room)
            room->caliperPart = part.name;
        keepLess(least, std::move(room));
    }
    return least;
}

namespace {

/// Steps down to the lower of every two neighbours, along z.
Chain stepped(const Chain& chain, const auto& straight)
{
    Chain steps;
    steps.reserve(2 * chain.size());
    for (std::size_t i = 0; i < chain.size(); ++i) {
        steps.push_back(chain[i]);
        if (i + 1 == chain.size() || straight(chain[i], chain[i + 1]))
            continue;
        const Point& next = chain[i + 1];
        if (chain[i].r > next.r)
            steps.push_back({ chain[i].z, next.r });
        else if (chain[i].r < next.r)
            steps.push_back({ next.z, chain[i].r });
    }
    return steps;
}

} // namespace

WheelShape cautious(WheelShape wheel)
{
    const auto isBend = [&](Point p) {
        return std::ranges::any_of(wheel.bends, [p](Point b) { return std::abs(b.z - p.z) < 1e-9 && std::abs(b.r - p.r) < 1e-9; });
    };
    wheel.barrel = stepped(wheel.barrel, [&](Point a, Point b) { return isBend(a) && isBend(b); });
    for (Outline& line : wheel.spokes)
        line.chain = geometry::transposed(stepped(geometry::transposed(line.chain), [&](Point a, Point b) {
            return isBend({ a.r, a.z }) && isBend({ b.r, b.z });
        }));
    return wheel;
}

std::vector<SpokeLine> spokeLines(const WheelShape& wheel, double spacing)
{
    std::vector<SpokeLine> lines;
    lines.reserve(wheel.spokes.size());
    for (const Outline& line : wheel.spokes) {
        lines.push_back({ geometry::transposed(line.chain), false });
        if (line.chain.empty() || wheel.barrel.empty())
            continue;
        const Point end = wheel.barrel.back();
        const Point last = line.chain.back();
        if (end.r > last.r && std::hypot(end.z - last.z, end.r - last.r) <= spacing) {
            lines.back().alongR.push_back({ end.r, end.z });
            lines.back().intoBarrel = true;
        }
    }
    return lines;
}

std::optional<Room> spokeRoom(const std::vector<Outline>& caliper, const WheelShape& wheel, double spacing)
{
    // Worked along r like a barrel.
    const auto lines = spokeLines(wheel, spacing);
    std::optional<Room> least;
    for (const Outline& part : caliper) {
        const Chain body = geometry::transposed(part.chain);
        std::optional<Room> ofPart;
        std::vector<std::vector<std::pair<double, double>>> bare;
        for (std::size_t i = 0; i < lines.size(); ++i) {
            auto room = roomAlong(body, lines[i].alongR, spacing, std::min(gapOf(least), gapOf(ofPart)));
            if (!room)
                continue;
            // Beyond the barrel's own radius there is nothing but its metal.
            if (lines[i].intoBarrel)
                std::erase_if(room->bare, [&](const auto& stretch) { return stretch.first >= lines[i].alongR.back().z - 1e-9; });
            room->caliperPart = part.name;
            room->wheelPart = wheel.spokes[i].name;
            bare.push_back(room->bare);
            keepLess(ofPart, std::move(room));
        }
        // Two lines measured all along are enough to know where the spokes are, one where they are alike; the others may then be short.
        if (ofPart) {
            std::ranges::stable_sort(bare, {}, [](const auto& stretches) { return stretches.size(); });
            ofPart->bare = bare[wheel.alike || bare.size() == 1 ? 0 : 1];
        }
        keepLess(least, std::move(ofPart));
    }
    if (least) {
        std::swap(least->onCaliper.z, least->onCaliper.r);
        std::swap(least->onWheel.z, least->onWheel.r);
    }
    return least;
}

std::optional<Room> insetRoom(const std::vector<Outline>& caliper, const WheelShape& wheel)
{
    std::optional<Room> least;
    for (const Outline& part : caliper)
        for (const Outline& inset : wheel.insets) {
            auto room = roomBelow(part.chain, inset.chain, false);
            if (room) {
                room->caliperPart = part.name;
                room->wheelPart = inset.name;
            }
            keepLess(least, std::move(room));
        }
    return least;
}

Chain insetOnBarrel(std::span<const Point> barrel, double zFrom, double zTo, double height)
{
    const double low = std::min(zFrom, zTo);
    const double high = std::max(zFrom, zTo);
    // A little beyond the last station the barrel is taken to go on as it is there.
    constexpr double beyond = 5e-3;
    const auto at = [&](double z) -> std::optional<double> {
        if (barrel.size() < 2 || !(z >= barrel.front().z - beyond && z <= barrel.back().z + beyond))
            return {};
        return geometry::lowestAt(barrel, std::clamp(z, barrel.front().z, barrel.back().z));
    };
    const auto atLow = at(low);
    const auto atHigh = at(high);
    if (!atLow || !atHigh || !std::isfinite(height))
        return {};
    Chain chain { { low, *atLow }, { low, *atLow - height } };
    for (const Point p : barrel)
        if (p.z > low && p.z < high)
            chain.push_back({ p.z, p.r - height });
    chain.push_back({ high, *atHigh - height });
    chain.push_back({ high, *atHigh });
    return chain;
}

std::optional<Room> keepOutRoom(Point place, const WheelShape& wheel, std::span<const Point> rotor)
{
    if (!std::isfinite(place.z) || !std::isfinite(place.r))
        return {};
    const Chain point { place, place };
    std::optional<Room> least;
    const auto against = [&](std::span<const Point> chain, const std::string& name, double sign) {
        if (const auto nearest = geometry::distance(std::span<const Point>(point), chain)) {
            Room room { sign * nearest->distance, place, nearest->to };
            room.wheelPart = name;
            keepLess(least, std::move(room));
        }
    };
    const auto under = geometry::lowestAt(wheel.barrel, place.z);
    if (wheel.barrel.size() >= 2)
        against(wheel.barrel, tr("the barrel"), under && *under < place.r ? -1 : 1);
    for (const Outline& inset : wheel.insets) {
        const auto there = geometry::lowestAt(inset.chain, place.z);
        against(inset.chain, inset.name, there && *there < place.r ? -1 : 1);
    }
    for (const Outline& line : wheel.spokes) {
        const auto there = geometry::lowestAt(geometry::transposed(line.chain), place.r);
        against(line.chain, tr("the spokes"), there && *there < place.z ? -1 : 1);
    }
    if (rotor.size() >= 2) {
        // Inside the closed outline when a ray along r crosses it an odd number of times.
        bool inside = false;
        for (std::size_t i = 0; i + 1 < rotor.size(); ++i) {
            const Point a = rotor[i];
            const Point b = rotor[i + 1];
            if ((a.z > place.z) != (b.z > place.z) && place.r < a.r + (b.r - a.r) * (place.z - a.z) / (b.z - a.z))
                inside = !inside;
        }
        against(rotor, tr("the rotor"), inside ? -1 : 1);
    }
    return least;
}

} // namespace deepstop::fit
