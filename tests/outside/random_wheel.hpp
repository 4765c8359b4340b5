#pragma once
/// Wheels made up at random, as solids of Open CASCADE, and what a scanner would make of them. Lengths in millimetres here.

#include "scan/mesh.hpp"

#include <BRepAlgoAPI_Cut.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_MakePolygon.hxx>
#include <BRepMesh_IncrementalMesh.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepPrimAPI_MakePrism.hxx>
#include <BRepPrimAPI_MakeRevol.hxx>
#include <BRep_Tool.hxx>
#include <Poly_Triangulation.hxx>
#include <TopExp_Explorer.hxx>
#include <TopoDS.hxx>
#include <gp_Ax1.hxx>
#include <gp_Ax2.hxx>
#include <gp_Quaternion.hxx>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <random>
#include <unordered_map>
#include <vector>

namespace deepstop::scans {

struct RandomWheel {
    std::vector<std::array<double, 2>> profile; ///< depth and inside radius of the barrel, outboard first
    std::vector<std::array<double, 2>> back; ///< along a spoke's middle and distance outboard of the face
    double wall = 5;
    double bore = 66.6;
    double boltCircle = 112;
    double holeRadius = 7;
    double pad = 75; ///< radius of the mounting face
    double hub = 25; ///< its thickness
    int holes = 5;
    int spokes = 5;
    double spokeWidth = 30;
    double spokeDepth = 25;
    double lip = 8; ///< how far the flanges stand up
    struct Weight {
        double from, to, angle, arc, height;
    };
    std::vector<Weight> weights;

    static double along(const std::vector<std::array<double, 2>>& line, double at)
    {
        for (std::size_t i = 1; i < line.size(); ++i)
            if (at <= line[i][0] || i + 1 == line.size())
                return std::lerp(line[i - 1][1], line[i][1], (at - line[i - 1][0]) / (line[i][0] - line[i - 1][0]));
        return line.back()[1];
    }
    [[nodiscard]] double insideAt(double depth) const { return along(profile, depth); }
    /// The nearest of a spoke all across it.
    [[nodiscard]] double distanceAt(double radius) const
    {
        double least = 1e9;
        for (int i = 0; i <= 40; ++i) {
            const double side = spokeWidth / 2 * i / 40;
            if (side < radius)
                least = std::min(least, along(back, std::sqrt(radius * radius - side * side)));
        }
        return least;
    }
    [[nodiscard]] double inboardEnd() const { return profile.back()[0]; }
    [[nodiscard]] double outboardEnd() const { return profile.front()[0]; }
    [[nodiscard]] double offset() const { return (inboardEnd() + outboardEnd()) / 2; }
};

inline RandomWheel randomWheel(std::mt19937& rng)
{
    const auto between = [&](double a, double b) { return std::uniform_real_distribution(a, b)(rng); };
    const auto oneOf = [&](int a, int b) { return std::uniform_int_distribution(a, b)(rng); };
    RandomWheel w;
    const double bead = 12.7 * oneOf(15, 19) - 2; // bead seat less the wall
    const double width = between(170, 260);
    const double offset = between(15, 55);
    const double inboard = offset + width / 2;
    const double outboard = offset - width / 2;
    const double drop = between(12, 22);
    const double well = between(30, 60); // where the drop centre begins, inboard of the outboard end
    w.profile = { { outboard, bead + 8 }, { outboard + 4, bead }, { outboard + well, bead - 2 },
        { outboard + well + between(6, 14), bead - drop }, { outboard + well + between(35, 55), bead - drop },
        { outboard + well + 75, bead - between(2, 8) }, { inboard - 25, bead - 1 }, { inboard - 4, bead }, { inboard, bead + 8 } };
    w.wall = between(4, 7);
    w.bore = between(54, 75);
    static constexpr std::array circles { 98.0, 100.0, 108.0, 110.0, 112.0, 114.3, 120.0 };
    w.boltCircle = circles[static_cast<std::size_t>(oneOf(0, 6))];
    w.holes = oneOf(0, 5) == 0 ? 4 : 5;
    w.holeRadius = between(6.2, 8);
    w.pad = w.boltCircle / 2 + w.holeRadius + between(5, 10);
    w.hub = between(18, 35);
    w.spokes = oneOf(5, 12);
    w.spokeWidth = between(18, 34) * (w.spokes > 8 ? 0.7 : 1);
    w.spokeDepth = between(18, 30);
    const double rise = between(2, 18);
    const double end = bead - drop - 1;
    w.back = { { w.pad - 3, between(0.5, 3) }, { w.pad + 0.35 * (end - w.pad), rise },
        { w.pad + 0.75 * (end - w.pad), rise + between(0, 8) }, { end + 30, rise - between(0, 6) } };
    for (int i = oneOf(0, 3); i > 0; --i) {
        const double from = between(std::max(8.0, w.outboardEnd() + well + 95), inboard - 50);
        w.weights.push_back({ from, from + between(14, 22), between(0, 6), between(0.1, 0.35), between(2.5, 5) });
    }
    return w;
}

/// Triangles in millimetres, corners shared by number, fine enough to scan.
struct Triangles {
    std::vector<std::array<double, 3>> points;
    std::vector<std::array<std::size_t, 3>> faces;
};

inline void addMeshed(Triangles& into, const TopoDS_Shape& shape, double edge, auto keep)
{
    BRepMesh_IncrementalMesh(shape, 0.05, false, 0.1);
    for (TopExp_Explorer faces(shape, TopAbs_FACE); faces.More(); faces.Next()) {
        const TopoDS_Face face = TopoDS::Face(faces.Current());
        TopLoc_Location place;
        const auto mesh = BRep_Tool::Triangulation(face, place);
        if (mesh.IsNull())
            continue;
        std::vector<std::array<std::array<double, 3>, 3>> triangles;
        for (int t = 1; t <= mesh->NbTriangles(); ++t) {
            int n[3];
            mesh->Triangle(t).Get(n[0], n[1], n[2]);
            if (face.Orientation() == TopAbs_REVERSED)
                std::swap(n[1], n[2]);
            std::array<std::array<double, 3>, 3> corners;
            for (int k = 0; k < 3; ++k) {
                const gp_Pnt p = mesh->Node(n[k]).Transformed(place);
                corners[static_cast<std::size_t>(k)] = { p.X(), p.Y(), p.Z() };
            }
            triangles.push_back(corners);
        }
        const auto numbered = [&](const std::array<double, 3>& p) {
            into.points.push_back(p);
            return into.points.size() - 1;
        };
        while (!triangles.empty()) {
            const auto [a, b, c] = triangles.back();
            triangles.pop_back();
            const auto far = [](const auto& p, const auto& q) { return std::hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]); };
            const double ab = far(a, b), bc = far(b, c), ca = far(c, a);
            const double longest = std::max({ ab, bc, ca });
            if (longest > edge) {
                const auto middle = [](const auto& p, const auto& q) {
                    return std::array { (p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2 };
                };
                if (longest == ab)
                    triangles.push_back({ a, middle(a, b), c }), triangles.push_back({ middle(a, b), b, c });
                else if (longest == bc)
                    triangles.push_back({ a, b, middle(b, c) }), triangles.push_back({ a, middle(b, c), c });
                else
                    triangles.push_back({ a, b, middle(c, a) }), triangles.push_back({ middle(c, a), b, c });
                continue;
            }
            if (keep(std::array { (a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3, (a[2] + b[2] + c[2]) / 3 }))
                into.faces.push_back({ numbered(a), numbered(b), numbered(c) });
        }
    }
}

/// z is inboard, the mounting face at 0.
inline Triangles surfaceOf(const RandomWheel& w, double edge)
{
    const gp_Ax1 axle(gp_Pnt(0, 0, 0), gp_Dir(0, 0, 1));
    const auto revolved = [&](const std::vector<std::array<double, 2>>& outline, double from = 0, double by = 2 * std::numbers::pi) {
        BRepBuilderAPI_MakePolygon polygon;
        for (const auto& [z, r] : outline)
            polygon.Add(gp_Pnt(r * std::cos(from), r * std::sin(from), z));
        polygon.Close();
        const auto face = BRepBuilderAPI_MakeFace(polygon.Wire()).Face();
        return by >= 2 * std::numbers::pi ? BRepPrimAPI_MakeRevol(face, axle).Shape() : BRepPrimAPI_MakeRevol(face, axle, by).Shape();
    };
    std::vector<std::array<double, 2>> barrel = w.profile;
    for (auto it = w.profile.rbegin(); it != w.profile.rend(); ++it)
        barrel.push_back({ (*it)[0], (*it)[1] + w.wall + (it == w.profile.rbegin() || std::next(it) == w.profile.rend() ? w.lip : 0) });
    const auto inBarrel = [&](double r, double z) {
        return z > w.outboardEnd() && z < w.inboardEnd() && r > w.insideAt(z) - 0.01 && r < w.insideAt(z) + w.wall;
    };
    const auto inHub = [&](double r, double z) { return r < w.pad - 0.01 && z < -0.01 && z > -w.hub; };
    const auto inSpoke = [&](const std::array<double, 3>& p, double within) {
        for (int i = 0; i < w.spokes; ++i) {
            const double a = 2 * std::numbers::pi * i / w.spokes;
            const double x = p[0] * std::cos(a) + p[1] * std::sin(a);
            const double y = p[1] * std::cos(a) - p[0] * std::sin(a);
            const double behind = -p[2] - RandomWheel::along(w.back, x);
            if (x > w.back.front()[0] && x < w.back.back()[0] && std::abs(y) < w.spokeWidth / 2 - within && behind > within
                && behind < w.spokeDepth - within)
                return true;
        }
        return false;
    };
    Triangles all;
    addMeshed(all, revolved(barrel), edge, [&](const auto& p) { return !inSpoke(p, 0.05); });
    TopoDS_Shape hub = BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(0, 0, -w.hub), gp_Dir(0, 0, 1)), w.pad, w.hub).Shape();
    hub = BRepAlgoAPI_Cut(hub, BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(0, 0, -w.hub - 1), gp_Dir(0, 0, 1)), w.bore / 2, w.hub + 2).Shape())
              .Shape();
    for (int i = 0; i < w.holes; ++i) {
        const double a = 2 * std::numbers::pi * i / w.holes + 0.3;
        const gp_Pnt at(w.boltCircle / 2 * std::cos(a), w.boltCircle / 2 * std::sin(a), -w.hub - 1);
        hub = BRepAlgoAPI_Cut(hub, BRepPrimAPI_MakeCylinder(gp_Ax2(at, gp_Dir(0, 0, 1)), w.holeRadius, w.hub + 2).Shape()).Shape();
    }
    addMeshed(all, hub, edge, [&](const auto& p) { return !inSpoke(p, 0.05); });
    for (int i = 0; i < w.spokes; ++i) {
        const double a = 2 * std::numbers::pi * i / w.spokes;
        BRepBuilderAPI_MakePolygon side;
        const auto at = [&](double x, double y, double z) {
            return gp_Pnt(x * std::cos(a) - y * std::sin(a), x * std::sin(a) + y * std::cos(a), z);
        };
        for (const auto& [x, distance] : w.back)
            side.Add(at(x, -w.spokeWidth / 2, -distance));
        for (auto it = w.back.rbegin(); it != w.back.rend(); ++it)
            side.Add(at((*it)[0], -w.spokeWidth / 2, -(*it)[1] - w.spokeDepth));
        side.Close();
        const gp_Vec across(-w.spokeWidth * std::sin(a), w.spokeWidth * std::cos(a), 0);
        addMeshed(all, BRepPrimAPI_MakePrism(BRepBuilderAPI_MakeFace(side.Wire()).Face(), across).Shape(), edge, [&](const auto& p) {
            const double r = std::hypot(p[0], p[1]);
            const double x = p[0] * std::cos(a) + p[1] * std::sin(a);
            return !inHub(r, p[2]) && !inBarrel(r, p[2]) && r < w.insideAt(p[2]) + w.wall / 2 && x > w.back.front()[0] + 0.1;
        });
    }
    for (const auto& weight : w.weights) {
        const double r1 = w.insideAt(weight.from), r2 = w.insideAt(weight.to);
        addMeshed(all,
            revolved({ { weight.from, r1 + 0.5 }, { weight.to, r2 + 0.5 }, { weight.to, r2 - weight.height },
                         { weight.from, r1 - weight.height } },
                weight.angle, weight.arc),
            edge, [&](const auto& p) { return !inBarrel(std::hypot(p[0], p[1]), p[2]); });
    }
    return all;
}

struct Scanner {
    double noise = 0.1;
    double scale = 1;
    int holes = 0;
    double outliers = 0; ///< part of the triangles
    bool insideOnly = false; ///< the outside was not walked round
    bool insideOut = false;
};

struct Pose {
    gp_Trsf place;
    [[nodiscard]] std::array<double, 3> of(const std::array<double, 3>& p) const
    {
        const gp_Pnt q = gp_Pnt(p[0], p[1], p[2]).Transformed(place);
        return { q.X(), q.Y(), q.Z() };
    }
};

inline Pose randomPose(std::mt19937& rng)
{
    std::normal_distribution<double> some;
    gp_Quaternion turned(some(rng), some(rng), some(rng), some(rng));
    turned.Normalize();
    Pose pose;
    pose.place.SetTransformation(turned, gp_Vec(300 * some(rng), 300 * some(rng), 300 * some(rng)));
    return pose;
}

inline scan::Mesh scanned(const Triangles& surface, const Scanner& how, const Pose& pose, std::mt19937& rng)
{
    std::normal_distribution<double> some;
    // What lies at one place is one corner, whatever triangle it belongs to.
    struct Hash {
        std::size_t operator()(const std::array<long, 3>& k) const
        {
            return static_cast<std::size_t>(k[0] * 73856093L ^ k[1] * 19349663L ^ k[2] * 83492791L);
        }
    };
    std::unordered_map<std::array<long, 3>, std::array<double, 3>, Hash> moved;
    const auto seen = [&](const std::array<double, 3>& p) {
        const std::array<long, 3> key { std::lround(p[0] * 1e4), std::lround(p[1] * 1e4), std::lround(p[2] * 1e4) };
        const auto [at, isNew] = moved.try_emplace(key);
        if (isNew)
            at->second = { p[0] + how.noise * some(rng), p[1] + how.noise * some(rng), p[2] + how.noise * some(rng) };
        return at->second;
    };
    std::vector<std::pair<std::array<double, 3>, double>> unseen;
    std::uniform_int_distribution<std::size_t> any(0, surface.points.size() - 1);
    for (int i = 0; i < how.holes; ++i)
        unseen.emplace_back(surface.points[any(rng)], std::uniform_real_distribution(8.0, 30.0)(rng));
    scan::Mesh mesh;
    const auto put = [&](const std::array<double, 3>& p) {
        const auto q = pose.of({ p[0] * how.scale, p[1] * how.scale, p[2] * how.scale });
        mesh.corners.push_back({ static_cast<float>(q[0]), static_cast<float>(q[1]), static_cast<float>(q[2]) });
    };
    for (const auto& face : surface.faces) {
        std::array<std::array<double, 3>, 3> c { surface.points[face[0]], surface.points[face[1]], surface.points[face[2]] };
        bool hidden = false;
        for (const auto& [at, radius] : unseen)
            hidden = hidden || std::hypot(c[0][0] - at[0], c[0][1] - at[1], c[0][2] - at[2]) < radius;
        if (how.insideOnly) {
            const double nz = (c[1][0] - c[0][0]) * (c[2][1] - c[0][1]) - (c[1][1] - c[0][1]) * (c[2][0] - c[0][0]);
            const double mx = (c[0][0] + c[1][0] + c[2][0]) / 3, my = (c[0][1] + c[1][1] + c[2][1]) / 3;
            const double nx = (c[1][1] - c[0][1]) * (c[2][2] - c[0][2]) - (c[1][2] - c[0][2]) * (c[2][1] - c[0][1]);
            const double ny = (c[1][2] - c[0][2]) * (c[2][0] - c[0][0]) - (c[1][0] - c[0][0]) * (c[2][2] - c[0][2]);
            const double size = std::hypot(nx, ny, nz);
            hidden = hidden || nz < -0.3 * size || (nx * mx + ny * my > 0.3 * size * std::hypot(mx, my) && std::hypot(mx, my) > 120);
        }
        if (hidden)
            continue;
        if (how.insideOut)
            std::swap(c[1], c[2]);
        for (const auto& p : c)
            put(seen(p));
    }
    const auto wild = static_cast<std::size_t>(how.outliers * static_cast<double>(mesh.triangles()));
    for (std::size_t i = 0; i < wild; ++i) {
        const std::array<double, 3> at { 150 * some(rng), 150 * some(rng), 100 * some(rng) };
        for (int k = 0; k < 3; ++k)
            put({ at[0] + 2 * some(rng), at[1] + 2 * some(rng), at[2] + 2 * some(rng) });
    }
    return mesh;
}

} // namespace deepstop::scans
