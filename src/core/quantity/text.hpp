#pragma once
/// Text that came from outside: what may be kept of it, and how it is quoted. Words in a list.

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop {

// Of the plain letters alone, whatever language the desktop speaks.
[[nodiscard]] constexpr bool isDigit(char c) { return c >= '0' && c <= '9'; }
[[nodiscard]] constexpr bool isLetter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); }
[[nodiscard]] constexpr bool isSpace(char c) { return c == ' ' || (c >= '\t' && c <= '\r'); }
[[nodiscard]] constexpr char toLower(char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; }
[[nodiscard]] constexpr char toUpper(char c) { return c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c; }

/// Position of the first byte that is not UTF-8 (RFC 3629: no overlong forms, no surrogates, nothing above U+10FFFF).
[[nodiscard]] std::optional<std::size_t> notUtf8(std::string_view text);

/// Position of the first control character: below U+0020 but for tabs and line ends, U+007F to U+009F. Such text is not kept in a
/// document: a terminal would obey it.
[[nodiscard]] std::optional<std::size_t> controlCharacter(std::string_view text);

/// Safe to print on one line: control characters and bytes that are no UTF-8 as "\x1b", line ends as a space.
[[nodiscard]] std::string onOneLine(std::string_view text);

/// As `onOneLine`, cut after a whole character where it is longer than `most` bytes, with "…" then.
[[nodiscard]] std::string shortened(std::string_view text, std::size_t most = 40);

/// All of them, with `between` between two.
[[nodiscard]] std::string listed(const std::vector<std::string>& words, std::string_view between = ", ");

} // namespace deepstop
