#pragma once
/// What an element of a list in a build file goes by.

#include <nlohmann/json_fwd.hpp>

#include <string>
#include <string_view>

namespace deepstop::files {

/// Its id, or what it belongs to where there is one for each: a step, an item, a setup, a corner. Empty: it goes by its place alone.
/// @param list the key its list stands under
[[nodiscard]] std::string nameIn(std::string_view list, const nlohmann::ordered_json& element);

} // namespace deepstop::files
