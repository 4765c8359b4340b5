#pragma once
/// The checks of this chapter: heat.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check stopRise { .name = "stop-rise", .title = marked("Rise in one stop") };
inline constexpr Check drilled { .name = "drilled", .title = marked("Drilled faces") };
inline constexpr Check firstLimit { .name = "heat/gives-up", .title = marked("First limit reached"), .of = CheckOf::Car, .shown = "duty" };
inline constexpr Check padsLast { .name = "heat/pads-last", .title = marked("How long the linings last"), .of = CheckOf::Car };

inline constexpr const Check* ofHeat[] { &stopRise, &drilled, &firstLimit, &padsLast };

} // namespace deepstop::checks

namespace deepstop::lines {

inline constexpr std::string_view heatStore = "heat-store";

} // namespace deepstop::lines
