#include "stages/heat/heat_page.hpp"

#include "chapters/proving/calibrated.hpp"
#include "document.hpp"
#include "stages/course_chart.hpp"
#include "stages/heat/duty_sheets.hpp"
#include "files/refusal.hpp"
#include "report/duty_log.hpp"
#include "stages/sheets.hpp"
#include "widgets/log_columns_window.hpp"

#include <QComboBox>
#include <QDate>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QProgressBar>
#include <QPromise>
#include <QPushButton>
#include <QSlider>
#include <QTimer>
#include <QtConcurrent>

#include <algorithm>
#include <atomic>
#include <cmath>

namespace deepstop::app {

HeatPage::HeatPage(Document& document, QWidget* parent)
    : StagePage(document, HeatPage::id, Row::Corner, parent), chart_(new CourseChart(CourseChart::Of::Rise, this)),
      hand_(new QWidget(this)), duty_(new QComboBox), which_(new QComboBox), play_(new QPushButton(tr("Let it run"))),
      moment_(new QSlider(Qt::Horizontal)), clock_(new QTimer(this)), sure_(new QPushButton(tr("How sure?"))), fit_(new QPushButton),
      log_(new QPushButton(tr("From a drive's log…"))), progress_(new QProgressBar), job_(new QFutureWatcher<Draws>(this)),
      comparing_(new QFutureWatcher<Compared>(this)), fitting_(new QFutureWatcher<Fit>(this)), reading_(new QFutureWatcher<Drive>(this))
{
    column()->addWidget(chart_, 2);
    auto* row = new QHBoxLayout(hand_);
    row->setContentsMargins(14, 4, 14, 8);
    for (QComboBox* box : { duty_, which_ }) {
        box->setObjectName(QStringLiteral("choice"));
        box->setSizeAdjustPolicy(QComboBox::AdjustToContents);
        row->addWidget(box);
    }
    duty_->setAccessibleName(tr("Duty"));
    duty_->setToolTip(tr("What the brakes are asked to do, and judged by"));
    which_->setAccessibleName(tr("Axle"));
    play_->setCheckable(true);
    play_->setToolTip(tr("Four times as fast as on the road"));
    row->addWidget(play_);
    moment_->setRange(0, 1000);
    moment_->setValue(1000);
    moment_->setPageStep(50);
    moment_->setAccessibleName(tr("Moment of the duty"));
    row->addWidget(moment_, 20);
    sure_->setToolTip(tr("Draws cooling, friction, mass and split two thousand times, the same for every setup"));
    row->addWidget(sure_);
    row->addWidget(fit_);
    log_->setToolTip(tr("Speeds over time, CSV or GPX: its brakings become a duty"));
    row->addWidget(log_);
    progress_->setRange(0, 100);
    progress_->setMaximumWidth(160);
    progress_->hide();
    row->addWidget(progress_);
    row->addStretch(1);
    column()->addWidget(hand_);
    connect(duty_, &QComboBox::activated, this, &HeatPage::choose);
    connect(which_, &QComboBox::activated, this, [this] { refresh(); });
    connect(moment_, &QSlider::valueChanged, this, [this] {
        if (place() == dutyPlace())
            view()->setSheet(sheet(place()));
    });
    connect(play_, &QPushButton::toggled, this, &HeatPage::go);
    constexpr int frames = 50; // ms
    clock_->setInterval(frames);
    connect(clock_, &QTimer::timeout, this, &HeatPage::tick);
    connect(sure_, &QPushButton::clicked, this, &HeatPage::drawMany);
    connect(fit_, &QPushButton::clicked, this, &HeatPage::setCooling);
    connect(log_, &QPushButton::clicked, this, [this] {
        if (const auto path = QFileDialog::getOpenFileName(this, tr("A drive's log"), {}, tr("Logs (*.csv *.gpx *.txt)")); !path.isEmpty())
            takeLog(path);
    });
    connect(fitting_, &QFutureWatcher<Fit>::finished, this, &HeatPage::coolingFound);
    connect(reading_, &QFutureWatcher<Drive>::finished, this, &HeatPage::logRead);
    connect(comparing_, &QFutureWatcher<Compared>::finished, this, [this] {
        compared_ = comparing_->result();
        refresh();
    });
    connect(job_, &QFutureWatcher<Draws>::progressValueChanged, progress_, &QProgressBar::setValue);
    connect(job_, &QFutureWatcher<Draws>::finished, this, [this] {
        progress_->hide();
        sure_->setText(tr("How sure?"));
        if (!job_->isCanceled() && job_->future().resultCount() > 0)
            draws_ = job_->result();
        refresh();
    });
}

int HeatPage::rings() const
{
    const Study& study = document().study();
    return (study.after.front.corner ? 1 : 0) + (study.after.rear.corner ? 1 : 0);
}

int HeatPage::dutyPlace() const
{
    const Study& study = document().study();
    return document().build().duties.empty() || !study.before.complete() || !study.after.complete() ? -1 : rings();
}

QStringList HeatPage::placeNames() const
{
    QStringList names;
    for (const Axle each : { Axle::Front, Axle::Rear })
        if (document().study().after.at(each).corner)
            names << (each == Axle::Front ? tr("Front") : tr("Rear"));
    if (dutyPlace() >= 0)
        names << tr("Duty") << tr("Setups") << tr("Thermometer") << tr("Legs");
    return names;
}

Axle HeatPage::axleAt(int place) const { return place > 0 || !document().study().after.front.corner ? Axle::Rear : Axle::Front; }

Axle HeatPage::axle() const
{
    if (dutyPlace() >= 0 && place() >= dutyPlace())
        return which_->currentIndex() == 1 ? Axle::Rear : Axle::Front;
    return axleAt(place());
}

Sheet HeatPage::sheet(int place) const
{
    const Study& study = document().study();
    if (dutyPlace() < 0 || place < dutyPlace())
        return heatSheet(study, axleAt(place));
    if (place == dutyPlace())
        return dutySheet(study, axle(), moment_->value() / 1000.0);
    if (place == dutyPlace() + 2)
        return thermometerSheet(study);
    if (place == dutyPlace() + 3)
        return legsSheet(study);
    // What was run last stands until the next is: of as many setups, or nothing of it would be in its place.
    const std::vector<DutyHeat>& heats = compared_.heats;
    std::vector<RunOf> runs;
    const Build& build = *study.build;
    if (heats.size() == build.setups.size())
        for (std::size_t i = 0; i < heats.size(); ++i)
            runs.push_back({ &build.setups[i], &heats[i] });
    // Draws are shown as long as they are of what is there now.
    if (draws_.duty == study.of<DutyStudy>().duty.id && draws_.of.size() == runs.size())
        for (std::size_t i = 0; i < runs.size(); ++i)
            if (draws_.cars[i] == heats[i].car && !draws_.of[i].empty()) {
                runs[i].spread = spreadOf(heats[i], draws_.of[i]);
                runs[i].fails = partThatFails(heats[i], draws_.of[i]);
            }
    return setupsSheet(study, runs);
}

int HeatPage::placeFor(const Verdict& verdict) const
{
    if (verdict.id == "heat/gives-up")
        return std::max(0, dutyPlace());
    return verdict.axle == axleAt(0) ? 0 : 1;
}

void HeatPage::refreshRest()
{
    const bool duty = dutyPlace() >= 0 && place() >= dutyPlace();
    chart_->setVisible(!duty);
    hand_->setVisible(duty);
    if (!duty) {
        play_->setChecked(false);
        chart_->setStudy(document().study(), axle());
        return;
    }
    QStringList names;
    int current = 0;
    const DutyPlan* judged = figures::judgedDuty(document().build());
    for (const DutyPlan& each : document().build().duties) {
        if (&each == judged)
            current = static_cast<int>(names.size());
        names << QString::fromStdString(each.name.empty() ? each.id : each.name);
    }
    offer(duty_, names, current);
    offer(which_, { tr("Front"), tr("Rear") }, std::max(0, which_->currentIndex()));
    const bool one = place() == dutyPlace();
    for (QWidget* widget : std::initializer_list<QWidget*> { which_, play_, moment_ })
        widget->setVisible(one);
    sure_->setVisible(place() == dutyPlace() + 1);
    const Study& study = document().study();
    if (place() == dutyPlace() + 1)
        runSetups();
    log_->setVisible(place() == dutyPlace() + 3);
    log_->setEnabled(!reading_->isRunning());
    fit_->setVisible(place() == dutyPlace() + 2);
    fit_->setEnabled(!fitting_->isRunning());
    const bool session =
        std::ranges::any_of(study.build->tests, [&](const TestSession& each) { return each.setup == study.after.setup->id; });
    fit_->setText(session ? tr("Set the cooling from these") : tr("Begin a session"));
}

void HeatPage::choose(int index)
{
    Build build = document().build();
    build.car.duty = build.duties[static_cast<std::size_t>(index)].id;
    if (!(build == document().build()))
        document().setBuild(std::move(build), duty_->itemText(index));
}

void HeatPage::go(bool on)
{
    play_->setText(on ? tr("Stop it") : tr("Let it run"));
    if (!on) {
        clock_->stop();
        return;
    }
    if (moment_->value() >= moment_->maximum())
        moment_->setValue(0);
    clock_->start();
}

void HeatPage::tick()
{
    constexpr double faster = 4;
    const double length = heat::durationOf(document().study().of<DutyStudy>().duty);
    if (!(length > 0) || moment_->value() >= moment_->maximum()) {
        play_->setChecked(false);
        return;
    }
    const double step = faster * clock_->interval() * 1e-3 / length * moment_->maximum();
    moment_->setValue(moment_->value() + std::max(1, static_cast<int>(std::lround(step))));
}

void HeatPage::runSetups()
{
    const Study& study = document().study();
    if (comparing_->isRunning() || study.underWay || (compared_.build && *compared_.build == *study.build))
        return;
    comparing_->setFuture(QtConcurrent::run([build = study.build, duty = study.of<DutyStudy>().duty] {
        Compared c { build, {} };
        for (const Setup& each : build->setups)
            c.heats.push_back(dutyHeatOf(*build, partsOf(*build, each), duty));
        return c;
    }));
}

void HeatPage::takeLog(const QString& path)
{
    const auto asked = askColumns(path, this);
    if (!asked.given)
        return;
    log_->setEnabled(false);
    std::set<std::string> ids;
    for (const DutyPlan& each : document().build().duties)
        ids.insert(each.id);
    reading_->setFuture(QtConcurrent::run([path, ids, columns = asked.columns] {
        Drive drive;
        try {
            drive.plan = report::dutyOutOfLog(path.toStdString(), ids, columns);
        } catch (const files::Refusal& refusal) {
            drive.wrong = QString::fromUtf8(refusal.what());
        }
        return drive;
    }));
}

void HeatPage::logRead()
{
    log_->setEnabled(true);
    Drive drive = reading_->result();
    if (!drive.plan) {
        emit refused(drive.wrong);
        return;
    }
    Build build = document().build();
    const auto name = QString::fromStdString(drive.plan->name);
    build.car.duty = drive.plan->id;
    build.duties.push_back(std::move(*drive.plan));
    document().setBuild(std::move(build), tr("a drive's log: %1").arg(name));
}

void HeatPage::drawMany()
{
    if (job_->isRunning()) {
        job_->cancel();
        return;
    }
    const Study& study = document().study();
    const auto duty = study.of<DutyStudy>().duty;
    std::vector<figures::ThermalCar> cars;
    for (const Setup& each : study.build->setups)
        cars.push_back(dutyHeatOf(*study.build, partsOf(*study.build, each), duty).car);
    progress_->setValue(0);
    progress_->show();
    sure_->setText(tr("Give it up"));
    job_->setFuture(QtConcurrent::run([cars, duty](QPromise<Draws>& promise) {
        promise.setProgressRange(0, 100);
        constexpr int draws = 2000;
        std::atomic<bool> unwanted { false };
        std::vector<heat::Car> runs;
        for (const auto& car : cars)
            runs.push_back(figures::runnable(car));
        auto all = heat::spread(
            runs, duty, draws, {}, 1, 0,
            [&](double part) {
                if (promise.isCanceled())
                    unwanted = true;
                promise.setProgressValue(static_cast<int>(100 * part));
            },
            &unwanted);
        if (!unwanted)
            promise.addResult(Draws { cars, duty.id, std::move(all) });
    }));
}

void HeatPage::setCooling()
{
    const Study& study = document().study();
    Build build = document().build();
    const std::string ours = study.after.setup->id;
    if (std::ranges::none_of(build.tests, [&](const TestSession& each) { return each.setup == ours; })) {
        TestSession session;
        session.setup = ours;
        session.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
        build.tests.push_back(std::move(session));
        document().setBuild(std::move(build), tr("a session"));
        return;
    }
    const DutyPlan* plan = figures::judgedDuty(build);
    if (!plan) {
        emit refused(tr("There is no duty yet that they could be of."));
        return;
    }
    fit_->setEnabled(false);
    fitting_->setFuture(QtConcurrent::run([build = study.build, ours] {
        return Fit { build, ours, calibrationOf(*build, partsOf(*build, *findSetup(*build, ours)), *figures::judgedDuty(*build)) };
    }));
}

void HeatPage::coolingFound()
{
    fit_->setEnabled(true);
    const auto [build, ours, fit] = fitting_->result();
    if (!(*build == document().build())) {
        emit refused(tr("The build has changed meanwhile: set the cooling once more."));
        return;
    }
    const DutyPlan* plan = figures::judgedDuty(*build);
    if (!fit) {
        emit refused(tr("Two readings or more of this duty are wanted, each with its braking and the time after it; or stops that faded."));
        return;
    }
    if (fit->contradicts) {
        emit refused(tr("These readings contradict: no cooling fits them all. Look at thermometer, place, braking and duty."));
        return;
    }
    Sample s;
    const auto measured = temperaturesOf(*build, partsOf(*build, *findSetup(*build, ours)), *plan, figures::dutyOf(s, *build, *plan));
    document().setBuild(withCooling(*build, ours, *fit, measured),
        tr("cooling as measured, %1 ±%2 of the model's").arg(fit->cooling, 0, 'f', 2).arg(fit->coolingWidth, 0, 'f', 2));
}

} // namespace deepstop::app
