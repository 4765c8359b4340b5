/// A wheel that was put on and spun: its gaps outrank the dimensions for exactly that wheel and those parts, and age with them.

#include "build/mock_ups.hpp"
#include "core/support.hpp"

#include <QTest>

using namespace deepstop;

namespace {

Reading mm(double value, double plusMinus = 0.2) { return { value * 1e-3, plusMinus * 1e-3, Known::Measured, "clay", {} }; }

Corner& kit(Build& build) { return *build.setups[1].front; }

/// The demo's kit with nothing known of its wheel's inside, the wheel spun on both sides.
Build spun(double barrel = 4, double spokes = 6)
{
    Build build = demo();
    Wheel* wheel = nullptr;
    for (Wheel& each : build.wheels)
        if (each.id == kit(build).wheel)
            wheel = &each;
    wheel->barrel.clear();
    wheel->spokes.clear();
    wheel->insets.clear();
    wheel->balanceWeights = YesNo::No;
    for (const Side side : { Side::Left, Side::Right }) {
        Spun& s = kit(build).at(side).spun;
        s.wheel = wheel->id;
        s.barrel = mm(barrel);
        s.spokes = mm(spokes);
        s.wholeTurn = s.atLocks = YesNo::Yes;
    }
    return build;
}

Verdict said(const Build& build, const char* id)
{
    const Study s = study(build);
    return *s.verdict(id);
}

Build edited(const Build& before, const std::function<void(Build&)>& change)
{
    Build now = before;
    change(now);
    foretellSpun(before, now);
    return now;
}

} // namespace

class SpunTest : public QObject {
    Q_OBJECT
private slots:
    /// Without stations nothing is known of the wheel; spun, its gaps are, each with its own width.
    void aSpunWheelIsProven()
    {
        Build bare = spun();
        for (const Side side : { Side::Left, Side::Right })
            kit(bare).at(side).spun = {};
        QCOMPARE(said(bare, "front/barrel-gap").level, Level::Unproven);
        const Verdict barrel = said(spun(), "front/barrel-gap");
        QVERIFY2(barrel.level == Level::Clear && barrel.reason.find("Wheel on and spun") != std::string::npos, barrel.reason.c_str());
        QCOMPARE(*barrel.figure.value, 4e-3);
        QVERIFY(near(barrel.figure.worstCase, 0.2e-3, 1e-9));
        QCOMPARE(said(spun(), "front/spoke-gap").level, Level::Clear);
        // 3 mm are wanted; at worst 2.9 are not.
        QCOMPARE(said(spun(3.1), "front/barrel-gap").level, Level::Tight);
        const Verdict touches = said(spun(-1), "front/barrel-gap");
        QVERIFY2(touches.level == Level::Hits && touches.reason.find("too far in") != std::string::npos, touches.reason.c_str());
    }

    /// Half a turn, wheels straight ahead, one side alone, another wheel: no proof.
    void whatWasNotTriedIsNotProven()
    {
        const auto level = [](const std::function<void(Spun&)>& change, bool bothSides = true) {
            Build build = spun();
            change(kit(build).left.spun);
            if (bothSides)
                change(kit(build).right.spun);
            return said(build, "front/barrel-gap").level;
        };
        QCOMPARE(level([](Spun&) {}), Level::Clear);
        QCOMPARE(level([](Spun& s) { s.wholeTurn = YesNo::Unknown; }), Level::Unproven);
        QCOMPARE(level([](Spun& s) { s.wholeTurn = YesNo::No; }), Level::Unproven);
        QCOMPARE(level([](Spun& s) { s.atLocks = YesNo::Unknown; }), Level::Unproven);
        QCOMPARE(level([](Spun& s) { s = {}; }, false), Level::Unproven);
        QCOMPARE(level([](Spun& s) { s.wheel = "winter"; }), Level::Unproven);
        QCOMPARE(level([](Spun& s) { s.barrel = {}; }), Level::Unproven);
        QCOMPARE(level([](Spun& s) { s.barrel.known = Known::Estimated; }), Level::Unproven);
    }

    void aChangeUnderItMakesItAnEstimate_data()
    {
        QTest::addColumn<std::function<void(Build&)>>("change");
        QTest::addColumn<QString>("word");
        QTest::addColumn<double>("spokes"); ///< gap then, mm
        const auto row = [](const char* word, double spokes, std::function<void(Build&)> change) {
            QTest::newRow(word) << std::move(change) << QString(word) << spokes;
        };
        row("spacer", 11, [](Build& b) { kit(b).spacer = { 5e-3, {}, Known::Measured, {}, {} }; });
        row("hub-face ring", 8, [](Build& b) { kit(b).ring = { 2e-3, {}, Known::Measured, {}, {} }; });
        row("hat", 9, [](Build& b) { *kit(b).rotor.hatThickness.value += 3e-3; });
        row("wheel", 6, [](Build& b) { kit(b).wheel = "winter"; });
        row("caliper", 6, [](Build& b) { kit(b).caliper.name = "another"; });
        row("bracket", 6, [](Build& b) { kit(b).bracket.name = "another"; });
        row("shims", 5, [](Build& b) {
            for (const Side side : { Side::Left, Side::Right }) {
                *kit(b).at(side).shimTop.value += 1e-3;
                *kit(b).at(side).shimBottom.value += 1e-3;
            }
        });
    }
    void aChangeUnderItMakesItAnEstimate()
    {
        QFETCH(std::function<void(Build&)>, change);
        QFETCH(QString, word);
        QFETCH(double, spokes);
        Build before = spun();
        kit(before).mount.shimMoves = Direction::Outboard;
        Build now = edited(before, change);
        const Spun& s = kit(now).left.spun;
        QVERIFY2(s.changed.find(word.toStdString()) != std::string::npos, s.changed.c_str());
        QVERIFY(s.spokes.known == Known::Estimated && near(*s.spokes.value, spokes * 1e-3, 1e-9));
        const Verdict v = said(now, "front/spoke-gap");
        QVERIFY2(v.level == Level::Unproven, v.reason.c_str());
        // Read anew it is of what is on now.
        now = edited(now, [](Build& b) {
            for (const Side side : { Side::Left, Side::Right })
                kit(b).at(side).spun.barrel = kit(b).at(side).spun.spokes = mm(5);
        });
        QVERIFY(kit(now).left.spun.changed.empty() && kit(now).left.spun.wheel == kit(now).wheel);
        if (word != "wheel")
            QCOMPARE(said(now, "front/spoke-gap").level, Level::Clear);
    }

    void whatChangesNothingUnderItLeavesIt()
    {
        const Build before = spun();
        const auto same = [&](const std::function<void(Build&)>& change) {
            Build now = edited(before, change);
            return kit(now).left.spun == kit(const_cast<Build&>(before)).left.spun;
        };
        QVERIFY(same([](Build& b) { kit(b).hose.kind = HoseKind::Braided; }));
        QVERIFY(same([](Build& b) { kit(b).left.runout = { 0.02e-3, {}, Known::Measured, {}, {} }; }));
        // Pads move no fixed caliper.
        QVERIFY(same([](Build& b) { kit(b).pad.thickness.value = 20e-3; }));
        QVERIFY(!same([](Build& b) { kit(b).spacer = { 5e-3, {}, Known::Measured, {}, {} }; }));
    }

    void itSurvivesTheFile()
    {
        Build build = spun(-0.5);
        kit(build).left.spun.changed = "spacer";
        QCOMPARE(files::parseBuild(files::writeBuild({ build, nullptr })).build, build);
    }
};

DEEPSTOP_TEST(SpunTest)
#include "spun_test.moc"
