/// What becomes of gaps read at a mock-up when shims, ring, hat, rotor or bracket change: estimates, moved by plane geometry.

#include "build/mock_ups.hpp"
#include "centring/centring.hpp"
#include "core/support.hpp"
#include "figures/figures.hpp"

#include <QTest>

using namespace deepstop;

namespace {

MockUp& mockUp(Build& build) { return build.mockUps.front(); }
Corner& corner(Build& build) { return *setupIn(build, mockUp(build).setup)->front; }

/// The demo's first mock-up with a front caliper of the setup's own, all of it read.
Build readBuild()
{
    Build build = demo();
    mockUp(build).passes.clear();
    corner(build).left.shimTop = corner(build).left.shimBottom = { 1.5e-3, 0.01e-3, Known::Measured, "micrometer", {} };
    return build;
}

Build after(const Build& before, const std::function<void(Build&)>& change)
{
    Build now = before;
    change(now);
    foretellGaps(before, now);
    return now;
}

double axialOf(const MockUp& m)
{
    return centring::position({ *m.innerTop.value, *m.outerTop.value, *m.innerBottom.value, *m.outerBottom.value }, 1, 1).axial;
}
double axialByDimensions(Build& build)
{
    return nominal([&](Evaluator& s) { return figures::axialOffset(s, corner(build), mockUp(build).side); });
}

} // namespace

class MockUpsTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase()
    {
        Build build = demo();
        QVERIFY(mockUp(build).axle == Axle::Front && mockUp(build).side == Side::Left && mockUp(build).innerTop.value);
    }

    void aChangeMovesTheGaps_data()
    {
        QTest::addColumn<std::function<void(Build&)>>("change");
        const auto row = [](const char* what, std::function<void(Build&)> change) { QTest::newRow(what) << std::move(change); };
        row("thicker shims on both bolts", [](Build& b) {
            *corner(b).left.shimTop.value += 1e-3;
            *corner(b).left.shimBottom.value += 1e-3;
        });
        row("different shims", [](Build& b) { *corner(b).left.shimTop.value += 0.5e-3; });
        row("shims taken out", [](Build& b) { corner(b).left.shimTop = corner(b).left.shimBottom = {}; });
        row("a ring behind the rotor", [](Build& b) { corner(b).ring = { 5e-3, 0.05e-3, Known::Vendor, {}, {} }; });
        row("a thicker hat", [](Build& b) { *corner(b).rotor.hatThickness.value += 2e-3; });
        row("a higher rotor", [](Build& b) { *corner(b).rotor.overallHeight.value += 3e-3; });
        row("a thinner rotor", [](Build& b) { *corner(b).rotor.thickness.value -= 4e-3; });
    }
    /// What the gaps then say of the caliper's place is what the dimensions say of it: the one is worked out without the other.
    void aChangeMovesTheGaps()
    {
        QFETCH(std::function<void(Build&)>, change);
        Build before = readBuild();
        Build now = after(before, change);
        const MockUp& m = mockUp(now);
        QCOMPARE(m.passes.size(), std::size_t { 1 });
        QCOMPARE(m.passes.front().innerTop, mockUp(before).innerTop);
        // A thinner rotor moves its outboard face alone.
        QVERIFY(m.outerTop.known == Known::Estimated && m.outerBottom.known == Known::Estimated);
        const double moved = axialOf(m) - axialOf(mockUp(before));
        QVERIFY2(std::abs(moved - (axialByDimensions(now) - axialByDimensions(before))) < 1e-9, qPrintable(QString::number(moved * 1000)));
        // Inner gap, outer gap and rotor fill the slot as before.
        const auto filled = [](Build& b) {
            return *mockUp(b).innerTop.value + *mockUp(b).outerTop.value + *corner(b).rotor.thickness.value;
        };
        QVERIFY(std::abs(filled(now) - filled(before)) < 1e-12);
        const Verdict v = *study(now).verdict("front-left/axial");
        QVERIFY2(!isFine(v.level) && v.reason.find("estimate") != std::string::npos, v.reason.c_str());
    }

    void whatIsNoChangeMovesNothing()
    {
        const Build before = readBuild();
        const auto same = [&](const std::function<void(Build&)>& change) {
            Build now = after(before, change);
            return mockUp(now).innerTop.known == Known::Measured && mockUp(now).passes.empty();
        };
        QVERIFY(same([](Build&) {}));
        // The same hat read a little better; a bracket and stacks nobody had said; pads.
        QVERIFY(same([](Build& b) { *corner(b).rotor.hatThickness.value += 0.5 * corner(b).rotor.hatThickness.plusMinus.value_or(0); }));
        QVERIFY(same([](Build& b) { corner(b).left.radialTop = { 2e-3, {}, Known::Measured, {}, {} }; }));
        QVERIFY(same([](Build& b) { corner(b).pad.thickness = { 15e-3, {}, Known::Measured, {}, {} }; }));
        QVERIFY(same([](Build& b) { *corner(b).right.shimTop.value += 1e-3; }));
        // Gaps that are read in the same edit are those of the new parts.
        QVERIFY(same([](Build& b) {
            *corner(b).left.shimTop.value += 1e-3;
            mockUp(b).innerTop.value = 3e-3;
        }));
    }

    /// Which way shims move the caliper was not said: the gaps stay where they are, as wide as the change.
    void anUnknownWayWidens()
    {
        Build before = readBuild();
        corner(before).mount.shimMoves = Direction::Unknown;
        Build now = after(before, [](Build& b) { *corner(b).left.shimTop.value += 1e-3; });
        QCOMPARE(*mockUp(now).innerTop.value, *mockUp(before).innerTop.value);
        QVERIFY(*mockUp(now).innerTop.plusMinus >= 1e-3);
    }

    /// Through a file, as the command line changes it, gaps age as they do in the window; undoing the change by hand does not make them
    /// readings again.
    void aFileForgetsNothing()
    {
        const auto folder = std::filesystem::temp_directory_path() / "deepstop-mock-ups";
        std::filesystem::create_directories(folder);
        const auto path = folder / "car.deepstop";
        files::saveBuild(path, { readBuild(), nullptr });
        const auto put = [&](double by) {
            return files::changeBuild(
                path,
                [by](const Build& b) -> std::optional<Build> {
                    Build now = b;
                    *corner(now).left.shimTop.value += by;
                    return now;
                },
                std::chrono::seconds(5))
                .build;
        };
        Build there = put(1e-3);
        QCOMPARE(mockUp(there).innerTop.known, Known::Estimated);
        Build back = put(-1e-3);
        QCOMPARE(mockUp(back).innerTop.known, Known::Estimated);
        std::filesystem::remove_all(folder);
    }
};

DEEPSTOP_TEST(MockUpsTest)
#include "mock_ups_test.moc"
