/// Readings typed, chosen and undone in the real window, checked by what a person sees.

#include "chapters/centring/centring_chapter.hpp"
#include "app/shown.hpp"

class EditingTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void editsADimensionByMouseAndKeyboardAndKeepsIt()
    {
        Shown s;
        QTemporaryDir dir;
        const auto path = dir.filePath("merle.deepstop");
        auto* field = s.field(diameter);
        QVERIFY(field && field->isVisible());
        QCOMPARE(field->text(), QString("Ø 330.0"));
        const auto gap = s.ledger("wheel-gap");
        const auto callout = s.window.page(WheelPage::id)->view()->callout("front/barrel-gap")->text();
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
        QCOMPARE(s.cell("wheel-gap")->word(), QString("hits"));
        QCOMPARE(s.window.page(WheelPage::id)->view()->callout("front/barrel-gap")->level(), Level::Hits);
        QVERIFY(s.window.page(WheelPage::id)->view()->callout("front/barrel-gap")->text() != callout);
        QCOMPARE(s.rail()->button(WheelPage::id)->state(), QString("hits"));
        QVERIFY(s.slipText().contains("Overlaps by"));
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
        const auto& lines = s.window.page(WheelPage::id)->view()->sheet().dimensions;
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
        QVERIFY(field->refusal().contains("from 0.1 mm to 500 mm"));
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
        QVERIFY(s.cell("heat-store")->toolTip().contains("rotor thickness"));
        QVERIFY(s.ledger("heat-store").endsWith("–"));
        s.window.slip()->choose("front/face-gap");
        QVERIFY(s.slipText().contains("Lacks rotor thickness"));
        QCOMPARE(s.cell("wheel-gap")->word(), QString("tight"));
        QVERIFY(s.window.page(WheelPage::id)->view()->sheet().subtitle.contains("?"));
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
        QVERIFY(s.slipText().contains("estimate"));
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
        emit s.window.slip()->browser()->anchorClicked(QUrl("reading:/wheels/0/barrel/10/inside_radius_mm"));
        auto* field = s.window.slip()->card()->field();
        QVERIFY(field && field->isVisible());
        QCOMPARE(field->text(), QString("192.4 mm"));
        QTest::mouseClick(field, Qt::LeftButton);
        s.type(field, "190");
        QTest::keyClick(field, Qt::Key_Return);
        QVERIFY(s.ledger("wheel-gap") != gap);
        QCOMPARE(s.cell("wheel-gap")->word(), QString("tight"));
    }

    void aRemedyIsTriedAndUndone()
    {
        Shown s;
        s.window.document().setPair({ {}, "varnik-355" });
        s.window.setStage(WheelPage::id);
        QCOMPARE(s.cell("wheel-gap")->word(), QString("hits"));
        auto* browser = s.window.slip()->browser();
        QVERIFY(browser->toPlainText().contains("How to gain clearance"));
        // The link is where the pointer would find it.
        QString link;
        for (auto block = browser->document()->begin(); block.isValid(); block = block.next())
            for (auto it = block.begin(); !it.atEnd(); ++it)
                if (it.fragment().charFormat().anchorHref().startsWith("remedy:") && link.isEmpty())
                    link = it.fragment().charFormat().anchorHref();
        QVERIFY(!link.isEmpty());
        emit browser->anchorClicked(QUrl(link));
        QCOMPARE(s.window.document().undoStack().count(), 1);
        QVERIFY2(s.cell("wheel-gap")->word() != "hits", qPrintable(s.slipText()));
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(s.cell("wheel-gap")->word(), QString("hits"));
    }

    void aCornerIsMockedUpByKeyboardFromNothing()
    {
        Shown s;
        s.window.document().setPair({ {}, "varnik-355" });
        s.window.setStage(CentringPage::id);
        QCOMPARE(s.known().of<Centring>().corners.size(), std::size_t(0));
        auto* begin = s.window.page(CentringPage::id)->findChild<QPushButton*>("place-0");
        QVERIFY(begin && begin->isVisible());
        QTest::mouseClick(begin, Qt::LeftButton);
        QCOMPARE(s.known().of<Centring>().corners.size(), std::size_t(1));
        QTest::keyClick(&s.window, Qt::Key_F2);
        for (const char* gap : { "9.4", "8.6", "9.3", "8.7", "110" }) {
            everythingShown();
            auto* field = qobject_cast<DimensionField*>(QApplication::focusWidget());
            QVERIFY(field && field->isMissing());
            QTest::keyClicks(field, gap);
            QTest::keyClick(field, Qt::Key_Return);
        }
        QVERIFY(near(*s.known().of<Centring>().corners[0].axial.value, -0.35e-3, 1e-6));
        QVERIFY(s.slipText().contains("too far inboard"));
        while (s.window.document().undoStack().canUndo())
            QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(!s.window.isWindowModified());
        QCOMPARE(s.known().of<Centring>().corners.size(), std::size_t(0));
    }

    void whatIsChosenRatherThanMeasured()
    {
        Shown s;
        const auto choose = [&](StageId stage, int index) {
            s.window.setStage(stage);
            auto* box = s.window.page(stage)->findChild<QComboBox*>("choice");
            QVERIFY(box && box->isVisible());
            box->setFocus();
            box->setCurrentIndex(index);
            emit box->activated(index);
        };
        choose(WheelPage::id, 1); // the 18-inch wheel
        QCOMPARE(s.window.document().build().setups[1].front->wheel, std::string("w18"));
        QCOMPARE(s.cell("wheel-gap")->word(), QString("clear"));
        choose(CarPage::id, 2); // no antilock
        QVERIFY(s.window.document().build().car.antilock == YesNo::No);
        const auto planned = s.known().verdict("front-left/axial")->remedies.front().title;
        choose(CentringPage::id, 2); // shims on the other side of the ear
        QVERIFY(s.known().verdict("front-left/axial")->remedies.front().title != planned);
        for (int i = 0; i < 3; ++i)
            QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(!s.window.isWindowModified());
    }

    void theDrawerIsOneLineOfText()
    {
        Shown s;
        s.window.setStage(CentringPage::id);
        auto* drawer = s.window.page<CentringPage>()->drawer();
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
        QVERIFY(s.slipText().contains("0.40"));
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
        QCOMPARE(s.known().after.setup->id, std::string("varnik-330-2"));
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
        QVERIFY(
            near(*files::loadBuild(dir.filePath("a.deepstop").toStdString()).build.setups[1].front->rotor.thickness.value, 0.0275, 1e-12));
        // Half typed and no quantity: the drawing goes back to what is known, the text stays.
        field->setFocus();
        s.type(field, "26");
        QTest::keyClicks(field, "x");
        QVERIFY(!field->refusal().isEmpty());
        QCOMPARE(*s.known().after.front.corner->rotor.thickness.value, 0.0275);
    }
};

DEEPSTOP_TEST(EditingTest)
#include "editing_test.moc"
