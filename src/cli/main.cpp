/// deepstop-cli: what the application works out, without a window.

#include "cli/sheet.hpp"
#include "files/build_file.hpp"
#include "sums/sums.hpp"

#include <CLI/CLI.hpp>
#include <nlohmann/json.hpp>

#include <cstdio>
#include <iostream>

using namespace deepstop;

namespace {

constexpr int fine = 0;
constexpr int bad = 1; ///< something hits or stops
constexpr int refused = 2; ///< bad input

int studyFile(const std::string& path, const std::string& setup, const std::string& against, bool asJson, bool us)
{
    const auto file = files::loadBuild(path);
    for (const auto& id : { setup, against })
        if (!id.empty() && !findSetup(file.build, id)) {
            std::string known;
            for (const Setup& s : file.build.setups)
                known += (known.empty() ? "" : ", ") + s.id;
            throw files::Refusal(path + ": there is no setup “" + id + "”; it has " + known + ".");
        }
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

    auto* studyCommand = app.add_subcommand("study", "Every result and verdict of a build. Exit 0: nothing hits or stops; 1: something does; 2: bad input");
    studyCommand->add_option("FILE", path, "build file, *.deepstop")->required();
    studyCommand->add_option("--setup", setup, "id of the setup to judge (default: the second)");
    studyCommand->add_option("--against", against, "id of the setup to compare it with (default: the first, the car as found)");
    studyCommand->add_flag("--json", json, "as JSON, satisfying data/schema/study-1.schema.json");
    studyCommand->add_flag("--us", us, "in US units");

    auto* calcCommand = app.add_subcommand("calc", "A quick sum without a build: calc NAME key=value…");
    calcCommand->add_option("NAME", name, "which sum");
    calcCommand->add_option("INPUTS", arguments, "key=value, in any unit");
    calcCommand->add_flag("--list", list, "all sums with their keys, units, results and source");
    calcCommand->add_flag("--json", json, "as JSON, in SI");

    auto* checkCommand = app.add_subcommand("check", "Reads a build file and says whether it is in order. Exit 0 or 2");
    checkCommand->add_option("FILE", path, "build file, *.deepstop")->required();

    auto* schemaCommand = app.add_subcommand("schema", "Prints the JSON Schema of build files");

    try {
        app.parse(argc, argv);
    } catch (const CLI::Success& asked) {
        return app.exit(asked);
    } catch (const CLI::ParseError& error) {
        std::cerr << "deepstop-cli: " << error.what() << " See deepstop-cli --help.\n";
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
        if (*schemaCommand)
            std::cout << files::buildSchema().dump(2) << "\n";
        return fine;
    } catch (const std::runtime_error& error) {
        std::cerr << "deepstop-cli: " << error.what() << "\n";
        return refused;
    }
}
