/// Few stops honestly: intervals that cover, differences that are there, trends and fades by rule.

#include "core/support.hpp"
#include "proving/statistics.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop::proving;

class StatisticsTest : public QObject {
    Q_OBJECT
private slots:
    /// A pair of lists with its answer worked by hand (t(0.975, 4.35…) from tables); SciPy checks 2,000 more in StopOutsideTest.
    void welchByHand()
    {
        const std::vector<double> a { 10, 11, 12 };
        const std::vector<double> b { 7, 9, 11, 13 };
        const auto d = welch(a, b);
        QVERIFY(d);
        QVERIFY(near(d->difference, 1, 1e-12));
        const double ea = 1.0 / 3;
        const double eb = (20.0 / 3) / 4;
        QVERIFY(near(d->freedom, (ea + eb) * (ea + eb) / (ea * ea / 2 + eb * eb / 3), 1e-12));
        QVERIFY(!d->real() && d->p > 0.3);
        QVERIFY(!welch(std::vector { 1.0 }, b) && !welch(std::vector { 2.0, 2.0 }, std::vector { 3.0, 3.0 }));
    }

    /// Intervals of 5,000 simulated tests cover the truth in 93 to 97 of 100.
    void intervalsCoverTheTruth()
    {
        int covered = 0;
        int means = 0;
        std::mt19937 rng(5);
        std::normal_distribution<double> normal(0, 1);
        constexpr int tests = 5000;
        for (int i = 0; i < tests; ++i) {
            std::vector<double> a;
            std::vector<double> b;
            for (int k = 0; k < 5 + i % 4; ++k)
                a.push_back(45 + 1.0 * normal(rng));
            for (int k = 0; k < 10; ++k)
                b.push_back(42 + 2.5 * normal(rng));
            const auto d = *welch(a, b);
            covered += d.low <= 3 && d.high >= 3;
            const auto s = sampleOf(a);
            means += s.low <= 45 && s.high >= 45;
        }
        QVERIFY2(covered > 0.93 * tests && covered < 0.97 * tests, QByteArray::number(covered).constData());
        QVERIFY2(means > 0.93 * tests && means < 0.97 * tests, QByteArray::number(means).constData());
    }

    /// The number of runs it names really shows such a difference in about 80 of 100 tests, and half as many do not.
    void runsWantedAreEnough()
    {
        const int n = runsWanted(2, 1.5, 1.5);
        QVERIFY2(n > 8 && n < 12, QByteArray::number(n).constData());
        const auto seen = [](int runs) {
            std::mt19937 rng(7);
            std::normal_distribution<double> normal(0, 1.5);
            int found = 0;
            for (int i = 0; i < 2000; ++i) {
                std::vector<double> a;
                std::vector<double> b;
                for (int k = 0; k < runs; ++k) {
                    a.push_back(44 + normal(rng));
                    b.push_back(42 + normal(rng));
                }
                found += welch(a, b)->real();
            }
            return found / 2000.0;
        };
        QVERIFY(seen(n) > 0.77 && seen(n) < 0.86);
        QVERIFY(seen(n / 2) < 0.6);
        QCOMPARE(runsWanted(0, 1, 1), 0);
        QCOMPARE(runsWanted(0.001, 5, 5), 0);
        QCOMPARE(runsWanted(50, 1, 1), 2);
        QCOMPARE(runsWanted(std::nan(""), 1, 1), 0);
    }

    /// Five stops each way of a heavy car from 60 mph, 53 against 44 m with 1 to 4 m of scatter: a real difference.
    /// Scatter too small or too large for its square: no exception, and the interval no narrower than the smaller sample has it.
    void scatterBeyondWhatSquaresHold()
    {
        for (const double wide : { 1e-160, 1e-90, 1e90, 1e150 }) {
            const std::vector<double> a { 0, wide, 2 * wide };
            const std::vector<double> b { 5 * wide, 6 * wide, 7 * wide };
            if (const auto d = welch(a, b))
                QVERIFY2(d->freedom >= 2, qPrintable(QString::number(wide)));
            // The same, or more where the errors cannot be squared: never fewer.
            QVERIFY(runsWanted(wide, wide, wide, 0.8) >= runsWanted(1, 1, 1, 0.8));
        }
        QCOMPARE(runsWanted(1, INFINITY, 1, 0.8), 0);
    }

    void aRealDifferenceIsCalledOne()
    {
        const std::vector<double> before { 50.1, 56.2, 52.0, 54.9, 49.3, 57.0, 53.6, 51.8, 55.4, 49.7 };
        const std::vector<double> after { 43.2, 44.8, 44.1, 45.0, 42.9, 43.8, 44.6, 43.5, 44.9, 43.2 };
        const auto d = *welch(before, after);
        QVERIFY(near(d.difference, 9, 0.03) && d.real() && d.low > 6.5 && d.high < 11.5 && d.p < 1e-5);
    }

    void overlappingScatterIsNone()
    {
        const auto d = *welch(std::vector { 41.2, 43.9, 40.1, 44.4 }, std::vector { 40.5, 43.0, 39.8, 43.6 });
        QVERIFY(!d.real() && d.low < 0 && d.high > 0 && d.wanted > 20);
    }

    void trendsAreSeenAndScatterIsNone()
    {
        const auto rising = trendOf(std::vector { 40.0, 40.9, 42.1, 42.8, 44.2, 45.0 });
        QVERIFY(rising && rising->real() && near(rising->slope, 1.0, 0.1));
        const auto none = trendOf(std::vector { 42.0, 40.5, 41.8, 40.9, 41.5, 41.1 });
        QVERIFY(none && !none->real());
        QVERIFY(!trendOf(std::vector { 1.0, 2.0, 3.0 }));
    }

    void fadingStaysAndASlipDoesNot()
    {
        const auto faded = fadeIn(std::vector { 40.0, 41.0, 40.0, 42.0, 49.0, 51.0, 55.0 });
        QVERIFY(faded && faded->from == 4 && faded->to == 6);
        QVERIFY(!fadeIn(std::vector { 40.0, 41.0, 40.0, 55.0, 41.0, 40.0 })); // one long stop
        QVERIFY(!fadeIn(std::vector { 40.0, 41.0, 40.0, 42.0, 55.0 })); // only the last
        QVERIFY(!fadeIn(std::vector { 40.0, 41.0, 60.0 }));
        QVERIFY(!fadeIn(std::vector { 40.0, 41.0, 40.0, 49.0, 49.5 }, 1.3));
        // Faded and recovered: the last stop decides nothing.
        const auto between = fadeIn(std::vector { 40.0, 41.0, 40.0, 42.0, 52.0, 55.0, 56.0, 50.0, 41.0, 40.0 });
        QVERIFY(between && between->from == 4 && between->to == 7);
        // Bouncing up and down is scatter: as wide as what it seems to rise by.
        const auto bouncing = fadeLevel(std::vector { 40.0, 47.0, 41.0, 50.0, 42.0, 51.0, 40.0, 49.0 });
        QVERIFY(bouncing.single == 0 || bouncing.scatter > bouncing.level - 1);
        const auto even = fadeLevel(std::vector { 40.0, 40.5, 40.2, 40.1, 40.6, 40.3, 40.4 });
        QVERIFY(even.level < 1.02 && even.scatter < 0.03 && even.single == 0);
    }

    /// 100 km/h: 10 + 60 m, by hand; past 1.2 of a mean of 40: 48.
    void yardsticksByHand()
    {
        QVERIFY(near(yardstick(100 / 3.6), 70, 1e-12));
        QVERIFY(near(*fadeBound(std::vector { 39.0, 40.0, 41.0, 70.0 }, 1.2), 48, 1e-12) && !fadeBound(std::vector { 39.0, 40.0 }, 1.2));
    }

    void speedsAreBroughtToTheOneMeant()
    {
        QVERIFY(near(speedCorrected(40, 25, 27.5), 40 * 27.5 * 27.5 / 625, 1e-12));
        QVERIFY(std::isnan(speedCorrected(40, 0, 27)));
        // Between 80 and 10 km/h in 30 m: (80² − 10²)/(25.92·30), as the regulation writes it.
        QVERIFY(near(meanFullyDeveloped(80 / 3.6, 10 / 3.6, 5, 35), (6400 - 100) / (25.92 * 30), 1e-9));
        QVERIFY(std::isnan(meanFullyDeveloped(20, 20, 0, 10)) && std::isnan(meanFullyDeveloped(20, 5, 10, 10)));
    }
};

DEEPSTOP_TEST(StatisticsTest)
#include "statistics_test.moc"
