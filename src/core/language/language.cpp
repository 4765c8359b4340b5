#include "language/language.hpp"

#include "files/data_folder.hpp"
#include "language/code.hpp"

#include <libintl.h>

#include <clocale>

namespace deepstop {
namespace {

constexpr const char* domain = "deepstop";
bool isOpen = false;

} // namespace

void openCatalogue()
{
    const char* const language = std::setlocale(LC_MESSAGES, "");
    if (!language || std::string_view(language) == "C" || std::string_view(language) == "POSIX")
        return;
    bindtextdomain(domain, files::catalogueFolder().c_str());
    bind_textdomain_codeset(domain, "UTF-8");
    isOpen = true;
}

const char* tr(const char* english)
{
    // The empty string is the catalogue's own heading.
    return isOpen && *english ? dgettext(domain, english) : english;
}

std::string_view tr(std::string_view english)
{
    if (!isOpen || english.empty())
        return english;
    const std::string key(english);
    const char* const found = dgettext(domain, key.c_str());
    return found == key.c_str() ? english : std::string_view(found);
}

std::string languageCode()
{
    // The catalogue's heading is what it has for the empty sentence.
    const std::string_view heading = isOpen ? dgettext(domain, "") : "";
    constexpr std::string_view field = "Language: ";
    const auto at = heading.find(field);
    if (at == std::string_view::npos)
        return "en";
    const auto code = heading.substr(at + field.size());
    return std::string(code.substr(0, code.find('\n')));
}

std::string language::filled(const char* english, fmt::format_args with)
{
    const char* const pattern = tr(english);
    try {
        return fmt::vformat(pattern, with);
    } catch (const fmt::format_error&) {
        return fmt::vformat(english, with);
    }
}

} // namespace deepstop
