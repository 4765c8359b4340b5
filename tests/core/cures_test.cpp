/// Wheel room in the study: cures applied and studied again, candidates, inverse questions, studs and places that stand still.

#include "chapters/clearance/clearance.hpp"
#include "chapters/heat/heat_chapter.hpp"
#include "build/address.hpp"
#include "core/support.hpp"
#include "library/library_file.hpp"
#include "chapters/clearance/cures.hpp"

#include <QTest>

#include <set>

using namespace deepstop;

namespace {

Study of(const Build& build, const std::string& after = {}) { return study(build, { {}, after }); }
library::Library shipped() { return files::loadLibrary(DEEPSTOP_DATA "/library/parts.json"); }
bool names(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }
Reading measured(double value, double plusMinus) { return { value, plusMinus, Known::Measured, "vernier", {} }; }

constexpr std::array gapIds { "front/barrel-gap", "front/inset-gap", "front/spoke-gap" };

} // namespace

class CuresTest : public QObject {
    Q_OBJECT
private slots:
    /// The proposal that hits: at least three different cures, each put in and studied again.
    void theFailingProposalHasThreeCuresThatCure()
    {
        const auto shelf = shipped();
        const auto s = of(demo(), "varnik-355");
        QCOMPARE(s.verdict("front/barrel-gap")->level, Level::Hits);
        const auto cures = curesOf(s, Axle::Front, &shelf);
        std::set<Cure::Kind> kinds;
        std::set<std::string> titles;
        for (const Cure& cure : cures) {
            kinds.insert(cure.kind);
            titles.insert(cure.title);
            const auto again = of(*applied(cure.edit, *s.build), "varnik-355");
            for (std::size_t i = 0; i < gapIds.size(); ++i) {
                const Verdict* v = again.verdict(gapIds[i]);
                if (!v)
                    continue;
                QVERIFY2(!isBad(v->level), (cure.title + ": " + v->reason).c_str());
                QVERIFY(v->figure.value.has_value() == cure.gaps[i].value.has_value());
                if (v->figure.value)
                    QVERIFY(near(*v->figure.value, *cure.gaps[i].value, 1e-9));
            }
            QVERIFY2(!cure.costs.empty(), cure.title.c_str());
            if (cure.heatStore.value)
                QVERIFY(near(*cure.heatStore.value, *again.of<Heat>().after.front.heatStore.value, 1e-9));
        }
        QVERIFY2(titles.size() >= 3, qPrintable(QString::number(titles.size())));
        QVERIFY(kinds.contains(Cure::Kind::Rotor) && kinds.contains(Cure::Kind::Wheel));
        // The tight kit is also cured by a slimmer caliper.
        const auto tight = curesOf(of(demo()), Axle::Front, &shelf);
        QVERIFY(std::ranges::any_of(tight, [](const Cure& cure) { return cure.kind == Cure::Kind::Caliper; }));
    }

    void nothingThatClearsIsCured()
    {
        auto build = demo();
        for (auto& station : build.wheels[0].barrel)
            *station.insideRadius.value += 0.01;
        const auto s = of(build);
        QCOMPARE(s.verdict("front/barrel-gap")->level, Level::Clear);
        QVERIFY(s.verdict("front/barrel-gap")->remedies.empty());
    }

    /// The largest rotor clears, the next one does not: studied, not believed.
    void theLargestRotorIsTheLargest()
    {
        for (const char* name : { "halden-merle", "linnet" }) {
            auto build = demo(name);
            const auto answer = largestRotor(of(build), Axle::Front);
            QVERIFY2(answer.diameter, answer.why.c_str());
            const auto level = [&](double diameter) {
                build.setups[1].front->rotor.outerDiameter.value = diameter;
                const auto s = of(build);
                Level worst = Level::Clear;
                for (const char* id : gapIds)
                    if (const Verdict* v = s.verdict(id))
                        worst = std::max(worst, v->level);
                return worst;
            };
            QCOMPARE(level(*answer.diameter), Level::Clear);
            // Too near, or a caliper where nobody measured.
            QVERIFY(level(*answer.diameter + 1e-3) != Level::Clear);
            QVERIFY(names(inWords(answer, UnitSystem::Metric), "Largest rotor"));
        }
    }

    /// At both ends of the range the wheel clears, half a millimetre further it does not.
    void theOffsetRangeEndsWhereItDoes()
    {
        auto build = demo();
        for (auto& station : build.wheels[0].barrel)
            *station.insideRadius.value += 0.002;
        const auto range = offsetRange(of(build), Axle::Front);
        QVERIFY2(range.offsets, range.why.c_str());
        QVERIFY(range.offsets->first <= 0.040 && range.offsets->second >= 0.040);
        const double face = 0.008;
        const auto clears = [&](double offset) {
            // The same wheel with another offset: its mounting face lies elsewhere in the same barrel.
            Build other = build;
            const double moved = 0.040 - offset;
            other.wheels[0].offset.value = offset;
            other.setups[1].front->spacer = measured(moved, 0);
            (void)face;
            const auto s = of(other);
            return s.verdict("front/barrel-gap")->level == Level::Clear && s.verdict("front/spoke-gap")->level == Level::Clear
                && s.verdict("front/inset-gap")->level == Level::Clear;
        };
        QVERIFY(clears(range.offsets->first) || range.openLow);
        QVERIFY(clears(range.offsets->second) || range.openHigh);
        if (!range.openHigh)
            QVERIFY(!clears(range.offsets->second + 0.5e-3));
        if (!range.openLow)
            QVERIFY(!clears(range.offsets->first - 0.5e-3));
    }

    void candidatesAreOrderedByTheirRoom()
    {
        const auto shelf = shipped();
        const auto s = of(demo());
        const auto candidates = candidateWheels(s, Axle::Front, &shelf);
        QVERIFY(candidates.size() > 10);
        const auto rank = [](const Candidate& c) { return isBad(c.level) ? 2 : c.level == Level::Unproven ? 1 : 0; };
        for (std::size_t i = 1; i < candidates.size(); ++i) {
            QVERIFY(rank(candidates[i - 1]) <= rank(candidates[i]));
            if (rank(candidates[i - 1]) == rank(candidates[i]) && candidates[i].smallest && candidates[i - 1].smallest)
                QVERIFY(*candidates[i - 1].smallest >= *candidates[i].smallest);
        }
        const auto own = std::ranges::find(candidates, s.after.front.wheel, &Candidate::wheel);
        QVERIFY(own != candidates.end());
        QVERIFY(near(*own->gaps[0].value, *s.verdict("front/barrel-gap")->figure.value, 1e-12));
        QVERIFY(std::abs(*own->offset - 0.0392) < 1e-9); // hat 0.8 mm thicker than as found
    }

    /// The set in the cellar has only its printed size.
    void aWheelOfUnknownProfileIsNeverClear()
    {
        auto build = demo();
        for (const char* setup : { "as-found", "varnik-330", "varnik-355" }) {
            for (auto& s : build.setups)
                if (s.front)
                    s.front->wheel = "winter";
            const auto s = of(build, setup);
            for (const char* id : { "front/barrel-gap", "front/spoke-gap" })
                QVERIFY(s.verdict(id)->level == Level::Unproven || s.verdict(id)->level == Level::Hits);
        }
        const auto s = of(build, "varnik-330");
        QVERIFY(!largestRotor(s, Axle::Front).diameter);
        QVERIFY(!offsetRange(s, Axle::Front).offsets);
    }

    /// Any stations may be taken away: clear stays only what stations enclose closely all along the caliper.
    void noStationNearMeansUnproven()
    {
        const auto whole = demo();
        int unproven = 0;
        for (int i = 0; i < 400; ++i) {
            auto build = whole;
            auto& wheel = build.wheels[0];
            std::erase_if(wheel.barrel, [](const auto&) { return among(0, 3) == 0; });
            std::erase_if(wheel.spokes, [](const auto&) { return among(0, 3) == 0; });
            wheel.insets.clear();
            const auto s = of(build);
            const CornerClearance& r = s.of<Clearance>().after.front.left;
            for (const auto& [which, id] :
                { std::pair { WheelGap::Barrel, "front/barrel-gap" }, std::pair { WheelGap::Spokes, "front/spoke-gap" } }) {
                const Verdict& v = *s.verdict(id);
                const bool covered =
                    r.room(which).drawn && r.room(which).drawn->covered() && !(which == WheelGap::Barrel && r.barrelEstimated);
                if (!covered) {
                    QVERIFY2(v.level == Level::Unproven || v.level == Level::Hits, v.reason.c_str());
                    ++unproven;
                }
            }
            // The plan asks for something exactly where something is bare.
            const bool asks = std::ranges::any_of(r.stations, [](const auto& station) { return !station.taken; });
            const auto bare = [&](WheelGap which) { return !r.room(which).drawn || !r.room(which).drawn->covered(); };
            if (bare(WheelGap::Barrel) || bare(WheelGap::Spokes) || r.barrelEstimated)
                QVERIFY(asks);
        }
        QVERIFY(unproven > 100);
    }

    /// By hand: 38.5 − 8 − 12 − 12 − 1.5 = 5 mm, 12 wanted; a stud of 55 mm would do.
    void aRingOfTwelveIsRefusedWithTheStudThatWouldDo()
    {
        auto build = demo();
        build.setups[1].front->ring = measured(0.012, 0.05e-3);
        const auto s = of(build);
        const Verdict& v = *s.verdict("front/studs");
        QCOMPARE(v.level, Level::Stop);
        QVERIFY(near(*v.figure.value, 0.005, 1e-9));
        QVERIFY2(names(v.reason, "55.0 mm"), v.reason.c_str());
        build.frontHub.studLength = measured(0.055, 0.05e-3);
        QCOMPARE(of(build).verdict("front/studs")->level, Level::Good);
    }

    void studsThatDoNotReachAreNotCalledGood()
    {
        // Exactly what is wanted, but not at worst: caution, never good.
        auto build = demo();
        build.setups[1].front->spacer = measured(0.005, 0.05e-3);
        QCOMPARE(of(build).verdict("front/studs")->level, Level::Unproven); // slipped on or bolted is not said
        build.setups[1].front->spacerPart.kind = SpacerKind::SlipOn;
        const Verdict v = *of(build).verdict("front/studs");
        QCOMPARE(v.level, Level::Caution);
        build.frontHub.studThread = {};
        QCOMPARE(of(build).verdict("front/studs")->level, Level::Unproven);
        build = demo();
        build.wheels[0].nutSeat = NutSeat::Ball;
        QCOMPARE(of(build).verdict("front/nut-seat")->level, Level::Stop);
    }

    void aWasherTrialGivesTheSpacerAndItsRecheck()
    {
        auto build = demo();
        auto& corner = *build.setups[1].front;
        corner.washers = measured(0.0085, 0.1e-3);
        corner.freed = Freed::JustTurns;
        const auto s = of(build);
        const Verdict v = *s.verdict("front/washers");
        QCOMPARE(v.level, Level::Caution);
        // 8.5 + 0.1 and the 3 mm wanted: 11.6 at worst, 12 to buy, 12 turned as well.
        QVERIFY2(names(v.reason, "11.6 mm") && names(v.reason, "buy 12.0 mm"), v.reason.c_str());
        QVERIFY(!v.remedies.empty());
        const auto again = of(*v.remedies.front().in(build));
        QCOMPARE(again.verdict("front/washers")->level, Level::Good);
        QCOMPARE(again.verdict("front/studs")->level, Level::Stop);
        corner.freed = Freed::WantedGap;
        QVERIFY(names(of(build).verdict("front/washers")->reason, "8.6 mm"));
    }

    void whereTheWheelStandsIsSaidInFull()
    {
        auto build = demo();
        build.setups[1].front->spacer = measured(0.005, 0.05e-3);
        const auto s = of(build);
        const Verdict& v = *s.verdict("front/wheel-place");
        QVERIFY(near(*v.figure.value, 0.0058, 1e-9));
        for (const char* part :
            { "5.8 mm further out", "effective offset 34.2 mm", "backspacing 148.2 mm", "track 1536 mm", "scrub radius 16.8 mm" })
            QVERIFY2(names(v.reason, part), (v.reason + " lacks " + part).c_str());
        QVERIFY(near(*s.verdict("front/fender-room")->figure.value, 0.014 - 0.0058, 1e-9));
        QVERIFY(near(*s.verdict("front/inner-room")->figure.value, 0.012 + 0.0058, 1e-9));
    }

    void bleedersBelowTheTopAreFound()
    {
        auto build = demo();
        auto& caliper = build.setups[1].front->caliper;
        caliper.bleeders = Bleeders::OneEnd;
        QCOMPARE(of(build).verdict("front/bleeder")->level, Level::Unproven);
        // Behind the axle the rotor leaves the caliper upward.
        caliper.bleederEnd = End::Exit;
        QCOMPARE(of(build).verdict("front/bleeder")->level, Level::Good);
        caliper.bleederEnd = End::Entry;
        QCOMPARE(of(build).verdict("front/bleeder")->level, Level::Stop);
        // Ahead of it, downward: the same caliper is right.
        build.setups[1].front->mount.clock.value = -*build.setups[1].front->mount.clock.value;
        QCOMPARE(of(build).verdict("front/bleeder")->level, Level::Good);
        std::swap(caliper.pistons[0], caliper.pistons[1]);
        QCOMPARE(of(build).verdict("front/piston-order")->level, Level::Caution);
    }

    /// Whose size nobody has said is no answer to "which is the smallest".
    void aWheelOfNoSaidSizeIsNotTheSmallest()
    {
        auto build = demo();
        const auto s = of(build);
        const auto shelf = shipped();
        const auto answer = smallestWheel(s, Axle::Front, &shelf);
        QVERIFY(answer.proven && answer.proven->nominalDiameter > 0);
        Wheel silent = *answer.proven;
        silent.id = "silent";
        silent.from = {};
        silent.nominalDiameter = notCounted;
        build.wheels.push_back(silent);
        const auto with = of(build);
        const auto then = smallestWheel(with, Axle::Front, &shelf);
        QVERIFY(then.proven);
        QCOMPARE(then.proven->nominalDiameter, *answer.proven->nominalDiameter);
    }

    void placesThatStandStillAreKeptFrom()
    {
        auto build = demo();
        const auto s = of(build);
        for (const char* id : { "front/keep-out-1", "front/keep-out-2", "front/keep-out-3" })
            QVERIFY2(s.verdict(id) && s.verdict(id)->level == Level::Clear, s.verdict(id) ? s.verdict(id)->reason.c_str() : id);
        build.frontHub.keepOuts[2].radius.value = 0.198;
        QVERIFY(of(build).verdict("front/keep-out-3")->level != Level::Clear);
        build.frontHub.keepOuts[1].depth = {};
        QCOMPARE(of(build).verdict("front/keep-out-2")->level, Level::Unproven);
        QCOMPARE(s.verdict("front/shield")->level, Level::Caution);
    }

    /// A wanted gap edited is what the check is held against, and a flexible rim's give comes on top.
    void whatIsWantedCounts()
    {
        auto build = demo();
        QCOMPARE(of(build).verdict("front/barrel-gap")->level, Level::Tight);
        build.wants.barrelGap.value = 0.002;
        QCOMPARE(of(build).verdict("front/barrel-gap")->level, Level::Clear);
        build.wheels[0].give = measured(0.002, 0);
        QCOMPARE(of(build).verdict("front/barrel-gap")->level, Level::Tight);
        build.wants.barrelGap = {};
        QVERIFY(near(*of(build).verdict("front/barrel-gap")->wanted, 0.005, 1e-9)); // the usual 3 mm and the give
    }
};

DEEPSTOP_TEST(CuresTest)
#include "cures_test.moc"
