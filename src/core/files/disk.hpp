#pragma once
/// Bytes in from disk, with a limit, and out to disk, whole or not at all.

#include "files/refusal.hpp"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <string>
#include <string_view>

namespace deepstop::files {

/// No build file comes near this; a larger file is refused before it is read, and none is written.
inline constexpr std::uintmax_t largestFile = 8u << 20;

/// The bytes of `path`. Throws Refusal for a missing, unreadable, special or too large file.
[[nodiscard]] std::string readFile(const std::filesystem::path& path, std::uintmax_t limit = largestFile);

/// What `read` gives; its Refusal names the file first, if it does not yet.
template <class Read>
auto namingFile(const std::filesystem::path& path, Read read)
{
    try {
        return read();
    } catch (const Refusal& refusal) {
        const std::string said = refusal.what();
        throw Refusal(said.starts_with(path.string()) ? said : path.string() + ": " + said);
    }
}

/// Where a name leads in the end: links are followed, one to nothing as well. Throws Refusal for a link that leads to itself.
[[nodiscard]] std::filesystem::path targetOf(const std::filesystem::path& path);

enum class Privacy { AsBefore, OwnerAlone };

/// Replaces `path` by `bytes` so that at every moment, even through a crash, the file is the old version whole or the new one whole.
/// The version replaced is kept as `path~`. A symbolic link is followed; permissions of the old file are kept.
/// Throws Refusal with the system's reason, and for folders, devices, pipes and files that are write-protected; the old file is then
/// untouched.
/// @param privacy OwnerAlone: nobody else may read it, from its first byte on
void replaceFile(const std::filesystem::path& path, std::string_view bytes, Privacy privacy = Privacy::AsBefore);

/// Takes away what a writer that was killed left beside `path`; what a living one is writing stays.
void removeLeftovers(const std::filesystem::path& path);

/// What `write` puts into the file it is given the name of, for libraries that write files only. It lies in memory: no folder for
/// temporary files is needed and no disk can be full. Throws Refusal when `write` says false or throws one itself.
[[nodiscard]] std::string writtenThrough(const std::function<bool(const char* path)>& write);

} // namespace deepstop::files
