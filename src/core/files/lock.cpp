#include "files/lock.hpp"

#include "files/descriptor.hpp"
#include "files/disk.hpp"
#include "language/language.hpp"

#include <array>
#include <charconv>
#include <ctime>
#include <fcntl.h>
#include <sys/file.h>
#include <thread>
#include <vector>

namespace deepstop::files {
namespace {

std::filesystem::path lockFileOf(const std::filesystem::path& path)
{
    const auto target = targetOf(path);
    return target.parent_path() / ("." + target.filename().string() + ".lock");
}

std::string nowInWords()
{
    const std::time_t now = std::time(nullptr);
    std::tm local {};
    std::array<char, 32> text {};
    std::strftime(text.data(), text.size(), "%Y-%m-%d %H:%M", localtime_r(&now, &local));
    return text.data();
}

std::string hostName()
{
    std::array<char, 128> name {};
    ::gethostname(name.data(), name.size() - 1);
    return name.data();
}

/// Four lines: program, process, host, since.
std::string cardOfThisProcess() { return fmt::format("Deep Stop\n{}\n{}\n{}\n", ::getpid(), hostName(), nowInWords()); }

Holder holderOn(int fd)
{
    std::array<char, 512> bytes {};
    const auto got = ::pread(fd, bytes.data(), bytes.size(), 0);
    std::vector<std::string> lines(1);
    for (ssize_t i = 0; i < got; ++i)
        if (bytes[static_cast<std::size_t>(i)] == '\n')
            lines.emplace_back();
        else
            lines.back() += bytes[static_cast<std::size_t>(i)];
    lines.resize(4);
    Holder holder { onOneLine(lines[0]), 0, onOneLine(lines[2]), onOneLine(lines[3]) };
    std::from_chars(lines[1].data(), lines[1].data() + lines[1].size(), holder.process);
    return holder;
}

} // namespace

struct Lock::Held {
    Descriptor file;
    std::filesystem::path name;
};

std::string Holder::inWords() const
{
    return program.empty() ? std::string(tr("another program")) : tr("{} (process {} on {}) since {}", program, process, host, since);
}

Lock::Lock() = default;
Lock::~Lock() { release(); }
Lock::Lock(Lock&&) noexcept = default;
Lock& Lock::operator=(Lock&& o) noexcept
{
    release();
    held_ = std::move(o.held_);
    return *this;
}

void Lock::release()
{
    if (!held_)
        return;
    // Taken away while still held, so that nobody locks a name that is about to go.
    if (isStill(held_->file, held_->name))
        ::unlink(held_->name.c_str());
    held_.reset();
}

std::optional<Lock> Lock::take(const std::filesystem::path& path, std::chrono::milliseconds patience, Holder* other)
{
    using namespace std::chrono_literals;
    const auto name = lockFileOf(path);
    const auto until = std::chrono::steady_clock::now() + patience;
    for (;;) {
        Descriptor file(::open(name.c_str(), O_RDWR | O_CREAT | O_CLOEXEC | O_NOFOLLOW | O_NONBLOCK, 0666));
        if (file.get() < 0)
            return Lock {};
        if (::flock(file.get(), LOCK_EX | LOCK_NB) == 0) {
            if (!isStill(file, name))
                continue; // the holder before took the name away between the two
            Lock lock;
            if (::ftruncate(file.get(), 0) == 0)
                (void)writeAll(file.get(), cardOfThisProcess()); // a full disk only leaves the holder unnamed
            lock.held_ = std::make_unique<Held>(Held { std::move(file), name });
            return lock;
        }
        if (errno != EWOULDBLOCK)
            return Lock {};
        if (std::chrono::steady_clock::now() >= until) {
            if (other)
                *other = holderOn(file.get());
            return {};
        }
        std::this_thread::sleep_for(10ms);
    }
}

Lock lockOrRefuse(const std::filesystem::path& path, std::chrono::milliseconds patience)
{
    Holder other;
    auto lock = Lock::take(path, patience, &other);
    if (!lock)
        throw Refusal(tr("{}: is in use by {}. Try again when that is done.", path.string(), other.inWords()));
    return std::move(*lock);
}

} // namespace deepstop::files
