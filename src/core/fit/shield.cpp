#include "fit/shield.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::fit {

std::optional<ShieldCut> shieldCut(const Shield& shield, double rotorRadius, double rotorFace, double ringInnerRadius, double caliperLow,
    double caliperDepth, double caliperHalfLength, double margin)
{
    if (!std::isfinite(shield.radius + shield.depth + shield.rim + rotorRadius + rotorFace + ringInnerRadius + caliperLow + caliperDepth
            + caliperHalfLength + margin))
        return {};
    ShieldCut cut {};
    cut.halfWidth = caliperHalfLength + margin;
    cut.plateTooNear = shield.depth - rotorFace < margin;
    const bool rimReaches = shield.depth - shield.rim - rotorFace < margin;
    if (cut.plateTooNear)
        // What is left has to stay inside the friction ring, over the hat.
        cut.radius = ringInnerRadius - margin;
    else if (rimReaches && shield.radius - rotorRadius < margin)
        // The plate may stay; its rim goes, and the metal bent into it, about as wide as the rim is high.
        cut.radius = shield.radius - std::max(shield.rim, margin);
    if (cut.radius && *cut.radius >= shield.radius)
        cut.radius.reset();
    const double left = cut.radius.value_or(shield.radius);
    if (left > caliperLow - margin && caliperDepth > shield.depth - shield.rim - margin)
        cut.windowRadius = caliperLow - margin;
    return cut;
}

} // namespace deepstop::fit
