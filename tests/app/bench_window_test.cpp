/// The parts bench in the real window: a kit entered by keyboard alone, and by simulated instruments; unpacking, asking, the library.

#include "app/shown.hpp"
#include "instruments/indication.hpp"
#include "quantity/entry.hpp"
#include "widgets/ask_list.hpp"
#include "widgets/check_list.hpp"
#include "widgets/fact_field.hpp"
#include "widgets/import_window.hpp"
#include "widgets/instrument_bar.hpp"
#include "widgets/library_window.hpp"
#include "widgets/runout_window.hpp"

#include <QClipboard>
#include <QTcpServer>
#include <QTcpSocket>

using namespace deepstop::app;

namespace {

constexpr int lastEnteredBench = 4; // the scales

/// A window with an empty build, as File ▸ New build leaves it.
struct Empty : Shown {
    Empty()
    {
        QTest::keyClick(&window, Qt::Key_N, Qt::ControlModifier);
    }
    StagePage* bench() { return window.page(Stage::PartsBench); }
    QWidget* focus() { return QApplication::focusWidget(); }
    std::string at() { return focus() ? focus()->objectName().toStdString() : std::string(); }
};

/// deepstop-bench at work; its address is the first line it prints.
struct SimulatedBench {
    QProcess process;
    QString address;
    explicit SimulatedBench(const QStringList& arguments)
    {
        process.start(DEEPSTOP_BENCH, arguments);
        if (process.waitForStarted() && process.waitForReadyRead())
            address = QString::fromUtf8(process.readLine()).trimmed();
    }
    ~SimulatedBench()
    {
        process.kill();
        process.waitForFinished();
    }
};

/// Which of the demo's kit stands at a place of the new build; both keep it in their second setup.
std::string textFor(const Build& kit, const std::string& pointer)
{
    const Directory directory(kit);
    auto place = pointer;
    if (const auto* entry = directory.at(place))
        return entryText(*entry->reading, entry->address.style, UnitSystem::Metric);
    return {};
}

/// Types what the demo's kit says into whatever has the focus, by keys alone, and goes on with Enter. False at the end of the bench.
bool enterNext(Empty& s, const Build& kit)
{
    QWidget* w = s.focus();
    const auto pointer = s.at();
    if (auto* box = qobject_cast<QComboBox*>(w)) {
        const auto wanted = QString::fromStdString(factAt(kit, pointer)->value);
        QTest::keyClick(w, Qt::Key_Home);
        for (int i = 0; i < box->count() && box->currentText() != wanted; ++i)
            QTest::keyClick(w, Qt::Key_Down);
        QTest::keyClick(s.focus(), Qt::Key_Return);
    } else if (auto* ticks = qobject_cast<TickRow*>(w)) {
        // c for caliper, p for pads, b for bracket, h for hose, a for hardware …: the letter the row underlines.
        const auto wanted = QString::fromStdString(factAt(kit, pointer)->value);
        for (const auto& [word, key] : { std::pair { "rotor", 'r' }, std::pair { "caliper", 'c' }, std::pair { "pads", 'p' }, std::pair { "bracket", 'b' }, std::pair { "hose", 'h' }, std::pair { "hardware", 'a' } })
            if (wanted.split(',').contains(word))
                QTest::keyClick(ticks, key);
        QTest::keyClick(s.focus(), Qt::Key_Return);
    } else if (auto* field = qobject_cast<DimensionField*>(w)) {
        auto wanted = textFor(kit, pointer);
        if (const auto free = pointer.find("/-"); free != std::string::npos) {
            // The next of the list that the new build does not have yet.
            const Directory now(s.window.document().build());
            int have = 0;
            while (now.at(pointer.substr(0, free + 1) + std::to_string(have) + pointer.substr(free + 2)))
                ++have;
            wanted = textFor(kit, pointer.substr(0, free + 1) + std::to_string(have) + pointer.substr(free + 2));
        }
        const bool was = !wanted.empty();
        if (was)
            s.type(field, QString::fromStdString(wanted));
        QTest::keyClick(field, Qt::Key_Return);
        if (field->refusal().size())
            qWarning() << pointer.c_str() << field->refusal();
        if (!was && s.focus() == w)
            return false;
    } else if (auto* line = qobject_cast<QLineEdit*>(w)) {
        s.type(line, QString::fromStdString(factAt(kit, pointer) ? factAt(kit, pointer)->value : std::string()));
        QTest::keyClick(line, Qt::Key_Return);
    } else {
        return false;
    }
    QCoreApplication::processEvents();
    return true;
}

} // namespace

class BenchWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init()
    {
        freshSettings();
        QFile::remove(LibraryStore().path());
    }

    void theMerlesKitIsEnteredFromAnEmptyBuildByKeyboardAlone()
    {
        auto kit = demo();
        // The bench asks for everything in its own order; friction points come in rows of two.
        kit.setups[1].front->pad.frictionOverTemperature.clear();
        kit.setups[1].front->wheel.clear();
        Empty s;
        QCOMPARE(s.window.stage(), Stage::PartsBench);
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
        QVERIFY(when("/setups/1/front/rotor/runout_mm") < when("/setups/1/front/caliper/back_over_edge_mm"));
        QVERIFY(when("/setups/1/front/caliper/slot_width_mm") < when("/setups/1/front/pad/length_mm"));
        QVERIFY(when("/setups/1/front/pad/friction") < when("/setups/1/front/weighings/-/mass_kg"));
        const Corner& entered = *s.window.document().build().setups[1].front;
        const Corner& wanted = *kit.setups[1].front;
        const Directory now(s.window.document().build());
        const Directory then(kit);
        int compared = 0;
        for (const auto& entry : then.entries()) {
            const auto& pointer = entry.address.pointer;
            if (!pointer.starts_with("/setups/1/front/") || pointer.find("/mount/") != std::string::npos || !entry.reading->value)
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
        QCOMPARE(s.window.document().study().verdict("front/bore")->level, Level::Good);
        QCOMPARE(s.window.document().study().verdict("front/pad-slot")->level, Level::Good);
        // Every step can be taken back.
        while (s.window.document().undoStack().canUndo())
            s.window.document().undoStack().undo();
        QVERIFY(!s.window.document().build().setups[1].front->rotor.outerDiameter.value);
    }

    void theSameKitThroughSimulatedInstruments()
    {
        const auto kit = demo();
        Empty s;
        QTRY_COMPARE(s.at(), std::string("/setups/1/front/rotor/name"));
        // A vernier with noise within its last figure, drop-outs and broken lines, showing the rotor's lengths in the order they are asked for.
        const std::vector<std::pair<std::string, double>> lengths { { "outer_diameter_mm", 330 }, { "thickness_mm", 28 }, { "minimum_thickness_mm", 26 }, { "ring_inner_diameter_mm", 216 }, { "overall_height_mm", 46 },
            { "hat_thickness_mm", 8 }, { "hat_outer_diameter_mm", 160 }, { "hat_wall_mm", 8 }, { "bore_mm", 66.7 }, { "hat_pocket_diameter_mm", 143.6 }, { "bolt_circle_mm", 112 } };
        QStringList values;
        for (const auto& [key, value] : lengths)
            values << QString::number(value);
        SimulatedBench vernier({ "vernier", "--tcp", "0", "--values", values.join(','), "--rate", "200", "--settling", "0.05", "--drop-outs", "0.1", "--half-lines", "0.1" });
        QVERIFY2(vernier.address.startsWith("127.0.0.1:"), qPrintable(vernier.address));
        QVERIFY(s.window.connectInstrument(vernier.address));
        QTest::keyClick(s.focus(), Qt::Key_Return); // past the name
        std::size_t taken = 0;
        for (int i = 0; i < 30 && taken < lengths.size(); ++i) {
            auto* field = qobject_cast<DimensionField*>(s.focus());
            if (!field) {
                QTest::keyClick(s.focus(), Qt::Key_Return);
                continue;
            }
            QVERIFY2(field->pointer().ends_with(lengths[taken].first), field->pointer().c_str());
            // The next value has come to rest on the vernier.
            QTRY_VERIFY(s.window.instrument().steady() && near(s.window.instrument().steady()->value, lengths[taken].second * 1e-3, 1e-6));
            QTRY_VERIFY(s.window.instrumentBar()->takeButton()->isEnabled());
            QCOMPARE(s.window.instrumentBar()->word(), QString("stable"));
            QTest::keyClick(s.focus(), Qt::Key_F4);
            const auto* entry = s.window.document().study().directory->at(field->pointer());
            QVERIFY(near(*entry->reading->value, lengths[taken].second * 1e-3, 1e-9));
            QCOMPARE(entry->reading->instrument, std::string("vernier"));
            QCOMPARE(entry->reading->known, Known::Measured);
            QVERIFY(s.focus() != field);
            ++taken;
        }
        QCOMPARE(taken, lengths.size());
        QVERIFY(s.window.instrument().refusedLines() > 0);

        // A scale on a pseudo-terminal weighs the corner, heap by heap.
        SimulatedBench scale({ "scale", "--values", "3.34,1.18,1.24", "--rate", "100", "--settling", "0.05" });
        QVERIFY2(scale.address.startsWith("/dev/"), qPrintable(scale.address));
        QVERIFY(s.window.connectInstrument(scale.address));
        s.bench()->setPlace(lastEnteredBench);
        s.bench()->view()->focusFirst();
        for (const auto& [mass, letter] : { std::pair { 3.34, 'c' }, std::pair { 1.18, 'p' }, std::pair { 1.24, 'b' } }) {
            QTRY_VERIFY(s.window.instrument().steady() && near(s.window.instrument().steady()->value, mass, 1e-6));
            QTest::keyClick(s.focus(), Qt::Key_F4);
            QTRY_VERIFY(qobject_cast<TickRow*>(s.focus()));
            QTest::keyClick(s.focus(), letter);
            QTest::keyClick(s.focus(), Qt::Key_Return);
            QTRY_VERIFY(qobject_cast<DimensionField*>(s.focus()));
        }
        const auto& weighings = s.window.document().build().setups[1].front->weighings;
        QCOMPARE(weighings.size(), std::size_t(3));
        QVERIFY(near(*weighings[2].mass.value, 1.24, 1e-9) && weighings[2].contains == std::vector { Part::Bracket });
        // A mass does not go into a length.
        s.bench()->setPlace(0);
        s.bench()->view()->field("/setups/1/front/rotor/vent_gap_mm")->setFocus();
        QTRY_VERIFY(s.window.instrument().steady());
        QTest::keyClick(s.focus(), Qt::Key_F4);
        QVERIFY(s.window.notice()->isVisible() && s.window.notice()->text().contains("Nothing was taken"));
        QVERIFY(!s.window.document().build().setups[1].front->rotor.ventGap.value);
    }

    void readTwiceKeepsBoth()
    {
        Shown s;
        s.window.setStage(Stage::PartsBench);
        auto* field = s.field(thickness);
        field->setFocus();
        SimulatedBench vernier({ "vernier", "--tcp", "0", "--values", "28.02,28.06", "--rate", "200", "--settling", "0.05" });
        QVERIFY(s.window.connectInstrument(vernier.address));
        QTRY_VERIFY(s.window.instrument().steady());
        QTest::keyClick(field, Qt::Key_F4, Qt::ShiftModifier);
        QTRY_VERIFY(s.window.instrument().steady() && near(s.window.instrument().steady()->value, 0.02806, 1e-9));
        QTest::keyClick(field, Qt::Key_F4, Qt::ShiftModifier);
        const auto& reading = s.window.document().build().setups[1].front->rotor.thickness;
        QCOMPARE(reading.repeats.size(), std::size_t(3));
        QVERIFY(near(*reading.value, (28.0 + 28.02 + 28.06) / 3 * 1e-3, 1e-9));
        QCOMPARE(field, QApplication::focusWidget());
        // Typed, the same: semicolons part them.
        s.type(field, "28.00; 28.01; 28.02; 28.03");
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(s.window.document().build().setups[1].front->rotor.thickness.repeats.size(), std::size_t(4));
        QVERIFY(s.window.document().study().verdict("front/thickness-variation"));
    }

    /// Whatever the other end does, timers go on and nothing wrong comes in.
    void aBadInstrumentNeitherBlocksNorLies_data()
    {
        QTest::addColumn<QStringList>("arguments");
        QTest::addColumn<QString>("word");
        QTest::newRow("floods") << QStringList { "vernier", "--tcp", "0", "--flood" } << "sends more";
        QTest::newRow("floods the terminal") << QStringList { "vernier", "--flood" } << "";
        QTest::newRow("stalls") << QStringList { "scale", "--tcp", "0", "--stall-after", "0.5", "--rate", "50" } << "silent";
        QTest::newRow("half lines") << QStringList { "vernier", "--tcp", "0", "--half-lines", "1", "--rate", "200" } << "";
        QTest::newRow("vanishes") << QStringList { "vernier", "--tcp", "0", "--for", "0.7", "--rate", "50" } << "gone";
        QTest::newRow("never rests") << QStringList { "vernier", "--tcp", "0", "--noise", "0.5", "--rate", "100" } << "moving";
    }
    void aBadInstrumentNeitherBlocksNorLies()
    {
        QFETCH(QStringList, arguments);
        QFETCH(QString, word);
        Shown s;
        s.window.setStage(Stage::PartsBench);
        const auto before = s.window.document().build();
        SimulatedBench bench(arguments);
        QVERIFY(s.window.connectInstrument(bench.address));
        auto* field = s.field(thickness);
        field->setFocus();
        int ticks = 0;
        QTimer timer;
        connect(&timer, &QTimer::timeout, &timer, [&ticks] { ++ticks; });
        timer.start(10);
        QTRY_VERIFY_WITH_TIMEOUT(ticks > 60, 20000);
        if (!word.isEmpty())
            QTRY_VERIFY2_WITH_TIMEOUT(s.window.instrumentBar()->word().startsWith(word), qPrintable(s.window.instrumentBar()->word()), 20000);
        // Taking is refused, or takes exactly what it truly shows.
        QTest::keyClick(field, Qt::Key_F4);
        const auto& now = s.window.document().build().setups[1].front->rotor.thickness;
        QVERIFY(s.window.document().build() == before || near(*now.value, 0.02798, 1e-9));
        if (!word.isEmpty())
            QVERIFY(s.window.document().build() == before && s.window.notice()->isVisible());
        // Typing goes on as ever.
        s.type(field, "29");
        QTest::keyClick(field, Qt::Key_Return);
        QVERIFY(near(*s.window.document().build().setups[1].front->rotor.thickness.value, 0.029, 1e-9));
        s.window.instrument().close();
        QVERIFY(!s.window.instrumentBar()->isVisible());
    }

    /// A server that sends garbage, valid-looking lies with wrong sums, and a reading cut in two.
    void aLyingInstrumentIsNotBelieved()
    {
        QTcpServer server;
        QVERIFY(server.listen(QHostAddress::LocalHost));
        Shown s;
        QVERIFY(s.window.connectInstrument(QString("127.0.0.1:%1").arg(server.serverPort())));
        QVERIFY(server.waitForNewConnection(5000));
        auto* socket = server.nextPendingConnection();
        const auto good = QByteArray::fromStdString(instruments::formatLine("vernier", 31.25, 2, "mm", true));
        for (int i = 0; i < 5; ++i)
            socket->write(":vernier 99.99 mm stable*0000\n27.98\nGET / HTTP/1.1\r\n" + good.mid(5) + good.left(9));
        socket->flush();
        QTRY_VERIFY(s.window.instrument().refusedLines() >= 15);
        QVERIFY(!s.window.instrument().steady() && !s.window.instrument().last());
        socket->write("\n");
        // The true one, in three pieces.
        for (int i = 0; i < 3; ++i) {
            socket->write(good.left(7));
            socket->flush();
            QTest::qWait(30);
            socket->write(good.mid(7));
            socket->flush();
        }
        QTRY_VERIFY(s.window.instrument().steady());
        QVERIFY(near(s.window.instrument().steady()->value, 0.03125, 1e-12));
        socket->disconnectFromHost();
        QTRY_COMPARE(s.window.instrument().state(), Instrument::State::Lost);
        QVERIFY(!s.window.instrument().steady());
    }

    void onlyThisMachineIsReadFrom_data()
    {
        QTest::addColumn<QString>("address");
        QTest::addColumn<QString>("says");
        QTest::newRow("far") << "192.0.2.7:7201" << "on this machine";
        QTest::newRow("name") << "example.invalid:7201" << "on this machine";
        QTest::newRow("no port") << "127.0.0.1:door" << "port from 1";
        QTest::newRow("no such line") << "/dev/ttyNOSUCH9" << "cannot be opened";
    }
    void onlyThisMachineIsReadFrom()
    {
        QFETCH(QString, address);
        QFETCH(QString, says);
        Shown s;
        QVERIFY(!s.window.connectInstrument(address));
        QVERIFY2(s.window.notice()->text().contains(says), qPrintable(s.window.notice()->text()));
    }

    void aSlowTurnGivesRunoutAndItsWobble()
    {
        Shown s;
        s.window.setStage(Stage::PartsBench);
        SimulatedBench gauge({ "dial-gauge", "--tcp", "0", "--turn", "1.5", "--wobble", "0.06", "--warp", "0.01", "--rate", "300" });
        QVERIFY(s.window.connectInstrument(gauge.address));
        auto* turn = s.window.showRunout();
        QTest::mouseClick(turn->turnButton(), Qt::LeftButton);
        // Ended at once, a turn is none.
        QTest::mouseClick(turn->turnButton(), Qt::LeftButton);
        QVERIFY(!turn->turn() && turn->said().contains("too few"));
        QTest::mouseClick(turn->turnButton(), Qt::LeftButton);
        QTRY_VERIFY(turn->readings() > 0);
        QTest::qWait(1500);
        QTest::mouseClick(turn->turnButton(), Qt::LeftButton);
        QVERIFY2(turn->turn(), qPrintable(turn->said()));
        // Begun and ended by hand, the turn is not quite whole: a tenth is near enough here.
        QVERIFY2(near(turn->turn()->wobble, 0.06e-3, 0.15), qPrintable(turn->said()));
        QVERIFY(turn->turn()->rest < 0.03e-3);
        QVERIFY(turn->said().contains("Mostly wobble"));
        QTest::mouseClick(turn->runoutButton(), Qt::LeftButton);
        QVERIFY(near(*s.window.document().build().setups[1].front->rotor.runout.value, turn->turn()->total, 1e-12));
        QCOMPARE(s.window.document().study().verdict("front/runout")->level, Level::Caution);
        QCOMPARE(s.field("/setups/1/front/rotor/runout_mm")->text().left(4), QString("0.07").left(3) + s.field("/setups/1/front/rotor/runout_mm")->text().mid(3, 1));
    }

    void whatIsInHandIsSaidOfWhatIsTyped()
    {
        Shown s;
        s.window.setStage(Stage::PartsBench);
        auto* hand = s.window.page(Stage::PartsBench)->inHand();
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

    void unpackingByKeysFindsTwoLeftRotors()
    {
        Shown s;
        s.window.setStage(Stage::PartsBench);
        auto* bench = s.window.page(Stage::PartsBench);
        bench->setPlace(6);
        auto* line = bench->checkList()->line("front/right/rotor-hand");
        QVERIFY(line && line->isVisible());
        QVERIFY(!bench->checkList()->copyButton()->isVisible());
        line->setFocus();
        QTest::keyClick(line, Qt::Key_L);
        QTRY_COMPARE(bench->checkList()->line("front/right/rotor-hand")->item().state, Checked::Fault);
        QCOMPARE(s.window.rail()->button(Stage::PartsBench)->state(), QString("stop"));
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
        QVERIFY2(letter.contains("two left rotors in the box") && letter.contains("one lining cracked") && letter.contains("Varnik, the workshop"), qPrintable(letter));
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
        s.window.setStage(Stage::PartsBench);
        auto* bench = s.window.page(Stage::PartsBench);
        bench->setPlace(7);
        QVERIFY(bench->askList()->plainText().contains("Room between pistons pushed home"));
        emit bench->askList()->browser()->anchorClicked(QUrl("reading:/setups/2/front/caliper/pad_room_mm"));
        QCOMPARE(bench->place(), 1);
        QTRY_VERIFY(s.field("/setups/2/front/caliper/pad_room_mm")->hasFocus());
        s.type(s.field("/setups/2/front/caliper/pad_room_mm"), "66.4");
        QTest::keyClick(s.field("/setups/2/front/caliper/pad_room_mm"), Qt::Key_Return);
        bench->setPlace(7);
        QVERIFY(!bench->askList()->plainText().contains("Room between pistons pushed home"));
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

    void aPartIsPutInFromTheLibraryBySearch()
    {
        Shown s;
        s.window.setStage(Stage::PartsBench);
        auto* library = s.window.showLibrary();
        QTRY_VERIFY(library->list()->count() > 20);
        QTest::keyClicks(library->search(), "hullin pillar 325");
        QCOMPARE(library->list()->count(), 1);
        QVERIFY(library->list()->item(0)->text().contains("Ø 325.0 × 30.0"));
        QTest::keyClick(library->search(), Qt::Key_Return);
        QCOMPARE(s.window.document().build().setups[1].front->rotor.name, std::string("Hullin 325 × 30 pillar"));
        QCOMPARE(s.field(diameter)->text(), QString("Ø 325.0"));
        QVERIFY2(library->state().contains("as the library has it"), qPrintable(library->state()));
        s.window.document().setReading(thickness, { 0.0295, {}, Known::Measured, "vernier", {} });
        QVERIFY2(library->state().contains("differs from the library's: rotor thickness"), qPrintable(library->state()));
        // Kept from the bench, it is in the library of the next window.
        QTest::mouseClick(library->keepButton(), Qt::LeftButton);
        QVERIFY(library->state().contains("Kept"));
        s.window.library().finishWriting();
        LibraryStore again;
        const auto found = library::search(again.parts(), library::Kind::Rotor, "hullin pillar 325");
        QVERIFY(found.size() == 1 && found[0].about.find("29.5") != std::string::npos);
        s.window.document().undoStack().undo();
        s.window.document().undoStack().undo();
        QVERIFY(s.window.document().build() == demo());
    }

    void aListIsTakenInWithItsBadLinesShown()
    {
        QTemporaryDir dir;
        QFile file(dir.filePath("rotors.csv"));
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("name,Diameter,thickness_mm\nFirst,13 in,28\nSecond,wide,28\nThird,340,\n");
        file.close();
        LibraryStore store;
        ImportWindow window(store, nullptr);
        window.show();
        window.open(file.fileName());
        QTRY_COMPARE(window.refusedLines()->rowCount(), 1);
        QCOMPARE(window.refusedLines()->item(0, 0)->text(), QString("3"));
        QVERIFY(window.refusedLines()->item(0, 1)->text().contains("wide"));
        // A column meant in inches: said by hand, read again at once.
        auto* unit = qobject_cast<QComboBox*>(window.columns()->cellWidget(1, 2));
        unit->setCurrentText("in");
        emit unit->activated(unit->currentIndex());
        QTRY_VERIFY(!window.busy() && window.takeButton()->isEnabled());
        QTest::mouseClick(window.takeButton(), Qt::LeftButton);
        const auto found = library::search(store.parts(), library::Kind::Rotor, "third");
        QCOMPARE(found.size(), std::size_t(1));
        QVERIFY(found[0].about.find("8636") != std::string::npos);
        // What is no list says so.
        QFile broken(dir.filePath("broken.csv"));
        QVERIFY(broken.open(QIODevice::WriteOnly));
        broken.write(QByteArray("\0\1\2", 3));
        broken.close();
        ImportWindow other(store, nullptr);
        other.open(broken.fileName());
        QTRY_VERIFY2(other.summary().contains("not text"), qPrintable(other.summary()));
        QVERIFY(!other.takeButton()->isEnabled());
    }

    void aLongListCanBeStopped()
    {
        QTemporaryDir dir;
        QFile file(dir.filePath("long.csv"));
        QVERIFY(file.open(QIODevice::WriteOnly));
        QByteArray text = "name,outer_diameter_mm,thickness_mm,face\n";
        for (int i = 0; i < 600000; ++i)
            text += "Rotor " + QByteArray::number(i) + ",330,28,plain\n";
        file.write(text);
        file.close();
        LibraryStore store;
        ImportWindow window(store, nullptr);
        window.show();
        window.open(file.fileName());
        QTRY_VERIFY(window.cancelButton()->isVisible());
        QTest::mouseClick(window.cancelButton(), Qt::LeftButton);
        QTRY_VERIFY(!window.busy());
        QTRY_VERIFY2(window.summary().contains("Stopped") || window.summary().contains("600000"), qPrintable(window.summary()));
        if (window.summary().contains("Stopped"))
            QVERIFY(!window.takeButton()->isEnabled());
    }

    void aDamagedLibraryOfTheUserIsLeftAlone()
    {
        LibraryStore store;
        QDir().mkpath(QFileInfo(store.path()).absolutePath());
        QFile file(store.path());
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("{ not a library");
        file.close();
        QSignalSpy refused(&store, &LibraryStore::refused);
        QVERIFY(!store.parts().rotors.empty()); // the shipped ones are there
        QCOMPARE(refused.count(), 1);
        library::Library more;
        more.rotors.push_back({ "x", {}, {} });
        QVERIFY(!store.add(more));
        QVERIFY(file.open(QIODevice::ReadOnly));
        QCOMPARE(file.readAll(), QByteArray("{ not a library"));
        file.remove();
    }
};

QTEST_MAIN(BenchWindowTest)
#include "bench_window_test.moc"
