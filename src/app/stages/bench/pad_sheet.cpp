#include "stages/bench/bench_sheets.hpp"
#include "chapters/clearance/clearance.hpp"
#include "chapters/parts/checks.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>

namespace deepstop::app {
namespace {

struct PadShape {
    double length;
    double height;
    double lining;
    double backing;
    bool radial; ///< ends along radii
};

PadShape shapeOf(const CornerClearance& r)
{
    const fit::PadShape& drawn = r.drawn.pad;
    return { r.corner->pad.length.value.value_or(2.3 * drawn.height) * 1000, drawn.height * 1000, drawn.thickness * 1000,
        drawn.backing * 1000, r.corner->pad.ends == PadEnds::Radial };
}

/// The lining's outline follows the ring: a slice of it with rounded corners.
QPainterPath outline(const PadShape& s, QPointF at, double ringRadius)
{
    // Radial ends draw in by what the inner circle is shorter.
    const double inner = s.radial && ringRadius > s.height ? 1 - s.height / ringRadius : 0.93;
    const double sag = std::clamp(s.length * s.length / 8 / std::max(ringRadius, 60.0), 0.0, s.height / 2);
    const double c = std::min(7.0, s.height / 5);
    const double x = s.length / 2;
    QPainterPath path(at + QPointF(-x, sag + c));
    path.quadTo(at + QPointF(-x, sag), at + QPointF(-x + c, sag - c * 0.3));
    path.quadTo(at + QPointF(0, -sag * 0.9), at + QPointF(x - c, sag - c * 0.3));
    path.quadTo(at + QPointF(x, sag), at + QPointF(x, sag + c));
    path.lineTo(at + QPointF(x * inner, s.height - c));
    path.quadTo(at + QPointF(x * inner - 1, s.height), at + QPointF(x * inner - 1 - c, s.height));
    path.lineTo(at + QPointF(-x * inner + 1 + c, s.height));
    path.quadTo(at + QPointF(-x * inner + 1, s.height), at + QPointF(-x * inner, s.height - c));
    path.closeSubpath();
    return path;
}

} // namespace

Sheet padSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("pads"));
    if (!p.after.corner)
        return p.sheet;
    const Theme& t = theme();
    Sheet& sheet = p.sheet;
    const Pad& pad = p.after.corner->pad;
    const PadShape s = shapeOf(p.after);
    const auto old = p.two && p.before.corner ? std::optional(shapeOf(p.before)) : std::nullopt;
    const double length = std::max(s.length, old ? old->length : 0);
    const double height = std::max(s.height, old ? old->height : 0);
    const double R = p.after.drawn.rotor.outerRadius * 1000;
    if (old)
        sheet.area(outline(*old, {}, R), PartSheet::ghost());
    sheet.area(outline(s, {}, R), { t.proposal, 1.8, Qt::SolidLine, t.proposalWash, Hatch::Dense, t.lining, 8 });
    // The edge, lining up, back down; each to scale.
    const double edge = length / 2 + 34;
    const auto side = [&](const PadShape& q, double x, const Ink& lining, const Ink& back) {
        sheet.area(rectangle(x, 0, x + q.lining, q.height), lining);
        sheet.area(rectangle(x + q.lining, -2, x + q.lining + q.backing, q.height + 2), back);
    };
    side(s, edge, { t.proposal, 1.6, Qt::SolidLine, t.proposalWash, Hatch::Dense, t.lining, 6 }, PartSheet::cut());
    if (old)
        side(*old, edge + s.lining + s.backing + 44, { t.found, 1.4, Qt::DashLine, t.paper, Hatch::Dense, t.lining, 8 },
            { t.found, 1.4, Qt::DashLine, t.metalWash, Hatch::Rising, t.found, 7 });
    const double worn = edge + s.lining - pad.minimumThickness.value.value_or(2e-3) * 1000;
    sheet.line(QPolygonF { QPointF(worn, -5), QPointF(worn, s.height + 5) }, { t.bad, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });

    // Friction over temperature, old and new.
    const double left = -length / 2 + 4;
    const double top = height + 46;
    const double wide = length + 26;
    const double tall = 74;
    const auto x = [&](double kelvin) { return left + (kelvin - 273.15) / 800 * wide; };
    const auto y = [&](double mu) { return top + tall - mu / 0.6 * tall; };
    for (int i = 0; i <= 3; ++i) {
        sheet.line(QPolygonF { QPointF(left, y(0.2 * i)), QPointF(left + wide, y(0.2 * i)) },
            { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ left - 3, y(0.2 * i) }, QString::number(0.2 * i, 'f', 1), 11, t.mute, Qt::AlignRight | Qt::AlignVCenter);
    }
    for (int i = 0; i <= 4; ++i)
        sheet.letter({ x(273.15 + 200 * i), top + tall + 3 },
            QString::fromStdString(figure(273.15 + 200 * i, style::temperature, study.system)), 11, t.mute,
            Qt::AlignHCenter | Qt::AlignTop);
    sheet.letter({ left + wide, top - 4 },
        QObject::tr("friction over temperature, %1").arg(QString::fromUtf8(style::temperature.unit(study.system).symbol.data())), 12,
        t.mute, Qt::AlignRight | Qt::AlignBottom, false);
    const auto curve = [&](const Pad& of, const Ink& ink) {
        QPolygonF points;
        for (const FrictionPoint& point : of.frictionOverTemperature)
            if (point.temperature.value && point.friction.value)
                points << QPointF(x(*point.temperature.value), y(*point.friction.value));
        std::ranges::sort(points, {}, &QPointF::x);
        if (points.size() > 1)
            sheet.line(points, ink);
        else if (of.friction.value)
            sheet.line(QPolygonF { QPointF(x(323), y(*of.friction.value)), QPointF(x(673), y(*of.friction.value)) },
                { ink.stroke, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
    };
    if (old)
        curve(p.before.corner->pad, PartSheet::ghost());
    curve(pad, { t.proposal, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });

    const double facts = edge + 24;
    // A screen pixel on the sheet, with the table of worn linings beside the facts.
    const double px = std::max((facts + length / 2 + 22) / (756 - 378), (top + tall + 34) / 508);
    double row = top - 10;
    const auto fact = [&](const char* key, const QString& caption) {
        sheet.fact(p.corner + "/pad/" + key, caption, { facts, row }, 150);
        row += 37 * px;
    };
    fact("name", QObject::tr("Name"));
    p.horizontal("/pad/length_mm", -s.length / 2, s.length / 2, s.height * 0.4, -16, QObject::tr("long"));
    p.vertical("/pad/height_mm", 0, s.height, -s.length / 2 + 3, -length / 2 - 10, QObject::tr("high"));
    p.leader("/pad/area_cm2", { 0, s.height * 0.6 }, { 0, s.height * 0.62 }, QObject::tr("lining, if measured"), {}, true, true,
        QStringLiteral("–"));
    p.horizontal("/pad/thickness_mm", edge, edge + s.lining, s.height, s.height + 10, QObject::tr("lining"));
    p.leader("/pad/overall_mm", { edge + (s.lining + s.backing) / 2, s.height }, { edge + s.lining + s.backing + 6, s.height * 0.55 },
        QObject::tr("both together"), {}, false, true, QStringLiteral("–"));
    p.leader("/pad/minimum_thickness_mm", { worn, s.height * 0.3 }, { edge + 6, -10 }, QObject::tr("worn at"), {}, false, true);
    p.horizontal("/pad/backing_mm", edge + s.lining, edge + s.lining + s.backing, 0, s.height + 19, QObject::tr("backing"));
    fact("compound", QObject::tr("Compound"));
    p.leader("/pad/friction", { x(473), y(pad.friction.value.value_or(0.4)) }, { left + wide * 0.22, y(0.62) }, QObject::tr("warm"));
    for (std::size_t i = 0; i <= pad.frictionOverTemperature.size(); ++i) {
        const bool free = i == pad.frictionOverTemperature.size();
        const auto key = "/pad/friction_over_temperature/" + (free ? std::string("-") : std::to_string(i));
        const double kelvin = free ? 273.15 + 730 : pad.frictionOverTemperature[i].temperature.value.value_or(473);
        const double mu = free ? 0.1 : pad.frictionOverTemperature[i].friction.value.value_or(0.3);
        p.leader(key + "/temperature_degC", { x(kelvin), y(mu) }, { x(kelvin), top + tall - (free ? 24 : 6) },
            free ? QObject::tr("one more") : QString(), {}, true, free, QStringLiteral("+"));
        if (!free)
            p.leader(key + "/friction", { x(kelvin), y(mu) }, { x(kelvin) + 3, y(mu) - 9 }, {}, {}, false);
    }
    fact("ends", QObject::tr("Ends of the lining"));
    fact("wear_sensor", QObject::tr("Wear sensor"));
    const double worn0 = facts + 172 * px;
    sheet.letter({ worn0, top - 16 }, QObject::tr("Linings as worn: left, right"), 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    double line = top - 16 + 24 * px;
    for (const auto& [key, caption] : { std::pair { "lining_thickness_mm", QObject::tr("thinner pad") },
             std::pair { "inner_lining_mm", QObject::tr("inboard pad") }, std::pair { "outer_lining_mm", QObject::tr("outboard pad") },
             std::pair { "entry_lining_mm", QObject::tr("at the entry") }, std::pair { "exit_lining_mm", QObject::tr("at the exit") } }) {
        sheet.letter({ worn0, line }, caption, 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        for (const auto& [whose, right] : { std::pair { "/left/", 88.0 }, std::pair { "/right/", 148.0 } })
            sheet.dimensions.push_back(
                { p.corner + whose + key, {}, {}, { worn0 + right * px, line }, Run::Table, 0, false, {}, 0.5, true, QStringLiteral("–") });
        line += 26 * px;
    }
    sheet.fact(p.corner + "/left/wear_sensor", QObject::tr("Sensor, left"), { worn0, line }, 96);
    sheet.fact(p.corner + "/right/wear_sensor", QObject::tr("Sensor, right"), { worn0 + 104 * px, line }, 96);
    if (const Verdict* v = study.verdict(checks::liningEven, { axle }))
        sheet.callouts.push_back(
            { v->id, QObject::tr("worn evenly"), v->level, { worn0, top - 16 }, { worn0, top - 16 }, { worn0, top - 16 - 26 * px } });
    sheet.extent = QRectF(QPointF(-length / 2 - 22, -24),
        QPointF(
            std::max(worn0 + 206 * px, edge + s.lining + s.backing + (old ? 44 + old->lining + old->backing : 30) + 12), top + tall + 10));
    return sheet;
}

} // namespace deepstop::app
