#pragma once
/// Inside files/: a file descriptor that closes itself, and refusals with the system's reason.

#include "files/refusal.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <cerrno>
#include <filesystem>
#include <string_view>
#include <system_error>
#include <unistd.h>
#include <utility>

namespace deepstop::files {

class Descriptor {
public:
    explicit Descriptor(int fd) : fd_(fd) { }
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    Descriptor(Descriptor&& o) noexcept : fd_(std::exchange(o.fd_, -1)) { }
    Descriptor& operator=(Descriptor&& o) noexcept
    {
        std::swap(fd_, o.fd_);
        return *this;
    }
    ~Descriptor()
    {
        if (fd_ >= 0)
            ::close(fd_);
    }
    [[nodiscard]] int get() const { return fd_; }

private:
    int fd_;
};

/// "PATH: cannot be saved: No space left on device."
[[noreturn]] inline void refuseWith(int reason, const std::filesystem::path& path, std::string_view doing)
{
    throw Refusal(tr("{}: cannot be {}: {}.", path.string(), doing, std::generic_category().message(reason)));
}

/// Whether the name still leads to the file that is open.
[[nodiscard]] bool isStill(const Descriptor& file, const std::filesystem::path& name);

/// Writes all bytes; false, with errno, where the system takes no more.
[[nodiscard]] bool writeAll(int fd, std::string_view bytes);

} // namespace deepstop::files
