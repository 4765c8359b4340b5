#include "stopping/stopping.hpp"

#include "quantity/unit.hpp"

#include <cmath>

namespace deepstop::stopping {

MeasuredStop judge(double speed, double distance, std::optional<double> grip)
{
    MeasuredStop result { speed * speed / (2 * distance), 2 * distance / speed, {}, {}, {} };
    if (grip) {
        const double most = *grip * standardGravity;
        result.plausible = result.meanDeceleration <= most;
        result.shortest = speed * speed / (2 * most);
        result.speedThatFits = std::sqrt(2 * most * distance);
    }
    return result;
}

} // namespace deepstop::stopping
