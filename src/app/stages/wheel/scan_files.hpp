#pragma once
/// Scans and solids beside the build they were read for.

#include "scan/into_build.hpp"

#include <QString>

namespace deepstop::app {

/// Copies a file into the folder that lies beside the build, unless it lies there. Another file of that name is somebody else's: this one
/// is called otherwise. Throws Refusal.
[[nodiscard]] QString copiedBeside(const QString& file, const QString& build);
/// As the build names it: from where the build lies.
/// @param hash SHA-256 of the file
/// @param build its path; empty: it is nowhere yet
[[nodiscard]] scan::ScanFile scanFile(const QString& file, const std::string& hash, const QString& build);

} // namespace deepstop::app
