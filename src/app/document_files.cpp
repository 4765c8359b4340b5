#include "document.hpp"

#include "fingerprint.hpp"
#include "files/disk.hpp"
#include "files/together.hpp"

#include <QFileInfo>

namespace deepstop::app {

void Document::save(const QString& path, Over over)
{
    const auto target = QFileInfo(path).absoluteFilePath();
    // Its lock is this program's already, or is taken now; another's has to be waited for by saving elsewhere.
    files::Lock fresh;
    if (target != path_ || !lock_.holds()) {
        files::Holder other;
        auto lock = files::Lock::take(target.toStdString(), {}, &other);
        if (!lock)
            throw files::Refusal(tr("%1: is open in %2. Save under another name, or close it there first.")
                                     .arg(path, QString::fromStdString(other.inWords()))
                                     .toStdString());
        fresh = std::move(*lock);
    }
    if (target == path_ && over == Over::Nothing && QFileInfo::exists(target) && fingerprint(target) != onDisk_)
        throw ChangedOnDisk(tr("%1: was changed by another program since it was opened here.").arg(path).toStdString());
    files::saveBuild(path.toStdString(), { *contents_.build, contents_.unknown });
    if (target != path_ && !watcher_.files().isEmpty())
        watcher_.removePaths(watcher_.files());
    path_ = target;
    if (fresh.holds())
        lock_ = std::move(fresh);
    heldBy_.clear();
    onDisk_ = fingerprint(target);
    base_ = contents_.build;
    saved_ = contents_;
    modified_.reset();
    watcher_.addPath(target);
    // What stands typed and is not in the build is not in the file either.
    if (drafts_.all().empty()) {
        autosave_.stop();
        recovery_.drop();
    } else {
        keepForRecovery();
    }
    emit titleChanged();
}

std::vector<Difference> Document::differencesOnDisk() const
{
    return differences(*contents_.build, files::loadBuild(path_.toStdString()).build, units_);
}

void Document::takeFromDisk()
{
    const auto before = fingerprint(path_);
    auto file = files::loadBuild(path_.toStdString());
    drafts_.clear();
    preview_.reset();
    const Contents now { std::make_shared<const Build>(std::move(file.build)), std::move(file.unknown) };
    saved_ = now;
    base_ = now.build;
    onDisk_ = before;
    push(now, tr("as it is in the file"));
}

std::optional<Build> Document::togetherWithDisk() const
{
    return base_ ? files::together(*base_, *contents_.build, files::loadBuild(path_.toStdString()).build) : std::nullopt;
}

void Document::takeTogether()
{
    const auto before = fingerprint(path_);
    auto theirs = files::loadBuild(path_.toStdString());
    auto both = files::together(*base_, *contents_.build, theirs.build);
    if (!both)
        throw ChangedOnDisk(tr("%1: was changed once more.").arg(path_).toStdString());
    saved_ = { std::make_shared<const Build>(std::move(theirs.build)), std::move(theirs.unknown) };
    base_ = saved_.build;
    onDisk_ = before;
    push({ std::make_shared<const Build>(std::move(*both)), saved_.unknown }, tr("put together with the file"));
}

void Document::keepMine()
{
    onDisk_ = fingerprint(path_);
    saved_ = {};
    try {
        auto file = files::loadBuild(path_.toStdString());
        saved_ = { std::make_shared<const Build>(std::move(file.build)), std::move(file.unknown) };
    } catch (const files::Refusal&) {
        // What is in it now is no build: this one differs from it.
    }
    modified_.reset();
    emit titleChanged();
}

} // namespace deepstop::app
