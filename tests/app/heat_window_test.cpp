/// Heat as its users drive it: a duty is chosen, its moment taken in hand and let run, all setups compared, a thermometer's readings put
/// in.

#include "app/shown.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "drawing/fact_field.hpp"

#include <QComboBox>
#include <QProgressBar>
#include <QSlider>

namespace {

struct AtHeat : Shown {
    HeatPage* page;
    explicit AtHeat(int beyond, const QString& file = merle()) : Shown(file), page(window.page<HeatPage>())
    {
        window.resize(1280, 800);
        window.setStage(HeatPage::id);
        page->setPlace(page->dutyPlace() + beyond);
        everythingShown();
    }
    [[nodiscard]] const Sheet& sheet() const { return page->view()->sheet(); }
    [[nodiscard]] bool says(const QString& text) const
    {
        return std::ranges::any_of(sheet().letters, [&](const Lettering& l) { return l.text.contains(text); });
    }
    const Verdict& verdict() { return *known().verdict("heat/gives-up"); }
};

} // namespace

class HeatWindowTest : public QObject {
    Q_OBJECT
private slots:
    /// A duty that is named and not in the build is not shown as another.
    void aDutyThatIsNotThereIsNoOther()
    {
        Shown s;
        s.window.setStage(HeatPage::id);
        auto* page = s.window.page<HeatPage>();
        page->setPlace(page->dutyPlace());
        s.window.document().edit("duty", [](Build build) {
            build.car.duty = "yesterday";
            return build;
        });
        s.window.document().settle();
        int shown = 0;
        for (const QComboBox* each : page->findChildren<QComboBox*>())
            if (each->placeholderText().contains("yesterday")) {
                QCOMPARE(each->currentIndex(), -1);
                ++shown;
            }
        QCOMPARE(shown, 1);
        for (int place = page->dutyPlace(); place < page->dutyPlace() + 4; ++place) {
            page->setPlace(place);
            if (place != page->dutyPlace() + 2)
                QVERIFY2(page->view()->sheet().subtitle.contains("yesterday"), qPrintable(page->view()->sheet().subtitle));
        }
    }

    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void anotherDutyIsChosenAndJudged()
    {
        AtHeat s(0);
        s.waited();
        QVERIFY(s.sheet().subtitle.contains("a hill climb"));
        QCOMPARE(s.page->duty()->count(), 5);
        s.page->duty()->setFocus();
        QTest::keyClick(s.page->duty(), Qt::Key_Down);
        s.waited();
        QCOMPARE(s.window.document().build().car.duty, "twelve-laps");
        QVERIFY(s.sheet().subtitle.contains("twelve laps"));
        QCOMPARE(s.verdict().level, Level::Stop);
        QVERIFY(std::ranges::any_of(s.sheet().callouts, [](const Callout& c) { return c.text.contains("limit at braking"); }));
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        s.waited();
        QVERIFY(s.window.document().build() == demo());
    }

    /// The slider takes another moment in hand: the corner's temperatures are those of it.
    void aMomentIsTakenInHand()
    {
        AtHeat s(0);
        s.waited();
        s.page->moment()->setValue(0);
        everythingShown();
        QVERIFY(s.says("0 s, braking"));
        QVERIFY(s.says("ring 20"));
        QTest::keyClick(s.page->moment(), Qt::Key_End);
        everythingShown();
        QVERIFY(!s.says("ring 20 "));
    }

    void itRunsByItselfAndIsStopped()
    {
        AtHeat s(0);
        s.waited();
        QTest::mouseClick(s.page->play(), Qt::LeftButton);
        QCOMPARE(s.page->moment()->value(), 0);
        QTRY_VERIFY(s.page->moment()->value() > 5);
        QTest::mouseClick(s.page->play(), Qt::LeftButton);
        const int stopped = s.page->moment()->value();
        QTest::qWait(150);
        QCOMPARE(s.page->moment()->value(), stopped);
    }

    void allSetupsAreCompared()
    {
        AtHeat s(1);
        s.waited();
        for (const Setup& each : s.window.document().build().setups)
            QTRY_VERIFY2(s.says(QString::fromStdString(each.name)), each.name.c_str());
        QTRY_VERIFY(s.says("front pads fade at braking"));
        QTRY_VERIFY(s.says("no limit reached"));
    }

    /// Two thousand draws with progress; what they made stands on the sheet. A second press gives it up.
    void manyDrawsSayHowSure()
    {
        AtHeat s(1);
        s.waited();
        QTest::mouseClick(s.page->sure(), Qt::LeftButton);
        QVERIFY(s.page->progress()->isVisible());
        QTRY_VERIFY_WITH_TIMEOUT(!s.page->progress()->isVisible(), 120000);
        QTRY_VERIFY(s.says("fails in"));
        QTest::mouseClick(s.page->sure(), Qt::LeftButton);
        QTest::mouseClick(s.page->sure(), Qt::LeftButton);
        QTRY_VERIFY_WITH_TIMEOUT(!s.page->progress()->isVisible(), 20000);
    }

    /// Readings from a session set the cooling, as one step; too few are refused in a sentence.
    void aThermometerSetsTheCooling()
    {
        AtHeat s(2);
        s.waited();
        Build build = s.window.document().build();
        const auto ran = dutyHeatOf(build, partsOf(build, build.setups[1]), *dutyCalled(build, "hill-climb"));
        QTest::mouseClick(s.page->fit(), Qt::LeftButton);
        s.waited();
        // The demo has a session with this setup, or one has just been begun.
        build = s.window.document().build();
        const auto session = std::ranges::find(build.tests, "varnik-330", &TestSession::setup);
        QVERIFY(session != build.tests.end());
        QSignalSpy refused(s.page, &StagePage::refused);
        QTest::mouseClick(s.page->fit(), Qt::LeftButton);
        QTRY_COMPARE(refused.count(), 1);
        // Read a little cooler than the model says, at three brakings.
        for (const int stop : { 4, 8, 12 }) {
            double at = 0;
            for (const heat::Moment& m : ran.run->course)
                if (m.stop == stop && m.power > 0)
                    at = m.front[1];
            session->temperatures.push_back({ "hill-climb", stop, { 0.0, 0.1, Known::Measured, {}, {} }, Axle::Front, MeasuredAt::Ring,
                { at - 12, 6.0, Known::Measured, "gun", {} } });
        }
        put(s.window.document(), build, "read");
        s.waited();
        QVERIFY(s.says("3 of them are of"));
        const int steps = s.window.document().undoStack().count();
        QTest::mouseClick(s.page->fit(), Qt::LeftButton);
        s.waited();
        QTRY_COMPARE(s.window.document().undoStack().count(), steps + 1);
        s.waited();
        const Reading& cooling = s.window.document().build().setups[1].front->cooling;
        QVERIFY(cooling.value && *cooling.value > 1 && cooling.plusMinus);
        QCOMPARE(cooling.known, Known::Measured);
    }

    /// Day and night, both systems, a duty that fails and one that does not, an unproven corner: something is drawn, nothing runs off.
    void everySheetIsDrawn()
    {
        for (const char* name : { "halden-merle", "drover-camper", "linnet" }) {
            AtHeat s(0, MainWindow::demoFolder() + "/" + name + ".deepstop");
            if (std::string(name) == "linnet") {
                Build build = s.window.document().build();
                build.setups[1].front->rotor.thickness = {};
                put(s.window.document(), build, "less");
            }
            s.waited();
            for (const bool dark : { false, true }) {
                setDark(dark);
                for (int place = s.page->dutyPlace(); place < s.page->placeCount(); ++place) {
                    s.page->setPlace(place);
                    everythingShown();
                    QVERIFY2(inked(s.page->view()->grab().toImage()) > 3000, name);
                    const QRectF all = QRectF(s.page->view()->rect()).adjusted(-1, -1, 1, 1);
                    for (const Lettering& l : s.sheet().letters)
                        QVERIFY2(all.contains(s.page->view()->toScreen(l.at)), qPrintable(l.text));
                }
            }
        }
    }
};

DEEPSTOP_TEST(HeatWindowTest)
#include "heat_window_test.moc"
