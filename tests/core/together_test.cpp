/// Two people's work on one file put together. What would be wrong and harmful: a tick that is lost, a torque that is half of one reading
/// and half of another, one of two different readings taken without a word.

#include "core/support.hpp"
#include "files/together.hpp"
#include "jobcard/jobcard.hpp"

#include <QTest>

using namespace deepstop;

namespace {

const jobcard::Author anna { "A.", "2026-06-01 10:00" };
const jobcard::Author bo { "B.", "2026-06-01 10:05" };

void tick(Build& build, const char* step, const jobcard::Author& hand, Checked state = Checked::Fine)
{
    jobcard::tickIn(jobcard::recordOf(build, "varnik-330"), step, state, hand);
}

Reading measured(double value) { return { value, {}, Known::Measured, "vernier", {} }; }

} // namespace

class TogetherTest : public QObject {
    Q_OBJECT
private slots:
    void noTickIsLost()
    {
        Build base = demo();
        tick(base, "car/first", anna);
        Build mine = base;
        Build theirs = base;
        tick(mine, "front/left/rotor-on", anna);
        tick(theirs, "front/right/rotor-on", bo);
        tick(theirs, "car/first", bo, Checked::Fault);
        mine.setups[1].front->left.runout = { 0.03e-3, 0.01e-3, Known::Measured, "dial", {} };
        theirs.setups[1].front->right.runout = { 0.05e-3, 0.01e-3, Known::Measured, "dial", {} };
        const auto both = files::together(base, mine, theirs);
        QVERIFY(both);
        const auto& ticks = both->cards.at(0).ticks;
        QCOMPARE(ticks.size(), std::size_t { 3 });
        QCOMPARE(std::ranges::find(ticks, "car/first", &Tick::step)->state, Checked::Fault);
        QVERIFY(both->setups[1].front->left.runout == mine.setups[1].front->left.runout);
        QVERIFY(both->setups[1].front->right.runout == theirs.setups[1].front->right.runout);
        // Whoever saves second, it is the same work.
        QCOMPARE(files::together(base, theirs, mine)->cards[0].ticks.size(), std::size_t { 3 });
        QCOMPARE(files::together(base, mine, base), std::optional(mine));
        QCOMPARE(files::together(base, base, theirs), std::optional(theirs));
    }

    void whatBothSaidDifferentlyIsChosenBySomebody()
    {
        const Build base = demo();
        Build mine = base;
        Build theirs = base;
        mine.setups[1].front->rotor.thickness.value = 0.0281;
        theirs.setups[1].front->rotor.thickness.plusMinus = 0.2e-3;
        QVERIFY(!files::together(base, mine, theirs));
        mine = theirs = base;
        mine.car.name = "one";
        theirs.car.name = "other";
        QVERIFY(!files::together(base, mine, theirs));
        // The same said twice is no quarrel.
        theirs.car.name = "one";
        QVERIFY(files::together(base, mine, theirs));
    }

    /// Random work of two hands on different steps, any order: all of both is there.
    void anyTwoHandsTogether()
    {
        for (int round = 0; round < 5; ++round) {
            const Build base = demo();
            Build mine = base;
            Build theirs = base;
            std::size_t count = 0;
            for (int i = 0; i < 30; ++i, ++count)
                tick(among(0, 1) ? mine : theirs, ("step-" + std::to_string(i)).c_str(), among(0, 1) ? anna : bo);
            LogEntry day;
            day.note = "mine";
            mine.log.push_back(day);
            day.note = "theirs";
            theirs.log.push_back(day);
            const auto both = files::together(base, mine, theirs);
            QVERIFY(both);
            QCOMPARE(both->cards.at(0).ticks.size(), count);
            QCOMPARE(both->log.size(), base.log.size() + 2);
        }
    }

    /// What two hands add lands on nothing of the other's, in any list, and in the same order whoever saves second.
    void whatBothAddStaysApart()
    {
        const Build base = demo();
        Build mine = base;
        Build theirs = base;
        const auto add = [](Build& build, double mass, const char* joint, double radius) {
            Corner& front = *build.setups[1].front;
            front.weighings.push_back({ { mass, {}, Known::Measured, "kitchen scale", {} }, { Part::Pads } });
            front.joints.emplace_back().name = joint;
            SpokeStation station;
            station.radius = measured(radius);
            station.distance = measured(0.01);
            build.wheels[0].spokes.insert(build.wheels[0].spokes.begin(), station);
        };
        add(mine, 1.1, "mine", 0.101);
        add(theirs, 1.2, "theirs", 0.102);
        theirs.setups[1].front->weighings[0].mass.value = 9.5;
        mine.setups[1].front->weighings.erase(mine.setups[1].front->weighings.begin() + 1);
        const auto both = files::together(base, mine, theirs);
        QVERIFY(both);
        QVERIFY(files::together(base, theirs, mine) == both);
        const auto& weighings = both->setups[1].front->weighings;
        QCOMPARE(weighings.size(), base.setups[1].front->weighings.size() + 1);
        QCOMPARE(*weighings[0].mass.value, 9.5);
        QVERIFY(std::ranges::count(weighings, 1.1, [](const Weighing& w) { return *w.mass.value; }) == 1);
        QCOMPARE(both->setups[1].front->joints.size(), base.setups[1].front->joints.size() + 2);
        QCOMPARE(both->wheels[0].spokes.size(), base.wheels[0].spokes.size() + 2);
        // Legs follow each other: where both put one in at the same place, somebody says which comes first.
        mine = theirs = base;
        mine.duties[0].legs.emplace_back().to = measured(20);
        theirs.duties[0].legs.emplace_back().to = measured(30);
        QVERIFY(!files::together(base, mine, theirs));
    }

    /// One took away what the other went on with: somebody chooses.
    void whatIsTakenAwayIsNotBroughtBackInSilence()
    {
        Build base = demo();
        Build mine = base;
        Build theirs = base;
        mine.log.erase(mine.log.begin());
        theirs.log.front().note += " and more";
        QVERIFY(!files::together(base, mine, theirs));
        QVERIFY(!files::together(base, theirs, mine));
        // What somebody added beside it stays.
        theirs = base;
        LogEntry day;
        day.note = "another day";
        theirs.log.push_back(day);
        const auto both = files::together(base, mine, theirs);
        QVERIFY(both);
        QCOMPARE(both->log.size(), base.log.size());
        QCOMPARE(both->log.back().note, day.note);
        QCOMPARE(both->log.front().note, base.log[1].note);
        mine = theirs = base;
        mine.setups.pop_back();
        theirs.setups.back().front->rotor.thickness.value = 0.0281;
        QVERIFY(!files::together(base, mine, theirs));
    }
};

DEEPSTOP_TEST(TogetherTest)
#include "together_test.moc"
