/// Knowing less never reads better: over the demos, taking a reading away or widening it turns nothing into good, clear, fits or centred.

#include "build/naming.hpp"
#include "core/fitted_out.hpp"
#include "core/random_build.hpp"
#include "core/support.hpp"
#include "materials/materials.hpp"
#include "study/study.hpp"

#include <regex>
#include <set>

using namespace deepstop;

namespace {

/// Checks that are only made where somebody has measured for them; without the reading there is nothing to judge, and nothing is said.
/// They are asked for by nobody, so their silence is no comfort.
/// The last: which bolts carry the brake is said by their distance from the axis; one joint of a corner has to.
const std::set<std::string, std::less<>> madeOnRequest { "runout", "joint-1-slip", "joint-2-slip", "joint-3-slip", "weighed-rotor",
    "weighed-rotor-found", "fender-room", "inner-room", "shield", "washers", "thickness-variation", "piston-order", "agreement", "slot-sum",
    "nut-bottom", "lining-even", "adapter-ring", "cap", "metering", "residual-pressure", "bracket-relief" };

/// A demo, or the one with every part that kits may bring.
Build named(const QString& demo) { return demo == "every part" ? fittedOut() : ::demo(demo.toUtf8()); }

bool onRequest(const Verdict& v) { return madeOnRequest.contains(v.id.substr(v.id.find('/') + 1)); }

/// Every reading that some verdict of the study rests on, by its pointer; of a setup that is not the first proposal every sixth of them:
/// much of it is the same readings in the same checks.
std::set<std::string> readingsOf(const Study& s)
{
    std::set<std::string> pointers;
    for (const Verdict& v : s.verdicts)
        for (const ReadingId reading : v.figure.restsOn)
            if (const auto* entry = s.directory->find(reading); entry && entry->reading->value && !isOneOfMany(entry->address.pointer))
                pointers.insert(entry->address.pointer);
    if (s.build->setups.size() > 1 && s.after.setup != &s.build->setups[1]) {
        int number = 0;
        std::erase_if(pointers, [&](const std::string&) { return number++ % 6 != 0; });
    }
    return pointers;
}

/// What reads better in `now` than in `was`; empty where nothing does.
std::string comfort(const Study& was, const Study& now)
{
    bool silent = false;
    for (const Verdict& before : was.verdicts) {
        const Verdict* after = now.verdict(before.id);
        if (!after && onRequest(before)) {
            silent = true;
            continue;
        }
        if (!isFine(before.level) && (!after || isFine(after->level)))
            return before.id + ": " + std::string(nameOf(before.level)) + " became "
                + (after ? std::string(nameOf(after->level)) + " (" + before.reason + " | " + after->reason + ")" : "nothing");
    }
    const auto yes = [](Headline::Fits fits) { return fits != Headline::Fits::No && fits != Headline::Fits::Unproven; };
    if (!silent && !yes(was.headline.fits) && yes(now.headline.fits))
        return "the headline: " + std::string(nameOf(was.headline.fits)) + " became " + std::string(nameOf(now.headline.fits));
    if (was.headline.centred != Headline::Centred::Yes && now.headline.centred == Headline::Centred::Yes)
        return "the headline became centred";
    return {};
}

/// The same, by name: every verdict that was not fine and is.
std::set<std::string> comforted(const Study& was, const Study& now)
{
    std::set<std::string> better;
    for (const Verdict& before : was.verdicts)
        if (const Verdict* after = now.verdict(before.id); after && !isFine(before.level) && isFine(after->level))
            better.insert(before.id);
    return better;
}

/// Goes through a document and names every choice that has a word for not being said.
class Sayable : public Naming {
public:
    std::vector<std::string> pointers;
    void choice(const Name& name, const Chosen& chosen) override
    {
        if (!inFreePlace() && chosen.words.size() > 0 && chosen.words[0] == "unknown" && chosen.index != 0)
            pointers.push_back(pointerTo(name));
    }
};

} // namespace

class NoComfortTest : public QObject {
    Q_OBJECT
private slots:
    void knowingLessNeverReadsBetter_data()
    {
        QTest::addColumn<QString>("demo");
        QTest::addColumn<QString>("setup");
        for (const char* demo : { "halden-merle", "linnet", "drover-camper" })
            for (const Setup& setup : deepstop::files::loadBuild(DEEPSTOP_DATA "/demo/" + std::string(demo) + ".deepstop").build.setups)
                QTest::addRow("%s %s", demo, setup.id.c_str()) << demo << QString::fromStdString(setup.id);
        QTest::addRow("every part") << QString("every part") << QString("varnik-330");
    }
    void knowingLessNeverReadsBetter()
    {
        QFETCH(QString, demo);
        QFETCH(QString, setup);
        const Following studied(named(demo), { {}, setup.toStdString() }, Remedies::LeftOut);
        const Study& was = studied.first();
        const Build& build = studied.build();
        int tried = 0;
        for (const std::string& pointer : readingsOf(was)) {
            const Reading reading = *was.directory->at(pointer)->reading;
            std::vector<std::pair<const char*, Reading>> worse;
            Reading gone;
            worse.emplace_back("taken away", gone);
            for (const double factor : { 2.0, 10.0 }) {
                Reading wide = reading;
                const auto* entry = was.directory->at(pointer);
                wide.plusMinus = factor * uncertainty(reading, entry->address.style.dimension == Dimension::Length);
                wide.repeats.clear();
                worse.emplace_back(factor == 2 ? "twice as wide" : "ten times as wide", wide);
            }
            for (const auto& [how, changed] : worse) {
                const auto why = comfort(was, studied(withReading(build, pointer, changed)));
                QVERIFY2(why.empty(), (pointer + " " + how + ": " + why).c_str());
                ++tried;
            }
        }
        QVERIFY(tried > 60);
    }

    /// Whether a reading says which axle does how much: what it takes from one it gives to the other.
    static bool sharesTheWork(const std::string& pointer)
    {
        return std::ranges::any_of(std::array { "/friction", "/rear_knee_bar", "/rear_slope", "/knee_per_load_mm2", "/front_load_percent" },
                   [&](const char* end) { return pointer.ends_with(end); })
            || pointer.find("/pistons_mm/") != std::string::npos;
    }

    /// Moved by three times its width, either way, no reading turns anything into good, save what is named here: where one way is the
    /// better part, and the verdict rightly says so.
    void aReadingMovedComfortsOnlyWhereItIsTheBetterPart_data() { knowingLessNeverReadsBetter_data(); }
    void aReadingMovedComfortsOnlyWhereItIsTheBetterPart()
    {
        struct Better {
            const char* demo;
            const char* pointer; ///< how it ends
            int way; ///< that comforts; the other is the harmful one
            const char* verdict;
            const char* why;
        };
        static const std::vector<Better> rightly {
            { "linnet", "/centre_of_mass_height_mm", 1, "stop/distance",
                "more load goes to the front axle, whose brakes the kit made too strong" },
            { "linnet", "/front_load_percent", 1, "stop/distance", "the same at rest" },
            { "linnet", "/grip", 1, "stop/distance", "the same through more load transfer" },
            { "linnet", "/rear/pad/friction", 1, "stop/distance", "more rear brake evens what the front has too much of" },
            { "drover-camper", "/grip", -1, "stop/distance", "on worse tyres both setups stop as the tyres let them, and that is known" },
            { "drover-camper", "/rear/drum/friction", 1, "stop/limit", "the same: what the front did alone" },
            { "", "/friction", 1, "heat/gives-up", "a pad that holds its friction hot" },
            { "", "/hat_thickness_mm", -1, "front/axial", "a thinner hat lets the rotor come nearer the slot's middle" },
            { "", "/outer_diameter_mm", -1, "front/barrel-gap", "heights of the caliper are taken from the rotor's edge" },
            { "", "/runout_mm", -1, "front/runout", "less runout" },
            { "", "/to_mm", -1, "front/inset-gap", "weights that end sooner do not come over the caliper" },
        };
        QVERIFY(rightly.size() <= 11);
        QFETCH(QString, demo);
        QFETCH(QString, setup);
        const Following studied(named(demo), { {}, setup.toStdString() }, Remedies::LeftOut);
        const Study& was = studied.first();
        const Build& build = studied.build();
        for (const std::string& pointer : readingsOf(was)) {
            const auto* entry = was.directory->at(pointer);
            const double by = 3
                * std::max(uncertainty(*entry->reading, entry->address.style.dimension == Dimension::Length),
                    1e-3 * std::abs(*entry->reading->value));
            for (const int way : { -1, 1 }) {
                Reading reading = *entry->reading;
                reading.value = *reading.value + way * by;
                reading.repeats.clear();
                for (const std::string& id : comforted(was, studied(withReading(build, pointer, reading)))) {
                    // A balance has two pans: what lightens one loads the other. Which way each goes is held fast in the test of balance.
                    if (id.starts_with("balance/") || (id == "heat/gives-up" && sharesTheWork(pointer)))
                        continue;
                    // What was measured is held against the model: either may be the one that is off.
                    if (id.starts_with("stop/fade-model") || id.starts_with("stop/cold-model"))
                        continue;
                    // Of a comparison the parts that come off are the yardstick: whichever way they move, the difference may become sure.
                    if (id == "stop/distance"
                        && (pointer.starts_with("/setups/0/front/") || (demo == "every part" && pointer.starts_with("/setups/0/rear/"))))
                        continue;
                    QVERIFY2(std::ranges::any_of(rightly,
                                 [&](const Better& b) {
                                     return pointer.ends_with(b.pointer) && way == b.way && id == b.verdict
                                         && demo.contains(QLatin1String(b.demo));
                                 }),
                        (pointer + (way > 0 ? " more" : " less") + " comforts " + id).c_str());
                }
            }
        }
    }

    void aFactNobodySaidNeverReadsBetter_data() { knowingLessNeverReadsBetter_data(); }
    void aFactNobodySaidNeverReadsBetter()
    {
        QFETCH(QString, demo);
        QFETCH(QString, setup);
        const Following studied(named(demo), { {}, setup.toStdString() }, Remedies::LeftOut);
        const Study& was = studied.first();
        const Build& build = studied.build();
        Sayable sayable;
        describe(sayable, build);
        QVERIFY(sayable.pointers.size() > 20);
        for (const std::string& pointer : sayable.pointers) {
            const auto unsaid = withFact(build, pointer, "unknown");
            QVERIFY2(unsaid.refusal.empty(), (pointer + ": " + unsaid.refusal).c_str());
            const auto better = comforted(was, studied(*unsaid.build));
            QVERIFY2(better.empty(), (pointer + " unsaid comforts " + (better.empty() ? std::string() : *better.begin())).c_str());
        }
    }

    /// The same on builds with every field thrown about: readings taken away and made ten times as wide.
    void knowingLessNeverReadsBetterOnRandomBuilds()
    {
        const int builds = qEnvironmentVariableIsSet("DEEPSTOP_BUILDS") ? qEnvironmentVariableIntValue("DEEPSTOP_BUILDS") : 4;
        for (unsigned number = 0; number < static_cast<unsigned>(builds); ++number) {
            const Following studied(randomBuild(number), {}, Remedies::LeftOut);
            const Study& was = studied.first();
            std::mt19937 rng(number);
            const auto all = readingsOf(was);
            std::vector<std::string> pointers(all.begin(), all.end());
            std::ranges::shuffle(pointers, rng);
            pointers.resize(std::min<std::size_t>(pointers.size(), 30));
            for (const std::string& pointer : pointers) {
                Reading wide = *was.directory->at(pointer)->reading;
                wide.plusMinus = 10 * uncertainty(wide, was.directory->at(pointer)->address.style.dimension == Dimension::Length);
                wide.repeats.clear();
                for (const Reading& changed : { Reading {}, wide }) {
                    const auto why = comfort(was, studied(withReading(studied.build(), pointer, changed)));
                    // No spacer is a spacer of nothing, and what is put on is new. A hat's pocket nobody read is its outside less its
                    // walls; a random hat contradicts itself, and so do two random mock-ups of one corner, of which one is taken away.
                    const bool plain = pointer.starts_with("/mock_ups/")
                        || std::ranges::any_of(std::array { "/spacer_mm", "/ring_mm", "/lining_thickness_mm", "/ring_thickness_mm",
                                                   "/hat_pocket_diameter_mm" },
                            [&](const char* end) { return pointer.ends_with(end); });
                    QVERIFY2(plain || why.empty(),
                        (std::to_string(number) + " " + pointer + (changed.value ? " wide: " : " taken away: ") + why).c_str());
                }
            }
        }
    }

    /// One of many taken away: a station, a weighing, a point of a curve, a stop, a temperature, a joint. What stands in the way and is
    /// taken off the drawing (a bleeder, a weight, a keep-out, a bracket's edge), and a leg of a duty, are the car and the duty made
    /// easier.
    void anElementTakenAwayNeverReadsBetter_data() { knowingLessNeverReadsBetter_data(); }
    void anElementTakenAwayNeverReadsBetter()
    {
        QFETCH(QString, demo);
        QFETCH(QString, setup);
        const Following studied(named(demo), { {}, setup.toStdString() }, Remedies::LeftOut);
        const Study& was = studied.first();
        const Build& build = studied.build();
        std::set<std::string> elements;
        for (const auto& entry : was.directory->entries()) {
            static const std::regex element("^(.*/([a-z_]+)/[0-9]+)(/[^/0-9]*)?$");
            std::smatch found;
            if (!std::regex_match(entry.address.pointer, found, element))
                continue;
            static const std::set<std::string> itself { "setups", "wheels", "duties", "legs", "bumps", "insets", "keep_outs", "outline",
                "carried", "loads", "log", "wear", "drawer", "passes", "pistons_mm" };
            if (!itself.contains(found[2].str()) && entry.address.pointer.find("/ran/") == std::string::npos)
                elements.insert(found[1].str());
        }
        QVERIFY(elements.size() > 30);
        // Of many alike every few are enough.
        int number = 0;
        const int every = std::max(1, static_cast<int>(elements.size()) / 70);
        for (const std::string& pointer : elements) {
            if (number++ % every)
                continue;
            const auto now = studied(withoutElement(build, pointer));
            std::set<std::string> better = comforted(was, now);
            // Where those after it move up, what has a number is of another.
            std::erase_if(
                better, [](const std::string& id) { return std::ranges::any_of(id, [](char c) { return c >= '0' && c <= '9'; }); });
            QVERIFY2(better.empty(), (pointer + " taken away comforts " + (better.empty() ? std::string() : *better.begin())).c_str());
        }
    }

    void theHeadlineIsTheWorstOfBothAxles()
    {
        Build build = demo();
        // A rear rotor that goes onto no stud, whatever is in front.
        build.setups[1].rear = build.setups[0].rear;
        build.rearHub.studCount = 5;
        build.setups[1].rear->rotor.boltHoles = 3;
        const auto s = study(build);
        QVERIFY(s.headline.fits == Headline::Fits::No);
        QVERIFY(s.summary.starts_with("Does not fit"));
        // The same of bolts that cannot hold.
        build = demo();
        auto& joint = build.setups[1].front->joints.front();
        joint.threadDepth.value = 2e-3;
        const auto bolts = study(build);
        QVERIFY2(bolts.headline.fits == Headline::Fits::No, bolts.summary.c_str());
    }

    void oneSideReadIsNotCentred()
    {
        Build build = demo();
        std::erase_if(build.mockUps, [](const MockUp& m) { return m.side == Side::Right; });
        for (MockUp& m : build.mockUps) {
            const double mean = (*m.innerTop.value + *m.outerTop.value) / 2;
            for (Reading* gap : { &m.innerTop, &m.outerTop, &m.innerBottom, &m.outerBottom })
                *gap = { mean, 0.01e-3, Known::Measured, "feeler gauge", {} };
            m.seated = m.settled = m.shaftIn = YesNo::Yes;
            m.nuts = 3;
            m.padEdgeTop = m.padEdgeBottom = {};
        }
        // Dimensions that say the same as the gaps.
        Corner& corner = *build.setups[1].front;
        corner.right.slotCentre.plusMinus = corner.left.slotCentre.plusMinus = 0.05e-3;
        corner.right.slotCentre.value = corner.left.slotCentre.value = corner.ring.value.value_or(0) + *corner.rotor.hatThickness.value
            - *corner.rotor.overallHeight.value + *corner.rotor.thickness.value / 2;
        const auto one = study(build);
        QVERIFY2(one.headline.centred == Headline::Centred::Unproven, one.summary.c_str());
        // Both sides read and good: that is centred.
        auto other = build.mockUps;
        for (MockUp& m : other)
            m.side = Side::Right;
        build.mockUps.insert(build.mockUps.end(), other.begin(), other.end());
        const auto both = study(build);
        QVERIFY2(both.headline.centred == Headline::Centred::Yes, both.summary.c_str());
    }

    void widthDecidesWhereTenthsDo()
    {
        Build build = demo();
        for (MockUp& m : build.mockUps)
            m.padEdgeTop = m.padEdgeBottom = {};
        Reading& edge = build.setups[1].front->left.padInset;
        edge = { 0.5e-3, 0.1e-3, Known::Measured, "vernier", {} };
        QCOMPARE(study(build).verdict("front/pad-edge")->level, Level::Good);
        edge.plusMinus = 0.6e-3; // it may ride over
        QCOMPARE(study(build).verdict("front/pad-edge")->level, Level::Unproven);
        edge = { -0.5e-3, 0.1e-3, Known::Measured, "vernier", {} };
        QCOMPARE(study(build).verdict("front/pad-edge")->level, Level::Stop);
        Reading& runout = build.setups[1].front->left.runout;
        runout = { 0.04e-3, 0.005e-3, Known::Measured, "dial gauge", {} };
        QCOMPARE(study(build).verdict("front/runout")->level, Level::Good);
        runout.plusMinus = 0.02e-3;
        QCOMPARE(study(build).verdict("front/runout")->level, Level::Unproven);
        runout = { 0.08e-3, 0.005e-3, Known::Measured, "dial gauge", {} };
        QCOMPARE(study(build).verdict("front/runout")->level, Level::Caution);
        runout = { 0.2e-3, 0.005e-3, Known::Measured, "dial gauge", {} };
        QCOMPARE(study(build).verdict("front/runout")->level, Level::Stop);
    }

    void someBoltsOfACornerCarryTheBrake()
    {
        Build build = demo();
        for (Joint& joint : build.setups[1].front->joints)
            joint.mountRadius = {};
        const auto s = study(build);
        QCOMPARE(s.verdict("front/joint-1-slip")->level, Level::Unproven);
        QVERIFY(!s.verdict("front/joint-2-slip"));
        QVERIFY(s.headline.fits == Headline::Fits::Unproven);
    }

    void aTorqueFarFromTheComputedIsACaution()
    {
        Build build = demo();
        Joint& joint = build.setups[1].front->joints.front();
        const auto verdict = [&] { return *study(build).verdict("front/joint-1-torque"); };
        joint.makerTorque = {};
        const double computed = *verdict().figure.value;
        const auto of = [&](double torque) {
            joint.makerTorque = { torque, 0.0, Known::Vendor, {}, {} };
            return verdict();
        };
        QCOMPARE(of(computed).level, Level::Good);
        QCOMPARE(of(0.9 * computed).level, Level::Good);
        // Pounds-feet typed as newton-metres.
        const auto low = of(computed / 1.356);
        QVERIFY2(low.level == Level::Caution && low.reason.find("unit") != std::string::npos, low.reason.c_str());
        QCOMPARE(of(0.45 * computed).level, Level::Caution);
        QVERIFY(of(0.45 * computed).reason.find("unit") != std::string::npos);
        QVERIFY(!isFine(of(1.35 * computed).level));
    }

    void gapsAndRotorFillTheSlot()
    {
        Build build = demo();
        build.mockUps.erase(build.mockUps.begin() + 1, build.mockUps.end());
        MockUp& m = build.mockUps.front();
        Corner& corner = build.setups[1].front.value();
        const double free = *corner.caliper.slotWidth.value - *corner.rotor.thickness.value;
        for (Reading* gap : { &m.innerTop, &m.outerTop, &m.innerBottom, &m.outerBottom })
            *gap = { free / 2, 0.02e-3, Known::Measured, "vernier", {} };
        QVERIFY(!study(build).verdict("front-left/slot-sum"));
        *m.outerTop.value += 1e-3;
        const auto upper = study(build);
        QVERIFY(
            upper.verdict("front-left/slot-sum") && upper.verdict("front-left/slot-sum")->reason.find("upper gaps") != std::string::npos);
        *m.outerBottom.value += 1e-3;
        QVERIFY(study(build).verdict("front-left/slot-sum")->reason.find("both ends") != std::string::npos);
    }

    /// EN 1561, from memory: 11.7e-6 from 20 to 200 °C, 13e-6 to 400 °C.
    void ironGrowsAsItsStandardSays()
    {
        QVERIFY(near(materials::greyIron.expansionOver(180), 11.7e-6, 1e-12));
        QVERIFY(near(materials::greyIron.expansionOver(380), 13e-6, 1e-12));
        QVERIFY(near(materials::greyIron.expansionOver(500), 13e-6, 1e-12));
        for (double rise = 0; rise < 600; rise += 7)
            QVERIFY(materials::greyIron.expansionOver(rise + 7) >= materials::greyIron.expansionOver(rise));
    }
};

DEEPSTOP_TEST(NoComfortTest)
#include "no_comfort_test.moc"
