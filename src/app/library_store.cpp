#include "library_store.hpp"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>

namespace deepstop::app {
namespace {

QString shipped()
{
    for (const QString& folder : { QStringLiteral(DEEPSTOP_DATA "/library"), QCoreApplication::applicationDirPath() + QStringLiteral("/../share/deepstop/library") })
        if (QFileInfo::exists(folder + QStringLiteral("/parts.json")))
            return folder + QStringLiteral("/parts.json");
    return {};
}

} // namespace

LibraryStore::LibraryStore(QObject* parent) : QObject(parent), path_(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/library.json")) { }

const library::Library& LibraryStore::parts()
{
    if (loaded_)
        return all_;
    loaded_ = true;
    for (const auto& [file, into] : { std::pair { shipped(), &all_ }, std::pair { path_, &own_ } })
        try {
            *into = files::loadLibrary(file.toStdString());
        } catch (const files::Refusal& refusal) {
            readOnly_ = readOnly_ || into == &own_;
            emit refused(QString::fromUtf8(refusal.what()));
        }
    library::merge(all_, own_);
    return all_;
}

bool LibraryStore::add(library::Library more)
{
    (void)parts();
    if (readOnly_) {
        emit refused(tr("%1 cannot be read, so nothing is written over it. Mend or move it, then start again.").arg(path_));
        return false;
    }
    auto own = own_;
    library::merge(own, more);
    try {
        QDir().mkpath(QFileInfo(path_).absolutePath());
        files::saveLibrary(path_.toStdString(), own);
    } catch (const files::Refusal& refusal) {
        emit refused(QString::fromUtf8(refusal.what()));
        return false;
    }
    own_ = std::move(own);
    library::merge(all_, std::move(more));
    emit changed();
    return true;
}

} // namespace deepstop::app
