#include "document.hpp"

#include "files/together.hpp"
#include "files/disk.hpp"

#include <QCryptographicHash>
#include <QFileInfo>

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

/// What a file holds, in few bytes; empty where it cannot be read.
QByteArray fingerprint(const QString& path)
{
    QFile file(path);
    QCryptographicHash hash(QCryptographicHash::Sha256);
    return file.open(QIODevice::ReadOnly) && hash.addData(&file) ? hash.result() : QByteArray();
}

/// A build that can be studied though nobody has opened anything yet.
std::shared_ptr<const Build> emptyBuild()
{
    auto build = std::make_shared<Build>();
    Setup found;
    found.id = "as-found";
    found.name = "As found";
    found.front.emplace();
    found.rear.emplace();
    found.hydraulics.emplace();
    build->setups.push_back(std::move(found));
    return build;
}

} // namespace

Document::Document(QObject* parent) : QObject(parent), build_(emptyBuild())
{
    autosave_.setSingleShot(true);
    autosave_.setInterval(2000);
    connect(&autosave_, &QTimer::timeout, this, &Document::keepForRecovery);
    // What was drawn already is painted first.
    arrived_.setSingleShot(true);
    arrived_.setInterval(0);
    connect(&job_, &StudyJob::ready, &arrived_, qOverload<>(&QTimer::start), Qt::QueuedConnection);
    connect(&arrived_, &QTimer::timeout, this, &Document::takeStudy);
    look_.setSingleShot(true);
    look_.setInterval(200);
    connect(&watcher_, &QFileSystemWatcher::fileChanged, this, [this] { look_.start(); });
    connect(&look_, &QTimer::timeout, this, [this] {
        // Replaced by another file of that name, it has to be watched anew.
        if (QFileInfo::exists(path_) && !watcher_.files().contains(path_))
            watcher_.addPath(path_);
        if (const auto now = fingerprint(path_); !now.isEmpty() && now != onDisk_)
            emit changedOnDisk();
    });
    connect(&recovery_, &Recovery::ended, this, [this](bool well) {
        if (!well)
            touch();
    });
    connect(&undo_, &QUndoStack::cleanChanged, this, &Document::titleChanged);
    shown_ = std::make_unique<Study>(deepstop::study(build_, pair_, units_));
}

Document::~Document() = default;

QString Document::title() const
{
    return path_.isEmpty() ? QString::fromStdString(build().car.name.empty() ? "New build" : build().car.name)
                           : QFileInfo(path_).fileName();
}

void Document::show(std::shared_ptr<const Build> build, Remedies remedies, std::shared_ptr<const Directory> alike)
{
    // Addresses of the build before must never be taken for those of a new one, whatever goes wrong from here.
    if (build == build_ && !alike)
        directory_ = nullptr;
    const StudyOf of { pair_, units_, remedies, std::move(alike) };
    job_.ask(build, of);
    // Whatever goes wrong in it, what was shown before stays.
    // What is known to take longer is not waited for at all.
    if (job_.usual() <= patience_)
        job_.wait(patience_);
    auto fresh = patience_.count() >= 0 ? job_.take() : nullptr;
    if (!fresh)
        fresh = std::make_unique<Study>(drawn(std::move(build), of, *shown_));
    shown_ = std::move(fresh);
    if (shown_->build == build_)
        directory_ = shown_->directory;
    emit studied();
}

void Document::takeStudy()
{
    if (auto fresh = job_.take()) {
        shown_ = std::move(fresh);
        emit studied();
    }
}

void Document::put(std::shared_ptr<const Build> build)
{
    const auto before = std::exchange(build_, std::move(build));
    previewing_ = false;
    try {
        show(build_);
    } catch (...) {
        build_ = before;
        throw;
    }
    touch();
}

void Document::touch()
{
    // Never put off: however steadily somebody works, the copy is made.
    if (!autosave_.isActive())
        autosave_.start();
}

void Document::adopt(files::BuildFile file, const QString& path)
{
    build_ = std::make_shared<const Build>(std::move(file.build));
    unknown_ = std::move(file.unknown);
    path_ = path;
    base_ = path.isEmpty() ? nullptr : build_;
    pair_ = {};
    recovered_ = false;
    previewing_ = false;
    autosave_.stop();
    recovery_.drop();
    undo_.clear();
    lockFile();
    show(build_);
    emit titleChanged();
}

void Document::lockFile()
{
    lock_.release();
    heldBy_.clear();
    if (!watcher_.files().isEmpty())
        watcher_.removePaths(watcher_.files());
    onDisk_ = path_.isEmpty() ? QByteArray() : fingerprint(path_);
    if (path_.isEmpty())
        return;
    files::Holder other;
    if (auto lock = files::Lock::take(path_.toStdString(), {}, &other))
        lock_ = std::move(*lock);
    else
        heldBy_ = QString::fromStdString(other.inWords());
    watcher_.addPath(path_);
}

QString Document::heldBy() const { return heldBy_; }

void Document::startNew()
{
    Build build = *emptyBuild();
    Setup kit;
    kit.id = "kit";
    kit.name = tr("New kit").toStdString();
    kit.front.emplace();
    build.setups.push_back(std::move(kit));
    adopt({ std::move(build), nullptr }, {});
}

void Document::open(const QString& path)
{
    files::removeLeftovers(path.toStdString());
    // Taken before it is read: what somebody writes in between is noticed at saving.
    const auto before = fingerprint(path);
    adopt(files::loadBuild(path.toStdString()), QFileInfo(path).absoluteFilePath());
    onDisk_ = before;
}

void Document::openDemo(const QString& path) { adopt(files::loadBuild(path.toStdString()), {}); }

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
    files::saveBuild(path.toStdString(), { *build_, unknown_ });
    if (target != path_ && !watcher_.files().isEmpty())
        watcher_.removePaths(watcher_.files());
    path_ = target;
    if (fresh.holds())
        lock_ = std::move(fresh);
    heldBy_.clear();
    onDisk_ = fingerprint(target);
    base_ = build_;
    watcher_.addPath(target);
    recovered_ = false;
    undo_.setClean();
    autosave_.stop();
    recovery_.drop();
    emit titleChanged();
}

std::vector<Difference> Document::differencesOnDisk() const
{
    return differences(*build_, files::loadBuild(path_.toStdString()).build, units_);
}

void Document::takeFromDisk()
{
    const auto before = fingerprint(path_);
    auto file = files::loadBuild(path_.toStdString());
    base_ = std::make_shared<const Build>(file.build);
    setBuild(std::move(file.build), tr("as it is in the file"));
    unknown_ = std::move(file.unknown);
    onDisk_ = before;
}

std::optional<Build> Document::togetherWithDisk() const
{
    return base_ ? files::together(*base_, *build_, files::loadBuild(path_.toStdString()).build) : std::nullopt;
}

void Document::takeTogether()
{
    const auto before = fingerprint(path_);
    auto theirs = files::loadBuild(path_.toStdString());
    auto both = files::together(*base_, *build_, theirs.build);
    if (!both)
        throw ChangedOnDisk(tr("%1: was changed once more.").arg(path_).toStdString());
    setBuild(std::move(*both), tr("put together with the file"));
    base_ = std::make_shared<const Build>(std::move(theirs.build));
    unknown_ = std::move(theirs.unknown);
    onDisk_ = before;
}

void Document::keepMine() { onDisk_ = fingerprint(path_); }

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
        for (const auto& [list, last] : { std::pair { "/pistons_mm/", "" }, std::pair { "/weighings/", "/mass_kg" },
                 std::pair { "/friction_over_temperature/", "/temperature_degC" }, std::pair { "/barrel/", "/depth_mm" },
                 std::pair { "/spokes/", "/radius_mm" }, std::pair { "/insets/", "/height_mm" }, std::pair { "/bumps/", "/over_edge_mm" },
                 std::pair { "/keep_outs/", "/depth_mm" } })
            if (pointer.find(list) != std::string::npos && pointer.ends_with(last)) {
                setBuild(withoutElement(*build_, pointer.substr(0, pointer.size() - std::string_view(last).size())),
                    QString::fromStdString(entry->address.full()));
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
    // Nothing gets into a build that could not be read back from its file.
    if (const auto fault = faultIn(build); !fault.empty()) {
        endPreview();
        emit refused(QString::fromStdString(fault));
        return;
    }
    undo_.push(new BuildEdit(*this, build_, std::make_shared<const Build>(std::move(build)), what));
    emit titleChanged();
}

void Document::preview(const std::string& pointer, const Reading& reading)
{
    previewing_ = true;
    // A reading put into the free place of a list makes the build longer; any other changes nothing but what it says.
    const bool longer = pointer.find("/-") != std::string::npos;
    show(std::make_shared<const Build>(withReading(*build_, pointer, reading)), Remedies::LeftOut, longer ? nullptr : directory_);
    touch();
}

void Document::settle()
{
    job_.finish();
    takeStudy();
}

void Document::endPreview()
{
    if (previewing_) {
        previewing_ = false;
        show(build_, Remedies::Sought, directory_);
    }
}

Kept Document::kept() const { return { previewing_ ? shown_->build : build_, unknown_, path_, onDisk_, typist_ ? typist_() : Typing {} }; }

bool Document::hasUnsaved() const { return isModified() || previewing_ || (typist_ && typist_() != Typing {}); }

void Document::keepForRecovery()
{
    if (hasUnsaved())
        recovery_.keep(kept());
}

void Document::leave()
{
    if (!hasUnsaved())
        return;
    recovery_.leave();
    recovery_.keepNow(kept());
}

void Document::recover(const QString& copy)
{
    auto kept = Recovery::read(copy);
    adopt({ *kept.build, kept.unknown }, kept.path);
    base_ = nullptr; // the copy is not what the file said
    // Saving over what somebody else put there since has to be asked.
    if (!kept.onDisk.isEmpty())
        onDisk_ = kept.onDisk;
    recovered_ = true;
    recoveredTyping_ = kept.typing;
    // The old copy goes when there is another of the same work, and not before.
    if (const auto trouble = recovery_.keepNow(kept); trouble.isEmpty())
        Recovery::forget(copy);
    emit titleChanged();
}

} // namespace deepstop::app
