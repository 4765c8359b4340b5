#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

/// One side of the car seen from outboard. Angles are measured from straight up towards the car's rear; going forward, everything turns
/// towards smaller ones.
class FaceDrawing {
public:
    FaceDrawing(Sheet& sheet, const CornerClearance& result, Side side, QPointF centre)
        : sheet_(sheet), r_(result), s_(result.drawn), t_(theme()), side_(side), centre_(centre),
          clock_(result.corner->mount.clock.value.value_or(std::numbers::pi / 2))
    {
    }

    /// A point of the wheel's plane.
    QPointF at(double angle, double radius) const
    {
        return centre_ + QPointF(rearward() * std::sin(angle), -std::cos(angle)) * radius * 1000;
    }
    /// A point of the caliper: `along` the back towards the rotor's exit, `height` from the axis.
    QPointF onCaliper(double along, double height) const
    {
        const QPointF out(rearward() * std::sin(clock_), -std::cos(clock_));
        const QPointF exit(-rearward() * std::cos(clock_), -std::sin(clock_));
        return centre_ + (out * height + exit * along) * 1000;
    }
    double clock() const { return clock_; }
    double halfBack() const { return s_.caliper.backHalfLength; }
    double back() const { return s_.rotor.outerRadius + s_.caliper.backOverEdge; }
    double low() const { return s_.rotor.outerRadius - s_.caliper.reach; }
    QPointF bleeder(End end) const { return onCaliper((end == End::Exit ? 1 : -1) * (halfBack() + 6e-3), back() - 16e-3); }

    void draw(bool right)
    {
        barrel();
        rotor();
        hose();
        caliper();
        bleeders(right);
        turning();
        sheet_.letter(centre_ + QPointF(0, -outermost() * 1000 - 14),
            side_ == Side::Left ? QObject::tr("left, seen from outboard") : QObject::tr("right, seen from outboard"), 14, t_.ink,
            Qt::AlignCenter, false);
        sheet_.letter(centre_ + QPointF(0, outermost() * 1000 + 16),
            side_ == Side::Left ? QObject::tr("← front of the car") : QObject::tr("front of the car →"), 12, t_.mute, Qt::AlignCenter,
            false);
    }

    double outermost() const
    {
        double most = back() + 0.02;
        for (const geometry::Point p : r_.wheelShape.barrel)
            most = std::max(most, p.r);
        return most;
    }

private:
    double rearward() const { return side_ == Side::Left ? 1 : -1; }

    QPainterPath ringPath(double outer, double inner) const { return ring(centre_, outer * 1000, inner * 1000); }

    void barrel()
    {
        if (r_.wheelShape.barrel.size() < 2)
            return;
        double least = 1;
        for (const geometry::Point p : r_.wheelShape.barrel)
            least = std::min(least, p.r);
        const Ink ink { t_.metal, 1.4, r_.barrelEstimated ? Qt::DashLine : Qt::SolidLine, t_.metalWash, Hatch::None, {}, 0 };
        sheet_.area(ringPath(outermost() + 4e-3, least), ink);
        double top = 0;
        for (const fit::Outline& part : fit::caliperOutlines(s_))
            for (const geometry::Point p : part.chain)
                top = std::max(top, p.r);
        sheet_.area(circle(centre_, top * 1000), { t_.proposal, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    }

    QPolygonF vane(double from, double inner, double outer, double lean) const
    {
        QPolygonF line;
        for (int i = 0; i <= 8; ++i) {
            const double radius = inner + (outer - inner) * i / 8;
            line << at(from + std::tan(lean) * std::log(radius / inner), radius);
        }
        return line;
    }

    void rotor()
    {
        const fit::RotorShape& r = s_.rotor;
        const Rotor& rotor = r_.corner->rotor;
        sheet_.area(ringPath(r.outerRadius, r.ringInnerRadius), { t_.ink, 1.6, Qt::SolidLine, t_.metalWash, Hatch::None, {}, 0 });
        sheet_.area(ringPath(r.hatOuterRadius, r.boreRadius), { t_.ink, 1.2, Qt::SolidLine, t_.raised, Hatch::None, {}, 0 });
        // Away from the caliper a quarter of the near plate is taken off, so that the vanes are seen.
        if (r.ventGap > 0 && rotor.vanes > 0 && rotor.vaneShape != VaneShape::Pillars) {
            const double lean = rotor.vaneShape == VaneShape::Curved ? rotor.vaneLean.value.value_or(0.6) : 0;
            const double step = 2 * std::numbers::pi / rotor.vanes;
            for (int i = 0; i * step < std::numbers::pi / 2; ++i)
                sheet_.line(vane(clock_ + 0.75 * std::numbers::pi + i * step, r.ringInnerRadius + 1e-3, r.outerRadius - 1e-3, lean),
                    { t_.metal, 1.8, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        }
        const int lines = rotor.face == RotorFace::Slotted ? (rotor.slotCount > 0 ? *rotor.slotCount : 8) : 0;
        for (int i = 0; i < lines; ++i)
            sheet_.line(vane(2 * std::numbers::pi * i / lines, r.ringInnerRadius + 5e-3, r.outerRadius - 5e-3, 0.5),
                { t_.ink, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        if (rotor.face == RotorFace::Drilled || rotor.face == RotorFace::Dimpled)
            for (int i = 0; i < 36; ++i)
                sheet_.area(circle(at(2 * std::numbers::pi * i / 36,
                                       r.ringInnerRadius + (r.outerRadius - r.ringInnerRadius) * (0.25 + 0.25 * (i % 3))),
                                2.2),
                    { t_.ink, 1, Qt::SolidLine, rotor.face == RotorFace::Drilled ? t_.paper : t_.metalWash, Hatch::None, {}, 0 });
        const double bolts = rotor.boltCircle.value.value_or(0.11) / 2;
        for (int i = 0; i < rotor.boltHoles; ++i)
            sheet_.area(circle(at(2 * std::numbers::pi * i / rotor.boltHoles, bolts), 6),
                { t_.ink, 1.1, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
    }

    void caliper()
    {
        // Its back and reach are read; its ends are drawn by proportion.
        const double cheek = 11e-3;
        const double w = halfBack();
        const double chamfer = std::min(0.35 * w, 14e-3);
        QPolygonF body;
        body << onCaliper(-w, back()) << onCaliper(w, back()) << onCaliper(w + cheek, back() - chamfer)
             << onCaliper(w + cheek, low() + 10e-3) << onCaliper(w, low()) << onCaliper(-w, low()) << onCaliper(-w - cheek, low() + 10e-3)
             << onCaliper(-w - cheek, back() - chamfer);
        QPainterPath path;
        path.addPolygon(body);
        path.closeSubpath();
        QColor wash = t_.proposalWash;
        wash.setAlphaF(0.85f);
        sheet_.area(path, { t_.proposal, 2, Qt::SolidLine, wash, Hatch::None, {}, 0 });
        const double top = s_.rotor.outerRadius - s_.pad.inset;
        const double half = r_.corner->pad.length.value.value_or(0.1) / 2;
        QPolygonF pad;
        pad << onCaliper(-half, top) << onCaliper(half, top) << onCaliper(half, top - s_.pad.height)
            << onCaliper(-half, top - s_.pad.height);
        QPainterPath padPath;
        padPath.addPolygon(pad);
        padPath.closeSubpath();
        sheet_.area(padPath, { t_.ink, 1.1, Qt::DashLine, {}, Hatch::None, {}, 0 });
        // Pistons of one side, listed from the rotor's entry.
        const auto& bores = r_.corner->caliper.pistons;
        double whole = 0;
        for (const Reading& bore : bores)
            whole += bore.value.value_or(0.03);
        const double gap = bores.size() > 1 ? (2 * half - whole) / static_cast<double>(bores.size() + 1) : 0;
        double from = bores.size() > 1 ? -half + std::max(gap, 1e-3) : -whole / 2;
        for (const Reading& bore : bores) {
            const double d = bore.value.value_or(0.03);
            sheet_.area(circle(onCaliper(from + d / 2, top - s_.pad.height / 2), d * 500),
                { t_.proposal, 1.1, Qt::DashLine, {}, Hatch::None, {}, 0 });
            from += d + std::max(gap, 1e-3);
        }
    }

    void bleeders(bool right)
    {
        const Caliper& caliper = r_.corner->caliper;
        for (const End end : { End::Entry, End::Exit }) {
            const bool there =
                caliper.bleeders == Bleeders::BothEnds || (caliper.bleeders == Bleeders::OneEnd && caliper.bleederEnd == end);
            if (!there)
                continue;
            const QPointF here = bleeder(end);
            const bool higher = here.y() <= bleeder(end == End::Exit ? End::Entry : End::Exit).y();
            const QColor colour = higher ? t_.good : caliper.bleeders == Bleeders::BothEnds ? t_.mute : t_.bad;
            sheet_.area(circle(here, 5.4), { t_.ink, 1.2, Qt::SolidLine, higher || !right ? colour : t_.paper, Hatch::None, {}, 0 });
            sheet_.area(circle(here, 2), { t_.ink, 1, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
            const double away = end == End::Exit ? 1 : -1;
            sheet_.letter(onCaliper(away * (halfBack() + 4e-3), outermost() + 27e-3),
                higher ? QObject::tr("bleed here") : QObject::tr("bleeder"), 12, colour, Qt::AlignCenter, false);
        }
    }

    void hose()
    {
        QPainterPath path(onCaliper(-0.3 * halfBack(), low() + 4e-3));
        path.cubicTo(onCaliper(-0.5 * halfBack(), low() - 50e-3), at(clock_ + 0.7, 0.09), at(clock_ + 1.5, 0.075));
        sheet_.area(path, { t_.ink, 6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet_.area(path, { t_.metalWash, 3.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }

    void turning()
    {
        const double radius = s_.rotor.hatOuterRadius * 0.72;
        QPolygonF arc;
        for (int i = 0; i <= 16; ++i)
            arc << at(1.1 - 2.2 * i / 16, radius);
        sheet_.line(arc, { t_.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        const QPointF tip = arc.last();
        const QPointF along = tip - arc[arc.size() - 3];
        const QPointF unit = along / std::hypot(along.x(), along.y());
        const QPointF side(-unit.y(), unit.x());
        sheet_.line(QPolygonF { tip - unit * 9 + side * 5, tip, tip - unit * 9 - side * 5 },
            { t_.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }

    Sheet& sheet_;
    const CornerClearance& r_;
    const fit::CornerShape& s_;
    const Theme& t_;
    Side side_;
    QPointF centre_;
    double clock_;
};

} // namespace

Sheet faceSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    sheet.title = axle == Axle::Front ? QObject::tr("Front brakes from outboard") : QObject::tr("Rear brakes from outboard");
    if (!r.corner)
        return sheet;
    sheet.title += QStringLiteral(" · %1").arg(QString::fromStdString(study.after.setup->name));
    sheet.subtitle = QObject::tr("%1 · arrow: turning forward · dash and dot: what the caliper sweeps · its ends and hose by proportion")
                         .arg(unitNote(study));
    if (!r.corner->mount.clock.value)
        sheet.subtitle += QObject::tr(" · clocking angle not read, drawn behind the axle");
    FaceDrawing probe(sheet, r, Side::Left, {});
    const double R = probe.outermost() * 1000 + 8;
    const double apart = R + 66;
    FaceDrawing left(sheet, r, Side::Left, { -apart, 0 });
    FaceDrawing right(sheet, r, Side::Right, { apart, 0 });
    left.draw(false);
    right.draw(true);

    const auto corner = cornerPointer(study, study.after, axle);
    const fit::CornerShape& s = r.drawn;
    const auto put = [&](const std::string& key, QPointF from, QPointF wish, const QString& caption, bool unit = false,
                         bool mayLack = false) {
        sheet.dimensions.push_back({ corner + key, {}, from, wish, Run::Leader, 0, unit, caption, 0.5, mayLack });
    };
    // The clock position, from straight up.
    sheet.line(QPolygonF { QPointF(-apart, 0), QPointF(-apart, -R) }, { t.mute, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.line(
        QPolygonF { QPointF(-apart, 0), left.onCaliper(0, left.back() + 12e-3) }, { t.mute, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    put("/mount/clock_deg", left.at(left.clock() / 2, 0.05), left.at(-0.9, 0.075), QObject::tr("from straight up"), true);
    put("/caliper/back_length_mm", left.onCaliper(0, left.back()), { 0, -46 }, QObject::tr("its back"));
    put("/pad/length_mm", left.onCaliper(0.01, s.rotor.outerRadius - s.pad.inset), { 0, 52 }, QObject::tr("pad"));
    put("/caliper/corner_radius_mm", left.onCaliper(-left.halfBack(), left.back()), { 0, 86 }, QObject::tr("rounded"), false, true);
    const double row = R + 34;
    const double u = 2 * (apart + R) / 756;
    const double x = -apart - R;
    int column = 0;
    const auto fact = [&](const std::string& key, const QString& caption) {
        sheet.fact(corner + key, caption, { x + column++ * 124 * u, row }, 116);
    };
    fact("/caliper/bleeders", QObject::tr("Bleeders"));
    if (r.corner->caliper.bleeders == Bleeders::OneEnd)
        fact("/caliper/bleeder_end", QObject::tr("The one is at"));
    fact("/rotor/face", QObject::tr("Face"));
    fact("/rotor/slots", QObject::tr("Slots"));
    fact("/rotor/vane_shape", QObject::tr("Vanes"));
    fact("/rotor/handed", QObject::tr("Rotor fits"));
    // What stands proud of the body, in a table under the pictures.
    double y = row + 56 * u;
    sheet.letter({ x, y },
        QObject::tr(
            "Proud of the body: top over the rotor's edge, height, from the slot's middle, width, far side from the caliper's middle"),
        12.5, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    const auto& bumps = r.corner->caliper.bumps;
    for (std::size_t i = 0; i <= bumps.size(); ++i) {
        const bool there = i < bumps.size();
        const std::string key = corner + "/caliper/bumps/" + (there ? std::to_string(i) : std::string("-"));
        y += 25.5 * u;
        if (there)
            sheet.fact(key + "/kind", {}, { x, y - 11 * u }, 104);
        double cell = x + 116 * u;
        for (const char* field : { "/over_edge_mm", "/height_mm", "/at_depth_mm", "/width_mm", "/from_middle_mm" }) {
            sheet.dimensions.push_back({ key + field, {}, {}, { cell, y }, Run::Table, 0, false, {}, 0.5, !there,
                there ? QString() : QObject::tr("+ over the edge") });
            cell += 74 * u;
            if (!there)
                break;
        }
    }
    const auto call = [&](const Check& check, const QString& text, QPointF where, QPointF wish) {
        if (const Verdict* v = study.verdict(check, { axle }))
            sheet.callouts.push_back({ v->id, text, v->level, where, where, wish });
    };
    const bool exit = r.corner->caliper.bleederEnd != End::Entry;
    call(checks::bleeder, QObject::tr("bleeder"), left.bleeder(exit ? End::Exit : End::Entry), QPointF(0, -R * 0.86));
    call(checks::pistonOrder, QObject::tr("small piston first"), left.onCaliper(-0.3 * left.halfBack(), left.low() + 0.03),
        QPointF(0, R * 0.86));
    sheet.extent = QRectF(QPointF(x, -R - 22), QPointF(apart + R, y + 16 * u));
    return sheet;
}

} // namespace deepstop::app
