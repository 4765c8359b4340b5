#pragma once
/// Proving: the stop cold and after the duty, before against after, and what measured stops say of the same.

#include "proving/statistics.hpp"
#include "stopping/drive.hpp"
#include "verdict/findings.hpp"

namespace deepstop {

/// Stops as the model has them, of one setup.
struct Predicted {
    Figure cold; ///< distance from the test speed
    Figure hot; ///< after the build's duty; no value where something gives up on the way
    std::optional<stopping::StopSimulation> coldRun; ///< at nominal readings, with its course
    std::optional<stopping::StopSimulation> hotRun;
    double frontFriction = 1; ///< over the quoted, after the duty
    double rearFriction = 1;
    std::string lost; ///< what has given up before the end of the duty, and when: "front fluid boils at braking 8"
    std::vector<double> coldDraws;
    std::vector<double> hotDraws; ///< empty where nothing can be said
    /// Of 100 draws 90 lie in it; the upper end is infinite where some never stop.
    struct Range {
        double low;
        double high;
    };
    std::optional<Range> coldRange;
    std::optional<Range> hotRange;
};

/// A stop from another speed or with another load, at nominal readings; NaN where it cannot be said.
struct OtherStop {
    std::string load; ///< empty: the driver alone
    double speed; ///< m/s
    bool wet = false;
    double before;
    double after;
};

/// One measured stop as it counts.
struct MeasuredRun {
    std::size_t session; ///< in the build
    std::size_t stop; ///< of that session
    const MeasuredStop* measured;
    double distance = 0; ///< brought to the speed to stop from; NaN where it lacks speed or distance
    std::string leftOut; ///< why it does not count; empty: it does
};

/// The runs of one setup that are meant to be compared.
struct RunsOf {
    const Setup* setup = nullptr;
    std::vector<MeasuredRun> runs;
    std::vector<double> counted; ///< distances of those that count, in their order
    proving::Sample sample;
    std::optional<proving::Trend> trend;
    std::vector<std::string> unsure; ///< what of their conditions nobody said, or does not fit
};

/// Stop after stop until it fades, of one session.
struct FadeRuns {
    std::size_t session;
    std::vector<MeasuredRun> runs;
    std::vector<double> counted;
    std::vector<std::size_t> numbers; ///< of those, as they were driven, from 1
    std::optional<proving::Faded> fades; ///< places in `counted`
    std::optional<double> bound; ///< distance past which it has faded; nothing before three count
    /// How much longer than the first ones the model has each of those that count; empty where that cannot be said.
    std::vector<double> lengthening {};
    Figure known {}; ///< what that rests on, lacks and assumes; its value means nothing
};

struct ProvingStudy {
    Predicted before;
    Predicted after;
    std::string duty; ///< name of it; empty: none
    int brakings = 0; ///< in it
    std::vector<OtherStop> others;
    RunsOf measuredBefore;
    RunsOf measuredAfter;
    std::optional<proving::Difference> difference; ///< of the measured, before less after
    std::vector<FadeRuns> fades;
    /// Of drawn differences before less after, the part under which so much lies; NaN without draws.
    [[nodiscard]] double coldSaves(double part) const;
    [[nodiscard]] double hotSaves(double part) const;
};

/// The runs of a setup in the sessions of that kind, why each counts or not.
[[nodiscard]] RunsOf runsOf(const Build& build, const Setup& setup);

void addProving(Study& study);
void settleProving(Study& study);
/// Only the measured stops, which are quick.
void drawProving(Study& study);

} // namespace deepstop
