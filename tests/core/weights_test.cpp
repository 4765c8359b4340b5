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
    void equivalentMassOfARingAtTheTyreIsItsMass()
    {
        QVERIFY(near(weights::equivalentMass(weights::inertia(5, 0.6, 0.6), 0.3), 5, 1e-12));
    }
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
};

QTEST_GUILESS_MAIN(WeightsTest)
#include "weights_test.moc"
