/// Balance as its users drive it: what can be set is dragged on the plot or typed, loads are chosen and added, the foot is entered.

#include "app/shown.hpp"
#include "chapters/balance/balance_chapter.hpp"
#include "drawing/fact_field.hpp"
#include "stages/balance/balance_page.hpp"

#include <QComboBox>

namespace {

struct AtBalance : Shown {
    BalancePage* page;
    explicit AtBalance(int place, const QString& file = merle()) : Shown(file), page(window.page<BalancePage>())
    {
        window.resize(1280, 800);
        window.setStage(BalancePage::id);
        page->setPlace(place);
        everythingShown();
    }
    [[nodiscard]] DrawingView* view() const { return page->view(); }
    const Study& study() { return known(); }
    const Verdict& verdict(const char* id) { return *study().verdict(id); }
    Handle handle(const std::string& end)
    {
        for (const Handle& h : view()->sheet().handles)
            if (h.pointer.ends_with(end))
                return h;
        qFatal("no handle %s", end.c_str());
    }
    void drag(const Handle& h, double millimetres, bool release = true)
    {
        const QPoint from = view()->toScreen(h.at).toPoint();
        const QPoint to = view()->toScreen(h.at + h.along * millimetres).toPoint();
        QTest::mousePress(view(), Qt::LeftButton, {}, from);
        QTest::mouseMove(view(), (from + to) / 2);
        QTest::mouseMove(view(), to);
        if (release)
            QTest::mouseRelease(view(), Qt::LeftButton, {}, to);
    }
};

QString fileOf(const char* name) { return MainWindow::demoFolder() + "/" + name + ".deepstop"; }

} // namespace

class BalanceWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    /// The rail knows it, between centring and heat.
    void standsBetweenCentringAndHeat()
    {
        const auto ids = stageIds();
        const auto at = std::ranges::find(ids, BalancePage::id);
        QVERIFY(at != ids.end());
        QCOMPARE(*std::prev(at), CentringPage::id);
        QCOMPARE(*std::next(at), HeatPage::id);
    }

    /// The valve's knee pulled out along the line lets the rear brake more, at once and as one step of undo.
    void theKneeIsDraggedOnThePlot()
    {
        AtBalance s(BalancePage::Split);
        const double before = *s.verdict("balance/rear-use").figure.value;
        const Handle knee = s.handle("/rear_knee_bar");
        s.drag(knee, 30, false);
        QVERIFY(s.window.document().isPreviewing());
        everythingShown();
        QVERIFY(*s.verdict("balance/rear-use").figure.value > before + 0.02);
        // The handle stays under the hand.
        const QPointF moved = s.handle("/rear_knee_bar").at - knee.at;
        QVERIFY2(
            std::abs(QPointF::dotProduct(moved, knee.along) - 30) < 8, qPrintable(QString::number(QPointF::dotProduct(moved, knee.along))));
        QTest::mouseRelease(s.view(), Qt::LeftButton, {}, s.view()->toScreen(knee.at + knee.along * 30).toPoint());
        QVERIFY(*s.window.document().build().setups[0].hydraulics->rearKneePressure.value > 36e5);
        QCOMPARE(s.window.document().undoStack().count(), 1);
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(s.window.document().build() == demo());
    }

    /// Rear friction is pulled up at the rear's handle: past the ideal line the order turns about, and that is said.
    void moreRearFrictionTurnsTheOrderAbout()
    {
        AtBalance s(BalancePage::Split, fileOf("linnet"));
        QVERIFY(!isBad(s.verdict("balance/lock-order").level));
        const Handle rear = s.handle("/pad/friction");
        const auto& handles = s.view()->sheet().handles;
        const auto up =
            std::ranges::find_if(handles, [](const Handle& h) { return h.along.y() < 0 && h.pointer.ends_with("/pad/friction"); });
        QVERIFY(up != handles.end() && up->pointer != rear.pointer);
        const Handle handle = *up;
        s.drag(handle, handle.metresPerMillimetre > 0 ? 0.25 / handle.metresPerMillimetre : 0);
        everythingShown();
        QCOMPARE(s.verdict("balance/lock-order").level, Level::Stop);
        QVERIFY(s.verdict("balance/lock-order").reason.find("turns round") != std::string::npos);
        const auto& callouts = s.view()->sheet().callouts;
        QVERIFY(std::ranges::any_of(
            callouts, [](const Callout& c) { return c.verdict == "balance/lock-order" && c.text.startsWith("rear locks"); }));
    }

    void theKneeIsTypedInAnyUnit()
    {
        AtBalance s(BalancePage::Split);
        auto* field = s.field("/setups/0/hydraulics/rear_knee_bar");
        QVERIFY(field && field->isVisible());
        QTest::mouseClick(field, Qt::LeftButton);
        s.type(field, "725 psi");
        QTest::keyClick(field, Qt::Key_Return);
        QVERIFY(near(*s.window.document().build().setups[0].hydraulics->rearKneePressure.value, 725 * 6894.757293, 1e-6));
    }

    /// Each load has its own plot and verdict; clicking the verdict's callout selects it.
    void loadsAreChosenAndJudged()
    {
        AtBalance s(BalancePage::Split, fileOf("drover-camper"));
        QVERIFY(s.page->load()->isVisible());
        QCOMPARE(s.page->load()->count(), 3);
        const QString alone = s.view()->sheet().subtitle;
        s.page->load()->setFocus();
        QTest::keyClick(s.page->load(), Qt::Key_Down);
        everythingShown();
        QCOMPARE(s.page->load()->currentText(), QString("full"));
        QVERIFY(s.view()->sheet().subtitle != alone && s.view()->sheet().subtitle.contains("full"));
        QVERIFY(std::ranges::any_of(s.view()->sheet().callouts, [](const Callout& c) { return c.verdict == "balance/lock-order-1"; }));
    }

    /// A third load: named in the free field, then filled row by row.
    void aLoadIsAddedByTyping()
    {
        AtBalance s(BalancePage::Loads);
        const auto loads = s.window.document().build().loads.size();
        auto* name = s.view()->fact("/loads/-/name");
        QVERIFY(name && name->isVisible());
        QTest::mouseClick(name->editor(), Qt::LeftButton);
        s.type(name->editor(), "with a roof box");
        QTest::keyClick(name->editor(), Qt::Key_Return);
        everythingShown();
        QCOMPARE(s.window.document().build().loads.size(), loads + 1);
        QCOMPARE(s.window.document().build().loads.back().name, "with a roof box");
        const std::string at = "/loads/" + std::to_string(loads) + "/carried/";
        const auto enter = [&](const std::string& pointer, const QString& text) {
            auto* field = s.field(pointer);
            QVERIFY2(field && field->isVisible(), pointer.c_str());
            QTest::mouseClick(field, Qt::LeftButton);
            s.type(field, text);
            QTest::keyClick(field, Qt::Key_Return);
            everythingShown();
        };
        enter(at + "-/mass_kg", "50");
        // Until it has a place the load proves nothing.
        const std::string id = "balance/lock-order-" + std::to_string(loads + 1);
        QCOMPARE(s.verdict(id.c_str()).level, Level::Unproven);
        enter(at + "0/behind_front_axle_mm", "1500");
        enter(at + "0/height_mm", "1.6 m");
        QVERIFY(s.verdict(id.c_str()).figure.value.has_value());
    }

    /// What nobody said is asked for, and saying it by keys mends it.
    void theKindOfCircuitsIsAskedForAndSaid()
    {
        AtBalance s(BalancePage::Foot);
        Build build = s.window.document().build();
        build.setups[0].hydraulics->circuits = Circuits::Unknown;
        put(s.window.document(), build, "not said");
        everythingShown();
        QCOMPARE(s.verdict("balance/circuits").level, Level::Unproven);
        auto* choice = s.view()->fact("/setups/0/hydraulics/circuits");
        QVERIFY(choice && choice->isVisible());
        choice->editor()->setFocus();
        QTest::keyClick(choice->editor(), Qt::Key_Down);
        everythingShown();
        QVERIFY(s.window.document().build().setups[0].hydraulics->circuits != Circuits::Unknown);
        QVERIFY(s.verdict("balance/circuits").figure.value.has_value());
    }

    /// A remedy of the advice is tried from the slip, as one step that can be taken back.
    void adviceIsTriedFromTheSlip()
    {
        AtBalance s(BalancePage::Split);
        const Verdict& use = s.verdict("balance/rear-use");
        QVERIFY(!use.remedies.empty());
        put(s.window.document(), *use.remedies.front().in(s.build()), "remedy");
        everythingShown();
        QVERIFY(*s.verdict("balance/rear-use").figure.value >= rearUseWanted);
        QTest::keyClick(&s.window, Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(s.window.document().build() == demo());
    }

    /// Every sheet draws something and clips no lettering, in both unit systems, by day and night, with readings missing.
    void everySheetIsDrawn_data()
    {
        QTest::addColumn<QString>("file");
        QTest::addColumn<bool>("lacking");
        for (const char* name : { "halden-merle", "linnet", "drover-camper" })
            for (const bool lacking : { false, true })
                QTest::addRow("%s%s", name, lacking ? " lacking" : "") << fileOf(name) << lacking;
    }
    void everySheetIsDrawn()
    {
        QFETCH(QString, file);
        QFETCH(bool, lacking);
        AtBalance s(BalancePage::Foot, file);
        if (lacking) {
            Build build = s.window.document().build();
            build.setups[0].hydraulics->masterBore = {};
            build.setups[0].hydraulics->masterStroke = {};
            build.car.centreOfMassHeight = {};
            put(s.window.document(), build, "less");
            everythingShown();
        }
        for (const bool dark : { false, true }) {
            setDark(dark);
            for (int place = 0; place < s.page->placeCount(); ++place) {
                s.page->setPlace(place);
                everythingShown();
                QVERIFY2(inked(s.view()->grab().toImage()) > 3000, qPrintable(QString::number(place)));
                const Sheet& sheet = s.view()->sheet();
                QVERIFY(!sheet.title.isEmpty());
                const QRectF all(s.view()->rect());
                for (const Lettering& l : sheet.letters)
                    QVERIFY2(all.contains(s.view()->toScreen(l.at)), qPrintable(l.text));
                if (lacking && place >= BalancePage::Split && place <= BalancePage::Adhesion)
                    QVERIFY2(sheet.subtitle.contains("acks"), qPrintable(sheet.subtitle));
            }
        }
    }
};

DEEPSTOP_TEST(BalanceWindowTest)
#include "balance_window_test.moc"
