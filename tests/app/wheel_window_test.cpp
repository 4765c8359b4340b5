/// The wheel room driven as its users drive it: dragging, measuring by the plan, cures, templates.

#include "drawing/fact_field.hpp"
#include "app/shown.hpp"
#include "print/page_painter.hpp"
#include "print/template_window.hpp"
#include "stages/wheel/wheel_sheets.hpp"
#include "widgets/cure_board.hpp"

#include <QComboBox>
#include <QPainter>
#include <QPrinter>

namespace {

struct InWheelRoom : Shown {
    WheelPage* page;
    explicit InWheelRoom(int place, const QString& demo = merle()) : Shown(demo), page(window.page<WheelPage>())
    {
        window.resize(1280, 800);
        window.setStage(WheelPage::id);
        page->setPlace(place);
        everythingShown();
    }
    const Verdict& verdict(const char* id) { return *known().verdict(id); }
    const Handle* handle(const std::string& end)
    {
        for (const Handle& h : page->view()->sheet().handles)
            if (h.pointer.ends_with(end))
                return &h;
        return nullptr;
    }
    void drag(const Handle& h, double millimetres, bool release = true)
    {
        auto* view = page->view();
        const QPoint from = view->toScreen(h.at).toPoint();
        const QPoint to = view->toScreen(h.at + h.along * millimetres).toPoint();
        QTest::mousePress(view, Qt::LeftButton, {}, from);
        QTest::mouseMove(view, (from + to) / 2);
        QTest::mouseMove(view, to);
        if (release)
            QTest::mouseRelease(view, Qt::LeftButton, {}, to);
    }
};

} // namespace

class WheelWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void draggingTheWheelOutPutsASpacerIn()
    {
        InWheelRoom s(WheelPage::Section);
        const double before = *s.verdict("front/spoke-gap").figure.value;
        const Handle grip = *s.handle("/spacer_mm");
        s.drag(grip, 6, false);
        // While it is dragged everything shows what would be, and the build is untouched.
        QVERIFY(s.window.document().isPreviewing());
        QCOMPARE(s.window.document().undoStack().count(), 0);
        const double shown = *s.known().after.front.corner->spacer.value;
        QVERIFY(std::abs(shown - 0.006) < 0.6e-3);
        // Along the axle 6 mm are won; across a slanting spoke a little less.
        QVERIFY(*s.verdict("front/spoke-gap").figure.value > before + 0.6 * shown
            && *s.verdict("front/spoke-gap").figure.value <= before + shown + 1e-9);
        QTest::mouseRelease(s.page->view(), Qt::LeftButton, {}, s.page->view()->toScreen(grip.at + QPointF(6, 0)).toPoint());
        QVERIFY(!s.window.document().isPreviewing());
        QVERIFY(near(*s.window.document().build().setups[1].front->spacer.value, shown, 1e-12));
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(s.window.document().build() == demo());
    }

    void escapeLetsADraggedWheelGo()
    {
        InWheelRoom s(WheelPage::Section);
        s.drag(*s.handle("/spacer_mm"), 6, false);
        QVERIFY(s.window.document().isPreviewing());
        QTest::keyClick(s.page->view(), Qt::Key_Escape);
        QVERIFY(!s.window.document().isPreviewing());
        QVERIFY(s.window.document().build() == demo());
    }

    void aProfilePointCanBeDraggedAndThenCountsAsAnEstimate()
    {
        InWheelRoom s(WheelPage::Wheel);
        const Handle grip = *s.handle("/barrel/7/inside_radius_mm");
        s.drag(grip, 3);
        const Reading& radius = s.window.document().build().wheels[0].barrel[7].insideRadius;
        QVERIFY(std::abs(*radius.value - 0.1964) < 0.6e-3);
        QCOMPARE(radius.known, Known::Estimated);
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Unproven);
    }

    /// A wheel of which nobody knows anything: taken at the places the plan names, one after the other, until it is proven.
    void measuringByThePlanProvesTheWheel()
    {
        auto build = demo();
        build.wheels[0].barrel.clear();
        build.wheels[0].spokes.clear();
        build.wheels[0].insets.clear();
        build.wheels[0].balanceWeights = YesNo::No;
        build.wheels[0].spokesAlike = YesNo::Yes;
        InWheelRoom s(WheelPage::Wheel);
        put(s.window.document(), build, "no profile");
        everythingShown();
        QVERIFY(s.verdict("front/barrel-gap").level == Level::Unproven);
        QVERIFY(s.page->view()->sheet().subtitle.contains("still to take"));
        int taken = 0;
        for (; taken < 40; ++taken) {
            const auto& callouts = s.page->view()->sheet().callouts;
            const auto next = std::ranges::find_if(callouts, [](const Callout& c) { return stationOf(c.verdict).has_value(); });
            if (next == callouts.end())
                break;
            const bool barrel = next->text.contains("depth");
            auto* button = s.page->view()->callout(next->verdict);
            QVERIFY(button && button->isVisible());
            QVERIFY(s.verdict(barrel ? "front/barrel-gap" : "front/spoke-gap").level != Level::Clear);
            QTest::mouseClick(button, Qt::LeftButton);
            // The field for what the straightedge reads there has the focus.
            auto* field = qobject_cast<DimensionField*>(QApplication::focusWidget());
            QVERIFY(field && field->pointer().ends_with(barrel ? "inside_radius_mm" : "distance_mm"));
            QTest::keyClicks(field, barrel ? "199" : "36");
            QTest::keyClick(field, Qt::Key_Tab);
        }
        QVERIFY2(taken >= 8 && taken < 40, qPrintable(QString::number(taken)));
        QVERIFY2(s.verdict("front/barrel-gap").level == Level::Clear, s.verdict("front/barrel-gap").reason.c_str());
        QVERIFY2(s.verdict("front/spoke-gap").level == Level::Clear, s.verdict("front/spoke-gap").reason.c_str());
        QVERIFY(s.page->view()->sheet().subtitle.contains("every station"));
        for (int i = 0; i < 2 * taken; ++i)
            s.window.document().undoStack().undo();
        QVERIFY(s.window.document().build().wheels[0].barrel.empty());
    }

    void anEmptiedStationGoes()
    {
        InWheelRoom s(WheelPage::Wheel);
        auto* depth = s.field("/wheels/0/barrel/0/depth_mm");
        QVERIFY(depth);
        depth->setFocus();
        s.type(depth, " ");
        QTest::keyClick(depth, Qt::Key_Backspace);
        QTest::keyClick(depth, Qt::Key_Tab);
        QCOMPARE(s.window.document().build().wheels[0].barrel.size(), demo().wheels[0].barrel.size() - 1);
    }

    /// The failing proposal: the board has cures side by side; one is tried with its button and taken back.
    void aCureIsTriedAndTakenBack()
    {
        InWheelRoom s(WheelPage::Section);
        s.window.document().setPair({ {}, "varnik-355" });
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Hits);
        const auto before = s.window.document().build();
        s.page->setPlace(WheelPage::Cures);
        (void)s.window.library().parts();
        s.page->refresh();
        everythingShown();
        auto* board = s.page->cureBoard();
        QVERIFY(board->isVisible());
        s.waited();
        QTRY_VERIFY(!board->isSearching());
        std::vector<CureLine*> cures;
        for (CureLine* line : board->lines())
            if (line->button() && line->button()->text() == "Try it")
                cures.push_back(line);
        QVERIFY2(cures.size() >= 3, qPrintable(QString::number(cures.size())));
        const auto count = cures.size();
        for (std::size_t i = 0; i < count; ++i) {
            s.waited();
            QTRY_VERIFY(!board->isSearching());
            std::vector<CureLine*> now;
            for (CureLine* line : board->lines())
                if (line->button() && line->button()->text() == "Try it")
                    now.push_back(line);
            QCOMPARE(now.size(), count);
            board->ensureWidgetVisible(now[i]);
            QTest::mouseClick(now[i]->button(), Qt::LeftButton);
            everythingShown();
            QVERIFY2(s.verdict("front/barrel-gap").level != Level::Hits, s.verdict("front/barrel-gap").reason.c_str());
            QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
            everythingShown();
            QVERIFY(s.window.document().build() == before);
            QCOMPARE(s.verdict("front/barrel-gap").level, Level::Hits);
        }
        QTRY_VERIFY(!board->isSearching());
        QCOMPARE(board->answers().size(), 3);
        QVERIFY(board->answers()[0].contains("Largest rotor"));
    }

    void anotherWheelIsPutOnFromTheBoard()
    {
        InWheelRoom s(WheelPage::Cures);
        QTRY_VERIFY(!s.page->cureBoard()->isSearching() && s.page->cureBoard()->lines().size() > 1);
        for (CureLine* line : s.page->cureBoard()->lines())
            if (line->button() && line->button()->text() == "Fit it" && line->content()->title.startsWith("18")) {
                QTest::mouseClick(line->button(), Qt::LeftButton);
                break;
            }
        everythingShown();
        QCOMPARE(s.window.document().build().setups[1].front->wheel, std::string("w18"));
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Clear);
    }

    void aWantedGapTypedChangesTheVerdict()
    {
        InWheelRoom s(WheelPage::Wanted);
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Tight);
        auto* field = s.field("/wants/barrel_gap_mm");
        QVERIFY(field);
        field->setFocus();
        s.type(field, "2");
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Clear);
    }

    /// A wheel that was spun: both sides typed and chosen by keys, and the gap is what was read; a spacer put on since makes it an
    /// estimate.
    void aSpunWheelIsTyped()
    {
        InWheelRoom s(WheelPage::Spun);
        const auto choose = [&](const std::string& pointer) {
            for (auto* each : s.page->view()->findChildren<FactField*>())
                if (each->pointer() == pointer && each->isVisible()) {
                    each->editor()->setFocus(Qt::TabFocusReason);
                    QTest::keyClick(each->editor(), Qt::Key_Y);
                    QTest::keyClick(each->editor(), Qt::Key_Return);
                    return true;
                }
            return false;
        };
        for (const std::string side : { "/left", "/right" }) {
            s.enter(corner + side + "/spun/barrel_mm", "3.6 ±0.1");
            s.enter(corner + side + "/spun/spokes_mm", "-0.5 ±0.1");
            s.enter(corner + side + "/spun/weights_mm", "8 ±0.2");
            QVERIFY(choose(corner + side + "/spun/whole_turn"));
            QVERIFY(choose(corner + side + "/spun/at_locks"));
        }
        s.waited();
        const Fitted& left = s.build().setups[1].front->left;
        QVERIFY(
            left.spun.wheel == s.build().setups[1].front->wheel && left.spun.wholeTurn == YesNo::Yes && left.spun.atLocks == YesNo::Yes);
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Clear);
        QVERIFY2(s.verdict("front/barrel-gap").reason.find("Wheel on and spun") != std::string::npos,
            s.verdict("front/barrel-gap").reason.c_str());
        QCOMPARE(s.verdict("front/spoke-gap").level, Level::Hits);
        s.page->setPlace(WheelPage::Studs);
        s.waited();
        s.enter(corner + "/spacer_mm", "5");
        s.waited();
        QCOMPARE(s.build().setups[1].front->left.spun.changed, std::string("spacer"));
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Unproven);
        s.page->setPlace(WheelPage::Spun);
        s.waited();
        QVERIFY(
            std::ranges::any_of(s.page->view()->sheet().letters, [](const auto& l) { return l.text.contains("changed since: spacer"); }));
        // Undone, it is a reading again.
        s.window.document().undoStack().undo();
        s.waited();
        QVERIFY(s.build().setups[1].front->left.spun.changed.empty());
    }

    void everythingAboutTheStudsCanBeTyped()
    {
        InWheelRoom s(WheelPage::Studs);
        auto* ring = s.field(corner + "/ring_mm");
        QVERIFY(ring);
        ring->setFocus();
        s.type(ring, "12");
        QTest::keyClick(ring, Qt::Key_Return);
        QCOMPARE(s.verdict("front/studs").level, Level::Stop);
        auto* button = s.page->view()->callout("front/studs");
        QVERIFY(button && button->level() == Level::Stop);
        QTest::mouseClick(button, Qt::LeftButton);
        QVERIFY2(s.slipText().contains("order studs"), qPrintable(s.slipText()));
    }

    /// The mounted caliper from outboard: the mark of the bleeder to open lies higher than the other on both sides of the car.
    void theFaceShowsBothSidesMirrored()
    {
        InWheelRoom s(WheelPage::Outboard);
        const auto& sheet = s.page->view()->sheet();
        double left = 1e9, right = -1e9;
        int marked = 0;
        for (const Lettering& l : sheet.letters)
            if (l.text == "bleed here") {
                ++marked;
                left = std::min(left, l.at.x());
                right = std::max(right, l.at.x());
                for (const Lettering& other : sheet.letters)
                    if (other.text == "bleeder" && (other.at.x() < 0) == (l.at.x() < 0))
                        QVERIFY(l.at.y() < other.at.y());
            }
        QCOMPARE(marked, 2);
        QVERIFY(std::abs(left + right) < 1e-6); // mirror images
    }

    void everyVerdictIsShownWhereItIs()
    {
        InWheelRoom s(WheelPage::Section);
        for (const auto& [id, place] : { std::pair { "front/studs", WheelPage::Studs }, { "front/keep-out-1", WheelPage::Behind },
                 { "front/bleeder", WheelPage::Outboard }, { "front/barrel-gap", WheelPage::Section },
                 { "front/shield", WheelPage::Behind } }) {
            s.window.slip()->choose(id);
            QCOMPARE(s.page->place(), int(place));
        }
    }

    void theTemplateIsSeenCorrectedAndSaved()
    {
        InWheelRoom s(WheelPage::Section);
        QTest::keyClick(&s.window, Qt::Key_P, Qt::ControlModifier);
        auto* w = s.window.showTemplate();
        QVERIFY(w->isVisible());
        QCOMPARE(w->view()->pages().size(), std::size_t(1));
        const auto plain = w->view()->pages()[0];
        s.type(w->across(), "98.5");
        QVERIFY(!(w->view()->pages()[0] == plain));
        s.type(w->across(), "9.85");
        QVERIFY(w->view()->pages().empty());
        QVERIFY2(w->trouble().contains("outer ticks"), qPrintable(w->trouble()));
        s.type(w->across(), "100");
        QVERIFY(w->view()->pages()[0] == plain);
        QTemporaryDir folder;
        for (const char* name : { "t.pdf", "t.svg", "t.dxf" }) {
            QVERIFY(w->save(folder.filePath(name)));
            QVERIFY(QFileInfo(folder.filePath(name)).size() > 1000);
        }
        QVERIFY(!w->save(folder.filePath("t.gif")));
        QVERIFY(w->trouble().contains(".pdf"));
    }

    /// What the window shows is what the printer gets and what the PDF holds: three rasters of one sheet, ink on ink.
    void previewIsPrintIsPdf()
    {
        InWheelRoom s(WheelPage::Section);
        auto* w = s.window.showTemplate();
        QTemporaryDir folder;
        QVERIFY(w->save(folder.filePath("saved.pdf")));
        QPrinter printer(QPrinter::HighResolution);
        printer.setOutputFormat(QPrinter::PdfFormat);
        printer.setPageSize(QPageSize(QPageSize::A4));
        printer.setOutputFileName(folder.filePath("printed.pdf"));
        w->print(printer);
        const int dpi = 200;
        const auto raster = [&](const QString& name) {
            (void)answerOf(
                "pdftoppm", { "-gray", "-png", "-r", QString::number(dpi), "-singlefile", folder.filePath(name), folder.filePath("page") });
            return QImage(folder.filePath("page.png")).convertToFormat(QImage::Format_Grayscale8);
        };
        const QImage saved = raster("saved.pdf");
        const QImage printed = raster("printed.pdf");
        QImage shown(saved.size(), QImage::Format_Grayscale8);
        shown.fill(255);
        QPainter p(&shown);
        paintPage(p, w->view()->pages()[0], dpi / 0.0254);
        p.end();
        QVERIFY(std::abs(saved.width() - printed.width()) <= 1);
        const auto inkNear = [](const QImage& image, int x, int y) {
            for (int j = y - 2; j <= y + 2; ++j)
                for (int i = x - 2; i <= x + 2; ++i)
                    if (image.valid(i, j) && qGray(image.pixel(i, j)) < 200)
                        return true;
            return false;
        };
        using Images = std::pair<const QImage*, const QImage*>;
        for (const auto& [a, b] :
            { Images { &saved, &shown }, Images { &shown, &saved }, Images { &saved, &printed }, Images { &printed, &saved } }) {
            int ink = 0, alone = 0;
            for (int y = 0; y < a->height(); ++y)
                for (int x = 0; x < a->width(); ++x)
                    if (qGray(a->pixel(x, y)) < 110) {
                        ++ink;
                        alone += !inkNear(*b, x, y);
                    }
            QVERIFY(ink > 5000);
            QVERIFY2(alone < ink / 100, qPrintable(QString("%1 of %2").arg(alone).arg(ink)));
        }
    }

    /// What stands into the barrel is entered in the free row, reading by reading, and is unproven until it is whole.
    void aWeightIsEnteredAndComesOverTheCaliper()
    {
        auto build = demo();
        build.wheels[0].insets.clear();
        build.wheels[0].balanceWeights = YesNo::No;
        build.wheels[0].spokesAlike = YesNo::Yes;
        InWheelRoom s(WheelPage::Wheel);
        put(s.window.document(), build, "no insets");
        QVERIFY(!s.known().verdict("front/inset-gap"));
        auto* free = s.field("/wheels/0/insets/-/from_mm");
        QVERIFY(free);
        free->setFocus();
        QTest::keyClicks(free, "30");
        QTest::keyClick(free, Qt::Key_Return);
        QCOMPARE(s.window.document().build().wheels[0].insets.size(), std::size_t(1));
        QCOMPARE(s.verdict("front/inset-gap").level, Level::Unproven);
        for (const auto& [key, value] : { std::pair { "to_mm", "60" }, { "height_mm", "5" } }) {
            auto* field = s.field(std::string("/wheels/0/insets/0/") + key);
            QVERIFY(field);
            field->setFocus();
            s.type(field, value);
            QTest::keyClick(field, Qt::Key_Tab);
        }
        // Weights 5 mm high over the back of the bridge, where 3.1 mm are left.
        QCOMPARE(s.verdict("front/inset-gap").level, Level::Hits);
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Tight);
        // Emptied, it goes.
        auto* height = s.field("/wheels/0/insets/0/height_mm");
        height->setFocus();
        QTest::keyClick(height, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClick(height, Qt::Key_Backspace);
        QTest::keyClick(height, Qt::Key_Tab);
        QVERIFY(s.window.document().build().wheels[0].insets.empty());
    }

    void aBumpTypedFromOutboardIsSwept()
    {
        InWheelRoom s(WheelPage::Outboard);
        const double before = *s.verdict("front/barrel-gap").figure.value;
        auto* over = s.field(corner + "/caliper/bumps/0/over_edge_mm");
        QVERIFY(over);
        over->setFocus();
        s.type(over, "20");
        QTest::keyClick(over, Qt::Key_Return);
        // By hand: √((165 + 20)² + 57²) = 193.6 mm, higher than any barrel is over it.
        QVERIFY(*s.verdict("front/barrel-gap").figure.value < before);
        QCOMPARE(s.verdict("front/barrel-gap").level, Level::Hits);
        QVERIFY2(
            s.verdict("front/barrel-gap").reason.find("the bleeder") != std::string::npos, s.verdict("front/barrel-gap").reason.c_str());
    }

    void aPlaceThatStandsStillIsEntered()
    {
        InWheelRoom s(WheelPage::Behind);
        const auto count = s.window.document().build().frontHub.keepOuts.size();
        auto* free = s.field("/front_hub/keep_outs/-/depth_mm");
        QVERIFY(free);
        free->setFocus();
        QTest::keyClicks(free, "50");
        QTest::keyClick(free, Qt::Key_Return);
        QCOMPARE(s.window.document().build().frontHub.keepOuts.size(), count + 1);
        QCOMPARE(s.verdict("front/keep-out-4").level, Level::Unproven);
        auto* radius = s.field("/front_hub/keep_outs/3/radius_mm");
        QVERIFY(radius);
        radius->setFocus();
        QTest::keyClicks(radius, "150");
        QTest::keyClick(radius, Qt::Key_Return);
        // By hand: the rotor's inboard face lies 38 mm in, 12 from there, and a rule reads to half a millimetre.
        QVERIFY(near(*s.verdict("front/keep-out-4").figure.value, 0.012, 1e-9));
        QCOMPARE(s.verdict("front/keep-out-4").level, Level::Clear);
        s.type(radius, "205");
        QTest::keyClick(radius, Qt::Key_Return);
        QVERIFY(s.verdict("front/keep-out-4").level != Level::Clear);
    }

    void aWasherTrialEndsInASpacer()
    {
        InWheelRoom s(WheelPage::Studs);
        auto* washers = s.field(corner + "/washers_mm");
        QVERIFY(washers);
        washers->setFocus();
        QTest::keyClicks(washers, "1.5 ±0.1");
        QTest::keyClick(washers, Qt::Key_Return);
        QCOMPARE(s.verdict("front/washers").level, Level::Caution);
        s.window.slip()->choose("front/washers");
        QTest::keyClick(&s.window, Qt::Key_Return, Qt::ControlModifier);
        // 1.5 + 0.1 + 3: 5 is the next that is sold.
        QVERIFY(near(*s.window.document().build().setups[1].front->spacer.value, 0.005, 1e-9));
        QCOMPARE(s.verdict("front/washers").level, Level::Good);
        QCOMPARE(s.verdict("front/studs").level, Level::Caution);
    }

    void whatIsFineIsFoldedUntilItIsAskedFor()
    {
        InWheelRoom s(WheelPage::Section);
        auto* slip = s.window.slip();
        QVERIFY(slip->plainText().contains("more are clear or good"));
        QVERIFY(!slip->plainText().contains("Studs in their nuts"));
        slip->follow(QUrl("fold:"));
        QVERIFY(slip->plainText().contains("Studs in their nuts"));
        slip->follow(QUrl("fold:"));
        QVERIFY(!slip->plainText().contains("Studs in their nuts"));
    }

    void aLargeTemplateIsTiledOnLetterInTheStates()
    {
        InWheelRoom s(WheelPage::Section);
        s.window.document().setUnits(UnitSystem::Us);
        s.waited();
        auto* w = s.window.showTemplate();
        QCOMPARE(w->paper()->currentText(), QString("Letter"));
        w->what()->setCurrentIndex(1);
        w->refresh();
        QVERIFY(w->view()->pages().size() > 1);
        QVERIFY2(w->trouble().contains("mark on mark"), qPrintable(w->trouble()));
        // Sheets lie beside each other and do not overlap on the table.
        for (std::size_t i = 0; i < w->view()->pages().size(); ++i)
            for (std::size_t k = i + 1; k < w->view()->pages().size(); ++k)
                QVERIFY(!w->view()->sheet(i).intersects(w->view()->sheet(k)));
        QVERIFY(inked(w->view()->grab().toImage()) > 2000);
        auto build = demo();
        build.frontHub.shieldDepth = {};
        put(s.window.document(), build, "shield unknown");
        w->refresh();
        s.waited();
        QVERIFY(w->view()->pages().empty() && w->trouble().contains("dust shield's plate"));
    }

    void nothingOnTheAxleIsSaidAndDrawnWithoutAWheel()
    {
        auto build = demo();
        build.setups[1].front->wheel.clear();
        InWheelRoom s(WheelPage::Section);
        put(s.window.document(), build, "no wheel");
        for (int place = WheelPage::Section; place <= WheelPage::Wanted; ++place) {
            s.page->setPlace(place);
            QVERIFY2(inked(s.page->grab().toImage()) > 2000, qPrintable(QString::number(place)));
        }
    }

    /// A gap whose worst case touches is drawn as the verdict says it: hits, not tight.
    void theBoardDrawsAGapAsItsVerdictSaysIt()
    {
        CureLine::Content content;
        content.wanted.fill(3e-3);
        Figure& gap = content.gaps[0];
        gap.value = 0.5e-3;
        gap.worstCase = 1e-3;
        QCOMPARE(content.gapLevel(0), Level::Hits);
        gap.worstCase = 0.2e-3;
        QCOMPARE(content.gapLevel(0), Level::Tight);
        gap.value = 5e-3;
        QCOMPARE(content.gapLevel(0), Level::Clear);
        gap.assumed.push_back("a barrel nobody read");
        QCOMPARE(content.gapLevel(0), Level::Unproven);
    }

    void theCarsNameIsTypedWhereItStands()
    {
        Shown s;
        s.window.startNew();
        auto* name = s.window.findChild<QLineEdit*>("/car/name");
        QVERIFY(name && name->isVisible() && name->text().isEmpty());
        QTest::mouseClick(name, Qt::LeftButton);
        QTest::keyClicks(name, "Halden Merle");
        QTest::keyClick(name, Qt::Key_Return);
        QCOMPARE(s.window.document().build().car.name, std::string("Halden Merle"));
        QVERIFY(s.window.windowTitle().startsWith("Halden Merle"));
        s.window.document().undoStack().undo();
        QVERIFY(s.window.document().build().car.name.empty() && name->text().isEmpty());
    }
};

DEEPSTOP_TEST(WheelWindowTest)
#include "wheel_window_test.moc"
