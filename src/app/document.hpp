#pragma once
/// The open build: its value, its study, undo, its file, and its copy for recovery after a crash.

#include "build/difference.hpp"
#include "files/build_file.hpp"
#include "files/lock.hpp"
#include "recovery.hpp"
#include "study_job.hpp"

#include <QFileSystemWatcher>
#include <QObject>
#include <QTimer>
#include <QUndoStack>

#include <functional>
#include <memory>

namespace deepstop::app {

/// Refused because the file says something else than when it was opened or saved last: somebody has to choose.
class ChangedOnDisk : public files::Refusal {
public:
    using files::Refusal::Refusal;
};

/// One build at a time. Edits make a new Build; undo keeps values. `studied` tells every view to draw again.
class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);
    ~Document() override;

    [[nodiscard]] const Build& build() const { return *shown_->build; }
    [[nodiscard]] const Study& study() const { return *shown_; }
    /// The same, for who works on it beside the window.
    [[nodiscard]] std::shared_ptr<const Study> sharedStudy() const { return shown_; }
    [[nodiscard]] UnitSystem units() const { return units_; }
    [[nodiscard]] const SetupPair& pair() const { return pair_; }
    [[nodiscard]] QUndoStack& undoStack() { return undo_; }
    [[nodiscard]] QString path() const { return path_; }
    [[nodiscard]] bool isModified() const { return !undo_.isClean() || recovered_; }
    /// File name, or the car's where there is no file yet.
    [[nodiscard]] QString title() const;

    /// A build nobody has said anything of yet, with the car as found and a kit to be judged.
    void startNew();
    /// Throws files::Refusal; the document is then as before. Opens a file somebody else has open, too: `heldBy` then says who.
    void open(const QString& path);
    /// A working copy of a shipped demo: it has no file of its own until it is saved.
    void openDemo(const QString& path);
    enum class Over { Nothing, OthersWork };
    /// Throws files::Refusal with the reason, also when another program has the file open; the file is then as before. Throws ChangedOnDisk
    /// when the document's own file was changed by somebody since, unless that is to be written over: it is then kept as `path~`.
    void save(const QString& path, Over over = Over::Nothing);
    /// Who else has the file open, in words; empty where nobody has.
    [[nodiscard]] QString heldBy() const;
    /// What the file says now and the document does not, from the document to the file. Throws files::Refusal.
    [[nodiscard]] std::vector<Difference> differencesOnDisk() const;
    /// Takes over what the file says now, as one step of undo. Throws files::Refusal.
    void takeFromDisk();
    /// The work of both, where nothing that was done here or there is lost by it; nothing where somebody has to choose.
    [[nodiscard]] std::optional<Build> togetherWithDisk() const;
    /// Takes that as one step of undo; the next saving writes over the file.
    void takeTogether();
    /// What the file says now is known: the next saving writes over it.
    void keepMine();

    void setUnits(UnitSystem units);
    void setPair(const SetupPair& pair);

    /// Replaces the reading at `pointer`, as one step of undo. No step where nothing changes.
    void setReading(const std::string& pointer, const Reading& reading);
    /// Puts a reading taken just now at `pointer`: as `setReading`, beside those already there when `again`, whose mean then counts.
    void takeReading(const std::string& pointer, const Reading& reading, bool again);
    /// Where the free place of a list that `pointer` names stood before something was put there: its last element now.
    [[nodiscard]] std::string lastOfList(const std::string& pointer) const;
    /// What readings are typed from: an instrument, "vendor sheet", "estimate", or empty: as each was known before.
    void setInHand(const QString& instrument) { inHand_ = instrument; }
    [[nodiscard]] QString inHand() const { return inHand_; }
    /// Says of a reading just typed how it is known, where what is in hand serves for such a reading.
    void takenInHand(Reading& reading, const Style& style) const;
    /// Replaces the whole build, as one step of undo called `what`. A build that no file could hold is refused by `refused`.
    void setBuild(Build build, const QString& what);
    /// Shows what would be with this reading, without touching the build. The next edit or `endPreview` takes it back. Remedies follow.
    void preview(const std::string& pointer, const Reading& reading);
    /// Waits until everything is worked out.
    void settle();
    /// How long the window may wait for a study before it shows what can be drawn without one; negative: it shows that first, always.
    static void setPatience(StudyJob::Milliseconds patience) { patience_ = patience; }
    void endPreview();
    [[nodiscard]] bool isPreviewing() const { return previewing_; }

    /// Takes up a copy that was left behind: it counts as unsaved, and the copy goes only when this program's own holds what it held.
    /// Throws files::Refusal; everything is then as before.
    void recover(const QString& copy);
    /// What was being typed when the copy taken up was made.
    [[nodiscard]] const Typing& recoveredTyping() const { return recoveredTyping_; }
    /// Whom to ask for what stands half typed in a field.
    void setTypist(std::function<Typing()> typist) { typist_ = std::move(typist); }
    /// Something was typed: at most some seconds from now it is in the copy.
    void touch();
    /// Writes the copy now, off the GUI thread.
    void keepForRecovery();
    /// The program is about to end unasked: writes the copy at once and leaves it behind.
    void leave();
    [[nodiscard]] Recovery& recovery() { return recovery_; }
    void setAutosaveDelay(int milliseconds) { autosave_.setInterval(milliseconds); }

signals:
    void studied();
    void titleChanged();
    void unitsChanged();
    void refused(const QString& why);
    void changedOnDisk();

private:
    friend class BuildEdit;
    void show(std::shared_ptr<const Build> build, Remedies remedies = Remedies::Sought, std::shared_ptr<const Directory> alike = nullptr);
    void takeStudy();
    void put(std::shared_ptr<const Build> build);
    void adopt(files::BuildFile file, const QString& path);
    void lockFile();
    [[nodiscard]] Kept kept() const;
    [[nodiscard]] bool hasUnsaved() const;

    std::shared_ptr<const Build> build_;
    std::shared_ptr<const nlohmann::json> unknown_;
    StudyJob job_;
    QTimer arrived_; ///< something can be taken from it
    inline static StudyJob::Milliseconds patience_ { 5 };
    std::shared_ptr<const Study> shown_;
    std::shared_ptr<const Directory> directory_; ///< of `build_`
    bool previewing_ = false;
    bool recovered_ = false;
    UnitSystem units_ = UnitSystem::Metric;
    SetupPair pair_;
    QString inHand_;
    QUndoStack undo_;
    QString path_;
    files::Lock lock_; ///< on the document's file
    QString heldBy_;
    std::shared_ptr<const Build> base_; ///< what the file said then
    QByteArray onDisk_; ///< fingerprint of what the file held when it was opened or saved last
    QFileSystemWatcher watcher_;
    QTimer look_; ///< at the file, some time after it changed: whoever writes it may not be done
    Recovery recovery_;
    Typing recoveredTyping_;
    std::function<Typing()> typist_;
    QTimer autosave_;
};

} // namespace deepstop::app
