/// What was seen, felt or read on a tester; dimensions as a tape gives them; the card that follows from what somebody says.

#include "chapters/clearance/clearance.hpp"
#include "build/element_id.hpp"
#include "core/support.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "jobcard/jobcard.hpp"
#include "quantity/entry.hpp"
#include "report/ask.hpp"
#include "report/sheets.hpp"

#include <QTest>

#include <set>

using namespace deepstop;

namespace {

Build job(const std::string& name) { return files::loadBuild(DEEPSTOP_TESTS "/data/jobs/" + name + ".deepstop").build; }
Study studied(Build build) { return study(std::make_shared<const Build>(std::move(build)), {}, UnitSystem::Metric, Remedies::LeftOut); }

/// The demo with a session of its kit, no stops in it.
Build observed(Build build = demo())
{
    TestSession session;
    session.setup = build.setups[1].id;
    session.date = "2026-06-01";
    build.tests.push_back(std::move(session));
    giveIds(build);
    return build;
}
TestSession& seen(Build& build) { return build.tests.back(); }
std::string last(const Build& build, const char* check) { return std::string("stop/") + check + "-" + std::to_string(build.tests.size()); }
const Verdict& said(const Study& s, const std::string& id)
{
    const Verdict* v = s.verdict(id);
    if (!v)
        qFatal("no verdict %s", id.c_str());
    return *v;
}
Reading newton(double value) { return { value, 0.02 * value, Known::Measured, "brake tester", {} }; }

} // namespace

class ObservedTest : public QObject {
    Q_OBJECT
private slots:
    void nothingSaidMakesNoVerdict()
    {
        const Study s = studied(observed());
        for (const Verdict& v : s.verdicts)
            for (const char* part : { "locked-first", "tester", "fade-felt", "booster-test" })
                QVERIFY2(v.id.find(part) == std::string::npos, v.id.c_str());
    }

    void aRearThatLockedFirstIsAStop()
    {
        Build build = observed();
        seen(build).lockedFirst = LockedFirst::Rear;
        const Study s = studied(build);
        const Verdict& v = said(s, last(build, "locked-first"));
        QCOMPARE(v.level, Level::Stop);
        // The demo's figures have the front first: what they say is doubted, not what was seen.
        QVERIFY2(v.reason.find("by the figures the front should") != std::string::npos, v.reason.c_str());
    }

    void aFrontThatLockedFirstIsGoodOnAKnownRoadOnly()
    {
        Build build = observed();
        seen(build).lockedFirst = LockedFirst::Front;
        QCOMPARE(said(studied(build), last(build, "locked-first")).level, Level::Unproven);
        seen(build).surface = Surface::Wet;
        QCOMPARE(said(studied(build), last(build, "locked-first")).level, Level::Good);
        // Where the figures say otherwise one of both is wrong.
        build.setups[0].hydraulics->rearKneePressure = {};
        build.setups[0].hydraulics->valve = ValveKind::None;
        build.setups[0].rear->pad.friction.value = 1.2;
        const Verdict v = said(studied(build), last(build, "locked-first"));
        QVERIFY2(v.level == Level::Caution, (std::string(nameOf(v.level)) + v.reason).c_str());
        seen(build).lockedFirst = LockedFirst::Both;
        QCOMPARE(said(studied(build), last(build, "locked-first")).level, Level::Caution);
        // No wheel locked: nothing is known of the order.
        seen(build).lockedFirst = LockedFirst::None;
        QVERIFY(!studied(build).verdict(last(build, "locked-first")));
    }

    /// With other parts on since then it says nothing of those that are on, but what was bad stays said.
    void otherPartsSinceThen()
    {
        Build build = observed();
        seen(build).lockedFirst = LockedFirst::Front;
        seen(build).surface = Surface::Wet;
        seen(build).ran = build.setups[1];
        seen(build).ran->front->pad.friction.value = 0.2;
        const Verdict v = said(studied(build), last(build, "locked-first"));
        QCOMPARE(v.level, Level::Unproven);
        QVERIFY(v.reason.find("the parts have changed since") != std::string::npos);
        seen(build).lockedFirst = LockedFirst::Rear;
        QCOMPARE(said(studied(build), last(build, "locked-first")).level, Level::Stop);
    }

    /// By hand: 1800 and 2000 N differ by a tenth; 1300 and 2000 by 35 %; 1550 ± 2 % and 2000 ± 2 % by 22.5 and at worst 25.5 %.
    void wheelsOfOneAxleOnATester_data()
    {
        QTest::addColumn<double>("left");
        QTest::addColumn<double>("right");
        QTest::addColumn<int>("level");
        QTest::newRow("alike") << 1800.0 << 2000.0 << int(Level::Good);
        QTest::newRow("worth a look") << 2000.0 << 1550.0 << int(Level::Caution);
        QTest::newRow("a fault by Directive 2014/45/EU") << 1300.0 << 2000.0 << int(Level::Stop);
        QTest::newRow("one does nothing") << 0.0 << 2000.0 << int(Level::Stop);
        QTest::newRow("neither does") << 0.0 << 0.0 << int(Level::Stop);
    }
    /// A tester read by guess proves no brakes alike.
    void aGuessOnATesterIsNotGood()
    {
        Build build = observed();
        seen(build).testerFrontLeft = newton(1800);
        seen(build).testerFrontRight = newton(1850);
        QCOMPARE(said(studied(build), last(build, "tester-front")).level, Level::Good);
        seen(build).testerFrontRight.known = Known::Estimated;
        QCOMPARE(said(studied(build), last(build, "tester-front")).level, Level::Unproven);
        // What is a fault even so stays one.
        changeTo(seen(build).testerFrontLeft, 900);
        QCOMPARE(said(studied(build), last(build, "tester-front")).level, Level::Stop);
    }

    /// With no figures to hold it against, a front that locked first is not called good.
    void anOrderWithoutFiguresIsNotGood()
    {
        Build build = observed();
        seen(build).lockedFirst = LockedFirst::Front;
        seen(build).surface = Surface::Wet;
        QCOMPARE(said(studied(build), last(build, "locked-first")).level, Level::Good);
        build.car.centreOfMassHeight = {};
        QCOMPARE(said(studied(build), last(build, "locked-first")).level, Level::Unproven);
    }

    void wheelsOfOneAxleOnATester()
    {
        QFETCH(double, left);
        QFETCH(double, right);
        QFETCH(int, level);
        Build build = observed();
        seen(build).testerFrontLeft = newton(left);
        seen(build).testerFrontRight = newton(right);
        const Verdict v = said(studied(build), last(build, "tester-front"));
        QCOMPARE(int(v.level), level);
        if (left > 0 && right > 0)
            QVERIFY(std::abs(*v.figure.value - (1 - std::min(left, right) / std::max(left, right))) < 1e-12);
        // Read more coarsely it is never better.
        seen(build).testerFrontLeft.plusMinus = 0.3 * std::max(left, right);
        QVERIFY(said(studied(build), last(build, "tester-front")).level >= v.level);
        // One wheel read is no comparison.
        seen(build).testerFrontRight = {};
        QVERIFY(!studied(build).verdict(last(build, "tester-front")));
    }

    /// Forces made with the figures' own share agree with them; a rear that does half of it does not.
    void theTestersShareAgainstTheFigures()
    {
        Build build = observed();
        const Study s = studied(build);
        const auto brakes = nominal([&](Evaluator& sample) { return figures::brakesOf(sample, *s.build, s.after, nullptr).front.grip; });
        QVERIFY(brakes > 0);
        Evaluator sample;
        const auto forces = stopping::brakeForces(figures::brakesOf(sample, *s.build, s.after, nullptr), 8e5);
        const auto enter = [&](double rear) {
            seen(build).testerFrontLeft = seen(build).testerFrontRight = newton(forces.front / 2);
            seen(build).testerRearLeft = seen(build).testerRearRight = newton(forces.rear / 2 * rear);
        };
        enter(1);
        const Verdict same = said(studied(build), last(build, "tester-share"));
        QVERIFY2(std::abs(*same.figure.value) < 1e-9, same.reason.c_str());
        enter(0.3);
        QCOMPARE(said(studied(build), last(build, "tester-share")).level, Level::Caution);
    }

    void fadeAsFelt()
    {
        Build build = observed();
        seen(build).fadeFelt = FadeFelt::None;
        QCOMPARE(said(studied(build), last(build, "fade-felt")).level, Level::Unproven);
        seen(build).brakings = 12;
        QCOMPARE(said(studied(build), last(build, "fade-felt")).level, Level::Unproven); // of which duty?
        seen(build).duty = build.duties.front().id;
        const Verdict good = said(studied(build), last(build, "fade-felt"));
        QCOMPARE(good.level, Level::Good);
        QVERIFY(
            good.reason.find("12 brakings") != std::string::npos && good.reason.find("more of them are not proven") != std::string::npos);
        // Fewer than the duty has prove nothing of the others.
        seen(build).brakings = 11;
        const Verdict fewer = said(studied(build), last(build, "fade-felt"));
        QVERIFY2(fewer.level == Level::Unproven && fewer.reason.find("which has 12") != std::string::npos, fewer.reason.c_str());
        seen(build).fadeFelt = FadeFelt::Smell;
        QCOMPARE(said(studied(build), last(build, "fade-felt")).level, Level::Caution);
        seen(build).fadeFelt = FadeFelt::Pedal;
        seen(build).fadedAt = 9;
        const Verdict v = said(studied(build), last(build, "fade-felt"));
        QCOMPARE(v.level, Level::Stop);
        QVERIFY(v.reason.find("at braking 9") != std::string::npos);
    }

    void theBoostersTest()
    {
        Build build = demo();
        build.setups[0].hydraulics->booster = Booster::Vacuum;
        build.setups[0].hydraulics->boosterTest = BoosterTest::Stays;
        QCOMPARE(said(studied(build), "stop/booster-test").level, Level::Stop);
        build.setups[0].hydraulics->boosterTest = BoosterTest::Sinks;
        QCOMPARE(said(studied(build), "stop/booster-test").level, Level::Good);
        build.setups[0].hydraulics->booster = Booster::None;
        QVERIFY(!studied(build).verdict("stop/booster-test"));
    }

    void everythingSeenIsSavedAndOpened()
    {
        Build build = observed(job("heavy-trimmed-shield"));
        TestSession& t = seen(build);
        t.lockedFirst = LockedFirst::Both;
        t.fadeFelt = FadeFelt::Smell;
        t.fadedAt = 7;
        t.brakings = 9;
        t.testerRearLeft = newton(900);
        build.setups[0].hydraulics->boosterTest = BoosterTest::Stays;
        build.setups[1].front->pad.overall = { 17e-3, 0.5e-3, Known::Measured, "tape", {} };
        build.frontHub.shieldInTheWay = YesNo::Yes;
        JobCard& card = jobcard::recordOf(build, build.setups[1].id);
        card.reservoirRanDry = YesNo::No;
        card.off.push_back({ "engine", { 180, 5, Known::Estimated, {}, {} }, { -0.2, {}, Known::Measured, "tape", {} }, {} });
        giveIds(build);
        QCOMPARE(files::parseBuild(files::writeBuild({ build, nullptr })).build, build);
    }

    /// --- as a tape measure gives it

    void aboutIsAnEstimate_data()
    {
        QTest::addColumn<QString>("text");
        for (const char* text : { "about 330", "330?", "ca 330", "ca. 330", "approx 330", "~330", "~ 330 mm", "about 33 cm" })
            QTest::newRow(text) << text;
    }
    void aboutIsAnEstimate()
    {
        QFETCH(QString, text);
        const Entry entry = readEntry(text.toStdString(), style::size, UnitSystem::Metric, {}, "2026-06-01");
        QVERIFY2(entry.refusal.empty(), entry.refusal.c_str());
        QVERIFY(std::abs(*entry.reading->value - 0.33) < 1e-12);
        QCOMPARE(entry.reading->known, Known::Estimated);
        QVERIFY(uncertainty(*entry.reading, true) >= 1e-3);
        QVERIFY(!readEntry("about", style::size, UnitSystem::Metric, {}, "").refusal.empty());
    }

    /// 17 mm over all, back 5: lining 12. Where the back was not read, it is 5 aloud, and nothing is proven by it.
    void theLiningFollowsFromTheWholePad()
    {
        Build build = demo();
        Pad& pad = build.setups[1].front->pad;
        pad.thickness = {};
        pad.backing = { 5e-3, 0.1e-3, Known::Measured, "vernier", {} };
        pad.overall = { 17e-3, 0.2e-3, Known::Measured, "vernier", {} };
        Evaluator known;
        QVERIFY(std::abs(figures::padLining(known, pad) - 12e-3) < 1e-12);
        const Study s = studied(build);
        const Verdict whole = said(s, "front/worn-pad");
        QVERIFY2(whole.figure.value, whole.reason.c_str());
        pad.backing = {};
        const Figure assumed = evaluate([&](Evaluator& sample) { return figures::padLining(sample, pad); });
        QVERIFY(std::abs(*assumed.value - 12e-3) < 1e-12 && assumed.provisional());
        QVERIFY(!isFine(said(studied(build), "front/worn-pad").level));
        // The lining itself outranks it, and neither is asked for twice.
        pad.thickness = { 9e-3, 0.1e-3, Known::Measured, "vernier", {} };
        Evaluator both;
        QVERIFY(std::abs(figures::padLining(both, pad) - 9e-3) < 1e-12);
    }

    /// With ten readings by tape the barrel has a gap, and the next reading is named with what waits for it.
    void aFirstVerdictAfterTenReadings()
    {
        Build build;
        Setup found;
        found.id = "as-found";
        found.name = "As found";
        found.front.emplace();
        found.rear.emplace();
        found.hydraulics.emplace();
        build.setups.push_back(found);
        Setup kit = found;
        kit.id = "kit";
        kit.name = "Kit";
        kit.hydraulics.reset();
        kit.rear.reset();
        Wheel wheel;
        wheel.id = "w";
        wheel.name = "17-inch";
        wheel.nominalDiameter = 17;
        wheel.nominalWidth = 7.5;
        build.wheels.push_back(wheel);
        const auto about = [](double millimetres) { return Reading { millimetres * 1e-3, {}, Known::Estimated, "tape", {} }; };
        Corner& c = *kit.front;
        c.wheel = "w";
        int readings = 0;
        const auto take = [&](Reading& into, double millimetres) {
            into = about(millimetres);
            ++readings;
        };
        build.setups.push_back(kit);
        Corner& front = *build.setups[1].front;
        take(build.wheels[0].offset, 40);
        take(front.rotor.outerDiameter, 320);
        take(front.rotor.hatThickness, 7);
        take(front.caliper.backOverEdge, 22);
        take(front.caliper.backLength, 150);
        take(front.caliper.shoulder, 12);
        take(front.caliper.reach, 55);
        take(front.caliper.outboardDepth, 52);
        take(front.caliper.inboardDepth, 60);
        take(front.left.slotCentre, -45);
        front.right.slotCentre = front.left.slotCentre;
        QVERIFY(readings <= 12);
        front.caliper.kind = CaliperKind::Fixed;
        front.mount.kind = MountKind::Lug;
        const Study s = studied(build);
        const Verdict& v = said(s, "front/barrel-gap");
        QVERIFY2(v.figure.value, v.reason.c_str());
        QVERIFY(!isFine(v.level)); // estimates prove nothing
        const auto next = report::nextToRead(s);
        QVERIFY2(next.starts_with("Next: ") && next.find("settles") != std::string::npos, next.c_str());
        QVERIFY(report::nextToRead(studied(build)) == next);
    }

    /// --- the card

    /// What was not opened is bled unless somebody says that the reservoir never ran dry.
    void onlyWhatWasOpenedIsBled()
    {
        Build build = job("front-kit-with-shims");
        const auto shown = [](const Build& b) {
            const auto card = jobcard::cardOf(studied(b));
            std::set<std::string> ids;
            for (const auto& s : card.steps)
                if (card.shows(s))
                    ids.insert(s.id);
            return ids;
        };
        auto& record = jobcard::recordOf(build, build.setups[1].id);
        QVERIFY(shown(build).contains("car/bleed-1") && shown(build).contains("car/bleed-4"));
        record.reservoirRanDry = YesNo::No;
        QVERIFY(!shown(build).contains("car/bleed-1") && !shown(build).contains("car/bleed-2")); // rear, which stays shut
        QVERIFY(shown(build).contains("car/bleed-3") && shown(build).contains("car/bleed-4") && shown(build).contains("car/bleed-again"));
        record.reservoirRanDry = YesNo::Yes;
        QVERIFY(shown(build).contains("car/bleed-1") && shown(build).contains("car/bleed-2"));
        QVERIFY(shown(build).contains("car/cabin"));
    }

    /// By hand: 1,000 kg, half on each axle, base 2.5 m, driver 75 kg at 0.45 of it off: 925 kg, moment 1250 - 84.375. 200 kg at 0 off:
    /// 725 kg, 1165.625 / 725 = 1.60776 m.
    void whatElseIsOffMovesTheWeightOnALift()
    {
        Build build = job("front-kit-with-shims");
        build.car.mass.value = 1000;
        build.car.frontLoadShare.value = 0.5;
        build.car.wheelbase.value = 2.5;
        jobcard::recordOf(build, build.setups[1].id)
            .off.push_back({ "engine", { 200, 5, Known::Measured, "scale", {} }, { 0, {}, Known::Measured, "tape", {} }, {}, {} });
        const auto lift = jobcard::liftOf(studied(build));
        const auto engine = std::ranges::find(lift.moments, "without engine", &jobcard::OnLift::what);
        QVERIFY(engine != lift.moments.end());
        QVERIFY(std::abs(engine->mass - 725) < 1e-9 && std::abs(engine->behindFrontAxle - 1165.625 / 725) < 1e-9);
        QVERIFY(engine->nearArm == (0.8 * 2.5 - engine->behindFrontAxle < 0.2 * 0.6 * 2.5));
        // One of unknown weight is said, and nothing is worked out with it.
        jobcard::recordOf(build, build.setups[1].id).off.push_back({ "gearbox", {}, {}, {}, {} });
        QVERIFY(jobcard::liftOf(studied(build)).lacks.find("gearbox") != std::string::npos);
    }

    /// A shield in the way is cut roughly on what dimensions tell and with the bracket offered up on both sides; to its line only after
    /// all.
    void theFirstCutOfAShieldInTheWay()
    {
        Build build = job("heavy-trimmed-shield");
        const Axle axle = Axle::Front;
        const auto step = [](const Build& b, const std::string& id) {
            const auto card = jobcard::cardOf(studied(b));
            const auto* found = card.step(id);
            return found ? std::optional(*found) : std::nullopt;
        };
        QVERIFY(!step(build, "front/left/first-cut"));
        build.frontHub.shieldInTheWay = YesNo::Yes;
        const auto first = step(build, "front/left/first-cut");
        QVERIFY(first && first->irreversible && !first->open);
        const auto why = jobcard::blockersOfFirstCut(studied(build), axle);
        QVERIFY(std::ranges::any_of(why, [](const auto& w) { return w.find("offered up") != std::string::npos; }));
        // No tick of one side alone opens it, nor a fault.
        auto& ticks = jobcard::recordOf(build, build.setups[1].id).ticks;
        jobcard::tickIn(jobcard::recordOf(build, build.setups[1].id), "front/left/bracket-offered", Checked::Fine, {}, {}, 0);
        QVERIFY(jobcard::blockersOfFirstCut(studied(build), axle).size() == why.size());
        jobcard::tickIn(jobcard::recordOf(build, build.setups[1].id), "front/right/bracket-offered", Checked::Fine, {}, {}, 0);
        const auto left = jobcard::blockersOfFirstCut(studied(build), axle);
        QCOMPARE(left.size(), why.size() - 1);
        QVERIFY(!ticks.empty());
        // What dimensions do not prove keeps it shut; the cut to the line waits for everything as before.
        Build blind = build;
        blind.frontHub.pilotDiameter = {};
        QVERIFY(jobcard::blockersOfFirstCut(studied(blind), axle).size() > left.size());
        // Not tried on either side: the first cut does not wait for that, the last does.
        Build untried = build;
        untried.mockUps.clear();
        QCOMPARE(jobcard::blockersOfFirstCut(studied(untried), axle), left);
        const auto last = step(untried, "front/left/cut-trim-the-dust-shield");
        QVERIFY(last && !last->open);
    }

    /// Where a stack under one bolt was read, one that was not is not known to be empty: the thread left is not good without it.
    void aStackThatWasNotReadIsNotEmpty()
    {
        Build build = job("front-kit-with-shims");
        const auto joint = std::ranges::find_if(build.setups[1].front->joints, [](const Joint& j) { return j.shims == ShimsIn::Axial; });
        QVERIFY(joint != build.setups[1].front->joints.end());
        const std::string id = "front/joint-" + std::to_string(joint - build.setups[1].front->joints.begin() + 1) + "-thread";
        const Level before = said(studied(build), id).level;
        build.setups[1].front->right.shimBottom = {};
        const Verdict v = said(studied(build), id);
        QVERIFY2(!v.figure.value && v.level == Level::Unproven, (std::string(nameOf(before)) + v.reason).c_str());
        // None was read anywhere: none are in.
        for (Fitted* in : { &build.setups[1].front->left, &build.setups[1].front->right })
            in->shimTop = in->shimBottom = {};
        QVERIFY(said(studied(build), id).figure.value.has_value());
    }

    void noShimsAreNone()
    {
        Build build = job("front-kit-with-shims");
        for (Fitted* in : { &build.setups[1].front->left, &build.setups[1].front->right })
            in->shimTop = in->shimBottom = { 0, {}, Known::Measured, "vernier", {} };
        const auto card = jobcard::cardOf(studied(build));
        for (const auto& s : card.steps)
            QVERIFY2(s.text.find("0.00 mm") == std::string::npos, s.text.c_str());
    }

    /// --- papers

    void theBuildSheetHoldsSectionPlotsChecksAndReadings()
    {
        const Study s = study(demo(), { {}, "varnik-330" });
        const auto leaf = report::buildSheet(s, "2026-06-01");
        std::set<std::string> headings;
        int pictures = 0;
        std::size_t rows = 0;
        for (const auto& block : leaf.blocks) {
            if (block.kind == report::Block::Kind::Heading)
                headings.insert(block.text);
            pictures += block.kind == report::Block::Kind::Picture;
            rows += block.kind == report::Block::Kind::Row;
        }
        for (const char* heading : { "Front, cut through, before dashed", "Balance, driver only", "Stop, predicted", "Checks: Clearance",
                 "Checks: Balance", "Readings: car", "Signed" })
            QVERIFY2(headings.contains(heading), heading);
        QVERIFY(pictures >= 4);
        // Every check has a row of its own, good ones too.
        for (const Verdict& v : s.verdicts)
            if (v.check && v.check->name != "stop/measured-#")
                QVERIFY2(std::ranges::any_of(leaf.blocks, [&](const auto& b) { return b.cells.size() == 3 && b.cells[2] == v.reason; }),
                    v.id.c_str());
        QVERIFY(rows > s.verdicts.size());
        // Twice and a half as many lines in the section as outlines: it is hatched; and it has the rotor's dimensions.
        const auto section = report::sectionOf(s, Axle::Front);
        QVERIFY(std::ranges::count(section.strokes, paper::Pen::Thin, &paper::Stroke::pen) > 60);
        QVERIFY(std::ranges::any_of(section.letters, [](const auto& l) { return l.text == "Ø 330.0"; }));
    }

    /// Of a square of 30 mm hatched every 3 mm at 45 degrees: lines along x + y = 3, 6, … 57, each as long as the square holds.
    void aHatchFillsItsOutline()
    {
        paper::Drawing d;
        paper::addHatch(d, { { 0, 0 }, { 0.03, 0 }, { 0.03, 0.03 }, { 0, 0.03 } }, 3e-3, false);
        double length = 0;
        for (const auto& s : d.strokes) {
            QCOMPARE(s.points.size(), std::size_t(2));
            for (const auto p : s.points)
                QVERIFY(p.x > -1e-9 && p.x < 0.03 + 1e-9 && p.y > -1e-9 && p.y < 0.03 + 1e-9);
            length += std::hypot(s.points[1].x - s.points[0].x, s.points[1].y - s.points[0].y);
        }
        // Area over the distance between two lines.
        QVERIFY2(std::abs(length - 0.03 * 0.03 / (3e-3 / std::sqrt(2))) < 0.03, qPrintable(QString::number(length)));
        paper::addHatch(d, { { 0, 0 }, { 1, 0 } }, 3e-3, true);
        paper::addHatch(d, { { 0, 0 }, { 1, 0 }, { 1, 1 } }, 0, true);
    }
};

DEEPSTOP_TEST(ObservedTest)
#include "observed_test.moc"
