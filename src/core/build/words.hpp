#pragma once
/// Axle and side in words.

#include "build/build.hpp"

#include "language/language.hpp"

#include <string_view>

namespace deepstop {

[[nodiscard]] constexpr std::string_view wordOf(Axle axle) { return axle == Axle::Front ? marked("front") : marked("rear"); }
[[nodiscard]] constexpr std::string_view wordOf(Side side) { return side == Side::Left ? marked("left") : marked("right"); }

} // namespace deepstop
