#include "files/paper_files.hpp"

#include "files/disk.hpp"

#include <dl_dxf.h>
#include <dl_writer_ascii.h>

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <memory>
#include <vector>

namespace deepstop::files {
namespace {

constexpr double perMetre = 1000; // millimetres

struct Layer {
    const char* name;
    int colour; ///< of the DXF palette; 7 is the paper's opposite
    const char* line;
};

Layer layerOf(paper::Pen pen)
{
    switch (pen) {
    case paper::Pen::Cut:
        return { "CUT", 1, "CONTINUOUS" };
    case paper::Pen::Outline:
        return { "OUTLINE", 7, "CONTINUOUS" };
    case paper::Pen::Hidden:
        return { "HIDDEN", 8, "DASHED" };
    case paper::Pen::Axis:
        return { "AXIS", 3, "DASHDOT" };
    case paper::Pen::Thin:
        return { "THIN", 7, "CONTINUOUS" };
    }
    return { "OUTLINE", 7, "CONTINUOUS" };
}

constexpr Layer lettering { "LETTERING", 7, "CONTINUOUS" };
constexpr Layer dimensioning { "DIMENSIONS", 7, "CONTINUOUS" };

/// Beyond ASCII a DXF of this release writes \U+XXXX.
std::string escaped(const std::string& utf8)
{
    std::string out;
    for (std::size_t i = 0; i < utf8.size();) {
        const auto lead = static_cast<unsigned char>(utf8[i]);
        const int length = lead < 0x80 ? 1 : lead < 0xE0 ? 2 : lead < 0xF0 ? 3 : 4;
        if (length == 1 || i + static_cast<std::size_t>(length) > utf8.size()) {
            out += lead < 0x20 || lead >= 0x80 ? ' ' : static_cast<char>(lead);
            ++i;
            continue;
        }
        unsigned code = length == 2 ? lead & 0x1Fu : length == 3 ? lead & 0x0Fu : lead & 0x07u;
        for (int k = 1; k < length; ++k)
            code = code << 6 | (static_cast<unsigned char>(utf8[i + static_cast<std::size_t>(k)]) & 0x3Fu);
        out += fmt::format("\\U+{:04X}", code);
        i += static_cast<std::size_t>(length);
    }
    return out;
}

} // namespace

namespace {

std::string blockOf(std::size_t dimension) { return fmt::format("*D{}", dimension + 1); }

void writeStroke(const paper::Stroke& stroke, DL_Dxf& dxf, DL_WriterA& w, const char* layer)
{
    const DL_Attributes with(layer, 256, -1, "BYLAYER", 1.0);
    dxf.writePolyline(w, DL_PolylineData(static_cast<int>(stroke.points.size()), 0, 0, stroke.closed ? 1 : 0), with);
    for (const paper::Point p : stroke.points)
        dxf.writeVertex(w, DL_VertexData(p.x * perMetre, p.y * perMetre, 0.0));
    dxf.writePolylineEnd(w);
}

void writeLetters(const paper::Lettering& l, DL_Dxf& dxf, DL_WriterA& w, const char* layer)
{
    const int along = l.anchor == paper::Anchor::Left ? 0 : l.anchor == paper::Anchor::Middle ? 1 : 2;
    dxf.writeText(w,
        DL_TextData(l.at.x * perMetre, l.at.y * perMetre, 0, l.at.x * perMetre, l.at.y * perMetre, 0, l.height * perMetre, 1.0, 0, along, 0,
            escaped(l.text), "Standard", l.upright ? 1.5707963267948966 : 0.0),
        DL_Attributes(layer, 256, -1, "BYLAYER", 1.0));
}

/// An aligned dimension by its group codes (DXF reference, AC1015), its picture in a block of its own: programs that draw dimensions their
/// own way do, others show the block.
void writeDimension(const paper::Drawing& drawing, std::size_t index, DL_WriterA& w)
{
    const paper::Dimension& d = drawing.dimensions[index];
    const double length = std::hypot(d.to.x - d.from.x, d.to.y - d.from.y);
    const paper::Point left { -(d.to.y - d.from.y) / length, (d.to.x - d.from.x) / length };
    const auto point = [&](int code, paper::Point p) {
        w.dxfReal(code, p.x * perMetre);
        w.dxfReal(code + 10, p.y * perMetre);
        w.dxfReal(code + 20, 0.0);
    };
    w.entity("DIMENSION");
    w.dxfString(100, "AcDbEntity");
    w.dxfString(8, dimensioning.name);
    w.dxfString(100, "AcDbDimension");
    w.dxfString(2, blockOf(index));
    point(10, { d.to.x + left.x * d.offset, d.to.y + left.y * d.offset });
    point(11, drawing.letters[d.letter].at);
    constexpr int aligned = 1;
    constexpr int ownBlock = 32;
    w.dxfInt(70, aligned + ownBlock);
    w.dxfString(1, escaped(d.figure));
    w.dxfReal(42, length * perMetre);
    w.dxfString(3, "Standard");
    w.dxfString(100, "AcDbAlignedDimension");
    point(13, d.from);
    point(14, d.to);
}

void write(const paper::Drawing& drawing, DL_Dxf& dxf, DL_WriterA& w)
{
    // What is drawn for a dimension stands in its block alone.
    std::vector<bool> strokeOfDimension(drawing.strokes.size());
    std::vector<bool> letterOfDimension(drawing.letters.size());
    for (const paper::Dimension& d : drawing.dimensions) {
        std::fill_n(strokeOfDimension.begin() + static_cast<std::ptrdiff_t>(d.firstStroke), d.strokes, true);
        letterOfDimension[d.letter] = true;
    }
    dxf.writeHeader(w);
    w.dxfString(9, "$INSUNITS");
    w.dxfInt(70, 4); // millimetres
    w.sectionEnd();
    w.sectionTables();
    dxf.writeVPort(w);
    w.tableLinetypes(5);
    for (const char* type : { "BYBLOCK", "BYLAYER", "CONTINUOUS" })
        dxf.writeLinetype(w, DL_LinetypeData(type, type, 0, 0, 0.0));
    std::array<double, 2> dashes { 3, -1.5 };
    dxf.writeLinetype(w, DL_LinetypeData("DASHED", "Dashed", 0, 2, 4.5, dashes.data()));
    std::array<double, 4> dots { 8, -1.5, 0.8, -1.5 };
    dxf.writeLinetype(w, DL_LinetypeData("DASHDOT", "Dash dot", 0, 4, 11.8, dots.data()));
    w.tableEnd();
    constexpr std::array pens { paper::Pen::Cut, paper::Pen::Outline, paper::Pen::Hidden, paper::Pen::Axis, paper::Pen::Thin };
    w.tableLayers(static_cast<int>(pens.size()) + 3);
    const auto layer = [&](const Layer& l) { dxf.writeLayer(w, DL_LayerData(l.name, 0), DL_Attributes("", l.colour, 25, l.line, 1.0)); };
    layer({ "0", 7, "CONTINUOUS" });
    for (const paper::Pen pen : pens)
        layer(layerOf(pen));
    layer(lettering);
    layer(dimensioning);
    w.tableEnd();
    w.tableStyle(1);
    dxf.writeStyle(w, DL_StyleData("Standard", 0, 2.5, 1.0, 0.0, 0, 2.5, "txt", ""));
    w.tableEnd();
    dxf.writeView(w);
    dxf.writeUcs(w);
    w.tableAppid(1);
    dxf.writeAppid(w, "ACAD");
    w.tableEnd();
    dxf.writeDimStyle(w, 2.5, 1, 0.6, 0.6, 2.5);
    dxf.writeBlockRecord(w);
    for (std::size_t i = 0; i < drawing.dimensions.size(); ++i)
        dxf.writeBlockRecord(w, blockOf(i));
    w.tableEnd();
    w.sectionEnd();
    w.sectionBlocks();
    for (const char* block : { "*Model_Space", "*Paper_Space", "*Paper_Space0" }) {
        dxf.writeBlock(w, DL_BlockData(block, 0, 0.0, 0.0, 0.0));
        dxf.writeEndBlock(w, block);
    }
    for (std::size_t i = 0; i < drawing.dimensions.size(); ++i) {
        const paper::Dimension& d = drawing.dimensions[i];
        dxf.writeBlock(w, DL_BlockData(blockOf(i), 1, 0.0, 0.0, 0.0));
        for (std::size_t k = d.firstStroke; k < d.firstStroke + d.strokes; ++k)
            writeStroke(drawing.strokes[k], dxf, w, dimensioning.name);
        writeLetters(drawing.letters[d.letter], dxf, w, dimensioning.name);
        dxf.writeEndBlock(w, blockOf(i));
    }
    w.sectionEnd();
    w.sectionEntities();
    for (std::size_t i = 0; i < drawing.strokes.size(); ++i)
        if (!strokeOfDimension[i])
            writeStroke(drawing.strokes[i], dxf, w, layerOf(drawing.strokes[i].pen).name);
    for (std::size_t i = 0; i < drawing.letters.size(); ++i)
        if (!letterOfDimension[i])
            writeLetters(drawing.letters[i], dxf, w, lettering.name);
    for (std::size_t i = 0; i < drawing.dimensions.size(); ++i)
        writeDimension(drawing, i, w);
    const auto extent = paper::extentOf(drawing);
    double y = extent.low.y - 10e-3;
    writeLetters({ { extent.low.x, y }, drawing.title, 4e-3 }, dxf, w, lettering.name);
    for (const std::string& note : drawing.notes)
        writeLetters({ { extent.low.x, y -= 5e-3 }, note, 2.8e-3 }, dxf, w, lettering.name);
    w.sectionEnd();
    dxf.writeObjects(w);
    dxf.writeObjectsEnd(w);
    w.dxfEOF();
    w.close();
}

} // namespace

std::string dxfOf(const paper::Drawing& drawing)
{
    checkDrawable(drawing);
    auto text = writtenThrough([&](const char* path) {
        DL_Dxf dxf;
        const std::unique_ptr<DL_WriterA> out(dxf.out(path, DL_Codes::AC1015));
        if (!out)
            return false;
        write(drawing, dxf, *out);
        return true;
    });
    // The library does not say when it could not write all.
    if (text.find("EOF", text.size() - std::min<std::size_t>(text.size(), 8)) == std::string::npos)
        throw Refusal("The drawing could not be written whole; there may be too little memory.");
    return text;
}

} // namespace deepstop::files
