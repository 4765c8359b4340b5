#pragma once
/// Inside study/: readings in, figures out. Each function says one engineering sum as plain physics over a Sample.

#include "materials/materials.hpp"
#include "study/study.hpp"

namespace deepstop::figures {

/// The build's numbers as the fit discipline wants them; NaN where nobody has read.
[[nodiscard]] fit::CornerShape shapeOf(Sample& s, const Corner& corner, const Hub& hub);
/// The wheel in the hub's frame. Without barrel stations the barrel is estimated from the printed size and says so.
[[nodiscard]] fit::WheelShape wheelOf(Sample& s, const Wheel& wheel, double face);

/// Barrel over caliper, and spokes outboard of it; each rests on the readings of the caliper's outline and the wheel, no others.
[[nodiscard]] double barrelGap(Sample& s, const Corner& corner, const Wheel& wheel);
[[nodiscard]] double spokeGap(Sample& s, const Corner& corner, const Wheel& wheel);

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
[[nodiscard]] stopping::Car carOf(Sample& s, const Car& car);
[[nodiscard]] stopping::Braking braking(Sample& s, const Build& build, const Corner& front, const Corner& rear);
[[nodiscard]] stopping::Stop stop(Sample& s, const Build& build, const Corner& front, const Corner& rear, bool withCourse);
/// Rise of one ring of `axle` in one stop from the test speed.
[[nodiscard]] double stopRise(Sample& s, const Build& build, const Corner& front, const Corner& rear, Axle axle);

} // namespace deepstop::figures
