/// Knuckles made up at random (Open CASCADE), scanned roughly and picked by a hand that is not steady: what is found lies within what is
/// said.

#include "core/support.hpp"
#include "outside/random_wheel.hpp"
#include "scan/knuckle_scan.hpp"

#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepPrimAPI_MakeBox.hxx>

#include <QTest>

using namespace deepstop;

namespace {

constexpr double mm = 1e-3;

/// z is inboard, the hub's flange face at 0. Lengths in millimetres.
struct RandomKnuckle {
    double flange = 68; ///< radius
    double pilot = 33;
    double pilotHeight = 8;
    double spacing = 120;
    double radius = 95;
    double depth = 32;
    double thickness = 12;
    double hole = 6; ///< radius

    [[nodiscard]] scans::Triangles surface(double edge) const
    {
        const auto round = [](double x, double y, double from, double to, double r) {
            return BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(x, y, from), gp::DZ()), r, to - from).Shape();
        };
        TopoDS_Shape body = BRepAlgoAPI_Fuse(round(0, 0, 0, 9, flange), round(0, 0, -pilotHeight, 0, pilot)).Shape();
        body = BRepAlgoAPI_Fuse(body, round(0, 0, 9, depth + 40, 40)).Shape();
        const double wide = spacing / 2 + hole + 10;
        body =
            BRepAlgoAPI_Fuse(body, BRepPrimAPI_MakeBox(gp_Pnt(-wide, 0, depth), gp_Pnt(wide, radius + hole + 9, depth + thickness)).Shape())
                .Shape();
        for (const double side : { -1.0, 1.0 })
            body = BRepAlgoAPI_Cut(body, round(side * spacing / 2, radius, depth - 1, depth + thickness + 1, hole)).Shape();
        scans::Triangles surface;
        scans::addMeshed(surface, body, edge, [](const auto&) { return true; });
        return surface;
    }
};

/// Three places round a circle at that height, as a hand clicks them.
scan::Picks clickedRound(double x, double y, double z, double r, const scans::Pose& pose, double scale, std::mt19937& rng)
{
    std::uniform_real_distribution<double> off(-0.7, 0.7);
    std::uniform_real_distribution<double> aside(-0.4, 0.4);
    scan::Picks picks {};
    for (std::size_t i = 0; i < 3; ++i) {
        const double angle = 2 * std::numbers::pi * static_cast<double>(i) / 3 + aside(rng);
        const double at = r + off(rng);
        const auto p = pose.of({ scale * (x + at * std::cos(angle)), scale * (y + at * std::sin(angle)), scale * (z + off(rng) / 2) });
        picks[i] = { p[0] * mm, p[1] * mm, p[2] * mm };
    }
    return picks;
}

} // namespace

class PickedOutsideTest : public QObject {
    Q_OBJECT
private slots:
    /// DEEPSTOP_SCANS says how many.
    void knucklesArePickedWithinWhatIsSaid()
    {
        const int wanted = qEnvironmentVariableIntValue("DEEPSTOP_SCANS") ? qEnvironmentVariableIntValue("DEEPSTOP_SCANS") : 6;
        int figures = 0;
        int outside = 0;
        int trusted = 0;
        double widths = 0;
        double roughness = 0;
        for (int seed = 1; seed <= wanted; ++seed) {
            std::mt19937 rng(static_cast<unsigned>(seed));
            const auto between = [&](double low, double high) { return std::uniform_real_distribution<double>(low, high)(rng); };
            RandomKnuckle k { between(60, 76), between(28, 38), between(5, 12), between(95, 150), between(82, 112), between(18, 50),
                between(9, 16), between(5, 7) };
            scans::Scanner how;
            how.noise = between(0.05, 0.4);
            how.scale = seed % 3 == 0 ? 1 + between(-0.01, 0.01) : 1;
            how.outliers = between(0, 0.01);
            how.insideOut = seed % 5 == 0;
            const auto pose = scans::randomPose(rng);
            const auto mesh = scans::scanned(k.surface(2.5), how, pose, rng);
            scan::KnuckleQuestion question;
            const auto round = [&](double x, double y, double z, double r) { return clickedRound(x, y, z, r, pose, how.scale, rng); };
            question.flange = round(0, 0, 0, (k.flange + k.pilot) / 2);
            question.pilot = round(0, 0, -k.pilotHeight / 2, k.pilot);
            question.lugs = { round(-k.spacing / 2, k.radius, k.depth, k.hole), round(k.spacing / 2, k.radius, k.depth, k.hole) };
            const auto place = pose.of({ how.scale * 30, how.scale * 55, how.scale * (k.depth + 20) });
            question.keepOuts = { { KeepOutKind::Hose, { place[0] * mm, place[1] * mm, place[2] * mm } } };
            // Half of them were measured on the hub.
            if (seed % 2 == 0)
                question.pilotKnown = scan::Sized { 2 * k.pilot * mm, 0.05 * mm };
            const auto found = scan::scanKnuckle(mesh, question);
            QVERIFY2(found.lacks.empty(), qPrintable(QStringLiteral("%1: %2").arg(seed).arg(QString::fromStdString(found.lacks))));
            // One that contradicts what was measured is put in nowhere.
            if (found.scale && !found.scale->agrees()) {
                QVERIFY(std::abs(how.scale - 1) > 0.001);
                continue;
            }
            trusted += found.trusted();
            const auto within = [&](const char* what, const scan::Sized& is, double truth) {
                ++figures;
                widths += is.plusMinus / mm;
                roughness += how.noise;
                if (std::abs(is.value / mm - truth) > is.plusMinus / mm) {
                    ++outside;
                    qInfo("%d %s: %.3f ±%.3f instead of %.3f, noise %.2f", seed, what, is.value / mm, is.plusMinus / mm, truth, how.noise);
                }
            };
            within("pilot", found.pilotDiameter, 2 * k.pilot);
            within("spacing", found.lugSpacing, k.spacing);
            within("radius", found.lugRadius, k.radius);
            within("depth", found.lugDepth, k.depth);
            within("hole", found.lugHole, 2 * k.hole);
            QCOMPARE(found.keepOuts.size(), std::size_t(1));
            const KeepOut& hose = found.keepOuts[0];
            within("keep-out's depth", { *hose.depth.value, *hose.depth.plusMinus }, k.depth + 20);
            within("keep-out's radius", { *hose.radius.value, *hose.radius.plusMinus }, std::hypot(30, 55));
            QVERIFY(!hose.clock.value);
        }
        qInfo("%d figures, %d outside their width, mean width %.2f mm, mean roughness %.2f mm, %d trusted", figures, outside,
            widths / figures, roughness / figures, trusted);
        QVERIFY(outside * 200 <= figures);
        QVERIFY(trusted > 0);
        QVERIFY(widths / figures < 2.0);
    }

    /// A maker's solid is exact: nothing of it is off by more than its facets.
    void aCleanSurfaceIsReadExactly()
    {
        const RandomKnuckle k;
        std::mt19937 rng(3);
        const scans::Pose pose = scans::randomPose(rng);
        const auto mesh = scans::scanned(k.surface(2), { 0 }, pose, rng);
        scan::KnuckleQuestion question;
        const auto round = [&](double x, double y, double z, double r) { return clickedRound(x, y, z, r, pose, 1, rng); };
        question.flange = round(0, 0, 0, 50);
        question.pilot = round(0, 0, -4, k.pilot);
        question.lugs = { round(-k.spacing / 2, k.radius, k.depth, k.hole), round(k.spacing / 2, k.radius, k.depth, k.hole) };
        question.pilotKnown = scan::Sized { 2 * k.pilot * mm, 0.02 * mm };
        const auto found = scan::scanKnuckle(mesh, question);
        QVERIFY2(found.lacks.empty(), found.lacks.c_str());
        QVERIFY(found.trusted());
        QVERIFY(std::abs(found.lugSpacing.value - k.spacing * mm) < 0.05 * mm);
        QVERIFY(std::abs(found.lugRadius.value - k.radius * mm) < 0.05 * mm);
        QVERIFY(std::abs(found.lugDepth.value - k.depth * mm) < 0.05 * mm);
        // Into the hub: measured, but not in place of what was read by hand.
        Hub hub;
        hub.lugDepth = { 31.8 * mm, 0.05 * mm, Known::Measured, "vernier", {} };
        hub.keepOuts.emplace_back();
        const Hub with =
            scan::hubWith(scan::hubWith(hub, found, { "k.stl", "abc", "2026-12-01" }), found, { "k.stl", "abc", "2026-12-01" });
        QCOMPARE(with.lugDepth.value, hub.lugDepth.value);
        QVERIFY(with.lugSpacing.known == Known::Measured);
        QCOMPARE(with.keepOuts.size(), std::size_t(1));
        QCOMPARE(with.scan, std::string("k.stl"));
        // Held against nothing it proves nothing, and a contradiction is one.
        question.pilotKnown.reset();
        const auto unsure = scan::scanKnuckle(mesh, question);
        QVERIFY(!unsure.trusted());
        QVERIFY(scan::hubWith({}, unsure, {}).lugSpacing.known == Known::Estimated);
        QVERIFY(unsure.lugSpacing.plusMinus > found.lugSpacing.plusMinus + 1 * mm);
        question.pilotKnown = scan::Sized { 2 * k.pilot * 1.01 * mm, 0.05 * mm };
        QVERIFY(!scan::scanKnuckle(mesh, question).scale->agrees());
    }

    /// Lugs outboard of the flange are no lugs inboard of it: the pilot tells which way is which.
    void lugsOutboardOfTheFlangeAreSeenThere()
    {
        RandomKnuckle k;
        k.depth = -6;
        k.thickness = 14;
        std::mt19937 rng(8);
        const scans::Pose pose = scans::randomPose(rng);
        const auto mesh = scans::scanned(k.surface(2.5), { 0.1 }, pose, rng);
        scan::KnuckleQuestion question;
        const auto round = [&](double x, double y, double z, double r) { return clickedRound(x, y, z, r, pose, 1, rng); };
        // Beside the plate that the lugs are of.
        const auto place = [&](double angle) {
            const auto p = pose.of({ 50 * std::cos(angle), 50 * std::sin(angle), 0 });
            return scan::Point { p[0] * mm, p[1] * mm, p[2] * mm };
        };
        question.flange = { place(3.5), place(4.7), place(5.9) };
        question.pilot = round(0, 0, -k.pilotHeight, k.pilot);
        question.lugs = { round(-k.spacing / 2, k.radius, k.depth, k.hole), round(k.spacing / 2, k.radius, k.depth, k.hole) };
        const auto found = scan::scanKnuckle(mesh, question);
        QVERIFY2(found.lacks.empty(), found.lacks.c_str());
        QVERIFY2(std::abs(found.lugDepth.value - k.depth * mm) <= found.lugDepth.plusMinus,
            qPrintable(QStringLiteral("%1 ±%2").arg(found.lugDepth.value / mm).arg(found.lugDepth.plusMinus / mm)));
        QVERIFY(found.lugDepth.value < 0);
        // A pilot picked at its foot tells nothing, and lugs so near the flange do not either.
        const auto flat = [&](double angle) {
            const auto p = pose.of({ k.pilot * std::cos(angle), k.pilot * std::sin(angle), -0.3 });
            return scan::Point { p[0] * mm, p[1] * mm, p[2] * mm };
        };
        question.pilot = { flat(0.2), flat(2.3), flat(4.4) };
        QVERIFY(!scan::scanKnuckle(mesh, question).lacks.empty());
    }

    void whatWasPickedWronglyIsSaid()
    {
        const RandomKnuckle k;
        std::mt19937 rng(4);
        const scans::Pose here;
        const auto mesh = scans::scanned(k.surface(3), { 0.1 }, here, rng);
        scan::KnuckleQuestion good;
        const auto round = [&](double x, double y, double z, double r) { return clickedRound(x, y, z, r, here, 1, rng); };
        good.flange = round(0, 0, 0, 50);
        good.pilot = round(0, 0, -4, k.pilot);
        good.lugs = { round(-k.spacing / 2, k.radius, k.depth, k.hole), round(k.spacing / 2, k.radius, k.depth, k.hole) };
        QVERIFY(scan::scanKnuckle(mesh, good).lacks.empty());
        auto wrong = good;
        wrong.flange[2] = wrong.flange[1];
        QVERIFY(!scan::scanKnuckle(mesh, wrong).lacks.empty());
        wrong = good;
        wrong.flange = round(0, 0, 200, 50); // in the air
        QVERIFY(!scan::scanKnuckle(mesh, wrong).lacks.empty());
        wrong = good;
        wrong.lugs[0] = good.flange; // three places far apart are no hole's edge that lies in a face
        QVERIFY(!scan::scanKnuckle(mesh, wrong).lacks.empty());
        // Three places of one side only.
        wrong = good;
        for (std::size_t i = 0; i < 3; ++i) {
            const double angle = 0.3 * static_cast<double>(i);
            wrong.pilot[i] = { k.pilot * mm * std::cos(angle), k.pilot * mm * std::sin(angle), -4 * mm };
        }
        QVERIFY(!scan::scanKnuckle(mesh, wrong).lacks.empty());
        wrong = good;
        for (auto& p : wrong.pilot)
            p = wrong.pilot[0];
        QVERIFY(!scan::scanKnuckle(mesh, wrong).lacks.empty());
        QVERIFY(!scan::scanKnuckle({}, good).lacks.empty());
        // A lug that leans is none of those that are read.
        wrong = good;
        for (std::size_t i = 0; i < 3; ++i)
            wrong.lugs[1][i] = { k.spacing / 2 * mm + 16 * mm, wrong.lugs[1][i][1], wrong.lugs[1][i][0] };
        QVERIFY(!scan::scanKnuckle(mesh, wrong).lacks.empty());
    }
};

DEEPSTOP_TEST(PickedOutsideTest)
#include "picked_outside_test.moc"
