#pragma once
/// The parts bench: each part by itself to scale, old beside new, then the scales and the comparison.

#include "drawing/sheet.hpp"
#include "chapters/weights/comparison.hpp"

namespace deepstop::app {

[[nodiscard]] Sheet rotorSheet(const Study& study, Axle axle, Side side);
/// A drum with its shoes, instead of rotor, caliper and pads.
[[nodiscard]] Sheet drumSheet(const Study& study, Axle axle);
[[nodiscard]] Sheet caliperSheet(const Study& study, Axle axle);
[[nodiscard]] Sheet padSheet(const Study& study, Axle axle);
/// The brake line from the caliper's port to the hard line.
[[nodiscard]] Sheet lineSheet(const Study& study, Axle axle);
/// A parking brake in the caliper, and the car's cable or loom.
[[nodiscard]] Sheet parkingSheet(const Study& study, Axle axle);
/// Hub and knuckle, bracket, hose, prices.
[[nodiscard]] Sheet fittingsSheet(const Study& study, Axle axle);
[[nodiscard]] Sheet scalesSheet(const Study& study, Axle axle);
[[nodiscard]] Sheet comparisonSheet(const Study& study, Axle axle);

} // namespace deepstop::app
