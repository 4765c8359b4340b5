/// Nothing a person has done is lost without a word: copies of unsaved work, two programs on one file, failures of any kind.

#include "app/shown.hpp"
#include "jobcard/jobcard.hpp"
#include "window/application.hpp"
#include "recovery.hpp"

#include <filesystem>

using namespace deepstop;
using namespace deepstop::app;

namespace {

Reading measured(double si) { return { si, {}, Known::Measured, "micrometer", {} }; }

QString recoveryFolder() { return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + "/recovery"; }

/// A copy as a program that is no more left it.
QString leaveCopy(const QString& name, const Build& build, const QString& path = {}, const std::vector<Typing>& typing = {})
{
    Recovery recovery;
    if (!recovery.keepNow({ std::make_shared<const Build>(build), nullptr, path, {}, typing }).isEmpty())
        return {};
    const auto copy = recoveryFolder() + "/" + name + ".json";
    QFile::remove(copy);
    return QFile::copy(recovery.path(), copy) ? copy : QString();
}

Build named(const std::string& car)
{
    auto build = demo();
    build.car.name = car;
    return build;
}

QPushButton* choice(NoticeBar* notice, const QString& text)
{
    QCoreApplication::processEvents();
    for (auto* button : notice->findChildren<QPushButton*>())
        if (button->text() == text && button->isVisible())
            return button;
    return nullptr;
}

class Thrower : public QObject {
public:
    bool event(QEvent* event) override
    {
        if (event->type() == QEvent::User)
            throw std::filesystem::filesystem_error("x", "/gone/away", std::make_error_code(std::errc::no_such_file_or_directory));
        return QObject::event(event);
    }
};

} // namespace

class KeepingTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init()
    {
        freshSettings();
        QDir(recoveryFolder()).removeRecursively();
        QFile::remove(recoveryFolder());
    }

    /// An edit before every tick of the clock: the copy is made all the same.
    void steadyEditingIsKept()
    {
        Document document;
        document.openDemo(merle());
        document.setAutosaveDelay(50);
        double si = 0.02;
        QElapsedTimer timer;
        timer.start();
        while (!QFile::exists(document.recovery().path()) && timer.elapsed() < 5000) {
            document.setReading(thickness, measured(si += 1e-6));
            QTest::qWait(1);
        }
        QVERIFY(QFile::exists(document.recovery().path()));
    }

    void whatStandsTypedIsKeptAndComesBackIntoItsField()
    {
        QString copy;
        {
            Shown s;
            s.window.document().setAutosaveDelay(1);
            auto* field = s.field(thickness);
            field->setFocus();
            s.type(field, "27.4");
            QTRY_VERIFY(QFile::exists(s.window.document().recovery().path()));
            s.window.document().recovery().finish();
            const auto kept = Recovery::read(s.window.document().recovery().path());
            // What is typed is not in the build, and stands beside it.
            QCOMPARE(*kept.build, demo());
            QCOMPARE(kept.typing, (std::vector<Typing> { { QString::fromStdString(thickness), "27.4" } }));
            // What is not understood is kept as it stands.
            s.type(field, "27,");
            copy = leaveCopy("999999999-typed", demo(), {}, { { QString::fromStdString(thickness), "27,4 m" } });
            QTest::keyClick(field, Qt::Key_Escape);
        }
        Shown s;
        s.window.offerRecovery();
        QTest::mouseClick(choice(s.window.notice(), "Open it"), Qt::LeftButton);
        auto* field = s.field(thickness);
        QVERIFY(field && field->hasFocus());
        QCOMPARE(field->text(), QString("27,4 m"));
        QVERIFY(!QFile::exists(copy));
    }

    void aCopyThatCannotBeKeptIsSaidAtOnceAndSoIsWhenItCan()
    {
        Shown s;
        s.window.document().setAutosaveDelay(1);
        // A file where the folder should be: nothing can be written there, whoever one is.
        QVERIFY(QDir().mkpath(QFileInfo(recoveryFolder()).path()));
        QFile block(recoveryFolder());
        QVERIFY(block.open(QIODevice::WriteOnly));
        block.close();
        s.window.document().setReading(thickness, measured(0.0271));
        QTRY_VERIFY(s.window.notice()->isVisible() && s.window.notice()->text().contains("No copy of this work"));
        QVERIFY(block.remove());
        QTRY_VERIFY(s.window.notice()->text().contains("kept again"));
        QVERIFY(QFile::exists(s.window.document().recovery().path()));
    }

    /// One copy after the other, each by itself; a damaged one hides none.
    void everyCopyIsOfferedByItself()
    {
        const auto first = leaveCopy("999999998-a", named("Halden Merle in grey"));
        const auto second = leaveCopy("999999999-b", named("Linnet in blue"));
        files::replaceFile((recoveryFolder() + "/999999997-c.json").toStdString(), "{\"build\":\"{}\",\"path\":7}");
        files::replaceFile((recoveryFolder() + "/999999996-d.json").toStdString(), "{\"build\":5}");
        // Of a copy taken away by somebody who was killed at it, the version before was left.
        files::replaceFile((recoveryFolder() + "/999999995-e.json~").toStdString(), "old");
        Shown s;
        s.window.offerRecovery();
        QVERIFY(!QFile::exists(recoveryFolder() + "/999999995-e.json~"));
        const auto said = s.window.notice()->text();
        QVERIFY2(
            said.contains("1 more are waiting") && said.contains("set aside") && said.contains("999999996-d.damaged"), qPrintable(said));
        QVERIFY(QFile::exists(recoveryFolder() + "/999999996-d.damaged") && QFile::exists(recoveryFolder() + "/999999997-c.damaged"));
        const bool blueFirst = said.contains("Linnet in blue");
        QVERIFY(blueFirst || said.contains("Halden Merle in grey"));
        QTest::mouseClick(choice(s.window.notice(), "Discard"), Qt::LeftButton);
        QCOMPARE(QFile::exists(first), blueFirst);
        QCOMPARE(QFile::exists(second), !blueFirst);
        QVERIFY(
            s.window.notice()->isVisible() && s.window.notice()->text().contains(blueFirst ? "Halden Merle in grey" : "Linnet in blue"));
        QTest::mouseClick(choice(s.window.notice(), "Open it"), Qt::LeftButton);
        QCOMPARE(s.window.document().build().car.name, std::string(blueFirst ? "Halden Merle in grey" : "Linnet in blue"));
        QVERIFY(s.window.document().isModified());
        QVERIFY(!QFile::exists(first) && !QFile::exists(second));
        QVERIFY(QFile::exists(s.window.document().recovery().path()));
    }

    /// Where no new copy can be made, the old one stays.
    void aCopyGoesOnlyWhenAnotherHoldsIt()
    {
        const auto copy = leaveCopy("999999999-a", named("Kept"));
        Document document;
        document.openDemo(merle());
        // The name its own copy will have is taken by a folder.
        QVERIFY(QDir().mkpath(document.recovery().path()));
        document.recover(copy);
        QCOMPARE(document.build().car.name, std::string("Kept"));
        QVERIFY(QFile::exists(copy));
        QVERIFY(QDir().rmdir(document.recovery().path()));
    }

    void aBuildNearTheLimitIsKeptAndTakenUp()
    {
        auto build = demo();
        while (build.setups.size() < 40) {
            auto more = build.setups[1];
            more.id = "s" + std::to_string(build.setups.size());
            more.received.clear();
            for (int i = 0; i < 1000; ++i)
                more.received.push_back({ "item " + std::to_string(i), Checked::Fine, WhichHand::Unknown, std::string(40, 'x') });
            build.setups.push_back(std::move(more));
        }
        const auto text = files::writeBuild({ build, nullptr });
        QVERIFY(text.size() > files::largestFile / 2);
        const auto copy = leaveCopy("999999999-large", build);
        QVERIFY(!copy.isEmpty() && QFileInfo(copy).size() > qint64(files::largestFile / 2));
        QVERIFY(*Recovery::read(copy).build == build);
    }

    /// Two windows on one file: the second is told, and cannot write over the first.
    void oneFileTwoWindows()
    {
        const OwnFile file;
        Document first;
        first.open(file.path);
        QVERIFY(first.heldBy().isEmpty());
        Shown s;
        QVERIFY(s.window.openFile(file.path));
        QVERIFY2(s.window.notice()->text().contains("is open in Deep Stop"), qPrintable(s.window.notice()->text()));
        s.window.document().setReading(thickness, measured(0.0262));
        QVERIFY(!s.window.save());
        QVERIFY(s.window.notice()->text().contains("Save under another name"));
        QVERIFY(near(file.said(), *demo().setups[1].front->rotor.thickness.value, 1e-12));
        first.setReading(thickness, measured(0.0271));
        first.save(file.path);
        QVERIFY(near(file.said(), 0.0271, 1e-12));
        // Closed there, it can be saved here, but not over what was done there.
        first.openDemo(merle());
        QVERIFY(!s.window.save());
        QVERIFY2(s.window.notice()->text().contains("Whose is to stay"), qPrintable(s.window.notice()->text()));
        QTest::mouseClick(choice(s.window.notice(), "Mine: write over the file"), Qt::LeftButton);
        QVERIFY(near(file.said(), 0.0262, 1e-12));
        QVERIFY(near(*files::loadBuild(file.path.toStdString() + "~").build.setups[1].front->rotor.thickness.value, 0.0271, 1e-12));
    }

    /// Two people on two corners of one file: whoever saves second puts both together, and no tick is lost.
    void ticksOfTwoWindowsArePutTogether()
    {
        const OwnFile file;
        const auto tick = [](Document& document, const char* step, const char* who) {
            Build build = document.build();
            jobcard::tickIn(jobcard::recordOf(build, "varnik-330"), step, Checked::Fine, { who, "2026-06-01 10:00" });
            put(document, build, "tick");
        };
        Document left;
        left.open(file.path);
        Shown s;
        QVERIFY(s.window.openFile(file.path));
        QVERIFY(s.window.notice()->text().contains("is open in Deep Stop"));
        tick(left, "front/left/rotor-on", "A.");
        tick(s.window.document(), "front/right/rotor-on", "B.");
        s.window.document().setReading(thickness, measured(0.0262));
        left.save(file.path);
        left.openDemo(merle());
        QVERIFY(!s.window.save());
        QTest::mouseClick(choice(s.window.notice(), "Both: put them together"), Qt::LeftButton);
        const Build both = files::loadBuild(file.path.toStdString()).build;
        QCOMPARE(both.cards.at(0).ticks.size(), std::size_t { 2 });
        QVERIFY(near(*both.setups[1].front->rotor.thickness.value, 0.0262, 1e-12));
        QVERIFY(!s.window.isWindowModified());
        QVERIFY(s.window.document().build() == both);
        // Where both said something else of the same, nobody offers to mix it.
        tick(s.window.document(), "car/level", "B.");
        auto theirs = files::loadBuild(file.path.toStdString());
        jobcard::tickIn(jobcard::recordOf(theirs.build, "varnik-330"), "car/level", Checked::Fault, { "A.", "2026-06-01 11:00" });
        files::saveBuild(file.path.toStdString(), theirs);
        QVERIFY(!s.window.save());
        QVERIFY(!choice(s.window.notice(), "Both: put them together"));
    }

    void aFileChangedUnderneathIsShownAndChosen()
    {
        OwnFile file;
        Shown s;
        QVERIFY(s.window.openFile(file.path));
        file.change(0.0283);
        // Nobody has asked yet: it is noticed.
        QTRY_VERIFY(s.window.notice()->isVisible() && s.window.notice()->text().contains("was changed by another program"));
        QVERIFY2(s.window.notice()->text().contains("rotor thickness") && s.window.notice()->text().contains("28.3"),
            qPrintable(s.window.notice()->text()));
        QTest::mouseClick(choice(s.window.notice(), "The file's: take it over"), Qt::LeftButton);
        QVERIFY(near(*s.window.document().build().setups[1].front->rotor.thickness.value, 0.0283, 1e-12));
        s.window.document().undoStack().undo();
        QVERIFY(s.window.document().build() == demo());
        // Known now, it is written over without another word.
        QVERIFY(s.window.save());
        QVERIFY(near(file.said(), *demo().setups[1].front->rotor.thickness.value, 1e-12));
    }

    void whatNoFileCanHoldIsRefusedWhereItIsDone()
    {
        Document document;
        document.openDemo(merle());
        QSignalSpy refused(&document, &Document::refused);
        auto build = document.build();
        build.setups[1].front->rotor.outerDiameter.value = 1e307;
        put(document, build, "x");
        build = document.build();
        build.car.note = "bell\x07";
        put(document, build, "x");
        build = document.build();
        build.drawer.resize(61, { measured(0.001), 1 });
        put(document, build, "x");
        QCOMPARE(refused.count(), 3);
        QVERIFY(document.build() == demo() && !document.isModified());
        document.setReading(thickness, measured(1e300));
        QVERIFY(document.build() == demo());
    }

    /// Whatever goes wrong in an action ends as a notice, and the document is as it was.
    void everyFailureIsANotice()
    {
        Shown s;
        auto* application = qobject_cast<Application*>(qApp);
        application->setReport([&](const QString& what) { s.window.notice()->say(what, true); });
        Thrower thrower;
        QCoreApplication::postEvent(&thrower, new QEvent(QEvent::User));
        QTRY_VERIFY(s.window.notice()->text().startsWith("/gone/away"));
        application->setReport({});
        QTemporaryDir dir;
        const auto self = dir.filePath("self.deepstop");
        std::filesystem::create_symlink(self.toStdString(), self.toStdString());
        QVERIFY(!s.window.openFile(self));
        QVERIFY(s.window.notice()->text().startsWith(self));
        QVERIFY(!s.window.saveTo(self));
        QVERIFY2(s.window.notice()->text().contains("leads to itself"), qPrintable(s.window.notice()->text()));
        QVERIFY(!s.window.savePlate(dir.filePath("nowhere/bracket.step"), false));
        QVERIFY(s.window.document().build() == demo());
    }

    void aBracketNeedsNoTemporaryFolder()
    {
        QTemporaryDir dir;
        const auto before = qgetenv("TMPDIR");
        qputenv("TMPDIR", "/nonexistent");
        Shown s;
        for (const char* name : { "bracket.step", "bracket.dxf", "bracket.stl", "bracket.pdf" }) {
            QVERIFY2(s.window.savePlate(dir.filePath(name), false), qPrintable(s.window.notice()->text()));
            QVERIFY(QFileInfo(dir.filePath(name)).size() > 500);
        }
        qputenv("TMPDIR", before);
    }

    void aHundredThousandRecentFilesAreThrownOut()
    {
        QStringList many;
        for (int i = 0; i < 100000; ++i)
            many << QString("/somewhere/build-%1.deepstop").arg(i);
        QSettings().setValue("recent", many);
        const Shown s;
        QCOMPARE(QSettings().value("recent").toStringList(), many.mid(0, 8));
    }
};

DEEPSTOP_TEST(KeepingTest)
#include "keeping_test.moc"
