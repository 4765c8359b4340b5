#include "joints/studs.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::joints {

Engagement engagement(const StudStack& s)
{
    const double past = s.length - s.hat - s.ring - s.spacer - s.pad;
    const double full = past - s.pitch;
    // std::max and std::min would swallow a NaN.
    const double inNut = !std::isfinite(full + s.nutThread) ? full + s.nutThread : std::clamp(full, 0.0, std::max(0.0, s.nutThread));
    return { inNut, inNut / s.pitch, past - s.nutThread };
}

double studToOrder(const StudStack& s, double wanted, double reserve)
{
    const double least = s.hat + s.ring + s.spacer + s.pad + std::fmax(wanted, s.nutThread) + s.pitch + reserve;
    return std::ceil(least / 5e-3 - 1e-9) * 5e-3;
}

} // namespace deepstop::joints
