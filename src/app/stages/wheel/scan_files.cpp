#include "stages/wheel/scan_files.hpp"

#include "files/refusal.hpp"

#include <QCoreApplication>
#include <QDate>
#include <QDir>
#include <QFile>
#include <QFileInfo>

namespace deepstop::app {

QString copiedBeside(const QString& file, const QString& build)
{
    const QFileInfo of(build);
    const QDir folder = of.absoluteDir();
    const QString beside = of.completeBaseName() + QStringLiteral("-scans");
    const QFileInfo name(file);
    QString to = folder.filePath(beside + QLatin1Char('/') + name.fileName());
    for (int number = 2; QFile::exists(to) && QFileInfo(to) != name; ++number)
        to = folder.filePath(QStringLiteral("%1/%2-%3.%4").arg(beside, name.completeBaseName(), QString::number(number), name.suffix()));
    if (!folder.mkpath(beside) || (QFileInfo(to) != name && !QFile::copy(file, to)))
        throw files::Refusal(QCoreApplication::translate("ScanFiles", "%1: cannot be written. Free some space, or choose another folder.")
                                 .arg(to)
                                 .toStdString());
    return to;
}

scan::ScanFile scanFile(const QString& file, const std::string& hash, const QString& build)
{
    const QString named = build.isEmpty() ? file : QFileInfo(build).absoluteDir().relativeFilePath(QFileInfo(file).absoluteFilePath());
    return { named.toStdString(), hash, QDate::currentDate().toString(Qt::ISODate).toStdString() };
}

} // namespace deepstop::app
