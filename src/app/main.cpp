#include "main_window.hpp"
#include "theme.hpp"
#include "widgets/work_rail.hpp"

#include <QApplication>
#include <QCommandLineParser>
#include <QStyleFactory>
#include <QTimer>

#include <cstdio>

int main(int argc, char** argv)
{
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("deepstop"));
    QApplication::setApplicationDisplayName(QString());
    QApplication::setOrganizationName(QStringLiteral("deepstop"));
    QApplication::setApplicationVersion(QStringLiteral(DEEPSTOP_VERSION));
    QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));

    QCommandLineParser options;
    options.setApplicationDescription(QStringLiteral("Does the brake kit fit, is it centred, is it better?"));
    options.addHelpOption();
    options.addVersionOption();
    options.addPositionalArgument(QStringLiteral("FILE"), QStringLiteral("build file to open; without one, the demo"));
    const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("open a working copy of the demo build"));
    const QCommandLineOption night(QStringLiteral("night"), QStringLiteral("night colours"));
    const QCommandLineOption us(QStringLiteral("us"), QStringLiteral("US units"));
    const QCommandLineOption stage(QStringLiteral("stage"), QStringLiteral("begin at a stage: car, parts-bench, wheel-room, centring, heat or stop"), QStringLiteral("name"));
    const QCommandLineOption setup(QStringLiteral("setup"), QStringLiteral("judge the setup with this id"), QStringLiteral("id"));
    const QCommandLineOption size(QStringLiteral("size"), QStringLiteral("size of the window, as 1280x800"), QStringLiteral("WxH"));
    const QCommandLineOption bench(QStringLiteral("sheet"), QStringLiteral("which sheet of the stage, from 1"), QStringLiteral("number"));
    const QCommandLineOption once(QStringLiteral("quit-when-shown"), QStringLiteral("leave as soon as the window has been painted, for timing"));
    options.addOptions({ demo, night, us, stage, setup, size, bench, once });
    options.process(application);

    using namespace deepstop::app;
    loadFonts();
    setDark(options.isSet(night));
    MainWindow window;
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
    if (options.isSet(setup))
        window.document().setPair({ {}, options.value(setup).toStdString() });
    if (const auto parts = options.value(size).split(QLatin1Char('x')); parts.size() == 2)
        window.resize(parts[0].toInt(), parts[1].toInt());
    for (const deepstop::Stage each : workingOrder())
        if (QString::fromUtf8(nameOf(each).data()).toLower().replace(QLatin1Char(' '), QLatin1Char('-')) == options.value(stage))
            window.setStage(each);
    if (options.isSet(bench))
        window.page(window.stage())->setPlace(std::clamp(options.value(bench).toInt() - 1, 0, std::max(0, window.page(window.stage())->placeCount() - 1)));
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
