#include "files/exports.hpp"

#include "files/disk.hpp"
#include "language/language.hpp"

#include <algorithm>
#include <fstream>

namespace deepstop::files {
namespace {

/// A build or a parts library, by how its text begins.
bool isKept(const std::filesystem::path& path)
{
    std::error_code none;
    if (!std::filesystem::is_regular_file(path, none))
        return false;
    std::ifstream in(path, std::ios::binary);
    std::string text(4096, '\0');
    in.read(text.data(), static_cast<std::streamsize>(text.size()));
    text.resize(static_cast<std::size_t>(in.gcount()));
    const auto start = text.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
    return start != std::string::npos && text[start] == '{'
        && (text.find("\"deepstop\"") != std::string::npos || text.find("\"deepstop_library\"") != std::string::npos
            || path.extension() == ".deepstop");
}

} // namespace

bool isSameFile(const std::filesystem::path& one, const std::filesystem::path& other)
{
    std::error_code none;
    if (std::filesystem::equivalent(one, other, none) && !none)
        return true;
    const auto a = std::filesystem::weakly_canonical(std::filesystem::absolute(one), none);
    const auto b = std::filesystem::weakly_canonical(std::filesystem::absolute(other), none);
    return a == b;
}

void checkOutputs(const std::vector<std::string>& read, const std::vector<std::string>& written)
{
    for (std::size_t i = 0; i < written.size(); ++i) {
        if (written[i].empty())
            continue;
        for (const auto& each : read)
            if (!each.empty() && isSameFile(each, written[i]))
                throw Refusal(tr("{}: is what is read here; nothing is written over it. Give another name.", written[i]));
        for (std::size_t k = 0; k < i; ++k)
            if (!written[k].empty() && isSameFile(written[k], written[i]))
                throw Refusal(tr("{}: two things cannot be written to one file. Give another name.", written[i]));
    }
}

void exportFile(const std::filesystem::path& path, std::string_view bytes)
{
    if (isKept(path))
        throw Refusal(tr("{}: holds a build or a parts library; nothing is written over it. Give another name.", path.string()));
    replaceFile(path, bytes);
}

} // namespace deepstop::files
