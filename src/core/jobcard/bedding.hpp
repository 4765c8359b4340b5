#pragma once
/// Bedding in as a drive: which slow-downs, how long to drive on between them so that nothing overheats, and each told apart as it goes.

#include "jobcard/jobcard.hpp"

#include <deque>
#include <optional>
#include <string>
#include <vector>

namespace deepstop::jobcard {

/// One slow-down to be driven.
struct SlowDown {
    double from; ///< m/s
    double to; ///< m/s
    double deceleration; ///< m/s²
    double driveOn; ///< s of driving after it, until the next or until the cooling begins
    double hottest; ///< K of the hotter axle's faces in it, by the heat model; NaN where that cannot be said
};

struct BeddingPlan {
    Bedding procedure = Bedding::Unknown;
    std::vector<SlowDown> passes; ///< none where the procedure is no drive of counted slow-downs
    double coolSpeed = 0; ///< m/s to drive at afterwards, without the brakes
    double coolFor = 0; ///< s of it
    bool coolByModel = false; ///< until the faces are under 100 °C by the heat model; else the procedure's own time
    bool stretched = false; ///< driven on for longer than the procedure says, so that the pads stay under the temperature they fade at
    std::string warning; ///< that they do not, however long; empty: they do, or it is not known
    std::string lacks; ///< why the heat model cannot say, in words
};

/// The schedule of the procedure chosen, or the usual one until somebody has chosen.
[[nodiscard]] BeddingPlan beddingPlanOf(const Study& study, const JobCard& choices);

/// The build after such a drive: its steps on the card ticked, a day in the log. Nothing for a card without them.
/// @param stoodHot how often the car stood while its brakes were hot; it is noted
[[nodiscard]] std::optional<Edit> beddedIn(const Study& study, const Author& hand, int stoodHot);

/// The drive as it goes on, fed by a receiver's moments. A slow-down counts that began fast enough, ended slow enough without standing, and
/// was as firm as meant; between two of them the time to drive on has to go by.
class BeddingDrive {
public:
    enum class Task { SpeedUp, SlowDown, Braking, DriveOn, Cool, Done };
    explicit BeddingDrive(BeddingPlan plan) : plan_(std::move(plan)) { }
    /// @param time s of a clock that only goes forward
    void take(double time, double speed);
    [[nodiscard]] Task task() const;
    [[nodiscard]] int counted() const { return counted_; }
    [[nodiscard]] const BeddingPlan& plan() const { return plan_; }
    /// Seconds still to be driven without the brakes before the next task.
    [[nodiscard]] double left() const;
    /// Why the last slow-down does not count; empty: it does, or there was none.
    [[nodiscard]] const std::string& notCounted() const { return notCounted_; }
    /// How often the car stood while its brakes were hot: a held pedal prints the pads onto the rotors.
    [[nodiscard]] int stoodHot() const { return stoodHot_; }

private:
    void ended();

    BeddingPlan plan_;
    int counted_ = 0;
    double now_ = 0;
    double speed_ = 0;
    double restFrom_ = -1; ///< when the last slow-down ended
    std::deque<std::pair<double, double>> last_; ///< the last moments, s and m/s
    std::optional<std::pair<double, double>> top_; ///< where the braking began
    std::string notCounted_;
    int stoodHot_ = 0;
    bool stands_ = false;
};

} // namespace deepstop::jobcard
