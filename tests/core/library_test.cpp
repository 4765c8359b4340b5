/// Parts kept across builds, and lists of parts taken in: what is taken, what is refused, and that nothing hostile does harm.

#include "chapters/weights/weights_chapter.hpp"
#include "core/support.hpp"
#include "files/csv.hpp"
#include "files/disk.hpp"
#include "library/library_file.hpp"
#include "library/import.hpp"
#include "quantity/unit.hpp"

#include <QElapsedTimer>
#include <QTemporaryDir>
#include <QTest>

#include <set>

#include <nlohmann/json.hpp>

using namespace deepstop;
using namespace deepstop::library;

namespace {

const Library& shipped()
{
    static const Library parts = files::loadLibrary(DEEPSTOP_DATA "/library/parts.json");
    return parts;
}

std::string refusalOf(const std::string& text)
{
    try {
        (void)importParts(text, guessPlan(text));
    } catch (const files::Refusal& refusal) {
        return refusal.what();
    }
    return {};
}

bool names(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

} // namespace

class LibraryTest : public QObject {
    Q_OBJECT
private slots:
    void theShippedPartsAreEnoughToPlayWith()
    {
        QVERIFY(shipped().rotors.size() >= 30);
        QVERIFY(shipped().calipers.size() >= 20);
        QVERIFY(shipped().pads.size() >= 20);
        QVERIFY(shipped().wheels.size() >= 15);
        QVERIFY(!shipped().brackets.empty() && !shipped().hoses.empty());
        // In the ranges of real ones: rings are rings, and every rotor has a mass.
        for (const auto& rotor : shipped().rotors) {
            Build build;
            build.setups.emplace_back();
            build.setups[0].front.emplace().rotor = rotor.part;
            const auto mass = study(build).of<Weights>().after.front.rotorMass.value;
            QVERIFY2(mass && *mass > 1.5 && *mass < 20, rotor.id.c_str());
        }
    }

    void aLibraryComesBackAsItWas()
    {
        QVERIFY(files::parseLibrary(files::writeLibrary(shipped())) == shipped());
        QFile published(DEEPSTOP_DATA "/schema/library-1.schema.json");
        QVERIFY(published.open(QIODevice::ReadOnly));
        QVERIFY(nlohmann::json::parse(published.readAll().toStdString()) == files::librarySchema());
    }

    void aDamagedLibraryIsRefusedWithItsPlace_data()
    {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("says");
        QTest::newRow("empty") << ""
                               << "empty";
        QTest::newRow("a build") << "{\"deepstop\":1,\"setups\":[{\"id\":\"a\"}]}"
                                 << "not a parts library";
        QTest::newRow("negative") << "{\"deepstop_library\":1,\"rotors\":[{\"id\":\"a\",\"part\":{\"thickness_mm\":-3}}]}"
                                  << "/rotors/0/part/thickness_mm: found -3";
        QTest::newRow("no id") << "{\"deepstop_library\":1,\"pads\":[{\"part\":{}}]}"
                               << "id is missing";
        QTest::newRow("later") << "{\"deepstop_library\":2}"
                               << "later program";
    }
    void aDamagedLibraryIsRefusedWithItsPlace()
    {
        QFETCH(QString, text);
        QFETCH(QString, says);
        try {
            (void)files::parseLibrary(text.toStdString());
            QFAIL("was taken");
        } catch (const files::Refusal& refusal) {
            QVERIFY2(QString(refusal.what()).contains(says), refusal.what());
        }
    }

    void searchFindsByEveryWord()
    {
        const auto found = search(shipped(), Kind::Rotor, "varnik 330");
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].id, std::string("varnik-330-28-two-piece"));
        QVERIFY(search(shipped(), Kind::Rotor, "").size() == shipped().rotors.size());
        QVERIFY(search(shipped(), Kind::Rotor, "nothing like this").empty());
        QCOMPARE(search(shipped(), Kind::Pad, "TRACK", 3).size(), std::size_t(3));
        for (const auto& one : search(shipped(), Kind::Caliper, "fixed"))
            QVERIFY(names(one.about, "fixed"));
    }

    void aBuildKeepsItsOwnCopyAndKnowsWhenTheLibrarysDiffers()
    {
        auto library = shipped();
        auto build = withPart(demo(), "varnik-330", Axle::Front, library, Kind::Rotor, "varnik-345-30-two-piece");
        const Corner& corner = *build.setups[1].front;
        QCOMPARE(corner.rotor.name, std::string("Varnik 345 × 30, two-piece"));
        QVERIFY(differences(library, corner, build, Kind::Rotor)->empty());
        // The library changes: the build does not, and knows what is different.
        auto& shelved = *std::ranges::find(library.rotors, "varnik-345-30-two-piece", &Shelved<Rotor>::id);
        shelved.part.thickness.value = 0.029;
        shelved.part.vanes = 60;
        QCOMPARE(*corner.rotor.thickness.value, 0.030);
        QCOMPARE(*differences(library, corner, build, Kind::Rotor), (std::vector<std::string> { "rotor thickness", "vanes" }));
        // A part that never came from there is not compared.
        QVERIFY(!differences(library, *build.setups[0].front, build, Kind::Rotor));
        QVERIFY(!differences(Library {}, corner, build, Kind::Rotor));
        // The rest of the corner is untouched.
        auto back = build;
        back.setups[1].front->rotor = demo().setups[1].front->rotor;
        QVERIFY(back == demo());
    }

    void aWheelIsPutInUnderAnIdOfItsOwn()
    {
        auto build = withPart(demo(), "varnik-330", Axle::Front, shipped(), Kind::Wheel, "wheel-18-8-5-et-38");
        build = withPart(build, "varnik-355", Axle::Front, shipped(), Kind::Wheel, "wheel-18-8-5-et-38");
        QCOMPARE(build.wheels.size(), demo().wheels.size() + 2);
        QVERIFY(build.setups[1].front->wheel != build.setups[2].front->wheel);
        giveIds(build); // as every edit does
        QVERIFY(files::parseBuild(files::writeBuild({ build, nullptr })).build == build);
    }

    void whatIsKeptComesBack()
    {
        auto build = demo();
        Library library;
        for (const Kind kind : { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Wheel, Kind::Bracket })
            QVERIFY(!keep(library, *build.setups[1].front, build, kind).empty());
        const auto id = keep(library, *build.setups[1].front, build, Kind::Rotor);
        QCOMPARE(library.rotors.size(), std::size_t(2)); // it came from no library, so it is another each time
        build.setups[1].front->rotor.from = id;
        build.setups[1].front->rotor.vanes = 50;
        QCOMPARE(keep(library, *build.setups[1].front, build, Kind::Rotor), id); // and in its place once it is known where it came from
        QCOMPARE(library.rotors.size(), std::size_t(2));
        QCOMPARE(library.rotors[1].part.vanes, 50);
        QVERIFY(library.rotors[1].part.from.empty());
    }

    /// Where and when a part was measured stands beside it; what was not measured is not said to be.
    void whatIsKeptSaysWhereItWasMeasured()
    {
        auto build = demo();
        Corner& corner = *build.setups[1].front;
        corner.rotor = {};
        corner.rotor.outerDiameter = { 0.330, {}, Known::Vendor, {}, {} };
        Library library;
        keep(library, corner, build, Kind::Rotor);
        QCOMPARE(library.rotors[0].note, std::string());
        corner.rotor.outerDiameter.known = Known::Measured;
        corner.rotor.outerDiameter.date = "2026-03-07";
        corner.rotor.thickness = { 0.028, {}, Known::Measured, "micrometer", "2026-04-12" };
        corner.rotor.from = library.rotors[0].id;
        keep(library, corner, build, Kind::Rotor);
        const std::string said = "Measured on " + std::string(build.car.name) + ", 2026-04-12, micrometer";
        QCOMPARE(library.rotors[0].note, said);
        QCOMPARE(library.rotors[0].part.thickness.known, Known::Vendor); // of another example
        keep(library, corner, build, Kind::Rotor);
        QCOMPARE(library.rotors[0].note, said); // once
        library.rotors[0].note = "From the swap meet";
        keep(library, corner, build, Kind::Rotor);
        QCOMPARE(library.rotors[0].note, "From the swap meet; " + said);
    }

    /// Two builders' libraries beside each other: what is the same stands once, what only shares an id stands twice.
    void unitedLibrariesLoseNothing()
    {
        Library mine;
        mine.rotors.assign(shipped().rotors.begin(), shipped().rotors.begin() + 3);
        mine.wheels.assign(shipped().wheels.begin(), shipped().wheels.begin() + 1);
        Library theirs;
        theirs.rotors.assign(shipped().rotors.begin() + 1, shipped().rotors.begin() + 5);
        theirs.rotors[0].part.thickness.value = 0.0123;
        theirs.rotors[1].price = {};
        theirs.wheels = mine.wheels;
        theirs.wheels[0].part.offset.value = 0.0411;
        theirs.masters = shipped().masters;
        Library both = mine;
        const auto united = unite(both, theirs);
        QCOMPARE(united.same, std::size_t(0));
        QCOMPARE(united.beside, std::size_t(3));
        QCOMPARE(united.added, 2 + shipped().masters.size());
        for (const Library* from : { &mine, &theirs }) {
            for (const auto& rotor : from->rotors)
                QVERIFY(std::ranges::any_of(
                    both.rotors, [&](const auto& kept) { return kept.part == rotor.part && kept.price == rotor.price; }));
            for (const auto& wheel : from->wheels)
                QVERIFY(std::ranges::any_of(
                    both.wheels, [&](const auto& kept) { return kept.part.offset == wheel.part.offset && kept.part.id == kept.id; }));
        }
        std::set<std::string> ids;
        for (const auto& rotor : both.rotors)
            QVERIFY(ids.insert(rotor.id).second);
        // Once more changes nothing but what had to be renamed.
        const std::size_t before = both.masters.size();
        QVERIFY(unite(both, mine).same >= mine.rotors.size());
        QCOMPARE(both.masters.size(), before);
    }

    /// A shelf written as a list and read back is the same parts.
    void listsComeBackAsTheyWere()
    {
        for (const Kind kind : { Kind::Rotor, Kind::Caliper, Kind::Bracket, Kind::Hose }) {
            const auto text = exportParts(shipped(), kind);
            const auto plan = guessPlan(text);
            QCOMPARE(static_cast<int>(plan.kind), static_cast<int>(kind));
            QVERIFY(std::ranges::none_of(plan.columns, [](const Column& c) { return c.key.empty(); }));
            const auto import = importParts(text, plan);
            QVERIFY2(import.refused.empty(), import.refused.empty() ? "" : import.refused[0].why.c_str());
            onShelf(import.parts, kind, [&]<class T>(const std::vector<Shelved<T>>& shelf) {
                onShelf(shipped(), kind, [&]<class U>(const std::vector<Shelved<U>>& from) {
                    if constexpr (std::is_same_v<T, U>) {
                        QCOMPARE(shelf.size(), from.size());
                        Library a;
                        Library b;
                        onShelf(a, kind, [&]<class W>(std::vector<Shelved<W>>& s) {
                            if constexpr (std::is_same_v<T, W>)
                                s = shelf;
                        });
                        onShelf(b, kind, [&]<class W>(std::vector<Shelved<W>>& s) {
                            if constexpr (std::is_same_v<T, W>)
                                s = from;
                        });
                        QVERIFY(files::writeLibrary(a) == files::writeLibrary(b));
                    }
                });
            });
        }
    }

    /// Random rotors through a list and back: nothing is lost but how a figure is known.
    void randomPartsComeThroughAList()
    {
        Library library;
        for (int i = 0; i < 200; ++i) {
            Shelved<Rotor> one { "r" + std::to_string(i), among(0, 1) ? "a note, with \"quotes\"\nand lines" : "", {} };
            one.part.name = among(0, 3) ? "Rotor; number " + std::to_string(i) : "=danger " + std::to_string(i);
            const auto maybe = [&](Reading& r, double low, double high) {
                if (among(0, 2))
                    r = { std::round(between(low, high) * 1e7) / 1e7, {}, Known::Vendor, {}, {} };
            };
            maybe(one.part.outerDiameter, 0.2, 0.4);
            maybe(one.part.thickness, 0.006, 0.04);
            maybe(one.part.vaneShare, 0, 1);
            maybe(one.part.vaneLean, 0, 1);
            one.part.vanes = among(0, 90);
            one.part.face = static_cast<RotorFace>(among(0, 3));
            one.part.vaneShape = static_cast<VaneShape>(among(0, 2));
            library.rotors.push_back(std::move(one));
        }
        const auto text = exportParts(library, Kind::Rotor);
        const auto import = importParts(text, guessPlan(text, Kind::Rotor));
        QVERIFY2(import.refused.empty(), import.refused.empty() ? "" : import.refused[0].why.c_str());
        QCOMPARE(import.taken, std::size_t(200));
        for (std::size_t i = 0; i < 200; ++i) {
            const Rotor& a = library.rotors[i].part;
            const Rotor& b = import.parts.rotors[i].part;
            QCOMPARE(b.name, a.name);
            QCOMPARE(import.parts.rotors[i].note, library.rotors[i].note);
            for (const auto& [x, y] : { std::pair { &a.outerDiameter, &b.outerDiameter }, std::pair { &a.thickness, &b.thickness },
                     std::pair { &a.vaneShare, &b.vaneShare }, std::pair { &a.vaneLean, &b.vaneLean } })
                QVERIFY(x->value.has_value() == y->value.has_value() && (!x->value || std::abs(*x->value - *y->value) < 1e-9));
            QVERIFY(a.vanes == b.vanes && a.face == b.face && a.vaneShape == b.vaneShape);
        }
    }

    void mergingTwiceChangesNothingMore()
    {
        auto library = shipped();
        QCOMPARE(merge(library, shipped()), std::size_t(0));
        QVERIFY(library == shipped());
        Library more;
        more.pads.push_back({ {}, {}, {} });
        more.pads.back().part.name = "Track pad 112 × 48 × 11";
        // Without an id it is another part, though it has a name that is taken.
        QCOMPARE(merge(library, more), std::size_t(1));
        QCOMPARE(library.pads.back().id, std::string("track-pad-112-48-11-2"));
        more.pads[0].id = "track-pad-112-48-11";
        more.pads[0].part.compound = "new";
        QCOMPARE(merge(library, more), std::size_t(0));
        QCOMPARE(std::ranges::find(library.pads, more.pads[0].id, &Shelved<Pad>::id)->part.compound, std::string("new"));
    }

    void anAxleLeftAsFoundBeginsToDiffer()
    {
        const auto build = withPart(demo(), "varnik-330", Axle::Rear, shipped(), Kind::Pad, "sport-pad-104-44-10-5");
        QVERIFY(build.setups[1].rear && build.setups[1].rear->pad.compound == "sport");
        QVERIFY(build.setups[1].rear->rotor == demo().setups[0].rear->rotor && build.setups[0] == demo().setups[0]);
        QVERIFY(withPart(demo(), "nobody", Axle::Rear, shipped(), Kind::Pad, "sport-pad-104-44-10-5") == demo());
        QVERIFY(withPart(demo(), "varnik-330", Axle::Rear, shipped(), Kind::Pad, "no-such-pad") == demo());
    }

    void headersAreUnderstoodAsPeopleWriteThem()
    {
        const std::string text = "Part;Rotor diameter [in];thickness_in;OD (mm);PCD;Vanes;Colour\n"
                                 "First;13;1.1;;112;48;red\n"
                                 "\"Second; \"\"the good one\"\"\";12 in;28 mm;;4.5 in;36;\n";
        const auto plan = guessPlan(text);
        QCOMPARE(plan.separator, ';');
        QCOMPARE(static_cast<int>(plan.kind), static_cast<int>(Kind::Rotor));
        QStringList keys;
        for (const auto& column : plan.columns)
            keys << QString::fromStdString(column.key);
        // The diameter stands twice; the first counts. Colour is nothing we know.
        QCOMPARE(keys, (QStringList { "name", "outer_diameter_mm", "thickness_mm", "", "bolt_circle_mm", "vanes", "" }));
        const auto import = importParts(text, plan);
        QCOMPARE(import.taken, std::size_t(2));
        QVERIFY(near(*import.parts.rotors[0].part.outerDiameter.value, 13 * 0.0254, 1e-12));
        QVERIFY(near(*import.parts.rotors[0].part.thickness.value, 1.1 * 0.0254, 1e-12));
        QVERIFY(near(*import.parts.rotors[1].part.boltCircle.value, 4.5 * 0.0254, 1e-12));
        QCOMPARE(import.parts.rotors[1].part.name, std::string("Second; \"the good one\""));
        QCOMPARE(import.parts.rotors[0].part.outerDiameter.known, Known::Vendor);
    }

    /// A unit nobody understands keeps the column out: its plain numbers could be anything.
    void aColumnInAnUnknownUnitIsPassedOver()
    {
        for (const char* unit : { "Zoll", "parsec", "in. or so" }) {
            const std::string text = "name,outer_diameter [" + std::string(unit) + "],thickness_mm\nA,13,28\n";
            const auto import = importParts(text, guessPlan(text));
            QCOMPARE(import.taken, std::size_t(1));
            QVERIFY(!import.parts.rotors[0].part.outerDiameter.value);
            QCOMPARE(import.refused.size(), std::size_t(1));
            QVERIFY2(import.refused[0].line == 1 && names(import.refused[0].why, unit) && names(import.refused[0].why, "passed over"),
                import.refused[0].why.c_str());
        }
        const std::string inches = "name,outer_diameter [in.],thickness_mm\nA,13,28\n";
        const auto import = importParts(inches, guessPlan(inches));
        QVERIFY(import.refused.empty() && near(*import.parts.rotors[0].part.outerDiameter.value, 0.3302, 1e-12));
    }

    void badLinesAreRefusedOneByOneWithTheReason()
    {
        const std::string text = "id,name,outer_diameter_mm,thickness_mm,face,vanes\n"
                                 "a,Good,330,28,slotted,48\n"
                                 "b,Thick,330,-28,slotted,48\n"
                                 "c,Words,wide,28,slotted,48\n"
                                 "d,Face,330,28,shiny,48\n"
                                 ",,330,28,slotted,48\n"
                                 "a,Again,330,28,slotted,48\n"
                                 "e,Much,330,28,slotted,48,what is this\n"
                                 "f,Comma,\"1,460\",28,slotted,48\n"
                                 "g,Vanes,330,28,slotted,4.5\n"
                                 "h,Kilograms,330 kg,28,slotted,48\n"
                                 "i,Good too,330,28,,\n";
        const auto import = importParts(text, guessPlan(text));
        QCOMPARE(import.taken, std::size_t(2));
        const std::vector<std::pair<std::size_t, const char*>> wanted { { 3, "must be from 0.1 mm to 500 mm" },
            { 4, "rotor diameter “wide”" }, { 5, "plain, dimpled, slotted, drilled" }, { 6, "the name is missing" },
            { 7, "stands in line 2 already" }, { 8, "has 7 columns" }, { 9, "1460 or as 1.460" }, { 10, "whole number" },
            { 11, "rotor diameter “330 kg”" } };
        QCOMPARE(import.refused.size(), wanted.size());
        for (std::size_t i = 0; i < wanted.size(); ++i) {
            QCOMPARE(import.refused[i].line, wanted[i].first);
            QVERIFY2(names(import.refused[i].why, wanted[i].second), import.refused[i].why.c_str());
        }
    }

    void fiftyThousandLinesWithFiveHundredBadOnes()
    {
        std::string text = "name,outer_diameter_mm,thickness_mm,ring_inner_diameter_mm,overall_height_mm,hat_thickness_mm,bore_mm,bolt_"
                           "circle_mm,bolt_holes,vent_gap_mm,vanes,face\n";
        for (int i = 0; i < 50000; ++i)
            text += "Rotor " + std::to_string(i % 25000) + "," + std::to_string(240 + i % 150)
                + (i % 100 == 7 ? ",thin" : "," + std::to_string(8 + i % 28)) + ",180,46,7.5,66.6,112,5,8.5,48,plain\n";
        int calls = 0;
        const auto import = importParts(text, guessPlan(text), [&](double part) {
            ++calls;
            return part >= 0 && part <= 1;
        });
        QCOMPARE(import.taken, std::size_t(49500));
        QCOMPARE(import.refused.size(), std::size_t(500));
        QCOMPARE(import.refused[0].line, std::size_t(9));
        QVERIFY(calls >= 90);
        // Every part has an id of its own though half the names stand twice.
        Library library;
        QCOMPARE(merge(library, import.parts), std::size_t(49500));
        // And it can be stopped.
        const auto stopped = importParts(text, guessPlan(text), [](double part) { return part < 0.2; });
        QVERIFY(stopped.cancelled && stopped.taken < 15000);
    }

    void hostileListsAreRefusedClearly_data()
    {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QString>("says");
        const QByteArray head = "name,thickness_mm\n";
        QTest::newRow("nothing") << QByteArray() << "empty";
        QTest::newRow("only line ends") << QByteArray("\n\n\r\n") << "empty";
        QTest::newRow("open quote") << head + "\"Rotor,28\nanother,27\n"
                                    << "line 2: the quotes opened here never close";
        QTest::newRow("open quote, long") << head + "x,1\n\"" + QByteArray(300000, 'a') << "line 3: the quotes opened here do not close";
        QTest::newRow("zero bytes") << head + QByteArray("a\0b,28\n", 7) << "is zero: this is not text";
        QTest::newRow("not UTF-8") << head + "R\xff\xfe,28\n"
                                   << "line 2: this is not UTF-8";
        QTest::newRow("one long line") << head + QByteArray(2'000'000, 'x') << "line 2: is longer than 100 kB";
        QTest::newRow("many columns") << head + QByteArray(2000, ',') << "more than 500 columns";
        QTest::newRow("a picture") << QByteArray("\x89PNG\r\n\x1a\n\0\0\0\rIHDR", 16) << "not ";
        QTest::newRow("no name") << QByteArray("thickness_mm,outer_diameter_mm,vanes\n28,330,48\n") << "no column holds the name";
    }
    void hostileListsAreRefusedClearly()
    {
        QFETCH(QByteArray, text);
        QFETCH(QString, says);
        const auto why = refusalOf(text.toStdString());
        QVERIFY2(QString::fromStdString(why).contains(says), why.empty() ? "was taken" : why.c_str());
        QVERIFY(why.find('\n') == std::string::npos);
    }

    void aLineOfAHundredMegabytesIsRefusedByTheProgramToo()
    {
        QTemporaryDir dir;
        const auto path = dir.filePath("long.csv");
        QFile file(path);
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("name,thickness_mm\n");
        for (int i = 0; i < 100; ++i)
            file.write(QByteArray(1'000'000, 'x'));
        file.close();
        QProcess cli;
        cli.start(DEEPSTOP_CLI, { "import", "parts", path });
        QVERIFY(cli.waitForFinished(60000));
        QCOMPARE(cli.exitCode(), 2);
        const auto said = cli.readAllStandardError();
        QVERIFY2(said.count('\n') == 1 && said.contains("line 2: is longer than 100 kB"), said.left(300));
    }

    void damagedListsNeverDoHarm()
    {
        const auto whole = exportParts(shipped(), Kind::Rotor);
        for (int round = 0; round < 400; ++round) {
            auto text = whole.substr(0, static_cast<std::size_t>(among(1, static_cast<int>(whole.size()))));
            for (int k = among(0, 20); k > 0; --k)
                text[static_cast<std::size_t>(among(0, static_cast<int>(text.size()) - 1))] = "\",;\n\r\t x9-."[among(0, 10)];
            try {
                const auto import = importParts(text, guessPlan(text));
                QVERIFY(import.taken <= 40);
                for (const auto& one : import.parts.rotors)
                    if (one.part.thickness.value)
                        QVERIFY(std::isfinite(*one.part.thickness.value) && *one.part.thickness.value > 0);
            } catch (const files::Refusal& refusal) {
                QVERIFY(refusal.what()[0] != '\0');
            }
        }
    }

    /// RFC 4180 by its own examples: quotes, separators and line ends inside fields.
    void csvAsTheStandardHasIt()
    {
        files::CsvReader reader("a,b,c\r\n\"x\r\ny\",\"p,q\",\"say \"\"it\"\"\"\r\n,,\r\nlast", ',');
        std::vector<std::vector<std::string>> records;
        std::vector<std::size_t> lines;
        for (std::vector<std::string> fields; reader.next(fields);) {
            records.push_back(fields);
            lines.push_back(reader.line());
        }
        const std::vector<std::vector<std::string>> wanted { { "a", "b", "c" }, { "x\r\ny", "p,q", "say \"it\"" }, { "", "", "" },
            { "last" } };
        QVERIFY(records == wanted);
        QCOMPARE(lines, (std::vector<std::size_t> { 1, 2, 4, 5 }));
        for (const char* text : { "plain", "with,comma", "with \"quotes\"", "two\nlines", "" }) {
            const auto field = files::csvField(text) + "\n";
            files::CsvReader again(field, ',');
            std::vector<std::string> back;
            QVERIFY(again.next(back) || std::string(text).empty());
            if (!back.empty())
                QCOMPARE(back[0], std::string(text));
        }
        QCOMPARE(files::csvField("=1+1").front(), '"');
    }

    /// The same lists through Python's csv module.
    void csvAsPythonReadsIt()
    {
        const auto text = exportParts(shipped(), Kind::Caliper);
        const auto answer = answerOf("/usr/bin/python3",
            { "-c",
                "import "
                "csv,sys,json,io\nrows=list(csv.reader(io.StringIO(sys.stdin.buffer.read().decode(),newline='')))\nprint(json.dumps(rows)"
                ")" },
            QByteArray::fromStdString(text));
        const auto rows = nlohmann::json::parse(answer.toStdString()).get<std::vector<std::vector<std::string>>>();
        files::CsvReader reader(text, ',');
        std::size_t i = 0;
        for (std::vector<std::string> fields; reader.next(fields); ++i)
            QVERIFY(i < rows.size() && fields == rows[i]);
        QCOMPARE(i, rows.size());
    }
};

DEEPSTOP_TEST(LibraryTest)
#include "library_test.moc"
