/// The questions the other way round: how large, how far, how small.

#include "chapters/clearance/cures.hpp"
#include "chapters/clearance/tried.hpp"

#include "fit/stance.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

/// Why nothing can be searched for on this axle, or empty.
std::string nothingToSearch(const CornerClearance& result)
{
    if (!result.corner || !result.wheel)
        return tr("no wheel chosen");
    for (const WheelGap which : wheelGaps) {
        if (!strikes(which, *result.wheel))
            continue;
        const Figure& gap = result.room(which).gap;
        if (!gap.value)
            return tr("the gaps to the wheel are not known yet");
        if (gap.provisional() && which != WheelGap::Spokes)
            return tr("the wheel's barrel is not measured where the caliper is");
    }
    return {};
}

} // namespace

LargestRotor largestRotor(const Study& study, Axle axle)
{
    const CornerClearance& result = study.of<Clearance>().after.at(axle).left;
    LargestRotor answer;
    answer.why = nothingToSearch(result);
    if (!answer.why.empty())
        return answer;
    Corner corner = *result.corner;
    const Wheel& wheel = *result.wheel;
    const Tried tried(*study.build, corner, wheel);
    std::array<double, wheelGaps.size()> allowance {};
    for (const WheelGap which : wheelGaps)
        allowance[static_cast<std::size_t>(which)] = allowanceOf(gapsOf(study.of<Clearance>().after.at(axle)), which);
    // Under the barrel room shrinks as the rotor grows, so halving finds where it ends; beside the spokes it may come and go, so from there
    // every millimetre is tried, and the last word is a full evaluation.
    constexpr int least = 200;
    const auto under = [&](int millimetres) {
        corner.rotor.outerDiameter.value = millimetres * 1e-3;
        return tried.mayClear(WheelGap::Barrel, allowance);
    };
    int low = least;
    int high = 600;
    if (!under(low)) {
        answer.why = tr("not even a rotor of 200 mm clears this wheel");
        return answer;
    }
    while (high - low > 1) {
        const int middle = (low + high) / 2;
        (under(middle) ? low : high) = middle;
    }
    const auto proven = [&](int millimetres) {
        corner.rotor.outerDiameter.value = millimetres * 1e-3;
        if (millimetres <= low && !tried.mayClear(allowance))
            return false;
        const auto gaps = tried.judged().first;
        for (const WheelGap which : wheelGaps)
            if (const Figure& gap = gaps[static_cast<std::size_t>(which)];
                strikes(which, wheel) && (gap.provisional() || !(gap.lowest() >= tried.wanted(which) - 1e-12))) {
                answer.limit = which;
                return false;
            }
        return true;
    };
    for (int size = low + 1; size >= least; --size)
        if (proven(size)) {
            // What the next one would strike.
            (void)proven(size + 1);
            answer.diameter = size * 1e-3;
            return answer;
        }
    answer.why = tr("no rotor from 200 mm up clears this wheel with this caliper");
    return answer;
}

OffsetRange offsetRange(const Study& study, Axle axle)
{
    const CornerClearance& result = study.of<Clearance>().after.at(axle).left;
    OffsetRange answer;
    answer.why = nothingToSearch(result);
    if (!answer.why.empty())
        return answer;
    if (!result.wheel->offset.value) {
        answer.why = tr("the wheel's own offset is not known");
        return answer;
    }
    // Another offset with the same barrel and spokes is the same wheel pushed along the axle.
    constexpr int steps = 80;
    constexpr double step = 0.5e-3;
    Corner corner = *result.corner;
    const double there = corner.spacer.value.value_or(0);
    const Tried tried(*study.build, corner, *result.wheel);
    std::array<double, wheelGaps.size()> allowance {};
    for (const WheelGap which : wheelGaps)
        allowance[static_cast<std::size_t>(which)] = allowanceOf(gapsOf(study.of<Clearance>().after.at(axle)), which);
    const auto clears = [&](int i) {
        corner.spacer.value = there + i * step;
        return tried.mayClear(allowance);
    };
    std::optional<int> nearest;
    for (int i = 0; i <= steps && !nearest; ++i)
        nearest = clears(i) ? std::optional(i) : clears(-i) ? std::optional(-i) : std::nullopt;
    if (!nearest) {
        answer.why = tr("no offset within 40 mm of this wheel's clears");
        return answer;
    }
    int out = *nearest;
    int in = *nearest;
    while (out < steps && clears(out + 1))
        ++out;
    while (in > -steps && clears(in - 1))
        --in;
    const double own = *result.wheel->offset.value;
    answer.offsets = { own - out * step, own - in * step };
    answer.openLow = out == steps;
    answer.openHigh = in == -steps;
    return answer;
}

SmallestWheel smallestWheel(const Study& study, Axle axle, const library::Library* library)
{
    SmallestWheel answer;
    const CornerClearance& result = study.of<Clearance>().after.at(axle).left;
    if (!result.corner || !result.standIns.empty())
        return answer;
    double top = 0;
    for (const fit::Outline& part : fit::caliperOutlines(result.shape))
        for (const geometry::Point p : part.chain)
            top = std::max(top, p.r);
    constexpr double leastMetal = 3e-3;
    for (int size = 14; size <= 20 && top > 0; ++size)
        if (*fit::beadSeatDiameter(size) / 2 - leastMetal < top)
            answer.impossible = size;
    for (const Candidate& candidate : candidateWheels(study, axle, library))
        // A wheel of unknown size cannot be called the smallest.
        if (candidate.level == Level::Clear && candidate.wheel->nominalDiameter > 0
            && (!answer.proven || candidate.wheel->nominalDiameter < answer.proven->nominalDiameter))
            answer.proven = candidate.wheel;
    return answer;
}

std::string inWords(const LargestRotor& answer, UnitSystem system)
{
    if (!answer.diameter)
        return tr("Largest rotor with this caliper in this wheel: {}.", answer.why);
    constexpr std::array limits { marked("the barrel"), marked("the weights or the valve"), marked("the spokes") };
    return tr("Largest rotor with this caliper in this wheel: {}; the next comes too near {}.",
        print(*answer.diameter, style::size, system), limits[static_cast<std::size_t>(answer.limit)]);
}

std::string inWords(const OffsetRange& answer, UnitSystem system)
{
    if (!answer.offsets)
        return tr("Offsets of a wheel of this shape that clear: {}.", answer.why);
    return tr("Offsets of a wheel of this shape that clear: ET {} to {}{}.", print(answer.offsets->first, style::gap, system),
        print(answer.offsets->second, style::gap, system),
        answer.openLow || answer.openHigh ? tr(", and perhaps beyond, where nobody looked") : "");
}

std::string inWords(const SmallestWheel& answer)
{
    std::string text = answer.proven ? tr("Smallest wheel for this kit: {} clears on its readings", answer.proven->name)
                                     : std::string(tr("Smallest wheel for this kit: none of the measured ones is proven to clear"));
    if (answer.impossible)
        text += tr("; {} inches and under cannot, whatever their shape", *answer.impossible);
    return text + ".";
}

} // namespace deepstop
