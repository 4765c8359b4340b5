#pragma once
/// Meshes from files: STL, PLY and OBJ, and the surface of a STEP file's solids (Open CASCADE).

#include "files/refusal.hpp"
#include "scan/mesh.hpp"

#include <filesystem>
#include <optional>

namespace deepstop::solids {

/// No file is larger, bytes.
inline constexpr std::uintmax_t largestMeshFile = 2'000'000'000;

struct LoadedMesh {
    scan::Mesh mesh;
    std::optional<scan::FileUnit> unit; ///< where the file itself says it
    std::string hash; ///< SHA-256 of the file, hexadecimal
};

/// By what the file begins with, whatever its name. Throws Refusal that names the file: one that is no mesh, is cut short, has no triangle,
/// or is too large. Corners that are no numbers take their triangle with them.
[[nodiscard]] LoadedMesh loadMesh(const std::filesystem::path& path);
/// The same of a file's bytes.
/// @param name for its ending, and for what is said
[[nodiscard]] LoadedMesh meshOf(const std::string& bytes, const std::string& name);

} // namespace deepstop::solids
