#pragma once
/// The parts library as a file: JSON, published in data/schema/library-1.schema.json.

#include "files/refusal.hpp"
#include "library/library.hpp"

#include <nlohmann/json_fwd.hpp>

#include <chrono>
#include <filesystem>
#include <string>
#include <string_view>

namespace deepstop::files {

/// A shelf may hold tens of thousands of parts; more than this is no library.
inline constexpr std::uintmax_t largestLibrary = 128u << 20;

/// Throws Refusal as `parseBuild` does. Keys this version does not know are passed over.
[[nodiscard]] library::Library parseLibrary(std::string_view text);
[[nodiscard]] std::string writeLibrary(const library::Library& library);
/// The library at `path`; an empty one where there is no file. Throws Refusal.
[[nodiscard]] library::Library loadLibrary(const std::filesystem::path& path);
void saveLibrary(const std::filesystem::path& path, const library::Library& library);
/// Puts `more` into the library at `path` while nobody else writes there; waits for others at most `patience`. Returns how many parts were
/// new. Throws Refusal.
std::size_t addToLibrary(const std::filesystem::path& path, library::Library more, std::chrono::milliseconds patience);
/// The same with another builder's library beside what is there, as by `unite`.
library::United uniteLibrary(const std::filesystem::path& path, library::Library more, std::chrono::milliseconds patience);

[[nodiscard]] const nlohmann::json& librarySchema();

} // namespace deepstop::files
