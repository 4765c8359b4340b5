/// Jobs as builders have them, each a file of its own: how many steps the card has, what is shut until when, what is not taken off.

#include "core/support.hpp"
#include "jobcard/jobcard.hpp"
#include "jobcard/outfit.hpp"
#include "report/sheets.hpp"

#include <QTest>

#include <nlohmann/json.hpp>

using namespace deepstop;
using namespace deepstop::jobcard;

namespace {

Build job(const std::string& name) { return files::loadBuild(DEEPSTOP_TESTS "/data/jobs/" + name + ".deepstop").build; }
Study studied(Build build) { return study(std::make_shared<const Build>(std::move(build)), {}, UnitSystem::Metric, Remedies::LeftOut); }

bool shows(const Card& card, const std::string& part)
{
    return std::ranges::any_of(card.steps, [&](const Step& s) { return card.shows(s) && s.id.find(part) != std::string::npos; });
}
const Step& step(const Card& card, const std::string& id)
{
    const Step* found = card.step(id);
    if (!found)
        qFatal("no step %s", id.c_str());
    return *found;
}

Build tickedIn(const Build& build, const std::string& id, Checked state = Checked::Fine)
{
    const auto edit = ticked(studied(build), id, state, { "A", "2026-06-01 09:00" });
    return edit ? *(*edit)(build) : build;
}

} // namespace

class JobsTest : public QObject {
    Q_OBJECT
private slots:
    /// Pads and hoses of one axle: both sides at once, no rotor off, no shoes back, bled where it was opened.
    void padsAndHosesAreADozenSteps()
    {
        const Build build = job("pads-and-hoses");
        const Card card = cardOf(studied(build));
        QVERIFY2(card.shown() <= 16 && card.shown() >= 12, qPrintable(QString::number(card.shown())));
        for (const char* needed : { "car/stands", "rear/wheel-off", "rear/caliper-off", "rear/pistons-back", "rear/pads-in", "rear/hose",
                 "car/prop-out", "car/bleed-opened", "car/pressed", "rear/nuts", "car/walking", "car/bed-1", "rear/first-drive" })
            QVERIFY2(shows(card, needed), needed);
        for (const char* stays : { "rotor-off", "shoes-back", "gaps", "tag", "runout", "bleed-1" })
            QVERIFY2(!shows(card, stays), stays);
        QVERIFY(card.folded() >= 10);
        // In the order of the work: the prop comes out before anything is bled, and the cautions stand.
        const auto place = [&](const char* id) { return &step(card, id) - card.steps.data(); };
        QVERIFY(place("rear/hose") < place("car/prop-out") && place("car/prop-out") < place("car/bleed-opened"));
        QVERIFY(step(card, "car/stands").caution.find("Glasses") != std::string::npos);
        QVERIFY(step(card, "rear/pistons-back").text.find("reservoir is watched") != std::string::npos);
        QVERIFY(step(card, "rear/old").text.find("cracks") != std::string::npos);
        // Pads alone open no line.
        Build pads = build;
        pads.setups[1].rear->hose = pads.setups[0].rear->hose;
        const Card dry = cardOf(studied(pads));
        QVERIFY(dry.shown() < card.shown() && !shows(dry, "hose") && !shows(dry, "bleed") && !shows(dry, "prop"));
    }

    void theInspectionIsTakenInWhole()
    {
        Build build = job("pads-and-hoses");
        const Card folded = cardOf(studied(build));
        build = *inspectionTakenIn("pads-hoses", true)(build);
        const Card whole = cardOf(studied(build));
        QCOMPARE(whole.shown(), static_cast<int>(whole.steps.size()));
        QVERIFY(whole.minutes > folded.minutes + 30);
        // Folded again it is what it was; what was seen to stays on the card.
        build = tickedIn(build, "rear/runout");
        build = *inspectionTakenIn("pads-hoses", false)(build);
        QCOMPARE(cardOf(studied(build)).shown(), folded.shown() + 1);
        QCOMPARE(files::parseBuild(files::writeBuild({ build, nullptr })).build, build);
    }

    /// What stays and has been driven is proven by the road; what nobody drove is not.
    void theRoadProvesWhatStays()
    {
        Build build = job("pads-and-hoses");
        QVERIFY(step(cardOf(studied(build)), "rear/rotor-off").doneBefore);
        QVERIFY(!step(cardOf(studied(build)), "car/leaks").doneBefore); // a habit, no part
        QVERIFY(!step(cardOf(studied(build)), "rear/hose").doneBefore);
        build.log.clear();
        build.tests.clear();
        QVERIFY(!step(cardOf(studied(build)), "rear/rotor-off").doneBefore);
        const auto said = nlohmann::json::parse(report::cardJson(cardOf(studied(job("pads-and-hoses")))));
        QVERIFY(std::ranges::all_of(said, [](const auto& s) { return s.contains("optional") && s.contains("done_before"); }));
        QVERIFY(std::ranges::any_of(said, [](const auto& s) { return s["optional"] == true && s["done_before"] == true; }));
    }

    /// An unchanged axle that was driven asks nothing of outlines and gaps; what pads or hoses move is asked for, and what wears is read.
    void theRoadProvesTheFitOfWhatStays()
    {
        const Build build = job("pads-and-hoses");
        const Study s = studied(build);
        QVERIFY(s.stays.rear && !s.stays.front);
        QVERIFY2(s.headline.fits != Headline::Fits::Unproven || s.headline.readingsMissing <= 6, s.summary.c_str());
        for (const char* id : { "rear/barrel-gap", "rear/bore", "rear/studs" })
            QVERIFY2(s.verdict(id)->level != Level::Unproven, (std::string(id) + ": " + s.verdict(id)->reason).c_str());
        QVERIFY(s.headline.centred == Headline::Centred::Yes);
        // Never driven, or another caliper: all of it is asked for.
        Build parked = build;
        parked.log.clear();
        parked.tests.clear();
        QVERIFY(studied(parked).headline.fits == Headline::Fits::Unproven);
        QVERIFY(studied(parked).headline.centred == Headline::Centred::Unproven);
        Build other = build;
        other.setups[1].rear->caliper.name = "another one";
        QVERIFY(!studied(other).stays.rear && studied(other).headline.fits == Headline::Fits::Unproven);
        Build spaced = build;
        spaced.setups[1].rear->spacer = { 5e-3, {}, Known::Measured, "vernier", {} };
        QVERIFY(!studied(spaced).stays.rear);
        // Thicker pads push a floating caliper's body out: spokes are asked for again; of a fixed one they are not.
        Build thick = build;
        thick.setups[1].rear->pad.thickness = { 30e-3, {}, Known::Measured, "vernier", {} };
        QCOMPARE(studied(thick).verdict("rear/spoke-gap")->level, Level::Unproven);
        thick.setups[0].rear->caliper.kind = thick.setups[1].rear->caliper.kind = CaliperKind::Fixed;
        QVERIFY(studied(thick).verdict("rear/spoke-gap")->level != Level::Unproven);
        // What somebody read and found bad stays bad, and wear is read, not driven.
        Build hits = build;
        for (Setup& setup : hits.setups)
            setup.rear->rotor.bore = { 30e-3, 0.05e-3, Known::Measured, "vernier", {} };
        QCOMPARE(studied(hits).verdict("rear/bore")->level, Level::Stop);
        Build worn = build;
        for (Setup& setup : worn.setups)
            setup.rear->rotor.minimumThickness = {};
        QCOMPARE(studied(worn).verdict("rear/worn-rotor")->level, Level::Unproven);
    }

    /// A caliper on the rotor that is there: the rotor stays on, and nobody turns back shoes.
    void aCaliperOnAKeptRotor()
    {
        const Card card = cardOf(studied(job("caliper-on-kept-rotor")));
        for (const char* stays : { "rotor-off", "shoes-back", "hub-clean", "rotor-on", "runout" })
            QVERIFY2(!shows(card, stays), stays);
        for (const char* needed : { "front/left/caliper-off", "front/right/caliper-loose", "front/left/gaps", "front/left/line-open",
                 "front/left/joint-1", "front/right/hose" })
            QVERIFY2(shows(card, needed), needed);
        // Of a caliper nobody described a bolt of, they are tightened all the same.
        Build bare = job("caliper-on-kept-rotor");
        bare.setups[1].front->joints.clear();
        QVERIFY(shows(cardOf(studied(bare)), "front/left/caliper-bolts"));
    }

    /// Until caliper and wheel were tried on both sides no line is opened: with it closed the car drives home. A fault, or taking a tick
    /// back, shuts it again; a reason opens it and is recorded.
    void linesStayShutUntilTheKitWasTried()
    {
        Build build = job("caliper-on-kept-rotor");
        const auto shut = [&] { return !step(cardOf(studied(build)), "front/left/line-open").open; };
        QVERIFY(shut() && step(cardOf(studied(build)), "front/left/line-open").waits.size() == 4);
        QVERIFY(step(cardOf(studied(build)), "front/left/line-open").text.find("drives again in") != std::string::npos);
        QVERIFY(!ticked(studied(build), "front/left/line-open", Checked::Fine, { "A", "" }));
        const std::vector<std::string> tries { "front/left/caliper-loose", "front/left/wheel-on", "front/right/caliper-loose",
            "front/right/wheel-on" };
        // Whatever the order, the last one opens it.
        std::vector<int> order { 0, 1, 2, 3 };
        do {
            build = job("caliper-on-kept-rotor");
            for (std::size_t i = 0; i < order.size(); ++i) {
                QVERIFY(shut());
                build = tickedIn(build, tries[static_cast<std::size_t>(order[i])]);
            }
            QVERIFY(!shut());
        } while (std::ranges::next_permutation(order).found && order[0] == 0);
        build = tickedIn(build, "front/right/wheel-on", Checked::Fault);
        QVERIFY(shut());
        const auto opens = opened(studied(build), "front/left/line-open", "hose is in the way", { "A", "2026-06-01" });
        QVERIFY(opens.has_value());
        build = *(*opens)(build);
        QVERIFY(!shut() && step(cardOf(studied(build)), "front/right/line-open").waits.size() == 1);
        // It is shut like a cut, and no cut: it can be undone.
        QVERIFY(step(cardOf(studied(build)), "front/left/line-open").gated
            && !step(cardOf(studied(build)), "front/left/line-open").irreversible);
        const auto html = report::htmlOf(
            report::jobCard(studied(job("caliper-on-kept-rotor")), cardOf(studied(job("caliper-on-kept-rotor"))), "2026-06-01"));
        QVERIFY(html.find("LOCKED. front left: Open the line") != std::string::npos);
    }

    void eachJobHasItsOwnCard_data()
    {
        QTest::addColumn<int>("least");
        QTest::addColumn<int>("most");
        QTest::addColumn<QStringList>("has");
        QTest::addColumn<QStringList>("hasNot");
        QTest::addColumn<QString>("locked"); ///< a step that is shut at first; empty: none is
        const auto row = [](const char* name, int least, int most, QStringList has, QStringList hasNot, const char* locked) {
            QTest::newRow(name) << least << most << std::move(has) << std::move(hasNot) << QString(locked);
        };
        row("pads-and-hoses", 12, 16, { "rear/hose", "car/prop-out" }, { "rotor-off", "master" }, "");
        row("caliper-on-kept-rotor", 50, 75, { "front/left/gaps", "front/left/line-open" }, { "rotor-off", "hub-clean" },
            "front/left/line-open");
        row("front-kit-with-shims", 70, 95, { "front/left/shims", "front/left/rotor-on", "front/left/cut-trim" }, { "hub-ring", "master" },
            "front/left/cut-trim-the-dust-shield");
        row("adapters-with-ring", 70, 95, { "front/left/hub-ring", "front/left/joint-1" }, { "master" }, "front/right/line-open");
        row("light-car-drums-and-master", 60, 90, { "car/master", "front/left/rotor-off", "car/bleed-1" }, { "rear/left/drum-off" },
            "front/left/line-open");
        row("heavy-trimmed-shield", 60, 90, { "front/left/cut-trim" }, { "master" }, "front/left/line-open");
        row("widened-caliper", 60, 90, { "front/left/halves-parted", "front/left/halves-joined", "front/left/leak-tested" },
            { "line-open", "shoes-back" }, "");
        row("classic-lock-order", 10, 30, { "car/valve", "car/bleed-1", "car/prop-out" }, { "rotor-off", "caliper-off", "gaps" }, "");
    }
    /// Eight jobs: what is on the card, what is not, what is shut at first; each is printed whole.
    void eachJobHasItsOwnCard()
    {
        QFETCH(int, least);
        QFETCH(int, most);
        QFETCH(QStringList, has);
        QFETCH(QStringList, hasNot);
        QFETCH(QString, locked);
        const Study s = studied(job(QTest::currentDataTag()));
        const Card card = cardOf(s);
        QVERIFY2(card.shown() >= least && card.shown() <= most, qPrintable(QString::number(card.shown())));
        for (const QString& id : has)
            QVERIFY2(shows(card, id.toStdString()), qPrintable(id));
        for (const QString& id : hasNot)
            QVERIFY2(!shows(card, id.toStdString()), qPrintable(id));
        const auto shut = std::ranges::find_if(card.steps, [&](const Step& step) { return card.shows(step) && !step.open; });
        if (locked.isEmpty())
            QVERIFY2(shut == card.steps.end(), shut == card.steps.end() ? "" : shut->id.c_str());
        else
            QVERIFY2(!step(card, locked.toStdString()).open, qPrintable(locked));
        // Nothing is bled before the prop is out, and nothing moves before it was pumped.
        const Step* prop = card.step("car/prop-out");
        QVERIFY(prop && card.shows(*prop));
        for (const Step& each : card.steps)
            if (each.id.starts_with("car/bleed"))
                QVERIFY(&each > prop);
        const auto pages = report::sheetsOf(report::jobCard(s, card, "2026-06-01"), paper::a4());
        QVERIFY(!pages.empty() && pages.size() < 12);
    }

    /// Shims go in for good once the corner reads centred; until then the plan's are named, and a reason is wanted for others.
    void shimsWaitUntilTheCornerIsCentred()
    {
        Build build = job("front-kit-with-shims");
        const Step off = step(cardOf(studied(build)), "front/left/shims");
        QVERIFY2(!off.open && off.gated && off.text.find("by the plan") != std::string::npos, off.text.c_str());
        for (MockUp& m : build.mockUps) {
            const double mean = (*m.innerTop.value + *m.outerTop.value) / 2;
            for (Reading* gap : { &m.innerTop, &m.outerTop, &m.innerBottom, &m.outerBottom })
                *gap = { mean, 0.01e-3, Known::Measured, "feeler gauge", {} };
        }
        const Step good = step(cardOf(studied(build)), "front/left/shims");
        QVERIFY2(good.open && good.text.find("by the plan") == std::string::npos, good.text.c_str());
        // A gap read again, off: shut again.
        *build.mockUps[0].innerTop.value += 2e-3;
        QVERIFY(!step(cardOf(studied(build)), "front/left/shims").open);
    }

    /// Corner by corner one side is whole before the other begins; the same steps, and what is of both or of the car stays in its place.
    void oneCornerWholeBeforeTheOther()
    {
        Build build = job("front-kit-with-shims");
        const Card together = cardOf(studied(build));
        recordOf(build, build.setups[1].id).order = WorkOrder::CornerByCorner;
        const Card apart = cardOf(studied(build));
        QCOMPARE(apart.steps.size(), together.steps.size());
        const auto place = [](const Card& card, const char* id) { return &step(card, id) - card.steps.data(); };
        QVERIFY(place(together, "front/right/wheel-off") < place(together, "front/left/pads-in"));
        QVERIFY(place(apart, "front/right/wheel-off") > place(apart, "front/left/pads-in"));
        for (const char* id : { "car/stands", "car/prop-out", "front/left/line-open", "front/right/nuts" })
            QCOMPARE(place(apart, id), place(together, id));
        QVERIFY(near(apart.minutes, together.minutes, 1e-12));
        const auto times = apart.times();
        QVERIFY(near(times.fitting + times.measuring + times.driving, apart.minutes, 1e-12) && times.driving > 20 && times.measuring > 20);
        QCOMPARE(files::parseBuild(files::writeBuild({ build, nullptr })).build, build);
    }

    /// Before the job: sizes by ISO 4014 and 4762 (from memory), the wrench's range from the torques on the card, the shims of the plan.
    void toolsAreLaidOutWithTheirSizes()
    {
        const Study s = studied(job("front-kit-with-shims"));
        const Outfit outfit = outfitOf(s, cardOf(s));
        const auto has = [](const std::vector<std::string>& all, const char* part) {
            return std::ranges::any_of(all, [&](const std::string& each) { return each.find(part) != std::string::npos; });
        };
        QVERIFY(has(outfit.sizes, "M14 × 1.5: spanner 21 mm (older heads 22), or key 12 mm")
            && has(outfit.sizes, "spanner 10 mm, or key 5 mm"));
        QVERIFY(outfit.torques && near(outfit.torques->first, 11, 0.02) && near(outfit.torques->second, 180, 1e-9));
        QVERIFY(has(outfit.used, "threadlocker") && has(outfit.used, "crush washers") && has(outfit.used, "600 ml"));
        QVERIFY(has(outfit.shims, "front left: 1.50 mm"));
        // A stack that was not read is not none.
        Build unread = job("front-kit-with-shims");
        unread.setups[1].front->left.shimBottom = {};
        const Study half = studied(unread);
        QVERIFY(has(outfitOf(half, cardOf(half)).shims, "front left: 1.50 mm at the top bolt, not read at the bottom bolt"));
        QVERIFY(has(outfit.tools, "torque wrench") && std::ranges::count(outfit.tools, std::string("torque wrench")) == 1);
        QCOMPARE(headSizesOf(0.012)->spanner, 18);
        QVERIFY(!headSizesOf(0.0111));
        // Pads and hoses: half of the fluid, no shims.
        const Study pads = studied(job("pads-and-hoses"));
        const Outfit less = outfitOf(pads, cardOf(pads));
        QVERIFY(has(less.used, "300 ml") && less.shims.empty() && !less.torques);
        QVERIFY(report::htmlOf(report::jobCard(pads, cardOf(pads), "2026-06-01")).find("Shims: none.") != std::string::npos);
    }

    /// Steps of one's own stand where they were written in, are ticked like any, and survive the file.
    void ownStepsAreWrittenIn()
    {
        Build build = job("pads-and-hoses");
        QVERIFY(!ownStep(studied(build), "rear/hose", "  "));
        build = *(*ownStep(studied(build), "rear/hose", "Clip P-2 back on the arm"))(build);
        build = *(*ownStep(studied(build), "nothing/there", "Sign on the wheel: new pads"))(build);
        giveIds(build);
        const Card card = cardOf(studied(build));
        const auto own = std::ranges::find(card.steps, true, &Step::own);
        QVERIFY(own != card.steps.end() && std::prev(own)->id == "rear/hose" && own->phase == Phase::Hoses);
        QVERIFY(card.steps.back().own && card.steps.back().text == "Sign on the wheel: new pads");
        build = tickedIn(build, own->id);
        QCOMPARE(cardOf(studied(build)).step(own->id)->state, Checked::Fine);
        QCOMPARE(files::parseBuild(files::writeBuild({ build, nullptr })).build, build);
        QVERIFY(report::htmlOf(report::jobCard(studied(build), card, "2026-06-01")).find("Clip P-2") != std::string::npos);
    }

    /// Ticks made side by side count where both sides are one step now.
    void oldTicksOfBothSidesCount()
    {
        Build build = job("pads-and-hoses");
        JobCard& record = recordOf(build, "pads-hoses");
        tickIn(record, "rear/left/wheel-off", Checked::Fine, { "B", "2026-05-01" });
        QCOMPARE(step(cardOf(studied(build)), "rear/wheel-off").state, Checked::Open);
        tickIn(recordOf(build, "pads-hoses"), "rear/right/wheel-off", Checked::Fine, { "B", "2026-05-01" });
        QCOMPARE(step(cardOf(studied(build)), "rear/wheel-off").state, Checked::Fine);
        tickIn(recordOf(build, "pads-hoses"), "rear/left/wheel-off", Checked::Fault, { "B", "2026-05-01" });
        QCOMPARE(step(cardOf(studied(build)), "rear/wheel-off").state, Checked::Fault);
    }
};

DEEPSTOP_TEST(JobsTest)
#include "jobs_test.moc"
