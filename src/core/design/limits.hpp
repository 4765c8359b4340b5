#pragma once
/// What a designed kit has to keep clear of: the gaps of the Clearance chapter as functions of a corner, and what a lathe and a mill can
/// make. No rule stands here that the chapter has too: the sums and the levels are its own.

#include "design/kit.hpp"

#include <functional>

namespace deepstop::design {

/// How a gap goes with the rotor's diameter, or with the slot going outboard, everything else as it is.
enum class Along { Falls, Rises, Either };

/// One thing that a kit must keep clear of.
struct Limit {
    std::string id; ///< as a verdict's: "front/barrel-gap"
    std::string title; ///< "Gap to the barrel"
    double wanted = 0;
    Along along = Along::Either; ///< with the diameter
    Along across = Along::Either; ///< with the slot
    bool moves = true; ///< changes with rotor or slot; else it is the same all over the map
    std::function<Figure(const Proposal&, const Corner&)> gap;

    [[nodiscard]] Level level(const Proposal& proposal, const Corner& corner) const { return gapLevel(gap(proposal, corner), wanted); }
};

/// Checks of making, beside those of the chapters.
namespace checks {
inline constexpr Check plateThickness { .name = "bracket-thickness", .title = marked("Thickness of the bracket's plate") };
inline constexpr Check plateWalls { .name = "bracket-walls", .title = marked("Metal between the bracket's holes") };
inline constexpr Check plateEdges { .name = "bracket-edges", .title = marked("Metal beside the bracket's stud holes") };
inline constexpr Check plateSeat { .name = "bracket-seat", .title = marked("Bracket's edge under the radial mount") };
inline constexpr Check hatRoom { .name = "hat-room", .title = marked("Hat, ring bolts and pads beside each other") };
inline constexpr Check hatDepth { .name = "hat-depth", .title = marked("Hat's neck inboard of its wheel face") };
} // namespace checks

/// All limits of a basis; those to a wheel once for each wheel. `maker` has to outlive them.
[[nodiscard]] std::vector<Limit> limitsOf(const Maker& maker);

/// Verdicts on studs, pilot, fender, nuts …: the same wherever rotor and slot stand. Once for each wheel, the kit made as drawn.
[[nodiscard]] std::vector<Verdict> fixedVerdicts(const Maker& maker, const Proposal& proposal);

} // namespace deepstop::design
