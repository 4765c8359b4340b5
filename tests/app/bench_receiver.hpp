#pragma once
/// The receiver that ships with the program, on a port of its own.

#include <QProcess>
#include <QString>
#include <QStringList>

/// A receiver of deepstop-bench on a port of its own.
struct BenchReceiver {
    QProcess process;
    QString address;
    explicit BenchReceiver(const QStringList& options)
    {
        process.start(DEEPSTOP_BENCH, QStringList { "receiver", "--tcp", "0" } + options);
        if (process.waitForStarted() && process.waitForReadyRead())
            address = QString::fromUtf8(process.readLine()).trimmed();
    }
    ~BenchReceiver()
    {
        process.kill();
        process.waitForFinished();
    }
};
