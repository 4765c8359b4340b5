#pragma once
/// One program at a time on one file. The lock is a hidden file beside it that says who has it; the system lets it go when its holder
/// ends, however it ends, so a lock left behind by a crash counts for nothing.

#include "files/refusal.hpp"

#include <chrono>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>

namespace deepstop::files {

/// Who holds a lock.
struct Holder {
    std::string program;
    long process = 0;
    std::string host;
    std::string since; ///< local time, "2026-11-26 08:04"
    /// "Deep Stop (process 4711 on garage) since 2026-11-26 08:04"
    [[nodiscard]] std::string inWords() const;
};

class Lock {
public:
    Lock();
    ~Lock();
    Lock(Lock&&) noexcept;
    Lock& operator=(Lock&&) noexcept;

    /// Tries to lock `path`, which need not exist, for at most `patience`.
    /// @return empty where somebody else has it: `other` then says who. Where the folder cannot be written in, or its file system knows
    ///         no locks, a lock that holds nothing: nobody can save there either way.
    [[nodiscard]] static std::optional<Lock> take(
        const std::filesystem::path& path, std::chrono::milliseconds patience = {}, Holder* other = nullptr);
    /// True while it keeps others out.
    [[nodiscard]] bool holds() const { return held_ != nullptr; }
    void release();

private:
    struct Held;
    std::unique_ptr<Held> held_;
};

/// As `Lock::take`; throws Refusal naming the holder when the patience is over.
[[nodiscard]] Lock lockOrRefuse(const std::filesystem::path& path, std::chrono::milliseconds patience);

} // namespace deepstop::files
