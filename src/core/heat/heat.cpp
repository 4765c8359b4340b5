#include "heat/heat.hpp"

#include <numbers>
#include <cmath>
#include <limits>

namespace deepstop::heat {

double stopEnergy(double mass, double from, double to)
{
    if (!(mass > 0 && to >= 0 && from >= to))
        return std::numeric_limits<double>::quiet_NaN();
    return mass * (from * from - to * to) / 2;
}

double heatStore(double ringMass, double specificHeat) { return ringMass * specificHeat; }

double temperatureRise(double energy, double share, double heatStore)
{
    return heatStore > 0 ? share * energy / heatStore : std::numeric_limits<double>::quiet_NaN();
}

Flash flash(double flux, double duration, double conductivity, double density, double specificHeat)
{
    if (!(flux >= 0 && duration > 0 && conductivity > 0 && density > 0 && specificHeat > 0))
        return { std::numeric_limits<double>::quiet_NaN(), std::numeric_limits<double>::quiet_NaN() };
    return { 4 / (3 * std::sqrt(2 * std::numbers::pi)) * flux * std::sqrt(duration / (conductivity * density * specificHeat)),
        duration / 2 };
}

Repeated repeatedStops(double rise, double interval, int stops, double coefficient, double area, double mass, double specificHeat)
{
    const double decay = coefficient * area * interval / (mass * specificHeat);
    if (!(stops > 0 && interval > 0 && mass > 0 && specificHeat > 0 && decay >= 0))
        return { std::numeric_limits<double>::quiet_NaN(), std::numeric_limits<double>::quiet_NaN() };
    if (decay == 0)
        return { rise * stops, std::numeric_limits<double>::infinity() };
    // expm1 keeps its digits where hardly anything cools between two stops.
    const double all = -1 / std::expm1(-decay);
    return { rise * -std::expm1(-stops * decay) * all, rise * all };
}

double coolingTime(double from, double to, double ambient, double coefficient, double area, double mass, double specificHeat)
{
    const double part = (from - ambient) / (to - ambient);
    if (!(part >= 1 && coefficient > 0 && area > 0 && mass > 0 && specificHeat > 0))
        return std::numeric_limits<double>::quiet_NaN();
    return mass * specificHeat / (coefficient * area) * std::log(part);
}

} // namespace deepstop::heat
