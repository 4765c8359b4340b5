/// A study beside the window: what is drawn at once, what arrives later, and what is dropped.

#include "app/shown.hpp"

#include "chapters/clearance/clearance.hpp"
#include "chapters/stopping/stopping_chapter.hpp"
#include "files/build_file.hpp"
#include "stages/balance/balance_page.hpp"

#include <QSemaphore>

using namespace deepstop;
using namespace deepstop::app;

namespace {

/// Waits for nothing: what is not there at once comes later.
struct Impatient {
    Impatient() { Document::setPatience(std::chrono::milliseconds(-1)); }
    ~Impatient() { Document::setPatience(std::chrono::milliseconds(5)); }
};

std::shared_ptr<const Build> demoWith(double diameterInMetres)
{
    auto build = files::loadBuild(merle().toStdString()).build;
    build.setups[1].front->rotor.outerDiameter.value = diameterInMetres;
    return numbered(std::make_shared<const Build>(std::move(build)));
}

} // namespace

class StudyJobTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void onlyTheNewestIsAnswered()
    {
        StudyJob job;
        std::shared_ptr<const Build> last;
        for (int i = 0; i < 50; ++i)
            job.ask(last = demoWith(0.300 + i * 1e-3), {});
        job.finish();
        const auto study = job.take();
        QVERIFY(study && study->build == last);
        QCOMPARE(study->remedies, Remedies::Sought);
        QVERIFY(!job.take());
        // As worked out without a job.
        const auto same = deepstop::study(last);
        QCOMPARE(study->summary, same.summary);
        QCOMPARE(study->verdicts.size(), same.verdicts.size());
        for (std::size_t i = 0; i < same.verdicts.size(); ++i) {
            QCOMPARE(study->verdicts[i].id, same.verdicts[i].id);
            QCOMPARE(study->verdicts[i].reason, same.verdicts[i].reason);
        }
    }

    void anOldAnswerNeverComesAfterANewQuestion()
    {
        StudyJob job;
        for (int i = 0; i < 20; ++i) {
            const auto build = demoWith(0.330 + i * 1e-4);
            job.ask(demoWith(0.25), {});
            job.wait(std::chrono::milliseconds(i)); // begun, half done or done
            job.ask(build, {});
            job.finish();
            const auto study = job.take();
            QVERIFY(study && study->build == build);
        }
    }

    /// One that waits for the window begins when that has drawn, when somebody waits for it, and by itself.
    void aStudyThatWaitsForTheWindowBegins()
    {
        StudyJob job;
        const auto build = demoWith(0.330);
        const auto ask = [&] { job.ask(build, {}, StudyJob::Start::WhenDrawn); };
        bool taken = false;
        const auto take = [&] { return taken = taken || job.take() != nullptr; };
        ask();
        job.finish();
        QVERIFY(job.take());
        ask();
        job.begin();
        QTRY_VERIFY_WITH_TIMEOUT(take(), 20000);
        job.finish();
        (void)job.take(); // remedies, where they came later
        taken = false;
        ask();
        QTRY_VERIFY_WITH_TIMEOUT(take(), 20000);
    }

    void whatIsDrawnAtOnceSaysNothingThatIsNotWorkedOut()
    {
        const auto build = demoWith(0.360);
        const auto last = deepstop::study(*demoWith(0.330));
        QCOMPARE(last.verdict("front/spoke-gap")->level, Level::Clear);
        const auto now = drawn(build, {}, last);
        QVERIFY(now.underWay);
        for (const char* id : { "front/barrel-gap", "front/spoke-gap", "front/studs" }) {
            QCOMPARE(now.verdict(id)->level, Level::Unproven);
            QVERIFY(!now.verdict(id)->figure.value);
        }
        QCOMPARE(now.line("wheel-gap")->level, Level::Unproven);
        QVERIFY(!now.line("wheel-gap")->after.value);
        QVERIFY(!now.summary.starts_with("Fits"));
        // What is quick is there whole, and as it will be.
        const auto whole = deepstop::study(build);
        QCOMPARE(now.line("corner-weight")->after.value, whole.line("corner-weight")->after.value);
        QVERIFY(!now.line("stop-distance")->change.value);
        QCOMPARE(now.of<Stopping>().after.stop->distance, whole.of<Stopping>().after.stop->distance);
        for (const Verdict& v : whole.verdicts)
            if (now.verdict(v.id) && now.verdict(v.id)->reason != "being worked out") {
                QCOMPARE(now.verdict(v.id)->level, v.level);
                QCOMPARE(now.verdict(v.id)->reason, v.reason);
            }
    }

    /// What is worked out later keeps its place on the sheet, and stands there with nothing of before; on another sheet it has none.
    void aCalloutWaitsInItsPlace()
    {
        const Impatient impatient;
        Shown s;
        s.window.document().settle();
        s.window.setStage(BalancePage::id);
        s.window.page(BalancePage::id)->setPlace(BalancePage::Pedal);
        auto* view = s.window.page(BalancePage::id)->view();
        auto* callout = view->callout("balance/effort");
        QVERIFY(callout && !callout->isWorking());
        const auto place = callout->geometry();
        const QString pointer("/setups/0/hydraulics/master_bore_mm");
        s.window.document().preview(pointer.toStdString(), Reading { 0.0222, {}, Known::Measured, {}, {} });
        QVERIFY(s.window.document().study().underWay);
        QCOMPARE(view->callout("balance/effort"), callout);
        QVERIFY(callout->isWorking() && callout->isVisible() && callout->geometry() == place);
        QVERIFY(callout->level() == Level::Unproven && callout->accessibleName() == QString("being worked out"));
        s.window.page(BalancePage::id)->setPlace(BalancePage::Adhesion);
        QVERIFY(!view->callout("balance/effort"));
        s.window.page(BalancePage::id)->setPlace(BalancePage::Pedal);
        QTRY_VERIFY(!s.window.document().study().underWay);
        QVERIFY(!view->callout("balance/effort")->isWorking());
    }

    /// The drawing follows the hand at once; level and word follow when they are known, and nothing of the old ones stands meanwhile.
    void aKeyIsDrawnBeforeItIsJudged()
    {
        const Impatient impatient;
        Shown s;
        s.window.document().settle();
        s.window.setStage(WheelPage::id);
        auto* view = s.window.page(WheelPage::id)->view();
        QCOMPARE(view->callout("front/barrel-gap")->level(), Level::Tight);
        auto* field = s.field(diameter);
        field->setFocus();
        QTest::keyClick(field, Qt::Key_A, Qt::ControlModifier);
        // Pasted in one go, so that nothing is judged between.
        field->insert("360");
        emit field->textEdited("360");
        const Study& now = s.window.document().study();
        QVERIFY(now.underWay);
        QVERIFY(near(now.of<Clearance>().after.front.left.drawn.rotor.outerRadius, 0.180, 1e-9));
        QCOMPARE(view->callout("front/barrel-gap")->level(), Level::Unproven);
        QCOMPARE(s.window.rail()->button(WheelPage::id)->state(), QString("unproven"));
        QTRY_VERIFY(!s.window.document().study().underWay);
        QCOMPARE(view->callout("front/barrel-gap")->level(), Level::Hits);
        QCOMPARE(s.window.rail()->button(WheelPage::id)->state(), QString("hits"));
        QCOMPARE(field->text(), QString("360"));
        QVERIFY(field->hasFocus());
    }

    /// A mock-up's sheet stays while its shims are being searched for: the dimension under the hand is not taken away.
    void theFieldUnderTheHandStays()
    {
        const Impatient impatient;
        Shown s;
        s.window.document().settle();
        s.window.setStage(CentringPage::id);
        const QPointer<DimensionField> field = s.field("/mock_ups/0/inner_top_mm");
        QVERIFY(field);
        field->setFocus();
        for (const char key : { '7', '.', '3', '1' }) {
            QTest::keyClick(field.data(), key);
            QVERIFY(field && field->hasFocus());
        }
        s.window.document().settle();
        QVERIFY(field && field->hasFocus());
    }

    /// Every page can be drawn of a study that is still under way, in both unit systems.
    void everyPageIsDrawnWhileTheStudyIsUnderWay()
    {
        const Impatient impatient;
        for (const char* demo : { "halden-merle", "linnet" }) {
            Shown s(MainWindow::demoFolder() + "/" + demo + ".deepstop");
            for (const StageId stage : stageIds()) {
                s.window.setStage(stage);
                for (int place = 0; place < std::max(1, s.window.page()->placeCount()); ++place) {
                    s.window.page()->setPlace(place);
                    s.window.document().setUnits(place % 2 ? UnitSystem::Us : UnitSystem::Metric);
                    s.window.document().preview(diameter, { 0.3001 + place * 1e-5, {}, Known::Measured, {}, {} });
                    QVERIFY(s.window.document().study().underWay);
                    QVERIFY(inked(s.window.page()->grab().toImage()) > 2000);
                    s.window.document().settle();
                    QVERIFY(!s.window.document().study().underWay);
                }
            }
        }
    }
};

DEEPSTOP_TEST(StudyJobTest)
#include "study_job_test.moc"
