#include "weights/weights.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::weights {
namespace {

constexpr double quarterPi = std::numbers::pi / 4;
constexpr double impossible = std::numeric_limits<double>::quiet_NaN();

double annulus(double outer, double inner) { return quarterPi * (outer * outer - inner * inner); }

} // namespace

double vaneShare(const Vanes& v, double outer, double inner)
{
    if (!(v.count > 0 && v.thickness > 0 && outer > inner && inner >= 0 && v.lean >= 0 && v.lean < std::numbers::pi / 2))
        return impossible;
    const double length = (outer - inner) / 2 / (v.shape == Vanes::Shape::Curved ? std::cos(v.lean) : 1);
    const double one = v.shape == Vanes::Shape::Pillars ? quarterPi * v.thickness * v.thickness : v.thickness * length;
    const double share = v.count * one / annulus(outer, inner);
    return share <= 1 ? share : impossible;
}

double hatBoltsMass(int count, double diameter, double wall, double hatDensity)
{
    const double headAndNut = 2 * quarterPi * 1.6 * 1.6 * 0.8 * diameter * diameter * diameter;
    const double shank = quarterPi * diameter * diameter * wall;
    return count * (materials::steel.density * headAndNut + (materials::steel.density - hatDensity) * shank);
}

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
    if (!(h.outerDiameter > h.bore && h.bore >= 0 && h.thickness > 0 && h.wall > 0 && 2 * h.wall < h.outerDiameter
            && h.ringInnerDiameter > 0))
        return impossible;
    const double disc = (annulus(h.outerDiameter, h.bore) - h.holes * quarterPi * h.holeDiameter * h.holeDiameter) * h.thickness;
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
