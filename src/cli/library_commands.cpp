#include "cli/commands.hpp"

#include "files/disk.hpp"
#include "files/exports.hpp"
#include "library/library_file.hpp"
#include "library/import.hpp"

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
                throw files::Refusal("--kind: one of rotor, caliper, pad, wheel, bracket, hose is wanted.");
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
    for (const auto& column : plan.columns)
        std::cout << onOneLine(column.header) << (column.key.empty() ? " is passed over" : " → " + column.key)
                  << (column.unit && !column.unit->symbol.empty() ? ", plain numbers in " + std::string(column.unit->symbol) : "") << "\n";
    for (const auto& line : import.refused)
        std::cout << "line " << line.line << ": " << line.why << "\n";
    std::cout << import.taken << " " << nameOf(plan.kind) << (import.taken == 1 ? "" : "s") << " taken"
              << (into.empty() ? "" : " into " + into) << ", " << import.refused.size() << " lines refused.\n";
    return import.refused.empty() ? fine : bad;
}

} // namespace

void addLibraryCommands(CLI::App& app, int& code)
{
    auto* import = app.add_subcommand("import", "Takes in a list. Exit 0: every line; 1: some lines refused; 2: no such list");
    import->require_subcommand(1);
    auto* parts = import->add_subcommand("parts", "Parts from CSV; its first line names the columns");
    auto o = std::make_shared<ImportOptions>();
    parts->add_option("FILE", o->path, "list, *.csv")->required();
    parts->add_option("--kind", o->kind, "rotor, caliper, pad, wheel, bracket or hose (default: what its columns fit best)");
    parts->add_option("--into", o->into, "parts library to put them into, *.json (default: only say what would be taken)");
    parts->add_flag("--json", o->json, "as JSON");
    parts->callback([o, &code] { code = importPartsFrom(*o); });
}

} // namespace deepstop::cli
