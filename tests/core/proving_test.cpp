/// What is said of measured and predicted stops, and what would make it wrong: conditions nobody said, days that differ, stops no tyre
/// does, trends, brakes that give up on the way. And what a duty takes off the linings.

#include "chapters/heat/pad_life.hpp"
#include "chapters/proving/measured.hpp"
#include "core/support.hpp"
#include "files/refusal.hpp"
#include "heat/wear.hpp"
#include "report/duty_log.hpp"
#include "report/log_session.hpp"
#include "report/test_plan.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop;

namespace {

Reading read(double value, double width = 0) { return { value, width, Known::Measured, {}, {} }; }

Study studied(Build build) { return study(std::make_shared<const Build>(std::move(build)), {}, UnitSystem::Metric, Remedies::LeftOut); }

const std::vector<double> longer { 53.6, 52.1, 55.4, 54.9, 50.8, 53.0, 51.7, 55.1, 52.4, 51.0 };
const std::vector<double> shorter { 44.9, 43.2, 44.1, 45.0, 42.9, 43.8, 44.6, 43.5, 44.9, 43.2 };

/// As many stops both ways from 60 mph, on a dry road somebody found nearly level.
TestSession session(const std::string& setup, const std::vector<double>& distances, Series series = Series::Compare)
{
    TestSession s;
    s.setup = setup;
    s.date = "2026-06-13";
    s.series = series;
    s.surface = Surface::Dry;
    s.from = MeasuredFrom::Pedal;
    s.slope = read(0.002, 0.001);
    s.wind = read(1);
    for (std::size_t i = 0; i < distances.size(); ++i) {
        MeasuredStop stop;
        stop.speed = read(60 * 0.44704, 0.1);
        stop.distance = read(distances[i], 0.2);
        stop.way = i % 2 == 0 ? Way::Out : Way::Back;
        stop.ring = read(350);
        stop.pedal = read(300);
        s.stops.push_back(stop);
    }
    return s;
}

/// The camper, five stops each way before and after.
Build camper()
{
    Build b = demo("drover-camper");
    b.car.testSpeed = read(60 * 0.44704);
    b.tests = { session(b.setups[0].id, longer), session(b.setups[1].id, shorter) };
    return b;
}

const Verdict& proven(const Study& s) { return *s.verdict("stop/proven"); }
bool says(const Verdict& v, const char* words) { return v.reason.find(words) != std::string::npos; }

} // namespace

class ProvingTest : public QObject {
    Q_OBJECT
private slots:
    /// A heavy car from 60 mph, five stops each way of some 53 and 44 m: a real difference with its interval.
    void aRealDifferenceIsGood()
    {
        const Study s = studied(camper());
        QCOMPARE(proven(s).level, Level::Good);
        QVERIFY2(says(proven(s), "shorter than before, surely"), proven(s).reason.c_str());
        QVERIFY(near(*proven(s).figure.value, 9, 0.03) && proven(s).figure.worstCase > 0.5 && proven(s).figure.worstCase < 2);
    }

    /// Whatever nobody said of the two days, or differs between them, leaves it unproven.
    void daysThatAreNotAlikeProveNothing_data()
    {
        QTest::addColumn<QString>("word");
        for (const char* word : { "dry", "from where", "changed since", "both ways", "one was on a dry road", "same point" })
            QTest::newRow(word) << word;
    }
    void daysThatAreNotAlikeProveNothing()
    {
        QFETCH(QString, word);
        Build b = camper();
        if (word == "dry")
            b.tests[1].surface = Surface::Unknown;
        if (word == "from where")
            b.tests[0].from = MeasuredFrom::Unknown;
        if (word == "one was on a dry road")
            b.tests[1].surface = Surface::Wet;
        if (word == "same point")
            b.tests[1].from = MeasuredFrom::Hold;
        if (word == "changed since") {
            b.tests[1].ran = report::frozen(b, b.setups[1]);
            b.setups[1].front->pad.friction.value = 0.5;
        }
        if (word == "both ways")
            for (TestSession& each : b.tests) {
                each.slope = {};
                for (MeasuredStop& stop : each.stops)
                    stop.way = Way::Out;
            }
        const Study s = studied(b);
        QCOMPARE(proven(s).level, Level::Unproven);
        QVERIFY2(says(proven(s), qPrintable(word)), proven(s).reason.c_str());
    }

    /// Worse is worse on whatever day: a longer stop is a caution, said or not.
    void longerIsNeverComfort()
    {
        Build b = camper();
        std::swap(b.tests[0].stops, b.tests[1].stops);
        QCOMPARE(proven(studied(b)).level, Level::Caution);
        b.tests[1].surface = Surface::Unknown;
        QCOMPARE(proven(studied(b)).level, Level::Caution);
    }

    void overlappingScatterIsNotCalledBetter()
    {
        Build b = camper();
        for (std::size_t i = 0; i < 10; ++i)
            b.tests[1].stops[i].distance = read(longer[i] - 0.4, 0.2);
        const Study s = studied(b);
        QCOMPARE(proven(s).level, Level::Unproven);
        QVERIFY2(says(proven(s), "overlaps"), proven(s).reason.c_str());
    }

    /// Two days are two days: their grip goes into the interval, and a gain within it is none. The same day for both, known to be, is one.
    void twoDaysAreTwoDays()
    {
        const auto halfOf = [](const Build& build) {
            const Study s = studied(build);
            const auto& d = *s.of<ProvingStudy>().difference;
            return (d.high - d.low) / 2;
        };
        Build b = demo("drover-camper");
        std::vector<TestSession*> compared;
        for (TestSession& t : b.tests)
            if (t.series == Series::Compare)
                compared.push_back(&t);
        QVERIFY(compared.size() >= 2);
        for (TestSession* t : compared)
            t->date = "2026-05-02";
        const double one = halfOf(b);
        compared.back()->date = "2026-05-09";
        const double two = halfOf(b);
        QVERIFY2(two > one + 1, QByteArray::number(two - one).constData());
        for (TestSession* t : compared)
            t->date.clear();
        QCOMPARE(halfOf(b), two); // nobody said: two
        b.wants.dayGrip.value = 0.15;
        QVERIFY(halfOf(b) > two);
        QCOMPARE(studied(b).verdict("stop/proven")->level, Level::Unproven);
        QVERIFY2(studied(b).verdict("stop/proven")->reason.find("different days") != std::string::npos,
            studied(b).verdict("stop/proven")->reason.c_str());
    }

    /// Rings that were warmer, or a pedal pressed harder, make a difference of their own: unread they count in full, alike not at all, and
    /// reading them never widens what is said.
    void startTemperatureAndPedalWiden()
    {
        const auto halfOf = [](double warmer, double harder, bool known) {
            Build b = camper();
            for (std::size_t i = 0; i < 2; ++i)
                for (MeasuredStop& stop : b.tests[i].stops) {
                    stop.ring = known ? read(350 + (i == 0 ? 0 : warmer)) : Reading {};
                    stop.pedal = known ? read(300 * (i == 0 ? 1 : 1 + harder)) : Reading {};
                }
            const auto d = *studied(b).of<ProvingStudy>().difference;
            return (d.high - d.low) / 2;
        };
        const double alike = halfOf(0, 0, true);
        const double warmer = halfOf(50, 0, true);
        const double harder = halfOf(0, 0.1, true);
        const double unread = halfOf(0, 0, false);
        QVERIFY(alike < warmer && warmer < unread && alike < harder && harder < unread);
        QVERIFY(halfOf(300, 0.6, true) <= unread + 1e-9);
        // By hand: the means 53 and 44 m, 2 % of either for each of the two, beside Welch's own.
        QVERIFY(near(unread * unread - alike * alike, 2 * 0.02 * 0.02 * (53.0 * 53.0 + 44.01 * 44.01), 1e-6));
    }

    /// Work on the car between two sessions of one setup, or a fault found at the inspection, parts the series.
    void workBetweenSessionsPartsThem()
    {
        const auto with = [](const std::function<void(Build&)>& change) {
            Build b = camper();
            b.tests.push_back(b.tests[1]);
            b.tests.back().date = "2026-06-20";
            b.tests.back().id = {};
            b.log.clear();
            change(b);
            return *studied(b).verdict("stop/proven");
        };
        const auto log = [](const char* date, LogEvent event, const char* setup) {
            return [=](Build& b) {
                LogEntry entry;
                entry.date = date;
                entry.event = event;
                entry.setup = setup;
                b.log.push_back(entry);
            };
        };
        const std::string kit = camper().setups[1].id;
        QVERIFY2(isFine(with([](Build&) {}).level), with([](Build&) {}).reason.c_str());
        QCOMPARE(with(log("2026-06-16", LogEvent::PartsOn, kit.c_str())).level, Level::Unproven);
        QVERIFY(says(with(log("2026-06-16", LogEvent::Fault, "")), "2026-06-16"));
        QVERIFY(isFine(with(log("2026-06-10", LogEvent::PartsOn, kit.c_str())).level)); // before all of them
        QVERIFY(isFine(with(log("2026-06-16", LogEvent::Drive, kit.c_str())).level));
        const auto fault = with([](Build& b) { b.tests[1].inspected.push_back({ "leaks", Checked::Fault, {}, {}, {}, {}, {} }); });
        QVERIFY2(fault.level == Level::Unproven && says(fault, "found a fault"), fault.reason.c_str());
    }

    /// Old brakes that stop longer than they should have a fault: it is named, and the kit gets no credit for it.
    void stopsAreHeldAgainstTheirPrediction()
    {
        const auto with = [](double times, const std::function<void(Build&)>& change = {}) {
            Build b = camper();
            const double predicted = *studied(b).of<ProvingStudy>().before.cold.value;
            for (std::size_t i = 0; i < b.tests[0].stops.size(); ++i)
                b.tests[0].stops[i].distance = read(times * predicted + 0.3 * static_cast<double>(i % 3), 0.2);
            for (std::size_t i = 0; i < b.tests[1].stops.size(); ++i)
                b.tests[1].stops[i].distance = read(0.9 * predicted + 0.3 * static_cast<double>(i % 3), 0.2);
            if (change)
                change(b);
            return studied(b);
        };
        const Verdict fits = *with(1.0).verdict("stop/cold-model-1");
        QVERIFY2(fits.level == Level::Good || fits.level == Level::Unproven, fits.reason.c_str());
        const Study slow = with(1.5);
        QCOMPARE(slow.verdict("stop/cold-model-1")->level, Level::Caution);
        for (const char* suspect : { "held back", "circuit", "friction" })
            QVERIFY2(says(*slow.verdict("stop/cold-model-1"), suspect), slow.verdict("stop/cold-model-1")->reason.c_str());
        QCOMPARE(proven(slow).level, Level::Unproven);
        QVERIFY2(says(proven(slow), "credit"), proven(slow).reason.c_str());
        const Verdict fast = *with(0.8).verdict("stop/cold-model-1");
        QVERIFY2(fast.level == Level::Caution && says(fast, "grip"), fast.reason.c_str());
        // Where it was measured from, or on which road, is not said: nothing is known.
        QCOMPARE(with(1.5, [](Build& b) { b.tests[0].from = MeasuredFrom::Mark; }).verdict("stop/cold-model-1")->level, Level::Unproven);
        QCOMPARE(with(1.5, [](Build& b) { b.tests[0].surface = Surface::Wet; }).verdict("stop/cold-model-1")->level, Level::Unproven);
    }

    /// 5,000 pairs of days, each with a grip of its own: "surely" is wrong in at most 5 of 100, and without the days it would be far more.
    void surelyIsWrongSeldom()
    {
        std::mt19937 rng(11);
        std::normal_distribution<double> normal(0, 1);
        Build build = demo();
        build.tests.assign(2, {});
        build.tests[0].date = "2026-05-02";
        build.tests[1].date = "2026-05-09";
        constexpr int pairs = 5000;
        constexpr double dayGrip = 0.05 / 1.96; // 5 % in 95 of 100, as the setting has it
        int wrong = 0;
        int wrongWithout = 0;
        for (int i = 0; i < pairs; ++i) {
            RunsOf a;
            RunsOf b;
            for (const auto& [runs, session] : { std::pair { &a, std::size_t { 0 } }, std::pair { &b, std::size_t { 1 } } }) {
                const double day = 44 * (1 + dayGrip * normal(rng));
                for (int k = 0; k < 6; ++k) {
                    runs->counted.push_back(day + 0.8 * normal(rng));
                    runs->runs.push_back({ session, 0, nullptr, runs->counted.back(), {} });
                }
                runs->sample = proving::sampleOf(runs->counted);
            }
            const auto bare = proving::welch(a.counted, b.counted);
            wrongWithout += bare->real();
            wrong += acrossDays(build, a, b, bare)->real();
        }
        QVERIFY2(wrong < 0.05 * pairs, QByteArray::number(wrong).constData());
        QVERIFY2(wrong > 0.01 * pairs, QByteArray::number(wrong).constData());
        QVERIFY2(wrongWithout > 0.3 * pairs, QByteArray::number(wrongWithout).constData());
    }

    /// Tyres that warm or pads that fade over the runs are named before the difference they make.
    void aTrendIsNamedFirst()
    {
        Build b = camper();
        for (std::size_t i = 0; i < 10; ++i)
            b.tests[0].stops[i].distance = read(48 + 1.0 * static_cast<double>(i) + 0.1 * static_cast<double>(i % 3), 0.2);
        const Study s = studied(b);
        QCOMPARE(proven(s).level, Level::Unproven);
        QVERIFY2(says(proven(s), "grow by"), proven(s).reason.c_str());
    }

    /// 35 mph in 16 ft is no stop: it does not count, and says why; nor does one far from the speed, or without a reading.
    void whatDoesNotCountSaysWhy()
    {
        Build b = camper();
        MeasuredStop impossible;
        impossible.speed = read(35 * 0.44704, 1);
        impossible.distance = read(16 * 0.3048, 0.3);
        MeasuredStop slow = impossible;
        slow.distance = read(15, 0.3);
        MeasuredStop half;
        half.speed = read(60 * 0.44704);
        MeasuredStop chosen = b.tests[0].stops[0];
        chosen.leftOut = "a dog on the road";
        b.tests[0].stops.insert(b.tests[0].stops.end(), { impossible, slow, half, chosen });
        const RunsOf runs = runsOf(b, b.setups[0]);
        QCOMPARE(runs.sample.count, 10);
        const auto& all = runs.runs;
        QVERIFY(all[10].leftOut.find("no tyre can do it") != std::string::npos);
        QVERIFY(all[11].leftOut.find("too far") != std::string::npos);
        QVERIFY(all[12].leftOut.find("distance was not read") != std::string::npos);
        QCOMPARE(all[13].leftOut, "a dog on the road");
        QCOMPARE(studied(b).verdict("stop/measured-11")->level, Level::Caution);
    }

    /// Uphill shortens; a slope somebody has read makes possible what is not on the level.
    void theSlopeIsReckonedWith()
    {
        Build b = camper();
        MeasuredStop& stop = b.tests[0].stops[0];
        stop.way = Way::Back;
        b.tests[0].slope = read(0, 0.001);
        const SetupParts ran = partsOf(b, b.setups[0]);
        const double level = *mostDeceleration(b, b.tests[0], stop, ran).value;
        b.tests[0].slope = read(0.1, 0.001);
        QVERIFY(near(*mostDeceleration(b, b.tests[0], stop, ran).value - level, 0.1 * standardGravity, 1e-9));
        stop.way = Way::Out;
        QVERIFY(near(level - *mostDeceleration(b, b.tests[0], stop, ran).value, 0.1 * standardGravity, 1e-9));
        // Nobody has put a level on it: what is called impossible needs more to be so.
        b.tests[0].slope = {};
        QVERIFY(mostDeceleration(b, b.tests[0], stop, ran).highest() > level);
    }

    /// Nobody can say what these tyres do: no stop is known to be one, and nothing is proven.
    void withoutTheGripNothingIsProven()
    {
        Build b = camper();
        for (Wheel& wheel : b.wheels)
            wheel.grip = {};
        const Study s = studied(b);
        QCOMPARE(proven(s).level, Level::Unproven);
        QVERIFY(!proven(s).figure.value);
    }

    void twoStopsTellNothing()
    {
        Build b = camper();
        b.tests[1].stops.resize(2);
        QCOMPARE(proven(studied(b)).level, Level::Unproven);
        QVERIFY(says(proven(studied(b)), "Three stops a side"));
        b.tests.clear();
        QVERIFY(!studied(b).verdict("stop/proven"));
    }

    /// Fading of the parts judged is a stop, of those that go it is why; a last long stop alone is neither.
    void fadingIsSaidOfTheRightParts()
    {
        Build b = camper();
        const std::vector<double> fading { 44, 45, 44, 46, 49, 55, 58, 62 };
        const std::vector<double> lastLong { 44, 45, 44, 46, 45, 44, 58 };
        const std::vector<double> holding { 44, 45, 44, 46, 45, 44, 46 };
        const auto of = [&](std::size_t setup, const std::vector<double>& distances) {
            b.tests = { session(b.setups[setup].id, distances, Series::Fade) };
            return studied(b).verdict("stop/fades-1")->level;
        };
        QCOMPARE(of(1, fading), Level::Stop);
        QCOMPARE(of(0, fading), Level::Caution);
        QCOMPARE(of(1, lastLong), Level::Caution);
        QCOMPARE(of(1, holding), Level::Good);
        QCOMPARE(of(1, { 44, 45, 44 }), Level::Unproven);
    }

    /// Boiled fluid stops nothing: of the kit it is a stop, whatever it saves cold; of the car as found it is what the kit gains.
    void brakesThatGiveUpOnTheWaySaveNothing()
    {
        const auto with = [](bool after) {
            Build b = demo("drover-camper");
            Hydraulics weak = hydraulicsOf(b, b.setups[0]);
            Hydraulics sound = weak;
            weak.dryBoiling = weak.wetBoiling = read(303);
            sound.dryBoiling = sound.wetBoiling = read(700);
            b.setups[0].hydraulics = after ? sound : weak;
            b.setups[1].hydraulics = after ? weak : sound;
            return studied(b);
        };
        const Study lost = with(true);
        QCOMPARE(lost.verdict("stop/saves")->level, Level::Stop);
        QVERIFY(!lost.of<ProvingStudy>().after.hot.value && lost.of<ProvingStudy>().after.lost.find("fluid") != std::string::npos);
        const Study gained = with(false);
        QVERIFY(!isBad(gained.verdict("stop/saves")->level));
        QVERIFY2(says(*gained.verdict("stop/saves"), "it stops in"), gained.verdict("stop/saves")->reason.c_str());
    }

    void withoutADutyNothingIsSaidOfIt()
    {
        Build b = demo("drover-camper");
        b.duties.clear();
        const Verdict v = *studied(b).verdict("stop/saves");
        QVERIFY(!isFine(v.level));
        QVERIFY(says(v, "no duty"));
    }

    /// The demos say what they are there for.
    void theDemosSayTheirPiece()
    {
        const Study linnet = studied(demo("linnet"));
        QCOMPARE(linnet.verdict("stop/saves")->level, Level::Caution);
        QVERIFY(says(*linnet.verdict("stop/saves"), "longer") && says(*linnet.verdict("stop/saves"), "heavier"));
        const Study camperStudy = studied(demo("drover-camper"));
        QVERIFY(camperStudy.of<ProvingStudy>().hotSaves(0.05) > 5);
        QVERIFY(says(*camperStudy.verdict("stop/saves"), "no difference can be told"));
        const Study merle = studied(demo());
        QVERIFY(std::abs(merle.of<ProvingStudy>().coldSaves(0.5)) < 0.5 && merle.of<ProvingStudy>().hotSaves(0.5) > 5);
        QVERIFY(says(*merle.verdict("stop/saves"), "will not shorten it"));
    }

    /// The place: to speed at 3 m/s², the stop, and twice the stop to run out. Longer from a higher speed, as is the cooling.
    void thePlanIsLongEnough()
    {
        Build b = camper();
        const Study s = studied(b);
        const auto plan = report::testPlanOf(s);
        QVERIFY(near(plan.place, plan.speed * plan.speed / 6 + 3 * plan.distance, 1e-9));
        QVERIFY(std::isfinite(plan.cooling) && plan.cooling > 10);
        QVERIFY(plan.scatterMeasured && plan.stopsEachWay >= 5 && plan.stopsEachWay <= 10);
        QVERIFY(
            std::ranges::any_of(plan.inspection, [](const auto& item) { return item.text.find("wheel cylinder") != std::string::npos; }));
        QVERIFY(std::ranges::any_of(plan.inspection, [](const auto& item) { return item.text.find("wheel bolts") != std::string::npos; }));
        b.car.testSpeed = read(35);
        const auto faster = report::testPlanOf(studied(b));
        QVERIFY(faster.place > plan.place && faster.cooling > plan.cooling);
        b.car.testSpeed = {};
        QVERIFY(report::printed(studied(b), report::testPlanOf(studied(b))).find("not known") != std::string::npos);
        const auto leaf = report::planLeaf(s, plan, "2026-06-13");
        QVERIFY(report::htmlOf(leaf).find("Before the first run") != std::string::npos);
    }

    /// Stops out of a log: one with a hole is in the session, left out with its reason, and the parts of the day are frozen.
    void aLogBecomesASession()
    {
        const Build b = demo();
        proving::FoundStop good;
        good.speed = 27;
        good.distance = 41;
        proving::FoundStop holed = good;
        holed.distance = NAN;
        holed.faults = { "no moments for 0.8 s" };
        const auto s = report::sessionOf(b, "varnik-330", { { good, holed }, {}, true }, "morning", "2026-05-01");
        QVERIFY(s.stops[0].leftOut.empty() && near(*s.stops[0].distance.value, 41, 1e-12));
        QVERIFY(!s.stops[1].distance.value && s.stops[1].leftOut == "no moments for 0.8 s");
        QVERIFY(s.ran && s.ran->rear && s.ran->hydraulics && s.from == MeasuredFrom::Hold);
    }

    void aDriveTooLongForADutyIsRefused()
    {
        heat::Duty drive = heat::snubs(3, 30, 15, 5, 20);
        const DutyPlan plan = report::planOf(drive, "log", "a drive");
        Evaluator s;
        const auto again = figures::dutyOf(s, demo(), plan);
        QVERIFY(near(heat::durationOf(again), heat::durationOf(drive), 1e-9) && heat::stopsIn(again) == 3);
        QVERIFY(near(heat::distanceOf(again), heat::distanceOf(drive), 1e-9));
        while (drive.phases.size() <= 2000)
            drive.phases.push_back(drive.phases.front());
        try {
            (void)report::planOf(drive, "log", "a drive");
            QFAIL("taken");
        } catch (const files::Refusal& refusal) {
            QVERIFY(std::string_view(refusal.what()).find("cut the log") != std::string_view::npos);
        }
    }

    /// A load and a trailer are braked with the car: by hand at one moment, and never cooler over the duty.
    void whatIsCarriedAndTowedIsBraked()
    {
        const heat::Road road { 1500, 0.7, 0.012, 1.03 };
        heat::Duty duty { "", "", { { 20, 10, 2.5, true, 0.05, 1 } }, 0.1, 0 };
        const auto by = [&](double added) {
            duty.added = added;
            const double mass = 1500 + added;
            const double force =
                mass * 1.03 * 4 + mass * standardGravity * 0.05 - 0.5 * 1.225 * 0.7 * 225 - 0.012 * mass * standardGravity - 150;
            return std::abs(heat::brakePower(road, duty, duty.phases[0], 15) - force * 15) < 1e-6;
        };
        QVERIFY(by(0) && by(400) && by(-200));
        Build b = demo("drover-camper");
        const auto peak = [&] { return studied(b).of<DutyStudy>().after.run->frontPeak[1]; };
        const double alone = peak();
        DutyPlan& plan = *std::ranges::find(b.duties, b.car.duty.empty() ? b.duties.front().id : b.car.duty, &DutyPlan::id);
        plan.towed = read(500);
        const double towing = peak();
        QVERIFY(towing > alone);
        plan.load = b.loads.front().id.text;
        QVERIFY(peak() > towing);
        // A load that is no more: nothing is run, and nothing is said to hold.
        plan.load = "the piano";
        QCOMPARE(studied(b).verdict("heat/gives-up")->level, Level::Unproven);
    }

    /// Half as much again for every 100 K would be too little: twice, by the rule; cold it is the rate times the heat.
    void liningsWearWithHeat()
    {
        QCOMPARE(heat::wearRate(300), heat::wearRate(373));
        QVERIFY(near(heat::wearRate(573.15), 4 * heat::wearRate(373.15), 1e-12));
        QCOMPARE(heat::wearRate(5000), heat::wearRate(1173.15));
        const Study s = studied(demo());
        const auto& run = *s.of<DutyStudy>().after.run;
        const double cold = run.front.in * heat::wearRate(300);
        const double hot = run.front.in * heat::wearRate(run.frontPeak[1]);
        QVERIFY(heat::wornVolume(run, true) > cold && heat::wornVolume(run, true) < hot);
        QVERIFY(std::isnan(heat::wornVolume(heat::Run {}, true)));
    }

    void thinLiningsDoNotLast()
    {
        Build b = demo();
        const auto level = [&](double left) {
            auto& front = *b.setups[1].front;
            front.pad.minimumThickness = read(2e-3, 1e-6);
            for (const Side side : { Side::Left, Side::Right })
                front.at(side).liningThickness = read(*front.pad.minimumThickness.value + left, 1e-6);
            return studied(b).verdict("heat/pads-last")->level;
        };
        const double worn = studied(b).of<DutyStudy>().after.worn.front;
        QVERIFY(worn > 0 && worn < 1e-3);
        QCOMPARE(level(0.3 * worn), Level::Stop);
        QCOMPARE(level(1.5 * worn), Level::Caution);
        QVERIFY(level(30 * worn) == Level::Good || level(30 * worn) == Level::Unproven);
        // The minimum nobody has read: no comfort.
        b.setups[1].front->pad.minimumThickness = {};
        for (const Side side : { Side::Left, Side::Right })
            b.setups[1].front->at(side).liningThickness = {};
        QCOMPARE(studied(b).verdict("heat/pads-last")->level, Level::Unproven);
    }
};

DEEPSTOP_TEST(ProvingTest)
#include "proving_test.moc"
