#include "catalogue.hpp"
#include "cli/manual.hpp"
#include "outline_style.hpp"
#include "version.hpp"
#include "window/application.hpp"
#include "window/main_window.hpp"
#include "theme.hpp"
#include "widgets/notice_bar.hpp"
#include "widgets/work_rail.hpp"

#include <QApplication>
#include <QCommandLineParser>
#include <QScreen>
#include <QStyle>
#include <QTimer>

#include <cstdio>
#include <string_view>

namespace {

QString stageNames()
{
    QStringList names;
    for (const auto& each : deepstop::app::stages())
        names << QString::fromStdString(std::string(each.id));
    return names.join(QStringLiteral(", "));
}

/// What it can be started with.
struct Options {
    QCommandLineOption demo { QStringLiteral("demo"), QCoreApplication::translate("Options", "open a working copy of the demo build") };
    QCommandLineOption night { QStringLiteral("night"), QCoreApplication::translate("Options", "night colours") };
    QCommandLineOption us { QStringLiteral("us"), QCoreApplication::translate("Options", "US units") };
    QCommandLineOption stage { QStringLiteral("stage"), QCoreApplication::translate("Options", "begin at a stage: %1").arg(stageNames()),
        QStringLiteral("name") };
    QCommandLineOption setup { QStringLiteral("setup"), QCoreApplication::translate("Options", "judge the setup with this id"),
        QStringLiteral("id") };
    QCommandLineOption size { QStringLiteral("size"), QCoreApplication::translate("Options", "size of the window, as 1280x800"),
        QStringLiteral("WxH") };
    QCommandLineOption bench { QStringLiteral("sheet"), QCoreApplication::translate("Options", "which sheet of the stage, from 1"),
        QStringLiteral("number") };
    QCommandLineOption once { QStringLiteral("quit-when-shown"),
        QCoreApplication::translate("Options", "leave as soon as the window has been painted, for timing") };

    [[nodiscard]] QList<QCommandLineOption> all() const { return { demo, night, us, stage, setup, size, bench, once }; }
};

deepstop::manual::Program program(const Options& options)
{
    using namespace deepstop::manual;
    Command command { "deepstop", "Does the brake kit fit, is it centred, is it better?", {}, {} };
    command.options.push_back({ {}, "FILE", "build file to open; without one, the start page" });
    command.options.push_back({ { "-h", "--help" }, {}, "says what it can be started with" });
    command.options.push_back({ { "-v", "--version" }, {}, "says which version it is, and what it was built from" });
    for (const QCommandLineOption& each : options.all()) {
        Option option { {}, each.valueName().toStdString(), each.description().toStdString() };
        for (const QString& name : each.names())
            option.names.push_back("--" + name.toStdString());
        command.options.push_back(std::move(option));
    }
    return { std::move(command), versionNumber, written(versionDate), "plans, judges and proves a big brake kit",
        { "Checks the dimensions of rotor and caliper against a wheel, centres calipers with shims, and compares weight, heat and stopping "
          "distance before and after. The dimensions on the drawings are the input fields.",
            "What it works out is also there on the command line, as deepstop-cli." },
        { { "0", "It was closed." }, { "2", "Bad input; one line on standard error says where." } },
        { { "*.deepstop", "Build files: one car with its kits. The version before lies beside each as *.deepstop~." },
            { "~/.local/share/deepstop", "The parts library and copies of unsaved work." }, { "~/.config/deepstop", "Settings." } },
        { "deepstop-cli", "deepstop-bench" } };
}

} // namespace

int main(int argc, char** argv)
{
    if (argc == 3 && std::string_view(argv[1]) == "--manual") {
        std::fputs(deepstop::manual::manualOf(program({}), argv[2]).c_str(), stdout);
        return 0;
    }
    deepstop::app::Application application(argc, argv);
    QApplication::setApplicationVersion(QString::fromUtf8(versionText));
    deepstop::app::speakTheReadersLanguage();
    const Options wanted;
    QApplication::setStyle(new deepstop::app::OutlineStyle);

    QCommandLineParser options;
    options.setApplicationDescription(QCoreApplication::translate("Options", "Does the brake kit fit, is it centred, is it better?"));
    options.addHelpOption();
    options.addVersionOption();
    options.addPositionalArgument(
        QStringLiteral("FILE"), QCoreApplication::translate("Options", "build file to open; without one, the start page"));
    const auto& [demo, night, us, stage, setup, size, bench, once] = wanted;
    options.addOptions(wanted.all());
    options.process(application);

    using namespace deepstop::app;
    const auto refuse = [](const QString& why) {
        std::fprintf(stderr, "deepstop: %s\n", deepstop::onOneLine(why.toStdString()).c_str());
        return 2;
    };
    const Stage* begin = findStage(options.value(stage).toStdString());
    if (options.positionalArguments().size() > 1)
        return refuse(QCoreApplication::translate("Options", "%1: one build at a time; start it again for the second.")
                          .arg(options.positionalArguments().at(1)));
    if (options.isSet(stage) && !begin)
        return refuse(
            QCoreApplication::translate("Options", "--stage %1: there is no such stage; --help names them.").arg(options.value(stage)));
    const auto parts = options.value(size).split(QLatin1Char('x'));
    if (options.isSet(size)
        && (parts.size() != 2 || parts[0].toInt() < 200 || parts[1].toInt() < 200 || parts[0].toInt() > 20000 || parts[1].toInt() > 20000))
        return refuse(QCoreApplication::translate("Options", "--size %1: width and height in points are wanted, as 1280x800.")
                          .arg(options.value(size)));
    if (options.isSet(bench) && options.value(bench).toInt() < 1)
        return refuse(QCoreApplication::translate("Options", "--sheet %1: a number from 1 is wanted.").arg(options.value(bench)));
    loadFonts();
    setDark(options.isSet(night));
    MainWindow window;
    application.setReport([&window](const QString& what) { window.notice()->say(what, true); });
    application.endOnSignals([&window] { window.document().leave(); });
    // The desktop's session ends: nobody is asked, the copy is kept.
    QObject::connect(&application, &QGuiApplication::commitDataRequest, &window, [&window] { window.document().leave(); });
    if (options.isSet(night))
        window.setNight(true);
    if (options.isSet(us))
        window.document().setUnits(deepstop::UnitSystem::Us);
    const auto files = options.positionalArguments();
    // A file that is refused leaves an empty build and the reason; only without a file, or on request, comes the demo.
    if (!files.isEmpty())
        window.openFile(files.front());
    const bool inside = options.isSet(stage) || options.isSet(setup) || options.isSet(bench);
    const bool start = files.isEmpty() && !options.isSet(demo) && !inside;
    if (start)
        window.showStart();
    else if (files.isEmpty() || options.isSet(demo))
        window.openDemo(MainWindow::demoFolder() + QStringLiteral("/halden-merle.deepstop"));
    if (const auto id = options.value(setup).toStdString(); options.isSet(setup) && !findSetup(window.document().build(), id))
        return refuse(QCoreApplication::translate("Options", "--setup %1: the build has no such setup.").arg(options.value(setup)));
    if (options.isSet(setup))
        window.document().setPair({ {}, options.value(setup).toStdString() });
    // The first window opens inside the screen that is there, its title bar included.
    if (!options.isSet(size))
        window.resize(window.size().boundedTo(
            window.screen()->availableSize() - QSize(0, window.style()->pixelMetric(QStyle::PM_TitleBarHeight) + 8)));
    else
        window.resize(parts[0].toInt(), parts[1].toInt());
    if (options.isSet(stage))
        window.setStage(begin->id);
    if (options.isSet(bench))
        window.page()->setPlace(std::clamp(options.value(bench).toInt() - 1, 0, std::max(0, window.page()->placeCount() - 1)));
    if (!options.isSet(once) && !start)
        window.offerRecovery();
    window.show();
    if (options.isSet(once))
        QTimer::singleShot(0, &window, [&window] {
            window.repaint();
            std::puts("shown");
            QApplication::exit(0);
        });
    return QApplication::exec();
}
