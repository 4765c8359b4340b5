/// Columns of a CSV log, by their names or as somebody says them. What would be wrong and harmful: miles taken for kilometres.

#include "core/support.hpp"
#include "files/log_columns.hpp"
#include "files/refusal.hpp"
#include "report/log_session.hpp"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <cmath>

using namespace deepstop;
using files::Logged;

namespace {

/// A stop from 30 m/s at 8 m/s², ten moments a second, in some logger's words.
QByteArray logged(const QByteArray& before, auto row)
{
    QByteArray text = before;
    for (int i = 0; i < 160; ++i) {
        const double t = i / 10.0;
        text += row(t, t < 8 ? 30.0 : std::max(0.0, 30 - 8 * (t - 8)));
    }
    return text;
}

QString put(const QTemporaryDir& folder, const QByteArray& text)
{
    const auto path = folder.filePath("log.csv");
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly))
        qFatal("no file");
    file.write(text);
    return path;
}

} // namespace

class LogColumnsTest : public QObject {
    Q_OBJECT
private slots:
    void namesSayWhatAndInWhat()
    {
        const auto all = files::columnsNamed("time_s;Speed (mph);pressure_psi;decel [g];remark");
        QCOMPARE(all.separator, ';');
        QVERIFY(all.sure());
        QVERIFY(all.columns[1].logged == Logged::Speed && all.columns[1].unit == findUnit("mph"));
        QVERIFY(all.columns[3].logged == Logged::Deceleration && all.columns[4].logged == Logged::Nothing);
        // A unit that nobody named is the usual one, and not sure.
        const auto plain = files::columnsNamed("time,speed");
        QVERIFY(!plain.sure() && plain.columns[1].unit == findUnit("km/h"));
        for (const char* wrong : { "time_s,speed_parsec", "time_s,height_m", "a,b", "" })
            QVERIFY_EXCEPTION_THROWN(files::columnsNamed(wrong), files::Refusal);
    }

    /// A logger with lines of its own before the names, clock times, decimal commas, names in another tongue.
    void somebodySaysIt()
    {
        const QTemporaryDir folder;
        const auto path = put(folder, logged("Box 7\nsaved;today\n\nUhr;Tempo;Hang\n", [](double t, double v) {
            const auto seconds = QByteArray::number(10 + t, 'f', 1).replace('.', ',');
            return "09:59:" + seconds + ";" + QByteArray::number(v / 0.44704, 'f', 3).replace('.', ',') + ";0\n";
        }));
        const auto head = files::headOfLog(path.toStdString());
        QVERIFY(head);
        QCOMPARE(head->columns.header, std::size_t { 4 });
        QCOMPARE(head->columns.columns[0].name, "Uhr");
        QCOMPARE(head->rows.size(), std::size_t { 3 });
        QVERIFY(!head->columns.sure() && head->columns.lacks().find("time") != std::string::npos);
        const auto said = files::columnsSaid(head->columns, "time=Uhr:s, speed=2:mph");
        QVERIFY(said.sure());
        const auto log = report::stopsInLog(path.toStdString(), {}, said);
        QCOMPARE(log.stops.size(), std::size_t { 1 });
        QVERIFY2(near(log.stops[0].speed, 30, 1e-3) && near(log.stops[0].distance, 900.0 / 16, 0.01),
            QByteArray::number(log.stops[0].distance).constData());
        for (const char* wrong : { "time", "time=Uhr", "time=9:s", "time=Uhr:kg", "mass=Uhr:kg", "speed=0:mph", "speed=1.5:mph" })
            QVERIFY_EXCEPTION_THROWN((void)files::columnsSaid(head->columns, wrong), files::Refusal);
    }

    void whatIsNoTableHasNoHead()
    {
        const QTemporaryDir folder;
        for (const char* text : { "", "\n\n", "$GPRMC,1,2\n", "<gpx></gpx>", "no table at all\njust words\n", "1,2\n3,4\n" })
            QVERIFY(!files::headOfLog(put(folder, text).toStdString()));
        QVERIFY(!files::headOfLog("/nowhere/log.csv"));
    }

    /// A kept course gives the stop it is of once more; what is kept is the log and no more.
    void aKeptCourseIsTheStop()
    {
        const QTemporaryDir folder;
        const auto path = put(folder,
            logged("time_s,speed_mps\n", [](double t, double v) { return QByteArray::number(t) + "," + QByteArray::number(v) + "\n"; }));
        const auto log = report::stopsInLog(path.toStdString());
        const MeasuredStop kept = report::measuredOf(log.stops.at(0));
        auto course = report::courseOf(kept);
        const auto again = proving::stopOf(course);
        QVERIFY(again && near(again->mfdd, log.stops[0].mfdd, 0.005) && near(again->distance, log.stops[0].distance, 0.005));
        QVERIFY(near(again->mfdd, 8, 0.01) && std::abs(again->begin) < 0.02);
        QCOMPARE(proving::unbroken(course).size(), std::size_t { 1 });
        // A hole parts it in two, none of its moments lost; a tape's stop has no course.
        auto holed = course;
        holed.erase(holed.begin() + 50, holed.begin() + 54);
        const auto pieces = proving::unbroken(holed);
        QCOMPARE(pieces.size(), std::size_t { 2 });
        QCOMPARE(pieces[0].size(), std::size_t { 50 });
        QCOMPARE(pieces[0].size() + pieces[1].size(), holed.size());
        QVERIFY(proving::unbroken(report::courseOf({})).empty());
        course.resize(course.size() / 2);
        QVERIFY(!proving::stopOf(course) && !proving::stopOf({}));
        // It goes through the file whole.
        Build build = demo();
        TestSession session;
        session.setup = build.setups[0].id;
        session.stops = { kept };
        build.tests.push_back(session);
        QCOMPARE(files::parseBuild(files::writeBuild({ build, nullptr })).build.tests.back().stops.at(0).course, kept.course);
    }
};

DEEPSTOP_TEST(LogColumnsTest)
#include "log_columns_test.moc"
