#include "chapters/clearance/wheel_figures.hpp"

#include "chapters/clearance/idle_readings.hpp"
#include "fit/stance.hpp"

#include <algorithm>
#include <span>
#include <cmath>
#include <limits>

namespace deepstop::figures {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

/// Short, for they are made anew at every evaluation.
std::string nameOf(BumpKind kind)
{
    switch (kind) {
    case BumpKind::Bleeder:
        return "the bleeder";
    case BumpKind::BoltHead:
        return "the bolt head";
    case BumpKind::Pipe:
        return "the pipe";
    }
    return {};
}

std::string nameOf(InsetKind kind)
{
    switch (kind) {
    case InsetKind::Weights:
        return "the weights";
    case InsetKind::Valve:
        return "the valve";
    case InsetKind::Sensor:
        return "the sensor";
    }
    return {};
}

/// The rounding of the back's ends and what stands proud of the body.
void addBumps(Sample& s, const Corner& c, fit::CornerShape& shape)
{
    shape.caliper.cornerRadius = s.orElse(c.caliper.cornerRadius, 0);
    for (const Bump& bump : c.caliper.bumps)
        shape.caliper.bumps.push_back(
            { nameOf(bump.kind), s(bump.overEdge), s(bump.height), s(bump.atDepth), s(bump.width), s(bump.fromMiddle) });
}

} // namespace

fit::CornerShape shapeOf(Sample& s, const Corner& c, const Hub& hub)
{
    fit::CornerShape shape {};
    shape.rotor = { s(c.rotor.outerDiameter) / 2, s(c.rotor.thickness), s(c.rotor.ringInnerDiameter) / 2, s(c.rotor.overallHeight),
        s(c.rotor.hatThickness), s(c.rotor.hatOuterDiameter) / 2, s(c.rotor.hatWall), s(c.rotor.bore) / 2, s(c.rotor.ventGap) };
    shape.caliper = { s(c.caliper.backOverEdge), s(c.caliper.backLength) / 2, s(c.caliper.bridgeGap), s(c.caliper.reach),
        s(c.caliper.outboardDepth), s(c.caliper.inboardDepth), s(c.caliper.shoulder), s(c.caliper.slotWidth) };
    addBumps(s, c, shape);
    shape.pad = { s(c.pad.height), s(c.pad.thickness), s(c.pad.backing), s(c.mount.padInset) };
    shape.hub = { s(hub.flangeDiameter) / 2, s(hub.pilotDiameter) / 2, s(hub.pilotHeight) };
    shape.ring = s.orElse(c.ring, 0);
    shape.spacer = s.orElse(c.spacer, 0);
    shape.slotCentre = s(c.mount.slotCentre);
    return shape;
}

namespace {

/// Only what the caliper's outline needs, so that a gap rests on these readings and no others.
fit::CornerShape outlineOf(Sample& s, const Corner& c)
{
    fit::CornerShape shape {};
    shape.rotor.outerRadius = s(c.rotor.outerDiameter) / 2;
    shape.caliper = { s(c.caliper.backOverEdge), s(c.caliper.backLength) / 2, 0, s(c.caliper.reach), s(c.caliper.outboardDepth),
        s(c.caliper.inboardDepth), s(c.caliper.shoulder), 0 };
    addBumps(s, c, shape);
    shape.slotCentre = s(c.mount.slotCentre);
    return shape;
}

double gapOf(const std::optional<fit::Room>& room) { return room ? room->gap : unknown; }

/// A stretch of a profile read more densely than any hand does: its ends and the station that stands nearest the caliper.
template <class Station>
struct Stretch {
    const Station* first;
    const Station* last;
    const Station* nearest;
};

/// More stations than these are taken together, stretch by stretch.
constexpr std::size_t dense = 240;

/// Stations in order, cut into stretches that each count with their nearest station all along: never more room than the profile has, and a
/// figure that rests on some hundred readings instead of thousands. Nothing where the profile is not that dense, or lacks a reading.
template <class Station>
std::vector<Stretch<Station>> stretchesOf(std::span<const Station* const> stations, Reading Station::*along, Reading Station::*across)
{
    constexpr std::size_t most = 60;
    std::vector<Stretch<Station>> stretches;
    if (stations.size() <= dense
        || !std::ranges::all_of(stations, [&](const Station* each) { return (each->*along).value && (each->*across).value; }))
        return stretches;
    std::vector<const Station*> order(stations.begin(), stations.end());
    std::ranges::stable_sort(order, {}, [&](const Station* each) { return *(each->*along).value; });
    for (std::size_t i = 0; i < most; ++i) {
        const std::span part(order.begin() + static_cast<std::ptrdiff_t>(i * order.size() / most),
            order.begin() + static_cast<std::ptrdiff_t>((i + 1) * order.size() / most));
        stretches.push_back({ part.front(), part.back(),
            *std::ranges::min_element(part, {}, [&](const Station* each) { return *(each->*across).value; }) });
    }
    return stretches;
}

geometry::Chain barrelOf(Sample& s, const Wheel& wheel, double face)
{
    geometry::Chain chain;
    chain.reserve(wheel.barrel.size());
    const auto& stretches = s.once<std::vector<Stretch<BarrelStation>>>(&wheel.barrel, [&] {
        std::vector<const BarrelStation*> all;
        for (const BarrelStation& station : wheel.barrel)
            all.push_back(&station);
        return stretchesOf<BarrelStation>(all, &BarrelStation::depth, &BarrelStation::insideRadius);
    });
    for (const auto& stretch : stretches)
        for (const BarrelStation* end : { stretch.first, stretch.last })
            chain.push_back({ -s(end->depth), s(stretch.nearest->insideRadius) });
    if (stretches.empty())
        for (const BarrelStation& station : wheel.barrel)
            chain.push_back({ -s(station.depth), s(station.insideRadius) });
    if (chain.size() < 2) {
        const auto estimated = fit::estimatedBarrel(wheel.nominalDiameter, wheel.nominalWidth, s(wheel.offset));
        if (!estimated)
            return {};
        s.assume("the barrel of " + wheel.name + ", estimated from its printed size");
        chain = *estimated;
    }
    if (!std::ranges::is_sorted(chain, {}, &geometry::Point::z))
        std::ranges::sort(chain, {}, &geometry::Point::z);
    return geometry::moved(std::move(chain), face);
}

/// The barrel's outboard station alone, where spokes go over into it; nothing for an unmeasured barrel.
geometry::Chain barrelsEnd(Sample& s, const Wheel& wheel, double face)
{
    const BarrelStation* end = nullptr;
    double depth = std::numeric_limits<double>::infinity();
    for (const BarrelStation& station : wheel.barrel)
        if (const double there = s(station.depth); !(there >= depth)) {
            depth = there;
            end = &station;
        }
    return end ? geometry::Chain { { face - depth, s(end->insideRadius) } } : geometry::Chain {};
}

/// @param named each line by what it was measured along; a gap alone needs no names
std::vector<fit::Outline> spokesOf(Sample& s, const Wheel& wheel, double face, bool named)
{
    std::vector<fit::Outline> lines;
    std::vector<std::vector<const SpokeStation*>> down;
    for (const SpokeStation& station : wheel.spokes) {
        std::size_t line = 0;
        while (line < down.size() && down[line].front()->along != station.along)
            ++line;
        if (line == down.size())
            down.emplace_back();
        down[line].push_back(&station);
    }
    for (const auto& stations : down) {
        auto& chain = lines.emplace_back(fit::Outline { named ? stations.front()->along : std::string(), {} }).chain;
        const auto& stretches = s.once<std::vector<Stretch<SpokeStation>>>(
            stations.front(), [&] { return stretchesOf<SpokeStation>(stations, &SpokeStation::radius, &SpokeStation::distance); });
        for (const auto& stretch : stretches)
            for (const SpokeStation* end : { stretch.first, stretch.last })
                chain.push_back({ s(stretch.nearest->distance) + face, s(end->radius) });
        if (stretches.empty())
            for (const SpokeStation* station : stations)
                chain.push_back({ s(station->distance) + face, s(station->radius) });
    }
    for (fit::Outline& line : lines)
        if (!std::ranges::is_sorted(line.chain, {}, &geometry::Point::r))
            std::ranges::sort(line.chain, {}, &geometry::Point::r);
    return lines;
}

std::vector<fit::Outline> insetsOf(Sample& s, const Wheel& wheel, const geometry::Chain& barrel, double face)
{
    std::vector<fit::Outline> insets;
    for (const Inset& inset : wheel.insets)
        insets.push_back({ nameOf(inset.kind), fit::insetOnBarrel(barrel, face - s(inset.from), face - s(inset.to), s(inset.height)) });
    return insets;
}

} // namespace

fit::WheelShape wheelOf(Sample& s, const Wheel& wheel, double face)
{
    fit::WheelShape shape { barrelOf(s, wheel, face), spokesOf(s, wheel, face, true), {} };
    shape.insets = insetsOf(s, wheel, shape.barrel, face);
    return shape;
}

double wantedOf(WheelGap which, const Wheel& wheel, const Wants& wants)
{
    const bool spokes = which == WheelGap::Spokes;
    return (spokes ? setting(wants.spokeGap, &Wants::spokeGap) : setting(wants.barrelGap, &Wants::barrelGap))
        + wheel.give.value.value_or(0);
}

namespace {

std::optional<fit::Room> roomOf(WheelGap which, const std::vector<fit::Outline>& caliper, const fit::WheelShape& wheel, double spacing)
{
    switch (which) {
    case WheelGap::Barrel:
        return fit::barrelRoom(caliper, wheel, spacing);
    case WheelGap::Insets:
        return fit::insetRoom(caliper, wheel);
    case WheelGap::Spokes:
        return fit::spokeRoom(caliper, wheel, spacing);
    }
    return {};
}

} // namespace

std::optional<fit::Room> roomOf(WheelGap which, const fit::CornerShape& corner, const fit::WheelShape& wheel, const Wants& wants)
{
    return roomOf(which, fit::caliperOutlines(corner), wheel, setting(wants.stationSpacing, &Wants::stationSpacing));
}

double wheelGap(Sample& s, WheelGap which, const Corner& corner, const Wheel& wheel, const Wants& wants)
{
    const double face = wheelFace(s, corner);
    fit::WheelShape shape;
    if (which == WheelGap::Spokes) {
        shape.spokes = spokesOf(s, wheel, face, false);
        shape.barrel = barrelsEnd(s, wheel, face);
    } else {
        shape.barrel = barrelOf(s, wheel, face);
    }
    if (which == WheelGap::Insets)
        shape.insets = insetsOf(s, wheel, shape.barrel, face);
    // One that nobody can place might be anywhere.
    if (std::ranges::any_of(shape.insets, [](const fit::Outline& inset) { return inset.chain.empty(); }))
        return unknown;
    const auto caliper = fit::caliperOutlines(outlineOf(s, corner));
    const double spacing = setting(wants.stationSpacing, &Wants::stationSpacing);
    const auto room = roomOf(which, caliper, shape, spacing);
    if (room && s.atNominal())
        sayIdle(s, which, { wheel, shape, face, room->gap }, corner, caliper, spacing);
    if (room && !room->covered())
        s.assume(which == WheelGap::Barrel ? "the barrel of " + wheel.name + " where no station is near"
                                           : "the spokes of " + wheel.name + " where no station is near");
    return gapOf(room);
}

double keepOutGap(Sample& s, const KeepOut& place, const Corner& corner, const Wheel* wheel, const Hub& hub, const Wants& wants)
{
    fit::CornerShape shape {};
    shape.ring = s.orElse(corner.ring, 0);
    const Rotor& r = corner.rotor;
    shape.rotor = { s(r.outerDiameter) / 2, s(r.thickness), s(r.ringInnerDiameter) / 2, s(r.overallHeight), s(r.hatThickness),
        s(r.hatOuterDiameter) / 2, s(r.hatWall), hub.pilotDiameter.value.value_or(0) / 2, 0 };
    const double grown = fit::growth(2 * shape.rotor.outerRadius, setting(wants.hotRise, &Wants::hotRise),
                             ringSolid(corner.rotor).expansionOver(setting(wants.hotRise, &Wants::hotRise)))
        / 2;
    const geometry::Point at { -s(place.depth), s(place.radius) };
    fit::WheelShape wheelShape;
    const double face = wheel ? wheelFace(s, corner) : unknown;
    if (wheel) {
        wheelShape.barrel = barrelOf(s, *wheel, face);
        wheelShape.insets = insetsOf(s, *wheel, wheelShape.barrel, face);
        // Behind the rotor the rotor itself is nearer than any spoke, unless the place stands higher over its edge than spokes stand
        // outboard of it.
        const double inboard = fit::frictionFaces(shape).inboard;
        if (!(at.z <= inboard && at.r - shape.rotor.outerRadius < face - inboard))
            wheelShape.spokes = spokesOf(s, *wheel, face, false);
    }
    const auto low = geometry::lowestAt(wheelShape.barrel, at.z);
    if (!wheel || !low)
        s.assume("the wheel's barrel at that depth");
    const auto room = fit::keepOutRoom(at, wheelShape, fit::rotorSection(shape, grown));
    if (wheel && room && room->gap > 0 && s.atNominal())
        sayIdle(s, { *wheel, wheelShape, face, room->gap }, at);
    return gapOf(room);
}

double wheelMiddle(Sample& s, const Corner& corner, const Wheel& wheel) { return wheelFace(s, corner) - s(wheel.offset); }

fit::Stance stanceOf(Sample& s, const Corner& corner, const Wheel& wheel)
{
    double width = unknown;
    if (wheel.overallWidth.value)
        width = s(wheel.overallWidth);
    else if (wheel.nominalWidth > 0)
        width = fit::overallWidth(wheel.nominalWidth);
    return fit::stance(width, s(wheel.offset), wheelFace(s, corner));
}

double hatGap(Sample& s, const Corner& c)
{
    fit::CornerShape shape {};
    shape.rotor.outerRadius = s(c.rotor.outerDiameter) / 2;
    shape.rotor.hatOuterRadius = s(c.rotor.hatOuterDiameter) / 2;
    shape.rotor.hatThickness = s(c.rotor.hatThickness);
    shape.caliper.reach = s(c.caliper.reach);
    shape.caliper.slotWidth = s(c.caliper.slotWidth);
    shape.slotCentre = s(c.mount.slotCentre);
    shape.ring = s.orElse(c.ring, 0);
    return fit::hatRoom(shape);
}

} // namespace deepstop::figures
