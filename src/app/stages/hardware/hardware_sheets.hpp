#pragma once
/// Beside the centring of a caliper: its bolts, the bracket that carries it, its halves.

#include "drawing/sheet.hpp"

namespace deepstop::app {

/// Every bolted joint of the axle's corner in section, with its readings and its checks.
[[nodiscard]] Sheet jointSheet(const Study& study, Axle axle);
/// The adapter bracket that the readings of knuckle and caliper ask for.
[[nodiscard]] Sheet bracketSheet(const Study& study, Axle axle);
/// A split caliper and what its widening takes.
[[nodiscard]] Sheet halvesSheet(const Study& study, Axle axle);

} // namespace deepstop::app
