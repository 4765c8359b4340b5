#include "quantity/text.hpp"

#include <fmt/format.h>

namespace deepstop {
namespace {

/// Bytes of the character that begins at `i`; 0 where none does.
std::size_t lengthAt(std::string_view text, std::size_t i)
{
    const auto lead = static_cast<unsigned char>(text[i]);
    const std::size_t more = lead < 0x80 ? 0
        : lead >= 0xc2 && lead < 0xe0    ? 1
        : lead >= 0xe0 && lead < 0xf0    ? 2
        : lead >= 0xf0 && lead < 0xf5    ? 3
                                         : 9;
    if (more > 3 || i + more >= text.size())
        return 0;
    for (std::size_t k = 1; k <= more; ++k) {
        const auto byte = static_cast<unsigned char>(text[i + k]);
        const unsigned char low = k > 1 ? 0x80 : lead == 0xe0 ? 0xa0 : lead == 0xf0 ? 0x90 : 0x80;
        const unsigned char high = k > 1 ? 0xbf : lead == 0xed ? 0x9f : lead == 0xf4 ? 0x8f : 0xbf;
        if (byte < low || byte > high)
            return 0;
    }
    return more + 1;
}

bool isControl(std::string_view text, std::size_t i, std::size_t length)
{
    const auto lead = static_cast<unsigned char>(text[i]);
    if (length == 2)
        return lead == 0xc2 && static_cast<unsigned char>(text[i + 1]) < 0xa0;
    return length == 1 && (lead < 0x20 || lead == 0x7f);
}

} // namespace

std::optional<std::size_t> notUtf8(std::string_view text)
{
    for (std::size_t i = 0; i < text.size();) {
        const auto length = lengthAt(text, i);
        if (length == 0)
            return i;
        i += length;
    }
    return {};
}

std::optional<std::size_t> controlCharacter(std::string_view text)
{
    for (std::size_t i = 0; i < text.size();) {
        const auto length = std::max<std::size_t>(1, lengthAt(text, i));
        if (isControl(text, i, length) && text[i] != '\n' && text[i] != '\t')
            return i;
        i += length;
    }
    return {};
}

std::string onOneLine(std::string_view text)
{
    std::string out;
    out.reserve(text.size());
    for (std::size_t i = 0; i < text.size();) {
        const auto length = lengthAt(text, i);
        if (text[i] == '\n' || text[i] == '\t' || text[i] == '\r') {
            out += ' ';
            ++i;
        } else if (length == 0 || isControl(text, i, length)) {
            for (const auto end = i + std::max<std::size_t>(1, length); i < end; ++i)
                out += fmt::format("\\x{:02x}", static_cast<unsigned char>(text[i]));
        } else {
            out.append(text.substr(i, length));
            i += length;
        }
    }
    return out;
}

std::string shortened(std::string_view text, std::size_t most)
{
    if (text.size() <= most)
        return onOneLine(text);
    std::size_t end = 0;
    while (end < most) {
        const auto next = end + std::max<std::size_t>(1, lengthAt(text, end));
        if (next > most)
            break;
        end = next;
    }
    return onOneLine(text.substr(0, end)) + "…";
}

std::string listed(const std::vector<std::string>& words, std::string_view between)
{
    std::string text;
    for (std::size_t i = 0; i < words.size(); ++i)
        text.append(i > 0 ? between : std::string_view()).append(words[i]);
    return text;
}

} // namespace deepstop
