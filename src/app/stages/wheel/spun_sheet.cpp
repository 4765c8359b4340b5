#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "stages/bench/part_sheet.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

namespace deepstop::app {

/// What is read directly with the wheel on: left and right side by side, how it is done over it.
Sheet spunSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = axle == Axle::Front ? QObject::tr("Front wheel on and spun") : QObject::tr("Rear wheel on and spun");
    sheet.extent = QRectF(QPointF(-6, -10), QPointF(770, 500));
    const CornerClearance& corner = study.of<Clearance>().after.at(axle).left;
    if (!corner.corner || !corner.wheel)
        return sheet;
    sheet.title += QStringLiteral(" · %1").arg(QString::fromStdString(study.after.setup->name));
    sheet.subtitle = QObject::tr("%1 · %2 · a gap read here outranks what the dimensions say of it, for this wheel and these parts")
                         .arg(QString::fromStdString(corner.wheel->name), unitNote(study));
    double y = 0;
    for (const QString& line : { QObject::tr("1  Everything of the kit on, shims in, wheel on with its spacer, two nuts tight."),
             QObject::tr("2  A flat of clay on the caliper's highest places, or a feeler where one can be reached."),
             QObject::tr("3  The wheel a whole turn by hand; a front wheel at droop and at both full locks as well."),
             QObject::tr("4  The thinnest clay is the gap. Cleared by a feeler of 3 mm: 3. It touches by about 1 mm: −1."),
             QObject::tr("5  Clay and feelers out again before the car moves.") }) {
        sheet.letter({ 0, y }, line, 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 22;
    }
    y += 26;
    constexpr double columns[] { 230, 470 };
    const std::string at = cornerPointer(study, study.after, axle);
    const auto side = [&](Side each) { return at + (each == Side::Left ? "/left/spun" : "/right/spun"); };
    sheet.letter({ columns[0], y }, QObject::tr("left"), 14, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    sheet.letter({ columns[1], y }, QObject::tr("right"), 14, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    y += 30;
    const auto row = [&](const char* key, const QString& what) {
        sheet.letter({ 0, y }, what, 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        for (const Side each : { Side::Left, Side::Right })
            sheet.dimensions.push_back({ side(each) + key, {}, {}, { columns[each == Side::Left ? 0 : 1], y }, Run::Table, 0, true, {}, 0.5,
                true, QObject::tr("not read") });
        y += 32;
    };
    row("/barrel_mm", QObject::tr("Gap to the barrel"));
    row("/spokes_mm", QObject::tr("Gap to the spokes"));
    row("/weights_mm", QObject::tr("Gap to balance weights and valve"));
    y += 6;
    for (const auto& [key, what] : { std::pair { "/whole_turn", QObject::tr("turned a whole turn") },
             std::pair { "/at_locks", axle == Axle::Front ? QObject::tr("at droop and both locks") : QObject::tr("at full droop") } }) {
        for (const Side each : { Side::Left, Side::Right })
            sheet.fact(side(each) + key, what, { columns[each == Side::Left ? 0 : 1], y }, 150);
        y += 46;
    }
    for (const Side each : { Side::Left, Side::Right }) {
        const Spun& spun = corner.corner->at(each).spun;
        QString said;
        if (!spun.wheel.empty() && spun.wheel != corner.wheel->id)
            said = QObject::tr("read with another wheel: it counts for that one");
        else if (!spun.changed.empty())
            said = QObject::tr("changed since: %1. Estimates until read again").arg(QString::fromStdString(spun.changed));
        sheet.letter({ columns[each == Side::Left ? 0 : 1], y + 6 }, said, 12, t.unproven, Qt::AlignLeft | Qt::AlignVCenter, false);
    }
    y += 40;
    double wish = 90;
    for (const auto& [check, what] : { std::pair { &checks::barrelGap, QObject::tr("barrel") },
             std::pair { &checks::insetGap, QObject::tr("weights") }, std::pair { &checks::spokeGap, QObject::tr("spokes") } })
        if (const Verdict* v = study.verdict(*check, { axle })) {
            const auto value =
                v->figure.value ? QString::fromStdString(print(*v->figure.value, style::gap, study.system)) : QStringLiteral("?");
            sheet.callouts.push_back({ v->id, what + QStringLiteral(" ") + value, v->level, { wish, y }, { wish, y }, { wish, y } });
            wish += 190;
        }
    return sheet;
}

} // namespace deepstop::app
