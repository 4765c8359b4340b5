/// What chapters declare of their checks: each once, and nobody else names one by text.

#include "core/support.hpp"

#include "files/disk.hpp"
#include "study/chapters.hpp"

#include <QTest>

#include <filesystem>
#include <set>

using namespace deepstop;

class ChecksTest : public QObject {
    Q_OBJECT
private slots:
    void everyVerdictIsOfADeclaredCheckOfItsChapter()
    {
        std::size_t seen = 0;
        for (const char* name : { "halden-merle", "linnet", "drover-camper" }) {
            const auto s = study(demo(name));
            for (const Verdict& v : s.verdicts) {
                QVERIFY2(v.check, v.id.c_str());
                const auto& own = chapterOf(v.chapter).checks;
                QVERIFY2(std::ranges::find(own, v.check) != own.end(), v.id.c_str());
                QVERIFY2(s.verdict(v.id) == &v, v.id.c_str());
                const Where where { v.axle, v.side.value_or(Side::Left), v.number, v.found };
                QCOMPARE(idOf(*v.check, where), v.id);
                ++seen;
            }
        }
        QVERIFY(seen > 150);
    }

    void noTwoChecksShareAnId()
    {
        std::set<std::string> ids;
        for (const Chapter& chapter : chapters())
            for (const Check* check : chapter.checks)
                QVERIFY2(ids.insert(idOf(*check, { .number = 1 })).second, std::string(check->name).c_str());
        QVERIFY(ids.size() > 60);
    }

    /// Whoever wants a check names the check: another name for it, and everybody follows.
    void noIdStandsAsTextOutsideItsChapter()
    {
        const std::filesystem::path source = DEEPSTOP_SOURCE "/src";
        std::size_t files = 0;
        for (const auto& entry : std::filesystem::recursive_directory_iterator(source)) {
            const auto path = entry.path();
            if ((path.extension() != ".cpp" && path.extension() != ".hpp") || path.filename() == "checks.hpp")
                continue;
            ++files;
            std::string code;
            for (const auto& line : QString::fromStdString(files::readFile(path)).split('\n'))
                code += line.left(line.indexOf("//") < 0 ? line.size() : line.indexOf("//")).toStdString() + "\n";
            const auto place = std::filesystem::relative(path, source).string();
            for (const Chapter& chapter : chapters())
                if (!place.starts_with("core/chapters/" + std::string(chapter.id) + "/"))
                    for (const Check* check : chapter.checks) {
                        // A plain word may be anything: a step, a field.
                        const bool numbered = check->name.find('#') != std::string_view::npos;
                        const auto end = std::string(check->name.substr(0, check->name.find('#'))) + (numbered ? "" : "\"");
                        const bool telling = !numbered && check->name.find_first_of("-/") != std::string_view::npos;
                        for (const char* axle : { "front/", "rear/", "left/", "right/" })
                            QVERIFY2(code.find(axle + end) == std::string::npos, (place + ": " + axle + end).c_str());
                        if (telling)
                            QVERIFY2(code.find("\"" + end) == std::string::npos, (place + ": " + end).c_str());
                    }
        }
        QVERIFY(files > 300);
    }
};

DEEPSTOP_TEST(ChecksTest)
#include "checks_test.moc"
