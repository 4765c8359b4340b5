#include "paper/paper.hpp"

#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::paper {
namespace {

/// The strip under the drawing for title and bar, and the one beside it for the upright bar.
constexpr double foot = 30e-3; // at least
constexpr double titleDown = 6e-3; // from the drawing to the title's base line
constexpr double noteStep = 3.8e-3;
constexpr double barRoom = 12e-3; // the bar, its ticks and the air round them
constexpr double side = 9e-3;
constexpr double bar = 0.1;
constexpr double markArm = 3e-3;

void addMark(Page& page, Point at)
{
    page.strokes.push_back({ Pen::Thin, { { at.x - markArm, at.y }, { at.x + markArm, at.y } }, false });
    page.strokes.push_back({ Pen::Thin, { { at.x, at.y - markArm }, { at.x, at.y + markArm } }, false });
}

void write(Page& page, Point at, std::string_view text, double height, Anchor anchor, bool upright)
{
    page.letters.emplace_back(at, std::string(text), height, anchor, upright);
}

/// A stroke's parts inside a box; a closed one is opened where it leaves.
std::vector<Stroke> clipped(const Stroke& stroke, Point low, Point high)
{
    std::vector<Stroke> parts;
    auto points = stroke.points;
    if (stroke.closed && !points.empty())
        points.push_back(points.front());
    const auto inside = [&](Point p) { return p.x >= low.x && p.x <= high.x && p.y >= low.y && p.y <= high.y; };
    if (std::ranges::all_of(points, inside))
        return { stroke };
    std::vector<Point> run;
    const auto finish = [&] {
        if (run.size() > 1)
            parts.push_back({ stroke.pen, run, false });
        run.clear();
    };
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
        // Liang and Barsky: where the segment is inside all four edges.
        const Point a = points[i];
        const Point d { points[i + 1].x - a.x, points[i + 1].y - a.y };
        double from = 0;
        double to = 1;
        for (const auto& [along, room] : { std::pair { -d.x, a.x - low.x }, std::pair { d.x, high.x - a.x },
                 std::pair { -d.y, a.y - low.y }, std::pair { d.y, high.y - a.y } }) {
            if (along == 0 && room < 0)
                to = -1;
            else if (along < 0)
                from = std::max(from, room / along);
            else if (along > 0)
                to = std::min(to, room / along);
        }
        if (from > to) {
            finish();
            continue;
        }
        if (run.empty() || from > 0) {
            finish();
            run.push_back({ a.x + from * d.x, a.y + from * d.y });
        }
        run.push_back({ a.x + to * d.x, a.y + to * d.y });
        if (to < 1)
            finish();
    }
    finish();
    return parts;
}

} // namespace

Extent extentOf(const Drawing& drawing)
{
    constexpr double endless = std::numeric_limits<double>::infinity();
    Extent extent { { endless, endless }, { -endless, -endless } };
    const auto take = [&](Point p) {
        extent.low = { std::min(extent.low.x, p.x), std::min(extent.low.y, p.y) };
        extent.high = { std::max(extent.high.x, p.x), std::max(extent.high.y, p.y) };
    };
    for (const Stroke& stroke : drawing.strokes)
        for (const Point p : stroke.points)
            take(p);
    for (const Lettering& l : drawing.letters)
        take(l.at);
    return extent.low.x > extent.high.x ? Extent {} : extent;
}

Stroke circle(Pen pen, Point centre, double radius, double tolerance, bool outside)
{
    Stroke stroke { pen, {}, true };
    const int corners =
        std::clamp(static_cast<int>(std::ceil(std::numbers::pi / std::acos(1 - std::min(0.5, tolerance / radius)))), 12, 2000);
    const double r = outside ? radius / std::cos(std::numbers::pi / corners) : radius;
    for (int i = 0; i < corners; ++i)
        stroke.points.push_back(
            { centre.x + r * std::cos(2 * std::numbers::pi * i / corners), centre.y + r * std::sin(2 * std::numbers::pi * i / corners) });
    return stroke;
}

void addDimension(Drawing& drawing, Point from, Point to, double offset, const std::string& figure)
{
    const double length = std::hypot(to.x - from.x, to.y - from.y);
    if (!(length > 0))
        return;
    const Point along { (to.x - from.x) / length, (to.y - from.y) / length };
    const Point left { -along.y, along.x };
    const auto moved = [](Point p, Point way, double by) { return Point { p.x + way.x * by, p.y + way.y * by }; };
    const Point a = moved(from, left, offset);
    const Point b = moved(to, left, offset);
    const double past = offset < 0 ? -2e-3 : 2e-3;
    Dimension made { from, to, offset, figure, drawing.strokes.size(), 0, drawing.letters.size() };
    drawing.line(Pen::Thin, { from, moved(a, left, past) });
    drawing.line(Pen::Thin, { to, moved(b, left, past) });
    // With no room between for two heads they stand outside and point in.
    const double way = length < 12e-3 ? -1 : 1;
    drawing.line(Pen::Thin, { way > 0 ? a : moved(a, along, -6e-3), way > 0 ? b : moved(b, along, 6e-3) });
    for (const auto& [tip, direction] : { std::pair { a, way }, std::pair { b, -way } })
        drawing.line(Pen::Thin,
            { moved(moved(tip, along, 2.5e-3 * direction), left, 0.7e-3), tip,
                moved(moved(tip, along, 2.5e-3 * direction), left, -0.7e-3) });
    // Letters stand on a level line, and to the left of an upright one.
    const bool upright = std::abs(along.y) > std::abs(along.x);
    const Point middle { (a.x + b.x) / 2 - (upright ? 1e-3 : 0), (a.y + b.y) / 2 + (upright ? 0 : 1e-3) };
    drawing.letter(middle, figure, 3e-3, Anchor::Middle, upright);
    made.strokes = drawing.strokes.size() - made.firstStroke;
    drawing.dimensions.push_back(std::move(made));
}

void addHatch(Drawing& drawing, const std::vector<Point>& outline, double spacing, bool rising)
{
    if (outline.size() < 3 || !(spacing > 0))
        return;
    // Along a line at 45 degrees one of x + y and x - y stays.
    const double way = rising ? -1 : 1;
    const auto across = [way](Point p) { return p.x + way * p.y; };
    const auto [low, high] = std::ranges::minmax(outline, {}, across);
    for (double c = std::ceil(across(low) / spacing) * spacing; c < across(high); c += spacing) {
        std::vector<double> cuts; // x
        for (std::size_t i = 0; i < outline.size(); ++i) {
            const Point a = outline[i];
            const Point b = outline[(i + 1) % outline.size()];
            const double from = across(a) - c;
            const double to = across(b) - c;
            if ((from < 0) != (to < 0))
                cuts.push_back(a.x + (b.x - a.x) * from / (from - to));
        }
        std::ranges::sort(cuts);
        for (std::size_t i = 0; i + 1 < cuts.size(); i += 2)
            drawing.line(Pen::Thin, { { cuts[i], (c - cuts[i]) * way }, { cuts[i + 1], (c - cuts[i + 1]) * way } });
    }
}

Size a4() { return { "A4", 0.210, 0.297 }; }
Size letter() { return { "Letter", 0.2159, 0.2794 }; }

double widthOf(Pen pen)
{
    switch (pen) {
    case Pen::Cut:
        return 0.35e-3;
    case Pen::Outline:
        return 0.35e-3;
    case Pen::Hidden:
        return 0.25e-3;
    case Pen::Axis:
        return 0.18e-3;
    case Pen::Thin:
        return 0.13e-3;
    }
    return 0.2e-3;
}

std::vector<double> dashesOf(Pen pen)
{
    switch (pen) {
    case Pen::Hidden:
        return { 3e-3, 1.5e-3 };
    case Pen::Axis:
        return { 8e-3, 1.5e-3, 0.8e-3, 1.5e-3 };
    default:
        return {};
    }
}

namespace {

/// How a drawing is cut into sheets, stretched so that it is true on this printer's paper.
struct Layout {
    double width, height; // of the paper
    double roomX, roomY; // for the drawing on one sheet
    int columns, rows;
    double sx, sy; // over the true size
    Extent extent; // of the drawing, with air round it
};

/// @param notes lines of the title block over the bar
Layout layoutOf(const Extent& extent, double width, double height, double sx, double sy, std::size_t notes)
{
    const double block = std::max(foot, titleDown + noteStep * static_cast<double>(notes) + barRoom);
    Layout l { width, height, width - 2 * margin - side, height - 2 * margin - block, 1, 1, sx, sy, extent };
    const auto tiles = [](double need, double room) {
        return need <= room ? 1 : 1 + static_cast<int>(std::ceil((need - room) / (room - overlap) - 1e-9));
    };
    l.columns = tiles(extent.width() * sx, l.roomX);
    l.rows = tiles(extent.height() * sy, l.roomY);
    return l;
}

/// One sheet of a drawing.
class Tile {
public:
    Tile(const Drawing& of, const Layout& layout, int columnOf, int rowOf) : drawing(of), l(layout), column(columnOf), row(rowOf) { }

    Page made()
    {
        place();
        marks();
        bars();
        words();
        return std::move(page);
    }

private:
    /// What of the drawing falls on this sheet.
    void place()
    {
        // Where the drawing's upper left corner lies on this sheet; a single tile stands in the middle.
        const Point origin { low.x + (l.columns > 1 ? -column * (l.roomX - overlap) : (l.roomX - l.extent.width() * l.sx) / 2),
            low.y + (l.rows > 1 ? -row * (l.roomY - overlap) : (l.roomY - l.extent.height() * l.sy) / 2) };
        const auto onPage = [&](Point p) {
            return Point { origin.x + (p.x - l.extent.low.x) * l.sx, origin.y + (l.extent.high.y - p.y) * l.sy };
        };
        for (const Stroke& stroke : drawing.strokes) {
            Stroke placed { stroke.pen, {}, stroke.closed };
            for (const Point p : stroke.points)
                placed.points.push_back(onPage(p));
            for (Stroke& part : clipped(placed, low, high))
                page.strokes.push_back(std::move(part));
        }
        for (Lettering letters : drawing.letters) {
            letters.at = onPage(letters.at);
            if (letters.at.x >= low.x && letters.at.x <= high.x && letters.at.y >= low.y && letters.at.y <= high.y)
                page.letters.push_back(std::move(letters));
        }
    }

    /// Register marks in the middle of each shared strip; a neighbour has the same ones at the same places of the drawing.
    void marks()
    {
        for (const int x : { 0, 1 })
            if (column + x > 0 && column + x < l.columns)
                for (const double part : { 0.2, 0.8 })
                    addMark(page, { x == 0 ? low.x + overlap / 2 : high.x - overlap / 2, low.y + part * l.roomY });
        for (const int y : { 0, 1 })
            if (row + y > 0 && row + y < l.rows)
                for (const double part : { 0.2, 0.8 })
                    addMark(page, { low.x + part * l.roomX, y == 0 ? low.y + overlap / 2 : high.y - overlap / 2 });
        if (l.columns * l.rows > 1)
            page.strokes.push_back({ Pen::Hidden, { low, { high.x, low.y }, high, { low.x, high.y } }, true });
    }

    /// Stretched like everything else, so that a corrected sheet proves itself.
    void bars()
    {
        page.strokes.push_back({ Pen::Thin, { barAt, { barAt.x + bar * l.sx, barAt.y } }, false });
        const Point down { margin + 3e-3, high.y - bar * l.sy };
        page.strokes.push_back({ Pen::Thin, { down, { down.x, high.y } }, false });
        for (int i = 0; i <= 10; ++i) {
            const double tick = i % 5 == 0 ? 3e-3 : 1.5e-3;
            page.strokes.push_back(
                { Pen::Thin, { { barAt.x + bar * l.sx * i / 10, barAt.y }, { barAt.x + bar * l.sx * i / 10, barAt.y - tick } }, false });
            page.strokes.push_back(
                { Pen::Thin, { { down.x, high.y - bar * l.sy * i / 10 }, { down.x + tick, high.y - bar * l.sy * i / 10 } }, false });
        }
    }

    void words()
    {
        write(page, { barAt.x + bar * l.sx + 2e-3, barAt.y }, tr("100 mm both ways; measure first"), 2.8e-3, Anchor::Left, false);
        double text = high.y + titleDown;
        write(page, { low.x, text }, drawing.title, 4e-3, Anchor::Left, false);
        if (l.columns * l.rows > 1)
            write(page, { high.x, text },
                tr("sheet {}{} of {}, columns A to {}, rows 1 to {}", static_cast<char>('A' + column), row + 1, l.columns * l.rows,
                    static_cast<char>('A' + l.columns - 1), l.rows),
                2.8e-3, Anchor::Right, false);
        for (const std::string& note : drawing.notes)
            write(page, { low.x, text += noteStep }, note, 2.8e-3, Anchor::Left, false);
    }

    const Drawing& drawing;
    const Layout& l;
    int column;
    int row;
    Page page { l.width, l.height, {}, {} };
    Point low { margin + side, margin }; // upper left of this sheet's drawing
    Point high { low.x + l.roomX, low.y + l.roomY };
    Point barAt { margin + side, l.height - margin - 6e-3 }; // the left end of the bar across
};

} // namespace

std::vector<Page> pagesOf(const Drawing& drawing, const Size& size, const BarsRead& read)
{
    const auto believable = [](double measured) { return measured >= 0.08 && measured <= 0.125; };
    if (drawing.strokes.empty() || !believable(read.across) || !believable(read.down))
        return {};
    Extent extent = extentOf(drawing);
    // Air round the drawing, so that a line at its edge is printed whole.
    extent.low = { extent.low.x - 2e-3, extent.low.y - 2e-3 };
    extent.high = { extent.high.x + 2e-3, extent.high.y + 2e-3 };
    const auto layout = [&](double width, double height) {
        return layoutOf(extent, width, height, bar / read.across, bar / read.down, drawing.notes.size());
    };
    const Layout upright = layout(size.width, size.height);
    const Layout lying = layout(size.height, size.width);
    const Layout& l = lying.columns * lying.rows < upright.columns * upright.rows ? lying : upright;
    constexpr int mostSheets = 60;
    if (l.columns * l.rows > mostSheets)
        return {};
    std::vector<Page> pages;
    for (int row = 0; row < l.rows; ++row)
        for (int column = 0; column < l.columns; ++column)
            pages.push_back(Tile(drawing, l, column, row).made());
    return pages;
}

} // namespace deepstop::paper
