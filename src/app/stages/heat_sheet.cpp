#include "stages/sheets.hpp"

#include "chapters/heat/heat_chapter.hpp"
#include "chapters/clearance/clearance.hpp"
#include "drawing/shapes.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

QPainterPath halfRing(QPointF centre, double outer, double inner, bool rightHalf)
{
    QPainterPath path;
    const double start = rightHalf ? -90 : 90;
    path.arcMoveTo(QRectF(centre - QPointF(outer, outer), QSizeF(2 * outer, 2 * outer)), start);
    path.arcTo(QRectF(centre - QPointF(outer, outer), QSizeF(2 * outer, 2 * outer)), start, 180);
    path.arcTo(QRectF(centre - QPointF(inner, inner), QSizeF(2 * inner, 2 * inner)), start + 180, -180);
    path.closeSubpath();
    return path;
}

} // namespace

Sheet heatSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    const Heat& heat = study.of<Heat>();
    const CornerClearance& after = study.of<Clearance>().after.at(axle).left;
    const CornerClearance& before = study.of<Clearance>().before.at(axle).left;
    sheet.title = axle == Axle::Front ? QObject::tr("Front rings and what one stop does to them")
                                      : QObject::tr("Rear rings and what one stop does to them");
    if (!after.corner || !before.corner)
        return sheet;
    const bool two = study.before.setup != study.after.setup;
    sheet.subtitle = two ? QStringLiteral("%1 %2 · %3 %4 · %5")
                               .arg(QObject::tr("left half:"), QString::fromStdString(study.before.setup->name), QObject::tr("right half:"),
                                   QString::fromStdString(study.after.setup->name), unitNote(study))
                         : unitNote(study);
    const fit::RotorShape& a = before.drawn.rotor;
    const fit::RotorShape& b = after.drawn.rotor;
    const double R = std::max(a.outerRadius, b.outerRadius) * 1000;
    const QPointF o(0, 0);
    // The face, half as found and half as proposed.
    sheet.area(halfRing(o, a.outerRadius * 1000, a.ringInnerRadius * 1000, false),
        { t.found, 1.6, Qt::DashLine, t.metalWash, Hatch::None, {}, 0 });
    sheet.area(halfRing(o, b.outerRadius * 1000, b.ringInnerRadius * 1000, true),
        { t.proposal, 2, Qt::SolidLine, t.proposalWash, Hatch::None, {}, 0 });
    sheet.area(halfRing(o, a.hatOuterRadius * 1000, a.boreRadius * 1000, false), { t.found, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
    sheet.area(halfRing(o, b.hatOuterRadius * 1000, b.boreRadius * 1000, true),
        { t.ink, 1.3, Qt::SolidLine, t.metalWash, Hatch::Rising, t.metal, 8 });
    sheet.line(QPolygonF { QPointF(0, -R - 14), QPointF(0, R + 14) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.line(QPolygonF { QPointF(-R - 14, 0), QPointF(R + 14, 0) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });

    // Both rings cut through, at the same scale.
    const double sectionX = R + 150;
    const auto section = [&](const fit::RotorShape& r, double x, const Ink& ink) {
        const double half = r.thickness * 500;
        const double top = -r.outerRadius * 1000;
        const double low = -r.ringInnerRadius * 1000;
        if (r.ventGap > 0 && r.ventGap < r.thickness) {
            const double gap = r.ventGap * 500;
            sheet.area(rectangle(QRectF(QPointF(x - gap, top + 4), QPointF(x + gap, low - 4))),
                { ink.stroke, 0.8, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
            sheet.area(rectangle(QRectF(QPointF(x - half, top), QPointF(x - gap, low))), ink);
            sheet.area(rectangle(QRectF(QPointF(x + gap, top), QPointF(x + half, low))), ink);
        } else {
            sheet.area(rectangle(QRectF(QPointF(x - half, top), QPointF(x + half, low))), ink);
        }
    };
    section(a, sectionX, { t.found, 1.5, Qt::DashLine, t.metalWash, Hatch::Falling, t.found, 7 });
    if (two)
        section(b, sectionX + 130, { t.proposal, 1.8, Qt::SolidLine, t.proposalWash, Hatch::Falling, t.proposal, 6 });
    const double newX = two ? sectionX + 130 : sectionX;

    // Thermometers: rise of one ring in one stop, 1 mm of paper for 1 K.
    const double barX = newX + 190;
    const double zero = R;
    const double highest = 2 * R;
    const double largest =
        std::max({ heat.before.at(axle).stopRise.value.value_or(0), heat.after.at(axle).stopRise.value.value_or(0), 60.0 });
    const double scale = largest <= 100 ? 100
        : largest <= 200                ? 200
        : largest <= 400                ? 400
        : largest <= 800                ? 800
                                        : std::ceil(largest / 500) * 500;
    const auto y = [&](double kelvin) { return zero - kelvin / scale * highest; };
    for (int i = 0; i <= 4; ++i) {
        const double kelvin = scale * i / 4;
        sheet.line(QPolygonF { QPointF(barX - 14, y(kelvin)), QPointF(barX + 190, y(kelvin)) },
            { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ barX - 22, y(kelvin) }, QString::fromStdString(figure(kelvin, style::rise, study.system)), 12, t.mute,
            Qt::AlignRight | Qt::AlignVCenter);
    }
    sheet.letter({ barX - 22, y(scale) - 26 }, QString::fromUtf8(style::rise.unit(study.system).symbol.data()), 12, t.mute,
        Qt::AlignRight | Qt::AlignVCenter);
    const auto bar = [&](const Figure& rise, double x, const Ink& ink, const QString& name) {
        sheet.letter({ x + 30, zero + 20 }, name, 12, t.mute);
        if (!rise.value) {
            sheet.letter({ x + 30, zero - 24 }, QStringLiteral("?"), 18, t.unproven);
            return;
        }
        sheet.area(rectangle(QRectF(QPointF(x, y(*rise.value)), QPointF(x + 60, zero))), ink);
        sheet.letter(
            { x + 30, y(*rise.value) - 18 }, QString::fromStdString(printChange(*rise.value, style::rise, study.system)), 15, ink.stroke);
    };
    bar(heat.before.at(axle).stopRise, barX + 10, { t.found, 1.5, Qt::SolidLine, t.paper, Hatch::Rising, t.found, 6 },
        QObject::tr("before"));
    if (two)
        bar(heat.after.at(axle).stopRise, barX + 110, { t.proposal, 1.8, Qt::SolidLine, t.proposalWash, Hatch::Dense, t.proposal, 7 },
            QObject::tr("after"));

    sheet.extent = QRectF(QPointF(-R - 95, -R - 40), QPointF(barX + 230, R + 52));
    const auto corner = cornerPointer(study, study.after, axle);
    const double right = b.outerRadius * 1000;
    sheet.dimensions.push_back({ corner + "/rotor/outer_diameter_mm", QStringLiteral("Ø "),
        { right * std::cos(-0.8), right * std::sin(-0.8) }, { right * 0.72 + 66, -right * 0.86 }, Run::Leader, 0, false, {}, 0.5 });
    sheet.dimensions.push_back({ corner + "/rotor/ring_inner_diameter_mm", QStringLiteral("Ø "),
        { b.ringInnerRadius * 1000 * std::cos(0.75), b.ringInnerRadius * 1000 * std::sin(0.75) }, { right * 0.72 + 66, right * 0.86 },
        Run::Leader, 0, false, {}, 0.5 });
    sheet.dimensions.push_back({ corner + "/rotor/thickness_mm", {}, { newX - b.thickness * 500, -right },
        { newX + b.thickness * 500, -right }, Run::Horizontal, -right - 22, false, {}, 0.5 });
    sheet.dimensions.push_back({ corner + "/rotor/vent_gap_mm", {}, { newX - b.ventGap * 500, -b.ringInnerRadius * 1000 },
        { newX + b.ventGap * 500, -b.ringInnerRadius * 1000 }, Run::Horizontal, -b.ringInnerRadius * 1000 + 30, false, QObject::tr("vent"),
        0.5 });
    sheet.dimensions.push_back({ corner + "/rotor/vane_share_percent", {}, { newX, -(b.ringInnerRadius + b.outerRadius) * 500 },
        { newX + 10, 0.05 * R }, Run::Leader, 0, true, QObject::tr("vanes"), 0.5, b.ventGap == 0 });
    sheet.dimensions.push_back({ "/car/test_speed_kmh", {}, { barX + 150, zero - 40 }, { newX + 20, zero - 20 }, Run::Leader, 0, true,
        QObject::tr("one stop from"), 0.5 });
    return sheet;
}

} // namespace deepstop::app
