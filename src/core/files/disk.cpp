#include "files/disk.hpp"

#include "files/descriptor.hpp"
#include "language/language.hpp"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/mman.h>
#include <sys/stat.h>

#include <chrono>
#include <thread>

namespace deepstop::files {
namespace {

constexpr std::string_view unfinished = ".saving"; ///< of a name: being written
constexpr std::string_view kept = "~"; ///< of a name: the version before

std::filesystem::path with(const std::filesystem::path& path, std::string_view ending) { return path.string() + std::string(ending); }

std::string bytesOf(const Descriptor& file, const std::filesystem::path& path, std::size_t size)
{
    std::string bytes(size, '\0');
    std::size_t have = 0;
    while (have < bytes.size()) {
        const auto got = ::pread(file.get(), bytes.data() + have, bytes.size() - have, static_cast<off_t>(have));
        if (got < 0 && errno == EINTR)
            continue;
        if (got < 0)
            refuseWith(errno, path, "read");
        if (got == 0)
            break;
        have += static_cast<std::size_t>(got);
    }
    bytes.resize(have);
    return bytes;
}

/// Opens the name to write to, this process alone: whoever else writes there now is waited for, what somebody left there is taken over.
Descriptor openUnfinished(const std::filesystem::path& name, const std::filesystem::path& path, mode_t mode)
{
    using namespace std::chrono_literals;
    for (const auto until = std::chrono::steady_clock::now() + 5s; std::chrono::steady_clock::now() < until;) {
        Descriptor file(::open(name.c_str(), O_RDWR | O_CREAT | O_CLOEXEC | O_NOFOLLOW | O_NONBLOCK, mode));
        if (file.get() < 0)
            refuseWith(errno, path, "saved");
        // A file system without locks has to do without.
        if (::flock(file.get(), LOCK_EX | LOCK_NB) == 0 || errno != EWOULDBLOCK) {
            if (isStill(file, name))
                return file;
        } else {
            std::this_thread::sleep_for(5ms);
        }
    }
    throw Refusal(tr("{}: another program keeps writing it. Try again.", path.string()));
}

/// Gives the old version its second name; the first never stops to exist.
void keepOld(const std::filesystem::path& target)
{
    std::error_code ignored;
    const auto second = with(with(target, unfinished), kept);
    ::unlink(second.c_str());
    if (::link(target.c_str(), second.c_str()) == 0) {
        ::rename(second.c_str(), with(target, kept).c_str());
        // rename() between two names of one file does nothing and leaves both.
        ::unlink(second.c_str());
    } else {
        std::filesystem::copy_file(target, with(target, kept), std::filesystem::copy_options::overwrite_existing, ignored);
    }
}

/// Refuses what no file is to be put over.
void checkOld(const struct stat& old, const std::filesystem::path& path, const std::filesystem::path& target)
{
    if (S_ISDIR(old.st_mode))
        throw Refusal(tr("{}: is a folder. Give the name of a file in it.", path.string()));
    if (!S_ISREG(old.st_mode))
        throw Refusal(tr("{}: is a device or a pipe, not a file. Give the name of a file.", path.string()));
    if ((old.st_mode & 0222) == 0 || ::access(target.c_str(), W_OK) != 0)
        throw Refusal(tr("{}: is write-protected, so it is left as it is. Take the protection away, or give another name.", path.string()));
}

} // namespace

bool isStill(const Descriptor& file, const std::filesystem::path& name)
{
    struct stat open { };
    struct stat named { };
    return ::fstat(file.get(), &open) == 0 && ::stat(name.c_str(), &named) == 0 && open.st_ino == named.st_ino
        && open.st_dev == named.st_dev;
}

bool writeAll(int fd, std::string_view bytes)
{
    while (!bytes.empty()) {
        const auto wrote = ::write(fd, bytes.data(), bytes.size());
        if (wrote < 0 && errno == EINTR)
            continue;
        if (wrote <= 0)
            return false;
        bytes.remove_prefix(static_cast<std::size_t>(wrote));
    }
    return true;
}

std::string readFile(const std::filesystem::path& path, std::uintmax_t limit)
{
    const Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
    if (file.get() < 0)
        refuseWith(errno, path, "opened");
    struct stat about { };
    if (::fstat(file.get(), &about) != 0)
        refuseWith(errno, path, "read");
    if (!S_ISREG(about.st_mode))
        throw Refusal(tr("{}: is not a file.", path.string()));
    if (static_cast<std::uintmax_t>(about.st_size) > limit)
        throw Refusal(tr("{}: is {} MB; a file of this kind has at most {} MB. This is some other file.", path.string(),
            about.st_size >> 20, limit >> 20));
    return bytesOf(file, path, static_cast<std::size_t>(about.st_size));
}

std::filesystem::path targetOf(const std::filesystem::path& path)
{
    auto target = path;
    std::error_code none;
    constexpr int mostLinks = 40; // as the system itself
    for (int links = 0; std::filesystem::is_symlink(target, none); ++links) {
        if (links == mostLinks)
            throw Refusal(tr("{}: is a link that leads to itself. Give another name.", path.string()));
        const auto next = std::filesystem::read_symlink(target, none);
        if (none)
            throw Refusal(tr("{}: is a link that cannot be followed: {}.", path.string(), none.message()));
        target = next.is_absolute() ? next : target.parent_path() / next;
    }
    return target;
}

void replaceFile(const std::filesystem::path& path, std::string_view bytes, Privacy privacy)
{
    const auto target = targetOf(path);
    struct stat before { };
    const bool existed = ::stat(target.c_str(), &before) == 0;
    if (existed)
        checkOld(before, path, target);
    const auto name = with(target, unfinished);
    const bool alone = privacy == Privacy::OwnerAlone;
    const auto file = openUnfinished(name, path, alone ? 0600 : 0666);
    const auto giveUp = [&] {
        const int reason = errno;
        ::unlink(name.c_str());
        refuseWith(reason, path, "saved");
    };
    if (::ftruncate(file.get(), 0) != 0 || (alone && ::fchmod(file.get(), 0600) != 0)
        || (!alone && existed && ::fchmod(file.get(), before.st_mode & 07777) != 0) || !writeAll(file.get(), bytes)
        || ::fsync(file.get()) != 0)
        giveUp();
    if (existed)
        keepOld(target);
    if (::rename(name.c_str(), target.c_str()) != 0)
        giveUp();
    const auto folder = target.has_parent_path() ? target.parent_path() : std::filesystem::path(".");
    const Descriptor directory(::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (directory.get() >= 0)
        ::fsync(directory.get());
}

void removeLeftovers(const std::filesystem::path& path)
{
    const auto name = with(path, unfinished);
    const Descriptor file(::open(name.c_str(), O_RDWR | O_CLOEXEC | O_NOFOLLOW | O_NONBLOCK));
    if (file.get() >= 0 && ::flock(file.get(), LOCK_EX | LOCK_NB) == 0 && isStill(file, name))
        ::unlink(name.c_str());
    ::unlink(with(name, kept).c_str());
}

std::string writtenThrough(const std::function<bool(const char* path)>& write)
{
    const Descriptor file(::memfd_create("deepstop", MFD_CLOEXEC));
    if (file.get() < 0)
        refuseWith(errno, "memory", "written");
    const auto name = fmt::format("/proc/self/fd/{}", file.get());
    struct stat about { };
    if (!write(name.c_str()) || ::fstat(file.get(), &about) != 0)
        throw Refusal(tr("The file could not be made; there may be too little memory."));
    return bytesOf(file, name, static_cast<std::size_t>(about.st_size));
}

} // namespace deepstop::files
