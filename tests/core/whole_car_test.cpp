/// Whole cars: pairs of kits judged as a study of both would, ranked as asked, and what is not known never ahead.

#include "core/random_library.hpp"
#include "search/why.hpp"
#include "task/cancel.hpp"

#include <QTest>

#include <cmath>
#include <map>
#include <set>

using namespace deepstop;
using search::Gain;
using search::Kind;
using search::Query;

namespace {

/// A few parts of which some go together on both axles and some on none.
library::Library fewParts()
{
    library::Library library;
    const auto take = [](const auto& shelf, auto& into, std::initializer_list<const char*> ids) {
        for (const char* id : ids)
            into.push_back(*std::ranges::find(shelf, id, [](const auto& one) { return one.id; }));
    };
    take(shipped().rotors, library.rotors, { "casting-312-25", "casting-288-25", "casting-239-12-solid" });
    take(shipped().calipers, library.calipers, { "floating-48", "floating-rear-34", "varnik-four-piston-38-42" });
    take(shipped().pads, library.pads, { "road-pad-84-38-10", "sport-pad-84-38-10" });
    library.masters = { shipped().masters.front() };
    return library;
}

Query carQuery(const library::Library& library, Build build = demo(), std::vector<std::string> wheels = { "w17" })
{
    Query query = queryOf(library, std::move(build), std::move(wheels));
    query.wholeCar = true;
    query.most = 1'000'000;
    return query;
}

double rankOf(const search::Kit& kit, Gain gain)
{
    const double value = search::of(kit.gains, gain);
    if (std::isnan(value))
        return std::numeric_limits<double>::infinity();
    return search::about(gain).lessIsBetter ? value : -value;
}

/// Whether a study of both kits finds anything that fails, on either axle or of the car.
bool fails(const Query& query, const search::Choice& front, const search::Choice& rear)
{
    std::string setup;
    Build build = search::triedBuild(query, front, rear, &setup);
    const Study s = study(std::make_shared<const Build>(std::move(build)), SetupPair { query.study->before.setup->id, setup },
        UnitSystem::Metric, Remedies::LeftOut);
    for (const Check* check : search::orderOfChecks())
        for (const Verdict& v : s.verdicts)
            if (v.check == check && !v.found && isBad(v.level))
                return true;
    return false;
}

bool coversBoth(const search::Loser& loser, const search::Choice& front, const search::Choice& rear)
{
    search::Loser behind = loser;
    behind.choice = loser.rear.value_or(search::Choice { search::every, search::every, search::every, search::every, search::every });
    return covers(loser, front) && covers(behind, rear);
}

std::uint64_t lostIn(const search::Result& result)
{
    std::uint64_t lost = 0;
    for (const search::Lost& check : result.funnel)
        lost += check.lost;
    return lost;
}

std::vector<std::pair<search::Choice, search::Choice>> partsOfKits(std::span<const search::Kit> kits)
{
    std::vector<std::pair<search::Choice, search::Choice>> parts;
    for (const search::Kit& kit : kits)
        parts.emplace_back(kit.choice, *kit.rear);
    return parts;
}

} // namespace

class WholeCarTest : public QObject {
    Q_OBJECT
private slots:
    /// Every pair by a study of its own: the same go.
    void everyPairAsItsOwnStudy()
    {
        const Query query = carQuery(fewParts());
        const auto result = search::search(query);
        QCOMPARE(lostIn(result) + result.kits.size(), result.combinations);
        QCOMPARE(result.notLooked, 0U);
        std::set<std::pair<search::Choice, search::Choice>> go;
        for (const auto& parts : partsOfKits(result.kits))
            go.insert(parts);
        const auto& parts = query.parts;
        std::size_t tried = 0;
        std::size_t lost = 0;
        search::Choice front {};
        search::Choice rear {};
        for (front[0] = 0; front[0] < parts.rotors.size(); ++front[0])
            for (front[1] = 0; front[1] < parts.calipers.size(); ++front[1])
                for (front[2] = 0; front[2] < parts.pads.size(); ++front[2])
                    for (rear[0] = 0; rear[0] < parts.rotors.size(); ++rear[0])
                        for (rear[1] = 0; rear[1] < parts.calipers.size(); ++rear[1])
                            for (rear[2] = 0; rear[2] < parts.pads.size(); ++rear[2]) {
                                front[4] = rear[4] = static_cast<std::uint32_t>(tried % parts.masters.size());
                                const bool lostByBracket = std::ranges::any_of(result.funnel, [&](const search::Lost& check) {
                                    return isOfTheBracket(check.check) && std::ranges::any_of(check.nearest, [&](const auto& loser) {
                                        return coversBoth(loser, front, rear);
                                    });
                                });
                                // No study says whether a bracket can be made.
                                if (lostByBracket)
                                    continue;
                                ++tried;
                                const bool failed = fails(query, front, rear);
                                lost += failed;
                                QVERIFY2(failed != go.contains({ front, rear }),
                                    qPrintable(QStringLiteral("%1 %2 %3, %4 %5 %6")
                                                   .arg(front[0])
                                                   .arg(front[1])
                                                   .arg(front[2])
                                                   .arg(rear[0])
                                                   .arg(rear[1])
                                                   .arg(rear[2])));
                            }
        qInfo("%zu pairs, %zu fail, %zu go", tried, lost, result.kits.size());
        QVERIFY(lost > 0);
        QVERIFY(lost < tried);
    }

    /// The first of all that go, by whatever they are ranked.
    void bestOnesComeFirst()
    {
        for (const Gain gain : search::allGains) {
            if (!search::addsUp(gain))
                continue;
            Query query = carQuery(fewParts());
            query.best = gain;
            const auto all = search::search(query);
            QVERIFY(all.kits.size() > 5);
            QVERIFY(std::ranges::is_sorted(all.kits, {}, [&](const search::Kit& kit) { return rankOf(kit, gain); }));
            query.most = 5;
            const auto few = search::search(query);
            QCOMPARE(few.kits.size(), 5U);
            QCOMPARE(partsOfKits(few.kits), partsOfKits(std::span(all.kits).first(5)));
            QVERIFY(few.notLooked > 0);
            QCOMPARE(lostIn(few) + few.kits.size() + few.notLooked, few.combinations);
        }
    }

    /// What a pair costs and weighs is what both its kits do, and of its gaps the smaller counts; by the search of one axle each.
    void figuresAreThoseOfBothAxles()
    {
        const Query query = carQuery(fewParts());
        const auto cars = search::search(query);
        Query axle = query;
        axle.wholeCar = false;
        std::array<std::map<search::Choice, search::Gains>, 2> alone;
        for (const Axle each : { Axle::Front, Axle::Rear }) {
            axle.axle = each;
            for (const search::Kit& kit : search::search(axle).kits)
                alone[each == Axle::Front ? 0 : 1][kit.choice] = kit.gains;
        }
        int compared = 0;
        for (const search::Kit& kit : cars.kits) {
            const auto front = alone[0].find(kit.choice);
            const auto rear = alone[1].find(*kit.rear);
            if (front == alone[0].end() || rear == alone[1].end())
                continue;
            const auto same = [&](Gain gain, double want) {
                const double is = search::of(kit.gains, gain);
                return std::isnan(want) ? std::isnan(is) : std::abs(is - want) < 1e-9 * std::max(1.0, std::abs(want));
            };
            const auto both = [&](Gain gain) { return std::pair { search::of(front->second, gain), search::of(rear->second, gain) }; };
            const auto [weight, weightBehind] = both(Gain::Weight);
            QVERIFY(same(Gain::Weight, weight + weightBehind));
            const auto [gap, gapBehind] = both(Gain::Clearance);
            QVERIFY(same(Gain::Clearance, std::isnan(gap + gapBehind) ? unknown : std::min(gap, gapBehind)));
            // A cylinder is bought once.
            const auto& master = query.parts.masters[at(kit.choice, Kind::Master)];
            const auto [price, priceBehind] = both(Gain::Price);
            QVERIFY(same(Gain::Price, price + priceBehind - (master.id.empty() ? 0 : *master.price.value)));
            ++compared;
        }
        QVERIFY(compared > 5);
    }

    void limitsAreKeptAndWhatIsUnknownIsNotWithinThem()
    {
        const auto all = search::search(carQuery(fewParts()));
        for (const Gain gain : search::allGains) {
            std::vector<double> values;
            for (const search::Kit& kit : all.kits)
                if (std::isfinite(search::of(kit.gains, gain)))
                    values.push_back(search::of(kit.gains, gain));
            // The demo's rear was never weighed.
            QCOMPARE(values.empty(), gain == Gain::Weight);
            if (values.empty())
                values.push_back(1e9);
            std::ranges::sort(values);
            for (const Gain best : { Gain::Price, Gain::Weight }) {
                Query query = carQuery(fewParts());
                query.best = best;
                query.limits = { { gain, values[values.size() / 2] } };
                const auto limited = search::search(query);
                std::size_t within = 0;
                for (const search::Kit& kit : all.kits) {
                    const double over = search::of(kit.gains, gain) - query.limits[0].value;
                    within += search::about(gain).lessIsBetter ? over <= 0 : over >= 0;
                }
                QCOMPARE(limited.kits.size(), within);
                QCOMPARE(lostIn(limited) + limited.kits.size() + limited.notLooked, limited.combinations);
                QCOMPARE(limited.notLooked, 0U);
            }
        }
    }

    /// Without a price a kit comes behind all that have one; without a weight it is not the lightest.
    void unknownFiguresComeLast()
    {
        Query query = carQuery(fewParts());
        query.parts.rotors[0].price = {};
        query.parts.rotors[0].mass = {};
        for (const Gain gain : { Gain::Price, Gain::Weight }) {
            query.best = gain;
            const auto result = search::search(query);
            bool unknownCame = false;
            for (const search::Kit& kit : result.kits) {
                const bool has = at(kit.choice, Kind::Rotor) == 0 || at(*kit.rear, Kind::Rotor) == 0;
                if (has)
                    QVERIFY(std::isnan(search::of(kit.gains, gain)) || gain == Gain::Weight);
                unknownCame = unknownCame || std::isnan(search::of(kit.gains, gain));
                QVERIFY(!unknownCame || std::isnan(search::of(kit.gains, gain)));
            }
            QVERIFY(unknownCame);
        }
    }

    /// A car with the same wheels all round keeps the same all round; one with others behind keeps those it has.
    void wheelsOfACarStandTogether()
    {
        const auto square = search::search(carQuery(fewParts(), demo(), { "w17", "winter" }));
        std::set<std::uint32_t> wheels;
        for (const search::Kit& kit : square.kits) {
            QCOMPARE(at(kit.choice, Kind::Wheel), at(*kit.rear, Kind::Wheel));
            wheels.insert(at(kit.choice, Kind::Wheel));
        }
        QCOMPARE(wheels.size(), 2U);
        Build other = demo();
        for (Setup& setup : other.setups)
            if (setup.rear)
                setup.rear->wheel = "winter";
        const auto alone = search::search(carQuery(fewParts(), other, { "w17" }));
        QVERIFY(!alone.lacks.empty());
        QVERIFY(alone.kits.empty());
        const Query query = carQuery(fewParts(), other, { "w17", "winter" });
        const auto both = search::search(query);
        QVERIFY(!both.kits.empty());
        for (const search::Kit& kit : both.kits) {
            QCOMPARE(query.parts.wheels[at(kit.choice, Kind::Wheel)].id, std::string("w17"));
            QCOMPARE(query.parts.wheels[at(*kit.rear, Kind::Wheel)].id, std::string("winter"));
        }
    }

    /// Both corners into one setup, to order; its study finds nothing that fails, and proves nothing.
    void wholeCarIsPutIn()
    {
        const Query query = carQuery(fewParts());
        const auto result = search::search(query);
        const search::Kit& kit = result.kits.front();
        const Build& before = *query.study->build;
        const auto after = applied(search::putIn(query, kit.choice, "Both axles", kit.rear), before);
        QVERIFY(after);
        QCOMPARE(after->setups.size(), before.setups.size() + 1);
        const Setup& setup = after->setups.back();
        QVERIFY(setup.front && setup.rear);
        QCOMPARE(setup.front->rotor.from, query.parts.rotors[at(kit.choice, Kind::Rotor)].id);
        QCOMPARE(setup.rear->rotor.from, query.parts.rotors[at(*kit.rear, Kind::Rotor)].id);
        QVERIFY(setup.rear->left.slotCentre.known == Known::Design);
        const Study s = study(after, SetupPair { {}, setup.id }, UnitSystem::Metric, Remedies::LeftOut);
        for (const Check* check : search::orderOfChecks())
            for (const Verdict& v : s.verdicts)
                if (v.check == check && !v.found)
                    QVERIFY2(!isBad(v.level), v.id.c_str());
        QVERIFY(search::whyNot(query, kit.choice, kit.rear).fails.empty());
    }

    /// Pairs that balance loses are named with both kits, and why-not says the same.
    /// With antilock a car whose rear is the stronger one does not fail; it is told from one whose front locks first, and left out on wish.
    void rearThatLocksFirstIsSeen()
    {
        Query query = carQuery(fewParts());
        const auto all = search::search(query);
        const auto turnsRound = [](const search::Kit& kit) { return search::of(kit.gains, Gain::Locks) < 0; };
        QVERIFY(std::ranges::any_of(all.kits, turnsRound));
        QVERIFY(!std::ranges::all_of(all.kits, turnsRound));
        query.limits = { { Gain::Locks, 0 } };
        const auto safe = search::search(query);
        QVERIFY(!safe.kits.empty());
        QVERIFY(std::ranges::none_of(safe.kits, turnsRound));
        // What is not known does not lock later.
        for (auto& pad : query.parts.pads)
            pad.part.friction = {};
        QVERIFY(search::search(query).kits.empty());
    }

    void lostPairsNameBothAxles()
    {
        Query query = carQuery(fewParts());
        query.limits = { { Gain::Effort, 1.0 } };
        const auto result = search::search(query);
        QVERIFY(result.kits.empty());
        bool ofRear = false;
        bool ofBoth = false;
        for (const search::Lost& lost : result.funnel)
            for (const search::Loser& loser : lost.nearest) {
                if (lost.check.starts_with("rear/"))
                    ofRear = loser.rear && at(loser.choice, Kind::Rotor) == search::every;
                if (lost.check == "limit/effort_N")
                    ofBoth = loser.rear && std::ranges::count(loser.choice, search::every) == 0;
            }
        QVERIFY(ofRear || std::ranges::none_of(result.funnel, [](const auto& lost) { return lost.check.starts_with("rear/"); }));
        QVERIFY(ofBoth);
        // Why not says the limit, and that nothing else stops it.
        const auto& lost = result.funnel.back();
        QCOMPARE(lost.check, std::string("limit/effort_N"));
        const auto why = search::whyNot(query, lost.nearest[0].choice, lost.nearest[0].rear);
        QCOMPARE(why.fails.size(), 1U);
        QCOMPARE(why.fails[0].id, lost.check);
        QVERIFY(why.fails[0].isLimit);
        QVERIFY(why.mended.empty());
        // A kit's own figures are those it was lost by.
        for (const Gain gain : search::allGains) {
            Query within = carQuery(fewParts());
            const search::Kit kit = search::search(within).kits.front();
            const double value = search::of(kit.gains, gain);
            if (std::isnan(value))
                continue;
            const double aside = search::about(gain).lessIsBetter ? 1e-6 : -1e-6;
            within.limits = { { gain, value + aside } };
            QVERIFY(search::whyNot(within, kit.choice, kit.rear).fails.empty());
            within.limits = { { gain, value - aside } };
            QCOMPARE(search::whyNot(within, kit.choice, kit.rear).fails.size(), 1U);
        }
    }

    void isCancelled()
    {
        const Query query = carQuery(fewParts());
        std::atomic<bool> unwanted = true;
        const CancelScope scope(&unwanted);
        QVERIFY_EXCEPTION_THROWN((void)search::search(query), Cancelled);
    }
};

DEEPSTOP_TEST(WholeCarTest)
#include "whole_car_test.moc"
