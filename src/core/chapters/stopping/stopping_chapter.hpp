#pragma once
/// Stopping: what the brakes can hold, what limits the stop, and how long it is.

#include "stopping/drive.hpp"
#include "verdict/findings.hpp"

namespace deepstop {

struct CornerBrake {
    Figure effectiveRadius;
    Figure pistonArea; ///< of one side
    Figure torque; ///< at one wheel at full pressure
};

struct SetupStopping {
    PerAxle<CornerBrake> brakes;
    std::optional<stopping::Braking> braking; ///< at nominal readings
    Figure deceleration; ///< over g
    Figure frontShare; ///< of the braking
    Figure distance; ///< from the test speed
    std::optional<stopping::StopSimulation> stop;
};

using Stopping = BeforeAfter<SetupStopping>;

void addStopping(Study& study);
/// Both stops at the readings' own values, enough to draw.
void drawStopping(Study& study);

} // namespace deepstop
