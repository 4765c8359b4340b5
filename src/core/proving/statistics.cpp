#include "proving/statistics.hpp"

#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/students_t.hpp>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace deepstop::proving {
namespace {

constexpr double none = std::numeric_limits<double>::quiet_NaN();
constexpr double twoSided = 0.975;
constexpr std::size_t firstStops = 3; ///< of a series, which the others are held against

/// Welch and Satterthwaite's degrees of freedom, from the squared errors of two means of so many runs. It is never less than the smaller
/// sample has, and that where the errors are too small or too large to be squared.
double freedomOf(double one, int runs, double other, int otherRuns)
{
    const double freedom = (one + other) * (one + other) / (one * one / (runs - 1) + other * other / (otherRuns - 1));
    const double least = std::min(runs, otherRuns) - 1;
    return std::isfinite(freedom) ? std::max(freedom, least) : least;
}

double quantile(double freedom) { return boost::math::quantile(boost::math::students_t(freedom), twoSided); }

/// Of at least so large a |t| where there is nothing.
double chance(double freedom, double t)
{
    return 2 * boost::math::cdf(boost::math::complement(boost::math::students_t(freedom), std::abs(t)));
}

double squaredError(const Sample& s) { return s.deviation * s.deviation / s.count; }

/// Part of the tests with `n` runs each side that see it.
double powerOf(double difference, double one, double other, int n)
{
    const double a = one * one / n;
    const double b = other * other / n;
    const double freedom = freedomOf(a, n, b, n);
    const double shift = std::abs(difference) / std::sqrt(a + b);
    const double bound = quantile(freedom);
    // Beyond this Boost's series takes long and the answer is plain.
    constexpr double plain = 30;
    if (std::isnan(shift))
        return 0;
    if (shift > plain)
        return 1;
    const boost::math::non_central_t_distribution<double> seen(freedom, shift);
    return boost::math::cdf(boost::math::complement(seen, bound)) + boost::math::cdf(seen, -bound);
}

} // namespace

Sample sampleOf(std::span<const double> values)
{
    Sample s;
    s.count = static_cast<int>(values.size());
    s.mean = s.deviation = s.low = s.high = none;
    if (values.empty())
        return s;
    s.mean = std::accumulate(values.begin(), values.end(), 0.0) / s.count;
    if (s.count < 2)
        return s;
    double squares = 0;
    for (const double v : values)
        squares += (v - s.mean) * (v - s.mean);
    s.deviation = std::sqrt(squares / (s.count - 1));
    const double half = quantile(s.count - 1) * s.deviation / std::sqrt(s.count);
    s.low = s.mean - half;
    s.high = s.mean + half;
    return s;
}

std::optional<Difference> welch(std::span<const double> first, std::span<const double> second)
{
    const Sample a = sampleOf(first);
    const Sample b = sampleOf(second);
    if (a.count < 2 || b.count < 2)
        return {};
    const double ea = squaredError(a);
    const double eb = squaredError(b);
    if (!(ea + eb > 0))
        return {};
    Difference d {};
    d.difference = a.mean - b.mean;
    d.freedom = freedomOf(ea, a.count, eb, b.count);
    const double error = std::sqrt(ea + eb);
    const double half = quantile(d.freedom) * error;
    d.low = d.difference - half;
    d.high = d.difference + half;
    d.p = chance(d.freedom, d.difference / error);
    d.wanted = runsWanted(d.difference, a.deviation, b.deviation);
    return d;
}

int runsWanted(double difference, double one, double other, double power)
{
    if (!(std::abs(difference) > 0) || !(one >= 0) || !(other >= 0) || !(one + other > 0) || !(power > 0 && power < 1))
        return 0;
    // Power grows with every run: first in doublings, then between the last two.
    int high = 2;
    while (powerOf(difference, one, other, high) < power) {
        high *= 2;
        if (high > mostRuns)
            return 0;
    }
    int low = high / 2;
    if (high == 2)
        return 2;
    while (high - low > 1) {
        const int middle = (low + high) / 2;
        (powerOf(difference, one, other, middle) < power ? low : high) = middle;
    }
    return high;
}

std::optional<Trend> trendOf(std::span<const double> values)
{
    const auto n = static_cast<double>(values.size());
    if (values.size() < 4)
        return {};
    const double middle = (n - 1) / 2;
    const double mean = std::accumulate(values.begin(), values.end(), 0.0) / n;
    double across = 0;
    double product = 0;
    for (std::size_t i = 0; i < values.size(); ++i) {
        const double x = static_cast<double>(i) - middle;
        across += x * x;
        product += x * (values[i] - mean);
    }
    Trend t {};
    t.slope = product / across;
    double left = 0;
    for (std::size_t i = 0; i < values.size(); ++i) {
        const double off = values[i] - mean - t.slope * (static_cast<double>(i) - middle);
        left += off * off;
    }
    const double error = std::sqrt(left / (n - 2) / across);
    if (!(error > 0)) {
        t.low = t.high = t.slope;
        t.p = t.slope == 0 ? 1 : 0;
        return t;
    }
    const double half = quantile(n - 2) * error;
    t.low = t.slope - half;
    t.high = t.slope + half;
    t.p = chance(n - 2, t.slope / error);
    return t;
}

std::optional<double> fadeBound(std::span<const double> distances, double past)
{
    if (distances.size() < firstStops)
        return {};
    return past * sampleOf(distances.first(firstStops)).mean;
}

double yardstick(double speed)
{
    const double v = speed * 3.6;
    return 0.1 * v + 0.0060 * v * v;
}

std::optional<Faded> fadeIn(std::span<const double> distances, double past)
{
    if (distances.size() < firstStops + 2)
        return {};
    const double bound = *fadeBound(distances, past);
    std::optional<Faded> longest;
    for (std::size_t i = firstStops; i < distances.size(); ++i) {
        std::size_t end = i;
        while (end < distances.size() && distances[end] > bound)
            ++end;
        if (end - i >= 2 && (!longest || end - i > longest->to - longest->from + 1))
            longest = Faded { i, end - 1 };
        i = end;
    }
    return longest;
}

FadeLevel fadeLevel(std::span<const double> distances, double past)
{
    if (distances.size() < firstStops + 2)
        return { none, none, 0 };
    const double bound = *fadeBound(distances, past);
    const double first = bound / past;
    FadeLevel fade { 0, 0, 0 };
    double squares = 0;
    for (std::size_t i = 0; i < distances.size(); ++i) {
        if (i > 0)
            squares += std::pow(distances[i] - distances[i - 1], 2);
        if (i + 1 < distances.size() && i >= firstStops)
            fade.level = std::max(fade.level, (distances[i] + distances[i + 1]) / 2 / first);
        const bool before = i > firstStops && distances[i - 1] > bound;
        const bool after = i + 1 < distances.size() && distances[i + 1] > bound;
        fade.single += i >= firstStops && distances[i] > bound && !before && !after;
    }
    // What neighbours differ by is scatter, whatever the series does over all; a slow rise adds little to it.
    const auto count = static_cast<double>(distances.size() - 1);
    const double one = std::sqrt(squares / count / 2);
    const double student = boost::math::quantile(boost::math::students_t(count), 0.975);
    fade.scatter = student * one * std::sqrt(1.0 / 2 + 1.0 / firstStops) / first;
    return fade;
}

double speedCorrected(double distance, double speed, double nominal)
{
    return speed > 0 && nominal > 0 ? distance * nominal * nominal / (speed * speed) : none;
}

double meanFullyDeveloped(double beginSpeed, double endSpeed, double beginDistance, double endDistance)
{
    const double slowed = beginSpeed * beginSpeed - endSpeed * endSpeed;
    return endDistance > beginDistance && slowed > 0 && endSpeed >= 0 ? slowed / (2 * (endDistance - beginDistance)) : none;
}

} // namespace deepstop::proving
