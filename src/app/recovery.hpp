#pragma once
/// Copies of unsaved work, so that a crash costs seconds. Every program keeps one of its own while it has something unsaved; what a program
/// that is no more left behind is offered at the next start.

#include "drafts.hpp"
#include "files/build_file.hpp"
#include "files/lock.hpp"
#include "job.hpp"

#include <QDateTime>
#include <QObject>
#include <QStringList>

#include <condition_variable>
#include <memory>
#include <mutex>
#include <thread>

namespace deepstop::app {

/// What a copy holds.
struct RecoveryCopy {
    std::shared_ptr<const Build> build;
    std::shared_ptr<const nlohmann::json> unknown;
    QString path; ///< of the file it belongs to; empty: never saved
    QByteArray onDisk; ///< fingerprint of what that file held when the work on it began
    std::vector<Typing> typing; ///< what stood typed and was not put in
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

    /// Writes this program's copy on a thread that does nothing else; of what waits for it, the newest alone. `failed` and `worksAgain`
    /// tell how it went.
    void keep(RecoveryCopy what);
    /// Writes it before it returns; the reason where it cannot.
    QString keepNow(const RecoveryCopy& what);
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
    [[nodiscard]] static RecoveryCopy read(const QString& copy);
    /// Takes a copy away for good.
    static void forget(const QString& copy);

signals:
    void failed(const QString& why); ///< once, until it works again
    void worksAgain();
    void ended(bool well); ///< after every writing

private:
    void take(const QString& trouble);
    void work();

    QString path_;
    files::Lock lock_; ///< held as long as the copy is this program's
    std::mutex mutex_;
    std::condition_variable changed_;
    std::unique_ptr<RecoveryCopy> next_; ///< to be written
    bool writing_ = false;
    bool ending_ = false;
    QString trouble_; ///< of the last writing
    bool failing_ = false;
    bool leaving_ = false;
    Mailbox mailbox_; ///< how a writing went
    std::thread thread_;
};

} // namespace deepstop::app
