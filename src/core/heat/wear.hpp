#pragma once
/// What a duty takes off the linings. SI; nothing throws.

#include "heat/network.hpp"

namespace deepstop::heat {

/// Volume of lining worn off per heat made at a surface temperature, m³/J: 3.2e-14 up to 100 °C, twice as much for every 100 K more, as
/// far as 900 °C. Common practice, worked back from pads that last 50,000 km on the road or a dozen hard sessions on a track; a compound
/// may wear half or twice as fast (`wearUnsure`).
[[nodiscard]] double wearRate(double surface);
inline constexpr double wearUnsure = 2;

/// Volume one wheel's linings lose over a run, m³; NaN for an incomplete one.
[[nodiscard]] double wornVolume(const Run& run, bool front);

} // namespace deepstop::heat
