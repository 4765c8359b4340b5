#include "fit/measuring.hpp"

#include "language/language.hpp"
#include "quantity/order.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::fit {

using geometry::Point;

std::vector<PlannedStation> measuringPlan(const std::vector<Outline>& caliper, double face,
    const std::vector<std::pair<double, double>>& bareBarrel, const std::vector<std::pair<double, double>>& bareSpokes, double spacing,
    double reach)
{
    std::vector<PlannedStation> plan;
    if (caliper.empty() || caliper.front().chain.empty() || !std::isfinite(face) || !(spacing > 0))
        return plan;
    const auto& body = caliper.front().chain;
    double inboard = body.front().z;
    double outboard = inboard;
    double low = body.front().r;
    Point top = body.front();
    for (const Outline& part : caliper)
        for (const Point p : part.chain) {
            inboard = std::min(inboard, p.z);
            outboard = std::max(outboard, p.z);
            low = std::min(low, p.r);
            if (p.r > top.r)
                top = p;
        }
    using enum PlannedStation::On;
    std::vector<PlannedStation> wished;
    const auto wish = [&](PlannedStation::On on, double place, const char* why) {
        // Two reasons for nearly one place make one station.
        if (std::ranges::none_of(wished, [&](const PlannedStation& p) { return p.on == on && std::abs(p.place - place) < 1.5 * reach; }))
            wished.push_back({ on, place, why, false });
    };
    // Past the ends, so that they are enclosed even where a station is read a little off.
    constexpr double past = 1e-3;
    wish(Barrel, face - inboard + past, tr("inboard end of the caliper"));
    wish(Barrel, face - outboard - past, tr("outboard end of the caliper"));
    double backIn = outboard;
    double backOut = inboard;
    for (const Point p : body)
        if (p.r >= top.r - 1e-6) {
            backIn = std::min(backIn, p.z);
            backOut = std::max(backOut, p.z);
        }
    wish(Barrel, face - top.z, tr("highest place of the caliper"));
    if (backIn < backOut) {
        wish(Barrel, face - backIn, tr("inboard corner of its back"));
        wish(Barrel, face - backOut, tr("outboard corner of its back"));
    }
    for (std::size_t i = 1; i < caliper.size(); ++i)
        wish(Barrel, face - (caliper[i].chain[0].z + caliper[i].chain[2].z) / 2, tr("what stands proud of the caliper"));
    wish(Spokes, low - past, tr("foot of the caliper"));
    wish(Spokes, top.r + past, tr("top of the caliper"));
    for (const Point p : body)
        if (p.z >= outboard - 1e-6)
            wish(Spokes, p.r, tr("edge of the outboard face"));
    // Between stations that lie too far apart for anything to be known between them, one or more halfway.
    for (const PlannedStation::On on : { Barrel, Spokes }) {
        std::vector<double> places;
        for (const PlannedStation& p : wished)
            if (p.on == on)
                places.push_back(p.place);
        std::ranges::sort(places, ascending);
        for (std::size_t i = 0; i + 1 < places.size(); ++i) {
            const int parts = static_cast<int>(
                std::min(200.0, std::ceil((places[i + 1] - places[i]) / (spacing - 2 * std::min(reach, spacing / 4)) - 1e-9)));
            for (int k = 1; k < parts; ++k)
                wished.push_back({ on, places[i] + (places[i + 1] - places[i]) * k / parts, tr("between, so that no bulge hides"), false });
        }
    }
    std::ranges::stable_sort(wished, [](const PlannedStation& a, const PlannedStation& b) {
        if (a.on != b.on)
            return a.on == PlannedStation::On::Barrel;
        return a.on == PlannedStation::On::Barrel ? ascending(b.place, a.place) : ascending(a.place, b.place);
    });
    for (PlannedStation& station : wished) {
        constexpr double inward = 1e-6; // the ends are told by the stretch within them
        const double along = station.on == Barrel ? std::clamp(face - station.place, inboard + inward, outboard - inward)
                                                  : std::clamp(station.place, low + inward, top.r - inward);
        station.taken = std::ranges::none_of(station.on == Barrel ? bareBarrel : bareSpokes,
            [along](const auto& stretch) { return stretch.first < along && along < stretch.second; });
    }
    return wished;
}

} // namespace deepstop::fit
