/// The page Search, as it is used: by mouse and keys, from the library to a setup of the build.

#include "app/shown.hpp"
#include "stages/search/funnel_view.hpp"
#include "stages/search/kit_table.hpp"
#include "stages/search/search_page.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTableView>
#include <QTableWidget>
#include <QTextBrowser>
#include <QTimer>

using namespace deepstop;
using namespace deepstop::app;

namespace {

struct AtSearch : Shown {
    SearchPage* page;
    AtSearch()
    {
        QTest::keyClick(&window, Qt::Key_F, Qt::ControlModifier);
        everythingShown();
        page = dynamic_cast<SearchPage*>(window.page());
    }
    /// What is shown, for who wants to look at it. DEEPSTOP_PICTURE: where to.
    void show(const char* name)
    {
        if (const char* folder = std::getenv("DEEPSTOP_PICTURE"))
            window.grab().save(QStringLiteral("%1/%2.png").arg(QString::fromUtf8(folder), QString::fromUtf8(name)));
    }
    /// A short one: the master cylinder stays.
    void search()
    {
        auto boxes = page->findChildren<QCheckBox*>();
        for (QCheckBox* box : boxes)
            if (box->accessibleName().contains("master") && !box->isChecked())
                QTest::mouseClick(box, Qt::LeftButton, {}, QPoint(8, box->height() / 2));
        QTest::mouseClick(page->searchButton(), Qt::LeftButton);
        page->finish();
        everythingShown();
    }
};

} // namespace

class SearchWindowTest : public QObject {
    Q_OBJECT
private slots:
    void kitsThatGoAreListedAndPutIn()
    {
        AtSearch s;
        QVERIFY(s.page);
        QVERIFY(s.page->summary()->text().contains("Press Search"));
        s.search();
        QVERIFY2(s.page->summary()->text().contains("kits tried"), qPrintable(s.page->summary()->text()));
        QVERIFY2(s.page->summary()->text().contains("nothing is proven"), qPrintable(s.page->summary()->text()));
        const auto result = s.page->result();
        QVERIFY(result && !result->front.empty());
        QCOMPARE(s.page->table()->model()->rowCount(), static_cast<int>(result->front.size()));
        // What was found is judged as a study of it alone would: the first line's kit into the build.
        QTest::mouseClick(
            s.page->table()->viewport(), Qt::LeftButton, {}, s.page->table()->visualRect(s.page->table()->model()->index(0, 0)).center());
        QVERIFY(s.page->putInButton()->isEnabled());
        const std::size_t before = s.window.document().build().setups.size();
        QTimer::singleShot(0, [] {
            auto* dialog = qobject_cast<QInputDialog*>(QApplication::activeModalWidget());
            dialog->setTextValue("From the shelf");
            dialog->accept();
        });
        QTest::mouseClick(s.page->putInButton(), Qt::LeftButton);
        s.window.document().settle();
        everythingShown();
        QCOMPARE(s.window.document().build().setups.size(), before + 1);
        QCOMPARE(s.window.document().study().after.setup->id, std::string("from-the-shelf"));
        // Its bracket and shims are not made yet.
        QVERIFY(s.window.document().study().headline.fits != Headline::Fits::Yes);
        // What was found was of the build before.
        QVERIFY(!s.page->result());
    }

    /// Front and rear together: chosen by keys, in two lines each, drawn for either axle, asked about and put in with both corners.
    void wholeCarIsSearchedAndPutIn()
    {
        AtSearch s;
        s.page->scope()->setFocus();
        QTest::keyClick(s.page->scope(), Qt::Key_Down);
        QCOMPARE(s.page->limit(search::Gain::Locks)->text(), QStringLiteral("0"));
        s.search();
        s.show("whole-car");
        const auto result = s.page->result();
        QVERIFY(result && result->kits.size() > 10);
        QVERIFY2(s.page->summary()->text().contains("Both axles"), qPrintable(s.page->summary()->text()));
        const auto* model = s.page->table()->model();
        QVERIFY(model->index(0, 0).data().toString().contains('\n'));
        QVERIFY(model->headerData(KitTable::firstGain, Qt::Horizontal).toString().contains("weights added"));
        // The other axle's section, and nothing is forgotten.
        QTest::keyClick(s.page->table(), Qt::Key_Down);
        const int row = s.page->table()->currentIndex().row();
        QTest::keyClick(s.page->axleChoice(), Qt::Key_Down);
        everythingShown();
        QCOMPARE(s.page->result(), result);
        QCOMPARE(s.page->table()->selectionModel()->selectedRows().front().row(), row);
        s.show("whole-car-rear");
        // A pair that was lost: both axles' parts are asked about.
        s.page->setPlace(SearchPage::Lost);
        everythingShown();
        const auto& funnel = result->funnel;
        const auto locks = std::ranges::find(funnel, std::string("limit/rear_locks_later_percent"), &search::Lost::check);
        QVERIFY(locks != funnel.end());
        s.page->funnel()->choose(static_cast<int>(locks - funnel.begin()));
        everythingShown();
        s.show("whole-car-lost");
        QVERIFY(s.page->losers()->item(0, 2)->text().contains("rear:"));
        QVERIFY(std::ranges::any_of(funnel, [](const search::Lost& lost) { return lost.title.ends_with("(rear)"); }));
        s.page->losers()->setCurrentCell(0, 0);
        QTest::keyClick(s.page->losers(), Qt::Key_Return);
        s.page->finish();
        everythingShown();
        QVERIFY(s.page->whyRear(search::Kind::Rotor)->isVisible());
        QVERIFY(!s.page->whyText()->toPlainText().isEmpty());
        s.show("whole-car-why");
        s.page->setPlace(SearchPage::Kits);
        everythingShown();
        QTimer::singleShot(0, [] {
            auto* dialog = qobject_cast<QInputDialog*>(QApplication::activeModalWidget());
            dialog->setTextValue("Both axles");
            dialog->accept();
        });
        QTest::mouseClick(s.page->putInButton(), Qt::LeftButton);
        s.window.document().settle();
        const Setup& setup = s.window.document().build().setups.back();
        QCOMPARE(setup.id, std::string("both-axles"));
        QVERIFY(setup.front && setup.rear);
        QVERIFY(!setup.front->rotor.from.empty() && !setup.rear->rotor.from.empty());
    }

    void lostKitsOpenTheirReasons()
    {
        AtSearch s;
        s.search();
        s.page->setPlace(SearchPage::Lost);
        everythingShown();
        const auto& funnel = s.page->result()->funnel;
        QVERIFY(funnel.size() > 3);
        QTest::mouseClick(s.page->funnel(), Qt::LeftButton, {}, s.page->funnel()->bar(2).center().toPoint());
        QCOMPARE(s.page->losers()->rowCount(), static_cast<int>(funnel[2].nearest.size()));
        QTest::keyClick(s.page->funnel(), Qt::Key_Down);
        QCOMPARE(s.page->funnel()->chosen(), 3);
        QVERIFY(s.page->funnel()->accessibleDescription().contains("left"));
        s.page->losers()->setCurrentCell(0, 0);
        QTest::keyClick(s.page->losers(), Qt::Key_Return);
        s.page->finish();
        everythingShown();
        QCOMPARE(s.page->place(), static_cast<int>(SearchPage::WhyNot));
        QVERIFY2(s.page->whyText()->toPlainText().contains("It does not go"), qPrintable(s.page->whyText()->toPlainText()));
    }

    void limitThatIsNoFigureIsRefused()
    {
        AtSearch s;
        QString said;
        connect(s.page, &StagePage::refused, [&](const QString& why) { said = why; });
        QLineEdit* price = s.page->limit(search::Gain::Price);
        price->setText("cheap");
        QTest::mouseClick(s.page->searchButton(), Qt::LeftButton);
        QVERIFY2(said.contains("Price"), qPrintable(said));
        QVERIFY(!s.page->result());
        // A limit in US units is one of metric units, too.
        price->setText("500");
        QLineEdit* weight = s.page->limit(search::Gain::Weight);
        weight->setText("30 lb");
        s.search();
        for (const search::Kit& kit : s.page->result()->kits) {
            QVERIFY(search::of(kit.gains, search::Gain::Price) <= 500);
            QVERIFY(search::of(kit.gains, search::Gain::Weight) <= 30 * 0.45359237);
        }
    }

    /// What was found for one axle, or in the place of one setup, is not shown as another's.
    void otherAxleForgetsWhatWasFound()
    {
        AtSearch s;
        s.search();
        QVERIFY(s.page->result());
        QTest::keyClick(s.page->axleChoice(), Qt::Key_Down);
        everythingShown();
        QVERIFY(!s.page->result());
        QCOMPARE(s.page->table()->model()->rowCount(), 0);
        QVERIFY(!s.page->putInButton()->isEnabled());
    }

    void noWheelIsSaid()
    {
        AtSearch s;
        QString said;
        connect(s.page, &StagePage::refused, [&](const QString& why) { said = why; });
        auto* wheels = s.page->findChild<QListWidget*>();
        for (int i = 0; i < wheels->count(); ++i)
            wheels->item(i)->setCheckState(Qt::Unchecked);
        QTest::mouseClick(s.page->searchButton(), Qt::LeftButton);
        QVERIFY2(said.contains("wheel"), qPrintable(said));
    }

    /// Another figure on the plot, two kits beside each other, and what is beaten too.
    void plotAndTableGoTogether()
    {
        AtSearch s;
        s.search();
        QTest::mouseClick(s.page->plot(), Qt::LeftButton, {}, s.page->plot()->placeOf(3).toPoint());
        QCOMPARE(s.page->table()->selectionModel()->selectedRows().size(), 1);
        const int row = s.page->table()->selectionModel()->selectedRows().front().row();
        s.page->table()->selectionModel()->select(
            s.page->table()->model()->index(row == 0 ? 1 : 0, 0), QItemSelectionModel::Select | QItemSelectionModel::Rows);
        const auto labels = s.page->findChildren<QLabel*>();
        QVERIFY(std::ranges::any_of(labels, [](const QLabel* label) { return label->text().contains(" against "); }));
        QVERIFY(!s.page->putInButton()->isEnabled());
        for (QCheckBox* box : s.page->findChildren<QCheckBox*>())
            if (box->accessibleName().contains("beats"))
                QTest::mouseClick(box, Qt::LeftButton, {}, QPoint(8, box->height() / 2));
        QCOMPARE(s.page->table()->model()->rowCount(), static_cast<int>(s.page->result()->kits.size()));
    }
};

DEEPSTOP_TEST(SearchWindowTest)
#include "search_window_test.moc"
