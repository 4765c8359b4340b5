/// A series until it fades against the heat model, and as its thermometer. What would be wrong and harmful: a foot that presses harder
/// taken for pads that hold, a stand-in's curve taken for a thermometer, a model called right that is too cool.

#include "chapters/heat/duty_heat.hpp"
#include "chapters/proving/calibrated.hpp"
#include "chapters/proving/fading.hpp"
#include "chapters/proving/measured.hpp"
#include "core/support.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop;

namespace {

constexpr double speed = 100 / 3.6;
constexpr int stops = 12;

Reading read(double value, double width = 0) { return { value, width, Known::Measured, {}, {} }; }

/// Stops to rest at 0.8 g, one every half minute.
DutyPlan runUntilItFades()
{
    DutyPlan plan;
    plan.id = "until-it-fades";
    plan.name = "twelve stops";
    const double braking = speed / (0.8 * standardGravity);
    for (int i = 0; i < stops; ++i) {
        Leg stop;
        stop.from = read(speed);
        stop.to = read(0);
        stop.time = read(braking);
        stop.braking = YesNo::Yes;
        Leg away;
        away.to = read(speed);
        away.time = read(18);
        away.braking = YesNo::No;
        plan.legs.push_back(stop);
        plan.legs.push_back(away);
    }
    return plan;
}

void setCooling(Build& build, double cooling)
{
    for (std::optional<Corner>* corner : { &build.setups[0].front, &build.setups[0].rear })
        (*corner)->cooling = { cooling, 0.05, Known::Measured, "thermometer", {} };
}

/// The Merle as found, stopped by tyres that hold more than its brakes make, so that every stop tells of the pads.
Build merle()
{
    Build build = demo();
    build.car.testSpeed = read(speed);
    build.duties = { runUntilItFades() };
    build.car.duty = "until-it-fades";
    build.tests.clear();
    for (Wheel& wheel : build.wheels)
        wheel.grip = read(1.6);
    return build;
}

/// Its series as it would be with that cooling, the foot as the build has it times `harder` in the second half.
TestSession seriesOf(const Build& as, double cooling, double harder = 1, double scatter = 0)
{
    Build build = as;
    setCooling(build, cooling);
    const SetupParts parts = partsOf(build, build.setups[0]);
    Evaluator s;
    const heat::Duty duty = figures::dutyOf(s, build, build.duties[0]);
    const DutyHeat heat = dutyHeatOf(build, parts, duty);
    const double foot = *parts.hydraulics->pedalForce.value;
    TestSession session;
    session.setup = build.setups[0].id;
    session.series = Series::Fade;
    session.duty = "until-it-fades";
    session.surface = Surface::Dry;
    session.from = MeasuredFrom::Pedal;
    session.slope = read(0, 0.001);
    session.wind = read(0);
    std::normal_distribution<double> bell(0, 1);
    for (int i = 1; i <= stops; ++i) {
        figures::StopOf of;
        int count = 0;
        of.frontFriction = of.rearFriction = 0;
        for (const heat::Moment& m : heat.run->course)
            if (m.stop == i && m.power > 0)
                of.frontFriction += m.frontFriction, of.rearFriction += m.rearFriction, ++count;
        of.frontFriction /= count;
        of.rearFriction /= count;
        of.pedal = i > stops / 2 ? harder * foot : foot;
        MeasuredStop stop;
        stop.speed = read(speed, 0.1);
        stop.distance = read(figures::drive(s, build, parts, of, false).distance * (1 + scatter * bell(rng())), 0.2);
        stop.pedal = read(of.pedal, 5);
        session.stops.push_back(stop);
    }
    return session;
}

Study studied(const Build& build)
{
    return study(std::make_shared<const Build>(build), { build.setups[0].id, build.setups[0].id }, UnitSystem::Metric, Remedies::LeftOut);
}

Thermometer thermometerOf(const Build& build)
{
    Evaluator s;
    return temperaturesOf(build, partsOf(build, build.setups[0]), build.duties[0], figures::dutyOf(s, build, build.duties[0]));
}

std::optional<heat::Calibration> fitOf(const Build& build)
{
    return calibrationOf(build, partsOf(build, build.setups[0]), build.duties[0]);
}

} // namespace

class FadingTest : public QObject {
    Q_OBJECT
private slots:
    void theCoolingComesBack()
    {
        Build build = merle();
        for (const double cooling : { 0.6, 0.8 }) {
            build.tests = { seriesOf(build, cooling) };
            QCOMPARE(thermometerOf(build).faded.size(), std::size_t { 1 });
            const auto fit = fitOf(build);
            QVERIFY2(
                fit && !fit->contradicts && near(fit->cooling, cooling, 0.03), QByteArray::number(fit ? fit->cooling : -1).constData());
            // A curve that may be off, and stops that repeat to some percent, are no laboratory.
            QVERIFY2(fit->coolingWidth > 0.03 && fit->coolingWidth < 0.6, QByteArray::number(fit->coolingWidth).constData());
        }
        int within = 0;
        for (int attempt = 0; attempt < 20; ++attempt) {
            build.tests = { seriesOf(build, 0.7, 1, 0.02) };
            const auto fit = fitOf(build);
            within += fit && std::abs(fit->cooling - 0.7) <= fit->coolingWidth;
        }
        QVERIFY2(within >= 18, QByteArray::number(within).constData());
    }

    /// The same lengths with a foot that pressed harder: the pads lost more than they show, so the brakes were hotter.
    void aHarderFootHidesWhatPadsLose()
    {
        Build build = merle();
        build.tests = { seriesOf(build, 0.7) };
        const auto plain = fitOf(build);
        for (std::size_t i = stops / 2; i < build.tests[0].stops.size(); ++i)
            build.tests[0].stops[i].pedal.value = 1.15 * *build.tests[0].stops[i].pedal.value;
        const auto hidden = fitOf(build);
        QVERIFY(plain && hidden && hidden->cooling < plain->cooling);
        // Driven so, it comes back as it was.
        build.tests = { seriesOf(build, 0.7, 1.15) };
        QVERIFY(near(fitOf(build)->cooling, 0.7, 0.05));
    }

    /// What is not known makes it no thermometer: the foot at one stop, a curve of either axle, the duty, parts of another day, other
    /// stops.
    void itTellsNothingWithoutAllOfIt()
    {
        const auto lacksAfter = [](auto change) {
            Build build = merle();
            build.tests = { seriesOf(build, 0.7) };
            change(build);
            const auto t = thermometerOf(build);
            return t.faded.empty() ? QString::fromStdString(t.fadeLacks.empty() ? "no series" : t.fadeLacks.front()) : QString();
        };
        QCOMPARE(lacksAfter([](Build&) {}), QString());
        QVERIFY(lacksAfter([](Build& b) { b.tests[0].stops[7].pedal.value.reset(); }).contains("foot was not read at 1"));
        QVERIFY(lacksAfter([](Build& b) { b.setups[0].rear->pad.frictionOverTemperature.clear(); }).contains("rear pads over temperature"));
        QVERIFY(
            lacksAfter([](Build& b) { b.setups[0].front->pad.frictionOverTemperature.clear(); }).contains("front pads over temperature"));
        QCOMPARE(lacksAfter([](Build& b) { b.tests[0].duty.clear(); }), QString("no series"));
        QVERIFY(lacksAfter([](Build& b) {
            b.tests[0].ran = b.setups[0];
            b.setups[0].front->rotor.thickness.value = 1.1 * *b.setups[0].front->rotor.thickness.value;
        }).contains("changed since"));
        QVERIFY(lacksAfter([](Build& b) {
            for (Leg& leg : b.duties[0].legs)
                if (leg.from.value && *leg.from.value > 1)
                    leg.from.value = 0.8 * speed;
        }).contains("are not those of"));
        QVERIFY(lacksAfter([](Build& b) { b.tests[0].stops.resize(4); }).contains("five stops"));
        // A cooling set since then is the model's, not the car's.
        QCOMPARE(lacksAfter([](Build& b) {
            b.tests[0].ran = b.setups[0];
            setCooling(b, 0.7);
        }),
            QString());
    }

    /// Pads that hold, in the model and on the road, tell of no cooling.
    void noFadeTellsNothing()
    {
        Build build = merle();
        for (std::optional<Corner>* corner : { &build.setups[0].front, &build.setups[0].rear })
            for (FrictionPoint& point : (*corner)->pad.frictionOverTemperature)
                point.temperature.value = 293.15 + 8 * (*point.temperature.value - 293.15);
        build.tests = { seriesOf(build, 1) };
        QVERIFY(!fitOf(build));
    }

    void aModelThatIsTooCoolIsCalledOne()
    {
        Build build = merle();
        build.tests = { seriesOf(build, 0.5) };
        const Study s = studied(build);
        const Verdict* v = s.verdict("stop/fade-model-1");
        QVERIFY(v);
        QVERIFY2(v->level == Level::Caution && v->reason.find("run hotter") != std::string::npos, v->reason.c_str());
        QVERIFY(*v->figure.value > 1.1);
        // Set from it, it agrees.
        const auto fit = fitOf(build);
        const Build set = withCooling(build, build.setups[0].id, *fit, thermometerOf(build));
        QCOMPARE(set.setups[0].rear->cooling.instrument, "fade over the stops");
        const Verdict agrees = *studied(set).verdict("stop/fade-model-1");
        QVERIFY2(agrees.level != Level::Caution && near(*agrees.figure.value, 1, 0.05), agrees.reason.c_str());
        // A foot nobody has read may have pressed harder: what agrees is then not proven to.
        Build footless = set;
        footless.tests[0].stops[8].pedal.value.reset();
        const Verdict perhaps = *studied(footless).verdict("stop/fade-model-1");
        QVERIFY2(perhaps.level == Level::Unproven && perhaps.reason.find("foot pressed") != std::string::npos, perhaps.reason.c_str());
        build.tests[0].duty.clear();
        QVERIFY(studied(build).verdict("stop/fade-model-1")->reason.find("Say which duty") != std::string::npos);
        QCOMPARE(studied(build).verdict("stop/fade-model-1")->level, Level::Unproven);
    }
};

DEEPSTOP_TEST(FadingTest)
#include "fading_test.moc"
