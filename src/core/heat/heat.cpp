#include "heat/heat.hpp"

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

} // namespace deepstop::heat
