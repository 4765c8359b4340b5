#pragma once
/// A caliper's solid or scan, in the place its two mounting holes give it, as the readings that Clearance is drawn from.

#include "build/corner.hpp"
#include "scan/picked.hpp"

#include <string>
#include <vector>

namespace deepstop::scan {

/// Where it sits. Points in m, in the mesh's own place.
struct CaliperQuestion {
    double unit = 1e-3; ///< metres of one in the mesh
    Point firstHole {}; ///< middle of a mounting hole where it bears on its lug
    Point secondHole {};
    Point along {}; ///< of the holes, parallel to the axle
    double rotorRadius = 0; ///< of the rotor that it is meant for
    double drop = 0; ///< line of the holes inward of that rotor's edge
    bool solid = false; ///< the maker's solid, exact; otherwise a scan whose scale is not checked
};

/// The two mounting holes of a scan, each by three places on its edge.
struct PickedMount {
    std::string lacks; ///< one sentence: why they are not found; empty otherwise
    std::array<PickedHole, 2> holes;
};
[[nodiscard]] PickedMount pickedMount(const Mesh& mesh, double unit, const std::array<Picks, 2>& picks);

struct CaliperScan {
    std::string lacks; ///< one sentence: why nothing was found; empty otherwise
    Caliper caliper; ///< the readings that were found: of a solid *vendor*, of a scan *estimated*; the others are missing
    std::vector<std::string> remarks;
};

/// Heights over the edge of the rotor and depths from the slot's middle. What stands proud of the back stays: each a bump as large as the
/// box about it, so never smaller than it is. Cancelled by the flag bound to this thread.
[[nodiscard]] CaliperScan scanCaliper(const Mesh& mesh, const CaliperQuestion& question);

/// The caliper with what was found in place of what was there, but for what was measured.
[[nodiscard]] Caliper caliperWith(Caliper caliper, const CaliperScan& scan);

} // namespace deepstop::scan
