#include "files/disk.hpp"

#include <fmt/format.h>

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace deepstop::files {
namespace {

[[noreturn]] void refuse(const std::filesystem::path& path, std::string_view doing)
{
    const int reason = errno;
    throw Refusal(fmt::format("{}: cannot be {}: {}.", path.string(), doing, std::strerror(reason)));
}

class Descriptor {
public:
    explicit Descriptor(int fd) : fd_(fd) { }
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    ~Descriptor()
    {
        if (fd_ >= 0)
            ::close(fd_);
    }
    [[nodiscard]] int get() const { return fd_; }

private:
    int fd_;
};

/// Removes a half-written temporary unless told that it has been put in place.
struct Temporary {
    std::string path;
    bool placed = false;
    ~Temporary()
    {
        if (!placed)
            ::unlink(path.c_str());
    }
};

} // namespace

std::string readFile(const std::filesystem::path& path, std::uintmax_t limit)
{
    const Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
    if (file.get() < 0)
        refuse(path, "opened");
    struct stat about { };
    if (::fstat(file.get(), &about) != 0)
        refuse(path, "read");
    if (!S_ISREG(about.st_mode))
        throw Refusal(fmt::format("{}: is not a file.", path.string()));
    if (static_cast<std::uintmax_t>(about.st_size) > limit)
        throw Refusal(fmt::format("{}: is {} MB; a build file has at most {} MB. This is some other file.", path.string(),
            about.st_size >> 20, limit >> 20));
    std::string bytes(static_cast<std::size_t>(about.st_size), '\0');
    std::size_t have = 0;
    while (have < bytes.size()) {
        const auto got = ::read(file.get(), bytes.data() + have, bytes.size() - have);
        if (got < 0 && errno == EINTR)
            continue;
        if (got < 0)
            refuse(path, "read");
        if (got == 0)
            break;
        have += static_cast<std::size_t>(got);
    }
    bytes.resize(have);
    return bytes;
}

void replaceFile(const std::filesystem::path& path, std::string_view bytes)
{
    std::error_code ignored;
    const auto target = std::filesystem::is_symlink(path, ignored) ? std::filesystem::weakly_canonical(path) : path;
    std::string pattern = target.string() + ".XXXXXX";
    const Descriptor file(::mkostemp(pattern.data(), O_CLOEXEC));
    if (file.get() < 0)
        refuse(path, "saved");
    Temporary temporary { pattern };
    struct stat before { };
    const bool existed = ::stat(target.c_str(), &before) == 0;
    if (existed) {
        ::fchmod(file.get(), before.st_mode & 07777);
    } else {
        const mode_t mask = ::umask(0);
        ::umask(mask);
        ::fchmod(file.get(), 0666 & ~mask);
    }
    for (std::size_t done = 0; done < bytes.size();) {
        const auto wrote = ::write(file.get(), bytes.data() + done, bytes.size() - done);
        if (wrote < 0 && errno == EINTR)
            continue;
        if (wrote <= 0)
            refuse(path, "saved");
        done += static_cast<std::size_t>(wrote);
    }
    if (::fsync(file.get()) != 0)
        refuse(path, "saved");
    if (existed) {
        // A second name for the old version first: the old name never stops to exist.
        const std::string kept = target.string() + "~";
        const std::string keptNew = pattern + "~";
        if (::link(target.c_str(), keptNew.c_str()) == 0) {
            if (::rename(keptNew.c_str(), kept.c_str()) != 0)
                ::unlink(keptNew.c_str());
            // rename() between two names of one file does nothing and leaves both.
            ::unlink(keptNew.c_str());
        } else {
            std::filesystem::copy_file(target, kept, std::filesystem::copy_options::overwrite_existing, ignored);
        }
    }
    if (::rename(pattern.c_str(), target.c_str()) != 0)
        refuse(path, "saved");
    temporary.placed = true;
    const auto folder = target.has_parent_path() ? target.parent_path() : std::filesystem::path(".");
    const Descriptor directory(::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (directory.get() >= 0)
        ::fsync(directory.get());
}

} // namespace deepstop::files
