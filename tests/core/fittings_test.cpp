/// Parts that kits bring beside rotor, caliper and pads, each judged good when it is and stop or unproven when it is not.

#include "chapters/balance/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/heat/checks.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "chapters/joints/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "chapters/proving/calibrated.hpp"
#include "core/fittings.hpp"
#include "geometry/lining.hpp"
#include "heat/calibration.hpp"
#include "jobcard/jobcard.hpp"
#include "joints/nuts.hpp"

#include <QTest>

#include <numbers>

using namespace deepstop;

class FittingsTest : public QObject {
    Q_OBJECT
private slots:
    void theBrakeLineIsJudgedJointByJoint()
    {
        const auto judged = [](auto change, int number) {
            Build build = demo();
            change(front(build).hose.chain);
            return Verdict(verdict(studied(build), checks::lineJoint, { .axle = Axle::Front, .number = number }));
        };
        using Chain = std::vector<LinePart>;
        for (int i = 1; i <= 3; ++i)
            QCOMPARE(judged([](Chain&) {}, i).level, Level::Good);
        const auto stops = [&](const char* words, int number, auto change) {
            const Verdict v = judged(change, number);
            return v.level == Level::Stop && says(v, words);
        };
        QVERIFY(stops("does not go with", 1, [](Chain& c) { c[1].inner.thread = std::string("M12x1"); }));
        QVERIFY(stops("Both ends are male", 3, [](Chain& c) { c[2].outer.gender = Gender::Male; }));
        QVERIFY(stops("cannot seal", 3, [](Chain& c) { c[2].outer.seat = Seat::InvertedFlare; }));
        QVERIFY(stops("1 crush washers where 2 belong", 1, [](Chain& c) { c[1].crushWashers = 1; }));
        QVERIFY(stops("used before", 1, [](Chain& c) { c[1].newWashers = YesNo::No; }));
        QVERIFY(stops("washer belongs", 3, [](Chain& c) { c[3].crushWashers = 1; }));
        QVERIFY(stops("seals by sealant", 3, [](Chain& c) {
            c[2].outer.seat = Seat::TaperThread;
            c[3].inner.seat = Seat::TaperThread;
        }));
        // The eye is no better than the washers beside it.
        QVERIFY(stops("used before", 2, [](Chain& c) { c[1].newWashers = YesNo::No; }));
        QCOMPARE(judged([](Chain& c) { c[1].newWashers = YesNo::Unknown; }, 2).level, Level::Unproven);
        QCOMPARE(judged([](Chain& c) { c[1].crushWashers = notCounted; }, 2).level, Level::Unproven);
        QCOMPARE(judged([](Chain& c) { c[1].newWashers = YesNo::Unknown; }, 1).level, Level::Unproven);
        QCOMPARE(judged([](Chain& c) { c[2].outer.seat = Seat::Unknown; }, 3).level, Level::Unproven);
        QCOMPARE(judged([](Chain& c) { c[3].inner.gender = Gender::Unknown; }, 3).level, Level::Unproven);
    }

    void theWholeLineGoesFromPortToHardLine()
    {
        const auto judged = [](auto change) {
            Build build = demo();
            change(build);
            return Verdict(verdict(studied(build), checks::hoseThread, { Axle::Front }));
        };
        QCOMPARE(judged([](Build&) {}).level, Level::Good);
        QCOMPARE(judged([](Build& b) { front(b).hose.chain.pop_back(); }).level, Level::Unproven);
        QCOMPARE(judged([](Build& b) { front(b).hose.chain.erase(front(b).hose.chain.begin()); }).level, Level::Unproven);
        QCOMPARE(judged([](Build& b) { b.frontHub.lineThread = std::string("3/8-24"); }).level, Level::Stop);
        // A new hose whose ends are only known by their threads is not good.
        const Verdict bare = judged([](Build& b) { front(b).hose.chain.clear(); });
        QCOMPARE(bare.level, Level::Caution);
        QVERIFY(says(bare, "how each end seals is not said"));
        const auto held = [](YesNo strut, YesNo grommet) {
            Build build = demo();
            front(build).hose.heldAtStrut = strut;
            front(build).hose.grommet = grommet;
            return verdict(studied(build), checks::hoseHeld, { Axle::Front }).level;
        };
        QCOMPARE(held(YesNo::Yes, YesNo::Yes), Level::Good);
        QCOMPARE(held(YesNo::No, YesNo::Yes), Level::Stop);
        QCOMPARE(held(YesNo::Yes, YesNo::Unknown), Level::Unproven);
    }

    /// A rear caliper with a parking brake of its own, on a car whose caliper held it: by its measures, not by a tick.
    void aParkingBrakeInTheNewCaliper()
    {
        Build good = demo();
        good.rearHub.parkingBrake = ParkingBrake::InCaliper;
        good.rearHub.electricParking = YesNo::No;
        good.rearHub.cableEnd = measured(7.6e-3);
        good.rearHub.cableFree = measured(74e-3, 1e-3);
        good.rearHub.cableTravel = measured(26e-3, 1e-3);
        good.setups[1].rear = good.setups[0].rear;
        Caliper& caliper = good.setups[1].rear->caliper;
        caliper.name = "other";
        caliper.parking = CaliperParking::Lever;
        caliper.leverEye = measured(8e-3);
        caliper.leverFree = measured(70e-3, 1e-3);
        caliper.leverTravel = measured(18e-3, 1e-3);
        good.setups[1].rear->leverReturns = YesNo::Yes;
        const auto judged = [&](auto change) {
            Build build = good;
            change(build);
            return Verdict(verdict(studied(build), checks::parkingBrake, { Axle::Rear }));
        };
        QCOMPARE(judged([](Build&) {}).level, Level::Good);
        const auto stops = [&](const char* words, auto change) {
            const Verdict v = judged(change);
            return v.level == Level::Stop && says(v, words);
        };
        QVERIFY(stops("too wide", [](Build& b) { b.rearHub.cableEnd = measured(9e-3); }));
        QVERIFY(stops("of play", [](Build& b) { b.rearHub.cableEnd = measured(5e-3); }));
        QVERIFY(stops("too short", [](Build& b) { b.rearHub.cableFree = measured(60e-3); }));
        QVERIFY(stops("too long", [](Build& b) { b.rearHub.cableFree = measured(95e-3); }));
        QVERIFY(stops("needs to hold", [](Build& b) { b.rearHub.cableTravel = measured(10e-3); }));
        QVERIFY(stops("does not go back", [](Build& b) { b.setups[1].rear->leverReturns = YesNo::No; }));
        QVERIFY(stops("a motor works", [](Build& b) { b.rearHub.electricParking = YesNo::Yes; }));
        QCOMPARE(judged([](Build& b) { b.setups[1].rear->leverReturns = YesNo::Unknown; }).level, Level::Unproven);
        QCOMPARE(judged([](Build& b) { b.rearHub.cableTravel = {}; }).level, Level::Unproven);
        // A tick does not make it good, with the caliper's own or without.
        QVERIFY(stops("too short", [](Build& b) {
            b.rearHub.cableFree = measured(60e-3);
            b.setups[1].parkingBrakeReplaced = YesNo::Yes;
        }));
        QCOMPARE(judged([](Build& b) {
            b.setups[1].rear->caliper.parking = CaliperParking::None;
            b.setups[1].parkingBrakeReplaced = YesNo::Yes;
        }).level,
            Level::Caution);
        QVERIFY(stops("nothing on this car to drive it", [](Build& b) { b.setups[1].rear->caliper.parking = CaliperParking::Electric; }));
        QVERIFY(stops("does not go with", [](Build& b) {
            b.setups[1].rear->caliper.parking = CaliperParking::Electric;
            b.rearHub.electricParking = YesNo::Yes;
            b.rearHub.parkingConnector = std::string("two pins, grey");
            b.setups[1].rear->caliper.parkingConnector = std::string("three pins, black");
        }));
        // Off, on and set, each a step.
        const auto card = jobcard::cardOf(studied(good));
        for (const char* id : { "rear/left/parking-off", "rear/right/parking-on", "rear/parking-set" })
            QVERIFY2(card.step(id), id);
    }

    void anAdapterRingOnThePilot()
    {
        Build good = demo();
        const double pilot = *good.frontHub.pilotDiameter.value;
        front(good).rotor.bore = measured(pilot + 6.1e-3, 0.02e-3);
        front(good).adapter.inside = measured(pilot + 0.06e-3, 0.02e-3);
        front(good).adapter.outside = measured(pilot + 6e-3, 0.02e-3);
        front(good).adapter.step = measured(0, 0);
        front(good).adapter.sits = RingSits::OnPilot;
        good.frontHub.pilotDiameter.plusMinus = 0.02e-3;
        const auto judged = [&](const Check& check, auto change) {
            Build build = good;
            change(build);
            return Verdict(verdict(studied(build), check, { Axle::Front }));
        };
        QCOMPARE(judged(checks::bore, [](Build&) {}).level, Level::Good);
        QCOMPARE(judged(checks::adapterRing, [](Build&) {}).level, Level::Good);
        QCOMPARE(judged(checks::bore, [&](Build& b) { front(b).adapter.outside = measured(pilot + 7e-3); }).level, Level::Stop);
        QCOMPARE(judged(checks::adapterRing, [&](Build& b) { front(b).adapter.inside = measured(pilot - 0.5e-3); }).level, Level::Stop);
        const auto collar = [&](Direction side, double step) {
            return judged(checks::adapterRing, [&](Build& b) {
                front(b).adapter.step = measured(step, 0.02e-3);
                front(b).adapter.stepSide = side;
            });
        };
        QCOMPARE(collar(Direction::Inboard, 2e-3).level, Level::Stop);
        QCOMPARE(collar(Direction::Outboard, 2e-3).level, Level::Stop);
        QCOMPARE(collar(Direction::Unknown, 2e-3).level, Level::Unproven);
        QCOMPARE(judged(checks::adapterRing, [](Build& b) { front(b).adapter.step = {}; }).level, Level::Unproven);
        QCOMPARE(judged(checks::adapterRing, [](Build& b) { front(b).adapter.sits = RingSits::Unknown; }).level, Level::Unproven);
    }

    void aCapThatStandsOnThePilotHoldsTheRotorOff()
    {
        const auto judged = [](double depth) {
            Build build = demo();
            front(build).rotor.capped = YesNo::Yes;
            front(build).rotor.capDepth = measured(*build.frontHub.pilotHeight.value + depth, 0.1e-3);
            return verdict(studied(build), checks::cap, { Axle::Front }).level;
        };
        QCOMPARE(judged(4e-3), Level::Good);
        QCOMPARE(judged(0.8e-3), Level::Caution);
        QCOMPARE(judged(-2e-3), Level::Stop);
        Build unread = demo();
        front(unread).rotor.capped = YesNo::Yes;
        QCOMPARE(verdict(studied(unread), checks::cap, { Axle::Front }).level, Level::Unproven);
        // The wheel centres on the cap, which is not read either.
        QCOMPARE(verdict(studied(unread), checks::pilot, { Axle::Front }).level, Level::Unproven);
    }

    /// A corner of the knuckle that a bracket strikes, and clears with a relief over it.
    void aReliefClearsTheLug()
    {
        Build build = demo();
        KeepOut& corner = build.frontHub.keepOuts[0];
        // At a lug, beyond the end of the caliper's body.
        const double across = *build.frontHub.lugSpacing.value / 2;
        const double along = *build.frontHub.lugRadius.value;
        const double clock = *front(build).mount.clock.value + std::atan2(across, along);
        corner.kind = KeepOutKind::HubCorner;
        corner.depth = measured(*build.frontHub.lugDepth.value - 2e-3);
        corner.radius = measured(std::hypot(across, along));
        corner.clock = measured(clock, 0.001);
        const auto level = [](const Build& b) {
            return Verdict(verdict(studied(b), checks::fixedParts, { .axle = Axle::Front, .number = 1 }));
        };
        QCOMPARE(level(build).level, Level::Hits);
        Build relieved = build;
        front(relieved).bracket.reliefs.push_back({ measured(across), measured(along), measured(30e-3), measured(8e-3) });
        QVERIFY(*level(relieved).figure.value > *level(build).figure.value + 5e-3);
        // Too deep a relief leaves too little metal.
        front(relieved).bracket.reliefs[0].depth = measured(*front(relieved).bracket.thickness.value * 0.7);
        QCOMPARE(verdict(studied(relieved), checks::relief, { Axle::Front }).level, Level::Caution);
        // Where its angle is not read, it may stand there, or not.
        corner.clock = {};
        QCOMPARE(level(build).level, Level::Unproven);
        // Far round the axle it is in nobody's way.
        corner.clock = measured(*front(build).mount.clock.value + std::numbers::pi, 0.01);
        QCOMPARE(level(build).level, Level::Clear);
    }

    void aShieldThatWasChanged()
    {
        const auto judged = [](auto change) {
            Build build = demo();
            change(build);
            return Verdict(verdict(studied(build), checks::shield, { Axle::Front }));
        };
        QCOMPARE(judged([](Build&) {}).level, Level::Caution);
        QCOMPARE(judged([](Build& b) {
            front(b).shield.state = ShieldState::Trimmed;
            front(b).shield.diameter = measured(0.20);
            front(b).shield.depth = b.frontHub.shieldDepth;
            front(b).shield.rim = measured(0, 0);
        }).level,
            Level::Clear);
        QCOMPARE(judged([](Build& b) { front(b).shield.state = ShieldState::Trimmed; }).level, Level::Unproven);
        QCOMPARE(judged([](Build& b) {
            front(b).shield.state = ShieldState::Removed;
            b.frontHub.parkingBrake = ParkingBrake::None;
        }).level,
            Level::Good);
        QCOMPARE(judged([](Build& b) {
            front(b).shield.state = ShieldState::Removed;
            b.frontHub.parkingBrake = ParkingBrake::Unknown;
        }).level,
            Level::Unproven);
        QCOMPARE(judged([](Build& b) {
            front(b).shield.state = ShieldState::Removed;
            b.frontHub.parkingBrake = ParkingBrake::DrumInHat;
        }).level,
            Level::Caution);
        // A lip whose rib was not read.
        QCOMPARE(judged([](Build& b) {
            front(b).shield.state = ShieldState::Trimmed;
            front(b).shield.diameter = measured(0.20);
            front(b).shield.depth = b.frontHub.shieldDepth;
            front(b).shield.rim = measured(0, 0);
            front(b).rotor.inboardLip = measured(3e-3);
        }).level,
            Level::Unproven);
    }

    /// A plate between flange and rotor is part of the stack; one between knuckle and hub lets the hub in when it is taken out.
    void aClampedPlateMovesWhatItHolds()
    {
        const Build plain = demo();
        Build stacked = plain;
        front(stacked).shield.lies = PlateLies::FlangeAndRotor;
        front(stacked).shield.plate = measured(1.5e-3);
        front(stacked).shield.state = ShieldState::AsFound;
        const Study was = studied(plain);
        const Study is = studied(stacked);
        const auto moved = [&](const Study& now, const Check& check) {
            return *verdict(now, check, { Axle::Front }).figure.value - *verdict(was, check, { Axle::Front }).figure.value;
        };
        QVERIFY(std::abs(moved(is, checks::wheelPlace) - 1.5e-3) < 1e-9);
        QVERIFY(std::abs(moved(is, checks::pilot) + 1.5e-3) < 1e-9);
        Build out = plain;
        front(out).shield.lies = PlateLies::KnuckleAndHub;
        front(out).shield.plate = measured(1.5e-3);
        front(out).shield.state = ShieldState::Removed;
        front(out).shield.readWith = YesNo::No;
        const Study in = studied(out);
        QVERIFY(std::abs(moved(in, checks::wheelPlace) + 1.5e-3) < 1e-9);
        QCOMPARE(verdict(in, checks::shieldPlate, { Axle::Front }).level, Level::Unproven);
        front(out).shield.readWith = YesNo::Yes;
        QCOMPARE(verdict(studied(out), checks::shieldPlate, { Axle::Front }).level, Level::Good);
        // Taken out, and not said whether its plate was clamped there: it may have been.
        front(out).shield.lies = PlateLies::Unknown;
        front(out).shield.readWith = YesNo::Unknown;
        const Study unsaid = studied(out);
        const Verdict& plate = verdict(unsaid, checks::shieldPlate, { Axle::Front });
        QVERIFY(plate.level == Level::Unproven && says(plate, "clamped between knuckle and hub"));
        QVERIFY(verdict(unsaid, checks::wheelPlace, { Axle::Front }).figure.provisional());
        front(out).shield.lies = PlateLies::Free;
        QVERIFY(!studied(out).verdict(checks::shieldPlate, { Axle::Front }));
    }

    void aBoltedSpacerHasTwoJoints()
    {
        Build good = demo();
        Corner& c = front(good);
        c.spacer = measured(25e-3);
        c.spacerPart.kind = SpacerKind::Bolted;
        c.spacerPart.seat = measured(8e-3);
        c.spacerPart.nutThread = measured(14e-3);
        c.spacerPart.studLength = measured(34e-3);
        c.spacerPart.studThread = *good.frontHub.studThread;
        c.spacerPart.torque = { 110.0, 0.0, Known::Vendor, {}, {} };
        good.frontHub.studLength = measured(32e-3);
        const auto judged = [&](const Check& check, auto change) {
            Build build = good;
            change(build);
            return Verdict(verdict(studied(build), check, { Axle::Front })).level;
        };
        for (const Check* check : { &checks::studs, &checks::spacerNuts, &checks::proudStuds })
            QCOMPARE(judged(*check, [](Build&) {}), Level::Good);
        QCOMPARE(judged(checks::proudStuds, [](Build& b) { b.frontHub.studLength = measured(45e-3); }), Level::Stop);
        // Recesses in the wheel's back take them.
        QCOMPARE(judged(checks::proudStuds,
                     [](Build& b) {
                         b.frontHub.studLength = measured(38e-3);
                         for (Wheel& wheel : b.wheels)
                             wheel.backPocket = measured(12e-3);
                     }),
            Level::Good);
        QCOMPARE(judged(checks::spacerNuts, [](Build& b) { front(b).spacerPart.seat = measured(20e-3); }), Level::Stop);
        QCOMPARE(judged(checks::spacerNuts, [](Build& b) { front(b).spacerPart.torque = {}; }), Level::Unproven);
        QCOMPARE(judged(checks::studs, [](Build& b) { front(b).spacerPart.studLength = measured(18e-3); }), Level::Stop);
        QCOMPARE(judged(checks::studs, [](Build& b) { front(b).spacerPart.kind = SpacerKind::Unknown; }), Level::Unproven);
        const auto card = jobcard::cardOf(studied(good));
        QVERIFY(card.step("front/left/spacer") && card.step("front/left/spacer")->torque);
    }

    void centreLocksAndKnockOffs()
    {
        Build good = demo();
        good.frontHub.heldBy = WheelHeldBy::CentreLock;
        good.frontHub.studThread = std::string("M52x1.5");
        good.frontHub.studLength = measured(60e-3);
        good.frontHub.nutThread = measured(20e-3);
        good.frontHub.pinLength = measured(30e-3);
        good.frontHub.nutLocked = YesNo::Yes;
        const auto judged = [&](const Check& check, auto change) {
            Build build = good;
            change(build);
            return Verdict(verdict(studied(build), check, { Axle::Front })).level;
        };
        QCOMPARE(judged(checks::studs, [](Build&) {}), Level::Good);
        QCOMPARE(judged(checks::drivePins, [](Build&) {}), Level::Good);
        QCOMPARE(judged(checks::studs, [](Build& b) { b.frontHub.studLength = measured(30e-3); }), Level::Stop);
        QCOMPARE(judged(checks::drivePins, [](Build& b) { b.frontHub.pinLength = measured(9e-3); }), Level::Stop);
        QCOMPARE(judged(checks::drivePins, [](Build& b) { b.frontHub.nutLocked = YesNo::No; }), Level::Stop);
        QCOMPARE(judged(checks::drivePins, [](Build& b) { b.frontHub.nutLocked = YesNo::Unknown; }), Level::Unproven);
        good.frontHub.heldBy = WheelHeldBy::KnockOff;
        QCOMPARE(judged(checks::drivePins, [](Build& b) { b.frontHub.nutLocked = YesNo::No; }), Level::Stop);
    }

    void liningsTellOfSlidesAndTaper()
    {
        const auto judged = [](double inner, double outer, double entry, double exit) {
            Build build = demo();
            front(build).caliper.kind = CaliperKind::Floating;
            for (Fitted* f : { &front(build).left, &front(build).right }) {
                f->innerLining = measured(inner, 0.1e-3);
                f->outerLining = measured(outer, 0.1e-3);
                if (entry > 0) {
                    f->entryLining = measured(entry, 0.1e-3);
                    f->exitLining = measured(exit, 0.1e-3);
                }
            }
            return Verdict(verdict(studied(build), checks::liningEven, { Axle::Front }));
        };
        QCOMPARE(judged(8e-3, 8.4e-3, 0, 0).level, Level::Good);
        const Verdict sticks = judged(4e-3, 8e-3, 0, 0);
        QVERIFY(sticks.level == Level::Caution && says(sticks, "slides stick"));
        const Verdict taper = judged(8e-3, 8e-3, 6e-3, 8.5e-3);
        QVERIFY(taper.level == Level::Caution && says(taper, "taper"));
        // One pad alone tells nothing of the other.
        Build one = demo();
        front(one).left.innerLining = front(one).right.innerLining = measured(8e-3);
        QCOMPARE(verdict(studied(one), checks::liningEven, { Axle::Front }).level, Level::Unproven);
        // The thinnest of all that was read is what is left.
        Build thin = demo();
        for (Fitted* f : { &front(thin).left, &front(thin).right }) {
            f->liningThickness = measured(9e-3);
            f->entryLining = measured(1.5e-3);
            f->exitLining = measured(9e-3);
        }
        QCOMPARE(verdict(studied(thin), checks::wornPad, { Axle::Front }).level, Level::Stop);
    }

    void carbonCeramicWearsByWeight()
    {
        const auto judged = [](double mass) {
            Build build = demo();
            Corner& c = front(build);
            c.rotor.ringMaterial = RingMaterial::CarbonCeramic;
            c.rotor.minimumMass = { 5.2, 0.0, Known::Vendor, {}, {} };
            for (Fitted* f : { &c.left, &c.right })
                if (mass > 0)
                    f->rotorMass = { mass, 0.005, Known::Measured, "scale", "2026-05-01" };
            return verdict(studied(build), checks::wornRotor, { Axle::Front }).level;
        };
        QCOMPARE(judged(5.5), Level::Good);
        QCOMPARE(judged(5.22), Level::Caution);
        QCOMPARE(judged(5.1), Level::Stop);
        // As thick as new says nothing.
        QCOMPARE(judged(0), Level::Unproven);
        Build build = demo();
        front(build).rotor.ringMaterial = RingMaterial::CarbonCeramic;
        QVERIFY(jobcard::cardOf(studied(build)).step("front/ceramic"));
    }

    void valvesInTheLines()
    {
        const auto with = [](auto change) {
            Build build = demo();
            build.car.antilock = YesNo::No;
            change(*build.setups[0].hydraulics);
            return studied(build);
        };
        // Discs hold no pressure; 2 psi are a valve for a low master cylinder.
        const auto residual = [&](double bar) {
            const Study s = with([&](Hydraulics& h) { h.residualFront = { bar * 1e5, 0.02e5, Known::Measured, "gauge", "2026-05-01" }; });
            return verdict(s, checks::residual, { Axle::Front }).level;
        };
        QCOMPARE(residual(0.14), Level::Good);
        QCOMPARE(residual(0.7), Level::Stop);
        // On ice a rear that brakes alone locks first.
        const auto metering = [&](double bar) {
            return Verdict(verdict(with([&](Hydraulics& h) {
                h.meteringPressure = { bar * 1e5, 0.1e5, Known::Measured, "gauge", "2026-05-01" };
            }),
                checks::metering));
        };
        QCOMPARE(metering(60).level, Level::Stop);
        QVERIFY(says(metering(60), "lock first"));
        QVERIFY(!isFine(metering(2).level)); // of no use with discs behind
    }

    /// A label keeps the highest of the surface, some time up to when it is read; taken for the temperature at that moment it is a fault of
    /// the thermometer.
    void aLabelKeepsTheHighest()
    {
        {
            const Study s = studied(demo());
            const auto& d = s.of<DutyStudy>();
            QVERIFY(d.after.run);
            const heat::Run& run = *d.after.run;
            const auto surface = [](const heat::Moment& m) { return m.front[static_cast<std::size_t>(heat::Node::Surface)]; };
            heat::Taken taken { 0, true, heat::Node::Surface, 0, 8 };
            double peak = 0;
            for (const heat::Moment& m : run.course) {
                peak = std::max(peak, surface(m));
                if (taken.time == 0 && peak - surface(m) > 30)
                    taken.time = m.time;
            }
            QVERIFY(taken.time > 0);
            const double highest = heat::highestUpTo(run, taken);
            QVERIFY(highest > surface(heat::momentAt(run, taken.time)) + 20);
            taken.temperature = highest;
            taken.highest = true;
            QVERIFY(!heldAgainst(run, { taken })[0].far);
            taken.highest = false;
            QVERIFY(heldAgainst(run, { taken })[0].far);
            // Before it was that hot it cannot have shown it.
            taken.time = 1;
            QVERIFY(heat::highestUpTo(run, taken) < highest);
        }
    }

    /// By hand: an outline of 100 × 50 mm at 160 mm, ends along radii: asin(50/160) · (160² − 110²) = 42.9 cm², a seventh less than 50.
    void aLiningFollowsItsRing()
    {
        QVERIFY(near(geometry::liningBetweenRadii(0.160, 0.05, 0.1), 42.90e-4, 0.001));
        QVERIFY(geometry::liningBetweenParallels(0.160, 0.05, 0.1) > geometry::liningBetweenRadii(0.160, 0.05, 0.1));
        // Tiny beside its radius it is a rectangle.
        QVERIFY(near(geometry::liningBetweenParallels(10, 0.05, 0.1), 50e-4, 1e-4));
        for (const double bad : { double(NAN), 0.0, -1.0, 0.4 }) {
            QVERIFY(std::isnan(geometry::liningBetweenRadii(0.16, 0.05, bad)));
            QVERIFY(std::isnan(geometry::liningBetweenParallels(0.16, 0.05, bad)));
        }
        // Nobody has said how it ends: the smaller, and no proof.
        Build build = demo();
        front(build).pad.area = {};
        front(build).pad.ends = PadEnds::Unknown;
        const Study s = studied(build);
        QCOMPARE(verdict(s, checks::firstLimit).level, Level::Unproven);
    }
};

DEEPSTOP_TEST(FittingsTest)
#include "fittings_test.moc"
