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

/// Property classes of steel bolts by ISO 898-1, of stainless ones by ISO 3506-1, and grades of inch bolts by SAE J429.
enum class Grade { G8_8, G10_9, G12_9, A2_70, A4_80, SAE5, SAE8 };
[[nodiscard]] std::string_view nameOf(Grade grade);

/// Proof stress, Pa, from memory: ISO 898-1 8.8 580 MPa to 16 mm and 600 over, 10.9 830, 12.9 970; ISO 3506-1 has none, so its stress at
/// 0.2 % strain: A2-70 450, A4-80 600; SAE J429 grade 5 85 ksi to 1 in, grade 8 120 ksi.
[[nodiscard]] double proofStress(Grade grade, double diameter);

/// Force a bolt takes without setting, N: proof stress × stress area. @param proofStress Pa
[[nodiscard]] double proofLoad(const Thread& thread, double proofStress);
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

/// Friction of clamped faces, clean and bare; common practice, no source.
inline constexpr double jointFriction = 0.15;
/// The same painted, anodised or oily, or while nobody has said.
inline constexpr double coatedFriction = 0.10;
/// How far a preload by torque may be off, either way; common practice, no source.
inline constexpr double preloadScatter = 0.25;

/// What one of two bolts that hold a caliper has to carry in the plane of its face, N: half of the pads' force F = T/r, and the couple of F
/// acting nearer or farther from the axle than the bolts do, √((F/2)² + (F·(r − m)/s)²). Plane statics.
/// @param effectiveRadius r, of the pads, m, > 0; @param mountRadius m, of the middle between the bolts, m; @param spacing s, m, > 0
[[nodiscard]] double forceOnPairBolt(double brakeTorque, double effectiveRadius, double mountRadius, double spacing);
/// The same of one of `bolts` standing in a circle round the axle: T/(n·m).
[[nodiscard]] double forceOnCircleBolt(double brakeTorque, int bolts, double mountRadius);

/// How many times the force a bolt still holds in shear when it alone bears, its preload counted: √((S² − σ²)/3)·A over it (von Mises).
/// 0 where the preload uses all of its proof stress.
/// @param proofStress S, Pa; @param preload N
[[nodiscard]] double bearingMargin(const Thread& thread, double proofStress, double preload, double force);
[[nodiscard]] double bearingMargin(const Thread& thread, Grade grade, double preload, double force);

/// Pressure under a plain head, Pa. @param headDiameter that bears; @param hole under it, m
[[nodiscard]] double pressureUnderHead(double preload, double headDiameter, double hole);
/// What aluminium (6061-T6 and its like) stands under a head without setting, Pa; common practice, no source.
inline constexpr double aluminiumBears = 240e6;

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
