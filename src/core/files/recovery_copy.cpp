#include "files/recovery_copy.hpp"

#include "language/language.hpp"

#include <nlohmann/json.hpp>

namespace deepstop::files {

std::string writeCopy(const RecoveryCopy& copy)
{
    auto typed = nlohmann::json::array();
    for (const auto& each : copy.typed)
        typed.push_back({ { "at", each.at }, { "text", each.text } });
    const nlohmann::json json { { "path", copy.path }, { "build", writeBuild(copy.file) }, { "on_disk", copy.onDisk },
        { "typed", std::move(typed) } };
    // A path may be any bytes; rather a wrong letter in it than no copy.
    return json.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
}

RecoveryCopy parseCopy(std::string_view text)
{
    const auto json = nlohmann::json::parse(text, nullptr, false);
    const auto textAt = [](const nlohmann::json& of, const char* key) {
        return of.is_object() && of.contains(key) && of[key].is_string() ? of[key].get<std::string>() : std::string();
    };
    const auto build = textAt(json, "build");
    if (build.empty())
        throw Refusal(tr("the copy is damaged: it holds no build."));
    RecoveryCopy copy { parseBuild(build), textAt(json, "path"), textAt(json, "on_disk"), {} };
    if (json.contains("typed") && json["typed"].is_array())
        for (const auto& each : json["typed"])
            copy.typed.push_back({ textAt(each, "at"), textAt(each, "text") });
    else if (const auto at = textAt(json, "typed_at"); !at.empty()) // as programs of before wrote it
        copy.typed.push_back({ at, textAt(json, "typed") });
    return copy;
}

} // namespace deepstop::files
