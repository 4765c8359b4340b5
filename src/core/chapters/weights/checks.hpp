#pragma once
/// The checks of this chapter: weights.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check weighedRotor { .name = "weighed-rotor", .title = marked("Rotor on the scale against its dimensions") };
inline constexpr Check weight { .name = "weight", .title = marked("Weight of a corner"), .shown = "scales" };

inline constexpr const Check* ofWeights[] { &weighedRotor, &weight };

} // namespace deepstop::checks

namespace deepstop::lines {

inline constexpr std::string_view cornerWeight = "corner-weight";

} // namespace deepstop::lines
