/// Search: every kit judged as a study of it alone would, the funnel, the front, and what is not known never ahead.

#include "core/random_library.hpp"
#include "chapters/clearance/checks.hpp"
#include "search/why.hpp"
#include "task/cancel.hpp"

#include <QTest>

#include <cmath>
#include <limits>
#include <map>
#include <random>
#include <set>
#include <thread>

using namespace deepstop;
using search::Gain;
using search::Kind;
using search::Query;

namespace {

template <class Each>
void forEveryKit(const search::Parts& parts, Each each)
{
    search::Choice c {};
    for (c[0] = 0; c[0] < parts.rotors.size(); ++c[0])
        for (c[1] = 0; c[1] < parts.calipers.size(); ++c[1])
            for (c[2] = 0; c[2] < parts.pads.size(); ++c[2])
                for (c[3] = 0; c[3] < parts.wheels.size(); ++c[3])
                    for (c[4] = 0; c[4] < parts.masters.size(); ++c[4])
                        each(c);
}

/// First check that a study of that kit alone fails, in the order of the search; empty: none. Checks of the bracket's making are no
/// study's: they are left out.
std::string firstFailure(const Query& query, const search::Choice& choice)
{
    std::string setup;
    Build build = search::triedBuild(query, choice, {}, &setup);
    const Study s = study(std::make_shared<const Build>(std::move(build)), SetupPair { query.study->before.setup->id, setup },
        UnitSystem::Metric, Remedies::LeftOut);
    for (const Check* check : search::orderOfChecks())
        for (const Verdict& v : s.verdicts)
            if (v.check == check && !v.found && isBad(v.level) && (check->of == CheckOf::Car || v.axle == query.axle))
                return v.id;
    return {};
}

search::Kit kitWith(std::initializer_list<double> gains)
{
    search::Kit kit;
    std::ranges::copy(gains, kit.gains.begin());
    return kit;
}

} // namespace

class SearchTest : public QObject {
    Q_OBJECT
private slots:
    /// Same winners, same losers, same first failing check as a study of every kit by itself.
    void everyKitAsItsOwnStudy()
    {
        const int libraries = qEnvironmentVariableIntValue("DEEPSTOP_LIBRARIES") ? qEnvironmentVariableIntValue("DEEPSTOP_LIBRARIES") : 3;
        std::map<std::string, int> failures;
        int winners = 0;
        for (int seed = 1; seed <= libraries; ++seed) {
            const Query query = queryOf(randomLibrary(static_cast<unsigned>(seed), 5, 3, 3, 1), demo(), { "w17" });
            const auto result = search::search(query);
            std::map<search::Choice, std::string> found;
            for (const search::Kit& kit : result.kits)
                found[kit.choice] = {};
            std::uint64_t lost = 0;
            for (const search::Lost& check : result.funnel) {
                lost += check.lost;
                QVERIFY(check.nearest.size() < search::mostLosers);
            }
            QCOMPARE(lost + result.kits.size(), result.combinations);
            forEveryKit(query.parts, [&](const search::Choice& choice) {
                std::string mine = "none";
                if (found.contains(choice))
                    mine = "";
                for (const search::Lost& check : result.funnel)
                    for (const search::Loser& loser : check.nearest)
                        if (covers(loser, choice) && mine == "none")
                            mine = check.check;
                if (isOfTheBracket(mine))
                    return;
                const std::string own = firstFailure(query, choice);
                QVERIFY2(mine == own,
                    qPrintable(QString::fromStdString(
                        fmt::format("library {}: {} {} {} {} {}: search {}, study {}", seed, query.parts.name(Kind::Rotor, choice[0]).id,
                            query.parts.name(Kind::Caliper, choice[1]).id, query.parts.name(Kind::Pad, choice[2]).id, choice[3], choice[4],
                            mine.empty() ? "goes" : mine, own.empty() ? "goes" : own))));
                ++failures[own];
                winners += own.empty();
            });
        }
        for (const auto& [check, kits] : failures)
            qInfo("%s %d", check.c_str(), kits);
        QVERIFY(winners > 0);
        QVERIFY(failures.size() > 5);
    }

    /// The same of larger libraries, kits picked by chance: of 10,000 each. DEEPSTOP_LIBRARIES says how many.
    void sampledKitsAsTheirOwnStudy()
    {
        const int asked = qEnvironmentVariableIntValue("DEEPSTOP_LIBRARIES");
        int winners = 0;
        int lost = 0;
        for (int seed = 1; seed <= (asked ? asked : 1); ++seed) {
            const Query query = queryOf(randomLibrary(static_cast<unsigned>(1000 + seed), 14, 10, 12, 2), demo(), { "w17", "winter" });
            const auto result = search::search(query);
            QCOMPARE(result.combinations, 14U * 10 * 12 * 2 * 3);
            std::set<search::Choice> go;
            for (const search::Kit& kit : result.kits)
                go.insert(kit.choice);
            std::mt19937 rng(static_cast<unsigned>(seed));
            for (int i = 0; i < 40; ++i) {
                search::Choice choice {};
                for (const Kind kind : search::kinds)
                    at(choice, kind) = static_cast<std::uint32_t>(rng() % query.parts.count(kind));
                // Half of them from those that go: they are few.
                if (i % 2 == 0 && !result.kits.empty())
                    choice = result.kits[rng() % result.kits.size()].choice;
                const bool byBracket = std::ranges::any_of(result.funnel, [&](const search::Lost& check) {
                    return isOfTheBracket(check.check)
                        && std::ranges::any_of(check.nearest, [&](const auto& loser) { return covers(loser, choice); });
                });
                if (byBracket)
                    continue;
                const std::string own = firstFailure(query, choice);
                QVERIFY2(go.contains(choice) == own.empty(), qPrintable(QStringLiteral("library %1: %2").arg(seed).arg(own.c_str())));
                ++(own.empty() ? winners : lost);
            }
        }
        qInfo("%d go, %d fail", winners, lost);
        QVERIFY(winners > 5);
        QVERIFY(lost > 5);
    }

    /// What is told while it searches is what it finds in the end, each once, and the first before all is tried.
    void whatIsToldIsWhatIsFound()
    {
        library::Library library = shipped();
        library.masters.resize(2);
        Query query = queryOf(library, demo(), { "w17", "winter", "w18" });
        query.limits = { { Gain::Price, 700 } };
        QVERIFY(query.parts.combinations() > 100'000);
        std::vector<search::Kit> told;
        double firstAt = 2;
        const auto result = search::search(query, [&](double part, std::span<const search::Kit> found) {
            if (!found.empty())
                firstAt = std::min(firstAt, part);
            told.insert(told.end(), found.begin(), found.end());
        });
        QVERIFY(!result.kits.empty());
        QVERIFY(firstAt < 0.5);
        std::ranges::sort(told, {}, &search::Kit::choice);
        QCOMPARE(told.size(), result.kits.size());
        for (std::size_t i = 0; i < told.size(); ++i) {
            QCOMPARE(told[i].choice, result.kits[i].choice);
            for (const Gain gain : search::allGains) {
                const double one = search::of(told[i].gains, gain);
                const double other = search::of(result.kits[i].gains, gain);
                QVERIFY2(one == other || (std::isnan(one) && std::isnan(other)), std::string(search::about(gain).key).c_str());
            }
            QVERIFY(told[i].level() == result.kits[i].level());
        }
    }

    /// Of a search over all of the shipped library in all wheels: lost kits, picked by chance, fail in a study of their own, too, and there
    /// first what they were lost by. DEEPSTOP_LOSERS says how many.
    void lostKitsFailInTheirOwnStudy()
    {
        const int most = qEnvironmentVariableIntValue("DEEPSTOP_LOSERS") ? qEnvironmentVariableIntValue("DEEPSTOP_LOSERS") : 60;
        const bool whole = most > 1000;
        library::Library library = shipped();
        if (!whole) {
            library.wheels.resize(8);
            library.pads.resize(8);
            library.masters.clear();
        }
        const Query query = queryOf(library, demo(), { search::allWheels });
        const auto result = search::search(query);
        std::vector<std::pair<const search::Lost*, const search::Loser*>> losers;
        for (const search::Lost& lost : result.funnel)
            for (const search::Loser& loser : lost.nearest)
                losers.emplace_back(&lost, &loser);
        std::mt19937 rng(11);
        int tried = 0;
        for (int i = 0; i < most; ++i) {
            const auto& [lost, loser] = losers[rng() % losers.size()];
            if (isOfTheBracket(lost->check))
                continue;
            search::Choice choice = loser->choice;
            for (const Kind kind : search::kinds)
                if (at(choice, kind) == search::every)
                    at(choice, kind) = static_cast<std::uint32_t>(rng() % query.parts.count(kind));
            const std::string own = firstFailure(query, choice);
            // Parts that its check does not look at may fail one that is asked before; the nearer ones of a check are only those that came
            // to it.
            QVERIFY2(!own.empty(), lost->check.c_str());
            if (std::ranges::count(loser->choice, search::every) == 0)
                QCOMPARE(own, lost->check);
            ++tried;
        }
        QVERIFY(tried > most / 2);
    }

    /// By the definition, over a hundred thousand kits with ties and figures that are not known: nothing beats one of the front, and one of
    /// the front beats every other.
    void frontIsWhatNoKitBeats()
    {
        std::mt19937 rng(7);
        std::uniform_int_distribution<int> figure(0, 30);
        std::vector<search::Kit> kits(100'000);
        for (search::Kit& kit : kits)
            for (double& gain : kit.gains)
                gain = figure(rng) == 0 ? unknown : figure(rng);
        const auto front = search::frontOf(kits);
        QVERIFY(front.size() > 20);
        const auto worth = [](const search::Kit& kit, Gain gain) {
            const double value = search::of(kit.gains, gain);
            return std::isnan(value) ? -1e9 : search::about(gain).lessIsBetter ? -value : value;
        };
        const auto isBeaten = [&](const search::Kit& kit, const search::Kit& by) {
            bool better = false;
            for (const Gain gain : search::allGains) {
                if (gain == Gain::Locks)
                    continue;
                if (worth(by, gain) < worth(kit, gain))
                    return false;
                better = better || worth(by, gain) > worth(kit, gain);
            }
            return better;
        };
        std::vector<bool> inFront(kits.size(), false);
        for (const std::size_t i : front)
            inFront[i] = true;
        for (std::size_t i = 0; i < kits.size(); ++i) {
            const bool beaten = std::ranges::any_of(front, [&](std::size_t other) { return isBeaten(kits[i], kits[other]); });
            QCOMPARE(inFront[i], !beaten);
        }
    }

    void unprovenIsNoMereCaution()
    {
        search::Kit kit;
        QVERIFY(kit.level() == Level::Good);
        kit.doubts = { { "front/pad-window", Level::Caution } };
        QVERIFY(kit.level() == Level::Caution);
        kit.doubts.insert(kit.doubts.begin(), { "front/barrel-gap", Level::Unproven });
        QVERIFY(kit.level() == Level::Unproven);
    }

    void unknownFigureIsNeverAhead()
    {
        const auto known = kitWith({ 14, 80, 45, 3e-3, 300, 1200 });
        for (std::size_t i = 0; i < search::allGains.size(); ++i) {
            if (search::allGains[i] == Gain::Locks)
                continue;
            search::Kit less = known;
            less.gains[i] = unknown;
            QVERIFY(search::beats(known.gains, less.gains));
            QVERIFY(!search::beats(less.gains, known.gains));
            // Even against the worst there is.
            search::Kit worst = known;
            worst.gains[i] = search::about(search::allGains[i]).lessIsBetter ? 1e9 : -1e9;
            QVERIFY(search::beats(worst.gains, less.gains));
        }
    }

    /// A reading taken away makes no failed kit go unless the failure rested on it, and no figure of a kit that goes better.
    void lessKnownPartsAreNoBetter()
    {
        library::Library library = randomLibrary(4, 8, 6, 4, 1);
        const auto before = search::search(queryOf(library, demo(), { "w17" }));
        QVERIFY(!before.kits.empty());
        std::map<search::Choice, search::Kit> was;
        for (const search::Kit& kit : before.kits)
            was[kit.choice] = kit;
        for (auto& caliper : library.calipers) {
            caliper.mass = {};
            caliper.part.give = {};
            caliper.part.outboardDepth = {};
        }
        for (auto& pad : library.pads)
            pad.price = {};
        const auto after = search::search(queryOf(library, demo(), { "w17" }));
        for (const search::Kit& kit : after.kits) {
            QVERIFY(std::isnan(search::of(kit.gains, Gain::Weight)));
            QVERIFY(std::isnan(search::of(kit.gains, Gain::Price)));
            QVERIFY(std::isnan(search::of(kit.gains, Gain::Clearance)));
            QVERIFY(kit.level() == Level::Unproven);
            if (const auto old = was.find(kit.choice); old != was.end())
                QVERIFY(!search::beats(kit.gains, old->second.gains));
        }
        // The same kits go, and more that nobody can fail any longer; those say so.
        QVERIFY(after.kits.size() >= before.kits.size());
    }

    void whatIsNotKnownIsNotWithinALimit()
    {
        library::Library library = randomLibrary(4, 8, 6, 4, 1);
        Query query = queryOf(library, demo(), { "w17" });
        const auto all = search::search(query);
        QVERIFY(!all.kits.empty());
        query.limits = { { Gain::Price, 1e9 } };
        QCOMPARE(search::search(query).kits.size(), all.kits.size());
        for (auto& rotor : query.parts.rotors)
            rotor.price = {};
        const auto none = search::search(query);
        QVERIFY(none.kits.empty());
        QVERIFY(std::ranges::any_of(none.funnel, [](const search::Lost& lost) { return lost.check == "limit/price"; }));
        // Limits are kept.
        query = queryOf(library, demo(), { "w17" });
        double weight = unknown;
        for (const search::Kit& kit : all.kits)
            if (std::isnan(weight))
                weight = search::of(kit.gains, Gain::Weight);
        QVERIFY(std::isfinite(weight));
        query.limits = { { Gain::Weight, weight } };
        for (const search::Kit& kit : search::search(query).kits)
            QVERIFY(search::of(kit.gains, Gain::Weight) <= weight);
    }

    /// A pressure read on the line was made by the cylinder that was in the car.
    void anotherCylinderMakesItsOwnPressure()
    {
        Build build = demo();
        build.setups.front().hydraulics->linePressure = { 70e5, 1e5, Known::Measured, "gauge", {} };
        const Query query = queryOf(randomLibrary(3, 1, 1, 1, 2), std::move(build), { "w17" });
        QCOMPARE(query.parts.masters.size(), 3U);
        std::string setup;
        const Build same = search::triedBuild(query, { 0, 0, 0, 0, 0 }, {}, &setup);
        QVERIFY(hydraulicsOf(same, *findSetup(same, setup)).linePressure.value.has_value());
        const Build other = search::triedBuild(query, { 0, 0, 0, 0, 1 }, {}, &setup);
        const Hydraulics& hydraulics = hydraulicsOf(other, *findSetup(other, setup));
        QVERIFY(!hydraulics.linePressure.value.has_value());
        QCOMPARE(*hydraulics.masterBore.value, *query.parts.masters[1].part.bore.value);
    }

    void otherWheelsMustClearToo()
    {
        const library::Library library = randomLibrary(4, 8, 6, 4, 0);
        Query query = queryOf(library, demo(), { "w17" });
        const auto alone = search::search(query);
        query.alsoClear = { "winter" };
        const auto both = search::search(query);
        QVERIFY(both.kits.size() <= alone.kits.size());
        for (const search::Kit& kit : both.kits)
            QVERIFY(std::ranges::any_of(alone.kits, [&](const search::Kit& other) { return other.choice == kit.choice; }));
    }

    void wheelsAreThoseOfTheBuildUnlessAsked()
    {
        const Build build = demo();
        QCOMPARE(search::partsFor(shipped(), build).wheels.size(), build.wheels.size());
        QCOMPARE(search::partsFor(shipped(), build, { search::allWheels }).wheels.size(), build.wheels.size() + shipped().wheels.size());
        QCOMPARE(search::partsFor(shipped(), build, { "wheel-18-8-et-45" }).wheels.front().id, std::string("wheel-18-8-et-45"));
        QVERIFY_EXCEPTION_THROWN((void)search::partsFor(shipped(), build, { "no-such" }), std::invalid_argument);
    }

    /// Into the build: parts from their sheets, what the bracket makes as design, another wheel and cylinder with it.
    void kitIsPutIn()
    {
        library::Library library = randomLibrary(3, 1, 1, 1, 1);
        library.wheels = shipped().wheels;
        const Query query = queryOf(library, demo(), { "wheel-18-8-et-45" });
        const Build& before = *query.study->build;
        const auto after = applied(search::putIn(query, { 0, 0, 0, 0, 1 }, "A kit from the shelf"), before);
        QVERIFY(after);
        QCOMPARE(after->setups.size(), before.setups.size() + 1);
        QCOMPARE(after->wheels.size(), before.wheels.size() + 1);
        const Setup& setup = after->setups.back();
        QCOMPARE(setup.id, std::string("a-kit-from-the-shelf"));
        QVERIFY(setup.front);
        QCOMPARE(setup.front->wheel, std::string("wheel-18-8-et-45"));
        QCOMPARE(setup.front->rotor.from, query.parts.rotors[0].id);
        QVERIFY(setup.front->rotor.outerDiameter.known == Known::Vendor);
        QVERIFY(setup.front->left.slotCentre.known == Known::Design);
        QCOMPARE(*setup.hydraulics->masterBore.value, *query.parts.masters[1].part.bore.value);
        // Nothing else of the build is another one.
        for (std::size_t i = 0; i < before.setups.size(); ++i)
            QVERIFY(after->setups[i].front == before.setups[i].front && after->setups[i].rear == before.setups[i].rear);
        const Study s = study(after, SetupPair { {}, setup.id });
        for (const Check* check : { &checks::barrelGap, &checks::spokeGap })
            QVERIFY(!isFine(s.verdict(*check, { Axle::Front })->level));
    }

    /// What fails is said whole, with what would mend it, and the same as the search lost it by.
    void whyNotNamesWhatFails()
    {
        const Query query = queryOf(randomLibrary(4, 8, 6, 4, 0), demo(), { "w17" });
        const auto result = search::search(query);
        int asked = 0;
        for (const search::Lost& lost : result.funnel) {
            search::Choice choice = lost.nearest.front().choice;
            for (auto& place : choice)
                place = place == search::every ? 0 : place;
            // Other parts than those the loser is of may fail an earlier check.
            const auto why = search::whyNot(query, choice);
            QVERIFY2(!why.fails.empty(), lost.check.c_str());
            QVERIFY2(
                std::ranges::any_of(why.fails, [&](const search::Reason& reason) { return reason.id == lost.check; }), lost.check.c_str());
            for (const search::Reason& reason : why.fails)
                QVERIFY(isBad(reason.level) && !reason.said.empty());
            ++asked;
        }
        QVERIFY(asked > 4);
        QVERIFY(search::whyNot(query, result.kits.front().choice).fails.empty());
    }

    void emptyLibraryIsSaid()
    {
        const auto result = search::search(queryOf({}));
        QVERIFY(!result.lacks.empty());
        QCOMPARE(result.combinations, 0U);
        QVERIFY(result.kits.empty());
    }

    void isCancelled()
    {
        const Query query = queryOf(randomLibrary(2, 6, 6, 6, 0));
        std::atomic<bool> unwanted = true;
        const CancelScope scope(&unwanted);
        QVERIFY_EXCEPTION_THROWN((void)search::search(query), Cancelled);
    }
};

DEEPSTOP_TEST(SearchTest)
#include "search_test.moc"
