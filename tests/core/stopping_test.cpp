#include "core/support.hpp"
#include "quantity/unit.hpp"
#include "stopping/stopping.hpp"

#include <QTest>

#include <numbers>

using namespace deepstop::stopping;
using deepstop::standardGravity;

namespace {

Car merle() { return { 1460, 2.72, 0.54, 0.53, 0.68 }; }

/// Discs: the brake factor is twice the pads' friction.
Brakes brakes(double frontArea = 2.5e-3, double rearArea = 1.13e-3, double grip = 1.05)
{
    return { { frontArea, 0.14, 2 * 0.42, 0.311, grip }, { rearArea, 0.12, 2 * 0.38, 0.311, grip } };
}

} // namespace

class StoppingTest : public QObject {
    Q_OBJECT
private slots:
    /// Kinematics: 35 mph in 5 m is 2.5 g and no tyre's; 60 mph in 45 m is 0.81 g.
    void tapesThatLieAreFoundOut()
    {
        const auto impossible = judge(35 * 0.44704, 5, 1.1);
        QVERIFY(std::abs(impossible.meanDeceleration / standardGravity - 2.496) < 0.01);
        QCOMPARE(impossible.plausible, std::optional(false));
        const auto good = judge(60 * 0.44704, 45, 1.1);
        QVERIFY(std::abs(good.meanDeceleration - 7.994) < 0.01);
        QCOMPARE(good.plausible, std::optional(true));
        QVERIFY(!judge(20, 30, {}).plausible);
    }

    void effectiveRadiusOfBothSchools()
    {
        const auto r = effectiveRadius(0.330, 0.048, 0.0007);
        QVERIFY(near(r.mean, 0.1643 - 0.024, 1e-9));
        QVERIFY(r.uniformPressure > r.mean && r.uniformPressure < 0.1643);
        // A vanishing pad acts at its own place by either theory.
        const auto thin = effectiveRadius(0.330, 1e-6, 0);
        QVERIFY(near(thin.mean, thin.uniformPressure, 1e-9));
        QVERIFY(std::isnan(effectiveRadius(0.1, 0.06, 0).mean));
    }

    /// Common practice: the same piston on a rotor 1 in larger gains about a tenth in torque.
    void aLargerRotorGainsItsLever()
    {
        const double before = effectiveRadius(0.288, 0.044, 0.0006).mean;
        const double after = effectiveRadius(0.288 + 0.0254, 0.044, 0.0006).mean;
        QVERIFY(after / before > 1.08 && after / before < 1.12);
    }

    void pistonsOfOneSideCountOnce()
    {
        const std::array bores { 0.038, 0.042 };
        QVERIFY(near(pistonAreaOneSide(bores), std::numbers::pi / 4 * (0.038 * 0.038 + 0.042 * 0.042), 1e-12));
        QCOMPARE(pistonAreaOneSide({}), 0.0);
    }

    void pressureFromTheFoot()
    {
        // By hand: 300 N · 3.8 · 4.5 / (π/4 · 23.81² mm²) = 115.2 bar
        QVERIFY(std::abs(linePressure(300, 3.8, 4.5, 0.02381) / 1e5 - 115.2) < 0.1);
    }

    void theValveBendsTheRear()
    {
        auto b = brakes();
        b.kneePressure = 35e5;
        b.slope = 0.4;
        QCOMPARE(b.rearPressure(20e5), 20e5);
        QCOMPARE(b.rearPressure(85e5), 55e5);
    }

    void withAntilockBothAxlesGiveAllTheyHold()
    {
        const auto held = hardestBraking(merle(), brakes(), 150e5, true);
        QVERIFY(near(held.deceleration, 1.05, 1e-9));
        QCOMPARE(held.limit, Limit::Tyres);
        QVERIFY(near(held.frontShare, 0.53 + 1.05 * 0.54 / 2.72, 1e-9)); // share + z h/L
    }

    void withoutAntilockTheFirstAxleToLockHoldsTheDriver()
    {
        const auto held = hardestBraking(merle(), brakes(4e-3, 0.6e-3), 150e5, false);
        QCOMPARE(held.limit, Limit::FrontLocks);
        QVERIFY(near(held.frontUse, 1, 1e-9));
        QVERIFY(held.rearUse < 0.9);
        QVERIFY(held.deceleration < 1.05);
        const auto rear = hardestBraking(merle(), brakes(1.2e-3, 2.5e-3), 150e5, false);
        QCOMPARE(rear.limit, Limit::RearLocks);
        QVERIFY(near(rear.rearUse, 1, 1e-9));
    }

    void aWeakFootIsThePedalsLimit()
    {
        const auto held = hardestBraking(merle(), brakes(), 10e5, false);
        QCOMPARE(held.limit, Limit::Pedal);
        const double force = 2 * (brakeTorque(brakes().front, 10e5) + brakeTorque(brakes().rear, 10e5)) / 0.311;
        QVERIFY(near(held.deceleration, force / (1460 * standardGravity), 1e-9));
    }

    void biggerFrontPistonsAloneNeverShortenAStopThatTheFrontLimits()
    {
        QCOMPARE(hardestBraking(merle(), brakes(3.2e-3), 150e5, false).limit, Limit::FrontLocks);
        double last = hardestBraking(merle(), brakes(3.2e-3), 150e5, false).deceleration;
        for (double area = 3.6e-3; area < 6e-3; area += 0.4e-3) {
            const double now = hardestBraking(merle(), brakes(area), 150e5, false).deceleration;
            QVERIFY(now <= last + 1e-12);
            last = now;
        }
    }

    void forcesNeverExceedWhatTheTyresHold()
    {
        for (int i = 0; i < 3000; ++i) {
            const Car car { between(500, 3000), between(1.8, 3.5), between(0.3, 0.9), between(0.35, 0.65), 0.6 };
            const double grip = between(0.3, 1.6);
            const auto held =
                hardestBraking(car, brakes(between(0.5e-3, 5e-3), between(0.5e-3, 5e-3), grip), between(5e5, 200e5), among(0, 1) == 1);
            QVERIFY(held.deceleration > 0 && held.deceleration <= grip * (1 + 1e-9));
            QVERIFY(held.frontUse <= 1 + 1e-6 && held.rearUse <= 1 + 1e-6);
            QVERIFY(held.frontShare > 0 && held.frontShare <= 1);
        }
    }

    /// Without antilock, independently: raise the pressure in 20,000 small steps until an axle has more force than its load holds.
    void theFirstAxleToLockIsWhereAScanFindsIt()
    {
        for (int i = 0; i < 60; ++i) {
            const Car car { between(600, 2500), between(2.0, 3.2), between(0.35, 0.8), between(0.38, 0.62), 0 };
            const double grip = between(0.5, 1.4);
            auto b = brakes(between(1e-3, 4e-3), between(0.5e-3, 3e-3), grip);
            if (among(0, 1)) {
                b.kneePressure = between(10e5, 60e5);
                b.slope = between(0, 0.8);
            }
            const double full = between(30e5, 150e5);
            const auto held = hardestBraking(car, b, full, false);
            const double weight = car.mass * standardGravity;
            double p = 0;
            Limit limit = Limit::Pedal;
            for (int k = 1; k <= 20000; ++k) {
                p = full * k / 20000;
                const double front = 2 * brakeTorque(b.front, p) / b.front.tyreRadius;
                const double rear = 2 * brakeTorque(b.rear, b.rearPressure(p)) / b.rear.tyreRadius;
                const double load = car.frontLoadShare + (front + rear) / weight * car.centreOfMassHeight / car.wheelbase;
                if (front > grip * load * weight || rear > grip * (1 - load) * weight) {
                    limit = front > grip * load * weight ? Limit::FrontLocks : Limit::RearLocks;
                    break;
                }
            }
            QVERIFY(std::abs(held.pressure - p) <= full / 20000 * 1.01);
            if (held.limit != Limit::Tyres)
                QCOMPARE(held.limit, limit);
        }
    }

    /// With antilock, independently: start at rest and let the loads follow the forces until nothing moves any more.
    void antilockSettlesWhereLoadsAndForcesAgree()
    {
        for (int i = 0; i < 200; ++i) {
            const Car car { between(600, 2500), between(2.0, 3.2), between(0.35, 0.6), between(0.42, 0.62), 0 };
            const double grip = between(0.5, 1.2);
            const auto b = brakes(between(1e-3, 4e-3), between(0.5e-3, 3e-3), grip);
            const double full = between(20e5, 150e5);
            const auto held = hardestBraking(car, b, full, true);
            const double weight = car.mass * standardGravity;
            double z = 0;
            for (int k = 0; k < 500; ++k) {
                const double load = car.frontLoadShare + z * car.centreOfMassHeight / car.wheelbase;
                const double front = std::min(2 * brakeTorque(b.front, full) / b.front.tyreRadius, grip * load * weight);
                const double rear = std::min(2 * brakeTorque(b.rear, full) / b.rear.tyreRadius, grip * (1 - load) * weight);
                z = (front + rear) / weight;
            }
            QVERIFY2(near(held.deceleration, z, 1e-6), qPrintable(QString("%1 %2").arg(held.deceleration).arg(z)));
        }
    }

    void badNumbersGiveNoNumber()
    {
        auto car = merle();
        car.mass = NAN;
        QVERIFY(std::isnan(hardestBraking(car, brakes(), 100e5, false).deceleration));
        QVERIFY(std::isnan(hardestBraking(merle(), brakes(), 0, false).deceleration));
    }
};

DEEPSTOP_TEST(StoppingTest)
#include "stopping_test.moc"
