#include "stages/heat/duty_sheets.hpp"

#include "drawing/shapes.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

Sheet setupsSheet(const Study& study, const std::vector<RunOf>& runs)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Setups on one duty");
    const DutyStudy& d = study.of<DutyStudy>();
    const bool judged = figures::judgedDuty(*study.build);
    sheet.subtitle = d.plan ? QObject::tr("%1 · how far each part goes towards its limit").arg(QString::fromStdString(d.duty.name))
        : judged            ? QObject::tr("being worked out")
                            : QString::fromStdString(noJudgedDuty(*study.build));
    if (!judged) {
        sheet.extent = QRectF(QPointF(-16, -20), QPointF(820, 480));
        return sheet;
    }
    if (runs.empty()) {
        sheet.extent = QRectF(QPointF(-16, -20), QPointF(820, 480));
        sheet.letter(
            { 0, 20 }, QObject::tr("The duty is being run with every setup…"), 13, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        return sheet;
    }
    double y = 20;
    const double left = 200;
    const double full = 400; // mm of the sheet for what a part bears
    for (const RunOf& each : runs) {
        const DutyHeat& r = *each.heat;
        sheet.letter({ 0, y }, QString::fromStdString(each.setup->name), 15,
            each.setup == study.after.setup        ? t.proposal
                : each.setup == study.before.setup ? t.found
                                                   : t.ink,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        if (!r.run || !r.run->complete) {
            sheet.letter({ left, y }, QString::fromStdString(lacking(study, r.known)).left(90), 12, t.unproven,
                Qt::AlignLeft | Qt::AlignVCenter, false);
            y += 60;
            continue;
        }
        const HeatLimit& first = r.limits.front();
        if (!each.spread.empty())
            sheet.letter({ left + full * 1.38, y },
                QObject::tr("fails in %1").arg(QString::fromStdString(print(each.fails, style::share, study.system))), 12,
                each.fails > 0.05 ? t.bad : t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        const auto fails = firstFailure(r, heat::stopsIn(d.duty));
        const QString word = fails ? QString::fromStdString(fails->words())
                                   : QObject::tr("no limit reached; nearest: %1, %2 left")
                                         .arg(QString::fromStdString(first.what),
                                             QString::fromStdString(print(first.limit - first.peak, style::rise, study.system)));
        sheet.letter({ left, y }, word, 13,
            fails                   ? (fails->critical ? t.bad : t.caution)
                : first.least() < 0 ? t.caution
                                    : t.good,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 22;
        // The four nearest, as parts of what they bear over the air.
        for (std::size_t i = 0; i < std::min<std::size_t>(4, r.limits.size()); ++i) {
            const HeatLimit& l = r.limits[i];
            if (!std::isfinite(l.limit))
                continue;
            const double part = (l.peak - r.car.ambient) / (l.limit - r.car.ambient);
            const double unsure = l.unsure / (l.limit - r.car.ambient);
            const QColor colour = part > 1 ? (l.critical ? t.bad : t.caution) : t.proposal;
            sheet.letter({ left - 10, y }, QString::fromStdString(l.what), 12, t.mute, Qt::AlignRight | Qt::AlignVCenter, false);
            sheet.area(rectangle(left, y - 5, left + full * std::min(1.35, part), y + 5),
                { colour, 1, Qt::SolidLine, colour, Hatch::None, {}, 0 });
            const auto place = [&](double peak) { return (peak - r.car.ambient) / (l.limit - r.car.ambient); };
            const bool drawn = i < each.spread.size();
            const double from = left + full * std::clamp(drawn ? place(each.spread[i].low) : part - unsure, 0.0, 1.35);
            const double to = left + full * std::clamp(drawn ? place(each.spread[i].high) : part + unsure, 0.0, 1.35);
            sheet.line({ QPointF(from, y), QPointF(to, y) }, { t.ink, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            for (const double end : { from, to })
                sheet.line({ QPointF(end, y - 4), QPointF(end, y + 4) }, { t.ink, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet.letter({ left + full * 1.38, y }, QString::fromStdString(print(l.peak, style::temperature, study.system)), 12, t.ink,
                Qt::AlignLeft | Qt::AlignVCenter);
            y += 18;
        }
        y += 22;
    }
    sheet.line({ QPointF(left + full, 8), QPointF(left + full, y - 16) }, { t.bad, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    sheet.letter({ left + full, y - 6 }, QObject::tr("its limit"), 12, t.bad, Qt::AlignCenter, false);
    sheet.extent = QRectF(QPointF(-16, -20), QPointF(820, std::max(480.0, y + 16)));
    return sheet;
}

} // namespace deepstop::app
