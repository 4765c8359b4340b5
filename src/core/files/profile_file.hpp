#pragma once
/// A wheel's inside as somebody has drawn it: a list (CSV) or a section (DXF), taken as it is.

#include "build/edit.hpp"
#include "files/refusal.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace deepstop::files {

struct WheelProfile {
    struct Place {
        double along = 0; ///< m: depth inboard of the mounting face, or radius of a spoke's place
        double across = 0; ///< m: inside radius, or distance outboard of the mounting face
        bool bend = false; ///< straight lines run to its neighbours
    };
    std::vector<Place> barrel;
    std::vector<Place> spokes;
};

/// CSV: a first line with `depth_mm` and `inside_radius_mm`, or `radius_mm` and `distance_mm`, or all four (or _in); a line a place, empty
/// where it is only of the other. DXF: lines and polylines on the layers BARREL and SPOKES, x inboard of the mounting face, y the radius,
/// in millimetres unless it says inches. Throws Refusal that names the file and line: curves, which no straight line stands for, too.
[[nodiscard]] WheelProfile readProfile(std::string_view bytes, const std::string& name);

/// Puts it into the wheel with that id in place of what stood there, known from its vendor; where no wheel has it, into a new one.
[[nodiscard]] Edit profileEdit(WheelProfile profile, std::string wheel);

} // namespace deepstop::files
