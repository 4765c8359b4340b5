#pragma once
/// Weights: what a corner weighs, what of it turns, and whether scale and dimensions agree.

#include "verdict/findings.hpp"

namespace deepstop {

struct CornerWeights {
    Figure ringMass;
    Figure rotorMass;
    Figure cornerMass;
    std::vector<std::string> lacks; ///< parts not weighed, in words
    Figure rotatingInertia;
    Figure heatStore; ///< of one ring, J/K
};

using Weights = BeforeAfter<PerAxle<CornerWeights>>;

void addWeights(Study& study);

} // namespace deepstop
