#include "hydraulics/hydraulics.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::hydraulics {
namespace {

constexpr double impossible = std::numeric_limits<double>::quiet_NaN();

bool makesSense(const Master& m)
{
    return m.bore > 0 && (!m.twins || (m.rearBore > 0 && m.barToFront > 0 && m.barToFront < 1)) && m.firstShare > 0 && m.firstShare < 1;
}

bool makesSense(const PedalTrain& foot)
{
    return foot.pedalRatio > 0 && foot.measuredOverReckoned > 0 && foot.booster.gain >= 1 && foot.booster.knee > 0
        && makesSense(foot.master);
}

} // namespace

double boosted(const Booster& b, double input) { return b.gain * input <= b.knee ? b.gain * input : b.knee + (input - b.knee / b.gain); }

double inputFor(const Booster& b, double output) { return output <= b.knee ? output / b.gain : output - b.knee + b.knee / b.gain; }

double areaOf(double bore) { return std::numbers::pi / 4 * bore * bore; }

double rodArea(const Master& m)
{
    if (!makesSense(m))
        return impossible;
    return m.twins ? areaOf(m.bore) / m.barToFront : areaOf(m.bore);
}

double rearOverFront(const Master& m)
{
    if (!makesSense(m))
        return impossible;
    return m.twins ? (1 - m.barToFront) / m.barToFront * areaOf(m.bore) / areaOf(m.rearBore) : 1;
}

double frontPressure(const PedalTrain& foot, double pedalForce)
{
    if (!makesSense(foot) || !(pedalForce >= 0))
        return impossible;
    return foot.measuredOverReckoned * boosted(foot.booster, pedalForce * foot.pedalRatio) / rodArea(foot.master);
}

double pedalForceFor(const PedalTrain& foot, double pressure)
{
    if (!makesSense(foot) || !(pressure >= 0))
        return impossible;
    return inputFor(foot.booster, pressure / foot.measuredOverReckoned * rodArea(foot.master)) / foot.pedalRatio;
}

double forceAtKnee(const PedalTrain& foot)
{
    if (!makesSense(foot))
        return impossible;
    return foot.booster.gain > 1 ? foot.booster.knee / foot.booster.gain / foot.pedalRatio : std::numeric_limits<double>::infinity();
}

FluidDemand takeUpOf(const DiscTakeUp& d)
{
    return { 2 * d.rollBack * d.areaAll, 2 * (2 * d.padSqueeze * d.areaOneSide + d.caliperGive + d.hoseGive) / givePressure };
}

FluidDemand takeUpOf(const DrumTakeUp& d) { return { 2 * 2 * d.play * d.cylinderArea, 2 * (d.give + d.hoseGive) / givePressure }; }

Travel travel(const PedalTrain& foot, const FluidDemand& front, const FluidDemand& rear, double frontPressure, double rearPressure)
{
    const Master& m = foot.master;
    if (!makesSense(foot))
        return { impossible, impossible, impossible };
    const double toFront = front.at(frontPressure) / areaOf(m.bore);
    const double toRear = rear.at(rearPressure) / areaOf(m.twins ? m.rearBore : m.bore);
    // The work of the push rod is that of both pistons, so the bar's middle goes by their shares of the force.
    const double pushrod = m.twins ? m.barToFront * toFront + (1 - m.barToFront) * toRear : toFront + toRear;
    // A chamber that is used up ends the stroke, whatever the other has left.
    const double first = m.twins ? toFront : m.diagonal ? (toFront + toRear) / 2 : toFront;
    const double second = m.twins ? toRear : toFront + toRear - first;
    const double share = m.twins ? std::max(first, second) / m.stroke
                                 : std::max(first / (m.firstShare * m.stroke), second / ((1 - m.firstShare) * m.stroke));
    return { pushrod, pushrod * foot.pedalRatio + foot.freePlay, std::isfinite(toFront + toRear) ? share : impossible };
}

Travel travelOf(double volume, double masterBore, double pedalRatio, double freePlay, double stroke)
{
    const double pushrod = volume / areaOf(masterBore);
    return { pushrod, pushrod * pedalRatio + freePlay, pushrod / stroke };
}

OneGone oneGone(const PedalTrain& foot, bool first, double volume)
{
    const Master& m = foot.master;
    if (!makesSense(foot))
        return { impossible, impossible };
    const double moved = volume / areaOf(m.twins && first ? m.rearBore : m.bore);
    const double lost = m.twins ? m.stroke : m.stroke * (first ? m.firstShare : 1 - m.firstShare);
    const double own = m.twins ? m.stroke : m.stroke - lost;
    const double toFront = first ? lost : moved;
    const double toRear = first ? moved : lost;
    const double pushrod = m.twins ? m.barToFront * toFront + (1 - m.barToFront) * toRear : lost + moved;
    return { moved / own, pushrod * foot.pedalRatio + foot.freePlay };
}

} // namespace deepstop::hydraulics
