#pragma once
/// Sizes that can be bought: what advice is made of. Common practice, no source; a maker's list outranks them.

#include <array>
#include <string_view>

namespace deepstop::materials {

struct SoldBore {
    double bore; ///< m
    std::string_view name; ///< as it is sold
};

/// Of master cylinders: sixteenths of an inch, and the metric sizes between them.
inline constexpr std::array<SoldBore, 17> masterBores { {
    { 15.875e-3, "5/8 in" },
    { 17.4625e-3, "11/16 in" },
    { 17.78e-3, "0.70 in" },
    { 19.05e-3, "3/4 in" },
    { 20e-3, "20 mm" },
    { 20.6375e-3, "13/16 in" },
    { 22e-3, "22 mm" },
    { 22.225e-3, "7/8 in" },
    { 23e-3, "23 mm" },
    { 23.8125e-3, "15/16 in" },
    { 25e-3, "25 mm" },
    { 25.4e-3, "1 in" },
    { 26.9875e-3, "1-1/16 in" },
    { 27e-3, "27 mm" },
    { 28.575e-3, "1-1/8 in" },
    { 30.1625e-3, "1-3/16 in" },
    { 31.75e-3, "1-1/4 in" },
} };

/// Of the wheel cylinders of drum brakes.
inline constexpr std::array<SoldBore, 7> wheelCylinderBores { {
    { 15.875e-3, "5/8 in" },
    { 17.4625e-3, "11/16 in" },
    { 19.05e-3, "3/4 in" },
    { 20.6375e-3, "13/16 in" },
    { 22.225e-3, "7/8 in" },
    { 23.8125e-3, "15/16 in" },
    { 25.4e-3, "1 in" },
} };

/// Of calipers, m.
inline constexpr std::array<double, 15> pistonBores { 34e-3, 36e-3, 38e-3, 40e-3, 42e-3, 44e-3, 46e-3, 48e-3, 51e-3, 54e-3, 57e-3, 60e-3,
    64e-3, 68e-3, 74.7e-3 };

/// Coefficients of pads from mild to fierce.
inline constexpr std::array<double, 8> padFrictions { 0.25, 0.30, 0.35, 0.40, 0.45, 0.50, 0.55, 0.60 };

} // namespace deepstop::materials
