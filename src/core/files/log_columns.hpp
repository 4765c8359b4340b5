#pragma once
/// Which column of a CSV log is what, and in which unit: as its names say, or as somebody has said it.

#include "quantity/unit.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::files {

enum class Logged { Nothing, Time, Speed, Height, Acceleration, Deceleration, Pressure, Temperature };
inline constexpr std::size_t loggedKinds = 8;
/// "time", "rotor temperature"; what a person chooses from.
[[nodiscard]] std::string_view nameOf(Logged logged);
[[nodiscard]] Dimension dimensionOf(Logged logged);

struct LogColumn {
    std::string name; ///< as the header has it
    Logged logged = Logged::Nothing;
    const Unit* unit = nullptr; ///< null where nothing is logged
    bool unitSaid = true; ///< not when it is only the usual one
};

/// How a CSV log is read.
struct LogColumns {
    std::size_t header = 1; ///< line of the names
    char separator = ',';
    std::vector<LogColumn> columns; ///< all of them, in their order
    /// Why it cannot be read like this ("no column is the time"); empty where it can.
    [[nodiscard]] std::string lacks() const;
    /// Time and speed are there, and nothing that is read has a unit nobody said.
    [[nodiscard]] bool sure() const;
};

/// As the names of a header line say. A name begins with what it is and ends in its unit, behind the last underline or in brackets (time_s,
/// speed_kmh, "Speed (mph)"); without one it is in s, km/h, m, g, bar, °C.
/// Throws Refusal for a column that is named after something and has a unit that is none of it.
[[nodiscard]] LogColumns columnsNamed(std::string_view header, std::size_t line = 1);

/// The beginning of a CSV log, to be shown to somebody who says what its columns are.
struct LogHead {
    LogColumns columns; ///< what is guessed; a unit that is none is left to be said
    std::vector<std::vector<std::string>> rows; ///< the first rows of numbers, a cell for each column
};
/// The names stand in the last line before the first row of numbers. Nothing for NMEA, GPX, what has no such row near its beginning, or
/// cannot be read.
[[nodiscard]] std::optional<LogHead> headOfLog(const std::string& path);

/// What somebody says in words, put over what the names say: "time=Clock:s, speed=4:mph": what it is, a column by its name or number, and
/// its unit. Throws Refusal where that is no column, thing or unit.
[[nodiscard]] LogColumns columnsSaid(LogColumns guessed, std::string_view words);

} // namespace deepstop::files
