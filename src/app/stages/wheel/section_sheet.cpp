#include "stages/wheel/corner_drawing.hpp"

#include "chapters/clearance/checks.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>
#include <utility>

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
    for (const auto& [check, which] :
        { std::pair { &checks::barrelGap, WheelGap::Barrel }, std::pair { &checks::spokeGap, WheelGap::Spokes } })
        if (const Verdict* v = study.verdict(*check, { axle }); v && r.room(which).drawn) {
            const auto& room = *r.room(which).drawn;
            sheet.callouts.push_back(
                { v->id, v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study.system)) : QStringLiteral("?"),
                    v->level, inSection(room.onCaliper), inSection(room.onWheel),
                    inSection(room.onWheel.z + (which == WheelGap::Barrel ? 0.0 : 0.04), room.onWheel.r + 0.024) });
        }
}

/// A corner in section, part by part.
class SectionDrawing {
public:
    SectionDrawing(Sheet sheet, const Study& study, Axle axle, Side side)
        : sheet_(std::move(sheet)), study_(study), axle_(axle), side_(side)
    {
    }

    Sheet drawn()
    {
        picture();
        extent();
        dimensions();
        gaps();
        return std::move(sheet_);
    }

private:
    /// Everything drawn, the proposal over the setup as found.
    void picture()
    {
        if (!after_.standIns.empty())
            sheet_.subtitle += QObject::tr(" · where a ? stands, drawn by proportion");
        CornerDrawing drawing(sheet_, after_);
        drawing.hub();
        drawing.wheel();
        if (after_.corner->shield.state != ShieldState::Removed)
            drawing.shield(figures::shieldOf(*after_.corner, hubOf(*study_.build, axle_)));
        drawing.rotor();
        drawing.caliper();
        drawing.pads();
        drawing.envelope();
        drawing.clash();
        drawing.keepOuts(hubOf(*study_.build, axle_));
        if (study_.after.setup != study_.before.setup && before_.corner)
            CornerDrawing(sheet_, before_).ghost();
    }

    void extent()
    {
        for (const Point p : after_.wheelShape.barrel) {
            left_ = std::min(left_, p.z - 0.012);
            right_ = std::max(right_, p.z + 0.012);
            top_ = std::max(top_, p.r + 0.03);
        }
        for (const fit::Outline& line : after_.wheelShape.spokes)
            for (const Point p : line.chain)
                right_ = std::max(right_, p.z + 0.015);
        columns_ = s_.slotCentre - s_.caliper.inboardDepth - 0.014;
        left_ = std::min(left_, columns_ - 0.08);
        sheet_.extent = QRectF(inSection(left_, top_), inSection(right_ + 0.05, -0.052));
        sheet_.line(QPolygonF { inSection(left_, 0), inSection(right_ + 0.03, 0) }, { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        sheet_.letter(inSection(right_ + 0.032, 0), QObject::tr("axis"), 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter);
    }

    /// In the order a person takes them: rotor on the hub, then the caliper over it, then the pads.
    void dimensions()
    {
        const auto vertical = [&](const char* key, double r0, double r1, double z0, double column, const QString& prefix = {},
                                  const QString& caption = {}, double along = 0.5) {
            sheet_.dimensions.push_back(
                { corner_ + key, prefix, inSection(z0, r0), inSection(z0, r1), Run::Vertical, column * 1000, false, caption, along });
        };
        const auto horizontal = [&](const char* key, double z0, double z1, double r, double row, const QString& caption = {}) {
            sheet_.dimensions.push_back(
                { corner_ + key, {}, inSection(z0, r), inSection(z1, r), Run::Horizontal, -row * 1000, false, caption, 0.5 });
        };
        const auto leader = [&](const char* key, Point from, Point wish, const QString& caption) {
            sheet_.dimensions.push_back({ corner_ + key, {}, inSection(from), inSection(wish), Run::Leader, 0, false, caption, 0.5 });
        };
        const double caliperIn = s_.slotCentre - s_.caliper.inboardDepth;
        const double caliperOut = s_.slotCentre + s_.caliper.outboardDepth;
        const double step = 0.022;
        // In the order a person takes them: rotor on the hub, then the caliper over it, then the pads.
        vertical("/rotor/outer_diameter_mm", 0, edge_, faces_.inboard, columns_ - 2.6 * step, QStringLiteral("Ø "), {}, 0.4);
        horizontal("/rotor/thickness_mm", faces_.inboard, faces_.outboard, s_.rotor.ringInnerRadius, -0.012, QObject::tr("rotor"));
        horizontal("/rotor/overall_height_mm", faces_.inboard, s_.ring + s_.rotor.hatThickness, s_.rotor.hatOuterRadius, -0.026,
            QObject::tr("overall"));
        horizontal("/rotor/hat_thickness_mm", s_.ring, s_.ring + s_.rotor.hatThickness, s_.rotor.boreRadius, -0.012, QObject::tr("hat"));
        vertical("/rotor/ring_inner_diameter_mm", 0, s_.rotor.ringInnerRadius, faces_.inboard, columns_ - 1.2 * step, QStringLiteral("Ø "),
            {}, 0.45);
        leader("/rotor/vent_gap_mm", { faces_.middle(), s_.rotor.ringInnerRadius + 0.004 }, { s_.slotCentre - 0.062, 0.056 },
            QObject::tr("vent"));
        const auto fitted = [&](const char* key, double z0, double z1, double row, const QString& caption) {
            horizontal(key, z0, z1, s_.rotor.boreRadius, row, caption);
            sheet_.dimensions.back().mayLack = true;
            sheet_.dimensions.back().along = 3;
        };
        fitted("/ring_mm", 0, s_.ring, -0.040, QObject::tr("ring"));
        fitted("/spacer_mm", s_.ring + s_.rotor.hatThickness, fit::wheelFace(s_), -0.026, QObject::tr("spacer"));
        const std::string own = side_ == Side::Left ? "/left" : "/right";
        horizontal((own + "/slot_centre_mm").c_str(), s_.slotCentre, 0, edge_ - s_.caliper.reach, -0.040, QObject::tr("slot to hub face"));
        vertical("/caliper/back_over_edge_mm", edge_, edge_ + s_.caliper.backOverEdge, caliperIn, columns_ - 0.2 * step);
        vertical("/caliper/bridge_gap_mm", edge_, edge_ + s_.caliper.bridgeGap, s_.slotCentre - s_.caliper.slotWidth / 2,
            columns_ - 1.5 * step, {}, QObject::tr("bridge"));
        vertical("/caliper/reach_mm", edge_ - s_.caliper.reach, edge_, caliperIn, columns_ - 0.2 * step, {}, {}, 0.62);
        horizontal("/caliper/inboard_depth_mm", caliperIn, s_.slotCentre, edge_ - s_.caliper.reach, edge_ - s_.caliper.reach - 0.030);
        horizontal("/caliper/outboard_depth_mm", s_.slotCentre, caliperOut, edge_ - s_.caliper.reach, edge_ - s_.caliper.reach - 0.030);
        leader("/caliper/shoulder_mm", { caliperIn + s_.caliper.shoulder / 2, edge_ + s_.caliper.backOverEdge - s_.caliper.shoulder / 2 },
            { caliperIn - 0.026, edge_ + s_.caliper.backOverEdge + 0.002 }, QObject::tr("shoulder"));
        leader("/caliper/back_length_mm", { s_.slotCentre - 0.2 * s_.caliper.inboardDepth, edge_ + s_.caliper.backOverEdge },
            { s_.slotCentre - 0.2 * s_.caliper.inboardDepth, top_ - 0.004 }, QObject::tr("back, end to end"));
        horizontal("/caliper/slot_width_mm", s_.slotCentre - s_.caliper.slotWidth / 2, s_.slotCentre + s_.caliper.slotWidth / 2,
            edge_ - s_.caliper.reach, edge_ - s_.caliper.reach - 0.014, QObject::tr("slot"));
        vertical("/pad/height_mm", edge_ - s_.pad.inset - s_.pad.height, edge_ - s_.pad.inset,
            faces_.inboard - s_.pad.thickness - s_.pad.backing, columns_ - 1.5 * step, {}, QObject::tr("pad"), 0.7);
        vertical((own + "/pad_inset_mm").c_str(), edge_ - s_.pad.inset, edge_, faces_.outboard + s_.pad.thickness, caliperOut + 0.004, {},
            QObject::tr("inset"));
    }

    /// The spacer's handle, and the gaps where they are smallest.
    void gaps()
    {
        sheet_.handles.push_back(
            { corner_ + "/spacer_mm", inSection(fit::wheelFace(s_), s_.hub.pilotRadius + 0.006), { 1, 0 }, 1e-3, 0.5e-3, Known::Vendor });
        const auto call = [&](const Check& check, const WheelRoom& room, Point shift) {
            const Verdict* v = study_.verdict(check, { axle_ });
            if (!v || !room.drawn)
                return;
            const auto gap = v->figure.value ? *v->figure.value : room.drawn->gap;
            const auto said = v->figure.value ? QString::fromStdString(figure(gap, style::gap, study_.system)) + QStringLiteral(" ±")
                    + QString::fromStdString(figure(v->figure.worstCase, style::gap, study_.system))
                                              : QStringLiteral("?");
            sheet_.callouts.push_back({ v->id, said, v->level, inSection(room.drawn->onCaliper), inSection(room.drawn->onWheel),
                inSection(room.drawn->onWheel.z + shift.z, room.drawn->onWheel.r + shift.r) });
        };
        call(checks::barrelGap, after_.room(WheelGap::Barrel), { 0.016, 0.024 });
        call(checks::spokeGap, after_.room(WheelGap::Spokes), { 0.042, 0 });
        // The gap to weights or valve is dimensioned where it is the one that decides.
        if (const Figure& insets = after_.room(WheelGap::Insets).gap;
            insets.value && after_.smallestGap.value && *insets.value <= *after_.smallestGap.value)
            call(checks::insetGap, after_.room(WheelGap::Insets), { -0.02, 0.024 });
    }

    Sheet sheet_;
    const Study& study_;
    const Axle axle_;
    const Side side_;
    const Theme& t_ = theme();
    const CornerClearance& after_ = study_.of<Clearance>().after.at(axle_).at(side_);
    const CornerClearance& before_ = study_.of<Clearance>().before.at(axle_).at(side_);
    const fit::CornerShape& s_ = after_.drawn;
    const fit::Faces faces_ = fit::frictionFaces(s_);
    const double edge_ = s_.rotor.outerRadius;
    // Extent: the wheel, and room for dimensions around it.
    double left_ = s_.slotCentre - s_.caliper.inboardDepth;
    double right_ = s_.slotCentre + s_.caliper.outboardDepth;
    double top_ = edge_ + s_.caliper.backOverEdge + 0.02;
    double columns_ = 0;
    const std::string corner_ = cornerPointer(study_, study_.after, axle_);
};

} // namespace

Sheet wheelRoomSheet(const Study& study, Axle axle, Side side)
{
    Sheet sheet;
    const CornerClearance& after = study.of<Clearance>().after.at(axle).at(side);
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
    return SectionDrawing(std::move(sheet), study, axle, side).drawn();
}

} // namespace deepstop::app
