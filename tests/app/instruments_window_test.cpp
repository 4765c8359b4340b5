/// Instruments in the real window: a kit measured and weighed with simulated ones, and whatever bad ones send.

#include "app/empty_build.hpp"
#include "instruments/indication.hpp"
#include "widgets/instrument_bar.hpp"
#include "stages/bench/runout_window.hpp"

#include <QTcpServer>
#include <QTcpSocket>

using namespace deepstop::app;

namespace {

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

} // namespace

class InstrumentsWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void theSameKitThroughSimulatedInstruments()
    {
        const auto kit = demo();
        Empty s;
        QTRY_COMPARE(s.at(), std::string("/setups/1/front/rotor/name"));
        // A vernier with noise within its last figure, drop-outs and broken lines, showing the rotor's lengths in the order they are asked
        // for.
        const std::vector<std::pair<std::string, double>> lengths { { "outer_diameter_mm", 330 }, { "thickness_mm", 28 },
            { "minimum_thickness_mm", 26 }, { "ring_inner_diameter_mm", 216 }, { "overall_height_mm", 46 }, { "hat_thickness_mm", 8 },
            { "hat_outer_diameter_mm", 160 }, { "hat_wall_mm", 8 }, { "bore_mm", 66.7 }, { "hat_pocket_diameter_mm", 143.6 },
            { "bolt_circle_mm", 112 } };
        QStringList values;
        for (const auto& [key, value] : lengths)
            values << QString::number(value);
        SimulatedBench vernier({ "vernier", "--tcp", "0", "--values", values.join(','), "--rate", "200", "--settling", "0.05",
            "--drop-outs", "0.1", "--half-lines", "0.1" });
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
            const auto* entry = s.known().directory->at(field->pointer());
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
        s.window.setStage(BenchPage::id);
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
        QVERIFY(s.known().verdict("front/thickness-variation"));
    }

    /// Whatever the other end does, timers go on and nothing wrong comes in.
    void aBadInstrumentNeitherBlocksNorLies_data()
    {
        QTest::addColumn<QStringList>("arguments");
        QTest::addColumn<QString>("word");
        QTest::newRow("floods") << QStringList { "vernier", "--tcp", "0", "--flood" } << "sends more";
        QTest::newRow("floods the terminal") << QStringList { "vernier", "--flood" } << "";
        QTest::newRow("stalls") << QStringList { "scale", "--tcp", "0", "--stall-after", "0.5", "--rate", "50" } << "no data";
        QTest::newRow("half lines") << QStringList { "vernier", "--tcp", "0", "--half-lines", "1", "--rate", "200" } << "";
        QTest::newRow("vanishes") << QStringList { "vernier", "--tcp", "0", "--for", "0.7", "--rate", "50" } << "gone";
        QTest::newRow("never rests") << QStringList { "vernier", "--tcp", "0", "--noise", "0.5", "--rate", "100" } << "moving";
    }

    void aBadInstrumentNeitherBlocksNorLies()
    {
        QFETCH(QStringList, arguments);
        QFETCH(QString, word);
        Shown s;
        s.window.setStage(BenchPage::id);
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
            QTRY_VERIFY2_WITH_TIMEOUT(
                s.window.instrumentBar()->word().startsWith(word), qPrintable(s.window.instrumentBar()->word()), 20000);
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
            QVERIFY(socket->waitForBytesWritten());
            everythingShown();
            socket->write(good.mid(7));
            socket->flush();
        }
        QTRY_VERIFY(s.window.instrument().steady());
        QVERIFY(near(s.window.instrument().steady()->value, 0.03125, 1e-12));
        socket->disconnectFromHost();
        QTRY_COMPARE(s.window.instrument().state(), Instrument::State::Lost);
        QVERIFY(!s.window.instrument().steady());
    }

    /// The program itself: what it says, what it refuses, and that its lines are as documented.
    void theSimulatedBenchSpeaksAsDocumented()
    {
        QProcess wrong;
        wrong.start(DEEPSTOP_BENCH, { "plumb-bob" });
        QVERIFY(wrong.waitForFinished());
        QVERIFY(wrong.exitCode() == 2 && wrong.readAllStandardError().contains("vernier, scale, dial-gauge, thermometer or receiver"));
        for (const auto& [name, unit, low, high] : { std::tuple { "vernier", Dimension::Length, 0.0279, 0.0281 },
                 std::tuple { "scale", Dimension::Mass, 7.4, 7.5 }, std::tuple { "thermometer", Dimension::Temperature, 294.0, 295.0 } }) {
            SimulatedBench bench({ name, "--tcp", "0", "--rate", "100", "--settling", "0.05" });
            QTcpSocket socket;
            socket.connectToHost(QHostAddress::LocalHost, bench.address.section(':', 1).toUShort());
            QVERIFY(socket.waitForConnected());
            instruments::LineReader reader;
            std::vector<instruments::Indication> read;
            while (read.size() < 20 && socket.waitForReadyRead(5000))
                for (auto& one : reader.take(socket.readAll().toStdString()))
                    read.push_back(one);
            QVERIFY(read.size() >= 20);
            QCOMPARE(reader.refused(), std::uint64_t(0));
            QVERIFY(read.back().stable && read.back().dimension == unit && read.back().value > low && read.back().value < high);
            QCOMPARE(read.back().instrument, std::string(name));
        }
        // A port that is taken is said so.
        SimulatedBench first({ "scale", "--tcp", "0" });
        QProcess second;
        second.start(DEEPSTOP_BENCH, { "scale", "--tcp", first.address.section(':', 1) });
        QVERIFY(second.waitForFinished());
        QVERIFY(second.exitCode() == 2 && second.readAllStandardError().contains("port"));
    }

    void onlyThisMachineIsReadFrom_data()
    {
        QTest::addColumn<QString>("address");
        QTest::addColumn<QString>("says");
        QTest::newRow("far") << "192.0.2.7:7201"
                             << "on this machine";
        QTest::newRow("name") << "example.invalid:7201"
                              << "on this machine";
        QTest::newRow("no port") << "127.0.0.1:door"
                                 << "port from 1";
        QTest::newRow("no such line") << "/dev/ttyNOSUCH9"
                                      << "cannot be opened";
    }

    void onlyThisMachineIsReadFrom()
    {
        QFETCH(QString, address);
        QFETCH(QString, says);
        Shown s;
        QVERIFY(!s.window.connectInstrument(address));
        QVERIFY2(s.window.notice()->text().contains(says), qPrintable(s.window.notice()->text()));
    }

    /// A gauge that sends one whole turn, known to the last figure.
    void aSlowTurnGivesRunoutAndItsWobble()
    {
        QTcpServer gauge;
        QVERIFY(gauge.listen(QHostAddress::LocalHost));
        Shown s;
        s.window.setStage(BenchPage::id);
        QVERIFY(s.window.connectInstrument(QString("127.0.0.1:%1").arg(gauge.serverPort())));
        QVERIFY(gauge.waitForNewConnection(5000));
        auto* socket = gauge.nextPendingConnection();
        auto* turn = s.window.showRunout();
        QTest::mouseClick(turn->turnButton(), Qt::LeftButton);
        // Ended at once, a turn is none.
        QTest::mouseClick(turn->turnButton(), Qt::LeftButton);
        QVERIFY(!turn->turn() && turn->said().contains("too few"));
        QTest::mouseClick(turn->turnButton(), Qt::LeftButton);
        for (int i = 0; i < 120; ++i) {
            const double angle = 2 * M_PI * i / 120;
            socket->write(QByteArray::fromStdString(
                instruments::formatLine("dial-gauge", 0.03 * std::cos(angle - 1) + 0.005 * std::cos(2 * angle), 3, "mm", false)));
            socket->flush();
            if (i % 20 == 19)
                QTRY_COMPARE(turn->readings(), std::size_t(i + 1));
        }
        QTest::mouseClick(turn->turnButton(), Qt::LeftButton);
        QVERIFY2(turn->turn(), qPrintable(turn->said()));
        QVERIFY2(std::abs(turn->turn()->wobble - 0.06e-3) < 0.5e-6, qPrintable(turn->said()));
        QVERIFY(std::abs(turn->turn()->highSpot - 1) < 0.02);
        QVERIFY(std::abs(turn->turn()->rest - 0.01e-3) < 1.5e-6);
        QVERIFY(turn->said().contains("Mostly first order") && turn->said().contains("2 of 5 studs"));
        QTest::mouseClick(turn->runoutButton(), Qt::LeftButton);
        QVERIFY(near(*s.window.document().build().setups[1].front->left.runout.value, turn->turn()->total, 1e-12));
        QCOMPARE(s.known().verdict("front/runout")->level, Level::Caution);
        QCOMPARE(s.field("/setups/1/front/left/runout_mm")->text(), QString("0.06"));
    }
};

DEEPSTOP_TEST(InstrumentsWindowTest)
#include "instruments_window_test.moc"
