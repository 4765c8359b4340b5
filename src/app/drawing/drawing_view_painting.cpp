/// How a sheet on the screen is inked: as strokes, of which those that stay the same are kept.

#include "drawing/drawing_view.hpp"

#include "document.hpp"
#include "drawing/inking.hpp"
#include "theme.hpp"
#include "drawing/dimension_field.hpp"

#include <QPainter>

#include <span>

namespace deepstop::app {
namespace {

/// Room around a line for its width, arrow heads and ends.
constexpr double ends = 20;

QRectF around(QPointF a, QPointF b) { return QRectF(a, b).normalized().adjusted(-ends, -ends, ends, ends); }

} // namespace

void DrawingView::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme().paper);
    gatherStrokes();
    layers_.paint(p, strokes_, rect());
    drawBorder(p);
}

void DrawingView::updateWhatChanged()
{
    gatherStrokes();
    update(layers_.changed(strokes_, rect()));
}

void DrawingView::gatherStrokes()
{
    strokes_.clear();
    addAreas();
    addDimensionLines();
    addLetters();
    addHandles();
    addTitle();
    if (sheet_.scaleBar)
        addScaleBar();
}

void DrawingView::add(const Likeness& likeness, const QRectF& bounds, int effort, std::function<void(QPainter&)> ink)
{
    strokes_.push_back({ likeness.number(), bounds, effort, std::move(ink) });
}

void DrawingView::addAreas()
{
    const double scale = pixelsPerMillimetre();
    const QPointF origin = toScreen({ 0, 0 });
    const QTransform toView(scale, 0, 0, scale, origin.x(), origin.y());
    for (const Area& area : sheet_.areas) {
        const QPainterPath path = toView.map(area.path);
        const int effort = area.ink.hatch != Hatch::None ? 8 : 2;
        add(Likeness() << 1 << path << area.ink, path.boundingRect().adjusted(-ends, -ends, ends, ends), effort,
            [path, ink = area.ink](QPainter& p) { inkArea(p, path, ink); });
    }
}

void DrawingView::addDimensionLines()
{
    const Theme& t = theme();
    for (const DimensionLine& line : sheet_.dimensions) {
        const DimensionField* field = fields_.at(line.pointer);
        const bool active = field->hasFocus();
        // Only while it is typed is a table's entry tied to its place.
        if (line.run == Run::Table && !active)
            continue;
        const QColor colour = active ? t.focus : field->isMissing() ? t.unproven : t.mute;
        const bool table = line.run == Run::Table;
        const QPointF from = toScreen(line.from);
        const QPointF to = table ? from : toScreen(line.to);
        const QPointF at = table ? QPointF() : toScreen({ line.line, line.line });
        const Run run = table ? Run::Leader : line.run;
        const QRectF label(field->geometry());
        QRectF bounds = around(from, to) | label.adjusted(-ends, -ends, ends, ends);
        if (run == Run::Horizontal)
            bounds |= around({ from.x(), at.y() }, { to.x(), at.y() });
        if (run == Run::Vertical)
            bounds |= around({ at.x(), from.y() }, { at.x(), to.y() });
        add(Likeness() << 2 << from << to << at << static_cast<int>(run) << label << colour << active, bounds, 2,
            [=](QPainter& p) { inkDimension(p, from, to, run, at, label, colour, active); });
    }
    for (const Callout& callout : sheet_.callouts) {
        const QPointF from = toScreen(callout.from);
        const QPointF to = toScreen(callout.to);
        const QRectF label(callouts_.at(callout.verdict)->geometry());
        const QColor colour = colourOf(callout.level);
        add(Likeness() << 3 << from << to << label << colour, around(from, to) | label.adjusted(-ends, -ends, ends, ends), 2,
            [=](QPainter& p) { inkCallout(p, from, to, label, colour); });
    }
}

bool DrawingView::standsClear(const Lettering& letters) const
{
    // Lines of a table touch above and below.
    const QRectF box = lettersBox(toScreen(letters.at), letters).adjusted(0, 3, 0, -3);
    const auto clearOf = [&](const auto& entry) { return !entry.second->isVisible() || !box.intersects(QRectF(entry.second->geometry())); };
    return letters.text.isEmpty() || (std::ranges::all_of(fields_, clearOf) && std::ranges::all_of(facts_, clearOf));
}

Lettering DrawingView::fitted(const Lettering& letters) const
{
    constexpr double smallest = 8;
    const double edge = toScreen(sheet_.extent.bottomRight()).x() + ends;
    const auto good = [&](const Lettering& l) { return standsClear(l) && lettersBox(toScreen(l.at), l).right() <= edge; };
    Lettering fit = letters;
    while (fit.pixels > smallest && !good(fit))
        fit.pixels = std::max(smallest, fit.pixels - 0.5);
    return good(fit) ? fit : letters;
}

void DrawingView::addLetters()
{
    const Theme& t = theme();
    for (const Lettering& each : sheet_.letters) {
        const Lettering l = fitted(each);
        const QPointF at = toScreen(l.at);
        const double wide = static_cast<double>(l.text.size()) * l.pixels + ends;
        add(Likeness() << 4 << at << l.text << l.pixels << l.colour << l.align.toInt() << l.draughted,
            QRectF(at - QPointF(wide, 2 * l.pixels), at + QPointF(wide, 2 * l.pixels)), 2, [at, l](QPainter& p) { inkLetters(p, at, l); });
    }
    for (std::size_t i = 0; i < captions_.size(); ++i)
        if (const QRect box = captions_[i]; !box.isEmpty()) {
            const QString& text = sheet_.dimensions[i].caption;
            add(Likeness() << 5 << box << text << t.paper << t.mute, QRectF(box).adjusted(-4, -4, 40, 4), 2, [=, &t](QPainter& p) {
                p.fillRect(box.adjusted(-2, 2, 0, -2), t.paper);
                p.setFont(reading(11));
                p.setPen(t.mute);
                p.drawText(box, Qt::AlignVCenter | Qt::AlignLeft, text);
            });
        }
}

void DrawingView::addHandles()
{
    const Theme& t = theme();
    for (const Handle& handle : sheet_.handles) {
        const bool held = drag_.holds(handle);
        const QPointF at = toScreen(handle.at);
        const QColor line = held ? t.focus : t.proposal;
        const QColor fill = held ? t.focus : t.raised;
        add(Likeness() << 6 << at << line << fill, around(at, at), 1, [=](QPainter& p) {
            p.setPen(QPen(line, 1.4));
            p.setBrush(fill);
            p.drawPolygon(QPolygonF { at + QPointF(0, -5), at + QPointF(5, 0), at + QPointF(0, 5), at + QPointF(-5, 0) });
        });
    }
}

/// The border of a drawing sheet: frame and centring marks.
void DrawingView::drawBorder(QPainter& p) const
{
    const Theme& t = theme();
    const QRectF frame = QRectF(rect()).adjusted(9.5, 9.5, -9.5, -9.5);
    // Four filled lines: an outline as large as the sheet is dear to smooth, and lies on whole pixels anyway.
    const QRect outer = frame.adjusted(-0.5, -0.5, 0.5, 0.5).toRect();
    for (const QRect& side : { QRect(outer.left(), outer.top(), outer.width(), 1), QRect(outer.left(), outer.bottom(), outer.width(), 1),
             QRect(outer.left(), outer.top(), 1, outer.height()), QRect(outer.right(), outer.top(), 1, outer.height()) })
        p.fillRect(side, t.rule);
    p.setPen(QPen(t.ink, 1.4));
    for (const auto& [a, b] : { std::pair { QPointF(frame.center().x(), 2), QPointF(frame.center().x(), frame.top() + 6) },
             std::pair { QPointF(frame.center().x(), height() - 2), QPointF(frame.center().x(), frame.bottom() - 6) },
             std::pair { QPointF(2, frame.center().y()), QPointF(frame.left() + 6, frame.center().y()) },
             std::pair { QPointF(width() - 2, frame.center().y()), QPointF(frame.right() - 6, frame.center().y()) } })
        p.drawLine(a, b);
}

void DrawingView::addTitle()
{
    const Theme& t = theme();
    add(Likeness() << 7 << width() << sheet_.title << sheet_.subtitle << titleMargin_ << t.paper << t.ink << t.mute,
        QRectF(10, 10, width() - 20, 60), 8, [this, &t](QPainter& p) {
            const QFont big = drafting(20);
            const QFont small = reading(12);
            const auto title = QFontMetrics(big).elidedText(sheet_.title, Qt::ElideRight, width() - 44 - titleMargin_);
            const auto subtitle = QFontMetrics(small).elidedText(sheet_.subtitle, Qt::ElideRight, width() - 44);
            const double wide = std::max(QFontMetricsF(big).horizontalAdvance(title), QFontMetricsF(small).horizontalAdvance(subtitle));
            p.fillRect(QRectF(18, 14, wide + 8, 48), t.paper);
            p.setFont(big);
            p.setPen(t.ink);
            p.drawText(QRectF(22, 16, width() - 44, 26), Qt::AlignLeft | Qt::AlignVCenter, title);
            p.setFont(small);
            p.setPen(t.mute);
            p.drawText(QRectF(22, 42, width() - 44, 18), Qt::AlignLeft | Qt::AlignVCenter, subtitle);
        });
}

void DrawingView::addScaleBar()
{
    const Theme& t = theme();
    const bool metric = document_.units() == UnitSystem::Metric;
    // The largest round length that stays under a sixth of the width.
    static constexpr double metricSteps[] { 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000, 20000 };
    static constexpr double usSteps[] { 0.05, 0.1, 0.25, 0.5, 1, 2, 5, 10, 12, 24, 60, 120, 240, 600 };
    const double unit = style::size.unit(document_.units()).factor;
    double length = 0;
    double shown = 0;
    for (const double step : metric ? std::span<const double>(metricSteps) : std::span<const double>(usSteps)) {
        const double mm = step * unit * 1000;
        if (mm * pixelsPerMillimetre() < width() / 6.0 && mm >= length) {
            length = mm;
            shown = step;
        }
    }
    const double pixels = length * pixelsPerMillimetre();
    const QPointF at(24, height() - 24);
    const auto text = metric ? (shown >= 1000 ? QStringLiteral("%1 m").arg(shown / 1000) : QStringLiteral("%1 mm").arg(shown))
                             : (shown >= 12 ? QStringLiteral("%1 ft").arg(shown / 12) : QStringLiteral("%1 in").arg(shown));
    add(Likeness() << 8 << at << pixels << text << t.paper << t.ink, QRectF(at.x() - 8, at.y() - 30, pixels + 160, 50), 4,
        [=, &t](QPainter& p) {
            p.fillRect(QRectF(at.x() - 4, at.y() - 18, pixels + 10, 26), t.paper);
            p.setPen(QPen(t.ink, 1.2));
            for (int i = 0; i < 5; ++i) {
                p.setBrush(i % 2 == 0 ? t.ink : t.paper);
                p.drawRect(QRectF(at.x() + pixels * i / 5, at.y(), pixels / 5, 4));
            }
            p.setFont(figures(12));
            p.drawText(QPointF(at.x(), at.y() - 5), text);
        });
}

} // namespace deepstop::app
