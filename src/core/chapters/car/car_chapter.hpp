#pragma once
/// Car: what is known of it, for everything later rests on that.

#include "verdict/findings.hpp"

namespace deepstop {

void addCar(Study& study);

} // namespace deepstop
