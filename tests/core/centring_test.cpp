#include "centring/drawer.hpp"
#include "core/support.hpp"

#include <QTest>

#include <cstdint>

using namespace deepstop;
using namespace deepstop::centring;

namespace {

std::int64_t steps(double length) { return std::llround(length * 1e8); }

struct Answer {
    std::int64_t error;
    int count;
};

/// Every pile the drawer can make, counted off one by one; better by the same two rules, written without sharing any code.
Answer bruteForce(std::int64_t target, const std::vector<std::pair<std::int64_t, int>>& drawer, std::int64_t tolerance)
{
    Answer best { std::abs(target), 0 };
    std::vector<int> used(drawer.size(), 0);
    while (true) {
        std::int64_t total = 0;
        int count = 0;
        for (std::size_t k = 0; k < drawer.size(); ++k) {
            total += used[k] * drawer[k].first;
            count += used[k];
        }
        const Answer now { std::abs(total - target), count };
        const bool nowIn = now.error <= tolerance;
        const bool bestIn = best.error <= tolerance;
        const bool better = nowIn != bestIn ? nowIn
            : nowIn                         ? (now.count != best.count ? now.count < best.count : now.error < best.error)
                                            : (now.error != best.error ? now.error < best.error : now.count < best.count);
        if (better)
            best = now;
        std::size_t k = 0;
        while (k < drawer.size() && ++used[k] > drawer[k].second)
            used[k++] = 0;
        if (k == drawer.size())
            return best;
    }
}

} // namespace

class CentringTest : public QObject {
    Q_OBJECT
private slots:
    void tenThousandDrawersAgreeWithBruteForce()
    {
        // Sizes as they are sold: hundredths of a millimetre and thousandths of an inch.
        int within = 0;
        for (int round = 0; round < 10000; ++round) {
            std::vector<ShimKind> drawer;
            std::vector<std::pair<std::int64_t, int>> plain;
            for (int kinds = among(0, 5); kinds > 0; --kinds) {
                const double thickness = among(0, 1) ? among(5, 300) * 1e-5 : among(5, 125) * 0.0254e-3;
                const int count = among(0, 4);
                drawer.push_back({ thickness, count });
                plain.emplace_back(steps(thickness), count);
            }
            const double target = among(0, 900) * 1e-5;
            const double tolerance = among(0, 2) ? among(0, 30) * 1e-5 : 0;
            const auto stack = bestStack(target, drawer, tolerance);
            const auto expected = bruteForce(steps(target), plain, steps(tolerance));
            QCOMPARE(std::abs(steps(stack.residual)), expected.error);
            QCOMPARE(int(stack.shims.size()), expected.count);
            double sum = 0;
            for (const double shim : stack.shims) {
                sum += shim;
                const auto kind = std::ranges::find_if(drawer, [&](const ShimKind& k) { return steps(k.thickness) == steps(shim); });
                QVERIFY(kind != drawer.end());
            }
            QVERIFY(std::abs(sum - stack.total) < 1e-9);
            QVERIFY(std::ranges::is_sorted(stack.shims, std::greater<> {}));
            within += expected.error <= steps(tolerance);
        }
        QVERIFY(within > 1000 && within < 9900);
    }

    void noMoreShimsThanThereAre()
    {
        const std::vector<ShimKind> drawer { { 1e-3, 2 }, { 0.5e-3, 1 } };
        QCOMPARE(bestStack(10e-3, drawer).shims.size(), std::size_t(3));
        QVERIFY(near(bestStack(10e-3, drawer).residual, -7.5e-3, 1e-9));
        QVERIFY(bestStack(-1e-3, drawer).shims.empty());
        QVERIFY(bestStack(1e-3, {}).shims.empty());
    }

    /// Common practice: 2 × 0.030 in on a bracket; 6 mm as 2 × 3.
    void usualPilesComeOut()
    {
        const std::vector<ShimKind> inches { { 0.030 * 0.0254, 4 }, { 0.015 * 0.0254, 4 } };
        const auto pile = bestStack(0.060 * 0.0254, inches);
        QCOMPARE(pile.shims.size(), std::size_t(2));
        QVERIFY(std::abs(pile.residual) < 1e-12);
        const std::vector<ShimKind> thick { { 3e-3, 4 }, { 1e-3, 8 } };
        QCOMPARE(bestStack(6e-3, thick).shims, (std::vector<double> { 3e-3, 3e-3 }));
    }

    void toleranceTradesNearnessForFewerShims()
    {
        const std::vector<ShimKind> drawer { { 2e-3, 1 }, { 0.25e-3, 4 } };
        QCOMPARE(bestStack(2.2e-3, drawer).shims.size(), std::size_t(2));
        QCOMPARE(bestStack(2.2e-3, drawer, 0.25e-3).shims.size(), std::size_t(1));
    }

    /// By hand: inner 2.9 / outer 1.4 at the top, 2.7 / 1.6 at the bottom.
    void fourGapsGiveErrorAndTilt()
    {
        const auto p = position({ 2.9e-3, 1.4e-3, 2.7e-3, 1.6e-3 }, 0.100, 0.100);
        QVERIFY(near(p.axial, -0.65e-3, 1e-9)); // ((1.4−2.9)/2 + (1.6−2.7)/2)/2 = (−0.75 − 0.55)/2
        QVERIFY(near(p.tilt, -0.2e-3 / 0.100, 1e-9));
        QVERIFY(near(p.atTopBolt, -0.75e-3, 1e-9));
        QVERIFY(near(p.atBottomBolt, -0.55e-3, 1e-9));
        // Bolts further apart than the readings see more of the tilt.
        const auto wide = position({ 2.9e-3, 1.4e-3, 2.7e-3, 1.6e-3 }, 0.100, 0.150);
        QVERIFY(near(wide.atTopBolt, -0.80e-3, 1e-9));
    }

    void swappedSidesSwapTheSign()
    {
        for (int i = 0; i < 1000; ++i) {
            const Gaps g { between(0, 5e-3), between(0, 5e-3), between(0, 5e-3), between(0, 5e-3) };
            const auto a = position(g, 0.1, 0.14);
            const auto b = position({ g.outerTop, g.innerTop, g.outerBottom, g.innerBottom }, 0.1, 0.14);
            QVERIFY(std::abs(a.axial + b.axial) < 1e-15 && std::abs(a.tilt + b.tilt) < 1e-13);
            const auto c = position({ g.innerBottom, g.outerBottom, g.innerTop, g.outerTop }, 0.1, 0.14);
            QVERIFY(std::abs(a.axial - c.axial) < 1e-15 && std::abs(a.tilt + c.tilt) < 1e-13);
        }
    }

    /// Bracket with 2 × 0.75 in: what has to go in follows from which way a thicker stack moves the caliper.
    void thePlanWorksOnEitherSideOfTheEar()
    {
        const std::vector<ShimKind> drawer { { 0.25e-3, 8 }, { 0.5e-3, 8 }, { 0.75e-3, 8 }, { 1e-3, 4 } };
        const auto now = position({ 2.9e-3, 1.4e-3, 2.7e-3, 1.6e-3 }, 0.1, 0.1);
        const auto out = plan(now, { 1.5e-3, 1.5e-3, 0.1, 0.1, +1 }, drawer, 0.05e-3);
        QVERIFY(out.possible);
        QVERIFY(near(out.top.total, 2.25e-3, 1e-9)); // 1.5 + 0.75
        QVERIFY(near(out.bottom.total, 2.0e-3, 1e-9)); // 1.5 + 0.55 = 2.05, 0.05 off is allowed
        const auto in = plan(now, { 1.5e-3, 1.5e-3, 0.1, 0.1, -1 }, drawer, 0.05e-3);
        QVERIFY(near(in.top.total, 0.75e-3, 1e-9)); // 1.5 − 0.75
        QVERIFY(near(in.bottom.total, 1.0e-3, 1e-9)); // 1.5 − 0.55 = 0.95
        QVERIFY(near(in.remaining.atBottomBolt, -0.05e-3, 1e-6));
        QVERIFY(std::abs(in.remaining.atTopBolt) < 1e-12);
    }

    /// Against every pair of piles: least excess, then fewest shims, then least error.
    void thePlanForBothBoltsAgreesWithBruteForce()
    {
        for (int round = 0; round < 600; ++round) {
            std::vector<ShimKind> drawer;
            for (int kinds = among(1, 3); kinds > 0; --kinds)
                drawer.push_back({ among(10, 150) * 1e-5, among(0, 3) });
            std::ranges::sort(drawer, {}, &ShimKind::thickness);
            drawer.erase(std::ranges::unique(drawer, {}, &ShimKind::thickness).begin(), drawer.end());
            const Position now { 0, 0, among(-300, 300) * 1e-5, among(-300, 300) * 1e-5 };
            const Mounting mounting { 1.5e-3, 1.5e-3, 0.1, 0.1, among(0, 1) ? 1 : -1 };
            const double tolerance = among(0, 20) * 1e-5;
            const auto found = plan(now, mounting, drawer, tolerance, 3);
            const auto wanted = [&](double error) { return steps(1.5e-3) - mounting.direction * steps(error); };
            const auto excess = [&](std::int64_t total, double error) {
                return std::max<std::int64_t>(0, std::abs(total - wanted(error)) - steps(tolerance));
            };
            std::tuple<std::int64_t, int, std::int64_t> best { INT64_MAX, 0, 0 };
            std::vector<int> a(drawer.size());
            std::vector<int> b(drawer.size());
            const std::function<void(std::size_t)> both = [&](std::size_t k) {
                if (k == drawer.size()) {
                    std::int64_t ta = 0, tb = 0;
                    int na = 0, nb = 0;
                    for (std::size_t i = 0; i < k; ++i) {
                        ta += a[i] * steps(drawer[i].thickness);
                        tb += b[i] * steps(drawer[i].thickness);
                        na += a[i];
                        nb += b[i];
                    }
                    if (na > 3 || nb > 3)
                        return;
                    best = std::min(best,
                        std::tuple { excess(ta, now.atTopBolt) + excess(tb, now.atBottomBolt), na + nb,
                            std::abs(ta - wanted(now.atTopBolt)) + std::abs(tb - wanted(now.atBottomBolt)) });
                    return;
                }
                for (a[k] = 0; a[k] <= drawer[k].count; ++a[k])
                    for (b[k] = 0; a[k] + b[k] <= drawer[k].count; ++b[k])
                        both(k + 1);
                a[k] = b[k] = 0;
            };
            both(0);
            const std::tuple got { excess(steps(found.top.total), now.atTopBolt) + excess(steps(found.bottom.total), now.atBottomBolt),
                int(found.top.shims.size() + found.bottom.shims.size()),
                std::abs(steps(found.top.residual)) + std::abs(steps(found.bottom.residual)) };
            QVERIFY(got == best);
            QCOMPARE(found.possible, std::get<0>(best) == 0);
            QCOMPARE(found.why.empty(), found.possible);
        }
    }

    void aDrawerReadsBackAsItIsWritten()
    {
        const auto& mm = *deepstop::findUnit("mm", deepstop::Dimension::Length);
        for (int i = 0; i < 300; ++i) {
            std::vector<ShimKind> drawer;
            for (int n = among(1, 8); n > 0; --n)
                drawer.push_back({ among(1, 500) * 1e-5, among(0, 20) });
            const auto read = readDrawer(drawerText(drawer, mm), mm);
            QVERIFY2(read.refusal.empty(), read.refusal.c_str());
            QCOMPARE(read.drawer.size(), drawer.size());
            for (std::size_t k = 0; k < drawer.size(); ++k)
                QVERIFY(steps(read.drawer[k].thickness) == steps(drawer[k].thickness) && read.drawer[k].count == drawer[k].count);
        }
        QVERIFY(!readDrawer("", mm).refusal.empty());
        QVERIFY(readDrawer("", mm, true).refusal.empty());
        QVERIFY(!readDrawer("0.5x4,", mm).refusal.empty());
    }

    void whatCannotBeShimmedSaysWhy()
    {
        const std::vector<ShimKind> drawer { { 1e-3, 4 } };
        const auto p = position({ 2e-3, 6e-3, 2e-3, 6e-3 }, 0.1, 0.1); // 2 mm too far outboard
        const auto less = plan(p, { 0.5e-3, 0.5e-3, 0.1, 0.1, +1 }, drawer, 0.1e-3);
        QVERIFY(!less.possible);
        QVERIFY(less.why.find("come out") != std::string::npos);
        const auto none = plan(p, { 0, 0, 0.1, 0.1, -1 }, {}, 0.1e-3);
        QVERIFY(none.why.find("empty") != std::string::npos);
        const auto short_ = plan(p, { 0, 0, 0.1, 0.1, -1 }, std::vector<ShimKind> { { 1.5e-3, 4 } }, 0.1e-3);
        QVERIFY(!short_.possible && short_.why.find("nearest") != std::string::npos);
        QVERIFY(near(short_.remaining.axial, 0.5e-3, 1e-6));
    }

    /// A shim keeps the unit it is sold in, whatever units the window shows, and thou are whole.
    void shimsKeepTheUnitTheyAreSoldIn()
    {
        const std::vector<ShimKind> drawer { { 0.5e-3, 4 }, { 0.030 * 0.0254, 6 }, { 1e-3, 2 }, { 0.063 * 0.0254, 1 } };
        QCOMPARE(drawerText(drawer, *findUnit("mm")), std::string("0.5 × 4, 30 thou × 6, 1 × 2, 63 thou × 1"));
        QCOMPARE(drawerText(drawer, *findUnit("in")), std::string("0.5 mm × 4, 30 thou × 6, 1 mm × 2, 63 thou × 1"));
        for (const char* unit : { "mm", "in", "thou" }) {
            const auto read = readDrawer(drawerText(drawer, *findUnit(unit)), *findUnit(unit));
            QVERIFY2(read.refusal.empty() && read.drawer.size() == drawer.size(), read.refusal.c_str());
            for (std::size_t i = 0; i < drawer.size(); ++i)
                QVERIFY(near(read.drawer[i].thickness, drawer[i].thickness, 1e-9) && read.drawer[i].count == drawer[i].count);
        }
    }
};

DEEPSTOP_TEST(CentringTest)
#include "centring_test.moc"
