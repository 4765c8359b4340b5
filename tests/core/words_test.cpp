/// One word for one thing: what was once said otherwise on screen and paper does not come back.

#include "core/support.hpp"

#include "files/disk.hpp"

#include <QRegularExpression>
#include <QTest>

#include <filesystem>

using namespace deepstop;

class WordsTest : public QObject {
    Q_OBJECT
private slots:
    /// Old words of screen and paper stand in no text of the program: neither in a string of the code nor in the handbook.
    void oldWordsAreGone()
    {
        static const std::vector<std::string> old { "What the rear axle does", "Adhesion beside the yardstick", "Effort on the pedal",
            "Travel of the pedal", "What it saves, cold and hot", "Until it fades", "Measured fade over predicted",
            "Where the wheel stands", "Bridge over the hot rotor", "Caliper over the hat", "Rotor inside the dust shield",
            "Bracket beside the rotor", "Barrel over the", "Spokes outboard of the", "Weights and valve over the",
            "caliper square to the rotor", "held against the brake", "shank within the grip", "thread held", "What this builder wants",
            "under Wanted", "From the foot", "What the foot feels", "a strong foot", "gives up first", "What gives, at 70", "Firmest foot",
            "Give of a pad", "Write today down", "Read the wear", "Let it run", "Back where I began", "ring floats by", "give or take",
            "none of its words", "not listening", "it waits for", "opened although", "too little too long" };
        const std::filesystem::path top = DEEPSTOP_SOURCE;
        std::size_t files = 0;
        for (const char* folder : { "src", "docs" })
            for (const auto& entry : std::filesystem::recursive_directory_iterator(top / folder)) {
                const auto path = entry.path();
                const bool code = path.extension() == ".cpp" || path.extension() == ".hpp";
                if (!code && path.extension() != ".md")
                    continue;
                ++files;
                const std::string text = deepstop::files::readFile(path);
                for (const auto& word : old)
                    for (auto at = text.find(word); at != std::string::npos; at = text.find(word, at + 1)) {
                        const auto begin = text.rfind('\n', at) + 1;
                        const std::string before = text.substr(begin, at - begin);
                        // Comments of the code are another matter.
                        QVERIFY2(code && before.find("//") != std::string::npos,
                            (std::filesystem::relative(path, top).string() + ": " + before + word).c_str());
                    }
            }
        QVERIFY(files > 300);
    }

    /// Nor in the catalogue, whose sentences are put together from the code's lines; and identifiers keep to the same words.
    void oldWordsAreGoneFromCatalogueAndCode()
    {
        const std::filesystem::path top = DEEPSTOP_SOURCE;
        const auto catalogue = deepstop::files::readFile(top / "po/deepstop.pot");
        QVERIFY(catalogue.size() > 200'000);
        for (const char* phrase : { "gives up", "what it bears", "What gives", "From the foot", "the foot feels", "strong foot",
                 "Firmest foot", "firmest comfortable", "Effort on the pedal", "valve's knee", "slope over it", "too much for so little",
                 "beside the yardstick", "between the reservoir's marks", "Let it run", "Back where I began", "Fold what is fine",
                 "fold what is fine", "times over", "leg by leg", "air round the brakes", "duct's factor", "Set the cooling from these",
                 "By thermometer", "rises may be off", "greatest effort of the foot", "nobody has chosen", "this school",
                 "Write today down", "Read the wear", "not told apart yet", "Measured fade over predicted", "Where the wheel stands",
                 "ring floats by", "give or take", "Take it F4", "Put away", "opened although", "none of its words", "so wide says nothing",
                 "not listening", "m² drag area" })
            QVERIFY2(catalogue.find(phrase) == std::string::npos, phrase);
        static const QRegularExpression name("\\b(leanOn|shutBy|firstCutShutBy|School|TakeUp|TrackWay|reckon)\\b\\(");
        for (const char* folder : { "src", "tests" })
            for (const auto& entry : std::filesystem::recursive_directory_iterator(top / folder))
                if (const auto& path = entry.path(); path.extension() == ".cpp" || path.extension() == ".hpp") {
                    const auto found = name.match(QString::fromStdString(deepstop::files::readFile(path)));
                    QVERIFY2(!found.hasMatch(), (path.filename().string() + ": " + found.captured().toStdString()).c_str());
                }
    }
};

DEEPSTOP_TEST(WordsTest)
#include "words_test.moc"
