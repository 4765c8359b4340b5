#include "print/page_painter.hpp"

#include "theme.hpp"

#include <QImage>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace deepstop::app {

void paintPage(QPainter& p, const paper::Page& page, double unitsPerMetre)
{
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setBrush(Qt::NoBrush);
    const auto at = [unitsPerMetre](paper::Point q) { return QPointF(q.x, q.y) * unitsPerMetre; };
    for (const paper::Stroke& stroke : page.strokes) {
        if (stroke.points.size() < 2)
            continue;
        const double width = paper::widthOf(stroke.pen) * unitsPerMetre;
        QPen pen(Qt::black, width, Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin);
        if (const auto dashes = paper::dashesOf(stroke.pen); !dashes.empty()) {
            QList<qreal> pattern;
            // Dashes count in widths of the line, but never in less than a pixel.
            for (const double dash : dashes)
                pattern << dash * unitsPerMetre / std::max(width, 1.0);
            pen.setDashPattern(pattern);
        }
        p.setPen(pen);
        QPolygonF line;
        for (const paper::Point point : stroke.points)
            line << at(point);
        if (stroke.closed)
            p.drawPolygon(line);
        else
            p.drawPolyline(line);
    }
    for (const paper::PlacedPhoto& photo : page.photos)
        p.drawImage(QRectF(at(photo.at), QSizeF(photo.width, photo.height) * unitsPerMetre),
            QImage::fromData(QByteArray::fromRawData(photo.photo.bytes->data(), static_cast<qsizetype>(photo.photo.bytes->size()))));
    p.setPen(Qt::black);
    for (const paper::Lettering& l : page.letters) {
        p.save();
        p.translate(at(l.at));
        if (l.upright)
            p.rotate(-90);
        // Outlines instead of glyphs: their size is that of the paper at every resolution.
        QFont font = figures(100);
        font.setHintingPreference(QFont::PreferNoHinting);
        const double scale = l.height * 1.25 * unitsPerMetre / 100;
        const QString text = QString::fromStdString(l.text);
        const double advance = QFontMetricsF(font).horizontalAdvance(text);
        p.scale(scale, scale);
        QPainterPath path;
        path.addText(QPointF(l.anchor == paper::Anchor::Left     ? 0
                             : l.anchor == paper::Anchor::Middle ? -advance / 2
                                                                 : -advance,
                         0),
            font, text);
        p.fillPath(path, Qt::black);
        p.restore();
    }
    p.restore();
}

} // namespace deepstop::app
