#pragma once
/// A program's options as a table, and what is made of it: its man page, and what a shell completes.

#include <string>
#include <string_view>
#include <vector>

namespace deepstop::manual {

/// One option, or one thing that is named without one.
struct Option {
    std::vector<std::string> names; ///< "--pdf", "-h"; empty: named by its place
    std::string value; ///< "OUT"; empty: a flag
    std::string help;
    std::vector<std::string> choices {}; ///< words it takes; empty: any
    bool required = false;
};

struct Command {
    std::string name;
    std::string help;
    std::vector<Option> options;
    std::vector<Command> commands {};
};

/// A program with what stands round its options.
struct Program {
    Command command;
    std::string version;
    std::string date; ///< of the page, "November 30, 2026"
    std::string purpose; ///< one line, small letters, no stop at its end
    std::vector<std::string> about; ///< paragraphs
    std::vector<std::pair<std::string, std::string>> exits; ///< code and what it says
    std::vector<std::pair<std::string, std::string>> files; ///< path and what it is
    std::vector<std::string> others; ///< "deepstop-cli(1)"
};

/// "2026-11-30" as a page has it: "November 30, 2026".
[[nodiscard]] std::string written(std::string_view date);
/// Section 1, in mdoc(7).
[[nodiscard]] std::string manPage(const Program& program);
/// Completion of commands, options, words and file names.
[[nodiscard]] std::string bashCompletion(const Command& command);
[[nodiscard]] std::string zshCompletion(const Command& command);
[[nodiscard]] std::string fishCompletion(const Command& command);

/// What `--manual KIND` prints, KIND being man, bash, zsh or fish. Empty for any other kind.
[[nodiscard]] std::string manualOf(const Program& program, std::string_view kind);

} // namespace deepstop::manual
