#include "chapters/weights/weights_chapter.hpp"
#include "core/support.hpp"
#include "heat/heat.hpp"
#include "weights/weights.hpp"

#include <QTest>

#include <numbers>

using namespace deepstop;

class WeightsTest : public QObject {
    Q_OBJECT
private slots:
    void aSolidRingIsAnAnnulus()
    {
        // By hand: π/4 (0.28² − 0.18²) 0.010 · 7200 = 2.6012 kg
        QVERIFY(std::abs(weights::ringMass({ 0.28, 0.18, 0.010, 0, 0 }) - 2.6012) < 1e-3);
    }
    void airBetweenThePlatesWeighsNothing()
    {
        const weights::Ring open { 0.33, 0.21, 0.028, 0.010, 0 };
        const weights::Ring solid { 0.33, 0.21, 0.018, 0, 0 };
        QVERIFY(near(weights::ringVolume(open), weights::ringVolume(solid), 1e-12));
        const weights::Ring full { 0.33, 0.21, 0.028, 0.010, 1 };
        QVERIFY(near(weights::ringVolume(full), weights::ringVolume({ 0.33, 0.21, 0.028, 0, 0 }), 1e-12));
    }
    void impossibleRingsHaveNoMass()
    {
        QVERIFY(std::isnan(weights::ringMass({ 0.2, 0.3, 0.028, 0, 0 })));
        QVERIFY(std::isnan(weights::ringMass({ 0.33, 0.21, 0.010, 0.012, 0.3 })));
        QVERIFY(std::isnan(weights::ringMass({ 0.33, 0.21, 0.028, 0.010, 1.2 })));
        QVERIFY(std::isnan(weights::ringMass({ NAN, 0.21, 0.028, 0.010, 0.3 })));
        QVERIFY(std::isnan(weights::hatVolume({ 0.06, 0.07, 0.007, 0.007, 0.02, 0.2 })));
    }
    void vanesFillWhatTheirCountSays()
    {
        using enum weights::Vanes::Shape;
        const auto share = [](weights::Vanes v) { return weights::vaneShare(v, 0.330, 0.216); };
        // By hand: 40 · 6 · 57 mm² over π/4 (330² − 216²) = 0.27983.
        QVERIFY(std::abs(share({ Straight, 40, 0.006, 0 }) - 0.27983) < 1e-5);
        // Twice as many fill twice as much; a lean of 60° doubles their length; straight vanes have no lean to speak of.
        QVERIFY(near(share({ Straight, 80, 0.006, 0 }), 2 * share({ Straight, 40, 0.006, 0 }), 1e-12));
        QVERIFY(near(share({ Curved, 40, 0.006, std::numbers::pi / 3 }), 2 * share({ Curved, 40, 0.006, 0 }), 1e-9));
        QVERIFY(near(share({ Straight, 40, 0.006, 0.7 }), share({ Straight, 40, 0.006, 0 }), 1e-12));
        // Pillars do not care for the ring's width: by hand 60 · π/4 · 9² over the same area.
        QVERIFY(near(share({ Pillars, 60, 0.009, 0 }), 60 * 81.0 / (330.0 * 330 - 216.0 * 216), 1e-12));
        for (const weights::Vanes& no : { weights::Vanes { Straight, 0, 0.006, 0 }, weights::Vanes { Straight, 40, -0.006, 0 },
                 weights::Vanes { Curved, 40, 0.006, 2.0 }, weights::Vanes { Straight, 300, 0.006, 0 },
                 weights::Vanes { Pillars, 40, NAN, 0 } })
            QVERIFY(std::isnan(share(no)));
        QVERIFY(std::isnan(weights::vaneShare({ Straight, 40, 0.006, 0 }, 0.2, 0.3)));
    }
    void studHolesAreTakenOutAndBoltsPutIn()
    {
        const weights::Hat plain { 0.16, 0.066, 0.008, 0.008, 0.01, 0.21 };
        auto drilled = plain;
        drilled.holes = 5;
        drilled.holeDiameter = 0.013;
        QVERIFY(near(weights::hatVolume(plain) - weights::hatVolume(drilled), 5 * std::numbers::pi / 4 * 0.013 * 0.013 * 0.008, 1e-9));
        // Ten M6 by hand: heads and nuts 2 · π/4 · 1.6² · 0.8 · 6³ mm³ each, shank π/4 · 6² · 8 mm³ of steel for aluminium.
        const double by =
            10 * (7850 * 2 * std::numbers::pi / 4 * 2.56 * 0.8 * 216e-9 + (7850 - 2700) * std::numbers::pi / 4 * 36e-6 * 0.008);
        QVERIFY(near(weights::hatBoltsMass(10, 0.006, 0.008, 2700), by, 1e-12));
        QCOMPARE(weights::hatBoltsMass(0, 0.006, 0.008, 2700), 0.0);
    }
    void equivalentMassOfARingAtTheTyreIsItsMass() { QVERIFY(near(weights::equivalentMass(weights::inertia(5, 0.6, 0.6), 0.3), 5, 1e-12)); }
    void energyFollowsTheSquareOfSpeed()
    {
        // By hand: ½ · 1460 · 27.78² = 563.3 kJ
        QVERIFY(std::abs(heat::stopEnergy(1460, 100 / 3.6, 0) - 563271.6) < 1);
        QVERIFY(near(heat::stopEnergy(1460, 30, 20) + heat::stopEnergy(1460, 20, 0), heat::stopEnergy(1460, 30, 0), 1e-12));
        QVERIFY(std::isnan(heat::stopEnergy(1460, 20, 30)));
        QVERIFY(std::isnan(heat::stopEnergy(-1, 20, 0)));
    }
    void sharesOfTheHeatAddUp()
    {
        const double store = heat::heatStore(7.5, 480);
        QVERIFY(near(heat::temperatureRise(5e5, 0.35, store) * store + heat::temperatureRise(5e5, 0.65, store) * store, 5e5, 1e-12));
        QVERIFY(std::isnan(heat::temperatureRise(5e5, 0.35, 0)));
    }

    /// Hat before ring or ring before hat: the same rotor lay on the scale, and counts the same everywhere.
    void whateverIsNamedFirstOfAWeighing()
    {
        auto build = demo();
        auto& weighings = build.setups[1].front->weighings;
        std::erase_if(weighings, [](const Weighing& w) { return w.contains == std::vector { Part::Rotor }; });
        weighings.push_back({ { 9.0, 0.005, Known::Measured, "bench scale", {} }, { Part::Ring, Part::Hat } });
        const auto first = study(build);
        weighings.back().contains = { Part::Hat, Part::Ring };
        const auto second = study(build);
        QCOMPARE(second.of<Weights>().after.front.cornerMass.value, first.of<Weights>().after.front.cornerMass.value);
        QVERIFY(first.verdicts.size() == second.verdicts.size());
        for (std::size_t i = 0; i < first.verdicts.size(); ++i)
            QVERIFY2(
                first.verdicts[i].reason == second.verdicts[i].reason && first.verdicts[i].figure.value == second.verdicts[i].figure.value,
                first.verdicts[i].id.c_str());
    }
};

DEEPSTOP_TEST(WeightsTest)
#include "weights_test.moc"
