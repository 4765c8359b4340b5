#include "instruments/simulated.hpp"

#include "instruments/indication.hpp"

#include <cmath>
#include <numbers>

namespace deepstop::instruments {

std::optional<Kind> kindOf(std::string_view instrument)
{
    for (const Kind& kind : { Kind { "vernier", "mm", 2, 27.98 }, Kind { "scale", "kg", 3, 7.46 }, Kind { "dial-gauge", "mm", 3, 0 },
             Kind { "thermometer", "C", 1, 21.5 } })
        if (kind.name == instrument)
            return kind;
    return {};
}

Simulated::Simulated(Scene scene)
    : scene_(std::move(scene)), kind_(kindOf(scene_.instrument).value_or(Kind { "vernier", "mm", 2, 0 })), dice_(scene_.seed)
{
    if (scene_.values.empty())
        scene_.values.push_back(kind_.resting);
}

std::string Simulated::at(double time)
{
    std::uniform_real_distribution<double> chance(0, 1);
    double value = scene_.values[index_] + scene_.drift * time;
    bool stable = time - since_ >= scene_.settling;
    if (kind_.name == "dial-gauge") {
        const double angle = 2 * std::numbers::pi * time / scene_.turn;
        value += scene_.wobble / 2 * std::cos(angle - 1) + scene_.warp / 2 * std::cos(2 * angle);
        stable = false;
    } else if (!stable) {
        // Coming to rest from where the last one was.
        value += (index_ > 0 ? scene_.values[index_ - 1] - scene_.values[index_] : 1.0)
            * std::exp(-6 * (time - since_) / std::max(scene_.settling, 1e-3));
    }
    if (scene_.noise > 0)
        value += std::normal_distribution<double>(0, scene_.noise)(dice_);
    auto line = formatLine(scene_.instrument, value, kind_.decimals, kind_.unit, stable);
    if (chance(dice_) < scene_.dropOuts)
        return {};
    if (chance(dice_) < scene_.halfLines)
        return chance(dice_) < 0.5 ? line.substr(0, line.size() / 2) : line.substr(line.size() / 2);
    return line;
}

void Simulated::next(double time)
{
    if (index_ + 1 < scene_.values.size()) {
        ++index_;
        since_ = time;
    }
}

} // namespace deepstop::instruments
