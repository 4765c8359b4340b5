#include "proving/stops.hpp"

#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>
#include <span>

namespace deepstop::proving {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();
constexpr double kept = 60; // s
constexpr double gapOver = 2.5; // of the usual time between two moments

struct FittedLine {
    double at; ///< value at time 0 of the moments' own middle
    double middle;
    double slope;
    [[nodiscard]] double value(double t) const { return at + slope * (t - middle); }
    [[nodiscard]] double reaches(double v) const { return middle + (v - at) / slope; }
};

/// Least squares; nothing for fewer than three.
std::optional<FittedLine> lineThrough(std::span<const Speed> moments)
{
    if (moments.size() < 3)
        return {};
    double middle = 0;
    double mean = 0;
    for (const Speed& m : moments)
        middle += m.time, mean += m.speed;
    middle /= static_cast<double>(moments.size());
    mean /= static_cast<double>(moments.size());
    double across = 0;
    double product = 0;
    for (const Speed& m : moments) {
        across += (m.time - middle) * (m.time - middle);
        product += (m.time - middle) * (m.speed - mean);
    }
    if (!(across > 0))
        return {};
    return FittedLine { mean, middle, product / across };
}

/// Moments between two times.
std::span<const Speed> within(std::span<const Speed> all, double from, double to)
{
    const auto a = std::ranges::lower_bound(all, from, {}, &Speed::time);
    const auto b = std::ranges::upper_bound(all, to, {}, &Speed::time);
    return a < b ? std::span(a, b) : std::span<const Speed> {};
}

double speedAt(std::span<const Speed> all, double t)
{
    const auto b = std::ranges::lower_bound(all, t, {}, &Speed::time);
    if (b == all.begin())
        return all.front().speed;
    if (b == all.end())
        return all.back().speed;
    const auto a = std::prev(b);
    return std::lerp(a->speed, b->speed, (t - a->time) / (b->time - a->time));
}

/// Area under the course between two times, the speeds between moments on straight lines.
double distanceBetween(std::span<const Speed> all, double from, double to)
{
    double sum = 0;
    double t = from;
    double v = speedAt(all, from);
    for (const Speed& m : within(all, from, to)) {
        sum += (m.time - t) * (m.speed + v) / 2;
        t = m.time;
        v = m.speed;
    }
    return sum + (to - t) * (speedAt(all, to) + v) / 2;
}

/// Time at which the speed before standstill was greatest: the car is slower ever after.
Speed topBefore(std::span<const Speed> all, double stood)
{
    Speed top { stood, 0 };
    constexpr double back = 0.7; // s without a faster moment
    for (std::size_t i = all.size(); i-- > 0;) {
        if (all[i].time > stood)
            continue;
        if (all[i].speed > top.speed)
            top = all[i];
        else if (all[i].time < top.time - back)
            break;
    }
    return top;
}

/// A braking as straight lines: its upper part, its lower part.
struct Braking {
    double speed; ///< before it
    FittedLine upper;
    FittedLine lower;
    [[nodiscard]] double begin() const { return upper.reaches(speed); }
    [[nodiscard]] double end() const { return lower.reaches(0); }
};

/// Moments of the braking between two parts of its speed.
std::span<const Speed> partOf(std::span<const Speed> all, Speed top, double stood, double from, double to)
{
    double begins = unknown;
    double ends = unknown;
    for (const Speed& m : within(all, top.time, stood)) {
        if (m.speed <= from * top.speed && std::isnan(begins))
            begins = m.time;
        if (m.speed >= to * top.speed)
            ends = m.time;
    }
    return within(all, begins, ends);
}

std::optional<Braking> brakingIn(std::span<const Speed> all, double stood)
{
    Speed top = topBefore(all, stood);
    std::optional<Braking> braking;
    for (int round = 0; round < 3; ++round) {
        auto upper = lineThrough(partOf(all, top, stood, 0.93, 0.3));
        auto lower = lineThrough(partOf(all, top, stood, 0.6, 0.06));
        const auto whole = lineThrough(partOf(all, top, stood, 0.95, 0.06));
        if (!upper || !lower || !whole || !(upper->slope < 0) || !(lower->slope < 0))
            return {};
        // Where it brakes as hard above as below, all moments tell of one line, and the noise of each weighs less.
        constexpr double alike = 0.05;
        if (std::abs(upper->slope / lower->slope - 1) < alike)
            upper = lower = whole;
        braking = Braking { top.speed, *upper, *lower };
        // The speed before it is that of the seconds before, as it runs on to the beginning.
        constexpr double before = 3.5;
        constexpr double touch = 0.3;
        const double begin = braking->begin();
        const auto steady = lineThrough(within(all, begin - before, begin - touch));
        if (!steady || std::abs(steady->slope) > 1.5)
            continue;
        // A speed that was held is a mean of all its moments; one that was still falling or rising runs on.
        const bool held = std::abs(steady->slope) < 0.1;
        top.speed = held ? steady->at : steady->value(begin);
        braking->speed = top.speed;
    }
    return braking;
}

double usualStep(std::span<const Speed> all)
{
    std::vector<double> steps;
    for (std::size_t i = 1; i < all.size(); ++i)
        steps.push_back(all[i].time - all[i - 1].time);
    const auto middle = steps.begin() + static_cast<std::ptrdiff_t>(steps.size() / 2);
    std::ranges::nth_element(steps, middle);
    return *middle;
}

/// What is wrong with the moments of a stop; `broken` where something would have to be filled in.
std::vector<std::string> faultsIn(std::span<const Speed> span, double usual, const StopRule& rule, bool& broken)
{
    std::vector<std::string> faults;
    double gap = 0;
    double jump = 0;
    for (std::size_t i = 1; i < span.size(); ++i) {
        const double step = span[i].time - span[i - 1].time;
        gap = std::max(gap, step);
        // A wander of the receiver alone is no jump.
        constexpr double wander = 1.5;
        const double leap = std::abs(span[i].speed - span[i - 1].speed);
        if (leap > wander && leap / step > rule.jump)
            jump = std::max(jump, leap);
    }
    if (gap > gapOver * usual)
        faults.push_back(tr("no moments for {:.1f} s", gap));
    if (jump > 0)
        faults.push_back(tr("a jump of {:.1f} m/s", jump));
    broken = !faults.empty();
    constexpr double slow = 4;
    if (1 / usual < slow)
        faults.push_back(tr("only {:.1f} moments a second", 1 / usual));
    return faults;
}

/// Along the upper line from its corner, then as it was logged, then along the lower line to its end.
double distanceOf(std::span<const Speed> all, const Braking& b)
{
    const double begin = b.begin();
    const double end = b.end();
    const double settled = begin + 0.25 * (end - begin);
    const double last = end - 0.15 * (end - begin);
    return (b.speed + b.upper.value(settled)) / 2 * (settled - begin) + distanceBetween(all, settled, last)
        + b.lower.value(last) / 2 * (end - last);
}

std::optional<FoundStop> stopIn(std::span<const Speed> all, double stood, const StopRule& rule)
{
    const auto braking = brakingIn(all, stood);
    if (!braking || braking->speed < rule.leastSpeed || !(braking->end() > braking->begin()))
        return {};
    FoundStop stop;
    stop.begin = braking->begin();
    stop.end = braking->end();
    stop.speed = braking->speed;
    const double length = stop.end - stop.begin;
    const double distance = distanceOf(all, *braking);
    // Softer than a stop, or what no car can do: a receiver that drops to nothing.
    if (stop.speed / length < rule.leastDeceleration || stop.speed / length > rule.jump || !(distance > 0))
        return {};
    const double usual = usualStep(all);
    stop.rate = 1 / usual;
    bool broken = false;
    stop.faults = faultsIn(within(all, stop.begin - 0.3, stop.end + 0.3), usual, rule, broken);
    // Heard from the middle of a braking on, it would be a shorter stop from a lower speed.
    constexpr double seen = 0.5;
    if (all.front().time > stop.begin - seen) {
        stop.faults.emplace_back(tr("its beginning was not heard"));
        broken = true;
    }
    // A receiver that trails still moves when the line has come to nothing.
    stop.smoothing = std::max(0.0, speedAt(all, stop.end) / -braking->lower.slope);
    constexpr double trails = 0.35;
    if (stop.smoothing > trails)
        stop.faults.push_back(tr("the receiver trails by about {:.1f} s", stop.smoothing));
    stop.distance = broken ? unknown : distance;
    stop.meanDeceleration = stop.speed * stop.speed / (2 * stop.distance);
    double from = stop.end;
    double to = stop.end;
    double sign = stop.begin;
    for (const Speed& m : within(all, stop.begin - 1, stop.end)) {
        if (m.speed > stop.speed - 0.3)
            sign = std::min(m.time, stop.begin);
        if (m.speed <= 0.8 * stop.speed)
            from = std::min(from, m.time);
        if (m.speed <= 0.1 * stop.speed)
            to = std::min(to, m.time);
    }
    const double v1 = speedAt(all, from);
    const double v2 = speedAt(all, to);
    stop.mfdd = broken ? unknown : (v1 * v1 - v2 * v2) / (2 * distanceBetween(all, from, to));
    stop.buildUp = broken ? unknown : 2 * (stop.begin - sign);
    for (double t = stop.begin; t + 0.4 < stop.end; t += 0.1)
        if (const auto line = lineThrough(within(all, t, t + 0.4)))
            stop.peak = std::max(stop.peak, -line->slope);
    for (const Speed& m : within(all, stop.begin - 4, stop.end + 1))
        stop.course.push_back(m);
    return stop;
}

} // namespace

std::optional<FoundStop> stopOf(std::span<const Speed> course, const StopRule& rule)
{
    const auto stands = std::ranges::find_if(course, [&](const Speed& m) { return m.speed <= rule.stands; });
    return course.size() < 3 || stands == course.end() ? std::nullopt : stopIn(course, stands->time, rule);
}

std::vector<std::span<const Speed>> unbroken(std::span<const Speed> course)
{
    std::vector<std::span<const Speed>> pieces;
    if (course.size() < 2)
        return pieces;
    const double most = gapOver * usualStep(course);
    std::size_t from = 0;
    for (std::size_t i = 1; i <= course.size(); ++i)
        if (i == course.size() || course[i].time - course[i - 1].time > most) {
            pieces.push_back(course.subspan(from, i - from));
            from = i;
        }
    return pieces;
}

StopFinder::StopFinder(std::function<void(const FoundStop&)> found, const StopRule& rule) : found_(std::move(found)), rule_(rule) { }

void StopFinder::take(Speed m)
{
    if (!std::isfinite(m.time) || !std::isfinite(m.speed) || (!last_.empty() && m.time <= last_.back().time))
        return;
    last_.push_back(m);
    while (last_.back().time - last_.front().time > kept)
        last_.pop_front();
    if (m.speed >= rule_.leastSpeed)
        moving_ = true;
    const auto back = std::ranges::lower_bound(last_, m.time - 0.5, {}, &Speed::time);
    braking_ = moving_ && back != last_.end() && m.time - back->time > 0.2
        && (back->speed - m.speed) / (m.time - back->time) > rule_.leastDeceleration && m.speed > rule_.stands;
    if (!moving_)
        return;
    if (m.speed > 3 * rule_.stands) {
        stoodAt_ = -1;
        return;
    }
    if (m.speed <= rule_.stands && stoodAt_ < 0)
        stoodAt_ = m.time;
    // A second of standing shows how the receiver comes to rest.
    constexpr double settle = 1.0;
    if (stoodAt_ >= 0 && m.time - stoodAt_ >= settle)
        judge();
}

void StopFinder::finish()
{
    if (moving_ && stoodAt_ >= 0)
        judge();
}

void StopFinder::cut(const std::string& why)
{
    if (stoodAt_ >= 0) {
        finish();
    } else if (braking_) {
        // Back to where the speed began to fall.
        auto top = std::prev(last_.end());
        while (top != last_.begin() && std::prev(top)->speed >= top->speed - 0.3)
            --top;
        FoundStop stop;
        stop.begin = top->time;
        stop.end = last_.back().time;
        stop.speed = top->speed;
        stop.distance = stop.meanDeceleration = stop.mfdd = stop.buildUp = unknown;
        stop.faults.push_back(tr("{} at {:.0f} km/h", why, 3.6 * last_.back().speed));
        for (const Speed& m : last_)
            if (m.time >= stop.begin - 4)
                stop.course.push_back(m);
        if (stop.speed >= rule_.leastSpeed)
            found_(stop);
    }
    last_.clear();
    moving_ = braking_ = false;
    stoodAt_ = -1;
}

void StopFinder::judge()
{
    const double stood = stoodAt_;
    moving_ = false;
    stoodAt_ = -1;
    const std::vector<Speed> all(last_.begin(), last_.end());
    if (const auto stop = stopIn(all, stood, rule_))
        found_(*stop);
}

} // namespace deepstop::proving
