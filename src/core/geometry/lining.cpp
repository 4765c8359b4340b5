#include "geometry/lining.hpp"

#include <cmath>
#include <limits>

namespace deepstop::geometry {
namespace {

constexpr double none = std::numeric_limits<double>::quiet_NaN();

/// ∫ √(r² − x²) dx from −w to w.
double underArc(double r, double w) { return w * std::sqrt(r * r - w * w) + r * r * std::asin(w / r); }

} // namespace

double liningBetweenParallels(double outerRadius, double height, double length)
{
    const double inner = outerRadius - height;
    const double half = length / 2;
    if (!(height > 0 && inner > 0 && half > 0 && half < inner))
        return none;
    return underArc(outerRadius, half) - underArc(inner, half);
}

double liningBetweenRadii(double outerRadius, double height, double length)
{
    const double inner = outerRadius - height;
    if (!(height > 0 && inner > 0 && length > 0 && length < 2 * outerRadius))
        return none;
    return std::asin(length / 2 / outerRadius) * (outerRadius * outerRadius - inner * inner);
}

} // namespace deepstop::geometry
