#include "scan/knuckle_scan.hpp"

#include "language/language.hpp"
#include "scan/vectors.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::scan {
namespace {

using Eigen::Vector3d;

constexpr double oneDegree = std::numbers::pi / 180;
/// Lugs that lean more than this do not stand square to the axle.
constexpr double mostLean = 3 * oneDegree;

class KnuckleFinder {
public:
    KnuckleFinder(const Mesh& mesh, const KnuckleQuestion& question) : mesh_(mesh), question_(question) { }

    KnuckleScan found()
    {
        if (findHub() && findLugs() && findInboard()) {
            findScale();
            place();
        }
        return std::move(scan_);
    }

private:
    bool lack(std::string why)
    {
        scan_.lacks = std::move(why);
        return false;
    }

    bool findHub()
    {
        const auto flange = faceThrough(mesh_, question_.unit, question_.flange);
        if (!flange)
            return lack(tr("No flat face found at the three places on the hub's flange: pick them again, far apart."));
        const auto pilot = roundThrough(mesh_, question_.unit, flange->normal, question_.pilot);
        if (!pilot)
            return lack(tr("The three places on the hub's pilot do not give a circle: pick them again, spread around it."));
        flange_ = *flange;
        pilot_ = *pilot;
        return true;
    }

    bool findLugs()
    {
        for (std::size_t i = 0; i < lugs_.size(); ++i) {
            const auto hole = holeThrough(mesh_, question_.unit, question_.lugs[i]);
            if (!hole)
                return lack(
                    tr("No hole in a flat face found at the three places of lug {}: pick them again on the edge of the hole.", i + 1));
            lugs_[i] = *hole;
        }
        const Vector3d axis = vec(flange_.normal);
        for (std::size_t i = 0; i < lugs_.size(); ++i) {
            const double lean = std::acos(std::min(1.0, std::abs(axis.dot(vec(lugs_[i].face.normal)))));
            if (lean > mostLean)
                return lack(tr("Lug {} leans {:.1f}° off the hub's flange: only lugs that stand square to the axle are read here.", i + 1,
                    lean / oneDegree));
            lean_ = std::max(lean_, lean);
        }
        return true;
    }

    /// The pilot stands outboard of the flange; where it was picked too near it, lugs far from the flange tell.
    bool findInboard()
    {
        inboard_ = vec(flange_.normal);
        double pilot = 0;
        for (const Point& p : question_.pilot)
            pilot += depthOf(p) / 3;
        const double lugs = (depthOf(lugs_[0].round.centre) + depthOf(lugs_[1].round.centre)) / 2;
        constexpr double pilotTells = 1.5 * millimetre;
        constexpr double lugsTell = 10 * millimetre;
        if (std::abs(pilot) < pilotTells && std::abs(lugs) < lugsTell)
            return lack(tr("The outboard direction is not clear: pick the outer edge of the hub's pilot."));
        const double inboard = std::abs(pilot) < pilotTells ? lugs : -pilot;
        if (inboard < 0)
            inboard_ = -inboard_;
        return true;
    }

    [[nodiscard]] double depthOf(const Point& p) const { return inboard_.dot(vec(p) - vec(flange_.at)); }

    void findScale()
    {
        if (!question_.pilotKnown)
            return;
        const Sized& known = *question_.pilotKnown;
        Scale scale;
        scale.known = known.value;
        scale.scanned = 2 * pilot_.radius;
        scale.off = scale.scanned / known.value - 1;
        scale.plusMinus = (2 * pilot_.plusMinus + known.plusMinus) / known.value;
        scan_.scale = scale;
    }

    [[nodiscard]] Sized sized(double value, double plusMinus) const
    {
        const double scale = scan_.scale ? std::abs(scan_.scale->off) + scan_.scale->plusMinus : scaleUnchecked;
        return { value, plusMinus + scale * std::abs(value) };
    }

    void place()
    {
        const Vector3d centre = vec(pilot_.centre);
        const auto across = [&](const Point& p) -> Vector3d {
            const Vector3d off = vec(p) - centre;
            return off - inboard_ * inboard_.dot(off);
        };
        const Vector3d first = across(lugs_[0].round.centre);
        const Vector3d second = across(lugs_[1].round.centre);
        const double holes = std::hypot(lugs_[0].round.plusMinus, lugs_[1].round.plusMinus);
        // How surely the flange's plane is known that far from its middle: its roughness over its own width.
        const double tilt = flange_.rough / std::max(10 * millimetre, std::sqrt(flange_.seen) / 2);
        scan_.pilotDiameter = sized(2 * pilot_.radius, 2 * pilot_.plusMinus);
        scan_.lugSpacing = sized((second - first).norm(), holes);
        scan_.lugRadius = sized(((first + second) / 2).norm(), std::hypot(holes / 2, pilot_.plusMinus));
        scan_.lugHole = sized(lugs_[0].round.radius + lugs_[1].round.radius, lugs_[0].round.plusMinus + lugs_[1].round.plusMinus);
        const std::array depths { depthOf(lugs_[0].round.centre), depthOf(lugs_[1].round.centre) };
        const double apart = std::abs(depths[0] - depths[1]);
        const double rough = 3 * std::hypot(flange_.rough, lugs_[0].face.rough, lugs_[1].face.rough);
        const double leaning = (tilt + lean_) * 12 * millimetre;
        scan_.lugDepth = sized((depths[0] + depths[1]) / 2, rough + apart / 2 + leaning + tilt * scan_.lugRadius.value);
        for (const PickedKeepOut& picked : question_.keepOuts) {
            KeepOut keepOut;
            keepOut.kind = picked.kind;
            keepOut.depth = reading(sized(depthOf(picked.at), clicked + rough));
            keepOut.radius = reading(sized(across(picked.at).norm(), clicked + pilot_.plusMinus));
            scan_.keepOuts.push_back(std::move(keepOut));
        }
        scan_.rounds.push_back({ pilot_, flange_.normal });
        for (const PickedHole& lug : lugs_)
            scan_.rounds.push_back({ lug.round, lug.face.normal });
        say(apart, rough);
    }

    void say(double apart, double rough)
    {
        auto& remarks = scan_.remarks;
        const auto mm = [](double si) { return si / millimetre; };
        if (!scan_.scale)
            remarks.push_back(
                tr("The scale of the scan is not checked: all readings are estimated, and {:g} % wider. Measure the hub's pilot.",
                    scaleUnchecked * 100));
        else if (!scan_.scale->agrees())
            remarks.push_back(tr("The pilot is {:.2f} mm as measured, but {:.2f} mm in the scan. Either is wrong: measure again.",
                mm(scan_.scale->known), mm(scan_.scale->scanned)));
        if (apart > std::max(0.5 * millimetre, 2 * rough))
            remarks.push_back(tr(
                "The lugs' faces stand {:.2f} mm apart in depth: the middle is taken, and its width includes the difference.", mm(apart)));
        constexpr double alike = 0.5 * millimetre;
        if (std::abs(lugs_[0].round.radius - lugs_[1].round.radius) * 2 > alike)
            remarks.push_back(tr("The lugs' holes are {:.1f} mm and {:.1f} mm: are both the caliper's?", mm(2 * lugs_[0].round.radius),
                mm(2 * lugs_[1].round.radius)));
        if (!scan_.keepOuts.empty())
            remarks.push_back(
                tr("The clock position of the keep-out points is not known: each is checked at every position of the caliper."));
    }

    static Reading reading(const Sized& from)
    {
        Reading r;
        r.value = from.value;
        r.plusMinus = from.plusMinus;
        r.instrument = "scan";
        return r;
    }

    const Mesh& mesh_;
    const KnuckleQuestion& question_;
    KnuckleScan scan_;
    PickedFace flange_;
    PickedRound pilot_;
    std::array<PickedHole, 2> lugs_;
    Vector3d inboard_ = Vector3d::Zero(); ///< unit length
    double lean_ = 0; ///< of the lug that leans most, rad
};

} // namespace

KnuckleScan scanKnuckle(const Mesh& mesh, const KnuckleQuestion& question) { return KnuckleFinder(mesh, question).found(); }

Hub hubWith(Hub hub, const KnuckleScan& scan, const ScanFile& file)
{
    const Known known = scan.trusted() ? Known::Measured : Known::Estimated;
    const auto take = [&](Reading& into, const Sized& from) {
        // What somebody measured by hand is no worse than the scan.
        if (into.value && into.known == Known::Measured && into.instrument != "scan")
            return;
        into = {};
        into.value = from.value;
        into.plusMinus = from.plusMinus;
        into.known = known;
        into.instrument = "scan";
        into.date = file.date;
    };
    take(hub.pilotDiameter, scan.pilotDiameter);
    take(hub.lugSpacing, scan.lugSpacing);
    take(hub.lugRadius, scan.lugRadius);
    take(hub.lugDepth, scan.lugDepth);
    // What an earlier scan showed goes, what was read by hand stays.
    std::erase_if(hub.keepOuts, [](const KeepOut& k) { return k.depth.instrument == "scan"; });
    for (KeepOut keepOut : scan.keepOuts) {
        for (Reading* each : { &keepOut.depth, &keepOut.radius }) {
            each->known = known;
            each->date = file.date;
        }
        hub.keepOuts.push_back(std::move(keepOut));
    }
    hub.scan = file.path;
    hub.scanHash = file.hash;
    return hub;
}

Edit knuckleEdit(KnuckleScan scan, ScanFile file, Axle axle)
{
    return [scan = std::move(scan), file = std::move(file), axle](const Build& now) -> std::optional<Build> {
        Build build = now;
        Hub& hub = axle == Axle::Front ? build.frontHub : build.rearHub;
        hub = hubWith(std::move(hub), scan, file);
        giveIds(build);
        return build;
    };
}

} // namespace deepstop::scan
