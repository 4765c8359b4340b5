/// A caliper, a rotor and a knuckle from a file, by mouse and keys: opened, places picked on the mesh, judged in the section, put in.

#include "app/shown.hpp"
#include "core/plain_parts.hpp"
#include "design/turned.hpp"
#include "solids/solid_files.hpp"
#include "stages/bench/part_file_window.hpp"

#include <QCheckBox>
#include <QPushButton>

namespace {

struct AtPart : Shown {
    QTemporaryDir dir;
    BenchPage* page;
    PartFileWindow* part = nullptr;
    /// @param path of a build of one's own; empty: the demo, which has no place on disk yet
    explicit AtPart(BenchPage::Place place, const QString& path = {}) : page(window.page<BenchPage>())
    {
        if (!path.isEmpty())
            window.openFile(path);
        window.resize(1280, 800);
        window.setStage(BenchPage::id);
        page->setPlace(place);
        everythingShown();
        QTest::mouseClick(page->fromFileButton(), Qt::LeftButton);
        part = page->partFileWindow();
        everythingShown();
    }
    QString file(const std::string& bytes, const QString& name)
    {
        const QString path = dir.filePath(name);
        QFile out(path);
        if (!out.open(QIODevice::WriteOnly) || out.write(bytes.data(), static_cast<qint64>(bytes.size())) < 0)
            qFatal("no file");
        return path;
    }
    /// What is shown, for who wants to look at it. DEEPSTOP_PICTURE: where to.
    void picture(const char* name)
    {
        if (const char* folder = std::getenv("DEEPSTOP_PICTURE"))
            part->grab().save(QStringLiteral("%1/%2.png").arg(folder, name));
    }
    void finish()
    {
        part->finish(); // read
        part->finish(); // and found
        everythingShown();
    }
    void open(const QString& path)
    {
        part->open(path);
        finish();
    }
    /// A place of the mesh, mm, clicked on.
    void click(double x, double y, double z)
    {
        QTest::mouseClick(part->mesh(), Qt::LeftButton, {}, part->mesh()->pixelOf({ x * 1e-3, y * 1e-3, z * 1e-3 }));
    }
    /// Three places round a circle.
    void clickRound(double x, double y, double z, double r)
    {
        for (const double angle : { 0.5, 2.6, 4.7 })
            click(x + r * std::cos(angle), y + r * std::sin(angle), z);
    }
    void type(QLineEdit* edit, const QString& length)
    {
        QTest::mouseClick(edit, Qt::LeftButton);
        edit->selectAll();
        QTest::keyClick(edit, Qt::Key_Delete);
        QTest::keyClicks(edit, length);
        QTest::keyClick(edit, Qt::Key_Tab);
        finish();
    }
    const Corner& corner() { return *window.document().build().setups[1].front; }
};

void near(const Reading& reading, double mm, double within)
{
    QVERIFY(reading.value);
    QVERIFY2(
        std::abs(*reading.value * 1e3 - mm) < within, qPrintable(QStringLiteral("%1 instead of %2").arg(*reading.value * 1e3).arg(mm)));
}

} // namespace

class PartFileWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void aCaliperIsPickedOnItsScanAndPutIn()
    {
        AtPart s(BenchPage::Caliper);
        QVERIFY(s.part && s.part->isVisible());
        QCOMPARE(s.part->part()->currentIndex(), int(PartFileWindow::CaliperPart));
        QVERIFY(!s.part->putInButton()->isEnabled());
        const PlainCaliper plain;
        auto mesh = plain.mesh();
        // A damaged triangle as large as the world.
        for (const float far : { 0.0f, 1e30f, -1e30f })
            mesh.corners.push_back({ far, 1, far });
        s.open(s.file(stlOf(mesh), "caliper.stl"));
        QVERIFY2(s.part->next().contains("place 1 of 3"), qPrintable(s.part->next()));
        s.type(s.part->rotorDiameter(), "330 mm");
        s.type(s.part->drop(), "56 mm");
        // From the car's side, where the lugs' face is seen.
        s.part->mesh()->lookAgainst({ 0, 0, -1 });
        everythingShown();
        s.clickRound(-65, -16, 0, 6.6);
        QVERIFY2(s.part->next().contains("other mounting hole"), qPrintable(s.part->next()));
        s.clickRound(65, -16, 0, 6.6);
        s.finish();
        s.picture("part-caliper");
        QVERIFY2(s.part->said().contains("estimated"), qPrintable(s.part->said()));
        QVERIFY(s.part->putInButton()->isEnabled());
        const Build before = s.build();
        QTest::mouseClick(s.part->putInButton(), Qt::LeftButton);
        s.finish();
        QVERIFY(!s.part->isVisible());
        const Caliper& c = s.corner().caliper;
        near(c.backOverEdge,
            before.setups[1].front->caliper.backOverEdge.known == Known::Measured
                ? *before.setups[1].front->caliper.backOverEdge.value * 1e3
                : plain.back,
            0.6);
        QVERIFY(c.scan.ends_with("caliper.stl"));
        QCOMPARE(c.scanHash.size(), std::size_t(64));
        QCOMPARE(c.slotWidth.known == Known::Estimated, before.setups[1].front->caliper.slotWidth.known != Known::Measured);
        s.window.document().undoStack().undo();
        QVERIFY(s.build() == before);
    }

    void aKnuckleIsPickedWithAPlaceThatMustNotBeReached()
    {
        AtPart s(BenchPage::Fittings);
        QCOMPARE(s.part->part()->currentIndex(), int(PartFileWindow::KnucklePart));
        const PlainKnuckle plain;
        s.open(s.file(stlOf(plain.mesh()), "knuckle.stl"));
        s.type(s.part->pilot(), "66.6 mm");
        s.part->mesh()->lookAgainst({ 0, 0, -1 });
        everythingShown();
        s.clickRound(0, 0, 0, 50);
        QVERIFY2(s.part->next().contains("pilot"), qPrintable(s.part->next()));
        // One place too far off is taken back.
        s.click(0, 60, 0);
        QTest::mouseClick(s.part->backButton(), Qt::LeftButton);
        QVERIFY2(s.part->next().contains("place 1 of 3"), qPrintable(s.part->next()));
        s.clickRound(0, 0, -plain.pilotHeight, plain.pilot - 0.4);
        s.clickRound(-plain.spacing / 2, plain.radius, plain.depth, plain.hole + 0.6);
        s.clickRound(plain.spacing / 2, plain.radius, plain.depth, plain.hole + 0.6);
        s.finish();
        QVERIFY2(s.part->said().contains("lugs apart"), qPrintable(s.part->said()));
        QTest::mouseClick(s.part->keepOutButton(), Qt::LeftButton);
        QVERIFY(!s.part->putInButton()->isEnabled());
        s.click(plain.spacing / 2 + 15, plain.radius, plain.depth);
        s.finish();
        s.picture("part-knuckle");
        QVERIFY2(s.part->putInButton()->isEnabled(), qPrintable(s.part->said() + s.part->next()));
        const Build before = s.build();
        QTest::mouseClick(s.part->putInButton(), Qt::LeftButton);
        s.finish();
        const Hub& hub = s.build().frontHub;
        QCOMPARE(hub.keepOuts.size(), before.frontHub.keepOuts.size() + 1);
        const KeepOut& place = hub.keepOuts.back();
        QVERIFY(place.depth.known == Known::Measured);
        near(place.depth, plain.depth, 1.2);
        near(place.radius, std::hypot(plain.spacing / 2 + 15, plain.radius), 1.5);
        // What was read by hand stands.
        if (before.frontHub.lugSpacing.known == Known::Measured)
            QCOMPARE(hub.lugSpacing.value, before.frontHub.lugSpacing.value);
        QVERIFY(hub.scan.ends_with("knuckle.stl"));
    }

    void aKnuckleThatContradictsItsPilotIsNotPutIn()
    {
        AtPart s(BenchPage::Fittings);
        const PlainKnuckle plain;
        s.open(s.file(stlOf(plain.mesh()), "knuckle.stl"));
        s.type(s.part->pilot(), "64 mm");
        s.part->mesh()->lookAgainst({ 0, 0, -1 });
        everythingShown();
        s.clickRound(0, 0, 0, 50);
        s.clickRound(0, 0, -plain.pilotHeight, plain.pilot - 0.4);
        s.clickRound(-plain.spacing / 2, plain.radius, plain.depth, plain.hole + 0.6);
        s.clickRound(plain.spacing / 2, plain.radius, plain.depth, plain.hole + 0.6);
        s.finish();
        QVERIFY2(s.part->said().contains("Either is wrong"), qPrintable(s.part->said()));
        QVERIFY(!s.part->putInButton()->isEnabled());
    }

    /// From the program's own STEP file, copied beside the build.
    void aRotorIsReadFromItsSolid()
    {
        QTemporaryDir folder;
        const QString build = folder.filePath("car.deepstop");
        QVERIFY(QFile::copy(MainWindow::demoFolder() + "/halden-merle.deepstop", build));
        AtPart s(BenchPage::Rotor, build);
        QCOMPARE(s.part->part()->currentIndex(), int(PartFileWindow::RotorPart));
        s.open(s.file(stlOf(PlainCaliper {}.mesh()), "rotor.stl"));
        QVERIFY2(s.part->said().contains("STEP"), qPrintable(s.part->said()));
        QVERIFY(!s.part->putInButton()->isEnabled());
        design::Turned hat;
        hat.title = "Hat";
        hat.material = "aluminium";
        hat.density = 2700;
        hat.sections = { { { 0, 0.0333 }, { 0, 0.0785 }, { -0.041, 0.0785 }, { -0.041, 0.0985 }, { -0.048, 0.0985 }, { -0.048, 0.0722 },
            { -0.0065, 0.0722 }, { -0.0065, 0.0333 } } };
        hat.holes = { { 5, 12.8e-3, 112e-3, -0.0065, 0, "for the wheel studs" } };
        s.open(s.file(solids::stepOf(hat), "hat.step"));
        s.picture("part-rotor");
        QVERIFY2(s.part->putInButton()->isEnabled(), qPrintable(s.part->said()));
        QTest::mouseClick(s.part->keep(), Qt::LeftButton, {}, QPoint(8, s.part->keep()->height() / 2));
        QTest::mouseClick(s.part->putInButton(), Qt::LeftButton);
        s.finish();
        QCOMPARE(s.corner().rotor.scan, std::string("car-scans/hat.step"));
        QVERIFY(QFile::exists(folder.filePath("car-scans/hat.step")));
    }

    void whatIsNoPartIsOneClearLine()
    {
        AtPart s(BenchPage::Caliper);
        s.open(s.file("PK\x03\x04 a zip", "caliper.stl"));
        QVERIFY(s.part->said().contains("caliper.stl"));
        QVERIFY(!s.part->putInButton()->isEnabled());
        s.open(s.file(stlOf(PlainCaliper {}.mesh()), "caliper.stl"));
        s.type(s.part->drop(), "about a hand");
        QVERIFY2(s.part->said().contains("inward"), qPrintable(s.part->said()));
    }
};

DEEPSTOP_TEST(PartFileWindowTest)
#include "part_file_window_test.moc"
