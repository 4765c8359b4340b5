#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

/// Everything between hub and wheel along the axle, above the axis: shield's plate, ring, adapter ring, hat with its cap, spacer with its
/// own studs, the wheel's mounting pad. Millimetres, to scale; what is not read is dashed.
class StackDrawing {
public:
    StackDrawing(Sheet sheet, const Study& study, Axle axle) : sheet_(std::move(sheet)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        hub();
        behindHat();
        hat();
        spacer();
        wheel();
        studs();
        sheet_.line(QPolygonF { QPointF(-24, 0), QPointF(end_ + 12, 0) }, { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        dimensions();
        table();
        callouts();
        return std::move(sheet_);
    }

private:
    static double mm(const Reading& r, double otherwise) { return r.value.value_or(otherwise * 1e-3) * 1000; }
    static Qt::PenStyle said(const Reading& r) { return r.value ? Qt::SolidLine : Qt::DashLine; }
    /// A ring about the axle in section, above the axis.
    void ringOf(double z0, double z1, double r0, double r1, const Ink& ink) { sheet_.area(rectangle(z0, -r1, z1, -r0), ink); }

    void hub()
    {
        ringOf(-12, 0, 0, flange_, { t_.ink, 1.4, said(hub_.flangeDiameter), t_.metalWash, Hatch::Falling, t_.metal, 8 });
        ringOf(0, pilotHeight_, 0, pilot_, { t_.ink, 1.4, said(hub_.pilotHeight), t_.metalWash, Hatch::Falling, t_.metal, 8 });
        if (hub_.heldBy == WheelHeldBy::CentreLock)
            ringOf(0, mm(hub_.pinLength, 30), bolts_ * 0.8 - 5, bolts_ * 0.8 + 5,
                { t_.ink, 1.3, said(hub_.pinLength), t_.raised, Hatch::Rising, t_.ink, 6 });
    }

    void behindHat()
    {
        if (plate_ > 0)
            ringOf(0, plate_, pilot_ + 3, flange_ + 14, { t_.ink, 1.2, Qt::SolidLine, t_.lining, Hatch::None, {}, 0 });
        if (ring_ > 0)
            ringOf(plate_, plate_ + ring_, pilot_ + 1, flange_ - 2,
                { t_.proposal, 1.4, Qt::SolidLine, t_.proposalWash, Hatch::Rising, t_.proposal, 5 });
        const AdapterRing& a = corner_.adapter;
        if (a.inside.value || a.outside.value) {
            const double inside = mm(a.inside, 2 * pilot_) / 2;
            const double outside = mm(a.outside, 2 * bore_) / 2;
            const Ink ink { t_.proposal, 1.4, a.outside.value && a.inside.value ? Qt::SolidLine : Qt::DashLine, t_.proposalWash,
                Hatch::Dense, t_.proposal, 5 };
            ringOf(hat0_, hat0_ + hat_, inside, outside, ink);
            const double step = mm(a.step, 0);
            if (step > 0 && a.stepSide != Direction::Unknown)
                ringOf(a.stepSide == Direction::Inboard ? hat0_ - step : hat0_ + hat_,
                    a.stepSide == Direction::Inboard ? hat0_ : hat0_ + hat_ + step, inside, outside + 4, ink);
        }
    }

    void hat()
    {
        const double outer = orElse(r_.drawn.rotor.hatOuterRadius, 0.08) * 1000;
        const Ink ink { t_.proposal, 1.6, Qt::SolidLine, t_.proposalWash, Hatch::Falling, t_.proposal, 6 };
        ringOf(hat0_, hat0_ + hat_, bore_, outer, ink);
        const Rotor& rotor = corner_.rotor;
        if (rotor.capped != YesNo::Yes)
            return;
        const double depth = mm(rotor.capDepth, pilotHeight_ + 4);
        const double outside = mm(rotor.capDiameter, 2 * bore_ + 2) / 2;
        const double top = hat0_ + hat_ + mm(rotor.capHeight, depth - hat_ + 4);
        ringOf(hat0_ + depth, top, 0, outside, { t_.proposal, 1.4, said(rotor.capDepth), t_.proposalWash, Hatch::Falling, t_.proposal, 6 });
        ringOf(hat0_ + hat_, hat0_ + depth, bore_, outside,
            { t_.proposal, 1.4, said(rotor.capDiameter), t_.proposalWash, Hatch::Falling, t_.proposal, 6 });
    }

    void spacer()
    {
        if (spacer_ <= 0)
            return;
        ringOf(face_ - spacer_, face_, pilot_ + 1, bolts_ + 18, { t_.ink, 1.4, Qt::SolidLine, t_.raised, Hatch::Rising, t_.metal, 7 });
        const SpacerPart& part = corner_.spacerPart;
        if (part.kind != SpacerKind::Bolted)
            return;
        const double stud = bolts_ - 16;
        const double seat = mm(part.seat, spacer_ * 0.5);
        // The nut that holds it, in its pocket; the spacer's own stud stands elsewhere on the circle.
        ringOf(face_ - spacer_ + seat, face_ - spacer_ + seat + mm(part.nutThread, 10), bolts_ - 9, bolts_ + 9,
            { t_.ink, 1.3, said(part.nutThread), t_.paper, Hatch::None, {}, 0 });
        ringOf(face_ - 8, face_ + mm(part.studLength, 30), stud - half_, stud + half_,
            { t_.ink, 1.3, said(part.studLength), t_.paper, Hatch::None, {}, 0 });
    }

    void wheel()
    {
        const double bore = mm(wheel_.bore, 2 * pilot_) / 2;
        ringOf(
            face_, face_ + pad_, bore, bolts_ + 20, { t_.ink, 1.5, said(wheel_.padThickness), t_.metalWash, Hatch::Falling, t_.metal, 8 });
        if (const double pocket = mm(wheel_.backPocket, 0); pocket > 0)
            ringOf(face_, face_ + pocket, bolts_ - half_ - 3, bolts_ + half_ + 3,
                { t_.ink, 1.2, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
    }

    void studs()
    {
        if (hub_.heldBy == WheelHeldBy::Bolts)
            return;
        const bool centre = hub_.heldBy == WheelHeldBy::CentreLock || hub_.heldBy == WheelHeldBy::KnockOff;
        const double at = centre ? pilot_ * 0.5 : bolts_;
        const double half = centre ? pilot_ * 0.4 : half_;
        ringOf(-12, stud_, at - half, at + half, { t_.ink, 1.4, said(hub_.studLength), t_.paper, Hatch::None, {}, 0 });
    }

    void dimensions()
    {
        const auto along = [&](const std::string& key, double z0, double z1, double r, double row, const QString& caption,
                               bool mayLack = false) {
            sheet_.dimensions.push_back({ key, {}, { z0, -r }, { z1, -r }, Run::Horizontal, row, false, caption, 0.5, mayLack });
        };
        const double top = -(std::max({ flange_ + 14, bolts_ + 20, orElse(r_.drawn.rotor.hatOuterRadius, 0.08) * 1000 }) + 8);
        along(hubAt_ + "/stud_length_mm", 0, stud_, bolts_, top - 26, QObject::tr("stud"));
        along(hubAt_ + "/pilot_height_mm", 0, pilotHeight_, pilot_, 12, QObject::tr("pilot"));
        along(at_ + "/ring_mm", plate_, plate_ + ring_, flange_, top, QObject::tr("ring"), true);
        along(at_ + (drums_ ? "/drum/face_thickness_mm" : "/rotor/hat_thickness_mm"), hat0_, hat0_ + hat_, flange_, top - 13,
            drums_ ? QObject::tr("drum") : QObject::tr("hat"));
        along(at_ + "/spacer_mm", face_ - spacer_, face_, flange_, top, QObject::tr("spacer"), true);
        along(wheelAt_ + "/pad_thickness_mm", face_, face_ + pad_, flange_, top - 13, QObject::tr("mounting pad"));
        top_ = top - 38;
    }

    void table()
    {
        right_ = end_ + 22;
        pixel_ = std::max((right_ + 26) / (756 - 380), (-top_ + 24) / 508);
        y_ = top_ + 14 * pixel_;
        x_ = right_;
        const auto heading = [&](const QString& text) {
            sheet_.letter({ x_, y_ }, text, 14, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            y_ += 24 * pixel_;
        };
        const auto cell = [&](const std::string& key, const QString& caption, bool mayLack = false, bool unit = false) {
            sheet_.letter({ x_, y_ }, caption, 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet_.dimensions.push_back({ key, {}, {}, { x_ + 112 * pixel_, y_ }, Run::Table, 0, unit, {}, 0.5, mayLack });
            y_ += 25.5 * pixel_;
        };
        const auto fact = [&](const std::string& key, const QString& caption, double wide = 168) {
            sheet_.fact(key, caption, { x_, y_ - 10 * pixel_ }, wide);
            y_ += 41 * pixel_;
        };
        const double first = y_;
        if (!drums_) {
            heading(QObject::tr("Adapter ring on the pilot"));
            fact(at_ + "/adapter_ring/sits", QObject::tr("It sits"));
            cell(at_ + "/adapter_ring/inside_mm", QObject::tr("inside Ø"), true);
            cell(at_ + "/adapter_ring/outside_mm", QObject::tr("outside Ø"), true);
            cell(at_ + "/adapter_ring/step_mm", QObject::tr("collar"), true);
            fact(at_ + "/adapter_ring/step_side", QObject::tr("Collar on the hat's side"));
            heading(QObject::tr("Rotor's bore"));
            fact(at_ + "/rotor/capped", QObject::tr("Closed by a cap"));
            if (corner_.rotor.capped == YesNo::Yes) {
                cell(at_ + "/rotor/cap_depth_mm", QObject::tr("depth inside"));
                cell(at_ + "/rotor/cap_diameter_mm", QObject::tr("outside Ø"));
                cell(at_ + "/rotor/cap_height_mm", QObject::tr("over the hat"));
            }
        }
        y_ = first;
        x_ = right_ + 206 * pixel_;
        heading(QObject::tr("Wheel spacer"));
        fact(at_ + "/spacer_part/kind", QObject::tr("The spacer is"));
        if (corner_.spacerPart.kind == SpacerKind::Bolted) {
            cell(at_ + "/spacer_part/seat_mm", QObject::tr("under its nuts"));
            cell(at_ + "/spacer_part/nut_thread_mm", QObject::tr("thread of its nuts"));
            cell(at_ + "/spacer_part/torque_nm", QObject::tr("their torque"), false, true);
            cell(at_ + "/spacer_part/stud_length_mm", QObject::tr("its own studs"));
            fact(at_ + "/spacer_part/stud_thread", QObject::tr("Their thread"));
            cell(wheelAt_ + "/back_pocket_mm", QObject::tr("wheel's recesses"), true);
        }
        heading(QObject::tr("Wheel held by"));
        fact(hubAt_ + "/wheel_held_by", QString());
        if (hub_.heldBy == WheelHeldBy::CentreLock)
            cell(hubAt_ + "/pin_length_mm", QObject::tr("drive pins"));
        if (hub_.heldBy == WheelHeldBy::CentreLock || hub_.heldBy == WheelHeldBy::KnockOff)
            fact(hubAt_ + "/nut_locked", QObject::tr("Pin, clip or wire keeps the nut"));
        sheet_.extent = QRectF(QPointF(-26, top_), QPointF(right_ + 376 * pixel_, std::max(24.0, y_)));
    }

    void callouts()
    {
        const auto call = [&](const Check& check, const QString& text, QPointF at, QPointF wish) {
            if (const Verdict* v = study_.verdict(check, { axle_ })) {
                const auto said = v->figure.value && v->style.dimension == Dimension::Length
                    ? QStringLiteral(" ") + QString::fromStdString(figure(*v->figure.value, v->style, study_.system))
                    : QString();
                sheet_.callouts.push_back({ v->id, text + said, v->level, at, at, wish });
            }
        };
        call(checks::bore, QObject::tr("bore"), { hat0_ + hat_ / 2, -bore_ }, { -20, -bore_ - 4 });
        call(checks::adapterRing, QObject::tr("adapter ring"), { hat0_ + hat_ / 2, -pilot_ - 1 }, { -20, -pilot_ + 10 });
        call(checks::cap, QObject::tr("under the cap"), { pilotHeight_, -pilot_ * 0.4 }, { pilotHeight_ + 8, -pilot_ * 0.4 });
        call(checks::pilot, QObject::tr("pilot left"), { std::min(face_, pilotHeight_), -pilot_ }, { face_ + pad_ * 0.5, -pilot_ + 16 });
        call(checks::studs, QObject::tr("thread"), { face_ + pad_, -bolts_ }, { face_ + pad_ + 8, -bolts_ - 12 });
        call(checks::proudStuds, QObject::tr("hub's studs"), { stud_, -bolts_ }, { face_ + pad_ + 4, -bolts_ + 12 });
        call(checks::spacerNuts, QObject::tr("spacer's nuts"), { face_ - spacer_ / 2, -bolts_ }, { -22, -bolts_ - 8 });
        call(checks::drivePins, QObject::tr("drive pins"), { face_, -bolts_ * 0.8 }, { face_ + pad_ + 6, -bolts_ * 0.8 });
        call(checks::shieldPlate, QObject::tr("shield's plate"), { plate_ / 2, -flange_ - 8 }, { -22, -flange_ - 14 });
    }

    Sheet sheet_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    const CornerClearance& r_ = study_.of<Clearance>().after.at(axle_).left;
    const Hub& hub_ = hubOf(*study_.build, axle_);
    const Corner& corner_ = *r_.corner;
    const Wheel& wheel_ = *r_.wheel;
    const std::string hubAt_ = axle_ == Axle::Front ? "/front_hub" : "/rear_hub";
    const std::string at_ = cornerPointer(study_, study_.after, axle_);
    const std::string wheelAt_ = "/wheels/" + std::to_string(r_.wheel - study_.build->wheels.data());
    const bool drums_ = corner_.brakes == BrakeKind::Drums;
    // Millimetres from the flange's face, and from the axis.
    const double flange_ = orElse(r_.drawn.hub.flangeRadius, 0.07) * 1000;
    const double pilot_ = orElse(r_.drawn.hub.pilotRadius, 0.033) * 1000;
    const double pilotHeight_ = orElse(r_.drawn.hub.pilotHeight, 0.012) * 1000;
    const bool plateThere_ = corner_.shield.lies == PlateLies::FlangeAndRotor && corner_.shield.state != ShieldState::Removed;
    const double plate_ = plateThere_ ? mm(corner_.shield.plate, 0) : 0;
    const double ring_ = mm(corner_.ring, 0);
    const double hat0_ = plate_ + ring_;
    const double hat_ = drums_ ? mm(corner_.drum.faceThickness, 6) : orElse(r_.drawn.rotor.hatThickness, 0.007) * 1000;
    const double spacer_ = mm(corner_.spacer, 0);
    const double face_ = hat0_ + hat_ + spacer_;
    const double pad_ = orElse(r_.studs.pad, 0.012) * 1000;
    const double stud_ = mm(hub_.studLength, 40);
    const double bolts_ = mm(hub_.boltCircle, 112) / 2;
    const double half_ = mm(hub_.studDiameter, 12) / 2;
    const double bore_ = orElse(r_.drawn.rotor.boreRadius, pilot_ / 1000) * 1000;
    const double end_ = std::max(stud_, face_ + pad_) + 14;
    double top_ = 0;
    double right_ = 0;
    double pixel_ = 1;
    double x_ = 0;
    double y_ = 0;
};

} // namespace

Sheet stackSheet(const Study& study, Axle axle)
{
    Sheet sheet;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    sheet.title =
        axle == Axle::Front ? QObject::tr("Between the front hub and the wheel") : QObject::tr("Between the rear hub and the wheel");
    if (!r.corner || !r.wheel) {
        sheet.subtitle = QObject::tr("no wheel chosen");
        return sheet;
    }
    sheet.subtitle = QObject::tr("%1 · in section above the axis, outboard to the right · dashed: not read").arg(unitNote(study));
    return StackDrawing(std::move(sheet), study, axle).drawn();
}

} // namespace deepstop::app
