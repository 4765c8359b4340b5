/// The stop in steps: exact where nothing else acts, what holds it at each speed, and what may not make it shorter.

#include "core/support.hpp"
#include "quantity/quantile.hpp"
#include "stopping/drive.hpp"
#include "stopping/spread.hpp"

#include <QTest>

#include <random>

using namespace deepstop;
using namespace deepstop::stopping;

namespace {

constexpr double g = standardGravity;

/// An estate, its brakes worth 1.4 g at 100 bar.
struct Told {
    stopping::Car car { 1460, 2.7, 0.52, 0.54, 0 };
    Brakes brakes { { 20e-4, 0.14, 0.8, 0.31, 1.0 }, { 9e-4, 0.13, 0.8, 0.31, 1.0 } };
    Circumstances how { 120e5 };
    [[nodiscard]] double distance(double speed = 100 / 3.6) const { return drive(car, brakes, how, speed).distance; }
};

} // namespace

class DriveTest : public QObject {
    Q_OBJECT
private slots:
    /// v²/2a where the foot is the limit and nothing else acts: to rounding.
    void aSteadyBrakingIsTheTextbooks()
    {
        for (const double pressure : { 10e5, 20e5, 30e5 })
            for (const double speed : { 3.0, 15.0, 30.0, 60.0 }) {
                Told t;
                t.how.fullPressure = pressure;
                const double a = brakeForces(t.brakes, pressure).sum() / t.car.mass;
                const auto stop = drive(t.car, t.brakes, t.how, speed, true);
                QVERIFY(near(stop.distance, speed * speed / (2 * a), 1e-9));
                QVERIFY(near(stop.duration, speed / a, 1e-9));
                QVERIFY(near(stop.course.back().distance, stop.distance, 1e-9) && stop.course.back().speed < 1e-9);
                QCOMPARE(stop.longest, Hold::Effort);
            }
    }

    /// Both axles at their grip under antilock: μ·g, whatever the loads do.
    void antilockUsesAllOfTheGrip()
    {
        Told t;
        t.how.antilock = true;
        QVERIFY(near(t.distance(), std::pow(100 / 3.6, 2) / (2 * g), 1e-6));
        t.how.antilockQuality = 0.9;
        QVERIFY(near(t.distance(), std::pow(100 / 3.6, 2) / (2 * 0.9 * g), 1e-6));
        t.how.antilockQuality = 1;
        t.how.grip = 0.6;
        QVERIFY(near(t.distance(), std::pow(100 / 3.6, 2) / (2 * 0.6 * g), 1e-6));
    }

    /// Without antilock, loads at once, no lag: as hard as `hardestBraking` says, which is worked out another way.
    void theDriverHoldsTheFirstAxleAtItsLimit()
    {
        std::mt19937 rng(3);
        std::uniform_real_distribution<double> any(0.7, 1.4);
        int fronts = 0;
        for (int i = 0; i < 300; ++i) {
            Told t;
            t.car.centreOfMassHeight *= any(rng);
            t.car.frontLoadShare = std::min(0.7, t.car.frontLoadShare * any(rng));
            t.brakes.front.pistonArea *= any(rng);
            t.brakes.rear.pistonArea *= any(rng);
            t.brakes.kneePressure = 30e5 * any(rng);
            t.brakes.slope = 0.4 * any(rng);
            const Braking held = hardestBraking(t.car, t.brakes, t.how.fullPressure, false);
            const double speed = 25;
            QVERIFY2(near(drive(t.car, t.brakes, t.how, speed).distance, speed * speed / (2 * held.deceleration * g), 1e-6),
                qPrintable(QString::number(i)));
            fronts += held.limit == Limit::FrontLocks;
        }
        QVERIFY(fronts > 50 && fronts < 290);
    }

    /// Half the build-up at full speed, to first order; the rest of it is a twenty-fourth of a·t².
    void theFootBuildsUp()
    {
        Told t;
        t.how.fullPressure = 20e5;
        const double a = brakeForces(t.brakes, 20e5).sum() / t.car.mass;
        const double plain = t.distance();
        t.how.buildUp = 0.4;
        const double v = 100 / 3.6;
        // v' = v − a t²/(2T); the exact sum of both phases, by hand.
        const double T = 0.4;
        const double left = v - a * T / 2;
        QVERIFY(near(t.distance(), v * T - a * T * T / 6 + left * left / (2 * a), 1e-6));
        QVERIFY(t.distance() > plain);
        const auto course = drive(t.car, t.brakes, t.how, v, true).course;
        QCOMPARE(course.front().hold, Hold::Foot);
        QCOMPARE(course.back().hold, Hold::Effort);
    }

    void airAndSlopeAndWindCount()
    {
        Told t;
        t.how.fullPressure = 20e5;
        const double plain = t.distance();
        Told windy = t;
        windy.car.dragArea = 0.7;
        const double calm = windy.distance();
        QVERIFY(calm < plain);
        windy.how.headwind = 5;
        QVERIFY(windy.distance() < calm);
        windy.how.headwind = -5;
        QVERIFY(windy.distance() > calm);
        // Down a slope gravity takes its part back: a − g·sin.
        Told down = t;
        down.how.slope = 0.06;
        const double a = brakeForces(t.brakes, 20e5).sum() / t.car.mass;
        QVERIFY(near(down.distance(), std::pow(100 / 3.6, 2) / (2 * (a - 0.06 * g)), 1e-9));
    }

    /// What hinders never helps: less grip, hot pads, more load falling off, a slower foot, more mass, over random cars.
    void nothingWorseStopsShorter()
    {
        std::mt19937 rng(11);
        std::uniform_real_distribution<double> any(0.7, 1.3);
        for (int i = 0; i < 400; ++i) {
            Told t;
            t.car.mass *= any(rng);
            t.car.dragArea = 0.6 * any(rng);
            t.brakes.front.pistonArea *= any(rng);
            t.brakes.rear.pistonArea *= any(rng) * 0.8;
            t.how = { 70e5 * any(rng), 0.2 * any(rng), i % 2 == 0, 0.95, 0.2 * any(rng), 0.05, 1, 0.012, 0, 0, 1, 1 };
            const double before = t.distance();
            QVERIFY(std::isfinite(before));
            const auto worse = [&](auto change) {
                Told w = t;
                change(w);
                const double after = w.distance();
                return std::isnan(after) || after >= before - 1e-6;
            };
            QVERIFY(worse([](Told& w) { w.how.grip = 0.8; }));
            QVERIFY(worse([](Told& w) { w.how.buildUp *= 2; }));
            QVERIFY(worse([](Told& w) { w.how.fullPressure *= 0.8; }));
            QVERIFY(worse([](Told& w) { w.how.slope = 0.05; }));
            QVERIFY(worse([](Told& w) { w.how.headwind = -4; }));
            QVERIFY(worse([](Told& w) { w.how.frontFriction = w.how.rearFriction = 0.7; }));
        }
    }

    void fadedPadsAreNamed()
    {
        Told t;
        t.how.fullPressure = 40e5;
        t.how.frontFriction = t.how.rearFriction = 0.5;
        QCOMPARE(drive(t.car, t.brakes, t.how, 25, true).longest, Hold::Fade);
        t.how.frontFriction = t.how.rearFriction = 1;
        t.how.antilock = true;
        QVERIFY(drive(t.car, t.brakes, t.how, 25, true).longest != Hold::Fade);
    }

    void nonsenseHasNoDistance()
    {
        Told t;
        QVERIFY(std::isnan(t.distance(0)));
        QVERIFY(std::isnan(t.distance(1e4)));
        t.how.fullPressure = 0;
        QVERIFY(std::isnan(t.distance()));
        t = {};
        t.car.mass = -1;
        QVERIFY(std::isnan(t.distance()));
        // Down a wall no brakes hold: it never stops.
        t = {};
        t.how.fullPressure = 1e5;
        t.how.slope = 0.4;
        QVERIFY(std::isnan(t.distance()));
    }

    /// Common numbers: two setups that are alike differ by nothing in any draw; the widths show where they are not.
    void drawsAreCommon()
    {
        Told t;
        t.how = { 60e5, 0.2, false, 1, 0.25, 0.1, 1, 0.012, 0, 0, 1, 1 };
        const std::vector<Case> alike { { t.car, t.brakes, t.how, 27, 0 }, { t.car, t.brakes, t.how, 27, 0 } };
        const auto same = spread(alike, 50, {}, 1);
        QVERIFY(same[0] == same[1]);
        std::vector<Case> two = alike;
        two[1].parts = 1;
        const auto other = spread(two, 50, {}, 1);
        QVERIFY(other[0] == same[0] && other[1] != same[1]);
        QVERIFY(quantile(same[0], 0.9) > 1.02 * quantile(same[0], 0.1));
        QVERIFY(std::isnan(quantile({}, 0.5)));
    }
};

DEEPSTOP_TEST(DriveTest)
#include "drive_test.moc"
