#pragma once
/// Readings in, figures out: from the foot to the road. Each function says one engineering sum as plain physics over a Sample.

#include "build/build.hpp"
#include "hydraulics/hydraulics.hpp"
#include "quantity/figure.hpp"
#include "stopping/balance.hpp"
#include "stopping/drive.hpp"

namespace deepstop::figures {

/// Middle of the pad, mean of the sides whose pad edge was read; a drum's radius. NaN where neither was.
[[nodiscard]] double effectiveRadius(Evaluator& s, const Corner& corner);
/// Of one side of a caliper, or of a wheel cylinder.
[[nodiscard]] double pistonArea(Evaluator& s, const Corner& corner);
/// Friction force over the pressing force: 2·μ, or what the drum's shoes make of it.
[[nodiscard]] double brakeFactor(Evaluator& s, const Corner& corner);
/// Friction at which a drum's leading shoe holds itself over the lining's own, less one.
[[nodiscard]] double selfLockingMargin(Evaluator& s, const Drum& drum);
/// From the pedal to the front line. Where a booster runs out that nobody has measured is taken from common practice, and said so; so is a
/// tandem master cylinder where nobody said what there is. A pressure read on the line scales all of it; where nothing else is known the
/// pressure goes straight with the foot.
/// @param withTravel reads what only its travel hangs on: free play and stroke
[[nodiscard]] hydraulics::PedalTrain footOf(Evaluator& s, const Build& build, const Hydraulics& hydraulics, bool withTravel = false);
/// Front pressure at the pedal force this driver brakes with.
[[nodiscard]] double pressure(Evaluator& s, const Build& build, const Hydraulics& hydraulics);
/// Fluid that both wheels of an axle take.
[[nodiscard]] hydraulics::FluidDemand takeUp(Evaluator& s, const Build& build, const SetupParts& setup, Axle axle);
/// Fluid that goes behind the pistons of both wheels while pads (and rotors) wear from new to their minimum; none for drums, whose
/// adjusters take the wear up.
[[nodiscard]] double fluidForWear(Evaluator& s, const Corner& corner);
[[nodiscard]] double wheelTorque(Evaluator& s, const Build& build, const Corner& corner, const Hydraulics& hydraulics);
/// The most that one wheel's brake ever has to hold: what full pressure makes, or what the tyre can turn it with at its grip under the load
/// it then carries, whichever is less. Over that the wheel locks. The rear without load transfer, on the safe side.
[[nodiscard]] double largestBrakeTorque(Evaluator& s, const Build& build, const SetupParts& setup, Axle axle);
/// @param load what it carries; null: its driver alone
[[nodiscard]] stopping::Car carOf(Evaluator& s, const Car& car, const LoadCase* load = nullptr);
/// Of a part of a sum that hangs on the brakes of a whole car and its load.
[[nodiscard]] PartKey partKey(const char* name, const Build& build, const SetupParts& setup, const LoadCase* load);
/// NaN throughout where an axle has no brakes or no wheel. Where nobody said whether there is a valve, none is taken and said so.
[[nodiscard]] stopping::Brakes brakesOf(Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load = nullptr);
[[nodiscard]] stopping::Braking braking(Evaluator& s, const Build& build, const SetupParts& setup);
/// Which stop; whatever is not said is the build's own.
struct StopOf {
    double speed = 0; ///< 0: the build's test speed
    const LoadCase* load = nullptr; ///< null: the driver alone
    double frontFriction = 1; ///< over the quoted, as hot as the pads are
    double rearFriction = 1;
    double grip = 1; ///< of the road over the dry
    double pedal = 0; ///< foot's force, N; 0: the one the build's driver brakes with
};
/// How the driver brakes on the level, and with what: NaN where a reading is missing.
[[nodiscard]] stopping::Circumstances circumstances(Evaluator& s, const Build& build, const SetupParts& setup, const StopOf& of = {});
[[nodiscard]] stopping::StopSimulation drive(Evaluator& s, const Build& build, const SetupParts& setup, const StopOf& of, bool withCourse);
/// The cold one from the test speed.
[[nodiscard]] stopping::StopSimulation stop(Evaluator& s, const Build& build, const SetupParts& setup, bool withCourse);
/// Rise of one ring or drum of `axle` in one stop from the test speed.
[[nodiscard]] double stopRise(Evaluator& s, const Build& build, const SetupParts& setup, Axle axle);

/// What no sum of the brakes can be made without, and is no reading: a wheel, piston bores, the kind of a drum or of a booster's gain.
[[nodiscard]] std::vector<std::string> unsaidOf(const SetupParts& setup);

} // namespace deepstop::figures
