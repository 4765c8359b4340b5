#include "fit/stance.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::fit {

double overallWidth(double nominalWidth) { return nominalWidth * 25.4e-3 + 25e-3; }

double backspacing(double width, double offset) { return width / 2 + offset; }

Stance stance(double width, double offset, double face) { return { face - offset + width / 2, face - offset - width / 2 }; }

const std::vector<double>& spacerSizes()
{
    static const std::vector<double> sizes { 3e-3, 5e-3, 8e-3, 10e-3, 12e-3, 15e-3, 20e-3, 25e-3 };
    return sizes;
}

std::optional<double> boughtSpacer(double needed)
{
    const auto size = std::ranges::find_if(spacerSizes(), [needed](double s) { return s >= needed - 1e-9; });
    return size == spacerSizes().end() ? std::nullopt : std::optional(*size);
}

double turnedSpacer(double needed, double step) { return std::ceil(needed / step - 1e-6) * step; }

} // namespace deepstop::fit
