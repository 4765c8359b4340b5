/// The pages of the stages: whatever a check or an open question speaks of, its page shows it; places, axles and choices.

#include "app/shown.hpp"

#include "report/plots.hpp"
#include "widgets/plot_tables.hpp"

#include <QClipboard>
#include <QPushButton>
#include <QScrollArea>
#include <QTableView>
#include <QRegularExpression>

#include <set>

namespace {

QString linnet() { return MainWindow::demoFolder() + "/linnet.deepstop"; }

bool draws(const Sheet& sheet, const std::string& pointer)
{
    return std::ranges::find(sheet.dimensions, pointer, &DimensionLine::pointer) != sheet.dimensions.end();
}

/// Whether a sheet shows a result, or any reading it rests on.
bool shows(const Sheet& sheet, const Study& study, const Verdict& verdict)
{
    if (std::ranges::find(sheet.callouts, verdict.id, &Callout::verdict) != sheet.callouts.end())
        return true;
    return std::ranges::any_of(verdict.figure.restsOn, [&](ReadingId reading) {
        const Address* address = study.directory->of(reading);
        return address && draws(sheet, address->pointer);
    });
}

} // namespace

class PagesTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    /// Whoever does not see a plot reads it: F8 has the points of each, and they are those of the study.
    void plotsAreReadAsTables()
    {
        Shown s;
        s.waited();
        QTest::keyClick(&s.window, Qt::Key_F8);
        auto* tables = s.window.findChild<PlotTables*>();
        QVERIFY(tables && tables->isVisible());
        const auto plots = report::plotsOf(s.known());
        QCOMPARE(tables->plots()->count(), static_cast<int>(plots.size()));
        QVERIFY(plots.size() >= 3);
        for (int i = 0; i < tables->plots()->count(); ++i) {
            tables->plots()->setFocus();
            QTest::keyClick(tables->plots(), i == 0 ? Qt::Key_Home : Qt::Key_Down);
            const auto& plot = plots[static_cast<std::size_t>(i)];
            QCOMPARE(tables->plots()->currentText(), QString::fromStdString(plot.title));
            const auto* model = tables->table()->model();
            std::size_t points = 0;
            for (const auto& curve : plot.curves)
                points += curve.points.size();
            QCOMPARE(model->rowCount(), static_cast<int>(points));
            QCOMPARE(model->headerData(2, Qt::Horizontal).toString(), QString::fromStdString(plot.up.title));
            QCOMPARE(model->index(0, 0).data().toString(), QString::fromStdString(plot.curves.front().name));
            QVERIFY(near(model->index(0, 2).data().toString().toDouble(), plot.curves.front().points.front().y, 1e-3)
                || plot.curves.front().points.front().y == 0);
        }
        auto* copy = tables->findChild<QPushButton*>();
        QTest::mouseClick(copy, Qt::LeftButton);
        const auto lines = QGuiApplication::clipboard()->text().trimmed().split('\n');
        QCOMPARE(lines.size(), tables->table()->model()->rowCount() + 1);
        QCOMPARE(lines.first().count('\t'), 2);
    }

    void everyCheckLeadsToASheetThatShowsIt_data()
    {
        QTest::addColumn<QString>("file");
        QTest::addColumn<QString>("setup");
        QTest::newRow("the kit that fits") << merle() << "varnik-330";
        QTest::newRow("the kit that hits") << merle() << "varnik-355";
        QTest::newRow("linnet") << linnet() << "";
    }
    void everyCheckLeadsToASheetThatShowsIt()
    {
        QFETCH(QString, file);
        QFETCH(QString, setup);
        Shown s(file);
        s.window.document().setPair({ {}, setup.toStdString() });
        int shown = 0;
        QStringList lost;
        for (const Verdict& v : std::vector(s.known().verdicts)) {
            s.window.setStage(stageOf(v.chapter).id);
            s.window.slip()->choose(v.id);
            const StagePage* page = s.window.page(stageOf(v.chapter).id);
            // A list in place of the sheet names the check itself; a check without readings of its own has nothing to be drawn.
            if (page->scroll()->isHidden() || v.figure.restsOn.empty())
                continue;
            // What is there already is drawn behind the new as a ghost, not to be typed into.
            if (v.id.ends_with("-found"))
                continue;
            // One stop of many that is fine is a peg without a name.
            if (v.id.starts_with("stop/measured-") && isFine(v.level))
                continue;
            if (!shows(page->view()->sheet(), s.known(), v))
                lost << QStringLiteral("%1 leads to “%2”").arg(QString::fromStdString(v.id), page->view()->sheet().title);
            ++shown;
        }
        QVERIFY2(lost.isEmpty(), qPrintable(lost.join(QStringLiteral("; "))));
        QVERIFY(shown > 20);
    }

    /// Whatever is still to be read of the kit has a dimension somewhere that takes it, and the way there ends with the cursor in it.
    void everyOpenQuestionCanBeGoneTo_data()
    {
        QTest::addColumn<QString>("file");
        QTest::addColumn<QString>("setup");
        QTest::newRow("a kit nobody has wholly measured") << merle() << "varnik-355";
        QTest::newRow("linnet") << linnet() << "";
        QTest::newRow("a build nobody has said anything of") << ""
                                                             << "";
    }
    void everyOpenQuestionCanBeGoneTo()
    {
        QFETCH(QString, file);
        QFETCH(QString, setup);
        Shown s(file.isEmpty() ? merle() : file);
        if (file.isEmpty())
            s.window.startNew();
        s.window.document().setPair({ {}, setup.toStdString() });
        QStringList lost;
        const auto questions = s.known().questions;
        for (const Question& question : questions) {
            emit s.window.slip()->readingWanted(question.address.pointer);
            const auto* field = qobject_cast<DimensionField*>(QApplication::focusWidget());
            // Of the car as found, which no sheet of the kit asks for, the card on the slip takes it.
            const bool card =
                question.address.pointer.starts_with("/setups/0/") && s.window.slip()->card()->pointer() == question.address.pointer;
            if ((!field || field->pointer() != question.address.pointer) && !card)
                lost << QString::fromStdString(question.address.pointer);
        }
        QVERIFY2(lost.isEmpty(), qPrintable(lost.join(QStringLiteral("; "))));
        QVERIFY(!questions.empty());
    }

    /// Alt and the arrow keys go round the places of every stage, and the one shown is told apart without colour.
    void thePlacesOfEveryStageAreGoneRoundByKeys()
    {
        Shown s;
        for (const StageId stage : stageIds()) {
            s.window.setStage(stage);
            StagePage* page = s.window.page(stage);
            std::set<QString> titles;
            const int places = page->placeCount();
            for (int step = 0; step < places; ++step) {
                const auto buttons = page->findChildren<QPushButton*>(QRegularExpression("^place-"));
                QCOMPARE(buttons.size(), places);
                QCOMPARE(std::ranges::count_if(buttons, [](const QPushButton* b) { return b->font().underline() && b->isChecked(); }), 1);
                if (!page->scroll()->isHidden())
                    titles.insert(page->view()->sheet().title);
                QTest::keyClick(&s.window, Qt::Key_Right, Qt::AltModifier);
            }
            QCOMPARE(page->place(), 0);
            QVERIFY(static_cast<int>(titles.size()) >= places - 3);
        }
    }

    void aCarWithNothingInFrontShowsItsRearRing()
    {
        Shown s;
        auto build = demo();
        for (Setup& setup : build.setups)
            setup.front.reset();
        put(s.window.document(), build, "rear only");
        s.window.setStage(HeatPage::id);
        auto* heat = s.window.page<HeatPage>();
        QCOMPARE(heat->placeCount(), 1);
        QCOMPARE(heat->axle(), Axle::Rear);
        QVERIFY(heat->view()->sheet().title.contains("ear"));
    }

    /// A wheel put on the axle a setup leaves alone makes that axle its own; what it leaned on stays as it was.
    void choosingAWheelForAnAxleLeftAloneMakesItsOwnCorner()
    {
        Shown s;
        s.window.setStage(WheelPage::id);
        auto* page = s.window.page<WheelPage>();
        QVERIFY(!s.window.document().build().setups[1].rear);
        page->axleChoice()->setCurrentIndex(1);
        emit page->axleChoice()->activated(1);
        const int other = 1 - std::max(0, page->wheel()->currentIndex());
        page->wheel()->setCurrentIndex(other);
        emit page->wheel()->activated(other);
        const Build& build = s.window.document().build();
        QVERIFY(build.setups[1].rear.has_value());
        QCOMPARE(build.setups[1].rear->wheel, build.wheels[static_cast<std::size_t>(other)].id);
        QVERIFY(build.setups[0] == demo().setups[0]);
        Corner same = *build.setups[1].rear;
        same.wheel = build.setups[0].rear->wheel;
        QVERIFY(same == *build.setups[0].rear);
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(s.window.document().build() == demo());
    }

    void theInstrumentInHandIsTheSameOnBenchAndMockUp()
    {
        Shown s;
        s.window.setStage(BenchPage::id);
        auto* hand = s.window.page<BenchPage>()->inHand();
        const int vernier = hand->findData("vernier");
        hand->setCurrentIndex(vernier);
        emit hand->activated(vernier);
        s.window.setStage(CentringPage::id);
        QCOMPARE(s.window.page<CentringPage>()->findChild<InHand*>()->currentIndex(), vernier);
        QCOMPARE(s.window.document().inHand(), QStringLiteral("vernier"));
    }
};

DEEPSTOP_TEST(PagesTest)
#include "pages_test.moc"
