#include "figures/figures.hpp"

#include "build/choices.hpp"
#include "heat/heat.hpp"
#include "joints/thread.hpp"
#include "materials/materials.hpp"
#include "weights/weights.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::figures {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();
constexpr bool notLength = false;

weights::Vanes::Shape shapeOf(VaneShape shape)
{
    using enum weights::Vanes::Shape;
    return shape == VaneShape::Curved ? Curved : shape == VaneShape::Pillars ? Pillars : Straight;
}

/// As somebody has said it, else from the vanes counted and measured; asking for the share where neither is there.
double vaneShare(Sample& s, const Rotor& r)
{
    const bool curved = r.vaneShape == VaneShape::Curved;
    if (r.vaneShare.value || r.vanes == 0 || !r.vaneThickness.value)
        return s(r.vaneShare, notLength);
    const weights::Vanes vanes { shapeOf(r.vaneShape), r.vanes, s(r.vaneThickness), curved ? s(r.vaneLean, notLength) : 0 };
    return weights::vaneShare(vanes, s(r.outerDiameter), s(r.ringInnerDiameter));
}

weights::Ring ringOf(Sample& s, const Rotor& r)
{
    const double gap = s(r.ventGap);
    // Vanes matter only where there is air between the plates.
    const double vanes = gap == 0 ? 0 : vaneShare(s, r);
    return { s(r.outerDiameter), s(r.ringInnerDiameter), s(r.thickness), gap, vanes };
}

} // namespace

double wheelFace(Sample& s, const Corner& c) { return s.orElse(c.ring, 0) + s(c.rotor.hatThickness) + s.orElse(c.spacer, 0); }

double setting(const Reading& reading, Reading Wants::*which)
{
    static const Wants usual;
    return reading.value.value_or(*(usual.*which).value);
}

double inboardFace(Sample& s, const Corner& c) { return s.orElse(c.ring, 0) + s(c.rotor.hatThickness) - s(c.rotor.overallHeight); }

joints::StudStack studStack(Sample& s, const Corner& c, const Wheel& wheel, const Hub& hub)
{
    const auto thread = joints::parseThread(hub.studThread);
    return { s(hub.studLength), s(c.rotor.hatThickness), s.orElse(c.ring, 0), s.orElse(c.spacer, 0), s(wheel.padThickness),
        s(hub.nutThread), thread ? thread->diameter : unknown, thread ? thread->pitch : unknown };
}

double axialOffset(Sample& s, const Corner& corner)
{
    fit::CornerShape shape {};
    shape.ring = s.orElse(corner.ring, 0);
    shape.rotor.hatThickness = s(corner.rotor.hatThickness);
    shape.rotor.overallHeight = s(corner.rotor.overallHeight);
    shape.rotor.thickness = s(corner.rotor.thickness);
    shape.slotCentre = s(corner.mount.slotCentre);
    return fit::axialOffset(shape);
}

double ringMass(Sample& s, const Rotor& rotor) { return weights::ringMass(ringOf(s, rotor), ringSolid(rotor).density); }

double heatStore(Sample& s, const Rotor& rotor) { return ringMass(s, rotor) * ringSolid(rotor).specificHeat; }

const materials::Solid& ringSolid(const Rotor& rotor)
{
    switch (rotor.ringMaterial) {
    case RingMaterial::Steel:
        return materials::steel;
    case RingMaterial::CarbonCeramic:
        return materials::carbonCeramic;
    case RingMaterial::Iron:
        break;
    }
    return materials::greyIron;
}

double hatMass(Sample& s, const Rotor& r)
{
    const double height = s(r.overallHeight);
    const double disc = s(r.hatThickness);
    const double ring = s(r.thickness);
    const double wall = s(r.hatWall);
    const double holes = r.boltHoles > 0 ? s.orElse(r.boltHoleDiameter, 0) : 0;
    const weights::Hat hat { s(r.hatOuterDiameter), s(r.bore), disc, wall, height - disc - ring, s(r.ringInnerDiameter), r.boltHoles,
        holes };
    const double density = r.hatMaterial == HatMaterial::Iron ? materials::greyIron.density : materials::aluminium6061.density;
    const auto thread = joints::parseThread(r.hatBoltThread);
    const double bolts =
        r.construction == RotorBuild::TwoPiece && thread ? weights::hatBoltsMass(r.hatBolts, thread->diameter, wall, density) : 0;
    return weights::hatVolume(hat) * density + bolts;
}

double rotorMass(Sample& s, const Rotor& rotor) { return ringMass(s, rotor) + hatMass(s, rotor); }

double rotatingInertia(Sample& s, const Rotor& r)
{
    return weights::inertia(ringMass(s, r), s(r.outerDiameter), s(r.ringInnerDiameter))
        + weights::inertia(hatMass(s, r), s(r.hatOuterDiameter), s(r.bore));
}

int timesWeighed(const Corner& corner, Part part)
{
    return static_cast<int>(std::ranges::count_if(
        corner.weighings, [part](const Weighing& w) { return std::ranges::find(w.contains, part) != w.contains.end(); }));
}

double rotorMassWeighed(Sample& s, const Corner& corner)
{
    double mass = 0;
    // In whatever order somebody named what lay on the scale.
    for (const Weighing& weighing : corner.weighings)
        if (const auto& on = weighing.contains;
            !on.empty() && std::ranges::all_of(on, [](Part p) { return p == Part::Rotor || p == Part::Ring || p == Part::Hat; }))
            mass += s(weighing.mass, notLength);
    const bool ring = timesWeighed(corner, Part::Ring) > 0;
    const bool hat = timesWeighed(corner, Part::Hat) > 0;
    if (mass == 0)
        return rotorMass(s, corner.rotor);
    return mass + (ring && !hat ? hatMass(s, corner.rotor) : 0) + (hat && !ring ? ringMass(s, corner.rotor) : 0);
}

double cornerMass(Sample& s, const Corner& corner, std::vector<std::string>& lacks)
{
    double mass = 0;
    for (const Weighing& weighing : corner.weighings)
        if (!weighing.contains.empty())
            mass += s(weighing.mass, notLength);
    const bool rotor = timesWeighed(corner, Part::Rotor) > 0;
    for (const auto& [word, part] : choices::part) {
        const int times = timesWeighed(corner, part);
        const bool ofRotor = part == Part::Ring || part == Part::Hat;
        if (times > 1 || (ofRotor && rotor && times > 0))
            lacks.push_back("one weighing of the " + std::string(word) + ", not two");
        if (times > 0 || (ofRotor && rotor))
            continue;
        // What nobody has weighed of a rotor is worked out from its dimensions; nothing else can be.
        if (part == Part::Ring)
            mass += ringMass(s, corner.rotor);
        else if (part == Part::Hat)
            mass += hatMass(s, corner.rotor);
        else if (part != Part::Rotor)
            lacks.push_back("weight of the " + std::string(word));
    }
    return lacks.empty() ? mass : unknown;
}

double padArea(Sample& s, const Pad& pad) { return pad.area.value ? s(pad.area, notLength) : s(pad.height) * s(pad.length); }

double effectiveRadius(Sample& s, const Corner& c)
{
    return stopping::effectiveRadius(s(c.rotor.outerDiameter), s(c.pad.height), s(c.mount.padInset)).mean;
}

double pistonArea(Sample& s, const Corner& c)
{
    if (c.caliper.pistons.empty())
        return unknown;
    std::vector<double> bores;
    for (const Reading& bore : c.caliper.pistons)
        bores.push_back(s(bore));
    return stopping::pistonAreaOneSide(bores);
}

double pressure(Sample& s, const Hydraulics& h)
{
    if (h.linePressure.value)
        return s(h.linePressure, notLength);
    return stopping::linePressure(s(h.pedalForce, notLength), s(h.pedalRatio, notLength), s(h.boosterGain, notLength), s(h.masterBore));
}

namespace {

stopping::AxleBrakes axleOf(Sample& s, const Corner& c, const Reading& tyreRadius)
{
    return { pistonArea(s, c), effectiveRadius(s, c), s(c.pad.friction, notLength), s(tyreRadius) };
}

stopping::Brakes brakesOf(Sample& s, const Build& build, const Corner& front, const Corner& rear)
{
    stopping::Brakes brakes { axleOf(s, front, build.car.frontTyreRadius), axleOf(s, rear, build.car.rearTyreRadius) };
    if (build.hydraulics.rearKneePressure.value || build.hydraulics.rearSlope.value) {
        brakes.kneePressure = s(build.hydraulics.rearKneePressure, notLength);
        brakes.slope = s(build.hydraulics.rearSlope, notLength);
    }
    return brakes;
}

} // namespace

double wheelTorque(Sample& s, const Corner& corner, const Hydraulics& hydraulics)
{
    return stopping::brakeTorque(
        { pistonArea(s, corner), effectiveRadius(s, corner), s(corner.pad.friction, notLength), 1 }, pressure(s, hydraulics));
}

double largestBrakeTorque(Sample& s, const Build& build, const Corner& corner, Axle axle)
{
    const Car& car = build.car;
    const double grip = s(car.grip, notLength);
    const double atRest = axle == Axle::Front ? s(car.frontLoadShare, notLength) : 1 - s(car.frontLoadShare, notLength);
    const double transfer = axle == Axle::Front ? grip * s(car.centreOfMassHeight) / s(car.wheelbase) : 0;
    const double load = s(car.mass, notLength) * standardGravity * (atRest + transfer) / 2;
    const double byTyre = grip * load * s(axle == Axle::Front ? car.frontTyreRadius : car.rearTyreRadius);
    const double byPressure = wheelTorque(s, corner, build.hydraulics);
    // std::min would swallow a NaN.
    return std::isfinite(byTyre + byPressure) ? std::min(byTyre, byPressure) : unknown;
}

stopping::Car carOf(Sample& s, const Car& car)
{
    return { s(car.mass, notLength), s(car.wheelbase), s(car.centreOfMassHeight), s(car.frontLoadShare, notLength), s(car.grip, notLength),
        s.orElse(car.dragArea, 0, notLength) };
}

stopping::Braking braking(Sample& s, const Build& build, const Corner& front, const Corner& rear)
{
    return s.common<stopping::Braking>(0, &front, &rear, [&] {
        const auto car = carOf(s, build.car);
        const auto brakes = brakesOf(s, build, front, rear);
        return stopping::hardestBraking(car, brakes, pressure(s, build.hydraulics), build.car.antilock == YesNo::Yes);
    });
}

stopping::Stop stop(Sample& s, const Build& build, const Corner& front, const Corner& rear, bool withCourse)
{
    return s.common<stopping::Stop>(withCourse ? 1 : 2, &front, &rear, [&] {
        const auto held = braking(s, build, front, rear);
        return stopping::stop(carOf(s, build.car), held.deceleration, s(build.car.testSpeed, notLength),
            s.orElse(build.hydraulics.buildUpTime, 0, notLength), withCourse);
    });
}

double stopRise(Sample& s, const Build& build, const Corner& front, const Corner& rear, Axle axle)
{
    const auto held = braking(s, build, front, rear);
    const double share = (axle == Axle::Front ? held.frontShare : 1 - held.frontShare) / 2;
    const double energy = heat::stopEnergy(s(build.car.mass, notLength), s(build.car.testSpeed, notLength), 0);
    const Rotor& rotor = axle == Axle::Front ? front.rotor : rear.rotor;
    return heat::temperatureRise(energy, share, heatStore(s, rotor));
}

} // namespace deepstop::figures
