/// Logs as they come, and the stops in them: a simulated receiver with noise, lag and drop-outs, an hour of traffic, damaged bytes.

#include "proving/pasted.hpp"
#include "core/mutate.hpp"
#include "core/support.hpp"
#include "files/refusal.hpp"
#include "files/track_log.hpp"
#include "instruments/receiver.hpp"
#include "proving/stops.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop;

namespace {

struct Read {
    std::vector<proving::FoundStop> stops;
    files::LogCount count;
};

Read readOf(std::string_view log, std::size_t piece = 4096)
{
    Read read;
    proving::StopFinder finder([&](const proving::FoundStop& stop) { read.stops.push_back(stop); });
    files::TrackReader reader([&](const files::Fix& fix) { finder.take({ fix.time, fix.speed }); });
    for (std::size_t at = 0; at < log.size(); at += piece)
        reader.take(log.substr(at, piece));
    reader.finish();
    finder.finish();
    read.count = reader.count();
    return read;
}

std::string logOf(instruments::Receiver& receiver)
{
    std::string log;
    while (!receiver.over())
        log += receiver.next();
    return log;
}

instruments::ReceiverScene stopsAt(double speed, int count)
{
    instruments::ReceiverScene scene;
    for (int i = 0; i < count; ++i)
        scene.stops.push_back({ speed, 5.5 + i % 40 * 0.1 });
    return scene;
}

QString refusalOf(std::string_view log)
{
    try {
        readOf(log);
    } catch (const files::Refusal& refusal) {
        return QString::fromUtf8(refusal.what());
    }
    return {};
}

} // namespace

class StopsTest : public QObject {
    Q_OBJECT
private slots:
    void aNotebooksLineIsRead_data()
    {
        QTest::addColumn<QString>("line");
        QTest::addColumn<double>("speed");
        QTest::addColumn<QList<double>>("distances");
        QTest::addColumn<int>("way");
        const double mph = 0.44704;
        const double ft = 0.3048;
        QTest::newRow("feet at the end") << "from 60 mph, out: 171 171 178 179 175 ft" << 60 * mph
                                         << QList<double> { 171 * ft, 171 * ft, 178 * ft, 179 * ft, 175 * ft } << int(Way::Out);
        QTest::newRow("metres, decimal commas, semicolons")
            << "100 km/h; 42,1; 42,6; 41,9" << 100 / 3.6 << QList<double> { 42.1, 42.6, 41.9 } << int(Way::Unknown);
        QTest::newRow("a unit each, back") << "from 60mph back 171ft 52.1m" << 60 * mph << QList<double> { 171 * ft, 52.1 }
                                           << int(Way::Back);
        QTest::newRow("words in capitals") << "From 60 MPH, OUT: 171 FT" << 60 * mph << QList<double> { 171 * ft } << int(Way::Out);
    }
    void aNotebooksLineIsRead()
    {
        QFETCH(QString, line);
        QFETCH(double, speed);
        QFETCH(QList<double>, distances);
        QFETCH(int, way);
        const auto read = proving::readStops(line.toStdString(), UnitSystem::Metric);
        QVERIFY2(read.refusal.empty(), read.refusal.c_str());
        QVERIFY(near(read.speed, speed, 1e-12) && read.way == static_cast<Way>(way));
        QCOMPARE(read.distances.size(), static_cast<std::size_t>(distances.size()));
        for (qsizetype i = 0; i < distances.size(); ++i)
            QVERIFY(near(read.distances[static_cast<std::size_t>(i)], distances[i], 1e-12));
        // In the States a bare number is feet.
        QVERIFY(near(proving::readStops("60 mph 171", UnitSystem::Us).distances.front(), 171 * 0.3048, 1e-12));
    }
    void whatIsNotUnderstoodIsNamed()
    {
        for (const auto& [line, word] : { std::pair { "", "speed" }, std::pair { "from 60, 171 ft", "no unit" },
                 std::pair { "out: 171 ft", "speed" }, std::pair { "from 60 mph", "no distances" },
                 std::pair { "from 60 mph 171 yd2 ft", "yd2" }, std::pair { "from 60 kg 171 ft", "kg" },
                 std::pair { "from 60 mph 0 ft", "no distance" }, std::pair { "from 60 mph 171 sideways", "sideways" } }) {
            const auto read = proving::readStops(line, UnitSystem::Metric);
            QVERIFY2(
                read.refusal.find(word) != std::string::npos && read.distances.empty(), (std::string(line) + ": " + read.refusal).c_str());
            QVERIFY(read.refusal.find("from 60 mph, out:") != std::string::npos);
        }
    }

    /// 1,000 stops from 100 km/h at 10 Hz with 0.1 m/s of noise: every one is found, none is invented, each distance within 1 %.
    void distancesAreWithinOnePercent()
    {
        auto scene = stopsAt(100 / 3.6, 1000);
        scene.noise = 0.1;
        instruments::Receiver receiver(scene);
        const auto read = readOf(logOf(receiver));
        QCOMPARE(read.stops.size(), std::size_t { 1000 });
        double worst = 0;
        for (std::size_t i = 0; i < read.stops.size(); ++i) {
            QVERIFY2(read.stops[i].good(), read.stops[i].faults.empty() ? "" : read.stops[i].faults.front().c_str());
            worst = std::max(worst, std::abs(read.stops[i].distance / receiver.distances()[i] - 1));
            QVERIFY(near(read.stops[i].mfdd, 5.5 + static_cast<double>(i % 40) * 0.1, 0.06));
        }
        QVERIFY2(worst < 0.01, QByteArray::number(worst).constData());
    }

    void slowAndFastReceiversAgree()
    {
        for (const double rate : { 5.0, 10.0, 25.0 })
            for (const double lag : { 0.0, 0.2 }) {
                auto scene = stopsAt(100 / 3.6, 40);
                scene.rate = rate;
                scene.lag = lag;
                instruments::Receiver receiver(scene);
                const auto read = readOf(logOf(receiver));
                QCOMPARE(read.stops.size(), std::size_t { 40 });
                for (std::size_t i = 0; i < 40; ++i)
                    QVERIFY(near(read.stops[i].distance, receiver.distances()[i], 0.011));
            }
        // One moment a second is too few to tell, and is said so.
        auto slow = stopsAt(100 / 3.6, 3);
        slow.rate = 1;
        instruments::Receiver receiver(slow);
        for (const auto& stop : readOf(logOf(receiver)).stops)
            QVERIFY(!stop.good());
    }

    /// The distance runs from where the braking takes hold: half the build-up later than the touch, and that much is said of it.
    void theBuildUpIsOutsideTheDistance()
    {
        auto scene = stopsAt(100 / 3.6, 20);
        scene.rate = 25;
        for (auto& stop : scene.stops)
            stop.buildUp = 0.3;
        instruments::Receiver receiver(scene);
        const auto read = readOf(logOf(receiver));
        for (std::size_t i = 0; i < 20; ++i) {
            const double half = 0.15 * 100 / 3.6;
            QVERIFY(near(read.stops[i].distance + half, receiver.distances()[i], 0.01));
        }
    }

    /// Twenty hours of hills, corners and traffic with a wandering receiver: not one stop is made up.
    void trafficIsNoStop()
    {
        for (unsigned seed = 1; seed <= 20; ++seed) {
            instruments::ReceiverScene scene;
            scene.traffic = 3600;
            scene.noise = 0.1;
            scene.seed = seed;
            instruments::Receiver receiver(scene);
            QVERIFY(readOf(logOf(receiver)).stops.empty());
        }
    }

    /// Drop-outs are never bridged: a stop with a hole has no distance and says why.
    void dropOutsAreSaid()
    {
        auto scene = stopsAt(100 / 3.6, 60);
        scene.dropOuts = 0.02;
        instruments::Receiver receiver(scene);
        const auto read = readOf(logOf(receiver));
        int holes = 0;
        for (const auto& stop : read.stops) {
            const bool hole = std::isnan(stop.distance);
            holes += hole;
            QCOMPARE(hole, !stop.good());
            if (hole)
                QVERIFY(stop.faults.front().starts_with("no moments for"));
        }
        QVERIFY(holes > 10 && holes < static_cast<int>(read.stops.size()));
    }

    /// Over midnight the day goes on: nothing of a long night's log is lost.
    void aNightIsOneLog()
    {
        instruments::ReceiverScene scene;
        scene.rate = 1;
        scene.traffic = 20 * 3600;
        instruments::Receiver receiver(scene);
        const auto read = readOf(logOf(receiver));
        QCOMPARE(read.count.unread, std::uint64_t { 0 });
        QVERIFY(read.count.fixes > 20 * 3600);
    }

    /// A receiver that drops to nothing or jumps has not braked.
    void aJumpIsNoStop()
    {
        std::string csv = "time_s,speed_mps\n";
        for (int i = 0; i < 400; ++i)
            csv += std::to_string(i / 10.0) + "," + (i < 200 ? "28" : "0") + "\n";
        QVERIFY(readOf(csv).stops.empty());
    }

    void sentencesAreReadByTheirWords()
    {
        using instruments::nmeaSentence;
        const auto rmc = [](const char* clock, const char* state, const char* knots) {
            return nmeaSentence(std::string("GPRMC,") + clock + "," + state + ",4700.000,N,00900.000,E," + knots + ",0.0,140326,,,A");
        };
        std::vector<files::Fix> fixes;
        files::TrackReader reader([&](const files::Fix& fix) { fixes.push_back(fix); });
        reader.take(rmc("235959.50", "A", "10.0") + nmeaSentence("GPVTG,0,T,,M,99,N,99,K,A") + rmc("235959.75", "V", "")
            + "$GPRMC,garbled*00\r\n" + nmeaSentence("GNRMC,000000.00,A,4700.000,N,00900.000,E,20.0,0.0,150326,,,A") + "what is this\r\n");
        reader.finish();
        QCOMPARE(fixes.size(), std::size_t { 2 });
        QVERIFY(near(fixes[0].speed, 10 * 1852 / 3600.0, 1e-9) && near(fixes[1].speed, 20 * 1852 / 3600.0, 1e-9));
        QVERIFY(near(fixes[1].time, 0.5, 1e-6)); // over midnight, by its date
        QCOMPARE(reader.count().badChecksums, std::uint64_t { 1 });
        QCOMPARE(reader.count().withoutFix, std::uint64_t { 1 });
        QCOMPARE(reader.count().unread, std::uint64_t { 1 });
        // GGA and VTG do where there is no RMC.
        std::vector<double> speeds;
        files::TrackReader two([&](const files::Fix& fix) { speeds.push_back(fix.speed); });
        two.take(
            nmeaSentence("GPGGA,100000.0,4700.0,N,00900.0,E,1,08,0.9,480.0,M,47.0,M,,") + nmeaSentence("GPVTG,0,T,,M,19.4,N,36.0,K,A"));
        two.finish();
        QVERIFY(speeds.size() == 1 && near(speeds[0], 10, 1e-9));
        // The checksum of a sentence as the standard's own examples have it.
        QCOMPARE(int(files::nmeaChecksum("GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,")), 0x47);
    }

    void whatIsNoLogIsRefused()
    {
        QVERIFY(refusalOf("").contains("empty"));
        QVERIFY(refusalOf(" \n\n").contains("empty"));
        auto scene = stopsAt(20, 1);
        instruments::Receiver receiver(scene);
        auto log = logOf(receiver);
        for (std::size_t at = log.find('*'); at != std::string::npos; at = log.find('*', at + 1))
            log[at + 1] = log[at + 1] == '0' ? '1' : '0';
        QVERIFY(refusalOf(log).contains("checksum"));
        QVERIFY(refusalOf("$GPRMC,090000,V,,,,,,,140326,,,N*44\r\n").contains("known place")
            || refusalOf("$GPRMC,090000,V,,,,,,,140326,,,N*44\r\n").contains("checksum"));
        QVERIFY(refusalOf("time_s,speed_kmh\n1,2\n0,3\n4,5\n").contains("line 3"));
        QVERIFY(refusalOf("time_s,speed_kmh\n").contains("no line"));
        QVERIFY(refusalOf(std::string(100'000, 'x')).contains("no end"));
        // A unit that is none is not taken for the usual one.
        QVERIFY(refusalOf("time_s,speed_furlongs\n0,3\n1,4\n2,5\n").contains("furlongs is no unit of a speed"));
        QVERIFY(refusalOf("<gpx><!DOCTYPE lol").size() > 0);
        QVERIFY(refusalOf("<!DOCTYPE g [<!ENTITY a \"b\">]><gpx></gpx>").contains("entities"));
    }

    void columnsMoreThanSpeedAreTaken()
    {
        std::vector<files::Fix> fixes;
        files::TrackReader reader([&](const files::Fix& fix) { fixes.push_back(fix); });
        reader.take("time_s;speed_kmh;acceleration;pressure_psi;temp_degF\n0,0;36,0;-0,5;100;212\n0,1;35;-0,6;110;213\n");
        reader.finish();
        QVERIFY(fixes.size() == 2 && near(fixes[0].speed, 10, 1e-9) && near(fixes[0].acceleration, -0.5 * 9.80665, 1e-9)
            && near(fixes[0].pressure, 689475.7293, 1e-3) && near(fixes[0].temperature, 373.15, 1e-9) && std::isnan(fixes[0].height));
    }

    /// However the bytes come in, the same comes out; and damaged ones are refused or read, never anything else.
    void piecesAndDamageAreStood()
    {
        auto scene = stopsAt(100 / 3.6, 4);
        instruments::Receiver receiver(scene);
        const auto log = logOf(receiver);
        const auto whole = readOf(log, log.size());
        for (const std::size_t piece : { std::size_t { 1 }, std::size_t { 7 }, std::size_t { 333 } }) {
            const auto read = readOf(log, piece);
            QCOMPARE(read.stops.size(), whole.stops.size());
            QCOMPARE(read.stops.back().distance, whole.stops.back().distance);
        }
        const auto begin = log.substr(0, 3000);
        const std::string csv = "time_s,speed_kmh,ele\n0,10,400\n0.1,11,401\n0.2,12,402\n";
        const std::string gpx =
            "<?xml version=\"1.0\"?><gpx><trk><trkseg><trkpt lat=\"47\" lon=\"9\"><time>2026-03-14T09:00:00Z</time></trkpt>"
            "<trkpt lat=\"47.0001\" lon=\"9\"><time>2026-03-14T09:00:01Z</time></trkpt></trkseg></trk></gpx>";
        const int rounds = qEnvironmentVariableIntValue("DEEPSTOP_FUZZ") > 0 ? qEnvironmentVariableIntValue("DEEPSTOP_FUZZ") : 20'000;
        std::mt19937 rng(9);
        for (int i = 0; i < rounds; ++i) {
            const std::string& text = i % 3 == 0 ? begin : i % 3 == 1 ? csv : gpx;
            try {
                for (const auto& stop : readOf(mutated(text, rng)).stops)
                    QVERIFY(stop.speed < 200);
            } catch (const files::Refusal& refusal) {
                QVERIFY(std::string_view(refusal.what()).size() > 5);
            }
        }
    }
};

DEEPSTOP_TEST(StopsTest)
#include "stops_test.moc"
