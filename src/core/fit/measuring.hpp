#pragma once
/// Where to lay straightedge and vernier on a wheel, so that a caliper's clearance rests on readings and not on hope.

#include "fit/fit.hpp"

namespace deepstop::fit {

/// One station to take, or taken already.
struct PlannedStation {
    enum class On { Barrel, Spokes } on;
    double place; ///< depth inboard of the wheel's mounting face (barrel), or radius (spokes), m
    const char* why; ///< "over the highest place of the caliper"
    bool taken; ///< it lies where stations already tell enough
};

/// What matters for this caliper in this wheel, in measuring order: the barrel from inboard out, then the spokes from the axle out.
///
/// Stations over the caliper's ends, the corners of its back and its highest place, bumps included, and as many between as keep
/// neighbours no farther apart than `spacing`; likewise up the caliper's outboard face for the spokes.
/// @param caliper its outlines in the hub's frame; empty: nothing is planned
/// @param face z of the wheel's mounting face
/// @param bareBarrel, bareSpokes where nothing is known yet, as `Room::bare` has it: along z and along r
/// @param reach how far off its place a station may be taken, m
[[nodiscard]] std::vector<PlannedStation> measuringPlan(const std::vector<Outline>& caliper, double face,
    const std::vector<std::pair<double, double>>& bareBarrel, const std::vector<std::pair<double, double>>& bareSpokes, double spacing,
    double reach = 3e-3);

} // namespace deepstop::fit
