#pragma once
/// The Merle with every part that kits may bring beside rotor, caliper and pads, each of them right.

#include "core/support.hpp"

inline deepstop::Reading readAs(double value, double width = 0.05e-3)
{
    return { value, width, deepstop::Known::Measured, "vernier", "2026-05-01" };
}

/// An adapter ring and a bolted spacer in front, an all-metal lock nut, a trimmed shield, a relief in the bracket, worn linings read; a
/// rear caliper with a lever; a metering valve and a residual one.
inline deepstop::Build fittedOut()
{
    using namespace deepstop;
    Build build = demo();
    Corner& c = *build.setups[1].front;
    const double pilot = *build.frontHub.pilotDiameter.value;
    build.frontHub.pilotDiameter.plusMinus = 0.02e-3;
    c.rotor.bore = readAs(pilot + 6.1e-3, 0.02e-3);
    c.adapter = { RingSits::OnPilot, readAs(pilot + 0.06e-3, 0.02e-3), readAs(pilot + 6e-3, 0.02e-3), readAs(0, 0), Direction::Unknown };
    c.spacer = readAs(25e-3);
    c.spacerPart.kind = SpacerKind::Bolted;
    c.spacerPart.seat = readAs(8e-3);
    c.spacerPart.nutThread = readAs(14e-3);
    c.spacerPart.studLength = readAs(34e-3);
    c.spacerPart.studThread = *build.frontHub.studThread;
    c.spacerPart.torque = { 110.0, 0.0, Known::Vendor, {}, {} };
    build.frontHub.studLength = readAs(32e-3);
    c.shield.state = ShieldState::Trimmed;
    c.shield.diameter = readAs(0.2);
    c.shield.depth = build.frontHub.shieldDepth;
    c.shield.rim = readAs(0, 0);
    Joint& joint = c.joints[1];
    joint.nut = NutKind::AllMetal;
    joint.nutClass = NutClass::C10;
    joint.condition = joint.torqueFor = Condition::Dry;
    joint.nutSingleUse = YesNo::Yes;
    joint.timesUsed = 0;
    joint.underNut = ThreadIn::Steel;
    joint.washers = WashersUnder::None;
    joint.nutHeight = readAs(14e-3);
    joint.runningTorque = readAs(8, 1);
    joint.fastener = Fastener::Bolts;
    c.bracket.reliefs.push_back(
        { readAs(*build.frontHub.lugSpacing.value / 2), readAs(*build.frontHub.lugRadius.value), readAs(30e-3), readAs(3e-3) });
    for (Fitted* f : { &c.left, &c.right }) {
        f->innerLining = readAs(9e-3, 0.1e-3);
        f->outerLining = readAs(9.2e-3, 0.1e-3);
        f->entryLining = readAs(9e-3, 0.1e-3);
        f->exitLining = readAs(9.1e-3, 0.1e-3);
        f->wearSensor = SensorUse::New;
    }
    build.rearHub.parkingBrake = ParkingBrake::InCaliper;
    build.rearHub.electricParking = YesNo::No;
    build.rearHub.cableEnd = readAs(7.6e-3);
    build.rearHub.cableFree = readAs(74e-3, 1e-3);
    build.rearHub.cableTravel = readAs(26e-3, 1e-3);
    build.setups[1].rear = build.setups[0].rear;
    Corner& rear = *build.setups[1].rear;
    rear.caliper.name = "rear caliper with a lever";
    rear.caliper.parking = CaliperParking::Lever;
    rear.caliper.leverEye = readAs(8e-3);
    rear.caliper.leverFree = readAs(70e-3, 1e-3);
    rear.caliper.leverTravel = readAs(18e-3, 1e-3);
    rear.leverReturns = YesNo::Yes;
    Hydraulics& h = *build.setups[0].hydraulics;
    h.meteringPressure = readAs(0.5e5, 0.1e5);
    h.residualFront = readAs(0.14e5, 0.01e5);
    giveIds(build);
    return build;
}
