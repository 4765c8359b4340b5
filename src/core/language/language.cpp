#include "language/language.hpp"

#include "files/data_folder.hpp"
#include "language/code.hpp"

#include <libintl.h>

#include <clocale>
#include <unordered_map>

namespace deepstop {
namespace {

constexpr const char* domain = "deepstop";
bool isOpen = false;

struct HashOfText {
    using is_transparent = void;
    std::size_t operator()(std::string_view text) const { return std::hash<std::string_view> {}(text); }
};

/// What the catalogue has for a sentence; null where it has nothing. Asked of it once a thread and language: it locks, and searches anew.
const char* found(std::string_view english)
{
    static thread_local std::string language;
    static thread_local std::unordered_map<std::string, const char*, HashOfText, std::equal_to<>> known;
    const char* const now = std::setlocale(LC_MESSAGES, nullptr);
    if (now && language != now) {
        known.clear();
        language = now;
    }
    auto entry = known.find(english);
    if (entry == known.end()) {
        entry = known.emplace(english, nullptr).first;
        const char* const key = entry->first.c_str();
        const char* const translated = dgettext(domain, key);
        entry->second = translated == key ? nullptr : translated;
    }
    return entry->second;
}

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
    const char* const translated = isOpen && *english ? found(english) : nullptr;
    return translated ? translated : english;
}

std::string_view tr(std::string_view english)
{
    const char* const translated = isOpen && !english.empty() ? found(english) : nullptr;
    return translated ? std::string_view(translated) : english;
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
