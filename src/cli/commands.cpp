#include "cli/commands.hpp"

#include "language/language.hpp"

#include <array>
#include <ctime>

namespace deepstop::cli {

void Subject::addTo(CLI::App& command)
{
    command.add_option("FILE", path, tr("build file, *.deepstop"))->required();
    command.add_option("--setup", setup, tr("id of the setup to judge (default: the second)"));
    command.add_option("--against", against, tr("id of the setup to compare it with (default: the first, the car as found)"));
    command.add_flag("--us", us, tr("in US units"));
}

void Subject::addAxleTo(CLI::App& command)
{
    command.add_option("--axle", axle, tr("front or rear"))->check(CLI::IsMember({ "front", "rear" }));
}

Study Subject::studied() const
{
    const auto file = files::loadBuild(path);
    for (const auto& id : { setup, against })
        if (!id.empty())
            (void)setupOf(file, path, id);
    return deepstop::study(file.build, { against, setup }, us ? UnitSystem::Us : UnitSystem::Metric);
}

const Setup& setupOf(const files::BuildFile& file, const std::string& path, const std::string& id)
{
    if (const Setup* setup = findSetup(file.build, id))
        return *setup;
    std::string known;
    for (const Setup& s : file.build.setups)
        known += (known.empty() ? "" : ", ") + s.id;
    throw files::Refusal(tr("{}: there is no setup “{}”; it has {}.", path, shortened(id), known));
}

void writeEdited(const std::string& path, const Edit& edit, const std::string& into)
{
    auto file = files::loadBuild(path);
    const auto changed = applied(edit, file.build);
    if (!changed)
        throw files::Refusal(tr("{}: the kit could not be put in.", path));
    file.build = *changed;
    files::saveBuild(into, file);
}

std::string today()
{
    const std::time_t now = std::time(nullptr);
    std::tm local {};
    std::array<char, 16> text {};
    std::strftime(text.data(), text.size(), "%Y-%m-%d", localtime_r(&now, &local));
    return text.data();
}

} // namespace deepstop::cli
