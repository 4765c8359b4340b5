#include "cli/manual.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <functional>

namespace deepstop::manual {
namespace {

/// Text as mdoc takes it: no line begins with a control character, no backslash is one.
std::string roff(std::string_view text)
{
    std::string out;
    for (const char c : text)
        if (c == '\\')
            out += "\\e";
        else
            out += c;
    if (out.starts_with('.') || out.starts_with('\''))
        out = "\\&" + out;
    // A sentence begins a line.
    for (std::size_t at = 0; (at = out.find(". ", at)) != std::string::npos; ++at)
        if (at + 2 < out.size() && out[at + 2] >= 'A' && out[at + 2] <= 'Z')
            out.replace(at, 2, ".\n");
    return out;
}

/// An argument of a macro: quoted, so that no word of it is a macro's name.
std::string quoted(std::string_view text)
{
    std::string out;
    for (const char c : text)
        out += c == '"' ? "\\(dq" : std::string(1, c);
    return "\"" + roff(out) + "\"";
}

/// "--pdf" as mdoc's flag, which has its first dash already.
std::string flag(std::string_view name) { return std::string(name.substr(name.starts_with('-') ? 1 : 0)); }

std::string upper(std::string text)
{
    std::ranges::transform(text, text.begin(), [](char c) { return c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c; });
    return text;
}

void addOptions(std::string& out, const Command& command)
{
    if (command.options.empty())
        return;
    out += ".Bl -tag -width Ds\n";
    for (const Option& option : command.options) {
        if (option.names.empty()) {
            out += ".It Ar " + quoted(option.value) + "\n";
        } else {
            std::string line = ".It";
            for (const auto& name : option.names)
                line += std::string(line.size() > 3 ? " ," : "") + " Fl " + flag(name);
            out += line + (option.value.empty() ? "" : " Ar " + quoted(option.value)) + "\n";
        }
        auto help = option.help;
        if (!option.choices.empty())
            help += fmt::format("{}One of: {}.", help.empty() ? "" : help.ends_with('.') ? " " : ". ", fmt::join(option.choices, ", "));
        out += roff(help.empty() ? "See above." : help) + "\n";
    }
    out += ".El\n";
}

void addCommands(std::string& out, const Command& command, const std::string& before)
{
    for (const Command& each : command.commands) {
        const auto whole = before.empty() ? each.name : before + " " + each.name;
        out += ".Ss " + whole + "\n" + roff(each.help) + ".\n";
        addOptions(out, each);
        addCommands(out, each, whole);
    }
}

/// Every command of a program with the words that lead to it.
void each(const Command& command, const std::string& path, const std::function<void(const Command&, const std::string&)>& with)
{
    with(command, path);
    for (const Command& sub : command.commands)
        each(sub, path.empty() ? sub.name : path + " " + sub.name, with);
}

std::string wordsOf(const Command& command)
{
    std::string words;
    for (const Command& sub : command.commands)
        words += (words.empty() ? "" : " ") + sub.name;
    for (const Option& option : command.options)
        for (const auto& name : option.names)
            words += (words.empty() ? "" : " ") + name;
    return words;
}

/// Inside single quotes of a shell.
std::string single(std::string_view text)
{
    std::string out;
    for (const char c : text)
        out += c == '\'' ? std::string("'\\''") : std::string(1, c);
    return out;
}

std::string functionOf(std::string name)
{
    std::ranges::replace(name, '-', '_');
    return "_" + name;
}

} // namespace

std::string written(std::string_view date)
{
    constexpr std::array<std::string_view, 12> months { "January", "February", "March", "April", "May", "June", "July", "August",
        "September", "October", "November", "December" };
    int year = 0;
    int month = 0;
    int day = 0;
    if (date.size() != 10 || std::from_chars(date.data(), date.data() + 4, year).ec != std::errc()
        || std::from_chars(date.data() + 5, date.data() + 7, month).ec != std::errc()
        || std::from_chars(date.data() + 8, date.data() + 10, day).ec != std::errc() || month < 1 || month > 12)
        return std::string(date);
    return fmt::format("{} {}, {}", months[static_cast<std::size_t>(month) - 1], day, year);
}

std::string manPage(const Program& p)
{
    const Command& c = p.command;
    std::string out =
        fmt::format(".Dd {}\n.Dt {} 1\n.Os\n.Sh NAME\n.Nm {}\n.Nd {}\n.Sh SYNOPSIS\n.Nm\n", p.date, upper(c.name), c.name, p.purpose);
    if (!c.commands.empty())
        out += ".Ar command\n.Op Ar options\n";
    for (const Option& option : c.options)
        if (option.names.empty())
            out += (option.required ? ".Ar " : ".Op Ar ") + quoted(option.value) + "\n";
        else
            out += fmt::format(".Op Fl {}{}\n", flag(option.names.back()), option.value.empty() ? "" : " Ar " + quoted(option.value));
    out += ".Sh DESCRIPTION\n";
    for (std::size_t i = 0; i < p.about.size(); ++i)
        out += (i ? ".Pp\n" : "") + roff(p.about[i]) + "\n";
    if (!c.options.empty()) {
        out += ".Pp\nThe options are:\n";
        addOptions(out, c);
    }
    if (!c.commands.empty()) {
        out += ".Sh COMMANDS\n";
        addCommands(out, c, {});
    }
    if (!p.files.empty()) {
        out += ".Sh FILES\n.Bl -tag -width Ds\n";
        for (const auto& [path, what] : p.files)
            out += ".It Pa " + path + "\n" + roff(what) + "\n";
        out += ".El\n";
    }
    if (!p.exits.empty()) {
        out += ".Sh EXIT STATUS\n.Bl -tag -width Ds\n";
        for (const auto& [code, what] : p.exits)
            out += ".It " + code + "\n" + roff(what) + "\n";
        out += ".El\n";
    }
    if (!p.others.empty()) {
        out += ".Sh SEE ALSO\n";
        auto others = p.others;
        std::ranges::sort(others);
        for (std::size_t i = 0; i < others.size(); ++i)
            out += fmt::format(".Xr {} 1{}\n", others[i], i + 1 < others.size() ? " ," : "");
    }
    return out + ".Sh CAVEATS\nThis program advises; it approves nothing.\nMaker's data and local law come first.\n";
}

std::string bashCompletion(const Command& command)
{
    const auto function = functionOf(command.name);
    std::string out = fmt::format("# bash completion for {0}\n{1}()\n{{\n    local current=${{COMP_WORDS[COMP_CWORD]}} path=\"\" word i\n"
                                  "    COMPREPLY=()\n    for ((i = 1; i < COMP_CWORD; ++i)); do\n        word=${{COMP_WORDS[i]}}\n"
                                  "        case \"$path $word\" in\n",
        command.name, function);
    std::string paths;
    each(command, {}, [&](const Command&, const std::string& path) {
        if (!path.empty())
            paths += (paths.empty() ? "" : " | ") + ("\" " + path + "\"");
    });
    // A path is built word by word, so that "import" leads to "import parts".
    std::string body;
    each(command, {}, [&](const Command&, const std::string& path) {
        if (path.empty())
            return;
        const auto gap = path.rfind(' ');
        const auto before = gap == std::string::npos ? std::string() : path.substr(0, gap);
        const auto last = gap == std::string::npos ? path : path.substr(gap + 1);
        body += fmt::format("        \"{} {}\") path=\"{}\" ;;\n", before, last, path);
    });
    if (body.empty())
        body = "        *) ;;\n";
    out += body + "        esac\n    done\n    case \"$path ${COMP_WORDS[COMP_CWORD - 1]}\" in\n";
    each(command, {}, [&](const Command& c, const std::string& path) {
        for (const Option& option : c.options) {
            if (option.names.empty() || option.value.empty())
                continue;
            std::string names;
            for (const auto& name : option.names)
                names += (names.empty() ? "" : " | ") + fmt::format("\"{} {}\"", path, name);
            out += option.choices.empty() ? fmt::format("    {}) compopt -o default 2>/dev/null; return ;;\n", names)
                                          : fmt::format("    {}) COMPREPLY=($(compgen -W '{}' -- \"$current\")); return ;;\n", names,
                                              single(fmt::format("{}", fmt::join(option.choices, " "))));
        }
    });
    out += "    esac\n    case \"$path\" in\n";
    each(command, {}, [&](const Command& c, const std::string& path) {
        out += fmt::format("    \"{}\") COMPREPLY=($(compgen -W '{}' -- \"$current\")) ;;\n", path, single(wordsOf(c)));
    });
    return out
        + fmt::format("    esac\n    [ ${{#COMPREPLY[@]}} -gt 0 ] || compopt -o default 2>/dev/null\n}}\ncomplete -F {} {}\n", function,
            command.name);
}

std::string zshCompletion(const Command& command)
{
    // Zsh runs bash's own: one list of words for both.
    std::string out = fmt::format("#compdef {0}\nautoload -U +X bashcompinit && bashcompinit\n", command.name);
    const auto bash = bashCompletion(command);
    return out + bash.substr(bash.find('\n') + 1);
}

std::string fishCompletion(const Command& command)
{
    std::string out = fmt::format("# fish completion for {}\n", command.name);
    each(command, {}, [&](const Command& c, const std::string& path) {
        std::string condition;
        if (path.empty()) {
            condition = command.commands.empty() ? "" : " -n __fish_use_subcommand";
        } else {
            std::string seen;
            for (std::size_t at = 0; at < path.size();) {
                const auto gap = std::min(path.find(' ', at), path.size());
                seen += fmt::format("{}__fish_seen_subcommand_from {}", seen.empty() ? "" : "; and ", path.substr(at, gap - at));
                at = gap + 1;
            }
            condition = fmt::format(" -n '{}'", seen);
        }
        for (const Command& sub : c.commands)
            out += fmt::format("complete -c {}{} -a {} -d '{}'\n", command.name, condition, sub.name,
                single(sub.help.substr(0, sub.help.find_first_of(".;"))));
        for (const Option& option : c.options) {
            std::string names;
            for (const auto& name : option.names)
                names += name.starts_with("--") ? " -l " + name.substr(2) : " -s " + name.substr(1);
            if (names.empty())
                continue;
            out += fmt::format("complete -c {}{}{}{}{} -d '{}'\n", command.name, condition, names, option.value.empty() ? "" : " -r",
                option.choices.empty() ? "" : fmt::format(" -f -a '{}'", single(fmt::format("{}", fmt::join(option.choices, " ")))),
                single(option.help));
        }
    });
    return out;
}

std::string manualOf(const Program& program, std::string_view kind)
{
    return kind == "man" ? manPage(program)
        : kind == "bash" ? bashCompletion(program.command)
        : kind == "zsh"  ? zshCompletion(program.command)
        : kind == "fish" ? fishCompletion(program.command)
                         : std::string();
}

} // namespace deepstop::manual
