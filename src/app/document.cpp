#include "document.hpp"

#include "files/disk.hpp"

#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>
#include <QUuid>
#include <QtConcurrent/QtConcurrentRun>

#include <nlohmann/json.hpp>

#include <unistd.h>

namespace deepstop::app {

/// One step: the build before and after, both whole.
class BuildEdit : public QUndoCommand {
public:
    BuildEdit(Document& document, std::shared_ptr<const Build> before, std::shared_ptr<const Build> after, const QString& what)
        : QUndoCommand(what), document_(document), before_(std::move(before)), after_(std::move(after))
    {
    }
    void undo() override { document_.put(before_); }
    void redo() override { document_.put(after_); }

private:
    Document& document_;
    std::shared_ptr<const Build> before_;
    std::shared_ptr<const Build> after_;
};

namespace {

QString recoveryFolder()
{
    return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/recovery");
}

QString lockOf(const QString& copy) { return copy + QStringLiteral(".lock"); }

/// A build that can be studied though nobody has opened anything yet.
std::shared_ptr<const Build> emptyBuild()
{
    auto build = std::make_shared<Build>();
    build->setups.push_back({ "as-found", "As found", {}, Corner {}, Corner {}, {}, {} });
    return build;
}

} // namespace

Document::Document(QObject* parent) : QObject(parent), build_(emptyBuild())
{
    recovery_ = recoveryFolder() + QStringLiteral("/%1-%2.json").arg(getpid()).arg(QUuid::createUuid().toString(QUuid::Id128).left(8));
    autosave_.setSingleShot(true);
    autosave_.setInterval(1500);
    connect(&autosave_, &QTimer::timeout, this, &Document::keepForRecovery);
    rest_.setSingleShot(true);
    rest_.setInterval(40);
    connect(&rest_, &QTimer::timeout, this, &Document::settle);
    connect(&undo_, &QUndoStack::cleanChanged, this, &Document::titleChanged);
    show(build_);
}

Document::~Document() { dropRecovery(); }

QString Document::title() const
{
    return path_.isEmpty() ? QString::fromStdString(build().car.name.empty() ? "New build" : build().car.name) : QFileInfo(path_).fileName();
}

void Document::show(std::shared_ptr<const Build> build, Remedies remedies, const Directory* alike)
{
    rest_.stop();
    shown_ = std::make_unique<Study>(deepstop::study(std::move(build), pair_, units_, remedies, alike));
    if (shown_->build == build_)
        directory_ = shown_->directory;
    emit studied();
}

void Document::put(std::shared_ptr<const Build> build)
{
    build_ = std::move(build);
    previewing_ = false;
    show(build_);
    autosave_.start();
}

void Document::adopt(files::BuildFile file, const QString& path)
{
    build_ = std::make_shared<const Build>(std::move(file.build));
    unknown_ = std::move(file.unknown);
    path_ = path;
    pair_ = {};
    recovered_ = false;
    previewing_ = false;
    dropRecovery();
    undo_.clear();
    show(build_);
    emit titleChanged();
}

void Document::startNew()
{
    Build build = *emptyBuild();
    build.setups.push_back({ "kit", tr("New kit").toStdString(), {}, Corner {}, {}, {}, {} });
    adopt({ std::move(build), nullptr }, {});
}

void Document::open(const QString& path) { adopt(files::loadBuild(path.toStdString()), QFileInfo(path).absoluteFilePath()); }

void Document::openDemo(const QString& path) { adopt(files::loadBuild(path.toStdString()), {}); }

void Document::save(const QString& path)
{
    files::saveBuild(path.toStdString(), { *build_, unknown_ });
    path_ = QFileInfo(path).absoluteFilePath();
    recovered_ = false;
    undo_.setClean();
    dropRecovery();
    emit titleChanged();
}

void Document::setUnits(UnitSystem units)
{
    if (units_ == units)
        return;
    units_ = units;
    show(build_);
    emit unitsChanged();
}

void Document::setPair(const SetupPair& pair)
{
    pair_ = pair;
    show(build_);
}

void Document::setReading(const std::string& pointer, const Reading& reading)
{
    const Directory directory(*build_);
    const auto* entry = directory.at(pointer);
    if (!entry || *entry->reading == reading) {
        endPreview();
        return;
    }
    // Emptied, a bore, a weighing or a point of a curve goes altogether.
    if (!reading.value)
        for (const auto& [list, last] : { std::pair { "/pistons_mm/", "" }, std::pair { "/weighings/", "/mass_kg" }, std::pair { "/friction_over_temperature/", "/temperature_degC" }, std::pair { "/barrel/", "/depth_mm" },
                 std::pair { "/spokes/", "/radius_mm" }, std::pair { "/insets/", "/height_mm" }, std::pair { "/bumps/", "/over_edge_mm" }, std::pair { "/keep_outs/", "/depth_mm" } })
            if (pointer.find(list) != std::string::npos && pointer.ends_with(last)) {
                setBuild(withoutElement(*build_, pointer.substr(0, pointer.size() - std::string_view(last).size())), QString::fromStdString(entry->address.full()));
                return;
            }
    setBuild(withReading(*build_, pointer, reading), QString::fromStdString(entry->address.full()));
}

void Document::takeReading(const std::string& pointer, const Reading& reading, bool again)
{
    const auto* entry = shown_->directory->at(pointer);
    if (!entry || !reading.value)
        return;
    Reading taken = reading;
    if (again && entry->reading->value) {
        auto values = entry->reading->repeats.empty() ? std::vector { *entry->reading->value } : entry->reading->repeats;
        values.push_back(*reading.value);
        taken = repeated(std::move(taken), std::move(values));
    }
    setReading(pointer, taken);
}

std::string Document::lastOfList(const std::string& pointer) const
{
    const auto free = pointer.find("/-");
    int last = 0;
    const auto candidate = [&](int index) { return pointer.substr(0, free + 1) + std::to_string(index) + pointer.substr(free + 2); };
    while (shown_->directory->at(candidate(last + 1)))
        ++last;
    return candidate(last);
}

void Document::takenInHand(Reading& reading, const Style& style) const
{
    if (!reading.value || inHand_.isEmpty())
        return;
    if (inHand_ == tr("vendor sheet") || inHand_ == tr("estimate")) {
        reading.known = inHand_ == tr("estimate") ? Known::Estimated : Known::Vendor;
        reading.instrument.clear();
        return;
    }
    const bool scale = inHand_.contains(QLatin1String("scale"));
    if ((scale && style.dimension != Dimension::Mass) || (!scale && style.dimension != Dimension::Length))
        return;
    reading.known = Known::Measured;
    reading.instrument = inHand_.toStdString();
}

void Document::setBuild(Build build, const QString& what)
{
    undo_.push(new BuildEdit(*this, build_, std::make_shared<const Build>(std::move(build)), what));
    emit titleChanged();
}

void Document::preview(const std::string& pointer, const Reading& reading)
{
    previewing_ = true;
    // A reading put into the free place of a list makes the build longer; any other changes nothing but what it says.
    const bool longer = pointer.find("/-") != std::string::npos;
    show(std::make_shared<const Build>(withReading(*build_, pointer, reading)), Remedies::LeftOut, longer ? nullptr : directory_.get());
    rest_.start();
}

void Document::settle()
{
    if (shown_->remedies == Remedies::LeftOut)
        show(shown_->build);
}

void Document::endPreview()
{
    if (previewing_) {
        previewing_ = false;
        show(build_);
    }
}

void Document::keepForRecovery()
{
    if (!isModified())
        return;
    QDir().mkpath(recoveryFolder());
    if (!lock_) {
        lock_ = std::make_unique<QLockFile>(lockOf(recovery_));
        lock_->setStaleLockTime(0);
        lock_->tryLock(0);
    }
    // The value is immutable, so the other thread shares it without a lock.
    keeping_.waitForFinished();
    keeping_ = QtConcurrent::run([build = build_, unknown = unknown_, target = recovery_.toStdString(), path = path_.toStdString()] {
        const nlohmann::json kept { { "path", path }, { "build", files::writeBuild({ *build, unknown }) } };
        try {
            files::replaceFile(target, kept.dump());
        } catch (const files::Refusal&) {
            // A full disk must not disturb the work; saving proper will say so.
        }
    });
}

void Document::dropRecovery()
{
    autosave_.stop();
    // A copy still being written must not outlive the need for it.
    keeping_.waitForFinished();
    forget(recovery_);
    lock_.reset();
}

void Document::forget(const QString& copy)
{
    QFile::remove(copy);
    QFile::remove(copy + QLatin1Char('~'));
}

QStringList Document::recoverable()
{
    QStringList found;
    for (const QFileInfo& file : QDir(recoveryFolder()).entryInfoList({ QStringLiteral("*.json") }, QDir::Files, QDir::Time)) {
        // Locked by whoever is at work on it; the lock of a process that is no more counts for nothing.
        QLockFile lock(lockOf(file.absoluteFilePath()));
        lock.setStaleLockTime(0);
        if (lock.tryLock(0))
            found << file.absoluteFilePath();
    }
    return found;
}

void Document::recover(const QString& copy)
{
    const auto kept = nlohmann::json::parse(files::readFile(copy.toStdString()), nullptr, false);
    if (!kept.is_object() || !kept.contains("build") || !kept["build"].is_string())
        throw files::Refusal(copy.toStdString() + ": the recovery copy is damaged.");
    const auto path = kept.value("path", std::string());
    adopt(files::parseBuild(kept["build"].get<std::string>()), QString::fromStdString(path));
    recovered_ = true;
    keepForRecovery();
    forget(copy);
    emit titleChanged();
}

} // namespace deepstop::app
