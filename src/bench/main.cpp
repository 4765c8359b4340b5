/// deepstop-bench: simulated instruments that send lines over a pseudo-terminal or TCP on this machine.

#include "instruments/simulated.hpp"

#include <CLI/CLI.hpp>

#include <arpa/inet.h>
#include <fcntl.h>
#include <netinet/in.h>
#include <poll.h>
#include <stdlib.h>
#include <sys/socket.h>
#include <termios.h>
#include <unistd.h>

#include <chrono>
#include <csignal>
#include <cstring>
#include <cstdio>
#include <iostream>

using namespace deepstop::instruments;

namespace {

constexpr int refused = 2;

/// A pseudo-terminal's own end; says where the other one is.
int openTerminal(std::string& name)
{
    const int end = posix_openpt(O_RDWR | O_NOCTTY);
    if (end < 0 || grantpt(end) != 0 || unlockpt(end) != 0)
        throw std::runtime_error(std::string("no pseudo-terminal: ") + std::strerror(errno));
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
        throw std::runtime_error("port " + std::to_string(port) + ": " + std::strerror(errno));
    getsockname(socket, reinterpret_cast<sockaddr*>(&address), &size);
    got = ntohs(address.sin_port);
    return socket;
}

} // namespace

int main(int argc, char** argv)
{
    CLI::App app { "Simulated instruments for Deep Stop: a vernier, a scale, a dial gauge or a thermometer.\n"
                   "The protocol is described in docs/instruments.md." };
    Scene scene;
    int port = -1;
    double rate = 10;
    double seconds = 0;
    bool flood = false;
    double stallAfter = 0;
    std::string values;
    app.add_option("INSTRUMENT", scene.instrument, "vernier, scale, dial-gauge or thermometer")->required();
    app.add_option("--tcp", port, "listen on this port of 127.0.0.1 (0: any) instead of a pseudo-terminal");
    app.add_option("--values", scene.values, "values one after another, in mm, kg or °C; the next comes when the reading was taken")->delimiter(',');
    app.add_option("--noise", scene.noise, "standard deviation");
    app.add_option("--drift", scene.drift, "per second");
    app.add_option("--drop-outs", scene.dropOuts, "part of the lines that never come, 0 to 1");
    app.add_option("--half-lines", scene.halfLines, "part of the lines that break off, 0 to 1");
    app.add_option("--settling", scene.settling, "seconds until a value is stable");
    app.add_option("--turn", scene.turn, "dial gauge: seconds for one turn");
    app.add_option("--wobble", scene.wobble, "dial gauge: first harmonic, mm");
    app.add_option("--warp", scene.warp, "dial gauge: second harmonic, mm");
    app.add_option("--seed", scene.seed, "of noise and drop-outs");
    app.add_option("--rate", rate, "lines a second")->check(CLI::PositiveNumber);
    app.add_flag("--flood", flood, "send as fast as the line takes it");
    app.add_option("--stall-after", stallAfter, "seconds after which nothing more comes");
    app.add_option("--for", seconds, "seconds after which it vanishes");
    CLI11_PARSE(app, argc, argv);
    if (!kindOf(scene.instrument)) {
        std::cerr << "deepstop-bench: “" << scene.instrument << "”: vernier, scale, dial-gauge or thermometer is wanted.\n";
        return refused;
    }
    std::signal(SIGPIPE, SIG_IGN);
    try {
        int end = -1;
        int listening = -1;
        if (port >= 0) {
            std::uint16_t got = 0;
            listening = listenOn(static_cast<std::uint16_t>(port), got);
            std::cout << "127.0.0.1:" << got << std::endl;
        } else {
            std::string name;
            end = openTerminal(name);
            std::cout << name << std::endl;
        }
        Simulated instrument(scene);
        const auto begin = std::chrono::steady_clock::now();
        const auto now = [&] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count(); };
        std::string heard;
        for (double due = 0; seconds <= 0 || now() < seconds;) {
            pollfd wait { end >= 0 ? end : listening, POLLIN, 0 };
            const int patience = flood && end >= 0 ? 0 : std::max(0, static_cast<int>((due - now()) * 1000));
            if (poll(&wait, 1, end >= 0 ? patience : 100) > 0) {
                if (end < 0) {
                    end = accept(listening, nullptr, nullptr);
                    due = now();
                    continue;
                }
                char bytes[256];
                const auto count = read(end, bytes, sizeof bytes);
                if (count <= 0 && listening >= 0) {
                    close(end);
                    end = -1;
                    continue;
                }
                heard.append(bytes, static_cast<std::size_t>(std::max<ssize_t>(0, count)));
                for (auto line = heard.find('\n'); line != std::string::npos; line = heard.find('\n')) {
                    if (heard.substr(0, line) == "taken")
                        instrument.next(now());
                    heard.erase(0, line + 1);
                }
                if (heard.size() > 1000)
                    heard.clear();
            }
            if (end < 0 || (now() < due && !flood) || (stallAfter > 0 && now() > stallAfter))
                continue;
            const auto line = instrument.at(now());
            if (!line.empty() && write(end, line.data(), line.size()) < 0 && listening >= 0) {
                close(end);
                end = -1;
            }
            due = now() + 1 / rate;
        }
        return 0;
    } catch (const std::runtime_error& error) {
        std::cerr << "deepstop-bench: " << error.what() << "\n";
        return refused;
    }
}
