#pragma once
/// The units people on the bench write, each with its factor to SI.
/// Everything behind this folder is SI: m, kg, s, N, Pa, K, J; a ratio is a plain number.

#include <optional>
#include <span>
#include <string_view>

namespace deepstop {

/// What kind of quantity a number is. Two units convert into each other only within one dimension.
enum class Dimension {
    Number, ///< a ratio or a count, no unit
    Share, ///< a part of a whole; SI value 0.7 is written 70 %
    Length,
    Area,
    Volume,
    Mass,
    Force,
    Torque,
    Pressure,
    PressurePerForce, ///< of a valve that minds the load
    Temperature, ///< a reading of a thermometer; SI value in kelvin
    TemperatureRise, ///< a difference of two temperatures, in kelvin
    Speed,
    Acceleration,
    Time,
    Energy,
    HeatFlux, ///< W/m²
    Conductivity, ///< W/(m K)
    HeatTransfer, ///< W/(m² K)
    Density, ///< kg/m³
    HeatCapacity, ///< J/K
    SpecificHeat, ///< J/(kg K)
    Angle, ///< rad
    Inertia, ///< kg m²
};

/// One unit: `si = value * factor + offset`.
struct Unit {
    std::string_view symbol; ///< as printed, for example "N·m"
    Dimension dimension;
    double factor; ///< SI per unit; exact by definition wherever the definition is exact
    double offset; ///< only thermometers have one
    std::string_view spellings; ///< further accepted spellings, separated by '|'
    std::string_view gnu; ///< the same unit as GNU units spells it, for the outside check
};

/// All units, in the order in which help lists them.
[[nodiscard]] std::span<const Unit> allUnits();

/// The unit printed as `symbol` (or spelt so), or nothing. Prefers `dimension` where a spelling is shared ("g", "m").
[[nodiscard]] const Unit* findUnit(std::string_view spelling, std::optional<Dimension> dimension = {});

/// A word for the dimension as a person would say it: "a length", "a torque".
[[nodiscard]] std::string_view nameOf(Dimension dimension);

[[nodiscard]] constexpr double toSi(double value, const Unit& unit) { return value * unit.factor + unit.offset; }
[[nodiscard]] constexpr double fromSi(double si, const Unit& unit) { return (si - unit.offset) / unit.factor; }

/// Standard gravity, m/s² (exact by definition, CGPM 1901).
inline constexpr double standardGravity = 9.80665;

} // namespace deepstop
