#pragma once

#include <QApplication>

#include <functional>

namespace deepstop::app {

/// The program itself: its names, and the boundary that every failure of an action ends at.
class Application : public QApplication {
    Q_OBJECT
public:
    Application(int& argc, char** argv);
    /// Waits for the threads of cancelled work: they look at tables that go when the program ends.
    ~Application() override;

    /// Who tells the person of a failure that nothing nearer has dealt with: what went wrong, on one line.
    void setReport(std::function<void(const QString&)> report) { report_ = std::move(report); }
    /// Ends the event loop on SIGTERM, SIGHUP and SIGINT, after `leave` was called.
    void endOnSignals(std::function<void()> leave);

    bool notify(QObject* receiver, QEvent* event) override;

private:
    std::function<void(const QString&)> report_;
};

/// What an exception says, as a person can act on it.
[[nodiscard]] QString saidBy(const std::exception& error);

} // namespace deepstop::app
