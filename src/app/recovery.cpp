#include "recovery.hpp"

#include "files/disk.hpp"
#include "files/recovery_copy.hpp"

#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>
#include <QUuid>
#include <QtConcurrent/QtConcurrentRun>

#include <unistd.h>

namespace deepstop::app {
namespace {

QString folder() { return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/recovery"); }

/// The reason where it cannot be written.
QString write(const QString& path, const Kept& what)
{
    try {
        files::replaceFile(path.toStdString(),
            files::writeCopy({ { *what.build, what.unknown }, what.path.toStdString(), what.onDisk.toHex().toStdString(),
                what.typing.field.toStdString(), what.typing.text.toStdString() }));
        return {};
    } catch (const std::exception& error) {
        return QString::fromUtf8(error.what());
    }
}

} // namespace

Recovery::Recovery(QObject* parent)
    : QObject(parent), path_(folder() + QStringLiteral("/%1-%2.json").arg(getpid()).arg(QUuid::createUuid().toString(QUuid::Id128).left(8)))
{
    connect(&writing_, &QFutureWatcherBase::finished, this, [this] {
        take(writing_.result());
        if (const auto next = std::exchange(next_, {}))
            keep(std::move(*next));
    });
}

Recovery::~Recovery()
{
    finish();
    if (!leaving_)
        drop();
}

void Recovery::keep(Kept what)
{
    if (writing_.isRunning()) {
        next_ = std::make_unique<Kept>(std::move(what));
        return;
    }
    QDir().mkpath(folder());
    if (!lock_.holds())
        if (auto lock = files::Lock::take(path_.toStdString()))
            lock_ = std::move(*lock);
    // The build is a value nobody changes, so the other thread shares it without a lock.
    writing_.setFuture(QtConcurrent::run([path = path_, what = std::move(what)] { return write(path, what); }));
}

QString Recovery::keepNow(const Kept& what)
{
    finish();
    keep(what);
    writing_.waitForFinished();
    return writing_.result();
}

void Recovery::finish()
{
    writing_.waitForFinished();
    if (const auto last = std::exchange(next_, {})) {
        keep(std::move(*last));
        writing_.waitForFinished();
    }
}

void Recovery::take(const QString& trouble)
{
    const bool failing = !trouble.isEmpty();
    if (failing && !failing_)
        emit failed(trouble);
    if (!failing && failing_)
        emit worksAgain();
    failing_ = failing;
    emit ended(!failing);
}

void Recovery::drop()
{
    next_.reset();
    // A copy still being written must not outlive the need for it.
    writing_.waitForFinished();
    forget(path_);
    lock_.release();
}

void Recovery::forget(const QString& copy)
{
    QFile::remove(copy);
    QFile::remove(copy + QLatin1Char('~'));
    files::removeLeftovers(copy.toStdString());
}

Kept Recovery::read(const QString& copy)
{
    const auto where = copy.toStdString();
    const auto text = files::readFile(where, files::largestCopy);
    try {
        auto read = files::parseCopy(text);
        return { std::make_shared<const Build>(std::move(read.file.build)), std::move(read.file.unknown), QString::fromStdString(read.path),
            QByteArray::fromHex(QByteArray::fromStdString(read.onDisk)),
            { QString::fromStdString(read.typedAt), QString::fromStdString(read.typed) } };
    } catch (const files::Refusal& refusal) {
        throw files::Refusal(where + ": " + refusal.what());
    }
}

QList<LeftBehind> Recovery::leftBehind(QStringList* damaged)
{
    constexpr int mostShown = 50;
    QList<LeftBehind> found;
    const QDir where(folder());
    // What was being written when its program ended never was a copy.
    for (const QFileInfo& leftover : where.entryInfoList({ QStringLiteral("*.saving") }, QDir::Files | QDir::Hidden))
        files::removeLeftovers(leftover.absoluteFilePath().chopped(7).toStdString());
    for (const QFileInfo& file : where.entryInfoList({ QStringLiteral("*.json") }, QDir::Files, QDir::Time)) {
        const auto copy = file.absoluteFilePath();
        // Locked by whoever is at work on it; the lock of a program that is no more counts for nothing.
        const auto lock = files::Lock::take(copy.toStdString());
        if (!lock || found.size() == mostShown)
            continue;
        try {
            const auto kept = read(copy);
            found.push_back({ copy, QString::fromStdString(kept.build->car.name), kept.path, file.lastModified() });
        } catch (const std::exception& error) {
            const auto aside = copy.chopped(5) + QStringLiteral(".damaged");
            if (QFile::rename(copy, aside) && damaged)
                damaged->push_back(aside);
        }
    }
    // A copy's own version before, its copy gone: somebody was killed while he took it away.
    for (const QFileInfo& old : where.entryInfoList({ QStringLiteral("*.json~") }, QDir::Files | QDir::Hidden))
        if (const auto copy = old.absoluteFilePath().chopped(1); !QFileInfo::exists(copy) && files::Lock::take(copy.toStdString()))
            QFile::remove(old.absoluteFilePath());
    // Locks of copies that are gone.
    for (const QFileInfo& lock : where.entryInfoList({ QStringLiteral(".*.lock") }, QDir::Files | QDir::Hidden))
        (void)files::Lock::take(where.filePath(lock.fileName().mid(1).chopped(5)).toStdString());
    return found;
}

} // namespace deepstop::app
