#pragma once
/// The wheel room beside its section: from outboard, the wheel and where to measure it, studs and stance, what lies behind the rotor, and
/// what is wanted.

#include "drawing/sheet.hpp"

namespace deepstop::app {

[[nodiscard]] Sheet faceSheet(const Study& study, Axle axle);
/// Stations taken are entered in a table; those the plan still wants are callouts named by `stationId`.
[[nodiscard]] Sheet wheelSheet(const Study& study, Axle axle);
[[nodiscard]] Sheet studSheet(const Study& study, Axle axle);
/// Everything between hub and wheel along the axle.
[[nodiscard]] Sheet stackSheet(const Study& study, Axle axle);
[[nodiscard]] Sheet behindSheet(const Study& study, Axle axle);
[[nodiscard]] Sheet wantedSheet(const Study& study);
[[nodiscard]] Sheet spunSheet(const Study& study, Axle axle);

/// The callout of the plan's station number `index`, and back.
[[nodiscard]] std::string stationId(std::size_t index);
[[nodiscard]] std::optional<std::size_t> stationOf(const std::string& id);

} // namespace deepstop::app
