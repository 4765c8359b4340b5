/// One row a trap: each starts from a demo, changes what the trap changes, and wants the level and the words; beside it the honest case.

#include "chapters/clearance/clearance.hpp"
#include "core/support.hpp"
#include "joints/bolts.hpp"
#include "stopping/drum.hpp"

#include <cmath>

using namespace deepstop;

namespace {

Reading mm(double value, double plusMinus = 0.03) { return { value * 1e-3, plusMinus * 1e-3, Known::Measured, "vernier", {} }; }
Corner& kit(Build& build) { return *build.setups[1].front; }

struct Trap {
    const char* demo;
    const char* verdict;
    Level level;
    const char* words;
    void (*set)(Build&);
};

/// In the order of what they are about; the second of a pair is the honest case.
const std::vector<std::pair<const char*, Trap>>& traps()
{
    static const std::vector<std::pair<const char*, Trap>> all {
        { "weights nobody has placed",
            { "halden-merle", "front/barrel-gap", Level::Unproven, "balance weights anywhere",
                [](Build& b) {
                    std::erase_if(b.wheels[0].insets, [](const Inset& i) { return i.kind == InsetKind::Weights; });
                    b.wheels[0].balanceWeights = YesNo::Unknown;
                } } },
        { "weights that are said to be there, and nobody has placed",
            { "halden-merle", "front/barrel-gap", Level::Unproven, "balance weights anywhere",
                [](Build& b) { std::erase_if(b.wheels[0].insets, [](const Inset& i) { return i.kind == InsetKind::Weights; }); } } },
        { "no weights, as somebody said",
            { "halden-merle", "front/barrel-gap", Level::Tight, "at worst",
                [](Build& b) {
                    std::erase_if(b.wheels[0].insets, [](const Inset& i) { return i.kind == InsetKind::Weights; });
                    b.wheels[0].balanceWeights = YesNo::No;
                } } },
        { "one line down the spokes",
            { "halden-merle", "front/spoke-gap", Level::Unproven, "like the one line measured",
                [](Build& b) {
                    std::erase_if(b.wheels[0].spokes, [](const SpokeStation& s) { return s.along == "edge of a spoke"; });
                    b.wheels[0].spokesAlike = YesNo::Unknown;
                } } },
        { "one line, and all are alike",
            { "halden-merle", "front/spoke-gap", Level::Clear, "at worst",
                [](Build& b) {
                    std::erase_if(b.wheels[0].spokes, [](const SpokeStation& s) { return s.along == "edge of a spoke"; });
                    b.wheels[0].spokesAlike = YesNo::Yes;
                } } },
        { "a wheel known by its printed size, far too small for certain",
            { "halden-merle", "front/barrel-gap", Level::Hits, "Overlaps",
                [](Build& b) {
                    b.wheels[0].barrel.clear();
                    b.wheels[0].insets.clear();
                    b.wheels[0].nominalDiameter = 14;
                } } },
        { "a wheel known by its printed size, that may or may not do",
            { "halden-merle", "front/barrel-gap", Level::Unproven, "estimated from its printed size",
                [](Build& b) {
                    b.wheels[0].barrel.clear();
                    b.wheels[0].insets.clear();
                    b.wheels[0].nominalDiameter = 16;
                } } },
        { "the right caliper 8 mm further out than the left",
            { "halden-merle", "front/spoke-gap", Level::Hits, "Right: ", [](Build& b) { *kit(b).right.slotCentre.value += 8e-3; } } },
        { "nobody has read the right side",
            { "halden-merle", "front/face-gap", Level::Unproven, "right", [](Build& b) { kit(b).right.slotCentre = {}; } } },
        { "a piston that leaves its bore",
            { "halden-merle", "front/piston-stroke", Level::Stop, "out of its bore",
                [](Build& b) { kit(b).caliper.pistonStroke = mm(12); } } },
        { "a piston with stroke enough",
            { "halden-merle", "front/piston-stroke", Level::Good, "stroke left", [](Build& b) { kit(b).caliper.pistonStroke = mm(14); } } },
        { "a caliper made for a thicker rotor, of unknown stroke",
            { "halden-merle", "front/piston-stroke", Level::Unproven, "farthest a piston may come out",
                [](Build& b) { kit(b).caliper.padRoom = mm(66); } } },
        { "hot pads that drag",
            { "halden-merle", "front/pad-slot", Level::Caution, "hot pads", [](Build& b) { kit(b).caliper.padRoom = mm(60.6); } } },
        { "fixed or floating, nobody says",
            { "halden-merle", "front/barrel-gap", Level::Unproven, "a caliper that does not slide",
                [](Build& b) { kit(b).caliper.kind = CaliperKind::Unknown; } } },
        { "fixed or floating, nobody says, and the gaps look well",
            { "halden-merle", "front-left/axial", Level::Unproven, "gaps to its carrier",
                [](Build& b) {
                    kit(b).caliper.kind = CaliperKind::Unknown;
                    for (MockUp& m : b.mockUps)
                        for (Reading* gap : { &m.innerTop, &m.outerTop, &m.innerBottom, &m.outerBottom })
                            *gap = mm(2.25, 0.02);
                } } },
        { "the same gaps, of a floating caliper's carrier",
            { "halden-merle", "front-left/axial", Level::Good, "read to the carrier",
                [](Build& b) {
                    kit(b).caliper.kind = CaliperKind::Floating;
                    for (MockUp& m : b.mockUps)
                        for (Reading* gap : { &m.innerTop, &m.outerTop, &m.innerBottom, &m.outerBottom })
                            *gap = mm(2.25, 0.02);
                } } },
        { "a bracket's edge that reaches the barrel",
            { "halden-merle", "front/bracket-edge", Level::Hits, "Overlaps",
                [](Build& b) {
                    kit(b).bracket.outline = { { mm(60), mm(192) } };
                } } },
        { "a bracket's edge well inside",
            { "halden-merle", "front/bracket-edge", Level::Clear, "at worst",
                [](Build& b) {
                    kit(b).bracket.outline = { { mm(60), mm(150) } };
                } } },
        { "a bracket's edge half read",
            { "halden-merle", "front/bracket-edge", Level::Unproven, "from the axis",
                [](Build& b) {
                    kit(b).bracket.outline = { { mm(60), {} } };
                } } },
        { "a ring of unknown material",
            { "halden-merle", "front/bridge-gap", Level::Unproven, "ring of iron",
                [](Build& b) { kit(b).rotor.ringMaterial = RingMaterial::Unknown; } } },
        { "a floating ring whose play nobody has read",
            { "halden-merle", "front/face-gap", Level::Unproven, "axial play", [](Build& b) { kit(b).rotor.ringPlay = {}; } } },
        { "a bolt that lands on its shank",
            { "halden-merle", "front/joint-1-shank", Level::Stop, "out of the grip", [](Build& b) { kit(b).joints[0].shank = mm(20); } } },
        { "a dry figure on greased threads",
            { "halden-merle", "front/joint-1-torque", Level::Caution, "meant for dry threads",
                [](Build& b) { kit(b).joints[0].torqueFor = Condition::Dry; } } },
        { "a torque meant for nobody knows what",
            { "halden-merle", "front/joint-1-torque", Level::Unproven, "what condition the maker's torque is for",
                [](Build& b) { kit(b).joints[0].torqueFor = Condition::Unknown; } } },
        { "threads in a condition nobody says",
            { "halden-merle", "front/joint-1-slip", Level::Unproven, "condition of the threads",
                [](Build& b) { kit(b).joints[0].condition = Condition::Unknown; } } },
        { "a plain head on aluminium",
            { "halden-merle", "front/joint-1-head", Level::Caution, "hardened washers",
                [](Build& b) {
                    kit(b).joints[0].underHead = ThreadIn::Aluminium;
                    kit(b).joints[0].headDiameter = mm(21);
                } } },
        { "a wide flange on aluminium",
            { "halden-merle", "front/joint-1-head", Level::Good, "on aluminium",
                [](Build& b) {
                    kit(b).joints[0].underHead = ThreadIn::Aluminium;
                    kit(b).joints[0].headDiameter = mm(32);
                } } },
        { "which shims lie in the grip, nobody says",
            { "halden-merle", "front/joint-1-thread", Level::Unproven, "which shims lie in the grip",
                [](Build& b) { kit(b).joints[0].shims = ShimsIn::Unknown; } } },
        { "a closed nut that bottoms",
            { "halden-merle", "front/nut-bottom", Level::Stop, "bottoms in its nut",
                [](Build& b) {
                    b.frontHub.nutEnd = NutEnd::Closed;
                    b.frontHub.nutDepth = mm(18);
                } } },
        { "a closed nut deep enough",
            { "halden-merle", "front/nut-bottom", Level::Good, "to the bottom of the nut",
                [](Build& b) {
                    b.frontHub.nutEnd = NutEnd::Closed;
                    b.frontHub.nutDepth = mm(24);
                } } },
        { "nuts nobody looked at, on long studs",
            { "halden-merle", "front/nut-bottom", Level::Unproven, "open or closed",
                [](Build& b) { b.frontHub.nutEnd = NutEnd::Unknown; } } },
        { "cones of 90 degrees on seats of 60",
            { "halden-merle", "front/nut-seat", Level::Stop, "Cones of 90", [](Build& b) { b.frontHub.seatAngle.value = 1.5708; } } },
        { "balls of another radius",
            { "drover-camper", "front/nut-seat", Level::Stop, "Balls of radius 13",
                [](Build& b) { b.frontHub.seatRadius = mm(13, 0.1); } } },
        { "wheel bolts too short behind a spacer",
            { "drover-camper", "front/studs", Level::Stop, "longer", [](Build& b) { kit(b).spacer = mm(10); } } },
        { "wheel bolts that reach the shoes",
            { "drover-camper", "front/bolt-end", Level::Stop, "", [](Build& b) { b.frontHub.wheelBoltLength = mm(48); } } },
        { "wheel bolts that do", { "drover-camper", "front/studs", Level::Good, "turns", [](Build&) {} } },
        { "a chamfered pilot",
            { "halden-merle", "front/pilot", Level::Caution, "4.0 mm wanted", [](Build& b) { b.frontHub.pilotChamfer = mm(3); } } },
        { "the rear locks first, without antilock",
            { "halden-merle", "balance/lock-order", Level::Stop, "turns round",
                [](Build& b) {
                    b.car.antilock = YesNo::No;
                    b.setups[0].hydraulics->rearKneePressure = {};
                    b.setups[0].hydraulics->rearSlope = {};
                    b.setups[0].hydraulics->valve = ValveKind::None;
                    for (Reading& bore : b.setups[0].rear->caliper.pistons)
                        bore.value = *bore.value * 1.3;
                } } },
        { "the same with antilock: held back, and nothing turns round",
            { "halden-merle", "balance/lock-order", Level::Caution, "antilock holds it back",
                [](Build& b) {
                    b.setups[0].hydraulics->rearKneePressure = {};
                    b.setups[0].hydraulics->rearSlope = {};
                    b.setups[0].hydraulics->valve = ValveKind::None;
                    for (Reading& bore : b.setups[0].rear->caliper.pistons)
                        bore.value = *bore.value * 1.3;
                } } },
        { "which locks first is too near to tell",
            { "halden-merle", "balance/lock-order", Level::Stop, "Measure friction and valve better",
                [](Build& b) { b.car.antilock = YesNo::No; } } },
        { "surely the front, all of it measured",
            { "halden-merle", "balance/lock-order", Level::Good, "The front",
                [](Build& b) {
                    b.car.antilock = YesNo::No;
                    for (Reading& bore : b.setups[0].rear->caliper.pistons)
                        bore.value = *bore.value * 0.6;
                } } },
        { "a washer trial, and nobody says whether the spacer was in",
            { "halden-merle", "front/washers", Level::Unproven, "whether the spacer was in",
                [](Build& b) {
                    kit(b).washers = mm(4);
                    kit(b).spacer = mm(5);
                } } },
        { "a washer trial with the spacer in",
            { "halden-merle", "front/washers", Level::Caution, "Needs 12",
                [](Build& b) {
                    kit(b).washers = mm(4);
                    kit(b).spacer = mm(5);
                    kit(b).spacerInTrial = YesNo::Yes;
                } } },
        { "slides that end before the pads do",
            { "drover-camper", "front/slides", Level::Stop, "too early", [](Build& b) { kit(b).caliper.slideTravel = mm(9); } } },
        { "slides long enough", { "drover-camper", "front/slides", Level::Good, "travel left", [](Build&) {} } },
        { "a drum past its largest diameter",
            { "drover-camper", "rear/worn-drum", Level::Stop, "scrap",
                [](Build& b) {
                    b.setups[1].rear = b.setups[0].rear;
                    b.setups[1].rear->drum.insideDiameter = mm(272.6);
                } } },
        { "discs instead of the drums that held the car",
            { "drover-camper", "rear/parking-brake", Level::Stop, "say what replaces them",
                [](Build& b) { b.setups[1].rear = b.setups[1].front; } } },
        { "the same, and something replaces them",
            { "drover-camper", "rear/parking-brake", Level::Caution, "Replaced",
                [](Build& b) {
                    b.setups[1].rear = b.setups[1].front;
                    b.setups[1].parkingBrakeReplaced = YesNo::Yes;
                } } },
        { "a caliper with the parking brake in it, taken away",
            { "halden-merle", "rear/parking-brake", Level::Stop, "held the car",
                [](Build& b) {
                    b.rearHub.parkingBrake = ParkingBrake::InCaliper;
                    b.setups[1].rear = b.setups[1].front;
                } } },
    };
    return all;
}

} // namespace

class EdgesTest : public QObject {
    Q_OBJECT
private slots:
    void everyTrapIsSeen_data()
    {
        QTest::addColumn<int>("which");
        for (std::size_t i = 0; i < traps().size(); ++i)
            QTest::newRow(traps()[i].first) << static_cast<int>(i);
    }
    void everyTrapIsSeen()
    {
        QFETCH(int, which);
        const Trap& trap = traps()[static_cast<std::size_t>(which)].second;
        Build build = demo(trap.demo);
        trap.set(build);
        const auto s = study(build);
        const Verdict* v = s.verdict(trap.verdict);
        QVERIFY(v);
        QVERIFY2(v->level == trap.level, (std::string(nameOf(v->level)) + ": " + v->reason).c_str());
        QVERIFY2(v->reason.find(trap.words) != std::string::npos, v->reason.c_str());
        // What is bad or unproven of the parts and their clearance is no "fits".
        const bool decides = v->chapter == "clearance" || v->chapter == "parts" || v->chapter == "joints";
        if (decides && isBad(v->level))
            QVERIFY2(s.headline.fits == Headline::Fits::No, s.summary.c_str());
        if (decides && v->level == Level::Unproven)
            QVERIFY2(s.headline.fits == Headline::Fits::Unproven || s.headline.fits == Headline::Fits::No, s.summary.c_str());
    }

    /// Putting in the left side's shims changes no figure of the right; both read again after their own plans are good.
    void theLeftPlanLeavesTheRightAlone()
    {
        const auto before = study(demo());
        const Verdict& left = *before.verdict("front-left/axial");
        QVERIFY(!left.remedies.empty());
        const Build planned = *left.remedies.front().in(*before.build);
        QVERIFY(planned.setups[1].front->right == demo().setups[1].front->right);
        const auto then = study(planned);
        for (const char* check : { "axial", "tilt", "pad-edge", "conditions" }) {
            const auto id = std::string("front-right/") + check;
            QCOMPARE(then.verdict(id)->level, before.verdict(id)->level);
            QCOMPARE(then.verdict(id)->figure.value, before.verdict(id)->figure.value);
        }
        // The right plan on top, then every gap read again where it was foretold.
        Build both = *then.verdict("front-right/axial")->remedies.front().in(*then.build);
        for (MockUp& m : both.mockUps)
            for (Reading* gap : { &m.innerTop, &m.outerTop, &m.innerBottom, &m.outerBottom })
                *gap = { *gap->value, 0.02e-3, Known::Measured, "vernier", "2026-05-02" };
        for (Fitted* in : { &both.setups[1].front->left, &both.setups[1].front->right })
            in->slotCentre.plusMinus = 0.15e-3;
        const auto good = study(both);
        for (const char* id : { "front-left/axial", "front-right/axial", "front-left/tilt", "front-right/tilt" })
            QVERIFY2(good.verdict(id)->level == Level::Good, good.verdict(id)->reason.c_str());
        QVERIFY2(good.headline.centred == Headline::Centred::Yes, good.summary.c_str());
    }

    /// Shims under the studs of a radial mount lift the caliper off the axle, and every gap follows.
    void radialShimsMoveTheOutline()
    {
        const auto at = [](double shims) {
            Build build = demo();
            build.setups[1].front->mount.kind = MountKind::Radial;
            build.setups[1].front->mount.radialRead = mm(2);
            for (Fitted* in : { &build.setups[1].front->left, &build.setups[1].front->right })
                in->radialTop = in->radialBottom = mm(shims);
            return study(build);
        };
        const auto low = at(2);
        const auto high = at(4);
        const auto lost = [&](const char* id) { return *low.verdict(id)->figure.value - *high.verdict(id)->figure.value; };
        QVERIFY(lost("front/barrel-gap") > 1.8e-3 && lost("front/barrel-gap") < 2.1e-3);
        QVERIFY(near(lost("front/bridge-gap"), -2e-3, 1e-6));
        QVERIFY(near(lost("front/hat-gap"), -2e-3, 1e-6));
        QCOMPARE(high.verdict("front/barrel-gap")->level, Level::Tight);
        // When its heights were read, nobody has said: then nobody knows how high it stands.
        Build build = demo();
        build.setups[1].front->mount.kind = MountKind::Radial;
        QCOMPARE(study(build).verdict("front/barrel-gap")->level, Level::Unproven);
    }

    /// A drop centre may begin right behind a station.
    void betweenTwoStationsTheBarrelIsTheSmaller()
    {
        fit::WheelShape wheel;
        wheel.barrel = { { -0.05, 0.204 }, { -0.03, 0.196 }, { -0.01, 0.198 } };
        const auto narrow = fit::cautious(wheel);
        QVERIFY(near(*geometry::lowestAt(narrow.barrel, -0.045), 0.196, 1e-12));
        QVERIFY(near(*geometry::lowestAt(narrow.barrel, -0.015), 0.196, 1e-12));
        wheel.bends = { wheel.barrel[0], wheel.barrel[1] };
        const auto measured = fit::cautious(wheel);
        QVERIFY(near(*geometry::lowestAt(measured.barrel, -0.04), 0.200, 1e-12));
        // Never more room than straight lines give, whatever the wheel.
        for (int i = 0; i < 500; ++i) {
            fit::WheelShape any;
            for (int k = 0; k < 12; ++k)
                any.barrel.push_back({ -0.1 + 0.015 * k, between(0.18, 0.2) });
            const auto stepped = fit::cautious(any);
            for (double z = -0.1; z < 0.06; z += 0.0037)
                QVERIFY(*geometry::lowestAt(stepped.barrel, z) <= *geometry::lowestAt(any.barrel, z) + 1e-12);
        }
        const Build build = demo();
        Build unsaid = build;
        for (auto& station : unsaid.wheels[0].barrel)
            station.bend = YesNo::Unknown;
        QVERIFY(*study(unsaid).verdict("front/barrel-gap")->figure.value <= *study(build).verdict("front/barrel-gap")->figure.value);
    }

    /// Proof loads: ISO 898-1 table for M10 8.8 33.7 kN and M12 × 1.5 10.9 73.1 kN; SAE J429 1/2-20 grade 8 19 200 lbf, 3/8-24 grade 5
    /// 7 450 lbf; ISO 3506-1 M10 A2-70 at 0.2 %: 26.1 kN. All from memory.
    void proofLoadsAreThoseOfTheTables()
    {
        using joints::Grade;
        const auto load = [](const char* thread, Grade grade) { return joints::proofLoad(*joints::parseThread(thread), grade); };
        constexpr double lbf = 4.4482216;
        QVERIFY(near(load("M10", Grade::G8_8), 33.7e3, 0.01));
        QVERIFY(near(load("M12x1.5", Grade::G10_9), 73.1e3, 0.01));
        QVERIFY(near(load("1/2-20", Grade::SAE8), 19'200 * lbf, 0.01));
        QVERIFY(near(load("3/8-24", Grade::SAE5), 7'450 * lbf, 0.01));
        QVERIFY(near(load("M10", Grade::A2_70), 26.1e3, 0.01));
    }

    /// By hand: F = 1500 / 0.14 = 10.714 kN; half 5.357, couple 10.714 · (0.14 − 0.11) / 0.15 = 2.143: 5.770 kN.
    void aPairOfBoltsCarriesForceAndCouple()
    {
        QVERIFY(near(joints::forceOnPairBolt(1500, 0.14, 0.11, 0.15), 5.770e3, 1e-3));
        // At the pads' own radius there is no couple.
        QVERIFY(near(joints::forceOnPairBolt(1500, 0.14, 0.14, 0.15), 1500 / 0.14 / 2, 1e-12));
        QVERIFY(near(joints::forceOnCircleBolt(1500, 5, 0.056), 1500 / (5 * 0.056), 1e-12));
    }

    /// Practice: about 2 for leading and trailing, 3 for two leading and 4 to 7 for a self-energising pair at 0.38, steep in friction.
    void drumsMultiplyAndAreSteepInFriction()
    {
        using stopping::brakeFactor;
        using stopping::DrumKind;
        using stopping::usualShoes;
        const auto at = [](DrumKind kind, double friction) { return brakeFactor(kind, usualShoes(0.135, friction)); };
        QVERIFY(at(DrumKind::LeadingTrailing, 0.38) > 1.8 && at(DrumKind::LeadingTrailing, 0.38) < 2.4);
        QVERIFY(at(DrumKind::TwoLeading, 0.38) > 2.8 && at(DrumKind::TwoLeading, 0.38) < 3.6);
        QVERIFY(at(DrumKind::SelfEnergising, 0.38) > 4 && at(DrumKind::SelfEnergising, 0.38) < 7);
        double last = 0;
        for (const DrumKind kind : { DrumKind::LeadingTrailing, DrumKind::TwoLeading, DrumKind::SelfEnergising }) {
            const double steep = at(kind, 0.418) / at(kind, 0.38) - 1;
            QVERIFY(steep > 0.10 && steep > last);
            last = steep;
        }
        // A shoe that would hold itself has no factor.
        QVERIFY(std::isnan(at(DrumKind::TwoLeading, 0.95)));
    }
};

DEEPSTOP_TEST(EdgesTest)
#include "edges_test.moc"
