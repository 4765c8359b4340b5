#include "language/language.hpp"
#include "report/sheets.hpp"

#include "chapters/clearance/clearance.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop::report {
namespace {

using paper::Pen;
using paper::Point;

constexpr double hatchApart = 2.5e-3;

/// What the section cuts: outlined and, where it is no ghost, hatched. The caliper's outline is what it sweeps and is cut nowhere.
void addCut(paper::Drawing& d, Pen pen, std::vector<Point> outline, bool rising)
{
    if (pen == Pen::Outline)
        paper::addHatch(d, outline, hatchApart, rising);
    d.line(pen, std::move(outline), true);
}

void addRing(paper::Drawing& d, Pen pen, const fit::CornerShape& s)
{
    const fit::RotorShape& r = s.rotor;
    const double inner = s.ring + r.hatThickness - r.overallHeight;
    const auto rectangle = [&](double z0, double z1, double r0, double r1) {
        if (std::isfinite(z0 + z1 + r0 + r1) && z1 > z0 && r1 > r0)
            addCut(d, pen, { { z0, r0 }, { z1, r0 }, { z1, r1 }, { z0, r1 } }, true);
    };
    if (r.ventGap > 0) {
        const double plate = (r.thickness - r.ventGap) / 2;
        rectangle(inner, inner + plate, r.ringInnerRadius, r.outerRadius);
        rectangle(inner + r.thickness - plate, inner + r.thickness, r.ringInnerRadius, r.outerRadius);
    } else {
        rectangle(inner, inner + r.thickness, r.ringInnerRadius, r.outerRadius);
    }
    // The hat: down to the bore, its wheel face at the ring's place.
    rectangle(s.ring, s.ring + r.hatThickness, r.boreRadius, r.hatOuterRadius);
    rectangle(inner + r.thickness, s.ring + r.hatThickness, r.hatOuterRadius - r.hatWall, r.hatOuterRadius);
}

void addChain(paper::Drawing& d, Pen pen, const geometry::Chain& chain, bool closed)
{
    std::vector<Point> points;
    for (const geometry::Point p : chain)
        if (std::isfinite(p.z) && std::isfinite(p.r))
            points.push_back({ p.z, p.r });
    if (points.size() > 1)
        d.line(pen, std::move(points), closed);
}

void addCorner(paper::Drawing& d, const CornerClearance& c, bool ghost)
{
    if (!c.corner || c.corner->brakes != BrakeKind::Discs)
        return;
    addRing(d, ghost ? Pen::Hidden : Pen::Outline, c.drawn);
    for (const fit::Outline& outline : fit::caliperOutlines(c.drawn))
        addChain(d, ghost ? Pen::Hidden : Pen::Outline, outline.chain, true);
}

/// The gap where it is smallest, and how far off it may be.
void addGap(paper::Drawing& d, const Study& study, const WheelRoom& room)
{
    if (!room.drawn || !room.gap.value)
        return;
    const auto& between = *room.drawn;
    d.line(Pen::Thin, { { between.onCaliper.z, between.onCaliper.r }, { between.onWheel.z, between.onWheel.r } });
    d.letter({ between.onWheel.z + 3e-3, between.onWheel.r + 3e-3 },
        fmt::format("{} ±{}", print(*room.gap.value, style::gap, study.system), figure(room.gap.worstCase, style::gap, study.system)),
        2.6e-3);
}

/// What a workshop measures again: the rotor, and where the wheel's face and the caliper's slot stand.
void addDimensions(paper::Drawing& d, const Study& study, const CornerClearance& c, const paper::Extent& extent)
{
    const fit::CornerShape& s = c.drawn;
    if (!c.corner || c.corner->brakes != BrakeKind::Discs)
        return;
    const Rotor& rotor = c.corner->rotor;
    const auto say = [&](const Reading& r) { return r.value ? figure(*r.value, style::size, study.system) : std::string("?"); };
    const double inner = s.ring + s.rotor.hatThickness - s.rotor.overallHeight;
    const double left = extent.low.x - 6e-3;
    paper::addDimension(d, { left, 0 }, { left, s.rotor.outerRadius }, 0, "Ø " + say(rotor.outerDiameter));
    d.line(Pen::Thin, { { left, s.rotor.outerRadius }, { inner, s.rotor.outerRadius } });
    paper::addDimension(
        d, { inner, s.rotor.boreRadius }, { s.ring + s.rotor.hatThickness, s.rotor.boreRadius }, -14e-3, say(rotor.overallHeight));
    paper::addDimension(
        d, { inner, s.rotor.ringInnerRadius }, { inner + s.rotor.thickness, s.rotor.ringInnerRadius }, -7e-3, say(rotor.thickness));
}

} // namespace

paper::Drawing sectionOf(const Study& study, Axle axle)
{
    paper::Drawing d;
    const Clearance& clearance = study.of<Clearance>();
    const CornerClearance& after = clearance.after.at(axle).left;
    d.title = axle == Axle::Front ? tr("Front, cut through") : tr("Rear, cut through");
    if (study.before.setup != study.after.setup)
        addCorner(d, clearance.before.at(axle).left, true);
    addCorner(d, after, false);
    if (d.strokes.empty())
        return d;
    addChain(d, after.barrelEstimated ? Pen::Hidden : Pen::Outline, after.wheelShape.barrel, false);
    for (const fit::Outline& spokes : after.wheelShape.spokes)
        addChain(d, Pen::Outline, spokes.chain, false);
    for (const fit::Outline& inset : after.wheelShape.insets)
        addChain(d, Pen::Outline, inset.chain, true);
    const auto extent = paper::extentOf(d);
    d.line(Pen::Axis, { { extent.low.x - 10e-3, 0 }, { extent.high.x + 10e-3, 0 } });
    d.line(Pen::Axis, { { 0, -4e-3 }, { 0, extent.high.y } });
    addDimensions(d, study, after, extent);
    for (const WheelGap which : { WheelGap::Barrel, WheelGap::Spokes })
        addGap(d, study, after.room(which));
    return d;
}

} // namespace deepstop::report
