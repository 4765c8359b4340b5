#include "figures/brake_figures.hpp"

#include "figures/figures.hpp"
#include "heat/heat.hpp"
#include "quantity/unit.hpp"
#include "stopping/drum.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::figures {
namespace {

constexpr double absent = std::numeric_limits<double>::quiet_NaN();
constexpr bool noLength = false;
/// How far off a vendor's friction may be; common practice, no source.
constexpr double vendorsFriction = 0.15;

} // namespace

double effectiveRadius(Sample& s, const Corner& c)
{
    if (c.brakes == BrakeKind::Drums)
        return s(c.drum.insideDiameter) / 2;
    double inset = 0;
    int sides = 0;
    for (const Fitted* fitted : { &c.left, &c.right })
        if (fitted->padInset.value) {
            inset += s(fitted->padInset);
            ++sides;
        }
    return stopping::effectiveRadius(s(c.rotor.outerDiameter), s(c.pad.height), sides ? inset / sides : s(c.left.padInset)).mean;
}

double pistonArea(Sample& s, const Corner& c)
{
    if (c.brakes == BrakeKind::Drums) {
        const double bore = s(c.drum.cylinderBore);
        return stopping::pistonAreaOneSide({ &bore, 1 });
    }
    if (c.caliper.pistons.empty())
        return absent;
    std::vector<double> bores;
    for (const Reading& bore : c.caliper.pistons)
        bores.push_back(s(bore));
    return stopping::pistonAreaOneSide(bores);
}

namespace {

/// What the model of pedal, booster and master needs has been read.
bool modelled(const Hydraulics& h)
{
    const bool boosted = h.booster == Booster::None || h.boosterGain.value;
    const bool twins = h.master != MasterKind::Twin || (h.rearMasterBore.value && h.barPosition.value);
    return h.pedalRatio.value && h.masterBore.value && boosted && twins;
}

hydraulics::Master masterOf(Sample& s, const Hydraulics& h, bool withTravel)
{
    hydraulics::Master master;
    master.bore = s(h.masterBore);
    master.twins = h.master == MasterKind::Twin;
    master.diagonal = h.circuits == Circuits::Diagonal;
    if (master.twins) {
        master.rearBore = s(h.rearMasterBore);
        master.barToFront = s(h.barPosition, noLength);
    } else if (h.master == MasterKind::Unknown) {
        s.assume("a tandem master cylinder");
    }
    if (!withTravel)
        return master;
    master.stroke = s(h.masterStroke);
    if (!master.twins) {
        if (!h.frontStroke.value)
            s.assume("half the stroke for either circuit");
        master.firstShare = s.orElse(h.frontStroke, 0.5, noLength);
    }
    return master;
}

hydraulics::Booster boosterOf(Sample& s, const Build& build, const Hydraulics& h, const hydraulics::Master& master)
{
    if (h.booster == Booster::None)
        return {};
    const double gain = s(h.boosterGain, noLength);
    if (h.boosterKnee.value)
        return { gain, s(h.boosterKnee, noLength) };
    // One that does not multiply is none, and does not run out.
    if (gain == 1 && h.booster == Booster::Unknown)
        return {};
    s.assume("where the booster runs out");
    return { gain, s(build.wants.boosterRunOut, noLength) * hydraulics::rodArea(master) };
}

} // namespace

hydraulics::Foot footOf(Sample& s, const Build& build, const Hydraulics& h, bool withTravel)
{
    hydraulics::Foot foot;
    if (h.linePressure.value && !modelled(h) && !withTravel) {
        // Whatever there is between foot and line, it made this of that.
        foot.master.bore = 2 * std::sqrt(s(h.pedalForce, noLength) / s(h.linePressure, noLength) / std::numbers::pi);
        s.assume("pressure in proportion to the foot");
        return foot;
    }
    foot.pedalRatio = s(h.pedalRatio, noLength);
    foot.master = masterOf(s, h, withTravel);
    foot.booster = boosterOf(s, build, h, foot.master);
    if (withTravel)
        foot.freePlay = s(h.freePlay);
    if (h.linePressure.value)
        foot.measuredOverReckoned = s(h.linePressure, noLength) / hydraulics::frontPressure(foot, s(h.pedalForce, noLength));
    return foot;
}

double pressure(Sample& s, const Build& build, const Hydraulics& h)
{
    if (h.linePressure.value)
        return s(h.linePressure, noLength);
    return hydraulics::frontPressure(footOf(s, build, h), s(h.pedalForce, noLength));
}

namespace {

double hoseGive(Sample& s, const Build& build, const Hose& hose)
{
    if (hose.give.value)
        return s(hose.give, noLength);
    // Swelling goes with the area inside; the practice figures are for a bore of 3.2 mm.
    constexpr double usualBore = 3.2e-3;
    const double wide = std::pow(s.orElse(hose.bore, usualBore) / usualBore, 2);
    s.assume(hose.kind == HoseKind::Unknown ? "rubber hoses, and how much they swell" : "how much the hoses swell");
    const Reading& perMetre = hose.kind == HoseKind::Braided ? build.wants.braidedGive : build.wants.rubberGive;
    return s(perMetre, noLength) * s(hose.length) * wide;
}

double orUsual(Sample& s, const Reading& reading, const Reading& usual, const char* what, bool isLength)
{
    if (reading.value)
        return s(reading, isLength);
    s.assume(what);
    return s(usual, isLength);
}

} // namespace

hydraulics::TakeUp takeUp(Sample& s, const Build& build, const SetupParts& setup, Axle axle)
{
    const Corner* c = setup.at(axle).corner;
    if (!c)
        return { absent, absent };
    const Wants& w = build.wants;
    const double hose = hoseGive(s, build, c->hose);
    const double oneSide = pistonArea(s, *c);
    if (c->brakes == BrakeKind::Drums)
        return hydraulics::takeUpOf(hydraulics::DrumTakeUp {
            oneSide, orUsual(s, c->drum.shoePlay, w.shoePlay, "the play of the shoes", true), s(w.caliperGive, noLength), hose });
    const double all = c->caliper.kind == CaliperKind::Fixed ? 2 * oneSide : c->caliper.kind == CaliperKind::Floating ? oneSide : absent;
    return hydraulics::takeUpOf(
        hydraulics::DiscTakeUp { oneSide, all, s(w.rollBack), orUsual(s, c->pad.squeeze, w.padSqueeze, "how much the pads give", true),
            orUsual(s, c->caliper.give, w.caliperGive, "how much the calipers give", noLength), hose });
}

double fluidForWear(Sample& s, const Corner& c)
{
    if (c.brakes == BrakeKind::Drums)
        return 0;
    const double pads = 2 * (padLining(s, c.pad) - s(c.pad.minimumThickness));
    const double ring = s(c.rotor.thickness) - s(c.rotor.minimumThickness);
    return 2 * pistonArea(s, c) * (pads + ring);
}

namespace {

stopping::Shoes shoesOf(Sample& s, const Drum& drum)
{
    auto shoes = stopping::usualShoes(s(drum.insideDiameter) / 2, s.loose(drum.friction, vendorsFriction));
    if (drum.anchorRadius.value)
        shoes.anchorRadius = s(drum.anchorRadius);
    if (drum.shoeArc.value)
        shoes.arc = s(drum.shoeArc, noLength);
    if (!drum.anchorRadius.value || !drum.shoeArc.value)
        s.assume("the shape of the shoes");
    return shoes;
}

} // namespace

double selfLockingMargin(Sample& s, const Drum& drum)
{
    const auto shoes = shoesOf(s, drum);
    return stopping::selfLockingFriction(shoes) / shoes.friction - 1;
}

double brakeFactor(Sample& s, const Corner& c)
{
    if (c.brakes == BrakeKind::Discs)
        return 2 * s.loose(c.pad.friction, vendorsFriction);
    const auto shoes = shoesOf(s, c.drum);
    switch (c.drum.kind) {
    case DrumKind::LeadingTrailing:
        return stopping::brakeFactor(stopping::DrumKind::LeadingTrailing, shoes);
    case DrumKind::TwoLeading:
        return stopping::brakeFactor(stopping::DrumKind::TwoLeading, shoes);
    case DrumKind::SelfEnergising:
        return stopping::brakeFactor(stopping::DrumKind::SelfEnergising, shoes);
    case DrumKind::Unknown:
        break;
    }
    return absent;
}

double wheelTorque(Sample& s, const Build& build, const Corner& corner, const Hydraulics& hydraulics)
{
    return stopping::brakeTorque(
        { pistonArea(s, corner), effectiveRadius(s, corner), brakeFactor(s, corner), 1, 1 }, pressure(s, build, hydraulics));
}

namespace {

/// A foot in panic, N; a wheel that goes into lock in so many seconds; the radius of gyration of wheel and tyre over its rolling radius.
/// Common practice, no source.
constexpr double panicFoot = 500;
constexpr double lockTime = 0.2;
constexpr double gyration = 0.75;

} // namespace

double largestBrakeTorque(Sample& s, const Build& build, const SetupParts& setup, Axle axle)
{
    const AxleParts& parts = setup.at(axle);
    if (!parts.corner || !parts.wheel)
        return absent;
    const Car& car = build.car;
    const Wheel& wheel = *parts.wheel;
    const double grip = s(wheel.grip, noLength);
    const double atRest = axle == Axle::Front ? s(car.frontLoadShare, noLength) : 1 - s(car.frontLoadShare, noLength);
    const double transfer = axle == Axle::Front ? grip * s(car.centreOfMassHeight) / s(car.wheelbase) : 0;
    const double load = s(car.mass, noLength) * standardGravity * (atRest + transfer) / 2;
    const double radius = s(wheel.rollingRadius);
    // What turns has to be stopped as well when the wheel goes into lock.
    const double inertia = s(wheel.mass, noLength) * gyration * gyration * radius * radius + rotatingInertia(s, *parts.corner);
    const double byTyre = grip * load * radius + inertia * s(car.testSpeed, noLength) / radius / lockTime;
    const Hydraulics& h = *setup.hydraulics;
    const double foot = s(h.pedalForce, noLength);
    const double byPressure = wheelTorque(s, build, *parts.corner, h) * std::max(1.0, panicFoot / foot) * (1 + vendorsFriction);
    // std::min would swallow a NaN.
    return std::isfinite(byTyre + byPressure) ? std::min(byTyre, byPressure) : absent;
}

stopping::Car carOf(Sample& s, const Car& car, const LoadCase* load)
{
    const stopping::Car alone { s(car.mass, noLength), s(car.wheelbase), s(car.centreOfMassHeight), s(car.frontLoadShare, noLength),
        s.orElse(car.dragArea, 0, noLength) };
    if (!load)
        return alone;
    std::vector<stopping::PointLoad> carried;
    for (const Carried& one : load->carried)
        carried.push_back({ s(one.mass, noLength), s(one.behindFrontAxle), s(one.height) });
    return stopping::laden(alone, carried);
}

namespace {

stopping::AxleBrakes axleOf(Sample& s, const AxleParts& parts)
{
    if (!parts.corner || !parts.wheel)
        return { absent, absent, absent, absent, absent };
    const Corner& c = *parts.corner;
    return { pistonArea(s, c), effectiveRadius(s, c), brakeFactor(s, c), s(parts.wheel->rollingRadius), s(parts.wheel->grip, noLength) };
}

} // namespace

stopping::Brakes brakesOf(Sample& s, const Build& build, const SetupParts& setup, const LoadCase* load)
{
    stopping::Brakes brakes { axleOf(s, setup.front), axleOf(s, setup.rear) };
    const Hydraulics& h = *setup.hydraulics;
    if (h.master == MasterKind::Twin)
        brakes.rearOverFront = hydraulics::rearOverFront(masterOf(s, h, false));
    const bool read = h.rearKneePressure.value || h.rearSlope.value;
    if (h.valve == ValveKind::None || (h.valve == ValveKind::Unknown && !read)) {
        if (h.valve == ValveKind::Unknown)
            s.assume("no valve to the rear");
        return brakes;
    }
    brakes.kneePressure = s(h.rearKneePressure, noLength);
    brakes.slope = s(h.rearSlope, noLength);
    if (h.valve == ValveKind::LoadDependent && load) {
        const auto rearLoad = [](const stopping::Car& car) { return car.mass * (1 - car.frontLoadShare) * standardGravity; };
        const double more = rearLoad(carOf(s, build.car, load)) - rearLoad(carOf(s, build.car));
        const double knee = brakes.kneePressure + s(h.kneePerLoad, noLength) * more;
        brakes.kneePressure = knee < 0 ? 0 : knee;
    }
    return brakes;
}

stopping::Braking braking(Sample& s, const Build& build, const SetupParts& setup)
{
    const auto car = carOf(s, build.car);
    const auto brakes = brakesOf(s, build, setup);
    return stopping::hardestBraking(car, brakes, pressure(s, build, *setup.hydraulics), build.car.antilock == YesNo::Yes,
        setting(build.wants.antilockQuality, &Wants::antilockQuality));
}

stopping::Circumstances circumstances(Sample& s, const Build& build, const SetupParts& setup, const StopOf& of)
{
    const Wants& w = build.wants;
    static const Wants usual;
    stopping::Circumstances how {};
    how.fullPressure = of.pedal > 0 ? hydraulics::frontPressure(footOf(s, build, *setup.hydraulics), of.pedal)
                                    : pressure(s, build, *setup.hydraulics);
    how.buildUp = s.orElse(setup.hydraulics->buildUpTime, 0, noLength);
    how.antilock = build.car.antilock == YesNo::Yes;
    how.antilockQuality = setting(w.antilockQuality, &Wants::antilockQuality);
    how.pitchTime = s.orElse(w.pitchTime, *usual.pitchTime.value, noLength);
    how.gripFall = s.orElse(w.gripFall, *usual.gripFall.value, noLength);
    how.grip = of.grip;
    how.rolling = stopping::usualRolling;
    how.frontFriction = of.frontFriction;
    how.rearFriction = of.rearFriction;
    return how;
}

stopping::Drive drive(Sample& s, const Build& build, const SetupParts& setup, const StopOf& of, bool withCourse)
{
    return stopping::drive(carOf(s, build.car, of.load), brakesOf(s, build, setup, of.load), circumstances(s, build, setup, of),
        of.speed > 0 ? of.speed : s(build.car.testSpeed, noLength), withCourse);
}

stopping::Drive stop(Sample& s, const Build& build, const SetupParts& setup, bool withCourse)
{
    return drive(s, build, setup, {}, withCourse);
}

double stopRise(Sample& s, const Build& build, const SetupParts& setup, Axle axle)
{
    const auto held = braking(s, build, setup);
    const double share = (axle == Axle::Front ? held.frontShare : 1 - held.frontShare) / 2;
    const double energy = heat::stopEnergy(s(build.car.mass, noLength), s(build.car.testSpeed, noLength), 0);
    return heat::temperatureRise(energy, share, setup.at(axle).corner ? heatStore(s, *setup.at(axle).corner) : absent);
}

std::vector<std::string> unsaidOf(const SetupParts& setup)
{
    std::vector<std::string> lacks;
    for (const auto& [axle, word] : { std::pair { &setup.front, "front" }, std::pair { &setup.rear, "rear" } }) {
        if (!axle->wheel)
            lacks.push_back(fmt::format("a wheel with its tyre ({})", word));
        if (axle->corner && axle->corner->brakes == BrakeKind::Discs && axle->corner->caliper.pistons.empty())
            lacks.emplace_back("piston bores");
        if (axle->corner && axle->corner->brakes == BrakeKind::Drums && axle->corner->drum.kind == DrumKind::Unknown)
            lacks.push_back(fmt::format("kind of drum brake ({})", word));
    }
    if (setup.hydraulics->boosterGain.value.value_or(1) < 1)
        lacks.emplace_back("a booster gain of 1 or more");
    return lacks;
}

} // namespace deepstop::figures
