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
        // A vanishing pad acts at its own place in either school.
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
        QVERIFY(std::isnan(stop(merle(), NAN, 27, 0).distance));
        QVERIFY(std::isnan(stop(merle(), 1, -27, 0).distance));
        for (const double absurd : { 401.0, 1e9, 1e200, 1e-300 })
            QVERIFY(std::isnan(stop(merle(), 1, absurd, 0).distance));
        QVERIFY(std::isfinite(stop(merle(), 1, 399, 0).distance));
        car = merle();
        car.dragArea = 1e9;
        QVERIFY(std::isnan(stop(car, 1, 27, 0).distance));
    }

    void withoutDragItIsVSquaredOverTwoA()
    {
        auto car = merle();
        car.dragArea = 0;
        for (const double v : { 5.0, 15.65, 27.78, 60.0 }) {
            const auto s = stop(car, 0.95, v, 0);
            QVERIFY(near(s.distance, v * v / (2 * 0.95 * standardGravity), 1e-9));
            QVERIFY(near(s.duration, v / (0.95 * standardGravity), 1e-9));
            QVERIFY(near(s.meanDeceleration, 0.95 * standardGravity, 1e-9));
        }
        QVERIFY(near(stop(car, 0.95, 20, 0.3).distance - stop(car, 0.95, 20, 0).distance, 20 * 0.15, 1e-9));
    }

    void theCourseRunsFromSpeedToStandstill()
    {
        const auto s = stop(merle(), 1, 27.78, 0.25);
        QCOMPARE(s.course.front().speed, 27.78);
        QVERIFY(std::abs(s.course.back().speed) < 1e-9);
        QVERIFY(near(s.course.back().distance, s.distance, 1e-12));
        for (std::size_t i = 1; i < s.course.size(); ++i)
            QVERIFY(s.course[i].distance >= s.course[i - 1].distance && s.course[i].speed <= s.course[i - 1].speed + 1e-9);
        QVERIFY(near(stop(merle(), 1, 27.78, 0.25, false).distance, s.distance, 1e-8));
    }

    /// Source: SciPy's solve_ivp (RK45, run live) over time, another variable and another integrator than ours.
    void theSteppedStopAgreesWithSciPy()
    {
        const char* script = "import sys\nfrom scipy.integrate import solve_ivp\n"
                             "for line in sys.stdin:\n"
                             "  m,cda,z,v=map(float,line.split())\n"
                             "  f=lambda t,y:[y[1],-(z*9.80665+0.5*1.225*cda*y[1]**2/m)]\n"
                             "  e=lambda t,y:y[1]\n"
                             "  e.terminal=True\n"
                             "  s=solve_ivp(f,[0,100],[0,v],events=e,rtol=1e-11,atol=1e-11)\n"
                             "  print(repr(s.y_events[0][0][0]),repr(s.t_events[0][0]))\n";
        QByteArray cases;
        std::vector<Stop> ours;
        for (int i = 0; i < 40; ++i) {
            const double m = between(500, 3000), cda = between(0, 1.2), z = between(0.2, 1.5), v = between(5, 80);
            cases += QByteArray::number(m, 'g', 17) + ' ' + QByteArray::number(cda, 'g', 17) + ' ' + QByteArray::number(z, 'g', 17) + ' '
                + QByteArray::number(v, 'g', 17) + '\n';
            auto car = merle();
            car.mass = m;
            car.dragArea = cda;
            ours.push_back(stop(car, z, v, 0));
        }
        const auto lines = answerOf("/usr/bin/python3", { "-c", script }, cases).trimmed().split('\n');
        QCOMPARE(lines.size(), qsizetype(ours.size()));
        for (std::size_t i = 0; i < ours.size(); ++i) {
            const auto parts = lines[qsizetype(i)].split(' ');
            QVERIFY2(near(parts[0].toDouble(), ours[i].distance, 1e-8), lines[qsizetype(i)].constData());
            QVERIFY(near(parts[1].toDouble(), ours[i].duration, 1e-8));
        }
    }
};

DEEPSTOP_TEST(StoppingTest)
#include "stopping_test.moc"
