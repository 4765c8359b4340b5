#include "study_job.hpp"

#include <sys/resource.h>
#include <unistd.h>

namespace deepstop::app {

/// A whole study that takes longer than this comes in two: first without its remedies.
constexpr StudyJob::Milliseconds inOne { 4 };
/// So long nothing new has to come before ways out are looked for: while somebody types or drags, none are.
constexpr StudyJob::Milliseconds rest { 30 };
constexpr int niceness = 5;
/// At most so long a study is put off for the window to draw what is known at once: both want the same processors.
constexpr StudyJob::Milliseconds toDraw { 60 };

StudyJob::StudyJob(QObject* parent) : QObject(parent), thread_([this] { work(); }) { }

StudyJob::~StudyJob()
{
    {
        const std::lock_guard lock(mutex_);
        ending_ = true;
        unwanted_ = true;
    }
    changed_.notify_all();
    thread_.join();
}

void StudyJob::begin()
{
    {
        const std::lock_guard lock(mutex_);
        notBefore_ = {};
    }
    changed_.notify_all();
}

void StudyJob::ask(std::shared_ptr<const Build> build, StudyOf of, Start start)
{
    {
        const std::lock_guard lock(mutex_);
        notBefore_ = start == Start::AtOnce ? std::chrono::steady_clock::time_point() : std::chrono::steady_clock::now() + toDraw;
        wanted_ = std::move(build);
        of_ = std::move(of);
        unwanted_ = true;
        answered_ = complete_ = false;
        done_.reset();
        wrong_ = nullptr;
    }
    changed_.notify_all();
}

bool StudyJob::wait(Milliseconds most)
{
    std::unique_lock lock(mutex_);
    ++waiting_;
    changed_.notify_all();
    const bool done = changed_.wait_for(lock, most, [this] { return answered_; });
    --waiting_;
    return done;
}

std::chrono::steady_clock::duration StudyJob::usual()
{
    const std::lock_guard lock(mutex_);
    return of_.remedies == Remedies::LeftOut ? light_ : full_;
}

void StudyJob::finish()
{
    std::unique_lock lock(mutex_);
    ++waiting_;
    changed_.notify_all();
    changed_.wait(lock, [this] { return complete_; });
    --waiting_;
}

std::shared_ptr<const Study> StudyJob::last()
{
    const std::lock_guard lock(mutex_);
    return last_;
}

std::shared_ptr<const Study> StudyJob::take()
{
    const std::lock_guard lock(mutex_);
    if (auto wrong = std::exchange(wrong_, nullptr))
        std::rethrow_exception(wrong);
    return std::exchange(done_, nullptr);
}

void StudyJob::deliver(std::shared_ptr<const Study> study, std::exception_ptr wrong, bool all)
{
    if (unwanted_)
        return;
    done_ = std::move(study);
    wrong_ = wrong;
    complete_ = all || wrong;
    answered_ = complete_ || of_.remedies == Remedies::LeftOut;
    changed_.notify_all();
    emit ready();
}

void StudyJob::work()
{
    // The window comes first; threads that a study begins inherit it.
    setpriority(PRIO_PROCESS, static_cast<id_t>(gettid()), niceness);
    std::unique_lock lock(mutex_);
    while (true) {
        changed_.wait(lock, [this] { return ending_ || wanted_; });
        while (!ending_ && waiting_ == 0 && std::chrono::steady_clock::now() < notBefore_)
            changed_.wait_until(lock, notBefore_);
        if (ending_)
            return;
        const auto build = std::exchange(wanted_, nullptr);
        auto of = of_;
        unwanted_ = false;
        const bool inTwo = of.remedies == Remedies::LeftOut || full_ > inOne;
        lock.unlock();
        try {
            for (const auto remedies : { Remedies::LeftOut, Remedies::Sought }) {
                if (remedies == Remedies::LeftOut && !inTwo)
                    continue;
                of.remedies = remedies;
                if (inTwo && remedies == Remedies::Sought) {
                    std::unique_lock resting(mutex_);
                    changed_.wait_for(resting, rest, [this] { return ending_ || wanted_ || waiting_ > 0; });
                    if (ending_ || wanted_)
                        break;
                }
                const auto begun = std::chrono::steady_clock::now();
                of.last = last();
                auto study = deepstop::study(build, of, unwanted_);
                if (!study)
                    break;
                const std::lock_guard timed(mutex_);
                last_ = std::make_shared<const Study>(*std::move(study));
                (remedies == Remedies::LeftOut ? light_ : full_) = std::chrono::steady_clock::now() - begun;
                deliver(last_, nullptr, remedies == Remedies::Sought);
            }
        } catch (...) {
            const std::lock_guard failed(mutex_);
            deliver(nullptr, std::current_exception(), true);
        }
        lock.lock();
    }
}

} // namespace deepstop::app
