/// The job card: made from build and study, gates that open only on proof or a recorded reason, cautions at their steps.

#include "core/support.hpp"
#include "build/address.hpp"
#include "jobcard/jobcard.hpp"
#include "report/sheets.hpp"

#include <QTest>

#include <set>

using namespace deepstop;
using namespace deepstop::jobcard;

namespace {

Study studied(Build build, const char* after = nullptr)
{
    return study(std::make_shared<const Build>(std::move(build)), { {}, after ? after : "" }, UnitSystem::Metric, Remedies::LeftOut);
}

bool has(const Card& card, const std::string& part)
{
    return std::ranges::any_of(card.steps, [&](const Step& s) { return s.id.find(part) != std::string::npos; });
}

const Step& stepLike(const Card& card, const std::string& part)
{
    if (const Step* step = card.step(part))
        return *step;
    return *std::ranges::find_if(card.steps, [&](const Step& s) { return s.id.find(part) != std::string::npos; });
}

/// A Merle whose kit is centred, clear and on good studs, with a shield to trim.
Build proven()
{
    Build build = demo();
    build.setups[1].front->cuts = { Cut::TrimShield };
    for (Side side : { Side::Left, Side::Right })
        build.setups[1].front->at(side).shimTop.value = *build.setups[1].front->at(side).shimTop.value;
    return build;
}

} // namespace

class CardTest : public QObject {
    Q_OBJECT
private slots:
    void eachDemoHasItsOwnCard()
    {
        std::map<std::string, std::set<std::string>> ids;
        for (const char* name : { "halden-merle", "linnet", "drover-camper" }) {
            const Study s = studied(demo(name));
            const Card card = cardOf(s);
            QVERIFY2(card.steps.size() > 50, name);
            std::set<std::string> own;
            for (const Step& step : card.steps) {
                QVERIFY2(own.insert(step.id).second, step.id.c_str());
                QVERIFY2(!step.because.empty() && !step.text.empty(), step.id.c_str());
                // What caused it is there: a check, a field, or practice.
                QVERIFY2(step.because == "common practice" || s.verdict(step.because) || s.directory->at(step.because)
                        || factAt(*s.build, step.because),
                    (step.id + ": " + step.because).c_str());
                QVERIFY(step.minutes > 0);
            }
            // In the order of the phases.
            QVERIFY(std::ranges::is_sorted(card.steps, {}, &Step::phase));
            ids[name] = own;
        }
        QVERIFY(ids["halden-merle"] != ids["linnet"] && ids["linnet"] != ids["drover-camper"]);
        QVERIFY(ids["halden-merle"].contains("front/left/cut-trim-the-dust-shield")
            && !ids["drover-camper"].contains("front/left/cut-trim-the-dust-shield"));
    }

    /// A step whose cause is taken away goes.
    void stepsFollowWhatCausesThem()
    {
        Build build = demo();
        build.setups[1].front->rotor.handed = Handed::Sided;
        build.setups[1].front->pad.wearSensor = YesNo::Yes;
        build.setups[1].front->spacer = { 5e-3, {}, Known::Measured, {}, {} };
        build.frontHub.speedSensor = YesNo::Yes;
        const Card with = cardOf(studied(build));
        for (const char* id :
            { "left/vanes", "left/sensor-in", "left/spacer", "left/sensor-wire", "left/cut-trim", "left/joint-1", "left/shims" })
            QVERIFY2(has(with, id), id);
        build.setups[1].front->rotor.handed = Handed::Either;
        build.setups[1].front->pad.wearSensor = YesNo::No;
        build.setups[1].front->spacer = {};
        build.frontHub.speedSensor = YesNo::No;
        build.setups[1].front->cuts.clear();
        build.setups[1].front->joints.clear();
        for (Side side : { Side::Left, Side::Right })
            build.setups[1].front->at(side).shimTop = build.setups[1].front->at(side).shimBottom = {};
        const Card without = cardOf(studied(build));
        for (const char* id :
            { "left/vanes", "left/sensor-in", "left/spacer", "left/sensor-wire", "left/cut-trim", "left/joint-1", "left/shims" })
            QVERIFY2(!has(without, id), id);
        QVERIFY(cardOf(studied(demo(), "as-found")).steps.empty());
    }

    /// Every caution of the handbook's section on safety stands at the step where it counts.
    void cautionsStandWhereTheyCount()
    {
        const Card card = cardOf(studied(demo()));
        const std::pair<const char*, const char*> wanted[] { { "car/stands", "not the jack alone" }, { "car/stands", "Strap" },
            { "car/eyes", "compressed air" }, { "car/eyes", "paint" }, { "left/washers", "once" }, { "car/pump", "first push" },
            { "car/walking", "slow" }, { "left/tag", "swapped" }, { "left/bleeder-up", "swapped" }, { "front/left/hose", "twisted" },
            { "left/faces-clean", "Oil" }, { "car/data", "engineer" }, { "car/data", "law" }, { "cut-trim", "engineer" },
            { "car/bed-1", "legal" }, { "left/joint-1", "threadlocker" } };
        for (const auto& [id, words] : wanted)
            QVERIFY2(
                stepLike(card, id).caution.find(words) != std::string::npos, (std::string(id) + ": " + stepLike(card, id).caution).c_str());
        QVERIFY(stepLike(card, "left/first-drive").phase == Phase::ReCheck && has(card, "car/later"));
        QVERIFY(stepLike(cardOf(studied(demo("drover-camper"))), "car/leaks").caution.find("cylinder") != std::string::npos);
        // Anti-seize is no dry thread.
        Build build = demo();
        build.setups[1].front->joints[0].condition = Condition::AntiSeize;
        const Card greased = cardOf(studied(build));
        QVERIFY(stepLike(greased, "left/joint-1").caution.find("overstretch") != std::string::npos);
        QCOMPARE(stepLike(greased, "left/joint-1").threads, "anti-seize");
    }

    /// No torque is named that nobody has proven: unproven or contradicted ones ask their maker.
    void noTorqueIsInvented()
    {
        Build build = demo();
        QVERIFY(stepLike(cardOf(studied(build)), "left/joint-1").torque);
        build.setups[1].front->joints[0].boltClass = BoltClass::Unknown;
        build.setups[1].front->joints[0].makerTorque = {};
        const Card card = cardOf(studied(build));
        QVERIFY(!stepLike(card, "left/joint-1").torque);
        QVERIFY(stepLike(card, "left/joint-1").text.find("ask its maker") != std::string::npos);
    }

    /// A torque its check doubts is not printed as one to pull: it is given for dry threads, and these are greased.
    void aDoubtedTorqueIsNotOne()
    {
        Build build = demo();
        auto& joint = build.setups[1].front->joints[0];
        joint.condition = Condition::AntiSeize;
        joint.torqueFor = Condition::Dry;
        joint.makerTorque.value = 120;
        const Study s = studied(build);
        QVERIFY(!isFine(s.verdict("front/joint-1-torque")->level));
        const Card card = cardOf(s);
        QVERIFY(!stepLike(card, "left/joint-1").torque);
        QVERIFY2(stepLike(card, "left/joint-1").text.find("IN DOUBT") != std::string::npos, stepLike(card, "left/joint-1").text.c_str());
    }

    /// Bolts that are too short, bottom, land on their shank or slip are not to be pulled to any torque, however right it is for their
    /// size.
    void noTorqueForBoltsThatDoNotDo()
    {
        const auto step = [](auto change) {
            Build build = demo();
            change(build.setups[1].front->joints[0]);
            return stepLike(cardOf(studied(build)), "left/joint-1");
        };
        const Step good = step([](Joint&) {});
        QVERIFY(good.torque);
        for (const auto& [change, word] : std::initializer_list<std::pair<std::function<void(Joint&)>, const char*>> {
                 { [](Joint& j) { j.length.value = *j.length.value - 22e-3; }, "thread engagement" },
                 { [](Joint& j) { j.shank.value = *j.length.value - 1e-3; }, "shank" },
                 { [](Joint& j) { j.makerTorque.value = 400; }, "proof" },
                 { [](Joint& j) { j.makerTorque.known = Known::Estimated; }, "" } }) {
            const Step doubted = step(change);
            QVERIFY2(!doubted.torque, doubted.text.c_str());
            QVERIFY2(doubted.text.find("IN DOUBT") != std::string::npos || doubted.text.find("not known") != std::string::npos,
                doubted.text.c_str());
            QVERIFY2(doubted.text.find(word) != std::string::npos, doubted.text.c_str());
        }
    }

    /// What holds a two-piece ring on its hat is what the builder says it is, whatever it is called; a rotor nobody described keeps the
    /// step.
    void jointsAreWhatTheBuilderSaysTheyAre()
    {
        Build build = demo();
        Corner& front = *build.setups[1].front;
        front.rotor.construction = RotorBuild::TwoPiece;
        for (Joint& each : front.joints)
            each.joins = Joins::Unknown;
        front.joints[0].name = "that one";
        QVERIFY(has(cardOf(studied(build)), "left/hat-bolts"));
        front.joints[0].joins = Joins::RingToHat;
        const Card card = cardOf(studied(build));
        QVERIFY(!has(card, "left/hat-bolts") && has(card, "left/joint-1"));
        front.joints[0].joins = Joins::Unknown;
        front.rotor.construction = RotorBuild::Unknown;
        QVERIFY2(stepLike(cardOf(studied(build)), "left/hat-bolts").text.find("If the rotor") == 0,
            stepLike(cardOf(studied(build)), "left/hat-bolts").text.c_str());
        front.rotor.construction = RotorBuild::OnePiece;
        QVERIFY(!has(cardOf(studied(build)), "left/hat-bolts"));
    }

    /// Whatever goes in for the work comes out again, and another master, valve or booster is work of its own.
    void whatGoesInComesOut()
    {
        Build build = demo();
        build.frontHub.speedSensor = YesNo::Unknown;
        Card card = cardOf(studied(build));
        for (const char* id : { "car/pedal-down", "car/pedal-free", "left/sensor-wire", "left/sensor-wire-back" })
            QVERIFY2(has(card, id), id);
        QVERIFY(stepLike(card, "car/pedal-free").phase == Phase::BeforeMoving);
        for (const char* id : { "car/master", "car/booster", "car/valve" })
            QVERIFY2(!has(card, id), id);
        build.setups[1].hydraulics = build.setups[0].hydraulics;
        auto& h = *build.setups[1].hydraulics;
        h.masterBore.value = h.masterBore.value.value_or(0.022) + 0.003;
        h.valve = ValveKind::Adjustable;
        h.booster = Booster::None;
        card = cardOf(studied(build));
        for (const char* id : { "car/master", "car/booster", "car/valve" }) {
            QVERIFY2(has(card, id), id);
            QVERIFY(stepLike(card, id).phase < Phase::Bleed);
        }
    }

    /// No cut waits for what it is made to cure, and taking away what would shut it opens none.
    void noCutWaitsForItsOwnCure()
    {
        Build build = demo();
        build.setups[1].front->bracket.knuckleSpacing.value = *build.setups[1].front->bracket.knuckleSpacing.value + 3e-3;
        const auto waits = [&](Cut cut) { return blockersOf(studied(build), Axle::Front, cut); };
        const auto names = [](const std::vector<std::string>& all, const char* word) {
            return std::ranges::any_of(all, [&](const std::string& w) { return w.find(word) != std::string::npos; });
        };
        QVERIFY(studied(build).verdict("front/mount-spacing")->level == Level::Stop);
        QVERIFY(names(waits(Cut::TrimShield), "Mounting holes"));
        QVERIFY(!names(waits(Cut::DrillLugs), "Mounting holes"));
        build = demo();
        QVERIFY(!names(waits(Cut::DrillLugs), "no joint"));
        build.setups[1].front->joints.clear();
        QVERIFY(names(waits(Cut::DrillLugs), "no joint"));
    }

    /// Of a drum nothing is read at the mock-up: a cut there waits until both were turned and called free.
    void aDrumIsTurnedBeforeAnythingIsCut()
    {
        Build build = demo("drover-camper");
        build.setups[1].rear = *cornerOf(build, build.setups[1], Axle::Rear);
        QCOMPARE(build.setups[1].rear->brakes, BrakeKind::Drums);
        build.setups[1].rear->drum.name = "another drum";
        const auto turned = [&](Side side) {
            const auto waits = blockersOf(studied(build), Axle::Rear, Cut::PressStuds);
            return std::ranges::none_of(
                waits, [&](const std::string& w) { return w.find(side == Side::Left ? "left drum" : "right drum") != std::string::npos; });
        };
        QVERIFY(!turned(Side::Left) && !turned(Side::Right));
        build = *(*ticked(studied(build), "rear/left/drum-on", Checked::Fine, { "D", "2026-05-02" }))(build);
        QVERIFY(turned(Side::Left) && !turned(Side::Right));
        build = *(*ticked(studied(build), "rear/left/drum-on", Checked::Fault, { "D", "2026-05-02" }))(build);
        QVERIFY(!turned(Side::Left));
    }

    /// A shut step is ticked by nobody; a reason opens it, and is recorded; nothing else does.
    void gatesOpenOnProofOrAReason()
    {
        const Study s = studied(proven());
        const Card card = cardOf(s);
        const Step& cut = stepLike(card, "front/left/cut-trim");
        QVERIFY(cut.irreversible);
        // The demo's kit is off its middle: that is named.
        QVERIFY(!cut.open && std::ranges::any_of(cut.waits, [](const std::string& w) { return w.find("centring") != std::string::npos; }));
        QVERIFY(!ticked(s, cut.id, Checked::Fine, { "A", "2026-05-01" }));
        QVERIFY(!opened(s, cut.id, "  ", { "A", "2026-05-01" }));
        QVERIFY(!opened(s, "car/stands", "because", { "A", "2026-05-01" }));
        QVERIFY(ticked(s, cut.id, Checked::Fault, { "A", "2026-05-01" })); // a fault may always be called one
        const auto opens = opened(s, cut.id, "the owner wants it", { "A", "2026-05-01" });
        QVERIFY(opens);
        const auto open = (*opens)(*s.build);
        QVERIFY(open && open->cards.size() == 1 && open->cards[0].openings[0].reason == "the owner wants it");
        const Study after = studied(*open);
        QVERIFY(stepLike(cardOf(after), "front/left/cut-trim").open && !stepLike(cardOf(after), "front/right/cut-trim").open);
        QVERIFY(ticked(after, cut.id, Checked::Fine, { "A", "2026-05-01" }));
    }

    /// The other side not tried, a reading missing, a wheel that touches: each shuts it by name.
    void whateverIsNotProvenShutsIt()
    {
        const auto waits = [](Build build) { return blockersOf(studied(std::move(build)), Axle::Front, Cut::TrimShield); };
        const auto names = [](const std::vector<std::string>& all, const char* word) {
            return std::ranges::any_of(all, [&](const std::string& w) { return w.find(word) != std::string::npos; });
        };
        Build build = demo();
        std::erase_if(build.mockUps, [](const MockUp& m) { return m.side == Side::Right; });
        QVERIFY(names(waits(build), "right"));
        build = demo();
        build.frontHub.studLength = {};
        QVERIFY(names(waits(build), "Studs"));
        build = demo();
        build.setups[1].front->caliper.backOverEdge.value = *build.setups[1].front->caliper.backOverEdge.value + 20e-3;
        QVERIFY(names(waits(build), "barrel"));
        build = demo();
        build.wheels.clear();
        QVERIFY(names(waits(build), "barrel") || names(waits(build), "Barrel"));
    }

    /// Whatever is ticked in whatever order, readings moved in between: a cut is done only while it is open, or for a recorded reason.
    void noOrderOpensACutEarly()
    {
        std::mt19937 rng(17);
        for (int round = 0; round < 12; ++round) {
            Build build = proven();
            for (int i = 0; i < 25; ++i) {
                const Study s = studied(build);
                const Card card = cardOf(s);
                const Step& step = card.steps[std::uniform_int_distribution<std::size_t>(0, card.steps.size() - 1)(rng)];
                const Step& cut = stepLike(card, "front/left/cut-trim");
                const int what = static_cast<int>(rng() % 5);
                if (what == 0) {
                    // A reading that moves: the caliper's slot, this way or that.
                    auto& slot = build.setups[1].front->left.slotCentre;
                    slot.value = *slot.value + (rng() % 2 ? 1e-3 : -1e-3);
                    continue;
                }
                const Step& tried = what == 1 ? cut : step;
                const auto next = ticked(s, tried.id, Checked::Fine, { "B", "2026-05-02" });
                QCOMPARE(next.has_value(), tried.open);
                if (tried.irreversible && next)
                    QVERIFY(tried.waits.empty() || !tried.opened.empty());
                if (next)
                    build = *(*next)(build);
            }
        }
    }

    /// A reading taken on the card that breaks a proof shuts the gate again.
    void aBrokenProofShutsAgain()
    {
        // A kit all of whose checks hold: everything it waits for is called to order by opening the wants.
        Build build = demo();
        build.setups[1].front->cuts = { Cut::TrimShield };
        build.wants.centred.value = 2e-3;
        build.wants.usable.value = 3e-3;
        const auto before = blockersOf(studied(build), Axle::Front, Cut::TrimShield);
        QVERIFY2(before.empty(), before.empty() ? "" : before.front().c_str());
        QVERIFY(stepLike(cardOf(studied(build)), "front/left/cut-trim").open);
        const auto card = cardOf(studied(build));
        const Step& gaps = stepLike(card, "front/left/gaps");
        QVERIFY(!gaps.readings.empty());
        // The inner top gap read again, 8 mm wider: the caliper is off its middle.
        const Directory directory(build);
        Reading again = *directory.at(gaps.readings.front())->reading;
        again.value = *again.value + 8e-3;
        const Build broken = withReading(build, gaps.readings.front(), again);
        QVERIFY(broken != build);
        QVERIFY(!stepLike(cardOf(studied(broken)), "front/left/cut-trim").open);
    }

    void timesAreLearntAndTicksKept()
    {
        Build build = demo();
        const Study s = studied(build);
        build = *(*ticked(s, "front/left/tag", Checked::Fine, { "C", "2026-05-02 10:00" }, "note", 600))(build);
        const Card card = cardOf(studied(build));
        QCOMPARE(card.step("front/left/tag")->state, Checked::Fine);
        QCOMPARE(card.step("front/left/tag")->who, "C");
        QCOMPARE(card.step("front/right/tag")->minutes, 10.0);
        QCOMPARE(files::parseBuild(files::writeBuild({ build, nullptr })).build, build);
    }

    /// Two rods and a beam by hand: 1,385 kg without the driver, half of the wheelbase's mass moved.
    void theCentreOfMassGoesByHand()
    {
        const Study s = studied(demo());
        const Lift lift = liftOf(s);
        QVERIFY(!lift.moments.empty());
        const Car& car = s.build->car;
        const double base = *car.wheelbase.value;
        const double mass = *car.mass.value - 75;
        const double at = (*car.mass.value * (1 - *car.frontLoadShare.value) * base - 75 * 0.45 * base) / mass;
        QVERIFY(near(lift.moments[0].behindFrontAxle, at, 1e-12) && near(lift.moments[0].mass, mass, 1e-12));
        for (const auto& m : lift.moments)
            QVERIFY(near(m.toArm, std::min(m.behindFrontAxle - 0.2 * base, 0.8 * base - m.behindFrontAxle), 1e-12));
        // Parts off the front move it back.
        for (const auto& m : lift.moments)
            if (m.what.starts_with("front"))
                QVERIFY(m.behindFrontAxle > at && m.mass < mass);
    }

    void schoolsSayWhy()
    {
        const Study s = studied(demo());
        JobCard choices;
        for (const auto bedding : { Bedding::Unknown, Bedding::Street, Bedding::SlowDowns, Bedding::WarmThenHard, Bedding::Maker }) {
            choices.bedding = bedding;
            const Procedure procedure = beddingOf(s, choices);
            QVERIFY(!procedure.steps.empty() && procedure.why.size() > 20);
        }
        QVERIFY(beddingOf(s, JobCard {}).title.find("default: ") != std::string::npos);
        choices.bleedOrder = BleedOrder::NearestFirst;
        QVERIFY(bleedingOf(s, choices).steps.front().starts_with("front"));
        choices.bleedOrder = BleedOrder::FurthestFirst;
        QVERIFY(bleedingOf(s, choices).steps.front().starts_with("rear"));
    }

    void whatIsPrintedHasItAll()
    {
        const Study s = studied(demo());
        const Card card = cardOf(s);
        const auto leaf = report::jobCard(s, card, "2026-05-02");
        const auto html = report::htmlOf(leaf);
        for (const Step& step : card.steps)
            QVERIFY2(
                html.find(step.text.substr(0, 12)) != std::string::npos || step.text.find('&') != std::string::npos, step.text.c_str());
        const auto pages = report::sheetsOf(leaf, paper::a4());
        QVERIFY(pages.size() > 3 && pages.size() < 15);
        for (const auto& page : pages)
            for (const auto& l : page.letters)
                QVERIFY2(l.at.x >= 10e-3 && l.at.x < page.width - 9e-3 && l.at.y > 10e-3 && l.at.y < page.height - 5e-3, l.text.c_str());
        const auto section = report::sectionOf(s, Axle::Front);
        QVERIFY(section.strokes.size() > 6);
        const auto csv = report::figuresCsv(s);
        QVERIFY(csv.find("front/barrel-gap") != std::string::npos && csv.find("ledger/stop-distance/after") != std::string::npos);
    }
};

DEEPSTOP_TEST(CardTest)
#include "card_test.moc"
