#pragma once
/// Inside study/: readings in, figures out. Each function says one engineering sum as plain physics over a Sample.

#include "fit/stance.hpp"
#include "joints/studs.hpp"
#include "materials/materials.hpp"
#include "study/study.hpp"

namespace deepstop::figures {

/// The build's numbers as the fit discipline wants them; NaN where nobody has read.
[[nodiscard]] fit::CornerShape shapeOf(Sample& s, const Corner& corner, const Hub& hub);
/// The wheel in the hub's frame. Without barrel stations the barrel is estimated from the printed size and says so.
[[nodiscard]] fit::WheelShape wheelOf(Sample& s, const Wheel& wheel, double face);

/// Room between the caliper and one surface of the wheel; rests on the readings of the caliper's outline and that surface, no others.
[[nodiscard]] double wheelGap(Sample& s, WheelGap which, const Corner& corner, const Wheel& wheel, const Wants& wants);
/// All three rooms at nominal readings, on a corner and a wheel in the hub's frame.
[[nodiscard]] std::optional<fit::Room> roomOf(
    WheelGap which, const fit::CornerShape& corner, const fit::WheelShape& wheel, const Wants& wants);
/// What is wanted of a gap to this wheel: the setting, and the rim's give in a hard corner. A setting nobody has made counts by its
/// default.
[[nodiscard]] double wantedOf(WheelGap which, const Wheel& wheel, const Wants& wants);
/// z of the rotor's inboard friction face.
[[nodiscard]] double inboardFace(Sample& s, const Corner& corner);
/// From the hub's flange face to the wheel's mounting face.
[[nodiscard]] double wheelFace(Sample& s, const Corner& corner);
/// Middle of the wheel from the hub's flange face: where the tyre stands.
[[nodiscard]] double wheelMiddle(Sample& s, const Corner& corner, const Wheel& wheel);
/// Flange edges of the wheel. The width as measured, else by the printed one.
[[nodiscard]] fit::Stance stanceOf(Sample& s, const Corner& corner, const Wheel& wheel);
/// A stud's thread in its nut. NaN where hub or wheel lack a length, or nobody has said which thread it is.
[[nodiscard]] joints::StudStack studStack(Sample& s, const Corner& corner, const Wheel& wheel, const Hub& hub);
[[nodiscard]] inline joints::Engagement studEngagement(Sample& s, const Corner& corner, const Wheel& wheel, const Hub& hub)
{
    return joints::engagement(studStack(s, corner, wheel, hub));
}
/// Caliper's outboard half over the hat.
[[nodiscard]] double hatGap(Sample& s, const Corner& corner);
/// From a keep-out to the wheel and the hot rotor.
[[nodiscard]] double keepOutGap(
    Sample& s, const KeepOut& place, const Corner& corner, const Wheel* wheel, const Hub& hub, const Wants& wants);
/// What a setting says, or its default where somebody has emptied it.
[[nodiscard]] double setting(const Reading& reading, Reading Wants::*which);

/// Mean of one reading over the mock-ups of a corner that have it; of the last where none has.
[[nodiscard]] double meanOf(Sample& s, const std::vector<const MockUp*>& all, Reading MockUp::*which);
/// The four gaps, each so.
[[nodiscard]] centring::Gaps gapsOf(Sample& s, const std::vector<const MockUp*>& all);

/// Slot's middle less rotor's middle, both from the hub's face.
[[nodiscard]] double axialOffset(Sample& s, const Corner& corner);

[[nodiscard]] double ringMass(Sample& s, const Rotor& rotor);
/// What the friction ring is made of.
[[nodiscard]] const materials::Solid& ringSolid(const Rotor& rotor);
/// Heat that one ring takes for one kelvin, J/K.
[[nodiscard]] double heatStore(Sample& s, const Rotor& rotor);
[[nodiscard]] double hatMass(Sample& s, const Rotor& rotor);
[[nodiscard]] double rotorMass(Sample& s, const Rotor& rotor);
[[nodiscard]] double rotatingInertia(Sample& s, const Rotor& rotor);
/// The rotor as weighed, alone or as ring and hat; what was not weighed of it is computed.
[[nodiscard]] double rotorMassWeighed(Sample& s, const Corner& corner);
/// In how many weighings a part lay on the scale.
[[nodiscard]] int timesWeighed(const Corner& corner, Part part);
/// Lining of one pad: as measured, else height times length.
[[nodiscard]] double padArea(Sample& s, const Pad& pad);
/// The weighed corner, the rotor computed where no weighing holds it. `lacks` names the parts nobody has weighed.
[[nodiscard]] double cornerMass(Sample& s, const Corner& corner, std::vector<std::string>& lacks);

[[nodiscard]] double effectiveRadius(Sample& s, const Corner& corner);
[[nodiscard]] double pistonArea(Sample& s, const Corner& corner);
[[nodiscard]] double pressure(Sample& s, const Hydraulics& hydraulics);
[[nodiscard]] double wheelTorque(Sample& s, const Corner& corner, const Hydraulics& hydraulics);
/// The most that one wheel's brake ever has to hold: what full pressure makes, or what the tyre can turn it with at its grip under the load
/// it then carries, whichever is less. Over that the wheel locks. The rear without load transfer, on the safe side.
[[nodiscard]] double largestBrakeTorque(Sample& s, const Build& build, const Corner& corner, Axle axle);
[[nodiscard]] stopping::Car carOf(Sample& s, const Car& car);
[[nodiscard]] stopping::Braking braking(Sample& s, const Build& build, const Corner& front, const Corner& rear);
[[nodiscard]] stopping::Stop stop(Sample& s, const Build& build, const Corner& front, const Corner& rear, bool withCourse);
/// Rise of one ring of `axle` in one stop from the test speed.
[[nodiscard]] double stopRise(Sample& s, const Build& build, const Corner& front, const Corner& rear, Axle axle);

} // namespace deepstop::figures
