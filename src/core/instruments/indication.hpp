#pragma once
/// What measuring instruments send: one line a reading, told apart from noise on the wire. The protocol is described in
/// docs/instruments.md.

#include "quantity/unit.hpp"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::instruments {

/// One reading as an instrument shows it.
struct Indication {
    std::string instrument; ///< "vernier"
    double value = 0; ///< SI
    Dimension dimension = Dimension::Length;
    double resolution = 0; ///< SI, the last figure it sent
    bool stable = false; ///< the instrument itself says it has come to rest
    bool operator==(const Indication&) const = default;
};

/// One line without its end: `:vernier 27.98 mm stable*CRC`. Refused (nothing) unless it begins with a colon, has exactly these four words,
/// a unit of length, mass or temperature, "stable" or "moving", and after the star the checksum of all bytes between colon and star as four
/// hexadecimal digits. Half a line, or two halves run together, therefore do not count as a reading.
[[nodiscard]] std::optional<Indication> parseLine(std::string_view line);

/// CRC-16 with polynomial 1021 hexadecimal, begun at FFFF (CRC-16/CCITT-FALSE): finds every error burst up to 16 bits.
[[nodiscard]] std::uint16_t checksum(std::string_view bytes);

/// The line for an indication, with its end; `value` is in `unit`.
[[nodiscard]] std::string formatLine(std::string_view instrument, double value, int decimals, std::string_view unit, bool stable);

/// Bytes in, readings out; keeps the half line for the next bytes, and never more than `longestLine` of it.
class LineReader {
public:
    static constexpr std::size_t longestLine = 120;

    /// The readings completed by these bytes, in order, at most the last `most` of them.
    [[nodiscard]] std::vector<Indication> take(std::string_view bytes, std::size_t most = 64);
    /// Lines that were no readings, so far.
    [[nodiscard]] std::uint64_t refused() const { return refused_; }

private:
    std::string half_;
    bool skipping_ = false; ///< inside a line too long to be one
    std::uint64_t refused_ = 0;
};

} // namespace deepstop::instruments
