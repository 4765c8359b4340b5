#include "heat/convection.hpp"

#include <cmath>

namespace deepstop::heat {

Air airAt(double temperature)
{
    // At 300 K: 0.0262 W/(m K) and 15.9e-6 m²/s.
    const double t = temperature / 300;
    return { 0.0262 * std::pow(t, 0.80), 15.9e-6 * std::pow(t, 1.70) };
}

double discFaces(double diameter, double speed, double film)
{
    const Air air = airAt(film);
    const double re = speed * diameter / air.viscosity;
    const double open = re < 2.4e5 ? 0.70 * std::pow(re, 0.55) : 0.04 * std::pow(re, 0.8);
    return open * air.conductivity / diameter;
}

double vaneChannels(double dh, double length, double rimSpeed, double film)
{
    constexpr double pr = 0.7;
    constexpr double pumped = 0.25;
    const Air air = airAt(film);
    const double re = pumped * rimSpeed * dh / air.viscosity;
    const double turbulent = 0.023 * (1 + std::pow(dh / length, 0.67)) * std::pow(re, 0.8) * std::pow(pr, 0.33);
    const double laminar = 1.86 * std::cbrt(re * pr * dh / length);
    // Between the two ranges the flow is both by turns; the larger holds.
    return (re > 1e4 ? turbulent : std::fmax(laminar, re > 2300 ? turbulent : 0.0)) * air.conductivity / dh;
}

} // namespace deepstop::heat
