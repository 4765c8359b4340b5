#pragma once
/// A drawing for the shop on a sheet that is only looked at.

#include "drawing/sheet.hpp"
#include "paper/paper.hpp"

namespace deepstop::app {

[[nodiscard]] Sheet shopSheet(const paper::Drawing& drawing);

} // namespace deepstop::app
