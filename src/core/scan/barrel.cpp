#include "quantity/quantile.hpp"
#include "scan/profile.hpp"
#include "scan/sectors.hpp"
#include "task/cancel.hpp"

#include <array>
#include <cmath>
#include <set>

namespace deepstop::scan {
namespace {

/// One stretch of the barrel along the axis, sector by sector.
struct Slice {
    static constexpr std::size_t sectors = 60;
    double middle = unknown; ///< radius, the median all round
    double slope = 0;
    std::array<double, sectors> radius {}; ///< NaN where it is not seen
    std::array<std::size_t, sectors> samples {};
    std::array<double, sectors> error {}; ///< one standard error
    std::array<bool, sectors> inset {};
    std::array<bool, sectors> perhaps {}; ///< stands proud, but not so surely
    double lowest = unknown; ///< without insets
    double plusMinus = 0;
    double seen = 0;
};

constexpr double slice = 2 * millimetre;
constexpr double leastSeen = 0.5;
} // namespace

void Profiles::barrel()
{
    std::vector<double> radii;
    for (const Sample& s : samples_)
        radii.push_back(s.radius);
    outer_ = quantile(std::move(radii), 0.97);
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
            slices[i].middle = quantile(std::move(all), 0.5);
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
        const double fewest = std::max(3.0, 0.4 * quantile(std::move(sizes), 0.5));
        for (std::size_t k = 0; k < Slice::sectors; ++k) {
            here.radius[k] = static_cast<double>(bySector[k].size()) >= fewest ? quantile(bySector[k], 0.5) : unknown;
            here.samples[k] = bySector[k].size();
            if (std::isnan(here.radius[k]))
                continue;
            ++seen;
            for (const double r : bySector[k])
                misses.push_back(std::abs(r - here.radius[k]));
        }
        here.seen = static_cast<double>(seen) / Slice::sectors;
    }
    rough_ = misses.empty() ? 0 : 1.4826 * quantile(misses, 0.5);
    // A sample is the middle of three corners.
    into_.noise = rough_ * std::numbers::sqrt3;
    for (Slice& here : slices) {
        if (std::isnan(here.middle) || here.seen < leastSeen)
            continue;
        std::vector<double> round;
        for (std::size_t k = 0; k < Slice::sectors; ++k)
            if (!std::isnan(here.radius[k])) {
                here.error[k] = 1.25 * rough_ / std::sqrt(static_cast<double>(here.samples[k]));
                round.push_back(here.radius[k]);
            }
        here.middle = quantile(round, 0.5);
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
        const double typical = quantile(ofErrors, 0.5);
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
                return quantile(std::move(top), 0.5);
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

} // namespace deepstop::scan
