#include "cli/commands.hpp"

#include "files/exports.hpp"
#include "files/track_log.hpp"
#include "language/language.hpp"
#include "proving/stops.hpp"
#include "report/log_session.hpp"
#include "report/test_plan.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

struct RunsOptions {
    std::string path;
    std::string into;
    std::string setup;
    std::string columns;
    bool json = false;
};

/// How a CSV log is read; whoever is not asked is told of every unit that nobody has said.
std::optional<files::LogColumns> columnsOf(const RunsOptions& o)
{
    auto head = files::headOfLog(o.path);
    if (!o.columns.empty()) {
        if (!head)
            throw files::Refusal(tr("{}: is no CSV with a line of names, so --columns says nothing of it.", o.path));
        return files::columnsSaid(head->columns, o.columns);
    }
    if (head)
        for (const auto& each : head->columns.columns)
            if (each.unit && !each.unitSaid)
                std::cerr << tr(
                    "{}: “{}” names no unit: taken to be in {}. Say another with --columns.\n", o.path, each.name, each.unit->symbol);
    return {};
}

nlohmann::ordered_json numberOrNull(double value)
{
    return std::isfinite(value) ? nlohmann::ordered_json(value) : nlohmann::ordered_json();
}

int importRuns(const RunsOptions& o)
{
    if (o.into.empty() != o.setup.empty())
        throw files::Refusal(tr("--into and --setup go together: the build, and the setup that ran."));
    files::checkOutputs({ o.path }, { o.into });
    if (!o.into.empty())
        setupOf(files::loadBuild(o.into), o.into, o.setup);
    const auto log = report::stopsInLog(o.path, {}, columnsOf(o));
    const bool put = !o.into.empty() && !log.stops.empty();
    if (put)
        files::changeBuild(o.into, [&](const Build& now) -> std::optional<Build> {
            if (!findSetup(now, o.setup))
                return {};
            Build build = now;
            build.tests.push_back(report::sessionOf(now, o.setup, log, std::filesystem::path(o.path).stem().string(), today()));
            return build;
        });
    if (o.json) {
        nlohmann::ordered_json out { { "stops", nlohmann::ordered_json::array() }, { "moments", log.count.fixes },
            { "bad_checksums", log.count.badChecksums }, { "unread", log.count.unread }, { "without_fix", log.count.withoutFix },
            { "out_of_time", log.count.outOfTime }, { "clock_set_back", log.count.clockJumps } };
        for (const auto& stop : log.stops)
            out["stops"].push_back({ { "begin_s", stop.begin }, { "speed_mps", stop.speed }, { "distance_m", numberOrNull(stop.distance) },
                { "mean_deceleration_mps2", numberOrNull(stop.meanDeceleration) }, { "mfdd_mps2", numberOrNull(stop.mfdd) },
                { "quality", report::qualityOf(stop) } });
        std::cout << out.dump(2) << "\n";
    } else {
        for (std::size_t i = 0; i < log.stops.size(); ++i) {
            const auto& s = log.stops[i];
            std::cout << tr("stop {} at {:.1f} s: from {:.1f} km/h in {}, {}\n", i + 1, s.begin, s.speed * 3.6,
                std::isfinite(s.distance) ? tr("{:.1f} m, MFDD {:.2f} m/s²", s.distance, s.mfdd) : tr("an unknown distance"),
                report::qualityOf(s));
        }
        std::cout << tr("{} hard stops in {} moments", log.stops.size(), log.count.fixes);
        std::cout << (put ? tr(", put into {}.\n", o.into) : o.into.empty() ? ".\n" : tr("; nothing was put into {}.\n", o.into));
        if (const auto lost = report::lostIn(log.count); !lost.empty())
            std::cout << lost << "\n";
    }
    return log.stops.empty() ? bad : fine;
}

} // namespace

void addProvingCommands(CLI::App& app, int& code)
{
    auto* import = app.get_subcommand("import");
    auto* runs = import->add_subcommand(
        "runs", tr("Hard stops in a log: NMEA 0183, GPX or CSV. Exit 0: some; 1: none is in it; 2: it cannot be read"));
    auto o = std::make_shared<RunsOptions>();
    runs->add_option("FILE", o->path, tr("the log"))->required();
    runs->add_flag("--json", o->json, tr("as JSON"));
    runs->add_option(
        "--columns", o->columns, tr("of a CSV whose names do not say it, as in time=Clock:s,speed=4:mph (a name or a number)"));
    runs->add_option("--into", o->into, tr("build to put them into as a session"));
    runs->add_option("--setup", o->setup, tr("setup that ran"));
    runs->callback([o, &code] { code = importRuns(*o); });

    auto* proving = app.add_subcommand(
        "proving", tr("Stops predicted and measured, before against after; with --plan what to drive. Exit 1 where something stops"));
    auto subject = std::make_shared<Subject>();
    auto plan = std::make_shared<bool>(false);
    subject->addTo(*proving);
    proving->add_flag("--plan", *plan, tr("the test to be driven, to print"));
    proving->callback([subject, plan, &code] {
        const Study study = subject->studied();
        std::cout << (*plan ? report::printed(study, report::testPlanOf(study)) : report::provingSheet(study));
        code = std::ranges::any_of(study.verdicts, [](const Verdict& v) { return v.chapter == "proving" && isBad(v.level); }) ? bad : fine;
    });
}

} // namespace deepstop::cli
