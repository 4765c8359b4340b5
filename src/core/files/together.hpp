#pragma once
/// The work of two people on one file, put together.

#include "build/edit.hpp"

#include <memory>
#include <optional>

namespace deepstop::files {

/// `mine` with everything that `theirs` says otherwise than `base`, from which both began. Ticks go by their steps, parts by their ids,
/// mock-ups by their corners, what both added to the end of a list one after the other; an element without such a name goes by its place,
/// and only one of the two may have changed it. A reading is taken whole or not at all.
/// @return nothing where both said something different of the same, or lists no longer fit each other: somebody has to choose
[[nodiscard]] std::optional<Build> together(const Build& base, const Build& mine, const Build& theirs);

/// The edit that makes `after` of `base`. Of a build that says more since, it makes the same change; nothing where that build says
/// something else by now of what is to be changed.
[[nodiscard]] Edit editBetween(std::shared_ptr<const Build> base, std::shared_ptr<const Build> after);

} // namespace deepstop::files
