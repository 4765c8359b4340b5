#pragma once
/// The work of two people on one file, put together.

#include "build/build.hpp"

#include <optional>

namespace deepstop::files {

/// `mine` with everything that `theirs` says otherwise than `base`, from which both began. Ticks go by their steps, parts by their ids,
/// what both added to the end of a list one after the other. A reading is taken whole or not at all.
/// @return nothing where both said something different of the same, or lists no longer fit each other: somebody has to choose
[[nodiscard]] std::optional<Build> together(const Build& base, const Build& mine, const Build& theirs);

} // namespace deepstop::files
