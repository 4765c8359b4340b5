#include "stages/wheel/wheel_sheets.hpp"

#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

namespace deepstop::app {

Sheet wantedSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.title = QObject::tr("What this builder wants");
    sheet.subtitle = QObject::tr("%1 · every check is held against these; at first they are common practice, without a source").arg(unitNote(study));
    sheet.scaleBar = false;
    static const Build usual;
    static const Directory usualDirectory(usual);
    double y = 0;
    const auto group = [&](const QString& heading) {
        y += y > 0 ? 20 : 0;
        sheet.letter({ 0, y }, heading, 15, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.line(QPolygonF { QPointF(0, y + 12), QPointF(700, y + 12) }, { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        y += 28;
    };
    const auto row = [&](const char* key, const QString& what, const QString& why) {
        const std::string pointer = std::string("/wants/") + key;
        const auto* entry = usualDirectory.at(pointer);
        sheet.letter({ 0, y }, what, 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ pointer, {}, { 250, y }, { 250, y }, Run::Table, 0, true, {}, 0.5 });
        const auto value = entry && entry->reading->value ? QString::fromStdString(print(*entry->reading->value, entry->address.style, study.system)) : QString();
        sheet.letter({ 340, y }, QObject::tr("usually %1").arg(value), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.letter({ 445, y }, why, 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 25.5;
    };
    group(QObject::tr("Between wheel and brakes"));
    row("barrel_gap_mm", QObject::tr("Barrel over the caliper"), QObject::tr("weights and valve likewise; a wheel's give comes on top"));
    row("spoke_gap_mm", QObject::tr("Spokes outboard of the caliper"), QObject::tr("2 to 3 mm is tight"));
    row("station_spacing_mm", QObject::tr("Stations of a wheel apart"), QObject::tr("farther apart, something may hide between"));
    row("keep_out_gap_mm", QObject::tr("Knuckle and ball joint"), QObject::tr("to what turns"));
    row("hose_gap_mm", QObject::tr("Hose"), QObject::tr("at droop and at lock"));
    group(QObject::tr("Rotor in caliper and shield"));
    row("bridge_gap_mm", QObject::tr("Bridge over the hot rotor"), QString());
    row("face_gap_mm", QObject::tr("Rotor's face to the slot"), QString());
    row("hat_gap_mm", QObject::tr("Caliper over the hat"), QString());
    row("shield_gap_mm", QObject::tr("Dust shield round the rotor"), QObject::tr("margin of the cutting line as well"));
    row("hot_rise_k", QObject::tr("Hot ring over the garage"), QObject::tr("it grows by that"));
    row("coning_mm", QObject::tr("Coning of a hot rotor"), QObject::tr("at its edge"));
    group(QObject::tr("Holding the wheel"));
    row("stud_engagement", QObject::tr("Thread in the nut, stud diameters"), QString());
    row("pilot_left_mm", QObject::tr("Pilot left for the wheel"), QString());
    row("spacer_step_mm", QObject::tr("A turned spacer is made to"), QString());
    sheet.extent = QRectF(QPointF(-6, -16), QPointF(760, std::max(y, 500.0)));
    return sheet;
}

} // namespace deepstop::app
