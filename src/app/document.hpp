#pragma once
/// The open build: its value, its study, undo, its file, and its copy for recovery after a crash.

#include "build/difference.hpp"
#include "build/edit.hpp"
#include "build/snapshot.hpp"
#include "drafts.hpp"
#include "files/build_file.hpp"
#include "files/lock.hpp"
#include "recovery.hpp"
#include "study_job.hpp"

#include <QFileSystemWatcher>
#include <QObject>
#include <QTimer>
#include <QUndoStack>

#include <memory>

namespace deepstop::app {

/// Refused because the file says something else than when it was opened or saved last: somebody has to choose.
class ChangedOnDisk : public files::Refusal {
public:
    using files::Refusal::Refusal;
};

/// What the document is: the build, and what its file held besides. Nobody changes either; an edit makes new ones.
struct Contents {
    std::shared_ptr<const Build> build;
    std::shared_ptr<const nlohmann::json> unknown;
};

/// Which document, and which state of it, something was made for. What arrives late carries it.
struct Stamp {
    quint64 document = 0;
    quint64 version = 0;
    bool operator==(const Stamp&) const = default;
};

/// One build at a time. It changes by edits alone; undo keeps values. `studied` tells every view to draw again.
class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);
    ~Document() override;

    /// The build: what was put in. A value that is only being typed or dragged is not in it.
    [[nodiscard]] const Build& build() const { return *contents_.build; }
    [[nodiscard]] std::shared_ptr<const Build> sharedBuild() const { return contents_.build; }
    /// What is shown: the study of the build, or while something is typed or dragged, of the build with that in it. For pictures; an edit
    /// begins with the build.
    [[nodiscard]] const Study& study() const { return *shown_; }
    /// The same, for who works on it beside the window.
    [[nodiscard]] std::shared_ptr<const Study> sharedStudy() const { return shown_; }
    /// The study with all that has to be worked out, waited for: for what is printed, saved or sent. While it is being worked out nothing
    /// is known to be missing, and a sheet must not say that nothing is.
    [[nodiscard]] const Study& wholeStudy()
    {
        settle();
        return *shown_;
    }
    /// A reading of the build by its address, whatever is shown instead of it just now; null where there is none.
    [[nodiscard]] const Directory::Entry* entry(const std::string& pointer) const;
    [[nodiscard]] Stamp stamp() const { return stamp_; }
    /// Whether the document that `stamp` was taken of is still open, however it has changed since.
    [[nodiscard]] bool isOpen(const Stamp& stamp) const { return stamp.document == stamp_.document; }
    [[nodiscard]] UnitSystem units() const { return units_; }
    [[nodiscard]] const SetupPair& pair() const { return pair_; }
    [[nodiscard]] QUndoStack& undoStack() { return undo_; }
    [[nodiscard]] QString path() const { return path_; }
    /// Whether it says something else than its file, or a new one than at its beginning.
    [[nodiscard]] bool isModified() const;
    /// The same, or something stands typed that was not put in.
    [[nodiscard]] bool hasUnsaved() const { return isModified() || !drafts_.all().empty(); }
    /// What stands typed in fields and is not in the build yet.
    [[nodiscard]] Drafts& drafts() { return drafts_; }
    [[nodiscard]] const Drafts& drafts() const { return drafts_; }
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

    /// The one way to change the build: applies `edit` to the build as it is now, as one step of undo called `what`. No step where nothing
    /// changes. False where the edit does not apply, or makes a build that no file could hold, which `refused` then says.
    bool edit(const QString& what, const Edit& edit);
    /// Puts in what was worked out of an earlier state: `after`, made of `base`, as far as the build still says what it was made of.
    /// `refused` says where it does not, or where another document is open by now.
    bool putIn(const QString& what, const Stamp& of, std::shared_ptr<const Build> base, std::shared_ptr<const Build> after);
    /// Replaces the reading at `pointer`, as one step of undo. No step where nothing changes.
    void setReading(const std::string& pointer, const Reading& reading);
    /// Puts a reading taken just now at `pointer`: as `setReading`, beside those already there when `again`, whose mean then counts.
    void takeReading(const std::string& pointer, const Reading& reading, bool again);
    /// Where the free place of a list that `pointer` names stood before something was put there: its last element now.
    [[nodiscard]] std::string lastOfList(const std::string& pointer) const;
    /// What readings are typed from: an instrument, "vendor sheet", "estimate", or empty: as each was known before.
    /// An instrument as files name it, or one of these; empty: as before.
    static inline const QString fromVendorSheet = QStringLiteral("vendor sheet");
    static inline const QString fromEstimate = QStringLiteral("estimate");
    void setInHand(const QString& instrument) { inHand_ = instrument; }
    [[nodiscard]] QString inHand() const { return inHand_; }
    /// Says of a reading just typed how it is known, where what is in hand serves for such a reading.
    void takenInHand(Reading& reading, const Style& style) const;
    /// Shows what would be with this reading, until `endPreview` or until that reading is put in; whatever else is edited meanwhile.
    void preview(const std::string& pointer, const Reading& reading);
    /// Waits until everything is worked out.
    void settle();
    /// How long the window may wait for a study before it shows what can be drawn without one; negative: it shows that first, always.
    static void setPatience(StudyJob::Milliseconds patience) { patience_ = patience; }
    void endPreview();
    [[nodiscard]] bool isPreviewing() const { return preview_.has_value(); }

    /// Takes up a copy that was left behind: it counts as unsaved, and the copy goes only when this program's own holds what it held.
    /// Throws files::Refusal; everything is then as before.
    void recover(const QString& copy);
    /// What was being typed when the copy taken up was made.
    [[nodiscard]] const std::vector<Typing>& recoveredTyping() const { return recoveredTyping_; }
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
    void replaced(); ///< another build is open now: what was begun for the one before is none of its business

private:
    friend class BuildEdit;
    void show(Remedies remedies = Remedies::Sought);
    void takeStudy();
    void put(Contents contents, std::shared_ptr<const Snapshot> snapshot);
    void push(Contents contents, const QString& what);
    void adopt(files::BuildFile file, const QString& path);
    void lockFile();
    [[nodiscard]] RecoveryCopy kept() const;

    Contents contents_;
    std::shared_ptr<const Snapshot> snapshot_; ///< of `contents_`, as undo keeps it
    Contents saved_; ///< what the file holds, or a document without one began with; null: nobody knows
    mutable std::optional<bool> modified_; ///< against that; absent: not compared yet
    Stamp stamp_;
    StudyJob job_;
    QTimer arrived_; ///< something can be taken from it
    QTimer drawn_; ///< the window has painted what is known at once
    inline static StudyJob::Milliseconds patience_ { 5 };
    std::shared_ptr<const Study> shown_;
    mutable std::shared_ptr<const Directory> directory_; ///< of the build; null until somebody asks
    struct Preview {
        std::string pointer;
        Reading reading;
    };
    std::optional<Preview> preview_;
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
    std::vector<Typing> recoveredTyping_;
    Drafts drafts_;
    QTimer autosave_;
};

} // namespace deepstop::app
