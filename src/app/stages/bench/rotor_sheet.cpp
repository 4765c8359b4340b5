#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_sheet.hpp"

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

} // namespace

Sheet rotorSheet(const Study& study, Axle axle, Side side)
{
    PartSheet p(study, axle, QObject::tr("rotor"));
    if (!p.after.corner)
        return p.sheet;
    const Theme& t = theme();
    Sheet& sheet = p.sheet;
    const Rotor& rotor = p.after.corner->rotor;
    const fit::RotorShape& shape = p.after.drawn.rotor;
    const fit::RotorShape* old = p.two && p.before.corner ? &p.before.drawn.rotor : nullptr;
    const double R = std::max(shape.outerRadius, old ? old->outerRadius : 0) * 1000;
    const double own = shape.outerRadius * 1000;
    const double u = R / 165;
    const double x = -R - 150 * u; // the section's inboard face
    const double H = shape.overallHeight * 1000;

    addFace(sheet, shape, rotor, hubOf(*study.build, axle));
    if (old) {
        sheet.area(circle({}, old->outerRadius * 1000), PartSheet::ghost());
        sheet.area(circle({}, old->ringInnerRadius * 1000), PartSheet::ghost());
    }
    addSection(sheet, shape, x, -1, PartSheet::cut(), t.paper);
    // Below the axis the part it replaces, or the other half of the same.
    if (old)
        addSection(sheet, *old, x, 1, { t.found, 1.4, Qt::DashLine, t.metalWash, Hatch::Rising, t.found, 7 }, t.paper);
    else
        addSection(sheet, shape, x, 1, PartSheet::cut(), t.paper);
    if (old)
        sheet.letter({ x + 20 * u, (old->outerRadius * 1000) + 14 * u }, QObject::tr("as found"), 12, t.found);
    p.axisLine({ x - 30 * u, 0 }, { R + 16 * u, 0 });
    p.axisLine({ 0, -R - 12 * u }, { 0, R + 12 * u });

    const double facts = R + 44 * u;
    double row = -R - 26 * u;
    const auto fact = [&](const char* key, const QString& caption) {
        sheet.fact(p.corner + "/rotor/" + key, caption, { facts, row }, 148);
        row += 35 * u;
    };
    fact("name", QObject::tr("Name"));
    p.leader("/rotor/outer_diameter_mm", { own * std::cos(-0.72), own * std::sin(-0.72) }, { own * 0.76 + 8 * u, -own * 0.93 }, {},
        QStringLiteral("Ø "));
    p.horizontal("/rotor/thickness_mm", x, x + shape.thickness * 1000, -own, -own - 15 * u, {});
    p.leader(
        "/rotor/minimum_thickness_mm", { x + shape.thickness * 1000, -own + 6 * u }, { x + 92 * u, -own - 2 * u }, QObject::tr("at least"));
    p.leader("/rotor/ring_inner_diameter_mm",
        { shape.ringInnerRadius * 1000 * std::cos(-2.5), shape.ringInnerRadius * 1000 * std::sin(-2.5) }, { -own * 0.84, -own * 0.9 }, {},
        QStringLiteral("Ø "));
    p.horizontal("/rotor/overall_height_mm", x, x + H, shape.hatOuterRadius * -1000, -shape.hatOuterRadius * 1000 - 26 * u,
        QObject::tr("overall"), {}, 1.5);
    p.horizontal("/rotor/hat_thickness_mm", x + H - shape.hatThickness * 1000, x + H, -shape.boreRadius * 1000,
        -shape.boreRadius * 1000 + 13 * u, QObject::tr("hat"), {}, 2.0);
    p.vertical(
        "/rotor/hat_outer_diameter_mm", -shape.hatOuterRadius * 1000, 0, x + H, x - 26 * u, QObject::tr("hat"), QStringLiteral("Ø "), 0.42);
    p.leader("/rotor/hat_wall_mm", { x + (shape.thickness * 1000 + H) / 2 - 3, -(shape.hatOuterRadius - shape.hatWall / 2) * 1000 },
        { x + 84 * u, -shape.hatOuterRadius * 1000 + 10 * u }, QObject::tr("wall"));
    p.vertical("/rotor/bore_mm", -shape.boreRadius * 1000, 0, x + H, x + H + 14 * u, QObject::tr("bore"), QStringLiteral("Ø "), 0.0);
    p.leader("/rotor/hat_pocket_diameter_mm", { x + H - shape.hatThickness * 1000 - 2, -(shape.hatOuterRadius - shape.hatWall) * 1000 },
        { x + 78 * u, -shape.hatOuterRadius * 560 }, QObject::tr("pocket"), QStringLiteral("Ø "));
    const double bolts = rotor.boltCircle.value.value_or(0.11) * 500;
    p.leader("/rotor/bolt_circle_mm", { bolts * std::cos(0.35), bolts * std::sin(0.35) }, { shape.hatOuterRadius * 480, 22 * u },
        QObject::tr("on Ø"));
    fact("bolt_holes", QObject::tr("Stud holes"));
    p.leader("/rotor/bolt_hole_diameter_mm", { 0, -bolts }, { -22 * u, -bolts - 1 * u }, QObject::tr("holes"), QStringLiteral("Ø "));
    p.leader("/rotor/drum_diameter_mm",
        { -(shape.hatOuterRadius - shape.hatWall) * 1000 * std::cos(0.9), (shape.hatOuterRadius - shape.hatWall) * 1000 * std::sin(0.9) },
        { -own * 0.72, own * 0.93 }, QObject::tr("drum inside"), QStringLiteral("Ø "), false, true);
    fact("construction", QObject::tr("Construction"));
    fact("ring_material", QObject::tr("Friction ring of"));
    fact("hat_material", QObject::tr("Hat of"));
    if (rotor.construction == RotorBuild::TwoPiece) {
        fact("hat_bolts", QObject::tr("Hat bolts"));
        fact("hat_bolt_thread", QObject::tr("Their thread"));
    }
    fact("face", QObject::tr("Face"));
    fact("handed", QObject::tr("Fits"));
    p.horizontal("/rotor/vent_gap_mm", x + (shape.thickness - shape.ventGap) * 500, x + (shape.thickness + shape.ventGap) * 500,
        -(shape.outerRadius + shape.ringInnerRadius) * 500, -(shape.outerRadius + shape.ringInnerRadius) * 500, QObject::tr("vent"), {},
        3.2);
    if (rotor.ventGap.value.value_or(1) > 0) {
        fact("vane_shape", QObject::tr("Vanes"));
        fact("vanes", QObject::tr("How many"));
        const double mean = (shape.outerRadius + shape.ringInnerRadius) * 500;
        p.leader(
            "/rotor/vane_thickness_mm", { mean * std::cos(0.5), mean * std::sin(0.5) }, { own * 0.94, own * 0.80 }, QObject::tr("thick"));
        if (rotor.vaneShape == VaneShape::Curved)
            p.leader("/rotor/vane_lean_deg", { mean * std::cos(1.0), mean * std::sin(1.0) }, { own * 0.66, own * 1.03 },
                QObject::tr("lean"), {}, true);
        p.leader("/rotor/vane_share_percent", { mean * std::cos(1.9), mean * std::sin(1.9) }, { -own * 0.18, own * 1.04 },
            QObject::tr("of the vent is vanes"), {}, true, rotor.vanes > 0 && rotor.vaneThickness.value, QStringLiteral("–"));
    }
    // What is read on the car belongs to a side.
    const std::string ofSide = side == Side::Left ? "/left" : "/right";
    const QString whose = side == Side::Left ? QObject::tr("left") : QObject::tr("right");
    p.leader(ofSide + "/runout_mm", { x, -own * 0.93 }, { x - 16 * u, -own - 42 * u }, QObject::tr("runout, %1").arg(whose), {}, false,
        true, QStringLiteral("–"));
    p.leader(ofSide + "/thickness_variation_mm", { x + shape.thickness * 500, -own * 0.80 }, { x + 70 * u, -own - 42 * u },
        QObject::tr("variation, %1").arg(whose), {}, false, true, QStringLiteral("–"));
    p.leader(ofSide + "/ring_thickness_mm", { x + shape.thickness * 1000, -own * 0.66 }, { x + 78 * u, -own * 0.72 },
        QObject::tr("worn, %1").arg(whose), {}, false, true, QStringLiteral("–"));
    if (rotor.construction == RotorBuild::TwoPiece)
        p.leader("/rotor/ring_play_mm", { x + shape.thickness * 1000, -shape.ringInnerRadius * 1000 },
            { x + 78 * u, -shape.ringInnerRadius * 1000 - 4 * u }, QObject::tr("ring float"));
    sheet.extent = QRectF(QPointF(x - 40 * u, -R - 44 * u), QPointF(facts + 128 * u, R + 26 * u));
    return sheet;
}

} // namespace deepstop::app
