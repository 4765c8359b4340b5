#pragma once
/// What two states of one build say differently, and whether a build may stand at all.

#include "build/build.hpp"
#include "quantity/format.hpp"

#include <string>
#include <vector>

namespace deepstop {

/// One field said differently; empty where one of the two says nothing of it.
struct Difference {
    std::string what; ///< "rotor thickness (Kit B, front)"
    std::string before;
    std::string after;
};

/// Every field that differs, in the order of the table; figures as a person reads them.
[[nodiscard]] std::vector<Difference> differences(const Build& before, const Build& after, UnitSystem system);

/// What of a build no file may hold - a reading outside its field's range, a list too long, text that cannot be written - as a sentence;
/// empty where all is sound. A build that is sound is read back as it was written.
[[nodiscard]] std::string faultIn(const Build& build);

} // namespace deepstop
