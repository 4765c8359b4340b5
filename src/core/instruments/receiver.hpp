#pragma once
/// A simulated satellite receiver in a car that drives stops, or an hour of traffic: NMEA 0183 as it would come down the wire.

#include <cstdint>
#include <random>
#include <string>
#include <vector>

namespace deepstop::instruments {

/// One stop or slow-down to be driven. SI.
struct PlannedStop {
    double speed; ///< m/s
    double deceleration; ///< m/s²
    double buildUp = 0; ///< s in which it comes to that, straight
    double to = 0; ///< m/s at which it ends
    double driveOn = 5; ///< s for which that is then held
};

struct ReceiverScene {
    double rate = 10; ///< moments a second, 1 to 25
    double noise = 0; ///< of the speed, standard deviation, m/s
    double lag = 0; ///< s by which it trails, first order
    double dropOuts = 0; ///< part of the moments that are lost, each for half a second or so
    std::vector<PlannedStop> stops {};
    double traffic = 0; ///< s of hills, corners and traffic without a hard stop instead
    std::uint32_t seed = 1;
};

/// The same scene gives the same bytes.
class Receiver {
public:
    explicit Receiver(const ReceiverScene& scene);
    [[nodiscard]] double duration() const { return course_.back().time; }
    /// True speed at a time, m/s.
    [[nodiscard]] double speedAt(double time) const;
    /// The sentences of the next moment (RMC, VTG, GGA), each with its end; empty where it was lost. Moments lie 1/rate apart.
    [[nodiscard]] std::string next();
    [[nodiscard]] bool over() const { return time_ > duration(); }
    /// Time of the next moment.
    [[nodiscard]] double time() const { return time_; }
    /// True distance of each stop that was planned, from the first touch to its end, m.
    [[nodiscard]] const std::vector<double>& distances() const { return distances_; }

private:
    struct Point {
        double time;
        double speed;
    };
    void go(double speed, double acceleration);
    void hold(double seconds);
    void planStops(const std::vector<PlannedStop>& stops);
    void planTraffic(double seconds);

    ReceiverScene scene_;
    std::vector<Point> course_ { { 0, 0 } };
    std::vector<double> distances_;
    std::mt19937 dice_;
    std::normal_distribution<double> wander_;
    double time_ = 0;
    double shown_ = 0; ///< speed as it trails
    double gone_ = 0; ///< m
    double lostUntil_ = -1;
    std::size_t at_ = 0;
};

/// A sentence with its dollar, star, checksum and end.
[[nodiscard]] std::string nmeaSentence(const std::string& body);

} // namespace deepstop::instruments
