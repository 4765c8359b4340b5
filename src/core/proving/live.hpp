#pragma once
/// A receiver heard while the car drives: what is going on, and each stop as it is made. Whatever stalls, floods or comes out of time
/// enters nothing.

#include "files/track_log.hpp"
#include "language/language.hpp"
#include "proving/stops.hpp"

#include <memory>
#include <optional>

namespace deepstop::proving {

class LiveRecorder {
public:
    enum class State {
        Silent, ///< nothing has come for a while
        NoFix, ///< it talks, but knows no place
        Flooding, ///< more comes than a receiver sends, or its clock runs away from ours
        Standing,
        Slower, ///< drives, not yet as fast as the stop begins
        Ready, ///< as fast as wanted: brake at the mark
        Braking,
        ClockSet, ///< its clock ran back: a stop it was in does not count, and it goes on
    };

    /// @param wanted speed the stops are to begin at, m/s
    LiveRecorder(double wanted, std::function<void(const FoundStop&)> found);
    /// Bytes as they came at `now`, seconds of a clock that only goes forward.
    void take(std::string_view bytes, double now, bool flood = false);
    /// The line is gone: a stop that was being made is told of as one that does not count.
    void cut() { finder_->cut(tr("the receiver was gone")); }
    /// Each trusted moment, as it comes; times are the receiver's own.
    void onMoment(std::function<void(const Speed&)> moment) { listener_ = std::move(moment); }
    [[nodiscard]] State stateAt(double now) const;
    [[nodiscard]] std::optional<double> speed() const { return speed_; }
    [[nodiscard]] const std::optional<FoundStop>& last() const { return last_; }
    [[nodiscard]] int found() const { return count_; }
    /// When the last stop was found; nothing before the first.
    [[nodiscard]] std::optional<double> lastAt() const { return lastAt_; }

private:
    void begin();
    void moment(const files::Fix& fix);

    double wanted_;
    std::function<void(const FoundStop&)> told_;
    std::function<void(const Speed&)> listener_;
    std::unique_ptr<files::TrackReader> reader_;
    std::unique_ptr<StopFinder> finder_;
    std::optional<double> speed_;
    std::optional<FoundStop> last_;
    std::optional<double> lastAt_;
    std::optional<double> offset_; ///< our clock less its, at the first moment
    int count_ = 0;
    double now_ = 0;
    double heard_ = -1e9; ///< when anything came
    double fixed_ = -1e9; ///< when a moment came
    double distrusted_ = -1e9; ///< until when nothing counts
    double clockSet_ = -1e9; ///< when its clock ran back
};

[[nodiscard]] std::string_view nameOf(LiveRecorder::State state);

} // namespace deepstop::proving
