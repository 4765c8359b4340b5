#include "centring/car_plan.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace deepstop::centring {

std::span<const double> soldSizes()
{
    static constexpr std::array sizes { 0.25e-3, 0.5e-3, 0.75e-3, 0.9e-3, 1e-3, 2e-3, 3e-3, 0.015 * 25.4e-3, 0.030 * 25.4e-3,
        0.032 * 25.4e-3, 0.035 * 25.4e-3, 0.063 * 25.4e-3 };
    return sizes;
}

Swap swapFor(std::span<const double> now, std::span<const double> then)
{
    Swap swap;
    std::vector<double> left(now.begin(), now.end());
    for (const double shim : then) {
        const auto kept = std::ranges::find_if(left, [shim](double s) { return std::abs(s - shim) < 1e-6; });
        if (kept != left.end())
            left.erase(kept);
        else
            swap.in.push_back(shim);
    }
    swap.out = std::move(left);
    return swap;
}

} // namespace deepstop::centring
