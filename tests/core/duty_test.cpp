/// Duties of a build: what gives up first, calibration by thermometer, spread, and what the command prints.

#include "task/cancel.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "chapters/proving/calibrated.hpp"
#include "core/support.hpp"
#include "quantity/quantile.hpp"
#include "heat/calibration.hpp"
#include "heat/spread.hpp"
#include "report/heat.hpp"
#include "sums/sums.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop;

namespace {

const Verdict& givesUp(const Study& s)
{
    const Verdict* v = s.verdict("heat/gives-up");
    if (!v)
        qFatal("no verdict");
    return *v;
}

DutyHeat ran(const Build& build, std::size_t setup, const char* duty)
{
    return dutyHeatOf(build, partsOf(build, build.setups[setup]), *dutyCalled(build, duty));
}

heat::Car merle(std::size_t setup = 0)
{
    static const Build build = demo();
    Evaluator s;
    return figures::runnable(figures::thermalCar(s, build, partsOf(build, build.setups[setup])));
}

double answer(const char* sum, const std::vector<std::string>& arguments, std::string_view key)
{
    for (const auto& [name, value] : sums::calculate(sum, arguments).results)
        if (name == key)
            return std::get<double>(value);
    return NAN;
}

Reading exactly(double value) { return { value, 0.0, Known::Measured, {}, {} }; }

/// Every corner's cooling set by a thermometer.
Build withThermometers(Build build)
{
    for (Setup& setup : build.setups)
        for (auto* corner : { &setup.front, &setup.rear })
            if (*corner)
                (*corner)->cooling = { 1.0, 0.05, Known::Measured, "thermometer", {} };
    return build;
}

} // namespace

class DutyTest : public QObject {
    Q_OBJECT
private slots:
    /// What nobody said of a rotor, its pads and its caliper is assumed aloud: saying it as badly as it can be is never worse than silence.
    void whatNobodyGaveIsAssumedAloud()
    {
        const auto base = withThermometers(demo());
        QCOMPARE(study(base).verdict("heat/gives-up")->level, Level::Good);
        const auto silent = [&](auto change, const std::string& word) {
            auto build = base;
            change(*build.setups[1].front);
            const auto s = study(build);
            const Verdict& v = *s.verdict("heat/gives-up");
            QVERIFY2(v.level >= Level::Unproven, v.reason.c_str());
            QVERIFY2(std::ranges::any_of(v.figure.assumed, [&](const std::string& each) { return each.find(word) != std::string::npos; }),
                word.c_str());
        };
        silent([](Corner& c) { c.rotor.vaneThickness = {}; }, "vanes of 5 mm");
        silent([](Corner& c) { c.pad.backing = {}; }, "backings");
        silent([](Corner& c) { std::erase_if(c.weighings, [](const Weighing& w) { return w.contains == std::vector { Part::Caliper }; }); },
            "caliper of 4 kg");
        silent([](Corner& c) { c.caliper.material = {}; }, "caliper of iron");
        // A face nobody has described is reckoned with as drilled, and asked for.
        auto build = base;
        build.setups[1].front->rotor.face = RotorFace::Unknown;
        const auto s = study(build);
        QVERIFY(s.verdict("front/drilled") && s.verdict("front/drilled")->level == Level::Unproven);
        QVERIFY(std::ranges::any_of(s.openFacts, [](const OpenFact& f) { return f.what.find("face of the front rotors") == 0; }));
        const auto& limits = s.of<DutyStudy>().after.limits;
        QVERIFY(std::ranges::any_of(limits, [](const HeatLimit& l) { return l.what.find("if it is drilled") != std::string::npos; }));
        // And vanes of no known shape are straight only until somebody has looked.
        build = base;
        build.setups[1].front->rotor.vaneShape = VaneShape::Unknown;
        build.setups[1].front->rotor.vaneShare = {};
        const auto vanes = study(build);
        const Figure& store = vanes.line("heat-store")->after;
        QVERIFY(std::ranges::find(store.assumed, std::string("straight vanes")) != store.assumed.end());
    }

    /// Common practice: small stock brakes on a heavy car fade within about ten stops from 40 mph repeated at once, the large kit does not
    /// in 25.
    void theDroversStockBrakesFadeAndTheKitDoesNot()
    {
        const Build build = demo("drover-camper");
        const DutyHeat stock = ran(build, 0, "repeats");
        QVERIFY(stock.limits.front().stop && *stock.limits.front().stop <= 10);
        QCOMPARE(stock.limits.front().what, "front pads fade");
        QVERIFY(stock.footFails);
        const DutyHeat kit = ran(build, 1, "repeats");
        for (const HeatLimit& l : kit.limits)
            QVERIFY2(!l.critical || !l.stop, l.what.c_str());
        QVERIFY(!kit.footFails);
        const Verdict v = givesUp(study(build));
        QVERIFY(v.level != Level::Good);
        QVERIFY(v.reason.find("before: front pads fade at braking") != std::string::npos);
    }

    /// On the road both hold; on the hill the stock brakes do not.
    void theMerlesKitGainsOnTheHillAndLittleOnTheRoad()
    {
        const Build build = demo();
        QVERIFY(!ran(build, 0, "descent").limits.front().stop);
        QVERIFY(!ran(build, 1, "descent").limits.front().stop);
        QVERIFY(ran(build, 0, "hill-climb").limits.front().stop);
        QVERIFY(!ran(build, 1, "hill-climb").limits.front().stop);
        QVERIFY(ran(build, 1, "twelve-laps").limits.front().stop > ran(build, 0, "twelve-laps").limits.front().stop);
    }

    void theLinnetsKitGainsNothingItNeeds()
    {
        const Build build = demo("linnet");
        QVERIFY(!ran(build, 0, "hill-climb").limits.front().stop);
        QVERIFY(!ran(build, 1, "hill-climb").limits.front().stop);
        QVERIFY(givesUp(study(build)).reason.find("before: no limit reached") != std::string::npos);
    }

    void everyDemoHasItsDuties()
    {
        for (const char* name : { "halden-merle", "linnet", "drover-camper" }) {
            const Build build = demo(name);
            for (const char* duty : { "hill-climb", "twelve-laps", "descent", "repeats", "one-stop", "heating-procedure" }) {
                const auto found = dutyCalled(build, duty);
                QVERIFY2(found && !found->phases.empty(), duty);
                // Speeds go on where the last phase ended.
                for (std::size_t i = 1; i < found->phases.size(); ++i)
                    QVERIFY2(std::abs(found->phases[i].from - found->phases[i - 1].to) < 0.5, duty);
            }
            QCOMPARE(heat::stopsIn(*dutyCalled(build, "twelve-laps")), 120);
            QCOMPARE(heat::stopsIn(*dutyCalled(build, "repeats")), 25);
            QVERIFY(!dutyCalled(build, "nothing"));
        }
    }

    /// What would have to be true for the verdict to be wrong and harmful.
    void edges_data()
    {
        QTest::addColumn<Level>("level");
        QTest::addColumn<QString>("word");
        QTest::addColumn<std::function<void(Build&)>>("change");
        const auto row = [](const char* what, Level level, const char* word, std::function<void(Build&)> change) {
            QTest::newRow(what) << level << word << std::move(change);
        };
        row("it holds", Level::Good, "No limit", [](Build&) {});
        row("nobody said which fluid", Level::Unproven, "class of the brake fluid",
            [](Build& b) { b.setups[0].hydraulics->fluid = FluidClass::Unknown; });
        row("nobody knows how old it is", Level::Unproven, "age of the fluid", [](Build& b) {
            b.setups[0].hydraulics->fluidAge = {};
            std::erase_if(b.log, [](const LogEntry& e) { return e.event == LogEvent::Fluid; });
        });
        row("but the log tells when it was filled in", Level::Good, "No limit", [](Build& b) { b.setups[0].hydraulics->fluidAge = {}; });
        // A pad nobody has measured is not taken to hold where a known one does.
        row("the pads' curve is not known", Level::Stop, "pads fade",
            [](Build& b) { b.setups[1].front->pad.frictionOverTemperature.clear(); });
        row("a curve of one point is no curve", Level::Stop, "pads fade",
            [](Build& b) { b.setups[1].front->pad.frictionOverTemperature.resize(1); });
        row("nor is it proven where it would hold", Level::Unproven, "how the pads fade", [](Build& b) {
            b.setups[1].front->pad.frictionOverTemperature.clear();
            b.car.duty = "descent";
        });
        row("nobody knows the pedal", Level::Unproven, "pedal ratio", [](Build& b) { b.setups[0].hydraulics->pedalRatio = {}; });
        row("old fluid boils", Level::Stop, "fluid boils", [](Build& b) {
            b.setups[0].hydraulics->wetBoiling = { 273.15 + 28, 1.0, Known::Vendor, {}, {} };
            b.setups[0].hydraulics->fluidAge.value = 1e8;
        });
        row("the pads are the wrong ones", Level::Stop, "pads fade", [](Build& b) {
            for (FrictionPoint& p : b.setups[1].front->pad.frictionOverTemperature)
                p.temperature.value = 273.15 + (*p.temperature.value - 273.15) * 0.4;
        });
        row("no thickness, no heat", Level::Unproven, "rotor thickness", [](Build& b) { b.setups[1].front->rotor.thickness = {}; });
        row("a speed of the duty is missing", Level::Unproven, "speed at its end", [](Build& b) { b.duties[0].legs[3].to = {}; });
        row("a drilled face, red hot", Level::Stop, "glows", [](Build& b) {
            b.setups[1].front->rotor.face = RotorFace::Drilled;
            b.car.duty = "twelve-laps";
        });
    }
    void edges()
    {
        QFETCH(Level, level);
        QFETCH(QString, word);
        QFETCH(std::function<void(Build&)>, change);
        Build build = withThermometers(demo());
        change(build);
        const Study s = study(build);
        const Verdict& v = givesUp(s);
        QVERIFY2(v.level == level && v.reason.find(word.toStdString()) != std::string::npos,
            (std::string(nameOf(v.level)) + ": " + v.reason).c_str());
        QVERIFY(!v.caution.empty() && !v.method.empty() && !v.source.empty());
        QVERIFY(level != Level::Good || s.line("hottest-ring")->change.value);
    }

    /// Without a thermometer a ring's rise may be off by 30 %, with one by 10: the interval says so. What hangs on the ring in a roundabout
    /// way stays as little known.
    void aThermometerNarrowsTheInterval()
    {
        const double before = givesUp(study(demo())).figure.worstCase;
        QVERIFY(givesUp(study(withThermometers(demo()))).figure.worstCase < 0.7 * before);
        const DutyHeat heat = ran(withThermometers(demo()), 1, "hill-climb");
        for (const heat::Node node : { heat::Node::Caliper, heat::Node::Fluid, heat::Node::Hub })
            QVERIFY(heat.unsureOf(Axle::Front, node) > 1);
        QVERIFY(heat.unsureOf(Axle::Front, heat::Node::Surface) < 0.3);
    }

    /// A hub, the fluid and the seals are hottest when the car stands: that belongs to the run.
    void standingAfterwardsBelongsToTheRun()
    {
        const DutyHeat kit = ran(demo("drover-camper"), 1, "repeats");
        QVERIFY(!kit.run->standing.empty());
        QVERIFY(kit.run->standing.back().time > kit.run->course.back().time + 20 * 60);
        const auto hub = static_cast<std::size_t>(heat::Node::Hub);
        double driving = 0;
        for (const heat::Moment& m : kit.run->course)
            driving = std::max(driving, m.front[hub]);
        QVERIFY2(kit.run->frontPeak[hub] > driving + 40, QByteArray::number(kit.run->frontPeak[hub] - driving).constData());
        const auto limit = std::ranges::find_if(kit.limits, [](const HeatLimit& l) { return l.what == "front hub's grease runs"; });
        QVERIFY(limit != kit.limits.end() && limit->standing && limit->stop);
        // It cools again: 25 minutes are enough to see the peak.
        QVERIFY(kit.run->standing.back().front[hub] < kit.run->frontPeak[hub] - 1);
    }

    /// What would be wrong and harmful: pads that fade for certain, and a verdict that only asks for the fluid's class.
    void whatGivesUpForCertainDoesWhateverElseIsNotKnown()
    {
        Build build = withThermometers(demo("drover-camper"));
        build.car.duty = "repeats";
        build.setups[1].hydraulics.reset();
        build.setups[0].hydraulics->fluid = FluidClass::Unknown;
        build.setups[0].hydraulics->dryBoiling = {};
        build.setups[1] = build.setups[0];
        build.setups[1].id = "the same again";
        QCOMPARE(givesUp(study(build)).level, Level::Stop);
        // Where nothing does for certain, the class is asked for.
        build = demo();
        build.setups[0].hydraulics->fluid = FluidClass::Unknown;
        build.setups[0].hydraulics->dryBoiling = {};
        QCOMPARE(givesUp(study(build)).level, Level::Unproven);
    }

    /// A pad that never has the friction it is quoted with gives up at once; one whose curve was cut off is proven no further than that.
    void aCurveProvesNoMoreThanItShows()
    {
        const Build good = withThermometers(demo());
        QCOMPARE(givesUp(study(good)).level, Level::Good);
        Build build = good;
        for (FrictionPoint& p : build.setups[1].front->pad.frictionOverTemperature)
            p.friction.value = *p.friction.value * 0.6;
        QCOMPARE(givesUp(study(build)).level, Level::Stop);
        build = good;
        auto& curve = build.setups[1].front->pad.frictionOverTemperature;
        while (curve.size() > 2 && *curve.back().temperature.value > 273.15 + 300)
            curve.pop_back();
        QVERIFY(curve.size() >= 2 && *curve.back().temperature.value < ran(good, 1, "hill-climb").run->frontPeak[1]);
        QVERIFY(givesUp(study(build)).level >= Level::Unproven);
        QVERIFY(givesUp(study(build)).level != Level::Good);
    }

    /// Old fluid boils sooner than two-year-old fluid: 24, 60 and 120 months differ.
    void fluidGoesOnAgeing()
    {
        Hydraulics h;
        h.fluid = FluidClass::Dot4;
        constexpr double month = 365.25 * 86400 / 12;
        double last = 1000;
        for (const double months : { 0.0, 12.0, 24.0, 60.0, 84.0 }) {
            h.fluidAge = exactly(months * month);
            const double boils = nominal([&](Evaluator& s) { return figures::fluidBoils(s, {}, h); });
            QVERIFY(boils < last - 5);
            last = boils;
        }
        h.fluidAge = exactly(24 * month);
        QVERIFY(near(nominal([&](Evaluator& s) { return figures::fluidBoils(s, {}, h); }), 155 + 273.15, 1e-9));
        h.fluidAge = exactly(120 * month);
        QVERIFY(near(nominal([&](Evaluator& s) { return figures::fluidBoils(s, {}, h); }), 155 + 273.15 - 0.5 * 75, 1e-9));
    }

    /// The age that was read counts from that day, and from the last change in the log where that is later.
    void fluidAgesFromItsDay()
    {
        constexpr double day = 86400;
        Build build;
        Hydraulics h;
        h.fluid = FluidClass::Dot4;
        const auto age = [&] { return nominal([&](Evaluator& s) { return figures::fluidAge(s, build, h); }); };
        QVERIFY(std::isnan(age()));
        h.fluidAge = { 100 * day, 0.0, Known::Measured, {}, "2026-01-01" };
        QCOMPARE(age(), 100 * day);
        const auto log = [&](const char* date, LogEvent event) {
            LogEntry entry;
            entry.date = date;
            entry.event = event;
            build.log.push_back(entry);
        };
        log("2026-07-20", LogEvent::TrackDay);
        QCOMPARE(age(), 300 * day);
        // A day in the log before it was read changes nothing; a day of tests counts as one in the log.
        build.log.front().date = "2025-12-01";
        QCOMPARE(age(), 100 * day);
        build.tests.emplace_back();
        build.tests.back().date = "2026-01-11";
        QCOMPARE(age(), 110 * day);
        // New fluid: it begins again; bled before it was read, it does not.
        log("2026-01-05", LogEvent::Fluid);
        QCOMPARE(age(), 6 * day);
        build.log.back().date = "2025-12-31";
        QCOMPARE(age(), 110 * day);
        // Where nobody read it, the log says it; where nothing is dated, it is as read.
        h.fluidAge = {};
        QCOMPARE(age(), 11 * day);
        h.fluidAge = { 100 * day, 0.0, Known::Measured, {}, {} };
        QCOMPARE(age(), 100 * day);
    }

    /// Where the foot or the tyres no longer do, the duty is not driven as asked: no iron at 1300 °C, and no stop blamed on the wrong one.
    void whatCannotBeBrakedIsNotHeatedUp()
    {
        Build build = demo();
        build.car.duty = "hill-climb";
        for (Leg& leg : build.duties.front().legs)
            if (leg.to.value && leg.time.value && leg.from.value.value_or(100) > *leg.to.value)
                leg.time.value = *leg.time.value / 4;
        const DutyHeat heat = ran(build, 1, "hill-climb");
        QVERIFY(heat.tyresFail && !heat.footFails);
        QVERIFY2(heat.hottestRing < 273.15 + 700, QByteArray::number(heat.hottestRing).constData());
        const Study s = study(build);
        QVERIFY(givesUp(s).level >= Level::Unproven);
        QVERIFY2(givesUp(s).reason.find("tyres") != std::string::npos, givesUp(s).reason.c_str());
        QCOMPARE(s.line("hottest-ring")->word, "unproven");
        // A foot that gives out is said, also of the setup before.
        build = demo();
        build.wants.greatestEffort = exactly(60);
        const Verdict v = givesUp(study(build));
        QCOMPARE(v.level, Level::Stop);
        QVERIFY2(v.reason.find("The foot at braking 1") == 0 && v.reason.find("before: the foot at braking 1") != std::string::npos,
            v.reason.c_str());
        QVERIFY(v.reason.find("no limit reached") == std::string::npos);
    }

    /// Readings of the car, the curve, the duty and the fluid that say little leave no verdict good.
    void widthsReachTheVerdict()
    {
        const Build good = withThermometers(demo());
        const auto level = [&](auto change) {
            Build build = good;
            change(build);
            return givesUp(study(build)).level;
        };
        const auto wide = [](Reading& r, double share) { r.plusMinus = *r.value * share; };
        QCOMPARE(level([](Build&) {}), Level::Good);
        QVERIFY(level([&](Build& b) { wide(b.car.mass, 0.8); }) > Level::Unproven);
        QVERIFY(level([&](Build& b) {
            for (FrictionPoint& p : b.setups[0].rear->pad.frictionOverTemperature)
                wide(p.friction, 0.5);
        }) > Level::Unproven);
        QVERIFY(level([&](Build& b) {
            for (Leg& leg : b.duties.front().legs)
                if (leg.to.value && *leg.to.value > 0)
                    wide(leg.to, 0.6);
        }) > Level::Unproven);
        QVERIFY(level([&](Build& b) { wide(b.setups[0].hydraulics->pedalRatio, 0.99), b.wants.greatestEffort = exactly(400); })
            > Level::Unproven);
    }

    /// A cooling nobody measured, or measured loosely, narrows nothing beyond what it is worth; and one read in front says nothing of the
    /// rear.
    void onlyAThermometerNarrows()
    {
        Build build = demo();
        const auto widths = [&] { return ran(build, 1, "hill-climb").unsure; };
        const double own = widths().front;
        QVERIFY(own > 0.3 && own < 0.45);
        build.setups[1].front->cooling = { 1.0, 0.1, Known::Vendor, {}, {} };
        QCOMPARE(widths().front, own);
        build.setups[1].front->cooling = { 1.0, 0.6, Known::Measured, "thermometer", {} };
        QVERIFY(widths().front > 0.6);
        build.setups[1].front->cooling = { 1.0, 0.1, Known::Measured, "thermometer", {} };
        QVERIFY(widths().front < own);
        QVERIFY(widths().rear > 0.3);
        heat::Calibration fit {};
        fit.cooling = 1.2;
        fit.coolingWidth = 0.1;
        const Build read = withCooling(
            build, "varnik-330", fit, { { { 10, true, heat::Node::Ring, 500, 5 }, { 20, true, heat::Node::Ring, 520, 5 } }, {}, {}, {} });
        QVERIFY(!read.setups[1].rear && !read.setups[0].rear->cooling.value);
        QCOMPARE(*read.setups[1].front->cooling.value, 1.2);
        const Build rear = withCooling(build, "varnik-330", fit, { { { 10, false, heat::Node::Ring, 500, 5 } }, {}, {}, {} });
        QVERIFY(!rear.setups[1].rear && rear.setups[0].rear->cooling.value);
    }

    /// Beyond its last point a pad falls and never rises, wherever that point lies.
    void noPadGainsBeyondItsCurve()
    {
        for (const double last : { 300.0, 600.0, 900.0, 1300.0 }) {
            Build build = demo();
            auto& points = build.setups[1].front->pad.frictionOverTemperature;
            points = { points.front(), points.front() };
            points[1].temperature.value = 273.15 + last;
            Evaluator s;
            const auto curve = figures::frictionCurve(s, *build.setups[1].front);
            for (double t = 300; t < 2500; t += 20)
                QVERIFY(curve.at(t + 20) <= curve.at(t) + 1e-12);
            QVERIFY(curve.at(2500) < curve.at(300));
        }
    }

    /// From simulated measurements with noise the cooling comes back within its stated width in at least 90 of 100 tries (95 expected).
    void theThermometerFindsTheCooling()
    {
        const heat::Car car = merle();
        const heat::Duty duty = heat::snubs(8, 33, 17, 4, 30);
        const heat::Accuracy coarse { 0.01, 4e-3, 0.25 };
        heat::Car truth = car;
        const double cooling = 1.35;
        truth.front.cooling *= cooling;
        truth.rear.cooling *= cooling;
        const heat::Run real = heat::run(truth, duty, coarse);
        std::normal_distribution<double> bell(0, 1);
        int within = 0;
        for (int attempt = 0; attempt < 100; ++attempt) {
            std::vector<heat::Taken> taken;
            for (const double time : { 100.0, 160.0, 200.0, 239.0 }) {
                const double width = 10;
                const double read = heat::momentAt(real, time).front[0] + width / 2 * bell(rng());
                taken.push_back({ time, true, heat::Node::Ring, read, width });
            }
            const auto fit = heat::calibrate(car, duty, taken, {}, coarse);
            QVERIFY(fit && !fit->contradicts);
            within += std::abs(fit->cooling - cooling) <= fit->coolingWidth;
        }
        QVERIFY2(within >= 90, QByteArray::number(within).constData());
    }

    void aWrongThermometerIsCalledOne()
    {
        const heat::Car car = merle();
        const heat::Duty duty = heat::snubs(8, 33, 17, 4, 30);
        const heat::Accuracy coarse { 0.01, 4e-3, 0.25 };
        const heat::Run real = heat::run(car, duty, coarse);
        std::vector<heat::Taken> taken;
        double sign = 1;
        for (const double time : { 60.0, 120.0, 180.0, 239.0 }) {
            taken.push_back({ time, true, heat::Node::Ring, heat::momentAt(real, time).front[0] + sign * 80, 8 });
            sign = -sign;
        }
        QVERIFY(heat::calibrate(car, duty, taken, {}, coarse)->contradicts);
        // One that shows next to nothing.
        for (heat::Taken& t : taken)
            t.temperature = 300;
        QVERIFY(heat::calibrate(car, duty, taken, {}, coarse)->contradicts);
        taken.resize(1);
        QVERIFY(!heat::calibrate(car, duty, taken, {}, coarse));
    }

    /// Both axles measured: cooling and split come back together.
    void coolingAndSplitTogether()
    {
        const heat::Car car = merle();
        const heat::Duty duty = heat::snubs(8, 33, 17, 4, 30);
        const heat::Accuracy coarse { 0.01, 4e-3, 0.25 };
        heat::Car truth = car;
        truth.front.cooling = truth.rear.cooling = 0.8;
        truth.frontShare = [share = car.frontShare](double f, double a, double b) { return 0.93 * share(f, a, b); };
        const heat::Run real = heat::run(truth, duty, coarse);
        std::vector<heat::Taken> taken;
        for (const double time : { 61.0, 121.0, 181.0, 239.0 })
            for (const bool front : { true, false }) {
                const heat::Moment m = heat::momentAt(real, time);
                taken.push_back({ time, front, heat::Node::Ring, (front ? m.front : m.rear)[0], 5 });
            }
        const auto fit = heat::calibrate(car, duty, taken, {}, coarse);
        QVERIFY(fit && !fit->contradicts);
        QVERIFY2(near(fit->cooling, 0.8, 0.02) && near(fit->split, 0.93, 0.01), QByteArray::number(fit->cooling).constData());
    }

    /// The same draws for both: the difference spreads far less than either, and the draws do not hang on the number of threads.
    void commonRandomNumbers()
    {
        const std::vector<heat::Car> cars { merle(0), merle(1) };
        const heat::Duty duty = heat::snubs(6, 33, 17, 4, 30);
        std::atomic<int> told { 0 };
        const auto two = heat::spread(cars, duty, 64, {}, 7, 2, [&](double) { ++told; });
        const auto one = heat::spread(cars, duty, 64, {}, 7, 1);
        QCOMPARE(two[0].size(), std::size_t { 64 });
        QVERIFY(told > 0);
        std::vector<double> before;
        std::vector<double> difference;
        for (std::size_t i = 0; i < 64; ++i) {
            QCOMPARE(two[0][i].frontPeak, one[0][i].frontPeak);
            before.push_back(two[0][i].frontPeak[1]);
            difference.push_back(two[1][i].frontPeak[1] - two[0][i].frontPeak[1]);
        }
        const auto width = [](const std::vector<double>& v) { return quantile(v, 0.9) - quantile(v, 0.1); };
        QVERIFY(width(difference) < 0.5 * width(before));
        // Cancelled in the middle, no thread begins another draw.
        std::atomic<bool> unwanted { false };
        std::atomic<int> after { 0 };
        const CancelScope scope(&unwanted);
        QVERIFY_THROWS_EXCEPTION(
            Cancelled, (void)heat::spread(cars, duty, 640, {}, 7, 2, [&](double) { after += unwanted.exchange(true); }));
        QVERIFY(after <= 1);
    }

    /// By hand: series, flash and cooling time.
    void quickSums()
    {
        QVERIFY(near(answer("flash", { "flux=2e6 W/m²", "duration=3 s", "conductivity=50", "density=7200", "specific-heat=480" },
                         "surface_rise_max_K"),
            4 / (3 * std::sqrt(2 * std::numbers::pi)) * 2e6 * std::sqrt(3 / (50.0 * 7200 * 480)), 1e-9));
        const double decay = 60 * 0.09 * 40 / (6.0 * 480);
        QVERIFY(
            near(answer("repeated-stops",
                     { "rise=50", "interval=40", "stops=10", "coefficient=60", "area=0.09 m²", "mass=6", "specific-heat=480" }, "peak_K"),
                50 * (1 - std::exp(-10 * decay)) / (1 - std::exp(-decay)), 1e-9));
        QVERIFY(near(answer("cooling-time",
                         { "from=400", "to=100", "ambient=20", "coefficient=40", "area=900 cm²", "mass=6", "specific-heat=480" }, "time_s"),
            6.0 * 480 / (40 * 0.09) * std::log(380.0 / 80), 1e-9));
        for (const auto& [sum, arguments] : std::vector<std::pair<const char*, std::vector<std::string>>> {
                 { "flash", { "flux=1e6", "duration=-1", "conductivity=50", "density=7200", "specific-heat=480" } },
                 { "repeated-stops",
                     { "rise=50", "interval=40", "stops=2.5", "coefficient=60", "area=900", "mass=6", "specific-heat=480" } },
                 { "cooling-time", { "from=100", "to=400", "coefficient=40", "area=900", "mass=6", "specific-heat=480" } } })
            QVERIFY_THROWS_EXCEPTION(sums::BadRequest, (void)sums::calculate(sum, arguments));
    }

    void theTableNamesSetupAxleAndNode()
    {
        const Build build = demo();
        const Study s = study(build);
        const auto duty = *dutyCalled(build, "hill-climb");
        const std::vector<report::DutyRun> runs { { s.after.setup, dutyHeatOf(build, s.after, duty) },
            { s.before.setup, dutyHeatOf(build, s.before, duty) } };
        const auto lines = QString::fromStdString(report::heatCsv(runs)).split('\n', Qt::SkipEmptyParts);
        const auto columns = lines.front().split(',');
        QVERIFY(lines.front().startsWith("time_s,distance_m,speed_mps,"));
        for (const char* name : { "varnik-330.front.ring_degC", "varnik-330.rear.power_W", "as-found.front.fluid_degC" })
            QVERIFY2(columns.contains(name), name);
        double time = -1;
        for (int i = 1; i < lines.size(); ++i) {
            const auto fields = lines[i].split(',');
            QCOMPARE(fields.size(), columns.size());
            QVERIFY(fields[0].toDouble() >= time);
            time = fields[0].toDouble();
        }
        const auto sheet = report::heatSheet(s, duty, runs);
        QVERIFY(sheet.find("no limit reached") != std::string::npos && sheet.find("front pads fade at braking") != std::string::npos);
    }
};

DEEPSTOP_TEST(DutyTest)
#include "duty_test.moc"
