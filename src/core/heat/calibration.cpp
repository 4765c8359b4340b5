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
        const double then = std::lerp((t.front ? a.front : a.rear)[node], (t.front ? b.front : b.rear)[node], part);
        temperatures.push_back(t.highest ? std::max(then, highestUpTo(r, t)) : then);
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

double highestUpTo(const Run& run, const Taken& taken)
{
    double highest = 0;
    for (const auto* moments : { &run.course, &run.standing })
        for (const Moment& m : *moments)
            if (m.time <= taken.time)
                highest = std::max(highest, (taken.front ? m.front : m.rear)[static_cast<std::size_t>(taken.node)]);
    return highest;
}

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

namespace {

/// Whether there are two readings at least, each with a width.
bool canBeFitted(const std::vector<Taken>& taken, const std::vector<FadeSeries>& faded)
{
    std::size_t stops = 0;
    for (const FadeSeries& series : faded)
        stops += series.stops.size();
    const auto noTaken = [](const Taken& t) { return !(t.width > 0) || !std::isfinite(t.temperature); };
    const auto noStop = [](const FadeSeries::Stop& f) { return !(f.width > 0) || !std::isfinite(f.lengthening); };
    return taken.size() + stops >= 2 && std::ranges::none_of(taken, noTaken)
        && std::ranges::none_of(faded, [&](const FadeSeries& series) { return std::ranges::any_of(series.stops, noStop); });
}

double dot(const std::vector<double>& u, const std::vector<double>& v) { return std::inner_product(u.begin(), u.end(), v.begin(), 0.0); }

/// Cooling, and its split between the axles where both were read, to what was measured: Gauss–Newton on their logarithms.
class Fit {
public:
    Fit(const Car& car, const Duty& duty, const std::vector<Taken>& taken, const std::vector<FadeSeries>& faded, const Accuracy& accuracy)
        : car_(car), duty_(duty), taken_(taken), faded_(faded), accuracy_(accuracy)
    {
        const auto fronts = std::ranges::count_if(taken, [](const Taken& t) { return t.front; });
        withSplit_ = fronts >= 2 && static_cast<std::ptrdiff_t>(taken.size()) - fronts >= 2;
    }

    /// Nothing where the model has no result there, or nothing that was measured tells of its cooling.
    std::optional<Calibration> found()
    {
        predicted_ = at(x_);
        if (predicted_.empty())
            return {};
        beginWhereItFades();
        for (int round = 0; round < 12; ++round) {
            const auto moved = stepped();
            if (!moved)
                return {};
            if (*moved < 1e-4)
                break;
        }
        return calibration();
    }

private:
    using Pair = std::array<double, 2>; // logarithms of cooling and split
    enum class Each { Alone, AsOne };

    [[nodiscard]] std::vector<double> at(const Pair& y) const
    {
        return predictedBy(changed(car_, std::exp(y[0]), withSplit_ ? std::exp(y[1]) : 1), duty_, taken_, faded_, accuracy_);
    }
    /// What is left, over the widths.
    [[nodiscard]] std::vector<double> weighed(const std::vector<double>& predicted, Each stopsCount) const
    {
        std::vector<double> left;
        for (std::size_t i = 0; i < taken_.size(); ++i)
            left.push_back((taken_[i].temperature - predicted[i]) / taken_[i].width);
        for (const FadeSeries& series : faded_) {
            const double shared = stopsCount == Each::AsOne ? std::sqrt(static_cast<double>(series.stops.size())) : 1;
            for (const FadeSeries::Stop& stop : series.stops)
                left.push_back((stop.lengthening - predicted[left.size()]) / (stop.width * shared));
        }
        return left;
    }
    [[nodiscard]] double misfitOf(const std::vector<double>& predicted) const
    {
        const auto left = weighed(predicted, Each::Alone);
        return std::sqrt(dot(left, left) / static_cast<double>(left.size()));
    }

    /// Pads that hold tell nothing of how near they are to fading: where the model's do, the search begins where they do not.
    void beginWhereItFades()
    {
        if (faded_.empty())
            return;
        for (const double cooling : { 0.3, 0.55, 1.7 }) {
            auto there = at({ std::log(cooling), 0 });
            if (!there.empty() && misfitOf(there) < misfitOf(predicted_)) {
                x_[0] = std::log(cooling);
                predicted_ = std::move(there);
            }
        }
    }

    /// One step of the normal equations J'J and J'r; how large it was. Nothing where there is none.
    std::optional<double> stepped()
    {
        const auto left = weighed(predicted_, Each::AsOne);
        constexpr double step = 0.01;
        std::array<std::vector<double>, 2> slopes;
        for (std::size_t j = 0; j < (withSplit_ ? 2u : 1u); ++j) {
            Pair moved = x_;
            moved[j] += step;
            const auto there = at(moved);
            if (there.empty())
                return {};
            const auto leftThere = weighed(there, Each::AsOne);
            for (std::size_t i = 0; i < left.size(); ++i)
                slopes[j].push_back((left[i] - leftThere[i]) / step);
        }
        aa_ = dot(slopes[0], slopes[0]);
        // No stop faded and none should have: any cooling over some would do.
        constexpr double tells = 1e-4;
        if (!(aa_ > tells))
            return {};
        const double ra = dot(slopes[0], left);
        Pair by { ra / aa_, 0 };
        if (withSplit_) {
            ab_ = dot(slopes[0], slopes[1]);
            bb_ = dot(slopes[1], slopes[1]);
            const double rb = dot(slopes[1], left);
            const double whole = aa_ * bb_ - ab_ * ab_;
            by = { (bb_ * ra - ab_ * rb) / whole, (aa_ * rb - ab_ * ra) / whole };
        }
        // No leap: half or double at once.
        const double most = std::max(std::abs(by[0]), std::abs(by[1]));
        const double part = most > 0.7 ? 0.7 / most : 1;
        x_[0] = std::clamp(x_[0] + part * by[0], std::log(0.1), std::log(10.0));
        x_[1] = std::clamp(x_[1] + part * by[1], std::log(0.5), std::log(2.0));
        predicted_ = at(x_);
        if (predicted_.empty())
            return {};
        return most;
    }

    [[nodiscard]] Calibration calibration()
    {
        const double whole = aa_ * bb_ - ab_ * ab_;
        Calibration c;
        c.misfit = misfitOf(predicted_);
        // A width is taken as that within which a reading lies in 95 of 100 cases; what does not fit widens the result.
        const double loose = std::max(1.0, c.misfit);
        c.cooling = std::exp(x_[0]);
        c.coolingWidth = c.cooling * loose * std::sqrt(bb_ / whole);
        c.split = withSplit_ ? std::exp(x_[1]) : 1;
        c.splitWidth = withSplit_ ? c.split * loose * std::sqrt(aa_ / whole) : 0;
        for (std::size_t i = 0; i < taken_.size(); ++i)
            c.left.push_back(taken_[i].temperature - predicted_[i]);
        c.lengthening.assign(predicted_.begin() + static_cast<std::ptrdiff_t>(taken_.size()), predicted_.end());
        predicted_.resize(taken_.size());
        c.predicted = std::move(predicted_);
        c.contradicts = c.misfit > 2 || c.cooling < 0.25 || c.cooling > 4 || !std::isfinite(c.coolingWidth);
        return c;
    }

    const Car& car_;
    const Duty& duty_;
    const std::vector<Taken>& taken_;
    const std::vector<FadeSeries>& faded_;
    const Accuracy& accuracy_;
    bool withSplit_ = false;
    Pair x_ { 0, 0 };
    std::vector<double> predicted_;
    // The normal equations of one or two unknowns.
    double aa_ = 0;
    double ab_ = 0;
    double bb_ = 1;
};

} // namespace

std::optional<Calibration> calibrate(
    const Car& car, const Duty& duty, const std::vector<Taken>& taken, const std::vector<FadeSeries>& faded, const Accuracy& accuracy)
{
    if (!canBeFitted(taken, faded))
        return {};
    return Fit(car, duty, taken, faded, accuracy).found();
}

} // namespace deepstop::heat
