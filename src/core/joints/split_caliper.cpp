#include "joints/split_caliper.hpp"

#include <cmath>
#include <limits>

namespace deepstop::joints {

Widening widen(const SplitCaliper& c, double growth)
{
    const double by = growth >= 0 ? growth : std::numeric_limits<double>::quiet_NaN();
    return { c.widened + by, c.bridgeBoltLength + by, c.pinLength + by, c.slotWidth + by, by / 2, by / 2 };
}

double soldBoltLength(double atLeast) { return std::ceil(atLeast / 5e-3 - 1e-9) * 5e-3; }

} // namespace deepstop::joints
