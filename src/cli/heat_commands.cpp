#include "cli/commands.hpp"

#include "build/words.hpp"
#include "chapters/proving/calibrated.hpp"
#include "files/exports.hpp"
#include "language/language.hpp"
#include "report/duty_log.hpp"
#include "report/heat.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

struct HeatOptions {
    Subject subject;
    std::string duty;
    std::string log;
    std::string csv;
    bool json = false;
    bool calibrate = false;
    int draws = 0;
};

/// What the temperatures of the build's sessions say of the model.
void printCalibration(const Build& build, const SetupParts& setup, const std::string& id)
{
    const auto plan = std::ranges::find(build.duties, id, &DutyPlan::id);
    const auto fit = plan == build.duties.end() ? std::nullopt : calibrationOf(build, setup, *plan);
    if (!fit) {
        std::cout << tr(
            "\nTwo temperatures or more of this duty, taken with this setup, are wanted to set the cooling; or a series of stops "
            "that faded.\n");
        return;
    }
    std::cout << tr("\nAs measured: cooling {:.2f} ±{:.2f} of the model's", fit->cooling, fit->coolingWidth);
    if (fit->splitWidth > 0)
        std::cout << tr(", front's part of the heat {:.2f} ±{:.2f} of the balance's", fit->split, fit->splitWidth);
    std::cout << (fit->contradicts
            ? tr("\nTHE TEMPERATURES CONTRADICT: no cooling fits them all. Wrong thermometer, place, moment or duty?\n")
            : "\n");
    for (std::size_t i = 0; i < fit->left.size(); ++i)
        std::cout << tr("  {:.0f} °C predicted, {:+.0f} K measured beside it\n", fit->predicted[i] - 273.15, fit->left[i]);
    for (std::size_t i = 0; i < fit->lengthening.size(); ++i)
        std::cout << tr("  later stop {}: predicted {:.2f} times as long as the first\n", i + 1, fit->lengthening[i]);
}

/// How it may turn out otherwise, the same draws for every setup.
void printSpread(const std::vector<report::DutyRun>& runs, const heat::Duty& duty, int draws)
{
    std::vector<heat::Car> cars;
    for (const auto& run : runs)
        cars.push_back(figures::runnable(run.heat.car));
    heat::Widths widths;
    const auto all = heat::spread(cars, duty, draws, widths, 1, 0, [](double part) { std::cerr << fmt::format("\r{:.0f} %", 100 * part); });
    std::cerr << "\r";
    std::cout << tr("\n{} draws of cooling, friction, mass and split, the same for each setup\n", draws);
    for (std::size_t i = 0; i < runs.size(); ++i) {
        const auto& heat = runs[i].heat;
        if (!heat.run || all[i].empty())
            continue;
        std::cout << tr("  {}: pads, fluid or linings reach a limit in {:.0f} %", runs[i].setup->name, 100 * partThatFails(heat, all[i]));
        const auto spread = spreadOf(heat, all[i]);
        std::cout << tr("; {} {:.0f} to {:.0f} °C in 80 of 100, bears {:.0f}\n", heat.limits.front().what, spread.front().low - 273.15,
            spread.front().high - 273.15, heat.limits.front().limit - 273.15);
    }
}

nlohmann::ordered_json jsonOf(const report::DutyRun& run)
{
    nlohmann::ordered_json out;
    out["setup"] = run.setup->id;
    const bool ran = run.heat.run && run.heat.run->complete;
    out["peaks"] = nlohmann::ordered_json::object();
    for (const Axle axle : { Axle::Front, Axle::Rear })
        if (ran)
            for (std::size_t i = 0; i < heat::nodeCount; ++i)
                out["peaks"][std::string(wordOf(axle))][std::string(nameOf(static_cast<heat::Node>(i))) + "_degC"] =
                    (axle == Axle::Front ? run.heat.run->frontPeak : run.heat.run->rearPeak)[i] - 273.15;
    const HeatLimit* first = ran && !run.heat.limits.empty() ? &run.heat.limits.front() : nullptr;
    // Nothing failed is null; how near it came is the margin of the nearest.
    out["first_to_fail"] = first && first->stop ? nlohmann::ordered_json(first->what) : nlohmann::ordered_json();
    out["at_stop"] = first && first->stop ? nlohmann::ordered_json(*first->stop) : nlohmann::ordered_json();
    out["margin_K"] = first ? nlohmann::ordered_json(first->limit - first->peak) : nlohmann::ordered_json();
    out["nearest"] = first ? nlohmann::ordered_json(first->what) : nlohmann::ordered_json();
    out["unsure_share"] = run.heat.mostUnsure();
    return out;
}

int showHeat(const HeatOptions& o)
{
    if (o.duty.empty() && o.log.empty())
        throw files::Refusal(tr("heat: name a duty with --duty, or a speed log with --log."));
    files::checkOutputs({ o.subject.path, o.log }, { o.csv });
    const Study study = o.subject.studied();
    const Build& build = *study.build;
    auto duty = o.log.empty() ? dutyCalled(build, o.duty) : std::optional<heat::Duty>();
    if (!o.log.empty()) {
        duty = report::driveIn(o.log);
    }
    if (!duty) {
        std::string known;
        for (const auto& id : dutyIds(build))
            known += (known.empty() ? "" : ", ") + id;
        throw files::Refusal(tr("{}: has no duty “{}”; there are {}.", o.subject.path, o.duty, known));
    }
    std::vector<report::DutyRun> runs;
    runs.push_back({ study.after.setup, dutyHeatOf(build, study.after, *duty) });
    if (study.before.setup != study.after.setup)
        runs.push_back({ study.before.setup, dutyHeatOf(build, study.before, *duty) });
    if (o.json) {
        nlohmann::ordered_json out = jsonOf(runs.front());
        out["duty"] = duty->id;
        if (runs.size() > 1)
            out["against"] = jsonOf(runs[1]);
        std::cout << out.dump(2) << "\n";
    } else {
        std::cout << report::heatSheet(study, *duty, runs);
        if (o.calibrate)
            printCalibration(build, study.after, o.duty);
        if (o.draws > 0)
            printSpread(runs, *duty, o.draws);
    }
    if (!o.csv.empty())
        files::exportFile(o.csv, report::heatCsv(runs));
    const auto& limits = runs.front().heat.limits;
    return std::ranges::any_of(limits, [](const HeatLimit& l) { return l.critical && l.stop; }) ? bad : fine;
}

} // namespace

void addHeatCommands(CLI::App& app, int& code)
{
    auto* command = app.add_subcommand(
        "heat", tr("Temperatures over a duty, and which limit is reached first. Exit 1 where pads, fluid or the foot do"));
    auto o = std::make_shared<HeatOptions>();
    o->subject.addTo(*command);
    auto* duty = command->add_option("--duty", o->duty, tr("id of a duty of the build; one-stop and heating-procedure are always there"));
    auto* log = command->add_option("--log", o->log, tr("brakings of a speed log instead: CSV or GPX"));
    duty->excludes(log);
    command->add_option("--csv", o->csv, tr("write the course there"));
    command->add_flag("--json", o->json, tr("as JSON"));
    command->add_flag("--calibrate", o->calibrate, tr("also set the cooling from the temperatures taken with this setup"));
    command->add_option("--draws", o->draws, tr("also draw so often how it may turn out otherwise"))->check(CLI::Range(1, 100'000));
    command->callback([o, &code] { code = showHeat(*o); });
}

} // namespace deepstop::cli
