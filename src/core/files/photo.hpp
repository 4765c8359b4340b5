#pragma once
/// Photographs that go into letters: read as they are, their size looked up, never altered.

#include "paper/paper.hpp"

#include <cstdint>
#include <filesystem>
#include <string>
#include <string_view>

namespace deepstop::files {

/// No photograph in a letter is larger.
inline constexpr std::uintmax_t largestPhoto = 24u << 20;

/// Width and height of a PNG or JPEG file's picture by its header. Throws Refusal for anything else, a damaged header, no or more than
/// 100 million points.
[[nodiscard]] paper::Photo photoFrom(std::string bytes);

/// The photograph at `path`. Throws Refusal that names it, for whatever `readFile` and `photoFrom` refuse.
[[nodiscard]] paper::Photo readPhoto(const std::filesystem::path& path);

/// Bytes as letters that stand in HTML (RFC 4648, base64 with padding).
[[nodiscard]] std::string base64(std::string_view bytes);

} // namespace deepstop::files
