#include "cli/commands.hpp"

#include "build/words.hpp"
#include "build/address.hpp"
#include "files/exports.hpp"
#include "files/paper_files.hpp"
#include "language/language.hpp"
#include "logbook/logbook.hpp"
#include "report/letters.hpp"
#include "report/purchases.hpp"
#include "report/sheets.hpp"

#include <fmt/format.h>

#include "build/choices.hpp"
#include "quantity/parse.hpp"
#include "quantity/text.hpp"

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <map>
#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

/// Where a leaf goes, by which of the options was given.
struct Outputs {
    Subject subject;
    std::string pdf;
    std::string html;
    std::string json;
    std::string csv;
    bool letter = false;

    /// What a paper of a setup is asked with.
    void addTo(CLI::App& command)
    {
        subject.addTo(command);
        command.add_option("--pdf", pdf, tr("write it there to print"));
        command.add_option("--html", html, tr("write it there as one HTML file"));
        command.add_flag("--letter", letter, tr("on Letter instead of A4"));
    }
    void write(const report::Leaf& leaf) const
    {
        if (!pdf.empty())
            files::exportFile(pdf, files::pdfOf(report::sheetsOf(leaf, letter ? paper::letter() : paper::a4()), leaf.title));
        if (!html.empty())
            files::exportFile(html, report::htmlOf(leaf));
    }
};

int card(const Outputs& o)
{
    if (o.pdf.empty() && o.html.empty() && o.json.empty())
        throw files::Refusal(tr("card: say where it goes: --pdf, --html or --json with a file."));
    files::checkOutputs({ o.subject.path }, { o.pdf, o.html, o.json });
    const Study study = o.subject.studied();
    const auto card = jobcard::cardOf(study);
    if (card.steps.empty())
        throw files::Refusal(tr("{}: nothing is to be fitted: choose a setup with --setup that brings brakes of its own.", o.subject.path));
    if (!o.json.empty())
        files::exportFile(o.json, report::cardJson(card));
    o.write(report::jobCard(study, card, today()));
    return fine;
}

int report(const Outputs& o)
{
    if (o.pdf.empty() && o.html.empty() && o.csv.empty())
        throw files::Refusal(tr("report: say where it goes: --pdf, --html or --csv with a file."));
    files::checkOutputs({ o.subject.path }, { o.pdf, o.html, o.csv });
    const Study study = o.subject.studied();
    if (!study.after.setup)
        throw files::Refusal(tr("{}: has no setup to report on.", o.subject.path));
    if (!o.csv.empty())
        files::exportFile(o.csv, report::figuresCsv(study));
    o.write(report::buildSheet(study, today()));
    return fine;
}

int fittingSheet(const Outputs& o)
{
    if (o.pdf.empty() && o.html.empty())
        throw files::Refusal(tr("fitting-sheet: say where it goes: --pdf or --html with a file."));
    files::checkOutputs({ o.subject.path }, { o.pdf, o.html });
    const Study study = o.subject.studied();
    if (!study.after.setup || (!study.after.setup->front && !study.after.setup->rear))
        throw files::Refusal(tr("{}: nothing is to be fitted: choose a setup with --setup that brings brakes of its own.", o.subject.path));
    o.write(report::fittingSheet(study, today()));
    return fine;
}

int purchases(const Outputs& o)
{
    const auto build = files::loadBuild(o.subject.path).build;
    files::checkOutputs({ o.subject.path }, { o.pdf, o.html, o.csv });
    if (o.pdf.empty() && o.html.empty() && o.csv.empty())
        std::cout << report::purchasesCsv(build);
    if (!o.csv.empty())
        files::exportFile(o.csv, report::purchasesCsv(build));
    o.write(report::purchaseSheet(build, today()));
    return fine;
}

/// A letter to one vendor, about every setup that is from him.
int letterTo(const Outputs& o, const std::string& vendor)
{
    if (o.pdf.empty() && o.html.empty())
        throw files::Refusal(tr("letter: say where it goes: --pdf or --html with a file."));
    files::checkOutputs({ o.subject.path }, { o.pdf, o.html });
    const auto file = files::loadBuild(o.subject.path);
    std::vector<Study> studies;
    for (std::size_t i = 1; i < file.build.setups.size(); ++i)
        if (file.build.setups[i].vendor == vendor)
            studies.push_back(
                study(file.build, { o.subject.against, file.build.setups[i].id }, o.subject.us ? UnitSystem::Us : UnitSystem::Metric));
    if (studies.empty()) {
        std::string there;
        for (const auto& each : report::vendorsOf(file.build))
            there += (there.empty() ? "“" : ", “") + each + "”";
        throw files::Refusal(tr("{}: no setup is from “{}”; {}.", o.subject.path, shortened(vendor),
            there.empty() ? tr("no setup names a vendor: write him into the kit first") : tr("there are {}", there)));
    }
    o.write(report::letterTo(vendor, studies, today(), std::filesystem::absolute(o.subject.path).parent_path()));
    return fine;
}

struct LogOptions {
    std::string path;
    std::vector<std::string> add;
    std::string ics;
};

template <class T>
std::string known(const std::vector<T>& list)
{
    std::string ids;
    for (const T& each : list)
        ids += (ids.empty() ? "" : ", ") + each.id;
    return ids.empty() ? "none" : ids;
}

/// An entry out of `key=value` words, each a field of the log.
void addEntry(Build& build, const std::vector<std::string>& words)
{
    build.log.emplace_back();
    const std::string at = fmt::format("/log/{}/", build.log.size() - 1);
    const std::map<std::string, std::string> readings { { "odometer", "odometer_km" }, { "hours", "track_h" },
        { "hottest", "hottest_degC" }, { "cost", "cost" } };
    for (const std::string& word : words) {
        const auto equals = word.find('=');
        const auto key = word.substr(0, equals);
        const auto value = equals == std::string::npos ? std::string() : word.substr(equals + 1);
        if (key == "date" && !dayOf(value))
            throw files::Refusal(tr("--add: date: “{}” is no day; write it as 2026-03-14.", value));
        if (const auto reading = readings.find(key); reading != readings.end()) {
            const Directory directory(build);
            const auto* entry = directory.at(at + reading->second);
            const auto parsed = parseQuantity(value, entry->address.style.dimension, entry->address.style.unit(UnitSystem::Metric));
            if (!parsed)
                throw files::Refusal(fmt::format("--add: {}: {}", key, parsed.refusal));
            const Reading read { *parsed.value, {}, Known::Measured, {}, {} };
            if (const auto why = refusal(entry->address, read); !why.empty())
                throw files::Refusal(fmt::format("--add: {}", why));
            build = withReading(std::move(build), at + reading->second, read);
        } else if (key == "date" || key == "event" || key == "setup" || key == "duty" || key == "note") {
            auto said = withFact(build, at + key, value);
            if (!said.build)
                throw files::Refusal(fmt::format("--add: {}: {}", key, said.refusal));
            if (key == "setup" && !findSetup(build, value))
                throw files::Refusal(tr("--add: setup: there is no setup “{}”; there are {}.", shortened(value), known(build.setups)));
            if (key == "duty" && std::ranges::find(build.duties, value, &DutyPlan::id) == build.duties.end())
                throw files::Refusal(tr("--add: duty: there is no duty “{}”; there are {}.", shortened(value), known(build.duties)));
            build = std::move(*said.build);
        } else {
            throw files::Refusal(tr("--add: “{}”: one of date, event, odometer, setup, duty, hours, hottest, cost, note is wanted.", key));
        }
    }
    if (build.log.back().date.empty())
        build.log.back().date = today();
}

std::string stampOfNow()
{
    const auto now = std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now());
    const auto day = std::chrono::floor<std::chrono::days>(now);
    const std::chrono::year_month_day ymd { day };
    const std::chrono::hh_mm_ss time { now - day };
    return fmt::format("{:04}{:02}{:02}T{:02}{:02}{:02}Z", static_cast<int>(ymd.year()), static_cast<unsigned>(ymd.month()),
        static_cast<unsigned>(ymd.day()), time.hours().count(), time.minutes().count(), time.seconds().count());
}

int log(const LogOptions& o)
{
    files::checkOutputs({ o.path }, { o.ics });
    const auto file = o.add.empty() ? files::loadBuild(o.path) : files::changeBuild(o.path, [&](Build build) {
        addEntry(build, o.add);
        return build;
    });
    const Build& build = file.build;
    if (!o.ics.empty())
        files::exportFile(o.ics, logbook::calendarOf(build, stampOfNow()));
    for (const std::size_t i : logbook::inOrder(build)) {
        const LogEntry& e = build.log[i];
        std::cout << fmt::format("{:10} {:>9} {:15} {}\n", e.date, e.odometer.value ? print(*e.odometer.value, style::odometer) : "",
            wordFor(e.event, choices::logEvent), onOneLine(e.note.empty() ? e.setup : e.note));
    }
    if (const Setup* on = logbook::onCar(build, today()))
        std::cout << tr("On the car today: {}\n", on->name);
    for (const auto& w : logbook::wearOf(build)) {
        std::cout << tr("{} {} {}: {} left", tr(wordOf(w.axle)), tr(wordOf(w.side)), w.ring ? tr("rotor") : tr("lining"),
            print(w.points.back().left, style::fine));
        if (w.endsAt)
            std::cout << tr(", at its minimum at {}{}{}", print(*w.endsAt, style::odometer),
                w.endsEarliest ? tr(" (as early as {})", print(*w.endsEarliest, style::odometer)) : std::string(),
                w.endsOn ? tr(", about {}", logbook::aboutDateOf(*w.endsOn, w.points.back().day)) : std::string());
        else
            std::cout << tr("; to say when it ends it lacks {}", w.lacks);
        std::cout << "\n";
    }
    for (const auto& r : logbook::remindersOf(build))
        if (!r.done)
            std::cout << tr("due {}: {} ({})\n", dateOf(r.day), r.what, r.because);
    if (const auto cost = logbook::costPerTrackHour(build))
        std::cout << tr("An hour on the track costs {:.0f} {}\n", *cost, build.currency);
    return fine;
}

} // namespace

void addCardCommands(CLI::App& app, int& code)
{
    auto* cardCommand = app.add_subcommand("card", tr("The job card of a setup, each step with what caused it"));
    auto c = std::make_shared<Outputs>();
    c->addTo(*cardCommand);
    cardCommand->add_option("--json", c->json, tr("write its steps there"));
    cardCommand->callback([c, &code] { code = card(*c); });

    auto* reportCommand = app.add_subcommand("report", tr("The build sheet: before and after, section to scale, verdicts, readings"));
    auto r = std::make_shared<Outputs>();
    r->addTo(*reportCommand);
    reportCommand->add_option("--csv", r->csv, tr("write every figure there"));
    reportCommand->callback([r, &code] { code = report(*r); });

    auto* fitting = app.add_subcommand("fitting-sheet", tr("The paper a kit comes without, for others who fit it: no reading of this car"));
    auto f = std::make_shared<Outputs>();
    f->addTo(*fitting);
    fitting->callback([f, &code] { code = fittingSheet(*f); });

    auto* purchasesCommand = app.add_subcommand("purchases", tr("What each setup has to have bought: numbers, sources, prices, totals"));
    auto p = std::make_shared<Outputs>();
    purchasesCommand->add_option("FILE", p->subject.path, "build, *.deepstop")->required();
    purchasesCommand->add_option("--csv", p->csv, tr("write the list there; without any output it goes to the screen"));
    purchasesCommand->add_option("--pdf", p->pdf, tr("write it there to print"));
    purchasesCommand->add_option("--html", p->html, tr("write it there as one HTML file"));
    purchasesCommand->callback([p, &code] { code = purchases(*p); });

    auto* letterCommand = app.add_subcommand("letter", tr("A letter to a vendor: faults of what came, what was done with it, questions"));
    auto v = std::make_shared<Outputs>();
    auto vendor = std::make_shared<std::string>();
    letterCommand->add_option("FILE", v->subject.path, "build, *.deepstop")->required();
    letterCommand->add_option("--to", *vendor, tr("the vendor, as his setups name him"))->required();
    letterCommand->add_option("--pdf", v->pdf, tr("write it there to print"));
    letterCommand->add_option("--html", v->html, tr("write it there as one HTML file"));
    letterCommand->add_flag("--us", v->subject.us, tr("in US units"));
    letterCommand->callback([v, vendor, &code] { code = letterTo(*v, *vendor); });

    auto* logCommand = app.add_subcommand("log", tr("The car's log: what was done, how it wears, what is due"));
    auto l = std::make_shared<LogOptions>();
    logCommand->add_option("FILE", l->path, "build, *.deepstop")->required();
    logCommand->add_option("--add", l->add, tr("an entry: date=2026-04-01 event=\"track day\" odometer=12345km hours=1.5 note=…"))
        ->expected(1, 12);
    logCommand->add_option("--ics", l->ics, tr("write what is due there as a calendar"));
    logCommand->callback([l, &code] { code = log(*l); });
}

} // namespace deepstop::cli
