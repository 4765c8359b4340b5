#include "build/edit.hpp"

#include <algorithm>

namespace deepstop {

std::shared_ptr<const Build> applied(const Edit& edit, const Build& build)
{
    auto changed = edit ? edit(build) : std::nullopt;
    return changed ? std::make_shared<const Build>(*std::move(changed)) : nullptr;
}

Setup* setupIn(Build& build, const std::string& id)
{
    const auto found = std::ranges::find(build.setups, id, &Setup::id);
    return found == build.setups.end() ? nullptr : &*found;
}

} // namespace deepstop
