#include "cli/commands.hpp"

#include "files/disk.hpp"
#include "files/exports.hpp"
#include "language/language.hpp"
#include "library/import.hpp"
#include "library/kit.hpp"
#include "library/kit_file.hpp"
#include "library/library_file.hpp"

#include <nlohmann/json.hpp>

#include <chrono>
#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

struct ImportOptions {
    std::string path;
    std::string kind;
    std::string into;
    bool json = false;
};

/// Parts from a list into a library file. Exit 0 when every line was taken, 1 when some were refused.
int importPartsFrom(const ImportOptions& o)
{
    const auto& [path, kind, into, asJson] = o;
    files::checkOutputs({ path }, { into });
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
                throw files::Refusal(tr("--kind: one of rotor, caliper, pad, wheel, bracket, hose is wanted."));
            plan = library::guessPlan(text, *found);
        }
        import = library::importParts(text, plan);
    } catch (const files::Refusal& refusal) {
        throw files::Refusal(path + ": " + refusal.what());
    }
    // Whoever else writes there is waited for, so that nobody's parts are lost.
    constexpr auto patience = std::chrono::seconds(60);
    if (!into.empty())
        files::addToLibrary(into, import.parts, patience);
    if (asJson) {
        nlohmann::ordered_json out = { { "kind", nameOf(plan.kind) }, { "taken", import.taken },
            { "refused", nlohmann::ordered_json::array() }, { "columns", nlohmann::ordered_json::array() } };
        for (const auto& column : plan.columns)
            out["columns"].push_back(
                { { "header", onOneLine(column.header) }, { "field", column.key }, { "unit", column.unit ? column.unit->symbol : "" } });
        for (const auto& line : import.refused)
            out["refused"].push_back({ { "line", line.line }, { "why", line.why } });
        std::cout << out.dump(2) << "\n";
        return import.refused.empty() ? fine : bad;
    }
    for (const auto& column : plan.columns) {
        if (column.key.empty())
            std::cout << tr("{} is passed over\n", onOneLine(column.header));
        else if (column.unit && !column.unit->symbol.empty())
            std::cout << tr("{} → {}, plain numbers in {}\n", onOneLine(column.header), column.key, column.unit->symbol);
        else
            std::cout << fmt::format("{} → {}\n", onOneLine(column.header), column.key);
    }
    for (const auto& line : import.refused)
        std::cout << tr("line {}: {}\n", line.line, line.why);
    const auto ofKind = import.taken == 1 ? tr(nameOf(plan.kind)) : inNumber(plan.kind);
    std::cout << (into.empty() ? tr("{} {} taken, {} lines refused.\n", import.taken, ofKind, import.refused.size())
                               : tr("{} {} taken into {}, {} lines refused.\n", import.taken, ofKind, into, import.refused.size()));
    return import.refused.empty() ? fine : bad;
}

struct KitOptions {
    std::string build;
    std::string setup;
    std::string kit;
    std::string csv;
};

/// The kit of a setup into a file of its own, and what it holds as a list.
int exportKit(const KitOptions& o)
{
    if (o.kit.empty() && o.csv.empty())
        throw files::Refusal(tr("export kit: say where it goes: --json or --csv with a file."));
    files::checkOutputs({ o.build }, { o.kit, o.csv });
    const auto file = files::loadBuild(o.build);
    if (o.setup.empty() && file.build.setups.size() < 2)
        throw files::Refusal(tr("{}: has the car as found only: name it with --setup to take its brakes as a kit.", o.build));
    const Setup& setup = o.setup.empty() ? file.build.setups[1] : setupOf(file, o.build, o.setup);
    const auto text = files::writeKit(setup);
    if (!o.kit.empty())
        files::exportFile(o.kit, text);
    if (!o.csv.empty())
        files::exportFile(o.csv, library::linesCsv(library::kitOf(setup)));
    return fine;
}

/// A kit out of its file into a build, as one more setup.
int importKit(const KitOptions& o)
{
    const Setup kit = files::loadKit(o.kit);
    files::checkOutputs({ o.kit }, { o.build });
    const auto file = files::changeBuild(o.build, library::kitTakenIn(kit));
    const Setup& mine = file.build.setups.back();
    std::cout << tr("{}: {} is in {}, nothing of it as measured.\n", mine.id, onOneLine(mine.name), o.build);
    return fine;
}

struct UniteOptions {
    std::string other;
    std::string into;
};

/// Another builder's library beside one's own.
int importLibrary(const UniteOptions& o)
{
    if (std::error_code none; !std::filesystem::exists(o.other, none))
        throw files::Refusal(tr("{}: there is no such parts library.", o.other));
    files::checkOutputs({ o.other }, { o.into });
    const auto united = files::uniteLibrary(o.into, files::loadLibrary(o.other), std::chrono::seconds(60));
    std::cout << tr("{}: {} parts added, {} of them under new ids because their own stand for other parts; {} were there already.\n",
        o.into, united.added + united.beside, united.beside, united.same);
    return fine;
}

} // namespace

void addLibraryCommands(CLI::App& app, int& code)
{
    auto* import = app.add_subcommand("import", tr("Takes in a list. Exit 0: every line; 1: some lines refused; 2: no such list"));
    import->require_subcommand(1);
    auto* parts = import->add_subcommand("parts", tr("Parts from CSV; its first line names the columns"));
    auto o = std::make_shared<ImportOptions>();
    parts->add_option("FILE", o->path, "list, *.csv")->required();
    parts->add_option("--kind", o->kind, tr("rotor, caliper, pad, wheel, bracket or hose (default: what its columns fit best)"));
    parts->add_option("--into", o->into, tr("parts library to put them into, *.json (default: only say what would be taken)"));
    parts->add_flag("--json", o->json, tr("as JSON"));
    parts->callback([o, &code] { code = importPartsFrom(*o); });

    auto* libraryIn = import->add_subcommand("library", tr("Another parts library beside one's own; nothing of either is lost"));
    auto unite = std::make_shared<UniteOptions>();
    libraryIn->add_option("LIBRARY", unite->other, tr("parts library, *.json"))->required();
    libraryIn->add_option("--into", unite->into, tr("parts library to put it beside, *.json"))->required();
    libraryIn->callback([unite, &code] { code = importLibrary(*unite); });

    auto* kitIn = import->add_subcommand("kit", tr("A kit into a build, as one more setup; nothing of it counts as measured on this car"));
    auto in = std::make_shared<KitOptions>();
    kitIn->add_option("KIT", in->kit, "kit, *.json")->required();
    kitIn->add_option("--into", in->build, tr("build to put it into"))->required();
    kitIn->callback([in, &code] { code = importKit(*in); });

    auto* exported = app.add_subcommand("export", tr("Takes something out of a build into a file of its own"));
    exported->require_subcommand(1);
    auto* kitOut = exported->add_subcommand("kit", tr("The kit of a setup, without the car: readings of its parts count as a vendor's"));
    auto out = std::make_shared<KitOptions>();
    kitOut->add_option("FILE", out->build, "build, *.deepstop")->required();
    kitOut->add_option("--setup", out->setup, tr("id of the setup (default: the second)"));
    kitOut->add_option("--json", out->kit, tr("write the kit there"));
    kitOut->add_option("--csv", out->csv, tr("write the list of its parts there"));
    kitOut->callback([out, &code] { code = exportKit(*out); });
}

} // namespace deepstop::cli
