#pragma once
/// The holes a wheel is bolted on by, among all walls about its axis.

#include "scan/circle.hpp"

#include <vector>

namespace deepstop::scan {

/// Round holes among points that are on walls: alike and evenly about the middle.
class BoltHoles {
public:
    /// @param faceRadius of the mounting face, which they go through
    BoltHoles(const std::vector<std::array<double, 2>>& walls, double faceRadius);
    [[nodiscard]] int count() const { return count_; } ///< 0: none
    [[nodiscard]] const std::vector<Circle>& seen() const { return seen_; }
    [[nodiscard]] const Circle& circle() const { return circle_; } ///< through their middles, about the axis

private:
    int count_ = 0;
    std::vector<Circle> seen_;
    Circle circle_;
};

} // namespace deepstop::scan
