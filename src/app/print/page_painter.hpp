#pragma once
/// Pages on the screen and on a printer: the same strokes and letters, drawn by the same hand.

#include "paper/paper.hpp"

class QPainter;

namespace deepstop::app {

/// Draws `page` with its upper left corner at the painter's origin.
/// @param unitsPerMetre of the painter: dots per metre on a printer, pixels per metre on the screen
void paintPage(QPainter& painter, const paper::Page& page, double unitsPerMetre);

} // namespace deepstop::app
