#include "files/data_folder.hpp"

#include <optional>

namespace deepstop::files {
namespace {

/// `share` beside the folder of the program, where it is installed.
std::optional<std::filesystem::path> share()
{
    std::error_code none;
    const auto program = std::filesystem::read_symlink("/proc/self/exe", none);
    const auto folder = program.parent_path().parent_path() / "share";
    if (none || !std::filesystem::is_directory(folder / "deepstop", none))
        return {};
    return folder;
}

} // namespace

std::filesystem::path dataFolder()
{
    const auto installed = share();
    return installed ? *installed / "deepstop" : std::filesystem::path(DEEPSTOP_DATA);
}

std::filesystem::path catalogueFolder()
{
    const auto installed = share();
    return installed ? *installed / "locale" : std::filesystem::path(DEEPSTOP_CATALOGUES);
}

} // namespace deepstop::files
