#include "runout/runout.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::runout {
namespace {

constexpr double fullTurn = 2 * std::numbers::pi;

struct Harmonic {
    double mean;
    double cosine;
    double sine;
    double at(double angle) const { return mean + cosine * std::cos(angle) + sine * std::sin(angle); }
};

/// Fourier coefficients of order 0 and 1; exact for evenly spread readings.
Harmonic firstHarmonic(std::span<const double> readings)
{
    Harmonic h { 0, 0, 0 };
    const auto n = static_cast<double>(readings.size());
    for (std::size_t i = 0; i < readings.size(); ++i) {
        const double angle = fullTurn * static_cast<double>(i) / n;
        h.mean += readings[i] / n;
        h.cosine += 2 / n * readings[i] * std::cos(angle);
        h.sine += 2 / n * readings[i] * std::sin(angle);
    }
    return h;
}

} // namespace

std::optional<Turn> analyse(std::span<const double> readings)
{
    if (readings.size() < 12 || !std::ranges::all_of(readings, [](double r) { return std::isfinite(r); }))
        return {};
    const Harmonic h = firstHarmonic(readings);
    double low = INFINITY;
    double high = -INFINITY;
    for (std::size_t i = 0; i < readings.size(); ++i) {
        const double rest = readings[i] - h.at(fullTurn * static_cast<double>(i) / static_cast<double>(readings.size()));
        low = std::min(low, rest);
        high = std::max(high, rest);
    }
    const auto [least, most] = std::ranges::minmax(readings);
    double spot = std::atan2(h.sine, h.cosine);
    if (spot < 0)
        spot += fullTurn;
    return Turn { most - least, 2 * std::hypot(h.cosine, h.sine), spot, high - low };
}

double wobbleAt(std::span<const double> readings, double turn)
{
    return readings.empty() ? 0 : firstHarmonic(readings).at(fullTurn * turn);
}

} // namespace deepstop::runout
