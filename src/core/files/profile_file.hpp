#pragma once
/// A wheel's inside as somebody has drawn it: a list (CSV) or a section (DXF), taken as it is.

#include "files/refusal.hpp"
#include "scan/into_build.hpp"

#include <string>
#include <string_view>

namespace deepstop::files {

/// CSV: a first line with `depth_mm` and `inside_radius_mm`, or `radius_mm` and `distance_mm`, or all four (or _in); a line a place, empty
/// where it is only of the other. DXF: lines and polylines on the layers BARREL and SPOKES, x inboard of the mounting face, y the radius,
/// in millimetres unless it says inches. Throws Refusal that names the file and line: curves, which no straight line stands for, too.
[[nodiscard]] scan::WheelProfile readProfile(std::string_view bytes, const std::string& name);

} // namespace deepstop::files
