#pragma once
/// What it weighs: masses from dimensions where no scale was at hand, rotating inertia, complete corners. SI; nothing throws.

#include "materials/materials.hpp"

namespace deepstop::weights {

/// The friction ring: two plates with vanes between them, or one solid plate.
struct Ring {
    double outerDiameter; ///< m, > innerDiameter
    double innerDiameter;
    double thickness; ///< over both faces
    double ventGap; ///< air between the plates, 0 for solid, < thickness
    double vaneShare; ///< part of that air filled with vanes, 0–1
};

/// Volume of iron in the ring, m³: π/4 (D² − d²) (T − gap (1 − vane share)). NaN where the numbers cannot be a ring.
[[nodiscard]] double ringVolume(const Ring& ring);
/// Mass of the ring, kg.
[[nodiscard]] double ringMass(const Ring& ring, double density = materials::greyIron.density);

/// The hat: a disc with a bore, a cylindrical wall, and a flat neck out to the ring.
struct Hat {
    double outerDiameter;
    double bore;
    double thickness; ///< of the disc the wheel bears on
    double wall; ///< of cylinder and neck
    double depth; ///< from the disc's inner face to the ring's outboard face; 0 or less: no cylinder
    double ringInnerDiameter; ///< the neck ends there
};

/// Volume of the hat, m³; NaN where the numbers cannot be a hat.
[[nodiscard]] double hatVolume(const Hat& hat);

/// Moment of inertia of a hollow cylinder about its axis, kg m²: m (D² + d²) / 8.
[[nodiscard]] double inertia(double mass, double outerDiameter, double innerDiameter);
/// Mass that would feel the same to the engine and the brakes, kg: J / R² at the tyre.
[[nodiscard]] double equivalentMass(double inertia, double tyreRadius);

} // namespace deepstop::weights
