#include "window/application.hpp"
#include "window/main_window.hpp"
#include "theme.hpp"
#include "widgets/notice_bar.hpp"
#include "widgets/work_rail.hpp"

#include <QApplication>
#include <QCommandLineParser>
#include <QScreen>
#include <QStyle>
#include <QStyleFactory>
#include <QTimer>

#include <cstdio>

int main(int argc, char** argv)
{
    deepstop::app::Application application(argc, argv);
    QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));

    QCommandLineParser options;
    options.setApplicationDescription(QStringLiteral("Does the brake kit fit, is it centred, is it better?"));
    options.addHelpOption();
    options.addVersionOption();
    options.addPositionalArgument(QStringLiteral("FILE"), QStringLiteral("build file to open; without one, the demo"));
    const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("open a working copy of the demo build"));
    const QCommandLineOption night(QStringLiteral("night"), QStringLiteral("night colours"));
    const QCommandLineOption us(QStringLiteral("us"), QStringLiteral("US units"));
    const QCommandLineOption stage(QStringLiteral("stage"), QStringLiteral("begin at a stage: %1").arg([] {
        QStringList names;
        for (const auto& each : deepstop::app::stages())
            names << QString::fromStdString(std::string(each.id));
        return names.join(QStringLiteral(", "));
    }()),
        QStringLiteral("name"));
    const QCommandLineOption setup(QStringLiteral("setup"), QStringLiteral("judge the setup with this id"), QStringLiteral("id"));
    const QCommandLineOption size(QStringLiteral("size"), QStringLiteral("size of the window, as 1280x800"), QStringLiteral("WxH"));
    const QCommandLineOption bench(QStringLiteral("sheet"), QStringLiteral("which sheet of the stage, from 1"), QStringLiteral("number"));
    const QCommandLineOption once(
        QStringLiteral("quit-when-shown"), QStringLiteral("leave as soon as the window has been painted, for timing"));
    options.addOptions({ demo, night, us, stage, setup, size, bench, once });
    options.process(application);

    using namespace deepstop::app;
    const auto refuse = [](const QString& why) {
        std::fprintf(stderr, "deepstop: %s\n", deepstop::onOneLine(why.toStdString()).c_str());
        return 2;
    };
    const Stage* begin = findStage(options.value(stage).toStdString());
    if (options.positionalArguments().size() > 1)
        return refuse(QStringLiteral("%1: one build at a time; start it again for the second.").arg(options.positionalArguments().at(1)));
    if (options.isSet(stage) && !begin)
        return refuse(QStringLiteral("--stage %1: there is no such stage; --help names them.").arg(options.value(stage)));
    const auto parts = options.value(size).split(QLatin1Char('x'));
    if (options.isSet(size)
        && (parts.size() != 2 || parts[0].toInt() < 200 || parts[1].toInt() < 200 || parts[0].toInt() > 20000 || parts[1].toInt() > 20000))
        return refuse(QStringLiteral("--size %1: width and height in points are wanted, as 1280x800.").arg(options.value(size)));
    if (options.isSet(bench) && options.value(bench).toInt() < 1)
        return refuse(QStringLiteral("--sheet %1: a number from 1 is wanted.").arg(options.value(bench)));
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
    if (files.isEmpty() || options.isSet(demo))
        window.openDemo(MainWindow::demoFolder() + QStringLiteral("/halden-merle.deepstop"));
    if (const auto id = options.value(setup).toStdString(); options.isSet(setup) && !findSetup(window.document().build(), id))
        return refuse(QStringLiteral("--setup %1: the build has no such setup.").arg(options.value(setup)));
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
    if (!options.isSet(once))
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
