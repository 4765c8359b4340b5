#include "report/leaf.hpp"

#include "files/paper_files.hpp"

#include "files/photo.hpp"
#include "language/code.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <iterator>

namespace deepstop::report {
namespace {

using paper::Pen;
using paper::Point;

constexpr double edge = 15e-3;
constexpr double footer = 12e-3;
constexpr double letters = 2.6e-3;
constexpr double leading = 1.55;
constexpr double box = 3.4e-3;

/// Lines no wider than `width`, broken between words; a word that is wider by itself stands alone.
std::vector<std::string> wrapped(const std::string& text, double height, double width)
{
    std::vector<std::string> lines;
    std::string line;
    for (std::size_t at = 0; at <= text.size();) {
        const auto space = std::min(text.find_first_of(" \n", at), text.size());
        const std::string word = text.substr(at, space - at);
        const std::string longer = line.empty() ? word : line + " " + word;
        if (!line.empty() && files::widthOfLetters(longer, height) > width) {
            lines.push_back(line);
            line = word;
        } else {
            line = longer;
        }
        if (space < text.size() && text[space] == '\n') {
            lines.push_back(line);
            line.clear();
        }
        at = space + 1;
    }
    lines.push_back(line);
    return lines;
}

/// Puts one thing under the other, and begins a sheet where there is no more room.
class Layout {
public:
    Layout(const Leaf& leaf, const paper::Size& size) : leaf_(leaf), size_(size) { begin(); }

    std::vector<paper::Page> done()
    {
        for (std::size_t i = 0; i < pages_.size(); ++i) {
            auto& page = pages_[i];
            const double y = size_.height - footer;
            page.strokes.push_back({ Pen::Thin, { { edge, y - 4e-3 }, { size_.width - edge, y - 4e-3 } }, false });
            page.letters.push_back(
                { { edge, y }, tr("This program advises; it approves nothing. Maker's data and local law come first."), 2.1e-3 });
            page.letters.push_back({ { size_.width - edge, y }, tr("{} of {}", i + 1, pages_.size()), 2.1e-3, paper::Anchor::Right });
        }
        return std::move(pages_);
    }

    /// @param next what stands under it, which is not parted from its heading
    void heading(const std::string& text, const Block* next)
    {
        need(14e-3 + (next ? highOf(*next) : 0));
        y_ += 4e-3;
        say(text, 4e-3, edge, width());
        rule();
    }
    void say(const std::string& text, double height, double x, double wide)
    {
        for (const auto& line : wrapped(text, height, wide)) {
            need(height * leading);
            y_ += height * leading;
            page().letters.emplace_back(Point { x, y_ }, std::string(line), height, paper::Anchor::Left, false);
        }
    }
    void tick(const Block& b)
    {
        const double x = edge + box + 3e-3;
        need(letters * leading * 2);
        const double top = y_ + letters * leading - box;
        page().strokes.push_back(
            { Pen::Outline, { { edge, top }, { edge + box, top }, { edge + box, top + box }, { edge, top + box } }, true });
        if (b.ticked)
            page().strokes.push_back({ Pen::Outline,
                { { edge + 0.6e-3, top + 1.7e-3 }, { edge + 1.5e-3, top + 2.8e-3 }, { edge + 3e-3, top + 0.4e-3 } }, false });
        say(b.text, letters, x, width() - box - 3e-3);
        if (!b.under.empty())
            say(b.under, 2.1e-3, x, width() - box - 3e-3);
        y_ += 1e-3;
    }
    void caution(const std::string& text)
    {
        const double before = y_;
        const auto pages = pages_.size();
        say(text, letters, edge + box + 5e-3, width() - box - 5e-3);
        // A double bar beside it, which no copier loses.
        if (pages == pages_.size())
            for (const double x : { edge + box + 2.4e-3, edge + box + 3.2e-3 })
                page().strokes.push_back({ Pen::Outline, { { x, before + 1.2e-3 }, { x, y_ + 0.8e-3 } }, false });
        y_ += 1e-3;
    }
    void row(const Block& b)
    {
        const double height = b.small ? 2.1e-3 : letters;
        std::vector<std::vector<std::string>> cells;
        std::size_t most = 1;
        for (std::size_t i = 0; i < b.cells.size(); ++i) {
            cells.push_back(wrapped(b.cells[i], height, b.widths[i] * width() - 2e-3));
            most = std::max(most, cells.back().size());
        }
        need(height * leading * static_cast<double>(most) + 1e-3);
        double x = edge;
        for (std::size_t i = 0; i < cells.size(); ++i) {
            for (std::size_t k = 0; k < cells[i].size(); ++k)
                page().letters.emplace_back(Point { x, y_ + height * leading * static_cast<double>(k + 1) }, std::string(cells[i][k]),
                    height, paper::Anchor::Left, false);
            x += b.widths[i] * width();
        }
        y_ += height * leading * static_cast<double>(most) + 0.8e-3;
        if (b.head)
            rule();
    }
    void picture(const Block& b)
    {
        const auto extent = paper::extentOf(b.drawing);
        const double high = highOf(b);
        need(high);
        const double left = edge + std::max(0.0, (width() - extent.width() / b.scale) / 2);
        const auto at = [&](Point p) {
            return Point { left + (p.x - extent.low.x) / b.scale, y_ + 2e-3 + (extent.high.y - p.y) / b.scale };
        };
        for (paper::Stroke stroke : b.drawing.strokes) {
            for (Point& p : stroke.points)
                p = at(p);
            page().strokes.push_back(std::move(stroke));
        }
        for (paper::Lettering l : b.drawing.letters) {
            l.at = at(l.at);
            page().letters.push_back(std::move(l));
        }
        y_ += high - 6e-3;
        if (!b.toScale) {
            y_ += 2e-3;
            return;
        }
        const double bar = 100e-3 / b.scale;
        page().strokes.push_back({ Pen::Outline, { { edge, y_ }, { edge + bar, y_ } }, false });
        for (const double x : { edge, edge + bar })
            page().strokes.push_back({ Pen::Outline, { { x, y_ - 1.2e-3 }, { x, y_ + 1.2e-3 } }, false });
        page().letters.emplace_back(
            Point { edge + bar + 2e-3, y_ + 0.9e-3 }, std::string(tr("100 mm, drawn 1:{:g}", b.scale)), 2.1e-3, paper::Anchor::Left, false);
        y_ += 6e-3;
    }
    void photo(const Block& b)
    {
        const double wide = width() / 2;
        const double high = std::min(wide * b.photo.high / b.photo.wide, size_.height - 2 * edge - footer - 20e-3);
        need(high + 8e-3);
        page().photos.push_back({ b.photo, { edge, y_ + 2e-3 }, high * b.photo.wide / b.photo.high, high });
        y_ += high + 2e-3;
        say(b.text, 2.1e-3, edge, width());
        y_ += 2e-3;
    }
    void text(const std::string& words)
    {
        say(words, letters, edge, width());
        y_ += 1e-3;
    }

private:
    [[nodiscard]] double width() const { return size_.width - 2 * edge; }
    paper::Page& page() { return pages_.back(); }
    void rule()
    {
        y_ += 1.2e-3;
        page().strokes.push_back({ Pen::Thin, { { edge, y_ }, { size_.width - edge, y_ } }, false });
        y_ += 0.6e-3;
    }
    void begin()
    {
        pages_.push_back({ size_.width, size_.height, {}, {} });
        y_ = edge;
        if (pages_.size() == 1) {
            say(leaf_.title, 6e-3, edge, width());
            y_ += 1.2e-3; // what hangs under the title's line
            say(leaf_.subtitle, 2.8e-3, edge, width());
            y_ += 2e-3;
        } else {
            say(leaf_.title + " · " + leaf_.subtitle, 2.1e-3, edge, width());
            y_ += 2e-3;
        }
    }
    /// Of a picture; of anything else about what its first lines take.
    static double highOf(const Block& b)
    {
        return b.kind == Block::Kind::Picture ? paper::extentOf(b.drawing).height() / b.scale + 12e-3
            : b.kind == Block::Kind::Photo    ? 60e-3
            : b.kind == Block::Kind::Tick     ? 16e-3
                                              : 8e-3;
    }
    void need(double height)
    {
        if (y_ + height > size_.height - footer - 7e-3)
            begin();
    }

    const Leaf& leaf_;
    paper::Size size_;
    std::vector<paper::Page> pages_;
    double y_ = 0;
};

std::string escaped(const std::string& text)
{
    std::string out;
    for (const char c : text)
        switch (c) {
        case '&':
            out += "&amp;";
            break;
        case '<':
            out += "&lt;";
            break;
        case '>':
            out += "&gt;";
            break;
        case '"':
            out += "&quot;";
            break;
        case '\n':
            out += "<br>";
            break;
        default:
            out += c;
        }
    return out;
}

/// A drawing as SVG inside the page: its lines, no font of its own.
std::string svgInside(const Block& b)
{
    const auto extent = paper::extentOf(b.drawing);
    const double air = 4e-3;
    const double wide = extent.width() + 2 * air;
    const double high = extent.height() + 2 * air;
    const auto mm = [](double metres) { return fmt::format("{:.3f}", metres * 1000); };
    std::string out = fmt::format("<svg role=\"img\" aria-label=\"{}\" viewBox=\"0 0 {} {}\" style=\"width:{}mm;max-width:100%\" "
                                  "xmlns=\"http://www.w3.org/2000/svg\">\n",
        escaped(b.drawing.title), mm(wide), mm(high), mm(wide / b.scale));
    const auto at = [&](Point p) { return mm(p.x - extent.low.x + air) + "," + mm(extent.high.y - p.y + air); };
    for (const paper::Stroke& s : b.drawing.strokes) {
        std::string points;
        for (const Point& p : s.points)
            points += at(p) + " ";
        std::string dashes;
        for (const double d : paper::dashesOf(s.pen))
            dashes += (dashes.empty() ? "" : ",") + mm(d * b.scale);
        out +=
            fmt::format("<{} points=\"{}\" fill=\"none\" stroke=\"#1d2733\" stroke-width=\"{}\"{}/>\n", s.closed ? "polygon" : "polyline",
                points, mm(paper::widthOf(s.pen) * b.scale), dashes.empty() ? "" : fmt::format(" stroke-dasharray=\"{}\"", dashes));
    }
    for (const paper::Lettering& l : b.drawing.letters)
        out += fmt::format("<text x=\"{}\" y=\"{}\" font-size=\"{}\" text-anchor=\"{}\" fill=\"#1d2733\">{}</text>\n",
            mm(l.at.x - extent.low.x + air), mm(extent.high.y - l.at.y + air), mm(l.height * b.scale * 1.25),
            l.anchor == paper::Anchor::Left         ? "start"
                : l.anchor == paper::Anchor::Middle ? "middle"
                                                    : "end",
            escaped(l.text));
    return out + "</svg>\n";
}

} // namespace

std::vector<paper::Page> sheetsOf(const Leaf& leaf, const paper::Size& size)
{
    Layout layout(leaf, size);
    for (const Block& b : leaf.blocks)
        switch (b.kind) {
        case Block::Kind::Heading:
            layout.heading(b.text, &b == &leaf.blocks.back() ? nullptr : &b + 1);
            break;
        case Block::Kind::Text:
            layout.text(b.text);
            break;
        case Block::Kind::Tick:
            layout.tick(b);
            break;
        case Block::Kind::Caution:
            layout.caution(b.text);
            break;
        case Block::Kind::Row:
            layout.row(b);
            break;
        case Block::Kind::Photo:
            layout.photo(b);
            break;
        case Block::Kind::Picture:
            layout.picture(b);
            break;
        }
    auto pages = layout.done();
    for (const paper::Drawing& drawing : leaf.fullSize)
        std::ranges::move(paper::pagesOf(drawing, size), std::back_inserter(pages));
    return pages;
}

std::string htmlOf(const Leaf& leaf)
{
    std::string out = "<!DOCTYPE html>\n<html lang=\"" + languageCode()
        + "\">\n<head>\n<meta charset=\"utf-8\">\n<meta name=\"viewport\" content=\"width=device-width\">\n<title>" + escaped(leaf.title)
        + "</title>\n<style>\n"
          "body{font:15px/1.45 sans-serif;color:#1d2733;background:#fbf8f0;max-width:50em;margin:2em auto;padding:0 1em}\n"
          "h1{font-size:1.7em;margin:0}h2{font-size:1.15em;border-bottom:1px solid #b9b09a;margin:1.6em 0 .4em}\n"
          ".sub,.under{color:#5b6470}.under{font-size:.87em}.caution{border-left:.35em double #a3261d;padding-left:.7em;margin:.2em 0 .6em "
          "1.6em}\n"
          "ul{list-style:none;padding:0;margin:0}li{padding-left:1.7em;text-indent:-1.7em;margin:.45em 0}li "
          ".under{display:block;text-indent:0}\n"
          "table{border-collapse:collapse;width:100%}td,th{text-align:left;vertical-align:top;padding:.15em .6em .15em 0;border-bottom:1px "
          "solid #e2dac6}\n"
          "@media print{body{background:#fff;margin:0}li,tr{break-inside:avoid}}\n</style>\n</head>\n<body>\n<h1>"
        + escaped(leaf.title) + "</h1>\n<p class=\"sub\">" + escaped(leaf.subtitle) + "</p>\n";
    enum class In { Nothing, List, Table };
    In in = In::Nothing;
    const auto go = [&](In to) {
        if (in == to)
            return;
        out += in == In::List ? "</ul>\n" : in == In::Table ? "</tbody></table>\n" : "";
        out += to == In::List ? "<ul>\n" : to == In::Table ? "<table>" : "";
        in = to;
    };
    for (const Block& b : leaf.blocks) {
        switch (b.kind) {
        case Block::Kind::Heading:
            go(In::Nothing);
            out += "<h2>" + escaped(b.text) + "</h2>\n";
            break;
        case Block::Kind::Text:
            go(In::Nothing);
            out += "<p>" + escaped(b.text) + "</p>\n";
            break;
        case Block::Kind::Tick:
            go(In::List);
            out += std::string("<li>") + (b.ticked ? "☑ " : "☐ ") + escaped(b.text)
                + (b.under.empty() ? "" : "<span class=\"under\">" + escaped(b.under) + "</span>") + "</li>\n";
            break;
        case Block::Kind::Caution:
            if (in == In::List)
                out += "<li><span class=\"caution\" style=\"display:block;text-indent:0\">" + escaped(b.text) + "</span></li>\n";
            else {
                go(In::Nothing);
                out += "<p class=\"caution\">" + escaped(b.text) + "</p>\n";
            }
            break;
        case Block::Kind::Row:
            if (in != In::Table) {
                go(In::Table);
                out += "<colgroup>";
                for (const double part : b.widths)
                    out += fmt::format("<col style=\"width:{:g}%\">", 100 * part);
                out += "</colgroup><tbody>\n";
            }
            out += "<tr>";
            for (const auto& cell : b.cells)
                out += b.head ? "<th>" + escaped(cell) + "</th>" : "<td>" + escaped(cell) + "</td>";
            out += "</tr>\n";
            break;
        case Block::Kind::Photo:
            go(In::Nothing);
            out += fmt::format("<p><img style=\"max-width:60%\" alt=\"{}\" src=\"data:image/{};base64,{}\"></p><p class=\"under\">{}</p>\n",
                escaped(b.text), b.photo.png ? "png" : "jpeg", files::base64(*b.photo.bytes), escaped(b.text));
            break;
        case Block::Kind::Picture:
            go(In::Nothing);
            out += svgInside(b) + (b.toScale ? fmt::format("<p class=\"under\">Drawn 1:{:g} on paper.</p>\n", b.scale) : std::string());
            break;
        }
    }
    go(In::Nothing);
    for (const paper::Drawing& drawing : leaf.fullSize) {
        Block picture { Block::Kind::Picture };
        picture.drawing = drawing;
        // No browser prints to scale, and a line that is cut along must not be trusted to one.
        out += "<h2>" + escaped(drawing.title) + "</h2>\n" + svgInside(picture)
            + "<p class=\"under\">NOT TO SCALE here. The PDF of this sheet holds it at its real size.</p>\n";
        for (const auto& note : drawing.notes)
            out += "<p class=\"under\">" + escaped(note) + "</p>\n";
    }
    return out
        + "<p class=\"under\">This program advises; it approves nothing. Maker's data and local law come first.</p>\n</body>\n</html>\n";
}

} // namespace deepstop::report
