#pragma once
/// Round numbers for the axes of a plot.

#include <cmath>

namespace deepstop {

/// A round number at or above `value`: 1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8 or 10 of a decade; 1 for what is no positive number.
[[nodiscard]] inline double roundUp(double value)
{
    if (!(value > 0) || !std::isfinite(value))
        return 1;
    const double decade = std::pow(10, std::floor(std::log10(value)));
    for (const double factor : { 1.0, 1.2, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0 })
        if (value <= factor * decade * 1.0001)
            return factor * decade;
    return 10 * decade;
}

/// One, two, two and a half or five of a decade, so that at most eight fit into `whole`. @pre `whole` is positive
[[nodiscard]] inline double stepFor(double whole)
{
    const double decade = std::pow(10, std::floor(std::log10(whole / 8)));
    for (const double factor : { 1.0, 2.0, 2.5, 5.0, 10.0 })
        if (whole / (factor * decade) <= 8.001)
            return factor * decade;
    return 10 * decade;
}

} // namespace deepstop
