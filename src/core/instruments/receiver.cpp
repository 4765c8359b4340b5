#include "instruments/receiver.hpp"

#include "files/track_log.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>

namespace deepstop::instruments {
namespace {

constexpr double knot = 1852.0 / 3600;
constexpr double metresPerDegree = 111'195;

/// "4712.34567,N"
std::string angle(double degrees, int digits, char positive, char negative)
{
    const double size = std::abs(degrees);
    const double whole = std::floor(size);
    return fmt::format("{:0{}.0f}{:08.5f},{}", whole, digits, (size - whole) * 60, degrees < 0 ? negative : positive);
}

} // namespace

std::string nmeaSentence(const std::string& body) { return fmt::format("${}*{:02X}\r\n", body, files::nmeaChecksum(body)); }

Receiver::Receiver(const ReceiverScene& scene) : scene_(scene), dice_(scene.seed), wander_(0, 1)
{
    hold(3);
    if (scene_.traffic > 0)
        planTraffic(scene_.traffic);
    else
        planStops(scene_.stops);
}

void Receiver::go(double speed, double acceleration)
{
    const double seconds = std::abs(speed - course_.back().speed) / acceleration;
    if (seconds > 0)
        course_.push_back({ course_.back().time + seconds, speed });
}

void Receiver::hold(double seconds) { course_.push_back({ course_.back().time + seconds, course_.back().speed }); }

void Receiver::planStops(const std::vector<PlannedStop>& stops)
{
    for (const PlannedStop& stop : stops) {
        go(stop.speed, 3);
        hold(4);
        const double began = course_.back().time;
        double distance = 0;
        // While the foot presses harder, in pieces short beside any receiver's step.
        constexpr int pieces = 20;
        double speed = stop.speed;
        for (int i = 0; i < pieces && stop.buildUp > 0 && speed > stop.to; ++i) {
            const double step = stop.buildUp / pieces;
            const double slower = std::max(stop.to, speed - stop.deceleration * (i + 0.5) / pieces * step);
            distance += (speed + slower) / 2 * step;
            speed = slower;
            course_.push_back({ began + (i + 1) * step, speed });
        }
        distance += (speed * speed - stop.to * stop.to) / (2 * stop.deceleration);
        go(stop.to, stop.deceleration);
        hold(stop.driveOn);
        distances_.push_back(distance);
    }
}

void Receiver::planTraffic(double seconds)
{
    std::uniform_real_distribution<double> any(0, 1);
    while (course_.back().time < seconds) {
        const double what = any(dice_);
        const double speed = what < 0.25 ? 0 : 4 + 26 * any(dice_);
        // As hard as people brake in traffic: up to 0.3 g.
        go(speed, speed < course_.back().speed ? 0.4 + 2.4 * any(dice_) : 0.5 + 2 * any(dice_));
        hold(speed == 0 ? 3 + 20 * any(dice_) : 2 + 25 * any(dice_));
    }
    go(0, 2);
    hold(5);
}

double Receiver::speedAt(double time) const
{
    const auto b = std::ranges::lower_bound(course_, time, {}, &Point::time);
    if (b == course_.begin())
        return course_.front().speed;
    if (b == course_.end())
        return course_.back().speed;
    const auto a = std::prev(b);
    return std::lerp(a->speed, b->speed, (time - a->time) / (b->time - a->time));
}

std::string Receiver::next()
{
    const double step = 1 / scene_.rate;
    const double now = time_;
    time_ = static_cast<double>(++at_) * step;
    const double speed = speedAt(now);
    gone_ += speed * step;
    shown_ = scene_.lag > 0 ? shown_ + (speed - shown_) * (1 - std::exp(-step / scene_.lag)) : speed;
    const double told = std::max(0.0, shown_ + scene_.noise * wander_(dice_));
    std::uniform_real_distribution<double> any(0, 1);
    if (any(dice_) < scene_.dropOuts)
        lostUntil_ = now + 0.5;
    if (now < lostUntil_)
        return {};
    // A made-up morning on a straight road to the north, over hills.
    const double clock = 9 * 3600 + now;
    const int hour = static_cast<int>(clock / 3600) % 24;
    const int minute = static_cast<int>(clock / 60) % 60;
    // To the hundredth that is written, so that no second is written as 60.
    const double second = std::floor(std::fmod(clock, 60.0) * 100 + 1e-6) / 100;
    const auto utc = fmt::format("{:02d}{:02d}{:05.2f}", hour, minute, second);
    const auto place = angle(47 + gone_ / metresPerDegree, 2, 'N', 'S') + "," + angle(9, 3, 'E', 'W');
    const double height = 480 + 25 * std::sin(gone_ / 700);
    using namespace std::chrono;
    const year_month_day date { sys_days { 2026y / 3 / 14 } + days { static_cast<int>(clock / 86'400) } };
    const auto day = fmt::format(
        "{:02}{:02}{:02}", static_cast<unsigned>(date.day()), static_cast<unsigned>(date.month()), static_cast<int>(date.year()) % 100);
    return nmeaSentence(fmt::format("GPRMC,{},A,{},{:.3f},0.0,{},,,A", utc, place, told / knot, day))
        + nmeaSentence(fmt::format("GPVTG,0.0,T,,M,{:.3f},N,{:.3f},K,A", told / knot, told * 3.6))
        + nmeaSentence(fmt::format("GPGGA,{},{},1,09,0.9,{:.1f},M,47.0,M,,", utc, place, height));
}

} // namespace deepstop::instruments
