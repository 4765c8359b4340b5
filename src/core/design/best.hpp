#pragma once
/// The best places of a map, what binds them, and what a millimetre elsewhere would give.

#include "design/map.hpp"
#include "library/library.hpp"

namespace deepstop::design {

/// What is made as large, light or thin as it goes.
enum class Aim { Rotor, Weight, Bracket };

/// Held as they are while the best is sought.
struct Fixed {
    std::optional<double> rotor;
    std::optional<double> slot;
    std::optional<double> plate; ///< thickness of the bracket's plate
};

struct Best {
    std::optional<Proposal> proposal; ///< nothing where nothing clears
    std::vector<std::string> binds; ///< ids of the limits that keep it from being better, the nearest first
    std::string nearest; ///< where nothing clears: id of the limit that is nearest to clearing alone
    double shortBy = 0; ///< and by how much it fails at its best place
};
/// Where all limits are clear at worst. Diameters to whole tenths of a millimetre, slots to whole twentieths.
[[nodiscard]] Best bestOf(const Maker& maker, const Map& map, Aim aim, const Fixed& fixed = {});

/// The largest diameter up to `most` that rotors are made in: those of a library, and whole five millimetres. Common practice.
[[nodiscard]] double madeDiameter(const library::Library& library, double most);

/// What one millimetre of something else gives of rotor diameter, at the best place for it, and how far that holds.
struct Rate {
    std::string id; ///< "spacer"
    std::string title; ///< "1 mm more of spacer behind the wheel"
    double gain = 0; ///< m of diameter for a metre
    std::optional<double> within; ///< m, until another check stops it
    std::string until; ///< its id
};
[[nodiscard]] std::vector<Rate> ratesOf(const Maker& maker, const Map& map, const Best& best);

} // namespace deepstop::design
