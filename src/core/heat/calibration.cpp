#include "heat/calibration.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

namespace deepstop::heat {
namespace {

/// The car with its cooling and split so changed.
Car changed(const Car& car, double cooling, double split)
{
    Car c = car;
    c.front.cooling *= cooling;
    c.rear.cooling *= cooling;
    if (split != 1)
        c.frontShare = [share = car.frontShare, split](
                           double force, double front, double rear) { return std::clamp(split * share(force, front, rear), 0.02, 0.98); };
    return c;
}

/// The temperatures, then the lengthenings; empty where it cannot be run.
std::vector<double> predictedBy(
    const Car& car, const Duty& duty, const std::vector<Taken>& taken, const std::vector<FadeSeries>& faded, const Accuracy& accuracy)
{
    const double ends = durationOf(duty);
    Accuracy needed = accuracy;
    if (std::ranges::none_of(taken, [&](const Taken& t) { return t.time > ends; }))
        needed.standing = 0;
    const Run r = run(car, duty, needed);
    std::vector<double> temperatures;
    if (!r.complete)
        return temperatures;
    for (const Taken& t : taken) {
        const auto& moments = t.time > ends && !r.standing.empty() ? r.standing : r.course;
        const auto after = std::ranges::upper_bound(moments, t.time, {}, &Moment::time);
        const Moment& b = after == moments.end() ? moments.back() : *after;
        const Moment& a = after == moments.begin() ? moments.front() : *std::prev(after);
        const double part = b.time > a.time ? std::clamp((t.time - a.time) / (b.time - a.time), 0.0, 1.0) : 0;
        const auto node = static_cast<std::size_t>(t.node);
        temperatures.push_back(std::lerp((t.front ? a.front : a.rear)[node], (t.front ? b.front : b.rear)[node], part));
    }
    for (const FadeSeries& series : faded)
        for (const double longer : lengtheningBy(r, series)) {
            if (!std::isfinite(longer))
                return {};
            temperatures.push_back(longer);
        }
    return temperatures;
}

/// Friction of a stop, the mean of its moments; NaN where the run has none.
std::pair<double, double> frictionIn(const Run& run, int stop)
{
    double front = 0;
    double rear = 0;
    int count = 0;
    for (const Moment& m : run.course)
        if (m.stop == stop && m.power > 0) {
            front += m.frontFriction;
            rear += m.rearFriction;
            ++count;
        }
    return { front / count, rear / count };
}

} // namespace

std::vector<double> lengtheningBy(const Run& run, const FadeSeries& series)
{
    double first = 0;
    for (int stop = 1; stop <= firstOnes; ++stop) {
        const auto [front, rear] = frictionIn(run, stop);
        first += series.distance(front, rear, series.firstFoot) / firstOnes;
    }
    std::vector<double> all;
    for (const FadeSeries::Stop& each : series.stops) {
        const auto [front, rear] = frictionIn(run, each.stop);
        all.push_back(series.distance(front, rear, each.foot) / first);
    }
    return all;
}

std::optional<Calibration> calibrate(
    const Car& car, const Duty& duty, const std::vector<Taken>& taken, const std::vector<FadeSeries>& faded, const Accuracy& accuracy)
{
    std::size_t stops = 0;
    for (const FadeSeries& series : faded)
        stops += series.stops.size();
    if (taken.size() + stops < 2
        || std::ranges::any_of(taken, [](const Taken& t) { return !(t.width > 0) || !std::isfinite(t.temperature); })
        || std::ranges::any_of(faded, [](const FadeSeries& series) {
               return std::ranges::any_of(
                   series.stops, [](const FadeSeries::Stop& f) { return !(f.width > 0) || !std::isfinite(f.lengthening); });
           }))
        return {};
    const auto fronts = std::ranges::count_if(taken, [](const Taken& t) { return t.front; });
    const auto rears = static_cast<std::ptrdiff_t>(taken.size()) - fronts;
    const bool withSplit = fronts >= 2 && rears >= 2;
    const std::size_t unknowns = withSplit ? 2 : 1;
    using Pair = std::array<double, 2>; // logarithms of cooling and split
    const auto at = [&](const Pair& y) {
        return predictedBy(changed(car, std::exp(y[0]), withSplit ? std::exp(y[1]) : 1), duty, taken, faded, accuracy);
    };
    // What is left, over the widths.
    enum class Each { Alone, AsOne };
    const auto weighed = [&](const std::vector<double>& predicted, Each stopsCount) {
        std::vector<double> left;
        for (std::size_t i = 0; i < taken.size(); ++i)
            left.push_back((taken[i].temperature - predicted[i]) / taken[i].width);
        for (const FadeSeries& series : faded) {
            const double shared = stopsCount == Each::AsOne ? std::sqrt(static_cast<double>(series.stops.size())) : 1;
            for (const FadeSeries::Stop& stop : series.stops)
                left.push_back((stop.lengthening - predicted[left.size()]) / (stop.width * shared));
        }
        return left;
    };
    const auto misfitOf = [&](const std::vector<double>& left) {
        return std::sqrt(std::inner_product(left.begin(), left.end(), left.begin(), 0.0) / static_cast<double>(left.size()));
    };
    Pair x { 0, 0 };
    std::vector<double> predicted = at(x);
    if (predicted.empty())
        return {};
    // Pads that hold tell nothing of how near they are to fading: where the model's do, the search begins where they do not.
    if (!faded.empty())
        for (const double cooling : { 0.3, 0.55, 1.7 }) {
            const auto there = at({ std::log(cooling), 0 });
            if (!there.empty() && misfitOf(weighed(there, Each::Alone)) < misfitOf(weighed(predicted, Each::Alone))) {
                x[0] = std::log(cooling);
                predicted = there;
            }
        }
    // The normal equations of one or two unknowns, J'J and J'r.
    double aa = 0;
    double ab = 0;
    double bb = 1;
    for (int round = 0; round < 12; ++round) {
        const auto left = weighed(predicted, Each::AsOne);
        constexpr double step = 0.01;
        std::array<std::vector<double>, 2> slopes;
        for (std::size_t j = 0; j < unknowns; ++j) {
            Pair moved = x;
            moved[j] += step;
            const auto there = at(moved);
            if (there.empty())
                return {};
            const auto leftThere = weighed(there, Each::AsOne);
            for (std::size_t i = 0; i < left.size(); ++i)
                slopes[j].push_back((left[i] - leftThere[i]) / step);
        }
        const auto dot = [](const std::vector<double>& u, const std::vector<double>& v) {
            return std::inner_product(u.begin(), u.end(), v.begin(), 0.0);
        };
        aa = dot(slopes[0], slopes[0]);
        // No stop faded and none should have: any cooling over some would do.
        constexpr double tells = 1e-4;
        if (!(aa > tells))
            return {};
        const double ra = dot(slopes[0], left);
        Pair by { ra / aa, 0 };
        if (withSplit) {
            ab = dot(slopes[0], slopes[1]);
            bb = dot(slopes[1], slopes[1]);
            const double rb = dot(slopes[1], left);
            const double whole = aa * bb - ab * ab;
            by = { (bb * ra - ab * rb) / whole, (aa * rb - ab * ra) / whole };
        }
        // No leap: half or double at once.
        const double most = std::max(std::abs(by[0]), std::abs(by[1]));
        const double part = most > 0.7 ? 0.7 / most : 1;
        x[0] = std::clamp(x[0] + part * by[0], std::log(0.1), std::log(10.0));
        x[1] = std::clamp(x[1] + part * by[1], std::log(0.5), std::log(2.0));
        predicted = at(x);
        if (predicted.empty())
            return {};
        if (most < 1e-4)
            break;
    }
    const auto left = weighed(predicted, Each::Alone);
    const double whole = aa * bb - ab * ab;
    Calibration c;
    c.misfit = misfitOf(left);
    // A width is taken as that within which a reading lies in 95 of 100 cases; what does not fit widens the result.
    const double loose = std::max(1.0, c.misfit);
    c.cooling = std::exp(x[0]);
    c.coolingWidth = c.cooling * loose * std::sqrt(bb / whole);
    c.split = withSplit ? std::exp(x[1]) : 1;
    c.splitWidth = withSplit ? c.split * loose * std::sqrt(aa / whole) : 0;
    for (std::size_t i = 0; i < taken.size(); ++i)
        c.left.push_back(taken[i].temperature - predicted[i]);
    c.lengthening.assign(predicted.begin() + static_cast<std::ptrdiff_t>(taken.size()), predicted.end());
    predicted.resize(taken.size());
    c.predicted = std::move(predicted);
    c.contradicts = c.misfit > 2 || c.cooling < 0.25 || c.cooling > 4 || !std::isfinite(c.coolingWidth);
    return c;
}

} // namespace deepstop::heat
