#pragma once
/// The area of a brake pad's lining.

namespace deepstop::geometry {

/// Area between two circles about the axle, of radius R and R − h, within ends that are parallel and `length` apart: ∫ √(R² − x²) −
/// √((R − h)² − x²) dx over ± length/2. Exact. m²; metres in.
/// @param outerRadius R, > 0; @param height h, 0 < h < R; @param length of the widest chord, 0 < length < 2·(R − h). NaN otherwise.
[[nodiscard]] double liningBetweenParallels(double outerRadius, double height, double length);

/// The same within ends along two radii that meet the outer circle `length` apart: the sector φ·(R² − (R − h)²), φ = asin(length / 2R).
/// @param length of the widest chord, which is the outer one, 0 < length < 2R. NaN otherwise.
[[nodiscard]] double liningBetweenRadii(double outerRadius, double height, double length);

} // namespace deepstop::geometry
