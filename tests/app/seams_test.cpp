/// Editing without seams: what is typed, shown and saved is one thing. What would be wrong and harmful: a value that nobody put in is
/// saved; one car's work lands in another's file; typed text is gone without a word; a click does something else than what was clicked.

#include "app/shown.hpp"
#include "drawing/fact_field.hpp"
#include "files/lock.hpp"
#include "files/together.hpp"
#include "instruments/receiver.hpp"
#include "stages/jobcard/card_page.hpp"
#include "stages/stop/live_view.hpp"
#include "task/parallel.hpp"
#include "widgets/import_window.hpp"
#include "widgets/widen_window.hpp"

#include <nlohmann/json.hpp>

#include <QFileDialog>
#include <QMenu>
#include <QSemaphore>

using namespace deepstop;
using namespace deepstop::app;

namespace {

proving::FoundStop aStop()
{
    proving::FoundStop stop;
    stop.speed = 27;
    stop.distance = 41;
    return stop;
}

double diameterIn(const Build& build) { return *build.setups[1].front->rotor.outerDiameter.value; }

/// Types text into a line as a person does, without leaving it.
void typeInto(Shown& s, QLineEdit* line, const QString& text)
{
    line->setFocus();
    s.type(line, text);
}

/// Answers the question for unsaved work with that button, and tells what it said.
struct Answer {
    QString said;
    explicit Answer(MainWindow& window, QMessageBox::StandardButton button)
    {
        QTimer::singleShot(0, &window, [this, button] {
            if (auto* ask = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
                said = ask->text();
                ask->button(button)->click();
            }
        });
    }
};

QString logOfOneStop(const QTemporaryDir& dir)
{
    const auto path = dir.filePath("drive.nmea");
    QFile file(path);
    if (file.open(QIODevice::WriteOnly)) {
        instruments::ReceiverScene scene;
        scene.stops = { { 27, 8 } };
        instruments::Receiver receiver(scene);
        while (!receiver.over())
            file.write(QByteArray::fromStdString(receiver.next()));
    }
    return path;
}

} // namespace

class SeamsTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    /// 33 typed of 330; meanwhile a stop of the receiver arrives, a setup is named, a log comes in. Given up, nothing of 33 is left.
    void halfTypedIsNeverInTheBuild()
    {
        Shown s;
        const auto before = diameterIn(s.build());
        typeInto(s, s.field(diameter), "33");
        QCOMPARE(diameterIn(s.build()), before);
        QVERIFY(s.window.document().isPreviewing());
        emit s.window.page<StopPage>()->live()->found(aStop());
        QVERIFY(s.window.document().edit("name", [](Build build) {
            build.setups[1].name = "Kit B";
            return build;
        }));
        QCOMPARE(diameterIn(s.build()), before);
        // The sheet still shows what is typed, with what has come in.
        QVERIFY(s.window.document().isPreviewing());
        QVERIFY(near(*s.known().after.front.corner->rotor.outerDiameter.value, 0.033, 1e-9));
        QCOMPARE(s.known().after.setup->name, std::string("Kit B"));
        QTest::keyClick(s.field(diameter), Qt::Key_Escape);
        QCOMPARE(diameterIn(s.build()), before);
        QCOMPARE(s.build().tests.size(), demo().tests.size() + 1);
        QVERIFY(near(*s.known().after.front.corner->rotor.outerDiameter.value, before, 1e-12));
        // And the other way: put in, it is there with them.
        typeInto(s, s.field(diameter), "331");
        emit s.window.page<StopPage>()->live()->found(aStop());
        QTest::keyClick(s.field(diameter), Qt::Key_Return);
        QVERIFY(near(diameterIn(s.build()), 0.331, 1e-9));
        QCOMPARE(s.build().tests.back().stops.size(), std::size_t { 2 });
    }

    /// A window that stays open applies its change to the build as it is, and to no other.
    void wideningGoesIntoTheBuildAsItIs()
    {
        Shown s;
        put(s.window.document(), [] {
            auto build = demo();
            auto& caliper = build.setups[1].front->caliper;
            const auto known = [](double v) { return Reading { v, {}, Known::Measured, "vernier", {} }; };
            caliper.split = YesNo::Yes;
            caliper.slotWidth = known(34e-3);
            caliper.bridgeBoltLength = known(90e-3);
            caliper.pinLength = known(80e-3);
            return build;
        }(), "split");
        s.waited();
        auto* widen = s.window.showWidening();
        widen->growth()->clear();
        QTest::keyClicks(widen->growth(), "4");
        QVERIFY2(widen->button()->isEnabled(), qPrintable(widen->said()));
        s.window.document().setReading(diameter, { 0.3345, {}, Known::Measured, "vernier", {} });
        s.waited();
        QTest::mouseClick(widen->button(), Qt::LeftButton);
        QVERIFY(near(diameterIn(s.build()), 0.3345, 1e-9));
        QVERIFY(near(*s.build().setups[1].front->caliper.slotWidth.value, 38e-3, 1e-9));
        // What was worked out of one car is not put into another.
        s.waited();
        const auto base = s.known().build;
        const auto of = s.window.document().stamp();
        auto changed = *base;
        changed.car.name = "another";
        s.window.openDemo(MainWindow::demoFolder() + "/linnet.deepstop");
        const auto linnet = s.build();
        QVERIFY(!s.window.document().putIn("a change", of, base, std::make_shared<const Build>(changed)));
        QVERIFY(s.build() == linnet);
        QVERIFY(s.window.notice()->text().contains("Nothing was changed"));
        QVERIFY(!widen->isVisible());
    }

    /// A change worked out earlier goes with later ones where they touch other things, and never writes over what was said since.
    void anEditIsOfTheBuildAsItIs()
    {
        Document document;
        document.openDemo(merle());
        QStringList refused;
        connect(&document, &Document::refused, this, [&](const QString& why) { refused << why; });
        const auto base = document.sharedBuild();
        auto after = *base;
        after.setups[1].front->rotor.thickness.value = 0.0275;
        const auto made = std::make_shared<const Build>(after);
        document.setReading(diameter, { 0.3331, {}, Known::Measured, "vernier", {} });
        QVERIFY(document.putIn("thinner", document.stamp(), base, made));
        QVERIFY(near(diameterIn(document.build()), 0.3331, 1e-9));
        QVERIFY(near(*document.build().setups[1].front->rotor.thickness.value, 0.0275, 1e-12));
        document.setReading(thickness, { 0.0281, {}, Known::Measured, "vernier", {} });
        QVERIFY(!document.putIn("thinner", document.stamp(), base, made));
        QVERIFY(near(*document.build().setups[1].front->rotor.thickness.value, 0.0281, 1e-12));
        QCOMPARE(refused.size(), 1);
    }

    /// Whatever kind of field is typed in: menus, saving, another page, another build and closing put it in or ask, and lose nothing.
    void everyKindOfFieldEndsBeforeAnythingElse()
    {
        OwnFile file;
        Shown s;
        QVERIFY(s.window.openFile(file.path));
        s.waited();
        auto* name = s.window.findChild<QLineEdit*>("/car/name");
        typeInto(s, name, "Merle of the hills");
        QTest::keyClick(name, Qt::Key_S, Qt::ControlModifier);
        QCOMPARE(files::loadBuild(file.path.toStdString()).build.car.name, std::string("Merle of the hills"));
        // A note of the bench, then another page.
        s.window.setStage(BenchPage::id);
        s.window.page<BenchPage>()->setPlace(BenchPage::Rotor);
        s.waited();
        QLineEdit* fact = nullptr;
        for (auto* each : s.window.page(BenchPage::id)->view()->findChildren<FactField*>())
            if (auto* line = qobject_cast<QLineEdit*>(each->editor()); line && each->isVisible() && !fact)
                fact = line;
        QVERIFY(fact);
        const auto pointer = fact->objectName().toStdString();
        const auto said = factAt(s.build(), pointer);
        const auto text = said->kind == StatedFact::Kind::Count ? QString("7") : QString("typed here");
        typeInto(s, fact, text);
        QTest::keyClick(fact, Qt::Key_3, Qt::ControlModifier);
        QCOMPARE(QString::fromStdString(factAt(s.build(), pointer)->value), text);
        // Closing asks for what was put in by that.
        typeInto(s, name, "Merle again");
        Answer answer(s.window, QMessageBox::Cancel);
        QVERIFY(!s.window.close());
        QVERIFY2(answer.said.contains("not saved"), qPrintable(answer.said));
        QCOMPARE(s.build().car.name, std::string("Merle again"));
        // A dimension, then a combo box elsewhere by mouse.
        s.window.setStage(WheelPage::id);
        s.waited();
        typeInto(s, s.field(diameter), "333");
        QTest::mousePress(s.window.afterBox(), Qt::LeftButton);
        QVERIFY(near(diameterIn(s.build()), 0.333, 1e-9));
        QTest::keyClick(s.window.afterBox()->view(), Qt::Key_Escape);
    }

    /// What cannot be understood stays, is asked for at closing, is in the recovery copy though another field has the focus, and stands in
    /// its field again after other pages.
    void whatIsRefusedIsKept()
    {
        QString copy;
        {
            Shown s;
            s.window.document().setAutosaveDelay(1);
            typeInto(s, s.field(diameter), "33x");
            s.field(thickness)->setFocus();
            QVERIFY(!s.field(diameter)->refusal().isEmpty());
            QCOMPARE(s.field(diameter)->text(), QString("33x"));
            QTRY_VERIFY(QFile::exists(s.window.document().recovery().path()));
            s.window.document().keepForRecovery();
            s.window.document().recovery().finish();
            QCOMPARE(Recovery::read(s.window.document().recovery().path()).typing,
                (std::vector<Typing> { { QString::fromStdString(diameter), "33x" } }));
            s.window.setStage(BenchPage::id);
            s.window.setStage(CarPage::id);
            s.window.setStage(WheelPage::id);
            QCOMPARE(s.field(diameter)->text(), QString("33x"));
            QVERIFY(!s.field(diameter)->refusal().isEmpty());
            Answer answer(s.window, QMessageBox::Cancel);
            QVERIFY(!s.window.close());
            QVERIFY2(answer.said.contains("33x") && answer.said.contains("rotor diameter"), qPrintable(answer.said));
            s.field(diameter)->setFocus();
            QTest::keyClick(s.field(diameter), Qt::Key_Escape);
            QVERIFY(s.window.document().drafts().all().empty() && !s.window.document().hasUnsaved());
            QVERIFY(s.window.close());
        }
    }

    /// What is typed is in the units it was begun in.
    void unitsAreThoseOfTheBeginning()
    {
        Shown s;
        auto* field = s.field(diameter);
        typeInto(s, field, "331");
        QTest::keyClick(field, Qt::Key_M, Qt::ControlModifier);
        QCOMPARE(s.window.document().units(), UnitSystem::Us);
        QVERIFY(near(diameterIn(s.build()), 0.331, 1e-9));
        QTest::keyClick(&s.window, Qt::Key_M, Qt::ControlModifier);
        s.waited();
        // One that is refused and mended after the switch, too.
        typeInto(s, s.field(diameter), "332x");
        QTest::keyClick(s.field(diameter), Qt::Key_M, Qt::ControlModifier);
        QCOMPARE(s.window.document().units(), UnitSystem::Us);
        s.field(diameter)->setFocus();
        QTest::keyClick(s.field(diameter), Qt::Key_End);
        QTest::keyClick(s.field(diameter), Qt::Key_Backspace);
        QTest::keyClick(s.field(diameter), Qt::Key_Return);
        QVERIFY2(near(diameterIn(s.build()), 0.332, 1e-9), QByteArray::number(diameterIn(s.build())).constData());
        // Typed anew over all that stood there, it is in what is shown now.
        s.waited();
        typeInto(s, s.field(diameter), "13x");
        QTest::keyClick(s.field(diameter), Qt::Key_M, Qt::ControlModifier);
        QCOMPARE(s.window.document().units(), UnitSystem::Metric);
        typeInto(s, s.field(diameter), "333");
        QTest::keyClick(s.field(diameter), Qt::Key_Return);
        QVERIFY2(near(diameterIn(s.build()), 0.333, 1e-9), QByteArray::number(diameterIn(s.build())).constData());
    }

    /// No shortcut of the window is a key that a line of text wants for itself.
    void shortcutsAreNoKeysOfAField()
    {
        Shown s;
        QLineEdit line(&s.window);
        line.setText("330");
        line.show();
        line.setFocus();
        int tried = 0;
        for (QAction* action : s.window.findChildren<QAction*>())
            for (const QKeySequence& keys : action->shortcuts()) {
                const auto standard = [&](QKeySequence::StandardKey key) { return QKeySequence::keyBindings(key).contains(keys); };
                if (keys.isEmpty() || standard(QKeySequence::Undo) || standard(QKeySequence::Redo) || !action->menu() == false)
                    continue;
                QKeyEvent press(QEvent::ShortcutOverride, keys[0].key(), keys[0].keyboardModifiers());
                press.ignore();
                QCoreApplication::sendEvent(&line, &press);
                QVERIFY2(!press.isAccepted(), qPrintable(action->text() + " " + keys.toString()));
                ++tried;
            }
        QVERIFY2(tried > 25, QByteArray::number(tried).constData());
    }

    /// At the beginning nothing is typed into; and with nothing typed, undo is the build's in every field.
    void anInstrumentThatTypesNamesNoCar()
    {
        Shown s;
        QVERIFY(!qobject_cast<QLineEdit*>(QApplication::focusWidget()));
        QTest::keyClicks(QApplication::focusWidget(), "28.01");
        QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
        QCOMPARE(s.build(), demo());
        s.enter(diameter, "331");
        auto* name = s.window.findChild<QLineEdit*>("/car/name");
        name->setFocus();
        QTest::keyClick(name, Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(s.build(), demo());
    }

    /// The remedy that was clicked is tried, though the click first put in a reading and the list became another.
    void aClickedRemedyIsTheOneThatWasClicked()
    {
        Shown s;
        s.window.document().setPair({ {}, "varnik-355" });
        s.window.setStage(WheelPage::id);
        s.waited();
        s.window.slip()->choose("front/barrel-gap");
        const auto remedies = s.known().verdict("front/barrel-gap")->remedies;
        QVERIFY(remedies.size() >= 2);
        const auto pointer = s.window.page()->view()->sheet().dimensions.front().pointer;
        typeInto(s, s.field(pointer), "354");
        // Its remedies follow when it rests; the link of the last of them, where it stands.
        QTRY_COMPARE(s.window.document().study().remedies, Remedies::Sought);
        auto* browser = s.window.slip()->browser();
        const auto html = browser->toHtml();
        const auto links = QRegularExpression("href=\"(remedy:[^\"]+)\"").globalMatch(html);
        QStringList all;
        for (auto it = links; it.hasNext();)
            all << it.next().captured(1);
        QVERIFY(!all.isEmpty());
        const auto title = QString::fromUtf8(QByteArray::fromHex(QUrl(all.back()).path().toLatin1())).section('\n', 1);
        const auto count = s.window.document().undoStack().count();
        s.window.document().drafts().finish();
        s.window.slip()->follow(QUrl(all.back()));
        QVERIFY(near(*s.window.document().entry(pointer)->reading->value, 0.354, 1e-9));
        if (s.window.document().undoStack().count() == count + 2)
            QCOMPARE(s.window.document().undoStack().undoText(), title);
        else
            QVERIFY2(s.window.notice()->text().contains(title), qPrintable(s.window.notice()->text()));
        // One that is none any more does nothing, and says so.
        const auto build = s.build();
        s.window.slip()->follow(QUrl("remedy:" + QByteArray("front/barrel-gap\nNo such remedy").toHex()));
        QVERIFY(s.build() == build && s.window.notice()->text().contains("No such remedy"));
    }

    void cleanIsWhatTheFileHolds()
    {
        OwnFile file;
        Document document;
        document.open(file.path);
        QVERIFY(!document.isModified());
        document.setReading(thickness, { 0.027, {}, Known::Measured, "vernier", {} });
        QVERIFY(document.isModified());
        document.undoStack().undo();
        QVERIFY(!document.isModified());
        document.setReading(thickness, { 0.027, {}, Known::Measured, "vernier", {} });
        document.save(file.path);
        QVERIFY(!document.isModified());
        document.undoStack().undo();
        QVERIFY(document.isModified());
        document.undoStack().redo();
        QVERIFY(!document.isModified());
        // Somebody else writes; taken over, then undone: the file says otherwise.
        auto theirs = files::loadBuild(file.path.toStdString());
        theirs.build.car.name = "theirs";
        files::saveBuild(file.path.toStdString(), theirs);
        document.takeFromDisk();
        QVERIFY(!document.isModified());
        document.undoStack().undo();
        QVERIFY(document.isModified());
        // A saving that fails saves nothing.
        QVERIFY_THROWS_EXCEPTION(files::Refusal, document.save("/proc/nowhere/mine.deepstop"));
        QVERIFY(document.isModified());
    }

    /// Undo brings back what the program does not know, as well.
    void undoCoversUnknownKeys()
    {
        OwnFile file;
        QFile text(file.path);
        QVERIFY(text.open(QIODevice::ReadOnly));
        auto json = nlohmann::json::parse(text.readAll().toStdString());
        text.close();
        json["log"][0]["of_a_later_version"] = "first";
        json["log"][1]["of_a_later_version"] = "second";
        json["log"][1]["id"] = "an id this version does not know";
        files::replaceFile(file.path.toStdString(), json.dump());
        Document document;
        document.open(file.path);
        const auto saved = [&] {
            document.save(file.path, Document::Over::OthersWork);
            return nlohmann::json::parse(files::readFile(file.path.toStdString()));
        };
        QVERIFY(saved()["log"][1]["id"] == json["log"][1]["id"]);
        QVERIFY(document.edit("first entry gone", [](Build build) {
            build.log.erase(build.log.begin());
            return build;
        }));
        auto now = saved();
        QVERIFY(now["log"][0]["of_a_later_version"] == "second");
        QVERIFY(!now["log"][1].contains("of_a_later_version"));
        document.undoStack().undo();
        now = saved();
        QVERIFY(now["log"][0]["of_a_later_version"] == "first");
        QVERIFY(now["log"][1]["of_a_later_version"] == "second");
    }

    /// A name without its ending: the question is about the file that would be replaced.
    void saveAsAsksBeforeItReplaces()
    {
        Shown s;
        QTemporaryDir dir;
        const auto there = dir.filePath("car.deepstop");
        files::replaceFile(there.toStdString(), "not to be lost");
        bool asked = false;
        QTimer look;
        connect(&look, &QTimer::timeout, this, [&] {
            auto* modal = QApplication::activeModalWidget();
            if (auto* ask = qobject_cast<QMessageBox*>(modal)) {
                asked = true;
                ask->button(QMessageBox::No)->click();
                return;
            }
            auto* dialog = qobject_cast<QFileDialog*>(modal);
            if (!dialog)
                return;
            if (asked) {
                dialog->reject();
                return;
            }
            dialog->setDirectory(dir.path());
            auto* line = dialog->findChild<QLineEdit*>("fileNameEdit");
            line->setText("car");
            QMetaObject::invokeMethod(dialog, "accept", Qt::QueuedConnection);
        });
        look.start(20);
        QVERIFY(!s.window.saveAs());
        QVERIFY(asked);
        QCOMPARE(files::readFile(there.toStdString()), std::string("not to be lost"));
    }

    void nothingLateLandsInAnotherCar()
    {
        QTemporaryDir dir;
        const auto log = logOfOneStop(dir);
        Shown s;
        auto* stop = s.window.page<StopPage>();
        s.window.setStage(StopPage::id);
        stop->takeLog(log);
        s.window.openDemo(MainWindow::demoFolder() + "/linnet.deepstop");
        const auto linnet = s.build();
        QTRY_VERIFY(s.window.notice()->text().contains("the build that was open before"));
        QCOMPARE(s.build(), linnet);
        // A duty out of a log, and what is heard from a receiver.
        s.window.openDemo(merle());
        const auto merles = s.build();
        s.window.notice()->hide();
        s.window.page<HeatPage>()->takeLog(log);
        s.window.openDemo(MainWindow::demoFolder() + "/linnet.deepstop");
        QTRY_VERIFY(s.window.notice()->text().contains("was chosen for the build that was open before"));
        QCOMPARE(s.build(), linnet);
        // In the same car it arrives, whatever was edited meanwhile.
        s.window.openDemo(merle());
        s.window.page<StopPage>()->takeLog(log);
        s.window.document().setReading(thickness, { 0.0276, {}, Known::Measured, "vernier", {} });
        QTRY_COMPARE(s.build().tests.size(), merles.tests.size() + 1);
        QVERIFY(near(*s.build().setups[1].front->rotor.thickness.value, 0.0276, 1e-12));
        QVERIFY(!s.build().tests.back().log.empty());
        // A live stop is another drive than an imported one of the same day.
        auto today = s.build();
        today.tests.back().date = QDate::currentDate().toString(Qt::ISODate).toStdString();
        put(s.window.document(), today, "imported today");
        emit stop->live()->found(aStop());
        QCOMPARE(s.build().tests.size(), today.tests.size() + 1);
        QVERIFY(s.build().tests.back().log.empty());
    }

    /// Temperatures of another state of the build are not shown as this one's.
    void setupsOnADutyAreOfThisBuild()
    {
        Shown s;
        auto* heat = s.window.page<HeatPage>();
        s.window.setStage(HeatPage::id);
        s.waited();
        heat->setPlace(heat->dutyPlace() + 1);
        const auto running = [&] {
            return std::ranges::any_of(heat->view()->sheet().letters, [](const Lettering& l) { return l.text.contains("being run"); });
        };
        QTRY_VERIFY_WITH_TIMEOUT(!running(), 20000);
        s.window.document().setReading("/car/mass_kg", { 1700, {}, Known::Measured, "scale", {} });
        heat->refresh();
        QVERIFY(running());
        QTRY_VERIFY_WITH_TIMEOUT(!running(), 20000);
        // The same number of setups, another car.
        s.window.openDemo(MainWindow::demoFolder() + "/drover-camper.deepstop");
        heat->setPlace(std::max(0, heat->dutyPlace()) + 1);
        const auto said = [&] {
            QStringList words;
            for (const Lettering& each : heat->view()->sheet().letters)
                words << each.text;
            return words;
        };
        const bool waiting = running();
        const auto first = said();
        QTRY_VERIFY_WITH_TIMEOUT(!running(), 20000);
        QVERIFY2(waiting || first == said(), qPrintable(first.join(" / ")));
    }

    /// The recovery copy does not wait for searches and draws.
    void recoveryHasAThreadOfItsOwn()
    {
        std::atomic<bool> end = false;
        for (int i = 0; i < 8; ++i)
            startThread([&end] {
                while (!end) { }
            });
        {
            Document document;
            document.setAutosaveDelay(1);
            document.openDemo(merle());
            document.setReading(thickness, { 0.027, {}, Known::Measured, "vernier", {} });
            QTRY_VERIFY(QFile::exists(document.recovery().path()));
            // As private as the work may be.
            QCOMPARE(QFile::permissions(document.recovery().path()) & (QFile::ReadGroup | QFile::ReadOther | QFile::WriteOther),
                QFile::Permissions());
            QCOMPARE(
                QFile::permissions(QFileInfo(document.recovery().path()).path()) & (QFile::ExeGroup | QFile::ExeOther | QFile::ReadOther),
                QFile::Permissions());
        }
        end = true;
        joinThreads();
    }

    /// A list whose columns are changed while it is read; the newest reading alone counts.
    void importMayBeChangedWhileItReads()
    {
        QTemporaryDir dir;
        QFile list(dir.filePath("rotors.csv"));
        QVERIFY(list.open(QIODevice::WriteOnly));
        list.write("name,outer diameter (mm),thickness (mm)\n");
        for (int i = 0; i < 20000; ++i)
            list.write(QByteArray("Rotor ") + QByteArray::number(i) + ",330,28\n");
        list.close();
        LibraryStore store;
        ImportWindow window(store, nullptr);
        window.open(list.fileName());
        auto* kind = window.findChild<QComboBox*>();
        // Before anything of it is there, and while it is read.
        emit kind->activated(2);
        emit kind->activated(0);
        QTRY_VERIFY(kind->isEnabled());
        for (int i = 0; i < 6; ++i)
            emit kind->activated(i % 3);
        emit kind->activated(0);
        QTRY_VERIFY_WITH_TIMEOUT(!window.busy(), 20000);
        QVERIFY2(window.summary().startsWith("20000 parts"), qPrintable(window.summary()));
    }

    /// What goes wrong beside the window is said in it.
    void anExceptionInAWorkerIsANotice()
    {
        Job<int> job;
        QString said;
        bool done = false;
        job.start([](const JobTicket&) -> int { throw std::runtime_error("no room"); }, [&](int) { done = true; },
            [&](const std::exception& wrong) { said = wrong.what(); });
        QTRY_COMPARE(said, QString("no room"));
        QVERIFY(!done && !job.isRunning());
        // In a loop on several threads it ends the loop and comes out of it.
        std::atomic<int> begun = 0;
        QVERIFY_THROWS_EXCEPTION(std::runtime_error, parallelFor(10'000, 4, [&](std::size_t i) {
            ++begun;
            if (i == 7)
                throw std::runtime_error("seven");
            // The others are not over before it is heard of.
            std::this_thread::sleep_for(std::chrono::microseconds(50));
        }));
        QVERIFY(begun < 10'000);
        // A new one cancels the old, whose result never comes.
        QSemaphore go;
        std::vector<int> came;
        for (int i = 0; i < 3; ++i)
            job.start([&go, i](const JobTicket&) { go.acquire(); return i; }, [&](int result) { came.push_back(result); },
                [](const std::exception&) {});
        go.release(3);
        QTRY_COMPARE(came.size(), std::size_t { 1 });
        joinThreads();
        everythingShown();
        QCOMPARE(came, std::vector { 2 });
    }

    /// Undo keeps once what its steps have in common.
    void undoSharesWhatDidNotChange()
    {
        Build build = demo();
        auto before = Snapshot::of(build, nullptr);
        QVERIFY(before->build() == build);
        for (int i = 0; i < 5; ++i)
            build.tests[0].stops.push_back(build.tests[0].stops.front());
        const auto longer = Snapshot::of(build, before.get());
        QVERIFY(longer->build() == build);
        QCOMPARE(longer->ownElements(*before), std::size_t { 5 });
        build.setups[1].front->rotor.thickness.value = 0.0271;
        build.log.erase(build.log.begin());
        const auto next = Snapshot::of(build, longer.get());
        QVERIFY(next->build() == build);
        QCOMPARE(next->ownElements(*longer), std::size_t { 1 });
        QVERIFY(Snapshot::of(build, next.get())->ownElements(*next) == 0);
    }
};

DEEPSTOP_TEST(SeamsTest)
#include "seams_test.moc"
