#pragma once
/// A duty run through before and after: temperatures, and what gives up first.

#include "figures/heat_figures.hpp"
#include "heat/spread.hpp"
#include "verdict/findings.hpp"

#include <algorithm>

namespace deepstop {

/// Something that bears no more than a temperature, and how near it came.
struct HeatLimit {
    std::string what; ///< "front fluid boils"
    Axle axle = Axle::Front;
    heat::Node node = heat::Node::Ring;
    double limit = 0; ///< K
    double peak = 0; ///< K, of the run and of standing after it
    bool critical = false; ///< the car then no longer stops as it should
    std::optional<int> stop; ///< of the duty, at which it is passed, or after which it is while the car stands
    double time = 0; ///< s, when it is
    bool standing = false; ///< passed only after the duty, at rest
    double unsure = 0; ///< K, by which limit less peak may be off at worst
    [[nodiscard]] double margin() const { return limit - peak; }
    [[nodiscard]] double least() const { return margin() - unsure; }
};

struct DutyHeat {
    std::shared_ptr<const heat::Run> run; ///< null where a reading is missing or nothing can be run
    figures::ThermalCar car;
    Figure known; ///< what it rests on, lacks and assumes; its value means nothing
    std::vector<HeatLimit> limits; ///< the one that is passed first, or comes nearest, first
    double hottestRing = 0; ///< K, of the judged axles
    double hardestFoot = 0; ///< N; NaN where the foot is not known
    double footUnsure = 0; ///< N, by which that may be off
    std::optional<int> footFails; ///< stop from which the greatest effort no longer does: the duty is not driven as asked any more
    std::optional<int> tyresFail; ///< stop from which the tyres hold less than it asks
    PerAxle<double> worn { 0, 0 }; ///< off each lining over the duty, m; NaN where it is not known
    PerAxle<double> unsure { 0, 0 }; ///< part of a ring's rise over ambient that may be off
    PerAxle<double> measuredTo { 0,
        0 }; ///< K, highest temperature up to which the friction was measured; infinite without a measured curve
    [[nodiscard]] double mostUnsure() const { return std::max(unsure.front, unsure.rear); }
    /// Part of a node's rise that may be off: what hangs on the ring only in a roundabout way is known far worse than the ring.
    [[nodiscard]] double unsureOf(Axle axle, heat::Node node) const;
};

/// First limit reached on a duty: of a part, of the driver's pedal force, or of the tyres' grip.
struct FirstFailure {
    std::string what; ///< "front pads fade", "the foot"
    std::string when; ///< "at braking 3 of 10", "standing afterwards"
    std::string brief; ///< "limit at braking 3", "foot at braking 3", "limit when standing"
    bool critical = true;
    [[nodiscard]] std::string words() const { return what + " " + when; }
};
/// Nothing where all of the duty is driven as it asks and no limit is passed.
[[nodiscard]] std::optional<FirstFailure> firstFailure(const DutyHeat& heat, int stops);

struct DutyStudy {
    const DutyPlan* plan = nullptr; ///< null: the build has no duty
    heat::Duty duty;
    DutyHeat before;
    DutyHeat after;
};

/// A duty of the build run with a setup; equal ones are run once and remembered.
[[nodiscard]] DutyHeat dutyHeatOf(const Build& build, const SetupParts& setup, const heat::Duty& duty, const heat::Accuracy& accuracy = {});
/// By the id it has in the build, or one that every build has: "one-stop" from the test speed, "heating-procedure". Nothing for another.
[[nodiscard]] std::optional<heat::Duty> dutyCalled(const Build& build, const std::string& id);
/// Their ids, the build's own first.
[[nodiscard]] std::vector<std::string> dutyIds(const Build& build);

/// What many draws say of a limit.
struct LimitSpread {
    double low; ///< K, tenth of the peaks lie under it
    double high; ///< K, nine tenths
};
/// @param draws of this setup's car; @return one for each of `heat.limits`, in their order
[[nodiscard]] std::vector<LimitSpread> spreadOf(const DutyHeat& heat, const std::vector<heat::Drawn>& draws);
/// Part of the draws in which pads, fluid or linings gave up.
[[nodiscard]] double partThatFails(const DutyHeat& heat, const std::vector<heat::Drawn>& draws);

/// A glowing ring in words of one who looks in the dark; empty where it does not glow.
[[nodiscard]] std::string glow(double temperature);
[[nodiscard]] std::string_view nameOf(heat::Node node);

void addDuty(Study& study);
/// Why no duty is judged, in words. @pre none is
[[nodiscard]] std::string noJudgedDuty(const Build& build);

} // namespace deepstop
