#include "stages/hardware/hardware_sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "stages/bench/part_sheet.hpp"

namespace deepstop::app {

Sheet halvesSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.title = QObject::tr("The caliper's halves");
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    if (!r.corner)
        return sheet;
    sheet.title += QStringLiteral(" · %1").arg(QString::fromStdString(r.corner->caliper.name));
    sheet.subtitle =
        QObject::tr("%1 · a split caliper takes a thicker rotor with spacers between its halves: Tools → Widen a split caliper…")
            .arg(unitNote(study));
    const Caliper& caliper = r.corner->caliper;
    const fit::CornerShape& s = r.drawn;
    const std::string at = cornerPointer(study, study.after, axle) + "/caliper";
    const double spacer = caliper.widened.value.value_or(0) * 1000;
    const double slot = s.caliper.slotWidth * 500;
    const double out = s.caliper.outboardDepth * 1000;
    const double in = s.caliper.inboardDepth * 1000;
    const double rotor = s.rotor.thickness * 500;
    const double bridge = 20;
    const double tall = 58;
    // Seen along the wheel's plane: two halves joined over the rotor, spacers in the joint.
    const auto halfOf = [&](double inner, double outer, double joint) {
        QPainterPath path(QPointF(joint, -tall));
        path.lineTo(outer, -tall);
        path.lineTo(outer, tall);
        path.lineTo(inner, tall);
        path.lineTo(inner, -tall + bridge);
        path.lineTo(joint, -tall + bridge);
        path.closeSubpath();
        return path;
    };
    const Ink cast { t.proposal, 1.8, Qt::SolidLine, t.proposalWash, Hatch::Falling, t.proposal, 8 };
    sheet.area(halfOf(slot, out, spacer / 2), cast);
    sheet.area(halfOf(-slot, -in, -spacer / 2), cast);
    if (spacer > 0)
        sheet.area(
            rectangle(-spacer / 2, -tall, spacer / 2, -tall + bridge), { t.ink, 1.2, Qt::SolidLine, t.lining, Hatch::Dense, t.ink, 5 });
    sheet.area(
        rectangle(-rotor, -tall + bridge + 5, rotor, tall + 8), { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::Falling, t.ink, 6 });
    // The bolt of the halves and the pad pin.
    const double length = caliper.bridgeBoltLength.value.value_or(0.06) * 1000;
    sheet.area(rectangle(out - 2, -tall + 5, out + 6, -tall + 15), { t.ink, 1.2, Qt::SolidLine, t.raised, Hatch::None, {}, 0 });
    sheet.area(rectangle(out - length, -tall + 7, out - 2, -tall + 13),
        { t.ink, 1.1, caliper.bridgeBoltLength.value ? Qt::SolidLine : Qt::DashLine, t.raised, Hatch::None, {}, 0 });
    const double pin = caliper.pinLength.value.value_or((out + in) * 0.8e-3) * 1000;
    // Pins lie over the rotor's edge, under the bridge.
    sheet.area(rectangle(-pin / 2, -tall + bridge + 0.8, pin / 2, -tall + bridge + 4),
        { t.ink, 1.1, caliper.pinLength.value ? Qt::SolidLine : Qt::DashLine, t.raised, Hatch::None, {}, 0 });
    sheet.line(QPolygonF { QPointF(0, -tall - 8), QPointF(0, tall + 14) }, { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.letter({ -in, tall + 8 }, QObject::tr("inboard half"), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    sheet.letter({ out, tall + 8 }, QObject::tr("outboard half"), 12, t.mute, Qt::AlignRight | Qt::AlignVCenter, false);

    sheet.dimensions.push_back(
        { at + "/slot_width_mm", {}, { -slot, tall }, { slot, tall }, Run::Horizontal, tall + 22, false, QObject::tr("slot"), 0.5 });
    sheet.dimensions.push_back({ at + "/widened_mm", {}, { -spacer / 2, -tall }, { spacer / 2, -tall }, Run::Horizontal, -tall - 14, false,
        QObject::tr("spacers"), 2.2, true });
    sheet.dimensions.push_back({ at + "/bridge_bolt_length_mm", {}, { out - 2 - length, -tall + 7 }, { out - 2, -tall + 7 },
        Run::Horizontal, -tall - 26, false, QObject::tr("bolts of the halves"), 0.5 });
    sheet.dimensions.push_back({ at + "/pin_length_mm", {}, { -pin / 2, -tall + bridge + 2.4 }, { pin / 2, -tall + bridge + 2.4 },
        Run::Horizontal, 12, false, QObject::tr("pins"), 0.72 });
    const double column = out + 34;
    const double u = std::max((out + in + 34 + 160) / 756, (2 * tall + 70) / 508);
    double y = -tall - 12;
    const auto fact = [&](const char* key, const QString& caption) {
        sheet.fact(at + key, caption, { column, y }, 150);
        y += 44 * u;
    };
    fact("/split", QObject::tr("Split caliper"));
    fact("/bridge_bolts", QObject::tr("Bolts of the halves"));
    fact("/bridge_bolt_thread", QObject::tr("Their thread"));
    fact("/crossover", QObject::tr("Fluid crosses inside"));
    for (const QString& words : { QObject::tr("A part that holds pressure:"), QObject::tr("class and torque from the maker"),
             QObject::tr("of the spacers; leak test;"), QObject::tr("qualified judgement.") }) {
        sheet.letter({ column, y }, words, 12.5, t.bad, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 18 * u;
    }
    sheet.extent = QRectF(QPointF(-in - 20, -tall - 38), QPointF(column + 160 * u, tall + 34));
    return sheet;
}

} // namespace deepstop::app
