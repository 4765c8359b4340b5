#include "quantity/reading.hpp"

#include "language/language.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace deepstop {

std::string_view nameOf(Known known)
{
    switch (known) {
    case Known::Measured:
        return marked("measured");
    case Known::Vendor:
        return marked("vendor sheet");
    case Known::Estimated:
        return marked("estimated");
    case Known::Design:
        return marked("design");
    }
    return "";
}

double lengthResolution(std::string_view instrument)
{
    static constexpr std::array<std::pair<std::string_view, double>, 8> resolutions { {
        { "tape", 1e-3 },
        { "rule", 0.5e-3 },
        { "straightedge", 0.5e-3 },
        { "vernier", 0.03e-3 },
        { "caliper", 0.03e-3 }, // digital or dial: people call them both
        { "micrometer", 0.005e-3 },
        { "dial gauge", 0.01e-3 },
        { "feeler gauge", 0.02e-3 },
    } };
    for (const auto& [name, resolution] : resolutions)
        if (instrument.find(name) != std::string_view::npos)
            return resolution;
    return 0.5e-3;
}

Reading repeated(Reading reading, std::vector<double> values)
{
    double sum = 0;
    for (const double value : values)
        sum += value;
    reading.value = sum / static_cast<double>(values.size());
    if (values.size() < 2)
        values.clear();
    reading.repeats = std::move(values);
    return reading;
}

void changeTo(Reading& reading, double value)
{
    reading.value = value;
    reading.repeats.clear();
}

double spread(const Reading& reading)
{
    double widest = 0;
    for (const double value : reading.repeats)
        widest = std::max(widest, std::abs(value - reading.value.value_or(value)));
    return widest;
}

std::optional<double> massResolution(std::string_view instrument)
{
    static constexpr std::array<std::pair<std::string_view, double>, 4> resolutions { {
        { "kitchen scale", 0.005 },
        { "bench scale", 0.005 },
        { "hanging scale", 0.05 },
        { "bathroom scale", 0.2 },
    } };
    for (const auto& [name, resolution] : resolutions)
        if (instrument.find(name) != std::string_view::npos)
            return resolution;
    return {};
}

double uncertainty(const Reading& reading, bool isLength)
{
    if (!reading.value)
        return 0;
    if (reading.plusMinus)
        return std::max(std::abs(*reading.plusMinus), spread(reading));
    const double size = std::abs(*reading.value);
    switch (reading.known) {
    case Known::Measured:
        return std::max(
            isLength ? lengthResolution(reading.instrument) : massResolution(reading.instrument).value_or(0.01 * size), spread(reading));
    case Known::Vendor:
    case Known::Design:
        return isLength ? 0.25e-3 : 0.03 * size;
    case Known::Estimated:
        return isLength ? std::max(1e-3, 0.02 * size) : 0.10 * size;
    }
    return 0;
}

} // namespace deepstop
