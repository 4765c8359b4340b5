#pragma once
/// A scanned wheel: its axis, mounting face, holes and inside, as readings with the width that the scan allows them.
///
/// Depths are inboard of the mounting face, distances outboard of it, as a ruler laid on that face reads them.

#include "scan/axis.hpp"

#include <functional>
#include <string>

namespace deepstop::scan {

/// A length and how far it may be off, m.
struct Sized {
    double value = 0;
    double plusMinus = 0;
};

struct ScannedBarrel {
    double depth = 0;
    double insideRadius = 0; ///< the smallest all round, without what stands into the barrel
    double plusMinus = 0;
    double seen = 0; ///< part of the turn that the scan shows there
};
struct ScannedSpoke {
    double radius = 0;
    double distance = 0; ///< of the nearest, all round
    double plusMinus = 0;
};
/// What stands into the barrel on a part of the turn.
struct ScannedInset {
    double from = 0; ///< depth
    double to = 0;
    double height = 0;
    double plusMinus = 0;
    double arc = 0; ///< along the barrel
};
struct Range {
    double from = 0;
    double to = 0;
};

/// What is known of the wheel beforehand, and is held against the scan.
enum class KnownLength { Bore, BoltCircle, OverallWidth };
struct KnownSize {
    KnownLength what = KnownLength::Bore;
    Sized length;
};
/// One that was read with a vernier.
[[nodiscard]] KnownSize byVernier(KnownLength what, double length);
struct Scale {
    KnownLength what = KnownLength::Bore;
    double known = 0;
    double scanned = 0;
    double off = 0; ///< of the scan: over what is known, less one
    double plusMinus = 0; ///< of that
    bool corrected = false; ///< all lengths are as if the scan had shown what is known
    /// Whether the scan shows what is known, as sure as both are.
    [[nodiscard]] bool agrees() const { return corrected || std::abs(off) <= plusMinus; }
};

struct WheelQuestion {
    double unit = 1e-3; ///< metres of one in the mesh
    std::optional<KnownSize> known;
    bool correctScale = false; ///< to what is known
    bool otherSide = false; ///< the mounting face looks the other way than it seems to
    std::array<std::optional<Point>, 3> picked; ///< places on the mounting face, in the mesh's unit: it goes through them
};

struct WheelScan {
    std::string lacks; ///< one sentence: why nothing was found; empty otherwise

    Axis axis; ///< m in the mesh's own place; looks inboard
    Frame frame;
    double face = 0; ///< along the axis
    double tilt = 0; ///< of the mounting face to the axis, rad
    double noise = 0; ///< of a corner of the mesh, one standard deviation
    std::optional<Sized> bore; ///< diameter
    std::optional<Sized> boltCircle; ///< diameter
    int holes = 0;
    std::vector<Point> holeCentres; ///< x and y round the axis, then radius; of those that were seen
    std::optional<Sized> offset; ///< ET
    std::optional<Sized> overallWidth; ///< over the flanges
    int spokeCount = 0; ///< 0: not told
    std::vector<ScannedBarrel> barrel; ///< from the mounting face inboard
    std::vector<ScannedSpoke> spokes; ///< from the middle outward
    std::vector<ScannedInset> insets;
    std::vector<Range> barrelUnseen; ///< depths at which the scan shows less than half of the turn
    std::vector<Range> spokesUnseen; ///< radii at which it does not show every spoke
    bool allRoundSeen = false; ///< the barrel, wherever there is a station
    std::optional<Scale> scale;
    bool knownNotFound = false; ///< what is known was not found in the scan

    /// Whether nothing stands against taking it for the wheel's own size.
    [[nodiscard]] bool trusted() const { return scale && scale->agrees(); }
};

/// Finds a wheel in a mesh. Cancelled by the flag bound to this thread.
/// @param progress part done, 0 to 1, now and then
[[nodiscard]] WheelScan scanWheel(const Mesh& mesh, const WheelQuestion& question, const std::function<void(double)>& progress = {});

} // namespace deepstop::scan
