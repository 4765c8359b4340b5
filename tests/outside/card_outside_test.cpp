/// What the card and the log give to others: HTML by tidy, the calendar by Python's icalendar, wear by SciPy, the sheet by poppler.

#include "core/support.hpp"
#include "files/paper_files.hpp"
#include "logbook/logbook.hpp"
#include "report/sheets.hpp"

#include <QTemporaryDir>
#include <QTest>

#include <cstdio>

using namespace deepstop;

class CardOutsideTest : public QObject {
    Q_OBJECT
private slots:
    /// Outside: HTML Tidy finds nothing to say of either page.
    void htmlIsInOrder()
    {
        for (const char* name : { "halden-merle", "linnet", "drover-camper" }) {
            const Study s = study(demo(name));
            for (const auto& leaf : { report::jobCard(s, jobcard::cardOf(s), "2026-05-02"), report::buildSheet(s, "2026-05-02") }) {
                QProcess tidy;
                tidy.start("tidy", { "-e", "-q", "-utf8" });
                tidy.write(QByteArray::fromStdString(report::htmlOf(leaf)));
                tidy.closeWriteChannel();
                QVERIFY(tidy.waitForFinished(20000));
                const auto said = tidy.readAllStandardError();
                QVERIFY2(tidy.exitCode() == 0, said.left(600).constData());
            }
        }
    }

    /// Outside: Python's icalendar reads every reminder with its day.
    void theCalendarIsRead()
    {
        const Build b = demo("drover-camper");
        const auto ics = logbook::calendarOf(b, "20261101T120000Z");
        const auto said = answerOf("/usr/bin/python3", { "-c", R"(
import sys, icalendar
calendar = icalendar.Calendar.from_ical(sys.stdin.buffer.read())
for event in calendar.walk('VEVENT'):
    print(event.decoded('dtstart').isoformat(), event.decoded('summary').decode())
)" },
            QByteArray::fromStdString(ics));
        int open = 0;
        for (const auto& r : logbook::remindersOf(b))
            if (!r.done) {
                ++open;
                QVERIFY2(said.contains(QByteArray::fromStdString(dateOf(r.day))), r.what.c_str());
            }
        QVERIFY(open > 1 && said.trimmed().count('\n') + 1 == open);
    }

    /// Outside: scipy.stats.linregress with Student's interval of the slope.
    void wearAgainstScipy()
    {
        QByteArray asked;
        std::vector<logbook::Wear> ours;
        for (int i = 0; i < 100; ++i) {
            Build b = demo();
            b.log.clear();
            double km = between(1000, 90'000);
            double left = between(8, 14);
            const int count = among(3, 9);
            for (int k = 0; k < count; ++k) {
                LogEntry e;
                e.date = dateOf(20'000 + 40 * k);
                e.odometer = { km * 1000, {}, Known::Measured, {}, {} };
                e.wear.push_back({ Axle::Front, Side::Left, { left * 1e-3, 0.0, Known::Measured, {}, {} }, {} });
                b.log.push_back(e);
                asked +=
                    QByteArray::number(km * 1000, 'g', 17) + "," + QByteArray::number(left * 1e-3, 'g', 17) + (k + 1 < count ? ";" : "\n");
                km += between(500, 4000);
                left -= between(0.1, 0.8);
            }
            ours.push_back(logbook::wearOf(b).front());
        }
        const auto answer = answerOf("/usr/bin/python3", { "-c", R"(
import sys
from scipy import stats
for line in sys.stdin:
    x, y = zip(*[map(float, p.split(',')) for p in line.split(';')])
    r = stats.linregress(x, y)
    print(repr(float(r.slope)), repr(float(stats.t.ppf(.975, len(x)-2)*r.stderr)))
)" },
            asked);
        const auto lines = answer.trimmed().split('\n');
        QCOMPARE(lines.size(), 100);
        for (int i = 0; i < 100; ++i) {
            const auto said = lines[i].split(' ');
            const auto& w = ours[static_cast<std::size_t>(i)];
            QVERIFY(near(w.slope, said[0].toDouble(), 1e-8));
            QVERIFY(near(w.slopeWidth, said[1].toDouble(), 1e-6));
        }
    }

    /// Outside: poppler renders the build sheet at 600 dpi; the bar of 100 mm at 1:2 is 50 mm within 0.1, its fonts are in the file, and
    /// nothing is cut off at the edges.
    void theSheetIsToScale()
    {
        QTemporaryDir folder;
        const Study s = study(demo());
        const auto leaf = report::buildSheet(s, "2026-05-02");
        for (const auto& [size, name] : { std::pair { paper::a4(), "a4" }, std::pair { paper::letter(), "letter" } }) {
            const auto pages = report::sheetsOf(leaf, size);
            const QString pdf = folder.filePath(QStringLiteral("%1.pdf").arg(name));
            QFile file(pdf);
            QVERIFY(file.open(QIODevice::WriteOnly));
            file.write(QByteArray::fromStdString(files::pdfOf(pages, leaf.title)));
            file.close();
            QVERIFY(answerOf("pdffonts", { pdf }).contains(" yes "));
            // Which page has the bar, and where: by the page itself.
            std::size_t with = pages.size();
            double y = 0;
            for (std::size_t i = 0; i < pages.size(); ++i)
                for (const auto& l : pages[i].letters)
                    if (l.text.starts_with("100 mm"))
                        with = i, y = l.at.y - 0.9e-3;
            QVERIFY(with < pages.size());
            // Grey values, a byte each, behind a header of three numbers.
            const auto pgm =
                answerOf("pdftoppm", { "-r", "600", "-gray", "-f", QString::number(with + 1), "-l", QString::number(with + 1), pdf });
            int wide = 0;
            int high = 0;
            int at = 0;
            QVERIFY(std::sscanf(pgm.constData(), "P5 %d %d 255%n", &wide, &high, &at) == 2);
            const auto grey = [&](int x, int row) { return static_cast<unsigned char>(pgm[at + 1 + row * wide + x]); };
            const double dots = 600 / 0.0254;
            QVERIFY(std::abs(wide - size.width * dots) < 3 && pgm.size() >= qsizetype(wide) * high);
            const int row = static_cast<int>(std::lround(y * dots));
            // The longest dark run near that row is the bar.
            int longest = 0;
            for (int dy = -6; dy <= 6; ++dy) {
                int run = 0;
                for (int x = 0; x < wide; ++x) {
                    run = grey(x, row + dy) < 140 ? run + 1 : 0;
                    longest = std::max(longest, run);
                }
            }
            for (int x = 0; x < wide; ++x)
                QVERIFY(grey(x, 40) > 200 && grey(x, high - 40) > 200);
            // From the middle of one end mark to that of the other.
            const double bar = longest / dots - paper::widthOf(paper::Pen::Outline);
            QVERIFY2(std::abs(bar - 50e-3) < 0.1e-3, QByteArray::number(bar * 1000).constData());
        }
    }
};

DEEPSTOP_TEST(CardOutsideTest)
#include "card_outside_test.moc"
