/// Joints, brackets, rings and widened calipers as a study has them.

#include "build/address.hpp"
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
    /// By hand: 1460 kg · 9.80665 · (0.53 + 1.05 · 0.54 / 2.72) / 2 = 5287 N on a front wheel, · 1.05 · 0.311 m = 1726 N·m. Two M12 × 1.5
    /// at 118 N·m with threadlocker pull 61.46 kN each: 2 · 61.46 · 0.15 over 1726 / 0.108 = 15.99 kN: 1.153.
    void theSlipMarginIsRightByHand()
    {
        const auto s = of(demo());
        const Verdict& v = *s.verdict("front/joint-1-slip");
        QVERIFY2(near(*v.figure.value, 1.153, 0.002), qPrintable(QString::number(*v.figure.value)));
        QCOMPARE(v.level, Level::Caution);
        QVERIFY(says(v.caution, "qualified engineer"));
        // It rests on the car's grip: on ice nothing slips.
        auto ice = demo();
        ice.car.grip.value = 0.1;
        QVERIFY(*of(ice).verdict("front/joint-1-slip")->figure.value > 5);
    }

    void eachBadBoltIsStopped_data()
    {
        QTest::addColumn<int>("which");
        QTest::addColumn<QString>("verdict");
        QTest::addColumn<int>("level");
        QTest::addColumn<QString>("words");
        QTest::newRow("too short") << 0 << "front/joint-1-thread" << int(Level::Stop) << "bolts from 35.5 mm to 45.0 mm";
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
            joint.length = mm(46);
            break;
        case 2:
            joint.roomBehind = {};
            break;
        case 3:
            joint.threadIn = ThreadIn::Aluminium;
            break;
        case 4:
            joint.condition = Condition::AntiSeize;
            break;
        case 5:
            joint.threadIn = ThreadIn::Aluminium;
            joint.threadDepth = mm(26);
            joint.length = mm(44);
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
            build.setups[1].front->mount.shimTop = mm(shims);
            build.setups[1].front->mount.shimBottom = mm(shims);
            first(build).threadDepth = mm(30);
            return of(build);
        };
        double before = 1;
        double room = -1;
        for (const double shims : { 0.0, 0.75, 1.5, 3.0, 6.0 }) {
            const auto s = at(shims);
            const double held = *s.verdict("front/joint-1-thread")->figure.value;
            const double left = *s.verdict("front/joint-1-end")->figure.value;
            QVERIFY(near(held, (40 - 14.5 - shims - 1.5) * 1e-3, 1e-9));
            QVERIFY(held < before && left > room);
            before = held;
            room = left;
        }
    }

    void theMakersTorqueOutranksTheComputedOne()
    {
        auto build = demo();
        first(build).condition = Condition::Dry;
        QVERIFY(near(*of(build).verdict("front/joint-1-torque")->figure.value, 118, 1e-9));
        QVERIFY(says(of(build).verdict("front/joint-1-torque")->reason, "computed"));
        first(build).makerTorque = {};
        // By hand: 0.20 · 0.75 · 830 · 88.1 · 12 mm = 131.6 N·m.
        const auto s = of(build);
        QVERIFY(near(*s.verdict("front/joint-1-torque")->figure.value, 131.6, 0.002));
        for (const char* unit : { "N·m", "lb ft", "lb in" })
            QVERIFY(says(s.verdict("front/joint-1-torque")->reason, unit));
        QVERIFY(says(s.verdict("front/joint-3-torque")->reason, "crosswise in 3 rounds"));
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

    /// By hand: the caliper's holes 165 − 27.5 = 137.5 mm from the axis; 53.5 − 24 − 9 = 20.5 mm from lugs to caliper, a plate of 20 leaves
    /// 0.5.
    void theDemosBracket()
    {
        const auto s = of(demo());
        const auto made = bracketOf(s, Axle::Front);
        QVERIFY2(made.adapter.has_value(), made.lacks.c_str());
        QVERIFY(near(made.adapter->holes[3].y, 0.1375, 1e-9) && near(made.adapter->offset, 0.0005, 1e-6));
        QVERIFY(near(made.adapter->wall, std::hypot(0.003, 0.0295) - 0.0115, 1e-9));
        QVERIFY(made.faults.empty());
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
        QVERIFY(says(made.drawing.title, "aluminium 7075-T6") && says(made.drawing.title, "in thick"));
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
        QVERIFY(near(drawingOfShim(s, Axle::Front, 0.75e-3, {}, lacks)->plate.holes[0].diameter, 0.0125, 1e-9));
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
        QVERIFY(says(wideningOf(of(build), Axle::Front, 0.008).lacks, "Nobody has said"));
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
