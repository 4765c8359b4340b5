#include "drawing/plot_view.hpp"

#include "drawing/inking.hpp"
#include "drawing/plot.hpp"
#include "theme.hpp"

#include <QPainter>

#include <algorithm>

namespace deepstop::app {

PlotView::PlotView(QWidget* parent) : QWidget(parent)
{
    setMinimumHeight(140);
    setFocusPolicy(Qt::NoFocus);
}

void PlotView::setPlot(std::vector<Curve> curves, Axis across, Axis up)
{
    curves_ = std::move(curves);
    across_ = std::move(across);
    up_ = std::move(up);
    QStringList names;
    for (const Curve& curve : curves_)
        names << curve.name;
    setAccessibleName(tr("%1 over %2: %3").arg(up_.title, across_.title, names.join(QStringLiteral(", "))));
    update();
}

Sheet PlotView::drawn() const
{
    const Theme& t = theme();
    Sheet sheet;
    double widest = across_.least;
    double highest = up_.least;
    bool any = false;
    for (const Curve& curve : curves_)
        for (const QPointF& p : curve.points) {
            widest = std::max(widest, p.x());
            highest = std::max(highest, p.y());
            any = true;
        }
    if (!any) {
        sheet.letter(QRectF(rect()).center(), empty_, 13, t.mute, Qt::AlignCenter, false);
        return sheet;
    }
    const QRectF box = QRectF(rect()).adjusted(54, 44, -24, -38);
    Plot plot(sheet, box, { Plot::roundUp(widest), Plot::roundUp(highest) });
    plot.axes(across_.title, up_.title, across_.decimals, up_.decimals);
    double x = box.right();
    for (const Curve& curve : curves_)
        plot.curve(curve.points, curve.ink);
    // Their names, from the right, each behind a piece of its line.
    for (auto curve = curves_.rbegin(); curve != curves_.rend(); ++curve) {
        if (curve->name.isEmpty() || curve->points.isEmpty())
            continue;
        const double wide = QFontMetricsF(reading(12)).horizontalAdvance(curve->name);
        sheet.letter({ x, 14 }, curve->name, 12, t.ink, Qt::AlignRight | Qt::AlignVCenter, false);
        sheet.line({ QPointF(x - wide - 34, 14), QPointF(x - wide - 8, 14) }, curve->ink);
        x -= wide + 52;
    }
    return sheet;
}

void PlotView::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme().paper);
    const Sheet sheet = drawn();
    for (const Area& area : sheet.areas)
        inkArea(p, area.path, area.ink);
    for (const Lettering& letters : sheet.letters)
        inkLetters(p, letters.at, letters);
}

} // namespace deepstop::app
