#include "document.hpp"

#include "job.hpp"
#include "fingerprint.hpp"
#include "build/mock_ups.hpp"
#include "files/together.hpp"
#include "files/disk.hpp"

#include <nlohmann/json.hpp>

#include <QCryptographicHash>
#include <QFileInfo>

namespace deepstop::app {

/// Steps that can be undone; what they have in common is kept once.
constexpr int mostSteps = 500;

/// One step: the states before and after.
class BuildEdit : public QUndoCommand {
public:
    struct State {
        std::shared_ptr<const Snapshot> build;
        std::shared_ptr<const nlohmann::json> unknown;
    };
    BuildEdit(Document& document, State before, State after, Contents now, const QString& what)
        : QUndoCommand(what), document_(document), before_(std::move(before)), after_(std::move(after)), now_(std::move(now))
    {
    }
    void undo() override { putIn(before_); }
    void redo() override
    {
        // Done for the first time, the build is there as it was made.
        if (auto made = std::exchange(now_, {}); made.build)
            document_.put(std::move(made), after_.build);
        else
            putIn(after_);
    }

private:
    void putIn(const State& state) { document_.put({ std::make_shared<const Build>(state.build->build()), state.unknown }, state.build); }

    Document& document_;
    State before_;
    State after_;
    Contents now_;
};

namespace {

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

Document::Document(QObject* parent)
    : QObject(parent), contents_ { numbered(emptyBuild()), nullptr }, snapshot_(Snapshot::of(*contents_.build, nullptr)), saved_(contents_)
{
    undo_.setUndoLimit(mostSteps);
    autosave_.setSingleShot(true);
    autosave_.setInterval(2000);
    connect(&autosave_, &QTimer::timeout, this, &Document::keepForRecovery);
    // What was drawn already is painted first.
    arrived_.setSingleShot(true);
    arrived_.setInterval(0);
    connect(
        &job_, &StudyJob::ready, this,
        [this] {
            if (const auto& delay = deliveryDelay())
                arrived_.start(delay());
            else
                arrived_.start(0);
        },
        Qt::QueuedConnection);
    connect(&arrived_, &QTimer::timeout, this, &Document::takeStudy);
    drawn_.setSingleShot(true);
    connect(&drawn_, &QTimer::timeout, this, [this] { job_.begin(); });
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
    connect(&drafts_, &Drafts::changed, this, [this] {
        touch();
        emit titleChanged();
    });
    shown_ = std::make_shared<const Study>(deepstop::study(contents_.build, pair_, units_));
}

Document::~Document() = default;

QString Document::title() const
{
    return path_.isEmpty() ? QString::fromStdString(build().car.name.empty() ? "New build" : build().car.name)
                           : QFileInfo(path_).fileName();
}

bool Document::isModified() const
{
    if (!modified_)
        modified_ = !saved_.build || (contents_.build != saved_.build && !(*contents_.build == *saved_.build))
            || (contents_.unknown != saved_.unknown && (!contents_.unknown || !saved_.unknown || *contents_.unknown != *saved_.unknown));
    return *modified_;
}

const Directory::Entry* Document::entry(const std::string& pointer) const
{
    if (!directory_)
        directory_ =
            shown_->build == contents_.build ? shown_->directory : std::make_shared<const Directory>(*contents_.build, *shown_->directory);
    return directory_->at(pointer);
}

void Document::show(Remedies remedies)
{
    auto build = contents_.build;
    if (preview_)
        build = std::make_shared<const Build>(withReading(*contents_.build, preview_->pointer, preview_->reading));
    const StudyOf of { pair_, units_, remedies, job_.last() };
    // What is known to take longer is not waited for at all, and begun when what is known at once has been painted.
    const bool soon = job_.usual() <= patience_;
    job_.ask(build, of, soon ? StudyJob::Start::AtOnce : StudyJob::Start::WhenDrawn);
    // Whatever goes wrong in it, what was shown before stays.
    if (soon)
        job_.wait(patience_);
    else
        drawn_.start(0);
    auto fresh = patience_.count() >= 0 ? job_.take() : nullptr;
    if (!fresh)
        fresh = std::make_shared<const Study>(drawn(std::move(build), of, *shown_));
    shown_ = std::move(fresh);
    if (shown_->build == contents_.build)
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

void Document::put(Contents contents, std::shared_ptr<const Snapshot> snapshot)
{
    contents.build = numbered(std::move(contents.build));
    const auto before = std::exchange(contents_, std::move(contents));
    const auto wasDirectory = std::exchange(directory_, nullptr);
    ++stamp_.version;
    modified_.reset();
    try {
        show();
    } catch (...) {
        contents_ = before;
        directory_ = wasDirectory;
        modified_.reset();
        throw;
    }
    snapshot_ = std::move(snapshot);
    touch();
    emit titleChanged();
}

void Document::push(Contents contents, const QString& what)
{
    auto snapshot = Snapshot::of(*contents.build, snapshot_.get());
    undo_.push(new BuildEdit(*this, { snapshot_, contents_.unknown }, { std::move(snapshot), contents.unknown }, contents, what));
}

void Document::touch()
{
    // Never put off: however steadily somebody works, the copy is made.
    if (!autosave_.isActive())
        autosave_.start();
}

void Document::adopt(files::BuildFile file, const QString& path)
{
    contents_ = { numbered(std::make_shared<const Build>(std::move(file.build))), std::move(file.unknown) };
    snapshot_ = Snapshot::of(*contents_.build, nullptr);
    saved_ = contents_;
    modified_.reset();
    directory_ = nullptr;
    ++stamp_.document;
    stamp_.version = 0;
    path_ = path;
    base_ = path.isEmpty() ? nullptr : contents_.build;
    pair_ = {};
    preview_.reset();
    drafts_.clear();
    autosave_.stop();
    recovery_.drop();
    undo_.clear();
    lockFile();
    emit replaced();
    show();
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

void Document::setUnits(UnitSystem units)
{
    if (units_ == units)
        return;
    units_ = units;
    show();
    emit unitsChanged();
}

void Document::setPair(const SetupPair& pair)
{
    pair_ = pair;
    show();
}

bool Document::edit(const QString& what, const Edit& edit)
{
    auto made = edit(build());
    if (!made)
        return false;
    foretell(build(), *made);
    giveIds(*made);
    if (*made == build())
        return true;
    // Nothing gets into a build that could not be read back from its file.
    if (const auto fault = faultIn(*made); !fault.empty()) {
        emit refused(QString::fromStdString(fault));
        return false;
    }
    auto unknown = files::movedAlong(contents_.unknown, build(), *made);
    push({ std::make_shared<const Build>(std::move(*made)), std::move(unknown) }, what);
    return true;
}

bool Document::putIn(const QString& what, const Stamp& of, std::shared_ptr<const Build> base, std::shared_ptr<const Build> after)
{
    if (!isOpen(of)) {
        emit refused(tr("“%1” was worked out for the build that was open before. Nothing was changed.").arg(what));
        return false;
    }
    const auto change = files::editBetween(std::move(base), std::move(after));
    if (!change(build())) {
        emit refused(
            tr("“%1” was worked out before the last change, and does not go with it. Nothing was changed: look at it again.").arg(what));
        return false;
    }
    return edit(what, change);
}

void Document::setReading(const std::string& pointer, const Reading& reading)
{
    const auto* there = entry(pointer);
    // What was shown as a try is put in, or is not: either way the try is over.
    const bool tried = std::exchange(preview_, std::nullopt).has_value();
    if (!there || *there->reading == reading) {
        if (tried)
            show();
        return;
    }
    const auto what = QString::fromStdString(there->address.full());
    // Emptied, a bore, a weighing or a point of a curve goes altogether.
    std::string element;
    if (!reading.value)
        for (const auto& [list, last] : { std::pair { "/pistons_mm/", "" }, std::pair { "/weighings/", "/mass_kg" },
                 std::pair { "/friction_over_temperature/", "/temperature_degC" }, std::pair { "/barrel/", "/depth_mm" },
                 std::pair { "/spokes/", "/radius_mm" }, std::pair { "/insets/", "/height_mm" }, std::pair { "/bumps/", "/over_edge_mm" },
                 std::pair { "/keep_outs/", "/depth_mm" } })
            if (pointer.find(list) != std::string::npos && pointer.ends_with(last))
                element = pointer.substr(0, pointer.size() - std::string_view(last).size());
    const bool done =
        edit(what, [&](const Build& now) { return element.empty() ? withReading(now, pointer, reading) : withoutElement(now, element); });
    if (!done && tried)
        show();
}

void Document::takeReading(const std::string& pointer, const Reading& reading, bool again)
{
    const auto* there = entry(pointer);
    if (!there || !reading.value)
        return;
    Reading taken = reading;
    if (again && there->reading->value) {
        auto values = there->reading->repeats.empty() ? std::vector { *there->reading->value } : there->reading->repeats;
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
    while (entry(candidate(last + 1)))
        ++last;
    return candidate(last);
}

void Document::takenInHand(Reading& reading, const Style& style) const
{
    if (!reading.value || inHand_.isEmpty())
        return;
    if (inHand_ == fromVendorSheet || inHand_ == fromEstimate) {
        reading.known = inHand_ == fromEstimate ? Known::Estimated : Known::Vendor;
        reading.instrument.clear();
        return;
    }
    const bool scale = inHand_.contains(QLatin1String("scale"));
    if ((scale && style.dimension != Dimension::Mass) || (!scale && style.dimension != Dimension::Length))
        return;
    reading.known = Known::Measured;
    reading.instrument = inHand_.toStdString();
}

void Document::preview(const std::string& pointer, const Reading& reading)
{
    preview_ = Preview { pointer, reading };
    show(Remedies::LeftOut);
    touch();
}

void Document::settle()
{
    job_.finish();
    takeStudy();
}

void Document::endPreview()
{
    if (std::exchange(preview_, std::nullopt))
        show();
}

RecoveryCopy Document::kept() const { return { contents_.build, contents_.unknown, path_, onDisk_, drafts_.all() }; }

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
    // The copy is compared with its file; without a file that can be read it counts as changed.
    base_ = nullptr;
    saved_ = {};
    if (!path_.isEmpty())
        try {
            auto file = files::loadBuild(path_.toStdString());
            saved_ = { std::make_shared<const Build>(std::move(file.build)), std::move(file.unknown) };
        } catch (const files::Refusal&) {
        }
    modified_.reset();
    // Saving over what somebody else put there since has to be asked.
    if (!kept.onDisk.isEmpty())
        onDisk_ = kept.onDisk;
    recoveredTyping_ = kept.typing;
    drafts_.set(kept.typing);
    // The old copy goes when there is another of the same work, and not before.
    if (const auto trouble = recovery_.keepNow(kept); trouble.isEmpty())
        Recovery::forget(copy);
    emit titleChanged();
}

} // namespace deepstop::app
