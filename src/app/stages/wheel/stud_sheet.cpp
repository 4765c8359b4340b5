#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "stages/bench/part_sheet.hpp"
#include "joints/studs.hpp"

#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

/// The stance under the studs is drawn so many times smaller.
constexpr double reduction = 4;

/// Tyre and rim from behind, as a block between its edges; y down from the top of the block.
QPainterPath tyre(const fit::Stance& stance, double zero, double y0, double y1)
{
    QPainterPath path;
    path.addRoundedRect(
        QRectF(QPointF(zero + stance.innerEdge * 1000 / reduction, y0), QPointF(zero + stance.outerEdge * 1000 / reduction, y1)), 2.4, 2.4);
    return path;
}

/// The sheet of studs and stance, part by part.
class StudDrawing {
public:
    StudDrawing(Sheet sheet, const Study& study, Axle axle) : sheet_(std::move(sheet)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        plates();
        stud();
        lengths();
        table();
        stance();
        callouts();
        return std::move(sheet_);
    }

private:
    /// Flange, rotor or drum, spacer and wheel, cut along the stud.
    void plates()
    {
        const QString cut = hub_.heldBy == WheelHeldBy::Bolts ? QObject::tr("one wheel bolt cut along its middle")
                                                              : QObject::tr("one stud cut along its middle");
        sheet_.subtitle =
            QObject::tr("%1 · %2 · below: seen from behind, %3 times smaller, dashed as found").arg(unitNote(study_), cut).arg(reduction);
        const auto plate = [&](double x0, double x1, double hole, double high, const Ink& ink) {
            if (x1 - x0 <= 0)
                return;
            sheet_.area(rectangle(x0, -high, x1, -hole), ink);
            sheet_.area(rectangle(x0, hole, x1, high), ink);
        };
        const double hole = half_ + 0.6;
        plate(-10, 0, half_, 24, { t_.ink, 1.4, Qt::SolidLine, t_.metalWash, Hatch::Falling, t_.metal, 8 });
        plate(0, ring_, hole, 21, { t_.ink, 1.2, Qt::SolidLine, t_.lining, Hatch::Dense, t_.ink, 6 });
        plate(ring_, ring_ + hat_, hole, 24,
            { t_.proposal, 1.6, styleOf(corner_.rotor.hatThickness), t_.proposalWash, Hatch::Falling, t_.proposal, 7 });
        plate(ring_ + hat_, face_, hole, 21, { t_.ink, 1.2, Qt::SolidLine, t_.lining, Hatch::Dense, t_.ink, 6 });
        plate(face_, face_ + pad_, hole + 0.4, 24,
            { t_.ink, 1.4, styleOf(r_.wheel->padThickness), t_.metalWash, Hatch::Rising, t_.metal, 8 });
    }

    /// A wheel bolt: its head with the seat, its end in the hub.
    void stud()
    {
        if (hub_.heldBy == WheelHeldBy::Bolts) {
            const Ink bolt { t_.ink, 1.4, styleOf(hub_.wheelBoltLength), t_.raised, Hatch::Rising, t_.ink, 6 };
            for (const double up : { -1.0, 1.0 })
                sheet_.area(rectangle(-10, std::min(up * half_, up * 24), 0, std::max(up * half_, up * 24)),
                    { t_.ink, 1.4, Qt::SolidLine, t_.metalWash, Hatch::Falling, t_.metal, 8 });
            sheet_.area(rectangle(boltEnd_, -half_, face_ + pad_, half_), bolt);
            QPainterPath head;
            head.addPolygon(
                QPolygonF { QPointF(face_ + pad_, -half_), QPointF(face_ + pad_ + 5, -half_ - 5), QPointF(face_ + pad_ + 16, -half_ - 5),
                    QPointF(face_ + pad_ + 16, half_ + 5), QPointF(face_ + pad_ + 5, half_ + 5), QPointF(face_ + pad_, half_) });
            head.closeSubpath();
            sheet_.area(head, bolt);
        } else
            drawStud();
        sheet_.line(QPolygonF { QPointF(-20, 0), QPointF(std::max(stud_, face_ + pad_ + nut_) + 8, 0) },
            { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        // The thread that holds, where it is.
        if (const auto held = joints::engagement(r_.studs);
            hub_.heldBy != WheelHeldBy::Bolts && std::isfinite(held.inNut) && held.inNut > 0)
            sheet_.area(rectangle(face_ + pad_, -half_, face_ + pad_ + held.inNut * 1000, half_),
                { t_.good, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }

    /// Dimensions along the stud.
    void lengths()
    {
        const auto horizontal = [&](const std::string& key, double x0, double x1, double y, double row, const QString& caption,
                                    bool mayLack = false, double along = 0.5) {
            sheet_.dimensions.push_back({ key, {}, { x0, y }, { x1, y }, Run::Horizontal, row, false, caption, along, mayLack });
        };
        horizontal(at_ + "/ring_mm", 0, ring_, 21, 46, QObject::tr("ring"), true, 0.2);
        horizontal(at_ + (drums_ ? "/drum/face_thickness_mm" : "/rotor/hat_thickness_mm"), ring_, ring_ + hat_, 24, 33,
            drums_ ? QObject::tr("drum") : QObject::tr("hat"));
        horizontal(at_ + "/spacer_mm", ring_ + hat_, face_, 21, 46, QObject::tr("spacer"), true, 0.9);
        horizontal(wheelAt_ + "/pad_thickness_mm", face_, face_ + pad_, 24, 33, QObject::tr("mounting pad"), false, 1.2);
        if (hub_.heldBy == WheelHeldBy::Bolts) {
            horizontal(hubAt_ + "/wheel_bolt_length_mm", boltEnd_, face_ + pad_, -24, -34, QObject::tr("bolt under its seat"));
        } else {
            horizontal(hubAt_ + "/nut_thread_mm", face_ + pad_, face_ + pad_ + nut_, -half_ - 5, -24, QObject::tr("thread in the nut"),
                false, 0.7);
            horizontal(hubAt_ + "/stud_length_mm", 0, stud_, -24, -34, QObject::tr("stud"));
        }
        sheet_.handles.push_back({ at_ + "/spacer_mm", { face_, 24 }, { 1, 0 }, 1e-3, 0.5e-3, Known::Vendor });
    }

    void table()
    {
        const auto cell = [&](const std::string& key, const QString& caption, bool mayLack = false) {
            sheet_.letter({ right_, y_ }, caption, 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet_.dimensions.push_back({ key, {}, { 0, 0 }, { right_ + 158 * pixel_, y_ }, Run::Table, 0, false, {}, 0.5, mayLack });
            y_ += 25.5 * pixel_;
        };
        const bool bolts = hub_.heldBy == WheelHeldBy::Bolts;
        cell(hubAt_ + "/pilot_height_mm", QObject::tr("Pilot's height"));
        cell(hubAt_ + "/pilot_chamfer_mm", QObject::tr("Its chamfer"));
        cell(hubAt_ + "/pilot_diameter_mm", QObject::tr("Pilot's diameter"));
        cell(wheelAt_ + "/bore_mm", QObject::tr("Wheel's bore"));
        cell(wheelAt_ + "/bore_chamfer_mm", QObject::tr("Its chamfer"));
        cell(wheelAt_ + "/offset_mm", QObject::tr("Wheel's offset"));
        cell(axle_ == Axle::Front ? "/car/front_track_mm" : "/car/rear_track_mm", QObject::tr("Track as found"), true);
        cell(hubAt_ + "/scrub_radius_mm", QObject::tr("Scrub radius as found"), true);
        cell(hubAt_ + "/fender_room_mm", QObject::tr("Tyre to fender as found"), true);
        cell(hubAt_ + "/inner_room_mm", QObject::tr("Tyre to strut as found"), true);
        cell(at_ + "/washers_mm", QObject::tr("Washers that freed the wheel"), true);
        y_ += 4 * pixel_;
        sheet_.fact(at_ + "/washers_gave", QObject::tr("With them the wheel"), { right_, y_ }, 138);
        sheet_.fact(at_ + "/spacer_in_trial", QObject::tr("Spacer in"), { right_ + 144 * pixel_, y_ }, 88);
        y_ += 42 * pixel_;
        sheet_.fact(hubAt_ + "/wheel_held_by", QObject::tr("Wheel held by"), { right_, y_ }, 104);
        sheet_.fact(hubAt_ + "/stud_thread", bolts ? QObject::tr("Bolts' thread") : QObject::tr("Studs' thread"),
            { right_ + 110 * pixel_, y_ }, 104);
        y_ += 42 * pixel_;
        sheet_.fact(hubAt_ + "/nut_seat", bolts ? QObject::tr("Bolts' seat") : QObject::tr("Nuts' seat"), { right_, y_ }, 104);
        sheet_.fact(wheelAt_ + "/nut_seat", QObject::tr("Wheel's seat"), { right_ + 110 * pixel_, y_ }, 104);
        y_ += 48 * pixel_;
        // A seat's own size, side by side with the wheel's.
        if (hub_.nutSeat == NutSeat::Cone || hub_.nutSeat == NutSeat::Ball) {
            const std::string key = hub_.nutSeat == NutSeat::Cone ? "/seat_angle_deg" : "/seat_radius_mm";
            sheet_.letter({ right_, y_ },
                hub_.nutSeat == NutSeat::Cone ? QObject::tr("Cone: its, wheel's") : QObject::tr("Ball: its, wheel's"), 12, t_.mute,
                Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet_.dimensions.push_back({ hubAt_ + key, {}, {}, { right_ + 128 * pixel_, y_ }, Run::Table, 0, false, {}, 0.5 });
            sheet_.dimensions.push_back({ wheelAt_ + key, {}, {}, { right_ + 184 * pixel_, y_ }, Run::Table, 0, false, {}, 0.5 });
            y_ += 25.5 * pixel_;
        }
        if (bolts) {
            cell(hubAt_ + "/hub_thread_mm", QObject::tr("Thread in the hub"));
            cell(hubAt_ + "/behind_flange_mm", QObject::tr("Clear behind it"));
        } else {
            sheet_.fact(hubAt_ + "/nut_end", QObject::tr("Nuts are"), { right_, y_ - 6 * pixel_ }, 104);
            if (hub_.nutEnd == NutEnd::Closed)
                sheet_.dimensions.push_back({ hubAt_ + "/nut_depth_mm", {}, {}, { right_ + 116 * pixel_, y_ + 12 * pixel_ }, Run::Table, 0,
                    false, QObject::tr("deep"), 0.5 });
            y_ += 42 * pixel_;
        }
    }

    /// Stance: the tyre's block between strut and fender, before and after.
    void stance()
    {
        const double ground = 92;
        if (std::isfinite(r_.stance.innerEdge)) {
            const double y0 = 66;
            if (before_.corner && std::isfinite(before_.stance.innerEdge) && study_.before.setup != study_.after.setup)
                sheet_.area(tyre(before_.stance, zero_, y0 - 2, ground + 2), { t_.found, 1.4, Qt::DashLine, {}, Hatch::None, {}, 0 });
            sheet_.area(tyre(r_.stance, zero_, y0, ground), { t_.ink, 1.6, Qt::SolidLine, t_.metalWash, Hatch::None, {}, 0 });
            const double middle = zero_ + r_.stance.middle() * 1000 / reduction;
            sheet_.line(
                QPolygonF { QPointF(middle, y0 - 6), QPointF(middle, ground + 6) }, { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
            sheet_.line(QPolygonF { QPointF(zero_, y0 - 4), QPointF(zero_, ground + 4) },
                { t_.proposal, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet_.letter({ zero_, ground + 8 }, QObject::tr("hub face"), 11, t_.proposal, Qt::AlignCenter, false);
            sheet_.letter({ middle - 2, y0 - 9 }, QObject::tr("tyre's middle"), 11, t_.mute, Qt::AlignRight | Qt::AlignVCenter, false);
            const fit::Stance& found = before_.corner && std::isfinite(before_.stance.innerEdge) ? before_.stance : r_.stance;
            // Their callouts name them.
            const auto wall = [&](const Reading& room, double edge, double way) {
                if (!room.value)
                    return;
                const double x = zero_ + (edge + way * *room.value) * 1000 / reduction;
                sheet_.area(
                    rectangle(x, y0 - 8, x + way * 3, ground - 6), { t_.ink, 1.2, Qt::SolidLine, t_.metalWash, Hatch::Dense, t_.metal, 6 });
            };
            wall(hub_.fenderRoom, found.outerEdge, 1);
            wall(hub_.innerRoom, found.innerEdge, -1);
        }
    }

    /// Verdicts, where they are seen.
    void callouts()
    {
        const auto call = [&](const Check& check, const QString& text, QPointF from, QPointF to, QPointF wish) {
            const Verdict* v = study_.verdict(check, { axle_ });
            if (!v)
                return;
            const auto said = v->figure.value && v->style.dimension == Dimension::Length
                ? QStringLiteral(" ") + QString::fromStdString(figure(*v->figure.value, v->style, study_.system))
                : QString();
            sheet_.callouts.push_back({ v->id, text + said, v->level, from, to, wish });
        };
        const auto held = joints::engagement(r_.studs);
        const double threadEnd = face_ + pad_ + orElse(held.inNut, 0.01) * 1000;
        call(checks::studs, QObject::tr("thread engagement"), { face_ + pad_, half_ + 1 }, { threadEnd, half_ + 1 },
            { face_ + pad_ + 8, 21 });
        call(checks::pilot, QObject::tr("pilot left"), { 0, -24 }, { 0, -24 }, { -14, -40 });
        call(checks::nutSeat, QObject::tr("seats"), { face_ + pad_ - 1, -half_ - 2 }, { face_ + pad_ - 1, -half_ - 2 },
            { face_ + pad_ - 12, -14 });
        if (std::isfinite(r_.stance.innerEdge)) {
            const double edge = zero_ + r_.stance.outerEdge * 1000 / reduction;
            call(checks::wheelPlace, QObject::tr("moved"), { edge, 80 }, { edge, 80 }, { edge - 8, 99 });
            call(checks::fenderRoom, QObject::tr("fender"), { edge, 70 }, { edge + 3, 70 }, { edge - 4, 58 });
            const double inner = zero_ + r_.stance.innerEdge * 1000 / reduction;
            call(checks::innerRoom, QObject::tr("strut"), { inner - 3, 76 }, { inner, 76 }, { inner - 18, 94 });
        }
        call(checks::nutBottom, QObject::tr("nut's bottom"), { stud_, -half_ }, { stud_, -half_ }, { stud_ + 12, -26 });
        call(checks::boltEnd, QObject::tr("bolt protrusion"), { 0, half_ }, { 0, half_ }, { -12, 21 });
        call(checks::washers, QObject::tr("washers say"), { ring_ + hat_, 22 }, { ring_ + hat_, 22 }, { ring_ + hat_ - 18, 58 });
        sheet_.extent = QRectF(QPointF(-26, -44), QPointF(right_ + 232 * pixel_, std::max(104.0, y_)));
    }

    Qt::PenStyle styleOf(const Reading& reading) { return reading.value ? Qt::SolidLine : Qt::DashLine; }

    /// The nut with its seat, then the stud, its thread to the tip.
    void drawStud()
    {
        const Ink steel { t_.ink, 1.4, styleOf(hub_.nutThread), t_.raised, Hatch::Rising, t_.ink, 6 };
        for (const double up : { -1.0, 1.0 }) {
            QPainterPath body;
            body.addPolygon(QPolygonF { QPointF(face_ + pad_, up * half_), QPointF(face_ + pad_ - 3, up * (half_ + 1)),
                QPointF(face_ + pad_ + 2, up * (half_ + 5)), QPointF(face_ + pad_ + nut_, up * (half_ + 5)),
                QPointF(face_ + pad_ + nut_, up * half_) });
            body.closeSubpath();
            sheet_.area(body, steel);
        }
        QPainterPath shank;
        shank.addPolygon(QPolygonF { QPointF(-16, -half_), QPointF(stud_ - pitch_, -half_), QPointF(stud_, -half_ + pitch_),
            QPointF(stud_, half_ - pitch_), QPointF(stud_ - pitch_, half_), QPointF(-16, half_) });
        shank.closeSubpath();
        sheet_.area(shank, { t_.ink, 1.5, styleOf(hub_.studLength), t_.paper, Hatch::None, {}, 0 });
        for (double x = std::max(4.0, face_ * 0.5); x < stud_ - pitch_ && pitch_ > 0.3; x += pitch_)
            sheet_.line(QPolygonF { QPointF(x, -half_ + 0.2), QPointF(x + pitch_ / 2, half_ - 0.2) },
                { t_.metal, 0.8, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }

    Sheet sheet_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    const CornerClearance& r_ = study_.of<Clearance>().after.at(axle_).left;
    const CornerClearance& before_ = study_.of<Clearance>().before.at(axle_).left;
    const Hub& hub_ = hubOf(*study_.build, axle_);
    const Corner& corner_ = *r_.corner;
    const std::string hubAt_ = axle_ == Axle::Front ? "/front_hub" : "/rear_hub";
    const std::string at_ = cornerPointer(study_, study_.after, axle_);
    const std::string wheelAt_ = "/wheels/" + std::to_string(r_.wheel - study_.build->wheels.data());
    // Stations along the stud, all in millimetres from the flange; what is not measured yet is drawn by proportion, dashed.
    const double ring_ = r_.drawn.ring * 1000;
    const bool drums_ = corner_.brakes == BrakeKind::Drums;
    const double hat_ = drums_ ? corner_.drum.faceThickness.value.value_or(6e-3) * 1000 : r_.drawn.rotor.hatThickness * 1000;
    const double spacer_ = r_.drawn.spacer * 1000;
    const double face_ = ring_ + hat_ + spacer_;
    const double pad_ = orElse(r_.studs.pad, 0.012) * 1000;
    const double nut_ = orElse(r_.studs.nutThread, 0.016) * 1000;
    const double stud_ = orElse(r_.studs.length, 0.04) * 1000;
    const double diameter_ = orElse(r_.studs.diameter, 0.012) * 1000;
    const double pitch_ = orElse(r_.studs.pitch, 1.5e-3) * 1000;
    const double half_ = diameter_ / 2;
    // A wheel bolt: its head with the seat, its end in the hub.
    const double boltEnd_ = face_ + pad_ - orElse(hub_.wheelBoltLength.value.value_or(NAN), 0.028) * 1000;
    // Readings about the hub and the wheel's place, at the right.
    const double right_ = std::max(stud_, face_ + pad_ + nut_) + 38;
    const double pixel_ = std::max((right_ + 26) / (756 - 236), 150.0 / 508);
    double y_ = -36;
    const double zero_ = 46; // where the flange face lies on the small picture
};

} // namespace

Sheet studSheet(const Study& study, Axle axle)
{
    Sheet sheet;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    sheet.title = axle == Axle::Front ? QObject::tr("Wheel fixing and position, front") : QObject::tr("Wheel fixing and position, rear");
    if (!r.corner || !r.wheel) {
        sheet.subtitle = QObject::tr("no wheel chosen");
        return sheet;
    }
    return StudDrawing(std::move(sheet), study, axle).drawn();
}

} // namespace deepstop::app
