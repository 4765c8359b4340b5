#include "build/edit.hpp"

#include <algorithm>

namespace deepstop {

Setup* setupIn(Build& build, const std::string& id)
{
    const auto found = std::ranges::find(build.setups, id, &Setup::id);
    return found == build.setups.end() ? nullptr : &*found;
}

} // namespace deepstop
