/// Lock points and braking with part of the brakes, against SciPy's root finding.

#include "core/support.hpp"
#include "stopping/balance.hpp"

#include <QTest>

using namespace deepstop::stopping;

class BalanceOutsideTest : public QObject {
    Q_OBJECT
private slots:
    /// Outside: scipy.optimize.brentq over 2,000 random cars, valve and bar included, from the balance of forces alone.
    void lockPointsAgainstScipy()
    {
        QByteArray asked;
        struct Ours {
            double front;
            double rear;
            double both;
        };
        std::vector<Ours> ours;
        for (int i = 0; i < 2000; ++i) {
            const Car car { between(500, 3500), between(2, 3.6), between(0.3, 1.1), between(0.35, 0.65), 0 };
            const Brakes brakes { { between(1e-3, 5e-3), between(0.1, 0.16), between(0.6, 1), between(0.28, 0.36), between(0.5, 1.4) },
                { between(5e-4, 2.5e-3), between(0.1, 0.16), between(0.6, 1), between(0.28, 0.36), between(0.5, 1.4) },
                among(0, 1) ? between(10e5, 60e5) : 1e12, between(0.2, 1), between(0.6, 1.5) };
            const double pressure = between(20e5, 150e5);
            const auto locks = lockPressures(car, brakes, 1e9);
            ours.push_back({ locks.front, locks.rear, decelerationOf(car, brakes, { 1, 1 }, pressure) });
            for (const double each : { car.mass, car.wheelbase, car.centreOfMassHeight, car.frontLoadShare, brakes.front.pistonArea,
                     brakes.front.effectiveRadius, brakes.front.brakeFactor, brakes.front.tyreRadius, brakes.front.grip,
                     brakes.rear.pistonArea, brakes.rear.effectiveRadius, brakes.rear.brakeFactor, brakes.rear.tyreRadius, brakes.rear.grip,
                     brakes.kneePressure, brakes.slope, brakes.rearOverFront, pressure })
                asked += QByteArray::number(each, 'g', 17) + ' ';
            asked += '\n';
        }
        const auto answer = answerOf("/usr/bin/python3", { "-c", R"(
import sys
from scipy.optimize import brentq
for line in sys.stdin:
    m,L,h,b,fa,fr,ff,ft,fg,ra,rr,rf,rt,rg,knee,slope,bar,p = map(float, line.split())
    W = m*9.80665
    def force(p):
        q = bar*p
        q = q if q <= knee else knee + slope*(q-knee)
        return 2*ff*p*fa*fr/ft, 2*rf*q*ra*rr/rt
    def load(z):
        f = min(1.0, max(0.0, b + z*h/L))*W
        return f, W-f
    def lock(axle, grip):
        def over(p):
            F = force(p)
            return F[axle] - grip*load(sum(F)/W)[axle]
        return brentq(over, 1.0, 1e10, xtol=1e-3, rtol=1e-12) if over(1e10) > 0 else -1
    F = force(p)
    def held(z):
        l = load(z)
        return (min(F[0], fg*l[0]) + min(F[1], rg*l[1]))/W - z
    z = brentq(held, 0, sum(F)/W + 1e-9, xtol=1e-13)
    print(repr(lock(0, fg)), repr(lock(1, rg)), repr(z))
)" },
            asked);
        const auto lines = answer.split('\n');
        QCOMPARE(lines.size(), 2001);
        for (std::size_t i = 0; i < ours.size(); ++i) {
            const auto theirs = lines[static_cast<int>(i)].split(' ');
            QCOMPARE(theirs.size(), 3);
            const auto same = [](double mine, double other) { return other < 0 ? std::isinf(mine) : near(mine, other, 1e-7); };
            QVERIFY2(same(ours[i].front, theirs[0].toDouble()) && same(ours[i].rear, theirs[1].toDouble())
                    && near(ours[i].both, theirs[2].toDouble(), 1e-7),
                (QByteArray::number(static_cast<int>(i)) + ": " + QByteArray::number(ours[i].front) + " " + QByteArray::number(ours[i].rear)
                    + " " + QByteArray::number(ours[i].both) + " / " + lines[static_cast<int>(i)])
                    .constData());
        }
    }
};

DEEPSTOP_TEST(BalanceOutsideTest)
#include "balance_outside_test.moc"
