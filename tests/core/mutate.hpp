#pragma once
/// Damage to text, of the kinds that wires, editors and crashes do.

#include <cstdlib>
#include <random>
#include <string>
#include <string_view>

/// One to four changes: a bit, a byte, a word that means something, a piece cut out, doubled or moved.
inline std::string mutated(std::string text, std::mt19937& rng)
{
    const auto upTo = [&](std::size_t most) { return std::uniform_int_distribution<std::size_t>(0, most)(rng); };
    static constexpr std::string_view words[] { "0", "-1", "1e400", "1e-310", "1e307", "NaN", "null", "true", "{", "}", "[", "]", "\"", ":",
        ",", "\\u0000", "\\ud800", "\xff", "\xc3", "\xf4\x90\x80\x80", "\n", "\r\n", "\x1b[2J", "mm", "in", " kg", "°C", "±", "?", ";",
        "1/0", "1/3", "9999999999", "x", "×", "*", "0x1p3", "\t", "'", "=", "\xe2\x80\xae" };
    for (auto changes = 1 + upTo(3); changes > 0; --changes) {
        const auto at = upTo(text.size());
        switch (upTo(6)) {
        case 0:
            if (at < text.size())
                text[at] = static_cast<char>(text[at] ^ (1 << upTo(7)));
            break;
        case 1:
            if (at < text.size())
                text[at] = static_cast<char>(upTo(255));
            break;
        case 2:
            text.insert(at, words[upTo(std::size(words) - 1)]);
            break;
        case 3:
            text.erase(at, 1 + upTo(12));
            break;
        case 4:
            text.insert(at, text.substr(upTo(text.size()), 1 + upTo(20)));
            break;
        case 5:
            if (const auto digit = text.find_first_of("0123456789", at); digit != std::string::npos)
                text.replace(digit, 1, words[upTo(std::size(words) - 1)]);
            break;
        case 6:
            text = text.substr(0, at) + text.substr(std::min(text.size(), at + upTo(3)));
            break;
        }
    }
    return text;
}

/// How many cases a fuzz target tries: 50,000 in ./check, as DEEPSTOP_FUZZ says in a long run.
inline long fuzzCases()
{
    const char* said = std::getenv("DEEPSTOP_FUZZ");
    return said ? std::strtol(said, nullptr, 10) : 50'000;
}
