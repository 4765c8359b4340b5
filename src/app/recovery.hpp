#pragma once
/// Copies of unsaved work, so that a crash costs seconds. Every program keeps one of its own while it has something unsaved; what a program
/// that is no more left behind is offered at the next start.

#include "files/build_file.hpp"
#include "files/lock.hpp"

#include <QDateTime>
#include <QFutureWatcher>
#include <QObject>
#include <QStringList>

#include <memory>

namespace deepstop::app {

/// What stood in a field that was being typed into.
struct Typing {
    QString field; ///< its object name: a reading's pointer
    QString text;
    bool operator==(const Typing&) const = default;
};

/// What a copy holds.
struct Kept {
    std::shared_ptr<const Build> build;
    std::shared_ptr<const nlohmann::json> unknown;
    QString path; ///< of the file it belongs to; empty: never saved
    QByteArray onDisk; ///< fingerprint of what that file held when the work on it began
    Typing typing;
};

/// A copy somebody left behind.
struct LeftBehind {
    QString copy; ///< where it lies
    QString car;
    QString path; ///< of the file it belongs to
    QDateTime kept;
};

class Recovery : public QObject {
    Q_OBJECT
public:
    explicit Recovery(QObject* parent = nullptr);
    ~Recovery() override;

    /// Writes this program's copy off the GUI thread, one after the other; `failed` and `worksAgain` tell how it went.
    void keep(Kept what);
    /// Writes it before it returns; the reason where it cannot.
    QString keepNow(const Kept& what);
    void finish();
    /// What it held is safe elsewhere: takes the copy away.
    void drop();
    /// The copy stays when this program ends.
    void leave() { leaving_ = true; }
    [[nodiscard]] QString path() const { return path_; }

    /// Copies whose programs are no more, newest first. A damaged one is set aside under another name and put into `damaged`; leftovers of
    /// writers that were killed are cleared away.
    [[nodiscard]] static QList<LeftBehind> leftBehind(QStringList* damaged = nullptr);
    /// Reads a copy. Throws files::Refusal; the copy stays where it is either way.
    [[nodiscard]] static Kept read(const QString& copy);
    /// Takes a copy away for good.
    static void forget(const QString& copy);

signals:
    void failed(const QString& why); ///< once, until it works again
    void worksAgain();
    void ended(bool well); ///< after every writing

private:
    void take(const QString& trouble);

    QString path_;
    files::Lock lock_; ///< held as long as the copy is this program's
    QFutureWatcher<QString> writing_;
    std::unique_ptr<Kept> next_; ///< to be written after the one that is being written
    bool failing_ = false;
    bool leaving_ = false;
};

} // namespace deepstop::app
