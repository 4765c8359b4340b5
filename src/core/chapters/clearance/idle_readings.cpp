#include "chapters/clearance/idle_readings.hpp"

#include "fit/reach.hpp"

#include <algorithm>
#include <cmath>
#include <span>

namespace deepstop::figures {
namespace {

using geometry::Chain;
using geometry::Point;

double width(const Reading& reading) { return uncertainty(reading, true); }

/// What stands under a surface of the wheel: a part of the caliper, or a place. The direction they share lies along z.
struct Part {
    Chain chain;
    fit::Box box;
};

Part partOf(Chain chain)
{
    const fit::Box box = fit::boxAround(chain);
    return { std::move(chain), box };
}

/// A line of the wheel with the readings behind its points, along the shared direction and across it.
struct Line {
    Chain points; ///< rising along z; it may have a point more than stations, where spokes go over into the barrel
    std::vector<const Reading*> along;
    std::vector<const Reading*> across;
};

bool tooFar(const std::vector<Part>& parts, const fit::Box& ofWheel, double gap)
{
    return std::ranges::all_of(
        parts, [&](const Part& part) { return fit::leastRoom(part.box, ofWheel) > gap || fit::leastRoom(part.chain, ofWheel) > gap; });
}

/// The barrel with its stations; nothing where they do not stand in the order of its points, deepest first.
std::optional<Line> barrelOf(const WheelAsRead& as)
{
    const auto& stations = as.wheel.barrel;
    if (stations.size() < 2 || stations.size() != as.shape.barrel.size()
        || std::ranges::adjacent_find(stations, [](const auto& a, const auto& b) { return !(*a.depth.value > *b.depth.value); })
            != stations.end())
        return {};
    Line line { as.shape.barrel, {}, {} };
    for (const BarrelStation& station : stations) {
        line.along.push_back(&station.depth);
        line.across.push_back(&station.insideRadius);
    }
    return line;
}

/// Lines down the spokes, turned; none where stations do not rise.
std::vector<Line> spokesOf(const WheelAsRead& as, double spacing)
{
    std::vector<const std::string*> names;
    std::vector<Line> lines;
    for (const SpokeStation& station : as.wheel.spokes) {
        std::size_t i = 0;
        while (i < names.size() && *names[i] != station.along)
            ++i;
        if (i == names.size()) {
            names.push_back(&station.along);
            lines.emplace_back();
        }
        if (!lines[i].along.empty() && !(*lines[i].along.back()->value < *station.radius.value))
            return {};
        lines[i].along.push_back(&station.radius);
        lines[i].across.push_back(&station.distance);
    }
    auto shapes = fit::spokeLines(as.shape, spacing);
    if (shapes.size() != lines.size())
        return {};
    for (std::size_t i = 0; i < lines.size(); ++i) {
        // Taken together, its points are no stations of their own.
        if (shapes[i].alongR.size() < lines[i].along.size())
            return {};
        lines[i].points = std::move(shapes[i].alongR);
    }
    return lines;
}

/// A station stays between its neighbours wherever within its limits it lies.
bool staysInOrder(const Line& line, std::size_t i)
{
    const double along = width(*line.along[i]);
    const auto& points = line.points;
    return (i == 0 || points[i].z - points[i - 1].z > along) && (i + 1 == points.size() || points[i + 1].z - points[i].z > along);
}

/// All that a station's two straights can touch.
fit::Box sweptBy(const Line& line, std::size_t i)
{
    const std::size_t first = i > 0 ? i - 1 : 0;
    const std::size_t last = std::min(i + 1, line.points.size() - 1);
    return fit::boxAround(std::span(line.points).subspan(first, last - first + 1)).grown(width(*line.along[i]), width(*line.across[i]));
}

void callIdle(Evaluator& s, std::initializer_list<const Reading*> readings)
{
    for (const Reading* reading : readings)
        s.idle(*reading);
}

/// No part comes beside the line, or leaves it, when one of its ends moves so far.
bool keepsItsCompany(const std::vector<Part>& parts, const Chain& line, double moved)
{
    return std::ranges::all_of(parts, [&](const Part& part) { return std::abs(fit::sharedStretch(part.chain, line)) > moved; });
}

/// Where a line's last station goes over into the barrel's end, it goes on doing so; where it does not, it goes on not doing so.
bool keepsItsEnd(const Line& line, const Chain& barrel, double spacing)
{
    if (barrel.empty())
        return true;
    const Point last = line.points[line.along.size() - 1];
    const Point end { barrel.back().r, barrel.back().z };
    const double along = width(*line.along.back());
    const double apart = std::hypot(end.z - last.z, end.r - last.r);
    return std::abs(apart - spacing) > along + width(*line.across.back()) && std::abs(end.z - last.z) > along;
}

void idleStations(Evaluator& s, const Line& line, const std::vector<Part>& parts, double gap)
{
    for (std::size_t i = 0; line.points.size() >= 2 && i < line.along.size(); ++i) {
        const bool anEnd = i == 0 || i + 1 == line.along.size();
        if (staysInOrder(line, i) && tooFar(parts, sweptBy(line, i), gap)
            && (!anEnd || keepsItsCompany(parts, line.points, width(*line.along[i]))))
            callIdle(s, { line.along[i], line.across[i] });
    }
}

/// Of the barrel only its outboard end counts beside the spokes: whatever certainly lies deeper does not.
void idleBehindTheEnd(Evaluator& s, const std::vector<BarrelStation>& barrel)
{
    if (barrel.empty())
        return;
    const Reading& end = barrel.back().depth;
    for (const BarrelStation& station : barrel)
        if (&station.depth != &end && *station.depth.value - width(station.depth) > *end.value + width(end))
            s.idle(station.depth);
}

void idleInsets(Evaluator& s, const WheelAsRead& as, const std::vector<Part>& parts)
{
    for (const Inset& inset : as.wheel.insets) {
        const double by = std::max(width(inset.from), width(inset.to));
        const auto [low, high] = std::minmax({ as.face - *inset.from.value, as.face - *inset.to.value });
        const Chain widest = fit::insetOnBarrel(as.shape.barrel, low - by, high + by, *inset.height.value + width(inset.height));
        if (!widest.empty() && tooFar(parts, fit::boxAround(widest), as.gap))
            callIdle(s, { &inset.from, &inset.to, &inset.height });
    }
}

/// What the barrel is where no inset stands does not matter to insets.
void idleBesideInsets(Evaluator& s, const WheelAsRead& as, const Line& barrel)
{
    const auto& points = barrel.points;
    for (std::size_t i = 1; i + 1 < barrel.along.size(); ++i)
        if (staysInOrder(barrel, i) && std::ranges::all_of(as.shape.insets, [&](const fit::Outline& inset) {
                return inset.chain.front().z > points[i + 1].z || inset.chain.back().z < points[i - 1].z;
            }))
            callIdle(s, { barrel.along[i], barrel.across[i] });
}

/// A bump that in all of its readings' limits stays too far off.
void idleBumps(Evaluator& s, const Corner& corner, const std::vector<Part>& parts, const std::vector<Line>& lines, double gap, bool turned)
{
    const auto& bumps = corner.caliper.bumps;
    if (parts.size() != bumps.size() + 1)
        return;
    const double edge = *corner.rotor.outerDiameter.value / 2;
    for (std::size_t k = 0; k < bumps.size(); ++k) {
        const Bump& bump = bumps[k];
        const Part& part = parts[k + 1];
        const double top = fit::sweptRadius(edge + *bump.overEdge.value, *bump.fromMiddle.value);
        const double highest =
            fit::sweptRadius(edge + *bump.overEdge.value + width(bump.overEdge), *bump.fromMiddle.value + width(bump.fromMiddle));
        const double up = std::max({ highest - top, width(bump.overEdge), width(bump.height) });
        const double out = std::max(width(bump.atDepth), width(bump.width) / 2);
        const double along = turned ? up : out;
        const auto box = part.box.grown(along, turned ? out : up);
        if (std::ranges::all_of(lines, [&](const Line& line) {
                return line.points.size() < 2
                    || (fit::leastRoom(box, line.points) > gap && std::abs(fit::sharedStretch(part.chain, line.points)) > 2 * along);
            }))
            callIdle(s, { &bump.overEdge, &bump.height, &bump.atDepth, &bump.width, &bump.fromMiddle });
    }
}

} // namespace

void sayIdle(
    Evaluator& s, WheelGap which, const WheelAsRead& as, const Corner& corner, const std::vector<fit::Outline>& caliper, double spacing)
{
    const bool turned = which == WheelGap::Spokes;
    std::vector<Part> parts;
    for (const fit::Outline& part : caliper)
        parts.push_back(partOf(turned ? geometry::transposed(part.chain) : part.chain));
    const auto barrel = barrelOf(as);
    std::vector<Line> lines;
    switch (which) {
    case WheelGap::Barrel:
        if (!barrel)
            return;
        lines.push_back(*barrel);
        idleStations(s, *barrel, parts, as.gap);
        break;
    case WheelGap::Spokes:
        idleBehindTheEnd(s, as.wheel.barrel);
        lines = spokesOf(as, spacing);
        for (const Line& line : lines)
            if (keepsItsEnd(line, as.shape.barrel, spacing))
                idleStations(s, line, parts, as.gap);
        if (lines.empty())
            return;
        break;
    case WheelGap::Insets:
        if (!barrel)
            return;
        for (const fit::Outline& inset : as.shape.insets)
            lines.push_back({ inset.chain, {}, {} });
        idleInsets(s, as, parts);
        idleBesideInsets(s, as, *barrel);
        break;
    }
    idleBumps(s, corner, parts, lines, as.gap, turned);
}

void sayIdle(Evaluator& s, const WheelAsRead& as, geometry::Point place)
{
    const std::vector upright { partOf({ place, place }) };
    const std::vector turned { partOf({ { place.r, place.z }, { place.r, place.z } }) };
    if (const auto barrel = barrelOf(as)) {
        // An inset goes with the barrel under it, nearer the place by its height.
        double height = 0;
        for (const Inset& inset : as.wheel.insets)
            height = std::max(height, *inset.height.value + width(inset.height));
        for (std::size_t i = 0; i < barrel->along.size(); ++i) {
            const bool anEnd = i == 0 || i + 1 == barrel->along.size();
            fit::Box box = sweptBy(*barrel, i);
            box.low.r -= height;
            if (staysInOrder(*barrel, i) && !(anEnd && height > 0) && tooFar(upright, box, as.gap))
                callIdle(s, { barrel->along[i], barrel->across[i] });
        }
        idleInsets(s, as, upright);
    }
    for (const Line& line : spokesOf(as, 0))
        idleStations(s, line, turned, as.gap);
}

} // namespace deepstop::figures
