#pragma once
/// Readings in, figures out: what more than one chapter needs. Each function says one engineering sum as plain physics over a Sample.

#include "build/build.hpp"
#include "fit/fit.hpp"
#include "joints/studs.hpp"
#include "materials/materials.hpp"
#include "quantity/figure.hpp"

namespace deepstop::figures {

/// What lies between hub flange and rotor: a hub-face ring, and a shield's plate that is clamped there.
[[nodiscard]] double behindRotor(Evaluator& s, const Corner& corner);
/// Whether anything was said of a ring between pilot and bore.
[[nodiscard]] inline bool hasAdapterRing(const Corner& c)
{
    return c.adapter.inside.value || c.adapter.outside.value || c.adapter.step.value || c.adapter.sits != RingSits::Unknown;
}
/// Thickness of the wheel spacer; 0 where none is said.
[[nodiscard]] double spacerOf(Evaluator& s, const Corner& corner);
/// How far the hub stands outboard of where it stood when it and the slot were read, because a plate between it and the knuckle was taken
/// out since: negative, or 0.
[[nodiscard]] double hubMoved(Evaluator& s, const Corner& corner);
/// Lugs' face inboard of the hub's flange face, as it is with this setup's shield.
[[nodiscard]] double lugDepth(Evaluator& s, const Corner& corner, const Hub& hub);
/// The dust shield of a setup: where it was changed its own readings, else the car's.
struct ShieldReadings {
    const Reading* diameter;
    const Reading* depth;
    const Reading* rim;
};
[[nodiscard]] ShieldReadings shieldOf(const Corner& corner, const Hub& hub);

/// z of the rotor's inboard friction face.
[[nodiscard]] double inboardFace(Evaluator& s, const Corner& corner);
/// Between the plates of the ring. A ring of one plate has a gap of 0, and no gap is less.
[[nodiscard]] double ventGap(Evaluator& s, const Rotor& rotor);
/// From the hub's flange face to the wheel's mounting face.
[[nodiscard]] double wheelFace(Evaluator& s, const Corner& corner);
/// A stud's thread in its nut. NaN where hub or wheel lack a length, or nobody has said which thread it is.
[[nodiscard]] joints::StudStack studStack(Evaluator& s, const Corner& corner, const Wheel& wheel, const Hub& hub);
[[nodiscard]] inline joints::Engagement studEngagement(Evaluator& s, const Corner& corner, const Wheel& wheel, const Hub& hub)
{
    return joints::engagement(studStack(s, corner, wheel, hub));
}
/// What a setting says, or its default where somebody has emptied it.
[[nodiscard]] double setting(const Reading& reading, Reading Wants::*which);

/// Slot's middle less rotor's middle, both from the hub's face, on one side of the car.
[[nodiscard]] double axialOffset(Evaluator& s, const Corner& corner, Side side);

/// A figure of an axle that is read on either side: that of the worse, lacking whatever either side lacks.
struct Sided {
    Figure figure;
    std::optional<Side> side; ///< whose it is, where the two differ
};
/// The side that leaves less at worst. One that certainly leaves less than nothing speaks whatever is not known of the other.
[[nodiscard]] Sided lesserOf(Figure left, Figure right);
/// @param sum of one side, the less the worse
[[nodiscard]] Sided lesserSide(const std::function<double(Evaluator&, Side)>& sum);

[[nodiscard]] double ringMass(Evaluator& s, const Rotor& rotor);
/// What the friction ring is made of.
[[nodiscard]] const materials::Solid& ringSolid(const Rotor& rotor);
/// Linear expansion of the ring over a rise, 1/K.
[[nodiscard]] double ringExpansion(Evaluator& s, const Rotor& rotor, double rise);
/// Heat that one ring takes for one kelvin, J/K. Of iron, as an assumption, while its material is not said.
[[nodiscard]] double heatStore(Evaluator& s, const Rotor& rotor);
/// The same of whatever the corner has, ring or drum.
[[nodiscard]] double heatStore(Evaluator& s, const Corner& corner);
/// A drum of iron from its dimensions.
[[nodiscard]] double drumMass(Evaluator& s, const Drum& drum);
[[nodiscard]] double hatMass(Evaluator& s, const Rotor& rotor);
[[nodiscard]] double rotorMass(Evaluator& s, const Rotor& rotor);
[[nodiscard]] double rotatingInertia(Evaluator& s, const Corner& corner);
/// The rotor as weighed, alone or as ring and hat; what was not weighed of it is computed.
[[nodiscard]] double rotorMassWeighed(Evaluator& s, const Corner& corner);
/// In how many weighings a part lay on the scale.
[[nodiscard]] int timesWeighed(const Corner& corner, Part part);
/// Backing plate of a pad that was not measured; common practice.
inline constexpr double usualBacking = 5e-3;
/// Friction material of a pad: as read, else its thickness with the backing less the backing, read or usual.
[[nodiscard]] double padLining(Evaluator& s, const Pad& pad);
/// Lining of one pad: as measured, else from height, length and the rotor's edge it follows. While its ends are not said, the smaller
/// of both shapes, assumed.
[[nodiscard]] double padArea(Evaluator& s, const Corner& corner);
/// Linings of one side that were read as worn, at the middle or at an end, of either pad.
[[nodiscard]] std::vector<const Reading*> liningsRead(const Fitted& fitted);
/// Whether a complete corner of that kind, discs or drums, has such a part.
[[nodiscard]] bool belongsTo(const Corner& corner, Part part);
/// The weighed corner, the rotor computed where no weighing holds it. `lacks` names the parts that were not weighed.
[[nodiscard]] double cornerMass(Evaluator& s, const Corner& corner, std::vector<std::string>& lacks);

} // namespace deepstop::figures
