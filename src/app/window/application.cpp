#include "window/application.hpp"

#include "files/refusal.hpp"
#include "job.hpp"

#include <QSocketNotifier>

#include <csignal>
#include <cstdio>
#include <filesystem>
#include <new>
#include <sys/socket.h>
#include <unistd.h>

namespace deepstop::app {
namespace {

int signalled[2] = { -1, -1 };

/// All that a handler may do: pass the number on.
void passOn(int number)
{
    const auto byte = static_cast<char>(number);
    [[maybe_unused]] const auto written = ::write(signalled[0], &byte, 1);
}

} // namespace

Application::Application(int& argc, char** argv) : QApplication(argc, argv)
{
    setApplicationName(QStringLiteral("deepstop"));
    setApplicationDisplayName(QString());
    setOrganizationName(QStringLiteral("deepstop"));
    setApplicationVersion(QStringLiteral(DEEPSTOP_VERSION));
}

Application::~Application() { joinThreads(); }

void Application::endOnSignals(std::function<void()> leave)
{
    if (::socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, signalled) != 0)
        return;
    auto* bell = new QSocketNotifier(signalled[1], QSocketNotifier::Read, this);
    connect(bell, &QSocketNotifier::activated, this, [leave = std::move(leave)] {
        char number = 0;
        if (::read(signalled[1], &number, 1) != 1)
            return;
        leave();
        constexpr int bySignal = 128; // as a shell says it
        exit(bySignal + number);
    });
    struct sigaction action { };
    action.sa_handler = passOn;
    action.sa_flags = SA_RESTART;
    for (const int number : { SIGTERM, SIGHUP, SIGINT })
        ::sigaction(number, &action, nullptr);
}

bool Application::notify(QObject* receiver, QEvent* event)
{
    try {
        return QApplication::notify(receiver, event);
    } catch (const std::exception& error) {
        const auto said = saidBy(error);
        std::fprintf(stderr, "deepstop: %s\n", said.toUtf8().constData());
        if (report_)
            report_(said);
    }
    return true;
}

QString saidBy(const std::exception& error)
{
    if (dynamic_cast<const std::bad_alloc*>(&error))
        return QObject::tr("There is too little memory for that. Close something else and try again; nothing was changed.");
    if (const auto* disk = dynamic_cast<const std::filesystem::filesystem_error*>(&error))
        return QString::fromStdString(onOneLine(disk->path1().string() + ": " + disk->code().message() + ". Nothing was changed."));
    if (dynamic_cast<const files::Refusal*>(&error))
        return QString::fromUtf8(error.what());
    return QObject::tr("That went wrong (%1). Nothing was changed; please save under another name to be safe.")
        .arg(QString::fromStdString(onOneLine(error.what())));
}

} // namespace deepstop::app
