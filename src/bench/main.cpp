/// deepstop-bench: simulated instruments that send lines over a pseudo-terminal or TCP on this machine.

#include "cli/table.hpp"
#include "instruments/receiver.hpp"
#include "instruments/simulated.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "version.hpp"

#include <CLI/CLI.hpp>

#include <arpa/inet.h>
#include <fcntl.h>
#include <netinet/in.h>
#include <poll.h>
#include <stdlib.h>
#include <sys/socket.h>
#include <termios.h>
#include <unistd.h>

#include <array>
#include <chrono>
#include <cmath>
#include <csignal>
#include <cstring>
#include <cstdio>
#include <iostream>

using namespace deepstop::instruments;
using deepstop::tr;

namespace {

constexpr int refused = 2;
constexpr double longestWait = 0.1; ///< s, so that it ends in time
constexpr std::size_t mostHeard = 1000;

/// A pseudo-terminal's own end; says where the other one is.
int openTerminal(std::string& name)
{
    const int end = posix_openpt(O_RDWR | O_NOCTTY | O_NONBLOCK);
    if (end < 0 || grantpt(end) != 0 || unlockpt(end) != 0)
        throw std::runtime_error(tr("no pseudo-terminal: {}", std::strerror(errno)));
    name = ptsname(end);
    // Bytes as they are: no echo, no translation.
    termios line {};
    tcgetattr(end, &line);
    cfmakeraw(&line);
    tcsetattr(end, TCSANOW, &line);
    // Held open, so that the terminal lasts from one listener to the next.
    (void)::open(name.c_str(), O_RDWR | O_NOCTTY);
    return end;
}

/// A listening socket on this machine only; says which port it got.
int listenOn(std::uint16_t port, std::uint16_t& got)
{
    const int socket = ::socket(AF_INET, SOCK_STREAM, 0);
    const int on = 1;
    setsockopt(socket, SOL_SOCKET, SO_REUSEADDR, &on, sizeof on);
    sockaddr_in address {};
    address.sin_family = AF_INET;
    address.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
    address.sin_port = htons(port);
    socklen_t size = sizeof address;
    if (bind(socket, reinterpret_cast<sockaddr*>(&address), size) != 0 || listen(socket, 1) != 0)
        throw std::runtime_error(tr("port {}: {}", std::to_string(port), std::strerror(errno)));
    getsockname(socket, reinterpret_cast<sockaddr*>(&address), &size);
    got = ntohs(address.sin_port);
    return socket;
}

/// What the command line asks for.
struct Wanted {
    Scene scene;
    int port = -1;
    double rate = 10;
    double seconds = 0;
    bool flood = false;
    double stallAfter = 0;
    ReceiverScene road;
    PlannedStop stop { 100, 8 };
    int stops = 5;

    [[nodiscard]] bool drives() const { return scene.instrument == "receiver"; }
};

void addOptions(CLI::App& app, Wanted& wanted)
{
    app.add_option("INSTRUMENT", wanted.scene.instrument, tr("vernier, scale, dial-gauge, thermometer or receiver"))->required();
    app.add_option("--tcp", wanted.port, tr("listen on this port of 127.0.0.1 (0: any) instead of a pseudo-terminal"))
        ->check(CLI::Range(0, 65535));
    app.add_option(
           "--values", wanted.scene.values, tr("values one after another, in mm, kg or °C; the next comes when the reading was taken"))
        ->delimiter(',');
    app.add_option("--noise", wanted.scene.noise, tr("standard deviation"))->check(CLI::NonNegativeNumber);
    app.add_option("--drift", wanted.scene.drift, tr("per second"));
    app.add_option("--drop-outs", wanted.scene.dropOuts, tr("part of the lines that never come, 0 to 1"))->check(CLI::Range(0.0, 1.0));
    app.add_option("--half-lines", wanted.scene.halfLines, tr("part of the lines that break off, 0 to 1"))->check(CLI::Range(0.0, 1.0));
    app.add_option("--settling", wanted.scene.settling, tr("seconds until a value is stable"))->check(CLI::NonNegativeNumber);
    app.add_option("--speed", wanted.stop.speed, tr("receiver: km/h it stops from"))->check(CLI::Range(20.0, 300.0));
    app.add_option("--deceleration", wanted.stop.deceleration, tr("receiver: of each stop, m/s²"))->check(CLI::Range(1.0, 15.0));
    app.add_option("--build-up", wanted.stop.buildUp, tr("receiver: seconds until it has that"))->check(CLI::Range(0.0, 2.0));
    app.add_option("--to", wanted.stop.to, tr("receiver: km/h it slows down to instead of stopping"))->check(CLI::Range(0.0, 200.0));
    app.add_option("--drive-on", wanted.stop.driveOn, tr("receiver: seconds for which it then holds that"))->check(CLI::Range(0.0, 3600.0));
    app.add_option("--stops", wanted.stops, tr("receiver: how many it drives"))->check(CLI::Range(1, 1000));
    app.add_option("--lag", wanted.road.lag, tr("receiver: seconds by which it trails"))->check(CLI::Range(0.0, 5.0));
    app.add_option("--traffic", wanted.road.traffic, tr("receiver: seconds of traffic instead of stops"))->check(CLI::Range(0.0, 86400.0));
    app.add_option("--turn", wanted.scene.turn, tr("dial gauge: seconds for one turn"))->check(CLI::PositiveNumber);
    app.add_option("--wobble", wanted.scene.wobble, tr("dial gauge: first harmonic, mm"));
    app.add_option("--warp", wanted.scene.warp, tr("dial gauge: second harmonic, mm"));
    app.add_option("--seed", wanted.scene.seed, tr("of noise and drop-outs"));
    app.add_option("--rate", wanted.rate, tr("lines a second"))->check(CLI::Range(0.01, 10000.0));
    app.add_flag("--flood", wanted.flood, tr("send as fast as the line takes it"));
    app.add_option("--stall-after", wanted.stallAfter, tr("seconds of its readings, at --rate, after which nothing more comes"))
        ->check(CLI::NonNegativeNumber);
    app.add_option("--for", wanted.seconds, tr("seconds after which it vanishes"))->check(CLI::NonNegativeNumber);
}

/// The receiver's drive, from the options; what does not go together is refused.
ReceiverScene roadOf(const Wanted& wanted)
{
    if (wanted.drives() && (wanted.rate < 1 || wanted.rate > 25))
        throw std::runtime_error(tr("--rate: a receiver tells of 1 to 25 moments a second."));
    PlannedStop stop = wanted.stop;
    stop.speed /= 3.6;
    stop.to /= 3.6;
    if (stop.to >= stop.speed)
        throw std::runtime_error(tr("--to: slower than --speed is wanted."));
    ReceiverScene road = wanted.road;
    road.rate = wanted.rate;
    road.noise = wanted.scene.noise;
    road.dropOuts = wanted.scene.dropOuts;
    road.seed = wanted.scene.seed;
    road.stops.assign(static_cast<std::size_t>(wanted.stops), stop);
    return road;
}

/// The line to whoever listens, and the instrument at this end of it.
class Line {
public:
    Line(const Wanted& wanted, int end, int listening)
        : wanted_(wanted), end_(end), listening_(listening), instrument_(wanted.drives() ? Scene {} : wanted.scene),
          receiver_(roadOf(wanted))
    {
    }

    void run()
    {
        while ((wanted_.seconds <= 0 || now() < wanted_.seconds) && !gone_) {
            // By what was told, not by a clock: a busy machine stalls it at the same place of its drive.
            const bool stalled = wanted_.stallAfter > 0 && static_cast<double>(told_) / wanted_.rate >= wanted_.stallAfter;
            const short came = waitFor(stalled);
            if (end_ < 0) {
                if (came & POLLIN) {
                    end_ = accept4(listening_, nullptr, nullptr, SOCK_NONBLOCK | SOCK_CLOEXEC);
                    due_ = now();
                }
                continue;
            }
            if ((came & (POLLIN | POLLHUP | POLLERR)) && !hear())
                continue;
            if (!stalled && waiting_.empty() && (wanted_.flood || now() >= due_)) {
                waiting_ = wanted_.drives() ? receiver_.next() : instrument_.at(now());
                due_ = now() + 1 / wanted_.rate;
                ++told_;
            }
            send();
        }
    }

private:
    [[nodiscard]] double now() const { return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin_).count(); }

    short waitFor(bool stalled)
    {
        const bool listens = end_ < 0;
        pollfd wait { listens ? listening_ : end_, static_cast<short>(POLLIN | (!listens && !waiting_.empty() ? POLLOUT : 0)), 0 };
        // Nothing is due while it is stalled or while nobody takes what is waiting.
        const double rest = wanted_.flood && !listens && !stalled && waiting_.empty() ? 0
            : listens || stalled || !waiting_.empty()                                 ? longestWait
                                                                                      : std::clamp(due_ - now(), 0.0, longestWait);
        if (poll(&wait, 1, static_cast<int>(std::ceil(rest * 1000))) < 0 && errno != EINTR)
            throw std::runtime_error(tr("cannot wait: {}", std::strerror(errno)));
        return wait.revents;
    }

    void hangUp()
    {
        // A terminal that is gone does not come back.
        gone_ = listening_ < 0;
        close(end_);
        end_ = -1;
        waiting_.clear();
    }

    /// What the listener says. False where it is gone.
    bool hear()
    {
        std::array<char, 256> bytes {};
        const auto count = read(end_, bytes.data(), bytes.size());
        if (count == 0 || (count < 0 && errno != EAGAIN && errno != EINTR)) {
            hangUp();
            return false;
        }
        heard_.append(bytes.data(), static_cast<std::size_t>(std::max<ssize_t>(0, count)));
        for (auto line = heard_.find('\n'); line != std::string::npos; line = heard_.find('\n')) {
            if (heard_.substr(0, line) == "taken")
                instrument_.next(now());
            heard_.erase(0, line + 1);
        }
        if (heard_.size() > mostHeard)
            heard_.clear();
        return true;
    }

    /// A line nobody reads fills up; the instrument goes on measuring and does not wait for it.
    void send()
    {
        if (waiting_.empty())
            return;
        const auto wrote = write(end_, waiting_.data(), waiting_.size());
        if (wrote > 0)
            waiting_.erase(0, static_cast<std::size_t>(wrote));
        else if (wrote < 0 && errno != EAGAIN && errno != EINTR)
            hangUp();
    }

    const Wanted& wanted_;
    int end_;
    int listening_;
    Simulated instrument_;
    Receiver receiver_;
    std::chrono::steady_clock::time_point begin_ = std::chrono::steady_clock::now();
    double due_ = 0;
    long told_ = 0; ///< moments told of
    bool gone_ = false;
    std::string heard_;
    std::string waiting_; ///< bytes the line has not taken yet
};

} // namespace

int main(int argc, char** argv)
{
    if (argc < 2 || std::string_view(argv[1]) != "--manual")
        deepstop::openCatalogue();
    CLI::App app { tr("Simulated instruments for Deep Stop: a vernier, a scale, a dial gauge, a thermometer,\n"
                      "or a satellite receiver in a car that drives stops (NMEA 0183).\n"
                      "The protocol is described in docs/instruments.md.") };
    Wanted wanted;
    addOptions(app, wanted);
    app.set_version_flag("--version", versionText);
    if (argc == 3 && std::string_view(argv[1]) == "--manual") {
        namespace manual = deepstop::manual;
        std::cout << manual::manualOf(
            { manual::tableOf(app, "deepstop-bench"), versionNumber, manual::written(versionDate),
                tr("simulated instruments for Deep Stop"),
                { tr("Sends readings as a vernier, a scale, a dial gauge, a thermometer or a satellite receiver does, over a "
                     "pseudo-terminal or TCP on this machine, so that everything can be tried without hardware.") },
                { { "0", tr("It sent what was wanted.") }, { "2", tr("Bad input; one line on standard error says where.") } }, {},
                { "deepstop", "deepstop-cli" } },
            argv[2]);
        return 0;
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::Success& asked) {
        return app.exit(asked);
    } catch (const CLI::ParseError& error) {
        std::cerr << tr("deepstop-bench: {} See deepstop-bench --help.\n", deepstop::onOneLine(error.what()));
        return refused;
    }
    if (!wanted.drives() && !kindOf(wanted.scene.instrument)) {
        std::cerr << tr("deepstop-bench: “{}”: vernier, scale, dial-gauge, thermometer or receiver is wanted.\n",
            deepstop::shortened(wanted.scene.instrument));
        return refused;
    }
    std::signal(SIGPIPE, SIG_IGN);
    try {
        int end = -1;
        int listening = -1;
        if (wanted.port >= 0) {
            std::uint16_t got = 0;
            listening = listenOn(static_cast<std::uint16_t>(wanted.port), got);
            std::cout << "127.0.0.1:" << got << std::endl;
        } else {
            std::string name;
            end = openTerminal(name);
            std::cout << name << std::endl;
        }
        Line(wanted, end, listening).run();
        return 0;
    } catch (const std::runtime_error& error) {
        std::cerr << "deepstop-bench: " << error.what() << "\n";
        return refused;
    }
}
