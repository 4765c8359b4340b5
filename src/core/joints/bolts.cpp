#include "joints/bolts.hpp"

#include "language/language.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>
#include <numeric>

namespace deepstop::joints {
namespace {

/// 1000 pounds to the square inch, Pa.
constexpr double ksi = 6.894757e6;

/// Inch threads have a whole number of turns to the inch; no metric pitch has.
bool isInch(const Thread& thread)
{
    const double turns = 0.0254 / thread.pitch;
    return std::abs(turns - std::round(turns)) < 1e-6;
}

} // namespace

double stressArea(const Thread& thread)
{
    const double core = thread.diameter - (isInch(thread) ? 0.9743 : 0.9382) * thread.pitch;
    return std::numbers::pi / 4 * core * core;
}

std::string_view nameOf(Grade grade)
{
    switch (grade) {
    case Grade::G8_8:
        return "8.8";
    case Grade::G10_9:
        return "10.9";
    case Grade::G12_9:
        return "12.9";
    case Grade::A2_70:
        return "A2-70";
    case Grade::A4_80:
        return "A4-80";
    case Grade::SAE5:
        return marked("SAE grade 5");
    case Grade::SAE8:
        return marked("SAE grade 8");
    }
    return "";
}

double proofStress(Grade grade, double diameter)
{
    switch (grade) {
    case Grade::G8_8:
        return diameter <= 16e-3 + 1e-9 ? 580e6 : 600e6;
    case Grade::G10_9:
        return 830e6;
    case Grade::G12_9:
        return 970e6;
    case Grade::A2_70:
        return 450e6;
    case Grade::A4_80:
        return 600e6;
    case Grade::SAE5:
        return 85 * ksi;
    case Grade::SAE8:
        return 120 * ksi;
    }
    return std::numeric_limits<double>::quiet_NaN();
}

double proofLoad(const Thread& thread, double proofStress) { return proofStress * stressArea(thread); }
double proofLoad(const Thread& thread, Grade grade) { return proofLoad(thread, proofStress(grade, thread.diameter)); }

std::string_view nameOf(Lubrication lubrication)
{
    switch (lubrication) {
    case Lubrication::Dry:
        return marked("dry");
    case Lubrication::Oiled:
        return marked("oiled");
    case Lubrication::Threadlocker:
        return marked("threadlocker");
    case Lubrication::AntiSeize:
        return marked("anti-seize");
    }
    return "";
}

double nutFactor(Lubrication lubrication)
{
    switch (lubrication) {
    case Lubrication::Dry:
        return 0.20;
    case Lubrication::Oiled:
        return 0.15;
    case Lubrication::Threadlocker:
        return 0.16;
    case Lubrication::AntiSeize:
        return 0.125;
    }
    return std::numeric_limits<double>::quiet_NaN();
}

double torqueFor(double preload, double diameter, Lubrication lubrication) { return nutFactor(lubrication) * preload * diameter; }
double preloadFrom(double torque, double diameter, Lubrication lubrication) { return torque / (nutFactor(lubrication) * diameter); }

double engagementWanted(Metal metal)
{
    switch (metal) {
    case Metal::Steel:
        return 1.0;
    case Metal::Iron:
        return 1.5;
    case Metal::Aluminium:
        return 2.0;
    }
    return std::numeric_limits<double>::quiet_NaN();
}

BoltFit fitOf(const BoltStack& s)
{
    const double into = s.length - s.grip - s.shims;
    const double past = into - s.threadDepth;
    // The last pitch is lead; where the bolt stands past the thread's end all of the thread is engaged.
    const double engaged = std::min(std::max(0.0, into - s.pitch), s.threadDepth);
    return { std::isfinite(into + s.threadDepth + s.pitch) ? engaged : std::numeric_limits<double>::quiet_NaN(),
        std::isfinite(into + s.threadDepth) ? engaged / s.pitch : std::numeric_limits<double>::quiet_NaN(), past, s.roomBehind - past };
}

std::optional<BoltLengths> lengthsThatDo(const BoltStack& s, double wanted)
{
    const BoltLengths lengths { s.grip + s.shims + std::min(wanted, s.threadDepth) + s.pitch,
        s.grip + s.shims + s.threadDepth + s.roomBehind };
    return wanted <= s.threadDepth + 1e-9 && lengths.least <= lengths.most + 1e-9 ? std::optional(lengths) : std::nullopt;
}

double slipMargin(int bolts, double preload, double brakeTorque, double mountRadius, double friction)
{
    return bolts * preload * friction / (brakeTorque / mountRadius);
}

double shearMargin(int bolts, const Thread& thread, Grade grade, double brakeTorque, double mountRadius)
{
    return bolts * 0.6 * proofLoad(thread, grade) / (brakeTorque / mountRadius);
}

double forceOnPairBolt(double brakeTorque, double effectiveRadius, double mountRadius, double spacing)
{
    const double force = brakeTorque / effectiveRadius;
    return std::hypot(force / 2, force * (effectiveRadius - mountRadius) / spacing);
}

double forceOnCircleBolt(double brakeTorque, int bolts, double mountRadius) { return brakeTorque / (bolts * mountRadius); }

double bearingMargin(const Thread& thread, double proofStress, double preload, double force)
{
    const double area = stressArea(thread);
    const double pull = preload / area;
    return pull < proofStress ? std::sqrt((proofStress * proofStress - pull * pull) / 3) * area / force : 0;
}

double bearingMargin(const Thread& thread, Grade grade, double preload, double force)
{
    return bearingMargin(thread, proofStress(grade, thread.diameter), preload, force);
}

double pressureUnderHead(double preload, double headDiameter, double hole)
{
    return preload / (std::numbers::pi / 4 * (headDiameter * headDiameter - hole * hole));
}

std::vector<int> tighteningOrder(int bolts)
{
    std::vector<int> order;
    std::vector<bool> done(static_cast<std::size_t>(std::max(0, bolts)), false);
    const auto apart = [bolts](int a, int b) {
        const int d = std::abs(a - b);
        return std::min(d, bolts - d);
    };
    for (int k = 0; k < bolts; ++k) {
        int best = 0;
        long bestScore = -1;
        for (int i = 0; i < bolts; ++i) {
            if (done[static_cast<std::size_t>(i)])
                continue;
            // Far from the last one first, then from the one before it, and so on; of equals the first in the circle.
            long score = 0;
            for (std::size_t back = 0; back < 3 && back < order.size(); ++back)
                score = score * 1000 + apart(i, order[order.size() - 1 - back]);
            if (score > bestScore) {
                bestScore = score;
                best = i;
            }
        }
        done[static_cast<std::size_t>(best)] = true;
        order.push_back(best);
    }
    return order;
}

std::span<const double> tighteningRounds(int bolts)
{
    static constexpr std::array three { 0.4, 0.75, 1.0 };
    static constexpr std::array two { 0.5, 1.0 };
    return bolts >= 4 ? std::span<const double>(three) : std::span<const double>(two);
}

} // namespace deepstop::joints
