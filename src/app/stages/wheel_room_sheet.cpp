#include "stages/sheets.hpp"

#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

using geometry::Chain;
using geometry::Point;

QPointF at(double z, double r) { return { z * 1000, -r * 1000 }; }
QPointF at(Point p) { return at(p.z, p.r); }

QPolygonF polygon(const Chain& chain)
{
    QPolygonF out;
    for (const Point p : chain)
        out << at(p);
    return out;
}

QPainterPath closedPath(const QPolygonF& points)
{
    QPainterPath path;
    path.addPolygon(points);
    path.closeSubpath();
    return path;
}

QPainterPath box(double z0, double z1, double r0, double r1)
{
    QPainterPath path;
    path.addRect(QRectF(at(z0, r0), at(z1, r1)).normalized());
    return path;
}

/// The corner of one setup, drawn from its numbers.
class CornerDrawing {
public:
    CornerDrawing(Sheet& sheet, const CornerResult& result) : sheet_(sheet), r_(result), s_(result.drawn), t_(theme()) { }

    void wheel()
    {
        const Chain& barrel = r_.wheelShape.barrel;
        const Chain& spokes = r_.wheelShape.spokeBack;
        const double face = fit::wheelFace(s_);
        const bool guess = r_.barrelEstimated;
        Ink metal { t_.ink, 1.3, guess ? Qt::DashLine : Qt::SolidLine, t_.metalWash, guess ? Hatch::None : Hatch::Rising, t_.metal, 9 };
        if (barrel.size() >= 2) {
            // Only the inside was measured; thickness and lips are drawn by custom, lightly.
            const double metalThickness = 5.5e-3;
            const double lip = r_.wheel ? fit::beadSeatDiameter(r_.wheel->nominalDiameter).value_or(2 * barrel.front().r) / 2 + 17e-3 : barrel.front().r + 0.025;
            QPolygonF band = polygon(barrel);
            const Point last = barrel.back();
            const Point first = barrel.front();
            if (spokes.size() >= 2)
                band << at(spokes.back().z + 1e-3, spokes.back().r) << at(spokes.back().z + 15e-3, spokes.back().r);
            band << at(last.z + 13e-3, last.r + 4e-3) << at(last.z + 12e-3, lip) << at(last.z + 6e-3, lip) << at(last.z + 1e-3, last.r + metalThickness + 6e-3);
            for (auto p = barrel.rbegin(); p != barrel.rend(); ++p)
                band << at(p->z, p->r + metalThickness);
            band << at(first.z - 3e-3, lip) << at(first.z - 10e-3, lip) << at(first.z - 7e-3, first.r + 1e-3);
            sheet_.area(closedPath(band), metal);
            metal_ = metal_.united(closedPath(band));
        }
        if (spokes.size() >= 2) {
            QPolygonF back;
            back << at(face, s_.hub.pilotRadius) << at(face, spokes.front().r);
            for (const Point p : spokes)
                back << at(p);
            QPolygonF front;
            for (const Point p : spokes)
                front << at(p.z + 15e-3, p.r);
            QPolygonF whole = back;
            for (auto p = front.rbegin(); p != front.rend(); ++p)
                whole << *p;
            whole << at(face + 24e-3, spokes.front().r - 6e-3) << at(face + 24e-3, s_.hub.pilotRadius);
            Ink spoke = metal;
            spoke.line = Qt::SolidLine;
            spoke.hatch = Hatch::Rising;
            sheet_.area(closedPath(whole), spoke);
            metal_ = metal_.united(closedPath(whole));
        }
        // Where the wheel was measured.
        for (const Chain* chain : { &barrel, &spokes })
            if (!guess || chain == &spokes)
                for (const Point p : *chain) {
                    QPainterPath dot;
                    dot.addEllipse(at(p), 0.9, 0.9);
                    sheet_.area(dot, { QColor(), 0, Qt::NoPen, t_.ink, Hatch::None, QColor(), 0 });
                }
    }

    void hub()
    {
        const Ink metal { t_.ink, 1.3, Qt::SolidLine, t_.metalWash, Hatch::Falling, t_.metal, 8 };
        QPolygonF outline;
        outline << at(-0.078, 0) << at(-0.078, 0.034) << at(-0.030, 0.040) << at(-0.013, 0.044) << at(-0.012, s_.hub.flangeRadius) << at(0, s_.hub.flangeRadius)
                << at(0, s_.hub.pilotRadius) << at(s_.hub.pilotHeight - 2e-3, s_.hub.pilotRadius) << at(s_.hub.pilotHeight, s_.hub.pilotRadius - 2e-3)
                << at(s_.hub.pilotHeight, 0);
        sheet_.area(closedPath(outline), metal);
    }

    void rotor()
    {
        const fit::Faces faces = fit::frictionFaces(s_);
        const fit::RotorShape& r = s_.rotor;
        const Rotor& read = r_.corner->rotor;
        const Ink iron { t_.ink, 1.4, lineFor({ &read.outerDiameter, &read.thickness, &read.ringInnerDiameter, &read.overallHeight }), t_.metalWash, Hatch::Falling, t_.ink, 5 };
        const bool light = r_.corner->rotor.hatMaterial == HatMaterial::Aluminium;
        const Ink hat { t_.ink, 1.4, lineFor({ &read.hatThickness, &read.hatOuterDiameter, &read.hatWall, &read.bore }), t_.metalWash, light ? Hatch::Rising : Hatch::Falling, light ? t_.metal : t_.ink, light ? 7.0 : 5.0 };
        if (s_.ring > 0)
            sheet_.area(box(0, s_.ring, r.boreRadius, r.hatOuterRadius - r.hatWall - 2e-3), { t_.ink, 1.2, Qt::SolidLine, t_.lining, Hatch::Dense, t_.ink, 6 });
        const double disc0 = s_.ring;
        const double disc1 = s_.ring + r.hatThickness;
        QPainterPath bell = box(disc0, disc1, r.boreRadius, r.hatOuterRadius);
        const double wallFrom = std::min(faces.outboard - std::min(r.hatWall, r.thickness), disc0);
        bell = bell.united(box(wallFrom, disc1, r.hatOuterRadius - r.hatWall, r.hatOuterRadius));
        if (r.ringInnerRadius > r.hatOuterRadius)
            bell = bell.united(box(faces.outboard - std::min(r.hatWall, r.thickness), faces.outboard, r.hatOuterRadius - r.hatWall, r.ringInnerRadius));
        sheet_.area(bell, hat);
        if (r.ventGap > 0 && r.ventGap < r.thickness) {
            const double plate = (r.thickness - r.ventGap) / 2;
            sheet_.area(box(faces.inboard + plate, faces.outboard - plate, r.ringInnerRadius + 3e-3, r.outerRadius - 3e-3), { t_.metal, 0.8, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
            sheet_.area(box(faces.inboard, faces.inboard + plate, r.ringInnerRadius, r.outerRadius), iron);
            sheet_.area(box(faces.outboard - plate, faces.outboard, r.ringInnerRadius, r.outerRadius), iron);
        } else {
            sheet_.area(box(faces.inboard, faces.outboard, r.ringInnerRadius, r.outerRadius), iron);
        }
        if (s_.spacer > 0)
            sheet_.area(box(disc1, disc1 + s_.spacer, r.boreRadius + 2e-3, s_.hub.flangeRadius), { t_.ink, 1.2, Qt::SolidLine, t_.lining, Hatch::Dense, t_.ink, 6 });
    }

    void pads()
    {
        const fit::Faces faces = fit::frictionFaces(s_);
        const double top = s_.rotor.outerRadius - s_.pad.inset;
        const double low = top - s_.pad.height;
        const Ink lining { t_.ink, 1.1, Qt::SolidLine, t_.lining, Hatch::None, {}, 0 };
        const Ink backing { t_.ink, 1.1, Qt::SolidLine, t_.metalWash, Hatch::Dense, t_.ink, 5 };
        sheet_.area(box(faces.outboard, faces.outboard + s_.pad.thickness, low, top), lining);
        sheet_.area(box(faces.outboard + s_.pad.thickness, faces.outboard + s_.pad.thickness + s_.pad.backing, low, top), backing);
        sheet_.area(box(faces.inboard - s_.pad.thickness, faces.inboard, low, top), lining);
        sheet_.area(box(faces.inboard - s_.pad.thickness - s_.pad.backing, faces.inboard - s_.pad.thickness, low, top), backing);
    }

    void caliper()
    {
        const Chain section = fit::caliperSection(s_);
        if (section.empty())
            return;
        const Caliper& read = r_.corner->caliper;
        sheet_.area(closedPath(polygon(section)), { t_.proposal, 2, lineFor({ &read.backOverEdge, &read.backLength, &read.bridgeGap, &read.reach, &read.outboardDepth, &read.inboardDepth,
                                                              &read.shoulder, &read.slotWidth, &r_.corner->mount.slotCentre }),
                                                          t_.proposalWash, Hatch::Falling, t_.proposal, 7 });
        const double middle = s_.rotor.outerRadius - s_.pad.inset - s_.pad.height / 2;
        double bore = 0;
        for (const Reading& piston : r_.corner->caliper.pistons)
            bore = std::max(bore, piston.value.value_or(0));
        const double half = std::min(bore / 2, s_.caliper.reach / 2 - 6e-3);
        const fit::Faces faces = fit::frictionFaces(s_);
        const Ink piston { t_.proposal, 1.2, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 };
        if (half > 0) {
            const double inFrom = s_.slotCentre - s_.caliper.inboardDepth * 0.86;
            sheet_.area(box(inFrom, faces.inboard - s_.pad.thickness - s_.pad.backing, middle - half, middle + half), piston);
            if (r_.corner->caliper.kind == CaliperKind::Fixed)
                sheet_.area(box(faces.outboard + s_.pad.thickness + s_.pad.backing, s_.slotCentre + s_.caliper.outboardDepth * 0.86, middle - half, middle + half), piston);
        }
        // What the wheel sees: the ends of the straight back sweep higher than its middle.
        sheet_.line(polygon(fit::caliperEnvelope(s_)), { t_.proposal, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    }

    /// Where caliper and wheel want the same room.
    void clash()
    {
        const Chain envelope = fit::caliperEnvelope(s_);
        if (envelope.empty() || !((r_.barrel && r_.barrel->gap < 0) || (r_.spokes && r_.spokes->gap < 0)))
            return;
        const QPainterPath both = metal_.intersected(closedPath(polygon(envelope)));
        QColor wash = t_.bad;
        wash.setAlphaF(0.35f);
        sheet_.area(both, { t_.bad, 1.6, Qt::SolidLine, wash, Hatch::Dense, t_.bad, 6 });
    }

    /// Everything that changes from setup to setup, as dashed outlines.
    void ghost()
    {
        const Ink dashed { t_.found, 1.5, Qt::DashLine, {}, Hatch::None, {}, 0 };
        const fit::Faces faces = fit::frictionFaces(s_);
        sheet_.area(box(faces.inboard, faces.outboard, s_.rotor.ringInnerRadius, s_.rotor.outerRadius), dashed);
        const double disc1 = s_.ring + s_.rotor.hatThickness;
        QPolygonF hat;
        hat << at(faces.outboard, s_.rotor.ringInnerRadius) << at(faces.outboard, s_.rotor.hatOuterRadius) << at(disc1, s_.rotor.hatOuterRadius)
            << at(disc1, s_.rotor.boreRadius);
        sheet_.line(hat, dashed);
        if (const Chain section = fit::caliperSection(s_); !section.empty())
            sheet_.area(closedPath(polygon(section)), dashed);
    }

private:
    /// Dashed where any of these readings is missing and the part is drawn by proportion.
    Qt::PenStyle lineFor(std::initializer_list<const Reading*> readings) const
    {
        const bool standIn = std::ranges::any_of(readings, [this](const Reading* reading) { return std::ranges::find(r_.standIns, reading) != r_.standIns.end(); });
        return standIn ? Qt::DashLine : Qt::SolidLine;
    }

    Sheet& sheet_;
    const CornerResult& r_;
    const fit::CornerShape& s_;
    const Theme& t_;
    QPainterPath metal_; ///< of the wheel
};

} // namespace

std::string cornerPointer(const Study& study, const SetupResult& result, Axle axle)
{
    const auto& setups = study.build->setups;
    const auto& own = axle == Axle::Front ? result.setup->front : result.setup->rear;
    const auto index = own ? result.setup - setups.data() : 0;
    return "/setups/" + std::to_string(index) + (axle == Axle::Front ? "/front" : "/rear");
}

QString unitNote(const Study& study)
{
    return study.system == UnitSystem::Metric ? QObject::tr("dimensions in mm") : QObject::tr("dimensions in inches");
}

Sheet wheelRoomSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    const CornerResult& after = study.after.at(axle);
    const CornerResult& before = study.before.at(axle);
    sheet.title = axle == Axle::Front ? QObject::tr("Front corner in section") : QObject::tr("Rear corner in section");
    if (!after.corner)
        return sheet;
    sheet.title += QStringLiteral(" · %1").arg(QString::fromStdString(study.after.setup->name));
    sheet.subtitle = QStringLiteral("%1 · %2%3")
                         .arg(after.wheel ? QString::fromStdString(after.wheel->name) : QObject::tr("no wheel chosen"), unitNote(study),
                             study.after.setup != study.before.setup ? QObject::tr(" · dashed: %1").arg(QString::fromStdString(study.before.setup->name)) : QString());
    if (!after.standIns.empty())
        sheet.subtitle += QObject::tr(" · where a ? stands, drawn by proportion");
    const fit::CornerShape& s = after.drawn;
    const fit::Faces faces = fit::frictionFaces(s);
    const double edge = s.rotor.outerRadius;

    CornerDrawing drawing(sheet, after);
    drawing.hub();
    drawing.wheel();
    drawing.rotor();
    drawing.caliper();
    drawing.pads();
    drawing.clash();
    if (study.after.setup != study.before.setup && before.corner)
        CornerDrawing(sheet, before).ghost();

    // Extent: the wheel, and room for dimensions around it.
    double left = s.slotCentre - s.caliper.inboardDepth;
    double right = s.slotCentre + s.caliper.outboardDepth;
    double top = edge + s.caliper.backOverEdge + 0.02;
    for (const Point p : after.wheelShape.barrel) {
        left = std::min(left, p.z - 0.012);
        right = std::max(right, p.z + 0.012);
        top = std::max(top, p.r + 0.03);
    }
    for (const Point p : after.wheelShape.spokeBack)
        right = std::max(right, p.z + 0.015);
    const double columns = s.slotCentre - s.caliper.inboardDepth - 0.014;
    left = std::min(left, columns - 0.08);
    sheet.extent = QRectF(at(left, top), at(right + 0.05, -0.052));
    sheet.line(QPolygonF { at(left, 0), at(right + 0.03, 0) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.letter(at(right + 0.032, 0), QObject::tr("axis"), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter);

    const auto corner = cornerPointer(study, study.after, axle);
    const auto vertical = [&](const char* key, double r0, double r1, double z0, double column, const QString& prefix = {}, const QString& caption = {}, double along = 0.5) {
        sheet.dimensions.push_back({ corner + key, prefix, at(z0, r0), at(z0, r1), Run::Vertical, column * 1000, false, caption, along });
    };
    const auto horizontal = [&](const char* key, double z0, double z1, double r, double row, const QString& caption = {}) {
        sheet.dimensions.push_back({ corner + key, {}, at(z0, r), at(z1, r), Run::Horizontal, -row * 1000, false, caption, 0.5 });
    };
    const auto leader = [&](const char* key, Point from, Point wish, const QString& caption) {
        sheet.dimensions.push_back({ corner + key, {}, at(from), at(wish), Run::Leader, 0, false, caption, 0.5 });
    };
    const double caliperIn = s.slotCentre - s.caliper.inboardDepth;
    const double caliperOut = s.slotCentre + s.caliper.outboardDepth;
    const double step = 0.022;
    // In the order a person takes them: rotor on the hub, then the caliper over it, then the pads.
    vertical("/rotor/outer_diameter_mm", 0, edge, faces.inboard, columns - 2.6 * step, QStringLiteral("Ø "), {}, 0.4);
    horizontal("/rotor/thickness_mm", faces.inboard, faces.outboard, s.rotor.ringInnerRadius, -0.012, QObject::tr("rotor"));
    horizontal("/rotor/overall_height_mm", faces.inboard, s.ring + s.rotor.hatThickness, s.rotor.hatOuterRadius, -0.026, QObject::tr("overall"));
    horizontal("/rotor/hat_thickness_mm", s.ring, s.ring + s.rotor.hatThickness, s.rotor.boreRadius, -0.012, QObject::tr("hat"));
    vertical("/rotor/ring_inner_diameter_mm", 0, s.rotor.ringInnerRadius, faces.inboard, columns - 1.2 * step, QStringLiteral("Ø "), {}, 0.45);
    leader("/rotor/vent_gap_mm", { faces.middle(), s.rotor.ringInnerRadius + 0.004 }, { s.slotCentre - 0.062, 0.056 }, QObject::tr("vent"));
    const auto fitted = [&](const char* key, double z0, double z1, double row, const QString& caption) {
        horizontal(key, z0, z1, s.rotor.boreRadius, row, caption);
        sheet.dimensions.back().mayLack = true;
        sheet.dimensions.back().along = 3;
    };
    fitted("/ring_mm", 0, s.ring, -0.040, QObject::tr("ring"));
    fitted("/spacer_mm", s.ring + s.rotor.hatThickness, fit::wheelFace(s), -0.026, QObject::tr("spacer"));
    horizontal("/mount/slot_centre_mm", s.slotCentre, 0, edge - s.caliper.reach, -0.040, QObject::tr("slot to hub face"));
    vertical("/caliper/back_over_edge_mm", edge, edge + s.caliper.backOverEdge, caliperIn, columns - 0.2 * step);
    vertical("/caliper/bridge_gap_mm", edge, edge + s.caliper.bridgeGap, s.slotCentre - s.caliper.slotWidth / 2, columns - 1.5 * step, {}, QObject::tr("bridge"));
    vertical("/caliper/reach_mm", edge - s.caliper.reach, edge, caliperIn, columns - 0.2 * step, {}, {}, 0.62);
    horizontal("/caliper/inboard_depth_mm", caliperIn, s.slotCentre, edge - s.caliper.reach, edge - s.caliper.reach - 0.030);
    horizontal("/caliper/outboard_depth_mm", s.slotCentre, caliperOut, edge - s.caliper.reach, edge - s.caliper.reach - 0.030);
    leader("/caliper/shoulder_mm", { caliperIn + s.caliper.shoulder / 2, edge + s.caliper.backOverEdge - s.caliper.shoulder / 2 },
        { caliperIn - 0.026, edge + s.caliper.backOverEdge + 0.002 }, QObject::tr("shoulder"));
    leader("/caliper/back_length_mm", { s.slotCentre - 0.2 * s.caliper.inboardDepth, edge + s.caliper.backOverEdge },
        { s.slotCentre - 0.2 * s.caliper.inboardDepth, top - 0.004 }, QObject::tr("back, end to end"));
    horizontal("/caliper/slot_width_mm", s.slotCentre - s.caliper.slotWidth / 2, s.slotCentre + s.caliper.slotWidth / 2, edge - s.caliper.reach, edge - s.caliper.reach - 0.014,
        QObject::tr("slot"));
    vertical("/pad/height_mm", edge - s.pad.inset - s.pad.height, edge - s.pad.inset, faces.inboard - s.pad.thickness - s.pad.backing, columns - 1.5 * step, {}, QObject::tr("pad"), 0.7);
    vertical("/mount/pad_inset_mm", edge - s.pad.inset, edge, faces.outboard + s.pad.thickness, caliperOut + 0.004, {}, QObject::tr("inset"));

    const auto call = [&](std::string_view id, const std::optional<fit::Room>& room, Point shift) {
        const Verdict* v = study.verdict(std::string(axle == Axle::Front ? "front/" : "rear/") + std::string(id));
        if (!v || !room)
            return;
        const auto gap = v->figure.value ? *v->figure.value : room->gap;
        const auto said = v->figure.value ? QString::fromStdString(figure(gap, style::gap, study.system)) + QStringLiteral(" ±") + QString::fromStdString(figure(v->figure.worstCase, style::gap, study.system))
                                          : QStringLiteral("?");
        sheet.callouts.push_back({ v->id, said, v->level, at(room->onCaliper), at(room->onWheel), at(room->onWheel.z + shift.z, room->onWheel.r + shift.r) });
    };
    call("barrel-gap", after.barrel, { 0.016, 0.024 });
    call("spoke-gap", after.spokes, { 0.042, 0 });
    return sheet;
}

} // namespace deepstop::app
