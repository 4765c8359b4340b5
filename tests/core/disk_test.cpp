/// Files are written whole or not at all, to where they belong, by one program at a time.

#include "core/support.hpp"
#include "files/disk.hpp"
#include "library/library_file.hpp"
#include "files/lock.hpp"

#include <QDir>
#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <nlohmann/json.hpp>

#include <csignal>
#include <fcntl.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <thread>
#include <unistd.h>

using namespace deepstop;

namespace {

std::string refusalOf(const std::function<void()>& act)
{
    try {
        act();
    } catch (const files::Refusal& refusal) {
        return refusal.what();
    }
    return {};
}

std::string at(const QTemporaryDir& dir, const char* name) { return dir.filePath(name).toStdString(); }

struct Answer {
    int code;
    QByteArray out;
    QByteArray err;
};
Answer shell(const QString& command)
{
    QProcess process;
    process.start("/bin/sh", { "-c", command });
    process.waitForFinished(60000);
    return { process.exitCode(), process.readAllStandardOutput(), process.readAllStandardError() };
}

} // namespace

class DiskTest : public QObject {
    Q_OBJECT
private slots:
    void whatIsNoFileIsLeftAlone()
    {
        QTemporaryDir dir;
        const auto pipe = at(dir, "pipe");
        QCOMPARE(::mkfifo(pipe.c_str(), 0600), 0);
        QVERIFY(refusalOf([&] { files::replaceFile(pipe, "x"); }).find("pipe, not a file") != std::string::npos);
        struct stat about { };
        QVERIFY(::stat(pipe.c_str(), &about) == 0 && S_ISFIFO(about.st_mode));
        QVERIFY(refusalOf([&] { files::replaceFile("/dev/full", "x"); }).find("device") != std::string::npos);
        QVERIFY(refusalOf([&] { files::replaceFile(dir.path().toStdString(), "x"); }).find("is a folder") != std::string::npos);
        const auto self = at(dir, "self");
        QCOMPARE(::symlink(self.c_str(), self.c_str()), 0);
        QVERIFY(refusalOf([&] { files::replaceFile(self, "x"); }).find("leads to itself") != std::string::npos);
        QVERIFY(refusalOf([&] { (void)files::loadLibrary(self); }).starts_with(self));
    }

    void aLinkIsFollowedAlsoToNothing()
    {
        QTemporaryDir dir;
        const auto link = at(dir, "link");
        QCOMPARE(::symlink("there", link.c_str()), 0);
        files::replaceFile(link, "first");
        QCOMPARE(files::readFile(at(dir, "there")), std::string("first"));
        files::replaceFile(link, "second");
        struct stat about { };
        QVERIFY(::lstat(link.c_str(), &about) == 0 && S_ISLNK(about.st_mode));
        QCOMPARE(files::readFile(at(dir, "there~")), std::string("first"));
    }

    void aProtectedFileStaysAsItIs()
    {
        QTemporaryDir dir;
        const auto file = at(dir, "mine");
        files::replaceFile(file, "kept");
        QCOMPARE(::chmod(file.c_str(), 0444), 0);
        QVERIFY(refusalOf([&] { files::replaceFile(file, "x"); }).find("write-protected") != std::string::npos);
        QCOMPARE(files::readFile(file), std::string("kept"));
        QCOMPARE(QDir(dir.path()).entryList(QDir::Files | QDir::Hidden), QStringList { "mine" });
    }

    void newFilesHaveTheRightsThePersonGives()
    {
        QTemporaryDir dir;
        const auto before = ::umask(027);
        files::replaceFile(at(dir, "a"), "x");
        ::umask(before);
        struct stat about { };
        QCOMPARE(::stat(at(dir, "a").c_str(), &about), 0);
        QCOMPARE(about.st_mode & 0777, 0640u);
    }

    /// What a killed writer left is written over or taken away; what a living one writes is not.
    void leftoversAreTakenOver()
    {
        QTemporaryDir dir;
        files::replaceFile(at(dir, "a.saving"), "half");
        files::replaceFile(at(dir, "a"), "whole");
        QCOMPARE(files::readFile(at(dir, "a")), std::string("whole"));
        QVERIFY(!QFile::exists(dir.filePath("a.saving")));
        files::replaceFile(at(dir, "a.saving"), "half");
        files::removeLeftovers(at(dir, "a"));
        QCOMPARE(QDir(dir.path()).entryList(QDir::Files | QDir::Hidden), QStringList { "a" });
    }

    void manyWritersOneFile()
    {
        QTemporaryDir dir;
        std::vector<std::thread> writers;
        for (int i = 0; i < 8; ++i)
            writers.emplace_back([&, i] {
                for (int k = 0; k < 20; ++k)
                    files::replaceFile(at(dir, "a"), std::string(5000, char('a' + i)));
            });
        for (auto& writer : writers)
            writer.join();
        const auto text = files::readFile(at(dir, "a"));
        QCOMPARE(text, std::string(5000, text.front()));
        QVERIFY(!QFile::exists(dir.filePath("a.saving")));
    }

    void whatIsWrittenCanBeOpenedAgain()
    {
        // Indented it is over the limit, in one piece under it.
        files::BuildFile file { demo(), {} };
        auto odd = nlohmann::json::array();
        while (odd.size() < 1'200'000)
            odd.push_back(1);
        file.unknown = std::make_shared<const nlohmann::json>(nlohmann::json { { "odd", odd } });
        const auto text = files::writeBuild(file);
        QVERIFY(text.size() < files::largestFile && text.find("\n ") == std::string::npos);
        QVERIFY(files::parseBuild(text).build == file.build);
        file.unknown = std::make_shared<const nlohmann::json>(nlohmann::json { { "odd", std::string(files::largestFile, 'x') } });
        QTemporaryDir dir;
        files::saveBuild(at(dir, "a"), { demo(), nullptr });
        const auto before = files::readFile(at(dir, "a"));
        const auto why = refusalOf([&] { files::saveBuild(at(dir, "a"), file); });
        QVERIFY2(why.starts_with(at(dir, "a")) && why.find("at most 8 MB") != std::string::npos, why.c_str());
        QCOMPARE(files::readFile(at(dir, "a")), before);
    }

    void oneLockAndWhoHasIt()
    {
        QTemporaryDir dir;
        const auto file = at(dir, "a");
        {
            const auto lock = files::Lock::take(file);
            QVERIFY(lock && lock->holds());
            files::Holder other;
            QVERIFY(!files::Lock::take(file, {}, &other));
            QCOMPARE(other.process, long(::getpid()));
            QVERIFY2(other.inWords().starts_with("Deep Stop (process "), other.inWords().c_str());
            QVERIFY(refusalOf([&] { (void)files::lockOrRefuse(file, {}); }).find("in use by Deep Stop") != std::string::npos);
        }
        QVERIFY(files::Lock::take(file));
        QVERIFY(QDir(dir.path()).entryList(QDir::Files | QDir::Hidden).isEmpty());
        // Where nobody can write nobody can save: no lock, and no excuse either.
        const auto none = files::Lock::take("/proc/a");
        QVERIFY(none && !none->holds());
    }

    /// Its holder killed, a lock counts for nothing.
    void aLockLeftBehindIsNoLock()
    {
        QTemporaryDir dir;
        const auto file = at(dir, "a");
        int ready[2];
        QCOMPARE(::pipe(ready), 0);
        const pid_t child = ::fork();
        if (child == 0) {
            const auto lock = files::Lock::take(file);
            [[maybe_unused]] const auto n = ::write(ready[1], "x", 1);
            ::pause();
        }
        char byte = 0;
        QCOMPARE(::read(ready[0], &byte, 1), 1);
        QVERIFY(!files::Lock::take(file));
        ::kill(child, SIGKILL);
        ::waitpid(child, nullptr, 0);
        QVERIFY(QFile::exists(dir.filePath(".a.lock")));
        const auto lock = files::Lock::take(file);
        QVERIFY(lock && lock->holds());
    }

    /// Twelve at once, a hundred parts each: all twelve hundred are there.
    void twelveImportsAtOnceLoseNothing()
    {
        QTemporaryDir dir;
        QStringList commands;
        for (int i = 0; i < 12; ++i) {
            QFile list(dir.filePath(QString("list-%1.csv").arg(i)));
            QVERIFY(list.open(QIODevice::WriteOnly));
            list.write("name,outer_diameter_mm\n");
            for (int k = 0; k < 100; ++k)
                list.write(QByteArray("Rotor ") + QByteArray::number(i) + " " + QByteArray::number(k) + ",330\n");
            commands << QString("'%1' import parts '%2' --into '%3' >/dev/null")
                            .arg(DEEPSTOP_CLI, list.fileName(), dir.filePath("library.json"));
        }
        const auto answer = shell(commands.join(" & ") + " & wait");
        QVERIFY2(answer.err.isEmpty(), answer.err.constData());
        QCOMPARE(files::loadLibrary(at(dir, "library.json")).rotors.size(), std::size_t(1200));
    }

    void whatCannotBeWrittenIsSaidAndEndsWithTwo()
    {
        QTemporaryDir dir;
        const QString demoFile = DEEPSTOP_DATA "/demo/halden-merle.deepstop";
        const auto full = shell(QString("'%1' study '%2' > /dev/full").arg(DEEPSTOP_CLI, demoFile));
        QCOMPARE(full.code, 2);
        QVERIFY2(full.err.contains("could not be written") && full.err.count('\n') == 1, full.err.constData());
        // A limit of 4 kB on what may be written stands for a full disk.
        for (const char* kind : { "dxf", "pdf", "svg" }) {
            const auto out = dir.filePath(QString("out.%1").arg(kind));
            const auto cut =
                shell(QString("trap '' XFSZ; ulimit -f 8; '%1' template '%2' --%3 '%4'").arg(DEEPSTOP_CLI, demoFile, kind, out));
            QCOMPARE(cut.code, 2);
            QVERIFY2(cut.err.startsWith("deepstop-cli: " + out.toUtf8()) && cut.err.count('\n') == 1, cut.err.constData());
        }
        QVERIFY(QDir(dir.path()).entryList(QDir::Files | QDir::Hidden).isEmpty());
    }
};

DEEPSTOP_TEST(DiskTest)
#include "disk_test.moc"
