/// What an installed program brings along: man pages, completion, desktop file, icons, data. Held against the tools that read them.

#include "core/support.hpp"

#include <QDir>
#include <QFile>
#include <QProcess>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>

namespace {

const QStringList programs { "deepstop", "deepstop-cli", "deepstop-bench" };

QString pathOf(const QString& program) { return QStringLiteral(DEEPSTOP_BIN "/") + program; }
QByteArray manual(const QString& program, const char* kind) { return answerOf(pathOf(program), { "--manual", kind }); }

/// What a program says, both channels, and how it ended.
struct Said {
    int code;
    QByteArray text;
};
Said run(const QString& program, const QStringList& arguments, const QByteArray& input = {})
{
    QProcess process;
    process.setProcessChannelMode(QProcess::MergedChannels);
    process.start(program, arguments);
    process.write(input);
    process.closeWriteChannel();
    process.waitForFinished(120000);
    return { process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -1, process.readAll() };
}

void write(const QString& path, const QByteArray& bytes)
{
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly) || file.write(bytes) != bytes.size())
        qFatal("%s could not be written", qPrintable(path));
}

} // namespace

class PackagingTest : public QObject {
    Q_OBJECT
private slots:
    void manPagesAreSound()
    {
        for (const QString& program : programs) {
            const auto page = manual(program, "man");
            QVERIFY2(page.contains(".Sh NAME") && page.size() > 800, qPrintable(program));
            const auto lint = run("mandoc", { "-Tlint", "-Wwarning" }, page);
            QVERIFY2(lint.text.isEmpty(), lint.text.constData());
        }
        // Every command and every option of it.
        const auto page = answerOf("mandoc", { "-Tutf8" }, manual("deepstop-cli", "man"));
        for (const char* words : { "study", "fitting-sheet", "import kit", "--against", "EXIT STATUS" })
            QVERIFY2(QString::fromUtf8(page).remove(QRegularExpression(".\b")).contains(words), words);
    }

    /// Completed as a person would, in each shell.
    void shellsComplete_data()
    {
        QTest::addColumn<QString>("line");
        QTest::addColumn<QString>("wanted");
        QTest::newRow("a command") << "deepstop-cli fitting"
                                   << "fitting-sheet";
        QTest::newRow("a command of a command") << "deepstop-cli import k"
                                                << "kit";
        QTest::newRow("an option") << "deepstop-cli study --aga"
                                   << "--against";
        QTest::newRow("an option of the window") << "deepstop --nig"
                                                 << "--night";
        QTest::newRow("an option of the instruments") << "deepstop-bench --val"
                                                      << "--values";
    }
    void shellsComplete()
    {
        QFETCH(QString, line);
        QFETCH(QString, wanted);
        const QString program = line.section(' ', 0, 0);
        QTemporaryDir dir;
        for (const char* shell : { "bash", "fish", "zsh" })
            write(dir.filePath(shell), manual(program, shell));
        const QStringList words = line.split(' ');
        const QString function = "_" + QString(program).replace('-', '_');
        const auto bash = run("bash",
            { "-c",
                QString("source %1; COMP_WORDS=(%2); COMP_CWORD=%3; %4; printf '%s\\n' \"${COMPREPLY[@]}\"")
                    .arg(dir.filePath("bash"), words.join(' '), QString::number(words.size() - 1), function) });
        QVERIFY2(QString::fromUtf8(bash.text).split('\n').contains(wanted), bash.text.constData());
        const auto fish = run("fish", { "--no-config", "-c", QString("source %1; complete -C '%2'").arg(dir.filePath("fish"), line) });
        QVERIFY2(fish.text.contains(wanted.toUtf8()), fish.text.constData());
        // Zsh reads bash's function; that it parses and defines it is what can be told without a terminal.
        const auto zsh = run("zsh",
            { "-f", "-c",
                QString("autoload -U +X compinit && compinit -u -D; source %1; whence -w %2").arg(dir.filePath("zsh"), function) });
        QVERIFY2(zsh.code == 0 && zsh.text.contains("function"), zsh.text.constData());
    }

    void aVersionSaysWhatItWasBuiltFrom()
    {
        for (const QString& program : programs) {
            QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
            environment.insert("QT_QPA_PLATFORM", "offscreen");
            QProcess process;
            process.setProcessEnvironment(environment);
            process.start(pathOf(program), { "--version" });
            QVERIFY(process.waitForFinished(30000));
            const auto said = process.readAllStandardOutput();
            QVERIFY2(said.contains("0.1.0, built from ") && said.contains(" of 20"), said.constData());
        }
    }

    void theDesktopReadsItsFiles()
    {
        const QString folder = QStringLiteral(DEEPSTOP_SOURCE "/packaging/desktop/");
        const auto desktop = run("desktop-file-validate", { folder + "deepstop.desktop" });
        QVERIFY2(desktop.code == 0 && desktop.text.isEmpty(), desktop.text.constData());
        const auto stream = run("appstreamcli", { "validate", "--no-net", folder + "example.deepstop.DeepStop.metainfo.xml" });
        QVERIFY2(stream.code == 0, stream.text.constData());
        // A build is known by its ending.
        QTemporaryDir dir;
        QVERIFY(QDir(dir.path()).mkpath("mime/packages"));
        QVERIFY(QFile::copy(folder + "deepstop.xml", dir.filePath("mime/packages/deepstop.xml")));
        const auto update = run("update-mime-database", { dir.filePath("mime") });
        QVERIFY2(update.code == 0, update.text.constData());
        QFile globs(dir.filePath("mime/globs2"));
        QVERIFY(globs.open(QIODevice::ReadOnly) && globs.readAll().contains("application/x-deepstop:*.deepstop"));
    }

    /// Installed into a folder of its own, the programs find their data there, and the tree they came from is not needed.
    void anInstalledProgramFindsItsData()
    {
        QTemporaryDir dir;
        const auto install = run("cmake", { "--install", DEEPSTOP_BIN "/..", "--prefix", dir.filePath("usr") });
        QVERIFY2(install.code == 0, install.text.constData());
        for (const char* file : { "bin/deepstop", "share/applications/deepstop.desktop", "share/man/man1/deepstop-cli.1",
                 "share/bash-completion/completions/deepstop-cli", "share/icons/hicolor/16x16/apps/deepstop.png",
                 "share/icons/hicolor/512x512/apps/deepstop.png", "share/icons/hicolor/scalable/apps/deepstop.svg",
                 "share/mime/packages/deepstop.xml", "share/locale/de/LC_MESSAGES/deepstop.mo", "share/deepstop/demo/linnet.deepstop",
                 "share/deepstop/fonts/Lato-Regular.ttf" })
            QVERIFY2(QFile::exists(dir.filePath("usr/") + file), file);
        const auto study = run(dir.filePath("usr/bin/deepstop-cli"), { "check", dir.filePath("usr/share/deepstop/demo/linnet.deepstop") });
        QVERIFY2(study.code == 0, study.text.constData());
        // It speaks the reader's language from where it was installed.
        const auto german = run("env",
            { "LC_ALL=de_DE.UTF-8", "LANGUAGE=de", dir.filePath("usr/bin/deepstop-cli"), "study",
                dir.filePath("usr/share/deepstop/demo/linnet.deepstop") });
        QVERIFY2(german.text.contains("Verteilung") && german.text.contains("schlimmsten Fall"), german.text.left(400).constData());
        // The fonts of its papers are opened where it was installed.
        const auto opened = run("strace",
            { "-f", "-e", "trace=openat,open", dir.filePath("usr/bin/deepstop-cli"), "purchases",
                dir.filePath("usr/share/deepstop/demo/halden-merle.deepstop"), "--pdf", dir.filePath("list.pdf") });
        if (opened.code == 0) {
            QVERIFY(opened.text.contains((dir.filePath("usr/share/deepstop/fonts")).toUtf8()));
            QVERIFY(!opened.text.contains(DEEPSTOP_SOURCE "/data/"));
        }
    }
};

DEEPSTOP_TEST(PackagingTest)
#include "packaging_test.moc"
