#include "fit/fit.hpp"

#include "language/language.hpp"
#include "materials/materials.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::fit {

using geometry::Chain;
using geometry::Point;

Faces frictionFaces(const CornerShape& corner)
{
    const double inboard = corner.ring + corner.rotor.hatThickness - corner.rotor.overallHeight;
    return { inboard, inboard + corner.rotor.thickness };
}

double wheelFace(const CornerShape& corner) { return corner.ring + corner.rotor.hatThickness + corner.spacer; }

double axialOffset(const CornerShape& corner) { return corner.slotCentre - frictionFaces(corner).middle(); }

double sweptRadius(double height, double halfLength, double rounding)
{
    const double round = std::min(rounding, halfLength);
    return std::hypot(height - round, halfLength - round) + round;
}

namespace {

/// The outline of the body, its back edges raised to where their ends sweep.
Chain outline(const CornerShape& corner, double halfLength)
{
    const CaliperShape& c = corner.caliper;
    const double edge = corner.rotor.outerRadius;
    const double out = corner.slotCentre + c.outboardDepth;
    const double in = corner.slotCentre - c.inboardDepth;
    const double back = edge + c.backOverEdge;
    const double low = edge - c.reach;
    // A shoulder's swept curve bulges towards the axis, so its chords lie outside it: as many as keep that under 10 µm.
    const double round = std::min(c.cornerRadius, halfLength);
    const double w = halfLength - round;
    const double bend = w * w / std::pow(w * w + std::pow(back - c.shoulder - round, 2), 1.5);
    const int chords = halfLength > 0 && c.shoulder > 0 && std::isfinite(bend)
        ? std::clamp(static_cast<int>(std::ceil(c.shoulder * std::sqrt(bend / 8e-5))), 1, 64)
        : 1;
    const auto swept = [&](int i) { return sweptRadius(back - c.shoulder * (chords - i) / chords, halfLength, round); };
    Chain chain;
    chain.reserve(static_cast<std::size_t>(2 * chords) + 6); // and room for closing it
    chain.push_back({ in, low });
    for (int i = 0; i <= chords; ++i)
        chain.push_back({ in + c.shoulder * i / chords, swept(i) });
    for (int i = chords; i >= 0; --i)
        chain.push_back({ out - c.shoulder * i / chords, swept(i) });
    chain.push_back({ out, low });
    const bool known = std::ranges::all_of(chain, [](Point p) { return std::isfinite(p.z) && std::isfinite(p.r); });
    return known ? chain : Chain {};
}

} // namespace

Chain caliperEnvelope(const CornerShape& corner) { return geometry::closed(outline(corner, corner.caliper.backHalfLength)); }

std::vector<Outline> caliperOutlines(const CornerShape& corner)
{
    std::vector<Outline> outlines;
    outlines.reserve(1 + corner.caliper.bumps.size());
    outlines.push_back({ {}, caliperEnvelope(corner) });
    if (outlines.front().chain.empty())
        return {};
    for (const BumpShape& bump : corner.caliper.bumps) {
        const double middle = corner.slotCentre + bump.atDepth;
        const double top = sweptRadius(corner.rotor.outerRadius + bump.overEdge, bump.fromMiddle);
        const double low = std::min(corner.rotor.outerRadius + bump.overEdge - bump.height, top);
        if (std::isfinite(middle + bump.width + top + low))
            outlines.push_back({ bump.name,
                Chain { { middle - bump.width / 2, low }, { middle - bump.width / 2, top }, { middle + bump.width / 2, top },
                    { middle + bump.width / 2, low }, { middle - bump.width / 2, low } } });
    }
    return outlines;
}

Chain rotorSection(const CornerShape& corner, double growth)
{
    const Faces faces = frictionFaces(corner);
    const RotorShape& r = corner.rotor;
    const double face = corner.ring + r.hatThickness;
    const double edge = r.outerRadius + growth;
    Chain chain { { faces.inboard, r.ringInnerRadius }, { faces.inboard, edge }, { faces.outboard, edge },
        { faces.outboard, r.hatOuterRadius }, { face, r.hatOuterRadius }, { face, r.boreRadius }, { corner.ring, r.boreRadius },
        { corner.ring, r.hatOuterRadius - r.hatWall }, { faces.outboard - r.thickness / 2, r.hatOuterRadius - r.hatWall },
        { faces.outboard - r.thickness / 2, r.ringInnerRadius } };
    const bool known = std::ranges::all_of(chain, [](Point p) { return std::isfinite(p.z) && std::isfinite(p.r); });
    return known ? geometry::closed(std::move(chain)) : Chain {};
}

double hatRoom(const CornerShape& corner)
{
    const double along = corner.slotCentre + corner.caliper.slotWidth / 2 - (corner.ring + corner.rotor.hatThickness);
    const double across = corner.rotor.outerRadius - corner.caliper.reach - corner.rotor.hatOuterRadius;
    if (along > 0 && across > 0)
        return std::hypot(along, across);
    return std::max(along, across);
}

Chain caliperSection(const CornerShape& corner)
{
    Chain chain = outline(corner, 0);
    const double underBridge = corner.rotor.outerRadius + corner.caliper.bridgeGap;
    const double half = corner.caliper.slotWidth / 2;
    if (chain.empty() || !std::isfinite(underBridge) || !std::isfinite(half))
        return {};
    const double low = chain.front().r;
    const double z = corner.slotCentre;
    // Counter to the outline, in through the slot: down the outboard half is already there, now up and over the rotor.
    for (const Point p :
        { Point { z + half, low }, Point { z + half, underBridge }, Point { z - half, underBridge }, Point { z - half, low } })
        chain.push_back(p);
    return geometry::closed(std::move(chain));
}

std::string_view placeOnCaliper(const CornerShape& corner, Point p)
{
    const CaliperShape& c = corner.caliper;
    const double fromMiddle = p.z - corner.slotCentre;
    const bool outboard = fromMiddle > 0;
    const double depth = outboard ? c.outboardDepth : c.inboardDepth;
    const double shoulderStart = depth - c.shoulder;
    const double backSwept = sweptRadius(corner.rotor.outerRadius + c.backOverEdge, c.backHalfLength, c.cornerRadius);
    const double tolerance = 1e-6;
    if (p.r >= backSwept - tolerance && std::abs(fromMiddle) >= shoulderStart - tolerance)
        return outboard ? tr("the outboard corner of the back, at its ends") : tr("the inboard corner of the back, at its ends");
    if (p.r >= backSwept - tolerance)
        return tr("the back of the bridge, at its ends");
    if (std::abs(fromMiddle) < depth - tolerance
        || p.r >= sweptRadius(corner.rotor.outerRadius + c.backOverEdge - c.shoulder, c.backHalfLength, c.cornerRadius) - tolerance)
        return outboard ? tr("the outboard shoulder") : tr("the inboard shoulder");
    return outboard ? tr("the outboard face") : tr("the inboard face");
}

std::optional<double> beadSeatDiameter(int nominalDiameter)
{
    switch (nominalDiameter) {
    case 12:
        return 304.0e-3;
    case 13:
        return 329.4e-3;
    case 14:
        return 354.8e-3;
    case 15:
        return 380.2e-3;
    case 16:
        return 405.6e-3;
    case 17:
        return 436.6e-3;
    case 18:
        return 462.0e-3;
    case 19:
        return 487.4e-3;
    case 20:
        return 512.8e-3;
    case 21:
        return 538.2e-3;
    case 22:
        return 563.6e-3;
    default:
        return {};
    }
}

namespace {

/// Of a barrel nobody measured, under the bead seat: metal and hump, and how much deeper its drop centre lies.
constexpr double underSeat = 8e-3;
constexpr double dropDepth = 18e-3;
constexpr double leastMetal = 3e-3;

} // namespace

std::optional<double> widestBarrel(int nominalDiameter)
{
    const auto seat = beadSeatDiameter(nominalDiameter);
    return seat ? std::optional(*seat / 2 - leastMetal) : std::nullopt;
}

std::optional<double> narrowestEstimate(int nominalDiameter)
{
    const auto seat = beadSeatDiameter(nominalDiameter);
    return seat ? std::optional(*seat / 2 - underSeat - dropDepth) : std::nullopt;
}

std::optional<Chain> estimatedBarrel(int nominalDiameter, double nominalWidth, double offset)
{
    const auto seat = beadSeatDiameter(nominalDiameter);
    if (!seat || !(nominalWidth > 0) || !std::isfinite(offset))
        return {};
    const double width = nominalWidth * 25.4e-3;
    const double middle = -offset;
    const double wide = *seat / 2 - underSeat;
    const double drop = wide - dropDepth;
    return Chain { { middle - width / 2, wide }, { middle - 0.32 * width, wide }, { middle - 0.25 * width, drop },
        { middle + 0.25 * width, drop }, { middle + 0.32 * width, wide }, { middle + width / 2, wide } };
}

double growth(double diameter, double rise, double expansion) { return diameter * expansion * rise; }

OffsetChange offsetChange(double offset, double hatBefore, double hatAfter, double spacer, double ring)
{
    const double shift = hatAfter - hatBefore + spacer + ring;
    return { offset - shift, shift };
}

} // namespace deepstop::fit
