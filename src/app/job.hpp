#pragma once
/// Work beside the window: started here, done on a thread of its own, its result brought back to the window's thread.

#include "task/cancel.hpp"

#include <QCoreApplication>
#include <QEvent>
#include <QObject>
#include <QTimer>

#include <condition_variable>
#include <exception>
#include <functional>
#include <memory>
#include <mutex>
#include <optional>
#include <utility>
#include <vector>

namespace deepstop::app {

/// How results come late in tests: milliseconds before each is delivered. Empty in the program.
inline std::function<int()>& deliveryDelay()
{
    static std::function<int()> delay;
    return delay;
}

/// Things to be done on the thread this was made on; any thread may put them in. What was not done is dropped with it.
class Mailbox : public QObject {
public:
    void put(std::function<void()> what)
    {
        {
            const std::lock_guard lock(mutex_);
            waiting_.push_back(std::move(what));
        }
        QCoreApplication::postEvent(this, new QEvent(QEvent::User));
    }
    /// Does what is in it now.
    void empty()
    {
        std::vector<std::function<void()>> all;
        {
            const std::lock_guard lock(mutex_);
            all.swap(waiting_);
        }
        for (const auto& what : all)
            what();
    }

protected:
    bool event(QEvent* event) override
    {
        if (event->type() != QEvent::User)
            return QObject::event(event);
        empty();
        return true;
    }

private:
    std::mutex mutex_;
    std::vector<std::function<void()>> waiting_;
};

/// Starts a thread for `work`, which throws nothing. All of them have ended when the application does.
void startThread(std::function<void()> work);
/// Waits for all that were started.
void joinThreads();

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
    /// Does `what` on the window's thread, unless the job was cancelled by then.
    void post(std::function<void()> what) const
    {
        const std::lock_guard lock(mutex_);
        if (mailbox_)
            mailbox_->put([self = self_.lock(), what = std::move(what)] {
                if (self && !self->cancelled_)
                    what();
            });
    }

    std::weak_ptr<const JobTicket> self_;
    std::atomic<bool> cancelled_ { false };
    mutable std::atomic<int> percent_ { -1 };
    mutable std::mutex mutex_;
    mutable std::condition_variable ended_;
    Mailbox* mailbox_ = nullptr;
    bool over_ = false; ///< the work has ended, its result is in the mailbox
    std::function<void(int)> progressed_ = [](int) { };
};

/// One piece of work at a time. A new one cancels the one before, whose result never arrives; so does the end of the job. Nobody waits for
/// work that was cancelled: it holds all that it reads, and ends by itself within some milliseconds.
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
        ticket->mailbox_ = &mailbox_;
        if (progressed)
            ticket->progressed_ = std::move(progressed);
        ticket_ = ticket;
        startThread([this, ticket, work = std::move(work), done = std::move(done), failed = std::move(failed)] {
            const CancelScope scope(&ticket->cancelled_);
            auto result = std::make_shared<std::optional<Result>>();
            std::exception_ptr wrong;
            try {
                endIfCancelled();
                *result = work(*ticket);
            } catch (const Cancelled&) {
                // Nobody wants it: there is nobody to be told.
            } catch (...) {
                wrong = std::current_exception();
            }
            // `this` is only used where the ticket says that it is still there.
            if (wrong || *result)
                ticket->post([this, ticket, result, wrong, done, failed] { arrived(ticket, result, wrong, done, failed); });
            const std::lock_guard lock(ticket->mutex_);
            ticket->over_ = true;
            ticket->ended_.notify_all();
        });
    }

    /// Its result will not arrive.
    void cancel()
    {
        if (const auto ticket = std::exchange(ticket_, nullptr)) {
            ticket->cancelled_ = true;
            const std::lock_guard lock(ticket->mutex_);
            ticket->mailbox_ = nullptr;
        }
    }
    /// Waits for its result, which arrives before this returns.
    void finish()
    {
        if (const auto ticket = ticket_) {
            {
                std::unique_lock lock(ticket->mutex_);
                ticket->ended_.wait(lock, [&] { return ticket->over_; });
            }
            hurries_ = true;
            mailbox_.empty();
            hurries_ = false;
        }
    }
    /// Something was started whose result has not arrived.
    [[nodiscard]] bool isRunning() const { return ticket_ != nullptr; }

private:
    void arrived(const std::shared_ptr<JobTicket>& ticket, const std::shared_ptr<std::optional<Result>>& result, std::exception_ptr wrong,
        const std::function<void(Result)>& done, const std::function<void(const std::exception&)>& failed)
    {
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
        if (const auto& delay = deliveryDelay(); delay && !hurries_)
            QTimer::singleShot(delay(), &mailbox_, deliver);
        else
            deliver();
    }

    Mailbox mailbox_; ///< for its result; gone with it
    std::shared_ptr<JobTicket> ticket_;
    bool hurries_ = false;
};

} // namespace deepstop::app
