#pragma once
/// What is on a drawing: areas, lines, lettering, dimensions that can be typed into, and callouts of results.
/// Coordinates are the real thing's millimetres, x to the right, y down the sheet.

#include "build/edit.hpp"
#include "study/study.hpp"

#include <QColor>
#include <QPainterPath>
#include <QPolygonF>
#include <QRectF>
#include <QString>

#include <string>
#include <vector>

namespace deepstop::app {

enum class Hatch { None, Rising, Falling, Dense };

/// How an area or line is inked. Widths and spacings are in screen pixels, so a drawing keeps its hand at every zoom.
struct Ink {
    QColor stroke;
    double width = 1.2;
    Qt::PenStyle line = Qt::SolidLine;
    QColor fill;
    Hatch hatch = Hatch::None;
    QColor hatchColour;
    double spacing = 6;
};

struct Area {
    QPainterPath path;
    Ink ink;
};

struct Lettering {
    QPointF at;
    QString text;
    double pixels = 12;
    QColor colour;
    Qt::Alignment align = Qt::AlignCenter;
    bool draughted = true; ///< letters for figures, otherwise letters for reading
};

/// A table's entry stands where it is put, without a line.
enum class Run { Horizontal, Vertical, Leader, Table };

/// A dimension that is an input: the reading at `pointer`, drawn between `from` and `to`.
struct DimensionLine {
    std::string pointer;
    QString prefix; ///< "Ø "
    QPointF from;
    QPointF to; ///< for a leader: where the label would like to be; in a table: the middle of its left edge
    Run run = Run::Horizontal;
    double line = 0; ///< y of a horizontal dimension line, x of a vertical one
    bool unit = false; ///< shows its unit; lengths on a mechanical drawing do not
    QString caption; ///< small words beside the label
    double along = 0.5; ///< where on the line the label would like to be
    bool mayLack = false; ///< nothing read means nothing there: no ring, no spacer
    QString blank {}; ///< what then stands there; empty: "none"
};

/// Something named, counted or chosen, entered in a box of its own.
struct FactLine {
    std::string pointer;
    QString caption;
    QPointF at; ///< its top left corner
    double width = 120; ///< in screen pixels
    std::size_t before = 0; ///< how many dimensions are taken before it
    Edit made {}; ///< makes what it is of, where the build does not have that yet; empty where it has
};

/// A result shown where it is: clicking it selects its verdict.
struct Callout {
    std::string verdict;
    QString text;
    Level level = Level::Unproven;
    QPointF from;
    QPointF to;
    QPointF wish; ///< where the label would like to be
};

/// A place that can be dragged, and the reading that goes with it; typing into its dimension does the same.
struct Handle {
    std::string pointer;
    QPointF at;
    QPointF along; ///< unit vector on the sheet
    double metresPerMillimetre = 1e-3; ///< the reading grows by so much for each millimetre of the sheet along it
    double step = 0.1e-3; ///< dragged values are whole multiples of it
    Known known = Known::Estimated; ///< how a dragged value counts: nobody has measured it
};

struct Sheet {
    QRectF extent; ///< what has to be seen at the default zoom
    std::vector<Area> areas; ///< in painting order
    std::vector<Lettering> letters;
    std::vector<DimensionLine> dimensions; ///< in measuring order
    std::vector<FactLine> facts;
    std::vector<Callout> callouts;
    std::vector<Handle> handles;
    std::vector<QRectF> keepClear; ///< labels do not go here
    QString title;
    QString subtitle;
    bool shrinks = false; ///< made for little room: its boxes keep clear of each other however small it is shown
    bool scaleBar = true;

    void fact(const std::string& pointer, const QString& caption, QPointF at, double width = 120, Edit made = {})
    {
        facts.push_back({ pointer, caption, at, width, dimensions.size(), std::move(made) });
    }
    /// Everything that is entered, in measuring order.
    [[nodiscard]] std::vector<std::string> inOrder() const
    {
        std::vector<std::string> order;
        for (std::size_t i = 0; i <= dimensions.size(); ++i) {
            for (const FactLine& f : facts)
                if (f.before == i)
                    order.push_back(f.pointer);
            if (i < dimensions.size())
                order.push_back(dimensions[i].pointer);
        }
        return order;
    }

    void area(const QPainterPath& path, const Ink& ink) { areas.push_back({ path, ink }); }
    void line(const QPolygonF& points, const Ink& ink)
    {
        QPainterPath path;
        path.addPolygon(points);
        areas.push_back({ path, ink });
    }
    void letter(
        QPointF at, const QString& text, double pixels, const QColor& colour, Qt::Alignment align = Qt::AlignCenter, bool draughted = true)
    {
        letters.push_back({ at, text, pixels, colour, align, draughted });
    }
};

} // namespace deepstop::app
