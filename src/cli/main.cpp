/// deepstop-cli: what the application works out, without a window.

#include "cli/commands.hpp"
#include "cli/sheet.hpp"
#include "files/build_file.hpp"
#include "files/disk.hpp"
#include "files/library_file.hpp"
#include "library/import.hpp"
#include "report/ask.hpp"
#include "sums/sums.hpp"

#include <CLI/CLI.hpp>
#include <nlohmann/json.hpp>

#include <cstdio>
#include <iostream>

using namespace deepstop;
using cli::bad;
using cli::fine;
using cli::refused;
using cli::setupOf;

namespace {

int studyFile(const std::string& path, const std::string& setup, const std::string& against, bool asJson, bool us)
{
    const auto file = files::loadBuild(path);
    for (const auto& id : { setup, against })
        if (!id.empty())
            (void)setupOf(file, path, id);
    const auto result = study(file.build, { against, setup }, us ? UnitSystem::Us : UnitSystem::Metric);
    std::cout << (asJson ? cli::studyJson(result).dump(2) + "\n" : cli::studySheet(result));
    return std::ranges::any_of(result.verdicts, [](const Verdict& v) { return isBad(v.level); }) ? bad : fine;
}

int calculate(const std::string& name, const std::vector<std::string>& arguments, bool list, bool asJson)
{
    if (list) {
        std::cout << (asJson ? cli::sumsJson().dump(2) + "\n" : cli::sumsSheet());
        return fine;
    }
    if (name.empty())
        throw sums::BadRequest("name a sum; calc --list names them all.");
    const auto answer = sums::calculate(name, arguments);
    std::cout << (asJson ? cli::answerJson(answer).dump(2) + "\n" : cli::answerSheet(answer));
    return fine;
}

/// What is still to be read: as a list, a sheet for the bench, or a letter to the vendor.
int ask(const std::string& path, const std::string& setup, const std::string& against, bool letter, bool sheet, bool asJson, bool us)
{
    const auto file = files::loadBuild(path);
    for (const auto& id : { setup, against })
        if (!id.empty())
            (void)setupOf(file, path, id);
    const auto result = study(file.build, { against, setup }, us ? UnitSystem::Us : UnitSystem::Metric);
    if (asJson) {
        auto list = nlohmann::ordered_json::array();
        for (const auto& one : report::asksOf(result))
            list.push_back({ { "pointer", one.pointer }, { "what", one.what }, { "now", one.now }, { "take_with", one.instrument }, { "verdicts", one.verdicts }, { "vendor_knows", one.vendorKnows } });
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

/// Parts from a list into a library file. Exit 0 when every line was taken, 1 when some were refused.
int importPartsFrom(const std::string& path, const std::string& kind, const std::string& into, bool asJson)
{
    const auto text = files::readFile(path, files::largestLibrary);
    library::Import import;
    library::Plan plan;
    try {
        plan = library::guessPlan(text);
        if (!kind.empty()) {
            using enum library::Kind;
            const auto kinds = { Rotor, Caliper, Pad, Wheel, Bracket, Hose };
            const auto found = std::ranges::find_if(kinds, [&](library::Kind k) { return nameOf(k) == kind; });
            if (found == kinds.end())
                throw files::Refusal("--kind: one of rotor, caliper, pad, wheel, bracket, hose is wanted.");
            plan = library::guessPlan(text, *found);
        }
        import = library::importParts(text, plan);
    } catch (const files::Refusal& refusal) {
        throw files::Refusal(path + ": " + refusal.what());
    }
    if (!into.empty()) {
        auto kept = files::loadLibrary(into);
        library::merge(kept, import.parts);
        files::saveLibrary(into, kept);
    }
    if (asJson) {
        nlohmann::ordered_json out = { { "kind", nameOf(plan.kind) }, { "taken", import.taken }, { "refused", nlohmann::ordered_json::array() }, { "columns", nlohmann::ordered_json::array() } };
        for (const auto& column : plan.columns)
            out["columns"].push_back({ { "header", column.header }, { "field", column.key }, { "unit", column.unit ? column.unit->symbol : "" } });
        for (const auto& line : import.refused)
            out["refused"].push_back({ { "line", line.line }, { "why", line.why } });
        std::cout << out.dump(2) << "\n";
        return import.refused.empty() ? fine : bad;
    }
    for (const auto& column : plan.columns)
        std::cout << column.header << (column.key.empty() ? " is passed over" : " → " + column.key) << (column.unit && !column.unit->symbol.empty() ? ", plain numbers in " + std::string(column.unit->symbol) : "") << "\n";
    for (const auto& line : import.refused)
        std::cout << "line " << line.line << ": " << line.why << "\n";
    std::cout << import.taken << " " << nameOf(plan.kind) << (import.taken == 1 ? "" : "s") << " taken" << (into.empty() ? "" : " into " + into) << ", " << import.refused.size() << " lines refused.\n";
    return import.refused.empty() ? fine : bad;
}

} // namespace

int main(int argc, char** argv)
{
    CLI::App app { "Deep Stop on the command line: does the kit fit, is it centred, is it better?" };
    app.require_subcommand(1);
    app.set_version_flag("--version", DEEPSTOP_VERSION);
    std::string path;
    std::string setup;
    std::string against;
    std::string name;
    std::vector<std::string> arguments;
    bool json = false;
    bool us = false;
    bool list = false;

    const auto takesAPair = [&](CLI::App* command) {
        command->add_option("FILE", path, "build file, *.deepstop")->required();
        command->add_option("--setup", setup, "id of the setup to judge (default: the second)");
        command->add_option("--against", against, "id of the setup to compare it with (default: the first, the car as found)");
        command->add_flag("--us", us, "in US units");
    };
    auto* studyCommand = app.add_subcommand("study", "Every result and verdict of a build. Exit 0: nothing hits or stops; 1: something does; 2: bad input");
    takesAPair(studyCommand);
    studyCommand->add_flag("--json", json, "as JSON, satisfying data/schema/study-1.schema.json");

    auto* calcCommand = app.add_subcommand("calc", "A quick sum without a build: calc NAME key=value…");
    calcCommand->add_option("NAME", name, "which sum");
    calcCommand->add_option("INPUTS", arguments, "key=value, in any unit");
    calcCommand->add_flag("--list", list, "all sums with their keys, units, results and source");
    calcCommand->add_flag("--json", json, "as JSON, in SI");

    auto* checkCommand = app.add_subcommand("check", "Reads a build file and says whether it is in order. Exit 0 or 2");
    checkCommand->add_option("FILE", path, "build file, *.deepstop")->required();

    bool letter = false;
    bool sheet = false;
    bool ofLibrary = false;
    std::string kind;
    std::string into;
    auto* askCommand = app.add_subcommand("ask", "What is still to be read: how many checks hang on it, what, and how it is known now");
    takesAPair(askCommand);
    askCommand->add_flag("--letter", letter, "as a letter to the vendor");
    askCommand->add_flag("--sheet", sheet, "as a sheet for the bench");
    askCommand->add_flag("--json", json, "as JSON");

    auto* importCommand = app.add_subcommand("import", "Takes in a list. Exit 0: every line; 1: some lines refused; 2: no such list");
    importCommand->require_subcommand(1);
    auto* partsCommand = importCommand->add_subcommand("parts", "Parts from CSV; its first line names the columns");
    partsCommand->add_option("FILE", path, "list, *.csv")->required();
    partsCommand->add_option("--kind", kind, "rotor, caliper, pad, wheel, bracket or hose (default: what its columns fit best)");
    partsCommand->add_option("--into", into, "parts library to put them into, *.json (default: only say what would be taken)");
    partsCommand->add_flag("--json", json, "as JSON");

    auto* schemaCommand = app.add_subcommand("schema", "Prints the JSON Schema of build files");
    schemaCommand->add_flag("--library", ofLibrary, "of parts libraries instead");

    int code = fine;
    cli::addWheelCommands(app, code);
    cli::addHardwareCommands(app, code);
    try {
        app.parse(argc, argv);
    } catch (const CLI::Success& asked) {
        return app.exit(asked);
    } catch (const CLI::ParseError& error) {
        std::cerr << "deepstop-cli: " << error.what() << " See deepstop-cli --help.\n";
        return refused;
    } catch (const std::runtime_error& error) {
        std::cerr << "deepstop-cli: " << error.what() << "\n";
        return refused;
    }
    try {
        if (*studyCommand)
            return studyFile(path, setup, against, json, us);
        if (*calcCommand)
            return calculate(name, arguments, list, json);
        if (*checkCommand) {
            const auto file = files::loadBuild(path);
            std::cout << path << ": in order, " << file.build.setups.size() << " setups, " << file.build.wheels.size() << " wheels.\n";
            return fine;
        }
        if (*askCommand)
            return ask(path, setup, against, letter, sheet, json, us);
        if (*partsCommand)
            return importPartsFrom(path, kind, into, json);
        if (*schemaCommand)
            std::cout << (ofLibrary ? files::librarySchema() : files::buildSchema()).dump(2) << "\n";
        return code;
    } catch (const std::runtime_error& error) {
        std::cerr << "deepstop-cli: " << error.what() << "\n";
        return refused;
    }
}
