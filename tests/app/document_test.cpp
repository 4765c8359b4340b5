#include "core/support.hpp"
#include "document.hpp"
#include "files/disk.hpp"

#include <QSignalSpy>
#include <clocale>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTest>

using namespace deepstop;
using namespace deepstop::app;

namespace {

bool isLeftBehind(const QString& copy)
{
    const auto all = Recovery::leftBehind();
    return std::ranges::any_of(all, [&](const LeftBehind& each) { return each.copy == copy; });
}

Reading measured(double si) { return { si, {}, Known::Measured, "micrometer", {} }; }

} // namespace

class DocumentTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase()
    {
        QStandardPaths::setTestModeEnabled(true);
    }

    void aNewBuildHasAKitToJudgeAndForgetsTheOld()
    {
        Document document;
        document.openDemo(merle());
        document.setReading(thickness, measured(0.027));
        document.startNew();
        QVERIFY(document.path().isEmpty() && !document.isModified() && !document.undoStack().canUndo());
        QCOMPARE(document.build().setups.size(), std::size_t(2));
        QVERIFY(document.build().setups[1].front && !document.build().setups[1].rear);
        QCOMPARE(document.study().after.setup->id, std::string("kit"));
        // What is saved of it comes back.
        QTemporaryDir dir;
        document.setReading(thickness, measured(0.028));
        document.save(dir.filePath("new.deepstop"));
        Document again;
        again.open(dir.filePath("new.deepstop"));
        QVERIFY(again.build() == document.build());
    }

    /// Also in the language ctest runs it in a second time (window_in_german), where a comma stands before the decimals.
    void everyFractionSurvivesSaving()
    {
        if (qgetenv("LC_ALL").startsWith("de_DE"))
            QCOMPARE(std::localeconv()->decimal_point, ",");
        QTemporaryDir dir;
        Document document;
        document.openDemo(merle());
        document.setReading(thickness, measured(0.0281234));
        document.save(dir.filePath("a.deepstop"));
        Document again;
        again.open(dir.filePath("a.deepstop"));
        QVERIFY(again.build() == document.build());
        document.setReading(thickness, measured(0.0281235));
        document.keepForRecovery();
        document.recovery().finish();
        QVERIFY(*Recovery::read(document.recovery().path()).build == document.build());
    }

    void takingAgainKeepsEveryReading()
    {
        Document document;
        document.openDemo(merle());
        document.takeReading(thickness, measured(0.0281), false);
        QVERIFY(document.build().setups[1].front->rotor.thickness.repeats.empty());
        document.takeReading(thickness, measured(0.0283), true);
        document.takeReading(thickness, measured(0.0285), true);
        const auto& reading = document.build().setups[1].front->rotor.thickness;
        QCOMPARE(reading.repeats, (std::vector<double> { 0.0281, 0.0283, 0.0285 }));
        QVERIFY(std::abs(*reading.value - 0.0283) < 1e-12);
        QVERIFY(std::abs(uncertainty(reading, true) - 0.0002) < 1e-12);
        // Nothing is taken where nothing is shown, or nowhere.
        const auto build = document.build();
        document.takeReading(thickness, {}, true);
        document.takeReading("/nowhere", measured(1), false);
        QVERIFY(document.build() == build);
        document.takeReading(thickness, measured(0.028), false);
        QVERIFY(document.build().setups[1].front->rotor.thickness.repeats.empty());
    }

    void listsGrowAndShrinkByTheirReadings()
    {
        Document document;
        document.openDemo(merle());
        const auto start = document.build();
        document.setReading(corner + "/caliper/pistons_mm/-", measured(0.03));
        QCOMPARE(document.build().setups[1].front->caliper.pistons.size(), std::size_t(3));
        QCOMPARE(document.lastOfList(corner + "/caliper/pistons_mm/-"), corner + "/caliper/pistons_mm/2");
        document.setReading(corner + "/weighings/-/mass_kg", measured(2));
        QCOMPARE(document.lastOfList(corner + "/weighings/-/mass_kg"), corner + "/weighings/5/mass_kg");
        document.setReading(corner + "/weighings/5/mass_kg", {});
        document.setReading(corner + "/caliper/pistons_mm/2", {});
        document.setReading(corner + "/pad/friction_over_temperature/0/temperature_degC", {});
        QCOMPARE(document.build().setups[1].front->pad.frictionOverTemperature.size(),
            start.setups[1].front->pad.frictionOverTemperature.size() - 1);
        document.undoStack().undo();
        QVERIFY(document.build() == start);
        // An empty reading in a free place adds nothing.
        document.setReading(corner + "/weighings/-/mass_kg", {});
        QVERIFY(document.build() == start);
    }

    void whatIsInHandServesItsOwnKindOnly()
    {
        Document document;
        const auto after = [&](const char* hand, const Style& style) {
            document.setInHand(hand);
            Reading reading { 1.0, {}, Known::Estimated, "old", {} };
            document.takenInHand(reading, style);
            return reading;
        };
        QCOMPARE(after("vernier", style::size).instrument, std::string("vernier"));
        QCOMPARE(after("vernier", style::partMass).instrument, std::string("old"));
        QCOMPARE(after("bathroom scale", style::partMass).known, Known::Measured);
        QCOMPARE(after("bathroom scale", style::size).known, Known::Estimated);
        QCOMPARE(after("vendor sheet", style::number).known, Known::Vendor);
        QVERIFY(after("vendor sheet", style::number).instrument.empty());
        QCOMPARE(after("", style::size).instrument, std::string("old"));
    }

    void undoOfEverythingComesBackToTheStart()
    {
        Document document;
        document.openDemo(merle());
        const Build start = document.build();
        const Directory directory(start);
        int edits = 0;
        for (const auto& entry : directory.entries())
            if (entry.reading->value && refusal(entry.address, *entry.reading->value * 1.01).empty() && *entry.reading->value != 0
                && ++edits <= 60)
                document.setReading(entry.address.pointer, measured(*entry.reading->value * 1.01));
        QCOMPARE(document.undoStack().count(), 60);
        const Build end = document.build();
        QVERIFY(!(start == end));
        while (document.undoStack().canUndo())
            document.undoStack().undo();
        QVERIFY(document.build() == start);
        QVERIFY(!document.isModified());
        while (document.undoStack().canRedo())
            document.undoStack().redo();
        QVERIFY(document.build() == end);
    }

    void whatChangesNothingIsNoStep()
    {
        Document document;
        document.openDemo(merle());
        document.setReading(thickness, *Directory(document.build()).at(thickness)->reading);
        document.setReading("/no/such/place", measured(1));
        QCOMPARE(document.undoStack().count(), 0);
    }

    void aPreviewIsSeenButNotKept()
    {
        Document document;
        document.openDemo(merle());
        document.settle();
        const auto before = *document.study().line("heat-store")->after.value;
        document.preview(thickness, measured(0.034));
        document.settle();
        QVERIFY(*document.study().line("heat-store")->after.value > before);
        QVERIFY(!document.isModified());
        document.endPreview();
        document.settle();
        QCOMPARE(*document.study().line("heat-store")->after.value, before);
    }

    void aFileThatIsRefusedLeavesTheOpenOne()
    {
        Document document;
        document.openDemo(merle());
        document.setReading(thickness, measured(0.027));
        QTemporaryDir dir;
        const auto bad = dir.filePath("bad.deepstop");
        files::replaceFile(bad.toStdString(), "{\"deepstop\":1");
        QVERIFY_EXCEPTION_THROWN(document.open(bad), files::Refusal);
        QCOMPARE(document.build().setups[1].front->rotor.thickness.value, std::optional(0.027));
        QVERIFY(document.isModified());
        QVERIFY_EXCEPTION_THROWN(document.save("/nonexistent/a.deepstop"), files::Refusal);
        QVERIFY(document.isModified());
    }

    void workIsTakenUpAgainAfterACrash()
    {
        QTemporaryDir dir;
        const auto path = dir.filePath("mine.deepstop");
        QFile::copy(merle(), path);
        QString copy;
        {
            Document document;
            document.open(path);
            document.setReading(thickness, measured(0.0271));
            document.keepForRecovery();
            document.recovery().finish();
            QVERIFY(QFile::exists(document.recovery().path()));
            // As a crash leaves it: written by a process that is no more.
            QVERIFY(!isLeftBehind(document.recovery().path())); // its owner is alive
            copy = QFileInfo(document.recovery().path()).path() + "/999999999-test.json";
            QFile::remove(copy);
            QVERIFY(QFile::copy(document.recovery().path(), copy));
        }
        QVERIFY(isLeftBehind(copy));
        Document next;
        next.recover(copy);
        QVERIFY(near(*next.build().setups[1].front->rotor.thickness.value, 0.0271, 1e-12));
        QCOMPARE(next.path(), path);
        QVERIFY(next.isModified());
        QVERIFY(!isLeftBehind(copy) && !QFile::exists(copy));
        next.save(path);
        QVERIFY(!next.isModified());
        QVERIFY(near(*files::loadBuild(path.toStdString()).build.setups[1].front->rotor.thickness.value, 0.0271, 1e-12));
    }

    void savingEndsTheNeedForRecovery()
    {
        QTemporaryDir dir;
        Document document;
        document.openDemo(merle());
        document.setAutosaveDelay(1);
        document.setReading(thickness, measured(0.0271));
        QTRY_VERIFY(QFile::exists(document.recovery().path()));
        document.save(dir.filePath("a.deepstop"));
        QVERIFY(!QFile::exists(document.recovery().path()));
    }

    void aDamagedRecoveryCopyIsSaidToBe()
    {
        QTemporaryDir dir;
        const auto copy = dir.filePath("1-x.json");
        files::replaceFile(copy.toStdString(), "{\"build\":");
        Document document;
        QVERIFY_EXCEPTION_THROWN(document.recover(copy), files::Refusal);
    }
};

DEEPSTOP_TEST(DocumentTest)
#include "document_test.moc"
