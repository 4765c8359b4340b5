#include "stages/sheets.hpp"

#include "chapters/centring/centring_chapter.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "drawing/shapes.hpp"
#include "theme.hpp"

#include <QObject>
#include <QTransform>

#include <cmath>

namespace deepstop::app {
namespace {

/// Errors are drawn this many times as large as they are, or nobody would see them, unless the true proportion is asked for.
constexpr double exaggeration = 8;

/// A stack of shims, each one drawn; when it is not known of which, as one block.
void addStack(Sheet& sheet, double x, double y0, double y1, double thick)
{
    const Theme& t = theme();
    if (thick > 0)
        sheet.area(rectangle(x, y0, x + thick, y1), { t.ink, 1, Qt::SolidLine, t.lining, Hatch::None, {}, 0 });
}

} // namespace

Sheet centringSheet(const Study& study, std::size_t which, bool trueProportion)
{
    const Theme& t = theme();
    Sheet sheet;
    const double larger = trueProportion ? 1 : exaggeration;
    const bool read = which < study.of<Centring>().corners.size();
    const Axle axle = read ? study.of<Centring>().corners[which].mockUp->axle : Axle::Front;
    const Side whose = read ? study.of<Centring>().corners[which].mockUp->side : Side::Left;
    const CornerClearance& corner = study.of<Clearance>().after.at(axle).at(whose);
    sheet.title = QObject::tr("Caliper over its rotor");
    sheet.scaleBar = trueProportion;
    if (!corner.corner)
        return sheet;
    sheet.subtitle =
        QStringLiteral("%1 · %2 · %3")
            .arg(unitNote(study),
                trueProportion ? QObject::tr("errors in true proportion") : QObject::tr("errors drawn %1 times as large").arg(exaggeration),
                QObject::tr("seen along the radius, left is inboard"));
    if (read)
        sheet.title = QObject::tr("%1 %2 caliper over its rotor")
                          .arg(axle == Axle::Front ? QObject::tr("Front") : QObject::tr("Rear"),
                              study.of<Centring>().corners[which].mockUp->side == Side::Left ? QObject::tr("left") : QObject::tr("right"));
    const fit::CornerShape& s = corner.drawn;
    const Mount& mount = corner.corner->mount;
    const Fitted& in = corner.corner->at(whose);
    const bool radial = mount.kind == MountKind::Radial;
    const CentringResult* result = read ? &study.of<Centring>().corners[which] : nullptr;
    const double half = s.rotor.thickness * 500;
    const double slot = s.caliper.slotWidth * 500;
    const double outDepth = s.caliper.outboardDepth * 1000;
    const double inDepth = s.caliper.inboardDepth * 1000;
    const double bolts = mount.boltSpacing.value.value_or(0.14) * 500;
    const double gaps = (result ? result->mockUp->gapSpacing.value.value_or(0.1) : 0.1) * 500;
    const double body = std::max({ s.caliper.backHalfLength * 1000 + 12, gaps + 10, 30.0 });
    const double tall = std::max(body, bolts) + 22;
    const double error = result ? result->axial.value.value_or(0) * 1000 : fit::axialOffset(s) * 1000;
    const double tilt = result && result->tilt.value ? *result->tilt.value / corner.corner->pad.length.value.value_or(0.1) : 0;
    const double shown = std::clamp(error * larger, -slot + half + 1, slot - half - 1);
    const double column = outDepth + 58; // of what is said about the reading
    sheet.extent = QRectF(QPointF(-inDepth - 105, -tall - 16), QPointF(read ? column + 72 : outDepth + 62, tall + 16));

    // The rotor on edge, broken off above and below.
    const Ink iron { t.ink, 1.4, Qt::SolidLine, t.metalWash, Hatch::Falling, t.ink, 6 };
    sheet.area(rectangle(-half, -tall, half, tall), iron);
    sheet.line(QPolygonF { QPointF(0, -tall - 8), QPointF(0, tall + 8) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    for (const double y : { -tall, tall })
        sheet.line(QPolygonF { QPointF(-half - 3, y), QPointF(-half / 2, y - 3), QPointF(half / 2, y + 3), QPointF(half + 3, y) },
            { t.ink, 1.2, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });

    // Both halves, moved and turned by the error; y runs down, so the top is negative.
    QTransform moved;
    moved.translate(shown, 0);
    moved.rotateRadians(std::atan(std::clamp(tilt * larger, -0.12, 0.12)));
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
    // Pads against the rotor, their backs to the pistons.
    const double padHalf = corner.corner->pad.length.value.value_or(0.1) * 500;
    const double lining = s.pad.thickness * 1000;
    const double backing = s.pad.backing * 1000;
    for (const double way : { -1.0, 1.0 }) {
        sheet.area(rectangle(way * half, -padHalf, way * (half + lining), padHalf), { t.ink, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });
        sheet.area(rectangle(way * (half + lining), -padHalf, way * (half + lining + backing), padHalf),
            { t.ink, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });
    }
    sheet.line(QPolygonF { moved.map(QPointF(0, -body - 6)), moved.map(QPointF(0, body + 6)) },
        { t.proposal, 1.2, Qt::DashDotLine, {}, Hatch::None, {}, 0 });

    // Ears, shims and knuckle, inboard. A thicker stack moves the caliper where its side of the ear makes it.
    const double earFrom = -inDepth - 4;
    const Ink bracket { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::Rising, t.metal, 7 };
    const auto stack = [&](const Reading& reading) { return reading.value.value_or(0) * 1000; };
    for (const auto& [y, reading] : { std::pair { -bolts, &in.shimTop }, std::pair { bolts, &in.shimBottom } }) {
        const double thick = stack(*reading);
        sheet.area(rectangle(earFrom - 16, y - 13, earFrom + 14, y + 13), bracket);
        const double shims = earFrom - 16 - thick;
        addStack(sheet, shims, y - 10, y + 10, thick);
        sheet.area(rectangle(shims - 26, y - 17, shims, y + 17), { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::Falling, t.metal, 7 });
        sheet.area(rectangle(shims - 34, y - 5, earFrom + 20, y + 5), { t.ink, 1, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
        sheet.area(rectangle(shims - 42, y - 9, shims - 34, y + 9), { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::None, {}, 0 });
        sheet.line(QPolygonF { QPointF(shims - 48, y), QPointF(earFrom + 26, y) }, { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    }
    sheet.letter({ earFrom - 32, -bolts - 23 }, QObject::tr("top bolt"), 12, t.mute);
    sheet.letter({ earFrom - 32, bolts + 23 }, QObject::tr("bottom bolt"), 12, t.mute);
    sheet.letter({ earFrom - 32, -bolts + 58 },
        mount.shimMoves == Direction::Inboard        ? QObject::tr("thicker: caliper inboard")
            : mount.shimMoves == Direction::Outboard ? QObject::tr("thicker: caliper outboard")
                                                     : QObject::tr("thicker moves it: not said"),
        12, mount.shimMoves == Direction::Unknown ? t.unproven : t.mute);
    sheet.letter({ 0, -tall - 11 }, QObject::tr("rotor"), 12, t.mute);

    const auto pointer = cornerPointer(study, study.after, axle);
    const std::string ofSide = pointer + (whose == Side::Left ? "/left" : "/right");
    const auto index = result ? result->mockUp - study.build->mockUps.data() : 0;
    const auto mockUp = "/mock_ups/" + std::to_string(index);
    if (result) {
        const auto gap = [&](const char* key, double y, double side) {
            const QPointF face(side * half, y);
            const QPointF wall = moved.map(QPointF(side * slot, y));
            sheet.dimensions.push_back(
                { mockUp + key, {}, face, QPointF(wall.x(), y), Run::Horizontal, y, false, {}, side > 0 ? 2.6 : 2.6 });
        };
        gap("/inner_top_mm", -gaps, -1);
        gap("/outer_top_mm", -gaps, 1);
        gap("/inner_bottom_mm", gaps, -1);
        gap("/outer_bottom_mm", gaps, 1);
        sheet.dimensions.push_back({ mockUp + "/gap_spacing_mm", {}, { outDepth, -gaps }, { outDepth, gaps }, Run::Vertical, outDepth + 18,
            false, QObject::tr("apart"), 0.62 });
        // The pad's ends under the rotor's edge, read from outboard with a depth rod.
        const auto edge = [&](const char* key, double y) {
            sheet.dimensions.push_back({ mockUp + key, {}, { half + lining / 2, y }, { outDepth + 18, y }, Run::Leader, 0, false,
                QObject::tr("pad below edge"), 0.5, true, QStringLiteral("–") });
        };
        edge("/pad_edge_top_mm", -padHalf + 3);
        edge("/pad_edge_bottom_mm", padHalf - 3);
    }
    sheet.dimensions.push_back({ pointer + "/mount/bolt_spacing_mm", {}, { earFrom - 60, -bolts }, { earFrom - 60, bolts }, Run::Vertical,
        -inDepth - 84, false, QObject::tr("bolts"), 0.5 });
    const double shimLine = 17;
    sheet.dimensions.push_back({ ofSide + "/shim_top_mm", {}, { earFrom - 16 - stack(in.shimTop), -bolts + 10 },
        { earFrom - 16, -bolts + 10 }, Run::Horizontal, -bolts + shimLine + 10, false, QObject::tr("shims"), 0.5 });
    sheet.dimensions.push_back({ ofSide + "/shim_bottom_mm", {}, { earFrom - 16 - stack(in.shimBottom), bolts - 10 },
        { earFrom - 16, bolts - 10 }, Run::Horizontal, bolts - shimLine - 10, false, QObject::tr("shims"), 0.5 });
    if (radial)
        for (const auto& [key, y, caption] : { std::tuple { "/radial_top_mm", -bolts - 8, QObject::tr("under the stud") },
                 std::tuple { "/radial_bottom_mm", bolts + 8, QObject::tr("under the stud") } })
            sheet.dimensions.push_back({ ofSide + key, {}, { earFrom + 8, y }, { earFrom + 14, y < 0 ? y - 12 : y + 12 }, Run::Leader, 0,
                false, caption, 0.5, true, QStringLiteral("none") });
    sheet.dimensions.push_back({ pointer + "/caliper/slot_width_mm", {}, moved.map(QPointF(-slot, body)), moved.map(QPointF(slot, body)),
        Run::Horizontal, body + 10, false, QObject::tr("slot"), 0.5 });

    if (result) {
        // How it was read, before it is believed.
        const double pixel = sheet.extent.height() / 508;
        double y = -tall + 2;
        sheet.letter({ column, y }, QObject::tr("While reading"), 14, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 12 * pixel;
        const auto fact = [&](const char* key, const QString& caption) {
            sheet.fact(mockUp + key, caption, { column, y }, 128);
            y += 40 * pixel;
        };
        fact("/seated", QObject::tr("Rotor flat, hub clean"));
        fact("/nuts", QObject::tr("Nuts that hold it"));
        fact("/settled", QObject::tr("Play taken up one way"));
        fact("/shaft_in", QObject::tr("Drive shaft in"));
        sheet.fact(pointer + "/mount/kind", QObject::tr("Mount"), { column, y }, 128);
        y += 50 * pixel;
        if (radial) {
            sheet.letter({ column, y }, QObject::tr("Shims when heights were read"), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet.dimensions.push_back(
                { pointer + "/mount/radial_read_mm", {}, {}, { column, y + 19 * pixel }, Run::Table, 0, false, {}, 0.5 });
            y += 46 * pixel;
        }
        sheet.letter({ column, y }, QObject::tr("Play on loose bolts"), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back(
            { mockUp + "/play_mm", {}, {}, { column, y + 19 * pixel }, Run::Table, 0, false, {}, 0.5, true, QStringLiteral("–") });
        y += 46 * pixel;
        const auto& passes = result->mockUp->passes;
        if (!passes.empty()) {
            sheet.letter({ column, y }, QObject::tr("Read before"), 14, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            for (std::size_t i = passes.size() > 4 ? passes.size() - 4 : 0; i < passes.size(); ++i) {
                const Pass& p = passes[i];
                y += 19 * pixel;
                const bool known = p.innerTop.value && p.outerTop.value && p.innerBottom.value && p.outerBottom.value;
                const double was = known ? (*p.outerTop.value - *p.innerTop.value + *p.outerBottom.value - *p.innerBottom.value) / 4 : NAN;
                sheet.letter({ column, y },
                    QObject::tr("%1. %2 off, shims %3 and %4")
                        .arg(i + 1)
                        .arg(QString::fromStdString(figure(was, style::fine, study.system)),
                            QString::fromStdString(figure(p.shimTop.value.value_or(0), style::fine, study.system)),
                            QString::fromStdString(figure(p.shimBottom.value.value_or(0), style::fine, study.system))),
                    12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            }
            if (result->learnt)
                sheet.letter({ column, y + 20 * pixel },
                    QObject::tr("shims moved it %1 of their own").arg(result->learnt->ratio, 0, 'f', 2), 12, t.ink,
                    Qt::AlignLeft | Qt::AlignVCenter, false);
        }
    }
    const auto call = [&](const Check& check, const QString& text, QPointF from, QPointF to, QPointF wish) {
        if (const Verdict* v = study.verdict(check, { axle, whose })) {
            const auto said = v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::fine, study.system))
                    + (result ? QStringLiteral(" ±") + QString::fromStdString(figure(v->figure.rootSumSquare, style::fine, study.system))
                              : QString())
                                              : QStringLiteral("?");
            sheet.callouts.push_back({ v->id, text + said, v->level, from, to, wish });
        }
    };
    call(result ? checks::axial : checks::axialByDimensions, {}, { 0, -body - 4 }, { shown, -body - 4 },
        { shown + 34, -body - 14 });
    if (result) {
        call(checks::tilt, QObject::tr("tilt "), moved.map(QPointF(0, body + 4)), { shown, body + 4 }, { shown + 52, body + 16 });
        call(checks::padEdgeRead, QObject::tr("pad edge "), { half + lining / 2, 0 }, { half + lining / 2, 0 }, { outDepth + 24, -14 });
    }
    return sheet;
}

} // namespace deepstop::app
