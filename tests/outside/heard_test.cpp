/// The window as it is heard: Debian's own client of the accessibility bus reads a real window on a real bus.

#include "core/support.hpp"
#include "chapters/clearance/checks.hpp"
#include "study/study.hpp"

#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

using namespace deepstop;

namespace {

using Tree = std::vector<QJsonObject>;

/// The window's tree as it starts and after each thing done: role, name, action.
std::vector<Tree> heard(const QString& stage, const QList<QStringList>& tasks)
{
    const QTemporaryDir folder;
    const QString build = folder.filePath(QStringLiteral("merle.deepstop"));
    if (!QFile::copy(QStringLiteral(DEEPSTOP_DATA "/demo/halden-merle.deepstop"), build))
        qFatal("the demo could not be copied");
    QFile(build).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    auto environment = QProcessEnvironment::systemEnvironment();
    for (const char* name : { "HOME", "XDG_RUNTIME_DIR", "XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_CACHE_HOME", "XDG_DATA_HOME" })
        environment.insert(QString::fromLatin1(name), folder.path());
    environment.insert(QStringLiteral("QT_QPA_PLATFORM"), QStringLiteral("xcb"));
    // Python as Debian has it: the bindings are in no other.
    QStringList arguments { "--", "xvfb-run", "-a", "-s", "-screen 0 1280x800x24", "/usr/bin/python3", "-W", "ignore",
        DEEPSTOP_TESTS "/outside/heard.py" };
    for (const QStringList& task : tasks)
        arguments += QStringList { QStringLiteral("--do") } + task;
    QProcess process;
    process.setProcessEnvironment(environment);
    process.start(QStringLiteral("dbus-run-session"), arguments + QStringList { DEEPSTOP_BIN "/deepstop", "--stage", stage, build });
    process.waitForFinished(200'000);
    // The bus's own programs print to the same channel.
    const auto answer = QJsonDocument::fromJson(process.readAllStandardOutput().trimmed().split('\n').last()).array();
    if (answer.isEmpty())
        qWarning("%s", process.readAllStandardError().constData());
    std::vector<Tree> trees;
    for (const auto& tree : answer) {
        trees.emplace_back();
        for (const auto& each : tree.toArray())
            trees.back().push_back(each.toObject());
    }
    return trees;
}

const QJsonObject* shown(const Tree& tree, const QString& begin)
{
    const auto found =
        std::ranges::find_if(tree, [&](const QJsonObject& o) { return o["name"].toString().startsWith(begin) && o["showing"].toBool(); });
    return found == tree.end() ? nullptr : &*found;
}

/// What can be come to by keys and says nothing of itself.
QStringList silent(const Tree& tree)
{
    QStringList all;
    for (const QJsonObject& each : tree)
        if (each["focusable"].toBool() && each["showing"].toBool() && each["name"].toString().isEmpty() && each["text"].toString().isEmpty()
            && each["role"] != QStringLiteral("list") && each["role"] != QStringLiteral("list item"))
            all << each["role"].toString() + QLatin1Char(' ') + each["description"].toString();
    return all;
}

} // namespace

class HeardTest : public QObject {
    Q_OBJECT
private slots:
    /// A verdict on the drawing: its title, level and reason, and what would mend it, in the study's words. Then every page by the rail:
    /// whatever keys come to says what it is.
    void verdictsAndPagesAreHeard()
    {
        const QStringList pages { "Car", "Parts bench", "Centring", "Balance", "Heat", "Stop", "Job card", "Logbook" };
        QList<QStringList> tasks;
        for (const QString& page : pages)
            tasks << QStringList { "radio button", page + ", .*", "Toggle" };
        const auto trees = heard(QStringLiteral("wheel-clearance"), tasks);
        QCOMPARE(trees.size(), static_cast<std::size_t>(pages.size()) + 1);
        const Tree& clearance = trees[0];
        const auto s = study(demo());
        const Verdict* gap = s.verdict(checks::barrelGap, { Axle::Front });
        QVERIFY(gap && !gap->remedies.empty() && gap->level == Level::Tight);
        const QJsonObject* callout = shown(clearance, QString::fromStdString(gap->title) + QStringLiteral(": "));
        QVERIFY(callout);
        QCOMPARE((*callout)["role"].toString(), QStringLiteral("push button"));
        QVERIFY((*callout)["name"].toString().endsWith(QStringLiteral(", tight")));
        const auto description = (*callout)["description"].toString();
        QVERIFY2(description.startsWith(QString::fromStdString(gap->reason)), qPrintable(description));
        QVERIFY2(description.contains(QString::fromStdString(gap->remedies.front().title)), qPrintable(description));
        const QJsonObject* weight = shown(clearance, QStringLiteral("Corner weight: "));
        QVERIFY(weight && (*weight)["name"].toString().contains(QStringLiteral(" → ")));
        const QJsonObject* list = shown(clearance, QStringLiteral("Checks of this stage"));
        QVERIFY(list && (*list)["text"].toString().contains(QString::fromStdString(gap->title)));
        // A fact's caption is heard as the label of its box.
        int labelled = 0;
        for (const Tree& tree : trees)
            for (const QJsonObject& each : tree) {
                if (!each["showing"].toBool() || each["labels"].toArray().isEmpty())
                    continue;
                ++labelled;
                QVERIFY2(!each["labels"].toArray().first().toString().isEmpty(), qPrintable(each["name"].toString()));
            }
        QVERIFY2(labelled >= 10, qPrintable(QString::number(labelled)));
        for (std::size_t i = 0; i < trees.size(); ++i) {
            QVERIFY(trees[i].size() > 100);
            QVERIFY2(silent(trees[i]).isEmpty(),
                qPrintable((i == 0 ? QStringLiteral("Clearance") : pages[static_cast<int>(i) - 1]) + QStringLiteral(": ")
                    + silent(trees[i]).join(QStringLiteral(", "))));
        }
    }

    /// A step of the card is a list item that says its state, and is ticked by what reads it.
    void aStepIsTickedWithoutEyesOrMouse()
    {
        const auto trees = heard(QStringLiteral("job-card"), { { "list item", ".*, open", "Fine" } });
        QCOMPARE(trees.size(), 2u);
        const auto step = std::ranges::find_if(trees[0], [](const QJsonObject& o) {
            return o["role"] == QStringLiteral("list item") && o["name"].toString().endsWith(QStringLiteral(", open"))
                && o["showing"].toBool();
        });
        QVERIFY(step != trees[0].end() && !(*step)["checked"].toBool() && !(*step)["description"].toString().isEmpty());
        const QJsonObject* done = shown(trees[1], (*step)["name"].toString().chopped(6));
        QVERIFY(done && (*done)["checked"].toBool());
        QVERIFY((*done)["name"].toString().endsWith(QStringLiteral(", done")));
    }
};

DEEPSTOP_TEST(HeardTest)
#include "heard_test.moc"
