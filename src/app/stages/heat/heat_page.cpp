#include "stages/heat/heat_page.hpp"

#include "chapters/proving/calibrated.hpp"
#include "stages/course_chart.hpp"
#include "stages/heat/duty_sheets.hpp"
#include "files/refusal.hpp"
#include "report/duty_log.hpp"
#include "stages/sheets.hpp"
#include "widgets/log_columns_window.hpp"
#include "window/application.hpp"

#include <QComboBox>
#include <QDate>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QProgressBar>
#include <QPushButton>
#include <QSlider>
#include <QTimer>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

HeatPage::HeatPage(Document& document, QWidget* parent)
    : StagePage(document, HeatPage::id, Row::Corner, parent), chart_(new CourseChart(CourseChart::Of::Rise, this)),
      hand_(new QWidget(this)), duty_(new QComboBox), which_(new QComboBox), play_(new QPushButton(tr("Play"))),
      moment_(new QSlider(Qt::Horizontal)), clock_(new QTimer(this)), sure_(new QPushButton(tr("How sure?"))), fit_(new QPushButton),
      log_(new QPushButton(tr("From a drive's log…"))), progress_(new QProgressBar)
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
    // What was begun for the build before is none of this one's.
    connect(&document, &Document::replaced, this, [this] {
        drawing_.cancel();
        comparing_.cancel();
        fitting_.cancel();
        reading_.cancel();
        draws_ = {};
        compared_ = {};
        comparedNext_ = nullptr;
        drawsEnded();
    });
}

void HeatPage::drawsEnded()
{
    progress_->hide();
    sure_->setText(tr("How sure?"));
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
        names << tr("Duty") << tr("Setups") << tr("Thermometer") << tr("Segments");
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
    // What was run of another state of the build is not shown as this one's: the sheet says that it is being worked out.
    const std::vector<DutyHeat>& heats = compared_.heats;
    std::vector<RunOf> runs;
    const Build& build = *study.build;
    if (compared_.build && (compared_.build == study.build || *compared_.build == build))
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
    if (const auto duty = shownIn(verdict, { { "duty", dutyPlace() } }))
        return std::max(0, *duty);
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
    int current = -1;
    const DutyPlan* judged = figures::judgedDuty(document().build());
    for (const DutyPlan& each : document().build().duties) {
        if (&each == judged)
            current = static_cast<int>(names.size());
        names << QString::fromStdString(each.name.empty() ? each.id : each.name);
    }
    // One that is named and not there is no other.
    duty_->setPlaceholderText(tr("“%1” is missing").arg(QString::fromStdString(document().build().car.duty)));
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
    log_->setEnabled(!reading_.isRunning());
    fit_->setVisible(place() == dutyPlace() + 2);
    fit_->setEnabled(!fitting_.isRunning());
    const bool session =
        std::ranges::any_of(study.build->tests, [&](const TestSession& each) { return each.setup == study.after.setup->id; });
    fit_->setText(session ? tr("Calibrate cooling") : tr("Begin a session"));
}

void HeatPage::choose(int index)
{
    const auto& duties = document().build().duties;
    if (index < 0 || static_cast<std::size_t>(index) >= duties.size())
        return;
    document().edit(duty_->itemText(index), [id = duties[static_cast<std::size_t>(index)].id](Build build) {
        build.car.duty = id;
        return build;
    });
}

void HeatPage::go(bool on)
{
    play_->setText(on ? tr("Stop") : tr("Play"));
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
    const auto isOf = [&](const std::shared_ptr<const Build>& build) { return build && (build == study.build || *build == *study.build); };
    if (study.underWay || document().isPreviewing() || isOf(compared_.build) || (comparing_.isRunning() && isOf(comparedNext_)))
        return;
    comparedNext_ = study.build;
    comparing_.start(
        [build = study.build, duty = study.of<DutyStudy>().duty](const JobTicket&) {
            Compared c { build, {} };
            for (const Setup& each : build->setups)
                c.heats.push_back(dutyHeatOf(*build, partsOf(*build, each), duty));
            return c;
        },
        [this](Compared c) {
            compared_ = std::move(c);
            refresh();
        },
        [this](const std::exception& wrong) { emit refused(saidBy(wrong)); });
}

void HeatPage::takeLog(const QString& path)
{
    askColumns(
        path, this, [this, path, of = document().stamp()](const AskedColumns& asked) { readLog(path, asked.columns, of); },
        [this](const QString& why) { emit refused(why); });
}

void HeatPage::readLog(const QString& path, const std::optional<files::LogColumns>& columns, const Stamp& of)
{
    if (!document().isOpen(of)) {
        emit refused(tr("%1 was chosen for the build that was open before. Nothing of it was put into this one.").arg(path));
        return;
    }
    log_->setEnabled(false);
    reading_.start(
        [path, columns](const JobTicket& ticket) {
            return report::dutyOutOfLog(path.toStdString(), columns, [&](double part) { return ticket.progress(part); });
        },
        [this](DutyPlan plan) {
            log_->setEnabled(true);
            const auto name = QString::fromStdString(plan.name);
            document().edit(tr("a drive's log: %1").arg(name), report::withDuty(std::move(plan)));
        },
        [this](const std::exception& wrong) {
            log_->setEnabled(true);
            emit refused(saidBy(wrong));
        });
}

void HeatPage::drawMany()
{
    if (drawing_.isRunning()) {
        drawing_.cancel();
        drawsEnded();
        return;
    }
    const Study& study = document().study();
    progress_->setValue(0);
    progress_->show();
    sure_->setText(tr("Cancel"));
    drawing_.start(
        [build = study.build, duty = study.of<DutyStudy>().duty](const JobTicket& ticket) {
            constexpr int draws = 2000;
            std::vector<figures::ThermalCar> cars;
            std::vector<heat::Car> runs;
            for (const Setup& each : build->setups) {
                cars.push_back(dutyHeatOf(*build, partsOf(*build, each), duty).car);
                runs.push_back(figures::runnable(cars.back()));
            }
            auto all = heat::spread(runs, duty, draws, {}, 1, 0, [&](double part) { ticket.progress(part); });
            return Draws { std::move(cars), duty.id, std::move(all) };
        },
        [this](Draws draws) {
            draws_ = std::move(draws);
            drawsEnded();
            refresh();
        },
        [this](const std::exception& wrong) {
            drawsEnded();
            emit refused(saidBy(wrong));
        },
        [this](int percent) { progress_->setValue(percent); });
}

void HeatPage::setCooling()
{
    const Study& study = document().study();
    if (!study.after.setup)
        return;
    const auto build = document().sharedBuild();
    const std::string ours = study.after.setup->id;
    if (std::ranges::none_of(build->tests, [&](const TestSession& each) { return each.setup == ours; })) {
        TestSession session;
        session.setup = ours;
        session.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
        document().edit(tr("a session"), [&](const Build& now) -> std::optional<Build> {
            if (!findSetup(now, ours))
                return {};
            Build with = now;
            with.tests.push_back(session);
            return with;
        });
        return;
    }
    if (!figures::judgedDuty(*build)) {
        emit refused(tr("The readings belong to no duty. %1.").arg(QString::fromStdString(noJudgedDuty(*build))));
        return;
    }
    fit_->setEnabled(false);
    fitting_.start(
        [build, ours](
            const JobTicket&) { return calibrationOf(*build, partsOf(*build, *findSetup(*build, ours)), *figures::judgedDuty(*build)); },
        [this, build, ours](std::optional<heat::Calibration> found) {
            fit_->setEnabled(true);
            coolingFound(build, ours, found);
        },
        [this](const std::exception& wrong) {
            fit_->setEnabled(true);
            emit refused(saidBy(wrong));
        });
}

void HeatPage::coolingFound(const std::shared_ptr<const Build>& build, const std::string& ours, const std::optional<heat::Calibration>& fit)
{
    const DutyPlan* plan = figures::judgedDuty(*build);
    if (!fit) {
        emit refused(tr("Two readings or more of this duty are wanted, each with its braking and the time after it; or stops that faded."));
        return;
    }
    if (fit->contradicts) {
        emit refused(tr("These readings contradict: no cooling fits them all. Look at thermometer, place, braking and duty."));
        return;
    }
    Evaluator s;
    const auto measured = temperaturesOf(*build, partsOf(*build, *findSetup(*build, ours)), *plan, figures::dutyOf(s, *build, *plan));
    // It is the cooling of the car and the readings it was worked out of: of others it is none.
    const bool put =
        document().edit(tr("cooling as measured, %1 ±%2 of the model's").arg(fit->cooling, 0, 'f', 2).arg(fit->coolingWidth, 0, 'f', 2),
            [&](const Build& now) -> std::optional<Build> {
                if (!(now == *build))
                    return {};
                return withCooling(now, ours, *fit, measured);
            });
    if (!put)
        emit refused(tr("The build has changed meanwhile: set the cooling once more."));
}

} // namespace deepstop::app
