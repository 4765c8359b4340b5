#include "recovery.hpp"

#include "files/disk.hpp"
#include "files/recovery_copy.hpp"

#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>
#include <QUuid>

#include <unistd.h>

namespace deepstop::app {
namespace {

QString folder() { return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/recovery"); }

/// A folder of this user alone, as his work may be.
void makeFolder()
{
    QDir().mkpath(folder());
    QFile::setPermissions(folder(), QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
}

/// The reason where it cannot be written.
QString write(const QString& path, const RecoveryCopy& what)
{
    try {
        std::vector<files::RecoveryCopy::Typed> typed;
        for (const Typing& each : what.typing)
            typed.push_back({ each.field.toStdString(), each.text.toStdString() });
        files::replaceFile(path.toStdString(),
            files::writeCopy(
                { { *what.build, what.unknown }, what.path.toStdString(), what.onDisk.toHex().toStdString(), std::move(typed) }),
            files::Privacy::OwnerAlone);
        return {};
    } catch (const std::exception& error) {
        return QString::fromUtf8(error.what());
    }
}

} // namespace

Recovery::Recovery(QObject* parent)
    : QObject(parent),
      path_(folder() + QStringLiteral("/%1-%2.json").arg(getpid()).arg(QUuid::createUuid().toString(QUuid::Id128).left(8))),
      thread_([this] { work(); })
{
}

Recovery::~Recovery()
{
    finish();
    {
        const std::lock_guard lock(mutex_);
        ending_ = true;
    }
    changed_.notify_all();
    thread_.join();
    if (!leaving_)
        drop();
}

void Recovery::work()
{
    std::unique_lock lock(mutex_);
    while (true) {
        changed_.wait(lock, [this] { return ending_ || next_; });
        if (!next_)
            return;
        const auto what = std::move(next_);
        writing_ = true;
        lock.unlock();
        // The build is a value nobody changes, so it is read here without a lock.
        const auto trouble = write(path_, *what);
        lock.lock();
        writing_ = false;
        trouble_ = trouble;
        changed_.notify_all();
        mailbox_.put([this, trouble] { take(trouble); });
    }
}

void Recovery::keep(RecoveryCopy what)
{
    makeFolder();
    if (!lock_.holds())
        if (auto lock = files::Lock::take(path_.toStdString()))
            lock_ = std::move(*lock);
    {
        const std::lock_guard lock(mutex_);
        next_ = std::make_unique<RecoveryCopy>(std::move(what));
    }
    changed_.notify_all();
}

QString Recovery::keepNow(const RecoveryCopy& what)
{
    keep(what);
    finish();
    const std::lock_guard lock(mutex_);
    return trouble_;
}

void Recovery::finish()
{
    std::unique_lock lock(mutex_);
    changed_.wait(lock, [this] { return !next_ && !writing_; });
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
    {
        // A copy still being written must not outlive the need for it.
        std::unique_lock lock(mutex_);
        next_.reset();
        changed_.wait(lock, [this] { return !writing_; });
    }
    forget(path_);
    lock_.release();
}

void Recovery::forget(const QString& copy)
{
    QFile::remove(copy);
    QFile::remove(copy + QLatin1Char('~'));
    files::removeLeftovers(copy.toStdString());
}

RecoveryCopy Recovery::read(const QString& copy)
{
    const auto where = copy.toStdString();
    const auto text = files::readFile(where, files::largestCopy);
    try {
        auto read = files::parseCopy(text);
        return { std::make_shared<const Build>(std::move(read.file.build)), std::move(read.file.unknown), QString::fromStdString(read.path),
            QByteArray::fromHex(QByteArray::fromStdString(read.onDisk)), [&] {
                std::vector<Typing> typing;
                for (const auto& each : read.typed)
                    typing.push_back({ QString::fromStdString(each.at), QString::fromStdString(each.text) });
                return typing;
            }() };
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
