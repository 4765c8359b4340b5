#pragma once
/// A designed kit put into the build as a proposal, and put on paper for whoever makes it.

#include "design/best.hpp"
#include "report/leaf.hpp"

namespace deepstop::design {

/// Of the plate, by the metal that the bracket's material names; NaN where it names none, or nothing can be drawn.
[[nodiscard]] double bracketMass(const Maker& maker, const Proposal& proposal);

/// Puts the kit into the build as a setup of its own, beside the one it was designed from. All its dimensions are known as *design*: what
/// rests on them is unproven until the parts are read. Bolts through the bracket get the lengths that its thickness wants.
/// @param name of the setup; its id is `library::freeSetupId` of it, else "design"
[[nodiscard]] Edit putIn(const Maker& maker, const Proposal& proposal, const std::string& name);

/// A part to be made, with its drawing.
struct ShopPart {
    std::string key; ///< "hat", "ring", "bracket", "spacer"
    std::string name; ///< in the reader's language
    std::optional<Turned> turned; ///< else a plate
    std::optional<bracket::Plate> plate;
    paper::Drawing drawing;
};
/// Hat, ring, bracket, and a spacer where one is chosen. Without bracket where its readings lack.
[[nodiscard]] std::vector<ShopPart> partsToMake(const Maker& maker, const Proposal& proposal, const std::string& date);

/// Studs out of the hub's flange that fill their nuts with this hat and spacer, m; nothing while a reading of them lacks.
[[nodiscard]] std::optional<double> studLength(const Maker& maker, const Proposal& proposal);

/// What to order and from whom, what to ask each, what binds the design and what is still an estimate; the drawings behind it.
[[nodiscard]] report::Leaf orderSheet(
    const Maker& maker, const Map& map, const Proposal& proposal, const std::vector<std::string>& binds, const std::string& date);

/// Readings that the limits at `proposal` rest on and that were not measured, as sentences name them.
[[nodiscard]] std::vector<std::string> stillEstimated(const Maker& maker, const Map& map, const Proposal& proposal);

} // namespace deepstop::design
