#pragma once
/// The checks of this chapter: the cold stop.

#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check stopLimit { .name = "stop/limit", .title = "What limits the stop", .of = CheckOf::Car };
inline constexpr Check stopDistance { .name = "stop/distance", .title = "Stopping distance", .of = CheckOf::Car };

inline constexpr const Check* ofStopping[] { &stopLimit, &stopDistance };

} // namespace deepstop::checks
