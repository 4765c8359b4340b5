#include "quantity/format.hpp"

#include "quantity/number.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop {
namespace {

std::string withTrueMinus(std::string text)
{
    if (text.starts_with('-')) {
        // "-0.0" is a rounding of nothing, not a negative.
        if (text.find_first_of("123456789") == std::string::npos)
            return text.substr(1);
        return "\u2212" + text.substr(1);
    }
    return text;
}

} // namespace

const Unit& Style::unit(UnitSystem system) const { return *findUnit(system == UnitSystem::Metric ? metricUnit : usUnit, dimension); }

std::string figure(double si, const Style& style, UnitSystem system)
{
    if (!std::isfinite(si))
        return "–";
    return withTrueMinus(fmt::format("{:.{}f}", fromSi(si, style.unit(system)), style.decimals(system)));
}

std::string print(double si, const Style& style, UnitSystem system)
{
    const auto symbol = style.unit(system).symbol;
    auto text = figure(si, style, system);
    return symbol.empty() || text == "–" ? text : fmt::format("{} {}", text, symbol);
}

Style ofDifference(const Style& style) { return style.dimension == Dimension::Temperature ? style::rise : style; }

std::string printChange(double si, const Style& style, UnitSystem system)
{
    const auto text = print(si, ofDifference(style), system);
    if (text == "–" || text.starts_with("\u2212"))
        return text;
    return (text.find_first_of("123456789") == std::string::npos ? "±" : "+") + text;
}

std::string bound(double si, const Style& style, UnitSystem system)
{
    const Unit& unit = style.unit(system);
    const auto text = withTrueMinus(editable(toSi(rounded(fromSi(si, unit), 4), unit), unit));
    return unit.symbol.empty() ? text : fmt::format("{} {}", text, unit.symbol);
}

std::string editable(double si, const Unit& unit)
{
    auto text = fmt::format("{:.6f}", fromSi(si, unit));
    while (text.back() == '0')
        text.pop_back();
    if (text.back() == '.')
        text.pop_back();
    return text == "-0" ? "0" : text;
}

} // namespace deepstop
