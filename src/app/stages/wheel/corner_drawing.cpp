#include "stages/wheel/corner_drawing.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

using geometry::Chain;
using geometry::Point;

namespace {

QPolygonF polygon(const Chain& chain) { return polygonOf(chain); }
QPainterPath box(double z0, double z1, double r0, double r1) { return sectionBox(z0, z1, r0, r1); }

} // namespace

QPolygonF polygonOf(const Chain& chain)
{
    QPolygonF out;
    for (const Point p : chain)
        out << inSection(p);
    return out;
}

QPainterPath closedPath(const QPolygonF& points)
{
    QPainterPath path;
    path.addPolygon(points);
    path.closeSubpath();
    return path;
}

QPainterPath sectionBox(double z0, double z1, double r0, double r1)
{
    QPainterPath path;
    path.addRect(QRectF(inSection(z0, r0), inSection(z1, r1)).normalized());
    return path;
}

void CornerDrawing::wheel()
{
    const Chain& barrel = r_.wheelShape.barrel;
    // The line down the spokes that was measured most is drawn as metal, the others as lines.
    const auto& lines = r_.wheelShape.spokes;
    const auto most = std::ranges::max_element(lines, {}, [](const fit::Outline& line) { return line.chain.size(); });
    const Chain spokes = most == lines.end() ? Chain {} : most->chain;
    const double face = fit::wheelFace(s_);
    const bool guess = r_.barrelEstimated;
    Ink metal { t_.ink, 1.3, guess ? Qt::DashLine : Qt::SolidLine, t_.metalWash, guess ? Hatch::None : Hatch::Rising, t_.metal, 9 };
    if (barrel.size() >= 2) {
        // Only the inside was measured; thickness and lips are drawn by custom, lightly.
        const double metalThickness = 5.5e-3;
        const double lip = r_.wheel ? fit::beadSeatDiameter(r_.wheel->nominalDiameter).value_or(2 * barrel.front().r) / 2 + 17e-3
                                    : barrel.front().r + 0.025;
        QPolygonF band = polygon(barrel);
        const Point last = barrel.back();
        const Point first = barrel.front();
        if (spokes.size() >= 2)
            band << inSection(spokes.back().z + 1e-3, spokes.back().r) << inSection(spokes.back().z + 15e-3, spokes.back().r);
        band << inSection(last.z + 13e-3, last.r + 4e-3) << inSection(last.z + 12e-3, lip) << inSection(last.z + 6e-3, lip)
             << inSection(last.z + 1e-3, last.r + metalThickness + 6e-3);
        for (auto p = barrel.rbegin(); p != barrel.rend(); ++p)
            band << inSection(p->z, p->r + metalThickness);
        band << inSection(first.z - 3e-3, lip) << inSection(first.z - 10e-3, lip) << inSection(first.z - 7e-3, first.r + 1e-3);
        sheet_.area(closedPath(band), metal);
        metal_.addPath(closedPath(band));
    }
    if (spokes.size() >= 2) {
        QPolygonF back;
        back << inSection(face, s_.hub.pilotRadius) << inSection(face, spokes.front().r);
        for (const Point p : spokes)
            back << inSection(p);
        QPolygonF front;
        for (const Point p : spokes)
            front << inSection(p.z + 15e-3, p.r);
        QPolygonF whole = back;
        for (auto p = front.rbegin(); p != front.rend(); ++p)
            whole << *p;
        whole << inSection(face + 24e-3, spokes.front().r - 6e-3) << inSection(face + 24e-3, s_.hub.pilotRadius);
        Ink spoke = metal;
        spoke.line = Qt::SolidLine;
        spoke.hatch = Hatch::Rising;
        sheet_.area(closedPath(whole), spoke);
        metal_.addPath(closedPath(whole));
    }
    for (const fit::Outline& line : lines)
        if (line.chain.size() >= 2 && line.chain != spokes)
            sheet_.line(polygon(line.chain), { t_.metal, 1.1, Qt::DashLine, {}, Hatch::None, {}, 0 });
    for (const fit::Outline& inset : r_.wheelShape.insets) {
        sheet_.area(closedPath(polygon(inset.chain)), { t_.ink, 1.2, Qt::SolidLine, t_.lining, Hatch::Dense, t_.ink, 5 });
        metal_.addPath(closedPath(polygon(inset.chain)));
    }
    // Where the wheel was measured.
    const auto dots = [&](const Chain& chain) {
        for (const Point p : chain) {
            QPainterPath dot;
            dot.addEllipse(inSection(p), 0.9, 0.9);
            sheet_.area(dot, { QColor(), 0, Qt::NoPen, t_.ink, Hatch::None, QColor(), 0 });
        }
    };
    if (!guess)
        dots(barrel);
    for (const fit::Outline& line : lines)
        dots(line.chain);
}

void CornerDrawing::hub()
{
    const Ink metal { t_.ink, 1.3, Qt::SolidLine, t_.metalWash, Hatch::Falling, t_.metal, 8 };
    QPolygonF outline;
    outline << inSection(-0.078, 0) << inSection(-0.078, 0.034) << inSection(-0.030, 0.040) << inSection(-0.013, 0.044)
            << inSection(-0.012, s_.hub.flangeRadius) << inSection(0, s_.hub.flangeRadius) << inSection(0, s_.hub.pilotRadius)
            << inSection(s_.hub.pilotHeight - 2e-3, s_.hub.pilotRadius) << inSection(s_.hub.pilotHeight, s_.hub.pilotRadius - 2e-3)
            << inSection(s_.hub.pilotHeight, 0);
    sheet_.area(closedPath(outline), metal);
}

void CornerDrawing::rotor()
{
    const fit::Faces faces = fit::frictionFaces(s_);
    const fit::RotorShape& r = s_.rotor;
    const Rotor& read = r_.corner->rotor;
    const Ink iron { t_.ink, 1.4, lineFor({ &read.outerDiameter, &read.thickness, &read.ringInnerDiameter, &read.overallHeight }),
        t_.metalWash, Hatch::Falling, t_.ink, 5 };
    const bool light = r_.corner->rotor.hatMaterial == HatMaterial::Aluminium;
    const Ink hat { t_.ink, 1.4, lineFor({ &read.hatThickness, &read.hatOuterDiameter, &read.hatWall, &read.bore }), t_.metalWash,
        light ? Hatch::Rising : Hatch::Falling, light ? t_.metal : t_.ink, light ? 7.0 : 5.0 };
    if (s_.ring > 0)
        sheet_.area(box(0, s_.ring, r.boreRadius, r.hatOuterRadius - r.hatWall - 2e-3),
            { t_.ink, 1.2, Qt::SolidLine, t_.lining, Hatch::Dense, t_.ink, 6 });
    const double disc0 = s_.ring;
    const double disc1 = s_.ring + r.hatThickness;
    // Disc, wall and the neck out to the ring, as one outline.
    const double wall = r.hatOuterRadius - r.hatWall;
    const double neck = std::min(r.hatWall, r.thickness);
    const double wallFrom = std::min(faces.outboard - neck, disc0);
    QPolygonF bell { inSection(disc1, r.boreRadius), inSection(disc1, r.hatOuterRadius) };
    if (r.ringInnerRadius > r.hatOuterRadius)
        bell << inSection(faces.outboard, r.hatOuterRadius) << inSection(faces.outboard, r.ringInnerRadius)
             << inSection(faces.outboard - neck, r.ringInnerRadius) << inSection(faces.outboard - neck, wall);
    else
        bell << inSection(wallFrom, r.hatOuterRadius) << inSection(wallFrom, wall);
    bell << inSection(disc0, wall) << inSection(disc0, r.boreRadius);
    sheet_.area(closedPath(bell), hat);
    if (r.ventGap > 0 && r.ventGap < r.thickness) {
        const double plate = (r.thickness - r.ventGap) / 2;
        sheet_.area(box(faces.inboard + plate, faces.outboard - plate, r.ringInnerRadius + 3e-3, r.outerRadius - 3e-3),
            { t_.metal, 0.8, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
        sheet_.area(box(faces.inboard, faces.inboard + plate, r.ringInnerRadius, r.outerRadius), iron);
        sheet_.area(box(faces.outboard - plate, faces.outboard, r.ringInnerRadius, r.outerRadius), iron);
    } else {
        sheet_.area(box(faces.inboard, faces.outboard, r.ringInnerRadius, r.outerRadius), iron);
    }
    if (s_.spacer > 0)
        sheet_.area(box(disc1, disc1 + s_.spacer, r.boreRadius + 2e-3, s_.hub.flangeRadius),
            { t_.ink, 1.2, Qt::SolidLine, t_.lining, Hatch::Dense, t_.ink, 6 });
}

void CornerDrawing::pads()
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

void CornerDrawing::caliper()
{
    const Chain section = fit::caliperSection(s_);
    if (section.empty())
        return;
    const Caliper& read = r_.corner->caliper;
    sheet_.area(closedPath(polygon(section)),
        { t_.proposal, 2,
            lineFor({ &read.backOverEdge, &read.backLength, &read.bridgeGap, &read.reach, &read.outboardDepth, &read.inboardDepth,
                &read.shoulder, &read.slotWidth, &r_.corner->at(r_.side).slotCentre }),
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
            sheet_.area(box(faces.outboard + s_.pad.thickness + s_.pad.backing, s_.slotCentre + s_.caliper.outboardDepth * 0.86,
                            middle - half, middle + half),
                piston);
    }
}

void CornerDrawing::envelope()
{
    bool body = true;
    for (const fit::Outline& part : fit::caliperOutlines(s_)) {
        sheet_.line(polygon(part.chain), { t_.proposal, body ? 1.0 : 1.3, body ? Qt::DashDotLine : Qt::SolidLine, {}, Hatch::None, {}, 0 });
        body = false;
    }
}

void CornerDrawing::clash()
{
    const bool strikes = std::ranges::any_of(r_.rooms, [](const WheelRoom& room) { return room.drawn && room.drawn->gap < 0; });
    if (!strikes)
        return;
    QPainterPath swept;
    for (const fit::Outline& part : fit::caliperOutlines(s_))
        swept = swept.united(closedPath(polygon(part.chain)));
    QColor wash = t_.bad;
    wash.setAlphaF(0.35f);
    QPainterPath metal = metal_;
    metal.setFillRule(Qt::WindingFill);
    sheet_.area(metal.intersected(swept), { t_.bad, 1.6, Qt::SolidLine, wash, Hatch::Dense, t_.bad, 6 });
}

void CornerDrawing::ghost()
{
    const Ink dashed { t_.found, 1.5, Qt::DashLine, {}, Hatch::None, {}, 0 };
    const fit::Faces faces = fit::frictionFaces(s_);
    sheet_.area(box(faces.inboard, faces.outboard, s_.rotor.ringInnerRadius, s_.rotor.outerRadius), dashed);
    const double disc1 = s_.ring + s_.rotor.hatThickness;
    QPolygonF hat;
    hat << inSection(faces.outboard, s_.rotor.ringInnerRadius) << inSection(faces.outboard, s_.rotor.hatOuterRadius)
        << inSection(disc1, s_.rotor.hatOuterRadius) << inSection(disc1, s_.rotor.boreRadius);
    sheet_.line(hat, dashed);
    if (const Chain section = fit::caliperSection(s_); !section.empty())
        sheet_.area(closedPath(polygon(section)), dashed);
}

void CornerDrawing::keepOuts(const Hub& hub)
{
    for (const KeepOut& place : hub.keepOuts) {
        if (!place.depth.value || !place.radius.value)
            continue;
        const QPointF here = inSection(-*place.depth.value, *place.radius.value);
        QPainterPath mark;
        mark.addEllipse(here, 2.6, 2.6);
        mark.moveTo(here - QPointF(4.4, 0));
        mark.lineTo(here + QPointF(4.4, 0));
        mark.moveTo(here - QPointF(0, 4.4));
        mark.lineTo(here + QPointF(0, 4.4));
        sheet_.area(mark, { t_.ink, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }
}

void CornerDrawing::shield(const figures::ShieldReadings& shield)
{
    if (!shield.diameter->value || !shield.depth->value)
        return;
    const double edge = *shield.diameter->value / 2;
    const double plate = -*shield.depth->value;
    const double rim = plate + shield.rim->value.value_or(0);
    const QPolygonF sheet { inSection(plate, 0.045), inSection(plate, edge), inSection(rim, edge) };
    sheet_.line(sheet, { t_.ink, 2.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
}

void CornerDrawing::hotRing(double growth)
{
    const fit::Faces faces = fit::frictionFaces(s_);
    sheet_.line(QPolygonF { inSection(faces.inboard, s_.rotor.outerRadius), inSection(faces.inboard, s_.rotor.outerRadius + growth),
                    inSection(faces.outboard, s_.rotor.outerRadius + growth), inSection(faces.outboard, s_.rotor.outerRadius) },
        { t_.bad, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
}

Qt::PenStyle CornerDrawing::lineFor(std::initializer_list<const Reading*> readings) const
{
    const bool standIn = std::ranges::any_of(
        readings, [this](const Reading* reading) { return std::ranges::find(r_.standIns, ReadingId(*reading)) != r_.standIns.end(); });
    return standIn ? Qt::DashLine : Qt::SolidLine;
}

} // namespace deepstop::app
