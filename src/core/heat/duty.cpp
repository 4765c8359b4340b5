#include "heat/duty.hpp"

#include "language/language.hpp"
#include "materials/materials.hpp"
#include "quantity/unit.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::heat {

double durationOf(const Duty& duty)
{
    double sum = 0;
    for (const Phase& p : duty.phases)
        sum += p.duration;
    return sum;
}

double distanceOf(const Duty& duty)
{
    double sum = 0;
    for (const Phase& p : duty.phases)
        sum += (p.from + p.to) / 2 * p.duration;
    return sum;
}

int stopsIn(const Duty& duty)
{
    int most = 0;
    for (const Phase& p : duty.phases)
        most = std::max(most, p.stop);
    return most;
}

Duty oneStop(double speed, double deceleration, double rest)
{
    Duty duty { "one-stop", tr("one stop"), {}, 0 };
    if (!(speed > 0 && deceleration > 0 && rest >= 0))
        return duty;
    duty.phases.push_back({ speed, 0, speed / deceleration, true, 0, 1 });
    if (rest > 0)
        duty.phases.push_back({ 0, 0, rest, false, 0, 1 });
    return duty;
}

Duty snubs(int count, double from, double to, double deceleration, double interval)
{
    Duty duty { "snubs", "snubs", {}, 0 };
    const double braking = (from - to) / deceleration;
    // Back to speed at a quarter of a car's best, 1.5 m/s², or as fast as the interval asks for.
    const double back = std::min((from - to) / 1.5, interval - braking);
    if (!(count > 0 && count <= 10'000 && from > to && to >= 0 && deceleration > 0 && back > 0))
        return duty;
    for (int i = 1; i <= count; ++i) {
        duty.phases.push_back({ from, to, braking, true, 0, i });
        duty.phases.push_back({ to, from, back, false, 0, i });
        if (interval - braking - back > 1e-9)
            duty.phases.push_back({ from, from, interval - braking - back, false, 0, i });
    }
    return duty;
}

Duty heatingProcedure(double top)
{
    Duty duty = snubs(15, top, top / 2, 3, 45);
    duty.id = "heating-procedure";
    duty.name = tr("heating procedure");
    return duty;
}

Duty descent(double length, double slope, double speed, double engineBraking)
{
    Duty duty { "descent", "descent", {}, engineBraking };
    if (length > 0 && speed > 0 && slope > 0 && slope < 1)
        duty.phases.push_back({ speed, speed, length / speed, true, slope, 1 });
    return duty;
}

Duty drivenDuty(const std::vector<Driven>& drive, double least, double gentle)
{
    Duty duty { "log", tr("the imported log"), {}, 0 };
    if (drive.size() < 2)
        return duty;
    // A place is a turning point once the speed has come back from it by `least`; where it was held, its first and its last moment are.
    std::vector<std::size_t> turns { 0 };
    struct Extreme {
        std::size_t first = 0;
        std::size_t last = 0;
    };
    Extreme highest;
    Extreme lowest;
    int way = 0;
    const auto turnedAt = [&](const Extreme& at, std::size_t now) {
        for (const std::size_t i : { at.first, at.last })
            if (i > turns.back())
                turns.push_back(i);
        highest = lowest = { now, now };
    };
    for (std::size_t i = 1; i < drive.size(); ++i) {
        const double speed = drive[i].speed;
        if (speed > drive[highest.last].speed)
            highest = { i, i };
        else if (speed == drive[highest.last].speed)
            highest.last = i;
        if (speed < drive[lowest.last].speed)
            lowest = { i, i };
        else if (speed == drive[lowest.last].speed)
            lowest.last = i;
        if (way >= 0 && drive[highest.last].speed - speed >= least) {
            turnedAt(highest, i);
            way = -1;
        } else if (way <= 0 && speed - drive[lowest.last].speed >= least) {
            turnedAt(lowest, i);
            way = 1;
        }
    }
    if (turns.back() + 1 < drive.size())
        turns.push_back(drive.size() - 1);
    int stop = 0;
    for (std::size_t k = 0; k + 1 < turns.size(); ++k) {
        const Driven& a = drive[turns[k]];
        const Driven& b = drive[turns[k + 1]];
        Phase p { a.speed, b.speed, b.time - a.time, false, 0, 0 };
        const double along = (a.speed + b.speed) / 2 * p.duration;
        if (std::isfinite(a.height + b.height) && along > 20)
            p.slope = std::clamp((a.height - b.height) / along, -0.3, 0.3);
        p.braking = (a.speed - b.speed) / p.duration > gentle;
        stop += p.braking;
        p.stop = stop;
        duty.phases.push_back(p);
    }
    return duty;
}

double brakePower(const Road& road, const Duty& duty, const Phase& phase, double speed)
{
    if (!phase.braking || !(speed > 0))
        return 0;
    const double mass = road.mass + duty.added;
    const double slowing = mass * road.spinning * (phase.from - phase.to) / phase.duration;
    const double falling = mass * standardGravity * phase.slope;
    const double air = 0.5 * materials::airDensity * road.dragArea * speed * speed;
    const double others = air + road.rolling * mass * standardGravity + duty.engineBraking * road.mass;
    return std::max(0.0, slowing + falling - others) * speed;
}

std::vector<RoadLine> speedOverRoad(const Duty& duty)
{
    constexpr int parts = 12;
    std::vector<RoadLine> lines;
    double begun = 0;
    for (const Phase& p : duty.phases) {
        RoadLine line { {}, p.braking };
        for (int k = 0; k <= parts; ++k) {
            const double speed = p.from + (p.to - p.from) * k / parts;
            line.places.push_back({ begun + (p.from + speed) / 2 * p.duration * k / parts, speed });
        }
        begun += (p.from + p.to) / 2 * p.duration;
        lines.push_back(std::move(line));
    }
    return lines;
}

} // namespace deepstop::heat
