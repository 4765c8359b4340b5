#include "stages/sheets.hpp"

#include "theme.hpp"

#include <QObject>
#include <QTransform>

#include <cmath>

namespace deepstop::app {
namespace {

/// Errors are drawn this many times as large as they are, or nobody would see them.
constexpr double exaggeration = 8;

QPainterPath rectangle(double x0, double y0, double x1, double y1)
{
    QPainterPath path;
    path.addRect(QRectF(QPointF(x0, y0), QPointF(x1, y1)).normalized());
    return path;
}

} // namespace

Sheet centringSheet(const Study& study, std::size_t which)
{
    const Theme& t = theme();
    Sheet sheet;
    const bool read = which < study.centring.size();
    const Axle axle = read ? study.centring[which].mockUp->axle : Axle::Front;
    const CornerResult& corner = study.after.at(axle);
    sheet.title = QObject::tr("Caliper over its rotor");
    sheet.scaleBar = false;
    if (!corner.corner)
        return sheet;
    sheet.subtitle = QStringLiteral("%1 · %2 · %3").arg(unitNote(study), QObject::tr("errors drawn %1 times as large").arg(exaggeration), QObject::tr("seen along the radius, left is inboard"));

    if (read)
        sheet.title = QObject::tr("%1 %2 caliper over its rotor")
                          .arg(axle == Axle::Front ? QObject::tr("Front") : QObject::tr("Rear"), study.centring[which].mockUp->side == Side::Left ? QObject::tr("left") : QObject::tr("right"));
    const fit::CornerShape& s = corner.drawn;
    const Mount& mount = corner.corner->mount;
    const CentringResult* result = read ? &study.centring[which] : nullptr;
    const double half = s.rotor.thickness * 500;
    const double slot = s.caliper.slotWidth * 500;
    const double outDepth = s.caliper.outboardDepth * 1000;
    const double inDepth = s.caliper.inboardDepth * 1000;
    const double bolts = mount.boltSpacing.value.value_or(0.14) * 500;
    const double gaps = (result ? result->mockUp->gapSpacing.value.value_or(0.1) : 0.1) * 500;
    const double body = std::max({ s.caliper.backHalfLength * 1000 + 12, gaps + 10, 30.0 });
    const double tall = std::max(body, bolts) + 22;
    const double error = result ? result->axial.value.value_or(0) * 1000 : fit::axialOffset(s) * 1000;
    const double tilt = result && result->tilt.value ? *result->tilt.value * 1000 / (2 * gaps) : 0;
    const double shown = std::clamp(error * exaggeration, -slot + half + 1, slot - half - 1);
    sheet.extent = QRectF(QPointF(-inDepth - 105, -tall - 14), QPointF(outDepth + 62, tall + 16));

    // The rotor on edge, broken off above and below.
    const Ink iron { t.ink, 1.4, Qt::SolidLine, t.metalWash, Hatch::Falling, t.ink, 6 };
    sheet.area(rectangle(-half, -tall, half, tall), iron);
    sheet.line(QPolygonF { QPointF(0, -tall - 8), QPointF(0, tall + 8) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    for (const double y : { -tall, tall })
        sheet.line(QPolygonF { QPointF(-half - 3, y), QPointF(-half / 2, y - 3), QPointF(half / 2, y + 3), QPointF(half + 3, y) }, { t.ink, 1.2, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });

    // Both halves, moved and turned by the error; y runs down, so the top is negative.
    QTransform moved;
    moved.translate(shown, 0);
    moved.rotateRadians(std::atan(std::clamp(tilt * exaggeration, -0.12, 0.12)));
    const Ink cast { t.proposal, 2, Qt::SolidLine, t.proposalWash, Hatch::Falling, t.proposal, 8 };
    const double chamfer = s.caliper.shoulder * 700;
    const auto halfBody = [&](double inner, double outer) {
        const double cut = outer > 0 ? -chamfer : chamfer;
        QPainterPath path(QPointF(inner, -body));
        path.lineTo(outer + cut, -body);
        path.lineTo(outer, -body + chamfer);
        path.lineTo(outer, body - chamfer);
        path.lineTo(outer + cut, body);
        path.lineTo(inner, body);
        path.closeSubpath();
        return path;
    };
    sheet.area(moved.map(halfBody(slot, outDepth)), cast);
    sheet.area(moved.map(halfBody(-slot, -inDepth)), cast);
    sheet.line(QPolygonF { moved.map(QPointF(0, -body - 6)), moved.map(QPointF(0, body + 6)) }, { t.proposal, 1.2, Qt::DashDotLine, {}, Hatch::None, {}, 0 });

    // Ears, shims and knuckle, inboard.
    const double earFrom = -inDepth - 4;
    const Ink bracket { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::Rising, t.metal, 7 };
    const auto stack = [&](const Reading& reading) { return reading.value.value_or(0) * 1000; };
    for (const auto& [y, reading] : { std::pair { -bolts, &mount.shimTop }, std::pair { bolts, &mount.shimBottom } }) {
        const double thick = stack(*reading);
        sheet.area(rectangle(earFrom - 16, y - 13, earFrom + 14, y + 13), bracket);
        const double shims = earFrom - 16 - thick;
        if (thick > 0)
            sheet.area(rectangle(shims, y - 10, earFrom - 16, y + 10), { t.ink, 1, Qt::SolidLine, t.lining, Hatch::None, {}, 0 });
        sheet.area(rectangle(shims - 26, y - 17, shims, y + 17), { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::Falling, t.metal, 7 });
        sheet.area(rectangle(shims - 34, y - 5, earFrom + 20, y + 5), { t.ink, 1, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
        sheet.area(rectangle(shims - 42, y - 9, shims - 34, y + 9), { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::None, {}, 0 });
        sheet.line(QPolygonF { QPointF(shims - 48, y), QPointF(earFrom + 26, y) }, { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    }
    sheet.letter({ earFrom - 32, -bolts - 23 }, QObject::tr("top bolt"), 12, t.mute);
    sheet.letter({ earFrom - 32, bolts + 23 }, QObject::tr("bottom bolt"), 12, t.mute);
    sheet.letter({ 0, -tall - 11 }, QObject::tr("rotor"), 12, t.mute);

    const auto pointer = cornerPointer(study, study.after, axle);
    if (result) {
        const auto index = result->mockUp - study.build->mockUps.data();
        const auto mockUp = "/mock_ups/" + std::to_string(index);
        const auto gap = [&](const char* key, double y, double side) {
            const QPointF face(side * half, y);
            const QPointF wall = moved.map(QPointF(side * slot, y));
            sheet.dimensions.push_back({ mockUp + key, {}, face, QPointF(wall.x(), y), Run::Horizontal, y, false, {}, side > 0 ? 2.6 : 2.6 });
        };
        gap("/inner_top_mm", -gaps, -1);
        gap("/outer_top_mm", -gaps, 1);
        gap("/inner_bottom_mm", gaps, -1);
        gap("/outer_bottom_mm", gaps, 1);
        sheet.dimensions.push_back({ mockUp + "/gap_spacing_mm", {}, { outDepth, -gaps }, { outDepth, gaps }, Run::Vertical, outDepth + 18, false, QObject::tr("apart"), 0.5 });
    }
    sheet.dimensions.push_back({ pointer + "/mount/bolt_spacing_mm", {}, { earFrom - 60, -bolts }, { earFrom - 60, bolts }, Run::Vertical, -inDepth - 84, false, QObject::tr("bolts"), 0.5 });
    const double shimLine = 17;
    sheet.dimensions.push_back({ pointer + "/mount/shim_top_mm", {}, { earFrom - 16 - stack(mount.shimTop), -bolts + 10 }, { earFrom - 16, -bolts + 10 }, Run::Horizontal, -bolts + shimLine + 10, false, QObject::tr("shims"), 0.5 });
    sheet.dimensions.push_back({ pointer + "/mount/shim_bottom_mm", {}, { earFrom - 16 - stack(mount.shimBottom), bolts - 10 }, { earFrom - 16, bolts - 10 }, Run::Horizontal, bolts - shimLine - 10, false, QObject::tr("shims"), 0.5 });
    sheet.dimensions.push_back({ pointer + "/caliper/slot_width_mm", {}, moved.map(QPointF(-slot, body)), moved.map(QPointF(slot, body)), Run::Horizontal, body + 10, false, QObject::tr("slot"), 0.5 });

    if (const Verdict* v = result ? study.verdict((axle == Axle::Front ? "front-" : "rear-") + std::string(result->mockUp->side == Side::Left ? "left" : "right") + "/axial")
                                  : study.verdict(axle == Axle::Front ? "front/axial" : "rear/axial")) {
        const auto said = v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::fine, study.system)) : QStringLiteral("?");
        sheet.callouts.push_back({ v->id, said, v->level, { 0, -body - 4 }, { shown, -body - 4 }, { shown + 34, -body - 12 } });
    }
    return sheet;
}

} // namespace deepstop::app
