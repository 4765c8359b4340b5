/// The file as something to rely on: what is written, what an older program keeps of a newer one's, and what becomes of older files.

#include "core/random_build.hpp"
#include "build/address.hpp"
#include "build/choices.hpp"
#include "build/difference.hpp"
#include "files/build_file.hpp"
#include "files/disk.hpp"
#include "files/older_builds.hpp"
#include "files/refusal.hpp"
#include "files/together.hpp"

#include <QTemporaryDir>
#include <QTest>

#include <nlohmann/json.hpp>

#include <map>
#include <set>
#include <sstream>

using namespace deepstop;
using nlohmann::json;

namespace {

constexpr std::array demos { "halden-merle", "linnet", "drover-camper" };

json written(const Build& build) { return json::parse(files::writeBuild({ build, nullptr })); }

/// Goes to every place of `value` that the schema describes, with the description.
void eachPlace(json& value, const json& schema, const std::function<void(json& at, const json& schema)>& visit)
{
    if (value.is_object() && schema.contains("properties")) {
        for (auto& [key, inner] : value.items())
            if (schema["properties"].contains(key))
                eachPlace(inner, schema["properties"][key], visit);
    } else if (value.is_array() && schema.contains("items") && schema["items"].is_object()) {
        for (json& inner : value)
            eachPlace(inner, schema["items"], visit);
    }
    visit(value, schema);
}

/// Every word a schema names, with where it stands.
void eachWord(const json& schema, const std::string& at, const std::function<void(const std::string& at, const std::string& word)>& visit)
{
    for (const char* key : { "enum", "examples" })
        if (schema.contains(key))
            for (const json& word : schema[key])
                visit(at, word.get<std::string>());
    if (schema.contains("properties"))
        for (const auto& [key, inner] : schema["properties"].items())
            eachWord(inner, at + "/" + key, visit);
    if (schema.contains("items") && schema["items"].is_object())
        eachWord(schema["items"], at + "/-", visit);
}

/// What an element of a list goes by: an id, or what it belongs to. Empty: by its place alone.
std::string nameOf(const json& element)
{
    const auto text = [&](const char* key) { return element.contains(key) ? element[key].dump() : std::string(); };
    for (const char* key : { "id", "step", "item" })
        if (element.contains(key))
            return element[key].dump();
    return text("setup") + text("axle") + text("side");
}

/// Everything in a file that has a name of its own: the way there, by keys and names, and the object there.
void eachObject(json& at, const std::string& way, const std::function<void(const std::string& way, json& object)>& visit)
{
    if (at.is_object()) {
        for (auto& [key, inner] : at.items())
            eachObject(inner, way + "/" + key, visit);
        visit(way, at);
    } else if (at.is_array()) {
        for (json& inner : at)
            if (inner.is_object() && !nameOf(inner).empty())
                eachObject(inner, way + "/" + nameOf(inner), visit);
    }
}

/// What a file says: a reading is one thing said, and so is a list whose elements have no names.
void eachSaid(const json& at, const std::string& way, std::map<std::string, std::string>& said)
{
    const bool reading = at.is_object() && (at.contains("value") || at.contains("known"));
    const bool named = at.is_array() && std::ranges::all_of(at, [](const json& e) { return e.is_object() && !nameOf(e).empty(); });
    if (at.is_object() && !reading)
        for (const auto& [key, inner] : at.items())
            eachSaid(inner, way + "/" + key, said);
    else if (named)
        for (const json& inner : at)
            eachSaid(inner, way + "/" + nameOf(inner), said);
    else
        said[way] = at.dump();
}

int editsWanted(int usual) { return qEnvironmentVariableIsSet("DEEPSTOP_EDITS") ? qEnvironmentVariableIntValue("DEEPSTOP_EDITS") : usual; }

} // namespace

class FormatTest : public QObject {
    Q_OBJECT
private slots:
    void whatNobodySaidIsNotWritten()
    {
        Build build;
        auto& found = build.setups.emplace_back();
        found.id = "as-found";
        found.front.emplace();
        found.hydraulics.emplace();
        json j = written(build);
        QVERIFY2(!j.contains("wants"), j.dump().c_str());
        QVERIFY2(j.dump().find("unknown") == std::string::npos, j.dump().c_str());
        QVERIFY2(j.dump().find("measured") == std::string::npos, j.dump().c_str());
        QCOMPARE(j["deepstop"].get<int>(), 3);
        // A limit that the builder sets is written, alone; put back to the usual it goes.
        build.wants.barrelGap.value = 2.5e-3;
        j = written(build);
        QCOMPARE(j["wants"].size(), std::size_t(1));
        QCOMPARE(j["wants"]["barrel_gap_mm"]["value"].get<double>(), 2.5);
        QVERIFY(files::parseBuild(j.dump()).build == build);
        build.wants.barrelGap = Wants {}.barrelGap;
        QVERIFY(!written(build).contains("wants"));
        // Taken away is not the usual.
        build.wants.barrelGap = {};
        QVERIFY(files::parseBuild(written(build).dump()).build == build);
    }

    void aCountOfNoneIsSaid()
    {
        Build build = demo();
        Rotor& rotor = build.setups[1].front->rotor;
        for (const int said : { notCounted, 0, 12 }) {
            rotor.slotCount = said;
            const json j = written(build);
            const json& r = j["setups"][1]["front"]["rotor"];
            QCOMPARE(r.contains("slots"), said != notCounted);
            QCOMPARE(files::parseBuild(j.dump()).build.setups[1].front->rotor.slotCount, said);
            QCOMPARE(factAt(build, "/setups/1/front/rotor/slots")->value, said == notCounted ? std::string() : std::to_string(said));
        }
        QCOMPARE(withFact(build, "/setups/1/front/rotor/slots", "0").build->setups[1].front->rotor.slotCount, 0);
        QCOMPARE(withFact(build, "/setups/1/front/rotor/slots", "").build->setups[1].front->rotor.slotCount, notCounted);
    }

    /// A word that this program does not know, in every place where others may come.
    void aNewerProgramsWordsAreKept()
    {
        for (const char* name : demos) {
            json newer = written(demo(name));
            int words = 0;
            eachPlace(newer, files::buildSchema(), [&](json& at, const json& schema) {
                if (at.is_string() && schema.contains("examples"))
                    at = "newer-" + std::to_string(++words);
            });
            QVERIFY(words > 100);
            auto file = files::parseBuild(newer.dump());
            QVERIFY(file.unknown);
            // Through edits of everything else.
            std::mt19937 rng(7);
            std::set<std::string> readAnew;
            for (int i = 0; i < 40; ++i) {
                const Directory directory(file.build);
                const auto& entry = directory.entries()[rng() % directory.entries().size()];
                if (!entry.reading->value)
                    continue;
                Reading r = *entry.reading;
                r.value = std::clamp(*r.value * 1.001, entry.address.range.least, entry.address.range.most);
                if (*r.value == *entry.reading->value)
                    continue;
                // How a reading was known goes with the reading.
                if (newer[json::json_pointer(entry.address.pointer)].contains("known"))
                    readAnew.insert(entry.address.pointer);
                Build after = withReading(file.build, entry.address.pointer, r);
                file.unknown = files::movedAlong(file.unknown, file.build, after);
                file.build = std::move(after);
            }
            // What is written has twelve digits.
            file = files::parseBuild(files::writeBuild(file));
            json after = json::parse(files::writeBuild(file));
            int kept = 0;
            const std::string text = after.dump();
            for (int i = 1; i <= words; ++i)
                kept += text.find("\"newer-" + std::to_string(i) + "\"") != std::string::npos;
            QCOMPARE(kept + static_cast<int>(readAnew.size()), words);
            // And it is read again as it was written.
            QVERIFY(files::parseBuild(after.dump()).build == file.build);
        }
    }

    /// What nobody here understands proves nothing: it counts as not said.
    /// An older program's view of a newer file: a key it does not know in every object and a word it does not know at every choice stay
    /// where they belong through any edits, deletions and undoing among them.
    void aNewerFileIsKeptThroughEdits()
    {
        for (const char* name : demos) {
            json newer = written(demo(name));
            std::map<std::string, int> keys;
            eachObject(
                newer, "", [&](const std::string& way, json& object) { object["of_later"] = keys[way] = static_cast<int>(keys.size()); });
            std::set<std::string> words;
            eachPlace(newer, files::buildSchema(), [](json& at, const json& schema) {
                if (at.is_string() && schema.contains("examples"))
                    at = "of-later";
            });
            eachObject(newer, "", [&](const std::string& way, json& object) {
                for (const auto& [key, value] : object.items())
                    if (value == "of-later" && key != "known")
                        words.insert(way + "/" + key);
            });
            QVERIFY(keys.size() > 300 && words.size() > 30);
            auto file = files::parseBuild(newer.dump());
            const auto first = std::make_shared<const Build>(file.build);
            Editor editor(first, 7);
            struct State {
                std::shared_ptr<const json> unknown;
                std::set<std::string> words; ///< of the newer program that nobody here has said anew
            };
            std::map<std::shared_ptr<const Build>, State> states { { first, { file.unknown, words } } };
            auto last = first;
            for (int i = 1; i <= editsWanted(150); ++i) {
                auto next = editor.next();
                if (!states.contains(next)) {
                    states[next] = { files::movedAlong(file.unknown, file.build, *next), states[last].words };
                    json known = written(*next);
                    eachObject(known, "", [&](const std::string& way, json& object) {
                        for (const auto& [key, value] : object.items())
                            states[next].words.erase(way + "/" + key);
                    });
                }
                last = next;
                file = { *next, states[next].unknown };
                if (i % 25)
                    continue;
                json now = json::parse(files::writeBuild(file));
                eachObject(now, "", [&](const std::string& way, json& object) {
                    if (!keys.contains(way))
                        QVERIFY2(!object.contains("of_later"), way.c_str());
                    // A reading that was taken away and said again is another.
                    else if (object.contains("of_later") || !object.contains("value"))
                        QVERIFY2(object.contains("of_later") && object["of_later"] == keys[way], way.c_str());
                    for (const auto& [key, value] : object.items())
                        if (const auto at = way + "/" + key; value == "of-later" && key != "known")
                            QVERIFY2(states[next].words.contains(at), at.c_str());
                    for (const auto& at : states[next].words)
                        if (at.substr(0, at.rfind('/')) == way)
                            QVERIFY2(object.contains(at.substr(at.rfind('/') + 1)), at.c_str());
                });
            }
        }
    }

    /// Two hands' random edits put together: the same whoever is asked first, each thing as the one who changed it said it, or it asks.
    void twoHandsInAnyOrderLoseNothing()
    {
        int put = 0;
        const int rounds = editsWanted(40);
        for (int i = 0; i < rounds; ++i) {
            const auto base = std::make_shared<const Build>(demo(demos[static_cast<std::size_t>(i) % demos.size()]));
            const auto after = [&](unsigned seed) {
                Editor editor(base, seed);
                auto build = base;
                for (int k = 0; k <= i % 6; ++k)
                    build = editor.next();
                return *build;
            };
            const Build mine = after(static_cast<unsigned>(2 * i));
            const Build theirs = after(static_cast<unsigned>(2 * i + 1));
            const auto both = files::together(*base, mine, theirs);
            QVERIFY2(files::together(*base, theirs, mine) == both, qPrintable(QString::number(i)));
            if (!both)
                continue;
            ++put;
            std::array<std::map<std::string, std::string>, 4> said;
            for (std::size_t k = 0; k < said.size(); ++k)
                eachSaid(written(*std::array { &*base, &mine, &theirs, &*both }[k]), "", said[k]);
            std::set<std::string> ways;
            for (const auto& each : said)
                for (const auto& [way, what] : each)
                    ways.insert(way);
            for (const std::string& way : ways) {
                const auto& wanted = said[1][way] == said[0][way] ? said[2][way] : said[1][way];
                QVERIFY2(said[3][way] == wanted,
                    qPrintable(
                        QString("%1: %2: %3, not %4")
                            .arg(i)
                            .arg(QString::fromStdString(way), QString::fromStdString(said[3][way]), QString::fromStdString(wanted))));
            }
        }
        QVERIFY2(put * 2 > rounds, qPrintable(QString::number(put)));
    }

    void anUnknownWordProvesNothing()
    {
        json j = written(demo());
        j["setups"][1]["front"]["mount"]["kind"] = "hung from a strap";
        j["setups"][1]["front"]["rotor"]["face"] = "grooved like a leaf";
        j["setups"][1]["front"]["weighings"][0]["contains"].push_back("heat shield");
        j["setups"][1]["front"]["rotor"]["thickness_mm"]["known"] = "scanned";
        const auto file = files::parseBuild(j.dump());
        const Corner& corner = *file.build.setups[1].front;
        QVERIFY(corner.mount.kind == MountKind::Unknown && corner.rotor.face == RotorFace::Unknown);
        QCOMPARE(corner.rotor.thickness.known, Known::Estimated);
        QVERIFY(std::ranges::find(corner.weighings[0].contains, Part::Unknown) != corner.weighings[0].contains.end());
        const Study s = study(file.build);
        QVERIFY(!isFine(s.verdict("front/barrel-gap")->level));
        QVERIFY(!s.line("corner-weight")->change.value);
        const json out = json::parse(files::writeBuild(file));
        QVERIFY2(json::diff(out, j).empty(), json::diff(out, j).dump().c_str());
        // Said here, it is said; the newer word goes.
        auto said = file;
        said.build.setups[1].front->mount.kind = MountKind::Lug;
        QCOMPARE(json::parse(files::writeBuild(said))["setups"][1]["front"]["mount"]["kind"].get<std::string>(), std::string("lug"));
    }

    /// How a reading is known is said of that reading: another one in its place is not known so, however a newer program would take it.
    void anotherReadingIsNotKnownAsTheOneBefore()
    {
        json j = written(demo());
        const char* pointer = "/setups/1/front/rotor/thickness_mm";
        j[json::json_pointer(pointer)]["known"] = "scanned";
        j["setups"][1]["front"]["mount"]["kind"] = "strap";
        const auto file = files::parseBuild(j.dump());
        const auto after = [&](const Build& build) {
            return json::parse(files::writeBuild({ build, files::movedAlong(file.unknown, file.build, build) }));
        };
        // Left alone it stays, whatever else changes.
        const auto other = withReading(file.build, "/setups/1/front/rotor/bore_mm", { 0.067, {}, Known::Measured, "vernier", {} });
        QCOMPARE(after(other)[json::json_pointer(pointer)]["known"].get<std::string>(), std::string("scanned"));
        const auto guessed = withReading(file.build, pointer, { 0.026, {}, Known::Estimated, {}, {} });
        QVERIFY(!after(guessed)[json::json_pointer(pointer)].contains("known"));
        // A choice made and taken back is not the newer program's again.
        Build made = file.build;
        made.setups[1].front->mount.kind = MountKind::Lug;
        const auto unknown = files::movedAlong(file.unknown, file.build, made);
        const Build back = file.build;
        const json out = json::parse(files::writeBuild({ back, files::movedAlong(unknown, made, back) }));
        QVERIFY(!out["setups"][1]["front"]["mount"].contains("kind"));
    }

    /// What stands on the screen is no word of a file.
    void aWordOfTheScreenIsNoToken()
    {
        json j = written(demo());
        j["rear_hub"]["parking_brake"] = "drum in hat";
        const auto file = files::parseBuild(j.dump());
        QVERIFY(file.build.rearHub.parkingBrake == ParkingBrake::Unknown);
        j["rear_hub"]["parking_brake"] = "drum_in_hat";
        QVERIFY(files::parseBuild(j.dump()).build.rearHub.parkingBrake == ParkingBrake::DrumInHat);
    }

    /// Where no other words may come, one is refused with its place.
    void aWordWhereNoneMayComeIsRefused()
    {
        json j = written(demo());
        j["setups"][0]["front"]["brakes"] = "a block of wood";
        try {
            (void)files::parseBuild(j.dump());
            QFAIL("taken");
        } catch (const files::Refusal& refusal) {
            QVERIFY2(std::string(refusal.what()).starts_with("/setups/0/front/brakes"), refusal.what());
        }
    }

    void aLaterMinorVersionIsKeptAndALaterMajorRefused()
    {
        json j = written(demo());
        QCOMPARE(j["minor"].get<int>(), files::buildMinor);
        j["minor"] = 7;
        const auto file = files::parseBuild(j.dump());
        QCOMPARE(json::parse(files::writeBuild(file))["minor"].get<int>(), 7);
        j["deepstop"] = 4;
        QVERIFY_THROWS_EXCEPTION(files::Refusal, (void)files::parseBuild(j.dump()));
    }

    /// A duty or a load that is not there is said, never replaced by another.
    void aReferenceThatLeadsNowhereIsSaid()
    {
        Build build = demo();
        QVERIFY(build.duties.size() > 1);
        const auto verdict = [&] { return *study(build).verdict("heat/gives-up"); };
        QVERIFY(verdict().figure.value);
        build.car.duty = "yesterday";
        QCOMPARE(verdict().level, Level::Unproven);
        QVERIFY(!verdict().figure.value);
        QVERIFY2(verdict().reason.find("yesterday") != std::string::npos, verdict().reason.c_str());
        build.car.duty = build.duties[1].id;
        QVERIFY(verdict().figure.value);
        build.duties[1].load = "a boat";
        QCOMPARE(verdict().level, Level::Unproven);
        QVERIFY2(verdict().reason.find("a boat") != std::string::npos, verdict().reason.c_str());
        // Nothing said: the first.
        build.car.duty.clear();
        QVERIFY(verdict().figure.value);
    }

    /// What is written in words about the format holds.
    void theWorkedFileOpensAndIsWrittenAgain()
    {
        const auto page = files::readFile(DEEPSTOP_TESTS "/../docs/format.md");
        const auto begin = page.find("```json") + 7;
        const auto text = page.substr(begin, page.find("```", begin) - begin);
        const auto file = files::parseBuild(text);
        QVERIFY(!file.unknown);
        QVERIFY(files::parseBuild(files::writeBuild(file)).build == file.build);
        const Rotor& rotor = file.build.setups[1].front->rotor;
        QVERIFY(rotor.slotCount == 0 && rotor.face == RotorFace::Unknown && !file.build.setups[1].rear);
        QCOMPARE(*file.build.wants.barrelGap.value, 2.5e-3);
        QVERIFY(file.build.wants.spokeGap == Wants {}.spokeGap);
        QCOMPARE(file.build.wheels[0].barrel[1].depth.known, Known::Estimated);
    }

    void randomBuildsComeBackAsTheyWent()
    {
        for (unsigned i = 0; i < 60; ++i) {
            // What is written has twelve digits, and so has what anybody types.
            const Build thrown = randomBuild(i);
            QCOMPARE(faultIn(thrown), std::string());
            const Build build = files::parseBuild(files::writeBuild({ thrown, nullptr })).build;
            const auto text = files::writeBuild({ build, nullptr });
            const auto again = files::parseBuild(text);
            QVERIFY2(again.build == build, qPrintable(QString::number(i)));
            QCOMPARE(files::writeBuild(again), text);
            QVERIFY(!again.unknown);
        }
    }

    /// Source: python3-jsonschema, an independent validator of JSON Schema. DEEPSTOP_BUILDS: how many.
    void anotherValidatorAcceptsRandomBuilds()
    {
        bool given = false;
        const int wanted = qEnvironmentVariableIntValue("DEEPSTOP_BUILDS", &given);
        const char* script = "import glob,json,sys,jsonschema\n"
                             "v=jsonschema.Draft7Validator(json.load(open(sys.argv[1])))\n"
                             "print(all(v.is_valid(json.load(open(f))) for f in glob.glob(sys.argv[2]+'/*.deepstop')))\n";
        // A few at a time: it is slow, and its answer is waited for.
        const int all = given ? wanted : 6;
        for (int i = 0; i < all;) {
            QTemporaryDir folder;
            for (const int end = std::min(all, i + 50); i < end; ++i)
                files::replaceFile(folder.filePath(QString("%1.deepstop").arg(i)).toStdString(),
                    files::writeBuild({ randomBuild(static_cast<unsigned>(i)), nullptr }));
            QCOMPARE(answerOf("/usr/bin/python3", { "-c", script, DEEPSTOP_DATA "/schema/build-3.schema.json", folder.path() }).trimmed(),
                QByteArray("True"));
        }
    }

    /// The demos as version 2 wrote them are the demos of today.
    void version2OpensWithoutLoss()
    {
        for (const char* name : demos) {
            const auto file = files::loadBuild(std::string(DEEPSTOP_TESTS "/data/version-2/") + name + ".deepstop");
            QVERIFY2(!file.unknown, name);
            // But for what version 2 could not say, and the pistons that the demos have said since.
            Build today = demo(name);
            Build then = file.build;
            for (KeepOut& place : today.frontHub.keepOuts)
                place.clock = {};
            for (Setup& setup : today.setups) {
                setup.purchases.clear();
                setup.questions.clear();
                setup.instructions = YesNo::Unknown;
                for (auto* corner : { &setup.front, &setup.rear })
                    if (*corner) {
                        (*corner)->hose.chain.clear();
                        (*corner)->hose.heldAtStrut = (*corner)->hose.grommet = YesNo::Unknown;
                        (*corner)->pad.ends = PadEnds::Unknown;
                        for (Joint& joint : (*corner)->joints) {
                            joint.fastener = Fastener::Unknown;
                            joint.nut = NutKind::Unknown;
                            joint.nutClass = NutClass::Unknown;
                            joint.underNut = ThreadIn::Unknown;
                            joint.washers = WashersUnder::Unknown;
                        }
                    }
            }
            for (Build* build : { &today, &then })
                for (Setup& setup : build->setups)
                    for (auto* corner : { &setup.front, &setup.rear })
                        if (*corner) {
                            (*corner)->caliper.pistonMaterial = {};
                            for (Joint& joint : (*corner)->joints) {
                                joint.joins = Joins::Unknown;
                                joint.id = {};
                            }
                        }
            QVERIFY2(then == today, name);
        }
    }

    /// Every word that version 2 could write, one a line with its place, has its token in the same place.
    void everyWordOfVersion2HasItsToken()
    {
        std::istringstream lines(files::readFile(DEEPSTOP_TESTS "/data/version-2/words.txt"));
        std::set<std::pair<std::string, std::string>> tokens;
        eachWord(files::buildSchema(), {}, [&](const std::string& at, const std::string& word) { tokens.emplace(at, word); });
        int words = 0;
        for (std::string line; std::getline(lines, line); ++words) {
            const auto cut = line.find(": ");
            QVERIFY2(tokens.contains({ line.substr(0, cut), files::tokenOfWord(line.substr(cut + 2)) }), line.c_str());
        }
        QVERIFY(words > 200);
        for (const auto& [at, token] : tokens)
            QVERIFY2(token.find_first_of(" ,'") == std::string::npos, token.c_str());
    }
};

DEEPSTOP_TEST(FormatTest)
#include "format_test.moc"
