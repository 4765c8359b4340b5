#include "stopping/spread.hpp"

#include "task/cancel.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>
#include <random>

namespace deepstop::stopping {

std::vector<std::vector<double>> spread(std::span<const Case> cases, int draws, const StopWidths& w, std::uint32_t seed)
{
    std::vector<std::vector<double>> all(cases.size());
    constexpr double coarse = 1e-4; // beside what is drawn
    for (int draw = 0; draw < draws; ++draw) {
        std::mt19937 rng(seed + static_cast<std::uint32_t>(draw) * 7919u);
        std::normal_distribution<double> normal(0, 1);
        const auto around = [&](double width) { return std::clamp(1 + width * normal(rng), 0.3, 1.7); };
        const double grip = around(w.grip);
        const double mass = around(w.mass);
        const double height = around(w.height);
        const double foot = around(w.foot);
        const double later = w.buildUp * normal(rng);
        const double alike = around(w.frictionAlike);
        const double loss = around(w.loss);
        // As many for every set of parts, in the order of their numbers, whoever comes first in the list.
        std::map<int, std::array<double, 2>> own;
        for (const Case& each : cases)
            own[each.parts] = {};
        for (auto& [parts, frictions] : own) {
            std::mt19937 their(seed + static_cast<std::uint32_t>(draw) * 104'729u + static_cast<std::uint32_t>(parts) * 1'299'709u);
            std::normal_distribution<double> each(0, 1);
            for (double& f : frictions)
                f = std::clamp(1 + w.frictionOwn * each(their), 0.3, 1.7);
        }
        for (std::size_t i = 0; i < cases.size(); ++i) {
            Case c = cases[i];
            c.car.mass *= mass;
            c.car.centreOfMassHeight *= height;
            c.brakes.front.grip *= grip;
            c.brakes.rear.grip *= grip;
            c.brakes.front.brakeFactor *= alike * own[c.parts][0];
            c.brakes.rear.brakeFactor *= alike * own[c.parts][1];
            c.how.fullPressure *= foot;
            c.how.buildUp = std::clamp(c.how.buildUp + later, 0.0, 10.0);
            for (double* friction : { &c.how.frontFriction, &c.how.rearFriction })
                *friction = std::clamp(1 - (1 - *friction) * loss, 0.02, 2.0);
            endIfCancelled();
            const double distance = drive(c.car, c.brakes, c.how, c.speed, false, coarse).distance;
            all[i].push_back(std::isfinite(distance) ? distance : std::numeric_limits<double>::infinity());
        }
    }
    return all;
}

} // namespace deepstop::stopping
