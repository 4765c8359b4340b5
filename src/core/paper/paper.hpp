#pragma once
/// Drawings that go on paper at their real size: lines and lettering first, sheets of paper after.
///
/// Metres throughout. A drawing has x to the right and y upward, as a draughtsman has them; a page has x to the right and y downward from
/// its upper left corner, as paper is fed.

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::paper {

struct Point {
    double x = 0;
    double y = 0;
    bool operator==(const Point&) const = default;
};

/// What a line is for, and so how it is drawn.
enum class Pen {
    Cut, ///< scissors go along it
    Outline, ///< an edge of a part
    Hidden, ///< dashed
    Axis, ///< dash and dot
    Thin, ///< dimensions, bars, register marks
};

struct Stroke {
    Pen pen = Pen::Outline;
    std::vector<Point> points;
    bool closed = false;
    bool operator==(const Stroke&) const = default;
};

enum class Anchor { Left, Middle, Right };

struct Lettering {
    Point at; ///< of the base line
    std::string text; ///< UTF-8
    double height = 3e-3; ///< of the letters' body
    Anchor anchor = Anchor::Left;
    bool upright = false; ///< turned a quarter to the left
    bool operator==(const Lettering&) const = default;
};

/// A length that is dimensioned; its lines and its figure stand among the drawing's strokes and letters, from those numbers on.
struct Dimension {
    Point from;
    Point to;
    double offset = 0; ///< of the dimension line, to the left of the way
    std::string figure;
    std::size_t firstStroke = 0;
    std::size_t strokes = 0;
    std::size_t letter = 0;
    bool operator==(const Dimension&) const = default;
};

struct Drawing {
    std::string title;
    std::vector<std::string> notes; ///< for the title block, a line each
    std::vector<Stroke> strokes;
    std::vector<Lettering> letters;
    std::vector<Dimension> dimensions {};

    void line(Pen pen, std::vector<Point> points, bool closed = false) { strokes.push_back({ pen, std::move(points), closed }); }
    void letter(Point at, std::string_view text, double height = 3e-3, Anchor anchor = Anchor::Left, bool upright = false)
    {
        letters.emplace_back(at, std::string(text), height, anchor, upright);
    }
    bool operator==(const Drawing&) const = default;
};

/// The rectangle that holds all strokes and the base lines of the lettering.
struct Extent {
    Point low;
    Point high;
    [[nodiscard]] double width() const { return high.x - low.x; }
    [[nodiscard]] double height() const { return high.y - low.y; }
};
[[nodiscard]] Extent extentOf(const Drawing& drawing);

/// A full circle as a closed stroke whose chords lie within `tolerance` of it, on the outside where `outside`.
[[nodiscard]] Stroke circle(Pen pen, Point centre, double radius, double tolerance = 5e-6, bool outside = false);

/// A dimension with its extension lines and arrow heads, `offset` to the left of the way from `from` to `to`, and its figure.
void addDimension(Drawing& drawing, Point from, Point to, double offset, const std::string& figure);

/// Thin lines at 45 degrees inside a closed outline, `spacing` apart, rising to the right or falling. What an outline cuts off itself is
/// left out by the even-odd rule.
void addHatch(Drawing& drawing, const std::vector<Point>& outline, double spacing, bool rising);

struct Size {
    std::string name;
    double width;
    double height;
};
/// ISO 216 A4 and ANSI Letter.
[[nodiscard]] Size a4();
[[nodiscard]] Size letter();

/// A photograph as its file has it.
struct Photo {
    std::shared_ptr<const std::string> bytes;
    bool png = false; ///< else JPEG
    int wide = 0; ///< points
    int high = 0;
    bool operator==(const Photo&) const = default;
};
/// One on a sheet.
struct PlacedPhoto {
    Photo photo;
    Point at; ///< upper left corner
    double width = 0;
    double height = 0;
    bool operator==(const PlacedPhoto&) const = default;
};

/// One sheet of paper.
struct Page {
    double width = 0;
    double height = 0;
    std::vector<Stroke> strokes;
    std::vector<Lettering> letters;
    std::vector<PlacedPhoto> photos {};
    bool operator==(const Page&) const = default;
};

/// How the printer errs: what the bars of 100 mm measured on a sheet it printed.
struct BarsRead {
    double across = 0.1;
    double down = 0.1;
    bool operator==(const BarsRead&) const = default;
};

/// Room that printers leave blank, and what neighbouring tiles share, m.
inline constexpr double margin = 10e-3;
inline constexpr double overlap = 10e-3;

/// `drawing` at its real size on as few sheets as it takes, upright or lying, tiles overlapping by `overlap` with register marks that
/// two neighbours share. Every sheet carries bars of 100 mm in both directions, the title, and which sheet of how many it is.
/// @param read corrects a printer that errs: the drawing is stretched by 100 mm over what its bars measured. A bar that measured
///             less than 80 or more than 125 mm is a mistake, not an error of a printer: nothing is returned
[[nodiscard]] std::vector<Page> pagesOf(const Drawing& drawing, const Size& size, const BarsRead& read = {});

/// Width of a pen's line, m.
[[nodiscard]] double widthOf(Pen pen);
/// Dashes and gaps of a pen's line, m; empty: drawn through.
[[nodiscard]] std::vector<double> dashesOf(Pen pen);

} // namespace deepstop::paper
