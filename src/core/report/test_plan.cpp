#include "report/test_plan.hpp"

#include "build/words.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::report {
namespace {

constexpr double notGiven = std::numeric_limits<double>::quiet_NaN();
/// Scatter of single stops over their distance while none was measured, and the stops each way with nothing to expect; common practice.
constexpr double usualScatter = 0.03;
constexpr int usualEachWay = 5;
constexpr int mostEachWay = 10;

/// Time of driving after one stop until the front rotor's ring is under 100 °C, as UN R13-H has brakes cold.
double coolingAfter(const Study& study, double speed)
{
    if (!study.after.complete() || !(speed > 0))
        return notGiven;
    constexpr double cold = 373.15;
    constexpr double cruise = 50 / 3.6;
    constexpr double longest = 1800;
    constexpr double slowing = 0.8 * standardGravity;
    heat::Duty duty { "cooling", "", {}, 0, 0 };
    double at = 0;
    // Three stops one after the other, so that what they leave behind counts.
    for (int stop = 1; stop <= 3; ++stop) {
        duty.phases.push_back({ speed, 0, speed / slowing, true, 0, stop });
        duty.phases.push_back({ 0, cruise, 8, false, 0, stop });
        at += speed / slowing + 8;
        if (stop == 3)
            break;
        duty.phases.push_back({ cruise, cruise, 120, false, 0, stop });
        duty.phases.push_back({ cruise, speed, 10, false, 0, stop });
        at += 130;
    }
    duty.phases.push_back({ cruise, cruise, longest, false, 0, 3 });
    const DutyHeat run = dutyHeatOf(*study.build, study.after, duty);
    if (!run.run || !run.run->complete)
        return notGiven;
    for (const heat::Moment& m : run.run->course)
        if (m.time >= at && std::max(m.front[0], m.rear[0]) < cold)
            return m.time - at;
    return notGiven;
}

std::vector<InspectionItem> inspectionOf(const Study& study)
{
    std::vector<InspectionItem> all;
    for (const Axle axle : { Axle::Front, Axle::Rear })
        for (const char* side : { "left", "right" }) {
            const std::string word(wordOf(axle));
            const std::string at = word + "/" + side;
            const Corner* corner = study.after.at(axle).corner;
            const bool drum = corner && corner->brakes == BrakeKind::Drums;
            all.push_back({ at + "/leak",
                tr("{} {}: no fluid at {}", word, side,
                    drum ? tr("the wheel cylinder: look behind its boots, inside the drum") : tr("caliper, bleeders and hose ends")) });
            all.push_back({ at + "/hose", tr("{} {}: hose whole, not twisted, clear at full lock and droop", word, side) });
            all.push_back({ at + "/linings",
                tr("{} {}: {} over their minimum, {} without cracks", word, side, drum ? tr("linings") : tr("both pads"),
                    drum ? tr("drum") : tr("rotor")) });
            all.push_back({ at + "/nuts",
                tr("{} {}: wheel {} at torque", word, side,
                    study.build && hubOf(*study.build, axle).heldBy == WheelHeldBy::Bolts ? tr("bolts") : tr("nuts")) });
        }
    all.push_back({ "lines", tr("Hard lines dry and clipped from end to end") });
    all.push_back({ "fluid", tr("Fluid between its marks, its age known") });
    all.push_back({ "pedal", tr("Pedal firm and high, and still so after a minute under a hard foot") });
    all.push_back({ "straight", tr("From walking pace: it stops, and straight") });
    all.push_back({ "light", tr("No warning light on") });
    return all;
}

} // namespace

TestPlan testPlanOf(const Study& study)
{
    const Build& build = *study.build;
    const ProvingStudy& p = study.of<ProvingStudy>();
    TestPlan plan;
    plan.speed = build.car.testSpeed.value.value_or(notGiven);
    plan.windLimit = figures::setting(build.wants.windLimit, &Wants::windLimit);
    plan.distance = std::max(p.before.cold.value.value_or(0), p.after.cold.value.value_or(0));
    if (!(plan.distance > 0)) {
        // As long as a poor stop on a damp road, so that the place is not too short.
        constexpr double poor = 5;
        plan.distance = plan.speed * plan.speed / (2 * poor);
    }
    const double measured = std::max(p.measuredBefore.sample.deviation, p.measuredAfter.sample.deviation);
    plan.scatterMeasured = std::isfinite(measured) && measured > 0;
    plan.scatter = plan.scatterMeasured ? measured : usualScatter * plan.distance;
    plan.expected = p.coldSaves(0.5);
    constexpr double seen = 0.5; // m, less than that nobody sees
    const int runs = std::abs(plan.expected) > seen ? proving::runsWanted(plan.expected, plan.scatter, plan.scatter) : 0;
    plan.wantedEachWay = (runs + 1) / 2;
    plan.stopsEachWay = plan.wantedEachWay > 0 ? std::clamp(plan.wantedEachWay, usualEachWay, mostEachWay) : usualEachWay;
    // From rest at a third of g, the stop, and twice the stop to run out.
    constexpr double gathering = 3;
    plan.place = plan.speed * plan.speed / (2 * gathering) + 3 * plan.distance;
    plan.cooling = coolingAfter(study, plan.speed);
    for (int i = 0; i < 2; ++i)
        plan.runs.push_back({ 0, i == 0 ? Way::Out : Way::Back, tr("warm up: half the foot, not measured") });
    for (int i = 0; i < 2 * plan.stopsEachWay; ++i)
        plan.runs.push_back(
            { i + 1, i % 2 == 0 ? Way::Out : Way::Back, tr("full stop, measured from the pedal or the mark, the same every time") });
    plan.bring = { tr("tape or wheel, paint or flour for the brake point, cones at the run-out"),
        tr("thermometer for rotors and tyres, pressure gauge"), tr("torque wrench, pads and fluid to change, rags, water"),
        tr("fire extinguisher, first-aid kit, a phone that has been tried"),
        tr("a second person who watches the road, and a way to call the run off") };
    plan.rules = { tr("Stop the day at the first leak, soft or long pedal, pull, smell or smoke, or crack in a rotor."),
        tr("One change at a time: same driver, tyres, pressures, load and road."),
        tr("Alternate the ways; write every stop down, leave none out without its reason."),
        tr("No stop while anybody is on the road or within the run-out.") };
    plan.inspection = inspectionOf(study);
    return plan;
}

std::string printed(const Study& study, const TestPlan& plan, bool whole)
{
    const auto system = study.system;
    std::string out = tr("{}: proving {}\n\n", study.build->car.name, study.after.setup ? study.after.setup->name : "");
    if (!(plan.speed > 0))
        return tr("{}The speed to stop from is not known yet.\n", out);
    out += tr("Speed {}, {} stops each way, with each setup\n", print(plan.speed, style::speed, system), plan.stopsEachWay);
    if (std::isfinite(plan.expected) && plan.wantedEachWay > 0)
        out += tr("Expected {} {}; single stops scatter by {}{}: {} each way would show it in 80 of 100 tests\n",
            print(std::abs(plan.expected), style::road, system), plan.expected > 0 ? tr("shorter") : tr("longer"),
            print(plan.scatter, style::road, system), plan.scatterMeasured ? tr(" as measured") : tr(" (common practice)"),
            plan.wantedEachWay);
    else
        out += tr("No difference is expected cold that stops could show; try it hot, until it fades\n");
    out += tr("A straight, closed, even road of {}: to speed, the stop of {}, and run-out of twice that\n",
        print(plan.place, style::road, system), print(plan.distance, style::road, system));
    out += tr("Wind along the road {} at most; all of it dry, or all of it wet\n", print(plan.windLimit, style::speed, system));
    out += std::isfinite(plan.cooling)
        ? tr("Between two stops {:.0f} min at {}, so that the rotors are under {} again\n", std::ceil(plan.cooling / 60),
            print(50 / 3.6, style::speed, system), print(373.15, style::temperature, system))
        : tr("How long to drive between two stops is not known: wait until the rotors are under 100 °C by thermometer\n");
    if (whole) {
        out += tr("\nBefore the first run\n");
        for (const auto& item : plan.inspection)
            out += "  [ ] " + item.text + "\n";
    }
    out += tr("\nTo bring\n");
    for (const auto& each : plan.bring)
        out += "  - " + each + "\n";
    if (whole) {
        out += "\nRuns                       speed     distance   rotor    notes\n";
        for (const auto& run : plan.runs)
            out += fmt::format("  {:>3} {:5} {:42} ________  ________  ______\n", run.number ? std::to_string(run.number) : "-",
                run.way == Way::Out ? tr("out") : tr("back"), run.number ? "" : run.text);
    } else {
        out +=
            tr("\nIn this order: two to warm up, half the foot, not measured; then out, back, out, back …, full stops, measured the same "
               "way every "
               "time. Each with its speed, rotor temperature and whatever was felt.\n");
    }
    out += "\n";
    for (const auto& rule : plan.rules)
        out += rule + "\n";
    return tr(
        "{}\nThis program advises; it approves nothing. Local law and the owner of the place decide where this may be driven.\n", out);
}

Leaf planLeaf(const Study& study, const TestPlan& plan, const std::string& date)
{
    Leaf leaf { tr("Test plan"), fmt::format("{} · {} · {}", study.build->car.name, study.after.setup ? study.after.setup->name : "", date),
        {} };
    const auto text = printed(study, plan, false);
    // What stands before the first heading of the text: speed, stops, road, wind, cooling.
    const auto begin = text.find("\n\n");
    const auto bring = text.find(tr("\nTo bring\n"));
    if (bring == std::string::npos) {
        leaf.text(text);
        return leaf;
    }
    leaf.text(text.substr(begin + 2, bring - begin - 2));
    for (const auto& rule : plan.rules)
        leaf.caution(rule);
    leaf.heading(tr("Before the first run"));
    for (const auto& item : plan.inspection)
        leaf.blocks.push_back({ Block::Kind::Tick, item.text });
    leaf.heading(tr("To bring"));
    for (const auto& each : plan.bring)
        leaf.blocks.push_back({ Block::Kind::Tick, each });
    leaf.heading(tr("Runs"));
    const std::vector<double> widths { 0.08, 0.1, 0.16, 0.2, 0.14, 0.32 };
    leaf.row({ "", "way", "speed", "distance", "rotor", tr("felt, smelt, left out because") }, widths, true);
    for (const auto& run : plan.runs)
        leaf.row({ run.number ? std::to_string(run.number) : "–", run.way == Way::Out ? tr("out") : tr("back"), "________", "__________",
                     "______", run.number ? "____________________" : tr("warm up, not measured") },
            widths);
    return leaf;
}

std::string provingSheet(const Study& study)
{
    const ProvingStudy& p = study.of<ProvingStudy>();
    const auto metres = [&](double d) { return std::isfinite(d) ? print(d, style::road, study.system) : std::string(tr("not known")); };
    std::string out = tr("{}: {} against {}\n", study.build->car.name, study.after.setup->name, study.before.setup->name);
    for (const Verdict& v : study.verdicts)
        if (v.chapter == "proving")
            out += fmt::format("  {:9} {}. {}\n", tr(nameOf(v.level)), v.title, v.reason);
    const auto row = [&](const std::string& what, double before, double after) {
        out += fmt::format("  {:40} {:>10} {:>10}\n", what, metres(before), metres(after));
    };
    out += fmt::format("\n{:<40}{:>12}{:>11}\n", tr("Predicted"), tr("before"), tr("after"));
    if (study.build->car.testSpeed.value)
        row(tr("cold, from {}", print(*study.build->car.testSpeed.value, style::speed, study.system)),
            p.before.cold.value.value_or(notGiven), p.after.cold.value.value_or(notGiven));
    if (!p.duty.empty())
        row(tr("after {}", p.duty), p.before.hot.value.value_or(notGiven), p.after.hot.value.value_or(notGiven));
    for (const OtherStop& other : p.others)
        row(tr("from {}{}{}", print(other.speed, style::speed, study.system), other.load.empty() ? "" : tr(", laden: {}", other.load),
                other.wet ? tr(", wet") : ""),
            other.before, other.after);
    if (!p.measuredBefore.runs.empty() || !p.measuredAfter.runs.empty()) {
        out += tr("\nMeasured, brought to that speed\n");
        for (const RunsOf* runs : { &p.measuredBefore, &p.measuredAfter }) {
            out += tr("  {}: {} stops count", runs->setup->name, runs->sample.count);
            if (runs->sample.count > 1)
                out += tr(", mean {}, scatter {}, mean lies in {} to {}", metres(runs->sample.mean), metres(runs->sample.deviation),
                    metres(runs->sample.low), metres(runs->sample.high));
            out += "\n";
            for (const MeasuredRun& run : runs->runs)
                if (!run.leftOut.empty())
                    out += tr("    left out, stop {}: {}\n", run.stop + 1, run.leftOut);
        }
    }
    return tr("{}\nThis program advises; it approves nothing. Try brakes only on a closed place with no one behind and run-out of twice "
              "the distance.\n",
        out);
}

} // namespace deepstop::report
