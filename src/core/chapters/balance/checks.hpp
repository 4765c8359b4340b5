#pragma once
/// The checks of this chapter: balance and pedal.

#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check lockOrder { .name = "balance/lock-order", .title = "Which axle locks first", .of = CheckOf::Car, .shown = "split" };
inline constexpr Check rearUse { .name = "balance/rear-use", .title = "Rear axle utilisation", .of = CheckOf::Car, .shown = "adhesion" };
inline constexpr Check yardstick {
    .name = "balance/yardstick", .title = "Adhesion utilisation (UN R13-H as guidance)", .of = CheckOf::Car, .shown = "adhesion"
};
inline constexpr Check effort { .name = "balance/effort", .title = "Pedal force", .of = CheckOf::Car, .shown = "pedal" };
inline constexpr Check travel { .name = "balance/travel", .title = "Pedal travel", .of = CheckOf::Car, .shown = "pedal" };
inline constexpr Check booster { .name = "balance/booster", .title = "Booster", .of = CheckOf::Car };
inline constexpr Check circuits { .name = "balance/circuits", .title = "One circuit gone", .of = CheckOf::Car };
inline constexpr Check fluid { .name = "balance/fluid", .title = "Reservoir with worn pads", .of = CheckOf::Car };
inline constexpr Check selfLocking { .name = "drum-self-locking", .title = "Drum shoes: margin to self-locking" };

inline constexpr Check metering { .name = "balance/metering", .title = "Metering valve", .of = CheckOf::Car, .shown = "pedal" };
inline constexpr Check residual { .name = "residual-pressure", .title = "Residual pressure", .shown = "pedal" };

inline constexpr const Check* ofBalance[] { &lockOrder, &rearUse, &yardstick, &effort, &travel, &booster, &circuits, &fluid, &selfLocking,
    &metering, &residual };

} // namespace deepstop::checks
