#include "quantity/number.hpp"

#include <array>
#include <charconv>
#include <cmath>

namespace deepstop {

std::optional<double> readNumber(std::string_view text)
{
    double value = 0;
    const auto [stop, failure] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (failure != std::errc {} || stop != text.data() + text.size() || !std::isfinite(value))
        return {};
    return value;
}

double rounded(double value, int digits)
{
    std::array<char, 64> text {};
    const auto [end, failure] = std::to_chars(text.data(), text.data() + text.size(), value, std::chars_format::scientific, digits - 1);
    if (!std::isfinite(value) || failure != std::errc {})
        return value;
    // The largest doubles may round to beyond what a double holds.
    return readNumber({ text.data(), static_cast<std::size_t>(end - text.data()) }).value_or(value);
}

} // namespace deepstop
