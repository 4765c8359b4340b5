#include "quantity/unit.hpp"

#include "language/language.hpp"

#include "quantity/text.hpp"

#include <algorithm>
#include <array>
#include <numbers>
#include <string>

namespace deepstop {
namespace {

// Exact by definition: inch 25.4 mm, pound 0.45359237 kg (international yard and pound agreement, 1959), g 9.80665 m/s².
constexpr double inch = 0.0254;
constexpr double pound = 0.45359237;
constexpr double poundForce = pound * standardGravity;
constexpr double psi = poundForce / (inch * inch);
constexpr double mile = 5280 * 12 * inch;
constexpr double zeroCelsius = 273.15;

constexpr std::array table {
    Unit { "", Dimension::Number, 1, 0, "", "1" },
    Unit { "%", Dimension::Share, 0.01, 0, "percent|per cent", "percent" },
    Unit { "mm", Dimension::Length, 1e-3, 0, "millimetre|millimetres|millimeter|millimeters", "mm" },
    Unit { "cm", Dimension::Length, 1e-2, 0, "centimetre|centimetres", "cm" },
    Unit { "m", Dimension::Length, 1, 0, "metre|metres|meter|meters", "m" },
    Unit { "km", Dimension::Length, 1000, 0, "kilometre|kilometres|kilometer|kilometers", "km" },
    Unit { "mi", Dimension::Length, mile, 0, "mile|miles", "mile" },
    Unit { "in", Dimension::Length, inch, 0, "\"|inch|inches", "inch" },
    Unit { "thou", Dimension::Length, inch / 1000, 0, "mil|mils", "mil" },
    Unit { "ft", Dimension::Length, 12 * inch, 0, "'|foot|feet", "ft" },
    Unit { "mm²", Dimension::Area, 1e-6, 0, "mm2|sq mm", "mm^2" },
    Unit { "cm²", Dimension::Area, 1e-4, 0, "cm2|sq cm", "cm^2" },
    Unit { "m²", Dimension::Area, 1, 0, "m2|sq m", "m^2" },
    Unit { "ft²", Dimension::Area, 144 * inch* inch, 0, "ft2|sq ft", "ft^2" },
    Unit { "in²", Dimension::Area, inch* inch, 0, "in2|sq in", "in^2" },
    Unit { "mL", Dimension::Volume, 1e-6, 0, "cc", "mL" },
    Unit { "cm³", Dimension::Volume, 1e-6, 0, "cm3", "cm^3" },
    Unit { "in³", Dimension::Volume, inch* inch* inch, 0, "in3|cu in", "in^3" },
    Unit { "L", Dimension::Volume, 1e-3, 0, "litre|litres|liter|liters", "L" },
    Unit { "g", Dimension::Mass, 1e-3, 0, "gram|grams", "g" },
    Unit { "kg", Dimension::Mass, 1, 0, "kilo|kilos|kilogram|kilograms", "kg" },
    Unit { "lb", Dimension::Mass, pound, 0, "lbs|pound|pounds|lbm", "lb" },
    Unit { "oz", Dimension::Mass, pound / 16, 0, "ounce|ounces", "oz" },
    Unit { "N", Dimension::Force, 1, 0, "newton|newtons", "N" },
    Unit { "kN", Dimension::Force, 1000, 0, "", "kN" },
    Unit { "lbf", Dimension::Force, poundForce, 0, "lb|lbs", "lbf" },
    Unit { "N·m", Dimension::Torque, 1, 0, "N m|Nm|N.m|N*m", "N m" },
    Unit { "lb ft", Dimension::Torque, poundForce * 12 * inch, 0,
        "lb·ft|lbft|lb.ft|lb-ft|ft lb|ft·lb|ftlb|ft-lb|lbf ft|lbf·ft|ft lbf|foot pounds", "lbf ft" },
    Unit { "lb in", Dimension::Torque, poundForce* inch, 0,
        "lb·in|lbin|lb.in|lb-in|in lb|in·lb|inlb|in-lb|lbf in|lbf·in|in lbf|inch pounds", "lbf inch" },
    Unit { "Pa", Dimension::Pressure, 1, 0, "", "Pa" },
    Unit { "kPa", Dimension::Pressure, 1e3, 0, "", "kPa" },
    Unit { "bar", Dimension::Pressure, 1e5, 0, "bars", "bar" },
    Unit { "MPa", Dimension::Pressure, 1e6, 0, "", "MPa" },
    Unit { "psi", Dimension::Pressure, psi, 0, "", "psi" },
    Unit { "bar/kN", Dimension::PressurePerForce, 100, 0, "kn", "bar/kN" },
    Unit { "psi/lbf", Dimension::PressurePerForce, psi / poundForce, 0, "psi/lb", "psi/lbf" },
    Unit { "°C", Dimension::Temperature, 1, zeroCelsius, "C|degC|deg C|° C", "tempC" },
    Unit { "°F", Dimension::Temperature, 5.0 / 9, zeroCelsius - 32 * 5.0 / 9, "F|degF|deg F|° F", "tempF" },
    Unit { "K", Dimension::Temperature, 1, 0, "kelvin", "K" },
    Unit { "K", Dimension::TemperatureRise, 1, 0, "kelvin|°C|C|degC", "K" },
    Unit { "°F", Dimension::TemperatureRise, 5.0 / 9, 0, "F|degF", "degF" },
    Unit { "km/h", Dimension::Speed, 1 / 3.6, 0, "kph|kmh|km/hr|kmph", "km/hour" },
    Unit { "mph", Dimension::Speed, mile / 3600, 0, "mi/h", "mile/hour" },
    Unit { "m/s", Dimension::Speed, 1, 0, "mps", "m/s" },
    Unit { "kn", Dimension::Speed, 1852.0 / 3600, 0, "knot|knots", "knot" },
    Unit { "ft/s", Dimension::Speed, 12 * inch, 0, "fps", "ft/s" },
    Unit { "g", Dimension::Acceleration, standardGravity, 0, "gee", "gravity" },
    Unit { "m/s²", Dimension::Acceleration, 1, 0, "m/s2|m/s^2|mps2", "m/s^2" },
    Unit { "s", Dimension::Time, 1, 0, "sec|second|seconds", "s" },
    Unit { "ms", Dimension::Time, 1e-3, 0, "millisecond|milliseconds", "ms" },
    Unit { "months", Dimension::Time, 2'629'746, 0, "month", "gregorianyear/12" },
    Unit { "h", Dimension::Time, 3600, 0, "hr|hour|hours", "hour" },
    Unit { "min", Dimension::Time, 60, 0, "minute|minutes", "min" },
    Unit { "J", Dimension::Energy, 1, 0, "", "J" },
    Unit { "kJ", Dimension::Energy, 1e3, 0, "", "kJ" },
    Unit { "MJ", Dimension::Energy, 1e6, 0, "", "MJ" },
    Unit { "BTU", Dimension::Energy, 1055.05585262, 0, "Btu", "btu" },
    Unit { "W/m²", Dimension::HeatFlux, 1, 0, "W/m2|W/m^2", "W/m^2" },
    Unit { "kW/m²", Dimension::HeatFlux, 1e3, 0, "kW/m2|kW/m^2", "kW/m^2" },
    Unit { "MW/m²", Dimension::HeatFlux, 1e6, 0, "MW/m2|MW/m^2", "MW/m^2" },
    Unit { "BTU/h ft²", Dimension::HeatFlux, 1055.05585262 / 3600 / (144 * inch * inch), 0, "BTU/h ft2|BTU/(h ft²)|BTU/(h ft2)|BTU/hr/ft2",
        "btu/(hour ft^2)" },
    Unit { "W/mK", Dimension::Conductivity, 1, 0, "W/(m K)|W/(m·K)|W/m·K|W/m/K", "W/(m K)" },
    Unit { "BTU/h ft °F", Dimension::Conductivity, 1055.05585262 * 1.8 / 3600 / (12 * inch), 0,
        "BTU/(h ft °F)|BTU/(h ft F)|BTU/h ft F|BTU/hr/ft/F", "btu/(hour ft degF)" },
    Unit { "W/m²K", Dimension::HeatTransfer, 1, 0, "W/(m² K)|W/(m²·K)|W/m2K|W/(m2 K)|W/m^2K|W/m²/K|W/m2/K", "W/(m^2 K)" },
    Unit { "BTU/h ft² °F", Dimension::HeatTransfer, 1055.05585262 * 1.8 / 3600 / (144 * inch * inch), 0,
        "BTU/(h ft² °F)|BTU/(h ft2 F)|BTU/h ft2 F|BTU/hr/ft2/F", "btu/(hour ft^2 degF)" },
    Unit { "kg/m³", Dimension::Density, 1, 0, "kg/m3|kg/m^3", "kg/m^3" },
    Unit { "g/cm³", Dimension::Density, 1000, 0, "g/cm3|g/cm^3|g/cc", "g/cm^3" },
    Unit { "lb/ft³", Dimension::Density, pound / (1728 * inch * inch * inch), 0, "lb/ft3|lb/ft^3|lb/cu ft", "lb/ft^3" },
    Unit { "lb/in³", Dimension::Density, pound / (inch * inch * inch), 0, "lb/in3|lb/in^3|lb/cu in", "lb/in^3" },
    Unit { "BTU/lb °F", Dimension::SpecificHeat, 4186.8, 0, "BTU/(lb °F)|BTU/(lb F)|BTU/lb F|BTU/lb/F|BTU/lbF", "btu/(lb degF)" },
    Unit { "kJ/K", Dimension::HeatCapacity, 1e3, 0, "", "kJ/K" },
    Unit { "J/K", Dimension::HeatCapacity, 1, 0, "", "J/K" },
    Unit { "BTU/°F", Dimension::HeatCapacity, 1055.05585262 * 1.8, 0, "Btu/°F|BTU/F", "btu/degF" },
    Unit { "J/kgK", Dimension::SpecificHeat, 1, 0, "J/(kg K)|J/(kg·K)|J/kg/K|J/kg·K", "J/(kg K)" },
    Unit { "kJ/kgK", Dimension::SpecificHeat, 1e3, 0, "kJ/(kg K)", "kJ/(kg K)" },
    Unit { "°", Dimension::Angle, std::numbers::pi / 180, 0, "deg|degree|degrees", "degree" },
    Unit { "rad", Dimension::Angle, 1, 0, "radian|radians", "radian" },
    Unit { "kg·m²", Dimension::Inertia, 1, 0, "kg m2|kg m²|kgm²|kgm2", "kg m^2" },
    Unit { "lb·ft²", Dimension::Inertia, pound * 144 * inch* inch, 0, "lb ft2|lb ft²", "lb ft^2" },
};

bool sameLetters(std::string_view a, std::string_view b, bool foldCase)
{
    return std::ranges::equal(a, b, [foldCase](char x, char y) { return foldCase ? toLower(x) == toLower(y) : x == y; });
}

bool spelt(const Unit& unit, std::string_view text, bool foldCase)
{
    if (sameLetters(unit.symbol, text, foldCase))
        return true;
    auto rest = unit.spellings;
    while (!rest.empty()) {
        const auto bar = rest.find('|');
        if (sameLetters(rest.substr(0, bar), text, foldCase))
            return true;
        rest = bar == std::string_view::npos ? std::string_view {} : rest.substr(bar + 1);
    }
    return false;
}

} // namespace

std::span<const Unit> allUnits() { return table; }

const Unit* findUnit(std::string_view spelling, std::optional<Dimension> dimension)
{
    // As written first; another case only if nothing is written so ("PSI", "KM/H"), which keeps mm and MPa apart from mN and mPa.
    for (const bool foldCase : { false, true })
        for (const Unit& unit : table)
            if ((!dimension || unit.dimension == *dimension) && spelt(unit, spelling, foldCase))
                return &unit;
    return nullptr;
}

std::string_view nameOf(Dimension dimension)
{
    switch (dimension) {
    case Dimension::Number:
        return marked("a plain number");
    case Dimension::Share:
        return marked("a share in %");
    case Dimension::Length:
        return marked("a length");
    case Dimension::Area:
        return marked("an area");
    case Dimension::Volume:
        return marked("a volume");
    case Dimension::Mass:
        return marked("a mass");
    case Dimension::Force:
        return marked("a force");
    case Dimension::Torque:
        return marked("a torque");
    case Dimension::Pressure:
        return marked("a pressure");
    case Dimension::PressurePerForce:
        return marked("a pressure over a force");
    case Dimension::Temperature:
        return marked("a temperature");
    case Dimension::TemperatureRise:
        return marked("a temperature difference");
    case Dimension::Speed:
        return marked("a speed");
    case Dimension::Acceleration:
        return marked("an acceleration");
    case Dimension::Time:
        return marked("a time");
    case Dimension::Energy:
        return marked("an energy");
    case Dimension::HeatFlux:
        return marked("a heat flux");
    case Dimension::Conductivity:
        return marked("a thermal conductivity");
    case Dimension::HeatTransfer:
        return marked("a heat transfer coefficient");
    case Dimension::Density:
        return marked("a density");
    case Dimension::HeatCapacity:
        return marked("a heat capacity");
    case Dimension::SpecificHeat:
        return marked("a specific heat");
    case Dimension::Angle:
        return marked("an angle");
    case Dimension::Inertia:
        return marked("a moment of inertia");
    }
    return marked("a quantity");
}

} // namespace deepstop
