/// Bolts, plates and split calipers against tables, by hand, and by trying everything.

#include "bracket/bracket.hpp"
#include "core/support.hpp"
#include "joints/bolts.hpp"
#include "joints/split_caliper.hpp"

#include <QTest>

#include <numbers>
#include <set>

using namespace deepstop;
using joints::Grade;
using joints::Lubrication;

class JointsTest : public QObject {
    Q_OBJECT
private slots:
    /// Source: ISO 898-1, nominal stress areas, mm² (from memory), rounded there to three figures.
    void stressAreasAreThePublishedOnes_data()
    {
        QTest::addColumn<QString>("thread");
        QTest::addColumn<double>("area");
        for (const auto& [name, area] : { std::pair { "M8", 36.6 }, { "M10x1.5", 58.0 }, { "M12x1.75", 84.3 }, { "M12x1.5", 88.1 },
                 { "M14x2", 115.0 }, { "M14x1.5", 125.0 }, { "M16x2", 157.0 }, { "M16x1.5", 167.0 }, { "M6", 20.1 }, { "M10x1.25", 61.2 } })
            QTest::newRow(name) << name << area;
        // Source: ASME B1.1, in², from memory: 3/8-24 0.0878, 7/16-20 0.1187, 1/2-20 0.1599.
        QTest::newRow("3/8-24") << "3/8-24" << 0.0878 * 645.16;
        QTest::newRow("7/16-20") << "7/16-20" << 0.1187 * 645.16;
        QTest::newRow("1/2-20") << "1/2-20" << 0.1599 * 645.16;
    }
    void stressAreasAreThePublishedOnes()
    {
        QFETCH(QString, thread);
        QFETCH(double, area);
        const auto parsed = joints::parseThread(thread.toStdString());
        QVERIFY(parsed);
        QVERIFY2(std::abs(joints::stressArea(*parsed) * 1e6 - area) < 0.005 * area,
            qPrintable(QString::number(joints::stressArea(*parsed) * 1e6)));
    }

    /// Source: ISO 898-1 (from memory), stress under proof load.
    void proofStressesAreThePublishedOnes()
    {
        QCOMPARE(joints::proofStress(Grade::G8_8, 0.016), 580e6);
        QCOMPARE(joints::proofStress(Grade::G8_8, 0.018), 600e6);
        QCOMPARE(joints::proofStress(Grade::G10_9, 0.012), 830e6);
        QCOMPARE(joints::proofStress(Grade::G12_9, 0.012), 970e6);
        // Source: ISO 898-1 proof loads (from memory): M12 8.8 coarse 48.9 kN, M10 10.9 48.1 kN.
        QVERIFY(near(joints::proofLoad(*joints::parseThread("M12"), Grade::G8_8), 48.9e3, 0.005));
        QVERIFY(near(joints::proofLoad(*joints::parseThread("M10"), Grade::G10_9), 48.1e3, 0.005));
    }

    /// By hand: M12 × 1.75 10.9, 75 % of proof: 0.75 · 830 · 84.3 = 52.5 kN; dry 0.2 · 52.5 kN · 12 mm = 126 N·m. Common practice for K.
    void torqueAndPreload()
    {
        const auto m12 = *joints::parseThread("M12x1.75");
        const double preload = joints::preloadAim * joints::proofLoad(m12, Grade::G10_9);
        QVERIFY(near(preload, 52.5e3, 0.003));
        const double torque = joints::torqueFor(preload, 0.012, Lubrication::Dry);
        QVERIFY(near(torque, 126.0, 0.003));
        for (const auto l : { Lubrication::Dry, Lubrication::Oiled, Lubrication::Threadlocker, Lubrication::AntiSeize })
            QVERIFY(near(joints::preloadFrom(joints::torqueFor(1234, 0.01, l), 0.01, l), 1234, 1e-12));
        // The dry torque on anti-seize pulls more than half as much again: 0.2 / 0.125 = 1.6.
        QVERIFY(near(joints::preloadFrom(torque, 0.012, Lubrication::AntiSeize) / preload, 1.6, 1e-12));
    }

    /// By hand: bolt of 35, grip 14 and shims 1.5: 19.5 into the thread, a pitch of lead less; 18 deep, 4 behind.
    void boltsReachAndDoNotBottom()
    {
        const auto fit = joints::fitOf({ 0.035, 0.014, 0.0015, 0.018, 0.004, 1.5e-3 });
        QVERIFY(near(fit.engaged, 0.018, 1e-9));
        QVERIFY(near(fit.past, 0.0015, 1e-9));
        QVERIFY(near(fit.roomLeft, 0.0025, 1e-9));
        const auto shorter = joints::fitOf({ 0.030, 0.014, 0.0015, 0.018, 0, 1.5e-3 });
        QVERIFY(near(shorter.engaged, 0.013, 1e-9));
        QVERIFY(shorter.roomLeft > 0);
        const auto blind = joints::fitOf({ 0.035, 0.014, 0.0015, 0.018, 0, 1.5e-3 });
        QVERIFY(blind.roomLeft < 0); // bottoms
        QVERIFY(std::isnan(joints::fitOf({ NAN, 0.014, 0, 0.018, 0, 1.5e-3 }).engaged));
        const auto lengths = joints::lengthsThatDo({ 0, 0.014, 0.0015, 0.018, 0.004, 1.5e-3 }, 0.012);
        QVERIFY(lengths && near(lengths->least, 0.029, 1e-9) && near(lengths->most, 0.0375, 1e-9));
        QVERIFY(!joints::lengthsThatDo({ 0, 0.014, 0, 0.010, 0, 1.5e-3 }, 0.024)); // 2 d of aluminium in a shallow hole
        QVERIFY(near(joints::engagementWanted(joints::Metal::Aluminium), 2.0, 1e-12));
    }

    /// By hand: two bolts at 50 kN hold 2 · 50 · 0.15 = 15 kN; 1500 N·m at 150 mm pull 10 kN: margin 1.5.
    void slipAndShear()
    {
        QVERIFY(near(joints::slipMargin(2, 50e3, 1500, 0.15), 1.5, 1e-12));
        const auto m12 = *joints::parseThread("M12x1.75");
        QVERIFY(near(joints::shearMargin(2, m12, Grade::G10_9, 1500, 0.15), 2 * 0.6 * joints::proofLoad(m12, Grade::G10_9) / 10e3, 1e-12));
        QVERIFY(std::isinf(joints::slipMargin(2, 50e3, 0, 0.15)));
    }

    /// Every bolt once, neighbours never one after the other where there is a choice, and five in a star.
    void tighteningGoesAcross()
    {
        QCOMPARE(joints::tighteningOrder(5), (std::vector { 0, 2, 4, 1, 3 }));
        QCOMPARE(joints::tighteningOrder(4), (std::vector { 0, 2, 1, 3 }));
        for (int n = 1; n <= 16; ++n) {
            const auto order = joints::tighteningOrder(n);
            QCOMPARE(std::set<int>(order.begin(), order.end()).size(), std::size_t(n));
            for (std::size_t i = 1; n >= 6 && i < order.size() / 2; ++i) {
                const int d = std::abs(order[i] - order[i - 1]);
                QVERIFY(std::min(d, n - d) > 1);
            }
            QCOMPARE(joints::tighteningRounds(n).back(), 1.0);
        }
        QVERIFY(joints::tighteningOrder(0).empty());
    }

    /// Common practice: 20 mm rotor replaced by one of 28: spacers of 8, bolts and pins 8 longer, washers of 4 at the mount.
    void aSplitCaliperIsWidened()
    {
        const auto w = joints::widen({ 0.036, 0.060, 0.082, 0 }, 0.008);
        QVERIFY(near(w.spacer, 0.008, 1e-12) && near(w.bridgeBoltLength, 0.068, 1e-12) && near(w.pinLength, 0.090, 1e-12));
        QVERIFY(near(w.mountWasher, 0.004, 1e-12) && near(w.mountEngagementLost, 0.004, 1e-12) && near(w.slotWidth, 0.044, 1e-12));
        QVERIFY(near(joints::soldBoltLength(0.068), 0.070, 1e-12) && near(joints::soldBoltLength(0.070), 0.070, 1e-12));
        QVERIFY(std::isnan(joints::widen({ 0.036, 0.06, 0.08, 0 }, -0.002).spacer));
        QVERIFY(std::isnan(joints::widen({ 0.036, NAN, 0.08, 0 }, 0.008).bridgeBoltLength));
    }

    /// By hand: holes of the caliper 30 mm under the edge of a 330 mm rotor stand 165 − 30 = 135 mm from the axis; the slot's middle is to
    /// stand 24.85 mm inboard of the hub face, the caliper's face 12 mm inboard of that, the lugs' face 53.5: 53.5 − 24.85 − 12 = 16.65.
    void theAdapterPutsThePadAtTheEdge()
    {
        const bracket::Knuckle knuckle { 0.146, 0.131, 0.0535, 0.014 };
        const bracket::CaliperMount mount { 0.152, 0.030, 0.012 };
        bracket::Wanted wanted { 0.165, 0, -0.02485, 0.0125, 0.0105, 0.008, NAN };
        const auto a = bracket::adapter(knuckle, mount, wanted);
        QVERIFY(a);
        QVERIFY(near(a->holes[2].y, 0.135, 1e-12) && near(a->holes[0].y, 0.131, 1e-12));
        QVERIFY(near(a->thickness, 0.01665, 1e-9) && std::abs(a->offset) < 1e-12);
        QVERIFY(near(a->holes[3].x - a->holes[2].x, 0.152, 1e-12));
        // The pairs are 3 mm across and 4 mm up from each other: centres 5 mm apart, holes of 12.5 and 10.5 overlap by 6.5.
        QVERIFY(near(a->wall, 0.005 - 0.0115, 1e-9));
        wanted.rotorRadius = 0.1775; // the larger rotor lifts the caliper 12.5 mm
        const auto larger = bracket::adapter(knuckle, mount, wanted);
        QVERIFY(near(larger->holes[2].y - a->holes[2].y, 0.0125, 1e-12));
        wanted.thickness = 0.015;
        QVERIFY(near(bracket::adapter(knuckle, mount, wanted)->offset, 0.00165, 1e-9));
        // Round every hole at least the metal that was wanted, and not more than chords of 5 µm would add at its nearest place.
        QVERIFY(larger->edge >= 0.008 - 1e-9 && larger->edge < 0.008 + 1e-5);
        wanted.caliperHole = NAN;
        QVERIFY(!bracket::adapter(knuckle, mount, wanted));
    }

    void volumesOfPlates()
    {
        const auto ring = bracket::ringPlate(0.012, 0.138, 0.0664, 0.112, 5, 0.013, "steel");
        const double byHand = std::numbers::pi / 4 * (0.138 * 0.138 - 0.0664 * 0.0664 - 5 * 0.013 * 0.013) * 0.012;
        QVERIFY(near(bracket::volumeOf(ring), byHand, 1e-12));
        QCOMPARE(ring.holes.size(), std::size_t(6));
    }
};

DEEPSTOP_TEST(JointsTest)
#include "joints_test.moc"
