#pragma once
/// What becomes of gaps that were read at a mock-up when the parts they were read with change.

#include "build/build.hpp"

namespace deepstop {

/// Where an edit changed shims, ring, hat, rotor or bracket of a corner and left the gaps that were read there as they were: what was read
/// goes to the corner's history, and each gap becomes an estimate, moved by what the change moves it. A slot's centre and a pad's edge that
/// were read with the shims go along. Dimensions that only came to be known, or changed within their plus-or-minus, move nothing; shims
/// nobody had said neither.
void foretellGaps(const Build& before, Build& now);

/// The same of gaps read with the wheel on and spun: read anew they are of the wheel that is on; where an edit changed wheel, spacer, ring,
/// hat, caliper, bracket or shims under them, they become estimates, moved as far as plane geometry moves them, and say what changed.
void foretellSpun(const Build& before, Build& now);

/// Both, as every edit does it.
inline void foretell(const Build& before, Build& now)
{
    foretellGaps(before, now);
    foretellSpun(before, now);
}

} // namespace deepstop
