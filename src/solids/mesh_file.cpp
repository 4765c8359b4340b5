#include "solids/mesh_file.hpp"

#include "files/disk.hpp"
#include "files/mesh_text.hpp"
#include "language/language.hpp"
#include "solids/check_sum.hpp"
#include "solids/step_shape.hpp"
#include "task/cancel.hpp"

#include <BRepMesh_IncrementalMesh.hxx>
#include <BRep_Tool.hxx>
#include <Poly_Triangulation.hxx>
#include <Standard_Failure.hxx>
#include <TopExp_Explorer.hxx>
#include <TopoDS.hxx>

#include <array>

namespace deepstop::solids {
namespace {

using files::Refusal;

scan::Mesh fromStep(const std::string& bytes, const std::string& name)
{
    scan::Mesh mesh;
    try {
        const TopoDS_Shape shape = shapeIn(bytes, name);
        constexpr double chords = 0.02; // mm
        BRepMesh_IncrementalMesh(shape, chords, false, 0.1, true);
        for (TopExp_Explorer faces(shape, TopAbs_FACE); faces.More(); faces.Next()) {
            endIfCancelled();
            const TopoDS_Face face = TopoDS::Face(faces.Current());
            TopLoc_Location place;
            const auto part = BRep_Tool::Triangulation(face, place);
            if (part.IsNull())
                continue;
            for (int t = 1; t <= part->NbTriangles(); ++t) {
                int n[3];
                part->Triangle(t).Get(n[0], n[1], n[2]);
                if (face.Orientation() == TopAbs_REVERSED)
                    std::swap(n[1], n[2]);
                std::array<std::array<float, 3>, 3> corners {};
                for (std::size_t k = 0; k < 3; ++k) {
                    const gp_Pnt p = part->Node(n[k]).Transformed(place);
                    corners[k] = { static_cast<float>(p.X()), static_cast<float>(p.Y()), static_cast<float>(p.Z()) };
                }
                mesh.corners.insert(mesh.corners.end(), corners.begin(), corners.end());
            }
        }
    } catch (const Standard_Failure& e) {
        throw Refusal(tr("{}: there is no solid in it that can be read ({}).", name, std::string(e.GetMessageString())));
    }
    return mesh;
}

} // namespace

LoadedMesh meshOf(const std::string& bytes, const std::string& name)
{
    LoadedMesh loaded;
    loaded.hash = sha256(bytes);
    if (!std::string_view(bytes).starts_with("ISO-10303-21")) {
        loaded.mesh = files::readMesh(bytes, name);
        return loaded;
    }
    loaded.mesh = fromStep(bytes, name);
    loaded.unit = scan::FileUnit::Millimetre;
    if (loaded.mesh.triangles() == 0)
        throw Refusal(tr("{}: there is no solid in it that can be read.", name));
    return loaded;
}

LoadedMesh loadMesh(const std::filesystem::path& path) { return meshOf(files::readFile(path, largestMeshFile), path.string()); }

} // namespace deepstop::solids
