#include "instruments/indication.hpp"

#include "quantity/text.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

namespace deepstop::instruments {

std::uint16_t checksum(std::string_view bytes)
{
    unsigned sum = 0xffff;
    for (const char c : bytes) {
        sum ^= static_cast<unsigned>(static_cast<unsigned char>(c)) << 8;
        for (int bit = 0; bit < 8; ++bit)
            sum = (sum << 1) ^ ((sum & 0x8000) ? 0x1021 : 0);
    }
    return static_cast<std::uint16_t>(sum);
}

std::optional<Indication> parseLine(std::string_view line)
{
    if (line.size() < 6 || line.size() > LineReader::longestLine || line.front() != ':' || line[line.size() - 5] != '*')
        return {};
    const auto body = line.substr(1, line.size() - 6);
    if (fmt::format("{:04X}", checksum(body)) != line.substr(line.size() - 4))
        return {};
    std::vector<std::string_view> words;
    for (auto rest = body; !rest.empty();) {
        const auto cut = std::min(rest.find(' '), rest.size());
        words.push_back(rest.substr(0, cut));
        rest.remove_prefix(std::min(cut + 1, rest.size()));
    }
    // The name stands beside the reading for good: nothing gets in that a file could not hold.
    if (words.size() != 4 || words[0].empty() || notUtf8(words[0]) || controlCharacter(words[0])
        || (words[3] != "stable" && words[3] != "moving"))
        return {};
    double value = 0;
    const auto number = words[1].substr(words[1].starts_with('+') ? 1 : 0);
    const auto read = std::from_chars(number.data(), number.data() + number.size(), value, std::chars_format::fixed);
    if (read.ec != std::errc {} || read.ptr != number.data() + number.size() || !std::isfinite(value))
        return {};
    for (const Dimension dimension : { Dimension::Length, Dimension::Mass, Dimension::Temperature })
        if (const Unit* unit = findUnit(words[2], dimension); unit && unit->dimension == dimension) {
            const auto point = number.find('.');
            const int decimals = point == std::string_view::npos ? 0 : static_cast<int>(number.size() - point - 1);
            return Indication { std::string(words[0]), toSi(value, *unit), dimension, std::pow(10.0, -decimals) * unit->factor,
                words[3] == "stable" };
        }
    return {};
}

std::string formatLine(std::string_view instrument, double value, int decimals, std::string_view unit, bool stable)
{
    const auto body = fmt::format("{} {:.{}f} {} {}", instrument, value, decimals, unit, stable ? "stable" : "moving");
    return fmt::format(":{}*{:04X}\n", body, checksum(body));
}

std::vector<Indication> LineReader::take(std::string_view bytes, std::size_t most)
{
    std::vector<Indication> found;
    while (!bytes.empty()) {
        const auto end = bytes.find('\n');
        const auto piece = bytes.substr(0, end);
        bytes.remove_prefix(end == std::string_view::npos ? bytes.size() : end + 1);
        if (!skipping_)
            half_ += piece.substr(0, longestLine + 2 - std::min(half_.size(), longestLine + 2));
        if (half_.size() > longestLine + 1)
            skipping_ = true;
        if (end == std::string_view::npos)
            break;
        std::string_view line = half_;
        if (line.ends_with('\r'))
            line.remove_suffix(1);
        if (const auto indication = skipping_ ? std::nullopt : parseLine(line)) {
            if (found.size() == most)
                found.erase(found.begin());
            found.push_back(*indication);
        } else if (skipping_ || !line.empty()) {
            ++refused_;
        }
        half_.clear();
        skipping_ = false;
    }
    return found;
}

} // namespace deepstop::instruments
