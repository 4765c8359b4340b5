#include "chapters/clearance/wheel_figures.hpp"

#include "chapters/clearance/idle_readings.hpp"
#include "chapters/clearance/wheel_profiles.hpp"
#include "fit/reach.hpp"
#include "fit/stance.hpp"
#include "language/language.hpp"
#include "quantity/order.hpp"

#include <algorithm>
#include <array>
#include <span>
#include <cmath>
#include <limits>
#include <map>
#include <string>

namespace deepstop::figures {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

/// Short, for they are made anew at every evaluation.
std::string nameOf(BumpKind kind)
{
    switch (kind) {
    case BumpKind::Unknown:
        return marked("what stands out");
    case BumpKind::Bleeder:
        return marked("the bleeder");
    case BumpKind::BoltHead:
        return marked("the bolt head");
    case BumpKind::Pipe:
        return marked("the pipe");
    }
    return {};
}

void addBump(Evaluator& s, const Bump& bump, double lifted, fit::CornerShape& shape)
{
    shape.caliper.bumps.push_back(
        { nameOf(bump.kind), s(bump.overEdge) + lifted, s(bump.height), s(bump.atDepth), s(bump.width), s(bump.fromMiddle) });
}

/// The rounding of the back's ends and what stands proud of the body.
void addBumps(Evaluator& s, const Corner& c, double lifted, fit::CornerShape& shape)
{
    shape.caliper.cornerRadius = s.orElse(c.caliper.cornerRadius, 0);
    for (const Bump& bump : c.caliper.bumps)
        addBump(s, bump, lifted, shape);
}

} // namespace

double lift(Evaluator& s, const Corner& c, Side side)
{
    if (c.mount.kind == MountKind::Unknown)
        s.assume(tr("a caliper on lugs, without shims under its studs"));
    if (c.mount.kind != MountKind::Radial)
        return 0;
    return (s(c.at(side).radialTop) + s(c.at(side).radialBottom)) / 2 - s(c.mount.radialRead);
}

namespace {

/// A floating caliper's body goes inboard as pads and rotor wear: how far its inboard face then stands further in.
double wornInward(Evaluator& s, const Corner& c)
{
    if (c.caliper.kind == CaliperKind::Fixed)
        return 0;
    if (c.caliper.kind == CaliperKind::Unknown) {
        s.assume(tr("a caliper that does not slide"));
        return 0;
    }
    // Without a minimum thickness, more than makers let their rotors wear: common practice.
    constexpr double mostRotorWear = 3e-3;
    const double rotor = c.rotor.minimumThickness.value ? s(c.rotor.thickness) - s(c.rotor.minimumThickness) : mostRotorWear;
    return padLining(s, c.pad) - s.orElse(c.pad.minimumThickness, 0) + rotor / 2;
}

/// The caliper's body alone.
fit::CornerShape bodyOf(Evaluator& s, const Corner& c, Side side)
{
    fit::CornerShape shape {};
    const double lifted = lift(s, c, side);
    shape.rotor.outerRadius = s(c.rotor.outerDiameter) / 2;
    shape.caliper = { s(c.caliper.backOverEdge) + lifted, s(c.caliper.backLength) / 2, 0, s(c.caliper.reach) - lifted,
        s(c.caliper.outboardDepth), s(c.caliper.inboardDepth) + wornInward(s, c), s(c.caliper.shoulder), 0 };
    shape.caliper.cornerRadius = s.orElse(c.caliper.cornerRadius, 0);
    shape.slotCentre = s(c.at(side).slotCentre) - hubMoved(s, c);
    return shape;
}

/// Only what the caliper's outline needs, so that a gap rests on these readings and no others.
fit::CornerShape outlineOf(Evaluator& s, const Corner& c, Side side)
{
    fit::CornerShape shape = bodyOf(s, c, side);
    addBumps(s, c, lift(s, c, side), shape);
    return shape;
}

/// The drum's outside, as the wheel sees it.
std::vector<fit::Outline> drumOutline(double face, double depth, double radius)
{
    // Near its middle the wheel bears on it.
    const double neck = 0.6 * radius;
    return { { tr("the drum"), { { face, neck }, { face, radius }, { face - depth, radius }, { face - depth, neck } } } };
}

/// What turns inside the wheel or stands beside it there.
std::vector<fit::Outline> outlinesOf(Evaluator& s, const Corner& c, Side side)
{
    if (c.brakes == BrakeKind::Drums)
        return drumOutline(behindRotor(s, c) + s(c.drum.faceThickness), s(c.drum.depth), s(c.drum.insideDiameter) / 2 + s(c.drum.wall));
    return fit::caliperOutlines(outlineOf(s, c, side));
}

} // namespace

fit::CornerShape shapeOf(Evaluator& s, const Corner& c, Side side, const Hub& hub)
{
    fit::CornerShape shape {};
    const double lifted = c.mount.kind == MountKind::Radial && c.mount.radialRead.value ? lift(s, c, side) : 0;
    shape.rotor = { s(c.rotor.outerDiameter) / 2, s(c.rotor.thickness), s(c.rotor.ringInnerDiameter) / 2, s(c.rotor.overallHeight),
        s(c.brakes == BrakeKind::Drums ? c.drum.faceThickness : c.rotor.hatThickness), s(c.rotor.hatOuterDiameter) / 2, s(c.rotor.hatWall),
        s(c.rotor.bore) / 2, s(c.rotor.ventGap) };
    shape.caliper = { s(c.caliper.backOverEdge) + lifted, s(c.caliper.backLength) / 2, s(c.caliper.bridgeGap) + lifted,
        s(c.caliper.reach) - lifted, s(c.caliper.outboardDepth), s(c.caliper.inboardDepth), s(c.caliper.shoulder), s(c.caliper.slotWidth) };
    addBumps(s, c, lifted, shape);
    shape.pad = { s(c.pad.height), padLining(s, c.pad), s(c.pad.backing), s(c.at(side).padInset) };
    shape.hub = { s(hub.flangeDiameter) / 2, s(hub.pilotDiameter) / 2, s(hub.pilotHeight) };
    shape.ring = behindRotor(s, c);
    shape.spacer = spacerOf(s, c);
    shape.slotCentre = s(c.at(side).slotCentre) - hubMoved(s, c);
    return shape;
}

namespace {

double gapOf(const std::optional<fit::Room>& room) { return room ? room->gap : unknown; }

} // namespace

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

std::optional<fit::Room> roomOf(
    WheelGap which, const Corner& corner, const fit::CornerShape& shape, const fit::WheelShape& wheel, const Wants& wants)
{
    const auto value = [](const Reading& reading, double otherwise) { return reading.value.value_or(otherwise); };
    const Drum& drum = corner.drum;
    const auto outlines = corner.brakes == BrakeKind::Discs
        ? fit::caliperOutlines(shape)
        : drumOutline(shape.ring + value(drum.faceThickness, 6e-3), value(drum.depth, 0.06),
            value(drum.insideDiameter, 0.25) / 2 + value(drum.wall, 6e-3));
    return roomOf(which, outlines, fit::cautious(wheel), setting(wants.stationSpacing, &Wants::stationSpacing));
}

namespace {

/// How far off the outermost stations may lie along the caliper; what a station planned just past its end may be off at most.
double endsOff(WheelGap which, const Wheel& wheel)
{
    std::vector<const Reading*> along;
    if (which == WheelGap::Spokes)
        for (const SpokeStation& each : wheel.spokes)
            along.push_back(&each.radius);
    else
        for (const BarrelStation& each : wheel.barrel)
            along.push_back(&each.depth);
    if (along.empty())
        return 0;
    const auto [first, last] = std::ranges::minmax(along, {}, [](const Reading* r) { return r->value.value_or(0); });
    constexpr double most = 0.45e-3;
    return std::min(most, std::max(uncertainty(*first, true), uncertainty(*last, true)));
}

/// Whether stations face all of the caliper with the outermost of them as far off as they may be.
bool coveredAtWorst(
    WheelGap which, const std::vector<fit::Outline>& caliper, const fit::WheelShape& shape, const Wheel& wheel, double spacing)
{
    const double off = endsOff(which, wheel);
    return std::ranges::all_of(std::array { -off, off }, [&](double by) {
        auto moved = caliper;
        for (fit::Outline& part : moved)
            for (geometry::Point& p : part.chain)
                (which == WheelGap::Spokes ? p.r : p.z) += by;
        const auto room = roomOf(which, moved, fit::cautious(shape), spacing);
        return !room || room->covered();
    });
}

} // namespace

double wheelGap(Evaluator& s, WheelGap which, const Corner& corner, Side side, const Wheel& wheel, const Wants& wants)
{
    const double face = wheelFace(s, corner);
    fit::WheelShape shape;
    if (which == WheelGap::Spokes) {
        shape.spokes = spokesOf(s, wheel, face, false);
        shape.barrel = barrelsEnd(s, wheel, face);
        shape.alike = wheel.spokesAlike == YesNo::Yes;
        if (shape.spokes.size() == 1 && !shape.alike)
            s.assume(tr("spokes all like the one line measured"));
    } else {
        shape.barrel = barrelOf(s, wheel, face);
    }
    addBends(s, wheel, face, shape);
    if (which == WheelGap::Insets)
        shape.insets = insetsOf(s, wheel, shape.barrel, face);
    // One that nobody can place might be anywhere.
    if (std::ranges::any_of(shape.insets, [](const fit::Outline& inset) { return inset.chain.empty(); }))
        return unknown;
    const auto outlines = outlinesOf(s, corner, side);
    const double spacing = setting(wants.stationSpacing, &Wants::stationSpacing);
    const auto room = roomOf(which, outlines, fit::cautious(shape), spacing);
    if (room && s.atNominal())
        sayIdle(s, which, { wheel, shape, face, room->gap }, corner, outlines, spacing);
    if (room && (!room->covered() || (s.atNominal() && !coveredAtWorst(which, outlines, shape, wheel, spacing))))
        s.assume(which == WheelGap::Barrel ? tr("the barrel of {} where no station is near", wheel.name)
                                           : tr("the spokes of {} where no station is near", wheel.name));
    double weights = 0;
    if (which == WheelGap::Barrel && room && !weightsPlaced(wheel)) {
        s.assume(tr("balance weights anywhere in {}", wheel.name));
        weights = setting(wants.weightHeight, &Wants::weightHeight);
    }
    return gapOf(room) - weights;
}

namespace {

/// Two neighbouring stations of a wheel, as points of its chain.
struct Piece {
    const Reading* along[2];
    const Reading* across[2];
    bool straight; ///< both are ends of one bend
};

template <class Station>
void addPieces(std::vector<Piece>& pieces, std::vector<const Station*> stations, Reading Station::*along, Reading Station::*across)
{
    std::ranges::stable_sort(stations, {}, [&](const Station* each) { return (each->*along).value.value_or(0); });
    for (std::size_t i = 0; i + 1 < stations.size(); ++i) {
        const Station& a = *stations[i];
        const Station& b = *stations[i + 1];
        pieces.push_back({ { &(a.*along), &(b.*along) }, { &(a.*across), &(b.*across) }, a.bend == YesNo::Yes && b.bend == YesNo::Yes });
    }
}

std::vector<Piece> piecesOf(WheelGap which, const Wheel& wheel)
{
    std::vector<Piece> pieces;
    if (which == WheelGap::Barrel) {
        std::vector<const BarrelStation*> stations;
        for (const BarrelStation& station : wheel.barrel)
            stations.push_back(&station);
        addPieces(pieces, std::move(stations), &BarrelStation::depth, &BarrelStation::insideRadius);
        return pieces;
    }
    std::map<std::string, std::vector<const SpokeStation*>> lines;
    for (const SpokeStation& station : wheel.spokes)
        lines[station.along].push_back(&station);
    for (auto& [name, stations] : lines)
        addPieces(pieces, std::move(stations), &SpokeStation::radius, &SpokeStation::distance);
    return pieces;
}

/// A piece at its stations' own values, one of them moved: 0 and 1 along, 2 and 3 across; from the wheel's mounting face. Turned for
/// spokes, so that a caliper always lies below.
geometry::Chain chainOf(WheelGap which, const Piece& piece, int moved = -1, double by = 0)
{
    const auto at = [&](int i) {
        const double along = *piece.along[i]->value + (moved == i ? by : 0);
        const double across = *piece.across[i]->value + (moved == i + 2 ? by : 0);
        return which == WheelGap::Barrel ? geometry::Point { -along, across } : geometry::Point { along, across };
    };
    geometry::Chain chain { at(0), at(1) };
    std::ranges::sort(chain, {}, &geometry::Point::z);
    fit::WheelShape shape;
    shape.barrel = chain;
    if (piece.straight)
        shape.bends = chain;
    return fit::cautious(std::move(shape)).barrel;
}

/// From one part of the caliper to some of the wheel, both turned alike.
double roomBetween(const fit::Outline& part, geometry::Chain chain)
{
    fit::WheelShape alone;
    alone.insets.push_back({ {}, std::move(chain) });
    return gapOf(fit::insetRoom({ part }, alone));
}

/// One part of the caliper in the wheel's frame, turned for spokes: the body, or a bump. It rests on its own readings and no others.
fit::Outline partInWheelsFrame(Evaluator& s, WheelGap which, const Corner& corner, Side side, std::size_t part)
{
    std::vector<fit::Outline> outlines;
    if (corner.brakes == BrakeKind::Drums || part == 0) {
        outlines = corner.brakes == BrakeKind::Drums ? outlinesOf(s, corner, side) : fit::caliperOutlines(bodyOf(s, corner, side));
    } else {
        Evaluator body;
        fit::CornerShape shape = bodyOf(body, corner, side);
        shape.rotor.outerRadius = s(corner.rotor.outerDiameter) / 2;
        shape.slotCentre = s(corner.at(side).slotCentre) - hubMoved(s, corner);
        addBump(s, corner.caliper.bumps[part - 1], lift(s, corner, side), shape);
        outlines = fit::caliperOutlines(shape);
    }
    if (outlines.empty())
        return {};
    fit::Outline own = std::move(outlines.back());
    own.chain = geometry::moved(std::move(own.chain), -wheelFace(s, corner));
    if (which == WheelGap::Spokes)
        own.chain = geometry::transposed(own.chain);
    return own;
}

/// Pieces that lie farther than this behind the nearest one never become it; a part this much farther off than the nearest decides nothing.
constexpr double nearby = 4e-3;
constexpr double farOff = 40e-3;

/// Not every station is at its limit in one place, nor every part of the caliper: each part against each piece of the wheel has its own
/// worst case, and the smallest of these counts.
void takePieceByPiece(Figure& gap, WheelGap which, const Corner& corner, Side side, const Wheel& wheel)
{
    const auto pieces = piecesOf(which, wheel);
    if (!gap.value || pieces.empty())
        return;
    std::vector<fit::Outline> caliper;
    for (std::size_t p = 0; p == 0 || (corner.brakes == BrakeKind::Discs && p <= corner.caliper.bumps.size()); ++p) {
        Evaluator once;
        caliper.push_back(partInWheelsFrame(once, which, corner, side, p));
        if (caliper.back().chain.size() < 2)
            return;
    }
    std::vector<geometry::Chain> chains;
    for (const Piece& piece : pieces)
        chains.push_back(chainOf(which, piece));
    double lowest = std::numeric_limits<double>::infinity();
    double likely = lowest;
    for (std::size_t p = 0; p < caliper.size(); ++p) {
        // What the part's own readings do to its gap, the wheel as it was read; only pieces that may come nearest.
        std::vector<const geometry::Chain*> near;
        double nearest = std::numeric_limits<double>::infinity();
        for (const geometry::Chain& chain : chains)
            nearest = std::min(nearest, roomBetween(caliper[p], chain));
        for (const geometry::Chain& chain : chains)
            if (fit::leastRoom(fit::boxAround(caliper[p].chain), fit::boxAround(chain)) < nearest + nearby)
                near.push_back(&chain);
        if (nearest > *gap.value + farOff)
            continue;
        const Figure own = evaluate([&](Evaluator& s) {
            const auto part = partInWheelsFrame(s, which, corner, side, p);
            if (part.chain.size() < 2)
                return unknown;
            const auto box = fit::boxAround(part.chain);
            double least = std::numeric_limits<double>::infinity();
            for (const geometry::Chain* chain : near)
                if (fit::leastRoom(box, fit::boxAround(*chain)) < least)
                    least = std::min(least, roomBetween(part, *chain));
            return least;
        });
        if (!own.value)
            return;
        for (std::size_t k = 0; k < pieces.size(); ++k) {
            std::array<double, 4> widths {};
            for (std::size_t i = 0; i < 2; ++i) {
                widths[i] = uncertainty(*pieces[k].along[i], true);
                widths[i + 2] = uncertainty(*pieces[k].across[i], true);
            }
            const double reach = widths[0] + widths[1] + widths[2] + widths[3] + own.worstCase;
            // What lies farther off than its limits reach cannot be the smallest.
            if (fit::leastRoom(fit::boxAround(caliper[p].chain), fit::boxAround(chains[k])) - 2 * reach >= std::min(lowest, *gap.value))
                continue;
            const double nominally = roomBetween(caliper[p], chains[k]);
            if (nominally - 2 * reach >= std::min(lowest, *gap.value))
                continue;
            double sum = 0;
            double squares = 0;
            for (int i = 0; i < 4; ++i) {
                const double by = widths[static_cast<std::size_t>(i)];
                double effect = 0;
                for (const double sign : { 1.0, -1.0 })
                    effect = std::max(effect, nominally - roomBetween(caliper[p], chainOf(which, pieces[k], i, sign * by)));
                sum += effect;
                squares += effect * effect;
            }
            lowest = std::min(lowest, nominally - sum - own.worstCase);
            likely = std::min(likely, nominally - std::sqrt(squares + own.rootSumSquare * own.rootSumSquare));
        }
    }
    gap.worstCase = std::max(0.0, *gap.value - lowest);
    gap.rootSumSquare = std::max(0.0, *gap.value - likely);
}

} // namespace

Figure wheelGapOf(WheelGap which, const Corner& corner, Side side, const Wheel& wheel, const Wants& wants, Effects effects)
{
    const bool inPieces = which != WheelGap::Insets && (which == WheelGap::Spokes || wheel.barrel.size() >= 2);
    const auto sum = [&](Evaluator& s) { return wheelGap(s, which, corner, side, wheel, wants); };
    Figure gap = inPieces && effects == Effects::LeftOut ? asRead(sum) : evaluate(sum);
    // What is taken off for weights is taken off every piece.
    const double weights = which == WheelGap::Barrel && !weightsPlaced(wheel) ? setting(wants.weightHeight, &Wants::weightHeight) : 0;
    if (gap.value && inPieces) {
        *gap.value += weights;
        takePieceByPiece(gap, which, corner, side, wheel);
        *gap.value -= weights;
    }
    // Only beyond what the rim's size allows does a barrel nobody measured strike for certain.
    if (which != WheelGap::Spokes && gap.value && wheel.barrel.size() < 2) {
        const double wider =
            fit::widestBarrel(wheel.nominalDiameter).value_or(0) - fit::narrowestEstimate(wheel.nominalDiameter).value_or(0);
        gap.worstCase += wider;
        gap.rootSumSquare = std::hypot(gap.rootSumSquare, wider);
    }
    // And weights that may be elsewhere strike nothing for certain.
    if (gap.value)
        gap.worstCase += weights;
    return gap;
}

double keepOutGap(Evaluator& s, const KeepOut& place, const Corner& corner, const Wheel* wheel, const Hub& hub, const Wants& wants)
{
    const geometry::Point at { -s(place.depth), s(place.radius) };
    return placeGap(s, at, corner, wheel, hub, wants);
}

double placeGap(Evaluator& s, geometry::Point at, const Corner& corner, const Wheel* wheel, const Hub& hub, const Wants& wants)
{
    fit::CornerShape shape {};
    shape.ring = behindRotor(s, corner);
    const Rotor& r = corner.rotor;
    shape.rotor = { s(r.outerDiameter) / 2, s(r.thickness), s(r.ringInnerDiameter) / 2, s(r.overallHeight), s(r.hatThickness),
        s(r.hatOuterDiameter) / 2, s(r.hatWall), hub.pilotDiameter.value.value_or(0) / 2, 0 };
    const double rise = setting(wants.hotRise, &Wants::hotRise);
    const double grown = fit::growth(2 * shape.rotor.outerRadius, rise, ringExpansion(s, corner.rotor, rise)) / 2;
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
        s.assume(tr("the wheel's barrel at that depth"));
    const auto room = fit::keepOutRoom(at, wheelShape, fit::rotorSection(shape, grown));
    if (wheel && room && room->gap > 0 && s.atNominal())
        sayIdle(s, { *wheel, wheelShape, face, room->gap }, at);
    return gapOf(room);
}

double wheelMiddle(Evaluator& s, const Corner& corner, const Wheel& wheel) { return wheelFace(s, corner) - s(wheel.offset); }

fit::Stance stanceOf(Evaluator& s, const Corner& corner, const Wheel& wheel)
{
    double width = unknown;
    if (wheel.overallWidth.value)
        width = s(wheel.overallWidth);
    else if (wheel.nominalWidth > 0)
        width = fit::overallWidth(wheel.nominalWidth);
    return fit::stance(width, s(wheel.offset), wheelFace(s, corner));
}

double hatGap(Evaluator& s, const Corner& c, Side side)
{
    fit::CornerShape shape {};
    shape.rotor.outerRadius = s(c.rotor.outerDiameter) / 2;
    shape.rotor.hatOuterRadius = s(c.rotor.hatOuterDiameter) / 2;
    shape.rotor.hatThickness = s(c.rotor.hatThickness);
    shape.caliper.reach = s(c.caliper.reach) - lift(s, c, side);
    shape.caliper.slotWidth = s(c.caliper.slotWidth);
    shape.slotCentre = s(c.at(side).slotCentre) - hubMoved(s, c);
    shape.ring = behindRotor(s, c);
    return fit::hatRoom(shape);
}

} // namespace deepstop::figures
