/// Somebody at work is killed at random moments, over and over: nothing older than his autosave is lost, no file is torn, nothing is left
/// over.

#include "app/shown.hpp"
#include "library/library_file.hpp"
#include "recovery.hpp"

#include <QDirIterator>

#include <csignal>

using namespace deepstop;
using namespace deepstop::app;

namespace {

constexpr double base = 0.02;
constexpr double per = 1e-7;
/// The worker's autosave waits 100 ms where the program's waits 2 s; of 5 s that may be lost this is the twentieth part, and the time a
/// busy machine may take to start him and to write.
constexpr qint64 mayBeLost = 250 + 750;

/// Of the reading, where the card's last tick is as old; else nothing is whole.
long numberOf(const Build& build)
{
    const long number = std::lround((build.setups[1].front->rotor.thickness.value.value_or(base) - base) / per);
    long ticked = 0;
    for (const JobCard& card : build.cards)
        for (const Tick& tick : card.ticks)
            ticked = std::max(ticked, std::stol(tick.when));
    return ticked == number ? number : -2;
}

int kills()
{
    const auto said = qEnvironmentVariableIntValue("DEEPSTOP_KILLS");
    return said > 0 ? said : 12;
}

struct Worker {
    QProcess process;
    QByteArray said;
    Worker(const QString& home, const QStringList& arguments)
    {
        auto environment = QProcessEnvironment::systemEnvironment();
        environment.insert("XDG_DATA_HOME", home);
        environment.insert("XDG_CONFIG_HOME", home);
        environment.insert("QT_QPA_PLATFORM", "offscreen");
        process.setProcessEnvironment(environment);
        process.start(qEnvironmentVariable("DEEPSTOP_WORKER", DEEPSTOP_BIN "/deepstop_worker"), arguments);
    }
    /// Until he has said that word, for at most ten seconds.
    bool waitFor(const char* word)
    {
        QElapsedTimer timer;
        timer.start();
        while (!said.contains(word) && timer.elapsed() < 10000 && process.waitForReadyRead(10000 - int(timer.elapsed())))
            said += process.readAll();
        return said.contains(word);
    }
    /// What he had done so many milliseconds before `when`, at least.
    long doneBefore(qint64 when) const
    {
        long done = -1;
        for (const auto& line : said.split('\n')) {
            const auto words = line.split(' ');
            if (words.size() == 3 && words[2].toLongLong() <= when)
                done = std::max(done, words[1].toLong());
        }
        return done;
    }
};

} // namespace

class KillTest : public QObject {
    Q_OBJECT
private slots:
    void nothingOlderThanItsCopyIsLost()
    {
        QTemporaryDir home;
        const auto file = home.filePath("work.deepstop");
        QVERIFY(QFile::copy(merle(), file));
        QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
        {
            auto build = files::loadBuild(file.toStdString());
            build.build.setups[1].front->rotor.thickness.value = base;
            files::saveBuild(file.toStdString(), build);
        }
        const auto recovery = home.filePath("deepstop/deepstop/recovery");
        int copies = 0;
        for (int i = 0; i < kills(); ++i) {
            Worker worker(home.path(), { file, "work" });
            const bool whileStarting = i % 5 == 0;
            if (!whileStarting)
                QVERIFY2(worker.waitFor("did"), (worker.said + worker.process.readAllStandardError()).constData());
            // Any moment of it.
            QTest::qSleep(among(0, whileStarting ? 120 : 500));
            ::kill(static_cast<pid_t>(worker.process.processId()), SIGKILL);
            const auto when = QDateTime::currentMSecsSinceEpoch();
            QVERIFY(worker.process.waitForFinished());
            worker.said += worker.process.readAllStandardOutput();
            long kept = numberOf(files::loadBuild(file.toStdString()).build);
            for (const QFileInfo& copy : QDir(recovery).entryInfoList({ "*.json" }, QDir::Files)) {
                kept = std::max(kept, numberOf(*Recovery::read(copy.absoluteFilePath()).build));
                ++copies;
            }
            if (const auto library = home.filePath("deepstop/deepstop/library.json"); QFile::exists(library))
                QVERIFY(!files::loadLibrary(library.toStdString()).hoses.empty());
            const long wanted = worker.doneBefore(when - mayBeLost);
            QVERIFY2(kept >= wanted, qPrintable(QString("kill %1: %2 kept, %3 was done by then").arg(i).arg(kept).arg(wanted)));
        }
        qInfo("%d kills, %d copies looked at", kills(), copies);
        QVERIFY(copies > 0);
        // The next start leaves nothing lying about.
        Worker last(home.path(), { file, "tidy" });
        QVERIFY(last.process.waitForFinished());
        QCOMPARE(last.process.exitCode(), 0);
        QStringList leftOver;
        for (QDirIterator all(home.path(), QDir::Files | QDir::Hidden, QDirIterator::Subdirectories); all.hasNext();)
            if (const auto name = QFileInfo(all.next()).fileName(); name != "work.deepstop" && name != "work.deepstop~"
                && !name.startsWith("library.json") && !name.startsWith(".library.json"))
                leftOver << name;
        QVERIFY2(leftOver.isEmpty(), qPrintable(leftOver.join(' ')));
    }

    /// Told to end, by whoever: the copy holds the very last state.
    void signalsLeaveACopy_data()
    {
        QTest::addColumn<int>("number");
        QTest::newRow("terminated") << SIGTERM;
        QTest::newRow("terminal closed") << SIGHUP;
        QTest::newRow("Ctrl+C") << SIGINT;
    }
    void signalsLeaveACopy()
    {
        QFETCH(int, number);
        QTemporaryDir home;
        const auto file = home.filePath("work.deepstop");
        QVERIFY(QFile::copy(merle(), file));
        QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
        Worker worker(home.path(), { file, "work" });
        QVERIFY(worker.waitFor("did"));
        ::kill(static_cast<pid_t>(worker.process.processId()), number);
        QVERIFY(worker.process.waitForFinished());
        QCOMPARE(worker.process.exitCode(), 128 + number);
        worker.said += worker.process.readAllStandardOutput();
        long kept = numberOf(files::loadBuild(file.toStdString()).build);
        for (const QFileInfo& copy : QDir(home.filePath("deepstop/deepstop/recovery")).entryInfoList({ "*.json" }, QDir::Files))
            kept = std::max(kept, numberOf(*Recovery::read(copy.absoluteFilePath()).build));
        QCOMPARE(kept, worker.doneBefore(std::numeric_limits<qint64>::max()));
    }
};

DEEPSTOP_TEST(KillTest)
#include "kill_test.moc"
