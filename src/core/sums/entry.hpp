#pragma once
/// Inside sums/: a request as read, and a sum with its function. Each subject has a file of its own.

#include "language/language.hpp"
#include "sums/sums.hpp"

#include <fmt/format.h>

#include <map>

namespace deepstop::sums {

/// The inputs of one request, read and checked.
class Inputs {
public:
    std::map<std::string, double, std::less<>> numbers;
    std::map<std::string, std::string, std::less<>> texts;

    double operator[](std::string_view key) const { return numbers.find(key)->second; }
    [[nodiscard]] bool has(std::string_view key) const { return numbers.contains(key); }
    [[nodiscard]] const std::string& text(std::string_view key) const { return texts.find(key)->second; }
};

[[nodiscard]] inline double positive(const Inputs& in, std::string_view key)
{
    if (!(in[key] > 0))
        throw BadRequest(tr("{}: must be more than 0.", key));
    return in[key];
}

[[nodiscard]] inline double notNegative(const Inputs& in, std::string_view key)
{
    if (!(in[key] >= 0))
        throw BadRequest(tr("{}: cannot be less than 0.", key));
    return in[key];
}

[[nodiscard]] inline double orElse(const Inputs& in, std::string_view key, double otherwise)
{
    return in.has(key) ? notNegative(in, key) : otherwise;
}

struct Entry {
    Sum sum;
    void (*run)(const Inputs&, Answer&);
};

inline constexpr Style plainLength { Dimension::Length, "mm", 3, "in", 4 };

/// Rim, spacer, stud, backspacing.
[[nodiscard]] std::vector<Entry> wheelSums();
/// Bolt, engagement, slip, tilt.
[[nodiscard]] std::vector<Entry> jointSums();
/// Pressure, torque, travel, split, lock order.
[[nodiscard]] std::vector<Entry> hydraulicSums();
/// Comparing stops, speed correction, mean fully developed deceleration.
[[nodiscard]] std::vector<Entry> provingSums();
/// Flash of one stop, repeated stops, cooling time.
[[nodiscard]] std::vector<Entry> heatSums();

} // namespace deepstop::sums
