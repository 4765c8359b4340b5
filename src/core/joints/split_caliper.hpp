#pragma once
/// Widening a split caliper for a thicker rotor. A change to a part that holds pressure: its bolts' class and torque come from the maker of
/// the spacers, and it is leak-tested and judged by qualified people.

#include "joints/bolts.hpp"

#include <string>

namespace deepstop::joints {

/// Lengths in metres; NaN where not read.
struct SplitCaliper {
    double slotWidth;
    double bridgeBoltLength; ///< under the head
    double pinLength;
    double widened; ///< spacers that are in already
};

struct Widening {
    double spacer; ///< between the halves at each bolt: what the rotor grew by
    double bridgeBoltLength; ///< at least, under the head
    double pinLength;
    double slotWidth;
    double mountWasher; ///< under each mounting bolt, to bring the middle back: half of the spacer
    double mountEngagementLost; ///< by those washers
};

/// Common practice: spacers as thick as the rotor grew, bolts and pins longer by as much, washers of half of it at the mount.
/// @param growth thickness of the new rotor less that of the old, m, > 0; NaN or less than 0: lengths of NaN
[[nodiscard]] Widening widen(const SplitCaliper& caliper, double growth);

/// Bolts are sold in steps of 5 mm: the next that is not shorter.
[[nodiscard]] double soldBoltLength(double atLeast);

} // namespace deepstop::joints
