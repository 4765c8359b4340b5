#include "core/support.hpp"
#include "verdict/judge.hpp"

#include <QTest>

using namespace deepstop;

namespace {

Figure gapOf(double nominal, double unsure, bool estimated = false)
{
    Figure f;
    f.value = nominal;
    f.worstCase = unsure;
    if (estimated)
        f.assumed.emplace_back("the barrel of a wheel");
    return f;
}

} // namespace

class JudgeTest : public QObject {
    Q_OBJECT
private slots:
    void gapsAreJudgedOnTheirWorstCase_data()
    {
        QTest::addColumn<double>("nominal");
        QTest::addColumn<double>("unsure");
        QTest::addColumn<bool>("estimated");
        QTest::addColumn<int>("level");
        const auto row = [](const char* name, double mm, double unsure, bool estimated, Level level) {
            QTest::newRow(name) << mm / 1000 << unsure / 1000 << estimated << int(level);
        };
        // Wanted: 3 mm.
        row("plenty", 6, 1, false, Level::Clear);
        row("just enough at worst", 4, 1, false, Level::Clear);
        row("enough, but not at worst", 3.4, 0.6, false, Level::Tight);
        row("little", 0.5, 0.3, false, Level::Tight);
        row("may touch", 0.5, 0.6, false, Level::Hits);
        row("touches", 0, 0, false, Level::Hits);
        row("overlaps", -2, 0.5, false, Level::Hits);
        row("plenty, estimated", 20, 1, true, Level::Unproven);
        row("little, estimated", 1, 0.5, true, Level::Unproven);
        row("likely overlaps, estimated", -0.5, 1, true, Level::Unproven);
        row("certainly overlaps, estimated", -5, 1, true, Level::Hits);
    }
    void gapsAreJudgedOnTheirWorstCase()
    {
        QFETCH(double, nominal);
        QFETCH(double, unsure);
        QFETCH(bool, estimated);
        QFETCH(int, level);
        QCOMPARE(int(gapLevel(gapOf(nominal, unsure, estimated), 3e-3)), level);
    }

    void aBiggerGapIsNeverJudgedWorse()
    {
        const auto badness = [](Level l) { return l == Level::Hits ? 3 : l == Level::Tight ? 2 : l == Level::Unproven ? 1 : 0; };
        for (const bool estimated : { false, true })
            for (double unsure = 0; unsure < 2e-3; unsure += 0.3e-3) {
                int last = 3;
                for (double gap = -6e-3; gap < 9e-3; gap += 0.05e-3) {
                    const int now = badness(gapLevel(gapOf(gap, unsure, estimated), 3e-3));
                    QVERIFY(now <= last);
                    last = now;
                }
            }
    }

    void nothingReadIsUnproven() { QCOMPARE(gapLevel(Figure {}, 3e-3), Level::Unproven); }

    void sentencesSayTheNumberTheyRestOn()
    {
        const auto study = deepstop::study(demo());
        QCOMPARE(judge::gapReason(study, gapOf(4.2e-3, 0.6e-3), 3e-3), std::string("3.6 mm at worst, 3.0 mm wanted"));
        QCOMPARE(judge::gapReason(study, gapOf(-2e-3, 0.5e-3), 3e-3), std::string("Overlaps by 2.0 mm, at least 1.5 mm"));
        QVERIFY(judge::gapReason(study, gapOf(0.2e-3, 0.5e-3), 3e-3).starts_with("May touch"));
        QVERIFY(judge::gapReason(study, gapOf(9e-3, 0.5e-3, true), 3e-3).find("rests on an estimate: the barrel of a wheel")
            != std::string::npos);
    }

    void longListsAreCut()
    {
        QCOMPARE(judge::joined({ "a" }), std::string("a"));
        QCOMPARE(judge::joined({ "a", "b", "c" }), std::string("a, b, c"));
        QCOMPARE(judge::joined({ "a", "b", "c", "d", "e" }), std::string("a, b, c and 2 more"));
        QCOMPARE(judge::joined({}), std::string());
    }

    /// Source: the same sum drawn 20,000 times with NumPy's normal distribution; likely width against its spread, first order.
    void theLikelyWidthIsTheSpreadOfManyDraws()
    {
        const Reading height { 0.1836, 0.5e-3, Known::Measured, {}, {} };
        const Reading half { 0.046, 0.8e-3, Known::Measured, {}, {} };
        const Reading barrel { 0.1924, 0.3e-3, Known::Measured, {}, {} };
        const auto gap = evaluate([&](Evaluator& s) { return s(barrel) - std::hypot(s(height), s(half)); });
        const auto drawn = answerOf("/usr/bin/python3",
            { "-c",
                "import numpy as n\nr=n.random.default_rng(7)\nN=20000\n"
                "g=r.normal(.1924,.3e-3,N)-n.hypot(r.normal(.1836,.5e-3,N),r.normal(.046,.8e-3,N))\nprint(g.mean(),g.std())" })
                               .trimmed()
                               .split(' ');
        QCOMPARE(drawn.size(), 2);
        QVERIFY(std::abs(drawn[0].toDouble() - *gap.value) < 0.02e-3);
        QVERIFY(near(drawn[1].toDouble(), gap.rootSumSquare, 0.03));
        QVERIFY(gap.worstCase > gap.rootSumSquare);
    }
};

DEEPSTOP_TEST(JudgeTest)
#include "judge_test.moc"
