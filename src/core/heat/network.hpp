#pragma once
/// A brake as a network of heat: ring in layers, hat, hub, linings, backings, caliper, fluid; both axles of a car run through a duty
/// together, so that what fades on one axle is made up by the other. SI, temperatures in K; nothing throws.
///
/// Not modelled: glaze and green fade, coning, hot spots, water, dust, and warm air from one part over another, but for the air round the
/// caliper.

#include "heat/duty.hpp"
#include "materials/materials.hpp"

#include <array>
#include <functional>
#include <limits>
#include <optional>
#include <vector>

namespace deepstop::heat {

/// What rubs and gets as hot as nothing else; the one specific heat of `materials` is the mean of these over a cold stop.
/// Specific heat c·(1 + cRise·(T − 293.15)), conductivity k·(1 + kRise·(T − 293.15)).
struct RingMetal {
    double density; ///< kg/m³
    double specificHeat; ///< J/(kg K) at 20 °C
    double cRise; ///< 1/K, not negative
    double conductivity; ///< W/(m K) at 20 °C
    double kRise; ///< 1/K
    bool operator==(const RingMetal&) const = default;
};
/// Grey iron: 460 J/(kg K) rising to about 660 at 600 °C, 50 W/(m K) falling to about 38; from memory, as in EN 1561 and brake handbooks.
inline constexpr RingMetal ironRing { materials::greyIron.density, 460, 7.5e-4, materials::greyIron.conductivity, -4e-4 };
/// Steel: 470 rising to about 700, 48 falling to about 34; from memory.
inline constexpr RingMetal steelRing { materials::steel.density, 470, 8.4e-4, 48, -5e-4 };
/// Carbon-ceramic: 800 rising to about 1400, 30; from memory, kinds differ widely.
inline constexpr RingMetal ceramicRing { materials::carbonCeramic.density, materials::carbonCeramic.specificHeat, 1.3e-3,
    materials::carbonCeramic.conductivity, -3e-4 };

/// One wheel's brake. Masses in kg, areas in m², stores in J/K, conductances in W/K.
struct Brake {
    RingMetal metal = ironRing;
    double ringMass = 0;
    double heatedArea = 0; ///< both faces where the pads run, or the drum inside
    double depth = 0; ///< through which heat goes: of one plate, half a solid ring, a drum's wall
    double openFaces = 0; ///< of the faces, left open by the pads
    double vaneArea = 0; ///< walls of the channels; of a drum its outside; 0 for a solid ring
    double channel = 0; ///< hydraulic diameter of one channel; 0 where there is none
    double channelLength = 0;
    double diameter = 0; ///< of the rotor
    double tyreRadius = 0;
    double hatStore = 0;
    double hatArea = 0;
    double ringToHat = 0;
    double hatToHub = 0;
    double hubStore = 0;
    double hubToAir = 0; ///< whatever the speed
    double hubArea = 0; ///< of hub and knuckle, in the wind
    double hubToWheel = 0; ///< through the faces the wheel is clamped with; from there to the air
    double wheelArea = 0;
    double liningStore = 0; ///< of both pads
    double liningConductance = 0; ///< from its face to its middle: k·A/(t/2)
    double liningShare = 0; ///< of the friction heat that enters the linings at once, by effusivity and area
    double backingStore = 0;
    double backingToCaliper = 0;
    double backingToFluid = 0; ///< through the pistons
    double caliperStore = 0;
    double caliperArea = 0;
    double facesRing = 0; ///< of the caliper and the backs of its pads, towards which the ring radiates
    double caliperToFluid = 0;
    double fluidStore = 0;
    double cooling = 1; ///< over the correlations, as a thermometer has set it
    double duct = 1; ///< 1: none; 1.5 to 2.5 with one (common practice)
    double airDensity = 1; ///< over that at the sea
    double coefficient = -1; ///< W/(m² K) over faces and channels in the place of all correlations and radiation; negative: those
    bool operator==(const Brake&) const = default;
};
/// Part of the heat that goes into linings with e = √(kρc) and area against the ring's: 1/(1 + e_r A_r/(e_l A_l)).
[[nodiscard]] double liningShareOf(double ringEffusivity, double heatedArea, double liningEffusivity, double liningArea);

enum class Node { Ring, Surface, Hat, Lining, Backing, Caliper, Fluid, Hub };
inline constexpr std::size_t nodeCount = 8;
using Temperatures = std::array<double, nodeCount>; ///< K, in the order of `Node`

/// Both axles of one setup.
struct Car {
    Road road;
    Brake front;
    Brake rear;
    double ambient = 293.15;
    /// Part of the braking force that the front axle makes for a total force on the road, N, with the friction of either axle at its
    /// temperature over that at which it is quoted.
    std::function<double(double force, double frontFriction, double rearFriction)> frontShare;
    /// Friction over the quoted one, of a ring's surface temperature.
    std::function<double(double surface)> frontFriction;
    std::function<double(double surface)> rearFriction;
    /// The most that foot and brakes make together at the road, N, with such frictions; empty: as much as is asked for.
    std::function<double(double frontFriction, double rearFriction)> mostForce;
    /// Deceleration over g that the tyres make together.
    double grip = std::numeric_limits<double>::infinity();
};

struct Moment {
    double time; ///< s
    double distance; ///< m
    double speed; ///< m/s
    int stop; ///< of the duty, from 1
    double power; ///< of all brakes, W
    double frontShare; ///< of it
    double force; ///< of all brakes at the road, N
    double asked; ///< force that the duty asks for, N; more than `force` where the brakes no longer make it
    double frontFriction; ///< over the quoted one
    double rearFriction;
    Temperatures front;
    Temperatures rear;
};

struct Energy {
    double in; ///< friction heat of one wheel's brake over the duty, J
    double stored; ///< in its parts at the duty's end, more than at the beginning
    double lost; ///< to air and surroundings
};

struct Run {
    std::vector<Moment> course; ///< the beginning, then each moment recorded, to the end of the duty
    std::vector<Moment> standing; ///< afterwards, at rest without wind
    Temperatures frontPeak {}; ///< over both
    Temperatures rearPeak {};
    Energy front {};
    Energy rear {};
    bool complete = false; ///< not when the numbers gave out
    bool footFellShort = false; ///< at some step the greatest effort made less than was asked
};

/// A run at a time, between two of its moments. @pre its course is not empty
[[nodiscard]] Moment momentAt(const Run& run, double time);

struct Accuracy {
    double tolerance = 1e-3; ///< K, of one step
    double cell = 2e-3; ///< m, about as thick as one layer of the ring; 2 to 8 layers
    double every = 0.5; ///< s at least between two moments recorded; stops begin and end with one whatever it is
    double standing = 25 * 60; ///< s at rest after the duty: what hangs on the ring is hottest then
};

/// Runs `duty` from everything at ambient. Integrated by an adaptive Dormand–Prince 5 (Boost.Odeint); heat is kept as enthalpy, so that
/// what goes in is what is stored and lost to rounding.
/// @return incomplete for a car or a duty that makes no sense (no mass, no area, time that does not run, over twelve hours) or whose
///         numbers are so far apart that no end is to be seen. Throws Cancelled, nothing else.
[[nodiscard]] Run run(const Car& car, const Duty& duty, const Accuracy& accuracy = {});

} // namespace deepstop::heat
