#include "stages/design/shop_sheet.hpp"

#include "theme.hpp"

namespace deepstop::app {

Sheet shopSheet(const paper::Drawing& drawing)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.title = QString::fromStdString(drawing.title);
    const auto at = [](paper::Point p) { return QPointF(p.x * 1000, -p.y * 1000); };
    for (const paper::Stroke& stroke : drawing.strokes) {
        QPolygonF line;
        for (const paper::Point p : stroke.points)
            line << at(p);
        if (stroke.closed && !line.isEmpty())
            line << line.front();
        const bool edge = stroke.pen == paper::Pen::Cut || stroke.pen == paper::Pen::Outline;
        sheet.line(line,
            { edge ? t.proposal : t.ink, edge ? 1.6 : 0.8,
                stroke.pen == paper::Pen::Hidden     ? Qt::DashLine
                    : stroke.pen == paper::Pen::Axis ? Qt::DashDotLine
                                                     : Qt::SolidLine,
                {}, Hatch::None, {}, 0 });
    }
    // Figures that stand upright on paper lie here, each beside its own line.
    int upright = 0;
    for (const paper::Lettering& l : drawing.letters)
        sheet.letter(at(l.at) + QPointF(0, l.upright ? 11 * (upright++ - 1) : 0), QString::fromStdString(l.text), l.upright ? 10 : 11.5,
            t.ink,
            (l.anchor == paper::Anchor::Left            ? Qt::AlignLeft
                    : l.anchor == paper::Anchor::Middle ? Qt::AlignHCenter
                                                        : Qt::AlignRight)
                | (l.upright ? Qt::AlignVCenter : Qt::AlignBottom),
            false);
    const auto extent = paper::extentOf(drawing);
    double line = -extent.low.y * 1000 + 14;
    const double step = extent.height() * 1000 * 0.045;
    for (const std::string& note : drawing.notes) {
        sheet.letter({ extent.low.x * 1000, line }, QString::fromStdString(note), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        line += step;
    }
    sheet.extent = QRectF(QPointF(extent.low.x * 1000 - 6, -extent.high.y * 1000 - 10), QPointF(extent.high.x * 1000 + 6, line + 4));
    return sheet;
}

} // namespace deepstop::app
