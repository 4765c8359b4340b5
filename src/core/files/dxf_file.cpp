#include "files/paper_files.hpp"

#include "files/disk.hpp"

#include <dl_dxf.h>
#include <dl_writer_ascii.h>

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <memory>

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

void write(const paper::Drawing& drawing, DL_Dxf& dxf, DL_WriterA& w)
{
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
    w.tableLayers(static_cast<int>(pens.size()) + 2);
    const auto layer = [&](const Layer& l) { dxf.writeLayer(w, DL_LayerData(l.name, 0), DL_Attributes("", l.colour, 25, l.line, 1.0)); };
    layer({ "0", 7, "CONTINUOUS" });
    for (const paper::Pen pen : pens)
        layer(layerOf(pen));
    layer(lettering);
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
    w.tableEnd();
    w.sectionEnd();
    w.sectionBlocks();
    for (const char* block : { "*Model_Space", "*Paper_Space", "*Paper_Space0" }) {
        dxf.writeBlock(w, DL_BlockData(block, 0, 0.0, 0.0, 0.0));
        dxf.writeEndBlock(w, block);
    }
    w.sectionEnd();
    w.sectionEntities();
    for (const paper::Stroke& stroke : drawing.strokes) {
        const DL_Attributes with(layerOf(stroke.pen).name, 256, -1, "BYLAYER", 1.0);
        dxf.writePolyline(w, DL_PolylineData(static_cast<int>(stroke.points.size()), 0, 0, stroke.closed ? 1 : 0), with);
        for (const paper::Point p : stroke.points)
            dxf.writeVertex(w, DL_VertexData(p.x * perMetre, p.y * perMetre, 0.0));
        dxf.writePolylineEnd(w);
    }
    const auto letters = [&](paper::Point at, const std::string& text, double height, paper::Anchor anchor, bool upright) {
        const int along = anchor == paper::Anchor::Left ? 0 : anchor == paper::Anchor::Middle ? 1 : 2;
        dxf.writeText(w,
            DL_TextData(at.x * perMetre, at.y * perMetre, 0, at.x * perMetre, at.y * perMetre, 0, height * perMetre, 1.0, 0, along, 0,
                escaped(text), "Standard", upright ? 1.5707963267948966 : 0.0),
            DL_Attributes(lettering.name, 256, -1, "BYLAYER", 1.0));
    };
    for (const paper::Lettering& l : drawing.letters)
        letters(l.at, l.text, l.height, l.anchor, l.upright);
    const auto extent = paper::extentOf(drawing);
    double y = extent.low.y - 10e-3;
    letters({ extent.low.x, y }, drawing.title, 4e-3, paper::Anchor::Left, false);
    for (const std::string& note : drawing.notes)
        letters({ extent.low.x, y -= 5e-3 }, note, 2.8e-3, paper::Anchor::Left, false);
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
