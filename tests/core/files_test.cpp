#include "build/address.hpp"
#include "core/support.hpp"
#include "files/build_file.hpp"
#include "files/disk.hpp"

#include <QElapsedTimer>
#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <nlohmann/json.hpp>

#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace deepstop;
using nlohmann::json;

namespace {

json demoJson() { return json::parse(files::readFile(DEEPSTOP_DATA "/demo/halden-merle.deepstop")); }

std::string refusalOf(const std::string& text)
{
    try {
        (void)files::parseBuild(text);
    } catch (const files::Refusal& refusal) {
        return refusal.what();
    }
    return {};
}

} // namespace

class FilesTest : public QObject {
    Q_OBJECT
private slots:
    void theDemosComeBackAsTheyWent_data()
    {
        QTest::addColumn<QString>("name");
        QTest::newRow("Halden Merle") << "halden-merle";
        QTest::newRow("Linnet") << "linnet";
        QTest::newRow("Drover Camper") << "drover-camper";
    }
    void theDemosComeBackAsTheyWent()
    {
        QFETCH(QString, name);
        const auto first = files::loadBuild(std::string(DEEPSTOP_DATA "/demo/") + name.toStdString() + ".deepstop");
        const auto text = files::writeBuild(first);
        const auto again = files::parseBuild(text);
        QCOMPARE(files::writeBuild(again), text);
        QVERIFY(again.build == first.build);
        QVERIFY(!first.unknown);
    }

    void thePublishedSchemaIsTheOneInUse()
    {
        QVERIFY(json::parse(files::readFile(DEEPSTOP_DATA "/schema/build-3.schema.json")) == files::buildSchema());
    }

    /// Source: python3-jsonschema, an independent validator of JSON Schema.
    void anotherValidatorAcceptsTheDemoAndRefusesABadThickness()
    {
        const char* script = "import json,sys,jsonschema\n"
                             "s=json.load(open(sys.argv[1])); d=json.load(open(sys.argv[2]))\n"
                             "jsonschema.Draft7Validator.check_schema(s); v=jsonschema.Draft7Validator(s)\n"
                             "ok=v.is_valid(d)\n"
                             "d['setups'][0]['front']['rotor']['thickness_mm']={'value':-1}\n"
                             "print(ok, v.is_valid(d))\n";
        QCOMPARE(answerOf("/usr/bin/python3",
                     { "-c", script, DEEPSTOP_DATA "/schema/build-3.schema.json", DEEPSTOP_DATA "/demo/halden-merle.deepstop" })
                     .trimmed(),
            QByteArray("True False"));
    }

    void keysItDoesNotKnowSurvive()
    {
        auto j = demoJson();
        j["diary"] = { { { "text", "first drive" } } };
        j["car"]["colour"] = "grey";
        j["setups"][1]["front"]["rotor"]["thickness_mm"]["checked_by"] = "a friend";
        j["setups"][1]["front"]["caliper"]["pistons_mm"][1]["seal"] = "square";
        j["wheels"][2]["tyre"] = { { "age", 3 } };
        auto file = files::parseBuild(j.dump());
        const Build before = file.build;
        // An edit and a wheel put first: what is unknown stays with its owner.
        file.build = withReading(file.build, "/setups/1/front/rotor/thickness_mm", { 0.0279, {}, Known::Measured, "micrometer", {} });
        std::swap(file.build.wheels[0], file.build.wheels[2]);
        file.unknown = files::movedAlong(file.unknown, before, file.build);
        const auto out = json::parse(files::writeBuild(file));
        QVERIFY(out["diary"] == j["diary"]);
        QVERIFY(out["car"]["colour"] == json("grey"));
        QVERIFY(out["setups"][1]["front"]["rotor"]["thickness_mm"]["checked_by"] == json("a friend"));
        QVERIFY(out["setups"][1]["front"]["rotor"]["thickness_mm"]["value"] == json(27.9));
        QVERIFY(out["setups"][1]["front"]["caliper"]["pistons_mm"][1]["seal"] == json("square"));
        QVERIFY(out["wheels"][0]["tyre"] == json({ { "age", 3 } }));
        QVERIFY(!out["wheels"][2].contains("tyre"));
    }

    void aBareNumberCountsAsEstimated()
    {
        auto j = demoJson();
        j["car"]["mass_kg"] = 1500;
        const auto build = files::parseBuild(j.dump()).build;
        QCOMPARE(*build.car.mass.value, 1500.0);
        QCOMPARE(build.car.mass.known, Known::Estimated);
    }

    void refusesWithPlaceAndExpectation_data()
    {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QByteArrayList>("said");
        const auto whole = QByteArray::fromStdString(demoJson().dump(1));
        const auto with = [](const char* pointer, const json& value) {
            auto j = demoJson();
            j[json::json_pointer(pointer)] = value;
            return QByteArray::fromStdString(j.dump());
        };
        const auto row = [](const char* name, const QByteArray& text, const QByteArrayList& said) { QTest::newRow(name) << text << said; };
        row("empty", "", { "empty" });
        row("blank", " \n", { "empty" });
        row("truncated", whole.left(whole.size() / 2), { "line", "cut off" });
        row("not UTF-8", whole.left(200) + "\xc3\x28" + whole.mid(200), { "line", "UTF-8" });
        row("Latin 1", "{\"deepstop\":1,\"car\":{\"name\":\"\xe9\"}}", { "UTF-8" });
        row("not JSON", "hello", { "line 1, column 1", "not JSON" });
        row("NaN", "{\"deepstop\":1,\"setups\":[{\"id\":\"a\"}],\"car\":{\"mass_kg\":NaN}}", { "line 1", "not JSON" });
        row("too large a number", "{\"deepstop\":1,\"car\":{\"mass_kg\":1e999}}", { "line 1, column", "1e999", "beyond" });
        row("a byte after the end", whole + QByteArray("\0x", 2), { "line", "zero byte" });
        row("something after the end", whole + "x", { "line", "not JSON" });
        row("a control character", with("/car/name", "bell\u0007"), { "line", "bell", "control character" });
        row("a rotor of 3 m", with("/setups/1/front/rotor/outer_diameter_mm/value", 3000),
            { "/setups/1/front/rotor/outer_diameter_mm/value", "3000", "from 10 to 2000" });
        row("too many pistons", with("/setups/1/front/caliper/pistons_mm", json::array_t(25, 40.0)),
            { "/setups/1/front/caliper/pistons_mm", "at most 24" });
        row("a list", "[1,2]", { "not a build file" });
        row("no version", "{\"setups\":[]}", { "/deepstop" });
        row("later version", with("/deepstop", files::buildVersion + 1), { "/deepstop", "later" });
        row("no setups", "{\"deepstop\":1}", { "/setups" });
        row("empty setups", "{\"deepstop\":1,\"setups\":[]}", { "/setups" });
        row("negative thickness", with("/setups/1/front/rotor/thickness_mm/value", -28),
            { "/setups/1/front/rotor/thickness_mm", "-28", "mm", "from 0.1 to 500" });
        row("bare negative", with("/setups/1/front/rotor/thickness_mm", -28), { "/setups/1/front/rotor/thickness_mm", "mm" });
        row("text for a number", with("/car/mass_kg/value", "heavy"), { "/car/mass_kg/value", "heavy", "kg" });
        row("wrong type", with("/setups/0/front/rotor", 7), { "/setups/0/front/rotor", "7", "object" });
        row("unknown word", with("/setups/0/front/brakes", "shiny"), { "/setups/0/front/brakes", "shiny", "drums" });
        row("unknown wheel", with("/setups/0/front/wheel", "w99"), { "/setups/0/front/wheel", "w99" });
        row("id twice", with("/setups/1/id", "as-found"), { "/setups/1/id", "as-found" });
        row("unknown setup", with("/mock_ups/0/setup", "nobody"), { "/mock_ups/0/setup", "nobody" });
        row("key twice", "{\"deepstop\":1,\"setups\":[{\"id\":\"a\"}],\"car\":{},\n\"car\":{}}", { "line 2, column 5", "car", "twice" });
        row("deeply nested", QByteArray(100000, '[') + QByteArray(100000, ']'), { "line 1, column 33", "nests deeper" });
        row("deeply nested, unended", QByteArray(4000000, '['), { "nests deeper" });
    }
    void refusesWithPlaceAndExpectation()
    {
        QFETCH(QByteArray, text);
        QFETCH(QByteArrayList, said);
        const auto refusal = QByteArray::fromStdString(refusalOf(text.toStdString()));
        QVERIFY(!refusal.isEmpty());
        QVERIFY2(!refusal.contains('\n') && refusal.size() < 400, refusal.constData());
        for (const auto& part : said)
            QVERIFY2(refusal.contains(part), refusal.constData());
    }

    void everySingleFieldRefusesAWordWhereItsNumberBelongs()
    {
        const auto build = demo();
        auto whole = demoJson();
        // What a logger wrote is long and no reading.
        for (auto& session : whole["tests"])
            for (auto& stop : session["stops"])
                stop.erase("course");
        int tried = 0;
        const Directory directory(build);
        for (const auto& entry : directory.entries()) {
            if (!entry.reading->value || isOneOfMany(entry.address.pointer) || !whole.contains(json::json_pointer(entry.address.pointer)))
                continue;
            auto j = whole;
            j[json::json_pointer(entry.address.pointer)] = "x";
            const auto refusal = refusalOf(j.dump());
            QVERIFY2(refusal.find(entry.address.pointer) != std::string::npos, (entry.address.pointer + " → " + refusal).c_str());
            ++tried;
        }
        QVERIFY(tried > 150);
    }

    /// Bytes of the demo changed, cut and doubled at random: refused in one line, or taken and studied; never anything else.
    void aDamagedFileIsRefusedOrStudied()
    {
        const auto whole = files::readFile(DEEPSTOP_DATA "/demo/linnet.deepstop");
        int taken = 0;
        for (int i = 0; i < 1500; ++i) {
            auto text = whole;
            for (int n = among(1, 4); n > 0; --n) {
                const auto at = std::size_t(among(0, int(text.size()) - 1));
                switch (among(0, 3)) {
                case 0:
                    text[at] = char(among(0, 255));
                    break;
                case 1:
                    text[at] = "0123456789-.eE\"{}[],:"[among(0, 20)];
                    break;
                case 2:
                    text.erase(at, std::size_t(among(1, 40)));
                    break;
                case 3:
                    text.insert(at, text.substr(std::size_t(among(0, int(text.size()) - 1)), std::size_t(among(1, 60))));
                    break;
                }
            }
            try {
                const auto file = files::parseBuild(text);
                ++taken;
                for (const Verdict& v : study(file.build).verdicts)
                    QVERIFY(!v.reason.empty());
                QVERIFY(files::parseBuild(files::writeBuild(file)).build == file.build);
            } catch (const files::Refusal& refusal) {
                QVERIFY2(!QByteArray(refusal.what()).contains('\n') && QByteArray(refusal.what()).size() < 400, refusal.what());
            }
        }
        QVERIFY2(taken > 20 && taken < 1400, qPrintable(QString::number(taken)));
    }

    /// Values of the demo replaced at random by numbers of any size: a study says something about each and never invents.
    void absurdNumbersAreStudiedToo()
    {
        const auto build = demo();
        const Directory directory(build);
        for (int i = 0; i < 400; ++i) {
            const auto& entry = directory.entries()[std::size_t(among(0, int(directory.entries().size()) - 1))];
            static constexpr double sizes[] { 1e-300, 1e-9, 1e-3, 1, 1e3, 1e9, 1e200 };
            auto changed = withReading(build, entry.address.pointer, { sizes[among(0, 6)], {}, Known::Measured, {}, {} });
            for (const Verdict& v : study(changed).verdicts) {
                QVERIFY2(!v.reason.empty(), (v.id + " at " + entry.address.pointer).c_str());
                QVERIFY(!v.figure.value || std::isfinite(*v.figure.value));
            }
        }
    }

    void permissionsOfTheFileAreKept()
    {
        QTemporaryDir dir;
        const auto path = dir.filePath("private.deepstop");
        files::replaceFile(path.toStdString(), "one");
        QFile::setPermissions(path, QFile::ReadOwner | QFile::WriteOwner);
        files::replaceFile(path.toStdString(), "two");
        QCOMPARE(QFile::permissions(path) & (QFile::ReadGroup | QFile::ReadOther | QFile::WriteGroup), QFile::Permissions());
    }

    void aHugeFileIsRefusedBeforeItIsRead()
    {
        QTemporaryDir dir;
        const auto path = dir.filePath("huge.deepstop");
        QFile file(path);
        QVERIFY(file.open(QIODevice::WriteOnly));
        QVERIFY(file.resize(200 << 20)); // sparse: nothing of it could be read as JSON in time
        file.close();
        try {
            (void)files::loadBuild(path.toStdString());
            QFAIL("was taken");
        } catch (const files::Refusal& refusal) {
            QVERIFY2(QByteArray(refusal.what()).contains("200 MB"), refusal.what());
        }
        QCOMPARE(QFile(path).size(), qint64(200 << 20));
    }

    void aFolderOrAPipeIsNoFile()
    {
        for (const char* path : { "/", "/dev/zero", "/nonexistent/x.deepstop" })
            QVERIFY_EXCEPTION_THROWN((void)files::loadBuild(path), files::Refusal);
    }

    void savingKeepsTheVersionBefore()
    {
        QTemporaryDir dir;
        const auto path = dir.filePath("a.deepstop").toStdString();
        files::replaceFile(path, "one");
        QVERIFY(!QFile::exists(QString::fromStdString(path + "~")));
        files::replaceFile(path, "two");
        files::replaceFile(path, "three");
        QCOMPARE(files::readFile(path), std::string("three"));
        QCOMPARE(files::readFile(path + "~"), std::string("two"));
        QCOMPARE(QDir(dir.path()).entryList(QDir::Files | QDir::Hidden).size(), 2);
    }

    void savingThroughALinkKeepsTheLink()
    {
        QTemporaryDir dir;
        const auto real = dir.filePath("real.deepstop");
        const auto link = dir.filePath("link.deepstop");
        files::replaceFile(real.toStdString(), "one");
        QVERIFY(QFile::link(real, link));
        files::replaceFile(link.toStdString(), "two");
        QVERIFY(QFileInfo(link).isSymLink());
        QCOMPARE(files::readFile(real.toStdString()), std::string("two"));
    }

    void aSaveThatFailsLeavesTheOldFile()
    {
        QVERIFY_EXCEPTION_THROWN(files::replaceFile("/nonexistent/folder/a.deepstop", "x"), files::Refusal);
        QVERIFY_EXCEPTION_THROWN(files::replaceFile("/proc/a.deepstop", "x"), files::Refusal);
    }

    /// A child saves two versions in turn as fast as it can and is killed at a random moment, 100 times.
    void killedDuringASaveTheFileIsOldOrNew()
    {
        QTemporaryDir dir;
        const auto path = dir.filePath("k.deepstop").toStdString();
        auto file = files::loadBuild(DEEPSTOP_DATA "/demo/halden-merle.deepstop");
        const auto versionA = files::writeBuild(file);
        file.build.car.name = std::string(3000, 'B');
        const auto versionB = files::writeBuild(file);
        files::replaceFile(path, versionA);
        int sawA = 0;
        int sawB = 0;
        for (int round = 0; round < 100; ++round) {
            const pid_t child = ::fork();
            QVERIFY(child >= 0);
            if (child == 0) {
                for (int i = 0;; ++i)
                    files::replaceFile(path, i % 2 == 0 ? versionB : versionA);
            }
            ::usleep(static_cast<useconds_t>(among(0, 12000)));
            ::kill(child, SIGKILL);
            int status = 0;
            ::waitpid(child, &status, 0);
            const auto now = files::readFile(path);
            sawA += now == versionA;
            sawB += now == versionB;
            QVERIFY2(now == versionA || now == versionB, "neither version");
            QVERIFY(!QFile::exists(QString::fromStdString(path + "~")) || files::readFile(path + "~") == versionA
                || files::readFile(path + "~") == versionB);
        }
        // The kills did fall into the saving, on both sides of it.
        QVERIFY2(sawA > 0 && sawB > 0, qPrintable(QString("%1 %2").arg(sawA).arg(sawB)));
    }
};

DEEPSTOP_TEST(FilesTest)
#include "files_test.moc"
