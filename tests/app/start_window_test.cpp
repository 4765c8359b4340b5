/// The first page and the guide to a first answer, by keyboard and mouse.

#include "app/shown.hpp"
#include "widgets/guide_bar.hpp"
#include "window/start_page.hpp"

namespace {

/// A window on its first page.
struct AtStart {
    MainWindow window;
    AtStart()
    {
        window.showStart();
        window.show();
        window.activateWindow();
        if (!QTest::qWaitForWindowActive(&window))
            qWarning("the window did not become active");
    }
    StartCard* card(const char* name) { return window.startPage()->card(QString::fromLatin1(name)); }
    void worked()
    {
        QTRY_VERIFY_WITH_TIMEOUT(!window.document().study().underWay, 20000);
        everythingShown();
    }
};

} // namespace

class StartWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void theFirstPageIsNotADemo()
    {
        AtStart s;
        QVERIFY(s.window.startPage()->isVisible());
        QVERIFY(s.window.document().build().car.name.empty());
        for (const char* name : { "fits", "shims", "better", "everything", "halden-merle", "linnet", "drover-camper" }) {
            QVERIFY2(s.card(name) && s.card(name)->isVisible(), name);
            QVERIFY(!s.card(name)->accessibleName().isEmpty() && !s.card(name)->line().isEmpty());
        }
        // Its words are seen whole.
        for (StartCard* card : s.window.startPage()->findChildren<StartCard*>())
            QVERIFY2(card->height() >= card->heightForWidth(card->width()), qPrintable(card->text()));
    }

    void aDemoIsOpenedByKeyboardAlone()
    {
        AtStart s;
        for (int i = 0; i < 20 && QApplication::focusWidget() != s.card("linnet"); ++i)
            QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
        QCOMPARE(QApplication::focusWidget(), s.card("linnet"));
        QTest::keyClick(s.card("linnet"), Qt::Key_Return);
        QVERIFY(!s.window.startPage()->isVisible());
        QCOMPARE(s.window.document().build().car.name, std::string("Linnet"));
    }

    /// A build that was saved stands there with its headline, and opens.
    void recentBuildsHaveTheirHeadline()
    {
        OwnFile file;
        QSettings().setValue("recent", QStringList { file.path, "/gone/away.deepstop" });
        AtStart s;
        StartCard* card = s.window.startPage()->card(file.path);
        QVERIFY(card && !s.window.startPage()->card("/gone/away.deepstop"));
        QTRY_VERIFY_WITH_TIMEOUT(card->line().contains("heat store"), 20000);
        QTest::mouseClick(card, Qt::LeftButton);
        QVERIFY(!s.window.startPage()->isVisible());
        QCOMPARE(s.window.document().path(), file.path);
    }

    void aDamagedRecentBuildSaysWhy()
    {
        QTemporaryDir dir;
        const QString path = dir.filePath("broken.deepstop");
        QFile broken(path);
        QVERIFY(broken.open(QIODevice::WriteOnly) && broken.write("{") == 1);
        broken.close();
        QSettings().setValue("recent", QStringList { path });
        AtStart s;
        QTRY_VERIFY_WITH_TIMEOUT(!s.window.startPage()->card(path)->line().startsWith("being"), 20000);
        QTest::mouseClick(s.window.startPage()->card(path), Qt::LeftButton);
        QVERIFY(s.window.notice()->isVisible());
    }

    /// From nothing the guide says what is first; each reading leads to the next; with everything read it says the answer, and never
    /// before.
    void theGuideLeadsToAnAnswer()
    {
        AtStart s;
        QTest::mouseClick(s.card("fits"), Qt::LeftButton);
        s.worked();
        QVERIFY(s.window.guide()->isVisible());
        QVERIFY2(!s.window.guide()->text().isEmpty(), "it says what is next");
        // The Merle's kit with one reading gone: that reading is asked for, typed, and the answer stands.
        Build build = demo();
        const std::string bore = "/setups/1/front/rotor/bore_mm";
        const double wanted = *build.setups[1].front->rotor.bore.value;
        build.setups[1].front->rotor.bore = {};
        put(s.window.document(), build, "all but one");
        s.window.document().setPair({ {}, build.setups[1].id });
        s.worked();
        QCOMPARE(s.window.guide()->next(), bore);
        QVERIFY2(s.window.guide()->text().startsWith("Next: rotor bore"), qPrintable(s.window.guide()->text()));
        QTest::mouseClick(s.window.guide()->goButton(), Qt::LeftButton);
        auto* field = qobject_cast<DimensionField*>(QApplication::focusWidget());
        QVERIFY(field && field->pointer() == bore);
        QTest::keyClick(field, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(field, QString::number(wanted * 1000, 'f', 2) + " ±0.02");
        QTest::keyClick(field, Qt::Key_Return);
        s.worked();
        QVERIFY2(!s.window.guide()->text().startsWith("Next"), qPrintable(s.window.guide()->text()));
        const Verdict* worst = s.window.document().study().verdict(s.window.guide()->next());
        QVERIFY(worst && worst->level != Level::Unproven);
        // Ended, it is gone, and the build is an ordinary one.
        QTest::mouseClick(s.window.guide()->findChild<QPushButton*>("guide-end"), Qt::LeftButton);
        QVERIFY(!s.window.guide()->isVisible());
    }

    void instrumentsAreHeldAsTheReadingWants()
    {
        QVERIFY(holdOf("rotor bore") == Hold::Inside);
        QVERIFY(holdOf("rotor's overall height") == Hold::Depth);
        QVERIFY(holdOf("rotor diameter") == Hold::Outside);
        QVERIFY(holdOf("tyre grip") == Hold::Other);
        QVERIFY(holdOf("slot's middle from the hub face") == Hold::Depth);
        QVERIFY(holdOf("caliper slot width") == Hold::Inside);
        QVERIFY(holdOf("friction ring's inner diameter") == Hold::Inside);
        QVERIFY(holdOf("vent width") == Hold::Inside);
    }
};

DEEPSTOP_TEST(StartWindowTest)
#include "start_window_test.moc"
