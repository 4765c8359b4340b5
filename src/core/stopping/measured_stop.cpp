#include "stopping/stopping.hpp"

#include "quantity/unit.hpp"

namespace deepstop::stopping {

MeasuredStop judge(double speed, double distance, std::optional<double> grip)
{
    MeasuredStop result { speed * speed / (2 * distance), 2 * distance / speed, {} };
    if (grip)
        result.plausible = result.meanDeceleration <= *grip * standardGravity;
    return result;
}

} // namespace deepstop::stopping
