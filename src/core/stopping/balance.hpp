#pragma once
/// Which axle brakes how much, and which gives up first: ideal line, adhesion, locking, one circuit gone. SI; nothing throws.

#include "stopping/stopping.hpp"

#include <span>

namespace deepstop::stopping {

/// Part of the braking that the front must do at deceleration `z` over g for both axles to use alike: load share + z·h/L.
/// NaN where the rear axle has lifted, or for bad numbers.
[[nodiscard]] double idealFrontShare(const Car& car, double z);
/// Braking of either axle over the car's weight: a place on the plot of rear over front.
struct Split {
    double front;
    double rear;
    bool operator==(const Split&) const = default;
};
/// The ideal line from nothing to the deceleration `most`, or to where the rear lifts.
[[nodiscard]] std::vector<Split> idealLine(const Car& car, double most);
/// On tyres of that grip the front locks beyond this line: from no rear braking to as much as the front's own.
[[nodiscard]] std::vector<Split> frontLimit(const Car& car, double grip);
/// And the rear beyond this one: from no front braking to where nothing is left on the rear axle.
[[nodiscard]] std::vector<Split> rearLimit(const Car& car, double grip);

/// Both limits as far as they decide: to a little past where the two axles lock together. Each empty, or two points.
struct LockLimits {
    std::vector<Split> front;
    std::vector<Split> rear;
};
[[nodiscard]] LockLimits lockLimits(const Car& car, double frontGrip, double rearGrip);

/// Deceleration over g at which the rear wheels leave the road, were there grip enough.
[[nodiscard]] double liftsAt(const Car& car);

/// Front pressure for a deceleration of the brakes alone, Pa, no wheel locking. Straight lines on either side of the valve's knee.
[[nodiscard]] double pressureFor(const Car& car, const Brakes& brakes, double z);

/// Front pressure at which the first axle locks, were there no end to the foot, Pa; infinite where none does.
[[nodiscard]] double usefulPressure(const Car& car, const Brakes& brakes);

/// Front pressure at which the rear locks over that at which the front does, less one: at most 1, which also stands for a rear that never
/// locks; −1 where only the rear does. NaN for bad numbers.
[[nodiscard]] double locksApart(const Car& car, const Brakes& brakes);

/// Adhesion that each axle uses: its braking force over its load.
struct Adhesion {
    double front;
    double rear; ///< infinite where a braked axle carries nothing
};
[[nodiscard]] Adhesion adhesion(const Car& car, const AxleForces& forces);

/// Which axle locks first on tyres of one grip while `frontShare` of the braking is the front's at every pressure.
enum class First { Front, Rear, Both };
[[nodiscard]] std::string_view nameOf(First first);
struct LockOrder {
    First first;
    double deceleration; ///< over g, at which it does
    double frontUse; ///< of the grip, there
    double rearUse;
};
/// Closed form: the front locks at z = μ·share/(φ − μ·h/L), the rear at z = μ·(1 − share)/(1 − φ + μ·h/L).
/// @param heightOverBase h/L
/// @return NaN in `deceleration` for numbers out of range (load share 0 to 1 excluded, φ 0 to 1 included, the others positive)
[[nodiscard]] LockOrder lockOrder(double frontLoadShare, double heightOverBase, double frontShare, double grip);

/// Something in the car beside its driver.
struct PointLoad {
    double mass;
    double behindFrontAxle;
    double height;
};
/// The car with more (or less) in it: masses and moments added. NaN throughout where nothing would be left of it or an axle would hang
/// free.
[[nodiscard]] Car laden(const Car& car, std::span<const PointLoad> carried);

/// What part of each axle's wheels a circuit brakes: 1 and 0 of front and rear ones, a half of both of diagonal ones.
struct Circuit {
    double front;
    double rear;
};
/// Deceleration over g of part of the brakes at a front pressure; a wheel past its grip gives what its load holds. That the car is pulled
/// to one side is not in it.
[[nodiscard]] double decelerationOf(const Car& car, const Brakes& brakes, Circuit circuit, double pressure);

/// UN R13-H, annex on the distribution of braking, from memory; a yardstick, never an approval. Between 0.15 and 0.8 g the front axle uses
/// the more adhesion, and for adhesions k from 0.2 to 0.8 the deceleration is at least 0.1 + 0.7·(k − 0.2).
namespace yardstick {
inline constexpr double from = 0.15;
inline constexpr double to = 0.8;
/// Least deceleration over g wanted of an axle that uses `k`.
[[nodiscard]] constexpr double least(double k) { return 0.1 + 0.7 * (k - 0.2); }
/// Least deceleration with part of the brakes gone, and least with all of them at a foot of 500 N, m/s².
inline constexpr double secondary = 2.44;
inline constexpr double service = 6.43;
} // namespace yardstick

/// How far a car keeps from the yardstick; above nothing it keeps to it.
struct RegulationLimits {
    double frontOverRear; ///< least of front less rear adhesion from 0.15 to 0.8 g
    double efficiency; ///< least of z less what is wanted at the adhesion of the axle that uses more, for k of 0.2 to 0.8
};
[[nodiscard]] RegulationLimits keptTo(const Car& car, const Brakes& brakes);

} // namespace deepstop::stopping
