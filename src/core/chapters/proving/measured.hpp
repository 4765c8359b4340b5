#pragma once
/// Measured stops: whether tyres can do them, which of them count, and what they come to.

#include "chapters/proving/proving_chapter.hpp"

namespace deepstop {

/// The most a car's tyres and the air can slow it by in a measured stop, m/s²: the better axle's grip, the mean drag, the slope of the
/// road. A slope that was not read may be as much as roads look level with (3 %, common practice).
/// @param ran the parts that were on
[[nodiscard]] Figure mostDeceleration(const Build& build, const TestSession& session, const MeasuredStop& stop, const SetupParts& ran);
/// Mean deceleration v²/(2·d) of it.
[[nodiscard]] Figure decelerationOf(const MeasuredStop& stop);
/// Whether it is beyond what they can do with both at their worst.
[[nodiscard]] bool impossible(const Figure& deceleration, const Figure& most);

/// The parts that were on in a session.
[[nodiscard]] SetupParts partsThatRan(const Build& build, const TestSession& session);
/// Whether they are those the setup has now.
[[nodiscard]] bool asNow(const Build& build, const TestSession& session);
/// The stops of one session, why each counts or not.
[[nodiscard]] std::vector<MeasuredRun> runsIn(const Build& build, std::size_t session);
/// A verdict on runs rests on their readings, and on all that tells whether tyres can do them.
void restOn(Figure& figure, const Build& build, const std::vector<MeasuredRun>& runs);

/// What rests on readings that are missing has no value, and is no better than unproven.
void doubtWhatLacks(const Study& study, Verdict& verdict);

/// Whether the stops that count of both setups were driven on the same days, and it is known that they were.
[[nodiscard]] bool onOneDay(const Build& build, const RunsOf& a, const RunsOf& b);
/// A difference of means with what may have made it besides the brakes: two days' grip where they were not of one day, rings that were
/// not as warm at the start, a pedal pressed otherwise; unread, these two count in full.
[[nodiscard]] std::optional<proving::Difference> acrossDays(
    const Build& build, const RunsOf& a, const RunsOf& b, std::optional<proving::Difference> difference);

/// What of the days' conditions keeps two sets from being compared.
[[nodiscard]] std::vector<std::string> unlikeOf(const Build& build, const RunsOf& a, const RunsOf& b);
/// What each measured stop says by itself.
void addMeasuredVerdicts(Study& study);
/// Whether a setup's stops are as long as its prediction: where they are longer for certain, its brakes do not do what the numbers say.
enum class AgainstModel { NotKnown, Agrees, Shorter, Longer };
[[nodiscard]] AgainstModel againstModel(const Build& build, const RunsOf& measured, const Predicted& predicted);
/// The verdicts on that, of both setups.
void addColdModel(Study& study, const ProvingStudy& proving);
/// What the runs of both setups say of each other.
void addDifference(Study& study, const ProvingStudy& proving);

} // namespace deepstop
