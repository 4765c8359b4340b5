#pragma once
/// A kit as a file: JSON, published in data/schema/kit-1.schema.json.

#include "build/build.hpp"

#include <nlohmann/json_fwd.hpp>

#include <cstdint>
#include <filesystem>
#include <string>
#include <string_view>

namespace deepstop::files {

/// Throws Refusal, with the place, for a text that is no kit, or a kit without an axle. Keys this version does not know are passed over.
[[nodiscard]] Setup parseKit(std::string_view text);
/// The kit of a setup, as `library::kitOf` cleans it. Throws Refusal for a setup that brings no axle of its own.
[[nodiscard]] std::string writeKit(const Setup& setup);
/// No kit is larger.
inline constexpr std::uintmax_t largestKit = 4u << 20;
/// Throws Refusal with the file's name.
[[nodiscard]] Setup loadKit(const std::filesystem::path& path);
/// Writes the kit of a setup to a file of its own; where its name ends in .csv, the list of what it holds. Throws Refusal.
void exportKit(const std::filesystem::path& path, const Setup& setup);

[[nodiscard]] const nlohmann::json& kitSchema();

} // namespace deepstop::files
