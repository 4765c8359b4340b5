#include "fit/fit.hpp"

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

double sweptRadius(double height, double halfLength) { return std::hypot(height, halfLength); }

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
    const double backSwept = sweptRadius(back, halfLength);
    const double shoulderSwept = sweptRadius(back - c.shoulder, halfLength);
    Chain chain { { in, low }, { in, shoulderSwept }, { in + c.shoulder, backSwept }, { out - c.shoulder, backSwept },
        { out, shoulderSwept }, { out, low } };
    const bool known = std::ranges::all_of(chain, [](Point p) { return std::isfinite(p.z) && std::isfinite(p.r); });
    return known ? chain : Chain {};
}

} // namespace

Chain caliperEnvelope(const CornerShape& corner) { return geometry::closed(outline(corner, corner.caliper.backHalfLength)); }

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
    for (const Point p : { Point { z + half, low }, Point { z + half, underBridge }, Point { z - half, underBridge }, Point { z - half, low } })
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
    const double backSwept = sweptRadius(corner.rotor.outerRadius + c.backOverEdge, c.backHalfLength);
    const double tolerance = 1e-6;
    if (p.r >= backSwept - tolerance && std::abs(fromMiddle) >= shoulderStart - tolerance)
        return outboard ? "the outboard corner of the back, at its ends" : "the inboard corner of the back, at its ends";
    if (p.r >= backSwept - tolerance)
        return "the back of the bridge, at its ends";
    if (std::abs(fromMiddle) < depth - tolerance || p.r >= sweptRadius(corner.rotor.outerRadius + c.backOverEdge - c.shoulder, c.backHalfLength) - tolerance)
        return outboard ? "the outboard shoulder" : "the inboard shoulder";
    return outboard ? "the outboard face" : "the inboard face";
}

std::optional<double> beadSeatDiameter(int nominalDiameter)
{
    switch (nominalDiameter) {
    case 14: return 354.8e-3;
    case 15: return 380.2e-3;
    case 16: return 405.6e-3;
    case 17: return 436.6e-3;
    case 18: return 462.0e-3;
    case 19: return 487.4e-3;
    case 20: return 512.8e-3;
    default: return {};
    }
}

std::optional<Chain> estimatedBarrel(int nominalDiameter, double nominalWidth, double offset)
{
    const auto seat = beadSeatDiameter(nominalDiameter);
    if (!seat || !(nominalWidth > 0) || !std::isfinite(offset))
        return {};
    const double width = nominalWidth * 25.4e-3;
    const double middle = -offset;
    const double wide = *seat / 2 - 8e-3;
    const double drop = wide - 18e-3;
    return Chain { { middle - width / 2, wide }, { middle - 0.32 * width, wide }, { middle - 0.25 * width, drop },
        { middle + 0.25 * width, drop }, { middle + 0.32 * width, wide }, { middle + width / 2, wide } };
}

double growth(double diameter, double rise) { return diameter * materials::greyIronExpansion * rise; }

OffsetChange offsetChange(double offset, double hatBefore, double hatAfter, double spacer, double ring)
{
    const double shift = hatAfter - hatBefore + spacer + ring;
    return { offset - shift, shift };
}

} // namespace deepstop::fit
