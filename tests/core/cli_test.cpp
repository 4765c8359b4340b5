/// The command line as its users call it.

#include "core/plain_parts.hpp"
#include "core/support.hpp"
#include "files/build_file.hpp"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <numbers>
#include <set>

using nlohmann::json;

using namespace deepstop;

namespace {

struct Ran {
    int code;
    QByteArray out;
    QByteArray err;
};

Ran cli(const QStringList& arguments)
{
    QProcess process;
    process.start(DEEPSTOP_CLI, arguments);
    if (!process.waitForFinished(60000))
        return { -1, {}, "did not end" };
    return { process.exitCode(), process.readAllStandardOutput(), process.readAllStandardError() };
}

json calc(QStringList arguments)
{
    arguments.prepend("calc");
    arguments << "--json";
    const auto ran = cli(arguments);
    return ran.code == 0 ? json::parse(ran.out.toStdString()) : json { { "error", ran.err.toStdString() } };
}

const QString merle = DEEPSTOP_DATA "/demo/halden-merle.deepstop";

} // namespace

class CliTest : public QObject {
    Q_OBJECT
private slots:
    /// Kits that go, one of them into the build, and why another does not.
    /// A scanned wheel: shown, held against what was measured, put into a build; contradicted, damaged, refused.
    void scanAKnuckle()
    {
        QTemporaryDir folder;
        const PlainKnuckle plain;
        const QString scan = folder.filePath("knuckle.stl");
        QFile out(scan);
        const std::string bytes = stlOf(plain.mesh());
        QVERIFY(out.open(QIODevice::WriteOnly) && out.write(bytes.data(), static_cast<qint64>(bytes.size())) > 0);
        out.close();
        const QString build = folder.filePath("mine.deepstop");
        QVERIFY(QFile::copy(merle, build));
        QFile::setPermissions(build, QFile::ReadOwner | QFile::WriteOwner);
        QStringList words { "scan", "knuckle", scan, "--json", "--keep-out", "hose=40,60,50", "--into", build };
        const auto round = [&](const char* option, double x, double y, double z, double r) {
            for (const double angle : { 0.4, 2.5, 4.6 })
                words << QStringLiteral("%1=%2,%3,%4").arg(option).arg(x + r * std::cos(angle)).arg(y + r * std::sin(angle)).arg(z);
        };
        round("--flange", 0, 0, 0, 50);
        round("--pilot", 0, 0, -4, plain.pilot);
        round("--lug", -plain.spacing / 2, plain.radius, plain.depth, plain.hole);
        auto lacking = words;
        QCOMPARE(cli(lacking).code, 2); // one lug
        round("--lug", plain.spacing / 2, plain.radius, plain.depth, plain.hole);
        auto wrong = words;
        wrong << "--pilot-diameter"
              << "64";
        const auto refused = cli(wrong);
        QCOMPARE(refused.code, 2);
        QVERIFY2(refused.err.contains("do not agree"), refused.err);
        words << "--pilot-diameter" << QString::number(2 * plain.pilot);
        const auto ran = cli(words);
        QVERIFY2(ran.code == 0, ran.err);
        const auto found = json::parse(ran.out.toStdString());
        QVERIFY(std::abs(found["lug_spacing_mm"]["value"].get<double>() - plain.spacing) < 0.1);
        QVERIFY(std::abs(found["lug_depth_mm"]["value"].get<double>() - plain.depth) < 0.1);
        QVERIFY(std::abs(found["keep_outs"][0]["radius_mm"].get<double>() - std::hypot(40, 60)) < 0.1);
        QVERIFY(found["trusted"].get<bool>());
        const auto changed = files::loadBuild(build.toStdString()).build;
        QCOMPARE(changed.frontHub.scan, std::string("knuckle.stl"));
        QCOMPARE(changed.frontHub.keepOuts.back().depth.instrument, std::string("scan"));
    }

    void scanAWheel()
    {
        QTemporaryDir folder;
        const auto written = [&](const char* name, const std::string& bytes) {
            QFile out(folder.filePath(name));
            if (!out.open(QIODevice::WriteOnly) || out.write(bytes.data(), static_cast<qint64>(bytes.size())) < 0)
                qFatal("no scan");
            return out.fileName();
        };
        const QString scan = written("wheel.stl", stlOf(PlainWheel {}.mesh(1 / 25.4)));
        const QString build = folder.filePath("mine.deepstop");
        QVERIFY(QFile::copy(merle, build));
        QFile::setPermissions(build, QFile::ReadOwner | QFile::WriteOwner);
        const auto ran = cli({ "scan", "wheel", scan, "--known", "bore=66.6mm", "--json", "--into", build, "--wheel", "scanned" });
        QVERIFY2(ran.code == 0, ran.err);
        const auto found = json::parse(ran.out.toStdString());
        QCOMPARE(found["units"].get<std::string>(), std::string("in"));
        QCOMPARE(found["holes"].get<int>(), 5);
        QCOMPARE(found["spoke_count"].get<int>(), 5);
        QVERIFY(std::abs(found["bolt_circle_mm"].get<double>() - 112) < 0.1);
        QVERIFY(found["scale"]["agrees"].get<bool>());
        QVERIFY(found["barrel"].size() > 40 && found["spokes"].size() > 20 && found["offset_mm"].is_null());
        const PlainWheel plain;
        for (const auto& b : found["barrel"])
            QVERIFY(b["inside_radius_mm"].get<double>() - b["plus_minus"].get<double>() < plain.insideAt(b["depth_mm"]) + 0.01);
        const auto changed = files::loadBuild(build.toStdString()).build;
        const Wheel* wheel = findWheel(changed, "scanned");
        QVERIFY(wheel && wheel->barrel.size() > 2);
        QCOMPARE(wheel->scan, std::string("wheel.stl"));
        QCOMPARE(wheel->barrel[0].insideRadius.known, Known::Measured);

        // A bore that is not the scan's: said, and nothing is put in.
        const auto wrong = cli({ "scan", "wheel", scan, "--known", "bore=65mm", "--into", build, "--wheel", "other" });
        QCOMPARE(wrong.code, 2);
        QVERIFY2(wrong.err.contains("do not agree"), wrong.err);
        QCOMPARE(cli({ "scan", "wheel", scan, "--known", "bore=65mm" }).code, 1);
        QVERIFY(!findWheel(files::loadBuild(build.toStdString()).build, "other"));
        const auto corrected = cli({ "scan", "wheel", scan, "--known", "bore=65mm", "--correct", "--json" });
        QCOMPARE(corrected.code, 0);
        QVERIFY(std::abs(json::parse(corrected.out.toStdString())["bolt_circle_mm"].get<double>() - 112 * 65 / 66.6) < 0.2);
        for (const auto& [arguments, why] : { std::pair { QStringList { "scan", "wheel", written("a.stl", "PK\x03\x04") }, "unpack" },
                 std::pair { QStringList { "scan", "wheel", scan, "--known", "bore" }, "--known" },
                 std::pair { QStringList { "scan", "wheel", scan, "--correct" }, "--known" },
                 std::pair { QStringList { "scan", "wheel", scan, "--units", "m" }, "no road wheel" },
                 std::pair { QStringList { "scan", "rotor", scan }, "no STEP" },
                 std::pair { QStringList { "scan", "caliper", scan, "--rotor", "330", "--drop", "40" }, "--hole" } }) {
            const auto refused = cli(arguments);
            QCOMPARE(refused.code, 2);
            QVERIFY2(refused.err.contains(why), refused.err);
            QCOMPARE(refused.err.trimmed().count('\n'), 0);
        }
    }

    void searchTheLibrary()
    {
        QTemporaryDir folder;
        QFile shipped(DEEPSTOP_DATA "/library/parts.json");
        QVERIFY(shipped.open(QIODevice::ReadOnly));
        auto library = json::parse(shipped.readAll().toStdString());
        for (const auto& [shelf, like] : { std::pair { "rotors", "3" }, { "calipers", "four-piston" }, { "pads", "track" } }) {
            auto some = json::array();
            for (const auto& one : library[shelf])
                if (one["id"].get<std::string>().find(like) != std::string::npos && some.size() < 8)
                    some.push_back(one);
            library[shelf] = some;
        }
        const QString parts = folder.filePath("parts.json");
        QFile out(parts);
        QVERIFY(out.open(QIODevice::WriteOnly));
        out.write(QByteArray::fromStdString(library.dump()));
        out.close();
        const QString into = folder.filePath("with.deepstop");
        const auto ran =
            cli({ "search", merle, "--library", parts, "--wheels", "w17", "--keep-master", "--json", "--into", into, "--pick", "2" });
        QVERIFY2(ran.code == 0, ran.err);
        const auto found = json::parse(ran.out.toStdString());
        QCOMPARE(found["combinations"].get<std::size_t>(), library["rotors"].size() * library["calipers"].size() * library["pads"].size());
        auto left = found["combinations"].get<std::int64_t>();
        for (const auto& check : found["funnel"]) {
            left -= check["lost"].get<std::int64_t>();
            QCOMPARE(check["left"].get<std::int64_t>(), left);
        }
        QCOMPARE(found["go"].get<std::int64_t>(), left);
        QVERIFY(found["front"].size() >= 2);
        for (const char* key : { "rotor", "caliper", "pad", "wheel", "master", "weight_kg", "heat_margin_K", "hot_stop_m", "clearance_mm",
                 "effort_N", "price", "levels" })
            QVERIFY2(found["front"][0].contains(key), key);
        // What the wheel leaves at worst is in millimetres.
        QVERIFY(found["front"][0]["clearance_mm"].get<double>() > 0.1);
        QCOMPARE(cli({ "check", into }).code, 0);
        const auto build = [&] {
            QFile file(into);
            return file.open(QIODevice::ReadOnly) ? json::parse(file.readAll().toStdString()) : json();
        }();
        QVERIFY(build["setups"].back()["front"]["rotor"]["from"] == found["front"][1]["rotor"]);

        const auto why = cli({ "search", merle, "--library", parts, "--why",
            QString::fromStdString(fmt::format("{}/{}/{}/w17", found["front"][0]["rotor"].get<std::string>(),
                found["front"][0]["caliper"].get<std::string>(), found["front"][0]["pad"].get<std::string>())) });
        QVERIFY2(why.code == 0 && why.out.contains("It goes."), why.out);
        const auto wrong = cli({ "search", merle, "--library", parts, "--why", "a/b/c/w17" });
        QVERIFY2(wrong.code == 2 && wrong.err.contains("rotor") && wrong.err.count('\n') == 1, wrong.err);
        const auto none = cli({ "search", merle, "--library", parts, "--wheels", "w17", "--limit", "price=1" });
        QVERIFY2(none.code == 1 && none.out.contains("limit/price"), none.out);
        QCOMPARE(cli({ "search", merle, "--limit", "beauty=1" }).code, 2);
        QCOMPARE(cli({ "search", merle, "--wheels", "w99" }).code, 2);
    }
    void stop()
    {
        const auto a = calc({ "stop", "speed=35mph", "distance=5m", "grip=1.1" });
        QVERIFY(a["name"] == json("stop"));
        QVERIFY(near(a["results"]["mean_deceleration_mps2"], std::pow(35 * 0.44704, 2) / 10, 1e-12));
        QVERIFY(near(a["results"]["mean_deceleration_g"], std::pow(35 * 0.44704, 2) / 10 / 9.80665, 1e-12));
        QVERIFY(near(a["results"]["duration_s"], 10 / (35 * 0.44704), 1e-12));
        QVERIFY(a["results"]["plausible"] == json(false));
        QVERIFY(near(a["inputs"]["speed_mps"], 35 * 0.44704, 1e-12));
        for (const char* key : { "name", "inputs", "results", "notes", "source" })
            QVERIFY(a.contains(key));
        QVERIFY(calc({ "stop", "speed=60 mph", "distance=45", "grip=1.1 g" })["results"]["plausible"] == json(true));
        QVERIFY(calc({ "stop", "speed=60 mph", "distance=45" })["results"]["plausible"] == json(nullptr));
        // What would make it true: the shortest stop of such tyres from there, and the speed that fits the distance.
        const double speed = 35 * 0.44704;
        const double most = 1.1 * 9.80665;
        QVERIFY(near(a["results"]["shortest_m"], speed * speed / (2 * most), 1e-12));
        QVERIFY(near(a["results"]["speed_that_fits_mps"], std::sqrt(2 * most * 5), 1e-12));
        QVERIFY(calc({ "stop", "speed=60 mph", "distance=45" })["results"]["shortest_m"] == json(nullptr));
        QVERIFY(a["notes"].dump().find("dashboard") != std::string::npos);
    }
    void symptoms()
    {
        const auto listed = cli({ "symptom", "--list" });
        QVERIFY(listed.code == 0 && listed.out.contains("long-pedal"));
        const auto asked = cli({ "symptom", merle, "long-pedal", "--json" });
        QCOMPARE(asked.code, 0);
        const auto out = json::parse(asked.out.toStdString());
        QVERIFY(out["causes"].size() > 5);
        for (const auto& cause : out["causes"])
            for (const char* key : { "cause", "test", "reading" })
                QVERIFY(cause.contains(key) && !cause[key].get<std::string>().empty());
        const auto wrong = cli({ "symptom", merle, "wobbles" });
        QVERIFY(wrong.code == 2 && wrong.err.contains("is not one of") && wrong.err.contains("judder"));
        QCOMPARE(cli({ "symptom" }).code, 2);
        QCOMPARE(cli({ "symptom", "/no/such.deepstop", "judder" }).code, 2);
    }
    void heatRise()
    {
        const auto a =
            calc({ "heat-rise", "mass=1460 kg", "from=100km/h", "to=0", "ring-mass=16.5 lb", "share=35 %", "specific-heat=500" });
        const double energy = 0.5 * 1460 * std::pow(100 / 3.6, 2);
        QVERIFY(near(a["results"]["energy_J"], energy, 1e-12));
        QVERIFY(near(a["results"]["temperature_rise_K"], 0.35 * energy / (16.5 * 0.45359237 * 500), 1e-12));
        QVERIFY(near(calc({ "heat-rise", "mass=1000", "from=72", "to=36", "ring-mass=10" })["results"]["temperature_rise_K"],
            150000.0 / 4800, 1e-12));
    }
    void effectiveRadius()
    {
        const auto a = calc({ "effective-radius", "rotor-od=330", "pad-height=48", "inset=1" });
        const double ro = 0.164, ri = 0.116;
        QVERIFY(near(a["results"]["mean_radius_m"], 0.140, 1e-12));
        QVERIFY(near(a["results"]["uniform_pressure_radius_m"], 2.0 / 3 * (ro * ro * ro - ri * ri * ri) / (ro * ro - ri * ri), 1e-12));
    }
    void shims()
    {
        const auto a = calc({ "shims", "target=1.75", "drawer=0.25x4,0.5x4,1mmx2,0.030 in x 2" });
        QVERIFY(a["results"]["count"] == json(3));
        QVERIFY(near(a["results"]["total_m"], 1.75e-3, 1e-9));
        QCOMPARE(a["results"]["stack"].size(), std::size_t(3));
        QVERIFY(std::abs(a["results"]["residual_m"].get<double>()) < 1e-12);
        QVERIFY(calc({ "shims", "target=2.2 mm", "drawer=2x1,0.25x4", "tolerance=0.25" })["results"]["count"] == json(1));
    }
    /// Common practice: 7.2 → 20.5 mm is 13.3 mm.
    void offset()
    {
        const auto a = calc({ "offset", "et=40", "hat-before=7.2", "hat-after=20.5" });
        QVERIFY(near(a["results"]["outboard_shift_m"], 13.3e-3, 1e-12));
        QVERIFY(near(a["results"]["effective_offset_m"], 26.7e-3, 1e-12));
    }
    /// Common practice: 155 lb in = 17.5 N·m, 55 lb ft = 74.6, 40 lb ft = 54.2.
    void convert_data()
    {
        QTest::addColumn<QString>("value");
        QTest::addColumn<QString>("to");
        QTest::addColumn<double>("expected");
        QTest::addColumn<double>("tolerance");
        QTest::newRow("155 lb in") << "155 lb in"
                                   << "N·m" << 17.5 << 0.05;
        QTest::newRow("55 lb ft") << "55 lb ft"
                                  << "N·m" << 74.6 << 0.05;
        QTest::newRow("40 lb ft") << "40 lb ft"
                                  << "Nm" << 54.2 << 0.05;
        QTest::newRow("grams are mass") << "500 g"
                                        << "kg" << 0.5 << 1e-12;
        QTest::newRow("g is acceleration") << "2 g"
                                           << "m/s²" << 19.6133 << 1e-9;
        QTest::newRow("to g") << "9.80665 m/s2"
                              << "g" << 1.0 << 1e-12;
        QTest::newRow("fahrenheit") << "212 °F"
                                    << "°C" << 100.0 << 1e-9;
        QTest::newRow("fraction") << "1-1/8 in"
                                  << "mm" << 28.575 << 1e-9;
        QTest::newRow("compound") << "11 lb 2 oz"
                                  << "kg" << 5.046215 << 1e-6;
        QTest::newRow("pounds of force") << "10 lbf"
                                         << "N" << 44.4822161526 << 1e-6;
    }
    void convert()
    {
        QFETCH(QString, value);
        QFETCH(QString, to);
        QFETCH(double, expected);
        QFETCH(double, tolerance);
        const auto a = calc({ "convert", "value=" + value, "to=" + to });
        QVERIFY2(a.contains("results"), a.dump().c_str());
        QVERIFY2(std::abs(a["results"]["value"].get<double>() - expected) <= tolerance, a.dump().c_str());
    }

    void badRequestsNameTheKeyAndExitTwo_data()
    {
        QTest::addColumn<QStringList>("arguments");
        QTest::addColumn<QByteArray>("named");
        QTest::newRow("no such sum") << QStringList { "calc", "nonsense" } << QByteArray("nonsense");
        QTest::newRow("missing key") << QStringList { "calc", "stop", "speed=35 mph" } << QByteArray("distance");
        QTest::newRow("unknown key") << QStringList { "calc", "stop", "speed=35", "distance=3", "colour=red" } << QByteArray("colour");
        QTest::newRow("bad value") << QStringList { "calc", "stop", "speed=fast", "distance=3" } << QByteArray("speed: “fast”");
        QTest::newRow("wrong unit") << QStringList { "calc", "stop", "speed=35 kg", "distance=3" } << QByteArray("a mass");
        QTest::newRow("zero") << QStringList { "calc", "stop", "speed=35", "distance=0" } << QByteArray("distance: must be more than 0");
        QTest::newRow("given twice") << QStringList { "calc", "stop", "speed=35", "speed=36", "distance=3" }
                                     << QByteArray("speed: is given twice");
        QTest::newRow("no equals") << QStringList { "calc", "stop", "35" } << QByteArray("key=value");
        QTest::newRow("faster after") << QStringList { "calc", "heat-rise", "mass=1", "from=1", "to=2", "ring-mass=1" }
                                      << QByteArray("to:");
        QTest::newRow("share") << QStringList { "calc", "heat-rise", "mass=1", "from=2", "to=1", "ring-mass=1", "share=3" }
                               << QByteArray("share");
        QTest::newRow("pad too high") << QStringList { "calc", "effective-radius", "rotor-od=100", "pad-height=60" }
                                      << QByteArray("pad-height");
        QTest::newRow("drawer") << QStringList { "calc", "shims", "target=1", "drawer=0.5" } << QByteArray("drawer: “0.5”");
        QTest::newRow("half a shim") << QStringList { "calc", "shims", "target=1", "drawer=0.5x1.5" } << QByteArray("whole number");
        QTest::newRow("unit without sense") << QStringList { "calc", "convert", "value=5 mm", "to=parsec" } << QByteArray("parsec");
        QTest::newRow("other dimension") << QStringList { "calc", "convert", "value=5 mm", "to=kg" } << QByteArray("value:");
        QTest::newRow("no file") << QStringList { "study", "/nonexistent.deepstop" } << QByteArray("/nonexistent.deepstop");
        QTest::newRow("no setup") << QStringList { "study", merle, "--setup", "x" } << QByteArray("varnik-330");
        QTest::newRow("no command") << QStringList {} << QByteArray("--help");
        QTest::newRow("a library that is not there") << QStringList { "fit", merle, "--library", "/nonexistent.json" }
                                                     << QByteArray("/nonexistent.json: there is no such parts library");
        QTest::newRow("a ring and a shim") << QStringList { "bracket", merle, "--ring", "--shim", "1 mm" } << QByteArray("--shim");
        QTest::newRow("an unknown word") << QStringList { "study", merle, "also" } << QByteArray("also");
        QTest::newRow("a second file") << QStringList { "check", merle, merle } << QByteArray("halden-merle");
        QTest::newRow("a terminal's commands") << QStringList { "study", merle, "--setup", "x\x1b[2J" } << QByteArray("\\x1b[2J");
        QTest::newRow("unknown option") << QStringList { "study", merle, "--loud" } << QByteArray("--loud");
    }
    void badRequestsNameTheKeyAndExitTwo()
    {
        QFETCH(QStringList, arguments);
        QFETCH(QByteArray, named);
        const auto ran = cli(arguments);
        QCOMPARE(ran.code, 2);
        QVERIFY2(ran.err.contains(named), ran.err.constData());
        QCOMPARE(ran.err.trimmed().count('\n'), 0);
        QVERIFY(ran.out.isEmpty());
    }

    /// The window's program and the simulated instruments refuse in one line, too.
    void theOtherProgramsRefuseInOneLine_data()
    {
        QTest::addColumn<QString>("program");
        QTest::addColumn<QStringList>("arguments");
        QTest::addColumn<QByteArray>("named");
        const QString window = DEEPSTOP_BIN "/deepstop";
        QTest::newRow("second file") << window << QStringList { merle, merle } << QByteArray("one build at a time");
        QTest::newRow("no such stage") << window << QStringList { "--stage", "garage" } << QByteArray("--stage garage");
        QTest::newRow("no such setup") << window << QStringList { merle, "--setup", "nobody" } << QByteArray("--setup nobody");
        QTest::newRow("no size") << window << QStringList { "--size", "big" } << QByteArray("--size big");
        const QString bench = DEEPSTOP_BENCH;
        QTest::newRow("port beyond") << bench << QStringList { "vernier", "--tcp", "70000" } << QByteArray("--tcp");
        QTest::newRow("port below") << bench << QStringList { "vernier", "--tcp", "-5" } << QByteArray("--tcp");
        QTest::newRow("no such instrument") << bench << QStringList { "ruler" } << QByteArray("ruler");
        QTest::newRow("no rate") << bench << QStringList { "vernier", "--rate", "0" } << QByteArray("--rate");
    }
    void theOtherProgramsRefuseInOneLine()
    {
        QFETCH(QString, program);
        QFETCH(QStringList, arguments);
        QFETCH(QByteArray, named);
        QProcess process;
        auto environment = QProcessEnvironment::systemEnvironment();
        QTemporaryDir own;
        environment.insert("XDG_RUNTIME_DIR", own.path()); // or the toolkit has something to say, too
        process.setProcessEnvironment(environment);
        process.start(program, arguments);
        QVERIFY(process.waitForFinished(20000));
        const auto said = process.readAllStandardError();
        QCOMPARE(process.exitCode(), 2);
        QVERIFY2(said.contains(named), said.constData());
        QCOMPARE(said.trimmed().count('\n'), 0);
    }

    void exitCodesTellWhatTheStudyFound()
    {
        QCOMPARE(cli({ "study", merle }).code, 0);
        QCOMPARE(cli({ "study", merle, "--setup", "varnik-355" }).code, 1);
        QCOMPARE(cli({ "check", merle }).code, 0);
        QVERIFY(cli({ "study", merle }).out.contains("2.6 mm at worst, 3.0 mm wanted"));
        QVERIFY(cli({ "study", merle, "--us" }).out.contains("0.101 in at worst"));
        QVERIFY(cli({ "study", merle }).out.contains("approves nothing"));
    }

    /// Source: python3-jsonschema validates what is printed against the published schema.
    void theStudysJsonSatisfiesItsSchema()
    {
        const char* script = "import json,sys,jsonschema\n"
                             "s=json.load(open(sys.argv[1])); jsonschema.Draft7Validator.check_schema(s)\n"
                             "d=json.load(sys.stdin); jsonschema.validate(d,s); print('valid',len(d['verdicts']))\n";
        for (const QStringList& arguments :
            { QStringList { "study", merle, "--json" }, QStringList { "study", merle, "--json", "--setup", "varnik-355" },
                QStringList { "study", QString(merle).replace("halden-merle", "linnet"), "--json" } }) {
            const auto printed = cli(arguments).out;
            const auto said = answerOf("/usr/bin/python3", { "-c", script, DEEPSTOP_DATA "/schema/study-2.schema.json" }, printed);
            QVERIFY(said.startsWith("valid"));
        }
    }

    void rotorMass()
    {
        // A solid ring by hand: π/4·(0.280² − 0.184²)·0.010·7200.
        QVERIFY(near(calc({ "rotor-mass", "od=280", "ring-id=184", "thickness=10" })["results"]["mass_kg"],
            std::numbers::pi / 4 * (0.280 * 0.280 - 0.184 * 0.184) * 0.010 * 7200, 1e-12));
        // Straight vanes counted are the same as their share said.
        const auto counted = calc({ "rotor-mass", "od=330", "ring-id=216", "thickness=28", "vent=10", "vanes=40", "vane-thickness=6" });
        const double share = 40 * 0.006 * 0.057 / (std::numbers::pi / 4 * (0.330 * 0.330 - 0.216 * 0.216));
        const auto said =
            calc({ "rotor-mass", "od=330", "ring-id=216", "thickness=28", "vent=10", QString("vane-share=%1").arg(share, 0, 'g', 15) });
        QVERIFY(near(counted["results"]["ring_mass_kg"], said["results"]["ring_mass_kg"], 1e-9));
        const auto whole =
            calc({ "rotor-mass", "od=330", "ring-id=216", "thickness=28", "vent=10", "vane-share=32%", "height=46", "hat-thickness=8",
                "hat-od=160", "hat-wall=8", "bore=66.7", "hat=aluminium", "holes=5", "hole=12.9", "hat-bolts=10", "hat-bolt=M6x1" });
        QVERIFY(near(whole["results"]["mass_kg"],
            whole["results"]["ring_mass_kg"].get<double>() + whole["results"]["hat_mass_kg"].get<double>(), 1e-12));
        QVERIFY(near(whole["results"]["heat_store_JpK"], whole["results"]["ring_mass_kg"].get<double>() * 480, 1e-12));
        for (const auto& bad : { QStringList { "rotor-mass", "od=200", "ring-id=216", "thickness=28" },
                 QStringList { "rotor-mass", "od=330", "ring-id=216", "thickness=28", "vent=10" },
                 QStringList { "rotor-mass", "od=330", "ring-id=216", "thickness=28", "height=46" },
                 QStringList { "rotor-mass", "od=330", "ring-id=216", "thickness=28", "vent=10", "vanes=900", "vane-thickness=6" } })
            QVERIFY2(calc(bad).contains("error"), qPrintable(bad.join(' ')));
    }

    void pistonAndPadArea()
    {
        const auto a = calc({ "piston-area", "pistons=38+42" });
        QVERIFY(near(a["results"]["area_one_side_m2"], std::numbers::pi / 4 * (0.038 * 0.038 + 0.042 * 0.042), 1e-12));
        QVERIFY(near(a["results"]["area_all_m2"], 2 * a["results"]["area_one_side_m2"].get<double>(), 1e-12));
        // A floating caliper's piston counts once, for the clamp and for the fluid.
        const auto b = calc({ "piston-area", "pistons=2.25in", "kind=floating" });
        QVERIFY(near(b["results"]["area_all_m2"], std::numbers::pi / 4 * std::pow(2.25 * 0.0254, 2), 1e-12)
            && near(b["results"]["area_one_side_m2"], b["results"]["area_all_m2"], 1e-12));
        QVERIFY(calc({ "piston-area", "pistons=38+" }).contains("error") && calc({ "piston-area", "pistons=-38" }).contains("error"));
        const auto p = calc({ "pad-area", "length=112", "height=48", "thickness=11", "minimum=2" });
        QVERIFY(near(p["results"]["area_m2"], 0.112 * 0.048, 1e-12) && near(p["results"]["volume_m3"], 0.112 * 0.048 * 0.009, 1e-12));
        QVERIFY(calc({ "pad-area", "length=112", "height=48" })["results"]["volume_m3"] == json(nullptr));
    }

    void cornerWeight()
    {
        const auto whole =
            calc({ "corner-weight", "rotor=8.33", "caliper=3.34", "pads=1.18", "bracket=1.24", "hardware=0.21", "hose=0.17" });
        QVERIFY(whole["results"]["complete"] == json(true) && near(whole["results"]["mass_kg"], 14.47, 1e-9));
        const auto bare = calc({ "corner-weight", "rotor=8.33", "caliper=3.34" });
        QVERIFY(bare["results"]["complete"] == json(false) && bare["results"]["mass_kg"] == json(nullptr)
            && near(bare["results"]["weighed_kg"], 11.67, 1e-9));
        QVERIFY(bare["notes"][0].get<std::string>().find("Lacks pads, bracket, hardware, hose") == 0);
    }

    void askNamesWhatIsMissingMostFirst()
    {
        const auto ran = cli({ "ask", merle, "--setup", "varnik-355", "--json" });
        QCOMPARE(ran.code, 0);
        const auto list = json::parse(ran.out.toStdString());
        QVERIFY(list.size() >= 10 && list[0]["verdicts"] >= list.back()["verdicts"]);
        for (const auto& one : list)
            for (const char* key : { "pointer", "what", "now", "take_with", "verdicts", "vendor_knows" })
                QVERIFY(one.contains(key));
        QVERIFY(cli({ "ask", merle, "--setup", "varnik-355", "--letter" }).out.contains("Please tell us"));
        QVERIFY(cli({ "ask", merle, "--setup", "varnik-355", "--sheet", "--us" }).out.contains("BENCH SHEET"));
        const auto refused = cli({ "ask", merle, "--setup", "nobody" });
        QVERIFY(refused.code == 2 && refused.err.contains("varnik-355"));
    }

    void importSaysWhatItTakesAndKeepsIt()
    {
        QTemporaryDir dir;
        QFile list(dir.filePath("pads.csv"));
        QVERIFY(list.open(QIODevice::WriteOnly));
        list.write("name,length_mm,height_mm,friction\nOne,112,48,0.4\nTwo,long,48,0.4\n");
        list.close();
        const auto dry = cli({ "import", "parts", list.fileName() });
        QCOMPARE(dry.code, 1);
        QVERIFY2(dry.out.contains("line 3: pad length") && dry.out.contains("1 pad taken, 1 lines refused"), dry.out);
        const auto into = dir.filePath("library.json");
        QCOMPARE(cli({ "import", "parts", list.fileName(), "--into", into, "--json" }).code, 1);
        QFile kept(into);
        QVERIFY(kept.open(QIODevice::ReadOnly));
        QVERIFY(json::parse(kept.readAll().toStdString())["pads"][0]["part"]["length_mm"]["value"] == json(112));
        QCOMPARE(cli({ "import", "parts", list.fileName(), "--kind", "engine" }).code, 2);
        QCOMPARE(cli({ "import", "parts", dir.filePath("nothing.csv") }).code, 2);
    }

    void everySumIsListedWithItsSource()
    {
        const auto list = json::parse(cli({ "calc", "--list", "--json" }).out.toStdString());
        std::set<std::string> names;
        for (const auto& sum : list) {
            names.insert(sum["name"]);
            QVERIFY(!sum["source"].get<std::string>().empty() && !sum["keys"].empty() && !sum["results"].empty());
        }
        for (const char* name : { "stop", "heat-rise", "effective-radius", "shims", "offset", "convert" })
            QVERIFY2(names.contains(name), name);
    }

    void templatesAreWrittenAndRefusedInOneLine()
    {
        QTemporaryDir dir;
        const auto pdf = dir.filePath("t.pdf"), svg = dir.filePath("t.svg"), dxf = dir.filePath("t.dxf");
        const auto made = cli({ "template", merle, "--pdf", pdf, "--svg", svg, "--dxf", dxf, "--paper", "letter" });
        QVERIFY2(made.code == 0 && made.out.contains("1 of Letter"), made.err);
        QVERIFY(QFileInfo(pdf).size() > 1000 && QFileInfo(svg).size() > 1000 && QFileInfo(dxf).size() > 1000);
        QCOMPARE(cli({ "template", merle, "--pdf", dir.filePath("s.pdf"), "--shield" }).code, 0);
        struct Bad {
            QStringList arguments;
            const char* says;
        };
        for (const Bad& bad :
            { Bad { { "template", merle }, "--pdf" }, Bad { { "template", merle, "--pdf", dir.filePath("x.txt") }, ".pdf" },
                Bad { { "template", merle, "--pdf", pdf, "--bar-across", "9.9" }, "outer ticks" },
                Bad { { "template", merle, "--pdf", pdf, "--bar-down", "wide" }, "--bar-down" },
                Bad { { "template", merle, "--pdf", pdf, "--setup", "none" }, "varnik-330" },
                Bad { { "template", merle, "--pdf", pdf, "--axle", "rear" }, "No template yet" },
                Bad { { "bracket", DEEPSTOP_DATA "/demo/linnet.deepstop", "--step", dir.filePath("b.step") }, "middle of the lugs" },
                Bad { { "bracket", merle, "--ring", "--step", dir.filePath("r.step") }, "no hub-face ring" },
                Bad { { "bracket", merle, "--step", dir.filePath("b.doc") }, ".step" },
                Bad { { "centre", merle, "--setup", "varnik-355" }, "mocked up" } }) {
            const auto ran = cli(bad.arguments);
            QVERIFY2(ran.code == 2, bad.arguments.join(' ').toUtf8());
            QVERIFY2(ran.err.trimmed().count('\n') == 0 && ran.err.contains(bad.says), ran.err);
        }
    }

    void wheelsAreListedBestFirst()
    {
        const auto ran = cli({ "fit", merle, "--json", "--library", DEEPSTOP_DATA "/library/parts.json" });
        QCOMPARE(ran.code, 0);
        const auto fit = json::parse(ran.out.toStdString());
        QVERIFY(fit["wheels"].size() > 10 && fit["wheels"][0]["level"] == json("clear"));
        QVERIFY(fit["cures"].size() >= 3);
        QVERIFY(fit["largest_rotor"]["diameter_m"].get<double>() > 0.32 && fit["largest_rotor"]["diameter_m"].get<double>() < 0.330);
        // On an axle whose wheel strikes the code says so.
        QCOMPARE(cli({ "fit", merle, "--setup", "varnik-355", "--wheels" }).code, 1);
        QVERIFY(cli({ "fit", merle, "--wheels" }).out.contains("Largest rotor"));
    }

    void centringAndTheBracketComeOut()
    {
        const auto ran = cli({ "centre", merle, "--json" });
        QCOMPARE(ran.code, 0);
        const auto centre = json::parse(ran.out.toStdString());
        QCOMPARE(centre["corners"].size(), std::size_t(2));
        QVERIFY(near(centre["corners"][0]["axial"]["value_m"], -0.45e-3, 1e-9));
        QVERIFY(near(centre["corners"][0]["plan"]["top"]["total_m"], 1e-3, 1e-9));
        QVERIFY(cli({ "centre", merle }).out.contains("put in:"));
        QTemporaryDir dir;
        const auto made = cli({ "bracket", merle, "--step", dir.filePath("b.step"), "--stl", dir.filePath("b.stl"), "--dxf",
            dir.filePath("b.dxf"), "--pdf", dir.filePath("b.pdf") });
        QVERIFY2(made.code == 0 && made.out.contains("qualified engineer"), made.err);
        QCOMPARE(QDir(dir.path()).entryList(QDir::Files).size(), 4);
        QVERIFY(cli({ "bracket", merle, "--shim", "30 thou", "--step", dir.filePath("s.step") }).code == 0);
        QVERIFY(cli({ "bracket", merle, "--shim", "thin", "--step", dir.filePath("s.step") }).err.contains("--shim"));
    }

    void hostileFilesAreRefusedAndLeftAlone()
    {
        QTemporaryDir dir;
        QFile huge(dir.filePath("huge.deepstop"));
        QVERIFY(huge.open(QIODevice::WriteOnly) && huge.resize(200 << 20));
        huge.close();
        QFile deep(dir.filePath("deep.deepstop"));
        QVERIFY(deep.open(QIODevice::WriteOnly));
        deep.write(QByteArray(3000000, '['));
        deep.close();
        for (const QString& path : { huge.fileName(), deep.fileName() }) {
            const auto before = QFileInfo(path).lastModified();
            const auto ran = cli({ "check", path });
            QCOMPARE(ran.code, 2);
            QCOMPARE(ran.err.trimmed().count('\n'), 0);
            QCOMPARE(QFileInfo(path).lastModified(), before);
        }
        QCOMPARE(QDir(dir.path()).entryList(QDir::Files).size(), 2);
    }
};

DEEPSTOP_TEST(CliTest)
#include "cli_test.moc"
