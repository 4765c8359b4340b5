#include "window/main_window.hpp"

#include "drawing/fitting_label.hpp"
#include "quantity/instrument_names.hpp"
#include "stages/bench/bench_page.hpp"
#include "stages/centring/centring_page.hpp"
#include "stages/single_pages.hpp"
#include "stages/wheel/wheel_page.hpp"
#include "theme.hpp"
#include "drawing/dimension_field.hpp"
#include "widgets/guide_bar.hpp"
#include "widgets/instrument_bar.hpp"
#include "widgets/ledger.hpp"
#include "widgets/notice_bar.hpp"
#include "widgets/quick_sums.hpp"
#include "widgets/slip.hpp"
#include "widgets/ticked_line.hpp"
#include "widgets/work_rail.hpp"

#include <QApplication>
#include <QDate>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QScrollArea>
#include <QSettings>

namespace deepstop::app {

MainWindow::MainWindow(QWidget* parent)
    : QMainWindow(parent), stage_(&stages().front()), rail_(new WorkRail(stages(), this)), pages_(new QStackedWidget),
      slip_(new Slip(document_)), ledger_(new Ledger), notice_(new NoticeBar), guide_(new GuideBar(this)), car_(new QLineEdit),
      summary_(new FittingLabel(13, 9, 2, QFont::DemiBold, nullptr)), before_(new QComboBox), after_(new QComboBox),
      instrumentBar_(new InstrumentBar(instrument_, this))
{
    tellAccessibilityOfLines();
    setWindowIcon(QIcon(QStringLiteral(":/icons/deepstop.svg")));
    setAcceptDrops(true);
    resize(1280, 800);

    QWidget* header = makeHeader();
    makePages();
    layOut(header);
    connectParts();
    makeMenus();
    refreshTitle();
    setStage(WheelPage::id);
    // Nothing is typed into before somebody goes there: an instrument that types like a keyboard would name the car.
    page()->view()->setFocus(Qt::OtherFocusReason);
    if (QSettings().value(QStringLiteral("us")).toBool())
        document_.setUnits(UnitSystem::Us);
    if (QSettings().value(QStringLiteral("night")).toBool())
        setNight(true);
    refresh();
}

QWidget* MainWindow::makeHeader()
{
    auto* header = new QWidget;
    auto* headerRow = new QHBoxLayout(header);
    headerRow->setContentsMargins(16, 6, 14, 6);
    headerRow->setSpacing(8);
    car_->setFont(drafting(19));
    // The name is typed where it stands.
    car_->setObjectName(QStringLiteral("/car/name"));
    car_->setAccessibleName(tr("Name of the car"));
    car_->setPlaceholderText(tr("name of the car"));
    car_->setFrame(false);
    car_->setFixedWidth(210);
    // It looks like the heading it is.
    auto plain = car_->palette();
    plain.setColor(QPalette::Base, Qt::transparent);
    car_->setPalette(plain);
    connect(car_, &QLineEdit::editingFinished, this, &MainWindow::nameCar);
    auto* arrow = new QLabel(QStringLiteral("→"));
    before_->setAccessibleName(tr("Compared with"));
    after_->setAccessibleName(tr("Setup judged"));
    before_->setObjectName(QStringLiteral("before"));
    after_->setObjectName(QStringLiteral("after"));
    for (QComboBox* box : { before_, after_ }) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToContents);
        box->setMaximumWidth(210);
    }
    headerRow->addWidget(car_);
    headerRow->addWidget(before_);
    headerRow->addWidget(arrow);
    headerRow->addWidget(after_);
    headerRow->addSpacing(10);
    headerRow->addWidget(summary_, 1);
    return header;
}

void MainWindow::makePages()
{
    for (const Stage& stage : stages()) {
        StagePage* page = stage.make(document_, library_, this);
        pages_->addWidget(page);
        connect(page, &StagePage::dimensionEntered, slip_, &Slip::setReading);
        connect(page, &StagePage::verdictChosen, slip_, &Slip::choose);
        connect(page, &StagePage::readingWanted, this, &MainWindow::goToReading);
        connect(page, &StagePage::refused, this, [this](const QString& why) { notice_->say(why, true); });
    }
}

void MainWindow::layOut(QWidget* header)
{
    // Lists scroll and drawings scale: no page makes the window taller than a small screen.
    pages_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Ignored);
    pages_->setMinimumHeight(380);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(rail_);
    middle->addWidget(pages_, 1);
    middle->addWidget(slip_);
    auto* whole = new QWidget;
    auto* column = new QVBoxLayout(whole);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(header);
    column->addWidget(notice_);
    column->addWidget(guide_);
    column->addLayout(middle, 1);
    column->addWidget(instrumentBar_);
    column->addWidget(ledger_);
    // On a screen too small for all of it, or with letters twice as large, it scrolls; what has the focus is seen.
    auto* scroller = new QScrollArea(this);
    scroller->setFrameShape(QFrame::NoFrame);
    scroller->setWidgetResizable(true);
    scroller->setWidget(whole);
    scroller->setFocusPolicy(Qt::NoFocus);
    front_ = new QStackedWidget(this);
    front_->addWidget(scroller);
    setCentralWidget(front_);
    connect(qApp, &QApplication::focusChanged, scroller, [scroller, whole](QWidget*, QWidget* now) {
        if (now && whole->isAncestorOf(now))
            scroller->ensureWidgetVisible(now);
    });
}

void MainWindow::connectParts()
{
    connect(instrumentBar_, &InstrumentBar::take, this, &MainWindow::takeReading);
    connect(&library_, &LibraryStore::refused, this, [this](const QString& why) { notice_->say(why, true); });
    connect(rail_, &WorkRail::chosen, this, &MainWindow::setStage);
    connect(ledger_, &Ledger::chosen, this, [this](std::string_view chapter) { setStage(stageOf(chapter).id); });
    connect(slip_, &Slip::readingWanted, this, &MainWindow::goToReading);
    connect(guide_, &GuideBar::readingWanted, this, &MainWindow::goToReading);
    connect(guide_, &GuideBar::verdictWanted, this, [this](const std::string& id) {
        const Verdict* v = document_.study().verdict(id);
        if (!v)
            return;
        setStage(stageOf(v->chapter).id);
        slip_->choose(id);
    });
    connect(slip_, &Slip::chosenChanged, this, [this] {
        if (const Verdict* v = document_.study().verdict(slip_->chosen()))
            page()->reveal(*v);
    });
    const auto choosePair = [this] {
        document_.setPair({ before_->currentData().toString().toStdString(), after_->currentData().toString().toStdString() });
        slip_->setStage(*stage_);
    };
    connect(before_, &QComboBox::activated, this, choosePair);
    connect(after_, &QComboBox::activated, this, choosePair);
    connect(&document_, &Document::studied, this, &MainWindow::refresh);
    connect(&document_, &Document::titleChanged, this, &MainWindow::refreshTitle);
    connect(&document_, &Document::refused, this, [this](const QString& why) { notice_->say(why, true); });
    connect(&document_, &Document::changedOnDisk, this, &MainWindow::askWhose);
    connect(&document_.recovery(), &Recovery::failed, this, [this](const QString& why) {
        notice_->say(tr("No copy of this work can be kept for a crash: %1 Save it where there is room.").arg(why), true);
    });
    connect(&document_.recovery(), &Recovery::worksAgain, this, [this] { notice_->say(tr("Copies of this work are kept again."), false); });
    // What stands typed in a line is work, too, and ends before anything else begins.
    document_.drafts().watch(car_, [this] { return nameCar(); });
    document_.drafts().watchApplication();
    connect(slip_, &Slip::refused, this, [this](const QString& why) { notice_->say(why, true); });
    connect(&document_, &Document::unitsChanged, this, [this] {
        instrumentBar_->setUnits(document_.units());
        const bool us = document_.units() == UnitSystem::Us;
        (us ? us_ : metric_)->setChecked(true);
        QSettings().setValue(QStringLiteral("us"), us);
    });
}

void MainWindow::makeStart()
{
    start_ = new StartPage(this);
    front_->addWidget(start_);
    connect(start_, &StartPage::newCar, this, &MainWindow::startGuided);
    connect(start_, &StartPage::demoWanted, this, [this](const QString& path) {
        if (mayReplace())
            openDemo(path);
    });
    connect(start_, &StartPage::buildWanted, this, [this](const QString& path) {
        if (mayReplace())
            openFile(path);
    });
    connect(start_, &StartPage::copyWanted, this, [this](const QString& copy) {
        front_->setCurrentIndex(0);
        takeUp(copy);
    });
}

void MainWindow::startGuided(GuidedQuestion question)
{
    if (!mayReplace())
        return;
    startNew();
    if (question == GuidedQuestion::Everything)
        return;
    setStage(question == GuidedQuestion::Fits   ? StageId(WheelPage::id)
            : question == GuidedQuestion::Shims ? StageId(CentringPage::id)
                                                : StageId(CarPage::id));
    guide_->ask(question);
    guide_->refresh(document_.study());
}

MainWindow::~MainWindow()
{
    // Fields and pages look at the document to their end: they go before it. Hidden first, so that no focus leaves a field that is half
    // gone.
    hide();
    qDeleteAll(findChildren<QDialog*>(Qt::FindDirectChildrenOnly));
    delete takeCentralWidget();
}

StagePage* MainWindow::page(StageId stage) const
{
    for (int i = 0; i < pages_->count(); ++i)
        if (auto* page = static_cast<StagePage*>(pages_->widget(i)); page->stage() == stage)
            return page;
    return nullptr;
}

Axle MainWindow::axleInHand() const { return page()->axle(); }

bool MainWindow::connectInstrument(const QString& address)
{
    if (const auto why = instrument_.open(address); !why.isEmpty()) {
        notice_->say(why, true);
        return false;
    }
    QSettings().setValue(QStringLiteral("instrument"), address);
    notice_->hide();
    return true;
}

void MainWindow::takeReading(bool again)
{
    auto* field = qobject_cast<DimensionField*>(QApplication::focusWidget());
    const auto* entry = field ? document_.entry(field->pointer()) : nullptr;
    const auto steady = instrument_.steady();
    if (!entry || !steady) {
        notice_->say(!entry ? tr("No dimension is open for a reading: click one, or press F2 for the first.")
                            : tr("Nothing to take: the instrument does not show a stable reading."),
            true);
        return;
    }
    if (steady->dimension != entry->address.style.dimension) {
        notice_->say(
            tr("The %1 shows %2; %3 is %4. Nothing was taken.")
                .arg(QString::fromStdString(instrumentInWords(steady->instrument)),
                    QString::fromUtf8(deepstop::tr(nameOf(steady->dimension)).data()), QString::fromStdString(entry->address.label),
                    QString::fromUtf8(deepstop::tr(nameOf(entry->address.style.dimension)).data())),
            true);
        return;
    }
    if (const auto why = refusal(entry->address, steady->value, document_.units()); !why.empty()) {
        notice_->say(QString::fromStdString(why), true);
        return;
    }
    notice_->hide();
    auto name = steady->instrument;
    std::ranges::replace(name, '-', ' ');
    Reading reading { steady->value, {}, Known::Measured, name, QDate::currentDate().toString(Qt::ISODate).toStdString() };
    // An instrument coarser than its kind, or of no kind known here, is as good as its last figure.
    if (const double half = 2 * steady->resolution; steady->dimension != Dimension::Length || half > uncertainty(reading, true))
        reading.plusMinus = half;
    instrument_.saidTaken();
    field->take(reading, again);
}

bool MainWindow::nameCar()
{
    if (!document_.drafts().has(car_->objectName()))
        return true;
    const auto name = car_->text().trimmed().toStdString();
    if (const auto why = withFact(document_.build(), "/car/name", name).refusal; !why.empty()) {
        notice_->say(QString::fromStdString(why), true);
        return false;
    }
    car_->setModified(false);
    document_.drafts().settle(car_->objectName());
    document_.edit(tr("name of the car"), [&](const Build& now) { return withFact(now, "/car/name", name).build; });
    return true;
}

void MainWindow::copySetup()
{
    document_.drafts().finish();
    std::string id;
    const bool made =
        document_.edit(tr("copy of a setup"), [&, of = document_.study().after.setup->id](const Build& now) -> std::optional<Build> {
            const Setup* setup = findSetup(now, of);
            if (!setup)
                return {};
            Setup copy = *setup;
            // An id that is not used yet; the name shows which setup was copied.
            int number = 2;
            while (findSetup(now, copy.id + "-" + std::to_string(number)))
                ++number;
            copy.id += "-" + std::to_string(number);
            copy.name += " (" + std::to_string(number) + ")";
            // The first setup is what the others lean on; a proposal made from it has its own front to change.
            if (!copy.front)
                if (const Corner* corner = cornerOf(now, *setup, Axle::Front))
                    copy.front = *corner;
            id = copy.id;
            Build build = now;
            build.setups.push_back(std::move(copy));
            return build;
        });
    if (made)
        document_.setPair({ document_.study().before.setup->id, id });
}

void MainWindow::renameSetup()
{
    document_.drafts().finish();
    const auto id = document_.study().after.setup->id;
    bool given = false;
    const auto name = QInputDialog::getText(
        this, tr("Name of the setup"), tr("Name"), QLineEdit::Normal, QString::fromStdString(document_.study().after.setup->name), &given)
                          .trimmed();
    if (!given || name.isEmpty())
        return;
    document_.edit(tr("name of a setup"), [&](const Build& now) -> std::optional<Build> {
        Build build = now;
        Setup* setup = setupIn(build, id);
        if (!setup)
            return {};
        setup->name = name.toStdString();
        return build;
    });
}

void MainWindow::setStage(StageId stage)
{
    stage_ = findStage(stage);
    rail_->setCurrent(stage);
    pages_->setCurrentWidget(page(stage));
    page(stage)->refresh();
    slip_->setStage(*stage_);
}

void MainWindow::refresh()
{
    rail_->setStudy(document_.study());
    ledger_->setStudy(document_.study());
    // Only what is seen is drawn; the other stages draw when they are turned to.
    page()->refresh();
    if (!document_.study().verdict(slip_->chosen()))
        slip_->setStage(*stage_);
    else
        slip_->refreshSoon(); // the drawing and the ledger come first
    guide_->refresh(document_.study());
    refreshSetups();
    summary_->say(QString::fromStdString(document_.study().summary));
    const auto car = QString::fromStdString(document_.build().car.name);
    if (!document_.drafts().has(car_->objectName())) {
        car_->setText(car);
        car_->setCursorPosition(0);
    }
    car_->setToolTip(car.isEmpty() ? car_->accessibleName() : car);
}

void MainWindow::refreshSetups()
{
    const Study& study = document_.study();
    for (const auto& [box, setup] : { std::pair { before_, study.before.setup }, std::pair { after_, study.after.setup } }) {
        const QSignalBlocker quiet(box);
        QStringList shown;
        QStringList wanted;
        for (int i = 0; i < box->count(); ++i)
            shown << box->itemText(i) + box->itemData(i).toString();
        for (const Setup& s : study.build->setups)
            wanted << QString::fromStdString(s.name + s.id);
        if (shown != wanted) {
            box->clear();
            for (const Setup& s : study.build->setups)
                box->addItem(QString::fromStdString(s.name), QString::fromStdString(s.id));
        }
        if (setup)
            box->setCurrentIndex(box->findData(QString::fromStdString(setup->id)));
    }
}

void MainWindow::refreshTitle()
{
    setWindowTitle(QStringLiteral("%1[*] – Deep Stop").arg(document_.title()));
    setWindowModified(document_.isModified());
}

void MainWindow::goToReading(const std::string& pointer)
{
    // The stage in hand first, then whichever stage draws that reading.
    std::vector<StageId> order { stage_->id };
    for (const Stage& stage : stages())
        order.push_back(stage.id);
    for (const StageId id : order) {
        if (!page(id)->showReading(pointer))
            continue;
        if (id != stage_->id)
            setStage(id);
        if (auto* field = page()->view()->field(pointer))
            field->setFocus(Qt::TabFocusReason);
        return;
    }
    // No drawing shows it (a wheel's station, a weighing): its card still does.
    slip_->setReading(pointer);
}

void MainWindow::setNight(bool night)
{
    setDark(night);
    night_->setChecked(night);
    QSettings().setValue(QStringLiteral("night"), night);
    refresh();
}

} // namespace deepstop::app
