/// The page Design, by mouse and keys.

#include "app/shown.hpp"
#include "stages/design/design_map.hpp"
#include "stages/design/design_page.hpp"
#include "stages/design/section_view.hpp"

#include <QFileInfo>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>

namespace {

struct AtDesign : Shown {
    DesignPage* page;
    AtDesign() : page(window.page<DesignPage>())
    {
        window.resize(1280, 800);
        QTest::keyClick(&window, Qt::Key_D, Qt::ControlModifier);
        everythingShown();
        page->finish();
        everythingShown();
    }
    [[nodiscard]] QString said() const { return page->verdict()->text(); }
    void type(const char* name, const char* text)
    {
        QLineEdit* field = page->field(QString::fromLatin1(name));
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        everythingShown();
        page->finish();
        everythingShown();
    }
};

} // namespace

class DesignWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    /// The page opens where the proposal stands; the largest rotor that clears is a button away; dragged up it is tight, then hits; the
    /// fields follow.
    void dotIsDragged()
    {
        AtDesign s;
        QVERIFY(s.page->isVisible());
        QVERIFY(near(s.page->proposal().rotor, 330e-3, 1e-9));
        QVERIFY2(s.said().contains("Tight"), qPrintable(s.said()));
        QTest::mouseClick(s.page->bestButton(design::Aim::Rotor), Qt::LeftButton);
        QVERIFY2(s.said().contains("Clear,"), qPrintable(s.said()));
        QVERIFY(s.page->map()->names().contains("Gap to the barrel"));
        const auto best = s.page->proposal();
        const QPoint from = s.page->map()->toScreen(best.slot, best.rotor).toPoint();
        QTest::mousePress(s.page->map(), Qt::LeftButton, {}, from);
        QTest::mouseMove(s.page->map(), s.page->map()->toScreen(best.slot, best.rotor + 3e-3).toPoint());
        QTest::mouseRelease(s.page->map(), Qt::LeftButton, {}, s.page->map()->toScreen(best.slot, best.rotor + 3e-3).toPoint());
        everythingShown();
        QVERIFY2(s.said().contains("Tight") || s.said().contains("Hits"), qPrintable(s.said()));
        QVERIFY(s.page->proposal().rotor > best.rotor + 1e-3);
        QVERIFY(s.page->field("rotor")->text().startsWith(QString::number(s.page->proposal().rotor * 1e3, 'f', 1)));
        // The button brings it back.
        QTest::mouseClick(s.page->bestButton(design::Aim::Rotor), Qt::LeftButton);
        QVERIFY(s.page->proposal() == best);
        QVERIFY(s.said().contains("Clear,"));
    }

    void keysMoveTheDot()
    {
        AtDesign s;
        const auto best = s.page->proposal();
        s.page->map()->setFocus();
        QTest::keyClick(s.page->map(), Qt::Key_Down);
        QVERIFY(near(s.page->proposal().rotor, best.rotor - 0.1e-3, 1e-9));
        QTest::keyClick(s.page->map(), Qt::Key_Right, Qt::ShiftModifier);
        QVERIFY(near(s.page->proposal().slot, best.slot + 0.5e-3, 1e-6));
    }

    void typedValuesCount()
    {
        AtDesign s;
        s.type("rotor", "12.6in");
        QVERIFY(near(s.page->proposal().rotor, 12.6 * 25.4e-3, 1e-9));
        // A spacer is the same all over the map: it is worked out anew, and the dot stays.
        const auto before = s.page->work();
        s.type("spacer", "5");
        QVERIFY(s.page->work() != before);
        QVERIFY(near(s.page->work()->map->at.spacer, 5e-3, 1e-9));
        QVERIFY(near(s.page->proposal().rotor, 12.6 * 25.4e-3, 1e-9));
        // What is no length is refused, and nothing changes.
        s.type("rotor", "wide");
        QVERIFY(near(s.page->proposal().rotor, 12.6 * 25.4e-3, 1e-9));
    }

    /// The wheel is dragged outboard by its handle: a spacer, judged anew with studs, pilot and fender; never less than none.
    void wheelIsDraggedByItsHandle()
    {
        AtDesign s;
        auto* section = s.page->findChild<SectionView*>();
        const QPoint at = section->handle(SectionView::Spacer).center().toPoint();
        QVERIFY(section->rect().contains(at));
        QVERIFY(section->handle(SectionView::Shims).isEmpty() != s.page->work()->maker->sizes(s.page->proposal()).radial);
        const double before = s.page->proposal().spacer;
        QTest::mousePress(section, Qt::LeftButton, {}, at);
        QTest::mouseMove(section, at + QPoint(30, 0));
        const double after = s.page->proposal().spacer;
        QVERIFY(after > before + 1e-3);
        QCOMPARE(s.said(), QStringLiteral("Being worked out …"));
        QTest::mouseMove(section, at - QPoint(90, 0));
        QCOMPARE(s.page->proposal().spacer, 0.0);
        QTest::mouseMove(section, at + QPoint(30, 0));
        QTest::mouseRelease(section, Qt::LeftButton, {}, at + QPoint(30, 0));
        QVERIFY(near(s.page->proposal().spacer, after, 1e-9));
        s.page->finish();
        QVERIFY2(s.said().contains("if made as drawn"), qPrintable(s.said()));
        QVERIFY(near(s.page->work()->map->at.spacer, after, 1e-9));
        // Beside the handle nothing is taken hold of.
        QTest::mousePress(section, Qt::LeftButton, {}, at - QPoint(0, 80));
        QTest::mouseMove(section, at + QPoint(60, -80));
        QTest::mouseRelease(section, Qt::LeftButton, {}, at + QPoint(60, -80));
        QVERIFY(near(s.page->proposal().spacer, after, 1e-9));
    }

    /// A size that is made, with the most room for its slot; another angle round the axle is taken along.
    void sizesThatAreMade()
    {
        AtDesign s;
        QTest::mouseClick(s.page->bestButton(design::Aim::Rotor), Qt::LeftButton);
        QTest::mouseClick(s.page->madeButton(), Qt::LeftButton);
        s.page->finish();
        QVERIFY(near(std::remainder(s.page->proposal().rotor, 1e-3), 0, 1e-9)
            || std::abs(std::remainder(s.page->proposal().rotor, 1e-3)) < 1e-9);
        QVERIFY2(s.said().contains("Clear,"), qPrintable(s.said()));
        s.type("clock", "70");
        QVERIFY(s.page->proposal().clock && near(*s.page->proposal().clock, 70 * std::numbers::pi / 180, 1e-9));
        QVERIFY(s.page->work()->map->at.clock);
    }

    /// Put in, the kit is the setup that is judged, unproven, and can be undone.
    void kitIsPutIn()
    {
        AtDesign s;
        const auto before = s.window.document().build();
        QTimer::singleShot(0, [&] {
            auto* dialog = qobject_cast<QInputDialog*>(QApplication::activeModalWidget());
            QVERIFY(dialog);
            dialog->setTextValue("Our own");
            dialog->accept();
        });
        QTest::mouseClick(s.page->putInButton(), Qt::LeftButton);
        everythingShown();
        QCOMPARE(s.window.document().build().setups.back().name, "Our own");
        QCOMPARE(s.window.document().wholeStudy().after.setup->id, "our-own");
        const Verdict* v = s.window.document().wholeStudy().verdict("front/barrel-gap");
        QVERIFY(v && v->level == Level::Unproven);
        QVERIFY(QString::fromStdString(v->reason).contains("not read on the made parts"));
        s.window.document().undoStack().undo();
        QVERIFY(s.window.document().build() == before);
    }

    void drawingsAndOrderAreWritten()
    {
        AtDesign s;
        QTemporaryDir folder;
        QVERIFY(s.page->write(folder.filePath("order.pdf")));
        QVERIFY(QFileInfo(folder.filePath("order.pdf")).size() > 10000);
        for (const int place : { DesignPage::Hat, DesignPage::Ring, DesignPage::Bracket }) {
            s.page->setPlace(place);
            everythingShown();
            QVERIFY(s.page->view()->sheet().areas.size() > 10);
            const auto path = folder.filePath(QString("part-%1.step").arg(place));
            QVERIFY(s.page->write(path));
            QVERIFY(QFileInfo(path).size() > 1000);
            QVERIFY(!s.page->write(folder.filePath("part.doc")));
        }
        s.page->setPlace(DesignPage::Order);
        everythingShown();
        QVERIFY(s.page->order().contains("friction ring"));
    }

    void lackingReadingsAreSaid()
    {
        AtDesign s;
        Build build = s.window.document().build();
        for (Setup& setup : build.setups)
            if (setup.front)
                setup.front->caliper.backOverEdge.value.reset();
        put(s.window.document(), build, "start");
        s.window.document().settle();
        everythingShown();
        s.page->finish();
        everythingShown();
        QVERIFY2(s.said().contains("Unproven"), qPrintable(s.said()));
        QVERIFY2(s.said().contains("Lacks"), qPrintable(s.said()));
        QVERIFY(!s.page->bestButton(design::Aim::Rotor)->isEnabled());
    }

    void everyWheelTickedMustClear()
    {
        AtDesign s;
        auto* list = s.page->findChild<QListWidget*>();
        QVERIFY(list && list->count() >= 2);
        const auto alone = s.page->work()->basis.wheels.size();
        QCOMPARE(alone, 1u);
        for (int i = 0; i < list->count(); ++i)
            list->item(i)->setCheckState(Qt::Checked);
        everythingShown();
        s.page->finish();
        everythingShown();
        QCOMPARE(s.page->work()->basis.wheels.size(), static_cast<std::size_t>(list->count()));
    }
};

DEEPSTOP_TEST(DesignWindowTest)
#include "design_window_test.moc"
