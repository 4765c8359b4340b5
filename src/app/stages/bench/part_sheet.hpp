#pragma once
/// What the bench's sheets have in common: paths, inks, and a column of facts beside the drawing.

#include "chapters/clearance/clearance.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include "drawing/shapes.hpp"

#include <cmath>
#include <numbers>

namespace deepstop::app {

/// What stands in where a length is not read.
inline double orElse(double value, double otherwise) { return std::isfinite(value) ? value : otherwise; }

inline QPainterPath ring(QPointF centre, double outer, double inner)
{
    QPainterPath path = circle(centre, outer);
    path.addPath(circle(centre, inner));
    return path;
}

/// A sheet about one part of the corner that the setup after has on an axle.
class PartSheet {
public:
    PartSheet(const Study& s, Axle a, const QString& part)
        : study(s), axle(a), after(s.of<Clearance>().after.at(a).left), before(s.of<Clearance>().before.at(a).left),
          corner(cornerPointer(s, s.after, a)), two(s.before.setup != s.after.setup && after.corner != before.corner)
    {
        sheet.title = (axle == Axle::Front ? QObject::tr("Front %1") : QObject::tr("Rear %1")).arg(part);
        sheet.subtitle = two
            ? QObject::tr("%1, beside it dashed %2 · %3")
                  .arg(QString::fromStdString(s.after.setup->name), QString::fromStdString(s.before.setup->name), unitNote(s))
            : QStringLiteral("%1 · %2").arg(QString::fromStdString(s.after.setup->name), unitNote(s));
    }

    void horizontal(const std::string& key, double x0, double x1, double y, double row, const QString& caption = {},
        const QString& prefix = {}, double along = 0.5)
    {
        sheet.dimensions.push_back({ corner + key, prefix, { x0, y }, { x1, y }, Run::Horizontal, row, false, caption, along });
    }
    void vertical(const std::string& key, double y0, double y1, double x, double column, const QString& caption = {},
        const QString& prefix = {}, double along = 0.5)
    {
        sheet.dimensions.push_back({ corner + key, prefix, { x, y0 }, { x, y1 }, Run::Vertical, column, false, caption, along });
    }
    void leader(const std::string& key, QPointF from, QPointF wish, const QString& caption, const QString& prefix = {}, bool unit = false,
        bool mayLack = false, const QString& blank = {})
    {
        sheet.dimensions.push_back({ corner + key, prefix, from, wish, Run::Leader, 0, unit, caption, 0.5, mayLack, blank });
    }
    /// Sheet units of one screen pixel when the sheet is seen whole in the smallest comfortable window; boxes keep their size in pixels.
    [[nodiscard]] double pixel() const { return std::max(sheet.extent.width() / 756, sheet.extent.height() / 508); }
    void axisLine(QPointF from, QPointF to)
    {
        sheet.line(QPolygonF { from, to }, { theme().ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    }

    static Ink ghost() { return { theme().found, 1.4, Qt::DashLine, {}, Hatch::None, {}, 0 }; }
    static Ink cut() { return { theme().proposal, 1.7, Qt::SolidLine, theme().proposalWash, Hatch::Falling, theme().proposal, 6 }; }
    static Ink plate() { return { theme().ink, 1.4, Qt::SolidLine, theme().metalWash, Hatch::None, {}, 0 }; }
    static Ink hole() { return { theme().ink, 1.2, Qt::SolidLine, theme().paper, Hatch::None, {}, 0 }; }
    static Ink thin() { return { theme().metal, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 }; }

    Sheet sheet;
    const Study& study;
    Axle axle;
    const CornerClearance& after;
    const CornerClearance& before;
    std::string corner;
    bool two;
};

} // namespace deepstop::app
