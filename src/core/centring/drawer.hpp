#pragma once
/// A drawer of shims as one line of text: "0.75x4, 1 mm x 2, 0.030 in x 6".

#include "centring/centring.hpp"
#include "quantity/format.hpp"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::centring {

/// As many as a build may hold.
inline constexpr std::size_t mostSizes = 60;

struct DrawerText {
    std::vector<ShimKind> drawer;
    std::string refusal; ///< names the entry that was not understood; empty on success
};

/// Reads THICKNESSxCOUNT entries parted by commas; thickness in any unit of length, plain numbers in `plainUnit`; count a whole number
/// from 0 to 1000. A decimal comma cannot be used here: the comma parts the entries. The empty text is an empty drawer only if
/// `mayBeEmpty`.
[[nodiscard]] DrawerText readDrawer(std::string_view text, const Unit& plainUnit, bool mayBeEmpty = false);

/// The same drawer as text that reads back as it, for example "0.25 × 4, 0.5 × 4, 30 thou × 6": a shim keeps the unit it is sold in, whole
/// hundredths of a millimetre or whole thou; figures in `unit` stand without it.
[[nodiscard]] std::string drawerText(std::span<const ShimKind> drawer, const Unit& unit);

/// A shim, or a pile of them, in the unit it is sold in, whatever else is shown in: "1 mm", "30 thou", "0.5 + 0.25 mm", "1 mm + 30 thou".
[[nodiscard]] std::string shimText(double thickness, UnitSystem system);
[[nodiscard]] std::string pileText(std::span<const double> shims, UnitSystem system);

} // namespace deepstop::centring
