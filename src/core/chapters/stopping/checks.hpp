#pragma once
/// The checks of this chapter: the cold stop.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check stopLimit { .name = "stop/limit", .title = marked("What limits the stop"), .of = CheckOf::Car };
inline constexpr Check stopDistance { .name = "stop/distance", .title = marked("Stopping distance"), .of = CheckOf::Car };

inline constexpr const Check* ofStopping[] { &stopLimit, &stopDistance };

} // namespace deepstop::checks
