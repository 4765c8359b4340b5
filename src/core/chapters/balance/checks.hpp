#pragma once
/// The checks of this chapter: balance and pedal.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check lockOrder {
    .name = "balance/lock-order", .title = marked("Which axle locks first"), .of = CheckOf::Car, .shown = "split"
};
inline constexpr Check rearUse {
    .name = "balance/rear-use", .title = marked("Rear axle utilisation"), .of = CheckOf::Car, .shown = "adhesion"
};
inline constexpr Check yardstick {
    .name = "balance/yardstick", .title = marked("Adhesion utilisation (UN R13-H as guidance)"), .of = CheckOf::Car, .shown = "adhesion"
};
inline constexpr Check effort { .name = "balance/effort", .title = marked("Pedal force"), .of = CheckOf::Car, .shown = "pedal" };
inline constexpr Check travel { .name = "balance/travel", .title = marked("Pedal travel"), .of = CheckOf::Car, .shown = "pedal" };
inline constexpr Check booster { .name = "balance/booster", .title = marked("Booster"), .of = CheckOf::Car };
inline constexpr Check circuits { .name = "balance/circuits", .title = marked("One circuit gone"), .of = CheckOf::Car };
inline constexpr Check fluid { .name = "balance/fluid", .title = marked("Reservoir with worn pads"), .of = CheckOf::Car };
inline constexpr Check selfLocking { .name = "drum-self-locking", .title = marked("Drum shoes: margin to self-locking") };

inline constexpr Check metering { .name = "balance/metering", .title = marked("Metering valve"), .of = CheckOf::Car, .shown = "pedal" };
inline constexpr Check residual { .name = "residual-pressure", .title = marked("Residual pressure"), .shown = "pedal" };

inline constexpr const Check* ofBalance[] { &lockOrder, &rearUse, &yardstick, &effort, &travel, &booster, &circuits, &fluid, &selfLocking,
    &metering, &residual };

} // namespace deepstop::checks
