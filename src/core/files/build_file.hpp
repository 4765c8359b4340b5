#pragma once
/// Build files: JSON in, a Build out, and back. The format is published in data/schema/build-2.schema.json.

#include "build/build.hpp"
#include "files/refusal.hpp"

#include <nlohmann/json_fwd.hpp>

#include <filesystem>
#include <memory>
#include <string>
#include <string_view>

namespace deepstop::files {

inline constexpr int buildVersion = 2;

/// A build and what else its file held: keys this version does not know, kept for the next save.
struct BuildFile {
    Build build;
    std::shared_ptr<const nlohmann::json> unknown;
};

/// Reads a build from the text of its file.
/// Throws Refusal, one line, with line and column for broken JSON, or the JSON pointer, what stands there and what unit is expected.
/// Refuses text that is empty, not UTF-8, nested deeper than 32, names a key twice, or does not satisfy the schema.
[[nodiscard]] BuildFile parseBuild(std::string_view text);
[[nodiscard]] std::string writeBuild(const BuildFile& file);

/// `parseBuild` of the file at `path`; the path stands first in a refusal.
[[nodiscard]] BuildFile loadBuild(const std::filesystem::path& path);
/// Replaces `path` whole or not at all, keeping the version before as `path~`. Throws Refusal.
void saveBuild(const std::filesystem::path& path, const BuildFile& file);

/// The published JSON Schema (draft 7) of build files, made from the table of fields.
[[nodiscard]] const nlohmann::json& buildSchema();

} // namespace deepstop::files
