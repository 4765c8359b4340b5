#include "core/support.hpp"
#include "quantity/entry.hpp"
#include "quantity/figure.hpp"
#include "quantity/format.hpp"
#include "quantity/order.hpp"
#include "quantity/parse.hpp"

#include "verdict/verdict.hpp"

#include <QTest>

using namespace deepstop;

class QuantityTest : public QObject {
    Q_OBJECT
private slots:
    void readsWhatPeopleWrite_data()
    {
        QTest::addColumn<QString>("text");
        QTest::addColumn<int>("dimension");
        QTest::addColumn<QString>("plain");
        QTest::addColumn<double>("si");
        const auto row = [](const char* text, Dimension d, const char* plain, double si) {
            QTest::newRow(text) << text << int(d) << plain << si;
        };
        using enum Dimension;
        // Expected values by hand from the definitions of inch, pound and standard gravity.
        row("330", Length, "mm", 0.330);
        row("12.99in", Length, "mm", 12.99 * 0.0254);
        row("1-1/8 in", Length, "mm", 1.125 * 0.0254);
        row("1 1/8 in", Length, "mm", 1.125 * 0.0254);
        row("1⅛\"", Length, "mm", 1.125 * 0.0254);
        row("3/8\"", Length, "mm", 0.375 * 0.0254);
        row("3/8", Length, "in", 0.375 * 0.0254);
        row("30 thou", Length, "mm", 0.030 * 0.0254);
        row("0.030\"", Length, "mm", 0.030 * 0.0254);
        row(".030 in", Length, "mm", 0.030 * 0.0254);
        row("5 ft 11 in", Length, "mm", 71 * 0.0254);
        row("5' 11\"", Length, "mm", 71 * 0.0254);
        row("5′11″", Length, "mm", 71 * 0.0254);
        row("2,5", Length, "mm", 0.0025);
        row("0,030 in", Length, "mm", 0.030 * 0.0254);
        row("1,460.5 kg", Mass, "kg", 1460.5);
        row("1.460,5 kg", Mass, "kg", 1460.5);
        row("−24.45", Length, "mm", -0.02445);
        row("-24.45 mm", Length, "mm", -0.02445);
        row("+3", Length, "mm", 0.003);
        row("4.9 kg", Mass, "kg", 4.9);
        row("11 lb 2 oz", Mass, "kg", 11.125 * 0.45359237);
        row("850g", Mass, "kg", 0.85);
        row("1.1 g", Acceleration, "g", 1.1 * 9.80665);
        row("55 lb ft", Torque, "N·m", 55 * 1.3558179483314004);
        row("155 lb in", Torque, "N·m", 155 * 0.1129848290276167);
        row("74.6 Nm", Torque, "N·m", 74.6);
        row("74.6 N m", Torque, "N·m", 74.6);
        row("35 mph", Speed, "km/h", 35 * 0.44704);
        row("100 km/h", Speed, "km/h", 100 / 3.6);
        row("100 KPH", Speed, "km/h", 100 / 3.6);
        row("70 PSI", Pressure, "bar", 70 * 6894.757293168361);
        row("2.1 bar", Pressure, "bar", 2.1e5);
        row("32 °F", Temperature, "°C", 273.15);
        row("-40 C", Temperature, "°C", 233.15);
        row("70 %", Share, "%", 0.70);
        row("70", Share, "%", 0.70);
        row("1.2 L", Volume, "mL", 1.2e-3);
        row("1e3 mm", Length, "mm", 1.0);
    }
    void readsWhatPeopleWrite()
    {
        QFETCH(QString, text);
        QFETCH(int, dimension);
        QFETCH(QString, plain);
        QFETCH(double, si);
        const auto parsed = parseQuantity(text.toStdString(), static_cast<Dimension>(dimension), plain.toStdString());
        QVERIFY2(parsed.value, parsed.refusal.c_str());
        QVERIFY2(near(*parsed.value, si, 1e-12), qPrintable(QString::number(*parsed.value, 'g', 15)));
    }

    void refusesAndNamesThePart_data()
    {
        QTest::addColumn<QString>("text");
        QTest::addColumn<int>("dimension");
        QTest::addColumn<QString>("named");
        using enum Dimension;
        QTest::newRow("empty") << "" << int(Length) << "a length is wanted";
        QTest::newRow("blank") << "   " << int(Length) << "a length is wanted";
        QTest::newRow("word") << "abc" << int(Length) << "abc";
        QTest::newRow("unknown unit") << "12 furlong" << int(Length) << "furlong";
        QTest::newRow("wrong dimension") << "12 kg" << int(Length) << "“kg” measures a mass";
        QTest::newRow("left over") << "12 mm x" << int(Length) << "“x”";
        QTest::newRow("two numbers") << "12 13 mm" << int(Length) << "13";
        QTest::newRow("thousands or decimals") << "1,460" << int(Mass) << "1460";
        QTest::newRow("two marks") << "1.2.3" << int(Length) << "1.2.3";
        QTest::newRow("nothing below") << "3/ in" << int(Length) << "below the line";
        QTest::newRow("zero below") << "3/0 in" << int(Length) << "0 below";
        QTest::newRow("small before large") << "11 in 5 ft" << int(Length) << "larger unit to the smaller";
        QTest::newRow("nan") << "nan" << int(Length) << "nan";
        QTest::newRow("infinite") << "inf" << int(Length) << "inf";
        QTest::newRow("too large") << "1e999" << int(Length) << "1";
        QTest::newRow("endless fraction") << "1/" + QString(150, '9') + "e400" << int(Length) << "not a unit";
        QTest::newRow("a page of figures") << "1/" + QString(400, '9') << int(Length) << "too long";
        QTest::newRow("endless number") << "1e400" << int(Length) << "“1e400” is beyond";
        QTest::newRow("endless fraction above") << "1 " + QString(400, '9') + "/3" << int(Length) << "too long";
        QTest::newRow("sign only") << "-" << int(Length) << "number is missing";
        QTest::newRow("two signs") << "--3" << int(Length) << "-";
    }
    void refusesAndNamesThePart()
    {
        QFETCH(QString, text);
        QFETCH(int, dimension);
        QFETCH(QString, named);
        const auto parsed =
            parseQuantity(text.toStdString(), static_cast<Dimension>(dimension), dimension == int(Dimension::Mass) ? "kg" : "mm");
        QVERIFY(!parsed.value);
        QVERIFY2(QString::fromStdString(parsed.refusal).contains(named), parsed.refusal.c_str());
    }

    /// Source: GNU units, run live, for every unit in the table.
    void everyFactorAgreesWithGnuUnits()
    {
        static const std::map<Dimension, QString> si { { Dimension::Number, "1" }, { Dimension::Share, "1" }, { Dimension::Length, "m" },
            { Dimension::Area, "m^2" }, { Dimension::Volume, "m^3" }, { Dimension::Mass, "kg" }, { Dimension::Force, "N" },
            { Dimension::Torque, "N m" }, { Dimension::Pressure, "Pa" }, { Dimension::TemperatureRise, "K" }, { Dimension::Speed, "m/s" },
            { Dimension::Acceleration, "m/s^2" }, { Dimension::Time, "s" }, { Dimension::Energy, "J" }, { Dimension::HeatCapacity, "J/K" },
            { Dimension::SpecificHeat, "J/(kg K)" }, { Dimension::Angle, "radian" }, { Dimension::Inertia, "kg m^2" },
            { Dimension::PressurePerForce, "1/m^2" }, { Dimension::HeatFlux, "W/m^2" }, { Dimension::Conductivity, "W/(m K)" },
            { Dimension::HeatTransfer, "W/(m^2 K)" }, { Dimension::Density, "kg/m^3" } };
        int checked = 0;
        for (const Unit& unit : allUnits()) {
            const auto gnu = QString::fromUtf8(unit.gnu.data(), qsizetype(unit.gnu.size()));
            for (const double value : { 1.0, 37.5 }) {
                QByteArray answer;
                if (unit.dimension == Dimension::Temperature)
                    answer = gnu.startsWith("temp") ? answerOf("units", { "-t", "-d", "15", QString("%1(%2)").arg(gnu).arg(value), "K" })
                                                    : QByteArray::number(value, 'g', 15);
                else
                    answer = answerOf("units", { "-t", "-d", "15", QString("%1 %2").arg(value).arg(gnu), si.at(unit.dimension) });
                bool number = false;
                const double expected = answer.trimmed().toDouble(&number);
                QVERIFY2(number, answer.constData());
                // BTU has several definitions that differ in the sixth digit; all others are exact.
                const double tolerance = unit.symbol.starts_with("BTU") ? 1e-6 : 1e-11;
                QVERIFY2(near(toSi(value, unit), expected, tolerance), qPrintable(gnu + ": " + answer));
                ++checked;
            }
        }
        QVERIFY(checked >= 90);
    }

    void everyUnitReadsBackWhatItPrints()
    {
        for (const Unit& unit : allUnits())
            for (int i = 0; i < 50; ++i) {
                const double value = std::round(between(-500, 500) * 1000) / 1000;
                const auto text = editable(toSi(value, unit), unit) + " " + std::string(unit.symbol);
                const auto parsed = parseQuantity(text, unit.dimension, unit);
                QVERIFY2(parsed.value, (text + ": " + parsed.refusal).c_str());
                QVERIFY(std::abs(fromSi(*parsed.value, unit) - value) < 2e-6);
            }
    }

    void neverCrashesOnAnyText()
    {
        const std::string letters = "0123456789.,-+/ '\"minftkglboz°C%eE±\xe2\x88\x92\xff";
        for (int i = 0; i < 20000; ++i) {
            std::string text;
            for (int n = among(0, 12); n > 0; --n)
                text += letters[std::size_t(among(0, int(letters.size()) - 1))];
            const auto parsed = parseQuantity(text, Dimension::Length, "mm");
            QVERIFY(parsed.value.has_value() != !parsed.refusal.empty());
            if (parsed.value)
                QVERIFY(std::isfinite(*parsed.value));
        }
    }

    void printsWithTrueMinusAndNoNegativeZero()
    {
        QCOMPARE(print(-0.0034, style::gap), std::string("\u22123.4 mm"));
        QCOMPARE(print(-0.00001, style::gap), std::string("0.0 mm"));
        QCOMPARE(print(0.330, style::size, UnitSystem::Us), std::string("12.992 in"));
        QCOMPARE(printChange(1.5, style::partMass), std::string("+1.50 kg"));
        QCOMPARE(printChange(0, style::road), std::string("±0.0 m"));
        QCOMPARE(figure(NAN, style::gap), std::string("–"));
        // A difference of two temperatures is no temperature: 84 K less is not −357 °C.
        QCOMPARE(printChange(-84, style::temperature), std::string("\u221284 K"));
        QCOMPARE(printChange(90, style::temperature, UnitSystem::Us), std::string("+162 °F"));
        QCOMPARE(print(52, ofDifference(style::temperature)), std::string("52 K"));
        QCOMPARE(print(0.0034, ofDifference(style::gap)), std::string("3.4 mm"));
    }

    /// One thing read several times, as it is typed: all of them kept, their mean the value, and read back as they were typed.
    void severalReadingsInOneEntry_data()
    {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QList<double>>("millimetres");
        QTest::newRow("two") << "28.01; 27.99" << QList { 28.01, 27.99 };
        QTest::newRow("tight") << "28;28.1;28.2" << QList { 28.0, 28.1, 28.2 };
        QTest::newRow("units") << "1-1/8 in; 28.5 mm" << QList { 28.575, 28.5 };
        QTest::newRow("width") << "28.0; 28.2 ±0.3" << QList { 28.0, 28.2 };
        QTest::newRow("bad one") << "28.0; wide; 28.1" << QList<double> {};
        QTest::newRow("open end") << "28.0;" << QList<double> {};
        QTest::newRow("nothing") << ";" << QList<double> {};
        QTest::newRow("other kind") << "28.0; 3 kg" << QList<double> {};
    }
    void severalReadingsInOneEntry()
    {
        QFETCH(QString, text);
        QFETCH(QList<double>, millimetres);
        const Reading before { 30e-3, {}, Known::Measured, "micrometer", "2026-01-01" };
        const auto entry = readEntry(text.toStdString(), style::size, UnitSystem::Metric, before, "2026-11-23");
        QCOMPARE(entry.reading.has_value(), !millimetres.isEmpty());
        if (!entry.reading) {
            QVERIFY2(entry.refusal.find("Between semicolons") == 0, entry.refusal.c_str());
            return;
        }
        QCOMPARE(entry.reading->repeats.size(), std::size_t(millimetres.size()));
        double sum = 0;
        for (qsizetype i = 0; i < millimetres.size(); ++i) {
            QVERIFY(near(entry.reading->repeats[std::size_t(i)], millimetres[i] * 1e-3, 1e-12));
            sum += millimetres[i];
        }
        QVERIFY(near(*entry.reading->value, sum / double(millimetres.size()) * 1e-3, 1e-12));
        QCOMPARE(entry.reading->instrument, std::string("micrometer"));
        QCOMPARE(entry.reading->date, std::string("2026-11-23"));
        const auto again =
            readEntry(entryText(*entry.reading, style::size, UnitSystem::Metric), style::size, UnitSystem::Metric, before, "2026-11-23");
        for (std::size_t i = 0; i < entry.reading->repeats.size(); ++i)
            QVERIFY(near(again.reading->repeats[i], entry.reading->repeats[i], 1e-9));
        // One value typed over them is one reading again.
        QVERIFY(readEntry("28.4", style::size, UnitSystem::Metric, *entry.reading).reading->repeats.empty());
    }

    void anEntryKeepsHowItIsKnown()
    {
        const Reading vernier { 0.028, 0.03e-3, Known::Measured, "vernier", "2026-01-01" };
        const auto same = readEntry("28", style::size, UnitSystem::Metric, vernier, "2026-11-23");
        QCOMPARE(*same.reading, vernier);
        const auto changed = readEntry("28.2", style::size, UnitSystem::Metric, vernier, "2026-11-23");
        QVERIFY(near(*changed.reading->value, 0.0282, 1e-12));
        QCOMPARE(changed.reading->instrument, std::string("vernier"));
        QCOMPARE(changed.reading->date, std::string("2026-11-23"));
        QVERIFY(!changed.reading->plusMinus);
        const auto width = readEntry("1.1 ±0.002 in", style::size, UnitSystem::Metric, vernier);
        QVERIFY(near(*width.reading->value, 1.1 * 0.0254, 1e-12));
        QVERIFY(near(*width.reading->plusMinus, 0.002 * 0.0254, 1e-12));
        QCOMPARE(readEntry("30?", style::size, UnitSystem::Metric, vernier).reading->known, Known::Estimated);
        QCOMPARE(readEntry("30", style::size, UnitSystem::Metric, Reading {}).reading->known, Known::Measured);
        QCOMPARE(*readEntry(" ", style::size, UnitSystem::Metric, vernier).reading, Reading {});
        QVERIFY(!readEntry("28 ±", style::size, UnitSystem::Metric, vernier).reading);
        QVERIFY(!readEntry("28 ±-1", style::size, UnitSystem::Metric, vernier).reading);
    }

    void aFigureAddsItsReadingsAndNamesWhatLacks()
    {
        const Reading a { 2.0, 0.3, Known::Measured, {}, {} };
        const Reading b { 1.0, 0.4, Known::Estimated, {}, {} };
        const Reading missing;
        const Figure sum = evaluate([&](Evaluator& s) { return s(a) + s(b); });
        QCOMPARE(*sum.value, 3.0);
        QVERIFY(near(sum.worstCase, 0.7, 1e-12));
        QVERIFY(near(sum.rootSumSquare, 0.5, 1e-12));
        QVERIFY(sum.provisional());
        // A reading that stands on both sides of a difference cancels.
        QCOMPARE(evaluate([&](Evaluator& s) { return s(a) - s(a); }).worstCase, 0.0);
        const Figure lacking = evaluate([&](Evaluator& s) { return s(a) + s(missing); });
        QVERIFY(!lacking.value);
        QCOMPARE(lacking.lacks.size(), std::size_t(1));
        QVERIFY(lacking.lacks.front() == ReadingId(missing));
    }

    /// 1/x for x = 1 ± 1: nobody knows how far off it may be, and it proves nothing.
    void aLimitWithoutAResultIsNoProof()
    {
        const Reading x { 1.0, 1.0, Known::Measured, {}, {} };
        const Figure inverse = evaluate([&](Evaluator& s) { return 1 / s(x); });
        QCOMPARE(*inverse.value, 1.0);
        QVERIFY(std::isinf(inverse.worstCase) && std::isinf(inverse.rootSumSquare));
        QVERIFY(inverse.provisional());
        QCOMPARE(gapLevel(inverse, 0.1), Level::Unproven);
        const Figure root = evaluate([&](Evaluator& s) { return std::sqrt(s(x) - 0.5); });
        QVERIFY(std::isinf(root.worstCase) && root.provisional());
        // A difference of two such knows no more.
        const auto one = evaluateAtLimits([&](Evaluator& s) { return 1 / s(x); });
        QVERIFY(std::isinf(difference(one, one).worstCase) && difference(one, one).provisional());
    }

    /// A missing reading enters a sum as NaN; what is sorted there stays in order, with that behind it.
    /// A sum in parts is the same sum, to the last bit, and its parts are not made more often than their readings move.
    void aSumInPartsIsTheSameSum()
    {
        Reading a { 2.0, 0.1, Known::Measured, {}, {} };
        Reading b { 3.0, 0.2, Known::Measured, {}, {} };
        const Reading c { 5.0, 0.4, Known::Measured, {}, {} };
        const Reading edge { 1.0, 0.5, Known::Measured, {}, {} };
        int made = 0;
        const auto inner = [&](Evaluator& s) {
            return s.part({ "inner", { &a, &b } }, [&] { return ++made, s(a) * s(b); });
        };
        // One part stands in another, is asked for twice, and looks at c only where the edge is passed.
        const auto outer = [&](Evaluator& s) {
            return s.part({ "outer", { &edge } }, [&] { return s(edge) > 1.2 ? inner(s) + s(c) : inner(s); });
        };
        const auto inParts = [&](Evaluator& s) { return outer(s) / inner(s) + s(c); };
        const auto whole = [&](Evaluator& s) {
            const double product = s(a) * s(b);
            return (s(edge) > 1.2 ? product + s(c) : product) / product + s(c);
        };
        const auto one = evaluateAtLimits(inParts);
        const int makings = std::exchange(made, 0);
        QCOMPARE(makings, 1 + 2 * 2 * 2); // at the readings' own values; with a and b at either limit, inside the outer part and beside it
        // Asked in another order, so held against each other by reading.
        const auto other = evaluateAtLimits(whole);
        QCOMPARE(one.figure.value, other.figure.value);
        QCOMPARE(one.figure.restsOn.size(), other.figure.restsOn.size());
        for (std::size_t i = 0; i < one.figure.restsOn.size(); ++i) {
            const auto there = std::ranges::find(other.figure.restsOn, one.figure.restsOn[i]) - other.figure.restsOn.begin();
            QCOMPARE(one.atLimits[i], other.atLimits[there]);
            QCOMPARE(one.figure.effects[i], other.figure.effects[there]);
        }
        QVERIFY(one.figure.effects[0] > 0); // the edge makes a difference

        b.value.reset();
        QCOMPARE(evaluate(inParts).lacks, evaluate(whole).lacks);
    }

    void whatIsNoNumberComesLast()
    {
        constexpr double none = std::numeric_limits<double>::quiet_NaN();
        std::vector<double> values;
        for (int i = 0; i < 60; ++i)
            values.push_back(i % 3 == 0 ? none : (i * 37) % 60);
        std::ranges::sort(values, ascending);
        QVERIFY(std::ranges::is_sorted(values.begin(), values.begin() + 40));
        QVERIFY(std::all_of(values.begin() + 40, values.end(), [](double v) { return std::isnan(v); }));
        QVERIFY(ascending(1, none) && !ascending(none, 1) && !ascending(none, none) && !ascending(-0.0, 0.0));
        using Two = std::pair<double, double>;
        QVERIFY(ascending(Two { 1, 2 }, Two { 1, 3 }) && ascending(Two { 1, 3 }, Two { none, 0 }));
        QVERIFY(!ascending(Two { 1, none }, Two { 1, 3 }));
    }

    /// The difference of two figures is the figure of the difference, bit by bit.
    void aDifferenceIsWorkedOutAsOneSum()
    {
        const Reading a { 1.0, 0.3, Known::Measured, {}, {} };
        const Reading b { 2.0, 0.4, Known::Estimated, {}, {} };
        const Reading c { 0.7, 0.1, Known::Vendor, {}, {} };
        const auto first = [&](Evaluator& s) { return s(a) * s(b) * s(b); };
        const auto second = [&](Evaluator& s) { return s(b) * s(b) - std::sqrt(s(c)); };
        const Figure whole = evaluate([&](Evaluator& s) { return first(s) - second(s); });
        const Figure parts = difference(evaluateAtLimits(first), evaluateAtLimits(second));
        QCOMPARE(*parts.value, *whole.value);
        QVERIFY(parts.worstCase == whole.worstCase && parts.rootSumSquare == whole.rootSumSquare);
        QVERIFY(parts.restsOn == whole.restsOn && parts.effects == whole.effects && parts.estimated == whole.estimated);
        const Reading none;
        const Figure lacking = difference(evaluateAtLimits(first), evaluateAtLimits([&](Evaluator& s) { return s(none); }));
        QVERIFY(!lacking.value && lacking.lacks.size() == 1);
    }

    /// A gap foretold by a plan of shims names the instrument it waits for; the reading typed over it is measured, the same number too.
    void whatWasForetoldIsMeasuredByTyping()
    {
        const Reading foretold { 8.05e-3, 0.03e-3, Known::Estimated, "vernier", {} };
        for (const char* text : { "8.05", "7.9" }) {
            const auto entry = readEntry(text, style::fine, UnitSystem::Metric, foretold, "2026-11-25");
            QVERIFY(entry.reading && entry.reading->known == Known::Measured);
            QCOMPARE(entry.reading->instrument, std::string("vernier"));
            QCOMPARE(entry.reading->date, std::string("2026-11-25"));
        }
        QCOMPARE(readEntry("8?", style::fine, UnitSystem::Metric, foretold).reading->known, Known::Estimated);
        // A plain estimate stays one until somebody says otherwise.
        QCOMPARE(readEntry("8", style::fine, UnitSystem::Metric, { 7e-3, {}, Known::Estimated, {}, {} }).reading->known, Known::Estimated);
    }

    /// By whatever name people call it, a vernier is no rule.
    void aDigitalCaliperReadsAsAVernier()
    {
        for (const char* name : { "vernier", "digital caliper", "dial caliper", "caliper" })
            QCOMPARE(lengthResolution(name), 0.03e-3);
    }
};

DEEPSTOP_TEST(QuantityTest)
#include "quantity_test.moc"
