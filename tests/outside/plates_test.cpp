/// Plates as STEP, STL and DXF, read back by Open CASCADE, by counting edges, and by ezdxf.

#include "core/support.hpp"
#include "files/paper_files.hpp"
#include "solids/solid_files.hpp"
#include "hardware/hardware.hpp"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <BRepAdaptor_Surface.hxx>
#include <BRepGProp.hxx>
#include <GProp_GProps.hxx>
#include <STEPControl_Reader.hxx>
#include <TopExp_Explorer.hxx>
#include <TopoDS.hxx>
#include <gp_Cylinder.hxx>

#include <nlohmann/json.hpp>

#include <map>

using namespace deepstop;

namespace {

bracket::Plate adapterPlate()
{
    const auto s = study(demo());
    const auto made = bracketOf(s, Axle::Front);
    if (!made.adapter)
        qFatal("%s", made.lacks.c_str());
    return drawingOfBracket(s, Axle::Front, *made.adapter, "2026-11-25").plate;
}

/// The same for a caliper on studs along the radius.
bracket::Plate radialPlate()
{
    auto build = demo();
    build.setups[1].front->mount.kind = MountKind::Radial;
    build.setups[1].front->bracket.thickness = {};
    build.setups[1].front->bracket.caliperHole.value = 8.5e-3;
    const auto s = study(build);
    const auto made = bracketOf(s, Axle::Front);
    if (!made.adapter)
        qFatal("%s", made.lacks.c_str());
    return drawingOfBracket(s, Axle::Front, *made.adapter, "2026-11-26").plate;
}

bracket::Plate ring() { return bracket::ringPlate(0.012, 0.138, 0.0665, 0.112, 5, 0.013, "steel"); }

QString written(const QTemporaryDir& folder, const char* name, const std::string& text)
{
    QFile file(folder.filePath(name));
    if (file.open(QIODevice::WriteOnly))
        file.write(text.data(), static_cast<qint64>(text.size()));
    return file.fileName();
}

} // namespace

class PlatesTest : public QObject {
    Q_OBJECT
private slots:
    /// Outside: Open CASCADE's reader; volume and every hole's place and size within 1e-6 of what was asked for.
    void theStepIsReadBack_data()
    {
        QTest::addColumn<int>("which");
        QTest::newRow("adapter") << 0;
        QTest::newRow("ring") << 1;
        QTest::newRow("shim") << 2;
        QTest::newRow("radial") << 3;
    }
    void theStepIsReadBack()
    {
        QFETCH(int, which);
        const auto plate = which == 0 ? adapterPlate()
            : which == 1              ? ring()
            : which == 3              ? radialPlate()
                                      : bracket::shimPlate(0.75e-3, 0.024, 0.0125, "steel");
        QTemporaryDir folder;
        const auto text = solids::stepOf(plate);
        // STEP breaks long strings over lines.
        auto unbroken = text;
        std::erase(unbroken, '\n');
        QVERIFY(unbroken.find("to be judged by a qualified engineer") != std::string::npos);
        QVERIFY(unbroken.find(plate.material) != std::string::npos);
        const auto path = written(folder, "p.step", text);
        STEPControl_Reader reader;
        QCOMPARE(reader.ReadFile(path.toUtf8().constData()), IFSelect_RetDone);
        reader.TransferRoots();
        const TopoDS_Shape shape = reader.OneShape();
        GProp_GProps properties;
        BRepGProp::VolumeProperties(shape, properties);
        QVERIFY2(near(properties.Mass() * 1e-9, bracket::volumeOf(plate), 1e-6), qPrintable(QString::number(properties.Mass())));
        // Each hole is one cylinder of the right size in the right place.
        std::map<int, int> found;
        std::size_t bores = 0;
        for (TopExp_Explorer faces(shape, TopAbs_FACE); faces.More(); faces.Next()) {
            const BRepAdaptor_Surface surface(TopoDS::Face(faces.Current()));
            if (surface.GetType() != GeomAbs_Cylinder)
                continue;
            const gp_Cylinder cylinder = surface.Cylinder();
            const gp_Pnt axis = cylinder.Axis().Location();
            for (const auto& bore : plate.bores)
                bores += std::abs(std::abs(cylinder.Axis().Direction().Y()) - 1) < 1e-9 && std::abs(axis.X() - bore.x * 1e3) < 1e-4
                    && std::abs(axis.Z() - plate.thickness * 500) < 1e-4 && std::abs(cylinder.Radius() * 2 - bore.diameter * 1e3) < 1e-4;
            for (std::size_t i = 0; i < plate.holes.size(); ++i) {
                const auto& hole = plate.holes[i];
                if (std::hypot(axis.X() - hole.x * 1e3, axis.Y() - hole.y * 1e3) < 1e-6 * 100
                    && std::abs(cylinder.Radius() * 2 - hole.diameter * 1e3) < 1e-6 * hole.diameter * 1e3)
                    ++found[static_cast<int>(i)];
            }
        }
        QCOMPARE(found.size(), plate.holes.size());
        QCOMPARE(bores, plate.bores.size());
    }

    /// Watertight: every edge of the triangles is shared by exactly two, once in either direction; the volume is the plate's.
    void theStlIsWatertight()
    {
        for (const auto& plate : { adapterPlate(), ring(), radialPlate() }) {
            const auto text = QByteArray::fromStdString(solids::stlOf(plate));
            QVERIFY(text.startsWith("solid ") && text.left(200).contains("fit check only, never drive"));
            using Corner = std::tuple<long, long, long>;
            std::map<std::pair<Corner, Corner>, int> edges;
            std::vector<Corner> triangle;
            double six = 0;
            int triangles = 0;
            for (const QByteArray& line : text.split('\n')) {
                const auto words = line.simplified().split(' ');
                if (words.size() != 4 || words[0] != "vertex")
                    continue;
                const auto at = [&](int i) { return std::lround(words[i].toDouble() * 1e5); };
                triangle.emplace_back(at(1), at(2), at(3));
                if (triangle.size() < 3)
                    continue;
                for (int i = 0; i < 3; ++i)
                    ++edges[{ triangle[static_cast<std::size_t>(i)], triangle[static_cast<std::size_t>((i + 1) % 3)] }];
                const auto [ax, ay, az] = triangle[0];
                const auto [bx, by, bz] = triangle[1];
                const auto [cx, cy, cz] = triangle[2];
                const auto d = [](long v) { return static_cast<double>(v) * 1e-8; };
                six += d(ax) * (d(by) * d(cz) - d(bz) * d(cy)) - d(ay) * (d(bx) * d(cz) - d(bz) * d(cx))
                    + d(az) * (d(bx) * d(cy) - d(by) * d(cx));
                triangle.clear();
                ++triangles;
            }
            QVERIFY(triangles > 100);
            for (const auto& [edge, count] : edges) {
                QCOMPARE(count, 1);
                QVERIFY(edges.contains({ edge.second, edge.first }));
            }
            QVERIFY2(near(six / 6, bracket::volumeOf(plate), 0.005), qPrintable(QString::number(six / 6 / bracket::volumeOf(plate))));
        }
    }

    /// Outside: ezdxf; the cut lines' enclosed holes stand where they should.
    void theDxfHasItsHoles()
    {
        const auto s = study(demo());
        const auto made = drawingOfBracket(s, Axle::Front, *bracketOf(s, Axle::Front).adapter, "2026-11-25");
        QTemporaryDir folder;
        const auto path = written(folder, "b.dxf", files::dxfOf(made.drawing));
        const auto answer = answerOf("/usr/bin/python3",
            { "-c", R"(
import sys, json, ezdxf
doc = ezdxf.readfile(sys.argv[1])
out = []
for e in doc.modelspace():
    if e.dxftype() == "LWPOLYLINE" and e.dxf.layer == "CUT":
        p = e.get_points("xy")
        out.append([sum(q[0] for q in p) / len(p), sum(q[1] for q in p) / len(p), max(q[0] for q in p) - min(q[0] for q in p)])
text = " ".join(e.dxf.text for e in doc.modelspace() if e.dxftype() == "TEXT")
print(json.dumps({"cuts": out, "text": text}))
)",
                path });
        const auto read = nlohmann::json::parse(answer.toStdString(), nullptr, false);
        QVERIFY(read.is_object());
        QCOMPARE(read["cuts"].size(), made.plate.holes.size() + 1);
        for (const bracket::Hole& hole : made.plate.holes) {
            bool there = false;
            for (const auto& cut : read["cuts"])
                there = there
                    || (std::abs(cut[0].get<double>() - hole.x * 1e3) < 1e-3 && std::abs(cut[1].get<double>() - hole.y * 1e3) < 1e-3
                        && std::abs(cut[2].get<double>() - hole.diameter * 1e3) < 0.02);
            QVERIFY(there);
        }
        for (const char* part : { "Adapter bracket", "steel S355", "qualified engineer", "Halden Merle" })
            QVERIFY2(read["text"].get<std::string>().find(part) != std::string::npos, part);
    }

    void whatCannotBeMadeIsRefused()
    {
        auto plate = adapterPlate();
        plate.thickness = 0;
        QVERIFY_EXCEPTION_THROWN((void)solids::stepOf(plate), files::Refusal);
        plate = adapterPlate();
        plate.holes.push_back({ 0.5, 0.5, 0.01, true }); // outside the plate
        QVERIFY_EXCEPTION_THROWN((void)solids::stlOf(plate), files::Refusal);
    }
};

DEEPSTOP_TEST(PlatesTest)
#include "plates_test.moc"
