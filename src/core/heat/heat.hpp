#pragma once
/// Where the speed goes: energy of a stop, heat store of the rings, temperature rise of one stop. SI; nothing throws.

namespace deepstop::heat {

/// Kinetic energy given up between two speeds, J: ½ m (v₁² − v₂²). Rolling and air drag are left out, so this is the most the brakes get.
/// @return NaN unless mass > 0 and from ≥ to ≥ 0
[[nodiscard]] double stopEnergy(double mass, double from, double to);

/// Heat a ring takes per kelvin, J/K: m c.
[[nodiscard]] double heatStore(double ringMass, double specificHeat);

/// Temperature rise of one ring in one stop, K: share · E / (m c). Within one stop only the friction ring takes heat; hat, hub and air come
/// later. `share` is the part of the energy that this one ring receives.
[[nodiscard]] double temperatureRise(double energy, double share, double heatStore);

/// Greatest rise of a rubbing face whose flux falls linearly from `flux` (W/m²) to nothing over `duration` (s): 4/(3√(2π))·q₀·√(t/(kρc)),
/// at half the duration. A semi-infinite body (Carslaw and Jaeger, from memory); good while √(αt) is less than the depth. NaN for bad
/// numbers.
struct Flash {
    double rise; ///< K
    double at; ///< s
};
[[nodiscard]] Flash flash(double flux, double duration, double conductivity, double density, double specificHeat);

/// Rise over the air right after the last of equal quick stops, and what it comes to after very many: the series of rises that decay by
/// exp(−h·A·t/(m·c)) between them.
struct Repeated {
    double peak; ///< K
    double steady;
};
[[nodiscard]] Repeated repeatedStops(
    double rise, double interval, int stops, double coefficient, double area, double mass, double specificHeat);

/// Time to cool from one temperature to another in air at `ambient`, s; NaN where it never gets there.
[[nodiscard]] double coolingTime(double from, double to, double ambient, double coefficient, double area, double mass, double specificHeat);

} // namespace deepstop::heat
