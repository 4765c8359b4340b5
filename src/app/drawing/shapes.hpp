#pragma once
/// Outlines that sheets are made of.

#include <QPainterPath>

namespace deepstop::app {

inline QPainterPath rectangle(double x0, double y0, double x1, double y1)
{
    QPainterPath path;
    path.addRect(QRectF(QPointF(x0, y0), QPointF(x1, y1)).normalized());
    return path;
}

inline QPainterPath rectangle(const QRectF& box) { return rectangle(box.left(), box.top(), box.right(), box.bottom()); }

inline QPainterPath circle(QPointF centre, double radius)
{
    QPainterPath path;
    path.addEllipse(centre, radius, radius);
    return path;
}

} // namespace deepstop::app
