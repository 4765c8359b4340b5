#include "files/element_name.hpp"

#include <nlohmann/json.hpp>

namespace deepstop::files {

std::string nameIn(std::string_view list, const nlohmann::ordered_json& element)
{
    if (!element.is_object())
        return {};
    const auto text = [&](const char* key) {
        return element.contains(key) && element[key].is_string() ? element[key].get<std::string>() : std::string();
    };
    for (const char* key : { "id", "step", "item" })
        if (element.contains(key))
            return text(key);
    if (list == "mock_ups" || list == "wear")
        return text("setup") + "/" + text("axle") + "/" + text("side");
    return list == "cards" ? text("setup") : std::string();
}

} // namespace deepstop::files
