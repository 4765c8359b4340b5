#pragma once
/// A loop on several threads.

#include "task/cancel.hpp"

#include <algorithm>
#include <atomic>
#include <cstddef>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace deepstop {

/// Calls `work(i)` once for every i below `count`, in no order, on `threads` threads (0: as many as the machine has), this one among them.
/// The flag bound here is bound on all of them. What `work` throws ends the loop: the first of it comes out here, when all threads have
/// ended.
template <class Work>
void parallelFor(std::size_t count, unsigned threads, const Work& work)
{
    std::atomic<std::size_t> next { 0 };
    std::exception_ptr wrong;
    std::mutex wrongMutex;
    const auto* flag = CancelScope::flag();
    const auto loop = [&]() noexcept {
        const CancelScope scope(flag);
        try {
            for (std::size_t i = next++; i < count; i = next++) {
                endIfCancelled();
                work(i);
            }
        } catch (...) {
            next = count;
            const std::lock_guard lock(wrongMutex);
            if (!wrong)
                wrong = std::current_exception();
        }
    };
    const std::size_t workers = std::min<std::size_t>(count, std::max(1u, threads ? threads : std::thread::hardware_concurrency()));
    std::vector<std::jthread> others;
    try {
        for (std::size_t i = 1; i < workers; ++i)
            others.emplace_back(loop);
    } catch (...) {
        // No more threads are to be had: those there are do it.
    }
    loop();
    others.clear();
    if (wrong)
        std::rethrow_exception(wrong);
}

} // namespace deepstop
