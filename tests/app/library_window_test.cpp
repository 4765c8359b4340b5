/// The parts library in the real window: search, keep, lists taken in.

#include "app/shown.hpp"
#include "widgets/import_window.hpp"
#include "widgets/library_window.hpp"

#include <QFileDialog>

using namespace deepstop::app;

class LibraryWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init()
    {
        freshSettings();
        QFile::remove(LibraryStore().path());
    }

    void aPartIsPutInFromTheLibraryBySearch()
    {
        Shown s;
        s.window.setStage(BenchPage::id);
        auto* library = s.window.showLibrary();
        QTRY_VERIFY(library->list()->count() > 20);
        QTest::keyClicks(library->search(), "hullin pillar 325");
        QCOMPARE(library->list()->count(), 1);
        QVERIFY(library->list()->item(0)->text().contains("Ø 325.0 × 30.0"));
        QTest::keyClick(library->search(), Qt::Key_Return);
        QCOMPARE(s.window.document().build().setups[1].front->rotor.name, std::string("Hullin 325 × 30 pillar"));
        QCOMPARE(s.field(diameter)->text(), QString("Ø 325.0"));
        QVERIFY2(library->state().contains("as the library has it"), qPrintable(library->state()));
        s.window.document().setReading(thickness, { 0.0295, {}, Known::Measured, "vernier", {} });
        QVERIFY2(library->state().contains("differs from the library's: rotor thickness"), qPrintable(library->state()));
        // Kept from the bench, it is in the library of the next window.
        QTest::mouseClick(library->keepButton(), Qt::LeftButton);
        QVERIFY(library->state().contains("Kept"));
        s.window.library().finishWriting();
        LibraryStore again;
        const auto found = library::search(again.parts(), library::Kind::Rotor, "hullin pillar 325");
        QVERIFY(found.size() == 1 && found[0].about.find("29.5") != std::string::npos);
        s.window.document().undoStack().undo();
        s.window.document().undoStack().undo();
        QVERIFY(s.window.document().build() == demo());
    }

    /// Out of one car by the menu and into another: nothing of it is measured there, the new setup is the one compared, undo takes it out.
    void aKitGoesFromOneCarToAnother()
    {
        const QTemporaryDir folder;
        const auto path = folder.filePath("kit.json");
        const auto choose = [&](Shown& s, const QString& entry) {
            const auto actions = s.window.menuBar()->findChildren<QAction*>();
            const auto action = std::ranges::find_if(actions, [&](QAction* a) { return a->text() == entry; });
            QVERIFY2(action != actions.end(), qPrintable(entry));
            std::function<void()> type = [&] {
                auto* names = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
                if (!names || !QApplication::focusWidget() || QApplication::focusWidget()->window() != names) {
                    QTimer::singleShot(20, &s.window, type);
                    return;
                }
                QTest::keyClicks(QApplication::focusWidget(), path);
                QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
            };
            QTimer::singleShot(20, &s.window, type);
            (*action)->trigger();
        };
        {
            Shown s;
            choose(s, "Save this &kit as…");
            QTRY_VERIFY(QFile::exists(path));
        }
        Shown s(MainWindow::demoFolder() + "/linnet.deepstop");
        const Build before = s.build();
        choose(s, "Take &in a kit…");
        QTRY_COMPARE(s.build().setups.size(), before.setups.size() + 1);
        const Setup& taken = s.build().setups.back();
        QCOMPARE(taken.name, demo().setups[1].name);
        QVERIFY(taken.front->rotor.outerDiameter.known == Known::Vendor);
        QCOMPARE(s.known().after.setup->id, taken.id);
        s.window.document().undoStack().undo();
        QVERIFY(s.build() == before);
        // What is no kit is said, and nothing changes.
        QFile broken(folder.filePath("broken.json"));
        QVERIFY(broken.open(QIODevice::WriteOnly));
        broken.write("{}");
        broken.close();
        QVERIFY(!s.window.takeInKit(broken.fileName()));
        QVERIFY(s.window.notice()->text().contains("this is not a kit"));
        QVERIFY(s.build() == before);
    }

    /// The shelf of kits: kept from one car, added to another as a setup of its own.
    void aKitIsKeptOnItsShelf()
    {
        {
            Shown s;
            auto* library = s.window.showLibrary();
            library->setKind(library::Kind::Kit);
            QTRY_COMPARE(library->state(), QString("This shelf is empty."));
            const auto buttons = library->findChildren<QPushButton*>();
            QVERIFY(std::ranges::any_of(buttons, [](QPushButton* b) { return b->text() == "Import a kit…"; }));
            QTest::mouseClick(library->keepButton(), Qt::LeftButton);
            QVERIFY2(library->state().contains("nothing in it as measured"), qPrintable(library->state()));
            QTRY_COMPARE(library->list()->count(), 1);
            s.window.library().finishWriting();
        }
        Shown s(MainWindow::demoFolder() + "/linnet.deepstop");
        const Build before = s.build();
        auto* library = s.window.showLibrary();
        library->setKind(library::Kind::Kit);
        QTRY_COMPARE(library->list()->count(), 1);
        QVERIFY(library->list()->item(0)->text().contains("front: Varnik 330"));
        QTest::mouseClick(library->putButton(), Qt::LeftButton);
        QCOMPARE(s.build().setups.size(), before.setups.size() + 1);
        QCOMPARE(s.known().after.setup->id, s.build().setups.back().id);
    }

    void aListIsTakenInWithItsBadLinesShown()
    {
        QTemporaryDir dir;
        QFile file(dir.filePath("rotors.csv"));
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("name,Diameter,thickness_mm\nFirst,13 in,28\nSecond,wide,28\nThird,34,\n");
        file.close();
        LibraryStore store;
        ImportWindow window(store, nullptr);
        window.show();
        window.open(file.fileName());
        QTRY_COMPARE(window.refusedLines()->rowCount(), 1);
        QCOMPARE(window.refusedLines()->item(0, 0)->text(), QString("3"));
        QVERIFY(window.refusedLines()->item(0, 1)->text().contains("wide"));
        // A column meant in inches: said by hand, read again at once.
        auto* unit = qobject_cast<QComboBox*>(window.columns()->cellWidget(1, 2));
        unit->setCurrentText("in");
        emit unit->activated(unit->currentIndex());
        QTRY_VERIFY(!window.busy() && window.takeButton()->isEnabled());
        QTest::mouseClick(window.takeButton(), Qt::LeftButton);
        const auto found = library::search(store.parts(), library::Kind::Rotor, "third");
        QCOMPARE(found.size(), std::size_t(1));
        QVERIFY(found[0].about.find("863.6") != std::string::npos);
        // What is no list says so.
        QFile broken(dir.filePath("broken.csv"));
        QVERIFY(broken.open(QIODevice::WriteOnly));
        broken.write(QByteArray("\0\1\2", 3));
        broken.close();
        ImportWindow other(store, nullptr);
        other.open(broken.fileName());
        QTRY_VERIFY2(other.summary().contains("not text"), qPrintable(other.summary()));
        QVERIFY(!other.takeButton()->isEnabled());
    }

    void aLongListCanBeStopped()
    {
        QTemporaryDir dir;
        QFile file(dir.filePath("long.csv"));
        QVERIFY(file.open(QIODevice::WriteOnly));
        QByteArray text = "name,outer_diameter_mm,thickness_mm,face\n";
        for (int i = 0; i < 600000; ++i)
            text += "Rotor " + QByteArray::number(i) + ",330,28,plain\n";
        file.write(text);
        file.close();
        LibraryStore store;
        ImportWindow window(store, nullptr);
        window.show();
        window.open(file.fileName());
        QTRY_VERIFY(window.cancelButton()->isVisible());
        QTest::mouseClick(window.cancelButton(), Qt::LeftButton);
        QTRY_VERIFY(!window.busy());
        QTRY_VERIFY2(window.summary().contains("Stopped"), qPrintable(window.summary()));
        QVERIFY(!window.takeButton()->isEnabled());
    }

    void aDamagedLibraryOfTheUserIsLeftAlone()
    {
        LibraryStore store;
        QDir().mkpath(QFileInfo(store.path()).absolutePath());
        QFile file(store.path());
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("{ not a library");
        file.close();
        QSignalSpy refused(&store, &LibraryStore::refused);
        QVERIFY(!store.parts().rotors.empty()); // the shipped ones are there
        QCOMPARE(refused.count(), 1);
        library::Library more;
        more.rotors.push_back({ "x", {}, {} });
        QVERIFY(!store.add(more));
        QVERIFY(file.open(QIODevice::ReadOnly));
        QCOMPARE(file.readAll(), QByteArray("{ not a library"));
        file.remove();
    }
};

DEEPSTOP_TEST(LibraryWindowTest)
#include "library_window_test.moc"
