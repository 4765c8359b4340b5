#pragma once
/// A kit as a thing of its own: what a setup brings, without the car it was tried on. It goes from one build to another.

#include "build/edit.hpp"
#include "build/visitor.hpp"
#include "quantity/format.hpp"

#include <functional>
#include <string>
#include <vector>

namespace deepstop::library {

/// Makes what was measured on a part known of another example of it: as from a vendor's sheet, no narrower than that, instrument, day and
/// repeats left behind.
/// @param describing shows the part to a visitor
void ofAnotherExample(const std::function<void(Visitor&)>& describing);

/// What a setup brings, with nothing left that was measured on this car.
///
/// Dimensions of its parts that were measured become those of another example: known as a vendor's, no narrower than a vendor's. What
/// depends on hub and knuckle (slot's middle, shims, wheel spacer, spacing and clocking of the mount, where bolts end in the knuckle) goes
/// along as an estimate. Runout, wear, gaps, the wheel, duct and cooling, the note, what was unpacked and tried, the hydraulics, what
/// replaces the parking brake, the shield, the hard line and questions to the vendor stay behind; papers, instructions and the list of what
/// to buy go along.
[[nodiscard]] Setup kitOf(const Setup& setup);

/// An id made of a name that no setup of the build has yet.
/// @param otherwise what it is made of where the name has no letters
[[nodiscard]] std::string freeSetupId(const Build& build, const std::string& name, const std::string& otherwise);
/// A proposal that begins as `base` and gets other parts: without what came with the parts of that one.
/// @param name of it; its id is `freeSetupId` of that
[[nodiscard]] Setup besides(const Build& build, const Setup& base, const std::string& name, const std::string& otherwise);
/// The kit as a setup of `build`: cleaned again as by `kitOf`, on the wheels of the car as found, with an id that the build does not have
/// yet.
[[nodiscard]] Setup kitFor(const Build& build, const Setup& kit);
/// Adds that setup to a build. Nothing for a build without setups, or a kit that brings no axle.
[[nodiscard]] Edit kitTakenIn(Setup kit);

/// One line of what a kit holds.
struct KitLine {
    Axle axle = Axle::Front;
    std::string part; ///< "rotor", "bolt"
    int pieces = 0; ///< on both sides together; 0: not said
    std::string name; ///< of the part; empty: not said
    std::string what; ///< its main dimensions, or a bolt's thread, class and length
};
/// Parts and bolts of a kit, front axle first. A part that nobody described has no line.
[[nodiscard]] std::vector<KitLine> linesOf(const Setup& kit, UnitSystem system = UnitSystem::Metric);
/// The same as CSV: axle, part, pieces, name, what.
[[nodiscard]] std::string linesCsv(const Setup& kit);

} // namespace deepstop::library
