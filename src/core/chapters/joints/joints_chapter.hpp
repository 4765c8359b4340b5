#pragma once
/// Joints: thread, length, torque and slip of every bolted joint.

#include "verdict/findings.hpp"

namespace deepstop {

void addJoints(Study& study);

} // namespace deepstop
