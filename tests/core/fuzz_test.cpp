/// Every reader against damaged text: it takes it, or refuses it in one line; whatever it takes may stand in a build.

#include "build/difference.hpp"
#include "centring/drawer.hpp"
#include "core/mutate.hpp"
#include "core/support.hpp"
#include "library/library_file.hpp"
#include "files/recovery_copy.hpp"
#include "instruments/indication.hpp"
#include "joints/thread.hpp"
#include "library/import.hpp"
#include "quantity/entry.hpp"

#include <QTest>

#include <fmt/format.h>

using namespace deepstop;

namespace {

const std::string buildSeed =
    R"({"deepstop":1,"car":{"name":"Halden","mass_kg":1460,"antilock":"yes"},"wheels":[{"id":"w","offset_mm":{"value":35,"repeats":[34.9,35.1]}}],
"setups":[{"id":"a","front":{"wheel":"w","rotor":{"thickness_mm":{"value":28,"plus_minus":0.05,"known":"measured","with":"vernier"},"vanes":48},"caliper":{"pistons_mm":[38.1,41.3]}}}],
"drawer":[{"thickness_mm":0.75,"count":4}],"mock_ups":[{"setup":"a","axle":"front","inner_top_mm":2.9}],"odd":{"kept":[1,2]}})";
const std::string librarySeed =
    R"({"deepstop_library":1,"rotors":[{"id":"r","note":"n","part":{"name":"Ring","outer_diameter_mm":330,"face":"slotted","vanes":48}}],
"wheels":[{"id":"w","part":{"id":"w","nominal_diameter":17,"barrel":[{"depth_mm":10,"inside_radius_mm":190}]}}]})";
const std::string listSeed =
    "id,name,rotor diameter [in],thickness_mm,face,vanes\na,\"Half, or so\",12.99,28.5,slotted,48\nb,Fine,13 in,30.25,,\n";

/// One line a person can print and read.
bool isOneLine(const std::string& why)
{
    return !why.empty() && why.size() < 700 && why.find('\n') == std::string::npos && !notUtf8(why) && !controlCharacter(why);
}

/// Runs `read` on damaged seeds; it says what is wrong with what it took.
void fuzz(const std::vector<std::string>& seeds, const std::function<std::string(const std::string&)>& read, double leastTaken)
{
    std::mt19937 fuzzDice(20261126);
    const long cases = fuzzCases();
    long taken = 0;
    for (long i = 0; i < cases; ++i) {
        const auto text = mutated(seeds[std::size_t(i) % seeds.size()], fuzzDice);
        std::string trouble;
        try {
            trouble = read(text);
            taken += trouble.empty();
        } catch (const files::Refusal& refusal) {
            if (!isOneLine(refusal.what()))
                trouble = std::string("no single line: ") + refusal.what();
        } catch (const std::exception& error) {
            trouble = std::string("no refusal: ") + error.what();
        }
        if (trouble == "refused")
            trouble.clear();
        QVERIFY2(trouble.empty(), (trouble + " at case " + std::to_string(i) + ": " + text).c_str());
    }
    // Damage that nothing survives, or everything, tries nothing.
    QVERIFY2(double(taken) > leastTaken * double(cases) && taken < cases, qPrintable(QString("%1 of %2 taken").arg(taken).arg(cases)));
}

std::string roundTrip(const files::BuildFile& file)
{
    // Dear, so of every third.
    static int count = 0;
    if (++count % 3)
        return {};
    if (const auto fault = faultIn(file.build); !fault.empty())
        return "taken and not sound: " + fault;
    const auto text = files::writeBuild(file);
    return files::writeBuild(files::parseBuild(text)) == text ? std::string() : "not what was written";
}

/// A refusal in words, of readers that throw nothing.
std::string refusedInWords(const std::string& why) { return isOneLine(why) ? "refused" : "no single line: " + why; }

} // namespace

class FuzzFilesTest : public QObject {
    Q_OBJECT
private slots:
    void builds()
    {
        fuzz(
            { buildSeed }, [](const std::string& text) { return roundTrip(files::parseBuild(text)); }, 0.02);
    }
    void copies()
    {
        const auto seed = files::writeCopy({ files::parseBuild(R"({"deepstop":1,"setups":[{"id":"a"}],"car":{"mass_kg":1460}})"),
            "/home/mine.deepstop", "00ff", { { "/car/mass_kg", "14" } } });
        fuzz(
            { seed }, [](const std::string& text) { return roundTrip(files::parseCopy(text).file); }, 0.02);
    }
    void libraries()
    {
        fuzz(
            { librarySeed },
            [](const std::string& text) {
                const auto read = files::parseLibrary(text);
                const auto written = files::writeLibrary(read);
                return files::writeLibrary(files::parseLibrary(written)) == written ? std::string() : std::string("not what was written");
            },
            0.02);
    }
    void lists()
    {
        long count = 0;
        fuzz(
            { listSeed },
            [&count](const std::string& text) {
                // Now and then the kind of part is guessed, too.
                const auto read =
                    library::importParts(text, ++count % 16 ? library::guessPlan(text, library::Kind::Rotor) : library::guessPlan(text));
                for (const auto& line : read.refused)
                    if (!isOneLine(line.why) || notUtf8(line.text) || controlCharacter(line.text))
                        return "no single line: " + line.why;
                if (read.taken)
                    (void)files::parseLibrary(files::writeLibrary(read.parts));
                return std::string();
            },
            0.02);
    }
};

class FuzzWordsTest : public QObject {
    Q_OBJECT
private slots:
    void instrumentLines()
    {
        const auto line = instruments::formatLine("vernier", 27.98, 2, "mm", true);
        fuzz(
            { line + line, line },
            [](const std::string& text) {
                instruments::LineReader reader;
                for (const auto& one : reader.take(text))
                    if (one.instrument != "vernier" || std::abs(one.value - 27.98e-3) > 1e-9)
                        return "a reading nobody took: " + one.instrument;
                return reader.refused() ? std::string("refused") : std::string();
            },
            0.02);
    }
    void quantities()
    {
        const auto whole = demo();
        const Directory directory(whole);
        const auto address = *directory.at("/setups/1/front/rotor/thickness_mm");
        fuzz(
            { "12.99in", "28 ±0.05 mm", "28.01; 27.99; 28.02", "1-1/8 in", "5 ft 11 in", "1,460.5", "33?", "30 thou" },
            [&](const std::string& text) {
                const auto read = readEntry(text, style::size, UnitSystem::Metric, {});
                if (!read.reading)
                    return refusedInWords(read.refusal);
                if (const auto why = refusal(address.address, *read.reading); !why.empty())
                    return refusedInWords(why);
                return isWithin(address.address.range, *read.reading) ? std::string() : std::string("outside its range");
            },
            0.05);
    }
    void drawers()
    {
        fuzz(
            { "0.75x4, 1 mm x 2, 0.030 in x 6, 1/16 inx2", "0.25 × 8" },
            [](const std::string& text) {
                const auto read = centring::readDrawer(text, *findUnit("mm"));
                if (!read.refusal.empty())
                    return refusedInWords(read.refusal);
                for (const auto& kind : read.drawer)
                    if (!range::shim.holds(kind.thickness) || kind.count < 0 || kind.count > 1000)
                        return std::string("outside its range");
                return std::string();
            },
            0.02);
    }
    void threads()
    {
        fuzz(
            { "M12x1.5", "m 12 × 1,5", "3/8-24", "7/16-20 UNF", "10 mm x 1.0" },
            [](const std::string& text) {
                const auto read = joints::parseThread(text);
                if (!read)
                    return std::string("refused");
                return read->diameter > 0 && read->diameter < 0.065 && read->pitch > 0 && read->pitch < 0.02
                    ? std::string()
                    : fmt::format("{} by {}", read->diameter, read->pitch);
            },
            0.05);
    }
};

DEEPSTOP_TEST(FuzzFilesTest)
DEEPSTOP_TEST(FuzzWordsTest)
#include "fuzz_test.moc"
