#pragma once
/// Simulated instruments, for trying everything without hardware: what a vernier, a scale, a dial gauge and a thermometer would send.

#include <optional>
#include <random>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::instruments {

/// What is on the simulated bench and how badly it behaves.
struct Scene {
    std::string instrument = "vernier"; ///< vernier, scale, dial-gauge, thermometer
    std::vector<double> values {}; ///< one after another, in the instrument's own unit
    double noise = 0; ///< standard deviation, own unit
    double drift = 0; ///< own unit per second
    double dropOuts = 0; ///< part of the lines that never come
    double halfLines = 0; ///< part of the lines that break off
    double settling = 0.3; ///< seconds from one value to the next until it is stable
    double turn = 6; ///< of the dial gauge: seconds for one turn of the rotor
    double wobble = 0.04; ///< first harmonic under the dial gauge, largest less smallest, mm
    double warp = 0.012; ///< second harmonic, the same
    unsigned seed = 1;
};

/// Unit and decimals of an instrument by name; nothing for one that is not simulated.
struct Kind {
    std::string_view name;
    std::string_view unit;
    int decimals;
    double resting; ///< what it shows when no values were given
};
[[nodiscard]] std::optional<Kind> kindOf(std::string_view instrument);

/// The instrument's bytes over time. The same scene gives the same bytes.
class Simulated {
public:
    explicit Simulated(Scene scene);
    /// What it sends at `time`, seconds since it was switched on: a line, half a line, or nothing.
    [[nodiscard]] std::string at(double time);
    /// The reading was taken: goes on to the next value, and stays at the last.
    void next(double time);

private:
    Scene scene_;
    Kind kind_;
    std::mt19937 dice_;
    std::size_t index_ = 0;
    double since_ = 0;
};

} // namespace deepstop::instruments
