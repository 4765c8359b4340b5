#pragma once
/// A copy of unsaved work as a file: the build's own text inside, with where it belongs and what was being typed.

#include "files/build_file.hpp"

#include <string>
#include <string_view>

namespace deepstop::files {

/// A build inside a copy is text inside text, and a copy is made of any build.
inline constexpr std::uintmax_t largestCopy = 32u << 20;

struct RecoveryCopy {
    BuildFile file;
    std::string path; ///< of the file it belongs to; empty: never saved
    std::string onDisk; ///< fingerprint, in hexadecimal, of what that file held when the work on it began
    std::string typedAt; ///< field that was being typed into
    std::string typed; ///< what stood there
};

[[nodiscard]] std::string writeCopy(const RecoveryCopy& copy);
/// Throws Refusal for what is no copy, and as `parseBuild` does for the build in it. What else is damaged is left out.
[[nodiscard]] RecoveryCopy parseCopy(std::string_view text);

} // namespace deepstop::files
