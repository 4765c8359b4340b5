#include "stages/wheel/corner_drawing.hpp"

#include "chapters/clearance/checks.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

using geometry::Point;

std::string cornerPointer(const Study& study, const SetupParts& result, Axle axle)
{
    const auto& setups = study.build->setups;
    const auto& own = axle == Axle::Front ? result.setup->front : result.setup->rear;
    const auto index = own ? result.setup - setups.data() : 0;
    return "/setups/" + std::to_string(index) + (axle == Axle::Front ? "/front" : "/rear");
}

std::string hydraulicsPointer(const Study& study, const SetupParts& result)
{
    const auto index = result.setup && result.setup->hydraulics ? result.setup - study.build->setups.data() : 0;
    return "/setups/" + std::to_string(index) + "/hydraulics";
}

std::string wheelPointer(const Study& study, const Wheel& wheel)
{
    return "/wheels/" + std::to_string(&wheel - study.build->wheels.data());
}

QString unitNote(const Study& study)
{
    return study.system == UnitSystem::Metric ? QObject::tr("dimensions in mm") : QObject::tr("dimensions in inches");
}

namespace {

/// An axle with drums: the drum inside its wheel.
void drawDrumRoom(Sheet& sheet, const Study& study, Axle axle, const CornerClearance& r)
{
    const Theme& t = theme();
    const Drum& d = r.corner->drum;
    const double ring = r.drawn.ring;
    const double face = ring + d.faceThickness.value.value_or(6e-3);
    const double radius = d.insideDiameter.value.value_or(0.25) / 2;
    const double outside = radius + d.wall.value.value_or(7e-3);
    const double depth = d.depth.value.value_or(0.07);
    CornerDrawing drawing(sheet, r);
    drawing.hub();
    drawing.wheel();
    const bool known = d.insideDiameter.value && d.wall.value && d.depth.value && d.faceThickness.value;
    sheet.area(closedPath(QPolygonF { inSection(face - depth, radius), inSection(face - depth, outside), inSection(face, outside),
                   inSection(face, r.drawn.hub.pilotRadius), inSection(ring, r.drawn.hub.pilotRadius), inSection(ring, radius) }),
        { t.proposal, 1.8, known ? Qt::SolidLine : Qt::DashLine, t.proposalWash, Hatch::Falling, t.proposal, 7 });
    double left = face - depth;
    double right = face;
    double top = outside + 0.02;
    for (const Point p : r.wheelShape.barrel) {
        left = std::min(left, p.z - 0.012);
        right = std::max(right, p.z + 0.012);
        top = std::max(top, p.r + 0.03);
    }
    sheet.extent = QRectF(inSection(left - 0.09, top), inSection(right + 0.06, -0.052));
    sheet.line(QPolygonF { inSection(left - 0.06, 0), inSection(right + 0.03, 0) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.letter(inSection(right + 0.032, 0), QObject::tr("axis"), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter);
    const auto at = cornerPointer(study, study.after, axle);
    sheet.dimensions.push_back({ at + "/drum/inside_diameter_mm", QStringLiteral("Ø "), inSection(face - depth, 0),
        inSection(face - depth, radius), Run::Vertical, (left - 0.05) * 1000, false, {}, 0.4 });
    sheet.dimensions.push_back({ at + "/drum/wall_mm", {}, inSection(face - depth / 2, outside - 0.002),
        inSection(left - 0.03, outside + 0.004), Run::Leader, 0, false, QObject::tr("wall"), 0.5 });
    const auto row = [&](const std::string& key, double z0, double z1, double y, const QString& caption, bool mayLack = false) {
        sheet.dimensions.push_back({ at + key, {}, inSection(z0, r.drawn.hub.pilotRadius), inSection(z1, r.drawn.hub.pilotRadius),
            Run::Horizontal, y, false, caption, mayLack ? 3.0 : 0.5, mayLack });
    };
    row("/drum/depth_mm", face - depth, face, 12, QObject::tr("deep"));
    row("/drum/face_thickness_mm", ring, face, 26, QObject::tr("face"));
    row("/spacer_mm", face, fit::wheelFace(r.drawn), 26, QObject::tr("spacer"), true);
    row("/ring_mm", 0, ring, 40, QObject::tr("ring"), true);
    for (const auto& [check, which] : { std::pair { &checks::barrelGap, WheelGap::Barrel }, std::pair { &checks::spokeGap, WheelGap::Spokes } })
        if (const Verdict* v = study.verdict(*check, { axle }); v && r.room(which).drawn) {
            const auto& room = *r.room(which).drawn;
            sheet.callouts.push_back(
                { v->id, v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study.system)) : QStringLiteral("?"),
                    v->level, inSection(room.onCaliper), inSection(room.onWheel),
                    inSection(room.onWheel.z + (which == WheelGap::Barrel ? 0.0 : 0.04), room.onWheel.r + 0.024) });
        }
}

} // namespace

Sheet wheelRoomSheet(const Study& study, Axle axle, Side side)
{
    const Theme& t = theme();
    Sheet sheet;
    const CornerClearance& after = study.of<Clearance>().after.at(axle).at(side);
    const CornerClearance& before = study.of<Clearance>().before.at(axle).at(side);
    sheet.title = QObject::tr("%1 %2 corner in section")
                      .arg(axle == Axle::Front ? QObject::tr("Front") : QObject::tr("Rear"),
                          side == Side::Left ? QObject::tr("left") : QObject::tr("right"));
    if (!after.corner)
        return sheet;
    sheet.title += QStringLiteral(" · %1").arg(QString::fromStdString(study.after.setup->name));
    sheet.subtitle =
        QStringLiteral("%1 · %2%3")
            .arg(after.wheel ? QString::fromStdString(after.wheel->name) : QObject::tr("no wheel chosen"), unitNote(study),
                study.after.setup != study.before.setup ? QObject::tr(" · dashed: %1").arg(QString::fromStdString(study.before.setup->name))
                                                        : QString());
    if (after.corner->brakes == BrakeKind::Drums) {
        drawDrumRoom(sheet, study, axle, after);
        return sheet;
    }
    if (!after.standIns.empty())
        sheet.subtitle += QObject::tr(" · where a ? stands, drawn by proportion");
    const fit::CornerShape& s = after.drawn;
    const fit::Faces faces = fit::frictionFaces(s);
    const double edge = s.rotor.outerRadius;

    CornerDrawing drawing(sheet, after);
    drawing.hub();
    drawing.wheel();
    drawing.shield(hubOf(*study.build, axle));
    drawing.rotor();
    drawing.caliper();
    drawing.pads();
    drawing.envelope();
    drawing.clash();
    drawing.keepOuts(hubOf(*study.build, axle));
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
    for (const fit::Outline& line : after.wheelShape.spokes)
        for (const Point p : line.chain)
            right = std::max(right, p.z + 0.015);
    const double columns = s.slotCentre - s.caliper.inboardDepth - 0.014;
    left = std::min(left, columns - 0.08);
    sheet.extent = QRectF(inSection(left, top), inSection(right + 0.05, -0.052));
    sheet.line(QPolygonF { inSection(left, 0), inSection(right + 0.03, 0) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.letter(inSection(right + 0.032, 0), QObject::tr("axis"), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter);

    const auto corner = cornerPointer(study, study.after, axle);
    const auto vertical = [&](const char* key, double r0, double r1, double z0, double column, const QString& prefix = {},
                              const QString& caption = {}, double along = 0.5) {
        sheet.dimensions.push_back(
            { corner + key, prefix, inSection(z0, r0), inSection(z0, r1), Run::Vertical, column * 1000, false, caption, along });
    };
    const auto horizontal = [&](const char* key, double z0, double z1, double r, double row, const QString& caption = {}) {
        sheet.dimensions.push_back(
            { corner + key, {}, inSection(z0, r), inSection(z1, r), Run::Horizontal, -row * 1000, false, caption, 0.5 });
    };
    const auto leader = [&](const char* key, Point from, Point wish, const QString& caption) {
        sheet.dimensions.push_back({ corner + key, {}, inSection(from), inSection(wish), Run::Leader, 0, false, caption, 0.5 });
    };
    const double caliperIn = s.slotCentre - s.caliper.inboardDepth;
    const double caliperOut = s.slotCentre + s.caliper.outboardDepth;
    const double step = 0.022;
    // In the order a person takes them: rotor on the hub, then the caliper over it, then the pads.
    vertical("/rotor/outer_diameter_mm", 0, edge, faces.inboard, columns - 2.6 * step, QStringLiteral("Ø "), {}, 0.4);
    horizontal("/rotor/thickness_mm", faces.inboard, faces.outboard, s.rotor.ringInnerRadius, -0.012, QObject::tr("rotor"));
    horizontal(
        "/rotor/overall_height_mm", faces.inboard, s.ring + s.rotor.hatThickness, s.rotor.hatOuterRadius, -0.026, QObject::tr("overall"));
    horizontal("/rotor/hat_thickness_mm", s.ring, s.ring + s.rotor.hatThickness, s.rotor.boreRadius, -0.012, QObject::tr("hat"));
    vertical(
        "/rotor/ring_inner_diameter_mm", 0, s.rotor.ringInnerRadius, faces.inboard, columns - 1.2 * step, QStringLiteral("Ø "), {}, 0.45);
    leader("/rotor/vent_gap_mm", { faces.middle(), s.rotor.ringInnerRadius + 0.004 }, { s.slotCentre - 0.062, 0.056 }, QObject::tr("vent"));
    const auto fitted = [&](const char* key, double z0, double z1, double row, const QString& caption) {
        horizontal(key, z0, z1, s.rotor.boreRadius, row, caption);
        sheet.dimensions.back().mayLack = true;
        sheet.dimensions.back().along = 3;
    };
    fitted("/ring_mm", 0, s.ring, -0.040, QObject::tr("ring"));
    fitted("/spacer_mm", s.ring + s.rotor.hatThickness, fit::wheelFace(s), -0.026, QObject::tr("spacer"));
    const std::string own = side == Side::Left ? "/left" : "/right";
    horizontal((own + "/slot_centre_mm").c_str(), s.slotCentre, 0, edge - s.caliper.reach, -0.040, QObject::tr("slot to hub face"));
    vertical("/caliper/back_over_edge_mm", edge, edge + s.caliper.backOverEdge, caliperIn, columns - 0.2 * step);
    vertical("/caliper/bridge_gap_mm", edge, edge + s.caliper.bridgeGap, s.slotCentre - s.caliper.slotWidth / 2, columns - 1.5 * step, {},
        QObject::tr("bridge"));
    vertical("/caliper/reach_mm", edge - s.caliper.reach, edge, caliperIn, columns - 0.2 * step, {}, {}, 0.62);
    horizontal("/caliper/inboard_depth_mm", caliperIn, s.slotCentre, edge - s.caliper.reach, edge - s.caliper.reach - 0.030);
    horizontal("/caliper/outboard_depth_mm", s.slotCentre, caliperOut, edge - s.caliper.reach, edge - s.caliper.reach - 0.030);
    leader("/caliper/shoulder_mm", { caliperIn + s.caliper.shoulder / 2, edge + s.caliper.backOverEdge - s.caliper.shoulder / 2 },
        { caliperIn - 0.026, edge + s.caliper.backOverEdge + 0.002 }, QObject::tr("shoulder"));
    leader("/caliper/back_length_mm", { s.slotCentre - 0.2 * s.caliper.inboardDepth, edge + s.caliper.backOverEdge },
        { s.slotCentre - 0.2 * s.caliper.inboardDepth, top - 0.004 }, QObject::tr("back, end to end"));
    horizontal("/caliper/slot_width_mm", s.slotCentre - s.caliper.slotWidth / 2, s.slotCentre + s.caliper.slotWidth / 2,
        edge - s.caliper.reach, edge - s.caliper.reach - 0.014, QObject::tr("slot"));
    vertical("/pad/height_mm", edge - s.pad.inset - s.pad.height, edge - s.pad.inset, faces.inboard - s.pad.thickness - s.pad.backing,
        columns - 1.5 * step, {}, QObject::tr("pad"), 0.7);
    vertical((own + "/pad_inset_mm").c_str(), edge - s.pad.inset, edge, faces.outboard + s.pad.thickness, caliperOut + 0.004, {},
        QObject::tr("inset"));

    // Taken hold of at its outboard face, the wheel goes out and in on its spacer.
    sheet.handles.push_back(
        { corner + "/spacer_mm", inSection(fit::wheelFace(s), s.hub.pilotRadius + 0.006), { 1, 0 }, 1e-3, 0.5e-3, Known::Vendor });

    const auto call = [&](const Check& check, const WheelRoom& room, Point shift) {
        const Verdict* v = study.verdict(check, { axle });
        if (!v || !room.drawn)
            return;
        const auto gap = v->figure.value ? *v->figure.value : room.drawn->gap;
        const auto said = v->figure.value ? QString::fromStdString(figure(gap, style::gap, study.system)) + QStringLiteral(" ±")
                + QString::fromStdString(figure(v->figure.worstCase, style::gap, study.system))
                                          : QStringLiteral("?");
        sheet.callouts.push_back({ v->id, said, v->level, inSection(room.drawn->onCaliper), inSection(room.drawn->onWheel),
            inSection(room.drawn->onWheel.z + shift.z, room.drawn->onWheel.r + shift.r) });
    };
    call(checks::barrelGap, after.room(WheelGap::Barrel), { 0.016, 0.024 });
    call(checks::spokeGap, after.room(WheelGap::Spokes), { 0.042, 0 });
    // The gap to weights or valve is dimensioned where it is the one that decides.
    if (const Figure& insets = after.room(WheelGap::Insets).gap;
        insets.value && after.smallestGap.value && *insets.value <= *after.smallestGap.value)
        call(checks::insetGap, after.room(WheelGap::Insets), { -0.02, 0.024 });
    return sheet;
}

} // namespace deepstop::app
