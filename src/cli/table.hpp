#pragma once
/// A command line's own options as the table that manual and completion are made of.

#include "cli/manual.hpp"

#include <CLI/CLI.hpp>

namespace deepstop::manual {

/// "TEXT:{front,rear}" has its words between braces.
inline std::vector<std::string> choicesIn(const std::string& type)
{
    std::vector<std::string> choices;
    const auto open = type.find('{');
    const auto close = type.rfind('}');
    if (open == std::string::npos || close == std::string::npos || close < open)
        return choices;
    for (std::size_t at = open + 1; at < close;) {
        const auto end = std::min(type.find(',', at), close);
        choices.push_back(type.substr(at, end - at));
        at = end + 1;
    }
    return choices;
}

inline Command tableOf(const CLI::App& app, const std::string& name)
{
    Command command { name, app.get_description(), {}, {} };
    for (const CLI::Option* option : app.get_options()) {
        if (option->get_group().empty())
            continue;
        Option row;
        for (const auto& each : option->get_snames())
            row.names.push_back("-" + each);
        for (const auto& each : option->get_lnames())
            row.names.push_back("--" + each);
        row.help = option->get_description();
        row.required = option->get_required();
        row.choices = choicesIn(option->get_type_name());
        if (row.names.empty())
            row.value = option->get_name(true);
        else if (option->get_items_expected_max() > 0)
            row.value = row.choices.empty() ? "VALUE" : "WORD";
        command.options.push_back(std::move(row));
    }
    for (const CLI::App* sub : app.get_subcommands({}))
        command.commands.push_back(tableOf(*sub, sub->get_name()));
    return command;
}

} // namespace deepstop::manual
