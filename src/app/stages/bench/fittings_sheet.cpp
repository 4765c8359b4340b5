#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>

namespace deepstop::app {
namespace {

/// Two pairs of holes in a plate, drawn as they lie: knuckle pair below, caliper pair above.
void addBracket(Sheet& sheet, QPointF at, double knuckle, double caliper)
{
    const double wide = std::max(knuckle, caliper) / 2 + 15;
    QPainterPath plate;
    plate.addRoundedRect(QRectF(at + QPointF(-wide, -24), at + QPointF(wide, 24)), 10, 10);
    sheet.area(plate, PartSheet::cut());
    for (const auto& [half, y] : { std::pair { knuckle / 2, 11.0 }, std::pair { caliper / 2, -11.0 } })
        for (const double x : { -half, half })
            sheet.area(circle(at + QPointF(x, y), 6.2), PartSheet::hole());
}

} // namespace

Sheet fittingsSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("hub, bracket and hose"));
    if (!p.after.corner)
        return p.sheet;
    const Theme& t = theme();
    Sheet& sheet = p.sheet;
    const Corner& corner = *p.after.corner;
    const Hub& hub = hubOf(*study.build, axle);
    const std::string hubAt = axle == Axle::Front ? "/front_hub" : "/rear_hub";
    const double flange = hub.flangeDiameter.value.value_or(0.138) * 500;
    const double pilot = hub.pilotDiameter.value.value_or(0.066) * 500;
    const double bolts = hub.boltCircle.value.value_or(0.11) * 500;
    const double stud = hub.studDiameter.value.value_or(0.012) * 500;

    // The hub from outboard, and its edge to the right of it.
    const QPointF face(-flange, 0);
    sheet.area(circle(face, flange), PartSheet::plate());
    sheet.area(circle(face, bolts), { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    for (int i = 0; i < hub.studCount; ++i) {
        const double angle = 2 * std::numbers::pi * i / hub.studCount - std::numbers::pi / 2;
        sheet.area(circle(face + QPointF(std::cos(angle), std::sin(angle)) * bolts, stud), PartSheet::cut());
    }
    sheet.area(circle(face, pilot), PartSheet::hole());
    const double edge = 34;
    const double height = hub.pilotHeight.value.value_or(0.012) * 1000;
    const double length = hub.studLength.value.value_or(0.038) * 1000;
    sheet.area(rectangle(edge, -pilot, edge + height, pilot), PartSheet::plate());
    for (const double y : { -bolts, bolts })
        sheet.area(rectangle(edge, y - stud, edge + length, y + stud), PartSheet::cut());
    sheet.area(rectangle(edge - 12, -flange, edge, flange), PartSheet::cut());
    p.axisLine({ -2 * flange - 12, 0 }, { edge + length + 14, 0 });

    // Bracket under it, hose under that.
    const double knuckle = corner.bracket.knuckleSpacing.value.value_or(hub.lugSpacing.value.value_or(0.14)) * 1000;
    const double caliper = corner.bracket.caliperSpacing.value.value_or(corner.caliper.mountSpacing.value.value_or(0.15)) * 1000;
    const QPointF plate(-flange + 6, flange + 74);
    addBracket(sheet, plate, knuckle, caliper);
    const double hoseY = flange + 150;
    QPainterPath hose(QPointF(-2 * flange, hoseY));
    hose.cubicTo(QPointF(-flange, hoseY - 40), QPointF(-flange * 0.6, hoseY + 46), QPointF(edge + 6, hoseY));
    sheet.area(hose, { t.ink, 7, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    sheet.area(hose, { t.metalWash, 4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    for (const double x : { -2 * flange - 12, edge + 4.0 })
        sheet.area(rectangle(x, hoseY - 6, x + 14, hoseY + 6), PartSheet::cut());

    const auto put = [&](const std::string& key, QPointF from, QPointF wish, const QString& caption, const QString& prefix = {},
                         bool unit = false, bool mayLack = false) {
        sheet.dimensions.push_back({ key, prefix, from, wish, Run::Leader, 0, unit, caption, 0.5, mayLack });
    };
    const double facts = edge + length + 46;
    const double top = -flange - 22;
    double row = top;
    int column = 0;
    const auto fact = [&](const std::string& key, const QString& caption) {
        sheet.fact(key, caption, { facts + column * 98, row }, 140);
        column = 1 - column;
        row += column == 0 ? 28 : 0;
    };
    const auto heading = [&](const QString& text) {
        if (column)
            row += 28;
        column = 0;
        sheet.letter({ facts, row + 8 }, text, 15, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        row += 17;
    };
    // What a vernier reads on the car first, then the parts in the box.
    sheet.dimensions.push_back({ hubAt + "/flange_diameter_mm", QStringLiteral("Ø "), { face.x() - flange, 0 }, { face.x() + flange, 0 },
        Run::Horizontal, -flange - 14, false, QObject::tr("flange"), 0.5 });
    put(hubAt + "/pilot_diameter_mm", face + QPointF(pilot * 0.7, pilot * 0.7), face, QObject::tr("pilot"), QStringLiteral("Ø "));
    put(hubAt + "/pilot_height_mm", { edge + height, 0 }, { edge + height + 18, pilot * 0.4 }, QObject::tr("pilot"));
    put(hubAt + "/bolt_circle_mm", face + QPointF(-bolts * 0.8, bolts * 0.6), face + QPointF(-flange * 0.86, flange * 0.94),
        QObject::tr("on Ø"));
    heading(QObject::tr("On the car"));
    fact(hubAt + "/stud_count", QObject::tr("Studs"));
    sheet.dimensions.push_back({ hubAt + "/stud_length_mm", {}, { edge, bolts }, { edge + length, bolts }, Run::Horizontal, bolts + 22,
        false, QObject::tr("stud"), 0.5 });
    put(hubAt + "/stud_diameter_mm", { edge + length, -bolts }, { edge + length - 4, -bolts - 22 }, QObject::tr("stud"),
        QStringLiteral("Ø "));
    fact(hubAt + "/lug_thread", QObject::tr("Lugs' thread"));
    fact(hubAt + "/line_thread", QObject::tr("Hard line's thread"));
    fact(hubAt + "/parking_brake", QObject::tr("Parking brake"));
    fact(p.corner + "/brakes", QObject::tr("Kind of brakes"));
    if (axle == Axle::Rear && study.after.setup != study.before.setup)
        fact("/setups/" + std::to_string(study.after.setup - study.build->setups.data()) + "/parking_brake_replaced",
            QObject::tr("Parking brake replaced"));
    put(hubAt + "/lug_spacing_mm", plate + QPointF(knuckle / 2, 11), { edge + length - 18, plate.y() + 30 }, QObject::tr("lugs apart"));
    put(hubAt + "/hose_reach_mm", { edge + 10, hoseY }, { edge + length - 18, hoseY + 26 }, QObject::tr("hose needed"));
    if (hub.parkingBrake == ParkingBrake::DrumInHat)
        put(hubAt + "/shoe_diameter_mm", face + QPointF(0, flange), face + QPointF(flange * 0.62, flange + 6), QObject::tr("shoes"),
            QStringLiteral("Ø "));
    heading(QObject::tr("In the box"));
    fact(p.corner + "/bracket/name", QObject::tr("Bracket"));
    fact(p.corner + "/bracket/bolt_thread", QObject::tr("Its bolts' thread"));
    p.horizontal("/bracket/knuckle_spacing_mm", plate.x() - knuckle / 2, plate.x() + knuckle / 2, plate.y() + 11, plate.y() + 36,
        QObject::tr("to the knuckle"));
    p.horizontal("/bracket/caliper_spacing_mm", plate.x() - caliper / 2, plate.x() + caliper / 2, plate.y() - 11, plate.y() - 36,
        QObject::tr("to the caliper"));
    p.leader("/hose/length_mm", { -flange * 0.9, hoseY }, { -flange * 0.9, hoseY + 30 }, QObject::tr("hose, end to end"));
    p.leader("/hose/bore_mm", { -flange * 0.5, hoseY }, { -flange * 0.2, hoseY + 30 }, QObject::tr("hose bore"));
    fact(p.corner + "/hose/kind", QObject::tr("Hose is"));
    fact(p.corner + "/hose/caliper_end", QObject::tr("Hose at the caliper"));
    fact(p.corner + "/hose/line_end", QObject::tr("Hose at the line"));
    heading(study.build->currency.empty() ? QObject::tr("What it costs")
                                          : QObject::tr("What it costs, %1").arg(QString::fromStdString(study.build->currency)));
    const auto price = [&](const char* key, const QString& caption) {
        p.leader(key, { facts + 14, row + 8 }, { facts + 14, row + 8 }, caption);
        row += 20;
    };
    price("/costs/kit", QObject::tr("the kit, this axle"));
    price("/costs/rotors", QObject::tr("a pair of rotors"));
    price("/costs/pads", QObject::tr("a set of pads"));
    fact(p.corner + "/costs/availability", QObject::tr("Availability"));
    if (study.after.setup)
        fact("/setups/" + std::to_string(study.after.setup - study.build->setups.data()) + "/vendor", QObject::tr("Sold by"));
    fact("/currency", QObject::tr("Currency"));
    sheet.extent = QRectF(QPointF(-2 * flange - 26, top - 6), QPointF(facts + 208, hoseY + 44));
    return sheet;
}

} // namespace deepstop::app
