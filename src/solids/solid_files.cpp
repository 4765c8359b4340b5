#include "solids/solid_files.hpp"

#include "files/disk.hpp"
#include "files/exports.hpp"
#include "files/paper_files.hpp"
#include "language/language.hpp"

#include <BRepAlgoAPI_Cut.hxx>
#include <BRepBuilderAPI_MakeEdge.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_MakePolygon.hxx>
#include <BRepBuilderAPI_MakeWire.hxx>
#include <BRepCheck_Analyzer.hxx>
#include <BRepMesh_IncrementalMesh.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepPrimAPI_MakePrism.hxx>
#include <Interface_Static.hxx>
#include <Message.hxx>
#include <Message_Messenger.hxx>
#include <STEPControl_Writer.hxx>
#include <Standard_Failure.hxx>
#include <StlAPI_Writer.hxx>
#include <TopoDS.hxx>
#include <TopoDS_Shape.hxx>
#include <TopoDS_Wire.hxx>
#include <gp_Circ.hxx>
#include <gp_Pln.hxx>
#include <gp_Vec.hxx>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <functional>

namespace deepstop::solids {
namespace {

constexpr double perMetre = 1000;
constexpr double meshError = 0.02; ///< mm

TopoDS_Wire circle(double x, double y, double diameter)
{
    const gp_Circ round(gp_Ax2(gp_Pnt(x * perMetre, y * perMetre, 0), gp::DZ()), diameter / 2 * perMetre);
    return BRepBuilderAPI_MakeWire(BRepBuilderAPI_MakeEdge(round)).Wire();
}

TopoDS_Shape solidOf(const bracket::Plate& plate)
{
    if (!(plate.thickness > 0) || plate.outline.size() < 3)
        throw files::Refusal(tr("{}: no solid can be made of a plate without thickness or outline.", plate.title));
    // The kernel is given nothing that no plate can be: it might never end.
    constexpr double farthest = 5;
    const auto sound = [](double length) { return std::abs(length) <= farthest; };
    if (!sound(plate.thickness) || !sound(plate.diameter.value_or(0))
        || !std::ranges::all_of(plate.outline, [&](paper::Point p) { return sound(p.x) && sound(p.y); })
        || !std::ranges::all_of(plate.holes, [&](const bracket::Hole& h) { return sound(h.x) && sound(h.y) && sound(h.diameter); })
        || !std::ranges::all_of(
            plate.bores, [&](const bracket::EdgeBore& b) { return sound(b.x) && sound(b.mouth) && b.depth > 0 && b.diameter > 0; }))
        throw files::Refusal(tr("{}: a reading makes the plate larger than any part of a car. Look at what was typed last.", plate.title));
    try {
        TopoDS_Wire outer;
        if (plate.diameter) {
            outer = circle(0, 0, *plate.diameter);
        } else {
            BRepBuilderAPI_MakePolygon polygon;
            for (const paper::Point p : plate.outline)
                polygon.Add(gp_Pnt(p.x * perMetre, p.y * perMetre, 0));
            polygon.Close();
            outer = polygon.Wire();
        }
        BRepBuilderAPI_MakeFace face(gp_Pln(gp::Origin(), gp::DZ()), outer);
        for (const bracket::Hole& hole : plate.holes)
            if (hole.diameter > 0)
                face.Add(TopoDS::Wire(circle(hole.x, hole.y, hole.diameter).Reversed()));
        TopoDS_Shape solid = BRepPrimAPI_MakePrism(face.Face(), gp_Vec(0, 0, plate.thickness * perMetre)).Shape();
        for (const bracket::EdgeBore& bore : plate.bores) {
            const gp_Ax2 inward(gp_Pnt(bore.x * perMetre, bore.mouth * perMetre, plate.thickness / 2 * perMetre), -gp::DY());
            solid = BRepAlgoAPI_Cut(solid, BRepPrimAPI_MakeCylinder(inward, bore.diameter / 2 * perMetre, bore.depth * perMetre).Shape())
                        .Shape();
        }
        if (!BRepCheck_Analyzer(solid).IsValid())
            throw files::Refusal(tr("{}: its holes cross each other or its edge; no solid can be made of it.", plate.title));
        return solid;
    } catch (const Standard_Failure& failure) {
        throw files::Refusal(tr("{}: no solid can be made of it ({}).", plate.title, failure.GetMessageString()));
    }
}

/// What the kernel writes, which has to end as such a file does.
std::string whole(std::string_view ending, const std::function<bool(const char* path)>& write)
{
    auto text = files::writtenThrough(write);
    if (text.find(ending, text.size() - std::min<std::size_t>(text.size(), 200)) == std::string::npos)
        throw files::Refusal(tr("The solid could not be written whole; there may be too little memory."));
    return text;
}

} // namespace

std::string stepOf(const bracket::Plate& plate)
{
    const TopoDS_Shape solid = solidOf(plate);
    // The kernel's remarks about its own work belong to nobody.
    Message::DefaultMessenger()->RemovePrinters(STANDARD_TYPE(Message_Printer));
    STEPControl_Writer writer;
    const std::string name = tr("{}, {}, to be judged by a qualified engineer", plate.title, plate.material);
    Interface_Static::SetCVal("write.step.product.name", name.c_str());
    Interface_Static::SetCVal("write.step.unit", "MM");
    if (writer.Transfer(solid, STEPControl_AsIs) != IFSelect_RetDone)
        throw files::Refusal(tr("{}: the solid could not be put into STEP.", plate.title));
    return whole("END-ISO-10303-21", [&](const char* path) { return writer.Write(path) == IFSelect_RetDone; });
}

std::string stlOf(const bracket::Plate& plate)
{
    const TopoDS_Shape solid = solidOf(plate);
    BRepMesh_IncrementalMesh mesh(solid, meshError);
    std::string text = whole("endsolid", [&](const char* path) {
        StlAPI_Writer writer;
        writer.ASCIIMode() = true;
        return static_cast<bool>(writer.Write(solid, path));
    });
    const std::string name = tr("solid {}, fit check only, never drive", plate.title);
    text.replace(0, text.find('\n'), name);
    return text;
}

void writePlate(const std::string& path, const bracket::Plate& plate, const paper::Drawing& drawing, const paper::Size& size)
{
    const auto ending = std::filesystem::path(path).extension().string();
    if (ending == ".step" || ending == ".stp")
        files::exportFile(path, stepOf(plate));
    else if (ending == ".stl")
        files::exportFile(path, stlOf(plate));
    else if (ending == ".pdf" || ending == ".svg" || ending == ".dxf")
        files::writePaper(path, drawing, size);
    else
        throw files::Refusal(tr("{}: the name has to end in .step, .stl, .dxf, .pdf or .svg.", path));
}

} // namespace deepstop::solids
