#include "stages/search/kit_table.hpp"

#include "language/language.hpp"
#include "theme.hpp"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace deepstop::app {

using search::Gain;
using search::Kind;

QString titleOf(Gain gain, bool wholeCar) { return QString::fromStdString(search::titleFor(gain, wholeCar)); }

QString sayGain(const search::Gains& gains, Gain gain, UnitSystem units)
{
    const double value = search::of(gains, gain);
    return std::isfinite(value) ? QString::fromStdString(print(value, search::about(gain).style, units))
                                : QString::fromUtf8(deepstop::tr("not known"));
}

void KitTable::setKits(std::shared_ptr<const FoundKits> found, UnitSystem units)
{
    beginResetModel();
    found_ = std::move(found);
    units_ = units;
    endResetModel();
}

int KitTable::rowCount(const QModelIndex& parent) const { return parent.isValid() || !found_ ? 0 : static_cast<int>(found_->kits.size()); }
int KitTable::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : level + 1; }

QVariant KitTable::data(const QModelIndex& index, int role) const
{
    if (!index.isValid() || !found_)
        return {};
    const search::Kit& one = kit(index.row());
    const int column = index.column();
    if (role == Qt::DisplayRole || role == Qt::ToolTipRole) {
        if (column < firstGain) {
            const Kind kind = search::kinds[static_cast<std::size_t>(column)];
            const auto name = [&](const search::Choice& choice) {
                return QString::fromStdString(found_->query->parts.name(kind, at(choice, kind)).name);
            };
            const QString front = name(one.choice);
            return !one.rear || at(one.choice, kind) == at(*one.rear, kind) ? front : QStringLiteral("%1\n%2").arg(front, name(*one.rear));
        }
        if (column < level)
            return sayGain(one.gains, search::allGains[static_cast<std::size_t>(column - firstGain)], units_);
        if (role == Qt::DisplayRole)
            return QString::fromUtf8(deepstop::tr(nameOf(one.level())).data());
        QStringList doubts;
        for (const search::Doubt& doubt : one.doubts)
            doubts << QStringLiteral("%1: %2").arg(
                QString::fromStdString(doubt.id), QString::fromUtf8(deepstop::tr(nameOf(doubt.level)).data()));
        return doubts.join(QLatin1Char('\n'));
    }
    if (role == Qt::ForegroundRole && column == level)
        return colourOf(one.level());
    if (role == Qt::TextAlignmentRole && column >= firstGain && column < level)
        return QVariant(Qt::AlignRight | Qt::AlignVCenter);
    return {};
}

QVariant KitTable::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    const auto capital = [](std::string_view text) {
        auto name = words(text);
        name[0] = name[0].toUpper();
        return name;
    };
    if (section < firstGain)
        return capital(deepstop::tr(nameOf(search::kinds[static_cast<std::size_t>(section)])));
    if (section < level)
        return capital(search::titleFor(search::allGains[static_cast<std::size_t>(section - firstGain)], ofWholeCars()));
    return tr("Verdict");
}

void KitTable::sort(int column, Qt::SortOrder order)
{
    if (!found_)
        return;
    beginResetModel();
    auto sorted = std::make_shared<FoundKits>(*found_);
    const auto& parts = sorted->query->parts;
    const auto before = [&](const search::Kit& a, const search::Kit& b) {
        if (column < firstGain) {
            const auto kind = search::kinds[static_cast<std::size_t>(column)];
            const auto one = parts.name(kind, at(a.choice, kind)).name;
            const auto other = parts.name(kind, at(b.choice, kind)).name;
            return order == Qt::AscendingOrder ? one < other : other < one;
        }
        if (column == level)
            return order == Qt::AscendingOrder ? a.level() < b.level() : b.level() < a.level();
        const double one = a.gains[static_cast<std::size_t>(column - firstGain)];
        const double other = b.gains[static_cast<std::size_t>(column - firstGain)];
        if (std::isnan(one) || std::isnan(other))
            return !std::isnan(one) && std::isnan(other);
        return order == Qt::AscendingOrder ? one < other : other < one;
    };
    std::ranges::stable_sort(sorted->kits, before);
    found_ = std::move(sorted);
    endResetModel();
}

KitPlot::KitPlot(QWidget* parent) : QWidget(parent)
{
    setMinimumSize(260, 170);
    setMouseTracking(true);
    setAccessibleName(tr("Kits over two of their figures"));
}

void KitPlot::setKits(std::shared_ptr<const FoundKits> found, UnitSystem units)
{
    found_ = std::move(found);
    units_ = units;
    chosen_.clear();
    over_ = -1;
    measure();
}

void KitPlot::setAxes(Gain across, Gain up)
{
    across_ = across;
    up_ = up;
    measure();
}

void KitPlot::setChosen(std::vector<std::size_t> chosen)
{
    chosen_ = std::move(chosen);
    update();
}

void KitPlot::measure()
{
    const auto range = [&](Gain gain) {
        double low = std::numeric_limits<double>::infinity();
        double high = -low;
        if (found_)
            for (const search::Kit& kit : found_->kits)
                if (const double value = search::of(kit.gains, gain); std::isfinite(value)) {
                    low = std::min(low, value);
                    high = std::max(high, value);
                }
        if (!(low <= high))
            return std::pair { 0.0, 0.0 };
        const double aside = std::max(0.06 * (high - low), 1e-3 * std::max(std::abs(high), 1e-3));
        return std::pair { low - aside, high + aside };
    };
    acrossRange_ = range(across_);
    upRange_ = range(up_);
    update();
}

QRectF KitPlot::box() const { return QRectF(rect()).adjusted(70, 10, -44, -40); }

QPointF KitPlot::placeOf(std::size_t kit) const
{
    const QRectF b = box();
    const auto share = [](double value, std::pair<double, double> range) {
        // At the low edge, outside of all that is known.
        return std::isfinite(value) ? (value - range.first) / (range.second - range.first) : 0.0;
    };
    const search::Gains& gains = found_->kits[kit].gains;
    return { b.left() + share(search::of(gains, across_), acrossRange_) * b.width(),
        b.bottom() - share(search::of(gains, up_), upRange_) * b.height() };
}

int KitPlot::kitAt(QPointF at) const
{
    if (!found_)
        return -1;
    int nearest = -1;
    double least = 9;
    for (std::size_t i = 0; i < found_->kits.size(); ++i)
        if (const QPointF off = placeOf(i) - at; std::hypot(off.x(), off.y()) < least) {
            least = std::hypot(off.x(), off.y());
            nearest = static_cast<int>(i);
        }
    return nearest;
}

void KitPlot::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.paper);
    if (!found_ || found_->kits.empty())
        return;
    const QRectF b = box();
    const auto title = [&](Gain gain) { return titleOf(gain, found_->query->wholeCar); };
    p.setFont(figures(11));
    constexpr int lines = 4;
    for (int i = 0; i <= lines; ++i) {
        const double part = static_cast<double>(i) / lines;
        const QPointF low(b.left() + part * b.width(), b.bottom());
        const QPointF left(b.left(), b.bottom() - part * b.height());
        p.setPen(QPen(t.rule, 0.7));
        p.drawLine(low, low - QPointF(0, b.height()));
        p.drawLine(left, left + QPointF(b.width(), 0));
        p.setPen(t.mute);
        const auto say = [&](Gain gain, std::pair<double, double> range) {
            if (!(range.first < range.second))
                return i == 0 ? tr("not known") : QString();
            return QString::fromStdString(print(std::lerp(range.first, range.second, part), search::about(gain).style, units_));
        };
        p.drawText(QRectF(low.x() - 45, low.y() + 3, 90, 14), Qt::AlignCenter, say(across_, acrossRange_));
        p.drawText(QRectF(left.x() - 70, left.y() - 8, 64, 16), Qt::AlignRight | Qt::AlignVCenter, say(up_, upRange_));
    }
    p.setPen(QPen(t.ink, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(b);
    p.setFont(reading(12));
    p.setPen(t.ink);
    p.drawText(QRectF(b.left(), b.bottom() + 19, b.width(), 18), Qt::AlignCenter, title(across_));
    p.save();
    p.translate(9, b.center().y());
    p.rotate(-90);
    p.drawText(QRectF(-120, -9, 240, 18), Qt::AlignCenter, title(up_));
    p.restore();
    // In which corner a kit is best.
    p.setPen(t.mute);
    p.setFont(reading(11));
    const int beside = search::about(across_).lessIsBetter ? Qt::AlignLeft : Qt::AlignRight;
    const int over = search::about(up_).lessIsBetter ? Qt::AlignBottom : Qt::AlignTop;
    p.drawText(b.adjusted(6, 3, -6, -3), beside | over, tr("best here"));
    for (std::size_t i = 0; i < found_->kits.size(); ++i) {
        const search::Kit& kit = found_->kits[i];
        const bool known = std::isfinite(search::of(kit.gains, across_) + search::of(kit.gains, up_));
        QColor colour = colourOf(kit.level());
        const bool chosen = std::ranges::count(chosen_, i) > 0;
        // One through another, so that many on one place are seen to be many.
        colour.setAlpha(chosen ? 255 : 150);
        p.setPen(QPen(chosen ? t.ink : colour, chosen ? 2 : 1.2));
        p.setBrush(known ? QBrush(colour) : Qt::NoBrush);
        const double size = chosen || static_cast<int>(i) == over_ ? 6.5 : 4;
        p.drawEllipse(placeOf(i), size, size);
    }
}

void KitPlot::mouseMoveEvent(QMouseEvent* event)
{
    const int now = kitAt(event->position());
    if (now == over_)
        return;
    over_ = now;
    update();
    emit hovered(now);
}

void KitPlot::mousePressEvent(QMouseEvent* event)
{
    if (const int kit = kitAt(event->position()); kit >= 0 && event->button() == Qt::LeftButton)
        emit clicked(kit, event->modifiers() & Qt::ControlModifier);
}

void KitPlot::leaveEvent(QEvent*)
{
    over_ = -1;
    update();
    emit hovered(-1);
}

} // namespace deepstop::app
