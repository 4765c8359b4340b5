#pragma once
/// The car's life in its log: what was on it when, how its linings and rotors wear and when they reach their minimum, what is due.

#include "build/build.hpp"
#include "quantity/date.hpp"

#include <optional>
#include <string>
#include <vector>

namespace deepstop::logbook {

/// The entries by date, those without one last; places in the build's list.
[[nodiscard]] std::vector<std::size_t> inOrder(const Build& build);
/// The setup on the car on a date: that of the last entry by then that put parts on, else the car as found. Null in a build without setups.
[[nodiscard]] const Setup* onCar(const Build& build, const std::string& date);

/// A day as far as it is known: the month where it is far off.
[[nodiscard]] std::string aboutDateOf(int day, int from);

/// Readings of one wearing part since it was put on, and where they lead.
struct Wear {
    Axle axle = Axle::Front;
    Side side = Side::Left;
    bool ring = false; ///< the rotor's thickness; else the lining's
    struct Point {
        double distance; ///< odometer, m
        int day;
        double left; ///< m
        double width; ///< by which that may be off, m
    };
    std::vector<Point> points;
    std::optional<double> minimum; ///< m; nothing where not read
    double slope = 0; ///< m of thickness over m of road, negative as it wears; NaN for fewer than two readings
    double slopeWidth = 0; ///< within which it lies in 95 of 100, scatter and widths of the readings in it; NaN for fewer than two
    std::optional<double> endsAt; ///< odometer at which it reaches the minimum, m
    std::optional<double> endsEarliest; ///< the same with line and slope at their worst; there even where the middle does not wear
    std::optional<int> endsOn; ///< day, at the mean distance a day since the first reading
    std::optional<int> endsOnEarliest; ///< the same of the earliest end: what is reminded of
    std::string lacks; ///< why there is no end, in words
};
/// Every part that was read at least once with the setup that is on the car now, front left first. Least squares over the odometer; the
/// interval by Student's t and the widths of the readings. Parts new on the car begin anew.
[[nodiscard]] std::vector<Wear> wearOf(const Build& build);

/// Something to be done by a day, or an odometer.
struct Reminder {
    std::string id;
    std::string what;
    std::string because;
    int day;
    bool done = false; ///< the log has it since
};
/// After the parts went on: first drive, once more after 80 to 160 km (two checks of torque), yearly; fluid two years old, one where it
/// sees a track; linings that come to their end. By day. Common practice.
[[nodiscard]] std::vector<Reminder> remindersOf(const Build& build);

/// Money of the log over its hours on the track; nothing without hours or prices.
[[nodiscard]] std::optional<double> costPerTrackHour(const Build& build);

/// iCalendar (RFC 5545) of what is due, CRLF, folded; a day each.
/// @param stamp UTC, "20260314T092653Z"
[[nodiscard]] std::string calendarOf(const Build& build, const std::string& stamp);

} // namespace deepstop::logbook
