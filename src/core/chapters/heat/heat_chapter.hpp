#pragma once
/// Heat: what a ring takes in one stop.

#include "verdict/findings.hpp"

namespace deepstop {

struct CornerHeat {
    Figure heatStore; ///< of one ring, J/K
    Figure stopRise; ///< of one ring in one stop from the test speed, K
    std::vector<std::pair<double, double>> riseOverSpeed; ///< speed, rise of one ring in one stop from it; at nominal readings
};

using Heat = BeforeAfter<PerAxle<CornerHeat>>;

void addHeat(Study& study);
void settleHeat(Study& study);
/// What the picture of the rings needs; a duty takes its time.
void drawHeat(Study& study);

} // namespace deepstop
