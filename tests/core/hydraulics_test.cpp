#include "core/support.hpp"
#include "hydraulics/hydraulics.hpp"
#include "stopping/balance.hpp"
#include "stopping/drum.hpp"

#include <QTest>

#include <array>
#include <cmath>
#include <numbers>

using namespace deepstop::hydraulics;
using deepstop::standardGravity;
namespace stopping = deepstop::stopping;

namespace {

PedalTrain footWith(double bore, double gain = 4.5, double knee = 1e9)
{
    PedalTrain foot;
    foot.pedalRatio = 3.8;
    foot.freePlay = 0.006;
    foot.booster = { gain, knee };
    foot.master.bore = bore;
    foot.master.stroke = 0.036;
    return foot;
}

PedalTrain randomFoot()
{
    PedalTrain foot;
    foot.pedalRatio = between(2.5, 7);
    foot.freePlay = between(0, 0.012);
    foot.booster = { between(1, 7), between(500, 9000) };
    foot.master.twins = among(0, 1) == 1;
    foot.master.bore = between(0.015, 0.03);
    foot.master.rearBore = between(0.015, 0.03);
    foot.master.barToFront = between(0.3, 0.8);
    foot.master.stroke = between(0.02, 0.05);
    foot.master.firstShare = between(0.3, 0.7);
    return foot;
}

} // namespace

class HydraulicsTest : public QObject {
    Q_OBJECT
private slots:
    /// By hand: 320 N × 3.8 = 1216 N; × 4.5 = 5472 N over 445.3 mm² is 122.9 bar. With a knee of 4100 N: 4100 + 1216 − 911.1 = 4404.9
    /// N, 98.9 bar.
    void aBoosterRunsOut()
    {
        const double area = std::numbers::pi / 4 * 0.02381 * 0.02381;
        QVERIFY(near(frontPressure(footWith(0.02381), 320), 5472 / area, 1e-12));
        QVERIFY(near(frontPressure(footWith(0.02381, 4.5, 4100), 320), (4100 + 1216 - 4100 / 4.5) / area, 1e-12));
        QVERIFY(near(forceAtKnee(footWith(0.02381, 4.5, 4100)), 4100 / 4.5 / 3.8, 1e-12));
        QVERIFY(std::isinf(forceAtKnee(footWith(0.02381, 1))));
    }

    /// The force for a pressure is the inverse of the pressure for a force, for any foot; and a measured pressure scales both.
    void footAndPressureInvert()
    {
        for (int i = 0; i < 2000; ++i) {
            PedalTrain foot = randomFoot();
            foot.measuredOverReckoned = between(0.7, 1.3);
            const double force = between(1, 900);
            QVERIFY(near(pedalForceFor(foot, frontPressure(foot, force)), force, 1e-9));
            QVERIFY(frontPressure(foot, force * 1.01) > frontPressure(foot, force));
        }
    }

    /// From a 20.6 to a 23.8 mm master cylinder pressure falls and travel shortens by the square of the bores, exactly.
    void theMastersBoreCountsSquared()
    {
        const PedalTrain small = footWith(0.0206);
        const PedalTrain large = footWith(0.0238);
        const double squares = std::pow(0.0238 / 0.0206, 2);
        QVERIFY(near(frontPressure(small, 200) / frontPressure(large, 200), squares, 1e-12));
        const FluidDemand front { 0.6e-6, 5e-6 / 70e5 };
        const FluidDemand rear { 0.3e-6, 2e-6 / 70e5 };
        const auto a = travel(small, front, rear, 60e5, 45e5);
        const auto b = travel(large, front, rear, 60e5, 45e5);
        QVERIFY(near(a.pushrod / b.pushrod, squares, 1e-12));
        QVERIFY(near((a.pedal - 0.006) / (b.pedal - 0.006), squares, 1e-12));
        QVERIFY(near(a.strokeShare / b.strokeShare, squares, 1e-12));
    }

    /// By hand: 57 mm of one piston, 25.52 cm², floating; two of 40.3 mm a side, fixed: as much on one side, twice as much in all. Both
    /// press alike; roll-back of 0.12 mm takes 2 × 0.306 cm³ of the one and 2 × 0.612 of the other, and everything else is the same.
    void aFloatingAndAFixedCaliperOfOneAreaClampAlike()
    {
        const double side = areaOf(0.057);
        const DiscTakeUp floating { side, side, 0.12e-3, 0.1e-3, 1e-6, 0.4e-6 };
        DiscTakeUp fixed = floating;
        fixed.areaAll = 2 * side;
        const stopping::AxleBrakes axle { side, 0.14, 0.84, 0.31, 1 };
        QVERIFY(near(stopping::brakeTorque(axle, 60e5), 0.84 * 60e5 * side * 0.14, 1e-12));
        QVERIFY(near(takeUpOf(floating).atOnce, 2 * 0.3062e-6, 1e-3));
        QVERIFY(near(takeUpOf(fixed).atOnce, 2 * 0.6124e-6, 1e-3));
        QCOMPARE(takeUpOf(fixed).perPressure, takeUpOf(floating).perPressure);
        for (int i = 0; i < 1000; ++i) {
            const double one = between(5e-4, 6e-3);
            const DiscTakeUp a { one, one, between(0, 0.3e-3), between(0, 0.3e-3), between(0, 3e-6), between(0, 1e-6) };
            DiscTakeUp b = a;
            b.areaAll = 2 * one;
            const double p = between(1e5, 150e5);
            // Two more pistons, each rolled back: that much more fluid at any pressure, and nothing else.
            QVERIFY(near(takeUpOf(b).at(p) - takeUpOf(a).at(p), 2 * a.rollBack * one, 1e-6) || a.rollBack < 1e-9);
        }
        QCOMPARE(takeUpOf(floating).at(0), 0.0);
    }

    /// Work in at the push rod is work out at the cylinders, whatever the bar, and the bar parts the force.
    void aBalanceBarKeepsItsWork()
    {
        for (int i = 0; i < 1000; ++i) {
            PedalTrain foot = randomFoot();
            foot.master.twins = true;
            const double pressure = between(5e5, 120e5);
            const double rear = pressure * rearOverFront(foot.master);
            const double push = pressure * rodArea(foot.master);
            QVERIFY(near(pressure * areaOf(foot.master.bore) + rear * areaOf(foot.master.rearBore), push, 1e-12));
            const FluidDemand f { between(0, 1e-6), between(0, 1e-12) };
            const FluidDemand r { between(0, 1e-6), between(0, 1e-12) };
            const double moved = travel(foot, f, r, pressure, rear).pushrod;
            QVERIFY(near(push * moved, pressure * f.at(pressure) + rear * r.at(rear), 1e-9));
        }
    }

    /// A tandem whose one circuit is gone bottoms that chamber first, and the pedal is lower than before.
    void oneCircuitGoneCostsItsStroke()
    {
        const PedalTrain foot = footWith(0.0238);
        const double volume = 4e-6;
        const auto gone = oneGone(foot, false, volume);
        QVERIFY(near(gone.pedal, (0.018 + volume / areaOf(0.0238)) * 3.8 + 0.006, 1e-12));
        QVERIFY(near(gone.strokeShare, volume / areaOf(0.0238) / 0.018, 1e-12));
        QVERIFY(oneGone(foot, true, 9e-6).strokeShare > 1);
        // Diagonal circuits share out the fluid, so that the fuller chamber has less to do.
        PedalTrain diagonal = foot;
        diagonal.master.diagonal = true;
        const FluidDemand front { 0, 6e-6 / 70e5 };
        const FluidDemand rear { 0, 2e-6 / 70e5 };
        QVERIFY(travel(diagonal, front, rear, 70e5, 70e5).strokeShare < travel(foot, front, rear, 70e5, 70e5).strokeShare);
    }

    /// Common practice: single 51 mm pistons on a 28.6 mm master with drums behind lock the rear first, short and hard, the booster idle;
    /// 74.7 mm ones cure the balance, soften the pedal and lengthen its travel by the ratio of the volumes.
    void theClassicCase()
    {
        const stopping::Car car { 1500, 2.75, 0.55, 0.55, 0 };
        const double drum = 0.125;
        const double factor = stopping::brakeFactor(stopping::DrumKind::LeadingTrailing, stopping::usualShoes(drum, 0.38));
        const auto brakesWith = [&](double bore) {
            return stopping::Brakes { { areaOf(bore), 0.120, 2 * 0.38, 0.31, 0.9 }, { areaOf(0.0222), drum, factor, 0.31, 0.9 } };
        };
        const auto small = stopping::lockPressures(car, brakesWith(0.051), 1e9);
        const auto large = stopping::lockPressures(car, brakesWith(0.0747), 1e9);
        QVERIFY(small.rear < small.front);
        QVERIFY(large.front < large.rear);
        PedalTrain foot = footWith(0.0286, 4.5, 4100);
        foot.master.stroke = 0.04;
        const auto takeUp = [](double bore) { return takeUpOf(DiscTakeUp { areaOf(bore), areaOf(bore), 0.12e-3, 0.1e-3, 0, 0 }); };
        // The figures the handbook states: the force of a stop of 0.8 g, and how far the front's pistons take the pedal at that force.
        const auto forceFor = [&](double bore) { return pedalForceFor(foot, stopping::pressureFor(car, brakesWith(bore), 0.8)); };
        QVERIFY(forceFor(0.051) > 1.5 * forceFor(0.0747));
        const double p = 40e5;
        QVERIFY(near(takeUp(0.0747).at(p) / takeUp(0.051).at(p), std::pow(74.7 / 51, 2), 1e-12));
        const auto pedal = [&](double bore) { return travel(foot, takeUp(bore), {}, p, 0).pedal - foot.freePlay; };
        QVERIFY(near(pedal(0.0747) / pedal(0.051), std::pow(74.7 / 51, 2), 1e-12));
    }

    void nonsenseGivesNoNumbers()
    {
        PedalTrain foot = footWith(0.0238);
        QVERIFY(std::isnan(frontPressure(foot, -1)));
        for (const auto& spoil :
            std::array<void (*)(PedalTrain&), 7> { [](PedalTrain& f) { f.pedalRatio = 0; }, [](PedalTrain& f) { f.booster.gain = 0.5; },
                [](PedalTrain& f) { f.booster.knee = -1; }, [](PedalTrain& f) { f.master.bore = -0.02; },
                [](PedalTrain& f) {
                    f.master.twins = true;
                    f.master.rearBore = 0;
                },
                [](PedalTrain& f) {
                    f.master.twins = true;
                    f.master.rearBore = 0.02;
                    f.master.barToFront = 1;
                },
                [](PedalTrain& f) { f.master.firstShare = 1.2; } }) {
            PedalTrain spoilt = foot;
            spoil(spoilt);
            QVERIFY(std::isnan(frontPressure(spoilt, 100)));
            QVERIFY(std::isnan(pedalForceFor(spoilt, 40e5)));
            QVERIFY(std::isnan(travel(spoilt, {}, {}, 40e5, 40e5).pedal));
        }
    }

    /// Shigley's internal expanding shoe (from memory), integrated over the lining instead of in closed form: the pressure follows the sine
    /// of the angle from the pivot; friction and pressure turn the shoe about it.
    void drumFactorsAgainstAnIntegration()
    {
        for (int i = 0; i < 300; ++i) {
            const stopping::Shoes shoes { 0.12, 0.12 * between(0.6, 0.95), between(60, 130) * std::numbers::pi / 180, between(0.15, 0.45) };
            const auto shoe = [&](double way) {
                constexpr int steps = 4000;
                const double from = (std::numbers::pi - shoes.arc) / 2;
                double turning = 0;
                double friction = 0;
                for (int k = 0; k < steps; ++k) {
                    const double angle = from + shoes.arc * (k + 0.5) / steps;
                    const double normal = std::sin(angle) * shoes.arc / steps;
                    turning += normal * shoes.anchorRadius * std::sin(angle)
                        - way * shoes.friction * normal * (shoes.radius - shoes.anchorRadius * std::cos(angle));
                    friction += shoes.friction * normal;
                }
                const double push = turning / (shoes.anchorRadius + 0.72 * shoes.radius);
                return friction / push;
            };
            const double leading = shoe(1);
            const double trailing = shoe(-1);
            const double both = stopping::brakeFactor(stopping::DrumKind::LeadingTrailing, shoes);
            if (leading < 0) {
                QVERIFY(std::isnan(both));
                continue;
            }
            QVERIFY(near(both, leading + trailing, 1e-5));
            QVERIFY(near(stopping::brakeFactor(stopping::DrumKind::TwoLeading, shoes), 2 * leading, 1e-5));
        }
    }

    /// Common practice: +10 % of friction gives about +12 % of a leading and trailing pair and +35 % of a self-energising one.
    void drumsAreSteepInFriction()
    {
        const auto growth = [](stopping::DrumKind kind) {
            return stopping::brakeFactor(kind, stopping::usualShoes(0.12, 0.418))
                / stopping::brakeFactor(kind, stopping::usualShoes(0.12, 0.38))
                - 1;
        };
        QVERIFY(growth(stopping::DrumKind::LeadingTrailing) > 0.10 && growth(stopping::DrumKind::LeadingTrailing) < 0.22);
        QVERIFY(growth(stopping::DrumKind::SelfEnergising) > 0.28 && growth(stopping::DrumKind::SelfEnergising) < 0.45);
    }
};

DEEPSTOP_TEST(HydraulicsTest)
#include "hydraulics_test.moc"
