#include "drawing/inking.hpp"

#include "theme.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>
#include <vector>

namespace deepstop::app {
namespace {

void arrow(QPainter& p, QPointF tip, QPointF from, const QColor& colour)
{
    const QPointF along = tip - from;
    const double length = std::hypot(along.x(), along.y());
    if (length < 0.1)
        return;
    const QPointF unit = along / length;
    const QPointF side(-unit.y(), unit.x());
    p.save();
    p.setPen(Qt::NoPen);
    p.setBrush(colour);
    p.drawPolygon(QPolygonF { tip, tip - unit * 7 + side * 2.1, tip - unit * 7 - side * 2.1 });
    p.restore();
}

/// A line between two arrow heads; with no room for them between, they point in from outside.
void arrowed(QPainter& p, QPointF a, QPointF b, const QColor& colour)
{
    const QPointF along = b - a;
    const double length = std::hypot(along.x(), along.y());
    if (length >= 20) {
        p.drawLine(a, b);
        arrow(p, a, b, colour);
        arrow(p, b, a, colour);
    } else {
        const QPointF unit = length > 0.1 ? along / length : QPointF(0, 1);
        p.drawLine(a - unit * 13, b + unit * 13);
        arrow(p, a, a - unit * 13, colour);
        arrow(p, b, b + unit * 13, colour);
    }
}

QPointF nearestEdge(const QRectF& box, QPointF p)
{
    return { std::clamp(p.x(), box.left(), box.right()), std::clamp(p.y(), box.top(), box.bottom()) };
}

} // namespace

namespace {

/// Half-typed numbers make shapes that no sheet can hold; the rasteriser must never see them.
bool canBeDrawn(const QPainterPath& path)
{
    constexpr double farthest = 2e5; // pixels
    for (int i = 0; i < path.elementCount(); ++i) {
        const auto element = path.elementAt(i);
        // Not finite compares false.
        if (!(std::abs(element.x) < farthest && std::abs(element.y) < farthest))
            return false;
    }
    return true;
}

/// Lines at 45° through the inside of a path, every `spacing` pixels, as far as they are seen in `window`. They lie at fixed places of the
/// plane, so that neighbours of one material continue each other.
QList<QLineF> hatching(const QPainterPath& path, bool falling, double spacing, const QRectF& window)
{
    // Along a falling line x − y stays the same, along a rising one x + y.
    const auto offset = [falling](QPointF p) { return falling ? p.x() - p.y() : p.x() + p.y(); };
    const auto polygons = path.toSubpathPolygons();
    const QRectF seen = path.boundingRect().intersected(window);
    QList<QLineF> lines;
    if (seen.isEmpty() || !(spacing > 0.5))
        return lines;
    const double low = falling ? seen.left() - seen.bottom() : seen.left() + seen.top();
    const double high = falling ? seen.right() - seen.top() : seen.right() + seen.bottom();
    std::vector<double> crossings;
    for (double at = std::ceil(low / spacing) * spacing; at <= high; at += spacing) {
        crossings.clear();
        for (const QPolygonF& polygon : polygons)
            for (qsizetype i = 0; i < polygon.size(); ++i) {
                const QPointF a = polygon[i];
                const QPointF b = polygon[(i + 1) % polygon.size()];
                const double before = offset(a) - at;
                const double after = offset(b) - at;
                if ((before < 0) != (after < 0))
                    crossings.push_back(a.x() + before / (before - after) * (b.x() - a.x()));
            }
        std::ranges::sort(crossings);
        const auto on = [&](double x) { return QPointF(x, falling ? x - at : at - x); };
        // Inside between the first and the second crossing, the third and the fourth …
        for (std::size_t i = 0; i + 1 < crossings.size(); i += 2) {
            const double from = std::max(crossings[i], seen.left());
            const double to = std::min(crossings[i + 1], seen.right());
            if (to > from)
                lines << QLineF(on(from), on(to));
        }
    }
    return lines;
}

} // namespace

void inkArea(QPainter& p, const QPainterPath& path, const Ink& ink)
{
    if (!canBeDrawn(path))
        return;
    p.save();
    if (ink.fill.isValid())
        p.fillPath(path, ink.fill);
    if (ink.hatch != Hatch::None) {
        p.setPen(QPen(ink.hatchColour, ink.hatch == Hatch::Dense ? 0.7 : 0.9));
        p.drawLines(hatching(path, ink.hatch == Hatch::Falling, ink.hatch == Hatch::Dense ? ink.spacing * 0.6 : ink.spacing,
            p.worldTransform().inverted().mapRect(QRectF(p.window()))));
    }
    p.restore();
    if (ink.stroke.isValid() && ink.width > 0) {
        QPen pen(ink.stroke, ink.width, ink.line, Qt::FlatCap, Qt::MiterJoin);
        if (ink.line == Qt::DashLine)
            pen.setDashPattern({ 6, 3.5 });
        if (ink.line == Qt::DashDotLine)
            pen.setDashPattern({ 14, 4, 2, 4 });
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        p.drawPath(path);
    }
}

namespace {

QFont fontOf(const Lettering& l) { return l.draughted ? figures(l.pixels) : reading(l.pixels); }

} // namespace

QRectF lettersBox(QPointF at, const Lettering& l)
{
    const QFontMetricsF metrics(fontOf(l));
    const QSizeF size(metrics.horizontalAdvance(l.text) + 2, metrics.height());
    QRectF box(at, size);
    if (l.align & Qt::AlignHCenter)
        box.moveLeft(at.x() - size.width() / 2);
    if (l.align & Qt::AlignRight)
        box.moveLeft(at.x() - size.width());
    if (l.align & Qt::AlignVCenter)
        box.moveTop(at.y() - size.height() / 2);
    if (l.align & Qt::AlignBottom)
        box.moveTop(at.y() - size.height());
    return box;
}

void inkLetters(QPainter& p, QPointF at, const Lettering& l)
{
    p.setFont(fontOf(l));
    p.setPen(l.colour);
    p.drawText(lettersBox(at, l), Qt::AlignCenter | Qt::TextDontClip, l.text);
}

void inkDimension(QPainter& p, QPointF from, QPointF to, Run run, QPointF line, const QRectF& label, const QColor& colour, bool strong)
{
    p.setBrush(Qt::NoBrush);
    QColor thin = colour;
    thin.setAlphaF(strong ? 0.9f : 0.38f);
    const QPen extension(thin, strong ? 1.0 : 0.7);
    const QPen drawn(colour, strong ? 1.6 : 0.9);
    for (const QPointF point : { from, to })
        if (!(std::abs(point.x()) < 1e6 && std::abs(point.y()) < 1e6))
            return;
    if (run == Run::Table)
        return;
    if (run == Run::Leader) {
        p.setPen(QPen(colour, strong ? 1.4 : 0.8));
        const QPointF end = nearestEdge(label, from);
        p.drawLine(from, end);
        p.setPen(Qt::NoPen);
        p.setBrush(colour);
        p.drawEllipse(from, 2.2, 2.2);
        return;
    }
    const bool horizontal = run == Run::Horizontal;
    const QPointF a = horizontal ? QPointF(from.x(), line.y()) : QPointF(line.x(), from.y());
    const QPointF b = horizontal ? QPointF(to.x(), line.y()) : QPointF(line.x(), to.y());
    const auto extend = [&](QPointF measured, QPointF end) {
        const QPointF way = end - measured;
        const double length = std::hypot(way.x(), way.y());
        if (length < 3)
            return;
        const QPointF unit = way / length;
        p.setPen(extension);
        p.drawLine(measured + unit * 2, end + unit * 4);
    };
    extend(from, a);
    extend(to, b);
    p.setPen(drawn);
    arrowed(p, a, b, colour);
    const QPointF middle = (a + b) / 2;
    if (!label.adjusted(-14, -14, 14, 14).contains(middle)) {
        const QRectF span = QRectF(a, b).normalized().adjusted(-0.5, -0.5, 0.5, 0.5);
        if (!label.intersects(span)) {
            p.setPen(extension);
            p.drawLine(QPointF(std::clamp(label.center().x(), span.left(), span.right()),
                           std::clamp(label.center().y(), span.top(), span.bottom())),
                nearestEdge(label, middle));
        }
    }
}

void inkCallout(QPainter& p, QPointF from, QPointF to, const QRectF& label, const QColor& colour)
{
    // A result of one place has no gap to span.
    const bool place = std::hypot(to.x() - from.x(), to.y() - from.y()) < 0.5;
    p.setPen(QPen(colour, 1.6));
    if (!place)
        arrowed(p, from, to, colour);
    const QPointF middle = (from + to) / 2;
    p.setPen(QPen(colour, 1));
    p.drawLine(middle, nearestEdge(label, middle));
    p.setPen(Qt::NoPen);
    p.setBrush(colour);
    p.drawEllipse(middle, 2.2, 2.2);
}

} // namespace deepstop::app
