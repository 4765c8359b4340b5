/// deepstop-cli: what the application works out, without a window.

#include "cli/commands.hpp"
#include "cli/table.hpp"
#include "language/language.hpp"
#include "version.hpp"

#include <cstdio>
#include <iostream>

using namespace deepstop;

namespace {

/// One line, whatever was in it.
int refuse(std::string_view why)
{
    std::cerr << "deepstop-cli: " << onOneLine(why) << "\n";
    return cli::refused;
}

/// What stands round the commands in the manual.
manual::Program program(const CLI::App& app)
{
    return { manual::tableOf(app, "deepstop-cli"), versionNumber, manual::written(versionDate),
        tr("does a brake kit fit, is it centred, is it better: on the command line"),
        { tr("Works out what the window of Deep Stop works out, from the same build file: clearance, centring, bolts, balance, heat and "
             "stopping "
             "distance of a brake kit, each with how sure it is."),
            tr("What a reading lacks is named and never invented.") },
        { { "0", tr("Nothing hits or stops.") }, { "1", tr("Something does.") },
            { "2", tr("Bad input; one line on standard error says where.") } },
        { { "*.deepstop", tr("Build files: one car with its kits.") },
            { "~/.local/share/deepstop/library.json", tr("The parts library.") } },
        { "deepstop", "deepstop-bench" } };
}

} // namespace

int main(int argc, char** argv)
{
    // Man pages and completion are made in English, whatever the machine speaks.
    if (argc < 2 || std::string_view(argv[1]) != "--manual")
        openCatalogue();
    CLI::App app { tr("Deep Stop on the command line: does the kit fit, is it centred, is it better?") };
    app.require_subcommand(1);
    app.set_version_flag("--version", versionText);
    int code = cli::fine;
    cli::addStudyCommands(app, code);
    cli::addLibraryCommands(app, code);
    cli::addWheelCommands(app, code);
    cli::addHardwareCommands(app, code);
    cli::addDesignCommands(app, code);
    cli::addSearchCommands(app, code);
    cli::addScanCommands(app, code);
    cli::addProvingCommands(app, code);
    cli::addCardCommands(app, code);
    cli::addBalanceCommands(app, code);
    cli::addHeatCommands(app, code);
    cli::addSymptomCommands(app, code);
    if (argc == 3 && std::string_view(argv[1]) == "--manual") {
        std::cout << manual::manualOf(program(app), argv[2]);
        return cli::fine;
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::Success& asked) {
        code = app.exit(asked);
    } catch (const CLI::ParseError& error) {
        return refuse(tr("{} See deepstop-cli --help.", std::string(error.what())));
    } catch (const std::bad_alloc&) {
        return refuse(tr("there is too little memory for that."));
    } catch (const std::exception& error) {
        return refuse(error.what());
    }
    // What could not be written was not said.
    std::cout.flush();
    if (!std::cout || std::fflush(stdout) != 0 || std::ferror(stdout))
        return refuse(tr("the answer could not be written to standard output: is its disk full?"));
    return code;
}
