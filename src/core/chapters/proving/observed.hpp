#pragma once
/// Inside the chapter: what was seen, felt or read on a brake tester, beside what is worked out.

#include "study/study.hpp"

namespace deepstop {

/// Which axle locked first, wheels against each other on a tester, fade as felt, the booster's test; only what somebody said.
void addObserved(Study& study);

} // namespace deepstop
