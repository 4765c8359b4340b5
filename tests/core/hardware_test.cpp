/// Joints, brackets, rings and widened calipers as a study has them.

#include "build/address.hpp"
#include "chapters/weights/weights_chapter.hpp"
#include "core/support.hpp"
#include "hardware/hardware.hpp"

#include <QTest>

using namespace deepstop;

namespace {

Study of(const Build& build, UnitSystem system = UnitSystem::Metric) { return study(build, {}, system); }
bool says(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }
Reading mm(double value, double plusMinus = 0.03) { return { value * 1e-3, plusMinus * 1e-3, Known::Measured, "vernier", {} }; }

Joint& first(Build& build) { return build.setups[1].front->joints[0]; }

} // namespace

class HardwareTest : public QObject {
    Q_OBJECT
private slots:
    /// By hand: 1460 kg · 9.80665 · (0.53 + 1.05 · 0.54 / 2.72) / 2 = 5287 N on a front wheel, · 1.05 · 0.311 m = 1726 N·m; the wheel of
    /// 19.6 kg · (0.75 · 0.311 m)² and its rotor, from 100 km/h to lock in 0.2 s, 446.6 N·m for each kg·m² more. The pads push with that
    /// over 140.3 mm; half of it and the couple over 152 mm on each bolt. M14 × 1.5 at 200 N·m with threadlocker pulls 89.29 kN, · 0.15.
    void theSlipMarginIsRightByHand()
    {
        const auto s = of(demo());
        const Verdict& v = *s.verdict("front/joint-1-slip");
        const double torque = 1726 + 446.6 * (19.6 * 0.23325 * 0.23325 + *s.of<Weights>().after.front.rotatingInertia.value);
        const double force = torque / 0.1403;
        const double each = std::hypot(force / 2, force * (0.1403 - 0.108) / 0.152);
        QVERIFY2(near(*v.figure.value, 0.15 * 0.9 * 89.29e3 / each, 0.002), qPrintable(QString::number(*v.figure.value)));
        // At worst friction does not hold it, and shear does several times over: a caution.
        QCOMPARE(v.level, Level::Caution);
        QVERIFY(v.figure.lowest() < 1 && says(v.reason, "it may slip") && says(v.reason, "in shear holds"));
        // Painted faces hold a third less, and may slip.
        auto painted = demo();
        first(painted).faces = Faces::Coated;
        QVERIFY(near(*of(painted).verdict("front/joint-1-slip")->figure.value, *v.figure.value / 1.5, 1e-9));
        QCOMPARE(of(painted).verdict("front/joint-1-slip")->level, Level::Caution);
        // Bolts half as strong hold it neither way.
        auto thin = painted;
        first(thin).thread = "M6x1";
        first(thin).makerTorque = {};
        QCOMPARE(of(thin).verdict("front/joint-1-slip")->level, Level::Stop);
        // Nobody having said, they count as painted.
        first(painted).faces = Faces::Unknown;
        QCOMPARE(*of(painted).verdict("front/joint-1-slip")->figure.value, *v.figure.value / 1.5);
        QVERIFY(says(v.caution, "qualified engineer"));
        // It rests on the car's grip: on ice nothing slips.
        auto ice = demo();
        ice.wheels[0].grip.value = 0.1;
        QVERIFY(*of(ice).verdict("front/joint-1-slip")->figure.value > 2 * *v.figure.value);
    }

    void eachBadBoltIsStopped_data()
    {
        QTest::addColumn<int>("which");
        QTest::addColumn<QString>("verdict");
        QTest::addColumn<int>("level");
        QTest::addColumn<QString>("words");
        QTest::newRow("too short") << 0 << "front/joint-1-thread" << int(Level::Stop) << "bolts from 41.5 mm to 52.0 mm";
        QTest::newRow("too long for what is behind") << 1 << "front/joint-1-end" << int(Level::Stop) << "Strikes what is behind";
        QTest::newRow("bottoms in a blind hole") << 2 << "front/joint-1-end" << int(Level::Stop) << "Bottoms";
        QTest::newRow("thin thread in aluminium") << 3 << "front/joint-1-thread" << int(Level::Stop) << "no bolt of any length";
        QTest::newRow("dry torque on anti-seize") << 4 << "front/joint-1-torque" << int(Level::Stop) << "on anti-seize the same pull needs";
        QTest::newRow("thread done up often in aluminium") << 5 << "front/joint-1-thread" << int(Level::Caution) << "done up 9 times";
        QTest::newRow("nobody knows the class") << 6 << "front/joint-1-torque" << int(Level::Unproven) << "class of bracket to knuckle";
        QTest::newRow("a thread nobody can read") << 7 << "front/joint-1-thread" << int(Level::Unproven) << "thread of bracket to knuckle";
    }
    void eachBadBoltIsStopped()
    {
        QFETCH(int, which);
        QFETCH(QString, verdict);
        QFETCH(int, level);
        QFETCH(QString, words);
        auto build = demo();
        Joint& joint = first(build);
        switch (which) {
        case 0:
            joint.length = mm(30);
            break;
        case 1:
            joint.length = mm(54);
            break;
        case 2:
            joint.roomBehind = {};
            break;
        case 3:
            joint.threadIn = ThreadIn::Aluminium;
            break;
        case 4:
            joint.condition = Condition::AntiSeize;
            joint.makerTorque.value = 200;
            break;
        case 5:
            joint.threadIn = ThreadIn::Aluminium;
            joint.threadDepth = mm(30);
            joint.length = mm(52);
            joint.timesUsed = 9;
            break;
        case 6:
            joint.boltClass = BoltClass::Unknown;
            break;
        case 7:
            joint.thread = "M12ish";
            break;
        }
        const auto s = of(build);
        const Verdict* v = s.verdict(verdict.toStdString());
        QVERIFY(v);
        QVERIFY2(v->level == static_cast<Level>(level), (std::string(nameOf(v->level)) + ": " + v->reason).c_str());
        QVERIFY2(says(v->reason, words.toStdString()), v->reason.c_str());
    }

    /// Shims more in the grip are thread less in the hole, one for one, and never more room taken behind.
    void shimsCostThread()
    {
        const auto at = [](double shims) {
            auto build = demo();
            for (Fitted* in : { &build.setups[1].front->left, &build.setups[1].front->right })
                in->shimTop = in->shimBottom = mm(shims);
            first(build).threadDepth = mm(30);
            return of(build);
        };
        double before = 1;
        double room = -1;
        for (const double shims : { 0.0, 0.75, 1.5, 3.0, 6.0 }) {
            const auto s = at(shims);
            const double held = *s.verdict("front/joint-1-thread")->figure.value;
            const double left = *s.verdict("front/joint-1-end")->figure.value;
            QVERIFY(near(held, (45 - 17.5 - shims - 1.5) * 1e-3, 1e-9));
            QVERIFY(held < before && left > room);
            before = held;
            room = left;
        }
    }

    void theMakersTorqueOutranksTheComputedOne()
    {
        auto build = demo();
        QVERIFY(near(*of(build).verdict("front/joint-1-torque")->figure.value, 180, 1e-9));
        QCOMPARE(of(build).verdict("front/joint-1-torque")->level, Level::Good);
        first(build).makerTorque.value = 200;
        // 86 % of proof: a bolt that gets a quarter more is past it.
        QVERIFY(says(of(build).verdict("front/joint-1-torque")->reason, "Computed"));
        QVERIFY(says(of(build).verdict("front/joint-1-torque")->reason, "past its proof"));
        QCOMPARE(of(build).verdict("front/joint-1-torque")->level, Level::Caution);
        first(build).makerTorque.value = 175;
        QCOMPARE(of(build).verdict("front/joint-1-torque")->level, Level::Good);
        // A torque somebody only remembers is none.
        first(build).makerTorque.known = Known::Estimated;
        QCOMPARE(of(build).verdict("front/joint-1-torque")->level, Level::Unproven);
        first(build).makerTorque = demo().setups[1].front->joints[0].makerTorque;
        first(build).condition = Condition::Dry;
        // Meant for threadlocker, on dry threads: what the same pull needs is said.
        QCOMPARE(of(build).verdict("front/joint-1-torque")->level, Level::Caution);
        QVERIFY(says(of(build).verdict("front/joint-1-torque")->reason, "on dry the same pull needs 225"));
        first(build).makerTorque = {};
        // By hand: 0.20 · 0.75 · 830 · 124.5 · 14 mm = 217.1 N·m.
        const auto s = of(build);
        QVERIFY(near(*s.verdict("front/joint-1-torque")->figure.value, 217.1, 0.003));
        QCOMPARE(s.verdict("front/joint-1-torque")->level, Level::Caution); // a stand-in for the maker's
        for (const char* unit : { "N·m", "lb ft", "lb in" })
            QVERIFY(says(s.verdict("front/joint-1-torque")->reason, unit));
        QVERIFY(says(s.verdict("front/joint-3-torque")->reason, "crosswise in 3 rounds"));
    }

    /// Of a class that no table here has, the maker's proof stress counts; without it nothing is proven. A class typed as its own proof
    /// stress says the same as the class.
    void aTypedProofStressCounts()
    {
        const double byClass = *of(demo()).verdict("front/joint-1-slip")->figure.value;
        auto build = demo();
        first(build).boltClass = BoltClass::Other;
        for (const char* id : { "front/joint-1-torque", "front/joint-1-slip" }) {
            QCOMPARE(of(build).verdict(id)->level, Level::Unproven);
            QVERIFY2(says(of(build).verdict(id)->reason, "proof stress"), of(build).verdict(id)->reason.c_str());
        }
        first(build).proofStress = { 830e6, 0.0, Known::Vendor, {}, {} }; // 10.9 by ISO 898-1
        QCOMPARE(*of(build).verdict("front/joint-1-slip")->figure.value, byClass);
        QCOMPARE(of(build).verdict("front/joint-1-torque")->level, Level::Good);
        // A weaker one than thought, as far as its width goes, is passed by the same torque.
        first(build).proofStress.plusMinus = 300e6;
        QCOMPARE(of(build).verdict("front/joint-1-torque")->level, Level::Stop);
        first(build).proofStress = { 830e6, {}, Known::Estimated, {}, {} };
        QCOMPARE(of(build).verdict("front/joint-1-torque")->level, Level::Unproven);
    }

    /// A torque below the computed one: of steel a caution without a figure to pull, in aluminium the maker's figure with the doubt beside
    /// it.
    void aLowTorqueIsHonouredInAluminiumOnly()
    {
        auto build = demo();
        first(build).makerTorque.value = 110;
        const Verdict steel = *of(build).verdict("front/joint-1-torque");
        QVERIFY(steel.level == Level::Caution && !steel.figure.value);
        first(build).underHead = ThreadIn::Aluminium;
        const Verdict aluminium = *of(build).verdict("front/joint-1-torque");
        QVERIFY2(aluminium.level == Level::Caution && aluminium.figure.value, aluminium.reason.c_str());
        QVERIFY(near(*aluminium.figure.value, 110, 1e-9) && says(aluminium.reason, "check its unit"));
        // Over the computed one nothing is honoured.
        first(build).makerTorque.value = 225;
        QVERIFY(!isFine(of(build).verdict("front/joint-1-torque")->level));
    }

    /// The car maker's own joint is good as long as it carries no more than with his own brakes, whatever the sum of its friction says;
    /// a larger rotor, other bolts, another torque or worse faces are not his joint any more.
    void theCarMakersOwnJointIsTheYardstick()
    {
        auto build = demo();
        Joint own = first(build);
        own.carMakers = YesNo::Yes;
        own.makerTorque.value = 110; // friction does not hold it by the sum
        build.setups[0].front->joints = { own };
        build.setups[0].front->mount.boltSpacing = build.setups[1].front->mount.boltSpacing;
        build.setups[0].front->rotor.vaneShare.known = Known::Measured;
        const auto asFound = [&](const Build& b) {
            return *study(b, { "as-found", "as-found" }, UnitSystem::Metric).verdict("front/joint-1-slip");
        };
        const Verdict found = asFound(build);
        QVERIFY2(found.level == Level::Good && found.figure.lowest() < 1, found.reason.c_str());
        build.setups[0].front->joints[0].carMakers = YesNo::Unknown;
        QVERIFY(!isFine(asFound(build).level));
        build.setups[0].front->joints[0].carMakers = YesNo::Yes;

        // The kit's larger rotor: the tyre turns the same torque, the pads push with less force at a larger radius, the couple is larger.
        first(build) = own;
        first(build).carMakers = YesNo::Unknown;
        const Verdict kit = *of(build).verdict("front/joint-1-slip");
        QVERIFY2(says(kit.reason, "of what the car's maker has this joint carry") || kit.level == Level::Good, kit.reason.c_str());
        // With his own rotor, caliper and pads in the proposal it is his joint still.
        auto same = build;
        Corner keeps = *same.setups[0].front;
        keeps.joints[0].carMakers = YesNo::Unknown;
        same.setups[1].front = keeps;
        same.setups[1].rear.reset();
        same.setups[1].hydraulics.reset();
        QVERIFY2(of(same).verdict("front/joint-1-slip")->level == Level::Good, of(same).verdict("front/joint-1-slip")->reason.c_str());
        const std::vector<std::function<void(Joint&)>> others { [](Joint& j) { j.makerTorque.value = 109; },
            [](Joint& j) { j.faces = Faces::Coated; }, [](Joint& j) { j.boltClass = BoltClass::C8_8; }, [](Joint& j) { j.bolts = 1; },
            [](Joint& j) { j.condition = Condition::Oiled; }, [](Joint& j) { j.joins = Joins::Unknown; },
            [](Joint& j) { *j.mountRadius.value += 2e-3; } };
        for (std::size_t i = 0; i < others.size(); ++i) {
            auto other = same;
            others[i](other.setups[1].front->joints[0]);
            QVERIFY2(!says(of(other).verdict("front/joint-1-slip")->reason, "car maker's own"), qPrintable(QString::number(i)));
        }
        // Tyres that turn more than the car came with: more than its maker has it carry.
        auto grippy = same;
        grippy.wheels.push_back(grippy.wheels[0]);
        grippy.wheels.back().id = "sticky";
        grippy.wheels.back().grip.value = 1.5;
        grippy.setups[1].front->wheel = "sticky";
        const Verdict more = *of(grippy).verdict("front/joint-1-slip");
        QVERIFY2(more.level != Level::Good && says(more.reason, "of what the car's maker has this joint carry"), more.reason.c_str());
    }

    void aJointThatLacksAReadingNamesIt()
    {
        auto build = demo();
        first(build).grip = {};
        const auto s = of(build);
        for (const char* id : { "front/joint-1-thread", "front/joint-1-end" }) {
            QCOMPARE(s.verdict(id)->level, Level::Unproven);
            QVERIFY2(says(s.verdict(id)->reason, "grip without shims"), s.verdict(id)->reason.c_str());
        }
        QVERIFY(std::ranges::any_of(
            s.questions, [](const Question& q) { return q.address.pointer == "/setups/1/front/joints/0/grip_mm" && q.missing; }));
    }

    /// By hand: the caliper's holes 165 − 27.5 = 137.5 mm from the axis; 77 − 24 − 38 = 15 mm from lugs to caliper. It strikes nothing;
    /// moved outboard by 20 mm, with heads 11.4 proud, these would cut 77 − 20 − 15 − 11.4 − 38 = −7.4 mm into the rotor.
    void theDemosBracket()
    {
        const auto s = of(demo());
        const auto made = bracketOf(s, Axle::Front);
        QVERIFY2(made.adapter.has_value(), made.lacks.c_str());
        QVERIFY(near(made.adapter->holes[3].y, 0.1375, 1e-9) && std::abs(made.adapter->offset) < 1e-9);
        QVERIFY(near(made.adapter->wall, std::hypot(0.003, 0.0295) - 0.0145, 1e-9));
        QVERIFY(made.strikes.empty());
        QVERIFY(made.loadCase.size() == 4 && says(made.loadCase.back(), "pries"));
        auto tooNear = demo();
        tooNear.frontHub.lugDepth = mm(57);
        tooNear.setups[1].front->caliper.mountDepth = mm(18);
        const auto struck = bracketOf(of(tooNear), Axle::Front);
        QVERIFY(struck.strikes.size() == 1 && says(struck.strikes.front(), "bolts to the knuckle would cut 7.4 mm into the rotor"));
        QCOMPARE(of(tooNear).verdict("front/bracket-gap")->level, Level::Hits);
        tooNear.setups[1].front->bracket.proudKnuckle = {};
        QCOMPARE(of(tooNear).verdict("front/bracket-gap")->level, Level::Unproven);
        const auto drawing = drawingOfBracket(of(tooNear), Axle::Front, *struck.adapter, "2026-11-26");
        QVERIFY(std::ranges::any_of(drawing.drawing.notes, [](const auto& note) { return says(note, "prie"); }));
        auto close = demo();
        close.frontHub.lugRadius = mm(131);
        const auto meeting = bracketOf(of(close), Axle::Front);
        QVERIFY(!meeting.faults.empty() && says(meeting.faults.front(), "cut into each other"));
        auto deep = demo();
        deep.frontHub.lugDepth = mm(30);
        deep.setups[1].front->bracket.thickness = {};
        QVERIFY(says(bracketOf(of(deep), Axle::Front).faults.front(), "behind the lugs' face"));
        QVERIFY(says(bracketOf(of(demo("linnet")), Axle::Front).lacks, "middle of the lugs"));
    }

    /// Studs along the radius: drilled from the edge the caliper stands on, in the middle of a plate twice as thick as the way to them.
    void aRadialMountGetsHolesAlongTheRadius()
    {
        auto build = demo();
        build.setups[1].front->mount.kind = MountKind::Radial;
        build.setups[1].front->bracket.thickness = {};
        build.setups[1].front->bracket.caliperHole.value = 8.5e-3;
        const auto made = bracketOf(of(build), Axle::Front);
        QVERIFY2(made.adapter.has_value(), made.lacks.c_str());
        QCOMPARE(made.adapter->holes.size(), std::size_t(2));
        QCOMPARE(made.adapter->bores.size(), std::size_t(2));
        QVERIFY(near(made.adapter->caliperHeight, 0.1375, 1e-9) && near(made.adapter->thickness, 0.030, 1e-9));
        for (const bracket::EdgeBore& bore : made.adapter->bores)
            QVERIFY(near(bore.mouth, 0.1375, 1e-9) && near(bore.depth, 2 * bore.diameter, 1e-9));
        // The knuckle's bolts are drawn through the plate, and their holes keep off the bores.
        QVERIFY(made.adapter->seats);
        build.frontHub.lugRadius = mm(135);
        const auto above = bracketOf(of(build), Axle::Front);
        QVERIFY(std::ranges::any_of(above.faults, [](const auto& fault) { return says(fault, "cannot sit"); }));
        QVERIFY(std::ranges::any_of(above.faults, [](const auto& fault) { return says(fault, "cut into each other"); }));
    }

    /// A larger rotor lifts the caliper's holes by half of what it grew, whatever else stays.
    void theBracketFollowsTheRotor()
    {
        const auto holes = [](double diameter) {
            auto build = demo();
            build.setups[1].front->rotor.outerDiameter.value = diameter;
            return bracketOf(of(build), Axle::Front).adapter->holes;
        };
        const auto at330 = holes(0.330);
        const auto at355 = holes(0.355);
        QVERIFY(near(at355[2].y - at330[2].y, 0.0125, 1e-9));
        QCOMPARE(at355[0].y, at330[0].y);
    }

    void drawingsCarryTheirTitleAndCaution()
    {
        const auto s = of(demo(), UnitSystem::Us);
        const auto made = drawingOfBracket(s, Axle::Front, *bracketOf(s, Axle::Front).adapter, "2026-11-25");
        QVERIFY(says(made.drawing.title, "steel S355") && says(made.drawing.title, "in thick"));
        QVERIFY(std::ranges::any_of(made.drawing.notes, [](const auto& note) { return says(note, "qualified engineer"); }));
        std::string lacks;
        QVERIFY(!drawingOfRing(s, Axle::Front, {}, lacks) && says(lacks, "no hub-face ring"));
        auto ringed = demo();
        ringed.setups[1].front->ring = mm(12);
        const auto ring = drawingOfRing(of(ringed), Axle::Front, "2026-11-25", lacks);
        QVERIFY(ring && ring->plate.holes.size() == 6);
        QVERIFY(near(ring->plate.holes[0].diameter, 0.0665, 1e-9)); // slides on the pilot
        ringed.frontHub.boltCircle = {};
        QVERIFY(!drawingOfRing(of(ringed), Axle::Front, {}, lacks) && says(lacks, "bolt circle"));
        QVERIFY(near(drawingOfShim(s, Axle::Front, 0.75e-3, {}, lacks)->plate.holes[0].diameter, 0.0145, 1e-9));
        QVERIFY(!drawingOfShim(s, Axle::Front, 0, {}, lacks));
    }

    void wideningSaysWhatItLacksAndDoesItWhole()
    {
        auto build = demo();
        build.setups[1].front->caliper.pinLength = {};
        QVERIFY(says(wideningOf(of(build), Axle::Front, 0.008).lacks, "pad pins"));
        build.setups[1].front->caliper.split = YesNo::No;
        QVERIFY(says(wideningOf(of(build), Axle::Front, 0.008).lacks, "one piece"));
        build.setups[1].front->caliper.split = YesNo::Unknown;
        QVERIFY(says(wideningOf(of(build), Axle::Front, 0.008).lacks, "Not said"));
        QVERIFY(says(wideningOf(of(demo()), Axle::Front, -0.008).lacks, "thicker"));
        const auto s = of(demo());
        const auto wide = wideningOf(s, Axle::Front, 0.008);
        QVERIFY(wide.widening && wide.applied && wide.lines.size() >= 6 && wide.cautions.size() == 3);
        // The rotor grown as well, the gap beside it is what it was: spacers and washers keep the caliper central.
        Build after = *wide.applied;
        after.setups[1].front->rotor.thickness.value = 0.036;
        after.setups[1].front->rotor.overallHeight.value = *after.setups[1].front->rotor.overallHeight.value + 0.004;
        const double before = *s.verdict("front/face-gap")->figure.value;
        QVERIFY(std::abs(*of(after).verdict("front/face-gap")->figure.value - before) < 0.05e-3);
    }
};

DEEPSTOP_TEST(HardwareTest)
#include "hardware_test.moc"
