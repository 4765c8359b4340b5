#include "bracket/bracket.hpp"

#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::bracket {

using paper::Pen;
using paper::Point;

namespace {

constexpr double chordError = 5e-6;

/// The convex outline with `edge` of metal round every hole: the hull of their rims, arcs as chords on the outside, and of the blocks that
/// bores are drilled into.
std::vector<Point> outlineOf(const Adapter& made, double edge)
{
    std::vector<Point> points;
    for (const Hole& hole : made.holes)
        for (const Point p : paper::circle(Pen::Outline, { hole.x, hole.y }, hole.diameter / 2 + edge, chordError, true).points)
            points.push_back(p);
    for (const EdgeBore& bore : made.bores)
        for (const double side : { -1.0, 1.0 }) {
            points.push_back({ bore.x + side * (bore.diameter / 2 + edge), bore.mouth });
            points.push_back({ bore.x + side * (bore.diameter / 2 + edge), bore.mouth - bore.depth - edge });
        }
    std::ranges::sort(points, [](Point a, Point b) { return a.x != b.x ? a.x < b.x : a.y < b.y; });
    const auto turn = [](Point o, Point a, Point b) { return (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x); };
    std::vector<Point> hull;
    for (int pass = 0; pass < 2; ++pass) {
        const std::size_t start = hull.size();
        for (const Point p : points) {
            while (hull.size() >= start + 2 && turn(hull[hull.size() - 2], hull.back(), p) <= 0)
                hull.pop_back();
            hull.push_back(p);
        }
        hull.pop_back();
        std::ranges::reverse(points);
    }
    return hull;
}

double areaOf(const std::vector<Point>& outline)
{
    double twice = 0;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const Point a = outline[i];
        const Point b = outline[(i + 1) % outline.size()];
        twice += a.x * b.y - a.y * b.x;
    }
    return twice / 2;
}

double toOutline(Point p, const std::vector<Point>& outline)
{
    double least = 1e9;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const Point a = outline[i];
        const Point b = outline[(i + 1) % outline.size()];
        const Point along { b.x - a.x, b.y - a.y };
        const double length2 = along.x * along.x + along.y * along.y;
        const double t = length2 > 0 ? std::clamp(((p.x - a.x) * along.x + (p.y - a.y) * along.y) / length2, 0.0, 1.0) : 0;
        least = std::min(least, std::hypot(p.x - a.x - t * along.x, p.y - a.y - t * along.y));
    }
    return least;
}

/// To the bore's side or bottom, negative inside.
double toBore(Point p, const EdgeBore& bore)
{
    const double across = std::abs(p.x - bore.x) - bore.diameter / 2;
    const double along = std::max(p.y - bore.mouth, bore.mouth - bore.depth - p.y);
    return across > 0 && along > 0 ? std::hypot(across, along) : std::max(across, along);
}

double boreVolume(const std::vector<EdgeBore>& bores)
{
    double volume = 0;
    for (const EdgeBore& bore : bores)
        volume += std::numbers::pi / 4 * bore.diameter * bore.diameter * bore.depth;
    return volume;
}

double holeArea(const std::vector<Hole>& holes)
{
    double area = 0;
    for (const Hole& hole : holes)
        area += std::numbers::pi / 4 * hole.diameter * hole.diameter;
    return area;
}

} // namespace

double wallWanted(double diameter) { return diameter / 2; }

std::optional<Adapter> holesOf(const Knuckle& k, const CaliperMount& c, const Wanted& w)
{
    for (const double length : { k.holeSpacing, k.holeRadius, c.holeSpacing, w.rotorRadius, w.knuckleHole, w.caliperHole })
        if (!(length > 0))
            return {};
    if (!std::isfinite(k.faceDepth + c.drop + c.faceDepth + w.padInset + w.rotorMiddle) || !(w.edge >= 0))
        return {};
    Adapter a {};
    const double y = w.rotorRadius - c.drop - w.padInset;
    for (const double side : { -0.5, 0.5 })
        a.holes.push_back({ side * k.holeSpacing, k.holeRadius, w.knuckleHole, true });
    a.caliperHeight = y;
    for (const double side : { -0.5, 0.5 })
        if (c.radial)
            a.bores.push_back({ side * c.holeSpacing, y, 2 * w.caliperHole, w.caliperHole });
        else
            a.holes.push_back({ side * c.holeSpacing, y, w.caliperHole, false });
    // From the lugs' face outboard to where the caliper's face must be for its slot to stand over the rotor's middle; the studs of a radial
    // mount stand in the middle of the plate.
    const double reach = (w.rotorMiddle - c.faceDepth) - (-k.faceDepth);
    const double needed = c.radial ? 2 * reach : reach;
    a.thickness = std::isfinite(w.thickness) ? w.thickness : needed;
    a.offset = c.radial ? (needed - a.thickness) / 2 : needed - a.thickness;
    // The outline reaches so far round every hole; only the holes to the knuckle may stand higher than the edge a radial mount sits on.
    a.seats = a.bores.empty() || k.holeRadius + w.knuckleHole / 2 + w.edge <= y + 1e-9;
    a.wall = 1e9;
    a.edge = w.edge;
    for (std::size_t i = 0; i < a.holes.size(); ++i) {
        for (std::size_t j = i + 1; j < a.holes.size(); ++j)
            a.wall = std::min(a.wall,
                std::hypot(a.holes[i].x - a.holes[j].x, a.holes[i].y - a.holes[j].y) - (a.holes[i].diameter + a.holes[j].diameter) / 2);
        for (const EdgeBore& bore : a.bores)
            a.wall = std::min(a.wall, toBore({ a.holes[i].x, a.holes[i].y }, bore) - a.holes[i].diameter / 2);
    }
    for (const EdgeBore& bore : a.bores)
        a.edge = std::min(a.edge, (a.thickness - bore.diameter) / 2);
    if (a.bores.size() == 2)
        a.wall = std::min(a.wall, a.bores[1].x - a.bores[0].x - a.bores[0].diameter);
    // Both pairs lie about one middle, so turned over it is its own mirror image.
    a.symmetric = true;
    return a;
}

std::optional<Adapter> adapter(const Knuckle& k, const CaliperMount& c, const Wanted& w)
{
    auto made = holesOf(k, c, w);
    if (!made)
        return made;
    Adapter& a = *made;
    a.outline = outlineOf(a, w.edge);
    for (const Hole& hole : a.holes)
        a.edge = std::min(a.edge, toOutline({ hole.x, hole.y }, a.outline) - hole.diameter / 2);
    a.area = areaOf(a.outline) - holeArea(a.holes);
    a.volume = a.area * a.thickness - boreVolume(a.bores);
    return made;
}

Plate plateOf(const Adapter& a, std::string material)
{
    return { tr("Adapter bracket"), std::move(material), a.thickness, a.outline, a.holes, a.bores, {} };
}

Plate ringPlate(double thickness, double diameter, double bore, double boltCircle, int bolts, double boltHole, std::string material)
{
    Plate plate { tr("Ring behind the rotor"), std::move(material), thickness,
        paper::circle(Pen::Outline, {}, diameter / 2, chordError).points, { { 0, 0, bore, false } }, {}, diameter };
    for (int i = 0; i < bolts; ++i) {
        const double angle = std::numbers::pi / 2 + 2 * std::numbers::pi * i / bolts;
        plate.holes.push_back({ boltCircle / 2 * std::cos(angle), boltCircle / 2 * std::sin(angle), boltHole, true });
    }
    return plate;
}

Plate shimPlate(double thickness, double diameter, double hole, std::string material)
{
    return { "Shim", std::move(material), thickness, paper::circle(Pen::Outline, {}, diameter / 2, chordError).points,
        { { 0, 0, hole, true } }, {}, diameter };
}

double volumeOf(const Plate& plate)
{
    const double outer = plate.diameter ? std::numbers::pi / 4 * *plate.diameter * *plate.diameter : areaOf(plate.outline);
    return (outer - holeArea(plate.holes)) * plate.thickness - boreVolume(plate.bores);
}

paper::Drawing drawingOf(const Plate& plate, const std::vector<std::string>& notes, std::string (*say)(double))
{
    paper::Drawing d;
    d.title = tr("{}, {}, {} thick", plate.title, plate.material, say(plate.thickness));
    d.notes = notes;
    d.notes.emplace_back(tr("To be judged by a qualified engineer before it is made or driven. Bending is not proven here."));
    if (plate.diameter)
        d.strokes.push_back(paper::circle(Pen::Cut, {}, *plate.diameter / 2));
    else
        d.line(Pen::Cut, plate.outline, true);
    double low = 1e9, high = -1e9, left = 1e9, right = -1e9;
    for (const Point p : plate.outline) {
        low = std::min(low, p.y);
        high = std::max(high, p.y);
        left = std::min(left, p.x);
        right = std::max(right, p.x);
    }
    for (const Hole& hole : plate.holes) {
        d.strokes.push_back(paper::circle(Pen::Cut, { hole.x, hole.y }, hole.diameter / 2));
        const double arm = hole.diameter / 2 + 3e-3;
        d.line(Pen::Axis, { { hole.x - arm, hole.y }, { hole.x + arm, hole.y } });
        d.line(Pen::Axis, { { hole.x, hole.y - arm }, { hole.x, hole.y + arm } });
    }
    if (plate.diameter) {
        paper::addDimension(d, { left, 0 }, { right, 0 }, high + 8e-3, "Ø " + say(*plate.diameter));
        d.letter(
            { 0, -plate.holes.front().diameter / 2 + 3e-3 }, "bore Ø " + say(plate.holes.front().diameter), 2.8e-3, paper::Anchor::Middle);
        if (plate.holes.size() > 1)
            d.letter({ 0, low - 8e-3 },
                tr("{} holes Ø {} on Ø {}", plate.holes.size() - 1, say(plate.holes[1].diameter),
                    say(2 * std::hypot(plate.holes[1].x, plate.holes[1].y))),
                2.8e-3, paper::Anchor::Middle);
        return d;
    }
    for (const EdgeBore& bore : plate.bores) {
        const double x = bore.diameter / 2;
        d.line(Pen::Hidden,
            { { bore.x - x, bore.mouth }, { bore.x - x, bore.mouth - bore.depth }, { bore.x + x, bore.mouth - bore.depth },
                { bore.x + x, bore.mouth } });
        d.line(Pen::Axis, { { bore.x, bore.mouth + 3e-3 }, { bore.x, bore.mouth - bore.depth - 3e-3 } });
    }
    const auto& h = plate.holes;
    if (h.size() == 4 || plate.bores.size() == 2)
        paper::addDimension(d, { h[0].x, h[0].y }, { h[1].x, h[1].y }, -(h[0].y - low) - 8e-3, say(h[1].x - h[0].x));
    if (plate.bores.size() == 2) {
        const auto& b = plate.bores;
        paper::addDimension(d, { b[0].x, b[0].mouth }, { b[1].x, b[1].mouth }, high - b[0].mouth + 8e-3, say(b[1].x - b[0].x));
        paper::addDimension(d, { h[1].x, h[1].y }, { h[1].x, b[1].mouth }, -(right - h[1].x) - 10e-3, say(std::abs(b[1].mouth - h[1].y)));
        d.letter({ 0, h[0].y - 1.5e-3 }, tr("to the knuckle, Ø {}", say(h[0].diameter)), 2.8e-3, paper::Anchor::Middle);
        d.letter({ 0, b[0].mouth - 5e-3 }, tr("for the studs, from this edge, Ø {}, {} deep", say(b[0].diameter), say(b[0].depth)), 2.8e-3,
            paper::Anchor::Middle);
        d.letter({ 0, b[0].mouth - 10e-3 }, tr("in the middle of the thickness"), 2.8e-3, paper::Anchor::Middle);
        d.letter({ 0, high + 22e-3 }, tr("axis of the wheel {} below the knuckle's holes", say(h[0].y)), 2.8e-3, paper::Anchor::Middle);
    } else if (h.size() == 4) {
        paper::addDimension(d, { h[2].x, h[2].y }, { h[3].x, h[3].y }, high - h[2].y + 8e-3, say(h[3].x - h[2].x));
        paper::addDimension(d, { h[1].x, h[1].y }, { h[1].x, h[3].y }, -(right - h[1].x) - 10e-3, say(std::abs(h[3].y - h[1].y)));
        d.letter({ 0, h[0].y + (h[0].y < h[2].y ? -1 : 1) * 1.5e-3 }, tr("to the knuckle, Ø {}", say(h[0].diameter)), 2.8e-3,
            paper::Anchor::Middle);
        d.letter({ 0, h[2].y - 1.5e-3 }, tr("to the caliper, Ø {}", say(h[2].diameter)), 2.8e-3, paper::Anchor::Middle);
        d.letter({ 0, high + 22e-3 }, tr("axis of the wheel {} below the knuckle's holes", say(h[0].y)), 2.8e-3, paper::Anchor::Middle);
    }
    return d;
}

} // namespace deepstop::bracket
