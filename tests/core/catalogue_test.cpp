/// The catalogue: every sentence is in it, German is complete and takes what is filled in, and no id, token or number hears the language.

#include "core/support.hpp"

#include "files/disk.hpp"
#include "language/code.hpp"
#include "language/language.hpp"
#include "quantity/instrument_names.hpp"

#include <nlohmann/json.hpp>

#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

#include <clocale>
#include <map>
#include <regex>
#include <set>

using namespace deepstop;

namespace {

/// Sentences and their translations, as gettext escapes them.
std::map<std::string, std::string> readCatalogue(const std::filesystem::path& path)
{
    std::map<std::string, std::string> all;
    std::string english;
    std::string other;
    std::string* into = nullptr;
    const auto text = files::readFile(path);
    const auto keep = [&] {
        if (!english.empty())
            all[english] = other;
        english.clear(), other.clear();
    };
    for (const auto& line : QByteArray::fromStdString(text).split('\n')) {
        const auto quoted = [&](qsizetype from) { return line.mid(from, line.lastIndexOf('"') - from).toStdString(); };
        if (line.startsWith("msgid \""))
            keep(), english = quoted(7), into = &english;
        else if (line.startsWith("msgstr \""))
            other = quoted(8), into = &other;
        else if (line.startsWith('"') && into)
            *into += quoted(1);
    }
    keep();
    return all;
}

/// What is filled into a sentence, sorted. Numbered places of a translation stand for those of the English one in order.
std::vector<std::string> filledIn(const std::string& sentence)
{
    static const std::regex place(R"(\{[^}]*\}|%[0-9n])");
    std::vector<std::string> all;
    for (auto found = std::sregex_iterator(sentence.begin(), sentence.end(), place); found != std::sregex_iterator(); ++found)
        all.push_back(std::regex_replace(found->str(), std::regex(R"(\{[0-9]+)"), "{"));
    std::ranges::sort(all);
    return all;
}

bool saysSomething(const std::string& sentence)
{
    return std::regex_search(std::regex_replace(sentence, std::regex(R"(\{[^}]*\}|%[0-9n]|\\.)"), ""), std::regex("[A-Za-z]{2}"));
}

const std::filesystem::path top = DEEPSTOP_SOURCE;

/// What a program answers in a language.
QByteArray answerIn(const char* language, const QStringList& arguments, const char* program = DEEPSTOP_CLI)
{
    QProcess process;
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert("LC_ALL", QString::fromUtf8(language));
    environment.remove("LANGUAGE");
    process.setProcessEnvironment(environment);
    process.start(program, arguments);
    process.waitForFinished(120000);
    return process.readAllStandardOutput() + process.readAllStandardError();
}

/// Everything but sentences: keys, ids, levels, numbers.
nlohmann::json withoutSentences(const nlohmann::json& value)
{
    static const std::set<std::string> sentences { "title", "reason", "method", "source", "caution", "costs", "lacks_in_words", "assumed",
        "word", "summary", "name", "what", "text", "tools", "because", "waits", "fits", "centred", "notes", "facts", "remedies", "corner",
        "phase", "shut", "lacks", "decides", "address", "label", "now", "take_with", "to_buy", "why_not" };
    auto out = value;
    if (value.is_object()) {
        out = nlohmann::json::object();
        for (const auto& [key, each] : value.items())
            if (!sentences.contains(key))
                out[key] = withoutSentences(each);
    } else if (value.is_array()) {
        out = nlohmann::json::array();
        for (const auto& each : value)
            out.push_back(withoutSentences(each));
    }
    return out;
}

} // namespace

class CatalogueTest : public QObject {
    Q_OBJECT
private slots:
    /// What stands in the code is what stands in po/: packaging/catalogue brings it up to date.
    void everySentenceIsInIt()
    {
        QTemporaryDir folder;
        QProcess gather;
        gather.start(QString::fromStdString(top / "packaging/catalogue"), { folder.filePath("now.pot") });
        QVERIFY(gather.waitForFinished(60000) && gather.exitCode() == 0);
        const auto now = readCatalogue(folder.filePath("now.pot").toStdString());
        const auto kept = readCatalogue(top / "po/deepstop.pot");
        QVERIFY(now.size() > 4000);
        for (const auto& [sentence, none] : now)
            QVERIFY2(kept.contains(sentence), ("run packaging/catalogue; new: " + sentence).c_str());
        for (const auto& [sentence, none] : kept)
            QVERIFY2(now.contains(sentence), ("run packaging/catalogue; gone: " + sentence).c_str());
    }

    void germanIsComplete()
    {
        const auto german = readCatalogue(top / "po/de.po");
        for (const auto& [sentence, none] : readCatalogue(top / "po/deepstop.pot")) {
            QVERIFY2(german.contains(sentence), sentence.c_str());
            const auto& other = german.at(sentence);
            QVERIFY2(!other.empty() || !saysSomething(sentence), ("not translated: " + sentence).c_str());
            if (other.empty())
                continue;
            QVERIFY2(filledIn(sentence) == filledIn(other), (sentence + " / " + other).c_str());
            QVERIFY2(sentence.ends_with("\\n") == other.ends_with("\\n") && sentence.starts_with(" ") == other.starts_with(" "),
                sentence.c_str());
        }
        QVERIFY(files::readFile(top / "po/de.po").find("#, fuzzy") == std::string::npos);
    }

    /// A sentence that ends in a space waits for another piece, and no other language puts the pieces in that order.
    void noSentenceIsAPiece()
    {
        for (const auto& [sentence, none] : readCatalogue(top / "po/deepstop.pot"))
            QVERIFY2(!sentence.ends_with(" ") || !saysSomething(sentence), ("a piece: “" + sentence + "”").c_str());
    }

    /// The same build in German: other sentences, and not one id, token or number.
    void germanChangesNothingButSentences_data()
    {
        QTest::addColumn<QString>("command");
        QTest::addColumn<QString>("demo");
        for (const char* command : { "study", "ask", "fit", "centre" })
            for (const char* demo : { "halden-merle", "linnet", "drover-camper" })
                QTest::addRow("%s %s", command, demo) << command << demo;
    }
    void germanChangesNothingButSentences()
    {
        QFETCH(QString, command);
        QFETCH(QString, demo);
        const QStringList arguments { command, QString(DEEPSTOP_DATA "/demo/%1.deepstop").arg(demo), "--json" };
        const auto english = answerIn("C", arguments);
        const auto german = answerIn("de_DE.UTF-8", arguments);
        if (!english.startsWith('{') && !english.startsWith('['))
            QSKIP("this command says nothing in JSON of this build");
        if (command == "study")
            QVERIFY2(english != german, "German is not spoken: is build/locale there, and the locale de_DE?");
        const auto one = nlohmann::json::parse(english.toStdString());
        const auto other = nlohmann::json::parse(german.toStdString());
        QVERIFY2(withoutSentences(one) == withoutSentences(other),
            nlohmann::json::diff(withoutSentences(one), withoutSentences(other)).dump().substr(0, 2000).c_str());
    }

    /// A job card ticked in English is the same card in German: its steps are known by ids.
    void stepsKeepTheirIds()
    {
        QTemporaryDir folder;
        std::vector<std::vector<std::string>> ids;
        for (const char* language : { "C", "de_DE.UTF-8" }) {
            const auto path = folder.filePath(QString(language) + ".json");
            answerIn(language, { "card", DEEPSTOP_DATA "/demo/halden-merle.deepstop", "--json", path });
            auto& all = ids.emplace_back();
            const auto card = nlohmann::json::parse(files::readFile(path.toStdString()));
            for (const auto& step : card)
                all.push_back(step.at("id"));
        }
        QVERIFY(ids[0].size() > 40);
        QVERIFY(ids[0] == ids[1]);
    }

    /// The width of a reading follows from its instrument: what is chosen as “Messschieber” is kept as a vernier, everywhere.
    void instrumentsAreKeptInOneLanguage()
    {
        qputenv("LC_ALL", "de_DE.UTF-8");
        openCatalogue();
        QCOMPARE(instrumentInWords("vernier"), std::string("Messschieber"));
        QCOMPARE(instrumentFrom("Messschieber"), std::string("vernier"));
        QCOMPARE(instrumentFrom("my grandfather's vernier"), std::string("my grandfather's vernier"));
        for (const char* each : namedInstruments())
            QCOMPARE(instrumentFrom(instrumentInWords(each)), std::string(each));
        Reading reading { 0.028, {}, Known::Measured, {}, {} };
        reading.instrument = instrumentFrom("Messschieber");
        QCOMPARE(uncertainty(reading, true), lengthResolution("vernier"));
        QCOMPARE(languageCode(), std::string("de"));
        std::setlocale(LC_MESSAGES, "C");
        QCOMPARE(languageCode(), std::string("en"));
        QCOMPARE(instrumentInWords("vernier"), std::string("vernier"));
    }

    void decimalCommasAreUnderstoodAndPointsAreWritten()
    {
        const auto answer = answerIn("de_DE.UTF-8", { "calc", "convert", "value=12,5mm", "to=in" });
        QVERIFY2(answer.contains("0.492"), answer.constData());
    }
};

DEEPSTOP_TEST(CatalogueTest)
#include "catalogue_test.moc"
