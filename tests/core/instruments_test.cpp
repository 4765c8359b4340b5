/// Instruments' lines told from noise, the simulated ones, and a slow turn taken apart.

#include "core/support.hpp"
#include "instruments/indication.hpp"
#include "instruments/simulated.hpp"
#include "runout/runout.hpp"

#include <QTest>

#include <nlohmann/json.hpp>

#include <numbers>

using namespace deepstop;
using namespace deepstop::instruments;

class InstrumentsTest : public QObject {
    Q_OBJECT
private slots:
    void aLineIsReadAsDocumented()
    {
        // The check value of CRC-16/CCITT-FALSE as catalogues of checksums give it (from memory).
        QCOMPARE(int(checksum("123456789")), 0x29b1);
        const auto line = formatLine("vernier", 27.98, 2, "mm", true);
        QVERIFY(line.starts_with(":vernier 27.98 mm stable*") && line.ends_with("\n"));
        QFile handbook(DEEPSTOP_DATA "/../docs/instruments.md");
        QVERIFY(handbook.open(QIODevice::ReadOnly));
        QVERIFY(handbook.readAll().contains(QByteArray::fromStdString(line)));
        const auto read = parseLine(line.substr(0, line.size() - 1));
        QVERIFY(read && near(read->value, 0.02798, 1e-12) && read->stable && read->instrument == "vernier");
        QVERIFY(near(read->resolution, 1e-5, 1e-9));
        const auto pounds = formatLine("scale", 16.45, 2, "lb", false);
        QVERIFY(near(parseLine(pounds.substr(0, pounds.size() - 1))->value, 16.45 * 0.45359237, 1e-12));
        const auto warm = formatLine("thermometer", -3.5, 1, "C", true);
        QVERIFY(near(parseLine(warm.substr(0, warm.size() - 1))->value, 269.65, 1e-12));
    }

    /// The checksum as Python's own has it.
    void theChecksumAsPythonFindsIt()
    {
        QByteArray text;
        for (int i = 0; i < 200; ++i)
            text += static_cast<char>(among(32, 126));
        const auto answer =
            answerOf("/usr/bin/python3", { "-c", "import binascii,sys\nprint(binascii.crc_hqx(sys.stdin.buffer.read(),0xffff))" }, text);
        QCOMPARE(answer.trimmed().toInt(), int(checksum(text.toStdString())));
    }

    /// Whatever half of a line, two halves run together, or a byte changed: nothing else than the whole line is a reading.
    void nothingButAWholeLineIsAReading()
    {
        const auto line = formatLine("vernier", 127.98, 2, "mm", true);
        const std::string whole = line.substr(0, line.size() - 1);
        for (std::size_t from = 0; from < whole.size(); ++from)
            for (std::size_t to = from + 1; to <= whole.size(); ++to)
                QCOMPARE(parseLine(std::string_view(whole).substr(from, to - from)).has_value(), from == 0 && to == whole.size());
        const auto other = formatLine("vernier", 44.10, 2, "mm", true);
        for (std::size_t cut = 1; cut < whole.size(); ++cut)
            for (std::size_t resume = 0; resume + 1 < other.size(); ++resume) {
                const auto read = parseLine(whole.substr(0, cut) + other.substr(resume, other.size() - 1 - resume));
                // Two halves may only make a line when they make one of the two.
                QVERIFY(!read || near(read->value, 0.12798, 1e-9) || near(read->value, 0.04410, 1e-9));
            }
        for (std::size_t i = 0; i < whole.size(); ++i)
            for (int bit = 0; bit < 8; ++bit) {
                auto changed = whole;
                changed[i] = static_cast<char>(changed[i] ^ (1 << bit));
                QVERIFY2(!parseLine(changed), changed.c_str());
            }
        for (const char* no : { "", ":", "27.98", ":vernier 27.98 mm stable", ":vernier 1e9999 mm stable*0000", ":*FFFF", "::::*3A3A" })
            QVERIFY(!parseLine(no));
    }

    void wrongWordsWithARightSumAreRefused_data()
    {
        QTest::addColumn<QString>("body");
        for (const char* body : { "vernier 27.98 mm", "vernier 27.98 mm resting", "vernier 27,98 mm stable", "vernier 27.98 furlong stable",
                 "vernier nan mm stable", "vernier inf mm stable", "vernier 1e3 mm stable", "vernier 27.98 bar stable", " 27.98 mm stable",
                 "vernier 27.98  stable", "vernier 0x1B mm stable", "vernier 27.98 mm stable now" })
            QTest::newRow(body) << body;
    }
    void wrongWordsWithARightSumAreRefused()
    {
        QFETCH(QString, body);
        const auto line = QString(":%1*%2").arg(body, QString("%1").arg(checksum(body.toStdString()), 4, 16, QChar('0')).toUpper());
        QVERIFY2(!parseLine(line.toStdString()), qPrintable(line));
    }

    void bytesInAnyPiecesGiveTheSameReadings()
    {
        std::string bytes;
        for (int i = 0; i < 50; ++i)
            bytes += i % 7 == 3 ? std::string("noise \xff\x01 of a plug\r\n") : formatLine("scale", 7.0 + i * 0.01, 3, "kg", i % 2 == 0);
        LineReader whole;
        const auto all = whole.take(bytes);
        QCOMPARE(all.size(), std::size_t(43));
        QCOMPARE(whole.refused(), std::uint64_t(7));
        for (int round = 0; round < 50; ++round) {
            LineReader reader;
            std::vector<Indication> read;
            for (std::size_t at = 0; at < bytes.size();) {
                const auto piece = std::min<std::size_t>(static_cast<std::size_t>(among(1, 40)), bytes.size() - at);
                for (auto& one : reader.take(std::string_view(bytes).substr(at, piece)))
                    read.push_back(one);
                at += piece;
            }
            QVERIFY(read == all);
        }
    }

    void anEndlessLineIsForgottenAndTheNextOneRead()
    {
        LineReader reader;
        for (int i = 0; i < 1000; ++i)
            QVERIFY(reader.take(std::string(1000, 'x')).empty());
        QVERIFY(reader.take("\n").empty());
        QCOMPARE(reader.take(formatLine("vernier", 1, 2, "mm", true)).size(), std::size_t(1));
        QCOMPARE(reader.refused(), std::uint64_t(1));
        // A flood leaves the last ones.
        std::string flood;
        for (int i = 0; i < 1000; ++i)
            flood += formatLine("vernier", i, 2, "mm", true);
        const auto last = reader.take(flood, 5);
        QCOMPARE(last.size(), std::size_t(5));
        QVERIFY(near(last.back().value, 0.999, 1e-12));
    }

    void theSimulatedVernierComesToRestAndGoesOnWhenTaken()
    {
        Scene scene { .instrument = "vernier", .values = { 27.98, 44.05 } };
        Simulated vernier(scene);
        const auto at = [&](double time) { return parseLine(vernier.at(time).substr(0, vernier.at(time).size() - 1)); };
        QVERIFY(!at(0.1)->stable);
        QVERIFY(at(0.5)->stable && near(at(0.5)->value, 0.02798, 1e-9));
        vernier.next(1.0);
        QVERIFY(!at(1.1)->stable);
        QVERIFY(at(1.5)->stable && near(at(1.5)->value, 0.04405, 1e-9));
        vernier.next(2.0);
        QVERIFY(near(at(3)->value, 0.04405, 1e-9));
        // Drift drifts, drop-outs drop out, and the same seed does the same.
        Simulated drifting({ .instrument = "scale", .values = { 7 }, .drift = 0.01 });
        QVERIFY(near(parseLine(drifting.at(10).substr(0, drifting.at(10).size() - 1))->value, 7.1, 1e-9));
        Scene bad { .instrument = "thermometer", .noise = 0.5, .dropOuts = 0.3, .halfLines = 0.3 };
        Simulated one(bad);
        Simulated two(bad);
        int missing = 0;
        int half = 0;
        for (int i = 0; i < 1000; ++i) {
            const auto line = one.at(i);
            QCOMPARE(line, two.at(i));
            missing += line.empty();
            half += !line.empty() && (!line.ends_with("\n") || !parseLine(line.substr(0, line.size() - 1)));
        }
        QVERIFY(missing > 240 && missing < 360 && half > 140 && half < 280);
    }

    void wobbleIsToldFromTheRest()
    {
        std::vector<double> turn;
        for (int i = 0; i < 90; ++i) {
            const double angle = 2 * std::numbers::pi * i / 90;
            turn.push_back(0.2e-3 + 0.03e-3 * std::cos(angle - 1.2) + 0.01e-3 * std::cos(3 * angle));
        }
        const auto said = runout::analyse(turn);
        QVERIFY(said);
        QVERIFY(near(said->wobble, 0.06e-3, 1e-9));
        QVERIFY(near(said->highSpot, 1.2, 1e-9));
        QVERIFY(near(said->rest, 0.02e-3, 1e-3));
        const auto [low, high] = std::ranges::minmax(turn);
        QVERIFY(near(said->total, high - low, 1e-12));
        // Begun elsewhere, the same wobble, its high spot elsewhere.
        std::ranges::rotate(turn, turn.begin() + 30);
        QVERIFY(near(runout::analyse(turn)->wobble, 0.06e-3, 1e-9));
        QVERIFY(near(runout::analyse(turn)->highSpot, 1.2 + 2 * std::numbers::pi * 2 / 3, 1e-9));
        QVERIFY(!runout::analyse(std::vector<double>(11, 0.0)));
        QVERIFY(!runout::analyse(std::vector<double>(20, NAN)));
        QVERIFY(near(runout::analyse(std::vector<double>(20, 1e-3))->total + 1, 1, 1e-12));
    }

    /// The first harmonic against NumPy's fast Fourier transform, on random turns.
    void wobbleAsNumPyFindsIt()
    {
        nlohmann::json turns = nlohmann::json::array();
        std::vector<std::vector<double>> kept;
        for (int i = 0; i < 20; ++i) {
            std::vector<double> turn(static_cast<std::size_t>(among(12, 200)));
            for (double& reading : turn)
                reading = between(-0.1, 0.1);
            turns.push_back(turn);
            kept.push_back(std::move(turn));
        }
        const auto answer = answerOf("/usr/bin/python3",
            { "-c",
                "import json,sys,numpy as np\nout=[]\nfor t in json.load(sys.stdin):\n c=np.fft.rfft(t)[1]*2/len(t)\n "
                "out.append([2*abs(c),float(np.angle(np.conj(c))%(2*np.pi))])\nprint(json.dumps(out))" },
            QByteArray::fromStdString(turns.dump()));
        const auto numpy = nlohmann::json::parse(answer.toStdString());
        for (std::size_t i = 0; i < kept.size(); ++i) {
            const auto said = *runout::analyse(kept[i]);
            QVERIFY(near(said.wobble, numpy[i][0].get<double>(), 1e-9));
            QVERIFY(std::abs(std::remainder(said.highSpot - numpy[i][1].get<double>(), 2 * std::numbers::pi)) < 1e-9);
        }
    }

    /// Stalled, or with nobody who reads, the simulated instruments neither hang nor take a processor.
    void theSimulatedBenchIsQuietAndEnds_data()
    {
        QTest::addColumn<QStringList>("arguments");
        QTest::newRow("stalled") << QStringList { "vernier", "--stall-after", "0.05", "--for", "1" };
        QTest::newRow("stalled on a port") << QStringList { "vernier", "--tcp", "0", "--stall-after", "0.05", "--for", "1" };
        QTest::newRow("floods, and nobody reads") << QStringList { "vernier", "--flood", "--for", "1" };
    }
    void theSimulatedBenchIsQuietAndEnds()
    {
        QFETCH(QStringList, arguments);
        QProcess process;
        process.start(
            "/bin/bash", { "-c", QString("TIMEFORMAT='%U %S'; time '%1' %2 >/dev/null").arg(DEEPSTOP_BENCH, arguments.join(' ')) });
        QVERIFY(process.waitForFinished(20000));
        QCOMPARE(process.exitCode(), 0);
        const auto used = process.readAllStandardError().trimmed().split(' ');
        QCOMPARE(used.size(), qsizetype(2));
        // Of one second's life, seconds of a processor: a tenth is plenty, a busy loop takes all of it.
        QVERIFY2(used[0].toDouble() + used[1].toDouble() < 0.5, used.join(' ').constData());
    }

    void aNameNoFileCouldHoldIsNoInstrument()
    {
        using namespace instruments;
        const auto line = [](const std::string& name) { return formatLine(name, 27.98, 2, "mm", true); };
        LineReader reader;
        QCOMPARE(reader.take(line("vernier")).size(), std::size_t(1));
        QVERIFY(reader.take(line("ver\xffnier")).empty() && reader.take(line("ver\x1b[2Jnier")).empty());
        QCOMPARE(reader.refused(), std::uint64_t(2));
    }
};

DEEPSTOP_TEST(InstrumentsTest)
#include "instruments_test.moc"
