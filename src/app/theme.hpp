#pragma once
/// Colours and lettering: ink on drawing paper by day, chalk on slate by night.

#include <QColor>
#include <QFont>

#include "study/study.hpp"

class QPainter;
class QRectF;

namespace deepstop::app {

struct Theme {
    bool dark;
    QColor paper; ///< the sheet
    QColor board; ///< what the sheet lies on: rail and slip
    QColor raised; ///< fields and cards
    QColor ink;
    QColor mute; ///< secondary lettering, still readable
    QColor rule; ///< thin lines
    QColor proposal; ///< the setup judged
    QColor proposalWash;
    QColor found; ///< the car as found, dashed
    QColor metal; ///< section hatching of wheel, hub, rotor
    QColor metalWash;
    QColor lining;
    QColor block; ///< the title block at the bottom
    QColor blockInk;
    QColor blockMute;
    QColor good;
    QColor caution;
    QColor bad;
    QColor unproven;
    QColor focus;
};

/// The theme in use. Widgets read it while painting; `setDark` repaints them all.
[[nodiscard]] const Theme& theme();
void setDark(bool dark);
/// Registers the shipped fonts. Call once, before the first window.
void loadFonts();
/// Letters for figures, told apart at arm's length.
[[nodiscard]] QFont figures(double pixels);
/// Drafting letters, for titles.
[[nodiscard]] QFont drafting(double pixels);
/// Letters for running text.
[[nodiscard]] QFont reading(double pixels, QFont::Weight weight = QFont::Normal);
/// The same, smaller where `text` is wider than `width`, down to 8 pixels.
[[nodiscard]] QFont readingWithin(double pixels, QFont::Weight weight, const QString& text, int width);

[[nodiscard]] QColor colourOf(Level level);
/// The level as a shape: filled disc, ring, triangle, square with a bar. Never colour alone.
void drawLevel(QPainter& painter, const QRectF& box, Level level, const QColor& colour);

} // namespace deepstop::app
