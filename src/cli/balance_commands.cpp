#include "cli/commands.hpp"

#include "files/exports.hpp"
#include "language/language.hpp"
#include "report/balance.hpp"

#include <algorithm>
#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

struct BalanceOptions {
    Subject subject;
    std::string load;
    std::string csv;
};

int showBalance(const BalanceOptions& o)
{
    files::checkOutputs({ o.subject.path }, { o.csv });
    const Study study = o.subject.studied();
    if (const auto names = report::loadNames(study); !o.load.empty() && std::ranges::find(names, o.load) == names.end()) {
        std::string known;
        for (const auto& name : names)
            known += (known.empty() ? "" : ", ") + name;
        throw files::Refusal(tr("{}: has no load “{}”; it has {}.", o.subject.path, o.load, (known.empty() ? tr("none") : known)));
    }
    std::cout << report::balanceSheet(study, o.load);
    if (!o.csv.empty()) {
        files::exportFile(o.csv, report::balanceCsv(study, o.load));
        std::cout << o.csv << "\n";
    }
    const bool stops = std::ranges::any_of(study.verdicts, [](const Verdict& v) { return v.chapter == "balance" && isBad(v.level); });
    return stops ? bad : fine;
}

} // namespace

void addBalanceCommands(CLI::App& app, int& code)
{
    auto* command = app.add_subcommand(
        "balance", tr("Which axle locks first, pedal force and travel, and what would mend it. Exit 1 where something stops"));
    auto o = std::make_shared<BalanceOptions>();
    o->subject.addTo(*command);
    command->add_option("--load", o->load, tr("only with that load, by its name; “driver only” is always there"));
    command->add_option("--csv", o->csv, tr("write the curves over deceleration there"));
    command->callback([o, &code] { code = showBalance(*o); });
}

} // namespace deepstop::cli
