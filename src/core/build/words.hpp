#pragma once
/// Axle and side in words.

#include "build/build.hpp"

#include <string_view>

namespace deepstop {

[[nodiscard]] constexpr std::string_view wordOf(Axle axle) { return axle == Axle::Front ? "front" : "rear"; }
[[nodiscard]] constexpr std::string_view wordOf(Side side) { return side == Side::Left ? "left" : "right"; }

} // namespace deepstop
