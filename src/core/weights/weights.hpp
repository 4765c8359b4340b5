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

/// Vanes between two plates, all alike.
struct Vanes {
    enum class Shape { Straight, Curved, Pillars };
    Shape shape;
    int count;
    double thickness; ///< m; of pillars the diameter
    double lean; ///< angle between vane and radius, rad; curved vanes only, taken as the same all along
};

/// Part of the air between the plates that the vanes fill, 0–1: count × thickness × length ÷ ring area, the length (R − r) / cos lean.
/// NaN where the numbers cannot be vanes or would fill more than all of it.
[[nodiscard]] double vaneShare(const Vanes& vanes, double outerDiameter, double innerDiameter);

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
    int holes = 0; ///< for the wheel studs, through the disc
    double holeDiameter = 0;
};

/// Volume of the hat, m³; NaN where the numbers cannot be a hat.
[[nodiscard]] double hatVolume(const Hat& hat);

/// What the bolts of a two-piece rotor add, kg: head and nut, each a cylinder 1.6 d wide and 0.8 d high, and the shank in place of the hat
/// it was drilled out of. Proportions of ISO 4014 and 4032 within a tenth, from memory.
[[nodiscard]] double hatBoltsMass(int count, double diameter, double wall, double hatDensity);

/// Moment of inertia of a hollow cylinder about its axis, kg m²: m (D² + d²) / 8.
[[nodiscard]] double inertia(double mass, double outerDiameter, double innerDiameter);
/// Mass that would feel the same to the engine and the brakes, kg: J / R² at the tyre.
[[nodiscard]] double equivalentMass(double inertia, double tyreRadius);

} // namespace deepstop::weights
