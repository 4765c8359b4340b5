#include "chapters/clearance/gap_figures.hpp"

#include "language/language.hpp"
#include "materials/materials.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::figures {
namespace {

double hotRise(const Wants& wants) { return setting(wants.hotRise, &Wants::hotRise); }
double coningOf(const Wants& wants) { return setting(wants.coning, &Wants::coning); }
double growthOf(Evaluator& s, const Rotor& rotor, double size, const Wants& wants)
{
    const double rise = hotRise(wants);
    return fit::growth(size, rise, ringExpansion(s, rotor, rise));
}

/// Where shims push the plate towards the rotor, the thickest stack counts.
double shimsOutboard(Evaluator& s, const Corner& corner)
{
    double shims = 0;
    if (corner.mount.shimMoves == Direction::Outboard)
        for (const Fitted* in : { &corner.left, &corner.right })
            shims = std::max({ shims, s.orElse(in->shimTop, 0), s.orElse(in->shimBottom, 0) });
    return shims;
}

/// How far heads, nuts or bolt ends stand out of the plate. Of a radial mount the studs stand in the plate's edge, and nothing of them
/// faces the rotor.
double proudOf(Evaluator& s, const Corner& corner)
{
    const double atKnuckle = s(corner.bracket.proudKnuckle);
    const double atCaliper = corner.mount.kind == MountKind::Radial ? 0 : s(corner.bracket.proudCaliper);
    // std::max would swallow a NaN.
    return std::max(atKnuckle, atCaliper) + 0 * (atKnuckle + atCaliper);
}

} // namespace

double bridgeGap(Evaluator& s, const Corner& corner, Side side, const Wants& wants)
{
    const double read = s(corner.caliper.bridgeGap) + lift(s, corner, side);
    return read - growthOf(s, corner.rotor, s(corner.rotor.outerDiameter), wants) / 2;
}

double slotGap(Evaluator& s, const Corner& corner, Side side, const Wants& wants)
{
    const double coning = coningOf(wants);
    const double thickness = s(corner.rotor.thickness);
    // A ring that floats on its hat stands anywhere within its play; whether it does has to be said.
    double play = 0;
    if (corner.rotor.construction == RotorBuild::TwoPiece)
        play = s(corner.rotor.ringPlay);
    else if (corner.rotor.construction == RotorBuild::Unknown)
        s.assume(tr("a rotor of one piece"));
    return (s(corner.caliper.slotWidth) - thickness - growthOf(s, corner.rotor, thickness, wants)) / 2 - coning - play / 2
        - std::abs(axialOffset(s, corner, side));
}

double hotHatGap(Evaluator& s, const Corner& corner, Side side, const Wants& wants)
{
    // The hat gets about half as hot as the ring; common practice, no source.
    const double hatRise = hotRise(wants) / 2;
    const auto& solid = corner.rotor.hatMaterial == HatMaterial::Aluminium ? materials::aluminium6061 : materials::greyIron;
    if (corner.rotor.hatMaterial == HatMaterial::Unknown)
        s.assume(tr("a hat of iron"));
    return hatGap(s, corner, side) - fit::growth(s(corner.rotor.hatOuterDiameter), hatRise, solid.expansionOver(hatRise)) / 2;
}

double bracketGap(Evaluator& s, const Corner& corner, const Hub& hub, const Wants& wants)
{
    const double shims = shimsOutboard(s, corner);
    const double proud = proudOf(s, corner);
    const double coning = coningOf(wants);
    return inboardFace(s, corner) - (s(corner.bracket.thickness) + shims + proud - lugDepth(s, corner, hub)) - coning;
}

double bracketEdgeGap(Evaluator& s, const Corner& corner, const Wheel* wheel, const Hub& hub, const Wants& wants)
{
    const double lugs = -lugDepth(s, corner, hub);
    const double outboard = lugs + s(corner.bracket.thickness) + shimsOutboard(s, corner);
    double least = std::numeric_limits<double>::infinity();
    for (const BracketPoint& point : corner.bracket.outline) {
        const double radius = std::hypot(s(point.across), s(point.radius));
        for (const double z : { lugs, outboard }) {
            const double gap = placeGap(s, { z, radius }, corner, wheel, hub, wants);
            least = std::isnan(gap) ? gap : std::min(least, gap);
        }
    }
    return least;
}

double shieldGap(Evaluator& s, const Corner& corner, const Hub& hub, const Wants& wants)
{
    const auto read = shieldOf(corner, hub);
    const double face = -inboardFace(s, corner);
    const double edge = (s(corner.rotor.outerDiameter) + growthOf(s, corner.rotor, s(corner.rotor.outerDiameter), wants)) / 2;
    const double plate = s(*read.depth) - face;
    const double rim = plate - s(*read.rim) >= setting(wants.shieldGap, &Wants::shieldGap) ? plate : s(*read.diameter) / 2 - edge;
    // A lip at the ring's inner edge and a rib of the plate face each other; of one without the other the other is asked for.
    const Reading& lip = corner.rotor.inboardLip;
    const Reading& rib = hub.shieldRib;
    const double between = lip.value || rib.value ? plate - s(lip) - s(rib) : plate;
    // std::min would swallow a NaN.
    return between + rim + plate == between + rim + plate ? std::min({ plate, rim, between }) : std::numeric_limits<double>::quiet_NaN();
}

namespace {

/// Metal of a bracket round its holes, beyond the hole; common practice, no source.
constexpr double roundHole = 8e-3;
/// A place as seen along the axle from the caliper: across its middle line, and along it from the axis.
struct FromCaliper {
    double across;
    double along;
};

/// Where a keep-out stands; nothing while its angle round the axle is not read.
std::optional<FromCaliper> seen(Evaluator& s, const KeepOut& place, const Mount& mount)
{
    if (!place.clock.value || !mount.clock.value)
        return {};
    const double angle = s(place.clock, false) - s(mount.clock, false);
    return FromCaliper { s(place.radius) * std::sin(angle), s(place.radius) * std::cos(angle) };
}

/// In the half-plane through the axis where they face each other, and past the ends of the body across it.
double gapTo(const geometry::Chain& body, double halfLength, geometry::Point at, const std::optional<FromCaliper>& from)
{
    const geometry::Point seen { at.z, from ? from->along : at.r };
    const auto room = fit::keepOutRoom(seen, {}, body);
    const double inPlane = room ? room->gap : NAN;
    const double past = from ? std::abs(from->across) - halfLength : 0;
    return past > 0 ? std::hypot(std::max(0.0, inPlane), past) + 0 * inPlane : inPlane;
}

double toCaliper(Evaluator& s, const KeepOut& place, const Corner& corner, Side side)
{
    fit::CornerShape shape {};
    const Caliper& c = corner.caliper;
    const double lifted = lift(s, corner, side);
    shape.rotor.outerRadius = s(corner.rotor.outerDiameter) / 2;
    shape.caliper = { s(c.backOverEdge) + lifted, s(c.backLength) / 2, s(c.bridgeGap) + lifted, s(c.reach) - lifted, s(c.outboardDepth),
        s(c.inboardDepth), s(c.shoulder), s(c.slotWidth) };
    shape.slotCentre = s(corner.at(side).slotCentre) - hubMoved(s, corner);
    return gapTo(
        fit::caliperSection(shape), shape.caliper.backHalfLength, { -s(place.depth), s(place.radius) }, seen(s, place, corner.mount));
}

/// The plate with what stands proud of it, thinner where a relief lies over the place.
double toBracket(Evaluator& s, const KeepOut& place, const Corner& corner, const Hub& hub)
{
    const Bracket& b = corner.bracket;
    const double lugs = -lugDepth(s, corner, hub);
    const double knuckle = s(hub.lugRadius);
    const double caliper = s(corner.rotor.outerDiameter) / 2 - s(corner.caliper.mountDrop);
    const double low = std::min(knuckle, caliper) - s(b.knuckleHole) / 2 - roundHole + 0 * (knuckle + caliper);
    const double high = std::max(knuckle, caliper) + s(b.caliperHole) / 2 + roundHole + 0 * (knuckle + caliper);
    const double half =
        std::max(s(b.knuckleSpacing), s(b.caliperSpacing)) / 2 + roundHole + 0 * (s(b.knuckleSpacing) + s(b.caliperSpacing));
    const double proud = proudOf(s, corner);
    const auto from = seen(s, place, corner.mount);
    double back = lugs;
    if (from)
        for (const Relief& each : b.reliefs)
            if (std::hypot(from->across - s(each.across), from->along - s(each.radius)) <= s(each.width) / 2)
                back = std::max(back, lugs + s(each.depth));
    const double face = lugs + s(b.thickness) + shimsOutboard(s, corner) + proud;
    const geometry::Chain plate { { back, low }, { back, high }, { face, high }, { face, low }, { back, low } };
    return gapTo(plate, half, { -s(place.depth), s(place.radius) }, from);
}

} // namespace

double fixedGap(Evaluator& s, const KeepOut& place, const Corner& corner, Side side, const Hub& hub)
{
    const double caliper = toCaliper(s, place, corner, side);
    if (!corner.bracket.thickness.value && corner.bracket.name.empty())
        return caliper;
    const double bracket = toBracket(s, place, corner, hub);
    return std::isfinite(caliper + bracket) ? std::min(caliper, bracket) : std::numeric_limits<double>::quiet_NaN();
}

double wantedRound(const KeepOut& place, const Wants& wants)
{
    const bool hose = place.kind == KeepOutKind::Unknown || place.kind == KeepOutKind::Hose;
    return hose ? setting(wants.hoseGap, &Wants::hoseGap) : setting(wants.keepOutGap, &Wants::keepOutGap);
}

} // namespace deepstop::figures
