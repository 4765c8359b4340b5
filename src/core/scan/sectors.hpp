#pragma once
/// What barrel and spokes are cut into, inside this folder.

#include "scan/wheel_scan.hpp"

#include <algorithm>
#include <limits>
#include <numbers>

namespace deepstop::scan {

inline constexpr double turn = 2 * std::numbers::pi;
inline constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

[[nodiscard]] inline std::size_t sectorOf(double angle, std::size_t sectors)
{
    return std::min(sectors - 1, static_cast<std::size_t>((angle / turn + 0.5) * static_cast<double>(sectors)));
}

/// Ranges of a grid's places between the first and the last that are good, in which they are not.
[[nodiscard]] inline std::vector<Range> gapsOf(const std::vector<bool>& good, double first, double step)
{
    std::vector<Range> gaps;
    const auto begin = std::ranges::find(good, true);
    if (begin == good.end())
        return gaps;
    auto end = good.end();
    while (!*std::prev(end))
        --end;
    for (auto it = begin; it != end;) {
        if (*it) {
            ++it;
            continue;
        }
        const auto from = it;
        while (!*it)
            ++it;
        gaps.push_back({ first + step * static_cast<double>(from - good.begin()), first + step * static_cast<double>(it - good.begin()) });
    }
    return gaps;
}

inline constexpr double errors = 3; ///< standard errors that count as the width
inline constexpr double ownWidth = 0.05 * millimetre; ///< of a profile made of flat pieces

} // namespace deepstop::scan
