#pragma once
/// A slow turn under the dial gauge: how much of what it shows is wobble, which another place on the hub can cure, and how much is not.

#include <optional>
#include <span>

namespace deepstop::runout {

struct Turn {
    double total; ///< largest less smallest reading, m: the runout as people quote it
    double wobble; ///< largest less smallest of the first harmonic alone: twice its amplitude
    double highSpot; ///< where the wobble is highest, rad from the start of the turn, 0 … 2π
    double rest; ///< largest less smallest of what is left without the wobble: warp, rust, thickness
};

/// Tells the first harmonic of one whole turn from the rest.
/// @param readings evenly spread over exactly one turn, m; at least 12
/// @return nothing for fewer readings or one that is not finite
[[nodiscard]] std::optional<Turn> analyse(std::span<const double> readings);

/// How many studs further round to try a rotor that wobbles, so that its high spot meets the hub's low one: half of them, at least one.
[[nodiscard]] constexpr int studsToReindex(int studs) { return studs / 2 > 1 ? studs / 2 : 1; }

/// The first harmonic with its mean at `turn` (0 … 1) of the way round, for drawing.
[[nodiscard]] double wobbleAt(std::span<const double> readings, double turn);

} // namespace deepstop::runout
