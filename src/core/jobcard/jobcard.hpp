#pragma once
/// The job card: what is to be done to fit a setup, in order, each step with what caused it; steps that cannot be undone stay shut until
/// what they rest on is proven.

#include "build/edit.hpp"
#include "study/study.hpp"

#include <optional>
#include <string>
#include <vector>

namespace deepstop::jobcard {

enum class Phase { Prepare, Tag, Record, Strip, MockUp, Irreversible, Assemble, Hoses, Bleed, Wheels, BeforeMoving, BedIn, ReCheck };
[[nodiscard]] std::string_view nameOf(Phase phase);

struct Step {
    std::string id; ///< "front/left/rotor-on"
    Phase phase = Phase::Prepare;
    std::string corner; ///< "front left", "front", "car"
    std::string text;
    std::string because; ///< id of a verdict, pointer of a field, or "common practice"
    std::string caution; ///< where the step can hurt somebody
    std::string tools;
    bool irreversible = false; ///< cannot be undone
    bool gated = false; ///< is shut until what it waits for is proven: a cut, or a line that is opened
    bool optional = false; ///< not needed for this job: offered as an inspection, folded until the card takes it in
    bool doneBefore = false; ///< about a part that stays and has been driven on this car
    bool own = false; ///< written in by hand
    bool open = true; ///< may be ticked; only gated steps are ever shut
    std::vector<std::string> waits; ///< for what it is shut, in words; of an opened one what was not proven then
    std::string opened; ///< the reason somebody gave for opening it all the same
    std::optional<double> torque; ///< N·m
    std::string threads; ///< "threadlocker", "anti-seize"
    std::vector<std::string> readings; ///< pointers of what is to be read and typed here
    double minutes = 0; ///< estimate, or what it took before
    Checked state = Checked::Open;
    std::string who;
    std::string when;
    std::string note;
};

struct Card {
    const Setup* setup = nullptr;
    std::vector<Step> steps; ///< in working order
    bool inspection = false; ///< the optional steps were taken in
    double minutes = 0; ///< of all that are to be done, one person
    int people = 1;
    /// Whether a step is on the card: needed, taken in, or already seen to.
    [[nodiscard]] bool shows(const Step& step) const { return !step.optional || inspection || step.state != Checked::Open; }
    [[nodiscard]] int shown() const; ///< how many steps are
    [[nodiscard]] int folded() const; ///< how many are not
    /// Minutes of those on the card that are spent at the car, measuring, and driving.
    struct Times {
        double fitting = 0;
        double measuring = 0;
        double driving = 0;
    };
    [[nodiscard]] Times times() const;
    [[nodiscard]] const Step* step(const std::string& id) const;
    [[nodiscard]] int open() const; ///< steps still to be done
    [[nodiscard]] double minutesLeft() const; ///< of those
};

/// The card of the setup after. Empty where the study has none, or compares a setup with itself.
[[nodiscard]] Card cardOf(const Study& study);

/// What a cut on an axle waits for, in words; empty: all of it is proven. Both sides tried and centred, wheel and parts clear at worst,
/// studs and seats good.
[[nodiscard]] std::vector<std::string> blockersOf(const Study& study, Axle axle, Cut cut);
/// What still shuts the first, rough cut of a shield that keeps the kit from going on: what dimensions tell, and the bracket offered up.
[[nodiscard]] std::vector<std::string> blockersOfFirstCut(const Study& study, Axle axle);

/// Who ticks, and when (ISO date and time).
struct Author {
    std::string who;
    std::string when;
};
/// Ticks a step of the card. Nothing for a step that is not on the card, or is shut and was to be called done.
[[nodiscard]] std::optional<Edit> ticked(
    const Study& study, const std::string& step, Checked state, const Author& hand, const std::string& note = {}, double took = 0);
/// Writes a tick into a card's record, over the one that is there.
void tickIn(JobCard& record, const std::string& step, Checked state, const Author& hand, const std::string& note = {}, double took = 0);
/// Takes the optional steps of the card in, or folds them again.
[[nodiscard]] Edit inspectionTakenIn(const std::string& setup, bool in);
/// Writes a step of one's own in, behind another step; at the end where that is none. Nothing for an empty text.
[[nodiscard]] std::optional<Edit> ownStep(const Study& study, const std::string& after, const std::string& text);

/// Opens a shut step, for a reason. Nothing for an empty reason, or a step that is not shut.
[[nodiscard]] std::optional<Edit> opened(const Study& study, const std::string& step, const std::string& reason, const Author& hand);

/// The choices of the card, beginning with nobody having chosen.
[[nodiscard]] const JobCard& choicesOf(const Build& build, const std::string& setup);
/// The card's record in a build that is to be changed.
[[nodiscard]] JobCard& recordOf(Build& build, const std::string& setup);

/// Procedures, each with why.
struct Procedure {
    std::string title;
    std::string why;
    std::vector<std::string> steps;
};
[[nodiscard]] Procedure bleedingOf(const Study& study, const JobCard& choices);
[[nodiscard]] Procedure beddingOf(const Study& study, const JobCard& choices);

/// The car on a lift while parts come off.
struct OnLift {
    std::string what; ///< "both front corners off"
    double mass; ///< kg left
    double behindFrontAxle; ///< of the centre of mass, m
    double toArm; ///< from there to the nearer pair of arms, m
    bool nearArm; ///< under a fifth of their spacing: it may tip
};
struct Lift {
    std::vector<OnLift> moments; ///< as found, then axle by axle
    double armsAt[2] = { 0, 0 }; ///< behind the front axle, m
    std::string lacks; ///< what is missing, in words
    [[nodiscard]] bool strap() const; ///< at some moment
};
/// Arms under the sills at a fifth and four fifths of the wheelbase (common practice).
[[nodiscard]] Lift liftOf(const Study& study);

} // namespace deepstop::jobcard
