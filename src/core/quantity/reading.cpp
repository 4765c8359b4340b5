#include "quantity/reading.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace deepstop {

std::string_view nameOf(Known known)
{
    switch (known) {
    case Known::Measured: return "measured";
    case Known::Vendor: return "vendor sheet";
    case Known::Estimated: return "estimated";
    }
    return "";
}

double lengthResolution(std::string_view instrument)
{
    static constexpr std::array<std::pair<std::string_view, double>, 7> resolutions { {
        { "tape", 1e-3 },
        { "rule", 0.5e-3 },
        { "straightedge", 0.5e-3 },
        { "vernier", 0.03e-3 },
        { "micrometer", 0.005e-3 },
        { "dial gauge", 0.01e-3 },
        { "feeler gauge", 0.02e-3 },
    } };
    for (const auto& [name, resolution] : resolutions)
        if (instrument.find(name) != std::string_view::npos)
            return resolution;
    return 0.5e-3;
}

double uncertainty(const Reading& reading, bool isLength)
{
    if (!reading.value)
        return 0;
    if (reading.plusMinus)
        return std::abs(*reading.plusMinus);
    const double size = std::abs(*reading.value);
    switch (reading.known) {
    case Known::Measured: return isLength ? lengthResolution(reading.instrument) : 0.01 * size;
    case Known::Vendor: return isLength ? 0.25e-3 : 0.03 * size;
    case Known::Estimated: return isLength ? std::max(1e-3, 0.02 * size) : 0.10 * size;
    }
    return 0;
}

} // namespace deepstop
