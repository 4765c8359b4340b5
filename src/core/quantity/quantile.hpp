#pragma once
/// Where a part of a list of values lies.

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace deepstop {

/// The value nearest to which a part of the list, 0 to 1, lies below; NaN for an empty one. No value in it may be NaN.
[[nodiscard]] inline double quantile(std::vector<double> values, double part)
{
    if (values.empty())
        return std::numeric_limits<double>::quiet_NaN();
    const auto at = static_cast<std::ptrdiff_t>(std::lround(std::clamp(part, 0.0, 1.0) * static_cast<double>(values.size() - 1)));
    std::ranges::nth_element(values, values.begin() + at);
    return values[static_cast<std::size_t>(at)];
}

} // namespace deepstop
