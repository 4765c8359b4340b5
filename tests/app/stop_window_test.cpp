/// Proving as its users drive it: a plan inspected, stops typed in, a logger's file taken, a receiver heard live; stalls and floods enter
/// nothing.

#include "app/bench_receiver.hpp"
#include "app/shown.hpp"
#include "instruments/receiver.hpp"
#include "drawing/fact_field.hpp"
#include "files/build_file.hpp"
#include "stages/stop/live_view.hpp"
#include "window/stages.hpp"
#include "stages/stop/stop_sheets.hpp"
#include "widgets/log_columns_window.hpp"
#include "widgets/step_list.hpp"

#include <QComboBox>
#include <QProgressBar>
#include <QPushButton>
#include <QTemporaryDir>

namespace {

struct AtStop : Shown {
    StopPage* page;
    explicit AtStop(int place, const QString& file = merle()) : Shown(file), page(window.page<StopPage>())
    {
        window.resize(1280, 800);
        window.setStage(StopPage::id);
        page->setPlace(place);
        everythingShown();
        waited();
    }
    [[nodiscard]] const Sheet& sheet() const { return page->view()->sheet(); }
    [[nodiscard]] bool says(const QString& text) const
    {
        return std::ranges::any_of(sheet().letters, [&](const Lettering& l) { return l.text.contains(text); });
    }
};

/// Does something in the columns' window, once it has opened.
template <class Do>
void atColumns(AtStop& s, Do act)
{
    auto* look = new QTimer(&s.window);
    QObject::connect(look, &QTimer::timeout, &s.window, [look, act] {
        if (auto* window = qobject_cast<LogColumnsWindow*>(QApplication::activeModalWidget())) {
            look->deleteLater();
            act(window);
        }
    });
    look->start(5);
}

} // namespace

class StopWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    /// Entered by keyboard, saved, opened again: what was seen, felt and read on a tester.
    void whatWasSeenIsEnteredByKeyboard()
    {
        AtStop s(StopPage::Observed);
        const std::string at = "/tests/" + std::to_string(*lastSession(s.window.document().study(), Series::Compare));
        const std::size_t index = std::stoul(at.substr(at.rfind('/') + 1));
        const auto choose = [&](const std::string& pointer, auto done) {
            auto* fact = s.page->view()->fact(pointer);
            QVERIFY2(fact && fact->isVisible(), pointer.c_str());
            fact->editor()->setFocus();
            for (int i = 0; i < 6 && !done(s.build().tests[index]); ++i) {
                QTest::keyClick(fact->editor(), Qt::Key_Down);
                s.waited();
                fact = s.page->view()->fact(pointer);
            }
            QVERIFY2(done(s.build().tests[index]), pointer.c_str());
        };
        choose(at + "/locked_first", [](const TestSession& t) { return t.lockedFirst == LockedFirst::Rear; });
        choose(at + "/fade_felt", [](const TestSession& t) { return t.fadeFelt == FadeFelt::Smell; });
        s.enter(at + "/tester_front_left_n", "2100");
        s.enter(at + "/tester_front_right_n", "1300");
        s.waited();
        const Study& study = s.window.document().study();
        QCOMPARE(study.verdict("stop/locked-first-" + std::to_string(index + 1))->level, Level::Stop);
        QCOMPARE(study.verdict("stop/tester-front-" + std::to_string(index + 1))->level, Level::Stop);
        QTemporaryDir folder;
        s.window.document().save(folder.filePath("seen.deepstop"));
        const Build opened = files::loadBuild(folder.filePath("seen.deepstop").toStdString()).build;
        QCOMPARE(opened.tests[index].lockedFirst, LockedFirst::Rear);
        QCOMPARE(opened.tests[index].fadeFelt, FadeFelt::Smell);
        QCOMPARE(*opened.tests[index].testerFrontRight.value, 1300.0);
    }

    /// Fields that came with document 3.3, each on its sheet: typed or chosen by keys, saved, opened again.
    void fieldsOfDocument33TakeKeys_data()
    {
        QTest::addColumn<QByteArray>("stage");
        QTest::addColumn<int>("place");
        QTest::addColumn<QByteArray>("pointer");
        QTest::addColumn<QString>("typed"); // empty: chosen
        QTest::newRow("pad with its backing") << QByteArray("parts-bench") << 2 << QByteArray("/setups/1/front/pad/overall_mm") << "17.5";
        QTest::newRow("booster") << QByteArray("balance") << 0 << QByteArray("/setups/0/hydraulics/booster_test") << QString();
        QTest::newRow("shield") << QByteArray("wheel-clearance") << int(WheelPage::Behind) << QByteArray("/front_hub/shield_in_the_way") << QString();
        QTest::newRow("reservoir") << QByteArray("job-card") << 2 << QByteArray("/cards/N/reservoir_ran_dry") << QString();
        QTest::newRow("off on the lift") << QByteArray("job-card") << 4 << QByteArray("/cards/N/off/-/what") << "engine";
    }
    void fieldsOfDocument33TakeKeys()
    {
        QFETCH(QByteArray, stage);
        QFETCH(int, place);
        QFETCH(QByteArray, pointer);
        QFETCH(QString, typed);
        Shown s(merle());
        const Stage* found = nullptr;
        for (const Stage& each : stages())
            if (each.id == stage.toStdString())
                found = &each;
        QVERIFY(found);
        s.window.setStage(found->id);
        auto* page = s.window.page(found->id);
        page->setPlace(place);
        everythingShown();
        s.waited();
        const Build before = s.build();
        const auto& cards = before.cards;
        const auto card = std::ranges::find(cards, s.window.document().study().after.setup->id, &JobCard::setup);
        const std::string where = pointer.replace("N", QByteArray::number(static_cast<int>(card - cards.begin()))).toStdString();
        if (page->view()->field(where)) {
            s.enter(where, typed);
        } else {
            auto* fact = page->view()->fact(where);
            QVERIFY2(fact && fact->isVisible(), where.c_str());
            fact->editor()->setFocus();
            if (typed.isEmpty())
                QTest::keyClick(fact->editor(), Qt::Key_Down);
            else
                s.type(fact->editor(), typed);
            QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
            s.waited();
        }
        QVERIFY(s.build() != before);
        QTemporaryDir folder;
        s.window.document().save(folder.filePath("entered.deepstop"));
        QVERIFY(files::loadBuild(folder.filePath("entered.deepstop").toStdString()).build == s.build());
        s.window.document().undoStack().undo();
        QVERIFY(s.build() == before);
    }

    void thePredictionSaysWhatHoldsEachStop()
    {
        AtStop s(StopPage::Prediction);
        QVERIFY(s.says("the front tyres") && s.says("faded pads") && s.says("before, hot"));
        QVERIFY(s.sheet().subtitle.contains("a hill climb"));
        // A kit whose fluid boils on the way stops no more, and the sheet says so.
        Build build = s.build();
        build.setups[0].hydraulics->dryBoiling = { 295.5, 0.1, Known::Measured, {}, {} };
        build.setups[0].hydraulics->wetBoiling = { 295, 0.1, Known::Measured, {}, {} };
        put(s.window.document(), build, "old fluid");
        s.waited();
        QVERIFY(s.says("fluid boils at braking"));
        QCOMPARE(s.known().verdict("stop/saves")->level, Level::Stop);
    }

    /// A notebook's line becomes stops of the session: read, or refused with what was not understood, and nothing is lost.
    void severalStopsAreTypedInOneLine()
    {
        AtStop s(StopPage::Runs);
        auto* line = s.page->findChild<QLineEdit*>(QStringLiteral("pasted-stops"));
        QVERIFY(line && line->isVisible());
        const auto count = [&] {
            std::size_t all = 0;
            for (const TestSession& t : s.build().tests)
                all += t.stops.size();
            return all;
        };
        const std::size_t before = count();
        QSignalSpy refused(s.page, &StagePage::refused);
        QTest::keyClicks(line, "from 60 mph, out: 171 17x 178 ft");
        QTest::keyClick(line, Qt::Key_Return);
        QCOMPARE(refused.count(), 1);
        QVERIFY(refused.front().front().toString().contains("17x") && count() == before);
        QCOMPARE(line->text(), QStringLiteral("from 60 mph, out: 171 17x 178 ft"));
        line->setFocus();
        line->selectAll();
        QTest::keyClicks(line, "from 60 mph, out: 171 171 178 179 175 ft");
        QTest::keyClick(line, Qt::Key_Return);
        QTRY_COMPARE(count(), before + 5);
        QVERIFY(line->text().isEmpty());
        // One step of undo takes all of them back.
        s.window.document().undoStack().undo();
        QCOMPARE(count(), before);
    }

    void theInspectionIsTickedByKeys()
    {
        AtStop s(StopPage::Plan);
        auto* list = s.page->inspection();
        QVERIFY(list->lines().size() > 15 && s.page->planText().contains("each way"));
        const auto sessions = s.build().tests.size();
        list->goToFirstOpen();
        QTest::keyClick(list->lines().front(), Qt::Key_Space);
        QTRY_COMPARE(s.build().tests.size() >= sessions, true);
        QTRY_VERIFY(std::ranges::any_of(s.build().tests, [](const TestSession& t) { return !t.inspected.empty(); }));
        s.waited();
        QTRY_COMPARE(list->lines().front()->row().state, Checked::Fine);
        QVERIFY(list->lines()[1]->hasFocus());
        QTest::keyClick(list->lines()[1], Qt::Key_X);
        QTRY_COMPARE(list->lines()[1]->row().state, Checked::Fault);
    }

    /// A stop typed with keys into the free row counts at once, and the means follow.
    void aStopIsTypedIn()
    {
        AtStop s(StopPage::Runs);
        const auto last = s.build().tests.size();
        QTest::mouseClick(s.page->begin(), Qt::LeftButton);
        s.waited();
        QCOMPARE(s.build().tests.size(), last + 1);
        QVERIFY(s.build().tests.back().ran);
        const std::string at = "/tests/" + std::to_string(last) + "/stops/";
        s.enter(at + "-/speed_kmh", "60 mph");
        s.waited();
        QCOMPARE(s.build().tests.back().stops.size(), std::size_t { 1 });
        s.enter(at + "0/distance_m", "140 ft 6 in");
        s.waited();
        QVERIFY(near(*s.build().tests.back().stops[0].distance.value, (140 * 12 + 6) * 0.0254, 1e-9));
        QVERIFY(near(*s.build().tests.back().stops[0].speed.value, 60 * 0.44704, 1e-9));
    }

    void aLoggersFileIsTakenAndAWrongOneRefused()
    {
        AtStop s(StopPage::Runs);
        instruments::ReceiverScene scene;
        scene.stops.assign(4, { 100 / 3.6, 8.5 });
        instruments::Receiver receiver(scene);
        QTemporaryDir folder;
        QFile log(folder.filePath("morning.nmea"));
        QVERIFY(log.open(QIODevice::WriteOnly));
        while (!receiver.over())
            log.write(QByteArray::fromStdString(receiver.next()));
        log.close();
        const auto sessions = s.build().tests.size();
        s.page->takeLog(log.fileName());
        QTRY_COMPARE_WITH_TIMEOUT(s.build().tests.size(), sessions + 1, 10000);
        QCOMPARE(s.build().tests.back().stops.size(), std::size_t { 4 });
        QCOMPARE(s.build().tests.back().from, MeasuredFrom::Hold);
        QSignalSpy refused(s.page, &StagePage::refused);
        s.page->takeLog(folder.filePath("none.nmea"));
        QTRY_COMPARE(refused.count(), 1);
        QFile wrong(folder.filePath("wrong.nmea"));
        QVERIFY(wrong.open(QIODevice::WriteOnly));
        wrong.write("$GPRMC,090000.00,A,4700.0,N,00900.0,E,10,0,140326,,,A*00\n");
        wrong.close();
        s.page->takeLog(wrong.fileName());
        QTRY_COMPARE(refused.count(), 2);
        QVERIFY(refused.back()[0].toString().contains("checksum"));
        QCOMPARE(s.build().tests.size(), sessions + 1);
    }

    /// Each logged stop among the others and beside the prediction; one with a hole in it is broken there and says why.
    void tracesStandBesideTheirNeighbours()
    {
        AtStop s(StopPage::Traces);
        Build build = s.build();
        build.tests.clear();
        put(s.window.document(), build, "no sessions");
        s.waited();
        QVERIFY(s.says("A tape leaves no trace"));
        instruments::ReceiverScene scene;
        scene.stops.assign(5, { 100 / 3.6, 8.5 });
        instruments::Receiver receiver(scene);
        QTemporaryDir folder;
        QFile log(folder.filePath("day.nmea"));
        QVERIFY(log.open(QIODevice::WriteOnly));
        // Half a second of the third stop is lost.
        double last = 0;
        for (int stop = -1; !receiver.over();) {
            const double now = receiver.time();
            const auto sentences = receiver.next();
            stop += last < 1 && receiver.speedAt(now) >= 1;
            last = receiver.speedAt(now);
            if (stop != 2 || receiver.speedAt(now) > 20 || receiver.speedAt(now) < 15)
                log.write(QByteArray::fromStdString(sentences));
        }
        log.close();
        s.page->takeLog(log.fileName());
        QTRY_COMPARE_WITH_TIMEOUT(s.build().tests.size(), std::size_t { 1 }, 10000);
        s.waited();
        const auto& stops = s.build().tests[0].stops;
        QCOMPARE(stops.size(), std::size_t { 5 });
        QVERIFY(std::ranges::all_of(stops, [](const MeasuredStop& each) { return each.course.size() > 50; }));
        QVERIFY(s.says("1: ") && s.says("5: ") && s.says("peak") && s.says("no moments for"));
        // Of five panels one is left out, and every other shows itself, the four others and the prediction.
        QCOMPARE(std::ranges::count_if(stops, [](const MeasuredStop& each) { return each.leftOut.empty(); }), 4);
        const auto dashed = std::ranges::count_if(s.sheet().areas, [](const Area& a) { return a.ink.line == Qt::DashLine; });
        QCOMPARE(dashed, 5);
    }

    /// A log whose columns do not say their unit is not read before somebody has said it.
    void columnsAreSaidByHand()
    {
        AtStop s(StopPage::Runs);
        QTemporaryDir folder;
        QFile log(folder.filePath("box.csv"));
        QVERIFY(log.open(QIODevice::WriteOnly));
        log.write("Clock,Velocity,Remark\n");
        for (int i = 0; i < 160; ++i)
            log.write(QStringLiteral("%1,%2,x\n").arg(i / 10.0).arg(i < 80 ? 60.0 : std::max(0.0, 60 - 1.8 * (i - 80))).toUtf8());
        log.close();
        const auto sessions = s.build().tests.size();
        // Sent away, nothing is read.
        bool sentAway = false;
        atColumns(s, [&](LogColumnsWindow* window) {
            QTest::keyClick(window, Qt::Key_Escape);
            sentAway = true;
        });
        s.page->takeLog(log.fileName());
        QTRY_VERIFY(sentAway);
        everythingShown();
        QCOMPARE(s.build().tests.size(), sessions);
        QString before;
        atColumns(s, [&](LogColumnsWindow* window) {
            before = window->summary();
            QVERIFY(!window->takeButton()->isEnabled());
            QTest::keyClicks(window->kind(0), "time");
            QTest::keyClicks(window->kind(1), "speed");
            // A speed without a unit is no speed.
            QVERIFY(!window->takeButton()->isEnabled() && window->summary().contains("unit"));
            QTest::keyClicks(window->unit(1), "mph");
            QVERIFY2(window->takeButton()->isEnabled(), qPrintable(window->summary()));
            QTest::mouseClick(window->takeButton(), Qt::LeftButton);
        });
        s.page->takeLog(log.fileName());
        QTRY_COMPARE(s.build().tests.size(), sessions + 1);
        QVERIFY(before.contains("no column is the time"));
        QVERIFY(near(*s.build().tests.back().stops.at(0).speed.value, 60 * 0.44704, 1e-3));
    }

    /// A receiver that falls silent in the middle of a stop has told of none, and says so no more.
    void aStallEntersNothing()
    {
        AtStop s(StopPage::Live);
        // It drives up to 50 km/h and falls silent within the stop.
        BenchReceiver bench({ "--stops", "1", "--speed", "50", "--deceleration", "4", "--stall-after", "13.2" });
        const auto sessions = s.build().tests.size();
        s.page->live()->address()->setCurrentText(bench.address);
        QTest::mouseClick(s.page->live()->connection(), Qt::LeftButton);
        QTRY_VERIFY_WITH_TIMEOUT(s.page->live()->words()[1] == "braking", 20000);
        QTRY_COMPARE_WITH_TIMEOUT(s.page->live()->words()[1], QStringLiteral("nothing comes"), 8000);
        QCOMPARE(s.page->live()->words()[0], QStringLiteral("–"));
        QCOMPARE(s.build().tests.size(), sessions);
    }

    /// Live: the receiver drives one stop, the page finds it and enters it; gone, it says so and enters nothing more.
    void aReceiverIsHeardLive()
    {
        AtStop s(StopPage::Live);
        BenchReceiver bench({ "--stops", "1", "--speed", "40", "--deceleration", "7", "--rate", "10", "--for", "30" });
        QVERIFY(!bench.address.isEmpty());
        const auto sessions = s.build().tests.size();
        s.page->live()->address()->setCurrentText(bench.address);
        QTest::mouseClick(s.page->live()->connection(), Qt::LeftButton);
        QTRY_VERIFY_WITH_TIMEOUT(s.page->live()->words()[0].contains("km/h"), 8000);
        QTRY_COMPARE_WITH_TIMEOUT(s.build().tests.size(), sessions + 1, 25000);
        const MeasuredStop& stop = s.build().tests.back().stops.front();
        QVERIFY(near(*stop.speed.value, 40 / 3.6, 0.02) && near(*stop.distance.value, std::pow(40 / 3.6, 2) / 14, 0.03));
        QVERIFY(s.page->live()->words()[2].startsWith("stop 1"));
        bench.process.kill();
        QTRY_COMPARE_WITH_TIMEOUT(s.page->live()->words()[1], QStringLiteral("the receiver is gone"), 8000);
        QCOMPARE(s.build().tests.back().stops.size(), std::size_t { 1 });
    }

    /// One that floods tells of stops faster than any car drives: nothing of it is entered.
    void aFloodEntersNothing()
    {
        AtStop s(StopPage::Live);
        BenchReceiver bench({ "--stops", "50", "--speed", "100", "--flood" });
        const auto sessions = s.build().tests.size();
        s.page->live()->address()->setCurrentText(bench.address);
        QTest::mouseClick(s.page->live()->connection(), Qt::LeftButton);
        QTRY_VERIFY_WITH_TIMEOUT(s.page->live()->words()[1].contains("nothing counts"), 8000);
        QTest::qWait(1500);
        QCOMPARE(s.build().tests.size(), sessions);
        // Nonsense as an address is refused in a sentence.
        QTest::mouseClick(s.page->live()->connection(), Qt::LeftButton);
        QSignalSpy refused(s.page, &StagePage::refused);
        s.page->live()->address()->setCurrentText("8.8.8.8:80");
        QTest::mouseClick(s.page->live()->connection(), Qt::LeftButton);
        QCOMPARE(refused.count(), 1);
    }

    /// A log of a drive becomes a duty the brakes are judged by; the thermometer of the bench feeds a temperature's field.
    void aDriveBecomesADuty()
    {
        AtStop s(StopPage::Road);
        auto* heat = s.window.page<HeatPage>();
        s.window.setStage(HeatPage::id);
        heat->setPlace(heat->dutyPlace() + 3);
        QTemporaryDir folder;
        QFile log(folder.filePath("pass.csv"));
        QVERIFY(log.open(QIODevice::WriteOnly));
        log.write("time_s,speed_kmh\n0,0\n10,100\n14,30\n24,110\n30,20\n40,20\n");
        log.close();
        const auto duties = s.build().duties.size();
        heat->takeLog(log.fileName());
        QTRY_COMPARE(s.build().duties.size(), duties + 1);
        s.waited();
        QCOMPARE(s.build().car.duty, "log");
        QVERIFY(s.known().verdict("heat/gives-up")->title.find("pass") != std::string::npos);
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QTRY_COMPARE(s.build().duties.size(), duties);
    }

    void looksHoldDayAndNightAndInUsUnits()
    {
        for (const bool dark : { false, true })
            for (const char* file : { "halden-merle", "linnet", "drover-camper" }) {
                AtStop s(StopPage::Prediction, QStringLiteral(DEEPSTOP_DATA "/demo/%1.deepstop").arg(file));
                setDark(dark);
                for (const int place :
                    { StopPage::Prediction, StopPage::Runs, StopPage::Traces, StopPage::Fade, StopPage::Plan, StopPage::Live }) {
                    s.page->setPlace(place);
                    everythingShown();
                    QVERIFY(!s.window.grab().isNull());
                }
            }
        setDark(false);
    }
};

DEEPSTOP_TEST(StopWindowTest)
#include "stop_window_test.moc"
