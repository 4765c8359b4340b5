/// What is read from logs and written to files: nothing is lost in silence, nothing is written that cannot be opened again, nobody's work
/// is written over.

#include "core/support.hpp"
#include "build/difference.hpp"
#include "centring/drawer.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "figures/heat_figures.hpp"
#include "files/disk.hpp"
#include "files/exports.hpp"
#include "files/letters.hpp"
#include "files/lock.hpp"
#include "files/log_columns.hpp"
#include "files/together.hpp"
#include "files/track_log.hpp"
#include "instruments/receiver.hpp"
#include "proving/live.hpp"
#include "proving/stops.hpp"
#include "report/log_session.hpp"
#include "task/cancel.hpp"

#include <fmt/format.h>

#include <QFileInfo>
#include <QTemporaryDir>
#include <QTest>

#include <filesystem>
#include <set>
#include <sys/stat.h>

using namespace deepstop;

namespace {

struct ReadLog {
    std::vector<files::Fix> fixes;
    files::LogCount count;
    std::string refusal;
};

ReadLog readLog(const std::string& text)
{
    ReadLog log;
    files::TrackReader reader([&](const files::Fix& fix) { log.fixes.push_back(fix); });
    try {
        reader.take(text);
        reader.finish();
    } catch (const files::Refusal& refusal) {
        log.refusal = refusal.what();
    }
    log.count = reader.count();
    return log;
}

/// RMC sentences of a steady drive, ten a second, from a time of a day on.
std::string drive(double from, int moments, const char* date = "140326")
{
    std::string text;
    for (int i = 0; i < moments; ++i) {
        const double t = from + 0.1 * i;
        const int h = static_cast<int>(t / 3600);
        const int m = static_cast<int>(t / 60) % 60;
        text += instruments::nmeaSentence(
            fmt::format("GPRMC,{:02}{:02}{:04.1f},A,4800.00,N,01100.00,E,{:.2f},0.0,{},,,A", h, m, t - 3600 * h - 60 * m, 54.0, date));
    }
    return text;
}

struct Answer {
    int code;
    std::string out;
    std::string err;
};
Answer run(const QStringList& arguments)
{
    QProcess process;
    process.start(DEEPSTOP_CLI, arguments);
    const bool ended = process.waitForFinished(60000);
    if (!ended)
        process.kill();
    return { ended ? process.exitCode() : -1, process.readAllStandardOutput().toStdString(), process.readAllStandardError().toStdString() };
}

struct OwnBuild {
    QTemporaryDir dir;
    QString path = dir.filePath("mine.deepstop");
    OwnBuild() { files::saveBuild(path.toStdString(), { demo(), nullptr }); }
    [[nodiscard]] std::string bytes() const { return files::readFile(path.toStdString()); }
    [[nodiscard]] Build build() const { return files::loadBuild(path.toStdString()).build; }
};

/// A log of one stop, under a name.
QString logOfOneStop(const QTemporaryDir& dir, const QString& name)
{
    instruments::ReceiverScene scene;
    scene.stops = { { 27, 8 } };
    instruments::Receiver receiver(scene);
    std::string text;
    while (!receiver.over())
        text += receiver.next();
    const auto path = dir.filePath(name);
    files::replaceFile(path.toStdString(), text);
    return path;
}

} // namespace

class WritingTest : public QObject {
    Q_OBJECT
private slots:
    /// “100,08” in quotes is a hundred and a bit; “1,234” is one or a thousand, and no number.
    void aDecimalCommaInQuotesIsReadOrRefused()
    {
        const auto log = readLog("time_s,speed_kmh\n0,\"100,08\"\n0.1,\"99,5\"\n\"0,2\",98\n");
        QVERIFY2(log.refusal.empty(), log.refusal.c_str());
        QVERIFY(near(log.fixes.at(0).speed, 100.08 / 3.6, 1e-12) && near(log.fixes.at(1).speed, 99.5 / 3.6, 1e-12));
        QVERIFY(near(log.fixes.at(2).time, 0.2, 1e-12));
        QVERIFY(readLog("time_s,speed_kmh\n0,\"1,234\"\n").refusal.find("line 2: “1,234”") == 0);
        // With semicolons between the cells it is one that nobody doubts.
        QVERIFY(near(readLog("time_s;speed_kmh\n0;1,234\n").fixes.at(0).speed, 1.234 / 3.6, 1e-12));
        // A separator within quotes parts nothing.
        QVERIFY(near(readLog("note,time_s,speed_kmh\n\"a, b\",0,36\n").fixes.at(0).speed, 10, 1e-12));
    }

    /// A clock that is set back, and one moment dated wrongly: the rest is read, and what is lost is said.
    void oneWrongMomentDoesNotThrowAwayTheRest()
    {
        const auto set = readLog(drive(36000, 50) + drive(32400, 50));
        QCOMPARE(set.fixes.size(), std::size_t { 99 });
        QCOMPARE(set.count.clockJumps, std::uint64_t { 1 });
        QVERIFY(set.fixes[50].time - set.fixes[49].time > 30); // a gap: no stop is told over it
        QVERIFY(report::lostIn(set.count).find("set back once") != std::string::npos);
        for (const char* date : { "140325", "140399", "130326" }) {
            const auto wrong = readLog(drive(36000, 50) + drive(36005, 1, date) + drive(36005.1, 50));
            QCOMPARE(wrong.fixes.size(), std::size_t { 100 });
            QCOMPARE(wrong.count.outOfTime, std::uint64_t { 1 });
            QVERIFY(report::lostIn(wrong.count).find("1 whose time") != std::string::npos);
        }
        // The first of them wrong.
        QCOMPARE(readLog(drive(36000, 1, "140327") + drive(36000.1, 50)).fixes.size(), std::size_t { 50 });
        QCOMPARE(set.count.day, std::string("2026-03-14"));
        std::string points;
        for (int i = 0; i < 20; ++i)
            points += fmt::format("<trkpt lat=\"48\" lon=\"{}\"><time>{}-03-14T09:26:{:02}Z</time><speed>20</speed></trkpt>", 11 + i * 1e-4,
                i == 7 ? 2027 : 2026, i);
        const auto gpx = readLog("<gpx>" + points + "</gpx>");
        QVERIFY2(gpx.refusal.empty(), gpx.refusal.c_str());
        QCOMPARE(gpx.fixes.size(), std::size_t { 19 });
        QCOMPARE(gpx.count.day, std::string("2026-03-14"));
        QVERIFY(report::lostIn(readLog(drive(0, 20)).count).empty());
    }

    /// Blanks without end, a comment without end, a pipe: refused, and nothing of them is held.
    void whatHasNoEndIsRefused()
    {
        files::TrackReader blanks([](const files::Fix&) {});
        const std::string piece(1 << 20, ' ');
        for (int i = 0; i < 200; ++i)
            blanks.take(piece);
        QVERIFY_THROWS_EXCEPTION(files::Refusal, blanks.finish());
        files::TrackReader comment([](const files::Fix&) {});
        comment.take("<gpx><!-- ");
        QVERIFY_THROWS_EXCEPTION(files::Refusal, {
            for (int i = 0; i < 10; ++i)
                comment.take(piece);
        });
        QTemporaryDir dir;
        const auto pipe = dir.filePath("log.csv").toStdString();
        QCOMPARE(::mkfifo(pipe.c_str(), 0600), 0);
        QVERIFY(!files::headOfLog(pipe));
        QVERIFY_THROWS_EXCEPTION(files::Refusal, (void)report::stopsInLog(pipe));
        QCOMPARE(run({ "import", "runs", QString::fromStdString(pipe) }).code, 2);
    }

    /// A file that says version 1 and is shaped otherwise is refused with the place, however long its lists are.
    void anOldFileOfAnotherShapeIsRefusedWithItsPlace()
    {
        for (const auto& [text, place] :
            { std::pair { R"({"deepstop":1,"car":{"grip":1},"wheels":{"a":1},"setups":[{"id":"a"}]})", "/wheels" },
                std::pair { R"({"deepstop":1,"car":{"grip":1},"wheels":[5],"setups":[{"id":"a"}]})", "/wheels" },
                std::pair { R"({"deepstop":1,"mock_ups":[[1],"x",{"passes":5}],"setups":[{"id":"a"}]})", "/mock_ups" },
                std::pair { R"({"deepstop":1,"setups":[{"id":"a","front":{"left":7,"rotor":{"runout_mm":1}}}]})", "/setups/0/front" } }) {
            std::string said = "not refused";
            try {
                (void)files::parseBuild(text);
            } catch (const files::Refusal& refusal) {
                said = refusal.what();
            }
            QVERIFY2(said.starts_with(place), said.c_str());
        }
        std::string many = R"({"deepstop":1,"car":{"grip":1},"wheels":[)";
        for (int i = 0; i < 40'000; ++i)
            many += fmt::format(R"({}{{"id":"w{}"}})", i ? "," : "", i);
        many += R"(],"setups":[)";
        for (int i = 0; i < 40'000; ++i)
            many += fmt::format(R"({}{{"id":"s{}","front":{{"wheel":"w{}"}}}})", i ? "," : "", i, i);
        QVERIFY_THROWS_EXCEPTION(files::Refusal, (void)files::parseBuild(many + "]}"));
    }

    /// Twenty at once: all of them are kept. While somebody has the file open, nothing is written.
    void whoeverWritesLocks()
    {
        OwnBuild own;
        const auto before = own.build().log.size();
        // Each waits half a minute for the lock: under a sanitizer fewer have their turn in that time.
#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
        constexpr int hands = 5;
#else
        constexpr int hands = 20;
#endif
        std::vector<std::unique_ptr<QProcess>> all;
        for (int i = 0; i < hands; ++i) {
            all.push_back(std::make_unique<QProcess>());
            all.back()->start(DEEPSTOP_CLI, { "log", own.path, "--add", "date=2026-04-01", QStringLiteral("note=number %1").arg(i) });
        }
        for (const auto& each : all)
            QVERIFY(each->waitForFinished(300000) && each->exitCode() == 0);
        const auto build = own.build();
        QCOMPARE(build.log.size(), before + hands);
        std::set<std::string> notes;
        for (const LogEntry& e : build.log)
            notes.insert(e.note);
        for (int i = 0; i < hands; ++i)
            QVERIFY(notes.contains(fmt::format("number {}", i)));
        const auto bytes = own.bytes();
        const auto lock = files::Lock::take(own.path.toStdString());
        QVERIFY(lock);
        QVERIFY_THROWS_EXCEPTION(files::Refusal,
            (void)files::changeBuild(
                own.path.toStdString(),
                [](Build b) {
                    b.car.name = "x";
                    return b;
                },
                std::chrono::milliseconds(1)));
        QCOMPARE(own.bytes(), bytes);
    }

    /// What no program opens again is not written, with exit 2 and the file as it was.
    void whateverWritesChecksWhatItWrites()
    {
        OwnBuild own;
        const auto bytes = own.bytes();
        auto said = run({ "log", own.path, "--add", "date=2026-04-01", "setup=nope" });
        QVERIFY2(said.code == 2 && said.err.find("no setup “nope”") != std::string::npos, said.err.c_str());
        said = run({ "log", own.path, "--add", "date=2026-04-01", "duty=nope" });
        QVERIFY2(said.code == 2 && said.err.find("no duty “nope”") != std::string::npos, said.err.c_str());
        const auto log = logOfOneStop(own.dir, QStringLiteral("drive\u0007.nmea"));
        said = run({ "import", "runs", log, "--into", own.path, "--setup", "varnik-330" });
        QVERIFY2(said.code == 2, said.err.c_str());
        QCOMPARE(own.bytes(), bytes);
        // More than a list may have.
        auto full = own.build();
        full.tests.resize(1);
        while (faultIn(full).empty())
            full.tests.push_back(full.tests.front());
        giveIds(full);
        QVERIFY_THROWS_EXCEPTION(files::Refusal, files::saveBuild(own.path.toStdString(), { full, nullptr }));
        full.tests.pop_back();
        files::saveBuild(own.path.toStdString(), { full, nullptr });
        const auto most = own.bytes();
        said = run({ "import", "runs", logOfOneStop(own.dir, "drive.nmea"), "--into", own.path, "--setup", "varnik-330" });
        QVERIFY2(said.code == 2, said.err.c_str());
        QCOMPARE(own.bytes(), most);
    }

    /// A session is of the day of its log; none is made where no stop was found.
    void anImportedSessionIsOfItsOwnDay()
    {
        OwnBuild own;
        const auto sessions = own.build().tests.size();
        const auto log = logOfOneStop(own.dir, "drive.nmea");
        const auto said = run({ "import", "runs", log, "--into", own.path, "--setup", "varnik-330" });
        QVERIFY2(said.code == 0, said.err.c_str());
        const auto build = own.build();
        QCOMPARE(build.tests.size(), sessions + 1);
        QCOMPARE(build.tests.back().log, std::string("drive"));
        std::string day;
        {
            files::TrackReader reader([](const files::Fix&) {});
            files::readTrack(log.toStdString(), reader);
            day = reader.count().day;
        }
        QVERIFY(!day.empty() && build.tests.back().date == day);
        files::replaceFile(own.dir.filePath("quiet.nmea").toStdString(), drive(36000, 100));
        const auto none = run({ "import", "runs", own.dir.filePath("quiet.nmea"), "--into", own.path, "--setup", "varnik-330" });
        QVERIFY2(none.code == 1 && none.out.find("nothing was put into") != std::string::npos, none.out.c_str());
        QCOMPARE(own.build().tests.size(), sessions + 1);
    }

    /// No export replaces a build, a library, what it reads, or another export.
    void noExportReplacesWhatIsKept()
    {
        OwnBuild own;
        const auto bytes = own.bytes();
        const auto other = own.dir.filePath("other.deepstop");
        files::saveBuild(other.toStdString(), { demo("linnet"), nullptr });
        const auto others = files::readFile(other.toStdString());
        const auto pdf = own.dir.filePath("card.pdf");
        const auto link = own.dir.filePath("link.json");
        QVERIFY(QFile::link(own.path, link));
        for (const QStringList& arguments :
            { QStringList { "card", own.path, "--json", own.path }, QStringList { "card", own.path, "--json", link },
                QStringList { "card", own.path, "--json", own.dir.path() + "/./mine.deepstop" },
                QStringList { "report", own.path, "--csv", own.path }, QStringList { "card", own.path, "--pdf", other },
                QStringList { "log", own.path, "--ics", own.path }, QStringList { "balance", own.path, "--csv", own.path },
                QStringList { "heat", own.path, "--duty", "one-stop", "--csv", own.path },
                QStringList { "card", own.path, "--pdf", pdf, "--html", pdf } }) {
            const auto said = run(arguments);
            QVERIFY2(said.code == 2, (arguments.join(" ").toStdString() + said.err).c_str());
            QCOMPARE(own.bytes(), bytes);
        }
        QCOMPARE(files::readFile(other.toStdString()), others);
        QVERIFY(!QFile::exists(pdf));
        QCOMPARE(run({ "card", own.path, "--pdf", pdf }).code, 0);
    }

    /// Two hands: an entry that one put in the place of another, and a note of the other on what stood there, are not one entry.
    void twoHandsGoByIdentity()
    {
        const Build base = demo();
        Build mine = base;
        Build theirs = base;
        mine.log[0].note = "mine";
        theirs.log[0] = {};
        theirs.log[0].date = "2026-01-01";
        QVERIFY(!files::together(base, mine, theirs));
        // On different entries both stand.
        theirs = base;
        theirs.log[1].note = "theirs";
        const auto both = files::together(base, mine, theirs);
        QVERIFY(both && both->log[0].note == "mine" && both->log[1].note == "theirs");
        // Mock-ups go by their corner, wherever they stand in the list.
        mine = theirs = base;
        std::ranges::reverse(mine.mockUps);
        theirs.mockUps[0].nuts = 5;
        const auto corners = files::together(base, mine, theirs);
        QVERIFY(corners);
        const auto same = std::ranges::find_if(corners->mockUps, [&](const MockUp& m) {
            return m.axle == base.mockUps[0].axle && m.side == base.mockUps[0].side && m.setup == base.mockUps[0].setup;
        });
        QVERIFY(same != corners->mockUps.end() && same->nuts == 5);
    }

    void aShimKeepsTheUnitItIsSoldIn()
    {
        using namespace centring;
        QCOMPARE(shimText(1e-3, UnitSystem::Us), shimText(1e-3, UnitSystem::Metric));
        QVERIFY(shimText(1e-3, UnitSystem::Us).ends_with(" mm"));
        QCOMPARE(shimText(30 * 25.4e-6, UnitSystem::Metric), std::string("30 thou"));
        const std::vector<double> mixed { 0.5e-3, 30 * 25.4e-6 };
        QVERIFY(pileText(mixed, UnitSystem::Us).find("mm + 30 thou") != std::string::npos);
        QCOMPARE(pileText({}, UnitSystem::Us), std::string("no shims"));
        const auto us = study(demo(), {}, UnitSystem::Us);
        for (const Verdict& v : us.verdicts)
            for (const Remedy& r : v.remedies)
                QVERIFY2(r.title.find("hims") == std::string::npos || r.title.find("0.0394 in") == std::string::npos, r.title.c_str());
    }

    /// A stop cut off by the line, or by a clock that runs back, is told of as one that does not count.
    void aStopThatIsCutDoesNotCount()
    {
        std::vector<proving::FoundStop> found;
        proving::LiveRecorder live(20, [&](const proving::FoundStop& stop) { found.push_back(stop); });
        instruments::ReceiverScene scene;
        scene.stops = { { 27, 8 } };
        instruments::Receiver receiver(scene);
        while (!receiver.over() && live.stateAt(receiver.time()) != proving::LiveRecorder::State::Braking)
            live.take(receiver.next(), receiver.time());
        for (int i = 0; i < 8; ++i)
            live.take(receiver.next(), receiver.time());
        live.cut();
        QCOMPARE(found.size(), std::size_t { 1 });
        QVERIFY(!found[0].good() && std::isnan(found[0].distance) && near(found[0].speed, 27, 0.6));
        QVERIFY2(found[0].faults[0].starts_with("the receiver was gone at"), found[0].faults[0].c_str());
        live.cut();
        QCOMPARE(found.size(), std::size_t { 1 });
        QVERIFY(!report::measuredOf(found[0]).leftOut.empty());
        // Another's clock runs back: it says so and goes on.
        proving::LiveRecorder other(10, [](const proving::FoundStop&) {});
        double now = 1000;
        for (int i = 0; i < 20; ++i)
            other.take(drive(36000 + 0.1 * i, 1), now += 0.1);
        QCOMPARE(other.stateAt(now), proving::LiveRecorder::State::Ready);
        other.take(drive(32400, 1), now += 0.1);
        other.take(drive(32400.1, 1), now += 0.1);
        QCOMPARE(other.stateAt(now), proving::LiveRecorder::State::ClockSet);
        for (int i = 2; i < 60; ++i)
            other.take(drive(32400 + 0.1 * i, 1), now += 0.1);
        QCOMPARE(other.stateAt(now), proving::LiveRecorder::State::Ready);
    }

    /// A run of a duty that was cancelled is not remembered: asked for again, it is there.
    void aCancelledRunIsNotRemembered()
    {
        Build build = demo();
        build.car.mass.value = 1461.25; // so that nobody has run it yet
        const DutyPlan* plan = figures::judgedDuty(build);
        Evaluator s;
        const auto duty = figures::dutyOf(s, build, *plan);
        const auto parts = partsOf(build, build.setups[1]);
        {
            const std::atomic<bool> cancelled { true };
            const CancelScope scope(&cancelled);
            QVERIFY_THROWS_EXCEPTION(Cancelled, (void)dutyHeatOf(build, parts, duty));
        }
        const auto heat = dutyHeatOf(build, parts, duty);
        QVERIFY(heat.run && heat.run->complete);
        // A study that nobody wants any more brings nothing.
        const std::atomic<bool> unwanted { true };
        QVERIFY(!study(std::make_shared<const Build>(build), {}, unwanted));
    }

    /// Names in any alphabet, right to left and with emoji, have a letter of a shipped font each.
    void noNameIsPrintedAsBoxes()
    {
        for (const char* name :
            { "Halden Merle", "Ålesund – Übung “A”", "Ελλάδα", "Москва", "שלום 330", "سيارة", "Merle 🚗💨 №5", "½ µm ≤ 3 °C Ø" })
            QVERIFY2(files::lettersMissing(name) == 0, name);
        // Right to left is as wide as its letters, whichever way.
        QVERIFY(files::widthOfText("שלום", 10) > 5);
        QVERIFY(near(files::widthOfText("330 mm", 10), files::widthOfText("330 mm", 20) / 2, 1e-9));
    }
};

DEEPSTOP_TEST(WritingTest)
#include "writing_test.moc"
