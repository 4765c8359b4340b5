#pragma once
/// Proving with a tape: what to drive, in which order, what to look at before, and how many stops will show what is expected.

#include "chapters/proving/proving_chapter.hpp"
#include "report/leaf.hpp"
#include "study/study.hpp"

namespace deepstop::report {

/// One line of the inspection that stands before any test.
struct InspectionItem {
    std::string id; ///< "front/left/leak"
    std::string text;
};

struct PlannedRun {
    int number;
    Way way;
    std::string text;
};

struct TestPlan {
    double speed = 0; ///< m/s; NaN where not said
    int stopsEachWay = 0; ///< of each setup
    int wantedEachWay = 0; ///< to see what is expected at 80 %; 0: it cannot be seen or nothing is expected
    double expected = 0; ///< difference, m
    double scatter = 0; ///< of single stops, standard deviation, m
    bool scatterMeasured = false;
    double distance = 0; ///< the longest stop expected, m
    double place = 0; ///< straight road wanted: getting to speed, the stop, and a run-out of twice the stop; m
    double cooling = 0; ///< s of driving between stops until the front rotor is under 100 °C; NaN where it cannot be said
    double windLimit = 0; ///< m/s along the road
    std::vector<PlannedRun> runs;
    std::vector<std::string> bring;
    std::vector<std::string> rules;
    std::vector<InspectionItem> inspection;
};

/// The plan for the setup judged, against the one before.
[[nodiscard]] TestPlan testPlanOf(const Study& study);
/// As text, a page to print.
/// @param whole with the inspection as a list to tick, and lines for the runs
[[nodiscard]] std::string printed(const Study& study, const TestPlan& plan, bool whole = true);
/// The same as a leaf, with the inspection to tick and lines to write the runs on.
[[nodiscard]] Leaf planLeaf(const Study& study, const TestPlan& plan, const std::string& date);
/// What was predicted and measured, before against after.
[[nodiscard]] std::string provingSheet(const Study& study);

} // namespace deepstop::report
