#pragma once
/// A usual corner, random ones and barrels over them, for the tests of geometry.

#include "core/support.hpp"
#include "fit/fit.hpp"

#include <algorithm>
#include <cmath>

inline deepstop::fit::CornerShape corner()
{
    deepstop::fit::CornerShape c {};
    c.rotor = { 0.165, 0.028, 0.108, 0.046, 0.008, 0.080, 0.008, 0.0333, 0.010 };
    c.caliper = { 0.0186, 0.046, 0.0042, 0.062, 0.051, 0.057, 0.013, 0.044 };
    c.pad = { 0.048, 0.011, 0.005, 0.0007 };
    c.hub = { 0.069, 0.0332, 0.014 };
    c.slotCentre = -0.024;
    return c;
}

/// Half of them with rounded ends.
inline deepstop::fit::CornerShape randomCorner()
{
    auto c = corner();
    c.rotor.outerRadius = between(0.12, 0.19);
    c.caliper = { between(0.010, 0.03), between(0, 0.08), 0.004, between(0.03, 0.07), between(0.02, 0.06), between(0.03, 0.09),
        between(0, 0.015), 0.044 };
    if (among(0, 1))
        c.caliper.cornerRadius = between(0, 0.02);
    c.slotCentre = between(-0.04, -0.01);
    return c;
}

/// A barrel of random height with bends, by rising z.
inline deepstop::geometry::Chain randomBarrel()
{
    deepstop::geometry::Chain barrel;
    const double low = between(0.17, 0.23);
    double z = -0.16;
    while (z < 0.08) {
        barrel.push_back({ z, low + between(0, 0.02) });
        z += between(0.01, 0.05);
    }
    barrel.push_back({ 0.09, low + 0.01 });
    return barrel;
}

/// A line as points at most `spacing` apart.
inline deepstop::geometry::Chain sampled(const deepstop::geometry::Chain& chain, double spacing)
{
    deepstop::geometry::Chain points;
    for (std::size_t i = 0; i + 1 < chain.size(); ++i) {
        const deepstop::geometry::Point way = chain[i + 1] - chain[i];
        const int steps = std::max(1, static_cast<int>(std::ceil(std::hypot(way.z, way.r) / spacing)));
        for (int k = 0; k <= steps; ++k)
            points.push_back(chain[i] + way * (static_cast<double>(k) / steps));
    }
    return points;
}
