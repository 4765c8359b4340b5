#pragma once
/// Studies on a thread of their own, so that nothing a person types waits for the engineering.

#include "study/study.hpp"

#include <QObject>

#include <chrono>
#include <condition_variable>
#include <exception>
#include <mutex>
#include <thread>

namespace deepstop::app {

/// Works on what was asked for last; whatever was asked before is dropped, begun or not. Without remedies first, where those take long.
class StudyJob : public QObject {
    Q_OBJECT
public:
    using Milliseconds = std::chrono::milliseconds;

    explicit StudyJob(QObject* parent = nullptr);
    ~StudyJob() override;

    enum class Start { AtOnce, WhenDrawn };
    /// From now on only this counts. With `of.remedies` left out, they follow by themselves. One that starts when the window has drawn is
    /// begun by `begin`, by whoever waits for it, and in any case before long.
    void ask(std::shared_ptr<const Build> build, StudyOf of, Start start = Start::AtOnce);
    void begin();
    /// Waits at most so long for all of what was asked for. False where it is not done.
    bool wait(Milliseconds most);
    /// What has been finished since it was last taken: null where nothing was. Rethrows what went wrong in it.
    [[nodiscard]] std::shared_ptr<const Study> take();
    /// The last that was finished, what it remembers serves the next; null: there was none.
    [[nodiscard]] std::shared_ptr<const Study> last();
    /// How long an answer took last time.
    [[nodiscard]] std::chrono::steady_clock::duration usual();
    void finish(); ///< waits for all of it, remedies included

signals:
    /// Something can be taken. Comes from the worker: connect it queued.
    void ready();

private:
    void work();
    /// Under the lock.
    void deliver(std::shared_ptr<const Study> study, std::exception_ptr wrong, bool all);

    std::mutex mutex_;
    std::condition_variable changed_;
    std::shared_ptr<const Build> wanted_; ///< not begun yet
    std::chrono::steady_clock::time_point notBefore_; ///< unless somebody waits
    StudyOf of_;
    std::atomic<bool> unwanted_ = false; ///< what is being worked on
    bool answered_ = true; ///< what was asked for is there
    bool complete_ = true; ///< and its remedies
    bool ending_ = false;
    int waiting_ = 0; ///< who waits for all of it: then nothing is put off
    std::shared_ptr<const Study> done_;
    std::shared_ptr<const Study> last_;
    std::exception_ptr wrong_;
    std::chrono::steady_clock::duration full_ {}; ///< how long the last whole study took
    std::chrono::steady_clock::duration light_ {}; ///< and the last without remedies
    std::thread thread_;
};

} // namespace deepstop::app
