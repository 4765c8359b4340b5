#pragma once
/// Parts: what meets what on the bench (hub and hat, bolts and lugs, hoses, pads, drum), wear, runout, and what unpacking found.

#include "verdict/findings.hpp"

namespace deepstop {

void addParts(Study& study);

// Its part.
/// What meets what on the bench, of one axle.
void addBenchVerdicts(Study& study, Axle axle);

} // namespace deepstop
