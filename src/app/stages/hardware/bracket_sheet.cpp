#include "stages/hardware/hardware_sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "stages/bench/part_sheet.hpp"
#include "hardware/hardware.hpp"

namespace deepstop::app {

Sheet bracketSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.title = axle == Axle::Front ? QObject::tr("Adapter bracket, front") : QObject::tr("Adapter bracket, rear");
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    if (!r.corner)
        return sheet;
    sheet.subtitle =
        QObject::tr("%1 · seen from outboard, outward is up · from the readings of knuckle, caliper and rotor").arg(unitNote(study));
    const std::string at = cornerPointer(study, study.after, axle);
    const std::string hub = axle == Axle::Front ? "/front_hub" : "/rear_hub";
    const BracketStudy made = bracketOf(study, axle);

    // The plate, its holes, the rotor's edge and the axis far below; y runs down the sheet.
    double top = -0.150, low = -0.110, half = 0.1;
    const double edge = r.drawn.rotor.outerRadius;
    const auto place = [](double x, double y) { return QPointF(x * 1000, -y * 1000); };
    if (made.adapter) {
        const bracket::Adapter& a = *made.adapter;
        QPolygonF outline;
        for (const paper::Point p : a.outline) {
            outline << place(p.x, p.y);
            top = std::min(top, -p.y);
            low = std::max(low, -p.y);
            half = std::max(half, std::abs(p.x));
        }
        QPainterPath plate;
        plate.addPolygon(outline);
        plate.closeSubpath();
        sheet.area(plate, PartSheet::cut());
        for (const bracket::Hole& hole : a.holes) {
            sheet.area(circle(place(hole.x, hole.y), hole.diameter * 500),
                { hole.toKnuckle ? t.ink : t.proposal, 1.6, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
            for (const QPointF arm : { QPointF(hole.diameter * 750, 0), QPointF(0, hole.diameter * 750) })
                sheet.line(QPolygonF { place(hole.x, hole.y) - arm, place(hole.x, hole.y) + arm },
                    { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        }
        for (const bracket::EdgeBore& bore : a.bores) {
            const double x = bore.diameter / 2;
            sheet.line(QPolygonF { place(bore.x - x, bore.mouth), place(bore.x - x, bore.mouth - bore.depth),
                           place(bore.x + x, bore.mouth - bore.depth), place(bore.x + x, bore.mouth) },
                { t.proposal, 1.4, Qt::DashLine, {}, Hatch::None, {}, 0 });
            sheet.line(QPolygonF { place(bore.x, bore.mouth + 3e-3), place(bore.x, bore.mouth - bore.depth - 3e-3) },
                { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        }
    }
    QPolygonF arc;
    for (int i = -20; i <= 20; ++i)
        arc << place(edge * std::sin(i * 0.04), edge * std::cos(i * 0.04));
    sheet.line(arc, { t.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    sheet.letter(place(0, edge + 5e-3), QObject::tr("rotor's edge"), 12, t.mute);
    top = std::min(top, -edge - 0.012);
    sheet.line(QPolygonF { place(0, -low - 0.02), place(0, -top) }, { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    half += 0.016;

    const auto& hubRead = hubOf(*study.build, axle);
    const double knuckleY = hubRead.lugRadius.value.value_or(0.13);
    const double knuckleX = hubRead.lugSpacing.value.value_or(0.146) / 2;
    const double caliperX = r.corner->caliper.mountSpacing.value.value_or(0.15) / 2;
    const double caliperY = made.adapter ? made.adapter->caliperHeight : edge - 0.03;
    sheet.dimensions.push_back({ hub + "/lug_spacing_mm", {}, place(-knuckleX, knuckleY), place(knuckleX, knuckleY), Run::Horizontal,
        low * 1000 + 16, false, QObject::tr("knuckle"), 0.5 });
    sheet.dimensions.push_back({ at + "/caliper/mount_spacing_mm", {}, place(-caliperX, caliperY), place(caliperX, caliperY),
        Run::Horizontal, top * 1000 - 6, false, QObject::tr("caliper"), 0.5 });

    const double u = std::max((2 * half * 1000 + 300) / 756, (low - top) * 1000 / 300);
    const double column = half * 1000 + 12 * u;
    double y = top * 1000 - 10 * u;
    const auto cell = [&](const std::string& key, const QString& caption, bool mayLack = false) {
        sheet.letter({ column, y }, caption, 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ key, {}, {}, { column + 206 * u, y }, Run::Table, 0, false, {}, 0.5, mayLack });
        y += 25.5 * u;
    };
    const auto heading = [&](const QString& text) {
        sheet.letter({ column, y }, text, 14, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 22 * u;
    };
    heading(QObject::tr("Knuckle"));
    cell(hub + "/lug_radius_mm", QObject::tr("Lugs from the axis"));
    cell(hub + "/lug_depth_mm", QObject::tr("Lugs' face from the hub face"));
    cell(hub + "/lug_thickness_mm", QObject::tr("Thickness of the lugs"));
    cell(hub + "/lug_edge_mm", QObject::tr("Hole to the lug's edge"));
    const bool radial = r.corner->mount.kind == MountKind::Radial;
    heading(QObject::tr("Caliper, on the rotor it is meant for"));
    cell(at + "/caliper/mount_drop_mm",
        radial ? QObject::tr("Its mounting face below the edge") : QObject::tr("Its holes inward of the edge"));
    cell(at + "/caliper/mount_depth_mm",
        radial ? QObject::tr("Its studs from the slot's middle") : QObject::tr("Its face from the slot's middle"));
    heading(QObject::tr("Bracket"));
    cell(at + "/bracket/knuckle_hole_mm", QObject::tr("Holes to the knuckle, Ø"));
    cell(at + "/bracket/caliper_hole_mm", QObject::tr("Holes to the caliper, Ø"));
    cell(at + "/bracket/thickness_mm", QObject::tr("Plate in hand, if any"), true);
    cell(at + "/bracket/proud_knuckle_mm", QObject::tr("Bolts proud of it, at the knuckle"));
    if (!radial)
        cell(at + "/bracket/proud_caliper_mm", QObject::tr("Bolts proud of it, at the caliper"));
    // Where the plate in hand reaches past what its holes need, its edge is what turns against wheel and rotor.
    heading(QObject::tr("Its edge, where it reaches further: across, from the axis"));
    const std::size_t points = r.corner->bracket.outline.size();
    for (std::size_t i = 0; i <= points; ++i) {
        const std::string point = at + "/bracket/outline/" + (i < points ? std::to_string(i) : "-");
        sheet.dimensions.push_back({ point + "/across_mm", {}, {}, { column + 126 * u, y }, Run::Table, 0, false, {}, 0.5, true });
        sheet.dimensions.push_back({ point + "/radius_mm", {}, {}, { column + 206 * u, y }, Run::Table, 0, false, {}, 0.5, true });
        y += 25.5 * u;
    }
    sheet.fact(at + "/bracket/material", QObject::tr("Material"), { column, y - 4 * u }, 132);
    sheet.fact(at + "/bracket/bolt_thread", QObject::tr("Bolts to the knuckle"), { column + 140 * u, y - 4 * u }, 110);

    // What comes out, under the plate, in words.
    double line = low * 1000 + 46 * u;
    const double left = -half * 1000;
    const auto say = [&](const QString& text, const QColor& colour) {
        // A sentence too long for the sheet goes on in the next line.
        QString rest = text;
        while (!rest.isEmpty()) {
            const int cut =
                rest.size() <= 60 ? static_cast<int>(rest.size()) : std::max(1, static_cast<int>(rest.lastIndexOf(QLatin1Char(' '), 60)));
            sheet.letter({ left, line }, rest.left(cut).trimmed(), 12.5, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
            rest = rest.mid(cut).trimmed();
            line += 18 * u;
        }
    };
    const auto length = [&](double metres) { return QString::fromStdString(print(metres, style::fine, study.system)); };
    if (!made.adapter) {
        say(QString::fromStdString(made.lacks), t.unproven);
    } else {
        const bracket::Adapter& a = *made.adapter;
        say(QObject::tr("Plate %1 thick; %2 of metal between the holes, %3 to the edge; %4 from the axis.")
                .arg(length(a.thickness), length(a.wall), length(a.edge),
                    (a.bores.empty() ? QObject::tr("its caliper holes %1") : QObject::tr("the edge its caliper stands on %1"))
                        .arg(length(a.caliperHeight))),
            t.ink);
        say(QObject::tr("One plate serves left and right, turned over. Bolts: %1.").arg(QString::fromStdString(made.bolts)), t.ink);
        if (std::isfinite(made.slipMargin))
            say(QObject::tr("Friction of painted faces holds %1 times what each has to carry, one in shear %2 times.")
                    .arg(made.slipMargin, 0, 'f', 2)
                    .arg(made.bearingMargin, 0, 'f', 1),
                made.slipMargin < 1 ? t.bad : t.ink);
        for (const auto& fault : made.faults)
            say(QStringLiteral("– ") + QString::fromStdString(fault), t.bad);
        say(QObject::tr("File → Save the bracket as… for STEP, DXF, PDF, or an STL to try in plastic: fit check only, never drive."),
            t.mute);
    }
    say(QObject::tr("Bending is not proven here: to be judged by a qualified engineer before it is made or driven."), t.bad);
    sheet.extent = QRectF(QPointF(left - 6, top * 1000 - 22 * u), QPointF(column + 270 * u, std::max(line + 26 * u, y + 40 * u)));
    return sheet;
}

} // namespace deepstop::app
