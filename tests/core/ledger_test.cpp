#include "chapters/stopping/stopping_chapter.hpp"
#include "chapters/heat/heat_chapter.hpp"
#include "chapters/weights/weights_chapter.hpp"
#include "build/address.hpp"
#include "core/support.hpp"

#include <QTest>

using namespace deepstop;

class LedgerTest : public QObject {
    Q_OBJECT
private slots:
    void theDecidingFiguresAreAllThere()
    {
        const auto s = study(demo());
        for (const char* id :
            { "corner-weight", "heat-store", "wheel-gap", "off-centre", "front-share", "stop-distance", "hottest-ring" }) {
            QVERIFY2(s.line(id), id);
            QVERIFY2(!s.line(id)->word.empty(), id);
        }
        QCOMPARE(s.ledger.size(), std::size_t(7));
    }

    /// The weighings of the demos by hand: 6.80 + 8.32 + 0.19, and 4.58 + 2.62 + 0.88 + 0.74 + 0.15 against 3.30 + 2.35 + 0.42 + 0.14 kg.
    void cornersAreWeighedWhole()
    {
        QVERIFY(near(*study(demo()).line("corner-weight")->before.value, 15.31, 1e-9));
        const auto line = *study(demo("linnet")).line("corner-weight");
        QVERIFY(near(*line.before.value, 6.21, 1e-9));
        QVERIFY(near(*line.after.value, 8.97, 1e-9));
        QVERIFY(near(*line.change.value, 2.76, 1e-9));
    }

    /// The demo's new rotor was never on a scale: a larger one weighs more at once.
    void anEditedDimensionChangesTheWeight()
    {
        const auto base = study(demo());
        const auto larger =
            study(withReading(demo(), "/setups/1/front/rotor/outer_diameter_mm", { 0.340, {}, Known::Measured, "vernier", {} }));
        QVERIFY(*larger.line("corner-weight")->after.value > *base.line("corner-weight")->after.value + 0.2);
        QCOMPARE(*larger.line("corner-weight")->before.value, *base.line("corner-weight")->before.value);
    }

    /// Computed rotor masses against the demo's weighed ones: within 15 % (common practice).
    void computedAndWeighedRotorsAgree()
    {
        const auto s = study(demo());
        QVERIFY(std::abs(*s.of<Weights>().before.front.rotorMass.value / 6.80 - 1) < 0.15);
        const auto l = study(demo("linnet"));
        QVERIFY(std::abs(*l.of<Weights>().before.front.rotorMass.value / 3.62 - 1) < 0.15);
        QVERIFY(std::abs(*l.of<Weights>().after.front.rotorMass.value / 4.58 - 1) < 0.15);
    }

    void aWeighingThatDoesNotMatchTheDimensionsIsQuestioned()
    {
        auto build = demo("linnet");
        QVERIFY(!study(build).verdict("front/weighed-rotor"));
        build.setups[1].front->weighings[0].mass.value = 5.60;
        const auto s = study(build);
        QVERIFY(s.verdict("front/weighed-rotor"));
        QCOMPARE(s.verdict("front/weighed-rotor")->level, Level::Caution);
        QVERIFY(s.verdict("front/weighed-rotor")->reason.find("5.60 kg") != std::string::npos);
    }

    void aRotorNobodyWeighedIsComputed()
    {
        const auto s = study(demo());
        QVERIFY(near(
            *s.line("corner-weight")->after.value, 3.34 + 1.18 + 1.24 + 0.17 + 0.21 + *s.of<Weights>().after.front.rotorMass.value, 1e-9));
    }

    /// What both setups share cancels: the change is surer than either figure.
    void theChangeIsSurerThanItsEnds()
    {
        const auto s = study(demo("linnet"));
        const auto& d = *s.line("stop-distance");
        QVERIFY(d.change.rootSumSquare < std::hypot(d.before.rootSumSquare, d.after.rootSumSquare));
        QVERIFY(near(*d.change.value, *d.after.value - *d.before.value, 1e-9));
        // A build without a duty has one stop's rise instead.
        auto dutiless = demo("linnet");
        dutiless.duties.clear();
        const auto without = study(dutiless);
        const auto& rise = *without.line("stop-rise");
        QVERIFY(rise.change.rootSumSquare < std::hypot(rise.before.rootSumSquare, rise.after.rootSumSquare));
    }

    /// By hand for the Merle: ½·1460·(100/3.6)² · share/2 ÷ (ring mass · 480).
    void theRiseFollowsFromMassSpeedAndShare()
    {
        const auto s = study(demo());
        const double energy = 0.5 * 1460 * std::pow(100 / 3.6, 2);
        const double expected =
            energy * s.of<Stopping>().after.braking->frontShare / 2 / (*s.of<Weights>().after.front.ringMass.value * 480);
        QVERIFY(near(*s.of<Heat>().after.front.stopRise.value, expected, 1e-9));
        // Both axles together take all of it.
        const double rear = *s.of<Heat>().after.rear.stopRise.value * *s.of<Weights>().after.rear.ringMass.value;
        const double front = *s.of<Heat>().after.front.stopRise.value * *s.of<Weights>().after.front.ringMass.value;
        QVERIFY(near(2 * 480 * (front + rear), energy, 1e-9));
    }

    void theCurveOfRiseGoesThroughTheTestSpeed()
    {
        const auto s = study(demo());
        const auto& curve = s.of<Heat>().after.front.riseOverSpeed;
        QVERIFY(curve.size() > 10);
        QCOMPARE(curve.front().second, 0.0);
        QVERIFY(std::ranges::any_of(curve, [&](const auto& p) {
            return near(p.first, 100 / 3.6, 1e-9) && near(p.second, *s.of<Heat>().after.front.stopRise.value, 1e-9);
        }));
    }

    void measuredPressureOutranksThePedal()
    {
        auto build = demo();
        build.setups[0].hydraulics->linePressure = { 20e5, {}, Known::Measured, {}, {} };
        const auto s = study(build);
        QCOMPARE(s.of<Stopping>().after.braking->limit, stopping::Limit::Pedal);
        QCOMPARE(s.verdict("stop/limit")->level, Level::Caution);
        build.setups[0].hydraulics->pedalForce.value.reset();
        QVERIFY(near(*study(build).line("stop-distance")->after.value, *s.line("stop-distance")->after.value, 1e-12));
    }

    void aRearThatLocksFirstIsCalledStop()
    {
        auto build = demo();
        build.car.antilock = YesNo::No;
        build.setups[0].hydraulics->rearKneePressure.value.reset();
        build.setups[0].hydraulics->rearSlope.value.reset();
        build.setups[0].hydraulics->valve = ValveKind::None;
        build.setups[0].rear->caliper.pistons[0].value = 0.050;
        const auto s = study(build);
        QCOMPARE(s.of<Stopping>().after.braking->limit, stopping::Limit::RearLocks);
        QCOMPARE(s.verdict("stop/limit")->level, Level::Stop);
        QVERIFY(s.verdict("stop/limit")->reason.find("turns round") != std::string::npos);
    }

    void drilledFacesAreWarnedOf()
    {
        auto build = demo();
        QVERIFY(!study(build).verdict("front/drilled"));
        build.setups[1].front->rotor.face = RotorFace::Drilled;
        QCOMPARE(study(build).verdict("front/drilled")->level, Level::Caution);
    }

    void aRearKitIsJudgedOnItsOwnAxle()
    {
        auto build = demo();
        build.setups[1].rear = build.setups[1].front;
        const auto s = study(build);
        for (const char* id : { "rear/barrel-gap", "rear/weight", "rear/stop-rise", "rear/bore" })
            QVERIFY2(s.verdict(id) && s.verdict(id)->axle == Axle::Rear, id);
    }

    /// A store that rests on a guess is no better for being large.
    void aHeatStoreOnAnEstimateIsUnproven()
    {
        auto build = demo();
        const auto level = [&] { return study(build).line("heat-store")->level; };
        for (auto& setup : build.setups)
            for (auto* corner : { &setup.front, &setup.rear })
                if (*corner)
                    for (Reading* r : { &(*corner)->rotor.thickness, &(*corner)->rotor.outerDiameter, &(*corner)->rotor.ringInnerDiameter,
                             &(*corner)->rotor.ventGap, &(*corner)->rotor.vaneShare })
                        if (r->value)
                            r->known = Known::Measured;
        QCOMPARE(level(), Level::Good);
        build.setups[1].front->rotor.thickness.known = Known::Estimated;
        QCOMPARE(level(), Level::Unproven);
        build.setups[1].front->rotor.thickness.known = Known::Measured;
        build.setups[0].front->rotor.thickness.known = Known::Estimated;
        QCOMPARE(level(), Level::Unproven);
    }
};

DEEPSTOP_TEST(LedgerTest)
#include "ledger_test.moc"
