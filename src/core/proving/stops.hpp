#pragma once
/// Stops found in a course of speeds as it comes: where they begin and end, how long they are, and what the log is worth. SI; nothing
/// throws.

#include <deque>
#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace deepstop::proving {

/// One moment of a log.
struct Speed {
    double time; ///< s
    double speed; ///< m/s
};

/// What makes a hard stop out of a course.
struct StopRule {
    double leastSpeed = 30 / 3.6; ///< from which it begins
    double leastDeceleration = 3.5; ///< mean over it, m/s²
    double stands = 0.6; ///< m/s, under which the car stands: receivers wander
    double jump = 16; ///< m/s² between two moments, which no car does: a jump of the receiver
};

struct FoundStop {
    double begin = 0; ///< s: where the straight braking, run back, has the speed before it; half of the foot's build-up is before
    double end = 0; ///< s: where it, run on, has no speed
    double speed = 0; ///< m/s, before it
    double distance = 0; ///< m, from `begin` to standstill; NaN where a gap would have to be bridged
    double meanDeceleration = 0; ///< v²/(2 d)
    double mfdd = 0; ///< between 80 and 10 % of the speed; NaN as the distance
    double peak = 0; ///< greatest over 0.4 s
    double buildUp = 0; ///< s from the first sign of braking to the full of it, about
    double rate = 0; ///< moments a second
    double smoothing = 0; ///< s by which the receiver seems to trail
    std::vector<std::string> faults; ///< "no moments for 0.8 s", "a jump of 9 m/s"; empty: none
    std::vector<Speed> course; ///< from 4 s before it to 1 s after
    [[nodiscard]] bool good() const { return faults.empty(); }
};

/// The stop of a course that was kept, with the speeds around it; nothing where there is none.
[[nodiscard]] std::optional<FoundStop> stopOf(std::span<const Speed> course, const StopRule& rule = {});

/// A course in the pieces that its gaps leave: no moment is more than 2.5 usual steps after the one before it.
[[nodiscard]] std::vector<std::span<const Speed>> unbroken(std::span<const Speed> course);

/// Takes a course moment by moment and tells of each hard stop once the car has stood for a moment. Memory is that of the last minute.
/// Speeds are taken as they were logged: over a gap longer than 2.5 moments nothing is filled in.
class StopFinder {
public:
    explicit StopFinder(std::function<void(const FoundStop&)> found, const StopRule& rule = {});
    /// @pre time after that of the one before; what does not follow is left out
    void take(Speed moment);
    /// The course is over: one that stands at its end is told of.
    void finish();
    /// The course is cut off: a braking that goes on is told of as a stop that does not count. @param why "the receiver was gone"
    void cut(const std::string& why);
    /// The car brakes now, harder than in traffic: a stop may come of it.
    [[nodiscard]] bool braking() const { return braking_; }

private:
    void judge();

    std::function<void(const FoundStop&)> found_;
    StopRule rule_;
    std::deque<Speed> last_;
    bool moving_ = false; ///< above the least speed since it last stood
    bool braking_ = false;
    double stoodAt_ = -1; ///< when it came to stand; negative: it moves
};

} // namespace deepstop::proving
