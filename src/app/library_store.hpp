#pragma once
/// The parts library of this user: the parts that ship with the program, and over them those kept and imported here.

#include "job.hpp"
#include "library/library_file.hpp"

#include <QObject>

#include <map>
#include <memory>

namespace deepstop::app {

/// Reads and writes off the GUI thread. What is added counts at once and is on disk a little later; `finishWriting` waits for it.
class LibraryStore : public QObject {
    Q_OBJECT
public:
    explicit LibraryStore(QObject* parent = nullptr);
    ~LibraryStore() override;

    /// Begins to read both files, if nobody has yet; `changed` tells when they are there.
    void load();
    [[nodiscard]] bool isReady() const { return ready_; }
    /// All parts; waits for the files to be read. A user's file that is damaged is refused once by `refused` and left as it is.
    [[nodiscard]] const library::Library& parts();
    /// The same, for who works on them beside the window: as they are now, whatever is added later.
    [[nodiscard]] std::shared_ptr<const library::Library> sharedParts();
    /// A shelf made ready for searching, kept until the library changes.
    [[nodiscard]] const library::Index& index(library::Kind kind, UnitSystem system);
    /// Keeps these parts: replaces those with the same id. False, with `refused`, where the user's file is damaged; a file that cannot be
    /// written is said by `refused` afterwards.
    bool add(library::Library more);
    void finishWriting() { writing_.finish(); }
    [[nodiscard]] QString path() const { return path_; }

signals:
    void refused(const QString& why);
    void changed();

private:
    struct Loaded {
        library::Library own;
        library::Library all;
        QStringList refusals;
        bool readOnly = false; ///< the user's file is damaged: nothing is written over it
    };
    void take(std::shared_ptr<Loaded> loaded);

    QString path_;
    bool ready_ = false;
    std::shared_ptr<Loaded> loaded_ = std::make_shared<Loaded>();
    Job<std::shared_ptr<Loaded>> loading_;
    Job<QString> writing_; ///< the reason where it could not
    std::map<std::pair<library::Kind, UnitSystem>, library::Index> indexes_;
};

} // namespace deepstop::app
