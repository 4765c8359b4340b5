#include "scan/picked.hpp"

#include "scan/circle.hpp"
#include "scan/surface.hpp"
#include "scan/vectors.hpp"
#include "task/cancel.hpp"

#include <algorithm>
#include <cmath>
#include <vector>

namespace deepstop::scan {
namespace {

using Eigen::Matrix3d;
using Eigen::Vector3d;

constexpr double liesInFace = 0.94; ///< cosine between a face and what lies in it: a rough scan's triangles lean by as much as 20°
constexpr double standsOnFace = 0.45; ///< the same of a wall and the face that it stands on
constexpr double largestHole = 15 * millimetre; ///< radius, of a mounting bolt; common practice, no source
constexpr std::size_t fewestSamples = 30; ///< samples

struct CircleOfPicks {
    Vector3d centre;
    double radius;
    Vector3d normal;
};

/// Whether they stand all round the middle: of three on a short arc a millimetre aside moves the middle by many.
bool surround(const Picks& picks, const CircleOfPicks& circle)
{
    for (std::size_t i = 0; i < picks.size(); ++i) {
        const Vector3d a = vec(picks[i]) - circle.centre;
        const Vector3d b = vec(picks[(i + 1) % 3]) - circle.centre;
        const Vector3d c = vec(picks[(i + 2) % 3]) - circle.centre;
        // The third lies on the other side of the middle than both others together.
        if (c.dot(a + b) > 0)
            return false;
    }
    return true;
}

/// The circle through three points; nothing of three in a line.
std::optional<CircleOfPicks> circleOf(const Picks& picks)
{
    const Vector3d a = vec(picks[0]);
    const Vector3d ab = vec(picks[1]) - a;
    const Vector3d ac = vec(picks[2]) - a;
    const Vector3d across = ab.cross(ac);
    const double twice = across.squaredNorm();
    const double longest = std::max({ ab.norm(), ac.norm(), (ac - ab).norm() });
    // A triangle flatter than a twentieth of its length tells neither a plane nor a circle.
    if (!(std::sqrt(twice) > longest * longest / 20))
        return {};
    const Vector3d to = (ac.squaredNorm() * across.cross(ab) + ab.squaredNorm() * ac.cross(across)) / (2 * twice);
    return CircleOfPicks { a + to, to.norm(), across.normalized() };
}

Frame frameOn(const Vector3d& through, const Vector3d& direction)
{
    Axis axis;
    axis.through = point(through);
    axis.direction = point(direction.normalized());
    return Frame(axis);
}

constexpr std::size_t mostSamples = 3'000'000;

/// The triangles that reach into a ball, m: all that a place of the mesh is found by.
Mesh about(const Mesh& mesh, double unit, const Vector3d& middle, double reach)
{
    Mesh near;
    const Vector3d centre = middle / unit;
    for (std::size_t t = 0; t < mesh.triangles(); ++t) {
        if (t % 65536 == 0)
            endIfCancelled();
        const auto corner = [&](std::size_t i) {
            const auto& c = mesh.corners[3 * t + i];
            return Vector3d(c[0], c[1], c[2]);
        };
        const Vector3d a = corner(0);
        const double size = std::max((corner(1) - a).norm(), (corner(2) - a).norm());
        if ((a - centre).norm() - size < reach / unit)
            for (std::size_t i = 0; i < 3; ++i)
                near.corners.push_back(mesh.corners[3 * t + i]);
    }
    return near;
}

/// The plane through the samples of a ring about a place, in a band about its own plane that narrows round by round.
std::optional<PickedFace> faceAbout(
    const Mesh& mesh, double unit, const Vector3d& middle, const Vector3d& normal, double from, double to, double band)
{
    const Mesh near = about(mesh, unit, middle, 1.2 * to + band);
    Vector3d at = middle;
    Vector3d way = normal;
    PickedFace face;
    constexpr int rounds = 4;
    for (int round = 0; round < rounds; ++round) {
        const Frame frame = frameOn(at, way);
        Vector3d mean = Vector3d::Zero();
        Matrix3d spread = Matrix3d::Zero();
        double all = 0;
        std::vector<std::pair<Vector3d, double>> in;
        for (const Sample& s : Surface(near, unit, false).inFrame(frame, mostSamples))
            if (std::abs(s.along) < band && s.radius > from && s.radius < to && std::abs(s.toward) > liesInFace) {
                in.emplace_back(vec(frame.back(s.along, s.radius, s.angle)), s.area);
                mean += s.area * in.back().first;
                all += s.area;
            }
        if (in.size() < fewestSamples)
            return {};
        mean /= all;
        for (const auto& [p, area] : in)
            spread += area * (p - mean) * (p - mean).transpose();
        const Eigen::SelfAdjointEigenSolver<Matrix3d> solver(spread / all);
        const Vector3d found = solver.eigenvectors().col(0);
        way = found.dot(normal) < 0 ? Vector3d(-found) : found;
        at = middle - way * way.dot(middle - mean);
        face.rough = std::sqrt(std::max(0.0, solver.eigenvalues()[0]));
        face.seen = all;
        band = std::clamp(4 * face.rough, 0.1 * millimetre, band);
    }
    face.at = point(at);
    face.normal = point(way);
    return face;
}

} // namespace

bool areParallel(const PickedFace& one, const PickedFace& other)
{
    constexpr double cosine = 0.99863; // of 3°
    return std::abs(vec(one.normal).dot(vec(other.normal))) > cosine;
}

std::optional<PickedFace> faceThrough(const Mesh& mesh, double unit, const Picks& picks)
{
    const auto circle = circleOf(picks);
    if (!circle)
        return {};
    return faceAbout(mesh, unit, circle->centre, circle->normal, 0, 1.15 * circle->radius, 1.5 * clicked);
}

std::optional<PickedRound> roundThrough(const Mesh& mesh, double unit, const Point& direction, const Picks& picks)
{
    const Vector3d way = vec(direction).normalized();
    // As they are seen along the axis.
    const Vector3d first = vec(picks[0]);
    Picks level = picks;
    double height = 0;
    for (Point& each : level) {
        const double above = way.dot(vec(each) - first);
        height += above / 3;
        each = point(vec(each) - way * above);
    }
    const auto circle = circleOf(level);
    if (!circle || !(circle->radius > 2 * millimetre) || !surround(level, *circle))
        return {};
    const Vector3d middle = circle->centre + way * height;
    const Frame frame = frameOn(middle, way);
    std::vector<std::array<double, 2>> wall;
    const double near = std::max(2 * clicked, 0.12 * circle->radius);
    constexpr double high = 12 * millimetre;
    const Mesh part = about(mesh, unit, middle, std::hypot(circle->radius + near, high));
    for (const Sample& s : Surface(part, unit, false).inFrame(frame, mostSamples))
        if (std::abs(s.radius - circle->radius) < near && std::abs(s.along) < high && std::abs(s.toward) < standsOnFace)
            wall.push_back({ s.radius * std::cos(s.angle), s.radius * std::sin(s.angle) });
    // Three places each off by that much put the middle off by a third more.
    PickedRound round { point(middle), circle->radius, 2 * clicked };
    constexpr double wanted = 0.5; // of the turn
    const auto fitted = wall.size() < fewestSamples ? std::nullopt : circleThrough(wall);
    if (fitted && fitted->seen >= wanted && std::abs(fitted->radius - circle->radius) < near) {
        round.centre = frame.back(0, std::hypot(fitted->x, fitted->y), std::atan2(fitted->y, fitted->x));
        round.radius = fitted->radius;
        // Never surer than the surface is smooth: its triangles lean on chords.
        round.plusMinus = fitted->plusMinus + fitted->rough;
    }
    return round;
}

std::optional<PickedHole> holeThrough(const Mesh& mesh, double unit, const Picks& picks)
{
    const auto circle = circleOf(picks);
    if (!circle || !(circle->radius > 2 * millimetre) || circle->radius > largestHole)
        return {};
    const auto face = faceAbout(mesh, unit, circle->centre, circle->normal, 1.05 * circle->radius, 2 * circle->radius, 1.5 * clicked);
    if (!face)
        return {};
    const auto round = roundThrough(mesh, unit, face->normal, picks);
    if (!round)
        return {};
    PickedHole hole { *face, *round };
    // Its middle lies in the face.
    const Vector3d normal = vec(face->normal);
    const Vector3d centre = vec(round->centre);
    hole.round.centre = point(centre - normal * normal.dot(centre - vec(face->at)));
    return hole;
}

} // namespace deepstop::scan
