#pragma once
/// Changes of a build. An edit is a function of the build as it is when the edit is applied.

#include "build/build.hpp"

#include <functional>
#include <memory>
#include <optional>
#include <string>

namespace deepstop {

/// What a build becomes; nothing where the edit does not apply to it (its setup or duty is gone).
using Edit = std::function<std::optional<Build>(const Build&)>;

/// The build with an edit in it; null where the edit is empty or does not apply.
[[nodiscard]] std::shared_ptr<const Build> applied(const Edit& edit, const Build& build);

/// A setup that is to be changed; null where the build has none with that id.
[[nodiscard]] Setup* setupIn(Build& build, const std::string& id);

} // namespace deepstop
