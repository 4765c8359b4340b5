#pragma once
/// Readings in, figures out: what more than one chapter needs. Each function says one engineering sum as plain physics over a Sample.

#include "build/build.hpp"
#include "fit/fit.hpp"
#include "joints/studs.hpp"
#include "materials/materials.hpp"
#include "quantity/figure.hpp"
#include "stopping/stopping.hpp"

namespace deepstop::figures {

/// z of the rotor's inboard friction face.
[[nodiscard]] double inboardFace(Sample& s, const Corner& corner);
/// From the hub's flange face to the wheel's mounting face.
[[nodiscard]] double wheelFace(Sample& s, const Corner& corner);
/// A stud's thread in its nut. NaN where hub or wheel lack a length, or nobody has said which thread it is.
[[nodiscard]] joints::StudStack studStack(Sample& s, const Corner& corner, const Wheel& wheel, const Hub& hub);
[[nodiscard]] inline joints::Engagement studEngagement(Sample& s, const Corner& corner, const Wheel& wheel, const Hub& hub)
{
    return joints::engagement(studStack(s, corner, wheel, hub));
}
/// What a setting says, or its default where somebody has emptied it.
[[nodiscard]] double setting(const Reading& reading, Reading Wants::*which);

/// Slot's middle less rotor's middle, both from the hub's face, on one side of the car.
[[nodiscard]] double axialOffset(Sample& s, const Corner& corner, Side side);

/// A figure of an axle that is read on either side: that of the worse, lacking whatever either side lacks.
struct Sided {
    Figure figure;
    std::optional<Side> side; ///< whose it is, where the two differ
};
/// The side that leaves less at worst. One that certainly leaves less than nothing speaks whatever is not known of the other.
[[nodiscard]] Sided lesserOf(Figure left, Figure right);
/// @param sum of one side, the less the worse
[[nodiscard]] Sided lesserSide(const std::function<double(Sample&, Side)>& sum);

[[nodiscard]] double ringMass(Sample& s, const Rotor& rotor);
/// What the friction ring is made of.
[[nodiscard]] const materials::Solid& ringSolid(const Rotor& rotor);
/// Linear expansion of the ring over a rise, 1/K.
[[nodiscard]] double ringExpansion(Sample& s, const Rotor& rotor, double rise);
/// Heat that one ring takes for one kelvin, J/K. Of iron, as an assumption, while nobody has said what it is made of.
[[nodiscard]] double heatStore(Sample& s, const Rotor& rotor);
/// The same of whatever the corner has, ring or drum.
[[nodiscard]] double heatStore(Sample& s, const Corner& corner);
/// A drum of iron from its dimensions.
[[nodiscard]] double drumMass(Sample& s, const Drum& drum);
[[nodiscard]] double hatMass(Sample& s, const Rotor& rotor);
[[nodiscard]] double rotorMass(Sample& s, const Rotor& rotor);
[[nodiscard]] double rotatingInertia(Sample& s, const Corner& corner);
/// The rotor as weighed, alone or as ring and hat; what was not weighed of it is computed.
[[nodiscard]] double rotorMassWeighed(Sample& s, const Corner& corner);
/// In how many weighings a part lay on the scale.
[[nodiscard]] int timesWeighed(const Corner& corner, Part part);
/// Lining of one pad: as measured, else height times length.
[[nodiscard]] double padArea(Sample& s, const Pad& pad);
/// Whether a complete corner of that kind, discs or drums, has such a part.
[[nodiscard]] bool belongsTo(const Corner& corner, Part part);
/// The weighed corner, the rotor computed where no weighing holds it. `lacks` names the parts nobody has weighed.
[[nodiscard]] double cornerMass(Sample& s, const Corner& corner, std::vector<std::string>& lacks);

/// Middle of the pad, mean of the sides whose pad edge was read; a drum's radius. NaN where neither was.
[[nodiscard]] double effectiveRadius(Sample& s, const Corner& corner);
/// Of one side of a caliper, or of a wheel cylinder.
[[nodiscard]] double pistonArea(Sample& s, const Corner& corner);
/// Friction force over the pressing force: 2·μ, or what the drum's shoes make of it.
[[nodiscard]] double brakeFactor(Sample& s, const Corner& corner);
[[nodiscard]] double pressure(Sample& s, const Hydraulics& hydraulics);
[[nodiscard]] double wheelTorque(Sample& s, const Corner& corner, const Hydraulics& hydraulics);
/// The most that one wheel's brake ever has to hold: what full pressure makes, or what the tyre can turn it with at its grip under the load
/// it then carries, whichever is less. Over that the wheel locks. The rear without load transfer, on the safe side.
[[nodiscard]] double largestBrakeTorque(Sample& s, const Build& build, const SetupParts& setup, Axle axle);
[[nodiscard]] stopping::Car carOf(Sample& s, const Car& car);
/// NaN throughout where an axle has no brakes or no wheel.
[[nodiscard]] stopping::Brakes brakesOf(Sample& s, const SetupParts& setup);
[[nodiscard]] stopping::Braking braking(Sample& s, const Build& build, const SetupParts& setup);
[[nodiscard]] stopping::Stop stop(Sample& s, const Build& build, const SetupParts& setup, bool withCourse);
/// Rise of one ring or drum of `axle` in one stop from the test speed.
[[nodiscard]] double stopRise(Sample& s, const Build& build, const SetupParts& setup, Axle axle);

} // namespace deepstop::figures
