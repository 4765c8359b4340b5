/// Designed parts as files for the shop: STEP and STL read back by Open CASCADE, DXF by ezdxf, PDF by poppler.

#include "core/support.hpp"
#include "design/order.hpp"
#include "files/paper_files.hpp"
#include "quantity/parse.hpp"
#include "solids/solid_files.hpp"

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

#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

using namespace deepstop;

namespace {

struct Designed {
    design::Basis basis;
    design::Maker maker;
    design::Proposal proposal;
    static design::Basis basisOf(const char* name, const char* setup)
    {
        design::Basis basis;
        basis.study = std::make_shared<const Study>(study(std::make_shared<const Build>(demo(name)), SetupPair { {}, setup }));
        basis.corner = *basis.study->after.front.corner;
        basis.wheels = { basis.study->after.front.wheel };
        return basis;
    }
    explicit Designed(const char* name = "halden-merle", const char* setup = "varnik-330")
        : basis(basisOf(name, setup)), maker(basis), proposal(maker.start())
    {
    }
    [[nodiscard]] std::vector<design::ShopPart> parts() const { return design::partsToMake(maker, proposal, "2026-11-30"); }
};

QString written(const QTemporaryDir& folder, const char* name, const std::string& text)
{
    QFile file(folder.filePath(name));
    if (file.open(QIODevice::WriteOnly))
        file.write(text.data(), static_cast<qint64>(text.size()));
    return file.fileName();
}

TopoDS_Shape readBack(const QTemporaryDir& folder, const std::string& step)
{
    STEPControl_Reader reader;
    if (reader.ReadFile(written(folder, "part.step", step).toUtf8().constData()) != IFSelect_RetDone)
        return {};
    reader.TransferRoots();
    return reader.OneShape();
}

/// A picture as poppler writes it (PGM, one byte a point).
struct Grey {
    int wide = 0;
    int high = 0;
    QByteArray points;
    explicit Grey(const QString& path)
    {
        QFile file(path);
        if (!file.open(QIODevice::ReadOnly))
            return;
        QByteArray all = file.readAll();
        const QList<QByteArray> head = all.left(40).simplified().split(' ');
        wide = head.value(1).toInt();
        high = head.value(2).toInt();
        points = all.right(static_cast<qsizetype>(wide) * high);
    }
    [[nodiscard]] int at(int x, int y) const
    {
        return x >= 0 && y >= 0 && x < wide && y < high ? static_cast<unsigned char>(points[static_cast<qsizetype>(y) * wide + x]) : 255;
    }
};

} // namespace

class DesignOutsideTest : public QObject {
    Q_OBJECT
private slots:
    /// Open CASCADE reads hat and ring back: they weigh what the program says, and every hole stands on its circle.
    void solidsWeighWhatIsSaid()
    {
        for (const double slot : { -32e-3, -24e-3 }) {
            Designed d;
            d.proposal.slot = slot;
            const auto kit = d.maker.kit(d.proposal);
            for (const design::Turned* part : { &kit.hat, &kit.ring }) {
                QTemporaryDir folder;
                const TopoDS_Shape shape = readBack(folder, solids::stepOf(*part));
                QVERIFY(!shape.IsNull());
                GProp_GProps properties;
                BRepGProp::VolumeProperties(shape, properties);
                QVERIFY2(near(properties.Mass() * 1e-9, volumeOf(*part), 1e-3),
                    qPrintable(
                        QString("%1 %2").arg(QString::fromStdString(part->title)).arg(properties.Mass() * 1e-9 / volumeOf(*part) - 1)));
                QVERIFY2(near(properties.MatrixOfInertia()(1, 1) * 1e-15 * part->density, inertiaOf(*part), 2e-3),
                    qPrintable(QString::number(properties.MatrixOfInertia()(1, 1) * 1e-15 * part->density / inertiaOf(*part))));
                for (const auto& holes : part->holes) {
                    std::set<long> angles;
                    for (TopExp_Explorer faces(shape, TopAbs_FACE); faces.More(); faces.Next()) {
                        const BRepAdaptor_Surface surface(TopoDS::Face(faces.Current()));
                        if (surface.GetType() != GeomAbs_Cylinder)
                            continue;
                        const gp_Cylinder cylinder = surface.Cylinder();
                        const gp_Pnt axis = cylinder.Axis().Location();
                        const double radius = std::hypot(axis.Y(), axis.Z());
                        if (std::abs(cylinder.Radius() * 2 - holes.diameter * 1e3) < 1e-6
                            && std::abs(radius * 2 - holes.circle * 1e3) < 1e-6)
                            angles.insert(std::lround(std::atan2(axis.Z(), axis.Y()) * 1e6));
                    }
                    QCOMPARE(static_cast<int>(angles.size()), holes.count);
                }
            }
        }
    }

    /// ezdxf: dimensions are entities that measure what they say, and the file has nothing that has to be mended.
    void dimensionsAreEntities()
    {
        const Designed d;
        for (const auto& part : d.parts()) {
            QTemporaryDir folder;
            const auto path = written(folder, "part.dxf", files::dxfOf(part.drawing));
            const auto answer = answerOf("/usr/bin/python3",
                { "-c", R"(
import sys, json, math, ezdxf
doc = ezdxf.readfile(sys.argv[1])
audit = doc.audit()
dims = []
for e in doc.modelspace().query("DIMENSION"):
    a, b = e.dxf.defpoint2, e.dxf.defpoint3
    dims.append([math.dist((a.x, a.y), (b.x, b.y)), e.dxf.text, e.dxf.geometry in doc.blocks and len(doc.blocks.get(e.dxf.geometry)) > 3])
print(json.dumps({"dims": dims, "errors": [str(x.message) for x in audit.errors]}))
)",
                    path });
            const auto read = nlohmann::json::parse(answer.toStdString(), nullptr, false);
            QVERIFY(read.is_object());
            QVERIFY2(read["errors"].empty(), read["errors"].dump().c_str());
            QCOMPARE(read["dims"].size(), part.drawing.dimensions.size());
            for (std::size_t i = 0; i < part.drawing.dimensions.size(); ++i) {
                const auto& meant = part.drawing.dimensions[i];
                const double length = std::hypot(meant.to.x - meant.from.x, meant.to.y - meant.from.y);
                QVERIFY(near(read["dims"][i][0].get<double>(), length * 1e3, 1e-6));
                QVERIFY(read["dims"][i][2].get<bool>());
                // What it says is what it measures, to the last figure written.
                QString said = QString::fromStdString(meant.figure);
                said.remove(QChar(0xD8));
                const auto number = parseQuantity(said.trimmed().toStdString(), Dimension::Length, "mm");
                QVERIFY2(number && std::abs(*number.value - length) <= 0.006e-3, meant.figure.c_str());
            }
        }
    }

    /// poppler at 600 dots per inch: the bracket on paper is as large as it is, within a tenth of a millimetre.
    void paperIsToScale()
    {
        const Designed d;
        const auto parts = d.parts();
        const auto bracket = std::ranges::find(parts, "bracket", &design::ShopPart::key);
        QVERIFY(bracket != parts.end());
        const auto pages = paper::pagesOf(bracket->drawing, paper::a4());
        QTemporaryDir folder;
        const auto pdf = written(folder, "b.pdf", files::pdfOf(pages, "bracket"));
        // A hole to the knuckle: where the page has its circle, ink runs all round, and nowhere a tenth inside or outside of it.
        constexpr double dots = 600 / 25.4e-3;
        int found = 0;
        for (std::size_t p = 0; p < pages.size(); ++p)
            for (const paper::Stroke& stroke : pages[p].strokes) {
                if (stroke.pen != paper::Pen::Cut || !stroke.closed || stroke.points.size() < 40)
                    continue;
                double low = 1, high = 0, top = 1, bottom = 0;
                for (const paper::Point point : stroke.points) {
                    low = std::min(low, point.x), high = std::max(high, point.x);
                    top = std::min(top, point.y), bottom = std::max(bottom, point.y);
                }
                const double diameter = high - low;
                const bool hole = std::ranges::any_of(
                    bracket->plate->holes, [&](const bracket::Hole& h) { return std::abs(h.diameter - diameter) < 0.02e-3; });
                if (!hole)
                    continue;
                (void)answerOf("pdftoppm",
                    { "-gray", "-r", "600", "-f", QString::number(p + 1), "-l", QString::number(p + 1), "-singlefile", pdf,
                        folder.filePath("page") });
                const Grey image(folder.filePath("page.pgm"));
                QVERIFY(image.wide > 1000);
                const auto ink = [&](double x, double y) {
                    for (int j = -2; j <= 2; ++j)
                        for (int i = -2; i <= 2; ++i)
                            if (image.at(static_cast<int>(x * dots) + i, static_cast<int>(y * dots) + j) < 140)
                                return true;
                    return false;
                };
                const double x = (low + high) / 2;
                const double y = (top + bottom) / 2;
                for (int k = 0; k < 36; ++k) {
                    // Off the axes' lines, which cross the hole.
                    const double angle = (k + 0.5) * std::numbers::pi / 18;
                    QVERIFY(ink(x + diameter / 2 * std::cos(angle), y + diameter / 2 * std::sin(angle)));
                }
                ++found;
            }
        QCOMPARE(found, static_cast<int>(bracket->plate->holes.size()));
    }

    /// Closed against itself, to be printed in plastic and tried.
    void stlOfTheHatIsOneBody()
    {
        const Designed d;
        const auto text = QByteArray::fromStdString(solids::stlOf(d.maker.kit(d.proposal).hat));
        QVERIFY(text.startsWith("solid ") && text.left(200).contains("fit check only, never drive"));
        QVERIFY(text.count("facet normal") > 500);
    }

    void whatIsMissingIsRefused()
    {
        Designed d;
        d.proposal.slot = std::nan("");
        QVERIFY_EXCEPTION_THROWN((void)solids::stepOf(d.maker.kit(d.proposal).hat), files::Refusal);
        d.proposal = d.maker.start();
        d.proposal.rotor = 12;
        QVERIFY_EXCEPTION_THROWN((void)solids::stepOf(d.maker.kit(d.proposal).ring), files::Refusal);
    }
};

DEEPSTOP_TEST(DesignOutsideTest)
#include "design_outside_test.moc"
