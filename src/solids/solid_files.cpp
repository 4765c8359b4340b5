#include "solids/solid_files.hpp"

#include "files/disk.hpp"
#include "files/exports.hpp"
#include "files/paper_files.hpp"
#include "language/language.hpp"

#include <BRepAlgoAPI_Cut.hxx>
#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepBuilderAPI_MakeEdge.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_MakePolygon.hxx>
#include <BRepBuilderAPI_MakeWire.hxx>
#include <BRepCheck_Analyzer.hxx>
#include <BRepMesh_IncrementalMesh.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepPrimAPI_MakePrism.hxx>
#include <BRepPrimAPI_MakeRevol.hxx>
#include <Interface_Static.hxx>
#include <Message.hxx>
#include <Message_Messenger.hxx>
#include <STEPControl_Writer.hxx>
#include <Standard_Failure.hxx>
#include <StlAPI_Writer.hxx>
#include <TopoDS.hxx>
#include <TopoDS_Shape.hxx>
#include <TopTools_ListOfShape.hxx>
#include <TopoDS_Wire.hxx>
#include <gp_Circ.hxx>
#include <gp_Pln.hxx>
#include <gp_Vec.hxx>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <functional>
#include <numbers>

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

namespace {

std::string stepOf(const TopoDS_Shape& solid, const std::string& title, const std::string& material)
{
    // The kernel's remarks about its own work belong to nobody.
    Message::DefaultMessenger()->RemovePrinters(STANDARD_TYPE(Message_Printer));
    STEPControl_Writer writer;
    const std::string name = tr("{}, {}, to be judged by a qualified engineer", title, material);
    Interface_Static::SetCVal("write.step.product.name", name.c_str());
    Interface_Static::SetCVal("write.step.unit", "MM");
    if (writer.Transfer(solid, STEPControl_AsIs) != IFSelect_RetDone)
        throw files::Refusal(tr("{}: the solid could not be put into STEP.", title));
    return whole("END-ISO-10303-21", [&](const char* path) { return writer.Write(path) == IFSelect_RetDone; });
}

std::string stlOf(const TopoDS_Shape& solid, const std::string& title)
{
    BRepMesh_IncrementalMesh mesh(solid, meshError);
    std::string text = whole("endsolid", [&](const char* path) {
        StlAPI_Writer writer;
        writer.ASCIIMode() = true;
        return static_cast<bool>(writer.Write(solid, path));
    });
    const std::string name = tr("solid {}, fit check only, never drive", title);
    text.replace(0, text.find('\n'), name);
    return text;
}

/// By the ending of `path`; `step` and `stl` are asked only for theirs.
void write(const std::string& path, const std::function<std::string()>& step, const std::function<std::string()>& stl,
    const paper::Drawing& drawing, const paper::Size& size)
{
    const auto ending = std::filesystem::path(path).extension().string();
    if (ending == ".step" || ending == ".stp")
        files::exportFile(path, step());
    else if (ending == ".stl")
        files::exportFile(path, stl());
    else if (ending == ".pdf" || ending == ".svg" || ending == ".dxf")
        files::writePaper(path, drawing, size);
    else
        throw files::Refusal(tr("{}: the name has to end in .step, .stl, .dxf, .pdf or .svg.", path));
}

TopoDS_Face faceOf(const geometry::Chain& section)
{
    BRepBuilderAPI_MakePolygon polygon;
    for (const geometry::Point p : section)
        polygon.Add(gp_Pnt(p.z * perMetre, p.r * perMetre, 0));
    polygon.Close();
    return BRepBuilderAPI_MakeFace(polygon.Wire()).Face();
}

/// The axis of a turned part is x.
TopoDS_Shape solidOf(const design::Turned& part)
{
    constexpr double farthest = 5;
    for (const geometry::Chain& section : part.sections)
        for (const geometry::Point p : section)
            if (!(std::abs(p.z) <= farthest && p.r >= 0 && p.r <= farthest))
                throw files::Refusal(tr("{}: a dimension lacks or is larger than any part of a car.", part.title));
    if (part.sections.empty() || !(design::volumeOf(part) > 0))
        throw files::Refusal(tr("{}: no solid can be made of it; its dimensions contradict each other.", part.title));
    try {
        std::vector<TopoDS_Shape> bodies;
        for (const geometry::Chain& section : part.sections)
            bodies.push_back(BRepPrimAPI_MakeRevol(faceOf(section), gp::OX()).Shape());
        if (part.vanes) {
            // Turned from the face's plane, y up and x to the right seen from outboard, into the solid's: its x is the axis.
            for (int i = 0; i < part.vanes->count; ++i) {
                const double angle = -2 * std::numbers::pi * i / part.vanes->count;
                BRepBuilderAPI_MakePolygon polygon;
                for (const paper::Point p : design::vaneOutline(*part.vanes)) {
                    const double across = p.x * std::cos(angle) - p.y * std::sin(angle);
                    const double up = p.x * std::sin(angle) + p.y * std::cos(angle);
                    polygon.Add(gp_Pnt(part.vanes->from * perMetre, up * perMetre, -across * perMetre));
                }
                polygon.Close();
                const TopoDS_Face face = BRepBuilderAPI_MakeFace(polygon.Wire()).Face();
                bodies.push_back(BRepPrimAPI_MakePrism(face, gp_Vec((part.vanes->to - part.vanes->from) * perMetre, 0, 0)).Shape());
            }
        }
        TopoDS_Shape solid = bodies.front();
        if (bodies.size() > 1) {
            BRepAlgoAPI_Fuse fuse;
            TopTools_ListOfShape first;
            TopTools_ListOfShape rest;
            first.Append(bodies.front());
            for (std::size_t i = 1; i < bodies.size(); ++i)
                rest.Append(bodies[i]);
            fuse.SetArguments(first);
            fuse.SetTools(rest);
            fuse.SetRunParallel(true);
            // Plates and vanes only touch: nothing has to be cut where they do.
            fuse.SetGlue(BOPAlgo_GlueShift);
            fuse.Build();
            solid = fuse.Shape();
        }
        TopTools_ListOfShape drills;
        for (const design::HoleCircle& holes : part.holes)
            for (int i = 0; i < holes.count; ++i) {
                const double angle = std::numbers::pi / 2 + 2 * std::numbers::pi * i / holes.count;
                const double past = 1e-3;
                const gp_Ax2 along(gp_Pnt((holes.from - past) * perMetre, holes.circle / 2 * std::sin(angle) * perMetre,
                                       -holes.circle / 2 * std::cos(angle) * perMetre),
                    gp::DX());
                drills.Append(
                    BRepPrimAPI_MakeCylinder(along, holes.diameter / 2 * perMetre, (holes.to - holes.from + 2 * past) * perMetre).Shape());
            }
        if (!drills.IsEmpty()) {
            BRepAlgoAPI_Cut cut;
            TopTools_ListOfShape body;
            body.Append(solid);
            cut.SetArguments(body);
            cut.SetTools(drills);
            cut.Build();
            solid = cut.Shape();
        }
        if (!BRepCheck_Analyzer(solid).IsValid())
            throw files::Refusal(tr("{}: its holes cross each other or its edge; no solid can be made of it.", part.title));
        return solid;
    } catch (const Standard_Failure& failure) {
        throw files::Refusal(tr("{}: no solid can be made of it ({}).", part.title, failure.GetMessageString()));
    }
}

} // namespace

std::string stepOf(const bracket::Plate& plate) { return stepOf(solidOf(plate), plate.title, plate.material); }
std::string stlOf(const bracket::Plate& plate) { return stlOf(solidOf(plate), plate.title); }
std::string stepOf(const design::Turned& part) { return stepOf(solidOf(part), part.title, part.material); }
std::string stlOf(const design::Turned& part) { return stlOf(solidOf(part), part.title); }

void writePlate(const std::string& path, const bracket::Plate& plate, const paper::Drawing& drawing, const paper::Size& size)
{
    write(
        path, [&] { return stepOf(plate); }, [&] { return stlOf(plate); }, drawing, size);
}

void writeTurned(const std::string& path, const design::Turned& part, const paper::Drawing& drawing, const paper::Size& size)
{
    write(
        path, [&] { return stepOf(part); }, [&] { return stlOf(part); }, drawing, size);
}

} // namespace deepstop::solids
