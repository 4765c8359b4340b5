#include "quantity/quantile.hpp"
#include "scan/profile.hpp"
#include "scan/sectors.hpp"
#include "task/cancel.hpp"

#include <Eigen/Dense>

#include <cmath>
#include <complex>

namespace deepstop::scan {
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
    return radii.empty() ? 0 : quantile(std::move(radii), 0.98);
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
        const double typical = quantile(areas, 0.5);
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

} // namespace deepstop::scan
