#pragma once
/// Stops as they stand in a notebook, in one line.

#include "build/work.hpp"
#include "quantity/format.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace deepstop::proving {

/// What such a line says, or why it is refused: which word was not understood, and how it is written.
struct PastedStops {
    double speed = 0; ///< m/s
    Way way = Way::Unknown;
    std::vector<double> distances; ///< m
    std::string refusal;
};

/// Reads "from 60 mph, out: 171 171 178 179 175 ft", "100 km/h 42.1; 42.6; 41.9 m", "from 60mph back 171ft 174ft". The unit at the end
/// counts for every distance without one of its own; without any it is that of `system`. A speed wants its unit.
/// @return at most 100 distances
[[nodiscard]] PastedStops readStops(std::string_view text, UnitSystem system);

} // namespace deepstop::proving
