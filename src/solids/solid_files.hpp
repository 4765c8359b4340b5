#pragma once
/// Plates and turned parts as solids (Open CASCADE): STEP for whoever machines them, STL for a copy in plastic to try.

#include "bracket/bracket.hpp"
#include "design/turned.hpp"
#include "files/refusal.hpp"

#include <string>

namespace deepstop::solids {

/// Text of a STEP file (AP214, millimetres) of the plate; its product is named by title, material and the sentence that a qualified
/// engineer has to judge it. Circles stay circles. Throws Refusal for a plate no solid can be made of.
[[nodiscard]] std::string stepOf(const bracket::Plate& plate);

/// Text of an STL file in millimetres, watertight, chords within 0.02 mm, its solid named “fit check only, never drive”.
[[nodiscard]] std::string stlOf(const bracket::Plate& plate);

/// The same of a part made on a lathe; x is its axis, outboard positive. Vanes stand between the plates, their long sides as chords.
[[nodiscard]] std::string stepOf(const design::Turned& part);
[[nodiscard]] std::string stlOf(const design::Turned& part);

/// Writes by the path's ending: .step, .stp, .stl, or as `files::writePaper` does. Throws Refusal for another.
void writePlate(const std::string& path, const bracket::Plate& plate, const paper::Drawing& drawing, const paper::Size& size);
void writeTurned(const std::string& path, const design::Turned& part, const paper::Drawing& drawing, const paper::Size& size);

} // namespace deepstop::solids
