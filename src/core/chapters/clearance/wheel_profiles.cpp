#include "chapters/clearance/wheel_profiles.hpp"

#include "chapters/clearance/wheel_figures.hpp"
#include "language/language.hpp"
#include "quantity/order.hpp"

#include <cmath>
#include <limits>
#include <string>

namespace deepstop::figures {
namespace {

std::string nameOf(InsetKind kind)
{
    switch (kind) {
    case InsetKind::Unknown:
        return marked("what stands inside");
    case InsetKind::Weights:
        return marked("the weights");
    case InsetKind::Valve:
        return marked("the valve");
    case InsetKind::Sensor:
        return marked("the sensor");
    }
    return {};
}

/// A stretch of a profile read more densely than any hand does: its ends and the station that stands nearest the caliper.
template <class Station>
struct Stretch {
    const Station* first;
    const Station* last;
    const Station* nearest;
};

/// More stations than these are taken together, stretch by stretch.
constexpr std::size_t dense = 240;

/// Stations in order, cut into stretches that each count with their nearest station all along: never more room than the profile has, and a
/// figure that rests on some hundred readings instead of thousands. Nothing where the profile is not that dense, or lacks a reading.
template <class Station>
std::vector<Stretch<Station>> stretchesOf(std::span<const Station* const> stations, Reading Station::*along, Reading Station::*across)
{
    constexpr std::size_t most = 60;
    std::vector<Stretch<Station>> stretches;
    if (stations.size() <= dense
        || !std::ranges::all_of(stations, [&](const Station* each) { return (each->*along).value && (each->*across).value; }))
        return stretches;
    std::vector<const Station*> order(stations.begin(), stations.end());
    std::ranges::stable_sort(order, {}, [&](const Station* each) { return *(each->*along).value; });
    for (std::size_t i = 0; i < most; ++i) {
        const std::span part(order.begin() + static_cast<std::ptrdiff_t>(i * order.size() / most),
            order.begin() + static_cast<std::ptrdiff_t>((i + 1) * order.size() / most));
        stretches.push_back({ part.front(), part.back(),
            *std::ranges::min_element(part, {}, [&](const Station* each) { return *(each->*across).value; }) });
    }
    return stretches;
}

/// Where a wheel's chains run straight from point to point, because both ends of the bend were measured there.
template <class Station>
std::vector<geometry::Point> bendsOf(Evaluator& s, const std::vector<Station>& stations, auto toPoint)
{
    std::vector<geometry::Point> bends;
    for (const Station& station : stations)
        if (station.bend == YesNo::Yes)
            bends.push_back(toPoint(s, station));
    return bends;
}

} // namespace

geometry::Chain barrelOf(Evaluator& s, const Wheel& wheel, double face)
{
    geometry::Chain chain;
    chain.reserve(wheel.barrel.size());
    const auto& stretches = s.once<std::vector<Stretch<BarrelStation>>>(&wheel.barrel, [&] {
        std::vector<const BarrelStation*> all;
        for (const BarrelStation& station : wheel.barrel)
            all.push_back(&station);
        return stretchesOf<BarrelStation>(all, &BarrelStation::depth, &BarrelStation::insideRadius);
    });
    for (const auto& stretch : stretches)
        for (const BarrelStation* end : { stretch.first, stretch.last })
            chain.push_back({ -s(end->depth), s(stretch.nearest->insideRadius) });
    if (stretches.empty())
        for (const BarrelStation& station : wheel.barrel)
            chain.push_back({ -s(station.depth), s(station.insideRadius) });
    if (chain.size() < 2) {
        const auto estimated = fit::estimatedBarrel(wheel.nominalDiameter, wheel.nominalWidth, s(wheel.offset));
        if (!estimated)
            return {};
        s.assume(tr("the barrel of {}, estimated from its printed size", wheel.name));
        chain = *estimated;
    }
    if (!std::ranges::is_sorted(chain, ascending, &geometry::Point::z))
        std::ranges::sort(chain, ascending, &geometry::Point::z);
    return geometry::moved(std::move(chain), face);
}

geometry::Chain barrelsEnd(Evaluator& s, const Wheel& wheel, double face)
{
    const BarrelStation* end = nullptr;
    double depth = std::numeric_limits<double>::infinity();
    for (const BarrelStation& station : wheel.barrel)
        if (const double there = s(station.depth); !(there >= depth)) {
            depth = there;
            end = &station;
        }
    return end ? geometry::Chain { { face - depth, s(end->insideRadius) } } : geometry::Chain {};
}

std::vector<fit::Outline> spokesOf(Evaluator& s, const Wheel& wheel, double face, bool named)
{
    std::vector<fit::Outline> lines;
    std::vector<std::vector<const SpokeStation*>> down;
    for (const SpokeStation& station : wheel.spokes) {
        std::size_t line = 0;
        while (line < down.size() && down[line].front()->along != station.along)
            ++line;
        if (line == down.size())
            down.emplace_back();
        down[line].push_back(&station);
    }
    for (const auto& stations : down) {
        auto& chain = lines.emplace_back(fit::Outline { named ? stations.front()->along : std::string(), {} }).chain;
        const auto& stretches = s.once<std::vector<Stretch<SpokeStation>>>(
            stations.front(), [&] { return stretchesOf<SpokeStation>(stations, &SpokeStation::radius, &SpokeStation::distance); });
        for (const auto& stretch : stretches)
            for (const SpokeStation* end : { stretch.first, stretch.last })
                chain.push_back({ s(stretch.nearest->distance) + face, s(end->radius) });
        if (stretches.empty())
            for (const SpokeStation* station : stations)
                chain.push_back({ s(station->distance) + face, s(station->radius) });
    }
    for (fit::Outline& line : lines)
        if (!std::ranges::is_sorted(line.chain, ascending, &geometry::Point::r))
            std::ranges::sort(line.chain, ascending, &geometry::Point::r);
    return lines;
}

std::vector<fit::Outline> insetsOf(Evaluator& s, const Wheel& wheel, const geometry::Chain& barrel, double face)
{
    std::vector<fit::Outline> insets;
    for (const Inset& inset : wheel.insets)
        insets.push_back({ nameOf(inset.kind), fit::insetOnBarrel(barrel, face - s(inset.from), face - s(inset.to), s(inset.height)) });
    return insets;
}

void addBends(Evaluator& s, const Wheel& wheel, double face, fit::WheelShape& shape)
{
    shape.bends = bendsOf(s, wheel.barrel, [face](Evaluator& t, const BarrelStation& b) {
        return geometry::Point { face - t(b.depth), t(b.insideRadius) };
    });
    // A barrel drawn by its printed size bends where it is drawn to.
    if (wheel.barrel.size() < 2)
        shape.bends = shape.barrel;
    const auto ofSpokes = bendsOf(s, wheel.spokes, [face](Evaluator& t, const SpokeStation& b) {
        return geometry::Point { face + t(b.distance), t(b.radius) };
    });
    shape.bends.insert(shape.bends.end(), ofSpokes.begin(), ofSpokes.end());
}

fit::WheelShape wheelOf(Evaluator& s, const Wheel& wheel, double face)
{
    fit::WheelShape shape { barrelOf(s, wheel, face), spokesOf(s, wheel, face, true), {} };
    shape.insets = insetsOf(s, wheel, shape.barrel, face);
    shape.alike = wheel.spokesAlike == YesNo::Yes;
    addBends(s, wheel, face, shape);
    return shape;
}

bool weightsPlaced(const Wheel& wheel)
{
    return wheel.balanceWeights == YesNo::No
        || std::ranges::any_of(wheel.insets, [](const Inset& inset) { return inset.kind == InsetKind::Weights; });
}

} // namespace deepstop::figures
