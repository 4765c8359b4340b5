#include "figures/brake_figures.hpp"

#include "figures/figures.hpp"
#include "heat/heat.hpp"
#include "language/language.hpp"
#include "quantity/unit.hpp"
#include "stopping/drum.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::figures {
namespace {

constexpr double notGiven = std::numeric_limits<double>::quiet_NaN();
constexpr bool noLength = false;
/// How far off a vendor's friction may be; common practice, no source.
constexpr double vendorsFriction = 0.15;

} // namespace

double effectiveRadius(Evaluator& s, const Corner& c)
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

double pistonArea(Evaluator& s, const Corner& c)
{
    if (c.brakes == BrakeKind::Drums) {
        const double bore = s(c.drum.cylinderBore);
        return stopping::pistonAreaOneSide({ &bore, 1 });
    }
    if (c.caliper.pistons.empty())
        return notGiven;
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

hydraulics::Master masterOf(Evaluator& s, const Hydraulics& h, bool withTravel)
{
    hydraulics::Master master;
    master.bore = s(h.masterBore);
    master.twins = h.master == MasterKind::Twin;
    master.diagonal = h.circuits == Circuits::Diagonal;
    if (master.twins) {
        master.rearBore = s(h.rearMasterBore);
        master.barToFront = s(h.barPosition, noLength);
    } else if (h.master == MasterKind::Unknown) {
        s.assume(tr("a tandem master cylinder"));
    }
    if (!withTravel)
        return master;
    master.stroke = s(h.masterStroke);
    if (!master.twins) {
        if (!h.frontStroke.value)
            s.assume(tr("half the stroke for either circuit"));
        master.firstShare = s.orElse(h.frontStroke, 0.5, noLength);
    }
    return master;
}

hydraulics::Booster boosterOf(Evaluator& s, const Build& build, const Hydraulics& h, const hydraulics::Master& master)
{
    if (h.booster == Booster::None)
        return {};
    const double gain = s(h.boosterGain, noLength);
    if (h.boosterKnee.value)
        return { gain, s(h.boosterKnee, noLength) };
    // One that does not multiply is none, and does not run out.
    if (gain == 1 && h.booster == Booster::Unknown)
        return {};
    s.assume(tr("where the booster runs out"));
    return { gain, s(build.wants.boosterRunOut, noLength) * hydraulics::rodArea(master) };
}

} // namespace

namespace {

hydraulics::PedalTrain trainOf(Evaluator& s, const Build& build, const Hydraulics& h, bool withTravel)
{
    hydraulics::PedalTrain foot;
    if (h.linePressure.value && !modelled(h) && !withTravel) {
        // Whatever there is between foot and line, it made this of that.
        foot.master.bore = 2 * std::sqrt(s(h.pedalForce, noLength) / s(h.linePressure, noLength) / std::numbers::pi);
        s.assume(tr("pressure in proportion to the foot"));
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

} // namespace

hydraulics::PedalTrain footOf(Evaluator& s, const Build& build, const Hydraulics& h, bool withTravel)
{
    return s.part({ withTravel ? "foot and travel" : "foot", { &build, &h } }, [&] { return trainOf(s, build, h, withTravel); });
}

double pressure(Evaluator& s, const Build& build, const Hydraulics& h)
{
    if (h.linePressure.value)
        return s(h.linePressure, noLength);
    return hydraulics::frontPressure(footOf(s, build, h), s(h.pedalForce, noLength));
}

namespace {

double hoseGive(Evaluator& s, const Build& build, const Hose& hose)
{
    if (hose.give.value)
        return s(hose.give, noLength);
    // Swelling goes with the area inside; the practice figures are for a bore of 3.2 mm.
    constexpr double usualBore = 3.2e-3;
    const double wide = std::pow(s.orElse(hose.bore, usualBore) / usualBore, 2);
    s.assume(hose.kind == HoseKind::Unknown ? tr("rubber hoses, and how much they swell") : tr("how much the hoses swell"));
    const Reading& perMetre = hose.kind == HoseKind::Braided ? build.wants.braidedGive : build.wants.rubberGive;
    return s(perMetre, noLength) * s(hose.length) * wide;
}

double orUsual(Evaluator& s, const Reading& reading, const Reading& usual, const char* what, bool isLength)
{
    if (reading.value)
        return s(reading, isLength);
    s.assume(what);
    return s(usual, isLength);
}

hydraulics::FluidDemand takeUpOf(Evaluator& s, const Build& build, const Corner* c)
{
    const Wants& w = build.wants;
    const double hose = hoseGive(s, build, c->hose);
    const double oneSide = pistonArea(s, *c);
    if (c->brakes == BrakeKind::Drums)
        return hydraulics::takeUpOf(hydraulics::DrumTakeUp {
            oneSide, orUsual(s, c->drum.shoePlay, w.shoePlay, tr("the play of the shoes"), true), s(w.caliperGive, noLength), hose });
    const double all = c->caliper.kind == CaliperKind::Fixed ? 2 * oneSide : c->caliper.kind == CaliperKind::Floating ? oneSide : notGiven;
    return hydraulics::takeUpOf(
        hydraulics::DiscTakeUp { oneSide, all, s(w.rollBack), orUsual(s, c->pad.squeeze, w.padSqueeze, tr("how much the pads give"), true),
            orUsual(s, c->caliper.give, w.caliperGive, tr("how much the calipers give"), noLength), hose });
}

} // namespace

hydraulics::FluidDemand takeUp(Evaluator& s, const Build& build, const SetupParts& setup, Axle axle)
{
    const Corner* c = setup.at(axle).corner;
    if (!c)
        return { notGiven, notGiven };
    return s.part({ "take-up", { &build, c } }, [&] { return takeUpOf(s, build, c); });
}

double fluidForWear(Evaluator& s, const Corner& c)
{
    if (c.brakes == BrakeKind::Drums)
        return 0;
    const double pads = 2 * (padLining(s, c.pad) - s(c.pad.minimumThickness));
    const double ring = s(c.rotor.thickness) - s(c.rotor.minimumThickness);
    return 2 * pistonArea(s, c) * (pads + ring);
}

namespace {

stopping::Shoes shoesOf(Evaluator& s, const Drum& drum)
{
    auto shoes = stopping::usualShoes(s(drum.insideDiameter) / 2, s.loose(drum.friction, vendorsFriction));
    if (drum.anchorRadius.value)
        shoes.anchorRadius = s(drum.anchorRadius);
    if (drum.shoeArc.value)
        shoes.arc = s(drum.shoeArc, noLength);
    if (!drum.anchorRadius.value || !drum.shoeArc.value)
        s.assume(tr("the shape of the shoes"));
    return shoes;
}

} // namespace

double selfLockingMargin(Evaluator& s, const Drum& drum)
{
    const auto shoes = shoesOf(s, drum);
    return stopping::selfLockingFriction(shoes) / shoes.friction - 1;
}

double brakeFactor(Evaluator& s, const Corner& c)
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
    return notGiven;
}

double wheelTorque(Evaluator& s, const Build& build, const Corner& corner, const Hydraulics& hydraulics)
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

double largestBrakeTorque(Evaluator& s, const Build& build, const SetupParts& setup, Axle axle)
{
    const AxleParts& parts = setup.at(axle);
    if (!parts.corner || !parts.wheel)
        return notGiven;
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
    return std::isfinite(byTyre + byPressure) ? std::min(byTyre, byPressure) : notGiven;
}

stopping::Car carOf(Evaluator& s, const Car& car, const LoadCase* load)
{
    return s.part({ "car", { &car, load } }, [&] {
        const stopping::Car alone { s(car.mass, noLength), s(car.wheelbase), s(car.centreOfMassHeight), s(car.frontLoadShare, noLength),
            s.orElse(car.dragArea, 0, noLength) };
        if (!load)
            return alone;
        std::vector<stopping::PointLoad> carried;
        for (const Carried& one : load->carried)
            carried.push_back({ s(one.mass, noLength), s(one.behindFrontAxle), s(one.height) });
        return stopping::laden(alone, carried);
    });
}

namespace {

stopping::AxleBrakes axleOf(Evaluator& s, const AxleParts& parts)
{
    if (!parts.corner || !parts.wheel)
        return { notGiven, notGiven, notGiven, notGiven, notGiven };
    const Corner& c = *parts.corner;
    return s.part({ "brakes of an axle", { &c, parts.wheel } }, [&] {
        return stopping::AxleBrakes { pistonArea(s, c), effectiveRadius(s, c), brakeFactor(s, c), s(parts.wheel->rollingRadius),
            s(parts.wheel->grip, noLength) };
    });
}

stopping::Brakes bothOf(Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load)
{
    stopping::Brakes brakes { axleOf(s, setup.front), axleOf(s, setup.rear) };
    const Hydraulics& h = *setup.hydraulics;
    if (h.master == MasterKind::Twin)
        brakes.rearOverFront = hydraulics::rearOverFront(masterOf(s, h, false));
    const bool read = h.rearKneePressure.value || h.rearSlope.value;
    if (h.valve == ValveKind::None || (h.valve == ValveKind::Unknown && !read)) {
        if (h.valve == ValveKind::Unknown)
            s.assume(tr("no valve to the rear"));
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

} // namespace

PartKey partKey(const char* name, const Build& build, const SetupParts& setup, const LoadCase* load)
{
    return { name, { &build, setup.hydraulics, setup.front.corner, setup.front.wheel, setup.rear.corner, setup.rear.wheel, load } };
}

stopping::Brakes brakesOf(Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load)
{
    // Only a valve that feels a load makes other brakes of it.
    const LoadCase* felt = setup.hydraulics->valve == ValveKind::LoadDependent ? load : nullptr;
    return s.part(partKey("brakes", build, setup, felt), [&] { return bothOf(s, build, setup, load); });
}

stopping::Braking braking(Evaluator& s, const Build& build, const SetupParts& setup)
{
    return s.part(partKey("braking", build, setup, nullptr), [&] {
        const auto car = carOf(s, build.car);
        const auto brakes = brakesOf(s, build, setup);
        return stopping::hardestBraking(car, brakes, pressure(s, build, *setup.hydraulics), build.car.antilock == YesNo::Yes,
            setting(build.wants.antilockQuality, &Wants::antilockQuality));
    });
}

stopping::Circumstances circumstances(Evaluator& s, const Build& build, const SetupParts& setup, const StopOf& of)
{
    const Wants& w = build.wants;
    static const Wants usual;
    stopping::Circumstances how {};
    how.fullPressure =
        of.pedal > 0 ? hydraulics::frontPressure(footOf(s, build, *setup.hydraulics), of.pedal) : pressure(s, build, *setup.hydraulics);
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

stopping::StopSimulation drive(Evaluator& s, const Build& build, const SetupParts& setup, const StopOf& of, bool withCourse)
{
    return stopping::drive(carOf(s, build.car, of.load), brakesOf(s, build, setup, of.load), circumstances(s, build, setup, of),
        of.speed > 0 ? of.speed : s(build.car.testSpeed, noLength), withCourse);
}

stopping::StopSimulation stop(Evaluator& s, const Build& build, const SetupParts& setup, bool withCourse)
{
    return drive(s, build, setup, {}, withCourse);
}

double stopRise(Evaluator& s, const Build& build, const SetupParts& setup, Axle axle)
{
    const auto held = braking(s, build, setup);
    const double share = (axle == Axle::Front ? held.frontShare : 1 - held.frontShare) / 2;
    const double energy = heat::stopEnergy(s(build.car.mass, noLength), s(build.car.testSpeed, noLength), 0);
    return heat::temperatureRise(energy, share, setup.at(axle).corner ? heatStore(s, *setup.at(axle).corner) : notGiven);
}

std::vector<std::string> unsaidOf(const SetupParts& setup)
{
    std::vector<std::string> lacks;
    for (const auto& [axle, word] : { std::pair { &setup.front, "front" }, std::pair { &setup.rear, "rear" } }) {
        if (!axle->wheel)
            lacks.push_back(tr("a wheel with its tyre ({})", word));
        if (axle->corner && axle->corner->brakes == BrakeKind::Discs && axle->corner->caliper.pistons.empty())
            lacks.emplace_back(tr("piston bores"));
        if (axle->corner && axle->corner->brakes == BrakeKind::Drums && axle->corner->drum.kind == DrumKind::Unknown)
            lacks.push_back(tr("kind of drum brake ({})", word));
    }
    if (setup.hydraulics->boosterGain.value.value_or(1) < 1)
        lacks.emplace_back(tr("a booster gain of 1 or more"));
    return lacks;
}

} // namespace deepstop::figures
