#include "stages/design/design_map.hpp"

#include "quantity/scale.hpp"
#include "theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

/// Drags and keys go by so much: what a drawing is dimensioned in.
constexpr double rotorStep = 0.1e-3;
constexpr double slotStep = 0.05e-3;

double stepped(double value, double step) { return std::round(value / step) * step; }

/// Round steps that give about `most` lines.
double stepFor(double range, int most)
{
    double step = std::pow(10, std::floor(std::log10(range)));
    for (const double part : { 0.05, 0.1, 0.2, 0.5, 1.0 })
        if (range / (step * part) <= most)
            return step * part;
    return step;
}

} // namespace

DesignMapView::DesignMapView(QWidget* parent) : QWidget(parent)
{
    setMinimumSize(320, 190);
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("design-map"));
    setCursor(Qt::CrossCursor);
    fromSlot_ = fromRotor_ = std::nan("");
}

void DesignMapView::setMap(
    std::shared_ptr<const design::Map> map, std::vector<design::Border> borders, const QString& why, UnitSystem units)
{
    const bool same = map == map_;
    map_ = std::move(map);
    why_ = why;
    units_ = units;
    if (!same) {
        borders_ = std::move(borders);
        frame();
        tint();
    }
    update();
}

void DesignMapView::setDot(double slot, double rotor)
{
    slot_ = slot;
    rotor_ = rotor;
    setAccessibleName(tr("Map of what goes"));
    setAccessibleDescription(
        tr("rotor Ø %1, slot's middle %2 from the hub face")
            .arg(QString::fromStdString(print(rotor, style::size, units_)), QString::fromStdString(print(slot, style::fine, units_))));
    update();
}

void DesignMapView::setFrom(double slot, double rotor)
{
    fromSlot_ = slot;
    fromRotor_ = rotor;
}

QRectF DesignMapView::box() const { return QRectF(rect()).adjusted(62, 14, -14, -44); }

QPointF DesignMapView::toScreen(double slot, double rotor) const
{
    const QRectF b = box();
    if (!map_ || map_->columns.empty())
        return b.center();
    return { b.left() + (slot - left_) / (right_ - left_) * b.width(), b.bottom() - (rotor - low_) / (high_ - low_) * b.height() };
}

void DesignMapView::frame()
{
    if (!map_ || map_->columns.empty())
        return;
    const double width = map_->columns.back() - map_->columns.front();
    const double height = map_->most - map_->least;
    left_ = map_->columns.back();
    right_ = map_->columns.front();
    low_ = map_->most;
    high_ = map_->least;
    constexpr int rows = 120;
    for (std::size_t x = 0; x < map_->columns.size(); ++x)
        for (int y = 0; y <= rows; ++y) {
            const double rotor = map_->least + height * y / rows;
            if (isBad(map_->judged(x, rotor).level))
                continue;
            left_ = std::min(left_, map_->columns[x]);
            right_ = std::max(right_, map_->columns[x]);
            low_ = std::min(low_, rotor);
            high_ = std::max(high_, rotor);
        }
    if (left_ >= right_ || low_ >= high_) {
        left_ = map_->columns.front();
        right_ = map_->columns.back();
        low_ = map_->least;
        high_ = map_->most;
        return;
    }
    const double aside = std::max(0.2 * (right_ - left_), 0.04 * width);
    const double above = std::max(0.25 * (high_ - low_), 0.04 * height);
    left_ = std::max(map_->columns.front(), left_ - aside);
    right_ = std::min(map_->columns.back(), right_ + aside);
    low_ = std::max(map_->least, low_ - above);
    high_ = std::min(map_->most, high_ + above);
}

/// One column a slot; clear is left as paper, so that the eye finds it.
void DesignMapView::tint()
{
    tint_ = {};
    if (!map_ || map_->columns.empty())
        return;
    const Theme& t = theme();
    tintedDark_ = t.dark;
    // Finer than the map's columns: between two that are alike the borders run straight.
    constexpr int rows = 600;
    constexpr int parts = 4;
    const auto columns = static_cast<int>(map_->columns.size());
    tint_ = QImage((columns - 1) * parts, rows, QImage::Format_ARGB32_Premultiplied);
    const auto washed = [](QColor colour, int alpha) {
        colour.setAlpha(alpha);
        return colour;
    };
    const QColor clear = washed(t.good, t.dark ? 96 : 70);
    const QColor tight = washed(t.caution, t.dark ? 90 : 66);
    const QColor unproven = washed(t.unproven, t.dark ? 90 : 60);
    const QColor hits = washed(t.bad, t.dark ? 34 : 22);
    tint_.fill(Qt::transparent);
    for (int x = 0; x < tint_.width(); ++x) {
        const design::Map::Column column = map_->column((x + 0.5) / parts);
        for (int y = 0; y < rows; ++y) {
            const Level level = column.level(map_->least + (map_->most - map_->least) * (rows - y - 0.5) / rows);
            const QColor& colour = isFine(level) ? clear : level == Level::Unproven ? unproven : level == Level::Tight ? tight : hits;
            tint_.setPixelColor(x, y, colour);
        }
    }
}

void DesignMapView::paintAxes(QPainter& p)
{
    const Theme& t = theme();
    const QRectF b = box();
    const Unit& unit = style::size.unit(units_);
    p.setFont(figures(11));
    const double left = left_ / unit.factor;
    const double right = right_ / unit.factor;
    const double low = low_ / unit.factor;
    const double high = high_ / unit.factor;
    const double across = stepFor(right - left, 7);
    for (double x = std::ceil(left / across) * across; x <= right; x += across) {
        const QPointF at = toScreen(x * unit.factor, low_);
        p.setPen(QPen(t.rule, 0.7));
        p.drawLine(QPointF(at.x(), b.top()), QPointF(at.x(), b.bottom()));
        p.setPen(t.mute);
        p.drawText(QRectF(at.x() - 40, b.bottom() + 4, 80, 14), Qt::AlignCenter,
            QString::number(std::abs(x) < across / 1e6 ? 0 : x, 'f', across < 1 ? 2 : 0).replace(QLatin1Char('-'), QChar(0x2212)));
    }
    const double up = stepFor(high - low, 9);
    for (double y = std::ceil(low / up) * up; y <= high; y += up) {
        const QPointF at = toScreen(left_, y * unit.factor);
        p.setPen(QPen(t.rule, 0.7));
        p.drawLine(QPointF(b.left(), at.y()), QPointF(b.right(), at.y()));
        p.setPen(t.mute);
        p.drawText(QRectF(b.left() - 58, at.y() - 8, 52, 16), Qt::AlignRight | Qt::AlignVCenter, QString::number(y, 'f', up < 1 ? 1 : 0));
    }
    p.setPen(QPen(t.ink, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(b);
    p.setFont(reading(12));
    p.setPen(t.ink);
    const QString mm = QString::fromUtf8(unit.symbol.data(), qsizetype(unit.symbol.size()));
    p.drawText(QRectF(b.left(), b.bottom() + 20, b.width(), 18), Qt::AlignCenter,
        tr("slot's middle from the hub face, %1 (outboard to the right)").arg(mm));
    p.save();
    p.translate(12, b.center().y());
    p.rotate(-90);
    p.drawText(QRectF(-140, -9, 280, 18), Qt::AlignCenter, tr("rotor diameter, %1").arg(mm));
    p.restore();
}

void DesignMapView::paintBorders(QPainter& p)
{
    const Theme& t = theme();
    const QRectF b = box();
    std::vector<QRectF> taken;
    names_.clear();
    // Longest first: its name finds room.
    std::vector<const design::Border*> drawn;
    for (const design::Border& border : borders_)
        if (border.below == Level::Clear || border.above == Level::Clear)
            drawn.push_back(&border);
    std::ranges::stable_sort(drawn, [](const auto* one, const auto* other) { return one->decides > other->decides; });
    for (const design::Border* border : drawn) {
        QPolygonF line;
        for (const paper::Point point : border->points)
            line << toScreen(point.x, point.y);
        p.setPen(QPen(border->decides ? t.ink : t.mute, border->decides ? 1.6 : 0.8, border->decides ? Qt::SolidLine : Qt::DotLine));
        p.drawPolyline(line);
    }
    p.setFont(reading(11.5, QFont::DemiBold));
    const auto covers = [&](const QRectF& r) {
        for (const QPointF at : { r.topLeft(), r.topRight(), r.bottomLeft(), r.bottomRight(), r.center() }) {
            const double slot = left_ + (at.x() - b.left()) / b.width() * (right_ - left_);
            const double rotor = low_ + (b.bottom() - at.y()) / b.height() * (high_ - low_);
            const auto column = std::ranges::lower_bound(map_->columns, slot) - map_->columns.begin();
            if (isFine(map_->judged(std::min(static_cast<std::size_t>(column), map_->columns.size() - 1), rotor).level))
                return true;
        }
        return false;
    };
    for (const design::Border* border : drawn) {
        // Of a place that stands still its own name tells.
        const QString name = QString::fromStdString(map_->limits[border->limit].title).section(QStringLiteral(": "), -1);
        if (!border->decides || names_.contains(name))
            continue;
        const QSizeF size(p.fontMetrics().horizontalAdvance(name) + 8, 16);
        // Along the border, where its name covers no other name, and on the side that does not go.
        std::optional<QRectF> place;
        const auto& points = border->points;
        // First where it covers nothing that goes.
        for (std::size_t k = 0; k < 2 * points.size() && !place; ++k) {
            const bool anywhere = k >= points.size();
            const std::size_t i = (points.size() / 2 + (k % 2 ? k / 2 + 1 : points.size() - k / 2)) % points.size();
            const QPointF at = toScreen(points[i].x, points[i].y);
            for (const QPointF off : { QPointF(6, border->below == Level::Clear ? -18 : 3), QPointF(-size.width() - 6, -8), QPointF(6, -8),
                     QPointF(-size.width() / 2, border->below == Level::Clear ? -20 : 4) }) {
                const QRectF wish(at + off, size);
                if (b.contains(wish) && (anywhere || !covers(wish))
                    && std::ranges::none_of(taken, [&](const QRectF& r) { return r.intersects(wish); })) {
                    place = wish;
                    break;
                }
            }
        }
        if (!place)
            continue;
        taken.push_back(*place);
        names_ << name;
        QColor ground = t.paper;
        ground.setAlpha(215);
        p.fillRect(*place, ground);
        p.setPen(t.ink);
        p.drawText(*place, Qt::AlignCenter, name);
    }
}

void DesignMapView::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.paper);
    if (!map_ || map_->columns.empty()) {
        p.setFont(reading(14));
        p.setPen(t.unproven);
        p.drawText(rect().adjusted(30, 30, -30, -30), Qt::AlignCenter | Qt::TextWordWrap, why_);
        return;
    }
    if (tintedDark_ != t.dark)
        tint();
    const QRectF b = box();
    p.save();
    p.setClipRect(b);
    p.drawImage(QRectF(toScreen(map_->columns.front(), map_->most), toScreen(map_->columns.back(), map_->least)), tint_);
    p.restore();
    paintAxes(p);
    p.save();
    p.setClipRect(b);
    // Names of borders stand over the lines through the dot.
    const QPointF dot = toScreen(slot_, rotor_);
    p.setPen(QPen(t.proposal, 0.9, Qt::DashDotLine));
    p.drawLine(QPointF(b.left(), dot.y()), QPointF(b.right(), dot.y()));
    p.drawLine(QPointF(dot.x(), b.top()), QPointF(dot.x(), b.bottom()));
    paintBorders(p);
    if (std::isfinite(fromSlot_ + fromRotor_)) {
        p.setPen(QPen(t.found, 1.6, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(toScreen(fromSlot_, fromRotor_), 6, 6);
    }
    p.setPen(QPen(t.paper, 1.5));
    p.setBrush(t.proposal);
    p.drawEllipse(dot, 6, 6);
    p.restore();
    if (hasFocus()) {
        p.setPen(QPen(t.focus, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(b.adjusted(-3, -3, 3, 3));
    }
}

void DesignMapView::go(double slot, double rotor)
{
    if (!map_ || map_->columns.empty())
        return;
    slot = std::clamp(stepped(slot, slotStep), left_, right_);
    rotor = std::clamp(stepped(rotor, rotorStep), low_, high_);
    setDot(slot, rotor);
    emit moved(slot, rotor);
}

void DesignMapView::moveTo(QPointF screen)
{
    if (!map_ || map_->columns.empty())
        return;
    const QRectF b = box();
    go(left_ + (screen.x() - b.left()) / b.width() * (right_ - left_), low_ + (b.bottom() - screen.y()) / b.height() * (high_ - low_));
}

void DesignMapView::mousePressEvent(QMouseEvent* event)
{
    if (event->button() == Qt::LeftButton)
        moveTo(event->position());
}

void DesignMapView::mouseMoveEvent(QMouseEvent* event)
{
    if (event->buttons() & Qt::LeftButton)
        moveTo(event->position());
}

void DesignMapView::keyPressEvent(QKeyEvent* event)
{
    const double by = event->modifiers() & Qt::ShiftModifier ? 10 : 1;
    switch (event->key()) {
    case Qt::Key_Left:
        return go(slot_ - by * slotStep, rotor_);
    case Qt::Key_Right:
        return go(slot_ + by * slotStep, rotor_);
    case Qt::Key_Up:
        return go(slot_, rotor_ + by * rotorStep);
    case Qt::Key_Down:
        return go(slot_, rotor_ - by * rotorStep);
    default:
        QWidget::keyPressEvent(event);
    }
}

} // namespace deepstop::app
