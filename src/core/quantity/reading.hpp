#pragma once
/// A number a person measured, was told or guessed, and how it is known.

#include "quantity/noted.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop {

/// How a reading came about. *Design*: as it is to be made; the part does not exist yet, or was not read.
enum class Known { Measured, Vendor, Estimated, Design };
/// Whether nothing rests on it for certain: it is a guess, or the drawing of a part that nobody has read.
[[nodiscard]] constexpr bool provesNothing(Known known) { return known == Known::Estimated || known == Known::Design; }

[[nodiscard]] std::string_view nameOf(Known known);

/// One reading. `value` and `plusMinus` are SI. An absent value is a reading not taken yet. Code that reads the other members reads the
/// value first, which notes it.
struct Reading {
    NotedValue value;
    std::optional<double> plusMinus; ///< half-width of the interval the true value lies in; absent = by instrument
    Known known = Known::Estimated;
    std::string instrument; ///< "vernier", "tape" …; free text
    std::string date; ///< ISO 8601, when it was taken
    std::vector<double> repeats {}; ///< the same thing read several times, SI; `value` is their mean. Empty: read once

    bool operator==(const Reading&) const = default;
};

/// Identity of a reading: the same in a build, in a copy of it and in a part copied out of it, whatever the value there. A reading without
/// a number is identified by its address.
class ReadingId {
public:
    ReadingId(const Reading& reading) // NOLINT: a reading stands for itself
        : number_(reading.value.number() ? reading.value.number() : reinterpret_cast<std::uintptr_t>(&reading))
    {
    }
    explicit constexpr ReadingId(std::uintptr_t number) : number_(number) { }
    [[nodiscard]] std::uintptr_t number() const { return number_; }
    auto operator<=>(const ReadingId&) const = default;

private:
    std::uintptr_t number_;
};

/// The mean of several readings of one thing, with all of them kept. Precondition: at least one.
[[nodiscard]] Reading repeated(Reading reading, std::vector<double> values);
/// Gives it another value: what it was read as several times is no longer what it says.
void changeTo(Reading& reading, double value);

/// Half the spread of the repeats about their mean: the largest distance of one of them from it. 0 for a reading taken once.
[[nodiscard]] double spread(const Reading& reading);

/// The default half-width of a mass read on `instrument`, kg; common practice, no source: kitchen scale 5 g, bench scale 5 g, hanging
/// scale 50 g, bathroom scale 200 g; nothing for any other.
[[nodiscard]] std::optional<double> massResolution(std::string_view instrument);

/// The default half-width of a length read with `instrument`, m; common practice, no source.
/// Tape 1 mm, steel rule 0.5, straightedge 0.5, vernier or other caliper 0.03, micrometer 0.005, dial gauge 0.01, feeler gauge 0.02; any
/// other 0.5.
[[nodiscard]] double lengthResolution(std::string_view instrument);

/// The half-width to reckon with: as stated, or by default. Never negative; 0 for an absent reading.
///
/// Defaults (common practice, no source): a measured length by `lengthResolution`; a vendor's length 0.25 mm, half of the last
/// half-millimetre people print, a designed one likewise; an estimated length 2 % but at least 1 mm; any other quantity 1 % measured, 3 % from a vendor,
/// 10 % estimated. A scale that is known by name has its own. A reading repeated is never better than its own spread.
[[nodiscard]] double uncertainty(const Reading& reading, bool isLength);

} // namespace deepstop
