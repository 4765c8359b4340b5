#pragma once
/// The caliper's envelope at its real size, to cut from card and try inside a real wheel.

#include "paper/paper.hpp"
#include "verdict/findings.hpp"

namespace deepstop::report {

struct CaliperTemplate {
    std::optional<paper::Drawing> drawing;
    std::string lacks; ///< one sentence where there is no drawing
};

/// x is z along the axle, outboard to the right, 0 at the wheel's mounting face; y is the distance from the axis. The outline to cut is
/// the body's envelope with everything that stands proud, and a leg down to the axis whose outboard edge lies on the mounting face.
/// Nothing without a corner, or while a reading of the caliper's outline, of hat or slot lacks.
/// @param date ISO, for the title block
[[nodiscard]] CaliperTemplate caliperTemplate(const Study& study, Axle axle, const std::string& date);

/// The cutting line of the dust shield as a drawing with dimensions, seen from outboard, or nothing while a reading lacks or nothing
/// has to be cut.
[[nodiscard]] CaliperTemplate shieldDrawing(const Study& study, Axle axle, const std::string& date);

} // namespace deepstop::report
