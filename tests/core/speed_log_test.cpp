/// Speed logs: CSV and GPX in, brakings out; what cannot be is refused with its line.

#include "core/support.hpp"
#include "files/refusal.hpp"
#include "files/speed_log.hpp"
#include "heat/duty.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop;

class SpeedLogTest : public QObject {
    Q_OBJECT
private slots:
    void columnsAndUnitsAreReadByName()
    {
        const auto kmh = files::readSpeedLog("time_s,speed_kmh\n10,36\n11,72\n12,36\n");
        QCOMPARE(kmh.size(), std::size_t { 3 });
        QVERIFY(kmh[0].time == 0 && near(kmh[1].speed, 20, 1e-12) && std::isnan(kmh[0].height));
        const auto mph = files::readSpeedLog("speed_mph;t;altitude\n10;0;500\n20;1;499\n30;2;498\n");
        QVERIFY(near(mph[2].speed, 30 * 0.44704, 1e-12) && mph[2].height == 498);
    }

    /// A degree of latitude is 111.195 km on a sphere of the mean radius: a ten-thousandth of it in a second is 11.12 m/s.
    void aTrackGivesItsSpeed()
    {
        std::string gpx = "<?xml version=\"1.0\"?><gpx version=\"1.1\"><trk><trkseg>";
        for (int i = 0; i < 5; ++i)
            gpx += "<trkpt lat=\"" + std::to_string(47 + i * 1e-4) + "\" lon=\"9\"><ele>400</ele><time>2026-03-14T09:00:0"
                + std::to_string(i) + "Z</time></trkpt>";
        gpx += "</trkseg></trk></gpx>";
        const auto log = files::readSpeedLog(gpx);
        QCOMPARE(log.size(), std::size_t { 5 });
        for (const auto& each : log)
            QVERIFY2(near(each.speed, 11.1195, 1e-2), QByteArray::number(each.speed).constData());
        QVERIFY(near(log.back().time, 4, 1e-9) && log[0].height == 400);
    }

    void brakingsAreFoundAndCoastingIsNone()
    {
        std::vector<heat::Driven> drive;
        double speed = 10;
        double time = 0;
        const auto go = [&](double to, double seconds) {
            const int steps = static_cast<int>(seconds * 10);
            for (int i = 0; i < steps; ++i)
                drive.push_back({ time += 0.1, speed += (to - speed) / (steps - i), 500 - time });
        };
        go(30, 10); // up
        go(15, 3); // a braking at 5 m/s²
        go(35, 12);
        go(32, 8); // coasting
        go(10, 4); // a braking at 5.5
        go(25, 9);
        const auto duty = heat::drivenDuty(drive);
        QCOMPARE(heat::stopsIn(duty), 2);
        double given = 0;
        for (const auto& p : duty.phases) {
            QVERIFY(p.duration > 0);
            if (p.braking)
                given += (p.from * p.from - p.to * p.to) / 2;
        }
        // What was given up in the two brakings, by hand; the coast before the second belongs to the same fall of speed.
        QVERIFY2(given > (900 - 225 + 1024 - 100) / 2.0 * 0.9 && given < (900 - 225 + 1225 - 100) / 2.0 * 1.02,
            QByteArray::number(given).constData());
        QVERIFY(near(heat::durationOf(duty), drive.back().time - drive.front().time, 1e-9));
        QVERIFY(heat::drivenDuty({}).phases.empty());
    }

    void whatCannotBeIsRefusedWithItsLine_data()
    {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("word");
        QTest::newRow("empty") << ""
                               << "empty";
        QTest::newRow("blank") << " \n \n"
                               << "empty";
        QTest::newRow("no names") << "1,2\n2,3\n3,4\n"
                                  << "line 1";
        QTest::newRow("too few points") << "time,speed\n1,2\n2,3\n"
                                        << "three points";
        QTest::newRow("time backwards") << "time,speed\n1,2\n3,3\n2,4\n"
                                        << "line 4: the time runs backwards";
        QTest::newRow("no number") << "time,speed\n1,2\n2,x\n3,4\n"
                                   << "line 3: “x” is no number";
        QTest::newRow("not a number") << "time,speed\n1,2\n2,nan\n3,4\n"
                                      << "line 3";
        QTest::newRow("10,000 km/h") << "time,speed_kmh\n1,2\n2,10000\n3,4\n"
                                     << "cannot be";
        QTest::newRow("too few columns") << "time,speed\n1,2\n2\n3,4\n"
                                         << "too few columns";
        QTest::newRow("broken xml") << "<gpx><trk>"
                                    << "line";
        QTest::newRow("another xml") << "<kml></kml>"
                                     << "no gpx";
        QTest::newRow("no times") << "<gpx><trk><trkseg><trkpt lat=\"1\" lon=\"2\"/></trkseg></trk></gpx>"
                                  << "track point 1";
    }
    void whatCannotBeIsRefusedWithItsLine()
    {
        QFETCH(QString, text);
        QFETCH(QString, word);
        try {
            (void)files::readSpeedLog(text.toStdString());
            QFAIL("was taken");
        } catch (const files::Refusal& refusal) {
            QVERIFY2(QString::fromUtf8(refusal.what()).contains(word), refusal.what());
        }
    }

    /// A million lines are a long drive and no trouble.
    void aMillionLines()
    {
        std::string text = "time_s,speed_kmh\n";
        text.reserve(20'000'000);
        for (int i = 0; i < 1'000'000; ++i)
            text += std::to_string(i) + "," + std::to_string(60 + 40 * ((i / 20) % 2)) + "\n";
        const auto log = files::readSpeedLog(text);
        QCOMPARE(log.size(), std::size_t { 1'000'000 });
        std::vector<heat::Driven> drive;
        for (const auto& each : log)
            drive.push_back({ each.time, each.speed, each.height });
        QVERIFY(heat::stopsIn(heat::drivenDuty(drive)) > 1000);
    }
};

DEEPSTOP_TEST(SpeedLogTest)
#include "speed_log_test.moc"
