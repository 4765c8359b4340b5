#pragma once
/// Measured stops: whether tyres can do them, which of them count, and what they come to.

#include "chapters/proving/proving_chapter.hpp"

namespace deepstop {

/// The most a car's tyres and the air can slow it by in a measured stop, m/s²: the better axle's grip, the mean drag, the slope of the
/// road. A slope nobody has read may be as much as roads look level with (3 %, common practice).
/// @param ran the parts that were on
[[nodiscard]] Figure mostDeceleration(const Build& build, const TestSession& session, const MeasuredStop& stop, const SetupParts& ran);
/// Mean deceleration v²/(2·d) of it.
[[nodiscard]] Figure decelerationOf(const MeasuredStop& stop);
/// Whether it is beyond what they can do with both at their worst.
[[nodiscard]] bool impossible(const Figure& deceleration, const Figure& most);

/// The series until it fades, of these setups; null is passed over.
[[nodiscard]] std::vector<FadeRuns> fadesOf(const Build& build, const std::vector<const Setup*>& setups);

/// What each measured stop says by itself.
void addMeasuredVerdicts(Study& study);
/// What the runs of both setups say of each other, and whether a series fades.
void addProof(Study& study, const ProvingStudy& proving);

} // namespace deepstop
