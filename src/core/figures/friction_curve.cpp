#include "figures/heat_figures.hpp"

#include "language/language.hpp"
#include "quantity/order.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::figures {
namespace {

constexpr double holdsTo = 350 + 273.15;
constexpr double losesAfter = 50; // K for a tenth of friction

} // namespace

double FrictionCurve::at(double temperature) const
{
    if (points.empty())
        return 1;
    const auto after = std::ranges::lower_bound(points, temperature, {}, [](const auto& p) { return p.first; });
    if (after == points.begin())
        return points.front().second;
    if (after == points.end())
        return points.back().second;
    const auto& a = *std::prev(after);
    return std::lerp(a.second, after->second, (temperature - a.first) / (after->first - a.first));
}

FrictionCurve frictionCurve(Evaluator& s, const Corner& c)
{
    FrictionCurve curve;
    const bool drum = c.brakes == BrakeKind::Drums;
    const auto& measured = drum ? c.drum.frictionOverTemperature : c.pad.frictionOverTemperature;
    const double quoted = s(drum ? c.drum.friction : c.pad.friction, false);
    for (const FrictionPoint& p : measured)
        curve.points.emplace_back(s(p.temperature, false), s(p.friction, false) / quoted);
    std::ranges::sort(curve.points, ascending);
    if (curve.points.size() < 2) {
        s.assume(c.brakes == BrakeKind::Drums ? tr("how the linings fade") : tr("how the pads fade"));
        curve.points = { { 293.15, 1 }, { holdsTo, 1 } };
    }
    // Beyond what anybody has measured a pad is not taken to hold.
    const auto [last, level] = curve.points.back();
    constexpr double leastLeft = 0.15;
    if (level > leastLeft)
        curve.points.emplace_back(last + (level - leastLeft) / 0.1 * losesAfter, leastLeft);
    return curve;
}

double fadesAt(const FrictionCurve& curve, double part)
{
    if (!curve.points.empty() && curve.points.front().second < part)
        return curve.points.front().first;
    for (std::size_t i = 1; i < curve.points.size(); ++i) {
        const auto& [t0, f0] = curve.points[i - 1];
        const auto& [t1, f1] = curve.points[i];
        if (f1 < part && f0 >= part)
            return t0 + (f0 - part) / (f0 - f1) * (t1 - t0);
    }
    return std::numeric_limits<double>::infinity();
}

} // namespace deepstop::figures
