/// The parts bench in the real window: a kit entered by keyboard alone, unpacked, and asked about.

#include "chapters/stopping/stopping_chapter.hpp"
#include "chapters/weights/weights_chapter.hpp"
#include "app/empty_build.hpp"
#include "widgets/ask_list.hpp"
#include "widgets/check_list.hpp"

#include <QClipboard>

using namespace deepstop::app;

class BenchWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void theMerlesKitIsEnteredFromAnEmptyBuildByKeyboardAlone()
    {
        auto kit = demo();
        // The bench asks for everything in its own order; friction points come in rows of two.
        kit.setups[1].front->pad.frictionOverTemperature.clear();
        kit.setups[1].front->wheel.clear();
        Empty s;
        QCOMPARE(s.window.stage(), BenchPage::id);
        QTRY_COMPARE(s.at(), std::string("/setups/1/front/rotor/name"));
        std::vector<std::string> visited;
        for (int i = 0; i < 200; ++i) {
            visited.push_back(s.at());
            if (!enterNext(s, kit))
                break;
        }
        QCOMPARE(s.bench()->place(), lastEnteredBench);
        // In measuring order: the rotor's diameter before its hat, the rotor before the caliper, everything before the scales.
        const auto when = [&](const char* pointer) { return std::ranges::find(visited, pointer) - visited.begin(); };
        QVERIFY(when("/setups/1/front/rotor/outer_diameter_mm") < when("/setups/1/front/rotor/overall_height_mm"));
        QVERIFY(when("/setups/1/front/left/runout_mm") < when("/setups/1/front/caliper/back_over_edge_mm"));
        QVERIFY(when("/setups/1/front/caliper/slot_width_mm") < when("/setups/1/front/pad/length_mm"));
        QVERIFY(when("/setups/1/front/pad/friction") < when("/setups/1/front/weighings/-/mass_kg"));
        const Corner& entered = *s.window.document().build().setups[1].front;
        const Corner& wanted = *kit.setups[1].front;
        const Directory now(s.window.document().build());
        const Directory then(kit);
        int compared = 0;
        for (const auto& entry : then.entries()) {
            const auto& pointer = entry.address.pointer;
            if (!pointer.starts_with("/setups/1/front/") || !entry.reading->value)
                continue;
            // How it is mounted, what stands proud and its hardware are read in the wheel room and while centring, what gives
            // under pressure at the balance.
            if (std::ranges::any_of(std::array { "/mount/", "/bumps/", "/joints/", "/mount_drop", "/mount_depth", "/bridge_bolt",
                                        "/pin_length", "/corner_radius", "/bracket/thickness", "/bracket/proud", "/left/", "/right/",
                                        "/knuckle_hole", "/caliper_hole", "/give_cm3", "/squeeze_mm" },
                    [&](const char* part) { return pointer.find(part) != std::string::npos; }))
                continue;
            const auto* mine = now.at(pointer);
            QVERIFY2(mine && mine->reading->value && near(*mine->reading->value, *entry.reading->value, 1e-9), pointer.c_str());
            QCOMPARE(mine->reading->known, Known::Measured);
            ++compared;
        }
        QVERIFY2(compared >= 45, qPrintable(QString::number(compared)));
        QCOMPARE(entered.rotor.name, wanted.rotor.name);
        QCOMPARE(entered.rotor.vaneShape, wanted.rotor.vaneShape);
        QCOMPARE(entered.rotor.vanes, wanted.rotor.vanes);
        QCOMPARE(entered.rotor.hatBoltThread, wanted.rotor.hatBoltThread);
        QCOMPARE(entered.caliper.bleeders, wanted.caliper.bleeders);
        QCOMPARE(entered.bracket.boltThread, wanted.bracket.boltThread);
        QCOMPARE(entered.weighings.size(), wanted.weighings.size());
        for (std::size_t i = 0; i < wanted.weighings.size(); ++i)
            QVERIFY(entered.weighings[i].contains == wanted.weighings[i].contains);
        // The hub too, and what meets what is judged.
        QVERIFY(near(*s.window.document().build().frontHub.pilotDiameter.value, 0.0664, 1e-9));
        QCOMPARE(s.known().verdict("front/bore")->level, Level::Good);
        QCOMPARE(s.known().verdict("front/pad-slot")->level, Level::Good);
        // Every step can be taken back.
        while (s.window.document().undoStack().canUndo())
            s.window.document().undoStack().undo();
        QVERIFY(!s.window.document().build().setups[1].front->rotor.outerDiameter.value);
    }

    /// Drums behind, wheel bolts and a floating caliper in front: typed where they stand, studied, saved and opened again.
    void drumsWheelBoltsAndAFloatingCaliperAreEnteredByKeys()
    {
        const auto camper = demo("drover-camper");
        Empty s;
        auto* bench = s.window.page<BenchPage>();
        const auto put = [&](StagePage* page, const std::string& pointer, const std::string& from) {
            if (auto* fact = page->view()->fact(pointer)) {
                QWidget* editor = fact->editor();
                editor->setFocus();
                const auto wanted = QString::fromStdString(factAt(camper, from)->value);
                if (auto* box = qobject_cast<QComboBox*>(editor)) {
                    QTest::keyClick(box, Qt::Key_Home);
                    for (int i = 0; i < box->count() && box->currentText() != wanted; ++i)
                        QTest::keyClick(box, Qt::Key_Down);
                } else {
                    s.type(editor, wanted);
                }
                QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
            } else if (auto* field = page->view()->field(pointer)) {
                field->setFocus();
                s.type(field, QString::fromStdString(textFor(camper, from)));
                QTest::keyClick(field, Qt::Key_Return);
            } else {
                QFAIL(("nothing on this sheet takes " + pointer).c_str());
            }
            everythingShown();
        };
        // The second setup leaves the rear as it was found.
        QTest::keyClick(bench->axleChoice(), Qt::Key_Down);
        everythingShown();
        bench->setPlace(BenchPage::Fittings);
        put(bench, "/setups/0/rear/brakes", "/setups/0/rear/brakes");
        bench->setPlace(0);
        for (const char* key :
            { "name", "kind", "inside_diameter_mm", "largest_diameter_mm", "shoe_width_mm", "shoe_arc_deg", "anchor_radius_mm", "friction",
                "cylinder_bore_mm", "lining_thickness_mm", "minimum_lining_mm", "depth_mm", "face_thickness_mm", "wall_mm" })
            put(bench, std::string("/setups/0/rear/drum/") + key, std::string("/setups/0/rear/drum/") + key);
        QTest::keyClick(bench->axleChoice(), Qt::Key_Up);
        everythingShown();
        bench->setPlace(BenchPage::Caliper);
        put(bench, "/setups/1/front/caliper/kind", "/setups/1/front/caliper/kind");
        for (const char* key : { "slide_travel_mm", "piston_stroke_mm", "pad_room_mm" })
            put(bench, std::string("/setups/1/front/caliper/") + key, std::string("/setups/1/front/caliper/") + key);
        Build wheeled = s.window.document().build();
        wheeled.wheels = { camper.wheels[0] };
        wheeled.setups[0].front->wheel = camper.wheels[0].id;
        wheeled.setups[1].front->wheel = camper.wheels[0].id;
        ::put(s.window.document(), wheeled, "a wheel");
        QTest::keyClick(&s.window, Qt::Key_3, Qt::ControlModifier);
        auto* room = s.window.page<WheelPage>();
        room->setPlace(WheelPage::Studs);
        everythingShown();
        for (const char* key : { "/front_hub/wheel_held_by", "/front_hub/stud_thread", "/front_hub/nut_seat", "/front_hub/seat_radius_mm",
                 "/front_hub/wheel_bolt_length_mm", "/front_hub/hub_thread_mm", "/front_hub/behind_flange_mm" })
            put(room, key, key);
        const Build& build = s.window.document().build();
        QVERIFY(!QTest::currentTestFailed() && build.setups[0].rear);
        const Drum entered = build.setups[0].rear->drum;
        const Drum& wanted = camper.setups[0].rear->drum;
        QCOMPARE(entered.kind, wanted.kind);
        for (Reading Drum::*which :
            { &Drum::insideDiameter, &Drum::largestDiameter, &Drum::shoeWidth, &Drum::shoeArc, &Drum::anchorRadius, &Drum::friction,
                &Drum::cylinderBore, &Drum::liningThickness, &Drum::minimumLining, &Drum::depth, &Drum::faceThickness, &Drum::wall })
            QVERIFY((entered.*which).value && near(*(entered.*which).value, *(wanted.*which).value, 1e-9));
        QCOMPARE(build.setups[1].front->caliper.kind, CaliperKind::Floating);
        QCOMPARE(build.frontHub.heldBy, WheelHeldBy::Bolts);
        const auto& brake = s.known().of<Stopping>().after.brakes.rear;
        QVERIFY(brake.effectiveRadius.value && near(*brake.effectiveRadius.value, 0.1352, 1e-9));
        QTemporaryDir folder;
        const auto path = folder.filePath("camper.deepstop");
        s.window.document().save(path);
        const Build again = files::loadBuild(path.toStdString()).build;
        QVERIFY(again == build);
    }

    void whatIsInHandIsSaidOfWhatIsTyped()
    {
        Shown s;
        s.window.setStage(BenchPage::id);
        auto* hand = s.window.page<BenchPage>()->inHand();
        hand->setCurrentText("micrometer");
        emit hand->activated(hand->currentIndex());
        auto* field = s.field(thickness);
        field->setFocus();
        s.type(field, "27.9");
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(s.window.document().build().setups[1].front->rotor.thickness.instrument, std::string("micrometer"));
        hand->setCurrentText("vendor sheet");
        emit hand->activated(hand->currentIndex());
        field->setFocus();
        s.type(field, "28");
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(s.window.document().build().setups[1].front->rotor.thickness.known, Known::Vendor);
        // A scale measures no lengths.
        hand->setCurrentText("kitchen scale");
        emit hand->activated(hand->currentIndex());
        field->setFocus();
        s.type(field, "28.1");
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(s.window.document().build().setups[1].front->rotor.thickness.known, Known::Vendor);
    }

    /// An instrument that types like a keyboard: figure and Enter, one after the other.
    void instrumentsThatTypeLikeAKeyboardWork()
    {
        Shown s;
        s.window.setStage(BenchPage::id);
        s.field(diameter)->setFocus();
        for (const char* line : { "331.25", "27.9" }) {
            auto* field = qobject_cast<DimensionField*>(QApplication::focusWidget());
            QVERIFY(field);
            QTRY_VERIFY(field->hasSelectedText());
            QTest::keyClicks(field, line);
            QTest::keyClick(field, Qt::Key_Return);
        }
        const Rotor& rotor = s.window.document().build().setups[1].front->rotor;
        QVERIFY(near(*rotor.outerDiameter.value, 0.33125, 1e-12) && near(*rotor.thickness.value, 0.0279, 1e-12));
    }

    void aHeapIsTickedByMouseAndTakenAwayByEmptyingIt()
    {
        Shown s;
        s.window.setStage(BenchPage::id);
        auto* bench = s.window.page<BenchPage>();
        bench->setPlace(lastEnteredBench);
        const auto before = s.window.document().build();
        const auto heap = corner + "/weighings/0";
        auto* ticks = qobject_cast<TickRow*>(bench->view()->fact(heap + "/contains")->editor());
        QCOMPARE(ticks->ticked(), QString("caliper"));
        // A caliper alone against a dressed one is no comparison; with the rest in it, it is again.
        QTest::mouseClick(ticks, Qt::LeftButton, {}, QPoint(8, ticks->height() / 2));
        QCOMPARE(bench->view()->fact(heap + "/contains")->shown(), QString("rotor,caliper"));
        QVERIFY(s.known().of<Weights>().after.front.cornerMass.value);
        QTest::keyClick(ticks, Qt::Key_C);
        QCOMPARE(s.cell("corner-weight")->word(), QString("unproven"));
        QVERIFY(s.slipText().contains("Weight and heat store"));
        QTest::keyClick(ticks, Qt::Key_C);
        auto* mass = bench->view()->field(heap + "/mass_kg");
        mass->setFocus();
        s.type(mass, "3.34");
        QTest::keyClick(mass, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClick(mass, Qt::Key_Delete);
        QTest::keyClick(mass, Qt::Key_Return);
        QCOMPARE(s.window.document().build().setups[1].front->weighings.size(), before.setups[1].front->weighings.size() - 1);
        while (s.window.document().undoStack().canUndo())
            s.window.document().undoStack().undo();
        QVERIFY(s.window.document().build() == before);
    }

    void whatIsNoWholeNumberIsRefusedAndKept()
    {
        Shown s;
        s.window.setStage(BenchPage::id);
        auto* vanes = s.window.page(BenchPage::id)->view()->fact(corner + "/rotor/vanes");
        auto* line = qobject_cast<QLineEdit*>(vanes->editor());
        line->setFocus();
        s.type(line, "forty");
        QTest::keyClick(line, Qt::Key_Return);
        QVERIFY(vanes->refusal().contains("whole number") && line->hasFocus());
        QCOMPARE(line->text(), QString("forty"));
        QCOMPARE(s.window.document().build().setups[1].front->rotor.vanes, 48);
        QTest::keyClick(line, Qt::Key_Escape);
        QCOMPARE(line->text(), QString("48"));
        s.type(line, "52");
        QTest::keyClick(line, Qt::Key_Return);
        QCOMPARE(s.window.document().build().setups[1].front->rotor.vanes, 52);
        QVERIFY(!line->hasFocus());
    }

    /// Each bench, both axles: a sheet with its title, and what the slip leads to.
    void everyBenchIsThereForBothAxles()
    {
        Shown s;
        s.window.setStage(BenchPage::id);
        auto* bench = s.window.page<BenchPage>();
        for (int axle = 0; axle < 2; ++axle) {
            bench->axleChoice()->setCurrentIndex(axle);
            emit bench->axleChoice()->activated(axle);
            for (int place = 0; place < bench->placeCount(); ++place) {
                QTest::keyClick(&s.window, Qt::Key_Right, Qt::AltModifier);
                if (bench->place() < BenchPage::Unpacking) {
                    QVERIFY2(bench->view()->sheet().title.contains(axle == 0 ? "Front" : "Rear"), qPrintable(bench->view()->sheet().title));
                    QVERIFY(!bench->view()->sheet().areas.empty() || !bench->view()->sheet().letters.empty());
                } else {
                    QVERIFY(!bench->view()->isVisible());
                }
            }
        }
        // A check leads to the bench its readings lie on.
        for (const auto& [id, place] : { std::pair { "front/pad-slot", 1 }, std::pair { "front/worn-pad", 2 },
                 std::pair { "front/hose-length", int(BenchPage::Fittings) }, std::pair { "front/weight", int(BenchPage::Scales) },
                 std::pair { "front/line-joint-1", int(BenchPage::Line) }, std::pair { "front/bore", 0 } }) {
            s.window.slip()->choose(id);
            QCOMPARE(bench->place(), place);
            QCOMPARE(bench->axleChoice()->currentIndex(), 0);
        }
    }

    void unpackingByKeysFindsTwoLeftRotors()
    {
        Shown s;
        s.window.setStage(BenchPage::id);
        auto* bench = s.window.page<BenchPage>();
        bench->setPlace(BenchPage::Unpacking);
        auto* line = bench->checkList()->line("front/right/rotor-hand");
        QVERIFY(line && line->isVisible());
        QVERIFY(!bench->checkList()->copyButton()->isVisible());
        line->setFocus();
        QTest::keyClick(line, Qt::Key_L);
        QTRY_COMPARE(bench->checkList()->line("front/right/rotor-hand")->item().state, Checked::Fault);
        QCOMPARE(s.rail()->button(BenchPage::id)->state(), QString("stop"));
        QTest::keyClick(line, Qt::Key_Down);
        QTRY_VERIFY(bench->checkList()->line("front/right/caliper-hand")->hasFocus());
        // A fault with a note, by keys and by mouse.
        auto* pads = bench->checkList()->line("front/left/pads");
        pads->setFocus();
        QTest::keyClick(pads, Qt::Key_X);
        QTRY_COMPARE(pads->item().state, Checked::Fault);
        QTest::mouseClick(pads->note(), Qt::LeftButton);
        QTest::keyClicks(pads->note(), "one lining cracked");
        QTest::keyClick(pads->note(), Qt::Key_Return);
        QTRY_COMPARE(pads->item().note, std::string("one lining cracked"));
        QTRY_VERIFY(bench->checkList()->copyButton()->isVisible());
        QTest::mouseClick(bench->checkList()->copyButton(), Qt::LeftButton);
        const auto letter = QGuiApplication::clipboard()->text();
        QVERIFY2(letter.contains("two left rotors in the box") && letter.contains("one lining cracked")
                && letter.contains("Varnik, the workshop"),
            qPrintable(letter));
        // Space takes a tick away and gives it back; all of it is undone.
        auto* hose = bench->checkList()->line("front/left/hose");
        hose->setFocus();
        QTest::keyClick(hose, Qt::Key_Space);
        QTRY_COMPARE(hose->item().state, Checked::Open);
        while (s.window.document().undoStack().canUndo())
            s.window.document().undoStack().undo();
        QCOMPARE(bench->checkList()->line("front/right/rotor-hand")->item().state, Checked::Fine);
    }

    void whatIsStillToBeReadLeadsThereAndIsPrinted()
    {
        Shown s;
        s.window.document().setPair({ {}, "varnik-355" });
        s.window.setStage(BenchPage::id);
        auto* bench = s.window.page<BenchPage>();
        bench->setPlace(BenchPage::Ask);
        s.waited();
        QVERIFY(bench->askList()->plainText().contains("Opening between pistons pushed home"));
        emit bench->askList()->browser()->anchorClicked(QUrl("reading:/setups/2/front/caliper/pad_room_mm"));
        QCOMPARE(bench->place(), 1);
        QTRY_VERIFY(s.field("/setups/2/front/caliper/pad_room_mm")->hasFocus());
        s.type(s.field("/setups/2/front/caliper/pad_room_mm"), "66.4");
        QTest::keyClick(s.field("/setups/2/front/caliper/pad_room_mm"), Qt::Key_Return);
        bench->setPlace(BenchPage::Ask);
        QVERIFY(!bench->askList()->plainText().contains("Opening between pistons pushed home"));
        // On paper: a page that poppler reads the same words from.
        QTemporaryDir dir;
        for (const bool letter : { false, true }) {
            const auto path = dir.filePath(letter ? "letter.pdf" : "sheet.pdf");
            QVERIFY(bench->askList()->write(path, letter));
            const auto text = QString::fromUtf8(answerOf("pdftotext", { "-layout", path, "-" }));
            QVERIFY2(text.contains(letter ? "Please tell us" : "BENCH SHEET") && text.contains("hose length"), qPrintable(text));
        }
        QVERIFY(bench->askList()->write(dir.filePath("sheet.txt"), false));
        QVERIFY(!bench->askList()->write("/nowhere/at/all.pdf", true));
        QVERIFY(s.window.notice()->isVisible());
    }
};

DEEPSTOP_TEST(BenchWindowTest)
#include "bench_window_test.moc"
