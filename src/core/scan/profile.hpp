#pragma once
/// Of a scanned wheel whose axis and face are known: barrel, spokes, what stands inside, flanges, bolt holes.

#include "scan/circle.hpp"
#include "scan/surface.hpp"
#include "scan/wheel_scan.hpp"

namespace deepstop::scan {

class Profiles {
public:
    /// @param samples along from the mounting face, inboard positive
    Profiles(const std::vector<Sample>& samples, WheelScan& into) : samples_(samples), into_(into) { }

    /// And what stands into it, what is not seen, how rough the scan is.
    void barrel();
    /// @pre barrel
    void spokes();
    void flanges();

private:
    const std::vector<Sample>& samples_;
    WheelScan& into_;
    double outer_ = 0;
    double rough_ = 0; ///< of a sample
};

/// How far the mounting face reaches out.
[[nodiscard]] double faceRadius(const std::vector<Sample>& samples, double rough);

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
