/// The command line as its users call it.

#include "core/support.hpp"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <nlohmann/json.hpp>

#include <numbers>
#include <set>

using nlohmann::json;

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
    }
    void heatRise()
    {
        const auto a = calc({ "heat-rise", "mass=1460 kg", "from=100km/h", "to=0", "ring-mass=16.5 lb", "share=35 %", "specific-heat=500" });
        const double energy = 0.5 * 1460 * std::pow(100 / 3.6, 2);
        QVERIFY(near(a["results"]["energy_J"], energy, 1e-12));
        QVERIFY(near(a["results"]["temperature_rise_K"], 0.35 * energy / (16.5 * 0.45359237 * 500), 1e-12));
        QVERIFY(near(calc({ "heat-rise", "mass=1000", "from=72", "to=36", "ring-mass=10" })["results"]["temperature_rise_K"], 150000.0 / 4800, 1e-12));
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
        QTest::newRow("155 lb in") << "155 lb in" << "N·m" << 17.5 << 0.05;
        QTest::newRow("55 lb ft") << "55 lb ft" << "N·m" << 74.6 << 0.05;
        QTest::newRow("40 lb ft") << "40 lb ft" << "Nm" << 54.2 << 0.05;
        QTest::newRow("grams are mass") << "500 g" << "kg" << 0.5 << 1e-12;
        QTest::newRow("g is acceleration") << "2 g" << "m/s²" << 19.6133 << 1e-9;
        QTest::newRow("to g") << "9.80665 m/s2" << "g" << 1.0 << 1e-12;
        QTest::newRow("fahrenheit") << "212 °F" << "°C" << 100.0 << 1e-9;
        QTest::newRow("fraction") << "1-1/8 in" << "mm" << 28.575 << 1e-9;
        QTest::newRow("compound") << "11 lb 2 oz" << "kg" << 5.046215 << 1e-6;
        QTest::newRow("pounds of force") << "10 lbf" << "N" << 44.4822161526 << 1e-6;
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
        QTest::newRow("given twice") << QStringList { "calc", "stop", "speed=35", "speed=36", "distance=3" } << QByteArray("speed: is given twice");
        QTest::newRow("no equals") << QStringList { "calc", "stop", "35" } << QByteArray("key=value");
        QTest::newRow("faster after") << QStringList { "calc", "heat-rise", "mass=1", "from=1", "to=2", "ring-mass=1" } << QByteArray("to:");
        QTest::newRow("share") << QStringList { "calc", "heat-rise", "mass=1", "from=2", "to=1", "ring-mass=1", "share=3" } << QByteArray("share");
        QTest::newRow("pad too high") << QStringList { "calc", "effective-radius", "rotor-od=100", "pad-height=60" } << QByteArray("pad-height");
        QTest::newRow("drawer") << QStringList { "calc", "shims", "target=1", "drawer=0.5" } << QByteArray("drawer: “0.5”");
        QTest::newRow("half a shim") << QStringList { "calc", "shims", "target=1", "drawer=0.5x1.5" } << QByteArray("whole number");
        QTest::newRow("unit without sense") << QStringList { "calc", "convert", "value=5 mm", "to=parsec" } << QByteArray("parsec");
        QTest::newRow("other dimension") << QStringList { "calc", "convert", "value=5 mm", "to=kg" } << QByteArray("value:");
        QTest::newRow("no file") << QStringList { "study", "/nonexistent.deepstop" } << QByteArray("/nonexistent.deepstop");
        QTest::newRow("no setup") << QStringList { "study", merle, "--setup", "x" } << QByteArray("varnik-330");
        QTest::newRow("no command") << QStringList {} << QByteArray("--help");
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

    void exitCodesTellWhatTheStudyFound()
    {
        QCOMPARE(cli({ "study", merle }).code, 0);
        QCOMPARE(cli({ "study", merle, "--setup", "varnik-355" }).code, 1);
        QCOMPARE(cli({ "check", merle }).code, 0);
        QVERIFY(cli({ "study", merle }).out.contains("2.7 mm at worst, 3.0 mm wanted"));
        QVERIFY(cli({ "study", merle, "--us" }).out.contains("0.105 in at worst"));
        QVERIFY(cli({ "study", merle }).out.contains("approves nothing"));
    }

    /// Source: python3-jsonschema validates what is printed against the published schema.
    void theStudysJsonSatisfiesItsSchema()
    {
        const char* script = "import json,sys,jsonschema\n"
                             "s=json.load(open(sys.argv[1])); jsonschema.Draft7Validator.check_schema(s)\n"
                             "d=json.load(sys.stdin); jsonschema.validate(d,s); print('valid',len(d['verdicts']))\n";
        for (const QStringList& arguments : { QStringList { "study", merle, "--json" }, QStringList { "study", merle, "--json", "--setup", "varnik-355" },
                 QStringList { "study", QString(merle).replace("halden-merle", "linnet"), "--json" } }) {
            const auto printed = cli(arguments).out;
            const auto said = answerOf("/usr/bin/python3", { "-c", script, DEEPSTOP_DATA "/schema/study-1.schema.json" }, printed);
            QVERIFY(said.startsWith("valid"));
        }
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

QTEST_GUILESS_MAIN(CliTest)
#include "cli_test.moc"
