#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_sheet.hpp"

#include <numbers>

namespace deepstop::app {

Sheet drumSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("drum"));
    if (!p.after.corner)
        return p.sheet;
    const Theme& t = theme();
    Sheet& sheet = p.sheet;
    const Drum& d = p.after.corner->drum;
    const auto mm = [](const Reading& reading, double usual) { return reading.value.value_or(usual) * 1000; };
    const double radius = mm(d.insideDiameter, 0.25) / 2;
    const double wall = mm(d.wall, 0.007);
    const double depth = mm(d.depth, 0.06);
    const double face = mm(d.faceThickness, 0.006);
    const double shoe = std::min(mm(d.shoeWidth, 0.045), depth - face);
    const double lining = mm(d.liningThickness, 0.005);
    const double pivot = mm(d.anchorRadius, 0.83 * radius / 1000);
    const double arc = d.shoeArc.value.value_or(100 * std::numbers::pi / 180);
    const auto known = [](std::initializer_list<const Reading*> all) {
        return std::ranges::all_of(all, [](const Reading* r) { return r->value.has_value(); }) ? Qt::SolidLine : Qt::DashLine;
    };

    // Seen along the axle: the drum's rim, its two shoes, pivot below and wheel cylinder above.
    Ink rim = PartSheet::cut();
    rim.line = known({ &d.insideDiameter, &d.wall });
    sheet.area(ring({}, radius + wall, radius), rim);
    for (const double way : { -1.0, 1.0 }) {
        QPainterPath shoePath;
        const double from = (way > 0 ? 0 : std::numbers::pi) - arc / 2;
        for (int i = 0; i <= 24; ++i) {
            const double a = from + arc * i / 24;
            const QPointF at(std::cos(a) * (radius - 0.6), -std::sin(a) * (radius - 0.6));
            i == 0 ? shoePath.moveTo(at) : shoePath.lineTo(at);
        }
        for (int i = 24; i >= 0; --i) {
            const double a = from + arc * i / 24;
            shoePath.lineTo(QPointF(std::cos(a) * (radius - lining), -std::sin(a) * (radius - lining)));
        }
        shoePath.closeSubpath();
        sheet.area(shoePath, { t.ink, 1.3, known({ &d.shoeArc, &d.liningThickness }), t.lining, Hatch::Dense, t.lining, 6 });
        QPainterPath web;
        web.moveTo(way * 8, pivot);
        web.quadTo(way * (radius - lining) * 1.02, 0, way * 20, -0.72 * radius);
        sheet.area(web, { t.ink, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.area(circle({ way * 8, pivot }, 4), PartSheet::hole());
    }
    const double bore = mm(d.cylinderBore, 0.02);
    sheet.area(rectangle(-20, -0.72 * radius - bore / 2 - 4, 20, -0.72 * radius + bore / 2 + 4), PartSheet::plate());
    sheet.area(rectangle(-20, -0.72 * radius - bore / 2, 20, -0.72 * radius + bore / 2), PartSheet::hole());
    p.axisLine({ -radius - wall - 8, 0 }, { radius + wall + 8, 0 });
    p.axisLine({ 0, -radius - wall - 8 }, { 0, radius + wall + 8 });

    // Beside it the same cut along the axle, outboard to the right.
    const double x = radius + wall + 60;
    Ink cut = PartSheet::cut();
    cut.line = known({ &d.depth, &d.faceThickness, &d.wall, &d.insideDiameter });
    QPainterPath section;
    section.addPolygon(QPolygonF { QPointF(x, -radius - wall), QPointF(x + depth, -radius - wall), QPointF(x + depth, -34),
        QPointF(x + depth - face, -34), QPointF(x + depth - face, -radius), QPointF(x, -radius) });
    section.closeSubpath();
    sheet.area(section, cut);
    sheet.area(rectangle(x + 3, -radius + 0.6, x + 3 + shoe, -radius + lining),
        { t.ink, 1.2, known({ &d.shoeWidth }), t.lining, Hatch::Dense, t.lining, 6 });
    p.axisLine({ x - 10, 0 }, { x + depth + 12, 0 });

    const double R = radius + wall;
    sheet.extent = QRectF(QPointF(-R - 46, -R - 40), QPointF(x + depth + 190, R + 34));
    const double u = p.pixel();
    p.vertical("/drum/inside_diameter_mm", -radius, radius, 0, -R - 24, QObject::tr("inside"), QStringLiteral("Ø "));
    p.leader("/drum/cylinder_bore_mm", { 18, -0.72 * radius }, { 0.30 * radius, -0.50 * radius }, QObject::tr("wheel cylinder"),
        QStringLiteral("Ø "));
    p.vertical("/drum/anchor_radius_mm", 0, pivot, 8, 0.28 * radius, QObject::tr("pivot"), {}, 0.5);
    p.leader("/drum/shoe_arc_deg", { -radius + lining, -10 }, { -0.62 * radius, -0.12 * radius }, QObject::tr("lining over"), {}, true);
    p.leader("/drum/lining_thickness_mm", { radius - lining, 14 }, { 0.62 * radius, 0.22 * radius }, QObject::tr("lining"));
    p.horizontal("/drum/depth_mm", x, x + depth, -R, -R - 18, QObject::tr("deep"));
    p.horizontal("/drum/face_thickness_mm", x + depth - face, x + depth, -34, -16, QObject::tr("face"), {}, 2.4);
    p.horizontal("/drum/shoe_width_mm", x + 3, x + 3 + shoe, -radius + lining, -radius + lining + 16, QObject::tr("shoe"));
    p.leader("/drum/wall_mm", { x + 4, -radius - wall / 2 }, { x - 26, -radius - wall - 6 }, QObject::tr("wall"));
    const double facts = x + depth + 40;
    double y = -R + 4 * u;
    const auto fact = [&](const std::string& key, const QString& caption) {
        sheet.fact(p.corner + key, caption, { facts, y }, 150);
        y += 42 * u;
    };
    const auto cell = [&](const char* key, const QString& caption) {
        sheet.letter({ facts, y }, caption, 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ p.corner + key, {}, {}, { facts, y + 19 * u }, Run::Table, 0, false, {}, 0.5 });
        y += 44 * u;
    };
    fact("/brakes", QObject::tr("Kind of brakes"));
    fact("/drum/name", QObject::tr("Name"));
    fact("/drum/kind", QObject::tr("Kind of drum"));
    y += 8 * u;
    cell("/drum/friction", QObject::tr("Friction of the lining"));
    cell("/drum/largest_diameter_mm", QObject::tr("Largest diameter, as cast"));
    cell("/drum/minimum_lining_mm", QObject::tr("Lining's minimum"));
    return sheet;
}

} // namespace deepstop::app
