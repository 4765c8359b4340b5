#include "files/recovery_copy.hpp"

#include <nlohmann/json.hpp>

namespace deepstop::files {

std::string writeCopy(const RecoveryCopy& copy)
{
    const nlohmann::json json { { "path", copy.path }, { "build", writeBuild(copy.file) }, { "on_disk", copy.onDisk },
        { "typed_at", copy.typedAt }, { "typed", copy.typed } };
    // A path may be any bytes; rather a wrong letter in it than no copy.
    return json.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
}

RecoveryCopy parseCopy(std::string_view text)
{
    const auto json = nlohmann::json::parse(text, nullptr, false);
    const auto textAt = [&json](const char* key) {
        const auto found = json.is_object() ? json.find(key) : json.end();
        return json.is_object() && found != json.end() && found->is_string() ? found->get<std::string>() : std::string();
    };
    const auto build = textAt("build");
    if (build.empty())
        throw Refusal("the copy is damaged: it holds no build.");
    return { parseBuild(build), textAt("path"), textAt("on_disk"), textAt("typed_at"), textAt("typed") };
}

} // namespace deepstop::files
