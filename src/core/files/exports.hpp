#pragma once
/// Files written out of a build: what else is kept on this disk is never replaced by one.

#include "files/refusal.hpp"

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::files {

/// Whether two names lead to one file, there or not.
[[nodiscard]] bool isSameFile(const std::filesystem::path& one, const std::filesystem::path& other);

/// Before anything is worked out: throws Refusal where something that is to be written is read as well, or is to be written twice. Empty
/// names are passed over.
void checkOutputs(const std::vector<std::string>& read, const std::vector<std::string>& written);

/// Writes a file out of a build, as `replaceFile`. Throws Refusal where that name holds a build or a parts library.
void exportFile(const std::filesystem::path& path, std::string_view bytes);

} // namespace deepstop::files
