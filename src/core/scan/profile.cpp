#include "scan/profile.hpp"

#include "task/cancel.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <complex>
#include <limits>
#include <map>
#include <numbers>
#include <set>

namespace deepstop::scan {
namespace {

constexpr double turn = 2 * std::numbers::pi;
constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

std::size_t sectorOf(double angle, std::size_t sectors)
{
    return std::min(sectors - 1, static_cast<std::size_t>((angle / turn + 0.5) * static_cast<double>(sectors)));
}

/// Ranges of a grid's places between the first and the last that are good, in which they are not.
std::vector<Range> gapsOf(const std::vector<bool>& good, double first, double step)
{
    std::vector<Range> gaps;
    const auto begin = std::ranges::find(good, true);
    if (begin == good.end())
        return gaps;
    auto end = good.end();
    while (!*std::prev(end))
        --end;
    for (auto it = begin; it != end;) {
        if (*it) {
            ++it;
            continue;
        }
        const auto from = it;
        while (!*it)
            ++it;
        gaps.push_back({ first + step * static_cast<double>(from - good.begin()), first + step * static_cast<double>(it - good.begin()) });
    }
    return gaps;
}

/// One stretch of the barrel along the axis, sector by sector.
struct Slice {
    static constexpr std::size_t sectors = 60;
    double middle = unknown; ///< radius, the median all round
    double slope = 0;
    std::array<double, sectors> radius {}; ///< NaN where it is not seen
    std::array<double, sectors> error {}; ///< one standard error
    std::array<bool, sectors> inset {};
    std::array<bool, sectors> perhaps {}; ///< stands proud, but not so surely
    double lowest = unknown; ///< without insets
    double plusMinus = 0;
    double seen = 0;
};

constexpr double slice = 2 * millimetre;
constexpr double leastSeen = 0.5;
constexpr double errors = 3; ///< standard errors that count as the width
constexpr double ownWidth = 0.05 * millimetre; ///< of a profile made of flat pieces

} // namespace

void Profiles::barrel()
{
    std::vector<double> radii;
    for (const Sample& s : samples_)
        radii.push_back(s.radius);
    outer_ = 0;
    if (!radii.empty()) {
        const auto place = radii.begin() + static_cast<std::ptrdiff_t>(0.97 * static_cast<double>(radii.size()));
        std::ranges::nth_element(radii, place);
        outer_ = *place;
    }
    std::vector<const Sample*> inside;
    for (const Sample& s : samples_)
        if (s.out < -0.2 && s.radius > 0.55 * outer_ && s.radius < 1.05 * outer_ && std::abs(s.along) < 0.5)
            inside.push_back(&s);
    if (inside.empty())
        return;
    double first = 1;
    double last = -1;
    for (const Sample* s : inside)
        first = std::min<double>(first, s->along), last = std::max<double>(last, s->along);
    first = slice * std::floor(first / slice);
    std::vector<Slice> slices(static_cast<std::size_t>((last - first) / slice) + 1);
    std::vector<std::vector<const Sample*>> in(slices.size());
    for (const Sample* s : inside)
        in[static_cast<std::size_t>((s->along - first) / slice)].push_back(s);
    // What makes up most of the turn is the barrel.
    for (std::size_t i = 0; i < slices.size(); ++i) {
        std::vector<double> all;
        for (const Sample* s : in[i])
            all.push_back(s->radius);
        if (all.size() >= 20)
            slices[i].middle = medianOf(std::move(all));
    }
    for (std::size_t i = 0; i < slices.size(); ++i) {
        const double before = i > 0 ? slices[i - 1].middle : unknown;
        const double after = i + 1 < slices.size() ? slices[i + 1].middle : unknown;
        const double here = slices[i].middle;
        slices[i].slope = !std::isnan(before + after) ? (after - before) / (2 * slice)
            : !std::isnan(before + here)              ? (here - before) / slice
            : !std::isnan(after + here)               ? (after - here) / slice
                                                      : 0;
    }
    const auto centre = [&](std::size_t i) { return first + slice * (static_cast<double>(i) + 0.5); };
    const auto levelled = [&](const Sample& s, std::size_t i) { return s.radius - slices[i].slope * (s.along - centre(i)); };
    // How rough the scan is: samples about the middle of their own sector.
    std::vector<double> misses;
    for (std::size_t i = 0; i < slices.size(); ++i) {
        endIfCancelled();
        Slice& here = slices[i];
        if (std::isnan(here.middle))
            continue;
        std::array<std::vector<double>, Slice::sectors> bySector;
        for (const Sample* s : in[i])
            if (const double r = levelled(*s, i); r > here.middle - 40 * millimetre && r < here.middle + 12 * millimetre)
                bySector[sectorOf(s->angle, Slice::sectors)].push_back(r);
        std::size_t seen = 0;
        std::vector<double> sizes;
        for (const auto& sector : bySector)
            sizes.push_back(static_cast<double>(sector.size()));
        // A sector half of which is a hole may hide a weight.
        const double fewest = std::max(3.0, 0.4 * medianOf(std::move(sizes)));
        for (std::size_t k = 0; k < Slice::sectors; ++k) {
            here.radius[k] = static_cast<double>(bySector[k].size()) >= fewest ? medianOf(bySector[k]) : unknown;
            here.error[k] = static_cast<double>(bySector[k].size()); // made an error below
            if (std::isnan(here.radius[k]))
                continue;
            ++seen;
            for (const double r : bySector[k])
                misses.push_back(std::abs(r - here.radius[k]));
        }
        here.seen = static_cast<double>(seen) / Slice::sectors;
    }
    rough_ = misses.empty() ? 0 : 1.4826 * medianOf(misses);
    // A sample is the middle of three corners.
    into_.noise = rough_ * std::numbers::sqrt3;
    for (Slice& here : slices) {
        if (std::isnan(here.middle) || here.seen < leastSeen)
            continue;
        std::vector<double> round;
        for (std::size_t k = 0; k < Slice::sectors; ++k)
            if (!std::isnan(here.radius[k])) {
                here.error[k] = 1.25 * rough_ / std::sqrt(here.error[k]);
                round.push_back(here.radius[k]);
            }
        here.middle = medianOf(round);
        here.lowest = here.middle;
        std::vector<double> ofErrors;
        for (std::size_t k = 0; k < Slice::sectors; ++k) {
            if (std::isnan(here.radius[k]))
                continue;
            ofErrors.push_back(here.error[k]);
            const double under = here.middle - here.radius[k];
            constexpr double standsProud = 1.2 * millimetre;
            const double bySlope = 0.5 * slice * std::abs(here.slope);
            here.inset[k] = under > std::max(standsProud, 5 * here.error[k]) + bySlope;
            here.perhaps[k] = under > std::max(standsProud / 2, 3.5 * here.error[k]) + bySlope;
            // What is no more than noise is none; what is more counts.
            if (!here.inset[k])
                here.lowest = std::min(here.lowest, here.radius[k] + errors * here.error[k]);
        }
        const double typical = medianOf(ofErrors);
        here.plusMinus =
            ownWidth + errors * std::hypot(typical, rough_ / std::sqrt(static_cast<double>(std::max<std::size_t>(1, round.size()))));
    }
    // One sector alone, in one slice alone, is an outlier and not a weight.
    const auto isInset = [&](std::size_t i, std::size_t k) {
        if (!slices[i].inset[k])
            return false;
        int beside = 0;
        for (std::size_t j = i > 0 ? i - 1 : 0; j < std::min(slices.size(), i + 2); ++j)
            for (const std::size_t m : { (k + Slice::sectors - 1) % Slice::sectors, k, (k + 1) % Slice::sectors })
                beside += slices[j].inset[m] ? 1 : 0;
        return beside >= 3;
    };
    // Where the spokes begin or end the barrel no longer goes round: from the inboard lip outboard as far as it is seen.
    std::vector<bool> good(slices.size());
    for (std::size_t i = 0; i < slices.size(); ++i)
        good[i] = !std::isnan(slices[i].lowest) && centre(i) > -15 * millimetre;
    into_.barrelUnseen = gapsOf(good, first, slice);
    std::vector<ScannedBarrel> stations;
    into_.allRoundSeen = true;
    for (std::size_t i = 0; i < slices.size(); ++i) {
        if (!good[i])
            continue;
        // A station speaks for the slices beside it: straight lines between stations are then never outside the barrel.
        ScannedBarrel station { centre(i), slices[i].lowest, slices[i].plusMinus, slices[i].seen };
        for (const std::size_t j : { i > 0 ? i - 1 : i, std::min(i + 1, slices.size() - 1) })
            if (good[j]) {
                station.insideRadius = std::min(station.insideRadius, slices[j].lowest);
                station.plusMinus = std::max(station.plusMinus, slices[j].plusMinus);
            } else if (j != i) {
                // Beside what is not seen it may already be on its way in.
                station.plusMinus += slice * std::abs(slices[i].slope);
                station.atGap = true;
            }
        into_.allRoundSeen = into_.allRoundSeen && station.seen > 0.99;
        stations.push_back(station);
    }
    into_.barrel = std::move(stations);

    // Insets, cluster by cluster.
    std::set<std::pair<std::size_t, std::size_t>> left;
    std::vector<std::pair<std::size_t, std::size_t>> sure;
    for (std::size_t i = 0; i < slices.size(); ++i)
        for (std::size_t k = 0; k < Slice::sectors; ++k)
            if (good[i] && (slices[i].inset[k] || slices[i].perhaps[k])) {
                left.emplace(i, k);
                if (isInset(i, k))
                    sure.emplace_back(i, k);
            }
    for (const auto& seed : sure) {
        if (left.erase(seed) == 0)
            continue;
        std::vector<std::pair<std::size_t, std::size_t>> cluster { seed };
        ScannedInset inset { centre(seed.first), centre(seed.first), 0, 0, 0 };
        std::set<std::size_t> sectors;
        for (std::size_t at = 0; at < cluster.size(); ++at) {
            const auto [i, k] = cluster[at];
            // Where it begins and ends is known to a slice.
            inset.from = std::min(inset.from, centre(i) - 1.5 * slice);
            inset.to = std::max(inset.to, centre(i) + 1.5 * slice);
            inset.height = std::max(inset.height, slices[i].middle - slices[i].radius[k]);
            inset.plusMinus = std::max(inset.plusMinus, errors * slices[i].error[k] + slices[i].plusMinus);
            sectors.insert(k);
            for (std::size_t j = i > 2 ? i - 2 : 0; j < std::min(slices.size(), i + 3); ++j)
                for (const std::size_t m : { (k + Slice::sectors - 1) % Slice::sectors, k, (k + 1) % Slice::sectors })
                    if (left.erase({ j, m }) > 0)
                        cluster.emplace_back(j, m);
        }
        inset.arc = static_cast<double>(sectors.size()) / Slice::sectors * turn * outer_;
        into_.insets.push_back(inset);
    }
}

namespace {

/// The nearest surface in a cell of the spokes' back: a plane through what is near the nearest.
struct Nearest {
    double distance = unknown; ///< at the cell's middle radius, at the angle where it is nearest
    double error = 0;
};

Nearest nearestIn(std::vector<const Sample*>& cell, double radius, double rough)
{
    Nearest none;
    if (cell.size() < 4)
        return none;
    // Outboard is behind: the nearest has the largest place along the axis.
    std::ranges::sort(cell, std::greater<> {}, &Sample::along);
    const std::size_t front = cell.size() / 10;
    const double near = cell[front]->along;
    const double deep = std::max(3 * millimetre, 6 * rough);
    std::vector<const Sample*> surface;
    double middle = 0;
    for (const Sample* s : cell)
        if (near - s->along < deep) {
            surface.push_back(s);
            middle += s->angle;
        }
    if (surface.size() < 4)
        return none;
    middle /= static_cast<double>(surface.size());
    Eigen::Matrix3d information = Eigen::Matrix3d::Identity() * 1e-12;
    Eigen::Vector3d right = Eigen::Vector3d::Zero();
    double most = 0;
    // Lengths in cells, so that what is not told by the samples stays small.
    constexpr double cellSize = 3 * millimetre;
    const auto rowOf = [&](const Sample& s) {
        return Eigen::Vector3d(1, (s.radius - radius) / cellSize, (s.angle - middle) * radius / cellSize);
    };
    for (const Sample* s : surface) {
        const Eigen::Vector3d row = rowOf(*s);
        information += row * row.transpose();
        right += row * s->along;
        most = std::max(most, std::abs(row[2]));
    }
    // A plane hardly slopes more than steeply.
    Eigen::Matrix3d held = information;
    held(1, 1) += 0.5;
    held(2, 2) += 0.5;
    const double mean = right[0] / information(0, 0);
    right -= information.col(0) * mean;
    const Eigen::Vector3d plane = held.ldlt().solve(right);
    double squares = 0;
    for (const Sample* s : surface)
        squares += std::pow(s->along - mean - rowOf(*s).dot(plane), 2);
    const double scatter = std::max(rough, std::sqrt(squares / static_cast<double>(surface.size())));
    // What is no plane, an edge or a fillet, is as near as its nearest.
    if (scatter > 2 * rough + 0.3 * millimetre)
        return { -near, 2 * rough };
    const Eigen::Vector3d edge(1, 0, most);
    const double error = scatter * std::sqrt(edge.dot(held.inverse() * edge));
    return { -(mean + plane[0] + std::abs(plane[2]) * most), error };
}

/// How many spokes there are, from where there is any surface round the axis.
int spokesIn(const std::vector<double>& round)
{
    double all = 0;
    for (const double each : round)
        all += each;
    if (!(all > 0))
        return 0;
    std::vector<double> strength(25);
    for (int n = 3; n <= 24; ++n) {
        std::complex<double> sum = 0;
        for (std::size_t k = 0; k < round.size(); ++k)
            sum += round[k] * std::polar(1.0, turn * n * static_cast<double>(k) / static_cast<double>(round.size()));
        strength[static_cast<std::size_t>(n)] = std::abs(sum) / all;
    }
    const auto best = std::ranges::max_element(strength) - strength.begin();
    constexpr double clear = 0.25;
    return strength[static_cast<std::size_t>(best)] > clear ? static_cast<int>(best) : 0;
}

} // namespace

double faceRadius(const std::vector<Sample>& samples, double rough)
{
    std::vector<double> radii;
    for (const Sample& s : samples)
        if (std::abs(s.along) < 1 * millimetre + 2 * rough && s.toward > 0.7 && s.radius < 95 * millimetre)
            radii.push_back(s.radius);
    if (radii.empty())
        return 0;
    const auto place = radii.begin() + static_cast<std::ptrdiff_t>(0.98 * static_cast<double>(radii.size()));
    std::ranges::nth_element(radii, place);
    return *place;
}

void Profiles::spokes()
{
    const double face = faceRadius(samples_, rough_);
    double barrel = std::numeric_limits<double>::infinity();
    for (const ScannedBarrel& b : into_.barrel)
        barrel = std::min(barrel, b.insideRadius);
    constexpr double step = 3 * millimetre;
    constexpr std::size_t sectors = 120;
    const double first = face + 1 * millimetre;
    if (!(barrel - first > 3 * step))
        return;
    const auto rings = static_cast<std::size_t>((barrel - 1 * millimetre - first) / step);
    std::vector<std::vector<const Sample*>> cells(rings * sectors);
    std::vector<double> round(360);
    for (const Sample& s : samples_) {
        // A flank's nearest place is its edge, and that belongs to the back.
        if (s.toward < 0.5 || s.along > 60 * millimetre || s.radius < first)
            continue;
        const auto ring = static_cast<std::size_t>((s.radius - first) / step);
        if (ring >= rings)
            continue;
        cells[ring * sectors + sectorOf(s.angle, sectors)].push_back(&s);
        if (ring > rings / 4 && ring < rings * 3 / 4)
            round[sectorOf(s.angle, 360)] += s.area;
    }
    into_.spokeCount = spokesIn(round);
    double phase = 0;
    if (into_.spokeCount > 0) {
        std::complex<double> sum = 0;
        for (std::size_t k = 0; k < round.size(); ++k)
            sum += round[k] * std::polar(1.0, turn * into_.spokeCount * (static_cast<double>(k) + 0.5) / static_cast<double>(round.size()));
        phase = std::arg(sum) / into_.spokeCount;
    }
    std::vector<Nearest> surface(rings * sectors);
    // A place alone in the air is an outlier.
    const auto hasNeighbour = [&](std::size_t ring, std::size_t k) {
        constexpr double together = 5 * millimetre;
        int beside = 0;
        for (std::size_t j = ring > 0 ? ring - 1 : 0; j < std::min(rings, ring + 2); ++j)
            for (const std::size_t m : { (k + sectors - 1) % sectors, k, (k + 1) % sectors })
                if (j != ring || m != k)
                    beside += surface[j * sectors + m].distance < surface[ring * sectors + k].distance + together ? 1 : 0;
        return beside >= 2;
    };
    std::vector<double> nearest(rings, unknown);
    std::vector<double> plusMinus(rings);
    std::vector<bool> whole(rings);
    for (std::size_t ring = 0; ring < rings; ++ring) {
        endIfCancelled();
        const double radius = first + step * (static_cast<double>(ring) + 0.5);
        std::vector<double> areas(static_cast<std::size_t>(std::max(1, into_.spokeCount)));
        for (std::size_t k = 0; k < sectors; ++k) {
            auto& cell = cells[ring * sectors + k];
            for (const Sample* s : cell) {
                const double spoke = (s->angle + std::numbers::pi - phase) / turn * static_cast<double>(areas.size());
                areas[static_cast<std::size_t>(std::lround(spoke) + 2 * static_cast<long>(areas.size())) % areas.size()] += s->area;
            }
            surface[ring * sectors + k] = nearestIn(cell, radius, rough_);
        }
        const double typical = medianOf(areas);
        whole[ring] = into_.spokeCount > 0 && std::ranges::all_of(areas, [&](double a) { return a > 0.5 * typical; });
    }
    for (std::size_t ring = 0; ring < rings; ++ring) {
        // As with the barrel: what is no more than noise does not make it nearer, what is more does.
        double least = std::numeric_limits<double>::infinity();
        double width = 0;
        for (std::size_t k = 0; k < sectors; ++k) {
            const auto& [distance, error] = surface[ring * sectors + k];
            if (distance + error < least && hasNeighbour(ring, k)) {
                least = distance + error;
                width = ownWidth + errors * error;
            }
        }
        if (std::isfinite(least)) {
            nearest[ring] = least;
            plusMinus[ring] = width;
        }
    }
    std::vector<bool> good(rings);
    for (std::size_t ring = 0; ring < rings; ++ring)
        good[ring] = !std::isnan(nearest[ring]) && (whole[ring] || into_.spokeCount == 0);
    into_.spokesUnseen = gapsOf(good, first, step);
    for (std::size_t ring = 0; ring < rings; ++ring) {
        if (!good[ring])
            continue;
        ScannedSpoke station { first + step * (static_cast<double>(ring) + 0.5), nearest[ring], plusMinus[ring] };
        for (const std::size_t beside : { ring > 0 ? ring - 1 : ring, std::min(ring + 1, rings - 1) })
            if (!std::isnan(nearest[beside]) && nearest[beside] < station.distance) {
                station.distance = nearest[beside];
                station.plusMinus = std::max(station.plusMinus, plusMinus[beside]);
            }
        into_.spokes.push_back(station);
    }
    // What hangs together with the spokes is no inset of the barrel.
    double joins = 0;
    for (const ScannedSpoke& each : into_.spokes)
        joins = std::max(joins, -each.distance);
    std::erase_if(into_.insets, [&](const ScannedInset& i) { return i.from < joins; });
}

void Profiles::flanges()
{
    // Both ends have to be seen from their own side.
    using Places = std::vector<std::pair<double, double>>; // along, outward positive, and angle
    Places inboard;
    Places outboard;
    for (const Sample& s : samples_)
        if (s.radius > 0.88 * outer_ && s.radius < 1.08 * outer_) {
            if (s.toward > 0.7)
                inboard.emplace_back(s.along, s.angle);
            if (s.toward < -0.7)
                outboard.emplace_back(-s.along, s.angle);
        }
    const auto end = [&](Places& along) {
        constexpr std::size_t fewest = 100;
        constexpr std::size_t sectors = 36;
        std::ranges::sort(along, std::greater<> {});
        // The farthest that is no outlier: surface within a millimetre below it goes round at least half of the turn.
        for (std::size_t i = 0; i + fewest < along.size(); ++i) {
            if (along[i].first - along[i + fewest / 2].first > 1 * millimetre)
                continue;
            std::vector<double> top;
            std::array<bool, sectors> there {};
            for (std::size_t k = i; k < along.size() && along[i].first - along[k].first < 1 * millimetre + 2 * rough_; ++k) {
                top.push_back(along[k].first);
                there[sectorOf(along[k].second, sectors)] = true;
            }
            if (2 * std::ranges::count(there, true) >= static_cast<std::ptrdiff_t>(sectors))
                return medianOf(std::move(top));
        }
        return unknown;
    };
    const double in = end(inboard);
    const double out = -end(outboard);
    // Both at the barrel's own ends.
    constexpr double near = 40 * millimetre;
    if (std::isnan(in + out) || !(in > out) || into_.barrel.empty() || in < into_.barrel.back().depth - 5 * millimetre
        || in > into_.barrel.back().depth + near)
        return;
    const double own = 1 * millimetre + 2 * rough_;
    into_.overallWidth = Sized { in - out, own };
    into_.offset = Sized { (in + out) / 2, own / 2 };
}

BoltHoles::BoltHoles(const std::vector<std::array<double, 2>>& walls, double faceRadius)
{
    if (walls.size() < 30)
        return;
    // Every place of a grid as a hole's middle: how much of a circle about it has a wall, and nothing inside.
    constexpr double grid = 1 * millimetre;
    constexpr double widest = 12 * millimetre;
    constexpr double narrowest = 5 * millimetre;
    constexpr double reach = 0.1;
    constexpr int across = static_cast<int>(2 * reach / grid);
    std::vector<std::vector<std::uint32_t>> cells(static_cast<std::size_t>(across * across));
    const auto cellOf = [&](double v) { return std::clamp(static_cast<int>((v + reach) / grid), 0, across - 1); };
    // Some thousands tell where to look; where it is they all tell.
    constexpr std::size_t enough = 6000;
    for (std::size_t i = 0; i < walls.size(); i += std::max<std::size_t>(1, walls.size() / enough))
        cells[static_cast<std::size_t>(cellOf(walls[i][1]) * across + cellOf(walls[i][0]))].push_back(static_cast<std::uint32_t>(i));
    struct Candidate {
        double score;
        double x, y, radius;
    };
    std::vector<Candidate> candidates;
    constexpr std::size_t sectors = 16;
    constexpr std::size_t sizes = 15; // half millimetres from the narrowest
    for (double y = -reach; y < reach; y += grid) {
        endIfCancelled();
        for (double x = -reach; x < reach; x += grid) {
            const double r = std::hypot(x, y);
            if (r < 35 * millimetre || r > faceRadius - narrowest)
                continue;
            std::array<std::array<bool, sectors>, sizes> there {};
            double inside = 0;
            double near = 0;
            const int reachCells = static_cast<int>(widest / grid) + 1;
            for (int j = cellOf(y) - reachCells; j <= cellOf(y) + reachCells; ++j)
                for (int i = cellOf(x) - reachCells; i <= cellOf(x) + reachCells; ++i) {
                    if (i < 0 || j < 0 || i >= across || j >= across)
                        continue;
                    for (const std::uint32_t w : cells[static_cast<std::size_t>(j * across + i)]) {
                        const double dx = walls[w][0] - x;
                        const double dy = walls[w][1] - y;
                        const double far = std::hypot(dx, dy);
                        if (far < narrowest - 1.5 * millimetre)
                            ++inside;
                        else if (far < widest)
                            ++near;
                        const double size = (far - narrowest) / (0.5 * millimetre);
                        for (int s = static_cast<int>(size) - 1; s <= static_cast<int>(size) + 1; ++s)
                            if (s >= 0 && s < static_cast<int>(sizes))
                                there[static_cast<std::size_t>(s)][sectorOf(std::atan2(dy, dx), sectors)] = true;
                    }
                }
            if (inside > 0.03 * near + 1)
                continue;
            for (std::size_t s = 0; s < sizes; ++s) {
                const auto full = static_cast<double>(std::ranges::count(there[s], true));
                if (full >= 11)
                    candidates.push_back({ full, x, y, narrowest + static_cast<double>(s) * 0.5 * millimetre });
            }
        }
    }
    std::ranges::stable_sort(candidates, std::greater<> {}, &Candidate::score);
    std::vector<Circle> found;
    for (const Candidate& c : candidates) {
        if (std::ranges::any_of(found, [&](const Circle& f) { return std::hypot(f.x - c.x, f.y - c.y) < f.radius + 4 * millimetre; }))
            continue;
        std::vector<std::array<double, 2>> points;
        for (const auto& w : walls)
            if (std::abs(std::hypot(w[0] - c.x, w[1] - c.y) - c.radius) < 2 * millimetre)
                points.push_back(w);
        const auto circle = circleThrough(points);
        if (circle && circle->seen > 0.5 && std::hypot(circle->x, circle->y) + circle->radius < faceRadius + 1 * millimetre
            && std::hypot(circle->x - c.x, circle->y - c.y) < 3 * millimetre && std::abs(circle->radius - c.radius) < 2.5 * millimetre)
            found.push_back(*circle);
    }
    // The pattern that most of them fit: n evenly about the axis, at one radius, of one size.
    int bestSeen = 0;
    for (const Circle& first : found) {
        const double radius = std::hypot(first.x, first.y);
        const double angle = std::atan2(first.y, first.x);
        for (int n = 3; n <= 10; ++n) {
            std::vector<Circle> fits;
            std::set<long> places;
            for (const Circle& each : found) {
                const double place = (std::atan2(each.y, each.x) - angle) / turn * n;
                const double off = std::abs(place - std::round(place)) * turn / n * radius;
                if (off < 1.5 * millimetre && std::abs(std::hypot(each.x, each.y) - radius) < 1.5 * millimetre
                    && std::abs(each.radius - first.radius) < 1 * millimetre && places.insert((std::lround(place) + n) % n).second)
                    fits.push_back(each);
            }
            // More than half of the places are seen to have a hole; of patterns that fit as many the coarsest.
            if (static_cast<int>(fits.size()) > bestSeen && static_cast<double>(fits.size()) > 0.5 * n && fits.size() >= 3) {
                bestSeen = static_cast<int>(fits.size());
                count_ = n;
                seen_ = std::move(fits);
            }
        }
    }
    if (count_ == 0)
        return;
    double sum = 0;
    double error = 0;
    double x = 0;
    double y = 0;
    for (const Circle& each : seen_) {
        sum += std::hypot(each.x, each.y);
        error += each.plusMinus * each.plusMinus;
        x += each.x;
        y += each.y;
    }
    const auto n = static_cast<double>(seen_.size());
    circle_ = { x / n, y / n, sum / n, std::sqrt(error) / n, 0, n / count_ };
    double squares = 0;
    for (const Circle& each : seen_)
        squares += std::pow(std::hypot(each.x, each.y) - circle_.radius, 2);
    circle_.rough = std::sqrt(squares / n);
    circle_.plusMinus = std::max(circle_.plusMinus, 3 * circle_.rough / std::sqrt(n));
}

} // namespace deepstop::scan
