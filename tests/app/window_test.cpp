/// Files, stages, units, questions: the window around the sheets.

#include "app/shown.hpp"

#include <QDir>
#include <nlohmann/json.hpp>

class WindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void unitsChangeEverywhereAndBack()
    {
        Shown s;
        const auto weight = s.ledger("corner-weight");
        QTest::keyClick(&s.window, Qt::Key_M, Qt::ControlModifier);
        QCOMPARE(s.field(diameter)->text(), QString("Ø 12.992"));
        QVERIFY(s.field(diameter)->toolTip().contains("330.0 mm"));
        QVERIFY(s.ledger("corner-weight").contains("33.75"));
        QVERIFY(s.slipText().contains(QRegularExpression("[0-9][ \u00a0]in\\b")));
        QTest::keyClick(&s.window, Qt::Key_M, Qt::ControlModifier);
        QCOMPARE(s.ledger("corner-weight"), weight);
    }

    void theLedgerLeadsToTheStageBehindAFigure()
    {
        Shown s;
        QTest::mouseClick(s.cell("stop-distance"), Qt::LeftButton);
        QCOMPARE(s.window.stage(), StopPage::id);
        QTest::mouseClick(s.cell("off-centre"), Qt::LeftButton);
        QCOMPARE(s.window.stage(), CentringPage::id);
        QTest::mouseClick(s.rail()->button(HeatPage::id), Qt::LeftButton);
        QCOMPARE(s.window.stage(), HeatPage::id);
        QVERIFY(s.window.page<HeatPage>()->chart()->after().size() > 10);
        QVERIFY(s.window.page<HeatPage>()->chart()->after().last().y() < s.window.page<HeatPage>()->chart()->before().last().y());
    }

    void aCalloutLeadsToItsCheck()
    {
        Shown s;
        auto* callout = s.window.page(WheelPage::id)->view()->callout("front/spoke-gap");
        QVERIFY(callout && callout->isVisible());
        QTest::mouseClick(callout, Qt::LeftButton);
        QCOMPARE(s.window.slip()->chosen(), std::string("front/spoke-gap"));
        QVERIFY(s.slipText().contains("5.1 mm at worst"));
        emit s.window.slip()->browser()->anchorClicked(QUrl("check:front/bridge-gap"));
        QCOMPARE(s.window.slip()->chosen(), std::string("front/bridge-gap"));
        QVERIFY(!s.slipText().contains("Linear expansion"));
        emit s.window.slip()->browser()->anchorClicked(QUrl("method:"));
        QVERIFY(s.slipText().contains("Linear expansion"));
        QVERIFY(s.slipText().contains("It takes as said") && s.slipText().contains("friction ring's material"));
    }

    void aReadingOfAnotherStageIsGoneTo()
    {
        Shown s;
        s.window.setStage(StopPage::id);
        emit s.window.slip()->browser()->anchorClicked(QUrl("reading:/car/wheelbase_mm"));
        QCOMPARE(s.window.stage(), CarPage::id);
        QTRY_VERIFY(s.field("/car/wheelbase_mm")->hasFocus());
    }

    void theCautionStandsBesideWhatCanHurt()
    {
        Shown s;
        for (const StageId stage : { WheelPage::id, CentringPage::id, HeatPage::id, StopPage::id }) {
            s.window.setStage(stage);
            const Verdict* v = s.known().verdict(s.window.slip()->chosen());
            for (const Verdict& each : s.known().verdicts)
                if (stageOf(each.chapter).id == stage && !each.caution.empty()) {
                    s.window.slip()->choose(each.id);
                    QVERIFY2(s.slipText().contains(QString::fromStdString(each.caution)), each.id.c_str());
                }
            QVERIFY(v);
        }
    }

    void theRearIsShownOnRequest()
    {
        Shown s;
        auto* page = s.window.page(WheelPage::id);
        page->axleChoice()->setFocus();
        QTest::keyClick(page->axleChoice(), Qt::Key_Down);
        QVERIFY(page->view()->sheet().title.startsWith("Rear"));
        QVERIFY(s.field("/setups/0/rear/rotor/outer_diameter_mm"));
        QCOMPARE(s.field("/setups/0/rear/rotor/outer_diameter_mm")->text(), QString("Ø 280.0"));
        QVERIFY(s.slipText().contains("Rear axle: left as found"));
        // A check of the front brings the front back.
        s.window.slip()->choose("front/spoke-gap");
        QVERIFY(page->view()->sheet().title.startsWith("Front"));
    }

    void workLeftByACrashIsOffered()
    {
        const auto folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + "/recovery";
        QDir(folder).removeRecursively();
        QDir().mkpath(folder);
        auto file = files::loadBuild(merle().toStdString());
        file.build.car.name = "Left behind";
        const nlohmann::json kept { { "path", "" }, { "build", files::writeBuild(file) } };
        files::replaceFile((folder + "/4711-lost.json").toStdString(), kept.dump());
        {
            Shown s;
            s.window.offerRecovery();
            QVERIFY(s.window.notice()->isVisible());
            QVERIFY(s.window.notice()->text().contains("before this work was saved"));
            for (auto* button : s.window.notice()->findChildren<QPushButton*>())
                if (button->text() == "Open it") {
                    QTest::mouseClick(button, Qt::LeftButton);
                    break;
                }
            QCOMPARE(s.window.document().build().car.name, std::string("Left behind"));
            QVERIFY(s.window.isWindowModified());
        }
        QDir(folder).removeRecursively();
        Shown quiet;
        quiet.window.offerRecovery();
        QVERIFY(!quiet.window.notice()->isVisible());
    }

    void aFolderThatCannotBeWrittenIsSaid()
    {
        Shown s;
        QVERIFY(!s.window.saveTo("/nonexistent/folder/a.deepstop"));
        QVERIFY(s.window.notice()->isVisible());
        QVERIFY(s.window.notice()->text().contains("/nonexistent/folder/a.deepstop"));
    }

    void anotherSetupIsJudgedFromTheHeader()
    {
        Shown s;
        s.window.afterBox()->setFocus();
        QTest::keyClick(s.window.afterBox(), Qt::Key_Down);
        emit s.window.afterBox()->activated(s.window.afterBox()->currentIndex());
        QCOMPARE(s.known().after.setup->id, std::string("varnik-355"));
        QCOMPARE(s.cell("wheel-gap")->word(), QString("hits"));
    }

    void aBadFileIsSaidOnceAndTheOpenBuildStays()
    {
        Shown s;
        QTemporaryDir dir;
        const auto bad = dir.filePath("bad.deepstop");
        files::replaceFile(bad.toStdString(), "{\"deepstop\":1,\"setups\":[{\"id\":\"a\",\"front\":{\"rotor\":{\"thickness_mm\":-2}}}]}");
        QVERIFY(!s.window.openFile(bad));
        QVERIFY(s.window.notice()->isVisible());
        QVERIFY(s.window.notice()->text().contains("/setups/0/front/rotor/thickness_mm"));
        QVERIFY(s.window.notice()->text().contains("mm"));
        QCOMPARE(s.window.document().build().car.name, std::string("Halden Merle"));
        QVERIFY(s.window.openFile(merle()));
        QVERIFY(!s.window.notice()->isVisible());
    }

    void aFileDroppedOnTheWindowIsOpened()
    {
        Shown s;
        QMimeData data;
        data.setUrls({ QUrl::fromLocalFile(MainWindow::demoFolder() + "/linnet.deepstop") });
        QDragEnterEvent enter({ 50, 50 }, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&s.window, &enter);
        QVERIFY(enter.isAccepted());
        QDropEvent drop({ 50, 50 }, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&s.window, &drop);
        QCOMPARE(s.window.document().build().car.name, std::string("Linnet"));
    }

    void unsavedChangesAreAskedAbout()
    {
        Shown s;
        auto* field = s.field(thickness);
        field->setFocus();
        s.type(field, "27");
        QTest::keyClick(field, Qt::Key_Return);
        const auto answer = [](QMessageBox::StandardButton button) {
            QTimer::singleShot(50, [button] {
                if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget()))
                    QTest::mouseClick(box->button(button), Qt::LeftButton);
            });
        };
        answer(QMessageBox::Cancel);
        QVERIFY(!s.window.close());
        QVERIFY(s.window.isVisible());
        answer(QMessageBox::Discard);
        QVERIFY(s.window.close());
    }

    void recentFilesAreOffered()
    {
        QTemporaryDir dir;
        const auto path = dir.filePath("mine.deepstop");
        QFile::copy(merle(), path);
        {
            Shown s;
            QVERIFY(s.window.openFile(path));
        }
        Shown again;
        bool offered = false;
        for (const QAction* menu : again.window.menuBar()->actions())
            for (QAction* action : menu->menu()->actions())
                if (action->menu())
                    for (const QAction* entry : action->menu()->actions())
                        offered = offered || entry->text() == "mine.deepstop";
        QVERIFY(offered);
    }

    void unitsAndColoursAreRemembered()
    {
        {
            Shown s;
            QTest::keyClick(&s.window, Qt::Key_M, Qt::ControlModifier);
            QTest::keyClick(&s.window, Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
        }
        setDark(false);
        Shown again;
        QCOMPARE(again.window.document().units(), UnitSystem::Us);
        QVERIFY(theme().dark);
    }

    void quickSumsAnswerAsTheyAreTyped()
    {
        Shown s;
        QTest::keyClick(&s.window, Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
        auto* sums = s.window.quickSums();
        QVERIFY(sums && sums->isVisible());
        sums->choose("stop");
        QTest::keyClicks(sums->input("speed"), "35 mph");
        QVERIFY(sums->answer().isEmpty());
        QTest::keyClicks(sums->input("distance"), "5 m");
        QVERIFY(sums->answer().contains("2.50"));
        QTest::keyClicks(sums->input("grip"), "1.1");
        // Each line begins with the name of what is answered, in words.
        QVERIFY2(sums->answer().contains("<b>no</b>") && sums->answer().contains(">Mean deceleration<"), qPrintable(sums->answer()));
        sums->choose("offset");
        for (const auto& [key, text] : { std::pair { "et", "40" }, { "hat-before", "7.2" }, { "hat-after", "20.5" } })
            QTest::keyClicks(sums->input(key), text);
        QVERIFY(sums->answer().contains("13.300 mm"));
        QTest::keyClicks(sums->input("spacer"), "x");
        QVERIFY(sums->answer().isEmpty());
    }

    /// On a small screen, or a large one magnified: every stage shows its ledger whole.
    void twelveHundredBySixFortyShowsEverything()
    {
        Shown s;
        for (const StageId stage : stageIds()) {
            s.window.setStage(stage);
            s.window.resize(1200, 640);
            QTRY_COMPARE(s.window.size(), QSize(1200, 640));
            const auto* ledger = s.window.ledger();
            const QRect seen(ledger->mapTo(&s.window, QPoint(0, 0)), ledger->size());
            QVERIFY2(s.window.rect().contains(seen),
                qPrintable(QString("%1: ledger to %2, %3").arg(QString::fromUtf8(stage.data())).arg(seen.right()).arg(seen.bottom())));
            QCOMPARE(ledger->height(), 88);
        }
    }
};

DEEPSTOP_TEST(WindowTest)
#include "window_test.moc"
