/// A receiver heard while the car drives: what stalls in a stop, floods, runs away or talks nonsense enters nothing that counts.

#include "core/support.hpp"
#include "instruments/receiver.hpp"
#include "proving/live.hpp"

#include <QTest>

using namespace deepstop;
using State = proving::LiveRecorder::State;

namespace {

/// A drive of some stops, moment by moment as it comes.
struct StopSimulation {
    instruments::Receiver receiver;
    std::vector<proving::FoundStop> found;
    proving::LiveRecorder recorder { 100 / 3.6 - 0.5, [this](const proving::FoundStop& stop) { found.push_back(stop); } };
    explicit StopSimulation(int stops) : receiver(scene(stops)) { }
    static instruments::ReceiverScene scene(int stops)
    {
        instruments::ReceiverScene s;
        s.stops.assign(static_cast<std::size_t>(stops), { 100 / 3.6, 8 });
        return s;
    }
    /// All that comes until `time`, as it comes; nothing arrives between `from` and `to`.
    void until(double time, double from = 1e9, double to = -1e9)
    {
        while (!receiver.over() && receiver.time() <= time) {
            const double at = receiver.time();
            const std::string said = receiver.next();
            if (at < from || at > to)
                recorder.take(said, at);
        }
    }
};

/// When the first stop of such a drive begins and ends.
constexpr double begins = 3 + 100 / 3.6 / 3 + 4;
constexpr double ends = begins + 100 / 3.6 / 8;

} // namespace

class LiveTest : public QObject {
    Q_OBJECT
private slots:
    void itSaysWhatGoesOn()
    {
        StopSimulation d(1);
        QCOMPARE(d.recorder.stateAt(0), State::Silent);
        d.until(1);
        QCOMPARE(d.recorder.stateAt(1), State::Standing);
        d.until(6);
        QCOMPARE(d.recorder.stateAt(6), State::Slower);
        d.until(begins - 1);
        QCOMPARE(d.recorder.stateAt(begins - 1), State::Ready);
        d.until(begins + 1.5);
        QCOMPARE(d.recorder.stateAt(begins + 1.5), State::Braking);
        d.until(1e9);
        QCOMPARE(d.found.size(), std::size_t { 1 });
        QVERIFY(d.found[0].good() && near(d.found[0].distance, d.receiver.distances()[0], 0.01));
        QVERIFY(d.recorder.found() == 1 && d.recorder.lastAt() && *d.recorder.lastAt() > ends);
        for (int state = 0; state <= static_cast<int>(State::Braking); ++state)
            QVERIFY(!nameOf(static_cast<State>(state)).empty());
    }

    /// Nothing arrives for a second in the middle of the braking: no distance, and why.
    void aStallInTheStopIsNotBridged()
    {
        StopSimulation d(2);
        d.until(1e9, begins + 1, begins + 2);
        QCOMPARE(d.found.size(), std::size_t { 2 });
        QVERIFY(!d.found[0].good() && std::isnan(d.found[0].distance));
        QVERIFY(d.found[1].good());
    }

    /// It vanishes before the car stands: no stop at all, and the state says so.
    void oneThatVanishesLeavesNothing()
    {
        StopSimulation d(1);
        d.until(begins + 1);
        QVERIFY(d.found.empty());
        QCOMPARE(d.recorder.stateAt(begins + 30), State::Silent);
    }

    /// Moments faster than time passes are a recording played, or a receiver gone mad: none of it counts.
    void aClockThatRunsAwayCountsForNothing()
    {
        StopSimulation d(3);
        while (!d.receiver.over()) {
            const double at = d.receiver.time();
            d.recorder.take(d.receiver.next(), at / 8);
        }
        QVERIFY(d.found.empty());
    }

    void aFloodCountsForNothingUntilItIsOver()
    {
        StopSimulation d(2);
        d.until(begins - 2);
        d.recorder.take("whatever it was", begins - 2, true);
        QCOMPARE(d.recorder.stateAt(begins - 1.9), State::Flooding);
        d.until(1e9);
        // The stop that ran while it was not trusted may be lost; what is told is right.
        QVERIFY(d.found.size() >= 1 && d.found.size() <= 2);
        for (const auto& stop : d.found)
            QVERIFY(!stop.good() || near(stop.distance, d.receiver.distances()[0], 0.01));
    }

    void nonsenseIsNoFix()
    {
        StopSimulation d(1);
        d.recorder.take("GARBAGE\r\n$GPRMC,,V,,,,,,,,,,N*53\r\n\xff\xfe", 1);
        QCOMPARE(d.recorder.stateAt(1.1), State::NoFix);
        d.recorder.take(std::string(100'000, 'x'), 2);
        QCOMPARE(d.recorder.stateAt(2.1), State::Flooding);
        QVERIFY(!d.recorder.speed());
        // And it is heard again afterwards.
        d.until(1e9);
        QVERIFY(d.found.size() <= 1);
    }
};

DEEPSTOP_TEST(LiveTest)
#include "live_test.moc"
