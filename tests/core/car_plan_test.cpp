/// Shims for the whole car from one drawer, against trying everything; and what is learnt from one pass to the next.

#include "chapters/centring/centring_chapter.hpp"
#include "build/address.hpp"
#include "centring/car_plan.hpp"
#include "core/support.hpp"

#include <QTest>

#include <map>
#include <set>

using namespace deepstop;
using centring::ShimKind;

namespace {

long hundredths(double length) { return std::lround(length * 1e8); }

struct Tried {
    long beyond = 1L << 60;
    int shims = 0;
    bool operator<(const Tried& o) const { return std::pair(beyond, shims) < std::pair(o.beyond, o.shims); }
};

/// Every way to put shims on every bolt, one shim after the other; what is left of the drawer goes on to the next bolt.
void tryAll(const std::vector<double>& targets, std::size_t bolt, std::size_t kind, long total, int onBolt, std::vector<ShimKind>& drawer,
    long tolerance, int most, Tried soFar, Tried& best)
{
    if (bolt == targets.size()) {
        if (soFar < best)
            best = soFar;
        return;
    }
    if (kind == drawer.size()) {
        const long error = std::abs(total - hundredths(targets[bolt]));
        Tried next { soFar.beyond + std::max(0L, error - tolerance), soFar.shims + onBolt };
        if (!(best < next))
            tryAll(targets, bolt + 1, 0, 0, 0, drawer, tolerance, most, next, best);
        return;
    }
    for (int n = 0; n <= std::min(drawer[kind].count, most - onBolt); ++n) {
        drawer[kind].count -= n;
        tryAll(targets, bolt, kind + 1, total + n * hundredths(drawer[kind].thickness), onBolt + n, drawer, tolerance, most, soFar, best);
        drawer[kind].count += n;
    }
}

Study of(const Build& build) { return study(build); }

/// The demo's left corner alone, with the example's gaps.
Build example(Direction direction)
{
    auto build = demo();
    build.mockUps.resize(1);
    MockUp& m = build.mockUps[0];
    const auto gap = [](double mm) { return Reading { mm * 1e-3, 0.03e-3, Known::Measured, "vernier", {} }; };
    m.innerTop = gap(2.9);
    m.outerTop = gap(1.4);
    m.innerBottom = gap(2.7);
    m.outerBottom = gap(1.6);
    auto& corner = *build.setups[1].front;
    for (Fitted* in : { &corner.left, &corner.right })
        in->shimTop = in->shimBottom = gap(1.5);
    corner.mount.shimMoves = direction;
    return build;
}

} // namespace

class CarPlanTest : public QObject {
    Q_OBJECT
private slots:
    /// 20,000 random drawers, two bolts and two sides: never worse in residual, nor in count at equal residual.
    void noPlanIsBetter()
    {
        int scarce = 0;
        int others = 0;
        for (int i = 0; i < 20000; ++i) {
            std::vector<ShimKind> drawer;
            const int kinds = among(1, 4);
            for (int k = 0; k < kinds; ++k)
                drawer.push_back({ among(1, 12) * 0.25e-3 + (among(0, 3) == 0 ? 0.012e-3 : 0), among(1, 4) });
            std::vector<double> targets;
            const int bolts = i % 2 ? 4 : 2;
            for (int b = 0; b < bolts; ++b)
                targets.push_back(between(-0.5e-3, 3e-3));
            if (among(0, 1)) // both sides alike compete for the same shims
                std::ranges::fill(targets, targets.front());
            const long tolerance = among(0, 1) ? 0 : 12500;
            const int most = bolts == 4 ? 2 : 4;
            Tried best;
            auto left = drawer;
            tryAll(targets, 0, 0, 0, 0, left, tolerance, most, { 0, 0 }, best);
            const auto plan = centring::carPlan(targets, drawer, static_cast<double>(tolerance) * 1e-8, most);
            QVERIFY(!plan.stacks.empty() && plan.proven);
            QVERIFY2(hundredths(plan.beyond) == best.beyond && plan.shims == best.shims,
                qPrintable(QString("%1 and %2 shims, %3 and %4 by trying")
                               .arg(hundredths(plan.beyond))
                               .arg(plan.shims)
                               .arg(best.beyond)
                               .arg(best.shims)));
            // Nothing is used that is not there.
            std::map<long, int> used;
            int count = 0;
            for (const auto& stack : plan.stacks)
                for (const double shim : stack.shims) {
                    ++used[hundredths(shim)];
                    ++count;
                }
            QCOMPARE(count, plan.shims);
            for (const auto& [size, n] : used) {
                int there = 0;
                for (const ShimKind& kind : drawer)
                    there += hundredths(kind.thickness) == size ? kind.count : 0;
                QVERIFY(n <= there);
                scarce += n == there;
            }
            // The other way on two bolts, the rest as planned: no better, and another.
            const auto other = centring::otherStacks(plan, 0, 2, targets, drawer, static_cast<double>(tolerance) * 1e-8, most);
            if (!other.stacks.empty()) {
                ++others;
                QVERIFY(other.stacks[0].total != plan.stacks[0].total || other.stacks[1].total != plan.stacks[1].total);
                auto together = hundredths(0);
                int shims = 0;
                for (std::size_t b = 0; b < plan.stacks.size(); ++b) {
                    const auto& stack = b < 2 ? other.stacks[b] : plan.stacks[b];
                    together += std::max(0L, std::labs(hundredths(stack.residual)) - tolerance);
                    shims += int(stack.shims.size());
                }
                QVERIFY(std::pair(together, shims) >= std::pair(hundredths(plan.beyond), plan.shims));
            }
        }
        QVERIFY(scarce > 5000 && others > 15000);
    }

    /// Any car from any drawer of up to twelve sizes by eight: nothing is used that is not there, the bound is one, and a longer search
    /// finds nothing that the shorter had ruled out.
    void sixteenStacksFromOneDrawer()
    {
        int proven = 0;
        for (int i = 0; i < 60; ++i) {
            const auto sizes = centring::soldSizes();
            std::vector<ShimKind> drawer;
            for (std::size_t k = 0; k < std::size_t(i < 20 ? 5 : among(1, 12)); ++k)
                drawer.push_back({ sizes[k], i < 20 ? 4 : among(1, 8) });
            std::vector<double> targets;
            const double about = between(0, 3e-3);
            for (int b = 0; b < 16; ++b)
                targets.push_back(among(0, 9) == 0 ? between(-0.5e-3, 6e-3) : about + between(-0.4e-3, 0.4e-3));
            const int most = among(0, 1) ? 5 : 8;
            const auto plan = centring::carPlan(targets, drawer, 0.125e-3, most);
            QCOMPARE(plan.stacks.size(), targets.size());
            std::map<long, int> left;
            for (const ShimKind& kind : drawer)
                left[hundredths(kind.thickness)] += kind.count;
            double beyond = 0;
            int shims = 0;
            for (std::size_t b = 0; b < targets.size(); ++b) {
                double total = 0;
                for (const double shim : plan.stacks[b].shims) {
                    QVERIFY(--left[hundredths(shim)] >= 0);
                    total += shim;
                    ++shims;
                }
                QVERIFY(int(plan.stacks[b].shims.size()) <= most && std::abs(total - targets[b] - plan.stacks[b].residual) < 2e-8);
                beyond += std::max(0.0, std::abs(total - targets[b]) - 0.125e-3);
            }
            QVERIFY(std::abs(beyond - plan.beyond) < 1e-6 && shims == plan.shims);
            proven += plan.proven;
            const auto longer = centring::carPlan(targets, drawer, 0.125e-3, most, 5 * centring::usualEffort);
            QVERIFY(longer.beyond >= plan.beyond - plan.couldGain - 1e-8);
            QVERIFY(longer.beyond <= plan.beyond + 1e-8);
            if (plan.proven)
                QVERIFY(std::abs(longer.beyond - plan.beyond) < 1e-8 && longer.shims == plan.shims);
            else if (std::abs(longer.beyond - plan.beyond) < 1e-8)
                QVERIFY(longer.shims >= plan.shims - plan.couldSave);
        }
        QVERIFY2(proven > 25, qPrintable(QString::number(proven)));
    }

    /// Several mock-ups of one corner are readings of that corner: their mean, no better than they differ.
    void mockedUpTwiceIsOneCorner()
    {
        auto build = example(Direction::Inboard);
        auto again = build.mockUps[0];
        for (Reading* r : { &again.innerTop, &again.innerBottom })
            *r->value += 0.4e-3;
        for (Reading* r : { &again.outerTop, &again.outerBottom })
            *r->value -= 0.4e-3;
        build.mockUps.push_back(again);
        const auto s = of(build);
        QCOMPARE(s.of<Centring>().corners.size(), std::size_t(1));
        const CentringResult& r = s.of<Centring>().corners.front();
        QVERIFY(near(*r.axial.value, -0.85e-3, 1e-9));
        QVERIFY(r.axial.rootSumSquare >= 0.2e-3 - 1e-12 && r.axial.worstCase >= 0.2e-3 - 1e-12);
        QCOMPARE(r.targets.size(), std::size_t(2));
        QVERIFY(s.verdict("front-left/axial")->reason.find("Mean of 2 mock-ups") != std::string::npos);
        // One that was read flat, one that was not: not flat.
        build.mockUps[1].seated = YesNo::No;
        QCOMPARE(of(build).verdict("front-left/conditions")->level, Level::Caution);
    }

    /// A mock-up read so coarsely that it could as well agree neither moves the mean nor widens it: taken away, nothing gets better.
    void aCoarseMockUpSaysNothingAgainstAFineOne()
    {
        auto build = example(Direction::Inboard);
        const Figure alone = of(build).of<Centring>().corners.front().axial;
        auto coarse = build.mockUps[0];
        for (Reading MockUp::*which : { &MockUp::innerTop, &MockUp::innerBottom, &MockUp::outerTop, &MockUp::outerBottom })
            (coarse.*which).plusMinus = 1.5e-3;
        *coarse.outerTop.value -= 1e-3;
        *coarse.outerBottom.value -= 1e-3;
        build.mockUps.push_back(coarse);
        const Figure both = of(build).of<Centring>().corners.front().axial;
        QVERIFY(std::abs(*both.value - *alone.value) < 0.01e-3);
        QVERIFY(both.worstCase >= alone.worstCase && both.worstCase < 1.2 * alone.worstCase);
        // A fine one that differs as much contradicts it, and that stays said.
        for (Reading MockUp::*which : { &MockUp::innerTop, &MockUp::innerBottom, &MockUp::outerTop, &MockUp::outerBottom })
            (build.mockUps[1].*which).plusMinus = (build.mockUps[0].*which).plusMinus;
        const Figure apart = of(build).of<Centring>().corners.front().axial;
        QVERIFY(apart.worstCase > 0.2e-3 && apart.rootSumSquare > 0.2e-3);
        // One gap that was read a millimetre apart counts, even where the others make up for it; taken away at one of them or not.
        Build crossed = example(Direction::Inboard);
        auto other = crossed.mockUps[0];
        *other.innerBottom.value -= 1e-3;
        *other.innerTop.value += 1e-3;
        crossed.mockUps.push_back(other);
        QVERIFY(of(crossed).of<Centring>().corners.front().axial.worstCase > 0.4e-3);
        crossed.mockUps[0].innerTop = {};
        QVERIFY(of(crossed).of<Centring>().corners.front().axial.worstCase > 0.4e-3);
    }

    void whatToBuyIsEnough()
    {
        for (int i = 0; i < 300; ++i) {
            std::vector<ShimKind> drawer { { among(1, 6) * 0.25e-3, 1 } };
            const std::vector targets { between(0.5e-3, 4e-3), between(0.5e-3, 4e-3), between(0.5e-3, 4e-3), between(0.5e-3, 4e-3) };
            const double tolerance = 0.125e-3;
            const auto list = centring::toBuy(targets, drawer, tolerance, 5);
            const bool within = centring::carPlan(targets, drawer, tolerance, 5).within();
            QVERIFY(within || !list.empty());
            for (const ShimKind& kind : list)
                drawer.push_back(kind);
            QVERIFY(centring::carPlan(targets, drawer, tolerance, 5).within());
        }
        QVERIFY(centring::toBuy(std::vector { -1e-3 }, std::vector<ShimKind> {}, 0.1e-3, 5).empty());
        QVERIFY(centring::carPlan(std::vector { double(NAN) }, {}, 0).stacks.empty());
    }

    void swapsNameOnlyWhatChanges()
    {
        const auto swap = centring::swapFor(std::vector { 1e-3, 0.5e-3 }, std::vector { 1e-3, 0.75e-3 });
        QCOMPARE(swap.out, std::vector { 0.5e-3 });
        QCOMPARE(swap.in, std::vector { 0.75e-3 });
    }

    /// Two shims of 0.75 mm are in; gaps inner/outer 2.9/1.4 at the top, 2.7/1.6 at the bottom. By hand: errors −0.75 and −0.55, axial
    /// −0.65, tilt −0.20 over 108 mm between readings; at bolts 152 mm apart −0.65 ∓ 0.1407: top −0.7907, bottom −0.5093. Thicker moves
    /// inboard: wanted stacks 1.5 − 0.7907 = 0.7093 and 0.9907; from the drawer 0.75 and 1.0; left +0.0407·(−1) and 0.0093·(−1).
    void theExampleIsRightByHandOnEitherSideOfTheEar()
    {
        {
            const auto s = of(example(Direction::Inboard));
            const CentringResult& r = s.of<Centring>().corners.front();
            QVERIFY(near(*r.axial.value, -0.65e-3, 1e-9));
            QVERIFY(near(*r.tilt.value, -0.20e-3 * 112 / 108, 1e-9)); // read 108 mm apart, brought to a pad of 112
            QVERIFY(std::abs(r.targets[0] - (1.5e-3 - 0.790741e-3)) < 1e-9 && std::abs(r.targets[1] - (1.5e-3 - 0.509259e-3)) < 1e-9);
            QCOMPARE(r.plan->top.shims, std::vector { 0.75e-3 });
            QCOMPARE(r.plan->bottom.shims, std::vector { 1.0e-3 });
            QVERIFY(r.plan->possible);
            QVERIFY(std::abs(r.plan->remaining.axial + (0.040741e-3 + 0.009259e-3) / 2) < 2e-8);
            QVERIFY(std::abs(r.plan->remaining.tilt * 0.152 + (0.040741e-3 - 0.009259e-3)) < 2e-8);
            QCOMPARE(s.verdict("front-left/axial")->level, Level::Stop);
        }
        {
            // On the other side of the ear the stack grows: 2.2907 and 2.0093; 2.0 + 0.25 and 2.0; left −0.0407 and −0.0093.
            const auto s = of(example(Direction::Outboard));
            const CentringResult& r = s.of<Centring>().corners.front();
            QCOMPARE(r.plan->top.shims, (std::vector { 2.0e-3, 0.25e-3 }));
            QCOMPARE(r.plan->bottom.shims, std::vector { 2.0e-3 });
            QVERIFY(std::abs(r.plan->remaining.axial + (0.040741e-3 + 0.009259e-3) / 2) < 2e-8);
        }
    }

    /// Mirror images get mirrored plans, and a shim and its negative cancel.
    void sidesAreMirrors()
    {
        auto build = example(Direction::Inboard);
        MockUp right = build.mockUps[0];
        right.side = Side::Right;
        build.mockUps.push_back(right);
        for (ShimStock& stock : build.drawer)
            stock.count *= 2;
        const auto s = of(build);
        QCOMPARE(s.of<Centring>().corners[0].plan->top.total, s.of<Centring>().corners[1].plan->top.total);
        QCOMPARE(s.of<Centring>().corners[0].plan->bottom.total, s.of<Centring>().corners[1].plan->bottom.total);
        auto swapped = example(Direction::Inboard);
        MockUp& m = swapped.mockUps[0];
        std::swap(m.innerTop, m.innerBottom);
        std::swap(m.outerTop, m.outerBottom);
        QCOMPARE(of(swapped).of<Centring>().corners[0].plan->top.total,
            of(example(Direction::Inboard)).of<Centring>().corners[0].plan->bottom.total);
    }

    void oneDrawerServesBothSides()
    {
        auto build = example(Direction::Inboard);
        MockUp right = build.mockUps[0];
        right.side = Side::Right;
        build.mockUps.push_back(right);
        build.drawer = { { { 0.75e-3, {}, Known::Measured, {}, {} }, 1 }, { { 1e-3, {}, Known::Measured, {}, {} }, 2 },
            { { 0.5e-3, {}, Known::Measured, {}, {} }, 1 }, { { 0.25e-3, {}, Known::Measured, {}, {} }, 1 } };
        const auto s = of(build);
        // One 0.75 only: the other side makes it of two.
        QVERIFY(s.of<Centring>().corners[0].plan->top.total == 0.75e-3 && s.of<Centring>().corners[1].plan->top.total == 0.75e-3);
        QVERIFY(s.of<Centring>().corners[0].plan->top.shims != s.of<Centring>().corners[1].plan->top.shims);
        build.drawer = { { { 2e-3, {}, Known::Measured, {}, {} }, 1 } };
        const auto poor = of(build);
        QVERIFY(!poor.of<Centring>().shimsToBuy.empty());
        QVERIFY(poor.verdict("front-left/axial")->reason.find("To buy") != std::string::npos);
    }

    /// A tape is too coarse for tenths: unproven, and the same gaps by vernier are judged.
    void coarseReadingsProveNothing()
    {
        auto build = example(Direction::Inboard);
        for (Reading* gap :
            { &build.mockUps[0].innerTop, &build.mockUps[0].outerTop, &build.mockUps[0].innerBottom, &build.mockUps[0].outerBottom }) {
            gap->instrument = "tape";
            gap->plusMinus = {};
        }
        const auto s = of(build);
        QCOMPARE(s.verdict("front-left/axial")->level, Level::Unproven);
        QCOMPARE(s.verdict("front-left/tilt")->level, Level::Unproven);
    }

    void playThatNobodyTookUpIsError()
    {
        auto build = example(Direction::Inboard);
        build.mockUps[0].settled = YesNo::Unknown;
        build.mockUps[0].play = {};
        const double before = of(build).of<Centring>().corners[0].axial.worstCase;
        build.mockUps[0].play = { 0.4e-3, 0.05e-3, Known::Measured, {}, {} };
        QVERIFY(near(of(build).of<Centring>().corners[0].axial.worstCase, before + 0.2e-3, 1e-9));
        build.mockUps[0].settled = YesNo::Yes;
        QVERIFY(near(of(build).of<Centring>().corners[0].axial.worstCase, before, 1e-9));
        build.mockUps[0].nuts = 1;
        QCOMPARE(of(build).verdict("front-left/conditions")->level, Level::Caution);
    }

    /// A radial mount: pad ends 0.9 and 0.7 mm below the edge, 0.5 aimed at, nothing under the studs. By hand, pad 112 and bolts 152 long:
    /// at the bolts 0.8 ± 0.1·152/112 = 0.9357 and 0.6643, so 0.4357 and 0.1643 of shims; the drawer has 0.5 and 0.25.
    void radialMountsAreShimmedUnderTheirStuds()
    {
        auto build = example(Direction::Inboard);
        auto& corner = *build.setups[1].front;
        corner.mount.kind = MountKind::Radial;
        build.mockUps[0].padEdgeTop = { 0.9e-3, 0.03e-3, Known::Measured, {}, {} };
        build.mockUps[0].padEdgeBottom = { 0.7e-3, 0.03e-3, Known::Measured, {}, {} };
        const auto s = of(build);
        const CentringResult& r = s.of<Centring>().corners[0];
        QCOMPARE(r.targets.size(), std::size_t(4));
        QVERIFY(std::abs(r.targets[2] - 0.435714e-3) < 1e-9 && std::abs(r.targets[3] - 0.164286e-3) < 1e-9);
        QCOMPARE(r.plan->radialTop->total, 0.5e-3);
        QCOMPARE(r.plan->radialBottom->total, 0.25e-3);
        // Riding over the edge: fewer shims, and a stop until then.
        build.mockUps[0].padEdgeTop.value = -0.3e-3;
        QCOMPARE(of(build).verdict("front-left/pad-edge")->level, Level::Stop);
        corner.mount.kind = MountKind::Lug;
        QCOMPARE(of(build).of<Centring>().corners[0].targets.size(), std::size_t(2));
    }

    /// What a corner has taught: shims of 0.75 taken out moved it 0.69.
    void theRealEffectIsLearnt()
    {
        auto build = example(Direction::Inboard);
        MockUp& m = build.mockUps[0];
        m.passes.push_back({ "2026-06-01", m.innerTop, m.outerTop, m.innerBottom, m.outerBottom, {}, {},
            build.setups[1].front->left.shimTop, build.setups[1].front->left.shimBottom, {}, {} });
        Fitted& left = build.setups[1].front->left;
        left.shimTop.value = 0.75e-3;
        left.shimBottom.value = 0.75e-3;
        for (Reading* r : { &m.innerTop, &m.innerBottom })
            *r->value -= 0.69e-3;
        for (Reading* r : { &m.outerTop, &m.outerBottom })
            *r->value += 0.69e-3;
        const auto s = of(build);
        QVERIFY(s.of<Centring>().corners[0].learnt && s.of<Centring>().corners[0].learnt->moves == 1);
        QVERIFY(near(s.of<Centring>().corners[0].learnt->ratio, 0.92, 1e-9));
        QVERIFY(near(s.of<Centring>().corners[0].effect(), 0.92, 1e-9));
        QVERIFY(s.verdict("front-left/axial")->reason.find("0.92") != std::string::npos);
        // What cannot be is not believed.
        *m.outerTop.value += 2e-3;
        QCOMPARE(of(build).of<Centring>().corners[0].effect(), 1.0);
    }

    /// Outboard of its rotor with nothing left to take out: the ring and the machine shop, and why not shims.
    void theOtherSchoolWhereShimsCannot()
    {
        auto build = example(Direction::Outboard);
        MockUp& m = build.mockUps[0];
        std::swap(m.innerTop, m.outerTop);
        std::swap(m.innerBottom, m.outerBottom);
        build.setups[1].front->left.shimTop.value = 0;
        build.setups[1].front->left.shimBottom.value = 0;
        const auto s = of(build);
        const Verdict& v = *s.verdict("front-left/axial");
        QVERIFY2(v.reason.find("more would have to come out") != std::string::npos, v.reason.c_str());
        const auto ring = std::ranges::find_if(v.remedies, [](const Remedy& r) { return r.title.starts_with("Hub-face ring"); });
        QVERIFY(ring != v.remedies.end() && ring->edit);
        QVERIFY(std::ranges::any_of(v.remedies, [](const Remedy& r) { return r.title.starts_with("Machine"); }));
        auto fitted = *ring->in(*s.build);
        QVERIFY(near(*fitted.setups[1].front->ring.value, 0.65e-3, 1e-9));
        QVERIFY(std::abs(*of(fitted).of<Centring>().corners[0].axial.value) < 1e-9);
        QVERIFY(std::abs(*of(fitted).verdict("front/wheel-place")->figure.value - (0.8e-3 + 0.65e-3)) < 1e-9);
    }
};

DEEPSTOP_TEST(CarPlanTest)
#include "car_plan_test.moc"
