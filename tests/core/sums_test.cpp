#include "core/support.hpp"
#include "sums/sums.hpp"

#include <QTest>

using namespace deepstop;
using namespace deepstop::sums;

namespace {

double result(const Answer& answer, std::string_view key)
{
    for (const auto& [name, value] : answer.results)
        if (name == key)
            return std::get<double>(value);
    return NAN;
}

Answer ask(std::string_view name, const std::vector<std::string>& arguments) { return calculate(name, arguments); }

} // namespace

class SumsTest : public QObject {
    Q_OBJECT
private slots:
    /// The same question in other units has the same answer.
    void unitsDoNotMatter_data()
    {
        QTest::addColumn<QString>("name");
        QTest::addColumn<QStringList>("metric");
        QTest::addColumn<QStringList>("us");
        QTest::newRow("stop") << "stop" << QStringList { "speed=96.56064 km/h", "distance=45.72 m" }
                              << QStringList { "speed=60 mph", "distance=150 ft" };
        QTest::newRow("heat-rise") << "heat-rise" << QStringList { "mass=1000 kg", "from=80.4672 km/h", "to=0", "ring-mass=4.5359237" }
                                   << QStringList { "mass=2204.622621848776 lb", "from=50 mph", "to=0 mph", "ring-mass=10 lb" };
        QTest::newRow("effective-radius") << "effective-radius" << QStringList { "rotor-od=330.2", "pad-height=50.8", "inset=0.762" }
                                          << QStringList { "rotor-od=13 in", "pad-height=2\"", "inset=30 thou" };
        QTest::newRow("shims") << "shims" << QStringList { "target=1.524", "drawer=0.762x4,0.381x4" }
                               << QStringList { "target=0.060 in", "drawer=0.030 in x4,15 thou x 4" };
        QTest::newRow("offset") << "offset" << QStringList { "et=38.1", "hat-before=6.35", "hat-after=12.7", "spacer=3.175" }
                                << QStringList { "et=1-1/2 in", "hat-before=1/4 in", "hat-after=1/2 in", "spacer=1/8 in" };
        QTest::newRow("rotor-mass") << "rotor-mass"
                                    << QStringList { "od=330.2", "ring-id=215.9", "thickness=28.575", "vent=9.525", "vane-share=0.3" }
                                    << QStringList { "od=13 in", "ring-id=8.5 in", "thickness=1-1/8 in", "vent=3/8 in", "vane-share=30 %" };
        QTest::newRow("pad-area") << "pad-area" << QStringList { "length=114.3", "height=50.8", "thickness=12.7" }
                                  << QStringList { "length=4.5 in", "height=2 in", "thickness=1/2 in" };
        QTest::newRow("corner-weight") << "corner-weight" << QStringList { "rotor=4.5359237", "hose=0.45359237" }
                                       << QStringList { "rotor=10 lb", "hose=1 lb" };
    }
    void unitsDoNotMatter()
    {
        QFETCH(QString, name);
        QFETCH(QStringList, metric);
        QFETCH(QStringList, us);
        const auto list = [](const QStringList& strings) {
            std::vector<std::string> out;
            for (const auto& s : strings)
                out.push_back(s.toStdString());
            return out;
        };
        const auto a = ask(name.toStdString(), list(metric));
        const auto b = ask(name.toStdString(), list(us));
        QCOMPARE(a.results.size(), b.results.size());
        for (std::size_t i = 0; i < a.results.size(); ++i) {
            QCOMPARE(a.results[i].first, b.results[i].first);
            if (const auto* number = std::get_if<double>(&a.results[i].second);
                number && std::holds_alternative<double>(b.results[i].second))
                QVERIFY2(std::abs(*number - std::get<double>(b.results[i].second)) <= 1e-9 * std::max(1.0, std::abs(*number)),
                    a.results[i].first.c_str());
        }
        for (const auto& [key, value] : a.inputs)
            QVERIFY2(key.find("_m") != std::string::npos || key.find("_kg") != std::string::npos || key == "share" || key == "vane_share"
                    || key == "vane_lean_rad" || key == "specific_heat_J_per_kgK" || key == "drawer" || key == "ends",
                key.c_str());
    }

    void everySumNamesEveryResultItGives()
    {
        const std::map<std::string, std::vector<std::string>> examples { { "stop", { "speed=50", "distance=20" } },
            { "heat-rise", { "mass=1000", "from=50", "to=0", "ring-mass=5" } }, { "effective-radius", { "rotor-od=300", "pad-height=50" } },
            { "shims", { "target=1", "drawer=0.5x2" } }, { "offset", { "et=40", "hat-before=7", "hat-after=9" } },
            { "convert", { "value=1 in", "to=mm" } }, { "rotor-mass", { "od=330", "ring-id=216", "thickness=28" } },
            { "piston-area", { "pistons=38+42" } }, { "pad-area", { "length=112", "height=48" } }, { "corner-weight", { "rotor=8" } },
            { "rim", { "size=17", "width=8" } }, { "spacer", { "washers=8.5" } },
            { "stud", { "length=38.5", "hat=8", "pad=12", "nut=17", "thread=M12x1.5" } }, { "backspacing", { "width=8", "et=40" } },
            { "bolt", { "thread=M12x1.75", "class=10.9" } }, { "engagement", { "thread=M12x1.5", "length=40", "grip=14.5", "depth=20" } },
            { "joint-slip", { "thread=M12x1.5", "class=10.9", "brake=1700", "radius=108" } },
            { "tilt", { "inner-top=2.9", "outer-top=1.4", "inner-bottom=2.7", "outer-bottom=1.6" } },
            { "pressure", { "pedal-force=300", "pedal-ratio=4", "master-bore=22" } },
            { "brake-torque", { "friction=0.4", "pressure=60", "piston-area=25", "radius=140" } },
            { "drum-torque", { "kind=two-leading", "pressure=40", "cylinder-bore=20", "drum=250", "friction=0.35" } },
            { "pedal-travel", { "volume=8", "master-bore=22", "pedal-ratio=4" } },
            { "ideal-split", { "front-load=53%", "height=540", "wheelbase=2720", "deceleration=0.8" } },
            { "flash", { "flux=2e6", "duration=3", "conductivity=50", "density=7200", "specific-heat=480" } },
            { "repeated-stops", { "rise=50", "interval=40", "stops=10", "coefficient=60", "area=900", "mass=6", "specific-heat=480" } },
            { "cooling-time", { "from=400", "to=100", "coefficient=40", "area=900", "mass=6", "specific-heat=480" } },
            { "compare", { "before=53,54,52", "after=44,45,43" } }, { "speed-correct", { "distance=40", "speed=98", "nominal=100" } },
            { "mfdd", { "begin-speed=80", "end-speed=10", "begin-distance=5", "end-distance=35" } },
            { "lock-order", { "front-load=53%", "height=540", "wheelbase=2720", "front-share=70%", "grip=1" } } };
        for (const Sum& sum : allSums()) {
            const auto found = examples.find(std::string(sum.name));
            QVERIFY2(found != examples.end(), "a sum without an example here");
            const auto answer = calculate(sum.name, found->second);
            QCOMPARE(answer.results.size(), sum.results.size());
            for (std::size_t i = 0; i < sum.results.size(); ++i)
                QCOMPARE(answer.results[i].first, std::string(sum.results[i].name));
            QCOMPARE(printed(answer).size(), sum.results.size());
            for (const auto& line : printed(answer))
                QVERIFY(!line.text.empty() && !line.help.empty());
            QVERIFY(!answer.source.empty());
        }
    }

    /// By hand, and as the tables have it (ETRTO and ISO 898-1, from memory; common practice).
    void wheelsAndBolts()
    {
        QVERIFY(near(result(ask("rim", { "size=18" }), "bead_seat_diameter_m"), 0.462, 1e-12));
        QVERIFY_EXCEPTION_THROWN(ask("rim", { "size=11" }), BadRequest);
        QVERIFY_EXCEPTION_THROWN(ask("rim", { "size=17.5" }), BadRequest);
        const auto spacer = ask("spacer", { "washers=8.5", "plus-minus=0.1" });
        QVERIFY(near(result(spacer, "needed_m"), 0.0116, 1e-9) && near(result(spacer, "buy_m"), 0.012, 1e-9)
            && near(result(spacer, "turned_m"), 0.012, 1e-9));
        const auto stud = ask("stud", { "length=38.5", "hat=8", "pad=12", "nut=17", "thread=M12x1.5", "ring=12" });
        QVERIFY(near(result(stud, "in_nut_m"), 0.005, 1e-9) && near(result(stud, "order_m"), 0.055, 1e-9));
        QVERIFY(near(result(ask("backspacing", { "width=8", "et=40" }), "backspacing_m"), 0.1541, 1e-9));
        QVERIFY_EXCEPTION_THROWN(ask("backspacing", { "et=40" }), BadRequest);
        // 155 lb in, 55 lb ft and 40 lb ft of the trade's tables: 17.5, 74.6, 54.2 N·m.
        QVERIFY(near(result(ask("bolt", { "thread=M12x1.5", "class=10.9", "torque=55 lb ft" }), "torque_Nm"), 74.6, 0.001));
        const auto bolt = ask("bolt", { "thread=M12x1.75", "class=10.9" });
        QVERIFY(near(result(bolt, "percent_proof"), 75, 1e-9) && near(result(bolt, "torque_Nm"), 126, 0.003));
        const auto greased = ask("bolt", { "thread=M12x1.75", "class=10.9", "torque=126", "condition=anti-seize" });
        QVERIFY(near(result(greased, "percent_proof"), 120, 0.003));
        QVERIFY(std::ranges::any_of(greased.notes, [](const auto& note) { return note.find("60 % more") != std::string::npos; }));
        QVERIFY_EXCEPTION_THROWN(ask("bolt", { "thread=M12", "class=9.8" }), BadRequest);
        QVERIFY(near(result(ask("joint-slip", { "thread=M12x1.75", "class=10.9", "brake=1500", "radius=150" }), "force_N"), 10000, 1e-9));
        QVERIFY(near(
            result(ask("tilt", { "inner-top=2.9", "outer-top=1.4", "inner-bottom=2.7", "outer-bottom=1.6" }), "axial_m"), -0.65e-3, 1e-9));
    }

    void twiceTheSpeedIsFourTimesTheHeat()
    {
        const auto slow = ask("heat-rise", { "mass=1460", "from=50", "to=0", "ring-mass=7.5", "share=35 %" });
        const auto fast = ask("heat-rise", { "mass=1460", "from=100", "to=0", "ring-mass=7.5", "share=0.35" });
        QVERIFY(near(result(fast, "temperature_rise_K"), 4 * result(slow, "temperature_rise_K"), 1e-12));
        const auto heavy = ask("heat-rise", { "mass=1460", "from=100", "to=0", "ring-mass=15", "share=0.35" });
        QVERIFY(near(result(fast, "temperature_rise_K"), 2 * result(heavy, "temperature_rise_K"), 1e-12));
    }

    void thereAndBackIsWhereItWas()
    {
        for (const Unit& from : allUnits())
            for (const Unit& to : allUnits()) {
                if (from.dimension != to.dimension || from.dimension == Dimension::Number || from.symbol == to.symbol)
                    continue;
                // Some spellings serve two dimensions; then the value's own unit decides, and that is tested by hand elsewhere.
                if (findUnit(from.symbol) != &from || findUnit(to.symbol) != &to)
                    continue;
                const auto there = ask("convert", { "value=12.5 " + std::string(from.symbol), "to=" + std::string(to.symbol) });
                const auto back = ask("convert",
                    { "value=" + QByteArray::number(result(there, "value"), 'g', 17).toStdString() + " " + std::string(to.symbol),
                        "to=" + std::string(from.symbol) });
                QVERIFY2(std::abs(result(back, "value") - 12.5) < 1e-9, (std::string(from.symbol) + " " + std::string(to.symbol)).c_str());
            }
    }

    void usPrintsInInches()
    {
        const auto answer = ask("offset", { "et=40", "hat-before=7.2", "hat-after=20.5" });
        QCOMPARE(printed(answer, UnitSystem::Us)[1].text, std::string("0.5236 in"));
        QCOMPARE(printed(answer)[1].text, std::string("13.300 mm"));
    }
};

DEEPSTOP_TEST(SumsTest)
#include "sums_test.moc"
