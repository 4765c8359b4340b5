#include "cli/commands.hpp"
#include "cli/sheet.hpp"

#include "language/language.hpp"
#include "library/kit_file.hpp"
#include "library/library_file.hpp"
#include "report/ask.hpp"
#include "sums/sums.hpp"

#include <nlohmann/json.hpp>

#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

int showStudy(const Subject& subject, bool asJson)
{
    const auto result = subject.studied();
    std::cout << (asJson ? studyJson(result).dump(2) + "\n" : studySheet(result));
    return std::ranges::any_of(result.verdicts, [](const Verdict& v) { return isBad(v.level); }) ? bad : fine;
}

int calculate(const std::string& name, const std::vector<std::string>& arguments, bool list, bool asJson)
{
    if (list) {
        std::cout << (asJson ? sumsJson().dump(2) + "\n" : sumsSheet());
        return fine;
    }
    if (name.empty())
        throw sums::BadRequest(tr("name a sum; calc --list names them all."));
    const auto answer = sums::calculate(name, arguments);
    std::cout << (asJson ? answerJson(answer).dump(2) + "\n" : answerSheet(answer));
    return fine;
}

/// What is still to be read: as a list, a sheet for the bench, or a letter to the vendor.
int ask(const Subject& subject, bool letter, bool sheet, bool asJson)
{
    const auto result = subject.studied();
    if (asJson) {
        auto list = nlohmann::ordered_json::array();
        for (const auto& one : report::asksOf(result))
            list.push_back({ { "pointer", one.pointer }, { "what", one.what }, { "now", one.now }, { "take_with", one.instrument },
                { "verdicts", one.verdicts }, { "vendor_knows", one.vendorKnows } });
        std::cout << list.dump(2) << "\n";
    } else if (letter) {
        std::cout << report::vendorLetter(result);
    } else if (sheet) {
        std::cout << report::benchSheet(result);
    } else {
        for (const auto& one : report::asksOf(result))
            std::cout << one.verdicts << "\t" << one.what << "\t" << one.now << "\n";
    }
    return fine;
}

int check(const std::string& path)
{
    const auto file = files::loadBuild(path);
    std::cout << tr("{}: in order, {} setups, {} wheels.\n", path, file.build.setups.size(), file.build.wheels.size());
    return fine;
}

} // namespace

void addStudyCommands(CLI::App& app, int& code)
{
    auto* studied = app.add_subcommand(
        "study", tr("Every result and verdict of a build. Exit 0: nothing hits or stops; 1: something does; 2: bad input"));
    auto subject = std::make_shared<Subject>();
    auto json = std::make_shared<bool>(false);
    subject->addTo(*studied);
    studied->add_flag("--json", *json, tr("as JSON, satisfying data/schema/study-2.schema.json"));
    studied->callback([subject, json, &code] { code = showStudy(*subject, *json); });

    struct CalcOptions {
        std::string name;
        std::vector<std::string> inputs;
        bool list = false;
        bool json = false;
    };
    auto* calc = app.add_subcommand("calc", tr("A calculation without a build: calc NAME key=value…"));
    auto c = std::make_shared<CalcOptions>();
    calc->add_option("NAME", c->name, tr("which sum"));
    calc->add_option("INPUTS", c->inputs, tr("key=value, in any unit"));
    calc->add_flag("--list", c->list, tr("all sums with their keys, units, results and source"));
    calc->add_flag("--json", c->json, tr("as JSON, in SI"));
    calc->callback([c, &code] { code = calculate(c->name, c->inputs, c->list, c->json); });

    auto* checked = app.add_subcommand("check", tr("Reads a build file and says whether it is in order. Exit 0 or 2"));
    auto path = std::make_shared<std::string>();
    checked->add_option("FILE", *path, tr("build file, *.deepstop"))->required();
    checked->callback([path, &code] { code = check(*path); });

    struct AskOptions {
        Subject subject;
        bool letter = false;
        bool sheet = false;
        bool json = false;
    };
    auto* asked = app.add_subcommand("ask", tr("What is still to be read: how many checks hang on it, what, and how it is known now"));
    auto a = std::make_shared<AskOptions>();
    a->subject.addTo(*asked);
    asked->add_flag("--letter", a->letter, tr("as a letter to the vendor"));
    asked->add_flag("--sheet", a->sheet, tr("as a sheet for the bench"));
    asked->add_flag("--json", a->json, tr("as JSON"));
    asked->callback([a, &code] { code = ask(a->subject, a->letter, a->sheet, a->json); });

    auto* schema = app.add_subcommand("schema", tr("Prints the JSON Schema of build files"));
    auto ofLibrary = std::make_shared<bool>(false);
    schema->add_flag("--library", *ofLibrary, tr("of parts libraries instead"));
    auto ofKit = std::make_shared<bool>(false);
    schema->add_flag("--kit", *ofKit, tr("of kits instead"));
    schema->callback([ofLibrary, ofKit] {
        std::cout << (*ofKit ? files::kitSchema() : *ofLibrary ? files::librarySchema() : files::buildSchema()).dump(2) << "\n";
    });
}

} // namespace deepstop::cli
