#include "chapters/clearance/clearance.hpp"
#include "materials/materials.hpp"
#include "core/support.hpp"
#include "core/corners.hpp"
#include "fit/fit.hpp"

#include "test_list.hpp"

#include <QTest>

using namespace deepstop;
using geometry::Chain;
using geometry::Point;

class FitTest : public QObject {
    Q_OBJECT
private slots:
    /// Source: ETRTO Standards Manual / ISO 4000-1, specified rim diameters (from memory).
    void beadSeatsAreThePublishedOnes_data()
    {
        QTest::addColumn<int>("size");
        QTest::addColumn<double>("millimetres");
        for (const auto& [size, mm] :
            { std::pair { 14, 354.8 }, { 15, 380.2 }, { 16, 405.6 }, { 17, 436.6 }, { 18, 462.0 }, { 19, 487.4 }, { 20, 512.8 } })
            QTest::newRow(qPrintable(QString::number(size))) << size << mm;
    }
    void beadSeatsAreThePublishedOnes()
    {
        QFETCH(int, size);
        QFETCH(double, millimetres);
        QVERIFY(near(*fit::beadSeatDiameter(size) * 1000, millimetres, 1e-12));
        QVERIFY(std::abs(*fit::beadSeatDiameter(size) - size * 0.0254) > 0.5e-3);
    }
    void otherSizesAreNotInvented()
    {
        QVERIFY(!fit::beadSeatDiameter(11));
        QVERIFY(!fit::beadSeatDiameter(23));
    }

    /// Common practice: hats of 7.2 and 20.5 mm push the wheel out 13.3 mm.
    void aThickerHatPushesTheWheelOut()
    {
        const auto change = fit::offsetChange(0.040, 0.0072, 0.0205, 0, 0);
        QVERIFY(near(change.outboardShift, 0.0133, 1e-12));
        QVERIFY(near(change.effectiveOffset, 0.0267, 1e-12));
        const auto all = fit::offsetChange(0.040, 0.007, 0.007, 0.005, 0.003);
        QVERIFY(near(all.outboardShift, 0.008, 1e-12));
    }

    /// Iron, 330 mm, 500 K: 2.1 mm in diameter (13e-6 per kelvin, EN 1561, from memory).
    void aHotRotorGrows() { QVERIFY(std::abs(fit::growth(0.330, 500, materials::greyIron.expansionOver(500)) - 2.145e-3) < 1e-9); }

    void theEndsOfAStraightBackGovern()
    {
        const auto c = corner();
        const auto envelope = fit::caliperEnvelope(c);
        double top = 0;
        for (const Point p : envelope)
            top = std::max(top, p.r);
        QVERIFY(near(top, std::sqrt(0.1836 * 0.1836 + 0.046 * 0.046), 1e-12));
        QVERIFY(top > 0.165 + 0.0186);
    }

    /// The envelope's straight shoulder stands on or above the curve that the shoulder's end really sweeps.
    void theEnvelopeErrsOnTheSafeSide()
    {
        for (int i = 0; i < 500; ++i) {
            const auto c = randomCorner();
            const auto envelope = fit::caliperEnvelope(c);
            const double back = c.rotor.outerRadius + c.caliper.backOverEdge;
            for (double t = 0; t <= 1; t += 0.1) {
                const double z = c.slotCentre + c.caliper.outboardDepth - t * c.caliper.shoulder;
                const double h = back - (1 - t) * c.caliper.shoulder;
                const double really = fit::sweptRadius(h, c.caliper.backHalfLength, c.caliper.cornerRadius);
                const auto drawn = geometry::highestAt(envelope, z);
                QVERIFY(drawn && *drawn >= really - 1e-12 && *drawn - really < 0.0101e-3);
            }
        }
    }

    /// Brute force: both outlines as points 0.1 mm apart. The exact distance is never more than the sampled one and within its spacing.
    void distancesAgreeWithSampling()
    {
        int apart = 0;
        for (int i = 0; i < 150; ++i) {
            const auto envelope = fit::caliperEnvelope(randomCorner());
            const auto barrel = randomBarrel();
            const auto room = fit::barrelRoom(envelope, barrel);
            QVERIFY(room.has_value());
            if (room->gap <= 0)
                continue;
            ++apart;
            double best = 1;
            const auto a = sampled(envelope, 0.5e-3);
            const auto b = sampled(barrel, 0.1e-3);
            for (const Point p : a)
                for (const Point q : b)
                    best = std::min(best, std::hypot(p.z - q.z, p.r - q.r));
            QVERIFY2(room->gap <= best + 1e-12, "on the unsafe side");
            QVERIFY(best - room->gap < 0.4e-3);
            QVERIFY(near(std::hypot(room->onCaliper.z - room->onWheel.z, room->onCaliper.r - room->onWheel.r), room->gap, 1e-9));
        }
        QVERIFY(apart > 30);
    }

    void overlapIsTheDeepestAlongTheRadius()
    {
        int hit = 0;
        for (int i = 0; i < 400; ++i) {
            const auto c = randomCorner();
            const auto envelope = fit::caliperEnvelope(c);
            const auto barrel = randomBarrel();
            const auto room = fit::barrelRoom(envelope, barrel);
            double deepest = -1;
            for (double z = -0.15; z <= 0.07; z += 0.05e-3)
                if (const auto top = geometry::highestAt(envelope, z), under = geometry::lowestAt(barrel, z); top && under)
                    deepest = std::max(deepest, *top - *under);
            if (deepest <= 0.3e-3)
                continue;
            ++hit;
            QVERIFY(room->gap < 0);
            QVERIFY(-room->gap >= deepest - 1e-9 && -room->gap - deepest < 0.2e-3);
        }
        QVERIFY(hit > 50);
    }

    void spokesAreBarrelsOnTheirSide()
    {
        const auto envelope = fit::caliperEnvelope(corner());
        const double face = -0.024 + 0.051;
        const auto room = fit::spokeRoom(envelope, Chain { { face + 0.007, 0.09 }, { face + 0.007, 0.20 } });
        QVERIFY(room && near(room->gap, 0.007, 1e-9) && room->covered());
        const auto hits = fit::spokeRoom(envelope, Chain { { face - 0.002, 0.09 }, { face - 0.002, 0.20 } });
        QVERIFY(hits && near(hits->gap, -0.002, 1e-9));
        QVERIFY(!fit::spokeRoom(envelope, Chain { { face + 0.007, 0.11 }, { face + 0.007, 0.15 } })->covered());
    }

    void movingBothChangesNothing()
    {
        for (int i = 0; i < 200; ++i) {
            const auto envelope = fit::caliperEnvelope(randomCorner());
            const auto barrel = randomBarrel();
            const double dz = between(-0.05, 0.05);
            QVERIFY(std::abs(fit::barrelRoom(envelope, barrel)->gap
                        - fit::barrelRoom(geometry::moved(envelope, dz), geometry::moved(barrel, dz))->gap)
                < 1e-12);
        }
    }

    void aMissingLengthGivesNoOutline()
    {
        auto c = corner();
        c.caliper.shoulder = NAN;
        QVERIFY(fit::caliperEnvelope(c).empty());
        QVERIFY(!fit::barrelRoom(fit::caliperEnvelope(c), randomBarrel()));
        QVERIFY(!fit::barrelRoom(fit::caliperEnvelope(corner()), Chain { { 0, 0.2 } }));
    }

    void anUnmeasuredWheelHasItsDropCentreInTheMiddle()
    {
        const auto barrel = fit::estimatedBarrel(17, 8, 0.040);
        QVERIFY(barrel.has_value());
        QVERIFY(*geometry::lowestAt(*barrel, -0.040) < 0.436 / 2 - 0.020);
        QVERIFY(!fit::estimatedBarrel(17, 8, NAN));
        QVERIFY(!fit::estimatedBarrel(23, 8, 0.040));
    }

    /// Each ring grows by its own material: a carbon-ceramic one far less than iron, and the gaps say so.
    void aHotRingGrowsByItsOwnMaterial()
    {
        auto build = demo();
        auto& rotor = build.setups[1].front->rotor;
        rotor.ringMaterial = RingMaterial::Iron;
        const double iron = study(build).of<Clearance>().after.front.left.hotGrowth;
        rotor.ringMaterial = RingMaterial::Steel;
        const double steel = study(build).of<Clearance>().after.front.left.hotGrowth;
        rotor.ringMaterial = RingMaterial::CarbonCeramic;
        const double ceramic = study(build).of<Clearance>().after.front.left.hotGrowth;
        QVERIFY(ceramic < iron / 3 && iron < steel);
        QVERIFY(near(steel / iron, materials::steel.expansionOver(500) / materials::greyIron.expansionOver(500), 1e-9));
    }
};

DEEPSTOP_TEST(FitTest)
#include "fit_test.moc"
