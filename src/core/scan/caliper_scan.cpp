#include "scan/caliper_scan.hpp"

#include "language/language.hpp"
#include "scan/surface.hpp"
#include "scan/vectors.hpp"
#include "task/cancel.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <set>

namespace deepstop::scan {
namespace {

using Eigen::Vector3d;

/// A place on the caliper: along the line of its holes, outward from it, outboard of its mounting face.
struct Spot {
    double x;
    double y;
    double z;
    double facing; ///< part of the normal outboard
};

class CaliperFinder {
public:
    CaliperFinder(const Mesh& mesh, const CaliperQuestion& question) : mesh_(mesh), question_(question) { }

    CaliperScan found()
    {
        if (place() && findSlot()) {
            findBack();
            findDepths();
        }
        return std::move(scan_);
    }

private:
    static constexpr double grid = 2 * millimetre;
    static constexpr double standsProud = 1.5 * millimetre;

    [[nodiscard]] Reading read(double value) const
    {
        Reading r;
        r.value = value;
        // How rough a scanner is; common practice, no source.
        constexpr double rough = 0.3 * millimetre;
        r.plusMinus = question_.solid ? 0.02 * millimetre : rough + scaleUnchecked * std::abs(value);
        r.known = question_.solid ? Known::Vendor : Known::Estimated;
        r.instrument = question_.solid ? "solid" : "scan";
        return r;
    }

    bool place()
    {
        const Vector3d first = vec(question_.firstHole);
        const Vector3d second = vec(question_.secondHole);
        Vector3d z = vec(question_.along);
        if (!(z.norm() > 0) || !((second - first).norm() > 20 * millimetre)) {
            scan_.lacks = tr("Its two mounting holes stand less than 20 mm from each other: they are no mounting holes.");
            return false;
        }
        z.normalize();
        Vector3d x = second - first;
        x -= z * z.dot(x);
        spacing_ = x.norm();
        x.normalize();
        const Vector3d middle = (first + second) / 2;
        // Sampled as a wheel is, and taken back into plain coordinates.
        Axis axis;
        axis.through = question_.firstHole;
        axis.direction = { z.x(), z.y(), z.z() };
        const Frame frame(axis);
        std::vector<std::pair<Vector3d, double>> points;
        Vector3d centre = Vector3d::Zero();
        double all = 0;
        for (const Sample& s : Surface(mesh_, question_.unit, false).inFrame(frame, 2'000'000)) {
            const Vector3d p = vec(frame.back(s.along, s.radius, s.angle)) - middle;
            points.emplace_back(p, s.toward);
            centre += s.area * p;
            all += s.area;
        }
        if (points.size() < 500) {
            scan_.lacks = tr("There is too little surface in it for a caliper.");
            return false;
        }
        centre /= all;
        // The body lies outward of its holes, and its slot outboard of the lugs' face.
        Vector3d y = z.cross(x);
        if (y.dot(centre) < 0)
            y = -y;
        const double outboard = z.dot(centre) < 0 ? -1 : 1;
        for (const auto& [p, toward] : points)
            spots_.push_back({ p.dot(x), p.dot(y), outboard * p.dot(z), outboard * toward });
        scan_.caliper.mountSpacing = read(spacing_);
        scan_.caliper.mountDrop = read(question_.drop);
        if (!question_.solid)
            scan_.remarks.push_back(tr("Its scale is held against nothing: everything counts as estimated."));
        return true;
    }

    /// The widest room along the axle just inward of the rotor's edge, between faces that look at each other: there the rotor runs.
    bool findSlot()
    {
        std::vector<std::pair<double, double>> at; // along the axle, and which way it looks
        for (const Spot& s : spots_)
            if (std::abs(s.x) < 0.2 * spacing_ && s.y < question_.drop - 2 * millimetre && s.y > question_.drop - 25 * millimetre)
                at.emplace_back(s.z, s.facing);
        std::ranges::sort(at);
        constexpr double across = 0.5;
        for (std::size_t i = 1; i < at.size(); ++i)
            if (at[i].first - at[i - 1].first > slotWidth_ && at[i - 1].second > across && at[i].second < -across) {
                slotWidth_ = at[i].first - at[i - 1].first;
                slot_ = (at[i].first + at[i - 1].first) / 2;
            }
        if (slotWidth_ < 5 * millimetre || slotWidth_ > 120 * millimetre) {
            scan_.lacks = tr("The slot for the rotor is not found: look at the drop of the holes below the rotor's edge.");
            return false;
        }
        scan_.caliper.slotWidth = read(slotWidth_);
        scan_.caliper.mountDepth = read(slot_);
        return true;
    }

    [[nodiscard]] double overEdge(const Spot& s) const
    {
        return std::hypot(s.x, s.y + question_.rotorRadius - question_.drop) - question_.rotorRadius;
    }

    using Column = std::pair<int, int>;
    [[nodiscard]] static Column columnOf(const Spot& s)
    {
        return { static_cast<int>(std::floor(s.x / grid)), static_cast<int>(std::floor(s.z / grid)) };
    }

    /// The flat back is as high as most columns of the middle are; what stands above it is a bump.
    void findBack()
    {
        std::map<Column, double> tops;
        for (const Spot& s : spots_)
            if (s.y > question_.drop) {
                const auto [top, isNew] = tops.try_emplace(columnOf(s), s.y);
                top->second = std::max(top->second, s.y);
            }
        std::map<long, int> heights;
        for (const auto& [column, top] : tops)
            if (std::abs(column.first * grid) < 0.3 * spacing_)
                for (long k = -1; k <= 1; ++k)
                    ++heights[std::lround(top / (0.5 * millimetre)) + k];
        if (heights.empty()) {
            scan_.remarks.push_back(tr("Its back is not found: nothing stands over the rotor's edge."));
            return;
        }
        // Of heights that are as common the highest.
        long mode = heights.begin()->first;
        for (const auto& [height, count] : heights)
            if (count >= heights[mode])
                mode = height;
        double back = 0;
        for (const auto& [column, top] : tops)
            if (std::abs(top - static_cast<double>(mode) * 0.5 * millimetre) < 1 * millimetre)
                back = std::max(back, top);
        scan_.caliper.backOverEdge = read(back - question_.drop);
        double left = 0;
        double right = 0;
        double nearest = std::numeric_limits<double>::infinity(); // faces of the straight back
        double farthest = -nearest;
        std::set<Column> proud;
        for (const auto& [column, top] : tops) {
            if (top > back - 1 * millimetre) {
                left = std::min(left, column.first * grid);
                right = std::max(right, (column.first + 1) * grid);
            }
            if (std::abs(column.first * grid) < 0.3 * spacing_ && top > back - 0.5 * millimetre) {
                nearest = std::min(nearest, column.second * grid);
                farthest = std::max(farthest, (column.second + 1) * grid);
            }
            if (top > back + standsProud)
                proud.insert(column);
        }
        back_ = back;
        backFrom_ = nearest;
        backTo_ = farthest;
        scan_.caliper.backLength = read(right - left);
        while (!proud.empty())
            addBump(proud, tops);
    }

    /// One thing that stands proud: all columns that touch.
    void addBump(std::set<Column>& proud, const std::map<Column, double>& tops)
    {
        std::vector<Column> cluster { *proud.begin() };
        proud.erase(proud.begin());
        double high = 0;
        double fromZ = std::numeric_limits<double>::infinity();
        double toZ = -fromZ;
        double far = 0;
        for (std::size_t i = 0; i < cluster.size(); ++i) {
            const auto [x, z] = cluster[i];
            high = std::max(high, tops.at(cluster[i]));
            fromZ = std::min(fromZ, z * grid);
            toZ = std::max(toZ, (z + 1) * grid);
            far = std::max({ far, std::abs(x * grid), std::abs((x + 1) * grid) });
            for (int dx = -2; dx <= 2; ++dx)
                for (int dz = -2; dz <= 2; ++dz)
                    if (proud.erase({ x + dx, z + dz }) > 0)
                        cluster.emplace_back(x + dx, z + dz);
        }
        Bump bump;
        bump.overEdge = read(high - question_.drop);
        bump.height = read(high - back_);
        bump.atDepth = read((fromZ + toZ) / 2 - slot_);
        bump.width = read(toZ - fromZ);
        bump.fromMiddle = read(far);
        scan_.caliper.bumps.push_back(std::move(bump));
    }

    void findDepths()
    {
        double outboard = 0;
        double inboard = 0;
        double under = std::numeric_limits<double>::infinity();
        double low = question_.drop;
        for (const Spot& s : spots_) {
            endIfCancelled();
            const double depth = s.z - slot_;
            // The ears stand lower; what can touch a wheel stands about the edge.
            if (s.y > question_.drop - 15 * millimetre) {
                outboard = std::max(outboard, depth);
                inboard = std::max(inboard, -depth);
            }
            if (std::abs(s.x) < 0.35 * spacing_)
                low = std::min(low, s.y);
            if (std::abs(depth) < slotWidth_ / 3 && s.y > question_.drop - 3 * millimetre)
                under = std::min(under, overEdge(s));
        }
        Caliper& c = scan_.caliper;
        c.outboardDepth = read(outboard);
        c.inboardDepth = read(inboard);
        c.reach = read(question_.drop - low);
        if (std::isfinite(under))
            c.bridgeGap = read(under);
        if (std::isfinite(backFrom_)) {
            // The smaller of both chamfers counts as both.
            const double shoulder = std::min(outboard - (backTo_ - slot_), inboard - (slot_ - backFrom_));
            c.shoulder = read(std::max(0.0, shoulder));
        }
        scan_.remarks.push_back(
            tr("The holes' middles are taken where the lugs' face is; hose and pad pins that are not in the file are not in "
               "the outline."));
    }

    const Mesh& mesh_;
    const CaliperQuestion& question_;
    CaliperScan scan_;
    std::vector<Spot> spots_;
    double spacing_ = 0;
    double slot_ = 0;
    double slotWidth_ = 0;
    double back_ = 0;
    double backFrom_ = std::numeric_limits<double>::infinity();
    double backTo_ = 0;
};

} // namespace

PickedMount pickedMount(const Mesh& mesh, double unit, const std::array<Picks, 2>& picks)
{
    PickedMount mount;
    for (std::size_t i = 0; i < picks.size(); ++i) {
        const auto hole = holeThrough(mesh, unit, picks[i]);
        if (!hole) {
            mount.lacks =
                tr("No hole in a flat face found at the three places of hole {}: pick them again on the edge of the hole.", i + 1);
            return mount;
        }
        mount.holes[i] = *hole;
    }
    if (!areParallel(mount.holes[0].face, mount.holes[1].face))
        mount.lacks = tr("The faces around the two holes are not parallel: pick the face that lies on the lugs at both holes.");
    return mount;
}

CaliperScan scanCaliper(const Mesh& mesh, const CaliperQuestion& question) { return CaliperFinder(mesh, question).found(); }

Caliper caliperWith(Caliper caliper, const CaliperScan& scan)
{
    for (Reading Caliper::*each : { &Caliper::backOverEdge, &Caliper::backLength, &Caliper::bridgeGap, &Caliper::reach,
             &Caliper::outboardDepth, &Caliper::inboardDepth, &Caliper::shoulder, &Caliper::slotWidth, &Caliper::mountSpacing,
             &Caliper::mountDrop, &Caliper::mountDepth }) {
        const Reading& from = scan.caliper.*each;
        Reading& into = caliper.*each;
        if (from.value && !(into.value && into.known == Known::Measured))
            into = from;
    }
    // What stands proud and was read by hand stays beside what the file shows; what an earlier file showed goes.
    std::erase_if(caliper.bumps,
        [](const Bump& b) { return b.overEdge.value && (b.overEdge.instrument == "solid" || b.overEdge.instrument == "scan"); });
    caliper.bumps.insert(caliper.bumps.end(), scan.caliper.bumps.begin(), scan.caliper.bumps.end());
    return caliper;
}

} // namespace deepstop::scan
