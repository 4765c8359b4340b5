#include "files/data_folder.hpp"

namespace deepstop::files {

std::filesystem::path dataFolder()
{
    std::error_code none;
    const auto program = std::filesystem::read_symlink("/proc/self/exe", none);
    const auto installed = program.parent_path().parent_path() / "share/deepstop";
    return !none && std::filesystem::is_directory(installed, none) ? installed : std::filesystem::path(DEEPSTOP_DATA);
}

} // namespace deepstop::files
