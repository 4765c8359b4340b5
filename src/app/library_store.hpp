#pragma once
/// The parts library of this user: the parts that ship with the program, and over them those kept and imported here.

#include "files/library_file.hpp"

#include <QObject>

namespace deepstop::app {

class LibraryStore : public QObject {
    Q_OBJECT
public:
    explicit LibraryStore(QObject* parent = nullptr);

    /// Reads both files the first time. A user's file that is damaged is refused once by `refused` and left as it is.
    [[nodiscard]] const library::Library& parts();
    /// Keeps these parts: replaces those with the same id. False, with `refused`, where the file cannot be written.
    bool add(library::Library more);
    [[nodiscard]] QString path() const { return path_; }

signals:
    void refused(const QString& why);
    void changed();

private:
    QString path_;
    bool loaded_ = false;
    bool readOnly_ = false; ///< the user's file is damaged: nothing is written over it
    library::Library own_;
    library::Library all_;
};

} // namespace deepstop::app
