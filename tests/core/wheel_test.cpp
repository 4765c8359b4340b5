/// The wheel room's geometry and its sums: swept outlines, stations, insets, keep-outs, shields, spacers, studs and stance.

#include "chapters/clearance/clearance.hpp"
#include "core/corners.hpp"
#include "fit/fit.hpp"
#include "fit/measuring.hpp"
#include "fit/shield.hpp"
#include "fit/stance.hpp"
#include "joints/studs.hpp"

#include "test_list.hpp"

#include <QTest>

#include <numbers>
#include <queue>

using namespace deepstop;
using geometry::Chain;
using geometry::Point;

namespace {

/// What the body really sweeps, by its own formula and not by the program's outline: points 0.01 mm apart.
Chain reallySwept(const fit::CornerShape& c, double spacing)
{
    const double back = c.rotor.outerRadius + c.caliper.backOverEdge;
    const double w = c.caliper.backHalfLength;
    const double rho = std::min(c.caliper.cornerRadius, w);
    const auto swept = [&](double h) { return std::sqrt((h - rho) * (h - rho) + (w - rho) * (w - rho)) + rho; };
    const double in = c.slotCentre - c.caliper.inboardDepth;
    const double out = c.slotCentre + c.caliper.outboardDepth;
    const double low = c.rotor.outerRadius - c.caliper.reach;
    Chain points;
    const auto along = [&](double z0, double z1, auto r) {
        const int steps = std::max(1, static_cast<int>(std::ceil((z1 - z0) * 1.5 / spacing)));
        for (int k = 0; k <= steps; ++k) {
            const double z = z0 + (z1 - z0) * k / steps;
            points.push_back({ z, r(z) });
        }
    };
    const double s = c.caliper.shoulder;
    for (const Point p : sampled({ { in, low }, { in, swept(back - s) } }, spacing))
        points.push_back(p);
    along(in, in + s, [&](double z) { return swept(back - s + (z - in)); });
    along(in + s, out - s, [&](double) { return swept(back); });
    along(out - s, out, [&](double z) { return swept(back - (z - (out - s))); });
    for (const Point p : sampled({ { out, swept(back - s) }, { out, low } }, spacing))
        points.push_back(p);
    return points;
}

/// The least distance between any two points, as trying all pairs would find it: boxes of points are halved, nearest boxes first.
double leastDistance(const Chain& a, const Chain& b)
{
    struct Range {
        std::size_t a0, a1, b0, b1;
        double bound;
        bool operator<(const Range& o) const { return bound > o.bound; }
    };
    struct Box {
        double z0 = 1, z1 = -1, r0 = 1, r1 = -1;
    };
    // Boxes of every node of a binary tree over the points.
    const auto boxOf = [](const Chain& c, std::size_t from, std::size_t to) {
        Box box { c[from].z, c[from].z, c[from].r, c[from].r };
        for (std::size_t i = from; i < to; ++i) {
            box.z0 = std::min(box.z0, c[i].z);
            box.z1 = std::max(box.z1, c[i].z);
            box.r0 = std::min(box.r0, c[i].r);
            box.r1 = std::max(box.r1, c[i].r);
        }
        return box;
    };
    const auto bound = [&](const Range& r) {
        const Box p = boxOf(a, r.a0, r.a1);
        const Box q = boxOf(b, r.b0, r.b1);
        const double z = std::max({ 0.0, q.z0 - p.z1, p.z0 - q.z1 });
        const double h = std::max({ 0.0, q.r0 - p.r1, p.r0 - q.r1 });
        return std::hypot(z, h);
    };
    double best = 1e9;
    std::priority_queue<Range> queue;
    queue.push({ 0, a.size(), 0, b.size(), 0 });
    while (!queue.empty() && queue.top().bound < best) {
        const Range r = queue.top();
        queue.pop();
        const std::size_t na = r.a1 - r.a0;
        const std::size_t nb = r.b1 - r.b0;
        if (na * nb <= 64) {
            for (std::size_t i = r.a0; i < r.a1; ++i)
                for (std::size_t j = r.b0; j < r.b1; ++j)
                    best = std::min(best, std::hypot(a[i].z - b[j].z, a[i].r - b[j].r));
            continue;
        }
        Range first = r;
        Range second = r;
        if (na >= nb)
            first.a1 = second.a0 = r.a0 + na / 2;
        else
            first.b1 = second.b0 = r.b0 + nb / 2;
        for (Range half : { first, second }) {
            half.bound = bound(half);
            if (half.bound < best)
                queue.push(half);
        }
    }
    return best;
}

} // namespace

class WheelTest : public QObject {
    Q_OBJECT
private slots:
    /// 10,000 random corners against points 0.01 mm apart on the curve really swept and on the barrel: within 0.02 mm, and never more
    /// room than there is.
    void distancesAgreeWithBruteForce()
    {
        int apart = 0;
        int struck = 0;
        double worst = 0;
        for (int i = 0; i < 10000; ++i) {
            const auto c = randomCorner();
            const auto barrel = randomBarrel();
            const auto room = fit::barrelRoom(fit::caliperEnvelope(c), barrel);
            QVERIFY(room.has_value());
            const auto body = reallySwept(c, 1e-5);
            if (room->gap > 0) {
                const double best = leastDistance(body, sampled(barrel, 1e-5));
                QVERIFY2(room->gap <= best + 1e-9, "more room than there is");
                QVERIFY2(best - room->gap < 0.02e-3, qPrintable(QString::number((best - room->gap) * 1e3)));
                worst = std::max(worst, best - room->gap);
                ++apart;
            } else if (room->gap < -0.05e-3) {
                double deepest = -1;
                for (const Point p : body)
                    if (const auto under = geometry::lowestAt(barrel, p.z))
                        deepest = std::max(deepest, p.r - *under);
                QVERIFY2(-room->gap >= deepest - 1e-9, "less overlap than there is");
                QVERIFY(-room->gap - deepest < 0.02e-3);
                ++struck;
            }
        }
        qInfo() << apart << "clear" << struck << "strike; largest difference" << worst * 1e3 << "mm";
        QVERIFY(apart > 3000 && struck > 1000);
    }

    /// By hand: back at 180 mm, half length 60 mm, ends rounded by 20 mm: sqrt(160² + 40²) + 20 = 184.924 mm; sharp: 189.737 mm.
    void roundedEndsSweepLess()
    {
        QVERIFY(near(fit::sweptRadius(0.18, 0.06, 0.02), 0.18492422502470642, 1e-12));
        QVERIFY(near(fit::sweptRadius(0.18, 0.06), 0.18973665961010275, 1e-12));
        // Rounded all the way it is a cylinder's side, and its middle is its highest place.
        QVERIFY(near(fit::sweptRadius(0.18, 0.06, 0.06), 0.18, 1e-12));
        QVERIFY(near(fit::sweptRadius(0.18, 0.06, 0.5), 0.18, 1e-12));
    }

    void whatStandsProudCanBeNearest()
    {
        auto c = corner();
        const fit::WheelShape wheel { { { -0.2, 0.2 }, { 0.1, 0.2 } }, {}, {} };
        const auto plain = fit::barrelRoom(fit::caliperOutlines(c), wheel, 1);
        QVERIFY(near(plain->gap, 0.2 - std::hypot(0.1836, 0.046), 1e-9));
        QVERIFY(plain->caliperPart.empty());
        c.caliper.bumps.push_back({ "the bleeder", 0.020, 0.010, -0.02, 0.008, 0.052 });
        const auto proud = fit::barrelRoom(fit::caliperOutlines(c), wheel, 1);
        QVERIFY(near(proud->gap, 0.2 - std::hypot(0.185, 0.052), 1e-9));
        QCOMPARE(proud->caliperPart, std::string("the bleeder"));
        c.caliper.bumps.front().height = NAN;
        QCOMPARE(fit::caliperOutlines(c).size(), std::size_t(1));
    }

    void theWorstLineDownTheSpokesCounts()
    {
        const double out = -0.024 + 0.051;
        fit::WheelShape wheel;
        wheel.spokes = { { "middle", { { out + 0.007, 0.09 }, { out + 0.007, 0.21 } } },
            { "edge", { { out + 0.004, 0.13 }, { out + 0.004, 0.16 } } } };
        const auto room = fit::spokeRoom(fit::caliperOutlines(corner()), wheel, 0.2);
        QVERIFY(near(room->gap, 0.004, 1e-9));
        QCOMPARE(room->wheelPart, std::string("edge"));
        // One line measured all along tells of the other only where somebody has said that they are alike.
        QVERIFY(!room->covered());
        wheel.alike = true;
        QVERIFY(fit::spokeRoom(fit::caliperOutlines(corner()), wheel, 0.2)->covered());
    }

    void weightsStandIntoTheBarrel()
    {
        const Chain barrel { { -0.12, 0.21 }, { -0.05, 0.20 }, { 0.06, 0.20 } };
        const auto inset = fit::insetOnBarrel(barrel, -0.06, -0.03, 0.005);
        // Follows the barrel's bend, 5 mm nearer the axis.
        QVERIFY(near(*geometry::lowestAt(inset, -0.05), 0.195, 1e-12));
        QVERIFY(near(*geometry::lowestAt(inset, -0.04), 0.195, 1e-12));
        QVERIFY(fit::insetOnBarrel(barrel, -0.2, -0.15, 0.005).empty()); // nobody measured there
        fit::WheelShape wheel { barrel, {}, { { "the balance weights", inset } }, {}, false };
        const auto room = fit::insetRoom(fit::caliperOutlines(corner()), wheel);
        QVERIFY(near(room->gap, 0.195 - std::hypot(0.1836, 0.046), 1e-6));
        QCOMPARE(room->wheelPart, std::string("the balance weights"));
        // Beside the caliper the distance is the slanting one.
        wheel.insets = { { "the valve", fit::insetOnBarrel(barrel, 0.032, 0.04, 0.02) } };
        const auto beside = fit::insetRoom(fit::caliperOutlines(corner()), wheel);
        QVERIFY(beside && beside->gap > 0.004 && beside->gap < 0.006);
    }

    /// Where no two neighbouring stations enclose the caliper closely, that is said; a station more closes it.
    void bareStretchesAreFound()
    {
        using Stretches = std::vector<std::pair<double, double>>;
        QCOMPARE(fit::bareStretches({ -0.1, -0.05, 0.0, 0.05 }, -0.08, 0.03, 0.06), Stretches {});
        QCOMPARE(fit::bareStretches({ -0.1, 0.0, 0.05 }, -0.08, 0.03, 0.06), (Stretches { { -0.08, 0.0 } }));
        QCOMPARE(fit::bareStretches({ -0.05, 0.0 }, -0.08, 0.03, 0.06), (Stretches { { -0.08, -0.05 }, { 0.0, 0.03 } }));
        QCOMPARE(fit::bareStretches({}, -0.08, 0.03, 0.06), (Stretches { { -0.08, 0.03 } }));
    }

    /// Whoever takes every station of the plan has left no stretch of the caliper bare.
    void thePlanIsEnough()
    {
        for (int i = 0; i < 2000; ++i) {
            const auto c = randomCorner();
            const auto caliper = fit::caliperOutlines(c);
            const double face = fit::wheelFace(c);
            const double spacing = between(0.012, 0.04);
            const std::vector<std::pair<double, double>> all { { -1, 1 } };
            const auto plan = fit::measuringPlan(caliper, face, all, all, spacing);
            fit::WheelShape wheel;
            Chain line;
            for (const auto& station : plan) {
                QVERIFY(!station.taken);
                // As far off its place as a hand may be.
                const double place = station.place + between(-0.4e-3, 0.4e-3);
                if (station.on == fit::PlannedStation::On::Barrel)
                    wheel.barrel.push_back({ face - place, 0.3 });
                else
                    line.push_back({ face + 0.2, place });
            }
            std::ranges::sort(wheel.barrel, {}, &Point::z);
            std::ranges::sort(line, {}, &Point::r);
            wheel.spokes = { { "", line } };
            QVERIFY(fit::barrelRoom(caliper, wheel, spacing)->covered());
            QVERIFY(fit::spokeRoom(caliper, wheel, spacing)->covered());
            // Then nothing is left to take.
            for (const auto& station : fit::measuringPlan(caliper, face, {}, {}, spacing))
                QVERIFY(station.taken);
        }
        QVERIFY(fit::measuringPlan({}, 0, {}, {}, 0.03).empty());
    }

    void placesBesideWhatTurns()
    {
        const auto c = corner();
        const auto rotor = fit::rotorSection(c);
        const fit::WheelShape wheel { { { -0.2, 0.2 }, { 0.1, 0.2 } }, {}, {} };
        // 12 mm behind the inboard face at z = −38 mm.
        QVERIFY(near(fit::keepOutRoom({ -0.05, 0.14 }, wheel, rotor)->gap, 0.012, 1e-9));
        QCOMPARE(fit::keepOutRoom({ -0.05, 0.14 }, wheel, rotor)->wheelPart, std::string("the rotor"));
        QVERIFY(near(fit::keepOutRoom({ -0.1, 0.19 }, wheel, rotor)->gap, 0.010, 1e-9));
        QVERIFY(fit::keepOutRoom({ -0.03, 0.14 }, wheel, rotor)->gap < 0); // inside the ring
        QVERIFY(fit::keepOutRoom({ -0.1, 0.21 }, wheel, rotor)->gap < 0); // beyond the barrel
        QVERIFY(!fit::keepOutRoom({ NAN, 0.2 }, wheel, rotor));
    }

    /// By hand, common practice for the margin: a rim over the rotor goes with what is bent into it; a window for the caliper.
    void shieldsAreCutRoundRotorAndCaliper()
    {
        const double margin = 4e-3;
        // Rotor grew to 165.9 mm; the shield's rim at 155 mm reaches over it.
        const auto cut = fit::shieldCut({ 0.1555, 0.046, 0.011 }, 0.1659, 0.038, 0.108, 0.103, 0.081, 0.046, margin);
        QVERIFY(cut && cut->radius && !cut->plateTooNear);
        QVERIFY(near(*cut->radius, 0.1555 - 0.011, 1e-12));
        QVERIFY(cut->windowRadius && near(*cut->windowRadius, 0.103 - margin, 1e-12));
        QVERIFY(near(cut->halfWidth, 0.050, 1e-12));
        // A large shield clears the rotor, its window still has to be cut.
        const auto window = fit::shieldCut({ 0.18, 0.046, 0.011 }, 0.1659, 0.038, 0.108, 0.103, 0.081, 0.046, margin);
        QVERIFY(window && !window->radius && window->windowRadius);
        // Nothing to do where caliper and rotor stand clear of it.
        const auto whole = fit::shieldCut({ 0.09, 0.046, 0.0 }, 0.1659, 0.038, 0.108, 0.103, 0.081, 0.046, margin);
        QVERIFY(whole && !whole->radius && !whole->windowRadius);
        // The plate itself too near: only what lies over the hat may stay.
        const auto near3 = fit::shieldCut({ 0.15, 0.041, 0.0 }, 0.1659, 0.038, 0.108, 0.103, 0.081, 0.046, margin);
        QVERIFY(near3 && near3->plateTooNear && std::abs(*near3->radius - 0.104) < 1e-12);
        QVERIFY(!fit::shieldCut({ 0.15, NAN, 0.0 }, 0.1659, 0.038, 0.108, 0.103, 0.081, 0.046, margin));
    }

    /// Common practice: half the overall width and the offset; 8 in and 25 mm of flanges make 228.2 mm, ET 40 then 154.1 mm.
    void backspacingAndStance()
    {
        QVERIFY(near(fit::overallWidth(8), 0.2282, 1e-12));
        QVERIFY(near(fit::backspacing(0.2282, 0.040), 0.1541, 1e-12));
        const auto stance = fit::stance(0.2282, 0.040, 0.008);
        QVERIFY(near(stance.outerEdge - stance.innerEdge, 0.2282, 1e-12));
        QVERIFY(std::abs(stance.middle() + 0.032) < 1e-12);
        // A spacer moves it out by its thickness, a lower offset by the difference.
        QVERIFY(std::abs(fit::stance(0.2282, 0.040, 0.013).middle() - stance.middle() - 0.005) < 1e-12);
        QVERIFY(std::abs(fit::stance(0.2282, 0.035, 0.008).middle() - stance.middle() - 0.005) < 1e-12);
    }

    void spacersAreRoundedUp_data()
    {
        QTest::addColumn<double>("needed");
        QTest::addColumn<double>("bought");
        QTest::addColumn<double>("turned");
        // Common practice: two washers of 4 mm and thin ones, 11.5 to 12 mm, served one caliper.
        QTest::newRow("11.5 mm") << 11.5 << 12.0 << 11.5;
        QTest::newRow("11.6 mm") << 11.6 << 12.0 << 12.0;
        QTest::newRow("exactly 5") << 5.0 << 5.0 << 5.0;
        QTest::newRow("a hair over 5") << 5.01 << 8.0 << 5.5;
        QTest::newRow("none") << 0.0 << 3.0 << 0.0;
    }
    void spacersAreRoundedUp()
    {
        QFETCH(double, needed);
        QFETCH(double, bought);
        QFETCH(double, turned);
        QVERIFY(near(*fit::boughtSpacer(needed * 1e-3) * 1e3, bought, 1e-9));
        QVERIFY(std::abs(fit::turnedSpacer(needed * 1e-3, 0.5e-3) * 1e3 - turned) < 1e-9);
        QVERIFY(!fit::boughtSpacer(0.026));
    }

    /// By hand: 38.5 of stud less hat 8 and wheel 12 leaves 18.5, less one pitch 17.0, the nut holds 17: full. A 12 mm ring leaves 5.
    void studsInTheirNuts()
    {
        joints::StudStack s { 0.0385, 0.008, 0, 0, 0.012, 0.017, 0.012, 1.5e-3 };
        QVERIFY(near(joints::engagement(s).inNut, 0.017, 1e-9));
        QVERIFY(near(joints::engagement(s).turns, 0.017 / 1.5e-3, 1e-9));
        s.ring = 0.012;
        QVERIFY(near(joints::engagement(s).inNut, 0.005, 1e-9));
        // To order: 8 + 12 + 12 + the nut's 17 + 1.5 = 50.5, sold in steps of 5: 55 mm.
        QVERIFY(near(joints::studToOrder(s, 0.012, 0), 0.055, 1e-9));
        s.length = 0.055;
        QVERIFY(joints::engagement(s).inNut >= 0.017 - 1e-9);
        s.length = 0.02;
        QCOMPARE(joints::engagement(s).inNut, 0.0);
        s.pad = NAN;
        QVERIFY(std::isnan(joints::engagement(s).inNut));
    }

    /// A thousand stations are taken together in stretches: never more room than the whole profile has, and not much less; one that lacks
    /// its radius is still missed by name.
    void aDenselyReadProfileNeverHasMoreRoom()
    {
        for (int i = 0; i < 20; ++i) {
            auto build = demo();
            const auto before = study(build);
            auto& wheel = *std::ranges::find(build.wheels, build.setups[1].front->wheel, &Wheel::id);
            const auto coarse = wheel.barrel;
            wheel.barrel.clear();
            constexpr int many = 1000;
            for (int k = 0; k < many; ++k) {
                const double place = double(k) / (many - 1) * double(coarse.size() - 1);
                const auto at = std::min(std::size_t(place), coarse.size() - 2);
                const double part = place - double(at);
                const auto mix = [&](const Reading& a, const Reading& b, double noise) {
                    return Reading { *a.value * (1 - part) + *b.value * part + noise, {}, Known::Measured, "vernier", {} };
                };
                wheel.barrel.push_back({ mix(coarse[at].depth, coarse[at + 1].depth, 0),
                    mix(coarse[at].insideRadius, coarse[at + 1].insideRadius, between(-0.1e-3, 0.1e-3)) });
            }
            const auto s = study(build);
            const auto& r = s.of<Clearance>().after.front.left;
            fit::WheelShape whole;
            for (const BarrelStation& station : wheel.barrel)
                whole.barrel.push_back({ fit::wheelFace(r.shape) - *station.depth.value, *station.insideRadius.value });
            std::ranges::sort(whole.barrel, {}, &geometry::Point::z);
            const double exact = fit::barrelRoom(fit::caliperOutlines(r.shape), whole, 0.03)->gap;
            const double said = *r.room(WheelGap::Barrel).gap.value;
            QVERIFY2(
                said <= exact + 1e-9 && said > exact - 3e-3, qPrintable(QString("%1 said, %2 there").arg(said * 1e3).arg(exact * 1e3)));
            QVERIFY(r.room(WheelGap::Barrel).gap.restsOn.size() < 400);
            wheel.barrel[500].insideRadius = {};
            QVERIFY(!study(build).of<Clearance>().after.front.left.room(WheelGap::Barrel).gap.value);
        }
    }
};

DEEPSTOP_TEST(WheelTest)
#include "wheel_test.moc"
