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

} // namespace deepstop::heat
