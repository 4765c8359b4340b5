/// The job card and the logbook as their users work them: ticks by keys, a shut step that wants a reason, readings typed on the card, a day
/// written down, a calendar saved.

#include "app/bench_receiver.hpp"
#include "app/empty_build.hpp"
#include "print/leaf_window.hpp"
#include "report/sheets.hpp"
#include "stages/jobcard/bedding_view.hpp"
#include "stages/jobcard/card_page.hpp"
#include "stages/logbook/logbook_page.hpp"
#include "widgets/step_list.hpp"
#include "widgets/symptom_window.hpp"
#include "widgets/work_rail.hpp"

#include <QFileDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTextBrowser>

namespace {

struct AtCard : Shown {
    CardPage* page;
    explicit AtCard(int place = CardPage::Steps, const QString& file = merle()) : Shown(file), page(window.page<CardPage>())
    {
        window.resize(1280, 800);
        window.setStage(CardPage::id);
        page->setPlace(place);
        waited();
    }
};

} // namespace

class CardWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void stepsAreTickedByKeys()
    {
        AtCard s;
        auto* list = s.page->list();
        QVERIFY(list->lines().size() > 60);
        s.page->who()->setText("K. M.");
        list->goToFirstOpen();
        QTest::keyClick(list->lines()[0], Qt::Key_Space);
        QTRY_COMPARE(s.build().cards.size(), std::size_t { 1 });
        QCOMPARE(s.build().cards[0].ticks[0].step, list->lines()[0]->row().id);
        QCOMPARE(s.build().cards[0].ticks[0].who, "K. M.");
        s.waited();
        QVERIFY(list->lines()[1]->hasFocus());
        QTest::keyClick(list->lines()[1], Qt::Key_X);
        QTRY_COMPARE(s.build().cards[0].ticks.size(), std::size_t { 2 });
        s.waited();
        // The rail says how far it has come, and that there is a fault.
        QCOMPARE(stateOfCard(s.known()).first, Level::Stop);
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QTRY_COMPARE(s.build().cards[0].ticks.size(), std::size_t { 1 });
    }

    /// What cannot be undone is shut while the kit is off its middle: a reason opens it, and stands in the record.
    void aShutStepWantsAReason()
    {
        AtCard s;
        auto* cut = s.page->list()->line("front/left/cut-trim-the-dust-shield");
        QVERIFY(cut && cut->row().shut && cut->row().under.contains("locked until"));
        cut->setFocus();
        QTest::keyClick(cut, Qt::Key_Space);
        QTRY_VERIFY(s.page->reason()->isVisible());
        QVERIFY(s.build().cards.empty());
        QSignalSpy refused(s.page, &StagePage::refused);
        QTest::mouseClick(s.page->openIt(), Qt::LeftButton);
        QCOMPARE(refused.count(), 1);
        QTest::keyClicks(s.page->reason(), "spare shield at hand");
        QTest::keyClick(s.page->reason(), Qt::Key_Return);
        QTRY_COMPARE(s.build().cards.size(), std::size_t { 1 });
        QCOMPARE(s.build().cards[0].openings[0].reason, "spare shield at hand");
        s.waited();
        cut = s.page->list()->line("front/left/cut-trim-the-dust-shield");
        QVERIFY(!cut->row().shut && cut->row().under.contains("spare shield at hand"));
        QTest::keyClick(cut, Qt::Key_Space);
        QTRY_COMPARE(s.build().cards[0].ticks.size(), std::size_t { 1 });
    }

    /// Pads and hoses: what the job does not need is folded, and one button takes it in; an own step is written in behind the one in hand.
    void theInspectionIsTakenInAndOwnStepsAreWritten()
    {
        AtCard s(CardPage::Steps, QStringLiteral(DEEPSTOP_TESTS "/data/jobs/pads-and-hoses.deepstop"));
        const auto shown = s.page->list()->lines().size();
        QVERIFY2(shown <= 16, qPrintable(QString::number(shown)));
        QVERIFY(s.page->inspection()->isVisible() && s.page->inspection()->text().contains("more"));
        QTest::mouseClick(s.page->inspection(), Qt::LeftButton);
        s.waited();
        QVERIFY(s.page->list()->lines().size() > shown + 10);
        QVERIFY(s.build().cards[0].inspection == YesNo::Yes);
        QTest::mouseClick(s.page->inspection(), Qt::LeftButton);
        s.waited();
        QCOMPARE(s.page->list()->lines().size(), shown);
        s.page->list()->line("rear/hose")->setFocus();
        everythingShown();
        QTest::keyClicks(s.page->ownStep(), "Clip on the arm");
        QTest::keyClick(s.page->ownStep(), Qt::Key_Return);
        s.waited();
        QCOMPARE(s.page->list()->lines().size(), shown + 1);
        const auto& own = s.build().cards[0].ownSteps;
        QVERIFY(own.size() == 1 && own[0].after == "rear/hose" && own[0].text == "Clip on the arm");
        auto* line = s.page->list()->line("own/" + own[0].id.text);
        QVERIFY(line && s.page->ownStep()->text().isEmpty());
        QTest::keyClick(line, Qt::Key_Space);
        QTRY_COMPARE(s.build().cards[0].ticks.size(), std::size_t { 1 });
    }

    /// At the car only what is on the card is gone through: folded steps are neither shown nor counted.
    void atTheCarFoldedStepsArePassedOver()
    {
        AtCard s(CardPage::AtCar, QStringLiteral(DEEPSTOP_TESTS "/data/jobs/pads-and-hoses.deepstop"));
        const auto card = jobcard::cardOf(s.known());
        QVERIFY(card.folded() > 10);
        for (int i = 0; i < card.shown(); ++i) {
            QVERIFY2(s.page->view()->sheet().title.contains(QString("step %1 of %2").arg(i + 1).arg(card.shown())),
                qPrintable(s.page->view()->sheet().title));
            QTest::mouseClick(s.page->done(), Qt::LeftButton);
            s.waited();
        }
        for (const Tick& tick : s.build().cards.at(0).ticks)
            QVERIFY2(card.shows(*card.step(tick.step)), tick.step.c_str());
    }

    /// A symptom is chosen by key, its first cause is this car's, and the link of a test leads to where its reading is typed.
    void aSymptomLeadsToAReading()
    {
        Shown s(merle());
        QTest::keyClick(&s.window, Qt::Key_F7);
        auto* causes = s.window.symptomWindow();
        QVERIFY(causes && causes->isVisible());
        QCOMPARE(causes->focusWidget(), causes->symptoms());
        s.waited();
        QVERIFY(causes->causes()->toPlainText().startsWith("Hard pedal"));
        QTest::keyClick(causes->symptoms(), Qt::Key_Down);
        QVERIFY(
            causes->causes()->toPlainText().contains("Long or soft pedal") && causes->causes()->toPlainText().contains("Air in a line"));
        emit causes->causes()->anchorClicked(QUrl(QStringLiteral("reading:/setups/0/hydraulics/master_stroke_mm")));
        QTRY_VERIFY(s.window.page()->view()->field("/setups/0/hydraulics/master_stroke_mm"));
    }

    /// At the car: one step in large letters, its readings typed there land in the build.
    void readingsAreTypedOnTheCard()
    {
        AtCard s(CardPage::Steps);
        s.page->list()->line("front/left/runout")->setFocus();
        everythingShown();
        QCOMPARE(s.page->step(), "front/left/runout");
        s.page->setPlace(CardPage::AtCar);
        everythingShown();
        const std::string runout = "/setups/1/front/left/runout_mm";
        QVERIFY(std::ranges::any_of(s.page->view()->sheet().dimensions, [&](const DimensionLine& d) { return d.pointer == runout; }));
        s.enter(runout, "0.04");
        s.waited();
        QVERIFY(near(*s.build().setups[1].front->left.runout.value, 0.04e-3, 1e-9));
        s.page->done()->setFocus();
        QTest::keyClick(s.page->done(), Qt::Key_Space);
        QTRY_COMPARE(s.build().cards.size(), std::size_t { 1 });
        QCOMPARE(s.build().cards[0].ticks[0].step, "front/left/runout");
        QVERIFY(s.page->step() != "front/left/runout");
        // Ticked, it takes what was noticed, a picture's place and the time it took.
        s.waited();
        s.page->setPlace(CardPage::Steps);
        s.page->list()->line("front/left/runout")->setFocus();
        everythingShown();
        const auto& facts = s.page->view()->sheet().facts;
        QVERIFY(std::ranges::any_of(facts, [](const FactLine& f) { return f.pointer == "/cards/0/ticks/0/photo"; }));
    }

    /// Bedding guided by a receiver: a slow-down is asked for, driven and counted; the receiver gone, nothing more is.
    void beddingIsGuidedLive()
    {
        AtCard s(CardPage::Bedding);
        auto* view = s.page->bedding();
        QCOMPARE(view->drive().plan().passes.size(), std::size_t { 10 });
        QCOMPARE(view->words()[1], QStringLiteral("not connected"));
        BenchReceiver bench(
            { "--stops", "1", "--speed", "98", "--to", "47", "--deceleration", "4.3", "--build-up", "0.3", "--drive-on", "30" });
        view->address()->setCurrentText(bench.address);
        QTest::mouseClick(view->connection(), Qt::LeftButton);
        QTRY_VERIFY_WITH_TIMEOUT(view->words()[1].contains("slow down to"), 25000);
        QTRY_COMPARE_WITH_TIMEOUT(view->drive().counted(), 1, 15000);
        QVERIFY2(view->words()[1].contains("drive on") && view->words()[2].startsWith("1 of 10"), qPrintable(view->words().join('|')));
        bench.process.kill();
        QTRY_COMPARE_WITH_TIMEOUT(view->words()[1], QStringLiteral("the receiver is gone"), 8000);
        QVERIFY(s.build().cards.empty());
        // The end of a drive ticks its steps and is a day in the log.
        const auto days = s.build().log.size();
        emit view->bedded(0);
        QTRY_COMPARE(s.build().log.size(), days + 1);
        QCOMPARE(s.build().cards.at(0).ticks.front().step.substr(0, 7), "car/bed");
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QTRY_COMPARE(s.build().log.size(), days);
    }

    void cardAndSheetGoOnPaper()
    {
        AtCard s;
        const Study& study = s.known();
        QTemporaryDir folder;
        LeafWindow window(report::jobCard(study, jobcard::cardOf(study), "2026-05-02"), &s.window);
        window.show();
        everythingShown();
        QVERIFY(window.view()->pages().size() > 3);
        QCOMPARE(window.save(folder.filePath("card.pdf")), QString());
        QCOMPARE(window.save(folder.filePath("card.html")), QString());
        QVERIFY(QFileInfo(folder.filePath("card.pdf")).size() > 10'000);
        QVERIFY(!window.save(folder.filePath("card.odt")).isEmpty());
        window.paper()->setCurrentIndex(1);
        QVERIFY(std::abs(window.view()->pages()[0].width - 215.9e-3) < 1e-6);
    }

    /// From nothing to paper without a mouse: car, kit, first step ticked, the card saved from its window.
    void fromAnEmptyBuildToAPrintedCardByKeyboard()
    {
        auto kit = demo();
        kit.setups[1].front->pad.frictionOverTemperature.clear();
        kit.setups[1].front->wheel.clear();
        Empty s;
        QTRY_COMPARE(s.at(), std::string("/setups/1/front/rotor/name"));
        for (int i = 0; i < 200 && enterNext(s, kit); ++i) { }
        QTest::keyClick(&s.window, Qt::Key_1, Qt::ControlModifier);
        QTest::keyClick(&s.window, Qt::Key_F2);
        for (int i = 0; i < 60 && enterNext(s, kit); ++i) { }
        QVERIFY(near(*s.build().car.mass.value, *kit.car.mass.value, 1e-9));
        QVERIFY(near(*s.build().setups[1].front->rotor.outerDiameter.value, *kit.setups[1].front->rotor.outerDiameter.value, 1e-9));
        QTest::keyClick(&s.window, Qt::Key_8, Qt::ControlModifier);
        s.waited();
        auto* page = s.window.page<CardPage>();
        QVERIFY(page->list()->lines().size() > 40);
        // Nothing of it is proven, so nothing that cannot be undone is open.
        for (const auto& step : jobcard::cardOf(s.known()).steps)
            QVERIFY2(!step.irreversible || !step.open, step.id.c_str());
        const auto tabTo = [&](QWidget* wanted) {
            for (int i = 0; i < 300 && s.focus() != wanted; ++i)
                QTest::keyClick(s.focus() ? s.focus() : &s.window, Qt::Key_Tab);
            return s.focus() == wanted;
        };
        QVERIFY(tabTo(page->list()->lines().front()));
        QTest::keyClick(s.focus(), Qt::Key_Space);
        QTRY_COMPARE(s.build().cards.size(), std::size_t { 1 });
        s.waited();
        QVERIFY(tabTo(page->cardOnPaper()));
        const QTemporaryDir folder;
        const auto path = folder.filePath("card.pdf");
        // One look after another: a timer that is still at work is not asked again, and each window waits within the last.
        bool over = false;
        std::function<void()> look = [&] {
            if (over)
                return;
            QTimer::singleShot(50, &s.window, look);
            auto* top = QApplication::activeModalWidget();
            if (auto* names = qobject_cast<QFileDialog*>(top)) {
                QTest::keyClicks(QApplication::focusWidget(), path);
                QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
                if (QFile::exists(path))
                    QTest::keyClick(names, Qt::Key_Escape);
            } else if (top && QFile::exists(path)) {
                QTest::keyClick(top, Qt::Key_Escape);
            } else if (auto* leaf = qobject_cast<LeafWindow*>(top)) {
                // It may not have taken the focus yet: the button behind it would open another.
                if (!QApplication::focusWidget() || QApplication::focusWidget()->window() != leaf)
                    return;
                while (!qobject_cast<QPushButton*>(QApplication::focusWidget()))
                    QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : leaf, Qt::Key_Tab);
                QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
            }
        };
        QTimer::singleShot(50, &s.window, look);
        QTest::keyClick(page->cardOnPaper(), Qt::Key_Space);
        over = true;
        QFile card(path);
        QVERIFY(card.open(QIODevice::ReadOnly));
        QVERIFY(card.size() > 10'000 && card.read(5) == "%PDF-");
        const auto text = answerOf("pdftotext", { "-layout", path, "-" });
        QVERIFY2(text.contains("New kit") && text.contains("life-critical"), text.left(600).constData());
        QVERIFY2(text.contains(QByteArray::number(page->list()->lines().size() - 1) + " of them open"), text.left(600).constData());
    }

    /// The procedures: a choice on the sheet changes the card's steps.
    void aSchoolIsChosen()
    {
        AtCard s;
        Build build = s.build();
        build.cards.push_back({});
        build.cards[0].setup = "varnik-330";
        build.cards[0].bedding = Bedding::WarmThenHard;
        put(s.window.document(), build, "procedure");
        s.waited();
        QVERIFY(s.page->list()->line("car/bed-1")->row().text.contains("Warm, then hard"));
        s.page->setPlace(CardPage::Choices);
        everythingShown();
        QVERIFY(std::ranges::any_of(s.page->view()->sheet().facts, [](const FactLine& f) { return f.pointer == "/cards/0/bedding"; }));
        s.page->setPlace(CardPage::Lift);
        everythingShown();
        QVERIFY(s.page->view()->sheet().areas.size() > 10);
    }

    void aDayIsWrittenDown()
    {
        AtCard s;
        s.window.setStage(LogbookPage::id);
        auto* log = s.window.page<LogbookPage>();
        everythingShown();
        const auto entries = s.build().log.size();
        QTest::mouseClick(log->readWear(), Qt::LeftButton);
        s.waited();
        QCOMPARE(s.build().log.size(), entries + 1);
        QCOMPARE(s.build().log.back().wear.size(), std::size_t { 4 });
        QCOMPARE(*log->entry(), entries);
        s.enter("/log/" + std::to_string(entries) + "/odometer_km", "56000 mi");
        s.waited();
        QVERIFY(near(*s.build().log.back().odometer.value, 56000 * 1609.344, 1e-6));
        // A click on the line takes that day in hand.
        QVERIFY(!log->view()->sheet().callouts.empty());
        emit log->view()->verdictChosen("log-0");
        everythingShown();
        QCOMPARE(*log->entry(), std::size_t { 0 });
        QTemporaryDir folder;
        QCOMPARE(log->saveCalendar(folder.filePath("due.ics")), QString());
        QVERIFY(!log->saveCalendar("/nowhere/at/all.ics").isEmpty());
        log->setPlace(LogbookPage::Wear);
        everythingShown();
        QVERIFY(std::ranges::any_of(log->view()->sheet().letters, [](const Lettering& l) { return l.text.contains("at its minimum at"); }));
    }

    void looksHoldDayAndNight()
    {
        for (const bool dark : { false, true })
            for (const char* file : { "halden-merle", "linnet", "drover-camper" }) {
                AtCard s(CardPage::Steps, QStringLiteral(DEEPSTOP_DATA "/demo/%1.deepstop").arg(file));
                setDark(dark);
                for (const int place : { CardPage::Steps, CardPage::AtCar, CardPage::Choices, CardPage::Bedding, CardPage::Lift }) {
                    s.page->setPlace(place);
                    everythingShown();
                    QVERIFY(!s.window.grab().isNull());
                }
            }
        setDark(false);
    }
};

DEEPSTOP_TEST(CardWindowTest)
#include "card_window_test.moc"
