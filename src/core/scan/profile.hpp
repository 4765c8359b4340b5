#pragma once
/// Of a scanned wheel whose axis and face are known: barrel, spokes, what stands inside, flanges.

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

} // namespace deepstop::scan
