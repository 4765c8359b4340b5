#include "scan/into_build.hpp"

#include "language/language.hpp"
#include "quantity/format.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::scan {
namespace {

/// How far a straight line between stations may lie outside the profile, and how far inside.
constexpr double outsideBy = 0.05 * millimetre;
constexpr double insideBy = 0.5 * millimetre;
/// A place along or across the profile; what it may be off is in the width of the other reading.
constexpr double placeWidth = 0.1 * millimetre;

/// Places of a profile that straight lines need.
/// @param cut whether nothing is known between a place and the next
std::vector<std::size_t> bendsOf(const std::vector<std::pair<double, double>>& line, auto cut)
{
    std::vector<std::size_t> kept;
    for (std::size_t i = 0; i < line.size();) {
        kept.push_back(i);
        std::size_t best = i + 1;
        for (std::size_t j = i + 1; j < line.size() && !cut(j - 1); ++j) {
            bool fits = true;
            for (std::size_t k = i + 1; k < j && fits; ++k) {
                const double t = (line[k].first - line[i].first) / (line[j].first - line[i].first);
                const double over = std::lerp(line[i].second, line[j].second, t) - line[k].second;
                fits = over < outsideBy && over > -insideBy;
            }
            if (fits)
                best = j;
        }
        if (i + 1 < line.size() && cut(i))
            best = i + 1;
        i = best;
    }
    return kept;
}

} // namespace

Wheel wheelWith(Wheel wheel, const WheelScan& scan, const ScanFile& file)
{
    const Known known = scan.trusted() ? Known::Measured : Known::Estimated;
    const auto read = [&](double value, double plusMinus) {
        Reading r;
        r.value = value;
        r.plusMinus = plusMinus;
        r.known = known;
        r.instrument = "scan";
        r.date = file.date;
        return r;
    };
    const auto take = [&](Reading& into, const std::optional<Sized>& from) {
        // What somebody measured is no worse than the scan that it was held against.
        if (from && !(into.value && into.known == Known::Measured && into.instrument != "scan"))
            into = read(from->value, from->plusMinus);
    };
    take(wheel.bore, scan.bore);
    take(wheel.offset, scan.offset);
    take(wheel.overallWidth, scan.overallWidth);

    const auto gapAfter = [](const std::vector<Range>& gaps, double at, double next) {
        const auto gap = std::ranges::find_if(gaps, [&](const Range& g) { return g.from < next && g.to > at; });
        return gap == gaps.end() ? std::optional<Range>() : *gap;
    };
    wheel.barrel.clear();
    std::vector<std::pair<double, double>> barrel;
    for (const ScannedBarrel& b : scan.barrel)
        barrel.emplace_back(b.depth, b.insideRadius);
    const auto barrelGap = [&](std::size_t i) { return gapAfter(scan.barrelUnseen, barrel[i].first, barrel[i + 1].first); };
    for (const std::size_t i : bendsOf(barrel, [&](std::size_t k) { return barrelGap(k).has_value(); })) {
        const ScannedBarrel& from = scan.barrel[i];
        BarrelStation station;
        station.depth = read(from.depth, placeWidth);
        station.insideRadius = read(from.insideRadius, from.plusMinus);
        const bool beside = (i + 1 < barrel.size() && barrelGap(i)) || (i > 0 && barrelGap(i - 1));
        station.bend = beside ? YesNo::No : YesNo::Yes;
        wheel.barrel.push_back(std::move(station));
        if (i + 1 < barrel.size())
            if (const auto gap = barrelGap(i)) {
                BarrelStation missing;
                missing.depth = read((gap->from + gap->to) / 2, placeWidth);
                wheel.barrel.push_back(std::move(missing));
            }
    }
    if (!scan.spokes.empty()) {
        wheel.spokes.clear();
        std::vector<std::pair<double, double>> spokes;
        for (const ScannedSpoke& s : scan.spokes)
            spokes.emplace_back(s.radius, s.distance);
        const auto spokeGap = [&](std::size_t i) { return gapAfter(scan.spokesUnseen, spokes[i].first, spokes[i + 1].first); };
        for (const std::size_t i : bendsOf(spokes, [&](std::size_t k) { return spokeGap(k).has_value(); })) {
            const ScannedSpoke& from = scan.spokes[i];
            SpokeStation station;
            station.radius = read(from.radius, placeWidth);
            station.distance = read(from.distance, from.plusMinus);
            const bool beside = (i + 1 < spokes.size() && spokeGap(i)) || (i > 0 && spokeGap(i - 1));
            station.bend = beside ? YesNo::No : YesNo::Yes;
            wheel.spokes.push_back(std::move(station));
            if (i + 1 < spokes.size())
                if (const auto gap = spokeGap(i)) {
                    SpokeStation missing;
                    missing.radius = read((gap->from + gap->to) / 2, placeWidth);
                    wheel.spokes.push_back(std::move(missing));
                }
        }
        // The nearest of all of them stands for all; where their number is not told, nobody knows whether all were seen.
        wheel.spokesAlike = scan.spokeCount > 0 ? YesNo::Yes : YesNo::Unknown;
    }
    // What an earlier scan showed goes, what was read by hand stays.
    std::erase_if(wheel.insets, [](const Inset& i) { return i.height.value && i.height.instrument == "scan"; });
    constexpr double shortestWeight = 15 * millimetre;
    for (const ScannedInset& i : scan.insets) {
        Inset inset;
        // Named only where nothing else can stand there: a part that was not seen may hold another weight.
        inset.kind = scan.allRoundSeen && i.arc >= shortestWeight ? InsetKind::Weights : InsetKind::Unknown;
        inset.from = read(i.from, placeWidth);
        inset.to = read(i.to, placeWidth);
        inset.height = read(i.height, i.plusMinus);
        wheel.insets.push_back(std::move(inset));
    }
    if (!scan.insets.empty())
        wheel.balanceWeights = YesNo::Yes;
    else if (scan.allRoundSeen && wheel.insets.empty())
        wheel.balanceWeights = YesNo::No;
    wheel.scan = file.path;
    wheel.scanHash = file.hash;
    return wheel;
}

Wheel& wheelIn(Build& build, const std::string& id)
{
    const auto at = std::ranges::find(build.wheels, id, &Wheel::id);
    if (at != build.wheels.end())
        return *at;
    Wheel& wheel = build.wheels.emplace_back();
    wheel.id = id;
    wheel.name = id;
    return wheel;
}

Edit wheelEdit(WheelScan scan, ScanFile file, std::string wheel)
{
    return [scan = std::move(scan), file = std::move(file), wheel = std::move(wheel)](const Build& now) -> std::optional<Build> {
        Build build = now;
        Wheel& into = wheelIn(build, wheel);
        into = wheelWith(std::move(into), scan, file);
        return build;
    };
}

Edit profileEdit(WheelProfile profile, std::string wheel)
{
    return [profile = std::move(profile), wheel = std::move(wheel)](const Build& now) -> std::optional<Build> {
        Build build = now;
        Wheel& into = wheelIn(build, wheel);
        const auto put = [](const std::vector<WheelProfile::Place>& places, auto& stations, auto along, auto across) {
            if (places.empty())
                return;
            stations.clear();
            for (const auto& place : places) {
                auto& station = stations.emplace_back();
                for (const auto& [reading, value] :
                    { std::pair { &(station.*along), place.along }, { &(station.*across), place.across } }) {
                    reading->value = value;
                    reading->known = Known::Vendor;
                }
                station.bend = place.bend ? YesNo::Yes : YesNo::Unknown;
            }
        };
        put(profile.barrel, into.barrel, &BarrelStation::depth, &BarrelStation::insideRadius);
        put(profile.spokes, into.spokes, &SpokeStation::radius, &SpokeStation::distance);
        return build;
    };
}

std::vector<std::string> remarks(const WheelScan& scan, UnitSystem system)
{
    std::vector<std::string> all;
    if (!scan.lacks.empty())
        return { scan.lacks };
    const auto say = [&](double si, const Style& style) { return print(si, style, system); };
    if (scan.knownNotFound) {
        all.push_back(
            tr("What was measured is not found in the scan: give another length. Until then everything counts as estimated, {:g} % "
               "wider.",
                scaleUnchecked * 100));
    } else if (!scan.scale) {
        all.push_back(
            tr("Its scale is held against nothing: everything counts as estimated, {:g} % wider. Give a length that was measured: "
               "bore, bolt circle or width over the flanges.",
                scaleUnchecked * 100));
    } else {
        const Scale& s = *scan.scale;
        const auto what = s.what == KnownLength::Bore ? tr("Bore")
            : s.what == KnownLength::BoltCircle       ? tr("Bolt circle")
                                                      : tr("Width over the flanges");
        const auto off = fmt::format("{:+.2f} %", s.off * 100);
        if (s.corrected)
            all.push_back(tr("{}: {} known, {} in the scan ({}). All lengths are corrected by that.", what, say(s.known, style::fine),
                say(s.scanned, style::fine), off));
        else if (s.agrees())
            all.push_back(tr("{}: {} known, {} in the scan ({}): they agree as far as both are sure.", what, say(s.known, style::fine),
                say(s.scanned, style::fine), off));
        else
            all.push_back(tr("{}: {} known, but {} in the scan ({}, sure to {:.2f} %). Either is wrong: measure again, or have the scan "
                             "corrected to what is known.",
                what, say(s.known, style::fine), say(s.scanned, style::fine), off, s.plusMinus * 100));
    }
    constexpr double square = 0.1 * std::numbers::pi / 180;
    if (scan.tilt > square)
        all.push_back(
            tr("The mounting face stands {:.2f}° off square to the barrel: the scan is bent, or the wheel. Profiles are that much "
               "wider.",
                scan.tilt * 180 / std::numbers::pi));
    if (!scan.boltCircle)
        all.push_back(tr("Bolt holes are not found."));
    if (!scan.offset)
        all.push_back(tr("Offset is not told: both flanges have to be in the scan."));
    for (const Range& r : scan.barrelUnseen)
        all.push_back(tr("Barrel not seen at {} to {} deep.", say(r.from, style::size), say(r.to, style::size)));
    for (const Range& r : scan.spokesUnseen)
        all.push_back(tr("Not every spoke is seen at radius {} to {}.", say(r.from, style::size), say(r.to, style::size)));
    if (scan.spokes.empty())
        all.push_back(tr("Spokes are not seen."));
    else if (scan.spokeCount == 0)
        all.push_back(tr("How many spokes there are is not told, so nobody knows whether all were seen."));
    if (!scan.allRoundSeen && scan.insets.empty())
        all.push_back(tr("The barrel is not seen all round: whether weights stand in it is still to be said."));
    return all;
}

} // namespace deepstop::scan
