#pragma once
/// Scanned parts but for wheels: rotor, caliper, knuckle.

#include "cli/commands.hpp"
#include "scan/into_build.hpp"

namespace deepstop::cli {

/// A scan as the build names it: from where the build lies.
[[nodiscard]] scan::ScanFile fileBeside(const std::string& path, const std::string& hash, const std::string& build);
/// @param scan the command that they stand under
void addPartScanCommands(CLI::App& scan, int& code);

} // namespace deepstop::cli
