#include "stages/wheel/wheel_sheets.hpp"

#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>

namespace deepstop::app {

Sheet wantedSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.title = QObject::tr("Limits for this build");
    sheet.subtitle =
        QObject::tr("%1 · every check is held against these; at first they are common practice, without a source").arg(unitNote(study));
    sheet.scaleBar = false;
    static const Build usual;
    static const Directory usualDirectory(usual);
    constexpr double halfWay = 396;
    double x = 0;
    double y = 0;
    const auto group = [&](const QString& heading) {
        y += y > 0 ? 20 : 0;
        sheet.letter({ x, y }, heading, 15, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.line(QPolygonF { QPointF(x, y + 12), QPointF(x + 364, y + 12) }, { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        y += 28;
    };
    const auto row = [&](const char* key, const QString& what) {
        const std::string pointer = std::string("/wants/") + key;
        const auto* entry = usualDirectory.at(pointer);
        sheet.letter({ x, y }, what, 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ pointer, {}, { x + 196, y }, { x + 196, y }, Run::Table, 0, true, {}, 0.5 });
        const auto value = entry && entry->reading->value
            ? QString::fromStdString(print(*entry->reading->value, entry->address.style, study.system))
            : QString();
        sheet.letter({ x + 284, y }, QObject::tr("usually %1").arg(value), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 25.5;
    };
    group(QObject::tr("Between wheel and brakes"));
    row("barrel_gap_mm", QObject::tr("Caliper to wheel barrel"));
    row("spoke_gap_mm", QObject::tr("Spokes outboard of it"));
    row("weight_height_mm", QObject::tr("Balance weights, place not known"));
    row("station_spacing_mm", QObject::tr("Stations of a wheel apart"));
    row("keep_out_gap_mm", QObject::tr("Knuckle and ball joint"));
    row("hose_gap_mm", QObject::tr("Hose at droop and lock"));
    group(QObject::tr("Rotor in caliper and shield"));
    row("bridge_gap_mm", QObject::tr("Rotor to caliper bridge (hot)"));
    row("face_gap_mm", QObject::tr("Rotor's face to the slot"));
    row("hat_gap_mm", QObject::tr("Caliper to hat"));
    row("shield_gap_mm", QObject::tr("Shield round the rotor"));
    row("hot_rise_k", QObject::tr("Hot ring over the garage"));
    row("coning_mm", QObject::tr("Coning of a hot rotor"));
    const double left = y;
    x = halfWay;
    y = 0;
    group(QObject::tr("Holding the wheel"));
    row("stud_engagement", QObject::tr("Thread in nut, diameters"));
    row("pilot_left_mm", QObject::tr("Pilot left for the wheel"));
    row("spacer_step_mm", QObject::tr("A turned spacer is made to"));
    group(QObject::tr("Centring and bolts"));
    row("centred_mm", QObject::tr("Off the middle, aimed at"));
    row("usable_mm", QObject::tr("Off the middle, usable"));
    row("pad_edge_mm", QObject::tr("Pad below the rotor's edge"));
    row("shims_per_bolt", QObject::tr("Shims on one bolt, at most"));
    row("antilock_quality", QObject::tr("Share of the grip antilock uses"));
    row("slip_margin", QObject::tr("Slip safety factor of the bolts"));
    sheet.extent = QRectF(QPointF(-6, -16), QPointF(770, std::max({ left, y, 480.0 })));
    return sheet;
}

} // namespace deepstop::app
