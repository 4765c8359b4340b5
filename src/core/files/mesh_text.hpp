#pragma once
/// Meshes as scanners write them: STL (binary and text), PLY (text, little and big endian), OBJ. Any bytes are read or refused, in time
/// that goes with their number; no other file is opened.

#include "files/refusal.hpp"
#include "scan/mesh.hpp"

#include <string>
#include <string_view>

namespace deepstop::files {

/// No mesh has more.
inline constexpr std::size_t mostTriangles = 20'000'000;

/// By what the file begins with, whatever its name. Throws Refusal for what is none of them, is cut short, damaged, has more than
/// `mostTriangles` or none. Corners that are no numbers take their triangle with them; faces of more corners are cut into triangles.
/// @param name for what is said
[[nodiscard]] scan::Mesh readMesh(std::string_view bytes, const std::string& name);

} // namespace deepstop::files
