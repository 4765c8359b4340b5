#pragma once
/// The checks of this chapter: balance and pedal.

#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check lockOrder { .name = "balance/lock-order", .title = "Which axle locks first", .of = CheckOf::Car, .shown = "split" };
inline constexpr Check rearUse { .name = "balance/rear-use", .title = "What the rear axle does", .of = CheckOf::Car, .shown = "adhesion" };
inline constexpr Check yardstick { .name = "balance/yardstick", .title = "Adhesion beside the yardstick", .of = CheckOf::Car,
    .shown = "adhesion" };
inline constexpr Check effort { .name = "balance/effort", .title = "Effort on the pedal", .of = CheckOf::Car, .shown = "pedal" };
inline constexpr Check travel { .name = "balance/travel", .title = "Travel of the pedal", .of = CheckOf::Car, .shown = "pedal" };
inline constexpr Check booster { .name = "balance/booster", .title = "Booster", .of = CheckOf::Car };
inline constexpr Check circuits { .name = "balance/circuits", .title = "One circuit gone", .of = CheckOf::Car };
inline constexpr Check fluid { .name = "balance/fluid", .title = "Fluid for worn pads", .of = CheckOf::Car };
inline constexpr Check selfLocking { .name = "drum-self-locking", .title = "Drum shoes: margin to self-locking" };

inline constexpr const Check* ofBalance[] { &lockOrder, &rearUse, &yardstick, &effort, &travel, &booster, &circuits, &fluid, &selfLocking };

} // namespace deepstop::checks
