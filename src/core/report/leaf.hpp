#pragma once
/// What is printed, as blocks one under the other: laid out on sheets of paper, or written as one HTML file that needs nothing else.

#include "paper/paper.hpp"

#include <string>
#include <vector>

namespace deepstop::report {

struct Block {
    enum class Kind {
        Heading,
        Text,
        Tick, ///< a box to be ticked, its text, what goes with it underneath
        Caution,
        Row, ///< of a table: cells side by side
        Photo, ///< a photograph, as wide as half a sheet, its name underneath
        Picture, ///< a drawing, so many times smaller than it is, with a bar of 100 mm
    };
    Kind kind = Kind::Text;
    std::string text {};
    std::string under {};
    std::vector<std::string> cells {};
    std::vector<double> widths {}; ///< parts of the sheet's width, one a cell
    bool head = false; ///< the row names the columns
    bool small = false; ///< a row in small letters
    bool ticked = false;
    paper::Drawing drawing {};
    double scale = 1; ///< 2: half size
    paper::Photo photo {};
    bool toScale = true; ///< of a plot not: it has no bar of 100 mm
};

struct Leaf {
    std::string title;
    std::string subtitle; ///< car, setup, date
    std::vector<Block> blocks;
    std::vector<paper::Drawing> fullSize {}; ///< behind the blocks, on sheets of their own

    void heading(std::string text) { blocks.push_back({ Block::Kind::Heading, std::move(text) }); }
    void text(std::string text) { blocks.push_back({ Block::Kind::Text, std::move(text) }); }
    void caution(std::string text) { blocks.push_back({ Block::Kind::Caution, std::move(text) }); }
    void row(std::vector<std::string> cells, std::vector<double> widths, bool head = false, bool small = false)
    {
        Block b { Block::Kind::Row };
        b.cells = std::move(cells);
        b.widths = std::move(widths);
        b.head = head;
        b.small = small;
        blocks.push_back(std::move(b));
    }
};

/// Sheets with margins, the title and the number of each, then the drawings at their real size. A block too high for a sheet is cut between
/// its lines.
[[nodiscard]] std::vector<paper::Page> sheetsOf(const Leaf& leaf, const paper::Size& size);
/// HTML 5 with its style and drawings in it; light on every screen.
[[nodiscard]] std::string htmlOf(const Leaf& leaf);

} // namespace deepstop::report
