#pragma once
/// How far a duty may turn out otherwise: the same random numbers for every setup, so that what differs between them is what differs.

#include "heat/network.hpp"

#include <cstdint>
#include <functional>
#include <span>
#include <vector>

namespace deepstop::heat {

/// Widths of what nobody knows better, as standard deviations over the value; common practice, no source.
struct Widths {
    double cooling = 0.15;
    double friction = 0.06;
    double mass = 0.02; ///< of the rings
    double share = 0.04; ///< of the front's part of the heat
};

/// What a draw made of one setup.
struct Drawn {
    Temperatures frontPeak;
    Temperatures rearPeak;
};

/// For each of `cars` what `draws` draws made of it, in the same order of draws for all: the first of one belongs to the first of the
/// other.
/// @param widths of the cooling etc.; @param threads 0: as many as the machine has
/// @param progress called from any thread with the part that is done, 0 to 1; may be empty
/// Draws that the model cannot run are left out. Throws Cancelled.
[[nodiscard]] std::vector<std::vector<Drawn>> spread(std::span<const Car> cars, const Duty& duty, int draws, const Widths& widths,
    std::uint32_t seed, unsigned threads = 0, const std::function<void(double)>& progress = {});

} // namespace deepstop::heat
