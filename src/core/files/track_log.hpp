#pragma once
/// What a receiver or logger writes, taken as it comes: NMEA 0183, GPX with times, CSV with named columns. Memory does not grow with the
/// log.

#include "files/log_columns.hpp"

#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <string_view>

namespace deepstop::files {

/// One moment of a log. What was not logged is NaN.
struct Fix {
    double time = 0; ///< s, from the first of them; of a day's clock in NMEA, midnights counted
    double speed = 0; ///< m/s
    double height; ///< m over the sea
    double acceleration; ///< m/s² along the car
    double pressure; ///< of the brake's line, Pa
    double temperature; ///< of a rotor, K
};

/// How a log came through.
struct LogCount {
    std::uint64_t lines = 0; ///< sentences, points or rows
    std::uint64_t fixes = 0;
    std::uint64_t badChecksums = 0; ///< NMEA; left out
    std::uint64_t unread = 0; ///< NMEA that could not be read; left out
    std::uint64_t withoutFix = 0; ///< moments at which the receiver knew no place: left out, a gap
    std::uint64_t outOfTime = 0; ///< moments that do not follow the one before: left out
    std::uint64_t clockJumps = 0; ///< times the clock was set back for good: a gap, and it goes on from there
    std::string day; ///< ISO date of the first moment; empty where the log does not say it
};

class LogParser; ///< one kind of log

/// Takes bytes in any pieces and hands out the moments in them.
///
/// NMEA 0183: RMC, or GGA and VTG where there is none; sentences with a wrong checksum or that cannot be read are counted and left out.
/// GPX 1.1: track points with times; the speed from `speed` where it stands there, else from the places before and after. CSV: columns as
/// `columnsNamed` has them, or as they were said; any separator, a decimal comma where that is no separator.
///
/// Throws Refusal, with the line, for what is none of these, CSV whose times run backwards or numbers cannot be read, speeds over 720 km/h,
/// a line of more than 64 kB. Of NMEA and GPX a moment that does not follow the one before is left out; where the next ones follow it, the
/// clock was set: there is a gap, and the log goes on.
class TrackReader {
public:
    enum class Kind { Guessed, Nmea };
    /// @param kind guessed from its first letter, or known: a line on which a receiver sends begins anywhere
    /// @param columns of a CSV log; nothing: as its first line says
    explicit TrackReader(std::function<void(const Fix&)> sink, Kind kind = Kind::Guessed, std::optional<LogColumns> columns = {});
    ~TrackReader();
    TrackReader(const TrackReader&) = delete;
    TrackReader& operator=(const TrackReader&) = delete;
    void take(std::string_view bytes);
    /// The last line, and whether there was anything: throws Refusal for an empty log, or NMEA in which nothing could be used.
    void finish();
    [[nodiscard]] const LogCount& count() const;

private:
    std::function<void(const Fix&)> sink_;
    LogCount count_;
    std::size_t blankLines_ = 0; ///< before it is known what it is
    std::optional<LogColumns> columns_;
    std::unique_ptr<LogParser> way_;
};

/// The two digits after an NMEA sentence's star: all bytes between dollar and star, exclusive or.
[[nodiscard]] std::uint8_t nmeaChecksum(std::string_view between);

/// Reads a file through a reader in pieces. @param progress called with the part that is read, 0 to 1; false from it gives up and returns
/// false. Throws Refusal with the path before it.
bool readTrack(const std::string& path, TrackReader& reader, const std::function<bool(double)>& progress = {});

} // namespace deepstop::files
