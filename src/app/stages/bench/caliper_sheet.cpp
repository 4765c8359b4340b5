#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>

namespace deepstop::app {
namespace {

/// Seen from outboard: straight back, falling shoulders, legs down to where it reaches; the rotor's edge at y = 0 in its middle.
QPainterPath sideView(const fit::CaliperShape& c, QPointF at)
{
    const double half = c.backHalfLength * 1000;
    const double back = -c.backOverEdge * 1000;
    const double low = c.reach * 1000;
    const double fall = c.shoulder * 1000;
    QPainterPath path;
    path.addPolygon(QPolygonF { at + QPointF(-half, back), at + QPointF(half, back), at + QPointF(half + fall * 1.4, back + fall),
        at + QPointF(half + fall * 1.2, low - fall * 0.6), at + QPointF(half * 0.8, low), at + QPointF(-half * 0.8, low),
        at + QPointF(-half - fall * 1.2, low - fall * 0.6), at + QPointF(-half - fall * 1.4, back + fall) });
    path.closeSubpath();
    return path;
}

/// Cut across: both halves and the bridge over the rotor; outboard to the right.
QPainterPath section(const fit::CaliperShape& c, QPointF at)
{
    const double back = -c.backOverEdge * 1000;
    const double low = c.reach * 1000;
    const double fall = c.shoulder * 1000;
    const double out = c.outboardDepth * 1000;
    const double in = -c.inboardDepth * 1000;
    const double slot = c.slotWidth * 500;
    const double under = -c.bridgeGap * 1000;
    QPainterPath path;
    path.addPolygon(QPolygonF { at + QPointF(in + fall, back), at + QPointF(out - fall, back), at + QPointF(out, back + fall),
        at + QPointF(out, low), at + QPointF(slot, low), at + QPointF(slot, under), at + QPointF(-slot, under), at + QPointF(-slot, low),
        at + QPointF(in, low), at + QPointF(in, back + fall) });
    path.closeSubpath();
    return path;
}

/// From above: both halves, the bridge across the slot at its ends, the opening for the pads.
QPainterPath plan(const fit::CaliperShape& c, double window, QPointF at)
{
    const double half = c.backHalfLength * 1000 + c.shoulder * 1400;
    QPainterPath path = rectangle(at.x() - half, at.y() - c.outboardDepth * 1000, at.x() + half, at.y() + c.inboardDepth * 1000);
    if (window > 0)
        path.addPath(rectangle(at.x() - window / 2, at.y() - c.slotWidth * 500, at.x() + window / 2, at.y() + c.slotWidth * 500));
    return path;
}

} // namespace

Sheet caliperSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("caliper"));
    if (!p.after.corner)
        return p.sheet;
    const Theme& t = theme();
    Sheet& sheet = p.sheet;
    const Caliper& caliper = p.after.corner->caliper;
    const fit::CaliperShape& c = p.after.drawn.caliper;
    const fit::CaliperShape* old = p.two && p.before.corner ? &p.before.drawn.caliper : nullptr;
    const double half = c.backHalfLength * 1000 + c.shoulder * 1400;
    const double widest = std::max(half, old ? old->backHalfLength * 1000 + old->shoulder * 1400 : 0);
    const double deepIn = std::max(c.inboardDepth, old ? old->inboardDepth : 0) * 1000;
    const double deepOut = std::max(c.outboardDepth, old ? old->outboardDepth : 0) * 1000;
    const double low = std::max(c.reach, old ? old->reach : 0) * 1000;
    const double window = std::min(
        caliper.padWindow.value.value_or(p.after.corner->pad.length.value.value_or(c.backHalfLength * 2) + 1e-3) * 1000, 2 * half - 8);

    // Side at the left, cut at the right of it, from above below the side.
    const QPointF side(0, 0);
    const QPointF cut(widest + deepIn + 52, 0);
    const QPointF above(0, low + 62 + deepOut);
    const double R = p.after.drawn.rotor.outerRadius * 1000;
    QPainterPath edge;
    edge.arcMoveTo(QRectF(-R, 0, 2 * R, 2 * R), 90 + 26);
    edge.arcTo(QRectF(-R, 0, 2 * R, 2 * R), 90 + 26, -52);
    if (old) {
        sheet.area(sideView(*old, side), PartSheet::ghost());
        sheet.area(section(*old, cut), PartSheet::ghost());
        sheet.area(plan(*old, 0, above), PartSheet::ghost());
    }
    sheet.area(sideView(c, side), { t.proposal, 1.8, Qt::SolidLine, t.proposalWash, Hatch::None, {}, 0 });
    sheet.area(edge, { t.metal, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
    // Pistons of one side, small one where the rotor comes in, on the pad's middle.
    const double row = p.after.drawn.pad.height * 500 + p.after.drawn.pad.inset * 1000;
    double total = 0;
    for (const Reading& bore : caliper.pistons)
        total += bore.value.value_or(0.03) * 1000 + 4;
    double along = -total / 2;
    std::vector<QPointF> centres;
    for (const Reading& bore : caliper.pistons) {
        const double size = bore.value.value_or(0.03) * 1000;
        centres.emplace_back(along + 2 + size / 2, row);
        sheet.area(circle(centres.back(), size / 2), PartSheet::plate());
        sheet.area(circle(centres.back(), size / 2 - 4), PartSheet::thin());
        along += size + 4;
    }
    sheet.area(section(c, cut), PartSheet::cut());
    const double T = p.after.drawn.rotor.thickness * 500;
    sheet.area(rectangle(cut.x() - T, 0, cut.x() + T, low + 12), { t.metal, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });
    p.axisLine(cut + QPointF(0, -c.backOverEdge * 1000 - 12), cut + QPointF(0, low + 16));
    sheet.area(plan(c, window, above), { t.proposal, 1.8, Qt::SolidLine, t.proposalWash, Hatch::None, {}, 0 });
    p.axisLine(above - QPointF(widest + 10, 0), above + QPointF(widest + 10, 0));
    const double spacing = caliper.mountSpacing.value.value_or(2 * c.backHalfLength + 0.05) * 500;
    const double ear = above.y() + c.inboardDepth * 1000 - 9;
    for (const double x : { -spacing, spacing }) {
        sheet.area(rectangle(x - 9, ear - 9, x + 9, ear + 9), PartSheet::plate());
        sheet.area(circle({ x, ear }, 5), PartSheet::hole());
    }
    sheet.letter({ side.x(), low + 6 }, QObject::tr("from outboard"), 12, t.mute, Qt::AlignHCenter | Qt::AlignTop, false);
    sheet.letter({ cut.x(), low + 20 }, QObject::tr("cut, outboard to the right"), 12, t.mute, Qt::AlignHCenter | Qt::AlignTop, false);
    sheet.letter({ above.x(), above.y() - deepOut - 4 }, QObject::tr("from above, outboard up"), 12, t.mute,
        Qt::AlignHCenter | Qt::AlignBottom, false);

    sheet.extent = QRectF(QPointF(-widest - 12, -std::max(c.backOverEdge, old ? old->backOverEdge : 0) * 1000 - 26),
        QPointF(cut.x() + deepOut + 44, above.y() + deepIn + 24));
    const double px = p.pixel();
    const double facts = sheet.extent.right() - 310 * px;
    double line = low + 52;
    int column = 0;
    const auto fact = [&](const char* key, const QString& caption) {
        sheet.fact(p.corner + "/caliper/" + key, caption, { facts + column * 156 * px, line }, 146);
        column = 1 - column;
        line += column == 0 ? 40 * px : 0;
    };
    fact("name", QObject::tr("Name"));
    fact("kind", QObject::tr("Kind"));
    p.vertical("/caliper/back_over_edge_mm", -c.backOverEdge * 1000, 0, cut.x() + c.outboardDepth * 600, cut.x() + deepOut + 16,
        QObject::tr("back"), {}, -0.2);
    p.horizontal("/caliper/back_length_mm", -c.backHalfLength * 1000, c.backHalfLength * 1000, -c.backOverEdge * 1000,
        -c.backOverEdge * 1000 - 13, QObject::tr("straight"));
    p.vertical("/caliper/bridge_gap_mm", -c.bridgeGap * 1000, 0, cut.x(), cut.x() + 4, QObject::tr("bridge"), {}, 3.5);
    p.vertical(
        "/caliper/reach_mm", 0, c.reach * 1000, cut.x() + c.outboardDepth * 1000, cut.x() + deepOut + 16, QObject::tr("reach"), {}, 0.7);
    p.horizontal("/caliper/outboard_depth_mm", cut.x(), cut.x() + c.outboardDepth * 1000, -c.backOverEdge * 1000 + 8,
        -c.backOverEdge * 1000 - 13, QObject::tr("out"));
    p.horizontal("/caliper/inboard_depth_mm", cut.x() - c.inboardDepth * 1000, cut.x(), -c.backOverEdge * 1000 + 8,
        -c.backOverEdge * 1000 - 13, QObject::tr("in"));
    p.leader("/caliper/shoulder_mm", { cut.x() - c.inboardDepth * 1000 + c.shoulder * 500, -c.backOverEdge * 1000 + c.shoulder * 500 },
        { cut.x() - c.inboardDepth * 1000 - 16, -c.backOverEdge * 1000 - 2 }, QObject::tr("shoulder"));
    p.horizontal(
        "/caliper/slot_width_mm", cut.x() - c.slotWidth * 500, cut.x() + c.slotWidth * 500, c.reach * 1000, low + 8, QObject::tr("slot"));
    for (std::size_t i = 0; i < caliper.pistons.size(); ++i)
        p.leader(
            "/caliper/pistons_mm/" + std::to_string(i), centres[i] + QPointF(0, 4), { centres[i].x(), row + 2 }, {}, QStringLiteral("Ø "));
    p.leader("/caliper/pistons_mm/-", { along + 2, row }, { half - 2, low - 6 },
        caliper.pistons.empty() ? QObject::tr("bores, one side") : QObject::tr("one more"), QStringLiteral("Ø "), false,
        !caliper.pistons.empty(), QStringLiteral("+"));
    p.leader("/caliper/pad_room_mm", { cut.x() + c.slotWidth * 500 + 2, row }, { cut.x() + c.outboardDepth * 500 + 8, row + 10 },
        QObject::tr("between pistons"));
    p.horizontal("/caliper/pad_window_mm", -window / 2, window / 2, above.y() - c.slotWidth * 500, above.y(), QObject::tr("pads go in"));
    p.horizontal("/caliper/mount_spacing_mm", -spacing, spacing, ear, above.y() + deepIn + 10, QObject::tr("holes"));
    p.leader("/caliper/piston_stroke_mm", { cut.x() - c.slotWidth * 500 - 6, row }, { cut.x() - c.inboardDepth * 500 - 16, row + 18 },
        QObject::tr("a piston comes out by"));
    if (caliper.kind == CaliperKind::Floating)
        p.leader("/caliper/slide_travel_mm", { cut.x() - c.inboardDepth * 1000, -c.backOverEdge * 300 },
            { cut.x() - c.inboardDepth * 1000 - 20, c.reach * 500 }, QObject::tr("slides by"));
    fact("bleeders", QObject::tr("Bleeders at"));
    fact("hose_thread", QObject::tr("Thread for the hose"));
    fact("material", QObject::tr("Body of"));
    fact("piston_material", QObject::tr("Pistons of"));
    return sheet;
}

} // namespace deepstop::app
