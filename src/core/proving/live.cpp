#include "proving/live.hpp"

#include "files/refusal.hpp"
#include "language/language.hpp"

namespace deepstop::proving {
namespace {

constexpr double silentAfter = 2; // s
constexpr double quietAfterFlood = 3; // s
constexpr double runsAway = 2.5; // s of its clock beyond ours: what waited on the line may come at once

} // namespace

LiveRecorder::LiveRecorder(double wanted, std::function<void(const FoundStop&)> found) : wanted_(wanted), told_(std::move(found))
{
    begin();
}

void LiveRecorder::begin()
{
    reader_ = std::make_unique<files::TrackReader>([this](const files::Fix& fix) { moment(fix); }, files::TrackReader::Kind::Nmea);
    finder_ = std::make_unique<StopFinder>([this](const FoundStop& stop) {
        last_ = stop;
        lastAt_ = now_;
        ++count_;
        told_(stop);
    });
    offset_.reset();
    speed_.reset();
}

void LiveRecorder::take(std::string_view bytes, double now, bool flood)
{
    now_ = now;
    if (!bytes.empty())
        heard_ = now;
    if (flood) {
        distrusted_ = now + quietAfterFlood;
        begin();
        return;
    }
    if (now < distrusted_)
        return;
    try {
        reader_->take(bytes);
    } catch (const files::Refusal&) {
        // A line without end is no receiver's.
        distrusted_ = now + quietAfterFlood;
    }
    if (now < distrusted_)
        begin();
    // Its clock was set: a gap in the course, and a new count of its time.
    if (reader_->count().clockJumps > 0) {
        clockSet_ = now;
        finder_->cut(tr("the receiver's clock ran back"));
        begin();
    }
}

void LiveRecorder::moment(const files::Fix& fix)
{
    if (now_ < distrusted_ || reader_->count().clockJumps > 0)
        return;
    if (!offset_)
        offset_ = now_ - fix.time;
    if (fix.time + *offset_ > now_ + runsAway) {
        distrusted_ = now_ + quietAfterFlood;
        return;
    }
    fixed_ = now_;
    speed_ = fix.speed;
    finder_->take({ fix.time, fix.speed });
    if (listener_)
        listener_({ fix.time, fix.speed });
}

LiveRecorder::State LiveRecorder::stateAt(double now) const
{
    if (now < distrusted_)
        return State::Flooding;
    if (now - heard_ > silentAfter)
        return State::Silent;
    constexpr double said = 4; // s for which it is said
    if (now - clockSet_ < said)
        return State::ClockSet;
    if (now - fixed_ > silentAfter || !speed_)
        return State::NoFix;
    constexpr double stands = 0.6;
    if (finder_->braking())
        return State::Braking;
    return *speed_ < stands ? State::Standing : *speed_ < wanted_ ? State::Slower : State::Ready;
}

std::string_view nameOf(LiveRecorder::State state)
{
    switch (state) {
    case LiveRecorder::State::Silent:
        return marked("nothing comes");
    case LiveRecorder::State::NoFix:
        return marked("no fix");
    case LiveRecorder::State::Flooding:
        return marked("out of time: nothing counts");
    case LiveRecorder::State::Standing:
        return marked("armed, standing");
    case LiveRecorder::State::Slower:
        return marked("armed, faster");
    case LiveRecorder::State::Ready:
        return marked("brake at the mark");
    case LiveRecorder::State::Braking:
        return marked("braking");
    case LiveRecorder::State::ClockSet:
        return marked("its clock ran back: goes on");
    }
    return "";
}

} // namespace deepstop::proving
