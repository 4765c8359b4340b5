#pragma once

#include <filesystem>

namespace deepstop::files {

/// Where what ships with the program lies: `share/deepstop` beside the folder of an installed program, else the tree it was built from.
[[nodiscard]] std::filesystem::path dataFolder();
/// Where its catalogues lie, a folder a language: `share/locale` beside the folder of an installed program, else the folder it was built
/// in.
[[nodiscard]] std::filesystem::path catalogueFolder();

} // namespace deepstop::files
