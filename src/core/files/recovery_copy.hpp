#pragma once
/// A copy of unsaved work as a file: the build's own text inside, with where it belongs and what was being typed.

#include "files/build_file.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace deepstop::files {

/// A build inside a copy is text inside text, and a copy is made of any build.
inline constexpr std::uintmax_t largestCopy = 32u << 20;

struct RecoveryCopy {
    BuildFile file;
    std::string path; ///< of the file it belongs to; empty: never saved
    std::string onDisk; ///< fingerprint, in hexadecimal, of what that file held when the work on it began
    struct Typed {
        std::string at; ///< field that was typed into
        std::string text; ///< what stands there
        bool operator==(const Typed&) const = default;
    };
    std::vector<Typed> typed; ///< and was not put in yet
};

[[nodiscard]] std::string writeCopy(const RecoveryCopy& copy);
/// Throws Refusal for what is no copy, and as `parseBuild` does for the build in it. What else is damaged is left out.
[[nodiscard]] RecoveryCopy parseCopy(std::string_view text);

} // namespace deepstop::files
