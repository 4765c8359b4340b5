#pragma once
/// Points and chains of straight lines in the (z, r) half-plane of a wheel corner: z along the axle, outboard positive, from the hub's
/// flange face; r the distance from the axis. All in metres.

#include <optional>
#include <span>
#include <vector>

namespace deepstop::geometry {

struct Point {
    double z = 0;
    double r = 0;
    bool operator==(const Point&) const = default;
};

[[nodiscard]] constexpr Point operator+(Point a, Point b) { return { a.z + b.z, a.r + b.r }; }
[[nodiscard]] constexpr Point operator-(Point a, Point b) { return { a.z - b.z, a.r - b.r }; }
[[nodiscard]] constexpr Point operator*(Point a, double factor) { return { a.z * factor, a.r * factor }; }

/// Two points that face each other, and how far apart they are.
struct Nearest {
    double distance = 0;
    Point from; ///< on the first figure
    Point to; ///< on the second
};

using Chain = std::vector<Point>; ///< points joined in order by straight lines

/// The exact shortest distance between segment a0–a1 and segment b0–b1; 0 where they cross.
[[nodiscard]] Nearest distance(Point a0, Point a1, Point b0, Point b1);

/// The exact shortest distance between two open chains of at least two points each; nothing for shorter ones or non-finite points.
[[nodiscard]] std::optional<Nearest> distance(std::span<const Point> a, std::span<const Point> b);

/// The chain closed by a line from its last to its first point.
[[nodiscard]] Chain closed(Chain chain);

/// r of the chain at `z`, the smallest where it doubles back; nothing outside its range. For a barrel: the room at that depth.
[[nodiscard]] std::optional<double> lowestAt(std::span<const Point> chain, double z);
/// r of the chain at `z`, the largest. For a caliper's outline: how high it reaches there.
[[nodiscard]] std::optional<double> highestAt(std::span<const Point> chain, double z);

/// `chain` with z and r exchanged, so that the two functions above also answer along r.
[[nodiscard]] Chain transposed(std::span<const Point> chain);

/// The chain moved by (dz, dr).
[[nodiscard]] Chain moved(Chain chain, double dz, double dr = 0);

} // namespace deepstop::geometry
