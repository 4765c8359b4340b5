#include "window/main_window.hpp"

#include "stages/bench/bench_page.hpp"
#include "theme.hpp"
#include "widgets/notice_bar.hpp"
#include "widgets/save_dialog.hpp"
#include "widgets/quick_sums.hpp"
#include "widgets/plot_tables.hpp"
#include "widgets/symptom_window.hpp"
#include "widgets/slip.hpp"
#include "widgets/work_rail.hpp"
#include "print/leaf_window.hpp"
#include "report/ask.hpp"
#include "report/letters.hpp"
#include "report/purchases.hpp"
#include "report/sheets.hpp"
#include "report/test_plan.hpp"

#include <QActionGroup>
#include <QCoreApplication>
#include <QDate>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>
#include <QMenuBar>
#include <QMessageBox>
#include <QSettings>

#include <array>

namespace deepstop::app {

void MainWindow::makeMenus()
{
    makeFileMenu();
    makeEditMenu();
    makeViewMenu();
    makeToolsMenu();
    makeHelpMenu();
    refreshRecent();
}

void MainWindow::makeFileMenu()
{
    auto* file = menuBar()->addMenu(tr("&File"));
    file->addAction(tr("&New build"), QKeySequence::New, this, [this] {
        if (mayReplace())
            startNew();
    });
    file->addAction(tr("&Open…"), QKeySequence::Open, this, [this] {
        const auto path =
            QFileDialog::getOpenFileName(this, tr("Open a build"), QFileInfo(document_.path()).absolutePath(), tr(fileFilter));
        if (!path.isEmpty() && mayReplace())
            openFile(path);
    });
    file->addAction(tr("S&tart page"), this, &MainWindow::showStart);
    recent_ = file->addMenu(tr("Open &recent"));
    auto* demos = file->addMenu(tr("Open a &demo"));
    for (const QFileInfo& demo : QDir(demoFolder()).entryInfoList({ QStringLiteral("*.deepstop") }, QDir::Files, QDir::Name))
        demos->addAction(demo.completeBaseName(), this, [this, path = demo.absoluteFilePath()] {
            if (mayReplace())
                openDemo(path);
        });
    file->addSeparator();
    file->addAction(tr("&Save"), QKeySequence::Save, this, &MainWindow::save);
    file->addAction(tr("Save &as…"), QKeySequence::SaveAs, this, &MainWindow::saveAs);
    file->addAction(tr("&Unsaved work from earlier…"), this, [this] { offerRecovery(true); });
    file->addSeparator();
    addPapers(file->addMenu(tr("&Print")));
    const auto savePlateAs = [this](bool ring) {
        const auto path = askWhereToSave(this, ring ? tr("Save the hub-face ring") : tr("Save the bracket"),
            ring ? QStringLiteral("ring.step") : QStringLiteral("bracket.step"),
            tr("STEP solid (*.step);;DXF drawing (*.dxf);;PDF drawing (*.pdf);;SVG drawing (*.svg);;STL, fit check only (*.stl)"),
            QStringLiteral("step"));
        if (!path.isEmpty())
            savePlate(path, ring);
    };
    file->addAction(tr("Save the &bracket as…"), this, [savePlateAs] { savePlateAs(false); });
    file->addAction(tr("Save the &hub-face ring as…"), this, [savePlateAs] { savePlateAs(true); });
    file->addAction(tr("Save this &kit as…"), this, [this] {
        const auto path = askWhereToSave(
            this, tr("Save this kit"), QStringLiteral("kit.json"), tr("Kit (*.json);;List of its parts (*.csv)"), QStringLiteral("json"));
        if (!path.isEmpty())
            saveKit(path);
    });
    file->addAction(tr("Take &in a kit…"), this, [this] {
        const auto path =
            QFileDialog::getOpenFileName(this, tr("Take in a kit"), QFileInfo(document_.path()).absolutePath(), tr("Kit (*.json)"));
        if (!path.isEmpty())
            takeInKit(path);
    });
    file->addSeparator();
    file->addAction(tr("&Quit"), QKeySequence::Quit, this, &QWidget::close);
}

void MainWindow::showPaper(const std::function<report::Leaf(const Study&, const std::string& today)>& make)
{
    LeafWindow window(make(document_.wholeStudy(), QDate::currentDate().toString(Qt::ISODate).toStdString()), this);
    window.exec();
}

void MainWindow::addPapers(QMenu* menu)
{
    using report::Leaf;
    const auto paper = [&](const QString& name, std::function<Leaf(const Study&, const std::string&)> make) {
        menu->addAction(name, this, [this, make = std::move(make)] { showPaper(make); });
    };
    menu->addAction(tr("&Templates, 1:1…"), QKeySequence::Print, this, [this] { showTemplate(); });
    menu->addSeparator();
    paper(tr("&Job card…"), [](const Study& s, const std::string& today) { return report::jobCard(s, jobcard::cardOf(s), today); });
    paper(tr("T&orque sheet…"), [](const Study& s, const std::string& today) { return report::torqueSheet(s, jobcard::cardOf(s), today); });
    paper(tr("&Build sheet…"), report::buildSheet);
    paper(tr("&Fitting sheet for others…"), report::fittingSheet);
    menu->addSeparator();
    paper(tr("Still to &measure…"), [](const Study& s, const std::string& today) {
        Leaf leaf { "Still to measure", report::titleLine(s, today), {}, {} };
        leaf.text(report::benchSheet(s));
        return leaf;
    });
    paper(tr("&Letter to the vendor…"), [](const Study& s, const std::string& today) {
        Leaf leaf { "Letter to the vendor", report::titleLine(s, today), {}, {} };
        leaf.text(report::vendorLetter(s));
        return leaf;
    });
    paper(tr("&Faults, to the vendor…"), [this](const Study& s, const std::string& today) {
        Leaf leaf { "Faults of what came", report::titleLine(s, today), {}, {} };
        if (report::faultLetter(s).empty()) {
            leaf.text("No fault is noted in the check list of the parts.");
            return leaf;
        }
        const auto folder = QFileInfo(document_.path()).absolutePath().toStdString();
        return report::letterTo(s.after.setup->vendor.empty() ? "the vendor" : s.after.setup->vendor, { s }, today, folder);
    });
    paper(tr("What to b&uy…"), [](const Study& s, const std::string& today) { return report::purchaseSheet(*s.build, today); });
    paper(tr("Test &plan…"), [](const Study& s, const std::string& today) { return report::planLeaf(s, report::testPlanOf(s), today); });
    paper(tr("&Stops, before and after…"), [](const Study& s, const std::string& today) {
        Leaf leaf { "Stops, before and after", report::titleLine(s, today), {}, {} };
        leaf.text(report::provingSheet(s));
        return leaf;
    });
}

void MainWindow::makeEditMenu()
{
    auto* edit = menuBar()->addMenu(tr("&Edit"));
    auto* undo = document_.undoStack().createUndoAction(this, tr("Undo"));
    undo->setShortcut(QKeySequence::Undo);
    auto* redo = document_.undoStack().createRedoAction(this, tr("Redo"));
    redo->setShortcuts({ QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y) });
    edit->addActions({ undo, redo });
    edit->addSeparator();
    edit->addAction(tr("&Copy this setup as a new proposal"), this, &MainWindow::copySetup);
    edit->addAction(tr("Re&name this setup…"), this, &MainWindow::renameSetup);
    edit->addSeparator();
    edit->addAction(tr("&Try the first remedy of the open check"), QKeySequence(Qt::CTRL | Qt::Key_Return), this, [this] {
        if (!slip_->tryFirstRemedy())
            notice_->say(tr("The open check has no remedy to try."), true);
    });
    edit->addAction(tr("First &dimension"), QKeySequence(Qt::Key_F2), this, [this] { page()->view()->focusFirst(); });
}

void MainWindow::makeViewMenu()
{
    auto* view = menuBar()->addMenu(tr("&View"));
    // Nine figures, then D for Design and F for Search.
    static constexpr std::array stageKeys { Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4, Qt::Key_5, Qt::Key_6, Qt::Key_7, Qt::Key_8,
        Qt::Key_9, Qt::Key_D, Qt::Key_F };
    std::size_t number = 0;
    for (const Stage& stage : stages())
        view->addAction(stage.name(), QKeySequence(Qt::CTRL | stageKeys[number++]), this, [this, id = stage.id] { setStage(id); });
    view->addSeparator();
    auto* units = new QActionGroup(this);
    metric_ = view->addAction(tr("&Metric units"), this, [this] { document_.setUnits(UnitSystem::Metric); });
    us_ = view->addAction(tr("&US units"), this, [this] { document_.setUnits(UnitSystem::Us); });
    for (QAction* action : { metric_, us_ }) {
        action->setCheckable(true);
        units->addAction(action);
    }
    metric_->setChecked(true);
    view->addAction(tr("Switch &units"), QKeySequence(Qt::CTRL | Qt::Key_M), this,
        [this] { (document_.units() == UnitSystem::Metric ? us_ : metric_)->trigger(); });
    night_ = view->addAction(tr("&Night colours"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N), this, [this](bool on) { setNight(on); });
    night_->setCheckable(true);
    view->addSeparator();
    view->addAction(tr("Zoom &in"), QKeySequence::ZoomIn, this, [this] { page()->view()->zoomIn(); });
    view->addAction(tr("Zoom &out"), QKeySequence::ZoomOut, this, [this] { page()->view()->zoomOut(); });
    view->addAction(tr("&Whole sheet"), QKeySequence(Qt::CTRL | Qt::Key_0), this, [this] { page()->view()->zoomToFit(); });
    view->addAction(tr("Plots as &tables…"), QKeySequence(Qt::Key_F8), this, [this] {
        auto* tables = findChild<PlotTables*>();
        if (!tables)
            tables = new PlotTables(document_, this);
        tables->show();
        tables->raise();
        tables->activateWindow();
    });

    for (const auto& [text, keys, by] : { std::tuple { tr("Ne&xt sheet"), QKeySequence(Qt::ALT | Qt::Key_Right), 1 },
             std::tuple { tr("&Previous sheet"), QKeySequence(Qt::ALT | Qt::Key_Left), -1 } })
        view->addAction(text, keys, this, [this, by = by] {
            if (page()->placeCount() < 2)
                setStage(BenchPage::id);
            else
                page()->setPlace((page()->place() + by + page()->placeCount()) % page()->placeCount());
        });
}

void MainWindow::makeToolsMenu()
{
    auto* tools = menuBar()->addMenu(tr("&Tools"));
    tools->addAction(tr("&Calculator…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_K), this, [this] {
        if (!sums_) {
            sums_ = new QuickSums(this);
            connect(&document_, &Document::unitsChanged, sums_, [this] { sums_->setUnits(document_.units()); });
        }
        sums_->setUnits(document_.units());
        sums_->show();
        sums_->raise();
        sums_->activateWindow();
    });

    tools->addAction(tr("Causes of a &symptom…"), QKeySequence(Qt::Key_F7), this, [this] {
        if (!symptoms_) {
            symptoms_ = new SymptomWindow(document_, this);
            connect(symptoms_, &SymptomWindow::readingWanted, this, [this](const std::string& pointer) {
                goToReading(pointer);
                raise();
                activateWindow();
            });
        }
        symptoms_->QDialog::show();
        symptoms_->raise();
        symptoms_->activateWindow();
    });
    tools->addAction(tr("Parts &library…"), QKeySequence(Qt::CTRL | Qt::Key_L), this, [this] { showLibrary(); });
    tools->addAction(tr("&Widen a split caliper…"), this, [this] { showWidening(); });
    tools->addSeparator();
    tools->addAction(tr("&Connect an instrument…"), QKeySequence(Qt::CTRL | Qt::Key_I), this, [this] {
        QSettings settings;
        auto known = Instrument::ports();
        if (const auto last = settings.value(QStringLiteral("instrument")).toString(); !last.isEmpty())
            known.prepend(last);
        known.removeDuplicates();
        bool given = false;
        const auto address = QInputDialog::getItem(this, tr("Connect an instrument"),
            tr("Serial port, as /dev/ttyUSB0, or a port of this machine, as 127.0.0.1:7201"), known, 0, true, &given);
        if (given && !address.trimmed().isEmpty())
            connectInstrument(address);
    });
    tools->addAction(tr("&Take reading"), QKeySequence(Qt::Key_F4), this, [this] { takeReading(false); });
    tools->addAction(tr("&Repeat reading"), QKeySequence(Qt::SHIFT | Qt::Key_F4), this, [this] { takeReading(true); });
    tools->addAction(tr("&Runout from a slow turn…"), QKeySequence(Qt::CTRL | Qt::Key_R), this, [this] { showRunout(); });
}

void MainWindow::makeHelpMenu()
{
    auto* help = menuBar()->addMenu(tr("&Help"));
    help->addAction(tr("&Keys"), QKeySequence::HelpContents, this, [this] {
        QMessageBox::information(this, tr("Keys"),
            tr("Ctrl+1 … Ctrl+9, Ctrl+D\tthe stages;  Alt+←, Alt+→  the sheets of a stage\n"
               "Ctrl+N\ta new build\n"
               "Ctrl+Enter\ttry the first remedy of the open check\n"
               "Ctrl+P\ta template of the caliper, to cut and try in a wheel; all papers: File, Print\n"
               "F2\tfirst dimension of the drawing\n"
               "Tab, Shift+Tab\tnext and previous dimension, in measuring order\n"
               "Enter\tput the reading in and go on\n"
               "Esc\tleave a dimension as it was\n"
               "28 ±0.05\ta reading and its plus-or-minus;  33?  an estimate;  28.01; 27.99  read twice\n"
               "Ctrl+M\tmetric or US units\n"
               "Ctrl+Shift+N\tnight colours\n"
               "Ctrl+Shift+K\tcalculator;  Ctrl+L  the parts library\n"
               "F7\tcauses of a symptom;  F8  the plots as tables\n"
               "Ctrl+I\tconnect an instrument;  Ctrl+R  runout from a slow turn\n"
               "F4\ttake the stable reading and go on;  Shift+F4  read the same once more\n"
               "Ctrl++, Ctrl+−, Ctrl+0\tzoom; arrows or dragging move the sheet"));
    });
    help->addAction(tr("&About Deep Stop"), this, [this] {
        QMessageBox::about(this, tr("About Deep Stop"),
            tr("<p><b>Deep Stop %1</b></p><p>Does it fit, is it centred, is it really better: by how much, and how sure are we?</p>"
               "<p>Brakes are life-critical. This program advises and never approves. Follow the maker's data and local law; have "
               "adapters, machined "
               "knuckles and altered parts judged by a qualified engineer or licensed mechanic. Turn every wheel by hand before the car "
               "moves, and "
               "test only where it is legal and safe.</p><p>Free software under the GNU General Public License, version 3 or later.</p>")
                .arg(QCoreApplication::applicationVersion()));
    });
}

} // namespace deepstop::app
