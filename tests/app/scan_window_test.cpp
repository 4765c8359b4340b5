/// A wheel from a scan, by mouse and keys: opened, held against what was measured, put in, judged, templated and printed.

#include "app/shown.hpp"
#include "core/plain_wheel.hpp"
#include "print/template_window.hpp"
#include "stages/wheel/scan_window.hpp"

#include <QCheckBox>
#include <QDir>
#include <QPrinter>
#include <QPushButton>

namespace {

struct AtScan : Shown {
    QTemporaryDir dir;
    WheelPage* page;
    ScanWindow* scan = nullptr;
    /// @param path of a build of one's own; empty: the demo, which has no place on disk yet
    explicit AtScan(const QString& path = {}) : page(window.page<WheelPage>())
    {
        if (!path.isEmpty())
            window.openFile(path);
        window.resize(1280, 800);
        window.setStage(WheelPage::id);
        page->setPlace(WheelPage::Wheel);
        everythingShown();
        QTest::mouseClick(page->scanButton(), Qt::LeftButton);
        scan = page->scanWindow();
    }
    QString file(const std::string& bytes, const QString& name = QStringLiteral("wheel.stl"))
    {
        const QString path = dir.filePath(name);
        QFile out(path);
        if (!out.open(QIODevice::WriteOnly) || out.write(bytes.data(), static_cast<qint64>(bytes.size())) < 0)
            qFatal("no scan");
        return path;
    }
    /// What is shown, for who wants to look at it. DEEPSTOP_PICTURE: where to.
    void picture(const char* name)
    {
        if (const char* folder = std::getenv("DEEPSTOP_PICTURE"))
            scan->grab().save(QStringLiteral("%1/%2.png").arg(folder, name));
    }
    void open(const QString& path)
    {
        scan->open(path);
        scan->finish(); // read
        scan->finish(); // and found
        everythingShown();
    }
    void type(const QString& length)
    {
        QTest::mouseClick(scan->knownLength(), Qt::LeftButton);
        scan->knownLength()->selectAll();
        QTest::keyClick(scan->knownLength(), Qt::Key_Delete);
        QTest::keyClicks(scan->knownLength(), length);
        QTest::keyClick(scan->knownLength(), Qt::Key_Tab);
        scan->finish();
        everythingShown();
    }
    const Wheel& wheel() { return *findWheel(window.document().build(), std::string(window.document().build().setups[1].front->wheel)); }
};

} // namespace

class ScanWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void aScannedWheelIsPutInJudgedTemplatedAndPrinted()
    {
        AtScan s;
        QVERIFY(s.scan && s.scan->isVisible());
        QVERIFY(!s.scan->putInButton()->isEnabled());
        QVERIFY(!s.scan->keep()->isEnabled()); // beside a build that is nowhere yet nothing can be copied
        QVERIFY(s.scan->said().contains("mounting face"));
        const PlainWheel plain;
        s.open(s.file(stlOf(plain.mesh())));
        QVERIFY(s.scan->found());
        QVERIFY2(s.scan->found()->lacks.empty(), s.scan->found()->lacks.c_str());
        QCOMPARE(s.scan->units()->currentText(), QStringLiteral("mm"));
        s.type("66.6 mm");
        QVERIFY2(s.scan->said().contains("agree"), qPrintable(s.scan->said()));
        QVERIFY(s.scan->found()->trusted());
        s.picture("scan");
        s.scan->mesh()->setCut(true);
        s.picture("scan-cut");
        s.scan->mesh()->setCut(false);
        const Build before = s.window.document().build();
        QVERIFY(s.scan->putInButton()->isEnabled());
        QTest::mouseClick(s.scan->putInButton(), Qt::LeftButton);
        s.scan->finish();
        everythingShown();
        QVERIFY(!s.scan->isVisible());
        const Wheel& wheel = s.wheel();
        QVERIFY(wheel.barrel.size() >= 3);
        for (const BarrelStation& station : wheel.barrel) {
            QCOMPARE(station.insideRadius.known, Known::Measured);
            QCOMPARE(station.insideRadius.instrument, std::string("scan"));
            QVERIFY(
                *station.insideRadius.value - *station.insideRadius.plusMinus < plain.insideAt(*station.depth.value * 1e3) * 1e-3 + 1e-5);
        }
        QVERIFY(wheel.scan.ends_with("wheel.stl"));
        QCOMPARE(wheel.scanHash.size(), std::size_t(64));

        // Judged by its own stations: a figure, and it rests on them.
        const Verdict* gap = s.known().verdict("front/barrel-gap");
        QVERIFY(gap && gap->figure.value);
        QVERIFY(std::ranges::any_of(gap->figure.restsOn, [&](ReadingId id) {
            return std::ranges::any_of(s.wheel().barrel, [&](const BarrelStation& b) { return ReadingId(b.insideRadius) == id; });
        }));

        auto* w = s.window.showTemplate();
        QVERIFY2(w->trouble().isEmpty(), qPrintable(w->trouble()));
        QPrinter printer;
        printer.setOutputFormat(QPrinter::PdfFormat);
        printer.setOutputFileName(s.dir.filePath("template.pdf"));
        w->print(printer);
        QVERIFY(QFileInfo(s.dir.filePath("template.pdf")).size() > 1000);
        w->close();

        s.window.activateWindow();
        s.page->view()->setFocus();
        everythingShown();
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(s.window.document().undoStack().index(), 0);
        QVERIFY(s.window.document().build() == before);
    }

    void aScanThatContradictsIsNotPutInUntilCorrected()
    {
        AtScan s;
        s.open(s.file(stlOf(PlainWheel {}.mesh(1.01))));
        s.type("66.6 mm");
        QVERIFY2(s.scan->said().contains("Either is wrong"), qPrintable(s.scan->said()));
        QVERIFY(!s.scan->putInButton()->isEnabled());
        s.picture("scan-wrong");
        QTest::mouseClick(s.scan->correct(), Qt::LeftButton, {}, QPoint(8, s.scan->correct()->height() / 2));
        s.scan->finish();
        everythingShown();
        QVERIFY2(s.scan->said().contains("corrected"), qPrintable(s.scan->said()));
        QVERIFY(s.scan->putInButton()->isEnabled());
        QVERIFY(std::abs(s.scan->found()->boltCircle->value - 0.112) < 0.3e-3);
    }

    void whatCannotBeReadIsSaid()
    {
        AtScan s;
        s.open(s.file("PK\x03\x04 a zip", "wheel.stl"));
        QVERIFY2(s.scan->said().contains("unpack"), qPrintable(s.scan->said()));
        QVERIFY(!s.scan->putInButton()->isEnabled());
        s.open(s.file(stlOf(PlainWheel {}.mesh())));
        s.type("sixty");
        QVERIFY(!s.scan->putInButton()->isEnabled());
        QVERIFY(!s.scan->said().contains("ET"));
        s.type("");
        QVERIFY2(s.scan->said().contains("estimated"), qPrintable(s.scan->said()));
        QVERIFY(s.scan->putInButton()->isEnabled());
    }

    /// Turned by mouse and keys, cut open, three places picked on the face.
    void theMeshIsTurnedCutAndPicked()
    {
        AtScan s;
        s.open(s.file(stlOf(PlainWheel {}.mesh())));
        MeshView* mesh = s.scan->mesh();
        const auto picture = [&] { return mesh->grab().toImage(); };
        const QImage first = picture();
        QTest::mousePress(mesh, Qt::LeftButton, {}, mesh->rect().center());
        QTest::mouseMove(mesh, mesh->rect().center() + QPoint(60, 10));
        QTest::mouseRelease(mesh, Qt::LeftButton, {}, mesh->rect().center() + QPoint(60, 10));
        const QImage turned = picture();
        QVERIFY(turned != first);
        mesh->setFocus();
        QTest::keyClick(mesh, Qt::Key_Left);
        QVERIFY(picture() != turned);
        mesh->setCut(true);
        QVERIFY(mesh->isCut());
        mesh->setCut(false);

        mesh->lookInside();
        QTest::mouseClick(s.scan->pickButton(), Qt::LeftButton);
        // Wherever the face is seen: places round the middle of the view.
        for (int i = 0; i < 36 && mesh->picks().size() < 3; ++i) {
            const double a = i * 0.7;
            const double far = 0.055 * std::min(mesh->width(), mesh->height()) * (1 + 0.05 * i);
            QTest::mouseClick(mesh, Qt::LeftButton, {}, mesh->rect().center() + QPoint(int(far * std::cos(a)), int(far * std::sin(a))));
        }
        QCOMPARE(mesh->picks().size(), std::size_t(3));
        s.scan->finish();
        everythingShown();
        QVERIFY(!s.scan->pickButton()->isChecked());
        // The face goes through the places, wherever on the wheel they are.
        QVERIFY2(s.scan->found()->lacks.empty(), s.scan->found()->lacks.c_str());
        for (const scan::Point& pick : mesh->picks()) {
            const auto place = s.scan->found()->frame.of(pick);
            QVERIFY(std::abs(place.along - s.scan->found()->face) < std::tan(s.scan->found()->tilt) * place.radius + 1e-5);
        }
    }

    /// Another wheel's scan of the same name stays as it is.
    void aScanIsCopiedBesideTheBuild()
    {
        OwnFile own;
        AtScan s(own.path);
        const QDir beside = QFileInfo(own.path).absoluteDir();
        QVERIFY(beside.mkpath("mine-scans"));
        QFile other(beside.filePath("mine-scans/wheel.stl"));
        QVERIFY(other.open(QIODevice::WriteOnly));
        other.write("somebody's");
        other.close();
        const auto bytes = stlOf(PlainWheel {}.mesh());
        s.open(s.file(bytes));
        QTest::mouseClick(s.scan->keep(), Qt::LeftButton, {}, QPoint(8, s.scan->keep()->height() / 2));
        QVERIFY(s.scan->keep()->isChecked() && s.scan->putInButton()->isEnabled());
        QTest::mouseClick(s.scan->putInButton(), Qt::LeftButton);
        s.scan->finish();
        everythingShown();
        QVERIFY2(s.wheel().scan == "mine-scans/wheel-2.stl", (s.wheel().scan + "; " + s.scan->said().toStdString()).c_str());
        QVERIFY(other.open(QIODevice::ReadOnly));
        QCOMPARE(other.readAll(), QByteArray("somebody's"));
        QCOMPARE(QFileInfo(beside.filePath("mine-scans/wheel-2.stl")).size(), static_cast<qint64>(bytes.size()));
    }
};

DEEPSTOP_TEST(ScanWindowTest)
#include "scan_window_test.moc"
