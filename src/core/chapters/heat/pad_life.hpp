#pragma once
/// How many times a duty the linings last.

#include "chapters/heat/duty_heat.hpp"

namespace deepstop {

/// Times the duty until the first lining of an axle is at its minimum, as its thinner side is now; lacks what nobody has read. Its width
/// is that of the readings alone: a compound's wear is known within a factor (`heat::wearUnsure`).
[[nodiscard]] Figure dutiesLeft(const Corner& corner, double worn);

/// What the axle that wears faster says.
void addPadLife(Study& study, const DutyStudy& duty);

} // namespace deepstop
