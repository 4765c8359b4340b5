#pragma once
/// The draughtsman's hand: hatching, dimension lines with arrows, leaders. Everything here is in screen pixels.

#include "drawing/sheet.hpp"

class QPainter;

namespace deepstop::app {

void inkArea(QPainter& p, const QPainterPath& path, const Ink& ink);
/// Where letters at `at` stand.
[[nodiscard]] QRectF lettersBox(QPointF at, const Lettering& letters);
void inkLetters(QPainter& p, QPointF at, const Lettering& letters);
/// Extension lines, dimension line with arrows at its ends (outside where there is no room), and a thin leader to a label that had to move.
/// @param line screen position of the dimension line: y for a horizontal run, x for a vertical one
void inkDimension(QPainter& p, QPointF from, QPointF to, Run run, QPointF line, const QRectF& label, const QColor& colour, bool strong);
/// A short double arrow across the gap and a leader to its label.
void inkCallout(QPainter& p, QPointF from, QPointF to, const QRectF& label, const QColor& colour);

} // namespace deepstop::app
