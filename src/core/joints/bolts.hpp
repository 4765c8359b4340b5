#pragma once
/// Bolted joints: how much thread holds, how tight, and whether the joint slips. SI throughout; NaN in, NaN out.

#include "joints/thread.hpp"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace deepstop::joints {

/// Stress area of a thread, m²: π/4·(d − 0.9382·P)² for ISO metric threads (ISO 898-1), π/4·(d − 0.9743·P)² for inch threads (ASME B1.1).
/// From memory; valid for 60° threads.
[[nodiscard]] double stressArea(const Thread& thread);

/// Property classes of steel bolts by ISO 898-1.
enum class Grade { G8_8, G10_9, G12_9 };
[[nodiscard]] std::string_view nameOf(Grade grade);

/// Proof stress, Pa (ISO 898-1, from memory): 8.8 580 MPa to 16 mm and 600 over; 10.9 830; 12.9 970.
[[nodiscard]] double proofStress(Grade grade, double diameter);

/// Force a bolt takes without setting, N: proof stress × stress area.
[[nodiscard]] double proofLoad(const Thread& thread, Grade grade);

/// What is between the threads when they are turned.
enum class Lubrication { Dry, Oiled, Threadlocker, AntiSeize };
[[nodiscard]] std::string_view nameOf(Lubrication lubrication);

/// Nut factor K of T = K·F·d: dry 0.20, oiled 0.15, fresh threadlocker 0.16, anti-seize 0.125. Common practice, no source; a given bolt may
/// be off by a quarter either way.
[[nodiscard]] double nutFactor(Lubrication lubrication);

/// T = K·F·d. @param preload N @param diameter nominal, m @return N·m
[[nodiscard]] double torqueFor(double preload, double diameter, Lubrication lubrication);
/// F = T / (K·d). @param torque N·m @return N
[[nodiscard]] double preloadFrom(double torque, double diameter, Lubrication lubrication);

/// Share of the proof load that is aimed at for bolts that come apart again; common practice, no source.
inline constexpr double preloadAim = 0.75;
/// Over this share of the proof load a bolt is overloaded; common practice, no source.
inline constexpr double preloadMost = 0.90;

enum class Metal { Steel, Iron, Aluminium };
/// Length of thread that holds as much as the bolt itself, in bolt diameters: 1.0 in steel, 1.5 in iron, 2.0 in aluminium. Common practice.
[[nodiscard]] double engagementWanted(Metal metal);

/// A bolt through a grip into a thread. Lengths in metres from under the head.
struct BoltStack {
    double length; ///< of the bolt under its head
    double grip; ///< ear, bracket, washers
    double shims; ///< whatever shims lie in the grip
    double threadDepth; ///< of the tapped hole or the nut
    double roomBehind; ///< beyond the thread until the bolt strikes something; 0 for a blind hole
    double pitch;
};
struct BoltFit {
    double engaged; ///< thread that holds, m; the bolt's last pitch of lead does not count, nor does more than the hole has
    double turns;
    double past; ///< how far the bolt stands out of the thread's far end, m; negative: it ends within
    double roomLeft; ///< roomBehind less that; negative: it strikes, or bottoms in a blind hole before it is tight
};
[[nodiscard]] BoltFit fitOf(const BoltStack& stack);

/// Shortest and longest bolt that does: engaged as wanted, and clear behind. Nothing where the two cross.
struct BoltLengths {
    double least;
    double most;
};
[[nodiscard]] std::optional<BoltLengths> lengthsThatDo(const BoltStack& stack, double engagementWanted);

/// Friction of clamped faces, clean and dry; common practice, no source.
inline constexpr double jointFriction = 0.15;

/// Bolts × preload × friction over the force that the brake's torque puts on them, torque / mount radius. Over 1 the joint holds by
/// friction alone. Infinite for no torque.
[[nodiscard]] double slipMargin(int bolts, double preload, double brakeTorque, double mountRadius, double friction = jointFriction);

/// Shear stress margin if it does slip: bolts × stress area × 0.6 × proof stress over that force (0.6: von Mises, 1/√3 rounded up as is
/// common).
[[nodiscard]] double shearMargin(int bolts, const Thread& thread, Grade grade, double brakeTorque, double mountRadius);

/// The order to tighten `bolts` standing in a circle, crosswise: each next one as far from the last ones as can be. Numbers from 0.
/// For two to four that is straight across; for an odd number it steps by the half nearest.
[[nodiscard]] std::vector<int> tighteningOrder(int bolts);

/// Shares of the full torque for the rounds of tightening; common practice: three rounds for four bolts and more, else two.
[[nodiscard]] std::span<const double> tighteningRounds(int bolts);

} // namespace deepstop::joints
