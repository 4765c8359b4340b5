#pragma once
/// Cancelling work on another thread. The sums take no flag: whoever starts them binds one to the thread for a scope, and the places that
/// take long look at it.

#include <atomic>

namespace deepstop {

/// Thrown by `endIfCancelled`; whoever bound the flag catches it. No error: nothing went wrong.
struct Cancelled { };

/// Binds a flag to this thread while it lives. Threads that work starts take over the flag of the one that starts them.
class CancelScope {
public:
    explicit CancelScope(const std::atomic<bool>* flag) : before_(current_) { current_ = flag; }
    ~CancelScope() { current_ = before_; }
    CancelScope(const CancelScope&) = delete;
    CancelScope& operator=(const CancelScope&) = delete;
    /// The flag bound here, for a thread that is started; null where none is.
    [[nodiscard]] static const std::atomic<bool>* flag() { return current_; }

private:
    static inline thread_local const std::atomic<bool>* current_ = nullptr;
    const std::atomic<bool>* before_;
};

[[nodiscard]] inline bool isCancelled() { return CancelScope::flag() && CancelScope::flag()->load(std::memory_order_relaxed); }

/// Throws Cancelled once the flag bound to this thread is true. Costs a load; for every evaluation, step and draw.
inline void endIfCancelled()
{
    if (isCancelled())
        throw Cancelled {};
}

} // namespace deepstop
