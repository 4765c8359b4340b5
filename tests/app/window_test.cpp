/// The real window, driven with mouse and keys, checked by what a person sees.

#include "core/support.hpp"
#include "files/disk.hpp"
#include "main_window.hpp"
#include "stages/course_chart.hpp"
#include "theme.hpp"
#include "widgets/dimension_field.hpp"
#include "widgets/ledger.hpp"
#include "widgets/notice_bar.hpp"
#include "widgets/quick_sums.hpp"
#include "widgets/reading_card.hpp"
#include "widgets/slip.hpp"
#include "widgets/work_rail.hpp"

#include <QDropEvent>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QSettings>
#include <QSignalSpy>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTest>
#include <QTextBlock>
#include <QTimer>

using namespace deepstop;
using namespace deepstop::app;

namespace {

const std::string corner = "/setups/1/front";
const std::string diameter = corner + "/rotor/outer_diameter_mm";
const std::string thickness = corner + "/rotor/thickness_mm";

QString merle() { return MainWindow::demoFolder() + "/halden-merle.deepstop"; }

/// A shown window with the demo in it.
struct Shown {
    MainWindow window;
    explicit Shown(const QString& demo = merle())
    {
        window.openDemo(demo);
        window.show();
        window.activateWindow();
        if (!QTest::qWaitForWindowActive(&window))
            qWarning("the window did not become active");
    }
    DimensionField* field(const std::string& pointer) { return window.page(window.stage())->view()->field(pointer); }
    QString ledger(std::string_view id) { return window.ledger()->cell(id)->beforeAfter(); }
    void type(QWidget* into, const QString& text)
    {
        QTest::keyClick(into, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(into, text);
    }
};

} // namespace

class WindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase()
    {
        QStandardPaths::setTestModeEnabled(true);
        QCoreApplication::setOrganizationName("deepstop-test");
        loadFonts();
        setDark(false);
    }
    void init()
    {
        QSettings().clear();
        setDark(false);
    }

    void editsADimensionByMouseAndKeyboardAndKeepsIt()
    {
        Shown s;
        QTemporaryDir dir;
        const auto path = dir.filePath("merle.deepstop");
        auto* field = s.field(diameter);
        QVERIFY(field && field->isVisible());
        QCOMPARE(field->text(), QString("Ø 330.0"));
        const auto gap = s.ledger("wheel-gap");
        const auto callout = s.window.page(Stage::WheelRoom)->view()->callout("front/barrel-gap")->text();
        // By mouse into it, a value in another unit, Enter.
        QTest::mouseClick(field, Qt::LeftButton);
        QTRY_VERIFY(field->hasFocus());
        QCOMPARE(field->text(), QString("330"));
        s.type(field, "13-1/2 in");
        // Seen while typing, not yet kept.
        QVERIFY(s.ledger("wheel-gap") != gap);
        QVERIFY(!s.window.isWindowModified());
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(field->text(), QString("Ø 342.9"));
        QVERIFY(s.window.isWindowModified());
        QCOMPARE(s.window.ledger()->cell("wheel-gap")->word(), QString("hits"));
        QCOMPARE(s.window.page(Stage::WheelRoom)->view()->callout("front/barrel-gap")->level(), Level::Hits);
        QVERIFY(s.window.page(Stage::WheelRoom)->view()->callout("front/barrel-gap")->text() != callout);
        QCOMPARE(s.window.rail()->button(Stage::WheelRoom)->state(), QString("hits"));
        QVERIFY(s.window.slip()->plainText().contains("Overlaps by"));
        // Enter went on to the next dimension, as Tab does.
        QTRY_VERIFY(s.field(thickness)->hasFocus());
        s.type(s.field(thickness), "30");
        QTest::keyClick(s.field(thickness), Qt::Key_Tab);
        QCOMPARE(s.field(thickness)->text(), QString("30.0"));
        QVERIFY(s.window.saveTo(path));
        QVERIFY(!s.window.isWindowModified());
        // Undo by its shortcut, twice, and the drawing is as it was.
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(s.ledger("wheel-gap"), gap);
        QCOMPARE(s.field(diameter)->text(), QString("Ø 330.0"));
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
        QCOMPARE(s.field(diameter)->text(), QString("Ø 342.9"));
        // What was saved comes back.
        QVERIFY(s.window.openFile(path));
        QCOMPARE(s.field(diameter)->text(), QString("Ø 342.9"));
        QCOMPARE(s.field(thickness)->text(), QString("30.0"));
        QCOMPARE(s.window.windowTitle(), QString("merle.deepstop[*] – Deep Stop"));
    }

    void tabFollowsTheMeasuringOrderAndBack()
    {
        Shown s;
        QTest::keyClick(&s.window, Qt::Key_F2);
        const auto& lines = s.window.page(Stage::WheelRoom)->view()->sheet().dimensions;
        QVERIFY(lines.size() >= 16);
        for (std::size_t i = 0; i + 1 < lines.size(); ++i) {
            QTRY_VERIFY2(s.field(lines[i].pointer)->hasFocus(), lines[i].pointer.c_str());
            QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
        }
        QTest::keyClick(QApplication::focusWidget(), Qt::Key_Backtab);
        QTRY_VERIFY(s.field(lines[lines.size() - 2].pointer)->hasFocus());
        QCOMPARE(s.window.document().undoStack().count(), 0);
    }

    void escapeLeavesTheReadingAsItWas()
    {
        Shown s;
        const auto store = s.ledger("heat-store");
        auto* field = s.field(thickness);
        field->setFocus();
        s.type(field, "40");
        QVERIFY(s.ledger("heat-store") != store);
        QTest::keyClick(field, Qt::Key_Escape);
        QCOMPARE(s.ledger("heat-store"), store);
        QCOMPARE(field->text(), QString("28.0"));
        QVERIFY(!field->hasFocus());
        QVERIFY(!s.window.isWindowModified());
    }

    void whatIsNotUnderstoodStaysWithItsReason()
    {
        Shown s;
        auto* field = s.field(thickness);
        field->setFocus();
        s.type(field, "28 furlong");
        QVERIFY(field->refusal().contains("furlong"));
        QTest::keyClick(field, Qt::Key_Tab);
        QVERIFY(field->hasFocus());
        QCOMPARE(field->text(), QString("28 furlong"));
        s.type(field, "-3");
        QVERIFY(field->refusal().contains("more than 0"));
        QTest::keyClick(field, Qt::Key_Return);
        QVERIFY(field->hasFocus());
        s.type(field, "27.9");
        QVERIFY(field->refusal().isEmpty());
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(field->text(), QString("27.9"));
    }

    void aMissingReadingIsNamedAndTheRestStands()
    {
        Shown s;
        auto* field = s.field(thickness);
        field->setFocus();
        QTest::keyClick(field, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClick(field, Qt::Key_Delete);
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(field->text(), QString("?"));
        QVERIFY(field->isMissing());
        QVERIFY(s.window.ledger()->cell("heat-store")->toolTip().contains("rotor thickness"));
        QVERIFY(s.ledger("heat-store").endsWith("–"));
        s.window.slip()->choose("front/face-gap");
        QVERIFY(s.window.slip()->plainText().contains("Lacks rotor thickness"));
        QCOMPARE(s.window.ledger()->cell("wheel-gap")->word(), QString("tight"));
        QVERIFY(s.window.page(Stage::WheelRoom)->view()->sheet().subtitle.contains("?"));
    }

    void theCardTellsAndTakesHowAReadingIsKnown()
    {
        Shown s;
        auto* field = s.field(thickness);
        field->setFocus();
        auto* card = s.window.slip()->card();
        QTRY_VERIFY(card->isVisible());
        QCOMPARE(card->pointer(), thickness);
        QCOMPARE(card->instrument()->currentText(), QString("micrometer"));
        QTest::keyClicks(card->known(), "e");
        emit card->known()->activated(card->known()->currentIndex());
        QCOMPARE(s.window.document().build().setups[1].front->rotor.thickness.known, Known::Estimated);
        s.window.slip()->choose("front/face-gap");
        QVERIFY(s.window.slip()->plainText().contains("estimate"));
        card->width()->setFocus();
        QTest::keyClicks(card->width(), "0.4");
        QTest::keyClick(card->width(), Qt::Key_Return);
        QVERIFY(near(*s.window.document().build().setups[1].front->rotor.thickness.plusMinus, 0.4e-3, 1e-9));
    }

    void aReadingThatNoDrawingShowsIsReadOnTheCard()
    {
        Shown s;
        const auto gap = s.ledger("wheel-gap");
        // The worst of the barrel's stations, by its link under "Rests on".
        emit s.window.slip()->browser()->anchorClicked(QUrl("reading:/wheels/0/barrel/5/inside_radius_mm"));
        auto* field = s.window.slip()->card()->field();
        QVERIFY(field && field->isVisible());
        QCOMPARE(field->text(), QString("192.4 mm"));
        QTest::mouseClick(field, Qt::LeftButton);
        s.type(field, "190");
        QTest::keyClick(field, Qt::Key_Return);
        QVERIFY(s.ledger("wheel-gap") != gap);
        QCOMPARE(s.window.ledger()->cell("wheel-gap")->word(), QString("tight"));
    }

    void aRemedyIsTriedAndUndone()
    {
        Shown s;
        s.window.document().setPair({ {}, "varnik-355" });
        s.window.setStage(Stage::WheelRoom);
        QCOMPARE(s.window.ledger()->cell("wheel-gap")->word(), QString("hits"));
        auto* browser = s.window.slip()->browser();
        QVERIFY(browser->toPlainText().contains("How to win room"));
        // The link is where the pointer would find it.
        QString link;
        for (auto block = browser->document()->begin(); block.isValid(); block = block.next())
            for (auto it = block.begin(); !it.atEnd(); ++it)
                if (it.fragment().charFormat().anchorHref().startsWith("remedy:") && link.isEmpty())
                    link = it.fragment().charFormat().anchorHref();
        QCOMPARE(link, QString("remedy:0"));
        emit browser->anchorClicked(QUrl(link));
        QCOMPARE(s.window.document().undoStack().count(), 1);
        QVERIFY2(s.window.ledger()->cell("wheel-gap")->word() != "hits", qPrintable(s.window.slip()->plainText()));
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(s.window.ledger()->cell("wheel-gap")->word(), QString("hits"));
    }

    void everyStageShowsItsDrawingAndItsChecks()
    {
        for (const char* demo : { "halden-merle", "linnet" }) {
            Shown s(MainWindow::demoFolder() + "/" + demo + ".deepstop");
            int number = 0;
            for (const Stage stage : workingOrder()) {
                QTest::keyClick(&s.window, static_cast<Qt::Key>(Qt::Key_1 + number++), Qt::ControlModifier);
                QCOMPARE(s.window.stage(), stage);
                auto* view = s.window.page(stage)->view();
                QVERIFY(view->isVisible());
                QVERIFY(view->sheet().areas.size() > 5);
                QVERIFY(!view->sheet().dimensions.empty());
                for (const DimensionLine& line : view->sheet().dimensions)
                    QVERIFY2(s.window.document().study().directory->at(line.pointer), line.pointer.c_str());
                QVERIFY(s.window.slip()->plainText().size() > 20);
                const auto picture = view->grab().toImage();
                QSet<QRgb> colours;
                for (int y = 0; y < picture.height(); y += 3)
                    for (int x = 0; x < picture.width(); x += 3)
                        colours.insert(picture.pixel(x, y));
                QVERIFY(colours.size() > 12);
            }
        }
    }

    void labelsKeepClearOfEachOtherAndOfTheEdge_data()
    {
        QTest::addColumn<QString>("demo");
        QTest::addColumn<bool>("us");
        for (const char* demo : { "halden-merle", "linnet" })
            for (const bool us : { false, true })
                QTest::addRow("%s %s", demo, us ? "US" : "metric") << demo << us;
    }
    void labelsKeepClearOfEachOtherAndOfTheEdge()
    {
        QFETCH(QString, demo);
        QFETCH(bool, us);
        Shown s(MainWindow::demoFolder() + "/" + demo + ".deepstop");
        s.window.resize(1280, 800);
        s.window.document().setUnits(us ? UnitSystem::Us : UnitSystem::Metric);
        for (const Stage stage : workingOrder()) {
            s.window.setStage(stage);
            QTest::qWait(20);
            auto* view = s.window.page(stage)->view();
            std::vector<std::pair<QRect, QString>> boxes;
            for (const DimensionLine& line : view->sheet().dimensions)
                boxes.emplace_back(view->field(line.pointer)->geometry(), QString::fromStdString(line.pointer));
            for (const Callout& callout : view->sheet().callouts)
                boxes.emplace_back(view->callout(callout.verdict)->geometry(), QString::fromStdString(callout.verdict));
            for (std::size_t i = 0; i < boxes.size(); ++i) {
                QVERIFY2(view->rect().contains(boxes[i].first), qPrintable(boxes[i].second));
                for (std::size_t j = i + 1; j < boxes.size(); ++j)
                    QVERIFY2(!boxes[i].first.intersects(boxes[j].first), qPrintable(boxes[i].second + " and " + boxes[j].second));
            }
        }
    }

    /// A known length on the sheet has the same scale along and across.
    void theDrawingIsToScale()
    {
        Shown s;
        auto* view = s.window.page(Stage::WheelRoom)->view();
        const auto& sheet = view->sheet();
        const auto rotor = std::ranges::find(sheet.dimensions, diameter, &DimensionLine::pointer);
        QVERIFY(near(rotor->from.y() - rotor->to.y(), 165.0, 1e-9));
        const auto wide = std::ranges::find(sheet.dimensions, thickness, &DimensionLine::pointer);
        QVERIFY(near(wide->to.x() - wide->from.x(), 28.0, 1e-9));
        const auto a = view->toScreen(rotor->from) - view->toScreen(rotor->to);
        const auto b = view->toScreen(wide->to) - view->toScreen(wide->from);
        QVERIFY(near(std::hypot(a.x(), a.y()) / 165, std::hypot(b.x(), b.y()) / 28, 1e-9));
    }

    void zoomKeepsThePointUnderThePointer()
    {
        Shown s;
        auto* view = s.window.page(Stage::WheelRoom)->view();
        const QPointF pointer(300, 300);
        const double before = view->pixelsPerMillimetre();
        const QPointF zero = view->toScreen({ 0, 0 });
        view->zoomBy(2, pointer);
        QVERIFY(near(view->pixelsPerMillimetre(), 2 * before, 1e-9));
        QVERIFY(std::abs((view->toScreen({ 0, 0 }) - pointer).x() - 2 * (zero - pointer).x()) < 1e-6);
        QTest::keyClick(&s.window, Qt::Key_0, Qt::ControlModifier);
        QVERIFY(near(view->pixelsPerMillimetre(), before, 1e-9));
        QTest::mousePress(view, Qt::LeftButton, {}, QPoint(40, 500));
        QTest::mouseMove(view, QPoint(70, 480));
        QTest::mouseRelease(view, Qt::LeftButton, {}, QPoint(70, 480));
        QVERIFY(view->toScreen({ 0, 0 }) != zero);
    }

    void unitsChangeEverywhereAndBack()
    {
        Shown s;
        const auto weight = s.ledger("corner-weight");
        QTest::keyClick(&s.window, Qt::Key_U, Qt::ControlModifier);
        QCOMPARE(s.field(diameter)->text(), QString("Ø 12.992"));
        QVERIFY(s.field(diameter)->toolTip().contains("330.0 mm"));
        QVERIFY(s.ledger("corner-weight").contains("33.75"));
        QVERIFY(s.window.slip()->plainText().contains(" in "));
        QTest::keyClick(&s.window, Qt::Key_U, Qt::ControlModifier);
        QCOMPARE(s.ledger("corner-weight"), weight);
    }

    void nightIsDarkAndReadable()
    {
        Shown s;
        s.window.setNight(true);
        const auto luminance = [](const QColor& c) {
            const auto part = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
            return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
        };
        // Source: WCAG 2.1, contrast of text at least 4.5 to 1.
        for (const bool night : { true, false }) {
            setDark(night);
            const Theme& t = theme();
            for (const QColor& ground : { t.paper, t.board, t.raised })
                for (const QColor& letters : { t.ink, t.mute, t.proposal, t.good, t.caution, t.bad, t.unproven }) {
                    const double a = luminance(ground), b = luminance(letters);
                    const double contrast = (std::max(a, b) + 0.05) / (std::min(a, b) + 0.05);
                    QVERIFY2(contrast >= 4.5, qPrintable(QString("%1 on %2: %3").arg(letters.name(), ground.name()).arg(contrast)));
                }
        }
    }

    void theLedgerLeadsToTheStageBehindAFigure()
    {
        Shown s;
        QTest::mouseClick(s.window.ledger()->cell("stop-distance"), Qt::LeftButton);
        QCOMPARE(s.window.stage(), Stage::Stop);
        QTest::mouseClick(s.window.ledger()->cell("off-centre"), Qt::LeftButton);
        QCOMPARE(s.window.stage(), Stage::Centring);
        QTest::mouseClick(s.window.rail()->button(Stage::Heat), Qt::LeftButton);
        QCOMPARE(s.window.stage(), Stage::Heat);
        QVERIFY(s.window.page(Stage::Heat)->chart()->after()->count() > 10);
        QVERIFY(s.window.page(Stage::Heat)->chart()->after()->points().last().y() < s.window.page(Stage::Heat)->chart()->before()->points().last().y());
    }

    void anotherSetupIsJudgedFromTheHeader()
    {
        Shown s;
        s.window.afterBox()->setFocus();
        QTest::keyClick(s.window.afterBox(), Qt::Key_Down);
        emit s.window.afterBox()->activated(s.window.afterBox()->currentIndex());
        QCOMPARE(s.window.document().study().after.setup->id, std::string("varnik-355"));
        QCOMPARE(s.window.ledger()->cell("wheel-gap")->word(), QString("hits"));
    }

    void aCornerIsMockedUpByKeyboardFromNothing()
    {
        Shown s;
        s.window.document().setPair({ {}, "varnik-355" });
        s.window.setStage(Stage::Centring);
        QCOMPARE(s.window.document().study().centring.size(), std::size_t(0));
        auto* begin = s.window.page(Stage::Centring)->findChild<QPushButton*>("place-0");
        QVERIFY(begin && begin->isVisible());
        QTest::mouseClick(begin, Qt::LeftButton);
        QCOMPARE(s.window.document().study().centring.size(), std::size_t(1));
        QTest::keyClick(&s.window, Qt::Key_F2);
        for (const char* gap : { "9.4", "8.6", "9.3", "8.7", "110" }) {
            QTest::qWait(5);
            auto* field = qobject_cast<DimensionField*>(QApplication::focusWidget());
            QVERIFY(field && field->isMissing());
            QTest::keyClicks(field, gap);
            QTest::keyClick(field, Qt::Key_Return);
        }
        QVERIFY(near(*s.window.document().study().centring[0].axial.value, -0.35e-3, 1e-6));
        QVERIFY(s.window.slip()->plainText().contains("too far inboard"));
        while (s.window.document().undoStack().canUndo())
            QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(!s.window.isWindowModified());
        QCOMPARE(s.window.document().study().centring.size(), std::size_t(0));
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
            QTest::keyClick(&s.window, Qt::Key_U, Qt::ControlModifier);
            QTest::keyClick(&s.window, Qt::Key_D, Qt::ControlModifier);
        }
        setDark(false);
        Shown again;
        QCOMPARE(again.window.document().units(), UnitSystem::Us);
        QVERIFY(theme().dark);
    }

    void quickSumsAnswerAsTheyAreTyped()
    {
        Shown s;
        QTest::keyClick(&s.window, Qt::Key_K, Qt::ControlModifier);
        auto* sums = s.window.quickSums();
        QVERIFY(sums && sums->isVisible());
        sums->choose("stop");
        QTest::keyClicks(sums->input("speed"), "35 mph");
        QVERIFY(sums->answer().isEmpty());
        QTest::keyClicks(sums->input("distance"), "5 m");
        QVERIFY(sums->answer().contains("2.50"));
        QTest::keyClicks(sums->input("grip"), "1.1");
        QVERIFY(sums->answer().contains("no "));
        sums->choose("offset");
        for (const auto& [key, text] : { std::pair { "et", "40" }, { "hat-before", "7.2" }, { "hat-after", "20.5" } })
            QTest::keyClicks(sums->input(key), text);
        QVERIFY(sums->answer().contains("13.300 mm"));
        QTest::keyClicks(sums->input("spacer"), "x");
        QVERIFY(sums->answer().isEmpty());
    }

    void whatIsChosenRatherThanMeasured()
    {
        Shown s;
        const auto choose = [&](Stage stage, int index) {
            s.window.setStage(stage);
            auto* box = s.window.page(stage)->choice();
            QVERIFY(box && box->isVisible());
            box->setFocus();
            box->setCurrentIndex(index);
            emit box->activated(index);
        };
        choose(Stage::WheelRoom, 1); // the 18-inch wheel
        QCOMPARE(s.window.document().build().setups[1].front->wheel, std::string("w18"));
        QCOMPARE(s.window.ledger()->cell("wheel-gap")->word(), QString("clear"));
        choose(Stage::Car, 2); // no antilock
        QVERIFY(s.window.document().build().car.antilock == YesNo::No);
        const auto planned = s.window.document().study().verdict("front-left/axial")->remedies.front().title;
        choose(Stage::Centring, 1); // shims on the other side of the ear
        QVERIFY(s.window.document().study().verdict("front-left/axial")->remedies.front().title != planned);
        for (int i = 0; i < 3; ++i)
            QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(!s.window.isWindowModified());
    }

    void theDrawerIsOneLineOfText()
    {
        Shown s;
        s.window.setStage(Stage::Centring);
        auto* drawer = s.window.page(Stage::Centring)->drawer();
        QCOMPARE(drawer->text(), QString("0.25 × 4, 0.5 × 4, 0.75 × 4, 1 × 6, 2 × 2"));
        drawer->setFocus();
        s.type(drawer, "0.75 x");
        QTest::keyClick(drawer, Qt::Key_Return);
        QCOMPARE(s.window.document().build().drawer.size(), std::size_t(5));
        QCOMPARE(drawer->text(), QString("0.75 x"));
        s.type(drawer, "0.4x8, 0.03 in x 2");
        QTest::keyClick(drawer, Qt::Key_Return);
        QCOMPARE(s.window.document().build().drawer.size(), std::size_t(2));
        QVERIFY(near(*s.window.document().build().drawer[1].thickness.value, 0.762e-3, 1e-9));
        QVERIFY(s.window.slip()->plainText().contains("0.40"));
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(drawer->text(), QString("0.25 × 4, 0.5 × 4, 0.75 × 4, 1 × 6, 2 × 2"));
    }

    void aSetupIsCopiedAsANewProposal()
    {
        Shown s;
        for (QAction* menu : s.window.menuBar()->actions())
            for (QAction* action : menu->menu()->actions())
                if (action->text().contains("new proposal"))
                    action->trigger();
        QCOMPARE(s.window.document().build().setups.size(), std::size_t(4));
        QCOMPARE(s.window.document().study().after.setup->id, std::string("varnik-330-2"));
        QCOMPARE(s.window.afterBox()->currentText(), QString("Varnik 330 × 28 (2)"));
        auto* field = s.field("/setups/3/front/rotor/outer_diameter_mm");
        field->setFocus();
        s.type(field, "320");
        QTest::keyClick(field, Qt::Key_Return);
        QVERIFY(near(*s.window.document().build().setups[1].front->rotor.outerDiameter.value, 0.330, 1e-12));
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(s.window.document().build().setups.size(), std::size_t(3));
    }

    void whatIsHalfTypedIsSavedToo()
    {
        Shown s;
        QTemporaryDir dir;
        auto* field = s.field(thickness);
        field->setFocus();
        s.type(field, "27.5");
        QVERIFY(s.window.saveTo(dir.filePath("a.deepstop")));
        QVERIFY(near(*files::loadBuild(dir.filePath("a.deepstop").toStdString()).build.setups[1].front->rotor.thickness.value, 0.0275, 1e-12));
        // Half typed and no quantity: the drawing goes back to what is known, the text stays.
        field->setFocus();
        s.type(field, "26");
        QTest::keyClicks(field, "x");
        QVERIFY(!field->refusal().isEmpty());
        QCOMPARE(*s.window.document().study().after.front.corner->rotor.thickness.value, 0.0275);
    }

    void longNamesDoNotBreakTheWindow()
    {
        Shown s;
        Build build = s.window.document().build();
        build.car.name = "An estate with a name that goes on and on until nobody reads it any more";
        build.setups[1].name = "A kit whose vendor believed that every property belongs into its title, all of them";
        build.wheels[0].name = build.setups[1].name;
        s.window.document().setBuild(build, "names");
        s.window.resize(1280, 800);
        QTest::qWait(20);
        QVERIFY(s.window.width() <= 1280);
        QVERIFY(s.window.page(Stage::WheelRoom)->view()->width() > 700);
    }
};

QTEST_MAIN(WindowTest)
#include "window_test.moc"
