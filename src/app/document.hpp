#pragma once
/// The open build: its value, its study, undo, its file, and its copy for recovery after a crash.

#include "files/build_file.hpp"
#include "study/study.hpp"

#include <QFuture>
#include <QLockFile>
#include <QObject>
#include <QTimer>
#include <QUndoStack>

#include <functional>
#include <memory>

namespace deepstop::app {

/// One build at a time. Edits make a new Build; undo keeps values. `studied` tells every view to draw again.
class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);
    ~Document() override;

    [[nodiscard]] const Build& build() const { return *shown_->build; }
    [[nodiscard]] const Study& study() const { return *shown_; }
    [[nodiscard]] UnitSystem units() const { return units_; }
    [[nodiscard]] const SetupPair& pair() const { return pair_; }
    [[nodiscard]] QUndoStack& undoStack() { return undo_; }
    [[nodiscard]] QString path() const { return path_; }
    [[nodiscard]] bool isModified() const { return !undo_.isClean() || recovered_; }
    /// File name, or the car's where there is no file yet.
    [[nodiscard]] QString title() const;

    /// A build nobody has said anything of yet, with the car as found and a kit to be judged.
    void startNew();
    /// Throws files::Refusal; the document is then as before.
    void open(const QString& path);
    /// A working copy of a shipped demo: it has no file of its own until it is saved.
    void openDemo(const QString& path);
    /// Throws files::Refusal with the reason; the file is then as before.
    void save(const QString& path);

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
    /// Replaces the whole build, as one step of undo called `what`.
    void setBuild(Build build, const QString& what);
    /// Shows what would be with this reading, without touching the build. The next edit or `endPreview` takes it back. Remedies follow when
    /// the value has come to rest.
    void preview(const std::string& pointer, const Reading& reading);
    /// Works out now what was left out while a value moved.
    void settle();
    void endPreview();
    [[nodiscard]] bool isPreviewing() const { return previewing_; }

    /// Copies left behind by a crash: where they lie.
    [[nodiscard]] static QStringList recoverable();
    /// Takes over a recovery copy; it counts as unsaved.
    void recover(const QString& copy);
    static void forget(const QString& copy);
    /// Writes the recovery copy now, off the GUI thread; tests wait for it.
    void keepForRecovery();
    [[nodiscard]] QString recoveryPath() const { return recovery_; }
    void setAutosaveDelay(int milliseconds) { autosave_.setInterval(milliseconds); }

signals:
    void studied();
    void titleChanged();
    void unitsChanged();

private:
    friend class BuildEdit;
    void show(std::shared_ptr<const Build> build, Remedies remedies = Remedies::Sought, const Directory* alike = nullptr);
    void put(std::shared_ptr<const Build> build);
    void adopt(files::BuildFile file, const QString& path);
    void dropRecovery();

    std::shared_ptr<const Build> build_;
    std::shared_ptr<const nlohmann::json> unknown_;
    std::unique_ptr<Study> shown_;
    std::shared_ptr<const Directory> directory_; ///< of `build_`
    bool previewing_ = false;
    bool recovered_ = false;
    UnitSystem units_ = UnitSystem::Metric;
    SetupPair pair_;
    QString inHand_;
    QUndoStack undo_;
    QString path_;
    QString recovery_;
    std::unique_ptr<QLockFile> lock_; ///< held as long as the recovery copy is this process's
    QFuture<void> keeping_;
    QTimer autosave_;
    QTimer rest_; ///< runs while a value moves
};

} // namespace deepstop::app
