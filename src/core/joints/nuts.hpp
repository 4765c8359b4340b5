#pragma once
/// Nuts: which bolt a nut of a class carries, and how tall an ordinary one is. SI throughout.

#include "joints/bolts.hpp"

#include <optional>

namespace deepstop::joints {

/// Property classes of steel nuts by ISO 898-2.
enum class NutGrade { N5, N6, N8, N10, N12 };

/// Stress under proof load of an ordinary nut with coarse thread (style 1), Pa; ISO 898-2:1992, table 4, from memory. The nut of a fine
/// thread stands more. @param diameter nominal, m; NaN gives NaN
[[nodiscard]] double nutProofStress(NutGrade grade, double diameter);
/// Load a nut stands without its thread giving way, N: that stress × the stress area of the thread (ISO 898-2).
[[nodiscard]] double nutProofLoad(const Thread& thread, NutGrade grade);

/// Whether the nut of a class carries a bolt up to the bolt's own breaking load: its class is at least the first number of the bolt's
/// (ISO 898-2, table 1); A2-70 and SAE grade 5 want class 8, A4-80 and SAE grade 8 class 10 (by tensile strength).
[[nodiscard]] bool carries(NutGrade nut, Grade bolt);
/// The class of nut that a bolt wants.
[[nodiscard]] NutGrade nutWantedFor(Grade bolt);
[[nodiscard]] std::string_view nameOf(NutGrade grade);

/// Least height of an ordinary hexagon nut, style 1, m (ISO 4032, table 1, column m min, from memory). M5 to M20; nothing for other sizes.
[[nodiscard]] std::optional<double> leastNutHeight(double diameter);

/// Above this nylon lets go of the thread, K: 120 °C, common practice, no source.
inline constexpr double nylonMost = 393.15;

} // namespace deepstop::joints
