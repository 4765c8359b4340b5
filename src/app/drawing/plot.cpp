#include "drawing/plot.hpp"

#include "drawing/shapes.hpp"
#include "quantity/scale.hpp"
#include "theme.hpp"

#include <QLineF>
#include <QLocale>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

namespace deepstop::app {
namespace {

/// The part of a line inside `box` (Liang and Barsky).
std::optional<QLineF> inside(QPointF a, QPointF b, const QRectF& box)
{
    double from = 0;
    double to = 1;
    const QPointF d = b - a;
    for (const auto& [p, q] : { std::pair { -d.x(), a.x() - box.left() }, std::pair { d.x(), box.right() - a.x() },
             std::pair { -d.y(), a.y() - box.top() }, std::pair { d.y(), box.bottom() - a.y() } }) {
        if (p == 0) {
            if (q < 0)
                return std::nullopt;
            continue;
        }
        const double r = q / p;
        (p < 0 ? from : to) = p < 0 ? std::max(from, r) : std::min(to, r);
    }
    if (from >= to)
        return std::nullopt;
    return QLineF(a + from * d, a + to * d);
}

} // namespace

void Plot::axes(const QString& across, const QString& up, int acrossDecimals, int upDecimals)
{
    const Theme& t = theme();
    const Ink thin { t.rule, 0.8, Qt::SolidLine, {}, Hatch::None, {}, 0 };
    const QLocale plain = QLocale::c();
    const auto number = [&](double value, int decimals) { return plain.toString(value, 'f', decimals); };
    const double stepX = stepFor(most_.x() - from_);
    for (int i = static_cast<int>(std::ceil(from_ / stepX - 1e-9)); i * stepX <= most_.x() * 1.0001; ++i) {
        const QPointF foot = at(i * stepX, 0);
        sheet_.line({ foot, QPointF(foot.x(), box_.top()) }, thin);
        sheet_.letter(foot + QPointF(0, 11), number(i * stepX, acrossDecimals), 12, t.mute, Qt::AlignHCenter | Qt::AlignTop);
    }
    const double stepY = stepFor(most_.y());
    // Without a name it measures nothing.
    for (int i = 0; !up.isEmpty() && i * stepY <= most_.y() * 1.0001; ++i) {
        const QPointF foot = at(from_, i * stepY);
        sheet_.line({ foot, QPointF(box_.right(), foot.y()) }, thin);
        sheet_.letter(foot + QPointF(-8, 0), number(i * stepY, upDecimals), 12, t.mute, Qt::AlignRight | Qt::AlignVCenter);
    }
    const Ink edge { t.ink, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 };
    sheet_.line({ box_.topLeft(), box_.bottomLeft(), box_.bottomRight() }, edge);
    sheet_.letter({ box_.right(), box_.bottom() + 30 }, across, 13, t.ink, Qt::AlignRight | Qt::AlignTop, false);
    sheet_.letter({ box_.left() - 4, box_.top() - 14 }, up, 13, t.ink, Qt::AlignLeft | Qt::AlignBottom, false);
}

void Plot::rules()
{
    const double step = stepFor(most_.y());
    for (int i = 1; i * step <= most_.y() * 1.0001; ++i)
        level(i * step, { theme().rule, 0.8, Qt::SolidLine, {}, Hatch::None, {}, 0 });
}

void Plot::curve(const QPolygonF& values, const Ink& ink)
{
    QPainterPath path;
    QPointF last;
    for (qsizetype i = 0; i + 1 < values.size(); ++i) {
        const auto part = inside(at(values[i].x(), values[i].y()), at(values[i + 1].x(), values[i + 1].y()), box_);
        if (!part)
            continue;
        if (path.isEmpty() || QLineF(last, part->p1()).length() > 1e-6)
            path.moveTo(part->p1());
        path.lineTo(part->p2());
        last = part->p2();
    }
    if (!path.isEmpty())
        sheet_.area(path, ink);
}

void Plot::area(const QPolygonF& values, const Ink& ink)
{
    QPolygonF placed;
    for (const QPointF& v : values)
        placed << at(v.x(), v.y());
    QPainterPath path;
    path.addPolygon(placed);
    path.closeSubpath();
    QPainterPath frame;
    frame.addRect(box_);
    sheet_.area(path.intersected(frame), ink);
}

void Plot::mark(QPointF value, double radius, const QColor& colour, bool hollow)
{
    if (holds(value))
        sheet_.area(
            circle(at(value.x(), value.y()), radius), { colour, 1.8, Qt::SolidLine, hollow ? theme().paper : colour, Hatch::None, {}, 0 });
}

bool Plot::holds(QPointF value) const
{
    return std::isfinite(value.x()) && std::isfinite(value.y()) && value.x() >= from_ && value.x() <= most_.x() && value.y() >= 0
        && value.y() <= most_.y();
}

} // namespace deepstop::app
