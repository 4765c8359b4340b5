#pragma once
/// How a brake gives its heat to the air: correlations of the handbooks, coefficients in W/(m² K). SI, temperatures in K; nothing throws.

namespace deepstop::heat {

/// Air at a film temperature: conductivity W/(m K) and kinematic viscosity m²/s from power laws through the tables (within 3 % from 250 to
/// 900 K, from memory), Prandtl number 0.7.
struct Air {
    double conductivity;
    double viscosity;
};
[[nodiscard]] Air airAt(double temperature);

/// Faces of a disc of `diameter` on a car at `speed`: 0.70 (k/D) Re^0.55 below Re = 2.4e5, 0.04 (k/D) Re^0.8 above, Re = v D/ν (Limpert,
/// from memory; for a disc in the open, 0 to 90 m/s). The wheel and shield shade it: see `sheltered`.
[[nodiscard]] double discFaces(double diameter, double speed, double filmTemperature);

/// Inside straight vanes: 0.023 (1 + (d_h/l)^0.67) Re^0.8 Pr^0.33 k/d_h where Re > 1e4, 1.86 (Re Pr d_h/l)^0.33 k/d_h below (Limpert, from
/// memory). The air's mean speed in the channels is 0.25 of the rim speed of the rotor (common practice, 0.2 to 0.35).
/// @param hydraulicDiameter of one channel; @param length of it; @param rimSpeed of the rotor's edge
[[nodiscard]] double vaneChannels(double hydraulicDiameter, double length, double rimSpeed, double filmTemperature);

/// At rest, by natural convection: common practice, 5 to 10 W/(m² K) for parts as hot as these.
inline constexpr double atRest = 7;

/// Part of the open disc's coefficient that is left inside a wheel; common practice, without a source. A duct multiplies it by 1.5 to 2.5.
inline constexpr double sheltered = 0.6;

/// Rise of the air round a caliper over that of the ring it has come past; common practice, without a source.
inline constexpr double bathed = 0.1;

/// Stefan and Boltzmann's constant, W/(m² K⁴) (CODATA 2018).
inline constexpr double stefanBoltzmann = 5.670374419e-8;
/// Of a rotor's face: 0.55 machined and bright, 0.9 scaled (common practice); worn faces between.
inline constexpr double ringEmissivity = 0.6;
inline constexpr double bodyEmissivity = 0.85;
/// Between two faces that see each other, the ring's and the caliper's: 1/(1/ε₁ + 1/ε₂ − 1).
inline constexpr double betweenEmissivity = 1 / (1 / ringEmissivity + 1 / bodyEmissivity - 1);

} // namespace deepstop::heat
