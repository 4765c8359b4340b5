#include "core/support.hpp"
#include "geometry/plane.hpp"

#include <QTest>

using namespace deepstop::geometry;

namespace {

Point somewhere() { return { between(-1, 1), between(-1, 1) }; }

Point turned(Point p, double angle)
{
    return { p.z * std::cos(angle) - p.r * std::sin(angle), p.z * std::sin(angle) + p.r * std::cos(angle) };
}

} // namespace

class GeometryTest : public QObject {
    Q_OBJECT
private slots:
    void knownDistances_data()
    {
        QTest::addColumn<QList<double>>("points");
        QTest::addColumn<double>("expected");
        // By hand.
        QTest::newRow("parallel") << QList<double> { 0, 0, 1, 0, 0, 2, 1, 2 } << 2.0;
        QTest::newRow("crossing") << QList<double> { -1, 0, 1, 0, 0, -1, 0, 1 } << 0.0;
        QTest::newRow("touching at an end") << QList<double> { 0, 0, 1, 0, 1, 0, 2, 5 } << 0.0;
        QTest::newRow("end to middle") << QList<double> { 0, 0, 2, 0, 1, 1, 1, 5 } << 1.0;
        QTest::newRow("corner to corner") << QList<double> { 0, 0, 1, 0, 4, 4, 5, 8 } << 5.0;
        QTest::newRow("in one line, apart") << QList<double> { 0, 0, 1, 0, 3, 0, 4, 0 } << 2.0;
        QTest::newRow("in one line, overlapping") << QList<double> { 0, 0, 2, 0, 1, 0, 3, 0 } << 0.0;
        QTest::newRow("points") << QList<double> { 0, 0, 0, 0, 3, 4, 3, 4 } << 5.0;
    }
    void knownDistances()
    {
        QFETCH(QList<double>, points);
        QFETCH(double, expected);
        const auto p = [&](int i) { return Point { points[2 * i], points[2 * i + 1] }; };
        QVERIFY(std::abs(distance(p(0), p(1), p(2), p(3)).distance - expected) < 1e-12);
    }

    void theNearestPointsLieOnBothAndAreThatFarApart()
    {
        for (int i = 0; i < 5000; ++i) {
            const Point a0 = somewhere(), a1 = somewhere(), b0 = somewhere(), b1 = somewhere();
            const auto n = distance(a0, a1, b0, b1);
            const auto offLine = [](Point p, Point s, Point e) {
                return std::abs(std::hypot(p.z - s.z, p.r - s.r) + std::hypot(p.z - e.z, p.r - e.r) - std::hypot(e.z - s.z, e.r - s.r));
            };
            QVERIFY(offLine(n.from, a0, a1) < 1e-9 && offLine(n.to, b0, b1) < 1e-9);
            QVERIFY(std::abs(std::hypot(n.from.z - n.to.z, n.from.r - n.to.r) - n.distance) < 1e-9);
        }
    }

    void turningAndSwappingChangeNoDistance()
    {
        for (int i = 0; i < 2000; ++i) {
            const Point a0 = somewhere(), a1 = somewhere(), b0 = somewhere(), b1 = somewhere();
            const double d = distance(a0, a1, b0, b1).distance;
            const double t = between(0, 6.28);
            QVERIFY(std::abs(distance(turned(a0, t), turned(a1, t), turned(b0, t), turned(b1, t)).distance - d) < 1e-9);
            QVERIFY(std::abs(distance(b1, b0, a1, a0).distance - d) < 1e-12);
        }
    }

    void nearerThanEverySample()
    {
        for (int i = 0; i < 300; ++i) {
            const Point a0 = somewhere(), a1 = somewhere(), b0 = somewhere(), b1 = somewhere();
            const double d = distance(a0, a1, b0, b1).distance;
            for (double s = 0; s <= 1; s += 0.1)
                for (double t = 0; t <= 1; t += 0.1) {
                    const Point p = a0 + (a1 - a0) * s;
                    const Point q = b0 + (b1 - b0) * t;
                    QVERIFY(d <= std::hypot(p.z - q.z, p.r - q.r) + 1e-12);
                }
        }
    }

    /// A chain measures what its segments measure, pair by pair; leaving out far pairs must not be noticed.
    void chainsAreTheLeastOfTheirSegments()
    {
        for (int i = 0; i < 500; ++i) {
            Chain a, b;
            for (int n = among(2, 9); n > 0; --n)
                a.push_back(somewhere());
            for (int n = among(2, 9); n > 0; --n)
                b.push_back(somewhere() + Point { between(0, 2), 0 });
            double least = 1e9;
            for (std::size_t j = 0; j + 1 < a.size(); ++j)
                for (std::size_t k = 0; k + 1 < b.size(); ++k)
                    least = std::min(least, distance(a[j], a[j + 1], b[k], b[k + 1]).distance);
            QCOMPARE(distance(a, b)->distance, least);
        }
        QVERIFY(!distance(Chain { { 0, 0 } }, Chain { { 0, 0 }, { 1, 1 } }));
        QVERIFY(!distance(Chain { { 0, 0 }, { NAN, 1 } }, Chain { { 0, 0 }, { 1, 1 } }));
    }

    void heightsOfAChain()
    {
        const Chain tent { { 0, 0 }, { 1, 2 }, { 2, 0 } };
        QCOMPARE(*highestAt(tent, 0.5), 1.0);
        QCOMPARE(*highestAt(tent, 1), 2.0);
        QVERIFY(!highestAt(tent, 2.1) && !lowestAt(tent, -0.1));
        const Chain step { { 0, 1 }, { 1, 1 }, { 1, 3 }, { 2, 3 } };
        QCOMPARE(*lowestAt(step, 1), 1.0);
        QCOMPARE(*highestAt(step, 1), 3.0);
        QCOMPARE(*lowestAt(transposed(step), 2), 1.0);
        QCOMPARE(closed(step).back(), step.front());
        QVERIFY(closed({}).empty());
    }
};

DEEPSTOP_TEST(GeometryTest)
#include "geometry_test.moc"
