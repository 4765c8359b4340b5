/// A desktop in a language with decimal commas: not one byte of what is read or written changes.

#include "bracket/bracket.hpp"
#include "centring/drawer.hpp"
#include "core/support.hpp"
#include "files/disk.hpp"
#include "library/library_file.hpp"
#include "files/paper_files.hpp"
#include "instruments/indication.hpp"
#include "joints/thread.hpp"
#include "library/import.hpp"
#include "quantity/entry.hpp"
#include "quantity/number.hpp"
#include "report/ask.hpp"
#include "report/template.hpp"
#include "sums/sums.hpp"

#include <QTest>

#include <fmt/format.h>

#include <clocale>
#include <cstdlib>
#include <functional>
#include <map>
#include <regex>

using namespace deepstop;

namespace {

std::string joined(const std::vector<double>& values)
{
    std::string text;
    for (const double value : values)
        text += fmt::format("{:.17g} ", value);
    return text;
}

std::string inWords(const sums::Value& value)
{
    if (const auto* number = std::get_if<double>(&value))
        return joined({ *number });
    if (const auto* text = std::get_if<std::string>(&value))
        return *text;
    return "-";
}

/// Every reader and writer, each giving what it read or wrote as bytes.
std::map<std::string, std::string> everything()
{
    std::map<std::string, std::string> out;
    const auto build = demo();
    const auto studied = study(build);
    out["build"] = files::writeBuild({ build, nullptr });
    out["build read"] = files::writeBuild(files::parseBuild(out["build"]));
    const auto library = files::loadLibrary(DEEPSTOP_DATA "/library/parts.json");
    out["library"] = files::writeLibrary(library);
    out["list"] = library::exportParts(library, library::Kind::Rotor);
    const std::string list = "name,rotor diameter [in],thickness_mm\nHalf,12.99,28.5\nFine,13.0,30.25\n";
    out["list read"] = files::writeLibrary(library::importParts(list, library::guessPlan(list)).parts);
    const auto drawing = report::caliperTemplate(studied, Axle::Front, "2026-11-26");
    // Names of letters and surfaces are counted through the life of the program.
    out["svg"] = std::regex_replace(files::svgOf(*drawing.drawing), std::regex("(glyph|surface|clip|image)[0-9]+(-[0-9]+)*"), "$1");
    out["dxf"] = files::dxfOf(*drawing.drawing);
    out["bench sheet"] = report::benchSheet(studied);
    for (const Verdict& v : studied.verdicts)
        out["verdicts"] += v.reason + "\n";
    for (const char* text : { "12.99in", "2,5", "1-1/8 in", "28 ±0.05", "28.01; 27.99", "1,460.5", "1e-3" })
        if (const auto read = readEntry(text, style::size, UnitSystem::Metric, {}); read.reading)
            out["typed"] += joined({ *read.reading->value, read.reading->plusMinus.value_or(-1) });
    for (const auto& kind : centring::readDrawer("0.75x4, 0.030 in x 6, 1/16 inx2", *findUnit("mm")).drawer)
        out["drawer"] += joined({ kind.thickness, double(kind.count) });
    for (const char* text : { "M12x1.5", "M12x1,75", "7/16-20", "M8" })
        if (const auto thread = joints::parseThread(text))
            out["thread"] += joined({ thread->diameter, thread->pitch });
    instruments::LineReader reader;
    for (const auto& one :
        reader.take(instruments::formatLine("vernier", 27.98, 2, "mm", true) + instruments::formatLine("scale", 7.461, 3, "kg", true)))
        out["instrument"] += joined({ one.value, one.resolution });
    for (const auto& [key, value] :
        sums::calculate("stop", std::vector<std::string> { "speed=35.5mph", "distance=5.2m", "grip=1.1" }).results)
        out["sum"] += key + inWords(value);
    out["number"] = joined({ *readNumber("0.125"), rounded(2.0 / 3, 5) });
    return out;
}

} // namespace

class LocaleTest : public QObject {
    Q_OBJECT
private slots:
    void cleanup() { std::setlocale(LC_ALL, "C"); }

    /// ./check makes these locales in build/locales, so that none has to be installed.
    void notOneByteChanges_data()
    {
        QTest::addColumn<QByteArray>("locale");
        QTest::newRow("German") << QByteArray("de_DE.UTF-8");
        QTest::newRow("French") << QByteArray("fr_FR.UTF-8");
        QTest::newRow("Turkish") << QByteArray("tr_TR.UTF-8");
    }
    void notOneByteChanges()
    {
        QFETCH(QByteArray, locale);
        const auto plain = everything();
        QVERIFY2(std::setlocale(LC_ALL, locale.constData()), "the locale is missing: ./check makes it");
        QCOMPARE(std::localeconv()->decimal_point, ",");
        const auto here = everything();
        QCOMPARE(here.size(), plain.size());
        for (const auto& [what, bytes] : plain) {
            QVERIFY2(!bytes.empty(), what.c_str());
            QVERIFY2(here.at(what) == bytes, what.c_str());
        }
    }
};

DEEPSTOP_TEST(LocaleTest)
#include "locale_test.moc"
