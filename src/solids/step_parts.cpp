#include "solids/step_parts.hpp"

#include "files/disk.hpp"
#include "language/language.hpp"
#include "materials/materials.hpp"
#include "solids/check_sum.hpp"
#include "solids/step_shape.hpp"

#include <boost/interprocess/streams/bufferstream.hpp>

#include <BRepAdaptor_Curve.hxx>
#include <BRepAdaptor_Surface.hxx>
#include <BRepGProp.hxx>
#include <BRepTools.hxx>
#include <BRep_Tool.hxx>
#include <GProp_GProps.hxx>
#include <Message.hxx>
#include <Message_Messenger.hxx>
#include <Message_Printer.hxx>
#include <STEPControl_Reader.hxx>
#include <Standard_Failure.hxx>
#include <TopExp_Explorer.hxx>
#include <TopoDS.hxx>
#include <gp_Cylinder.hxx>
#include <gp_Pln.hxx>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <optional>

namespace deepstop::solids {
namespace {

using files::Refusal;
using Triple = std::array<double, 3>;

constexpr double perMillimetre = 1e-3;

Triple triple(const gp_XYZ& v, double unit = 1) { return { v.X() * unit, v.Y() * unit, v.Z() * unit }; }
double dotOf(const Triple& a, const Triple& b) { return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]; }
Triple less(const Triple& a, const Triple& b) { return { a[0] - b[0], a[1] - b[1], a[2] - b[2] }; }

void addFace(ReadSolid& solid, const TopoDS_Face& face)
{
    const BRepAdaptor_Surface surface(face);
    const bool reversed = face.Orientation() == TopAbs_REVERSED;
    if (surface.GetType() == GeomAbs_Cylinder) {
        const gp_Cylinder cylinder = surface.Cylinder();
        double u0 = 0, u1 = 0, v0 = 0, v1 = 0;
        BRepTools::UVBounds(face, u0, u1, v0, v1);
        RoundWall wall;
        wall.through = triple(cylinder.Location().XYZ(), perMillimetre);
        wall.along = triple(cylinder.Axis().Direction().XYZ());
        wall.radius = cylinder.Radius() * perMillimetre;
        wall.from = v0 * perMillimetre;
        wall.to = v1 * perMillimetre;
        wall.turn = u1 - u0;
        // The surface's own normal looks away from the axis in a right-handed frame; the face's away from the metal.
        wall.hole = reversed == cylinder.Direct();
        solid.walls.push_back(wall);
    } else if (surface.GetType() == GeomAbs_Plane) {
        FlatFace flat;
        GProp_GProps properties;
        BRepGProp::SurfaceProperties(face, properties);
        flat.area = properties.Mass() * perMillimetre * perMillimetre;
        flat.at = triple(properties.CentreOfMass().XYZ(), perMillimetre);
        const gp_Ax3 place = surface.Plane().Position();
        flat.normal = triple(place.Direction().XYZ(), reversed == place.Direct() ? -1 : 1);
        for (TopExp_Explorer edges(face, TopAbs_EDGE); edges.More(); edges.Next()) {
            const TopoDS_Edge edge = TopoDS::Edge(edges.Current());
            if (BRep_Tool::Degenerated(edge))
                continue;
            const BRepAdaptor_Curve curve(edge);
            constexpr int places = 16;
            for (int i = 0; i <= places; ++i) {
                const double at = std::lerp(curve.FirstParameter(), curve.LastParameter(), static_cast<double>(i) / places);
                flat.edge.push_back(triple(curve.Value(at).XYZ(), perMillimetre));
            }
        }
        solid.faces.push_back(std::move(flat));
    }
}

} // namespace

TopoDS_Shape shapeIn(const std::string& bytes, const std::string& name)
{
    Message::DefaultMessenger()->RemovePrinters(STANDARD_TYPE(Message_Printer)); // what it has to say is said here
    STEPControl_Reader reader;
    boost::interprocess::ibufferstream stream(bytes.data(), bytes.size());
    if (reader.ReadStream(name.c_str(), stream) != IFSelect_RetDone || reader.TransferRoots() < 1)
        throw Refusal(tr("{}: there is no solid in it that can be read.", name));
    return reader.OneShape();
}

ReadSolid readStepText(const std::string& bytes, const std::string& name)
{
    if (!std::string_view(bytes).starts_with("ISO-10303-21"))
        throw Refusal(tr("{}: is no STEP file.", name));
    ReadSolid solid;
    solid.hash = sha256(bytes);
    try {
        const TopoDS_Shape shape = shapeIn(bytes, name);
        for (TopExp_Explorer faces(shape, TopAbs_FACE); faces.More(); faces.Next())
            addFace(solid, TopoDS::Face(faces.Current()));
        GProp_GProps properties;
        BRepGProp::VolumeProperties(shape, properties);
        solid.volume = std::abs(properties.Mass()) * std::pow(perMillimetre, 3);
    } catch (const Standard_Failure& e) {
        throw Refusal(tr("{}: there is no solid in it that can be read ({}).", name, std::string(e.GetMessageString())));
    }
    if (solid.walls.empty() && solid.faces.empty())
        throw Refusal(tr("{}: there is no solid in it that can be read.", name));
    return solid;
}

ReadSolid readStep(const std::filesystem::path& path) { return readStepText(files::readFile(path), path.string()); }

namespace {

constexpr double same = 5e-6; ///< m: two places are one

/// A solid's walls and faces about one axis.
class Turning {
public:
    explicit Turning(const ReadSolid& solid, const std::string& name) : solid_(solid)
    {
        double most = 0;
        for (const RoundWall& wall : solid.walls) {
            double area = 0;
            for (const RoundWall& other : solid.walls)
                if (isOn(other, wall))
                    area += other.radius * other.turn * (other.to - other.from);
            if (area > most) {
                most = area;
                axis_ = wall;
            }
        }
        if (!(most > 0))
            throw Refusal(tr("{}: there is no round wall in it: it is no rotor.", name));
    }

    struct Wall {
        double radius, from, to;
        bool hole;
    };
    [[nodiscard]] std::vector<Wall> walls() const
    {
        std::vector<Wall> all;
        for (const RoundWall& wall : solid_.walls) {
            if (!isOn(wall, axis_))
                continue;
            const double base = along(wall.through);
            const double sense = dotOf(wall.along, axis_.along) > 0 ? 1 : -1;
            const auto [low, high] = std::minmax(base + sense * wall.from, base + sense * wall.to);
            all.push_back({ wall.radius, low, high, wall.hole });
        }
        return all;
    }
    struct Flat {
        double z, inner, outer, area;
        bool up; ///< looks along the axis
    };
    [[nodiscard]] std::vector<Flat> flats() const
    {
        std::vector<Flat> all;
        for (const FlatFace& face : solid_.faces) {
            const double facing = dotOf(face.normal, axis_.along);
            if (std::abs(facing) < 1 - 1e-6 || face.edge.empty())
                continue;
            Flat flat { along(face.at), 1e9, 0, face.area, facing > 0 };
            for (const Triple& p : face.edge) {
                flat.inner = std::min(flat.inner, radiusOf(p));
                flat.outer = std::max(flat.outer, radiusOf(p));
            }
            all.push_back(flat);
        }
        return all;
    }
    [[nodiscard]] std::vector<HoleRing> holes() const
    {
        std::map<std::pair<long, long>, HoleRing> rings;
        std::vector<Triple> counted;
        for (const RoundWall& wall : solid_.walls) {
            if (!wall.hole || isOn(wall, axis_) || std::abs(dotOf(wall.along, axis_.along)) < 1 - 1e-6)
                continue;
            const double circle = 2 * radiusOf(wall.through);
            // A hole in two halves, or through two plates, is one hole.
            const auto once = [&](const Triple& other) {
                const Triple apart = less(wall.through, other);
                const double up = dotOf(apart, axis_.along);
                return std::sqrt(std::max(0.0, dotOf(apart, apart) - up * up)) < 10 * same;
            };
            if (std::ranges::any_of(counted, once))
                continue;
            counted.push_back(wall.through);
            HoleRing& ring = rings[{ std::lround(circle / 2e-5), std::lround(wall.radius / 1e-5) }];
            ++ring.count;
            ring.diameter = 2 * wall.radius;
            ring.circle = circle;
        }
        std::vector<HoleRing> all;
        for (const auto& [key, ring] : rings)
            all.push_back(ring);
        std::ranges::sort(all, std::greater<> {}, &HoleRing::circle);
        return all;
    }

private:
    [[nodiscard]] double along(const Triple& p) const { return dotOf(less(p, axis_.through), axis_.along); }
    [[nodiscard]] double radiusOf(const Triple& p) const
    {
        const Triple apart = less(p, axis_.through);
        const double up = dotOf(apart, axis_.along);
        return std::sqrt(std::max(0.0, dotOf(apart, apart) - up * up));
    }
    static bool isOn(const RoundWall& wall, const RoundWall& axis)
    {
        const Triple apart = less(wall.through, axis.through);
        const double up = dotOf(apart, axis.along);
        return std::abs(dotOf(wall.along, axis.along)) > 1 - 1e-9 && std::sqrt(std::max(0.0, dotOf(apart, apart) - up * up)) < same;
    }

    const ReadSolid& solid_;
    RoundWall axis_;
};

Reading fromSolid(double value)
{
    Reading r;
    r.value = value;
    r.known = Known::Vendor;
    r.instrument = "solid";
    return r;
}

} // namespace

ReadRotor rotorIn(const ReadSolid& solid, const std::string& name)
{
    const Turning turning(solid, name);
    const auto walls = turning.walls();
    auto flats = turning.flats();
    ReadRotor read;
    read.holes = turning.holes();
    read.volume = solid.volume;
    Rotor& r = read.rotor;
    double outer = 0;
    double bore = 1e9;
    for (const auto& wall : walls) {
        if (!wall.hole)
            outer = std::max(outer, wall.radius);
        else
            bore = std::min(bore, wall.radius);
    }
    if (!(outer > 0))
        throw Refusal(tr("{}: nothing in it is turned on its outside: it is no rotor.", name));
    r.outerDiameter = fromSolid(2 * outer);
    if (bore < outer)
        r.bore = fromSolid(2 * bore);

    // Friction faces reach out to the edge, but for a chamfer, and are broad.
    constexpr double chamfer = 4e-3;
    constexpr double broad = 15e-3;
    std::vector<Turning::Flat> friction;
    for (const auto& flat : flats)
        if (flat.outer > outer - chamfer && flat.outer - flat.inner > broad)
            friction.push_back(flat);
    std::ranges::sort(friction, {}, &Turning::Flat::z);
    // A thin flange with holes through it is what a ring is bolted to.
    constexpr double flange = 10e-3;
    if (friction.size() >= 2 && friction.back().z - friction.front().z < flange && std::ranges::any_of(read.holes, [&](const HoleRing& h) {
            return h.circle > 2 * friction.front().inner && h.circle < 2 * outer && h.count <= 16;
        }))
        friction.clear();
    if (friction.size() < 2) {
        read.remarks.push_back(tr("No two friction faces reach its edge: it is read as a hat."));
    } else {
        const auto& low = friction.front();
        const auto& high = friction.back();
        r.thickness = fromSolid(high.z - low.z);
        // The hat stands on one side; the inboard face is the other.
        double above = 0;
        double below = 0;
        for (const auto& flat : flats) {
            above = std::max(above, flat.z - high.z);
            below = std::max(below, low.z - flat.z);
        }
        const bool hatAbove = above >= below;
        const auto& inboard = hatAbove ? low : high;
        r.ringInnerDiameter = fromSolid(2 * inboard.inner);
        const double hat = std::max(above, below);
        if (hat > 1e-3) {
            const double wheelFace = hatAbove ? high.z + above : low.z - below;
            r.overallHeight = fromSolid(std::abs(wheelFace - inboard.z));
        } else {
            read.remarks.push_back(tr("No hat stands beyond its friction faces: it is read as a ring alone."));
        }
        // Air between the plates: faces that look at each other inside.
        double gapLow = 1e9;
        double gapHigh = -1e9;
        for (const auto& flat : flats) {
            const bool inside = flat.z > low.z + 1e-3 && flat.z < high.z - 1e-3 && flat.outer > 0.8 * outer;
            if (inside && flat.up)
                gapLow = std::min(gapLow, flat.z);
            if (inside && !flat.up)
                gapHigh = std::max(gapHigh, flat.z);
        }
        if (gapHigh > gapLow)
            r.ventGap = fromSolid(gapHigh - gapLow);
    }
    // The hat's plate is what the bore goes through.
    if (r.bore.value) {
        std::vector<double> plates;
        for (const auto& flat : flats)
            if (flat.inner < bore + chamfer && flat.outer > bore + 5e-3)
                plates.push_back(flat.z);
        std::ranges::sort(plates);
        if (plates.size() >= 2)
            r.hatThickness = fromSolid(plates.back() - plates.front());
    }
    // The hat's own outside, and what the hub enters, lie between bore and ring.
    const double within = r.ringInnerDiameter.value ? *r.ringInnerDiameter.value / 2 : outer - 2 * same;
    double hatOuter = 0;
    double pocket = 0;
    for (const auto& wall : walls) {
        if (!wall.hole && wall.radius < within + same)
            hatOuter = std::max(hatOuter, wall.radius);
        if (wall.hole && wall.radius > bore + 5e-3 && wall.radius < within - same)
            pocket = std::max(pocket, wall.radius);
    }
    if (hatOuter > 0 && hatOuter < outer - same)
        r.hatOuterDiameter = fromSolid(2 * hatOuter);
    if (pocket > 0) {
        r.pocketDiameter = fromSolid(2 * pocket);
        if (hatOuter > pocket)
            r.hatWall = fromSolid(hatOuter - pocket);
    }
    // Nearest the bore are the wheel's studs; a few holes only, and all of one size.
    for (auto ring = read.holes.rbegin(); ring != read.holes.rend(); ++ring)
        if (ring->count >= 3 && ring->count <= 10 && ring->circle > 2 * bore && ring->diameter > 8e-3) {
            r.boltCircle = fromSolid(ring->circle);
            r.boltHoles = ring->count;
            r.boltHoleDiameter = fromSolid(ring->diameter);
            break;
        }
    return read;
}

Rotor rotorWith(Rotor rotor, const ReadRotor& read)
{
    for (Reading Rotor::*each : { &Rotor::outerDiameter, &Rotor::thickness, &Rotor::ringInnerDiameter, &Rotor::overallHeight,
             &Rotor::hatThickness, &Rotor::hatOuterDiameter, &Rotor::hatWall, &Rotor::bore, &Rotor::pocketDiameter, &Rotor::boltCircle,
             &Rotor::boltHoleDiameter, &Rotor::ventGap }) {
        const Reading& from = read.rotor.*each;
        Reading& into = rotor.*each;
        if (from.value && !(into.value && into.known == Known::Measured))
            into = from;
    }
    if (read.rotor.boltHoles != notCounted)
        rotor.boltHoles = read.rotor.boltHoles;
    return rotor;
}

MountingHoles mountingHolesIn(const ReadSolid& solid, const std::string& name)
{
    Triple body {};
    double all = 0;
    for (const FlatFace& face : solid.faces) {
        for (std::size_t i = 0; i < 3; ++i)
            body[i] += face.area * face.at[i];
        all += face.area;
    }
    if (all > 0)
        for (double& each : body)
            each /= all;
    std::optional<MountingHoles> best;
    double farthest = 40e-3;
    const auto end = [&](const RoundWall& wall) {
        Triple at = wall.through;
        const double from = dotOf(less(body, wall.through), wall.along);
        const double far = std::abs(wall.from - from) > std::abs(wall.to - from) ? wall.from : wall.to;
        for (std::size_t i = 0; i < 3; ++i)
            at[i] += far * wall.along[i];
        return at;
    };
    for (const RoundWall& one : solid.walls)
        for (const RoundWall& other : solid.walls) {
            if (&one >= &other || !one.hole || !other.hole || one.radius < 4e-3 || one.radius > 8e-3
                || std::abs(one.radius - other.radius) > same || std::abs(dotOf(one.along, other.along)) < 1 - 1e-6)
                continue;
            const Triple apart = less(one.through, other.through);
            const double up = dotOf(apart, one.along);
            const double spacing = std::sqrt(std::max(0.0, dotOf(apart, apart) - up * up));
            if (spacing > farthest) {
                farthest = spacing;
                best = MountingHoles { end(one), end(other), one.along, 2 * one.radius };
            }
        }
    if (!best)
        throw Refusal(tr("{}: its mounting holes are not found: no two round holes from 8 to 16 mm are alike and parallel.", name));
    return *best;
}

} // namespace deepstop::solids
