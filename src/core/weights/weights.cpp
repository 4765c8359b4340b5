#include "weights/weights.hpp"

#include <algorithm>
#include <limits>
#include <numbers>

namespace deepstop::weights {
namespace {

constexpr double quarterPi = std::numbers::pi / 4;
constexpr double impossible = std::numeric_limits<double>::quiet_NaN();

double annulus(double outer, double inner) { return quarterPi * (outer * outer - inner * inner); }

} // namespace

double ringVolume(const Ring& r)
{
    if (!(r.outerDiameter > r.innerDiameter && r.innerDiameter >= 0 && r.thickness > r.ventGap && r.ventGap >= 0 && r.vaneShare >= 0
            && r.vaneShare <= 1))
        return impossible;
    return annulus(r.outerDiameter, r.innerDiameter) * (r.thickness - r.ventGap * (1 - r.vaneShare));
}

double ringMass(const Ring& ring, double density) { return ringVolume(ring) * density; }

double hatVolume(const Hat& h)
{
    if (!(h.outerDiameter > h.bore && h.bore >= 0 && h.thickness > 0 && h.wall > 0 && 2 * h.wall < h.outerDiameter && h.ringInnerDiameter > 0))
        return impossible;
    const double disc = annulus(h.outerDiameter, h.bore) * h.thickness;
    const double cylinder = annulus(h.outerDiameter, h.outerDiameter - 2 * h.wall) * std::max(0.0, h.depth);
    const double neck = h.ringInnerDiameter > h.outerDiameter ? annulus(h.ringInnerDiameter, h.outerDiameter) * h.wall : 0;
    return disc + cylinder + neck;
}

double inertia(double mass, double outerDiameter, double innerDiameter)
{
    return mass * (outerDiameter * outerDiameter + innerDiameter * innerDiameter) / 8;
}

double equivalentMass(double inertia, double tyreRadius) { return inertia / (tyreRadius * tyreRadius); }

} // namespace deepstop::weights
