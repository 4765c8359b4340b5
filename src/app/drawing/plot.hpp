#pragma once
/// Axes on a sheet, and curves between them that end at their box.

#include "drawing/sheet.hpp"
#include "quantity/scale.hpp"

#include <functional>

namespace deepstop::app {

/// A box on the sheet and what its edges stand for. Values are already in the unit that is shown.
class Plot {
public:
    /// @param box millimetres of the sheet; @param most at its right and upper edges; @param from where the axis across begins: where that
    /// is not 0 its title has to say so. The upright one begins at 0.
    Plot(Sheet& sheet, QRectF box, QPointF most, double from = 0) : sheet_(sheet), box_(box), most_(most), from_(from) { }

    [[nodiscard]] QRectF box() const { return box_; }
    [[nodiscard]] QPointF most() const { return most_; }
    [[nodiscard]] QPointF at(double x, double y) const
    {
        return { box_.left() + (x - from_) / (most_.x() - from_) * box_.width(), box_.bottom() - y / most_.y() * box_.height() };
    }
    [[nodiscard]] double millimetresAcross(double x) const { return x / (most_.x() - from_) * box_.width(); }
    [[nodiscard]] double millimetresUp(double y) const { return y / most_.y() * box_.height(); }

    /// Lines, figures and titles with their units, at round steps of the largest decade that gives at most eight.
    void axes(const QString& across, const QString& up, int acrossDecimals, int upDecimals);
    /// The lines of `axes` across alone, without figures: for one of several plots on the same scale.
    void rules();
    /// A line through places given as values; what lies outside the box is left out.
    void curve(const QPolygonF& values, const Ink& ink);
    /// The same from one end of the box to the other.
    void level(double y, const Ink& ink) { curve({ QPointF(from_, y), QPointF(most_.x(), y) }, ink); }
    void area(const QPolygonF& values, const Ink& ink);
    /// A filled mark.
    void mark(QPointF value, double radius, const QColor& colour, bool hollow);
    [[nodiscard]] bool holds(QPointF value) const;

    /// A round number at or above `value`: one, two or five of a decade, or their halves.
    [[nodiscard]] static double roundUp(double value) { return deepstop::roundUp(value); }

private:
    Sheet& sheet_;
    QRectF box_;
    QPointF most_;
    double from_ = 0;
};

} // namespace deepstop::app
