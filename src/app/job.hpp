#pragma once
/// Work beside the window: started here, done on a thread of the pool, its result brought back to the window's thread.

#include "task/cancel.hpp"

#include <QObject>
#include <QThreadPool>
#include <QTimer>

#include <exception>
#include <functional>
#include <memory>
#include <mutex>
#include <optional>

namespace deepstop::app {

/// How results come late in tests: milliseconds before each is delivered. Empty in the program.
inline std::function<int()>& deliveryDelay()
{
    static std::function<int()> delay;
    return delay;
}

/// What work sees of the one who started it.
class JobTicket {
public:
    [[nodiscard]] bool isCancelled() const { return cancelled_; }
    /// Tells how far it has come, 0 to 1; from any thread. False once nobody wants it any more.
    bool progress(double part) const
    {
        const int percent = static_cast<int>(100 * part);
        if (percent != percent_.exchange(percent))
            post([this, percent] { progressed_(percent); });
        return !cancelled_;
    }

private:
    template <class Result>
    friend class Job;
    /// Calls `what` on the window's thread, unless the job was cancelled or is gone by then.
    void post(std::function<void()> what) const
    {
        const std::lock_guard lock(mutex_);
        if (receiver_)
            QMetaObject::invokeMethod(receiver_, [this, alive = self_.lock(), what = std::move(what)] {
                if (alive && !cancelled_)
                    what();
            }, Qt::QueuedConnection);
    }

    std::weak_ptr<const JobTicket> self_;
    std::atomic<bool> cancelled_ { false };
    mutable std::atomic<int> percent_ { -1 };
    mutable std::mutex mutex_;
    QObject* receiver_ = nullptr;
    std::function<void(int)> progressed_ = [](int) { };
};

/// One piece of work at a time. A new one cancels the one before, whose result never arrives; so does the end of the job. Nothing here
/// waits for work: it holds all that it reads, and ends by itself soon after it was cancelled.
template <class Result>
class Job {
public:
    using Work = std::function<Result(const JobTicket&)>;

    Job() = default;
    ~Job() { cancel(); }
    Job(const Job&) = delete;
    Job& operator=(const Job&) = delete;

    /// @param done called with the result; @param failed with the reason where the work threw. Both on this thread, later.
    void start(Work work, std::function<void(Result)> done, std::function<void(const std::exception&)> failed,
        std::function<void(int percent)> progressed = {})
    {
        cancel();
        auto ticket = std::make_shared<JobTicket>();
        ticket->self_ = ticket;
        ticket->receiver_ = &anchor_;
        if (progressed)
            ticket->progressed_ = std::move(progressed);
        ticket_ = ticket;
        QThreadPool::globalInstance()->start([this, ticket, work = std::move(work), done = std::move(done), failed = std::move(failed)] {
            const CancelScope scope(&ticket->cancelled_);
            auto result = std::make_shared<std::optional<Result>>();
            std::exception_ptr wrong;
            try {
                endIfCancelled();
                *result = work(*ticket);
            } catch (const Cancelled&) {
                return;
            } catch (...) {
                wrong = std::current_exception();
            }
            // `this` is only used where the ticket says that it is still there.
            ticket->post([this, ticket, result, wrong, done, failed] {
                const auto deliver = [this, ticket, result, wrong, done, failed] {
                    if (ticket->cancelled_ || ticket_ != ticket)
                        return;
                    ticket_.reset();
                    try {
                        if (wrong)
                            std::rethrow_exception(wrong);
                    } catch (const std::exception& error) {
                        failed(error);
                        return;
                    }
                    done(std::move(**result));
                };
                if (const auto& delay = deliveryDelay())
                    QTimer::singleShot(delay(), &anchor_, deliver);
                else
                    deliver();
            });
        });
    }

    /// Its result will not arrive.
    void cancel()
    {
        if (const auto ticket = std::exchange(ticket_, nullptr)) {
            ticket->cancelled_ = true;
            const std::lock_guard lock(ticket->mutex_);
            ticket->receiver_ = nullptr;
        }
    }
    /// Something was started whose result has not arrived.
    [[nodiscard]] bool isRunning() const { return ticket_ != nullptr; }

private:
    QObject anchor_; ///< events for the result go here, and are gone with it
    std::shared_ptr<JobTicket> ticket_;
};

} // namespace deepstop::app
