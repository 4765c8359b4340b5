#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "stages/bench/part_sheet.hpp"
#include "joints/studs.hpp"

#include <cmath>

namespace deepstop::app {
namespace {

/// The stance under the studs is drawn so many times smaller.
constexpr double reduction = 4;

double orElse(double value, double otherwise) { return std::isfinite(value) ? value : otherwise; }

/// Tyre and rim from behind, as a block between its edges; y down from the top of the block.
QPainterPath tyre(const fit::Stance& stance, double zero, double y0, double y1)
{
    QPainterPath path;
    path.addRoundedRect(
        QRectF(QPointF(zero + stance.innerEdge * 1000 / reduction, y0), QPointF(zero + stance.outerEdge * 1000 / reduction, y1)), 2.4, 2.4);
    return path;
}

} // namespace

Sheet studSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    const CornerClearance& before = study.of<Clearance>().before.at(axle).left;
    sheet.title = axle == Axle::Front ? QObject::tr("What holds the front wheel, and where it stands")
                                      : QObject::tr("What holds the rear wheel, and where it stands");
    if (!r.corner || !r.wheel) {
        sheet.subtitle = QObject::tr("no wheel chosen");
        return sheet;
    }
    const Hub& hub = hubOf(*study.build, axle);
    const QString cut = hub.heldBy == WheelHeldBy::Bolts ? QObject::tr("one wheel bolt cut along its middle")
                                                         : QObject::tr("one stud cut along its middle");
    sheet.subtitle =
        QObject::tr("%1 · %2 · below: seen from behind, %3 times smaller, dashed as found").arg(unitNote(study), cut).arg(reduction);
    const Corner& corner = *r.corner;
    const std::string hubAt = axle == Axle::Front ? "/front_hub" : "/rear_hub";
    const std::string at = cornerPointer(study, study.after, axle);
    const std::string wheelAt = "/wheels/" + std::to_string(r.wheel - study.build->wheels.data());

    // Stations along the stud, all in millimetres from the flange; what nobody has read is drawn by proportion, dashed.
    const double ring = r.drawn.ring * 1000;
    const bool drums = corner.brakes == BrakeKind::Drums;
    const double hat = drums ? corner.drum.faceThickness.value.value_or(6e-3) * 1000 : r.drawn.rotor.hatThickness * 1000;
    const double spacer = r.drawn.spacer * 1000;
    const double face = ring + hat + spacer;
    const double pad = orElse(r.studs.pad, 0.012) * 1000;
    const double nut = orElse(r.studs.nutThread, 0.016) * 1000;
    const double stud = orElse(r.studs.length, 0.04) * 1000;
    const double diameter = orElse(r.studs.diameter, 0.012) * 1000;
    const double pitch = orElse(r.studs.pitch, 1.5e-3) * 1000;
    const double half = diameter / 2;
    const auto styleOf = [](const Reading& reading) { return reading.value ? Qt::SolidLine : Qt::DashLine; };
    const auto plate = [&](double x0, double x1, double hole, double high, const Ink& ink) {
        if (x1 - x0 <= 0)
            return;
        sheet.area(rectangle(x0, -high, x1, -hole), ink);
        sheet.area(rectangle(x0, hole, x1, high), ink);
    };
    const double hole = half + 0.6;
    plate(-10, 0, half, 24, { t.ink, 1.4, Qt::SolidLine, t.metalWash, Hatch::Falling, t.metal, 8 });
    plate(0, ring, hole, 21, { t.ink, 1.2, Qt::SolidLine, t.lining, Hatch::Dense, t.ink, 6 });
    plate(
        ring, ring + hat, hole, 24, { t.proposal, 1.6, styleOf(corner.rotor.hatThickness), t.proposalWash, Hatch::Falling, t.proposal, 7 });
    plate(ring + hat, face, hole, 21, { t.ink, 1.2, Qt::SolidLine, t.lining, Hatch::Dense, t.ink, 6 });
    plate(face, face + pad, hole + 0.4, 24, { t.ink, 1.4, styleOf(r.wheel->padThickness), t.metalWash, Hatch::Rising, t.metal, 8 });
    // The nut with its seat, then the stud, its thread to the tip.
    const auto drawStud = [&] {
        const Ink steel { t.ink, 1.4, styleOf(hub.nutThread), t.raised, Hatch::Rising, t.ink, 6 };
        for (const double up : { -1.0, 1.0 }) {
            QPainterPath body;
            body.addPolygon(QPolygonF { QPointF(face + pad, up * half), QPointF(face + pad - 3, up * (half + 1)),
                QPointF(face + pad + 2, up * (half + 5)), QPointF(face + pad + nut, up * (half + 5)),
                QPointF(face + pad + nut, up * half) });
            body.closeSubpath();
            sheet.area(body, steel);
        }
        QPainterPath shank;
        shank.addPolygon(QPolygonF { QPointF(-16, -half), QPointF(stud - pitch, -half), QPointF(stud, -half + pitch),
            QPointF(stud, half - pitch), QPointF(stud - pitch, half), QPointF(-16, half) });
        shank.closeSubpath();
        sheet.area(shank, { t.ink, 1.5, styleOf(hub.studLength), t.paper, Hatch::None, {}, 0 });
        for (double x = std::max(4.0, face * 0.5); x < stud - pitch && pitch > 0.3; x += pitch)
            sheet.line(QPolygonF { QPointF(x, -half + 0.2), QPointF(x + pitch / 2, half - 0.2) },
                { t.metal, 0.8, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    };
    // A wheel bolt: its head with the seat, its end in the hub.
    const double boltEnd = face + pad - orElse(hub.wheelBoltLength.value.value_or(NAN), 0.028) * 1000;
    if (hub.heldBy == WheelHeldBy::Bolts) {
        const Ink bolt { t.ink, 1.4, styleOf(hub.wheelBoltLength), t.raised, Hatch::Rising, t.ink, 6 };
        for (const double up : { -1.0, 1.0 })
            sheet.area(rectangle(-10, std::min(up * half, up * 24), 0, std::max(up * half, up * 24)),
                { t.ink, 1.4, Qt::SolidLine, t.metalWash, Hatch::Falling, t.metal, 8 });
        sheet.area(rectangle(boltEnd, -half, face + pad, half), bolt);
        QPainterPath head;
        head.addPolygon(QPolygonF { QPointF(face + pad, -half), QPointF(face + pad + 5, -half - 5), QPointF(face + pad + 16, -half - 5),
            QPointF(face + pad + 16, half + 5), QPointF(face + pad + 5, half + 5), QPointF(face + pad, half) });
        head.closeSubpath();
        sheet.area(head, bolt);
    } else
        drawStud();
    sheet.line(QPolygonF { QPointF(-20, 0), QPointF(std::max(stud, face + pad + nut) + 8, 0) },
        { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    // The thread that holds, where it is.
    if (const auto held = joints::engagement(r.studs); hub.heldBy != WheelHeldBy::Bolts && std::isfinite(held.inNut) && held.inNut > 0)
        sheet.area(
            rectangle(face + pad, -half, face + pad + held.inNut * 1000, half), { t.good, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });

    const auto horizontal = [&](const std::string& key, double x0, double x1, double y, double row, const QString& caption,
                                bool mayLack = false, double along = 0.5) {
        sheet.dimensions.push_back({ key, {}, { x0, y }, { x1, y }, Run::Horizontal, row, false, caption, along, mayLack });
    };
    horizontal(at + "/ring_mm", 0, ring, 21, 46, QObject::tr("ring"), true, 0.2);
    horizontal(at + (drums ? "/drum/face_thickness_mm" : "/rotor/hat_thickness_mm"), ring, ring + hat, 24, 33,
        drums ? QObject::tr("drum") : QObject::tr("hat"));
    horizontal(at + "/spacer_mm", ring + hat, face, 21, 46, QObject::tr("spacer"), true, 0.9);
    horizontal(wheelAt + "/pad_thickness_mm", face, face + pad, 24, 33, QObject::tr("mounting pad"), false, 1.2);
    if (hub.heldBy == WheelHeldBy::Bolts) {
        horizontal(hubAt + "/wheel_bolt_length_mm", boltEnd, face + pad, -24, -34, QObject::tr("bolt under its seat"));
    } else {
        horizontal(hubAt + "/nut_thread_mm", face + pad, face + pad + nut, -half - 5, -24, QObject::tr("thread in the nut"), false, 0.7);
        horizontal(hubAt + "/stud_length_mm", 0, stud, -24, -34, QObject::tr("stud"));
    }
    sheet.handles.push_back({ at + "/spacer_mm", { face, 24 }, { 1, 0 }, 1e-3, 0.5e-3, Known::Vendor });

    // Readings about the hub and the wheel's place, at the right.
    const double right = std::max(stud, face + pad + nut) + 38;
    const double pixel = std::max((right + 26) / (756 - 236), 150.0 / 508);
    double y = -36;
    const auto cell = [&](const std::string& key, const QString& caption, bool mayLack = false) {
        sheet.letter({ right, y }, caption, 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ key, {}, { 0, 0 }, { right + 158 * pixel, y }, Run::Table, 0, false, {}, 0.5, mayLack });
        y += 25.5 * pixel;
    };
    const bool bolts = hub.heldBy == WheelHeldBy::Bolts;
    cell(hubAt + "/pilot_height_mm", QObject::tr("Pilot's height"));
    cell(hubAt + "/pilot_chamfer_mm", QObject::tr("Its chamfer"));
    cell(hubAt + "/pilot_diameter_mm", QObject::tr("Pilot's diameter"));
    cell(wheelAt + "/bore_mm", QObject::tr("Wheel's bore"));
    cell(wheelAt + "/bore_chamfer_mm", QObject::tr("Its chamfer"));
    cell(wheelAt + "/offset_mm", QObject::tr("Wheel's offset"));
    cell(axle == Axle::Front ? "/car/front_track_mm" : "/car/rear_track_mm", QObject::tr("Track as found"), true);
    cell(hubAt + "/scrub_radius_mm", QObject::tr("Scrub radius as found"), true);
    cell(hubAt + "/fender_room_mm", QObject::tr("Tyre to fender as found"), true);
    cell(hubAt + "/inner_room_mm", QObject::tr("Tyre to strut as found"), true);
    cell(at + "/washers_mm", QObject::tr("Washers that freed the wheel"), true);
    y += 4 * pixel;
    sheet.fact(at + "/washers_gave", QObject::tr("With them the wheel"), { right, y }, 138);
    sheet.fact(at + "/spacer_in_trial", QObject::tr("Spacer in"), { right + 144 * pixel, y }, 88);
    y += 42 * pixel;
    sheet.fact(hubAt + "/wheel_held_by", QObject::tr("Wheel held by"), { right, y }, 104);
    sheet.fact(
        hubAt + "/stud_thread", bolts ? QObject::tr("Bolts' thread") : QObject::tr("Studs' thread"), { right + 110 * pixel, y }, 104);
    y += 42 * pixel;
    sheet.fact(hubAt + "/nut_seat", bolts ? QObject::tr("Bolts' seat") : QObject::tr("Nuts' seat"), { right, y }, 104);
    sheet.fact(wheelAt + "/nut_seat", QObject::tr("Wheel's seat"), { right + 110 * pixel, y }, 104);
    y += 48 * pixel;
    // A seat's own size, side by side with the wheel's.
    if (hub.nutSeat == NutSeat::Cone || hub.nutSeat == NutSeat::Ball) {
        const std::string key = hub.nutSeat == NutSeat::Cone ? "/seat_angle_deg" : "/seat_radius_mm";
        sheet.letter({ right, y }, hub.nutSeat == NutSeat::Cone ? QObject::tr("Cone: its, wheel's") : QObject::tr("Ball: its, wheel's"), 12,
            t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ hubAt + key, {}, {}, { right + 128 * pixel, y }, Run::Table, 0, false, {}, 0.5 });
        sheet.dimensions.push_back({ wheelAt + key, {}, {}, { right + 184 * pixel, y }, Run::Table, 0, false, {}, 0.5 });
        y += 25.5 * pixel;
    }
    if (bolts) {
        cell(hubAt + "/hub_thread_mm", QObject::tr("Thread in the hub"));
        cell(hubAt + "/behind_flange_mm", QObject::tr("Clear behind it"));
    } else {
        sheet.fact(hubAt + "/nut_end", QObject::tr("Nuts are"), { right, y - 6 * pixel }, 104);
        if (hub.nutEnd == NutEnd::Closed)
            sheet.dimensions.push_back({ hubAt + "/nut_depth_mm", {}, {}, { right + 116 * pixel, y + 12 * pixel }, Run::Table, 0, false,
                QObject::tr("deep"), 0.5 });
        y += 42 * pixel;
    }

    // Stance: the tyre's block between strut and fender, before and after.
    const double ground = 92;
    const double zero = 46; // where the flange face lies on the small picture
    if (std::isfinite(r.stance.innerEdge)) {
        const double y0 = 66;
        if (before.corner && std::isfinite(before.stance.innerEdge) && study.before.setup != study.after.setup)
            sheet.area(tyre(before.stance, zero, y0 - 2, ground + 2), { t.found, 1.4, Qt::DashLine, {}, Hatch::None, {}, 0 });
        sheet.area(tyre(r.stance, zero, y0, ground), { t.ink, 1.6, Qt::SolidLine, t.metalWash, Hatch::None, {}, 0 });
        const double middle = zero + r.stance.middle() * 1000 / reduction;
        sheet.line(
            QPolygonF { QPointF(middle, y0 - 6), QPointF(middle, ground + 6) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        sheet.line(
            QPolygonF { QPointF(zero, y0 - 4), QPointF(zero, ground + 4) }, { t.proposal, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ zero, ground + 8 }, QObject::tr("hub face"), 11, t.proposal, Qt::AlignCenter, false);
        sheet.letter({ middle - 2, y0 - 9 }, QObject::tr("tyre's middle"), 11, t.mute, Qt::AlignRight | Qt::AlignVCenter, false);
        const fit::Stance& found = before.corner && std::isfinite(before.stance.innerEdge) ? before.stance : r.stance;
        const auto wall = [&](const Reading& room, double edge, double way, const QString& word) {
            if (!room.value)
                return;
            const double x = zero + (edge + way * *room.value) * 1000 / reduction;
            sheet.area(rectangle(x, y0 - 8, x + way * 3, ground - 6), { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::Dense, t.metal, 6 });
            sheet.letter({ x + way * 5, y0 - 2 }, word, 11, t.mute,
                way > 0 ? Qt::AlignLeft | Qt::AlignVCenter : Qt::AlignRight | Qt::AlignVCenter, false);
        };
        wall(hub.fenderRoom, found.outerEdge, 1, QObject::tr("fender"));
        wall(hub.innerRoom, found.innerEdge, -1, QObject::tr("strut"));
    }

    const auto call = [&](const Check& check, const QString& text, QPointF from, QPointF to, QPointF wish) {
        const Verdict* v = study.verdict(check, { axle });
        if (!v)
            return;
        const auto said = v->figure.value && v->style.dimension == Dimension::Length
            ? QStringLiteral(" ") + QString::fromStdString(figure(*v->figure.value, v->style, study.system))
            : QString();
        sheet.callouts.push_back({ v->id, text + said, v->level, from, to, wish });
    };
    const auto held = joints::engagement(r.studs);
    const double threadEnd = face + pad + orElse(held.inNut, 0.01) * 1000;
    call(checks::studs, QObject::tr("thread engagement"), { face + pad, half + 1 }, { threadEnd, half + 1 }, { face + pad + 8, 21 });
    call(checks::pilot, QObject::tr("pilot left"), { 0, -24 }, { 0, -24 }, { -14, -40 });
    call(checks::nutSeat, QObject::tr("seats"), { face + pad - 1, -half - 2 }, { face + pad - 1, -half - 2 }, { face + pad - 12, -14 });
    if (std::isfinite(r.stance.innerEdge)) {
        const double edge = zero + r.stance.outerEdge * 1000 / reduction;
        call(checks::wheelPlace, QObject::tr("moved"), { edge, 80 }, { edge, 80 }, { edge - 8, 99 });
        call(checks::fenderRoom, QObject::tr("fender"), { edge, 70 }, { edge + 3, 70 }, { edge - 4, 58 });
        const double inner = zero + r.stance.innerEdge * 1000 / reduction;
        call(checks::innerRoom, QObject::tr("strut"), { inner - 3, 76 }, { inner, 76 }, { inner - 18, 94 });
    }
    call(checks::nutBottom, QObject::tr("nut's bottom"), { stud, -half }, { stud, -half }, { stud + 12, -26 });
    call(checks::boltEnd, QObject::tr("bolt protrusion"), { 0, half }, { 0, half }, { -12, 21 });
    call(checks::washers, QObject::tr("washers say"), { ring + hat, 22 }, { ring + hat, 22 }, { ring + hat - 18, 58 });
    sheet.extent = QRectF(QPointF(-26, -44), QPointF(right + 232 * pixel, std::max(104.0, y)));
    return sheet;
}

} // namespace deepstop::app
