#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>

namespace deepstop::app {
namespace {

constexpr std::size_t mostBeside = 4; ///< proposals that stand side by side before the bars get too short to read

/// Round steps for an axis, at most five of them over `span`.
double stepFor(double span)
{
    const double power = std::pow(10, std::floor(std::log10(std::max(span, 1e-9) / 5)));
    for (const double factor : { 1.0, 2.0, 5.0, 10.0 })
        if (span / (factor * power) <= 5)
            return factor * power;
    return 10 * power;
}

/// Corner weight across, heat store up; a line through the setups nothing beats.
void addPlot(Sheet& sheet, const Study& study, const Comparison& c, QRectF box)
{
    const Theme& t = theme();
    const auto& mass = c.row("corner-mass").figures;
    const auto& store = c.row("heat-store").figures;
    std::vector<std::size_t> known;
    for (std::size_t i = 0; i < c.setups.size(); ++i)
        if (mass[i].value && store[i].value)
            known.push_back(i);
    sheet.letter(box.topLeft() + QPointF(0, -24), QObject::tr("Light, or cool"), 15, t.ink, Qt::AlignLeft | Qt::AlignTop, false);
    sheet.line(QPolygonF { box.topLeft(), box.bottomLeft(), box.bottomRight() }, { t.ink, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    sheet.letter(box.bottomRight() + QPointF(0, 20),
        QObject::tr("corner weight, %1").arg(QString::fromUtf8(style::partMass.unit(study.system).symbol.data())), 11, t.mute,
        Qt::AlignRight | Qt::AlignTop, false);
    sheet.letter(box.topLeft() + QPointF(6, 0),
        QObject::tr("heat store, %1").arg(QString::fromUtf8(style::heatStore.unit(study.system).symbol.data())), 11, t.mute,
        Qt::AlignLeft | Qt::AlignTop, false);
    if (known.empty()) {
        sheet.letter(box.center(), QObject::tr("no corner is weighed complete"), 12, t.unproven, Qt::AlignCenter, false);
        return;
    }
    const auto range = [&](const std::vector<Figure>& figures, const Style& style) {
        const Unit& unit = style.unit(study.system);
        double low = 1e300;
        double high = -1e300;
        for (const std::size_t i : known) {
            low = std::min(low, fromSi(*figures[i].value, unit));
            high = std::max(high, fromSi(*figures[i].value, unit));
        }
        const double room = std::max(0.25 * (high - low), 0.05 * high);
        return std::pair { std::max(0.0, low - room), high + room };
    };
    const auto [m0, m1] = range(mass, style::partMass);
    const auto [s0, s1] = range(store, style::heatStore);
    const auto x = [&, m0 = m0, m1 = m1](double kilograms) {
        return box.left() + (fromSi(kilograms, style::partMass.unit(study.system)) - m0) / (m1 - m0) * box.width();
    };
    const auto y = [&, s0 = s0, s1 = s1](double joules) {
        return box.bottom() - (fromSi(joules, style::heatStore.unit(study.system)) - s0) / (s1 - s0) * box.height();
    };
    for (double v = std::ceil(m0 / stepFor(m1 - m0)) * stepFor(m1 - m0); v <= m1; v += stepFor(m1 - m0)) {
        const double at = box.left() + (v - m0) / (m1 - m0) * box.width();
        sheet.line(
            QPolygonF { QPointF(at, box.bottom()), QPointF(at, box.bottom() + 4) }, { t.ink, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ at, box.bottom() + 5 }, QString::number(v, 'g', 4), 11, t.mute, Qt::AlignHCenter | Qt::AlignTop);
    }
    for (double v = std::ceil(s0 / stepFor(s1 - s0)) * stepFor(s1 - s0); v <= s1; v += stepFor(s1 - s0)) {
        const double at = box.bottom() - (v - s0) / (s1 - s0) * box.height();
        sheet.line(QPolygonF { QPointF(box.left() - 4, at), QPointF(box.left(), at) }, { t.ink, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ box.left() - 6, at }, QString::number(v, 'g', 4), 11, t.mute, Qt::AlignRight | Qt::AlignVCenter);
    }
    QPolygonF front;
    for (const std::size_t i : known)
        if (c.unbeaten[i])
            front << QPointF(x(*mass[i].value), y(*store[i].value));
    std::ranges::sort(front, {}, &QPointF::x);
    if (front.size() > 1)
        sheet.line(front, { t.good, 1.4, Qt::DotLine, {}, Hatch::None, {}, 0 });
    for (const std::size_t i : known) {
        const QPointF at(x(*mass[i].value), y(*store[i].value));
        const bool found = i == 0;
        const bool judged = c.setups[i] == study.after.setup;
        const QColor colour = found ? t.found : judged ? t.proposal : t.ink;
        // How far off either may be.
        const double wide = std::abs(x(*mass[i].value + mass[i].rootSumSquare) - at.x());
        const double high = std::abs(y(*store[i].value + store[i].rootSumSquare) - at.y());
        sheet.line(QPolygonF { at - QPointF(wide, 0), at + QPointF(wide, 0) }, { colour, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.line(QPolygonF { at - QPointF(0, high), at + QPointF(0, high) }, { colour, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        QPainterPath dot;
        if (found)
            dot.addRect(QRectF(at - QPointF(4, 4), QSizeF(8, 8)));
        else
            dot.addEllipse(at, 5, 5);
        sheet.area(dot, { colour, 1.6, Qt::SolidLine, c.unbeaten[i] ? colour : t.paper, Hatch::None, {}, 0 });
        const bool left = at.x() > box.center().x();
        sheet.letter(at + QPointF(left ? -9 : 9, -9),
            QFontMetrics(reading(12)).elidedText(QString::fromStdString(c.setups[i]->name), Qt::ElideRight, 130), 12, colour,
            (left ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignBottom, false);
    }
    for (std::size_t i = 0, line = 0; i < c.setups.size(); ++i)
        if (!mass[i].value || !store[i].value)
            sheet.letter(box.bottomLeft() + QPointF(0, 40 + 16.0 * static_cast<double>(line++)),
                QObject::tr("%1: not weighed complete").arg(QString::fromStdString(c.setups[i]->name)), 11, t.unproven,
                Qt::AlignLeft | Qt::AlignTop, false);
}

} // namespace

Sheet comparisonSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = axle == Axle::Front ? QObject::tr("Front corner, old against new") : QObject::tr("Rear corner, old against new");
    const Comparison c = compare(study, axle);
    if (c.setups.empty())
        return sheet;
    const std::size_t shown = std::min(c.setups.size(), mostBeside + 1);
    sheet.subtitle = c.setups.size() < 2
        ? QObject::tr("no other setup equips this axle yet")
        : QObject::tr("like for like, one corner; bars are the change against %1").arg(QString::fromStdString(c.setups.front()->name));
    const bool plot = c.setups.size() > 1;
    const double tableWidth = plot ? 500 : 744;
    const double title = 150;
    const double first = 226;
    const double each = shown > 1 ? (tableWidth - first) / static_cast<double>(shown - 1) : 0;
    double y = 8;
    const auto name = [&](std::size_t i, double room) {
        return QFontMetrics(reading(12, QFont::DemiBold))
            .elidedText(QString::fromStdString(c.setups[i]->name), Qt::ElideRight, static_cast<int>(room));
    };
    sheet.letter({ first - 4, y }, name(0, 90), 12, t.found, Qt::AlignRight | Qt::AlignVCenter, false);
    for (std::size_t i = 1; i < shown; ++i)
        sheet.letter({ first + each * static_cast<double>(i) - 4, y }, name(i, each - 8), 12,
            c.setups[i] == study.after.setup ? t.proposal : t.ink, Qt::AlignRight | Qt::AlignVCenter, false);
    const auto inDocument = QString::fromStdString(study.build->currency);
    for (const ComparisonRow& row : c.rows) {
        y += 36;
        sheet.line(QPolygonF { QPointF(0, y + 18), QPointF(tableWidth, y + 18) }, { t.rule, 0.7, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        auto heading = QString::fromStdString(row.title);
        sheet.letter({ 0, y }, QFontMetrics(reading(13)).elidedText(heading, Qt::ElideRight, static_cast<int>(title)), 13, t.ink,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        const auto say = [&](const Figure& f) {
            if (!f.value)
                return QStringLiteral("?");
            auto text = QString::fromStdString(print(*f.value, row.style, study.system));
            if (row.money && !inDocument.isEmpty())
                text += QChar(0x00a0) + inDocument;
            return text + (f.provisional() ? QStringLiteral("?") : QString());
        };
        const Figure& before = row.figures.front();
        sheet.letter({ first - 4, y }, say(before), 12, before.value && !before.provisional() ? t.ink : t.unproven,
            Qt::AlignRight | Qt::AlignVCenter);
        for (std::size_t i = 1; i < shown; ++i) {
            const Figure& after = row.figures[i];
            const double right = first + each * static_cast<double>(i) - 4;
            sheet.letter({ right, y - 6 }, say(after), 12, after.value && !after.provisional() ? t.ink : t.unproven,
                Qt::AlignRight | Qt::AlignVCenter);
            if (!row.change(i))
                continue;
            // Change as a bar from the middle of its column; half the column is half as much again.
            const double change = *row.change(i);
            const double half = (each - 22) / 2;
            const double middle = right - half;
            const double length = std::clamp(change / 0.5, -1.0, 1.0) * half;
            const bool neither = row.better == Better::Neither || std::abs(change) < 0.005;
            const bool better = (change > 0) == (row.better == Better::More);
            const QColor colour = neither ? t.metal : better ? t.good : t.caution;
            sheet.line(QPolygonF { QPointF(middle - half, y + 9), QPointF(middle + half, y + 9) },
                { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet.area(rectangle(middle, y + 5, middle + length, y + 13),
                { colour, 1.2, Qt::SolidLine, t.paper,
                    neither      ? Hatch::None
                        : better ? Hatch::Dense
                                 : Hatch::Rising,
                    colour, 5 });
            sheet.line(
                QPolygonF { QPointF(middle, y + 3), QPointF(middle, y + 15) }, { t.ink, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            const auto percent = (change > 0 ? QStringLiteral("+") : QString())
                + QString::fromStdString(figure(change, style::share, UnitSystem::Metric)) + QStringLiteral(" %");
            sheet.letter({ right - 2 * half, y - 6 }, percent, 11, neither ? t.mute : colour, Qt::AlignLeft | Qt::AlignVCenter);
        }
    }
    if (c.setups.size() > shown)
        sheet.letter({ tableWidth, y + 30 }, QObject::tr("%1 more setups stand in the plot only").arg(c.setups.size() - shown), 11, t.mute,
            Qt::AlignRight | Qt::AlignVCenter, false);
    if (plot)
        addPlot(sheet, study, c, QRectF(QPointF(556, 40), QPointF(748, 330)));
    const QString legend[] { QObject::tr("Dense bars: better."), QObject::tr("Slanted: worse."), QObject::tr("Plain: a matter of choice."),
        QObject::tr("Filled: nothing beats it in both.") };
    for (int i = 0; i < 4 && plot; ++i)
        sheet.letter({ 556, 404 + 16.0 * i }, QFontMetrics(reading(11)).elidedText(legend[i], Qt::ElideRight, 200), 11, t.mute,
            Qt::AlignLeft | Qt::AlignTop, false);
    sheet.extent = QRectF(QPointF(0, -4), QPointF(752, y + 40));
    return sheet;
}

} // namespace deepstop::app
