#pragma once
/// What was done to the car and measured on it: test sessions, the job card's ticks, the log. Plain values, all SI.

#include "build/car.hpp"
#include "build/corner.hpp"

namespace deepstop {

/// Which way along the road a stop went.
enum class Way { Unknown, Out, Back };
enum class Surface { Unknown, Dry, Damp, Wet };
/// Where the tape was laid on; a logger begins where the braking takes hold, half the foot's build-up after the pedal.
enum class MeasuredFrom { Unknown, Pedal, Mark, Hold };
/// Which wheels locked or skidded first, as seen from outside or by the marks.
enum class LockedFirst { Unknown, Front, Rear, Both, None };
/// Fade as the driver felt it.
enum class FadeFelt { Unknown, None, Pedal, Smell };
/// What a session's stops are for.
enum class Series { Compare, Fade };

struct MeasuredStop {
    Reading speed;
    Reading distance;
    Way way = Way::Unknown;
    Reading ring; ///< temperature of the front rotor or drum before it
    Reading pedal; ///< the foot's force
    std::string note; ///< smell, smoke, a long pedal
    std::string leftOut; ///< why it does not count; empty: it counts
    /// As a logger had it: seconds from where the braking takes hold, speed in m/s, from some seconds before it; empty: by tape.
    std::vector<std::pair<double, double>> course {};
    ElementId id {};
    bool operator==(const MeasuredStop&) const = default;
};

enum class MeasuredAt { Unknown, Ring, Pad, Caliper, Hat, Drum };

/// A temperature taken on the car during or after a duty.
struct MeasuredTemperature {
    std::string duty; ///< id
    int stop = notCounted; ///< after that stop of it
    Reading after; ///< time since the end of that stop
    Axle axle = Axle::Front;
    MeasuredAt at = MeasuredAt::Unknown;
    Reading temperature;
    YesNo highestOnly = YesNo::Unknown; ///< a label that keeps the highest it has seen: some time up to then, not at it
    ElementId id {};
    bool operator==(const MeasuredTemperature&) const = default;
};

/// One step of the inspection before a test, or of a job card, as far as somebody has seen to it.
struct Tick {
    std::string step; ///< "front/left/caliper-torque"
    Checked state = Checked::Open;
    std::string who;
    std::string when; ///< ISO date and time
    std::string note;
    std::string photo; ///< where the picture lies
    Reading took; ///< time it took
    bool operator==(const Tick&) const = default;
};

struct TestSession {
    std::string setup; ///< id
    std::string date;
    std::string place;
    std::string log {}; ///< name of the log it came from; empty: driven with tape or receiver
    Series series = Series::Compare;
    std::string duty {}; ///< id; of a series until it fades, the duty that it drives; empty: not said
    Surface surface = Surface::Unknown;
    MeasuredFrom from = MeasuredFrom::Unknown;
    Reading slope; ///< of the road on the way out, falling positive, sine; absent: not looked at
    Reading wind; ///< from ahead on the way out
    std::vector<MeasuredStop> stops;
    std::vector<MeasuredTemperature> temperatures {};
    LockedFirst lockedFirst = LockedFirst::Unknown;
    FadeFelt fadeFelt = FadeFelt::Unknown;
    int fadedAt = notCounted; ///< braking of the duty at which it was felt
    int brakings = notCounted; ///< driven in the session
    /// Of a brake tester's rollers at one pedal force, or where the wheels began to lock.
    Reading testerFrontLeft;
    Reading testerFrontRight;
    Reading testerRearLeft;
    Reading testerRearRight;
    std::vector<Tick> inspected {};
    std::optional<Setup> ran {}; ///< the setup as it was that day, both axles and the hydraulics in it
    ElementId id {};
    DEEPSTOP_COMPILED_ONCE(TestSession)
};

enum class BleedOrder { Unknown, FurthestFirst, NearestFirst, Maker };
enum class BleedMethod { Unknown, TwoPeople, Pressure, Vacuum, Gravity };
/// Of a caliper with a bleeder at both ends of each half, the one that is opened first.
enum class BleederFirst { Unknown, Outer, Inner };
enum class Bedding { Unknown, Street, SlowDowns, WarmThenHard, Maker };

/// Both corners of an axle side by side, or one whole corner first, the other standing as its pattern.
enum class WorkOrder { Unknown, Together, CornerByCorner };

/// A step that cannot be undone, opened before its checks were proven.
struct Opening {
    std::string step;
    std::string reason;
    std::string who;
    std::string when;
    bool operator==(const Opening&) const = default;
};

/// A step somebody wrote into a card.
struct OwnStep {
    std::string after; ///< id of the step it stands behind; empty or none of the card: at its end
    std::string text;
    ElementId id {};
    bool operator==(const OwnStep&) const = default;
};

/// How far the work on one setup has come.
struct JobCard {
    std::string setup; ///< id
    BleedOrder bleedOrder = BleedOrder::Unknown;
    BleedMethod bleedMethod = BleedMethod::Unknown;
    BleederFirst bleederFirst = BleederFirst::Unknown;
    Bedding bedding = Bedding::Unknown;
    WorkOrder order = WorkOrder::Unknown;
    YesNo reservoirRanDry = YesNo::Unknown; ///< while lines were open
    std::vector<Carried> off {}; ///< taken off the car before it goes on a lift, beside wheels and brakes
    YesNo inspection = YesNo::Unknown; ///< whether the steps that this job does not need were taken in
    std::vector<Tick> ticks;
    std::vector<Opening> openings;
    std::vector<OwnStep> ownSteps {};
    DEEPSTOP_COMPILED_ONCE(JobCard)
};

enum class LogEvent { Unknown, Drive, TrackDay, Measured, Fluid, TorqueCheck, Bedded, PartsOn, Fault, Other };

/// What is left of one corner's wearing parts, read on a day.
struct WearReading {
    Axle axle = Axle::Front;
    Side side = Side::Left;
    Reading lining; ///< thinner pad or shoe
    Reading ring; ///< rotor, where it is thinnest
    bool operator==(const WearReading&) const = default;
};

/// One day in the car's life.
struct LogEntry {
    std::string date; ///< ISO
    Reading odometer;
    LogEvent event = LogEvent::Unknown;
    std::string setup; ///< id; that was driven, or was put on
    std::string duty; ///< id, of a track day
    Reading hours; ///< on the track
    Reading hottest; ///< temperature found on a rotor
    Reading cost; ///< in the build's currency
    std::vector<WearReading> wear;
    std::string note;
    ElementId id {};
    DEEPSTOP_COMPILED_ONCE(LogEntry)
};

} // namespace deepstop
