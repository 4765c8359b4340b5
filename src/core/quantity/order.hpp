#pragma once
/// How numbers are put in order where one of them may not be a number.

#include <compare>
#include <utility>

namespace deepstop {

/// Less, for sorting. The plain < says nothing of a NaN, and a sort by it may run over its end; here a NaN (of a missing reading) stands
/// behind everything. Numbers come as with <.
struct Ascending {
    bool operator()(double a, double b) const { return std::weak_order(a, b) < 0; }
    /// By the first, alike ones by the second.
    bool operator()(const std::pair<double, double>& a, const std::pair<double, double>& b) const
    {
        const auto first = std::weak_order(a.first, b.first);
        return first < 0 || (first == 0 && std::weak_order(a.second, b.second) < 0);
    }
};
inline constexpr Ascending ascending;

} // namespace deepstop
