#pragma once
/// A knuckle's scan with its hub on it: where the lugs stand, and the places that must not be reached, as somebody picked them.

#include "build/car.hpp"
#include "build/edit.hpp"
#include "scan/into_build.hpp"
#include "scan/picked.hpp"

#include <string>
#include <vector>

namespace deepstop::scan {

struct PickedKeepOut {
    KeepOutKind kind = KeepOutKind::Other;
    Point at {}; ///< m, in the mesh's own frame
};

struct KnuckleQuestion {
    double unit = 1e-3; ///< metres of one in the mesh
    Picks flange {}; ///< on the hub's flange face, where the rotor sits
    Picks pilot {}; ///< round the hub's pilot
    std::array<Picks, 2> lugs {}; ///< round either lug's hole, on the face that the bracket or caliper lies on
    std::vector<PickedKeepOut> keepOuts;
    std::optional<Sized> pilotKnown; ///< diameter as it was measured
};

struct KnuckleScan {
    std::string lacks; ///< one sentence: why nothing was found; empty otherwise
    Sized pilotDiameter;
    Sized lugSpacing;
    Sized lugRadius;
    Sized lugDepth;
    Sized lugHole; ///< diameter
    std::vector<KeepOut> keepOuts;
    std::optional<Scale> scale; ///< what the pilot says of it
    std::vector<std::string> remarks;
    struct Round {
        PickedRound round;
        Point along {}; ///< unit length, square to it
    };
    std::vector<Round> rounds; ///< pilot and holes, where they were found
    /// Its scale was held against something known, and agrees.
    [[nodiscard]] bool trusted() const { return scale && scale->agrees(); }
};

[[nodiscard]] KnuckleScan scanKnuckle(const Mesh& mesh, const KnuckleQuestion& question);

/// The hub with what the scan shows, but for what was measured by hand. What it was held against nothing known is *estimated*.
/// @pre the scan lacks nothing
[[nodiscard]] Hub hubWith(Hub hub, const KnuckleScan& scan, const ScanFile& file);
/// Puts it onto that axle of the car.
[[nodiscard]] Edit knuckleEdit(KnuckleScan scan, ScanFile file, Axle axle);

} // namespace deepstop::scan
