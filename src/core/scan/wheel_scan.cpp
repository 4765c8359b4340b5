#include "scan/wheel_scan.hpp"

#include "language/language.hpp"
#include "quantity/reading.hpp"
#include "scan/bolt_holes.hpp"
#include "scan/circle.hpp"
#include "scan/profile.hpp"
#include "scan/surface.hpp"
#include "task/cancel.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>

namespace deepstop::scan {
namespace {

/// Where a wheel's mounting face, bore and bolts are.
constexpr double hubRadius = 95e-3;

/// Finds a wheel step by step; what one finds the next ones stand on.
class WheelFinder {
public:
    WheelFinder(const Mesh& mesh, const WheelQuestion& question, const std::function<void(double)>& progress)
        : mesh_(mesh), question_(question), progress_(progress)
    {
    }

    WheelScan found()
    {
        find();
        return std::move(scan_);
    }

private:
    void tell(double part) const
    {
        endIfCancelled();
        if (progress_)
            progress_(part);
    }

    void find()
    {
        const double size = extentOf(mesh_).largest() * question_.unit;
        if (mesh_.triangles() == 0 || !(size > 0)) {
            scan_.lacks = tr("There is no surface in it.");
            return;
        }
        if (size < 0.2 || size > 1) {
            scan_.lacks = tr("It is {:.4g} mm across: that is no road wheel. Say in which unit the file is.", size / millimetre);
            return;
        }
        std::vector<Patch> patches = patchesOf(mesh_, question_.unit);
        tell(0.2);
        const auto axis = axisOf(patches);
        if (!axis) {
            scan_.lacks = tr("No axis is found: too little of the barrel is there to tell what the wheel turns about.");
            return;
        }
        scan_.axis = *axis;
        scan_.frame = Frame(*axis);
        tell(0.3);
        turnOutside(patches);
        Surface surface(mesh_, question_.unit, insideOut_);
        refineAxis(surface);
        constexpr double roughest = 3 * millimetre;
        if (!(rough_ < roughest)) {
            scan_.lacks = tr("No axis is found: nothing in it is turned as truly as a barrel.");
            return;
        }
        tell(0.5);
        if (!lookInboard(patches))
            return;
        samples_ = surface.inFrame(scan_.frame);
        tell(0.7);
        if (!findFace())
            return;
        findBore();
        findBolts();
        tell(0.8);
        Profiles profiles(samples_, scan_);
        profiles.barrel();
        if (scan_.barrel.empty()) {
            scan_.lacks = tr("The barrel's inside is not in it, or on less than half of the turn.");
            return;
        }
        profiles.spokes();
        tell(0.95);
        profiles.flanges();
        holdAgainstKnown();
        widen();
    }

    /// Largest radius of all but a fiftieth of the surface.
    static double outerRadius(const std::vector<std::pair<double, double>>& radiusAndArea)
    {
        auto sorted = radiusAndArea;
        std::ranges::sort(sorted);
        double all = 0;
        for (const auto& [r, area] : sorted)
            all += area;
        double so = 0;
        for (const auto& [r, area] : sorted)
            if ((so += area) > 0.98 * all)
                return r;
        return 0;
    }

    /// The barrel's inside looks at the axis, the outside away from it and lies farther out: else the mesh is inside out.
    void turnOutside(std::vector<Patch>& patches)
    {
        std::vector<std::pair<double, double>> radii;
        for (const Patch& p : patches)
            radii.emplace_back(scan_.frame.of(p.at).radius, p.area);
        const double most = outerRadius(radii);
        struct Ring {
            double in = 0, inRadius = 0, out = 0, outRadius = 0;
        };
        std::vector<Ring> rings(400);
        for (const Patch& p : patches) {
            const auto place = scan_.frame.of(p.at);
            const double out = scan_.frame.turned(p.normal, place.angle)[1];
            const double ring = place.along / (4 * millimetre) + 200;
            if (place.radius < 0.65 * most || std::abs(out) < 0.7 || ring < 0 || ring >= 400)
                continue;
            Ring& r = rings[static_cast<std::size_t>(ring)];
            (out < 0 ? r.in : r.out) += p.area;
            (out < 0 ? r.inRadius : r.outRadius) += p.area * place.radius;
        }
        double right = 0;
        for (const Ring& r : rings) {
            if (r.in > 0 && r.out > 0)
                right += std::min(r.in, r.out) * (r.outRadius / r.out > r.inRadius / r.in ? 1 : -1);
            else
                right += r.in - r.out;
        }
        insideOut_ = right < 0;
        if (insideOut_)
            for (Patch& p : patches)
                for (double& each : p.normal)
                    each = -each;
        outer_ = most;
    }

    /// Moves and tilts the axis until the barrel's inside runs true: Gauss and Newton over shift and tilt, against the profile itself.
    void refineAxis(const Surface& surface)
    {
        constexpr int rounds = 20;
        constexpr double step = 3 * millimetre;
        for (int round = 0; round < rounds; ++round) {
            endIfCancelled();
            std::vector<Sample> inside;
            for (const Sample& s : surface.inFrame(scan_.frame, 60'000))
                if (s.out < -0.4 && s.radius > 0.6 * outer_ && s.radius < 1.05 * outer_)
                    inside.push_back(s);
            const Rings rings(inside, step);
            Eigen::Matrix4d information = Eigen::Matrix4d::Zero();
            Eigen::Vector4d right = Eigen::Vector4d::Zero();
            const double rough = std::max(rings.rough(), 0.02 * millimetre);
            rough_ = inside.empty() ? 1 : rough;
            for (const Sample& s : inside) {
                const auto ring = rings.at(s.along);
                // Steep walls tell little of where the axis is, and much of their own shape.
                if (!ring || std::abs(ring->slope) > 0.4)
                    continue;
                const double miss = s.radius - ring->radius;
                const double far = miss / (4.685 * rough);
                if (std::abs(far) >= 1)
                    continue;
                const double w = std::pow(1 - far * far, 2);
                const double arm = s.along - ring->slope * s.radius;
                const Eigen::Vector4d row(std::cos(s.angle), std::sin(s.angle), arm * std::cos(s.angle), arm * std::sin(s.angle));
                information += w * row * row.transpose();
                right += w * row * miss;
            }
            information += 1e-12 * Eigen::Matrix4d::Identity();
            const Eigen::Vector4d moved = information.ldlt().solve(right);
            if (!moved.allFinite())
                return;
            const Point from = scan_.frame.back(0, 0, 0);
            const Point x = scan_.frame.back(0, 1, 0);
            const Point y = scan_.frame.back(0, 1, std::numbers::pi / 2);
            Axis next = scan_.axis;
            double norm = 0;
            for (std::size_t i = 0; i < 3; ++i) {
                next.through[i] = from[i] + moved[0] * (x[i] - from[i]) + moved[1] * (y[i] - from[i]);
                next.direction[i] += moved[2] * (x[i] - from[i]) + moved[3] * (y[i] - from[i]);
                norm += next.direction[i] * next.direction[i];
            }
            for (double& each : next.direction)
                each /= std::sqrt(norm);
            scan_.axis = next;
            scan_.frame = Frame(next);
            if (std::hypot(moved[0], moved[1]) < 1e-6 && std::hypot(moved[2], moved[3]) < 1e-6)
                return;
        }
    }

    /// The barrel reaches farther inboard of the hub than outboard.
    bool lookInboard(const std::vector<Patch>& patches)
    {
        std::vector<std::pair<double, double>> hub;
        std::vector<std::pair<double, double>> barrel;
        for (const Patch& p : patches) {
            const auto place = scan_.frame.of(p.at);
            const Point n = scan_.frame.turned(p.normal, place.angle);
            if (place.radius < hubRadius && std::abs(n[0]) > 0.9)
                hub.emplace_back(place.along, p.area);
            if (place.radius > 0.7 * outer_ && place.radius < 1.05 * outer_ && n[1] < -0.5)
                barrel.emplace_back(place.along, p.area);
        }
        if (hub.empty() || barrel.empty()) {
            scan_.lacks =
                hub.empty() ? tr("The mounting face is not in it: nothing flat about the axis.") : tr("The barrel's inside is not in it.");
            return false;
        }
        const auto middle = [](std::vector<std::pair<double, double>>& all) {
            std::ranges::sort(all);
            double sum = 0;
            for (const auto& each : all)
                sum += each.second;
            double so = 0;
            for (const auto& [along, area] : all)
                if ((so += area) >= sum / 2)
                    return along;
            return all.back().first;
        };
        if ((middle(barrel) < middle(hub)) != question_.otherSide)
            for (double& each : scan_.axis.direction)
                each = -each;
        scan_.frame = Frame(scan_.axis);
        return true;
    }

    /// The most inboard of the large flat faces about the axis; or through three places that somebody picked.
    bool findFace()
    {
        std::vector<const Sample*> flat;
        for (const Sample& s : samples_)
            if (s.radius < hubRadius && s.toward > 0.6)
                flat.push_back(&s);
        constexpr double bin = 0.5 * millimetre;
        std::vector<double> areas(1600);
        const auto binOf = [&](double along) { return static_cast<int>(std::lround(along / bin)) + 800; };
        for (const Sample* s : flat)
            if (const int b = binOf(s->along); b > 3 && b < 1596)
                for (int k = -2; k <= 2; ++k)
                    areas[static_cast<std::size_t>(b + k)] += s->area;
        const double most = *std::ranges::max_element(areas);
        constexpr double enough = 5e-4; // m²: less is no mounting face
        if (!(most > enough)) {
            scan_.lacks = tr("The mounting face is not in it: nothing flat about the axis looks inboard.");
            return false;
        }
        std::size_t at = areas.size() - 1;
        while (areas[at] < 0.35 * most)
            --at;
        // Down to its own peak.
        while (at > 0 && areas[at - 1] > areas[at])
            --at;
        double level = (static_cast<double>(at) - 800) * bin;
        Eigen::Vector3d plane(level, 0, 0);
        for (int round = 0; round < 8; ++round) {
            Eigen::Matrix3d information = 1e-12 * Eigen::Matrix3d::Identity();
            Eigen::Vector3d right = Eigen::Vector3d::Zero();
            const double within = round < 3 ? 2.5 * millimetre : 1.5 * millimetre;
            double weights = 0;
            double squares = 0;
            for (const Sample* s : flat) {
                const Eigen::Vector3d row(1, s->radius * std::cos(s->angle), s->radius * std::sin(s->angle));
                const double miss = s->along - row.dot(plane);
                const double far = miss / within;
                if (std::abs(far) >= 1)
                    continue;
                const double w = std::pow(1 - far * far, 2);
                information += w * row * row.transpose();
                right += w * row * miss;
                weights += w;
                squares += w * miss * miss;
            }
            plane += information.ldlt().solve(right);
            faceError_ = weights > 0 ? 3 * std::sqrt(squares / weights) * std::sqrt(information.inverse()(0, 0)) : 0;
        }
        if (std::ranges::all_of(question_.picked, [](const auto& p) { return p.has_value(); })) {
            Eigen::Matrix3d rows;
            Eigen::Vector3d heights;
            for (int i = 0; i < 3; ++i) {
                Point p = *question_.picked[static_cast<std::size_t>(i)];
                for (double& each : p)
                    each *= question_.unit;
                const auto place = scan_.frame.of(p);
                rows.row(i) << 1, place.radius * std::cos(place.angle), place.radius * std::sin(place.angle);
                heights[i] = place.along;
            }
            const Eigen::Vector3d through = rows.fullPivLu().solve(heights);
            if (through.allFinite() && (rows * through - heights).norm() < 1e-6)
                plane = through;
        }
        scan_.face = plane[0];
        scan_.tilt = std::atan(std::hypot(plane[1], plane[2]));
        for (Sample& s : samples_)
            s.along -= static_cast<float>(scan_.face);
        return true;
    }

    /// The narrowest wall about the axis just outboard of the face.
    void findBore()
    {
        std::vector<double> areas(400);
        constexpr double bin = 0.25 * millimetre;
        const auto isWall = [](const Sample& s) { return s.along < -2 * millimetre && s.along > -14 * millimetre && s.radius < hubRadius; };
        for (const Sample& s : samples_)
            if (isWall(s) && s.out < -0.6 && s.radius > 20 * millimetre)
                for (int k = -3; k <= 3; ++k)
                    if (const double b = s.radius / bin + k; b >= 0 && b < 400)
                        areas[static_cast<std::size_t>(b)] += s.area;
        const double most = *std::ranges::max_element(areas);
        if (!(most > 1e-4))
            return;
        std::size_t at = 0;
        while (areas[at] < 0.4 * most)
            ++at;
        while (at + 1 < areas.size() && areas[at + 1] > areas[at])
            ++at;
        const double near = static_cast<double>(at) * bin;
        std::vector<std::array<double, 2>> points;
        for (const Sample& s : samples_)
            if (isWall(s) && s.out < -0.3 && std::abs(s.radius - near) < 2.5 * millimetre)
                points.push_back({ s.radius * std::cos(s.angle), s.radius * std::sin(s.angle) });
        const auto circle = circleThrough(points);
        if (!circle || circle->seen < 0.5)
            return;
        boreRadius_ = circle->radius;
        scan_.bore = Sized { 2 * circle->radius, 2 * circle->plusMinus };
    }

    /// Round holes through the face, alike, and evenly about the axis.
    void findBolts()
    {
        std::vector<std::array<double, 2>> walls;
        const double from = (boreRadius_ > 0 ? boreRadius_ : 25 * millimetre) + 2.5 * millimetre;
        for (const Sample& s : samples_)
            if (s.along < -1.5 * millimetre && s.along > -9 * millimetre && s.radius > from && s.radius < hubRadius
                && std::abs(s.toward) < 0.7)
                walls.push_back({ s.radius * std::cos(s.angle), s.radius * std::sin(s.angle) });
        const BoltHoles holes(walls, faceRadius(samples_, 0.5 * millimetre));
        scan_.holes = holes.count();
        for (const Circle& hole : holes.seen())
            scan_.holeCentres.push_back({ hole.x, hole.y, hole.radius });
        if (holes.count() > 0)
            scan_.boltCircle = Sized { 2 * holes.circle().radius, 2 * holes.circle().plusMinus };
    }

    void holdAgainstKnown()
    {
        if (!question_.known)
            return;
        const auto& [what, length] = *question_.known;
        const auto& scanned = what == KnownLength::Bore ? scan_.bore
            : what == KnownLength::BoltCircle           ? scan_.boltCircle
                                                        : scan_.overallWidth;
        if (!scanned) {
            scan_.knownNotFound = true;
            return;
        }
        Scale scale;
        scale.what = what;
        scale.known = length.value;
        scale.scanned = scanned->value;
        scale.off = scanned->value / length.value - 1;
        scale.plusMinus = (scanned->plusMinus + length.plusMinus) / length.value;
        scale.corrected = question_.correctScale;
        scan_.scale = scale;
        if (scale.corrected)
            scaleLengths(length.value / scanned->value);
    }

    void scaleLengths(double by)
    {
        for (auto* each : { &scan_.bore, &scan_.boltCircle, &scan_.offset, &scan_.overallWidth })
            if (*each)
                (*each)->value *= by;
        for (ScannedBarrel& b : scan_.barrel)
            b.depth *= by, b.insideRadius *= by;
        for (ScannedSpoke& s : scan_.spokes)
            s.radius *= by, s.distance *= by;
        for (ScannedInset& i : scan_.insets)
            i.from *= by, i.to *= by, i.height *= by, i.arc *= by;
        for (auto* ranges : { &scan_.barrelUnseen, &scan_.spokesUnseen })
            for (Range& r : *ranges)
                r.from *= by, r.to *= by;
    }

    /// Adds what scale, tilt and place of the mounting face may be off to what each place has of its own.
    void widen()
    {
        const double scale = !scan_.scale ? scaleUnchecked
            : scan_.scale->corrected      ? scan_.scale->plusMinus
                                          : std::abs(scan_.scale->off) + scan_.scale->plusMinus;
        for (ScannedBarrel& b : scan_.barrel)
            b.plusMinus = std::hypot(b.plusMinus, scan_.tilt * std::abs(b.depth)) + scale * b.insideRadius;
        for (ScannedSpoke& s : scan_.spokes)
            s.plusMinus = std::hypot(s.plusMinus, faceError_, scan_.tilt * s.radius) + scale * std::abs(s.distance);
        for (ScannedInset& i : scan_.insets)
            i.plusMinus += scale * i.height;
        for (auto* each : { &scan_.bore, &scan_.boltCircle, &scan_.overallWidth, &scan_.offset })
            if (*each)
                (*each)->plusMinus += scale * std::abs((*each)->value) + (each == &scan_.offset ? faceError_ : 0);
    }

    const Mesh& mesh_;
    const WheelQuestion& question_;
    const std::function<void(double)>& progress_;
    WheelScan scan_;
    std::vector<Sample> samples_; ///< along from the mounting face once that is found
    bool insideOut_ = false;
    double outer_ = 0; ///< radius
    double rough_ = 1; ///< of the barrel's inside about the axis
    double boreRadius_ = 0;
    double faceError_ = 0;
};

} // namespace

KnownSize byVernier(KnownLength what, double length)
{
    Reading reading;
    reading.value = length;
    reading.known = Known::Measured;
    reading.instrument = "vernier";
    return { what, { length, uncertainty(reading, true) } };
}

WheelScan scanWheel(const Mesh& mesh, const WheelQuestion& question, const std::function<void(double)>& progress)
{
    return WheelFinder(mesh, question, progress).found();
}

} // namespace deepstop::scan
