#include "heat/wear.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::heat {

double wearRate(double surface)
{
    constexpr double cold = 3.2e-14;
    constexpr double from = 373.15;
    constexpr double doubles = 100;
    constexpr double most = 1173.15;
    return cold * std::exp2(std::max(0.0, std::min(surface, most) - from) / doubles);
}

double wornVolume(const Run& run, bool front)
{
    if (!run.complete)
        return std::numeric_limits<double>::quiet_NaN();
    double heat = 0;
    double worn = 0;
    for (std::size_t i = 1; i < run.course.size(); ++i) {
        const Moment& a = run.course[i - 1];
        const Moment& b = run.course[i];
        for (const Moment* m : { &a, &b }) {
            const double part = m->power * (front ? m->frontShare : 1 - m->frontShare) * (b.time - a.time);
            heat += part;
            worn += part * wearRate((front ? m->front : m->rear)[static_cast<std::size_t>(Node::Surface)]);
        }
    }
    // The moments tell how hot it was while the heat was made; how much there was is known better.
    return heat > 0 ? (front ? run.front : run.rear).in * worn / heat : 0;
}

} // namespace deepstop::heat
