/// Bedding in: the schedule by the heat model, and a drive told apart slow-down by slow-down. What would be wrong and harmful: a slow-down
/// that was none counted, brakes called cool that are not, a schedule that boils the fluid given without a word.

#include "core/support.hpp"
#include "instruments/receiver.hpp"
#include "jobcard/bedding.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop;
using namespace deepstop::jobcard;

namespace {

Study studied(const Build& build) { return study(std::make_shared<const Build>(build), {}, UnitSystem::Metric, Remedies::LeftOut); }

BeddingPlan planOf(const Build& build, Bedding procedure)
{
    JobCard choices;
    choices.bedding = procedure;
    return beddingPlanOf(studied(build), choices);
}

/// Two slow-downs from 90 to 45 km/h, twenty seconds between, then a minute of cooling.
BeddingPlan little()
{
    BeddingPlan plan;
    plan.procedure = Bedding::SlowDowns;
    plan.passes.assign(2, { 25, 12.5, 4, 20, 500 });
    plan.coolSpeed = 16;
    plan.coolFor = 60;
    return plan;
}

/// Drives what a receiver's car does, ten moments a second.
void driveOn(BeddingDrive& drive, const std::vector<instruments::PlannedStop>& stops, double noise = 0)
{
    instruments::ReceiverScene scene;
    scene.stops = stops;
    const instruments::Receiver car(scene);
    std::normal_distribution<double> bell(0, 1);
    for (double t = 0; t < car.duration(); t += 0.1)
        drive.take(t, std::max(0.0, car.speedAt(t) + noise * bell(rng())));
}

} // namespace

class BeddingTest : public QObject {
    Q_OBJECT
private slots:
    void theHeatModelSaysHowHotAndHowLong()
    {
        const auto plan = planOf(demo(), Bedding::SlowDowns);
        QCOMPARE(plan.passes.size(), std::size_t { 10 });
        QVERIFY(plan.lacks.empty() && plan.warning.empty() && plan.coolByModel);
        QVERIFY(plan.coolFor >= 180 && plan.coolFor < 2400 * 1.3);
        // Each slow-down begins hotter than the one before it.
        for (std::size_t i = 1; i < plan.passes.size(); ++i)
            QVERIFY(plan.passes[i].hottest > plan.passes[i - 1].hottest);
        QVERIFY(planOf(demo(), Bedding::WarmThenHard).passes.back().hottest > plan.passes.back().hottest);
        QVERIFY(planOf(demo(), Bedding::Maker).passes.empty() && planOf(demo(), Bedding::Street).passes.empty());
        JobCard choices;
        choices.bedding = Bedding::SlowDowns;
        const auto procedure = beddingOf(studied(demo()), choices);
        QVERIFY2(procedure.steps[0].find("by the heat model") != std::string::npos, procedure.steps[0].c_str());
    }

    /// A heat model that lacks a reading neither warns nor shortens anything: the procedure's own times stand.
    void knowingLessShortensNothing()
    {
        Build build = demo();
        build.setups[1].front->rotor.thickness.value.reset();
        build.setups[1].front->weighings.clear();
        const auto plan = planOf(build, Bedding::SlowDowns);
        QVERIFY(!plan.lacks.empty() && !plan.coolByModel);
        QCOMPARE(plan.coolFor, 600.0);
        QVERIFY(std::isnan(plan.passes.front().hottest) && near(plan.passes.front().driveOn, 60 - 49 / 3.6 / 4, 1e-12));
    }

    void fluidThatWouldBoilIsSaid()
    {
        Build build = demo();
        for (Setup& setup : build.setups)
            if (setup.hydraulics) {
                setup.hydraulics->dryBoiling = { 305, 1.0, Known::Measured, {}, {} };
                setup.hydraulics->wetBoiling = { 304, 1.0, Known::Measured, {}, {} };
            }
        const auto plan = planOf(build, Bedding::WarmThenHard);
        QVERIFY2(plan.warning.find("fluid boils") != std::string::npos, plan.warning.c_str());
        JobCard choices;
        choices.bedding = Bedding::WarmThenHard;
        const auto procedure = beddingOf(studied(build), choices);
        QVERIFY(std::ranges::any_of(procedure.steps, [](const auto& s) { return s.find("ask the pads' maker") != std::string::npos; }));
    }

    /// Pads that would fade on the road's schedule get longer between its slow-downs, or are told of.
    void weakPadsAreGivenTime()
    {
        Build build = demo();
        auto& curve = build.setups[1].front->pad.frictionOverTemperature;
        const auto usual = planOf(build, Bedding::SlowDowns);
        const double hottest = usual.passes.back().hottest;
        curve = { { { 293.15, {}, Known::Measured, {}, {} }, { 0.40, {}, Known::Measured, {}, {} } },
            { { hottest - 30, {}, Known::Measured, {}, {} }, { 0.40, {}, Known::Measured, {}, {} } },
            { { hottest - 10, {}, Known::Measured, {}, {} }, { 0.10, {}, Known::Measured, {}, {} } } };
        const auto plan = planOf(build, Bedding::SlowDowns);
        QVERIFY(plan.stretched || !plan.warning.empty());
        if (plan.stretched)
            QVERIFY(plan.passes.front().driveOn > 1.5 * usual.passes.front().driveOn && plan.passes.back().hottest < hottest - 10);
    }

    /// Worse pads get no shorter cooling, and what is printed of a schedule are its own figures: where no longer way helps, those of the
    /// procedure's own one.
    void worsePadsShortenNothing()
    {
        Build build = demo();
        const auto usual = planOf(build, Bedding::SlowDowns);
        QVERIFY(usual.coolFor >= 600);
        for (const double fadesAt : { 700.0, 550.0, 450.0, 400.0 }) {
            auto& curve = build.setups[1].front->pad.frictionOverTemperature;
            const auto point = [](double t, double f) {
                return FrictionPoint { { t, {}, Known::Measured, {}, {} }, { f, {}, Known::Measured, {}, {} }, {} };
            };
            curve = { point(293.15, 0.40), point(fadesAt, 0.40), point(fadesAt + 20, 0.08) };
            const auto plan = planOf(build, Bedding::SlowDowns);
            QVERIFY2(plan.coolFor >= usual.coolFor - 1e-6, qPrintable(QString::number(plan.coolFor)));
            if (!plan.stretched)
                QVERIFY(near(plan.passes.front().driveOn, usual.passes.front().driveOn, 1e-12));
            // A warning speaks of the schedule that is printed.
            if (!plan.warning.empty())
                QVERIFY(!plan.stretched && plan.passes.back().hottest > fadesAt);
        }
    }

    void aDriveIsCountedToItsEnd()
    {
        for (const double noise : { 0.0, 0.1 }) {
            BeddingDrive drive(little());
            QCOMPARE(drive.task(), BeddingDrive::Task::SpeedUp);
            driveOn(drive, { { 25.2, 4.2, 0.3, 12, 20 }, { 25.2, 4.2, 0.3, 12, 30 } }, noise);
            QCOMPARE(drive.counted(), 2);
            QCOMPARE(drive.task(), BeddingDrive::Task::Cool);
            QVERIFY(drive.left() > 25 && drive.left() < 32);
            QVERIFY(drive.notCounted().empty() && drive.stoodHot() == 0);
        }
        BeddingDrive drive(little());
        driveOn(drive, { { 25.2, 4.2, 0.3, 12, 20 }, { 25.2, 4.2, 0.3, 12, 70 } });
        QCOMPARE(drive.task(), BeddingDrive::Task::Done);
    }

    void whatIsNoneDoesNotCount_data()
    {
        QTest::addColumn<double>("from");
        QTest::addColumn<double>("to");
        QTest::addColumn<double>("deceleration");
        QTest::addColumn<QString>("why");
        QTest::newRow("slow") << 21.0 << 12.0 << 4.0 << "it began too slow";
        QTest::newRow("fast") << 25.2 << 17.0 << 4.0 << "it ended too fast";
        QTest::newRow("gentle") << 25.2 << 12.0 << 1.8 << "it was too gentle";
        QTest::newRow("stands") << 25.2 << 0.0 << 4.0 << "the car came to a stand";
    }
    void whatIsNoneDoesNotCount()
    {
        QFETCH(double, from);
        QFETCH(double, to);
        QFETCH(double, deceleration);
        QFETCH(QString, why);
        BeddingDrive drive(little());
        driveOn(drive, { { from, deceleration, 0.2, to, 10 } });
        QCOMPARE(drive.counted(), 0);
        QCOMPARE(QString::fromStdString(drive.notCounted()), why);
    }

    /// One right after another is not the schedule; standing with hot brakes is told of; a hole in the log counts for nothing.
    void earlyOnesAndHotStandsAreTold()
    {
        BeddingDrive early(little());
        driveOn(early, { { 25.2, 4.2, 0.3, 12, 1 }, { 25.2, 4.2, 0.3, 12, 10 } });
        QCOMPARE(early.counted(), 1);
        QVERIFY(early.notCounted().find("cooled") != std::string::npos);
        BeddingDrive stands(little());
        driveOn(stands, { { 25.2, 4.2, 0.3, 12, 1 }, { 12.1, 1.0, 0, 0, 3 } });
        QCOMPARE(stands.stoodHot(), 1);
        BeddingDrive gone(little());
        for (double t = 0; t < 10; t += 0.1)
            gone.take(t, 25);
        for (double t = 13.5; t < 20; t += 0.1)
            gone.take(t, 12);
        QCOMPARE(gone.counted(), 0);
        for (const double nonsense : { std::nan(""), -5.0 })
            gone.take(nonsense, 25);
        QCOMPARE(gone.counted(), 0);
    }

    void theCardAndTheLogKnowOfIt()
    {
        const Study s = studied(demo());
        const auto beds = beddedIn(s, { "K. M.", "2026-06-01 10:20" }, 1);
        QVERIFY(beds);
        const auto build = (*beds)(*s.build);
        QVERIFY(build && build->log.size() == s.build->log.size() + 1);
        QCOMPARE(build->log.back().event, LogEvent::Bedded);
        QCOMPARE(build->log.back().date, "2026-06-01");
        QVERIFY(build->log.back().note.find("stood 1 times") != std::string::npos);
        for (const Step& step : cardOf(studied(*build)).steps)
            if (step.phase == Phase::BedIn)
                QVERIFY(step.state == Checked::Fine && step.who == "K. M.");
    }
};

DEEPSTOP_TEST(BeddingTest)
#include "bedding_test.moc"
