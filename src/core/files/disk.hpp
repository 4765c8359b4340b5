#pragma once
/// Bytes in from disk, with a limit, and out to disk, whole or not at all.

#include "files/refusal.hpp"

#include <cstdint>
#include <filesystem>
#include <string>
#include <string_view>

namespace deepstop::files {

/// No build file comes near this; a larger file is refused before it is read.
inline constexpr std::uintmax_t largestFile = 8u << 20;

/// The bytes of `path`. Throws Refusal for a missing, unreadable, special or too large file.
[[nodiscard]] std::string readFile(const std::filesystem::path& path, std::uintmax_t limit = largestFile);

/// Replaces `path` by `bytes` so that at every moment, even through a crash, the file is the old version whole or the new one whole.
/// The version replaced is kept as `path~`. A symbolic link is followed; permissions of the old file are kept.
/// Throws Refusal with the system's reason; the old file is then untouched.
void replaceFile(const std::filesystem::path& path, std::string_view bytes);

} // namespace deepstop::files
