/// Nuts: what they carry, how they lock, and what they take of a torque.

#include "chapters/joints/checks.hpp"
#include "core/fittings.hpp"
#include "jobcard/jobcard.hpp"
#include "joints/nuts.hpp"

#include <QTest>

using namespace deepstop;

namespace {

/// A joint of the demo with a lock nut that does: M8, 10.9, through steel.
Joint lockNutted()
{
    Joint j;
    j.name = "caliper to bracket";
    j.joins = Joins::CaliperToBracket;
    j.thread = std::string("M12x1.75");
    j.bolts = 2;
    j.boltClass = BoltClass::C10_9;
    j.condition = Condition::Dry;
    j.threadIn = ThreadIn::Steel;
    j.shims = ShimsIn::None;
    j.faces = Faces::Clean;
    j.underHead = ThreadIn::Steel;
    j.fastener = Fastener::Bolts;
    j.nut = NutKind::AllMetal;
    j.nutClass = NutClass::C10;
    j.nutSingleUse = YesNo::Yes;
    j.timesUsed = 0;
    j.underNut = ThreadIn::Steel;
    j.washers = WashersUnder::None;
    j.length = measured(50e-3);
    j.shank = measured(20e-3);
    j.grip = measured(30e-3);
    j.threadDepth = measured(11e-3);
    j.nutHeight = measured(14e-3);
    j.runningTorque = measured(8, 1);
    j.roomBehind = measured(20e-3);
    return j;
}
Build withJoint(const Joint& joint)
{
    Build build = demo();
    front(build).joints = { joint };
    return build;
}
Verdict ofJoint(const Joint& joint, const Check& check = checks::jointNut)
{
    const Study s = studied(withJoint(joint));
    return verdict(s, check, { .axle = Axle::Front, .number = 1 });
}

} // namespace

class NutsTest : public QObject {
    Q_OBJECT
private slots:
    /// Source: ISO 898-2:1992, table of proof loads of nuts, style 1, coarse thread, N (from memory), rounded there to three figures.
    void nutsCarryTheirPublishedProofLoads_data()
    {
        QTest::addColumn<QString>("thread");
        QTest::addColumn<int>("grade");
        QTest::addColumn<double>("load");
        using joints::NutGrade;
        const auto row = [](const char* thread, NutGrade grade, double load) {
            QTest::addRow("%s class %s", thread, joints::nameOf(grade).data()) << thread << static_cast<int>(grade) << load;
        };
        row("M8", NutGrade::N8, 31'800);
        row("M8", NutGrade::N10, 38'100);
        row("M10", NutGrade::N8, 50'500);
        row("M10", NutGrade::N10, 60'300);
        row("M12", NutGrade::N6, 59'000);
        row("M12", NutGrade::N8, 74'200);
        row("M12", NutGrade::N10, 88'500);
        row("M16", NutGrade::N10, 164'900);
        row("M6", NutGrade::N8, 17'200);
        row("M6", NutGrade::N10, 20'900);
    }
    void nutsCarryTheirPublishedProofLoads()
    {
        QFETCH(QString, thread);
        QFETCH(int, grade);
        QFETCH(double, load);
        const double is = joints::nutProofLoad(*joints::parseThread(thread.toStdString()), static_cast<joints::NutGrade>(grade));
        QVERIFY2(near(is, load, 0.005), qPrintable(QString::number(is)));
    }

    /// Source: ISO 898-2, table 1: the nut of a class carries bolts up to that class; its proof load is above the bolt's.
    void aNutOfItsClassCarriesTheBolt()
    {
        using joints::Grade;
        using joints::NutGrade;
        for (const auto& [nut, bolt] : { std::pair { NutGrade::N8, Grade::G8_8 }, std::pair { NutGrade::N10, Grade::G10_9 },
                 std::pair { NutGrade::N12, Grade::G12_9 } })
            for (const char* thread : { "M6", "M8", "M10", "M12", "M16" }) {
                QVERIFY(joints::carries(nut, bolt));
                QVERIFY(joints::nutProofLoad(*joints::parseThread(thread), nut) > joints::proofLoad(*joints::parseThread(thread), bolt));
            }
        QVERIFY(!joints::carries(NutGrade::N8, Grade::G10_9));
        QVERIFY(!joints::carries(NutGrade::N10, Grade::G12_9));
        QVERIFY(std::isnan(joints::nutProofStress(NutGrade::N8, NAN)));
    }

    /// Source: ISO 4032, m min (from memory): M8 6.44, M10 8.04, M12 10.37, M16 14.1 mm. Less than a diameter, and yet enough.
    void anOrdinaryNutHoldsThoughItIsLessThanADiameter()
    {
        for (const auto& [size, height] :
            { std::pair { 8e-3, 6.44e-3 }, std::pair { 10e-3, 8.04e-3 }, std::pair { 12e-3, 10.37e-3 }, std::pair { 16e-3, 14.1e-3 } })
            QCOMPARE(*joints::leastNutHeight(size), height);
        QVERIFY(!joints::leastNutHeight(9e-3));
        Joint plain = lockNutted();
        plain.nut = NutKind::Plain;
        plain.threadDepth = measured(10.8e-3);
        QCOMPARE(ofJoint(plain, checks::jointThread).level, Level::Good);
        QCOMPARE(ofJoint(plain).level, Level::Good);
        // The same thread tapped in steel is too short, as is a thin nut.
        Joint tapped = plain;
        tapped.nut = NutKind::None;
        QCOMPARE(ofJoint(tapped, checks::jointThread).level, Level::Stop);
        plain.threadDepth = measured(6e-3);
        QCOMPARE(ofJoint(plain, checks::jointThread).level, Level::Stop);
        // What stands behind an open nut has to be read: it is no blind hole.
        plain.roomBehind = {};
        QCOMPARE(ofJoint(plain, checks::jointEnd).level, Level::Unproven);
    }

    void lockNutsAreJudged()
    {
        const Joint good = lockNutted();
        QCOMPARE(ofJoint(good).level, Level::Good);
        const auto changed = [&](auto change) {
            Joint j = good;
            change(j);
            return ofJoint(j);
        };
        const auto stops = [&](const char* words, auto change) {
            const Verdict v = changed(change);
            return v.level == Level::Stop && says(v, words);
        };
        QVERIFY(stops("strips on a bolt", [](Joint& j) { j.nutClass = NutClass::C8; }));
        QVERIFY(stops("No threadlocker", [](Joint& j) { j.condition = Condition::Threadlocker; }));
        QVERIFY(stops("No threadlocker", [](Joint& j) { j.condition = Condition::WickingThreadlocker; }));
        QVERIFY(stops("done up before", [](Joint& j) { j.timesUsed = 1; }));
        QVERIFY(stops("A nut is of steel", [](Joint& j) { j.threadIn = ThreadIn::Aluminium; }));
        QVERIFY(stops("ends 4.0 mm too early", [](Joint& j) { j.length = measured(41.75e-3); }));
        QVERIFY(stops("beside the friction ring", [](Joint& j) {
            j.nut = NutKind::NylonInsert;
            j.joins = Joins::RingToHat;
        }));
        for (const auto& unsaid : std::vector<std::function<void(Joint&)>> { [](Joint& j) { j.nutClass = NutClass::Unknown; },
                 [](Joint& j) { j.underNut = ThreadIn::Unknown; }, [](Joint& j) { j.washers = WashersUnder::Unknown; },
                 [](Joint& j) { j.nutSingleUse = YesNo::Unknown; }, [](Joint& j) { j.timesUsed = notCounted; },
                 [](Joint& j) { j.nutHeight = {}; }, [](Joint& j) { j.nut = NutKind::Unknown; },
                 [](Joint& j) { j.boltClass = BoltClass::Unknown; } })
            QCOMPARE(changed(unsaid).level, Level::Unproven);
        QCOMPARE(changed([](Joint& j) { j.underNut = ThreadIn::Aluminium; }).level, Level::Caution);
        QCOMPARE(changed([](Joint& j) { j.nut = NutKind::NylonInsert; }).level, Level::Caution);
        const auto reused = [&](const Fact<int>& times) {
            return changed([&](Joint& j) {
                j.nutSingleUse = YesNo::No;
                j.timesUsed = times;
            }).level;
        };
        QCOMPARE(reused(0), Level::Good);
        QCOMPARE(reused(2), Level::Caution);
        QCOMPARE(reused(notCounted), Level::Unproven);
    }

    /// By hand: M12 × 1.75 10.9, dry: 0.75 · 830 · 84.3 = 52.5 kN, 126 N·m; a nut that takes 8 N·m to turn wants 134.
    void whatALockNutTakesToTurnClampsNothing()
    {
        Joint j = lockNutted();
        const Verdict with = ofJoint(j, checks::jointTorque);
        QVERIFY(with.figure.value && near(*with.figure.value, 134, 0.01));
        QVERIFY(says(with, "the lock nut takes to turn"));
        j.nut = NutKind::Plain;
        QVERIFY(near(*ofJoint(j, checks::jointTorque).figure.value, 126, 0.01));
        j.nut = NutKind::AllMetal;
        j.runningTorque = {};
        QCOMPARE(ofJoint(j, checks::jointTorque).level, Level::Unproven);
        // A maker's torque that holds with a plain nut holds less with one that takes some of it.
        j.makerTorque = { 126.0, 0.0, Known::Vendor, {}, {} };
        j.torqueFor = Condition::Dry;
        j.runningTorque = measured(30, 1);
        QVERIFY(says(ofJoint(j, checks::jointTorque), "57 % of proof"));
    }

    /// It was not there when the torque was: same pull as dry.
    void wickingThreadlockerIsTightenedDry()
    {
        Joint j = lockNutted();
        j.nut = NutKind::None;
        const double dry = *ofJoint(j, checks::jointTorque).figure.value;
        j.condition = Condition::WickingThreadlocker;
        QCOMPARE(*ofJoint(j, checks::jointTorque).figure.value, dry);
        const Study s = studied(withJoint(j));
        const auto card = jobcard::cardOf(s);
        const auto step = std::ranges::find_if(card.steps, [](const auto& each) { return each.id == "front/left/joint-1"; });
        QVERIFY(step != card.steps.end() && step->caution.find("Tightened dry") != std::string::npos);
    }
};

DEEPSTOP_TEST(NutsTest)
#include "nuts_test.moc"
