#pragma once
/// The reader's language. English stands in the code and is the key of the catalogue (GNU gettext, domain “deepstop”). LC_MESSAGES decides;
/// numbers never hear it, and neither do the words of files, which are tokens.

#include <fmt/format.h>

#include <string>
#include <string_view>
#include <utility>

namespace deepstop {

/// Opens the catalogue for the language that the desktop or the shell is set to. Called once, before anything is said; without it, and
/// where there is no catalogue, everything is English.
void openCatalogue();

/// A sentence kept in a table: it goes into the catalogue, and is translated by tr() where it is shown.
[[nodiscard]] constexpr const char* marked(const char* english) { return english; }

/// In the reader's language; English where the catalogue has nothing. What comes back lives as long as the program or what was given.
[[nodiscard]] const char* tr(const char* english);
[[nodiscard]] std::string_view tr(std::string_view english);

namespace language {
/// The translated pattern filled in; the English one where the translation does not take what is filled in.
[[nodiscard]] std::string filled(const char* english, fmt::format_args with);
} // namespace language

/// A sentence with something to fill in: {} as fmt has them. A translation may change their order by numbering them all.
template <class First, class... Rest>
[[nodiscard]] std::string tr(fmt::format_string<First, Rest...> english, First&& first, Rest&&... rest)
{
    const fmt::string_view pattern = english;
    return language::filled(pattern.data(), fmt::make_format_args(first, rest...));
}

} // namespace deepstop
