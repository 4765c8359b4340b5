#pragma once
/// Build files: JSON in, a Build out, and back. The format is published in data/schema/build-3.schema.json.

#include "build/edit.hpp"
#include "files/refusal.hpp"

#include <nlohmann/json_fwd.hpp>

#include <chrono>
#include <filesystem>
#include <memory>
#include <string>
#include <string_view>

namespace deepstop::files {

/// A program opens files of its own version and all before; of a later minor version too, and keeps what it does not know.
inline constexpr int buildVersion = 3;
inline constexpr int buildMinor = 5;

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

/// Keys that `before` came with and this program does not know, for `after`, which an edit made of it: they stay with the elements of lists
/// that they stood in, wherever those stand now, and go with those that are gone. Null for null.
[[nodiscard]] std::shared_ptr<const nlohmann::json> movedAlong(
    const std::shared_ptr<const nlohmann::json>& unknown, const Build& before, const Build& after);

/// `parseBuild` of the file at `path`; the path stands first in a refusal.
[[nodiscard]] BuildFile loadBuild(const std::filesystem::path& path);
/// Replaces `path` whole or not at all, keeping the version before as `path~`. What is to be written is read first: nothing is written that
/// could not be opened again. Throws Refusal.
void saveBuild(const std::filesystem::path& path, const BuildFile& file);
/// Applies `edit` to the build that the file at `path` holds, alone: nobody else writes it between reading and writing.
/// @param patience for whoever has it in use. Throws Refusal as loading and saving do, for a file in use, and where the edit does not
/// apply.
BuildFile changeBuild(const std::filesystem::path& path, const Edit& edit, std::chrono::milliseconds patience = std::chrono::seconds(30));

/// The published JSON Schema (draft 7) of build files, made from the table of fields.
[[nodiscard]] const nlohmann::json& buildSchema();

} // namespace deepstop::files
