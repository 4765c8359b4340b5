#pragma once
/// Printing a quantity for people, in metric or US units.

#include "quantity/unit.hpp"

#include <string>

namespace deepstop {

enum class UnitSystem { Metric, Us };

/// How one field of the trade is written: its unit and its decimals in either system.
struct Style {
    Dimension dimension;
    std::string_view metricUnit;
    int metricDecimals;
    std::string_view usUnit;
    int usDecimals;

    [[nodiscard]] const Unit& unit(UnitSystem system) const;
    [[nodiscard]] int decimals(UnitSystem system) const { return system == UnitSystem::Metric ? metricDecimals : usDecimals; }
};

/// The styles in use. Named after what is written, so that a field says `style::gap` and never a number of decimals.
namespace style {
inline constexpr Style number { Dimension::Number, "", 2, "", 2 };
inline constexpr Style count { Dimension::Number, "", 0, "", 0 };
inline constexpr Style inches { Dimension::Length, "in", 1, "in", 1 }; ///< what is sold in inches stays in inches
inline constexpr Style share { Dimension::Share, "%", 0, "%", 0 };
inline constexpr Style grade { Dimension::Share, "%", 1, "%", 1 }; ///< slope of a road
inline constexpr Style size { Dimension::Length, "mm", 1, "in", 3 }; ///< a part's dimension
inline constexpr Style gap { Dimension::Length, "mm", 1, "in", 3 };
inline constexpr Style fine { Dimension::Length, "mm", 2, "in", 4 }; ///< shims, centring
inline constexpr Style thousandth { Dimension::Length, "mm", 3, "in", 4 }; ///< thickness variation
inline constexpr Style angle { Dimension::Angle, "°", 1, "°", 1 };
inline constexpr Style money { Dimension::Number, "", 0, "", 0 };
inline constexpr Style price { Dimension::Number, "", 2, "", 2 }; ///< of one piece
inline constexpr Style volume { Dimension::Volume, "cm³", 0, "in³", 1 };
inline constexpr Style fluid { Dimension::Volume, "cm³", 2, "in³", 3 }; ///< what a caliper or a hose takes
inline constexpr Style inertia { Dimension::Inertia, "kg·m²", 3, "lb·ft²", 2 };
inline constexpr Style thou { Dimension::Length, "thou", 0, "thou", 0 };
inline constexpr Style frame { Dimension::Length, "mm", 0, "in", 1 }; ///< wheelbase and the like
inline constexpr Style road { Dimension::Length, "m", 1, "ft", 0 };
inline constexpr Style odometer { Dimension::Length, "km", 0, "mi", 0 };
inline constexpr Style dragArea { Dimension::Area, "m²", 2, "ft²", 1 };
inline constexpr Style area { Dimension::Area, "cm²", 1, "in²", 2 };
inline constexpr Style carMass { Dimension::Mass, "kg", 0, "lb", 0 };
inline constexpr Style partMass { Dimension::Mass, "kg", 2, "lb", 2 };
inline constexpr Style force { Dimension::Force, "N", 0, "lbf", 0 };
inline constexpr Style torque { Dimension::Torque, "N·m", 0, "lb ft", 0 };
inline constexpr Style pressure { Dimension::Pressure, "bar", 0, "psi", 0 };
inline constexpr Style stress { Dimension::Pressure, "MPa", 0, "psi", 0 };
inline constexpr Style kneePerLoad { Dimension::PressurePerForce, "bar/kN", 1, "psi/lbf", 2 };
inline constexpr Style temperature { Dimension::Temperature, "°C", 0, "°F", 0 };
inline constexpr Style rise { Dimension::TemperatureRise, "K", 0, "°F", 0 };
inline constexpr Style speed { Dimension::Speed, "km/h", 0, "mph", 0 };
inline constexpr Style deceleration { Dimension::Acceleration, "g", 2, "g", 2 };
inline constexpr Style seconds { Dimension::Time, "s", 2, "s", 2 };
inline constexpr Style minutes { Dimension::Time, "min", 0, "min", 0 };
inline constexpr Style hours { Dimension::Time, "h", 1, "h", 1 };
inline constexpr Style months { Dimension::Time, "months", 0, "months", 0 };
inline constexpr Style energy { Dimension::Energy, "kJ", 0, "BTU", 0 };
inline constexpr Style heatStore { Dimension::HeatCapacity, "kJ/K", 2, "BTU/°F", 2 };
inline constexpr Style specificHeat { Dimension::SpecificHeat, "J/kgK", 0, "J/kgK", 0 };
} // namespace style

/// `si` as a bare figure in the style's unit, with a true minus sign: "−0.25". "–" for a value that is not finite.
[[nodiscard]] std::string figure(double si, const Style& style, UnitSystem system = UnitSystem::Metric);

/// `si` with its unit: "3.4 mm". A plain number has none.
[[nodiscard]] std::string print(double si, const Style& style, UnitSystem system = UnitSystem::Metric);

/// How a difference or a width of what `style` shows is shown: of two temperatures in kelvin, or as many degrees Fahrenheit.
[[nodiscard]] Style ofDifference(const Style& style);

/// A difference, always with a sign: "+1.50 kg", "−3.1 m", "±0"; of two temperatures "−84 K".
[[nodiscard]] std::string printChange(double si, const Style& style, UnitSystem system = UnitSystem::Metric);

/// A bound as it is named to a person: "0.1 mm", "2000 mm"; four significant figures, no more than needed.
[[nodiscard]] std::string bound(double si, const Style& style, UnitSystem system);

/// The shortest text that reads back as `si` in that unit, for editing: no more than `decimals` needed, at most six.
[[nodiscard]] std::string editable(double si, const Unit& unit);

} // namespace deepstop
