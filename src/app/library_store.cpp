#include "library_store.hpp"

#include "files/data_folder.hpp"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>

namespace deepstop::app {
namespace {

QString shipped() { return QString::fromStdString((files::dataFolder() / "library/parts.json").string()); }

} // namespace

LibraryStore::LibraryStore(QObject* parent)
    : QObject(parent), path_(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/library.json"))
{
}

LibraryStore::~LibraryStore()
{
    // What is read is of no use any more; what was added is put on disk first.
    loading_.cancel();
    writing_.finish();
}

void LibraryStore::load()
{
    if (ready_ || loading_.isRunning())
        return;
    loading_.start(
        [own = path_.toStdString(), ships = shipped().toStdString()](const JobTicket&) {
            auto loaded = std::make_shared<Loaded>();
            for (const auto& [file, into] : { std::pair { ships, &loaded->all }, std::pair { own, &loaded->own } })
                try {
                    *into = files::loadLibrary(file);
                } catch (const std::exception& error) {
                    loaded->readOnly = loaded->readOnly || into == &loaded->own;
                    loaded->refusals << QString::fromUtf8(error.what());
                }
            library::merge(loaded->all, loaded->own);
            return loaded;
        },
        [this](std::shared_ptr<Loaded> loaded) { take(std::move(loaded)); },
        [this](const std::exception& wrong) { emit refused(QString::fromUtf8(wrong.what())); });
}

void LibraryStore::take(std::shared_ptr<Loaded> loaded)
{
    ready_ = true;
    loaded_ = std::move(loaded);
    for (const QString& why : loaded_->refusals)
        emit refused(why);
    emit changed();
}

const library::Library& LibraryStore::parts()
{
    if (!ready_) {
        load();
        loading_.finish();
    }
    return loaded_->all;
}

const library::Index& LibraryStore::index(library::Kind kind, UnitSystem system)
{
    const auto [place, fresh] = indexes_.try_emplace({ kind, system });
    if (fresh)
        place->second = library::Index(parts(), kind, system);
    return place->second;
}

std::shared_ptr<const library::Library> LibraryStore::sharedParts()
{
    const auto& all = parts();
    return { loaded_, &all };
}

bool LibraryStore::add(library::Library more)
{
    (void)parts();
    if (loaded_->readOnly) {
        emit refused(tr("%1 cannot be read, so nothing is written over it. Mend or move it, then start again.").arg(path_));
        return false;
    }
    // Whoever works on the old ones keeps them.
    if (loaded_.use_count() > 1)
        loaded_ = std::make_shared<Loaded>(*loaded_);
    library::merge(loaded_->own, more);
    library::merge(loaded_->all, more);
    indexes_.clear();
    // One after the other, each into what the file holds by then: another program may have added parts of its own.
    writing_.finish();
    writing_.start(
        [more = std::move(more), path = path_](const JobTicket&) {
            constexpr auto patience = std::chrono::seconds(30);
            QDir().mkpath(QFileInfo(path).absolutePath());
            files::addToLibrary(path.toStdString(), more, patience);
            return QString();
        },
        [](const QString&) {}, [this](const std::exception& wrong) { emit refused(QString::fromUtf8(wrong.what())); });
    emit changed();
    return true;
}

} // namespace deepstop::app
