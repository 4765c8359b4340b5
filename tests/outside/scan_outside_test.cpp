/// Wheels as a scanner would see them, made at random by Open CASCADE, against what is read from them; and our own solids read back.

#include "bracket/bracket.hpp"
#include "core/plain_wheel.hpp"
#include "core/support.hpp"
#include "design/turned.hpp"
#include "outside/random_wheel.hpp"
#include "scan/caliper_scan.hpp"
#include "scan/into_build.hpp"
#include "solids/check_sum.hpp"
#include "solids/mesh_file.hpp"
#include "solids/solid_files.hpp"
#include "solids/step_parts.hpp"

#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepBuilderAPI_Transform.hxx>
#include <BRepPrimAPI_MakeBox.hxx>
#include <STEPControl_Writer.hxx>

#include <QTemporaryDir>
#include <QTest>

#include <cmath>
#include <cstring>
#include <numbers>
#include <random>

using namespace deepstop;
using scans::RandomWheel;

namespace {

constexpr double mm = 1e-3;

/// How many, unless the environment wants more.
int count(const char* name, int otherwise)
{
    const char* wanted = std::getenv(name);
    return wanted ? std::atoi(wanted) : otherwise;
}

scan::WheelQuestion questionOf(const RandomWheel& w, bool correct = false)
{
    scan::WheelQuestion question;
    question.known = scan::KnownSize { scan::KnownLength::BoltCircle, { w.boltCircle * mm, 0.05 * mm } };
    question.correctScale = correct;
    return question;
}

std::string ply(const scan::Mesh& mesh)
{
    std::string text = fmt::format("ply\nformat ascii 1.0\nelement vertex {}\nproperty float x\nproperty float y\nproperty float z\n"
                                   "element face {}\nproperty list uchar int vertex_indices\nend_header\n",
        mesh.corners.size(), mesh.triangles());
    for (const auto& p : mesh.corners)
        text += fmt::format("{} {} {}\n", p[0], p[1], p[2]);
    for (std::size_t t = 0; t < mesh.triangles(); ++t)
        text += fmt::format("3 {} {} {}\n", 3 * t, 3 * t + 1, 3 * t + 2);
    return text;
}

std::string obj(const scan::Mesh& mesh)
{
    std::string text = "mtllib /etc/passwd\n";
    for (const auto& p : mesh.corners)
        text += fmt::format("v {} {} {}\n", p[0], p[1], p[2]);
    for (std::size_t t = 0; t < mesh.triangles(); ++t)
        text += fmt::format("f {} {} {}\n", 3 * t + 1, 3 * t + 2, 3 * t + 3);
    return text;
}

/// One wheel seen well, for what is tried on every format.
struct Seen {
    RandomWheel wheel;
    scans::Triangles surface;
    scans::Pose pose;
    scan::Mesh mesh;
};
const Seen& seenWell()
{
    static const Seen seen = [] {
        std::mt19937 rng(7);
        Seen s;
        s.wheel = scans::randomWheel(rng);
        s.surface = scans::surfaceOf(s.wheel, 4.5);
        s.pose = scans::randomPose(rng);
        s.mesh = scans::scanned(s.surface, {}, s.pose, rng);
        return s;
    }();
    return seen;
}

std::string refusalOf(const std::string& bytes, const std::string& name)
{
    try {
        (void)solids::meshOf(bytes, name);
    } catch (const files::Refusal& r) {
        return r.what();
    }
    return {};
}

} // namespace

class ScanOutsideTest : public QObject {
    Q_OBJECT
private slots:
    /// Random wheels in any pose, rough, with holes, outliers, a wrong scale, from one side or all round, inside out: never more room than
    /// there is beyond the stated width; the axis, face, holes and spokes found. DEEPSTOP_SCANS: how many.
    void wheelsAreReadOnTheSafeSide()
    {
        std::size_t stations = 0;
        std::size_t unsafe = 0;
        double widthOverNoise = 0;
        int trusted = 0;
        int withoutHoles = 0;
        const int wheels = count("DEEPSTOP_SCANS", 5);
        for (int seed = 0; seed < wheels; ++seed) {
            std::mt19937 rng(static_cast<unsigned>(1000 + seed));
            const RandomWheel w = scans::randomWheel(rng);
            const auto surface = scans::surfaceOf(w, 3.5);
            scans::Scanner how;
            how.noise = std::uniform_real_distribution(0.05, 0.5)(rng);
            how.holes = std::uniform_int_distribution(0, 12)(rng);
            how.outliers = std::uniform_real_distribution(0.0, 0.01)(rng);
            how.insideOnly = rng() % 2 == 0;
            how.insideOut = rng() % 5 == 0;
            how.scale = rng() % 2 == 0 ? 1 : std::uniform_real_distribution(0.99, 1.01)(rng);
            const auto pose = scans::randomPose(rng);
            const auto scan = scan::scanWheel(scans::scanned(surface, how, pose, rng), questionOf(w, true));
            const auto where = QStringLiteral("wheel %1").arg(seed).toStdString();
            QVERIFY2(scan.lacks.empty(), (where + ": " + scan.lacks).c_str());

            const auto origin = pose.of({ 0, 0, 0 });
            const auto inboard = pose.of({ 0, 0, 1 });
            double along = 0;
            for (std::size_t i = 0; i < 3; ++i)
                along += (inboard[i] - origin[i]) * scan.axis.direction[i];
            QVERIFY2(std::acos(std::min(1.0, along)) < 0.05 * std::numbers::pi / 180, where.c_str());
            const auto place = scan.frame.of({ origin[0] * mm, origin[1] * mm, origin[2] * mm });
            QVERIFY2(place.radius < 0.05 * mm, where.c_str());
            QVERIFY2(std::abs(place.along - scan.face) < 0.1 * mm, where.c_str());
            if (scan.boltCircle) {
                QVERIFY2(std::abs(scan.scale->scanned / how.scale - w.boltCircle * mm) < 0.1 * mm, where.c_str());
                QCOMPARE(scan.holes, w.holes);
            } else {
                // Where the scanner saw too few of the holes, nothing is said of them, and nothing is trusted.
                ++withoutHoles;
                QVERIFY(!scan.trusted());
            }
            QCOMPARE(scan.spokeCount, w.spokes);
            QVERIFY2(scan.bore && std::abs(scan.bore->value - w.bore * mm) < scan.bore->plusMinus, where.c_str());
            if (scan.offset)
                QVERIFY2(std::abs(scan.offset->value - w.offset() * mm) < scan.offset->plusMinus, where.c_str());
            QVERIFY2(std::abs(scan.noise / mm - how.noise) < 0.25 * how.noise + 0.03, where.c_str());
            double widths = 0;
            for (const auto& b : scan.barrel) {
                unsafe += b.insideRadius - b.plusMinus > w.insideAt(b.depth / mm) * mm ? 1 : 0;
                widths += b.plusMinus;
            }
            for (const auto& s : scan.spokes) {
                unsafe += s.distance - s.plusMinus > w.distanceAt(s.radius / mm) * mm ? 1 : 0;
                widths += s.plusMinus;
            }
            const auto here = scan.barrel.size() + scan.spokes.size();
            QVERIFY2(scan.barrel.size() > 40 && scan.spokes.size() > 15, where.c_str());
            stations += here;
            if (scan.trusted()) {
                widthOverNoise += widths / static_cast<double>(here) / (how.noise * mm);
                ++trusted;
            }
        }
        qInfo("%d wheels, %zu stations, %zu on the unsafe side, mean width %.2f of the noise", wheels, stations, unsafe,
            widthOverNoise / trusted);
        QVERIFY(static_cast<double>(unsafe) <= 0.005 * static_cast<double>(stations));
        QVERIFY(widthOverNoise < 3 * trusted);
        QVERIFY(withoutHoles <= 1 + wheels / 20);
    }

    /// What is not in the scan is nowhere in the profile, and in the build a station without a reading stands for it.
    void whatIsNotSeenIsAGap()
    {
        const Seen& seen = seenWell();
        std::mt19937 rng(3);
        scan::Mesh mesh;
        const double from = seen.wheel.inboardEnd() - 60;
        for (std::size_t t = 0; t < seen.surface.faces.size(); ++t) {
            const auto& f = seen.surface.faces[t];
            const auto& p = seen.surface.points[f[0]];
            if (p[2] > from && p[2] < from + 25)
                continue;
            for (const std::size_t k : f) {
                const auto& q = seen.surface.points[k];
                mesh.corners.push_back({ static_cast<float>(q[0]), static_cast<float>(q[1]), static_cast<float>(q[2]) });
            }
        }
        const auto scan = scan::scanWheel(mesh, questionOf(seen.wheel));
        QVERIFY2(scan.lacks.empty(), scan.lacks.c_str());
        QCOMPARE(scan.barrelUnseen.size(), std::size_t(1));
        QVERIFY(std::abs(scan.barrelUnseen[0].from / mm - from) < 6 && std::abs(scan.barrelUnseen[0].to / mm - from - 25) < 6);
        for (const auto& b : scan.barrel)
            QVERIFY(b.depth / mm < from + 5 || b.depth / mm > from + 20);
        const Wheel wheel = scan::wheelWith({}, scan, { "scan.stl", "", "2026-05-02" });
        const auto missing = std::ranges::find_if(wheel.barrel, [](const BarrelStation& b) { return !b.insideRadius.value; });
        QVERIFY(missing != wheel.barrel.end());
        QVERIFY(std::abs(*missing->depth.value / mm - from - 12.5) < 5);
        QCOMPARE(std::prev(missing)->bend, YesNo::No); // nothing runs straight across it
        QCOMPARE(std::next(missing)->bend, YesNo::No);
        // The gap to the barrel is then not known, and names the reading that lacks.
        Build build = demo();
        Wheel& on = *std::ranges::find(build.wheels, std::string("w17"), &Wheel::id);
        on.barrel = wheel.barrel;
        const Study s = study(build);
        const Verdict* gap = s.verdict("front/barrel-gap");
        QVERIFY(gap && !gap->figure.value && gap->level == Level::Unproven && !gap->figure.lacks.empty());
    }

    /// Whether weights stand inside is said only of a barrel that was seen all round; what was read by hand stays.
    void weightsAreNotDeniedUnseen()
    {
        const Seen& seen = seenWell();
        auto scan = scan::scanWheel(seen.mesh, questionOf(seen.wheel));
        QVERIFY2(scan.lacks.empty(), scan.lacks.c_str());
        Wheel before;
        before.balanceWeights = YesNo::No;
        Inset byHand;
        byHand.height.value = 3 * mm;
        byHand.height.known = Known::Measured;
        byHand.height.instrument = "vernier";
        scan.insets.clear();
        scan.allRoundSeen = false;
        QCOMPARE(scan::wheelWith({}, scan, {}).balanceWeights, YesNo::Unknown);
        QCOMPARE(scan::wheelWith(before, scan, {}).balanceWeights, YesNo::No); // as somebody said
        scan.allRoundSeen = true;
        QCOMPARE(scan::wheelWith({}, scan, {}).balanceWeights, YesNo::No);
        before.insets = { byHand };
        before.balanceWeights = YesNo::Yes;
        QCOMPARE(scan::wheelWith(before, scan, {}).balanceWeights, YesNo::Yes);
        scan.insets = { { 40 * mm, 60 * mm, 4 * mm, 0.2 * mm, 30 * mm } };
        scan.allRoundSeen = false;
        const Wheel twice = scan::wheelWith(scan::wheelWith(before, scan, {}), scan, {});
        QCOMPARE(twice.insets.size(), std::size_t(2)); // the one by hand, and the scan's once
        QCOMPARE(twice.insets[1].kind, InsetKind::Unknown); // another weight may stand where nothing was seen
    }

    /// A scan that nobody held against anything proves nothing; one that contradicts what is known is not trusted; corrected it is.
    void scaleIsCheckedAndCorrectedOnlyWhenAsked()
    {
        const Seen& seen = seenWell();
        std::mt19937 rng(5);
        scans::Scanner how;
        how.scale = 1.008;
        const auto mesh = scans::scanned(seen.surface, how, seen.pose, rng);
        const auto alone = scan::scanWheel(mesh, {});
        QVERIFY(!alone.trusted());
        for (const auto& b : scan::wheelWith({}, alone, {}).barrel)
            QCOMPARE(b.insideRadius.known, Known::Estimated);
        const auto held = scan::scanWheel(mesh, questionOf(seen.wheel));
        QVERIFY(held.scale && !held.scale->agrees() && !held.trusted());
        QVERIFY(std::abs(held.scale->off - 0.008) < 0.001);
        QVERIFY(std::abs(held.boltCircle->value / mm - 1.008 * seen.wheel.boltCircle) < 0.1); // as the scan has it
        const auto corrected = scan::scanWheel(mesh, questionOf(seen.wheel, true));
        QVERIFY(corrected.trusted());
        QVERIFY(std::abs(corrected.bore->value / mm - seen.wheel.bore) < 0.1);
        for (const auto& b : scan::wheelWith({}, corrected, {}).barrel)
            QCOMPARE(b.insideRadius.known, Known::Measured);
        // Without anything known it is wider than with it.
        QVERIFY(alone.barrel[10].plusMinus > corrected.barrel[10].plusMinus + 0.5 * mm);
    }

    /// Straight lines between the stations that are kept are nowhere outside the barrel or nearer than the spokes.
    void theStationsKeptAreEnough()
    {
        const Seen& seen = seenWell();
        const auto scan = scan::scanWheel(seen.mesh, questionOf(seen.wheel));
        const Wheel wheel = scan::wheelWith({}, scan, {});
        QVERIFY(wheel.barrel.size() >= 6 && wheel.barrel.size() < 60);
        for (std::size_t i = 1; i < wheel.barrel.size(); ++i)
            for (double t = 0; t <= 1; t += 0.05) {
                const double depth = std::lerp(*wheel.barrel[i - 1].depth.value, *wheel.barrel[i].depth.value, t);
                const double radius = std::lerp(*wheel.barrel[i - 1].insideRadius.value, *wheel.barrel[i].insideRadius.value, t);
                const double width = std::max(*wheel.barrel[i - 1].insideRadius.plusMinus, *wheel.barrel[i].insideRadius.plusMinus);
                QVERIFY(radius - width - 0.06 * mm < seen.wheel.insideAt(depth / mm) * mm);
            }
        for (std::size_t i = 1; i < wheel.spokes.size(); ++i)
            for (double t = 0; t <= 1; t += 0.05) {
                const double radius = std::lerp(*wheel.spokes[i - 1].radius.value, *wheel.spokes[i].radius.value, t);
                const double distance = std::lerp(*wheel.spokes[i - 1].distance.value, *wheel.spokes[i].distance.value, t);
                const double width = std::max(*wheel.spokes[i - 1].distance.plusMinus, *wheel.spokes[i].distance.plusMinus);
                QVERIFY(distance - width - 0.06 * mm < seen.wheel.distanceAt(radius / mm) * mm);
            }
    }

    void everyFormatGivesTheSameMesh()
    {
        const Seen& seen = seenWell();
        scan::Mesh small;
        small.corners.assign(seen.mesh.corners.begin(), seen.mesh.corners.begin() + 3000);
        for (const auto& [bytes, name] : { std::pair { stlOf(small), "a.stl" }, std::pair { ply(small), "a.ply" },
                 std::pair { obj(small), "a.obj" }, std::pair { stlOf(small), "named wrongly.ply" } }) {
            const auto loaded = solids::meshOf(bytes, name);
            QCOMPARE(loaded.mesh.triangles(), small.triangles());
            for (std::size_t i = 0; i < small.corners.size(); ++i)
                for (std::size_t k = 0; k < 3; ++k)
                    QVERIFY(std::abs(loaded.mesh.corners[i][k] - small.corners[i][k]) < 1e-2);
        }
        // FIPS 180-4, the example of one block.
        QCOMPARE(solids::sha256("abc"), std::string("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad"));
        QCOMPARE(solids::meshOf(stlOf(small), "a.stl").hash, solids::sha256(stlOf(small)));
        for (const double unit : { 1.0, 1 / 25.4, 1e-3 }) {
            scan::Mesh other = seen.mesh;
            for (auto& corner : other.corners)
                for (float& each : corner)
                    each = static_cast<float>(each * unit);
            const auto guessed = scan::guessedUnit(other);
            QVERIFY(guessed.has_value());
            QVERIFY(std::abs(metresIn(*guessed) * unit - mm) < 1e-9);
        }
    }

    void damagedFilesAreRefusedInOneLine_data()
    {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<QString>("name");
        QTest::addColumn<QString>("why");
        scan::Mesh one;
        one.corners = { { 0, 0, 0 }, { 1, 0, 0 }, { 0, 1, 0 } };
        const auto bytes = [](const std::string& s) { return QByteArray(s.data(), static_cast<int>(s.size())); };
        QTest::newRow("empty") << QByteArray() << "a.stl"
                               << "empty";
        QTest::newRow("zip") << QByteArray("PK\x03\x04 and more") << "a.stl"
                             << "unpack";
        QTest::newRow("text") << QByteArray("Dear Sir,\nplease find the wheel attached.\n") << "a.stl"
                              << "no STL";
        QTest::newRow("cut short") << bytes(stlOf(one)).chopped(20) << "a.stl"
                                   << "cut short";
        QTest::newRow("count") << bytes(std::string(stlOf(one)).replace(80, 4, "\xff\xff\xff\x7f")) << "a.stl"
                               << "cut short";
        QTest::newRow("no triangle") << bytes(stlOf(scan::Mesh {})) << "a.stl"
                                     << "no triangle";
        QTest::newRow("points alone") << QByteArray("v 0 0 0\nv 1 0 0\nv 0 1 0\n") << "a.obj"
                                      << "";
        QTest::newRow("huge ply") << QByteArray(
            "ply\nformat binary_little_endian 1.0\nelement vertex 4000000000\nproperty float x\nend_header\n")
                                  << "a.ply"
                                  << "header";
        QTest::newRow("ply of nothing") << QByteArray("ply\nformat ascii 1.0\nend_header\n") << "a.ply"
                                        << "";
        QTest::newRow("step of nothing") << QByteArray("ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;\n") << "a.step"
                                         << "no solid";
        QTest::newRow("not a number") << bytes(std::string(stlOf(one)).replace(96, 4, std::string("\0\0\xc0\x7f", 4))) << "a.stl"
                                      << "no triangle";
    }
    void damagedFilesAreRefusedInOneLine()
    {
        QFETCH(QByteArray, bytes);
        QFETCH(QString, name);
        QFETCH(QString, why);
        const auto said = QString::fromStdString(refusalOf(bytes.toStdString(), name.toStdString()));
        QVERIFY2(said.startsWith(name), qPrintable(said));
        QVERIFY2(said.contains(why), qPrintable(said));
        QVERIFY(!said.contains('\n'));
    }

    /// Bytes changed at random: refused, or read as some mesh; then found, or said to be no wheel. Never anything else. DEEPSTOP_FUZZ.
    void anyBytesAreReadOrRefused()
    {
        std::mt19937 rng(11);
        scan::Mesh small;
        const Seen& seen = seenWell();
        small.corners.assign(seen.mesh.corners.begin(), seen.mesh.corners.begin() + 180);
        const std::array whole { std::pair { stlOf(small), "a.stl" }, std::pair { ply(small), "a.ply" },
            std::pair { obj(small), "a.obj" } };
        for (int i = count("DEEPSTOP_FUZZ", 3000); i > 0; --i) {
            auto [bytes, name] = whole[static_cast<std::size_t>(i) % whole.size()];
            for (int changes = 1 + static_cast<int>(rng() % 12); changes > 0; --changes) {
                const std::size_t at = rng() % 3 == 0 ? rng() % std::min<std::size_t>(bytes.size(), 300) : rng() % bytes.size();
                switch (rng() % 4) {
                case 0:
                    bytes[at] = static_cast<char>(rng());
                    break;
                case 1:
                    bytes.resize(at + 1);
                    break;
                case 2:
                    bytes.insert(at, bytes.substr(rng() % bytes.size(), rng() % 40));
                    break;
                default:
                    bytes[at] = static_cast<char>(bytes[at] ^ (1 << rng() % 8));
                }
            }
            try {
                const auto loaded = solids::meshOf(bytes, name);
                QVERIFY(loaded.mesh.triangles() > 0);
                for (const auto& corner : loaded.mesh.corners)
                    for (const float each : corner)
                        QVERIFY(std::isfinite(each));
                if (i % 50 == 0)
                    QVERIFY(!scan::scanWheel(loaded.mesh, {}).lacks.empty());
            } catch (const files::Refusal& r) {
                QVERIFY(std::string_view(r.what()).starts_with(name));
            }
        }
    }

    /// Surfaces that are no wheel at all.
    void whatIsNoWheelIsSaidToBeNone()
    {
        std::mt19937 rng(2);
        std::normal_distribution<float> some(0, 100);
        scan::Mesh dust;
        for (int i = 0; i < 30'000; ++i)
            dust.corners.push_back({ some(rng), some(rng), some(rng) });
        QVERIFY(!scan::scanWheel(dust, {}).lacks.empty());
        scan::Mesh box;
        for (int side = 0; side < 6; ++side)
            for (int i = 0; i < 100; ++i)
                for (int k = 0; k < 100; ++k)
                    for (const auto& [a, b] : { std::pair { 0, 0 }, std::pair { 1, 0 }, std::pair { 0, 1 } }) {
                        std::array<float, 3> p {};
                        p[side / 2] = side % 2 ? 250.0f : -250.0f;
                        p[(side / 2 + 1) % 3] = -250.0f + 5.0f * static_cast<float>(i + a);
                        p[(side / 2 + 2) % 3] = -250.0f + 5.0f * static_cast<float>(k + b);
                        box.corners.push_back(p);
                    }
        QVERIFY(!scan::scanWheel(box, {}).lacks.empty());
        QVERIFY(!scan::scanWheel({}, {}).lacks.empty());
    }

    /// Our own bracket, written as STEP and read back.
    void aBracketReadBack()
    {
        bracket::Plate plate;
        plate.title = "Bracket";
        plate.thickness = 14.2 * mm;
        plate.outline = { { -0.08, -0.03 }, { 0.08, -0.03 }, { 0.08, 0.05 }, { -0.08, 0.05 } };
        plate.holes = { { -0.0615, 0.0, 10.5 * mm, true }, { 0.0615, 0.0, 10.5 * mm, true }, { -0.05, 0.031, 12.3 * mm, false },
            { 0.05, 0.031, 12.3 * mm, false } };
        const auto read = solids::readStepText(solids::stepOf(plate), "bracket.step");
        std::size_t found = 0;
        for (const bracket::Hole& hole : plate.holes)
            for (const auto& wall : read.walls)
                if (wall.hole && std::hypot(wall.through[0] - hole.x, wall.through[1] - hole.y) < 0.01 * mm) {
                    QVERIFY(std::abs(2 * wall.radius - hole.diameter) < 0.01 * mm);
                    QVERIFY(std::abs(wall.to - wall.from - plate.thickness) < 0.01 * mm);
                    ++found;
                }
        QCOMPARE(found, plate.holes.size());
    }

    /// Our own hat and ring, written as STEP and read back.
    void aHatAndARingReadBack()
    {
        design::Turned hat;
        hat.title = "Hat";
        hat.density = 2700;
        // Wheel face at z = 0: plate, wall and flange.
        hat.sections = { { { 0, 0.0333 }, { 0, 0.0785 }, { -0.041, 0.0785 }, { -0.041, 0.0985 }, { -0.048, 0.0985 }, { -0.048, 0.0722 },
            { -0.0065, 0.0722 }, { -0.0065, 0.0333 } } };
        hat.holes = { { 5, 12.8 * mm, 112 * mm, -0.0065, 0, "for the wheel studs" },
            { 10, 6.4 * mm, 184 * mm, -0.048, -0.041, "for the ring" } };
        const auto read = solids::rotorIn(solids::readStepText(solids::stepOf(hat), "hat.step"), "hat.step");
        const auto is = [](const Reading& r, double wanted) { return r.value && std::abs(*r.value - wanted) < 0.01 * mm; };
        QVERIFY(is(read.rotor.bore, 66.6 * mm));
        QVERIFY(is(read.rotor.outerDiameter, 197 * mm));
        QVERIFY(is(read.rotor.hatOuterDiameter, 157 * mm));
        QVERIFY(is(read.rotor.pocketDiameter, 144.4 * mm));
        QVERIFY(is(read.rotor.hatThickness, 6.5 * mm));
        QVERIFY(is(read.rotor.boltCircle, 112 * mm));
        QVERIFY(is(read.rotor.boltHoleDiameter, 12.8 * mm));
        QCOMPARE(read.rotor.boltHoles, 5);
        QCOMPARE(read.holes.size(), std::size_t(2));
        QCOMPARE(read.holes[0].count, 10);
        QVERIFY(std::abs(read.volume - design::volumeOf(hat)) < 1e-4 * read.volume);

        design::Turned ring;
        ring.title = "Ring";
        ring.density = 7200;
        ring.sections = { { { -0.010, 0.0925 }, { -0.010, 0.165 }, { 0, 0.165 }, { 0, 0.0925 } },
            { { 0.012, 0.0925 }, { 0.012, 0.165 }, { 0.022, 0.165 }, { 0.022, 0.0925 } } };
        ring.vanes = design::VaneSet { 12, 6 * mm, 0, 0.1, 0.16, 0, 0.012 };
        const auto plain = solids::rotorIn(solids::readStepText(solids::stepOf(ring), "ring.step"), "ring.step");
        QVERIFY(is(plain.rotor.outerDiameter, 330 * mm));
        QVERIFY(is(plain.rotor.thickness, 32 * mm));
        QVERIFY(is(plain.rotor.ringInnerDiameter, 185 * mm));
        QVERIFY(is(plain.rotor.ventGap, 12 * mm));
        QVERIFY(!plain.rotor.overallHeight.value); // no hat is in it
        Rotor measured;
        measured.outerDiameter.value = 0.3299;
        measured.outerDiameter.known = Known::Measured;
        QVERIFY(is(solids::rotorWith(measured, plain).outerDiameter, 329.9 * mm));
    }

    /// A caliper made of plain blocks, its sizes known: body with a slot, two ears with holes, a bleeder on its back.
    void aCaliperIsReadFromItsSolid()
    {
        const auto box = [](double x0, double x1, double y0, double y1, double z0, double z1) {
            return BRepPrimAPI_MakeBox(gp_Pnt(x0, y0, z0), gp_Pnt(x1, y1, z1)).Shape();
        };
        const auto round = [](double x, double y, double z, double r, double length, gp_Dir along) {
            return BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(x, y, z), along), r, length).Shape();
        };
        // Rotor of 330 mm, its edge 40 mm above the line of the holes; x along that line, y outward, z outboard from the lugs' face.
        const double drop = 40;
        const double slot = 52;
        TopoDS_Shape body = box(-90, 90, 0, drop + 28, slot - 60, slot + 48);
        body = BRepAlgoAPI_Cut(body, box(-91, 91, -1, drop + 6, slot - 20, slot + 20)).Shape();
        body = BRepAlgoAPI_Cut(body, box(-100, 100, drop + 20, drop + 40, slot + 40, slot + 60)).Shape(); // a step for a shoulder, outboard
        body = BRepAlgoAPI_Fuse(body, box(-75, 75, -12, 12, 0, 20)).Shape();
        for (const double x : { -65.0, 65.0 })
            body = BRepAlgoAPI_Cut(body, round(x, 0, -40, 6, 80, gp::DZ())).Shape();
        body = BRepAlgoAPI_Fuse(body, round(-50, drop + 27, slot - 40, 5, 13, gp::DY())).Shape();
        gp_Trsf away;
        away.SetTransformation(gp_Quaternion(0.3, -0.2, 0.5, 0.79), gp_Vec(30, -500, 120));
        body = BRepBuilderAPI_Transform(body, away).Shape();
        STEPControl_Writer writer;
        writer.Transfer(body, STEPControl_AsIs);
        QTemporaryDir dir;
        const QString path = dir.filePath("caliper.step");
        QCOMPARE(writer.Write(path.toUtf8().constData()), IFSelect_RetDone);

        const auto holes = solids::mountingHolesIn(solids::readStep(path.toStdString()), "caliper.step");
        QVERIFY(std::abs(holes.diameter - 12 * mm) < 0.01 * mm);
        scan::CaliperQuestion question;
        question.firstHole = holes.first;
        question.secondHole = holes.second;
        question.along = holes.along;
        question.rotorRadius = 165 * mm;
        question.drop = drop * mm;
        question.solid = true;
        const auto found = scan::scanCaliper(solids::loadMesh(path.toStdString()).mesh, question);
        QVERIFY2(found.lacks.empty(), found.lacks.c_str());
        const auto is = [](const Reading& r, double wanted, double within = 0.1) {
            if (r.value && std::abs(*r.value / mm - wanted) < within)
                return true;
            qWarning("%g instead of %g", r.value ? *r.value / mm : NAN, wanted);
            return false;
        };
        const Caliper& c = found.caliper;
        QVERIFY(is(c.mountSpacing, 130));
        QVERIFY(is(c.slotWidth, 40, 1.5)); // samples lie a little inside the faces' edges
        QVERIFY(is(c.backOverEdge, 28));
        QVERIFY(is(c.outboardDepth, 48));
        QVERIFY(is(c.inboardDepth, 60));
        QVERIFY(is(c.backLength, 180, 2.1)); // to a column of 2 mm
        QVERIFY(is(c.bridgeGap, 6, 0.2));
        QVERIFY(is(c.shoulder, 0)); // inboard there is none, and the smaller counts
        QCOMPARE(c.bumps.size(), std::size_t(1));
        QVERIFY(is(c.bumps[0].overEdge, 40));
        QVERIFY(is(c.bumps[0].atDepth, -40, 1.1));
        QVERIFY(*c.bumps[0].width.value > 10 * mm - 1e-9 && *c.bumps[0].width.value < 14.1 * mm);
        QVERIFY(*c.bumps[0].fromMiddle.value > 55 * mm - 1e-9 && *c.bumps[0].fromMiddle.value < 58 * mm);

        // The same surface as a scan proves nothing, and is wider.
        QCOMPARE(c.backOverEdge.known, Known::Vendor);
        question.solid = false;
        const auto asScan = scan::scanCaliper(solids::loadMesh(path.toStdString()).mesh, question);
        QCOMPARE(asScan.caliper.backOverEdge.known, Known::Estimated);
        QVERIFY(*asScan.caliper.backOverEdge.plusMinus > *c.backOverEdge.plusMinus + 0.5 * mm);

        // What was measured by hand stands; a bump read by hand stays, one of an earlier file goes.
        Caliper mine;
        mine.backOverEdge.value = 28.4 * mm;
        mine.backOverEdge.known = Known::Measured;
        mine.bumps.emplace_back();
        const Caliper with = scan::caliperWith(scan::caliperWith(mine, found), found);
        QCOMPARE(with.backOverEdge.value, mine.backOverEdge.value);
        QCOMPARE(with.bumps.size(), std::size_t(2));
    }

    void whatIsNoRotorIsRefused()
    {
        QVERIFY(refusalOf("ISO-10303-21;", "a.step").starts_with("a.step"));
        try {
            (void)solids::rotorIn({}, "nothing.step");
            QFAIL("read");
        } catch (const files::Refusal& r) {
            QVERIFY(std::string_view(r.what()).starts_with("nothing.step"));
        }
    }
};

DEEPSTOP_TEST(ScanOutsideTest)
#include "scan_outside_test.moc"
