#pragma once
/// Parts read from a maker's STEP file: round walls and flat faces exactly as the solid has them, and what they are of a rotor.

#include "build/corner.hpp"
#include "files/refusal.hpp"

#include <array>
#include <filesystem>
#include <string>
#include <vector>

namespace deepstop::solids {

/// A cylinder's wall. Lengths in m.
struct RoundWall {
    std::array<double, 3> through;
    std::array<double, 3> along; ///< unit length
    double radius = 0;
    double from = 0; ///< along the axis, from `through`
    double to = 0;
    double turn = 0; ///< rad that it goes round
    bool hole = false; ///< metal lies outside it
};
/// A flat face.
struct FlatFace {
    std::array<double, 3> at; ///< its middle
    std::array<double, 3> normal; ///< away from the metal
    double area = 0;
    std::vector<std::array<double, 3>> edge; ///< places on its edges
};
struct ReadSolid {
    std::vector<RoundWall> walls;
    std::vector<FlatFace> faces;
    double volume = 0;
    std::string hash; ///< SHA-256 of the file
};

/// Walls and faces of all solids in the file. Throws Refusal that names it where there is none.
[[nodiscard]] ReadSolid readStep(const std::filesystem::path& path);
[[nodiscard]] ReadSolid readStepText(const std::string& bytes, const std::string& name);

/// Holes alike, parallel to an axis and evenly about it.
struct HoleRing {
    int count = 0;
    double diameter = 0;
    double circle = 0; ///< diameter
};

/// A brake disc, a ring or a hat as its solid has it: what is turned about the axis with the most wall.
struct ReadRotor {
    Rotor rotor; ///< readings of a *vendor*; what the solid does not have is missing
    std::vector<HoleRing> holes; ///< all of them, the widest circle first
    double volume = 0;
    std::vector<std::string> remarks;
};
/// Throws Refusal for a solid with no axis.
[[nodiscard]] ReadRotor rotorIn(const ReadSolid& solid, const std::string& name);
/// The rotor with what the solid has in place of what was there, but for what was measured.
[[nodiscard]] Rotor rotorWith(Rotor rotor, const ReadRotor& read);

/// Two holes that a caliper is bolted on by.
struct MountingHoles {
    std::array<double, 3> first; ///< middle, at the end farther from the body
    std::array<double, 3> second;
    std::array<double, 3> along;
    double diameter = 0;
};
/// Of all round holes from 8 to 16 mm the two that are alike, parallel and farthest from each other. Throws Refusal where there are none.
[[nodiscard]] MountingHoles mountingHolesIn(const ReadSolid& solid, const std::string& name);

} // namespace deepstop::solids
