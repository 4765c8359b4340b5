#include "stages/stop/stop_page.hpp"

#include "document.hpp"
#include "files/refusal.hpp"
#include "print/leaf_window.hpp"
#include "report/test_plan.hpp"
#include "stages/course_chart.hpp"
#include "stages/sheets.hpp"
#include "stages/stop/live_view.hpp"
#include "stages/stop/stop_sheets.hpp"
#include "theme.hpp"
#include "widgets/log_columns_window.hpp"
#include "widgets/step_list.hpp"

#include <QDateTime>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QProgressBar>
#include <QPromise>
#include <QPushButton>
#include <QTextBrowser>
#include <QtConcurrent>

#include <algorithm>

namespace deepstop::app {

StopPage::StopPage(Document& document, QWidget* parent)
    : StagePage(document, StopPage::id, Row::Over, parent), chart_(new CourseChart(CourseChart::Of::Speed, this)), plan_(new QWidget(this)),
      inspection_(new StepList(plan_)), planned_(new QTextBrowser(plan_)), print_(new QPushButton(tr("Plan on paper…"))),
      live_(new LiveView(this)), foot_(new QWidget(this)), begin_(new QPushButton(tr("Begin a session"))),
      log_(new QPushButton(tr("From a logger's file…"))), progress_(new QProgressBar), reading_(new QFutureWatcher<Log>(this)),
      unwanted_(std::make_shared<std::atomic<bool>>(false))
{
    column()->addWidget(chart_, 2);
    auto* beside = new QHBoxLayout(plan_);
    beside->setContentsMargins(0, 0, 0, 0);
    beside->setSpacing(0);
    beside->addWidget(inspection_, 6);
    auto* right = new QVBoxLayout;
    right->addWidget(planned_, 1);
    right->addWidget(print_, 0, Qt::AlignLeft);
    right->setContentsMargins(8, 0, 12, 8);
    beside->addLayout(right, 5);
    inspection_->setHeadroom(6);
    inspection_->setObjectName(QStringLiteral("inspection"));
    planned_->setObjectName(QStringLiteral("plan"));
    planned_->setFrameShape(QFrame::NoFrame);
    planned_->setTabChangesFocus(true);
    column()->addWidget(plan_, 3);
    column()->addWidget(live_, 3);
    auto* row = new QHBoxLayout(foot_);
    row->setContentsMargins(14, 4, 14, 8);
    row->addWidget(begin_);
    row->addWidget(log_);
    progress_->setRange(0, 100);
    progress_->setMaximumWidth(160);
    progress_->hide();
    row->addWidget(progress_);
    row->addStretch(1);
    column()->addWidget(foot_);
    log_->setToolTip(tr("NMEA 0183, GPX with times, or CSV: hard stops are found by themselves"));
    connect(begin_, &QPushButton::clicked, this, &StopPage::beginSession);
    connect(log_, &QPushButton::clicked, this, [this] {
        if (reading_->isRunning()) {
            *unwanted_ = true;
            return;
        }
        if (const auto path = QFileDialog::getOpenFileName(this, tr("A logger's file"), {}, tr("Logs (*.nmea *.gpx *.csv *.txt *.log)"));
            !path.isEmpty())
            takeLog(path);
    });
    connect(reading_, &QFutureWatcher<Log>::progressValueChanged, progress_, &QProgressBar::setValue);
    connect(reading_, &QFutureWatcher<Log>::finished, this, &StopPage::logRead);
    connect(inspection_, &StepList::said, this, &StopPage::tick);
    connect(live_, &LiveView::found, this, &StopPage::stopFound);
    connect(live_, &LiveView::refused, this, &StagePage::refused);
    connect(print_, &QPushButton::clicked, this, &StopPage::printPlan);
}

StopPage::~StopPage()
{
    *unwanted_ = true;
    reading_->waitForFinished();
}

QStringList StopPage::placeNames() const
{
    return { tr("Road"), tr("Prediction"), tr("Plan"), tr("Runs"), tr("Traces"), tr("Fade"), tr("Live") };
}

Sheet StopPage::sheet(int place) const
{
    const Study& study = document().study();
    switch (place) {
    case Prediction:
        return predictionSheet(study);
    case Runs:
        return runsSheet(study, lastSession(study, Series::Compare));
    case Traces:
        return tracesSheet(study);
    case Fade:
        return fadeSheet(study, lastSession(study, Series::Fade));
    case Plan:
    case Live:
        return {};
    default:
        return roadSheet(study);
    }
}

int StopPage::placeFor(const Verdict& verdict) const
{
    if (verdict.id == "stop/saves")
        return Prediction;
    if (verdict.id == "stop/proven")
        return Runs;
    if (verdict.id.starts_with("stop/fades-") || verdict.id.starts_with("stop/fade-model-"))
        return Fade;
    return Road;
}

QString StopPage::planText() const { return planned_->toPlainText(); }

void StopPage::refreshRest()
{
    const Study& study = document().study();
    chart_->setVisible(place() == Road);
    plan_->setVisible(place() == Plan);
    live_->setVisible(place() == Live);
    foot_->setVisible(place() == Runs || place() == Traces || place() == Fade);
    if (place() == Road)
        chart_->setStudy(study, axle());
    if (reading_->isRunning())
        log_->setText(tr("Give it up"));
    if ((place() != Plan && place() != Live) || study.underWay || !study.after.setup)
        return;
    const auto plan = report::testPlanOf(study);
    if (place() == Live) {
        live_->setPlan(plan.speed, plan.cooling, study.system);
        return;
    }
    const auto session = lastSession(study, Series::Compare);
    std::vector<StepRow> rows;
    for (const auto& item : plan.inspection) {
        StepRow row;
        row.id = item.id;
        row.group = tr("Inspection, every test day");
        row.text = QString::fromStdString(item.text);
        if (session)
            for (const Tick& tick : study.build->tests[*session].inspected)
                if (tick.step == item.id) {
                    row.state = tick.state;
                    row.done = QString::fromStdString(tick.when);
                }
        rows.push_back(std::move(row));
    }
    const bool all = session && std::ranges::all_of(rows, [](const StepRow& r) { return r.state == Checked::Fine; });
    rows.front().group = all ? tr("Inspected: all of it")
        : session            ? tr("Inspection, every test day: not done yet")
                             : tr("Inspection: ticking the first line begins a session");
    for (auto& row : rows)
        row.group = rows.front().group;
    inspection_->setRows(rows);
    const auto text = QString::fromStdString(report::printed(study, plan, false));
    if (planned_->toPlainText().trimmed() != text.trimmed()) {
        planned_->document()->setDefaultFont(reading(13));
        planned_->setPlainText(text);
    }
}

TestSession StopPage::newSession() const
{
    const Study& study = document().study();
    TestSession session;
    session.setup = study.after.setup->id;
    session.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
    session.series = series();
    session.ran = report::frozen(*study.build, *study.after.setup);
    return session;
}

void StopPage::beginSession()
{
    Build build = document().build();
    build.tests.push_back(newSession());
    document().setBuild(std::move(build), tr("a session"));
}

void StopPage::tick(const std::string& step, Checked state)
{
    const Study& study = document().study();
    Build build = document().build();
    auto session = lastSession(study, Series::Compare);
    if (!session) {
        build.tests.push_back(newSession());
        session = build.tests.size() - 1;
    }
    auto& ticks = build.tests[*session].inspected;
    auto found = std::ranges::find(ticks, step, &Tick::step);
    if (found == ticks.end()) {
        ticks.push_back({});
        found = std::prev(ticks.end());
        found->step = step;
    }
    found->state = state;
    found->when = QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-dd HH:mm")).toStdString();
    document().setBuild(std::move(build), tr("inspection"));
}

void StopPage::takeLog(const QString& path)
{
    const auto asked = askColumns(path, this);
    if (!asked.given)
        return;
    *unwanted_ = false;
    progress_->setValue(0);
    progress_->show();
    reading_->setFuture(QtConcurrent::run([path, columns = asked.columns, unwanted = unwanted_](QPromise<Log>& promise) {
        promise.setProgressRange(0, 100);
        Log log;
        log.path = path;
        try {
            const auto told = [&](double part) {
                promise.setProgressValue(static_cast<int>(100 * part));
                return !*unwanted;
            };
            log.stops = report::stopsInLog(path.toStdString(), told, columns);
        } catch (const files::Refusal& refusal) {
            log.wrong = QString::fromUtf8(refusal.what());
        }
        promise.addResult(std::move(log));
    }));
    log_->setText(tr("Give it up"));
}

void StopPage::logRead()
{
    progress_->hide();
    log_->setText(tr("From a logger's file…"));
    if (reading_->future().resultCount() == 0)
        return;
    const Log log = reading_->result();
    if (!log.wrong.isEmpty()) {
        emit refused(log.wrong);
        return;
    }
    if (!log.stops.whole)
        return;
    if (log.stops.stops.empty()) {
        emit refused(tr("%1: no hard stop is in it.").arg(log.path));
        return;
    }
    Build build = document().build();
    TestSession session = report::sessionOf(build, document().study().after.setup->id,
        QDate::currentDate().toString(Qt::ISODate).toStdString(), QFileInfo(log.path).completeBaseName().toStdString(), log.stops.stops);
    session.series = series();
    build.tests.push_back(std::move(session));
    document().setBuild(std::move(build), tr("%1 stops of a log").arg(log.stops.stops.size()));
}

void StopPage::stopFound(const proving::FoundStop& stop)
{
    const Study& study = document().study();
    Build build = document().build();
    // Into the session of today that a receiver has begun, or a new one.
    const auto last = lastSession(study, Series::Compare);
    const auto today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    const bool goesOn = last && build.tests[*last].setup == study.after.setup->id && build.tests[*last].date == today
        && (build.tests[*last].from == MeasuredFrom::Hold || build.tests[*last].stops.empty());
    if (!goesOn)
        build.tests.push_back(newSession());
    TestSession& session = goesOn ? build.tests[*last] : build.tests.back();
    session.series = Series::Compare;
    session.from = MeasuredFrom::Hold;
    session.stops.push_back(report::measuredOf(stop));
    document().setBuild(std::move(build), tr("a stop from the receiver"));
}

void StopPage::printPlan()
{
    const Study& study = document().study();
    LeafWindow window(report::planLeaf(study, report::testPlanOf(study), QDate::currentDate().toString(Qt::ISODate).toStdString()), this);
    window.exec();
}

} // namespace deepstop::app
