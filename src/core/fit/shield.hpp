#pragma once
/// Trimming a dust shield for a larger rotor and caliper. The cut is not to be undone.

#include <optional>

namespace deepstop::fit {

/// Metres. Depths from the hub's flange face, inboard positive.
struct Shield {
    double radius; ///< over its rim
    double depth; ///< of its plate
    double rim; ///< how far the rim stands outboard of the plate
};

struct ShieldCut {
    /// Rim and plate go beyond this radius; nothing where the shield may stay whole for the rotor.
    std::optional<double> radius;
    bool plateTooNear; ///< the plate itself, not only the rim, is too near the rotor's face
    /// Window for the caliper: down to this radius, and half as wide as `halfWidth` to either side of the caliper's middle. Nothing where
    /// the shield ends below it.
    std::optional<double> windowRadius;
    double halfWidth;
};

/// @param rotorRadius grown by heat; @param rotorFace depth of its inboard friction face; @param ringInnerRadius of the friction ring
/// @param caliperLow radius its inboard half reaches down to; @param caliperDepth of its inboard face
/// @param margin wanted round both. Nothing where one of the lengths is NaN.
[[nodiscard]] std::optional<ShieldCut> shieldCut(const Shield& shield, double rotorRadius, double rotorFace, double ringInnerRadius,
    double caliperLow, double caliperDepth, double caliperHalfLength, double margin);

} // namespace deepstop::fit
