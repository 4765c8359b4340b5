#pragma once
/// Properties of what brakes are made of. Handbook values; each with where it comes from.

namespace deepstop::materials {

/// A solid at room temperature.
struct Solid {
    double density; ///< kg/m³
    double specificHeat; ///< J/(kg K)
    double conductivity; ///< W/(m K)
    double expansion; ///< linear, 1/K, mean from 20 to 200 °C
    double hotExpansion; ///< the same to 400 °C

    /// Mean linear expansion over a rise above room temperature, K: between 180 and 380 K in proportion, beyond as at its end.
    [[nodiscard]] constexpr double expansionOver(double rise) const
    {
        const double part = rise <= 180 ? 0 : rise >= 380 ? 1 : (rise - 180) / 200;
        return expansion + part * (hotExpansion - expansion);
    }
};

/// Grey cast iron (EN-GJL-250 class): density 7200 kg/m³, 50 W/(m K); specific heat 480 J/(kg K) is the middle of the 460–500
/// that handbooks give for room temperature to 200 °C; growth 11.7e-6/K from 20 to 200 °C and
/// 13e-6/K to 400 °C (EN 1561). From memory.
inline constexpr Solid greyIron { 7200, 480, 50, 11.7e-6, 13e-6 };

/// Aluminium 6061-T6: 2700 kg/m³, 896 J/(kg K), 167 W/(m K), 24.3e-6/K to 200 °C and 25.4e-6/K to 400 °C. From memory, as in
/// the ASM data sheets.
inline constexpr Solid aluminium6061 { 2700, 896, 167, 24.3e-6, 25.4e-6 };

/// Plain steel: 7850 kg/m³, 480 J/(kg K), 50 W/(m K), 12e-6/K to 200 °C and 13.2e-6/K to 400 °C. From memory, as for low-carbon steel in
/// the ASM handbooks.
inline constexpr Solid steel { 7850, 480, 50, 12e-6, 13.2e-6 };

/// Carbon-ceramic ring: 2400 kg/m³, 800 J/(kg K), 30 W/(m K), 3e-6/K. From memory; kinds differ by a tenth and more.
inline constexpr Solid carbonCeramic { 2400, 800, 30, 3e-6, 3e-6 };

/// Pad lining, kg/m³: 2200 to 2800 are usual; common practice, no source.
inline constexpr double liningDensity = 2500;

/// Hottest working rise of a rotor's ring above the garage, K; common practice, no source.
inline constexpr double hotRotorRise = 500;

/// Air at 15 °C and sea level, kg/m³ (ISO 2533 standard atmosphere).
inline constexpr double airDensity = 1.225;

} // namespace deepstop::materials
