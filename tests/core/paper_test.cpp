/// Templates on paper: real size, tiled, corrected; read back by poppler and ezdxf.

#include "chapters/clearance/clearance.hpp"
#include "core/support.hpp"
#include "files/paper_files.hpp"
#include "report/template.hpp"

#include <QFile>
#include <QImage>
#include <QImageReader>
#include <QTemporaryDir>
#include <QTest>

#include <nlohmann/json.hpp>

#include <set>

using namespace deepstop;
using paper::Pen;
using paper::Point;

namespace {

paper::Drawing caliper(const char* setup = "varnik-330")
{
    const auto made = report::caliperTemplate(study(demo(), { {}, setup }), Axle::Front, "2026-11-25");
    if (!made.drawing)
        qFatal("%s", made.lacks.c_str());
    return *made.drawing;
}

/// A page of a PDF as poppler draws it, grey, at so many dots per inch.
QImage rasterised(const std::string& pdf, int page, int dpi)
{
    QTemporaryDir folder;
    QFile file(folder.filePath("t.pdf"));
    if (!file.open(QIODevice::WriteOnly))
        return {};
    file.write(pdf.data(), static_cast<qint64>(pdf.size()));
    file.close();
    const auto number = QString::number(page);
    (void)answerOf("pdftoppm",
        { "-gray", "-png", "-r", QString::number(dpi), "-f", number, "-l", number, "-singlefile", file.fileName(),
            folder.filePath("page") });
    QImage image(folder.filePath("page.png"));
    return image.convertToFormat(QImage::Format_Grayscale8);
}

bool dark(const QImage& image, double x, double y, double reach)
{
    for (int j = static_cast<int>(std::floor(y - reach)); j <= static_cast<int>(std::ceil(y + reach)); ++j)
        for (int i = static_cast<int>(std::floor(x - reach)); i <= static_cast<int>(std::ceil(x + reach)); ++i)
            if (image.valid(i, j) && qGray(image.pixel(i, j)) < 128 && std::hypot(i + 0.5 - x, j + 0.5 - y) <= reach + 0.7)
                return true;
    return false;
}

/// First and last dark pixel of a row or column between two others, as positions in pixels.
std::pair<double, double> inkAlong(const QImage& image, bool row, int at, int from, int to)
{
    int first = -1;
    int last = -1;
    for (int i = from; i < to; ++i)
        if (qGray(row ? image.pixel(i, at) : image.pixel(at, i)) < 128) {
            first = first < 0 ? i : first;
            last = i;
        }
    return { first, last + 1.0 };
}

double length(const paper::Stroke& s) { return std::hypot(s.points.back().x - s.points.front().x, s.points.back().y - s.points.front().y); }

/// The two bars of a page: strokes of two points that lie level or plumb and are `metres` long.
std::vector<paper::Stroke> barsOf(const paper::Page& page, double across, double down)
{
    std::vector<paper::Stroke> bars;
    for (const paper::Stroke& s : page.strokes)
        if (s.pen == Pen::Thin && s.points.size() == 2
            && ((s.points[0].y == s.points[1].y && near(length(s), across, 1e-9))
                || (s.points[0].x == s.points[1].x && near(length(s), down, 1e-9))))
            bars.push_back(s);
    return bars;
}

} // namespace

class PaperTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { QImageReader::setAllocationLimit(1024); }

    /// Outside: poppler rasterises the PDF at 600 dpi. Every point of the cut lies on ink within 0.1 mm, and the bars are 100 mm within
    /// 0.1.
    void thePdfIsTrueToSize_data()
    {
        QTest::addColumn<QString>("setup");
        QTest::addColumn<bool>("letter");
        for (const char* setup : { "varnik-330", "varnik-355" })
            for (const bool letter : { false, true })
                QTest::addRow("%s %s", setup, letter ? "Letter" : "A4") << setup << letter;
    }
    void thePdfIsTrueToSize()
    {
        QFETCH(QString, setup);
        QFETCH(bool, letter);
        const auto size = letter ? paper::letter() : paper::a4();
        const auto pages = paper::pagesOf(caliper(setup.toUtf8()), size);
        QCOMPARE(pages.size(), std::size_t(1));
        const auto image = rasterised(files::pdfOf(pages, "template"), 1, 600);
        const double scale = 600 / 0.0254;
        QVERIFY(std::abs(image.width() - pages[0].width * scale) < 2 && std::abs(image.height() - pages[0].height * scale) < 2);
        int looked = 0;
        int blank = 0;
        for (const paper::Stroke& stroke : pages[0].strokes) {
            if (stroke.pen != Pen::Cut)
                continue;
            auto points = stroke.points;
            if (stroke.closed)
                points.push_back(points.front());
            for (std::size_t i = 0; i + 1 < points.size(); ++i) {
                const double along = std::hypot(points[i + 1].x - points[i].x, points[i + 1].y - points[i].y);
                for (double t = 0; t < along; t += 0.5e-3) {
                    const Point p { points[i].x + (points[i + 1].x - points[i].x) * t / along,
                        points[i].y + (points[i + 1].y - points[i].y) * t / along };
                    QVERIFY2(dark(image, p.x * scale, p.y * scale, 0.1e-3 * scale),
                        qPrintable(QString("no ink at %1, %2 mm").arg(p.x * 1e3).arg(p.y * 1e3)));
                    ++looked;
                    // Beside a line there is none: it is where it is, not everywhere.
                    const Point beside { p.x + (points[i + 1].y - points[i].y) / along * 0.6e-3,
                        p.y - (points[i + 1].x - points[i].x) / along * 0.6e-3 };
                    blank += !dark(image, beside.x * scale, beside.y * scale, 0.1e-3 * scale);
                }
            }
        }
        QVERIFY(looked > 800);
        QVERIFY2(blank > looked * 8 / 10, qPrintable(QString::number(blank)));
        const auto bars = barsOf(pages[0], 0.1, 0.1);
        QCOMPARE(bars.size(), std::size_t(2));
        for (const paper::Stroke& bar : bars) {
            const bool level = bar.points[0].y == bar.points[1].y;
            // Through the ticks, half a millimetre off the bar: from the outer edge of the first to that of the last.
            const int at = static_cast<int>((level ? bar.points[0].y - 0.5e-3 : bar.points[0].x + 0.5e-3) * scale);
            const auto start = (level ? std::min(bar.points[0].x, bar.points[1].x) : std::min(bar.points[0].y, bar.points[1].y)) * scale;
            const auto [first, last] =
                inkAlong(image, level, at, static_cast<int>(start - 1e-3 * scale), static_cast<int>(start + 0.101 * scale));
            const double measured = (last - first) / scale - paper::widthOf(Pen::Thin);
            QVERIFY2(std::abs(measured - 0.1) < 0.1e-3, qPrintable(QString::number(measured * 1e3)));
        }
    }

    /// What a vernier finds on the template is what the build says: highest place and width.
    void theTemplateHoldsTheBuildsMeasures()
    {
        const auto s = study(demo());
        const auto d = caliper();
        double top = 0, in = 1, out = -1;
        for (const paper::Stroke& stroke : d.strokes)
            if (stroke.pen == Pen::Cut)
                for (const Point p : stroke.points) {
                    top = std::max(top, p.y);
                    in = std::min(in, p.x);
                    out = std::max(out, p.x);
                }
        // By hand: √((165 + 18.6)² + 46²) = 189.27 mm; 51 + 57 wide; the wheel's face is 8 mm out, the slot's middle 24.45 in.
        QVERIFY(near(top, std::hypot(0.1836, 0.046), 1e-9));
        QVERIFY(near(in, -0.02445 - 0.057 - 0.008, 1e-9) && near(out, -0.02445 + 0.051 - 0.008, 1e-9));
        const auto notes = d.notes[0] + d.notes[1];
        for (const char* part : { "Halden Merle", "Varnik 330", "2026-11-25", "189.3 mm" })
            QVERIFY2(notes.find(part) != std::string::npos, (notes + " lacks " + part).c_str());
    }

    void whatLacksIsNamed()
    {
        auto build = demo();
        build.setups[1].front->caliper.shoulder = {};
        const auto made = report::caliperTemplate(study(build), Axle::Front, {});
        QVERIFY(!made.drawing);
        QVERIFY2(made.lacks.find("caliper's shoulder chamfer") != std::string::npos, made.lacks.c_str());
        QVERIFY_EXCEPTION_THROWN((void)files::pdfOf({}, "nothing"), files::Refusal);
        QVERIFY_EXCEPTION_THROWN((void)files::svgOf({}), files::Refusal);
        QVERIFY_EXCEPTION_THROWN((void)files::dxfOf({}), files::Refusal);
    }

    /// Outside: ezdxf reads the DXF; its outline is that of the drawing within 0.001 mm, and its auditor finds nothing.
    void theDxfIsReadBack()
    {
        QTemporaryDir folder;
        const auto path = folder.filePath("t.dxf");
        const auto d = caliper();
        files::writePaper(path.toStdString(), d, paper::a4());
        const auto answer = answerOf("/usr/bin/python3",
            { "-c", R"(
import sys, json, ezdxf
doc = ezdxf.readfile(sys.argv[1])
auditor = doc.audit()
out = {"errors": len(auditor.errors), "units": doc.units, "cut": [], "texts": []}
for e in doc.modelspace():
    if e.dxftype() == "LWPOLYLINE" and e.dxf.layer == "CUT":
        out["cut"].append({"closed": bool(e.closed), "points": [list(p) for p in e.get_points("xy")]})
    if e.dxftype() == "TEXT":
        out["texts"].append(ezdxf.tools.text.plain_text(e.dxf.text))
print(json.dumps(out))
)",
                path });
        const auto read = nlohmann::json::parse(answer.toStdString(), nullptr, false);
        QVERIFY(read.is_object());
        QCOMPARE(read["errors"].get<int>(), 0);
        QCOMPARE(read["units"].get<int>(), 4); // millimetres
        std::vector<paper::Stroke> cuts;
        for (const paper::Stroke& s : d.strokes)
            if (s.pen == Pen::Cut)
                cuts.push_back(s);
        QCOMPARE(read["cut"].size(), cuts.size());
        for (std::size_t i = 0; i < cuts.size(); ++i) {
            QCOMPARE(read["cut"][i]["closed"].get<bool>(), cuts[i].closed);
            QCOMPARE(read["cut"][i]["points"].size(), cuts[i].points.size());
            for (std::size_t k = 0; k < cuts[i].points.size(); ++k) {
                QVERIFY(std::abs(read["cut"][i]["points"][k][0].get<double>() - cuts[i].points[k].x * 1e3) < 1e-3);
                QVERIFY(std::abs(read["cut"][i]["points"][k][1].get<double>() - cuts[i].points[k].y * 1e3) < 1e-3);
            }
        }
        QVERIFY(answer.contains("Varnik 330 ") && answer.contains("1:1"));
    }

    /// Every pen that is dashed is dashed in the file, the shortest gaps too.
    void dashedPensAreDashedInTheFile()
    {
        for (const paper::Pen pen : { paper::Pen::Hidden, paper::Pen::Axis, paper::Pen::Outline }) {
            paper::Drawing d;
            d.title = "line";
            d.line(pen, { { 0, 0 }, { 0.1, 0.02 } });
            QCOMPARE(files::svgOf(d).find("stroke-dasharray") != std::string::npos, !paper::dashesOf(pen).empty());
        }
    }

    void theSvgSaysItsSizeInRealLengths()
    {
        const auto d = caliper();
        const auto svg = files::svgOf(d);
        const auto answer = answerOf("/usr/bin/python3", { "-c", R"(
import sys, re, xml.etree.ElementTree as E
root = E.fromstring(sys.stdin.buffer.read())
num = lambda s: float(re.match(r"[0-9.]+", s).group())
assert root.get("width").endswith("pt"), root.get("width")
box = [float(v) for v in root.get("viewBox").split()]
print(num(root.get("width")) * 25.4 / 72, num(root.get("height")) * 25.4 / 72, box[2] / num(root.get("width")))
)" },
            QByteArray::fromStdString(svg));
        const auto numbers = answer.simplified().split(' ');
        QCOMPARE(numbers.size(), 3);
        const auto extent = paper::extentOf(d);
        QVERIFY(std::abs(numbers[0].toDouble() - (extent.width() * 1e3 + 24)) < 0.01);
        QVERIFY(std::abs(numbers[1].toDouble() - (extent.height() * 1e3 + 36)) < 0.01);
        QVERIFY(near(numbers[2].toDouble(), 1, 1e-6));
    }

    /// A drawing larger than the paper: every point is on some sheet, neighbours share a strip and the marks in it.
    void tilesOverlapAndJoin()
    {
        paper::Drawing d;
        d.title = "large";
        d.strokes.push_back(paper::circle(Pen::Cut, { 0.3, 0.3 }, 0.28));
        d.line(Pen::Axis, { { 0, 0.3 }, { 0.6, 0.3 } });
        const auto pages = paper::pagesOf(d, paper::a4());
        QVERIFY(pages.size() >= 6);
        // Where a sheet's cut points lie on the drawing, by the circle's known radius: fit the sheet's origin from its own marks.
        const auto bytes = files::pdfOf(pages, "large");
        const auto info = answerOf("pdfinfo", { "-" }, QByteArray::fromStdString(bytes));
        QVERIFY(info.contains("Pages:           " + QByteArray::number(qulonglong(pages.size()))));
        // Layout as documented: columns by rows, a step of room less the shared strip.
        const double width = pages[0].width, height = pages[0].height;
        const double roomX = width - 2 * paper::margin - 9e-3, roomY = height - 2 * paper::margin - 30e-3;
        std::set<std::pair<long, long>> marks;
        std::set<std::pair<long, long>> twice;
        double total = 0;
        const int columns = static_cast<int>(std::ceil((0.564 - roomX) / (roomX - paper::overlap))) + 1;
        for (std::size_t i = 0; i < pages.size(); ++i) {
            const Point shift { static_cast<double>(static_cast<int>(i) % columns) * (roomX - paper::overlap),
                static_cast<double>(static_cast<int>(i) / columns) * (roomY - paper::overlap) };
            std::set<std::pair<long, long>> own;
            for (const paper::Stroke& s : pages[i].strokes) {
                if (s.pen == Pen::Cut)
                    for (std::size_t k = 0; k + 1 < s.points.size(); ++k) {
                        total += std::hypot(s.points[k + 1].x - s.points[k].x, s.points[k + 1].y - s.points[k].y);
                        // Laid edge on edge, every piece lies on the one circle.
                        const Point p { s.points[k].x + shift.x - (paper::margin + 9e-3) - 2e-3,
                            s.points[k].y + shift.y - paper::margin - 2e-3 };
                        QVERIFY(std::abs(std::hypot(p.x - 0.3, p.y - (0.58 - 0.3)) - 0.28) < 1e-5
                            || std::abs(std::hypot(p.x - 0.3, p.y - 0.28) - 0.28) < 1e-5);
                    }
                if (s.pen == Pen::Thin && s.points.size() == 2 && near(length(s), 6e-3, 1e-6) && s.points[0].y == s.points[1].y)
                    own.insert({ std::lround(((s.points[0].x + s.points[1].x) / 2 + shift.x) * 1e6),
                        std::lround((s.points[0].y + shift.y) * 1e6) });
            }
            for (const auto& mark : own) {
                if (marks.contains(mark))
                    twice.insert(mark);
                marks.insert(mark);
            }
        }
        QVERIFY(!marks.empty());
        QCOMPARE(twice.size(), marks.size()); // each mark is on both neighbours
        QVERIFY2(total > 2 * 3.14159 * 0.28, "nothing of the circle is missing, and the shared strips hold it twice");
        paper::Drawing endless = d;
        endless.line(Pen::Cut, { { 0, 0 }, { 30, 30 } });
        QVERIFY(paper::pagesOf(endless, paper::a4()).empty());
    }

    /// A printer that makes 98.7 mm of 100 across and 100.4 down is fed the inverse, bars included.
    void aPrintersErrorIsTakenOut()
    {
        const paper::BarsRead read { 0.0987, 0.1004 };
        const auto d = caliper();
        const auto plain = paper::pagesOf(d, paper::a4())[0];
        const auto mended = paper::pagesOf(d, paper::a4(), read)[0];
        QCOMPARE(barsOf(mended, 0.1 * 0.1 / 0.0987, 0.1 * 0.1 / 0.1004).size(), std::size_t(2));
        for (std::size_t i = 0; i < plain.strokes.size(); ++i) {
            if (plain.strokes[i].pen != Pen::Cut)
                continue;
            for (std::size_t k = 1; k < plain.strokes[i].points.size(); ++k) {
                // As the printer errs, the mended sheet comes out true.
                const double dx = (mended.strokes[i].points[k].x - mended.strokes[i].points[0].x) * 0.987;
                const double dy = (mended.strokes[i].points[k].y - mended.strokes[i].points[0].y) * 1.004;
                QVERIFY(std::abs(dx - (plain.strokes[i].points[k].x - plain.strokes[i].points[0].x)) < 1e-9);
                QVERIFY(std::abs(dy - (plain.strokes[i].points[k].y - plain.strokes[i].points[0].y)) < 1e-9);
            }
        }
        QVERIFY(paper::pagesOf(d, paper::a4(), { 0.05, 0.1 }).empty());
        QVERIFY(paper::pagesOf(d, paper::a4(), { 0.1, NAN }).empty());
    }

    void theShieldsCutIsDrawnAndMarkedIrreversible()
    {
        const auto made = report::shieldDrawing(study(demo()), Axle::Front, "2026-11-25");
        QVERIFY2(made.drawing.has_value(), made.lacks.c_str());
        const auto s = study(demo());
        double least = 1, most = 0;
        for (const paper::Stroke& stroke : made.drawing->strokes)
            if (stroke.pen == Pen::Cut)
                for (const Point p : stroke.points) {
                    least = std::min(least, std::hypot(p.x, p.y));
                    most = std::max(most, std::hypot(p.x, p.y));
                }
        QVERIFY(s.of<Clearance>().after.front.left.shieldCut && s.of<Clearance>().after.front.left.shieldCut->radius
            && s.of<Clearance>().after.front.left.shieldCut->windowRadius);
        QVERIFY(near(most, *s.of<Clearance>().after.front.left.shieldCut->radius, 1e-6));
        QVERIFY(least >= *s.of<Clearance>().after.front.left.shieldCut->windowRadius - 1e-9
            && least < *s.of<Clearance>().after.front.left.shieldCut->windowRadius + 0.02);
        QVERIFY(made.drawing->notes.back().find("CANNOT BE UNDONE") != std::string::npos);
        auto build = demo();
        build.frontHub.shieldDepth = {};
        QVERIFY(report::shieldDrawing(study(build), Axle::Front, {}).lacks.find("dust shield's plate") != std::string::npos);
    }

    /// A caution that runs off the sheet or under the bar is none.
    void titleBlocksLieOnTheirSheetAndClearOfTheBar()
    {
        for (const auto& made : { report::shieldDrawing(study(demo()), Axle::Front, "2026-11-25"),
                 report::caliperTemplate(study(demo()), Axle::Front, "2026-11-25") }) {
            QVERIFY(made.drawing.has_value());
            for (const auto& size : { paper::a4(), paper::letter() })
                for (const paper::Page& page : paper::pagesOf(*made.drawing, size)) {
                    const auto bar = std::ranges::find(page.letters, "100 mm both ways; measure first", &paper::Lettering::text);
                    QVERIFY(bar != page.letters.end());
                    for (const auto& note : made.drawing->notes) {
                        const auto l = std::ranges::find(page.letters, note, &paper::Lettering::text);
                        QVERIFY(l != page.letters.end());
                        QVERIFY2(l->at.x + files::widthOfLetters(note, l->height) < page.width - paper::margin, note.c_str());
                        QVERIFY2(l->at.y < bar->at.y - bar->height - 1e-3, note.c_str());
                    }
                }
        }
    }

    void pathsOfOtherKindsAreRefused()
    {
        QVERIFY_EXCEPTION_THROWN(files::writePaper("/tmp/x.png", caliper(), paper::a4()), files::Refusal);
        QVERIFY_EXCEPTION_THROWN(files::writePaper("/nowhere/at/all/x.pdf", caliper(), paper::a4()), files::Refusal);
    }
};

DEEPSTOP_TEST(PaperTest)
#include "paper_test.moc"
