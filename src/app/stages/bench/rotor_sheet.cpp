#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_sheet.hpp"

#include <utility>

namespace deepstop::app {
namespace {

/// Cut through ring, neck, wall and disc; z to the right from the inboard friction face, radius upward (`up` −1) or downward (+1).
void addSection(Sheet& sheet, const fit::RotorShape& r, double x, double up, const Ink& ink, const QColor& paper)
{
    const auto box = [&](double z0, double z1, double r0, double r1, const Ink& with) {
        sheet.area(rectangle(x + z0 * 1000, up * r0 * 1000, x + z1 * 1000, up * r1 * 1000), with);
    };
    const double disc = r.overallHeight - r.hatThickness;
    box(r.thickness - r.hatWall, r.thickness, r.hatOuterRadius - r.hatWall, r.ringInnerRadius, ink);
    box(r.thickness - r.hatWall, disc, r.hatOuterRadius - r.hatWall, r.hatOuterRadius, ink);
    box(disc, r.overallHeight, r.boreRadius, r.hatOuterRadius, ink);
    if (r.ventGap > 0 && r.ventGap < r.thickness) {
        const double plate = (r.thickness - r.ventGap) / 2;
        box(plate, r.thickness - plate, r.ringInnerRadius + 3e-3, r.outerRadius - 3e-3,
            { ink.stroke, 0.8, Qt::SolidLine, paper, Hatch::None, {}, 0 });
        box(0, plate, r.ringInnerRadius, r.outerRadius, ink);
        box(r.thickness - plate, r.thickness, r.ringInnerRadius, r.outerRadius, ink);
    } else {
        box(0, r.thickness, r.ringInnerRadius, r.outerRadius, ink);
    }
}

/// One vane from the inner to the outer radius, leaning by `lean` against the radius all along.
QPolygonF vane(double inner, double outer, double start, double lean)
{
    QPolygonF line;
    for (int i = 0; i <= 8; ++i) {
        const double radius = inner + (outer - inner) * i / 8;
        const double angle = start + std::tan(lean) * std::log(radius / inner);
        line << QPointF(radius * std::cos(angle), radius * std::sin(angle));
    }
    return line;
}

void addFace(Sheet& sheet, const fit::RotorShape& shape, const Rotor& rotor, const Hub& hub)
{
    const Theme& t = theme();
    const double R = shape.outerRadius * 1000;
    const double inner = shape.ringInnerRadius * 1000;
    sheet.area(ring({}, R, inner), { t.proposal, 2, Qt::SolidLine, t.proposalWash, Hatch::None, {}, 0 });
    const double lean = rotor.vaneShape == VaneShape::Curved ? rotor.vaneLean.value.value_or(0.6) : 0;
    // Below, the near plate is taken off and the vanes are seen; above, the face as it is.
    if (shape.ventGap > 0 && rotor.vanes > 0)
        for (int i = 0; i < rotor.vanes; ++i) {
            const double start = 2 * std::numbers::pi * i / rotor.vanes;
            if (std::sin(start + std::tan(lean) * 0.25) < 0.12)
                continue;
            if (rotor.vaneShape == VaneShape::Pillars)
                sheet.area(circle({ (R + inner) / 2 * std::cos(start), (R + inner) / 2 * std::sin(start) },
                               rotor.vaneThickness.value.value_or(6e-3) * 500),
                    PartSheet::thin());
            else
                sheet.line(vane(inner + 1, R - 1, start, lean), { t.metal, 2.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        }
    for (int i = 0; i < 9 && rotor.face != RotorFace::Plain; ++i) {
        const double start = -std::numbers::pi + 0.12 + (std::numbers::pi - 0.3) * i / 8;
        if (rotor.face == RotorFace::Slotted) {
            sheet.line(vane(inner + 5, R - 5, start, 0.45), { t.ink, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        } else {
            for (int k = 1; k <= 3; ++k) {
                const double radius = inner + (R - inner) * k / 4;
                const double angle = start + 0.1 * k;
                if (std::sin(angle) < -0.05)
                    sheet.area(circle({ radius * std::cos(angle), radius * std::sin(angle) }, rotor.face == RotorFace::Drilled ? 3 : 2),
                        rotor.face == RotorFace::Drilled ? PartSheet::hole() : PartSheet::thin());
            }
        }
    }
    const double hat = shape.hatOuterRadius * 1000;
    if (hat < inner)
        sheet.area(ring({}, inner, hat), { t.metal, 1, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
    sheet.area(ring({}, hat, shape.boreRadius * 1000), PartSheet::plate());
    for (int i = 0; i < rotor.hatBolts && rotor.construction == RotorBuild::TwoPiece; ++i) {
        const double angle = 2 * std::numbers::pi * (i + 0.5) / rotor.hatBolts;
        sheet.area(circle(QPointF(std::cos(angle), std::sin(angle)) * (hat + inner) / 2, 4.5), PartSheet::plate());
    }
    const double bolts = rotor.boltCircle.value.value_or(hub.boltCircle.value.value_or(0)) * 500;
    const int holes = rotor.boltHoles > 0 ? rotor.boltHoles : hub.studCount;
    if (bolts > 0) {
        sheet.area(circle({}, bolts), { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        for (int i = 0; i < holes; ++i) {
            const double angle = 2 * std::numbers::pi * i / holes - std::numbers::pi / 2;
            sheet.area(circle(QPointF(std::cos(angle), std::sin(angle)) * bolts, rotor.boltHoleDiameter.value.value_or(0.0125) * 500),
                PartSheet::hole());
        }
    }
    // Which way it turns on the left side, forward being to the left.
    QPainterPath way;
    way.arcMoveTo(QRectF(-R - 11, -R - 11, 2 * R + 22, 2 * R + 22), 52);
    way.arcTo(QRectF(-R - 11, -R - 11, 2 * R + 22, 2 * R + 22), 52, 24);
    sheet.area(way, { t.mute, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    const QPointF tip = way.currentPosition();
    sheet.line(QPolygonF { tip + QPointF(10, -7), tip, tip + QPointF(11, 5) }, { t.mute, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
}

/// The rotor in face and section, part by part.
class RotorDrawing {
public:
    RotorDrawing(PartSheet p, const Study& study, Axle axle, Side side) : p_(std::move(p)), study_(study), axle_(axle), side_(side) { }

    Sheet drawn()
    {
        drawing();
        fields();
        faceFields();
        ofSide();
        return std::move(p_.sheet);
    }

private:
    /// The part and the one it replaces.
    void drawing()
    {
        addFace(sheet_, shape_, rotor_, hubOf(*study_.build, axle_));
        if (old_) {
            sheet_.area(circle({}, old_->outerRadius * 1000), PartSheet::ghost());
            sheet_.area(circle({}, old_->ringInnerRadius * 1000), PartSheet::ghost());
        }
        addSection(sheet_, shape_, x_, -1, PartSheet::cut(), t_.paper);
        // Below the axis the part it replaces, or the other half of the same.
        if (old_)
            addSection(sheet_, *old_, x_, 1, { t_.found, 1.4, Qt::DashLine, t_.metalWash, Hatch::Rising, t_.found, 7 }, t_.paper);
        else
            addSection(sheet_, shape_, x_, 1, PartSheet::cut(), t_.paper);
        if (old_)
            sheet_.letter({ x_ + 20 * u_, (old_->outerRadius * 1000) + 14 * u_ }, QObject::tr("as found"), 12, t_.found);
        p_.axisLine({ x_ - 30 * u_, 0 }, { R_ + 16 * u_, 0 });
        p_.axisLine({ 0, -R_ - 12 * u_ }, { 0, R_ + 12 * u_ });
    }

    /// Its section.
    void fields()
    {
        fact("name", QObject::tr("Name"));
        p_.leader("/rotor/outer_diameter_mm", { own_ * std::cos(-0.72), own_ * std::sin(-0.72) }, { own_ * 0.76 + 8 * u_, -own_ * 0.93 },
            {}, QStringLiteral("Ø "));
        p_.horizontal("/rotor/thickness_mm", x_, x_ + shape_.thickness * 1000, -own_, -own_ - 15 * u_, {});
        p_.leader("/rotor/minimum_thickness_mm", { x_ + shape_.thickness * 1000, -own_ + 6 * u_ }, { x_ + 92 * u_, -own_ - 2 * u_ },
            QObject::tr("at least"));
        p_.leader("/rotor/ring_inner_diameter_mm",
            { shape_.ringInnerRadius * 1000 * std::cos(-2.5), shape_.ringInnerRadius * 1000 * std::sin(-2.5) },
            { -own_ * 0.84, -own_ * 0.9 }, {}, QStringLiteral("Ø "));
        p_.horizontal("/rotor/overall_height_mm", x_, x_ + H_, shape_.hatOuterRadius * -1000, -shape_.hatOuterRadius * 1000 - 26 * u_,
            QObject::tr("overall"), {}, 1.5);
        p_.horizontal("/rotor/hat_thickness_mm", x_ + H_ - shape_.hatThickness * 1000, x_ + H_, -shape_.boreRadius * 1000,
            -shape_.boreRadius * 1000 + 13 * u_, QObject::tr("hat"), {}, 2.0);
        p_.vertical("/rotor/hat_outer_diameter_mm", -shape_.hatOuterRadius * 1000, 0, x_ + H_, x_ - 26 * u_, QObject::tr("hat"),
            QStringLiteral("Ø "), 0.42);
        p_.leader("/rotor/hat_wall_mm",
            { x_ + (shape_.thickness * 1000 + H_) / 2 - 3, -(shape_.hatOuterRadius - shape_.hatWall / 2) * 1000 },
            { x_ + 84 * u_, -shape_.hatOuterRadius * 1000 + 10 * u_ }, QObject::tr("wall"));
        p_.vertical(
            "/rotor/bore_mm", -shape_.boreRadius * 1000, 0, x_ + H_, x_ + H_ + 14 * u_, QObject::tr("bore"), QStringLiteral("Ø "), 0.0);
        p_.leader("/rotor/hat_pocket_diameter_mm",
            { x_ + H_ - shape_.hatThickness * 1000 - 2, -(shape_.hatOuterRadius - shape_.hatWall) * 1000 },
            { x_ + 78 * u_, -shape_.hatOuterRadius * 560 }, QObject::tr("pocket"), QStringLiteral("Ø "));
    }

    /// Its face, its making, its vanes.
    void faceFields()
    {
        const double bolts = rotor_.boltCircle.value.value_or(0.11) * 500;
        p_.leader("/rotor/bolt_circle_mm", { bolts * std::cos(0.35), bolts * std::sin(0.35) }, { shape_.hatOuterRadius * 480, 22 * u_ },
            QObject::tr("on Ø"));
        fact("bolt_holes", QObject::tr("Stud holes"));
        p_.leader("/rotor/bolt_hole_diameter_mm", { 0, -bolts }, { -22 * u_, -bolts - 1 * u_ }, QObject::tr("holes"), QStringLiteral("Ø "));
        p_.leader("/rotor/drum_diameter_mm",
            { -(shape_.hatOuterRadius - shape_.hatWall) * 1000 * std::cos(0.9),
                (shape_.hatOuterRadius - shape_.hatWall) * 1000 * std::sin(0.9) },
            { -own_ * 0.72, own_ * 0.93 }, QObject::tr("drum inside"), QStringLiteral("Ø "), false, true);
        fact("construction", QObject::tr("Construction"));
        fact("ring_material", QObject::tr("Friction ring of"));
        fact("hat_material", QObject::tr("Hat of"));
        if (rotor_.construction == RotorBuild::TwoPiece) {
            fact("hat_bolts", QObject::tr("Hat bolts"));
            fact("hat_bolt_thread", QObject::tr("Their thread"));
        }
        fact("face", QObject::tr("Face"));
        fact("handed", QObject::tr("Fits"));
        p_.horizontal("/rotor/vent_gap_mm", x_ + (shape_.thickness - shape_.ventGap) * 500, x_ + (shape_.thickness + shape_.ventGap) * 500,
            -(shape_.outerRadius + shape_.ringInnerRadius) * 500, -(shape_.outerRadius + shape_.ringInnerRadius) * 500, QObject::tr("vent"),
            {}, 3.2);
        if (rotor_.ventGap.value.value_or(1) > 0) {
            fact("vane_shape", QObject::tr("Vanes"));
            fact("vanes", QObject::tr("How many"));
            const double mean = (shape_.outerRadius + shape_.ringInnerRadius) * 500;
            p_.leader("/rotor/vane_thickness_mm", { mean * std::cos(0.5), mean * std::sin(0.5) }, { own_ * 0.94, own_ * 0.80 },
                QObject::tr("thick"));
            if (rotor_.vaneShape == VaneShape::Curved)
                p_.leader("/rotor/vane_lean_deg", { mean * std::cos(1.0), mean * std::sin(1.0) }, { own_ * 0.66, own_ * 1.03 },
                    QObject::tr("lean"), {}, true);
            p_.leader("/rotor/vane_share_percent", { mean * std::cos(1.9), mean * std::sin(1.9) }, { -own_ * 0.18, own_ * 1.04 },
                QObject::tr("of the vent is vanes"), {}, true, rotor_.vanes > 0 && rotor_.vaneThickness.value, QStringLiteral("–"));
        }
    }

    /// What is read on the car belongs to a side.
    void ofSide()
    {
        const std::string ofSide = side_ == Side::Left ? "/left" : "/right";
        const QString whose = side_ == Side::Left ? QObject::tr("left") : QObject::tr("right");
        p_.leader(ofSide + "/runout_mm", { x_, -own_ * 0.93 }, { x_ - 16 * u_, -own_ - 42 * u_ }, QObject::tr("runout, %1").arg(whose), {},
            false, true, QStringLiteral("–"));
        p_.leader(ofSide + "/thickness_variation_mm", { x_ + shape_.thickness * 500, -own_ * 0.80 }, { x_ + 70 * u_, -own_ - 42 * u_ },
            QObject::tr("variation, %1").arg(whose), {}, false, true, QStringLiteral("–"));
        p_.leader(ofSide + "/ring_thickness_mm", { x_ + shape_.thickness * 1000, -own_ * 0.66 }, { x_ + 78 * u_, -own_ * 0.72 },
            QObject::tr("worn, %1").arg(whose), {}, false, true, QStringLiteral("–"));
        p_.leader("/rotor/inboard_lip_mm", { x_, -shape_.ringInnerRadius * 1000 },
            { x_ - 30 * u_, -shape_.ringInnerRadius * 1000 + 16 * u_ }, QObject::tr("lip inboard"), {}, false, true, QStringLiteral("–"));
        if (rotor_.ringMaterial == RingMaterial::CarbonCeramic) {
            p_.leader("/rotor/minimum_mass_kg", { x_ + shape_.thickness * 500, -own_ * 0.5 }, { x_ + 78 * u_, -own_ * 0.5 },
                QObject::tr("least weight"), {}, true);
            p_.leader(ofSide + "/rotor_mass_kg", { x_ + shape_.thickness * 500, -own_ * 0.5 }, { x_ + 78 * u_, -own_ * 0.4 },
                QObject::tr("weighs, %1").arg(whose), {}, true, true, QStringLiteral("–"));
        }
        if (rotor_.construction == RotorBuild::TwoPiece)
            p_.leader("/rotor/ring_play_mm", { x_ + shape_.thickness * 1000, -shape_.ringInnerRadius * 1000 },
                { x_ + 78 * u_, -shape_.ringInnerRadius * 1000 - 4 * u_ }, QObject::tr("ring float"));
        sheet_.extent = QRectF(QPointF(x_ - 40 * u_, -R_ - 44 * u_), QPointF(facts_ + 128 * u_, R_ + 26 * u_));
    }

    void fact(const char* key, const QString& caption)
    {
        sheet_.fact(p_.corner + "/rotor/" + key, caption, { facts_, row_ }, 148);
        row_ += 35 * u_;
    }

    PartSheet p_;
    const Study& study_;
    const Axle axle_;
    const Side side_;
    const Theme& t_ = theme();
    Sheet& sheet_ = p_.sheet;
    const Rotor& rotor_ = p_.after.corner->rotor;
    const fit::RotorShape& shape_ = p_.after.drawn.rotor;
    const fit::RotorShape* old_ = p_.two && p_.before.corner ? &p_.before.drawn.rotor : nullptr;
    const double R_ = std::max(shape_.outerRadius, old_ ? old_->outerRadius : 0) * 1000;
    const double own_ = shape_.outerRadius * 1000;
    const double u_ = R_ / 165;
    const double x_ = -R_ - 150 * u_; // the section's inboard face
    const double H_ = shape_.overallHeight * 1000;
    const double facts_ = R_ + 44 * u_;
    double row_ = -R_ - 26 * u_;
};

} // namespace

Sheet rotorSheet(const Study& study, Axle axle, Side side)
{
    PartSheet p(study, axle, QObject::tr("rotor"));
    if (!p.after.corner)
        return p.sheet;
    return RotorDrawing(std::move(p), study, axle, side).drawn();
}

} // namespace deepstop::app
