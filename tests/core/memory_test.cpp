/// A study that follows the edits is the study from nothing, to the last bit; and what is remembered is bounded.

#include "core/random_build.hpp"
#include "build/address.hpp"
#include "study/study.hpp"

#include <fmt/format.h>

#include <QTest>

#include <random>
#include <thread>

using namespace deepstop;

namespace {

Study whole(const std::shared_ptr<const Build>& build, StudyOf of, std::shared_ptr<const Study> last = nullptr)
{
    of.last = std::move(last);
    return *study(build, of, std::atomic<bool>(false));
}

std::string bits(const std::optional<double>& value) { return value ? fmt::format("{:a}", *value) : std::string("none"); }

std::string inFull(const Figure& f)
{
    std::string text = fmt::format("{} {:a} {:a} rests", bits(f.value), f.worstCase, f.rootSumSquare);
    for (const auto* all : { &f.restsOn, &f.lacks, &f.estimated }) {
        text += ";";
        // What is no reading of the build itself, but of what a session ran with, has no number to compare.
        for (const ReadingId each : *all)
            text += each.number() < 1'000'000 ? fmt::format(" {}", each.number()) : std::string(" record");
    }
    for (const double effect : f.effects)
        text += fmt::format(" {:a}", effect);
    for (const std::string& each : f.assumed)
        text += ", " + each;
    for (const std::uint32_t each : f.facts)
        text += fmt::format(", fact {}", each);
    return text;
}

/// Everything a study says, field by field, each on its own line.
std::vector<std::string> inFull(const Study& s)
{
    std::vector<std::string> all { s.summary,
        fmt::format(
            "headline {} {} {}", static_cast<int>(s.headline.fits), static_cast<int>(s.headline.centred), s.headline.readingsMissing) };
    const auto join = [](const std::vector<std::string>& words) {
        std::string text;
        for (const std::string& word : words)
            text += word + " | ";
        return text;
    };
    for (const Verdict& v : s.verdicts) {
        all.push_back(fmt::format("{} {} {} {} {} {} {} {} {} {} {}", v.id, v.chapter, static_cast<int>(v.axle),
            v.side ? static_cast<int>(*v.side) : -1, v.title, nameOf(v.level), v.reason, bits(v.wanted), v.method, v.source, v.caution));
        all.push_back(v.id + " " + inFull(v.figure) + join(v.lacksInWords));
        for (const Remedy& r : v.remedies) {
            const auto then = r.in(*s.build);
            all.push_back(fmt::format("{} remedy {} {} {} {}", v.id, r.title, bits(r.gap.value), r.gap.worstCase, join(r.costs)));
            // What it makes of the build, by what it changes.
            if (then) {
                const Directory directory(*then);
                for (const auto& entry : directory.entries())
                    all.back() += bits(entry.reading->value) + " ";
            }
        }
    }
    for (const LedgerLine& l : s.ledger)
        all.push_back(fmt::format("{} {} {} {} {} / {} / {} {}", l.id, l.title, l.word, nameOf(l.level), inFull(l.before), inFull(l.after),
            inFull(l.change), join(l.lacksInWords)));
    for (const Question& q : s.questions)
        all.push_back(fmt::format("asks {} {} {}", q.address.pointer, q.missing, join(q.verdicts)));
    for (const OpenFact& f : s.openFacts)
        all.push_back("open " + f.what + join(f.verdicts));
    return all;
}

} // namespace

class MemoryTest : public QObject {
    Q_OBJECT
private slots:
    void followingTheEditsIsTheSameAsFromNothing_data()
    {
        QTest::addColumn<QString>("demo");
        for (const char* each : { "halden-merle", "linnet", "drover-camper" })
            QTest::newRow(each) << each;
    }
    /// DEEPSTOP_EDITS: how many of each demo.
    void followingTheEditsIsTheSameAsFromNothing()
    {
        QFETCH(QString, demo);
        bool given = false;
        const int wanted = qEnvironmentVariableIntValue("DEEPSTOP_EDITS", &given);
        const int edits = given ? wanted : 60;
        const unsigned seed = qEnvironmentVariableIntValue("DEEPSTOP_SEED") + 1;
        follow(::demo(demo.toUtf8()), edits, seed);
    }
    /// DEEPSTOP_EDITS: so many of all together, ten of each.
    void followingTheEditsOfRandomBuildsIsTheSame()
    {
        bool given = false;
        const int wanted = qEnvironmentVariableIntValue("DEEPSTOP_EDITS", &given);
        const int builds = given ? wanted / 10 : 6;
        const unsigned seed = qEnvironmentVariableIntValue("DEEPSTOP_SEED");
        for (int i = 0; i < builds && !QTest::currentTestFailed(); ++i)
            follow(randomBuild(seed * 1000 + i), 10, i);
    }

private:
    void follow(Build first, int edits, unsigned seed)
    {
        Editor editor(std::make_shared<const Build>(std::move(first)), seed);
        StudyOf of;
        std::shared_ptr<const Study> last;
        for (int i = 0; i < edits; ++i) {
            const auto build = editor.next();
            if (build->setups.empty())
                continue;
            if (editor.pick(25) == 0)
                of.pair.after = build->setups[editor.pick(build->setups.size())].id;
            if (editor.pick(40) == 0)
                of.system = of.system == UnitSystem::Metric ? UnitSystem::Us : UnitSystem::Metric;
            auto followed = std::make_shared<const Study>(whole(build, of, last));
            const auto a = inFull(*followed);
            const auto b = inFull(whole(build, of));
            for (std::size_t k = 0; k < std::max(a.size(), b.size()); ++k) {
                const auto is = k < a.size() ? a[k] : "nothing";
                const auto should = k < b.size() ? b[k] : "nothing";
                const QString differ("seed %1, edit %2\n followed: %3\n from nothing: %4");
                QVERIFY2(is == should, qPrintable(differ.arg(seed).arg(i).arg(is.c_str(), should.c_str())));
            }
            last = std::move(followed);
        }
        // What is no longer asked for goes; thousands of edits remember no more than a few.
        QVERIFY(!last || last->remembered->size() < 400);
    }

private slots:
    /// A study keeps none of those it followed, and none of their builds.
    void whatWasFollowedGoes()
    {
        std::vector<std::weak_ptr<const Study>> studies;
        std::vector<std::weak_ptr<const Build>> builds;
        StudyOf of;
        for (int i = 0; i < 12; ++i) {
            auto build = demo();
            build.setups[1].front->rotor.thickness.value = 28e-3 + i * 1e-5;
            auto shared = std::make_shared<const Build>(std::move(build));
            builds.push_back(shared);
            of.last = std::make_shared<const Study>(*study(shared, of, std::atomic<bool>(false)));
            studies.push_back(of.last);
        }
        QVERIFY(!studies.back().expired());
        for (std::size_t i = 0; i + 1 < studies.size(); ++i)
            QVERIFY(studies[i].expired() && builds[i].expired());
    }

    /// Two studies at once from the same last one.
    void twoMayRunAtOnce()
    {
        const auto build = std::make_shared<const Build>(demo());
        const auto last = std::make_shared<const Study>(whole(build, {}));
        Editor left(build, 5);
        Editor right(build, 6);
        const auto a = left.next();
        const auto b = right.next();
        std::vector<std::string> ofA;
        std::vector<std::string> ofB;
        std::thread beside([&] { ofA = inFull(whole(a, {}, last)); });
        ofB = inFull(whole(b, {}, last));
        beside.join();
        QVERIFY(ofA == inFull(whole(a, {})));
        QVERIFY(ofB == inFull(whole(b, {})));
    }

    /// A tick of the job card or a line in the log works out nothing.
    void recordsChangeNothing()
    {
        auto build = demo();
        const auto last = std::make_shared<const Study>(whole(std::make_shared<const Build>(build), {}));
        build.log.emplace_back().note = "a note";
        build.log.back().odometer = { 81234e3, {}, Known::Measured, {}, {} };
        const auto s = whole(std::make_shared<const Build>(build), {}, last);
        QVERIFY(s.directory->sameShape(*last->directory));
        QCOMPARE(s.remembered->size(), last->remembered->size());
        QVERIFY(inFull(s) == inFull(whole(std::make_shared<const Build>(build), {})));
    }

    void whatFailsIsNotRemembered()
    {
        Memory memory(4);
        QVERIFY_THROWS_EXCEPTION(std::runtime_error, memory.recall("a", []() -> int { throw std::runtime_error("no"); }));
        QCOMPARE(memory.recall("a", [] { return 2; }), 2);
        QCOMPARE(memory.recall("a", [] { return 3; }), 2);
        QVERIFY_THROWS_EXCEPTION(std::logic_error, (void)memory.recall("a", [] { return 3.0; }));
    }

    void onlyWhatWasLookedAtCounts()
    {
        std::array<Reading, 3> readings;
        for (std::uint32_t i = 0; i < readings.size(); ++i) {
            readings[i].value = 10.0 + i;
            readings[i].value.number(i + 1);
        }
        int made = 0;
        const auto sum = [&](Memory& memory) {
            return memory.recall("both", [&] {
                ++made;
                return memory.recall("one", [&] { return *readings[0].value; }) + *readings[1].value;
            });
        };
        Memory first(3);
        QCOMPARE(sum(first), 21.0);
        const auto changed = [](std::uint32_t number) {
            Looked set;
            set.readings.add(number);
            return set;
        };
        Memory third(first, changed(3));
        QCOMPARE(third.size(), std::size_t(2));
        QCOMPARE(sum(third), 21.0);
        QCOMPARE(made, 1);
        Memory second(third, changed(2));
        QCOMPARE(second.size(), std::size_t(1));
        readings[1].value = 20.0;
        QCOMPARE(sum(second), 30.0);
        // What the inner one looked at, the outer one looked at, also where the inner one was remembered.
        Memory zeroth(second, changed(1));
        QCOMPARE(zeroth.size(), std::size_t(0));
        // A part copied out of the build is the same reading.
        const Reading copy = readings[2];
        Memory copies(3);
        QCOMPARE(copies.recall("copy", [&] { return *copy.value; }), 12.0);
        QCOMPARE(Memory(copies, changed(3)).size(), std::size_t(0));
        QCOMPARE(Memory(copies, changed(2)).size(), std::size_t(1));
    }
};

DEEPSTOP_TEST(MemoryTest)
#include "memory_test.moc"
