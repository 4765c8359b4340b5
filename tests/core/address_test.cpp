#include "build/address.hpp"
#include "build/difference.hpp"
#include "core/support.hpp"
#include "report/log_session.hpp"
#include "files/disk.hpp"

#include <QTest>

#include <nlohmann/json.hpp>

#include <set>

using namespace deepstop;

class AddressTest : public QObject {
    Q_OBJECT
private slots:
    /// The address of every reading is its JSON pointer in the saved file.
    void addressesArePlacesInTheFile()
    {
        for (const char* name : { "halden-merle", "linnet" }) {
            const auto build = demo(name);
            const auto json = nlohmann::json::parse(files::writeBuild({ build, nullptr }));
            const Directory directory(build);
            std::set<std::string> seen;
            for (const auto& entry : directory.entries()) {
                QVERIFY2(seen.insert(entry.address.pointer).second, entry.address.pointer.c_str());
                const nlohmann::json::json_pointer place(entry.address.pointer);
                // Limits that are left as they are are not in the file.
                if (!entry.address.pointer.starts_with("/wants/"))
                    QCOMPARE(json.contains(place) && json[place].contains("value"), entry.reading->value.has_value());
            }
            QVERIFY(seen.size() > 120);
        }
    }

    void everyReadingIsFoundBothWaysAndHasAName()
    {
        const auto build = demo();
        const Directory directory(build);
        for (const auto& entry : directory.entries()) {
            QCOMPARE(directory.at(entry.address.pointer), &entry);
            QCOMPARE(directory.of(*entry.reading), &entry.address);
            QVERIFY(!entry.address.label.empty());
            QVERIFY(entry.address.full().find(entry.address.label) == 0);
        }
        const Reading stranger;
        QVERIFY(!directory.of(stranger));
        QVERIFY(!directory.at("/setups/99/front/rotor/thickness_mm"));
    }

    /// What a session remembers of the setup it ran with has no addresses, and shifts nobody else's.
    void whatASessionRanWithHasNoAddress()
    {
        auto build = demo();
        const auto said = [](const Build& b) {
            std::vector<std::pair<std::string, std::optional<double>>> all;
            for (const Directory directory(b); const auto& entry : directory.entries())
                all.emplace_back(entry.address.pointer, entry.reading->value);
            return all;
        };
        const auto before = said(build);
        QVERIFY(!build.tests.empty() && build.setups.size() > 1);
        build.tests.front().ran = report::frozen(build, build.setups[1]);
        QVERIFY(said(build) == before);
        const auto same = numbered(std::make_shared<const Build>(build));
        QVERIFY(said(*same) == before);
        const Directory directory(*same);
        for (const auto& entry : directory.entries())
            QCOMPARE(directory.of(*entry.reading)->pointer, entry.address.pointer);
        QVERIFY(!directory.of(same->tests.front().ran->front->rotor.thickness));
        // Another record is another shape: nothing remembered holds.
        Build other = *same;
        other.tests.front().ran->front->rotor.thickness.value = 0.001;
        QVERIFY(!Directory(other, directory).sameShape(directory));
    }

    /// Facts have addresses of their own, and what two builds say differently is told by their numbers.
    void factsAreNumberedAndCompared()
    {
        const auto build = *numbered(std::make_shared<const Build>(demo()));
        const Directory directory(build);
        QVERIFY(directory.facts().size() > 100);
        for (const Address& address : directory.facts())
            QVERIFY2(factAt(build, address.pointer), address.pointer.c_str());
        Build changed = build;
        changed.setups[1].front->rotor.face = RotorFace::Drilled;
        changed.frontHub.studThread = "M14x1.5";
        const Directory then(changed, directory);
        QVERIFY(then.sameShape(directory));
        const Looked differs = then.changedSince(directory);
        QVERIFY(differs.readings.all().empty());
        std::set<std::string> pointers;
        for (const std::uint32_t number : differs.facts.all())
            pointers.insert(then.ofFact(number)->pointer);
        QCOMPARE(pointers, (std::set<std::string> { "/front_hub/stud_thread", "/setups/1/front/rotor/face" }));
        // A figure knows what it looked at, and a copy that tries a change is the same fact.
        Corner tried = *changed.setups[1].front;
        tried.rotor.face = RotorFace::Plain;
        const Figure f = evaluate([&](Evaluator& s) { return tried.rotor.face == RotorFace::Plain ? s(tried.rotor.thickness) : 0; });
        QCOMPARE(f.facts.size(), std::size_t(1));
        QCOMPARE(then.ofFact(f.facts.front())->pointer, std::string("/setups/1/front/rotor/face"));
        QVERIFY(!then.ofFact(0) && !then.ofFact(100'000));
    }

    void replacingOneReadingLeavesAllOthers()
    {
        const auto build = demo();
        const Directory directory(build);
        for (const auto& entry : directory.entries()) {
            const Range range = entry.address.range;
            const Reading other { range.least + 0.3 * range.width(), 0.1 * range.width(), Known::Vendor, {}, "2026-01-01" };
            const auto changed = withReading(build, entry.address.pointer, other);
            const Directory after(changed);
            QCOMPARE(after.entries().size(), directory.entries().size());
            for (std::size_t i = 0; i < after.entries().size(); ++i) {
                const bool here = after.entries()[i].address.pointer == entry.address.pointer;
                QVERIFY(*after.entries()[i].reading == (here ? other : *directory.entries()[i].reading));
            }
        }
        QVERIFY(withReading(build, "/nowhere", { 1.0, {}, Known::Vendor, {}, {} }) == build);
    }

    /// Addresses shared with a build that says other things in the same places lead into the new build.
    void sharedAddressesLeadIntoTheNewBuild()
    {
        const auto build = demo();
        const Directory whole(build);
        for (const char* pointer :
            { "/setups/1/front/spacer_mm", "/wheels/0/barrel/4/inside_radius_mm", "/setups/0/hydraulics/build_up_s" }) {
            const Build then = withReading(build, pointer, { 0.123, {}, Known::Estimated, {}, {} });
            const Directory afresh(then);
            const Directory shared(then, whole);
            QCOMPARE(shared.entries().size(), afresh.entries().size());
            for (std::size_t i = 0; i < afresh.entries().size(); ++i) {
                QCOMPARE(shared.entries()[i].reading, afresh.entries()[i].reading);
                QCOMPARE(shared.entries()[i].address.pointer, afresh.entries()[i].address.pointer);
                QCOMPARE(shared.of(*afresh.entries()[i].reading)->full(), afresh.entries()[i].address.full());
            }
            QCOMPARE(shared.at(pointer)->reading->value, std::optional(0.123));
            QVERIFY(shared.at("/wheels/0/barrel/-/depth_mm") && !shared.at("/nowhere"));
        }
    }

    void rangesAreKept()
    {
        const auto build = demo();
        const Directory directory(build);
        const auto refuses = [&](const char* pointer, double si) { return !refusal(directory.at(pointer)->address, si).empty(); };
        QVERIFY(refuses("/setups/0/front/rotor/thickness_mm", 0));
        QVERIFY(refuses("/setups/0/front/rotor/thickness_mm", -0.01));
        QVERIFY(refuses("/setups/0/front/rotor/thickness_mm", NAN));
        QVERIFY(!refuses("/setups/0/front/rotor/thickness_mm", 0.01));
        QVERIFY(!refuses("/setups/0/front/rotor/vent_gap_mm", 0));
        QVERIFY(refuses("/setups/0/front/rotor/vent_gap_mm", -1e-6));
        QVERIFY(!refuses("/setups/0/front/left/slot_centre_mm", -0.03));
    }

    /// The same place may hold different things in two setups; the names keep them apart.
    void namesTellWhoseAReadingIs()
    {
        const auto build = demo();
        const Directory directory(build);
        std::set<std::string> full;
        int doubled = 0;
        for (const auto& entry : directory.entries())
            doubled += !full.insert(entry.address.full()).second;
        // Weighings and mock-ups of one corner have no name but their number.
        QVERIFY2(doubled < int(directory.entries().size()) / 10, qPrintable(QString::number(doubled)));
        QCOMPARE(
            directory.at("/setups/1/front/rotor/thickness_mm")->address.full(), std::string("rotor thickness (Varnik 330 × 28, front)"));
        QCOMPARE(directory.at("/wheels/0/barrel/5/inside_radius_mm")->address.full(),
            std::string("inside radius, barrel station 6 (17 × 8 ET 40)"));
    }

    /// Changed, an axle that leant on the car as found becomes the setup's own; what it leant on stays.
    void anAxleLeftOutBecomesItsOwnWhenChanged()
    {
        auto build = demo();
        QVERIFY(!build.setups[1].rear);
        const auto was = build;
        QVERIFY(ownCorner(build, build.setups[1].id, Axle::Rear) == *was.setups[0].rear);
        ownCorner(build, build.setups[1].id, Axle::Rear).ring.value = 0.004;
        QCOMPARE(build.setups[1].rear->ring.value, std::optional(0.004));
        QVERIFY(build.setups[0] == was.setups[0]);
        // One it has already is changed where it is.
        Corner* own = &*build.setups[1].rear;
        QCOMPARE(&ownCorner(build, build.setups[1].id, Axle::Rear), own);
        // With nothing to lean on it begins empty.
        build.setups[0].front.reset();
        build.setups[1].front.reset();
        QVERIFY(ownCorner(build, build.setups[1].id, Axle::Front) == Corner {});
    }

    void anAxleLeftOutIsAsFound()
    {
        const auto build = demo();
        QCOMPARE(cornerOf(build, build.setups[1], Axle::Rear), &*build.setups[0].rear);
        QCOMPARE(cornerOf(build, build.setups[1], Axle::Front), &*build.setups[1].front);
        QVERIFY(!cornerOf(Build {}, Setup {}, Axle::Front));
    }

    /// What two states say differently, as a person would read it out; nothing else.
    void differencesAreNamedAsAPersonSaysThem()
    {
        const auto before = demo();
        QVERIFY(differences(before, before, UnitSystem::Metric).empty());
        auto after = before;
        after.setups[1].front->rotor.thickness.value = 27.6e-3;
        after.car.mass.known = Known::Estimated;
        after.car.name = "Other";
        after.wheels.pop_back();
        const auto found = differences(before, after, UnitSystem::Metric);
        const auto named = [&](const std::string& what) {
            return std::ranges::find_if(found, [&](const Difference& d) { return d.what.starts_with(what); });
        };
        const auto thickness = named("rotor thickness");
        QVERIFY(thickness != found.end() && thickness->before == "28 mm" && thickness->after == "27.6 mm");
        QVERIFY(named("mass with driver")->after.ends_with("estimated with " + before.car.mass.instrument));
        QCOMPARE(named("name")->after, std::string("Other"));
        QVERIFY(std::ranges::any_of(found, [&](const Difference& d) { return d.after.empty() && d.before == before.wheels.back().name; }));
        // A sound build is sound, and what is not is named.
        QVERIFY(faultIn(before).empty() && faultIn(after).empty());
        after.setups[1].front->rotor.thickness.value = 3;
        QVERIFY2(faultIn(after).starts_with("rotor thickness must be from 0.1 mm to 500 mm"), faultIn(after).c_str());
    }
};

DEEPSTOP_TEST(AddressTest)
#include "address_test.moc"
