#include "heat/spread.hpp"

#include "task/parallel.hpp"

#include <algorithm>
#include <cmath>
#include <random>

namespace deepstop::heat {
namespace {

/// Thick layers and moments far apart: a peak is a degree or two off, beside a spread of dozens.
constexpr Accuracy quick { 0.3, 4e-3, 1e9 };

/// What one draw changes, as factors.
struct Factors {
    double cooling;
    double friction;
    double mass;
    double share;
};

/// The same factors for the same draw, whoever asks and in whatever order.
Factors factorsOf(std::uint32_t seed, int draw, const Widths& w)
{
    std::seed_seq mixed { seed, static_cast<std::uint32_t>(draw) };
    std::mt19937 rng(mixed);
    std::normal_distribution<double> normal(0, 1);
    const auto factor = [&](double width) { return std::exp(width * std::clamp(normal(rng), -3.0, 3.0)); };
    const double cooling = factor(w.cooling);
    const double friction = factor(w.friction);
    const double mass = factor(w.mass);
    return { cooling, friction, mass, factor(w.share) };
}

Car drawnOf(const Car& car, const Factors& f)
{
    Car c = car;
    for (Brake* brake : { &c.front, &c.rear }) {
        brake->cooling *= f.cooling;
        brake->ringMass *= f.mass;
    }
    c.frontShare = [share = car.frontShare, by = f.share](
                       double force, double front, double rear) { return std::clamp(by * share(force, front, rear), 0.02, 0.98); };
    // Friction off on one axle alone shifts heat to the other.
    c.frontFriction = [friction = car.frontFriction, by = f.friction](double t) { return by * friction(t); };
    return c;
}

} // namespace

std::vector<std::vector<Drawn>> spread(std::span<const Car> cars, const Duty& duty, int draws, const Widths& widths, std::uint32_t seed,
    unsigned threads, const std::function<void(double)>& progress)
{
    const auto count = static_cast<std::size_t>(std::clamp(draws, 0, 1'000'000));
    std::vector<std::vector<Drawn>> all(cars.size(), std::vector<Drawn>(count));
    std::vector<char> done(count, 0);
    std::atomic<std::size_t> finished { 0 };
    parallelFor(count, threads, [&](std::size_t i) {
        const Factors f = factorsOf(seed, static_cast<int>(i), widths);
        bool whole = true;
        for (std::size_t k = 0; k < cars.size(); ++k) {
            const Run r = run(drawnOf(cars[k], f), duty, quick);
            whole = whole && r.complete;
            all[k][i] = { r.frontPeak, r.rearPeak };
        }
        done[i] = whole;
        const auto sofar = ++finished;
        if (progress && sofar % 16 == 0)
            progress(static_cast<double>(sofar) / static_cast<double>(count));
    });
    for (auto& list : all) {
        std::vector<Drawn> kept;
        for (std::size_t i = 0; i < count; ++i)
            if (done[i])
                kept.push_back(list[i]);
        list = std::move(kept);
    }
    return all;
}

} // namespace deepstop::heat
