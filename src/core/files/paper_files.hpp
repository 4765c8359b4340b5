#pragma once
/// Drawings and pages as PDF, SVG and DXF, at their real size.

#include "files/refusal.hpp"
#include "paper/paper.hpp"

#include <span>
#include <string>

namespace deepstop::files {

/// Throws Refusal for a drawing that is empty, or reaches farther than any part of a car: 20 m. No library is given such figures.
void checkDrawable(const paper::Drawing& drawing);

/// Bytes of a PDF (cairo), a page each; one point is 1/72 in. Letters are those the program ships. Throws Refusal without a page.
[[nodiscard]] std::string pdfOf(std::span<const paper::Page> pages, const std::string& title);

/// How wide a line of lettering of that height is, as `pdfOf` and `svgOf` draw it, m.
[[nodiscard]] double widthOfLetters(const std::string& text, double height);

/// Bytes of an SVG (cairo) of the drawing, its width and height in real millimetres. Throws Refusal for an empty drawing.
[[nodiscard]] std::string svgOf(const paper::Drawing& drawing);

/// Text of a DXF, AutoCAD 2000 release (dxflib), one unit is one millimetre; a layer each for cuts, outlines, hidden lines, axes, thin
/// lines and lettering. Throws Refusal for an empty drawing, or when no temporary file can be written.
[[nodiscard]] std::string dxfOf(const paper::Drawing& drawing);

/// Writes the bytes to `path` by its ending: .pdf (tiled on `size`), .svg or .dxf. Throws Refusal for another ending.
void writePaper(const std::string& path, const paper::Drawing& drawing, const paper::Size& size, const paper::BarsRead& read = {});

} // namespace deepstop::files
