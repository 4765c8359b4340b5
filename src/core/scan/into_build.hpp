#pragma once
/// What a scan shows, as readings of a wheel.

#include "build/edit.hpp"
#include "quantity/format.hpp"
#include "scan/wheel_scan.hpp"

namespace deepstop::scan {

struct ScanFile {
    std::string path; ///< as the build names it
    std::string hash; ///< SHA-256, hexadecimal
    std::string date; ///< ISO 8601
};

/// The wheel with what the scan shows in place of what was read of it. Of the dense profile as many stations stay as straight lines between
/// them need to be never outside it; where the scan shows nothing, a station without a reading stands. What was held against nothing known
/// is *estimated*. @pre the scan lacks nothing
[[nodiscard]] Wheel wheelWith(Wheel wheel, const WheelScan& scan, const ScanFile& file);

/// The wheel with that id; where no wheel has it, a new one.
[[nodiscard]] Wheel& wheelIn(Build& build, const std::string& id);
/// Puts it into that wheel.
[[nodiscard]] Edit wheelEdit(WheelScan scan, ScanFile file, std::string wheel);

/// A wheel's inside as somebody has drawn it.
struct WheelProfile {
    struct Place {
        double along = 0; ///< m: depth inboard of the mounting face, or radius of a spoke's place
        double across = 0; ///< m: inside radius, or distance outboard of the mounting face
        bool bend = false; ///< straight lines run to its neighbours
    };
    std::vector<Place> barrel;
    std::vector<Place> spokes;
};
/// Puts it into that wheel as it is, known from its vendor.
[[nodiscard]] Edit profileEdit(WheelProfile profile, std::string wheel);

/// What whoever takes it has to know, a sentence each: scale, tilt, what is not seen.
[[nodiscard]] std::vector<std::string> remarks(const WheelScan& scan, UnitSystem system);

} // namespace deepstop::scan
