#include "job.hpp"

#include <list>
#include <thread>

namespace deepstop::app {
namespace {

struct Thread {
    std::atomic<bool> ended { false };
    std::thread thread;
};

/// Every thread that was started and not joined yet; whatever is left is joined when the program ends.
class Threads {
public:
    ~Threads() { join(false); }
    void start(std::function<void()> work)
    {
        join(true);
        const std::lock_guard lock(mutex_);
        Thread& started = all_.emplace_back();
        started.thread = std::thread([&ended = started.ended, work = std::move(work)]() mutable {
            work();
            work = nullptr; // what it holds goes before it counts as ended
            ended = true;
        });
    }
    void join(bool endedAlone)
    {
        std::list<Thread> gone;
        {
            const std::lock_guard lock(mutex_);
            for (auto it = all_.begin(); it != all_.end();) {
                const auto next = std::next(it);
                if (!endedAlone || it->ended)
                    gone.splice(gone.end(), all_, it);
                it = next;
            }
        }
        for (Thread& each : gone)
            each.thread.join();
    }

private:
    std::mutex mutex_;
    std::list<Thread> all_;
};

Threads& threads()
{
    static Threads all;
    return all;
}

} // namespace

void startThread(std::function<void()> work) { threads().start(std::move(work)); }
void joinThreads() { threads().join(false); }

} // namespace deepstop::app
