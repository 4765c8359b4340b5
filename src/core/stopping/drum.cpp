#include "stopping/drum.hpp"

#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::stopping {
namespace {

/// Where the wheel cylinder presses, over the drum's radius; common practice, no source.
constexpr double cylinderHeight = 0.72;
constexpr double noFactor = std::numeric_limits<double>::quiet_NaN();

/// ∫ sin θ, ∫ sin² θ and ∫ sin θ cos θ over the lining.
struct Lining {
    double whole;
    double squared;
    double mixed;
};

Lining liningOf(const Shoes& shoes)
{
    const double from = (std::numbers::pi - shoes.arc) / 2;
    const double to = (std::numbers::pi + shoes.arc) / 2;
    return { std::cos(from) - std::cos(to), (to - from) / 2 - (std::sin(2 * to) - std::sin(2 * from)) / 4,
        (std::pow(std::sin(to), 2) - std::pow(std::sin(from), 2)) / 2 };
}

bool inRange(const Shoes& shoes)
{
    const double a = shoes.anchorRadius / shoes.radius;
    return shoes.friction > 0 && shoes.friction < 1 && a > 0.2 && a <= 1 && shoes.arc > 0.1 && shoes.arc <= 160 * std::numbers::pi / 180;
}

/// Friction force at the drum over the force on this one shoe.
/// @param way +1 for a leading shoe, which its own friction presses on, −1 for a trailing one
double shoeFactor(const Shoes& shoes, double way)
{
    const Lining lining = liningOf(shoes);
    const double a = shoes.anchorRadius / shoes.radius;
    const double lever = a + cylinderHeight;
    const double held = a * lining.squared - way * shoes.friction * (lining.whole - a * lining.mixed);
    return held > 0 ? shoes.friction * lining.whole * lever / held : noFactor;
}

} // namespace

Shoes usualShoes(double radius, double friction) { return { radius, 0.83 * radius, 100 * std::numbers::pi / 180, friction }; }

double brakeFactor(DrumKind kind, const Shoes& shoes)
{
    const double a = shoes.anchorRadius / shoes.radius;
    if (!inRange(shoes))
        return noFactor;
    const double leading = shoeFactor(shoes, 1);
    switch (kind) {
    case DrumKind::LeadingTrailing:
        return leading + shoeFactor(shoes, -1);
    case DrumKind::TwoLeading:
        return 2 * leading;
    case DrumKind::SelfEnergising:
        // Moments about the axis: what presses the second shoe at the pivot is the first one's force by their levers, and its friction.
        return leading + leading * (cylinderHeight / a + leading / a);
    }
    return noFactor;
}

double selfLockingFriction(const Shoes& shoes)
{
    if (!inRange(shoes))
        return noFactor;
    const Lining lining = liningOf(shoes);
    const double a = shoes.anchorRadius / shoes.radius;
    return a * lining.squared / (lining.whole - a * lining.mixed);
}

} // namespace deepstop::stopping
